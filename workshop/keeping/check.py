"""Whether an archive would bring everything back: restored aside, read, and compared with the live data."""

from __future__ import annotations

import io
import json
import sqlite3
import tempfile
from contextlib import closing
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from PIL import Image

from splay.errors import SplayError
from splay.piece import read_piece
from splay.shop import read_shop
from workshop.keeping import backup

ROWS = {
    "states": ("pieces_revision", "document"),
    "readings": ("pieces_readingrow", "value"),
    "photographs": ("pieces_piecephoto", "image"),
    "shops": ("shop_shoprow", "document"),
}


@dataclass(frozen=True)
class Checked:
    """What was found: how many of each thing, those that cannot be read, and how the live data differ."""

    made: str
    counts: dict[str, int]
    unread: list[str]
    newer: dict[str, int]
    missing: dict[str, int]


def check(archive: Path, live: Path) -> Checked:
    """Restore into a scratch folder and look at every state, reading and picture; NotABackup where the
    archive itself is damaged."""
    with tempfile.TemporaryDirectory(prefix="proud-rake-check-") as scratch:
        said = backup.unpack(archive, Path(scratch))
        with closing(sqlite3.connect(Path(scratch) / backup.DATABASE)) as kept:
            here = {name: _rows(kept, *where) for name, where in ROWS.items()}
            unread = [
                f"state {key}" for key, text in here["states"].items() if not _reads(text, read_piece)
            ]
            unread += [f"shop {key}" for key, text in here["shops"].items() if not _reads(text, read_shop)]
            unread += [f"photograph {key}" for key, raw in here["photographs"].items() if not _seen(raw)]
    newer, missing = {}, {}
    if (live / backup.DATABASE).exists():
        with closing(backup.to_read(live / backup.DATABASE)) as now:
            for name, where in ROWS.items():
                there = _rows(now, *where)
                newer[name] = sum(here[name].get(key) != value for key, value in there.items())
                missing[name] = len(here[name].keys() - there.keys())
    counts = {name: len(rows) for name, rows in here.items()}
    return Checked(said["made"], counts, unread, newer, missing)


def _rows(database: sqlite3.Connection, table: str, column: str) -> dict[Any, Any]:
    return dict(database.execute(f'SELECT id, "{column}" FROM "{table}"').fetchall())


def _reads(text: str, read: Any) -> bool:
    try:
        read(json.loads(text))
    except (SplayError, ValueError):
        return False
    return True


def _seen(raw: bytes) -> bool:
    try:
        with Image.open(io.BytesIO(raw)) as opened:
            opened.load()
    except (OSError, ValueError):
        return False
    return True
