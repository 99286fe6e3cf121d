"""One part as triangles."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from splay.views.project import Points

Stuff = Literal["top", "leg", "stick", "member", "rope", "warning"]


@dataclass(frozen=True)
class Mesh:
    """One part: its key, what it is, corner coordinates x y z one after another, triangles as
    indices counter-clockwise from outside, and the edges to be drawn as pairs of indices."""

    part: str
    stuff: Stuff
    points: tuple[float, ...]
    triangles: tuple[int, ...]
    edges: tuple[int, ...]


def flat(points: Points) -> tuple[float, ...]:
    """Coordinates one after another, to the hundredth of a millimetre."""
    return tuple(points.round(2).ravel().tolist())
