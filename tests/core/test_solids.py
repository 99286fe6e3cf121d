"""Every kind built in the round from what the plan says, an independent solid library the judge.

Each part is cut from its blank by the settings and lengths its figures give (scipy's Rotation
swings and leans the blade), put where the stance says, and judged by manifold3d: joints close,
feet lie in the floor, nothing overlaps but in its socket.
"""

from __future__ import annotations

import math
from itertools import combinations

import numpy as np
from django.test import SimpleTestCase
from manifold3d import Manifold
from numpy.typing import NDArray
from scipy.spatial.transform import Rotation

from splay.parts.stick import EndCut, StickPart
from splay.piece import Piece, Stretcher, read_piece, write_piece
from splay.piece.starters import starter
from splay.plan import Plan
from splay.stance.body import Body
from splay.stance.staked import support_of
from splay.stance.taper import size_at
from tests.core.make import planned

Array = NDArray[np.float64]
CLOSE_MM = 0.02
PUSH_MM = 0.05
LONG_MM = 4000.0
SIDES = 256
FRAMED = ("slab", "plane_frames", "crossed", "board_sides", "aproned")


def blade(end: EndCut, sign: int) -> Array:
    """The outward normal of a sawn end: swung on the face by the mitre, leaned by the tilt.

    Unswung and upright it is the stick's own direction; longer towards the first edge means the
    normal turns away from that edge, longer towards the face that it turns away from the face.
    """
    swung = Rotation.from_rotvec([0.0, 0.0, -sign * math.radians(end.mitre)])
    along = swung.apply([float(sign), 0.0, 0.0])
    trace = np.cross(along, [0.0, 0.0, 1.0])
    return Rotation.from_rotvec(-trace * math.radians(end.tilt)).apply(along)


def sawn(part: StickPart, body: Body) -> Manifold:
    """A stick from its stock, its bevels, its two cuts and the length along its first arris.

    Tenons are left out: it ends at its shoulders, so far back from the sawn ends.
    """
    w, t = (figure.quantity.value for figure in part.stock)
    made = Manifold.cube([LONG_MM, w, t], True)
    measured = part.arrises[0]
    y, z = body.arrises()[measured.across, measured.up]
    first = body.at(y, z)[0]
    length = measured.length.quantity.value
    if part.shoulders is not None:
        length -= part.overall.quantity.value - part.shoulders.quantity.value
    for end, sign, x in ((part.start, -1, first), (part.finish, 1, first + length)):
        normal = blade(end, sign)
        made = made.trim_by_plane((-normal).tolist(), float(-normal @ [x, y, z]))
    for rip in body.rips:
        # Where each bevel begins is the joint's; its slope is the figure's.
        made = made.trim_by_plane((-np.array(rip.normal)).tolist(), -rip.offset)
    for void in body.voids:
        notch = Manifold.cube([LONG_MM] * 3, True)
        for plane in void.planes:
            notch = notch.trim_by_plane((-np.array(plane.normal)).tolist(), -plane.offset)
        made = made - notch
    return made


def placed(solid: Manifold, body: Body) -> Manifold:
    """Put where the stance says, top frame."""
    p = body.pose
    frame = np.column_stack((p.along, p.across, p.up, p.origin))
    return solid.transform(frame)


def built(plan: Plan) -> dict[str, Manifold]:
    """All drawn parts of square stock."""
    return {
        body.key: placed(sawn(part, body), body)
        for part, body in zip(plan.sticks, plan.stance.bodies, strict=True)
        if body.drawn
    }


