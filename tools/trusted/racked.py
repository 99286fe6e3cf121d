"""A shop after years: two hundred pieces, five hundred states, two thousand readings; and how it starts."""

from __future__ import annotations

import gzip
import http.client
import json
import sqlite3
import statistics
import time
from contextlib import closing

from splay.piece import write_piece
from splay.piece.starters import STARTS, starter
from tools.trusted.shop import Maker, Shop, opened


def started(times: int = 3) -> dict[str, object]:
    """Seconds from the command to the first answer, with nothing to migrate."""
    with opened() as (shop, _):
        took = []
        for _ in range(times):
            shop.end()
            took.append(round(shop.begin(), 2))
    return {"first answer_s": took}


def racked(pieces: int = 200, states: int = 500, readings: int = 2000) -> dict[str, object]:
    """The rack and a piece with a long history, as fast as they are answered."""
    with opened() as (shop, maker):
        names = list(STARTS)
        ids = []
        for number in range(pieces):
            document = {**write_piece(starter(names[number % len(names)])), "name": f"Piece {number}"}
            made = maker.ask("POST", "/api/pieces", {"document": document})
            assert made is not None and made[0] == 201
            ids.append(made[1]["id"])
        maker.ask("GET", "/api/pieces")
        _history(shop, ids[0], states, readings)
        quick, _, size, packed = _timed(shop, maker, "/api/pieces")
        piece = f"/api/pieces/{ids[0]}"
        found: dict[str, object] = {
            "pieces": pieces,
            "rack_ms": quick,
            "rack_kb": (round(size / 1000), round(packed / 1000)),
            "planned_on_the_way": _planned(shop, maker),
        }
        for what, path in {"piece": piece, "states": f"{piece}/revisions"}.items():
            quick, _, size, _ = _timed(shop, maker, path)
            found[f"{what}_ms"] = quick
        body = {"piece": write_piece(starter("round_three")), "station": "stance"}
        took = []
        for _ in range(9):
            began = time.monotonic()
            maker.ask("POST", "/api/plan", body)
            took.append(time.monotonic() - began)
        found["plan_ms"] = round(statistics.median(took) * 1000)
    return found


def _history(shop: Shop, id: str, states: int, readings: int) -> None:
    """Years of work on one piece, written straight into the database."""
    with closing(sqlite3.connect(shop.data / "proud-rake.sqlite3", timeout=20)) as kept:
        key = id.replace("-", "")
        document = kept.execute(
            "SELECT document FROM pieces_revision WHERE piece_id = ?", (key,)
        ).fetchone()[0]
        saved = "2026-01-01 00:00:00"
        kept.executemany(
            "INSERT INTO pieces_revision (number, document, called, saved, piece_id)"
            " VALUES (?, ?, '', ?, ?)",
            [(number, document, saved, key) for number in range(2, states + 1)],
        )
        kept.execute("UPDATE pieces_piecerow SET latest = ? WHERE id = ?", (states, key))
        kept.executemany(
            "INSERT INTO pieces_readingevent"
            " (proof, copy, what, called, value, typed, tool, note, at, piece_id)"
            " VALUES (?, 1, 'corrected', '', 12, '12', '', '', ?, ?)",
            [(f"bore.l{number % 3 + 1}", saved, key) for number in range(readings)],
        )
        kept.commit()


def _timed(shop: Shop, maker: Maker, path: str) -> tuple[int, int, int, int]:
    took, raw = [], b""
    headers = {**maker.headers(), "Accept-Encoding": "gzip"}
    for _ in range(9):
        line = http.client.HTTPConnection("127.0.0.1", shop.port, timeout=30)
        began = time.monotonic()
        line.request("GET", path, None, headers)
        answer = line.getresponse()
        raw = answer.read()
        took.append(time.monotonic() - began)
        line.close()
    whole = gzip.decompress(raw) if raw[:2] == b"\x1f\x8b" else raw
    json.loads(whole)
    return round(statistics.median(took) * 1000), round(max(took) * 1000), len(whole), len(raw)


def _planned(shop: Shop, maker: Maker) -> int:
    """How many pieces are worked out anew at a second look along the rack: none."""

    def hung() -> set[tuple[str, str]]:
        with closing(sqlite3.connect(shop.data / "proud-rake.sqlite3", timeout=20)) as kept:
            return set(kept.execute("SELECT id, hung FROM pieces_piecerow").fetchall())

    # What hangs is spoiled where it is kept: a piece that were drawn anew would be put right by that.
    with closing(sqlite3.connect(shop.data / "proud-rake.sqlite3", timeout=20)) as kept:
        kept.execute("UPDATE pieces_piecerow SET hung = replace(hung, 'Piece', 'Spoiled')")
        kept.commit()
    before = hung()
    maker.ask("GET", "/api/pieces")
    return len(hung() - before)
