"""A top held down, put in at once: screws or buttons that fit the parts and the wood that is there."""

from __future__ import annotations

from typing import Any

from splay.errors import BadInput, Fault, shorten
from splay.paths import within
from splay.piece import Piece, read_piece, write_piece
from splay.piece.kinds import HoldsTop
from splay.stance.apart import clear
from splay.stance.arrange import boards_asked
from splay.stance.buttons import grooves
from splay.stance.holding import Fastening, across_grain, fastenings
from splay.stance.members import members
from splay.stance.rods import rods
from splay.stance.staked import stand

BITE_SHARE = 0.6
"""Screws go this share of its thickness into the top (common practice, no source)."""
POINT_MM = 5.0
"""And leave at least this in front of their points (common practice, no source)."""
MOVES_SHARE = 0.01
"""A top is given this share of its width to move in until its wood is known (common practice, no
source)."""
FROM_ENDS_MM = (40.0, 50.0, 60.0, 70.0, 80.0, 100.0, 120.0)
DROPS_MM = (12.0, 14.0, 10.0, 16.0, 20.0)
DEPTHS_MM = (8.0, 10.0, 12.0, 14.0, 16.0, 18.0)
HELD_MM = 4.0
"""Buttons begin with so much of their tongues in the groove at the worst (common practice, no source)."""
ROOM_MM = 12.0
SPLINE_SHARE = 0.17
"""A spline begins this share of its board wide, and (common practice, no source)"""
SPLINE_DEEP = 1.2
"""its notch this many times the board's thickness deep."""
FROM_EDGES_SHARES = (0.18, 0.22, 0.26, 0.3, 0.34, 0.15, 0.12)
POCKET_DEG = 15.0
"""Where a part leans, its screws start from its inner side at this slant (common practice, no source)."""
PLUMB = 1.0 - 1e-9
GRIP_MM = 30.0
"""Wood left under a head is at most this: a longer thin hole wanders (common practice, no source)."""
SCREWS_MM = (16.0, 20.0, 25.0, 30.0, 35.0, 40.0, 45.0, 50.0, 60.0, 70.0, 80.0)
"""Lengths screws are sold in (common practice, no source)."""


def with_held(piece: Piece, to: str, index: int) -> dict[str, Any]:
    """The piece's document with its top held to support `index` by screws from below, by buttons, or by
    nothing."""
    document = write_piece(piece)
    support = piece.supports[index] if 0 <= index < len(piece.supports) else None
    if not isinstance(support, HoldsTop):
        do = "Choose frames, board sides or legs with aprons."
        raise BadInput(Fault("restate.support", str(index), "a support with pieces under the top", do))
    if to not in HOLDERS:
        raise BadInput(Fault("restate.to", shorten(to), ", ".join(HOLDERS), "Choose one of these."))
    document["supports"][index]["held"] = None
    if to == "screws":
        document["supports"][index]["held"] = _screwed(piece, document, index)
    elif to == "buttons":
        document["supports"][index]["held"] = _buttoned(piece, document, index)
    return document


def with_splines(piece: Piece, to: str, index: int) -> dict[str, Any]:
    """The piece's document with splines from the boards of support `index` through the top, clear of what
    else is in the wood; or without."""
    document = write_piece(piece)
    support = boards_asked(piece, to, index)
    document["supports"][index]["splines"] = None
    if to == "off":
        return document
    spline: dict[str, Any] = {
        "width": float(round(SPLINE_SHARE * support.width)),
        "depth": float(round(SPLINE_DEEP * support.thickness)),
    }
    document["supports"][index]["splines"] = spline
    for spline["count"] in (2, 1, 3):
        for share in FROM_EDGES_SHARES:
            spline["from_edges"] = float(round(share * support.width))
            if _free(read_piece(document), f"supports.{index}.splines"):
                return document
    return document


HOLDERS = ("screws", "buttons", "nothing")


def _started(piece: Piece) -> dict[str, Any]:
    """How far fastenings go into the top, and how far it may move, to begin with."""
    wide = across_grain(piece.top.outline, piece.top.grain)
    return {
        "bite": float(round(min(BITE_SHARE * piece.top.thickness, piece.top.thickness - POINT_MM))),
        "moves": round(2.0 * MOVES_SHARE * wide) / 2.0,
    }


def _buttoned(piece: Piece, document: dict[str, Any], index: int) -> dict[str, Any]:
    """A groove as deep as the tongues need, and no deeper than half the thinnest part."""
    button = {"way": "buttons", **_started(piece)}
    document["supports"][index]["held"] = button
    for button["from_ends"] in FROM_ENDS_MM[2:]:
        for button["drop"] in DROPS_MM:
            for button["deep"] in DEPTHS_MM:
                made = read_piece(document)
                mine = [one for one in grooves(made, stand(made)) if one.body.support == index]
                if min((one.held for one in mine), default=0.0) >= HELD_MM:
                    break
            if _free(made, f"supports.{index}.held"):
                return button
    return button


def _screwed(piece: Piece, document: dict[str, Any], index: int) -> dict[str, Any]:
    """Screws that leave wood in front of their points, from the inner side where the parts lean."""
    screw = {"way": "screws", **_started(piece)}
    document["supports"][index]["held"] = screw

    def tried() -> list[Fastening]:
        made = read_piece(document)
        return [one for one in fastenings(made, stand(made)) if one.body.support == index]

    mine = tried()
    if any(one.way[2] < PLUMB for one in mine):
        screw["slant"] = POCKET_DEG
        mine = tried()
    for screw["from_ends"] in FROM_ENDS_MM:
        mine = tried()
        if all(one.beside > ROOM_MM for one in mine) and _free(
            read_piece(document), f"supports.{index}.held"
        ):
            break
    room = min((one.through for one in mine), default=20.0) + screw["bite"]
    fit = [size for size in SCREWS_MM if size <= min(room, screw["bite"] + GRIP_MM)]
    return {**screw, "length": fit[-1] if fit else SCREWS_MM[0]}


def _free(piece: Piece, field: str) -> bool:
    """Whether what holds the top, changed at a field or within it, meets nothing else in the wood."""
    stance = stand(piece)
    every = rods(piece, stance, *members(piece, stance))
    mine = [one for one in every if within(one.field, field)]
    return all(
        clear(one, other) > POINT_MM for one in mine for other in every
        if one.joint != other.joint and one.hosts & other.hosts
    )  # fmt: skip
