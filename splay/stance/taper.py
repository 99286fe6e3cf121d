"""How thick a leg is along its length."""

from __future__ import annotations

import math

from splay.errors import CannotBuild
from splay.piece import Leg

LEAST_CLOSING = 0.05


def size_at(leg: Leg, exposed: float, down: float) -> float:
    """Diameter, or width over the flats, `down` along the axis from the underside, mm."""
    share = min(1.0, max(0.0, down / exposed))
    if leg.belly is None:
        return leg.at_top + (leg.at_foot - leg.at_top) * share
    at, size = leg.belly.at, leg.belly.size
    if share <= at:
        return leg.at_top + (size - leg.at_top) * share / at
    return size + (leg.at_foot - size) * (share - at) / (1.0 - at)


def cut_through(closing: float) -> float:
    """How fast a foot's outline closes on the floor, as a share of how fast one that does not thin would.

    CannotBuild where it hardly does or never: a cone cut by a plane as steep as its own side runs on.
    """
    if closing < LEAST_CLOSING:
        raise CannotBuild(
            "A leg thins so fast and leans so far that the floor never cuts through its foot.",
            "Make its foot thicker, or give it less splay and rake.",
            "supports",
        )
    return closing


def foot_taper(leg: Leg, exposed: float) -> float:
    """Radius lost per length down at the foot; negative where the leg grows towards it."""
    return _slope(leg, exposed, 1.0)


def taper_at(leg: Leg, exposed: float, down: float) -> float:
    """Radius lost per length down at a place of the leg."""
    return _slope(leg, exposed, down / exposed)


def _slope(leg: Leg, exposed: float, share: float) -> float:
    if leg.belly is None:
        return (leg.at_top - leg.at_foot) / 2.0 / exposed
    at, size = leg.belly.at, leg.belly.size
    if share < at:
        return (leg.at_top - size) / 2.0 / (at * exposed)
    return (size - leg.at_foot) / 2.0 / ((1.0 - at) * exposed)


def corners(leg: Leg) -> tuple[tuple[float, float], ...]:
    """Corners of a leg's section in order, for a half width of 1; none for a round leg."""
    if leg.section == "square":
        return ((1.0, 1.0), (-1.0, 1.0), (-1.0, -1.0), (1.0, -1.0))
    if leg.section == "octagon":
        k = math.sqrt(2.0) - 1.0
        return ((1, k), (k, 1), (-k, 1), (-1, k), (-1, -k), (-k, -1), (k, -1), (1, -k))
    return ()


def middles(leg: Leg) -> tuple[tuple[float, float], ...]:
    """Middles of a leg's flats in order, for a half width of 1; none for a round leg."""
    ring = corners(leg)
    pairs = zip(ring, (*ring[1:], *ring[:1]), strict=True)
    return tuple(((a + c) / 2.0, (b + d) / 2.0) for (a, b), (c, d) in pairs)


def thickest(leg: Leg) -> float:
    """Its thickest place, mm."""
    return max(leg.at_top, leg.at_foot, leg.belly.size if leg.belly else 0.0)
