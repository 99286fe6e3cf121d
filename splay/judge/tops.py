"""What can go wrong with the top itself: hollows, glue lines, boards too narrow."""

from __future__ import annotations

import math
from collections.abc import Iterator
from functools import lru_cache

from splay.judge.finding import Finding, found
from splay.layout.placing import marked_face
from splay.layout.steps import glue_lines
from splay.parts import SocketPart
from splay.piece import Dish, Outline, Piece
from splay.quantity import Show
from splay.quantity import degrees as deg
from splay.stance.hollow import hollow_depth
from splay.stance.outline import extent, points
from splay.stance.staked import Stance, support_of
from splay.stance.strips import askew, in_strips
from splay.work.phrases import cap, listed

THIN_TOP_MM = 10.0
"""Least wood left under a hollow (common practice, no source)."""
SUNK_MM = 0.5
"""A face this much lower than it was is not flat any more."""
CLEAR_OF_GLUE = 0.25
"""Least distance of a hole's side from a glue line, as a share of the hole (common practice, no source)."""


def hollow(piece: Piece, show: Show) -> Iterator[Finding]:
    """Hollows deeper than the top, leaving too little, or wider than there is top."""
    cut = piece.top.hollow
    if cut is None:
        return
    left = piece.top.thickness - cut.depth
    if left < THIN_TOP_MM:
        through = left <= 0
        yield Finding(
            "hollow_through" if through else "hollow_thin",
            "stop" if through else "caution",
            "top",
            "The hollow is deeper than the top is thick."
            if through
            else f"Only {show.length(left).text} is left under the hollow.",
            f"Hollow it {show.length(THIN_TOP_MM - left).text} less, or start with thicker wood.",
            (),
            show.length(cut.depth),
            show.length(piece.top.thickness - THIN_TOP_MM),
            (0.0, 0.0),
            "top.hollow.depth",
        )
    a, b = extent(piece.top.outline)
    if isinstance(cut, Dish):
        over = max(cut.length - 2 * a, cut.width - 2 * b)
        field = "top.hollow.length" if cut.length - 2 * a > cut.width - 2 * b else "top.hollow.width"
    else:
        over = cut.chord - 2 * (a if cut.across == "length" else b)
        field = "top.hollow.chord"
    if over > 1e-6:
        yield Finding(
            "hollow_past_edge",
            "note",
            "top",
            "The hollow runs out over the edge: the edge comes out lower there.",
            "Make it narrower if you want the edge straight.",
            (),
            show.length(over),
            show.length(0.0),
            None,
            field,
        )


def by_strips(piece: Piece, stance: Stance, show: Show) -> Iterator[Finding]:
    """A hollow that cannot be made strip by strip, or is there before what wants a flat face."""
    top = piece.top
    if top.hollow is None or not top.hollow.strips:
        return
    if len(top.boards) < 2:
        yield found(
            "strips_none", "caution",
            "It was to be hollowed strip by strip, and the top is in one piece: its cards hollow it whole.",
            "Say how wide its boards are, or leave strip by strip out.", show.count(len(top.boards)),
            show.count(2), "top.hollow.strips", station="top",
        )  # fmt: skip
        return
    if not in_strips(top):
        yield found(
            "strips_askew", "caution",
            f"Its strips run {show.angle(askew(top)).text} askew to the hollow: its cards hollow it whole.",
            "Turn the grain along one of the middle lines, or leave strip by strip out.",
            show.angle(askew(top)), show.angle(0.0), "top.hollow.strips", station="top",
        )  # fmt: skip
        return
    sunk = [
        (hollow_depth(top.hollow, (leg.socket[0], leg.socket[1])), leg.number)
        for leg in stance.legs
        if marked_face(support_of(piece, leg)) == "upper face"
    ]
    sunk = [one for one in sunk if one[0] > SUNK_MM]
    if sunk:
        numbers = tuple(number for _, number in sunk)
        yield Finding(
            "strips_bored_from_above", "stop", "top",
            f"{cap(listed(f'leg {number}' for number in numbers))}: bored from the upper face, which is "
            "hollow by then: the bit starts on a slope, and marks lie on a curve.",
            "Bore from the underside, or hollow the seat whole, after boring.", numbers,
            show.length(max(sunk)[0]), show.length(SUNK_MM), None, "top.hollow.strips",
        )  # fmt: skip


