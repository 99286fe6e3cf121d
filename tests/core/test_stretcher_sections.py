"""Stretchers with flats: named faces, what goes into them, what they are made of."""

from __future__ import annotations

import math

from django.test import SimpleTestCase

from splay.draw import draw
from splay.piece import Piece, Stretcher, read_piece, write_piece
from splay.piece.starters import starter
from splay.plan import Plan, plan
from splay.shop import workbench
from splay.solids import member_solid
from splay.stance.member_flats import member_flats, named_member_faces
from splay.stance.members import members
from splay.stance.restate import Restate, restate
from splay.stance.staked import stand
from splay.stance.vectors import Vec, cross, dot
from tests.core.make import texts

SHOP = workbench()


def h_stool(section: str, thick: float = 26.0) -> Piece:
    """Two side stretchers and one across, those at the sides of a section."""
    document = write_piece(restate(starter("round_four"), Restate("members", "h")))
    for member in document["members"][:2]:
        member.update(section=section, diameter=thick)
    return read_piece(document)


class Named(SimpleTestCase):
    def test_the_first_looks_at_the_floor_and_the_rest_follow_clockwise_seen_at_the_first_end(self) -> None:
        # To the back: whoever looks at the first end looks to the back, the seat above, RIGHT at the right.
        names = [name for name, _ in named_member_faces((0.0, 1.0, 0.0))]
        self.assertEqual(names, ["FLOOR face", "LEFT face", "SEAT face", "RIGHT face"])
        names = [name for name, _ in named_member_faces((0.0, -1.0, 0.0))]
        self.assertEqual(names, ["FLOOR face", "RIGHT face", "SEAT face", "LEFT face"])

    def test_no_two_faces_bear_one_name_whichever_way_it_runs(self) -> None:
        turns = [math.radians(7.0 * k) for k in range(52)]
        for turn in turns:
            for slope in (0.0, 20.0, 60.0, 80.0, 89.0, 90.0, -45.0, -90.0):
                c, s = math.cos(math.radians(slope)), math.sin(math.radians(slope))
                way: Vec = (c * math.cos(turn), c * math.sin(turn), s)
                with self.subTest(turn=turn, slope=slope):
                    faces = named_member_faces(way)
                    self.assertEqual(len({name for name, _ in faces}), 4)
                    for (_, one), (_, two) in zip(faces, (*faces[1:], faces[0]), strict=True):
                        self.assertAlmostEqual(dot(cross(one, two), way), 1.0)

    def test_eight_sides_have_those_between_them(self) -> None:
        chosen = h_stool("octagon").members[0]
        assert isinstance(chosen, Stretcher)
        flats = member_flats(chosen, (0.0, 1.0, 0.0))
        self.assertEqual(len(flats), 8)
        between = dict(flats)["face between FLOOR and LEFT"]
        for one, two in zip(between, (-math.sqrt(0.5), 0.0, -math.sqrt(0.5)), strict=True):
            self.assertAlmostEqual(one, two)


