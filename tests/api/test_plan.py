from __future__ import annotations

import io
import json
import tempfile
from pathlib import Path
from typing import Any

from django.core.management import call_command
from django.test import TestCase

from splay.piece import write_piece
from splay.piece.starters import starter
from tests.api.base import ApiCase

PIECE = write_piece(starter("bench"))


class Planning(ApiCase):
    def plan(self, **change: Any) -> Any:
        return self.call("POST", "/api/plan", {"piece": {**PIECE, **change}})

    def test_a_plan_comes_back_with_the_piece_as_read_and_nothing_is_kept(self) -> None:
        # session, maker, shop, their units, the maker's own readings
        with self.assertNumQueries(5):
            answer = self.plan(height="17 3/4 in")
        self.assertEqual(answer.status_code, 200)
        body = answer.json()
        self.assertEqual(body["piece"]["height"], 450.85)
        self.assertEqual(body["plan"]["chosen"]["height"]["text"], "451 mm")
        self.assertEqual(len(body["plan"]["legs"]), 4)
        self.assertEqual(self.call("GET", "/api/pieces").json(), [])

    def test_bare_figures_are_read_in_the_unit_named(self) -> None:
        body = {"piece": {**PIECE, "height": "18"}, "bare": "inch"}
        self.assertAlmostEqual(self.call("POST", "/api/plan", body).json()["piece"]["height"], 457.2)

    def test_a_drag_is_answered_with_the_moved_piece(self) -> None:
        move = {"moves": "height", "view": "front", "to": [0, 500.2]}
        body = self.call("POST", "/api/plan", {"piece": PIECE, "moves": [move]}).json()
        self.assertEqual(body["piece"]["height"], 500)

    def test_readings_are_counted_in(self) -> None:
        first = next(p for p in self.plan().json()["plan"]["proofs"] if p["id"] == "bore.l1")
        lean = first["expected"]["value"]
        reading = {"proof": "bore.l1", "value": round(lean + 1.5, 2)}
        body = self.call("POST", "/api/plan", {"piece": PIECE, "readings": [reading]}).json()
        self.assertIn("off", [p["verdict"] for p in body["plan"]["proofs"] if p["id"] == "bore.l1"])
        self.assertTrue(body["plan"]["legs"][0]["measured"])

    def test_a_reading_that_names_no_kind_is_of_the_proof_s_whatever_the_others_name(self) -> None:
        proofs = {p["id"]: p for p in self.plan().json()["plan"]["proofs"]}
        asked = [proofs["bore.l1"], proofs["bore.l2"]]
        sent = [{"proof": one["id"], "value": one["expected"]["value"]} for one in asked]
        sent[0]["kind"] = asked[0]["kind"]
        body = self.call("POST", "/api/plan", {"piece": PIECE, "readings": sent}).json()
        taken = [p["id"] for p in body["plan"]["proofs"] if p["answer"] is not None]
        self.assertEqual(taken, ["bore.l1", "bore.l2"])
        lost = self.call(
            "POST", "/api/plan", {"piece": PIECE, "readings": [{"proof": "no.such", "value": 1}]}
        )
        self.assertEqual((lost.status_code, lost.json()["faults"][0]["field"]), (422, "readings.0.value"))

    def test_a_station_gets_only_its_own_drawings(self) -> None:
        for station, views, pictures in (("stance", 3, 0), ("boring", 1, 6), ("legs", 0, 8)):
            drawings = self.call("POST", "/api/plan", {"piece": PIECE, "station": station}).json()[
                "drawings"
            ]
            self.assertEqual((len(drawings["piece"]), len(drawings["pictures"])), (views, pictures))

    def test_bad_input_is_answered_with_field_got_and_mend_never_with_a_500(self) -> None:
        for change, field in (
            ({"height": ""}, "piece.height"), ({"height": "tall"}, "piece.height"),
            ({"height": "1/0"}, "piece.height"), ({"height": 1e308}, "piece.height"),
            ({"height": -5}, "piece.height"), ({"height": 40}, "piece.height"),
            ({"colour": 1}, "piece.colour"), ({"version": 7}, "piece.version"),
            ({"supports": []}, "piece.supports"), ({"top": None}, "piece.top"),
        ):  # fmt: skip
            with self.subTest(change):
                answer = self.plan(**change)
                self.assertEqual(answer.status_code, 422)
                self.assertEqual(answer["Content-Type"], "application/problem+json")
                fault = answer.json()["faults"][0]
                self.assertEqual(fault["field"], field)
                self.assertTrue(fault["got"] and fault["allowed"] and fault["do"])

    def test_what_json_cannot_say_is_refused_too(self) -> None:
        text = json.dumps({"piece": PIECE})
        for raw, status in (
            (b"", 422), (b"{", 400), (b"[]", 422), (b"null", 422), (b'"x"', 422), (b"\xff\xfe", 400),
            (text.replace('"height": 450.0', '"height": NaN').encode(), 422),
            (text.replace('"height": 450.0', '"height": Infinity').encode(), 422),
            (text.replace('"height": 450.0', '"height": 1e999').encode(), 422),
            (b"[" * 100_000, 400), (b'{"piece": "' + b"x" * 5_000_000 + b'"}', 413),
        ):  # fmt: skip
            with self.subTest(raw[:30]):
                answer = self.call("POST", "/api/plan", raw)
                self.assertEqual(answer.status_code, status, answer.content[:200])
                self.assertEqual(answer["Content-Type"], "application/problem+json")
                self.assertTrue(answer.json()["detail"])

    def test_what_cannot_be_built_says_the_rule_and_the_mend(self) -> None:
        steep = {"by": "resultant", "resultant": 60, "sightline": 90, "measured_from": "bearing"}
        support = {**PIECE["supports"][0], "angles": [steep]}
        answer = self.plan(supports=[support], lean={"fall": 30, "toward": 270})
        self.assertEqual(answer.status_code, 422)
        self.assertIn("never comes down to the floor", answer.json()["detail"])

    def test_no_answer_holds_nan_or_infinity(self) -> None:
        for text in (self.plan().content.decode(), self.plan(lean={"fall": 12}).content.decode()):
            json.loads(text, parse_constant=lambda name: self.fail(name))


