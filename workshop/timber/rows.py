"""Pieces of wood as rows, and as the rules know them."""

from __future__ import annotations

from dataclasses import dataclass
from uuid import UUID

from django.http import Http404

from splay.errors import BadInput, Fault, SplayError
from splay.timber.stock import MOST_ITEMS, AnyStock, read_stock, write_stock
from workshop.pieces.actions import Maker, named
from workshop.timber.models import StockRow


@dataclass(frozen=True)
class Lying:
    """A piece of wood as it is kept and as the rules know it: named by its row."""

    row: StockRow
    item: AnyStock


def lying(gone: bool = False) -> list[Lying]:
    """All the wood that is there, or that is gone; what cannot be read is left out."""
    rows = StockRow.objects.filter(gone="") if not gone else StockRow.objects.exclude(gone="")
    found = []
    for row in rows.select_related("reserved_for", "by", "photo")[:MOST_ITEMS]:
        try:
            found.append(Lying(row, item_of(row)))
        except SplayError:
            continue
    return found


@dataclass(frozen=True)
class Unread:
    """A piece of wood that cannot be read any more: its row, what is chalked on it, why."""

    row: StockRow
    name: str
    why: str


def unread() -> list[Unread]:
    """The wood that is there and cannot be read: it harms no other, and is said."""
    found = []
    for row in StockRow.objects.filter(gone="")[:MOST_ITEMS]:
        try:
            item_of(row)
        except SplayError as error:
            name = row.document.get("name") if isinstance(row.document, dict) else None
            found.append(Unread(row, str(name or "without a name")[:80], str(error)[:300]))
    return found


def item_of(row: StockRow) -> AnyStock:
    """A row as the rules know it, its id the row's own."""
    return read_stock(row.document).model_copy(update={"id": str(row.pk)})


def get_stock(id: UUID) -> StockRow:
    """A row; Http404 where there is none."""
    row = StockRow.objects.filter(pk=id).first()
    if row is None:
        raise Http404
    return row


def keep(item: AnyStock, maker: Maker, cut_from: StockRow | None = None) -> StockRow:
    """Keep a piece of wood in a row of its own."""
    if StockRow.objects.filter(gone="").count() >= MOST_ITEMS:
        do = "Throw out what is not there any more."
        raise BadInput(Fault("item", "one more", f"at most {MOST_ITEMS} pieces of wood", do))
    document = write_stock(item.model_copy(update={"id": ""}))
    return StockRow.objects.create(document=document, by=named(maker), cut_from=cut_from)
