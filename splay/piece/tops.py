"""Tops: the outline, how thick, which way the grain runs."""

from __future__ import annotations

from typing import Annotated, Literal, Self

from pydantic import Field, model_validator
from pydantic_core import PydanticCustomError

from splay.document import Angle, Frozen, Length

Span = Annotated[float, Length(50, 6000)]


class Round(Frozen):
    """A round top."""

    kind: Literal["round"] = "round"
    diameter: Span
    """Across, mm."""


class Oval(Frozen):
    """An ellipse with its axes along x and y."""

    kind: Literal["oval"] = "oval"
    length: Span
    """Side to side (x), mm."""
    width: Span
    """Front to back (y), mm."""


class Rectangle(Frozen):
    """A rectangle, its corners rounded to a radius or left sharp."""

    kind: Literal["rectangle"] = "rectangle"
    length: Span
    """Side to side (x), mm."""
    width: Span
    """Front to back (y), mm."""
    corner: Annotated[float, Length(0, 3000)] = 0.0
    """Radius of the corners, mm."""

    @model_validator(mode="after")
    def _corner_fits(self) -> Self:
        most = min(self.length, self.width) / 2
        if self.corner > most:
            raise PydanticCustomError(
                "rule",
                "corner",
                {
                    "field": "corner",
                    "allowed": f"a corner radius of at most {most:g} mm, half the shorter side",
                    "do": "Make the corner radius smaller.",
                },
            )
        return self


class RoundedTriangle(Frozen):
    """Arcs about the corners of an equal-sided triangle: as wide as 2 arc - side in every way."""

    kind: Literal["rounded_triangle"] = "rounded_triangle"
    side: Span
    """Side of the triangle of the arcs' centres, mm."""
    arc: Span
    """Radius of the long arcs, each struck from the far corner, mm; at least the side."""
    first: Annotated[float, Angle(0, 360)] = 90.0
    """Bearing of one corner from the middle, degrees from x towards y; 90 points to the back."""

    @model_validator(mode="after")
    def _arc_reaches(self) -> Self:
        if self.arc < self.side:
            raise PydanticCustomError(
                "rule",
                "arc",
                {
                    "field": "arc",
                    "allowed": f"an arc of at least the side, {self.side:g} mm",
                    "do": "Make the arc longer or the triangle smaller.",
                },
            )
        return self


Outline = Annotated[Round | Oval | Rectangle | RoundedTriangle, Field(discriminator="kind")]


class Top(Frozen):
    """The top: outline, full thickness, grain."""

    outline: Outline
    thickness: Annotated[float, Length(6, 400)]
    """Full thickness, mm."""
    grain: Annotated[float, Angle(0, 180)] = 0.0
    """Bearing of the long grain, degrees from x towards y; 0 runs side to side."""
