"""Stepped board sides: two treads, sides glued from a long and a short board, lines where parts join."""

from __future__ import annotations

import itertools
import math
import random
from dataclasses import replace
from typing import Any
from unittest.mock import patch

import numpy as np
import trimesh
from django.test import SimpleTestCase
from hypothesis import given, settings
from hypothesis import strategies as st
from manifold3d import Manifold

from splay.build.document import Build
from splay.build.order import order_of
from splay.errors import BadInput, CannotBuild
from splay.level.feet import feet_of
from splay.piece import Piece, read_piece, write_piece
from splay.piece.naming import called
from splay.piece.starters import starter
from splay.plan import Plan
from splay.quantity import Show, Units
from splay.setups.card import SetUp
from splay.shop import workbench
from splay.solids import body_solid, solids_of
from splay.stance.body import Body
from splay.stance.convex import volume
from splay.stance.holding import fastenings
from splay.stance.meets import meets
from splay.stance.moves import Move, move
from splay.stance.restate import Restate, restate
from splay.stance.rods import rods
from splay.stance.staked import stand
from splay.stance.underfoot import bearings
from splay.timber.choices import WoodChoice
from splay.timber.needs import needs_of
from splay.work.doing import steps
from splay.work.joinery import CutOut, Joins
from tests.bench.judged import Tally, carry_out
from tests.bench.pieces import framed, random_shop
from tests.core.make import planned, with_cards
from tests.core.test_blind import limit

HIGH, TOP, LONG, WIDE, THICK, SPLAY = 421.0, 21.0, 344.0, 206.0, 22.0, 12.0
DROP, BOARD, TREAD, FRONT, ENDS = 187.0, 152.0, 23.0, 14.0, 19.0
SCREWS = {"slant": 0.0, "length": 38.0, "bite": 13.0, "moves": 3.0}
RAIL = {"drop": 0.0, "depth": 46.0, "thickness": 25.0}


def stepped(top: dict[str, Any] | None = None, lower: dict[str, Any] | None = None, **more: Any) -> Piece:
    """Two treads on boards that lean 12 degrees; `more` of the support, `lower` of its second tread."""
    document = write_piece(starter("board_sides"))
    document["height"] = HIGH
    document["top"] |= {"thickness": TOP, **(top or {})}
    document["supports"][0] |= {
        "length": LONG,
        "width": WIDE,
        "thickness": THICK,
        "splay": SPLAY,
        "cut_out": {"width": 180.0, "height": 44.0},
        "rails": [{**RAIL, "offset": -60.0}, {**RAIL, "offset": 60.0}, {**RAIL, "drop": 140.0}],
        "lower": {
            "drop": DROP,
            "board": BOARD,
            "thickness": TREAD,
            "past_front": FRONT,
            "past_ends": ENDS,
            "rails": [{**RAIL, "offset": -40.0}, {**RAIL, "offset": 40.0}],
            **(lower or {}),
        },
        **more,
    }
    return read_piece(document)


def body(piece: Piece, name: str) -> Body:
    return next(one for one in stand(piece).bodies if one.name == name)


def codes(piece: Piece) -> set[str]:
    return {found.code for found in planned(piece).findings}


def spread(one: Body, axis: int) -> tuple[float, float]:
    every = [p[axis] for solid in one.stood for face in solid for p in face.corners]
    return min(every), max(every)


