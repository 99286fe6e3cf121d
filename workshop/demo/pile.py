"""The pile at Larkmoor: a log, two slabs, boards with their flaws, a table that was taken apart, offcuts;
and what is reserved of it."""

from __future__ import annotations

import math
import random
from datetime import date, timedelta
from typing import Any

from django.contrib.auth.models import User

from splay.shop import Shop
from splay.timber.stock import read_stock
from workshop.demo.slab_photo import slab_photo
from workshop.pieces.models import PieceRow
from workshop.timber import reserving
from workshop.timber.models import StockRow
from workshop.timber.reserving import wooded
from workshop.timber.rows import keep
from workshop.timber.store import keep_photo

ASH, ELM, LARCH, OAK = "ash, white", "elm, American", "larch, western", "oak, white"
RESERVED = ("foyer-bench", "chart-table")


def _wavy(long: float, wide: float, seed: int, points: int = 9) -> list[dict[str, float]]:
    """A slab's edge: two wavy sides and two sawn ends."""
    luck = random.Random(seed)
    phase = luck.uniform(0.0, 6.0)
    near = [
        (long * k / points, 14.0 * math.sin(phase + k * 0.9) + luck.uniform(-6.0, 6.0) + 20.0)
        for k in range(points + 1)
    ]
    far = [
        (long * k / points, wide + 18.0 * math.sin(phase * 1.7 + k * 0.7) + luck.uniform(-7.0, 7.0))
        for k in range(points, -1, -1)
    ]
    return [{"x": round(x, 1), "y": round(y, 1)} for x, y in (*near, *far)]


def _board(name: str, species: str, size: tuple[float, float, float], **more: Any) -> dict[str, Any]:
    length, width, thickness = size
    made = {"kind": "board", "name": name, "species": species, "length": length}
    return {**made, "width": width, "thickness": thickness, "rings": "flat", **more}


def _flaw(
    kind: str, start: float, end: float, low: float = 0.0, high: float | None = None
) -> dict[str, Any]:
    return {"kind": kind, "start": start, "end": end, "low": low, "high": high}


def _spot(kind: str, points: list[tuple[float, float]], across: float) -> dict[str, Any]:
    return {"kind": kind, "points": [{"x": x, "y": y} for x, y in points], "across": across}


