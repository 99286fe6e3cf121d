"""The piece as a whole: version 1 of the file, read and written."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Annotated, Any, Literal, Self

from pydantic import Field, TypeAdapter, model_validator
from pydantic_core import PydanticCustomError

from splay.document import Frozen, Length, read_document
from splay.errors import BadInput, Fault, shorten
from splay.piece.angles import Lean
from splay.piece.legs import StakedLegs
from splay.piece.places import FEWEST, MOST
from splay.piece.tops import Top
from splay.quantity import Bare

FORMAT = "proud-rake-piece"
VERSION = 1
Use = Literal["stool", "bench", "shoe_seat", "child", "high_stool", "table", "other"]
Name = Annotated[str, Field(min_length=1, max_length=120)]


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
    supports: Annotated[tuple[StakedLegs, ...], Field(min_length=1, max_length=8)]
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
        if not FEWEST <= legs <= MOST:
            _break(
                "supports",
                f"{FEWEST} to {MOST} legs; these are {legs}",
                "Add legs or take some away.",
            )
        return self


def leg_count(support: StakedLegs) -> int:
    """How many legs a support stands for, mirrored partners included."""
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
