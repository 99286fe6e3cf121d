"""Printing lengths and angles in the maker's units, and figures that can say how they came about."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Annotated, Literal

from pydantic import Field, PlainSerializer

from splay.quantity.read import MM_PER_INCH, Bare

Unit = Literal["mm", "deg", "count", "ratio", "area"]


@dataclass(frozen=True)
class Units:
    """How this maker reads figures: system, inch fraction (16, 32, 64) and metric step in mm."""

    system: Bare = "metric"
    fraction: int = 32
    step_mm: float = 0.5

    def other(self) -> Units:
        """The same roundings in the other system."""
        return Units("inch" if self.system == "metric" else "metric", self.fraction, self.step_mm)

    def snap_mm(self) -> float:
        """The smallest division the maker reads, in mm; drags settle on multiples of it."""
        return MM_PER_INCH / self.fraction if self.system == "inch" else self.step_mm


def _to_a_millionth(value: float) -> float:
    return round(value, 6)


@dataclass(frozen=True)
class Quantity:
    """A value and how it is read: `value` unrounded in `unit` (it goes out to a millionth), `text` in the
    maker's units."""

    value: Annotated[float, PlainSerializer(_to_a_millionth, return_type=float)]
    unit: Unit
    text: str


@dataclass(frozen=True)
class Input:
    """One thing a figure was worked out from: its symbol in the formula, its name, its value, which goes
    out as it is read."""

    symbol: str
    name: str
    text: str
    quantity: Annotated[Quantity, Field(exclude=True)]


@dataclass(frozen=True)
class Figure:
    """A figure that can answer "why?": what it is, its value, the formula and what went in."""

    key: str
    label: str
    quantity: Quantity
    formula: str
    inputs: tuple[Input, ...]
    note: str = ""


def inches(mm: float, fraction: int) -> str:
    """Inches to the nearest 1/fraction, reduced: 419.1 mm is 16 1/2"."""
    sign = "-" if mm < 0 else ""
    count = math.floor(abs(mm) / MM_PER_INCH * fraction + 0.5)
    whole, part = divmod(count, fraction)
    if not part:
        return f'{sign if whole else ""}{whole}"'
    shared = math.gcd(part, fraction)
    below = f"{part // shared}/{fraction // shared}"
    return f'{sign}{whole} {below}"' if whole else f'{sign}{below}"'


def millimetres(mm: float, step_mm: float) -> str:
    """Millimetres to the nearest 0.5 (whole ones without a point) or 0.1."""
    sign = "-" if mm < 0 else ""
    count = math.floor(abs(mm) / step_mm + 0.5)
    value = count * step_mm
    if step_mm >= 0.5 and value == int(value):
        return f"{sign if count else ''}{int(value)} mm"
    return f"{sign if count else ''}{value:.1f} mm"


THIN_MM = 3.0
"""Under this a length is read with a gauge or a caliper rather than a rule (common practice, no source)."""


def fine(mm: float, system: Bare) -> str:
    """A small length as a caliper shows it: to 0.05 mm, or to a thousandth of an inch."""
    if system == "inch":
        text = f"{mm / MM_PER_INCH:.3f}"
        return (text[1:] if float(text) == 0 and text.startswith("-") else text) + '"'
    count = math.floor(abs(mm) / 0.05 + 0.5)
    text = f"{count * 0.05:.2f}"
    return f"{'-' if mm < 0 and count else ''}{text[:-1] if text.endswith('0') else text} mm"


def degrees(value: float, places: int) -> str:
    """Degrees to one decimal, as the scales in a shop can be read; never a negative nought."""
    text = f"{value:.{places}f}"
    return (text[1:] if float(text) == 0 and text.startswith("-") else text) + "°"


@lru_cache(maxsize=8192)
def _length(mm: float, inch: bool, fraction: int, step_mm: float) -> Quantity:
    """From one keystroke to the next most lengths of a piece stay: each is worded once."""
    return Quantity(mm, "mm", inches(mm, fraction) if inch else millimetres(mm, step_mm))


@lru_cache(maxsize=2048)
def _angle(value: float, places: int) -> Quantity:
    return Quantity(value, "deg", degrees(value, places))


