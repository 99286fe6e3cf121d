"""The glue-up: which stages go together within the open time, what is at hand, what is looked at."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import dataclass

from splay.build.document import Build
from splay.build.glues import GLUES, clamping, opening
from splay.build.levels import stage_key
from splay.parts.leg import has_ring
from splay.parts.stages import Stage
from splay.piece import Piece
from splay.plan import Plan
from splay.quantity import Quantity, Show
from splay.stance.lines import leans_outward
from splay.stance.members import behind
from splay.stance.staked import support_of
from splay.stance.wedges import wedge_made
from splay.work.marks import leg_key, member_key
from splay.work.phrases import cap, listed

JOINT_MIN = 0.9
"""Minutes to spread and close one joint (common practice, no source)."""
CLAMPS_MIN = 1.5
"""Minutes to set the clamps of a stage and look it over (common practice, no source)."""
SQUARE_DEG = 0.5
"""Blocks nearer to square than this are no angled blocks."""


@dataclass(frozen=True)
class Block:
    """A clamping block whose face is sloped, so that the clamp pulls along the stretcher."""

    where: str
    slope: Quantity


@dataclass(frozen=True)
class GlueStage:
    """One stage: the `step` it is in the order of work, the joints by name, how (in words), what to have at
    hand, the blocks, minutes it takes; `watch` what says that a leg is home."""

    step: str
    title: str
    joints: tuple[str, ...]
    steps: tuple[str, ...]
    at_hand: tuple[str, ...]
    blocks: tuple[Block, ...]
    minutes: float
    counts: float
    """Minutes for which its glue must stay open: all of them, or one joint's where each is closed before
    the next is begun."""
    watch: tuple[str, ...] = ()


@dataclass(frozen=True)
class Sitting:
    """Stages that are glued in one go, one after the other: minutes they take, whether the open time holds
    that, and what is left of it."""

    stages: tuple[GlueStage, ...]
    joints: int
    minutes: float
    fits: bool
    left: float


@dataclass(frozen=True)
class GlueUp:
    """The glue-up of a piece today. `pace` is minutes a joint, from `paced_by` own glue-ups (0: the
    usual); `open_min` and `clamp_h` hold in today's air; `cautions` what is against it today."""

    glue: str
    told: str
    open_min: float
    clamp_h: float
    heat_opens: bool
    pace: float
    paced_by: int
    sittings: tuple[Sitting, ...]
    cautions: tuple[str, ...]
    saved: str
    clean: str
    spread: tuple[Quantity, ...]


@dataclass(frozen=True)
class Pace:
    """The maker's own minutes a joint, from so many glue-ups."""

    minutes: float = JOINT_MIN
    count: int = 0


def glue_up(piece: Piece, plan: Plan, build: Build, show: Show, pace: Pace | None = None) -> GlueUp | None:
    """The glue-up of a piece in the air its build names; None where nothing is joined.

    Stages that follow each other go in one sitting as long as the open time holds all their joints; so few
    sittings cannot be bettered, since the stages' order is fixed. A stage that takes longer by itself is
    said. The wedges of the last stage count with it.
    """
    order = plan.assembly
    if order is None:
        return None
    paced = pace or Pace()
    glue = GLUES[build.glue]
    opens = opening(glue, build.open_min, build.air_c, build.air_rh)
    stages = [
        _stage(stage_key(k), stage, piece, plan, show, paced.minutes)
        for k, stage in enumerate(order.stages, 1)
    ]
    sittings = tuple(_sat(those, opens, glue.open_min > 0.0) for those in _grouped(stages, opens))
    cautions = list(_against(build, sittings, opens))
    return GlueUp(
        glue=glue.name,
        told=cap(glue.told) if glue.told else "",
        open_min=opens,
        clamp_h=clamping(glue, build.air_c),
        heat_opens=glue.heat_opens,
        pace=paced.minutes,
        paced_by=paced.count,
        sittings=sittings,
        cautions=tuple(cautions),
        saved=glue.saved,
        clean=glue.clean,
        spread=tuple(figure.quantity for figure in order.spread),
    )


def _grouped(stages: Iterable[GlueStage], opens: float) -> list[list[GlueStage]]:
    """Consecutive stages, as many together as the open time holds."""
    made: list[list[GlueStage]] = []
    for stage in stages:
        if made and sum(one.counts for one in made[-1]) + stage.counts <= opens:
            made[-1].append(stage)
        else:
            made.append([stage])
    return made


def _sat(stages: list[GlueStage], opens: float, glued: bool) -> Sitting:
    minutes = sum(stage.minutes for stage in stages)
    joints = sum(len(stage.joints) for stage in stages)
    counts = sum(stage.counts for stage in stages)
    fits = not glued or joints == 0 or counts <= opens
    return Sitting(tuple(stages), joints, minutes, fits, opens - counts)


