"""What can go wrong inside the top: skin, edges, legs that meet, tenons that do not fill."""

from __future__ import annotations

import math
from collections.abc import Iterator
from itertools import combinations

from splay.judge.finding import Finding
from splay.parts import SocketPart
from splay.piece import DowelScrew, Piece, Shouldered
from splay.quantity import Show
from splay.quantity import degrees as deg
from splay.stance.staked import LegStance, Stance, support_of
from splay.stance.vectors import Flat

THIN_SKIN_MM = 6.0
"""Least wood above a blind hole (common practice, no source)."""
EDGE_SHARE = 0.5
"""Least wood between a hole and the rim, as a share of the hole (common practice, no source)."""
BRIDGE_MM = 10.0
"""Least wood between two holes in the top (common practice, no source)."""


def skin(piece: Piece, sockets: tuple[SocketPart, ...], stance: Stance, show: Show) -> Iterator[Finding]:
    """Blind holes that break through or leave too thin a skin."""
    for socket, leg in zip(sockets, stance.legs, strict=True):
        if socket.left_above is None:
            continue
        left = socket.left_above.quantity
        screw = isinstance(support_of(piece, leg).joint, DowelScrew)
        where = f"supports.{leg.support}.joint.{'into_top' if screw else 'depth'}"
        if left.value <= 0:
            yield Finding(
                "break_through",
                "stop",
                "boring",
                f"The hole for leg {leg.number} breaks through{_what(leg)}.",
                f"Bore at least {show.length(THIN_SKIN_MM - left.value).text} less deep.",
                (leg.number,),
                left,
                show.length(THIN_SKIN_MM),
                socket.exit_at,
                where,
            )
        elif left.value < THIN_SKIN_MM:
            yield Finding(
                "thin_skin",
                "caution",
                "boring",
                f"Only {left.text} is left above the hole for leg {leg.number}.",
                f"Bore {show.length(THIN_SKIN_MM - left.value).text} less deep, or expect it to show.",
                (leg.number,),
                left,
                show.length(THIN_SKIN_MM),
                socket.exit_at,
                where,
            )


def _what(leg: LegStance) -> str:
    return " the batten into the top" if leg.bore.mouth_z else " the top"


def edges(piece: Piece, sockets: tuple[SocketPart, ...], stance: Stance, show: Show) -> Iterator[Finding]:
    """Holes too near the rim, on either face."""
    for socket, leg in zip(sockets, stance.legs, strict=True):
        wood = socket.edge.quantity
        least = show.length(EDGE_SHARE * leg.bore.size)
        if wood.value >= least.value:
            continue
        out = wood.value <= 0
        yield Finding(
            "edge_break" if out else "edge_distance",
            "stop" if out else "caution",
            "boring",
            f"The hole for leg {leg.number} runs out at the rim."
            if out
            else f"Only {wood.text} of wood stands between hole {leg.number} and the rim.",
            "Move the leg inward.",
            (leg.number,),
            wood,
            least,
            leg.place.at,
            f"supports.{leg.support}.placement",
        )


def meeting(piece: Piece, sockets: tuple[SocketPart, ...], stance: Stance, show: Show) -> Iterator[Finding]:
    """Holes that meet, or leave too little wood between them, anywhere in the top."""
    for (a, leg_a), (b, leg_b) in combinations(zip(sockets, stance.legs, strict=True), 2):
        wood = min(
            wood_between(piece, leg_a, leg_b, leg_a.place.at, leg_b.place.at),
            wood_between(piece, leg_a, leg_b, a.exit_at, b.exit_at),
        )
        if wood >= BRIDGE_MM:
            continue
        met = wood <= 0
        middle = ((a.exit_at[0] + b.exit_at[0]) / 2, (a.exit_at[1] + b.exit_at[1]) / 2)
        yield Finding(
            "legs_meet" if met else "thin_bridge",
            "stop" if met else "caution",
            "boring",
            f"Legs {leg_a.number} and {leg_b.number} meet inside the top."
            if met
            else f"Only {show.length(wood).text} is left between holes {leg_a.number} and {leg_b.number}.",
            "Set them further apart, lean them less, or bore thinner sockets.",
            (leg_a.number, leg_b.number),
            show.length(wood),
            show.length(BRIDGE_MM),
            middle,
            f"supports.{leg_a.support}.placement",
        )


def wood_between(piece: Piece, a: LegStance, b: LegStance, at_a: Flat, at_b: Flat) -> float:
    """Wood between two slanting holes where a face cuts them at `at_a` and `at_b`, mm.

    The centres' distance less each mouth's reach towards the other; a mouth is an ellipse of
    half axes D/2 and D / (2 cos rho). Never more than the true gap.
    """
    apart = math.dist(at_a, at_b)
    if apart == 0.0:
        return -a.bore.size
    u = ((at_b[0] - at_a[0]) / apart, (at_b[1] - at_a[1]) / apart)
    return apart - sum(_mouth(piece, leg, u) for leg in (a, b))


def _mouth(piece: Piece, leg: LegStance, u: Flat) -> float:
    half, lean = leg.bore.mouth / 2, leg.boring
    if lean.bearing is None:
        return half
    across = u[0] * deg.cos(lean.bearing) + u[1] * deg.sin(lean.bearing)
    if isinstance(support_of(piece, leg).joint, Shouldered):
        # A mortise has corners: half its length along the sightline, half its width square to it.
        beside = math.sqrt(max(0.0, 1.0 - across**2))
        return abs(across) * half / deg.cos(lean.resultant) + beside * leg.bore.across / 2
    return half * math.sqrt(1.0 - across**2 + (across / deg.cos(lean.resultant)) ** 2)


def tenons(piece: Piece, stance: Stance, show: Show) -> Iterator[Finding]:
    """Tenons thicker than their legs."""
    for index, support in piece.staked():
        legs = tuple(leg for leg in stance.legs if leg.support == index)
        numbers = tuple(leg.number for leg in legs)
        joint = support.joint
        if joint.socket > support.leg.at_top + 1e-9:
            yield Finding(
                "tenon_over_leg",
                "stop",
                "legs",
                "The tenon is thicker than the leg it is cut on.",
                "Bore a smaller socket or thicken the leg at the top.",
                numbers,
                show.length(joint.socket),
                show.length(support.leg.at_top),
                None,
                f"supports.{index}.joint.socket",
            )
