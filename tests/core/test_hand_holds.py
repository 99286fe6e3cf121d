"""Hand-holds: bored in a row right through the top, by hand, blind, and where they would break."""

from __future__ import annotations

import math
import random
from dataclasses import replace
from typing import Any

import numpy as np
import trimesh
from django.test import SimpleTestCase
from hypothesis import given, settings
from hypothesis import strategies as st

from splay.build.document import Build
from splay.build.order import order_of
from splay.errors import BadInput
from splay.piece import HandHold, Piece, read_piece, write_piece
from splay.piece.starters import STARTS, starter
from splay.quantity import Show, Units
from splay.shop import workbench
from splay.solids import top_solid
from splay.stance.hand_hold import between, end_holes, slot
from splay.stance.restate import Restate, restate
from splay.views.mesh import seen_meshes
from splay.views.scene import Model
from splay.work.does import Bit
from tests.bench.judged import carry_out
from tests.bench.pieces import framed, random_shop
from tests.core.make import planned, with_cards
from tests.core.test_blind import limit


def held(kind: str, *holds: dict[str, Any], **top: Any) -> Piece:
    document = write_piece(starter(kind))
    document["top"] |= {"hand_holds": list(holds), **top}
    return read_piece(document)


def codes(piece: Piece) -> set[str]:
    return {f.code for f in planned(piece).findings if f.code.startswith("hold_")}


class ByHand(SimpleTestCase):
    def test_its_end_holes_stand_its_length_less_its_width_apart(self) -> None:
        first, last = end_holes(HandHold(x=10.0, y=-20.0, length=110.0, width=30.0, turn=0.0))
        self.assertEqual((first, last), ((-30.0, -20.0), (50.0, -20.0)))
        up = end_holes(HandHold(x=0.0, y=0.0, length=90.0, width=30.0, turn=90.0))
        self.assertAlmostEqual(math.dist(*up), 60.0, 9)

    @given(st.floats(20, 300), st.floats(8, 60), st.floats(-180, 180))
    @settings(max_examples=80, deadline=None)
    def test_no_wood_is_left_untouched_between_the_holes(
        self, length: float, width: float, turn: float
    ) -> None:
        if length < width:
            return
        one = HandHold(length=length, width=width, turn=turn)
        apart = math.dist(*end_holes(one)) / (between(one) + 1)
        self.assertLessEqual(apart, 2.0 / 3.0 * width + 1e-6)
        # A rectangle with half a circle at either end.
        area = (length - width) * width + math.pi * width**2 / 4
        self.assertAlmostEqual(slot(one).area / area, 1.0, 2)

    def test_the_solid_and_what_is_turned_round_lose_as_much(self) -> None:
        hold = {"x": 12, "y": 6, "length": 100, "width": 26, "turn": 35}
        for extra in ({}, {"upper_edge": {"way": "round_over", "size": 6.0}}):
            whole, cut = held("table", **extra), held("table", hold, **extra)
            taken = top_solid(whole).volume() - top_solid(cut).volume()
            wanted = slot(cut.top.hand_holds[0]).area * cut.top.thickness
            self.assertAlmostEqual(taken / wanted, 1.0, 4)
            made = planned(cut)
            mesh = seen_meshes(Model(cut, made.stance, made.parts, made.sockets, Show(Units())))[0]
            corners = np.array(mesh.points).reshape(-1, 3)
            solid = trimesh.Trimesh(corners, np.array(mesh.triangles).reshape(-1, 3))
            solid.merge_vertices()
            self.assertTrue(solid.is_watertight)
            self.assertAlmostEqual(solid.volume / top_solid(cut).volume(), 1.0, 2)

    def test_it_is_marked_bored_and_proved_before_the_edges_are_shaped(self) -> None:
        piece = held(
            "board_sides", {"length": 100, "width": 30}, upper_edge={"way": "round_over", "size": 5}
        )
        made = planned(piece)
        keys = [step.operation for step in order_of(piece, made, Build()).steps]
        self.assertLess(keys.index("lay_out"), keys.index("hand_hold"))
        self.assertLess(keys.index("hand_hold"), keys.index("edges"))
        (proof,) = (one for one in made.proofs if one.kind == "hand_hold")
        self.assertAlmostEqual(proof.expected.value, 100.0, 9)
        (card,) = (one for one in made.setups if one.operation == "hand_hold")
        self.assertIn("3 between them, 17.5 mm", " ".join(card.steps))

    def test_a_bit_that_is_not_sold_is_said_with_the_nearest(self) -> None:
        for width, said in ((27.0, "26 mm"), (30.0, "")):
            (card,) = (
                c for c in planned(held("table", {"width": width})).setups if c.operation == "hand_hold"
            )
            self.assertEqual(bool(card.reach_note), bool(said))
            self.assertIn(said, card.reach_note)

    def test_shorter_than_wide_is_refused(self) -> None:
        with self.assertRaisesMessage(BadInput, "at least its width"):
            held("table", {"length": 20, "width": 30})


