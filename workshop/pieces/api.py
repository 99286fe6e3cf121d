"""The rack: pieces, their revisions, their readings."""

import json
import re
from contextlib import suppress
from datetime import datetime
from typing import Annotated, Any
from uuid import UUID

from django.db.models import F
from django.db.models.fields.json import KT
from django.http import HttpRequest, HttpResponse
from django.utils.http import content_disposition_header
from ninja import Query, Router, Schema, Status
from pydantic import Field, TypeAdapter

from splay.differences import Difference, differences
from splay.draw import draw
from splay.errors import BadInput
from splay.piece import Piece, read_piece, write_piece
from splay.piece.rounded import in_round_figures
from splay.piece.starters import starter
from splay.plan import plan
from splay.quantity import Bare, Quantity, Show
from splay.shop import Shop
from splay.summary import chosen
from splay.views.shapes import View
from workshop.pieces import actions
from workshop.pieces.example import hang_example
from workshop.pieces.models import BIN_NIGHTS, PieceRow, ReadingRow, Revision
from workshop.pieces.rack import RackPiece
from workshop.pieces.rack import drawings as hung_drawings
from workshop.pieces.rack import rack as hanging
from workshop.pieces.record import Record, hang_record, read_record, record_of
from workshop.pieces.starts import Start, ready_starts
from workshop.problems import Conflict
from workshop.sent import FIRST, Copy, Sent
from workshop.shop.models import the_shop

router = Router()
_VIEW = TypeAdapter(View)
LONGEST_LIST = 1000
"""The latest of a history; all of it is in the file of the piece."""


class ReadingOut(Schema):
    """An answer to a proof, as typed. `value` and `shown` are what the shop's scales of today show for it;
    `as_read` says how it was read where that was another scale; `copy_number` which of several like pieces
    it was taken on."""

    proof: str
    copy_number: int
    kind: str
    value: float
    typed: str
    taken: datetime
    by: str | None
    tool: str
    note: str
    sure: bool
    number: int
    shown: str
    as_read: str


class ReadingEventOut(Schema):
    """One line of a proof's history."""

    what: str
    typed: str
    tool: str
    note: str
    at: datetime
    by: str | None


class PieceOut(Schema):
    """A piece with the number of its latest revision, its readings, and its figures as they are read
    (`chosen`, by path): what is shown of a piece that cannot be planned. `by` made it, `saved_by` saved
    this state; `kept` says that only the first sees it, `finished` that its maker called it so."""

    id: UUID
    piece: Piece
    chosen: dict[str, Quantity]
    revision: int
    saved: datetime
    by: str | None
    saved_by: str | None
    kept: bool
    finished: bool
    readings: list[ReadingOut]


class Kept(Sent):
    """Whether a piece is for its maker's eyes."""

    kept: bool


class Finished(Sent):
    """Whether a piece is finished, as its maker says."""

    finished: bool


class Called(Sent):
    """What a saved state is called; empty for no name."""

    called: Annotated[str, Field(max_length=60)]


class OffRack(Sent):
    """A piece that was taken off the rack, and for how many nights it can still be hung up."""

    id: UUID
    name: str
    removed: datetime
    by: str | None
    nights_left: int


class PieceNew(Sent):
    """A new piece: a document (or a whole record), or the name of one to start from. `another` gives it a
    name of its own where the document's is taken."""

    document: dict[str, Any] | None = None
    start: str = "round_three"
    another: bool = False
    bare: Bare | None = None


class PieceSave(Sent):
    """A piece's document and the revision it was changed from."""

    document: dict[str, Any]
    based_on: int
    bare: Bare | None = None


class RevisionOut(Schema):
    """One saved state, without its document: the piece's name in it, and what the state was called."""

    number: int
    saved: datetime
    by: str | None
    name: str
    called: str


class Answer(Sent):
    """What was read for a proof, as typed; `kind` that of the proof, for one the piece asks no more;
    `based_on` the number of the answer that stood there when it was typed, 0 for none; `keep` leaves the
    reading as it was taken and changes only what is said about it; `copy_number` which of several like
    pieces it was taken on."""

    typed: Annotated[str, Field(max_length=40)]
    bare: Bare | None = None
    tool: Annotated[str, Field(max_length=60)] = ""
    note: Annotated[str, Field(max_length=400)] = ""
    sure: bool = False
    kind: Annotated[str, Field(max_length=20)] = ""
    based_on: Annotated[int, Field(ge=0)] | None = None
    keep: bool = False
    copy_number: Copy = FIRST


def _reading_out(row: ReadingRow, shop: Shop) -> ReadingOut:
    value = actions.shown_now(row, shop)
    other = value != row.value
    return ReadingOut(
        proof=row.proof,
        copy_number=row.copy,
        kind=row.kind,
        value=value,
        shown=f"{value:.2f}".rstrip("0").rstrip(".") if other else row.typed,
        as_read=f"read as {row.typed} on the {row.gauge}" if other else "",
        typed=row.typed,
        taken=row.taken,
        by=row.by.get_username() if row.by else None,
        tool=row.tool,
        note=row.note,
        sure=row.sure,
        number=row.number,
    )


