"""What a joint comes to at one leg: how deep the hole is there, how long the tenon."""

from __future__ import annotations

from dataclasses import dataclass

from splay.piece import Joint, Top
from splay.stance.hollow import way_out
from splay.stance.vectors import Flat, Vec


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
    return -joint.below


def bore_of(top: Top, joint: Joint, at: Flat, d: Vec) -> Bore:
    """The hole of a leg at `at` whose axis runs along `d` from top to floor."""
    out = way_out(top, at, d)
    hole = joint.hole(out)
    return Bore(
        mouth_z=mouth_level(joint),
        size=hole.size,
        tip=hole.tip,
        through=hole.through,
        deep=hole.deep,
        tenon=hole.tenon,
        limit=joint.below or out * -d[2],
        across=hole.across,
    )
