"""Where members run: from axis to axis, where they leave each leg, and at what angle."""

from __future__ import annotations

import math
from dataclasses import dataclass

from splay.errors import CannotBuild
from splay.piece import Leg, Level, OnLeg, Piece, Rope, Stretcher
from splay.quantity import degrees as deg
from splay.stance.floor import Floor
from splay.stance.hollow import hollow_depth
from splay.stance.lines import named_faces, named_sides, socket_line, square_to, turned
from splay.stance.member_flats import floor_side, member_flats, named_member_faces
from splay.stance.staked import LegStance, Stance, support_of
from splay.stance.taper import corners, size_at, taper_at
from splay.stance.vectors import Vec, along, angle, between, cross, dot, length, unit


@dataclass(frozen=True)
class EndStance:
    """One end of a stretcher. Points in the top frame, mm; angles in degrees.

    `leg` or `member` is what it goes into; `down` its place along that axis from the socket (or
    the member's first end); `at` the point on the axis; `acute` the acute angle between the two
    axes; `opening` the whole angle from the stretcher, pointing into the piece it leaves, to that
    piece's downward axis; `leaves` the distance from axis to surface along the stretcher;
    `radius` half the size there; `taper` the radius lost per length down; `turn` the socket's
    place round the leg from the outer line of its socket (round a stretcher from its floor side),
    clockwise for one who looks at the tenon's (the first) end. `opening_on` is the opening against the
    surface the stretcher leaves, which a tapered leg turns off its axis; `mark_down` the place along
    the axis where the stretcher's own axis comes out of the surface, `mark_radius` half the size there;
    `face` the flat it comes out of, `aside` how far from that flat's middle line, mm, `aside_to` the
    face it lies towards; empty on a round one.
    """

    leg: int
    member: int
    down: float
    at: Vec
    acute: float
    opening: float
    leaves: float
    radius: float
    taper: float
    turn: float
    axis: Vec
    opening_on: float
    mark_down: float
    mark_radius: float
    face: str
    aside: float
    aside_to: str

    def acute_of(self, on_surface: float) -> float:
        """The acute angle between the axes from the one read against the surface, degrees."""
        opening = on_surface if self.opening_on < 90.0 else 180.0 - on_surface
        axes = opening - (self.opening_on - self.opening)
        return min(axes, 180.0 - axes)


def behind(opening: float, opening_on: float) -> float:
    """Against the surface opposite the one a stretcher leaves, where it meets the other's axis at `opening`
    and the surface it leaves at `opening_on`, degrees: a taper turns both off that axis, one each way."""
    return 2.0 * opening - opening_on


def acute(opening: float) -> float:
    """The acute one of the two angles where two sticks meet, degrees."""
    return min(opening, 180.0 - opening)


@dataclass(frozen=True)
class MemberStance:
    """One stretcher: both ends, its direction from the first to the second, axis to axis."""

    id: str
    number: int
    ends: tuple[EndStance, EndStance]
    u: Vec
    centres: float


@dataclass(frozen=True)
class RopeStance:
    """One rope: the middle of each hole on its leg's axis, in order, how far down it is, and the hole
    as the end of a stick that ran along it."""

    id: str
    number: int
    legs: tuple[int, ...]
    points: tuple[Vec, ...]
    downs: tuple[float, ...]
    holes: tuple[EndStance, ...]


def sitting_point(piece: Piece) -> Vec:
    """The middle of the sitting surface, at the bottom of its hollow, top frame."""
    return (0.0, 0.0, piece.top.thickness - hollow_depth(piece.top.hollow, (0.0, 0.0)))


def down_the_leg(piece: Piece, leg: LegStance, level: Level, floor: Floor, field: str) -> float:
    """Distance along a leg's axis from its socket to a level, mm.

    By drop: q = (Dr - n·(S - P)) / (-n·d). CannotBuild where that is not on the leg.
    """
    fall = -dot(floor.normal, leg.d)
    if level.by == "along":
        down = level.value
    elif level.by == "height":
        # Measured from the floor, which what is under the feet lifts them from.
        down = leg.exposed - (level.value - (piece.height - piece.stands)) / fall
    else:
        above = dot(floor.normal, between(leg.socket, sitting_point(piece)))
        down = (level.value - above) / fall
    if not 0.0 < down < leg.exposed:
        raise CannotBuild(
            f"That level is not on leg {leg.number}: it lies "
            + ("above the top's underside." if down <= 0 else "below the floor."),
            "Give a level between the top and the floor.",
            field,
        )
    return down


