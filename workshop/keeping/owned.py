"""What an archive brings besides pieces: the wood of the store, and what is each maker's own."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any
from uuid import UUID

from django.contrib.auth.models import User

from splay.shop import Rounding
from splay.timber.stock import AnyStock, read_pile, write_stock
from workshop.accounts.makers import LONGEST_NAME
from workshop.build.models import KeptOrder, OwnHours, OwnRate
from workshop.keeping.archive import PHOTO, STOCK, STORE
from workshop.keeping.parts import Parts
from workshop.pieces.photos import taken_over
from workshop.pieces.record import maker_named
from workshop.shop.models import OwnUnits
from workshop.timber.models import StockPhoto, StockRow, WoodRow

MOST_MAKERS = 500


@dataclass(frozen=True)
class Hung:
    """A piece that hangs now: its row's key, and its state and number of readings as they came, which tell
    later whether anybody worked on it. The row itself is let go: its photograph hangs on it."""

    pk: UUID
    latest: int
    events: int


def stock_in(
    parts: Parts, maker: User | None, makers: dict[str, User], hung: dict[str, Hung]
) -> list[UUID]:
    """The wood with its photographs; in a file of version 2 with what it is reserved for, sawn or cut
    from."""
    pile = read_pile(parts.json(STOCK))
    store = parts.json(STORE) if STORE in parts.names else None
    if store is None:
        rows = [_lay(item, None, maker).pk for item in pile.items]
        for number, pk in enumerate(rows, 1):
            _photo(parts, number, pk)
        return rows
    laid: list[UUID] = []
    by_name: dict[str, UUID] = {}
    for one in store["stock"]:
        number = one["number"]
        row = _lay(
            pile.items[number - 1] if number else None,
            one["document"],
            maker_named(_short(one["by"]), makers) or maker,
            UUID(one["id"]),
        )
        row.gone = _one_of(one["gone"], ("", "thrown", "sawn"))
        kept_for = hung.get(one["reserved_for"])
        row.reserved_for_id = kept_for.pk if kept_for else None
        row.save()
        laid.append(row.pk)
        by_name.setdefault(one["id"], row.pk)
        if number:
            _photo(parts, number, row.pk)
    for one, pk in zip(store["stock"], laid, strict=True):
        if one["cut_from"] in by_name:
            StockRow.objects.filter(pk=pk).update(cut_from=by_name[one["cut_from"]])
    for one in store["wood"]:
        if (piece := hung.get(one["piece"])) is not None:
            said = {"kept": one["kept"], "sawn": one["sawn"], "said": str(one["said"])[:400]}
            WoodRow.objects.update_or_create(piece_id=piece.pk, defaults=said)
    return laid


def _lay(item: AnyStock | None, document: Any, by: User | None, id: UUID | None = None) -> StockRow:
    kept = write_stock(item.model_copy(update={"id": ""})) if item is not None else document
    own = {"id": id} if id is not None and not StockRow.objects.filter(pk=id).exists() else {}
    return StockRow.objects.create(document=kept, by=by, **own)


def _photo(parts: Parts, number: int, pk: UUID) -> None:
    name = PHOTO.format(number)
    if name not in parts.names:
        return
    image, width, height = taken_over(parts.raw(name))
    StockPhoto.objects.create(stock_id=pk, image=image, width=width, height=height)


def _one_of(given: Any, allowed: tuple[str, ...]) -> str:
    return given if given in allowed else ""


def _short(given: Any) -> str | None:
    return given[:LONGEST_NAME] if isinstance(given, str) and given else None


def makers_in(given: Any, makers: dict[str, User]) -> list[str]:
    """What each maker has of their own, where nothing is kept for them yet; the names of those it was
    brought for."""
    brought = []
    for one in given[:MOST_MAKERS]:
        name = _short(one["name"])
        if name is None or not any((one["units"], one["hours"], one["rate"], one["orders"])):
            continue
        maker = maker_named(name, makers)
        assert maker is not None
        fresh = False
        if one["units"] and not OwnUnits.objects.filter(maker=maker).exists():
            rounding = Rounding(**one["units"]).model_dump(mode="json")
            OwnUnits.objects.create(maker=maker, rounding=rounding)
            fresh = True
        if one["hours"] and not OwnHours.objects.filter(maker=maker).exists():
            hours = one["hours"]
            OwnHours.objects.create(maker=maker, stretches=hours["stretches"], off=hours["off"])
            fresh = True
        if one["rate"] and not OwnRate.objects.filter(maker=maker).exists():
            rate = one["rate"]
            OwnRate.objects.create(maker=maker, rate=float(rate["rate"]), money=str(rate["money"])[:8])
            fresh = True
        for order in one["orders"]:
            kind, operations = str(order["kind"])[:200], list(order["operations"])
            said = {"operations": operations}
            fresh |= KeptOrder.objects.get_or_create(maker=maker, kind=kind, defaults=said)[1]
        if fresh:
            brought.append(name)
    return brought
