"""Four square legs leaning both ways, joined by aprons that lean with them."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Annotated, Literal

from splay.document import Length
from splay.ids import Id
from splay.piece.bounds import CLEAR_MM, Bound
from splay.piece.held import Held
from splay.piece.square import LegTaper, Size, Slope, Stock
from splay.piece.support import SupportBase
from splay.quantity import degrees as deg

LEAST_OVER_ARCH_MM = 25.0
"""Wood left over the arch of an apron (common practice, no source)."""


class ApronedLegs(SupportBase):
    """Four square legs leaning both ways, joined by aprons that lean with them."""

    kind: Literal["aproned_legs"] = "aproned_legs"
    id: Id = ""
    length: Size
    """Over the outer faces of the legs where they meet the top, side to side, mm."""
    width: Size
    """Over the outer faces of the legs where they meet the top, front to back, mm."""
    splay: Slope
    """Lean sideways, seen square from the front, degrees."""
    rake: Slope
    """Lean to front and back, seen square from the side, degrees."""
    face: Stock = 40.0
    """Width of a leg's faces at the top, mm."""
    true_section: bool = True
    """Whether the legs are planed to the aprons' planes (their corners then off 90) or left square."""
    apron: Stock = 80.0
    """Height of the aprons on their face, mm."""
    thickness: Stock = 20.0
    """Thickness of the aprons, mm."""
    setback: Annotated[float, Length(0, 100)] = 4.0
    """Apron's outer face behind the leg's, mm."""
    tenon: Annotated[float, Length(0, 200)] = 20.0
    """Length of the apron's tenons, mm; 0 for none."""
    arch: Annotated[float, Length(0, 600)] = 0.0
    """How far an arc along the aprons' lower edges rises in the middle, mm; 0 for straight ones."""
    taper: LegTaper | None = None
    held: Held | None = None
    allowance: Annotated[float, Length(0, 300)] = 10.0
    """Left on the legs for trimming level, mm."""

    def bounds(self, high: float) -> Iterator[Bound]:
        """Aprons shorter than the legs and thinner, room between two legs."""
        lean = max(self.splay, self.rake)
        yield Bound(
            "apron_tall", "stance", "The aprons are taller than the legs stand.",
            "Make the aprons lower, or raise the height.", self.apron * deg.cos(lean), high - CLEAR_MM,
            "apron",
        )  # fmt: skip
        if self.arch:
            yield Bound(
                "arch_high", "stance", "The arch takes nearly all of the aprons' height in the middle.",
                "Let it rise less, or make the aprons higher.", self.arch,
                self.apron - LEAST_OVER_ARCH_MM, "arch",
            )  # fmt: skip
        yield Bound(
            "apron_thick", "stance", "The aprons are thicker than their legs behind the setback.",
            "Take thinner aprons, thicker legs, or less setback.", self.setback + self.thickness,
            self.face, "thickness",
        )  # fmt: skip
        for size, field in ((self.length, "length"), (self.width, "width")):
            yield Bound(
                "legs_over_table", "stance", "Two legs side by side are wider than the frame is.",
                "Make the frame longer and wider, or its legs thinner.", 2 * self.face, size - CLEAR_MM,
                field,
            )  # fmt: skip
