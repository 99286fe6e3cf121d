"""How a tool's scale reads: what it shows at square, and which way it counts from there."""

from __future__ import annotations

from typing import Annotated, Literal

from splay.document import Angle, Frozen


class Scale(Frozen):
    """A scale in degrees."""

    at_square: Annotated[float, Angle(0, 180)] = 0.0
    """What it shows when the cut, hole or blade is square, degrees."""
    counts: Literal["up", "down"] = "up"
    """Whether the figure grows or shrinks as the tool is set away from square."""
    reach: Annotated[float, Angle(0.5, 90)] = 45.0
    """Furthest it can be set away from square, degrees."""
    step: Annotated[float, Angle(0.01, 5)] = 0.5
    """Smallest division that can be set with trust, degrees."""


def reading(scale: Scale, off_square_deg: float) -> float:
    """What the scale shows when the tool is `off_square_deg` degrees away from square."""
    way = 1.0 if scale.counts == "up" else -1.0
    return scale.at_square + way * off_square_deg


def nearest_mark(scale: Scale, off_square_deg: float) -> float:
    """The reading settled on the scale's own smallest division."""
    exact = reading(scale, off_square_deg)
    return round(exact / scale.step) * scale.step


def within_reach(scale: Scale, off_square_deg: float) -> bool:
    """Whether the tool can be set that far; a millionth of a degree is forgiven."""
    return abs(off_square_deg) <= scale.reach + 1e-6
