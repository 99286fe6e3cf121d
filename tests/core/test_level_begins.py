"""How levelling begins: with what was proved at Legs."""

from __future__ import annotations

from typing import Any

import numpy as np
from django.test import SimpleTestCase

from splay.piece import read_piece, write_piece
from splay.piece.starters import starter
from splay.plan import plan
from splay.reading import Reading
from splay.shop import workbench


class ProvedAtLegs(SimpleTestCase):
    """What was proved at Legs is what Level starts from."""

    def setUp(self) -> None:
        self.piece = read_piece(write_piece(starter("round_four")))
        self.shop = workbench()
        plan_of = plan(self.piece, self.shop)
        self.feet = [p for p in plan_of.proofs if p.kind == "foot"]
        self.assertEqual(len(self.feet), 4)

    def begun(self, *readings: Reading) -> Any:
        return plan(self.piece, self.shop, readings).level[0]

    def proved(self, count: int, off: float = 0.0) -> tuple[Reading, ...]:
        return tuple(Reading(p.id, p.expected.value + off, kind="foot") for p in self.feet[:count])

    def test_feet_that_were_sawn_and_proved_are_not_expected_over_length(self) -> None:
        square, sawn = self.begun(), self.begun(*self.proved(4))
        self.assertEqual((square.begins, square.choose_ends), ("", True))
        self.assertIn("proved at Legs", sawn.begins)
        self.assertFalse(sawn.choose_ends)
        # Square and over length they stand high; sawn as planned they stand at the height that is wanted.
        self.assertGreater(square.height_now.value, square.wanted.value + 5)
        self.assertAlmostEqual(sawn.height_now.value, sawn.wanted.value, 1)
        self.assertLess(max(foot.loses.quantity.value for foot in sawn.feet), 0.1)

    def test_correct_heights_of_proved_feet_are_good_and_nothing_is_sawn(self) -> None:
        proved = self.proved(4)
        asked = [p for p in plan(self.piece, self.shop, proved).proofs if p.station == "level"]
        read = tuple(Reading(p.id, p.expected.value, kind=p.kind) for p in asked)
        made = self.begun(*proved, *read)
        self.assertTrue(made.good, made.said)
        self.assertEqual({foot.how for foot in made.feet}, {"leave"})

    def test_one_that_was_proved_long_stands_so(self) -> None:
        one_long = (*self.proved(3), Reading(self.feet[3].id, self.feet[3].expected.value + 4, kind="foot"))
        made = self.begun(*one_long)
        self.assertGreater(made.feet[3].loses.quantity.value, made.feet[0].loses.quantity.value + 1)

    def test_those_not_proved_are_as_was_chosen_and_that_is_said(self) -> None:
        made = self.begun(*self.proved(2))
        self.assertTrue(made.choose_ends)
        self.assertIn("legs 1 and 2", made.begins)
        self.assertIn("others are square", made.begins)
        losses = [foot.loses.quantity.value for foot in made.feet]
        self.assertGreater(min(losses[2:]), max(losses[:2]) + 3)

    def test_stop_here_never_stands_beside_saw_or_sand(self) -> None:
        rng = np.random.default_rng(11)
        seen = 0
        for _ in range(30):
            proved = self.proved(4)
            asked = [p for p in plan(self.piece, self.shop, proved).proofs if p.station == "level"]
            read = tuple(Reading(p.id, p.expected.value + rng.normal(0, 0.3), kind=p.kind) for p in asked)
            made = self.begun(*proved, *read)
            if made.good:
                seen += 1
                self.assertEqual({foot.how for foot in made.feet}, {"leave"})
        self.assertGreater(seen, 3)
