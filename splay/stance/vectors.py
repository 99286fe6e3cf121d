"""Three-vectors as plain tuples: few numbers, no arrays needed."""

from __future__ import annotations

import math

Vec = tuple[float, float, float]
Flat = tuple[float, float]


def dot(a: Vec, b: Vec) -> float:
    """Scalar product."""
    return a[0] * b[0] + a[1] * b[1] + a[2] * b[2]


def cross(a: Vec, b: Vec) -> Vec:
    """Vector product, right-handed."""
    return (
        a[1] * b[2] - a[2] * b[1],
        a[2] * b[0] - a[0] * b[2],
        a[0] * b[1] - a[1] * b[0],
    )


def along(start: Vec, direction: Vec, distance: float) -> Vec:
    """The point `distance` from `start` along `direction`."""
    return (
        start[0] + direction[0] * distance,
        start[1] + direction[1] * distance,
        start[2] + direction[2] * distance,
    )


def between(a: Vec, b: Vec) -> Vec:
    """The vector from `a` to `b`."""
    return (b[0] - a[0], b[1] - a[1], b[2] - a[2])


def length(a: Vec) -> float:
    """Length of a vector."""
    return math.sqrt(dot(a, a))


def unit(a: Vec) -> Vec:
    """The direction of `a`; ZeroDivisionError for no length."""
    size = length(a)
    return (a[0] / size, a[1] / size, a[2] / size)


def angle(a: Vec, b: Vec) -> float:
    """Angle between two directions, 0 to 180 degrees, exact for small ones (atan2, not acos)."""
    return math.degrees(math.atan2(length(cross(a, b)), dot(a, b)))


def word(way: Vec) -> str:
    """The word on the seat that a level direction points nearest to."""
    if abs(way[0]) >= abs(way[1]) - 1e-9:
        return "RIGHT" if way[0] > 0 else "LEFT"
    return "BACK" if way[1] > 0 else "FRONT"
