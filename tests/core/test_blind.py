"""Every instruction carried out blind: what comes off the bench is what the figures mean."""

from __future__ import annotations

import random

from django.test import SimpleTestCase

from splay.piece.starters import STARTS, starter
from splay.shop import workbench
from splay.stance.lines import lines_apart, slot_turn
from splay.stance.staked import stand
from tests.bench.judged import Tally, carry_out
from tests.bench.pieces import buildable
from tests.core.make import piece, planned

NEAR_MM, NEAR_DEG = 0.05, 0.01
COUNT = 240


def limit(what: str) -> float:
    return NEAR_DEG if what.endswith("deg") else NEAR_MM


class Blind(SimpleTestCase):
    def true(self, tally: Tally, name: str) -> None:
        for what, (off, where) in tally.worst.items():
            with self.subTest(name, what=what, where=where):
                self.assertLessEqual(off, limit(what))
        unknown = [key for key in tally.done if key[0].startswith("UNKNOWN")]
        self.assertEqual(unknown, [], "the bench does not know how to carry these out")

    def test_every_card_of_every_kind_makes_what_the_figures_mean(self) -> None:
        for name in STARTS:
            made = starter(name)
            self.true(carry_out(made, planned(made), workbench()), name)

    def test_so_does_every_card_of_random_pieces_in_random_shops(self) -> None:
        for seed in range(COUNT):
            made, plan, shop = buildable(random.Random(seed))
            self.true(carry_out(made, plan, shop), f"seed {seed}")


class Lines(SimpleTestCase):
    """Check values of the study, worked twice by hand there."""

    def test_on_a_falling_seat_the_floors_line_is_not_the_sockets(self) -> None:
        # s 10, r 6, fall 3 to the back: back legs 14.44, front legs 11.20.
        stance = stand(piece(lean={"fall": 3}))
        turns = [lines_apart(leg, stance.floor) for leg in stance.legs]
        for turn, wanted in zip(turns, (-11.20, 11.20, 14.44, -14.44), strict=True):
            self.assertAlmostEqual(turn, wanted, 2)

    def test_a_wedge_lies_across_the_grain_on_its_own_side(self) -> None:
        # s 10, r 6, grain side to side: the right back leg 59.72 anticlockwise, the left back clockwise.
        stance = stand(piece())
        self.assertAlmostEqual(slot_turn(stance.legs[2], 0.0), -59.72, 2)
        self.assertAlmostEqual(slot_turn(stance.legs[3], 0.0), 59.72, 2)
