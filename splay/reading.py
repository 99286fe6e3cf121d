"""Readings: the answers to proofs, and what they change."""

from __future__ import annotations

import re
from dataclasses import dataclass

from splay.errors import BadInput, Fault, shorten
from splay.parts.member import Built
from splay.quantity import Bare, read_angle, read_length
from splay.setups.scales import off_square, proving_scale, stick_scale
from splay.shop import Shop

MOST_LEAN_DEG = 75.0
MOST_LENGTH_MM = 6000.0
LENGTHS = frozenset(
    {
        "foot",
        "mark",
        "long",
        "gap",
        "tenon",
        "octagon",
        "taper",
        "notch",
        "slot",
        "depth",
        "rail",
        "kerf",
        "shoulder",
        "shoulders",
        "pilot",
    }
)
"""Proofs answered with a length: a leg, two marks, a stick, a gap, what was shaped."""
LEVEL_KINDS = frozenset({"bench", "along", "sight", "shim", "stands", "top", "under"})
"""What levelling asks for: heights, lengths along a leg, packings, shims and gaps."""
ANGLES = frozenset({"bore", "cut", "read", "rip", "topcut"})
"""Proofs answered on the proving scale: a hole, a sawn end, two sticks, a bevel."""


@dataclass(frozen=True)
class Reading:
    """What was read for one proof: degrees on the proving scale, or mm; `sure` where the maker read it
    again and it stayed, however much it looks like a slip."""

    proof: str
    value: float
    sure: bool = False


def read_reading(proof: str, given: object, shop: Shop, bare: Bare, field: str = "") -> Reading:
    """A reading from what was typed; BadInput where it cannot be one.

    The proof's own name says whether an angle or a length is asked for.
    """
    kind = proof.partition(".")[0]
    if kind == "level":
        return Reading(proof, _level_reading(proof, given, bare, field))
    if kind in LENGTHS:
        length = read_length(given, bare, field)
        if not 0 < length <= MOST_LENGTH_MM:
            raise BadInput(Fault(field, shorten(given), "a length above 0", "Measure it again."))
        return Reading(proof, length)
    if kind not in ANGLES:
        raise _unknown(proof, field)
    shown = read_angle(given, field)
    name, scale = stick_scale(shop) if kind == "read" else proving_scale(shop)
    lean = off_square(scale, shown)
    # Of two sticks the obtuse side may be read by mistake: that is told apart later, with its reason.
    least = -90 if kind == "read" else 0
    if not least <= lean <= (MOST_LEAN_DEG if kind == "bore" else 90):
        do = f"{name} shows {scale.at_square:g} at square and counts {scale.counts} from there."
        raise BadInput(Fault(field, shorten(given), "a lean outward on that scale", do))
    return Reading(proof, shown)


def with_unit(proof: str, typed: str, bare: Bare) -> str:
    """What was typed for a length, with the unit it meant: so it means the same whatever is shown."""
    if proof.partition(".")[0] in ANGLES or not _BARE.fullmatch(typed):
        return typed
    return f"{typed.strip()} {'in' if bare == 'inch' else 'mm'}"


_BARE = re.compile(r"[-\s\d./,⁄½¼¾⅛⅜⅝⅞−]+")
MOST_PACKING_MM = 200.0


def _level_reading(proof: str, given: object, bare: Bare, field: str) -> float:
    """A height, a gap, a shim: none below 0 but the packing of a sighted stick, which goes both ways."""
    parts = proof.split(".")
    if len(parts) < 4 or parts[2] not in LEVEL_KINDS:
        raise _unknown(proof, field)
    length = read_length(given, bare, field)
    if parts[2] == "sight":
        if abs(length) > MOST_PACKING_MM:
            allowed = "a packing of less than 200 mm either way"
            raise BadInput(Fault(field, shorten(given), allowed, "Measure it again."))
        return length
    if length < 0 or length > MOST_LENGTH_MM:
        thing = {"under": "gap", "shim": "shim"}.get(parts[2], "height")
        do = "A foot that bears has 0." if thing != "height" else "Measure it again."
        raise BadInput(Fault(field, shorten(given), f"a {thing} of 0 or more", do))
    if length == 0 and parts[2] not in {"under", "shim"}:
        raise BadInput(Fault(field, shorten(given), "a height above 0", "Measure it again."))
    return length


def answers(readings: tuple[Reading, ...]) -> dict[str, float]:
    """Readings by proof, the last one counting."""
    return {r.proof: r.value for r in readings}


def bored(known: dict[str, float], shop: Shop, legs: int) -> dict[int, float]:
    """Leg number to bored resultant in degrees, from the readings of its hole.

    Readings of legs that are no longer there, or written by another hand, rest.
    """
    scale = proving_scale(shop)[1]
    return {
        number: off_square(scale, known[f"bore.{number}"])
        for number in range(1, legs + 1)
        if f"bore.{number}" in known
    }


def built(known: dict[str, float], shop: Shop) -> Built:
    """What was found of the stretchers, dry-fitted: gaps, sockets' obtuse walls, acute angles."""
    scale = stick_scale(shop)[1]
    gaps, walls, acutes = {}, {}, {}
    for id, value in known.items():
        kind, _, rest = id.partition(".")
        if kind == "gap" and rest.isdigit():
            gaps[int(rest)] = value
        elif kind in ("depth", "read") and rest.count(".") == 1:
            number, end = rest.split(".")
            if number.isdigit() and end in ("1", "2"):
                at = (int(number), int(end) - 1)
                if kind == "depth":
                    walls[at] = value
                else:
                    acutes[at] = 90.0 - off_square(scale, value)
    return Built(gaps, walls, acutes)


def _unknown(proof: str, field: str) -> BadInput:
    do = "Answer one of the proofs on the piece's cards."
    return BadInput(Fault(field, shorten(proof), "a proof such as bore.1 or foot.1", do))
