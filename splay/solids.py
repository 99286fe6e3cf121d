"""Every part of a piece as a closed solid: holes bored, tenons on, feet cut; floor frame, mm.

Built by an exact boolean library (manifold3d); what each part is comes from the plan. Not in them: mortises
and tenons of squared parts, screws, wedges, rounded arrises.
"""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from itertools import pairwise

import numpy as np
from manifold3d import CrossSection, Manifold, Mesh64, OpType, triangulate
from numpy.typing import NDArray

from splay.errors import CannotBuild
from splay.piece import Piece, Shouldered, Stretcher, Trough
from splay.plan import Plan
from splay.quantity import degrees as deg
from splay.stance.aim import faces
from splay.stance.body import Body
from splay.stance.buttons import Grooved, grooves
from splay.stance.convex import Plane
from splay.stance.gapped import slit
from splay.stance.hand_hold import slot
from splay.stance.holding import Fastening, fastenings
from splay.stance.hollow import arc_radius
from splay.stance.lines import socket_line
from splay.stance.member_flats import section_ring
from splay.stance.members import MemberStance, RopeStance, members
from splay.stance.outline import extent
from splay.stance.splines import splined
from splay.stance.staked import LegStance, Stance, support_of
from splay.stance.taper import corners, size_at, taper_at
from splay.stance.underfoot import bearings
from splay.stance.vectors import Vec, along, between, cross, length, unit
from splay.views.edges import rings_of

ROUND = 144
"""Points round a circle: its area comes out 0.03 % small."""
EDGE_STEPS = 16
SEAM_MM = 0.05
"""Parts of one solid that are worked out apart overlap by so much, so that they join."""
SPECK_MM = 0.002
"""Edges shorter than this are taken together: a file of single precision cannot hold them apart."""
FAR_MM = 20000.0
OUT_MM = 400.0
"""A hole's cutter reaches so far out of the surface it enters."""


@dataclass(frozen=True)
class Part:
    """One solid: its key, what the maker calls it, corner points (n by 3, floor frame, mm) and triangles (m
    by 3, counter-clockwise from outside)."""

    key: str
    name: str
    points: NDArray[np.float64]
    triangles: NDArray[np.int64]


def solids_of(piece: Piece, plan: Plan) -> tuple[Part, ...]:
    """The top, the legs, the squared parts, the members and the ropes, each closed.

    CannotBuild where an outline and its shaped edge enclose no solid.
    """
    stance = plan.stance
    runs, ropes = members(piece, stance)
    sockets = [(leg, socket(piece, leg)) for leg in stance.legs]
    made: list[tuple[str, str, Manifold]] = []
    top = top_solid(piece)
    for leg, hole in sockets:
        if leg.bore.mouth_z == 0.0:
            top -= hole
    through = [(one, hull(one.corners())) for one in splined(piece, stance)]
    made.append(("top", "top", top - _those([solid for _, solid in through])))
    for each, solid in through:
        name = f"spline {each.number} of the {each.body.name}"
        made.append((f"{each.body.key}.spline.{each.number}", name, solid))
    for leg in stance.legs:
        solid = leg_solid(piece, stance, leg) - _holes(piece, runs, (leg.number, 0))
        made.append((f"leg.{leg.id}", f"leg {leg.number}", solid))
    screws, grooved = fastenings(piece, stance), grooves(piece, stance)
    for body in stance.bodies:
        if body.drawn:
            solid = body_solid(body) - _screw_holes(body, screws)
            for one in grooved:
                solid -= groove_solid(one) if one.body is body else Manifold()
            solid -= _those([spline for each, spline in through if each.body.key == body.key])
            for leg, hole in sockets:
                if leg.support == body.support and leg.bore.mouth_z != 0.0:
                    solid -= hole
            made.append((body.key, body.name, solid))
    for run in runs:
        chosen = piece.members[run.number - 1]
        assert isinstance(chosen, Stretcher)
        rod = member_solid(chosen, run)
        rod -= _holes(piece, runs, (0, run.number))
        made.append((f"member.{run.id}", chosen.name or f"stretcher {run.number}", rod))
    for rope in ropes:
        made.append((f"member.{rope.id}", "rope", rope_solid(piece, rope)))
    parts = [_stood(key, name, solid, stance) for key, name, solid in made]
    return (*parts, *_underfoot(piece, stance))


