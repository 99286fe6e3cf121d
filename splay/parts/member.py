"""Stretchers to cut, the sockets that take them, and ropes."""

from __future__ import annotations

import math
from dataclasses import dataclass
from itertools import pairwise

from splay.piece import Piece, Rope, Stretcher
from splay.quantity import Figure, Show
from splay.quantity import degrees as deg
from splay.stance.members import EndStance, MemberStance, RopeStance, wood_behind
from splay.stance.vectors import between, dot, length, unit

IN_PLANE_MM = 0.5
"""Two members whose four ends lie this near one plane count as lying in it."""


@dataclass(frozen=True)
class MemberEnd:
    """One end: what it goes into, where along it, at what angle, and the socket there.

    `acute_side` is "foot" or "top" for the side of the leg the acute angle lies on, "" when square;
    `radius` half of what it goes into there, mm.
    """

    into: str
    leg: int
    member: int
    down: Figure
    read: Figure
    turn: Figure
    obtuse_wall: Figure
    acute_wall: Figure
    behind: Figure
    shoulder: Figure
    acute_side: str
    radius: float


@dataclass(frozen=True)
class MemberPart:
    """A stretcher's figures; `coplanar` names the members that lie in one plane with it."""

    number: int
    name: str
    centres: Figure
    gap: Figure
    total: Figure
    ends: tuple[MemberEnd, MemberEnd]
    coplanar: tuple[int, ...]


@dataclass(frozen=True)
class RopePart:
    """A rope's figures: the holes, how far down each leg, and the rope itself."""

    number: int
    name: str
    hole: Figure
    downs: tuple[Figure, ...]
    loop: Figure


def member_part(
    piece: Piece, member: MemberStance, all_members: tuple[MemberStance, ...], show: Show
) -> MemberPart:
    """The figures of one stretcher."""
    chosen = piece.members[member.number - 1]
    assert isinstance(chosen, Stretcher)
    key = f"member.{member.number}"
    a, b = member.ends
    gap = member.centres - a.leaves - b.leaves
    total = gap + 2.0 * chosen.depth + chosen.spring
    return MemberPart(
        number=member.number,
        name=chosen.name or f"stretcher {member.number}",
        centres=show.figure(
            f"{key}.centres",
            "Centre to centre",
            member.centres,
            "|B − A|",
            show.input("c", "axis to axis", member.centres),
        ),
        gap=show.figure(
            f"{key}.gap",
            "Clear gap",
            gap,
            "c − exit − exit",
            show.input("c", "centre to centre", member.centres),
            show.input("e₁", "first axis to surface", a.leaves),
            show.input("e₂", "second axis to surface", b.leaves),
            note="along the stretcher's own line",
        ),
        total=show.figure(
            f"{key}.total",
            "Length over all",
            total,
            "gap + 2 · socket + spring",
            show.input("g", "clear gap", gap),
            show.input("k", "socket, along the stretcher", chosen.depth),
            show.input("s", "spring", chosen.spring),
        ),
        ends=(
            _end(f"{key}.1", chosen, a, show),
            _end(f"{key}.2", chosen, b, show),
        ),
        coplanar=tuple(other.number for other in all_members if _one_plane(member, other)),
    )


