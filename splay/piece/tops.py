"""Tops: the outline, how thick, which way the grain runs."""

from __future__ import annotations

from typing import Annotated, Literal, Self

import shapely
from pydantic import Field, model_validator
from pydantic_core import PydanticCustomError

from splay.document import Angle, Frozen, Length
from splay.quantity import degrees as deg

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


class DShape(Frozen):
    """A D: straight along the back, square for a while, then half an ellipse to the front."""

    kind: Literal["d"] = "d"
    length: Span
    """Side to side (x), along the straight back, mm."""
    width: Span
    """Front to back (y), mm."""
    straight: Annotated[float, Length(0, 3000)] = 0.0
    """How far the ends run straight forward from the back before the curve begins, mm."""

    @model_validator(mode="after")
    def _curve_left(self) -> Self:
        if self.straight > 0.9 * self.width:
            raise PydanticCustomError(
                "rule",
                "straight",
                {
                    "field": "straight",
                    "allowed": f"at most {0.9 * self.width:g} mm, nine tenths of the width",
                    "do": "Leave some of the width for the curve, or choose a rectangle.",
                },
            )
        return self


class Shield(Frozen):
    """A shield: a bowed back edge, bowed sides running together to a rounded nose in front."""

    kind: Literal["shield"] = "shield"
    length: Span
    """Side to side (x) between the back corners, mm."""
    width: Span
    """Middle of the back edge's chord to the nose (y), before the nose is rounded, mm."""
    bow: Annotated[float, Length(0, 400)] = 20.0
    """How far each of the three edges bows out of its straight line, mm."""
    corner: Annotated[float, Length(0, 1000)] = 20.0
    """Radius of the three corners, mm."""


class Corner(Frozen):
    """One corner of a drawn outline."""

    x: Annotated[float, Length(-3000, 3000)]
    """To the right of the middle, mm."""
    y: Annotated[float, Length(-3000, 3000)]
    """To the back of the middle, mm."""
    sharp: bool = False
    """Whether a curve through the corners breaks here; between two such corners it runs straight."""


class Photo(Frozen):
    """Where a photograph of the wood, taken square from above, lies under a drawn outline.

    The picture itself is kept beside the piece; this is how big it is laid and where.
    """

    width: Annotated[float, Length(20, 8000)]
    """What it shows from its left edge to its right, mm on the wood."""
    x: Annotated[float, Length(-4000, 4000)] = 0.0
    """Its middle to the right of the middle of the piece, mm."""
    y: Annotated[float, Length(-4000, 4000)] = 0.0
    """Its middle to the back of the middle of the piece, mm."""
    turn: Annotated[float, Angle(-360, 360)] = 0.0
    """Turned so far counter-clockwise, degrees."""


class Drawn(Frozen):
    """An outline drawn over the slab or slice itself: its corners in order, straight or smoothed."""

    kind: Literal["drawn"] = "drawn"
    corners: Annotated[tuple[Corner, ...], Field(min_length=3, max_length=120)]
    """In order round the edge, either way round; the middle of the piece is (0, 0)."""
    smooth: bool = False
    """Whether a curve runs through the corners, as bark does, instead of straight lines."""
    photo: Photo | None = None
    """A photograph to draw over, where one was laid."""

    @model_validator(mode="after")
    def _closes(self) -> Self:
        ring = shapely.Polygon([(c.x, c.y) for c in self.corners])
        if not ring.is_valid or ring.area < 400.0:
            allowed = "an outline that encloses wood and does not cross itself"
        elif not ring.contains(shapely.Point(0.0, 0.0)):
            allowed = "an outline round the middle of the piece (0, 0)"
        else:
            return self
        do = "Move the corners so that they run once round the middle."
        detail = {"field": "corners", "allowed": allowed, "do": do}
        raise PydanticCustomError("rule", "corners", detail)


Outline = Annotated[
    Round | Oval | Rectangle | RoundedTriangle | DShape | Shield | Drawn,
    Field(discriminator="kind"),
]


class Trough(Frozen):
    """A hollow across one way: an arc in section, the same all along."""

    way: Literal["trough"] = "trough"
    across: Literal["length", "width"] = "width"
    """The way the arc spans: side to side (length) or front to back (width)."""
    chord: Annotated[float, Length(20, 6000)]
    """Width of the hollow at the surface, mm."""
    depth: Annotated[float, Length(0.5, 200)]
    """Depth in the middle, mm."""
    strips: bool = False
    """Whether each strip gets its own part of the hollow before they are glued together."""


class Dish(Frozen):
    """A hollow both ways: an arc in every section through the middle."""

    way: Literal["dish"] = "dish"
    length: Annotated[float, Length(20, 6000)]
    """Side to side at the surface, mm."""
    width: Annotated[float, Length(20, 6000)]
    """Front to back at the surface, mm."""
    depth: Annotated[float, Length(0.5, 200)]
    """Depth in the middle, mm."""
    strips: bool = False
    """Whether each strip gets its own part of the hollow before they are glued together."""


