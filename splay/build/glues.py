"""Glues: how long they stay open, how long they want to be clamped, what heat and damp do to that.

All of it common practice with no published source, from memory: the tin says what holds for its own glue,
and a maker's own figures stand beside.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

GlueName = Literal["yellow", "slow", "hide", "liquid_hide", "epoxy", "none"]
AT_C, AT_RH = 20.0, 50.0
"""The air in which a glue's times hold, °C and % relative humidity."""
DOUBLE_C = 10.0
"""So many degrees warmer halve a glue's times; cooler, they double."""


@dataclass(frozen=True)
class Glue:
    """One glue: minutes it stays `open_min` in the air its times are said for, hours `clamp_h` until the
    clamps come off and until it may be worked (`waits`), the `least_c` and `most_c` of wood and shop, °C;
    whether heat opens it again; `told` to the hands; how a glue-up that is stopped midway is `saved`; how
    what squeezes out is taken away (`clean`); `dries` whether it dries, so that damp air holds it open."""

    name: str
    open_min: float
    clamp_h: float
    waits: tuple[float, float] | None
    least_c: float
    most_c: float
    heat_opens: bool
    dries: bool
    told: str
    saved: str
    clean: str


_YELLOW_SAVED = (
    "Within its open time: pull apart, wash both faces with warm water, dry overnight, begin again. Later: "
    "what is closed stays closed; saw or steam it apart, plane to bare wood, glue anew."
)
_YELLOW_CLEAN = (
    "Leave the beads until they are like rubber, about half an hour, and pare them off; then a damp rag."
)
GLUES: dict[GlueName, Glue] = {
    "yellow": Glue(
        "Yellow glue", 8.0, 1.0, (1.0, 24.0), 10.0, 35.0, False, True,
        "thin on both faces, clamped within its open time.", _YELLOW_SAVED, _YELLOW_CLEAN,
    ),
    "slow": Glue(
        "Slow yellow glue", 15.0, 1.5, (1.5, 24.0), 10.0, 35.0, False, True,
        "thin on both faces, clamped within its open time.", _YELLOW_SAVED, _YELLOW_CLEAN,
    ),
    "hide": Glue(
        "Hot hide glue", 3.0, 2.0, (2.0, 24.0), 16.0, 35.0, True, False,
        "warm shop and warm parts, the glue as thin as syrup: fast, for it gels as it cools.",
        "Warm the joint with an iron over a damp cloth and it opens, today or in years; brush "
        "new glue over the old.",
        "Warm water and a brush at any time.",
    ),
    "liquid_hide": Glue(
        "Liquid hide glue", 12.0, 6.0, (6.0, 24.0), 15.0, 35.0, True, True,
        "looks older than its tin says: try a drop, it must be hard overnight.",
        "Warm it with hot water and it opens; wash, dry, begin again.",
        "Warm water and a rag at any time.",
    ),
    "epoxy": Glue(
        "Slow epoxy", 30.0, 8.0, (8.0, 24.0), 12.0, 30.0, False, False,
        "mixed as its tin says; a large pot heats up and sets early. Gloves on.",
        "While it is wet: pull apart and wipe with what its tin names. Once hard it is part of the wood.",
        "While it is wet, with what its tin names; gloves on, never with bare hands.",
    ),
    "none": Glue(
        "No glue", 0.0, 0.0, None, -50.0, 60.0, False, False, "", "Pull it apart and begin again.", ""
    ),
}  # fmt: skip


def opening(glue: Glue, open_min: float | None, air_c: float, air_rh: float) -> float:
    """Minutes a glue stays open in this air: half as long for every `DOUBLE_C` warmer. One that dries
    does so by as much later as the air is damper than usual. `open_min` is the maker's own."""
    base = glue.open_min if open_min is None else open_min
    warm = 2.0 ** ((AT_C - air_c) / DOUBLE_C)
    damp = 1.0 + (air_rh - AT_RH) / 100.0 if glue.dries else 1.0
    return float(base * warm * damp)


def clamping(glue: Glue, air_c: float) -> float:
    """Hours until the clamps come off in this air."""
    return float(glue.clamp_h * 2.0 ** ((AT_C - air_c) / DOUBLE_C))
