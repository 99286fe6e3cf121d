"""A power cut, simulated at the file system: only what was flushed is on the disk, or some of the rest.

strace writes down what the real server writes, flushes and answers, in order. At the moment each save's
answer leaves, the disk is put together again from that: every write up to the last flush of its file,
and of those after it none, all, or some (a disk may write them in any order). SQLite opens what is left
and every save answered by then must be in it.
"""

from __future__ import annotations

import random
import re
import shutil
import sqlite3
import subprocess
import tempfile
from contextlib import closing
from dataclasses import dataclass, field
from pathlib import Path

from splay.piece import write_piece
from splay.piece.starters import starter
from tools.trusted.shop import Maker, Shop, opened

CALLS = "pwrite64,fdatasync,fsync,ftruncate,sendto,unlink"
FILES = ("proud-rake.sqlite3", "proud-rake.sqlite3-wal")
_NAMED = re.compile(r"^\d+<([^>]*)>")
"""A descriptor with the file it stands for: numbers are a process's own."""


def can_trace() -> bool:
    """Whether the system calls of a process can be watched here."""
    try:
        return subprocess.run(["strace", "-o", "/dev/null", "true"], capture_output=True).returncode == 0
    except OSError:
        return False


@dataclass
class File:
    """A file as programs see it (`now`), as it surely is on the disk (`flushed`), and what lies between."""

    now: bytearray
    flushed: bytearray
    waiting: list[tuple[int, bytes | int]] = field(default_factory=list)

    def write(self, at: int, data: bytes) -> None:
        """Written, and not flushed yet."""
        self.waiting.append((at, data))
        _put(self.now, at, data)

    def truncate(self, size: int) -> None:
        """Made that long."""
        self.waiting.append((-1, size))
        _cut(self.now, size)

    def flush(self) -> None:
        """All that was written is on the disk."""
        self.flushed, self.waiting = bytearray(self.now), []

    def after_a_cut(self, rng: random.Random, chance: float) -> bytes:
        """What is found after the cut, where each waiting write came through with that chance."""
        found = bytearray(self.flushed)
        for at, data in self.waiting:
            if rng.random() < chance:
                if isinstance(data, int):
                    _cut(found, data)
                else:
                    _put(found, at, data)
        return bytes(found)


def _put(into: bytearray, at: int, data: bytes) -> None:
    if len(into) < at:
        into.extend(bytes(at - len(into)))
    into[at : at + len(data)] = data


def _cut(what: bytearray, size: int) -> None:
    if len(what) < size:
        what.extend(bytes(size - len(what)))
    del what[size:]


def power_cut(saves: int = 40, seed: int = 1) -> dict[str, object]:
    """Save so many times, cut the power at each answer in three ways; how many saves were lost, and
    how many would have been had nothing been flushed."""
    rng = random.Random(seed)
    with tempfile.TemporaryDirectory(prefix="proud-rake-cut-") as named:
        folder = Path(named)
        with opened(inside=folder / "data") as (shop, maker):
            document = write_piece(starter("round_three"))
            made = maker.ask("POST", "/api/pieces", {"document": document})
            assert made is not None and made[0] == 201
            id = made[1]["id"]
            shop.end()
            _folded(folder / "data" / FILES[0])
            start = {name: _bytes(folder / "data" / name) for name in FILES}
            trace = folder / "trace"
            watched = (
                "strace",
                "-f",
                "-y",
                "-xx",
                "-s",
                "100000",
                "-e",
                f"trace={CALLS}",
                "-o",
                str(trace),
            )
            again = Shop(folder / "data", watched)
            again.port = shop.port
            again.begin()
            maker = Maker(again)
            for number in range(1, saves + 1):
                body = {"document": {**document, "name": f"Cut {number}"}, "based_on": number}
                got = maker.ask("PUT", f"/api/pieces/{id}", body)
                assert got is not None and got[0] == 200, got
            again.end()
        found = _replay(trace, start, saves, folder, rng)
        # A judge that would see nothing is none: had nothing been flushed, saves would be gone.
        blind = _replay(trace, start, saves, folder, rng, flushed=False)
        return {**found, "lost_were_nothing_flushed": blind["lost"]}