def members(piece: Piece, stance: Stance) -> tuple[tuple[MemberStance, ...], tuple[RopeStance, ...]]:
    """Every stretcher and every rope of a piece, given where its legs are."""
    sticks: dict[int, MemberStance] = {}
    ropes: list[RopeStance] = []
    for k, member in enumerate(piece.members):
        if isinstance(member, Rope):
            ropes.append(_rope(piece, stance, member, k))
        else:
            sticks[k + 1] = _stretcher(piece, stance, member, k, sticks)
    return tuple(sticks.values()), tuple(ropes)


def _rope(piece: Piece, stance: Stance, rope: Rope, k: int) -> RopeStance:
    anchors = []
    by_id = {leg.id: leg for leg in stance.legs}
    for id in rope.legs:
        leg = by_id[id]
        down = down_the_leg(piece, leg, rope.level, stance.floor, f"members.{k}.level.value")
        at = along(leg.socket, leg.d, down)
        anchors.append(_Anchor(leg.number, 0, down, at, leg.d, socket_line(leg)))
    points = tuple(anchor.at for anchor in anchors)
    ways = _through(points, rope.closed, f"members.{k}.legs")
    holes = tuple(_end(piece, stance, anchor, u) for anchor, u in zip(anchors, ways, strict=True))
    legs = tuple(anchor.leg for anchor in anchors)
    return RopeStance(rope.id, k + 1, legs, points, tuple(a.down for a in anchors), holes)


def _through(points: tuple[Vec, ...], closed: bool, field: str) -> list[Vec]:
    """Which way each hole runs: halfway between where the rope comes from and where it goes to."""
    n = len(points)
    made = []
    for k, here in enumerate(points):
        last, first = k == n - 1 and not closed, k == 0 and not closed
        ahead = between(here, points[(k + 1) % n])
        behind = between(points[k - 1], here)
        runs = [run for run, wanted in ((ahead, not last), (behind, not first)) if wanted]
        if any(length(run) < 1.0 for run in runs):
            rule = "The rope goes through one leg twice running."
            raise CannotBuild(rule, "Name each leg once, in order.", field)
        units = [unit(run) for run in runs]
        way = (sum(u[0] for u in units), sum(u[1] for u in units), sum(u[2] for u in units))
        # There and back between two legs: the hole points at the other one.
        made.append(unit(way) if length(way) > 1e-6 else units[0])
    return made


@dataclass(frozen=True)
class _Anchor:
    leg: int
    member: int
    down: float
    at: Vec
    axis: Vec
    mark: Vec


def _stretcher(
    piece: Piece, stance: Stance, member: Stretcher, k: int, known: dict[int, MemberStance]
) -> MemberStance:
    anchors = []
    by_id = {leg.id: leg for leg in stance.legs}
    numbers = {one.id: number for number, one in known.items()}
    for e, end in enumerate(member.ends):
        if isinstance(end, OnLeg):
            leg = by_id[end.leg]
            down = down_the_leg(piece, leg, end.level, stance.floor, f"members.{k}.ends.{e}.level.value")
            at = along(leg.socket, leg.d, down)
            anchors.append(_Anchor(leg.number, 0, down, at, leg.d, socket_line(leg)))
        else:
            other = known[numbers[end.member]]
            a, b = other.ends[0].at, other.ends[1].at
            down = end.share * other.centres
            at = along(a, other.u, down)
            way = unit(between(a, b))
            anchors.append(_Anchor(0, numbers[end.member], down, at, way, floor_side(way)))
    gap = between(anchors[0].at, anchors[1].at)
    if length(gap) < 1.0:
        raise CannotBuild(
            f"Stretcher {k + 1} has both its ends at one place.",
            "Give its ends different places.",
            f"members.{k}.ends",
        )
    u = unit(gap)
    ends = (
        _end(piece, stance, anchors[0], u),
        _end(piece, stance, anchors[1], (-u[0], -u[1], -u[2])),
    )
    return MemberStance(member.id, k + 1, ends, u, length(gap))


def _end(piece: Piece, stance: Stance, anchor: _Anchor, u: Vec) -> EndStance:
    """`u` points from this end along the stretcher."""
    opening = angle(u, anchor.axis)
    face, aside, aside_to = "", 0.0, ""
    # Square to the axis, in the plane of both: the side the stretcher comes out at.
    beside = square_to(anchor.axis, u)
    if anchor.leg:
        leg = stance.legs[anchor.leg - 1]
        shape = support_of(piece, leg).leg
        radius = size_at(shape, leg.exposed, anchor.down) / 2.0
        leaves, flat, taper, mark_down = _meets(shape, leg, anchor, u)
        against = math.degrees(math.atan(taper))
        if flat is not None:
            face, normal = flat
            against = math.degrees(math.atan(taper / dot(beside, normal)))
            aside, aside_to = _along_flat(named_faces(shape, leg), leg.d, normal, u, leaves)
        mark_radius = size_at(shape, leg.exposed, mark_down) / 2.0
    else:
        other = piece.members[anchor.member - 1]
        assert isinstance(other, Stretcher)
        radius, taper, against = other.diameter / 2.0, 0.0, 0.0
        leaves = radius / math.sin(math.radians(opening))
        if flats_there := member_flats(other, anchor.axis):
            face, normal = max(flats_there, key=lambda one: dot(u, one[1]))
            leaves = radius / dot(u, normal)
            aside, aside_to = _along_flat(named_member_faces(anchor.axis), anchor.axis, normal, u, leaves)
        mark_down, mark_radius = anchor.down + leaves * dot(u, anchor.axis), radius
    return EndStance(
        leg=anchor.leg,
        member=anchor.member,
        down=anchor.down,
        at=anchor.at,
        acute=acute(opening),
        opening=opening,
        leaves=leaves,
        radius=radius,
        taper=taper,
        turn=turned(anchor.axis, anchor.mark, beside),
        axis=anchor.axis,
        opening_on=opening + against,
        mark_down=mark_down,
        mark_radius=mark_radius,
        face=face,
        aside=aside,
        aside_to=aside_to,
    )


