"""Round tenons by each way of making them: worked by hand, and carried out blind."""

from __future__ import annotations

import itertools
import math
from dataclasses import replace
from typing import Any

from django.test import SimpleTestCase

from splay.build import Build, Record, order_of
from splay.build.fitting import fitted
from splay.piece import Piece, read_piece, write_piece
from splay.piece.starters import starter
from splay.quantity import Show, Units
from splay.setups.card import SetUp
from splay.shop import Shop, TenonJig, workbench
from splay.work.joinery import FlatsLeft, JigOver, Parted, SawnSquare, Stations, Tenon
from tests.bench.judged import carry_out
from tests.core.make import planned, with_cards
from tests.core.test_blind import limit

SIZE, STOCK = 27.0, 41.0
WITHOUT = Shop(tools=tuple(tool for tool in workbench().tools if tool.kind != "tenon_jig"))


def stool(by: str, **leg: Any) -> Piece:
    document = write_piece(starter("round_three"))
    support = document["supports"][0]
    support["leg"] |= {"tenon_by": by, "at_top": STOCK, **leg}
    support["joint"] |= {"socket": SIZE}
    return read_piece(document)


def card(piece: Piece, shop: Shop | None = None) -> SetUp:
    return next(one for one in planned(piece, shop).setups if one.operation == "tenon")


def told(piece: Piece, kind: type, shop: Shop | None = None) -> Any:
    return next((do for do in card(piece, shop).does if isinstance(do, kind)), None)


