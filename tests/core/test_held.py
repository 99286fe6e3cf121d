"""How a top is held: screws from below worked by hand, put in blind, and what is wrong with them."""

from __future__ import annotations

import math
import random
from typing import Any

import numpy as np
from django.test import SimpleTestCase
from hypothesis import given, settings
from hypothesis import strategies as st

from splay.build.document import Build
from splay.build.order import order_of
from splay.piece import Piece, read_piece, write_piece
from splay.piece.starters import starter
from splay.plan import plan
from splay.quantity import Show, Units
from splay.shop import workbench
from splay.solids import solids_of
from splay.stance.holding import across_grain, fastenings
from splay.stance.restate import Restate, restate
from splay.stance.staked import stand
from splay.timber.choices import WoodChoice
from splay.timber.effects import effects
from tests.bench.judged import carry_out
from tests.bench.pieces import random_shop
from tests.core.test_blind import limit

KINDS = ("aproned", "plane_frames", "crossed", "board_sides")


def held(
    kind: str, top: dict[str, Any] | None = None, more: dict[str, Any] | None = None, **screw: Any
) -> Piece:
    document = write_piece(starter(kind))
    document["supports"][0] |= {"held": screw, **(more or {})}
    document["top"] |= top or {}
    return read_piece(document)


def codes(piece: Piece) -> dict[str, Any]:
    return {one.code: one for one in plan(piece, workbench()).findings}


class ByHand(SimpleTestCase):
    def test_a_rail_is_gone_through_from_below_and_the_head_let_in_for_what_is_left(self) -> None:
        # A rail 50 deep, a screw of 45 that is to go 16 into the top: 50 - (45 - 16) = 21.
        for one in self.screws("crossed", rail=50.0, length=45, bite=16, count=2, from_ends=70):
            self.assertAlmostEqual(one.through, 50.0, 9)
            self.assertAlmostEqual(one.sunk, 21.0, 9)
            self.assertAlmostEqual(one.between, 90.0, 9)

    def screws(self, kind: str, **sizes: Any) -> Any:
        own = {k: sizes.pop(k) for k in ("rail", "apron", "thickness", "splay", "rake") if k in sizes}
        piece = held(kind, more=own, **sizes)
        return fastenings(piece, stand(piece))

    def test_a_pocket_starts_as_far_down_as_half_the_thickness_over_the_tangent(self) -> None:
        # On a plumb apron 22 thick, at 15 degrees: 11 / tan 15 down its inner face, 11 / sin 15 along.
        for one in self.screws(
            "aproned", thickness=22.0, splay=0.0, rake=0.0, slant=15, bite=14, length=40
        ):
            self.assertAlmostEqual(one.edge, 11.0 / math.tan(math.radians(15)), 6)
            self.assertAlmostEqual(one.through, 11.0 / math.sin(math.radians(15)), 6)
            self.assertAlmostEqual(one.way[2], math.cos(math.radians(15)), 9)

    def test_its_point_reaches_less_high_than_it_is_long(self) -> None:
        for one in self.screws("aproned", splay=9.0, rake=9.0, slant=15, bite=14, length=40):
            # The apron leans 9 outward going down, the pocket 15 the other way off its face.
            self.assertAlmostEqual(one.reach, 14.0 * math.cos(math.radians(15.0 - 9.0)), 6)

    def test_each_has_its_share_of_what_the_top_moves(self) -> None:
        # A top 400 wide that moves 6: a screw 150 off its middle goes 6 · 150 / 400 = 2.25 either way.
        piece = held(
            "crossed", {"outline": {"kind": "rectangle", "length": 500, "width": 400}, "grain": 0.0},
            {"first": 90.0, "frames": 1, "length": 440}, moves=6.0, count=3, from_ends=70.0,
        )  # fmt: skip
        outer, middle, _ = fastenings(piece, stand(piece))
        self.assertAlmostEqual(abs(outer.along), 150.0, 9)
        self.assertAlmostEqual(outer.travel, 2.25, 9)
        self.assertTrue(outer.slot)
        self.assertEqual((outer.wide, outer.seat), (5.0 + 4.5, 9.0 + 4.5))
        self.assertEqual((middle.room, middle.washer, middle.wide), (0.0, 0.0, 5.0))

    def test_where_the_top_moves_across_a_part_its_holes_are_wide_all_round_under_washers(self) -> None:
        piece = held(
            "crossed", {"outline": {"kind": "rectangle", "length": 500, "width": 400}, "grain": 90.0},
            {"first": 90.0, "frames": 1, "length": 440}, moves=6.0, count=2, from_ends=70.0,
        )  # fmt: skip
        # On the middle line along the grain nothing moves at all.
        self.assertEqual({one.room for one in fastenings(piece, stand(piece))}, {0.0})
        aside = held("board_sides", {"grain": 0.0}, moves=6.0, count=2)
        for one in fastenings(aside, stand(aside)):
            self.assertFalse(one.slot)
            # Wherever the screw stands in its hole the washer laps over the rim.
            self.assertGreaterEqual(one.washer / 2 - (one.wide / 2 + one.travel), 1.0 - 1e-9)

    @given(st.floats(0, 180), st.floats(100, 900), st.floats(100, 900))
    @settings(max_examples=60, deadline=None)
    def test_width_across_the_grain(self, grain: float, long: float, wide: float) -> None:
        # A rectangle's support function, on both sides.
        outline = read_piece(
            {**write_piece(starter("bench")), "top": {
                **write_piece(starter("bench"))["top"],
                "outline": {"kind": "rectangle", "length": long, "width": wide}, "hollow": None,
            }}
        ).top.outline  # fmt: skip
        g = math.radians(grain)
        self.assertAlmostEqual(
            across_grain(outline, grain), long * abs(math.sin(g)) + wide * abs(math.cos(g)), 6
        )

    def test_width_across_the_grain_of_what_is_not_alike_on_both_sides(self) -> None:
        # Corners on a line at 45 degrees: along that grain it has next to no width, across it all.
        document = write_piece(starter("crossed"))
        ring = [(200.0, 210.0), (-210.0, -200.0), (-200.0, -210.0), (210.0, 200.0)]
        document["top"]["outline"] = {"kind": "drawn", "corners": [{"x": x, "y": y} for x, y in ring]}
        outline = read_piece(document).top.outline
        self.assertAlmostEqual(across_grain(outline, 45.0), 20.0 / math.sqrt(2.0), 6)
        self.assertAlmostEqual(across_grain(outline, 135.0), 820.0 / math.sqrt(2.0), 6)


