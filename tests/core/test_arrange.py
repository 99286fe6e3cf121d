"""Whole arrangements put in at once: what they come to, and what they want."""

from __future__ import annotations

import random

from django.test import SimpleTestCase

from splay.errors import BadInput
from splay.piece import Piece, Rope, Stretcher, read_piece, write_piece
from splay.piece.starters import STARTS, starter
from splay.shop import workbench
from splay.stance.member_flats import floor_side
from splay.stance.members import members
from splay.stance.restate import Restate, restate
from splay.stance.staked import stand, support_of
from splay.stance.vectors import dot
from tests.bench.judged import carry_out
from tests.bench.pieces import buildable
from tests.core.make import piece, planned
from tests.core.test_blind import limit


def arranged(made: Piece, to: str) -> Piece:
    return restate(made, Restate("members", to))


class MembersPutIn(SimpleTestCase):
    def test_each_arrangement_has_the_pieces_its_letter_has(self) -> None:
        for name, to, count in (
            ("round_four", "none", 0), ("round_four", "single", 1), ("round_four", "h", 3),
            ("round_three", "t", 2), ("round_three", "triangle", 3), ("round_four", "box", 4),
            ("round_four", "side", 1), ("round_four", "cross", 3), ("bench", "cross", 3),
            ("round_three", "footrest", 1), ("round_four", "rope", 1),
        ):  # fmt: skip
            with self.subTest(name, to=to):
                self.assertEqual(len(arranged(starter(name), to).members), count)

    def test_what_the_legs_do_not_allow_is_said_by_its_name(self) -> None:
        for name, to, said in (
            ("round_four", "triangle", "a triangle wants 3 legs, no more"),
            ("round_three", "box", "a box wants 4 legs"),
            ("round_three", "h", "an H wants 4 legs"),
        ):
            with self.assertRaises(BadInput) as caught:
                arranged(starter(name), to)
            self.assertIn(said, caught.exception.faults[0].allowed)

    def test_what_is_put_in_can_be_built_as_it_is(self) -> None:
        for name in ("round_three", "round_four", "triangle", "bench", "table", "tall"):
            for to in ("single", "side", "h", "t", "cross", "triangle", "box", "footrest", "rope"):
                try:
                    made = arranged(starter(name), to)
                except BadInput:
                    continue
                found = [
                    f.code
                    for f in planned(made).findings
                    if f.level == "stop" and f.station == "stretchers"
                ]
                with self.subTest(name, to=to):
                    self.assertEqual(found, [])

    def test_assembly_turns_a_stretcher_that_takes_others_by_a_line_that_does_face_the_feet(self) -> None:
        pieces = [starter("bench"), *(buildable(random.Random(seed))[0] for seed in range(60))]
        met = 0
        for made in pieces:
            plan = planned(made)
            runs = members(made, plan.stance)[0]
            said = " ".join(step for stage in plan.assembly.stages for step in stage.steps) if runs else ""
            for run in runs:
                if not any(end.member == run.number for other in runs for end in other.ends):
                    continue
                name = plan.members[run.number - 1].name
                flat = made.members[run.number - 1].section != "round"
                side = "FLOOR face" if flat else "floor-side line"
                self.assertIn(f"{name[0].upper()}{name[1:]}: its {side} towards the feet", said)
                for mate in (end.leg for end in run.ends if end.leg):
                    shape = support_of(made, plan.stance.legs[mate - 1]).leg
                    of_others = "faces named on" if shape.section == "round" else "outer lines the way"
                    self.assertNotIn(of_others, said)
                for end in run.ends:
                    if end.leg:
                        met += 1
                        self.assertGreater(dot(floor_side(run.u), plan.stance.legs[end.leg - 1].d), 0.5)
        self.assertGreater(met, 20)

    def test_several_come_to_one_across_clear_of_one_another_and_are_bored_as_told(self) -> None:
        six = {"way": "circle", "count": 6, "radius": 130, "first": 0}
        for made in (
            starter("round_four"),
            starter("bench"),
            starter("table"),
            piece(height=460, placement=six),
        ):
            crossed = arranged(made, "cross")
            into = [end for one in crossed.members for end in one.ends if end.on == "member"]
            self.assertEqual(len(into), len(stand(made).legs) - 2)
            plan = planned(crossed)
            self.assertEqual([f.code for f in plan.findings if f.level == "stop"], [])
            tally = carry_out(crossed, plan, workbench())
            for what, (off, where) in tally.worst.items():
                self.assertLessEqual(off, limit(what), f"{what} {where}")

    def test_a_side_piece_runs_from_front_to_back_at_the_right(self) -> None:
        made = arranged(starter("bench"), "side")
        legs = {leg.id: leg for leg in stand(made).legs}
        ends = [legs[end.leg].socket for end in made.members[0].ends if end.on == "leg"]
        self.assertTrue(all(x > 0 for x, _, _ in ends))
        self.assertLess(ends[0][1], ends[1][1])

    def test_an_h_runs_level_and_its_middle_from_middle_to_middle(self) -> None:
        made = arranged(piece(height=440), "h")
        stance = stand(made)
        runs, _ = members(made, stance)
        for run in runs[:2]:
            heights = [stance.floor.to_floor(end.at)[2] for end in run.ends]
            self.assertAlmostEqual(heights[0], heights[1], 1)
        for k, end in enumerate(runs[2].ends):
            a, b = runs[k].ends[0].at, runs[k].ends[1].at
            for axis in range(3):
                self.assertAlmostEqual(end.at[axis], (a[axis] + b[axis]) / 2, 9)

    def test_a_t_stands_with_its_bar_in_front(self) -> None:
        made = arranged(starter("round_three"), "t")
        legs = stand(made).legs
        bar = made.members[0]
        assert isinstance(bar, Stretcher)
        fronts = sorted(legs, key=lambda leg: leg.socket[1])[:2]
        self.assertEqual({end.leg for end in bar.ends if end.on == "leg"}, {leg.id for leg in fronts})

    def test_a_rope_goes_round_in_order_and_is_added_to_what_there_is(self) -> None:
        made = arranged(arranged(starter("round_four"), "single"), "rope")
        self.assertEqual([m.kind for m in made.members], ["stretcher", "rope"])
        rope = made.members[1]
        assert isinstance(rope, Rope)
        start = rope.legs.index("l1")
        turned = [*rope.legs[start:], *rope.legs[:start]]
        self.assertIn(turned, (["l1", "l2", "l3", "l4"], ["l1", "l4", "l3", "l2"]))

    def test_what_the_legs_do_not_allow_says_what_it_wants(self) -> None:
        for name, to in (("round_three", "h"), ("crossed", "single"), ("crossed", "rope"), ("slab", "t")):
            with self.assertRaises(BadInput, msg=to) as caught:
                arranged(starter(name), to)
            self.assertIn("wants", caught.exception.faults[0].allowed)
        in_a_row = [{"x": 0, "y": y, "mirror": "none"} for y in (-90, -30, 30, 90)]
        with self.assertRaises(BadInput):
            arranged(piece(placement={"way": "free", "spots": in_a_row}), "h")
        with self.assertRaises(BadInput) as caught:
            arranged(starter("bench"), "ladder")
        self.assertIn("triangle", caught.exception.faults[0].allowed)


