"""A socket's mouth eased for its leg's cove: by hand, put home blind, told of, kept in the drawer."""

from __future__ import annotations

import math
import random
from dataclasses import replace
from typing import Any

import numpy as np
from django.test import SimpleTestCase
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from splay.build.document import Build
from splay.build.order import order_of
from splay.draw import draw
from splay.piece import Piece, StakedLegs, read_piece, write_piece
from splay.piece.starters import starter
from splay.plan import Plan, plan
from splay.shop import Shop, read_shop, workbench, write_shop
from splay.solids import solids_of
from splay.stance.mouth import Mouth, mouth_of, nearest_round
from splay.views.project import ROUND_POINTS
from splay.work.joinery import Cove, Eased
from tests.bench.judged import carry_out
from tests.bench.pieces import buildable
from tests.core.make import solid, with_cards
from tests.core.test_blind import limit


def coved(start: str = "round_four", joint: dict[str, Any] | None = None, **leg: Any) -> Piece:
    document = write_piece(starter(start))
    support = document["supports"][0]
    support["leg"] |= {"neck": "cove", "cove": 8.0, "eased": True, **leg}
    support["joint"] |= joint or {}
    return read_piece(document)


def drawer(*radii: float) -> Shop:
    document = write_shop(workbench())
    document["mouth_bits"] = [{"radius": radius} for radius in radii]
    return read_shop(document)


def of(made: Plan, operation: str) -> Any:
    return next((card for card in made.setups if card.operation == operation), None)


class ByHand(SimpleTestCase):
    def test_on_a_hole_bored_square_the_round_is_tangent_to_wall_and_face(self) -> None:
        """A hole of 28, a cove of 8 on a leg of 44: the mouth is 28 + 2 · 8 wide, the cove begins 8 within
        the wood and its shoulder lies on the face."""
        mouth = Mouth(0.0, 14.0, 22.0, 8.0, 8.0)
        self.assertAlmostEqual(mouth.longer, 44.0, 9)
        self.assertEqual((mouth.begins, mouth.ends, mouth.left), (-8.0, 0.0, 0.0))

    def test_a_wider_round_leaves_root_two_less_one_of_what_it_is_wider(self) -> None:
        # A full quarter each, both ending on the face: widest halfway round.
        mouth = Mouth(0.0, 14.0, 30.0, 8.0, 9.5)
        self.assertAlmostEqual(mouth.left, (math.sqrt(2.0) - 1.0) * 1.5, 9)
        self.assertAlmostEqual(mouth.longer, 28.0 + 19.0, 9)

    def test_a_cove_that_comes_out_before_a_quarter_is_done_is_as_long_as_its_chord_says(self) -> None:
        # 6 out of a radius of 10: √(10² − 4²).
        self.assertAlmostEqual(Mouth(0.0, 14.0, 20.0, 10.0, 10.0).high, math.sqrt(84.0), 9)

    def test_leaning_it_begins_deeper_by_half_the_leg_times_the_tangent(self) -> None:
        mouth = Mouth(10.0, 14.0, 22.0, 8.0, 8.0)
        self.assertAlmostEqual(mouth.ends, 22.0 * math.tan(math.radians(10.0)), 9)
        self.assertAlmostEqual(mouth.plain, 28.0 / math.cos(math.radians(10.0)), 9)

    @given(st.floats(0, 25), st.floats(6, 20), st.floats(0.6, 14), st.floats(2, 14), st.floats(2, 14))
    @settings(max_examples=200, deadline=None)
    def test_no_place_of_the_cove_is_within_the_wood_of_a_cutter_that_fits(
        self, lean: float, half: float, more: float, cove: float, rounds: float
    ) -> None:
        mouth = Mouth(lean, half, half + more, cove, rounds)
        assume(mouth.fits)
        widest = 0.0
        for k in range(101):
            turn = math.asin(mouth.high / cove) * k / 100
            along, out = mouth.begins + cove * math.sin(turn), half + cove * (1.0 - math.cos(turn))
            # From the middle of the round: the wood is what lies within it.
            off = math.hypot(along - mouth.starts, out - half - rounds) - rounds
            in_wood = along < out * math.tan(math.radians(lean)) and along > mouth.starts
            if in_wood and out < half + rounds:
                self.assertGreater(off, -1e-6)
                widest = max(widest, off)
        self.assertLessEqual(widest, mouth.left + 1e-6)