def the_pile(today: date) -> list[dict[str, Any]]:
    """Every piece of wood as it is kept."""
    ago = [(today - timedelta(days=days)).isoformat() for days in (150, 88, 21)]
    dried = [{"on": on, "moisture": read} for on, read in zip(ago, (27.0, 19.5, 14.5), strict=True)]
    return [
        {
            "kind": "slab", "name": "Wide elm", "species": ELM, "thickness": 60.0, "source": "felled",
            "outline": _wavy(2340.0, 570.0, 4), "moisture": 10.5, "place": "against the north wall",
            "cost": 140.0, "notes": "From the elm that stood by the gate.",
            "spots": [
                _spot("split", [(0.0, 262.0), (150.0, 270.0), (305.0, 281.0)], 5.0),
                _spot("knot", [(1490.0, 74.0)], 62.0),
                _spot("bark", [(2190.0, 548.0), (2270.0, 536.0)], 24.0),
            ],
        },
        {
            "kind": "slab", "name": "Split elm", "species": ELM, "thickness": 54.0, "source": "felled",
            "outline": _wavy(1420.0, 430.0, 11, 7), "seen": dried, "place": "in stick, lean-to",
            "cost": 70.0,
            "spots": [
                _spot("split", [(1420.0, 214.0), (1180.0, 226.0), (930.0, 219.0)], 8.0),
                _spot("pith", [(0.0, 222.0), (420.0, 228.0)], 14.0),
            ],
        },
        {
            "kind": "log", "name": "Ash butt", "species": ASH, "length": 1480.0, "small_end": 312.0,
            "large_end": 336.0, "bark": 11.0, "pith": 34.0, "checks": 55.0, "moisture": 38.0,
            "source": "felled", "place": "behind the shop, ends waxed",
        },
        {
            "kind": "log", "name": "Larch round", "species": LARCH, "length": 655.0, "small_end": 381.0,
            "bark": 14.0, "pith": 20.0, "checks": 18.0, "moisture": 24.0, "source": "felled",
            "place": "lean-to, on edge",
        },
        _board("Ash 1", ASH, (2460.0, 182.0, 61.0), moisture=9.6, cost=38.0, place="rack, top",
               flaws=[_flaw("knot", 1012.0, 1066.0, 118.0, 158.0), _flaw("split", 0.0, 84.0, 60.0, 96.0)]),
        _board("Ash 2", ASH, (1985.0, 146.0, 52.0), moisture=9.2, cost=27.0, place="rack, top",
               flaws=[_flaw("knot", 1422.0, 1475.0, 0.0, 34.0)]),
        _board("Ash 3", ASH, (2380.0, 204.0, 28.0), moisture=8.9, cost=24.0, place="rack, middle",
               flaws=[_flaw("sapwood", 0.0, 2380.0, 176.0)]),
        _board("Ash 4", ASH, (2420.0, 158.0, 28.0), moisture=9.0, cost=19.0, place="rack, middle",
               flaws=[_flaw("knot", 610.0, 655.0, 40.0, 92.0), _flaw("bark", 2010.0, 2420.0, 132.0)]),
        _board("Ash 5", ASH, (2395.0, 163.0, 28.0), moisture=9.1, cost=19.0, place="rack, middle",
               rings="quarter"),
        _board("Oak for out of doors", OAK, (1830.0, 171.0, 34.0), moisture=13.8, cost=31.0,
               flaws=[_flaw("sapwood", 0.0, 640.0, 0.0, 30.0)]),
        _board("Ash 6", ASH, (2110.0, 148.0, 28.0), moisture=8.8, cost=17.0, place="rack, middle",
               flaws=[_flaw("split", 0.0, 62.0, 30.0, 70.0)]),
        _board("Larch plank", LARCH, (2750.0, 224.0, 46.0), moisture=16.4, source="given",
               flaws=[_flaw("knot", 380.0, 425.0, 90.0, 130.0), _flaw("knot", 1570.0, 1630.0, 20.0, 74.0),
                      _flaw("rot", 2600.0, 2750.0)]),
        {
            "kind": "slab", "name": "Top of the old star table", "species": OAK, "thickness": 24.0,
            "source": "reclaimed", "live": False, "moisture": 8.2, "place": "loft",
            "outline": [{"x": x, "y": y} for x, y in ((0, 0), (1105, 0), (1105, 690), (0, 690))],
            "spots": [
                *(_spot("hole", [(x, y)], 9.0) for x in (62.0, 552.0, 1043.0) for y in (58.0, 632.0)),
                _spot("tear_out", [(700.0, 300.0), (838.0, 322.0)], 46.0),
            ],
            "notes": "Wax and an old stain on its upper face, of unknown kind.",
        },
        *(
            {
                "kind": "stick", "name": f"Turned leg {k}", "species": OAK, "length": long,
                "thick_end": 52.0, "thin_end": 31.0, "source": "reclaimed", "moisture": 8.4,
                "place": "loft",
            }
            for k, long in enumerate((704.0, 706.0, 698.0, 705.0), 1)
        ),
        _board("Ash offcut, long", ASH, (742.0, 92.0, 46.0), moisture=9.0, source="offcut",
               place="short rack"),
        _board("Elm offcut", ELM, (455.0, 128.0, 40.0), moisture=10.1, source="offcut", place="short rack",
               flaws=[_flaw("split", 400.0, 455.0, 50.0, 70.0)]),
    ]  # fmt: skip


def pile_up(rows: dict[str, PieceRow], shop: Shop, maker: User) -> None:
    """Put the wood in the store, and reserve some of it for two pieces."""
    StockRow.objects.all().delete()
    for given in the_pile(date.today()):
        row = keep(read_stock(given), maker)
        if row.document["name"] == "Wide elm":
            outline = [(p["x"], p["y"]) for p in given["outline"]]
            picture, photo = slab_photo(outline)
            keep_photo(row.pk, picture)
            row.document = {**row.document, "photo": photo}
            row.save()
    for name in RESERVED:
        choice = {"top_species": ELM if name == "foyer-bench" else ASH, "species": ASH}
        reserving.keep_choice(rows[name].pk, choice, 0, maker)
        reserving.find(wooded(rows[name], maker), 0.8, maker)
        reserving.reserve(rows[name].pk, maker)
