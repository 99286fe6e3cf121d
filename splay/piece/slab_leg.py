"""One end of a slab mitred down to the floor."""

from __future__ import annotations

from itertools import pairwise
from typing import Annotated, Literal, Self

from pydantic import Field, model_validator

from splay.document import Frozen, Length, broken
from splay.ids import Id
from splay.piece.square import Dowels, Slope
from splay.piece.support import Joined, SupportBase
from splay.piece.tops import LEAST_END_MM

LEAST_STEP_MM = 5.0
"""Places along an edge lie at least this far apart."""


class EdgeSpot(Frozen):
    """How far a slab leg's own edges lie from the seat's middle line at one place down its show face."""

    down: Annotated[float, Length(5, 3000)]
    """From the mitre's corner down the show face, mm."""
    front: Annotated[float, Length(-2000, 2000)]
    """In front of the middle line, mm."""
    back: Annotated[float, Length(-2000, 2000)]
    """Behind the middle line, mm."""


class OutsideDowels(Frozen):
    """Dowels driven from outside once the mitre is glued: some level, through the leg into the top's end,
    some plumb, down through the top into the leg."""

    size: Annotated[float, Length(4, 40)] = 12.0
    """Diameter, mm."""
    level: Annotated[int, Field(ge=0, le=8, strict=True)] = 2
    """How many run level."""
    plumb: Annotated[int, Field(ge=0, le=8, strict=True)] = 3
    """How many run plumb."""
    past: Annotated[float, Length(5, 200)] = 40.0
    """How far each goes past the mitre, mm."""

    @model_validator(mode="after")
    def _any(self) -> Self:
        if self.level + self.plumb == 0:
            broken("level", "at least one dowel, level or plumb", "Add one, or dowel the mitre inside.")
        return self


class SlabLeg(SupportBase):
    """One end of the slab mitred down to the floor."""

    kind: Literal["slab_leg"] = "slab_leg"
    id: Id = ""
    end: Literal["left", "right"] = "left"
    """The end of the top it stands at."""
    splay: Slope
    """How far it leans outward, degrees."""
    edges: Annotated[tuple[EdgeSpot, ...], Field(max_length=12)] = ()
    """Where its edges run below the mitre, from there down, as the tree grew them; the last goes on to the
    floor. Empty where they run straight on from the top's end."""
    dowels: Dowels = Dowels(size=10.0, depth=16.0, count=4)
    outside: OutsideDowels | None = None
    """Dowels from outside, in place of those inside the mitre."""
    allowance: Annotated[float, Length(0, 300)] = 10.0
    """Left on its length for trimming level, mm."""

    @model_validator(mode="after")
    def _edges_run_down(self) -> Self:
        for k, (one, two) in enumerate(pairwise(self.edges)):
            if two.down - one.down < LEAST_STEP_MM:
                allowed = f"further down than the place before it, {one.down:g} mm, by {LEAST_STEP_MM:g} mm"
                broken(f"edges.{k + 1}.down", allowed, "Enter the places from the mitre down.")
        for k, one in enumerate(self.edges):
            if one.front + one.back < LEAST_END_MM:
                allowed = f"edges at least {LEAST_END_MM:g} mm apart"
                broken(f"edges.{k}.front", allowed, "Move the front or the back edge out.")
        return self

    def joined(self, top: float) -> Joined | None:
        """Its mitre, if that is not dowelled from outside."""
        if self.outside is not None:
            return None
        return Joined(self.dowels, top, "slab's mitre", top, station="legs")
