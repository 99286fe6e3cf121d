"""What is said to one who asks for what cannot be had, or types what cannot be meant."""

from __future__ import annotations

import dataclasses
from collections.abc import Callable, Iterator
from functools import partial
from typing import Any, get_args

from splay.build.schedule import Hours, Stretch
from splay.errors import BadInput, CannotBuild
from splay.formats.tables import from_csv as table_from_csv
from splay.piece.starters import starter
from splay.quantity import read_length
from splay.quick import quick_mitre
from splay.reading import read_reading
from splay.setups.compound import compound, mitred_corner
from splay.shop import workbench
from splay.stance.handled import Handled
from splay.stance.lean import solve
from splay.stance.moves import Move, move
from splay.stance.restate import Restate, What, restate
from splay.timber.stock import read_stock
from splay.timber.table import from_csv
from splay.work.proofs import KINDS

TO = ("", "on", "off", "s1", "drawn", "left", "screws", "h", "side", "supports.0", "peg", "more", "each")
"""Words for what things are to become; most do not go with most."""
UNLIKE = ("round_three", "bench", "plane_frames", "board_sides", "slab")
TYPED = ("-4", "0", "90000", "1,234", "wide", "")


def turned_down() -> Iterator[str]:
    """Each sentence of it, with what to do; asked of unlike pieces, for what they have and have not."""
    for ask in (*_of_pieces(), *_of_figures(), *_of_wood(), *_of_hours()):
        try:
            ask()
        except BadInput as bad:
            yield from (f"{fault.allowed}. {fault.do}" for fault in bad.faults)
        except CannotBuild as no:
            yield f"{no.rule} {no.mend}"


def _of_pieces() -> Iterator[Callable[[], object]]:
    for name in UNLIKE:
        piece = starter(name)
        for what in get_args(What):
            for to in TO if what != "hand_hold" else ("on",):
                yield partial(restate, piece, Restate(what, to))
            yield partial(restate, piece, Restate(what, "on", support=9))
        for handle in get_args(Handled):
            for view in ("front", "side", "plan"):
                yield partial(move, piece, Move(handle, view, (5000.0, 5000.0), 1), 1.0)
                yield partial(move, piece, Move(handle, view, (0.0, 0.0), 40), 1.0)


def _of_figures() -> Iterator[Callable[[], object]]:
    shop = workbench()
    for kind in KINDS.values():
        for typed in TYPED:
            yield partial(read_reading, "one", kind, typed, shop, "metric")
    for typed in TYPED:
        yield partial(read_length, typed, "metric", "width")
    for given in (
        {"splay": 12.0}, {"splay": 12.0, "resultant": 6.0}, {"rake": 95.0, "splay": 3.0}, {},
        {"rake": 8.0, "from_side": 120.0}, {"rake": 8.0, "from_side": 90.0},
        {"splay": 8.0, "from_side": 90.0},
        {"rake": 8.0, "from_side": 0.0}, {"from_side": 20.0, "from_centre": 20.0},
    ):  # fmt: skip
        yield partial(solve, **given)
    for splay, rail, leg in ((12.0, 0.0, 40.0), (12.0, 40.0, 4000.0), (80.0, 40.0, 40.0)):
        yield partial(quick_mitre, shop, splay, rail, leg)
    yield partial(compound, (0.0, 0.0, 1.0), (1.0, 0.0, 0.0), (0.0, 0.0, 1.0))
    yield partial(mitred_corner, 2, 10.0)


def _of_wood() -> Iterator[Callable[[], object]]:
    board = {"kind": "board", "name": "one", "species": "ash, white", "length": 900, "width": 100,
             "thickness": 30}  # fmt: skip
    log = {"kind": "log", "name": "two", "species": "ash, white", "length": 900, "small_end": 200}
    corners = [{"x": x, "y": y} for x, y in ((0, 0), (900, 0), (900, 300), (0, 300))]
    slab = {"kind": "slab", "name": "three", "species": "elm, American", "thickness": 50,
            "outline": corners}  # fmt: skip
    stick = {"kind": "stick", "name": "four", "species": "ash, white", "length": 500, "at_foot": 30}
    flaw = {"kind": "knot", "start": 10, "end": 50}
    wrong: list[dict[str, Any]] = [
        {**board, "flaws": [{**flaw, "low": 80, "high": 20}]}, {**board, "flaws": [{**flaw, "end": 5}]},
        {**board, "flaws": [{**flaw, "high": 400}]}, {**log, "bark": 90, "pith": 40},
        {**log, "checks": 500},
        {**slab, "outline": corners[:2]}, {**slab, "outline": [*corners[:2], corners[3], corners[2]]},
        {**slab, "spots": [{"kind": "knot", "points": [{"x": 4000, "y": 0}]}]}, {**board, "moisture": 300},
        {**board, "seen": [{"on": "2026-01-01"}]}, {**board, "species": ""}, {**stick, "at_foot": -3},
        {**board, "bought": "never"}, {"kind": "plank"}, {},
    ]  # fmt: skip
    for one in wrong:
        yield partial(read_stock, one)
    for text in ("", "a,b\n1,2\n", "kind,name\n" + "board,x\n" * 3000, "kind;name\nboard;\n"):
        yield partial(from_csv, text)
        yield partial(table_from_csv, text, ("kind", "name", "length"))


def _of_hours() -> Iterator[Callable[[], object]]:
    for stretches in ((), (Stretch(0, 12.0, 9.0),), (Stretch(0, 9.0, 12.0), Stretch(0, 11.0, 14.0))):
        yield dataclasses.replace(Hours(()), stretches=stretches).checked
