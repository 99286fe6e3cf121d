"""The same piece again, with the leans its holes really have."""

from __future__ import annotations

from splay.piece import Piece, Resultant
from splay.plan import Plan


def as_built(piece: Piece, plan: Plan) -> Piece:
    """The piece with every leg's lean as it was read, where any leg of a set was read: what stood well is
    built again. Nothing else changes; sets of which nothing was read stay as they were chosen."""
    supports = list(piece.supports)
    for index, support in piece.staked():
        legs = [leg for leg in plan.stance.legs if leg.support == index]
        if not any(leg.measured for leg in legs):
            continue
        angles = tuple(
            Resultant(
                resultant=round(leg.boring.resultant, 2),
                sightline=round(leg.boring.bearing or 0.0, 4),
                measured_from="bearing",
            )
            for leg in sorted(legs, key=lambda leg: leg.index)
        )
        supports[index] = support.model_copy(update={"scope": "each", "angles": angles})
    return piece.model_copy(update={"supports": tuple(supports)})
