"""Stretchers to cut, the sockets that take them, and ropes."""

from __future__ import annotations

import math
from collections.abc import Iterable
from dataclasses import dataclass
from typing import Annotated

from pydantic import Field

from splay.parts.leg import upper_end_name
from splay.piece import Piece, Stretcher
from splay.quantity import Figure, Quantity, Show
from splay.quantity import degrees as deg
from splay.stance.members import EndStance, MemberStance, acute, corner_decides, wood_behind
from splay.stance.staked import LegStance, support_of
from splay.stance.vectors import between, dot, length, unit

MIDDLE_MM = 0.002
"""A socket nearer to its flat's middle line than can be marked lies on it."""
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
class Hooks:
    """Where a rule is hooked: from a leg's socket up to its tenon's (or sawn) end, by number, and from
    the first axis a stretcher joins to that stretcher's first end, mm; `names` what a leg's end is."""

    legs: dict[int, float]
    members: dict[int, float]
    names: dict[int, str]


NO_HOOKS = Hooks({}, {}, {})


def hooks_of(
    piece: Piece,
    legs: Iterable[LegStance],
    members: Iterable[MemberStance],
    built: Built = AS_PLANNED,
) -> Hooks:
    """Where every leg's and every stretcher's end lies from which its sockets are marked.

    A leg is hooked at its upper end: its tenon's, or its own that is let into a recess.
    """
    found: dict[int, float] = {}
    names: dict[int, str] = {}
    for leg in legs:
        names[leg.number] = upper_end_name(support_of(piece, leg).joint)
        found[leg.number] = leg.bore.tenon or leg.bore.recess
    ends: dict[int, float] = {}
    for run in members:
        chosen = piece.members[run.number - 1]
        assert isinstance(chosen, Stretcher)
        wall = built.walls.get((run.number, 0))
        tenon = chosen.depth
        if wall is not None:
            tenon = wall + _slant(chosen, built.acutes.get((run.number, 0), acute(run.ends[0].opening_on)))
        ends[run.number] = tenon - run.ends[0].leaves
    return Hooks(found, ends, names)


def _read(built: Built, member: MemberStance, e: int) -> float | None:
    """The acute angle between the axes from the one that was read against the surface."""
    read = built.acutes.get((member.number, e))
    return None if read is None else member.ends[e].acute_of(read)


_CORE = Field(exclude=True)
"""What cards and drawings are made from and nobody is shown as it is."""


