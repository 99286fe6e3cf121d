"""The log as it is read: what was written down and what was measured, of one piece or of all, searched."""

from __future__ import annotations

from datetime import datetime
from uuid import UUID

from django.db.models import F, Q, QuerySet
from django.db.models.fields.json import KT
from ninja import Schema

from splay.build.operations import OPERATIONS
from workshop.build.models import Entry
from workshop.pieces.actions import Maker, get_row, hanging_for
from workshop.pieces.models import PieceRow, ReadingEvent, Revision

PAGE = 100


class EntryOut(Schema):
    """One line of the log. `sort` is done, undone, mishap, note, lesson, photo, time, repair, order or
    reading; `became` what came of a mishap, `rescue` how it was saved; `photo` the address of a picture."""

    id: int
    sort: str
    at: datetime
    by: str | None
    piece: UUID
    name: str
    copy_number: int
    title: str
    operation: str
    says: str
    minutes: float | None
    rescue: str
    became: list[str]
    photo: str | None


class LogOut(Schema):
    """A page of the log, the latest first, a hundred lines and what else happened at the last one's moment;
    `more` where there is earlier."""

    entries: list[EntryOut]
    more: bool


def log_of(maker: Maker, piece: UUID | None, words: str, sort: str, before: datetime | None) -> LogOut:
    """A page of the log of one piece, or of all this maker sees: lines that hold every word of `words`, of
    one `sort` where one is named, earlier than `before`."""
    rows = [get_row(piece, maker)] if piece else list(hanging_for(maker).only("pk", "latest"))
    sought = [word.casefold() for word in words.split()][:8]
    names = _names(rows)
    held = [word for word in sought if piece or not any(word in name.casefold() for name in names.values())]
    of = _named_so(names, sought, held)
    entries = _entries(of, held, sort, before) if sort != "reading" else Entry.objects.none()
    readings = _readings(of, held, before) if sort in ("", "reading") else ReadingEvent.objects.none()
    moments = sorted((*_moments(entries), *_moments(readings)), reverse=True)
    more = False
    if len(moments) > PAGE:
        # The next page begins earlier than this one's last moment: all of that moment stands on it.
        last = moments[PAGE - 1]
        more = entries.filter(at__lt=last).exists() or readings.filter(at__lt=last).exists()
        entries, readings = entries.filter(at__gte=last), readings.filter(at__gte=last)
    found = [_entry_out(one, names) for one in entries] + [_reading_out(one, names) for one in readings]
    found.sort(key=lambda one: one.at, reverse=True)
    return LogOut(entries=found, more=more)


def _moments(rows: QuerySet[Entry] | QuerySet[ReadingEvent]) -> list[datetime]:
    """When the latest of them happened, one more than a page holds."""
    return list(rows.values_list("at", flat=True)[: PAGE + 1])


def _named_so(names: dict[UUID, str], sought: list[str], held: list[str]) -> list[UUID]:
    """Pieces whose names hold the words that are in any name at all."""
    wanted = [word for word in sought if word not in held]
    return [pk for pk, name in names.items() if all(word in name.casefold() for word in wanted)]


def _names(rows: list[PieceRow]) -> dict[UUID, str]:
    latest = Revision.objects.filter(piece__in=rows, number=F("piece__latest"))
    return {
        pk: name or ""
        for pk, name in latest.annotate(name=KT("document__name")).values_list("piece", "name")
    }


def _entries(of: list[UUID], words: list[str], sort: str, before: datetime | None) -> QuerySet[Entry]:
    found = Entry.objects.filter(piece__in=of).select_related("by").defer("image")
    if sort:
        found = found.filter(sort=sort)
    if before:
        found = found.filter(at__lt=before)
    for word in words:
        found = found.filter(sought__contains=word)
    return found.order_by("-at", "-pk")


def _readings(of: list[UUID], words: list[str], before: datetime | None) -> QuerySet[ReadingEvent]:
    found = ReadingEvent.objects.filter(piece__in=of).select_related("by")
    if before:
        found = found.filter(at__lt=before)
    for word in words:
        # Readings hold figures and a few plain words: their case is the database's own.
        found = found.filter(
            Q(typed__icontains=word)
            | Q(note__icontains=word)
            | Q(tool__icontains=word)
            | Q(what__icontains=word)
        )
    return found.order_by("-at", "-pk")


def _entry_out(row: Entry, names: dict[UUID, str]) -> EntryOut:
    kind = OPERATIONS.get(row.operation)
    return EntryOut(
        id=row.pk,
        sort=row.sort,
        at=row.at,
        by=row.by.get_username() if row.by else None,
        piece=row.piece_id,
        name=names.get(row.piece_id, ""),
        copy_number=row.copy,
        title=row.title,
        operation=kind.called if kind else "",
        says=row.says,
        minutes=row.minutes,
        rescue=str(row.data.get("title", "")),
        became=[str(one) for one in row.data.get("became", ())],
        photo=f"/api/pieces/{row.piece_id}/log/{row.pk}/photo" if row.sort == "photo" else None,
    )


def _reading_out(row: ReadingEvent, names: dict[UUID, str]) -> EntryOut:
    what = "" if row.what == "answered" else f"{row.what}: "
    said = f"{what}{row.typed}{f', {row.tool}' if row.tool else ''}{f': {row.note}' if row.note else ''}"
    return EntryOut(
        id=row.pk,
        sort="reading",
        at=row.at,
        by=row.by.get_username() if row.by else None,
        piece=row.piece_id,
        name=names.get(row.piece_id, ""),
        copy_number=row.copy,
        title=row.called or "a reading",
        operation="",
        says=said,
        minutes=None,
        rescue="",
        became=[],
        photo=None,
    )
