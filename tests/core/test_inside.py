"""What meets inside the wood: rods against an independent solid library, and pieces mended as told."""

from __future__ import annotations

import re
from itertools import combinations
from typing import Any

import numpy as np
from django.test import SimpleTestCase
from hypothesis import example, given, settings
from hypothesis import strategies as st
from manifold3d import Manifold
from scipy.spatial.transform import Rotation

from splay.piece import Piece, read_piece, write_piece
from splay.piece.starters import STARTS, starter
from splay.plan import plan
from splay.quantity import Show, Units
from splay.shop import workbench
from splay.stance.apart import clear
from splay.stance.members import members
from splay.stance.rods import Rod, rods
from splay.stance.staked import stand
from splay.views.mesh import meshes
from splay.views.scene import Model

SPAN = st.floats(-40, 40)
PLACE = st.tuples(SPAN, SPAN, SPAN)


def rod(a: Any, b: Any, radius: float) -> Rod:
    return Rod("dowel", "", "", frozenset(), a, b, radius, "")


def solid(one: Rod) -> Manifold:
    """The same rod by the library's own cylinder, turned by scipy."""
    a, b = np.array(one.a), np.array(one.b)
    long = float(np.linalg.norm(b - a))
    turn, _ = Rotation.align_vectors([(b - a) / long], [[0, 0, 1]])
    upright = Manifold.cylinder(long, one.radius, one.radius, 96)
    return upright.transform(np.column_stack((turn.as_matrix(), a)))


def with_support(kind: str, **sizes: Any) -> Piece:
    document = write_piece(starter(kind))
    document["supports"][0] |= sizes
    return read_piece(document)


def found(piece: Piece) -> dict[str, Any]:
    return {one.code: one for one in plan(piece, workbench()).findings}


class Distances(SimpleTestCase):
    @given(PLACE, PLACE, PLACE, PLACE, st.floats(2, 12), st.floats(2, 12))
    @example((0.0, 0.0, -11.0), (17.0, 0.0, 0.0), (0.0, 3.0, 9.0), (11.0, -11.0, 5.0), 10.0, 2.0)
    @settings(max_examples=60, deadline=None)
    def test_rods_are_as_far_apart_as_the_solid_library_finds(
        self, a: Any, b: Any, c: Any, d: Any, r: float, q: float
    ) -> None:
        if np.linalg.norm(np.subtract(a, b)) < 5 or np.linalg.norm(np.subtract(c, d)) < 5:
            return
        one, two = rod(a, b, r), rod(c, d, q)
        left = clear(one, two)
        gap = solid(one).min_gap(solid(two), 200.0)
        if left > 5.0:
            # Far apart a lower bound is enough.
            self.assertLessEqual(left, gap + 1.0)
        elif left > 0.0:
            self.assertAlmostEqual(left, gap, delta=1.0)
            self.assertLess(gap - left, 0.1)
        else:
            self.assertLess(gap, 1.0)

    def test_flat_ends_do_not_reach_beyond_themselves(self) -> None:
        # The end of one stands 3 off the side of the other: round ends would meet.
        across = rod((0, -20, 0), (0, 20, 0), 5)
        self.assertAlmostEqual(clear(rod((8, 0, 0), (40, 0, 0), 5), across), 3.0, 6)
        self.assertAlmostEqual(clear(rod((3, 0, 0), (40, 0, 0), 5), across), -2.0, 6)


class Rods(SimpleTestCase):
    def test_all_that_is_in_the_wood_lies_in_the_parts_that_are_named(self) -> None:
        """By vectors of its own: both halves of a dowel are inside the two parts it joins."""
        for kind in ("plane_frames", "board_sides", "crossed"):
            piece = starter(kind)
            stance = stand(piece)
            bodies = {body.key: body for body in stance.bodies}
            seen = [one for one in rods(piece, stance, *members(piece, stance)) if one.sort == "dowel"]
            self.assertTrue(seen)
            for one in seen:
                self.assertEqual(len(one.hosts), 2, one)
                middle = np.add(one.a, one.b) / 2
                for end in (one.a, one.b):
                    p = middle + (np.array(end) - middle) * 0.6
                    inside = [
                        key
                        for key in one.hosts
                        for piece_ in bodies[key].stood
                        if all(
                            float(np.dot(face.normal, p - np.array(face.corners[0]))) < 0.1
                            for face in piece_
                        )
                    ]
                    self.assertTrue(inside, one)

    def test_a_stools_rods_are_its_holes(self) -> None:
        piece = starter("bench")
        stance = stand(piece)
        every = rods(piece, stance, *members(piece, stance))
        legs = [one for one in every if one.sort == "tenon"]
        self.assertEqual(len(legs), 4)
        for one, leg in zip(legs, stance.legs, strict=True):
            way = np.subtract(one.b, one.a)
            self.assertAlmostEqual(float(np.linalg.norm(way)), leg.bore.deep, 6)
            self.assertAlmostEqual(float(way @ np.array(leg.d)), -leg.bore.deep, 6)


