"""A plan that was worked out before is given again only where everything it hangs on is the same."""

from __future__ import annotations

from unittest import mock

from django.test import SimpleTestCase

from splay.errors import CannotBuild
from splay.piece import read_piece, write_piece
from splay.piece.starters import starter
from splay.plan import plan
from splay.reading import Reading
from splay.setups.asker import Spread
from splay.shop import workbench
from workshop.pieces import planned as room
from workshop.pieces.planned import MOST, planned


class Planned(SimpleTestCase):
    def setUp(self) -> None:
        room._planned.cache_clear()
        self.piece, self.shop = starter("round_four"), workbench()

    def test_the_same_question_is_worked_out_once(self) -> None:
        again = read_piece(write_piece(self.piece))
        self.assertIsNot(again, self.piece)
        with mock.patch.object(room, "plan", wraps=plan) as worked:
            first = planned(self.piece, self.shop, (Reading("bore.l1", 17.0, kind="bore"),))
            self.assertIs(planned(again, self.shop, [Reading("bore.l1", 17.0, kind="bore")]), first)
            self.assertEqual(worked.call_count, 1)

    def test_whatever_is_changed_is_another_one_and_the_answer_is_that_of_plan_itself(self) -> None:
        piece, shop = self.piece, self.shop
        higher = piece.model_copy(update={"height": piece.height + 1e-9})
        coarse = shop.model_copy(update={"rounding": shop.rounding.model_copy(update={"system": "inch"})})
        read = (Reading("bore.l1", 17.0, kind="bore"),)
        sure = (Reading("bore.l1", 17.0, sure=True, kind="bore"),)
        steady = {"bore": Spread(0.2, 12)}
        asked = [
            planned(piece, shop),
            planned(higher, shop),
            planned(piece, coarse),
            planned(piece, shop, read),
            planned(piece, shop, sure),
            planned(piece, shop, levelling=False),
            planned(piece, shop, spreads=steady),
        ]
        self.assertEqual(len({id(one) for one in asked}), len(asked))
        self.assertEqual(asked[3].parts, plan(piece, shop, read).parts)
        self.assertEqual(asked[2].setups, plan(piece, coarse).setups)
        self.assertEqual(asked[6].proofs, plan(piece, shop, spreads=steady).proofs)

    def test_a_drag_keeps_nothing_and_a_refusal_is_made_anew(self) -> None:
        moving = planned(self.piece, self.shop, live=True)
        self.assertIsNot(planned(self.piece, self.shop, live=True), moving)
        self.assertEqual(room._planned.cache_info().currsize, 0)
        for _ in range(2):
            with (
                mock.patch.object(room, "plan", side_effect=CannotBuild("no", "do", "supports")),
                self.assertRaises(CannotBuild),
            ):
                planned(self.piece, self.shop)
        self.assertEqual(planned(self.piece, self.shop).piece, self.piece)

    def test_no_more_are_kept_than_said(self) -> None:
        for k in range(MOST + 5):
            planned(self.piece.model_copy(update={"height": 400.0 + k}), self.shop)
        self.assertEqual(room._planned.cache_info().currsize, MOST)
