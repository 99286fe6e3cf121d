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

    def told(self, piece: Piece, code: str, pattern: str) -> float:
        """The number a finding's mend names."""
        (number,) = re.findall(pattern, found(piece)[code].mend)
        return float(number)

    def test_a_gap_that_closes_is_as_wide_as_told_and_a_little_less_closes_again(self) -> None:
        document = write_piece(starter("aproned"))
        document["top"] |= {
            "outline": {"kind": "rectangle", "length": 500.0, "width": 406.0}, "hollow": None,
            "boards": [200.0, 200.0], "gap": {"width": 6.0, "stays": "outer"},
        }  # fmt: skip
        document["supports"][0]["held"] = {"moves": 8.0}
        piece = read_piece(document)
        wide = self.told(piece, "gap_closes", r"Make it ([\d.]+) mm wide")
        self.assertNotIn("gap_closes", found(changed(piece, "top.gap.width", wide + 0.5)))
        self.assertIn("gap_closes", found(changed(piece, "top.gap.width", wide - 1.0)))
        self.assertNotIn("gap_closes", found(changed(piece, "top.gap.stays", "inner")))

    def test_a_bow_that_rises_as_little_as_told_keeps_its_grain(self) -> None:
        piece = changed(starter("plane_frames"), "supports.0.cross.1.arc", {"rise": 60.0, "upper": "arc"})
        most = self.told(piece, "arc_short_grain", r"Let it rise ([\d.]+) mm at most")
        field = "supports.0.cross.1.arc.rise"
        # The lower ends move as it rises less: a millimetre is given away.
        self.assertNotIn("arc_short_grain", found(changed(piece, field, most - 1.0)))
        self.assertIn("arc_short_grain", found(changed(piece, field, most + 2.0)))
        self.assertNotIn(
            "arc_short_grain", found(changed(piece, "supports.0.cross.1.arc.upper", "straight"))
        )

    def test_a_bent_sticks_tenon_as_much_smaller_as_told_stays_in_its_wood(self) -> None:
        document = write_piece(starter("round_four"))
        leg = document["supports"][0]["leg"]
        leg |= {
            "section": "round",
            "sticks": [{"length": 640.0, "at_foot": 30.0, "bend": {"rise": 45.0, "at": 250.0}}],
        }
        piece = read_piece(document)
        smaller = self.told(piece, "bent_thin", r"make the socket ([\d.]+) mm smaller")
        socket = document["supports"][0]["joint"]["socket"]
        field = "supports.0.joint.socket"
        self.assertNotIn("bent_thin", found(changed(piece, field, socket - smaller - 0.5)))
        self.assertIn("bent_thin", found(changed(piece, field, socket - smaller + 1.0)))
        # So far out that no tenon is thin enough, none is named.
        far = changed(piece, "supports.0.leg.sticks.0.bend.rise", 90.0)
        self.assertNotIn("socket", found(far)["bent_thin"].mend)

    def test_screws_at_the_arched_edge_get_their_slant(self) -> None:
        document = write_piece(starter("aproned"))
        document["supports"][0] |= {"arch": 20.0, "held": {"length": 60.0, "bite": 12.0}}
        piece = read_piece(document)
        self.assertIn("Give the screws a slant", found(piece)["arc_screwed"].mend)
        self.assertNotIn("arc_screwed", found(changed(piece, "supports.0.held.slant", 15.0)))
