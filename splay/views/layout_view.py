"""The marking-out drawn step by step, on the face that is up on the bench."""

from __future__ import annotations

from splay.layout import Layout
from splay.layout.marks import Mark
from splay.piece import Piece
from splay.stance.outline import extent, points
from splay.views.shapes import Layer, Shape, View, area, ellipse, fewer, line, text


def layout_views(piece: Piece, layout: Layout, open_: range) -> tuple[View, ...]:
    """One view a step of those that are open: what is drawn in it in the cut colour, what was there before
    it thin.

    The front edge towards the maker: with the underside up right and left are exchanged, with the upper
    face up they are not, and what was drawn below is not seen.
    """
    made = []
    before: dict[bool, list[Shape]] = {True: [], False: []}
    rim = fewer(points(piece.top.outline))
    a, b = extent(piece.top.outline)
    margin = 0.16 * max(a, b)
    spots = [p for step in layout.steps for m in step.marks for p in m.points]
    wide = max([a, *(abs(x) for x, _ in spots)]) + margin
    high = max([b, *(abs(y) for _, y in spots)]) + margin
    words = (
        ("FRONT", (0.0, -high + 0.3 * margin)),
        ("BACK", (0.0, high - 0.5 * margin)),
        ("RIGHT", (wide - 0.5 * margin, 0.1 * margin)),
        ("LEFT", (-wide + 0.5 * margin, 0.1 * margin)),
    )
    for k, step in enumerate(layout.steps):
        above = step.face == "upper face"
        side = 1.0 if above else -1.0
        if k >= open_.stop:
            break
        if k not in open_:
            for mark in step.marks:
                before[above] += _draw(mark, side, "dimension", a)
            continue
        now = [shape for mark in step.marks for shape in _draw(mark, side, "cut", a)]
        outline = area("outline", tuple((side * x, y) for x, y in rim), "top")
        letters = (text("label", (side * x, y), word) for word, (x, y) in words)
        shapes = (outline, *before[above], *now, *letters)
        made.append(View(f"step.{k + 1}", step.title, (-wide, -high, wide, high), shapes))
        for mark in step.marks:
            before[above] += _draw(mark, side, "dimension", a)
    return tuple(made)


def _draw(mark: Mark, side: float, layer: Layer, size: float) -> list[Shape]:
    turned = tuple((side * x, y) for x, y in mark.points)
    if mark.kind == "point":
        x, y = turned[0]
        dot = 0.011 * size
        shown = [ellipse(layer, (x, y), (dot, dot))]
        label = [text("label", (x + 0.05 * size, y + 0.03 * size), mark.text)] if mark.text else []
        return [*shown, *label]
    return [line(layer, *turned)]
