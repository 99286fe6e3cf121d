"""A seat in two boards with a gap: where they lie, what holds each, what moves, what is wrong."""

from __future__ import annotations

import random
from typing import Any

from django.test import SimpleTestCase

from splay.build.document import Build
from splay.build.order import order_of
from splay.errors import BadInput
from splay.piece import Piece, read_piece, write_piece
from splay.piece.starters import starter
from splay.plan import plan
from splay.quantity import Show, Units
from splay.shop import workbench
from splay.solids import top_solid
from splay.stance.gapped import slit, top_boards
from splay.stance.holding import fastenings
from splay.stance.restate import Restate, restate
from splay.stance.staked import stand
from splay.timber.choices import WoodChoice
from splay.timber.needs import needs_of
from splay.views.mesh import seen_meshes
from splay.views.scene import Model
from tests.bench.judged import carry_out
from tests.bench.pieces import FRAMED, framed, random_shop
from tests.core.test_blind import limit
from tests.core.test_meshes import open_edges


def two_boards(kind: str = "aproned", gap: dict[str, Any] | None = None, **top: Any) -> Piece:
    """A start with its top 300 by 406 in two boards of 200 with 6 between them, held by screws."""
    document = write_piece(starter(kind))
    document["top"] |= {
        "outline": {"kind": "rectangle", "length": 500.0, "width": 406.0},
        "hollow": None,
        "boards": [200.0, 200.0],
        "gap": {"width": 6.0} | (gap or {}),
        **top,
    }
    document["supports"][0]["held"] = {"count": 2, "from_ends": 40.0, "moves": 8.0}
    return read_piece(document)


def codes(piece: Piece) -> dict[str, Any]:
    return {one.code: one for one in plan(piece, workbench()).findings}


class WhereTheyLie(SimpleTestCase):
    def test_the_gap_lies_in_the_middle_of_boards_alike_and_aside_of_others(self) -> None:
        self.assertEqual(slit(two_boards().top), (-3.0, 3.0))
        # 100 + 6 + 300: from -203, so from -103 to -97.
        self.assertEqual(slit(two_boards(boards=[100.0, 300.0]).top), (-103.0, -97.0))

    def test_boards_are_called_by_the_words_on_the_seat(self) -> None:
        self.assertEqual([one.name for one in top_boards(two_boards().top)], ["front board", "back board"])
        across = top_boards(two_boards(grain=90.0).top)
        self.assertEqual([one.name for one in across], ["right board", "left board"])

    def test_so_much_wood_is_left_out_as_the_gap_is_long_wide_and_thick(self) -> None:
        piece = two_boards(upper_edge={"way": "square"}, lower_edge={"way": "square"})
        whole = restate(piece, Restate("gap", "off"))
        lost = top_solid(whole).volume() - top_solid(piece).volume()
        self.assertAlmostEqual(lost, 500.0 * 6.0 * piece.top.thickness, 3)
        self.assertEqual(len(top_solid(piece).decompose()), 2)

    def test_in_the_round_it_is_open_too(self) -> None:
        for grain in (0.0, 90.0, 30.0):
            for hollow in (None, {"way": "dish", "length": 300.0, "width": 250.0, "depth": 8.0}):
                piece = two_boards(grain=grain, hollow=hollow)
                made = plan(piece, workbench())
                mesh = seen_meshes(Model(piece, made.stance, made.parts, made.sockets, Show(Units())))[0]
                with self.subTest(grain=grain, hollow=hollow):
                    self.assertEqual((mesh.part, open_edges(mesh)), ("top", 0))

    def test_three_boards_have_no_gap_between_them(self) -> None:
        with self.assertRaises(BadInput) as wrong:
            two_boards(boards=[100.0, 100.0, 100.0])
        self.assertEqual(wrong.exception.faults[0].field, "top.boards")

    def test_put_in_at_once_it_fills_the_top(self) -> None:
        made = restate(starter("crossed"), Restate("gap", "on"))
        assert made.top.gap is not None
        wide = made.top.outline.diameter if made.top.outline.kind == "round" else 0.0
        self.assertAlmostEqual(sum(made.top.boards) + made.top.gap.width, wide, 6)
        self.assertEqual(restate(made, Restate("gap", "off")).top.boards, ())


