"""Whatever the schema lets through ends in a plan with its drawings, or in a fault that is named."""

from __future__ import annotations

import random
from contextlib import suppress
from typing import Any

from django.test import SimpleTestCase

from splay.draw import draw
from splay.errors import CannotBuild, SplayError
from splay.piece import read_piece, write_piece
from splay.piece.starters import STARTS, starter
from splay.plan import plan
from splay.shop import workbench
from tests.core.scattered import scattered

EACH = 14


class Scattered(SimpleTestCase):
    def test_every_valid_document_is_planned_and_drawn_or_refused_by_name(self) -> None:
        shop, rng, planned = workbench(), random.Random(20261126), 0
        for name in STARTS:
            for _ in range(EACH):
                _, piece = scattered(rng, name)
                with self.subTest(piece=write_piece(piece)), suppress(SplayError):
                    draw(piece, shop, plan(piece, shop))
                    planned += 1
        # Were most of them refused, nothing would have been looked at.
        self.assertGreater(planned, EACH * len(STARTS) // 2)

    def test_a_part_of_which_nothing_is_left_is_named(self) -> None:
        for name, field, size in (("plane_frames", "face", 350), ("plane_frames", "width", 24)):
            with self.subTest(name=name, field=field), self.assertRaises(CannotBuild) as caught:
                plan(read_piece(changed(name, field, size)), workbench())
            self.assertIn("Nothing is left", caught.exception.rule)
            self.assertEqual(caught.exception.field, "supports.0")

    def test_a_board_without_a_foot_is_said_and_drawn(self) -> None:
        for width in (60, 80):
            piece = read_piece(changed("board_sides", "width", width))
            made = plan(piece, workbench())
            self.assertIn("cut_out_wide", {f.code for f in made.findings if f.level == "stop"})
            self.assertTrue(draw(piece, workbench(), made).piece[0].shapes)


def changed(name: str, field: str, size: float) -> dict[str, Any]:
    document = write_piece(starter(name))
    document["supports"][0][field] = size
    return document