def cylinder(start: Array, end: Array, r0: float, r1: float) -> Manifold:
    """A round stick or a cone from one point to another."""
    way = end - start
    long = float(np.linalg.norm(way))
    way = way / long
    seed = np.array((0.0, 0.0, 1.0)) if abs(way[2]) < 0.9 else np.array((1.0, 0.0, 0.0))
    x = np.cross(seed, way)
    x /= np.linalg.norm(x)
    # Facets outside and inside the true circle in equal measure.
    fat = 1.0 / math.sqrt(math.cos(math.pi / SIDES))
    frame = np.column_stack((x, np.cross(way, x), way, start))
    return Manifold.cylinder(long, r0 * fat, r1 * fat, SIDES).transform(frame)


def varied(name: str, **supports: float) -> Piece:
    """A starting piece with its first support changed."""
    document = write_piece(starter(name))
    document["supports"][0].update(supports)
    return read_piece(document)


def _pieces() -> list[tuple[str, Piece]]:
    made = [(name, starter(name)) for name in FRAMED]
    made += [
        ("steep frames", varied("plane_frames", splay=14, rake=17, thickness=28, face=42)),
        ("unequal mitre", varied("crossed", rail=62, leg=41, splay=16, crossing=75)),
        ("one frame raked", varied("plane_frames", splay=3, rake=0)),
        ("square table legs", varied("aproned", true_section=False, splay=11, rake=6)),
        ("unequal table", varied("aproned", splay=14, rake=5)),
        ("steep boards", varied("board_sides", splay=19, thickness=18)),
        ("steep slab", varied("slab", splay=21)),
        ("plumb slab", varied("slab", splay=0)),
    ]
    for name in ("plane_frames", "aproned", "board_sides", "slab"):
        document = {**write_piece(starter(name)), "lean": {"fall": 4, "toward": 90}}
        made.append((f"{name} on a falling seat", read_piece(document)))
    return made


PIECES = _pieces()


class BuiltInTheRound(SimpleTestCase):
    def test_every_foot_lies_in_the_floor(self) -> None:
        for name, made in PIECES:
            plan = planned(made)
            n, h0 = np.array(plan.stance.floor.normal), plan.stance.floor.h0_mm
            solids = built(plan)
            for body in plan.stance.bodies:
                if not body.stands:
                    continue
                heights = solids[body.key].to_mesh().vert_properties[:, :3].astype(float) @ n + h0
                with self.subTest(name, part=body.name):
                    self.assertGreater(heights.min(), -CLOSE_MM)
                    self.assertGreaterEqual(int((heights < CLOSE_MM).sum()), 4)

    def test_no_two_parts_overlap(self) -> None:
        for name, made in PIECES:
            solids = built(planned(made))
            for (a, one), (b, two) in combinations(solids.items(), 2):
                with self.subTest(name, one=a, two=b):
                    shared = (one ^ two).volume()
                    # A sliver of the closing tolerance over the biggest face there is.
                    self.assertLess(shared, CLOSE_MM * 60.0**2)

    def test_every_joint_closes_over_its_whole_face(self) -> None:
        """Pushed a hair along its end, a part enters its neighbours by that much of its whole end."""
        for name, made in PIECES:
            plan = planned(made)
            solids = built(plan)
            top = self._top(made)
            for part, body in zip(plan.sticks, plan.stance.bodies, strict=True):
                for end, sign in ((part.start, -1), (part.finish, 1)):
                    if not body.drawn or (body.stands and sign > 0):
                        continue
                    normal = np.array(body.pose.turn_out(tuple(blade(end, sign))))
                    pushed = solids[body.key].translate((normal * PUSH_MM).tolist())
                    mesh = solids[body.key].to_mesh().vert_properties[:, :3].astype(float)
                    end_at = float((mesh @ normal).max())
                    # Only what now stands beyond the end itself; sides may slide along others.
                    beyond = pushed.trim_by_plane(normal.tolist(), end_at)
                    others = [solid for key, solid in solids.items() if key != body.key]
                    met = (beyond ^ Manifold.compose([top, *others])).volume()
                    with self.subTest(name, part=body.name, end=sign):
                        self.assertGreater(beyond.volume(), PUSH_MM)
                        self.assertAlmostEqual(met / beyond.volume(), 1.0, delta=0.02)

    @staticmethod
    def _top(made: Piece) -> Manifold:
        """A slab of the top's thickness, mitred where a slab leg leaves it: cut from the figures."""
        outline = made.top.outline
        wide = 5000.0
        solid = Manifold.cube([wide, wide, made.top.thickness], True).translate(
            [0.0, 0.0, made.top.thickness / 2]
        )
        for support in made.supports:
            if support.kind != "slab_leg":
                continue
            end = 1.0 if support.end == "right" else -1.0
            # Bevel (90 - s) / 2 off square, from the show corner down.
            bevel = math.radians((90.0 - support.splay) / 2)
            normal = np.array((end * math.cos(bevel), 0.0, -math.sin(bevel)))
            corner = np.array((end * outline.length / 2, 0.0, made.top.thickness))
            solid = solid.trim_by_plane((-normal).tolist(), float(-normal @ corner))
        return solid


