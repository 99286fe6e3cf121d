"""What is wrong with a pass's readings, or with what they lead to."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from splay.errors import CannotBuild
from splay.level.cut import CutPlane
from splay.level.feet import End
from splay.level.lying import CLEAR_MM, on_proud, standing_out
from splay.level.ways import Ask, Measured
from splay.piece import LevelPass, Piece
from splay.quantity import Quantity, Show

HEIGHT_MM = 2.0
"""A seat this near its height is at its height (common practice, no source)."""
FAR_MM = 40.0
"""A foot found this far from where it must be was read wrong (common practice, no source)."""
MISFIT_MM = 2.0
"""Heights of one flat top over one flat floor agree to this (common practice, no source)."""


@dataclass(frozen=True)
class Problem:
    """One thing that is wrong: its code, its figure and the limit it passes, the legs it concerns."""

    code: str
    level: Literal["stop", "caution", "note"]
    text: str
    mend: str
    number: Quantity
    limit: Quantity
    legs: tuple[int, ...] = ()


def in_line(fault: CannotBuild | None, asked: int, show: Show) -> list[Problem]:
    """Readings that fix no plane."""
    if fault is None:
        return []
    counts = show.count(asked), show.count(3)
    return [Problem("heights_in_line", "stop", fault.rule, fault.mend, *counts)]


def _at(ask: Ask, before: tuple[End, ...]) -> str:
    return f"at the {ask.key} edge" if ask.over < 0 else f"over {before[ask.over].foot.name}"


def of_readings(
    measured: Measured,
    before: tuple[End, ...],
    chosen: LevelPass,
    wanted: tuple[Ask, ...],
    show: Show,
    read: dict[str, float],
) -> list[Problem]:
    """Readings that contradict one another, or that no foot can have."""
    made = []
    if measured.misfit > MISFIT_MM:
        made.append(
            Problem(
                "heights_disagree", "caution",
                f"The height {_at(wanted[measured.worst], before)} lies in no plane with the others.",
                "Measure that one again, then the rest: a rule off plumb reads long.",
                show.fine(measured.misfit), show.fine(MISFIT_MM),
            )
        )  # fmt: skip
    told = sum(f"under.{end.foot.key}" in read for end in before)
    if chosen.way == "standing" and told == len(before) and measured.afoot < 3:
        made.append(
            Problem(
                "gaps_contradict", "caution",
                f"By its gaps only {measured.afoot} of its feet touch; a piece stands on three at least.",
                "Press it down where it does not rock and take the gaps again: where it touches, give 0.",
                show.count(measured.afoot), show.count(3),
            )
        )  # fmt: skip
    for was, now in zip(before, measured.ends, strict=True):
        off = now.length - was.length
        if abs(off) <= FAR_MM:
            continue
        made.append(
            Problem(
                "foot_far", "caution",
                f"{was.foot.name.capitalize()} would end {show.length(abs(off)).text} "
                f"{'longer' if off > 0 else 'shorter'} than it can.",
                "Measure it again: the right foot, from the right face, in the units shown.",
                show.length(abs(off)), show.length(FAR_MM), (was.foot.leg,) if was.foot.leg else (),
            )
        )  # fmt: skip
    return made


def on_tenons(piece: Piece, ends: tuple[End, ...], chosen: LevelPass, show: Show) -> list[Problem]:
    """Upside down on what stands out of its upper face: it may lie otherwise than was reckoned with."""
    if chosen.way != "bench" or not on_proud(piece, ends, chosen):
        return []
    out = standing_out(piece, ends)
    least = show.least(out + CLEAR_MM)
    return [
        Problem(
            "on_tenons", "note",
            f"Upside down it lies on what stands out of its upper face by up to {show.fine(out).text}: the "
            "heights are reckoned so, and are as good as those ends are even.",
            f"Better: blocks of one height, {least.text} or more, under the seat's edge, clear of what "
            "stands "
            "out; give their height here.",
            show.fine(out), show.fine(chosen.raised),
        )
    ]  # fmt: skip


def of_reach(
    piece: Piece, after: float, ends: tuple[End, ...], plane: CutPlane, show: Show
) -> list[Problem]:
    """A height that not every foot reaches."""
    short = piece.stands - after
    if short <= HEIGHT_MM:
        return []
    last = min(ends, key=lambda end: -float((end.ring @ plane.normal).max()))
    return [
        Problem(
            "height_short", "caution",
            f"Cut full, it ends {show.fine(short).text} lower than wanted: "
            f"{last.foot.name} reaches no further.",
            "Let it end lower, allow a little lean, or make that one anew.",
            show.fine(short), show.fine(HEIGHT_MM), (last.foot.leg,) if last.foot.leg else (),
        )
    ]  # fmt: skip
