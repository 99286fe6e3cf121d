"""The timber store: wood put in, looked for, changed, taken out; outlines and tables read."""

from typing import Annotated, Any, Literal
from uuid import UUID

from django.http import Http404, HttpRequest, HttpResponse
from django.utils import timezone
from ninja import Query, Router, Schema, Status
from pydantic import Field

from splay.instruments import Heard, listen
from splay.quantity import Bare, Show, read_length, read_number
from splay.timber.moisture import led_to
from splay.timber.species import WOODS
from splay.timber.stock import FLAWS, Pile
from splay.timber.told import sized
from workshop.gauges.bench import SimulatedBench
from workshop.pieces.answers import PhotoOut
from workshop.sent import Sent
from workshop.shop.models import Maker, the_shop
from workshop.timber import store, taking_in
from workshop.timber.answers import AIR, StockOut, stock_out
from workshop.timber.models import StockPhoto, StockRow
from workshop.timber.reserving import freshen_all
from workshop.timber.rows import Lying, get_stock, item_of, lying, unread
from workshop.timber.taking_in import MOST_LETTERS, Sort

router = Router()
Words = Annotated[str, Field(max_length=120)]
Typed = Annotated[str, Field(max_length=40)]
MOST_MOIST = 250.0
"""Percent: wetter wood than any tree's."""


class UnreadOut(Schema):
    """A piece of wood that cannot be read, and why."""

    id: UUID
    name: str
    why: str


class StoreOut(Schema):
    """The wood that is there (`unread`: what of it cannot be read), the kinds of wood and of flaws there
    are, and what the shop's air leads to."""

    items: list[StockOut]
    found: int
    species: list[str]
    flaws: dict[str, str]
    air_leads_to: float
    unread: list[UnreadOut]


class Sought(Schema):
    """What is looked for: words of its name or place, a kind of wood, a sort of stock; at least so
    long, wide and thick, at most so moist (percent), as typed, bare lengths read in `bare`; and free."""

    words: Words = ""
    species: Words = ""
    kind: Literal["", "board", "slab", "log", "stick"] = ""
    length: Typed = ""
    width: Typed = ""
    thickness: Typed = ""
    driest: Typed = ""
    bare: Bare | None = None
    free: bool = False


class StockIn(Sent):
    """A piece of wood; texts without a unit are read in `bare`."""

    item: dict[str, Any]
    bare: Bare | None = None


class StockSave(StockIn):
    """A piece of wood, and the number it was changed from."""

    based_on: Annotated[int, Field(ge=1)]


class FileIn(Sent):
    """A drawing or a table with a slab's outline."""

    sort: Sort
    text: Annotated[str, Field(max_length=MOST_LETTERS)]
    bare: Bare | None = None


class OutlineOut(Schema):
    """The corners that were found, mm, and what was taken for granted."""

    corners: list[tuple[float, float]]
    said: str


class TakeIn(Sent):
    """A file of stock; with `sure` it is taken in, else only looked through."""

    sort: Literal["json", "csv"]
    text: Annotated[str, Field(max_length=MOST_LETTERS)]
    bare: Bare | None = None
    sure: bool = False


class RowFault(Schema):
    """A row that could not be read, and why."""

    row: int
    said: str


class TakenIn(Schema):
    """What a file holds: how many pieces of wood, which rows cannot be read, how many were taken in, and
    what to name to take that back."""

    names: list[str]
    count: int
    bad: list[RowFault]
    taken: int
    undo: int | None


class Listen(Sent):
    """How many readings were asked for so far, and the last line."""

    count: Annotated[int, Field(ge=1, le=10**9)] = 1
    before: Annotated[str, Field(max_length=60)] = ""


@router.get("", response={200: StoreOut})
def look(request: HttpRequest, sought: Query[Sought]) -> StoreOut:
    """The wood that is there, as far as it is what is looked for."""
    show = Show(the_shop(request.user).rounding.units())
    freshen_all(request.user)
    all_of_it = lying()
    bare = _bare(request, sought.bare)
    typed = (("length", sought.length), ("width", sought.width), ("thickness", sought.thickness))
    least = tuple(read_length(text, bare, name) if text.strip() else 0.0 for name, text in typed)
    driest = read_number(sought.driest, "driest", MOST_MOIST) if sought.driest.strip() else None
    mine = [one for one in all_of_it if _is_sought(one, sought, least, driest, show)]
    return StoreOut(
        items=[stock_out(one, show) for one in mine],
        found=len(all_of_it),
        species=sorted({*WOODS, *(one.item.species for one in all_of_it)}, key=str.casefold),
        flaws=FLAWS,
        air_leads_to=led_to(*AIR),
        unread=[UnreadOut(id=one.row.pk, name=one.name, why=one.why) for one in unread()],
    )


def _is_sought(
    one: Lying, sought: Sought, least: tuple[float, ...], driest: float | None, show: Show
) -> bool:
    item = one.item
    words = sought.words.casefold().split()
    text = f"{item.name} {item.place} {item.species} {item.notes}".casefold()
    if not all(word in text for word in words) or sought.kind not in ("", item.kind):
        return False
    if sought.species and item.species != sought.species:
        return False
    if any(have.value < wanted for have, wanted in zip(sized(item, show), least, strict=True)):
        return False
    if driest is not None and (item.now is None or item.now > driest):
        return False
    return not (sought.free and one.row.reserved_for_id)


