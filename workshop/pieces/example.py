"""A finished piece to look into and throw away: every proof answered, as a steady hand would."""

from __future__ import annotations

from itertools import cycle

from django.db import transaction

from splay.piece import read_piece
from splay.piece.rounded import in_round_figures
from splay.piece.starters import starter
from splay.plan import plan
from splay.quantity import Show
from splay.setups.card import Proof
from splay.shop import Shop
from workshop.pieces import actions
from workshop.pieces.models import PieceRow

NAME = "Lantern stool, an example"
_OFF = (0.0, 0.1, -0.1, 0.1, 0.0, -0.1)
"""How far its readings lie from what was wanted, mm or degrees: each near enough."""


@transaction.atomic
def hang_example(shop: Shop, maker: actions.Maker) -> PieceRow:
    """Hang the finished example on the rack."""
    made = in_round_figures(starter("round_four"), shop.rounding.system)
    piece = made.model_copy(update={"name": actions.fresh_name(NAME, maker)})
    row = actions.put_on_rack(piece, maker)
    off = cycle(_OFF)
    # One station after the other: what is asked at the next follows from what was read.
    for station in ("top", "boring", "legs", "stretchers", "level"):
        asked = plan(read_piece(actions.document_of(row).document), shop, actions.readings_of(row, shop))
        for proof in asked.proofs:
            if proof.station == station:
                typed = _typed(proof, next(off), Show(shop.rounding.units()))
                taken = actions.Taken(typed, shop.rounding.system, tool=proof.read_on, kind=proof.kind)
                actions.answer(row.pk, proof.id, taken, shop, maker)
    # Nobody's hand is judged by them.
    row.readings.update(by=None)
    row.reading_events.update(by=None)
    return actions.finish(row.pk, True, maker)


def _typed(proof: Proof, off: float, show: Show) -> str:
    value = proof.expected.value + off
    return f"{value:.1f}" if proof.expected.unit == "deg" else show.closely(value).text
