"""Every part of a piece as a closed solid: holes bored, tenons on, feet cut; floor frame, mm.

Built by an exact boolean library (manifold3d); what each part is comes from the plan. Not in them: mortises
and tenons of squared parts, screws, wedges, rounded arrises.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from itertools import pairwise

import numpy as np
from manifold3d import CrossSection, Manifold, OpType
from numpy.typing import NDArray

from splay.errors import CannotBuild
from splay.piece import Piece, Stretcher
from splay.plan import Plan
from splay.solids.legs import leg_solid, socket
from splay.solids.shapes import FAR_MM, SEAM_MM, SPECK_MM, cut_by, cylinder, hull, those
from splay.solids.tops import top_solid
from splay.stance.body import Body
from splay.stance.buttons import Grooved, grooves
from splay.stance.holding import Fastening, fastenings
from splay.stance.member_flats import section_ring
from splay.stance.members import MemberStance, RopeStance, members
from splay.stance.splines import splined
from splay.stance.staked import Stance
from splay.stance.underfoot import bearings
from splay.stance.vectors import Vec, along, between, length, unit
from splay.views.leg_rings import Neck, necks_of


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
    necks = necks_of(plan.made) if stance.legs else {}
    neck = {leg.number: necks.get(leg.number, Neck()) for leg in stance.legs}
    sockets = [(leg, socket(piece, leg, neck[leg.number].mouth)) for leg in stance.legs]
    made: list[tuple[str, str, Manifold]] = []
    top = top_solid(piece)
    for leg, hole in sockets:
        if leg.bore.mouth_z == 0.0:
            top -= hole
    through = [(one, hull(one.corners())) for one in splined(piece, stance)]
    made.append(("top", "top", top - those([solid for _, solid in through])))
    for each, solid in through:
        name = f"spline {each.number} of the {each.body.name}"
        made.append((f"{each.body.key}.spline.{each.number}", name, solid))
    for leg in stance.legs:
        solid = leg_solid(piece, stance, leg, neck[leg.number]) - _holes(piece, runs, (leg.number, 0))
        made.append((f"leg.{leg.id}", f"leg {leg.number}", solid))
    screws, grooved = fastenings(piece, stance), grooves(piece, stance)
    for body in stance.bodies:
        if body.drawn:
            solid = body_solid(body) - _screw_holes(body, screws)
            for one in grooved:
                solid -= groove_solid(one) if one.body is body else Manifold()
            solid -= those([spline for each, spline in through if each.body.key == body.key])
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
    return those(made)


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
    return those(made)


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
