"""Readings: the answers to proofs, and what they change."""

from __future__ import annotations

from dataclasses import dataclass

from splay.errors import BadInput, Fault, shorten
from splay.quantity import Bare, read_angle, read_length
from splay.setups.proofs import off_square, proving_scale
from splay.shop import Shop
from splay.stance.staked import Stance

MOST_LEAN_DEG = 75.0


@dataclass(frozen=True)
class Reading:
    """What was read for one proof: degrees on the proving scale, or mm along the leg."""

    proof: str
    value: float


def read_reading(proof: str, given: object, shop: Shop, bare: Bare, field: str = "") -> Reading:
    """A reading from what was typed; BadInput where it cannot be one.

    The proof's own name says whether an angle or a length is asked for.
    """
    kind = proof.partition(".")[0]
    if kind == "foot":
        length = read_length(given, bare, field)
        if not 0 < length <= 4000:
            raise BadInput(Fault(field, shorten(given), "a length above 0", "Measure along the leg again."))
        return Reading(proof, length)
    if kind != "bore":
        raise _unknown(proof, field)
    shown = read_angle(given, field)
    lean = off_square(proving_scale(shop)[1], shown)
    if not 0 <= lean <= MOST_LEAN_DEG:
        name, scale = proving_scale(shop)
        do = f"{name} shows {scale.at_square:g} at square and counts {scale.counts} from there."
        raise BadInput(Fault(field, shorten(given), "a lean outward on that scale", do))
    return Reading(proof, shown)


def answers(readings: tuple[Reading, ...], stance: Stance) -> dict[str, float]:
    """Readings by proof, the last one counting; those of legs that are no longer there rest."""
    legs = {str(leg.number) for leg in stance.legs}
    return {r.proof: r.value for r in readings if r.proof.partition(".")[2] in legs}


def bored(known: dict[str, float], shop: Shop) -> dict[int, float]:
    """Leg number to bored resultant in degrees, from the readings of its hole."""
    scale = proving_scale(shop)[1]
    return {
        int(proof.partition(".")[2]): off_square(scale, value)
        for proof, value in known.items()
        if proof.startswith("bore.")
    }


def _unknown(proof: str, field: str) -> BadInput:
    do = "Answer one of the proofs on the piece's cards."
    return BadInput(Fault(field, shorten(proof), "a proof such as bore.1 or foot.1", do))
