"""A rail mitred to a leg at each end; two such frames cross in half laps."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Annotated, Literal

from splay.document import Angle, Length
from splay.ids import Id
from splay.piece.bounds import CLEAR_MM, Bound
from splay.piece.held import Held
from splay.piece.square import Dowels, EdgeTaper, Size, Slope, Stock
from splay.piece.support import Joined, SupportBase


class MitredFrames(SupportBase):
    """A rail mitred to a leg at each end; two such frames cross in half laps."""

    kind: Literal["mitred_frames"] = "mitred_frames"
    id: Id = ""
    length: Size
    """Over the upper corners of one frame, mm."""
    splay: Slope
    """How far the legs lean outward, degrees."""
    rail: Stock = 50.0
    """Depth of the rail, mm."""
    leg: Stock = 50.0
    """Width of the leg's face, mm."""
    thickness: Stock = 32.0
    """Thickness of rails and legs, mm."""
    first: Annotated[float, Angle(-360, 360)] = 45.0
    """Bearing of the first frame, degrees from x towards y."""
    crossing: Annotated[float, Angle(30, 150)] = 90.0
    """Angle between the two frames, degrees."""
    frames: Literal[1, 2] = 2
    """One frame alone, or two that cross."""
    taper: EdgeTaper | None = None
    held: Held | None = None
    dowels: Dowels = Dowels(way="loose_tenon", size=8.0, width=25.0, depth=18.0, count=1)
    allowance: Annotated[float, Length(0, 300)] = 10.0
    """Left on the legs for trimming level, mm."""

    def bounds(self, high: float) -> Iterator[Bound]:
        """A rail above the floor, and some of it between its legs."""
        yield Bound(
            "rail_low", "stance", "The rail is deeper than the base is high: it stands on the floor.",
            "Take a shallower rail, or raise it.", self.rail, high - CLEAR_MM, "rail",
        )  # fmt: skip
        yield Bound(
            "legs_meet_rail", "stance", "Both legs of a frame are wider than its rail is long.",
            "Make the frame longer, or its legs narrower.", 2 * self.leg, self.length, "leg",
        )  # fmt: skip

    def joined(self, top: float) -> Joined:
        """Mitres."""
        return Joined(self.dowels, self.thickness, "mitres", min(self.rail, self.leg), mitred=True)