class WhatHoldsThem(SimpleTestCase):
    def test_each_board_is_screwed_evenly_and_stays_at_one_line(self) -> None:
        """Side aprons run under both boards: two screws under each, 40 from where it begins and ends."""
        piece = two_boards(gap={"stays": "outer"})
        mine = [one for one in fastenings(piece, stand(piece)) if one.body.name == "left apron"]
        self.assertEqual([one.into.board for one in mine], ["front board"] * 2 + ["back board"] * 2)
        by = sorted(mine, key=lambda one: one.at[1])
        # At the gap 40 from its edge, 3 from the middle.
        self.assertAlmostEqual(by[1].at[1], -43.0, 6)
        self.assertAlmostEqual(by[2].at[1], 43.0, 6)

    def test_what_a_screw_is_to_move_is_its_way_from_the_round_hole_over_the_wood(self) -> None:
        piece = two_boards(gap={"stays": "outer"})
        screws = fastenings(piece, stand(piece))
        for board, sign in (("front board", -1.0), ("back board", 1.0)):
            own = [one for one in screws if one.into.board == board]
            still = [one for one in own if one.travel == 0.0]
            line = max(sign * one.at[1] for one in own)
            self.assertTrue(still)
            for one in own:
                # 400 of wood moves 8: a fiftieth of the way.
                self.assertAlmostEqual(one.travel, (line - sign * one.at[1]) / 50.0, 6)

    def test_the_line_that_stays_is_the_makers_choice(self) -> None:
        at = {}
        for stays in ("outer", "inner"):
            piece = two_boards(gap={"stays": stays})
            screws = fastenings(piece, stand(piece))
            at[stays] = {abs(round(one.at[1], 6)) for one in screws if one.travel == 0.0}
        self.assertEqual(at["inner"], {43.0})
        self.assertGreater(min(at["outer"]), 100.0)

    def test_the_hold_down_says_who_holds_each_board(self) -> None:
        piece = two_boards()
        steps = order_of(piece, plan(piece, workbench()), Build()).steps
        (hold,) = (step for step in steps if step.key.startswith("hold_top"))
        said = " ".join(hold.do)
        self.assertIn("Front board: held by front apron, left apron and right apron.", said)
        self.assertIn("Back board: held by back apron, left apron and right apron.", said)
        self.assertIn("Strips 6 mm thick stay between the boards", said)
        self.assertNotIn("glue_boards", {step.key for step in steps})

    def test_with_buttons_it_says_who_holds_each_board_and_on_which_side_each_stands(self) -> None:
        piece = restate(restate(starter("crossed"), Restate("gap", "on")), Restate("held", "buttons"))
        steps = order_of(piece, plan(piece, workbench()), Build()).steps
        (hold,) = (step for step in steps if step.key.startswith("hold_top"))
        said = " ".join(hold.do)
        self.assertIn("Front board: held by rails of frames 1 and 2, by buttons that let it move.", said)
        # Buttons stand aside of their rail: what they stand off differs from one side to the other.
        lines = [line for line in hold.do if "shoulders" in line]
        self.assertEqual(len(lines), 8)
        for rail in ("Rail of frame 1", "Rail of frame 2"):
            places = {line.partition("off it, ")[2] for line in lines if line.startswith(rail)}
            self.assertEqual(len(places), 4)
        self.assertTrue(all("towards its" in line for line in lines))

    def test_two_boards_are_sawn_and_none_are_glued(self) -> None:
        piece = two_boards()
        every = needs_of(piece, plan(piece, workbench()), WoodChoice(), Show(Units()))
        (board,) = (one for one in every if one.key == "top.board.200")
        self.assertEqual(board.count, 2)


