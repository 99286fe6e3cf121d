"""Square legs that grow thinner towards the foot: worked by hand, cut blind, refused."""

from __future__ import annotations

import math
import random
from dataclasses import replace
from typing import Any
from unittest.mock import patch

import numpy as np
from django.test import SimpleTestCase
from scipy.spatial import ConvexHull

from splay.errors import CannotBuild
from splay.level.feet import feet_of
from splay.piece import Piece, read_piece, write_piece
from splay.piece.starters import starter
from splay.plan import Plan, plan
from splay.setups.card import SetUp
from splay.shop import read_shop, workbench, write_shop
from splay.stance.body import Body
from splay.stance.restate import Restate, restate
from splay.stance.staked import stand
from splay.work.joinery import TaperLine
from splay.work.lays import SideTapered
from tests.bench.judged import Tally, carry_out
from tests.bench.pieces import random_shop
from tests.core.make import with_cards
from tests.core.test_blind import limit

KINDS = ("plane_frames", "crossed", "aproned")
WAYS = {
    "plane_frames": ("inside", "inner", "outer", "all"),
    "crossed": ("inner", "outer", "both"),
    "aproned": ("inside", "inner", "outer", "all"),
}


def tapered(kind: str, taper: dict[str, Any] | None, **sizes: Any) -> Piece:
    document = write_piece(starter(kind))
    document["supports"][0] |= {"taper": taper, **sizes}
    return read_piece(document)


def legs(piece: Piece) -> list[Body]:
    return [body for body in stand(piece).bodies if body.stands]


def corners(body: Body) -> np.ndarray:
    return np.array([p for solid in body.pieces for face in solid for p in face.corners])


def cards(made: Plan, way: str) -> list[SetUp]:
    return [card for card in made.setups if card.operation == "side_taper" and card.way == way]


class ByHand(SimpleTestCase):
    """A mitred leg 48 wide that leans 12, its inner edge tapered from 80 below the mitre to 30."""

    SPLAY, WIDE, LEFT, BEGINS, THICK = 12.0, 48.0, 30.0, 80.0, 31.0

    def setUp(self) -> None:
        self.piece = tapered(
            "crossed",
            {"sides": "inner", "begins": self.BEGINS, "foot": self.LEFT},
            splay=self.SPLAY, leg=self.WIDE, rail=54.0, thickness=self.THICK,
        )  # fmt: skip
        self.body = legs(self.piece)[0]
        # In the frame's own plane: z up from the floor, the inner edge from the mitre's inner corner.
        s = math.radians(self.SPLAY)
        down = self.piece.stands - self.piece.top.thickness - 54.0
        self.edge = down / math.cos(s)
        self.run = self.edge - self.BEGINS + (self.WIDE - self.LEFT) * math.tan(s)

    def test_it_runs_from_its_line_to_the_mark_at_the_sawn_foot(self) -> None:
        # Off the inner edge by 18 the floor lies 18 · tan 12 further down the leg.
        (taper,) = self.body.tapers
        self.assertAlmostEqual(taper.off, 18.0)
        self.assertAlmostEqual(taper.mark - taper.begins, self.run, 6)
        self.assertAlmostEqual(taper.slope, math.degrees(math.atan(18.0 / self.run)), 6)

    def test_what_comes_off_is_a_wedge(self) -> None:
        # A triangle: the edge below the line, across the sawn foot, back up the new side.
        straight = legs(tapered("crossed", None, splay=12.0, leg=48.0, rail=54.0, thickness=31.0))[0]
        off = ConvexHull(corners(straight)).volume - ConvexHull(corners(self.body)).volume
        triangle = (self.edge - self.BEGINS) * (self.WIDE - self.LEFT) / 2
        self.assertAlmostEqual(off / self.THICK, triangle, 4)

    def test_the_sled_is_set_over_by_its_own_triangle(self) -> None:
        document = write_shop(workbench())
        for tool in document["tools"]:
            if tool["kind"] == "taper_jig":
                tool["length"] = 640.0
        (card,) = cards(plan(self.piece, read_shop(document)), "taper_jig")
        (lay,) = card.lays
        assert isinstance(lay, SideTapered) and lay.stop is not None
        self.assertAlmostEqual(lay.stop.value, 640.0 * 18.0 / self.run, 4)
        self.assertEqual((lay.side, lay.on, lay.against), ("inner edge", "marked face", "outer edge"))

    def test_the_proof_at_the_foot_is_what_was_chosen(self) -> None:
        (proof,) = [one for one in plan(self.piece, workbench()).proofs if one.kind == "side_taper"]
        self.assertAlmostEqual(proof.expected.value, self.LEFT, 6)
        self.assertEqual(proof.station, "legs")

    def test_an_outer_edge_is_read_where_the_foot_is_sawn_shorter(self) -> None:
        # There the line has not come all the way in: 18/run of what the foot is longer outside.
        piece = tapered(
            "crossed", {"sides": "outer", "begins": 80.0, "foot": 30.0},
            splay=12.0, leg=48.0, rail=54.0, thickness=31.0,
        )  # fmt: skip
        (taper,) = legs(piece)[0].tapers
        (proof,) = [one for one in plan(piece, workbench()).proofs if one.kind == "side_taper"]
        longer = 30.0 * math.tan(math.radians(12.0))
        wanted = 30.0 + 18.0 / (taper.mark - taper.begins) * longer
        self.assertAlmostEqual(proof.expected.value, wanted, 6)