def _stage(step: str, stage: Stage, piece: Piece, plan: Plan, show: Show, pace: float) -> GlueStage:
    joints = _joints(stage, plan)
    wedged = [
        leg
        for leg in plan.stance.legs
        if leg_key(leg.number) in stage.parts and (w := wedge_made(piece, leg)) and not w.fox
    ]
    seat = all(key in {leg_key(part.number) for part in plan.parts} for key in stage.parts)
    wedges = len(wedged) if seat else 0
    hand = ["glue and a brush", "a damp rag", "mallet and a block to strike on"] if joints else []
    if seat and wedges:
        hand += [f"{wedges} wedges and one over", "hammer", "blocks to prop the seat under each leg"]
    elif joints:
        hand += [f"{max(2, len(joints) // 2)} clamps open to their width", "two straight sticks for twist"]
        hand += ["a tape for the diagonals"] if len(joints) >= 2 else []
    minutes = len(joints) * pace + (CLAMPS_MIN if joints else 0.0) + wedges * pace / 2.0
    return GlueStage(
        step,
        stage.title,
        joints,
        stage.steps,
        tuple(hand),
        tuple(_blocks(stage, plan, show)),
        minutes,
        minutes / max(1, len(joints)) if stage.apart else minutes,
        tuple(_watch(piece, stage, plan)) if seat else (),
    )


def _watch(piece: Piece, stage: Stage, plan: Plan) -> Iterator[str]:
    """From which side a depth ring is watched: the last of it is seen on the obtuse side of its leg, which
    lies towards the middle where the leg leans outward."""
    keys = set(stage.parts)
    legs = [
        leg for leg in plan.stance.legs if leg_key(leg.number) in keys and leg.boring.bearing is not None
    ]
    ringed = [leg for leg in legs if has_ring(support_of(piece, leg).joint)]
    for outward, side in ((True, "the seat's middle"), (False, "outside, for they lean inward")):
        mine = [leg.number for leg in ringed if leans_outward(leg) is outward]
        if mine:
            named = listed(f"leg {number}" for number in mine)
            yield f"Watch the depth rings of {named} from {side}: each is home when it touches there."
    slots = [
        made for leg in plan.stance.legs if leg_key(leg.number) in keys and (made := wedge_made(piece, leg))
    ]
    if any(made.wedge.lies == "across_grain" for made in slots):
        yield "Before the first blow on a wedge: every slot lies across the seat's grain."


def _joints(stage: Stage, plan: Plan) -> tuple[str, ...]:
    """Each joint of a stage by name, as many as the assembly counts."""
    members = [one for one in plan.members if member_key(one.number) in stage.parts]
    named = [f"{one.name} in {end.into}" for one in members for end in one.ends]
    if not members:
        named = [
            f"leg {part.number} in the seat" for part in plan.parts if leg_key(part.number) in stage.parts
        ]
    if len(named) != stage.joints:
        named = [f"joint {k}" for k in range(1, stage.joints + 1)]
    return tuple(named)


def _blocks(stage: Stage, plan: Plan, show: Show) -> Iterable[Block]:
    """Blocks for the clamps that pull stretchers into leaning legs. They bear on the far side of the leg,
    whose taper lies the other way round there than on the side with the socket."""
    for one in plan.members:
        if member_key(one.number) not in stage.parts:
            continue
        for end in one.ends:
            along = end.read.quantity.value
            opening = along if end.opening_on <= 90.0 else 180.0 - along
            slope = abs(90.0 - behind(opening, end.opening_on))
            if slope >= SQUARE_DEG:
                yield Block(f"behind {end.into}, {one.name}", show.angle(slope))


def _against(build: Build, sittings: tuple[Sitting, ...], opens: float) -> Iterable[str]:
    glue = GLUES[build.glue]
    if glue.open_min <= 0.0:
        return
    if build.air_c < glue.least_c:
        yield (
            f"{glue.name} wants {glue.least_c:g} °C or more, wood and shop: it is {build.air_c:g} °C. Warm "
            "the shop and the parts, or wait."
        )
    if build.air_c > glue.most_c:
        yield (
            f"{glue.name} is not meant for more than {glue.most_c:g} °C: it is {build.air_c:g} °C. Wait "
            "for the evening."
        )
    for sitting in sittings:
        if not sitting.fits:
            titles = ", ".join(stage.title for stage in sitting.stages)
            yield (
                f"{titles}: {sitting.joints} joints take about {sitting.minutes:.0f} min, and the glue "
                f"stays open {opens:.0f}. A second pair of hands, a slower glue or a cooler hour."
            )
