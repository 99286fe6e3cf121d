"""Several like pieces: chosen once, each read by itself, counted for all."""

from __future__ import annotations

from typing import Any

from splay.piece import read_piece
from splay.plan import plan
from splay.shop import workbench
from tests.api.base import ApiCase
from workshop.pieces.models import PieceRow
from workshop.pieces.record import hang_record, read_record


class Batch(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.made = self.new(name="Six", make=6)
        self.path = f"/api/pieces/{self.made['id']}"

    def read(self, proof: str, typed: str, copy: int) -> Any:
        body = {"typed": typed, "copy_number": copy}
        return self.call("PUT", f"{self.path}/readings/{proof}", body)

    def hung(self) -> dict[str, Any]:
        return dict(self.call("GET", "/api/pieces").json()[0])

    def test_a_hole_is_read_on_each_and_moves_only_its_own(self) -> None:
        for copy, typed in ((1, "14"), (3, "15"), (3, "15.2"), (6, "13.1")):
            self.assertEqual(self.read("bore.l1", typed, copy).status_code, 200)
        readings = self.call("GET", self.path).json()["readings"]
        self.assertEqual(
            sorted((r["copy_number"], r["typed"]) for r in readings), [(1, "14"), (3, "15.2"), (6, "13.1")]
        )
        history = self.call("GET", f"{self.path}/readings/bore.l1/history?copy_number=3").json()
        self.assertEqual([event["what"] for event in history], ["corrected", "answered"])
        self.call("DELETE", f"{self.path}/readings/bore.l1?copy_number=3")
        left = self.call("GET", self.path).json()["readings"]
        self.assertEqual(sorted(r["copy_number"] for r in left), [1, 6])
        self.assertEqual(self.read("bore.l1", "14", 61).status_code, 422)

    def test_what_is_made_is_counted_for_all(self) -> None:
        one = {**self.made["piece"], "make": 1}
        spare = {"spare": 1, "practice": 2}
        for document, legs in ((one, 3 + 3), (self.made["piece"], 18 + 3)):
            leg = {**document["supports"][0]["leg"], **spare}
            piece = read_piece({**document, "supports": [{**document["supports"][0], "leg": leg}]})
            self.assertEqual(plan(piece, workbench()).batches[0].make.quantity.value, legs)
        bench = self.call("POST", "/api/pieces", {"start": "bench"}).json()["piece"]
        self.assertEqual(plan(read_piece(bench), workbench()).counts, ())
        [count] = plan(read_piece({**bench, "make": 12}), workbench()).counts
        self.assertEqual(count.quantity.value, 12 * len(bench["members"]))

    def test_the_rack_counts_over_all_of_them(self) -> None:
        hung = self.hung()
        marks = len(
            [p for p in plan(read_piece(self.made["piece"]), workbench()).proofs if p.station == "top"]
        )
        self.assertEqual(
            (hung["make"], hung["next"]["name"], hung["next"]["proofs"]), (6, "top", 6 * marks)
        )
        # Each is begun at its holes: the first of them to wait says where the work is.
        for copy in range(1, 7):
            for leg in "123":
                if (copy, leg) != (4, "3"):
                    self.assertEqual(self.read(f"bore.l{leg}", "14", copy).status_code, 200)
        after = self.hung()["next"]
        self.assertEqual((after["name"], after["answered"], after["proofs"]), ("boring", 17, 18))

    def test_it_goes_out_and_comes_back_with_each_ones_own_readings(self) -> None:
        self.read("bore.l1", "14", 1)
        self.read("bore.l1", "15", 2)
        record = read_record(self.call("GET", f"{self.path}/record").json())
        PieceRow.objects.all().delete()
        row = hang_record(record, None)
        assert row is not None
        self.assertEqual(sorted(row.readings.values_list("copy", "value")), [(1, 14.0), (2, 15.0)])
        self.assertEqual(row.reading_events.count(), 2)
