"""The whole shop as open files: a zip of JSON, one file a piece, that any program can read.

A backup is the same with the database beside them (`backup.py`).
"""

from __future__ import annotations

import io
import json
import logging
import zipfile
from collections.abc import Iterator
from datetime import UTC, datetime
from typing import IO, Any

from django.contrib.auth import get_user_model
from django.contrib.auth.models import User

from splay.errors import SplayError
from splay.shop import write_shop
from workshop import VERSION
from workshop.build.models import KeptOrder, OwnHours, OwnRate
from workshop.keeping.backup import FORMAT, FORMAT_VERSION
from workshop.pieces.models import PieceRow
from workshop.pieces.record import record_of
from workshop.shop.models import OwnUnits, the_shop
from workshop.timber.models import StockPhoto, StockRow, WoodRow
from workshop.timber.rows import lying
from workshop.timber.taking_in import pile_of

log = logging.getLogger(__name__)
ABOUT, SHOP, MAKERS, STOCK, STORE = "about.json", "shop.json", "makers.json", "stock.json", "store.json"
PHOTO = "stock/{:05d}.jpg"
"""Photographs of wood, numbered as it stands in the stock's file."""
PIECE = "pieces/{:05d}-{}.json"
UNREAD = "unread/{:05d}-{}.json"
"""Pieces whose records cannot be written as such: what is kept of them as it is."""


class _Sink(io.RawIOBase):
    """What a zip is written into when it goes out piece by piece: it holds what was written since. It is
    never sought in: the zip says its sizes after each file."""

    def __init__(self) -> None:
        super().__init__()
        self._parts: list[bytes] = []

    def write(self, given: Any) -> int:
        """Hold some bytes."""
        self._parts.append(bytes(given))
        return len(given)

    def taken(self) -> bytes:
        """What was written since it was asked last."""
        found = b"".join(self._parts)
        self._parts.clear()
        return found


def stream() -> Iterator[bytes]:
    """The archive as it is made, a file of it at a time: no more than one piece is held."""
    sink = _Sink()
    with zipfile.ZipFile(sink, "w", zipfile.ZIP_DEFLATED) as archive:
        archive.writestr(ABOUT, _json(_about()))
        for _ in each_file(archive):
            yield sink.taken()
    yield sink.taken()


def write(out: IO[bytes]) -> int:
    """Everything but passwords into a zip; how many pieces. What was taken off the rack is not in it."""
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as archive:
        archive.writestr(ABOUT, _json(_about()))
        return sum(name.startswith("pieces/") for name in each_file(archive))


def write_into(archive: zipfile.ZipFile) -> None:
    """The open files into an archive that says itself what it is about."""
    for _ in each_file(archive):
        pass


def _about() -> dict[str, Any]:
    return {
        "format": FORMAT,
        "version": FORMAT_VERSION,
        "made": datetime.now(UTC).isoformat(timespec="seconds"),
        "program": VERSION,
    }


def each_file(archive: zipfile.ZipFile) -> Iterator[str]:
    """Write the open files one after the other; the name of each."""
    archive.writestr(SHOP, _json(write_shop(the_shop())))
    yield SHOP
    archive.writestr(MAKERS, _json(_makers()))
    yield MAKERS
    wood = lying()
    archive.writestr(STOCK, pile_of(wood).model_dump_json(indent=1))
    yield STOCK
    numbers = {one.row.pk: number for number, one in enumerate(wood, 1)}
    for pk, number in numbers.items():
        photo = StockPhoto.objects.filter(stock=pk).first()
        if photo is not None:
            archive.writestr(PHOTO.format(number), bytes(photo.image))
            yield PHOTO.format(number)
    archive.writestr(STORE, _json(_store(numbers)))
    yield STORE
    keys = PieceRow.objects.filter(removed=None).order_by("turn").values_list("pk", flat=True)
    for number, pk in enumerate(list(keys), 1):
        row = PieceRow.objects.filter(pk=pk).select_related("made_by").first()
        if row is not None:
            yield _piece(archive, number, row)


def _piece(archive: zipfile.ZipFile, number: int, row: PieceRow) -> str:
    try:
        name, text = PIECE.format(number, row.pk), record_of(row).model_dump_json(indent=1)
    except (SplayError, ValueError):
        log.exception("A piece could not be written as a record")
        name = UNREAD.format(number, row.pk)
        text = _json([{"number": r.number, "piece": r.document} for r in row.revisions.all()])
    archive.writestr(name, text)
    return name


def _makers() -> list[dict[str, Any]]:
    """What each maker has of their own: units, hours, what an hour costs, orders kept. No passwords."""
    found = []
    for maker in get_user_model().objects.order_by("pk"):
        units = OwnUnits.objects.filter(maker=maker).first()
        hours = OwnHours.objects.filter(maker=maker).first()
        rate = OwnRate.objects.filter(maker=maker).first()
        orders = KeptOrder.objects.filter(maker=maker).order_by("kind")
        found.append(
            {
                "name": maker.get_username(),
                "units": units.rounding if units else None,
                "hours": {"stretches": hours.stretches, "off": hours.off} if hours else None,
                "rate": {"rate": rate.rate, "money": rate.money} if rate else None,
                "orders": [{"kind": one.kind, "operations": one.operations} for one in orders],
            }
        )
    return found


def _store(numbers: dict[Any, int]) -> dict[str, Any]:
    """What the stock's file does not hold: which wood is reserved for which piece, what was sawn, what was
    cut from what; and of each piece how its wood is laid out. `number` is a place in the stock's file."""
    return {
        "stock": [
            {
                "id": str(row.pk),
                "number": numbers.get(row.pk),
                "document": None if row.pk in numbers else row.document,
                "gone": row.gone,
                "reserved_for": str(row.reserved_for_id) if row.reserved_for_id else None,
                "cut_from": str(row.cut_from_id) if row.cut_from_id else None,
                "by": _name(row.by),
            }
            for row in StockRow.objects.select_related("by")
        ],
        "wood": [
            {"piece": str(row.piece_id), "kept": row.kept, "sawn": row.sawn, "said": row.said}
            for row in WoodRow.objects.filter(piece__removed=None).order_by("piece__turn")
            if row.kept or row.sawn or row.said
        ],
    }


def _name(maker: User | None) -> str | None:
    return maker.get_username() if maker else None


def _json(what: Any) -> str:
    return json.dumps(what, indent=1, ensure_ascii=False)


__all__ = ["FORMAT", "FORMAT_VERSION", "stream", "write", "write_into"]
