"""What can go wrong with splines through the top: too near an edge, in a hollow, against the grain."""

from __future__ import annotations

from collections.abc import Iterator
from itertools import pairwise

import shapely

from splay.judge.finding import Finding, found
from splay.piece import BoardSides, Piece
from splay.quantity import Show
from splay.quantity import degrees as deg
from splay.stance.hollow import thickness_at
from splay.stance.outline import polygon
from splay.stance.splines import Splined

EDGE_MM = 10.0
"""Less wood than this between a notch or a mortise and an edge breaks out (common practice, no source)."""
APART_MM = 12.0
"""Less than this between two splines is no wood to hold either (common practice, no source)."""
GRAIN_DEG = 30.0
"""Boards and top move together where the top's grain runs from side to side, within this (common practice,
no source)."""
HOLLOW_MM = 0.5


def splines(piece: Piece, every: tuple[Splined, ...], show: Show) -> Iterator[Finding]:
    """Of each support with splines what is worst about them."""
    for index, support in enumerate(piece.supports):
        mine = [one for one in every if one.support == index]
        if not mine or not isinstance(support, BoardSides):
            continue
        field = f"supports.{index}.splines"
        yield from _in_boards(support, mine, field, show)
        yield from _in_top(piece, mine, field, show)
        if support.held is not None and support.held.moves > 0.0:
            yield found(
                "spline_held", "note",
                "Splines glue the top to its boards, and what holds it from below leaves it room to move.",
                "Leave one of the two out, or give it no room to move.", show.length(support.held.moves),
                show.length(0.0), f"supports.{index}.held.moves",
            )  # fmt: skip


def _in_boards(support: BoardSides, mine: list[Splined], field: str, show: Show) -> Iterator[Finding]:
    taper, half = support.taper, support.width / 2
    off = taper.off if taper is not None and taper.narrower == "top" else 0.0
    front = off if taper is not None and taper.sides in ("front", "both") and support.lower is None else 0.0
    back = off if taper is not None and taper.sides in ("back", "both") else 0.0
    left = min(min(one.low for one in mine) + half - front, half - back - max(one.high for one in mine))
    if left < EDGE_MM:
        yield found(
            "spline_edge", "stop" if left <= 0.0 else "caution",
            f"A spline's notch leaves {show.length(max(0.0, left)).text} of the board beside it.",
            f"Set it {show.length(EDGE_MM - left).text} further in, or make it narrower.",
            show.length(left), show.length(EDGE_MM), f"{field}.from_edges",
        )  # fmt: skip
    ys = sorted((one.low, one.high) for one in mine if one.side == mine[0].side)
    between = min((b[0] - a[1] for a, b in pairwise(ys)), default=APART_MM)
    if between < APART_MM:
        yield found(
            "spline_close", "stop" if between <= 0.0 else "caution",
            f"Two splines leave {show.length(max(0.0, between)).text} of wood between them.",
            "Take fewer, narrower ones, or set the outer ones nearer to the edges.",
            show.length(between), show.length(APART_MM), f"{field}.count",
        )  # fmt: skip


def _in_top(piece: Piece, mine: list[Splined], field: str, show: Show) -> Iterator[Finding]:
    wood = polygon(piece.top.outline)
    for one in mine:
        for outer, inner in ((one.outer, one.inner), (one.outer_up, one.inner_up)):
            mouth = shapely.box(min(one.side * outer, one.side * inner), one.low,
                                max(one.side * outer, one.side * inner), one.high)  # fmt: skip
            left = float(wood.exterior.distance(mouth)) if wood.contains(mouth) else 0.0
            if left < EDGE_MM:
                yield found(
                    "spline_rim", "stop" if left <= 0.0 else "caution",
                    f"A spline's mortise leaves {show.length(left).text} of the top to its edge.",
                    "Make the top larger there, or set the sides or their splines further in.",
                    show.length(left), show.length(EDGE_MM), f"{field}.from_edges",
                    (one.side * outer, one.low), station="top",
                )  # fmt: skip
                return
    thin = min(
        thickness_at(piece.top, (one.side * one.inner_up, y)) for one in mine for y in (one.low, one.high)
    )
    if thin < piece.top.thickness - HOLLOW_MM:
        yield found(
            "spline_hollow", "caution", "A spline comes out where the top is hollowed.",
            "Saw and scrape it to the hollow, or make the hollow smaller.",
            show.length(piece.top.thickness - thin), show.length(HOLLOW_MM), "top.hollow", station="top",
        )  # fmt: skip
    turned = abs(deg.fold(piece.top.grain + 90.0) - 90.0)
    if turned > GRAIN_DEG:
        yield found(
            "spline_grain", "caution",
            f"The top's grain runs {show.angle(turned).text} off side to side: glued to boards that do "
            "not move along it, it splits or lifts.",
            "Turn the grain from side to side, or hold the top from below with room to move.",
            show.angle(turned), show.angle(GRAIN_DEG), "top.grain", station="top",
        )  # fmt: skip
