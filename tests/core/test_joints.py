"""Legs of every joint turned, cut and leaned by their figures alone; a solid library the judge.

A leg is made standing plumb, its ends cut as its figures say, then leaned by the true lean along
its sightline (scipy's Rotation) and put on its mark. Nothing is taken from the stance's own axes.
"""

from __future__ import annotations

import math

import numpy as np
from django.test import SimpleTestCase
from manifold3d import Manifold
from scipy.spatial.transform import Rotation

from splay.piece import Battened, Blind, Piece, Reamed, Shouldered, Through, read_piece, write_piece
from splay.piece.starters import starter
from splay.plan import Plan
from splay.quantity import Figure
from splay.stance.battens import screw_places, tightest
from splay.stance.staked import LegStance, support_of
from tests.core.make import piece, planned

CLOSE_MM = 0.02
SIDES = 256
FAT = 1.0 / math.sqrt(math.cos(math.pi / SIDES))
RAKED = {"placement": {"way": "insets", "from_ends": 60, "from_edges": 60}, "height": 440, "thickness": 34}
JOINTS = {
    "through": {"way": "through", "socket": 26, "proud": 5},
    "blind": {"way": "blind", "socket": 27, "depth": 22},
    "reamed": {"way": "reamed", "socket": 26, "included": 7, "proud": 4},
    "dowel screw": {"way": "dowel_screw", "core": 6, "length": 70, "into_top": 24},
    "shouldered": {"way": "shouldered", "socket": 30, "across": 16, "depth": 24},
    "battened": {
        "way": "battened", "socket": 24, "depth": 26, "batten_width": 58, "batten_thickness": 38,
    },
}  # fmt: skip


def pieces() -> list[tuple[str, Piece]]:
    made = [(name, piece(joint=joint, **RAKED)) for name, joint in JOINTS.items()]
    for name, joint in JOINTS.items():
        document = write_piece(piece(joint=joint, **RAKED))
        made.append((f"{name}, leaning seat", read_piece({**document, "lean": {"fall": 3, "toward": 90}})))
    return made + [(name, starter(name)) for name in ("battened", "tall", "log_slice", "round_three")]


def figure(figures: tuple[Figure, ...], ending: str) -> float:
    return next(f.quantity.value for f in figures if f.key.endswith(ending))


def leaned(solid: Manifold, leg: LegStance) -> Manifold:
    """From plumb, foot down, to its lean along its sightline, its mouth's middle on its mark."""
    bearing = leg.boring.bearing or 0.0
    # A leg pointing down leans out along x by a turn about -y; the sightline turns that about z.
    turn = Rotation.from_euler("z", bearing, degrees=True) * Rotation.from_euler(
        "y", -leg.boring.resultant, degrees=True
    )
    about = Rotation.from_euler("z", -bearing, degrees=True)
    frame = np.column_stack(((turn * about).as_matrix(), leg.socket))
    return solid.transform(frame)


def plumb_tenon(plan: Plan, made: Piece, k: int) -> Manifold | None:
    """The tenon standing up from the origin, by its figures."""
    leg, part, socket = plan.stance.legs[k], plan.parts[k], plan.sockets[k]
    joint = support_of(made, leg).joint
    inside = part.in_top.quantity.value
    if isinstance(joint, Shouldered):
        bearing = leg.boring.bearing or 0.0
        width = figure(socket.more, ".mortise")
        return (
            Manifold.cube([joint.socket, width, inside], True)
            .translate([0, 0, inside / 2])
            .rotate([0, 0, bearing])
        )
    if isinstance(joint, Reamed):
        tip = figure(part.making, ".tip")
        return Manifold.cylinder(inside, joint.socket / 2 * FAT, tip / 2 * FAT, SIDES)
    if isinstance(joint, Through | Blind | Battened):
        return Manifold.cylinder(inside, joint.socket / 2 * FAT, joint.socket / 2 * FAT, SIDES)
    return None


def wood_of(plan: Plan, made: Piece) -> Manifold:
    """What the legs are bored into: the top, or the battens under it."""
    top = Manifold.cube([3000, 3000, made.top.thickness], True).translate([0, 0, made.top.thickness / 2])
    battens = []
    for part, body in zip(plan.sticks, plan.stance.bodies, strict=True):
        if body.role == "batten":
            long = part.overall.quantity.value
            w, t = (f.quantity.value for f in part.stock)
            block = Manifold.cube([long, w, t], True)
            p = body.pose
            battens.append(block.transform(np.column_stack((p.along, p.across, p.up, p.origin))))
    return Manifold.compose([top, *battens])


