"""Mouths eased as told, and the coves of the legs put home in them: nothing is lifted, little is left."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import TYPE_CHECKING

import numpy as np

from splay.setups.card import SetUp
from splay.work.joinery import Cove, Eased, Tenon
from tests.bench.frames import apart_deg, vec

if TYPE_CHECKING:
    from tests.bench.judged import Judge

TURNS = 48
STEP_MM = 0.02


@dataclass
class EasedMouth:
    """Half the hole, the round's radius and where along the axis, from the face outwards, it leaves the
    wall; how long the mouth is over all; how far the axis leans, radians."""

    half: float
    round: float
    starts: float
    long: float
    tilt: float

    def out(self, along: float) -> float:
        """How far from the axis the wood begins."""
        deep = along - self.starts
        if deep <= 0.0:
            return self.half
        if deep >= self.round:
            return self.half + self.round
        return self.half + self.round - math.sqrt(self.round**2 - deep**2)


def ease_mouths(judge: Judge, card: SetUp) -> None:
    """A cutter about the hole's own axis goes in until a rule over the mouth reads what was told."""
    (do,) = (one for one in card.does if isinstance(one, Eased))
    for number in do.legs:
        leg = judge.plan.stance.legs[number - 1]
        tilt = math.radians(apart_deg(np.array(leg.d), vec(0, 0, -1)))
        half = leg.bore.size / 2.0
        low, high = -200.0, 200.0
        for _ in range(60):
            starts = (low + high) / 2
            made = EasedMouth(half, do.radius.value, starts, 0.0, tilt)
            low, high = (low, starts) if _over_all(made) < do.long.value else (starts, high)
        made.long = _over_all(made)
        judge.tally.hold("mouth over all mm", abs(made.long - do.long.value), card.id)
        judge.mouths[number] = made


def _over_all(mouth: EasedMouth) -> float:
    """On the face, in the plane of the lean: out from the axis until there is wood, both ways."""
    total = 0.0
    for side in (1.0, -1.0):

        def cut(x: float, side: float = side) -> bool:
            return x * math.cos(mouth.tilt) < mouth.out(side * x * math.sin(mouth.tilt))

        # Fine: beside the leg's own shoulder the face may be left as a lip of a tenth.
        places = np.arange(0.0, 200.0, STEP_MM)
        deep = np.clip(side * places * math.sin(mouth.tilt) - mouth.starts, 0.0, mouth.round)
        out = mouth.half + mouth.round - np.sqrt(mouth.round**2 - deep**2)
        high = float(places[np.argmax(places * math.cos(mouth.tilt) >= out)])
        low = high - STEP_MM
        for _ in range(40):
            x = (low + high) / 2
            low, high = (x, high) if cut(x) else (low, x)
        total += low
    return total


def judge_cove(judge: Judge, number: int, tenon: Tenon, cove: Cove, card: SetUp) -> None:
    """A leg with its cove as told, pushed home: it presses nowhere into wood, and lies near it."""
    leg = judge.plan.stance.legs[number - 1]
    half, thick = tenon.diameter.value / 2.0, judge.piece.supports[leg.support].leg.at_top / 2.0
    inside = judge.plan.parts[number - 1].in_top.quantity.value
    begins, ends, r = cove.begins.value - inside, cove.ends.value - inside, cove.radius.value
    hold = judge.tally.hold
    hold("cove after the tenon mm", abs(cove.begins.value - tenon.long.value), card.id)
    # An arc tangent to the tenon: out at the leg's thickness, or all of a quarter with a shoulder left.
    at = r - math.sqrt(max(0.0, r**2 - min(r, ends - begins) ** 2))
    hold("cove comes out mm", max(0.0, half + at - thick, min(thick, half + r) - half - at), card.id)
    tilt = math.radians(apart_deg(np.array(leg.d), vec(0, 0, -1)))
    mouth = judge.mouths.get(number) or EasedMouth(half, 1.0, 1e6, 0.0, tilt)
    deepest, left = 0.0, 0.0
    for turn in np.linspace(0.0, 2.0 * math.pi, TURNS, endpoint=False):
        slope = math.tan(tilt) * math.cos(turn)
        for a in np.linspace(begins, ends, 60):
            body = half + r - math.sqrt(max(0.0, r**2 - (a - begins) ** 2))
            # Wood stands out from its own bore, and reaches up to the face.
            wood = max(mouth.out(float(a)), a / slope if slope > 1e-12 and a > 0.0 else 0.0)
            if a > 0.0 and slope <= 1e-12:
                continue
            if a <= 0.0 and slope < -1e-12 and wood > a / slope:
                continue
            deepest = max(deepest, body - wood)
            # How far the cove is off the round there, square to the round.
            if mouth.starts < a < mouth.starts + mouth.round and wood == mouth.out(float(a)):
                off = math.hypot(a - mouth.starts, body - half - mouth.round) - mouth.round
                if mouth.round >= r:
                    left = max(left, off)
    told = [fig.quantity.value for one in judge.plan.setups if one.operation == "ease_mouth"
            and number in one.legs for fig in one.jig]  # fmt: skip
    hold("cove lifts the leg mm", max(0.0, deepest), card.id)
    if judge.mouths.get(number) and mouth.round >= r:
        hold("more left than told mm", max(0.0, left - max(told, default=0.0)), card.id)
