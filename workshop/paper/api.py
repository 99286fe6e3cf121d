"""Sheets and files of a piece, and readings brought in as a table."""

from ipaddress import ip_address
from typing import Annotated
from urllib.parse import urlsplit
from uuid import UUID

from django.http import HttpRequest, HttpResponse
from django.utils.http import content_disposition_header
from ninja import Query, Router, Schema
from pydantic import Field

from splay.quantity import Bare
from workshop.paper import readings_in
from workshop.paper.answers import PaperOut, Wished
from workshop.pieces.actions import get_row
from workshop.sent import FIRST, Copy, Sent
from workshop.settings import LOOPBACK

router = Router()


class TableIn(Sent):
    """A table of readings; with `sure` they are taken in, else only looked through."""

    text: Annotated[str, Field(max_length=900_000)]
    bare: Bare | None = None
    sure: bool = False
    copy_number: Copy = FIRST


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


@router.get("/{uuid:id}/out", response={200: PaperOut})
def look(request: HttpRequest, id: UUID, wished: Query[Wished]) -> PaperOut:
    """All that goes out of a piece, with the pages of each sheet."""
    # Read in when paper is first asked for: its libraries take longer than the rest of a start.
    from workshop.paper import making

    row = get_row(id, request.user)
    return making.listed(making.ready(row, request.user, wished, _address(request, id)))


@router.get("/{uuid:id}/out/{name}", response={200: None})
def take_out(request: HttpRequest, id: UUID, name: str, wished: Query[Wished]) -> HttpResponse:
    """One sheet or file."""
    from workshop.paper import making

    row = get_row(id, request.user)
    made = making.made(name, making.ready(row, request.user, wished, _address(request, id)))
    answer = HttpResponse(made.file, content_type=made.kind)
    header = content_disposition_header(made.kind != "application/pdf", made.called)
    if header:
        answer["Content-Disposition"] = header
    return answer


@router.post("/{uuid:id}/readings_table", response={200: TableOut})
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
