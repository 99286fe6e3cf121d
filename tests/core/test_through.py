"""Dowels driven from outside through a joint: by hand, bored blind, in order, counted, drawn, refused."""

from __future__ import annotations

import math
import random
from dataclasses import replace
from typing import Any

from django.test import SimpleTestCase

from splay.build.document import Build
from splay.build.order import order_of
from splay.draw import draw
from splay.piece import Piece, read_piece, write_piece
from splay.piece.kinds import driven_through
from splay.piece.starters import starter
from splay.plan import Plan, plan
from splay.quantity import Show, Units
from splay.shop import workbench
from splay.stance.through import Through
from splay.timber.fixings import fixings
from splay.work.does import Bit
from splay.work.joinery import ThroughPlaces
from tests.bench.judged import carry_out
from tests.bench.pieces import framed, random_shop
from tests.core.make import with_cards
from tests.core.test_blind import limit


def driven(kind: str = "plane_frames", taper: Any = None, **dowels: Any) -> Piece:
    """A start with its dowels driven from outside: 10 thick, 30 on into the end, two in a joint."""
    document = write_piece(starter(kind))
    if taper:
        document["supports"][0] |= {"taper": taper, "rake": 0.0}
    document["supports"][0]["dowels"] |= {"driven": True, "depth": 30.0, "size": 10.0, "count": 2, **dowels}
    return read_piece(document)


def of(made: Plan, operation: str) -> list[Any]:
    return [card for card in made.setups if card.operation == operation]


def codes(piece: Piece) -> dict[str, Any]:
    return {one.code: one for one in plan(piece, workbench()).findings}


class ByHand(SimpleTestCase):
    def crosses(self, piece: Piece) -> list[Through]:
        return [
            one for one in plan(piece, workbench()).made.through_dowels if one.meets.body.role == "cross"
        ]

    def test_each_stands_halfway_through_the_end_in_its_half_of_the_height(self) -> None:
        """A cross-piece of depth h leaning with its frame, sawn to legs that splay by s: along its sawn end
        it is h / cos s high; two dowels stand in the middles of its halves."""
        document = write_piece(driven())
        document["supports"][0] |= {"rake": 0.0, "splay": 10.0}
        del document["supports"][0]["cross"][1:]
        piece = read_piece(document)
        support: Any = piece.supports[0]
        for one in self.crosses(piece):
            high = support.cross[0].depth / math.cos(math.radians(10.0))
            self.assertAlmostEqual(one.aside, support.cross[0].thickness / 2.0, 9)
            self.assertAlmostEqual(min(abs(one.down - high * share) for share in (0.25, 0.75)), 0.0, 9)
            self.assertAlmostEqual(one.wood, support.face, 9)
            self.assertAlmostEqual(one.deep, support.face + 30.0, 9)
            # Square to the end, the legs' own edges being parallel to it.
            self.assertAlmostEqual(abs(one.way[0]), math.cos(math.radians(10.0)), 9)

    def test_where_the_outside_is_tapered_one_stop_serves_both(self) -> None:
        """The outer edge runs in by a slope k from its beginning: so much less wood a distance further
        down, and the stop is set for the most of it."""
        piece = driven(taper={"sides": "outer", "begins": 0.0, "foot": 20.0})
        one, two = [each for each in self.crosses(piece) if each.meets.end == "start"][:2]
        self.assertEqual(one.deep, two.deep)
        (taper,) = one.meets.mate.tapers
        apart = abs(one.down - two.down)
        self.assertAlmostEqual(abs(one.wood - two.wood), apart * math.tan(math.radians(taper.slope)), 6)
        self.assertAlmostEqual(one.deep - max(one.wood, two.wood), 30.0, 9)

    def test_above_where_a_taper_begins_all_the_wood_is_there(self) -> None:
        piece = driven(taper={"sides": "outer", "begins": 200.0, "foot": 20.0})
        support: Any = piece.supports[0]
        self.assertAlmostEqual(self.crosses(piece)[0].wood, support.face, 9)


class Told(SimpleTestCase):
    def test_legs_are_bored_through_on_the_joints_lines_and_the_ends_when_they_are_glued(self) -> None:
        piece = driven()
        made = plan(piece, workbench())
        self.assertEqual(of(made, "dowel"), [])
        legs = of(made, "through")[0]
        self.assertIn(
            "on the line for its upper edge, from where its inner face comes", " ".join(legs.steps)
        )
        self.assertIn("10 mm, right through.", " ".join(legs.steps))
        on = of(made, "onward")[0]
        self.assertIn("When the glue has set: through the holes", " ".join(on.steps))
        steps = [one.operation for one in order_of(piece, made, Build()).steps]
        for before, after in (("joins", "through"), ("through", "glue"), ("glue", "onward"),
                              ("onward", "outside_in"), ("outside_in", "level")):  # fmt: skip
            self.assertLess(steps.index(before), steps.index(after), f"{before} before {after}")

    def test_it_is_proved_by_how_deep_they_are_from_outside(self) -> None:
        made = plan(driven(), workbench())
        found = [one for one in made.proofs if one.kind == "through"]
        self.assertEqual([one.kind for one in made.proofs if one.kind == "slot"], [])
        deeps = {round(card.setting.value, 6) for card in of(made, "onward")}
        self.assertEqual({round(one.expected.value, 6) for one in found}, deeps)

    def test_loose_tenons_and_mitres_are_never_driven_so(self) -> None:
        self.assertEqual(of(plan(driven(way="loose_tenon"), workbench()), "through"), [])
        self.assertFalse(driven_through(driven("crossed").supports[0]))
        self.assertFalse(driven_through(driven("slab").supports[0]))

    def test_they_are_counted_as_long_as_they_are_cut(self) -> None:
        piece = driven()
        made = plan(piece, workbench())
        listed = [one for one in fixings(piece, made, Show(Units())) if one.name == "dowels"]
        self.assertEqual({one.what_for for one in listed}, {"the joints, from outside"})
        self.assertEqual(sum(one.count for one in listed), len(made.made.through_dowels))
        long = of(made, "onward")[0].jig[0].quantity.text
        self.assertIn(f"10 mm by {long}", {one.size for one in listed})


