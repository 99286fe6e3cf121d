"""The slanted cut at a foot: its size, and how far its high and low sides are apart along the leg."""

from __future__ import annotations

import math
from dataclasses import dataclass

from splay.piece import Leg
from splay.quantity import Figure, Input, Show
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
    beyond and short of the axis; they add up to `high_low`. `taper` is the radius lost per mm;
    `flats` how far the cut is off square, seen square to either pair of flats, the smaller first, degrees.
    """

    long: float
    short: float
    below: float
    above: float
    taper: float
    flats: tuple[float, float] = (0.0, 0.0)

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
    tilts = sorted((abs(across), abs(back)))
    edges = tuple(w * math.sqrt(1.0 + tilt**2) for tilt in tilts)
    return FootCut(edges[1], edges[0], max(ends), -min(ends), k, (deg.atan(tilts[0]), deg.atan(tilts[1])))


@dataclass(frozen=True)
class FootFigures:
    """A cut foot over its flats (a round one: along its long and its short way), and its long side over
    its short one."""

    long: Figure
    short: Figure
    high_low: Figure


def foot_figures(key: str, leg: Leg, stance: LegStance, cut: FootCut, show: Show) -> FootFigures:
    """The figures of a cut foot, each with the formula of its own section."""
    size = show.input("D", "foot on its axis", leg.at_foot)
    lean = show.input("ρ′", "lean to the floor", stance.standing.resultant, "deg")
    taper = show.input("k", "radius lost per length", cut.taper, "ratio")
    if leg.section != "round":
        short, long = (show.input("λ", "cut off square, seen along it", tilt, "deg") for tilt in cut.flats)
        below = show.input("b", "longest corner beyond the axis", cut.below)
        above = show.input("a", "shortest corner short of it", cut.above)
        return FootFigures(
            *_across(key, cut, ("D / cos λ", (size, long)), ("D / cos λ", (size, short)), show),
            _high_low(key, cut, "b + a", (below, above), show),
        )
    if cut.taper == 0.0:
        return FootFigures(
            *_across(key, cut, ("D / cos ρ′", (size, lean)), ("D", (size,)), show),
            _high_low(key, cut, "D · tan ρ′", (size, lean), show),
        )
    inputs = (size, lean, taper)
    section = "cos² ρ′ − k² · sin² ρ′"
    long_way, short_way = f"D · cos ρ′ / ({section})", f"D · cos ρ′ / √({section})"
    return FootFigures(
        *_across(key, cut, (long_way, inputs), (short_way, inputs), show),
        _high_low(key, cut, "D · tan ρ′ / (1 − k² · tan² ρ′)", inputs, show),
    )


Working = tuple[str, tuple[Input, ...]]


def _across(key: str, cut: FootCut, long: Working, short: Working, show: Show) -> tuple[Figure, Figure]:
    return (
        show.figure(f"{key}.foot_long", "Foot, long way", cut.long, long[0], *long[1]),
        show.figure(f"{key}.foot_short", "Foot, short way", cut.short, short[0], *short[1]),
    )


def _high_low(key: str, cut: FootCut, formula: str, inputs: tuple[Input, ...], show: Show) -> Figure:
    return show.figure(
        f"{key}.high_low",
        "Long side over short side",
        cut.high_low,
        formula,
        *inputs,
        note="along the leg; the side away from the middle is the longer when it leans outward",
    )
