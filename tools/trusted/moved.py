"""A whole shop with photographs out of one server and into another: nothing changed, memory bounded."""

from __future__ import annotations

import http.client
import io
import random
import threading
import time
import zipfile

from PIL import Image

from splay.piece import write_piece
from splay.piece.starters import STARTS, starter
from tools.trusted.shop import Maker, Shop, opened


def moved(pieces: int = 200, side: int = 900) -> dict[str, object]:
    """So many pieces, each with a photograph of that many pixels a side, streamed out and taken in
    elsewhere; what is not the same there, how long it took, and by how much memory grew on the way."""
    with opened() as (shop, maker):
        names = list(STARTS)
        rng = random.Random(1)
        for number in range(pieces):
            document = {**write_piece(starter(names[number % len(names)])), "name": f"Piece {number}"}
            made = maker.ask("POST", "/api/pieces", {"document": document})
            assert made is not None and made[0] == 201, made
            id = made[1]["id"]
            kept = maker.ask("PUT", f"/api/pieces/{id}/photo", noisy(rng, side))
            assert kept is not None and kept[0] == 200, kept
        # Once to fill what every process fills at its first answer.
        took_out(shop, maker)
        before = settled(shop)
        raw, out_s, most = took_out(shop, maker)
    with opened() as (other, theirs):
        rest = settled(other)
        watch = Watch(other)
        began = time.monotonic()
        headers = theirs.headers("application/zip")
        status, _, said = other.ask("POST", "/api/archive?sure=true", raw, headers, patience=600)
        in_s = time.monotonic() - began
        in_most = watch.end()
        again, _, _ = took_out(other, theirs)
    return {
        "pieces": pieces,
        "archive_mb": round(len(raw) / 1e6, 1),
        "status": status,
        "said": said[:80] if status != 200 else "",
        "different": different(raw, again),
        "out_s": round(out_s, 1),
        "out_memory_mb": round(most - before, 1),
        "in_s": round(in_s, 1),
        "in_memory_mb": round(in_most - rest, 1),
    }


def settled(shop: Shop) -> float:
    """What a server holds once it has drawn what it draws at its start, MB."""
    had, now = 0.0, shop.memory_mb()
    while abs(now - had) > 0.5:
        time.sleep(1.0)
        had, now = now, shop.memory_mb()
    return now


def took_out(shop: Shop, maker: Maker) -> tuple[bytes, float, float]:
    """The archive, how long it took, and the most memory the server held while it was sent."""
    watch = Watch(shop)
    began = time.monotonic()
    line = http.client.HTTPConnection("127.0.0.1", shop.port, timeout=600)
    line.request("GET", "/api/archive", None, maker.headers())
    answer = line.getresponse()
    parts = io.BytesIO()
    while part := answer.read(1 << 16):
        parts.write(part)
    took = time.monotonic() - began
    line.close()
    return parts.getvalue(), took, watch.end()


class Watch:
    """The most memory a server holds until it is ended, MB."""

    def __init__(self, shop: Shop) -> None:
        self._most, self._stop = 0.0, threading.Event()
        self._shop = shop
        # Of a measurement that fails nothing stays: it would hold up the end of whoever asked for it.
        self._thread = threading.Thread(target=self._look, daemon=True)
        self._thread.start()

    def _look(self) -> None:
        while not self._stop.wait(0.05):
            self._most = max(self._most, self._shop.memory_mb())

    def end(self) -> float:
        """Stop looking; the most it was."""
        self._stop.set()
        self._thread.join()
        return max(self._most, self._shop.memory_mb())


def different(before: bytes, after: bytes) -> list[str]:
    """The files that are not the same in two archives, but for when each was made."""
    with zipfile.ZipFile(io.BytesIO(before)) as a, zipfile.ZipFile(io.BytesIO(after)) as b:
        names = (set(a.namelist()) | set(b.namelist())) - {"about.json"}
        both = set(a.namelist()) & set(b.namelist())
        return sorted(name for name in names if name not in both or a.read(name) != b.read(name))


def noisy(rng: random.Random, side: int) -> bytes:
    """A photograph that no packing makes small, as real ones are."""
    image = Image.frombytes("RGB", (side, side), rng.randbytes(side * side * 3)).resize((side, side))
    made = io.BytesIO()
    image.save(made, "JPEG", quality=60)
    return made.getvalue()
