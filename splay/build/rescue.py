"""What went wrong at a step, and how it is usually saved.

The ways and their waits are common practice with no published source.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from splay.build.order import Order
from splay.build.rule import LEGS, ON_PARTS, STICKS
from splay.build.step import Step, Unit, Wait
from splay.piece import Piece, StakedLegs
from splay.plan import Plan
from splay.quantity import Show
from splay.quantity import degrees as deg
from splay.work.phrases import with_the

Asks = Literal["", "length", "leg"]


@dataclass(frozen=True)
class Rescue:
    """One way to save a step. `again`: the same is done once more, and its readings taken anew; `anew`: so
    is all that was done to that part before, on a new one; `scraps`: the part goes to the offcuts; `asks`
    what must be known for it; the wait holds whatever comes next."""

    name: str
    title: str
    do: tuple[str, ...]
    wait: Wait | None = None
    again: bool = False
    anew: bool = False
    scraps: bool = False
    asks: Asks = ""


_GLUED = Wait(1.0, 24.0, "the glue to set")
_PLUGGED = Wait(12.0, 24.0, "the plug's glue to harden")

_LEGS = LEGS | {"fit", "bore_member", "bore_rope", "wedge"}
_PARTS = STICKS | {"member_cut", "member_octagon", "floor_side"}
_SPLITS = (
    _LEGS
    | _PARTS
    | {"glue", "peg_in", "wedge", "dry_fit", "trim_flush", "ease_proud", "level", "ease_feet"}
)
_TURNED = frozenset({"bore", "fit", "dry_fit", "glue", "level", "wedge"})


def rescues(
    step: Step, unit: Unit, piece: Piece, plan: Plan, show: Show, spares_used: int = 0
) -> tuple[Rescue, ...]:
    """The ways to save `unit` of a step; the last is always to let it be and say so. `spares_used` counts
    the spare legs of its set that were used before."""
    found = (
        *_plugs(step, unit, plan, show),
        *_legs(step, unit, piece, plan, spares_used),
        *_coats(step),
    )
    if step.operation in _SPLITS:
        found += (
            Rescue(
                "glue",
                "Glue, clamp and wait",
                (
                    "It split along the grain: work glue in with a thin card, clamp until the line closes, "
                    "wipe.",
                    "Then go on where you were.",
                ),
                wait=_GLUED,
            ),
        )
    if step.operation in _PARTS | _LEGS and unit.of:
        found += (
            Rescue(
                "anew",
                "Make that part again from stock",
                (
                    "The one that went wrong goes to the offcuts. What was done to "
                    f"{with_the(unit.name)} is done again.",
                ),
                anew=True,
                scraps=True,
            ),
        )
    if step.operation in _TURNED and unit.of:
        found += (
            Rescue("wall", "Turn the odd one to the wall", ("Mark that side BACK: it is seen least.",)),
        )
    return (
        *found,
        Rescue("again", "Do it once more", ("Nothing is lost but the time.",), again=True),
        Rescue("as_is", "Leave it as it is", ("What is not cut yet follows what you read.",)),
    )


def _plugs(step: Step, unit: Unit, plan: Plan, show: Show) -> tuple[Rescue, ...]:
    if step.operation not in {"bore", "bore_member", "bore_rope"}:
        return ()
    sizes = ""
    leg = next((one for one in plan.stance.legs if one.id == unit.of), None)
    if step.operation == "bore" and leg is not None:
        long = show.length(leg.bore.deep + PLUG_OVER_MM).text
        sizes = f" {show.fine(leg.bore.size).text} thick, at least {long} long"
    do = (
        f"A plug{sizes or ' of the size of the hole'}: its grain the way of the wood round it, glued in, "
        "sawn flush when hard.",
        "Draw the marks again on the plug, from the lines that are left; bore again at the setting.",
        "Read the new hole: the old reading is put away.",
    )
    return (Rescue("plug", "Plug it and bore again", do, wait=_PLUGGED, again=True),)


PLUG_OVER_MM = 6.0
"""What a plug stands out before it is sawn flush (common practice, no source)."""


def _legs(step: Step, unit: Unit, piece: Piece, plan: Plan, used: int) -> tuple[Rescue, ...]:
    part = next((one for one in plan.parts if one.id == unit.of), None)
    if part is None or step.operation not in _LEGS:
        return ()
    support = piece.supports[part.support]
    assert isinstance(support, StakedLegs)
    mates = [one for one in plan.parts if one.support == part.support and one.id != part.id]
    found: tuple[Rescue, ...] = ()
    if support.leg.spare > used:
        do = (f"Write {part.number} on it. What was done to the others of its set is done to it.",)
        found += (Rescue("spare", "Use the spare", do, anew=True, scraps=True),)
    if step.operation in {"tenon", "shoulder", "foot_cut", "fit", "turn_home"}:
        do = (
            "How much it is short, along the leg: the whole piece is made so much lower, and every "
            "leg's foot follows.",
        )
        found += (Rescue("shorten", "Make all of them as short", do, asks="length"),)
    if mates and step.operation in {"fit", "foot_cut", "tenon"}:
        do = ("Cross out both numbers and write the other on each: their readings change places too.",)
        found += (Rescue("swap", "Change places with another leg", do, asks="leg"),)
    return found


def _coats(step: Step) -> tuple[Rescue, ...]:
    if step.operation not in {"finish", "prefinish"}:
        return ()
    do = (
        "When it is hard: rub back until it is even, dust off, another coat.",
        "Where it never hardened, take it off with what its tin names, and air the room.",
    )
    return (Rescue("rub", "Rub back and coat again", do, wait=Wait(8, 24, "the coat to dry"), again=True),)


def lowered(piece: Piece, plan: Plan, leg: str, short_mm: float) -> Piece:
    """The piece made lower, so that a leg that is `short_mm` short along its axis is long enough: by that
    times the cosine of its lean off plumb."""
    stance = next(one for one in plan.stance.legs if one.id == leg)
    drop = short_mm * deg.cos(stance.standing.resultant)
    return piece.model_copy(update={"height": piece.height - drop})


def done_to(unit: Unit, order: Order) -> tuple[Unit, ...]:
    """All that any step does to the part of a unit: what a new one must go through."""
    return tuple(
        one
        for step in (*order.steps, *order.skipped)
        for one in step.units
        if one.of and one.of == unit.of and one.operation in ON_PARTS
    )
