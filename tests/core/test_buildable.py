"""Sizes that cannot be built are said, with the field that mends them."""

from __future__ import annotations

from typing import Any

from django.test import SimpleTestCase

from splay.piece import read_piece, write_piece
from splay.piece.starters import STARTS, starter
from splay.plan import Plan, plan
from splay.shop import workbench
from tests.core.make import ROUND, piece, planned, round_stool


def changed(name: str, path: str, value: Any) -> Plan:
    """A starting piece with one choice changed."""
    document = write_piece(starter(name))
    part: Any = document
    *ways, last = path.split(".")
    for way in ways:
        part = part[int(way)] if way.isdigit() else part[way]
    part[last] = value
    return plan(read_piece(document), workbench())


def found(made: Plan) -> dict[str, str]:
    return {finding.code: finding.field for finding in made.findings if finding.level == "stop"}


class CannotBeBuilt(SimpleTestCase):
    def test_each_size_past_its_bound_is_a_stop_at_its_own_field(self) -> None:
        for name, path, value, code, field in (
            ("bench", "members.0.tenon", 40, "tenon_over_stretcher", "members.0.tenon"),
            ("plane_frames", "supports.0.cross.1.drop", 600, "piece_low", "supports.0.cross.1.drop"),
            ("board_sides", "supports.0.rails.2.drop", 300, "piece_low", "supports.0.rails.2.drop"),
            ("board_sides", "supports.0.rails.0.offset", 150, "rail_outside", "supports.0.rails.0.offset"),
            ("board_sides", "supports.0.cut_out.height", 300, "cut_out_high", "supports.0.cut_out.height"),
            ("board_sides", "supports.0.cut_out.width", 240, "cut_out_wide", "supports.0.cut_out.width"),
            ("aproned", "supports.0.apron", 390, "none", ""),
            ("aproned", "height", 90, "apron_tall", "supports.0.apron"),
            ("aproned", "supports.0.thickness", 39, "apron_thick", "supports.0.thickness"),
            ("log_slice", "supports.0.joint.into_top", 90, "screw_short", "supports.0.joint.length"),
            ("log_slice", "supports.0.joint.core", 12, "pilot_wide", "supports.0.joint.core"),
            (
                "battened",
                "supports.0.joint.batten_width",
                20,
                "batten_narrow",
                "supports.0.joint.batten_width",
            ),
            ("tall", "supports.0.joint.across", 50, "tenon_over_leg", "supports.0.joint.across"),
            (
                "bench",
                "top.upper_edge",
                {"way": "round_over", "size": 60},
                "edge_deep",
                "top.upper_edge.size",
            ),
        ):
            with self.subTest(name, path=path, value=value):
                if code == "none":
                    self.assertNotIn("apron_tall", found(changed(name, path, value)))
                else:
                    self.assertEqual(found(changed(name, path, value)).get(code), field)

    def test_what_can_be_built_is_not_stopped(self) -> None:
        for name in STARTS:
            self.assertEqual(found(planned(starter(name))), {}, name)

    def test_what_an_edge_was_shaped_to_before_it_was_left_square_is_of_no_account(self) -> None:
        """No wood is gone there: not from the rim, nor where a straight-edge stands at levelling."""
        for name in STARTS:
            document = write_piece(starter(name))
            for edge in ("upper_edge", "lower_edge"):
                document["top"][edge] = {"way": "square"}
            plain = plan(read_piece(document), workbench())
            for edge in ("upper_edge", "lower_edge"):
                document["top"][edge] = {"way": "square", "size": 60, "angle": 45}
            after = plan(read_piece(document), workbench())
            with self.subTest(name):
                self.assertEqual(after.findings, plain.findings)
                self.assertEqual(after.sockets, plain.sockets)
                self.assertEqual(after.proofs, plain.proofs)

    def test_two_stretchers_that_cross_at_one_level_meet_in_the_middle(self) -> None:
        level = {"by": "height", "value": 150}
        ends = [[{"on": "leg", "leg": a, "level": level}, {"on": "leg", "leg": b, "level": level}]
                for a, b in ((1, 3), (2, 4))]  # fmt: skip
        sticks = [{"kind": "stretcher", "ends": pair} for pair in ends]
        self.assertIn("stretchers_cross", found(planned(piece(members=sticks))))
        ends[1] = [{**end, "level": {"by": "height", "value": 190}} for end in ends[1]]
        apart = [{"kind": "stretcher", "ends": pair} for pair in ends]
        self.assertNotIn("stretchers_cross", found(planned(piece(members=apart))))

    def test_three_legs_under_the_rim_are_warned_of(self) -> None:
        """The middle lies half their circle inside the line of two of three feet, the rim as far out."""
        under = [{"by": "under_rim"}]
        three = {"way": "circle", "count": 3, "radius": 80}
        made = planned(piece(outline=ROUND, placement=three, angles=under))
        self.assertIn("rim_past_feet", [f.code for f in made.findings])
        four = planned(piece(outline=ROUND, placement={**three, "count": 4}, angles=under))
        for sound in (four, planned(round_stool(16))):
            self.assertNotIn("rim_past_feet", [f.code for f in sound.findings])


class Footprints(SimpleTestCase):
    def test_as_wide_and_footprint_take_the_taper_into_account(self) -> None:
        """Each side line of the cone followed to the floor by steps, independent of any ellipse."""
        import numpy as np

        from splay.stance.taper import foot_taper

        for section in ("round", "square", "octagon"):
            leg = {"at_top": 46, "at_foot": 24, "section": section}
            made = piece(angles=[{"by": "footprint", "width": 420, "depth": 320}], leg=leg)
            stance = planned(made).stance
            shape = made.supports[0].leg
            far = np.zeros(2)
            for one in stance.legs:
                d = np.array(one.d)
                from splay.stance.aim import faces
                from splay.stance.taper import corners

                side, front = (np.array(v) for v in faces(shape, one.d))
                turns = np.linspace(0, 2 * np.pi, 7201)
                spots = corners(shape) or tuple(zip(np.cos(turns), np.sin(turns), strict=True))
                k = foot_taper(shape, one.exposed)
                for i, j in spots:
                    w = i * side + j * front
                    t = -12 * w[2] / (d[2] - k * w[2])
                    p = np.array(one.foot) + d * t + w * (12 - k * t)
                    far = np.maximum(far, np.abs(p[:2]))
            with self.subTest(section):
                np.testing.assert_allclose(far, (210, 160), atol=0.01)
