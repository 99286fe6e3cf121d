"""Marking out the seat, as data: points, circles and lines struck from what is already drawn there.

On every face the two middle lines cross in the middle; the words at their ends say which way is which,
so that a place is told by them whichever face lies up.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from splay.quantity import Quantity
from splay.work.lays import Way
from splay.work.marks import Mark

Letter = Literal["FRONT", "BACK", "LEFT", "RIGHT"]


@dataclass(frozen=True)
class Letters:
    """The middle lines and the four words on a face; with FRONT towards the maker RIGHT is at the hand
    named. `grain` is the long grain's turn from the left-right line, seen so, and its way round."""

    face: str
    right_at: Literal["right hand", "left hand"]
    grain: Quantity
    grain_way: Way


@dataclass(frozen=True)
class Prick:
    """A point so far towards one word, measured along its line, and so far towards another."""

    mark: Mark
    named: str
    face: str
    side: Letter
    aside: Quantity
    end: Letter
    along: Quantity


@dataclass(frozen=True)
class Ring:
    """Points stepped round a circle about the middle, from a start told by a word or by a rule.

    The start lies on the line to `start`, or where `over` of `run` towards `start_over` turns it.
    `way` is the way round as one looks at the face; `stride` marks are stepped for each point.
    """

    marks: tuple[Mark, ...]
    named: tuple[str, ...]
    face: str
    radius: Quantity
    chord: Quantity
    start: Letter
    run: Quantity | None
    over: Quantity | None
    start_over: Letter | None
    way: Way
    stride: int


@dataclass(frozen=True)
class Sightline:
    """A line through a point: for so much towards one word, over by so much towards another, with an
    arrowhead at that end, or `back` at the other one, where the seat has no room that way: the leg leans
    the way it points."""

    mark: Mark
    through: Mark
    named: str
    face: str
    along: Letter
    run: Quantity
    toward: Letter
    over: Quantity
    back: bool = False


@dataclass(frozen=True)
class Row:
    """Places along the middle line of a batten's lower face, each from one of its ends."""

    mark: Mark
    named: str
    end: str
    at: tuple[Quantity, ...]


@dataclass(frozen=True)
class Rim:
    """Where a hollow begins. A trough: a line to either side of the middle line named, `half` from it.
    Else an oval about the middle: a circle of `half`, or by a `loop` of string round two pins on the
    middle line named, each `pin` from the middle."""

    mark: Mark
    face: str
    line: str
    half: Quantity | None
    pin: Quantity | None = None
    loop: Quantity | None = None
    trough: bool = True


MIDDLE = 0.05
"""Nearer to the middle than this is in it, mm."""
Act = Letters | Prick | Ring | Sightline | Row | Rim


def axis(line: str) -> tuple[float, float]:
    """The way a middle line runs: to RIGHT, or to BACK."""
    return (1.0, 0.0) if line == "left-right line" else (0.0, 1.0)


def across_from(line: str) -> tuple[Letter, Letter]:
    """The words at a middle line's ends."""
    return ("LEFT", "RIGHT") if line == "left-right line" else ("FRONT", "BACK")


def said(act: Act) -> str:
    """An act in words."""
    if isinstance(act, Letters):
        return _letters(act)
    if isinstance(act, Prick):
        return _prick(act)
    if isinstance(act, Ring):
        return _ring(act)
    if isinstance(act, Row):
        return (
            f"{act.named}, its screws: from the {act.end}, along the middle of its lower face, "
            f"{', '.join(one.text for one in act.at)}."
        )
    if isinstance(act, Rim):
        return _rim(act)
    across = f", over by {act.over.text} towards {act.toward}" if act.over.value > 0.005 else ""
    at = "the other end, pointing away from there" if act.back else "that end"
    return (
        f"{act.named}: through its mark, for {act.run.text} towards {act.along}{across}. Arrowhead at {at}."
    )


def _rim(act: Rim) -> str:
    if act.half is not None and act.trough:
        return (
            f"Two lines, {act.half.text} from the {act.line} on either side of it: there the hollow begins."
        )
    if act.half is not None:
        return f"Compasses at {act.half.text}, about the middle: there the hollow begins."
    assert act.pin is not None and act.loop is not None
    return (
        f"Two pins on the {act.line}, {act.pin.text} from the middle on either side; a loop of string "
        f"{act.loop.text} long round both, the pencil held plumb in it: there the hollow begins."
    )


def _letters(act: Letters) -> str:
    grain = (
        "the long grain running along the left-right line"
        if act.grain.value < 0.005
        else "the long grain running along the front-back line"
        if abs(act.grain.value - 90.0) < 0.005
        else f"the long grain turned {act.grain.text} {act.grain_way} from the left-right line"
    )
    return (
        f"{act.face[0].upper()}{act.face[1:]} up. Two lines square to each other through the middle, "
        f"{grain}. Write FRONT, BACK, LEFT and RIGHT at their ends: with FRONT towards you, RIGHT is at "
        f"your {act.right_at}."
    )


def _prick(act: Prick) -> str:
    parts = [
        f"{size.text} towards {letter}"
        for letter, size in ((act.side, act.aside), (act.end, act.along))
        if size.value > 0.005
    ]
    return f"{act.named}: {' and '.join(parts) or 'in the middle itself'}."


def _ring(act: Ring) -> str:
    line = "front-back line" if act.start in ("FRONT", "BACK") else "left-right line"
    if act.run is None or act.over is None:
        begin = f"Start where it crosses the {line} at {act.start}: that is {act.named[0]}."
    else:
        begin = (
            f"From the middle measure {act.run.text} towards {act.start} and {act.over.text} towards "
            f"{act.start_over}; a line from the middle through there meets the circle at {act.named[0]}."
        )
    every = "every mark is the next leg" if act.stride == 1 else "every second mark is the next leg"
    return (
        f"Compasses at {act.radius.text}: strike the leg circle from the middle. {begin} Compasses at "
        f"{act.chord.text}: step round {act.way} as you look at it; {every}."
    )
