"""Sticks with a past: what is sawn off so that old holes meet no new ones."""

from __future__ import annotations

import math
from dataclasses import replace
from typing import Any

from django.test import SimpleTestCase

from splay.errors import BadInput
from splay.parts.reused import KEEP_MM, Trim
from splay.piece import Piece, read_piece, write_piece
from splay.piece.starters import starter
from splay.plan import plan
from splay.setups.card import SetUp
from splay.shop import workbench
from tests.bench.judged import carry_out
from tests.core.make import planned, with_cards


def settle(*sticks: dict[str, Any], start: str = "round_four") -> Piece:
    document = write_piece(starter(start))
    document["supports"][0]["leg"]["sticks"] = [{"at_foot": 30, **stick} for stick in sticks]
    return read_piece(document)


def old(nearer: float, farther: float) -> list[dict[str, float]]:
    return [{"nearer": nearer, "farther": farther}]


class Sawn(SimpleTestCase):
    def trim(self, piece: Piece) -> Trim:
        return planned(piece).made.trims[0]

    def card(self, piece: Piece) -> SetUp:
        return next(one for one in planned(piece).setups if one.operation == "stick_cut")

    def test_an_old_hole_near_the_upper_end_goes_with_it(self) -> None:
        one = self.trim(settle({"length": 620, "old": old(18, 52)}))
        self.assertEqual((one.top, one.meets), (52.0, None))
        self.assertAlmostEqual(one.foot, 620 - 52 - one.wanted)

    def test_one_that_would_meet_a_socket_comes_to_lie_above_it_with_sound_wood_between(self) -> None:
        bare = starter("bench")
        run = planned(bare).made.runs[0]
        end = next(one for one in run.ends if one.leg == 1)
        inside = planned(bare).parts[0].in_top.quantity.value
        middle = inside + end.mark_down
        # Right at the socket: sawn until its far end lies a socket's half and the wood between above it.
        one = self.trim(settle({"length": 900, "old": old(middle - 10, middle + 10)}, start="bench"))
        member = next(m for m in bare.members if m.id == run.id)
        assert member.kind == "stretcher"
        upper = middle + 10 - one.top
        mouth = middle - member.tenon / 2 / math.sin(math.radians(end.acute))
        self.assertAlmostEqual(mouth - upper, KEEP_MM, 6)

    def test_what_lies_clear_already_is_left(self) -> None:
        one = self.trim(settle({"length": 620, "old": old(300, 340)}))
        self.assertEqual((one.top, one.by, one.meets), (0.0, None, None))
        said = self.card(settle({"length": 620, "old": old(300, 340)})).steps[0]
        self.assertEqual(
            said,
            "Stick 1, for leg 1: its tenon end stays as it is; its first old hole then begins 300 mm from "
            "it.",
        )

    def test_where_nothing_helps_nothing_is_sawn_and_it_is_said(self) -> None:
        """Four holes one after the other down from the end: no leg fits between or below them."""
        holes = [{"nearer": 20 + 60 * k, "farther": 50 + 60 * k} for k in range(9)]
        made = planned(settle({"length": 560, "old": holes}))
        (found,) = (one for one in made.findings if one.code == "old_hole_meets")
        self.assertEqual((found.level, found.legs), ("stop", (1,)))
        self.assertIn("the tenon", found.text)
        self.assertEqual(made.made.trims[0].top, 0.0)

    def test_only_as_much_comes_off_as_the_leg_can_spare(self) -> None:
        short = planned(settle({"length": 560, "old": old(60, 110)}))
        room = 560 - short.made.trims[0].wanted
        self.assertLess(room, 110)
        self.assertEqual([one.code for one in short.findings if one.level == "stop"], ["old_hole_meets"])

    def test_the_foot_loses_less_by_what_the_upper_end_lost(self) -> None:
        batch = planned(settle({"length": 620, "old": old(18, 52)}, {"length": 620})).batches[0]
        top, foot, other = (figure.quantity.value for figure in batch.cut_off)
        self.assertEqual(top, 52.0)
        self.assertAlmostEqual(foot + top, other)

    def test_sticks_without_a_past_have_no_card(self) -> None:
        made = planned(settle({"length": 620}))
        self.assertNotIn("stick_cut", [card.operation for card in made.setups])

    def test_a_hole_given_back_to_front_is_said_with_what_to_do(self) -> None:
        with self.assertRaises(BadInput) as caught:
            settle({"length": 620, "old": old(90, 60)})
        (fault,) = caught.exception.faults
        self.assertEqual(fault.field, "supports.0.leg.sticks.0.old.0.farther")
        self.assertIn("90 mm", fault.allowed)


class Blind(SimpleTestCase):
    def test_the_bench_finds_too_little_sawn_off(self) -> None:
        piece = settle({"length": 620, "old": old(18, 52)}, *[{"length": 600}] * 3)
        made = plan(piece, workbench())
        self.assertNotIn("an old hole meets a new one unsaid", _wrong(piece, made.setups))
        told = tuple(
            replace(card, does=tuple(replace(do, off=None) for do in card.does))
            if card.operation == "stick_cut"
            else card
            for card in made.setups
        )
        self.assertIn("an old hole meets a new one unsaid", _wrong(piece, told))


def _wrong(piece: Piece, cards: tuple[SetUp, ...]) -> set[str]:
    tally = carry_out(piece, with_cards(plan(piece, workbench()), cards), workbench())
    return {what for what, (off, _) in tally.worst.items() if off > 0.05}
