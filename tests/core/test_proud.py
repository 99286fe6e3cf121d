"""Tenons that come out at the upper face: what is left on, what stays, and a seat that lies on them.

What a square end leaves is held against solid geometry (manifold3d): a leg's tenon is turned, cut to the
figures and leaned by a rotation of its own; the seat is a slab. What an upside-down piece lies on is held
against heights of the same solids.
"""

from __future__ import annotations

import math
from typing import Any

import numpy as np
from django.test import SimpleTestCase
from manifold3d import Manifold
from scipy.spatial.transform import Rotation

from splay.build.document import Build
from splay.build.order import order_of
from splay.piece import Piece
from splay.plan import Plan, plan
from splay.reading import Reading
from splay.shop import workbench
from splay.solids import solids_of
from tests.core.make import piece, planned, round_stool

THICK, SPLAY = 40.0, 14.0
SIDES = 256


def stool(joint: dict[str, Any], **choices: Any) -> Piece:
    return round_stool(SPLAY, thickness=THICK, joint={"way": "through", "socket": 26, **joint}, **choices)


def lowest_of_end(long: float, half: float, lean: float) -> float:
    """How high over the underside the lowest place of a square end lies, from a solid of its own."""
    stick = Manifold.cylinder(long, half, half, SIDES)
    turn = Rotation.from_euler("y", lean, degrees=True).as_matrix()
    corners = np.asarray(stick.to_mesh64().vert_properties)[:, :3]
    ends = corners[np.isclose(corners[:, 2], long)] @ turn.T
    return float(ends[:, 2].min())


class Left(SimpleTestCase):
    """What is cut, and what is left when it has been sawn."""

    def test_a_tenon_that_ends_flush_leaves_no_pit(self) -> None:
        for joint in ({}, {"left": 0}, {"way": "reamed", "included": 6}):
            made = planned(stool(joint))
            part, leg = made.parts[0], made.stance.legs[0]
            low = lowest_of_end(part.in_top.quantity.value, leg.bore.tip / 2.0, leg.boring.resultant)
            self.assertGreaterEqual(low, THICK - 1e-6, joint)

    def test_the_makers_own_figure_is_left_on_over_what_the_lean_asks(self) -> None:
        made = planned(stool({"left": 5}))
        leg = made.stance.legs[0]
        asks = 13.0 * math.tan(math.radians(SPLAY))
        self.assertAlmostEqual(leg.bore.left_on, asks + 5.0, 6)
        self.assertAlmostEqual(
            made.parts[0].in_top.quantity.value, THICK / math.cos(math.radians(SPLAY)) + asks + 5.0, 6
        )

    def test_what_stays_proud_and_clears_all_round_is_cut_to_that(self) -> None:
        # GEOMETRY's worked example: 38 thick, 14 degrees, 6 proud, foot 32: 45.16 in the top.
        made = planned(round_stool(14, thickness=38, joint={"way": "through", "socket": 22, "proud": 6}))
        self.assertAlmostEqual(made.parts[0].in_top.quantity.value, 45.16, 2)
        self.assertEqual(made.stance.legs[0].bore.left_on, 0.0)

    def test_a_mortise_right_through_is_no_pit_either(self) -> None:
        out = THICK / math.cos(math.radians(SPLAY))
        joint = {"way": "shouldered", "socket": 26, "across": 16, "depth": out}
        made = planned(stool(joint))
        leg = made.stance.legs[0]
        low = lowest_of_end(leg.bore.tenon, 13.0, leg.boring.resultant)
        self.assertGreaterEqual(low, THICK - 1e-6)

    def test_solids_end_where_the_saw_leaves_them(self) -> None:
        for proud in (0.0, 2.0):
            chosen = stool({"proud": proud})
            made = plan(chosen, workbench())
            leg = next(part for part in solids_of(chosen, made) if part.key.startswith("leg."))
            top = next(part for part in solids_of(chosen, made) if part.key == "top")
            over = float(leg.points[:, 2].max() - top.points[:, 2].max())
            self.assertAlmostEqual(over, proud * math.cos(math.radians(SPLAY)), 3)


def steps(made: Plan, chosen: Piece) -> list[str]:
    return [step.operation for step in order_of(chosen, made, Build()).steps]