class Ways(SimpleTestCase):
    def test_on_a_lathe_grooves_are_turned_to_a_caliper_from_near_the_end_to_the_ring(self) -> None:
        made = told(stool("lathe"), Parted)
        self.assertEqual(made.caliper.value, SIZE + 0.5)
        long = told(stool("lathe"), Tenon).long.value
        places = [q.value for q in made.places]
        self.assertEqual((places[0], places[-1]), (10.0, long))
        gaps = {round(b - a, 6) for a, b in itertools.pairwise(places)}
        self.assertEqual(len(gaps), 1)
        self.assertLessEqual(gaps.pop(), 20.0)

    def test_by_hand_flats_are_left_as_wide_as_the_sides_of_a_regular_sixteen_gon(self) -> None:
        made = told(stool("hand"), FlatsLeft)
        over = SIZE + 0.5
        self.assertAlmostEqual(made.over.value, over, 9)
        self.assertAlmostEqual(made.gauge.value, over / (2 + math.sqrt(2)), 6)
        # A regular polygon of n sides as far across: side = across · tan (180° / n).
        self.assertAlmostEqual(made.left.value, over * math.tan(math.pi / 16), 6)
        # Stock no thicker than that has nothing to plane off.
        self.assertIsNone(told(stool("hand", at_top=27.0, at_foot=26.0), FlatsLeft))

    def test_by_saw_a_square_a_millimetre_over_is_left_and_its_corners_come_off_evenly(self) -> None:
        made = told(stool("sawn"), SawnSquare)
        stock = planned(stool("sawn")).parts[0].stock.quantity.value
        self.assertAlmostEqual(made.deep.value, (stock - SIZE - 1.0) / 2)
        self.assertAlmostEqual(made.left.value, SIZE + 1.0)
        # Of a regular octagon in a square s: s - 2g = g · √2.
        self.assertAlmostEqual(made.gauge.value, (SIZE + 1.0) / (2 + math.sqrt(2)), 6)

    def test_over_a_router_bit_the_jig_fits_the_square_and_the_tenon(self) -> None:
        made = told(stool("router"), JigOver, WITHOUT)
        stock = planned(stool("router")).parts[0].stock.quantity.value
        self.assertAlmostEqual(made.wide.value, math.hypot(stock, stock) + 0.5, 6)
        self.assertEqual((made.narrow.value, made.below.value), (SIZE, SIZE / 2))
        self.assertTrue(any("router's own manual" in one for one in card(stool("router")).cautions))

    def test_a_jig_that_is_owned_fits_some_tenon_and_some_stock_and_says_so(self) -> None:
        """A block's holes are what they are: 41 square is 57.98 across its corners."""

        def jig(front: float, behind: float = SIZE) -> SetUp:
            owned = TenonJig(name="Turning jig", front=front, behind=behind)
            return card(stool("router"), Shop(tools=(owned,)))

        stock = planned(stool("router")).parts[0].stock.quantity.value
        across = math.hypot(stock, stock)
        good = jig(across + 1.0)
        self.assertTrue(good.in_reach)
        (over,) = (do for do in good.does if isinstance(do, JigOver))
        self.assertEqual((over.narrow.value, over.below.value), (SIZE, SIZE / 2))
        for one, said in (
            (jig(across - 0.5), "does not turn in the hole in front"),
            (jig(across + 4.0), "wobbles in the hole in front"),
            (jig(across + 1.0, SIZE + 1.0), "bore another block"),
        ):
            self.assertFalse(one.in_reach)
            self.assertIn(said, one.reach_note)

    def test_by_knife_each_is_pared_to_its_own_hole_which_is_there_first(self) -> None:
        made = stool("knife")
        said = " ".join(card(made).steps)
        self.assertIn("Pare the dark places and nothing else", said)
        self.assertTrue(any("Cut away from yourself" in one for one in card(made).cautions))
        for by, bound in (("hand", False), ("knife", True)):
            # Legs made before anything is bored: that spoils nothing, but for a tenon fitted to its hole.
            legs_first = Record(order=("ready", "tenon", "lay_out", "bore", "write_down"))
            order = order_of(stool(by), planned(stool(by)), Build(), legs_first)
            steps = [step.operation for step in order.steps]
            self.assertEqual(steps.index("bore") < steps.index("tenon"), bound, by)
            self.assertEqual(order.broken, ())

    def test_stock_hardly_thicker_than_its_tenon_is_filed_round(self) -> None:
        # A millimetre is left for the file: of stock 28 thick nothing is sawn off a tenon of 27.
        thin = stool("sawn", at_top=28.0, at_foot=26.0)
        self.assertIsNone(told(thin, SawnSquare))
        self.assertIn("file it round", " ".join(card(thin).steps))
        self.assertAlmostEqual(told(stool("sawn", at_top=29.0, at_foot=26.0), SawnSquare).deep.value, 0.5)

    def test_a_tapered_tenon_is_fitted_by_hand_whatever_makes_it(self) -> None:
        document = write_piece(stool("sawn"))
        document["supports"][0]["joint"] = {"way": "reamed", "socket": SIZE, "included": 6}
        self.assertIsNone(told(read_piece(document), SawnSquare))

    def test_every_way_is_carried_out_and_what_is_told_wrong_is_found(self) -> None:
        def wrong(piece: Piece, kind: type | None = None, **to: Any) -> set[str]:
            made = planned(piece, WITHOUT)
            if kind is not None:
                cards = tuple(
                    replace(one, does=tuple(
                        replace(do, **{k: v(do) for k, v in to.items()}) if isinstance(do, kind) else do
                        for do in one.does
                    )) for one in made.setups
                )  # fmt: skip
                made = with_cards(made, cards)
            tally = carry_out(piece, made, WITHOUT)
            return {what for what, (off, _) in tally.worst.items() if off > limit(what)}

        def more(name: str, by: float) -> Any:
            return {name: lambda do: replace(getattr(do, name), value=getattr(do, name).value + by)}

        for by in ("hand", "lathe", "sawn", "router", "cutter", "knife"):
            self.assertEqual(wrong(stool(by)), set(), by)
        self.assertIn("caliper mm", wrong(stool("lathe"), Parted, **more("caliper", -1.0)))
        self.assertIn("sawn into the tenon mm", wrong(stool("sawn"), SawnSquare, **more("deep", 1.0)))
        self.assertIn("eight sides alike mm", wrong(stool("sawn"), SawnSquare, **more("gauge", 1.0)))
        self.assertIn("planed under the hole mm", wrong(stool("hand"), FlatsLeft, **more("over", -1.0)))
        self.assertIn("sixteen sides alike mm", wrong(stool("hand"), FlatsLeft, **more("left", 1.0)))
        self.assertIn("bit's height mm", wrong(stool("router"), JigOver, **more("below", 0.5)))
        self.assertIn("hole in front mm", wrong(stool("router"), JigOver, **more("wide", -1.0)))