class Meetings(SimpleTestCase):
    def test_nothing_meets_in_what_anyone_starts_with(self) -> None:
        for name in STARTS:
            codes = found(starter(name)).keys() & {"inside_meet", "inside_close", "dowel_out"}
            self.assertEqual(codes, set(), name)

    def test_dowels_of_a_link_and_of_the_cross_piece_it_meets(self) -> None:
        # 25 deep both ways: the cross-piece's from its end, the link's 21 to 31 from that end.
        document = write_piece(with_support("plane_frames", dowels={"depth": 25}))
        document["supports"][0]["cross"][0]["thickness"] = 32
        piece = read_piece(document)
        met = found(piece)["inside_meet"]
        self.assertEqual(met.level, "stop")
        self.assertIn("in 4 places", met.text)
        self.assertEqual(met.field, "supports.0.dowels.depth")
        (by,) = re.findall(r"(\d+) mm less deep", met.mend)
        document["supports"][0]["dowels"]["depth"] = 25 - int(by)
        self.assertFalse(found(read_piece(document)).keys() & {"inside_meet", "inside_close"})

    def test_it_is_ringed_where_the_two_come_nearest(self) -> None:
        """The nearest places of two middle lines, sought along both; the ring lies near them."""
        document = write_piece(with_support("plane_frames", dowels={"depth": 25}))
        document["supports"][0]["cross"][0]["thickness"] = 32
        piece = read_piece(document)
        stance = stand(piece)
        every = rods(piece, stance, *members(piece, stance))
        at = found(piece)["inside_meet"].at
        assert at is not None
        runs = [(one, np.linspace(one.a, one.b, 401)) for one in every if one.sort == "dowel"]
        near = []
        for one, other in combinations(runs, 2):
            apart = np.linalg.norm(one[1][:, None] - other[1][None, :], axis=2)
            if one[0].joint != other[0].joint and apart.min() < one[0].radius + other[0].radius:
                place = one[1][np.unravel_index(apart.argmin(), apart.shape)[0]]
                near.append(float(np.linalg.norm(place[:2] - np.array(at))))
        self.assertTrue(near)
        self.assertLess(min(near), 3.0)

    def test_dowels_that_come_out_of_what_they_run_into(self) -> None:
        # Links are joined to cross-pieces 24 thick: 25 deep comes out of their face by 1, and wants 3.
        out = found(with_support("plane_frames", dowels={"depth": 25, "size": 6}))["dowel_out"]
        self.assertAlmostEqual(out.number.value, -1.0, 6)
        self.assertIn("4 mm less deep", out.mend)
        self.assertNotIn("dowel_out", found(with_support("plane_frames", dowels={"depth": 20, "size": 6})))

    def test_a_screw_of_the_top_is_set_elsewhere_as_told(self) -> None:
        screw = {"bite": 14, "length": 30, "from_ends": 30, "count": 2}
        piece = with_support("plane_frames", held=screw)
        met = next(one for code, one in found(piece).items() if code.startswith("inside"))
        self.assertEqual(met.field, "supports.0.held.from_ends")
        (by,) = re.findall(r"(\d+) mm further from the part's end", met.mend)
        screw["from_ends"] = 30 + int(by)
        mended = found(with_support("plane_frames", held=screw))
        self.assertFalse([one for code, one in mended.items() if code.startswith("inside")])

    def test_nothing_is_told_to_go_past_the_end_of_its_part(self) -> None:
        screw = {"bite": 14, "length": 30, "from_ends": 12, "count": 2}
        met = found(with_support("plane_frames", held=screw))["inside_meet"]
        self.assertNotIn("nearer", met.mend)

    def test_a_peg_goes_through_its_own_tenon_and_no_other(self) -> None:
        piece = starter("battened")
        stance = stand(piece)
        every = rods(piece, stance, *members(piece, stance))
        pegs = [one for one in every if one.sort == "peg"]
        self.assertTrue(pegs)
        for peg in pegs:
            own = next(one for one in every if one.sort == "tenon" and one.joint == peg.crosses)
            self.assertLess(clear(peg, own), 0.0)
        self.assertNotIn("inside_meet", found(piece))

    def test_it_is_shown_in_the_round_where_it_is(self) -> None:
        piece = with_support("plane_frames", dowels={"depth": 25})
        made = plan(piece, workbench())
        stance = stand(piece)
        show = Show(Units())
        model = Model(piece, stance, made.parts, made.sockets, show, made.findings)
        lumps = [mesh for mesh in meshes(model) if mesh.stuff == "warning"]
        spots = [one.spot for one in made.findings if one.spot is not None]
        self.assertEqual(len(lumps), len(spots))
        for lump, spot in zip(lumps, spots, strict=True):
            middle = np.array(lump.points).reshape(-1, 3).mean(axis=0)
            self.assertLess(float(np.abs(middle - np.array(stance.floor.to_floor(spot))).max()), 0.02)
