"""Levelling from first to last: each pass's readings, how it stands, what to cut, whether it will do."""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import lru_cache
from typing import Literal

import numpy as np

from splay.errors import CannotBuild
from splay.level.cut import CutPlane, highest, least_plane, loss
from splay.level.feet import Array, End, feet_of
from splay.level.stacks import stack_for
from splay.level.standing import TOUCHES_MM, Rocking, Standing, rocking
from splay.level.ways import Ask, Measured, asks, expected_stand, measure, teller
from splay.parts import LegPart
from splay.parts.stick import StickPart
from splay.piece import LevelPass, Piece
from splay.quantity import Figure, Quantity, Show
from splay.shop import Shop
from splay.stance.floor import Floor
from splay.stance.staked import Stance
from splay.stance.vectors import angle, dot

LEAVE_MM = 0.05
SAW_MM = 1.0
"""Less than this a saw cannot take off cleanly: sand it (common practice, no source)."""
ROCK_MM = 0.3
"""It no longer rocks to a hand when a card does not slip under the floating foot (common practice, no
source)."""
LEAN_DEG = 0.3
"""A top this near its lean looks and sits true (common practice, no source)."""
HEIGHT_MM = 2.0
"""A seat this near its height is at its height (common practice, no source)."""
SPREAD_MM = 0.2
"""How well a height is read where the maker's own spread is not known yet (common practice, no source)."""
FAR_MM = 40.0
"""A foot found this far from where it must be was read wrong (common practice, no source)."""
MISFIT_MM = 2.0
"""Heights of one flat top over one flat floor agree to this (common practice, no source)."""
_TRIES = 8
SURE = 2.0
"""Stated uncertainty in standard deviations: about 19 times in 20."""


@dataclass(frozen=True)
class Problem:
    """What is wrong with a pass's readings, or with what they lead to: `asked` names the proof."""

    code: str
    level: Literal["stop", "caution", "note"]
    text: str
    mend: str
    number: Quantity
    limit: Quantity
    legs: tuple[int, ...] = ()


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


@dataclass(frozen=True)
class LevelRound:
    """One pass. Angles in degrees, lengths in mm; `falls_right` and `falls_back` are how far the top
    falls more than it should that way as it stands; `short_by` what is missing to the wanted
    height; `good` says that it may stay as it is, `said` why or why not."""

    number: int
    way: str
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


@dataclass(frozen=True)
class State:
    """The geometry of one pass, for drawings and the next pass."""

    before: tuple[End, ...]
    ends: tuple[End, ...]
    plane: CutPlane
    stands: Rocking | None


@dataclass(frozen=True)
class Level:
    """The whole levelling; `states` one a round."""

    rounds: tuple[LevelRound, ...]
    asks: tuple[tuple[Ask, ...], ...]
    expected: tuple[dict[str, float], ...]


def level(
    piece: Piece,
    stance: Stance,
    parts: tuple[LegPart, ...],
    sticks: tuple[StickPart, ...],
    shop: Shop,
    show: Show,
    known: dict[str, float],
    spread: float = SPREAD_MM,
) -> tuple[Level, tuple[State, ...]]:
    """Every pass of a piece's levelling, from its readings by proof id; figures and geometry."""
    ends = first_ends(piece, stance, parts, sticks, known)
    if not ends:
        return Level((), (), ()), ()
    rounds, asked, expected, states = [], [], [], []
    for k, chosen in enumerate(piece.levelling.passes):
        number = k + 1
        prefix = f"level.{number}."
        read = {id.removeprefix(prefix): value for id, value in known.items() if id.startswith(prefix)}
        made = _worked(piece, stance.floor, ends, chosen, tuple(sorted(read.items())), spread)
        asked.append(made.asks)
        expected.append(made.expected)
        states.append(made.state)
        problems = [
            *_in_line(made, show),
            *_problems(made.measured, ends, chosen, show, read),
        ]
        rounds.append(
            _round(piece, stance, shop, show, number, chosen, made.asks, read, made.state, problems)
        )
        ends = made.left
    return Level(tuple(rounds), tuple(asked), tuple(expected)), tuple(states)


@dataclass(frozen=True)
class _Worked:
    """One pass worked out: what it asks and expects, what came of its readings, what is left of the
    feet after its cut; `fault` where its readings fix no plane."""

    asks: tuple[Ask, ...]
    expected: dict[str, float]
    measured: Measured
    state: State
    left: tuple[End, ...]
    fault: CannotBuild | None


