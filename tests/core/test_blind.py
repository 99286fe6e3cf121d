"""Every instruction carried out blind: what comes off the bench is what the figures mean."""

from __future__ import annotations

import ast
import random
from pathlib import Path

from django.test import SimpleTestCase

from splay.piece.starters import STARTS, starter
from splay.shop import workbench
from splay.stance.lines import lines_apart, slot_turn
from splay.stance.staked import stand
from tests.bench.judged import Tally, carry_out
from tests.bench.levelled import WAYS, level
from tests.bench.pieces import buildable
from tests.core.make import piece, planned

NEAR_MM, NEAR_DEG = 0.05, 0.01
COUNT, LEVELLED = 260, 32
KNOWN = ("splay.work", "splay.setups.card", "splay.shop")
HANDS = ("frames", "stock", "hands")
FALLS_OVER = {"cannot_stand", "too_few_feet"}


def limit(what: str) -> float:
    return NEAR_DEG if what.endswith("deg") else NEAR_MM


class Blind(SimpleTestCase):
    def true(self, tally: Tally, name: str) -> None:
        for what, (off, where) in tally.worst.items():
            with self.subTest(name, what=what, where=where):
                self.assertLessEqual(off, limit(what))
        unknown = [key for key in tally.done if key[0].startswith("UNKNOWN")]
        self.assertEqual(unknown, [], "the bench does not know how to carry these out")

    def test_every_card_and_proof_of_every_kind_makes_what_the_figures_mean(self) -> None:
        for name in STARTS:
            made = starter(name)
            self.true(carry_out(made, planned(made), workbench()), name)

    def test_so_does_every_card_and_proof_of_random_pieces_in_random_shops(self) -> None:
        for seed in range(COUNT):
            made, plan, shop = buildable(random.Random(seed))
            self.true(carry_out(made, plan, shop), f"seed {seed}")

    def test_levelled_by_each_way_as_told_every_foot_is_marked_in_the_wanted_floor(self) -> None:
        for seed in range(LEVELLED):
            made, plan, shop = buildable(random.Random(5000 + seed))
            if FALLS_OVER & {found.code for found in plan.findings}:
                continue
            for way in WAYS:
                if way != "sighted" or len(plan.stance.legs) == 4:
                    self.true(level(made, shop, way, seed), f"seed {seed} {way}")

    def test_the_hands_know_the_data_alone(self) -> None:
        """They import of the core only the types of instructions, cards and tools: no geometry, no rule."""
        for name in HANDS:
            tree = ast.parse((Path(__file__).parents[1] / "bench" / f"{name}.py").read_text("utf-8"))
            for node in ast.walk(tree):
                if isinstance(node, ast.ImportFrom) and (node.module or "").startswith("splay"):
                    self.assertTrue((node.module or "").startswith(KNOWN), f"{name}: {node.module}")
                    self.assertNotIn("words", node.module or "")
                    self.assertNotIn("meet", node.module or "")


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
