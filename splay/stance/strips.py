"""A hollow shared out over the strips a top is glued from: what each is hollowed to before the glue-up."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass
from itertools import pairwise

from splay.piece import Top, Trough
from splay.quantity import degrees as deg
from splay.stance.hollow import hollow_depth
from splay.stance.vectors import Vec, word

STRAIGHT_DEG = 1e-6


@dataclass(frozen=True)
class Place:
    """So far along a line on a strip, and how deep the hollow is there; mm."""

    out: float
    deep: float


@dataclass(frozen=True)
class Line:
    """The hollow on one glued side of a strip: depths at places to either side of the middle, the last
    where it runs out; one place alone where it is as deep from end to end; none where it does not come."""

    towards: str
    places: tuple[Place, ...]


@dataclass(frozen=True)
class Strip:
    """One strip, numbered from 1: its two long sides; `across` its end's line, from its first side to its
    second, where the hollow is the same from end to end, and what straight runs between those places leave
    above the arc, at most, mm."""

    number: int
    width: float
    sides: tuple[Line, Line]
    across: tuple[Place, ...] | None
    left: float


def can_be_in_strips(top: Top) -> bool:
    """Whether a top has strips that lie along its hollow's own middle lines."""
    return len(top.boards) > 1 and top.hollow is not None and askew(top) < STRAIGHT_DEG


def askew(top: Top) -> float:
    """How far the strips lie off the nearer middle line, degrees."""
    return abs((top.grain + 45.0) % 90.0 - 45.0)


def in_strips(top: Top) -> bool:
    """Whether a top is hollowed strip by strip."""
    return top.hollow is not None and top.hollow.strips and can_be_in_strips(top)


def across_words(top: Top) -> tuple[str, str]:
    """Towards which word the first strip lies, and the last."""
    left = _left(top)
    return word((-left[0], -left[1], 0.0)), word(left)


def strips(top: Top) -> tuple[Strip, ...]:
    """Every strip of a top hollowed by strips, from the right of the grain's bearing to its left."""
    if not in_strips(top):
        return ()
    open_ = top.gap.width if top.gap else 0.0
    made, at = [], -(sum(top.boards) + open_) / 2.0
    words = across_words(top)
    level = _the_same_all_along(top)
    for number, width in enumerate(top.boards, 1):
        ends = (at, at + width)
        sides = tuple(Line(said, _line(top, v)) for said, v in zip(words, ends, strict=True))
        across = tuple(_across(top, *ends)) if level else None
        left = _over(top, at, across) if across is not None else 0.0
        made.append(Strip(number, width, (sides[0], sides[1]), across, left))
        at += width + open_
    return tuple(made)


def _left(top: Top) -> Vec:
    return (-deg.sin(top.grain), deg.cos(top.grain), 0.0)


def _the_same_all_along(top: Top) -> bool:
    """Whether the hollow is straight along the strips."""
    hollow = top.hollow
    if not isinstance(hollow, Trough):
        return False
    along_x = abs(deg.cos(top.grain)) > 0.5
    return along_x is (hollow.across == "width")


def _depth(top: Top, u: float, v: float) -> float:
    """The hollow's depth so far along the strips, and across them to the left of the grain's bearing."""
    c, s = deg.cos(top.grain), deg.sin(top.grain)
    return hollow_depth(top.hollow, (u * c - v * s, u * s + v * c))


def _line(top: Top, v: float) -> tuple[Place, ...]:
    deep = _depth(top, 0.0, v)
    if deep <= 0.0:
        return ()
    if _the_same_all_along(top):
        return (Place(0.0, deep),)
    half = _runs_out(top, v)
    shares = (0.0, 1.0 / 3.0, 2.0 / 3.0)
    return (*(Place(half * share, _depth(top, half * share, v)) for share in shares), Place(half, 0.0))


def _runs_out(top: Top, v: float) -> float:
    """Where the hollow ends along a line across it: half its own length there, mm."""
    hollow = top.hollow
    assert hollow is not None
    if isinstance(hollow, Trough):
        return hollow.chord / 2.0
    long, wide = hollow.length, hollow.width
    if abs(deg.cos(top.grain)) < 0.5:
        long, wide = wide, long
    return long / 2.0 * math.sqrt(max(0.0, 1.0 - (2.0 * v / wide) ** 2))


def _across(top: Top, first: float, last: float) -> Iterator[Place]:
    """Along a strip's end from its first side to its second: sides, halfway, the rim and the lowest place
    where they lie within."""
    hollow = top.hollow
    assert isinstance(hollow, Trough)
    at = {first, last, (first + last) / 2.0}
    at |= {v for v in (-hollow.chord / 2.0, 0.0, hollow.chord / 2.0) if first < v < last}
    for v in sorted(at):
        yield Place(v - first, _depth(top, 0.0, v))


def _over(top: Top, first: float, across: tuple[Place, ...]) -> float:
    """Each run between two places is a chord of the arc, or lies on the face: halfway it is furthest."""
    gaps = [
        _depth(top, 0.0, first + (one.out + two.out) / 2.0) - (one.deep + two.deep) / 2.0
        for one, two in pairwise(across)
    ]
    return max(gaps, default=0.0)


__all__ = ["Line", "Place", "Strip", "across_words", "askew", "can_be_in_strips", "in_strips", "strips"]