class Turned(SimpleTestCase):
    """The rest of a turned leg: calipers at places along it, the first one the pattern for the others."""

    def leg(self, **leg: Any) -> Piece:
        return stool("lathe", made_by="turned", at_foot=29, **leg)

    def turned(self, piece: Piece) -> SetUp:
        return next(one for one in planned(piece).setups if one.operation == "taper")

    def test_a_waist_is_one_of_the_places_and_every_size_lies_on_the_cone(self) -> None:
        piece = self.leg(belly={"size": 47, "at": 0.35})
        card, part = self.turned(piece), planned(piece).parts[0]
        (made,) = (do for do in card.does if isinstance(do, Stations))
        inside, exposed = part.in_top.quantity.value, part.exposed.quantity.value
        told = {round(down.value - inside, 3): thick.value for down, thick in made.places}
        self.assertAlmostEqual(told[round(0.35 * exposed, 3)], 47.0)
        self.assertAlmostEqual(told[0.0], STOCK)
        self.assertAlmostEqual(told[round(exposed, 3)], 29.0)
        for down, thick in told.items():
            # Straight between: shares of what is lost from one end to the other.
            share = down / exposed
            cone = STOCK + 6.0 * share / 0.35 if share <= 0.35 else 47.0 - 18.0 * (share - 0.35) / 0.65
            self.assertAlmostEqual(thick, cone, 4)
        self.assertEqual((made.first, made.rest, made.end), ("leg 1", "legs 2 and 3", "tenon end"))
        self.assertEqual(card.proofs, ("taper.s1",))

    def test_a_straight_leg_and_a_shaved_one_have_none(self) -> None:
        straight = stool("lathe", made_by="turned", at_foot=STOCK)
        self.assertFalse([one for one in planned(straight).setups if one.operation == "taper"])
        shaved = planned(stool("lathe", at_foot=29)).setups
        self.assertTrue(all(one.tool != "Lathe" for one in shaved if one.operation == "taper"))

    def test_it_is_carried_out_and_what_is_told_wrong_is_found(self) -> None:
        piece = self.leg(belly={"size": 47, "at": 0.35})

        def worst(**change: Any) -> set[str]:
            made = planned(piece)
            cards = (
                replace(one, does=tuple(
                    replace(do, **{k: v(do) for k, v in change.items()}) if isinstance(do, Stations) else do
                    for do in one.does
                ))
                for one in made.setups
            )  # fmt: skip
            tally = carry_out(piece, with_cards(made, cards), workbench())
            return {
                what for what, (off, _) in tally.worst.items() if off > limit(what) and "turned" in what
            }

        self.assertEqual(worst(), set())
        self.assertIn("turned from another end", worst(end=lambda _: "foot"))
        self.assertIn("turned back to front", worst(places=lambda do: do.places[::-1]))
        thinner = worst(places=lambda do: tuple((d, replace(t, value=t.value - 0.2)) for d, t in do.places))
        self.assertIn("turned mm", thinner)
        self.assertIn("turned mm", worst(places=lambda do: (do.places[0], do.places[-1])))
        self.assertIn("turned after no pattern", worst(first=lambda _: "leg 9"))


class FirstTry(SimpleTestCase):
    def said(self, units: Units, **joint: Any) -> str:
        document = write_piece(starter("round_three"))
        document["supports"][0]["joint"] = {
            "way": "reamed", "socket": 28, "included": 8, "per_turn": 0.25, "proud": 5, **joint,
        }  # fmt: skip
        piece = read_piece(document)
        steps = fitted(piece, planned(piece), Show(units))
        return " ".join(next(step for step in steps if step.key.startswith("fit.")).do)

    def test_what_a_tapered_tenon_wants_follows_from_how_far_it_went_in(self) -> None:
        """A cone of 8° is 2 · tan 4° thicker for each millimetre: 5 mm are 0.699, and 2.8 turns of 0.25."""
        self.assertAlmostEqual(5 * 2 * math.tan(math.radians(4)), 0.6993, 4)
        said = self.said(Units())
        self.assertIn("stands 5 mm out of the upper face", said)
        self.assertIn("stops 5 mm short of that is 0.7 mm too thick all along", said)
        self.assertIn("2.8 turns", said)
        inches = self.said(Units("inch"), per_turn=0.1)
        self.assertIn('stops 1/4" short', inches)
        # 6.35 mm of it: 0.888, at 0.1 a turn 8.9.
        self.assertIn("8.9 turns", inches)

    def test_it_is_home_by_what_is_seen_of_its_end(self) -> None:
        self.assertIn("stands 6 mm out of the upper face", self.said(Units(), proud=0))
        self.assertNotIn("its mark", self.said(Units()))
