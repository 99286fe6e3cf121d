"""A top in two boards side by side with a gap: where each lies, and which line of each stays."""

from __future__ import annotations

from dataclasses import dataclass

from splay.piece import Top
from splay.quantity import degrees as deg
from splay.stance.strips import across_words
from splay.stance.vectors import Flat

TOP_BOARD = "top.board"


@dataclass(frozen=True)
class TopBoard:
    """One of the two: from `low` to `high` across the grain, to the left of its bearing from the top's
    middle; `stays` the line its fixed screws are wanted on; mm."""

    key: str
    name: str
    low: float
    high: float
    stays: float

    def over(self, at: float) -> bool:
        """Whether a place so far across lies on it."""
        return self.low <= at <= self.high


def across_at(top: Top, at: tuple[float, ...]) -> float:
    """How far a place of the top frame lies across the grain, to the left of its bearing, mm."""
    return at[1] * deg.cos(top.grain) - at[0] * deg.sin(top.grain)


def place_at(top: Top, across: float) -> Flat:
    """The place on the line square to the grain through the middle, so far across it."""
    return -across * deg.sin(top.grain), across * deg.cos(top.grain)


def top_boards(top: Top) -> tuple[TopBoard, ...]:
    """Both boards of a top with a gap, from the right of the grain's bearing to its left; none else."""
    if top.gap is None:
        return ()
    first, second = top.boards
    gap, low = top.gap, -(first + top.gap.width + second) / 2.0
    ends = ((low, low + first), (low + first + gap.width, -low))
    made = []
    for k, (said, (one, two)) in enumerate(zip(across_words(top), ends, strict=True)):
        outer, inner = (one, two) if k == 0 else (two, one)
        line = {"middle": (one + two) / 2.0, "outer": outer, "inner": inner}[gap.stays]
        made.append(TopBoard(f"{TOP_BOARD}.{k + 1}", f"{said.lower()} board", one, two, line))
    return tuple(made)


def slit(top: Top) -> tuple[float, float] | None:
    """From where to where across the grain the gap goes, mm; None for a top without one."""
    made = top_boards(top)
    return (made[0].high, made[1].low) if made else None
