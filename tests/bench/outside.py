"""Dowels from outside carried out on the glued mitre: marked, bored as told, then held against its wood."""

from __future__ import annotations

import math
from itertools import pairwise
from typing import TYPE_CHECKING

import numpy as np

from splay.setups.card import SetUp
from splay.work.does import Bit
from splay.work.joinery import Places
from splay.work.lays import IntoSide
from tests.bench.frames import Array, unit, vec

if TYPE_CHECKING:
    from tests.bench.judged import Judge

LEAST_APART_MM = 2.0


def bore(judge: Judge, card: SetUp) -> list[tuple[Array, Array, float, float]]:
    """Each hole in the top frame: where it starts, which way it runs, how deep and how thick."""
    (places,) = (do for do in card.does if isinstance(do, Places))
    (bit,) = (do for do in card.does if isinstance(do, Bit))
    (lay,) = card.lays
    assert isinstance(lay, IntoSide) and lay.endwise and bit.deep is not None
    leg = next(b for b in judge.plan.stance.bodies if b.key == card.parts[0])
    slab = next(b for b in judge.plan.stance.bodies if b.support == leg.support and b.role == "slab")
    # The upper face is the slab's, the show face the leg's: the corner they meet in is the mitre's.
    part = slab if lay.up == "upper face" else leg
    board = judge.boards[part.key]
    out = board.sides[lay.up]
    half = part.thickness / 2.0
    # The mitre's corner is its line on that face; from there away from the mitre.
    plane = part.finish if part is slab else part.start
    corner = (plane.offset - plane.normal[2] * half) / plane.normal[0]
    away = -1.0 if part is slab else 1.0
    made = []
    for _, side, mm in places.marks:
        across = float(board.sides[side][1]) * mm.value if side else 0.0
        at = vec(corner + away * places.mm.value, across, half)
        lean = math.radians(lay.between.value)
        way = -out * math.sin(lean)
        if lay.toward:
            way = way - board.ends[lay.toward] * math.cos(lean)
        pose = part.pose
        made.append((np.array(pose.out(tuple(at))), unit(np.array(pose.turn_out(tuple(way)))),
                     bit.deep.value, bit.diameter.value))  # fmt: skip
    return made


def judge_outside(judge: Judge, card: SetUp) -> None:
    """Level ones run level, plumb ones plumb, across the mitre's middle and as far past it as chosen."""
    leg = next(b for b in judge.plan.stance.bodies if b.key == card.parts[0])
    chosen = judge.piece.supports[leg.support].outside
    n = np.array(leg.pose.turn_out(leg.start.normal))
    on = leg.start.offset + float(n @ np.array(leg.pose.origin))
    low, high = leg.joined
    runs = card.work.rpartition(".")[2]
    judge.tally.hold("dowels counted", abs(len(card.makes) - getattr(chosen, runs)), card.id)
    for at, way, deep, thick in bore(judge, card):
        flat = vec(-math.copysign(1.0, at[0]), 0, 0) if runs == "level" else vec(0, 0, -1)
        judge.tally.hold("dowel deg", math.degrees(math.acos(min(1.0, float(flat @ way)))), card.id)
        run = (on - float(n @ at)) / float(n @ way)
        judge.tally.hold("dowel past mm", abs(deep - run - chosen.past), card.id)
        crossing = at + way * run
        top = judge.piece.top.thickness
        judge.tally.hold("dowel off the mitre's middle mm", abs(float(crossing[2]) - top / 2), card.id)
        own = leg.pose.within(tuple(crossing))
        judge.tally.hold("dowel beside the joint mm", max(0.0, low - own[1], own[1] - high), card.id)
        judge.tally.hold("dowel thick mm", abs(thick - chosen.size), card.id)
        judge.driven.setdefault(leg.key, []).append((at, way, deep, thick))
    every = judge.driven[leg.key]
    if len(every) == chosen.level + chosen.plumb:
        # Spread evenly along the mitre whichever way each runs, so that none meets another.
        across = sorted(float(at[1]) for at, *_ in every)
        gaps = [b - a for a, b in pairwise(across)]
        uneven = max(gaps) - min(gaps) if gaps else 0.0
        judge.tally.hold("dowels uneven mm", uneven, card.id)
        close = LEAST_APART_MM - min(gaps, default=LEAST_APART_MM + every[0][3]) + every[0][3]
        known = any(found.code.startswith("inside") for found in judge.plan.findings)
        judge.tally.hold("dowels meet mm", 0.0 if known else max(0.0, close), card.id)
