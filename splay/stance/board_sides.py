"""Two boards leaning outward, with rails and treads between them."""

from __future__ import annotations

from splay.piece import BoardSides, CrossPiece
from splay.quantity import degrees as deg
from splay.stance.body import Body, Sides, Void, body, pose
from splay.stance.convex import Plane, plane_at
from splay.stance.floor import Floor, floor_plane, underside
from splay.stance.vectors import Vec, along, dot

_NAMES = {-1: "left", 1: "right"}


def board_sides(support: BoardSides, index: int, floor: Floor) -> tuple[Body, ...]:
    """The boards, then what runs between them; the ends of all of it lie on the inner faces."""
    sides = [_side(support, index, side, floor) for side in (-1, 1)]
    return (*sides, *(_between(support, index, k, rail) for k, rail in enumerate(support.rails)))


def _outward(support: BoardSides, side: int) -> Vec:
    return (side * deg.cos(support.splay), 0.0, deg.sin(support.splay))


def _side(support: BoardSides, index: int, side: int, floor: Floor) -> Body:
    down: Vec = (side * deg.sin(support.splay), 0.0, -deg.cos(support.splay))
    out = _outward(support, side)
    middle = along((side * support.length / 2, 0.0, 0.0), out, -support.thickness / 2)
    names = ("back edge", "front edge") if side > 0 else ("front edge", "back edge")
    return body(
        f"{support.id}.side.{_NAMES[side]}",
        f"{_NAMES[side]} side",
        "side",
        index,
        f"{support.id}.side" + ("" if floor.fall_deg == 0 else f".{side}"),
        pose(middle, down, out),
        (support.width, support.thickness),
        Sides(*names, "outer face", "inner face"),
        (underside(), floor_plane(floor)),
        voids=_feet(support, floor, down),
        stands=True,
        allowance=support.allowance,
    )


def _feet(support: BoardSides, floor: Floor, down: Vec) -> tuple[Void, ...]:
    """The space between the two feet, as high up the board's face as it was given."""
    cut = support.cut_out
    if cut is None:
        return ()
    rise = -dot(floor.normal, down) * cut.height
    half = cut.width / 2
    planes = (
        Plane(floor.normal, rise - floor.h0_mm),
        Plane((0.0, 1.0, 0.0), half),
        Plane((0.0, -1.0, 0.0), half),
    )
    return (Void("between the feet", planes, "feet"),)


def _between(support: BoardSides, index: int, k: int, rail: CrossPiece) -> Body:
    ends = []
    for side in (-1, 1):
        out = _outward(support, side)
        face = along((side * support.length / 2, 0.0, 0.0), out, -support.thickness)
        ends.append(plane_at(out, face))
    flat = rail.lies == "flat"
    high = rail.thickness if flat else rail.depth
    middle: Vec = (0.0, rail.offset, -rail.drop - high / 2)
    where = pose(middle, (1.0, 0.0, 0.0), (0.0, 0.0, 1.0) if flat else (0.0, -1.0, 0.0))
    names = (
        Sides("back edge", "front edge", "upper face", "lower face")
        if flat
        else Sides("upper edge", "lower edge", "front face", "back face")
    )
    return body(
        f"{support.id}.rail.{k + 1}",
        f"{'tread' if flat else 'rail'} {k + 1}",
        "tread" if flat else "rail",
        index,
        f"{support.id}.rail.{k + 1}",
        where,
        (rail.depth, rail.thickness),
        names,
        (ends[0], ends[1]),
    )
