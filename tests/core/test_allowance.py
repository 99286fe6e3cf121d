"""What is left on the legs, held against the maker's own spread."""

from __future__ import annotations

import math

import numpy as np
from django.test import SimpleTestCase

from splay.judge.allowance import foot_spread
from splay.piece import Piece
from splay.plan import Plan, plan
from splay.reading import Reading
from splay.setups.asker import Spread
from splay.shop import workbench
from splay.stance.staked import stand
from tests.core.make import round_stool


def told(made: Piece, spreads: dict[str, Spread], readings: tuple[Reading, ...] = ()) -> Plan:
    return plan(made, workbench(), readings, spreads=spreads)


def codes(made: Plan) -> list[str]:
    return [finding.code for finding in made.findings]


HAND = {"bore": Spread(1.0, 12), "foot": Spread(1.5, 12)}


class Allowance(SimpleTestCase):
    def test_an_error_in_the_lean_moves_the_foot_as_errors_travel(self) -> None:
        """Worked twice, independently: L 430, rho 15, one degree moves the foot 1.94 in height."""
        made = round_stool(15, height=38 + 430 * math.cos(math.radians(15)))
        leg = stand(made).legs[0]
        self.assertAlmostEqual(leg.exposed, 430, 6)
        along = foot_spread(leg, {"bore": Spread(1.0, 9)})
        self.assertAlmostEqual(along * math.cos(math.radians(15)), 1.94, delta=0.005)

    def test_simulated_hands_part_two_feet_by_what_is_said(self) -> None:
        """Nineteen pairs of feet in twenty lie within the figure (numpy's normal errors)."""
        made = round_stool(14)
        leg = stand(made).legs[0]
        finding = next(f for f in told(round_stool(14, allowance=2), HAND).findings if "allow" in f.code)
        assert finding.limit is not None
        rng = np.random.default_rng(4)
        ends = []
        for _ in range(4000):
            leans = stand(made, {k: leg.boring.resultant + rng.normal(0, 1.0) for k in ("l1", "l2")}).legs
            ends.append([one.exposed + rng.normal(0, 1.5) for one in leans[:2]])
        apart = np.abs(np.diff(np.array(ends), axis=1))
        share = float((apart <= finding.limit.value).mean())
        self.assertGreater(share, 0.94)
        self.assertLess(share, 0.965)

    def test_too_little_left_on_is_told_with_what_would_do(self) -> None:
        self.assertNotIn("allowance_small", codes(told(round_stool(14, allowance=20), HAND)))
        made = told(round_stool(14, allowance=4), HAND)
        finding = next(f for f in made.findings if f.code == "allowance_small")
        assert finding.limit is not None
        self.assertEqual(finding.field, "supports.0.allowance")
        self.assertEqual(finding.legs, (1, 2, 3))
        enough = math.ceil(finding.limit.value)
        self.assertNotIn("allowance_small", codes(told(round_stool(14, allowance=enough), HAND)))

    def test_nothing_is_said_of_a_hand_that_is_not_known_yet(self) -> None:
        few = {"bore": Spread(3.0, 2), "foot": Spread(5.0, 3)}
        self.assertNotIn("allowance_small", codes(told(round_stool(14, allowance=1), few)))
        self.assertNotIn("allowance_small", codes(told(round_stool(14, allowance=1), {})))

    def test_holes_that_were_read_need_no_room_any_more(self) -> None:
        made = round_stool(14, allowance=7)
        hand = {"bore": Spread(2.0, 12), "foot": Spread(0.5, 12)}
        self.assertIn("allowance_small", codes(told(made, hand)))
        read = tuple(Reading(f"bore.l{k}", 14.4) for k in (1, 2, 3))
        self.assertNotIn("allowance_small", codes(told(made, hand, read)))
