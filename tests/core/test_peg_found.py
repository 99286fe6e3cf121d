"""The place of a peg found through its socket, before the leg goes in."""

from __future__ import annotations

import math
from dataclasses import replace
from typing import Any

from django.test import SimpleTestCase

from splay.build import Build, Record, order_of
from splay.piece import Piece, read_piece, write_piece
from splay.piece.starters import starter
from splay.plan import plan
from splay.shop import workbench
from splay.work.tops import PegFound
from tests.bench.judged import Judge
from tests.core.make import with_cards


def pegged(entry: float = 14.0, **top: Any) -> Piece:
    document = write_piece(starter("round_four"))
    document["top"] |= {"thickness": 45, "hollow": None, **top}
    peg = {"entry": entry, "angle": 6, "diameter": 8, "place": "through_socket"}
    document["supports"][0]["joint"] = {"way": "blind", "socket": 27, "depth": 32, "peg": peg}
    return read_piece(document)


def found(piece: Piece) -> list[PegFound]:
    made = plan(piece, workbench())
    card = next(one for one in made.setups if one.operation == "peg_find")
    return [do for do in card.does if isinstance(do, PegFound)]


class Found(SimpleTestCase):
    def test_the_socket_comes_out_thickness_times_tan_rho_against_the_lean(self) -> None:
        """So a peg that enters e off the centre lies e less that much further on, against the arrow."""
        piece = pegged(17.0)
        rho = plan(piece, workbench()).stance.legs[0].boring.resultant
        out = 45.0 * math.tan(math.radians(rho))
        for one in found(piece):
            self.assertEqual(one.against, out < 17.0)
            self.assertAlmostEqual(one.away.value, abs(17.0 - out), 6)
        nearer = found(pegged(3.0))[0]
        self.assertFalse(nearer.against)
        self.assertAlmostEqual(nearer.away.value, out - 3.0, 6)

    def test_its_mark_is_not_drawn_but_the_middle_lines_are_carried_over_for_it(self) -> None:
        titles = [step.title for step in plan(pegged(), workbench()).layout.steps]
        self.assertNotIn("Mark the pegs", titles)
        self.assertIn("Carry the middle lines over to the upper face", titles)

    def test_it_is_done_after_boring_and_before_the_leg_goes_in(self) -> None:
        piece = pegged()
        steps = [s.operation for s in order_of(piece, plan(piece, workbench()), Build(), Record()).steps]
        wanted = ["lay_out", "bore", "peg_find", "fit", "peg"]
        self.assertEqual([one for one in steps if one in wanted], wanted)

    def test_a_thin_hole_the_peg_does_not_cover_is_said_with_the_entry_that_covers_it(self) -> None:
        made = plan(pegged(3.0), workbench())
        noted = [one for one in made.findings if one.code == "peg_pilot_shows"]
        self.assertEqual(len(noted), 4)
        rho = made.stance.legs[0].boring.resultant
        covers = 45.0 * math.tan(math.radians(rho))
        self.assertIn(made.made.show.length(covers).text, noted[0].mend)
        good = plan(pegged(round(covers)), workbench())
        self.assertNotIn("peg_pilot_shows", [one.code for one in good.findings])

    def test_the_bench_bores_it_through_the_socket_it_has_and_the_peg_meets_the_tenon(self) -> None:
        for hollow in (None, {"way": "dish", "length": 240, "width": 240, "depth": 7}):
            piece = pegged(hollow=hollow)
            made = plan(piece, workbench())
            tally = Judge(piece, made, workbench()).all()
            pegs = {what: off for what, (off, _) in tally.worst.items() if "peg" in what or "thin" in what}
            self.assertIn("peg off tenon mm", pegs)
            self.assertLess(max(pegs.values()), 0.06, pegs)

    def test_a_place_told_the_other_way_along_the_line_is_found(self) -> None:
        piece = pegged(3.0)
        made = plan(piece, workbench())
        cards = tuple(
            replace(card, does=tuple(replace(do, against=not do.against) for do in card.does))
            if card.operation == "peg_find"
            else card
            for card in made.setups
        )
        tally = Judge(piece, with_cards(made, cards), workbench()).all()
        self.assertGreater(tally.worst["peg entry mm"][0], 1.0)