@dataclass(frozen=True)
class MemberEnd:
    """One end: what it goes into, where along it, at what angle, and the socket there.

    `acute_side` is "foot" or "top" for the side of the leg the acute angle lies on, "" when square;
    `radius` half of what it goes into there, mm; `found` is the acute angle as it was read, between the
    axes; `pass_by` how far to turn the leg for the drill to pass its opposite. `mark` is where its
    middle is marked: along the stick from the end a rule is hooked on, named by `hook`; `round_` how far
    round it from its line (mm; on a flat, `face`, from the flat's middle line towards `aside_to`).
    `opening_on` is the opening against the surface, degrees: below 90 the acute side lies towards the
    foot, or second end.
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
    acute_side: Annotated[str, _CORE]
    radius: Annotated[float, _CORE]
    mark: Annotated[Figure, _CORE]
    round_: Annotated[Figure, _CORE]
    clockwise: Annotated[bool, _CORE]
    face: Annotated[str, _CORE]
    aside_to: Annotated[str, _CORE]
    opening_on: Annotated[float, _CORE]
    hook: Annotated[str, _CORE]


@dataclass(frozen=True)
class MemberPart:
    """A stretcher's figures; `coplanar` names the members that lie in one plane with it.

    `total` is what to cut it to: from its measured gap and sockets where they were measured
    (`as_built`), else as planned, which `planned` says. `tenons` are how far each end goes in.
    """

    id: str
    number: int
    name: str
    centres: Figure
    gap: Figure
    total: Figure
    planned: str
    planned_total: Annotated[Figure, _CORE]
    tenons: tuple[Figure, Figure]
    as_built: bool
    ends: tuple[MemberEnd, MemberEnd]
    coplanar: tuple[int, ...]


def member_part(
    piece: Piece,
    member: MemberStance,
    all_members: tuple[MemberStance, ...],
    show: Show,
    built: Built = AS_PLANNED,
    hooks: Hooks = NO_HOOKS,
) -> MemberPart:
    """The figures of one stretcher, cut to what was found dry-fitted where it was measured.

    `hooks` says how far each leg's hooked end lies above its socket, and each stretcher's before the
    first axis it joins.
    """
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
    planned = show.figure(
        f"{key}.planned",
        "Over all, as planned",
        gap + 2.0 * chosen.depth + chosen.spring,
        "g + 2 · k + s",
        show.input("g", "clear gap", gap),
        show.input("k", "socket, along the stretcher", chosen.depth),
        show.input("s", "spring", chosen.spring),
    )
    return MemberPart(
        id=member.id,
        number=member.number,
        name=chosen.name or f"stretcher {member.number}",
        centres=show.figure(
            f"{key}.centres",
            "Centre to centre",
            member.centres,
            "from axis to axis",
            show.input("c", "axis to axis", member.centres),
        ),
        gap=show.figure(
            f"{key}.gap",
            "Clear gap",
            gap,
            "c − e₁ − e₂",
            show.input("c", "centre to centre", member.centres),
            show.input("e₁", "first axis to surface", a.leaves),
            show.input("e₂", "second axis to surface", b.leaves),
            note="along the stretcher's own line",
        ),
        total=show.figure(
            f"{key}.total",
            "Cut it to, over all",
            real + sum(t.quantity.value for t in tenons) + chosen.spring,
            "g + k₁ + k₂ + s",
            show.input("g", "clear gap" if found is None else "clear gap, as measured", real),
            show.input("k₁", "first tenon, along the stretcher", tenons[0].quantity.value),
            show.input("k₂", "second tenon, along the stretcher", tenons[1].quantity.value),
            show.input("s", "spring", chosen.spring),
        ),
        planned=planned.quantity.text,
        planned_total=planned,
        tenons=tenons,
        as_built=as_built,
        ends=(
            _end(f"{key}.1", chosen, a, show, _read(built, member, 0), member.centres, hooks),
            _end(f"{key}.2", chosen, b, show, _read(built, member, 1), member.centres, hooks),
        ),
        coplanar=tuple(other.number for other in all_members if _one_plane(member, other)),
    )


def _slant(member: Stretcher, at: float) -> float:
    """How much shallower a socket is at its obtuse wall than on its middle, mm; `at` the acute angle
    between stretcher and surface. One read at more than a right angle leans the other way: there the wall
    is the deeper one."""
    return member.tenon / 2.0 / deg.tan(at) if abs(at - 90.0) > 1e-9 else 0.0


def _tenon(key: str, chosen: Stretcher, member: MemberStance, e: int, show: Show, built: Built) -> Figure:
    """How far one end goes in: the socket as it was measured at its obtuse wall, else as chosen."""
    wall = built.walls.get((member.number, e))
    on = built.acutes.get((member.number, e), acute(member.ends[e].opening_on))
    label = f"Tenon, {'first' if e == 0 else 'second'} end"
    if wall is None:
        chosen_depth = show.input("k", "socket, along the stretcher", chosen.depth)
        return show.figure(f"{key}.{e + 1}.tenon", label, chosen.depth, "as chosen", chosen_depth)
    return show.figure(
        f"{key}.{e + 1}.tenon",
        label,
        wall + _slant(chosen, on),
        "w + d/2 · cot β",
        show.input("w", "obtuse wall, as measured", wall),
        show.input("d", "socket", chosen.tenon),
        show.input("β", "acute angle to the surface", on, "deg"),
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
    key: str,
    member: Stretcher,
    end: EndStance,
    show: Show,
    found: float | None,
    centres: float,
    hooks: Hooks,
) -> MemberEnd:
    into = f"leg {end.leg}" if end.leg else f"stretcher {end.member}"
    on = acute(end.opening_on)
    slant = _slant(member, on)
    depth = show.input("k", "socket, along the stretcher", member.depth)
    hole = show.input("d", "socket", member.tenon)
    alpha = show.input("α", "acute angle between the sticks", end.acute, "deg")
    surface = show.input("β", "acute angle to the surface", on, "deg")
    behind = wood_behind(end.radius, member.depth, member.tenon, end.acute)
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
            note=_against(end, show),
        ),
        turn=turn(key, end, show),
        found=None if found is None else show.angle(found),
        pass_by=_pass_by(key, member, end, centres, show),
        obtuse_wall=show.figure(
            f"{key}.obtuse",
            "Socket's wall, obtuse side",
            member.depth - slant,
            "k − d/2 · cot β",
            depth,
            hole,
            surface,
        ),
        acute_wall=show.figure(
            f"{key}.acute",
            "Socket's wall, acute side",
            member.depth + slant,
            "k + d/2 · cot β",
            depth,
            hole,
            surface,
        ),
        behind=show.figure(
            f"{key}.behind",
            "Wood behind the socket",
            behind,
            "R − |k · sin α − R| − d/2 · cos α"
            if corner_decides(end.radius, member.depth, member.tenon, end.acute)
            else "R − √((d/2)² + (k − R/sin α)²)",
            show.input("R", "half the leg there", end.radius),
            depth,
            hole,
            alpha,
            note="of a round leg",
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
        acute_side=acute_side(end),
        mark=mark(key, end, hooks, show),
        round_=round_(key, end, show),
        clockwise=end.turn >= 0.0,
        face=end.face,
        aside_to=end.aside_to if end.aside > MIDDLE_MM else "",
        opening_on=end.opening_on,
        hook=hooks.names.get(end.leg, "tenon end") if end.leg else "first end",
    )


def _against(end: EndStance, show: Show) -> str:
    off = end.opening_on - end.opening
    if abs(off) < 0.005:
        return "in the plane of the two sticks and nowhere else"
    on = show.angle(acute(end.opening_on), 2).text
    return f"against the tapered side of the leg, in the plane of the two sticks, it reads {on}"


def mark(key: str, end: EndStance, hooks: Hooks, show: Show) -> Figure:
    """From the end a rule is hooked on to where the stretcher's middle comes out of the surface."""
    hook = hooks.legs.get(end.leg, 0.0) if end.leg else hooks.members.get(end.member, 0.0)
    into = f"leg {end.leg}" if end.leg else f"stretcher {end.member}"
    return show.figure(
        f"{key}.mark",
        f"Mark on {into}, from its {'tenon' if end.leg else 'first'} end",
        hook + end.mark_down,
        "k + q + e · cos α",
        show.input("k", "end to the socket", hook),
        show.input("q", "along the axis", end.down),
        show.input("e", "axis to surface", end.leaves),
        show.input("α", "between the axes", end.opening, "deg"),
        note="along the stick, to the middle of the hole's mouth",
    )


