"""One pass of levelling told in figures and words."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace

import numpy as np

from splay.level.cut import CutPlane, highest, loss
from splay.level.feet import End, vec
from splay.level.lying import level_lift
from splay.level.now import State, falls
from splay.level.problems import HEIGHT_MM, Problem, of_reach
from splay.level.stacks import stack_for
from splay.level.standing import Rocking, Standing
from splay.level.ways import BY, Ask, open_ways
from splay.piece import LevelPass, Piece
from splay.quantity import Figure, Quantity, Show
from splay.shop import Shop
from splay.stance.floor import Floor
from splay.stance.staked import Stance
from splay.stance.vectors import angle, dot
from splay.work.phrases import listed, with_the

LEAVE_MM = 0.05
SAW_MM = 1.0
"""Less than this a saw cannot take off cleanly: sand it (common practice, no source)."""
ROCK_MM = 0.3
"""It no longer rocks to a hand when a card does not slip under the floating foot (common practice, no
source)."""
LEAN_DEG = 0.3
"""A top this near its lean looks and sits true (common practice, no source)."""
SURE = 2.0
"""Stated uncertainty in standard deviations: about 19 times in 20."""


@dataclass(frozen=True)
class LevelFoot:
    """One foot in one pass. `gap` is how far it floats as the piece stands; `sure` how far off the
    cut may still come out, 19 times in 20, None before it was measured; `how` is saw, sand or leave."""

    key: str
    name: str
    leg: int
    part: str
    bears: bool
    gap: Quantity
    loses: Figure
    long: Figure
    short: Figure
    after: Figure
    sure: Quantity | None
    how: str
    shim: Figure
    shim_of: str
    long_side: str
    short_side: str


@dataclass(frozen=True)
class LevelRound:
    """One pass, by its id. Angles in degrees, lengths in mm; `by` says in two words how it was measured,
    `ways` how it can be; `falls_right` and `falls_back` are how far the top falls more than it should that
    way as it stands; `short_by` what is missing to the wanted height; `good` says that it may stay as it
    is, `said` why or why not; `begins` how the feet ended before it, where they were proved; `choose_ends`
    whether there are legs for which that is to be said."""

    id: str
    number: int
    way: str
    by: str
    ways: tuple[str, ...]
    asked: int
    answered: int
    feet: tuple[LevelFoot, ...]
    bears: str
    rocks: Quantity | None
    falls_right: Quantity
    falls_back: Quantity
    height_now: Quantity
    height_after: Quantity
    wanted: Quantity
    highest: Figure
    short_by: Quantity | None
    tilt: Quantity
    block: Figure
    block_of: str
    bench: Figure | None
    spacer: Figure | None
    spacer_of: str
    good: bool
    said: str
    problems: tuple[Problem, ...]
    begins: str
    choose_ends: bool


def told(
    piece: Piece,
    stance: Stance,
    shop: Shop,
    show: Show,
    number: int,
    chosen: LevelPass,
    wanted: tuple[Ask, ...],
    read: dict[str, float],
    state: State,
    problems: list[Problem],
    begins: str,
    choose_ends: bool,
) -> LevelRound:
    """One pass in figures and words: how it stands, what each foot loses, whether it may stay."""
    floor, plane, ends = stance.floor, state.plane, state.ends
    seat = np.array((0.0, 0.0, piece.top.thickness))
    key = f"level.{chosen.id}"
    rests = state.stands.rests if state.stands else None
    normal = rests.normal if rests else np.array(floor.normal)
    right, back = falls(normal, floor)
    now = float(normal @ seat + rests.offset) if rests else piece.stands
    after = plane.height(seat)
    top = highest(ends, plane.normal)
    reach = float(plane.normal @ seat) + top
    lowest = min(float((end.ring @ plane.normal).min()) for end in ends)
    block = -lowest - plane.offset
    answered = sum(f"{ask.kind}.{ask.key}" in read for ask in wanted)
    rock = state.stands.rock if state.stands else 0.0
    short = piece.stands - after
    complete = answered == len(wanted)
    feet = tuple(_foot(key, end, k, plane, rests, lowest, shop, show) for k, end in enumerate(ends))
    good, said = _judged(complete, rock, right, back, now - piece.stands, show)
    if good:
        # "Stop here" beside "saw" would be two words for one foot.
        feet = tuple(replace(foot, how="leave") for foot in feet)
    spacer = _lean_spacer(key, floor, ends, show)
    return LevelRound(
        id=chosen.id,
        number=number,
        way=chosen.way,
        by=BY[chosen.way],
        ways=open_ways(len(feet)),
        asked=len(wanted),
        answered=answered,
        feet=feet,
        bears=_bears(ends, state.stands),
        rocks=show.fine(rock) if state.stands and state.stands.tips else None,
        falls_right=show.angle(right, 2),
        falls_back=show.angle(back, 2),
        height_now=show.fine(now),
        height_after=show.fine(after),
        wanted=show.length(piece.stands),
        highest=show.figure(
            f"{key}.highest", "Highest it can end", reach, "least over all feet of the short edge's height",
            show.input("h", "height wanted", piece.stands),
            note="every end must be cut all over; the foot that reaches least decides",
        ),
        short_by=show.fine(short) if short > 0.05 else None,
        tilt=show.angle(angle(vec(plane.normal), floor.normal), 2),
        block=show.figure(
            f"{key}.block", "Block to scribe with, shims in", block, "s − w",
            show.input("s", "the top's middle stands at, on its shims", after + block),
            show.input("w", "is to end at", after),
            note="flat on the same surface as the shims, pencil on top, all round every leg",
            fine=True,
        ),
        block_of=_stacked(shop, block, show),
        bench=_off_bench(key, piece, chosen, ends, plane, show),
        spacer=spacer,
        spacer_of=_stacked(shop, spacer.quantity.value, show) if spacer else "",
        good=good,
        said=said,
        problems=tuple(problems + of_reach(piece, after, ends, plane, show)),
        begins=begins,
        choose_ends=choose_ends,
    )  # fmt: skip


def _foot(
    key: str,
    end: End,
    k: int,
    plane: CutPlane,
    rests: Standing | None,
    lowest: float,
    shop: Shop,
    show: Show,
) -> LevelFoot:
    foot, lost = end.foot, loss(end, plane)
    gap = rests.gaps[k] if rests else 0.0
    shim = max(0.0, float((end.ring @ plane.normal).min()) - lowest)
    at = f"{key}.{foot.key}"
    how = "saw" if lost.long >= SAW_MM else "sand" if lost.long >= LEAVE_MM else "leave"
    down = vec(-plane.normal)
    cos = dot(down, foot.d)
    height = show.input("v", "past the cut, square to the floor", lost.height)
    lean = show.input("ρ′", "lean to the cut", angle(down, foot.d), "deg")
    return LevelFoot(
        key=foot.key,
        name=foot.name,
        leg=foot.leg,
        part=foot.part,
        bears=bool(rests and k in rests.bears),
        gap=show.fine(gap),
        loses=show.figure(
            f"{at}.loses", "Loses, along its middle", lost.axis, "v / cos ρ′", height, lean, fine=True
        ),
        long=show.figure(
            f"{at}.long", f"On its {foot.long_side}", lost.long, "from the end to the line", lean, fine=True
        ),
        short=show.figure(
            f"{at}.short", f"On its {foot.short_side}", lost.short, "from the end to the line", lean,
            fine=True,
        ),
        after=show.figure(
            f"{at}.after", "Then long, along its middle", lost.length, "L − l",
            show.input("L", "now", end.length), show.input("l", "loses", lost.axis),
        ),
        sure=show.fine(SURE * end.sigma * cos) if end.sigma else None,
        how=how,
        shim=show.figure(
            f"{at}.shim", "Shim to stand true", shim, "its end above the longest one's",
            height, fine=True,
        ),
        shim_of=_stacked(shop, shim, show) if shim > 0.05 else "",
        long_side=foot.long_side,
        short_side=foot.short_side,
    )  # fmt: skip


def _stacked(shop: Shop, thick: float, show: Show) -> str:
    """A stack of the shop's spacers, with what it misses by."""
    if not shop.spacers or thick < 0.05:
        return ""
    found = stack_for(shop.spacers, thick, max(0.5, 0.02 * thick))
    if found is None:
        return ""
    off = found.thick - thick
    by = f" ({show.fine(abs(off)).text} {'over' if off > 0 else 'under'})" if abs(off) >= 0.05 else ""
    return f"{found.said()}{by}"


