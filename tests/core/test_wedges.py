"""Wedges and their slots: sizes by hand, both ways they lie, blind ones, dry ones, and what is wrong."""

from __future__ import annotations

import math
from typing import Any

import numpy as np
from django.test import SimpleTestCase

from splay.build.document import Build
from splay.build.order import order_of
from splay.patterns.blocks import wedge_patterns
from splay.piece import Piece
from splay.plan import plan
from splay.quantity import Show, Units
from splay.reading import Reading
from splay.setups.card import SetUp
from splay.shop import workbench
from splay.stance.wedges import slot_bearing, wedge_made
from splay.work.does import Kerf
from splay.work.joinery import MakeWedge
from tests.bench.judged import carry_out
from tests.core.make import piece, planned, round_stool
from tests.core.test_blind import limit


def stool(wedge: dict[str, Any] | None, **more: Any) -> Piece:
    joint = {"way": "through", "socket": 25.5, "proud": 0, "wedge": wedge, **more.pop("joint", {})}
    return round_stool(12.0, thickness=40, joint=joint, **more)


def blind(wedge: dict[str, Any] | None, depth: float = 30.0) -> Piece:
    return round_stool(
        12.0, thickness=44, joint={"way": "blind", "socket": 25.5, "depth": depth, "wedge": wedge}
    )


def card(made: Piece, operation: str) -> SetUp:
    return next(one for one in planned(made).setups if one.operation == operation)


def codes(made: Piece) -> dict[str, Any]:
    return {one.code: one for one in plan(made, workbench()).findings if one.code.startswith("wedge")}


class ByHand(SimpleTestCase):
    def test_width_length_and_thickness(self) -> None:
        # 40.89 in the seat and 12.75 tan 12 + 3 to be sawn flush; its ring 12.75 tan 12 nearer the
        # end on the obtuse side, the slot 12 short of that: 31.89; and 12 over: 43.89. From 1 at 6 degrees:
        # 1 + 2 · 43.89 · tan 3 = 5.600.
        (do,) = (one for one in card(stool({}), "wedges").does if isinstance(one, MakeWedge))
        self.assertEqual((do.wide.text, do.long.text), ("25.5 mm", "44 mm"))
        self.assertAlmostEqual(do.long.value, 43.894, 2)
        self.assertAlmostEqual(do.butt.value, 1.0 + 2 * 43.894 * math.tan(math.radians(3)), 3)
        self.assertEqual(do.butt.text, "5.6 mm")

    def test_what_it_opens_is_what_it_is_thicker_than_its_slot_at_the_end(self) -> None:
        # Driven 31.89 in: 1 + 2 · 31.89 · tan 3 = 4.343, less a slot of 1.5.
        made = wedge_made(stool({}), planned(stool({})).stance.legs[0])
        assert made is not None
        self.assertAlmostEqual(made.opens, 2.843, 2)

    def test_a_hair_over_the_hole(self) -> None:
        (do,) = (one for one in card(stool({"over": 0.5}), "wedges").does if isinstance(one, MakeWedge))
        self.assertAlmostEqual(do.wide.value, 26.0)

    def test_a_blind_one_is_never_wider_than_its_hole(self) -> None:
        (do,) = (one for one in card(blind({"over": 0.5}), "wedges").does if isinstance(one, MakeWedge))
        self.assertAlmostEqual(do.wide.value, 25.5)

    def test_a_blind_one_is_shorter_than_its_slot_and_its_hole_wider_at_the_bottom(self) -> None:
        made = blind({"taper": 7.0})
        wedges, kerf = card(made, "wedges"), card(made, "kerf")
        (do,) = (one for one in wedges.does if isinstance(one, MakeWedge))
        (slot,) = (one for one in kerf.does if isinstance(one, Kerf))
        self.assertAlmostEqual(slot.deep.value - do.long.value, 2.0)
        opens, undercut = wedges.jig
        gained = 1.0 + 2 * do.long.value * math.tan(math.radians(3.5)) - 1.5
        self.assertAlmostEqual(opens.quantity.value, gained, 6)
        self.assertAlmostEqual(undercut.quantity.value, gained / 2, 6)

    def test_the_slot_says_truly_how_far_it_stays_off_the_ring(self) -> None:
        # 30 deep: half the tenon is more than 12 short of the ring.
        (slot,) = (one for one in card(blind({}), "kerf").does if isinstance(one, Kerf))
        ring = 30.0 - 25.5 / 2 * math.tan(math.radians(12))
        self.assertAlmostEqual(slot.stop.value + slot.deep.value, ring, 6)


