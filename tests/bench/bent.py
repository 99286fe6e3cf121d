"""Bent sticks: strung, looked along, and their tenons held against the wood that is there."""

from __future__ import annotations

import math
from typing import TYPE_CHECKING

import numpy as np
from scipy.spatial.transform import Rotation

from splay.setups.card import SetUp
from splay.stance.staked import support_of
from splay.work.joinery import BentLine, Shortened
from splay.work.marks import leg_key
from tests.bench.frames import Array, unit, vec

if TYPE_CHECKING:
    from tests.bench.judged import Judge

QUARTERS = {"along": 0, "clockwise": 1, "opposite": 2, "anticlockwise": 3}
LEAST_ALONG = 0.9


def judge_bent(judge: Judge, card: SetUp) -> None:
    """Each stick as it was measured, shortened as told, strung anew: what is told is what is there."""
    hold, key = judge.tally.hold, card.id
    sawn = {do.leg: do.off.value if do.off else 0.0 for one in judge.plan.setups for do in one.does
            if isinstance(do, Shortened)}  # fmt: skip
    said = {n for one in judge.plan.findings if one.code == "bent_thin" for n in one.legs}
    for do in card.does:
        if not isinstance(do, BentLine):
            continue
        leg = judge.plan.stance.legs[do.leg - 1]
        support = support_of(judge.piece, leg)
        stick = support.leg.sticks[do.stick - 1]
        assert stick.bend is not None
        along, off = _strung(
            stick.length, stick.bend.rise, stick.bend.at, sawn.get(do.leg, 0.0), do.long.value
        )
        most = int(np.argmax(off))
        hold("off its string mm", abs(off[most] - do.off.value), key)
        # Flat on its back: a millimetre along is a hair off.
        hold("its back elsewhere mm", max(0.0, abs(along[most] - do.at.value) - 1.0), key)
        slope = math.degrees(math.atan2(abs(off[1] - off[0]), along[1] - along[0]))
        hold("slope at its end deg", max(0.0, abs(slope - do.slope.value) - 0.05), key)
        judge.strung[do.leg] = float(off[most])
        _looks(judge, do, stick.bend.faces, key)
        inside = judge.plan.parts[do.leg - 1].in_top.quantity.value
        joint = support.joint
        deep = joint.length - joint.into_top if joint.way == "dowel_screw" else inside
        within = np.abs(off[along <= deep + 1e-9])
        half = (leg.bore.size if leg.bore.tenon else joint.socket) / 2.0
        out = float(within.max()) + half - support.leg.at_top / 2.0
        hold("tenon out of its wood unsaid", float(out > 0.1 and do.leg not in said), key)
        hold("called out of its wood", float(out < -0.1 and do.leg in said), key)


def _looks(judge: Judge, do: BentLine, faces: str, key: str) -> None:
    """Stood in its hole by its outer line, the stick's back looks where it was wanted: turned from that
    line about the leg itself, as it is seen by one who looks at the end that goes in."""
    leg = judge.plan.stance.legs[do.leg - 1]
    line = judge.sticks[leg_key(do.leg)].lines["outer line"]
    axis = np.array(leg.d)
    outer = judge.leg_point(leg, line) - judge.leg_point(leg, vec(0, 0, 0))
    # He looks along the leg: what turns clockwise for him turns right-handed about it.
    back = Rotation.from_rotvec(-math.pi / 2.0 * QUARTERS[do.outer] * axis).apply(outer)
    out = unit(vec(outer[0], outer[1], 0.0))
    judge.tally.hold("outer line looks in", float(out[:2] @ np.array(leg.socket[:2]) < -1e-6), key)
    right = np.cross(out, vec(0, 0, 1))
    wanted = {"outward": out, "inward": -out, "right": right, "left": -right}[faces]
    looks = unit(vec(back[0], back[1], 0.0))
    judge.tally.hold("its back looks another way", float(looks @ wanted < LEAST_ALONG), key)


def _strung(long: float, off: float, at: float, sawn: float, left: float) -> tuple[Array, Array]:
    """Places along the new string and how far the wood is off it: two parabolas that meet at the back."""
    whole = np.linspace(sawn, min(long, sawn + left), 20001)
    wood = np.where(
        whole < at, off * (1.0 - ((whole - at) / at) ** 2), off * (1.0 - ((whole - at) / (long - at)) ** 2)
    )
    string = np.interp(whole, (whole[0], whole[-1]), (wood[0], wood[-1]))
    return whole - whole[0], wood - string