def _bears(ends: tuple[End, ...], stands: Rocking | None) -> str:
    if stands is None:
        return "It has no three feet to stand on."
    on = [k for k in range(len(ends)) if k in stands.rests.bears]
    off = [k for k in range(len(ends)) if k not in stands.rests.bears]
    said, others = (
        listed([with_the(ends[k].foot.name) for k in some]) if some else "" for some in (on, off)
    )
    return f"It bears on {said}; {others} {_s(off)}." if off else f"It bears on {said}."


def _s(many: list[int]) -> str:
    return "floats" if len(many) == 1 else "float"


def _off_bench(
    key: str, piece: Piece, chosen: LevelPass, ends: tuple[End, ...], plane: CutPlane, show: Show
) -> Figure | None:
    """Upside down: the height off the bench to scribe at; only where the cut runs along the bench."""
    if chosen.way != "bench" or float(plane.normal[2]) < 1.0 - 1e-9:
        return None
    lift = level_lift(piece, ends, chosen)
    if lift is None:
        return None
    t = piece.top.thickness
    return show.figure(
        f"{key}.bench", "Scribe at this height off the bench", t + plane.offset + lift,
        "t + h + b",
        show.input("t", "top, thick", t),
        show.input("h", "from the underside to the new floor", plane.offset),
        show.input("b", "the upper face off the bench", lift),
        fine=True,
    )  # fmt: skip


