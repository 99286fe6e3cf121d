"""A tool's scale with its setting."""

from __future__ import annotations

from dataclasses import dataclass

from splay.quantity import Quantity, Show
from splay.shop import Scale, reading
from splay.shop.scale import nearest_mark


@dataclass(frozen=True)
class Dial:
    """A tool's own scale and where to set it, degrees.

    `reading` is the exact figure on that scale, `mark` the nearest division that can be set.
    """

    name: str
    at_square: float
    counts: str
    reach: float
    step: float
    off_square: float
    reading: Quantity
    mark: Quantity


def dial(name: str, scale: Scale, off: float, show: Show) -> Dial:
    """A scale and where to set it for `off` degrees away from square."""
    shown = reading(scale, off)
    places = 2 if scale.step < 0.1 else 1
    return Dial(
        name=name,
        at_square=scale.at_square,
        counts=scale.counts,
        reach=scale.reach,
        step=scale.step,
        off_square=off,
        reading=show.angle(shown, places),
        mark=show.angle(nearest_mark(scale, off), places),
    )
