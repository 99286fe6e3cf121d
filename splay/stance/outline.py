"""Outlines of tops: their points, how wide they are, how far a place is from the rim."""

from __future__ import annotations

import math
from functools import lru_cache

import shapely

from splay.piece import Outline, Round, RoundedTriangle
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


def _arc(centre: Flat, radius: float, start: float, end: float) -> tuple[Flat, ...]:
    count = max(1, math.ceil((end - start) / ARC_STEP_DEG))
    turns = (start + (end - start) * k / count for k in range(count + 1))
    return tuple((centre[0] + radius * deg.cos(t), centre[1] + radius * deg.sin(t)) for t in turns)


@lru_cache(maxsize=64)
def polygon(outline: Outline) -> shapely.Polygon:
    """The outline as a polygon for distances and overlaps."""
    made = shapely.Polygon(points(outline))
    shapely.prepare(made)
    return made


def edge_distance(outline: Outline, place: Flat) -> float:
    """How far inside the rim a place lies, mm; negative outside. Exact for round tops."""
    if isinstance(outline, Round):
        return outline.diameter / 2 - math.hypot(*place)
    shape = polygon(outline)
    at = shapely.Point(place)
    away = float(shape.exterior.distance(at))
    return away if shape.contains(at) else -away


@lru_cache(maxsize=64)
def extent(outline: Outline) -> Flat:
    """Half the outline's length (x) and half its width (y) about the middle, mm."""
    made = points(outline)
    return max(abs(x) for x, _ in made), max(abs(y) for _, y in made)


def rim(outline: Outline, bearing_deg: float) -> Flat:
    """Where a line straight out from the middle along a bearing meets the rim, mm."""
    c, s = deg.cos(bearing_deg), deg.sin(bearing_deg)
    if isinstance(outline, Round):
        return (outline.diameter / 2 * c, outline.diameter / 2 * s)
    reach = sum(extent(outline)) * 2
    ray = shapely.LineString([(0.0, 0.0), (reach * c, reach * s)])
    far = ray.intersection(polygon(outline)).length
    return (far * c, far * s)
