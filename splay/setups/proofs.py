"""Proofs: what to measure after the cut, what it should be, how near is near enough."""

from __future__ import annotations

import math

from splay.parts import LegPart
from splay.quantity import Figure, Quantity, Show
from splay.quantity import degrees as deg
from splay.setups.card import Proof
from splay.shop import BevelGauge, DigitalGauge, Scale, Shop, reading
from splay.stance.staked import LegStance, Stance

NEAR_DEG = 0.5
"""A bored hole within half a degree counts as true (common practice, no source)."""
NEAR_MM = 1.0
"""A leg within a millimetre counts as true, since levelling comes after (common practice, no source)."""
ROD_MM = 200.0
_TRUE = Scale(at_square=0, counts="up", reach=90, step=0.1)


def proving_scale(shop: Shop) -> tuple[str, Scale]:
    """What bored holes are proved with: a digital gauge, else a bevel gauge, else a protractor."""
    for kind in (DigitalGauge, BevelGauge):
        for tool in shop.tools:
            if isinstance(tool, kind) and tool.owned:
                return tool.name, tool.scale
    return "protractor, 0 at square", _TRUE


def off_square(scale: Scale, shown: float) -> float:
    """The lean off square for what a scale shows: the reverse of `reading`."""
    return (shown - scale.at_square) * (1.0 if scale.counts == "up" else -1.0)


def all_proofs(
    planned: Stance,
    real: Stance,
    parts: tuple[LegPart, ...],
    shop: Shop,
    show: Show,
    answers: dict[str, float],
) -> tuple[Proof, ...]:
    """Every proof the piece asks for, in the order of work; holes against the stance as planned."""
    return (
        *(
            bore_proof(leg, leg.boring.resultant, shop, show, answers.get(f"bore.{leg.number}"))
            for leg in planned.legs
        ),
        *(
            foot_proof(leg, part.finished, show, answers.get(f"foot.{leg.number}"))
            for leg, part in zip(real.legs, parts, strict=True)
        ),
    )


def bore_proof(leg: LegStance, planned_deg: float, shop: Shop, show: Show, answer: float | None) -> Proof:
    """One bored hole: the lean of a rod standing in it, read along the sightline.

    `planned_deg` is the lean the hole was meant to have; `answer` is a reading on that scale.
    """
    name, scale = proving_scale(shop)
    travel = leg.exposed * math.radians(NEAR_DEG) / deg.cos(planned_deg)
    expected, near = show.angle(reading(scale, planned_deg)), show.angle(NEAR_DEG)
    given = None if answer is None else show.angle(answer)
    off = None if given is None else show.angle(given.value - expected.value)
    return Proof(
        id=f"bore.{leg.number}",
        leg=leg.number,
        what=f"Lean of a straight rod in hole {leg.number}",
        how=(
            "Stand a straight rod in the hole and hold the gauge on its sightline, against the "
            "rod and the face you bored from; square to that line nothing should show."
        ),
        read_on=name,
        expected=expected,
        near=near,
        matters=f"half a degree moves this foot by {show.length(travel).text}",
        answer=given,
        off=off,
        verdict=_verdict(off, near),
    )


def foot_proof(leg: LegStance, finished: Figure, show: Show, answer: float | None) -> Proof:
    """One leg: its finished length along the middle."""
    near = show.length(NEAR_MM)
    given = None if answer is None else show.length(answer)
    off = None if given is None else show.length(given.value - finished.quantity.value)
    return Proof(
        id=f"foot.{leg.number}",
        leg=leg.number,
        what=f"Length of leg {leg.number}, along its middle",
        how="Measure the long side and the short side of the leg, add them and halve.",
        read_on="rule",
        expected=finished.quantity,
        near=near,
        matters="what is over comes off at levelling; what is short lowers the whole piece",
        answer=given,
        off=off,
        verdict=_verdict(off, near),
    )


def _verdict(off: Quantity | None, near: Quantity) -> str:
    if off is None:
        return ""
    return "fine" if abs(off.value) <= near.value + 1e-9 else "off"


def rod_checks(leg: LegStance, planned_deg: float, show: Show) -> tuple[Figure, ...]:
    """The same lean without a gauge: where the tip of a rod of known length stands."""
    rod = show.input("R", "rod standing out of the hole, along its middle", ROD_MM)
    lean = show.input("ρ", "lean", planned_deg, "deg")
    key = f"bore.{leg.number}.rod"
    out = f"Tip of a rod {show.length(ROD_MM).text} out: "
    return (
        show.figure(
            f"{key}.up",
            out + "above the face",
            ROD_MM * deg.cos(planned_deg),
            "R · cos ρ",
            rod,
            lean,
        ),
        show.figure(
            f"{key}.over",
            out + "along the sightline",
            ROD_MM * deg.sin(planned_deg),
            "R · sin ρ",
            rod,
            lean,
        ),
    )
