"""Grooves and buttons carried out as told, put together, and held against top and part."""

from __future__ import annotations

import math
from typing import TYPE_CHECKING

import numpy as np

from splay.setups.card import SetUp
from splay.work.joinery import Buttons, Groove
from splay.work.takes import Deep, ToGroove
from tests.bench.frames import Array, unit, vec
from tests.bench.held import lying_over, width_middle
from tests.bench.tapered import TaperedStick, meet

if TYPE_CHECKING:
    from tests.bench.judged import Judge


class Cut:
    """A groove as it was told: its four edges across the middle of the part, in the part's own frame."""

    def __init__(self, judge: Judge, key: str, do: Groove) -> None:
        self.stick = TaperedStick(judge, key)
        side, upper = self.stick.sides[do.side], self.stick.sides[do.upper]
        corner = meet(side, upper, (vec(1, 0, 0), 0.0))
        down = unit(np.cross(side[0], vec(1, 0, 0)))
        down = down if float(down @ upper[0]) < 0 else -down
        turn = math.radians(do.turn.value) if do.turn is not None else 0.0
        # Square in, then tilted so that its bottom comes nearer to the upper side, or goes further off.
        way = -side[0] * math.cos(turn) - down * math.sin(turn) * (1.0 if do.nearer else -1.0)
        long = do.deep.value / math.cos(turn)
        self.near, self.far = corner + down * do.edge.value, corner + down * (do.edge.value + do.wide.value)
        self.bottom = (self.near + way * long, self.far + way * long)

    def out(self, p: Array) -> Array:
        """A place of the part in the top frame."""
        return np.array(self.stick.body.pose.out((float(p[0]), float(p[1]), float(p[2]))))


def judge_groove(judge: Judge, card: SetUp) -> None:
    """Its walls run level, so far under the top and apart as chosen, as deep; it stays in its part."""
    (do,) = (do for do in card.does if isinstance(do, Groove))
    for key in do.parts:
        cut = Cut(judge, key, do)
        chosen = judge.piece.supports[cut.stick.body.support].held
        near, far = cut.out(cut.near), cut.out(cut.far)
        tally = judge.tally
        over = lying_over(judge, near + np.array((0.0, 0.0, chosen.drop)))
        above = over.down
        tally.hold("groove under the top mm", abs(float(near[2]) - above + chosen.drop), card.id)
        tally.hold("groove wide mm", abs(float(near[2] - far[2]) - chosen.groove), card.id)
        for mouth, bottom in ((near, cut.out(cut.bottom[0])), (far, cut.out(cut.bottom[1]))):
            tally.hold("groove level mm", abs(float(bottom[2] - mouth[2])), card.id)
            tally.hold("groove deep mm", abs(float(np.linalg.norm(bottom - mouth)) - chosen.deep), card.id)
        known = any(found.code.startswith("groove") for found in judge.plan.findings)
        for p in cut.bottom:
            out = max(float(n @ p) - off for name, (n, off) in cut.stick.sides.items() if name != do.side)
            tally.hold("groove out of its part mm", 0.0 if known else max(0.0, out), card.id)
        # On the inner side, which looks to the middle of the top unless the part itself runs through it.
        inward = unit(cut.out(cut.bottom[0]) - near)
        beyond = float(inward @ np.array(cut.stick.body.pose.origin))
        tally.hold("groove outside", max(0.0, -beyond - cut.stick.body.thickness / 2), card.id)
        # Where the buttons come, evenly over the upper side, it is there for the whole of each.
        ends = [float(width_middle(cut.stick, do.upper, end)[0]) for end in cut.stick.ends.values()]
        half = abs(ends[1] - ends[0]) / 2 - chosen.from_ends
        if judge.piece.top.gap is not None and over.name == "top":
            _under_each_board(judge, card, do, cut, (min(ends), max(ends)))
            half = 0.0
        outer = half if chosen.count > 1 else 0.0
        inner = 0.0 if chosen.count % 2 else half / (chosen.count - 1)
        if half > 0.0:
            ends_at = do.ends.value if do.ends is not None else math.inf
            tally.hold("groove short of a button mm", max(0.0, outer + chosen.wide / 2 - ends_at), card.id)
            begins_at = do.begins.value if do.begins is not None else 0.0
            if begins_at:
                past = begins_at - (inner - chosen.wide / 2)
                tally.hold("groove begins past a button mm", max(0.0, past), card.id)
        for void in cut.stick.body.voids:
            # What is let in in the middle keeps its wood: no groove within it.
            begins = do.begins.value if do.begins is not None else 0.0
            for x in (begins, -begins):
                p = (x, float(cut.near[1]), float(cut.near[2]))
                deepest = -max(plane.beyond(p) for plane in void.planes)
                tally.hold("groove in a lap mm", 0.0 if known else max(0.0, deepest), card.id)
        judge.grooved[key] = (do, cut)


