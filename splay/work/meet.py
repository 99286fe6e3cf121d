"""Where an operation meets a tool: which side is uphill, which comes out longer. One rule each.

Both follow from the cut or hole in the part's own frame and need no words: uphill is what the way out
of the hole leans to, longer is the side the cut's outward normal leans away from.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

from splay.stance.vectors import Vec, cross, dot, length, unit

SQUARE = 1e-8
"""A tangent below this is square: there is no side to name."""


def leans_to(out: Vec, face: Vec) -> Vec | None:
    """The way along `face` (its outward normal) in which a hole's way out leans; None for a square one.

    Under a plumb spindle the hole's way out stands plumb, so this way lies uphill; a drill held by
    hand over a level face leans to it. Unit vectors of the part's own frame.
    """
    k = dot(out, face)
    flat = (out[0] - k * face[0], out[1] - k * face[1], out[2] - k * face[2])
    return unit(flat) if length(flat) > SQUARE else None


def lean_deg(out: Vec, face: Vec) -> float:
    """How far a hole's way out leans off square to its face, degrees."""
    k = dot(out, face)
    flat = (out[0] - k * face[0], out[1] - k * face[1], out[2] - k * face[2])
    return math.degrees(math.atan2(length(flat), k))


def longer(normal: Vec, along: Vec, side: Vec) -> float:
    """How much further an end reaches for each mm towards `side`; positive where it comes out longer.

    `normal` is the cut's, out of the stick, `along` the stick's own way out at that end.
    """
    return -dot(normal, side) / dot(normal, along)


Side = tuple[str, Vec]
"""A side of a stick: what it is called, and its normal out of the wood."""


@dataclass(frozen=True)
class SawSides:
    """The side turned up and the side at the fence by name, and whether each comes out longer."""

    up: str
    fence: str
    fence_longer: bool | None
    up_longer: bool | None


def on_saw(
    normal: Vec, out: Vec, faces: tuple[Side, Side], edges: tuple[Side, Side], up_longer: bool
) -> SawSides:
    """How a stick lies on a saw for a cut of plane normal `normal`, its end `out` beyond the blade.

    The face that comes out longer is turned up (or down, where the saw stands tilted so); then the edge
    at the fence follows, for a stick can only be turned, not mirrored. `faces` and `edges` are the two
    opposite sides each.
    """
    tilts = longer(normal, out, faces[0][1])
    if abs(tilts) <= SQUARE:
        # Square that way: either face may lie up, so that the longer edge comes to the fence.
        up = next((face for face in faces if longer(normal, out, cross(face[1], out)) > SQUARE), faces[0])
    else:
        up = faces[0] if (tilts > 0.0) == up_longer else faces[1]
    wanted = cross(up[1], out)
    fence = edges[0] if dot(edges[0][1], wanted) > 0.0 else edges[1]
    swings = longer(normal, out, wanted)
    return SawSides(
        up[0],
        fence[0],
        None if abs(swings) <= SQUARE else swings > 0.0,
        None if abs(tilts) <= SQUARE else up_longer,
    )