@lru_cache(maxsize=64)
def _worked(
    piece: Piece,
    floor: Floor,
    ends: tuple[End, ...],
    chosen: LevelPass,
    readings: tuple[tuple[str, float], ...],
    spread: float,
) -> _Worked:
    """The passes before the one being measured stay as they were: each is worked out once."""
    read, fault = dict(readings), None
    wanted = asks(piece, ends, chosen)
    try:
        measured = measure(piece, ends, chosen, floor, read, spread, piece.levelling.flat)
    except CannotBuild as found:
        measured, fault = Measured(ends), found
    state = _state(piece, floor, ends, measured)
    left = tuple(
        End(e.foot, loss(e, state.plane).length, _vec(state.plane.normal), 0.0) for e in measured.ends
    )
    expected = _expected(piece, ends, chosen, floor, wanted, read)
    return _Worked(wanted, expected, measured, state, left, fault)


def _in_line(made: _Worked, show: Show) -> list[Problem]:
    if made.fault is None:
        return []
    counts = show.count(len(made.asks)), show.count(3)
    return [Problem("heights_in_line", "stop", made.fault.rule, made.fault.mend, *counts)]


def first_ends(
    piece: Piece,
    stance: Stance,
    parts: tuple[LegPart, ...],
    sticks: tuple[StickPart, ...],
    known: dict[str, float],
) -> tuple[End, ...]:
    """How every foot ends before the first pass: by its own reading, else as it should be."""
    made = []
    square = piece.levelling.ends == "square"
    lengths = {part.number: part for part in parts}
    long = {f"long.{stick.key}": stick.arrises[0].length.quantity.value for stick in sticks}
    for foot in feet_of(piece, stance):
        normal: tuple[float, float, float] = stance.floor.normal
        if foot.leg:
            part = lengths[foot.leg]
            inside = part.in_top.quantity.value
            length = part.blank.quantity.value - inside if square else foot.planned
            if not square and f"foot.{foot.leg}" in known:
                length = known[f"foot.{foot.leg}"] - inside
            if square:
                normal = (-foot.d[0], -foot.d[1], -foot.d[2])
        else:
            id = f"long.{foot.part}"
            length = foot.planned + (known[id] - long[id] if id in known and id in long else 0.0)
        made.append(End(foot, length, normal))
    return tuple(made)


def _state(piece: Piece, floor: Floor, before: tuple[End, ...], measured: Measured) -> State:
    seat = np.array((0.0, 0.0, piece.top.thickness))
    allowed = piece.levelling.lean_allowed
    plane = least_plane(measured.ends, floor, seat, allowed)
    stands = stand_now(piece, floor, measured.ends)
    if stands and stands.tips and measured.floor is not None:
        # It was measured standing one of its two ways: that is the one to speak of.
        n = measured.floor[0]
        if float(n @ stands.tips.normal) > float(n @ stands.rests.normal):
            stands = Rocking(stands.tips, stands.rests)
    return State(before, measured.ends, plane, stands)


def stand_now(piece: Piece, floor: Floor, ends: tuple[End, ...]) -> Rocking | None:
    """How it stands on a flat floor as its feet end, its weight over the middle of the top.

    Which corner of an end touches depends on how the piece leans, and that on which touch: those that
    come lowest under the floors found are tried next, until none is left under them.
    """
    n = np.array(floor.normal)
    middle = np.array((0.0, 0.0, piece.top.thickness / 2))
    first = [int(np.argmin(end.ring @ n)) for end in ends]
    touching = [[at] for at in first]
    found = None
    for turn in range(_TRIES):
        points = np.array([end.ring[j] for end, at in zip(ends, touching, strict=True) for j in at])
        owner = [k for k, at in enumerate(touching) for _ in at]
        found = rocking(points, owner, middle, n)
        if found is None:
            return None
        # Going round in a circle ends once all that ever touched are kept.
        wanted = [
            [at] if turn < _TRIES // 2 else list(known) for at, known in zip(first, touching, strict=True)
        ]
        fresh = False
        for one in (found.rests, found.tips):
            if one is None:
                continue
            for k, end in enumerate(ends):
                high = end.ring @ one.normal + one.offset
                low = int(np.argmin(high))
                fresh |= low not in touching[k] and float(high[low]) < -TOUCHES_MM
                if low not in wanted[k]:
                    wanted[k].append(low)
        if not fresh:
            break
        touching = wanted
    return found


def _expected(
    piece: Piece,
    ends: tuple[End, ...],
    chosen: LevelPass,
    floor: Floor,
    wanted: tuple[Ask, ...],
    read: dict[str, float],
) -> dict[str, float]:
    """What each ask would read if every foot ended as it is thought to."""
    # Only what is read as it stands asks how it would stand.
    stands = stand_now(piece, floor, ends) if chosen.way == "standing" else None
    return {
        f"{ask.kind}.{ask.key}": expect(piece, ends, chosen, floor, ask, read, stands) for ask in wanted
    }


