"""What a maker tells the log: notes, lessons, photographs, how a glue-up went."""

from __future__ import annotations

from dataclasses import dataclass
from uuid import UUID

from django.db import transaction

from splay.errors import BadInput, Fault
from splay.shop import Shop
from workshop.build.log import Line, write
from workshop.build.models import Entry
from workshop.build.situation import situation
from workshop.build.ticking import mark_done, step_of
from workshop.pieces.actions import Maker, get_row
from workshop.pieces.photos import plain_jpeg


@dataclass(frozen=True)
class Said:
    """A note, a lesson, a repair: at which step, if any; the minutes it took."""

    sort: str
    says: str
    step: str
    copy: int
    minutes: float | None
    token: str


@transaction.atomic
def say(id: UUID, said: Said, shop: Shop, maker: Maker) -> Entry:
    """Write a note, a lesson or a repair into the log."""
    row = get_row(id, maker)
    if not said.says.strip() and said.minutes is None:
        raise BadInput(Fault("says", "nothing", "what there is to say", "Write a word or two."))
    step = step_of(situation(row, shop, maker, said.copy), said.step) if said.step else None
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
    stopped: bool
    note: str
    copy: int
    token: str


OUTCOMES = {"gap": "with a gap", "short": "short of home", "open": "left open"}


@transaction.atomic
def keep_glued(id: UUID, ran: Glued, shop: Shop, maker: Maker) -> None:
    """Keep how a sitting went; in earnest and to its end, its steps are done."""
    row = get_row(id, maker)
    if ran.token and row.log.filter(token=ran.token).exists():
        return
    now = situation(row, shop, maker, ran.copy)
    steps = [step_of(now, key) for key in ran.steps]
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