END_MM = 0.01
"""Corners this level with each other, along the length, lie on one straight end."""
LEAST_END_MM = 20.0
"""An end is at least this wide."""


def straight_end(outline: Outline, end: Literal["left", "right"]) -> tuple[float, float, float] | None:
    """The straight line square across that an outline ends in at the left or the right: how far out it
    lies (x), and its front and back ends (y), mm; None where the outline has none there."""
    sign = -1.0 if end == "left" else 1.0
    if isinstance(outline, Rectangle):
        return sign * outline.length / 2, -outline.width / 2, outline.width / 2
    if not isinstance(outline, Drawn):
        return None
    corners = outline.corners
    far = max(sign * c.x for c in corners)
    on = [k for k, c in enumerate(corners) if far - sign * c.x < END_MM]
    if len(on) != 2 or (on[1] - on[0]) % len(corners) not in (1, len(corners) - 1):
        return None
    one, two = (corners[k] for k in on)
    if outline.smooth and not (one.sharp and two.sharp):
        return None
    low, high = sorted((one.y, two.y))
    return (sign * far, low, high) if high - low >= LEAST_END_MM else None


Hollow = Annotated[Trough | Dish, Field(discriminator="way")]


class EdgeShape(Frozen):
    """What is done to an edge all round: it takes room from the face."""

    way: Literal["square", "round_over", "chamfer"] = "square"
    size: Annotated[float, Length(0, 150)] = 0.0
    """Radius of a round-over, or how far a chamfer comes in on the face, mm."""
    angle: Annotated[float, Angle(10, 80)] = 45.0
    """Slope of a chamfer off the face, degrees."""

    @property
    def inward(self) -> float:
        """How far it comes in on the face, mm; 0 where it is left square, whatever its size was before."""
        return 0.0 if self.way == "square" else self.size

    @property
    def down(self) -> float:
        """How far it comes down the side, mm."""
        return self.inward * (deg.tan(self.angle) if self.way == "chamfer" else 1.0)


class HandHold(Frozen):
    """A slot right through the top to lift it by: a row of holes, its ends round."""

    x: Annotated[float, Length(-3000, 3000)] = 0.0
    """Its middle to the right of the middle, mm."""
    y: Annotated[float, Length(-3000, 3000)] = 0.0
    """Its middle to the back of the middle, mm."""
    length: Annotated[float, Length(20, 400)] = 105.0
    """Over all, mm."""
    width: Annotated[float, Length(8, 80)] = 30.0
    """Across, which is the bit's diameter, mm."""
    turn: Annotated[float, Angle(-180, 180)] = 0.0
    """Bearing of its length, degrees from x towards y."""

    @model_validator(mode="after")
    def _longer_than_wide(self) -> Self:
        if self.length < self.width:
            detail = {
                "field": "length",
                "allowed": f"a length of at least its width, {self.width:g} mm",
                "do": "Make it longer or narrower.",
            }
            raise PydanticCustomError("rule", "length", detail)
        return self


class Gap(Frozen):
    """What is left open between two boards that lie side by side and move each for itself."""

    width: Annotated[float, Length(0.5, 100)] = 6.0
    """How wide, mm."""
    stays: Literal["middle", "outer", "inner"] = "middle"
    """Which line of each board stays where it is as the wood moves: the one its fixed screws are nearest
    to. Its middle, its outer edge or the edge at the gap."""


class Top(Frozen):
    """The top: outline, full thickness, grain, and what is shaped away."""

    outline: Outline
    thickness: Annotated[float, Length(6, 400)]
    """Full thickness, mm."""
    left_on: Annotated[float, Length(0, 60)] = 0.0
    """Wood left on the upper face over that until the legs' holes are bored, and planed off then, mm."""
    grain: Annotated[float, Angle(0, 180)] = 0.0
    """Bearing of the long grain, degrees from x towards y; 0 runs side to side."""
    boards: Annotated[tuple[Annotated[float, Length(5, 3000)], ...], Field(max_length=60)] = ()
    """Widths of the boards or strips it is glued from, across the grain, from the right of the
    grain's bearing to its left, mm; empty for one piece."""
    gap: Gap | None = None
    """The gap between two boards that are not glued to each other."""
    hollow: Hollow | None = None
    upper_edge: EdgeShape = EdgeShape()
    lower_edge: EdgeShape = EdgeShape()
    hand_holds: Annotated[tuple[HandHold, ...], Field(max_length=4)] = ()
    """Slots right through it to lift the piece by."""
    bark: bool = False
    """Whether the edge is left as the tree grew it: nothing is measured from it."""

    @model_validator(mode="after")
    def _two_boards(self) -> Self:
        if self.gap is not None and len(self.boards) != 2:
            detail = {
                "field": "boards",
                "allowed": "two boards, since there is a gap between them",
                "do": "Give the widths of two boards, or take the gap away first.",
            }
            raise PydanticCustomError("rule", "boards", detail)
        return self

    @property
    def bored_thick(self) -> float:
        """How thick it is when the legs' holes are bored, mm."""
        return self.thickness + self.left_on
