"""A piece of wood as it is sent: its size, what is reserved of it, how long until it is dry."""

from __future__ import annotations

from typing import Any
from uuid import UUID

from ninja import Schema

from splay.quantity import Quantity, Show
from splay.summary import chosen
from splay.timber.moisture import drying, led_to, so_long
from splay.timber.stock import AnyStock, Board, Log, Slab, Stock, TurnedStick
from splay.timber.told import sized, text_of
from splay.work.phrases import so_many
from workshop.pieces.answers import PhotoOut
from workshop.timber.models import StockPhoto, StockRow
from workshop.timber.reserving import loaded
from workshop.timber.rows import Lying

SLICE_MM = 200.0
"""A log that is shorter dries as a slice (common practice, no source)."""
AIR = (20.0, 50.0)
"""The shop's air where nothing was read: °C and % (common practice, no source)."""


class TakenFor(Schema):
    """A piece that wood is reserved for."""

    id: UUID
    name: str


class Taken(Schema):
    """A part of a board or slab that is spoken for: its corners in the stock's own frame, mm, and its
    name."""

    name: str
    corners: list[tuple[float, float]]


class StockOut(Schema):
    """A piece of wood: its document, its size and its figures (`chosen`) in the maker's units, what it is
    reserved for and what of it (`taken`; `left` goes back to the store), its moisture and how long until it
    has come to the shop's air; its flaws as corners, mm."""

    id: UUID
    item: Stock
    chosen: dict[str, Quantity]
    number: int
    text: str
    sizes: list[Quantity]
    moisture: float | None
    dries: str
    reserved_for: TakenFor | None
    taken: list[Taken]
    left: list[list[tuple[float, float]]]
    flaws: list[Taken]
    photo: PhotoOut | None
    by: str | None


def stock_out(one: Lying, show: Show) -> StockOut:
    """A piece of wood as it is sent."""
    row, item = one.row, one.item
    piece = row.reserved_for if row.reserved_for and row.reserved_for.removed is None else None
    taken, left = _spoken_for(row, item) if piece else ([], [])
    photo = getattr(row, "photo", None) if isinstance(item, Slab) else None
    return StockOut(
        id=row.pk,
        item=item,
        chosen=_chosen(item, show),
        number=row.number,
        text=text_of(item, show),
        sizes=list(sized(item, show)),
        moisture=item.now,
        dries=dries(item),
        reserved_for=TakenFor(id=piece.pk, name=_name_of(piece)) if piece else None,
        taken=taken,
        left=left,
        flaws=list(flaws_of(item)),
        photo=_photo(photo),
        by=row.by.get_username() if row.by else None,
    )


def _chosen(item: AnyStock, show: Show) -> dict[str, Quantity]:
    """Its typed values by path as the maker reads them; places are drawn, not typed."""
    found = chosen(item, show)
    return {path: q for path, q in found.items() if not path.startswith(("outline", "photo"))}


def _photo(photo: StockPhoto | None) -> PhotoOut | None:
    return PhotoOut(width=photo.width, height=photo.height, taken=photo.taken) if photo else None


def _name_of(piece: Any) -> str:
    last = piece.revisions.filter(number=piece.latest).first()
    return str(last.document.get("name", "")) if last else ""


def flaws_of(item: AnyStock) -> list[Taken]:
    """What is wrong with it, as corners in its own frame."""
    if isinstance(item, Board):
        return [
            Taken(name=flaw.kind, corners=_box(flaw.start, flaw.low, flaw.end, flaw.high or item.width))
            for flaw in item.flaws
        ]
    if isinstance(item, Slab):
        made = []
        for spot in item.spots:
            shape = spot.shape()
            for part in getattr(shape, "geoms", [shape]):
                if part.geom_type == "Polygon":
                    made.append(
                        Taken(name=spot.kind, corners=[(x, y) for x, y in part.exterior.coords[:-1]])
                    )
        return made
    return []


def _box(x0: float, y0: float, x1: float, y1: float) -> list[tuple[float, float]]:
    return [(x0, y0), (x1, y0), (x1, y1), (x0, y1)]


def _spoken_for(row: StockRow, item: AnyStock) -> tuple[list[Taken], list[list[tuple[float, float]]]]:
    wood = getattr(row.reserved_for, "wood", None)
    if wood is None or not wood.kept:
        return [], []
    layout = loaded(wood.kept["layout"])
    for cut in layout.boards:
        if cut.stock == str(row.pk):
            blanks = [
                Taken(name=b.name, corners=_box(b.x, b.y, b.x + b.length, b.y + b.width))
                for b in cut.blanks
            ]
            return blanks, [_box(r.x, r.y, r.x + r.length, r.y + r.width) for r in cut.left]
    for slab in layout.slabs:
        if slab.stock == str(row.pk):
            parts = [Taken(name=part.name, corners=list(part.outline)) for part in slab.parts]
            return parts, [list(ring) for ring in slab.left]
    return [], []


def dries(item: AnyStock) -> str:
    """How long until it has come near what the shop's air leads to, in words; empty where it is there."""
    if item.now is None:
        return ""
    if isinstance(item, Log) and item.length > SLICE_MM:
        return "split or saw it first: whole it checks before it dries" if item.now > 25.0 else ""
    ends = led_to(*AIR)
    wanted = ends + 2.0
    if item.now <= wanted:
        return ""
    sort = "slab" if isinstance(item, Slab) else "slice" if isinstance(item, Log) else "board"
    if isinstance(item, Log):
        thick = min(item.length, item.small_end)
    else:
        thick = item.thick_end if isinstance(item, TurnedStick) else item.thickness
    wait = drying(sort, thick, item.now, wanted, ends, item.readings)
    if wait.never:
        return "stays as moist as that in this air"
    said = f"to {wanted:.0f} %: {so_long(wait.least, wait.most)}"
    return (
        f"{said}, by {so_many(wait.readings, 'reading', 'readings')}"
        if wait.readings
        else f"{said}, as is usual"
    )
