"""Readings: likely slips, the maker's own spread, what follows from them; a hidden piece as judge."""

from __future__ import annotations

import math

import numpy as np
from django.test import SimpleTestCase

from splay.errors import BadInput
from splay.instruments import listen
from splay.piece import Piece, read_piece, write_piece
from splay.piece.starters import STARTS, starter
from splay.plan import Plan, plan
from splay.reading import Reading, kind_named, read_reading, with_unit
from splay.setups.asker import Spread
from splay.setups.scales import stick_scale
from splay.shop import workbench
from splay.stance.members import members
from splay.stance.restate import Restate, restate
from splay.stance.staked import stand
from splay.work.proofs import KINDS
from tests.core.make import piece, planned, proof_of, round_stool

SHOP = workbench()


def with_readings(made: Piece, **read: float) -> Plan:
    """Read values by proof id, dots written as double underlines."""
    known = [Reading(id.replace("__", "."), value) for id, value in read.items()]
    return plan(made, SHOP, known)


def codes(made: Plan) -> set[str]:
    return {finding.code for finding in made.findings}


class InUnits(SimpleTestCase):
    def test_a_bare_length_keeps_the_unit_it_meant_and_an_angle_has_none(self) -> None:
        for kind, typed, bare, want in (
            ("gap", "288.6", "metric", "288.6 mm"), ("gap", "11 3/8", "inch", "11 3/8 in"),
            ("gap", '11 3/8"', "metric", '11 3/8"'), ("foot", "42cm", "inch", "42cm"),
            ("sight", "-0.4", "metric", "-0.4 mm"), ("bore", "14.5", "inch", "14.5"),
            ("read", "83", "metric", "83"),
        ):  # fmt: skip
            with self.subTest(kind, typed=typed):
                said = with_unit(KINDS[kind], typed, bare)  # type: ignore[arg-type]
                self.assertEqual(said, want)
                other = "inch" if bare == "metric" else "metric"
                self.assertEqual(
                    read_reading("x", KINDS[kind], said, SHOP, other).value,  # type: ignore[arg-type]
                    read_reading("x", KINDS[kind], typed, SHOP, bare).value,  # type: ignore[arg-type]
                )

    def test_a_hole_read_off_its_sightline_is_caught(self) -> None:
        """Worked twice: s 10, r 6 stands at 11.600; from the front it shows 10, from the side 6."""
        made = piece(angles=[{"by": "splay_rake", "splay": 14, "rake": 6}])
        for shown, word in ((14.1, "splay"), (6.1, "rake")):
            proof = proof_of(with_readings(made, bore__l1=shown), "bore.l1")
            want = "slip" if abs(shown - 15.17) > 1.0 else "off"
            self.assertEqual(proof.verdict, want, shown)
            if want == "slip":
                self.assertIn(word, proof.slip)
        self.assertIn("read_wrong", codes(with_readings(made, bore__l1=6.1)))

    def test_the_obtuse_side_and_the_other_line_are_caught(self) -> None:
        made = starter("bench")
        acute = proof_of(planned(made), "read.m1.1").expected.value
        for shown, word in ((180 - acute, "obtuse"), (90 - acute, "other line")):
            proof = proof_of(with_readings(made, read__m1__1=shown), "read.m1.1")
            self.assertEqual(proof.verdict, "slip", shown)
            self.assertIn(word, proof.slip)

    def test_an_angle_held_in_the_wrong_plane_is_caught(self) -> None:
        """The two sticks seen from the front or the side show another angle than they make."""
        document = write_piece(restate(starter("round_three"), Restate("members", "triangle")))
        document["supports"][0]["angles"] = [{"by": "resultant", "resultant": 24}]
        made = read_piece(document)
        found = 0
        for run in members(made, stand(made))[0]:
            for e, end in enumerate(run.ends):
                if not end.leg:
                    continue
                for normal, word in (((0, 1, 0), "front"), ((1, 0, 0), "side")):
                    n = np.array(normal)
                    u, d = (np.array(v) - n * (np.array(v) @ n) for v in (run.u, end.axis))
                    if min(np.linalg.norm(u), np.linalg.norm(d)) < 0.1:
                        continue
                    wide = math.degrees(math.acos(u @ d / np.linalg.norm(u) / np.linalg.norm(d)))
                    shown = min(wide, 180 - wide)
                    if abs(shown - end.acute) < 3.2:
                        continue
                    id = f"read.{run.id}.{e + 1}"
                    proof = proof_of(plan(made, SHOP, [Reading(id, shown)]), id)
                    self.assertEqual(proof.verdict, "slip")
                    self.assertIn(word, proof.slip)
                    found += 1
        self.assertGreater(found, 0)

    def test_gaps_taken_elsewhere_are_caught(self) -> None:
        made = starter("bench")
        part = planned(made).members[0]
        gap = part.gap.quantity.value
        for shown, word in (
            (part.centres.quantity.value, "middle to middle"),
            (part.planned_total.quantity.value, "with the sockets"),
            (gap + 100, "100 mm mark"),
            (gap / 25.4, "inches"),
        ):
            proof = proof_of(with_readings(made, gap__m1=shown), "gap.m1")
            self.assertEqual(proof.verdict, "slip", shown)
            self.assertIn(word, proof.slip)

    def test_a_leg_measured_on_one_side_is_caught(self) -> None:
        made = round_stool(16)
        part = planned(made).parts[0]
        long = part.finished.quantity.value + part.high_low.quantity.value / 2
        self.assertIn("long side", proof_of(with_readings(made, foot__l1=long), "foot.l1").slip)

    def test_what_stays_when_read_again_is_no_slip_and_counts(self) -> None:
        made = starter("bench")
        gap = planned(made).members[0].gap.quantity.value
        total = planned(made).members[0].total.quantity.value
        doubted = plan(made, SHOP, [Reading("gap.m1", gap + 10)])
        self.assertEqual(proof_of(doubted, "gap.m1").verdict, "slip")
        self.assertAlmostEqual(doubted.members[0].total.quantity.value, total, 9)
        sure = plan(made, SHOP, [Reading("gap.m1", gap + 10, sure=True)])
        self.assertEqual(proof_of(sure, "gap.m1").verdict, "off")
        self.assertAlmostEqual(sure.members[0].total.quantity.value, total + 10, 9)

    def test_honest_work_a_little_off_is_no_slip(self) -> None:
        made = round_stool(14)
        for off in (-2.0, -0.8, 0.3, 0.9, 1.8):
            self.assertNotEqual(proof_of(with_readings(made, bore__l1=14 + off), "bore.l1").verdict, "slip")

    def test_what_no_work_goes_wrong_by_waits_and_nothing_follows_it(self) -> None:
        """Square to the sightline, twice the angle, the splay of a three-legged piece; whole inches, any
        far length: none moves a leg, a stretcher or a foot until it was read again."""
        for lean in (8.0, 10.0, 14.0, 20.0):
            made = round_stool(lean)
            before = planned(made)
            splay = abs(stand(made).legs[1].boring.splay)
            for shown, word in (
                (0.0, "square"),
                (2 * lean, "twice"),
                (splay, "splay"),
                (lean + 6.5, "off"),
            ):
                with self.subTest(lean=lean, shown=shown):
                    after = with_readings(made, bore__l2=shown)
                    proof = proof_of(after, "bore.l2")
                    self.assertEqual(proof.verdict, "slip")
                    self.assertIn(word, proof.slip)
                    self.assertEqual(after.parts, before.parts)
                    sure = plan(made, SHOP, [Reading("bore.l2", shown, sure=True)])
                    self.assertEqual(proof_of(sure, "bore.l2").slip, "")
        bench = starter("bench")
        gap = planned(bench).members[0].gap.quantity.value
        for off in (25.4, -25.4, 50.8, 76.2 + 1.4, 10, -10, 20.6, 100, -200, 13):
            after = with_readings(bench, gap__m1=gap + off)
            self.assertEqual(proof_of(after, "gap.m1").verdict, "slip", off)
            self.assertEqual(after.members, planned(bench).members, off)

    def test_a_doubtful_height_levels_nothing_until_it_is_read_again(self) -> None:
        made = round_stool(14)
        heights = {p.id: p.expected.value for p in planned(made).proofs if p.kind == "bench"}
        first = next(iter(heights))
        told = [
            Reading(id, value + (100 if id == first else 0), kind="bench") for id, value in heights.items()
        ]
        whole = [
            one if one.proof != first else Reading(first, heights[first], kind="bench") for one in told
        ]
        without = [one for one in told if one.proof != first]
        self.assertEqual(plan(made, SHOP, told).level, plan(made, SHOP, without).level)
        self.assertNotEqual(plan(made, SHOP, whole).level, plan(made, SHOP, without).level)

    def test_far_outside_the_makers_own_spread_waits_too(self) -> None:
        """Six times what this maker misses by, and twice what is near enough."""
        made = round_stool(14)
        steady, loose = {"bore": Spread(0.2, 12)}, {"bore": Spread(0.6, 12)}
        for hand, verdict in (
            (steady, "slip"),
            (loose, "off"),
            ({}, "off"),
            ({"bore": Spread(0.2, 2)}, "off"),
        ):
            found = plan(made, SHOP, [Reading("bore.l1", 15.3)], spreads=hand)
            self.assertEqual(proof_of(found, "bore.l1").verdict, verdict, hand)