class ByHand(SimpleTestCase):
    """Every size from the triangle of the lean: a face runs 1 / cos 12 of its height, and out by tan 12."""

    def setUp(self) -> None:
        self.tan, self.cos = math.tan(math.radians(SPLAY)), math.cos(math.radians(SPLAY))

    def test_each_board_is_as_long_as_its_own_height_asks(self) -> None:
        high = HIGH - TOP
        for name, tall in (("left long board", high), ("right short board", high - DROP - TREAD)):
            one = body(stepped(), name)
            begins, ends = one.at(0.0, one.thickness / 2)
            self.assertAlmostEqual(ends - begins, tall / self.cos, 6, name)

    def test_their_edges_meet_and_their_feet_stand_in_one_line(self) -> None:
        long, short = body(stepped(), "left long board"), body(stepped(), "left short board")
        self.assertAlmostEqual(spread(long, 1)[0], spread(short, 1)[1], 9)
        self.assertAlmostEqual(spread(long, 2)[0], spread(short, 2)[0], 9)
        # Outer faces in one plane: as far out at the floor.
        self.assertAlmostEqual(spread(long, 0)[0], spread(short, 0)[0], 9)
        self.assertAlmostEqual(spread(short, 0)[0], -(LONG / 2 + (HIGH - TOP) * self.tan), 6)

    def test_the_lower_tread_lies_on_the_short_boards_against_the_long_ones(self) -> None:
        tread = body(stepped(), "lower tread")
        under = DROP + TREAD
        self.assertAlmostEqual(spread(tread, 2)[0], -under, 9)
        self.assertAlmostEqual(spread(body(stepped(), "left short board"), 2)[1], -under, 9)
        self.assertAlmostEqual(spread(tread, 0)[1], LONG / 2 + under * self.tan + ENDS, 9)
        self.assertEqual(spread(tread, 1), (-WIDE / 2 - BOARD - FRONT, -WIDE / 2))

    def test_a_tapered_edge_runs_from_its_corner_at_the_foot_to_its_mark_at_the_top(self) -> None:
        piece = stepped(taper={"sides": "both", "narrower": "top", "off": 11.0})
        for name, edge in (("left long board", 1), ("left short board", 0)):
            one, whole = body(piece, name), body(stepped(), name)
            (taper,) = one.tapers
            # Along the corner of outer face and edge, from sawn foot to sawn upper end.
            begins, ends = whole.at(whole.width / 2, whole.thickness / 2)
            self.assertAlmostEqual(taper.slope, math.degrees(math.atan(11.0 / (ends - begins))), 9)
            foot = abs(spread(one, 1)[edge] - spread(whole, 1)[edge])
            self.assertLess(foot, 11.0 * one.thickness * self.tan / (ends - begins) + 1e-6, name)

    def test_it_stands_past_the_boards_where_it_lies_on_them_however_those_are_tapered(self) -> None:
        """What is told when it is held: so far past the boards in front, so far past their outer faces."""
        for taper in (
            None,
            {"off": 10.0},
            {"off": 10.0, "narrower": "foot"},
            {"off": 10.0, "sides": "back"},
        ):
            piece = stepped(taper=taper)
            short, tread = body(piece, "left short board"), body(piece, "lower tread")
            ends = [p for s in short.stood for f in s for p in f.corners if abs(p[2] + DROP + TREAD) < 1e-6]
            # The corner of the outer face, from which the edge is measured.
            outer = min(p[0] for p in ends)
            front = min(p[1] for p in ends if abs(p[0] - outer) < 1e-6)
            self.assertAlmostEqual(front - spread(tread, 1)[0], FRONT, 6, str(taper))
            self.assertAlmostEqual(outer - spread(tread, 0)[0], ENDS, 6)

    def test_a_chamfer_takes_its_three_prisms_less_the_corners_they_share(self) -> None:
        # Closed form: c²/2 along front and ends, the two mitred corners counted once: c³/3 each.
        size, plain = 7.0, body(stepped(), "lower tread")
        one = body(stepped(lower={"upper_edge": {"way": "chamfer", "size": size}}), "lower tread")
        long, deep = spread(plain, 0)[1] * 2, BOARD + FRONT
        gone = size**2 / 2 * (long + 2 * deep) - 2 * size**3 / 3
        before, after = (sum(abs(volume(s)) for s in each.pieces) for each in (plain, one))
        self.assertAlmostEqual(before - after, gone, 3)
        # Its back edge, against the boards, stays as it was.
        self.assertEqual(max(p[2] for s in one.stood for f in s for p in f.corners if p[1] > -WIDE / 2 - 1),
                         -DROP)  # fmt: skip

    def test_a_steeper_chamfer_comes_down_by_its_slope(self) -> None:
        edge = {"way": "chamfer", "size": 5.0, "angle": 60.0}
        one = body(stepped(lower={"upper_edge": edge}), "lower tread")
        low = min(p[2] for s in one.stood for f in s for p in f.corners
                  if p[1] < spread(one, 1)[0] + 1e-6 and p[2] > -DROP - 15.0)  # fmt: skip
        self.assertAlmostEqual(low, -DROP - 5.0 * math.tan(math.radians(60.0)), 6)

    def test_what_the_lower_tread_moves_is_counted_from_its_own_middle(self) -> None:
        piece = stepped(held={**SCREWS, "moves": 4.0})
        wide = write_piece(piece)["top"]["outline"]["width"]
        for one in fastenings(piece, stand(piece)):
            if one.into.name == "lower tread":
                # Rails 40 to either side of the short boards' middle, the tread's own 7 further forward.
                off = abs(one.at[1] - (-WIDE / 2 - (BOARD + FRONT) / 2))
                self.assertIn(round(off, 6), (33.0, 47.0))
                self.assertAlmostEqual(one.travel, 4.0 * off / wide, 9)

    def test_screws_meet_what_is_in_the_wood_they_go_into(self) -> None:
        piece = stepped(held=SCREWS)
        hosts = {rod.hosts for rod in rods(piece, stand(piece), (), ()) if ".hold." in rod.joint}
        self.assertIn(frozenset({"s1.lower_rail.1", "s1.lower"}), hosts)
        self.assertIn(frozenset({"s1.rail.1", "top"}), hosts)

    def test_a_round_is_drawn_in_chords_that_stay_near_its_arc(self) -> None:
        radius = 9.0
        one = body(stepped(lower={"upper_edge": {"way": "round_over", "size": radius}}), "lower tread")
        front, top = spread(one, 1)[0], -DROP
        middle = (front + radius, top - radius)
        rim = {
            (p[1], p[2]) for s in one.stood for f in s for p in f.corners
            if p[1] < middle[0] - 1e-6 and p[2] > middle[1] - 1e-6 and abs(p[0]) > 1.0
        }  # fmt: skip
        self.assertEqual(len(rim), 4)
        for p in rim:
            self.assertAlmostEqual(math.dist(p, middle), radius, 6)

    def test_lines_of_joints_lie_along_the_board_from_its_sawn_end(self) -> None:
        piece = stepped()
        found = {(one.body.name, one.mate.name): one for one in meets(piece, stand(piece))}
        low = found["rail 3", "left long board"]
        self.assertAlmostEqual(low.down, 140.0 / self.cos, 6)
        self.assertAlmostEqual(low.across, (WIDE - 25.0) / 2, 6)
        self.assertTrue(low.square)
        for name, mate in (("rail 1", "right long board"), ("lower rail 2", "left short board")):
            self.assertTrue(found[name, mate].flush, name)
        self.assertAlmostEqual(found["lower rail 2", "left short board"].across, BOARD / 2 - 40 - 12.5, 6)
        self.assertEqual(len(found), 10)