def expect(
    piece: Piece,
    ends: tuple[End, ...],
    chosen: LevelPass,
    floor: Floor,
    ask: Ask,
    read: dict[str, float],
    stands: Rocking | None,
) -> float:
    """One reading of a piece whose feet end as `ends` say, mm."""
    if ask.kind == "stands":
        return expected_stand(piece, ends, floor)
    if ask.kind in ("top", "under"):
        if stands is None:
            n, c = np.array(floor.normal), floor.h0_mm
        else:
            n, c = stands.rests.normal, stands.rests.offset
        if ask.kind == "top":
            assert ask.place is not None
            return float(n @ np.array((*ask.place, piece.top.thickness)) + c)
        return max(0.0, float((ends[ask.foot].ring @ n).min()) + c)
    value = teller(piece, ends, chosen, floor, ask, read)(ends[ask.foot])
    return max(0.0, value) if ask.kind == "shim" else value


def _problems(
    measured: Measured,
    before: tuple[End, ...],
    chosen: LevelPass,
    show: Show,
    read: dict[str, float],
) -> list[Problem]:
    made = []
    if measured.misfit > MISFIT_MM:
        made.append(
            Problem(
                "heights_disagree", "caution",
                f"The height at the {measured.worst} does not lie in one plane with the others.",
                "Measure that one again, then the rest: a rule off plumb reads long.",
                show.fine(measured.misfit), show.fine(MISFIT_MM),
            )
        )  # fmt: skip
    told = sum(f"under.{end.foot.key}" in read for end in before)
    if chosen.way == "standing" and told == len(before) and measured.afoot < 3:
        made.append(
            Problem(
                "gaps_contradict", "caution",
                f"By its gaps only {measured.afoot} of its feet touch; a piece stands on three at least.",
                "Press it down where it does not rock and take the gaps again: where it touches, give 0.",
                show.count(measured.afoot), show.count(3),
            )
        )  # fmt: skip
    for was, now in zip(before, measured.ends, strict=True):
        off = now.length - was.length
        if abs(off) <= FAR_MM:
            continue
        made.append(
            Problem(
                "foot_far", "caution",
                f"{was.foot.name.capitalize()} would end {show.length(abs(off)).text} "
                f"{'longer' if off > 0 else 'shorter'} than it can.",
                "Measure it again: the right foot, from the right face, in the units shown.",
                show.length(abs(off)), show.length(FAR_MM), (was.foot.leg,) if was.foot.leg else (),
            )
        )  # fmt: skip
    return made


def _vec(a: Array) -> tuple[float, float, float]:
    return (float(a[0]), float(a[1]), float(a[2]))


def falls(normal: Array, floor: Floor) -> tuple[float, float]:
    """How far the top falls to the right and to the back over what was chosen, degrees."""
    n, w = normal, floor.normal
    right = math.degrees(math.atan2(n[0], n[2]) - math.atan2(w[0], w[2]))
    back = math.degrees(math.atan2(n[1], n[2]) - math.atan2(w[1], w[2]))
    return -right, -back


def _round(
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
) -> LevelRound:
    floor, plane, ends = stance.floor, state.plane, state.ends
    seat = np.array((0.0, 0.0, piece.top.thickness))
    key = f"level.{number}"
    rests = state.stands.rests if state.stands else None
    normal = rests.normal if rests else np.array(floor.normal)
    right, back = falls(normal, floor)
    now = float(normal @ seat + rests.offset) if rests else piece.height
    after = plane.height(seat)
    top = highest(ends, plane.normal)
    reach = float(plane.normal @ seat) + top
    lowest = min(float((end.ring @ plane.normal).min()) for end in ends)
    block = -lowest - plane.offset
    answered = sum(f"{ask.kind}.{ask.key}" in read for ask in wanted)
    rock = state.stands.rock if state.stands else 0.0
    short = piece.height - after
    complete = answered == len(wanted)
    feet = tuple(_foot(key, end, k, plane, rests, lowest, shop, show) for k, end in enumerate(ends))
    good, said = _judged(complete, rock, right, back, now - piece.height, show)
    spacer = _lean_spacer(key, floor, ends, show)
    return LevelRound(
        number=number,
        way=chosen.way,
        asked=len(wanted),
        answered=answered,
        feet=feet,
        bears=_bears(ends, state.stands),
        rocks=show.fine(rock) if state.stands and state.stands.tips else None,
        falls_right=show.angle(right, 2),
        falls_back=show.angle(back, 2),
        height_now=show.fine(now),
        height_after=show.fine(after),
        wanted=show.length(piece.height),
        highest=show.figure(
            f"{key}.highest", "Highest it can end", reach, "least over all feet of the short edge's height",
            show.input("h", "height wanted", piece.height),
            note="every end must be cut all over; the foot that reaches least decides",
        ),
        short_by=show.fine(short) if short > 0.05 else None,
        tilt=show.angle(angle(_vec(plane.normal), floor.normal), 2),
        block=show.figure(
            f"{key}.block", "Block to scribe with, shims in", block, "stands at − wanted",
            show.input("s", "the top's middle stands at, on its shims", after + block),
            show.input("w", "is to end at", after),
            note="flat on the same surface as the shims, pencil on top, all round every leg",
            fine=True,
        ),
        block_of=_stacked(shop, block, show),
        bench=_off_bench(key, piece, chosen, plane, show),
        spacer=spacer,
        spacer_of=_stacked(shop, spacer.quantity.value, show) if spacer else "",
        good=good,
        said=said,
        problems=tuple(problems + _reach(piece, after, ends, plane, show)),
    )  # fmt: skip