class IntoFlats(SimpleTestCase):
    def made(self, section: str, thick: float = 26.0) -> tuple[Piece, Plan]:
        piece = h_stool(section, thick)
        return piece, plan(piece, SHOP)

    def test_what_enters_square_leaves_half_the_thickness_of_each_side(self) -> None:
        # By hand: the sides lie level from front to back, what crosses meets the middle of a flat.
        for section in ("round", "octagon", "square"):
            _, made = self.made(section)
            cross_ = made.members[2]
            with self.subTest(section):
                self.assertAlmostEqual(cross_.centres.quantity.value - cross_.gap.quantity.value, 26.0)
                self.assertAlmostEqual(
                    cross_.ends[0].round_.quantity.value if section != "round" else 0.0, 0.0
                )

    def test_askew_it_leaves_more_of_a_square_one_than_of_a_round_one(self) -> None:
        # From one leg further down to a side stretcher: u comes in at a slope phi to the flat, so 13 / cos.
        document = write_piece(h_stool("square"))
        document["members"] = [
            document["members"][0],
            {
                "kind": "stretcher", "id": "m9",
                "ends": [
                    {"on": "leg", "leg": "l3", "level": {"by": "height", "value": 60}},
                    {"on": "member", "member": document["members"][0]["id"], "share": 0.5},
                ],
            },
        ]  # fmt: skip
        piece = read_piece(document)
        runs, _ = members(piece, stand(piece))
        end = runs[1].ends[1]
        self.assertEqual(end.member, 1)
        u = tuple(-x for x in runs[1].u)
        chosen = piece.members[0]
        assert isinstance(chosen, Stretcher)
        slants = [dot(u, normal) for _, normal in member_flats(chosen, runs[0].u)]  # type: ignore[arg-type]
        self.assertAlmostEqual(end.leaves, 13.0 / max(slants))
        self.assertGreater(end.aside, 1.0)
        sides = [name for name, _ in named_member_faces(runs[0].u)]
        self.assertEqual(abs(sides.index(end.aside_to) - sides.index(end.face)) % 2, 1)
        # The place really lies on the flat, beside its middle line by so much.
        at = tuple(end.leaves * x for x in u)
        along = dot(at, runs[0].u)  # type: ignore[arg-type]
        off = math.sqrt(sum(x * x for x in at) - along * along - 13.0 * 13.0)
        self.assertAlmostEqual(end.aside, off)

    def test_the_wood_is_that_of_a_prism(self) -> None:
        area = {"octagon": 2.0 * (math.sqrt(2.0) - 1.0), "square": 1.0}
        for section, share in area.items():
            piece = h_stool(section, 30.0)
            runs, _ = members(piece, stand(piece))
            chosen, run = piece.members[0], runs[0]
            assert isinstance(chosen, Stretcher)
            gap = run.centres - run.ends[0].leaves - run.ends[1].leaves
            tenon = math.pi / 4.0 * chosen.tenon**2
            with self.subTest(section):
                whole = share * 30.0**2 * gap + 2.0 * chosen.depth * tenon
                self.assertAlmostEqual(member_solid(chosen, run).volume() / whole, 1.0, delta=2e-3)

    def test_it_is_tenoned_planed_and_named_in_that_order_and_set_in_by_the_name(self) -> None:
        _, made = self.made("octagon", 30.0)
        keys = [card.operation for card in made.setups if "member.1" in card.parts]
        self.assertEqual(
            [key for key in keys if key in {"member_cut", "member_octagon", "floor_side"}],
            ["member_cut", "member_octagon", "floor_side"],
        )
        gauge = next(card for card in made.setups if card.operation == "member_octagon")
        assert gauge.setting is not None
        # Machinery's Handbook, 29th ed., "regular polygons", from memory: side = 0.41421 of the width.
        self.assertAlmostEqual(gauge.setting.value, 30.0 * (1.0 - 0.41421) / 2.0, places=3)
        face = next(proof for proof in made.proofs if proof.kind == "octagon" and proof.part == "member.1")
        self.assertAlmostEqual(face.expected.value, 30.0 * 0.41421, places=3)
        self.assertEqual(face.station, "stretchers")
        assert made.assembly is not None
        said = " ".join(line for stage in made.assembly.stages for line in stage.steps)
        self.assertIn("its FLOOR face towards the feet, its socket the way it was dry", said)
        self.assertNotIn("floor-side line", said)

    def test_the_marks_are_drawn_on_the_face_that_bears_them(self) -> None:
        piece, made = self.made("octagon")
        views = {view.name: view for view in draw(piece, SHOP, made, "stretchers").marks}
        face = made.members[2].ends[0].face
        self.assertIn(face, {"LEFT face", "RIGHT face"})
        first = views["marks.member.1"]
        self.assertIn(f"seen on its {face}", first.title)
        said = texts(first)
        self.assertIn(face, said)
        self.assertTrue(any(f"on its {face}" in one for one in said))
        # What crosses is round and bears nothing: no face is named.
        self.assertNotIn("seen on", views["marks.member.3"].title)

    def test_corners_of_square_ones_are_seen_to_meet(self) -> None:
        document = write_piece(starter("round_four"))
        ends = [
            [{"on": "leg", "leg": leg, "level": {"by": "height", "value": height}} for leg in pair]
            for pair, height in ((("l1", "l3"), 150), (("l2", "l4"), 180))
        ]
        for section, met in (("round", False), ("square", True)):
            document["members"] = [
                {"kind": "stretcher", "ends": pair, "diameter": 26, "section": section} for pair in ends
            ]
            found = {finding.code for finding in plan(read_piece(document), SHOP).findings}
            with self.subTest(section):
                self.assertEqual("stretchers_cross" in found, met)
