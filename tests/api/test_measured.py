"""Readings kept with their history, instruments and rehearsals over HTTP."""

from __future__ import annotations

import math
import random
import statistics
from typing import Any

from splay.piece import read_piece, write_piece
from splay.piece.starters import starter
from splay.plan import plan
from splay.reading import Reading
from splay.shop import workbench
from tests.api.base import ApiCase
from workshop.gauges.bench import SIGMA, SimulatedBench
from workshop.keeping.nightly import count_nights
from workshop.pieces.actions import spreads_of
from workshop.pieces.models import BIN_NIGHTS, PieceRow, ReadingEvent, ReadingRow
from workshop.shop.models import keep_shop


class Kept(ApiCase):
    def hang(self) -> str:
        return str(self.call("POST", "/api/pieces", {"start": "round_three"}).json()["id"])

    def test_a_reading_keeps_value_who_when_with_what_and_a_note(self) -> None:
        id = self.hang()
        where = f"/api/pieces/{id}/readings/bore.l1"
        said = {"typed": "14.2", "tool": "digital gauge", "note": "cold shop"}
        got = self.call("PUT", where, said).json()
        self.assertEqual((got["value"], got["tool"], got["note"]), (14.2, "digital gauge", "cold shop"))
        self.assertTrue(got["by"] and got["taken"])
        piece = self.call("GET", f"/api/pieces/{id}").json()
        self.assertEqual(piece["readings"][0]["note"], "cold shop")

    def test_correcting_and_withdrawing_leave_their_history(self) -> None:
        id = self.hang()
        where = f"/api/pieces/{id}/readings/bore.l1"
        self.call("PUT", where, {"typed": "18"})
        self.call("PUT", where, {"typed": "14.4", "note": "again, on the line"})
        self.assertEqual(self.call("DELETE", where).status_code, 204)
        history = self.call("GET", f"{where}/history").json()
        self.assertEqual([e["what"] for e in history], ["withdrawn", "corrected", "answered"])
        self.assertEqual(history[1]["note"], "again, on the line")
        self.assertEqual(self.call("GET", f"/api/pieces/{id}").json()["readings"], [])

    def test_a_piece_taken_off_takes_its_history_along(self) -> None:
        id = self.hang()
        self.call("PUT", f"/api/pieces/{id}/readings/bore.l1", {"typed": "14"})
        self.call("DELETE", f"/api/pieces/{id}")
        for _ in range(BIN_NIGHTS):
            self.assertEqual(ReadingEvent.objects.count(), 1)
            count_nights()
        self.assertEqual(ReadingEvent.objects.count(), 0)

    def test_the_makers_own_spread_is_learned_from_what_was_expected_then(self) -> None:
        offs = (0.3, -0.3, 0.4, -0.2, 9.0)
        for off in offs:
            id = self.hang()
            told = self.call("POST", "/api/plan", {"piece": write_piece(starter("round_three"))}).json()
            want = next(p["expected"]["value"] for p in told["plan"]["proofs"] if p["id"] == "bore.l1")
            typed = f"{want + off:.3f}"
            self.call("PUT", f"/api/pieces/{id}/readings/bore.l1", {"typed": typed})
        maker = PieceRow.objects.first().readings.first().by  # type: ignore[union-attr]
        spread = spreads_of(maker)["bore"]
        self.assertEqual(spread.count, 4)  # the fifth was a slip, and says nothing of the hand
        self.assertAlmostEqual(spread.rms, math.sqrt(sum(o * o for o in offs[:4]) / 4), places=2)

    def test_levelling_and_kinds_there_are_no_more_say_nothing_of_the_hand(self) -> None:
        """Every foot of a levelling is off before it is cut: that is its job."""
        id = self.hang()
        self.call("PUT", f"/api/pieces/{id}/readings/bore.l1", {"typed": "14.3"})
        row = PieceRow.objects.get(pk=id).readings.get()
        expected = float(row.expected or 0.0)
        for proof, kind in (("bench.p1.l1", "bench"), ("old.l1", "weighed")):
            row.pk, row.proof, row.kind = None, proof, kind
            row.value, row.expected = expected + 0.4, expected
            row.save()
        self.assertEqual(set(spreads_of(row.by)), {"bore"})  # type: ignore[arg-type]

    def test_bad_readings_are_refused_with_what_to_do_and_nothing_is_lost(self) -> None:
        id = self.hang()
        self.call("PUT", f"/api/pieces/{id}/readings/bore.l1", {"typed": "14"})
        for proof, typed in (
            ("bore.l1", "abc"), ("bore.l1", "99"), ("under.p1.l1", "-3"), ("bench.p1.l1", "0"),
            ("gap.m1", "-12"), ("gap.m1", "1/0"), ("weight.1", "3"),
        ):  # fmt: skip
            answer = self.call("PUT", f"/api/pieces/{id}/readings/{proof}", {"typed": typed})
            with self.subTest(proof, typed=typed):
                self.assertEqual(answer.status_code, 422)
                self.assertTrue(answer.json()["faults"][0]["do"])
        self.assertEqual(self.call("GET", f"/api/pieces/{id}").json()["readings"][0]["typed"], "14")
        long = self.call("PUT", f"/api/pieces/{id}/readings/bore.l1", {"typed": "14", "note": "x" * 500})
        self.assertEqual(long.status_code, 422)

    def test_what_was_expected_is_kept_as_it_was_before_the_answer_and_with_the_others(self) -> None:
        made = self.new()
        path, piece = f"/api/pieces/{made['id']}/readings", read_piece(made["piece"])
        planned = {one.id: one.expected.value for one in plan(piece, workbench()).proofs}
        for typed in ("16", "15.5"):
            self.call("PUT", f"{path}/bore.l1", {"typed": typed})
            self.assertAlmostEqual(ReadingRow.objects.get().expected, planned["bore.l1"])
        self.call("PUT", f"{path}/foot.l1", {"typed": "463"})
        read = plan(piece, workbench(), (Reading("bore.l1", 15.5, False, "bore"),))
        wanted = next(one.expected.value for one in read.proofs if one.id == "foot.l1")
        self.assertNotAlmostEqual(wanted, planned["foot.l1"], places=1)
        self.assertAlmostEqual(ReadingRow.objects.get(proof="foot.l1").expected, wanted)


