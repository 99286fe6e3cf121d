"""The marking-out drawn step by step, on the underside as it lies on the bench."""

from __future__ import annotations

from splay.layout import Layout
from splay.piece import Piece
from splay.stance.outline import extent, points
from splay.stance.vectors import Flat
from splay.views.shapes import Layer, Shape, View, area, ellipse, line, text


def layout_views(piece: Piece, layout: Layout) -> tuple[View, ...]:
    """One view a step: what is drawn in it in the cut colour, what was there before it thin.

    Underside up with the front edge towards the maker, so that right and left are exchanged.
    """
    made = []
    before: list[Shape] = []
    ring = tuple((-x, y) for x, y in points(piece.top.outline))
    a, b = extent(piece.top.outline)
    margin = 0.16 * max(a, b)
    outline = area("outline", ring, "top")
    spots = [p for step in layout.steps for m in step.marks for p in m.points]
    wide = max([a, *(abs(x) for x, _ in spots)]) + margin
    high = max([b, *(abs(y) for _, y in spots)]) + margin
    words = tuple(
        text("label", at, word)
        for word, at in (
            ("FRONT", (0.0, -high + 0.3 * margin)),
            ("BACK", (0.0, high - 0.5 * margin)),
            ("RIGHT", (-wide + 0.5 * margin, 0.1 * margin)),
            ("LEFT", (wide - 0.5 * margin, 0.1 * margin)),
        )
    )
    for k, step in enumerate(layout.steps):
        now = [shape for mark in step.marks for shape in _draw(mark.kind, mark.points, mark.text, "cut", a)]
        made.append(
            View(
                f"step.{k + 1}",
                step.title,
                (-wide, -high, wide, high),
                (outline, *before, *now, *words),
            )
        )
        for mark in step.marks:
            before += _draw(mark.kind, mark.points, mark.text, "dimension", a)
    return tuple(made)


def _draw(kind: str, marks: tuple[Flat, ...], words: str, layer: Layer, size: float) -> list[Shape]:
    turned = tuple((-x, y) for x, y in marks)
    if kind == "point":
        x, y = turned[0]
        dot = 0.011 * size
        shown = [ellipse(layer, (x, y), (dot, dot))]
        label = [text("label", (x + 0.05 * size, y + 0.03 * size), words)] if words else []
        return [*shown, *label]
    return [line(layer, *turned)]
