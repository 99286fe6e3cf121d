"""The top as rings one above the other: what round-overs and chamfers leave of its edge."""

from __future__ import annotations

from functools import lru_cache

import numpy as np

from splay.piece import Outline, Piece
from splay.stance.convex import Plane
from splay.stance.edge_profile import STEPS, profile
from splay.stance.outline import points
from splay.stance.slab_leg import slab_mitre
from splay.views.project import Points

_SHARPEST = 0.25
"""Half-angle's cosine below which a corner's inset is no longer carried to its point."""


@lru_cache(maxsize=64)
def _inward(outline: Outline) -> Points:
    """For each point of the outline, how it moves for each mm the edge comes in: along the bisector."""
    ring = np.array(points(outline))
    along = np.roll(ring, -1, axis=0) - ring
    along /= np.maximum(np.linalg.norm(along, axis=1, keepdims=True), 1e-9)
    normal = np.column_stack((-along[:, 1], along[:, 0]))
    both = normal + np.roll(normal, 1, axis=0)
    both /= np.maximum(np.linalg.norm(both, axis=1, keepdims=True), 1e-9)
    cosine = np.maximum((both * normal).sum(axis=1, keepdims=True), _SHARPEST)
    made: Points = both / cosine
    return made


def rings_of(piece: Piece, steps: int = STEPS) -> tuple[Points, ...]:
    """Rings from the underside to the upper face, top frame, mm, mitred where a slab leg leaves it; a
    round-over in `steps` chords."""
    top = piece.top
    ring, inward = np.array(points(top.outline)), _inward(top.outline)
    low = profile(top.lower_edge, top.thickness, steps)
    high = profile(top.upper_edge, top.thickness, steps)
    levels = [(inset, up) for inset, up in reversed(low)]
    levels += [(inset, top.thickness - down) for inset, down in high]
    mitres = [slab_mitre(piece, leg) for _, leg in piece.slab_legs()]
    made = []
    for inset, z in levels:
        level = np.column_stack((ring + inset * inward, np.full(len(ring), z)))
        for mitre in mitres:
            level = _mitred(level, mitre)
        made.append(level)
    return tuple(made)


def _mitred(level: Points, mitre: Plane) -> Points:
    """A ring with what lies beyond a mitre, which is square across, come back to it: to where the ring
    itself crosses it in front and behind."""
    n = mitre.normal
    beyond = level @ np.array(n) - mitre.offset
    over = beyond > 0.0
    if not over.any():
        return level
    following, after = np.roll(level, -1, axis=0), np.roll(beyond, -1)
    crossed = (beyond > 0.0) != (after > 0.0)
    share = beyond[crossed] / (beyond[crossed] - after[crossed])
    y = level[crossed, 1] + share * (following[crossed, 1] - level[crossed, 1])
    made = level.copy()
    made[:, 0] -= np.where(over, beyond / n[0], 0.0)
    if len(y):
        middle = (y.min() + y.max()) / 2.0
        made[:, 1] = np.where(over, np.where(made[:, 1] > middle, y.max(), y.min()), made[:, 1])
    return made
