"""Marking out the pegs from above: where each enters the upper face, and the line it leans along."""

from __future__ import annotations

from splay.layout.marks import Mark, cross, line
from splay.layout.placing import RULE_MM, end, prick, side
from splay.layout.step import Step, carried_over
from splay.piece import Piece
from splay.quantity import Show
from splay.stance.pegs import FromAbove, pegs_from_above
from splay.stance.staked import Stance
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
        number, at = one.leg.number, one.at[:2]
        mark = work.peg_mark(number)
        acts.append(prick(mark, f"peg of leg {number}", "upper face", at, show))
        makes.append(mark)
        drawn += cross(at, 5.0)
        if one.peg.angle > _SQUARE_DEG:
            acts.append(_line(one, show))
            makes.append(work.sightline(number, "upper face"))
            x, y = at
            drawn.append(line((x - 30 * one.arrow[0], y - 30 * one.arrow[1]),
                              (x + 60 * one.arrow[0], y + 60 * one.arrow[1])))  # fmt: skip
    hollow = " A rule held level across the hollow." if piece.top.hollow is not None else ""
    words = "\n".join((*(said(act)[:1].upper() + said(act)[1:] for act in acts),
                       f"Before the legs go in; prick them.{hollow}"))  # fmt: skip
    step = Step(
        "Mark the pegs", words, (), tuple(drawn), tuple(acts), work.lettered("upper face"), tuple(makes),
        "upper face",
    )  # fmt: skip
    return [over, step]


def _line(one: FromAbove, show: Show) -> Sightline:
    """The line a peg leans along: its lower end runs the way the arrow points."""
    c, s = one.arrow
    steep = abs(s) > abs(c)
    along, toward = (end(s), side(c)) if steep else (side(c), end(s))
    over = RULE_MM * (abs(c / s) if steep else abs(s / c))
    number = one.leg.number
    return Sightline(
        work.sightline(number, "upper face"),
        work.peg_mark(number),
        f"peg of leg {number}",
        "upper face",
        along,
        show.length(RULE_MM),
        toward,
        show.closely(over),
    )
