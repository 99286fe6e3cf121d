"""What can go wrong with dowels driven from outside: no wood about them in what they go through, an end too
short for them."""

from __future__ import annotations

import math
from collections.abc import Iterator

from splay.judge.finding import Finding, found
from splay.quantity import Show
from splay.stance.body import Body
from splay.stance.through import Through
from splay.stance.vectors import Vec, along, between, cross, dot, unit

ROUND = 12
STEEP = 0.9
END_MM = 3.0
"""Less wood than this between the bottoms of two holes from both ends holds nothing (common practice, no
source)."""


def through(every: tuple[Through, ...], show: Show) -> Iterator[Finding]:
    """Of each support with such dowels the first that does not lie in wood, and the shortest end."""
    for index in dict.fromkeys(one.meets.body.support for one in every):
        mine = [one for one in every if one.meets.body.support == index]
        dowels, field = mine[0].dowels, f"supports.{index}.dowels"
        out = next((one for one in mine if not _in_wood(one, dowels.size / 2.0)), None)
        if out is not None:
            yield found(
                "through_bare", "stop",
                f"A dowel from outside into the {out.meets.body.name} is not in wood all round in the "
                f"{out.meets.mate.name}.",
                "Take a thinner one or fewer, or leave more wood there.", show.length(dowels.size),
                show.length(0.0), f"{field}.size",
            )  # fmt: skip
        short = min((one.meets.body for one in mine), key=_least)
        if 2.0 * dowels.depth > _least(short) - END_MM:
            most = max(0.0, (_least(short) - END_MM) / 2.0)
            yield found(
                "through_long", "stop",
                f"The holes from both ends of the {short.name} meet.",
                f"At most {show.length(most).text} on into the end.", show.length(dowels.depth),
                show.length(most), f"{field}.depth",
            )  # fmt: skip


def _least(body: Body) -> float:
    """A part's shortest line from end to end, mm."""
    half, thick = body.width / 2.0, body.thickness / 2.0
    ends = [body.at(y, z) for y in (-half, half) for z in (-thick, thick)]
    return min(b - a for a, b in ends)


def _in_wood(one: Through, radius: float) -> bool:
    """Whether what a dowel goes through has wood all round it, halfway to the joint."""
    middle = along(one.at, one.way, -one.wood / 2.0)
    first = unit(cross(one.way, (0.0, 0.0, 1.0) if abs(one.way[2]) < STEEP else (1.0, 0.0, 0.0)))
    second = cross(one.way, first)
    turns = [math.tau * k / ROUND for k in range(ROUND)]
    rim = [
        along(along(middle, first, radius * math.cos(turn)), second, radius * math.sin(turn))
        for turn in turns
    ]
    return one.wood > 0.0 and all(_within(one.meets.mate, p) for p in rim)


def _within(body: Body, p: Vec) -> bool:
    return any(
        all(dot(face.normal, between(face.corners[0], p)) < 0.0 for face in solid) for solid in body.stood
    )


__all__ = ["through"]
