"""The build of a piece as it is sent: every step with its state, time, reasons and lessons."""

from __future__ import annotations

from datetime import datetime

from ninja import Schema

from splay.build import Broken, Build, Order, Step, Wait, takes
from splay.build.operations import OPERATIONS
from splay.build.progress import Going, Progress, minutes_left, next_of, shown_done
from splay.timber.judged import WET_MATTERS
from workshop.build.models import Entry, Timer
from workshop.build.situation import Situation
from workshop.pieces.actions import Maker, hanging_for
from workshop.timber.wet import wet_for

MOST_LESSONS = 4
"""The latest of one kind of work: more is not read at the bench."""


class UnitOut(Schema):
    """One leg or part of a step, and whether it is ticked."""

    key: str
    operation: str
    of: str
    name: str
    done: bool


class WantOut(Schema):
    """A step that must stand before another, why, and whether it is done."""

    key: str
    title: str
    why: str
    costs: str
    done: bool


class LessonOut(Schema):
    """What was learned at such a step before."""

    says: str
    by: str | None
    piece: str
    at: datetime


class StepOut(Schema):
    """One step on its way. `minutes` is what it takes for all copies, from `whose` own times (0: usual);
    `until` when it need wait no more; `copies_done` of how many copies it is done; `seconds` what its timer
    counted, `since` when it runs."""

    key: str
    operation: str
    called: str
    title: str
    station: str
    units: list[UnitOut]
    cards: list[str]
    proofs: list[str]
    do: list[str]
    lay_out: list[str]
    marks: list[str]
    caution: str
    wait: Wait | None
    minutes: float
    whose: int
    state: str
    until: datetime | None
    for_what: str
    wants: list[WantOut]
    broken: list[Broken]
    lessons: list[LessonOut]
    copies_done: int
    seconds: float
    since: datetime | None
    merged: list[str]
    split_from: str
    own: bool


class SkippedOut(Schema):
    """A step that is left out."""

    key: str
    title: str
    why: str


class BuildOut(Schema):
    """The build of one copy of a piece.

    `next` is the step to go on with, on copy `next_copy`; `shown_done` are steps that are not ticked though
    readings show that they were done; `left` the minutes of what is not done on any copy, `spent` those
    counted; `said` what there is to say of what was just done; `now` the workshop's clock.
    """

    name: str
    make: int
    copy_number: int
    number: int
    document: Build
    steps: list[StepOut]
    skipped: list[SkippedOut]
    next: str | None
    next_copy: int
    shown_done: list[str]
    left: float
    spent: float
    kept: bool
    said: str
    now: datetime


def build_out(now: Situation, maker: Maker, said: str = "") -> BuildOut:
    """Everything the order of work and bench mode show."""
    copies = [now.at(copy) for copy in range(1, now.piece.make + 1)]
    timers = {one.step: one for one in Timer.objects.filter(piece=now.row, copy=now.copy)}
    lessons = _lessons(now, maker)
    wet = wet_for(now.row)
    going = {one.key: one for one in now.progress.steps}
    steps = [
        _step_out(step, now.order, going, now, copies, timers.get(step.key), lessons, wet)
        for step in now.order.steps
    ]
    next_copy, next_key = next_of(now.order, copies) or (now.copy, None)
    answered = frozenset(proof.id for proof in now.plan.proofs if proof.answer is not None)
    times = now.row.units_done.exclude(minutes=None).values_list("minutes", flat=True)
    counted = sum(one.before for one in timers.values()) / 60.0
    whys = {skip.key: skip.why for skip in now.build.skipped}
    return BuildOut(
        name=now.piece.name,
        make=now.piece.make,
        copy_number=now.copy,
        number=now.number,
        document=now.build,
        steps=steps,
        skipped=[
            SkippedOut(key=one.key, title=one.title, why=whys.get(one.key, "")) for one in now.order.skipped
        ],
        next=next_key,
        next_copy=next_copy,
        shown_done=list(shown_done(now.order, now.progress, answered)),
        left=minutes_left(now.order, copies, now.record),
        spent=sum(one or 0.0 for one in times) + counted,
        kept=bool(now.record.order),
        said=said,
        now=now.now,
    )


def _step_out(
    step: Step,
    order: Order,
    going: dict[str, Going],
    now: Situation,
    copies: list[Progress],
    timer: Timer | None,
    lessons: dict[str, list[LessonOut]],
    wet: str,
) -> StepOut:
    mine = going[step.key]
    took = takes(step, now.record, now.piece.make)
    ticked = set(mine.done)
    kinds = dict.fromkeys(unit.operation for unit in step.units)
    return StepOut(
        key=step.key,
        operation=step.operation,
        called=OPERATIONS[step.operation].called,
        title=step.title,
        station=step.station,
        units=[
            UnitOut(key=u.key, operation=u.operation, of=u.of, name=u.name, done=u in ticked)
            for u in step.units
        ],
        cards=list(step.cards),
        proofs=list(step.proofs),
        do=list(step.do),
        lay_out=list(step.lay_out),
        marks=list(step.marks),
        caution=" ".join(filter(None, (wet if kinds.keys() & WET_MATTERS else "", step.caution))),
        wait=step.wait,
        minutes=took.minutes,
        whose=took.whose,
        state=mine.state,
        until=mine.until,
        for_what=mine.for_what,
        wants=_wants(step, order, going),
        broken=[one for one in order.broken if one.key == step.key],
        lessons=[one for name in kinds for one in lessons.get(name, [])],
        copies_done=_copies_done(step, copies),
        seconds=timer.before if timer else 0.0,
        since=timer.since if timer else None,
        merged=[part.key for part in step.parts],
        split_from=step.split_from,
        own=step.operation == "own",
    )


def _copies_done(step: Step, copies: list[Progress]) -> int:
    return sum(one.state == "done" for each in copies for one in each.steps if one.key == step.key)


def _wants(step: Step, order: Order, going: dict[str, Going]) -> list[WantOut]:
    titles = {one.key: one.title for one in (*order.steps, *order.skipped)}
    return [
        WantOut(
            key=need.before,
            title=titles[need.before],
            why=need.why,
            costs=need.costs,
            done=need.before in going and going[need.before].state == "done",
        )
        for need in order.needs
        if need.after == step.key
    ]


def _lessons(now: Situation, maker: Maker) -> dict[str, list[LessonOut]]:
    """What was learned at each kind of work, over all pieces of the shop, the latest first."""
    wanted = {unit.operation for step in now.order.steps for unit in step.units}
    seen = hanging_for(maker)
    rows = Entry.objects.filter(sort="lesson", operation__in=wanted, piece__in=seen).defer("image")
    rows = rows.select_related("by", "piece")
    found: dict[str, list[LessonOut]] = {}
    for row in rows.order_by("-at", "-pk")[:200]:
        mine = found.setdefault(row.operation, [])
        if len(mine) < MOST_LESSONS:
            by = row.by.get_username() if row.by else None
            where = "" if row.piece_id == now.row.pk else str((row.piece.hung or {}).get("name", ""))
            mine.append(LessonOut(says=row.says, by=by, piece=where, at=row.at))
    return found
