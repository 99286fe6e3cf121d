"""How far the build of one piece is: what is done, what waits and until when, what comes next."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Literal

from splay.build.known import Record, takes
from splay.build.order import Order
from splay.build.step import Step, Unit

State = Literal["done", "begun", "waiting", "open"]


@dataclass(frozen=True)
class Done:
    """One unit that was ticked: the work and leg or part as they were named then, and when."""

    key: str
    operation: str
    of: str
    at: datetime


@dataclass(frozen=True)
class Going:
    """One step's state: the units done; where it waits, until when at the earliest, and for what."""

    key: str
    state: State
    done: tuple[Unit, ...]
    until: datetime | None
    for_what: str
    since: datetime | None
    """When the last of it was done."""


@dataclass(frozen=True)
class Progress:
    """Every step's state in the order of work, and the step to go on with, None where all is done: the
    first that is not done and need not wait, else the one that waits least long."""

    steps: tuple[Going, ...]
    next: str | None


Hold = tuple[datetime, str]
"""Until when something holds a step up, and what."""


def progress(
    order: Order, done: Iterable[Done], now: datetime, holds: Mapping[str, Hold] | None = None
) -> Progress:
    """How far a piece is at `now`; `holds` are what a mishap makes some steps wait for, by key.

    What was ticked under a name that no work bears any more (the legs share their settings otherwise now)
    counts for the same kind of work on the same leg or part.
    """
    rows = tuple(done)
    steps = (*order.steps, *order.skipped)
    named = {(unit.key, unit.operation, unit.of) for step in steps for unit in step.units}
    ticked = {(row.key, row.operation, row.of): row.at for row in rows}
    works = Counter((operation, of) for _, operation, of in named)
    stray = {
        (row.operation, row.of): row.at for row in rows if (row.key, row.operation, row.of) not in named
    }

    def when(unit: Unit) -> datetime | None:
        exact = ticked.get((unit.key, unit.operation, unit.of))
        # Of two works of one kind on one leg nobody can say which was meant.
        alone = works[unit.operation, unit.of] == 1
        return exact or (stray.get((unit.operation, unit.of)) if alone else None)

    times = {step.key: [when(unit) for unit in step.units] for step in order.steps}
    ended = {key: max(at for at in mine if at) for key, mine in times.items() if mine and all(mine)}
    held = holds or {}
    going = tuple(_going(step, k, order, times, ended, now, held) for k, step in enumerate(order.steps))
    left = [one for one in going if one.state != "done"]
    free = [one for one in left if one.state != "waiting"]
    waiting = sorted((one for one in left if one.until), key=lambda one: one.until or now)
    first = free[0] if free else waiting[0] if waiting else None
    if first is not None and waiting and free:
        first = _not_ahead(order, going, first, waiting)
    return Progress(going, first.key if first else None)


def _not_ahead(order: Order, going: tuple[Going, ...], first: Going, waiting: list[Going]) -> Going:
    """What leans on a step that waits is not next, though nothing holds it directly."""
    held = {one.key for one in waiting}
    for step in order.steps:
        if held & {need.before for need in order.needs if need.after == step.key}:
            held.add(step.key)
    free = [one for one in going if one.state in ("open", "begun") and one.key not in held]
    return free[0] if free else waiting[0]


def _going(
    step: Step,
    place: int,
    order: Order,
    times: dict[str, list[datetime | None]],
    ended: dict[str, datetime],
    now: datetime,
    holds: Mapping[str, Hold],
) -> Going:
    mine = times[step.key]
    done = tuple(unit for unit, at in zip(step.units, mine, strict=True) if at)
    last = max((at for at in mine if at), default=None)
    if step.key in ended:
        return Going(step.key, "done", done, None, "", last)
    held = {need.before for need in order.needs if need.after == step.key}
    if place:
        held.add(order.steps[place - 1].key)
    waits = [
        (ended[one.key] + timedelta(hours=one.wait.least_h), one.wait.for_what)
        for one in order.steps
        if one.key in held and one.key in ended and one.wait
    ]
    if step.key in holds:
        waits.append(holds[step.key])
    until, why = max(waits, default=(None, ""))
    if until is not None and until > now:
        return Going(step.key, "waiting", done, until, why, last)
    return Going(step.key, "begun" if done else "open", done, None, "", last)


def next_of(order: Order, copies: Sequence[Progress]) -> tuple[int, str] | None:
    """Where several like pieces go on, copy (from 1) and step: they are worked step by step, so at the
    earliest step that any of them is at, on the first one that is at it. None where all are done."""
    place = {step.key: k for k, step in enumerate(order.steps)}
    at = [(place[one.next], copy) for copy, one in enumerate(copies, 1) if one.next is not None]
    if not at:
        return None
    first, copy = min(at)
    return copy, order.steps[first].key


def minutes_left(order: Order, copies: Sequence[Progress], record: Record) -> float:
    """Minutes of what is not done, over all copies; a step that is begun counts by its units."""
    total = 0.0
    for k, step in enumerate(order.steps):
        units = len(step.units) * len(copies)
        done = sum(len(one.steps[k].done) for one in copies)
        total += takes(step, record, len(copies)).minutes * (1.0 - done / units)
    return total


def shown_done(order: Order, now: Progress, answered: frozenset[str]) -> tuple[str, ...]:
    """Steps that are not ticked though all that is read at them was read, and all that these need: nobody
    reads what was not done."""
    seen = {step.key for step in order.steps if step.proofs and answered.issuperset(step.proofs)}
    for step in reversed(order.steps):
        if step.key in seen:
            seen |= {need.before for need in order.needs if need.after == step.key}
    return tuple(one.key for one in now.steps if one.key in seen and one.state != "done")
