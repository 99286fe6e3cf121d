"""The piece as a whole: version 1 of the file, read and written."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Annotated, Any, Literal, Self

from pydantic import Field, TypeAdapter, model_validator
from pydantic_core import PydanticCustomError

from splay.document import Frozen, Length, read_document
from splay.errors import BadInput, Fault, shorten
from splay.piece.angles import Lean
from splay.piece.frames import ApronedLegs, BoardSides, MitredFrames, PlaneFrames, SlabLeg
from splay.piece.legs import StakedLegs
from splay.piece.levelling import Levelling
from splay.piece.members import MOST_MEMBERS, Member, OnMember, Stretcher
from splay.piece.places import MOST
from splay.piece.tops import Rectangle, Top
from splay.quantity import Bare

FORMAT = "proud-rake-piece"
VERSION = 1
Use = Literal["stool", "bench", "shoe_seat", "child", "high_stool", "table", "other"]
Name = Annotated[str, Field(min_length=1, max_length=120)]
Support = Annotated[
    StakedLegs | PlaneFrames | MitredFrames | BoardSides | SlabLeg | ApronedLegs,
    Field(discriminator="kind"),
]


class Trial(Frozen):
    """A way of placing or leaning the legs that was tried, and why it was left."""

    name: Annotated[str, Field(min_length=1, max_length=120)]
    why: Annotated[str, Field(max_length=1000)] = ""
    """Why it was left."""
    supports: Annotated[tuple[Support, ...], Field(min_length=1, max_length=8)]
    """The supports as they were then."""


class Piece(Frozen):
    """Everything the maker chose about one piece; lengths in mm, angles in degrees."""

    format: Literal["proud-rake-piece"] = "proud-rake-piece"
    version: Literal[1] = 1
    name: Name
    use: Use = "stool"
    height: Annotated[float, Length(60, 3000)]
    """Plumb height of the middle of the sitting surface above the floor, mm."""
    lean: Lean = Lean()
    top: Top
    supports: Annotated[tuple[Support, ...], Field(min_length=1, max_length=8)]
    members: Annotated[tuple[Member, ...], Field(max_length=MOST_MEMBERS)] = ()
    """Stretchers, footrests and ropes, each numbered from 1 in this order."""
    trials: Annotated[tuple[Trial, ...], Field(max_length=40)] = ()
    """Trial positions kept with why they were left."""
    levelling: Levelling = Levelling()
    """How its feet are brought into one plane."""
    notes: Annotated[str, Field(max_length=4000)] = ""

    @model_validator(mode="after")
    def _stands_clear(self) -> Self:
        if self.height <= self.top.thickness:
            _break(
                "height",
                f"a height above the top's own thickness, {self.top.thickness:g} mm",
                "Raise the height or thin the top.",
            )
        legs = sum(leg_count(support) for support in self.supports)
        if legs > MOST:
            _break("supports", f"at most {MOST} legs; these are {legs}", "Take some away.")
        self._slab_has_an_end()
        self._members_have_ends(legs)
        return self

    def _slab_has_an_end(self) -> None:
        ends = [support.end for support in self.supports if isinstance(support, SlabLeg)]
        if ends and not isinstance(self.top.outline, Rectangle):
            _break(
                "top.outline",
                "a rectangle, for a slab leg wants a straight end to be mitred to",
                "Make the top a rectangle, or take the slab leg away.",
            )
        if len(set(ends)) < len(ends):
            _break("supports", "one slab leg at an end", "Turn one of them to the other end.")

    def _members_have_ends(self, legs: int) -> None:
        for k, member in enumerate(self.members):
            if isinstance(member, Stretcher):
                for e, end in enumerate(member.ends):
                    self._end(f"members.{k}.ends.{e}", end, k, legs)
                if member.ends[0] == member.ends[1]:
                    do = "Choose another leg for one of its ends."
                    _break(f"members.{k}.ends.1", "two ends at two places", do)
                continue
            for e, number in enumerate(member.legs):
                if number > legs:
                    _no_leg(f"members.{k}.legs.{e}", number, legs)

    def _end(self, field: str, end: object, member: int, legs: int) -> None:
        if isinstance(end, OnMember):
            known = 1 <= end.member <= member and isinstance(self.members[end.member - 1], Stretcher)
            if not known:
                _break(
                    f"{field}.member",
                    f"a stretcher that stands before this one in the list, 1 to {member}",
                    "Choose an earlier stretcher, or a leg.",
                )
        elif getattr(end, "leg", 0) > legs:
            _no_leg(f"{field}.leg", getattr(end, "leg", 0), legs)


def _no_leg(field: str, number: int, legs: int) -> None:
    allowed = f"a leg there is, 1 to {legs}" if legs else "legs set into the top; this piece has none"
    _break(field, f"{allowed}; there is no leg {number}", "Choose another leg, or take the member away.")


def leg_count(support: Support) -> int:
    """How many staked legs a support stands for, mirrored partners included; frames have none."""
    if not isinstance(support, StakedLegs):
        return 0
    placement = support.placement
    if placement.way == "circle":
        return placement.count
    if placement.way == "free":
        return sum(_copies(s.x, s.y, s.mirror) for s in placement.spots)
    return 3 if placement.way == "triangle" else 4


def _copies(x: float, y: float, mirror: str) -> int:
    twice_x = mirror in {"sides", "both"} and x != 0
    twice_y = mirror in {"ends", "both"} and y != 0
    return (2 if twice_x else 1) * (2 if twice_y else 1)


def _break(field: str, allowed: str, do: str) -> None:
    raise PydanticCustomError("rule", "piece", {"field": field, "allowed": allowed, "do": do})


def read_piece(given: object, bare: Bare = "metric", at: str = "") -> Piece:
    """The piece in a JSON document; BadInput with one fault for each wrong field.

    Texts without a unit are read in `bare`; numbers are millimetres and degrees.
    """
    if isinstance(given, Mapping):
        _check_version(given, at)
    return read_document(Piece, given, bare, at)


def _check_version(given: Mapping[str, Any], at: str) -> None:
    """An unknown version is one fault of its own, not a hundred about its fields."""
    version = given.get("version", VERSION)
    if version != VERSION or isinstance(version, bool):
        fault = Fault(
            f"{at}.version" if at else "version",
            shorten(version),
            f"version {VERSION}",
            "This file comes from another version of the program: open it there and save it anew.",
        )
        raise BadInput(fault)


def write_piece(piece: Piece) -> dict[str, Any]:
    """The piece as a JSON document: numbers in mm and degrees, exact for every fraction of an inch."""
    return piece.model_dump(mode="json")


def piece_schema() -> dict[str, Any]:
    """JSON Schema (draft 2020-12) of the piece file."""
    schema: dict[str, Any] = TypeAdapter(Piece).json_schema()
    return {"$schema": "https://json-schema.org/draft/2020-12/schema", **schema}
