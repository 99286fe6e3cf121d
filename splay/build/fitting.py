"""The steps between cutting and gluing: tenons to their holes, the piece put together dry."""

from __future__ import annotations

from collections.abc import Iterator

from splay.build.levels import between, levels
from splay.build.plainly import told
from splay.build.step import Step, Unit
from splay.piece import Battened, Piece, Reamed, StakedLegs
from splay.plan import Plan
from splay.quantity import Show
from splay.work.phrases import SHOWN_MM, listed

TRIED_MM = {False: 5.0, True: 6.35}
"""How far short a first try is told for, by whether the maker reads inches: a round figure of either."""
DRY_READ = frozenset({"read", "gap"})
"""What is read while the piece stands dry, though a later card leans on it."""


def fitted(piece: Piece, plan: Plan, show: Show) -> Iterator[Step]:
    """Fitting, battens and dry fits, as far as the piece has them."""
    for index, support in piece.staked():
        mine = [part for part in plan.parts if part.support == index]
        if not mine:
            continue
        key = f"fit.{support.id}"
        units = tuple(Unit(key, "fit", part.id, f"leg {part.number}") for part in mine)
        named = listed(f"leg {part.number}" for part in mine)
        if support.joint.tenon != "none":
            yield told(
                "fit",
                f"Fit each tenon to its own hole: {named}",
                "legs",
                key=key,
                units=units,
                do=_fits(support, show),
            )
        if isinstance(support.joint, Battened):
            do: tuple[str, ...] = (
                "Battens on their marks, FRONT to FRONT; a pilot for each screw, then the screws by hand.",
                _round_ones(piece),
            )
            yield told("battens", "Screw the battens on", "boring", key=f"battens.{support.id}", do=do)
    if plan.parts:
        yield from _dry(plan)


def _dry(plan: Plan) -> Iterator[Step]:
    """Dry together once with the legs alone, and once more for stretchers that others carry."""
    level = levels(plan)
    for at in range(max(level.values(), default=0) + 1):
        serves = tuple(id for id, mine in level.items() if mine == at)
        read = tuple(p.id for p in plan.proofs if p.kind in DRY_READ and p.of[0] in serves)
        below = [one.name for one in between(plan) if level[one.id] < at]
        named = listed(below) if below else ""
        do: tuple[str, ...] = (
            "Each leg into the hole that bears its number, turned as its marks say, home but not driven.",
            *((f"With {named} in place, each end in the leg whose number it bears.",) if named else ()),
            "Stand it on a flat surface and look: legs that should match, matching?",
            *(("Read what is asked here: stretchers are cut to that.",) if read else ()),
        )
        title = f"Put it together dry with {named}" if named else "Put it together dry"
        key = f"dry_fit.{at}" if at else "dry_fit"
        yield told("dry_fit", title, "stretchers", key=key, proofs=read, do=do, serves=serves)


def _round_ones(piece: Piece) -> str:
    """Which of a batten's screws hold, and which let the seat move."""
    gap = piece.top.gap
    if gap is None:
        return (
            "The hole nearest the middle is round and holds; the others are slots, so that the seat can "
            "move."
        )
    line = {"middle": "middle", "outer": "outer edge", "inner": "edge at the gap"}[gap.stays]
    return (
        f"Of the holes under each board the one nearest to its {line} is round and holds; the others are "
        "slots, so that each board moves by itself. Strips as thick as the gap stay between them meanwhile."
    )


def _home(joint: Reamed, show: Show) -> str:
    """How a tapered tenon's end stands in the upper face once it is home."""
    if joint.proud > SHOWN_MM:
        return f"stands {show.length(joint.proud).text} out of the upper face, along the leg"
    return "is level with the upper face in its middle"


def _first_try(joint: Reamed, show: Show) -> str:
    """What a tapered tenon that does not go home yet wants: it sinks 1 / (2 tan (included/2)) for each
    millimetre of diameter."""
    short = show.length(TRIED_MM[show.inch])
    over = short.value * joint.thins
    turns = over / joint.per_turn
    return (
        f"A first try that stops {short.text} short of that is {show.fine(over).text} too thick all along, "
        f"or wants {turns:.1f} turns of the reamer more; half as short, half as much."
    )


def _fits(support: StakedLegs, show: Show) -> tuple[str, ...]:
    """How a tenon is brought to its hole, by the joint."""
    if isinstance(support.joint, Reamed):
        return (
            "In dry, turned once, out: the rub marks show where it bears. Take a shaving off there.",
            f"Right when it bears all along and its end {_home(support.joint, show)}; it is driven only "
            "when glued.",
            _first_try(support.joint, show),
        )
    if support.joint.tenon == "flat":
        return (
            "Start with the tenon a millimetre over; take half of what is left each time, from where it "
            "shines.",
            "Right when the shoulder closes all round by hand.",
        )
    return (
        "Start with the tenon about half a millimetre over; halve what is left to take off each time.",
        "In dry, turned once, out: it shines where it binds. Take off there and nowhere else.",
        "Right when it goes home by hand with a push and does not fall out: never hammered, a parallel "
        "tenon splits the seat.",
    )
