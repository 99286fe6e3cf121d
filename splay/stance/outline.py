"""Outlines of tops: their points, how wide they are, how far a place is from the rim."""

from __future__ import annotations

import math
from collections.abc import Sequence
from functools import lru_cache

import numpy as np
import shapely
import shapely.geometry.polygon
from shapely.geometry.base import BaseGeometry

from splay.piece import Drawn, DShape, Outline, Round, RoundedTriangle, Shield
from splay.piece.tops import Corner
from splay.quantity import degrees as deg
from splay.stance.vectors import Flat

ARC_STEP_DEG = 1.0
"""Arcs are drawn as chords of this angle: a 300 mm radius is off by 0.012 mm at most."""


@lru_cache(maxsize=64)
def points(outline: Outline) -> tuple[Flat, ...]:
    """The outline as a closed polygon, counter-clockwise from above, mm, last point not repeated."""
    if outline.kind == "round":
        return _arc((0.0, 0.0), outline.diameter / 2, 0.0, 360.0)[:-1]
    if outline.kind == "oval":
        a, b = outline.length / 2, outline.width / 2
        return tuple((a * x, b * y) for x, y in _arc((0.0, 0.0), 1.0, 0.0, 360.0)[:-1])
    if outline.kind == "rectangle":
        a, b, r = outline.length / 2, outline.width / 2, outline.corner
        corners = ((a, b, 0.0), (-a, b, 90.0), (-a, -b, 180.0), (a, -b, 270.0))
        if r == 0.0:
            return tuple((x, y) for x, y, _ in corners)
        return tuple(
            point
            for x, y, start in corners
            for point in _arc(
                (math.copysign(abs(x) - r, x), math.copysign(abs(y) - r, y)), r, start, start + 90.0
            )
        )
    if outline.kind == "d":
        return _d_shape(outline)
    if outline.kind == "shield":
        return _shield(outline)
    if outline.kind == "drawn":
        return _drawn(outline)
    return _rounded_triangle(outline)


def _rounded_triangle(outline: RoundedTriangle) -> tuple[Flat, ...]:
    """Small arcs of radius R - a about the corners, joined by arcs of radius R from the far ones."""
    out = outline.side / math.sqrt(3.0)
    corners = [
        (out * deg.cos(outline.first + 120.0 * k), out * deg.sin(outline.first + 120.0 * k))
        for k in range(3)
    ]
    made: list[Flat] = []
    for k in range(3):
        towards = outline.first + 120.0 * k
        made += _arc(corners[k], outline.arc - outline.side, towards - 30.0, towards + 30.0)
        far = corners[(k + 2) % 3]
        made += _arc(far, outline.arc, towards + 30.0, towards + 90.0)[1:-1]
    return tuple(made)


def _d_shape(outline: DShape) -> tuple[Flat, ...]:
    """Straight back, straight ends, half an ellipse in front; its middle halves both sizes."""
    a, b = outline.length / 2, outline.width / 2
    deep = outline.width - outline.straight
    turn = b - outline.straight
    curve = [(a * x, turn + deep * y) for x, y in _arc((0.0, 0.0), 1.0, 180.0, 360.0)]
    if outline.straight < 1e-9:
        return tuple(curve)
    return ((a, b), (-a, b), *curve)


def _shield(outline: Shield) -> tuple[Flat, ...]:
    """Three bowed edges between two back corners and a nose; the corners rounded afterwards."""
    a, b = outline.length / 2, outline.width / 2
    tips = ((a, b), (-a, b), (0.0, -b))
    ring = [p for k in range(3) for p in _bow(tips[k], tips[(k + 1) % 3], outline.bow)]
    shape = shapely.Polygon(ring)
    if outline.corner > 0.0:
        rounded = shape.buffer(-outline.corner, quad_segs=45).buffer(outline.corner, quad_segs=45)
        if isinstance(rounded, shapely.Polygon) and not rounded.is_empty:
            shape = rounded
    made = shapely.geometry.polygon.orient(shape, 1.0)
    return tuple((float(x), float(y)) for x, y in made.exterior.coords[:-1])


def _bow(start: Flat, end: Flat, rise: float) -> list[Flat]:
    """An arc from start to end bulging to the right of the way, last point left out."""
    chord = math.dist(start, end)
    if rise < 1e-6:
        return [start]
    radius = (chord * chord / 4 + rise * rise) / (2 * rise)
    u = ((end[0] - start[0]) / chord, (end[1] - start[1]) / chord)
    middle = ((start[0] + end[0]) / 2, (start[1] + end[1]) / 2)
    right = (u[1], -u[0])
    centre = (middle[0] - right[0] * (radius - rise), middle[1] - right[1] * (radius - rise))
    first = deg.atan2(start[1] - centre[1], start[0] - centre[0])
    sweep = 2.0 * math.degrees(math.atan2(chord / 2, radius - rise))
    return list(_arc(centre, radius, first, first + sweep))[:-1]


