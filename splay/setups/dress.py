"""Set-up card and proof for a top that is bored thick and brought to its thickness then."""

from __future__ import annotations

from collections.abc import Iterator

from splay.piece import Piece
from splay.quantity import Show
from splay.setups.asker import Asker, Words
from splay.setups.card import Proof, SetUp
from splay.setups.plain_card import Bench, plain_card
from splay.setups.scenes import Dressed
from splay.work.does import Plain
from splay.work.proofs import proof_id
from splay.work.takes import TopThick
from splay.work.tops import PlanedOff

PLANE = Bench("dressing", "Plane, or a thicknesser that is wide enough")
_WORK = "dress"
_CARE = (
    "Clamp it so that it lies without rocking. In a machine light cuts, hands out of its mouth, and "
    "nothing standing out of the holes. Follow its own manual."
)


def dress_cards(piece: Piece, show: Show) -> Iterator[SetUp]:
    """One card where wood was left on the upper face until the holes are bored."""
    top = piece.top
    if not top.left_on:
        return
    off, left = show.closely(top.left_on), show.length(top.thickness)
    thick = show.figure(
        f"{_WORK}.thick",
        "Thick when it is bored",
        top.bored_thick,
        "t + o",
        show.input("t", "thickness", top.thickness),
        show.input("o", "left on until then", top.left_on),
    )
    yield plain_card(
        _WORK,
        "top",
        "dress",
        PLANE,
        "Plane the upper face to thickness",
        thick,
        "Left thick",
        Dressed(off.text, left.text),
        setting=left,
        does=(
            PlanedOff("upper face", "underside", off, left),
            Plain(
                "The holes' rims splinter where the iron runs out of them: cut towards the middle of each, "
                "or push a plug of soft wood in first, flush with the face."
            ),
        ),
        caution=_CARE,
        proofs=(proof_id("dressed"),),
    )


def dress_proofs(piece: Piece, ask: Asker) -> Iterator[Proof]:
    """How thick it came out."""
    top = piece.top
    if not top.left_on:
        return
    words = Words(
        "Top, thick when it is planed", TopThick(), "tenons are cut to stand level with what is there",
        "top", "top", "top, thick",
    )  # fmt: skip
    yield ask.length(("dressed",), ask.show.length(top.thickness), words)