ROW_MM = 1.0
"""Feet this near one line across the fall stand in one row."""


def _lean_spacer(key: str, floor: Floor, ends: tuple[End, ...], show: Show) -> Figure | None:
    """For a chosen lean: what goes under one row of feet of a piece that stands level, D sin(lean).

    Only for feet in two rows across the fall: one spacer under each of the row on the high side.
    """
    if floor.fall_deg == 0.0:
        return None
    toward = math.radians(floor.toward_deg)
    way = np.array((math.cos(toward), math.sin(toward)))
    along = [float(end.foot.axis(end.length)[:2] @ way) for end in ends]
    apart = max(along) - min(along)
    high = [end.foot.name for end, at in zip(ends, along, strict=True) if at - min(along) < ROW_MM]
    low = [at for at in along if max(along) - at < ROW_MM]
    if len(high) + len(low) != len(ends) or apart < ROW_MM:
        return None
    return show.figure(
        f"{key}.spacer", f"Spacer for the lean, under {listed(high)}",
        apart * math.sin(math.radians(floor.fall_deg)), "D · sin lean",
        show.input("D", "foot to foot on the piece, along the fall", apart),
        show.input("lean", "of the seat", floor.fall_deg, "deg"),
        note="standing upright on legs cut to one height; then one block slid round all the feet",
        fine=True,
    )  # fmt: skip


def _judged(
    complete: bool,
    rock: float,
    right: float,
    back: float,
    high: float,
    show: Show,
) -> tuple[bool, str]:
    """Whether it may stay as it stands, and why; only readings can say so."""
    limits = (
        f"Good enough is: rocks no more than {show.fine(ROCK_MM).text}, within "
        f"{show.angle(LEAN_DEG).text} of its lean and {show.length(HEIGHT_MM).text} of its height."
    )
    if not complete:
        return False, f"Not measured yet in this pass. {limits}"
    wrong = []
    if rock > ROCK_MM:
        wrong.append(f"it rocks by {show.fine(rock).text}")
    if max(abs(right), abs(back)) > LEAN_DEG:
        wrong.append(f"the top is {show.angle(max(abs(right), abs(back)), 2).text} off its lean")
    if high > HEIGHT_MM:
        wrong.append(f"it stands {show.fine(high).text} too high")
    if wrong:
        return False, f"Cut: {', '.join(wrong)}. {limits}"
    low = f" It stands {show.fine(-high).text} too low; nothing can be added." if high < -HEIGHT_MM else ""
    return True, f"Good enough: stop here.{low} {limits}"
