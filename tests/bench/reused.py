"""Reused sticks sawn as told: what is left of their old holes, against what is bored and cut later."""

from __future__ import annotations

import math
from collections.abc import Iterator
from typing import TYPE_CHECKING

import numpy as np

from splay.piece import StakedLegs, Stretcher
from splay.setups.card import SetUp
from splay.stance.members import EndStance
from splay.stance.staked import LegStance
from splay.work.joinery import Shortened
from splay.work.marks import leg_key
from tests.bench.frames import Array, square_to

if TYPE_CHECKING:
    from tests.bench.judged import Judge

SOUND_MM = 10.0
HAIR_MM, FLAT_MM = 0.5, 8.0
"""Mouths on a taper lie this much off where a straight leg has them; those in flats, found here as on a
round leg as thick, so much more."""


def judge_reused(judge: Judge, card: SetUp) -> None:
    """Each stick is long enough for its leg, and sound where the leg wants it, or that was said."""
    hold, key = judge.tally.hold, card.id
    said = {n for one in judge.plan.findings if one.code == "old_hole_meets" for n in one.legs}
    for do in card.does:
        assert isinstance(do, Shortened)
        leg = judge.plan.stance.legs[do.leg - 1]
        support = judge.piece.supports[leg.support]
        assert isinstance(support, StakedLegs)
        stick, lies = support.leg.sticks[do.stick - 1], judge.sticks[leg_key(do.leg)]
        hold("shortened at the wrong end", float(do.end != lies.first), key)
        off = do.off.value if do.off else 0.0
        wanted = judge.plan.parts[do.leg - 1].finished.quantity.value
        if off:
            hold("reused stick short mm", max(0.0, wanted - (stick.length - off)), key)
        # What is left of each old hole, from the new end.
        left = [(max(0.0, old.nearer - off), old.farther - off) for old in stick.old if old.farther > off]
        told = do.begins.value if do.begins else None
        first = min((low for low, _ in left), default=None)
        hold("old hole told wrong", float(told != first), key)
        between = min(
            (
                max(low - high_new, low_new - high)
                for low, high in left
                for low_new, high_new in _new(judge, leg, support)
            ),
            default=math.inf,
        )
        spoiled, hair = do.leg in said, FLAT_MM if lies.flats else HAIR_MM
        hold(
            "an old hole meets a new one unsaid",
            float(between < SOUND_MM - hair and not spoiled),
            key,
        )
        hold("called spoiled though it is sound", float(between > SOUND_MM + hair and spoiled), key)


def _new(judge: Judge, leg: LegStance, support: StakedLegs) -> Iterator[tuple[float, float]]:
    """Where the leg is cut or bored anew, from its upper end, mm: found by boring through it."""
    inside = judge.plan.parts[leg.number - 1].in_top.quantity.value
    deep = support.joint.length - support.joint.into_top if support.joint.way == "dowel_screw" else 0.0
    yield 0.0, max(inside + support.leg.at_top, deep)
    for run in judge.runs:
        chosen = judge.piece.members[run.number - 1]
        assert isinstance(chosen, Stretcher)
        for end, sign in zip(run.ends, (1.0, -1.0), strict=True):
            if end.leg == leg.number:
                yield _mouth(judge, leg, end, sign * np.array(run.u), chosen.tenon / 2.0, inside)
    for rope in judge.ropes:
        chosen = judge.piece.members[rope.number - 1]
        for k, (number, hole) in enumerate(zip(rope.legs, rope.holes, strict=True)):
            if number == leg.number:
                way, radius = judge.rope_way(rope, k), (chosen.diameter + chosen.ease) / 2.0
                # It goes right through.
                yield _mouth(judge, leg, hole, way, radius, inside)
                yield _mouth(judge, leg, hole, -way, radius, inside)


def _mouth(
    judge: Judge, leg: LegStance, end: EndStance, way: Array, radius: float, inside: float
) -> tuple[float, float]:
    stick = judge.sticks[leg_key(leg.number)]
    axis, foot = np.array(leg.d), np.array(leg.socket)
    one = square_to(way, axis)
    two = np.cross(way, one)
    ends = []
    for turn in np.linspace(0.0, 2.0 * math.pi, 72, endpoint=False):
        edge = np.array(end.at) + radius * (math.cos(turn) * one + math.sin(turn) * two)

        def out(s: float, edge: Array = edge) -> tuple[float, float]:
            p = edge + s * way - foot
            down = float(p @ axis)
            return float(np.linalg.norm(p - down * axis)) - stick.half(inside + down), inside + down

        # A hole as wide as the leg or wider leaves it on both sides: nothing of a mouth there.
        low, high = 0.0, 400.0
        for _ in range(50):
            mid = (low + high) / 2.0
            low, high = (mid, high) if out(mid)[0] < 0.0 else (low, mid)
        ends.append(out(low)[1])
    return min(ends), max(ends)
