"""A socket's mouth eased for the cove of its leg: what is turned on the leg, what is cut on the hole.

Both are round about the hole's own axis: along it, mm, counted from where it meets the face that the leg
comes out of, positive out of the wood; `s` is half the hole, out from the axis.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

from splay.piece import StakedLegs, Support
from splay.quantity import degrees as deg
from splay.stance.vectors import Flat

PAST_SHOULDER_MM = 0.5
"""A leg this much thicker than its tenon has a shoulder that must clear the slanted mouth."""
LIP_MM = 1e-6
WORTH_MM = 0.5
"""An easing that makes the mouth longer by less than this is none."""


@dataclass(frozen=True)
class Mouth:
    """One leg's neck and the mouth for it. `lean` of the axis off square to the face, degrees; `half` the
    hole's, `thick` half the leg's thickness at the top, `cove` its radius, `rounds` the radius cut on the
    mouth; mm."""

    lean: float
    half: float
    thick: float
    cove: float
    rounds: float

    @property
    def high(self) -> float:
        """The cove along the leg, from the tenon to the leg's thickness."""
        return self._high(self.cove)

    def _high(self, radius: float) -> float:
        """How long an arc from the hole's wall is along the axis until it is out at the leg's thickness, or
        a quarter is done."""
        short = self.half + radius - self.thick
        return radius if short <= 0.0 else math.sqrt(max(0.0, radius**2 - short**2))

    @property
    def ends(self) -> float:
        """Where the leg is as thick as it is: there it clears the slanted mouth all round."""
        return self.thick * deg.tan(self.lean)

    @property
    def begins(self) -> float:
        """Where the cove leaves the tenon."""
        return self.ends - self.high

    @property
    def starts(self) -> float:
        """Where the rounding leaves the hole's wall: a wider round deeper, so that both come out at one
        place; a narrower one where the cove does."""
        return min(self.begins, self.ends - self._high(self.rounds))

    @property
    def deeper(self) -> float:
        """How much deeper that is than where the cove begins."""
        return self.begins - self.starts

    @property
    def left(self) -> float:
        """The widest gap between mouth and cove: between two arcs along the line through their middles
        where the mouth is rounded wider; at its rim where it is rounded narrower."""
        more = self.rounds - self.cove
        if more >= 0.0:
            return math.hypot(self.deeper, more) - more
        out = self.rim(1.0)
        on = (out * deg.tan(self.lean) - self.begins, out - self.half - self.cove)
        return max(0.0, self.cove - math.hypot(*on))

    @property
    def longer(self) -> float:
        """The mouth on its face, over all, the way the leg leans."""
        return sum(self.rim(side) for side in (1.0, -1.0)) / deg.cos(self.lean)

    @property
    def plain(self) -> float:
        """The same before it is eased."""
        return 2.0 * self.half / deg.cos(self.lean)

    @property
    def worth(self) -> bool:
        """Whether anything of the cove comes within the wood."""
        return self.longer - self.plain > WORTH_MM

    @property
    def fits(self) -> bool:
        """Whether a cutter that rounds so gets there: its lip stays out of the wood that reaches furthest
        up it. A narrower one would leave that in the cove's way, a wider one cut a step into the face."""
        lip = (self.half + self.rounds) * deg.tan(self.lean)
        return lip <= self.starts + self.rounds + LIP_MM

    def neck(self, steps: int = 12) -> tuple[Flat, ...]:
        """The cove's own line from the tenon to the leg's thickness: along the axis, and out from it."""
        turn = math.asin(min(1.0, self.high / self.cove))
        return tuple(
            (self.begins + self.cove * math.sin(t), self.half + self.cove * (1.0 - math.cos(t)))
            for t in (turn * k / steps for k in range(steps + 1))
        )

    def rounding(self, side: float, steps: int = 12) -> tuple[Flat, ...]:
        """The mouth's line from the hole's wall to its rim, on the side of rim() that is asked for: along
        the axis, and out from it. One place where the face cuts the wall before the round begins."""
        rim = self.rim(side)
        turn = math.acos(max(0.0, min(1.0, (self.half + self.rounds - rim) / self.rounds)))
        if turn <= 0.0:
            return ((side * rim * deg.tan(self.lean), rim),)
        return tuple(
            (self.starts + self.rounds * math.sin(t), self.half + self.rounds * (1.0 - math.cos(t)))
            for t in (turn * k / steps for k in range(steps + 1))
        )

    def rim(self, side: float) -> float:
        """How far out from the axis the mouth's rim lies in the plane of the lean, towards where the wood
        reaches further out along the axis (+1), or the other way."""
        t = side * deg.tan(self.lean)
        if self.half * t <= self.starts:
            return self.half
        middle = self.half + self.rounds
        # The round's circle, cut by the face: out = distance from the axis, face at out * t along it.
        a, b = 1.0 + t * t, self.starts * t + middle
        c = self.starts**2 + middle**2 - self.rounds**2
        return (b - math.sqrt(max(0.0, b * b - a * c))) / a


def has_eased_mouth(support: StakedLegs) -> bool:
    """Whether a support's legs have a cove that is to come within their holes' mouths."""
    leg = support.leg
    return (
        leg.neck == "cove"
        and leg.eased
        and support.joint.tenon == "round"
        and leg.at_top > support.joint.socket + PAST_SHOULDER_MM
    )


def mouth_of(support: StakedLegs, lean: float, rounds: float | None) -> Mouth:
    """The mouth of one leg with that lean; `rounds` what its cutter cuts, None for one made to the cove."""
    leg, half = support.leg, support.joint.socket / 2.0
    return Mouth(lean, half, leg.at_top / 2.0, leg.cove, leg.cove if rounds is None else rounds)


def nearest_round(support: StakedLegs, lean: float, radii: tuple[float, ...]) -> float | None:
    """Of the rounding cutters in the drawer the one that comes nearest to a support's cove and fits; None
    where none does."""
    fit = (radius for radius in radii if mouth_of(support, lean, radius).fits)
    return min(fit, key=lambda radius: abs(radius - support.leg.cove), default=None)


def easing_of(support: Support, lean: float, radii: tuple[float, ...]) -> Mouth | None:
    """The eased mouth of a leg with that lean and what its drawer rounds; None where it stays as bored."""
    if not isinstance(support, StakedLegs) or not has_eased_mouth(support):
        return None
    mouth = mouth_of(support, lean, nearest_round(support, lean, radii))
    return mouth if mouth.worth else None
