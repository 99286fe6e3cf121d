"""Square stock that grows thinner towards an end: planes that run in from a line to a mark at that end."""

from __future__ import annotations

import math
from dataclasses import replace

from splay.errors import CannotBuild
from splay.piece.board_sides import BoardTaper
from splay.piece.square import EdgeTaper, LegTaper
from splay.stance.body import Body, Side, SideTaper
from splay.stance.convex import Plane
from splay.stance.vectors import Vec, cross, dot, unit

SQUARE = 1e-9
MET_MM = 0.05
"""Nearer than this a corner of one part lies on a side of another."""
LEAST_MM = 20.0
"""A board is left at least so wide."""
SHORTEST_MM = 1.0
"""A taper shorter than this is none."""


def tapered(body: Body, taper: LegTaper | EdgeTaper | None, inner: int) -> Body:
    """A standing stick with its tapers; `inner` is the sign, across, of the edge that looks inward.

    Its upper face is its outer one. A side is drawn on a neighbour that is not cut yet, where there is
    one that meets it square or sharper: a cut square to that neighbour then leaves wood, never takes it.

    CannotBuild where nothing is taken off, or where the taper begins below the foot.
    """
    if taper is None:
        return body
    sides = _sides(taper, inner)
    made: dict[Side, SideTaper] = {}
    for side in sides:
        opposite = (-side[0], -side[1]) in sides
        made[side] = _taper(body, taper, side, inner, made, shared=opposite)
    return replace(body, tapers=tuple(made.values()))


def _sides(taper: LegTaper | EdgeTaper, inner: int) -> tuple[Side, ...]:
    """The sides that are tapered, in the order they are cut."""
    edge, other = (inner, 0), (-inner, 0)
    face, upper = (0, -1), (0, 1)
    ways: dict[str, tuple[Side, ...]] = {
        "inner": (edge,),
        "outer": (other,),
        "both": (edge, other),
        "inside": (edge, face),
        "all": (edge, face, other, upper),
    }
    return ways[taper.sides]


def side_plane(body: Body, side: Side) -> Plane:
    """A long side before any taper, in the stick's own frame."""
    across, up = side
    if up:
        return Plane((0.0, 0.0, float(up)), body.thickness / 2)
    for rip in body.rips:
        if rip.normal[1] * across > 0.0:
            return rip
    return Plane((0.0, float(across), 0.0), body.width / 2)


def side_now(body: Body, side: Side) -> Plane:
    """A long side as it is once all is cut: its taper where it has one."""
    found = next((taper.plane for taper in body.tapers if taper.side == side), None)
    return found or side_plane(body, side)


def joined_to(leg: Body, side: Side, other: Body) -> float:
    """How far down a leg another part meets one of its sides, along the leg in its own frame, mm; minus
    infinity where it does not."""
    plane, low = side_plane(leg, side), -math.inf
    # Held against the side in the top frame first: few corners lie on it.
    n = leg.pose.turn_out(plane.normal)
    at = plane.offset + dot(n, leg.pose.origin)
    for p in other.corners:
        if abs(dot(n, p) - at) < MET_MM:
            x, y, z = leg.pose.within(p)
            if abs(y) < leg.width / 2 + MET_MM and abs(z) < leg.thickness / 2 + MET_MM:
                low = max(low, x)
    return low


def end_across(body: Body, taper: SideTaper) -> float:
    """How wide the side a taper is drawn on is at the sawn end it runs to, square to the stick where that
    end is sawn shorter, mm."""
    on, end = side_now(body, taper.on), body.finish if taper.to == "finish" else body.start
    one, two = side_now(body, taper.side), side_now(body, (-taper.side[0], -taper.side[1]))
    ends = [point(edge, on, end)[0] for edge in (one, two)]
    across = Plane((1.0, 0.0, 0.0), min(ends) if taper.to == "finish" else max(ends))
    return math.dist(point(one, on, across), point(two, on, across))


def against(body: Body, taper: SideTaper) -> float:
    """How far a tapered side is turned from the side opposite, as that is when it is cut, on the side it
    is drawn on while that lies level: what a sled is set over by, degrees."""
    on = side_plane(body, taper.on).normal
    done = [one.side for one in body.tapers]
    opposite = (-taper.side[0], -taper.side[1])
    later = opposite not in done or done.index(opposite) > done.index(taper.side)
    other = side_plane(body, opposite) if later else side_now(body, opposite)
    a, b = unit(cross(taper.plane.normal, on)), unit(cross(other.normal, on))
    return math.degrees(math.acos(min(1.0, abs(dot(a, b)))))


def packing(body: Body, taper: SideTaper, under: Side) -> float:
    """What lies between a side turned down and the table at the foot so that the stick lies level, mm:
    nought where that side is not cut before `taper` is."""
    done = [one.side for one in body.tapers]
    if under not in done or done.index(under) > done.index(taper.side):
        return 0.0
    beneath = body.tapers[done.index(under)]
    return abs(beneath.mark - beneath.begins) * math.tan(math.radians(beneath.slope))


