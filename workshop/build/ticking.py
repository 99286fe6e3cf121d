"""Steps ticked and unticked, timers that run meanwhile: each whole or not at all, and written down."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Any
from uuid import UUID

from django.db import transaction

from splay.build import Step, Unit
from splay.errors import BadInput, Fault, shorten
from splay.shop import Shop
from workshop.build.log import Line, write
from workshop.build.models import Timer, UnitDone
from workshop.build.situation import Situation, situation
from workshop.pieces.actions import Maker, get_row, named
from workshop.pieces.models import PieceRow

LONGEST_RUN = timedelta(hours=12)
"""A timer that ran longer was left running, or the clock was changed (common practice, no source)."""
CLOCKS_APART_S = 120.0
"""Where the page's own clock, which nobody sets, differs by more, the workshop's was changed."""
MOST_MINUTES = 100_000.0


@dataclass(frozen=True)
class Ticked:
    """What is ticked: a step, or some units of it; on one copy. `minutes` as typed, or `seconds` as the
    page's own clock counted them; `token` is the page's name for it; `ago` how long ago it was, where the
    workshop could not be reached then."""

    step: str
    units: tuple[tuple[str, str, str], ...]
    copy: int
    minutes: float | None
    seconds: float | None
    token: str
    ago: timedelta


@transaction.atomic
def tick(id: UUID, ticked: Ticked, shop: Shop, maker: Maker) -> str:
    """Say that a step, or some units of it, is done; what there is to say about its time."""
    row = get_row(id, maker)
    now = situation(row, shop, maker, ticked.copy)
    step = step_of(now, ticked.step)
    wanted = units_of(step, ticked.units)
    going = next((one for one in now.progress.steps if one.key == step.key), None)
    had = set(going.done) if going else set()
    fresh = [unit for unit in wanted if unit not in had]
    if not fresh:
        return ""
    at = now.now - ticked.ago
    minutes, said = _minutes(row, step, ticked, at)
    mark_done(row, step, fresh, ticked.copy, minutes, at, maker, ticked.token)
    return said


def mark_done(
    row: PieceRow,
    step: Step,
    units: Sequence[Unit],
    copy: int,
    minutes: float | None,
    at: datetime,
    maker: Maker,
    token: str = "",
) -> None:
    """Tick units of a step, which took so many minutes together, and write it into the log."""
    for unit in units:
        UnitDone.objects.update_or_create(
            piece=row,
            copy=copy,
            key=unit.key,
            operation=unit.operation,
            of=unit.of,
            defaults={
                "minutes": None if minutes is None else minutes / len(units),
                "at": at,
                "by": named(maker),
            },
        )
    named_so = "" if len(units) == len(step.units) else ", ".join(unit.name for unit in units)
    write(row, Line("done", named_so, step, copy, minutes, token=token, at=at), maker)


@transaction.atomic
def untick(id: UUID, ticked: Ticked, shop: Shop, maker: Maker) -> None:
    """Say that a step, or some units of it, is not done after all."""
    row = get_row(id, maker)
    now = situation(row, shop, maker, ticked.copy)
    step = step_of(now, ticked.step)
    if forget(now, units_of(step, ticked.units), ticked.copy):
        write(row, Line("undone", "", step, ticked.copy, token=ticked.token), maker)


def forget(now: Situation, units: tuple[Unit, ...], copy: int) -> int:
    """Untick units of one copy, those too that were ticked under a work that is no more; how many were.
    Another work of the same kind on the same leg stays as it is."""
    steps = (*now.order.steps, *now.order.skipped)
    every = [unit for step in steps for unit in step.units]
    gone = 0
    for unit in units:
        mine = now.row.units_done.filter(copy=copy, operation=unit.operation, of=unit.of)
        others = [u.key for u in every if (u.operation, u.of) == (unit.operation, unit.of) and u != unit]
        gone += mine.exclude(key__in=others).delete()[0]
    return gone


def step_of(now: Situation, key: str) -> Step:
    """The step of that key; BadInput where the piece has none."""
    step = now.order.step(key)
    if step is None:
        do = "Look at the order of work again: the piece was changed meanwhile."
        raise BadInput(Fault("step", shorten(key), "a step of this piece", do))
    return step


def units_of(step: Step, named_so: tuple[tuple[str, str, str], ...]) -> tuple[Unit, ...]:
    """The units of a step that are named, all where none is; BadInput for one it has not."""
    if not named_so:
        return step.units
    known = {(unit.key, unit.operation, unit.of): unit for unit in step.units}
    for one in named_so:
        if one not in known:
            do = "Look at the step again: the piece was changed meanwhile."
            raise BadInput(Fault("units", shorten(one[2] or one[0]), "a leg or part of this step", do))
    return tuple(known[one] for one in named_so)


def _minutes(row: PieceRow, step: Step, ticked: Ticked, at: datetime) -> tuple[float | None, str]:
    """What it took: as typed, else as its timer says; and what is to be said where that cannot be."""
    timer = row.timers.filter(step=step.key, copy=ticked.copy).first()
    if timer is None:
        return ticked.minutes, ""
    seconds, said = _ran(timer, ticked.seconds, at)
    timer.delete()
    if ticked.minutes is not None:
        return ticked.minutes, ""
    return (seconds / 60.0 if seconds > 0.0 else None), said


def _ran(timer: Timer, seconds: float | None, at: datetime) -> tuple[float, str]:
    """What a timer counted until `at`, seconds; and what is to be said where a clock was changed."""
    if timer.since is None:
        return timer.before, ""
    elapsed = (at - timer.since).total_seconds()
    if seconds is not None and abs(elapsed - seconds) > CLOCKS_APART_S:
        return timer.before + seconds, "The workshop's clock was changed: this page's own count was taken."
    if elapsed < 0.0 or elapsed > LONGEST_RUN.total_seconds():
        return timer.before, (
            "The timer ran for longer than a day's work, or the clock was changed: that stretch is not "
            "counted. Type the minutes if you know them."
        )
    return timer.before + elapsed, ""


@dataclass(frozen=True)
class Timing:
    """A timer started or stopped: how long it ran by the page's own clock, how long ago that was."""

    step: str
    run: bool
    copy: int
    seconds: float | None
    ago: timedelta


@transaction.atomic
def run_timer(id: UUID, timing: Timing, shop: Shop, maker: Maker) -> str:
    """Start or stop the timer of a step; one maker's others stop, for there is one pair of hands."""
    row = get_row(id, maker)
    now = situation(row, shop, maker, timing.copy)
    wanted, at = step_of(now, timing.step), now.now - timing.ago
    mine: dict[str, Any] = {"piece": row, "step": wanted.key, "copy": timing.copy}
    said = ""
    running = Timer.objects.filter(since__isnull=False, by=named(maker))
    if timing.run and running.filter(**mine).exists():
        return ""
    for other in running if timing.run else running.filter(**mine):
        other.before, said = _ran(other, None if timing.run else timing.seconds, at)
        other.since = None
        other.save()
    if timing.run:
        Timer.objects.update_or_create(**mine, defaults={"since": at, "by": named(maker)})
    return said
