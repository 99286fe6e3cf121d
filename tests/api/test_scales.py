"""A reading means what it meant when it was taken, whatever becomes of the tools."""

from __future__ import annotations

import importlib
from typing import Any

from django.apps import apps
from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st

from splay.piece import write_piece
from splay.piece.starters import starter
from splay.reading import HowRead, as_shown_now, how_read
from splay.setups.scales import off_square, proving_scale
from splay.shop import Shop, read_shop, ready_shops, workbench, write_shop
from splay.work.proofs import KINDS
from tests.api.base import ApiCase
from workshop.pieces.models import ReadingEvent, ReadingRow

BORE = KINDS["bore"]


def with_gauge(at_square: float, counts: str) -> dict[str, Any]:
    """A shop whose gauge for holes reads that way."""
    shop = write_shop(workbench())
    for tool in shop["tools"]:
        if tool["kind"] in ("digital_gauge", "bevel_gauge"):
            tool["owned"] = tool["kind"] == "bevel_gauge"
            if tool["kind"] == "bevel_gauge":
                tool["scale"] = {**tool["scale"], "at_square": at_square, "counts": counts}
    return shop


class Conversion(SimpleTestCase):
    @given(st.floats(0, 45), st.sampled_from((0.0, 90.0, 180.0)), st.sampled_from(("up", "down")))
    def test_the_lean_is_the_same_on_every_scale_there_and_back(
        self, lean: float, at_square: float, counts: str
    ) -> None:
        there = read_shop(with_gauge(at_square, counts))
        home = workbench()
        mine = how_read(BORE, home)
        assert mine is not None
        value = mine.at_square + lean * (1 if mine.counts == "up" else -1)
        shown = as_shown_now(value, mine, BORE, there)
        self.assertAlmostEqual(off_square(proving_scale(there)[1], shown), lean, 9)
        self.assertAlmostEqual(as_shown_now(shown, how_read(BORE, there), BORE, home), value, 9)

    def test_77_on_a_protractor_is_13_on_one_that_shows_0_at_square(self) -> None:
        # Common practice, no source: the two hold the same leg.
        shop = read_shop(with_gauge(0, "up"))
        self.assertAlmostEqual(as_shown_now(77.0, HowRead(90, "down", "protractor"), BORE, shop), 13.0)

    def test_lengths_read_alike_everywhere(self) -> None:
        self.assertIsNone(how_read(KINDS["gap"], workbench()))
        self.assertEqual(as_shown_now(120.0, None, KINDS["gap"], workbench()), 120.0)


class Scales(ApiCase):
    """A stool whose first hole was read as 77 on a bevel gauge that shows 90 at square."""

    def setUp(self) -> None:
        super().setUp()
        self.use(with_gauge(90, "down"))
        self.made = self.new()
        self.path = f"/api/pieces/{self.made['id']}"
        answered = self.call("PUT", f"{self.path}/readings/bore.l1", {"typed": "77"})
        self.assertEqual(answered.status_code, 200, answered.content)
        self.before = self.leg()

    def use(self, shop: dict[str, Any]) -> None:
        answer = self.call("PUT", "/api/shop", {"shop": shop})
        self.assertEqual(answer.status_code, 200, answer.content)

    def reading(self) -> dict[str, Any]:
        [one] = self.call("GET", self.path).json()["readings"]
        return dict(one)

    def leg(self) -> float:
        """The length of the first leg, worked out as the page asks for it."""
        told = [
            {"proof": r["proof"], "kind": r["kind"], "value": r["value"], "sure": r["sure"]}
            for r in self.call("GET", self.path).json()["readings"]
        ]
        body = {"piece": self.made["piece"], "readings": told, "station": "legs"}
        answer = self.call("POST", "/api/plan", body)
        self.assertEqual(answer.status_code, 200, answer.content)
        return float(answer.json()["plan"]["parts"][0]["exposed"]["quantity"]["value"])

    def test_no_change_of_tools_moves_a_reading_or_locks_the_piece(self) -> None:
        none = {**with_gauge(90, "down"), "tools": []}
        shops = [with_gauge(0, "up"), with_gauge(90, "up"), with_gauge(180, "down"), none]
        for tools in ready_shops().values():
            shops.append(write_shop(Shop(tools=tools)))
        for shop in shops:
            with self.subTest(shop=[t["kind"] for t in shop["tools"]]):
                self.use(shop)
                self.assertAlmostEqual(self.leg(), self.before, 6)
                self.assertTrue(self.call("GET", "/api/pieces").json()[0]["drawn"])
        self.use(with_gauge(90, "down"))
        self.assertEqual((self.reading()["shown"], self.reading()["as_read"]), ("77", ""))

    def test_it_is_said_on_the_scale_of_now_with_how_it_was_read(self) -> None:
        self.use(with_gauge(0, "up"))
        one = self.reading()
        self.assertEqual((one["shown"], one["typed"], one["value"]), ("13", "77", 13.0))
        self.assertTrue(one["as_read"].startswith("read as 77 on the "))
        self.assertAlmostEqual(ReadingRow.objects.get().value, 77.0)

    def test_a_note_on_it_leaves_it_as_it_was_taken(self) -> None:
        self.use(with_gauge(0, "up"))
        kept = self.call(
            "PUT", f"{self.path}/readings/bore.l1", {"typed": "13", "keep": True, "note": "in the sun"}
        ).json()
        self.assertEqual((kept["typed"], kept["shown"], kept["note"]), ("77", "13", "in the sun"))
        self.assertAlmostEqual(self.leg(), self.before, 6)

    def test_read_again_it_is_of_the_new_scale(self) -> None:
        self.use(with_gauge(0, "up"))
        again = self.call("PUT", f"{self.path}/readings/bore.l1", {"typed": "13"}).json()
        self.assertEqual((again["shown"], again["as_read"]), ("13", ""))
        self.use(with_gauge(90, "down"))
        self.assertEqual((self.reading()["shown"], self.reading()["typed"]), ("77", "13"))
        self.assertEqual(ReadingEvent.objects.count(), 2)

    def test_readings_from_before_scales_were_kept_are_of_the_shop_as_it_stands(self) -> None:
        ReadingRow.objects.update(at_square=None, counts="", gauge="")
        step = importlib.import_module("workshop.pieces.migrations.0008_how_read")
        step.on_the_scale_of_now(apps, None)
        row = ReadingRow.objects.get()
        self.assertEqual((row.at_square, row.counts), (90.0, "down"))
        self.use(with_gauge(0, "up"))
        self.assertEqual(self.reading()["shown"], "13")

    def test_the_record_of_a_piece_carries_how_it_was_read(self) -> None:
        [one] = self.call("GET", f"{self.path}/record").json()["readings"]
        self.assertEqual((one["value"], one["at_square"], one["counts"]), (77.0, 90.0, "down"))

    def test_a_tool_put_away_while_others_read_leaves_every_start_open(self) -> None:
        for name in ("bench", "tall", "round_four"):
            made = self.call("POST", "/api/pieces", {"document": write_piece(starter(name))}).json()
            self.call("PUT", f"/api/pieces/{made['id']}/readings/bore.l1", {"typed": "75"})
        self.use({**with_gauge(0, "up"), "tools": []})
        self.assertTrue(all(one["drawn"] for one in self.call("GET", "/api/pieces").json()))
