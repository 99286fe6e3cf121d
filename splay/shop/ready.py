"""Shops to start from, before the maker has named their own tools."""

from __future__ import annotations

from splay.shop.model import Shop
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
    TiltingTable,
    Tool,
)


def workbench() -> Shop:
    """One tool of every kind, with the scales most often found on them (common practice, no source)."""
    return Shop(
        tools=(
            BevelGauge(name="Bevel gauge"),
            TiltingTable(name="Drill press, tilting table"),
            Ramp(name="Ramp under the drill press"),
            GuideBlock(name="Guide block"),
            AngleGuide(name="Clamp-on drill guide"),
            DigitalGauge(name="Digital gauge on the drill"),
            OppositeLeg(name="Hand drill, opposite leg as sight"),
            Protractor(name="Protractor"),
            MitreSaw(name="Mitre saw"),
            TableSaw(name="Table saw"),
            BandSaw(name="Band saw"),
            Handsaw(name="Handsaw and scribe"),
            HandPlane(name="Plane and marking gauge"),
            TaperJig(name="Taper jig"),
            RouterTable(name="Router table"),
            TenonCutter(name="Tenon cutter"),
        )
    )


def ready_shops() -> dict[str, tuple[Tool, ...]]:
    """Sets of tools to begin with: a hand-tool bench, a small machine shop, a classroom.

    Scales as most often found (common practice, no source); every one is there to be corrected.
    """
    return {
        "hand": (
            BevelGauge(name="Bevel gauge"),
            GuideBlock(name="Guide block"),
            OppositeLeg(name="Hand drill, opposite leg as sight"),
            Protractor(name="Protractor"),
            Handsaw(name="Handsaw and scribe"),
            HandPlane(name="Plane and marking gauge"),
        ),
        "machine": (
            BevelGauge(name="Bevel gauge"),
            TiltingTable(name="Drill press, tilting table"),
            Ramp(name="Ramp under the drill press"),
            DigitalGauge(name="Digital gauge"),
            OppositeLeg(name="Hand drill, opposite leg as sight"),
            Protractor(name="Protractor"),
            MitreSaw(name="Mitre saw"),
            TableSaw(name="Table saw"),
            BandSaw(name="Band saw"),
            Handsaw(name="Handsaw and scribe"),
            HandPlane(name="Plane and marking gauge"),
            TaperJig(name="Taper jig"),
            RouterTable(name="Router table"),
            TenonCutter(name="Tenon cutter"),
        ),
        "class": (
            BevelGauge(name="Bevel gauge"),
            GuideBlock(name="Guide block"),
            AngleGuide(name="Clamp-on drill guide"),
            OppositeLeg(name="Hand drill, opposite leg as sight"),
            Protractor(name="Protractor"),
            Handsaw(name="Handsaw and scribe"),
            HandPlane(name="Plane and marking gauge"),
            TenonCutter(name="Tenon cutter"),
        ),
    }
