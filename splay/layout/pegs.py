"""Marking out the pegs from above: where each enters the upper face, and the line it leans along."""

from __future__ import annotations

from splay.layout.marks import Mark, cross, line
from splay.layout.placing import drawn_by, line_by, prick
from splay.layout.step import Step, carried_over
from splay.piece import Piece
from splay.quantity import Show
from splay.stance.outline import polygon
from splay.stance.pegs import FromAbove, pegs_from_above
from splay.stance.staked import Stance
from splay.stance.vectors import Flat
from splay.work import marks as work
from splay.work.seat import Act, Sightline, said

_SQUARE_DEG = 1e-6


def peg_steps(piece: Piece, stance: Stance, show: Show) -> list[Step]:
    """After the hollow is cut, from the middle lines squared over onto the upper face."""
    pegs = list(pegs_from_above(piece, stance))
    if not pegs:
        return []
    over = carried_over(piece, "upper face", show)
    acts: list[Act] = []
    drawn: list[Mark] = []
    makes: list[work.Mark] = []
    for one in pegs:
        if one.peg.place == "through_socket":
            # Its mark and line are made when its socket is there; the middle lines are leaned on then.
            continue
        number, at = one.leg.number, one.at[:2]
        mark = work.peg_mark(number)
        acts.append(prick(mark, f"peg of leg {number}", "upper face", at, show))
        makes.append(mark)
        drawn += cross(at, 5.0)
        if one.peg.angle > _SQUARE_DEG:
            acts.append(line_of(piece, one, at, show))
            makes.append(work.sightline(number, "upper face"))
            x, y = at
            drawn.append(line((x - 30 * one.arrow[0], y - 30 * one.arrow[1]),
                              (x + 60 * one.arrow[0], y + 60 * one.arrow[1])))  # fmt: skip
    if not acts:
        return [over]
    hollow = " A rule held level across the hollow." if piece.top.hollow is not None else ""
    words = "\n".join((*(said(act)[:1].upper() + said(act)[1:] for act in acts),
                       f"Before the legs go in; prick them.{hollow}"))  # fmt: skip
    step = Step(
        "Mark the pegs", words, (), tuple(drawn), tuple(acts), work.lettered("upper face"), tuple(makes),
        "upper face",
    )  # fmt: skip
    return [over, step]


def line_of(piece: Piece, one: FromAbove, at: Flat, show: Show) -> Sightline:
    """The line a peg leans along through a place on it: its lower end runs the way the arrow points."""
    number = one.leg.number
    told = drawn_by(polygon(piece.top.outline), at, one.arrow)
    mark, through = work.sightline(number, "upper face"), work.peg_mark(number)
    return line_by(told, mark, through, f"peg of leg {number}", "upper face", show)
