"""What can be done to kept pieces: one action a change, each whole or not at all."""

from __future__ import annotations

import math
from dataclasses import dataclass
from secrets import token_hex
from typing import Any
from uuid import UUID

from django.contrib.auth.models import AnonymousUser, User
from django.db import transaction
from django.http import Http404

from splay.errors import SplayError
from splay.piece import Piece, read_piece, write_piece
from splay.plan import plan
from splay.quantity import Bare
from splay.reading import Reading, kind_named, read_reading, with_unit
from splay.setups.asker import Spread
from splay.setups.card import Proof
from splay.shop import Shop
from splay.work.proofs import KINDS
from workshop.pieces.models import PieceRow, ReadingEvent, ReadingRow, Revision
from workshop.problems import Conflict

Maker = User | AnonymousUser
"""Whoever is signed in; the API lets nobody else this far."""


def _named(maker: Maker) -> User | None:
    return maker if isinstance(maker, User) else None


def get_row(id: UUID) -> PieceRow:
    """The piece's row; Http404 where there is none."""
    row = PieceRow.objects.filter(pk=id).first()
    if row is None:
        raise Http404
    return row


def document_of(row: PieceRow, number: int | None = None) -> Revision:
    """A revision of a piece, the latest where no number is named; Http404 where there is none."""
    revision = row.revisions.filter(number=number or row.latest).first()
    if revision is None:
        raise Http404
    return revision


@transaction.atomic
def put_on_rack(piece: Piece, maker: Maker) -> PieceRow:
    """Keep a new piece as its first revision."""
    row = PieceRow.objects.create(latest=1)
    Revision.objects.create(piece=row, number=1, document=write_piece(piece), by=_named(maker))
    return row


@transaction.atomic
def save(id: UUID, document: dict[str, Any], bare: Bare, based_on: int, maker: Maker) -> Revision:
    """Save a piece as its next revision; Conflict where another tab or maker saved meanwhile.

    Saving what stands already makes no revision.
    """
    row = get_row(id)
    piece = read_piece(document, bare, "piece", token_hex())
    last = document_of(row)
    written = write_piece(piece)
    if written == last.document:
        return last
    if based_on != row.latest:
        raise Conflict(
            f"This piece was saved as revision {row.latest} after you opened revision {based_on}. "
            "Nothing is lost: look at the other one, then keep yours or theirs."
        )
    row.latest += 1
    row.save()
    return Revision.objects.create(piece=row, number=row.latest, document=written, by=_named(maker))


def take_off_rack(id: UUID) -> None:
    """Take a piece off the rack, with its revisions and readings."""
    get_row(id).delete()


@dataclass(frozen=True)
class Taken:
    """How a reading was taken: as typed, what bare figures mean, with what, and a note. `kind` is that
    of its proof, needed where the piece no longer asks it."""

    typed: str
    bare: Bare
    tool: str = ""
    note: str = ""
    sure: bool = False
    kind: str = ""


@transaction.atomic
def answer(id: UUID, proof: str, taken: Taken, shop: Shop, maker: Maker) -> ReadingRow:
    """Keep the answer to a proof; one there was before stays in its history."""
    row = get_row(id)
    field = f"readings.{proof}"
    asked = _asked(row, proof, shop)
    kind = kind_named(asked.kind if asked else taken.kind, field)
    reading = read_reading(proof, kind, taken.typed, shop, taken.bare, field)
    had = row.readings.filter(proof=proof).exists()
    typed = with_unit(kind, taken.typed, taken.bare)[:LONGEST_TYPED]
    said = {"value": reading.value, "typed": typed, "tool": taken.tool, "note": taken.note}
    kept, _ = ReadingRow.objects.update_or_create(
        piece=row,
        proof=proof,
        defaults={
            **said,
            "sure": taken.sure,
            "kind": kind.name,
            "expected": asked.expected.value if asked else None,
            "by": _named(maker),
        },
    )
    what = "corrected" if had else "answered"
    ReadingEvent.objects.create(piece=row, proof=proof, what=what, by=_named(maker), **said)
    return kept


def _asked(row: PieceRow, proof: str, shop: Shop) -> Proof | None:
    """A proof as it is asked before it is answered; None where the piece asks no such thing."""
    others = tuple(r for r in readings_of(row) if r.proof != proof)
    try:
        made = plan(read_piece(document_of(row).document), shop, others)
    except SplayError:
        return None
    return next((p for p in made.proofs if p.id == proof), None)


@transaction.atomic
def withdraw(id: UUID, proof: str, maker: Maker) -> None:
    """Take an answer back; its history says so."""
    row = get_row(id)
    for had in row.readings.filter(proof=proof):
        ReadingEvent.objects.create(
            piece=row, proof=proof, what="withdrawn", value=had.value, typed=had.typed, by=_named(maker)
        )
        had.delete()


LONGEST_TYPED = 40
MOST_READINGS = 1000
"""A hand is judged by its latest readings."""
FAR_OFF = {"angle": 6.0, "length": 12.0}
"""Readings further off than this are slips and say nothing of a maker's hand."""


def spreads_of(maker: Maker) -> dict[str, Spread]:
    """How far one maker's readings lie from what was expected, by the kind of proof, over all pieces."""
    if not isinstance(maker, User):
        return {}
    offs: dict[str, list[float]] = {}
    rows = ReadingRow.objects.filter(by=maker, expected__isnull=False)
    latest = rows.order_by("-taken").values_list("kind", "value", "expected")[:MOST_READINGS]
    for kind, value, expected in latest:
        if kind not in KINDS or KINDS[kind].station == "level":
            continue
        far = FAR_OFF[KINDS[kind].measures]
        if expected is not None and abs(value - expected) <= far:
            offs.setdefault(kind, []).append(value - expected)
    return {
        kind: Spread(math.sqrt(math.fsum(o * o for o in many) / len(many)), len(many))
        for kind, many in offs.items()
    }


def readings_of(row: PieceRow) -> tuple[Reading, ...]:
    """A piece's readings as the core knows them."""
    return tuple(Reading(r.proof, r.value, r.sure, r.kind) for r in row.readings.all())