class Hand(SimpleTestCase):
    def test_a_reading_far_outside_the_makers_own_spread_is_pointed_out(self) -> None:
        made = round_stool(14)
        hand = {"bore": Spread(0.2, 12)}
        wild = plan(made, SHOP, [Reading("bore.l1", 15.2)], spreads=hand)
        self.assertIn("unusual", codes(wild))
        usual = proof_of(wild, "bore.l1").usual
        assert usual is not None
        self.assertEqual(usual.text, "0.20°")
        self.assertNotIn("unusual", codes(plan(made, SHOP, [Reading("bore.l1", 14.5)], spreads=hand)))
        few = {"bore": Spread(0.2, 3)}
        self.assertNotIn("unusual", codes(plan(made, SHOP, [Reading("bore.l1", 15.2)], spreads=few)))


class AsBuilt(SimpleTestCase):
    def test_a_stretcher_is_cut_to_its_own_gap_and_sockets(self) -> None:
        """As built: the measured gap + the two measured depths."""
        made = starter("bench")
        part = planned(made).members[0]
        gap = part.gap.quantity.value + 3.0
        wall = part.ends[0].obtuse_wall.quantity.value - 1.0
        after = with_readings(made, gap__m1=gap, depth__m1__1=wall).members[0]
        self.assertAlmostEqual(after.total.quantity.value, part.total.quantity.value + 2.0, 6)
        self.assertTrue(after.as_built)

    def test_two_near_angles_are_bored_at_their_mean(self) -> None:
        """Read 83 and 84, bore 83.5 (common practice, no source)."""
        made = piece(
            angles=[{"by": "splay_rake", "splay": 6, "rake": 0}],
            members=[
                {
                    "kind": "stretcher",
                    "ends": [
                        {"on": "leg", "leg": 1, "level": {"by": "height", "value": 120}},
                        {"on": "leg", "leg": 2, "level": {"by": "height", "value": 120}},
                    ],
                }
            ],
        )
        made_plan = planned(made)
        card = next(c for c in made_plan.setups if c.operation == "bore_member")
        self.assertEqual(len(card.proofs), 4)
        near = with_readings(made, read__m1__1=83, read__m1__2=84)
        cards = [c for c in near.setups if c.operation == "bore_member" and c.way == "protractor"]
        self.assertEqual(len(cards), 1)
        self.assertAlmostEqual(cards[0].angle.quantity.value, 83.5, 9)
        far = with_readings(made, read__m1__1=82, read__m1__2=84)
        cards = [c for c in far.setups if c.operation == "bore_member" and c.way == "protractor"]
        self.assertEqual(sorted(c.angle.quantity.value for c in cards), [82, 84])
        self.assertIn("angles_apart", codes(far))

    def test_sides_that_differ_are_cut_each_to_its_own_or_measured_again(self) -> None:
        made = starter("bench")
        parts = planned(made).members
        pair = next(
            (a, b)
            for a in parts
            for b in parts
            if a.number < b.number
            and abs(a.planned_total.quantity.value - b.planned_total.quantity.value) < 0.1
        )
        gaps = [p.gap.quantity.value for p in pair]

        def read(second: float) -> set[str]:
            known = [Reading(f"gap.{pair[0].id}", gaps[0]), Reading(f"gap.{pair[1].id}", second)]
            return codes(plan(made, SHOP, known))

        self.assertIn("sides_differ", read(gaps[1] + 2))
        self.assertIn("sides_far_apart", read(gaps[1] + 8))
        self.assertFalse({"sides_differ", "sides_far_apart"} & read(gaps[1] + 0.2))

    def test_what_was_cut_already_says_what_it_came_out_to(self) -> None:
        made = starter("bench")
        part = planned(made).members[0]
        long = part.total.quantity.value
        after = with_readings(made, gap__m1=part.gap.quantity.value + 4, rail__m1=long)
        self.assertIn("cut_short", codes(after))
        # 4 mm short: 2 less in either socket, and that is what is said.
        short = next(one for one in after.findings if one.code == "cut_short")
        self.assertIn("4.0 mm too short", short.text)
        self.assertIn("enters each socket 2.0 mm less", short.mend)
        over = with_readings(made, gap__m1=part.gap.quantity.value - 4, rail__m1=long)
        self.assertIn("off its ends", next(one for one in over.findings if one.code == "cut_long").mend)
        moved = next(c for c in after.changes if c.part == "member.1")
        self.assertTrue(moved.cut)
        self.assertAlmostEqual(moved.now.value - moved.was.value, 4.0, 6)

    def test_what_readings_moved_is_called_by_the_angle_it_is(self) -> None:
        made = starter("bench")
        after = with_readings(made, bore__l1=planned(made).stance.legs[0].boring.resultant + 2)
        angles = [one for one in after.changes if one.was.unit == "deg"]
        self.assertTrue(angles)
        for one in angles:
            self.assertEqual("acute" in one.what, max(one.was.value, one.now.value) <= 90.0, one.what)
            self.assertNotIn("obtuse", one.what)

    def test_a_bored_hole_moves_its_foot_and_the_stretchers_that_follow(self) -> None:
        made = starter("bench")
        after = with_readings(made, bore__l1=planned(made).stance.legs[0].boring.resultant + 2)
        parts = {change.part for change in after.changes}
        self.assertIn("leg.1", parts)
        self.assertTrue(any(p.startswith("member.") for p in parts))
        for change in after.changes:
            self.assertIn("bore.l1", change.because)
        # Two degrees further out the foot stands further out, and its leg is longer.
        said = {change.what: (change.was.value, change.now.value) for change in after.changes}
        for what in ("foot of leg 1, from the middle", "leg 1, from underside to floor"):
            was, now = said[what]
            self.assertGreater(now, was, what)


