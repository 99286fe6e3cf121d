"""Wedges carried out: made as told, put into their slots, driven home."""

from __future__ import annotations

import math
from typing import TYPE_CHECKING

from splay.setups.card import SetUp
from splay.stance.staked import support_of
from splay.work.does import Kerf
from splay.work.joinery import MakeWedge

if TYPE_CHECKING:
    from tests.bench.judged import Judge


def judge_wedges(judge: Judge, card: SetUp) -> None:
    """Each fits its hole and its slot; a blind one is swallowed, the rest leave something to strike."""
    (do,) = (one for one in card.does if isinstance(one, MakeWedge))
    slope = math.degrees(math.atan((do.butt.value - do.edge.value) / 2 / do.long.value)) * 2
    for number in do.legs:
        leg = judge.plan.stance.legs[number - 1]
        joint = support_of(judge.piece, leg).joint
        slot = next(
            kerf.deep.value
            for other in judge.plan.setups if other.operation == "kerf" and number in other.legs
            for kerf in other.does if isinstance(kerf, Kerf)
        )  # fmt: skip
        judge.butts[f"leg.{number}"] = do.butt.value
        blind = joint.way == "blind"
        wide = leg.bore.size + (0.0 if blind else joint.wedge.over)
        judge.tally.hold("wedge wide mm", abs(do.wide.value - wide), card.id)
        judge.tally.hold("wedge taper deg", abs(slope - joint.wedge.taper), card.id)
        # In a blind hole its butt must come level with the tenon's end before its edge meets the slot's.
        past = do.long.value - slot
        judge.tally.hold("wedge holds the leg up mm", max(0.0, past) if blind else 0.0, card.id)
        judge.tally.hold("nothing to strike mm", 0.0 if blind else max(0.0, 8.0 - past), card.id)
