"""How a piece stands on a flat floor: which feet bear, which float, and how it rocks."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache
from itertools import combinations

import numpy as np
from numpy.typing import NDArray

from splay.level.feet import Array

BEARS_MM = 0.02
"""A foot nearer to the floor than this bears."""
TOUCHES_MM = 1e-4
"""A corner under a floor by no more than this touches it: nobody could measure it."""
LEAST_UP = 0.2
"""Cosine of the steepest floor that three corners are taken to stand on."""
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
    trios = _trios(tuple(owner))
    a, b, c = (points[trios[:, k]] for k in range(3))
    normals = _crossed(b - a, c - a)
    sizes = np.linalg.norm(normals, axis=1)
    ahead = normals @ up
    # Too flat a three, or one that stands on edge, is no floor.
    firm = (sizes > _FLAT) & (np.abs(ahead) >= LEAST_UP * sizes)
    a, b, c = a[firm], b[firm], c[firm]
    sizes = np.copysign(sizes, ahead)[firm]
    normals = normals[firm] / sizes[:, None]
    offsets = -(normals * a).sum(axis=1)
    high = normals @ points.T + offsets[:, None]
    # Least share of the weight that any of the three carries; negative outside them.
    runs = ((b, c), (c, a), (a, b))
    shares = [(_crossed(r - q, middle - q) * normals).sum(axis=1) / sizes for q, r in runs]
    inside = np.minimum(np.minimum(shares[0], shares[1]), shares[2])
    mine = [np.flatnonzero(np.array(owner) == foot) for foot in range(max(owner) + 1)]
    gaps = np.maximum(0.0, np.stack([high[:, at].min(axis=1) for at in mine], axis=1))
    stands = high.min(axis=1, initial=0.0) >= -TOUCHES_MM
    made: list[tuple[float, Standing]] = []
    seen: set[tuple[int, ...]] = set()
    order = np.argsort(-inside, kind="stable")
    for k in order[stands[order]]:
        bears = tuple(int(foot) for foot in np.flatnonzero(gaps[k] < BEARS_MM))
        if bears in seen:
            continue
        seen.add(bears)
        one = Standing(normals[k], float(offsets[k]), bears, tuple(float(gap) for gap in gaps[k]))
        made.append((float(inside[k]), one))
    return made


def _crossed(u: Array, v: Array) -> Array:
    """Vector products row by row; numpy's own takes longer over its axes than over these few."""
    (ux, uy, uz), (vx, vy, vz) = u.T, v.T
    return np.stack((uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx), axis=1)


@lru_cache(maxsize=64)
def _trios(owner: tuple[int, ...]) -> NDArray[np.intp]:
    """Every three corners of at least two different feet, t by 3."""
    every = combinations(range(len(owner)), 3)
    made = [trio for trio in every if len({owner[k] for k in trio}) > 1]
    return np.array(made, dtype=np.intp).reshape(-1, 3)


def rock_gaps(ground: Array, heights: Array) -> Array:
    """How far each of four feet floats while the other three bear, mm: |sum c z| / |c_i|.

    `ground` n by 2, `heights` of the feet's ends; the c with sum c = sum c x = sum c y = 0.
    """
    rows = np.column_stack((np.ones(4), ground)).T
    c = np.linalg.svd(rows)[2][-1]
    twist = abs(float(c @ heights))
    made: Array = twist / np.abs(c)
    return made