class EveryJoint(SimpleTestCase):
    def test_tenons_fill_what_was_bored_and_enter_nothing_else(self) -> None:
        for name, made in pieces():
            plan = planned(made)
            wood = wood_of(plan, made)
            for k, leg in enumerate(plan.stance.legs):
                tenon = plumb_tenon(plan, made, k)
                if tenon is None:
                    continue
                hole = self._hole(made, leg)
                bored = wood - leaned(hole, leg)
                stood = leaned(tenon, leg)
                with self.subTest(name, leg=leg.number):
                    self.assertLess((stood ^ bored).volume(), 0.002 * tenon.volume())
                    # And it is a fit: grown a little, it enters the wood all round it.
                    grown = leaned(tenon.scale([1.01, 1.01, 1.0]), leg)
                    self.assertGreater((grown ^ bored).volume(), 0.003 * tenon.volume())

    @staticmethod
    def _hole(made: Piece, leg: LegStance) -> Manifold:
        joint = support_of(made, leg).joint
        deep, long = leg.bore.deep, 300.0
        if isinstance(joint, Shouldered):
            solid = Manifold.cube([joint.socket, joint.across, deep + long], True)
            return solid.translate([0, 0, (deep - long) / 2]).rotate([0, 0, leg.boring.bearing or 0.0])
        if isinstance(joint, Reamed):
            # The reamer itself, by its included angle: its point far above, its mouth far below.
            point = joint.socket / 2 / math.tan(math.radians(joint.included / 2))
            wide = (point + 30) * math.tan(math.radians(joint.included / 2))
            return Manifold.cylinder(point + 30, wide * FAT, 0.0, SIDES).translate([0, 0, -30])
        r = joint.socket / 2 * FAT
        end = long if isinstance(joint, Through) else deep
        return Manifold.cylinder(end + long, r, r, SIDES).translate([0, 0, -long])

    def test_what_is_left_above_is_what_the_solid_has_left(self) -> None:
        for name, made in pieces():
            plan = planned(made)
            for k, leg in enumerate(plan.stance.legs):
                left = plan.sockets[k].left_above
                joint = support_of(made, leg).joint
                # Under a hollow the top is thinner by place: test_kinds has its values.
                hollowed = made.top.hollow is not None
                if hollowed or left is None or not isinstance(joint, Blind | Battened | Shouldered):
                    continue
                limit = 0.0 if isinstance(joint, Battened) else made.top.thickness
                reach = leaned(self._hole(made, leg), leg).bounding_box()[5]
                with self.subTest(name, leg=leg.number):
                    self.assertAlmostEqual(limit - reach, left.quantity.value, delta=CLOSE_MM)

    def test_a_sloped_shoulder_or_a_sawn_end_closes_on_what_it_meets(self) -> None:
        for name, made in pieces():
            plan = planned(made)
            for k, leg in enumerate(plan.stance.legs):
                part = plan.parts[k]
                slope = [f for f in part.making if f.key.endswith((".top_cut", ".shoulder"))]
                if not slope:
                    continue
                angle = math.radians(slope[0].quantity.value)
                bearing = math.radians(leg.boring.bearing or 0.0)
                # Its inner side comes out longer: the cut rises away from where the foot leans.
                away = -np.array((math.cos(bearing), math.sin(bearing), 0.0))
                normal = np.array((0.0, 0.0, math.cos(angle))) - away * math.sin(angle)
                blank = Manifold.cylinder(400, 16, 16, SIDES).translate([0, 0, -300])
                cut = blank.trim_by_plane((-normal).tolist(), 0.0)
                stood = leaned(cut, leg)
                level = leg.bore.mouth_z
                corners = stood.to_mesh().vert_properties[:, 2].astype(float)
                with self.subTest(name, leg=leg.number):
                    self.assertLess(corners.max() - level, CLOSE_MM)
                    self.assertGreaterEqual(int((abs(corners - level) < CLOSE_MM).sum()), SIDES - 2)

    def test_a_foot_sawn_by_its_figures_lies_in_the_floor(self) -> None:
        """Long side and short side along the leg, the bearing of the longer: nothing else is used."""
        for name, made in pieces():
            plan = planned(made)
            n, h0 = np.array(plan.stance.floor.normal), plan.stance.floor.h0_mm
            for leg, part in zip(plan.stance.legs, plan.parts, strict=True):
                if part.cut.taper or support_of(made, leg).leg.section != "round":
                    continue
                radius = support_of(made, leg).leg.at_foot / 2
                long = part.exposed.quantity.value
                rise = part.high_low.quantity.value / (2 * radius)
                # The longer side lies where the leg leans to off plumb, seen square to the floor.
                d = np.array(leg.d)
                out = d + n * float(-n @ d)
                turned = Rotation.align_vectors([[0, 0, -1]], [d])[0].apply(out)
                out = np.array((turned[0], turned[1], 0.0))
                size = float(np.linalg.norm(out))
                if size < 1e-9:
                    continue
                turns = np.linspace(0, 2 * math.pi, 33)[:-1]
                u = out / size
                v = np.array((-u[1], u[0], 0.0))
                back = Rotation.align_vectors([[0, 0, -1]], [d])[0].inv()
                for t in turns:
                    rim = u * math.cos(t) * radius + v * math.sin(t) * radius
                    tip = rim + np.array((0, 0, -(long + rise * radius * math.cos(t))))
                    at = np.array(leg.socket) + back.apply(tip)
                    with self.subTest(name, leg=leg.number):
                        self.assertAlmostEqual(float(at @ n + h0), 0.0, delta=CLOSE_MM)


class BattenScrews(SimpleTestCase):
    def test_one_between_each_end_and_the_nearest_hole_the_rest_between_the_holes(self) -> None:
        """By hand: 380 long, holes from 27 to 53 and from 327 to 353."""
        holes = [(27.0, 53.0), (327.0, 353.0)]
        self.assertEqual(screw_places(380, holes, 2), (13.5, 366.5))
        self.assertEqual(screw_places(380, holes, 3), (13.5, 190.0, 366.5))
        self.assertEqual(tightest(380, holes, 3), 13.5)

    def test_with_one_leg_in_a_batten_they_stand_beside_its_hole_and_are_crowded(self) -> None:
        at = screw_places(100, [(37.0, 63.0)], 3)
        self.assertTrue(all(one < 37.0 or one > 63.0 for one in at))
        document = write_piece(starter("battened"))
        document["supports"][0]["joint"]["end"] = 20
        codes = {f.code for f in planned(read_piece(document)).findings}
        self.assertIn("screws_crowded", codes)
        self.assertNotIn("screws_crowded", {f.code for f in planned(starter("battened")).findings})
