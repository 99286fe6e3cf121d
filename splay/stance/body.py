"""A stick or board of square stock: where it lies, and the planes that end it."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from itertools import pairwise
from typing import Literal

import numpy as np

from splay.stance.convex import Face, Plane, Solid, box, clip, prism, without
from splay.stance.sweep import Sweep
from splay.stance.vectors import Vec, cross, dot

FAR_MM = 20000.0
RIM_MM = 0.01
SAME = 1.0 - 1e-9
Role = str
Side = tuple[int, int]
"""A long side by the sign of its place: (across, 0) is an edge, (0, up) a face."""


@dataclass(frozen=True)
class Pose:
    """A right-handed frame in the top frame: a stick's middle, its length, width and thickness ways."""

    origin: Vec
    along: Vec
    across: Vec
    up: Vec

    def out(self, p: Vec) -> Vec:
        """A point of the stick's own frame in the top frame."""
        o, a, b, c = self.origin, self.along, self.across, self.up
        return (
            o[0] + p[0] * a[0] + p[1] * b[0] + p[2] * c[0],
            o[1] + p[0] * a[1] + p[1] * b[1] + p[2] * c[1],
            o[2] + p[0] * a[2] + p[1] * b[2] + p[2] * c[2],
        )

    def within(self, p: Vec) -> Vec:
        """A point of the top frame in the stick's own frame."""
        o = self.origin
        off = (p[0] - o[0], p[1] - o[1], p[2] - o[2])
        return dot(off, self.along), dot(off, self.across), dot(off, self.up)

    def turn_out(self, v: Vec) -> Vec:
        """A direction of the stick's own frame in the top frame."""
        a, b, c = self.along, self.across, self.up
        return (
            v[0] * a[0] + v[1] * b[0] + v[2] * c[0],
            v[0] * a[1] + v[1] * b[1] + v[2] * c[1],
            v[0] * a[2] + v[1] * b[2] + v[2] * c[2],
        )

    def solid(self, own: Solid) -> Solid:
        """A solid of the stick's own frame in the top frame."""
        return tuple(
            Face(self.turn_out(face.normal), tuple(self.out(p) for p in face.corners)) for face in own
        )

    def inward(self, plane: Plane) -> Plane:
        """A plane of the top frame in the stick's own frame."""
        n = plane.normal
        turned = (dot(n, self.along), dot(n, self.across), dot(n, self.up))
        return Plane(turned, plane.offset - dot(n, self.origin))


def pose(origin: Vec, along: Vec, up: Vec) -> Pose:
    """The frame of a stick lying `along` with its face turned `up`; both of unit length."""
    return Pose(origin, along, cross(up, along), up)


@dataclass(frozen=True)
class Sides:
    """What the maker calls a stick's four sides: the two edges (across) and the two faces (up)."""

    edge: str
    other_edge: str
    face: str
    other_face: str

    def named(self, side: Side) -> str:
        """What one of them is called."""
        across, up = side
        if across:
            return self.edge if across > 0 else self.other_edge
        return self.face if up > 0 else self.other_face


@dataclass(frozen=True)
class Void:
    """A convex notch taken out: a half lap, the space between two feet, or what an edge that the tree grew
    leaves beside itself.

    `edge` is +1 for what is taken from the first edge, -1 from the other, 0 for neither. Beside a grown
    edge it begins and ends square across, and the edge's own plane is the last.
    """

    name: str
    planes: tuple[Plane, ...]
    kind: Literal["lap", "feet", "grown"]
    edge: int = 0

    @property
    def along(self) -> tuple[float, float]:
        """Where beside a grown edge it begins and ends along the stick, mm."""
        return -self.planes[0].offset, self.planes[1].offset

    def holds(self, p: Vec) -> bool:
        """Whether a point of the stick's own frame lies in it, or on its rim."""
        return all(plane.beyond(p) < RIM_MM for plane in self.planes)


@dataclass(frozen=True)
class SideTaper:
    """One long side that runs in towards one of its ends from a line square across it.

    In the stick's own frame, mm: `plane` is the new side, its normal out of the wood; `begins` where
    along the stick it leaves the `side` that was there, `after` the same along the corner between `side`
    and `on` from the end it runs away from. `on` is the neighbour on which it is drawn: there it ends at
    the sawn end it runs `to`, `off` in from that corner, at `mark` along the stick, where `left` of `on`
    stays. `turn` is the new side off square to `on`, degrees; `beneath` the side opposite `on`.
    """

    side: Side
    on: Side
    plane: Plane
    begins: float
    after: float
    mark: float
    off: float
    left: float
    turn: float
    to: Literal["start", "finish"]

    @property
    def beneath(self) -> Side:
        """The side that lies down while `on` is turned up."""
        return (-self.on[0], -self.on[1])

    @property
    def slope(self) -> float:
        """How far the new side is turned from the old one, degrees."""
        n = self.plane.normal
        return math.degrees(math.atan2(abs(n[0]), math.hypot(n[1], n[2])))


