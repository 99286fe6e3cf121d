"""What a joint comes to at one leg: how deep the hole is there, how long the tenon."""

from __future__ import annotations

from dataclasses import dataclass

from splay.piece import Battened, Blind, DowelScrew, Joint, Reamed, Shouldered, Top
from splay.quantity import degrees as deg
from splay.stance.hollow import way_out
from splay.stance.vectors import Flat, Vec

THROUGH_MM = 1e-6


@dataclass(frozen=True)
class Bore:
    """One hole and its tenon, mm along the axis unless said otherwise.

    `mouth_z` is the level of the face it enters, 0 for the underside; `size` its diameter (or
    longer side) there, `tip` at the far end of the tenon; `through` whether it comes out;
    `deep` from the mouth to the flat of the bit or the upper face; `tenon` the length of leg in
    it; `limit` the wood it is bored into, square to the face; `across` a flat tenon's shorter side.
    """

    mouth_z: float
    size: float
    tip: float
    through: bool
    deep: float
    tenon: float
    limit: float
    across: float


def mouth_level(joint: Joint) -> float:
    """The level of the face legs are bored into: the underside, or the battens'."""
    return -joint.batten_thickness if isinstance(joint, Battened) else 0.0


def bore_of(top: Top, joint: Joint, at: Flat, d: Vec) -> Bore:
    """The hole of a leg at `at` whose axis runs along `d` from top to floor."""
    z, size = mouth_level(joint), joint.socket
    if isinstance(joint, Battened):
        return Bore(z, size, size, False, joint.depth, joint.depth, joint.batten_thickness, size)
    out = way_out(top, at, d)
    limit = out * -d[2]
    if isinstance(joint, Blind):
        return Bore(z, size, size, False, joint.depth, joint.depth, limit, size)
    if isinstance(joint, DowelScrew):
        return Bore(z, joint.core, joint.core, False, joint.into_top, 0.0, limit, joint.core)
    if isinstance(joint, Shouldered):
        through = joint.depth >= out - THROUGH_MM
        deep = min(joint.depth, out)
        return Bore(z, size, size, through, deep, joint.depth, limit, joint.across)
    tenon = out + joint.proud
    tip = size
    if isinstance(joint, Reamed):
        tip = size - 2.0 * deg.tan(joint.included / 2.0) * tenon
    return Bore(z, size, tip, True, out, tenon, limit, size)
