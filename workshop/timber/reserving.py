"""The wood of a piece: worked out, reserved, sawn, and freed again where the piece does not fit it any
more."""

from __future__ import annotations

from contextlib import suppress
from dataclasses import dataclass, replace
from typing import Any
from uuid import UUID

from django.db import IntegrityError, transaction
from pydantic import TypeAdapter

from splay.errors import SplayError
from splay.piece import Piece, read_piece
from splay.plan import Plan
from splay.quantity import Show
from splay.shop import Shop, with_every_kind
from splay.timber.choices import WoodChoice, read_choice, write_choice
from splay.timber.judged import used_ids
from splay.timber.laid import WoodLayout
from splay.timber.layout import lay_out_wood
from splay.timber.leftover import leftovers_of
from splay.timber.needs import Need, needs_of
from splay.timber.stock import AnyStock
from workshop.build.log import Line, write
from workshop.pieces.actions import Maker, document_of, get_row, readings_of
from workshop.pieces.models import PieceRow
from workshop.pieces.planned import planned
from workshop.problems import Conflict
from workshop.shop.models import the_shop
from workshop.timber.models import StockRow, WoodRow
from workshop.timber.rows import item_of, keep

_LAYOUT = TypeAdapter(WoodLayout)


@dataclass(frozen=True)
class Wooded:
    """A piece with what is known of its wood: what it needs, chosen, the row where there is one."""

    row: PieceRow
    piece: Piece
    plan: Plan
    shop: Shop
    show: Show
    choice: WoodChoice
    kept: WoodRow | None
    needs: tuple[Need, ...]


def wooded(row: PieceRow, maker: Maker, choice: WoodChoice | None = None) -> Wooded:
    """What a piece needs of wood; BadInput or CannotBuild where it cannot be planned."""
    shop = the_shop(maker)
    piece = read_piece(document_of(row).document)
    every, _ = with_every_kind(shop)
    made = planned(piece, every, readings_of(row, shop))
    kept = WoodRow.objects.filter(piece=row).first()
    chosen = choice or (read_choice(kept.document) if kept and kept.document else WoodChoice())
    show = Show(shop.rounding.units())
    return Wooded(row, piece, made, shop, show, chosen, kept, needs_of(piece, made, chosen, show))


def free_for(row: PieceRow) -> list[AnyStock]:
    """The wood a piece may be taken from: what is nobody's, its own, and what was kept for pieces that hang
    no more."""
    rows = StockRow.objects.filter(gone="").select_related("reserved_for")
    found = []
    for one in rows:
        other = one.reserved_for
        if other is not None and other.pk != row.pk and other.removed is None:
            continue
        try:
            found.append(item_of(one))
        except SplayError:
            continue
    return found


@transaction.atomic
def keep_choice(id: UUID, document: dict[str, Any], based_on: int, maker: Maker) -> WoodRow:
    """Keep what was chosen about a piece's wood; Conflict where somebody changed it meanwhile."""
    row = get_row(id, maker)
    choice = read_choice(document, the_shop(maker).rounding.system, "wood")
    had = WoodRow.objects.select_for_update().filter(piece=row).first()
    if (had.number if had else 0) != based_on:
        raise Conflict(
            "Somebody changed the wood of this piece meanwhile. Look at it, then change it again."
        )
    if had and had.kept:
        raise Conflict("Its wood is reserved as it is laid out: give it back first, then change it.")
    said = {"document": write_choice(choice), "number": based_on + 1, "found": None}
    return WoodRow.objects.update_or_create(piece=row, defaults=said)[0]


def find(now: Wooded, seconds: float, maker: Maker) -> WoodLayout:
    """Lay the piece out on what is free; it is kept, to be reserved."""
    freshen_all(maker)
    stock = free_for(now.row)
    found = lay_out_wood(now.needs, stock, now.choice, now.show, seconds, now.piece.make)
    ids = used_ids(found)
    numbers = dict(StockRow.objects.filter(pk__in=ids).values_list("pk", "number"))
    said = {
        "layout": dumped(found),
        "stock": {str(pk): number for pk, number in numbers.items()},
        "needs": _sizes(now.needs),
        "revision": now.row.latest,
        "choice": write_choice(now.choice),
    }
    # Where the piece went meanwhile there is nothing to keep it with.
    with suppress(IntegrityError):
        WoodRow.objects.update_or_create(piece=now.row, defaults={"found": said})
    return found


def dumped(found: WoodLayout) -> dict[str, Any]:
    """A layout as JSON."""
    made: dict[str, Any] = _LAYOUT.dump_python(found, mode="json")
    return made


def loaded(given: dict[str, Any]) -> WoodLayout:
    """A layout from JSON."""
    return _LAYOUT.validate_python(given)


def _sizes(needs: tuple[Need, ...]) -> dict[str, list[float]]:
    return {need.key: [need.count * need.layers, *need.size] for need in needs}