def _reach(piece: Piece, after: float, ends: tuple[End, ...], plane: CutPlane, show: Show) -> list[Problem]:
    short = piece.height - after
    if short <= HEIGHT_MM:
        return []
    last = min(ends, key=lambda end: -float((end.ring @ plane.normal).max()))
    return [
        Problem(
            "height_short", "caution",
            f"Cut full, it ends {show.fine(short).text} lower than wanted: "
            f"{last.foot.name} reaches no further.",
            "Let it end lower, allow a little lean, or make that one anew.",
            show.fine(short), show.fine(HEIGHT_MM), (last.foot.leg,) if last.foot.leg else (),
        )
    ]  # fmt: skip


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
    down = _vec(-plane.normal)
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
            f"{at}.long", "On its outer side", lost.long, "from the end to the line", lean, fine=True
        ),
        short=show.figure(
            f"{at}.short", "On its inner side", lost.short, "from the end to the line", lean, fine=True
        ),
        after=show.figure(
            f"{at}.after", "Then long, along its middle", lost.length, "from the face it leaves",
            show.input("L", "now", end.length), show.input("l", "loses", lost.axis),
        ),
        sure=show.fine(SURE * end.sigma * cos) if end.sigma else None,
        how=how,
        shim=show.figure(
            f"{at}.shim", "Shim to stand true", shim, "its end above the longest one's",
            height, fine=True,
        ),
        shim_of=_stacked(shop, shim, show) if shim > 0.05 else "",
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
    names = [ends[k].foot.name for k in stands.rests.bears]
    off = [k for k in range(len(ends)) if k not in stands.rests.bears]
    said = f"It bears on {_list(names)}"
    return f"{said}; {_list([ends[k].foot.name for k in off])} {_s(off)}." if off else f"{said}."


def _s(many: list[int]) -> str:
    return "floats" if len(many) == 1 else "float"


def _list(words: list[str]) -> str:
    heads = {word.rpartition(" ")[0] for word in words}
    if len(words) > 1 and len(heads) == 1 and "" not in heads:
        tails = [word.rpartition(" ")[2] for word in words]
        return f"{heads.pop()}s {', '.join(tails[:-1])} and {tails[-1]}"
    return " and ".join(words) if len(words) < 3 else f"{', '.join(words[:-1])} and {words[-1]}"


def _off_bench(key: str, piece: Piece, chosen: LevelPass, plane: CutPlane, show: Show) -> Figure | None:
    """Upside down: the height off the bench to scribe at; only where the cut runs along the bench."""
    if chosen.way != "bench" or float(plane.normal[2]) < 1.0 - 1e-9:
        return None
    t = piece.top.thickness
    return show.figure(
        f"{key}.bench", "Scribe at this height off the bench", t + plane.offset + chosen.raised,
        "thickness + height under the top + blocks",
        show.input("t", "top, thick", t),
        show.input("h", "from the underside to the new floor", plane.offset),
        show.input("b", "blocks it lies on", chosen.raised),
        fine=True,
    )  # fmt: skip


def _lean_spacer(key: str, floor: Floor, ends: tuple[End, ...], show: Show) -> Figure | None:
    """For a chosen lean: what goes under the higher feet of a level piece, D sin(lean)."""
    if floor.fall_deg == 0.0:
        return None
    toward = math.radians(floor.toward_deg)
    way = np.array((math.cos(toward), math.sin(toward)))
    along = [float(end.foot.axis(end.length)[:2] @ way) for end in ends]
    apart = max(along) - min(along)
    return show.figure(
        f"{key}.spacer", "Spacer for the lean, under the feet of the higher side",
        apart * math.sin(math.radians(floor.fall_deg)), "D · sin lean",
        show.input("D", "foot to foot on the piece, along the fall", apart),
        show.input("lean", "of the seat", floor.fall_deg, "deg"),
        note="under a piece that stands level; then scribe all feet from the surface with one block",
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
        wrong.append(f"it stands {show.fine(high).text} high")
    if wrong:
        return False, f"Cut: {', '.join(wrong)}. {limits}"
    low = f" It stands {show.fine(-high).text} low; nothing can be added." if high < -HEIGHT_MM else ""
    return True, f"Good enough: stop here.{low} {limits}"