def flats(shape: Leg, leg: LegStance) -> tuple[tuple[str, Vec], ...]:
    """Every flat of a leg with corners by name, with its normal: four, or eight with those between."""
    if len(corners(shape)) != 8:
        return named_faces(shape, leg)
    sides = named_sides(shape, leg)
    h = math.sqrt(0.5)
    between_them = tuple(
        (
            f"face between {a} and {b}",
            (h * (v[0] + w[0]), h * (v[1] + w[1]), h * (v[2] + w[2])),
        )
        for a, v in sides[:2]
        for b, w in sides[2:]
    )
    return (*named_faces(shape, leg), *between_them)


def _meets(
    shape: Leg, leg: LegStance, anchor: _Anchor, u: Vec
) -> tuple[float, tuple[str, Vec] | None, float, float]:
    """Where a stretcher comes out of a leg: from the axis along `u`, the flat, the taper there, how far
    down. A bellied leg tapers one way above its belly and another below: the half it is met in counts."""
    found = None
    for share in (0.0, 1.0) if shape.belly is not None else (0.0,):
        taper = taper_at(shape, leg.exposed, share * leg.exposed)
        end = size_at(shape, leg.exposed, share * leg.exposed) / 2.0
        there = end - taper * (anchor.down - share * leg.exposed)
        leaves, flat = _leaves(shape, leg, there, taper, u)
        down = anchor.down + leaves * dot(u, leg.d)
        found = leaves, flat, taper, down
        if shape.belly is None or (down <= shape.belly.at * leg.exposed) == (share == 0.0):
            break
    assert found is not None
    return found


def _leaves(
    shape: Leg, leg: LegStance, radius: float, taper: float, u: Vec
) -> tuple[float, tuple[str, Vec] | None]:
    """From the axis to the surface along u, and the flat it comes out of.

    Round: R / (u·w + k u·d), w square to the axis towards u. With corners the same against the flat it
    reaches first.
    """
    along_axis = taper * dot(u, leg.d)
    if shape.section == "round":
        return radius / (dot(u, square_to(leg.d, u)) + along_axis), None
    flat = max(flats(shape, leg), key=lambda one: dot(u, one[1]))
    return radius / (dot(u, flat[1]) + along_axis), flat


def _along_flat(
    named: tuple[tuple[str, Vec], ...], axis: Vec, normal: Vec, u: Vec, leaves: float
) -> tuple[float, str]:
    """How far along its flat a socket lies from the flat's middle line, and towards which named face."""
    across = cross(axis, normal)
    off = leaves * dot(u, across)
    way = across if off >= 0.0 else (-across[0], -across[1], -across[2])
    toward = max(named, key=lambda one: dot(one[1], way) - 1e-9 * abs(dot(one[1], normal)))
    return abs(off), toward[0]


def wood_behind(radius: float, deep: float, diameter: float, acute_deg: float) -> float:
    """Least wood left behind a flat-bottomed socket in a round leg, mm.

    `deep` is the socket's depth from the surface along the stretcher. The flat bottom is a disc
    tilted against the leg's axis; its furthest point from that axis decides.
    """
    s, c, half = deg.sin(acute_deg), deg.cos(acute_deg), diameter / 2.0
    past = deep - radius / s
    if corner_decides(radius, deep, diameter, acute_deg):
        return radius - abs(past * s) - half * c
    return radius - math.hypot(half, past)


def corner_decides(radius: float, deep: float, diameter: float, acute_deg: float) -> bool:
    """Whether the far corner of a socket's flat bottom comes nearest to the back of a round leg, and not a
    side of it: so at flat angles."""
    s, c = deg.sin(acute_deg), deg.cos(acute_deg)
    return abs(deep * s - radius) * c > diameter / 2.0 * s * s
