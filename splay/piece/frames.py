"""Supports made of square stock: frames, a slab leg, legs with aprons."""

from __future__ import annotations

from collections.abc import Mapping
from itertools import pairwise
from typing import Annotated, Any, Literal, Self

from pydantic import BeforeValidator, Field, model_validator
from pydantic_core import PydanticCustomError

from splay.document import Angle, Frozen, Length
from splay.ids import Id
from splay.piece.tops import LEAST_END_MM

Size = Annotated[float, Length(20, 6000)]
Stock = Annotated[float, Length(6, 400)]
Slope = Annotated[float, Angle(0, 45)]


LEAST_STEP_MM = 5.0
"""Places along an edge lie at least this far apart."""


def _rule(field: str, allowed: str, do: str) -> None:
    raise PydanticCustomError("rule", field, {"field": field, "allowed": allowed, "do": do})


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
            _rule("arc", "a piece that lies upright", "Turn it upright, or leave its edge straight.")
        return self

    @property
    def stands(self) -> float:
        """How high it is from its lowest place to its highest as it lies, mm."""
        if self.lies == "flat":
            return self.thickness
        return self.depth + (self.arc.rise if self.arc else 0.0)


class TopScrews(Frozen):
    """Screws from below that hold the top to the parts that lie under it."""

    way: Literal["screws"] = "screws"
    size: Annotated[float, Length(2, 12)] = 4.5
    """A screw over its thread, mm."""
    length: Annotated[float, Length(10, 250)] = 40.0
    """A screw from under its head to its point, mm."""
    head: Annotated[float, Length(4, 40)] = 9.0
    """Over its head, or the washer under it, mm."""
    bite: Annotated[float, Length(3, 150)] = 16.0
    """How far it goes into the top, along itself, mm."""
    slant: Annotated[float, Angle(0, 30)] = 0.0
    """Off the part's own face, degrees: 0 up through it from its lower side, else from its inner side."""
    count: Annotated[int, Field(ge=1, le=8, strict=True)] = 2
    """How many in one part."""
    from_ends: Annotated[float, Length(5, 1000)] = 40.0
    """The outer ones from the ends of the part's upper side, mm."""
    moves: Annotated[float, Length(0, 60)] = 4.0
    """What the top may move over its whole width across the grain, mm: the slots leave it room."""


class TopButtons(Frozen):
    """Buttons that hold the top: blocks screwed to it from below, their tongues in a groove of the parts
    that lie under it."""

    way: Literal["buttons"] = "buttons"
    groove: Annotated[float, Length(3, 25)] = 8.0
    """The groove, wide, mm."""
    deep: Annotated[float, Length(4, 60)] = 10.0
    """The groove, deep, level, mm."""
    drop: Annotated[float, Length(4, 120)] = 12.0
    """From the top's underside down to the groove's upper wall, mm."""
    wide: Annotated[float, Length(12, 150)] = 28.0
    """A button along its part, mm."""
    bite: Annotated[float, Length(3, 150)] = 16.0
    """How far its screw goes into the top, mm."""
    count: Annotated[int, Field(ge=1, le=8, strict=True)] = 2
    """How many at one part."""
    from_ends: Annotated[float, Length(5, 1000)] = 60.0
    """The middles of the outer ones from the ends of the part's upper side, mm."""
    moves: Annotated[float, Length(0, 60)] = 4.0
    """What the top may move over its whole width across the grain, mm: the buttons stand off for it."""


def _screws_unsaid(given: Any) -> Any:
    """Screws where nothing says otherwise, as before there were buttons."""
    return {"way": "screws", **given} if isinstance(given, Mapping) else given


Held = Annotated[
    Annotated[TopScrews | TopButtons, Field(discriminator="way")], BeforeValidator(_screws_unsaid)
]


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


class PlaneFrames(Frozen):
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


class MitredFrames(Frozen):
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
            _rule("level", "at least one dowel, level or plumb", "Add one, or dowel the mitre inside.")
        return self


class SlabLeg(Frozen):
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
                _rule(f"edges.{k + 1}.down", allowed, "Enter the places from the mitre down.")
        for k, one in enumerate(self.edges):
            if one.front + one.back < LEAST_END_MM:
                allowed = f"edges at least {LEAST_END_MM:g} mm apart"
                _rule(f"edges.{k}.front", allowed, "Move the front or the back edge out.")
        return self


class ApronedLegs(Frozen):
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
