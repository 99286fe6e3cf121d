"""Splines through the top into the ends of leaning boards: notches in the boards, mortises in the top."""

from __future__ import annotations

from dataclasses import dataclass

from splay.piece import BoardSides, Piece, Splines
from splay.quantity import degrees as deg
from splay.stance.body import Body
from splay.stance.staked import Stance
from splay.stance.vectors import Vec

UNDER_MM = 0.01
FLUSH_MM = 3.0
"""A spline is left so much longer than it ends up, to be sawn off (common practice, no source)."""


@dataclass(frozen=True)
class Splined:
    """One spline: as thick as its board, it stands in a notch of the board's upper end, square to the
    board's faces at its bottom, and goes on through the top along the board.

    `low` and `high` are its ends front to back (y, top frame); `outer` and `inner` how far out its two
    faces come on the underside, `outer_up` and `inner_up` on the upper face, `side` on the left (-1) or
    the right (1), mm.
    """

    body: Body
    support: int
    number: int
    chosen: Splines
    side: int
    low: float
    high: float
    lean: float
    outer: float
    inner: float
    outer_up: float
    inner_up: float
    thick: float
    through: float

    @property
    def long(self) -> float:
        """Square at both ends, from the notch's bottom until its whole upper end stands out of the top,
        mm."""
        # Along the board: the notch, the top, what the slant of the board's end adds, what is sawn off.
        slant = self.thick * deg.tan(self.lean)
        proud = (self.chosen.proud + FLUSH_MM) / deg.cos(self.lean)
        return self.chosen.depth + self.through / deg.cos(self.lean) + slant + proud

    def corners(self) -> tuple[Vec, ...]:
        """Its eight corners, top frame: from the notch's bottom to where it is sawn off, level."""
        up: Vec = (-self.side * deg.sin(self.lean), 0.0, deg.cos(self.lean))
        down = -self.chosen.depth
        made: list[Vec] = []
        for y in (self.low, self.high):
            for out, more in ((self.outer, 0.0), (self.inner, self.thick * deg.tan(self.lean))):
                # The bottom lies square across: below the inner face's own corner by what the slant adds.
                run = down - more
                high = (self.through + self.chosen.proud) / deg.cos(self.lean)
                made += [
                    (self.side * out + up[0] * run, y, up[2] * run),
                    (self.side * out + up[0] * high, y, up[2] * high),
                ]
        return tuple(made)


def splined(piece: Piece, stance: Stance) -> tuple[Splined, ...]:
    """Every spline of a piece, side by side from the front."""
    made: list[Splined] = []
    for body in stance.bodies:
        support = piece.supports[body.support]
        chosen = support.splines if isinstance(support, BoardSides) else None
        if not isinstance(support, BoardSides) or chosen is None or not _carries_top(body):
            continue
        side = 1 if body.pose.origin[0] > 0.0 else -1
        t, lean, thick = piece.top.thickness, support.splay, support.thickness
        outer = support.length / 2
        inner = outer - thick / deg.cos(lean)
        shift = t * deg.tan(lean)
        for number, y in enumerate(_middles(support, chosen), 1):
            made.append(
                Splined(
                    body,
                    body.support,
                    number,
                    chosen,
                    side,
                    y - chosen.width / 2,
                    y + chosen.width / 2,
                    lean,
                    outer,
                    inner,
                    outer - shift,
                    inner - shift,
                    thick,
                    t,
                )
            )
    return tuple(made)


def _carries_top(body: Body) -> bool:
    """Whether a part is a board that ends under the top: the whole side, or the long one of two."""
    return body.role == "side" and abs(body.around[1][2]) < UNDER_MM


def _middles(support: BoardSides, chosen: Splines) -> tuple[float, ...]:
    """The middles of a side's splines, from the front, evenly from edge to edge (y), mm."""
    half = support.width / 2 - chosen.from_edges
    if chosen.count == 1:
        return (0.0,)
    return tuple(-half + 2 * half * k / (chosen.count - 1) for k in range(chosen.count))
