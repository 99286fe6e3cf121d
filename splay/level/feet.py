"""Feet: what of a leg comes down to the floor, as lines along the leg that a cut goes through."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from splay.parts.sides import body_side, foot_sides, on_a_face
from splay.piece import Piece
from splay.quantity import degrees as deg
from splay.stance.aim import faces
from splay.stance.body import Body, Side
from splay.stance.convex import Face
from splay.stance.floor import Floor
from splay.stance.side_taper import side_now, side_plane
from splay.stance.splines import splined
from splay.stance.staked import LegStance, Stance, support_of
from splay.stance.taper import corners, foot_taper, middles
from splay.stance.vectors import Vec, along, cross, dot, unit

Array = NDArray[np.float64]
RING = 36
"""Lines round a round leg; the longest and the shortest side are two of them."""
WIDE = 3.0
"""A foot this many times longer than it is thick counts as two, one at each end."""
ON_MM = 0.01


@dataclass(frozen=True)
class Foot:
    """One foot in the top frame, mm.

    `d` runs along the leg, down; distances along it count from `start`, the underside. `planned`
    is the distance at which the chosen floor cuts its axis. `lines` are its sides: a point at
    distance nought and the way for each mm along the axis. `long` and `short` are the lines on the
    longer and the shorter side of that cut, `long_side` and `short_side` what they are called; `mouth`
    the level of the face the leg leaves.
    """

    key: str
    name: str
    leg: int
    part: str
    start: Vec
    d: Vec
    planned: float
    mouth: float
    lines: tuple[tuple[Vec, Vec], ...]
    long: int
    short: int
    long_side: str
    short_side: str
    above: tuple[Vec, ...] = ()
    """Corners of what its leg's tenon stands out of the upper face by, top frame, mm; none of one that ends
    within it."""

    @cached_property
    def bases(self) -> Array:
        """Where its sides are at distance nought, n by 3."""
        return np.array([base for base, _ in self.lines])

    @cached_property
    def ways(self) -> Array:
        """How its sides go for each mm along the axis, n by 3."""
        return np.array([way for _, way in self.lines])

    @cached_property
    def origin(self) -> Array:
        """Where its axis starts, top frame."""
        return np.array(self.start)

    @cached_property
    def way(self) -> Array:
        """How its axis goes for each mm, top frame."""
        return np.array(self.d)

    @cached_property
    def _squared(self) -> dict[Vec, tuple[Array, Array]]:
        return {}

    def square_to(self, normal: Vec) -> tuple[Array, Array]:
        """Distances of its sides where a plane square to `normal` goes through the axis' start, and
        how they grow for each mm that plane goes down the axis."""
        known = self._squared.get(normal)
        if known is None:
            n = np.array(normal)
            across = self.ways @ n
            known = ((self.origin - self.bases) @ n / across, (n @ self.way) / across)
            self._squared[normal] = known
        return known

    def axis(self, distance: float) -> Array:
        """The point of the axis at a distance, top frame."""
        made: Array = self.origin + self.way * distance
        return made

    def cut_at(self, normal: Array, offset: float) -> Array:
        """Distances at which a plane normal·p + offset = 0 goes through its sides."""
        made: Array = -(offset + self.bases @ normal) / (self.ways @ normal)
        return made

    def axis_cut(self, normal: Array, offset: float) -> float:
        """Distance at which that plane goes through its axis."""
        return float(-(offset + self.origin @ normal) / (self.way @ normal))

    def points(self, distances: Array) -> Array:
        """Points of its sides at distances along the axis, n by 3."""
        made: Array = self.bases + self.ways * distances[:, None]
        return made


@dataclass(frozen=True)
class End:
    """A foot as it ends now: at `length` along its axis, square to `normal` (top frame)."""

    foot: Foot
    length: float
    normal: Vec
    sigma: float = 0.0
    """How well the length is known: one standard deviation, mm."""

    @cached_property
    def distances(self) -> Array:
        """How far along the axis each side ends."""
        start, grows = self.foot.square_to(self.normal)
        made: Array = start + grows * self.length
        return made

    @cached_property
    def ring(self) -> Array:
        """The end's corners, top frame, n by 3."""
        return self.foot.points(self.distances)

    def at(self, length: float, sigma: float = 0.0) -> End:
        """The same end at another length."""
        return End(self.foot, length, self.normal, sigma)


