"""From the maker's way of laying out to socket places on the underside."""

from __future__ import annotations

import math
from dataclasses import dataclass

from splay.piece import Circle, Free, Outline, StakedLegs, Triangle
from splay.quantity import degrees as deg
from splay.stance.outline import extent
from splay.stance.vectors import Flat


@dataclass(frozen=True)
class Place:
    """One leg's socket: where it is (top frame, mm), and which entry of the layout put it there.

    `entry` is the index of the spot for legs laid out freely, otherwise the leg's own index;
    `across` and `back` are -1 where it is the mirrored partner of that spot.
    """

    at: Flat
    entry: int
    across: int = 1
    back: int = 1


def places(support: StakedLegs, outline: Outline) -> tuple[Place, ...]:
    """The sockets of a support: round a circle from leg 1 on, or four from the front left, both
    counter-clockwise seen from above; or in the order put down, each followed by its partners.
    """
    way = support.placement
    if isinstance(way, Circle):
        return _ring(way.radius, way.count, way.first)
    if isinstance(way, Triangle):
        return _ring(way.side / math.sqrt(3.0), 3, way.first)
    if isinstance(way, Free):
        return _spots(way)
    a, b = extent(outline)
    x, y = a - way.from_ends, b - way.from_edges
    corners = ((-x, -y), (x, -y), (x, y), (-x, y))
    return tuple(Place(corner, k) for k, corner in enumerate(corners))


def _ring(radius: float, count: int, first: float) -> tuple[Place, ...]:
    bearings = (first + 360.0 * k / count for k in range(count))
    return tuple(Place((radius * deg.cos(b), radius * deg.sin(b)), k) for k, b in enumerate(bearings))


def _spots(way: Free) -> tuple[Place, ...]:
    made: list[Place] = []
    for k, spot in enumerate(way.spots):
        across = (1, -1) if spot.mirror in {"sides", "both"} and spot.x != 0 else (1,)
        back = (1, -1) if spot.mirror in {"ends", "both"} and spot.y != 0 else (1,)
        made += [Place((spot.x * i, spot.y * j), k, i, j) for j in back for i in across]
    return tuple(made)


def pairs(sockets: tuple[Place, ...]) -> tuple[int, ...]:
    """Which mirrored pair each leg belongs to: pairs over the front-back line, front first."""
    keys = [(round(p.at[1], 3), round(abs(p.at[0]), 3)) for p in sockets]
    order = {key: index for index, key in enumerate(sorted(set(keys)))}
    return tuple(order[key] for key in keys)