@transaction.atomic
def reserve(id: UUID, maker: Maker) -> WoodRow:
    """Reserve the wood of the layout last worked out; Conflict where that is not the piece or the wood any
    more."""
    row = get_row(id, maker)
    wood = WoodRow.objects.select_for_update().filter(piece=row).first()
    if wood is None or not wood.found:
        raise Conflict("Nothing is laid out yet: lay it out first.")
    if wood.kept:
        return wood
    found = wood.found
    stock = StockRow.objects.select_for_update().filter(pk__in=found["stock"], gone="")
    there = {str(one.pk): one for one in stock.select_related("reserved_for")}
    same = found["revision"] == row.latest and (not wood.document or found["choice"] == wood.document)
    if not same or len(there) < len(found["stock"]):
        raise Conflict("The piece or the wood was changed since it was laid out: lay it out anew.")
    for key, number in found["stock"].items():
        other = there[key].reserved_for
        if there[key].number != number or (other and other.pk != row.pk and other.removed is None):
            raise Conflict("Somebody took or changed some of this wood meanwhile: lay it out anew.")
    if not found["stock"]:
        raise Conflict("There is no wood in this layout to reserve.")
    stock.update(reserved_for=row)
    wood.kept, wood.sawn, wood.said = found, [], ""
    wood.save()
    write(row, Line("wood", f"reserved: {_names(there.values())}"), maker)
    return wood


def _names(rows: Any) -> str:
    return ", ".join(sorted(str(one.document.get("name", "")) for one in rows))[:300]


@transaction.atomic
def give_back(id: UUID, maker: Maker) -> None:
    """Free what is reserved for a piece and not sawn yet."""
    undo_for(get_row(id, maker), "", maker)


def undo_for(row: PieceRow, why: str, maker: Maker) -> None:
    """Undo the reservation of a piece, and say why where its maker did not ask for it."""
    wood = WoodRow.objects.filter(piece=row).first()
    if wood is None or not wood.kept:
        return
    StockRow.objects.filter(reserved_for=row, gone="").update(reserved_for=None)
    wood.kept, wood.found = None, None
    wood.said = f"Its wood is reserved no more: {why}."[:400] if why else ""
    wood.save()
    write(row, Line("wood", wood.said or "given back to the store"), maker)


@transaction.atomic
def freshen(now: Wooded, maker: Maker) -> WoodRow | None:
    """The row of a piece's wood, its reservation undone where what it needs fits it no more."""
    wood = WoodRow.objects.filter(piece=now.row).first()
    if wood is None or not wood.kept or wood.kept["revision"] == now.row.latest:
        return wood
    had: dict[str, list[float]] = wood.kept["needs"]
    names = [need.name for need in now.needs if not _fits(need, had.get(need.key))]
    if names:
        undo_for(
            now.row, f"the piece was changed, and {names[0]} would not fit what was kept for it", maker
        )
        wood.refresh_from_db()
        return wood
    wood.kept["revision"] = now.row.latest
    wood.save()
    return wood


def freshen_all(maker: Maker) -> None:
    """Undo every reservation that its piece does not fit any more: whoever looks for wood finds it free."""
    for wood in WoodRow.objects.exclude(kept=None).filter(piece__removed=None).select_related("piece"):
        if wood.kept and wood.kept["revision"] == wood.piece.latest:
            continue
        try:
            freshen(wooded(wood.piece, maker), maker)
        except SplayError:
            # As it stands now it cannot be planned: what it had is kept for it.
            continue


def _fits(need: Need, had: list[float] | None) -> bool:
    wanted = (need.count * need.layers, *need.size)
    return had is not None and all(a <= b + 0.05 for a, b in zip(wanted, had, strict=True))


@transaction.atomic
def saw(id: UUID, stock: UUID, undo: bool, maker: Maker) -> WoodRow:
    """Say that a piece of stock was sawn as laid out: it is gone, what is left of it goes back to the store
    with its true size. `undo` takes that back, as long as the leftovers lie there untouched."""
    row = get_row(id, maker)
    wood = WoodRow.objects.select_for_update().filter(piece=row).first()
    source = StockRow.objects.select_for_update().filter(pk=stock, reserved_for=row).first()
    if wood is None or not wood.kept or source is None:
        raise Conflict("That wood is not reserved for this piece.")
    if undo:
        left = list(source.left.all())
        if any(one.reserved_for_id or one.gone or one.number > 1 for one in left):
            raise Conflict("Some of what was left of it was used or changed since: it stays sawn.")
        for one in left:
            one.delete()
        source.gone = ""
        wood.sawn = [key for key in wood.sawn if key != str(stock)]
        said = f"not sawn after all: {source.document.get('name')}"
    elif source.gone:
        return wood
    else:
        layout = loaded(wood.kept["layout"])
        offcuts = leftovers_of(item_of(source), layout, read_choice(wood.kept["choice"]))
        for offcut in offcuts:
            keep(offcut, maker, source)
        source.gone = "sawn"
        wood.sawn = [*wood.sawn, str(stock)]
        said = f"sawn: {source.document.get('name')}; back to the store: {len(offcuts)}"
    source.save()
    wood.save()
    write(row, Line("wood", said), maker)
    return wood


def move(now: Wooded, laid: list[dict[str, Any]]) -> Wooded:
    """The piece with its parts laid elsewhere, nothing kept: for a drag."""
    given = {**write_choice(now.choice), "laid": laid}
    return replace(now, choice=read_choice(given, now.shop.rounding.system, "wood"))
