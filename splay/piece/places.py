"""Where legs stand on the underside: the ways makers lay them out."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from splay.document import Angle, Frozen, Length
from splay.ids import Id

FEWEST, MOST = 3, 24
LegIds = Annotated[tuple[Id, ...], Field(max_length=100)]
"""The legs' own ids, given where they are missing; those of legs that are not there now are kept."""
Bearing = Annotated[float, Angle(-360, 360)]


class Circle(Frozen):
    """Evenly round a circle."""

    way: Literal["circle"] = "circle"
    count: Annotated[int, Field(ge=FEWEST, le=MOST, strict=True)] = 3
    """How many legs."""
    radius: Annotated[float, Length(10, 3000)]
    """Radius of the circle of leg centres, mm."""
    first: Bearing = 90.0
    """Bearing of leg 1 from the middle, degrees from x towards y; 90 is at the back."""
    legs: LegIds = ()
    """The legs' ids, anticlockwise seen from above, from `first` on."""


class Triangle(Frozen):
    """At the corners of an equal-sided triangle about the middle."""

    way: Literal["triangle"] = "triangle"
    side: Annotated[float, Length(20, 5000)]
    """Leg centre to leg centre, mm."""
    first: Bearing = 90.0
    """Bearing of leg 1 from the middle, degrees from x towards y; 90 is at the back."""
    legs: LegIds = ()
    """The legs' ids, anticlockwise seen from above, from `first` on."""


class Insets(Frozen):
    """Four legs, each set in from the ends and the edges of the top."""

    way: Literal["insets"] = "insets"
    from_ends: Annotated[float, Length(5, 3000)]
    """Leg centre in from the left and right end, mm."""
    from_edges: Annotated[float, Length(5, 3000)]
    """Leg centre in from the front and back edge, mm."""
    legs: LegIds = ()
    """The legs' ids, from the front left corner anticlockwise seen from above."""


class Spot(Frozen):
    """One leg put down freely, with its mirrored partners."""

    x: Annotated[float, Length(-3000, 3000)]
    """To the right of the middle, mm."""
    y: Annotated[float, Length(-3000, 3000)]
    """To the back of the middle, mm."""
    mirror: Literal["none", "sides", "ends", "both"] = "sides"
    """Partners: over the front-back line (sides), the left-right line (ends), both or none."""
    legs: LegIds = ()
    """The ids of the leg itself, and of those over the front-back line, the left-right line and both."""


class Free(Frozen):
    """Legs put down where the maker likes."""

    way: Literal["free"] = "free"
    spots: Annotated[tuple[Spot, ...], Field(min_length=1, max_length=MOST)]
    """The legs put down, each standing for its mirrored partners too."""


Placement = Annotated[Circle | Triangle | Insets | Free, Field(discriminator="way")]
