"""What the air does to wood: the moisture it leads to, movement, swelling of a dry tenon, drying."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from splay.timber.species import GREEN, Wood

LINEAR = (6.0, 14.0)
"""Moisture, percent, between which the coefficients of Table 13-5 hold (Wood Handbook §13)."""

WETTER = 3.0
"""Wood this many points above what its home's air leads to is too wet to bore and glue (common practice, no
source)."""


def led_to(celsius: float, humidity: float) -> float:
    """The moisture (percent) wood comes to in air of a temperature (Celsius) and relative humidity
    (percent).

    Wood Handbook, equation 4-5 with its constants for degrees Celsius (from memory).
    """
    h = min(max(humidity, 0.0), 100.0) / 100.0
    t = celsius
    w = 349.0 + 1.29 * t + 0.0135 * t * t
    k = 0.805 + 0.000736 * t - 0.00000273 * t * t
    k1 = 6.27 - 0.00938 * t - 0.000303 * t * t
    k2 = 1.91 + 0.0407 * t - 0.000293 * t * t
    kh = k * h
    one, two = k1 * kh, k1 * k2 * kh * kh
    return 1800.0 / w * (kh / (1.0 - kh) + (one + 2.0 * two) / (1.0 + one + two))


def is_linear(was: float, becomes: float) -> bool:
    """Whether wood moves by its coefficient alone from one moisture to another, percent."""
    return LINEAR[0] <= min(was, becomes) and max(was, becomes) <= LINEAR[1]


def movement(size: float, wood: Wood, tangential: bool, was: float, becomes: float) -> float:
    """How much a size across the grain (mm) changes from one moisture to another (percent); shrinking is
    negative.

    Wood Handbook §13: size times coefficient times change within 6 to 14 %, else
    D (Mf - Mi) / (30 (100) / S - 30 + Mi). Above green nothing moves.
    """
    was, becomes = min(was, GREEN), min(becomes, GREEN)
    if is_linear(was, becomes):
        return size * wood.coefficient(tangential) * (becomes - was)
    whole = wood.shrinks(tangential)
    return size * (becomes - was) / (GREEN * 100.0 / whole - GREEN + was) if whole > 0.0 else 0.0


SLOWEST, QUICKEST = 1.0e-11, 1.0e-10
"""How fast water moves across the grain of wood in a room, square metres a second: from dense and dry to
light and moist (from memory of measured bound-water coefficients; a range, no single source)."""
A_TENTH = (0.1 * math.sqrt(math.pi) / 4.0) ** 2
"""Dt / r² at which a rod has taken up a tenth of what it will: the first term of the solution for a
cylinder at short times, 4 sqrt(Dt / (pi r²))."""


def lies_out(diameter: float) -> tuple[float, float]:
    """Minutes, from and to, in which a dry tenon (diameter, mm) has swollen by a tenth of what it will."""
    radius2 = (diameter / 2000.0) ** 2
    return tuple(A_TENTH * radius2 / d / 60.0 for d in (QUICKEST, SLOWEST))  # type: ignore[return-value]


@dataclass(frozen=True)
class Fitted:
    """How a dry tenon's fit changes once tenon and seat have the same moisture: mm on the diameter,
    positive tighter; `tenon` what it swells, `hole` what its hole changes across the grain."""

    tighter: float
    tenon: float
    hole: float


def fit(
    diameter: float, wood: Wood, tenon: float, seat: float, ends: float, seat_wood: Wood | None = None
) -> Fitted:
    """The fit of a tenon (its diameter in mm, its moisture in percent) in a seat of another moisture, when
    both have come to `ends`: across its flat-grained way a hole moves like the wood it is bored in
    (`seat_wood`, the tenon's own where none is named)."""
    swells = movement(diameter, wood, True, tenon, ends)
    opens = movement(diameter, seat_wood or wood, True, seat, ends)
    return Fitted(swells - opens, swells, opens)


PER_INCH = {"board": (0.5, 1.0), "slab": (1.0, 2.0), "slice": (1.0, 2.5)}
"""Years of drying in the open for each 25 mm of thickness, from and to (common practice, no source)."""


@dataclass(frozen=True)
class Weighing:
    """What was found of a piece of wood: so many days after the first, its moisture in percent."""

    days: float
    moisture: float


@dataclass(frozen=True)
class Drying:
    """How long until a moisture is reached, days from and to from the last reading on (0, 0 where it is
    there); `readings` how many it goes by, 0 for the usual; `ends` the moisture the air leads to, percent;
    `never` where it cannot get there in that air."""

    least: float
    most: float
    readings: int
    ends: float
    never: bool = False


def drying(
    sort: str, thickness: float, moisture: float, wanted: float, ends: float, seen: Sequence[Weighing] = ()
) -> Drying:
    """Days until a board, slab or slice (thickness in mm) of a moisture is down to what is wanted.

    Without readings the usual years for its thickness, less what is behind it: drying runs as an
    exponential towards `ends`, of which the usual time brings it from green to within a point of it. With
    readings the rates between each two that lie a day apart or more give the range.
    """
    if moisture <= wanted:
        return Drying(0.0, 0.0, len(seen), ends)
    if wanted <= ends:
        return Drying(0.0, 0.0, len(seen), ends, never=True)
    left = math.log((moisture - ends) / (wanted - ends))
    rates = []
    for k, one in enumerate(seen):
        for two in seen[k + 1 :]:
            gone, above = two.days - one.days, two.moisture - ends
            if gone >= 1.0 and above > 0.0 and one.moisture > two.moisture:
                rates.append(math.log((one.moisture - ends) / above) / gone)
    if rates:
        return Drying(left / max(rates), left / min(rates), len(seen), ends)
    whole = math.log(max(GREEN - ends, 2.0) / 1.0)
    low, high = (years * 365.0 * thickness / 25.4 for years in PER_INCH.get(sort, PER_INCH["board"]))
    return Drying(low * left / whole, high * left / whole, 0, ends)


_UNITS = ((365.0, "years"), (30.4, "months"), (1.0, "days"))


def so_long(least: float, most: float) -> str:
    """From so many days to so many, in words: in the largest unit of which there are two at the most, days
    always whole."""
    for days, name in _UNITS:
        if most >= 2.0 * days:
            places = 0 if name == "days" or most >= 5.0 * days else 1
            low, high = (f"{time / days:.{places}f}" for time in (least, most))
            if low == high:
                return f"about {high} {name}"
            return f"{low} to {high} {name}" if float(low) else f"up to {high} {name}"
    return "a day or two"


def from_weight(weight: float, first_weight: float, first_moisture: float) -> float:
    """Moisture (percent) from a weight, where weight and moisture were known once: the dry weight is the
    first over one plus its moisture. Wood Handbook §4, the definition of moisture content."""
    dry = first_weight / (1.0 + first_moisture / 100.0)
    return (weight / dry - 1.0) * 100.0
