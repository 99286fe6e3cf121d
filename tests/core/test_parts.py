"""Legs and sockets to cut: check values, and a judge that slices real solids."""

from __future__ import annotations

import math

import numpy as np
from django.test import SimpleTestCase
from hypothesis import given, settings
from hypothesis import strategies as st

from splay.judge.sockets import wood_between
from splay.parts import LegPart, SocketPart, leg_part, socket_part
from splay.parts.foot import foot_cut
from splay.piece import Piece
from splay.quantity import Show, Units
from splay.setups.spacer import spacer_height
from splay.shop import Bit
from splay.stance.staked import stand
from tests.core.make import piece, round_stool

SHOW = Show(Units())


def leg_of(made: Piece) -> LegPart:
    stance = stand(made)
    return leg_part(made, stance.legs[0], stance.floor, SHOW)


def socket_of(made: Piece, bit: Bit = Bit()) -> SocketPart:  # noqa: B008
    return socket_part(made, stand(made).legs[0], bit, SHOW)


class CheckValues(SimpleTestCase):
    """Independent: worked in closed form and by building the situation in space."""

    def test_a_through_leg(self) -> None:
        made = round_stool(
            14,
            height=430,
            thickness=38,
            leg={"at_top": 32, "at_foot": 32},
            joint={"way": "through", "socket": 25, "proud": 6},
            allowance=15,
        )
        leg = leg_of(made)
        self.assertAlmostEqual(leg.exposed.quantity.value, 404.00, 2)
        self.assertAlmostEqual(leg.in_top.quantity.value, 45.16, 2)
        self.assertAlmostEqual(leg.finished.quantity.value, 449.16, 2)
        self.assertAlmostEqual(leg.blank.quantity.value, 468.15, 2)
        self.assertAlmostEqual(leg.block.quantity.value, 22.30, 2)

    def test_a_blind_leg(self) -> None:
        made = round_stool(
            12,
            height=460,
            thickness=45,
            leg={"at_top": 30, "at_foot": 30},
            joint={"way": "blind", "socket": 32, "depth": 32},
        )
        leg = leg_of(made)
        for figure, value in ((leg.exposed, 424.27), (leg.finished, 456.27), (leg.blank, 479.46)):
            self.assertAlmostEqual(figure.quantity.value, value, 2)

    def test_a_blind_socket_and_its_bits(self) -> None:
        made = round_stool(15, thickness=38, joint={"way": "blind", "socket": 25.4, "depth": 28})
        plain = socket_of(made)
        for figure, value in (
            (plain.deepest, 30.33), (plain.left_above, 7.67), (plain.obtuse_wall, 24.60),
            (plain.acute_wall, 31.40), (plain.first_touch, 31.40), (plain.mouth, 26.30),
        ):  # fmt: skip
            assert figure is not None
            self.assertAlmostEqual(figure.quantity.value, value, 2)
        for bit, value in ((Bit(centre_spur=4), 30.91), (Bit(rim_spurs=1), 31.30)):
            deepest = socket_of(made, bit).deepest
            assert deepest is not None
            self.assertAlmostEqual(deepest.quantity.value, value, 2)

    def test_a_through_hole_comes_out_along_the_sightline(self) -> None:
        made = round_stool(15, thickness=38, joint={"way": "through", "socket": 25.4})
        shift = socket_of(made).exit_shift
        assert shift is not None
        self.assertAlmostEqual(shift.quantity.value, 10.18, 2)
        # Towards the middle, since an outward lean's sightline passes through it.
        self.assertAlmostEqual(math.hypot(*socket_of(made).exit_at), 80 - 10.18, 2)

    def test_a_tapered_foot_is_a_cone_cut_by_the_floor(self) -> None:
        # D 30, k 0.05, rho 14: 30.92 by 30.00. The exposed length that gives this k at 400 high.
        made = round_stool(14, height=438, leg={"at_top": 30, "at_foot": 30})
        stance = stand(made)
        exposed = stance.legs[0].exposed
        tapered = round_stool(14, height=438, leg={"at_top": 30 + 0.1 * exposed, "at_foot": 30})
        cut = foot_cut(tapered.supports[0].leg, stand(tapered).legs[0], stance.floor)
        self.assertAlmostEqual(cut.taper, 0.05, 9)
        self.assertAlmostEqual(cut.long, 30.92, 2)
        self.assertAlmostEqual(cut.short, 30.00, 2)

    def test_wood_between_neighbouring_holes_at_the_upper_face(self) -> None:
        made = round_stool(
            15, placement={"way": "circle", "count": 3, "radius": 60}, thickness=45,
            joint={"way": "through", "socket": 32},
        )  # fmt: skip
        a, b = stand(made).legs[:2]
        parts = [socket_part(made, leg, Bit(), SHOW) for leg in (a, b)]
        self.assertAlmostEqual(wood_between(made, a, b, parts[0].exit_at, parts[1].exit_at), 50.19, 2)

    def test_a_leg_of_a_little_over_twenty_nine_inches(self) -> None:
        # Common practice, no source: 28 3/16 in shoulder to foot at 10 degrees under 1 1/4 in: 29.01 in.
        high = 28.1875 * math.cos(math.radians(10)) + 1.25
        self.assertAlmostEqual(high, 29.01, 2)
        leg = leg_of(round_stool(10, height=high * 25.4, thickness=1.25 * 25.4))
        self.assertAlmostEqual(leg.exposed.quantity.value / 25.4, 28.1875, 6)

    def test_square_feet_are_parallelograms_on_the_floor(self) -> None:
        # 40 mm leg, splay 10, rake 10: 40.60 by 40.64.
        spec = [{"by": "splay_rake", "splay": 10, "rake": 10}]
        leg = leg_of(piece(angles=spec, leg={"section": "square", "at_top": 40, "at_foot": 40}))
        self.assertAlmostEqual(leg.foot_long.quantity.value, 40.64, delta=0.015)
        self.assertAlmostEqual(leg.foot_short.quantity.value, 40.60, delta=0.015)

    def test_a_wedge_slot_is_wider_on_the_tenons_end_than_in_plan(self) -> None:
        # Plan angle 45 off the sightline, resultant 15: 45.99 on the end.
        made = round_stool(15, placement={"way": "circle", "count": 4, "radius": 90, "first": 45})
        wedge = leg_of(made).wedge
        assert wedge is not None
        self.assertAlmostEqual(wedge.quantity.value, 45.99, 2)
        self.assertIsNone(leg_of(round_stool(15, joint={"way": "blind", "socket": 25, "depth": 20})).wedge)

    def test_eight_sides_from_square_stock(self) -> None:
        # S 45: gauge 13.18 from each edge, faces 18.64.
        octagon = leg_of(round_stool(10, leg={"at_top": 45, "at_foot": 30})).making[0]
        assert octagon is not None
        self.assertAlmostEqual(octagon.quantity.value, 13.18, 2)
        self.assertIn("18.5 mm", octagon.note)
        square = {"section": "square", "at_top": 45, "at_foot": 30}
        keys = [figure.key for figure in leg_of(round_stool(10, leg=square)).making]
        self.assertFalse(any(key.endswith(".octagon") for key in keys))

    def test_spacers_under_a_ramp(self) -> None:
        # L 300, 6 degrees.
        for way, value in (
            ("plumb_base", 31.53),
            ("plumb_ramp", 31.36),
            ("square_ramp", 31.53),
            ("bar", 31.44),
        ):
            self.assertAlmostEqual(spacer_height(way, 300, 6), value, 2)


