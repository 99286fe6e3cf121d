"""Dowels driven from outside into sawn ends, right through the parts those ends join."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from splay.piece import Dowels, Piece
from splay.piece.kinds import Lined, driven_through
from splay.stance.body import shares
from splay.stance.meets import Meets
from splay.stance.side_taper import point, side_plane, wood_beyond
from splay.stance.vectors import Vec, along, between, dot, length, unit


@dataclass(frozen=True)
class Through:
    """One of the `dowels` of a support.

    `at` is where its axis crosses the joint and `way` its direction on into the end, of unit length, top
    frame; on the side that the end lies on it stands `aside` along the line of the end's leading side, from
    the corner its other side comes to, and `down` square off that line. `wood` is what it goes through to
    the joint, `deep` the whole hole from outside: one for all of a joint, so that where the outside slants
    each goes at least as far into the end as was chosen; mm.
    """

    meets: Meets
    dowels: Dowels
    number: int
    at: Vec
    way: Vec
    aside: float
    down: float
    wood: float
    deep: float

    @property
    def outside(self) -> Vec:
        """Where its axis comes in from outside."""
        return along(self.at, self.way, -self.wood)


def through_dowels(piece: Piece, joins: tuple[Meets, ...]) -> tuple[Through, ...]:
    """Every one of a piece, by where its ends come to lie."""
    return tuple(
        one
        for each in joins
        if driven_through(piece.supports[each.body.support])
        for one in _of(piece, each)
    )


def _of(piece: Piece, one: Meets) -> Iterator[Through]:
    support, body = piece.supports[one.body.support], one.body
    assert isinstance(support, Lined)
    dowels, plane = support.dowels, body.finish if one.end == "finish" else body.start
    lead, beside = side_plane(body, one.lead), side_plane(body, one.beside)
    away = side_plane(body, (-one.beside[0], -one.beside[1]))
    corner, other = point(plane, lead, beside), point(plane, lead, away)
    line = unit(between(corner, other))
    n = plane.normal
    out = body.pose.turn_out(n)
    spots: list[Vec] = [((plane.offset - n[1] * y) / n[0], y, 0.0) for y in shares(body, dowels.count)]
    woods = [wood_beyond(one.mate, body.pose.out(at), out) for at in spots]
    for k, (at, wood) in enumerate(zip(spots, woods, strict=True), start=1):
        off = between(corner, at)
        aside = dot(off, line)
        yield Through(
            one,
            dowels,
            k,
            body.pose.out(at),
            (-out[0], -out[1], -out[2]),
            aside,
            length(between((line[0] * aside, line[1] * aside, line[2] * aside), off)),
            wood,
            max(woods) + dowels.depth,
        )
