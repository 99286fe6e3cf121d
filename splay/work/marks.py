"""Marks on the work: what every later instruction leans on, each made by an earlier one."""

from __future__ import annotations

from dataclasses import dataclass, field
from enum import StrEnum

from pydantic import Field

UNSENT = Field(exclude=True)
"""Marks a field that stays in the core: its words and figures go out, not the data behind them."""
SEAT = "seat"
"""The key of the top, whatever it is called in words."""


class Kind(StrEnum):
    """What there is to lean on; the value is what it is called."""

    LETTERS = "FRONT, BACK, LEFT and RIGHT"
    MIDDLE_LINES = "left-right line and front-back line"
    MIDDLE_HOLE = "hole in the middle"
    CENTRE = "leg centre"
    SIGHTLINE = "sightline"
    OUTLINE = "outline"
    FOOTPRINT = "frame's outermost corner"
    NUMBER = "number"
    TENON = "tenon"
    OUTER_LINE = "outer line"
    FLOOR_LINE = "outer line of the floor"
    FACES = "faces"
    SHOULDER = "depth ring"
    SLOT = "wedge slot"
    SOCKET = "socket's mark"
    ENDS = "ends' numbers"
    FLOOR_SIDE = "floor-side line"
    PEG = "peg's mark"
    BATTEN = "middle of a batten's end"
    SCREW = "batten's screws"
    FIXING = "top's screws"
    DOWEL = "dowels' marks"
    HOLD = "hand-hold's end holes"
    JOINS = "joint's lines"
    HOLLOW = "hollow's rim"


@dataclass(frozen=True)
class Mark:
    """One mark: what it is, the part it is on (its key), and which of several it is; `said` is what it is
    called where one of several is meant."""

    kind: Kind
    on: str
    which: str = ""
    said: str = field(default="", compare=False)


def centre(number: int, face: str = "underside") -> Mark:
    """The pricked centre of a leg on a face of the seat."""
    return Mark(Kind.CENTRE, SEAT, f"{number}.{face}", f"centre of leg {number}")


def hold_marks(number: int) -> tuple[Mark, Mark]:
    """The pricked middles of the two end holes of a hand-hold, counted from 1."""
    return Mark(Kind.HOLD, SEAT, f"{number}.1"), Mark(Kind.HOLD, SEAT, f"{number}.2")


def sightline(number: int, face: str = "underside") -> Mark:
    """A leg's sightline on a face of the seat, with its arrow."""
    return Mark(Kind.SIGHTLINE, SEAT, f"{number}.{face}", f"sightline of leg {number}")


def peg_mark(number: int) -> Mark:
    """Where the peg of a leg's tenon enters the upper face of the seat."""
    return Mark(Kind.PEG, SEAT, f"{number}.upper face", f"peg's mark of leg {number}")


def peg_on_batten(number: int, batten: str) -> Mark:
    """Where the peg of a leg's tenon enters the edge of its batten, by the batten's key."""
    return Mark(Kind.PEG, batten, f"{number}", f"peg's mark of leg {number}")


def lettered(face: str = "underside") -> tuple[Mark, Mark]:
    """The two middle lines and the four words on a face of the seat."""
    return Mark(Kind.MIDDLE_LINES, SEAT, face), Mark(Kind.LETTERS, SEAT, face)


def leg_key(number: int) -> str:
    """The key of a leg set into the top."""
    return f"leg.{number}"


def member_key(number: int) -> str:
    """The key of a stretcher or a rope."""
    return f"member.{number}"
