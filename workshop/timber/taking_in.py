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
from workshop.pieces.actions import Maker
from workshop.timber.rows import Lying, keep


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
def keep_all(items: Iterable[AnyStock], maker: Maker) -> int:
    """Keep every piece of wood; how many."""
    return sum(keep(item, maker) is not None for item in items)
