"""Dowels driven from outside through a slab leg's mitre: some level, some plumb, turn about along it."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal

from splay.piece import OutsideDowels, Piece, SlabLeg
from splay.quantity import degrees as deg
from splay.stance.slab_leg import down_face, end_of
from splay.stance.vectors import Vec, along

Way = Literal["level", "plumb"]
_SIGN = {"left": -1.0, "right": 1.0}


@dataclass(frozen=True)
class Driven:
    """One dowel from outside, `of` a slab leg, as it is `chosen` there; top frame, mm.

    `at` is where its axis goes in, on the leg's show face or the top's upper face, `way` its direction into
    the wood, of unit length. `down` is how far that lies from the mitre's show corner, down the leg or in
    from the top's end; `y` its place across, from the middle line to the back. `through` is the wood to the
    mitre, `deep` the whole hole; `between` the angle it makes with the face, degrees.
    """

    support: int
    of: SlabLeg
    chosen: OutsideDowels
    leg: str
    number: int
    runs: Way
    at: Vec
    way: Vec
    down: float
    y: float
    through: float
    deep: float
    between: float


def driven(piece: Piece) -> tuple[Driven, ...]:
    """Every dowel of a piece that is driven from outside, support by support, from front to back."""
    made: list[Driven] = []
    for index, leg in piece.slab_legs():
        if leg.outside is not None:
            made += _of(piece, leg, leg.outside, index)
    return tuple(made)


def in_turn(level: int, plumb: int) -> tuple[Way, ...]:
    """Which of them runs which way, as evenly mixed as their numbers allow, so that none meets another:
    the middles of equal shares of each, in order."""
    places: list[tuple[float, Way]] = [((k + 0.5) / level, "level") for k in range(level)]
    places += [((k + 0.5) / plumb, "plumb") for k in range(plumb)]
    return tuple(way for _, way in sorted(places))


def _of(piece: Piece, support: SlabLeg, chosen: OutsideDowels, index: int) -> Iterator[Driven]:
    """Each crosses the mitre halfway through the wood: level ones halfway down the top's thickness."""
    end, s, t = _SIGN[support.end], support.splay, piece.top.thickness
    x, front, back = end_of(piece, support)
    ways = in_turn(chosen.level, chosen.plumb)
    # From the show corner to the middle of the mitre: so far in, at half the thickness.
    inward = t / 2.0 * deg.tan((90.0 - s) / 2.0)
    for k, runs in enumerate(ways):
        y = front + (back - front) * (k + 0.5) / len(ways)
        corner: Vec = (x, y, t)
        if runs == "level":
            down = t / 2.0 / deg.cos(s)
            at = along(corner, down_face(support), down)
            way: Vec = (-end, 0.0, 0.0)
            through = t / 2.0 * deg.tan(s) + inward
            between = 90.0 - s
        else:
            down = inward
            at = (x - end * down, y, t)
            way = (0.0, 0.0, -1.0)
            through = t / 2.0
            between = 90.0
        leg = f"{support.id}.slab_leg"
        deep = through + chosen.past
        yield Driven(index, support, chosen, leg, k + 1, runs, at, way, down, y, through, deep, between)
