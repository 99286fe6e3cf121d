"""Where something goes under the feet: one in the middle of each, on the sawn end."""

from __future__ import annotations

from dataclasses import dataclass
from itertools import pairwise

import shapely

from splay.piece import Piece
from splay.stance.body import Body
from splay.stance.contacts import ON_FLOOR_MM
from splay.stance.staked import Stance, support_of
from splay.stance.vectors import Flat


@dataclass(frozen=True)
class Bearing:
    """One foot as it meets the floor: its middle (floor frame, mm), whose it is, how narrow it is, mm."""

    at: Flat
    part: str
    name: str
    narrow: float


def bearings(piece: Piece, stance: Stance) -> tuple[Bearing, ...]:
    """Every foot of a piece: one a leg, one for each place where a squared part touches the floor."""
    made = [
        Bearing(
            leg.foot_floor[:2], f"leg.{leg.number}", f"leg {leg.number}", support_of(piece, leg).leg.at_foot
        )
        for leg in stance.legs
    ]
    # Two boards glued to one side stand on what they have between them.
    standing: dict[tuple[int, str], list[Body]] = {}
    for body in stance.bodies:
        if body.stands:
            standing.setdefault((body.support, body.whole if body.glued else body.key), []).append(body)
    for mates in standing.values():
        flat = []
        for solid in (solid for body in mates for solid in body.stood):
            for face in solid:
                ring = [stance.floor.to_floor(p) for p in face.corners]
                if len(ring) > 2 and all(abs(p[2]) < ON_FLOOR_MM for p in ring):
                    flat.append(shapely.Polygon([(p[0], p[1]) for p in ring]).buffer(0.01))
        whole = shapely.union_all(flat) if flat else shapely.Polygon()
        for shape in getattr(whole, "geoms", [whole]):
            if not shape.is_empty:
                sides = shapely.oriented_envelope(shape).exterior.coords
                narrow = min(shapely.Point(a).distance(shapely.Point(b)) for a, b in pairwise(sides))
                at = (shape.centroid.x, shape.centroid.y)
                made.append(Bearing(at, mates[0].key, mates[0].whole, narrow))
    return tuple(made)
