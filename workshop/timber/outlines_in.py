"""A slab's outline out of a drawing (SVG, DXF) or a table (CSV): its largest closed line, in mm."""

from __future__ import annotations

import csv
import io
from dataclasses import dataclass
from typing import Any
from xml.etree.ElementTree import ParseError

import ezdxf
import shapely
from defusedxml import DefusedXmlException
from defusedxml.ElementTree import fromstring
from ezdxf.disassemble import recursive_decompose, to_primitives
from ezdxf.lldxf.const import DXFError
from svgelements import SVG, Path, Shape

from splay.errors import BadInput, Fault, shorten
from splay.quantity import MM_PER_INCH, Bare, read_length
from splay.timber.stock import MOST_CORNERS, from_widths
from workshop.timber.taking_in import MOST_LETTERS, Sort

MOST_POINTS = 50_000
OFF_MM = 0.2
"""How far the outline that is kept may lie off the curves it came from at first, mm."""
SMALLEST_MM2 = 2500.0
UNITS = {1: MM_PER_INCH, 2: 304.8, 4: 1.0, 5: 10.0, 6: 1000.0}
"""Millimetres in a unit of a DXF file, by its $INSUNITS."""


@dataclass(frozen=True)
class Outline:
    """What was found: its corners, mm, their lowest at 0; what was taken for granted, in words."""

    corners: tuple[tuple[float, float], ...]
    said: str


def outline_in(sort: Sort, text: str, bare: Bare) -> Outline:
    """The outline in a file; BadInput where there is none, or the file cannot be trusted or read."""
    if len(text) > MOST_LETTERS:
        raise _unread(f"{len(text)} letters", "Leave out all but the outline, and send that.")
    rings, said = {"svg": _svg, "dxf": _dxf, "csv": _csv}[sort](text, bare)
    sound = [ring for ring in rings if ring.is_valid and ring.area >= SMALLEST_MM2]
    if not sound:
        got = "no closed line" if not rings else "a line that crosses itself or encloses no wood"
        raise _unread(got, "Draw the slab's edge as one closed line that does not cross itself.")
    largest = max(sound, key=lambda ring: ring.area)
    off = OFF_MM
    thin = _thinned(largest, off)
    while len(thin.exterior.coords) > MOST_CORNERS:
        off *= 2.0
        thin = _thinned(largest, off)
    x0, y0, x1, y1 = thin.bounds
    if max(x1 - x0, y1 - y0) > 8000.0:
        do = "Look at its units: a slab is some metres long."
        raise _unread(f"{max(x1 - x0, y1 - y0):.0f} mm", do)
    corners = tuple((round(x - x0, 2), round(y - y0, 2)) for x, y in thin.exterior.coords[:-1])
    more = f" The largest of {len(sound)} closed lines was taken." if len(sound) > 1 else ""
    return Outline(corners, said + more)


def _thinned(ring: shapely.Polygon, off: float) -> shapely.Polygon:
    thin = ring.simplify(off)
    assert isinstance(thin, shapely.Polygon)
    return thin


def _unread(got: str, do: str, allowed: str = "a drawing with the slab's outline") -> BadInput:
    return BadInput(Fault("file", shorten(got), allowed, do))


def _svg(text: str, bare: Bare) -> tuple[list[shapely.Polygon], str]:
    try:
        # Looked through first: entities and outside files are never followed. Many programs name the
        # standard's own document type at the top, which does no harm.
        root = fromstring(text.encode())
        if not root.tag.endswith("svg"):
            raise _unread("another kind of XML", "Save the drawing as SVG.")
        drawing = SVG.parse(io.StringIO(text), ppi=MM_PER_INCH, reify=True)
    except DefusedXmlException:
        raise _unread("a file with entities of its own", "Save the drawing anew as plain SVG.") from None
    except (ParseError, ValueError, TypeError, AttributeError, RecursionError) as error:
        raise _unread(str(error) or "no SVG", "Save the drawing anew as plain SVG.") from None
    sized = any(
        root.get(side, "").strip().endswith(("mm", "cm", "in", "pt")) for side in ("width", "height")
    )
    rings, many = [], 0
    for shape in drawing.elements():
        if not isinstance(shape, Shape):
            continue
        for part in Path(shape).as_subpaths():
            path = Path(part)
            steps = 1 if all(type(s).__name__ in ("Move", "Line", "Close") for s in path) else 12
            places = [(p.x, -p.y) for s in path for p in _along(s, steps)]
            many += len(places)
            if many > MOST_POINTS:
                raise _unread(f"more than {MOST_POINTS} points", "Leave out all but the outline.")
            if len(places) > 3 and _near(places[0], places[-1]):
                rings.append(shapely.Polygon(places))
    said = (
        "Sizes as the drawing gives them." if sized else "The drawing names no unit: taken as millimetres."
    )
    return rings, said