def _folded(path: Path) -> None:
    """Everything in the one file: the trace then begins with all that is known."""
    with closing(sqlite3.connect(path)) as database:
        database.execute("PRAGMA wal_checkpoint(TRUNCATE)")


def _bytes(path: Path) -> bytes:
    return path.read_bytes() if path.exists() else b""


def _replay(
    trace: Path,
    start: dict[str, bytes],
    saves: int,
    folder: Path,
    rng: random.Random,
    flushed: bool = True,
) -> dict[str, object]:
    files = {name: File(bytearray(raw), bytearray(raw)) for name, raw in start.items()}
    answered, cuts, lost, broken = 0, 0, 0, 0
    for call, arguments in _whole_calls(trace):
        if call in ("pwrite64", "ftruncate", "fdatasync", "fsync"):
            named = _NAMED.match(arguments)
            name = Path(_plain(named[1])).name if named else ""
            if name in files and (flushed or "sync" not in call):
                _apply(files[name], call, arguments)
        elif call == "unlink":
            name = Path(_unhex(arguments).decode(errors="replace")).name
            if name in files:
                files[name].truncate(0)
        elif call == "sendto" and b'"name": "Cut ' in _unhex(arguments.split(",")[1]):
            answered += 1
            for chance in (0.0, 1.0, 0.5):
                cuts += 1
                found = _found_after(files, folder / "found", rng, chance)
                broken += found is None
                lost += max(answered - (found or 0), 0)
    return {"saves": saves, "answered": answered, "cuts": cuts, "lost": lost, "unreadable": broken}


def _apply(file: File, call: str, arguments: str) -> None:
    if call in ("fdatasync", "fsync"):
        file.flush()
        return
    parts = arguments.rstrip(")").split(", ")
    if call == "ftruncate":
        file.truncate(int(parts[1]))
    elif call == "pwrite64":
        file.write(int(parts[3]), _unhex(parts[1]))


def _found_after(files: dict[str, File], where: Path, rng: random.Random, chance: float) -> int | None:
    """How many of the saves are in what the cut left; None where it cannot be opened."""
    shutil.rmtree(where, ignore_errors=True)
    where.mkdir()
    for name, file in files.items():
        (where / name).write_bytes(file.after_a_cut(rng, chance))
    try:
        with closing(sqlite3.connect(where / FILES[0])) as left:
            if left.execute("PRAGMA integrity_check").fetchone()[0] != "ok":
                return None
            found = left.execute("SELECT max(number) FROM pieces_revision").fetchone()[0]
    except sqlite3.DatabaseError:
        return None
    return int(found) - 1


def _whole_calls(trace: Path) -> list[tuple[str, str]]:
    """The calls in the order they ended: one that another process broke into is put together again."""
    begun: dict[tuple[str, str], str] = {}
    calls = []
    with trace.open(encoding="latin-1") as lines:
        for line in lines:
            pid, _, rest = line.strip().partition(" ")
            rest = rest.strip()
            if rest.endswith("<unfinished ...>"):
                call, _, arguments = rest.removesuffix("<unfinished ...>").partition("(")
                begun[pid, call] = arguments
                continue
            resumed = re.match(r"<\.\.\. (\w+) resumed>(.*)$", rest)
            if resumed:
                call, tail = resumed.groups()
                rest = f"{call}({begun.pop((pid, call), '')}{tail}"
            call, _, tail = rest.partition("(")
            calls.append((call, tail.rpartition(" = ")[0].strip()))
    return calls


def _plain(path: str) -> str:
    return bytes.fromhex(path.replace("\\x", "")).decode(errors="replace") if "\\x" in path else path


def _unhex(quoted: str) -> bytes:
    inner = quoted.split('"')[1] if '"' in quoted else ""
    return bytes.fromhex(inner.replace("\\x", ""))
