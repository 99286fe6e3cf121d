"""Tops bored thick and planed to thickness then: what lies where, in which order."""

from __future__ import annotations

import math
from dataclasses import replace
from typing import Any

from django.test import SimpleTestCase

from splay.build import Build, Record, order_of
from splay.piece import Piece, read_piece, write_piece
from splay.piece.starters import starter
from splay.plan import Plan, plan
from splay.quantity import Show
from splay.setups.card import SetUp
from splay.shop import workbench
from splay.timber.choices import WoodChoice
from splay.timber.needs import needs_of
from splay.work.tops import PlanedOff
from tests.bench.gauges import Gauges
from tests.bench.judged import Judge
from tests.core.make import with_cards


def thick(left_on: float, **changes: Any) -> Piece:
    document = write_piece(starter("round_four"))
    document["top"] |= {"thickness": 40, "left_on": left_on, "grain": 0, **changes.pop("top", {})}
    document["supports"][0] |= changes
    return read_piece(document)


def card_of(made: Plan, operation: str, way: str = "") -> SetUp:
    return next(c for c in made.setups if c.operation == operation and way in ("", c.way))


class LeftOn(SimpleTestCase):
    def test_the_card_says_what_comes_off_and_what_is_left(self) -> None:
        made = plan(thick(4.0), workbench())
        card = card_of(made, "dress")
        self.assertIn("planed down by 4.0 mm all over, until 40 mm is left everywhere", card.steps[0])
        self.assertEqual(card.angle.quantity.value, 44.0)
        proof = next(one for one in made.proofs if one.kind == "dressed")
        self.assertEqual(proof.expected.value, 40.0)
        self.assertNotIn("dress", [c.operation for c in plan(thick(0.0), workbench()).setups])

    def test_the_pin_stands_where_the_bit_meets_the_table_through_the_thick_blank(self) -> None:
        """The point comes out thickness · tan ρ further in: of 6 mm more at ρ, 6 · tan ρ."""
        pins = []
        for on in (0.0, 6.0):
            made = plan(thick(on), workbench())
            card = card_of(made, "bore", "tilting_table")
            pins.append(next(f for f in card.jig if f.key.endswith(".pin")).quantity.value)
        rho = made.stance.legs[0].boring.resultant
        self.assertAlmostEqual(abs(pins[0] - pins[1]), 6.0 * math.tan(math.radians(rho)), 6)

    def test_bored_then_planed_then_drawn_on(self) -> None:
        peg = {"way": "blind", "socket": 27, "depth": 26, "peg": {}}
        piece = thick(4.0, joint=peg)
        made = plan(piece, workbench())
        steps = [step.operation for step in order_of(piece, made, Build(), Record()).steps]
        wanted = ["lay_out", "bore", "dress", "lay_out_upper", "peg"]
        self.assertEqual([one for one in steps if one in wanted], wanted)
        upper = [one for one in made.layout.steps if one.face == "upper face"]
        self.assertTrue(upper)
        self.assertTrue(all(one.words.startswith("Once that face is planed") for one in upper))
        # Where nothing is left on it is one marking-out, as ever.
        plain = thick(0.0, joint=peg)
        steps = [s.operation for s in order_of(plain, plan(plain, workbench()), Build(), Record()).steps]
        self.assertNotIn("lay_out_upper", steps)

    def test_the_wood_is_that_much_thicker(self) -> None:
        show = Show(workbench().rounding.units())
        blanks = []
        for on in (0.0, 4.0):
            piece = thick(on)
            made = plan(piece, workbench())
            need = next(n for n in needs_of(piece, made, WoodChoice(), show) if n.key == "top")
            blanks.append(need.blank[2].value)
            self.assertEqual(need.finished[2].value, 40.0)
        self.assertAlmostEqual(blanks[1] - blanks[0], 4.0)

    def test_a_hole_bored_from_the_face_that_goes_is_stopped_with_how_far_it_moves(self) -> None:
        piece = thick(4.0, joint={"way": "through", "socket": 25, "bored_from": "upper"})
        made = plan(piece, workbench())
        found = next(one for one in made.findings if one.code == "planed_after_boring")
        self.assertEqual((found.level, found.legs), ("stop", (1, 2, 3, 4)))
        rho = made.stance.legs[0].boring.resultant
        self.assertAlmostEqual(found.number.value, 4.0 * math.tan(math.radians(rho)), 6)
        # The bench, which knows nothing of that rule, finds the marks that far from the holes' middles,
        # where they come out of a face that lies 4 mm higher.
        tally = Judge(piece, made, workbench()).all()
        self.assertAlmostEqual(tally.worst["mark mm"][0], math.hypot(4.0, found.number.value), delta=0.05)

    def test_a_hollow_that_is_there_before_is_stopped(self) -> None:
        hollow = {"way": "dish", "length": 240, "width": 240, "depth": 8, "strips": True}
        piece = thick(4.0, top={"hollow": hollow, "boards": [160, 160]})
        codes = [one.code for one in plan(piece, workbench()).findings]
        self.assertIn("planed_after_hollowing", codes)

    def test_carried_out_blind_it_reads_what_is_expected_and_a_wrong_cut_is_found(self) -> None:
        piece = thick(5.0)
        made = plan(piece, workbench())
        judge = Judge(piece, made, workbench())
        tally = judge.all()
        self.assertLess(max(off for off, _ in tally.worst.values()), 0.06)
        proof = next(one for one in made.proofs if one.kind == "dressed")
        self.assertEqual(Gauges(judge).read(proof), 40.0)
        cards = tuple(
            replace(c, does=tuple(_more(do) for do in c.does)) if c.operation == "dress" else c
            for c in made.setups
        )
        wrong = Judge(piece, with_cards(made, cards), workbench()).all()
        self.assertAlmostEqual(wrong.worst["planed to another thickness mm"][0], 1.0)


def _more(do: Any) -> Any:
    return replace(do, off=replace(do.off, value=do.off.value + 1.0)) if isinstance(do, PlanedOff) else do
