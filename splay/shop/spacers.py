"""What lies about to put under a foot: nuts, drill shanks, veneer, card, paper."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from splay.document import Frozen, Length, Plain


class Spacer(Frozen):
    """One thing of known thickness, and how many of it there are."""

    name: Annotated[str, Field(min_length=1, max_length=60), Plain]
    """What the maker calls it."""
    thick: Annotated[float, Length(0.02, 200, fine=True)]
    """Its thickness as it is put under a foot, mm: measured, not read off a table."""
    count: Annotated[int, Field(ge=1, le=99, strict=True)] = 1
    """How many of it are at hand."""


def usual_spacers() -> tuple[Spacer, ...]:
    """Hexagon nuts standing on a flat, and thin sheets.

    Nuts: widths across flats of ISO 4032 (nominal, which is the greatest; older standards differ:
    measure). Sheets: common practice, no source.
    """
    nuts = ((6, 10.0), (8, 13.0), (10, 16.0), (12, 18.0), (16, 24.0), (20, 30.0))
    made = [Spacer(name=f"M{size} nut on its flat", thick=across, count=4) for size, across in nuts]
    made += [Spacer(name=f"{d} mm drill shank", thick=float(d), count=2) for d in (1, 2, 3, 4, 5)]
    sheets = (("paper", 0.1, 20), ("card", 0.3, 10), ("veneer", 0.6, 10))
    return (*made, *(Spacer(name=name, thick=thick, count=n) for name, thick, n in sheets))
