"""Supports made of boards: two leaning sides; stepped ones with a lower tread in front of the top."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from splay.document import Frozen, Length
from splay.ids import Id
from splay.piece.frames import CrossPiece, Dowels, Held, Size, Slope, Stock
from splay.piece.tops import EdgeShape


class FootCutOut(Frozen):
    """What is sawn out of a board's lower end so that it stands on two feet."""

    width: Size = 120.0
    """Between the feet, mm."""
    height: Annotated[float, Length(3, 2000)] = 40.0
    """Up the board's face, mm."""


class BoardTaper(Frozen):
    """How a side grows narrower over its whole height, on its front edge, its back edge or both."""

    sides: Literal["front", "back", "both"] = "both"
    narrower: Literal["top", "foot"] = "top"
    """The end it is narrower at."""
    off: Annotated[float, Length(1, 400)] = 12.0
    """In from the edge there, on the outer face, mm."""


class LowerTread(Frozen):
    """A tread in front of the top and below it. It lies on short boards, glued to the front edges of the
    long ones that carry the top, and its back edge against those."""

    drop: Annotated[float, Length(20, 3000)] = 140.0
    """Plumb, from the underside of the top down to its upper face, mm."""
    board: Size = 150.0
    """Width of a short board, front to back, mm."""
    thickness: Stock = 22.0
    """Thickness of the tread, mm."""
    past_front: Annotated[float, Length(0, 200)] = 15.0
    """The tread past the short boards' front edges, where it lies on them, mm."""
    past_ends: Annotated[float, Length(0, 300)] = 20.0
    """The tread past the boards' outer faces, where it lies on them, mm."""
    rails: Annotated[tuple[CrossPiece, ...], Field(max_length=4)] = ()
    """Cross-pieces between the boards under it: their drop is from its underside, their offset from the
    middle of the short boards."""
    upper_edge: EdgeShape = EdgeShape()
    """Its front edge and both its ends, above; the back edge lies against the long boards."""


class Splines(Frozen):
    """Pieces as thick as the boards, let into notches in their upper ends and through the top."""

    count: Annotated[int, Field(ge=1, le=4, strict=True)] = 2
    """How many in one board."""
    width: Annotated[float, Length(8, 300)] = 36.0
    """Front to back, mm."""
    depth: Annotated[float, Length(8, 300)] = 26.0
    """Of its notch, down the board's outer face, mm."""
    from_edges: Annotated[float, Length(10, 1500)] = 50.0
    """The middles of the outer ones from the board's edges, mm."""
    proud: Annotated[float, Length(0, 30)] = 0.0
    """Out of the top when it is finished, plumb, mm; 0 is flush."""


class BoardSides(Frozen):
    """Two boards that lean outward, one at each end."""

    kind: Literal["board_sides"] = "board_sides"
    id: Id = ""
    length: Size
    """Over the outer faces where they meet the top, side to side, mm."""
    width: Size
    """Width of a board, front to back, mm; where the sides are stepped, of a long one."""
    thickness: Stock = 22.0
    """Thickness of a board, mm."""
    splay: Slope
    """How far the boards lean outward, degrees."""
    taper: BoardTaper | None = None
    lower: LowerTread | None = None
    """A second tread, on short boards in front; None where the top is the only one."""
    cut_out: FootCutOut | None = FootCutOut()
    rails: Annotated[tuple[CrossPiece, ...], Field(max_length=6)] = ()
    """Cross-pieces and treads between the boards."""
    held: Held | None = None
    splines: Splines | None = None
    """Splines through the top, glued: in place of what holds it from below, or with it."""
    dowels: Dowels = Dowels(way="loose_tenon", size=8.0, width=30.0, depth=14.0, count=1)
    allowance: Annotated[float, Length(0, 300)] = 5.0
    """Left on the boards for trimming level, mm."""
