"""Reading lengths and angles the way makers write them."""

from __future__ import annotations

import math
import re
import unicodedata
from fractions import Fraction
from typing import Literal

from splay.errors import BadInput, Fault, shorten

MM_PER_INCH = 25.4
"""International inch, exact since 1959 (ISO 31-1, annex; NIST Handbook 44, appendix C)."""

Bare = Literal["inch", "metric"]
"""What a figure without a unit means: inches or millimetres."""

_UNIT_MM = {
    "mm": Fraction(1),
    "cm": Fraction(10),
    "m": Fraction(1000),
    "in": Fraction(254, 10),
    "inch": Fraction(254, 10),
    "inches": Fraction(254, 10),
    '"': Fraction(254, 10),
    "ft": Fraction(3048, 10),
    "foot": Fraction(3048, 10),
    "feet": Fraction(3048, 10),
    "'": Fraction(3048, 10),
}
_FEET = {"ft", "foot", "feet", "'"}
_INCHES = {"in", "inch", "inches", '"'}
_QUOTES = str.maketrans(
    {"′": "'", "’": "'", "‘": "'", "″": '"', "”": '"', "“": '"', "⁄": "/", "−": "-", "–": "-"}
)
_NUMBER = r"\d+[\s-]+\d+\s*/\s*\d+|\d+\s*/\s*\d+|\d+(?:[.,]\d*)?|[.,]\d+"
_TERM = re.compile(rf"\s*(?P<number>{_NUMBER})\s*(?P<unit>''|[a-z]+|'|\")?\s*", re.IGNORECASE)
_ANGLE = re.compile(
    rf"\s*(?P<number>{_NUMBER})\s*(?:°|deg(?:rees?)?|d)?"
    r"(?:\s*(?P<minutes>\d+(?:\.\d+)?)\s*')?\s*",
    re.IGNORECASE,
)
_LONGEST = 40
LENGTH_WAYS = 'a length such as 16 1/2, 16-1/2", 1\' 4 1/2", 420 mm or 42cm'
ANGLE_WAYS = "an angle in degrees such as 11.6, 11 1/2 or 11°30'"


def read_length(given: object, bare: Bare = "metric", field: str = "") -> float:
    """Millimetres from what a maker wrote; a number, unlike text, is always millimetres.

    `bare` is the unit of a text that names none. Raises BadInput naming `field` for anything
    that is not a finite length; the sign is kept, since a place may lie left of the middle.
    """
    if isinstance(given, int | float) and not isinstance(given, bool):
        return _finite(given, field, LENGTH_WAYS)
    if not isinstance(given, str):
        raise _fault(field, given, LENGTH_WAYS)
    text, sign = _clean(given, field, LENGTH_WAYS)
    total, at, last = Fraction(0), 0, ""
    for count in range(2):
        if not (term := _TERM.match(text, at)):
            raise _fault(field, given, LENGTH_WAYS)
        unit = (term["unit"] or "").lower().replace("''", '"')
        if count and not (last in _FEET and unit in _INCHES | {""}):
            raise _fault(field, given, LENGTH_WAYS)
        if not unit:
            unit = "in" if count or bare == "inch" else "mm"
        if unit not in _UNIT_MM:
            raise _fault(field, given, LENGTH_WAYS)
        total += _number(term["number"], field, given, LENGTH_WAYS) * _UNIT_MM[unit]
        at, last = term.end(), unit
        if at == len(text):
            return _finite(sign * float(total), field, LENGTH_WAYS)
    raise _fault(field, given, LENGTH_WAYS)


def read_angle(given: object, field: str = "") -> float:
    """Degrees from what a maker wrote: decimal, fraction, or degrees and minutes.

    Raises BadInput naming `field` for anything that is not a finite angle.
    """
    if isinstance(given, int | float) and not isinstance(given, bool):
        return _finite(given, field, ANGLE_WAYS)
    if not isinstance(given, str):
        raise _fault(field, given, ANGLE_WAYS)
    text, sign = _clean(given, field, ANGLE_WAYS)
    if not (whole := _ANGLE.fullmatch(text)):
        raise _fault(field, given, ANGLE_WAYS)
    degrees = _number(whole["number"], field, given, ANGLE_WAYS)
    degrees += Fraction(whole["minutes"] or 0) / 60
    return _finite(sign * float(degrees), field, ANGLE_WAYS)


def read_number(given: str, field: str, most: float) -> float:
    """A plain number from 0 to `most`, as it was typed; BadInput names the field."""
    allowed = f"a number from 0 to {most:g}"
    text, sign = _clean(given, field, allowed)
    try:
        value = sign * float(_number(text.removesuffix("%").strip(), field, given, allowed))
    except ValueError:
        raise _fault(field, given, allowed) from None
    if not 0.0 <= value <= most:
        raise _fault(field, given, allowed)
    return value


def _clean(given: str, field: str, ways: str) -> tuple[str, int]:
    """The text with plain quotes, slashes and fractions, and its sign taken off."""
    if len(given) > _LONGEST:
        raise _fault(field, given, ways)
    # "16½" must become "16 1/2", not "161/2": set a space before a composed fraction.
    spaced = "".join(
        f" {unicodedata.normalize('NFKC', c)}" if unicodedata.category(c) == "No" else c for c in given
    )
    text = spaced.translate(_QUOTES).strip()
    if not text.isascii() and "°" not in text:
        raise _fault(field, given, ways)
    if text.startswith("-"):
        return text[1:].strip(), -1
    return text, 1


def _number(text: str, field: str, given: object, ways: str) -> Fraction:
    if re.fullmatch(r"\d{1,3},\d{3}", text):
        do = "A comma before three digits can be read two ways: leave it out, or write a point."
        raise _fault(field, given, ways, do)
    try:
        if "/" not in text:
            return Fraction(text.replace(",", ".").rstrip(".") or "0")
        whole, _, rest = text.rpartition("/")
        parts = re.split(r"[\s-]+", whole.strip())
        top = Fraction(parts[-1]) / Fraction(rest.strip())
        return top + (Fraction(parts[0]) if len(parts) == 2 else 0)
    except ZeroDivisionError:
        raise _fault(field, given, ways, "Nothing can be divided by 0: type the fraction again.") from None


def _finite(value: float, field: str, ways: str) -> float:
    try:
        number = float(value)
    except OverflowError:
        number = math.inf
    if not math.isfinite(number):
        raise _fault(field, value, ways)
    return number


def _fault(field: str, got: object, allowed: str, do: str = "") -> BadInput:
    return BadInput(Fault(field, shorten(got), allowed, do or "Type it again in one of these ways."))