class SupportsPutIn(SimpleTestCase):
    def test_every_kind_beside_every_starting_piece(self) -> None:
        for name in STARTS:
            made = starter(name)
            for kind in (
                "staked_legs",
                "plane_frames",
                "mitred_frames",
                "board_sides",
                "slab_leg",
                "aproned_legs",
            ):
                more = restate(made, Restate("support", kind, support=len(made.supports)))
                with self.subTest(name, kind=kind):
                    self.assertEqual(
                        [s.kind for s in more.supports], [*(s.kind for s in made.supports), kind]
                    )
                    self.assertTrue(planned(more).sizes)

    def test_a_second_slab_leg_takes_the_other_end(self) -> None:
        made = restate(starter("slab"), Restate("support", "slab_leg", support=1))
        ends = [s.end for s in made.supports if s.kind == "slab_leg"]
        self.assertEqual(sorted(ends), ["left", "right"])
        self.assertFalse([f for f in planned(made).findings if f.code == "too_few_feet"])

    def test_a_slab_leg_squares_the_top_and_keeps_its_size(self) -> None:
        made = restate(starter("table"), Restate("support", "slab_leg", support=0))
        outline = made.top.outline
        assert outline.kind == "rectangle"
        self.assertEqual((outline.length, outline.width), (620, 430))

    def test_unknown_kinds_and_places_are_refused(self) -> None:
        for ask in (Restate("support", "tripod", support=0), Restate("support", "slab_leg", support=5)):
            with self.assertRaises(BadInput):
                restate(starter("bench"), ask)