class Order(SimpleTestCase):
    """Who saws and who eases them."""

    def test_flush_ones_are_sawn_before_the_feet_are_measured(self) -> None:
        chosen = stool({})
        found = steps(planned(chosen), chosen)
        self.assertLess(found.index("wedge"), found.index("trim_flush"))
        self.assertLess(found.index("trim_flush"), found.index("level"))
        self.assertNotIn("ease_proud", found)

    def test_what_stays_proud_is_eased_and_not_sawn(self) -> None:
        chosen = stool({"proud": 8})
        found = steps(planned(chosen), chosen)
        self.assertNotIn("trim_flush", found)
        self.assertLess(found.index("ease_proud"), found.index("finish"))

    def test_what_is_to_stand_out_less_than_its_slant_is_sawn_to_it_and_eased(self) -> None:
        chosen = stool({"proud": 1})
        found = steps(planned(chosen), chosen)
        self.assertLess(found.index("trim_flush"), found.index("ease_proud"))

    def test_what_comes_off_either_side_is_what_stands_out_there(self) -> None:
        chosen = stool({"left": 4})
        made = planned(chosen)
        step = next(s for s in order_of(chosen, made, Build()).steps if s.operation == "trim_flush")
        leg = made.stance.legs[0]
        # Along the tenon from its square end to the level face, on the highest and the lowest side.
        slant = 13.0 * math.tan(math.radians(leg.boring.resultant))
        for off in (4.0 + 2.0 * slant, 4.0):
            self.assertTrue(any(f"{round(off * 2) / 2:g} mm" in line for line in step.do), step.do)


def turned_over(made: Plan, chosen: Piece) -> list[float]:
    """Each foot's highest corner off the bench, the legs' solids laid on their own upper ends."""
    parts = solids_of(chosen, made)
    up = max(float(part.points[:, 2].max()) for part in parts)
    legs = [part for part in parts if part.key.startswith("leg.")]
    return [up - float(part.points[:, 2].min()) for part in legs]


class UpsideDown(SimpleTestCase):
    """A perfect piece upside down loses nothing of its feet."""

    def level(self, chosen: Piece, heights: list[float]) -> list[float]:
        pass_ = chosen.levelling.passes[0].id
        legs = [leg.id for leg in planned(chosen).stance.legs]
        readings = tuple(
            Reading(f"bench.{pass_}.{leg}", high) for leg, high in zip(legs, heights, strict=True)
        )
        return [foot.loses.quantity.value for foot in plan(chosen, workbench(), readings).level[0].feet]

    def test_on_its_tenons_a_perfect_piece_loses_nothing(self) -> None:
        for joint in ({"proud": 8}, {"proud": 2}, {"proud": 0}, {"proud": 7, "wedge": None}):
            chosen = stool(joint, levelling={"ends": "sawn"})
            made = planned(chosen)
            lost = self.level(chosen, turned_over(made, chosen))
            np.testing.assert_allclose(lost, 0.0, atol=0.05, err_msg=str(joint))

    def test_on_blocks_clear_of_them_too(self) -> None:
        chosen = stool({"proud": 8}, levelling={"ends": "sawn", "passes": [{"way": "bench", "raised": 30}]})
        lost = self.level(chosen, [THICK + 30.0 + (430.0 - THICK)] * 3)
        np.testing.assert_allclose(lost, 0.0, atol=0.05)

    def test_it_asks_for_blocks_and_says_how_high_and_where(self) -> None:
        found = planned(stool({"proud": 8})).level[0].problems
        told = next(one for one in found if one.code == "on_tenons")
        self.assertIn("seat's edge", told.mend)
        self.assertIn("clear of", told.mend)
        clear = stool({"proud": 8}, levelling={"passes": [{"way": "bench", "raised": 30}]})
        made = planned(clear)
        self.assertNotIn("on_tenons", [one.code for one in made.level[0].problems])
        how = next(proof.how for proof in made.proofs if proof.kind == "bench")
        self.assertIn("on blocks 30 mm high", how)
        self.assertIn("clear of", how)

    def test_on_four_tenons_of_a_seat_with_corners(self) -> None:
        chosen = piece(
            joint={"way": "through", "socket": 25.4, "proud": 8},
            levelling={"ends": "sawn"},
        )
        made = planned(chosen)
        lost = self.level(chosen, turned_over(made, chosen))
        np.testing.assert_allclose(lost, 0.0, atol=0.05)
