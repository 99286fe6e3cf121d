"""Tools set to the nearest mark of their scale: what comes off is out by no more than the division says."""

from __future__ import annotations

import random
from dataclasses import replace

from django.test import SimpleTestCase

from splay.piece import Piece
from splay.piece.starters import STARTS, starter
from splay.plan import Plan
from splay.setups.card import SetUp
from splay.shop import Shop, workbench
from tests.bench.judged import Judge, Tally
from tests.bench.pieces import buildable
from tests.core.make import planned, with_cards
from tests.core.test_blind import NEAR_DEG

ANGLES = ("hole deg", "cut deg")


class Listed(Tally):
    """Keeps every angle that was held, with its card."""

    def __init__(self) -> None:
        super().__init__()
        self.all: list[tuple[float, str]] = []

    def hold(self, what: str, off: float, where: str) -> None:
        super().hold(what, off, where)
        if what in ANGLES:
            self.all.append((off, where))


def to_marks(card: SetUp) -> SetUp:
    """A card whose dials are set to the nearest mark each."""
    dials = tuple(replace(one, reading=one.mark) for one in card.dials)
    return replace(card, dials=dials, setting=dials[0].reading) if dials else card


class NearestMark(SimpleTestCase):
    def within(self, made: Judge, plan: Plan, name: str) -> int:
        made.tally = listed = Listed()
        made.all()
        halves = {card.id: sum(one.step for one in card.dials) / 2.0 for card in plan.setups if card.dials}
        met = 0
        for off, where in listed.all:
            half = halves.get(where.partition(" ")[0])
            if half is not None:
                met += off > NEAR_DEG
                self.assertLessEqual(off, half + NEAR_DEG, f"{name} {where}")
        return met

    def judge(self, piece: Piece, plan: Plan, shop: Shop, name: str) -> int:
        marked = with_cards(plan, (to_marks(card) for card in plan.setups))
        return self.within(Judge(piece, marked, shop), marked, name)

    def test_no_hole_or_cut_is_out_by_more_than_half_a_division(self) -> None:
        met = 0
        for name in STARTS:
            made = starter(name)
            met += self.judge(made, planned(made), workbench(), name)
        for seed in range(40):
            made, plan, shop = buildable(random.Random(9000 + seed))
            met += self.judge(made, plan, shop, f"seed {seed}")
        self.assertGreater(met, 100, "settings that fall between marks were met")
