"""The wood of one piece: what it needs, out of what, reserved and sawn."""

from typing import Annotated, Any
from uuid import UUID

from django.http import HttpRequest
from ninja import Router, Schema, Status
from pydantic import Field

from splay.build import Build, read_build
from splay.build.finish import use_of
from splay.judge import Finding
from splay.quantity import Quantity
from splay.summary import chosen
from splay.timber.choices import Laid, WoodChoice
from splay.timber.effects import Effects, effects
from splay.timber.fixings import Fixing, fixings
from splay.timber.judged import judged, used_ids
from splay.timber.laid import WoodLayout
from splay.timber.moving import Carried, moved
from splay.timber.needs import Need
from splay.timber.species import WOODS, Wood
from splay.timber.stock import AnyStock, Slab
from splay.timber.told import text_of
from workshop.build.models import BuildRow
from workshop.pieces.actions import Maker, get_row
from workshop.sent import Sent
from workshop.timber import reserving
from workshop.timber.answers import StockOut, stock_out
from workshop.timber.reserving import Wooded, wooded
from workshop.timber.rows import get_stock, item_of, lying

router = Router()


class FreeStock(Schema):
    """Wood that it may be taken from: its id, what is chalked on it, its size."""

    id: str
    name: str
    text: str


class WoodOut(Schema):
    """The wood of a piece: what it needs, what else (screws, dowels, `fixings`), what was chosen (and its
    figures in the maker's units), what it is laid out on where that was done, the stock in it, what the
    wood does, what is wrong; whether it is `reserved`, what of that is `sawn`, what became of a
    reservation (`said`), what wood is `free` for it."""

    needs: list[Need]
    fixings: list[Fixing]
    document: WoodChoice
    chosen: dict[str, Quantity]
    number: int
    layout: WoodLayout | None
    stock: list[StockOut]
    effects: Effects
    findings: list[Finding]
    reserved: bool
    sawn: list[str]
    said: str
    species: list[str]
    free: list[FreeStock]


class WoodSave(Sent):
    """What is chosen, and the number it was changed from."""

    document: dict[str, Any]
    based_on: Annotated[int, Field(ge=0)]


class LayOut(Sent):
    """How long may be looked for the best plan, seconds; none for the first one."""

    seconds: Annotated[float, Field(ge=0, le=8)] = 1.6


class Moving(Sent):
    """A part that is dragged: where it would lie, and where the others do."""

    laid: Annotated[list[Laid], Field(max_length=120)]
    stock: UUID


class SawnIn(Sent):
    """The stock that was sawn as laid out; or was not, after all."""

    stock: UUID
    undo: bool = False


def _out(now: Wooded, maker: Maker, layout: WoodLayout | None = None) -> WoodOut:
    kept = reserving.freshen(now, maker)
    reserved = bool(kept and kept.kept)
    if kept and kept.kept:
        layout = reserving.loaded(kept.kept["layout"])
    elif layout is None and kept and kept.found and kept.found["revision"] == now.row.latest:
        layout = reserving.loaded(kept.found["layout"])
    sawn = list(kept.sawn) if kept else []
    there = [*lying(), *(one for one in lying(gone=True) if str(one.row.pk) in sawn)]
    ids = used_ids(layout) if layout else []
    mine = [one for one in there if str(one.row.pk) in ids]
    by_id = {one.item.id: one.item for one in mine}
    done = effects(
        now.piece, now.plan, now.choice, _woods(layout, by_id), _moisture(layout, by_id), now.show
    )
    free = {item.id: item for item in reserving.free_for(now.row)}
    found = judged(layout, now.needs, free | by_id, done, _outdoors(now), now.show) if layout else ()
    return WoodOut(
        needs=list(now.needs),
        fixings=list(fixings(now.piece, now.plan, now.show)),
        document=now.choice,
        chosen=chosen(now.choice, now.show),
        number=kept.number if kept else 0,
        layout=layout,
        stock=[stock_out(one, now.show) for one in mine],
        effects=done,
        findings=list(found),
        reserved=reserved,
        sawn=sawn,
        said=kept.said if kept else "",
        species=sorted({*WOODS, *(one.item.species for one in there)}, key=str.casefold),
        free=[
            FreeStock(id=item.id, name=item.name, text=text_of(item, now.show)) for item in free.values()
        ],
    )


