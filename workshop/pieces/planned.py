"""Plans worked out before: another station, another device or the bench asks for the same one again."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from functools import lru_cache

from splay.piece import Piece
from splay.plan import Plan, plan
from splay.reading import Reading
from splay.setups.asker import Spread
from splay.shop import Shop

MOST = 16
"""Plans kept in each worker, a megabyte or less each: those of the pieces that are open."""


def planned(
    piece: Piece,
    shop: Shop,
    readings: Iterable[Reading] = (),
    *,
    levelling: bool = True,
    live: bool = False,
    spreads: Mapping[str, Spread] | None = None,
) -> Plan:
    """plan() of the same, kept: a plan is worked out from nothing but what it was asked for, and each of
    its stages once. BadInput and CannotBuild as there."""
    if live:
        # The next move of a drag asks for another one.
        return plan(piece, shop, readings, levelling=levelling, live=True, spreads=spreads)
    own = tuple(sorted((spreads or {}).items()))
    return _planned(piece, shop, tuple(readings), levelling, own)


@lru_cache(MOST)
def _planned(
    piece: Piece,
    shop: Shop,
    readings: tuple[Reading, ...],
    levelling: bool,
    spreads: tuple[tuple[str, Spread], ...],
) -> Plan:
    return plan(piece, shop, readings, levelling=levelling, spreads=dict(spreads))