class Assembling(SimpleTestCase):
    def test_pairs_in_one_plane_first_what_crosses_last_the_top_at_the_end(self) -> None:
        order = planned(starter("bench")).assembly
        assert order is not None
        self.assertEqual([s.title for s in order.stages][-1], "Into the seat")
        self.assertEqual(len(order.stages), 4)
        joints = sum(stage.joints for stage in order.stages)
        members = len(planned(starter("bench")).members)
        self.assertEqual(joints, 2 * members + 4)

    def test_a_ring_of_three_closes_at_once(self) -> None:
        made = restate(starter("round_three"), Restate("members", "triangle"))
        order = planned(made).assembly
        assert order is not None
        self.assertEqual([s.title for s in order.stages], ["The ring", "Into the seat"])
        assert order.apart is not None
        found = {f.code: f for f in planned(made).findings}
        self.assertEqual(found["closes_askew"].number, order.apart)
        # Pairs first, and what crosses them closes from one side: nothing to say of an H.
        self.assertNotIn("closes_askew", {f.code for f in planned(starter("bench")).findings})

    def test_tenons_enter_the_top_from_nearer_the_middle(self) -> None:
        order = planned(starter("bench")).assembly
        assert order is not None
        part = planned(starter("bench")).parts[0]
        rho = planned(starter("bench")).stance.legs[0].boring.resultant
        want = part.in_top.quantity.value * math.sin(math.radians(rho))
        self.assertAlmostEqual(order.spread[0].quantity.value, want, 9)


