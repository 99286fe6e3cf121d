"""How a top is held to what stands under it: screws from below, each with the room the top moves in."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass, replace

from splay.piece import Outline, Piece, TopScrews
from splay.piece.kinds import HoldsTop
from splay.quantity import degrees as deg
from splay.stance.board_sides import lower_key, lower_span
from splay.stance.body import Body, Side
from splay.stance.gapped import across_at, place_at, top_boards
from splay.stance.outline import points
from splay.stance.side_taper import cross_section, point, side_plane
from splay.stance.staked import Stance
from splay.stance.vectors import Flat, Vec, dot

FLAT_MM = 0.01
ALONG_DEG = 20.0
"""A slot runs along its part where the top moves within this of that way; else the hole is made wider all
round, under a washer (common practice, no source)."""
CLEAR_MM = 0.5
"""A screw's hole in the part it passes through is wider than its thread by this, so that its head pulls
the top down (common practice, no source)."""
LAP_MM = 1.0
"""A washer laps over its hole by this, wherever the screw stands in it."""
STILL_MM = 0.25
"""Where the top moves less than this the hole stays round."""
STEP_MM = 0.5
"""Slots are made in steps of this."""
SIDES: tuple[Side, ...] = ((1, 0), (-1, 0), (0, 1), (0, -1))


TOP = "top"


@dataclass(frozen=True)
class Carried:
    """What is held: the top, or a lower tread. Its underside lies `down` below the top's; `middle` is a
    place on the line along its `grain` (a bearing, degrees) that stays where it is as the wood moves; it is
    `thick`, nought for the top, which is hollowed perhaps; mm."""

    key: str
    name: str
    down: float
    middle: Flat
    grain: float
    thick: float = 0.0
    board: str = ""
    """Which of two boards beside a gap: the screws nearest to its line hold it there, in round holes."""

    @property
    def wood(self) -> str:
        """The part it is, for what else is bored there."""
        return TOP if self.board else self.key

    def off(self, at: Vec) -> float:
        """How far a place lies from that line, across the grain, mm."""
        across = self.grain + 90.0
        return (at[0] - self.middle[0]) * deg.cos(across) + (at[1] - self.middle[1]) * deg.sin(across)


def carried(piece: Piece) -> Iterator[tuple[int | None, Carried]]:
    """What a piece's parts may lie under: the top, for any support; each lower tread, for its own."""
    yield None, Carried(TOP, "top", 0.0, (0.0, 0.0), piece.top.grain)
    for index, sides, lower in piece.treads():
        middle = sum(lower_span(sides)) / 2
        under = lower.drop + lower.thickness
        yield index, Carried(lower_key(sides), "lower tread", under, (0.0, middle), 0.0, lower.thickness)


