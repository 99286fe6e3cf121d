"""All that is kept of a piece as one open JSON file: its states, readings, photograph and build."""

from __future__ import annotations

import base64
from collections import Counter
from typing import Annotated, Any, Literal
from uuid import UUID

from django.contrib.auth import get_user_model
from django.contrib.auth.models import User
from django.db import transaction
from pydantic import AwareDatetime, Field

from splay.document import Frozen, read_document
from splay.errors import BadInput, Fault
from splay.piece import MOST_MADE, read_piece
from splay.reading import kind_named
from splay.timber.choices import WoodChoice, read_choice, write_choice
from workshop.accounts.makers import LONGEST_NAME
from workshop.build.record import RecordedBuild, bring, recorded
from workshop.pieces.actions import MOST_OF_A_PIECE, next_turn
from workshop.pieces.models import (
    LONGEST_CALLED,
    LONGEST_PROOF,
    PiecePhoto,
    PieceRow,
    ReadingEvent,
    ReadingRow,
    Revision,
)
from workshop.pieces.photos import from_base64
from workshop.sent import FIRST, Copy
from workshop.timber.models import WoodRow

Who = Annotated[str, Field(max_length=LONGEST_NAME)] | None
Proof = Annotated[str, Field(min_length=1, max_length=LONGEST_PROOF)]
Typed = Annotated[str, Field(max_length=40)]
Tool = Annotated[str, Field(max_length=60)]
Note = Annotated[str, Field(max_length=400)]


class State(Frozen):
    """One saved state: its number, when and by whom it was saved, what it was called, and the piece file as
    it then was."""

    number: Annotated[int, Field(ge=1)]
    saved: AwareDatetime
    by: Who = None
    called: Annotated[str, Field(max_length=60)] = ""
    piece: Any


class RecordedReading(Frozen):
    """The answer that stands to a proof: mm or degrees as its scale showed them, and as it was typed. An
    angle's scale shows `at_square` where nothing leans, and counts `up` or `down` from there."""

    proof: Proof
    copy_number: Copy = FIRST
    kind: Annotated[str, Field(max_length=20)]
    value: float
    typed: Typed
    expected: float | None = None
    tool: Tool = ""
    note: Note = ""
    sure: bool = False
    at_square: float | None = None
    counts: Literal["", "up", "down"] = ""
    gauge: Tool = ""
    taken: AwareDatetime
    by: Who = None


class RecordedEvent(Frozen):
    """What was once said of a proof."""

    proof: Proof
    copy_number: Copy = FIRST
    what: Literal["answered", "corrected", "withdrawn"]
    called: Annotated[str, Field(max_length=LONGEST_CALLED)] = ""
    value: float | None = None
    typed: Typed = ""
    tool: Tool = ""
    note: Note = ""
    at: AwareDatetime
    by: Who = None


class Record(Frozen):
    """A piece with its whole history; `finished` since when, `photo` a JPEG in base64."""

    format: Literal["proud-rake-record"] = "proud-rake-record"
    version: Literal[1] = 1
    id: UUID
    by: Who = None
    kept: bool = False
    made: AwareDatetime
    finished: AwareDatetime | None = None
    states: Annotated[list[State], Field(min_length=1, max_length=100_000)]
    readings: Annotated[tuple[RecordedReading, ...], Field(max_length=MOST_MADE * MOST_OF_A_PIECE)] = ()
    events: Annotated[tuple[RecordedEvent, ...], Field(max_length=1_000_000)] = ()
    photo: str | None = None
    build: RecordedBuild | None = None
    wood: WoodChoice | None = None


def record_of(row: PieceRow) -> Record:
    """All that is kept of a piece."""
    photo = PiecePhoto.objects.filter(piece=row).first()
    return Record(
        id=row.pk,
        by=_name(row.made_by),
        kept=row.kept,
        made=row.made,
        finished=row.finished,
        states=[
            State(number=r.number, saved=r.saved, by=_name(r.by), called=r.called, piece=r.document)
            for r in row.revisions.select_related("by")
        ],
        readings=tuple(
            RecordedReading(
                proof=r.proof,
                copy_number=r.copy,
                kind=r.kind,
                value=r.value,
                typed=r.typed,
                expected=r.expected,
                tool=r.tool,
                note=r.note,
                sure=r.sure,
                at_square=r.at_square,
                counts="down" if r.counts == "down" else "up" if r.counts else "",
                gauge=r.gauge,
                taken=r.taken,
                by=_name(r.by),
            )
            for r in row.readings.select_related("by")
        ),
        events=tuple(
            RecordedEvent(
                proof=e.proof,
                copy_number=e.copy,
                what=_WHAT[e.what],
                called=e.called,
                value=e.value,
                typed=e.typed,
                tool=e.tool,
                note=e.note,
                at=e.at,
                by=_name(e.by),
            )
            for e in row.reading_events.select_related("by").order_by("pk")
        ),
        photo=base64.b64encode(bytes(photo.image)).decode() if photo else None,
        wood=_wood(row),
        build=recorded(row),
    )


