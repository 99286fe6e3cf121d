"""Wedges as the plan sizes them, and what a slot that is aimed at the middle would do to the seat."""

from __future__ import annotations

from collections.abc import Iterator

from splay.piece import Piece
from splay.plan import Plan
from splay.quantity import Show
from splay.quantity import degrees as deg
from splay.setups.leg_marks import kerf_deep
from splay.work.phrases import listed

OVER_MM = 12.0
"""A wedge is made so much longer than its slot is deep: what is left is sawn off (common practice)."""
ALONG_DEG = 30.0
"""A slot nearer to the grain than this opens it like a splitting wedge (common practice, no source)."""


def told(piece: Piece, plan: Plan, show: Show) -> Iterator[str]:
    """How wide and long the wedges are, and which legs' slots must not be aimed at the middle."""
    sizes: dict[tuple[str, str], list[int]] = {}
    for part, leg in zip(plan.parts, plan.stance.legs, strict=True):
        if part.wedge is not None:
            wide = show.length(leg.bore.size).text
            long = show.length(kerf_deep(leg, part) + OVER_MM).text
            sizes.setdefault((wide, long), []).append(part.number)
    for (wide, long), numbers in sizes.items():
        named = listed(f"leg {number}" for number in numbers)
        yield f"{named[0].upper()}{named[1:]}: {wide} wide, {long} long."
    along = _along(piece, plan)
    if along:
        named = listed(f"leg {number}" for number in along)
        yield (
            f"Across the seat's grain, all of them. Aimed at the seat's middle, as some makers do, {named} "
            "would be split along the grain by theirs."
        )


def _along(piece: Piece, plan: Plan) -> list[int]:
    """The wedged legs whose slot, aimed at the middle of a seat in one piece, would lie along its grain."""
    found = []
    for part, leg in zip(plan.parts, plan.stance.legs, strict=True):
        x, y = leg.socket[:2]
        if part.wedge is None or abs(x) + abs(y) < 1e-9:
            continue
        if deg.fold(deg.atan2(y, x) - piece.top.grain) < ALONG_DEG:
            found.append(part.number)
    return found