class Solid(SimpleTestCase):
    """Against a solid library: what touches closes, what does not lies apart."""

    def test_nothing_overlaps_and_every_joint_closes(self) -> None:
        tapered = {"sides": "both", "narrower": "top", "off": 10.0}
        for piece in (stepped(), stepped(taper=tapered), stepped(cut_out=None, splay=6.0)):
            bodies = [one for one in stand(piece).bodies if one.drawn]
            solids = {one.name: body_solid(one) for one in bodies}
            for one, two in itertools.combinations(solids, 2):
                shared = (solids[one] ^ solids[two]).volume()
                self.assertLess(shared, 1.0, f"{one} and {two}")
            for one in meets(piece, stand(piece)):
                gap = solids[one.body.name].min_gap(solids[one.mate.name], 5.0)
                self.assertLess(gap, 0.02, f"{one.body.name} and {one.mate.name}")
            closed = (
                ("left long board", "left short board"),
                ("lower tread", "right short board"),
                ("lower tread", "left long board"),
            )
            for long, short in closed:
                self.assertLess(solids[long].min_gap(solids[short], 5.0), 0.02, (long, short))

    def test_every_solid_is_closed_and_as_large_as_its_figures(self) -> None:
        piece = stepped(lower={"upper_edge": {"way": "round_over", "size": 8.0}}, held=SCREWS)
        made = {part.name: part for part in solids_of(piece, planned(piece))}
        for name in ("left long board", "right short board", "lower tread", "lower rail 1"):
            part = made[name]
            mesh = trimesh.Trimesh(part.points, part.triangles, process=True)
            self.assertTrue(mesh.is_watertight, name)
            holes = 0.0
            if name == "lower rail 1":
                for one in fastenings(piece, stand(piece)):
                    if one.body.name == name:
                        seat, hole = (math.pi * d * d / 4 for d in (one.seat, one.wide))
                        holes += seat * one.sunk + hole * (one.through - one.sunk)
            wanted = sum(abs(volume(solid)) for solid in body(piece, name).pieces) - holes
            self.assertLess(abs(mesh.volume / wanted - 1.0), 0.001, name)

    @settings(max_examples=40, deadline=None)
    @given(st.integers(0, 10_000))
    def test_so_is_any_other(self, seed: int) -> None:
        try:
            piece = framed(random.Random(seed), "board_sides")
            stance = stand(piece)
        except (BadInput, CannotBuild):
            return
        boards = [one for one in stance.bodies if one.glued]
        for one, two in itertools.combinations(boards, 2):
            if one.frame == two.frame:
                self.assertLess(body_solid(one).min_gap(body_solid(two), 5.0), 0.02)
                self.assertLess((body_solid(one) ^ body_solid(two)).volume(), 1.0)
        self.assertIsInstance(body_solid(stance.bodies[0]), Manifold)


