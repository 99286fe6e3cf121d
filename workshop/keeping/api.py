"""How the workshop is, and its backups."""

import shutil
import sqlite3
import tempfile
from datetime import datetime

from django.conf import settings
from django.db import DatabaseError, OperationalError, transaction
from django.http import FileResponse, Http404, HttpRequest, StreamingHttpResponse
from ninja import Query, Router, Schema, Status
from pydantic import Field

from splay.errors import BadInput, Fault
from splay.piece import VERSION as PIECE_VERSION
from splay.shop.model import SHOP_VERSION
from workshop import VERSION
from workshop.accounts.makers import only_the_first
from workshop.folder import free_bytes, nearly_full
from workshop.keeping import archive, backup, imports, nightly, taking_in, versions
from workshop.keeping.models import Night
from workshop.keeping.parts import NotAnArchive
from workshop.pieces.actions import named

router = Router()
LEAST_FREE = 1_000_000
"""Bytes a save wants at most, with the log it goes through."""


class HealthOut(Schema):
    """How the workshop is. Strangers are told `ok` and nothing else; lengths are in bytes."""

    ok: bool
    version: str | None = None
    writable: bool | None = None
    free: int | None = None
    up_to_date: bool | None = None
    piece_version: int | None = None
    shop_version: int | None = None
    last_backup: datetime | None = None
    troubles: list[str] = Field(default_factory=list)


class BackupOut(Schema):
    """One archive: its file name, when it was made, its size in bytes, and whether by night, by hand or
    before a change of version."""

    name: str
    made: datetime
    size: int
    kind: str


class ArchiveWish(Schema):
    """With `sure` an archive is taken in, else only looked through; with `leave` pieces of it that cannot
    be read are left out, else one such keeps all of it out."""

    sure: bool = False
    leave: bool = False


class PieceBrought(Schema):
    """What becomes of a piece of an archive: it `hangs`, was `known`, or is `refused` and why."""

    file: str
    name: str
    what: str
    why: str


class ArchiveOut(Schema):
    """What an archive brings: its pieces, whether the shop's tools come along, how much wood, whose own
    units and hours; whether it is a backup with a `database` too; `taken` whether it was taken in, `undo`
    what to name to take it back."""

    pieces: list[PieceBrought]
    hung: int
    known: int
    refused: int
    shop: bool
    stock: int
    makers: list[str]
    database: bool
    taken: bool
    undo: int | None


class Said(Schema):
    """What became of it, in words."""

    said: str


NOTHING_KEPT = (
    "Nothing can be kept now: the workshop's disk is full, or may only be read. What is saved already is "
    "safe and can be looked at. Make room."
)


def _writable() -> bool:
    """Whether the database takes a row; it is taken back at once."""
    try:
        with transaction.atomic():
            Night.objects.update_or_create(pk=2)
            transaction.set_rollback(True)
    except DatabaseError:
        return False
    return True


@router.get("/health", auth=None, response={200: HealthOut, 503: HealthOut})
def health(request: HttpRequest) -> Status:
    """Whether the workshop can keep what it is given; 503 where it cannot."""
    writable = free_bytes(settings.DATA_DIR) > LEAST_FREE and _writable()
    if not request.user.is_authenticated:
        return Status(200 if writable else 503, HealthOut(ok=writable))
    made = backup.all_in(settings.DATA_DIR)
    night = Night.objects.filter(pk=1).first()
    current = not any(versions.steps())
    troubles = [nearly_full(settings.DATA_DIR), night.trouble if night else ""]
    troubles += [] if writable else [NOTHING_KEPT]
    troubles += (
        [] if current else ["The database is of another version: stop the server and start it anew."]
    )
    said = HealthOut(
        ok=writable and current,
        version=VERSION,
        writable=writable,
        free=free_bytes(settings.DATA_DIR),
        up_to_date=current,
        piece_version=PIECE_VERSION,
        shop_version=SHOP_VERSION,
        last_backup=made[0].made if made else None,
        troubles=[one for one in troubles if one],
    )
    return Status(200 if said.ok else 503, said)


def _backup_out(one: backup.Backup) -> BackupOut:
    return BackupOut(name=one.name, made=one.made, size=one.path.stat().st_size, kind=one.kind)


@router.get("/backups", response={200: list[BackupOut]})
def backups(request: HttpRequest) -> list[BackupOut]:
    """The archives there are, the latest first. They hold everybody's work: the first maker sees them."""
    only_the_first(request.user)
    return [_backup_out(one) for one in backup.all_in(settings.DATA_DIR)[:60]]


@router.post("/backups", response={201: BackupOut})
def back_up(request: HttpRequest) -> Status:
    """Make one now."""
    only_the_first(request.user)
    try:
        made = backup.make(settings.DATA_DIR, "hand", beside=archive.write_into)
        nightly.copy_out(made)
    except (OSError, sqlite3.Error) as error:
        raise OperationalError(f"disk I/O: {error}") from error
    return Status(
        201, next(_backup_out(one) for one in backup.all_in(settings.DATA_DIR) if one.path == made)
    )


@router.get("/archive", response={200: None})
def take_out(request: HttpRequest) -> StreamingHttpResponse:
    """The whole shop as open files: what everybody keeps to themselves is in it too."""
    only_the_first(request.user)
    answer = StreamingHttpResponse(archive.stream(), content_type="application/zip")
    answer["Content-Disposition"] = 'attachment; filename="proud-rake.zip"'
    return answer


@router.post("/archive", response={200: ArchiveOut})
def take_in(request: HttpRequest, wished: Query[ArchiveWish]) -> ArchiveOut:
    """Look through an archive that is sent as it is (a zip), and take it in where that is wished."""
    maker = named(request.user)
    only_the_first(request.user)
    with tempfile.TemporaryFile(dir=settings.DATA_DIR) as file:
        shutil.copyfileobj(request, file)
        try:
            found = taking_in.read(file, maker, sure=wished.sure, leave=wished.leave)
        except NotAnArchive as error:
            do = "Choose an archive that take out, or a backup, made."
            raise BadInput(Fault("archive", "this file", str(error), do)) from None
    return ArchiveOut(
        pieces=[
            PieceBrought(file=one.file[:120], name=one.name[:120], what=one.what, why=one.why)
            for one in found.pieces[:1000]
        ],
        hung=found.hung,
        known=found.known,
        refused=len(found.refused),
        shop=found.shop,
        stock=found.stock,
        makers=found.makers,
        database=found.database,
        taken=wished.sure and (wished.leave or not found.refused),
        undo=found.undo if wished.sure and (wished.leave or not found.refused) else None,
    )


@router.post("/imports/{int:number}/undo", response={200: Said})
def take_back(request: HttpRequest, number: int) -> Said:
    """Take back what was brought in at once."""
    return Said(said=imports.undo(number, request.user))


@router.get("/backups/{name}", response={200: None})
def fetch(request: HttpRequest, name: str) -> FileResponse:
    """One archive, to be put away elsewhere."""
    only_the_first(request.user)
    found = next((one for one in backup.all_in(settings.DATA_DIR) if one.name == name), None)
    if found is None:
        raise Http404
    return FileResponse(
        found.path.open("rb"), as_attachment=True, filename=name, content_type="application/zip"
    )
