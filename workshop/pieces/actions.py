"""What can be done to kept pieces: one action a change, each whole or not at all."""

from __future__ import annotations

from typing import Any
from uuid import UUID

from django.contrib.auth.models import AnonymousUser, User
from django.db import transaction
from django.http import Http404

from splay.piece import Piece, read_piece, write_piece
from splay.quantity import Bare
from splay.reading import Reading, read_reading
from splay.shop import Shop
from workshop.pieces.models import PieceRow, ReadingRow, Revision
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
    piece = read_piece(document, bare, "piece")
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


@transaction.atomic
def answer(id: UUID, proof: str, typed: str, shop: Shop, bare: Bare, maker: Maker) -> ReadingRow:
    """Keep the answer to a proof; a second answer takes the place of the first."""
    row = get_row(id)
    reading = read_reading(proof, typed, shop, bare, f"readings.{proof}")
    kept, _ = ReadingRow.objects.update_or_create(
        piece=row, proof=proof, defaults={"value": reading.value, "typed": typed, "by": _named(maker)}
    )
    return kept


def withdraw(id: UUID, proof: str) -> None:
    """Take an answer back."""
    get_row(id).readings.filter(proof=proof).delete()


def readings_of(row: PieceRow) -> tuple[Reading, ...]:
    """A piece's readings as the core knows them."""
    return tuple(Reading(r.proof, r.value) for r in row.readings.all())
