"""How a piece stands on a flat floor: which feet bear, which float, and how it rocks."""

from __future__ import annotations

from dataclasses import dataclass
from itertools import combinations

import numpy as np

from splay.level.feet import Array
from splay.stance.vectors import Vec, between, cross, dot, length

BEARS_MM = 0.02
"""A foot nearer to the floor than this bears."""
_FLAT = 1e-9


@dataclass(frozen=True)
class Standing:
    """One way of standing. `normal` and `offset` are the floor as a plane normal·p + offset = 0 in
    the top frame; `bears` the feet on it, `gaps` how far each foot floats, mm."""

    normal: Array
    offset: float
    bears: tuple[int, ...]
    gaps: tuple[float, ...]


@dataclass(frozen=True)
class Rocking:
    """The way it rests, and the way it tips over to when it rocks; None where it cannot rock."""

    rests: Standing
    tips: Standing | None

    @property
    def rock(self) -> float:
        """The widest gap under a foot as it rests, mm."""
        return max(self.rests.gaps) if self.tips is not None else 0.0


def rocking(points: Array, owner: list[int], middle: Array, up: Array) -> Rocking | None:
    """How feet carry a weight over `middle`; `up` is roughly upward.

    `points` (n by 3) are corners that may touch, `owner` the foot each belongs to.

    None where no three feet carry it: fewer than three, or all in one line. Where the weight lies
    outside every three, the three nearest to carrying it are given: it would fall over there.
    """
    stands = _ways(points, owner, middle, up)
    if not stands:
        return None
    rests = stands[0][1]
    # It tips about the line between two feet it rests on, so the other way shares them.
    other = next(
        (
            s
            for _, s in stands[1:]
            if len(set(s.bears) & set(rests.bears)) >= 2 and max(rests.gaps) > BEARS_MM
        ),
        None,
    )
    return Rocking(rests, other)


def _ways(points: Array, owner: list[int], middle: Array, up: Array) -> list[tuple[float, Standing]]:
    """Every three feet with all others above them, the one the weight falls into first."""
    found: dict[tuple[int, ...], tuple[float, Standing]] = {}
    feet = max(owner) + 1
    # Plain threes: there are few corners, and many ways to take three of them.
    spots: list[Vec] = [(float(x), float(y), float(z)) for x, y, z in points]
    over: Vec = (float(middle[0]), float(middle[1]), float(middle[2]))
    upward: Vec = (float(up[0]), float(up[1]), float(up[2]))
    for trio in combinations(range(len(spots)), 3):
        if len({owner[k] for k in trio}) < 2:
            continue
        a, b, c = (spots[k] for k in trio)
        normal = cross(between(a, b), between(a, c))
        size = length(normal)
        if size < _FLAT:
            continue
        if dot(normal, upward) < 0:
            size = -size
        normal = (normal[0] / size, normal[1] / size, normal[2] / size)
        if dot(normal, upward) < 0.2:
            continue
        offset = -dot(normal, a)
        high = [dot(normal, p) + offset for p in spots]
        if min(high) < -1e-6:
            continue
        gaps = [min(h for h, k in zip(high, owner, strict=True) if k == foot) for foot in range(feet)]
        bears = tuple(k for k, gap in enumerate(gaps) if gap < BEARS_MM)
        inside = _inside(a, b, c, over, normal)
        known = found.get(bears)
        if known is None or inside > known[0]:
            stands = Standing(np.array(normal), offset, bears, tuple(max(0.0, g) for g in gaps))
            found[bears] = (inside, stands)
    return sorted(found.values(), key=lambda one: -one[0])


def _inside(a: Vec, b: Vec, c: Vec, p: Vec, normal: Vec) -> float:
    """Least share of the weight any of three feet carries; negative outside them."""
    whole = dot(cross(between(a, b), between(a, c)), normal)
    return min(
        dot(cross(between(q, r), between(q, p)), normal) / whole for q, r in ((b, c), (c, a), (a, b))
    )


def rock_gaps(ground: Array, heights: Array) -> Array:
    """How far each of four feet floats while the other three bear, mm: |sum c z| / |c_i|.

    `ground` n by 2, `heights` of the feet's ends; the c with sum c = sum c x = sum c y = 0.
    """
    rows = np.column_stack((np.ones(4), ground)).T
    c = np.linalg.svd(rows)[2][-1]
    twist = abs(float(c @ heights))
    made: Array = twist / np.abs(c)
    return made