def _woods(layout: WoodLayout | None, stock: dict[str, AnyStock]) -> dict[str, Wood]:
    """The wood the seat is laid out in, and that of most of the rest."""
    found: dict[str, Wood] = {}
    if layout is None:
        return found
    for slab in layout.slabs:
        if slab.stock in stock:
            found["top"] = stock[slab.stock].wood
    rest: list[Wood] = []
    for cut in layout.boards:
        for blank in cut.blanks:
            if cut.stock in stock:
                wood = stock[cut.stock].wood
                if blank.role in ("top", "board"):
                    found["top"] = wood
                else:
                    rest.append(wood)
    rest += [stock[one.stock].wood for one in layout.sticks if one.stock in stock]
    for log in layout.logs:
        if log.stock not in stock:
            continue
        if log.slices:
            found["top"] = stock[log.stock].wood
        else:
            rest.append(stock[log.stock].wood)
    if rest:
        found["rest"] = max(rest, key=rest.count)
    return found


def _moisture(layout: WoodLayout | None, stock: dict[str, AnyStock]) -> float | None:
    """What was read of the seat's wood."""
    if layout is None:
        return None
    ids = [slab.stock for slab in layout.slabs] + [log.stock for log in layout.logs if log.slices]
    ids += [cut.stock for cut in layout.boards if any(b.role in ("top", "board") for b in cut.blanks)]
    return next((stock[id].now for id in ids if id in stock), None)


def _outdoors(now: Wooded) -> bool:
    kept = BuildRow.objects.filter(piece=now.row).first()
    return use_of(now.piece, read_build(kept.document) if kept else Build()) == "outdoors"


@router.get("/{uuid:id}/wood", response={200: WoodOut})
def look(request: HttpRequest, id: UUID) -> WoodOut:
    """What a piece needs of wood, and what is reserved for it."""
    row = get_row(id, request.user)
    return _out(wooded(row, request.user), request.user)


@router.put("/{uuid:id}/wood", response={200: WoodOut})
def choose(request: HttpRequest, id: UUID, payload: WoodSave) -> WoodOut:
    """Change what is chosen about its wood."""
    kept = reserving.keep_choice(id, payload.document, payload.based_on, request.user)
    return _out(wooded(kept.piece, request.user), request.user)


@router.post("/{uuid:id}/wood/layout", response={200: WoodOut})
def lay_out(request: HttpRequest, id: UUID, payload: LayOut) -> WoodOut:
    """Lay it out on the wood that is free."""
    now = wooded(get_row(id, request.user), request.user)
    found = None if now.kept and now.kept.kept else reserving.find(now, payload.seconds, request.user)
    return _out(now, request.user, found)


@router.post("/{uuid:id}/wood/moved", response={200: Carried})
def move(request: HttpRequest, id: UUID, payload: Moving) -> Carried:
    """Where parts would lie on one slab, and what is wrong with that; nothing is kept."""
    now = reserving.wooded(get_row(id, request.user), request.user)
    item = item_of(get_stock(payload.stock))
    if not isinstance(item, Slab):
        return Carried((), (), ())
    return moved(now.needs, item, payload.laid, now.choice.kerf, now.show)


@router.put("/{uuid:id}/wood/reserved", response={200: WoodOut})
def reserve(request: HttpRequest, id: UUID) -> WoodOut:
    """Reserve the wood it is laid out on."""
    kept = reserving.reserve(id, request.user)
    return _out(wooded(kept.piece, request.user), request.user)


@router.delete("/{uuid:id}/wood/reserved", response={204: None})
def give_back(request: HttpRequest, id: UUID) -> Status[None]:
    """Give back what is reserved and not sawn."""
    reserving.give_back(id, request.user)
    return Status(204, None)


@router.put("/{uuid:id}/wood/sawn", response={200: WoodOut})
def sawn(request: HttpRequest, id: UUID, payload: SawnIn) -> WoodOut:
    """Say that a piece of stock was sawn as laid out; what is left goes back to the store."""
    kept = reserving.saw(id, payload.stock, payload.undo, request.user)
    return _out(wooded(kept.piece, request.user), request.user)