class Wrong(SimpleTestCase):
    def test_a_point_that_comes_through_is_said_and_by_how_much_less(self) -> None:
        found = codes(held("crossed", {"thickness": 20.0}, length=50, bite=19, from_ends=80))[
            "held_through"
        ]
        self.assertEqual(found.level, "stop")
        self.assertAlmostEqual(found.limit.value, 17.0)
        self.assertIn("2 mm less far in", found.mend)

    def test_a_hollow_leaves_less(self) -> None:
        top = {"thickness": 34.0, "hollow": {"way": "dish", "length": 440, "width": 440, "depth": 14}}
        deep = held(
            "crossed", {**top, "outline": {"kind": "round", "diameter": 460}}, bite=24, from_ends=150
        )
        flat = held("crossed", {**top, "hollow": None}, bite=24, from_ends=150)
        self.assertIn("held_through", codes(deep))
        self.assertNotIn("held_through", codes(flat))

    def test_a_screw_longer_than_its_way_stands_proud(self) -> None:
        found = codes(held("crossed", more={"rail": 30.0}, length=60, bite=14, from_ends=80))["held_proud"]
        self.assertAlmostEqual(found.limit.value, 44.0)

    def test_little_thread_nothing_under_the_top_a_head_as_wide_as_its_rail(self) -> None:
        self.assertIn("held_short", codes(held("crossed", bite=6, from_ends=80)))
        rails = [{"drop": 60.0, "depth": 40.0, "thickness": 22.0, "offset": 0.0, "lies": "upright"}]
        self.assertIn("held_nothing", codes(held("board_sides", more={"rails": rails})))
        self.assertIn("held_splits", codes(held("crossed", head=30, from_ends=80)))

    def test_one_in_the_lap_or_over_the_mitre_is_crowded(self) -> None:
        self.assertIn("held_crowded", codes(held("crossed", count=3, from_ends=80)))
        self.assertIn("held_crowded", codes(held("crossed", count=2, from_ends=20)))
        self.assertNotIn("held_crowded", codes(held("crossed", count=2, from_ends=80)))

    def test_what_is_put_in_at_first_is_right(self) -> None:
        for kind in KINDS:
            made = restate(starter(kind), Restate("held", "screws", 0))
            with self.subTest(kind):
                self.assertEqual([code for code in codes(made) if code.startswith("held")], [])
                self.assertIsNone(restate(made, Restate("held", "nothing", 0)).supports[0].held)


