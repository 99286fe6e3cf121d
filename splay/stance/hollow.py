"""The upper face of a hollowed top: how much is gone where, and how thick it still is."""

from __future__ import annotations

import math

from splay.piece import Dish, Hollow, Top
from splay.stance.vectors import Flat, Vec


def arc_radius(chord: float, depth: float) -> float:
    """Radius of the arc through a chord and a depth: (c²/4 + g²) / (2g), mm."""
    return (chord * chord / 4.0 + depth * depth) / (2.0 * depth)


def _arc_depth(chord: float, depth: float, away: float) -> float:
    """How deep the arc is `away` from its middle, mm; nothing beyond its ends."""
    if abs(away) >= chord / 2.0:
        return 0.0
    radius = arc_radius(chord, depth)
    return max(0.0, math.sqrt(radius * radius - away * away) - (radius - depth))


def hollow_depth(hollow: Hollow | None, at: Flat) -> float:
    """What is taken away from the upper face at a place (top frame x, y), mm.

    A dish is the same arc in every section through the middle, stretched to its two sizes.
    """
    if hollow is None:
        return 0.0
    if isinstance(hollow, Dish):
        away = math.hypot(2.0 * at[0] / hollow.length, 2.0 * at[1] / hollow.width)
        return _arc_depth(hollow.length, hollow.depth, away * hollow.length / 2.0)
    return _arc_depth(hollow.chord, hollow.depth, at[0] if hollow.across == "length" else at[1])


def thickness_at(top: Top, at: Flat) -> float:
    """Thickness left at a place, mm."""
    return top.thickness - hollow_depth(top.hollow, at)


def way_out(top: Top, mouth: Flat, d: Vec) -> float:
    """Length along an axis from its mouth in the underside to the upper face, mm.

    `d` points from top to floor. The place where it comes out is found by repetition: the
    hollow is shallow against the axis' slope, so each step lands nearer.
    """
    run = top.thickness / -d[2]
    if top.hollow is None:
        return run
    for _ in range(60):
        at = (mouth[0] - d[0] * run, mouth[1] - d[1] * run)
        better = thickness_at(top, at) / -d[2]
        if abs(better - run) < 1e-10:
            break
        run = 0.5 * (run + better) if abs(better - run) > 1.0 else better
    return run
