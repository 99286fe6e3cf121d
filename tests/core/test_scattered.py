"""Whatever the schema lets through ends in a plan with its drawings, or in a fault that is named."""

from __future__ import annotations

import random
from collections import Counter
from contextlib import suppress
from typing import Any
from unittest.mock import Mock

import numpy as np
from django.test import SimpleTestCase

from splay.draw import draw
from splay.errors import CannotBuild, SplayError
from splay.level.ways import under_three
from splay.piece import read_piece, write_piece
from splay.piece.starters import STARTS, starter
from splay.plan import plan
from splay.shop import workbench
from tests.core.scattered import from_schema, scattered

EACH = 14
FROM_SCHEMA = 240


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

    def test_documents_made_from_the_schema_alone_are_too(self) -> None:
        shop, kinds, planned = workbench(), Counter[str](), 0
        made = from_schema(random.Random(20261127))
        for _ in range(FROM_SCHEMA):
            piece = next(made)
            kinds.update(support.kind for support in piece.supports)
            with self.subTest(piece=write_piece(piece)), suppress(SplayError):
                draw(piece, shop, plan(piece, shop))
                planned += 1
        self.assertEqual(len(kinds), 6, kinds)
        self.assertGreater(planned, FROM_SCHEMA // 2)

    def test_a_leg_nearly_along_the_top_and_a_foot_that_never_ends_are_named(self) -> None:
        leaning = write_piece(starter("round_three"))
        leaning |= {"height": 130, "lean": {"fall": 25.0, "toward": 0.0}}
        leaning["supports"][0]["angles"] = [{"by": "footprint", "width": 1200, "depth": 1400}]
        thinning = write_piece(starter("round_three"))
        thinning["height"] = thinning["top"]["thickness"] + 45
        thinning["supports"][0]["leg"] |= {"at_top": 140, "at_foot": 14}
        thinning["supports"][0]["angles"] = [
            {"by": "resultant", "resultant": 60.0, "sightline": 0.0, "measured_from": "out"}
        ]
        for document, words in ((leaning, "square to the top"), (thinning, "cuts through its foot")):
            with self.subTest(words), self.assertRaises(CannotBuild) as caught:
                plan(read_piece(document), workbench())
            self.assertIn(words, caught.exception.rule)

    def test_three_feet_in_one_line_have_a_plane_to_stand_on(self) -> None:
        up = np.array((0.0, 0.0, 1.0))
        ends = [Mock(ring=np.array([(x, 0.0, -400.0)])) for x in (-100.0, 0.0, 100.0)]
        normal, level = under_three(ends, up)
        self.assertEqual((list(normal), level), ([0.0, 0.0, 1.0], 400.0))

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
