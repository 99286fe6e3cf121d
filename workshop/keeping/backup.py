"""One archive of everything: the database as SQLite's own backup makes it, and what was in it.

It is the archive of the whole shop (`archive.py`) with the database beside its open files: a zip whose
`about.json` says format, version, when, the migrations the database stands at, and for every table its rows
and a SHA-256 over them; `database.sqlite3`; and the open files, where the program that made it could write
them. A database of any version is so kept with files that any program reads. Photographs are in both. The
installation's key and the sessions are left out: whoever finds an archive signs nobody in with it, and
makers' passwords are in it only as their slow hashes (RFC 9106).
"""

from __future__ import annotations

import hashlib
import json
import logging
import os
import re
import shutil
import sqlite3
import tempfile
import zipfile
from collections.abc import Callable
from contextlib import closing
from dataclasses import dataclass
from datetime import UTC, datetime
from pathlib import Path
from typing import Any

from workshop import VERSION

log = logging.getLogger(__name__)
FORMAT = "proud-rake-archive"
FORMAT_VERSION = 2
EARLIER = ("proud-rake-backup", 1)
"""What archives with a database in them were called before they had open files beside it."""
DATABASE = "proud-rake.sqlite3"
INSIDE = "database.sqlite3"
ABOUT = "about.json"
UNFINISHED = "open-files-end-here.txt"
LEFT_OUT = ("django_session", "accounts_signedin", "axes_accessattempt")
"""Emptied in the copy: who is signed in, and who tried."""
KEPT = {"night": 14, "hand": 30, "before": 6}
"""How many archives of a kind stay: nightly ones, those made by hand, those before a change of version."""
NAMED = re.compile(rf"proud-rake-(\d+)-\d+-({'|'.join(KEPT)})\.zip", re.ASCII)
"""The name the program gives one: its number, the day, its kind."""


class NotABackup(Exception):
    """What is wrong with an archive, in plain words."""


@dataclass(frozen=True)
class Backup:
    """One archive in the folder of backups."""

    path: Path
    made: datetime
    kind: str

    @property
    def name(self) -> str:
        """Its file name."""
        return self.path.name


def folder_of(data: Path) -> Path:
    """Where a data folder's archives lie."""
    return data / "backups"


def all_in(data: Path) -> list[Backup]:
    """The archives beside a data folder, the latest first by the number in their names; last those somebody
    named himself."""
    found = []
    for path in folder_of(data).glob("proud-rake-*.zip"):
        named = NAMED.fullmatch(path.name)
        kind = named[2] if named else "hand"
        found.append(Backup(path, datetime.fromtimestamp(path.stat().st_mtime, UTC), kind))
    return sorted(found, key=lambda one: (NAMED.fullmatch(one.name) is not None, one.name), reverse=True)


OpenFiles = Callable[[zipfile.ZipFile], None]
"""What writes the open files into an archive."""


def make(data: Path, kind: str, at: Path | None = None, beside: OpenFiles | None = None) -> Path:
    """Write an archive of what is in `data`, whole or not at all, and let go of the oldest of its kind.

    `at` names another file than the next one in the folder of backups; `beside` writes the open files
    beside the database, None where its version is not this program's. OSError and sqlite3.Error as they
    come; NotABackup where there is nothing to keep.
    """
    source = data / DATABASE
    if not source.exists():
        raise NotABackup(f"There is nothing in {data} yet.")
    where = at or folder_of(data) / _next_name(data, kind)
    where.parent.mkdir(mode=0o700, parents=True, exist_ok=True)
    with tempfile.TemporaryDirectory(dir=where.parent, prefix=".making-") as scratch:
        copy, packed = Path(scratch) / INSIDE, Path(scratch) / "packed.zip"
        _copy(source, copy)
        about = _about(copy)
        with zipfile.ZipFile(packed, "w", zipfile.ZIP_DEFLATED, compresslevel=6) as archive:
            archive.writestr(ABOUT, json.dumps(about, indent=1))
            archive.write(copy, INSIDE)
            if beside is not None:
                _open_files(archive, beside)
        packed.chmod(0o600)
        _on_disk(packed)
        os.replace(packed, where)
        _on_disk(where.parent)
    if at is None:
        let_go(data, kind)
    return where


def _open_files(archive: zipfile.ZipFile, beside: OpenFiles) -> None:
    """The open files, as far as they can be written: the database is what brings everything back, and no
    fault in them may cost it."""
    try:
        beside(archive)
    except Exception as error:
        log.exception("The open files beside a backup's database could not be written")
        archive.writestr(UNFINISHED, f"The open files end here: {error}\n")


def _next_name(data: Path, kind: str) -> str:
    """Names go up whatever the clock says: the day is for people, the number before it counts."""
    numbers = [int(named[1]) for one in all_in(data) if (named := NAMED.fullmatch(one.name))]
    return f"proud-rake-{max(numbers, default=0) + 1:06d}-{datetime.now(UTC):%Y%m%d}-{kind}.zip"


def let_go(data: Path, kind: str) -> None:
    """Take away the archives of a kind beyond those that stay."""
    # A file somebody named himself is nobody's to take away.
    ours = [one for one in all_in(data) if one.kind == kind and NAMED.fullmatch(one.name)]
    for old in ours[KEPT[kind] :]:
        old.path.unlink(missing_ok=True)