class AtFullSize(SimpleTestCase):
    def test_its_pattern_is_its_face_and_its_side(self) -> None:
        made = stool({})
        plan_ = planned(made)
        (one,) = wedge_patterns(made, plan_.stance, Show(Units()))
        face, side = (np.array(shape.points) for shape in one.view.shapes if shape.layer == "cut")
        self.assertAlmostEqual(float(np.ptp(face[:, 1])), 25.5, 6)
        self.assertAlmostEqual(float(np.ptp(face[:, 0])), 43.89, 2)
        at_butt = side[side[:, 0] < 1.0][:, 1]
        self.assertAlmostEqual(float(np.ptp(at_butt)), 5.6, 2)


class Lies(SimpleTestCase):
    def four(self, lies: str) -> Piece:
        return piece(
            outline={"kind": "round", "diameter": 360},
            placement={"way": "circle", "count": 4, "radius": 90, "first": 0},
            angles=[{"by": "resultant", "resultant": 12}],
            joint={"way": "through", "socket": 25, "wedge": {"lies": lies}},
        )

    def test_across_the_grain_wherever_the_leg_stands(self) -> None:
        made = self.four("across_grain")
        for leg in planned(made).stance.legs:
            self.assertAlmostEqual(slot_bearing(made, leg) % 180.0, 90.0)
        self.assertNotIn("wedge_along", codes(made))

    def test_aimed_at_the_middle_two_of_four_lie_along_the_grain_and_are_named(self) -> None:
        made = self.four("to_middle")
        along = [leg.number for leg in planned(made).stance.legs if abs(leg.socket[1]) < 1.0]
        self.assertEqual(len(along), 2)
        found = codes(made)["wedge_along"]
        self.assertEqual(list(found.legs), along)
        self.assertEqual(found.level, "caution")

    def test_both_ways_are_drawn_as_they_are_meant(self) -> None:
        for lies in ("across_grain", "to_middle"):
            made = self.four(lies)
            tally = carry_out(made, plan(made, workbench()), workbench())
            wrong = {what for what, (off, _) in tally.worst.items() if off > limit(what)}
            self.assertEqual(wrong, set())
            self.assertIn(("wedges", "making"), tally.done)
            self.assertIn(("proof", "Butt"), tally.done)


class Told(SimpleTestCase):
    def steps(self, made: Piece) -> dict[str, str]:
        order = order_of(made, planned(made), Build())
        return {step.operation: " ".join(step.do) for step in order.steps}

    def test_without_a_wedge_nothing_is_sawn_made_or_driven(self) -> None:
        steps = self.steps(stool(None))
        self.assertFalse(steps.keys() & {"kerf", "wedges", "wedge"})
        self.assertFalse([one for one in planned(stool(None)).proofs if one.kind in ("kerf", "wedge")])

    def test_a_blind_one_goes_in_with_its_leg_and_is_not_driven_after(self) -> None:
        steps = self.steps(blind({}))
        self.assertNotIn("wedge", steps)
        self.assertIn("thin edge in", steps["glue"])
        self.assertIn("never comes out again", " ".join(card(blind({}), "wedges").steps))

    def test_a_dry_one_gets_no_glue(self) -> None:
        self.assertIn("No glue on legs 1, 2 and 3", self.steps(stool({"dry": True}))["glue"])
        self.assertNotIn("No glue", self.steps(stool({}))["glue"])
        self.assertIn("without glue", self.steps(stool({"dry": True}))["wedge"])
        self.assertIn("before the glue sets", self.steps(stool({}))["wedge"])


class Wrong(SimpleTestCase):
    def test_too_thick_an_edge_too_little_taper_too_much(self) -> None:
        self.assertEqual(codes(stool({})), {})
        self.assertEqual(codes(stool({"edge": 2.0, "kerf": 1.5}))["wedge_blunt"].level, "stop")
        self.assertEqual(
            codes(stool({"taper": 1.0, "edge": 0.5, "kerf": 3.0}))["wedge_loose"].level, "stop"
        )
        self.assertIn("wedge_fierce", codes(stool({"taper": 16.0})))

    def test_a_leg_that_was_bored_plumb_leaves_the_others_theirs(self) -> None:
        made = stool({"taper": 16.0})
        read = plan(made, workbench(), [Reading("bore.l2", 0.0, sure=True)])
        (found,) = [one for one in read.findings if one.code == "wedge_fierce"]
        self.assertEqual(found.legs, (1, 3))

    def test_a_blind_one_in_a_shallow_hole_may_never_tighten(self) -> None:
        self.assertIn("wedge_loose", codes(blind({"taper": 3.0, "edge": 0.8, "kerf": 1.6}, 20.0)))
