"""What a pattern is: a drawing at full size, and how it is used."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from splay.stance.vectors import Flat
from splay.views.shapes import Layer, Shape, View, area, line, text

ROOM_MM = 4.0
"""White left round a pattern."""
CROSS_MM = 6.0


@dataclass(frozen=True)
class Pattern:
    """One drawing at full size. `view` is in mm, x to the right, y up; `told` says what it is laid on and
    what it is good for; `sort` groups it where a maker chooses."""

    id: str
    sort: str
    title: str
    told: tuple[str, ...]
    view: View

    @property
    def size(self) -> tuple[float, float]:
        """Its width and height, mm."""
        left, low, right, high = self.view.box
        return right - left, high - low


def pattern(id: str, sort: str, title: str, told: Sequence[str], shapes: Iterable[Shape]) -> Pattern:
    """A pattern whose paper is as large as what is drawn on it."""
    drawn = tuple(shapes)
    return Pattern(id, sort, title, tuple(told), View(id, title, around(drawn), drawn))


def around(shapes: Sequence[Shape]) -> tuple[float, float, float, float]:
    """The box that holds shapes, with a little white round them, mm."""
    xs: list[float] = []
    ys: list[float] = []
    for shape in shapes:
        wide, high = (max(shape.sizes),) * 2 if shape.kind == "ellipse" else (0.0, 0.0)
        for x, y in shape.points:
            xs += [x - wide, x + wide]
            ys += [y - high, y + high]
    return (min(xs) - ROOM_MM, min(ys) - ROOM_MM, max(xs) + ROOM_MM, max(ys) + ROOM_MM)


def cross_at(at: Flat, size: float = CROSS_MM, layer: Layer = "cut", part: str = "") -> tuple[Shape, Shape]:
    """A place to prick through: two short lines that cross."""
    x, y = at
    return (
        line(layer, (x - size, y), (x + size, y), part=part),
        line(layer, (x, y - size), (x, y + size), part=part),
    )


def arrow(layer: Layer, tail: Flat, tip: Flat, barb: float = 4.0, part: str = "") -> list[Shape]:
    """A line with a point at its end."""
    run = max(((tip[0] - tail[0]) ** 2 + (tip[1] - tail[1]) ** 2) ** 0.5, 1e-9)
    u = ((tip[0] - tail[0]) / run, (tip[1] - tail[1]) / run)
    made = [line(layer, tail, tip, part=part)]
    for side in (0.45, -0.45):
        back = (tip[0] - barb * (u[0] - side * u[1]), tip[1] - barb * (u[1] + side * u[0]))
        made.append(line(layer, tip, back, part=part))
    return made


def ring(layer: Layer, points: Sequence[Flat], part: str = "") -> Shape:
    """A closed outline that hides nothing."""
    return line(layer, *points, points[0], part=part)


def words(at: Flat, said: str, part: str = "", turn: float = 0.0, layer: Layer = "label") -> Shape:
    """Words on the paper."""
    return text(layer, at, said, part, turn=turn)


__all__ = ["Pattern", "area", "around", "arrow", "cross_at", "line", "pattern", "ring", "words"]
