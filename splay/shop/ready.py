"""A shop to start from, before the maker has named their own tools."""

from __future__ import annotations

from splay.shop.model import Shop
from splay.shop.tools import (
    AngleGuide,
    BevelGauge,
    DigitalGauge,
    GuideBlock,
    Handsaw,
    MitreSaw,
    Ramp,
    TiltingTable,
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
            MitreSaw(name="Mitre saw"),
            Handsaw(name="Handsaw and scribe"),
        )
    )