class Sides(SimpleTestCase):
    def test_opposite_sides_share_what_comes_off(self) -> None:
        one, two = legs(tapered("crossed", {"sides": "both", "begins": 60, "foot": 28}, leg=48.0))[0].tapers
        self.assertAlmostEqual(one.off, 10.0)
        self.assertAlmostEqual(two.off, 10.0)

    def test_the_second_of_two_opposite_sides_is_set_over_by_both_slopes(self) -> None:
        made = plan(tapered("crossed", {"sides": "both", "begins": 60, "foot": 28}), workbench())
        (card,) = cards(made, "taper_jig")
        one, two = (lay.stop.value for lay in card.lays)
        tapers = legs(tapered("crossed", {"sides": "both", "begins": 60, "foot": 28}))[0].tapers
        slopes = [math.radians(taper.slope) for taper in tapers]
        self.assertAlmostEqual(two / one, math.tan(sum(slopes)) / math.tan(slopes[0]), 6)

    def test_two_inside_faces_are_cut_with_whole_sides_down_and_at_the_stops(self) -> None:
        made = plan(tapered("aproned", {"sides": "inside", "begins": 110, "foot": 24}), workbench())
        (card,) = cards(made, "taper_jig")
        self.assertEqual({lay.packing for lay in card.lays}, {None})
        self.assertEqual({lay.side for lay in card.lays}, {"inner side", "inner face"})
        # At a band saw the line is up: the second side lies on the first, and is packed by what came off.
        (card,) = cards(made, "band_saw")
        packed = {lay.side: lay.packing for lay in card.lays}
        self.assertIsNone(packed["inner side"])
        self.assertAlmostEqual(packed["inner face"].value, 16.0, 1)

    def test_legs_planed_to_their_aprons_stay_so_below_them(self) -> None:
        # The corners of the section keep their angle: the new side is as far off square as the old.
        inside = {"sides": "inside", "begins": 110, "foot": 24}
        for leg in legs(tapered("aproned", inside, rake=14, splay=11)):
            sine = math.sin(math.radians(11)) * math.sin(math.radians(14))
            for taper in leg.tapers:
                self.assertAlmostEqual(taper.turn, math.degrees(math.asin(sine)), 6)

    def test_what_is_left_is_measured_on_the_wood_not_square_to_a_slanted_side(self) -> None:
        inside = {"sides": "inside", "begins": 130, "foot": 24.0}
        made = plan(tapered("aproned", inside, rake=24, splay=22), workbench())
        for proof in made.proofs:
            if proof.kind == "side_taper":
                self.assertAlmostEqual(proof.expected.value, 24.0, 6)

    def test_all_that_is_tapered_is_told_and_proved_a_pair_at_a_time(self) -> None:
        made = plan(tapered("aproned", {"sides": "all", "begins": 110, "foot": 24}), workbench())
        asked = [proof.id for proof in made.proofs if proof.kind == "side_taper"]
        self.assertEqual(len(asked), 2)
        for card in made.setups:
            if card.operation == "side_taper":
                self.assertEqual(list(card.proofs), asked)
                self.assertEqual(len({do.side for do in card.does if isinstance(do, TaperLine)}), 5)

    def test_joints_come_first(self) -> None:
        made = plan(tapered("aproned", {"sides": "inside", "begins": 110, "foot": 24}), workbench())
        order = [card.operation for card in made.setups]
        joints = [k for k, one in enumerate(order) if one in {"crosscut", "stick_tenon"}]
        self.assertGreater(order.index("side_taper"), max(joints))


class Standing(SimpleTestCase):
    def test_the_foot_is_what_is_left_and_its_sides_run_up_the_taper(self) -> None:
        for kind in KINDS:
            for sides in WAYS[kind]:
                piece = tapered(kind, {"sides": sides, "begins": 120, "foot": 24})
                stance = stand(piece)
                for foot in feet_of(piece, stance):
                    body = next(one for one in stance.bodies if one.key == foot.part)
                    # Trimmed 7 shorter along its axis, each corner still lies on the leg's surface.
                    n = np.array(stance.floor.normal)
                    offset = stance.floor.h0_mm - 7.0 * abs(float(n @ foot.way))
                    for p in foot.points(foot.cut_at(n, offset)):
                        own = body.pose.within((float(p[0]), float(p[1]), float(p[2])))
                        hull = ConvexHull(corners(body))
                        beyond = hull.equations @ np.array([*own, 1.0])
                        self.assertAlmostEqual(float(beyond.max()), 0.0, 5, (kind, sides, foot.key))


