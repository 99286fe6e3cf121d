"""What meets inside the wood: every joint of a piece held against every other, with what would mend it."""

from __future__ import annotations

import math
from collections.abc import Iterator
from itertools import combinations

from splay.judge.finding import Finding
from splay.judge.joints import POINT_MM
from splay.piece import Piece
from splay.quantity import Show
from splay.stance.apart import clear, segments
from splay.stance.body import Body
from splay.stance.buttons import Grooved
from splay.stance.holding import SIDES, Fastening
from splay.stance.members import MemberStance, RopeStance
from splay.stance.rods import Rod, rods
from splay.stance.side_taper import side_now
from splay.stance.splines import Splined
from splay.stance.staked import Stance
from splay.stance.vectors import Vec, between, dot, unit

LEAST_MM = 2.0
"""Least wood between two things bored into one part (common practice, no source)."""
FURTHEST_MM = 80.0
SQUARE = 1e-12
_JUDGED = ({"tenon"}, {"stretcher"})
"""Sorts that are held against one another by rules of their own: legs in the top, sockets in a leg."""


def inside(
    piece: Piece,
    stance: Stance,
    runs: tuple[MemberStance, ...],
    ropes: tuple[RopeStance, ...],
    screws: tuple[Fastening, ...],
    grooved: tuple[Grooved, ...],
    through: tuple[Splined, ...],
    show: Show,
) -> Iterator[Finding]:
    """Of what meets, or nearly, the worst of each kind of meeting, and how many there are."""
    every = rods(piece, stance, runs, ropes, screws, grooved, through)
    worst: dict[tuple[str, ...], tuple[float, Rod, Rod]] = {}
    places: dict[tuple[str, ...], int] = {}
    # Each within a ball: most are too far apart for anything closer to be looked at.
    balls = [(rod, _middle(rod), math.dist(rod.a, rod.b) / 2 + rod.radius) for rod in every]
    for (one, p, reach), (two, q, other) in combinations(balls, 2):
        if math.dist(p, q) - reach - other >= LEAST_MM or not _may_meet(one, two):
            continue
        left = clear(one, two)
        if left >= LEAST_MM:
            continue
        # Alike all round a piece: told once, by where either is changed.
        kind: tuple[str, ...] = (one.sort, two.sort, one.field, two.field)
        places[kind] = places.get(kind, 0) + 1
        if kind not in worst or left < worst[kind][0]:
            worst[kind] = (left, one, two)
    for kind, (left, one, two) in worst.items():
        yield _found(left, one, two, places[kind], every, show)
    yield from _coming_out(every, stance, show)


def _middle(rod: Rod) -> Vec:
    return ((rod.a[0] + rod.b[0]) / 2, (rod.a[1] + rod.b[1]) / 2, (rod.a[2] + rod.b[2]) / 2)


def _coming_out(every: tuple[Rod, ...], stance: Stance, show: Show) -> Iterator[Finding]:
    """Dowels that come out of the part they run into, or nearly: the worst of each support."""
    bodies = {body.key: body for body in stance.bodies}
    worst: dict[str, tuple[float, Rod, Body]] = {}
    for rod in every:
        body = bodies.get(rod.into)
        if body is not None:
            left = _wood(rod, body)
            if left < POINT_MM and left < worst.get(rod.field, (POINT_MM,))[0]:
                worst[rod.field] = (left, rod, body)
    for left, rod, body in worst.values():
        out = "comes out of" if left <= 0.0 else f"leaves {show.length(left).text} of wood in"
        yield Finding(
            "dowel_out",
            "stop",
            "stance",
            f"{rod.name[0].upper()}{rod.name[1:]} {out} the {body.name}.",
            _shallower(rod, body, show),
            (),
            show.length(left),
            show.length(POINT_MM),
            (rod.b[0], rod.b[1]),
            rod.field,
            rod.b,
        )