def vec(a: Array) -> Vec:
    """The same three numbers as a plain vector."""
    return (float(a[0]), float(a[1]), float(a[2]))


def feet_of(piece: Piece, stance: Stance) -> tuple[Foot, ...]:
    """Every foot of a piece, legs set into the top first."""
    made = [_staked(piece, leg, stance.floor) for leg in stance.legs]
    driven = splined(piece, stance)
    for body in stance.bodies:
        if body.stands:
            feet = _of_body(body, stance.floor)
            # What is driven through the top into a board stands out over one of its feet.
            above = tuple(
                p
                for one in driven
                if one.body is body
                for p in one.corners()
                if p[2] > piece.top.thickness + ON_MM
            )
            made += [replace(foot, above=above) if above and foot is feet[0] else foot for foot in feet]
    return tuple(made)


SQUARE_SIDE = "side, all alike"
"""What the long and the short side of a foot that is cut square are called."""


def feet_count(stance: Stance) -> int:
    """How many feet a piece has, without working out their sides."""
    return len(stance.legs) + sum(
        len(_of_body(body, stance.floor)) for body in stance.bodies if body.stands
    )


def _staked(piece: Piece, leg: LegStance, floor: Floor) -> Foot:
    shape = support_of(piece, leg).leg
    k = foot_taper(shape, leg.exposed)
    half = shape.at_foot / 2.0
    d = leg.d
    if shape.section == "round":
        # The longest side lies where the floor runs away furthest: that way first.
        away = _square_to(floor.normal, d)
        beside = cross(d, away)
        turns = [2.0 * math.pi * j / RING for j in range(RING)]
        rims = [
            (
                away[0] * math.cos(t) + beside[0] * math.sin(t),
                away[1] * math.cos(t) + beside[1] * math.sin(t),
                away[2] * math.cos(t) + beside[2] * math.sin(t),
            )
            for t in turns
        ]
    else:
        side, front = faces(shape, d)
        # The middles of the flats as well: those can be found and measured along.
        spots = (*middles(shape), *corners(shape))
        rims = [
            (
                side[0] * i + front[0] * j,
                side[1] * i + front[1] * j,
                side[2] * i + front[2] * j,
            )
            for i, j in spots
        ]
    wide = half + k * leg.exposed
    lines = tuple(
        (
            (
                leg.socket[0] + w[0] * wide,
                leg.socket[1] + w[1] * wide,
                leg.socket[2] + w[2] * wide,
            ),
            (d[0] - w[0] * k, d[1] - w[1] * k, d[2] - w[2] * k),
        )
        for w in rims
    )
    count = len(lines) // 2
    if shape.section == "round":
        long, short = _ends(lines, floor)
    elif on_a_face(shape, leg, floor):
        long, short = _ends(lines[:count], floor)
    else:
        long, short = (count + at for at in _ends(lines[count:], floor))
    far, near = foot_sides(piece, leg, floor)
    return Foot(
        key=leg.id,
        name=f"leg {leg.number}",
        leg=leg.number,
        part=f"leg.{leg.number}",
        start=leg.socket,
        d=d,
        planned=leg.exposed,
        mouth=leg.socket[2],
        lines=lines,
        long=long,
        short=short,
        long_side=far or SQUARE_SIDE,
        short_side=near or SQUARE_SIDE,
        above=_above(leg),
    )