class Instruments(SimpleTestCase):
    def test_lines_are_read_in_their_own_units(self) -> None:
        self.assertEqual(listen("caliper", "#4 12.35 mm").value, 12.35)
        inches = listen("height_gauge", "0.5 in")
        self.assertAlmostEqual(inches.value or 0, 12.7, 9)
        self.assertIn("taken as", inches.said)
        self.assertEqual(listen("angle_gauge", "14.2 deg").typed, "14.2°")
        self.assertEqual(listen("moisture_meter", "9.5 %").value, 9.5)

    def test_silence_rubbish_other_figures_and_repeats_are_told_apart(self) -> None:
        for line, state in (
            (None, "silent"),
            ("##.## Err", "rubbish"),
            ("", "rubbish"),
            ("12,5 mm", "rubbish"),
            ("nan mm", "rubbish"),
            ("1e9 mm", "rubbish"),
            ("9" * 80 + " mm", "rubbish"),
            ("\x00\x01", "rubbish"),
            ("14.2 deg", "wrong"),
        ):
            with self.subTest(line):
                heard = listen("caliper", line)
                self.assertEqual((heard.state, heard.value), (state, None))
                self.assertTrue(heard.said)
        self.assertEqual(listen("caliper", "#7 3.10 mm", before="#7 3.10 mm").state, "repeated")
        self.assertEqual(listen("caliper", "#8 3.10 mm", before="#7 3.10 mm").state, "read")

    def test_each_proof_has_its_instrument(self) -> None:
        self.assertEqual(KINDS["bore"].instrument, "angle_gauge")
        self.assertEqual(KINDS["bench"].instrument, "height_gauge")
        self.assertEqual(KINDS["gap"].instrument, "caliper")