class Bored(SimpleTestCase):
    """Staked legs: turned from their lengths, stood in holes bored along the axis."""

    def test_tenons_fill_their_holes_and_nothing_else_enters_the_top(self) -> None:
        for name in ("round_three", "round_four", "triangle", "bench", "table", "slab"):
            made = starter(name)
            plan = planned(made)
            slab = Manifold.cube([4000, 4000, made.top.thickness], True).translate(
                [0, 0, made.top.thickness / 2]
            )
            for leg, part in zip(plan.stance.legs, plan.parts, strict=True):
                d, socket = np.array(leg.d), np.array(leg.socket)
                inside = part.in_top.quantity.value
                hole = cylinder(socket + 100 * d, socket - leg.bore.deep * d, *[leg.bore.size / 2] * 2)
                if leg.bore.through:
                    hole = cylinder(socket + 100 * d, socket - 300 * d, *[leg.bore.size / 2] * 2)
                tenon = cylinder(socket, socket - inside * d, *[leg.bore.size / 2] * 2)
                with self.subTest(name, leg=leg.number):
                    self.assertLess((tenon ^ (slab - hole)).volume(), 0.002 * tenon.volume())
                    # What the card says is left above is what the solid has left.
                    left = plan.sockets[leg.number - 1].left_above
                    if left is not None:
                        reach = hole.bounding_box()[5]
                        self.assertAlmostEqual(
                            made.top.thickness - reach, left.quantity.value, delta=CLOSE_MM
                        )

    def test_stretchers_reach_the_bottom_of_their_sockets(self) -> None:
        made = starter("bench")
        plan = planned(made)
        for part in plan.members:
            chosen = made.members[part.number - 1]
            assert isinstance(chosen, Stretcher)
            if not all(end.leg for end in part.ends):
                continue
            axes = []
            for end in part.ends:
                leg = plan.stance.legs[end.leg - 1]
                axes.append(np.array(leg.socket) + np.array(leg.d) * end.down.quantity.value)
            middle = (axes[0] + axes[1]) / 2
            u = (axes[1] - axes[0]) / np.linalg.norm(axes[1] - axes[0])
            half = part.total.quantity.value / 2
            needle = cylinder(middle - u * half, middle + u * half, 0.05, 0.05)
            entered = 0.0
            for end in part.ends:
                leg = plan.stance.legs[end.leg - 1]
                shape = support_of(made, leg).leg
                d = np.array(leg.d)
                solid = cylinder(
                    np.array(leg.socket),
                    np.array(leg.socket) + d * leg.exposed,
                    shape.at_top / 2,
                    size_at(shape, leg.exposed, leg.exposed) / 2,
                )
                entered += (needle ^ solid).volume()
            depth = entered / (needle.volume() / (2 * half))
            with self.subTest(part=part.name):
                self.assertAlmostEqual(depth, 2 * chosen.depth, delta=2 * CLOSE_MM)
