"""Ropes through legs: which way their holes run, how they are set up and proved.

Independent judge: numpy takes the holes' places alone and halves the rope's two runs; scipy's Rotation
turns the sightline mark round the leg by the turn that is said.
"""

from __future__ import annotations

import math

import numpy as np
from django.test import SimpleTestCase
from numpy.typing import NDArray
from scipy.spatial.transform import Rotation

from splay.errors import CannotBuild
from splay.piece import Piece, read_piece, write_piece
from splay.piece.starters import starter
from splay.plan import plan
from splay.reading import Reading
from splay.rehearse import Hidden, take
from splay.shop import workbench
from splay.stance.members import RopeStance, members
from tests.core.make import planned, proof_of

Array = NDArray[np.float64]


def roped(name: str, legs: list[int], closed: bool = True, **rope: object) -> Piece:
    """A starting piece with one rope through some of its legs, and nothing else between them."""
    document = write_piece(starter(name))
    level = {"by": "drop", "value": 300}
    ids = [f"l{number}" for number in legs]
    chosen = {"kind": "rope", "name": "cord", "legs": ids, "level": level, "closed": closed, **rope}
    document["members"] = [chosen]
    return read_piece(document)


def rope_of(made: Piece) -> RopeStance:
    return members(made, planned(made).stance)[1][0]


def halfway(points: list[Array], k: int, closed: bool) -> Array:
    """The direction halfway between both runs of the rope at one hole."""
    n = len(points)
    runs = []
    if closed or k < n - 1:
        runs.append(points[(k + 1) % n] - points[k])
    if closed or k > 0:
        runs.append(points[k] - points[k - 1])
    return np.sum([run / np.linalg.norm(run) for run in runs], axis=0)


class Holes(SimpleTestCase):
    def test_round_alike_legs_each_hole_is_square_to_its_leg_and_to_its_sightline(self) -> None:
        for name, count in (("round_three", 3), ("round_four", 4)):
            part = planned(roped(name, list(range(1, count + 1)))).ropes[0]
            for hole in part.holes:
                self.assertAlmostEqual(hole.read.quantity.value, 90.0, 6)
                self.assertAlmostEqual(hole.turn.quantity.value, 90.0, 6)
                self.assertEqual(hole.acute_side, "")

    def test_a_hole_runs_halfway_between_where_the_rope_comes_from_and_goes_to(self) -> None:
        for legs, closed in (([1, 2, 3, 4], True), ([1, 2, 3, 4], False), ([2, 3, 4], False)):
            made = roped("bench", legs, closed)
            rope = rope_of(made)
            stance = planned(made).stance
            points = [np.array(p) for p in rope.points]
            for k, (number, end) in enumerate(zip(legs, rope.holes, strict=True)):
                leg = stance.legs[number - 1]
                d, u = np.array(leg.d), halfway(points, k, closed)
                u = u / np.linalg.norm(u)
                between = math.degrees(math.atan2(np.linalg.norm(np.cross(u, d)), float(u @ d)))
                self.assertAlmostEqual(end.acute, min(between, 180.0 - between), 9)
                # The mark lies where the leg leans to; turned about the leg by so much it faces the hole.
                mark = np.array((d[0], d[1], 0.0))
                mark -= d * float(mark @ d)
                side = u - d * float(u @ d)
                turned = Rotation.from_rotvec(d * math.radians(end.turn)).apply(mark)
                self.assertAlmostEqual(
                    float(turned @ side) / float(np.linalg.norm(turned) * np.linalg.norm(side)), 1.0, 9
                )

    def test_there_and_back_between_two_legs_each_hole_points_at_the_other(self) -> None:
        rope = rope_of(roped("bench", [1, 2]))
        across = np.array(rope.points[1]) - np.array(rope.points[0])
        across /= np.linalg.norm(across)
        stance = planned(roped("bench", [1, 2])).stance
        for k, end in enumerate(rope.holes):
            d = np.array(stance.legs[k].d)
            lean = math.degrees(math.atan2(np.linalg.norm(np.cross(across, d)), abs(float(across @ d))))
            self.assertAlmostEqual(end.acute, lean, 9)

    def test_one_leg_twice_running_is_refused(self) -> None:
        with self.assertRaises(CannotBuild) as caught:
            planned(roped("bench", [1, 1, 2]))
        self.assertIn("twice", caught.exception.rule)
        self.assertEqual(caught.exception.field, "members.0.legs")

    def test_the_loop_is_as_long_as_the_way_from_hole_to_hole_and_the_knot(self) -> None:
        made = roped("round_four", [1, 2, 3, 4], knot=120)
        part, rope = planned(made).ropes[0], rope_of(made)
        points = np.array(rope.points)
        round_it = float(np.linalg.norm(points - np.roll(points, -1, axis=0), axis=1).sum())
        self.assertAlmostEqual(part.loop.quantity.value, round_it + 120, 9)


class CardsAndProofs(SimpleTestCase):
    def test_holes_alike_share_a_card_and_each_has_its_proof(self) -> None:
        made = planned(roped("round_four", [1, 2, 3, 4]))
        cards = [c for c in made.setups if c.operation == "bore_rope"]
        self.assertEqual({c.legs for c in cards}, {(1, 2, 3, 4)})
        self.assertNotIn("opposite_leg", {c.way for c in cards})
        table = next(c for c in cards if c.way == "tilting_table")
        assert table.setting is not None
        self.assertAlmostEqual(table.setting.value, 0.0, 6)
        self.assertEqual(table.proofs, ("read.m1.l1", "read.m1.l2", "read.m1.l3", "read.m1.l4"))
        self.assertIn("Legs 1, 2, 3 and 4: hook on the tenon end", table.steps[0])
        self.assertIn(
            "13 mm", planned(roped("round_four", [1, 2], diameter=12)).ropes[0].hole.quantity.text
        )

    def test_a_reading_of_a_ropes_hole_is_judged_and_moves_no_stretcher(self) -> None:
        made = roped("bench", [1, 2, 3, 4])
        plain = planned(made)
        want = proof_of(plain, "read.m1.l2").expected.value
        read = plan(made, workbench(), [Reading("read.m1.l2", want + 0.2)])
        self.assertEqual(proof_of(read, "read.m1.l2").verdict, "fine")
        off = plan(made, workbench(), [Reading("read.m1.l2", want - 4.0)])
        self.assertEqual(proof_of(off, "read.m1.l2").verdict, "off")
        self.assertEqual(read.ropes, plain.ropes)

    def test_the_simulated_gauge_reads_the_hidden_hole(self) -> None:
        made = roped("bench", [1, 2, 3, 4])
        straight = Hidden(5, 0.0)
        for k in range(1, 5):
            read = take(made, workbench(), straight, (), f"read.m1.l{k}").value
            self.assertAlmostEqual(read, proof_of(planned(made), f"read.m1.l{k}").expected.value, 6)
        crooked = take(made, workbench(), Hidden(5, 1.5), (), "read.m1.l1").value
        self.assertNotAlmostEqual(crooked, proof_of(planned(made), "read.m1.l1").expected.value, 2)