class Show:
    """Makes quantities and figures in one maker's units."""

    def __init__(self, units: Units) -> None:
        self.units = units
        inch = units.system == "inch"
        self._inch, self._fraction, self._step = inch, units.fraction, units.step_mm
        # Legs alike have the same figures: each is worded once.
        self._lengths: dict[float, Quantity] = {}
        self._fines: dict[float, Quantity] = {}
        self._angles: dict[tuple[float, int], Quantity] = {}
        self._inputs: dict[tuple[str, str, float], Input] = {}

    @property
    def inch(self) -> bool:
        """Whether this maker reads inches."""
        return self._inch

    def length(self, mm: float) -> Quantity:
        """A length in millimetres."""
        if (known := self._lengths.get(mm)) is not None:
            return known
        made = self._lengths[mm] = _length(mm, self._inch, self._fraction, self._step)
        return made

    def fine(self, mm: float) -> Quantity:
        """A length that matters to a hair: small ones as a caliper shows them, others to 0.1 or 1/64."""
        if (known := self._fines.get(mm)) is not None:
            return known
        if abs(mm) < THIN_MM:
            made = Quantity(mm, "mm", fine(mm, "inch" if self._inch else "metric"))
        else:
            made = self.closely(mm)
        self._fines[mm] = made
        return made

    def closely(self, mm: float) -> Quantity:
        """A length held against a reading: to 0.1 mm or 1/64 in, whatever figures are rounded to."""
        return Quantity(mm, "mm", inches(mm, 64) if self._inch else millimetres(mm, 0.1))

    def least(self, mm: float) -> Quantity:
        """A length that something must be at least: rounded up, so that what is shown holds too."""
        return self._bound(mm, math.ceil)

    def most(self, mm: float) -> Quantity:
        """A length that something may be at most: rounded down, so that what is shown holds too."""
        return self._bound(mm, math.floor)

    def _bound(self, mm: float, to: Callable[[float], int]) -> Quantity:
        step = self.units.snap_mm()
        return self.length(to(round(mm / step, 6)) * step)

    def angle(self, deg: float, places: int = 1) -> Quantity:
        """An angle in degrees."""
        if (known := self._angles.get((deg, places))) is not None:
            return known
        made = self._angles[deg, places] = _angle(deg, places)
        return made

    def typed_angle(self, deg: float) -> Quantity:
        """An angle that was chosen: to as many decimals as it was given in, two at most."""
        hundredths = deg * 100.0
        exact = abs(hundredths - round(hundredths)) < 1e-6 and round(hundredths) % 10 != 0
        return self.angle(deg, 2 if exact else 1)

    def count(self, number: int) -> Quantity:
        """A number of things."""
        return Quantity(number, "count", str(number))

    def ratio(self, number: float) -> Quantity:
        """A bare number, such as the radius a taper loses per unit of length."""
        return Quantity(number, "ratio", f"{number:.4f}")

    def input(self, symbol: str, name: str, value: float, unit: Unit = "mm") -> Input:
        """One input of a formula."""
        key = (symbol, name, value)
        if (known := self._inputs.get(key)) is not None:
            return known
        quantity = self.angle(value, 2) if unit == "deg" else self._plain(value, unit)
        made = Input(symbol, name, quantity.text, quantity)
        self._inputs[key] = made
        return made

    def _plain(self, value: float, unit: Unit) -> Quantity:
        if unit == "mm":
            return self.length(value)
        return self.count(int(value)) if unit == "count" else self.ratio(value)

    def figure(
        self,
        key: str,
        label: str,
        value: float,
        formula: str,
        *inputs: Input,
        unit: Unit = "mm",
        note: str = "",
        fine: bool = False,
    ) -> Figure:
        """A length (mm) or angle (deg) with its working; `fine` where a hair matters."""
        if fine:
            quantity = self.fine(value)
        else:
            quantity = self.angle(value) if unit == "deg" else self._plain(value, unit)
        return Figure(key, label, quantity, formula, inputs, note)


def times(sizes: Sequence[Quantity]) -> str:
    """Measures one after another, a unit that all share said once."""
    texts = [one.text for one in sizes]
    unit = " mm"
    if all(text.endswith(unit) for text in texts):
        texts = [text.removesuffix(unit) for text in texts]
        return " × ".join(texts) + unit
    return " × ".join(texts)