def _wood(rod: Rod, body: Body) -> float:
    """Wood between a dowel's bottom and the sides of what it runs into, mm; negative where it is out.

    A disc reaches past its middle along n by its radius · sin of the angle between n and its axis.
    """
    middle, axis = body.pose.within(rod.b), unit(between(rod.a, rod.b))
    left = math.inf
    for side in SIDES:
        # Past an edge that is glued to the next board the wood goes on.
        if body.glued and side == (body.glued, 0):
            continue
        plane = side_now(body, side)
        lies = dot(body.pose.turn_out(plane.normal), axis)
        aside = 1.0 - lies * lies
        left = min(left, -plane.beyond(middle) - (rod.radius * math.sqrt(aside) if aside > SQUARE else 0.0))
    return left


def _shallower(rod: Rod, body: Body, show: Show) -> str:
    """How much less deep it must be, by halves of a millimetre."""
    long = math.dist(rod.a, rod.b) / 2
    for halves in range(1, int(2 * long)):
        if _wood(rod.cut(halves / 2), body) >= POINT_MM - 1e-9:
            return f"Bore {show.length(halves / 2).text} less deep, or make that part thicker."
    return "Make that part thicker, or join it another way."


def _may_meet(one: Rod, two: Rod) -> bool:
    """Two things of different joints in one part, unless one is meant to go through the other."""
    if one.joint == two.joint or not one.hosts & two.hosts:
        return False
    if one.crosses == two.joint or two.crosses == one.joint:
        return False
    return {one.sort, two.sort} not in _JUDGED


def _found(left: float, one: Rod, two: Rod, many: int, every: tuple[Rod, ...], show: Show) -> Finding:
    met = left <= 0.0
    others = "" if many == 1 else f" So in {many} places."
    first = f"{one.name[0].upper()}{one.name[1:]} and {two.name}"
    said = f"{first} meet inside the wood." if met else f"{first}: {show.length(left).text} between them."
    mover, mend = _mend(one, two, every, show)
    at = _between(one, two)
    return Finding(
        "inside_meet" if met else "inside_close",
        "stop" if met else "caution",
        "stance",
        said + others,
        mend,
        (),
        show.length(left),
        show.length(LEAST_MM),
        (at[0], at[1]),
        mover.field,
        at,
    )


def _between(one: Rod, two: Rod) -> Vec:
    """About where they meet: of places along the first the one nearest to the second."""
    spots: list[tuple[float, Vec]] = []
    for k in range(21):
        t = k / 20
        p = (
            one.a[0] + (one.b[0] - one.a[0]) * t,
            one.a[1] + (one.b[1] - one.a[1]) * t,
            one.a[2] + (one.b[2] - one.a[2]) * t,
        )
        spots.append((segments((p, p), (two.a, two.b)), p))
    return min(spots)[1]


def _mend(one: Rod, two: Rod, every: tuple[Rod, ...], show: Show) -> tuple[Rod, str]:
    """The least that would part them, tried out against everything else in the same parts."""
    for rod in (two, one):
        if rod.slide is not None:
            by = _slid(rod, every)
            if by is not None:
                way = "nearer to" if by > 0.0 else "further from"
                return rod, f"Set {rod.name} {show.length(abs(by)).text} {way} the part's end."
    for rod in (two, one):
        if rod.shortens:
            by = _less(rod, every)
            if by is not None:
                return rod, f"Make {rod.name} {show.length(by).text} less deep."
    return two, "Set them further apart, or make one of them thinner or less deep."


def _free(rod: Rod, every: tuple[Rod, ...]) -> bool:
    return all(
        clear(rod, other) >= LEAST_MM
        for other in every
        if other.joint != rod.joint and _may_meet(rod, other)
    )


def _slid(rod: Rod, every: tuple[Rod, ...]) -> float | None:
    """How far along its part it must go to be free of all else, the nearer way, outward plus; whole mm."""
    for far in range(1, int(FURTHEST_MM) + 1):
        for way, room in zip((-1.0, 1.0), rod.room, strict=True):
            if far <= room and _free(rod.moved(way * far), every):
                return way * far
    return None


def _less(rod: Rod, every: tuple[Rod, ...]) -> float | None:
    """How much less deep it must be to be free of all else, mm; none where half of it would not do."""
    long = sum((p - q) ** 2 for p, q in zip(rod.a, rod.b, strict=True)) ** 0.5
    for by in range(1, int(long / 2) + 1):
        if _free(rod.cut(float(by)), every):
            return float(by)
    return None