def _underfoot(piece: Piece, stance: Stance) -> Iterable[Part]:
    """What is put under the feet, below the floor that they were sawn to."""
    under = piece.underfoot
    if under is None:
        return
    for number, one in enumerate(bearings(piece, stance), 1):
        solid = cylinder((*one.at, -under.thickness), (0.0, 0.0, 1.0), under.thickness, under.across / 2.0)
        mesh = solid.to_mesh64()
        yield Part(
            f"underfoot.{number}",
            f"under {one.name}",
            np.asarray(mesh.vert_properties)[:, :3],
            np.asarray(mesh.tri_verts, dtype=np.int64),
        )


def _stood(key: str, name: str, solid: Manifold, stance: Stance) -> Part:
    """A solid of the top frame as it stands on the floor."""
    if solid.is_empty():
        raise CannotBuild(f"The {name} has no wood left in it.", "Look at its sizes and holes.", "top")
    rows = np.array(stance.floor.rows)
    moved = solid.transform(np.column_stack((rows, (0.0, 0.0, stance.floor.h0_mm)))).simplify(SPECK_MM)
    mesh = moved.to_mesh64()
    return Part(
        key, name, np.asarray(mesh.vert_properties)[:, :3], np.asarray(mesh.tri_verts, dtype=np.int64)
    )


def _closed(points: NDArray[np.float64], triangles: Sequence[tuple[int, int, int]], what: str) -> Manifold:
    """The solid of some triangles, whichever way round all of them run."""
    ways = np.array(triangles, dtype=np.uint64)
    solid = Manifold(Mesh64(points, ways))
    if solid.volume() < 0.0:
        solid = Manifold(Mesh64(points, ways[:, ::-1].copy()))
    if solid.is_empty() or solid.volume() <= 0.0:
        raise CannotBuild(
            f"The {what} encloses no solid.", "Make its rounded edges smaller.", "top.outline"
        )
    return solid


def hull(*rings: Iterable[Vec]) -> Manifold:
    """The convex solid round some points."""
    return Manifold.hull_points(np.array([p for ring in rings for p in ring]))


def cut_by(solid: Manifold, plane: Plane) -> Manifold:
    """What lies on the wood side of a plane."""
    n = plane.normal
    return solid.trim_by_plane((-n[0], -n[1], -n[2]), -plane.offset)


def ring_about(at: Vec, axis: Vec, first: Vec, half: float, across: float | None = None) -> list[Vec]:
    """Points of a circle (or of an ellipse, `half` along `first`) about a point, square to an axis."""
    second = cross(axis, first)
    other = half if across is None else across
    made = []
    for k in range(ROUND):
        c, s = math.cos(math.tau * k / ROUND), math.sin(math.tau * k / ROUND)
        made.append(along(along(at, first, half * c), second, other * s))
    return made


def square_way(axis: Vec) -> Vec:
    """Any direction square to an axis."""
    seed: Vec = (0.0, 0.0, 1.0) if abs(axis[2]) < 0.9 else (1.0, 0.0, 0.0)
    return unit(cross(axis, seed))


def cylinder(start: Vec, axis: Vec, long: float, half: float, end_half: float | None = None) -> Manifold:
    """A round stick or a cone from a point along an axis."""
    first = square_way(axis)
    far = along(start, axis, long)
    return hull(
        ring_about(start, axis, first, half),
        ring_about(far, axis, first, half if end_half is None else end_half),
    )