def _one(row: StockRow, maker: Maker) -> StockOut:
    return stock_out(Lying(row, item_of(row)), Show(the_shop(maker).rounding.units()))


def _bare(request: HttpRequest, given: Bare | None) -> Bare:
    return given or the_shop(request.user).rounding.system


@router.post("", response={201: StockOut})
def put_in(request: HttpRequest, payload: StockIn) -> Status[StockOut]:
    """Take a piece of wood into the store."""
    row = store.put_in(payload.item, _bare(request, payload.bare), request.user)
    return Status(201, _one(row, request.user))


@router.put("/{uuid:id}", response={200: StockOut})
def change(request: HttpRequest, id: UUID, payload: StockSave) -> StockOut:
    """Change a piece of wood."""
    bare = _bare(request, payload.bare)
    return _one(store.change(id, payload.item, bare, payload.based_on, request.user), request.user)


@router.delete("/{uuid:id}", response={204: None})
def throw_out(request: HttpRequest, id: UUID) -> Status[None]:
    """Take a piece of wood out of the store."""
    store.throw_out(id, request.user)
    return Status(204, None)


@router.put("/{uuid:id}/back", response={200: StockOut})
def put_back(request: HttpRequest, id: UUID) -> StockOut:
    """Put back what was taken out."""
    return _one(store.put_back(id), request.user)


@router.put("/{uuid:id}/photo", response={200: PhotoOut})
def keep_photo(request: HttpRequest, id: UUID) -> PhotoOut:
    """Keep a photograph of a slab (the body is the picture itself)."""
    kept = store.keep_photo(id, request.body)
    return PhotoOut(width=kept.width, height=kept.height, taken=kept.taken)


@router.get("/{uuid:id}/photo", response={200: None})
def photo(request: HttpRequest, id: UUID) -> HttpResponse:
    """The photograph, a JPEG."""
    kept = StockPhoto.objects.filter(stock=get_stock(id)).first()
    if kept is None:
        raise Http404
    answer = HttpResponse(bytes(kept.image), content_type="image/jpeg")
    answer["Cache-Control"] = "private, no-cache"
    return answer


@router.post("/{uuid:id}/meter", response={200: Heard})
def meter(request: HttpRequest, id: UUID, payload: Listen) -> Heard:
    """One reading of the moisture meter held to it."""
    item = item_of(get_stock(id))
    truth = item.now if item.now is not None else led_to(*AIR) + 1.5
    moody = the_shop(request.user).instruments == "moody"
    line = SimulatedBench(truth, moody=moody).send("moisture_meter", payload.count, payload.before)
    return listen("moisture_meter", line, payload.before)


@router.post("/air", response={200: Heard})
def air(request: HttpRequest, payload: Listen) -> Heard:
    """One reading of the hygrometer: how damp the shop's air is, percent."""
    # The simulated air is damper at night and in the wet half of the year.
    now = timezone.localtime()
    truth = 50.0 + 8.0 * ((now.month % 12) / 6.0 - 1.0) + (4.0 if not 8 <= now.hour < 20 else 0.0)
    moody = the_shop(request.user).instruments == "moody"
    line = SimulatedBench(truth, moody=moody).send("hygrometer", payload.count, payload.before)
    return listen("hygrometer", line, payload.before)


@router.post("/outline", response={200: OutlineOut})
def outline(request: HttpRequest, payload: FileIn) -> OutlineOut:
    """The outline in a drawing or a table; nothing is kept."""
    # Read in when a drawing first comes: its libraries take longer than the rest of a start.
    from workshop.timber.outlines_in import outline_in

    found = outline_in(payload.sort, payload.text, _bare(request, payload.bare))
    return OutlineOut(corners=list(found.corners), said=found.said)


@router.get("/file", response={200: Pile})
def file(request: HttpRequest) -> HttpResponse:
    """All the stock as the open file."""
    text = taking_in.pile_of(lying()).model_dump_json(indent=1)
    return _download(text, "application/json", "stock.json")


@router.get("/table", response={200: None})
def table(request: HttpRequest) -> HttpResponse:
    """The stock as a table."""
    return _download(taking_in.table_of(lying()), "text/csv; charset=utf-8", "stock.csv")


def _download(text: str, kind: str, name: str) -> HttpResponse:
    answer = HttpResponse(text, content_type=kind)
    answer["Content-Disposition"] = f'attachment; filename="{name}"'
    return answer


@router.post("/taken_in", response={200: TakenIn})
def take_in(request: HttpRequest, payload: TakeIn) -> TakenIn:
    """Look through a file of stock, and take in what can be read where that is wished."""
    bare = _bare(request, payload.bare)
    found = taking_in.read(payload.sort, payload.text, bare)
    taken, undo = taking_in.keep_all(found.items, request.user) if payload.sure else (0, None)
    names = [item.name for item in found.items[:200]]
    bad = [RowFault(row=one.row, said=one.said) for one in found.bad[:200]]
    return TakenIn(names=names, count=len(found.items), bad=bad, taken=taken, undo=undo)
