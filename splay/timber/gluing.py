"""A seat glued up from boards: how wide each, so that no glue line comes near a leg hole."""

from __future__ import annotations

import math
from collections.abc import Sequence
from itertools import pairwise

MARGIN_MM = 6.0
"""Least from a hole's side to a glue line (common practice, no source); a quarter of a large hole."""
SHARE = 0.25
NARROWEST = 40.0
STEP = 1.0
MOST_BOARDS = 12
AWAY = 60.0
"""How far a glue line is moved from where equal boards would have it, mm."""


def board_widths(
    across: float, holes: Sequence[tuple[float, float, float]], widest: float
) -> tuple[float, ...]:
    """The widths of the fewest boards that make a seat so wide, from its low side up, mm; empty where none
    do.

    `holes` (x, y, radius) lie across y from the seat's middle; no board is wider than `widest`. Lines stand
    as near to those of equal boards as the holes let them.
    """
    if widest < NARROWEST:
        return ()
    for number in range(max(1, math.ceil(across / widest - 1e-9)), MOST_BOARDS + 1):
        if across / number < NARROWEST:
            return ()
        lines = _lines(across, holes, widest, number)
        if lines is not None:
            ends = [-across / 2.0, *lines, across / 2.0]
            return tuple(b - a for a, b in pairwise(ends))
    return ()


def _lines(
    across: float, holes: Sequence[tuple[float, float, float]], widest: float, number: int
) -> list[float] | None:
    """The best places of the glue lines between so many boards; None where the holes leave none."""
    even = across / number
    # The best way to each place of the line before: what it costs and the lines up to it.
    ways: list[tuple[float, list[float]]] = [(0.0, [])]
    for k in range(1, number):
        ideal = -across / 2.0 + k * even
        found: list[tuple[float, list[float]]] = []
        for step in range(int(2 * AWAY / STEP) + 1):
            place = round(ideal - AWAY + step * STEP, 3)
            if any(abs(place - y) < r + max(MARGIN_MM, SHARE * 2 * r) for _, y, r in holes):
                continue
            before = [
                (cost + (place - ideal) ** 2, [*lines, place])
                for cost, lines in ways
                if NARROWEST <= place - (lines[-1] if lines else -across / 2.0) <= widest + 1e-9
            ]
            if before:
                found.append(min(before, key=lambda way: way[0]))
        ways = found
    last = [
        way for way in ways if NARROWEST <= across / 2.0 - (way[1] or [-across / 2.0])[-1] <= widest + 1e-9
    ]
    return min(last, key=lambda way: way[0])[1] if last else None