class Told(SimpleTestCase):
    """Every card carried out by its words alone; what is told wrong is found."""

    def worst(self, piece: Piece, seed: int, turned: Any = None) -> Tally:
        shop = random_shop(random.Random(seed)) if seed else workbench()
        made = planned(piece, shop)
        if turned is not None:
            made = with_cards(made, tuple(turned(card) for card in made.setups))
        return carry_out(piece, made, shop)

    def wrong(self, tally: Tally) -> set[str]:
        return {what for what, (off, _) in tally.worst.items() if off > limit(what)}

    def test_random_sides_are_carried_out_as_told(self) -> None:
        done = Tally()
        for seed in range(24):
            rng = random.Random(seed)
            try:
                piece, shop = framed(rng, "board_sides"), random_shop(rng)
                made: Plan = planned(piece, shop)
            except (BadInput, CannotBuild):
                continue
            tally = carry_out(piece, made, shop)
            self.assertEqual(self.wrong(tally), set(), f"seed {seed}")
            done.add(tally)
        for what in (("joins", "marking"), ("cut_out", "band_saw"), ("side_taper", "taper_jig")):
            self.assertGreater(done.done[what], 3, what)
        for take in ("ToLine", "AcrossEnd"):
            self.assertGreater(done.done["proof", take], 3, take)

    def test_both_treads_are_held_by_what_lies_under_each(self) -> None:
        piece = stepped(held=SCREWS, taper={"sides": "back", "off": 8.0})
        for seed in range(4):
            self.assertEqual(self.wrong(self.worst(piece, seed)), set())
        into = {one.body.name: one.into.name for one in fastenings(piece, stand(piece))}
        self.assertEqual(
            into,
            {
                "rail 1": "top",
                "rail 2": "top",
                "lower rail 1": "lower tread",
                "lower rail 2": "lower tread",
            },
        )
        buttons = stepped(held={"way": "buttons", "drop": 11.0})
        self.assertEqual(self.wrong(self.worst(buttons, 0)), set())

    def test_what_is_told_wrong_is_found(self) -> None:
        piece = stepped(taper={"sides": "both", "narrower": "top", "off": 12.0}, held=SCREWS)

        def do(kind: type, **change: Any) -> Any:
            def turned(card: SetUp) -> SetUp:
                return replace(card, does=tuple(
                    replace(one, **{k: v(one) for k, v in change.items()}) if isinstance(one, kind) else one
                    for one in card.does
                ))  # fmt: skip

            return turned

        def longer(one: Any) -> Any:
            return one.down and replace(one.down, value=one.down.value + 3.0)

        def exchanged(one: Any) -> Any:
            return one.seam and tuple(replace(q, value=-q.value) for q in reversed(one.seam))

        def other_way(card: SetUp) -> SetUp:
            mended = tuple(
                replace(lay, to="foot") if getattr(lay, "by", "") == "sled" else lay for lay in card.lays
            )
            return replace(card, lays=mended)

        def into_top(card: SetUp) -> SetUp:
            return replace(card, title=card.title.replace("lower tread", "top"))

        def left_out(card: SetUp) -> SetUp:
            return replace(card, does=card.does[1:]) if card.operation == "joins" else card

        self.assertIn("joint's place mm", self.wrong(self.worst(piece, 0, do(Joins, down=longer))))
        self.assertIn(
            "joint's place mm", self.wrong(self.worst(piece, 0, do(Joins, edge=lambda one: one.opposite,
                                                                 opposite=lambda one: one.edge)))
        )  # fmt: skip
        self.assertIn(
            "cut-out from the seam mm", self.wrong(self.worst(piece, 0, do(CutOut, seam=exchanged)))
        )
        self.assertIn("sled turned the other way", self.wrong(self.worst(piece, 0, other_way)))
        self.assertIn("screw into something else", self.wrong(self.worst(piece, 0, into_top)))
        self.assertIn("joint untold", self.wrong(self.worst(piece, 0, left_out)))

    def test_frames_are_told_where_their_cross_pieces_and_links_join(self) -> None:
        # On a raked frame the cross-piece is set back from the leg's face, and links from slanted ends.
        piece = starter("plane_frames")
        tally = self.worst(piece, 0)
        self.assertEqual(self.wrong(tally), set())
        self.assertEqual(tally.done["joins", "marking"], 2)
        with patch("splay.stance.meets._carried", side_effect=lambda plane, *_: plane):
            self.assertNotEqual(self.wrong(self.worst(piece, 0)), set())

    def test_a_line_is_said_with_its_end_its_corner_and_its_side(self) -> None:
        card = next(c for c in planned(stepped()).setups if c.operation == "joins")
        said = " ".join(steps(card.does))
        self.assertIn(
            "Left long board and right long board, inner face, for rail 3: a line square across, 143 mm "
            "from the upper end along the corner with the back edge, for its upper edge; its back face "
            "90.5 mm from the "
            "board's back edge.", said,
        )  # fmt: skip
        self.assertIn("for rail 1: its upper edge flush with the upper end", said)
        self.assertEqual(card.title, "Mark where 5 rails join 4 boards")

    def test_a_rail_across_the_seam_is_told_from_an_edge_it_does_not_pass(self) -> None:
        for offset in (-100.0, -106.0):
            low = {**RAIL, "drop": 290.0, "offset": offset}
            piece = stepped(rails=[{**RAIL, "offset": 0.0}, low])
            self.assertEqual(self.wrong(self.worst(piece, 0)), set())
            # Its tenon goes on into the other board: no edge for it to come out of.
            self.assertNotIn("dowel_out", codes(piece))
            every = [one for one in meets(piece, stand(piece)) if one.body.name == "rail 2"]
            self.assertTrue(every)
            self.assertTrue(all(one.across >= 0.0 for one in every))

    def test_a_cut_out_on_one_board_alone_is_told_from_the_seam_too(self) -> None:
        piece = stepped(cut_out={"width": 60.0, "height": 30.0})
        self.assertEqual(self.wrong(self.worst(piece, 0)), set())
        card = next(c for c in planned(piece).setups if c.operation == "cut_out")
        # The whole side is 206 + 152 wide: its middle lies 27 behind the seam, 30 to either side of that.
        self.assertIn("from 3 mm in front of the seam to 57 mm behind it", " ".join(card.steps))


