"""Where everything is: check values, an outside judge, and what must hold for every piece."""

from __future__ import annotations

import math

import numpy as np
from django.test import SimpleTestCase
from hypothesis import assume, given, settings
from hypothesis import strategies as st
from scipy.spatial.transform import Rotation

from splay.errors import CannotBuild
from splay.piece import Lean, Piece, read_piece, write_piece
from splay.stance.floor import floor_under
from splay.stance.outline import edge_distance, extent, points, rim
from splay.stance.staked import Stance, stand
from splay.stance.vectors import dot
from tests.core.make import piece, round_stool

leans = st.builds(Lean, fall=st.floats(0, 15), toward=st.floats(0, 360))


def h0(piece_: Piece, plumb: float) -> Piece:
    """The piece raised so that the middle of its underside stands `plumb` mm above the floor."""
    rise = piece_.top.thickness * math.cos(math.radians(piece_.lean.fall))
    return piece_.model_copy(update={"height": plumb + rise})


class CheckValues(SimpleTestCase):
    """Independent: worked in closed form and by building the situation in space."""

    def test_a_seat_that_falls_to_the_back_has_two_lengths_of_leg(self) -> None:
        made = stand(h0(piece(lean={"fall": 3}), 392))
        front, back = made.legs[1], made.legs[2]
        self.assertAlmostEqual(back.standing.resultant, 10.38, 2)
        self.assertAlmostEqual(back.exposed, 392.68, 2)
        self.assertAlmostEqual(front.standing.resultant, 13.38, 2)
        self.assertAlmostEqual(front.exposed, 408.86, 2)
        for leg, foot in ((back, (217.82, 130.09)), (front, (220.62, -172.85))):
            self.assertAlmostEqual(leg.foot_floor[0], foot[0], 2)
            self.assertAlmostEqual(leg.foot_floor[1], foot[1], 2)

    def test_rake_off_plumb_is_rake_less_the_fall_behind_and_more_in_front(self) -> None:
        made = stand(piece(lean={"fall": 3}))
        self.assertAlmostEqual(made.legs[2].standing.rake, 6 - 3, 9)
        self.assertAlmostEqual(made.legs[1].standing.rake, -(6 + 3), 9)
        tan_s = math.tan(math.radians(10)) * math.cos(math.radians(6)) / math.cos(math.radians(3))
        self.assertAlmostEqual(math.tan(math.radians(made.legs[2].standing.splay)), tan_s, 9)

    def test_a_level_stools_feet(self) -> None:
        made = stand(piece())
        self.assertAlmostEqual(made.legs[2].exposed, 400.17, 2)
        self.assertAlmostEqual(made.legs[2].foot_floor[0], 219.12, 2)
        self.assertAlmostEqual(made.legs[2].foot_floor[1], 151.20, 2)

    def test_chords_between_legs_on_a_circle(self) -> None:
        # Chord 2 R sin(180/n), R 130; the rounded triangle's corners lie a / sqrt 3 out.
        for n, chord in ((3, 225.17), (4, 183.85), (5, 152.82), (6, 130.00)):
            ring = {"way": "circle", "count": n, "radius": 130}
            legs = stand(round_stool(10, placement=ring)).legs
            self.assertAlmostEqual(math.dist(legs[0].socket, legs[1].socket), chord, 2)
        legs = stand(round_stool(10, placement={"way": "triangle", "side": 260})).legs
        self.assertAlmostEqual(math.hypot(*legs[0].place.at), 150.11, 2)
        self.assertAlmostEqual(math.dist(legs[0].socket, legs[2].socket), 260, 9)

    def test_the_rounded_triangle_is_as_wide_in_every_direction(self) -> None:
        # a 260, R 300: 340 wide. In inches (common practice, no source): 10 1/2 and 12 give 13 1/2.
        for side, arc, wide in ((260.0, 300.0, 340.0), (266.7, 304.8, 342.9)):
            outline = piece(outline={"kind": "rounded_triangle", "side": side, "arc": arc}).top.outline
            ring = np.array(points(outline))
            for bearing in range(0, 180, 7):
                u = np.array((math.cos(math.radians(bearing)), math.sin(math.radians(bearing))))
                self.assertAlmostEqual(np.ptp(ring @ u), wide, delta=0.03)
        centre = 10.5 / math.sqrt(3)
        self.assertAlmostEqual(centre, 6.06, 2)

    def test_untilted_and_tilted_floors_turn_by_the_least_turn(self) -> None:
        # Outside judge: scipy's Rotation, about the level line square to the fall.
        for fall, toward in ((3.0, 90.0), (11.0, 0.0), (7.5, 217.0)):
            floor = floor_under(Lean(fall=fall, toward=toward), 450, 40)
            axis = np.array((-math.sin(math.radians(toward)), math.cos(math.radians(toward)), 0.0))
            judge = Rotation.from_rotvec(axis * math.radians(fall))
            for v in ((1.0, 0.0, 0.0), (0.3, -2.0, 0.7)):
                np.testing.assert_allclose(floor.turn(v), judge.apply(v), atol=1e-12)
                np.testing.assert_allclose(floor.turn_back(floor.turn(v)), v, atol=1e-12)
            np.testing.assert_allclose(floor.turn(floor.normal), (0, 0, 1), atol=1e-12)