def round_(key: str, end: EndStance, show: Show) -> Figure:
    """How far round from its line the mark lies; on a flat, from the flat's middle line."""
    if end.face:
        return show.figure(
            f"{key}.aside",
            f"On its {end.face}, off the middle line",
            end.aside,
            "e · sin λ",
            show.input("e", "axis to surface", end.leaves),
            show.input("λ", "stretcher off square to the face", deg.asin(end.aside / end.leaves), "deg"),
            note=f"towards its {end.aside_to}" if end.aside > MIDDLE_MM else "on the middle line",
        )
    way = "clockwise" if end.turn >= 0.0 else "anticlockwise"
    line = "outer line" if end.leg else "floor-side line"
    return show.figure(
        f"{key}.round",
        f"Round it from its {line}, {way}",
        end.mark_radius * math.radians(abs(end.turn)),
        "2 · π · R · ω / 360°",
        show.input("R", "half of it there", end.mark_radius),
        show.input("ω", "turn about its axis", abs(end.turn), "deg"),
        note=f"{way}, looking at its {'tenon' if end.leg else 'first'} end",
    )


def acute_side(end: EndStance) -> str:
    """Towards which end of the stick the acute angle opens, "foot" or "top"; empty where it is square."""
    return "" if end.acute > 90.0 - 1e-6 else ("foot" if end.opening < 90.0 else "top")


def turn(key: str, end: EndStance, show: Show) -> Figure:
    """How far round the leg a hole is from its mark, and which way."""
    way = "clockwise" if end.turn >= 0.0 else "anticlockwise"
    start = "Round the leg from its outer line" if end.leg else "Round it from its floor-side line"
    return show.figure(
        f"{key}.turn",
        f"{start}, {way}",
        abs(end.turn),
        "|ω|",
        show.input("ω", "clockwise looking at that end; a minus is the other way", end.turn, "deg"),
        unit="deg",
        note=f"{way}, looking at its {'tenon' if end.leg else 'first'} end",
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
