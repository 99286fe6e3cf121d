"""Two boards leaning outward, with rails and treads between them; stepped sides are two boards each."""

from __future__ import annotations

import math
from dataclasses import replace
from itertools import pairwise

from splay.piece import BoardSides, CrossPiece
from splay.quantity import degrees as deg
from splay.stance.body import Body, Side, Sides, Void, body, pose
from splay.stance.convex import Plane, plane_at
from splay.stance.edge_profile import profile
from splay.stance.floor import Floor, floor_plane, underside
from splay.stance.side_taper import narrowed
from splay.stance.sweep import swept
from splay.stance.vectors import Flat, Vec, along, dot

_NAMES = {-1: "left", 1: "right"}
_SORTS = {"upright": "rail", "flat": "tread"}


def board_sides(support: BoardSides, index: int, floor: Floor) -> tuple[Body, ...]:
    """The boards, then what runs between them, whose ends lie on the inner faces; last the lower tread."""
    lower = support.lower
    sides = [_side(support, index, side, floor) for side in (-1, 1)]
    if lower is not None:
        sides += [_short(support, index, side, floor) for side in (-1, 1)]
    between = _rails(support, index, support.rails, "rail", "rails")
    if lower is None:
        return (*sides, *between)
    middle, under = support.front_back[0] + lower.board / 2, lower.drop + lower.thickness
    moved = (
        rail.model_copy(update={"drop": rail.drop + under, "offset": rail.offset + middle})
        for rail in lower.rails
    )
    below = _rails(support, index, tuple(moved), "lower_rail", "lower.rails", "lower ")
    return (*sides, *between, *below, _tread(support, index))


def _rails(
    support: BoardSides,
    index: int,
    rails: tuple[CrossPiece, ...],
    key: str,
    field: str,
    called: str = "",
) -> list[Body]:
    """Pieces between the boards, each with cuts and readings of its own; `field` where they are listed."""
    made = []
    for k, rail in enumerate(rails, 1):
        name = f"{called}{_SORTS[rail.lies]} {k}"
        one = _between(support, index, rail, f"{support.id}.{key}.{k}", name)
        made.append(swept(one, rail.arc, -1, rail.depth, f"{field}.{k - 1}.arc.rise"))
    return made


def lower_key(support: BoardSides) -> str:
    """What the lower tread is called among the parts."""
    return f"{support.id}.lower"


def outer_at(support: BoardSides, down: float) -> float:
    """How far out the boards' outer faces lie from the middle, so far below the top's underside, mm."""
    return support.length / 2 + down * deg.tan(support.splay)


def lower_span(support: BoardSides) -> tuple[float, float]:
    """From where to where front to back a lower tread goes (y), mm: past the short boards where it lies on
    them, which are narrower there perhaps."""
    lower, taper = support.lower, support.taper
    assert lower is not None
    in_front = taper is not None and taper.narrower == "top" and taper.sides in ("front", "both")
    edge = support.front_back[0] + (taper.off if taper is not None and in_front else 0.0)
    return edge - lower.past_front, -support.width / 2


def front_corner(support: BoardSides) -> Vec:
    """The middle of a lower tread's upper front edge, top frame, mm."""
    lower = support.lower
    assert lower is not None
    return (0.0, lower_span(support)[0], -lower.drop)


def _outward(support: BoardSides, side: int) -> Vec:
    return (side * deg.cos(support.splay), 0.0, deg.sin(support.splay))


def _down(support: BoardSides, side: int) -> Vec:
    return (side * deg.sin(support.splay), 0.0, -deg.cos(support.splay))


def _sides(side: int) -> Sides:
    names = ("back edge", "front edge") if side > 0 else ("front edge", "back edge")
    return Sides(*names, "outer face", "inner face")


def _edges(support: BoardSides, side: int, glued: int) -> tuple[Side, ...]:
    """Which of a board's edges are tapered, the front one first, but for one that is `glued`."""
    if support.taper is None:
        return ()
    wanted = ("front", "back") if support.taper.sides == "both" else (support.taper.sides,)
    across = [side if name == "back" else -side for name in wanted]
    return tuple((one, 0) for one in across if one != glued)


def _side(support: BoardSides, index: int, side: int, floor: Floor) -> Body:
    """The board that carries the top: the whole side, or the long one of two."""
    stepped = support.lower is not None
    out = _outward(support, side)
    middle = along((side * support.length / 2, 0.0, 0.0), out, -support.thickness / 2)
    made = body(
        f"{support.id}.side.{_NAMES[side]}",
        f"{_NAMES[side]} long board" if stepped else f"{_NAMES[side]} side",
        "side",
        index,
        f"{support.id}.side" + ("" if floor.fall_deg == 0 else f".{side}"),
        pose(middle, _down(support, side), out),
        (support.width, support.thickness),
        _sides(side),
        (underside(), floor_plane(floor)),
        voids=_feet(support, floor, side, (-support.width / 2, support.width / 2)),
        stands=True,
        allowance=support.allowance,
        frame=_NAMES[side] if stepped else "",
        glued=-side if stepped else 0,
    )
    return narrowed(made, support.taper, _edges(support, side, made.glued))


