"""Two frames of square stock, one in front and one behind, each leaning in its own plane."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Annotated, Literal

from pydantic import Field

from splay.document import Length
from splay.ids import Id
from splay.piece.bounds import Bound
from splay.piece.held import Held
from splay.piece.square import CrossPiece, Dowels, LegTaper, Size, Slope, Stock
from splay.piece.support import Joined, SupportBase


class PlaneFrames(SupportBase):
    """Two frames of square stock, one in front and one behind, each leaning in its own plane."""

    kind: Literal["plane_frames"] = "plane_frames"
    id: Id = ""
    length: Size
    """Over the outsides of a frame's legs where they meet the top, side to side, mm."""
    width: Size
    """Over the outer faces of both frames where they meet the top, front to back, mm."""
    splay: Slope
    """How far the legs lean sideways, seen square from the front, degrees."""
    rake: Slope
    """How far the frames lean to front and back, seen square from the side, degrees."""
    face: Stock = 35.0
    """Width of a leg's face, in the plane of its frame, mm."""
    thickness: Stock = 35.0
    """Thickness of a frame, mm."""
    cross: Annotated[tuple[CrossPiece, ...], Field(max_length=4)] = (CrossPiece(),)
    """The cross-pieces of one frame, uppermost first."""
    links: Annotated[int, Field(ge=0, le=6, strict=True)] = 2
    """Short pieces that join the two frames under the top."""
    link_width: Stock = 35.0
    """Width of a link, side to side, mm."""
    link_thickness: Stock = 25.0
    """Thickness of a link, mm."""
    taper: LegTaper | None = None
    held: Held | None = None
    dowels: Dowels = Dowels()
    allowance: Annotated[float, Length(0, 300)] = 10.0
    """Left on the legs for trimming level, mm."""

    def bounds(self, high: float) -> Iterator[Bound]:
        """No cross-piece below the floor."""
        for j, piece in enumerate(self.cross):
            yield piece.low(high, "cross-piece").within(f"cross.{j}")

    def joined(self, top: float) -> Joined:
        """Cross-pieces into legs, links between the frames."""
        thinnest = min((self.thickness, *(c.thickness for c in self.cross)))
        return Joined(self.dowels, thinnest, "frames", self.face)
