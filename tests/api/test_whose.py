"""Whose is what: everybody's by default, some to their maker; off the rack is not gone."""

from __future__ import annotations

from typing import Any, ClassVar

from tests.api.base import ApiCase
from tests.api.test_makers import GOOD, Someone
from workshop.api import api
from workshop.keeping.nightly import count_nights
from workshop.pieces.models import BIN_NIGHTS, PieceRow


class Whose(ApiCase):
    """ash came first; linden and rowan work in ash's shop."""

    def setUp(self) -> None:
        super().setUp()
        self.others = {}
        for name in ("linden", "rowan"):
            self.call("POST", "/api/makers", {"name": name, "password": GOOD})
            self.others[name] = Someone()
            self.others[name].sign_in(name, GOOD)
        self.linden, self.rowan = self.others["linden"], self.others["rowan"]
        self.made = self.linden.call("POST", "/api/pieces", {"start": "bench"}).json()
        self.path = f"/api/pieces/{self.made['id']}"

    def routes(self) -> list[tuple[str, str]]:
        """Every route of the published schema that is about one piece."""
        schema = api.get_openapi_schema(path_prefix="/api/")
        return [
            (
                method.upper(),
                path.replace("{proof}", "bore.l1").replace("{number}", "1").replace("{name}", "bench"),
            )
            for path, methods in schema["paths"].items()
            if "/pieces/{id}" in path
            for method in methods
        ]

    NAMED: ClassVar[dict[str, str]] = {"{proof}": "bore.l1", "{number}": "1", "{name}": "bench"}
    QUERIES: ClassVar[dict[str, str]] = {"compare": "?a=1&b=1", "rescues": "?step=lay_out"}
    BODIES: ClassVar[dict[str, Any]] = {
        "PUT /readings/bore.l1": {"typed": "12"},
        "PUT /kept": {"kept": False},
        "PUT /finished": {"finished": True},
        "PUT /revisions/1/called": {"called": "as drawn"},
        "PUT /build": {"document": {}, "based_on": 0},
        "PUT /build/done": {"step": "lay_out"},
        "PUT /build/undone": {"step": "lay_out"},
        "PUT /build/timer": {"step": "lay_out", "run": True},
        "PUT /build/wrong": {"step": "lay_out", "rescue": "as_is"},
        "PUT /build/glued": {"steps": [], "dry": True, "seconds": 1, "joints": []},
        "POST /again": {},
        "PUT /class": {"learner": "kim", "order": ["ready", "lay_out"]},
        "POST /log": {"sort": "note", "says": "seen"},
        "POST /readings_table": {"text": "proof,value\nbore.l1,12"},
        "PUT /wood": {"document": {}, "based_on": 0},
        "POST /wood/layout": {"seconds": 0},
        "POST /wood/moved": {"laid": [], "stock": "00000000-0000-4000-8000-000000000000"},
        "PUT /wood/sawn": {"stock": "00000000-0000-4000-8000-000000000000"},
    }

    def body(self, method: str, path: str) -> Any:
        if (method, path) == ("PUT", "/api/pieces/{id}"):
            return {"document": self.made["piece"], "based_on": 1}
        return self.BODIES.get(f"{method} {path.removeprefix('/api/pieces/{id}')}")

    def test_everybody_sees_and_works_on_every_piece_and_the_record_says_who(self) -> None:
        self.assertEqual(len(self.rowan.call("GET", "/api/pieces").json()), 1)
        named = {**self.made["piece"], "name": "Hers"}
        self.rowan.call("PUT", self.path, {"document": named, "based_on": 1})
        self.call("PUT", f"{self.path}/readings/bore.l1", {"typed": "12"})
        revisions = self.linden.call("GET", f"{self.path}/revisions").json()
        self.assertEqual([r["by"] for r in revisions], ["rowan", "linden"])
        piece = self.linden.call("GET", self.path).json()
        self.assertEqual((piece["by"], piece["readings"][0]["by"]), ("linden", "ash"))

    def test_a_piece_kept_to_its_maker_is_not_there_for_others_by_any_route(self) -> None:
        self.assertEqual(self.rowan.call("PUT", f"{self.path}/kept", {"kept": True}).status_code, 403)
        self.assertEqual(self.linden.call("PUT", f"{self.path}/kept", {"kept": True}).status_code, 200)
        self.assertGreater(len(self.routes()), 14)
        for method, path in self.routes():
            for who in (self.rowan, self):
                with self.subTest(f"{method} {path}"):
                    query = self.QUERIES.get(path.rsplit("/", 1)[-1], "")
                    where = path.replace("{id}", self.made["id"]) + query
                    answer = who.call(method, where, self.body(method, path))
                    self.assertEqual(answer.status_code, 404, answer.content)
        for who in (self.rowan, self):
            self.assertEqual(who.call("GET", "/api/pieces").json(), [])
            self.assertEqual([one["id"] for one in who.call("GET", "/api/pieces/bin").json()], [])
        self.assertEqual(len(self.linden.call("GET", "/api/pieces").json()), 1)

    def test_what_one_who_left_kept_is_seen_by_the_first_maker(self) -> None:
        self.linden.call("PUT", f"{self.path}/kept", {"kept": True})
        self.call("DELETE", "/api/makers/linden")
        self.assertEqual(self.call("GET", self.path).status_code, 200)
        self.assertEqual(self.rowan.call("GET", self.path).status_code, 404)

    def test_only_its_maker_or_the_first_one_takes_it_off(self) -> None:
        refused = self.rowan.call("DELETE", self.path)
        self.assertEqual(refused.status_code, 403)
        self.assertIn("linden", refused.json()["detail"])
        self.assertFalse(self.rowan.call("GET", "/api/pieces").json()[0]["may_take"])
        self.assertTrue(self.linden.call("GET", "/api/pieces").json()[0]["may_take"])
        self.assertEqual(self.linden.call("DELETE", self.path).status_code, 204)

    def test_what_was_taken_off_hangs_again_as_it_was(self) -> None:
        self.call("PUT", f"{self.path}/readings/bore.l1", {"typed": "12"})
        before = self.call("GET", self.path).json()
        self.call("DELETE", self.path)
        for method, path in self.routes():
            if not path.endswith("/hang"):
                query = self.QUERIES.get(path.rsplit("/", 1)[-1], "")
                where = path.replace("{id}", self.made["id"]) + query
                answer = self.call(method, where, self.body(method, path))
                self.assertEqual(answer.status_code, 404, f"{method} {path}")
        self.assertEqual(self.rowan.call("GET", "/api/pieces/bin").json(), [])
        self.assertEqual(self.rowan.call("POST", f"{self.path}/hang").status_code, 404)
        [off] = self.linden.call("GET", "/api/pieces/bin").json()
        self.assertEqual((off["name"], off["by"], off["nights_left"]), ("Bench", "ash", BIN_NIGHTS))
        self.assertIn("T", off["removed"])
        self.assertEqual(self.linden.call("POST", f"{self.path}/hang").json(), before)
        self.assertEqual(self.linden.call("POST", f"{self.path}/hang").status_code, 404)

    def test_it_is_gone_after_its_nights_and_not_before(self) -> None:
        self.linden.call("DELETE", self.path)
        for _ in range(BIN_NIGHTS - 1):
            count_nights()
        self.assertEqual(self.linden.call("GET", "/api/pieces/bin").json()[0]["nights_left"], 1)
        count_nights()
        self.assertEqual(PieceRow.objects.count(), 0)

    def test_nights_start_anew_for_what_was_hung_again(self) -> None:
        self.linden.call("DELETE", self.path)
        for _ in range(BIN_NIGHTS - 1):
            count_nights()
        self.linden.call("POST", f"{self.path}/hang")
        self.linden.call("DELETE", self.path)
        count_nights()
        self.assertEqual(len(self.linden.call("GET", "/api/pieces/bin").json()), 1)
