"""Many at once: those who work, and those who begin a request and never end it."""

from __future__ import annotations

import random
import socket
import statistics
import threading
import time

from splay.piece import write_piece
from splay.piece.starters import STARTS, starter
from tools.trusted.shop import Maker, Shop, opened

HEAD = b"GET /api/session HTTP/1.1\r\nHost: 127.0.0.1\r\nX-Slow: "
BODY = (
    b"POST /api/session HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Type: application/json\r\n"
    b"Content-Length: 900000\r\n\r\n{"
)


def unfinished(heads: int = 40, bodies: int = 8, seconds: float = 6.0) -> dict[str, object]:
    """Hold unfinished requests open, dripping a byte now and then, and work beside them meanwhile."""
    with opened() as (shop, maker):
        calm = _paced(maker, 12)
        held = [_half(shop, HEAD) for _ in range(heads)] + [_half(shop, BODY) for _ in range(bodies)]
        took, failed, end = [], 0, time.monotonic() + seconds
        while time.monotonic() < end:
            for one in held:
                try:
                    one.send(b"x")
                except OSError:
                    continue
            began = time.monotonic()
            got = maker.ask("GET", "/api/pieces")
            failed += got is None or got[0] != 200
            took.append(time.monotonic() - began)
            time.sleep(0.05)
        for one in held:
            one.close()
    worst = round(max(took) * 1000)
    return {"held": len(held), "answered": len(took), "failed": failed, "calm_ms": calm, "worst_ms": worst}


def _half(shop: Shop, begun: bytes) -> socket.socket:
    one = socket.create_connection(("127.0.0.1", shop.port))
    one.sendall(begun)
    return one


def _paced(maker: Maker, count: int) -> int:
    took = []
    for _ in range(count):
        began = time.monotonic()
        maker.ask("GET", "/api/pieces")
        took.append(time.monotonic() - began)
    return round(statistics.median(took) * 1000)


def crowded(clients: int = 8, seconds: float = 120.0) -> dict[str, object]:
    """So many makers plan, drag, save and read as fast as they are answered."""
    took: list[float] = []
    errors: list[str] = []
    with opened() as (shop, maker):
        _paced(maker, 5)
        before = shop.memory_mb()
        end = time.monotonic() + seconds
        hands = [
            threading.Thread(target=_work, args=(maker, seed, end, took, errors)) for seed in range(clients)
        ]
        for hand in hands:
            hand.start()
        for hand in hands:
            hand.join()
        after = shop.memory_mb()
    took.sort()
    return {
        "clients": clients,
        "requests": len(took),
        "errors": len(errors),
        "which": errors[:3],
        "p50_ms": round(took[len(took) // 2] * 1000),
        "p95_ms": round(took[int(len(took) * 0.95)] * 1000),
        "memory_mb": (round(before), round(after)),
    }


def _work(maker: Maker, seed: int, end: float, took: list[float], errors: list[str]) -> None:
    rng = random.Random(seed)
    document = write_piece(starter(rng.choice(list(STARTS))))
    made = maker.ask("POST", "/api/pieces", {"document": document})
    assert made is not None and made[0] == 201, made
    id, revision = made[1]["id"], 1
    while time.monotonic() < end:
        document = {**document, "height": document["height"] + rng.choice((-1, 1))}
        what = rng.random()
        began = time.monotonic()
        if what < 0.6:
            station = rng.choice(("stance", "stance", "boring", "legs"))
            got = maker.ask("POST", "/api/plan", {"piece": document, "station": station})
        elif what < 0.8:
            got = maker.ask("PUT", f"/api/pieces/{id}", {"document": document, "based_on": revision})
            if got is not None and got[0] == 200:
                revision = got[1]["revision"]  # What stood already makes no new one.
        else:
            got = maker.ask("GET", f"/api/pieces/{id}")
        took.append(time.monotonic() - began)
        if got is None or got[0] not in (200, 422):
            errors.append(str(got)[:200])
