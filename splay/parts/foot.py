"""The slanted cut at a foot: its size, and how far its high and low sides are apart along the leg."""

from __future__ import annotations

import math
from dataclasses import dataclass

from splay.piece import Leg
from splay.quantity import degrees as deg
from splay.stance.aim import faces
from splay.stance.floor import Floor
from splay.stance.staked import LegStance
from splay.stance.taper import corners, cut_through, foot_taper
from splay.stance.vectors import dot


@dataclass(frozen=True)
class FootCut:
    """`long` and `short` are the cut end's axes (a leg with corners: over its flats) on the floor, mm.

    `below` and `above` are how far, along the axis, the end's longest and shortest side lie
    beyond and short of the axis; they add up to `high_low`. `taper` is the radius lost per mm.
    """

    long: float
    short: float
    below: float
    above: float
    taper: float

    @property
    def high_low(self) -> float:
        """Longest to shortest side, along the leg, mm."""
        return self.below + self.above


def foot_cut(leg: Leg, stance: LegStance, floor: Floor) -> FootCut:
    """The foot of one leg, cut to the floor.

    Round: a cone cut by a plane, axes D cos / den and D cos / sqrt(den) with
    den = cos² - k² sin² (plane section of a cone; k = 0 gives the cylinder's D / cos and D).
    A leg with corners: each corner followed to the floor.
    """
    if leg.section != "round":
        return _cornered(leg, stance, floor)
    rho = stance.standing.resultant
    c, s = deg.cos(rho), deg.sin(rho)
    k = foot_taper(leg, stance.exposed)
    den = c * c - k * k * s * s
    half, slope = leg.at_foot / 2, s / c
    cut_through(1.0 - abs(k) * slope)
    return FootCut(
        long=leg.at_foot * c / den,
        short=leg.at_foot * c / math.sqrt(den),
        below=half * slope / (1.0 + k * slope),
        above=half * slope / (1.0 - k * slope),
        taper=k,
    )


def _cornered(leg: Leg, stance: LegStance, floor: Floor) -> FootCut:
    """Square or eight-sided: each flat's width over the cut, and the furthest corner's slant."""
    side, front = faces(leg, stance.d)
    n, d, w = floor.normal, stance.d, leg.at_foot
    down = -dot(n, d)
    across, back = dot(n, side) / down, dot(n, front) / down
    k = foot_taper(leg, stance.exposed)
    # Each corner runs along half a width that shrinks by k: it meets the floor t past the axis.
    leaning = [i * across + j * back for i, j in corners(leg)]
    ends = [w / 2 * lean / cut_through(1.0 + k * lean) for lean in leaning]
    edges = (w * math.sqrt(1.0 + across**2), w * math.sqrt(1.0 + back**2))
    return FootCut(max(edges), min(edges), max(ends), -min(ends), k)
