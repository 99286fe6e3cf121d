"""Bench instruments: what they send, as one line of text, and what is wrong with it when it is.

A line is a number, a unit, and before them, where the instrument counts its readings, "#" and that
count: "#17 12.35 mm", "0.486 in", "14.2 deg", "9.5 %". This is the product's own; an instrument that
speaks otherwise is given a few lines of code that say it this way.
"""

from __future__ import annotations

import math
import re
from dataclasses import dataclass
from typing import Literal

from splay.quantity import MM_PER_INCH
from splay.work.proofs import Instrument

Measures = Literal["angle", "length", "percentage"]
MEASURES: dict[Instrument, Measures] = {
    "angle_gauge": "angle",
    "caliper": "length",
    "height_gauge": "length",
    "moisture_meter": "percentage",
    "hygrometer": "percentage",
}
_LINE = re.compile(
    r"^(?:#(?P<count>\d{1,9})\s+)?(?P<number>[+-]?\d{1,5}(?:\.\d{1,6})?)\s*(?P<unit>mm|in|deg|%)$"
)
_UNITS: dict[str, Measures] = {"mm": "length", "in": "length", "deg": "angle", "%": "percentage"}
LONGEST = 60


@dataclass(frozen=True)
class Heard:
    """What came of listening once. `state` is read, silent, rubbish, wrong (another kind of figure) or
    repeated; `value` in mm, degrees or percent where it was read; `typed` the same as a maker would
    type it; `said` what to tell them."""

    state: Literal["read", "silent", "rubbish", "wrong", "repeated"]
    value: float | None
    typed: str
    said: str
    line: str


def listen(instrument: Instrument, line: str | None, before: str = "") -> Heard:
    """What one line of an instrument means; None for nothing heard, `before` the line heard last."""
    name = instrument.replace("_", " ")
    if line is None:
        said = f"Nothing heard from the {name}: wake it, look at its battery, then take it again."
        return Heard("silent", None, "", said, "")
    text = line.strip()
    found = _LINE.match(text) if len(text) <= LONGEST else None
    if found is None:
        shown = text[:24] if text.isprintable() else "what cannot be read"
        said = f"The {name} sent “{shown}”, which is no reading: take it again, or type it."
        return Heard("rubbish", None, "", said, text[:LONGEST])
    if found["count"] is not None and text == before:
        said = f"The {name} sent the same reading twice: lift it off and measure again."
        return Heard("repeated", None, "", said, text)
    if _UNITS[found["unit"]] != MEASURES[instrument]:
        wanted = "an angle" if MEASURES[instrument] == "angle" else f"a {MEASURES[instrument]}"
        got = f"{found['number']} {found['unit']}"
        said = f"The {name} sent {got}, which is not {wanted}: set it, take it again."
        return Heard("wrong", None, "", said, text)
    value = float(found["number"])
    said = f"{name}: {found['number']} {found['unit']}"
    typed = f"{value:g}°" if found["unit"] == "deg" else f"{value:g} {found['unit']}"
    if found["unit"] == "in":
        value *= MM_PER_INCH
        said = f"{name}: {found['number']} in, taken as {value:.2f} mm"
        typed = f"{value:.3f} mm"
    if not math.isfinite(value):
        return Heard("rubbish", None, "", said, text)
    return Heard("read", value, typed, said, text)
