"""Wedges in tenons: which way their slots lie, how deep, how thick they are and what they open."""

from __future__ import annotations

from dataclasses import dataclass

from splay.piece import Blind, Joint, Piece, Wedge
from splay.quantity import degrees as deg
from splay.stance.lines import slot_turn
from splay.stance.staked import LegStance, support_of

STOP_MM = 12.0
"""A wedge's slot ends this far short of the depth ring (common practice, no source: half an inch)."""
OVER_MM = 12.0
"""A wedge is made so much longer than its slot is deep: what is left is sawn off (common practice)."""
PLAY_MM = 2.0
"""A wedge that vanishes in a blind hole is so much shorter than its slot is deep (common practice)."""
MIDDLE_MM = 1e-6


@dataclass(frozen=True)
class WedgeMade:
    """One leg's wedge, mm: its slot `deep` down the tenon, `wide` along the slot, `long`, `butt` its thick
    end, `home` its thickness at the tenon's end once it is driven, `opens` how far the tenon's end is then
    spread; `fox` where it is driven by the hole's own bottom."""

    wedge: Wedge
    deep: float
    wide: float
    long: float
    butt: float
    home: float
    fox: bool

    @property
    def opens(self) -> float:
        """How much wider the tenon's end is then, mm; nought for a wedge no thicker than its slot."""
        return max(0.0, self.home - self.wedge.kerf)


def wedge_of(joint: Joint) -> Wedge | None:
    """The wedge of a joint, where it has one."""
    return joint.wedged


def slot_deep(leg: LegStance, in_top: float) -> float:
    """How far down the tenon a slot is sawn, mm: short of the depth ring, at least half the tenon."""
    ring = in_top - leg.bore.size / 2.0 * deg.tan(leg.boring.resultant)
    return max(ring - STOP_MM, in_top / 2.0)


def wedge_made(piece: Piece, leg: LegStance) -> WedgeMade | None:
    """A leg's wedge; None where its tenon has none.

    A taper of the whole angle a is e + 2 · x · tan (a / 2) thick so far from its thin edge e.
    """
    joint = support_of(piece, leg).joint
    wedge = wedge_of(joint)
    if wedge is None or leg.boring.bearing is None:
        return None
    fox = isinstance(joint, Blind)
    deep = slot_deep(leg, leg.bore.tenon)
    within = deep - PLAY_MM if fox else deep
    long = within if fox else deep + OVER_MM
    gains = 2.0 * deg.tan(wedge.taper / 2.0)
    return WedgeMade(
        wedge=wedge,
        deep=deep,
        wide=leg.bore.size + (0.0 if fox else wedge.over),
        long=long,
        butt=wedge.edge + gains * long,
        home=wedge.edge + gains * within,
        fox=fox,
    )


def slot_bearing(piece: Piece, leg: LegStance) -> float:
    """The bearing a slot lies along in the seat, degrees: across its grain, or towards its middle."""
    wedge = wedge_of(support_of(piece, leg).joint)
    x, y = leg.socket[:2]
    if wedge is None or wedge.lies == "across_grain" or abs(x) + abs(y) < MIDDLE_MM:
        return piece.top.grain + 90.0
    return deg.atan2(y, x)


def slot_on_end(piece: Piece, leg: LegStance) -> float:
    """Turn from the outer line to the slot on the tenon's end, degrees, clockwise seen at that end."""
    return slot_turn(leg, slot_bearing(piece, leg) - 90.0)
