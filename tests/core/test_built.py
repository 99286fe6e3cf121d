"""A stool built from the cards alone: only what a card says is used, and it must stand.

Independent judge: scipy's Rotation carries out each setting as the tool would; nothing of the
stance is looked at until the built feet are compared with the floor.
"""

from __future__ import annotations

import math

import numpy as np
from django.test import SimpleTestCase
from hypothesis import given, settings
from hypothesis import strategies as st
from numpy.typing import NDArray
from scipy.spatial.transform import Rotation

from splay.piece import Piece
from splay.plan import Plan
from splay.setups.card import SetUp
from tests.core.make import piece, planned, round_stool

Array = NDArray[np.float64]
CLOSE_MM = 0.02
QUARTERS = {
    "RIGHT": (1, 0), "BACK RIGHT": (1, 1), "BACK": (0, 1), "BACK LEFT": (-1, 1),
    "LEFT": (-1, 0), "FRONT LEFT": (-1, -1), "FRONT": (0, -1), "FRONT RIGHT": (1, -1),
}  # fmt: skip


def card(made: Plan, way: str, leg: int) -> SetUp:
    """The card of one tool for one leg."""
    return next(c for c in made.setups if c.way == way and leg in c.legs)


def marked_sightline(setup: SetUp, leg: int) -> Array:
    """The sightline as the maker marks it: so far off the left-right line, into the quarter named."""
    turn = next(t for t in setup.turns if t.leg == leg)
    assert turn.from_side is not None
    angle = math.radians(turn.from_side.value)
    right, back = QUARTERS[turn.toward]
    return np.array((math.cos(angle) * (right or 1), math.sin(angle) * (back or 1), 0.0))


def bored(setup: SetUp, leg: int, off_square: float) -> Array:
    """The hole's axis, top to floor, in the top frame: the top turned over, tilted, bored plumb."""
    sight = marked_sightline(setup, leg)
    over = Rotation.from_rotvec([math.pi, 0.0, 0.0])
    rim = over.apply(sight)
    level = np.cross((0.0, 0.0, 1.0), rim)
    # The card says the arrow goes uphill: it points the way the leg leans, outward.
    assert "the arrow pointing UPHILL" in " ".join(setup.which_way)
    tilt = Rotation.from_rotvec(-level * math.radians(off_square))
    return (tilt * over).inv().apply((0.0, 0.0, 1.0))


class BuiltFromTheCards(SimpleTestCase):
    def stands(self, made: Piece) -> None:
        plan = planned(made)
        floor = plan.stance.floor
        n = np.array(floor.normal)
        for leg, part in zip(plan.stance.legs, plan.parts, strict=True):
            press = card(plan, "tilting_table", leg.number)
            axis = bored(press, leg.number, press.dials[0].off_square)
            socket = np.array((*leg.place.at, 0.0))
            foot = socket + axis * part.exposed.quantity.value
            self.assertLess(abs(float(n @ foot) + floor.h0_mm), CLOSE_MM)
            # Every other tool of the shop makes the same hole.
            others = {
                "bevel_gauge": lambda v: 90.0 - v,
                "guide_block": lambda v: 90.0 - v,
                "angle_guide": lambda v: v,
                "digital_gauge": lambda v: v,
                "ramp": lambda v: math.degrees(math.atan(v / 300.0)),
            }
            for way, off in others.items():
                setting = card(plan, way, leg.number).setting
                assert setting is not None
                self.assertAlmostEqual(off(setting.value), press.dials[0].off_square, 6, way)

    def test_round_stools_of_any_number_of_legs(self) -> None:
        for count in (3, 4, 5, 6):
            self.stands(
                round_stool(13, placement={"way": "circle", "count": count, "radius": 110, "first": 20})
            )

    @settings(deadline=None, max_examples=40)
    @given(st.floats(1, 24), st.floats(1, 24), st.floats(0, 8))
    def test_four_legged_pieces_of_any_splay_and_rake_on_any_fall(
        self, splay: float, rake: float, fall: float
    ) -> None:
        spec = [{"by": "splay_rake", "splay": splay, "rake": rake}]
        self.stands(piece(angles=spec, lean={"fall": fall}))

    @settings(deadline=None, max_examples=40)
    @given(st.floats(1, 24), st.floats(1, 24), st.floats(0, 8), st.sampled_from(["front", "sightline"]))
    def test_a_square_foot_cut_as_the_saw_is_set_lies_flat_on_the_floor(
        self, splay: float, rake: float, fall: float, facing: str
    ) -> None:
        spec = [{"by": "splay_rake", "splay": splay, "rake": rake}]
        leg = {"section": "square", "at_top": 40, "at_foot": 40, "facing": facing}
        plan = planned(piece(angles=spec, leg=leg, lean={"fall": fall}))
        n = np.array(plan.stance.floor.normal)
        for one, part in zip(plan.stance.legs, plan.parts, strict=True):
            saw = card(plan, "mitre_saw", one.number)
            mitre = saw.dials[0].off_square
            tilt = saw.dials[1].off_square if len(saw.dials) > 1 else 0.0
            d = np.array(one.d)
            if facing == "front":
                face = np.cross((1.0, 0.0, 0.0), d)
            else:
                sight = np.array((d[0], d[1], 0.0)) / math.hypot(d[0], d[1])
                face = np.cross((0.0, 0.0, 1.0), sight)
            face /= np.linalg.norm(face)
            planes = []
            for i in (1, -1):
                for j in (1, -1):
                    swing = Rotation.from_rotvec(face * math.radians(mitre * i))
                    trace = swing.apply(np.cross(face, d))
                    planes.append(
                        Rotation.from_rotvec(trace * math.radians(tilt * j)).apply(swing.apply(d))
                    )
            blade = max(planes, key=lambda p: abs(float(p @ n)))
            # The four edges of the stick, cut by that plane through the middle of the foot.
            side = np.cross(face, d)
            lengths = []
            for i in (1, -1):
                for j in (1, -1):
                    edge = 20 * (i * face + j * side)
                    lengths.append(float(-(blade @ edge) / (blade @ d)))
                    at = np.array(one.foot) + edge + lengths[-1] * d
                    self.assertLess(abs(float(n @ at) + plan.stance.floor.h0_mm), CLOSE_MM)
            # And the blank, cut square, is long enough for the longest edge.
            over = part.blank.quantity.value - part.finished.quantity.value
            self.assertGreaterEqual(over + 1e-9, max(lengths))
            self.assertAlmostEqual(max(lengths) - min(lengths), part.high_low.quantity.value, 6)

    def test_shims_and_one_block_mark_every_leg_for_the_same_floor(self) -> None:
        # Different leans, one block: what stands over each foot and its shim make the block's height.
        angles = [
            {"by": "splay_rake", "splay": 6, "rake": 4},
            {"by": "splay_rake", "splay": 16, "rake": 14},
        ]
        plan = planned(piece(angles=angles, scope="pairs", lean={"fall": 3}))
        cards = [c for c in plan.setups if c.way == "handsaw"]
        self.assertEqual(len(cards), 2)
        heights = {c.setting.value for c in cards if c.setting}
        self.assertEqual(len(heights), 1)
        block = heights.pop()
        for c in cards:
            shim = next((f.quantity.value for f in c.jig if f.key.endswith("shim")), 0.0)
            for number in c.legs:
                self.assertAlmostEqual(plan.parts[number - 1].block.quantity.value + shim, block, 6)
