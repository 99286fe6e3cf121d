"""What holds the top to the parts that lie under it."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Annotated, Any, Literal

from pydantic import BeforeValidator, Field

from splay.document import Angle, Frozen, Length


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
