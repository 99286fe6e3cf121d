"""An archive of a whole shop brought in: looked through first, all of it or nothing, and taken back again.

Nothing that is there is overwritten.
"""

from __future__ import annotations

import json
import zipfile
from dataclasses import dataclass, field
from io import BytesIO
from typing import IO, Any
from uuid import UUID

from django.contrib.auth.models import AnonymousUser, User
from django.db import transaction
from django.utils import timezone

from splay.errors import BadInput, SplayError
from splay.shop import Rounding, read_shop, write_shop
from splay.timber.stock import AnyStock, read_pile, write_stock
from workshop.accounts.makers import LONGEST_NAME
from workshop.build.models import KeptOrder, OwnHours, OwnRate
from workshop.keeping import imports
from workshop.keeping.archive import ABOUT, MAKERS, PHOTO, SHOP, STOCK, STORE
from workshop.keeping.backup import EARLIER, FORMAT, FORMAT_VERSION, INSIDE
from workshop.pieces.actions import Maker
from workshop.pieces.models import PieceRow
from workshop.pieces.photos import is_plain_jpeg, plain_jpeg
from workshop.pieces.record import hang_record, maker_named, read_record
from workshop.shop.models import OwnUnits, ShopRow, keep_shop
from workshop.timber.models import StockPhoto, StockRow, WoodRow

MOST_UNPACKED = 200_000_000
"""Bytes one file of an archive may unfold into."""
MOST_IN_ALL = 4_000_000_000
"""And all that is read of it together."""
MOST_FILES = 50_000
MOST_MAKERS = 500


class NotAnArchive(Exception):
    """What is wrong with an archive, in plain words."""


class TooMuch(NotAnArchive):
    """It unfolds into more than any shop has: nothing of it is read."""


@dataclass(frozen=True)
class Brought:
    """What becomes of one piece of an archive: its name, whether it `hangs` now, was `known` already, or is
    `refused` and why."""

    file: str
    name: str
    what: str
    why: str = ""


@dataclass(frozen=True)
class Hung:
    """A piece that hangs now: its row's key, and its state and number of readings as they came, which tell
    later whether anybody worked on it. The row itself is let go: its photograph hangs on it."""

    pk: UUID
    latest: int
    events: int


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
            parts = _Parts(archive)
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


class _Parts:
    """The files of an archive, each read within its bounds."""

    def __init__(self, archive: zipfile.ZipFile) -> None:
        self.archive, self.left = archive, MOST_IN_ALL
        infos = archive.infolist()
        self.names = {info.filename for info in infos}
        if len(infos) > MOST_FILES:
            raise NotAnArchive(f"There are {len(infos)} files in it; no shop has so many.")
        if len(self.names) != len(infos):
            raise NotAnArchive("Two files in it have the same name.")
        for name in self.names:
            if name.startswith("/") or "\\" in name or ".." in name.split("/") or ":" in name:
                raise NotAnArchive(
                    f"A file in it is called {name[:80]}: no archive of this program has such."
                )
            if name.lower().endswith(".zip"):
                raise NotAnArchive(f"There is an archive in it ({name[:80]}): unpack it first.")
        about = self.json(ABOUT)
        if not isinstance(about, dict) or about.get("format") not in (FORMAT, EARLIER[0]):
            raise NotAnArchive("It is no archive of this program.")
        version = about.get("version")
        if about["format"] == EARLIER[0]:
            raise NotAnArchive("It is a backup of an earlier program, without open files: restore it.")
        if not isinstance(version, int) or not 1 <= version <= FORMAT_VERSION:
            raise NotAnArchive(
                f"It is of version {str(version)[:20]}: a later program made it. Use that one."
            )

    def raw(self, name: str) -> bytes:
        """One file; NotAnArchive where it is larger than it can be, whatever it says of itself."""
        with self.archive.open(name) as opened:
            read = opened.read(MOST_UNPACKED + 1)
        self.left -= len(read)
        if len(read) > MOST_UNPACKED or self.left < 0:
            raise TooMuch(f"{name} in it unfolds into more than a piece can be.")
        return read

    def json(self, name: str) -> Any:
        """One file of JSON."""
        try:
            return json.loads(self.raw(name))
        except (ValueError, RecursionError) as error:
            raise NotAnArchive(f"{name} in it is no whole JSON: {str(error)[:120]}") from None


def _bring(parts: _Parts, maker: User | None, found: TakenIn) -> None:
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
            stock = _stock(parts, maker, makers, hung)
            found.stock = len(stock)
        if MAKERS in parts.names:
            found.makers = _makers(parts.json(MAKERS), makers)
    except SplayError as error:
        raise NotAnArchive(f"The shop or the wood in it cannot be read: {str(error)[:300]}") from None
    except (TypeError, AttributeError, LookupError) as error:
        raise NotAnArchive(f"What it says of the shop has another shape: {str(error)[:120]}") from None
    data = {
        "pieces": [[str(one.pk), one.latest, one.events] for one in hung.values()],
        "shop": found.shop,
        "stock": [str(pk) for pk in stock],
    }
    if hung or found.shop or stock:
        found.undo = imports.remember("archive", data, maker or AnonymousUser()).pk


