"""Splines through the top into the ends of leaning boards: worked by hand, cut blind, judged, driven."""

from __future__ import annotations

import math
from dataclasses import replace
from typing import Any, ClassVar

import trimesh
from django.test import SimpleTestCase

from splay.build.document import Build
from splay.build.order import order_of
from splay.errors import BadInput
from splay.patterns.whole import patterns_of
from splay.piece import write_piece
from splay.piece.starters import starter
from splay.quantity import Show, Units
from splay.setups.card import SetUp
from splay.shop import workbench
from splay.solids import solids_of
from splay.stance.restate import Restate, restate
from splay.stance.splines import splined
from splay.stance.staked import stand
from splay.timber.fixings import fixings
from splay.work.joinery import EndNotches, Mortises
from tests.bench.judged import carry_out
from tests.core.make import planned, with_cards
from tests.core.test_blind import limit
from tests.core.test_stepped import LONG, SCREWS, SPLAY, THICK, TOP, codes, stepped


class Splines(SimpleTestCase):
    """Through the top into notches: 22 thick boards at 12 degrees under a top 21 thick."""

    CHOSEN: ClassVar[dict[str, Any]] = {"count": 2, "width": 34.0, "depth": 25.0, "from_edges": 80.0}

    def setUp(self) -> None:
        self.piece = stepped(splines=self.CHOSEN)
        self.every = splined(self.piece, stand(self.piece))
        self.tan, self.cos = math.tan(math.radians(SPLAY)), math.cos(math.radians(SPLAY))

    def test_they_come_through_where_the_lean_takes_them(self) -> None:
        self.assertEqual(len(self.every), 4)
        one = self.every[0]
        self.assertAlmostEqual(one.outer, LONG / 2)
        self.assertAlmostEqual(one.inner, LONG / 2 - THICK / self.cos)
        self.assertAlmostEqual(one.outer_up, LONG / 2 - TOP * self.tan)
        ys = sorted({(each.low, each.high) for each in self.every})
        self.assertEqual(ys, [(-40.0, -6.0), (6.0, 40.0)])
        # Notch, top and slant along the board, and 3 mm plumb to be sawn off.
        long = 25.0 + TOP / self.cos + THICK * self.tan + 3.0 / self.cos
        self.assertAlmostEqual(one.long, long)

    def test_a_mortise_is_said_from_lines_and_words_that_are_on_the_top(self) -> None:
        card = next(one for one in planned(self.piece).setups if one.operation == "spline_mortise")
        said = " ".join(card.steps)
        self.assertIn("Underside: 149.5 mm and 172 mm from the front-back line towards LEFT", said)
        self.assertIn(
            "from the left-right line, 6 mm to 40 mm towards FRONT, and 6 mm to 40 mm towards BACK", said
        )
        self.assertIn("Upper face: 145 mm and 167.5 mm from the front-back line towards RIGHT", said)

    def test_each_fills_its_notch_and_its_mortise_and_nothing_else(self) -> None:
        plain = {part.name: part for part in solids_of(stepped(), planned(stepped()))}
        made = {part.name: part for part in solids_of(self.piece, planned(self.piece))}

        def litres(parts: dict[str, Any], name: str) -> float:
            mesh = trimesh.Trimesh(parts[name].points, parts[name].triangles, process=True)
            self.assertTrue(mesh.is_watertight, name)
            return float(mesh.volume)

        through = 4 * 34.0 * THICK / self.cos * TOP
        self.assertLess(abs((litres(plain, "top") - litres(made, "top")) / through - 1.0), 0.001)
        # Square to the faces at its bottom: 25 down the outer one, the slant more down the inner one.
        notch = 2 * 34.0 * THICK * (25.0 + THICK * self.tan / 2)
        board = "right long board"
        self.assertLess(abs((litres(plain, board) - litres(made, board)) / notch - 1.0), 0.001)
        spline = litres(made, "spline 1 of the left long board")
        self.assertLess(abs(spline / (through / 4 + notch / 2) - 1.0), 0.001)

    def test_what_is_told_wrong_is_found(self) -> None:
        def change(kind: type, **to: Any) -> Any:
            def turned(card: SetUp) -> SetUp:
                return replace(card, does=tuple(
                    replace(one, **{k: v(one) for k, v in to.items()}) if isinstance(one, kind) else one
                    for one in card.does
                ))  # fmt: skip

            return turned

        def worst(turned: Any) -> set[str]:
            made = planned(self.piece)
            made = with_cards(made, tuple(turned(card) for card in made.setups))
            tally = carry_out(self.piece, made, workbench())
            return {what for what, (off, _) in tally.worst.items() if off > limit(what)}

        self.assertEqual(worst(lambda card: card), set())
        level = change(Mortises, near=lambda one: replace(one.near, value=160.0))
        self.assertIn("mortise across mm", worst(level))
        other = {"underside": "upper face", "upper face": "underside"}
        self.assertIn("mortise across mm", worst(change(Mortises, face=lambda one: other[one.face])))
        askew = change(
            EndNotches,
            cheeks=lambda one: tuple((replace(a, value=a.value + 2), b) for a, b in one.cheeks),
        )
        self.assertIn("mortise along mm", worst(askew))
        deeper = change(EndNotches, deep=lambda one: replace(one.deep, value=one.deep.value + 9.0))
        self.assertIn("spline short mm", worst(deeper))
        self.assertIn("spline short mm", worst(change(EndNotches, end=lambda _: "foot")))

    def test_what_is_wrong_is_said(self) -> None:
        dish = {"way": "dish", "length": 400.0, "width": 240.0, "depth": 5.0}
        for wanted, piece in (
            ("spline_edge", stepped(splines={**self.CHOSEN, "from_edges": 20.0})),
            ("spline_edge", stepped(splines={**self.CHOSEN, "from_edges": 30.0},
                                    taper={"sides": "back", "off": 9.0})),
            ("spline_close", stepped(splines={**self.CHOSEN, "width": 44.0, "from_edges": 79.0})),
            ("spline_rim", stepped(top={"outline": {"kind": "rectangle", "length": 350.0, "width": 240.0}},
                                   splines=self.CHOSEN)),
            ("spline_grain", stepped(top={"grain": 90.0}, splines=self.CHOSEN)),
            ("spline_hollow", stepped(top={"hollow": dish}, splines=self.CHOSEN)),
            ("inside_meet", stepped(splines={**self.CHOSEN, "from_edges": 43.0})),
            ("spline_held", stepped(splines=self.CHOSEN, held=SCREWS)),
        ):  # fmt: skip
            with self.subTest(wanted):
                self.assertIn(wanted, codes(piece))
        self.assertEqual(codes(self.piece), set())
        still = stepped(splines=self.CHOSEN, held={**SCREWS, "moves": 0.0})
        self.assertNotIn("spline_held", codes(still))

    def test_they_are_put_in_clear_of_the_rails_and_taken_out_again(self) -> None:
        for piece in (stepped(), starter("board_sides")):
            made = restate(piece, Restate("splines", "on"))
            self.assertFalse({code for code in codes(made) if code.startswith(("spline", "inside"))})
            self.assertEqual(write_piece(restate(made, Restate("splines", "off"))), write_piece(piece))
        with self.assertRaises(BadInput):
            restate(starter("crossed"), Restate("splines", "on"))

    def test_they_are_driven_when_the_sides_stand_before_the_feet_are_levelled(self) -> None:
        made = order_of(self.piece, planned(self.piece), Build())
        at = {step.operation: k for k, step in enumerate(made.steps)}
        places = [at[name] for name in ("spline_notch", "splines", "glue", "spline_in", "level")]
        self.assertEqual(places, sorted(places))
        self.assertLess(at["spline_mortise"], at["splines"])
        self.assertIn("driven from above", str(made))
        steps = {step.key: step.operation for step in made.steps}
        asked = {(steps.get(need.before), steps.get(need.after)) for need in made.needs}
        self.assertIn(("spline_in", "level"), asked)
        self.assertIn(("joins", "slot"), asked)

    def test_they_are_on_the_patterns_of_top_and_board(self) -> None:
        made = {one.id: one.view for one in patterns_of(self.piece, workbench(), planned(self.piece))}
        one = next(each for each in self.every if each.side > 0)
        # The underside lies up, turned over side to side: what is at the right is at the left.
        corner = (-one.outer, one.low)
        on_top = [p for shape in made["top"].shapes if shape.layer == "cut" for p in shape.points]
        self.assertLess(min(math.dist(p, corner) for p in on_top), 1e-6)
        board = made["board.s1.side.left"]
        deep = [shape for shape in board.shapes if shape.layer == "cut" and len(shape.points) == 4]
        runs = {round(abs(s.points[1][0] - s.points[0][0]), 6) for s in deep}
        self.assertEqual(runs, {25.0})
        self.assertEqual({round(abs(s.points[2][1] - s.points[1][1]), 6) for s in deep}, {34.0})

    def test_they_are_listed_with_what_else_is_wanted(self) -> None:
        listed = {(one.name, one.count) for one in fixings(self.piece, planned(self.piece), Show(Units()))}
        self.assertIn(("splines", 4), listed)
