"""What is told, shown and drawn of pieces that stay the same, as it was read and looked at last.

    python -m tests.approve

writes it anew and prints which of it changed. What is right is held against something outside by the other
tests; this only tells that something has become another, so that it is read before it is let through.
"""

from __future__ import annotations

import hashlib
import json
import math
import os
import random
import re
import sys
from collections.abc import Iterator
from functools import cache
from pathlib import Path
from typing import Any

from pydantic import TypeAdapter

from splay.build.document import Build
from splay.build.order import Order, order_of
from splay.draw import Drawings, draw
from splay.errors import BadInput, CannotBuild
from splay.piece import Piece, read_piece
from splay.piece.starters import STARTS, starter
from splay.plan import Plan, plan
from splay.shop import Shop, workbench
from splay.shown import Shown, shown
from splay.solids import solids_of

HERE = Path(__file__).parent / "approved"
WORDS, ITEMS = HERE / "words.txt", HERE / "items.txt"
DEMO = Path(__file__).parent.parent / "workshop" / "demo" / "pieces"
RANDOM = 12
"""Random pieces in random shops beside the starts and the demo's."""
NUMBER = re.compile(r"-?\d+(?:[.,/]\d+)?(?: \d+/\d+)?")
ASIDE = 0.3719
"""Figures are cut to a hundredth here, not halfway between two round ones, where the last bit decides."""
_SHOWN, _DRAWN, _ORDER = TypeAdapter(Shown), TypeAdapter(Drawings), TypeAdapter(Order)
_LISTS = {
    "setups": "id", "sticks": "key", "members": "id", "ropes": "id", "parts": "number", "sockets": "leg",
    "legs": "number",
}  # fmt: skip
"""What of a plan is told apart one by one, and by what."""


def pieces() -> Iterator[tuple[str, Piece, Shop]]:
    """The starts, the demo's pieces, ways of making one by one, random pieces in random shops; always the
    same."""
    # The tests' own pieces want the application's settings.
    from tests.bench.pieces import random_piece, random_shop

    for name in STARTS:
        yield name, starter(name), workbench()
    for path in sorted(DEMO.glob("*.json")):
        yield path.stem, read_piece(json.loads(path.read_text(encoding="utf-8"))), workbench()
    yield from ((name, piece, workbench()) for name, piece in _ways())
    for number in range(RANDOM):
        rng = random.Random(f"approved {number}")
        while True:
            try:
                piece, shop = random_piece(rng), random_shop(rng)
                plan(piece, shop)
            except (BadInput, CannotBuild):
                continue
            yield f"random-{number}", piece, shop
            break


def _ways() -> Iterator[tuple[str, Piece]]:
    """Pieces that have what neither start nor demo has."""
    from tests.core.test_bent import bent
    from tests.core.test_gapped import two_boards
    from tests.core.test_left_on import thick
    from tests.core.test_mouth import coved
    from tests.core.test_through import driven
    from tests.core.test_underfoot import padded
    from tests.core.test_wedges import blind

    yield "bent", bent(rise=40.0, faces="right")
    yield "coved", coved(cove=10.0)
    yield "driven", driven(size=36.0, depth=150.0)
    yield "driven-sides", driven("board_sides")
    yield "gap", two_boards()
    yield "gap-closes", two_boards(gap={"width": 1.0, "stays": "outer"})
    yield "thick", thick(4.0)
    yield "fox-wedged", blind({})
    for kind in ("pads", "glides", "screwed"):
        yield kind, padded("aproned", kind=kind)[0]


def template(said: str) -> str:
    """A sentence without its figures."""
    return NUMBER.sub("#", said.replace("\n", " ¶ "))


def _walk(of: Any) -> Iterator[str]:
    if isinstance(of, str):
        yield template(of)
    elif isinstance(of, bool) or of is None:
        yield str(of)
    elif isinstance(of, int | float):
        yield str(math.floor(of * 100.0 + ASIDE))
    elif isinstance(of, list):
        for one in of:
            yield from _walk(one)
    else:
        for name, one in of.items():
            yield name
            yield from _walk(one)


def digest(of: Any) -> str:
    """A short sign of everything in a document."""
    return hashlib.sha256("\n".join(_walk(of)).encode()).hexdigest()[:10]


def _items(piece: Piece, made: Plan, shop: Shop) -> Iterator[tuple[str, Any]]:
    told = json.loads(_SHOWN.dump_json(shown(made, "all")))
    drawn = json.loads(_DRAWN.dump_json(draw(piece, shop, made, "all")))
    pictures = drawn.pop("pictures")
    for card in told["setups"]:
        yield f"card {card['id']}", [card, pictures[card["id"]]]
    for name, by in _LISTS.items():
        for k, one in enumerate(told.pop(name)):
            if name != "setups":
                yield f"{name} {one.get(by, k)}", one
    for name, one in told.items():
        yield name, one
    for name, views in drawn.items():
        for k, view in enumerate(views):
            yield f"drawn {name} {view.get('name', view.get('part', ''))} {k}", view
    for step in json.loads(_ORDER.dump_json(order_of(piece, made, Build())))["steps"]:
        yield f"step {step['key']}", step
    for part in solids_of(piece, made):
        lows, highs = part.points.min(axis=0), part.points.max(axis=0)
        yield f"solid {part.key}", [len(part.points), [float(v) for v in (*lows, *highs)]]


def _sentences(of: Any) -> Iterator[str]:
    if isinstance(of, str):
        if " " in of:
            yield template(of)
    elif isinstance(of, list):
        for one in of:
            yield from _sentences(one)
    elif isinstance(of, dict):
        for one in of.values():
            yield from _sentences(one)


@cache
def now() -> tuple[dict[str, str], frozenset[str]]:
    """What there is now: the sign of every item by piece and name, and every sentence."""
    signs: dict[str, str] = {}
    said: set[str] = set()
    for name, piece, shop in pieces():
        made = plan(piece, shop)
        for item, of in _items(piece, made, shop):
            signs[f"{name} | {item}"] = digest(of)
            if not item.startswith(("drawn", "solid")):
                said |= set(_sentences(of))
    return signs, frozenset(said)


def approved() -> tuple[dict[str, str], frozenset[str]]:
    """What there was when it was read last."""
    rows = ITEMS.read_text(encoding="utf-8").splitlines() if ITEMS.exists() else []
    signs = dict(row.rsplit(" = ", 1) for row in rows)
    said = WORDS.read_text(encoding="utf-8").splitlines() if WORDS.exists() else []
    return signs, frozenset(said)


def main() -> None:
    """Writes what there is now, and prints what changed."""
    signs, said = now()
    old_signs, old_said = approved()
    for sign, lines in (("-", sorted(old_said - said)), ("+", sorted(said - old_said))):
        sys.stdout.writelines(f"{sign} {line}\n" for line in lines)
    changed = [key for key in sorted({*signs, *old_signs}) if signs.get(key) != old_signs.get(key)]
    sys.stdout.writelines(f"~ {key}\n" for key in changed)
    HERE.mkdir(exist_ok=True)
    ITEMS.write_text("".join(f"{key} = {sign}\n" for key, sign in signs.items()), encoding="utf-8")
    WORDS.write_text("".join(f"{line}\n" for line in sorted(said)), encoding="utf-8")


if __name__ == "__main__":
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "workshop.test_settings")
    import django

    django.setup()
    main()
