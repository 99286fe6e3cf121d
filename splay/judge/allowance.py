"""Whether what is left on the legs covers how far this maker's feet come out unlike."""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping

from splay.judge.finding import Finding
from splay.piece import Piece
from splay.quantity import Show
from splay.quantity import degrees as deg
from splay.setups.asker import ENOUGH, Spread
from splay.stance.staked import LegStance, Stance

SURE = 2.0
"""Covered 19 times in 20: twice the standard deviation."""


def foot_spread(leg: LegStance, spreads: Mapping[str, Spread]) -> float:
    """One standard deviation of the height a foot ends at, along its axis, by the maker's own hand, mm.

    An error e in the lean moves the foot L sin rho' e in height (e in radians), one in the length by
    itself along the axis; a hole that was read no longer counts. Nought where nothing is known yet.
    """
    known = {kind: one.rms for kind, one in spreads.items() if one.count >= ENOUGH}
    rho = leg.standing.resultant
    lean = 0.0 if leg.measured else math.radians(known.get("bore", 0.0))
    return math.hypot(leg.exposed * deg.tan(rho) * lean, known.get("foot", 0.0))


def allowance(piece: Piece, stance: Stance, spreads: Mapping[str, Spread], show: Show) -> Iterator[Finding]:
    """Sets of legs with too little left on for the spread of this maker's own readings."""
    for index, support in piece.staked():
        legs = tuple(leg for leg in stance.legs if leg.support == index)
        if not legs or support.leg.sticks:
            continue
        # Two feet part by the square root of two times what one of them strays.
        need = SURE * math.sqrt(2.0) * max(foot_spread(leg, spreads) for leg in legs)
        if need <= support.allowance:
            continue
        yield Finding(
            "allowance_small",
            "caution",
            "legs",
            f"By your own readings two feet may part by {show.length(need).text}; only "
            f"{show.length(support.allowance).text} is left on for levelling.",
            f"Leave {show.length(need).text} or more on the legs, or read the holes before cutting them.",
            tuple(leg.number for leg in legs),
            show.length(support.allowance),
            show.length(need),
            None,
            f"supports.{index}.allowance",
        )
