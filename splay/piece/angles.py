"""How a leg's lean may be given, and the lean of the whole piece."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from splay.document import Angle, Frozen, Length

MOST_LEAN_DEG = 60.0
Tilt = Annotated[float, Angle(-MOST_LEAN_DEG, MOST_LEAN_DEG)]


class SplayRake(Frozen):
    """By the two leans makers see from the front and from the side, both positive outward."""

    by: Literal["splay_rake"] = "splay_rake"
    splay: Tilt
    """Lean sideways off the top's normal seen from the front, degrees."""
    rake: Tilt
    """Lean to front or back off the top's normal seen from the side, degrees."""


class Resultant(Frozen):
    """By the true lean and the direction in plan in which the leg leans."""

    by: Literal["resultant"] = "resultant"
    resultant: Annotated[float, Angle(0, MOST_LEAN_DEG)]
    """True lean off the top's normal, degrees."""
    sightline: Annotated[float, Angle(-360, 360)] = 0.0
    """Angle of the sightline from the line named by `measured_from`, degrees."""
    measured_from: Literal["side", "centre", "out", "bearing"] = "out"
    """side: from the left-right line, outward; centre: from the front-back line, outward;
    out: from the line straight out from the middle, counter-clockwise; bearing: from x, the
    direction itself."""


class UnderRim(Frozen):
    """The middle of the foot plumb under the rim, straight out from the middle of the top."""

    by: Literal["under_rim"] = "under_rim"


class AsWide(Frozen):
    """The outsides of the feet plumb under the top's own extent: it stands as wide as its top."""

    by: Literal["as_wide"] = "as_wide"


class Footprint(Frozen):
    """The outsides of the feet on a given size; on a circle `width` is the ring round them."""

    by: Literal["footprint"] = "footprint"
    width: Annotated[float, Length(20, 8000)]
    """Over the outsides of the feet, side to side, mm (on a circle: across the ring)."""
    depth: Annotated[float, Length(20, 8000)]
    """Over the outsides of the feet, front to back, mm (on a circle: not used)."""


Spec = Annotated[SplayRake | Resultant | UnderRim | AsWide | Footprint, Field(discriminator="by")]


class Lean(Frozen):
    """The sitting surface against the floor: how much it falls, and which way."""

    fall: Annotated[float, Angle(0, 30)] = 0.0
    """Fall of the sitting surface, degrees."""
    toward: Annotated[float, Angle(0, 360)] = 90.0
    """Bearing towards which it falls, degrees from x towards y; 90 is to the back."""