class Typed(SimpleTestCase):
    def test_level_readings_say_what_is_wrong_with_them(self) -> None:
        for kind, given, word in (
            ("under", "-0.4", "gap of 0 or more"),
            ("shim", "-1", "shim of 0 or more"),
            ("bench", "0", "above 0"),
            ("bench", "nan", ""),
            ("sight", "900", "200 mm"),
            ("along", "9000", "above 0"),
        ):
            with self.subTest(kind, given=given), self.assertRaises(BadInput) as caught:
                read_reading("x", KINDS[kind], given, SHOP, "metric", "x")
            self.assertIn(word, caught.exception.faults[0].allowed)
        self.assertEqual(read_reading("x", KINDS["sight"], "-0.8", SHOP, "metric").value, -0.8)
        self.assertEqual(read_reading("x", KINDS["under"], "0", SHOP, "metric").value, 0)

    def test_a_kind_there_is_none_of_is_refused(self) -> None:
        with self.assertRaises(BadInput) as caught:
            kind_named("weight", "readings.0")
        self.assertEqual(caught.exception.faults[0].field, "readings.0")

    def test_every_proof_of_every_start_is_of_a_kind_and_asked_where_its_kind_says(self) -> None:
        for name in STARTS:
            proofs = planned(starter(name)).proofs
            self.assertEqual(len({proof.id for proof in proofs}), len(proofs), name)
            for proof in proofs:
                kind = KINDS[proof.kind]
                self.assertIn(kind.station, (None, proof.station), proof.id)
                unit = "deg" if kind.measures == "angle" else "mm"
                self.assertEqual(proof.expected.unit, unit, proof.id)

    def test_sticks_are_read_acute_on_the_protractor(self) -> None:
        self.assertEqual(stick_scale(SHOP)[1].at_square, 90)
        self.assertEqual(proof_of(planned(starter("bench")), "read.m1.1").read_on, "Protractor")