def _end(key: str, member: Stretcher, end: EndStance, show: Show) -> MemberEnd:
    into = f"leg {end.leg}" if end.leg else f"stretcher {end.member}"
    slant = member.tenon / 2.0 / deg.tan(end.acute) if end.acute < 90.0 - 1e-9 else 0.0
    depth = show.input("k", "socket, along the stretcher", member.depth)
    hole = show.input("d", "socket", member.tenon)
    alpha = show.input("α", "acute angle between the sticks", end.acute, "deg")
    behind = wood_behind(end.radius, member.depth, member.tenon, end.acute)
    tapered = abs(end.taper) > 1e-9
    half_taper = math.degrees(math.atan(abs(end.taper)))
    return MemberEnd(
        into=into,
        leg=end.leg,
        member=end.member,
        down=show.figure(
            f"{key}.down",
            f"Down {into}, to the socket's middle",
            end.down,
            "along the axis, from the underside" if end.leg else "along it, from its first end",
            show.input("q", "along the axis", end.down),
        ),
        read=show.figure(
            f"{key}.read",
            f"Angle at {into}, acute",
            end.acute,
            "acute angle between the two axes",
            alpha,
            unit="deg",
            note="protractor held along the leg, in the plane of the two sticks and nowhere else"
            + (
                f"; against the tapered side it is off by {show.angle(half_taper, 2).text}"
                if tapered
                else ""
            ),
        ),
        turn=show.figure(
            f"{key}.turn",
            "Round the leg from its sightline mark" if end.leg else "Round it from straight below",
            end.turn,
            "angle about the axis",
            show.input("ω", "clockwise seen from the top", end.turn, "deg"),
            unit="deg",
            note="clockwise seen from the top; with a minus the other way",
        ),
        obtuse_wall=show.figure(
            f"{key}.obtuse",
            "Socket's wall, obtuse side",
            member.depth - slant,
            "k − d/2 · cot α",
            depth,
            hole,
            alpha,
        ),
        acute_wall=show.figure(
            f"{key}.acute",
            "Socket's wall, acute side",
            member.depth + slant,
            "k + d/2 · cot α",
            depth,
            hole,
            alpha,
        ),
        behind=show.figure(
            f"{key}.behind",
            "Wood behind the socket",
            behind,
            "R − √((d/2)² + (k − R/sin α)²)",
            show.input("R", "half the leg there", end.radius),
            depth,
            hole,
            alpha,
            note="of a round leg; at a flat angle the far corner decides instead",
        ),
        shoulder=show.figure(
            f"{key}.shoulder",
            "Shoulder, if it has one, off square",
            90.0 - end.acute,
            "90° − α",
            alpha,
            unit="deg",
        ),
        radius=end.radius,
        acute_side="" if end.acute > 90.0 - 1e-6 else ("foot" if end.opening < 90.0 else "top"),
    )


def _one_plane(a: MemberStance, b: MemberStance) -> bool:
    """Whether two different members lie in one plane: where four points are flat together."""
    if a.number == b.number:
        return False
    p, q = a.ends[0].at, a.ends[1].at
    r, s = b.ends[0].at, b.ends[1].at
    u, v = between(p, q), between(p, r)
    normal = (
        u[1] * v[2] - u[2] * v[1],
        u[2] * v[0] - u[0] * v[2],
        u[0] * v[1] - u[1] * v[0],
    )
    if length(normal) < 1e-6:
        return True
    return abs(dot(unit(normal), between(p, s))) < IN_PLANE_MM


def rope_part(piece: Piece, rope: RopeStance, show: Show) -> RopePart:
    """The figures of one rope: hole, places, length with its knot."""
    chosen = piece.members[rope.number - 1]
    assert isinstance(chosen, Rope)
    key = f"member.{rope.number}"
    ring = [*rope.points, rope.points[0]] if chosen.closed else list(rope.points)
    run = sum(length(between(p, q)) for p, q in pairwise(ring))
    return RopePart(
        number=rope.number,
        name=chosen.name or f"rope {rope.number}",
        hole=show.figure(
            f"{key}.hole",
            "Holes for the rope",
            chosen.diameter + chosen.ease,
            "rope + ease",
            show.input("d", "rope", chosen.diameter),
            show.input("e", "ease", chosen.ease),
        ),
        downs=tuple(
            show.figure(
                f"{key}.down.{leg}",
                f"Hole in leg {leg}, down from the underside",
                down,
                "along the axis",
                show.input("q", "along the axis", down),
            )
            for leg, down in zip(rope.legs, rope.downs, strict=True)
        ),
        loop=show.figure(
            f"{key}.loop",
            "Rope to cut",
            run + chosen.knot,
            "hole to hole, all round + knot" if chosen.closed else "hole to hole + knot",
            show.input("r", "hole to hole", run),
            show.input("k", "for the knot", chosen.knot),
            note="drawn hand-tight; a new rope gives",
        ),
    )