def _hang(
    parts: _Parts,
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


def _stock(parts: _Parts, maker: User | None, makers: dict[str, User], hung: dict[str, Hung]) -> list[UUID]:
    """The wood with its photographs; in a file of version 2 with what it is reserved for, sawn or cut
    from."""
    pile = read_pile(parts.json(STOCK))
    store = parts.json(STORE) if STORE in parts.names else None
    if store is None:
        rows = [_lay(item, None, maker).pk for item in pile.items]
        for number, pk in enumerate(rows, 1):
            _photo(parts, number, pk)
        return rows
    made: dict[str, UUID] = {}
    for one in store["stock"]:
        number = one["number"]
        row = _lay(
            pile.items[number - 1] if number else None,
            one["document"],
            maker_named(_short(one["by"]), makers) or maker,
            UUID(one["id"]),
        )
        row.gone = _one_of(one["gone"], ("", "thrown", "sawn"))
        kept_for = hung.get(one["reserved_for"])
        row.reserved_for_id = kept_for.pk if kept_for else None
        row.save()
        made[one["id"]] = row.pk
        if number:
            _photo(parts, number, row.pk)
    for one in store["stock"]:
        if one["cut_from"] in made:
            StockRow.objects.filter(pk=made[one["id"]]).update(cut_from=made[one["cut_from"]])
    for one in store["wood"]:
        if (piece := hung.get(one["piece"])) is not None:
            said = {"kept": one["kept"], "sawn": one["sawn"], "said": str(one["said"])[:400]}
            WoodRow.objects.update_or_create(piece_id=piece.pk, defaults=said)
    return list(made.values())


def _lay(item: AnyStock | None, document: Any, by: User | None, id: UUID | None = None) -> StockRow:
    kept = write_stock(item.model_copy(update={"id": ""})) if item is not None else document
    own = {"id": id} if id is not None and not StockRow.objects.filter(pk=id).exists() else {}
    return StockRow.objects.create(document=kept, by=by, **own)


def _photo(parts: _Parts, number: int, pk: UUID) -> None:
    name = PHOTO.format(number)
    if name not in parts.names:
        return
    raw = parts.raw(name)
    image, width, height = plain_jpeg(raw)
    # One that is plain and small already stays the same file: each writing anew costs a little.
    kept = raw if is_plain_jpeg(raw) else image
    StockPhoto.objects.create(stock_id=pk, image=kept, width=width, height=height)


def _one_of(given: Any, allowed: tuple[str, ...]) -> str:
    return given if given in allowed else ""


def _short(given: Any) -> str | None:
    return given[:LONGEST_NAME] if isinstance(given, str) and given else None


def _makers(given: Any, makers: dict[str, User]) -> list[str]:
    """What each maker has of their own, where nothing is kept for them yet; the names of those it was
    brought for."""
    brought = []
    for one in given[:MOST_MAKERS]:
        name = _short(one["name"])
        if name is None or not any((one["units"], one["hours"], one["rate"], one["orders"])):
            continue
        maker = maker_named(name, makers)
        assert maker is not None
        fresh = False
        if one["units"] and not OwnUnits.objects.filter(maker=maker).exists():
            rounding = Rounding(**one["units"]).model_dump(mode="json")
            OwnUnits.objects.create(maker=maker, rounding=rounding)
            fresh = True
        if one["hours"] and not OwnHours.objects.filter(maker=maker).exists():
            hours = one["hours"]
            OwnHours.objects.create(maker=maker, stretches=hours["stretches"], off=hours["off"])
            fresh = True
        if one["rate"] and not OwnRate.objects.filter(maker=maker).exists():
            rate = one["rate"]
            OwnRate.objects.create(maker=maker, rate=float(rate["rate"]), money=str(rate["money"])[:8])
            fresh = True
        for order in one["orders"]:
            kind, operations = str(order["kind"])[:200], list(order["operations"])
            said = {"operations": operations}
            fresh |= KeptOrder.objects.get_or_create(maker=maker, kind=kind, defaults=said)[1]
        if fresh:
            brought.append(name)
    return brought


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
    said = f"{off} pieces are off the rack, {out} of wood out of the store"
    if data["shop"] and (shop := ShopRow.objects.filter(pk=1).first()) is not None:
        had = shop.document
        if had == write_shop(read_shop(had)) and shop.by is None:
            shop.delete()
            said += ", the shop's tools are as before"
    return f"{said}; {stays} that were worked on since stay" if stays else said


imports.UNDO["archive"] = _undo
