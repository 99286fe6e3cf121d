"""Seeing the piece from a side: orthographic projection and silhouettes of convex solids."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from splay.parts import LegPart
from splay.quantity import degrees as deg
from splay.stance.floor import Floor
from splay.stance.staked import LegStance
from splay.stance.vectors import Flat, Vec, along, cross, dot, unit
from splay.views.shapes import DRAWN

Points = NDArray[np.float64]
"""n by 2 or n by 3 coordinates, mm."""
ROUND_POINTS = 24


@dataclass(frozen=True)
class Eye:
    """A way of looking, in the floor frame: what is to the right and what is up in the drawing."""

    name: str
    right: Vec
    up: Vec

    def see(self, point: Vec) -> Flat:
        """A point of the floor frame in the drawing, mm."""
        return (dot(self.right, point), dot(self.up, point))

    def see_all(self, points: Points) -> Points:
        """Points of the floor frame (n by 3) in the drawing (n by 2), mm."""
        seen: Points = points @ self._across
        return seen

    @cached_property
    def _across(self) -> Points:
        return np.array((self.right, self.up)).T

    def toward(self) -> Vec:
        """The direction from the piece to the eye."""
        r, u = self.right, self.up
        return (
            r[1] * u[2] - r[2] * u[1],
            r[2] * u[0] - r[0] * u[2],
            r[0] * u[1] - r[1] * u[0],
        )


FRONT = Eye("front", (1.0, 0.0, 0.0), (0.0, 0.0, 1.0))
SIDE = Eye("side", (0.0, 1.0, 0.0), (0.0, 0.0, 1.0))
"""Seen from the right: the front of the piece is at the left."""
PLAN = Eye("plan", (1.0, 0.0, 0.0), (0.0, 1.0, 0.0))
UNDERSIDE = Eye("underside", (-1.0, 0.0, 0.0), (0.0, 1.0, 0.0))
"""Turned over side to side, as it lies on the bench: the front edge stays near the maker."""
UPPER_FACE = Eye("upper", (1.0, 0.0, 0.0), (0.0, 1.0, 0.0))
"""Where legs are bored from above: the face that is up on the bench then."""


def eye_along(bearing_deg: float) -> Eye:
    """Standing outside, looking in along a bearing of the plan: a leg leaning on it seems plumb."""
    return Eye("sight", (-deg.sin(bearing_deg), deg.cos(bearing_deg), 0.0), (0.0, 0.0, 1.0))


def quarter_eye(turn_deg: float = 17.0, rise_deg: float = 20.0) -> Eye:
    """Standing in front, a little to the right and above."""
    ct, st = deg.cos(turn_deg), deg.sin(turn_deg)
    cr, sr = deg.cos(rise_deg), deg.sin(rise_deg)
    return Eye("quarter", (ct, st, 0.0), (-st * sr, ct * sr, cr))


_ALL_ROUND = np.linspace(0.0, 2.0 * np.pi, 72, endpoint=False)
_DIRECTIONS = np.column_stack((np.cos(_ALL_ROUND), np.sin(_ALL_ROUND)))


def hulls(clouds: Points) -> list[tuple[Flat, ...]]:
    """Silhouette of each cloud of a stack (m by n by 2), counter-clockwise.

    The furthest points in every fifth degree's direction: the convex hull, less corners so
    blunt that no drawing shows them.
    """
    furthest = np.argmax(_DIRECTIONS @ clouds.transpose(0, 2, 1), axis=2)
    fresh = np.empty(furthest.shape, dtype=bool)
    fresh[:, 1:] = furthest[:, 1:] != furthest[:, :-1]
    fresh[:, 0] = furthest[:, 0] != furthest[:, -1]
    rounded = clouds.round(DRAWN)
    return [
        tuple(map(tuple, cloud[at[new]].tolist()))
        for cloud, at, new in zip(rounded, furthest, fresh, strict=True)
    ]


_TURNS = np.linspace(0.0, 2.0 * np.pi, ROUND_POINTS, endpoint=False)
COS, SIN = np.cos(_TURNS), np.sin(_TURNS)


def to_floor(floor: Floor, points: Points) -> Points:
    """Points of the top frame (n by 3) in the floor frame."""
    turned: Points = points @ np.array(floor.rows).T
    turned[:, 2] += floor.h0_mm
    return turned


def rod_points(start: Vec, end: Vec, u: Vec, half: float, floor: Floor) -> tuple[Points, Points]:
    """Both square ends of a round stick, as rings in the floor frame."""
    return (
        to_floor(floor, _square_ring(start, u, half)),
        to_floor(floor, _square_ring(end, u, half)),
    )


def _square_ring(at: Vec, u: Vec, half: float) -> Points:
    """A circle about `at` square to u."""
    seed: Vec = (0.0, 0.0, 1.0) if abs(u[2]) < 0.9 else (1.0, 0.0, 0.0)
    a = unit(cross(u, seed))
    b = cross(u, a)
    return _ellipse(at, (a[0] * half, a[1] * half, a[2] * half), (b[0] * half, b[1] * half, b[2] * half))


def tenon_points(leg: LegStance, part: LegPart, floor: Floor) -> tuple[Points, Points]:
    """The tenon where it enters and its end as it stays, as rings in the floor frame: square, or sawn along
    the top where it was left longer."""
    bore = leg.bore
    half, tip = bore.size / 2, bore.tip / 2
    rho, bearing = leg.boring.resultant, leg.boring.bearing or 0.0
    enters = _ellipse(
        leg.socket, _level(bearing, half / deg.cos(rho)), _level(bearing + 90, bore.across / 2)
    )
    end = along(leg.socket, leg.d, -max(bore.done, 0.01))
    if bore.left_on:
        # Sawn along the upper face: an ellipse, like the mouth it comes out of.
        half_out = half + (tip - half) * bore.done / bore.tenon
        flat, across = _level(bearing, half_out / deg.cos(rho)), _level(bearing + 90, half_out)
        if bore.across != bore.size:
            across = _level(bearing + 90, bore.across / 2)
        return to_floor(floor, enters), to_floor(floor, _ellipse(end, flat, across))
    flat = _level(bearing, tip * deg.cos(rho))
    across = _level(bearing + 90, bore.across / 2 * bore.tip / bore.size)
    ring = _ellipse(end, (flat[0], flat[1], tip * deg.sin(rho)), across)
    return to_floor(floor, enters), to_floor(floor, ring)


def _level(bearing: float, size: float) -> Vec:
    return (size * deg.cos(bearing), size * deg.sin(bearing), 0.0)


def _ellipse(at: Vec, first: Vec, second: Vec) -> Points:
    """Points of the ellipse about `at` with the two given half axes."""
    made: Points = np.array(at) + np.outer(COS, first) + np.outer(SIN, second)
    return made


def as_many(ring: Points) -> Points:
    """Four or eight corners as often as a round ring has points, so that mixed legs stack."""
    return np.repeat(ring, ROUND_POINTS // len(ring), axis=0)
