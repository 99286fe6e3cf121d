"""Where the build of a piece stands: its order and progress, from what is kept."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import datetime
from statistics import median

from django.contrib.auth.models import User
from django.db.models import F
from django.utils import timezone

from splay.build import Build, Order, Record, order_of, read_build
from splay.build.glueup import Pace
from splay.build.progress import Done, Hold, Progress, progress
from splay.piece import Piece, read_piece
from splay.plan import Plan
from splay.quantity import Show
from splay.shop import Shop, with_every_kind
from workshop.build.models import BuildRow, Entry, KeptOrder, UnitDone
from workshop.pieces.actions import Maker, document_of, readings_of
from workshop.pieces.models import PieceRow, Revision
from workshop.pieces.planned import planned
from workshop.sent import FIRST

MOST_TIMES = 400
"""A hand is judged by its latest times."""
GLUED = "glue"


@dataclass(frozen=True)
class Situation:
    """One copy of a piece on its way: the piece, its plan, the order of its build and how far it is."""

    row: PieceRow
    piece: Piece
    plan: Plan
    shop: Shop
    build: Build
    number: int
    record: Record
    order: Order
    progress: Progress
    copy: int
    now: datetime
    done: dict[int, tuple[Done, ...]]
    holds: dict[int, dict[str, Hold]]

    def at(self, copy: int) -> Progress:
        """How far another copy is."""
        return progress(self.order, self.done.get(copy, ()), self.now, self.holds.get(copy))


def situation(row: PieceRow, shop: Shop, maker: Maker, copy: int = FIRST) -> Situation:
    """Where a piece stands for one maker; BadInput or CannotBuild where it cannot be planned."""
    piece = read_piece(document_of(row).document)
    every, lent = with_every_kind(shop)
    made = planned(piece, every, readings_of(row, shop, copy))
    kept = BuildRow.objects.filter(piece=row).first()
    build = read_build(kept.document) if kept else Build()
    record = record_of(maker, piece, row)
    order = order_of(piece, made, build, record, Show(shop.rounding.units()), lent)
    done: dict[int, list[Done]] = {}
    for one in row.units_done.all():
        done.setdefault(one.copy, []).append(Done(one.key, one.operation, one.of, one.at))
    now = timezone.now()
    by_copy = {number: tuple(those) for number, those in done.items()}
    holds = _holds(row)
    return Situation(
        row,
        piece,
        made,
        shop,
        build,
        kept.number if kept else 0,
        record,
        order,
        progress(order, by_copy.get(copy, ()), now, holds.get(copy)),
        copy,
        now,
        by_copy,
        holds,
    )


def _holds(row: PieceRow) -> dict[int, dict[str, Hold]]:
    """What mishaps make some steps wait for, by copy and step."""
    found: dict[int, dict[str, Hold]] = {}
    for entry in Entry.objects.filter(piece=row, sort="mishap").order_by("at"):
        until, why = entry.data.get("until"), entry.data.get("for_what", "")
        if until:
            found.setdefault(entry.copy, {})[entry.step] = (datetime.fromisoformat(until), str(why))
    return found


def kind_of(piece: Piece) -> str:
    """What counts as the same kind of piece for the order of its work: its supports, joints and whether
    anything runs between its legs."""
    kinds = sorted({support.kind for support in piece.supports} | joints_of(piece))
    return " ".join((*kinds, *(("members",) if piece.members else ())))[:200]


def joints_of(piece: Piece) -> set[str]:
    """The ways its legs are joined to the top."""
    return {support.joint.way for _, support in piece.staked()}


def record_of(maker: Maker, piece: Piece, row: PieceRow) -> Record:
    """One maker's own times, the joints they made in other pieces, the order they keep for such ones."""
    if not isinstance(maker, User):
        return Record()
    times = UnitDone.objects.filter(by=maker, minutes__isnull=False).order_by("-pk")
    minutes: dict[str, list[float]] = {}
    for operation, took in times.values_list("operation", "minutes")[:MOST_TIMES]:
        minutes.setdefault(operation, []).append(took or 0.0)
    kept = KeptOrder.objects.filter(maker=maker, kind=kind_of(piece)).first()
    return Record(
        minutes={name: tuple(reversed(those)) for name, those in minutes.items()},
        joints=frozenset(_glued_by(maker, row)),
        order=tuple(kept.operations) if kept else (),
    )


MOST_GLUED = 12
"""A hand at gluing is judged by its latest glue-ups."""
FEW_GLUED = 2


def pace_of(maker: Maker) -> Pace:
    """One maker's own minutes a joint, from glue-ups not stopped; the usual while they are few."""
    if not isinstance(maker, User):
        return Pace()
    rows = Entry.objects.filter(by=maker, sort="glue", data__dry=False, data__stopped=False)
    took = [
        one["seconds"] / 60.0 / len(one["joints"])
        for one in rows.order_by("-at").values_list("data", flat=True)[:MOST_GLUED]
        if one.get("joints") and one.get("seconds")
    ]
    return Pace(median(took), len(took)) if len(took) >= FEW_GLUED else Pace()


def _glued_by(maker: User, row: PieceRow) -> Iterable[str]:
    """The joints of other pieces this maker glued up or called finished."""
    made = PieceRow.objects.filter(units_done__by=maker, units_done__operation=GLUED)
    made |= PieceRow.objects.filter(made_by=maker, finished__isnull=False)
    ids = set(made.exclude(pk=row.pk).values_list("pk", flat=True)[:100])
    rows = Revision.objects.filter(piece__in=ids, number=F("piece__latest"))
    for document in rows.values_list("document", flat=True):
        if not isinstance(document, dict):
            continue
        for support in document.get("supports", ()):
            joint = support.get("joint") if isinstance(support, dict) else None
            if isinstance(joint, dict) and isinstance(joint.get("way"), str):
                yield joint["way"]
