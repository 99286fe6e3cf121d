"""Drawings and patterns as DXF and SVG, in millimetres, on named layers."""

from __future__ import annotations

import io
import math
from collections.abc import Iterable

import svgwrite
from ezdxf import options, units  # type: ignore[attr-defined]
from ezdxf.enums import TextEntityAlignment
from ezdxf.filemanagement import new
from ezdxf.layouts.layout import Modelspace

from splay.formats.ink import PENS, Pen
from splay.views.shapes import Ellipse, Shape, View

TEXT_MM = 3.4
# The same drawing gives the same file: no clock and no number of its own in it.
options.write_fixed_meta_data_for_testing = True
SAID = (
    "Lines, ellipses and words at full size, in mm, a layer each for what they are. Not in them: settings "
    "and readings; figures do not follow a line that is moved; the DXF says of no line which part it is of."
)
_HIDDEN = {"hidden", "waste", "tenon", "axis", "sightline", "footprint"}
_ALIGN = {
    "start": TextEntityAlignment.LEFT,
    "middle": TextEntityAlignment.CENTER,
    "end": TextEntityAlignment.RIGHT,
}


def one_line(said: str) -> str:
    """Words without signs that would end a line or an entry of a file."""
    return "".join(sign if sign.isprintable() else " " for sign in said)


def dxf(view: View, title: str) -> bytes:
    """A DXF (R2010, AC1024) in mm; a layer for each kind of line, words as TEXT."""
    document = new("R2010", setup=["linetypes"])
    document.units = units.MM
    document.header["$MEASUREMENT"] = 1
    space = document.modelspace()
    for layer in sorted({shape.layer for shape in view.shapes}):
        document.layers.add(layer.upper(), linetype="DASHED" if layer in _HIDDEN else "CONTINUOUS")
    for shape in view.shapes:
        on = {"layer": shape.layer.upper()}
        if shape.kind == "text":
            made = space.add_text(one_line(shape.text), height=TEXT_MM, rotation=shape.turn, dxfattribs=on)
            made.set_placement(shape.points[0], align=_ALIGN[shape.anchor])
        elif shape.kind == "ellipse":
            _ellipse(space, shape, on)
        else:
            space.add_lwpolyline(shape.points, close=shape.kind == "area", dxfattribs=on)
    document.header["$PROJECTNAME"] = one_line(title)[:250]
    # The library lists what is in use in the order of a set, which is another one in each process.
    for kind in sorted(document.entitydb.dxf_types_in_use()):
        document.classes.add_class(kind)
    out = io.StringIO()
    document.write(out)
    return out.getvalue().encode("utf-8")


def _ellipse(space: Modelspace, shape: Ellipse, on: dict[str, str]) -> None:
    (a, b), turn = shape.sizes, math.radians(shape.turn)
    if abs(a - b) < 1e-9:
        space.add_circle(shape.points[0], a, dxfattribs=on)
        return
    # DXF wants the longer half axis first, its ratio at most 1.
    if b > a:
        a, b, turn = b, a, turn + math.pi / 2.0
    major = (a * math.cos(turn), a * math.sin(turn))
    space.add_ellipse(shape.points[0], major_axis=major, ratio=b / a, dxfattribs=on)


def svg(view: View, title: str) -> bytes:
    """An SVG 1.1 whose user unit is 1 mm, y down as SVG has it; a group for each layer, its id the layer's
    name; what a line belongs to is its class."""
    left, low, right, high = view.box
    wide, tall = right - left, high - low
    drawing = svgwrite.Drawing(
        size=(f"{wide:.4f}mm", f"{tall:.4f}mm"), viewBox=f"0 0 {wide:.4f} {tall:.4f}", profile="full"
    )
    drawing.set_desc(title=one_line(title))
    for layer in dict.fromkeys(shape.layer for shape in view.shapes):
        pen = PENS.get(layer, Pen())
        group = drawing.g(id=layer, fill="none", stroke="black", stroke_width=pen.width)
        if pen.dash:
            group.dasharray(list(pen.dash))
        for shape in _on(view.shapes, layer):
            group.add(_drawn(drawing, shape, left, high))
        drawing.add(group)
    return str(drawing.tostring()).encode("utf-8")


def _on(shapes: Iterable[Shape], layer: str) -> Iterable[Shape]:
    return (shape for shape in shapes if shape.layer == layer)


def _drawn(drawing: svgwrite.Drawing, shape: Shape, left: float, high: float) -> object:
    points = [(round(x - left, 5), round(high - y, 5)) for x, y in shape.points]
    named = {"class_": "part-" + shape.part.replace(".", "-")} if shape.part else {}
    if shape.kind == "text":
        made = drawing.text(
            one_line(shape.text),
            insert=points[0],
            font_size=TEXT_MM,
            font_family="Atkinson Hyperlegible Next, sans-serif",
            text_anchor=shape.anchor,
            fill="black",
            stroke="none",
            **named,
        )
        if shape.turn:
            made.rotate(-shape.turn, center=points[0])
        return made
    if shape.kind == "ellipse":
        made = drawing.ellipse(
            center=points[0], r=(round(shape.sizes[0], 5), round(shape.sizes[1], 5)), **named
        )
        if shape.turn:
            made.rotate(-shape.turn, center=points[0])
        return made
    if shape.kind == "area":
        return drawing.polygon(points, **named)
    return drawing.polyline(points, **named)