def _short(support: BoardSides, index: int, side: int, floor: Floor) -> Body:
    """The board in front of a long one, that carries the lower tread."""
    lower = support.lower
    assert lower is not None
    out, front = _outward(support, side), support.front_back[0]
    middle = along((side * support.length / 2, front + lower.board / 2, 0.0), out, -support.thickness / 2)
    made = body(
        f"{support.id}.short.{_NAMES[side]}",
        f"{_NAMES[side]} short board",
        "side",
        index,
        f"{support.id}.short" + ("" if floor.fall_deg == 0 else f".{side}"),
        pose(middle, _down(support, side), out),
        (lower.board, support.thickness),
        _sides(side),
        (underside(lower.drop + lower.thickness), floor_plane(floor)),
        voids=_feet(support, floor, side, (front, front + lower.board)),
        stands=True,
        allowance=support.allowance,
        frame=_NAMES[side],
        glued=side,
    )
    return narrowed(made, support.taper, _edges(support, side, made.glued))


def _tread(support: BoardSides, index: int) -> Body:
    """The lower tread: square all round, its back edge against the long boards' front edges."""
    lower = support.lower
    assert lower is not None
    under = lower.drop + lower.thickness
    half = outer_at(support, under) + lower.past_ends
    front, back = lower_span(support)
    middle: Vec = (0.0, (front + back) / 2, -lower.drop - lower.thickness / 2)
    made = body(
        lower_key(support),
        "lower tread",
        "lower_tread",
        index,
        lower_key(support),
        pose(middle, (1.0, 0.0, 0.0), (0.0, 0.0, 1.0)),
        (back - front, lower.thickness),
        Sides("back edge", "front edge", "upper face", "lower face"),
        (Plane((-1.0, 0.0, 0.0), half), Plane((1.0, 0.0, 0.0), half)),
    )
    shaped = profile(lower.upper_edge, lower.thickness)
    sides = (((0.0, -1.0, 0.0), made.width / 2), ((-1.0, 0.0, 0.0), half), ((1.0, 0.0, 0.0), half))
    return replace(made, eased=tuple(
        _chord(way, out, lower.thickness / 2, one, two)
        for one, two in pairwise(shaped) for way, out in sides
    ))  # fmt: skip


def _chord(way: Vec, out: float, up: float, one: Flat, two: Flat) -> Plane:
    """The plane through two places of an edge's section, in a board's own frame: each in from the side that
    looks `way`, `out` from the middle, and down from the face `up` from it."""
    (a, b), (c, d) = one, two
    # Along the section in by c - a and up by b - d: square to that, out and up.
    size = math.hypot(b - d, c - a)
    level, plumb = (b - d) / size, (c - a) / size
    normal: Vec = (way[0] * level, way[1] * level, plumb)
    return Plane(normal, level * (out - a) + plumb * (up - b))


def _feet(support: BoardSides, floor: Floor, side: int, over: tuple[float, float]) -> tuple[Void, ...]:
    """The space between the two feet in the middle of a side, as high up its face as it was given; nothing
    where it lies beside the board that goes from front to back as `over` says."""
    cut = support.cut_out
    if cut is None:
        return ()
    low, high = support.front_back
    low, high = (low + high - cut.width) / 2, (low + high + cut.width) / 2
    if high <= over[0] or low >= over[1]:
        return ()
    rise = -dot(floor.normal, _down(support, side)) * cut.height
    planes = (
        Plane(floor.normal, rise - floor.h0_mm),
        Plane((0.0, 1.0, 0.0), high),
        Plane((0.0, -1.0, 0.0), -low),
    )
    return (Void("between the feet", planes, "feet"),)


def _between(support: BoardSides, index: int, rail: CrossPiece, key: str, name: str) -> Body:
    ends = []
    for side in (-1, 1):
        out = _outward(support, side)
        face = along((side * support.length / 2, 0.0, 0.0), out, -support.thickness)
        ends.append(plane_at(out, face))
    flat = rail.lies == "flat"
    high = rail.stands
    middle: Vec = (0.0, rail.offset, -rail.drop - high / 2)
    where = pose(middle, (1.0, 0.0, 0.0), (0.0, 0.0, 1.0) if flat else (0.0, -1.0, 0.0))
    names = (
        Sides("back edge", "front edge", "upper face", "lower face")
        if flat
        else Sides("upper edge", "lower edge", "front face", "back face")
    )
    return body(
        key,
        name,
        _SORTS[rail.lies],
        index,
        key,
        where,
        (rail.depth if flat else high, rail.thickness),
        names,
        (ends[0], ends[1]),
    )
