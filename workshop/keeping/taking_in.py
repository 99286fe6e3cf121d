"""An archive of a whole shop brought in: looked through first, all of it or nothing, and taken back again.

Nothing that is there is overwritten.
"""

from __future__ import annotations

import zipfile
from dataclasses import dataclass, field
from io import BytesIO
from typing import IO, Any
from uuid import UUID

from django.contrib.auth.models import User
from django.db import transaction
from django.utils import timezone

from splay.errors import BadInput, SplayError
from splay.shop import read_shop, write_shop
from splay.work.phrases import so_many
from workshop.keeping import imports
from workshop.keeping.archive import MAKERS, SHOP, STOCK
from workshop.keeping.backup import INSIDE
from workshop.keeping.owned import Hung, makers_in, stock_in
from workshop.keeping.parts import NotAnArchive, Parts, TooMuch
from workshop.pieces.actions import Maker
from workshop.pieces.models import PieceRow
from workshop.pieces.record import hang_record, read_record
from workshop.shop.models import ShopRow, keep_shop
from workshop.timber.models import StockRow


@dataclass(frozen=True)
class Brought:
    """What becomes of one piece of an archive: its name, whether it `hangs` now, was `known` already, or is
    `refused` and why."""

    file: str
    name: str
    what: str
    why: str = ""


@dataclass
class TakenIn:
    """What an archive brings; `undo` is what to name to take it back, None where nothing was taken in."""

    pieces: list[Brought] = field(default_factory=list)
    shop: bool = False
    stock: int = 0
    makers: list[str] = field(default_factory=list)
    database: bool = False
    undo: int | None = None

    def of(self, what: str) -> int:
        """How many pieces that became of."""
        return sum(one.what == what for one in self.pieces)

    @property
    def hung(self) -> int:
        """How many pieces hang now."""
        return self.of("hangs")

    @property
    def known(self) -> int:
        """How many hung already."""
        return self.of("known")

    @property
    def refused(self) -> list[tuple[str, str]]:
        """The files of pieces that cannot be read, and why."""
        return [(one.file, one.why) for one in self.pieces if one.what == "refused"]


class _Refused(Exception):
    """Something in it cannot be taken: nothing is."""


def read(given: IO[bytes] | bytes, maker: User | None, *, sure: bool = True, leave: bool = True) -> TakenIn:
    """Take in what is in an archive, all of it or nothing. Without `sure` it is only looked through;
    without `leave` one piece that cannot be read keeps the rest out too, else it is named and left.

    The shop's tools come along only where none were ever chosen, the wood only where none lies in the
    store. NotAnArchive where it is none, is damaged, or holds what no archive does.
    """
    found = TakenIn()
    try:
        with zipfile.ZipFile(BytesIO(given) if isinstance(given, bytes) else given) as archive:
            parts = Parts(archive)
            with transaction.atomic():
                _bring(parts, maker, found)
                if not sure:
                    transaction.set_rollback(True)
                elif found.refused and not leave:
                    raise _Refused
    except _Refused:
        return found
    except (zipfile.BadZipFile, KeyError, OSError, NotImplementedError, EOFError) as error:
        raise NotAnArchive(f"It is no archive of this program, or it is damaged: {error}") from None
    return found


def _bring(parts: Parts, maker: User | None, found: TakenIn) -> None:
    makers: dict[str, User] = {}
    hung: dict[str, Hung] = {}
    found.database = INSIDE in parts.names
    for name in sorted(parts.names):
        if name.startswith("pieces/") and name.endswith(".json"):
            _hang(parts, name, maker, makers, hung, found)
        elif name.startswith("unread/"):
            why = "It could not be read where it was taken out either."
            found.pieces.append(Brought(name, name.partition("/")[2], "refused", why))
    try:
        if not ShopRow.objects.exists() and SHOP in parts.names:
            keep_shop(read_shop(parts.json(SHOP)), None)
            found.shop = True
        stock: list[UUID] = []
        if not StockRow.objects.exists() and STOCK in parts.names:
            stock = stock_in(parts, maker, makers, hung)
            found.stock = len(stock)
        if MAKERS in parts.names:
            found.makers = makers_in(parts.json(MAKERS), makers)
    except SplayError as error:
        raise NotAnArchive(f"The shop or the wood in it cannot be read: {str(error)[:300]}") from None
    except (TypeError, ValueError, AttributeError, LookupError) as error:
        raise NotAnArchive(f"What it says of the shop has another shape: {str(error)[:120]}") from None
    data = {
        "pieces": [[str(one.pk), one.latest, one.events] for one in hung.values()],
        "shop": found.shop,
        "stock": [str(pk) for pk in stock],
    }
    if hung or found.shop or stock:
        found.undo = imports.remember("archive", data, maker).pk


def _hang(
    parts: Parts,
    name: str,
    maker: User | None,
    makers: dict[str, User],
    hung: dict[str, Hung],
    found: TakenIn,
) -> None:
    called = name
    try:
        given = parts.json(name)
        record = read_record(given)
        last = record.states[-1].piece
        called = str(last.get("name", ""))[:120] if isinstance(last, dict) else name
        with transaction.atomic():
            row = hang_record(record, maker, makers)
    except BadInput as bad:
        found.pieces.append(Brought(name, called, "refused", str(bad)[:300]))
        return
    except TooMuch:
        raise
    except NotAnArchive as bad:
        found.pieces.append(Brought(name, called, "refused", str(bad)))
        return
    found.pieces.append(Brought(name, called, "known" if row is None else "hangs"))
    if row is not None:
        hung[str(record.id)] = Hung(row.pk, row.latest, row.reading_events.count())


def _undo(data: dict[str, Any], maker: Maker) -> str:
    """Take what an archive brought off the rack and out of the store again; it can be hung up for as long
    as anything that was taken off. What was worked on since stays."""
    off, stays = 0, 0
    for pk, latest, events in data["pieces"]:
        row = PieceRow.objects.filter(pk=pk, removed=None).first()
        if row is None:
            continue
        if row.latest != latest or row.reading_events.count() != events:
            stays += 1
            continue
        PieceRow.objects.filter(pk=pk).update(removed=timezone.now(), nights=0)
        off += 1
    wood = StockRow.objects.filter(pk__in=data["stock"], number=1)
    wood = wood.exclude(reserved_for__removed=None, reserved_for__isnull=False)
    out = wood.filter(gone="").update(gone="thrown", reserved_for=None)
    said = f"{so_many(off, 'piece is', 'pieces are')} off the rack, {out} of wood out of the store"
    if data["shop"] and (shop := ShopRow.objects.filter(pk=1).first()) is not None:
        had = shop.document
        if had == write_shop(read_shop(had)) and shop.by is None:
            shop.delete()
            said += ", the shop's tools are as before"
    return (
        f"{said}; {so_many(stays, 'that was worked on since stays', 'that were worked on since stay')}"
        if stays
        else said
    )


imports.UNDO["archive"] = _undo
