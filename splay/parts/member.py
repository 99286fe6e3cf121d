"""Stretchers to cut, the sockets that take them, and ropes."""

from __future__ import annotations

import math
from dataclasses import dataclass
from itertools import pairwise

from splay.piece import Piece, Rope, Stretcher
from splay.quantity import Figure, Quantity, Show
from splay.quantity import degrees as deg
from splay.stance.members import EndStance, MemberStance, RopeStance, wood_behind
from splay.stance.vectors import between, dot, length, unit

IN_PLANE_MM = 0.5
"""Two members whose four ends lie this near one plane count as lying in it."""


@dataclass(frozen=True)
class Built:
    """What was found dry-fitted, by member's number and end (0, 1): clear gaps and sockets' obtuse
    walls in mm, acute angles in degrees."""

    gaps: dict[int, float]
    walls: dict[tuple[int, int], float]
    acutes: dict[tuple[int, int], float]


AS_PLANNED = Built({}, {}, {})


@dataclass(frozen=True)
class MemberEnd:
    """One end: what it goes into, where along it, at what angle, and the socket there.

    `acute_side` is "foot" or "top" for the side of the leg the acute angle lies on, "" when square;
    `radius` half of what it goes into there, mm; `found` is the acute angle as it was read; `pass_by`
    how far to turn the leg for the drill to pass its opposite.
    """

    into: str
    leg: int
    member: int
    down: Figure
    read: Figure
    turn: Figure
    found: Quantity | None
    pass_by: Figure | None
    obtuse_wall: Figure
    acute_wall: Figure
    behind: Figure
    shoulder: Figure
    acute_side: str
    radius: float


@dataclass(frozen=True)
class MemberPart:
    """A stretcher's figures; `coplanar` names the members that lie in one plane with it.

    `total` is what to cut it to: from its measured gap and sockets where they were measured
    (`as_built`), else as planned. `tenons` are how far each end goes in.
    """

    number: int
    name: str
    centres: Figure
    gap: Figure
    total: Figure
    planned_total: Figure
    tenons: tuple[Figure, Figure]
    as_built: bool
    ends: tuple[MemberEnd, MemberEnd]
    coplanar: tuple[int, ...]


@dataclass(frozen=True)
class RopeHole:
    """One hole for a rope: its angle to the leg, its turn round it; `acute_side` as of a stretcher's
    end, `radius` half the leg there, mm."""

    leg: int
    read: Figure
    turn: Figure
    acute_side: str
    radius: float


@dataclass(frozen=True)
class RopePart:
    """A rope's figures: the holes, how far down each leg, and the rope itself."""

    number: int
    name: str
    hole: Figure
    downs: tuple[Figure, ...]
    holes: tuple[RopeHole, ...]
    loop: Figure


def member_part(
    piece: Piece,
    member: MemberStance,
    all_members: tuple[MemberStance, ...],
    show: Show,
    built: Built = AS_PLANNED,
) -> MemberPart:
    """The figures of one stretcher, cut to what was found dry-fitted where it was measured."""
    chosen = piece.members[member.number - 1]
    assert isinstance(chosen, Stretcher)
    key = f"member.{member.number}"
    a, b = member.ends
    gap = member.centres - a.leaves - b.leaves
    found = built.gaps.get(member.number)
    tenons = (
        _tenon(key, chosen, member, 0, show, built),
        _tenon(key, chosen, member, 1, show, built),
    )
    as_built = found is not None or any((member.number, e) in built.walls for e in (0, 1))
    real = gap if found is None else found
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
            "Cut it to, over all",
            real + sum(t.quantity.value for t in tenons) + chosen.spring,
            "measured gap + tenon + tenon + spring"
            if found is not None
            else "gap + tenon + tenon + spring",
            show.input("g", "clear gap" if found is None else "clear gap, as measured", real),
            show.input("k₁", "first tenon, along the stretcher", tenons[0].quantity.value),
            show.input("k₂", "second tenon, along the stretcher", tenons[1].quantity.value),
            show.input("s", "spring", chosen.spring),
        ),
        planned_total=show.figure(
            f"{key}.planned",
            "Over all, as planned",
            gap + 2.0 * chosen.depth + chosen.spring,
            "gap + 2 · socket + spring",
            show.input("g", "clear gap", gap),
            show.input("k", "socket, along the stretcher", chosen.depth),
            show.input("s", "spring", chosen.spring),
        ),
        tenons=tenons,
        as_built=as_built,
        ends=(
            _end(f"{key}.1", chosen, a, show, built.acutes.get((member.number, 0)), member.centres),
            _end(f"{key}.2", chosen, b, show, built.acutes.get((member.number, 1)), member.centres),
        ),
        coplanar=tuple(other.number for other in all_members if _one_plane(member, other)),
    )