SMOOTH_STEPS = 8
"""Points drawn between two corners of a smoothed outline."""


def _drawn(outline: Drawn) -> tuple[Flat, ...]:
    """The corners as drawn, or a curve through all of them (Catmull and Rom's, uniform).

    At a sharp corner the curve breaks: there it sets out for, or arrives from, its next corner as if the
    one beyond lay as far again behind.
    """
    corners = list(outline.corners)
    if not shapely.Polygon([(c.x, c.y) for c in corners]).exterior.is_ccw:
        corners.reverse()
    if not outline.smooth:
        return tuple((c.x, c.y) for c in corners)
    made: list[Flat] = []
    n = len(corners)
    for k in range(n):
        four = [corners[(k + j) % n] for j in (-1, 0, 1, 2)]
        made += [through_sharp(four, step / SMOOTH_STEPS) for step in range(SMOOTH_STEPS)]
    return tuple(made)


def through_sharp(four: Sequence[Corner], t: float) -> Flat:
    """A point of the curve from the second of four corners to the third, `t` of the way."""
    (x0, y0), (x1, y1), (x2, y2), (x3, y3) = ((c.x, c.y) for c in four)
    if four[1].sharp:
        x0, y0 = 2 * x1 - x2, 2 * y1 - y2
    if four[2].sharp:
        x3, y3 = 2 * x2 - x1, 2 * y2 - y1
    return through(x0, x1, x2, x3, t), through(y0, y1, y2, y3, t)


def through(a: float, b: float, c: float, d: float, t: float) -> float:
    """One coordinate of the curve from b to c, `t` of the way, given its neighbours a and d."""
    return 0.5 * (2 * b + (c - a) * t + (2 * a - 5 * b + 4 * c - d) * t**2 + (3 * b - a - 3 * c + d) * t**3)


def _arc(centre: Flat, radius: float, start: float, end: float) -> tuple[Flat, ...]:
    count = max(1, math.ceil((end - start) / ARC_STEP_DEG))
    turns = (start + (end - start) * k / count for k in range(count + 1))
    return tuple((centre[0] + radius * deg.cos(t), centre[1] + radius * deg.sin(t)) for t in turns)


@lru_cache(maxsize=64)
def polygon(outline: Outline) -> shapely.Polygon:
    """The outline as a polygon for distances and overlaps."""
    made = shapely.Polygon(points(outline))
    if not made.is_valid:
        made = shapely.geometry.polygon.orient(made.buffer(0.0))
    shapely.prepare(made)
    return made


def hull(places: Sequence[Flat]) -> BaseGeometry:
    """The least convex shape round some places; less than a polygon where they lie in a line."""
    # All at once: place by place takes ten times as long.
    made = shapely.convex_hull(shapely.multipoints(np.reshape(places, (-1, 2))))
    assert isinstance(made, BaseGeometry)
    return made


@lru_cache(maxsize=512)
def edge_distance(outline: Outline, place: Flat) -> float:
    """How far inside the rim a place lies, mm; negative outside. Exact for round tops."""
    if isinstance(outline, Round):
        return outline.diameter / 2 - math.hypot(*place)
    shape = polygon(outline)
    away = float(shapely.distance(_exterior(outline), shapely.points(*place)))
    return away if shapely.contains_xy(shape, *place) else -away


@lru_cache(maxsize=64)
def _exterior(outline: Outline) -> shapely.LinearRing:
    return polygon(outline).exterior


@lru_cache(maxsize=64)
def extent(outline: Outline) -> Flat:
    """Half the outline's length (x) and half its width (y) about the middle, mm."""
    made = points(outline)
    return max(abs(x) for x, _ in made), max(abs(y) for _, y in made)


@lru_cache(maxsize=512)
def rim(outline: Outline, bearing_deg: float) -> Flat:
    """Where a line straight out from the middle along a bearing meets the rim, mm."""
    c, s = deg.cos(bearing_deg), deg.sin(bearing_deg)
    if isinstance(outline, Round):
        return (outline.diameter / 2 * c, outline.diameter / 2 * s)
    reach = sum(extent(outline)) * 2
    ray = shapely.LineString([(0.0, 0.0), (reach * c, reach * s)])
    far = ray.intersection(polygon(outline)).length
    return (far * c, far * s)
