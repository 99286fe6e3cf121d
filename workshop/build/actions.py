"""What can be done to a build: one action a change, each whole or not at all and written into the log."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from secrets import token_hex
from typing import Any
from uuid import UUID

from django.db import transaction

from splay.build import Build, Step, Unit, read_build, write_build
from splay.build.rescue import Rescue, done_to, lowered, rescues
from splay.errors import BadInput, Fault, shorten
from splay.piece import write_piece
from splay.quantity import Show, read_length
from splay.shop import Shop
from workshop.build.log import Line, write
from workshop.build.models import BuildRow, Entry, KeptOrder, Timer, UnitDone
from workshop.build.situation import Situation, kind_of, situation
from workshop.pieces import actions as pieces
from workshop.pieces.actions import Maker, get_row, named
from workshop.pieces.models import PieceRow
from workshop.pieces.photos import plain_jpeg
from workshop.problems import Conflict

LONGEST_RUN = timedelta(hours=12)
"""A timer that ran longer was left running, or the clock was changed (common practice, no source)."""
CLOCKS_APART_S = 120.0
"""Where the page's own clock, which nobody sets, differs by more, the workshop's was changed."""
MOST_MINUTES = 100_000.0


@transaction.atomic
def keep_build(id: UUID, document: dict[str, Any], based_on: int, shop: Shop, maker: Maker) -> BuildRow:
    """Keep the maker's own order of a piece; Conflict where somebody changed it meanwhile."""
    row = get_row(id, maker)
    build = read_build(document, "build", token_hex())
    had = BuildRow.objects.select_for_update().filter(piece=row).first()
    if (had.number if had else 0) != based_on:
        raise Conflict(
            "Somebody changed the order of this piece meanwhile. Look at it, then change it again."
        )
    before = read_build(had.document) if had else Build()
    if build == before and had is not None:
        return had
    kept, _ = BuildRow.objects.update_or_create(
        piece=row,
        defaults={"document": write_build(build), "number": based_on + 1, "by": named(maker)},
    )
    write(row, Line("order", _changed(before, build)), maker)
    return kept


def _changed(before: Build, after: Build) -> str:
    """What became of the order, in words."""
    said = []
    had, has = {one.key: one.why for one in before.skipped}, {one.key: one.why for one in after.skipped}
    said += [f"left out: {key}{f' ({why})' if why else ''}" for key, why in has.items() if key not in had]
    said += [f"taken in again: {key}" for key in had if key not in has]
    titles = {one.id for one in before.added}
    said += [f"added: {one.title}" for one in after.added if one.id not in titles]
    if before.glue != after.glue:
        said.append(f"glue: {after.glue}")
    if before.outline != after.outline:
        said.append("the outline is cut " + after.outline.replace("_", " "))
    if before.prefinish != after.prefinish:
        said.append("finished before assembly" if after.prefinish else "finished after assembly")
    moved = (before.order, before.split, before.merged) != (after.order, after.split, after.merged)
    return "; ".join(said) or ("the order was changed" if moved else "nothing to see")


@transaction.atomic
def keep_order(id: UUID, shop: Shop, maker: Maker) -> None:
    """Keep the order of a piece as this maker's own for the next piece of its kind."""
    row = get_row(id, maker)
    now = situation(row, shop, maker)
    operations = list(dict.fromkeys(unit.operation for step in now.order.steps for unit in step.units))
    operations = [name for name in operations if name != "own"]
    who = named(maker)
    assert who is not None
    KeptOrder.objects.update_or_create(
        maker=who, kind=kind_of(now.piece), defaults={"operations": operations}
    )
    write(row, Line("order", "kept for the next one of its kind"), maker)


@dataclass(frozen=True)
class Ticked:
    """What is ticked: a step, or some units of it; on one copy. `minutes` as typed, or `seconds` as the
    page's own clock counted them; `token` is the page's name for it; `ago` how long ago it was, where the
    workshop could not be reached then."""

    step: str
    units: tuple[tuple[str, str, str], ...] = ()
    copy: int = 1
    minutes: float | None = None
    seconds: float | None = None
    token: str = ""
    ago: timedelta = timedelta(0)


@transaction.atomic
def tick(id: UUID, ticked: Ticked, shop: Shop, maker: Maker) -> str:
    """Say that a step, or some units of it, is done; what there is to say about its time."""
    row = get_row(id, maker)
    now = situation(row, shop, maker, ticked.copy)
    step = _step(now, ticked.step)
    wanted = _units(step, ticked.units)
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
    step = _step(now, ticked.step)
    if _forget(row, _units(step, ticked.units), ticked.copy):
        write(row, Line("undone", "", step, ticked.copy, token=ticked.token), maker)


def _forget(row: PieceRow, units: tuple[Unit, ...], copy: int) -> int:
    gone = 0
    for unit in units:
        mine = row.units_done.filter(copy=copy, operation=unit.operation, of=unit.of)
        gone += mine.delete()[0]
    return gone