class Drawn(SimpleTestCase):
    def test_each_shows_its_end_outside_and_its_length_from_the_front(self) -> None:
        piece = driven()
        made = plan(piece, workbench())
        inside = draw(driven(driven=False), workbench(), plan(driven(driven=False), workbench()), "all")
        done = draw(piece, workbench(), made, "all")
        many = len(made.made.through_dowels)
        solids = [sum(mesh.stuff != "warning" for mesh in one.meshes) for one in (done, inside)]
        self.assertEqual(solids[0] - solids[1], many)
        front, plain = (next(view for view in one.piece if view.name == "front") for one in (done, inside))
        hidden = [sum(s.layer == "hidden" for s in view.shapes) for view in (front, plain)]
        self.assertEqual(hidden[0] - hidden[1], many)


class WhatIsWrong(SimpleTestCase):
    def test_well_made_nothing_is(self) -> None:
        for kind in ("plane_frames", "board_sides"):
            self.assertEqual(set(codes(driven(kind))) - set(codes(driven(kind, driven=False))), set())

    def test_holes_from_both_ends_that_meet_say_how_deep_they_may_be(self) -> None:
        short = min(
            (one for one in plan(driven(), workbench()).stance.bodies if one.role in ("cross", "link")),
            key=lambda body: body.at(0.0, 0.0)[1] - body.at(0.0, 0.0)[0],
        )
        found = codes(driven(depth=150.0))["through_long"]
        low, high = short.at(0.0, 0.0)
        self.assertLess(found.limit.value, (high - low) / 2.0)
        self.assertIn("At most", found.mend)

    def test_a_dowel_with_no_wood_about_it_is_a_stop(self) -> None:
        found = codes(driven(size=36.0))["through_bare"]
        self.assertEqual(found.level, "stop")


class CarriedOut(SimpleTestCase):
    def test_every_one_comes_into_the_middle_of_its_end_square_and_so_far(self) -> None:
        done, seed = 0, 0
        while done < 14:
            seed += 1
            rng = random.Random(f"through {seed}")
            piece = framed(rng, rng.choice(("plane_frames", "board_sides")))
            if not driven_through(piece.supports[0]):
                continue
            shop = random_shop(rng)
            made = plan(piece, shop)
            done += 1
            for what, (off, where) in carry_out(piece, made, shop).worst.items():
                with self.subTest(seed=seed, where=where):
                    self.assertLessEqual(off, limit(what), what)

    def test_what_is_told_wrong_is_found(self) -> None:
        piece, shop = driven(), workbench()
        made = plan(piece, shop)

        def told(operation: str, sort: type, **other: Any) -> set[str]:
            cards = tuple(
                replace(
                    card,
                    does=tuple(
                        replace(do, **{k: v(do) for k, v in other.items()}) if isinstance(do, sort) else do
                        for do in card.does
                    ),
                )
                if card.operation == operation
                else card
                for card in made.setups
            )
            worst = carry_out(piece, with_cards(made, cards), shop).worst
            return {what for what, (off, _) in worst.items() if off > limit(what)}

        def off(by: tuple[float, float]) -> Any:
            return lambda do: tuple(
                tuple(replace(q, value=q.value + d) for q, d in zip(spot, by, strict=True))
                for spot in do.spots
            )

        self.assertEqual(told("through", ThroughPlaces), set())
        self.assertIn("dowel off its middle mm", told("through", ThroughPlaces, spots=off((1.0, 0.0))))
        self.assertIn("dowel beside its place mm", told("through", ThroughPlaces, spots=off((0.0, 1.0))))
        self.assertIn(
            "bored from another side", told("through", ThroughPlaces, face=lambda do: "inner face")
        )
        shallow = told("onward", Bit, deep=lambda do: replace(do.deep, value=do.deep.value - 2.0))
        self.assertIn("dowel past mm", shallow)
        none = told("onward", Bit, diameter=lambda do: replace(do.diameter, value=do.diameter.value + 1.0))
        self.assertIn("another bit mm", none)

    def test_an_end_nobody_bored_is_found(self) -> None:
        piece, shop = driven(), workbench()
        made = plan(piece, shop)
        left = tuple(card for card in made.setups if card.operation != "onward")
        self.assertIn("dowel unbored", carry_out(piece, with_cards(made, left), shop).worst)
