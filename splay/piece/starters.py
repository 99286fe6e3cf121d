"""Pieces to start from: whole and sound, so that the first drag already answers."""

from __future__ import annotations

from splay.errors import BadInput, Fault, shorten
from splay.piece.angles import Resultant, SplayRake
from splay.piece.legs import Blind, Leg, StakedLegs, Through
from splay.piece.model import Piece
from splay.piece.places import Circle, Insets, Triangle
from splay.piece.tops import Oval, Rectangle, Round, RoundedTriangle, Top

_STOOL_LEG = Leg(at_top=42, at_foot=30)


def _ring(count: int) -> StakedLegs:
    return StakedLegs(
        placement=Circle(count=count, radius=105, first=90 if count == 3 else 45),
        angles=(Resultant(resultant=14),),
        leg=_STOOL_LEG,
        joint=Through(socket=28, proud=6),
    )


def _corners(inset: float, splay: float, rake: float) -> StakedLegs:
    return StakedLegs(
        placement=Insets(from_ends=inset, from_edges=inset * 0.7),
        angles=(SplayRake(splay=splay, rake=rake),),
        leg=_STOOL_LEG,
        joint=Blind(socket=30, depth=28),
    )


def _pieces() -> dict[str, Piece]:
    round_top = Top(outline=Round(diameter=340), thickness=40)
    triangle = RoundedTriangle(side=240, arc=290)
    return {
        "round_three": Piece(name="Round stool", height=450, top=round_top, supports=(_ring(3),)),
        "round_four": Piece(name="Round stool", height=450, top=round_top, supports=(_ring(4),)),
        "triangle": Piece(
            name="Three-cornered stool",
            height=450,
            top=Top(outline=triangle, thickness=42),
            supports=(
                StakedLegs(
                    placement=Triangle(side=190),
                    angles=(Resultant(resultant=13),),
                    leg=_STOOL_LEG,
                    joint=Through(socket=28, proud=5),
                ),
            ),
        ),
        "bench": Piece(
            name="Bench",
            use="bench",
            height=450,
            top=Top(outline=Rectangle(length=980, width=300, corner=25), thickness=44),
            supports=(_corners(105, 13, 12),),
        ),
        "table": Piece(
            name="Small table",
            use="table",
            height=560,
            top=Top(outline=Oval(length=620, width=430), thickness=38),
            supports=(_corners(150, 10, 8),),
        ),
    }


def starter(name: str) -> Piece:
    """The starting piece of that name; BadInput for a name there is none of."""
    known = _pieces()
    if name not in known:
        raise BadInput(
            Fault("start", shorten(name), ", ".join(known), "Choose one of these to start from.")
        )
    return known[name]