def _along(segment: Any, steps: int) -> list[Any]:
    if getattr(segment, "end", None) is None:
        return []
    return [segment.point(k / steps) for k in range(1, steps + 1)]


def _near(a: tuple[float, float], b: tuple[float, float]) -> bool:
    return abs(a[0] - b[0]) < 0.5 and abs(a[1] - b[1]) < 0.5


def _dxf(text: str, bare: Bare) -> tuple[list[shapely.Polygon], str]:
    try:
        drawing = ezdxf.read(io.StringIO(text))  # type: ignore[attr-defined]
        units = int(drawing.header.get("$INSUNITS", 0))
        scale = UNITS.get(units, MM_PER_INCH if bare == "inch" else 1.0)
        lines, many = [], 0
        for one in to_primitives(recursive_decompose(drawing.modelspace()), max_flattening_distance=0.2):
            if one.path is None:
                continue
            places = [(p.x * scale, p.y * scale) for p in one.path.flattening(0.2 / scale)]
            many += len(places)
            if many > MOST_POINTS:
                raise _unread(f"more than {MOST_POINTS} points", "Leave out all but the outline.")
            if len(places) > 1:
                lines.append(shapely.LineString(places))
    except (DXFError, ValueError, TypeError, KeyError, AttributeError, IndexError, RecursionError) as error:
        raise _unread(str(error) or "no DXF", "Save the drawing anew as DXF (ASCII).") from None
    named = (
        "as the drawing gives them" if units in UNITS else "taken as typed, for the drawing names no unit"
    )
    rings = [shapely.Polygon(line.coords) for line in lines if line.is_ring]
    loose = [line for line in lines if not line.is_ring]
    if loose:
        # Lines and arcs that only meet at their ends make a ring too; those that cross, where none does.
        edges = shapely.set_precision(shapely.MultiLineString(loose), 0.01)
        closed = shapely.polygonize([edges]).geoms or shapely.polygonize([shapely.unary_union(edges)]).geoms
        rings += [ring for ring in closed if isinstance(ring, shapely.Polygon)]
    return rings, f"Sizes {named}."


def _csv(text: str, bare: Bare) -> tuple[list[shapely.Polygon], str]:
    """Points (x, y), or readings along a string: at, near, far; or at, width."""
    lines = text.lstrip("\ufeff").splitlines()
    first = next((line for line in lines if line.strip()), "")
    mark = ";" if ";" in first else "\t" if "\t" in first else ","
    try:
        table = csv.reader(lines, delimiter=mark)
        rows = [(table.line_num, row) for row in table if any(cell.strip() for cell in row)]
    except csv.Error as error:
        raise _unread(str(error), "Save the table anew as CSV.") from None
    heads = [cell.strip().lower() for cell in rows[0][1]] if rows else []
    kind = next((k for k in (["x", "y"], ["at", "near", "far"], ["at", "width"]) if heads == k), None)
    if kind is None:
        do = "Name its columns in the first row: x and y; or at, near and far; or at and width."
        raise _unread(", ".join(heads) or "nothing", do)
    if len(rows) > MOST_POINTS:
        raise _unread(f"{len(rows)} rows", "Leave out all but the outline.")
    places = []
    for number, row in rows[1:]:
        if len(row) != len(kind):
            raise _unread(f"row {number}: {len(row)} cells", f"Give each row {len(kind)} cells.")
        places.append([_length(cell, number, bare) for cell in row])
    if kind == ["x", "y"]:
        corners = [(x, y) for x, y in places]
    elif kind == ["at", "width"]:
        corners = from_widths([(at, wide / 2.0, wide / 2.0) for at, wide in places])
    else:
        corners = from_widths([(at, near, far) for at, near, far in places])
    return ([shapely.Polygon(corners)] if len(corners) > 2 else []), "Sizes as the table gives them."


def _length(cell: str, number: int, bare: Bare) -> float:
    try:
        return read_length(cell.strip(), bare)
    except BadInput as bad:
        fault = bad.faults[0]
        raise BadInput(Fault("file", f"row {number}: {fault.got}", fault.allowed, fault.do)) from None