def top_solid(piece: Piece) -> Manifold:
    """The top with its shaped edges, mitres, hollow and hand-holds, no other holes yet; top frame."""
    top = piece.top
    rings = [ring.astype(float) for ring in rings_of(piece, EDGE_STEPS)]
    base = CrossSection([[(float(x), float(y)) for x, y, _ in rings[0]]])
    straight = len(rings) == 2 and bool(np.allclose(rings[0][:, :2], rings[1][:, :2]))
    solid = base.extrude(top.thickness) if straight else _lofted(rings)
    for one in top.hand_holds:
        flat = CrossSection([[(float(x), float(y)) for x, y in slot(one).exterior.coords[:-1]]])
        solid -= flat.extrude(top.thickness + 2.0 * SEAM_MM).translate((0.0, 0.0, -SEAM_MM))
    opened = slit(top)
    if opened is not None:
        size = (4.0 * sum(extent(top.outline)), opened[1] - opened[0], 3.0 * top.thickness)
        cut = Manifold.cube(size, True).translate((0.0, sum(opened) / 2.0, 0.0))
        solid -= cut.rotate((0.0, 0.0, top.grain))
    if top.hollow is None:
        return solid
    return solid - hollow_cutter(piece)


def _lofted(rings: Sequence[NDArray[np.float64]]) -> Manifold:
    """Level rings one above the other, anticlockwise from above, closed at both ends."""
    return _stacked(rings, _filled(rings[0]), _filled(rings[-1]), "top's outline")


def _stacked(
    rings: Sequence[NDArray[np.float64]],
    low: Sequence[tuple[int, int, int]],
    high: Sequence[tuple[int, int, int]],
    what: str,
) -> Manifold:
    """Rings of as many points each joined round, the triangles of both ends given by their points."""
    n = len(rings[0])
    triangles: list[tuple[int, int, int]] = []
    for r in range(len(rings) - 1):
        for k in range(n):
            a, b = r * n + k, r * n + (k + 1) % n
            triangles += [(a, b, a + n), (b, b + n, a + n)]
    last = (len(rings) - 1) * n
    triangles += [(c, b, a) for a, b, c in low]
    triangles += [(last + a, last + b, last + c) for a, b, c in high]
    return _closed(np.concatenate(list(rings)), triangles, what)


def _filled(ring: NDArray[np.float64]) -> list[tuple[int, int, int]]:
    """Triangles over a flat ring, by the places of its points."""
    found = triangulate([np.ascontiguousarray(ring[:, :2])])
    return [(int(a), int(b), int(c)) for a, b, c in found]


def hollow_cutter(piece: Piece) -> Manifold:
    """What is taken out of the upper face; top frame."""
    hollow, t = piece.top.hollow, piece.top.thickness
    assert hollow is not None
    chord = hollow.chord if isinstance(hollow, Trough) else hollow.length
    radius = arc_radius(chord, hollow.depth)
    half = chord / 2.0
    runs = [half * k / 96 for k in range(97)]
    arc = [(x, math.sqrt(max(0.0, radius * radius - x * x))) for x in runs]
    deep = [(x, -(y - (radius - hollow.depth))) for x, y in arc]
    if isinstance(hollow, Trough):
        left = [(-x, y) for x, y in reversed(deep[1:])]
        section = CrossSection([[*left, *deep, (half, 10.0), (-half, 10.0)]])
        long = section.extrude(2.0 * FAR_MM).translate((0.0, 0.0, -FAR_MM))
        # Drawn in x and y, run along z: stood up so that y is up, and turned to its way.
        stood = long.rotate((90.0, 0.0, 0.0))
        turned = stood if hollow.across == "length" else stood.rotate((0.0, 0.0, 90.0))
        return turned.translate((0.0, 0.0, t))
    section = CrossSection([[(0.0, 10.0), *deep, (half, 10.0)]])
    return section.revolve(ROUND).scale((1.0, hollow.width / hollow.length, 1.0)).translate((0.0, 0.0, t))