@dataclass(frozen=True)
class Fastening:
    """One screw through a part into the top, or into what else it lies under (`into`).

    `at` is where its axis meets the underside and `way` its direction up, of unit length, in the top
    frame, mm; `entry` the side it starts from and `upper` the one under the top. `along` is its place
    along the part from the middle of its length; `edge` how far from `upper` its mark lies on `entry`
    where that is a neighbour, else from either neighbour; `between` the angle it makes with `entry`,
    degrees, the drill outside leaning towards `toward` (None when square). `through` is the wood along
    it, `sunk` how deep its head goes in, `travel` what the top moves there either way, which for a `slot`
    is along the part; `slanted` where it starts from a neighbour of the upper side.
    """

    body: Body
    number: int
    screw: TopScrews
    upper: Side
    entry: Side
    toward: Side | None
    at: Vec
    way: Vec
    along: float
    edge: float
    between: float
    through: float
    travel: float
    slot: bool
    slanted: bool
    into: Carried
    apart: float = math.inf
    """From its mark to the next along the part, mm."""

    @property
    def marked_from(self) -> Side:
        """The side its mark is measured from, across the one it starts from."""
        beside = _beside(self.entry)
        return self.upper if self.upper in beside else beside[0]

    @property
    def sunk(self) -> float:
        """How deep the head goes in, along the screw, mm; negative where the screw is too long."""
        return self.through - (self.screw.length - self.screw.bite)

    @property
    def clear(self) -> float:
        """The hole it passes through, mm."""
        return self.screw.size + CLEAR_MM

    @property
    def room(self) -> float:
        """By how much that hole, and its head's, are wider in the way the top moves, mm."""
        if self.travel < STILL_MM:
            return 0.0
        return STEP_MM * math.ceil(2.0 * self.travel / STEP_MM - 1e-9)

    @property
    def wide(self) -> float:
        """The hole it passes through, in the way the top moves, mm."""
        return self.clear + self.room

    @property
    def washer(self) -> float:
        """The washer that covers a hole wider all round wherever the top has moved to, mm; nought where
        none is wanted."""
        if self.slot or self.room == 0.0:
            return 0.0
        return max(self.screw.head, self.wide + self.room + 2.0 * LAP_MM)

    @property
    def seat(self) -> float:
        """The hole its head sits in, in the way the top moves, mm."""
        return max(self.screw.head, self.washer) + self.room

    @property
    def beside(self) -> float:
        """Wood along the part from its head to the part's ends, to what is cut out of it, to the next
        screw, mm."""
        half = (self.seat if self.slot or self.washer else self.screw.head) / 2.0
        rooms = []
        for back in (0.0, 0.5, 1.0):
            t = self.through * back
            a, w = self.at, self.way
            own = self.body.pose.within((a[0] - w[0] * t, a[1] - w[1] * t, a[2] - w[2] * t))
            low, high = self.body.at(own[1], own[2])
            rooms += [own[0] - low, high - own[0]]
            rooms += [max(plane.beyond(own) for plane in void.planes) for void in self.body.voids]
        return min(*rooms, self.apart - half) - half

    @property
    def reach(self) -> float:
        """How high its point is above the underside, square to it, mm."""
        return self.screw.bite * self.way[2]


def across_grain(outline: Outline, grain: float) -> float:
    """How wide a top is across its grain, mm; `grain` the bearing of its long grain, degrees."""
    sides = [y * deg.cos(grain) - x * deg.sin(grain) for x, y in points(outline)]
    return max(sides) - min(sides)


def held_by(piece: Piece, support: int) -> TopScrews | None:
    """The screws that hold the top to a support, where it has any."""
    one = piece.supports[support]
    if isinstance(one, HoldsTop):
        return one.held if isinstance(one.held, TopScrews) else None
    return None


def upper_side(body: Body, down: float = 0.0) -> Side | None:
    """The long side of a part that lies flat under the top, or under what lies `down` below its underside,
    mm; None where none does."""
    for side in SIDES:
        if body.sweep is not None and body.sweep.band and side == (-body.sweep.down, 0):
            # Bent, it touches with its crown alone.
            continue
        plane = side_plane(body, side)
        normal = body.pose.turn_out(plane.normal)
        if normal[2] > 1.0 - 1e-9 and abs(plane.offset + dot(normal, body.pose.origin) + down) < FLAT_MM:
            return side
    return None


def fastenings(piece: Piece, stance: Stance) -> tuple[Fastening, ...]:
    """Every screw of a piece, part by part."""
    made: list[Fastening] = []
    if all(held_by(piece, index) is None for index in range(len(piece.supports))):
        return ()
    for body, upper, under in lying_under(piece, stance):
        screw = held_by(piece, body.support)
        if screw is None:
            continue
        spots = spots_along(piece, body, upper, screw.count, screw.from_ends, under)
        for number, (x, into) in enumerate(spots, start=1):
            apart = min((abs(x - other) for other, _ in spots if other != x), default=math.inf)
            made.append(replace(_fastening(into, body, upper, screw, number, x), apart=apart))
    return tuple(_on_fixed_lines(made, wood_across(piece)))


def wood_across(piece: Piece) -> float:
    """How much wood a top has across its grain, mm."""
    gap = piece.top.gap
    return across_grain(piece.top.outline, piece.top.grain) - (gap.width if gap else 0.0)