def _taper(
    body: Body,
    taper: LegTaper | EdgeTaper,
    side: Side,
    inner: int,
    before: dict[Side, SideTaper],
    shared: bool,
) -> SideTaper:
    field = f"supports.{body.support}.taper"
    own = side_plane(body, side)
    on = _drawn_on(body, own, side, inner, before)
    face = side_plane(body, on)
    corner = _meet(own, face)
    far = _meet(side_plane(body, (-side[0], -side[1])), face)
    whole = math.dist(corner, far)
    off = (whole - taper.foot) / (2.0 if shared else 1.0)
    if off <= 0.0:
        raise CannotBuild(
            f"The {body.name} is to be tapered to no less than it is wide: nothing comes off.",
            "Give the foot less than the leg's width, or leave the taper out.",
            f"{field}.foot",
        )
    drawn = before[on].plane if on in before else face
    made = _run_in(body, side, on, drawn, off, taper.begins)
    if made.mark - made.begins < SHORTEST_MM:
        raise CannotBuild(
            f"The taper of the {body.name} begins below its foot.",
            "Let it begin nearer to the leg's upper end.",
            f"{field}.begins",
        )
    return made


def _run_in(
    body: Body, side: Side, on: Side, drawn: Plane, off: float, after: float, to_foot: bool = True
) -> SideTaper:
    """A side that runs in to `off` from its corner with `on`, as that is `drawn` by then, at one end, from
    a line `after` along that corner from the other."""
    own, face = side_plane(body, side), side_plane(body, on)
    corner = _meet(own, face)
    whole = math.dist(corner, _meet(side_plane(body, (-side[0], -side[1])), face))
    low, high = body.at(corner[1], corner[2])
    begins = low + after if to_foot else high - after
    # How deep the mark at the end lies below the side, where `off` is measured along the other.
    depth = off * math.sqrt(max(0.0, 1.0 - dot(own.normal, face.normal) ** 2))
    end = body.finish if to_foot else body.start
    mark = point(Plane(own.normal, own.offset - depth), drawn, end)
    run = mark[0] - begins
    k = depth / run if run else 0.0
    size = math.sqrt(1.0 + k * k)
    n = own.normal
    return SideTaper(
        side=side,
        on=on,
        plane=Plane((k / size, n[1] / size, n[2] / size), (own.offset + k * begins) / size),
        begins=begins,
        after=after,
        mark=mark[0],
        off=off,
        left=whole - off,
        turn=90.0 - math.degrees(math.acos(max(-1.0, min(1.0, -dot(own.normal, face.normal))))),
        to="finish" if to_foot else "start",
    )


def narrowed(body: Body, taper: BoardTaper | None, edges: tuple[Side, ...]) -> Body:
    """A standing board with these of its edges run in over its whole height, drawn on its outer face.

    CannotBuild where nothing of it is left at the narrower end.
    """
    if taper is None or not edges:
        return body
    if taper.off * len(edges) > body.width - LEAST_MM:
        raise CannotBuild(
            f"The {body.name} is tapered to nothing.",
            "Take less off its edges, or make it wider.",
            f"supports.{body.support}.taper.off",
        )
    face, foot = (0, 1), taper.narrower == "foot"
    made = [_run_in(body, edge, face, side_plane(body, face), taper.off, 0.0, foot) for edge in edges]
    return replace(body, tapers=tuple(made))


def _drawn_on(body: Body, own: Plane, side: Side, inner: int, before: dict[Side, SideTaper]) -> Side:
    """The neighbour a taper is drawn on: one that meets it at no more than square, and not cut yet; of two
    the outer one, so that legs that are mirrored are made alike."""
    beside: tuple[Side, ...] = ((0, 1), (0, -1)) if side[0] else ((-inner, 0), (inner, 0))

    def worse(one: Side) -> tuple[bool, bool]:
        return dot(own.normal, side_plane(body, one).normal) > SQUARE, one in before

    return min(beside, key=worse)


def _meet(one: Plane, two: Plane) -> Vec:
    """Where two long sides meet, in the cross-section at nought along the stick."""
    return point(one, two, Plane((1.0, 0.0, 0.0), 0.0))


def cross_section(at: float) -> Plane:
    """The plane square across a stick, so far along it."""
    return Plane((1.0, 0.0, 0.0), at)


def point(one: Plane, two: Plane, three: Plane) -> Vec:
    """The point three planes share."""
    a, b, c = one.normal, two.normal, three.normal
    volume = dot(a, cross(b, c))
    p, q, r = cross(b, c), cross(c, a), cross(a, b)
    return (
        (one.offset * p[0] + two.offset * q[0] + three.offset * r[0]) / volume,
        (one.offset * p[1] + two.offset * q[1] + three.offset * r[1]) / volume,
        (one.offset * p[2] + two.offset * q[2] + three.offset * r[2]) / volume,
    )


def wood_beyond(mate: Body, at: Vec, way: Vec) -> float:
    """How far a line from a place on a part's side runs through it until it is out, mm; all its tapers
    cut."""
    p, pose = mate.pose.within(at), mate.pose
    w = (dot(way, pose.along), dot(way, pose.across), dot(way, pose.up))
    # Beyond where a taper begins its plane lies outside the wood: then the side is still as it was.
    every: tuple[Side, ...] = ((1, 0), (-1, 0), (0, 1), (0, -1))
    sides = [plane(mate, side) for side in every for plane in (side_plane, side_now)]
    runs = [
        (plane.offset - dot(plane.normal, p)) / dot(plane.normal, w)
        for plane in (*sides, mate.start, mate.finish)
        if dot(plane.normal, w) > 1e-9
    ]
    return max(0.0, min(runs, default=0.0))
