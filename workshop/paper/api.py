"""Sheets and files of a piece, and readings brought in as a table."""

from ipaddress import ip_address
from typing import Annotated, Literal
from urllib.parse import urlsplit
from uuid import UUID

from django.http import Http404, HttpRequest, HttpResponse
from django.utils.http import content_disposition_header
from ninja import Query, Router, Schema
from pydantic import Field

from splay.formats.page import Pdf
from splay.formats.tiles import pages_of
from splay.patterns.whole import SORTS
from splay.piece import MOST_MADE
from splay.quantity import Bare
from workshop.paper import readings_in
from workshop.paper.outs import OUTS
from workshop.paper.ready import Asked, Ready
from workshop.pieces.actions import get_row
from workshop.problems import Problem
from workshop.settings import LOOPBACK

router = Router()
Refused = (400, 401, 403, 404, 409, 413, 422)
Copy = Annotated[int, Field(ge=1, le=MOST_MADE)]
Some = Annotated[str, Field(max_length=800)]


class Wished(Schema):
    """What is wished besides: which copy; the day as it is to stand on the sheet; the tools used last, and
    sorts of patterns, by their ids with commas; one pattern by its id; the paper, where it is not the
    printer's own."""

    copy_number: Copy = 1
    day: Annotated[str, Field(max_length=40)] = ""
    tools: Some = ""
    sorts: Some = ""
    pattern: Annotated[str, Field(max_length=120)] = ""
    paper: Literal["", "a4", "letter"] = ""


class OutOut(Schema):
    """One thing that goes out: its name in the address, its group, what it is good for, what it cannot
    carry; how many pages it has, None where it has none."""

    name: str
    group: str
    title: str
    called: str
    good_for: str
    without: str
    pages: int | None


class PatternOut(Schema):
    """One pattern: its sort, what it is, how it is used, its size in the maker's units, how many sheets it
    takes alone."""

    id: str
    sort: str
    title: str
    told: list[str]
    size: str
    pages: int


class PaperOut(Schema):
    """All that can be printed or taken out of a piece: `sorts` what patterns there are and what each sort
    is called, `pattern_pages` the sheets of those that are wished, `code` the address in the bench sheet's
    code, empty where no other device could open it."""

    outs: list[OutOut]
    patterns: list[PatternOut]
    sorts: dict[str, str]
    pattern_pages: int
    code: str


class TableIn(Schema):
    """A table of readings; with `sure` they are taken in, else only looked through."""

    text: Annotated[str, Field(max_length=900_000)]
    bare: Bare | None = None
    sure: bool = False
    copy_number: Copy = 1


class RowSaid(Schema):
    """One row of a table: its number in the file, what it is about, what becomes of it."""

    row: int
    about: str
    said: str


class TableOut(Schema):
    """What a table of readings brings: rows that are new or change an answer, rows that cannot be taken and
    why, how many say what stands already; `taken` how many were taken in, `undo` what to name to take that
    back."""

    fresh: list[RowSaid]
    bad: list[RowSaid]
    same: int
    taken: int
    undo: int | None


def _address(request: HttpRequest, id: UUID) -> str:
    """Where another device of the shop opens the piece's bench mode; empty where this server answers this
    machine alone."""
    address = request.build_absolute_uri(f"/piece/{id}/bench")
    host = urlsplit(address).hostname or ""
    if host in LOOPBACK:
        return ""
    try:
        return "" if ip_address(host).is_loopback else address
    except ValueError:
        return address


def _ready(request: HttpRequest, id: UUID, wished: Wished) -> Ready:
    row = get_row(id, request.user)
    asked = Asked(
        copy=wished.copy_number,
        day=wished.day,
        tools=_ids(wished.tools),
        address=_address(request, id),
        sorts=_ids(wished.sorts),
        pattern=wished.pattern,
        paper=wished.paper,
    )
    return Ready(row, request.user, asked)


def _ids(said: str) -> frozenset[str]:
    return frozenset(filter(None, said.split(",")))


@router.get("/{uuid:id}/out", response={200: PaperOut, Refused: Problem})
def look(request: HttpRequest, id: UUID, wished: Query[Wished]) -> PaperOut:
    """All that goes out of a piece, with the pages of each sheet."""
    ready = _ready(request, id, wished)
    pages: dict[str, int] = {}
    for out in OUTS.values():
        if out.group == "paper" and out.name != "patterns":
            made = out.make(ready)
            pages[out.name] = made.pages if isinstance(made, Pdf) else 0
    pages["patterns"] = pages_of(ready.patterns, ready.printer)
    show = ready.show
    found = ready.all_patterns
    return PaperOut(
        outs=[
            OutOut(
                name=out.name,
                group=out.group,
                title=out.title,
                called=f"{ready.name}{out.called}",
                good_for=out.good_for,
                without=out.without,
                pages=pages.get(out.name),
            )
            for out in OUTS.values()
        ],
        patterns=[
            PatternOut(
                id=one.id,
                sort=one.sort,
                title=one.title,
                told=list(one.told),
                size=f"{show.length(one.size[0]).text} × {show.length(one.size[1]).text}",
                pages=pages_of([one], ready.printer),
            )
            for one in found
        ],
        sorts={sort: called for sort, called in SORTS.items() if any(one.sort == sort for one in found)},
        pattern_pages=pages["patterns"],
        code=ready.asked.address,
    )


@router.get("/{uuid:id}/out/{name}", response={200: None, Refused: Problem})
def take_out(request: HttpRequest, id: UUID, name: str, wished: Query[Wished]) -> HttpResponse:
    """One sheet or file."""
    out = OUTS.get(name)
    if out is None:
        raise Http404
    ready = _ready(request, id, wished)
    made = out.make(ready)
    answer = HttpResponse(made.file if isinstance(made, Pdf) else made, content_type=out.kind)
    header = content_disposition_header(out.kind != "application/pdf", f"{ready.name}{out.called}")
    if header:
        answer["Content-Disposition"] = header
    return answer


@router.post("/{uuid:id}/readings_table", response={200: TableOut, Refused: Problem})
def take_in_readings(request: HttpRequest, id: UUID, payload: TableIn) -> TableOut:
    """Look through a table of readings, and take in all of it where that is wished."""
    found = readings_in.read(id, payload.text, payload.bare, payload.copy_number, request.user)
    undo = readings_in.keep(id, found, request.user) if payload.sure else None
    return TableOut(
        fresh=[RowSaid(row=one.row, about=one.about, said=one.said) for one in found.fresh[:400]],
        bad=[RowSaid(row=one.row, about=one.about, said=one.said) for one in found.bad[:400]],
        same=found.same,
        taken=len(found.fresh) if payload.sure else 0,
        undo=undo,
    )
