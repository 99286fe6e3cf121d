"""Files of stock, in and out."""

from __future__ import annotations

import json
from collections.abc import Iterable
from dataclasses import dataclass
from typing import Any, Literal

from django.db import transaction

from splay.errors import BadInput, Fault
from splay.quantity import Bare
from splay.timber.stock import AnyStock, Pile, read_pile, read_stock
from splay.timber.table import BadRow, from_csv, to_csv
from splay.work.phrases import so_many
from workshop.keeping import imports
from workshop.pieces.actions import Maker
from workshop.timber.models import StockRow
from workshop.timber.rows import Lying, keep

Sort = Literal["svg", "dxf", "csv"]
"""What an outline is read from."""
MOST_LETTERS = 900_000


@dataclass(frozen=True)
class Found:
    """What a file holds, and which rows could not be read."""

    items: list[AnyStock]
    bad: list[BadRow]


def pile_of(wood: Iterable[Lying]) -> Pile:
    """The wood as one file; ids count from 1."""
    items = [one.item.model_copy(update={"id": f"w{k}"}) for k, one in enumerate(wood, 1)]
    return Pile(items=tuple(items))


def table_of(wood: Iterable[Lying]) -> str:
    """The wood as a table."""
    return to_csv(one.item for one in wood)


def read(sort: Literal["json", "csv"], text: str, bare: Bare) -> Found:
    """What a file of stock holds; a piece of it that cannot be read is named, the rest can be taken."""
    if sort == "csv":
        return Found(*from_csv(text, bare))
    try:
        given = json.loads(text)
    except (ValueError, RecursionError):
        raise BadInput(Fault("file", "no JSON", "a file of stock", "Choose another file.")) from None
    return _items(given, bare)


def _items(given: Any, bare: Bare) -> Found:
    if not isinstance(given, dict) or given.get("format") != "proud-rake-stock":
        raise BadInput(Fault("file", "another file", "a file of stock", "Choose another file."))
    items = given.get("items")
    # The version, and that it is a list at all, is judged as a whole; then each piece by itself.
    read_pile({**given, "items": []}, bare)
    if not isinstance(items, list):
        raise BadInput(Fault("items", "no list", "a list of wood", "Choose another file."))
    found = Found([], [])
    for number, one in enumerate(items[:5000], 1):
        try:
            found.items.append(read_stock(one, bare))
        except BadInput as bad:
            fault = bad.faults[0]
            found.bad.append(BadRow(number, f"{fault.field.removeprefix('item.')}: {fault.said()}"))
    return found


@transaction.atomic
def keep_all(items: Iterable[AnyStock], maker: Maker) -> tuple[int, int | None]:
    """Keep every piece of wood; how many, and what to name to take them back (None for nothing)."""
    rows = [keep(item, maker) for item in items]
    if not rows:
        return 0, None
    made = imports.remember("stock", {"stock": [str(row.pk) for row in rows]}, maker)
    return len(rows), made.pk


def _undo(data: dict[str, Any], maker: Maker) -> str:
    """Take what a file brought out of the store again; what was changed or reserved since stays."""
    rows = StockRow.objects.filter(pk__in=data["stock"], gone="")
    out = rows.filter(number=1, reserved_for=None).update(gone="thrown")
    stays = rows.filter(gone="").count()
    said = f"{so_many(out, 'piece of wood is', 'pieces of wood are')} out of the store"
    left = so_many(
        stays, "that was changed or reserved since stays", "that were changed or reserved since stay"
    )
    return f"{said}; {left}" if stays else said


imports.UNDO["stock"] = _undo
