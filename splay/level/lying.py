"""A piece upside down on the bench: on its upper face, on blocks, or on what stands out of that face."""

from __future__ import annotations

import math

import numpy as np

from splay.level.feet import ON_MM, Array, End
from splay.level.standing import rocking
from splay.piece import LevelPass, Piece
from splay.stance.outline import rim
from splay.stance.vectors import Vec

ROUND = 24
"""So many places along the seat's edge may bear on bench or blocks."""
CLEAR_MM = 2.0
"""Blocks hold the seat so much clear of what stands out of it (common practice, no source)."""


def standing_out(piece: Piece, ends: tuple[End, ...]) -> float:
    """How far tenons and splines stand out of the upper face at the most, square to it, mm; 0 where none
    does."""
    points = _above(ends)
    return max((p[2] for p in points), default=piece.top.thickness) - piece.top.thickness


def on_proud(piece: Piece, ends: tuple[End, ...], chosen: LevelPass) -> bool:
    """Whether it lies on what stands out of its upper face: blocks, if any, are lower than that."""
    return standing_out(piece, ends) > chosen.raised + ON_MM


def bench_under(piece: Piece, ends: tuple[End, ...], chosen: LevelPass) -> tuple[Array, float]:
    """The bench as a plane normal·p + offset in the top frame, the normal away from it: what that gives
    for a
    point is its height off the bench, mm.

    Blocks lie under the seat's edge, clear of the tenons. Lower than these, the piece lies on three of its
    tenons, or on two and an edge, as its weight settles it.
    """
    away = np.array((0.0, 0.0, -1.0))
    face = piece.top.thickness + chosen.raised
    if not on_proud(piece, ends, chosen):
        return away, face
    edge: list[Vec] = [(*rim(piece.top.outline, 360.0 * k / ROUND), face) for k in range(ROUND)]
    points = [*dict.fromkeys(_above(ends)), *edge]
    middle = np.array((0.0, 0.0, piece.top.thickness / 2.0))
    found = rocking(np.array(points), list(range(len(points))), middle, away)
    if found is None:
        return away, piece.top.thickness + standing_out(piece, ends)
    return found.rests.normal, found.rests.offset


def level_lift(piece: Piece, ends: tuple[End, ...], chosen: LevelPass) -> float | None:
    """How far the upper face is held off the bench, mm; None where it does not lie along the bench."""
    normal, offset = bench_under(piece, ends, chosen)
    if not math.isclose(float(normal[2]), -1.0, abs_tol=1e-9):
        return None
    return offset - piece.top.thickness


def _above(ends: tuple[End, ...]) -> list[Vec]:
    return [p for end in ends for p in end.foot.above]
