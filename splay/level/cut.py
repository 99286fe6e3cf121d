"""Where to cut: the plane that is wanted, the highest that every foot still reaches, the least cut."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np

from splay.level.feet import Array, End
from splay.stance.floor import Floor

_TURNS = 3
SIDES = 16
"""The lean that is allowed is a circle, told to the linear programme as a polygon inside it."""


@dataclass(frozen=True)
class CutPlane:
    """The floor the feet are cut to: normal·p + offset = 0 in the top frame, normal upward."""

    normal: Array
    offset: float

    def height(self, point: Array) -> float:
        """How far a point of the top frame stands above it, mm."""
        return float(self.normal @ point + self.offset)


def highest(ends: tuple[End, ...], normal: Array) -> float:
    """The largest offset at which every foot is still cut through its whole end.

    Every corner of every end must lie on or beyond the plane: normal·q + offset <= 0.
    """
    return min(float(-(end.ring @ normal).max()) for end in ends)


def true_plane(ends: tuple[End, ...], floor: Floor) -> CutPlane:
    """The wanted lean exactly, at the wanted height or, out of reach, as high as it goes."""
    normal = np.array(floor.normal)
    return CutPlane(normal, min(floor.h0_mm, highest(ends, normal)))


def least_plane(ends: tuple[End, ...], floor: Floor, seat: Array, allowed_deg: float) -> CutPlane:
    """A plane within the allowed lean that keeps the seat as high as may be, then cuts least.

    `seat` is the point whose wanted height is kept, top frame. Two linear programmes over the tilt
    (a, b) and the offset: highest seat first; then, at that height, the least wood off all legs
    together. The wanted plane is one of those it chooses from, so it is never worse.
    """
    # Fetched only when a lean is allowed: it takes longer to load than all else together.
    from scipy.optimize import linprog

    true = true_plane(ends, floor)
    if allowed_deg <= 0.0:
        return true
    n = np.array(floor.normal)
    e1 = np.cross(n, (0.0, 1.0, 0.0))
    e1 /= np.linalg.norm(e1)
    e2 = np.cross(n, e1)
    basis = np.column_stack((e1, e2))
    wanted = float(n @ seat) + floor.h0_mm
    corners = np.concatenate([end.ring for end in ends])
    reach = np.column_stack((corners @ basis, np.ones(len(corners))))
    turns = np.arange(SIDES) * 2.0 * math.pi / SIDES
    within = math.tan(math.radians(allowed_deg)) * math.cos(math.pi / SIDES)
    circle = np.column_stack((np.cos(turns), np.sin(turns), np.zeros(SIDES)))
    row = np.array((*(seat @ basis), 1.0))
    limits = np.vstack((reach, circle, row))
    free = [(None, None)] * 3
    axes = np.array([end.foot.axis(end.length) for end in ends])
    weight = np.array([1.0 / -float(n @ end.foot.way) for end in ends])
    off = -weight @ np.column_stack((axes @ basis, np.ones(len(axes))))
    best, size = true, 1.0
    for _ in range(_TURNS):
        # A turned normal is longer than one: heights told by it are, too.
        room = [wanted * size - float(n @ seat)]
        bounds = np.concatenate((-(corners @ n), np.full(SIDES, within), room))
        first = linprog(-row, A_ub=limits, b_ub=bounds, bounds=free, method="highs")
        if first.x is None:
            break
        high = np.concatenate((bounds, [1e-7 - float(row @ first.x)]))
        second = linprog(off, A_ub=np.vstack((limits, -row)), b_ub=high, bounds=free, method="highs")
        a, b, c = first.x if second.x is None else second.x
        turned = n + a * e1 + b * e2
        size = float(np.linalg.norm(turned))
        best = CutPlane(turned / size, min(float(c) / size, highest(ends, turned / size)))
    return best if best.height(seat) > true.height(seat) - 1e-3 else true


@dataclass(frozen=True)
class Loss:
    """What one foot loses, mm: along its axis, on its longest and its shortest side, square to the
    new floor; `length` is where its axis then ends."""

    axis: float
    long: float
    short: float
    height: float
    length: float


def loss(end: End, plane: CutPlane) -> Loss:
    """What a foot loses to a plane; nothing is ever added."""
    foot = end.foot
    length = foot.axis_cut(plane.normal, plane.offset)
    sides = end.distances - foot.cut_at(plane.normal, plane.offset)
    return Loss(
        axis=end.length - length,
        long=float(sides[foot.long]),
        short=float(sides[foot.short]),
        height=-plane.height(foot.axis(end.length)),
        length=length,
    )
