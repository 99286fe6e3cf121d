"""The steps between cutting and gluing: tenons to their holes, the piece put together dry."""

from __future__ import annotations

from collections.abc import Iterator

from splay.build.levels import between, levels
from splay.build.plainly import told
from splay.build.step import Step, Unit
from splay.parts.leg import LegPart
from splay.piece import Battened, DowelScrew, Piece, Reamed, StakedLegs
from splay.plan import Plan
from splay.quantity import Show
from splay.stance.staked import LegStance
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
        if mine[0].eight is not None and support.leg.section == "round":
            yield _rounded(support, mine, show)
        if support.joint.tenon != "none":
            yield told(
                "fit",
                f"Fit each tenon to its own hole: {named}",
                "legs",
                key=key,
                units=units,
                do=_fits(support, plan.stance.legs[mine[0].number - 1], show),
            )
        if isinstance(support.joint, DowelScrew):
            yield told(
                "turn_home",
                f"Screw in and turn home dry: {named}",
                "legs",
                key=f"turn_home.{support.id}",
                units=tuple(
                    Unit(f"turn_home.{support.id}", "turn_home", part.id, f"leg {part.number}")
                    for part in mine
                ),
                do=_turned_home(support.joint, show),
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


def _rounded(support: StakedLegs, mine: list[LegPart], show: Show) -> Step:
    """Shaved legs from eight sides to round."""
    leg, key = support.leg, f"round.{support.id}"
    sizes = [("where it leaves the seat", leg.at_top), ("at the finished foot", leg.at_foot)]
    if leg.belly is not None:
        sizes.insert(1, ("at its belly" if leg.belly.size > leg.at_top else "at its waist", leg.belly.size))
    alike = max(size for _, size in sizes) - min(size for _, size in sizes) < SHOWN_MM
    told_sizes = show.length(leg.at_top).text + " all along"
    if not alike:
        told_sizes = listed(f"{show.length(size).text} {where}" for where, size in sizes)
    return told(
        "round",
        f"Round {listed(f'leg {part.number}' for part in mine)}",
        "legs",
        key=key,
        units=tuple(Unit(key, "round", part.id, f"leg {part.number}") for part in mine),
        do=(
            "The eight ridges off, all alike, until there are sixteen narrow sides; then those; then round "
            "with long strokes, the leg turned a little after each.",
            f"Calipers: {told_sizes}; across, then square to that. The tenon is left alone.",
        ),
    )


def _turned_home(joint: DowelScrew, show: Show) -> tuple[str, ...]:
    """A double-ended screw into its leg first, then the leg home in its recess."""
    return (
        "Wax on the thread. The screw into the leg first, by two nuts locked against each other on its "
        "free end, or by pliers over a strip of leather: straight in, until "
        f"{show.length(joint.into_top).text} stand out of the leg's end. Nuts off.",
        "The leg over a hole, turned by hand, the last turns by a strap; which hole is its own is marked "
        "with its number next.",
        "Right when its end closes on the bottom of the recess all round and it stops by itself. A gap on "
        "one side: the pilots are not in line. Held off all round: one of them is too shallow.",
        "Where it stops it stops every time: a tick on the leg over its sightline's arrow (over the plain "
        "end where it leans inward), before it is turned out.",
    )


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


def _home(leg: LegStance, show: Show) -> str:
    """How a tapered tenon's end stands in the upper face once it is home."""
    out = leg.bore.tenon - leg.bore.deep
    return f"stands {show.length(out).text} out of the upper face, along the leg's middle"


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


def _fits(support: StakedLegs, leg: LegStance, show: Show) -> tuple[str, ...]:
    """How a tenon is brought to its hole, by the joint."""
    if isinstance(support.joint, Reamed):
        return (
            "In dry, turned once, out: the rub marks show where it bears. Take a shaving off there.",
            f"Right when it bears all along and its end {_home(leg, show)}; it is driven only when glued.",
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