def socket(piece: Piece, leg: LegStance) -> Manifold:
    """A leg's hole with the air before it; top frame."""
    bore = leg.bore
    joint = support_of(piece, leg).joint
    up = (-leg.d[0], -leg.d[1], -leg.d[2])
    deep = bore.deep + (OUT_MM if bore.through else 0.0)
    outside = along(leg.socket, leg.d, OUT_MM / 4.0)
    if isinstance(joint, Shouldered):
        return _flat(leg, bore.size / 2.0, bore.across / 2.0, OUT_MM / 4.0, deep)
    if bore.tip != bore.size and bore.tenon > 0.0:
        # A reamed hole: the taper of its tenon, carried on past both faces.
        slope = (bore.size - bore.tip) / 2.0 / bore.tenon
        reach = bore.tenon + 0.5 * bore.tip / 2.0 / slope if slope > 0.0 else deep
        reach = min(reach, bore.tenon + 60.0)
        return cylinder(
            outside,
            up,
            OUT_MM / 4.0 + reach,
            bore.size / 2.0 + slope * OUT_MM / 4.0,
            bore.size / 2.0 - slope * reach,
        )
    return cylinder(outside, up, OUT_MM / 4.0 + deep, bore.size / 2.0)


def _flat(leg: LegStance, half: float, across: float, below: float, above: float) -> Manifold:
    """A flat tenon's box: its longer side in the plane of the lean."""
    first = socket_line(leg)
    second = cross(leg.d, first)
    made: list[Vec] = []
    for run in (below, -above):
        at = along(leg.socket, leg.d, run)
        for i, j in ((1, 1), (-1, 1), (-1, -1), (1, -1)):
            made.append(along(along(at, first, i * half), second, j * across))
    return hull(made)


def leg_solid(piece: Piece, stance: Stance, leg: LegStance) -> Manifold:
    """A leg between the face it enters and the floor, with its tenon; top frame."""
    support = support_of(piece, leg)
    shape, bore = support.leg, leg.bore
    slack = max(shape.at_top, shape.at_foot) * 2.0
    knees = [0.0, *([shape.belly.at * leg.exposed] if shape.belly else []), leg.exposed]

    def half(down: float) -> float:
        inside = min(max(down, 0.0), leg.exposed)
        past = taper_at(shape, leg.exposed, inside) * (down - inside)
        return max(0.01, size_at(shape, leg.exposed, inside) / 2.0 - past)

    def section(down: float) -> list[Vec]:
        at = along(leg.socket, leg.d, down)
        if shape.section == "round":
            return ring_about(at, leg.d, socket_line(leg), half(down))
        side, front = faces(shape, leg.d)
        return [along(along(at, side, half(down) * i), front, half(down) * j) for i, j in corners(shape)]

    downs = [-slack, *knees, leg.exposed + slack]
    rings = [np.array(section(down)) for down in downs]
    fan = [(0, k, k + 1) for k in range(1, len(rings[0]) - 1)]
    shaft = _stacked(rings, fan, fan, "leg")
    mouth = Plane((0.0, 0.0, 1.0), bore.mouth_z)
    floor = stance.floor
    n = floor.normal
    shaft = cut_by(cut_by(shaft, mouth), Plane((-n[0], -n[1], -n[2]), floor.h0_mm))
    if bore.tenon <= 0.0 or support.joint.tenon == "none":
        return shaft
    within = bore.size * (1.0 + deg.tan(min(75.0, leg.boring.resultant)))
    if isinstance(support.joint, Shouldered):
        tenon = _flat(leg, bore.size / 2.0, bore.across / 2.0, within, bore.tenon)
    else:
        slope = (bore.size - bore.tip) / 2.0 / bore.tenon
        up = (-leg.d[0], -leg.d[1], -leg.d[2])
        start = along(leg.socket, leg.d, within)
        tenon = cylinder(start, up, within + bore.tenon, bore.size / 2.0 + slope * within, bore.tip / 2.0)
    return shaft + cut_by(tenon, Plane((0.0, 0.0, -1.0), -(bore.mouth_z - SEAM_MM)))


def body_solid(body: Body) -> Manifold:
    """A squared part, its notches out and its edges shaped; top frame."""
    solid = hull(p for face in body.plain for p in face.corners)
    for void in body.voids:
        cutter = Manifold.cube((2.0 * FAR_MM,) * 3, True)
        for plane in void.planes:
            cutter = cut_by(cutter, plane)
        solid -= cutter
    for plane in body.eased:
        solid = cut_by(solid, plane)
    if body.sweep is not None:
        face = CrossSection([list(body.sweep.ring(-body.sweep.down * body.width))])
        solid ^= face.extrude(body.thickness * 2.0).translate((0.0, 0.0, -body.thickness))
    p = body.pose
    return solid.transform(np.column_stack((p.along, p.across, p.up, p.origin)))