@dataclass(frozen=True)
class Body:
    """One part of square stock. Planes and voids are in its own frame: x along, y across, z up.

    `start` and `finish` end it, `rips` bevel its long edges, `tapers` run them in towards an end in the
    order they are cut; `stands` says that `finish` is the floor; `tenons` are the lengths beyond both
    ends' shoulders; parts with one `alike` are cut
    to one setting (mirrored perhaps); `drawn` is False where another solid shows it.
    """

    key: str
    name: str
    role: Role
    support: int
    alike: str
    pose: Pose
    width: float
    thickness: float
    sides: Sides
    start: Plane
    finish: Plane
    rips: tuple[Plane, ...]
    tapers: tuple[SideTaper, ...] = ()
    voids: tuple[Void, ...] = ()
    stands: bool = False
    tenons: tuple[float, float] = (0.0, 0.0)
    allowance: float = 0.0
    drawn: bool = True
    frame: str = ""
    """Which half of its support it is made up with: front, back, left, right, or a frame's number."""
    joint: tuple[float, float] | None = None
    """From where to where across the stick its joined end goes, mm; None for its whole width."""
    grown: bool = False
    """Whether its edges are the tree's own: fence, rule and gauge go by its middle line, which lies at
    nought across."""
    eased: tuple[Plane, ...] = ()
    """What is shaped off its edges when all else is cut: a chamfer's plane, a round-over's chords."""
    sweep: Sweep | None = None
    """The arc it is cut to, if it is."""
    glued: int = 0
    """Which edge, by its sign across, is glued to the board beside it, with which it makes one side; 0 for
    none."""

    @property
    def whole(self) -> str:
        """What it is called once it is glued to its neighbour, or by itself where it is whole."""
        return f"{self.frame} {self.role}" if self.glued else self.name

    @property
    def rounded(self) -> bool:
        """Whether chords of a round are among its faces."""
        return bool(self.eased) or self.sweep is not None

    @property
    def joined(self) -> tuple[float, float]:
        """From where to where across the stick its joined end goes halfway through its thickness, mm: what
        is bevelled off its edges is no part of it."""
        low, high = self.joint or (-self.width / 2, self.width / 2)
        for rip in self.rips:
            y = rip.offset / rip.normal[1]
            low, high = (low, min(high, y)) if rip.normal[1] > 0.0 else (max(low, y), high)
        return low, high

    def eased_along(self, normal: Vec) -> Vec | None:
        """The edge that a face (its normal in the top frame) was shaped from, by the way out of that edge
        in the stick's own frame; None where it is a side of its own. Chords of one round are one side."""
        return self.eased_all([normal])[0]

    def eased_all(self, normals: Sequence[Vec]) -> list[Vec | None]:
        """The same of many faces."""
        if self.sweep is not None:
            p = self.pose
            return self.sweep.edges_of(np.array(normals) @ np.array((p.along, p.across, p.up)).T)
        return [self._eased(normal) for normal in normals]

    def _eased(self, normal: Vec) -> Vec | None:
        for plane in self.eased:
            if dot(self.pose.turn_out(plane.normal), normal) > SAME:
                x, y, _ = plane.normal
                return (
                    (math.copysign(1.0, x), 0.0, 0.0)
                    if abs(x) > abs(y)
                    else (0.0, math.copysign(1.0, y), 0.0)
                )
        return None

    @cached_property
    def span(self) -> tuple[float, float]:
        """From where to where across the finished part goes, mm."""
        if not self.grown:
            return -self.width / 2, self.width / 2
        across = [p[1] for solid in self.pieces for face in solid for p in face.corners]
        return min(across), max(across)

    @cached_property
    def plain(self) -> Solid:
        """The part before anything is notched out, in its own frame."""
        y, z = self.width / 2, self.thickness / 2
        ends = {(i, k): self.at(i * y, k * z) for i in (-1, 1) for k in (-1, 1)}
        if all(a < b - 1e-6 for a, b in ends.values()):
            made = prism(self.width, self.thickness, ends, (self.start.normal, self.finish.normal))
        else:
            # Ends that meet within the stick leave a wedge, which only clipping gets right.
            made = box((-FAR_MM, -y, -z), (FAR_MM, y, z))
            made = clip(clip(made, self.start), self.finish)
        for rip in self.rips:
            made = clip(made, rip)
        for taper in self.tapers:
            made = clip(made, taper.plane)
        return made

    @cached_property
    def pieces(self) -> tuple[Solid, ...]:
        """The finished part as convex pieces, in its own frame."""
        made: tuple[Solid, ...] = (self.plain,)
        grown = [void for void in self.voids if void.kind == "grown"]
        if grown:
            made = _between_edges(self.plain, grown)
        if self.sweep is not None:
            upper = -self.sweep.down
            side = next((rip for rip in self.rips if rip.normal[1] * upper > 0.0), None)
            side = side or Plane((0.0, float(upper), 0.0), self.width / 2)
            made = tuple(piece for solid in made for piece in self.sweep.pieces(solid, side))
        for void in self.voids:
            if void.kind != "grown":
                made = tuple(piece for solid in made for piece in without(solid, void.planes))
        for plane in self.eased:
            made = tuple(clip(solid, plane) for solid in made)
        return tuple(solid for solid in made if solid)

    @cached_property
    def stood(self) -> tuple[Solid, ...]:
        """The finished part's convex pieces in the top frame."""
        return tuple(self.pose.solid(one) for one in self.pieces)

    @cached_property
    def corners(self) -> tuple[Vec, ...]:
        """Every corner of the finished part's pieces once, in the top frame, mm."""
        own = dict.fromkeys(p for solid in self.pieces for face in solid for p in face.corners)
        return tuple(self.pose.out(p) for p in own)

    @cached_property
    def stood_plain(self) -> Solid:
        """The part before anything is notched out or sawn to an arc, in the top frame."""
        return self.pose.solid(self.plain)

    @cached_property
    def around(self) -> tuple[Vec, Vec]:
        """Two corners of a box along the top frame's axes that holds the part, mm.

        It holds the stick before its bevels and notches, which only take away.
        """
        y, z = self.width / 2, self.thickness / 2
        corners = []
        for i, k in ((-1, -1), (-1, 1), (1, -1), (1, 1)):
            a, b = self.at(i * y, k * z)
            corners += [self.pose.out((a, i * y, k * z)), self.pose.out((b, i * y, k * z))]
        xs, ys, zs = zip(*corners, strict=True)
        return (min(xs), min(ys), min(zs)), (max(xs), max(ys), max(zs))

    def at(self, y: float, z: float) -> tuple[float, float]:
        """Where the line at y across and z up begins and ends along the stick, mm."""
        first, last = self.start, self.finish
        a = (first.offset - first.normal[1] * y - first.normal[2] * z) / first.normal[0]
        b = (last.offset - last.normal[1] * y - last.normal[2] * z) / last.normal[0]
        return a, b

    def arrises(self) -> dict[tuple[int, int], tuple[float, float]]:
        """The long lines a stick is measured along, (across, up) in mm, by sign of each: the four corners
        left after the rips; where the tree grew its edges, the middle line of either face."""
        if self.grown:
            return {(0, k): (0.0, k * self.thickness / 2) for k in (-1, 1)}
        made = {}
        for i in (-1, 1):
            for k in (-1, 1):
                y, z = i * self.width / 2, k * self.thickness / 2
                for rip in self.rips:
                    if rip.normal[1] * i > 0:
                        y = (rip.offset - rip.normal[2] * z) / rip.normal[1]
                made[i, k] = (y, z)
        return made


