"""Every pattern of a piece."""

from __future__ import annotations

from collections.abc import Sequence

from splay.patterns.blocks import block_patterns, wedge_patterns
from splay.patterns.boards import board_patterns, mitre_patterns
from splay.patterns.cards import card_patterns
from splay.patterns.edges import edge_patterns
from splay.patterns.keys import key_patterns
from splay.patterns.legs import leg_patterns, wrap_patterns
from splay.patterns.pattern import Pattern
from splay.patterns.top import top_patterns
from splay.piece import Piece
from splay.plan import Plan
from splay.quantity import Show
from splay.shop import Shop
from splay.stance.members import members
from splay.timber.keys import Keys

SORTS = {
    "top": "The top and its holes",
    "edges": "Hollow and edge",
    "legs": "Legs",
    "wraps": "Cards round the legs",
    "boards": "Sides, frames, slab legs",
    "blocks": "Blocks and wedges",
    "cards": "Angle cards",
    "keys": "Keys over splits",
}
"""How patterns are chosen, and what each sort is called."""


def patterns_of(
    piece: Piece, shop: Shop, plan: Plan, splits: Sequence[tuple[str, Keys]] = ()
) -> tuple[Pattern, ...]:
    """The patterns of a piece as it is planned now, its readings followed; `splits` the keys of its wood.

    Lengths and angles are those of the plan, unrounded. The same piece gives the same patterns.
    """
    show = Show(shop.rounding.units())
    stance = plan.stance
    runs, _ = members(piece, stance)
    return (
        *top_patterns(piece, stance, show),
        *edge_patterns(piece, show),
        *leg_patterns(piece, stance, plan.parts, show),
        *wrap_patterns(piece, stance, runs, plan.members, show),
        *mitre_patterns(piece, stance, show),
        *board_patterns(piece, stance, plan.sticks, show),
        *block_patterns(stance, runs, shop, show),
        *wedge_patterns(piece, stance, show),
        *card_patterns(stance, plan.members, plan.sticks, show),
        *key_patterns(splits),
    )
