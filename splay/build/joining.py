"""The steps of the glue-up, as it was worked out which joints go together when."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace

from splay.build.document import Build
from splay.build.glues import GLUES, clamping
from splay.build.levels import stage_key
from splay.build.plainly import told, without_wait
from splay.build.step import Step, Unit, Wait
from splay.piece import Piece
from splay.plan import Plan
from splay.stance.outside import driven
from splay.stance.wedges import wedge_made
from splay.work.marks import leg_key
from splay.work.phrases import listed


def _at_wedges(dry: list[int], fox: list[int]) -> Iterator[str]:
    """What wedges ask of the legs' own glue-up."""
    if dry:
        named = listed(f"leg {number}" for number in dry)
        yield f"No glue on {named}: wedged dry, they can come out again."
    if fox:
        named = listed(f"leg {number}" for number in fox)
        yield (
            f"Wedges of {named} in their slots, thin edge in, as far as they go by hand: driving the leg "
            "drives them, and nothing comes out again."
        )


def joined(piece: Piece, plan: Plan, build: Build) -> Iterator[Step]:
    """From sanding to the last wedge: a step for each stage of the assembly."""
    yield told(
        "ease",
        "Sand and ease all parts",
        do=("Every edge a hand meets is eased; tenons, shoulders and the faces of joints are left alone.",),
    )
    order = plan.assembly
    if order is None:
        return
    if build.prefinish:
        do: tuple[str, ...] = ("Tenons, sockets and whatever is sawn off later stay bare: mask them.",)
        yield told("prefinish", "Finish what will be out of reach", do=do)
    glue = GLUES[build.glue]
    do = (
        "Everything in its place: clamps open to their width, blocks, hammer, straight sticks.",
        "Together dry from the first stage to the last, by the clock, and apart again.",
    )
    yield told("dry_run", "Rehearse the glue-up dry", "stretchers", do=do)
    rests = Wait(clamping(glue, build.air_c), glue.waits[1], "the glue to set") if glue.waits else None
    by_wedge = {leg.number for leg in plan.stance.legs if (w := wedge_made(piece, leg)) and not w.fox}
    wedged = [part for part in plan.parts if part.number in by_wedge]
    dry = [leg.number for leg in plan.stance.legs if (w := wedge_made(piece, leg)) and w.wedge.dry]
    fox = [leg.number for leg in plan.stance.legs if (w := wedge_made(piece, leg)) and w.fox]
    seat = {leg_key(number) for number in (*dry, *fox)}
    for number, stage in enumerate(order.stages, 1):
        last = number == len(order.stages)
        soon = last and bool(wedged)
        step = told(
            "glue",
            f"{'Glue' if stage.joints and build.glue != 'none' else 'Put together'}: {stage.title}",
            "stretchers",
            key=stage_key(number),
            do=(
                *((f"{glue.name}: {glue.told}",) if stage.joints and glue.told else ()),
                *(_at_wedges(dry, fox) if seat & set(stage.parts) else ()),
                *stage.steps,
            ),
            wait=None if soon else rests,
        )
        if soon or not stage.joints or not glue.waits:
            step = without_wait(step)
        if not stage.joints or build.glue == "none":
            # Nothing is glued: the seat moves on what stands under it.
            step = replace(step, lay_out=("something soft under the seat",) if not stage.joints else ())
        yield step
    if wedged:
        units = tuple(Unit("wedge", "wedge", part.id, f"leg {part.number}") for part in wedged)
        many = len(wedged) > 3
        do = (
            "When the legs are home, without glue."
            if dry
            else "Straight after the legs are home, before the glue sets.",
            *(
                ("Prop the seat straight under the leg you wedge: the others then carry nothing.",)
                if many
                else ()
            ),
            "Wedge into its slot, in line with the tenon; blows by turns from leg to leg.",
            "Stop at the dead sound: one blow more splits the seat or the wedge.",
        )
        step = told("wedge", "Drive the wedges", "legs", units=units, do=do, wait=rests)
        yield step if rests else without_wait(step)
    for key in dict.fromkeys(one.leg for one in driven(piece)):
        mine = [one for one in driven(piece) if one.leg == key]
        stick = next(one for one in plan.sticks if one.key == key)
        yield told(
            "outside_in",
            f"Drive the dowels of the {stick.name} from outside",
            "legs",
            key=f"outside_in.{key}",
            units=(Unit(f"outside_in.{key}", "outside_in", key, stick.name),),
            do=(
                f"{len(mine)} of them, glue in the hole and on the dowel; blows until the sound changes.",
                "Sawn flush when the glue has set, with a card under the saw; then pared from the rim in.",
            ),
        )
    for support in dict.fromkeys(one.meets.body.support for one in plan.made.through_dowels):
        into = [one for one in plan.made.through_dowels if one.meets.body.support == support]
        keys = dict.fromkeys(one.meets.body.key for one in into)
        names = {stick.key: stick.name for stick in plan.sticks}
        yield told(
            "outside_in",
            "Drive the dowels of the joints from outside",
            "stretchers",
            key=f"outside_in.{piece.supports[support].id}",
            units=tuple(Unit(f"outside_in.{key}", "outside_in", key, names[key]) for key in keys),
            do=(
                f"{len(into)} of them, glue in the hole and on the dowel; blows until the sound changes.",
                "Sawn flush when the glue has set, with a card under the saw; then pared from the rim in.",
            ),
        )
    pegged = [c for c in plan.setups if c.operation == "peg"]
    if pegged:
        numbers = dict.fromkeys(n for card in pegged for n in card.legs)
        ids = {part.number: part.id for part in plan.parts}
        units = tuple(Unit("peg_in", "peg_in", ids[n], f"leg {n}") for n in numbers)
        do = (
            "Chips out of the hole; a stick in it tells how deep it is.",
            "Peg in with glue on the peg, grain across the seat's; stop when the sound changes.",
        )
        yield told(
            "peg_in", f"Drive the pegs of {listed(u.name for u in units)}", "legs", units=units, do=do
        )