class Angles(ApiCase):
    def test_any_two_of_four_give_the_others_and_both_lines(self) -> None:
        answer = self.call("POST", "/api/angles", {"splay": "10", "rake": "6°"}).json()
        self.assertAlmostEqual(answer["resultant"]["quantity"]["value"], 11.600, 3)
        self.assertAlmostEqual(answer["from_side"]["quantity"]["value"], 30.80, 2)
        self.assertAlmostEqual(answer["from_centre"]["quantity"]["value"], 59.20, 2)

    def test_one_three_or_contradicting_ones_are_refused(self) -> None:
        for body in (
            {"splay": 10},
            {"splay": 10, "rake": 5, "resultant": 11},
            {"splay": 15, "resultant": 10},
            {"splay": "x", "rake": 1},
        ):
            answer = self.call("POST", "/api/angles", body)
            self.assertEqual(answer.status_code, 422, body)
            self.assertTrue(answer.json()["faults"][0]["do"])

    def test_quick_set_answers_on_the_shops_scales(self) -> None:
        lean = self.call("POST", "/api/quick/lean", {"splay": 10, "rake": 6}).json()
        self.assertEqual(set(lean["pictures"]), {s["id"] for s in lean["answer"]["settings"]})
        mitre = self.call("POST", "/api/quick/mitre", {"splay": 15, "rail": "60 mm", "leg": "60"}).json()
        self.assertAlmostEqual(mitre["answer"]["settings"][0]["setting"]["value"], 37.5)
        bad = self.call("POST", "/api/quick/mitre", {"splay": 15, "rail": "-", "leg": "60"})
        self.assertEqual(bad.json()["faults"][0]["field"], "rail")


class Command(TestCase):
    def run_plan(self, text: str) -> tuple[str, str, int]:
        out, err = io.StringIO(), io.StringIO()
        with tempfile.TemporaryDirectory() as folder:
            file = Path(folder) / "piece.json"
            file.write_text(text, encoding="utf-8")
            try:
                call_command("plan", str(file), stdout=out, stderr=err)
            except SystemExit as leave:
                return out.getvalue(), err.getvalue(), int(leave.code or 0)
        return out.getvalue(), err.getvalue(), 0

    def test_a_piece_file_is_planned_to_json(self) -> None:
        out, err, status = self.run_plan(json.dumps(PIECE))
        self.assertEqual((status, err), (0, ""))
        self.assertEqual(len(json.loads(out)["parts"]), 4)

    def test_a_bad_file_gets_one_line_a_fault_and_status_two(self) -> None:
        broken = {**PIECE, "height": "tall", "colour": 1}
        for text, lines in ((json.dumps(broken), 2), ("{", 1), ("[]", 1), ('{"version": 3}', 1)):
            with self.subTest(text[:20]):
                out, err, status = self.run_plan(text)
                self.assertEqual((out, status), ("", 2))
                self.assertEqual(len(err.strip().splitlines()), lines, err)

    def test_a_missing_file_is_one_line_too(self) -> None:
        err = io.StringIO()
        with self.assertRaises(SystemExit) as leave:
            call_command("plan", "/nowhere/piece.json", stderr=err)
        self.assertEqual(leave.exception.code, 2)
        self.assertEqual(len(err.getvalue().strip().splitlines()), 1)
