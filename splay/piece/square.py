"""What is made of square stock, whatever it is part of: pieces between, their joints and tapers."""

from __future__ import annotations

from typing import Annotated, Literal, Self

from pydantic import Field, model_validator

from splay.document import Angle, Frozen, Length, broken
from splay.piece.bounds import CLEAR_MM, Bound

Size = Annotated[float, Length(20, 6000)]
Stock = Annotated[float, Length(6, 400)]
Slope = Annotated[float, Angle(0, 45)]


class Dowels(Frozen):
    """Dowels or loose tenons in a butt joint."""

    way: Literal["dowel", "loose_tenon"] = "dowel"
    size: Annotated[float, Length(3, 60)] = 10.0
    """Diameter of a dowel, thickness of a loose tenon, mm."""
    width: Annotated[float, Length(3, 400)] = 30.0
    """Width of a loose tenon over its rounded edges, mm; of no account for dowels."""
    depth: Annotated[float, Length(3, 200)] = 25.0
    """Depth in each of the two parts, mm."""
    count: Annotated[int, Field(ge=1, le=12, strict=True)] = 2
    """How many in one joint."""
    gap: Annotated[float, Length(0, 10)] = 1.0
    """Left over at each end for glue, mm."""
    driven: bool = False
    """Whether dowels are driven from outside, right through what an end joins, when the joint is glued. Of
    no account for loose tenons, and in a mitre."""


class Arc(Frozen):
    """An arc sawn in a piece between legs: its lower edge, or the whole of it bent like a bow."""

    rise: Annotated[float, Length(3, 600)] = 30.0
    """How far the lower edge rises in the middle over the line between its ends, mm."""
    upper: Literal["straight", "arc"] = "straight"
    """Whether the upper edge runs straight, or along the same arc, as far off all the way."""


class CrossPiece(Frozen):
    """A level piece between two leaning parts."""

    drop: Annotated[float, Length(0, 2000)] = 0.0
    """Plumb, from the underside of the top down to its upper edge, mm; 0 is flush."""
    depth: Stock = 40.0
    """Height on its face, mm; of one sawn to an arc in its middle."""
    thickness: Stock = 25.0
    """Through its face, mm."""
    offset: Annotated[float, Length(-2000, 2000)] = 0.0
    """Its middle in front of (-) or behind (+) the middle of the support, mm."""
    lies: Literal["upright", "flat"] = "upright"
    """On its edge like a rail, or flat like a tread: then `depth` runs front to back."""
    arc: Arc | None = None
    """The arc it is sawn to, if it is."""

    @model_validator(mode="after")
    def _arc_on_edge(self) -> Self:
        if self.arc is not None and self.lies == "flat":
            broken("arc", "a piece that lies upright", "Turn it upright, or leave its edge straight.")
        return self

    @property
    def stands(self) -> float:
        """How high it is from its lowest place to its highest as it lies, mm."""
        if self.lies == "flat":
            return self.thickness
        return self.depth + (self.arc.rise if self.arc else 0.0)

    @property
    def across(self) -> float:
        """How far it goes from front to back, mm."""
        return self.depth if self.lies == "flat" else self.thickness

    def low(self, high: float, named: str) -> Bound:
        """It against the floor, which is so far below what its drop is from, mm."""
        return Bound(
            "piece_low", "stance", f"The {named} reaches below the floor.",
            "Set it higher, or make it shallower.", self.drop + self.stands, high - CLEAR_MM, "drop",
        )  # fmt: skip

    def beside(self, first: float, last: float) -> Bound:
        """It against the boards it lies between: from where to where front to back they go there, mm."""
        middle = (first + last) / 2.0
        return Bound(
            "rail_outside", "stance", "A piece between the boards lies past their edges.",
            "Move it nearer the middle, or make the boards wider.",
            abs(self.offset - middle) + self.across / 2.0, last - middle, "offset",
        )  # fmt: skip


class LegTaper(Frozen):
    """How a square leg grows thinner towards its foot, and on which of its sides."""

    sides: Literal["inside", "inner", "outer", "all"] = "inside"
    """Its inner edge and its inner face, one edge alone, or all four sides."""
    begins: Annotated[float, Length(0, 3000)] = 60.0
    """From the leg's upper end down the corner it is drawn from, mm."""
    foot: Stock = 22.0
    """Width left at the foot, between a tapered side and the one opposite, mm."""


class EdgeTaper(Frozen):
    """How a leg of a mitred frame grows thinner towards its foot: on its edges, its faces stay flat."""

    sides: Literal["inner", "outer", "both"] = "inner"
    """The edge that looks to the middle, the one that looks out, or both."""
    begins: Annotated[float, Length(0, 3000)] = 60.0
    """From the mitre down the corner it is drawn from, mm."""
    foot: Stock = 30.0
    """Width left at the foot, edge to edge, mm."""