class Gauges(ApiCase):
    def ask(self, **more: Any) -> Any:
        body = {"piece": write_piece(starter("round_three")), "proof": "bore.l1", **more}
        return self.call("POST", "/api/gauges/read", body)

    def test_without_an_instrument_on_the_bench_it_says_so(self) -> None:
        answer = self.ask()
        self.assertEqual(answer.status_code, 422)
        self.assertIn("shop", answer.json()["faults"][0]["do"])

    def test_a_simulated_one_reads_the_hidden_truth_within_its_noise(self) -> None:
        keep_shop(workbench().model_copy(update={"instruments": "simulated"}))
        values = [self.ask(count=k).json()["heard"]["value"] for k in range(1, 12)]
        self.assertLess(max(values) - min(values), 0.8)
        height = self.ask(proof="bench.p1.l1").json()
        self.assertEqual(height["instrument"], "height_gauge")

    def test_what_it_is_not_asked_for_is_refused(self) -> None:
        for proof in ("bore.l9", "bench.p7.l1", "bench.p1.l9", "level", "no.such", ""):
            answer = self.ask(seed=4, proof=proof)
            with self.subTest(proof):
                self.assertEqual(answer.status_code, 422, answer.content[:200])

    def test_a_bench_with_moods_goes_silent_sends_rubbish_inches_and_repeats(self) -> None:
        bench = SimulatedBench(14.0, moody=True)
        said = [bench.send("caliper", k, "#1 14.00 mm") for k in range(1, 40)]
        self.assertIn(None, said)
        self.assertTrue(any(line and line.startswith("##") for line in said))
        self.assertTrue(any(line and line.endswith(" in") for line in said))
        self.assertIn("#1 14.00 mm", said[1:])
        inches = [line.split()[1] for line in said if line and line.endswith(" in")]
        self.assertEqual(len(inches), 2)  # at the 6th and the 32nd; the 19th is silent
        for one in inches:
            self.assertAlmostEqual(float(one), 14.0 / 25.4, delta=0.005)
        steady = SimulatedBench(14.0)
        self.assertTrue(all(str(steady.send("caliper", k, "")).endswith(" mm") for k in range(40)))

    def test_an_instrument_reads_the_truth_on_its_own_divisions_with_its_own_noise(self) -> None:
        for name, (sigma, step) in SIGMA.items():
            bench = SimulatedBench(47.3, noise=random.Random(7))
            lines = [str(bench.send(name, k, "")).split() for k in range(200)]
            self.assertEqual([line[0] for line in lines], [f"#{k}" for k in range(200)])
            read = [float(line[1]) for line in lines]
            self.assertAlmostEqual(statistics.fmean(read), 47.3, delta=0.3 * sigma + 0.01, msg=name)
            self.assertAlmostEqual(statistics.pstdev(read), math.hypot(sigma, step / 12**0.5),
                                   delta=0.25 * sigma, msg=name)  # fmt: skip
            for one in read:
                self.assertAlmostEqual(one / step, round(one / step), places=6, msg=name)

    def test_a_rehearsal_is_fetched_measured_and_revealed_and_nothing_is_kept(self) -> None:
        piece = self.call("GET", "/api/rehearsal/pieces/round_four").json()
        self.assertEqual(piece["name"], "Rehearsal")
        answer = self.call("POST", "/api/rehearsal/reveal", {"piece": piece, "seed": 9})
        self.assertEqual(answer.status_code, 200)
        self.assertGreater(answer.json()["rock"]["value"], 0)
        for more, same in (({"seed": 9}, True), ({"seed": 10}, False), ({}, False)):
            other = self.call("POST", "/api/rehearsal/reveal", {"piece": piece, **more})
            self.assertEqual(other.json() == answer.json(), same, more)
        self.assertEqual(PieceRow.objects.count(), 0)
        self.assertEqual(self.call("GET", "/api/rehearsal/pieces/zeppelin").status_code, 422)
