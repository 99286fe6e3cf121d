"""A top held by buttons: grooves and blocks by hand, carried out blind, what is wrong with them."""

from __future__ import annotations

import math
import random
from dataclasses import replace
from typing import Any

from django.test import SimpleTestCase

from splay.build.document import Build
from splay.build.order import order_of
from splay.piece import Piece, TopButtons, TopScrews, read_piece, write_piece
from splay.piece.starters import starter
from splay.plan import plan
from splay.quantity import Show, Units
from splay.reading import Reading
from splay.shop import workbench
from splay.solids import body_solid, groove_solid
from splay.stance.buttons import grooves
from splay.stance.restate import Restate, restate
from splay.stance.staked import stand
from splay.timber.choices import WoodChoice
from splay.timber.effects import effects
from splay.work.joinery import Buttons, Groove
from tests.bench.judged import carry_out
from tests.bench.pieces import framed, random_shop
from tests.core.make import planned, proof_of, with_cards
from tests.core.test_blind import limit

KINDS = ("aproned", "plane_frames", "crossed", "board_sides")


def buttoned(
    kind: str, top: dict[str, Any] | None = None, more: dict[str, Any] | None = None, **held: Any
) -> Piece:
    document = write_piece(starter(kind))
    document["supports"][0] |= {"held": {"way": "buttons", **held}, **(more or {})}
    document["top"] |= top or {}
    return read_piece(document)


def codes(piece: Piece) -> set[str]:
    return {
        f.code for f in planned(piece).findings if f.code.startswith(("button", "groove", "held", "inside"))
    }


class ByHand(SimpleTestCase):
    def test_on_an_apron_that_leans_the_groove_lies_level_under_the_top(self) -> None:
        # The front apron leans back by the rake, 12: 15 below the top is 15 / cos 12 down its face.
        piece = buttoned("aproned", more={"splay": 7.0, "rake": 12.0}, drop=15, groove=7, deep=11)
        for one in grooves(piece, stand(piece)):
            lean = 12.0 if one.body.name.startswith(("front", "back")) else 7.0
            c = math.cos(math.radians(lean))
            self.assertAlmostEqual(one.turn, lean, 9)
            self.assertAlmostEqual(one.edge, 15 / c, 9)
            self.assertAlmostEqual(one.mouth, 7 / c, 9)
            self.assertAlmostEqual(one.square, 11 * c, 9)
            # Legs that splay out carry the aprons' lower edges out: their inner faces look down.
            self.assertTrue(one.sharp)

    def test_a_button_stands_off_for_what_the_top_moves_there(self) -> None:
        # A top 400 wide across its grain that moves 6: 6 · 150 / 400 either way at 150 from the middle.
        document = write_piece(buttoned("aproned", moves=6, deep=12, count=2, from_ends=60))
        document["top"]["outline"] = {"kind": "rectangle", "length": 620, "width": 400}
        document["top"]["grain"] = 0.0
        piece = read_piece(document)
        for one in grooves(piece, stand(piece)):
            for each in one.buttons:
                here = one.at(each.along, 0.0, 0.0)
                self.assertAlmostEqual(each.travel, 6 * abs(here[1]) / 400, 9)
                along_it = one.body.name.startswith(("left", "right"))
                self.assertEqual(each.slides, along_it)
                self.assertAlmostEqual(each.off, 1.0 if along_it else 1.0 + each.travel, 9)
        front = next(one for one in grooves(piece, stand(piece)) if one.body.name.startswith("front"))
        travel = front.buttons[0].travel
        self.assertAlmostEqual(front.held, 12 - 1 - 2 * travel, 9)

    def test_the_step_is_a_millimetre_less_than_the_groove_lies_down_as_it_was_read(self) -> None:
        piece = buttoned("crossed", drop=12, groove=8)
        made = planned(piece)
        (groove, *_) = (p for p in made.proofs if p.kind == "groove")
        for read, step in ((None, 11.0), (13.4, 12.4)):
            readings = [Reading(groove.id, read, kind="groove")] if read else []
            now = plan(piece, workbench(), readings)
            card = next(c for c in now.setups if c.work == groove.id.replace("groove.", "buttons."))
            (do,) = (do for do in card.does if isinstance(do, Buttons))
            self.assertAlmostEqual(do.step.value, step, 6)
            self.assertAlmostEqual(do.thick.value, step + 7.5, 6)
            self.assertAlmostEqual(
                proof_of(now, groove.id.replace("groove.", "button.")).expected.value, step, 6
            )

    def test_a_reading_down_a_leaning_side_counts_for_less_below_the_top(self) -> None:
        piece = buttoned("aproned", more={"splay": 20.0, "rake": 20.0}, drop=12)
        made = planned(piece)
        (groove, *_) = (p for p in made.proofs if p.kind == "groove")
        now = plan(piece, workbench(), [Reading(groove.id, 15.0, kind="groove")])
        proof = proof_of(now, groove.id.replace("groove.", "button."))
        self.assertAlmostEqual(proof.expected.value, 15.0 * math.cos(math.radians(20.0)) - 1.0, 6)

    def test_the_solid_loses_what_the_cutter_takes(self) -> None:
        piece = buttoned(
            "aproned", more={"splay": 0.0, "rake": 0.0}, deep=9, groove=8, from_ends=70, wide=30
        )
        for one in grooves(piece, stand(piece)):
            (span,) = one.spans
            taken = body_solid(one.body).volume() - (body_solid(one.body) - groove_solid(one)).volume()
            self.assertAlmostEqual(taken / (9 * 8 * (span[1] - span[0])), 1.0, 4)

    def test_where_rails_cross_there_is_no_groove(self) -> None:
        piece = buttoned("crossed", count=2)
        for one in grooves(piece, stand(piece)):
            self.assertEqual(len(one.spans), 2)
            self.assertGreater(one.begins, one.lap)
        self.assertEqual(codes(piece), set())
        self.assertIn("groove_lap", codes(buttoned("crossed", count=3)))


