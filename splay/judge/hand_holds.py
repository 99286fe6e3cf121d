"""What can go wrong with a hand-hold: short grain, a leg or a rail in its way, no room for a hand."""

from __future__ import annotations

from collections.abc import Iterator
from functools import lru_cache

import numpy as np
import shapely
from numpy.typing import NDArray
from shapely import affinity

from splay.judge.finding import Finding, found
from splay.piece import HandHold, Outline, Piece
from splay.quantity import Show
from splay.stance.hand_hold import slot
from splay.stance.holding import upper_side
from splay.stance.outline import hull, polygon
from splay.stance.staked import Stance

LEAST_RIM_MM = 30.0
"""Wood from a slot to the top's edge that carries the piece (common practice, no source)."""
LEAST_SHORT_MM = 60.0
"""Along the grain, where what is left would break across short fibres (common practice, no source)."""
LEAST_WOOD_MM = 12.0
"""Between a slot and a leg's hole (common practice, no source)."""
HAND_MM, FINGER_MM = 95.0, 25.0
"""Four fingers abreast, and one through (common practice, no source)."""
FAR_MM = 10000.0
LINES = 12


def hand_holds(piece: Piece, stance: Stance, show: Show) -> Iterator[Finding]:
    """Of each hand-hold all that is wrong with it."""
    for k, one in enumerate(piece.top.hand_holds):
        field = f"top.hand_holds.{k}"
        named = "The hand-hold" if len(piece.top.hand_holds) == 1 else f"Hand-hold {k + 1}"
        yield from _edges(piece, one, named, field, show)
        yield from _in_the_way(piece, stance, one, slot(one), named, field, show)
        if one.length < HAND_MM or one.width < FINGER_MM:
            small = one.length < HAND_MM
            yield found(
                "hold_small", "note", f"{named} is narrow for a hand.",
                f"Four fingers want {show.length(HAND_MM).text} by {show.length(FINGER_MM).text}.",
                show.length(one.length if small else one.width),
                show.length(HAND_MM if small else FINGER_MM),
                f"{field}.{'length' if small else 'width'}", (one.x, one.y), station="top",
            )  # fmt: skip


def _edges(piece: Piece, one: HandHold, named: str, field: str, show: Show) -> Iterator[Finding]:
    rim, short = _wood(piece.top.outline, one, piece.top.grain)
    if rim < LEAST_RIM_MM:
        yield found(
            "hold_edge", "stop" if rim <= 0.0 else "caution",
            f"{named} leaves {show.length(rim).text} of wood to the top's edge.",
            f"Set it {show.length(LEAST_RIM_MM - rim).text} further in.",
            show.length(rim), show.length(LEAST_RIM_MM), f"{field}.y", (one.x, one.y), station="top",
        )  # fmt: skip
    if rim > 0.0 and short < LEAST_SHORT_MM:
        yield found(
            "hold_short_grain", "caution",
            f"Along the grain {named[0].lower()}{named[1:]} leaves {show.length(short).text} to the top's "
            "end: that breaks off when it is lifted.",
            f"Set it {show.length(LEAST_SHORT_MM - short).text} further from that end, or its length along "
            "the grain and nearer to an edge.",
            show.length(short), show.length(LEAST_SHORT_MM), f"{field}.x", (one.x, one.y), station="top",
        )  # fmt: skip


@lru_cache(maxsize=128)
def _wood(outline: Outline, one: HandHold, grain: float) -> tuple[float, float]:
    """Wood from a slot to the rim, and along the grain to either end, mm; none where it is not within."""
    whole, shape = polygon(outline), slot(one)
    if not whole.contains(shape):
        return 0.0, 0.0
    rim = float(shape.distance(whole.exterior))
    return rim, min(_along(whole, shape, grain), _along(whole, shape, grain + 180.0))


def _along(outline: shapely.Polygon, shape: shapely.Polygon, turn: float) -> float:
    """How much wood stands beyond a slot one way along a bearing, mm: the least on lines through it."""
    # Laid along x, so that each line is a level one.
    wood, hole = (affinity.rotate(one, -turn, origin=(0, 0)) for one in (outline, shape))
    _, low, _, high = hole.bounds
    ys = low + (high - low) * np.arange(1, LINES) / LINES
    ends = shapely.bounds(shapely.intersection(_level(np.full(LINES - 1, -FAR_MM), ys), hole))[:, 2]
    parts, of = shapely.get_parts(shapely.intersection(_level(ends, ys), wood), return_index=True)
    first, last = shapely.bounds(parts)[:, [0, 2]].T
    # What the line meets again past a gap does not hold the wood at the slot.
    here = first - ends[of] < 1e-6
    return float((last - ends[of])[here].min(initial=FAR_MM))


def _level(begin: NDArray[np.float64], ys: NDArray[np.float64]) -> NDArray[np.object_]:
    """Level lines, each from a place along x to far off."""
    ends = np.stack((begin, ys), axis=1), np.stack((np.full_like(ys, FAR_MM), ys), axis=1)
    lines = shapely.linestrings(np.stack(ends, axis=1))
    assert isinstance(lines, np.ndarray)
    return lines


def _in_the_way(
    piece: Piece, stance: Stance, one: HandHold, shape: shapely.Polygon, named: str, field: str, show: Show
) -> Iterator[Finding]:
    for leg in stance.legs:
        # From where it enters the underside to where it leaves the top, if it goes through.
        run = piece.top.thickness / leg.d[2]
        ends = [leg.socket[:2], (leg.socket[0] + leg.d[0] * run, leg.socket[1] + leg.d[1] * run)]
        left = shape.distance(shapely.LineString(ends)) - leg.bore.size / 2.0
        if left < LEAST_WOOD_MM:
            yield found(
                "hold_leg", "stop" if left <= 0.0 else "caution",
                f"{named} leaves {show.length(max(0.0, left)).text} of wood to leg {leg.number}'s socket.",
                f"Set it {show.length(LEAST_WOOD_MM - left).text} further away.",
                show.length(left), show.length(LEAST_WOOD_MM), f"{field}.x", (one.x, one.y), station="top",
            )  # fmt: skip
    for body in stance.bodies:
        if not body.drawn or (body.role != "batten" and upper_side(body) is None):
            continue
        shade = hull([(p[0], p[1]) for p in body.corners if abs(p[2]) < 0.01])
        over = shape.intersection(shade).area
        if over > 1.0:
            yield found(
                "hold_blocked", "stop", f"{named} comes down on the {body.name}: no finger gets through.",
                "Set it beside that part.", show.length(over**0.5), show.length(0.0), f"{field}.y",
                (one.x, one.y), station="top",
            )  # fmt: skip