def _above(leg: LegStance) -> tuple[Vec, ...]:
    """The highest corners of a proud tenon's end: all of it where it was sawn along the top, its upper side
    where it is square."""
    bore = leg.bore
    if bore.proud <= ON_MM:
        return ()
    rise = 0.0 if bore.left_on else deg.sin(leg.boring.resultant)
    d, half = leg.d, bore.tip / 2.0
    middle = along(leg.socket, d, -bore.done)
    # Square to the leg, the way it leans: that side of its end is the highest.
    out = unit((d[0], d[1], 0.0)) if rise else (1.0, 0.0, 0.0)
    if not rise:
        return tuple(
            (middle[0] + half * i, middle[1] + half * j, middle[2])
            for i, j in ((1, 0), (0, 1), (-1, 0), (0, -1))
        )
    run = deg.cos(leg.boring.resultant) * half
    return ((middle[0] + out[0] * run, middle[1] + out[1] * run, middle[2] + half * rise),)


def _square_to(normal: Vec, d: Vec) -> Vec:
    """The direction square to d that sinks below the floor fastest; any one for a plumb leg."""
    run = dot(normal, d)
    away = (run * d[0] - normal[0], run * d[1] - normal[1], run * d[2] - normal[2])
    if math.hypot(*away) < 1e-9:
        seed: Vec = (1.0, 0.0, 0.0) if abs(d[0]) < 0.9 else (0.0, 1.0, 0.0)
        return unit(cross(d, seed))
    return unit(away)


def _ends(lines: tuple[tuple[Vec, Vec], ...], floor: Floor) -> tuple[int, int]:
    """The lines the floor cuts longest and shortest."""
    runs = [
        round(-(floor.h0_mm + dot(floor.normal, base)) / dot(floor.normal, way), 6) for base, way in lines
    ]
    return runs.index(max(runs)), runs.index(min(runs))


def _of_body(body: Body, floor: Floor) -> list[Foot]:
    """A standing stick has one foot; a board, or one with a space cut out, one at either end. A board glued
    to another has the one away from that: the other belongs to its neighbour."""
    patches = [_patch(face, floor) for solid in body.stood for face in solid]
    found = [patch for patch in patches if patch]
    if not found:
        return []
    points = list(dict.fromkeys(p for patch in found for p in patch))
    across, up = body.pose.across, body.pose.up
    wide = max(points, key=lambda p: dot(across, p)), min(points, key=lambda p: dot(across, p))
    thick = max(points, key=lambda p: dot(up, p)), min(points, key=lambda p: dot(up, p))
    long = dot(across, wide[0]) - dot(across, wide[1])
    deep = dot(up, thick[0]) - dot(up, thick[1])
    if long <= WIDE * deep and deep <= WIDE * long:
        return [_body_foot(body, points, "", floor)]
    way = across if long > deep else up
    middle = (
        (dot(way, wide[0]) + dot(way, wide[1])) / 2
        if long > deep
        else ((dot(way, thick[0]) + dot(way, thick[1])) / 2)
    )
    low = [p for p in points if dot(way, p) < middle]
    high = [p for p in points if dot(way, p) >= middle]
    names = _side_names(way)
    if body.glued:
        # What is cut out up to the seam leaves a foot that is whole; else its outer half stands for it.
        ends = sorted(dot(way, body.pose.out((0.0, k * body.width / 2, 0.0))) for k in (-1, 1))
        seam = (
            dot(way, wide[0]) < ends[1] - ON_MM if body.glued > 0 else dot(way, wide[1]) > ends[0] + ON_MM
        )
        outer = low if body.glued > 0 else high
        return [_body_foot(body, points if seam else outer, names[0 if body.glued > 0 else 1], floor)]
    return [_body_foot(body, low, names[0], floor), _body_foot(body, high, names[1], floor)]


def _side_names(way: Vec) -> tuple[str, str]:
    """What the two ends of a wide foot are called, lower end of the direction first."""
    pair = ("left", "right") if abs(way[0]) > abs(way[1]) else ("front", "back")
    leading = way[0] if abs(way[0]) > abs(way[1]) else way[1]
    return pair if leading > 0 else (pair[1], pair[0])


def _patch(face: Face, floor: Floor) -> tuple[Vec, ...]:
    """A face's corners where it lies on the floor."""
    flat = all(abs(floor.to_floor(p)[2]) < ON_MM for p in face.corners)
    return face.corners if flat else ()