class Judged(SimpleTestCase):
    def test_what_slips_out_breaks_out_or_comes_through_is_said(self) -> None:
        for sizes, code in (
            ({"deep": 6, "moves": 9, "count": 2}, "button_slips"),
            ({"drop": 5}, "groove_high"),
            ({"deep": 17}, "groove_deep"),
            ({"drop": 46, "groove": 12}, "groove_low"),
            ({"bite": 30}, "held_through"),
        ):
            with self.subTest(sizes):
                more = {"apron": 60.0} if code == "groove_low" else {}
                self.assertIn(code, codes(buttoned("aproned", more=more, **sizes)))
        self.assertEqual(codes(buttoned("aproned", bite=14)), set())

    def test_nothing_to_groove_is_said(self) -> None:
        document = write_piece(starter("board_sides"))
        document["supports"][0] |= {"held": {"way": "buttons"}, "rails": []}
        self.assertIn("held_nothing", codes(read_piece(document)))

    def test_they_start_where_no_rule_is_broken(self) -> None:
        for kind in KINDS:
            made = restate(starter(kind), Restate("held", "buttons"))
            self.assertEqual(codes(made), set(), kind)
            support = made.supports[0]
            self.assertIsInstance(support.held, TopButtons)  # type: ignore[union-attr]
            screws = restate(made, Restate("held", "screws")).supports[0]
            self.assertIsInstance(screws.held, TopScrews)  # type: ignore[union-attr]

    def test_what_was_written_before_there_were_buttons_is_read_as_screws(self) -> None:
        document = write_piece(starter("aproned"))
        document["supports"][0]["held"] = {"slant": 15.0}
        support = read_piece(document).supports[0]
        self.assertIsInstance(support.held, TopScrews)  # type: ignore[union-attr]
        self.assertEqual(read_piece(write_piece(read_piece(document))), read_piece(document))

    def test_they_are_made_after_their_grooves_and_before_the_top_is_held(self) -> None:
        piece = restate(starter("aproned"), Restate("held", "buttons"))
        keys = [step.operation for step in order_of(piece, planned(piece), Build()).steps]
        self.assertLess(max(k for k, op in enumerate(keys) if op == "groove"), keys.index("buttons"))
        self.assertLess(keys.index("buttons"), keys.index("hold_top"))
        self.assertEqual(keys.count("hold_top"), 1)

    def test_where_each_stands_is_told_when_the_top_is_held(self) -> None:
        piece = buttoned("aproned", count=3, from_ends=60)
        step = next(
            one for one in order_of(piece, planned(piece), Build()).steps if one.operation == "hold_top"
        )
        said = " ".join(step.do)
        for one in grooves(piece, stand(piece)):
            outer, middle = one.buttons[0], one.buttons[1]
            self.assertAlmostEqual(middle.along, 0.0, 9)
            self.assertIn(
                f"{Show(Units()).length(abs(outer.along)).text} to either side of the middle", said
            )
            self.assertIn(f"{Show(Units()).fine(outer.off).text} off it", said)
        self.assertIn("off it, in the middle of its length", said)

    def test_the_wood_says_whether_they_leave_it_room(self) -> None:
        choice = WoodChoice(home_rh=30.0, shop_rh=65.0)
        for moves, said in ((0.5, "at least"), (40.0, "that is enough")):
            piece = buttoned("aproned", moves=moves)
            found = effects(piece, planned(piece), choice, {}, None, Show(Units()))
            assert found.moves is not None
            told = " ".join(found.moves.told)
            self.assertIn("buttons leave it", told)
            self.assertIn(said, told)


class Blind(SimpleTestCase):
    def test_grooves_and_buttons_of_every_kind_fit_as_told(self) -> None:
        done = 0
        for seed in range(50):
            rng = random.Random(seed)
            piece = framed(rng, KINDS[seed % 4])
            if not isinstance(piece.supports[0].held, TopButtons):  # type: ignore[union-attr]
                continue
            done += 1
            shop = random_shop(rng)
            for what, (off, where) in carry_out(piece, planned(piece, shop), shop).worst.items():
                self.assertLessEqual(off, limit(what), f"seed {seed} {what} {where}")
        self.assertGreater(done, 5)

    def test_what_is_told_wrong_is_found(self) -> None:
        piece = buttoned("aproned", drop=12)
        made = planned(piece)
        groove = next(c for c in made.setups if c.operation == "groove")
        button = next(c for c in made.setups if c.operation == "buttons")
        (cut,) = (do for do in groove.does if isinstance(do, Groove))
        (block,) = (do for do in button.does if isinstance(do, Buttons))

        def told(card: Any, was: Any, now: Any) -> Any:
            return replace(card, does=tuple(now if do is was else do for do in card.does))

        for card, wrong in (
            (groove, told(groove, cut, replace(cut, nearer=not cut.nearer))),
            (groove, told(groove, cut, replace(cut, turn=None))),
            (groove, told(groove, cut, replace(cut, upper="lower edge"))),
            (groove, told(groove, cut, replace(cut, side="outer face"))),
            (groove, told(groove, cut, replace(cut, ends=cut.edge))),
            (button, told(button, block, replace(block, longer=not block.longer))),
            (button, told(button, block, replace(block, step=block.tongue))),
        ):
            cards = tuple(wrong if c is card else c for c in made.setups)
            tally = carry_out(piece, with_cards(made, cards), workbench())
            self.assertTrue(any(off > limit(what) for what, (off, _) in tally.worst.items()), wrong.does[0])