def _those(solids: list[Manifold]) -> Manifold:
    """Several as one; nothing where there are none."""
    return Manifold.batch_boolean(solids, OpType.Add) if solids else Manifold()


def groove_solid(one: Grooved) -> Manifold:
    """What is cut out of a part for its buttons; top frame."""
    made = [
        hull(
            one.at(x, down, into)
            for x in span
            for down in (one.chosen.drop, one.chosen.drop + one.chosen.groove)
            for into in (-SEAM_MM, one.chosen.deep)
        )
        for span in one.spans
    ]
    return Manifold.batch_boolean(made, OpType.Add)


def _screw_holes(body: Body, every: tuple[Fastening, ...]) -> Manifold:
    """What is bored out of a part for the top's screws: thin holes or slots, and the heads'; top frame."""
    made = []
    for one in every:
        if one.body.key != body.key:
            continue
        start = along(one.at, one.way, -one.through - SEAM_MM)
        shift = one.room / 2.0 if one.slot else 0.0
        for wide, deep in ((one.wide, one.through + 2.0 * SEAM_MM), (one.seat, one.sunk + SEAM_MM)):
            if deep <= SEAM_MM:
                continue
            half = wide / 2.0 - shift
            ends = [
                cylinder(along(start, body.pose.along, aside), one.way, deep, half)
                for aside in sorted({-shift, shift})
            ]
            # A slot is what two holes and all between them take.
            made.append(Manifold.batch_hull(ends))
    return _those(made)


def member_solid(chosen: Stretcher, run: MemberStance) -> Manifold:
    """A stretcher between the surfaces it leaves, with its tenons; top frame."""
    a, b = run.ends
    start = along(a.at, run.u, a.leaves)
    gap = run.centres - a.leaves - b.leaves
    rod = (
        _prism(chosen, run, start, gap)
        if chosen.section != "round"
        else cylinder(start, run.u, gap, chosen.diameter / 2.0)
    )
    first = along(start, run.u, -chosen.depth)
    return rod + cylinder(first, run.u, gap + 2.0 * chosen.depth, chosen.tenon / 2.0)


def _prism(chosen: Stretcher, run: MemberStance, start: Vec, gap: float) -> Manifold:
    """A stretcher with flats between its tenons."""
    ends = (start, along(start, run.u, gap))
    return Manifold.hull_points([p for end in ends for p in section_ring(chosen, run.u, end)])


def _holes(piece: Piece, runs: Sequence[MemberStance], into: tuple[int, int]) -> Manifold:
    """The sockets of stretchers in one leg (number, 0) or stretcher (0, number)."""
    made = []
    for run in runs:
        chosen = piece.members[run.number - 1]
        assert isinstance(chosen, Stretcher)
        for end, sign in zip(run.ends, (1.0, -1.0), strict=True):
            if into == (end.leg, 0 if end.leg else end.member):
                way: Vec = (run.u[0] * sign, run.u[1] * sign, run.u[2] * sign)
                floor = along(end.at, way, end.leaves - chosen.depth)
                made.append(cylinder(floor, way, chosen.depth + 3.0 * end.radius, chosen.tenon / 2.0))
    return _those(made)


def rope_solid(piece: Piece, rope: RopeStance) -> Manifold:
    """A rope from hole to hole; top frame."""
    chosen = piece.members[rope.number - 1]
    half = getattr(chosen, "diameter", 10.0) / 2.0
    ring = [*rope.points, rope.points[0]] if getattr(chosen, "closed", False) else list(rope.points)
    made = [Manifold.sphere(half, 48).translate(p) for p in ring]
    for a, b in pairwise(ring):
        way = between(a, b)
        made.append(cylinder(a, unit(way), length(way), half))
    return Manifold.batch_boolean(made, OpType.Add)


__all__ = ["Part", "solids_of"]
