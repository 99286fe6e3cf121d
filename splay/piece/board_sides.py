"""Supports made of boards: two leaning sides; stepped ones with a lower tread in front of the top."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Annotated, ClassVar, Literal

from pydantic import Field

from splay.document import Frozen, Length
from splay.ids import Id
from splay.piece.bounds import CLEAR_MM, Bound
from splay.piece.held import Held
from splay.piece.square import CrossPiece, Dowels, Size, Slope, Stock
from splay.piece.support import Joined, SupportBase
from splay.piece.tops import EdgeShape
from splay.quantity import degrees as deg

LEAST_BOARD_MM = 40.0
"""A short board under a lower tread is at least so high (common practice, no source)."""


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

    def into(self, edge: Literal["front", "back"], rail: CrossPiece, tall: float) -> float:
        """How far in the edge comes beside a piece between the boards, where it is narrowest there, mm:
        evenly over the boards' whole height (`tall`)."""
        if self.sides not in (edge, "both") or tall <= 0.0:
            return 0.0
        low = rail.drop + rail.stands
        share = 1.0 - rail.drop / tall if self.narrower == "top" else low / tall
        return self.off * max(0.0, min(1.0, share))


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


class BoardSides(SupportBase):
    """Two boards that lean outward, one at each end."""

    stepped_on: ClassVar[bool] = True
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

    @property
    def front_back(self) -> tuple[float, float]:
        """From where to where front to back a side goes, both boards of it, before any taper (y), mm."""
        half = self.width / 2
        return -half - (self.lower.board if self.lower is not None else 0.0), half

    def joined(self, top: float) -> Joined | None:
        """What lies between the boards, into them."""
        if not self.rails:
            return None
        thinnest = min(self.thickness, *(r.thickness for r in self.rails))
        return Joined(self.dowels, thinnest, "sides", self.thickness)

    def bounds(self, high: float) -> Iterator[Bound]:
        """Treads and rails above the floor and between the boards' edges, feet left of what is cut out."""
        low = high
        if self.lower is not None:
            low -= self.lower.drop + self.lower.thickness
            yield from self._under_lower(self.lower, high, low)
        for j, rail in enumerate(self.rails):
            yield rail.low(high, "tread" if rail.lies == "flat" else "rail").within(f"rails.{j}")
            yield rail.beside(*self._between(rail, high, low)).within(f"rails.{j}")
        if self.cut_out is None:
            return
        front, back = self.front_back
        yield Bound(
            "cut_out_high", "legs", "What is cut out between the feet is as high as the board.",
            "Cut it lower.", self.cut_out.height, low / deg.cos(self.splay) - CLEAR_MM, "cut_out.height",
        )  # fmt: skip
        yield Bound(
            "cut_out_wide", "legs", "What is cut out is as wide as the board: no feet are left.",
            "Cut it narrower, or make the board wider.", self.cut_out.width, back - front - CLEAR_MM,
            "cut_out.width",
        )  # fmt: skip

    def _under_lower(self, lower: LowerTread, high: float, low: float) -> Iterator[Bound]:
        """The tread and what lies under it; the short boards are so high (`low`), mm."""
        yield Bound(
            "tread_low", "stance", "The lower tread leaves its boards no height above the floor.",
            "Set it higher, or raise the height.", lower.drop + lower.thickness, high - LEAST_BOARD_MM,
            "lower.drop",
        )  # fmt: skip
        for j, rail in enumerate(lower.rails):
            first = self._in("front", rail, low) - lower.board / 2.0
            yield rail.low(low, "rail under the lower tread").within(f"lower.rails.{j}")
            yield rail.beside(first, lower.board / 2.0).within(f"lower.rails.{j}")
        yield Bound(
            "edge_deep", "stance", "What is shaped off the lower tread's edge is deeper than it is thick.",
            "Make it smaller, or the tread thicker.", lower.upper_edge.down, lower.thickness,
            "lower.upper_edge.size",
        )  # fmt: skip

    def _between(self, rail: CrossPiece, high: float, low: float) -> tuple[float, float]:
        """From where to where front to back (y) the boards go beside a piece between them, mm; a short
        board is so high (`low`), where there is one."""
        front, back = self.front_back
        last = back - self._in("back", rail, high)
        if self.lower is None:
            return front + self._in("front", rail, high), last
        if rail.drop < high - low:
            return -self.width / 2.0, last
        # Below the lower tread's underside there are the short boards too.
        below = rail.model_copy(update={"drop": rail.drop - (high - low)})
        return front + self._in("front", below, low), last

    def _in(self, edge: Literal["front", "back"], rail: CrossPiece, tall: float) -> float:
        """How far a taper, if there is one, brings an edge in beside a piece between the boards, mm."""
        return self.taper.into(edge, rail, tall) if self.taper is not None else 0.0
