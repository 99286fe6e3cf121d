"""Wood that is too wet, said at the step it matters at."""

from __future__ import annotations

from splay.timber.choices import WoodChoice, read_choice
from splay.timber.judged import wet_said
from workshop.pieces.models import PieceRow
from workshop.timber.models import WoodRow
from workshop.timber.rows import item_of


def wet_for(row: PieceRow) -> str:
    """That some of the wood reserved for a piece is too wet; empty where none is."""
    stock = [item_of(one) for one in row.stock.all()]
    if not stock:
        return ""
    kept = WoodRow.objects.filter(piece=row).first()
    choice = read_choice(kept.document) if kept and kept.document else WoodChoice()
    return wet_said(stock, choice.home_c, choice.home_rh)
