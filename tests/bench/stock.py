"""What lies on the bench: the seat, legs by their turned or planed shape, round sticks, square sticks."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass, field

import numpy as np

from splay.work.marks import Mark
from tests.bench.frames import Array, spun, square_to, unit, vec


@dataclass
class Seat:
    """In the directions of its own words: x to RIGHT, y to BACK, z to the upper face; mm."""

    thickness: float
    batten: float = 0.0
    over: float = 0.0
    """What is still on its upper face over its thickness."""
    points: dict[Mark, Array] = field(default_factory=dict)
    arrows: dict[Mark, Array] = field(default_factory=dict)
    far: dict[Mark, Array] = field(default_factory=dict)
    """Where a line is drawn to, from its mark."""
    rows: dict[Mark, tuple[str, tuple[float, ...]]] = field(default_factory=dict)
    rims: dict[Mark, tuple[str, float, float]] = field(default_factory=dict)
    sunk: Callable[[float, float], float] = lambda x, y: 0.0
    """How deep the upper face is hollowed at a place, once it is."""

    def level(self, face: str) -> float:
        return {
            "underside": 0.0,
            "upper face": self.thickness + self.over,
            "battens' lower face": -self.batten,
        }[face]

    @staticmethod
    def outward(face: str) -> Array:
        return vec(0, 0, 1 if face == "upper face" else -1)


@dataclass
class Stick:
    """A leg or a stretcher along z from the end it is measured from (tenon end, first end), mm.

    `shape` are (z, half thickness) along it, straight between; `first` and `last` name its ends;
    `flats` how many faces it has, 0 for a round one. `lines` are directions square to it by name:
    the maker draws the first wherever he likes.
    """

    key: str
    first: str
    last: str
    shape: tuple[tuple[float, float], ...]
    flats: int = 0
    lines: dict[str, Array] = field(default_factory=dict)
    points: dict[Mark, Array] = field(default_factory=dict)
    over: str = ""
    ends: dict[str, float] = field(default_factory=dict)

    def half(self, z: float) -> float:
        return float(np.interp(z, [a for a, _ in self.shape], [b for _, b in self.shape]))

    def slope(self, z: float) -> float:
        """Half thickness gained for each mm along, at a place."""
        for (a, p), (b, q) in zip(self.shape, self.shape[1:], strict=False):
            if a <= z <= b and b > a:
                return (q - p) / (b - a)
        return 0.0

    def faces(self) -> list[Array]:
        named = [self.lines[name] for name in self.lines if name.endswith("face")]
        if self.flats == 8:
            return [*named, *(unit(a + b) for a in named for b in named if abs(float(a @ b)) < 0.5)]
        return named

    def surface(self, z: float, way: Array) -> Array:
        """The point of the surface at z, straight out from the middle along `way` (square to z)."""
        out = self.half(z)
        if self.flats:
            out = min(self.half(z) / float(way @ f) for f in self.faces() if float(way @ f) > 1e-9)
        return vec(0, 0, z) + way * out

    def holds(self, point: Array) -> bool:
        """Whether a point lies inside it; beyond its ends its shape is taken to go on."""
        out = vec(point[0], point[1], 0)
        if self.flats:
            return all(float(out @ f) < self.half(float(point[2])) for f in self.faces())
        return float(np.linalg.norm(out)) < self.half(float(point[2]))

    def normal(self, point: Array) -> Array:
        """The surface's outward normal at a point of it."""
        way = square_to(vec(0, 0, 1), vec(point[0], point[1], 0))
        z = float(point[2])
        if self.flats:
            way = max(self.faces(), key=lambda f: float(f @ point))
        return unit(way - vec(0, 0, 1) * self.slope(z))

    def turned(self, line: str, deg: float, way: str) -> Array:
        """A direction so far round from a line, the way as seen by one who looks at the first end."""
        # Looking at the first end one looks along +z; clockwise is then right-handed about +z.
        return spun(self.lines[line], vec(0, 0, 1), deg if way == "clockwise" else -deg)


@dataclass
class Board:
    """A part of square stock in its own frame by the names written on its sides and ends."""

    sides: dict[str, Array]
    ends: dict[str, Array]
    size: tuple[float, float]
    half: float = 0.0
    """Half its length along its middle, mm; nought where no card needs it."""
    points: dict[Mark, Array] = field(default_factory=dict)


def arc_deg(mm: float, half: float) -> float:
    """The turn a strip of paper of that length makes round a stick."""
    return math.degrees(mm / half)