class Judged(SimpleTestCase):
    def test_what_breaks_meets_or_is_blocked_is_said(self) -> None:
        table = starter("table")
        a, b = table.top.outline.length / 2, table.top.outline.width / 2  # type: ignore[union-attr]
        for hold, code in (
            ({"y": b - 25}, "hold_edge"),
            ({"y": b}, "hold_edge"),
            ({"x": a - 90, "length": 100}, "hold_short_grain"),
            ({"x": 90 - a, "length": 100}, "hold_short_grain"),
            ({"length": 70}, "hold_small"),
        ):
            self.assertIn(code, codes(held("table", hold)), hold)
        self.assertEqual(codes(held("table", {"length": 105})), set())
        # Turned with the grain the same slot stands off the end grain, which is now in front and behind.
        self.assertNotIn("hold_short_grain", codes(held("table", {"x": a - 90, "length": 100}, grain=90.0)))
        stool = planned(starter("round_four")).stance.legs[0].socket
        self.assertIn("hold_leg", codes(held("round_four", {"x": stool[0], "y": stool[1]})))
        self.assertIn("hold_blocked", codes(held("crossed", {})))

    def test_another_one_starts_where_no_rule_is_broken_where_there_is_such_a_place(self) -> None:
        for name in STARTS:
            made = restate(starter(name), Restate("hand_hold", "more"))
            self.assertEqual(len(made.top.hand_holds), 1)
            if name not in ("crossed", "log_slice", "tall"):
                self.assertEqual(codes(made) - {"hold_small"}, set(), name)
        two = restate(restate(starter("bench"), Restate("hand_hold", "more")), Restate("hand_hold", "more"))
        one, other = (slot(each) for each in two.top.hand_holds)
        self.assertGreater(one.distance(other), 0.0)


class Blind(SimpleTestCase):
    def test_slots_come_out_as_chosen(self) -> None:
        done = 0
        for seed in range(36):
            rng = random.Random(seed)
            try:
                piece = framed(rng)
                shop = random_shop(rng)
                made = planned(piece, shop)
            except BadInput:
                continue
            if not piece.top.hand_holds:
                continue
            done += 1
            for what, (off, where) in carry_out(piece, made, shop).worst.items():
                if what.startswith("hand-hold") or "hand_hold" in where:
                    self.assertLessEqual(off, limit(what), f"seed {seed} {what} {where}")
        self.assertGreater(done, 5)

    def test_another_bit_or_another_mark_is_found(self) -> None:
        piece = held("table", {"x": 15, "length": 100, "width": 30})
        made = planned(piece)
        card = next(c for c in made.setups if c.operation == "hand_hold")
        (bit,) = (do for do in card.does if isinstance(do, Bit))
        wide = replace(bit, diameter=replace(bit.diameter, value=34.0))
        wrong = replace(card, does=tuple(wide if do is bit else do for do in card.does))
        tally = carry_out(
            piece, with_cards(made, tuple(wrong if c is card else c for c in made.setups)), workbench()
        )
        self.assertTrue(any(off > limit(what) for what, (off, _) in tally.worst.items()))
