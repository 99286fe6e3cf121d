"""From the maker's way of laying out to socket places on the underside."""

from __future__ import annotations

import math
from dataclasses import dataclass
from itertools import product

from splay.piece import Circle, Free, Outline, StakedLegs, Triangle, placed_ids
from splay.quantity import degrees as deg
from splay.stance.outline import extent
from splay.stance.vectors import Flat

_SAME_BEARING_DEG = 1e-4


@dataclass(frozen=True)
class Place:
    """One leg's socket: its leg's id, where it is (top frame, mm), and what of the layout put it there.

    `entry` is the index of the spot for legs laid out freely, otherwise the leg's own index;
    `across` and `back` are -1 where it is the mirrored partner of that spot.
    """

    id: str
    at: Flat
    entry: int
    across: int = 1
    back: int = 1


def places(support: StakedLegs, outline: Outline) -> tuple[Place, ...]:
    """The sockets of a support in the order its placement names them: round a circle from the first on,
    or four from the front left, both anticlockwise seen from above; or as they were put down, each
    followed by its partners. What a support keeps one of a leg is in that order.
    """
    way, ids = support.placement, placed_ids(support.placement)
    if isinstance(way, Circle):
        return _ring(way.radius, way.count, way.first, ids)
    if isinstance(way, Triangle):
        return _ring(way.side / math.sqrt(3.0), 3, way.first, ids)
    if isinstance(way, Free):
        return _spots(way, ids)
    a, b = extent(outline)
    x, y = a - way.from_ends, b - way.from_edges
    corners = ((-x, -y), (x, -y), (x, y), (-x, y))
    return tuple(Place(id, corner, k) for k, (id, corner) in enumerate(zip(ids, corners, strict=True)))


def numbered(sockets: tuple[Place, ...]) -> tuple[int, ...]:
    """In which order the sockets are numbered, as indices: whatever the placement, from the first one
    round the middle, anticlockwise seen from above; of two on one bearing the nearer before the other."""
    if not sockets:
        return ()
    start = deg.atan2(sockets[0].at[1], sockets[0].at[0])

    def turn(k: int) -> tuple[float, float]:
        x, y = sockets[k].at
        # A hair before the first is the first's own bearing, not a whole turn on.
        round_ = (deg.atan2(y, x) - start + _SAME_BEARING_DEG) % 360.0
        return (round(round_, 6), math.hypot(x, y))

    return (0, *sorted(range(1, len(sockets)), key=turn))


def _ring(radius: float, count: int, first: float, ids: tuple[str, ...]) -> tuple[Place, ...]:
    bearings = (first + 360.0 * k / count for k in range(count))
    return tuple(
        Place(id, (radius * deg.cos(b), radius * deg.sin(b)), k)
        for k, (id, b) in enumerate(zip(ids, bearings, strict=True))
    )


def _spots(way: Free, ids: tuple[str, ...]) -> tuple[Place, ...]:
    made: list[Place] = []
    for k, spot in enumerate(way.spots):
        across = (1, -1) if spot.mirror in {"sides", "both"} and spot.x != 0 else (1,)
        back = (1, -1) if spot.mirror in {"ends", "both"} and spot.y != 0 else (1,)
        made += [
            Place(ids[len(made) + n], (spot.x * i, spot.y * j), k, i, j)
            for n, (j, i) in enumerate(product(back, across))
        ]
    return tuple(made)


def pairs(sockets: tuple[Place, ...]) -> tuple[int, ...]:
    """Which mirrored pair each leg belongs to: pairs over the front-back line, front first."""
    keys = [(round(p.at[1], 3), round(abs(p.at[0]), 3)) for p in sockets]
    order = {key: index for index, key in enumerate(sorted(set(keys)))}
    return tuple(order[key] for key in keys)
