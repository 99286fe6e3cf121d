"""Vectors and turns of the bench's own, by numpy and scipy's Rotation."""

from __future__ import annotations

import math

import numpy as np
from numpy.typing import NDArray
from scipy.spatial.transform import Rotation

Array = NDArray[np.float64]


def vec(x: float, y: float, z: float) -> Array:
    return np.array((x, y, z), dtype=float)


def unit(v: Array) -> Array:
    return v / np.linalg.norm(v)


def square_to(axis: Array, v: Array) -> Array:
    """What is left of `v` square to an axis, as a unit vector."""
    return unit(v - axis * float(v @ axis))


def laid(part: tuple[Array, Array], shop: tuple[Array, Array]) -> Rotation:
    """The turn that lays two directions of a part (square to each other) on two of the shop."""
    for pair in (part, shop):
        assert abs(float(pair[0] @ pair[1])) < 1e-6, pair
    a = np.column_stack((part[0], part[1], np.cross(part[0], part[1])))
    b = np.column_stack((shop[0], shop[1], np.cross(shop[0], shop[1])))
    return Rotation.from_matrix(b @ a.T)


def spun(v: Array, axis: Array, deg: float) -> Array:
    """A direction turned about an axis, right-handed."""
    made: Array = Rotation.from_rotvec(unit(axis) * math.radians(deg)).apply(v)
    return made


def apart_deg(a: Array, b: Array) -> float:
    return math.degrees(math.atan2(float(np.linalg.norm(np.cross(a, b))), float(a @ b)))
