"""One step of the marking-out, and the middle lines every one of them is measured from."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated

from splay.layout.marks import Mark, line
from splay.layout.placing import letters
from splay.piece import Piece
from splay.quantity import Figure, Show
from splay.stance.outline import extent
from splay.work import marks as work
from splay.work.seat import Act, said


@dataclass(frozen=True)
class Step:
    """One step: what is done, the distances to set, and what it draws.

    `acts` are what is struck, as data, and `words` say them; `uses` and `makes` the marks leaned on and
    left; `face` the face of the seat it is drawn on, which is up then; `operation` what it is part of in
    the order of work.
    """

    title: str
    words: str
    figures: tuple[Figure, ...]
    marks: tuple[Mark, ...]
    acts: Annotated[tuple[Act, ...], work.UNSENT] = ()
    uses: Annotated[tuple[work.Mark, ...], work.UNSENT] = ()
    makes: Annotated[tuple[work.Mark, ...], work.UNSENT] = ()
    face: str = "underside"
    operation: str = "lay_out"


def middle_lines(piece: Piece) -> tuple[Mark, ...]:
    """Both middle lines, a little past the outline."""
    a, b = extent(piece.top.outline)
    return line((-1.08 * a, 0.0), (1.08 * a, 0.0)), line((0.0, -1.08 * b), (0.0, 1.08 * b))


def carried_over(piece: Piece, face: str, show: Show) -> Step:
    """The middle lines of the underside on another face of the seat, with their words."""
    act = letters(piece, face, show)
    return Step(
        f"Carry the middle lines over to the {face}",
        f"Square them over the edges. {said(act)}",
        (),
        middle_lines(piece),
        (act,),
        work.lettered(),
        work.lettered(face),
        face,
    )
