"""The whole shop as open files: a zip of JSON, one file a piece, that any program can read."""

from __future__ import annotations

import io
import json
import zipfile
from dataclasses import dataclass, field
from datetime import UTC, datetime
from typing import IO, Any

from django.contrib.auth.models import AnonymousUser, User
from django.db import transaction

from splay.errors import BadInput
from splay.shop import read_shop, write_shop
from splay.timber.stock import read_pile
from workshop import VERSION
from workshop.pieces.models import PieceRow
from workshop.pieces.record import hang_record, read_record, record_of
from workshop.shop.models import ShopRow, keep_shop, the_shop
from workshop.timber.models import StockPhoto, StockRow
from workshop.timber.rows import keep, lying
from workshop.timber.store import keep_photo
from workshop.timber.taking_in import pile_of

FORMAT = "proud-rake-archive"
STOCK = "stock.json"
PHOTO = "stock/{:05d}.jpg"
"""Photographs of wood, numbered as it stands in the stock's file."""
MOST_UNPACKED = 200_000_000
"""Bytes one file of an archive may unfold into."""


class NotAnArchive(Exception):
    """What is wrong with an archive, in plain words."""


@dataclass
class TakenIn:
    """What an archive brought: how many pieces were hung, hung already, and could not be (name, why)."""

    hung: int = 0
    known: int = 0
    refused: list[tuple[str, str]] = field(default_factory=list)
    shop: bool = False
    stock: int = 0


def write(out: IO[bytes]) -> int:
    """Everything but passwords into a zip; how many pieces. What was taken off the rack is not in it."""
    rows = PieceRow.objects.filter(removed=None).select_related("made_by").order_by("turn")
    about = {
        "format": FORMAT,
        "version": 1,
        "made": datetime.now(UTC).isoformat(timespec="seconds"),
        "program": VERSION,
    }
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as archive:
        archive.writestr("about.json", _json(about))
        archive.writestr("shop.json", _json(write_shop(the_shop())))
        wood = lying()
        archive.writestr(STOCK, pile_of(wood).model_dump_json(indent=1))
        for number, one in enumerate(wood, 1):
            photo = StockPhoto.objects.filter(stock=one.row).first()
            if photo is not None:
                archive.writestr(PHOTO.format(number), bytes(photo.image))
        for number, row in enumerate(rows, 1):
            archive.writestr(f"pieces/{number:05d}-{row.pk}.json", record_of(row).model_dump_json(indent=1))
    return len(rows)


def read(given: IO[bytes] | bytes, maker: User | None) -> TakenIn:
    """Hang up what is in an archive, each piece for itself: one that cannot be read is named, the rest
    hang. The shop's tools come along only where none were ever chosen. NotAnArchive where it is none."""
    found, makers = TakenIn(), dict[str, User]()
    try:
        with zipfile.ZipFile(io.BytesIO(given) if isinstance(given, bytes) else given) as archive:
            about = _part(archive, "about.json")
            if not isinstance(about, dict) or about.get("format") != FORMAT or about.get("version") != 1:
                raise NotAnArchive("It is no archive of this program, or one of a later version.")
            for name in sorted(archive.namelist()):
                if name.startswith("pieces/") and name.endswith(".json"):
                    _hang(archive, name, maker, makers, found)
            if not ShopRow.objects.exists() and "shop.json" in archive.namelist():
                keep_shop(read_shop(_part(archive, "shop.json")), maker)
                found.shop = True
            if not StockRow.objects.exists() and STOCK in archive.namelist():
                found.stock = _stock(archive, maker)
    except (zipfile.BadZipFile, KeyError, ValueError, OSError) as error:
        raise NotAnArchive(f"It is no archive of this program, or it is damaged: {error}") from None
    return found


def _hang(
    archive: zipfile.ZipFile, name: str, maker: User | None, makers: dict[str, User], found: TakenIn
) -> None:
    try:
        with transaction.atomic():
            row = hang_record(read_record(_part(archive, name)), maker, makers)
    except BadInput as bad:
        found.refused.append((name, str(bad)[:300]))
        return
    found.hung += row is not None
    found.known += row is None


def _stock(archive: zipfile.ZipFile, maker: User | None) -> int:
    """Take in the wood and its photographs; how many pieces of it."""
    pile = read_pile(_part(archive, STOCK))
    names = set(archive.namelist())
    with transaction.atomic():
        for number, item in enumerate(pile.items, 1):
            row = keep(item, maker or AnonymousUser())
            if PHOTO.format(number) in names:
                keep_photo(row.pk, archive.read(PHOTO.format(number)))
    return len(pile.items)


def _part(archive: zipfile.ZipFile, name: str) -> Any:
    if archive.getinfo(name).file_size > MOST_UNPACKED:
        raise NotAnArchive(f"{name} in it unfolds into more than a piece can be.")
    return json.loads(archive.read(name))


def _json(what: Any) -> str:
    return json.dumps(what, indent=1, ensure_ascii=False)