def to_read(database: Path) -> sqlite3.Connection:
    """A database to be read only, whatever its folder is called (100%, #2): it is opened by its address."""
    return sqlite3.connect(f"{database.resolve().as_uri()}?mode=ro", uri=True, timeout=20)


def _copy(source: Path, copy: Path) -> None:
    """The database as it stands at one moment, while others go on working in it."""
    with closing(to_read(source)) as live, closing(sqlite3.connect(copy)) as kept:
        live.backup(kept)
        kept.execute("PRAGMA journal_mode=DELETE")
        for table in LEFT_OUT:
            if kept.execute("SELECT 1 FROM sqlite_master WHERE name = ?", (table,)).fetchone():
                kept.execute(f'DELETE FROM "{table}"')
        kept.commit()
        kept.execute("VACUUM")


def _on_disk(path: Path) -> None:
    handle = os.open(path, os.O_RDONLY)
    try:
        os.fsync(handle)
    finally:
        os.close(handle)


def _about(copy: Path) -> dict[str, Any]:
    with closing(sqlite3.connect(copy)) as kept:
        migrations = kept.execute("SELECT app, name FROM django_migrations ORDER BY app, name").fetchall()
        return {
            "format": FORMAT,
            "version": FORMAT_VERSION,
            "made": datetime.now(UTC).isoformat(timespec="seconds"),
            "program": VERSION,
            "migrations": [f"{app}.{name}" for app, name in migrations],
            "tables": {table: _digest(kept, table) for table in _tables(kept)},
        }


def _tables(kept: sqlite3.Connection) -> list[str]:
    named = "SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite_%' ORDER BY name"
    return [name for (name,) in kept.execute(named)]


def _digest(kept: sqlite3.Connection, table: str) -> dict[str, Any]:
    """How many rows a table has, and a hash over all that is in them."""
    seen, rows = hashlib.sha256(), 0
    for row in kept.execute(f'SELECT * FROM "{table}" ORDER BY 1'):
        seen.update(repr(row).encode("utf-8", "surrogatepass"))
        rows += 1
    return {"rows": rows, "sha256": seen.hexdigest()}


def has_database(archive: Path) -> bool:
    """Whether there is a database in an archive; True for what is no archive, which is judged elsewhere."""
    try:
        with zipfile.ZipFile(archive) as opened:
            return INSIDE in opened.namelist() or ABOUT not in opened.namelist()
    except (OSError, zipfile.BadZipFile):
        return True


def about(archive: Path) -> dict[str, Any]:
    """What an archive says of itself; NotABackup where it is none, or of a later program."""
    try:
        with zipfile.ZipFile(archive) as opened:
            said = json.loads(opened.read(ABOUT))
            opened.getinfo(INSIDE)
    except FileNotFoundError:
        raise NotABackup(f"There is no file {archive}.") from None
    except (zipfile.BadZipFile, KeyError, ValueError, OSError) as error:
        raise NotABackup(f"{archive} is no backup of this program, or it is damaged: {error}") from None
    if not isinstance(said, dict) or said.get("format") not in (FORMAT, EARLIER[0]):
        raise NotABackup(f"{archive} is no backup of this program.")
    if (said["format"], said.get("version")) not in ((FORMAT, FORMAT_VERSION), EARLIER):
        raise NotABackup(f"{archive} was made by a later program: restore it with that one.")
    return said


def unpack(archive: Path, into: Path) -> dict[str, Any]:
    """Put an archive's database into an empty folder, every table compared with what was written down of
    it; what the archive says of itself. NotABackup where anything is not as it was, and nothing is left."""
    said = about(archive)
    target = into / DATABASE
    if target.exists():
        raise NotABackup(f"There are data in {into} already. Restore into an empty folder.")
    into.mkdir(mode=0o700, parents=True, exist_ok=True)
    with tempfile.TemporaryDirectory(dir=into, prefix=".restoring-") as scratch:
        copy = Path(scratch) / INSIDE
        try:
            with zipfile.ZipFile(archive) as opened, opened.open(INSIDE) as packed, copy.open("xb") as file:
                shutil.copyfileobj(packed, file)
            with closing(sqlite3.connect(copy)) as kept:
                wrong = _differs(kept, said)
        except (zipfile.BadZipFile, sqlite3.DatabaseError) as error:
            wrong = str(error)
        if wrong:
            raise NotABackup(f"{archive} is damaged: {wrong}. Nothing was restored; try an earlier one.")
        copy.chmod(0o600)
        _on_disk(copy)
        os.replace(copy, target)
        _on_disk(into)
    return said


def _differs(kept: sqlite3.Connection, said: dict[str, Any]) -> str:
    sound = kept.execute("PRAGMA integrity_check").fetchone()[0]
    if sound != "ok":
        return str(sound)
    if kept.execute("PRAGMA foreign_key_check").fetchone():
        return "rows in it refer to rows that are not there"
    now = {table: _digest(kept, table) for table in _tables(kept)}
    for table in sorted({*now, *said["tables"]}):
        if now.get(table) != said["tables"].get(table):
            return f"what is in {table} is not what was written into it"
    return ""
