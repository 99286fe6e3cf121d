"""Whether the server can be trusted with years of work, measured: `tools/trust.py [PART ...]`.

Its own server on loopback, in folders of its own. Prints, part by part: kill -9, the power cut, the full
disk, requests that never end, requests by the thousand, hostile files, many makers at once, the time to
the first answer. Exit status 1 where anything was lost, let in or answered as it must not be.
"""

from __future__ import annotations

import subprocess
import sys
import time
from collections.abc import Callable
from pathlib import Path
from typing import Any

sys.path.insert(0, str(Path(__file__).resolve().parent.parent))

from tools.bench import pace
from tools.trusted.asked import asked, let_in
from tools.trusted.crowded import crowded, unfinished
from tools.trusted.cut import can_trace, power_cut
from tools.trusted.filled import can_mount, filled
from tools.trusted.killed import killed
from tools.trusted.moved import moved
from tools.trusted.racked import racked, started

Found = dict[str, Any]


def _killed() -> tuple[Found, bool]:
    found = killed(100, whole_every=10)
    return found, not found["lost"] and not found["damaged"]


def _cut() -> tuple[Found, bool]:
    if not can_trace():
        return {"not simulated": "strace cannot watch a process here"}, True
    found = power_cut(40)
    return found, found["answered"] == found["saves"] and not found["lost"] and not found["unreadable"]


def _filled() -> tuple[Found, bool]:
    if not can_mount():
        return {"not filled": "no small disk can be mounted here"}, True
    found = filled()
    whole = found["reading_on"] and found["saves_again"] and found["refused"] and not found["lost"]
    return found, bool(whole)


def _unfinished() -> tuple[Found, bool]:
    found = unfinished(seconds=10)
    return found, not found["failed"]


def _asked() -> tuple[Found, bool]:
    found = asked(20_000)
    return found, not found["wrong"]


def _let_in() -> tuple[Found, bool]:
    found = list(let_in(400))
    return {"hostile files": 400, "let in": len(found), "which": found[:3]}, not found


def _crowded() -> tuple[Found, bool]:
    found = crowded()
    return found, not found["errors"]


def _started() -> tuple[Found, bool]:
    return started(2), True


def _racked() -> tuple[Found, bool]:
    return racked(), True


def _moved() -> tuple[Found, bool]:
    found = moved()
    small = max(float(str(found["out_memory_mb"])), float(str(found["in_memory_mb"]))) < 60.0
    return found, found["status"] == 200 and not found["different"] and small


PARTS: dict[str, Callable[[], tuple[Found, bool]]] = {
    "start": _started,
    "rack": _racked,
    "unfinished": _unfinished,
    "cut": _cut,
    "full": _filled,
    "files": _let_in,
    "killed": _killed,
    "crowd": _crowded,
    "asked": _asked,
    "moved": _moved,
}


BESIDE = "killed"
"""The part that mostly waits for a server to start: it has the second core while the first ones run."""
TOGETHER = ("cut", "full", "files", "asked")
ALONE = ("start", "rack", "unfinished", "crowd", "moved")
"""Timed: nothing runs beside these."""


def everything() -> int:
    """All parts, in ten minutes: one beside others where no time is taken."""
    began = time.monotonic()
    with subprocess.Popen([sys.executable, __file__, BESIDE], stdout=subprocess.PIPE, text=True) as beside:
        failed = main(list(TOGETHER))
        said, _ = beside.communicate()
    print(said, end="")
    failed = max(failed, beside.returncode, main(list(ALONE)))
    print(f"{time.monotonic() - began:.0f} s for everything.")
    return failed


def main(names: list[str]) -> int:
    """Go through the parts; 1 where any did not hold."""
    failed, began = 0, time.monotonic()
    pace()
    for name in names:
        before = time.monotonic()
        found, holds = PARTS[name]()
        failed += not holds
        print(f"{name} ({time.monotonic() - before:.0f} s): {'holds' if holds else 'DOES NOT HOLD'}")
        for what, value in found.items():
            print(f"    {what}: {value}")
        sys.stdout.flush()
    pace()
    print(f"{time.monotonic() - began:.0f} s in all, {failed} did not hold.")
    return min(failed, 1)


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]) if sys.argv[1:] else everything())
