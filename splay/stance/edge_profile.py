"""What a round-over or a chamfer leaves of an edge, in section."""

from __future__ import annotations

from splay.piece import EdgeShape
from splay.quantity import degrees as deg

STEPS = 4
"""Chords a round-over is drawn in."""


def profile(edge: EdgeShape, thickness: float, steps: int = STEPS) -> tuple[tuple[float, float], ...]:
    """(in from the edge, away from the face) from the side to the face, mm; one point if square.

    Neither goes past half the thickness, so that two shaped edges never cross; a round-over is drawn in
    `steps` chords.
    """
    if edge.inward <= 0.0:
        return ((0.0, 0.0),)
    most = thickness / 2.0
    if edge.way == "chamfer":
        return ((0.0, min(edge.down, most)), (edge.inward, 0.0))
    turns = [90.0 * k / steps for k in range(steps + 1)]
    size = edge.size
    return tuple((size * (1.0 - deg.cos(a)), min(size * (1.0 - deg.sin(a)), most)) for a in turns)