class Judged(SimpleTestCase):
    """What cannot be made, or is better made otherwise: the number and the mend, nothing lost."""

    def test_it_is_sound_as_it_is(self) -> None:
        self.assertEqual(codes(stepped()), set())

    def test_what_is_wrong_is_said(self) -> None:
        for wanted, piece in (
            ("tread_low", stepped(lower={"drop": 350.0})),
            ("steps_unlike", stepped(lower={"drop": 150.0})),
            ("tread_loose", stepped(lower={"rails": []}, held=SCREWS)),
            ("rail_outside", stepped(lower={"rails": [{**RAIL, "offset": 70.0}]})),
            ("rail_outside", stepped(rails=[{**RAIL, "offset": -150.0}])),
            ("parts_overlap", stepped(lower={"rails": [{**RAIL, "offset": 0.0}, {**RAIL, "offset": 9.0}]})),
            ("edge_deep", stepped(lower={"upper_edge": {"way": "round_over", "size": 30.0}})),
            ("cut_out_high", stepped(cut_out={"width": 180.0, "height": 200.0})),
            ("cut_out_wide", stepped(cut_out={"width": 360.0, "height": 40.0})),
            ("held_through", stepped(held={**SCREWS, "bite": 22.0})),
        ):  # fmt: skip
            with self.subTest(wanted):
                found = [one for one in planned(piece).findings if one.code == wanted]
                self.assertTrue(found, codes(piece))
                self.assertTrue(found[0].mend and found[0].field)

    def test_beside_a_tapered_edge_a_rail_has_less_room(self) -> None:
        """The long board's back edge at 103: 20 in at the top, 20 (1 - 200/400) half way down."""
        taper = {"sides": "back", "off": 20.0}
        for drop, edge in ((0.0, 83.0), (200.0, 93.0)):
            for spare, wrong in ((0.5, False), (-0.5, True)):
                rail = {**RAIL, "drop": drop, "offset": edge - 12.5 - spare}
                found = "rail_outside" in codes(stepped(taper=taper, rails=[rail]))
                self.assertEqual(found, wrong, (drop, spare))
        # In front it is the short board's own: 152 wide, its edge 76 before its middle.
        front = {"sides": "front", "off": 20.0}
        for spare, wrong in ((0.5, False), (-0.5, True)):
            rail = {**RAIL, "offset": -76.0 + 20.0 + 12.5 + spare}
            found = "rail_outside" in codes(stepped(taper=front, lower={"rails": [rail]}))
            self.assertEqual(found, wrong, spare)

    def test_below_the_lower_tread_a_rail_may_run_between_all_four_boards(self) -> None:
        low = {**RAIL, "drop": 290.0, "offset": -150.0}
        self.assertNotIn("rail_outside", codes(stepped(rails=[{**RAIL, "offset": 0.0}, low])))

    def test_a_side_is_not_tapered_to_nothing(self) -> None:
        # A whole board is tapered on both its edges, of two glued each on one.
        plain = {**write_piece(starter("board_sides"))["supports"][0], "taper": {"off": 110.0}}
        whole = read_piece({**write_piece(starter("board_sides")), "supports": [plain]})
        for piece in (stepped(taper={"off": 140.0}), whole):
            with self.assertRaises(CannotBuild) as refused:
                planned(piece)
            self.assertEqual(refused.exception.field, "supports.0.taper.off")

    def test_a_screw_through_a_thin_lower_tread_is_said_whatever_the_top_is(self) -> None:
        thin = [one for one in planned(stepped(lower={"thickness": 15.0}, held=SCREWS)).findings
                if one.code == "held_through"]  # fmt: skip
        self.assertIn("The lower tread's screws", thin[0].text)

    def test_steps_alike_within_what_stairs_are_allowed_are_no_matter(self) -> None:
        # (421 - 21 - 187) = 213 up to the lower tread, 187 + 21 = 208 on to the top.
        self.assertNotIn("steps_unlike", codes(stepped()))
        alike = [
            one for one in planned(stepped(lower={"drop": 150.0})).findings if one.code == "steps_unlike"
        ]
        self.assertIn("210.5 mm each", alike[0].mend)

    def test_what_is_under_the_feet_is_part_of_the_first_step(self) -> None:
        pads = {"kind": "pads", "thickness": 8.0, "across": 12.0}
        document = {**write_piece(stepped(lower={"drop": 150.0})), "underfoot": pads}
        found = [one for one in planned(read_piece(document)).findings if one.code == "steps_unlike"]
        # The height is the same: 421 - 21 - 150 up to the lower tread, pads and all.
        self.assertIn("lower tread is 250 mm", found[0].text)
        plain = {**write_piece(starter("board_sides")), "height": 420.0, "underfoot": pads}
        lower = write_piece(restate(read_piece(plain), Restate("lower_tread", "on")))["supports"][0][
            "lower"
        ]
        self.assertEqual(lower["drop"], (420.0 - 24.0 - 24.0) / 2)

    def test_whoever_stands_on_the_front_edge_of_the_lower_tread_may_tip_it(self) -> None:
        self.assertNotIn("rim_past_feet", codes(stepped()))
        self.assertIn("rim_past_feet", codes(stepped(lower={"past_front": 200.0, "board": 60.0})))