def left_on(piece: Piece, stance: Stance, show: Show) -> Iterator[Finding]:
    """Wood that is planed off a face that holes are bored from, or that is hollow before."""
    top = piece.top
    if not top.left_on:
        return
    gone = [leg for leg in stance.legs if marked_face(support_of(piece, leg)) == "upper face"]
    if gone:
        numbers = tuple(leg.number for leg in gone)
        most = max(deg.tan(leg.boring.resultant) for leg in gone) * top.left_on
        yield Finding(
            "planed_after_boring", "stop", "top",
            f"{cap(listed(f'leg {number}' for number in numbers))}: bored from the face that is planed "
            "afterwards. The marks go with the shavings, and the mouths come to lie "
            f"{show.closely(most).text} elsewhere.",
            "Bore from the underside, which stays; or leave nothing on.", numbers,
            show.closely(most), show.closely(0.0), None, "top.left_on",
        )  # fmt: skip
    if in_strips(top):
        yield found(
            "planed_after_hollowing", "stop",
            f"{show.length(top.left_on).text} is planed off the upper face after its hollow is there: so "
            "much of the hollow is lost.",
            "Leave nothing on, or hollow the seat whole, after boring.", show.length(top.left_on),
            show.length(0.0), "top.left_on", station="top",
        )  # fmt: skip


def glue_lines_crossed(
    piece: Piece, sockets: tuple[SocketPart, ...], stance: Stance, show: Show
) -> Iterator[Finding]:
    """Holes on or beside a glue line."""
    lines = glue_lines(piece)
    if not lines:
        return
    c, s = deg.cos(piece.top.grain), deg.sin(piece.top.grain)
    for socket, leg in zip(sockets, stance.legs, strict=True):
        if leg.bore.mouth_z != 0:
            continue
        half = leg.bore.size / 2
        ends = [-s * x + c * y for x, y in (leg.place.at, socket.exit_at)]
        clear = min(_clear(min(ends) - half, max(ends) + half, line) for line in lines)
        least = CLEAR_OF_GLUE * leg.bore.size
        if clear < least:
            yield Finding(
                "glue_line",
                "caution",
                "boring",
                f"The hole for leg {leg.number} "
                + ("crosses a glue line." if clear <= 0 else "runs close to a glue line."),
                "Move the leg, or glue the top from other widths.",
                (leg.number,),
                show.length(clear),
                show.length(least),
                leg.place.at,
                "top.boards",
            )


def _clear(low: float, high: float, line: float) -> float:
    """Distance of a line from a strip, negative inside it."""
    return max(low - line, line - high)


@lru_cache(maxsize=64)
def across(outline: Outline, grain: float) -> float:
    """Furthest the outline reaches from its middle, square to the grain, mm."""
    c, s = deg.cos(grain), deg.sin(grain)
    return max(abs(-s * x + c * y) for x, y in points(outline))


def boards_wide_enough(piece: Piece, show: Show) -> Iterator[Finding]:
    """Boards that together do not cover the outline."""
    if not piece.top.boards:
        return
    reach = 2.0 * across(piece.top.outline, piece.top.grain)
    gap = piece.top.gap
    total = math.fsum(piece.top.boards) + (gap.width if gap else 0.0)
    if total < reach - 1e-6:
        yield Finding(
            "boards_narrow",
            "caution",
            "top",
            f"The boards{' and their gap' if gap else ''} come to {show.length(total).text}; the outline "
            f"is {show.length(reach).text} "
            "across the grain.",
            "Add a board or widen one.",
            (),
            show.length(total),
            show.length(reach),
            None,
            "top.boards",
        )
