"""Convex solids as lists of faces: boxes, cut by planes."""

from __future__ import annotations

import math
from dataclasses import dataclass

from splay.stance.vectors import Vec, cross, dot, unit

_ON_MM = 1e-7
"""Nearer to a plane than this counts as on it."""


@dataclass(frozen=True)
class Plane:
    """The half space of wood n·p <= offset; `normal` points out of the wood, mm."""

    normal: Vec
    offset: float

    def beyond(self, point: Vec) -> float:
        """How far outside the wood a point lies, mm; negative inside."""
        return dot(self.normal, point) - self.offset

    def turned(self) -> Plane:
        """The other side of the same plane."""
        n = self.normal
        return Plane((-n[0], -n[1], -n[2]), -self.offset)


def plane_at(normal: Vec, point: Vec) -> Plane:
    """The plane through a point; `normal` (any length) points out of the wood."""
    n = unit(normal)
    return Plane(n, dot(n, point))


@dataclass(frozen=True)
class Face:
    """One flat face: its outward normal and its corners in order, counter-clockwise from outside."""

    normal: Vec
    corners: tuple[Vec, ...]


Solid = tuple[Face, ...]


def box(low: Vec, high: Vec) -> Solid:
    """The box between two corners, sides along the axes."""
    made = []
    for axis in range(3):
        for sign in (-1.0, 1.0):
            at = high[axis] if sign > 0 else low[axis]
            i, j = (axis + 1) % 3, (axis + 2) % 3
            ring = []
            for a, b in ((0, 0), (1, 0), (1, 1), (0, 1)):
                p = [0.0, 0.0, 0.0]
                p[axis] = at
                p[i] = high[i] if a else low[i]
                p[j] = high[j] if b else low[j]
                ring.append((p[0], p[1], p[2]))
            normal = [0.0, 0.0, 0.0]
            normal[axis] = sign
            corners = tuple(ring if sign > 0 else reversed(ring))
            made.append(Face((normal[0], normal[1], normal[2]), corners))
    return tuple(made)


def prism(
    wide: float, thick: float, ends: dict[tuple[int, int], tuple[float, float]], caps: tuple[Vec, Vec]
) -> Solid:
    """A stick along x with slanting ends: `wide` across y, `thick` up z, centred, mm.

    `ends` gives for each long corner (sign of y, sign of z) where it begins and ends; `caps` are
    the outward normals of the two ends.
    """
    y, z = wide / 2, thick / 2
    ring = ((-1, -1), (1, -1), (1, 1), (-1, 1))
    near: list[Vec] = [(ends[i, k][0], i * y, k * z) for i, k in ring]
    far: list[Vec] = [(ends[i, k][1], i * y, k * z) for i, k in ring]
    normals: tuple[Vec, ...] = ((0.0, 0.0, -1.0), (0.0, 1.0, 0.0), (0.0, 0.0, 1.0), (0.0, -1.0, 0.0))
    sides = [
        Face(normals[k], (near[k], far[k], far[(k + 1) % 4], near[(k + 1) % 4])[::-1]) for k in range(4)
    ]
    return (Face(caps[0], tuple(reversed(near))), Face(caps[1], tuple(far)), *sides)


def clip(solid: Solid, plane: Plane) -> Solid:
    """What is left of a convex solid on the wood side of a plane; empty when nothing is."""
    made: list[Face] = []
    rim: list[Vec] = []
    cut = inside = False
    # Written out: it is asked of every corner of every part.
    (nx, ny, nz), offset = plane.normal, plane.offset
    for face in solid:
        away = [nx * x + ny * y + nz * z - offset for x, y, z in face.corners]
        inside = inside or min(away) < -_ON_MM
        if max(away) <= _ON_MM:
            made.append(face)
            rim += [p for p, a in zip(face.corners, away, strict=True) if a >= -_ON_MM]
            continue
        cut = True
        kept, crossings = _clip_ring(face.corners, away)
        rim += crossings
        if len(kept) >= 3:
            made.append(Face(face.normal, tuple(kept)))
    if not cut:
        return solid
    if not inside:
        return ()
    cap = _ordered(rim, plane.normal)
    if len(cap) >= 3:
        made.append(Face(plane.normal, cap))
    return tuple(made)


def _clip_ring(ring: tuple[Vec, ...], away: list[float]) -> tuple[list[Vec], list[Vec]]:
    kept: list[Vec] = []
    crossings: list[Vec] = []
    for k, (p, a) in enumerate(zip(ring, away, strict=True)):
        q, b = ring[(k + 1) % len(ring)], away[(k + 1) % len(ring)]
        if a <= _ON_MM:
            kept.append(p)
            if a >= -_ON_MM:
                crossings.append(p)
        if (a < -_ON_MM and b > _ON_MM) or (a > _ON_MM and b < -_ON_MM):
            t = a / (a - b)
            at = (p[0] + t * (q[0] - p[0]), p[1] + t * (q[1] - p[1]), p[2] + t * (q[2] - p[2]))
            kept.append(at)
            crossings.append(at)
    return kept, crossings


def _ordered(points: list[Vec], normal: Vec) -> tuple[Vec, ...]:
    """Different points of a convex ring in order, counter-clockwise seen against the normal."""
    found: list[Vec] = []
    for p in points:
        if all(math.dist(p, q) > 1e-6 for q in found):
            found.append(p)
    if len(found) < 3:
        return ()
    n = len(found)
    middle = (
        sum(p[0] for p in found) / n,
        sum(p[1] for p in found) / n,
        sum(p[2] for p in found) / n,
    )
    seed: Vec = (1.0, 0.0, 0.0) if abs(normal[0]) < 0.9 else (0.0, 1.0, 0.0)
    u = unit(cross(normal, seed))
    v = cross(normal, u)

    def bearing(p: Vec) -> float:
        away = (p[0] - middle[0], p[1] - middle[1], p[2] - middle[2])
        return math.atan2(dot(v, away), dot(u, away))

    return tuple(sorted(found, key=bearing))


def without(solid: Solid, void: tuple[Plane, ...]) -> tuple[Solid, ...]:
    """A convex solid less a convex void, as convex pieces that only touch."""
    pieces: list[Solid] = []
    rest = solid
    for plane in void:
        outside = clip(rest, plane.turned())
        if outside:
            pieces.append(outside)
        rest = clip(rest, plane)
        if not rest:
            break
    return tuple(pieces)


def volume(solid: Solid) -> float:
    """Volume of a convex solid, mm³ (divergence theorem over its faces)."""
    total = 0.0
    for face in solid:
        a = face.corners[0]
        for b, c in zip(face.corners[1:-1], face.corners[2:], strict=True):
            total += dot(a, cross(b, c))
    return total / 6.0
