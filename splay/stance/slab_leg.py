"""One end of the slab mitred down to the floor."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import replace
from itertools import pairwise
from typing import Literal

from splay.errors import CannotBuild
from splay.piece import Piece, SlabLeg, straight_end
from splay.quantity import degrees as deg
from splay.stance.body import FAR_MM, Body, Sides, Void, body, pose
from splay.stance.convex import Plane, plane_at
from splay.stance.floor import Floor, floor_plane
from splay.stance.outline import rim
from splay.stance.vectors import Vec, along, unit

_SIGN = {"left": -1, "right": 1}
SAME_MM = 0.001
Edge = tuple[float, float, float]
"""Down the show face from the mitre's corner; then where the two edges lie across, low and high, mm."""


def end_of(piece: Piece, support: SlabLeg) -> tuple[float, float, float]:
    """Where the top's end lies that a leg is mitred to (x), and its front and back corners (y), mm."""
    found = straight_end(piece.top.outline, support.end)
    if found is None:
        rule = "A slab leg wants a straight end to be mitred to."
        raise CannotBuild(rule, "Give the top's outline a straight end there.", "top.outline")
    return found


def slab_mitre(piece: Piece, support: SlabLeg) -> Plane:
    """The mitre, its normal out of the top: from the show corner down the line that halves it.

    Top and leg are as thick as each other, so the bevel is (90 - s) / 2 off square on both.
    """
    end, s = _SIGN[support.end], support.splay
    corner = (end_of(piece, support)[0], 0.0, piece.top.thickness)
    return plane_at((end * (1.0 + deg.sin(s)), 0.0, -deg.cos(s)), corner)


def down_face(support: SlabLeg) -> Vec:
    """The way down the leg, top frame, of unit length."""
    end, s = _SIGN[support.end], support.splay
    return (end * deg.sin(s), 0.0, -deg.cos(s))


def edges_down(piece: Piece, support: SlabLeg) -> tuple[Edge, ...]:
    """Where a slab leg's edges run from its mitre down, front and back in the top frame (y), mm."""
    _, front, back = end_of(piece, support)
    return ((0.0, front, back), *((one.down, -one.front, one.back) for one in support.edges))


def edge_spots(piece: Piece) -> tuple[tuple[int, int, Literal["front", "back"]], ...]:
    """Every place on a slab leg's edges that can be moved: its support, which of its places, which edge."""
    made: list[tuple[int, int, Literal["front", "back"]]] = []
    for index, support in enumerate(piece.supports):
        for k in range(len(support.edges) if isinstance(support, SlabLeg) else 0):
            made += [(index, k, "front"), (index, k, "back")]
    return tuple(made)


def on_face(piece: Piece, support: SlabLeg, down: float, y: float) -> Vec:
    """A point of a slab leg's show face, top frame: so far down from the mitre's corner, so far back."""
    corner: Vec = (end_of(piece, support)[0], y, piece.top.thickness)
    return along(corner, down_face(support), down)


def edges_at(edges: Sequence[Edge], down: float) -> tuple[float, float]:
    """Where a leg's edges lie so far down its show face: between two places on the line from one to the
    other, past the last as there, mm."""
    for (a, *one), (b, *two) in pairwise(edges):
        if down <= b:
            share = (down - a) / (b - a)
            return one[0] + share * (two[0] - one[0]), one[1] + share * (two[1] - one[1])
    return edges[-1][1], edges[-1][2]


def slab_leg(piece: Piece, support: SlabLeg, index: int, floor: Floor) -> tuple[Body, ...]:
    """The leg, and the end of the top it is cut from (which the top's own solid shows)."""
    mitre = slab_mitre(piece, support)
    x, front, back = end_of(piece, support)
    end, s, t = _SIGN[support.end], support.splay, piece.top.thickness
    down = down_face(support)
    out: Vec = (end * deg.cos(s), 0.0, deg.sin(s))
    corner: Vec = (x, 0.0, t)
    # Across the leg runs to the back at the right end, to the front at the left one.
    edges = [(d, *_ordered(end * low, end * high)) for d, low, high in edges_down(piece, support)]
    grown = bool(support.edges) or piece.top.bark
    wide = 2.0 * max(max(-low, high) for _, low, high in edges)
    names = ("back edge", "front edge") if end > 0 else ("front edge", "back edge")
    leg = body(
        f"{support.id}.slab_leg",
        f"slab leg at the {support.end}",
        "slab_leg",
        index,
        f"{support.id}.slab_leg",
        pose(along(corner, out, -t / 2), down, out),
        (wide, t),
        Sides(*names, "show face", "inner face"),
        (mitre.turned(), floor_plane(floor)),
        stands=True,
        allowance=support.allowance,
        joint=(edges[0][1], edges[0][2]),
        grown=grown,
    )
    leg = replace(leg, voids=_beside(edges, wide / 2.0))
    # Along the middle line, where its length is measured, the other end may lie further in than elsewhere.
    other = math.hypot(*rim(piece.top.outline, 180.0 if end > 0 else 0.0))
    slab = body(
        f"{support.id}.slab",
        f"the top, its {support.end} end",
        "slab",
        index,
        f"{support.id}.slab",
        pose((0.0, 0.0, t / 2), (float(end), 0.0, 0.0), (0.0, 0.0, 1.0)),
        (2.0 * max(-front, back), t),
        Sides(*names, "upper face", "underside"),
        (Plane((-float(end), 0.0, 0.0), other), mitre),
        drawn=False,
        joint=_ordered(end * front, end * back),
        grown=piece.top.bark or piece.top.outline.kind == "drawn",
    )
    return (leg, slab)


def _ordered(a: float, b: float) -> tuple[float, float]:
    return (a, b) if a < b else (b, a)


def _beside(edges: list[Edge], half: float) -> tuple[Void, ...]:
    """What lies beside a leg's edges in a stick twice `half` wide, edge by edge and from place to place."""
    made: list[Void] = []
    runs = [*pairwise(edges), (edges[-1], (FAR_MM, *edges[-1][1:]))]
    for one, two in runs:
        ends = (Plane((-1.0, 0.0, 0.0), -one[0]), Plane((1.0, 0.0, 0.0), two[0]))
        for side, k in ((-1, 1), (1, 2)):
            if min(half - side * one[k], half - side * two[k]) < SAME_MM and abs(one[k] - two[k]) < SAME_MM:
                continue
            run, rise = two[0] - one[0], two[k] - one[k]
            normal = unit((side * rise, -side * run, 0.0))
            at = normal[0] * one[0] + normal[1] * one[k]
            made.append(Void(f"beside {len(made) + 1}", (*ends, Plane(normal, at)), "grown", side))
    return tuple(made)