def _step(now: Situation, key: str) -> Step:
    step = now.order.step(key)
    if step is None:
        do = "Look at the order of work again: the piece was changed meanwhile."
        raise BadInput(Fault("step", shorten(key), "a step of this piece", do))
    return step


def _units(step: Step, named_so: tuple[tuple[str, str, str], ...]) -> tuple[Unit, ...]:
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
    copy: int = 1
    seconds: float | None = None
    ago: timedelta = timedelta(0)


@transaction.atomic
def run_timer(id: UUID, timing: Timing, shop: Shop, maker: Maker) -> str:
    """Start or stop the timer of a step; one maker's others stop, for there is one pair of hands."""
    row = get_row(id, maker)
    now = situation(row, shop, maker, timing.copy)
    wanted, at = _step(now, timing.step), now.now - timing.ago
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


def ways_out(id: UUID, step: str, of: str, copy: int, shop: Shop, maker: Maker) -> tuple[Rescue, ...]:
    """How what went wrong at a step is usually saved."""
    row = get_row(id, maker)
    now = situation(row, shop, maker, copy)
    return _ways(now, _step(now, step), of)


def _unit_of(step: Step, of: str) -> Unit:
    return next((unit for unit in step.units if unit.of == of), step.units[0])


def _ways(now: Situation, step: Step, of: str) -> tuple[Rescue, ...]:
    unit = _unit_of(step, of)
    part = next((one for one in now.plan.parts if one.id == unit.of), None)
    mates = [one.id for one in now.plan.parts if part and one.support == part.support]
    used = Entry.objects.filter(
        piece=now.row, sort="mishap", data__rescue="spare", data__of__in=mates
    ).count()
    return rescues(step, unit, now.piece, now.plan, Show(now.shop.rounding.units()), used)


@dataclass(frozen=True)
class Wrong:
    """What went wrong at a step: on which leg or part, which way out was taken, what it asked (`amount` as
    typed, `other` the other leg), and what there is to say."""

    step: str
    of: str
    rescue: str
    copy: int = 1
    amount: str = ""
    other: str = ""
    note: str = ""
    token: str = ""


@transaction.atomic
def go_wrong(id: UUID, wrong: Wrong, shop: Shop, maker: Maker) -> str:
    """Write down what went wrong, and do what its way out asks; what became of it, in words."""
    row = get_row(id, maker)
    if wrong.token and row.log.filter(token=wrong.token).exists():
        return ""
    now = situation(row, shop, maker, wrong.copy)
    step = _step(now, wrong.step)
    unit = _unit_of(step, wrong.of)
    rescue = next((one for one in _ways(now, step, wrong.of) if one.name == wrong.rescue), None)
    if rescue is None:
        do = "Choose one of those that are shown."
        raise BadInput(Fault("rescue", shorten(wrong.rescue), "a way out of this step", do))
    became, until = [], None
    again = done_to(unit, now.order) if rescue.anew else (unit,) if rescue.again else ()
    if again:
        _forget(row, again, wrong.copy)
        gone = _put_away(now, step, again, maker)
        became.append(f"{unit.name}: to be done again" if unit.of else "to be done again")
        if gone:
            became.append(f"{gone} reading{'s' * (gone > 1)} put away")
    if rescue.asks == "length":
        became.append(_shorter(now, unit, wrong.amount, maker))
    if rescue.asks == "leg":
        became.append(_change_places(now, unit, wrong.other))
    if rescue.scraps:
        became.append(f"{unit.name or 'a part'} scrapped")
    if rescue.wait:
        until = now.now + timedelta(hours=rescue.wait.least_h)
        became.append(
            f"wait {rescue.wait.least_h:g} to {rescue.wait.most_h:g} h for {rescue.wait.for_what}"
        )
    data = {
        "rescue": rescue.name,
        "title": rescue.title,
        "of": unit.of,
        "name": unit.name,
        "scrapped": int(rescue.scraps),
        "became": became,
        "until": until.isoformat() if until and rescue.wait else None,
        "for_what": rescue.wait.for_what if rescue.wait else "",
    }
    says = wrong.note.strip()
    write(row, Line("mishap", says, step, wrong.copy, data=data, token=wrong.token), maker)
    return "; ".join(became)


def _put_away(now: Situation, step: Step, again: tuple[Unit, ...], maker: Maker) -> int:
    """Take back the readings of what is done again; their history keeps them."""
    of = {unit.of for unit in again if unit.of}
    keys = {unit.key for unit in again}
    steps = [one for one in now.order.steps if any(unit.key in keys for unit in one.units)] or [step]
    asked = {id for one in steps for id in one.proofs}
    proofs = [
        proof.id
        for proof in now.plan.proofs
        if proof.id in asked and (not of or not proof.of or of & set(proof.of))
    ]
    had = set(now.row.readings.filter(copy=now.copy, proof__in=proofs).values_list("proof", flat=True))
    for proof in had:
        pieces.withdraw(now.row.pk, proof, maker, now.copy)
    return len(had)


