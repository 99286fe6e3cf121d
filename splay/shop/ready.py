"""Shops to start from, before the maker has named their own tools."""

from __future__ import annotations

from functools import cache

from splay.shop.model import Shop
from splay.shop.spacers import usual_spacers
from splay.shop.tools import (
    AngleGuide,
    BandSaw,
    BevelGauge,
    DigitalGauge,
    GuideBlock,
    HandPlane,
    Handsaw,
    MitreSaw,
    OppositeLeg,
    Protractor,
    Ramp,
    RouterTable,
    TableSaw,
    TaperJig,
    TenonCutter,
    TenonJig,
    TiltingTable,
    Tool,
)

_EVERY: tuple[Tool, ...] = (
    BevelGauge(name="Bevel gauge"),
    TiltingTable(name="Drill press, tilting table"),
    Ramp(name="Ramp under the drill press"),
    GuideBlock(name="Guide block"),
    AngleGuide(name="Clamp-on drill guide"),
    DigitalGauge(name="Digital gauge on the drill"),
    OppositeLeg(name="Hand drill by eye"),
    Protractor(name="Protractor"),
    MitreSaw(name="Mitre saw"),
    TableSaw(name="Table saw"),
    BandSaw(name="Band saw"),
    Handsaw(name="Handsaw and scribe"),
    HandPlane(name="Plane and marking gauge"),
    TaperJig(name="Taper jig"),
    RouterTable(name="Router table"),
    TenonCutter(name="Tenon cutter"),
    TenonJig(name="Turning jig"),
)
_BY_HAND: set[str] = {"bevel_gauge", "guide_block", "opposite_leg", "protractor", "handsaw", "hand_plane"}
_SETS: dict[str, set[str]] = {
    "hand": _BY_HAND,
    "machine": {str(tool.kind) for tool in _EVERY} - {"guide_block", "angle_guide"},
    "class": _BY_HAND | {"angle_guide", "tenon_cutter"},
}


@cache
def workbench() -> Shop:
    """One tool of every kind, with the scales most often found on them (common practice, no source)."""
    return Shop(tools=_EVERY, spacers=usual_spacers())


def with_every_kind(shop: Shop) -> tuple[Shop, frozenset[str]]:
    """The shop with a tool of every kind that it has none of, and the ids of those that were lent: what
    there is to do to a piece does not hang on who owns what."""
    have = {tool.kind for tool in shop.owned()}
    held = {tool.id for tool in shop.tools}
    lent = []
    for number, tool in enumerate(_EVERY, 1):
        if tool.kind not in have:
            id = next(f"lent{k}" for k in range(number, 1000) if f"lent{k}" not in held)
            held.add(id)
            lent.append(tool.model_copy(update={"id": id}))
    return shop.model_copy(update={"tools": (*shop.tools, *lent)}), frozenset(one.id for one in lent)


def ready_shops() -> dict[str, tuple[Tool, ...]]:
    """Sets of tools to begin with: a hand-tool bench, a small machine shop, a classroom.

    Scales as most often found (common practice, no source); every one is there to be corrected.
    """
    every = workbench().tools
    return {name: tuple(t for t in every if t.kind in kinds) for name, kinds in _SETS.items()}
