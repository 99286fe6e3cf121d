"""A piece between legs cut to an arc: its lower edge, and its upper one where that follows it."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace
from itertools import pairwise
from typing import TYPE_CHECKING, Literal

import numpy as np
from numpy.typing import NDArray

from splay.errors import CannotBuild
from splay.piece import Arc
from splay.stance.convex import Face, Plane, Solid, clip
from splay.stance.hollow import arc_radius
from splay.stance.vectors import Flat, Vec

if TYPE_CHECKING:
    from splay.stance.body import Body

CHORDS = 24
"""Chords an arc is worked out in: of a chord of 400 and a rise of 50 they are 0.1 mm off."""
SAME = 1.0 - 1e-9
_CAP = 0.3


@dataclass(frozen=True)
class Sweep:
    """In the piece's own frame, mm: the lower edge is an arc from `first` to `last` (along) over a `chord`,
    `low` across, with a `rise` towards the upper side; `down` the sign, across, of the lower side. Where
    the upper edge follows it stands `band` off, all along; it meets the sawn ends `end_up` along them from
    the lower corners. `field` is where its rise stands in its support's document; `rests` is what stays
    where it is as that grows: the middle of the piece, or its corners. `chords` are its strips
    along the piece: from, to, what the lower edge leaves, and the upper one."""

    first: float
    last: float
    low: float
    rise: float
    down: int
    radius: float
    band: float
    end_up: float
    field: str
    rests: Literal["crown", "corners"]
    chords: tuple[tuple[float, float, Plane, Plane | None], ...]

    @property
    def chord(self) -> float:
        """From corner to corner."""
        return self.last - self.first

    @property
    def middle(self) -> float:
        """Where along the piece its crown lies."""
        return (self.first + self.last) / 2.0

    def up(self, away: float) -> float:
        """How far the lower edge stands above its chord, so far from the middle."""
        return math.sqrt(self.radius**2 - away**2) - (self.radius - self.rise)

    def below(self, away: float) -> float:
        """How far the upper edge has dropped below its crown, so far from the middle."""
        outer = self.radius + self.band
        return outer - math.sqrt(outer**2 - away**2)

    def pieces(self, plain: Solid, upper_side: Plane) -> tuple[Solid, ...]:
        """The piece in strips, each between two chords; `upper_side` is its upper side where that is
        straight."""
        made = []
        first = max(p[0] for face in plain if face.normal[0] < -_CAP for p in face.corners)
        last = min(p[0] for face in plain if face.normal[0] > _CAP for p in face.corners)
        half = max(p[2] for face in plain for p in face.corners)
        for a, b, lower, upper in self.chords:
            if first <= a and b <= last:
                # Between the sawn ends a strip is known by its eight corners.
                made.append(_strip(a, b, half, (lower, upper or upper_side), self.down))
                continue
            strip = clip(clip(plain, Plane((-1.0, 0.0, 0.0), -a)), Plane((1.0, 0.0, 0.0), b))
            for plane in (lower, upper):
                if strip and plane is not None:
                    strip = clip(strip, plane)
            made.append(strip)
        return tuple(made)

    def ring(self, high: float) -> tuple[Flat, ...]:
        """What of the face the arc leaves, counter-clockwise, past both ends and, where its upper edge is
        straight, as far as `high` across."""

        def on(plane: Plane, x: float) -> Flat:
            return x, (plane.offset - plane.normal[0] * x) / plane.normal[1]

        first, last = self.chords[0], self.chords[-1]
        lower = [on(first[2], first[0]), *(on(strip[2], strip[1]) for strip in self.chords)]
        upper = [(last[1], high), (first[0], high)]
        if last[3] is not None and first[3] is not None:
            there = [on(strip[3], strip[0]) for strip in reversed(self.chords) if strip[3] is not None]
            upper = [on(last[3], last[1]), *there]
        # Along is to the right; the lower edge lies up where across points down.
        ring = (*lower, *upper)
        return ring if self.down < 0 else ring[::-1]

    def edges_of(self, normals: NDArray[np.float64]) -> list[Vec | None]:
        """The edge each face (its normal in the piece's own frame, n by 3) is a chord of, by the way out of
        it; None where it is of none."""
        lower = np.array([strip[2].normal for strip in self.chords])
        upper = [strip[3].normal for strip in self.chords if strip[3] is not None]
        on_lower = (normals @ lower.T > SAME).any(axis=1)
        on_upper = (normals @ np.array(upper).T > SAME).any(axis=1) if upper else np.zeros_like(on_lower)
        out = float(self.down)
        return [
            (0.0, out, 0.0) if low else (0.0, -out, 0.0) if high else None
            for low, high in zip(on_lower, on_upper, strict=True)
        ]


def swept(
    body: Body,
    arc: Arc | None,
    down: int,
    band: float,
    field: str,
    rests: Literal["crown", "corners"] = "crown",
) -> Body:
    """A piece made as high as its arc wants it, with the arc cut; `down` the sign, across, of its lower
    side, `band` what stays of its height in the middle, mm; `field` where its rise stands, `rests`
    what of it stays where it is as that grows. CannotBuild for more than half a circle."""
    if arc is None:
        return body
    low = down * body.width / 2.0
    # Drawn on the face that is marked: where the ends slant, the other one's corners lie beside that.
    first, last = body.at(low, body.thickness / 2.0)
    chord, rise = last - first, arc.rise
    if chord <= 0.0 or rise >= chord / 2.0:
        raise CannotBuild(
            f"The {body.name} is to rise {rise:g} mm over {max(0.0, chord):.0f} mm between the legs: "
            "that is half a circle or more.",
            "Let it rise less than half its span.",
            f"supports.{body.support}.{field}",
        )
    radius = arc_radius(chord, rise)
    middle, centre = (first + last) / 2.0, low - down * (rise - radius)
    follows = arc.upper == "arc"
    outer = radius + band
    turn = math.asin(chord / 2.0 / radius)
    ends = [_meets_end(body, middle, centre, outer, down, k) for k in (0, 1)] if follows else []
    at = [middle + radius * math.sin(turn * (2.0 * k / CHORDS - 1.0)) for k in range(CHORDS + 1)]
    far = max(abs(x) for x in _span(body)) + 1.0
    strips = [-far, *at[1:-1], far]
    chords = []
    for k, (a, b) in enumerate(pairwise(strips)):
        lower = _chord(at[k], at[k + 1], middle, centre, radius, down, out=True)
        upper = _chord(at[k], at[k + 1], middle, centre, outer, down, out=False) if follows else None
        chords.append((a, b, lower, upper))
    end_up = (
        min(math.dist(p, (x, low)) for p, x in zip(ends, (first, last), strict=True)) if follows else 0.0
    )
    sweep = Sweep(
        first,
        last,
        low,
        rise,
        down,
        radius,
        band if follows else 0.0,
        end_up,
        field,
        rests,
        tuple(chords),
    )
    if not follows:
        return replace(body, sweep=sweep)
    # What both ends have in common, from the lower corner up.
    reach = min(abs(p[1] - low) for p in ends)
    a, b = sorted((low, low - down * reach))
    return replace(body, sweep=sweep, joint=(a, b))


def _strip(a: float, b: float, half: float, sides: tuple[Plane, Plane], down: int) -> Solid:
    """A strip from `a` to `b` along, `half` its thickness to either side, between its lower and its upper
    side."""
    small, big = sides if down < 0 else sides[::-1]

    def at(x: float, plane: Plane, z: float) -> Vec:
        n = plane.normal
        return x, (plane.offset - n[0] * x - n[2] * z) / n[1], z

    ring = ((small, -half), (big, -half), (big, half), (small, half))
    near, far = ([at(x, plane, z) for plane, z in ring] for x in (a, b))
    normals: tuple[Vec, ...] = ((0.0, 0.0, -1.0), big.normal, (0.0, 0.0, 1.0), small.normal)
    walls = [
        Face(normals[k], (near[k], far[k], far[(k + 1) % 4], near[(k + 1) % 4])[::-1]) for k in range(4)
    ]
    return (
        Face((-1.0, 0.0, 0.0), tuple(reversed(near))),
        Face((1.0, 0.0, 0.0), tuple(far)),
        *walls,
    )


def _span(body: Body) -> tuple[float, ...]:
    half = body.width / 2.0
    return tuple(
        x for y in (-half, half) for z in (-body.thickness, body.thickness) for x in body.at(y, z / 2.0)
    )


def _meets_end(body: Body, middle: float, centre: float, outer: float, down: int, k: int) -> Flat:
    """Where the upper arc comes to a sawn end, on the marked face: along and across, mm."""
    low, high, face = down * body.width / 2.0, -down * body.width / 2.0, body.thickness / 2.0
    for _ in range(60):
        y = (low + high) / 2.0
        x = body.at(y, face)[k]
        if math.hypot(x - middle, y - centre) < outer:
            low = y
        else:
            high = y
    return body.at(low, face)[k], low


def _chord(
    a: float, b: float, middle: float, centre: float, radius: float, down: int, *, out: bool
) -> Plane:
    """The plane over two places of an arc: its normal out of the wood, away from the upper side for the
    lower edge (`out`), else away from the lower one."""
    ends = []
    for x in (a, b):
        away = min(radius, abs(x - middle))
        ends.append((x, centre - down * math.sqrt(radius * radius - away * away)))
    (x0, y0), (x1, y1) = ends
    long = math.hypot(x1 - x0, y1 - y0)
    nx, ny = -(y1 - y0) / long, (x1 - x0) / long
    if (ny * down > 0.0) is not out:
        nx, ny = -nx, -ny
    return Plane((nx, ny, 0.0), nx * x0 + ny * y0)
