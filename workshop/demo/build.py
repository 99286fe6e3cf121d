"""What happened at the benches of Larkmoor: steps ticked with their times, mishaps, lessons, notes."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime, timedelta
from itertools import pairwise

from django.contrib.auth.models import User
from django.utils import timezone

from splay.build import Step
from splay.shop import Shop
from workshop.build.log import Line, write
from workshop.build.mishaps import Wrong, go_wrong
from workshop.build.models import Entry, UnitDone
from workshop.build.ordering import keep_build
from workshop.build.situation import Situation, situation
from workshop.build.ticking import mark_done
from workshop.pieces.actions import finish
from workshop.pieces.models import PieceRow

FIRST_HOUR, HOURS = 8, 9
"""The benches are worked from eight on, so many hours with the pauses."""
PACE = (0.9, 1.2, 1.0, 0.8, 1.1)
"""How these makers' times lie about the usual ones."""


@dataclass(frozen=True)
class Story:
    """How far a piece is: all its steps before the operation `upto` are ticked (all where it is empty: the
    piece is finished), and so many copies of the next; begun so many days ago; `told` are lines of the log
    by operation, `order` the maker's own order, `wrong` what went wrong: at which operation, on what, the
    way out, what happened."""

    days: int
    upto: str
    told: tuple[tuple[str, str, str], ...] = ()
    copies: int = 0
    order: dict[str, object] | None = None
    wrong: tuple[str, str, str, str] | None = None


STORIES: dict[str, Story] = {
    "dome-bench": Story(
        46,
        "",
        (
            (
                "wedge",
                "lesson",
                "Leg 4 first: its wedge wants the longest swing.",
            ),
            ("finish", "note", "Two coats were enough under the dome; nobody walks on it with boots."),
            ("write_down", "note", "Next time the feet 5 mm longer: one leg used up all of its allowance."),
        ),
        order={"spent": [{"what": "Ash for legs and seat", "amount": 74}]},
        wrong=("kerf", "l2", "glue", "The slot ran out into a check; glued, and sawn anew beside it."),
    ),
    "eyepiece-stool": Story(
        9,
        "bore_member",
        (
            ("ready", "note", "Ash, split from one billet; the spare is the one with the dark streak."),
            ("bore", "lesson", "Scrap clamped hard behind: the one hole without it tore out at the rim."),
            ("fit", "note", "Leg 2 shone on one side only; two shavings and it went home."),
        ),
        wrong=("octagon", "l3", "glue", "Split at the foot while planing against the rise of the grain."),
    ),
    "cloakroom-stool": Story(
        20,
        "level",
        (
            ("glue_boards", "note", "Both boards from the old partition, heart side down."),
            ("dry_run", "lesson", "Lay the pegs out in order before any glue is opened."),
        ),
    ),
    "foyer-bench": Story(
        5,
        "tenon",
        (("lay_out", "note", "Kept the split at the left end out of both legs' way."),),
        order={"prefinish": True},
    ),
    "finder-step": Story(
        12,
        "slot",
        (("crosscut", "lesson", "Stop block before the first cut, not after the second."),),
        wrong=("crosscut", "s1.side.right", "as_is", "Cut 2.5 mm short: the fence had slipped."),
    ),
    "chart-table": Story(4, "stick_tenon", ()),
    "plate-stool": Story(3, "dowel", ()),
    "terrace-perch": Story(
        7,
        "pilot",
        (("lay_out", "note", "Six slices from the fallen larch; number 4 has the open heart."),),
        copies=4,
    ),
}


def tell(row: PieceRow, name: str, shop: Shop, maker: User) -> None:
    """Tick and write what the story of a piece says."""
    story = STORIES.get(name)
    if story is None:
        return
    if story.order:
        keep_build(row.pk, dict(story.order), 0, shop, maker)
    now = situation(row, shop, maker)
    steps = list(now.order.steps)
    last = next((k for k, s in enumerate(steps) if s.operation == story.upto), len(steps))
    for copy in range(1, now.piece.make + 1):
        for k, step in enumerate(steps[:last]):
            took = step.setting + step.kind.minutes * len(step.units)
            if now.piece.make > 1:
                took = step.kind.minutes * len(step.units)
            minutes = round(took * PACE[(k + copy) % len(PACE)])
            mark_done(row, step, step.units, copy, minutes, now.now, maker)
    for copy in range(1, story.copies + 1):
        mark_done(row, steps[last], steps[last].units, copy, 6.0, now.now, maker)
    if story.wrong:
        operation, of, rescue, note = story.wrong
        at = next(s for s in steps if s.operation == operation and any(u.of == of for u in s.units))
        go_wrong(row.pk, Wrong(at.key, of, rescue, note=note), shop, maker)
    for operation, sort, says in story.told:
        at = next(s for s in steps if s.operation == operation)
        write(row, Line(sort, says, at), maker)  # type: ignore[arg-type]
    if not story.upto:
        finish(row.pk, True, maker)
    _date(row, now, story.days)


def _date(row: PieceRow, now: Situation, days: int) -> None:
    """Lay what happened over the working hours of the days it is said to have taken, waits kept."""
    zone = timezone.get_current_timezone()
    begun = timezone.now().astimezone(zone) - timedelta(days=days)
    clock = begun.replace(hour=FIRST_HOUR, minute=10, second=0, microsecond=0)
    steps = {step.key: step for step in now.order.steps}
    lines = list(Entry.objects.filter(piece=row).order_by("pk"))
    done = [line for line in lines if line.sort == "done"]
    ended: dict[str, datetime] = {}
    dated: set[int] = set()
    latest = timezone.now() - timedelta(minutes=20)
    for before, line in pairwise([None, *done]):
        assert line is not None
        clock = _later(clock, line.minutes or 5.0, steps.get(before.step) if before else None)
        ended[line.step] = min(clock, latest)
        Entry.objects.filter(pk=line.pk).update(at=ended[line.step])
        units = {unit.key for unit in steps[line.step].units}
        UnitDone.objects.filter(piece=row, copy=line.copy, key__in=units).update(at=ended[line.step])
        read = row.reading_events.filter(copy=line.copy, proof__in=steps[line.step].proofs)
        dated |= set(read.values_list("pk", flat=True))
        read.update(at=ended[line.step] - timedelta(minutes=2))
    # What was read at a step that is under way: after all that is done.
    ahead = row.reading_events.exclude(pk__in=dated)
    ahead.update(at=min(clock + timedelta(minutes=20), latest))
    for line in lines:
        if line.sort != "done":
            at = ended.get(line.step, begun) - timedelta(minutes=4)
            until = {} if not line.data.get("until") else {"data": {**line.data, "until": at.isoformat()}}
            Entry.objects.filter(pk=line.pk).update(at=at, **until)


def _later(clock: datetime, minutes: float, before: Step | None) -> datetime:
    """When work of so many minutes is done, begun after what was done before has rested."""
    if before is not None and before.wait:
        clock += timedelta(hours=before.wait.least_h)
    clock += timedelta(minutes=minutes)
    over = clock.hour + clock.minute / 60.0 - (FIRST_HOUR + HOURS)
    if over > 0 or clock.hour < FIRST_HOUR:
        day = clock if clock.hour < FIRST_HOUR else clock + timedelta(days=1)
        clock = day.replace(hour=FIRST_HOUR, minute=20) + timedelta(minutes=minutes)
    return clock
