"""A disk that fills up under a working shop, and is freed again."""

from __future__ import annotations

import shutil
import subprocess
import tempfile
from pathlib import Path

from splay.piece import write_piece
from splay.piece.starters import starter
from tools.trusted.shop import Shop, empty_shop, opened


def can_mount() -> bool:
    """Whether a small disk of one's own can be had here: in a namespace of its own, without rights."""
    tried = ["unshare", "-Urm", "sh", "-c", "mount -t tmpfs -o size=1m none /mnt"]
    try:
        return subprocess.run(tried, capture_output=True).returncode == 0
    except OSError:
        return False


def filled(megabytes: int = 6) -> dict[str, object]:
    """Save until the disk of `megabytes` is full, look at everything, free it, save on."""
    with tempfile.TemporaryDirectory(prefix="proud-rake-disk-") as named:
        disk = Path(named)
        setup = f'mount -t tmpfs -o size={megabytes}m none {disk} && exec "$@"'
        copied = f'cp -r {empty_shop()}/. {disk} && exec "$@"'
        wrap = ("unshare", "-Urm", "--kill-child", "sh", "-c", setup, "sh", "sh", "-c", copied, "sh")
        with opened(wrap, disk) as (shop, maker):
            inside = Path(f"/proc/{_inner(shop)}/root") / str(disk).lstrip("/")
            document = write_piece(starter("bench"))
            made = maker.ask("POST", "/api/pieces", {"document": document})
            assert made is not None and made[0] == 201, made
            id, revision, refused = made[1]["id"], 1, 0
            filler = inside / "filler"
            room = _free(inside)
            filler.write_bytes(bytes(max(room - 120_000, 0)))
            words = ""
            for turn in range(400):
                body = {"document": {**document, "name": f"State {turn}"}, "based_on": revision}
                got = maker.ask("PUT", f"/api/pieces/{id}", body)
                assert got is not None
                if got[0] == 507:
                    refused, words = refused + 1, got[1]["detail"]
                    if refused == 3:
                        break
                else:
                    assert got[0] == 200, got
                    revision = got[1]["revision"]
            looked = [maker.ask("GET", path) for path in ("/api/pieces", f"/api/pieces/{id}", "/api/shop")]
            reading_on = all(got is not None and got[0] == 200 for got in looked)
            health = maker.ask("GET", "/api/health")
            filler.unlink()
            body = {"document": {**document, "name": "Freed"}, "based_on": revision}
            got = maker.ask("PUT", f"/api/pieces/{id}", body)
            after = maker.ask("GET", f"/api/pieces/{id}/revisions")
            assert after is not None
            kept = {row["number"] for row in after[1]}
            lost = len(set(range(1, revision + 1)) - kept)
    return {
        "saved": revision,
        "refused": refused,
        "said": words,
        "reading_on": reading_on,
        "health": health[0] if health else None,
        "saves_again": got is not None and got[0] == 200,
        "lost": lost,
    }


def _inner(shop: Shop) -> int:
    """A process of the server that sees the small disk."""
    return shop.family()[-1]


def _free(inside: Path) -> int:
    return shutil.disk_usage(inside).free