class Feet(SimpleTestCase):
    def test_a_side_of_two_boards_has_two_feet(self) -> None:
        for cut in (None, {"width": 60.0, "height": 30.0}, {"width": 200.0, "height": 40.0}):
            piece = stepped(cut_out=cut)
            names = [foot.name for foot in feet_of(piece, stand(piece))]
            each = [
                f"{end} foot of the {side} side" for end in ("back", "front") for side in ("left", "right")
            ]
            self.assertEqual(sorted(names), each)

    def test_what_goes_under_it_stands_where_both_boards_do(self) -> None:
        """Across the seam a foot is one; where nothing is cut out the whole side is."""
        for cut, many in (
            ({"width": 180.0, "height": 44.0}, 4),
            ({"width": 60.0, "height": 30.0}, 4),
            (None, 2),
        ):
            piece = stepped(cut_out=cut)
            under = bearings(piece, stand(piece))
            self.assertEqual(len(under), many)
            self.assertEqual({one.name for one in under}, {"left side", "right side"})

    def test_its_corners_are_called_by_the_edges_they_lie_at(self) -> None:
        """Also of a board that is whole, whose two feet are its two ends: there they were told apart by
        chance."""
        whole = write_piece(starter("board_sides"))
        whole["supports"][0]["cut_out"] = None
        for piece in (stepped(), stepped(cut_out=None), starter("board_sides"), read_piece(whole)):
            for foot in feet_of(piece, stand(piece)):
                edge = "front edge" if "front" in foot.key else "back edge"
                self.assertIn(edge, foot.long_side, foot.key)
                self.assertIn(edge, foot.short_side, foot.key)

    def test_on_a_falling_seat_a_foot_may_be_longest_beside_the_cut_out(self) -> None:
        document = write_piece(starter("board_sides"))
        document["lean"] = {"fall": 4.0, "toward": 90.0}
        piece = read_piece(document)
        sides = {foot.key: foot.long_side + foot.short_side for foot in feet_of(piece, stand(piece))}
        self.assertTrue(any("cut-out" in side for side in sides.values()), sides)