class Refused(SimpleTestCase):
    def test_a_taper_to_the_whole_width_is_none(self) -> None:
        with self.assertRaises(CannotBuild) as caught:
            stand(tapered("crossed", {"sides": "inner", "begins": 60, "foot": 60}))
        self.assertEqual(caught.exception.field, "supports.0.taper.foot")

    def test_nor_one_that_begins_below_the_foot(self) -> None:
        with self.assertRaises(CannotBuild) as caught:
            stand(tapered("crossed", {"sides": "inner", "begins": 2000, "foot": 30}))
        self.assertEqual(caught.exception.field, "supports.0.taper.begins")

    def test_one_that_begins_within_a_joint_opens_it(self) -> None:
        # The aprons are 80 high, and the legs lean: down a leg that is a little more.
        piece = tapered("aproned", {"sides": "inside", "begins": 60, "foot": 24}, apron=80.0)
        (found,) = [one for one in plan(piece, workbench()).findings if one.code == "taper_in_joint"]
        assert found.limit is not None
        self.assertEqual(found.level, "stop")
        self.assertTrue(80.0 < found.limit.value < 84.0, found.limit.value)
        just = tapered(
            "aproned", {"sides": "inside", "begins": found.limit.value + 0.1, "foot": 24}, apron=80.0
        )
        self.assertNotIn("taper_in_joint", {one.code for one in plan(just, workbench()).findings})
        outside = tapered("aproned", {"sides": "outer", "begins": 10, "foot": 24}, apron=80.0)
        self.assertNotIn("taper_in_joint", {one.code for one in plan(outside, workbench()).findings})

    def test_one_that_is_put_in_begins_clear_of_every_joint(self) -> None:
        for kind in KINDS:
            made = restate(starter(kind), Restate("taper", "on", 0))
            self.assertIsNotNone(made.supports[0].taper)
            codes = {one.code for one in plan(made, workbench()).findings}
            self.assertNotIn("taper_in_joint", codes)
            self.assertIsNone(restate(made, Restate("taper", "off", 0)).supports[0].taper)


class Blind(SimpleTestCase):
    """What the cards tell, carried out by hands that know nothing else."""

    def worst(self, piece: Piece, seed: int, doctored: Any = None) -> Tally:
        shop = random_shop(random.Random(seed))
        made = plan(piece, shop)
        if doctored is not None:
            made = with_cards(made, tuple(doctored(card) for card in made.setups))
        return carry_out(piece, made, shop)

    def wrong(self, tally: Tally) -> set[str]:
        return {what for what, (off, _) in tally.worst.items() if off > limit(what)}

    def test_every_kind_and_every_choice_of_sides_comes_off_the_bench_as_meant(self) -> None:
        for kind in KINDS:
            for k, sides in enumerate(WAYS[kind]):
                for fall in (0.0, 4.0):
                    document = write_piece(tapered(kind, {"sides": sides, "begins": 130, "foot": 21}))
                    document["lean"] = {"fall": fall, "toward": 90.0}
                    tally = self.worst(read_piece(document), k)
                    with self.subTest(kind, sides=sides, fall=fall):
                        self.assertEqual(self.wrong(tally), set())
                        done = {key for key in tally.done if key[0] == "side_taper"}
                        self.assertEqual(len(done), 3)

    def test_the_bench_finds_what_is_told_wrong(self) -> None:
        piece = tapered("aproned", {"sides": "all", "begins": 110, "foot": 22})

        def lays(**change: Any) -> Any:
            def turned(card: SetUp) -> SetUp:
                if card.operation != "side_taper" or card.way == "hand_plane":
                    return card
                mended = tuple(replace(lay, **{k: v(lay) for k, v in change.items()}) for lay in card.lays)
                return replace(card, lays=mended)

            return turned

        def no_packing(lay: Any) -> None:
            return None

        def first_stop(card: SetUp) -> SetUp:
            if card.way != "taper_jig" or card.operation != "side_taper":
                return card
            stop = card.lays[0].stop
            return replace(card, lays=tuple(replace(lay, stop=stop) for lay in card.lays))

        self.assertIn("taper packing mm", self.wrong(self.worst(piece, 1, lays(packing=no_packing))))
        self.assertIn("taper turn deg", self.wrong(self.worst(piece, 1, lays(turn=no_packing))))
        self.assertIn("sled deg", self.wrong(self.worst(piece, 1, first_stop)))

        def begins_elsewhere(card: SetUp) -> SetUp:
            does = tuple(
                replace(do, begins=replace(do.begins, value=do.begins.value + 5.0))
                if isinstance(do, TaperLine)
                else do
                for do in card.does
            )
            return replace(card, does=does)

        self.assertIn("taper deg", self.wrong(self.worst(piece, 1, begins_elsewhere)))

    def test_a_line_drawn_on_the_blunter_corner_is_found(self) -> None:
        # A cut square to that side takes wood beyond the line.
        piece = tapered("aproned", {"sides": "outer", "begins": 110, "foot": 22}, splay=14, rake=12)
        self.assertEqual(self.wrong(self.worst(piece, 2)), set())
        with patch("splay.stance.side_taper._drawn_on", lambda *_: (0, 1)):
            self.assertIn("taper undercut", self.wrong(self.worst(piece, 2)))
