"""kill -9 in the middle of saves, readings, photographs and backups: what was acknowledged is there."""

from __future__ import annotations

import io
import random
import subprocess
import threading
import time
from contextlib import suppress
from dataclasses import dataclass, field
from typing import Any

from PIL import Image

from splay.piece import write_piece
from splay.piece.starters import starter
from tools.trusted.shop import Maker, Shop, opened


@dataclass
class Acknowledged:
    """What the server said it has: by piece its revision and name, its readings, its photograph's width."""

    saved: dict[str, tuple[int, str]] = field(default_factory=dict)
    read: dict[tuple[str, str], float] = field(default_factory=dict)
    seen: dict[str, int] = field(default_factory=dict)
    backups: list[str] = field(default_factory=list)
    count: int = 0


class Working(threading.Thread):
    """A maker who goes on saving, reading, photographing and backing up until nobody answers."""

    def __init__(self, maker: Maker, seed: int, known: Acknowledged) -> None:
        super().__init__(daemon=True)
        self.maker, self.rng, self.known, self.stop = maker, random.Random(seed), known, False

    def run(self) -> None:
        """One thing after the other."""
        document = write_piece(starter("round_three"))
        made = self.maker.ask("POST", "/api/pieces", {"document": document})
        if made is None or made[0] != 201:
            return
        id, revision = made[1]["id"], 1
        self.known.saved[id] = (1, document["name"])
        while not self.stop:
            what = self.rng.random()
            if what < 0.6:
                name = f"State {revision + 1} {self.rng.random()}"
                body = {"document": {**document, "name": name}, "based_on": revision}
                got = self.maker.ask("PUT", f"/api/pieces/{id}", body)
                if not self._taken(got):
                    return
                revision += 1
                self.known.saved[id] = (revision, name)
            elif what < 0.9:
                proof = f"bore.l{self.rng.randint(1, 3)}"
                got = self.maker.ask(
                    "PUT", f"/api/pieces/{id}/readings/{proof}", {"typed": f"{self.rng.uniform(9, 16):.2f}"}
                )
                if not self._taken(got):
                    return
                assert got is not None
                self.known.read[id, proof] = got[1]["value"]
            elif what < 0.96:
                width = self.rng.randint(20, 300)
                got = self.maker.ask("PUT", f"/api/pieces/{id}/photo", photograph(width))
                if not self._taken(got):
                    return
                self.known.seen[id] = width
            else:
                got = self.maker.ask("POST", "/api/backups")
                if not self._taken(got):
                    return
                assert got is not None
                self.known.backups.append(got[1]["name"])

    def _taken(self, got: tuple[int, Any] | None) -> bool:
        if got is None or got[0] not in (200, 201):
            return False
        self.known.count += 1
        return True


def photograph(width: int) -> bytes:
    """A picture of that width."""
    made = io.BytesIO()
    Image.new("RGB", (width, 20), (180, 140, 90)).save(made, "PNG")
    return made.getvalue()


def lost(maker: Maker, known: Acknowledged) -> list[str]:
    """What was acknowledged and is not there as it was said to be."""
    gone = []
    for id, (revision, name) in known.saved.items():
        got = maker.ask("GET", f"/api/pieces/{id}/revisions/{revision}")
        if got is None or got[0] != 200 or got[1]["piece"]["name"] != name:
            gone.append(f"state {revision} of {id}")
    now = {id: _readings(maker, id) for id in {id for id, _ in known.read}}
    # The one that was on its way when the plug was pulled may have come in unacknowledged: newer, not lost.
    for (id, proof), value in known.read.items():
        if value not in _history(maker, id, proof) or proof not in now[id]:
            gone.append(f"reading {proof} of {id}")
    for id in known.seen:
        got = maker.ask("GET", f"/api/pieces/{id}/photo/about")
        if got is None or got[0] != 200:
            gone.append(f"photograph of {id}")
    return gone


def _readings(maker: Maker, id: str) -> dict[str, float]:
    got = maker.ask("GET", f"/api/pieces/{id}")
    return {r["proof"]: r["value"] for r in got[1]["readings"]} if got and got[0] == 200 else {}


def _history(maker: Maker, id: str, proof: str) -> set[float]:
    got = maker.ask("GET", f"/api/pieces/{id}/readings/{proof}/history")
    if not got or got[0] != 200:
        return set()
    return {float(str(event["typed"]).split()[0].rstrip("°")) for event in got[1]}


def killed(rounds: int, whole_every: int = 5, seed: int = 1) -> dict[str, object]:
    """Pull the plug `rounds` times while four makers work; every `whole_every`th on the whole server."""
    rng = random.Random(seed)
    total, gone, damaged = 0, [], 0
    with opened() as (shop, maker):
        for turn in range(rounds):
            known = Acknowledged()
            hands = [Working(maker, rng.randint(0, 10**9), known) for _ in range(4)]
            for hand in hands:
                hand.start()
            time.sleep(rng.uniform(0.15, 0.9))
            if turn % whole_every == 0:
                shop.kill()
            else:
                shop.kill_workers()
            for hand in hands:
                hand.stop = True
                hand.join(30)
            if turn % whole_every == 0:
                shop.begin()
            _wait(shop)
            gone += lost(maker, known)
            total += known.count
            if known.backups and turn % 4 == 0:
                damaged += not _whole(shop, known.backups[-1])
    return {
        "rounds": rounds,
        "acknowledged": total,
        "lost": len(gone),
        "which": gone[:5],
        "damaged": damaged,
    }


def _wait(shop: Shop) -> None:
    end = time.monotonic() + 30
    while time.monotonic() < end:
        try:
            if shop.ask("GET", "/api/health", patience=5)[0] == 200:
                return
        except OSError:
            time.sleep(0.05)


def _whole(shop: Shop, name: str) -> bool:
    with suppress(subprocess.CalledProcessError):
        return "comes back" in shop.manage("backup_check", str(shop.data / "backups" / name))
    return False
