"""Closed solids of rings, circles and points, by an exact boolean library (manifold3d); mm."""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence

import numpy as np
from manifold3d import Manifold, Mesh64, OpType
from numpy.typing import NDArray

from splay.errors import CannotBuild
from splay.stance.convex import Plane
from splay.stance.vectors import Vec, along, cross, unit

ROUND = 144
"""Points round a circle: its area comes out 0.03 % small."""
EDGE_STEPS = 16
SEAM_MM = 0.05
"""Parts of one solid that are worked out apart overlap by so much, so that they join."""
SPECK_MM = 0.002
"""Edges shorter than this are taken together: a file of single precision cannot hold them apart."""
FAR_MM = 20000.0
OUT_MM = 400.0
"""A hole's cutter reaches so far out of the surface it enters."""


def closed(points: NDArray[np.float64], triangles: Sequence[tuple[int, int, int]], what: str) -> Manifold:
    """The solid of some triangles, whichever way round all of them run."""
    ways = np.array(triangles, dtype=np.uint64)
    solid = Manifold(Mesh64(points, ways))
    if solid.volume() < 0.0:
        solid = Manifold(Mesh64(points, ways[:, ::-1].copy()))
    if solid.is_empty() or solid.volume() <= 0.0:
        raise CannotBuild(
            f"The {what} encloses no solid.", "Make its rounded edges smaller.", "top.outline"
        )
    return solid


def hull(*rings: Iterable[Vec]) -> Manifold:
    """The convex solid round some points."""
    return Manifold.hull_points(np.array([p for ring in rings for p in ring]))


def cut_by(solid: Manifold, plane: Plane) -> Manifold:
    """What lies on the wood side of a plane."""
    n = plane.normal
    return solid.trim_by_plane((-n[0], -n[1], -n[2]), -plane.offset)


def ring_about(at: Vec, axis: Vec, first: Vec, half: float, across: float | None = None) -> list[Vec]:
    """Points of a circle (or of an ellipse, `half` along `first`) about a point, square to an axis."""
    second = cross(axis, first)
    other = half if across is None else across
    made = []
    for k in range(ROUND):
        c, s = math.cos(math.tau * k / ROUND), math.sin(math.tau * k / ROUND)
        made.append(along(along(at, first, half * c), second, other * s))
    return made


def square_way(axis: Vec) -> Vec:
    """Any direction square to an axis."""
    seed: Vec = (0.0, 0.0, 1.0) if abs(axis[2]) < 0.9 else (1.0, 0.0, 0.0)
    return unit(cross(axis, seed))


def cylinder(start: Vec, axis: Vec, long: float, half: float, end_half: float | None = None) -> Manifold:
    """A round stick or a cone from a point along an axis."""
    first = square_way(axis)
    far = along(start, axis, long)
    return hull(
        ring_about(start, axis, first, half),
        ring_about(far, axis, first, half if end_half is None else end_half),
    )


def stacked(
    rings: Sequence[NDArray[np.float64]],
    low: Sequence[tuple[int, int, int]],
    high: Sequence[tuple[int, int, int]],
    what: str,
) -> Manifold:
    """Rings of as many points each joined round, the triangles of both ends given by their points."""
    n = len(rings[0])
    triangles: list[tuple[int, int, int]] = []
    for r in range(len(rings) - 1):
        for k in range(n):
            a, b = r * n + k, r * n + (k + 1) % n
            triangles += [(a, b, a + n), (b, b + n, a + n)]
    last = (len(rings) - 1) * n
    triangles += [(c, b, a) for a, b, c in low]
    triangles += [(last + a, last + b, last + c) for a, b, c in high]
    return closed(np.concatenate(list(rings)), triangles, what)


def those(solids: list[Manifold]) -> Manifold:
    """Several as one; nothing where there are none."""
    return Manifold.batch_boolean(solids, OpType.Add) if solids else Manifold()
