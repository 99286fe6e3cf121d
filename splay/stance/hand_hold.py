"""Hand-holds: slots right through a top, bored at both ends and between them."""

from __future__ import annotations

import math
from functools import lru_cache

import shapely
import shapely.geometry.polygon

from splay.piece import HandHold
from splay.quantity import degrees as deg
from splay.stance.vectors import Flat

OVER_SHARE = 2.0 / 3.0
"""Holes between the two end ones follow each other by this share of their width (common practice, no
source): each takes a third of the one before."""


def end_holes(one: HandHold) -> tuple[Flat, Flat]:
    """The middles of the holes at its two ends, top frame, mm: the left or front one first."""
    half = (one.length - one.width) / 2.0
    run = (half * deg.cos(one.turn), half * deg.sin(one.turn))
    ends = [(one.x - run[0], one.y - run[1]), (one.x + run[0], one.y + run[1])]
    first, last = sorted(ends, key=lambda p: (round(p[0], 6), p[1]))
    return first, last


def between(one: HandHold) -> int:
    """How many holes are bored between the two at its ends."""
    run = one.length - one.width
    return max(0, math.ceil(run / (OVER_SHARE * one.width) - 1e-9) - 1)


@lru_cache(maxsize=128)
def slot(one: HandHold) -> shapely.Polygon:
    """Its outline, counter-clockwise: straight sides and round ends."""
    first, last = end_holes(one)
    middle = shapely.LineString([first, last]) if math.dist(first, last) > 1e-6 else shapely.Point(first)
    made = middle.buffer(one.width / 2.0, quad_segs=16)
    assert isinstance(made, shapely.Polygon)
    return shapely.geometry.polygon.orient(made)