def _under_each_board(judge: Judge, card: SetUp, do: Groove, cut: Cut, ends: tuple[float, float]) -> None:
    """Under two boards buttons stand evenly under each, as far from the gap as from the part's ends."""
    top, chosen = judge.piece.top, judge.piece.supports[cut.stick.body.support].held
    grain = math.radians(top.grain)
    low = -(sum(top.boards) + top.gap.width) / 2
    first = low + top.boards[0]
    middle, runs = sum(ends) / 2, np.linspace(ends[0], ends[1], 20001)
    y, z = (float(v) for v in width_middle(cut.stick, do.upper, next(iter(cut.stick.ends.values())))[1:])
    at = np.array([cut.stick.body.pose.out((float(x), y, z)) for x in (ends[0], ends[1])])
    edges = at[:, 1] * math.cos(grain) - at[:, 0] * math.sin(grain)
    across = edges[0] + (edges[1] - edges[0]) * (runs - ends[0]) / (ends[1] - ends[0])
    for near, far in ((low, first), (first + top.gap.width, -low)):
        under = runs[(across >= near) & (across <= far)] - middle
        if not len(under):
            continue
        half = max(0.0, (under[-1] - under[0]) / 2 - chosen.from_ends)
        spread = np.linspace(-1.0, 1.0, chosen.count) if chosen.count > 1 else np.zeros(1)
        places = under.mean() + half * spread
        for place in places:
            reach = abs(float(place)) + chosen.wide / 2
            ends_at = do.ends.value if do.ends is not None else math.inf
            judge.tally.hold("groove short of a button mm", max(0.0, reach - ends_at), card.id)
            if do.begins is not None:
                past = do.begins.value - abs(float(place)) + chosen.wide / 2
                judge.tally.hold("groove begins past a button mm", max(0.0, past), card.id)


def judge_buttons(judge: Judge, card: SetUp) -> None:
    """Laid against the top with its tongue in the groove a button bears on the upper wall and draws; it
    never jams, and stays in wherever the top moves."""
    (do,) = (do for do in card.does if isinstance(do, Buttons))
    tally = judge.tally
    for key in card.parts:
        groove, cut = judge.grooved[key]
        chosen = judge.piece.supports[cut.stick.body.support].held
        # Upper face under the top: the tongue lies from its step down, the wall where it was cut.
        near = cut.out(cut.near)
        above = lying_over(judge, near + np.array((0.0, 0.0, chosen.drop))).down
        wall = above - float(near[2])
        draws = wall - do.step.value
        tally.hold("button draws mm", max(0.0, 0.5 - draws, draws - 1.5), card.id)
        room = float(cut.out(cut.near)[2] - cut.out(cut.far)[2]) - do.tongue.value
        tally.hold("tongue tight mm", max(0.0, 0.2 - room), card.id)
        tally.hold("button thick mm", abs(do.thick.value - do.step.value - do.tongue.value), card.id)
        tally.hold("tongue longer than its groove mm", max(0.0, do.out.value - chosen.deep), card.id)
        # The shoulder lies along the side: sawn off square by as much as that leans, the right way.
        side = cut.stick.sides[groove.side][0]
        tip = float(cut.stick.body.pose.turn_out((float(side[0]), float(side[1]), float(side[2])))[2])
        told = math.degrees(math.asin(min(1.0, abs(tip)))) * (1.0 if tip > 0 else -1.0)
        turn = (do.turn.value if do.turn is not None else 0.0) * (1.0 if do.longer else -1.0)
        tally.hold("shoulder deg", abs(told - turn) if abs(told) > 0.005 else abs(turn), card.id)
        judge.steps[key] = do.step.value


def read_groove(judge: Judge, take: ToGroove) -> float | None:
    """The rule from the upper side down to the groove."""
    found = judge.grooved.get(take.part)
    return None if found is None else found[0].edge.value


def read_step(judge: Judge, take: Deep) -> float | None:
    """A button's step, where the depth asked for is one's."""
    return judge.steps.get(take.of) if "tongue" in take.where else None
