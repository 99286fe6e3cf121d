"""Members between legs: stretchers, footrests, a rope."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from splay.document import Frozen, Length
from splay.ids import Id

MOST_MEMBERS = 24
Share = Annotated[float, Field(gt=0, lt=1)]


class Level(Frozen):
    """How high on a leg: by its drop, its height, or its place along the leg."""

    by: Literal["drop", "height", "along"] = "height"
    """drop: plumb below the middle of the sitting surface; height: plumb above the floor;
    along: down the leg's axis from the underside, or from a line scored round it there."""
    value: Annotated[float, Length(1, 3000)]
    """How much, mm."""


class OnLeg(Frozen):
    """An end in a leg."""

    on: Literal["leg"] = "leg"
    leg: Id
    """The leg's id."""
    level: Level


class OnMember(Frozen):
    """An end in another member."""

    on: Literal["member"] = "member"
    member: Id
    """The member's id; it stands earlier in the list."""
    share: Share = 0.5
    """Where along it, as a share of the way between its ends."""


End = Annotated[OnLeg | OnMember, Field(discriminator="on")]
Thin = Annotated[float, Length(5, 120)]


class Stretcher(Frozen):
    """A stick whose ends go into sockets by round tenons."""

    kind: Literal["stretcher"] = "stretcher"
    id: Id = ""
    name: Annotated[str, Field(max_length=60)] = ""
    """What the maker calls it, such as footrest."""
    ends: Annotated[tuple[End, ...], Field(min_length=2, max_length=2)]
    """Both ends, each in a leg or in an earlier stretcher."""
    section: Literal["round", "octagon", "square"] = "round"
    """Its section between the tenons. One with flats is set in with one of them towards the floor."""
    diameter: Thin = 24.0
    """Thickness in its middle, over its flats, mm."""
    tenon: Thin = 16.0
    """Diameter of its tenons and of the sockets, mm."""
    depth: Annotated[float, Length(2, 150)] = 20.0
    """Depth of each socket along the stretcher's own line, mm."""
    spring: Annotated[float, Length(0, 20)] = 0.0
    """Added to the length so that it pushes the legs apart a little, mm."""


class Rope(Frozen):
    """A rope through holes in legs: a rail that gives."""

    kind: Literal["rope"] = "rope"
    id: Id = ""
    name: Annotated[str, Field(max_length=60)] = ""
    """What the maker calls it."""
    legs: Annotated[tuple[Id, ...], Field(min_length=2, max_length=24)]
    """The ids of the legs it runs through, in order."""
    level: Level
    diameter: Annotated[float, Length(2, 60)] = 10.0
    """Thickness of the rope, mm."""
    ease: Annotated[float, Length(0, 20)] = 1.0
    """The hole's diameter over the rope's, mm."""
    closed: bool = True
    """Whether it comes back to the first leg."""
    knot: Annotated[float, Length(0, 2000)] = 150.0
    """Rope for the knot or splice, mm."""


Member = Annotated[Stretcher | Rope, Field(discriminator="kind")]