_WHAT: dict[str, Literal["answered", "corrected", "withdrawn"]] = {
    "answered": "answered",
    "corrected": "corrected",
    "withdrawn": "withdrawn",
}


def _name(maker: Any) -> str | None:
    return maker.get_username() if maker else None


def read_record(given: object) -> Record:
    """The record in `given`; BadInput names what is wrong with it. Its last state must be a piece that can
    be read; earlier ones are kept as they are."""
    record = read_document(Record, given, "metric", "record")
    numbers = [state.number for state in record.states]
    if numbers != sorted(set(numbers)):
        fault = "record.states", "numbers that do not count up", "states in order, each number once"
        raise BadInput(Fault(*fault, "Put them in the order they were saved in."))
    read_piece(record.states[-1].piece, "metric", f"record.states.{len(numbers) - 1}.piece")
    for index, reading in enumerate(record.readings):
        kind_named(reading.kind, f"record.readings.{index}.kind")
    given = Counter((r.proof, r.copy_number) for r in record.readings)
    twice = [proof for (proof, _), count in given.items() if count > 1]
    if twice:
        fault = "record.readings", f"{twice[0]} twice", "one answer to a proof of one copy"
        raise BadInput(Fault(*fault, "Leave one of them."))
    return record


@transaction.atomic
def hang_record(
    record: Record, owner: User | None, known: dict[str, User] | None = None
) -> PieceRow | None:
    """Hang a piece up with its history, under its own id where that is free; None where it hangs here
    already, as it is in the record. `owner` is whose it becomes where nobody is named."""
    makers = known if known is not None else {}
    before = PieceRow.objects.filter(pk=record.id).first()
    if before is not None and record_of(before).states == record.states:
        return None
    own = {} if before is not None else {"id": record.id}
    row = PieceRow.objects.create(
        **own,
        latest=record.states[-1].number,
        turn=next_turn(),
        made_by=maker_named(record.by, makers) or owner,
        kept=record.kept,
        finished=record.finished,
    )
    PieceRow.objects.filter(pk=row.pk).update(made=record.made, changed=record.states[-1].saved)
    for state in record.states:
        made = Revision.objects.create(
            piece=row,
            number=state.number,
            document=state.piece,
            called=state.called,
            by=maker_named(state.by, makers),
        )
        Revision.objects.filter(pk=made.pk).update(saved=state.saved)
    for event in record.events:
        said = {**event.model_dump(exclude={"at", "by", "copy_number"}), "copy": event.copy_number}
        kept = ReadingEvent.objects.create(piece=row, by=maker_named(event.by, makers), **said)
        ReadingEvent.objects.filter(pk=kept.pk).update(at=event.at)
    for reading in record.readings:
        said = {**reading.model_dump(exclude={"taken", "by", "copy_number"}), "copy": reading.copy_number}
        by = maker_named(reading.by, makers)
        answer = ReadingRow.objects.create(piece=row, by=by, number=len(record.events) + 1, **said)
        ReadingRow.objects.filter(pk=answer.pk).update(taken=reading.taken)
    if record.photo:
        _photo(row, record.photo)
    if record.wood:
        WoodRow.objects.create(piece=row, document=write_choice(record.wood), number=1)
    if record.build:
        bring(row, record.build, lambda name: maker_named(name, makers))
    return row


def _wood(row: PieceRow) -> WoodChoice | None:
    """What was chosen about its wood; what is reserved is the store's."""
    kept = WoodRow.objects.filter(piece=row).first()
    return read_choice(kept.document) if kept and kept.document else None


def _photo(row: PieceRow, coded: str) -> None:
    image, width, height = from_base64(coded, "record.photo")
    PiecePhoto.objects.create(piece=row, image=image, width=width, height=height)


def maker_named(name: str | None, known: dict[str, User]) -> User | None:
    """The maker of that name; one who is not in this shop comes as somebody who left it, so that the
    record goes on saying who did what."""
    if name is None:
        return None
    if name not in known:
        maker, made = get_user_model().objects.get_or_create(username=name, defaults={"is_active": False})
        if made:
            maker.set_unusable_password()
            maker.save()
        known[name] = maker
    return known[name]
