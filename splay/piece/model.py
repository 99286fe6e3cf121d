"""The piece as a whole: version 2 of the file, read and written; earlier ones are brought up to it."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import replace
from typing import Annotated, Any, Literal, Self

from pydantic import Field, TypeAdapter, ValidationInfo, model_validator

from splay.document import Frozen, Length, Plain, broken, current, read_document
from splay.errors import BadInput
from splay.labelled import labelled
from splay.paths import inside
from splay.piece.angles import Lean
from splay.piece.aproned_legs import ApronedLegs
from splay.piece.board_sides import BoardSides, LowerTread
from splay.piece.ids import with_ids
from splay.piece.labels import LABELS, TITLES
from splay.piece.legs import StakedLegs
from splay.piece.levelling import Levelling
from splay.piece.lines import as_typed
from splay.piece.members import MOST_MEMBERS, Member, OnMember, Stretcher
from splay.piece.mitred_frames import MitredFrames
from splay.piece.naming import called
from splay.piece.places import MOST, Placement
from splay.piece.plane_frames import PlaneFrames
from splay.piece.slab_leg import SlabLeg
from splay.piece.support import Joined
from splay.piece.tops import Top, straight_end
from splay.piece.underfoot import Underfoot
from splay.piece.upgrade import STEPS
from splay.quantity import Bare

FORMAT = "proud-rake-piece"
VERSION = 2
MOST_MADE = 60
"""As many like pieces as one document stands for."""
Use = Literal["stool", "bench", "shoe_seat", "child", "high_stool", "table", "other"]
Name = Annotated[str, Field(min_length=1, max_length=120), Plain]
Support = Annotated[
    StakedLegs | PlaneFrames | MitredFrames | BoardSides | SlabLeg | ApronedLegs,
    Field(discriminator="kind"),
]


class Trial(Frozen):
    """A way of placing or leaning the legs that was tried, and why it was left."""

    name: Name
    why: Annotated[str, Field(max_length=1000)] = ""
    """Why it was left."""
    supports: Annotated[tuple[Support, ...], Field(min_length=1, max_length=8)]
    """The supports as they were then."""


class Piece(Frozen):
    """Everything the maker chose about one piece; lengths in mm, angles in degrees."""

    format: Literal["proud-rake-piece"] = "proud-rake-piece"
    version: Literal[2] = 2
    name: Name
    use: Use = "stool"
    make: Annotated[int, Field(ge=1, le=MOST_MADE)] = 1
    """How many of it are made: all alike as chosen, each read by itself."""
    height: Annotated[float, Length(60, 3000)]
    """Plumb height of the middle of the sitting surface above the floor, mm."""
    lean: Lean = Lean()
    underfoot: Underfoot | None = None
    """What is put under the feet at last; its thickness is part of the height. None for bare feet."""
    top: Top
    supports: Annotated[tuple[Support, ...], Field(min_length=1, max_length=8)]
    members: Annotated[tuple[Member, ...], Field(max_length=MOST_MEMBERS)] = ()
    """Stretchers, footrests and ropes, shown numbered from 1 in this order."""
    trials: Annotated[tuple[Trial, ...], Field(max_length=40)] = ()
    """Trial positions kept with why they were left."""
    levelling: Levelling = Levelling()
    """How its feet are brought into one plane."""
    notes: Annotated[str, Field(max_length=4000)] = ""

    @property
    def stands(self) -> float:
        """The height it has on its sawn feet, before anything is put under them, mm."""
        return self.height - (self.underfoot.thickness if self.underfoot else 0.0)

    def staked(self) -> Iterator[tuple[int, StakedLegs]]:
        """Each set of legs that ends in the top, by its index among the supports."""
        for index, support in enumerate(self.supports):
            if isinstance(support, StakedLegs):
                yield index, support

    def slab_legs(self) -> Iterator[tuple[int, SlabLeg]]:
        """Each end of the slab that is mitred down to the floor, by its index among the supports."""
        for index, support in enumerate(self.supports):
            if isinstance(support, SlabLeg):
                yield index, support

    def treads(self) -> Iterator[tuple[int, BoardSides, LowerTread]]:
        """Each lower tread, with the sides that carry it, by their index among the supports."""
        for index, support in enumerate(self.supports):
            if isinstance(support, BoardSides) and support.lower is not None:
                yield index, support, support.lower

    def joined(self) -> Iterator[tuple[int, Joined]]:
        """Each support, by its index, whose sawn ends are joined by dowels or loose tenons."""
        for index, support in enumerate(self.supports):
            joined = support.joined(self.top.thickness)
            if joined is not None:
                yield index, joined

    @model_validator(mode="before")
    @classmethod
    def _named(cls, given: Any, info: ValidationInfo) -> Any:
        return (
            with_ids(given, (info.context or {}).get("salt", "")) if isinstance(given, Mapping) else given
        )

    @model_validator(mode="after")
    def _stands_clear(self) -> Self:
        if self.stands <= self.top.thickness:
            lost = self.height - self.stands
            under = f" and what is under the feet, {lost:g} mm" if lost else ""
            broken(
                "height",
                f"a height above the top's own thickness, {self.top.thickness:g} mm{under}",
                "Raise the height or thin the top.",
            )
        legs = [id for support in self.supports for id in leg_ids(support)]
        if len(legs) > MOST:
            broken("supports", f"at most {MOST} legs; these are {len(legs)}", "Take some away.")
        self._slab_has_an_end()
        self._members_have_ends(legs)
        return self

    def _slab_has_an_end(self) -> None:
        ends = [leg.end for _, leg in self.slab_legs()]
        for end in ends:
            if straight_end(self.top.outline, end) is None:
                broken(
                    "top.outline",
                    f"a straight end at the {end}, square across, for the slab leg to be mitred to",
                    "Draw its last two corners level with each other, both of them sharp; or make the top "
                    "a rectangle, or take the slab leg away.",
                )
        if len(set(ends)) < len(ends):
            broken("supports", "one slab leg at an end", "Turn one of them to the other end.")

    def _members_have_ends(self, legs: list[str]) -> None:
        sticks: list[str] = []
        for k, member in enumerate(self.members):
            if not isinstance(member, Stretcher):
                for e, leg in enumerate(member.legs):
                    if leg not in legs:
                        _no_leg(f"members.{k}.legs.{e}", leg, legs)
                continue
            for e, end in enumerate(member.ends):
                if not isinstance(end, OnMember):
                    if end.leg not in legs:
                        _no_leg(f"members.{k}.ends.{e}.leg", end.leg, legs)
                elif end.member not in sticks:
                    broken(
                        f"members.{k}.ends.{e}.member",
                        "a stretcher that stands before this one in the list",
                        "Choose an earlier stretcher, or a leg.",
                    )
            if member.ends[0] == member.ends[1]:
                do = "Choose another leg for one of its ends."
                broken(f"members.{k}.ends.1", "two ends at two places", do)
            sticks.append(member.id)


def _no_leg(field: str, id: str, legs: list[str]) -> None:
    allowed = "a leg there is" if legs else "legs set into the top; this piece has none"
    do = "Choose another leg, or take the member away."
    broken(field, f"{allowed}; there is none named {id}", do)


def leg_ids(support: Support) -> tuple[str, ...]:
    """The ids of a support's staked legs, mirrored partners included, in the order its placement names
    them; frames have none."""
    return placed_ids(support.placement) if isinstance(support, StakedLegs) else ()


def placed_ids(placement: Placement) -> tuple[str, ...]:
    """The ids of the legs a placement puts down, in the order it names them."""
    if placement.way != "free":
        count = {"insets": 4, "triangle": 3}.get(placement.way) or getattr(placement, "count", 0)
        return placement.legs[:count]
    return tuple(
        spot.legs[across + 2 * back]
        for spot in placement.spots
        for back in ((0, 1) if spot.mirror in {"ends", "both"} and spot.y != 0 else (0,))
        for across in ((0, 1) if spot.mirror in {"sides", "both"} and spot.x != 0 else (0,))
    )


def read_piece(given: object, bare: Bare = "metric", at: str = "", salt: str = "") -> Piece:
    """The piece in a JSON document; BadInput with one fault for each wrong field.

    Texts without a unit are read in `bare`; numbers are millimetres and degrees. What has no id yet gets
    one: with a `salt` one that was never given before. Lists may be given in lines as they were typed
    (`splay.piece.lines`).
    """
    if isinstance(given, Mapping):
        given = as_typed(current(given, VERSION, STEPS, at), at)
    try:
        return read_document(Piece, given, bare, at, salt)
    except BadInput as bad:
        raise BadInput(
            *(replace(one, what=called(given, inside(one.field, at))) for one in bad.faults)
        ) from None


def write_piece(piece: Piece) -> dict[str, Any]:
    """The piece as a JSON document: numbers in mm and degrees, exact for every fraction of an inch."""
    return piece.model_dump(mode="json")


def piece_schema() -> dict[str, Any]:
    """JSON Schema (draft 2020-12) of the piece file, with what its fields and choices are called."""
    schema = labelled(TypeAdapter(Piece).json_schema(), "Piece", LABELS, TITLES)
    return {"$schema": "https://json-schema.org/draft/2020-12/schema", **schema}