def _body_foot(body: Body, points: list[Vec], end: str, floor: Floor) -> Foot:
    d = body.pose.along
    if dot(d, floor.normal) > 0:
        d = (-d[0], -d[1], -d[2])
    n = len(points)
    middle: Vec = (
        sum(p[0] for p in points) / n,
        sum(p[1] for p in points) / n,
        sum(p[2] for p in points) / n,
    )
    planned = middle[2] / d[2]
    start: Vec = (middle[0] - d[0] * planned, middle[1] - d[1] * planned, 0.0)
    lines = tuple(_side_line(body, p, start, d) for p in points)
    # Where several are alike, one at an edge of the board is told.
    told = sorted(range(n), key=lambda k: _edge_at(body, body.pose.within(points[k])) == 0)
    ends = _ends(tuple(lines[k] for k in told), floor)
    long, short = told[ends[0]], told[ends[1]]
    suffix = f".{end}" if end else ""
    return Foot(
        key=f"{body.key}{suffix}",
        name=f"{end} foot of the {body.whole}" if end else body.name,
        leg=0,
        part=body.key,
        start=start,
        d=d,
        planned=planned,
        mouth=0.0,
        lines=lines,
        long=long,
        short=short,
        long_side=_corner_side(body, points[long], middle),
        short_side=_corner_side(body, points[short], middle),
    )


def _side_line(body: Body, p: Vec, start: Vec, d: Vec) -> tuple[Vec, Vec]:
    """The corner of a stick that ends at p: where it lies abreast of the axis' start, and its way for each
    mm down the axis; along the axis but where a side is tapered, or as the tree grew it."""
    own = body.pose.within(p)
    slanted = [(t.side, t.plane) for t in body.tapers]
    slanted += [((v.edge, 0), v.planes[-1]) for v in body.voids if v.kind == "grown" and v.holds(own)]
    slanted = [(side, plane) for side, plane in slanted if abs(plane.beyond(own)) < ON_MM]
    sides = [plane for _, plane in slanted]
    way = d
    if sides:
        cut = {side for side, _ in slanted}
        every: tuple[Side, ...] = ((1, 0), (-1, 0), (0, 1), (0, -1))
        sides += [
            plane
            for side in every
            if side not in cut and abs((plane := side_plane(body, side)).beyond(own)) < ON_MM
        ]
        if len(sides) > 1:
            along = body.pose.turn_out(cross(sides[0].normal, sides[1].normal))
            run = dot(along, d)
            way = (along[0] / run, along[1] / run, along[2] / run)
    return _abreast(p, start, d, way), way


def _corner_side(body: Body, p: Vec, middle: Vec) -> str:
    """The corner of a foot by its two sides: which way it lies off the foot's middle, for a tapered one
    need not stand under the stick's own. Beside what is cut out between two feet no edge is near."""
    own, mid = body.pose.within(p), body.pose.within(middle)
    across = _edge_at(body, own)
    if across is None:
        return body_side(body, (own[0], own[1] - mid[1], own[2] - mid[2]))
    if across == 0:
        return f"corner between its {body.sides.named((0, 1 if own[2] > mid[2] else -1))} and the cut-out"
    return body_side(body, (own[0], float(across), own[2] - mid[2]))


def _edge_at(body: Body, own: Vec) -> int | None:
    """The edge of a wide board, by its sign across, that a place lies on; 0 on neither, beside what is cut
    out of it; None where a stick is no wider than its foot."""
    if body.grown or not (body.glued or body.width > WIDE * body.thickness):
        return None
    for across in (1, -1):
        if abs(side_now(body, (across, 0)).beyond(own)) < ON_MM:
            return across
    return 0


def _abreast(p: Vec, start: Vec, d: Vec, way: Vec) -> Vec:
    """Where the side through p, going `way` for each mm along d, lies abreast of the start of the axis."""
    run = dot(d, (p[0] - start[0], p[1] - start[1], p[2] - start[2]))
    return (p[0] - way[0] * run, p[1] - way[1] * run, p[2] - way[2] * run)