def _on_fixed_lines(made: list[Fastening], wide: float) -> Iterator[Fastening]:
    """Each with what its board, or its top, moves there: from the line that stays. A board beside a gap
    stays at the screws nearest to the line wanted, whose holes are round."""
    lines: dict[str, tuple[float, float]] = {}
    for one in made:
        if one.into.board:
            # Of two as near the outer one: the same holes of either board stay round then.
            off, out = one.into.off(one.at), math.hypot(*one.at[:2])
            found = lines.get(one.into.key)
            if found is None or (round(abs(off), 2), -out) < (round(abs(found[0]), 2), -found[1] - FLAT_MM):
                lines[one.into.key] = (off, out)
    for one in made:
        off = one.into.off(one.at) - lines.get(one.into.key, (0.0, 0.0))[0]
        yield replace(one, travel=one.screw.moves * abs(off) / wide if wide else 0.0)


def spots_along(
    piece: Piece, body: Body, upper: Side, count: int, from_ends: float, under: Carried
) -> list[tuple[float, Carried]]:
    """Where a part's screws or buttons stand along the middle of its upper side, and what each goes into:
    evenly from end to end, or, under two boards with a gap, evenly under each."""
    boards = top_boards(piece.top) if under.key == TOP else ()
    if not boards:
        return [(x, under) for x in places_along(body, upper, count, from_ends)]
    y, z = middle_of(body, upper)
    low, high = body.at(y, z)
    half = (high - low) / 2
    ends = [across_at(piece.top, body.pose.out(((low + high) / 2 + x, y, z))) for x in (-half, half)]
    made = []
    for board in boards:
        run = _stretch(half, ends, board.low, board.high)
        if run is None:
            continue
        middle = place_at(piece.top, board.stays)
        into = Carried(board.key, TOP, 0.0, middle, piece.top.grain, board=board.name)
        made += [(x, into) for x in _evenly(*run, count, from_ends)]
    return sorted(made, key=lambda one: one[0])


def _stretch(half: float, ends: list[float], low: float, high: float) -> tuple[float, float] | None:
    """From where to where along a part, from its middle, it lies under a board; `ends` where both its ends
    lie across the grain."""
    run = ends[1] - ends[0]
    if abs(run) < FLAT_MM:
        return (-half, half) if low <= ends[0] <= high else None
    a, b = sorted(half * (2.0 * (edge - ends[0]) / run - 1.0) for edge in (low, high))
    a, b = max(a, -half), min(b, half)
    return (a, b) if b - a > FLAT_MM else None


def _evenly(low: float, high: float, count: int, from_ends: float) -> tuple[float, ...]:
    half, middle = max(0.0, (high - low) / 2 - from_ends), (low + high) / 2
    if count == 1 or half < FLAT_MM:
        # Where there is no room for more, one stands in the middle.
        return (middle,)
    return tuple(middle - half + 2 * half * k / (count - 1) for k in range(count))


def lying_under(piece: Piece, stance: Stance) -> Iterator[tuple[Body, Side, Carried]]:
    """Every part that lies flat under the top or a lower tread and does not stand, the side it lies with,
    and what it lies under."""
    every = list(carried(piece))
    for body in stance.bodies:
        if body.stands or body.role in ("batten", "slab"):
            continue
        for index, into in every:
            upper = upper_side(body, into.down) if index in (None, body.support) else None
            if upper is not None:
                yield body, upper, into
                break


def middle_of(body: Body, side: Side) -> tuple[float, float]:
    """The middle of a long side across the part, in its cross-section: across and up."""
    beside = _beside(side)
    here = side_plane(body, side)
    ends = [point(here, side_plane(body, other), cross_section(0.0)) for other in beside]
    return (ends[0][1] + ends[1][1]) / 2, (ends[0][2] + ends[1][2]) / 2


def _beside(side: Side) -> tuple[Side, Side]:
    return ((0, 1), (0, -1)) if side[0] else ((1, 0), (-1, 0))