class Chosen(SimpleTestCase):
    """Put in and taken away, dragged, ordered, bought for."""

    def test_a_lower_tread_is_put_in_with_steps_alike_and_rails_and_taken_away_again(self) -> None:
        plain = read_piece({**write_piece(starter("board_sides")), "height": 420.0})
        made = restate(plain, Restate("lower_tread", "on"))
        self.assertEqual(codes(made), set())
        lower = write_piece(made)["supports"][0]["lower"]
        first = 420.0 - plain.top.thickness - lower["drop"]
        self.assertLess(abs(first - lower["drop"] - plain.top.thickness), 1.01)
        self.assertEqual(len(lower["rails"]), 2)
        back = restate(made, Restate("lower_tread", "off"))
        self.assertEqual(write_piece(back), write_piece(plain))

    def test_edges_are_tapered_and_straight_again(self) -> None:
        made = restate(stepped(), Restate("taper", "on"))
        self.assertEqual(len([one for one in stand(made).bodies if one.tapers]), 4)
        self.assertEqual(write_piece(restate(made, Restate("taper", "off"))), write_piece(stepped()))

    def test_what_has_no_boards_takes_no_tread(self) -> None:
        for kind, to in (("crossed", "on"), ("board_sides", "perhaps")):
            with self.assertRaises(BadInput):
                restate(starter(kind), Restate("lower_tread", to))

    def test_it_is_dragged_by_its_front_edge_up_and_out(self) -> None:
        floor = HIGH - TOP
        front = -WIDE / 2 - BOARD - FRONT
        moved = move(stepped(), Move("tread", "side", (front - 20.0, floor - DROP + 30.0), 0), 1.0)
        lower = write_piece(moved)["supports"][0]["lower"]
        self.assertEqual((lower["drop"], lower["board"]), (DROP - 30.0, BOARD + 20.0))
        with self.assertRaises(BadInput):
            move(starter("crossed"), Move("tread", "side", (0.0, 0.0), 0), 1.0)

    def test_boards_are_marked_and_tapered_then_glued_then_cut_out(self) -> None:
        piece = stepped(
            taper={"off": 9.0}, held=SCREWS, lower={"upper_edge": {"way": "chamfer", "size": 5.0}}
        )
        made = order_of(piece, planned(piece), Build())
        at = {step.operation: k for k, step in enumerate(made.steps)}
        chain = ("crosscut", "joins", "side_taper", "glue_sides", "cut_out", "glue", "level", "hold_top")
        places = [at[name] for name in chain]
        self.assertEqual(places, sorted(places))
        self.assertLess(at["tread_edges"], at["hold_top"])
        # Tried while the glue gives, not a day later: within the step that glues, before its wait.
        glue = next(step for step in made.steps if step.operation == "glue")
        self.assertIn("before the glue sets", glue.do[-1])
        self.assertIsNotNone(glue.wait)
        hold = next(step for step in made.steps if step.operation == "hold_top")
        self.assertEqual(hold.title, "Hold both treads down")
        self.assertIn("14 mm past the short ones in front", " ".join(hold.do))

    def test_every_board_and_tread_has_its_blank(self) -> None:
        piece = stepped()
        plan = planned(piece)
        needs = {need.name: need for need in needs_of(piece, plan, WoodChoice(), Show(Units()))}
        self.assertEqual(needs["left long board and its like"].count, 2)
        short = needs["left short board and its like"]
        self.assertAlmostEqual(short.finished[1].value, BOARD)
        self.assertIn("lower tread", needs)

    def test_its_places_are_called_as_a_maker_calls_them(self) -> None:
        document = write_piece(stepped(taper={"off": 9.0}))
        for path, words in (
            ("supports.0.lower.drop", "board sides, lower tread, drop"),
            ("supports.0.lower.rails.1.offset", "board sides, lower tread, rail 2, set back"),
            ("supports.0.taper.off", "board sides, taper, in from the edge"),
        ):
            self.assertEqual(called(document, path), words)

    def test_it_stands_as_high_when_what_is_read_is_what_was_planned(self) -> None:
        points = np.array(
            [p for one in stand(stepped()).bodies for s in one.stood for f in s for p in f.corners]
        )
        self.assertAlmostEqual(float(points[:, 2].min()), -(HIGH - TOP), 9)
