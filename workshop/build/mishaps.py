"""What went wrong, and what its way out asks: done and written down together."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import timedelta
from uuid import UUID

from django.db import transaction

from splay.build import Step, Unit
from splay.build.rescue import Rescue, done_to, lowered, rescues
from splay.errors import BadInput, Fault, shorten
from splay.piece import write_piece
from splay.quantity import Show, read_length
from splay.shop import Shop
from splay.work.phrases import so_many
from workshop.build.log import Line, write
from workshop.build.models import Entry
from workshop.build.situation import Situation, situation
from workshop.build.ticking import forget, step_of
from workshop.pieces import actions as pieces
from workshop.pieces.actions import Maker, get_row
from workshop.sent import FIRST


def ways_out(id: UUID, step: str, of: str, copy: int, shop: Shop, maker: Maker) -> tuple[Rescue, ...]:
    """How what went wrong at a step is usually saved."""
    row = get_row(id, maker)
    now = situation(row, shop, maker, copy)
    return _ways(now, step_of(now, step), of)


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
    copy: int = FIRST
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
    step = step_of(now, wrong.step)
    unit = _unit_of(step, wrong.of)
    rescue = next((one for one in _ways(now, step, wrong.of) if one.name == wrong.rescue), None)
    if rescue is None:
        do = "Choose one of those that are shown."
        raise BadInput(Fault("rescue", shorten(wrong.rescue), "a way out of this step", do))
    became, until = [], None
    again = done_to(unit, now.order) if rescue.anew else (unit,) if rescue.again else ()
    if again:
        forget(now, again, wrong.copy)
        gone = _put_away(now, again, maker)
        became.append(f"{unit.name}: to be done again" if unit.of else "to be done again")
        if gone:
            became.append(f"{so_many(gone, 'reading', 'readings')} put away")
    if rescue.asks == "length":
        became.append(_shorter(now, unit, wrong.amount, maker))
    if rescue.asks == "leg":
        became.append(_change_places(now, unit, wrong.other))
    if rescue.scraps:
        became.append(f"{unit.name} scrapped")
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
        "until": until.isoformat() if until else None,
        "for_what": rescue.wait.for_what if rescue.wait else "",
    }
    says = wrong.note.strip()
    write(row, Line("mishap", says, step, wrong.copy, data=data, token=wrong.token), maker)
    return "; ".join(became)


def _put_away(now: Situation, again: tuple[Unit, ...], maker: Maker) -> int:
    """Take back the readings of what is done again; their history keeps them."""
    of = {unit.of for unit in again if unit.of}
    keys = {unit.key for unit in again}
    steps = [one for one in now.order.steps if any(unit.key in keys for unit in one.units)]
    asked = {id for one in steps for id in one.proofs}
    proofs = [proof.id for proof in now.plan.proofs if proof.id in asked and (not of or of & set(proof.of))]
    had = set(now.row.readings.filter(copy=now.copy, proof__in=proofs).values_list("proof", flat=True))
    for proof in had:
        pieces.withdraw(now.row.pk, proof, maker, now.copy)
    return len(had)


def _shorter(now: Situation, unit: Unit, amount: str, maker: Maker) -> str:
    short = read_length(amount, now.shop.rounding.system, "amount")
    if short <= 0:
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
