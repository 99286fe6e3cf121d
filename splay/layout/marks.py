"""What is drawn on the top: points, lines and arcs, top frame x and y, mm."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from splay.quantity import degrees as deg
from splay.stance.vectors import Flat


@dataclass(frozen=True)
class Mark:
    """One thing drawn. point: `points` has one, `text` its name; line: an open run; arc: a run too."""

    kind: Literal["point", "line", "arc"]
    points: tuple[Flat, ...]
    text: str = ""


def point(at: Flat, text: str) -> Mark:
    """A pricked point."""
    return Mark("point", (at,), text)


def line(*points: Flat, text: str = "") -> Mark:
    """A drawn line."""
    return Mark("line", points, text)


def arc(centre: Flat, radius: float, start: float = 0.0, end: float = 360.0, text: str = "") -> Mark:
    """An arc struck from `centre`, degrees from x towards y; a whole circle by default."""
    count = max(8, round(abs(end - start) / 5.0))
    turns = (start + (end - start) * k / count for k in range(count + 1))
    run = tuple((centre[0] + radius * deg.cos(t), centre[1] + radius * deg.sin(t)) for t in turns)
    return Mark("arc", run, text)


def cross(at: Flat, size: float) -> tuple[Mark, Mark]:
    """Two short lines crossing at a place."""
    x, y = at
    return line((x - size, y), (x + size, y)), line((x, y - size), (x, y + size))
