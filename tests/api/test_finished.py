"""A piece called finished, a state named and drawn, files named after their piece, two changes in one."""

from __future__ import annotations

import json
from typing import Any

from splay.piece import read_piece
from splay.plan import Station, carry_on, plan
from splay.shop import workbench
from tests.api.base import ApiCase
from workshop.pieces.record import read_record


class Finished(ApiCase):
    def hung(self, name: str) -> dict[str, Any]:
        return next(one for one in self.call("GET", "/api/pieces").json() if one["name"] == name)

    def test_what_its_maker_calls_finished_waits_for_no_proof(self) -> None:
        made = self.new(name="Done")
        path = f"/api/pieces/{made['id']}"
        self.assertEqual((self.hung("Done")["finished"], self.hung("Done")["next"]["name"]), (False, "top"))
        self.assertEqual(
            self.call("PUT", f"{path}/finished", {"finished": True}).json(), {"finished": True}
        )
        self.assertEqual((self.hung("Done")["finished"], self.hung("Done")["next"]), (True, None))
        self.assertTrue(self.call("GET", path).json()["finished"])
        # It goes out with the piece and comes back so; and it can be said otherwise.
        record = self.call("GET", f"{path}/record").json()
        self.assertIsNotNone(read_record(record).finished)
        self.call("PUT", f"{path}/finished", {"finished": False})
        self.assertFalse(self.hung("Done")["finished"])

    def test_good_feet_finish_it_though_cross_checks_were_never_taken(self) -> None:
        made = self.new(name="Level")
        path = f"/api/pieces/{made['id']}"
        asked = plan(read_piece(made["piece"]), workbench()).proofs
        # The feet stand at one height, which is the one wanted less what the pass takes off.
        heights = [proof for proof in asked if proof.kind == "bench"]
        self.assertEqual(len(heights), 3)
        for proof in heights:
            answer = self.call("PUT", f"{path}/readings/{proof.id}", {"typed": "450 mm", "sure": True})
            self.assertEqual(answer.status_code, 200, answer.content)
        hung = self.hung("Level")
        self.assertEqual((hung["finished"], hung["next"]), (True, None))

    def test_the_work_goes_on_where_it_was_begun_last(self) -> None:
        """Cross-checks at Top that were passed over do not hold a piece whose holes are being read."""
        stations = tuple(
            Station(name, name.title(), proofs, answered, 0)
            for name, proofs, answered in (("top", 3, 0), ("boring", 4, 4), ("legs", 8, 0), ("level", 4, 0))
        )
        ahead = carry_on(stations, ())
        self.assertEqual(ahead and ahead.name, "legs")
        self.assertEqual(carry_on((), ()), None)

    def test_a_state_is_named_and_drawn_before_it_is_put_back(self) -> None:
        made = self.new(name="Was lower")
        path = f"/api/pieces/{made['id']}"
        self.call("PUT", path, {"document": {**made["piece"], "height": 500}, "based_on": 1})
        called = self.call("PUT", f"{path}/revisions/1/called", {"called": " as\u202e drawn \n"})
        self.assertEqual(called.json(), {"called": "as drawn"})
        states = self.call("GET", f"{path}/revisions").json()
        self.assertEqual([one["called"] for one in states], ["", "as drawn"])
        low, high = (self.call("GET", f"{path}/revisions/{n}/drawing").json()["box"] for n in (1, 2))
        self.assertGreater(high[3], low[3])
        self.assertEqual(self.call("GET", f"{path}/revisions/9/drawing").status_code, 404)
        self.assertEqual(
            self.call("PUT", f"{path}/revisions/1/called", {"called": "x" * 61}).status_code, 422
        )
        record = read_record(self.call("GET", f"{path}/record").json())
        self.assertEqual([state.called for state in record.states], ["as drawn", ""])

    def test_files_are_named_after_their_piece(self) -> None:
        for name, wanted in (
            ("Round stool", 'filename="Round stool.json"'),
            ("a/b: ..\\c", 'filename="a b c.json"'),
            ("Höker", "filename*=utf-8''H%C3%B6ker.json"),
        ):
            made = self.new(name=name)
            file = self.call("GET", f"/api/pieces/{made['id']}/file")
            self.assertIn(wanted, file["Content-Disposition"])
            self.assertIn(json.dumps(name, ensure_ascii=False).encode(), file.content)
            whole = self.call("GET", f"/api/pieces/{made['id']}/record")
            self.assertIn("with", whole["Content-Disposition"])

    def test_two_changes_are_put_together_and_clashes_said_in_the_shops_units(self) -> None:
        base = self.new(name="Both")["piece"]
        mine = {**base, "height": 470, "notes": "elm"}
        theirs = {**base, "height": 480, "top": {**base["top"], "thickness": 44}}
        made = self.call("POST", "/api/merge", {"base": base, "mine": mine, "theirs": theirs}).json()
        self.assertEqual(
            made["clashes"],
            [{"path": "height", "what": "height", "mine": "470 mm", "theirs": "480 mm"}],
        )
        self.assertEqual(made["says"], "height 450 mm → 480 mm and 1 more")
        self.assertEqual(
            (made["piece"]["height"], made["piece"]["top"]["thickness"], made["piece"]["notes"]),
            (470, 44, "elm"),
        )
        body = {"base": base, "mine": mine, "theirs": theirs, "take": ["height"]}
        self.assertEqual(self.call("POST", "/api/merge", body).json()["piece"]["height"], 480)
        refused = self.call(
            "POST", "/api/merge", {"base": base, "mine": {**base, "height": "low"}, "theirs": base}
        )
        self.assertEqual((refused.status_code, refused.json()["faults"][0]["what"]), (422, "height"))

    def test_a_plan_says_what_became_of_the_piece_before(self) -> None:
        piece = self.new(name="Said")["piece"]
        body = {"piece": {**piece, "height": "47 cm"}, "before": piece, "station": "stance"}
        self.assertEqual(self.call("POST", "/api/plan", body).json()["says"], "height 450 mm → 470 mm")
        body = {"piece": piece, "station": "stance"}
        self.assertEqual(self.call("POST", "/api/plan", body).json()["says"], "")