class WhatIsWrong(SimpleTestCase):
    def test_held_well_nothing_is(self) -> None:
        found = codes(two_boards())
        self.assertEqual([code for code in found if "board" in code or "gap" in code], [])

    def test_boards_that_nothing_ties_come_apart(self) -> None:
        document = write_piece(two_boards())
        document["supports"][0]["held"] = None
        found = codes(read_piece(document))["boards_apart"]
        self.assertEqual((found.level, found.field), ("stop", "supports.0.held"))
        # Rails along the grain hold a board each, and nothing both.
        document = write_piece(two_boards("board_sides"))
        self.assertIn("boards_apart", codes(read_piece(document)))

    def test_boards_that_grow_more_than_their_gap_is_wide_close_it(self) -> None:
        # Held at their outer edges both grow to the gap: 8 over 400, so 8 in all.
        found = codes(two_boards(gap={"stays": "outer"}))["gap_closes"]
        self.assertAlmostEqual(found.number.value, 8.0, 6)
        self.assertIn("9 mm", found.mend)
        self.assertNotIn("gap_closes", codes(two_boards(gap={"stays": "outer", "width": 9.5})))
        self.assertNotIn("gap_closes", codes(two_boards(gap={"stays": "inner"})))

    def test_battens_tie_two_boards_and_say_which_holes_are_round(self) -> None:
        document = write_piece(starter("battened"))
        wide = document["top"]["outline"].get("width") or document["top"]["outline"]["diameter"]
        document["top"] |= {"gap": {"width": 6.0}, "boards": [(wide - 6.0) / 2] * 2, "hollow": None}
        document["supports"][0]["joint"]["screws"] = 4
        piece = read_piece(document)
        self.assertNotIn("boards_apart", codes(piece))
        self.assertNotIn("gap_screwed", codes(piece))
        steps = order_of(piece, plan(piece, workbench()), Build()).steps
        (battens,) = (step for step in steps if step.operation == "battens")
        self.assertIn("Of the holes under each board the one nearest to its middle is round", battens.do[1])
        # Three screws: the one between both legs stands in the middle, where the gap is.
        document["supports"][0]["joint"]["screws"] = 3
        self.assertEqual(codes(read_piece(document))["gap_screwed"].level, "stop")

    def test_a_leg_at_the_gap_is_found_with_how_much_wood_is_left(self) -> None:
        document = write_piece(starter("bench"))
        placement = document["supports"][0]["placement"]
        self.assertEqual(placement["way"], "insets")
        wide = document["top"]["outline"]["width"]
        document["top"] |= {"gap": {"width": 6.0}, "boards": [(wide - 6.0) / 2] * 2, "hollow": None}
        found = codes(read_piece(document))
        self.assertIn("boards_apart", found)
        self.assertNotIn("gap_crossed", found)
        # The gap moved under the front legs.
        inset = placement["from_edges"]
        document["top"]["boards"] = [inset - 3.0, wide - inset - 3.0]
        found = codes(read_piece(document))["gap_crossed"]
        self.assertEqual(found.level, "stop")
        self.assertLess(found.number.value, 0.0)

    def test_a_mitred_slab_and_a_hand_hold_at_the_gap_are_refused(self) -> None:
        document = write_piece(starter("slab"))
        document["top"]["outline"] = {"kind": "rectangle", "length": 900.0, "width": 306.0}
        document["top"] |= {"gap": {"width": 6.0}, "boards": [150.0, 150.0]}
        self.assertIn("gap_mitred", codes(read_piece(document)))
        held = two_boards(hand_holds=[{"x": 0.0, "y": 0.0, "length": 100.0, "width": 30.0, "turn": 0.0}])
        self.assertEqual(codes(held)["gap_crossed"].level, "stop")


class CarriedOut(SimpleTestCase):
    def test_boards_are_held_at_one_line_and_move_from_there_whatever_carries_them(self) -> None:
        done = 0
        for seed in range(60):
            for name in FRAMED:
                rng = random.Random(f"{seed} {name}")
                if done >= 14:
                    return
                try:
                    piece, shop = framed(rng, name), random_shop(rng)
                    made = plan(piece, shop)
                except BadInput:
                    continue
                if piece.top.gap is None or piece.supports[0].held is None:
                    continue
                done += 1
                for what, (off, where) in carry_out(piece, made, shop).worst.items():
                    with self.subTest(seed=seed, start=name, what=what, where=where):
                        self.assertLessEqual(off, limit(what))
        self.assertGreaterEqual(done, 12)
