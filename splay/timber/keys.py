"""Splits that are kept: bow-tie keys across them, where, how large, how deep their pockets.

All sizes are common practice, no source.
"""

from __future__ import annotations

import itertools
import math
from collections.abc import Sequence
from dataclasses import dataclass

from splay.quantity import Quantity, Show
from splay.work.phrases import so_many

EVERY_MM = 140.0
"""A key at least every so far along a split."""
FROM_END = 45.0
"""The first key's middle from where the split begins or ends."""
DEEP = 0.45
"""A key's thickness as a share of the seat's."""
LONG = 3.2
"""A key's length across the split, over its thickness."""
WAIST = 0.5
"""The waist as a share of the ends' width."""
POCKET_SLOPE = 3.0
"""Degrees the pocket's walls lean inward going down, so that the key closes as it is driven."""
THINNEST_KEY = 5.0
"""A thinner key holds nothing, mm."""
LEAST_LEFT = 10.0
"""Wood left under a pocket, mm."""


@dataclass(frozen=True)
class Keys:
    """The keys of one split: `at` their middles (x, y) and the way across it (degrees), slab frame; the
    template's size, the pocket's depth and slope; `clear_by` how far the part would be moved to have no
    split in it at all, None where there is no room."""

    number: int
    at: tuple[tuple[float, float, float], ...]
    length: Quantity
    end_width: Quantity
    waist: Quantity
    thickness: Quantity
    pocket: Quantity
    slope: Quantity
    split: Quantity
    clear_by: Quantity | None
    told: tuple[str, ...]


def keys_for(
    points: Sequence[tuple[float, float]],
    thickness: float,
    show: Show,
    clear_by: float = 0.0,
    holes: Sequence[tuple[float, float, float]] = (),
) -> Keys:
    """Keys across a split that runs along some points (mm), in a seat of a thickness.

    `clear_by` is how far the part could be moved to be clear of the split, 0 where it cannot; `holes` (x,
    y, radius) a pocket must keep clear of: a key that would meet one is moved along the split.
    """
    long = sum(math.dist(a, b) for a, b in itertools.pairwise(points))
    thick = thickness * DEEP
    thick = max(1.0, min(thick, thickness - LEAST_LEFT))
    across = max(30.0, LONG * thick)
    wide = across * 0.5
    number = max(1, math.ceil((long - 2.0 * FROM_END) / EVERY_MM) + 1) if long > 2 * FROM_END else 1
    places = _places(long, number)
    spots = [_clear(points, place, across, holes, long) for place in places]
    at: list[tuple[float, float, float]] = []
    for spot in spots:
        if spot is not None and all(math.dist(spot[:2], other[:2]) >= wide + LEAST_LEFT for other in at):
            at.append(spot)
    if thick < THINNEST_KEY:
        at = []
    crowded = number - len(at)
    number = len(at)
    told = [
        f"{so_many(number, 'key', 'keys')}, {show.length(across).text} across the split, their grain "
        "across it.",
        f"Lay the template with its waist on the split; knife round it. Pocket "
        f"{show.length(thick - 1.0).text} "
        f"deep, its walls leaning in {show.angle(POCKET_SLOPE).text}: the key stands 1 mm proud and "
        "closes as "
        "it is driven.",
        "Glue, drive until it sounds dead, plane flush when dry. Never towards the holding hand.",
    ]
    if not at:
        why = "the seat is too thin" if thick < THINNEST_KEY else "the leg holes leave room for none"
        told = [f"No key: {why}. Move the part clear of the split, or fill it with glue and clamp it shut."]
    elif crowded > 0:
        told.append(f"{crowded} fewer than usual: a pocket there would meet a leg hole or another key.")
    away = show.length(clear_by) if clear_by > 0.0 else None
    if away is not None:
        told.insert(0, f"There is room: moved {away.text} along, the split stays in what is left over.")
    return Keys(
        number,
        tuple(at),
        show.length(across),
        show.length(wide),
        show.length(wide * WAIST),
        show.length(thick),
        show.length(thick - 1.0),
        show.angle(POCKET_SLOPE),
        show.length(long),
        away,
        tuple(told),
    )


def _places(long: float, number: int) -> list[float]:
    if number == 1:
        return [long / 2.0]
    first, last = FROM_END, long - FROM_END
    return [first + (last - first) * k / (number - 1) for k in range(number)]


def _on(points: Sequence[tuple[float, float]], place: float) -> tuple[float, float, float]:
    """The point so far along, and the bearing square to the line there."""
    for a, b in itertools.pairwise(points):
        step = math.dist(a, b)
        if place <= step or b == points[-1]:
            t = min(1.0, place / step) if step else 0.0
            bearing = math.degrees(math.atan2(b[1] - a[1], b[0] - a[0])) + 90.0
            return a[0] + t * (b[0] - a[0]), a[1] + t * (b[1] - a[1]), bearing % 180.0
        place -= step
    return *points[0], 90.0


def _clear(
    points: Sequence[tuple[float, float]],
    place: float,
    across: float,
    holes: Sequence[tuple[float, float, float]],
    long: float,
) -> tuple[float, float, float] | None:
    """The place, moved along the split as little as need be for the pocket to keep clear of leg holes; None
    where it cannot."""
    for off in (0.0, *(s * k * 5.0 for k in range(1, 15) for s in (1, -1))):
        spot = _on(points, min(max(place + off, 0.0), long))
        if all(math.dist(spot[:2], hole[:2]) >= across / 2.0 + hole[2] + 5.0 for hole in holes):
            return spot
    return None


def template(keys: Keys) -> tuple[tuple[float, float], ...]:
    """The corners of a key about its middle, its length along x, mm: to be pasted on thin board."""
    a, b, c = keys.length.value / 2.0, keys.end_width.value / 2.0, keys.waist.value / 2.0
    return ((-a, -b), (0.0, -c), (a, -b), (a, b), (0.0, c), (-a, b))
