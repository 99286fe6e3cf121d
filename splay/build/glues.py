"""Glues: how long they stay open, how long they want to be clamped.

All of it common practice with no published source, from memory: the tin says what holds for its own glue,
and a maker's own figures stand beside.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

GlueName = Literal["yellow", "hide", "none"]


@dataclass(frozen=True)
class Glue:
    """One glue: minutes it stays open at 20 °C, hours until the clamps come off and until it may be worked
    (`waits`), the least temperature of wood and shop, °C; whether heat opens it again; what to tell the
    hands."""

    name: str
    open_min: float
    clamp_h: float
    waits: tuple[float, float] | None
    least_c: float | None
    heat_opens: bool
    told: str


GLUES: dict[GlueName, Glue] = {
    "yellow": Glue(
        "Yellow glue", 8.0, 1.0, (1.0, 24.0), 10.0, False,
        "thin on both faces, clamped within its open time.",
    ),
    "hide": Glue(
        "Hot hide glue", 3.0, 2.0, (2.0, 24.0), 16.0, True,
        "warm shop and warm parts, the glue as thin as syrup: fast, for it gels as it cools.",
    ),
    "none": Glue("No glue", 0.0, 0.0, None, None, False, ""),
}  # fmt: skip
