"""Every card that shapes square stock without ending it."""

from __future__ import annotations

from splay.parts.stick import StickPart
from splay.piece import Piece
from splay.quantity import Show
from splay.setups.card import SetUp
from splay.setups.loose_joints import loose_joints
from splay.setups.stick_shapes import stick_shapes
from splay.shop import Shop
from splay.stance.body import Body


def shaping_cards(
    piece: Piece,
    sticks: tuple[StickPart, ...],
    bodies: tuple[Body, ...],
    shop: Shop,
    show: Show,
) -> tuple[SetUp, ...]:
    """One card for each owned tool and each thing it shapes."""
    made: list[SetUp] = []
    for tool in shop.owned():
        made += stick_shapes(sticks, bodies, tool, show)
        made += loose_joints(piece, sticks, bodies, tool, show)
    return tuple(made)