class InTheDrawer(SimpleTestCase):
    def support(self, piece: Piece) -> StakedLegs:
        support = piece.supports[0]
        assert isinstance(support, StakedLegs)
        return support

    def test_the_nearest_cutter_that_fits_is_taken(self) -> None:
        mine = self.support(coved(cove=8.0))
        self.assertEqual(nearest_round(mine, 0.0, (6.0, 8.5, 12.0)), 8.5)
        # A narrower one leaves wood in the way of a shoulder that lies on the face.
        self.assertIsNone(nearest_round(mine, 0.0, (7.9,)))
        self.assertIsNone(nearest_round(mine, 0.0, ()))

    def test_what_is_left_between_is_told_and_without_one_that_fits_it_is_rasped(self) -> None:
        card = of(plan(coved(cove=6.0), drawer(6.35)), "ease_mouth")
        self.assertEqual(card.tool, "Rounding cutter, its pilot in the hole")
        self.assertIn("of air stays between them", " ".join(card.steps))
        self.assertGreater(card.jig[0].quantity.value, 0.0)
        by_hand = of(plan(coved(cove=6.0), drawer()), "ease_mouth")
        self.assertEqual(by_hand.tool, "Half-round rasp and file")
        self.assertEqual(by_hand.jig, ())
        self.assertNotIn("drawer", " ".join(by_hand.steps))
        none = of(plan(coved(cove=6.0), drawer(1.5)), "ease_mouth")
        self.assertIn("None of the drawer's cutters fits", " ".join(none.steps))

    def test_it_is_eased_only_where_it_was_asked_for_and_there_is_a_cove(self) -> None:
        self.assertIsNone(of(plan(coved(eased=False), drawer()), "ease_mouth"))
        self.assertIsNone(of(plan(coved(neck="shoulder"), drawer()), "ease_mouth"))
        # A leg no thicker than its tenon has no cove.
        self.assertIsNone(of(plan(coved(at_top=28.0), drawer()), "ease_mouth"))
        self.assertIsNone(of(plan(coved("log_slice"), drawer()), "ease_mouth"))

    def test_the_tenon_ends_where_its_cove_begins_and_the_leg_is_thick_where_it_was(self) -> None:
        plain, made = (plan(coved(eased=eased), drawer()) for eased in (False, True))
        (cove,) = (do for do in of(made, "tenon").does if isinstance(do, Cove))
        long = [
            next(do.long.value for do in of(one, "tenon").does if hasattr(do, "long"))
            for one in (plain, made)
        ]
        self.assertAlmostEqual(cove.ends.value, long[0], 9)
        self.assertAlmostEqual(cove.begins.value, long[1], 9)

    def test_mouths_are_eased_when_they_are_bored_and_before_the_legs_are_fitted(self) -> None:
        piece = coved()
        steps = [one.operation for one in order_of(piece, plan(piece, drawer(8.0)), Build()).steps]
        self.assertLess(steps.index("bore"), steps.index("ease_mouth"))
        self.assertLess(steps.index("ease_mouth"), steps.index("fit"))


class CarriedOut(SimpleTestCase):
    def test_every_cove_goes_home_in_its_mouth_and_lies_as_near_as_told(self) -> None:
        done = 0
        for seed in range(400):
            rng = random.Random(f"mouth {seed}")
            piece, _, _ = buildable(rng)
            support = piece.supports[0]
            if not isinstance(support, StakedLegs) or not support.leg.eased:
                continue
            shop = drawer(*rng.choice(((), (5.0,), (6.35, 9.5), (5.0, 8.0, 12.7))))
            made = plan(piece, shop)
            if of(made, "ease_mouth") is None:
                continue
            done += 1
            for what, (off, where) in carry_out(piece, made, shop).worst.items():
                with self.subTest(seed=seed, what=what, where=where):
                    self.assertLessEqual(off, limit(what))
            if done == 16:
                return
        self.fail(f"only {done} of them")

    def test_a_mouth_or_a_cove_told_wrong_is_found(self) -> None:
        piece, shop = coved(), drawer(8.0)
        made = plan(piece, shop)

        def told(operation: str, kind: type, **other: float) -> set[str]:
            def wrong(do: Any) -> Any:
                if not isinstance(do, kind):
                    return do
                parts = {
                    name: replace(getattr(do, name), value=getattr(do, name).value + by)
                    for name, by in other.items()
                }
                return replace(do, **parts)

            cards = tuple(
                replace(card, does=tuple(wrong(do) for do in card.does))
                if card.operation == operation
                else card
                for card in made.setups
            )
            worst = carry_out(piece, with_cards(made, cards), shop).worst
            return {what for what, (off, _) in worst.items() if off > limit(what)}

        self.assertEqual(told("ease_mouth", Eased), set())
        # The mouth left two short: the cove stands on its rim.
        self.assertIn("cove lifts the leg mm", told("ease_mouth", Eased, long=-2.0))
        self.assertIn("more left than told mm", told("ease_mouth", Eased, long=1.5))
        self.assertIn("cove lifts the leg mm", told("tenon", Cove, begins=-1.5, ends=-1.5))
        self.assertIn("cove comes out mm", told("tenon", Cove, radius=2.0))


