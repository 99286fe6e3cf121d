"""What is held against a hollow or an edge while it is shaped."""

from __future__ import annotations

from collections.abc import Iterator

from splay.patterns.pattern import Pattern, pattern, ring, words
from splay.piece import Dish, Piece, Trough
from splay.quantity import Show
from splay.stance.edge_profile import profile
from splay.stance.hollow import hollow_depth
from splay.stance.vectors import Flat
from splay.views.shapes import Shape, line, text

STEPS = 24
"""Chords a round-over is drawn in at full size: a 40 mm radius is off by 0.02 mm."""
ARC_MM = 3.0
"""A hollow is drawn in chords of about this length."""
GRIP_MM = 40.0
"""Height of a template above the face."""


def edge_patterns(piece: Piece, show: Show) -> Iterator[Pattern]:
    """Templates of the hollow, each way it has a curve of its own, and of the edge."""
    hollow = piece.top.hollow
    if isinstance(hollow, Trough):
        way = "side to side" if hollow.across == "length" else "front to back"
        yield _hollow(piece, "hollow.1", hollow.chord, hollow.across == "length", way, show)
    elif isinstance(hollow, Dish):
        yield _hollow(piece, "hollow.1", hollow.length, True, "side to side", show)
        yield _hollow(piece, "hollow.2", hollow.width, False, "front to back", show)
    if any(edge.inward > 0.0 for edge in (piece.top.lower_edge, piece.top.upper_edge)):
        yield _edge(piece)


def _hollow(piece: Piece, id: str, chord: float, across: bool, way: str, show: Show) -> Pattern:
    hollow = piece.top.hollow
    assert hollow is not None
    count = max(12, round(chord / ARC_MM))
    runs = [chord * (k / count - 0.5) for k in range(count + 1)]
    arc: list[Flat] = [(x, -hollow_depth(hollow, (x, 0.0) if across else (0.0, x))) for x in runs]
    half = chord / 2.0
    board = [*arc, (half + GRIP_MM, 0.0), (half + GRIP_MM, GRIP_MM), (-half - GRIP_MM, GRIP_MM)]
    board.append((-half - GRIP_MM, 0.0))
    deep = show.length(hollow.depth).text
    shapes: list[Shape] = [
        ring("cut", board, part="top"),
        line("axis", (0.0, -hollow.depth), (0.0, GRIP_MM)),
        words((0.0, GRIP_MM * 0.6), f"hollow, {way}: {show.length(chord).text} across, {deep} deep"),
    ]
    return pattern(
        id,
        "edges",
        f"Hollow, {way}",
        (
            "Paste it on thin board and saw to the line. Its ears rest on the seat's face, its middle line "
            f"over the middle of the seat, held {way}.",
        ),
        shapes,
    )


def _edge(piece: Piece) -> Pattern:
    """The edge's section, the upper face up, and the wood the template is cut from round it."""
    top, deep = piece.top, 50.0
    t = top.thickness
    low = [(-inset, up) for inset, up in reversed(profile(top.lower_edge, t, STEPS))]
    high = [(-inset, t - down) for inset, down in profile(top.upper_edge, t, STEPS)]
    section: list[Flat] = [(-deep, 0.0), *low, *high, (-deep, t)]
    shapes: list[Shape] = [
        ring("cut", section, part="top"),
        ring("hidden", [(-deep, -8.0), (12.0, -8.0), (12.0, t + 8.0), (-deep, t + 8.0)]),
        text("label", (-deep + 3.0, t - 5.0), "upper face", anchor="start"),
        text("label", (-deep + 3.0, 4.0), "underside", anchor="start"),
    ]
    return pattern(
        "edge",
        "edges",
        "The edge's section",
        ("Cut the section out of the card: what is left is held against the edge all round.",),
        shapes,
    )