class Slicing(SimpleTestCase):
    """A judge of its own: points on the leg's real surface, cut by the floor."""

    @settings(deadline=None, max_examples=80)
    @given(st.floats(0, 28), st.floats(20, 60), st.floats(20, 60), st.floats(0, 10), st.floats(0, 360))
    def test_the_foots_ellipse_and_slant_are_those_of_the_cut_cone(
        self, lean: float, top: float, foot: float, fall: float, toward: float
    ) -> None:
        made = round_stool(
            lean, leg={"at_top": top, "at_foot": foot}, lean={"fall": fall, "toward": toward}
        )
        stance = stand(made)
        leg = stance.legs[1]
        cut = foot_cut(made.supports[0].leg, leg, stance.floor)
        d, n, at = np.array(leg.d), np.array(stance.floor.normal), np.array(leg.foot)
        u = np.cross(d, (0.0, 1.0, 0.3))
        u /= np.linalg.norm(u)
        w = np.cross(d, u)
        made_points, along = [], []
        for turn in np.linspace(0, 2 * math.pi, 720):
            side = math.cos(turn) * u + math.sin(turn) * w
            # A line on the cone: radius D/2 - k t at t past the foot; where it meets the floor.
            ray = d - cut.taper * side
            t = -(n @ (side * foot / 2)) / (n @ ray)
            made_points.append(at + side * foot / 2 + t * ray)
            along.append(t)
        self.assertAlmostEqual(max(along), cut.below, 3)
        self.assertAlmostEqual(-min(along), cut.above, 3)
        ring = np.array(made_points)
        ring -= (ring.max(axis=0) + ring.min(axis=0)) / 2
        spread = np.sqrt(np.sort(np.linalg.eigvalsh(ring.T @ ring / len(ring)))[1:] * 2)
        self.assertAlmostEqual(max(np.linalg.norm(ring, axis=1)) * 2, cut.long, delta=0.02)
        self.assertGreaterEqual(spread[1], spread[0] - 1e-9)

    @settings(deadline=None, max_examples=60)
    @given(st.floats(0, 25), st.floats(15, 40), st.floats(0, 40))
    def test_the_block_draws_the_floor_on_an_untrimmed_leg(
        self, lean: float, foot: float, allowance: float
    ) -> None:
        made = round_stool(lean, leg={"at_top": 40, "at_foot": foot}, allowance=allowance)
        stance = stand(made)
        leg, part = stance.legs[0], leg_of(made)
        # The square end's lowest rim point, measured plumb below the finished floor; the taper goes on.
        over = part.blank.quantity.value - part.finished.quantity.value
        rho = math.radians(leg.standing.resultant)
        half = foot / 2 - (40 - foot) / 2 / leg.exposed * over
        lowest = over * math.cos(rho) + half * math.sin(rho)
        self.assertAlmostEqual(part.block.quantity.value, lowest, 6)
        self.assertGreaterEqual(part.block.quantity.value, 0)

    @settings(deadline=None, max_examples=60)
    @given(st.floats(0, 30), st.floats(10, 40), st.floats(8, 30), st.floats(0, 6), st.floats(0, 2))
    def test_nothing_of_the_bit_goes_deeper_than_said(
        self, lean: float, hole: float, depth: float, point: float, spurs: float
    ) -> None:
        made = round_stool(lean, thickness=60, joint={"way": "blind", "socket": hole, "depth": depth})
        deepest = socket_of(made, Bit(centre_spur=point, rim_spurs=spurs)).deepest
        assert deepest is not None
        rho = math.radians(lean)
        axis, across = np.array((-math.sin(rho), math.cos(rho))), np.array((math.cos(rho), math.sin(rho)))
        corners = [axis * depth + across * hole / 2 * i for i in (-1, 1)]
        corners += [axis * (depth + spurs) + across * hole / 2 * i for i in (-1, 1)]
        corners.append(axis * (depth + point))
        self.assertAlmostEqual(max(c[1] for c in corners), deepest.quantity.value, 9)