class Kept(SimpleTestCase):
    def test_a_cutter_is_kept_with_the_shop_and_a_mouth_of_one_leg_is_the_mouth_of_all_alike(self) -> None:
        self.assertEqual(read_shop(write_shop(drawer(8.0))).rounds, (8.0,))
        made = plan(coved(), drawer(8.0))
        card = of(made, "ease_mouth")
        self.assertEqual(card.legs, (1, 2, 3, 4))
        (proof,) = (one for one in made.proofs if one.kind == "mouth")
        self.assertAlmostEqual(proof.expected.value, card.setting.value, 6)
        lean = made.stance.legs[0].boring.resultant
        support = made.piece.supports[0]
        assert isinstance(support, StakedLegs)
        self.assertAlmostEqual(card.setting.value, mouth_of(support, lean, 8.0).longer, 6)


class Drawn(SimpleTestCase):
    def test_what_the_cutter_takes_is_a_spandrel_turned_about_the_hole(self) -> None:
        """A quarter-round spandrel of radius r has the area (1 - π/4) r², its middle lies
        (10 - 3π) / (3 (4 - π)) r from either side (handbook tables, from memory); turned, Pappus. In
        chords it is a little more."""
        plumb = {"by": "splay_rake", "splay": 0.0, "rake": 0.0}
        r, half = 9.0, 14.0
        volumes = []
        for eased in (False, True):
            document = write_piece(coved(cove=r, eased=eased, at_top=60.0))
            document["supports"][0] |= {"angles": [plumb]}
            document["supports"][0]["joint"]["socket"] = 2.0 * half
            piece = read_piece(document)
            parts = {part.key: part for part in solids_of(piece, plan(piece, drawer(r)))}
            volumes.append(solid(parts["top"]).volume())
        area = (1.0 - math.pi / 4.0) * r * r
        middle = half + (10.0 - 3.0 * math.pi) / (3.0 * (4.0 - math.pi)) * r
        self.assertAlmostEqual(
            (volumes[0] - volumes[1]) / (4.0 * math.tau * middle * area), 1.0, delta=0.01
        )

    def test_cove_and_mouth_share_no_wood(self) -> None:
        for cove, bit in ((8.0, 8.5), (10.0, 10.0)):
            piece = coved(cove=cove)
            parts = {part.key: part for part in solids_of(piece, plan(piece, drawer(bit)))}
            top = solid(parts["top"])
            for key, part in parts.items():
                if key.startswith("leg."):
                    # A round in chords: less than a cube of a millimetre.
                    self.assertLess((solid(part) ^ top).volume(), 1.0)

    def test_the_section_shows_both_and_the_leg_its_neck(self) -> None:
        piece, shop = coved(cove=10.0), drawer(10.0)
        made = plan(piece, shop)
        done = draw(piece, shop, made, "all")
        mouth = mouth_of(InTheDrawer().support(piece), made.stance.legs[0].boring.resultant, 10.0)
        hole = next(s for s in done.sections[0].shapes if s.layer == "cut")
        rims = [x for x, y in hole.points if abs(y) < 1e-6]
        self.assertAlmostEqual(max(rims) - min(rims), mouth.longer, 6)
        self.assertEqual(len([s for s in done.sections[0].shapes if s.layer == "tenon"]), 2)
        body = next(s for s in done.legs[0].shapes if s.layer == "leg")
        inside = made.parts[0].in_top.quantity.value
        self.assertIn((inside + mouth.ends, mouth.thick), [(x, y) for x, y in body.points])
        shown = next(m for m in draw(piece, shop, made, "solid").meshes if m.part == "leg.1")
        ring = np.array(shown.points).reshape(-1, 3)[:ROUND_POINTS]
        # Its first ring is where the cove leaves the tenon: as wide as that.
        self.assertAlmostEqual(float(np.linalg.norm(ring - ring.mean(axis=0), axis=1).max()), mouth.half, 1)
