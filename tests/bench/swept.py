"""Arcs in pieces between legs: drawn as told, sawn to the line, held against the piece that is built."""

from __future__ import annotations

import math
from typing import TYPE_CHECKING

import numpy as np
import shapely

from splay.setups.card import SetUp
from splay.work.joinery import ArcLine
from tests.bench.frames import Array

if TYPE_CHECKING:
    from tests.bench.judged import Judge

CHORD_MM = 0.12
"""What is built is drawn in chords: so far off the arc at most."""


def judge_sweep(judge: Judge, card: SetUp) -> None:
    """The lath goes through every place told, is an arc, and leaves what stands there."""
    (do,) = (one for one in card.does if isinstance(one, ArcLine))
    hold = judge.tally.hold
    for key in do.parts:
        body = next(one for one in judge.plan.stance.bodies if one.key == key)
        sides = judge.boards[key].sides
        down = float(sides[do.edge][1])
        face_at = float(sides[do.face][2]) * body.thickness / 2
        hold("arc drawn on an edge", float(abs(face_at) < 0.5 * body.thickness / 2), card.id)
        low = down * body.width / 2
        # Both corners of the edge, where the sawn ends leave it.
        ends = body.at(low, face_at)
        middle = sum(ends) / 2
        hold("arc's chord mm", abs(ends[1] - ends[0] - do.chord.value), card.id)
        lath = [(e, low) for e in ends]
        for at, up in do.places:
            lath += [(middle + s * at.value, low - down * up.value) for s in (-1, 1)]
        arc = _lath(hold, lath, card)
        judge.arcs[key] = abs(low - _at(arc, middle))
        face = shapely.Polygon()
        for solid in body.pieces:
            face = face.union(shapely.MultiPoint([p[:2] for f in solid for p in f.corners]).convex_hull)
        upper = None
        if do.end_up is not None:
            high = -low
            through = [(middle, high)]
            for at, off in do.down:
                through += [(middle + s * at.value, high + down * off.value) for s in (-1, 1)]
            for k in (0, 1):
                through.append(_up_the_end(body, low, face_at, k, do.end_up.value))
            upper = _lath(hold, through, card)
        for x in np.linspace(ends[0] + 2.0, ends[1] - 2.0, 41):
            run = face.intersection(shapely.LineString([(x, -900.0), (x, 900.0)]))
            if run.is_empty:
                continue
            ys = (run.bounds[1], run.bounds[3])
            built, top = (ys[1], ys[0]) if down > 0 else (ys[0], ys[1])
            lines = [body.at(y, z) for y in ys for z in (-face_at, face_at)]
            if not all(a + 1.0 < x < b - 1.0 for a, b in lines):
                continue
            hold("arc sawn mm", max(0.0, abs(built - _at(arc, float(x))) - CHORD_MM), card.id)
            if upper is not None:
                hold("upper arc sawn mm", max(0.0, abs(top - _at(upper, float(x))) - CHORD_MM), card.id)


def _lath(hold: object, places: list[tuple[float, float]], card: SetUp) -> tuple[Array, float, float]:
    """The circle through the places, and how far the worst of them lies off it."""
    points = np.array(places)
    a = np.column_stack((2.0 * points, np.ones(len(points))))
    x, y, c = np.linalg.lstsq(a, (points**2).sum(axis=1), rcond=None)[0]
    radius = math.sqrt(c + x * x + y * y)
    off = np.abs(np.hypot(points[:, 0] - x, points[:, 1] - y) - radius).max()
    hold("lath off an arc mm", float(off), card.id)  # type: ignore[operator]
    sign = math.copysign(1.0, float(points[:, 1].mean()) - y)
    return np.array((x, y)), radius, sign


def _at(arc: tuple[Array, float, float], x: float) -> float:
    (cx, cy), radius, sign = arc
    return float(cy + sign * math.sqrt(max(0.0, radius**2 - (x - cx) ** 2)))


def _up_the_end(body: object, low: float, face: float, k: int, far: float) -> tuple[float, float]:
    """A place so far up a sawn end from its lower corner."""
    one = body.at(low, face)[k]  # type: ignore[attr-defined]
    two = body.at(-low, face)[k]  # type: ignore[attr-defined]
    share = far / math.hypot(two - one, 2.0 * low)
    return one + (two - one) * share, low - 2.0 * low * share