class WhereFeetLand(SimpleTestCase):
    def test_under_the_rim_is_plumb_under_the_rim(self) -> None:
        for lean in ({"fall": 0}, {"fall": 4, "toward": 90}):
            shape = round_stool(9, lean=lean)
            document = write_piece(shape)
            document["supports"][0]["angles"] = [{"by": "under_rim"}]
            made = stand(read_piece(document))
            for leg in made.legs:
                bearing = math.degrees(math.atan2(leg.place.at[1], leg.place.at[0]))
                edge = made.floor.to_floor((*rim(shape.top.outline, bearing), 0.0))
                self.assertAlmostEqual(leg.foot_floor[0], edge[0], 6)
                self.assertAlmostEqual(leg.foot_floor[1], edge[1], 6)

    def test_as_wide_and_footprint_put_the_outsides_of_the_cut_feet_there(self) -> None:
        for spec, half in (
            ({"by": "as_wide"}, (200.0, 150.0)),
            ({"by": "footprint", "width": 460, "depth": 330}, (230.0, 165.0)),
        ):
            for section in ("round", "square"):
                leg = {"section": section, "at_top": 36, "at_foot": 36}
                made = stand(piece(angles=[spec], leg=leg))
                reach = feet_reach(piece(angles=[spec], leg=leg), made)
                self.assertAlmostEqual(reach[0], half[0], delta=0.02)
                self.assertAlmostEqual(reach[1], half[1], delta=0.02)

    def test_a_leg_at_the_very_middle_has_no_outward_side(self) -> None:
        spots = [{"x": 0, "y": 0, "mirror": "none"}, {"x": 90, "y": 60, "mirror": "sides"}]
        with self.assertRaisesRegex(CannotBuild, "middle"):
            stand(piece(placement={"way": "free", "spots": spots}, angles=[{"by": "under_rim"}]))


def feet_reach(made: Piece, stance: Stance) -> tuple[float, float]:
    """Outermost x and y of the cut feet, found by slicing each leg's solid by the floor, not by formula."""
    best = [0.0, 0.0]
    for leg in stance.legs:
        shape = made.supports[leg.support].leg
        d, half = np.array(leg.d), shape.at_foot / 2
        front = np.cross((1.0, 0.0, 0.0), d)
        front /= np.linalg.norm(front)
        side = np.cross(front, d)
        turns = np.linspace(0, 2 * math.pi, 3600)
        if shape.section == "round":
            edge = half * (np.outer(np.cos(turns), side) + np.outer(np.sin(turns), front))
        else:
            edge = np.array([half * (i * side + j * front) for i in (1, -1) for j in (1, -1)])
        n = np.array(stance.floor.normal)
        on_floor = edge - np.outer(edge @ n / (d @ n), d)
        for k in range(2):
            best[k] = max(best[k], float(np.abs(on_floor[:, k] + leg.foot[k]).max()))
    return best[0], best[1]


class Properties(SimpleTestCase):
    @settings(deadline=None, max_examples=150)
    @given(leans, st.floats(200, 800), st.floats(-25, 30), st.floats(-25, 30))
    def test_every_foot_lands_on_the_floor(
        self, lean: Lean, height: float, splay: float, rake: float
    ) -> None:
        spec = [{"by": "splay_rake", "splay": splay, "rake": rake}]
        made = stand(piece(height=height, lean=lean.model_dump(), angles=spec))
        for leg in made.legs:
            self.assertAlmostEqual(leg.foot_floor[2], 0.0, 7)
            self.assertAlmostEqual(dot(made.floor.normal, leg.foot) + made.floor.h0_mm, 0.0, 7)

    @settings(deadline=None, max_examples=100)
    @given(st.integers(1, 359), st.integers(3, 8), st.floats(2, 30), st.floats(0, 12))
    def test_turning_the_design_turns_the_answer(
        self, turn: int, count: int, lean: float, fall: float
    ) -> None:
        ring = {"way": "circle", "count": count, "radius": 110, "first": 20}
        spec = [{"by": "resultant", "resultant": lean, "sightline": 15}]
        first = stand(
            piece(outline={"kind": "round", "diameter": 360}, placement=ring, angles=spec,
                  lean={"fall": fall, "toward": 0})
        )  # fmt: skip
        ring_turned = {**ring, "first": 20 + turn - (360 if turn > 180 else 0)}
        second = stand(
            piece(outline={"kind": "round", "diameter": 360}, placement=ring_turned, angles=spec,
                  lean={"fall": fall, "toward": turn})
        )  # fmt: skip
        judge = Rotation.from_euler("z", turn, degrees=True)
        for a, b in zip(first.legs, second.legs, strict=True):
            np.testing.assert_allclose(judge.apply(a.foot_floor), b.foot_floor, atol=1e-6)
            self.assertAlmostEqual(a.exposed, b.exposed, 7)

    @settings(deadline=None, max_examples=60)
    @given(st.floats(120, 900), st.floats(20, 60), st.floats(3, 20))
    def test_inches_and_millimetres_agree(self, height: float, thick: float, lean: float) -> None:
        assume(height > thick + 40)
        metric = write_piece(round_stool(lean, height=height, thickness=thick))
        inch = {**metric, "height": f"{height / 25.4:.12f} in"}
        inch["top"] = {**metric["top"], "thickness": f"{thick / 25.4:.12f}"}
        a, b = read_piece(metric), read_piece(inch, "inch")
        self.assertAlmostEqual(stand(a).legs[0].exposed, stand(b).legs[0].exposed, 6)

    def test_outlines_know_their_inside(self) -> None:
        oval = piece(outline={"kind": "oval", "length": 400, "width": 260}).top.outline
        self.assertAlmostEqual(edge_distance(oval, (0.0, 0.0)), 130, delta=0.02)
        self.assertLess(edge_distance(oval, (210.0, 0.0)), 0)
        self.assertEqual(extent(oval), (200.0, 130.0))
