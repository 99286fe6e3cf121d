"""Where a sawn end comes to lie on the part it joins: drawn on that part before anything is closed."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass

from splay.piece import Piece
from splay.piece.kinds import Lined
from splay.stance.body import Body, Pose, Side
from splay.stance.convex import Plane
from splay.stance.rods import joined_ends, mate_of
from splay.stance.side_taper import point, side_plane
from splay.stance.staked import Stance
from splay.stance.vectors import dot

SIDES: tuple[Side, ...] = ((1, 0), (-1, 0), (0, 1), (0, -1))
ON_MM = 0.05


@dataclass(frozen=True)
class Meets:
    """One sawn `end` of a part (`body`) on the part it joins (`mate`).

    It lies on that part's side `face`. Its own side `lead` makes a line across there, `down` along the
    corner between `face` and `edge` from the mate's first end, and `far` along the opposite corner, mm;
    `square` where that line lies square across the mate. Along it its side `beside` comes `across` from
    that corner, mm.
    """

    body: Body
    end: str
    mate: Body
    face: Side
    edge: Side
    lead: Side
    beside: Side
    down: float
    far: float
    square: bool
    across: float

    @property
    def flush(self) -> bool:
        """Whether that side lies flush with the mate's first end."""
        return max(abs(self.down), abs(self.far)) < ON_MM


def meets(piece: Piece, stance: Stance) -> tuple[Meets, ...]:
    """Every sawn end of a piece that comes to lie on a long side of another part."""
    by_key = {body.key: body for body in stance.bodies}
    made = []
    for body, end, _ in joined_ends(piece, stance):
        if not isinstance(piece.supports[body.support], Lined):
            continue
        mate = by_key.get(mate_of(body, end, stance))
        if mate is not None:
            made += list(_meets(body, end, mate))
    return tuple(made)


def _meets(body: Body, end: str, mate: Body) -> Iterator[Meets]:
    plane = _carried(body.finish if end == "finish" else body.start, body.pose, mate.pose)
    face = next(
        (
            side for side in SIDES
            if (own := side_plane(mate, side)) and dot(own.normal, plane.normal) < -1.0 + 1e-9
            and abs(own.offset + plane.offset) < ON_MM
        ),
        None,
    )  # fmt: skip
    if face is None:
        return
    mine = {side: _carried(side_plane(body, side), body.pose, mate.pose) for side in SIDES}
    lead = min(SIDES, key=lambda side: mine[side].normal[0])
    if body.sweep is not None and body.sweep.band and lead == (-body.sweep.down, 0):
        # Its upper edge ends somewhere down the sawn end: the lower corner is what can be laid on a line.
        lead = (body.sweep.down, 0)
    found = [_placed(body, end, mate, face, edge, lead, mine) for edge in _beside(face)]
    inside = [one for one in found if one.across > -ON_MM] or found
    yield min(inside, key=lambda one: (round(one.across, 3), mate.sides.named(one.edge)))


def _placed(
    body: Body, end: str, mate: Body, face: Side, edge: Side, lead: Side, mine: dict[Side, Plane]
) -> Meets:
    on, near = side_plane(mate, face), side_plane(mate, edge)
    away = side_plane(mate, (-edge[0], -edge[1]))
    beside = max(_beside(lead), key=lambda side: dot(mine[side].normal, near.normal))
    corner = point(on, near, mine[lead])
    at = point(on, mine[beside], mine[lead])
    across = math.dist(at, corner)
    opposite = point(on, away, mine[lead])
    return Meets(
        body,
        end,
        mate,
        face,
        edge,
        lead,
        beside,
        corner[0] - point(on, near, mate.start)[0],
        opposite[0] - point(on, away, mate.start)[0],
        abs(opposite[0] - corner[0]) < ON_MM,
        0.0 if across < ON_MM else across if near.beyond(at) < 0.0 else -across,
    )


def _beside(side: Side) -> tuple[Side, Side]:
    return ((0, 1), (0, -1)) if side[0] else ((1, 0), (-1, 0))


def _carried(plane: Plane, from_: Pose, to: Pose) -> Plane:
    """A plane of one stick's frame in another's."""
    normal = from_.turn_out(plane.normal)
    return to.inward(Plane(normal, plane.offset + dot(normal, from_.origin)))