class Details(SimpleTestCase):
    def test_hollows_come_and_go(self) -> None:
        made = starter("bench")
        for to, way in (("trough", "trough"), ("dish", "dish")):
            hollowed = restate(made, Restate("hollow", to))
            assert hollowed.top.hollow is not None
            self.assertEqual(hollowed.top.hollow.way, way)
            self.assertLess(hollowed.top.hollow.depth, made.top.thickness / 2)
            self.assertIsNone(restate(hollowed, Restate("hollow", "none")).top.hollow)
        with self.assertRaises(BadInput):
            restate(made, Restate("hollow", "bowl"))

    def test_a_peg_only_where_a_tenon_ends_in_the_wood(self) -> None:
        pegged = restate(starter("bench"), Restate("peg", "peg"))
        self.assertIsNotNone(pegged.supports[0].joint.peg)  # type: ignore[union-attr]
        plain = restate(pegged, Restate("peg", "none"))
        self.assertIsNone(plain.supports[0].joint.peg)  # type: ignore[union-attr]
        with self.assertRaises(BadInput) as caught:
            restate(starter("round_three"), Restate("peg", "peg"))
        self.assertIn("blind", caught.exception.faults[0].do)

    def test_finer_corners_lie_on_the_edge_as_it_was(self) -> None:
        made = starter("log_slice")
        finer = restate(made, Restate("corners", "finer"))
        self.assertEqual(len(finer.top.outline.corners), 16)  # type: ignore[union-attr]
        with self.assertRaises(BadInput):
            restate(starter("bench"), Restate("corners", "finer"))

    def test_a_photograph_is_laid_wider_than_the_outline_and_taken_away(self) -> None:
        made = starter("log_slice")
        laid = restate(made, Restate("photo", "laid"))
        outline = laid.top.outline
        assert outline.kind == "drawn" and outline.photo is not None
        xs = [corner.x for corner in outline.corners]
        self.assertGreater(outline.photo.width, max(xs) - min(xs))
        self.assertEqual((outline.photo.x, outline.photo.y, outline.photo.turn), (0, 0, 0))
        self.assertEqual(restate(laid, Restate("photo", "none")), made)
        for made_, to in ((starter("bench"), "laid"), (made, "under")):
            with self.assertRaises(BadInput) as caught:
                restate(made_, Restate("photo", to))
            self.assertTrue(caught.exception.faults[0].do)

    def test_one_more_cross_piece_hangs_below_the_last_where_there_can_be_one(self) -> None:
        for name, field in (("plane_frames", "cross"), ("board_sides", "rails")):
            before = getattr(starter(name).supports[0], field)
            after = getattr(
                restate(starter(name), Restate("cross_piece", "more", support=0)).supports[0], field
            )
            self.assertEqual(len(after), len(before) + 1)
            self.assertGreater(after[-1].drop, before[-1].drop)
        bare = write_piece(starter("board_sides"))
        bare["supports"][0]["rails"] = []
        first = restate(read_piece(bare), Restate("cross_piece", "more", support=0)).supports[0]
        self.assertEqual(first.rails[0].drop, 0.0)  # type: ignore[union-attr]
        with self.assertRaises(BadInput):
            restate(starter("bench"), Restate("cross_piece", "more", support=0))
