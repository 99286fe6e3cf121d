"""The flats of a stretcher that is not round, and what is written on them."""

from __future__ import annotations

import math

from splay.piece import Stretcher
from splay.stance.lines import square_to
from splay.stance.vectors import Flat, Vec, along, cross, word

FLATS = {"round": 0, "square": 4, "octagon": 8}
_LIES = 0.1
"""A face that looks this little down is no more named by the floor: its stick stands all but upright."""


def floor_side(way: Vec) -> Vec:
    """The side of a stretcher furthest from the seat, which lies upside down while it is drawn: unit,
    square to the stretcher, top frame. The front of an upright one."""
    return square_to(way, (0.0, 0.0, -1.0) if abs(way[2]) < 0.999 else (0.0, -1.0, 0.0))


def named_member_sides(way: Vec) -> tuple[tuple[str, Vec], ...]:
    """The names written on the four sides of a stretcher with flats, with their normals, top frame:
    clockwise for one who looks at its first end, the one towards the floor first. `way` points from the
    first end to the second."""
    down = floor_side(way)
    side = cross(way, down)
    four = (down, side, _minus(down), _minus(side))
    names = ["FLOOR", word(side), "SEAT", word(_minus(side))]
    if -down[2] < _LIES:
        # All four look sideways: no word for two of them.
        names[0], names[2] = word(down), word(_minus(down))
        other = 1 if names[0] in ("LEFT", "RIGHT") else 0
        level: Vec = (side[0], 0.0, 0.0) if other == 0 else (0.0, side[1], 0.0)
        names[1], names[3] = word(level), word(_minus(level))
    return tuple(zip(names, four, strict=True))


def named_member_faces(way: Vec) -> tuple[tuple[str, Vec], ...]:
    """The same as faces are spoken of."""
    return tuple((f"{name} face", normal) for name, normal in named_member_sides(way))


def member_flats(chosen: Stretcher, way: Vec) -> tuple[tuple[str, Vec], ...]:
    """Every flat of a stretcher by name, with its normal: none of a round one, four, or eight with those
    between."""
    if chosen.section == "round":
        return ()
    four = named_member_sides(way)
    if chosen.section == "square":
        return named_member_faces(way)
    h = math.sqrt(0.5)
    between = tuple(
        (
            f"face between {a} and {b}",
            (h * (v[0] + w[0]), h * (v[1] + w[1]), h * (v[2] + w[2])),
        )
        for (a, v), (b, w) in zip(four, (*four[1:], four[0]), strict=True)
    )
    return (*named_member_faces(way), *between)


def section_corners(chosen: Stretcher) -> tuple[Flat, ...]:
    """The corners of a stretcher's section, mm, towards the floor side and square to that, in order round;
    none of a round one."""
    count = FLATS[chosen.section]
    out = half_over_corners(chosen)
    turns = [2.0 * math.pi * (k + 0.5) / count for k in range(count)]
    return tuple((out * math.cos(turn), out * math.sin(turn)) for turn in turns)


def section_ring(chosen: Stretcher, way: Vec, at: Vec) -> tuple[Vec, ...]:
    """The same corners about a place on its middle line, top frame."""
    down = floor_side(way)
    side = cross(way, down)
    return tuple(along(along(at, down, x), side, y) for x, y in section_corners(chosen))


def half_over_corners(chosen: Stretcher) -> float:
    """How far a stretcher reaches from its middle line at most, mm."""
    count = FLATS[chosen.section]
    return chosen.diameter / 2.0 / (math.cos(math.pi / count) if count else 1.0)


def _minus(v: Vec) -> Vec:
    return (-v[0], -v[1], -v[2])
