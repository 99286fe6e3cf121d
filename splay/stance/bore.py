"""What a joint comes to at one leg: how deep the hole is there, how long the tenon."""

from __future__ import annotations

import math
from dataclasses import dataclass

from splay.piece import Joint, Leg, Top
from splay.quantity import degrees as deg
from splay.stance.hollow import way_out
from splay.stance.vectors import Flat, Vec, angle

UPWARD: Vec = (0.0, 0.0, 1.0)


@dataclass(frozen=True)
class Bore:
    """One hole and its tenon, mm along the axis unless said otherwise.

    `mouth_z` is the level of the face it enters, 0 for the underside; `size` its diameter (or
    longer side) there, `tip` at the far end of the tenon; `through` whether it comes out;
    `deep` from the mouth to the flat of the bit or the upper face; `tenon` the length of leg in
    it; `limit` the wood it is bored into, square to the face; `across` a flat tenon's shorter side; `done`
    how long the tenon is when it has been sawn off, where it is.
    """

    mouth_z: float
    size: float
    tip: float
    through: bool
    deep: float
    tenon: float
    limit: float
    across: float
    done: float
    recess: float = 0.0
    wide: float = 0.0
    """How deep along the axis, and how wide, the leg's own end is let in, mm; nought where it is not."""

    @property
    def mouth(self) -> float:
        """How wide it is where it begins, mm: a recess, or the hole itself."""
        return max(self.size, self.wide)

    @property
    def proud(self) -> float:
        """How far it stands out of the upper face when all is done, along the axis, mm; none of a blind
        one."""
        return max(0.0, self.done - self.deep) if self.through else 0.0

    @property
    def left_on(self) -> float:
        """What is sawn off once the leg is home, along the axis, mm; nought where it stays as it was
        cut."""
        return max(0.0, self.tenon - self.done)


def over_corners(leg: Leg) -> float:
    """How wide a leg is at the top over its corners, mm: what a round recess takes in."""
    return (
        leg.at_top * {"round": 1.0, "octagon": 1.0 / deg.cos(22.5), "square": math.sqrt(2.0)}[leg.section]
    )


def mouth_level(joint: Joint) -> float:
    """The level of the face legs are bored into: the underside, or the battens'."""
    return -joint.below


def bore_of(top: Top, joint: Joint, leg: Leg, at: Flat, d: Vec) -> Bore:
    """The hole of a leg at `at` whose axis runs along `d` from top to floor."""
    out = way_out(top, at, d)
    hole = joint.hole(out, angle(UPWARD, (-d[0], -d[1], -d[2])), over_corners(leg))
    return Bore(
        mouth_z=mouth_level(joint),
        size=hole.size,
        tip=hole.tip,
        through=hole.through,
        deep=hole.deep,
        tenon=hole.tenon,
        limit=joint.below or out * -d[2],
        across=hole.across,
        done=hole.done,
        recess=hole.recess,
        wide=hole.wide,
    )
