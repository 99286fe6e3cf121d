"""What can be done to the wood in the store: one action a change, each whole or not at all."""

from __future__ import annotations

from typing import Any
from uuid import UUID

from django.db import transaction
from django.http import Http404

from splay.quantity import Bare
from splay.timber.stock import read_stock, write_stock
from workshop.pieces.actions import Maker, named
from workshop.pieces.photos import plain_jpeg
from workshop.problems import Conflict
from workshop.timber.models import StockPhoto, StockRow
from workshop.timber.reserving import undo_for
from workshop.timber.rows import get_stock, keep


@transaction.atomic
def put_in(given: dict[str, Any], bare: Bare, maker: Maker) -> StockRow:
    """Take a piece of wood into the store."""
    return keep(read_stock(given, bare), maker)


@transaction.atomic
def change(id: UUID, given: dict[str, Any], bare: Bare, based_on: int, maker: Maker) -> StockRow:
    """Change a piece of wood; Conflict where somebody did meanwhile. What was reserved of it is free again,
    and said at its piece: what was laid out there may not lie in sound wood any more."""
    row = StockRow.objects.select_for_update().filter(pk=id, gone="").first()
    if row is None:
        raise Http404
    item = read_stock({name: value for name, value in given.items() if name != "id"}, bare)
    document = write_stock(item)
    if document == row.document:
        return row
    if row.number != based_on:
        raise Conflict("Somebody changed this piece of wood meanwhile. Look at it, then change it again.")
    if row.reserved_for is not None and _differs(row.document, document):
        undo_for(row.reserved_for, f"{item.name} was changed in the store", maker)
        row.refresh_from_db()
    row.document, row.number, row.by = document, row.number + 1, named(maker)
    row.save()
    return row


BESIDES = ("name", "notes", "place", "cost", "source", "seen", "moisture", "photo")
"""What of a piece of wood can change with nothing that is cut from it changing."""


def _differs(was: dict[str, Any], becomes: dict[str, Any]) -> bool:
    return {k: v for k, v in was.items() if k not in BESIDES} != {
        k: v for k, v in becomes.items() if k not in BESIDES
    }


@transaction.atomic
def throw_out(id: UUID, maker: Maker) -> None:
    """Take a piece of wood out of the store; it can be put back."""
    row = get_stock(id)
    if row.reserved_for is not None:
        undo_for(row.reserved_for, f"{row.document.get('name')} was taken out of the store", maker)
        row.refresh_from_db()
    row.gone = "thrown"
    row.save()


@transaction.atomic
def put_back(id: UUID) -> StockRow:
    """Put back what was taken out of the store; what was sawn up is not there to be put back."""
    row = get_stock(id)
    if row.gone == "sawn":
        raise Conflict("It was sawn up. Say at its piece that it was not.")
    row.gone = ""
    row.save()
    return row


@transaction.atomic
def keep_photo(id: UUID, given: bytes) -> StockPhoto:
    """Keep a photograph of a piece of wood, in the place of the one before."""
    image, width, height = plain_jpeg(given)
    said = {"image": image, "width": width, "height": height}
    kept, _ = StockPhoto.objects.update_or_create(stock=get_stock(id), defaults=said)
    return kept