def _piece_out(row: PieceRow, revision: Revision, maker: actions.Maker) -> PieceOut:
    piece, shop = read_piece(revision.document), the_shop(maker)
    return PieceOut(
        id=row.pk,
        piece=piece,
        chosen=chosen(piece, Show(shop.rounding.units())),
        revision=revision.number,
        saved=revision.saved,
        by=row.made_by.get_username() if row.made_by else None,
        saved_by=revision.by.get_username() if revision.by else None,
        kept=row.kept,
        finished=row.finished is not None,
        readings=[_reading_out(r, shop) for r in row.readings.select_related("by")],
    )


@router.get("/starts", response={200: list[Start]})
def starts(request: HttpRequest) -> list[Start]:
    """Every piece there is to start from."""
    return ready_starts()


@router.get("", response={200: list[RackPiece]})
def rack(request: HttpRequest) -> list[RackPiece]:
    """Every piece, the one changed last first."""
    return hanging(request.user)


@router.get("/bin", response={200: list[OffRack]})
def off_rack(request: HttpRequest) -> list[OffRack]:
    """The pieces that were taken off the rack and that this maker may hang up again."""
    return [_off(row) for row in actions.taken_off(request.user)[:200]]


def _off(row: PieceRow) -> OffRack:
    assert row.removed is not None
    return OffRack(
        id=row.pk,
        name=row.name or "A piece without a name",  # type: ignore[attr-defined]
        removed=row.removed,
        by=row.removed_by.get_username() if row.removed_by else None,
        nights_left=BIN_NIGHTS - row.nights,
    )


@router.post("/{uuid:id}/hang", response={200: PieceOut})
def hang_again(request: HttpRequest, id: UUID) -> PieceOut:
    """Hang up again what was taken off."""
    row = actions.hang_again(id, request.user)
    return _piece_out(row, actions.document_of(row), request.user)


@router.put("/{uuid:id}/kept", response={200: Kept})
def keep_to_maker(request: HttpRequest, id: UUID, payload: Kept) -> Kept:
    """Keep a piece to its maker, or show it to the shop again."""
    return Kept(kept=actions.keep_to_maker(id, payload.kept, request.user).kept)


@router.put("/{uuid:id}/finished", response={200: Finished})
def finish(request: HttpRequest, id: UUID, payload: Finished) -> Finished:
    """Say that a piece is finished, or not yet."""
    return Finished(finished=actions.finish(id, payload.finished, request.user).finished is not None)


@router.get("/drawings", response={200: dict[UUID, View]})
def drawings(request: HttpRequest, id: Annotated[list[UUID], Query(max_length=24)]) -> HttpResponse:
    """Some pieces as they hang drawn on the rack, by id; those that hang undrawn are left out."""
    found = {str(key): drawn for key, drawn in hung_drawings(id, request.user).items()}
    # They were written by this program and need no second check.
    return HttpResponse(json.dumps(found), content_type="application/json")


@router.post("", response={201: PieceOut})
def put_on_rack(request: HttpRequest, payload: PieceNew) -> Status:
    """Put a new piece on the rack."""
    bare = payload.bare or the_shop(request.user).rounding.system
    document = payload.document
    if document is not None and document.get("format") == "proud-rake-record":
        row = hang_record(read_record(document), actions.named(request.user))
        if row is None:
            raise Conflict("This piece hangs on the rack already, as it is in the file.")
        return Status(201, _piece_out(row, actions.document_of(row), request.user))
    piece = (
        read_piece(document, bare, "document")
        if document is not None
        else in_round_figures(starter(payload.start), bare)
    )
    if document is None or payload.another:
        piece = piece.model_copy(update={"name": actions.fresh_name(piece.name, request.user)})
    row = actions.put_on_rack(piece, request.user)
    return Status(201, _piece_out(row, actions.document_of(row), request.user))


@router.post("/example", response={201: PieceOut})
def example(request: HttpRequest) -> Status:
    """Hang a finished piece on the rack, to look into and throw away."""
    row = hang_example(the_shop(request.user), request.user)
    return Status(201, _piece_out(row, actions.document_of(row), request.user))


@router.get("/{uuid:id}", response={200: PieceOut})
def read(request: HttpRequest, id: UUID) -> PieceOut:
    """One piece as it was last saved."""
    row = actions.get_row(id, request.user)
    return _piece_out(row, actions.document_of(row), request.user)


@router.put("/{uuid:id}", response={200: PieceOut})
def save(request: HttpRequest, id: UUID, payload: PieceSave) -> PieceOut:
    """Save a piece as its next revision."""
    bare = payload.bare or the_shop(request.user).rounding.system
    revision = actions.save(id, payload.document, bare, payload.based_on, request.user)
    return _piece_out(actions.get_row(id, request.user), revision, request.user)


def _file_name(document: Any, ending: str) -> str:
    """The header that names a file after its piece."""
    name = document.get("name") if isinstance(document, dict) else None
    plain = re.sub(r'[\\/:*?"<>|.]+', " ", str(name or ""))
    return content_disposition_header(True, f"{' '.join(plain.split()) or 'Piece'}{ending}") or "attachment"