class Blind(SimpleTestCase):
    def test_every_hole_comes_out_under_the_top_and_every_screw_stands_out_as_meant(self) -> None:
        for kind in KINDS:
            for slant in (0.0, 14.0):
                for count, grain in ((1, 0.0), (2, 90.0), (3, 35.0)):
                    piece = held(
                        kind, {"grain": grain}, slant=slant, count=count, bite=11, length=25, moves=5
                    )
                    shop = random_shop(random.Random(count))
                    tally = carry_out(piece, plan(piece, shop), shop)
                    off = {what for what, (far, _) in tally.worst.items() if far > limit(what)}
                    with self.subTest(kind, slant=slant, count=count):
                        self.assertEqual(off, set())
                        self.assertIn(("hold", "drilling"), tally.done)
                        self.assertIn(("proof", "StandsOut"), tally.done)


class Around(SimpleTestCase):
    def test_the_holes_are_in_the_solids(self) -> None:
        # Two holes through a rail 50 deep, their heads let in: two cylinders each.
        bare = held("crossed", more={"rail": 50.0, "held": None})
        bored = held("crossed", more={"rail": 50.0}, length=45, bite=16, from_ends=80, moves=0)
        volumes = []
        for piece in (bare, bored):
            parts = {part.key: part for part in solids_of(piece, plan(piece, workbench()))}
            rail = parts["s1.frame.1.rail"]
            a, b, c = (np.array(rail.points)[np.array(rail.triangles)[:, k]] for k in range(3))
            volumes.append(float(np.einsum("ij,ij->i", a, np.cross(b, c)).sum() / 6))
        wanted = 2 * math.pi / 4 * (21.0 * 9.0**2 + 29.0 * 5.0**2)
        self.assertAlmostEqual(volumes[0] - volumes[1], wanted, delta=0.01 * wanted)

    def test_the_top_goes_on_last_but_for_what_is_under_the_feet(self) -> None:
        document = write_piece(held("crossed", from_ends=80))
        document["underfoot"] = {"kind": "pads", "thickness": 4, "across": 20}
        piece = read_piece(document)
        made = plan(piece, workbench())
        steps = [step.operation for step in order_of(piece, made, Build()).steps]
        for earlier in ("hold", "glue", "level", "finish"):
            self.assertLess(steps.index(earlier), steps.index("hold_top"))
        self.assertLess(steps.index("hold_top"), steps.index("write_down"))

    def test_the_pilot_stops_where_the_screw_ends_and_a_flat_bit_is_led(self) -> None:
        piece = held("crossed", length=45, bite=16, from_ends=80)
        order = order_of(piece, plan(piece, workbench()), Build())
        (step,) = [one for one in order.steps if one.operation == "hold_top"]
        # Through the part and into the top, from the head's seat: the whole screw, of which 16 in the top.
        self.assertIn("45 mm from its point", " ".join(step.do))
        self.assertIn("16 mm into the top", " ".join(step.do))
        for kind, slant, led in (("aproned", 15, True), ("crossed", 0, False)):
            made = plan(held(kind, slant=slant, from_ends=80), workbench())
            card = next(one for one in made.setups if one.operation == "hold")
            self.assertEqual("skates" in " ".join(card.steps), led)

    def test_its_wood_says_whether_the_slots_are_long_enough(self) -> None:
        choice = WoodChoice(home_rh=30.0, shop_rh=65.0)
        for moves, said in ((0.5, "at least"), (30.0, "that is enough")):
            piece = held("crossed", from_ends=80, moves=moves)
            found = effects(piece, plan(piece, workbench()), choice, {}, None, Show(Units()))
            assert found.moves is not None
            self.assertTrue(any(said in line for line in found.moves.told), found.moves.told)