def places_along(body: Body, upper: Side, count: int, from_ends: float) -> tuple[float, ...]:
    """Along the part from the middle of its upper side, evenly from end to end, mm."""
    low, high = body.at(*middle_of(body, upper))
    return _evenly(-(high - low) / 2, (high - low) / 2, count, from_ends)


def _fastening(
    into: Carried, body: Body, upper: Side, screw: TopScrews, number: int, x: float
) -> Fastening:
    y, z = middle_of(body, upper)
    low, high = body.at(y, z)
    top: Vec = ((low + high) / 2 + x, y, z)
    slanted = screw.slant > 0.0
    if slanted:
        entry = inner_side(body, upper)
        way, through, start = _axis(body, upper, entry, screw.slant, top)
        tall = math.dist(*(_corner(body, entry, other) for other in _beside(entry)))
        # A part too low for that is gone through straight.
        slanted = _edge(body, entry, upper, start) + screw.head / 2 < tall
    if not slanted:
        entry = (-upper[0], -upper[1])
        way, through, start = _axis(body, upper, entry, 0.0, top)
    side = side_plane(body, entry)
    lean = -dot(side.normal, way)
    across = into.grain + 90.0
    at = body.pose.out(top)
    runs = body.pose.along
    flat = abs(runs[0] * deg.cos(across) + runs[1] * deg.sin(across)) / math.hypot(runs[0], runs[1])
    return Fastening(
        body=body,
        number=number,
        screw=screw,
        upper=upper,
        entry=entry,
        toward=_toward(body, entry, way),
        at=at,
        way=body.pose.turn_out(way),
        along=x,
        edge=_edge(body, entry, upper, start),
        between=math.degrees(math.asin(min(1.0, lean))),
        through=through,
        travel=0.0,
        slot=flat > deg.cos(ALONG_DEG),
        slanted=slanted,
        into=into,
    )


def _axis(body: Body, upper: Side, entry: Side, slant: float, top: Vec) -> tuple[Vec, float, Vec]:
    """A screw's way up to a place on the upper side, how long that is from the side it starts from, and
    where it starts; in the part's own frame."""
    c, s = deg.cos(slant), deg.sin(slant)
    way: Vec = (0.0, upper[0] * c - entry[0] * s, upper[1] * c - entry[1] * s)
    if slant == 0.0:
        way = (0.0, float(upper[0]), float(upper[1]))
    side = side_plane(body, entry)
    through = side.beyond(top) / dot(side.normal, way)
    return way, through, (top[0], top[1] - way[1] * through, top[2] - way[2] * through)


def _corner(body: Body, side: Side, other: Side) -> Vec:
    return point(side_plane(body, side), side_plane(body, other), cross_section(0.0))


def inner_side(body: Body, upper: Side) -> Side:
    """Of the two sides beside the upper one that which looks to the middle of the top."""
    o = body.pose.origin

    def inward(side: Side) -> float:
        normal = body.pose.turn_out(side_plane(body, side).normal)
        return -(normal[0] * o[0] + normal[1] * o[1])

    return max(_beside(upper), key=inward)


def _toward(body: Body, entry: Side, way: Vec) -> Side | None:
    """The neighbour a drill outside a side leans towards, so that its bit goes in away from it; None where
    it stands square."""
    if dot(side_plane(body, entry).normal, way) < -1.0 + 1e-12:
        return None
    n = side_plane(body, entry).normal
    lean = dot(n, way)
    tangent = (way[0] - lean * n[0], way[1] - lean * n[1], way[2] - lean * n[2])
    return min(_beside(entry), key=lambda one: one[0] * tangent[1] + one[1] * tangent[2])


def _edge(body: Body, entry: Side, upper: Side, start: Vec) -> float:
    """How far a mark on a side lies from the upper side, or from a neighbour where it is the lower one."""
    here = side_plane(body, entry)
    beside = _beside(entry)
    other = side_plane(body, upper if upper in beside else beside[0])
    corner = point(here, other, cross_section(start[0]))
    return math.dist(corner, start)