@router.get("/{uuid:id}/file", response={200: Piece})
def file(request: HttpRequest, id: UUID) -> HttpResponse:
    """The piece as a file to keep: the product's own open format; as it was stored, where that cannot be
    read."""
    document = actions.document_of(actions.get_row(id, request.user)).document
    with suppress(BadInput):
        document = write_piece(read_piece(document))
    answer = HttpResponse(json.dumps(document, ensure_ascii=False), content_type="application/json")
    answer["Content-Disposition"] = _file_name(document, ".json")
    return answer


@router.get("/{uuid:id}/record", response={200: Record})
def record(request: HttpRequest, id: UUID) -> HttpResponse:
    """The piece with its whole history, readings and photograph, as one file to keep."""
    row = actions.get_row(id, request.user)
    answer = HttpResponse(record_of(row).model_dump_json(), content_type="application/json")
    answer["Content-Disposition"] = _file_name(actions.document_of(row).document, " with history.json")
    return answer


@router.delete("/{uuid:id}", response={204: None})
def take_off(request: HttpRequest, id: UUID) -> Status:
    """Take a piece off the rack; for some nights it can be hung up again."""
    actions.take_off_rack(id, request.user)
    return Status(204, None)


@router.get("/{uuid:id}/revisions", response={200: list[RevisionOut]})
def revisions(request: HttpRequest, id: UUID) -> list[RevisionOut]:
    """Every saved state of a piece, the newest first."""
    rows = actions.get_row(id, request.user).revisions.order_by("-number")
    # Only the names are taken out of the documents: there can be many.
    found = rows.annotate(name=KT("document__name"), who=F("by__username"))
    columns = ("number", "saved", "who", "name", "called")
    return [
        RevisionOut(number=number, saved=saved, by=who, name=name or "", called=called)
        for number, saved, who, name, called in found.values_list(*columns)[:LONGEST_LIST]
    ]


@router.get("/{uuid:id}/revisions/{int:number}", response={200: PieceOut})
def revision(request: HttpRequest, id: UUID, number: int) -> PieceOut:
    """A piece as it once was."""
    row = actions.get_row(id, request.user)
    return _piece_out(row, actions.document_of(row, number), request.user)


@router.get("/{uuid:id}/revisions/{int:number}/drawing", response={200: View})
def drawn_state(request: HttpRequest, id: UUID, number: int) -> HttpResponse:
    """A piece as it once was, drawn as it would hang on the rack."""
    piece, shop = (
        read_piece(actions.document_of(actions.get_row(id, request.user), number).document),
        the_shop(request.user),
    )
    view = draw(piece, shop, plan(piece, shop, levelling=False), "rack").piece[0]
    return HttpResponse(_VIEW.dump_json(view), content_type="application/json")


@router.put("/{uuid:id}/revisions/{int:number}/called", response={200: Called})
def call_state(request: HttpRequest, id: UUID, number: int, payload: Called) -> Called:
    """Give a saved state a name to find it by."""
    return Called(called=actions.call_state(id, number, payload.called, request.user).called)


@router.get("/{uuid:id}/compare", response={200: list[Difference]})
def compared(request: HttpRequest, id: UUID, a: int, b: int) -> list[Difference]:
    """What differs between two saved states."""
    row = actions.get_row(id, request.user)
    before, after = (read_piece(actions.document_of(row, number).document) for number in (a, b))
    return list(differences(before, after, Show(the_shop(request.user).rounding.units())))


@router.put("/{uuid:id}/readings/{proof}", response={200: ReadingOut})
def answer(request: HttpRequest, id: UUID, proof: str, payload: Answer) -> ReadingOut:
    """Answer a proof, or correct its answer."""
    shop = the_shop(request.user)
    taken = actions.Taken(
        payload.typed,
        payload.bare or shop.rounding.system,
        payload.tool,
        payload.note,
        payload.sure,
        payload.kind,
        payload.based_on,
        payload.keep,
        payload.copy_number,
    )
    return _reading_out(actions.answer(id, proof, taken, shop, request.user), shop)


@router.delete("/{uuid:id}/readings/{proof}", response={204: None})
def withdraw(request: HttpRequest, id: UUID, proof: str, copy_number: Copy = FIRST) -> Status:
    """Take an answer back."""
    actions.withdraw(id, proof, request.user, copy_number)
    return Status(204, None)


@router.get("/{uuid:id}/readings/{proof}/history", response={200: list[ReadingEventOut]})
def history(request: HttpRequest, id: UUID, proof: str, copy_number: Copy = FIRST) -> list[ReadingEventOut]:
    """Everything that was said of a proof, the newest first."""
    said = actions.get_row(id, request.user).reading_events
    events = said.filter(proof=proof, copy=copy_number).select_related("by")
    return [
        ReadingEventOut(
            what=e.what,
            typed=e.typed,
            tool=e.tool,
            note=e.note,
            at=e.at,
            by=e.by.get_username() if e.by else None,
        )
        for e in events[:LONGEST_LIST]
    ]