def _between_edges(plain: Solid, grown: list[Void]) -> tuple[Solid, ...]:
    """A stick less what lies beside its grown edges: a piece from each place they were drawn by to the
    next, for what lies beside them all begins and ends square across."""
    stops = sorted({-FAR_MM, FAR_MM, *(x for void in grown for x in void.along)})
    made = []
    for a, b in pairwise(stops):
        piece = clip(clip(plain, Plane((-1.0, 0.0, 0.0), -a)), Plane((1.0, 0.0, 0.0), b))
        for void in grown:
            if piece and void.along[0] <= a and b <= void.along[1]:
                piece = clip(piece, void.planes[-1].turned())
        made.append(piece)
    return tuple(made)


def shares(one: Body, count: int) -> tuple[float, ...]:
    """Places across a stick's joined end, from its first edge: the middles of `count` equal shares, mm."""
    low, high = one.joined
    return tuple(high - (high - low) * (k + 0.5) / count for k in range(count))


def body(
    key: str,
    name: str,
    role: Role,
    support: int,
    alike: str,
    where: Pose,
    size: tuple[float, float],
    sides: Sides,
    ends: tuple[Plane, Plane],
    *,
    rips: tuple[Plane, ...] = (),
    voids: tuple[Void, ...] = (),
    stands: bool = False,
    tenon: float = 0.0,
    allowance: float = 0.0,
    drawn: bool = True,
    frame: str = "",
    joint: tuple[float, float] | None = None,
    grown: bool = False,
    glued: int = 0,
) -> Body:
    """A part from planes of the top frame; `size` is width (across) and thickness (up), mm."""
    return Body(
        key=key,
        name=name,
        role=role,
        support=support,
        alike=alike,
        pose=where,
        width=size[0],
        thickness=size[1],
        sides=sides,
        start=where.inward(ends[0]),
        finish=where.inward(ends[1]),
        rips=tuple(where.inward(plane) for plane in rips),
        voids=tuple(replace(v, planes=tuple(where.inward(p) for p in v.planes)) for v in voids),
        stands=stands,
        tenons=(tenon, tenon),
        allowance=allowance,
        drawn=drawn,
        frame=frame,
        joint=joint,
        grown=grown,
        glued=glued,
    )
