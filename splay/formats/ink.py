"""Drawings in ink on paper: black lines told apart by weight and dash, hardly any surface."""

from __future__ import annotations

from dataclasses import dataclass

from reportlab.pdfgen.canvas import Canvas

from splay.formats.type import BOLD, PLAIN, spelt, wide
from splay.views.shapes import Ellipse, Layer, Run, Shape, Words


@dataclass(frozen=True)
class Pen:
    """How a layer is drawn: its line's width in mm on paper, its dash, and what fills an area (grey, None
    for nothing: what lies behind shows)."""

    width: float = 0.18
    dash: tuple[float, ...] = ()
    fill: float | None = None
    grey: float = 0.0


_LINE = Pen()
PENS: dict[Layer, Pen] = {
    "outline": Pen(0.35),
    "solid": Pen(0.25, fill=1.0),
    "leg": Pen(0.25, fill=1.0),
    "board": Pen(0.25, fill=1.0),
    "section": Pen(0.25, fill=0.9),
    "hidden": Pen(0.15, (2.0, 1.2), grey=0.3),
    "hatch": Pen(0.1, grey=0.5),
    "hatch_area": Pen(0.2, fill=0.88),
    "waste": Pen(0.15, (1.0, 1.0), grey=0.4),
    "tenon": Pen(0.15, (1.4, 0.9)),
    "axis": Pen(0.1, (5.0, 1.2, 0.8, 1.2), grey=0.25),
    "sightline": Pen(0.25, (6.0, 1.5)),
    "cut": Pen(0.3),
    "floor": Pen(0.3),
    "rope": Pen(0.6),
    "dimension": Pen(0.12, grey=0.2),
    "footprint": Pen(0.12, (0.8, 1.2), grey=0.4),
    "pointer": Pen(0.25),
}
"""Layers that are not named here are drawn with a plain thin line."""


@dataclass(frozen=True)
class Placed:
    """Where a drawing goes: drawing mm times `scale`, moved so that (x0, y0) falls on (x, y)."""

    x: float
    y: float
    x0: float
    y0: float
    scale: float = 1.0

    def at(self, point: tuple[float, float]) -> tuple[float, float]:
        """A point of the drawing on the page, mm."""
        return self.x + (point[0] - self.x0) * self.scale, self.y + (point[1] - self.y0) * self.scale


def ink(canvas: Canvas, shapes: tuple[Shape, ...], where: Placed, letters: float) -> None:
    """Draw shapes in their order; `letters` is how tall words are, mm on the page."""
    for shape in shapes:
        pen = PENS.get(shape.layer, _LINE)
        canvas.saveState()
        canvas.setLineWidth(pen.width)
        canvas.setStrokeGray(pen.grey)
        canvas.setDash(list(pen.dash) if pen.dash else [])
        if shape.kind == "text":
            _words(canvas, shape, where, letters)
        elif shape.kind == "ellipse":
            _ellipse(canvas, shape, where, pen)
        else:
            _run(canvas, shape, where, pen)
        canvas.restoreState()


def _run(canvas: Canvas, shape: Run, where: Placed, pen: Pen) -> None:
    path = canvas.beginPath()
    path.moveTo(*where.at(shape.points[0]))
    for point in shape.points[1:]:
        path.lineTo(*where.at(point))
    closed = shape.kind == "area"
    if closed:
        path.close()
    fill = closed and pen.fill is not None
    if fill:
        canvas.setFillGray(pen.fill if pen.fill is not None else 1.0)
    canvas.drawPath(path, stroke=1, fill=1 if fill else 0)


def _ellipse(canvas: Canvas, shape: Ellipse, where: Placed, pen: Pen) -> None:
    x, y = where.at(shape.points[0])
    a, b = (one * where.scale for one in shape.sizes)
    canvas.translate(x, y)
    canvas.rotate(shape.turn)
    canvas.ellipse(-a, -b, a, b, stroke=1, fill=0)


def _words(canvas: Canvas, shape: Words, where: Placed, letters: float) -> None:
    said = spelt(shape.text)
    bold = shape.layer == "pointer"
    size = letters * (1.15 if bold else 1.0)
    canvas.translate(*where.at(shape.points[0]))
    canvas.rotate(shape.turn)
    canvas.setFillGray(0.0)
    canvas.setFont(BOLD if bold else PLAIN, size)
    run = wide(shape.text, size, bold)
    off = {"start": 0.0, "middle": -run / 2.0, "end": -run}[shape.anchor]
    canvas.drawString(off, -0.34 * size if shape.turn else 0.0, said)