def _slant(member: Stretcher, acute: float) -> float:
    """How much shallower a socket is at its obtuse wall than on its middle, mm."""
    return member.tenon / 2.0 / deg.tan(acute) if acute < 90.0 - 1e-9 else 0.0


def _tenon(key: str, chosen: Stretcher, member: MemberStance, e: int, show: Show, built: Built) -> Figure:
    """How far one end goes in: the socket as it was measured at its obtuse wall, else as chosen."""
    wall = built.walls.get((member.number, e))
    acute = built.acutes.get((member.number, e), member.ends[e].acute)
    label = f"Tenon, {'first' if e == 0 else 'second'} end"
    if wall is None:
        chosen_depth = show.input("k", "socket, along the stretcher", chosen.depth)
        return show.figure(f"{key}.{e + 1}.tenon", label, chosen.depth, "as chosen", chosen_depth)
    return show.figure(
        f"{key}.{e + 1}.tenon",
        label,
        wall + _slant(chosen, acute),
        "wall + d/2 · cot α",
        show.input("w", "obtuse wall, as measured", wall),
        show.input("d", "socket", chosen.tenon),
        show.input("α", "acute angle between the sticks", acute, "deg"),
    )


SHANK_MM = 5.0
"""What a drill's shank wants beside the opposite leg (common practice, no source)."""


def _pass_by(key: str, member: Stretcher, end: EndStance, centres: float, show: Show) -> Figure | None:
    """Turn of a leg about its own axis for a drill aimed from its opposite to pass beside that one.

    Turned by w the drill runs centres · sin w · sin alpha beside the opposite axis.
    """
    wide = 2.0 * end.radius / 2.0 + member.tenon / 2.0 + SHANK_MM
    far = centres * deg.sin(end.acute)
    if not end.leg or wide >= far:
        return None
    return show.figure(
        f"{key}.pass_by",
        "Turn the leg for the drill to pass its opposite",
        math.degrees(math.asin(wide / far)),
        "sin ω = (R + d/2 + 5 mm) / (c · sin α)",
        show.input("R", "half the opposite leg", end.radius),
        show.input("d", "bit", member.tenon),
        show.input("c", "centre to centre", centres),
        show.input("α", "acute angle between the sticks", end.acute, "deg"),
        unit="deg",
        note="either way, in its socket, its mark as far beside the line; turned back for assembly",
    )


def _end(
    key: str, member: Stretcher, end: EndStance, show: Show, found: float | None, centres: float
) -> MemberEnd:
    into = f"leg {end.leg}" if end.leg else f"stretcher {end.member}"
    slant = _slant(member, end.acute)
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
        turn=_turn(key, end, show),
        found=None if found is None else show.angle(found),
        pass_by=_pass_by(key, member, end, centres, show),
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
        acute_side=_acute_side(end),
    )


def _acute_side(end: EndStance) -> str:
    return "" if end.acute > 90.0 - 1e-6 else ("foot" if end.opening < 90.0 else "top")


def _turn(key: str, end: EndStance, show: Show) -> Figure:
    """How far round the leg a hole is from its mark, and which way."""
    way = "clockwise" if end.turn >= 0.0 else "anticlockwise"
    start = "Round the leg from its sightline mark" if end.leg else "Round it from straight below"
    return show.figure(
        f"{key}.turn",
        f"{start}, {way}",
        abs(end.turn),
        "angle about the axis",
        show.input("ω", "clockwise seen from the top; a minus is the other way", end.turn, "deg"),
        unit="deg",
        note=f"{way}, seen from the {'top' if end.leg else 'first end'}",
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


def _rope_hole(key: str, end: EndStance, show: Show) -> RopeHole:
    return RopeHole(
        leg=end.leg,
        read=show.figure(
            f"{key}.read",
            f"Hole in leg {end.leg}, acute angle to it",
            end.acute,
            "halfway between where the rope comes from and where it goes to",
            show.input("α", "acute angle between hole and leg", end.acute, "deg"),
            unit="deg",
            note="held along the leg, in the plane of the hole and the leg",
        ),
        turn=_turn(key, end, show),
        acute_side=_acute_side(end),
        radius=end.radius,
    )


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
        holes=tuple(_rope_hole(f"{key}.{k + 1}", end, show) for k, end in enumerate(rope.holes)),
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