def _shorter(now: Situation, unit: Unit, amount: str, maker: Maker) -> str:
    short = read_length(amount, now.shop.rounding.system, "amount")
    if not math.isfinite(short) or short <= 0:
        raise BadInput(Fault("amount", shorten(amount), "how much it is short", "Type what it lacks."))
    made = lowered(now.piece, now.plan, unit.of, short)
    pieces.save(now.row.pk, write_piece(made), "metric", now.row.latest, maker)
    show = Show(now.shop.rounding.units())
    return f"the piece is {show.length(now.piece.height - made.height).text} lower"


def _change_places(now: Situation, unit: Unit, other: str) -> str:
    """The readings taken on two legs change places: each leg goes where the other was."""
    part = {one.id: one for one in now.plan.parts}
    mine, theirs = part.get(unit.of), part.get(other)
    if mine is None or theirs is None or theirs is mine or theirs.support != mine.support:
        do = "Choose another leg of the same set."
        raise BadInput(Fault("other", shorten(other), "the other leg", do))
    asked = {(p.kind, p.of): p.id for p in now.plan.proofs if p.station == "legs"}
    for (kind, of), proof in asked.items():
        if of != (mine.id,) or (kind, (theirs.id,)) not in asked:
            continue
        rows = now.row.readings.filter(copy=now.copy)
        a, b = rows.filter(proof=proof).first(), rows.filter(proof=asked[kind, (theirs.id,)]).first()
        # By way of a name nobody has: a proof has one reading at a time.
        for reading, to in ((a, "-"), (b, proof), (a, asked[kind, (theirs.id,)])):
            if reading is not None:
                reading.proof = to
                reading.save(update_fields=("proof",))
    return f"legs {mine.number} and {theirs.number} changed places"


@dataclass(frozen=True)
class Said:
    """A note, a lesson, a repair: at which step, if any; the minutes it took."""

    sort: str
    says: str
    step: str = ""
    copy: int = 1
    minutes: float | None = None
    token: str = ""


@transaction.atomic
def say(id: UUID, said: Said, shop: Shop, maker: Maker) -> Entry:
    """Write a note, a lesson or a repair into the log."""
    row = get_row(id, maker)
    if not said.says.strip() and said.minutes is None:
        raise BadInput(Fault("says", "nothing", "what there is to say", "Write a word or two."))
    step = _step(situation(row, shop, maker, said.copy), said.step) if said.step else None
    sort = said.sort if said.sort in ("note", "lesson", "repair", "time") else "note"
    line = Line(sort, said.says.strip(), step, said.copy, said.minutes, token=said.token)  # type: ignore[arg-type]
    return write(row, line, maker)


@dataclass(frozen=True)
class Glued:
    """How a sitting of the glue-up went: the steps it holds, dry or in earnest, seconds, each joint by name
    with its outcome, whether it was stopped midway."""

    steps: tuple[str, ...]
    dry: bool
    seconds: float
    joints: tuple[tuple[str, str], ...]
    stopped: bool = False
    note: str = ""
    copy: int = 1
    token: str = ""


OUTCOMES = {"gap": "with a gap", "short": "short of home", "open": "left open"}


@transaction.atomic
def keep_glued(id: UUID, ran: Glued, shop: Shop, maker: Maker) -> None:
    """Keep how a sitting went; in earnest and to its end, its steps are done."""
    row = get_row(id, maker)
    if ran.token and row.log.filter(token=ran.token).exists():
        return
    now = situation(row, shop, maker, ran.copy)
    steps = [_step(now, key) for key in ran.steps]
    bad = [f"{name} {OUTCOMES[how]}" for name, how in ran.joints if how in OUTCOMES]
    how = "stopped midway" if ran.stopped else "dry" if ran.dry else "all home" if not bad else ""
    minutes = f"{len(ran.joints)} joints in {ran.seconds / 60.0:.1f} min"
    says = "; ".join(part for part in (minutes, how, *bad, ran.note.strip()) if part)
    data = {
        "dry": ran.dry,
        "stopped": ran.stopped,
        "seconds": ran.seconds,
        "joints": [list(one) for one in ran.joints],
    }
    first = steps[0] if steps else None
    write(row, Line("glue", says, first, ran.copy, data=data, token=ran.token), maker)
    if ran.dry or ran.stopped:
        return
    for step in steps:
        had = {(one.key, one.operation, one.of) for one in row.units_done.filter(copy=ran.copy)}
        fresh = [u for u in step.units if (u.key, u.operation, u.of) not in had]
        if fresh:
            share = ran.seconds / 60.0 / len(steps)
            mark_done(row, step, fresh, ran.copy, share, now.now, maker)


def keep_picture(
    id: UUID, picture: bytes, step: str, copy: int, says: str, token: str, shop: Shop, maker: Maker
) -> Entry:
    """Keep a photograph in the log; BadInput where it cannot be seen."""
    get_row(id, maker)
    image, width, height = plain_jpeg(picture)
    with transaction.atomic():
        row = get_row(id, maker)
        at = situation(row, shop, maker, copy).order.step(step) if step else None
        data = {"width": width, "height": height}
        return write(row, Line("photo", says, at, copy, data=data, image=image, token=token), maker)
