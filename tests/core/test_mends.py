"""What a caution or a fault tells to do helps, and the contrary does not: carried out as its words say."""

from __future__ import annotations

import re
from typing import Any

from django.test import SimpleTestCase

from splay.errors import CannotBuild
from splay.judge import Finding
from splay.piece import Piece, read_piece, write_piece
from splay.piece.starters import starter
from splay.plan import plan
from splay.shop import workbench
from tests.core.make import round_stool


def found(piece: Piece) -> dict[str, Finding]:
    return {one.code: one for one in plan(piece, workbench()).findings}


def changed(piece: Piece, path: str, value: Any) -> Piece:
    document = write_piece(piece)
    *steps, last = path.split(".")
    here: Any = document
    for step in steps:
        here = here[int(step)] if step.isdigit() else here[step]
    here[last] = value
    return read_piece(document)


class Mends(SimpleTestCase):
    def test_a_foot_under_the_rim_wants_more_splay(self) -> None:
        narrow = found(round_stool(2))["footprint_inside"]
        self.assertIn("Splay the legs more", narrow.mend)
        self.assertNotIn("footprint_inside", found(round_stool(16)))

    def test_a_thin_hollow_is_hollowed_by_as_much_less(self) -> None:
        piece = changed(
            starter("round_four"), "top.hollow", {"way": "dish", "length": 200, "width": 200, "depth": 34}
        )
        thick = piece.top.thickness
        self.assertLess(thick - 34, 10)
        (less,) = re.findall(r"Hollow it ([\d.]+) mm less", found(piece)["hollow_thin"].mend)
        mended = changed(piece, "top.hollow.depth", 34 - float(less))
        self.assertNotIn("hollow_thin", found(mended))
        self.assertIn("hollow_thin", found(changed(piece, "top.hollow.depth", 34 - float(less) + 1)))

    def test_a_seat_that_cannot_stand_is_raised_or_leans_less(self) -> None:
        leaning = write_piece(starter("round_three"))
        leaning |= {"height": 72, "lean": {"fall": 24.0, "toward": 0.0}}
        with self.assertRaises(CannotBuild) as caught:
            plan(read_piece(leaning), workbench())
        self.assertIn("Raise the height or lower the lean", caught.exception.mend)
        plan(read_piece({**leaning, "height": 420}), workbench())
        plan(read_piece({**leaning, "lean": {"fall": 0.0, "toward": 0.0}}), workbench())
