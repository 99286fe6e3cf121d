"""The piece file, what is judged, what is said another way, what is drawn."""

from __future__ import annotations

import json
import math
from pathlib import Path
from typing import Any

from django.test import SimpleTestCase
from hypothesis import given, settings
from hypothesis import strategies as st
from jsonschema import Draft202012Validator

from splay.draw import draw
from splay.errors import BadInput, CannotBuild
from splay.piece import piece_schema, read_piece, write_piece
from splay.piece.starters import starter
from splay.shop import workbench
from splay.shown import shown
from splay.stance.restate import Restate, restate
from splay.stance.staked import stand
from tests.core.make import piece, planned, round_stool

DEMO = Path(__file__).parents[2] / "workshop" / "demo" / "pieces"
STARTERS = ("round_three", "round_four", "triangle", "bench", "table")


def changed(path: str, value: Any) -> dict[str, Any]:
    """The document of a sound piece with one value put in its place."""
    document = write_piece(piece())
    here: Any = document
    *steps, last = path.split(".")
    for step in steps:
        here = here[int(step) if step.isdigit() else step]
    here[int(last) if last.isdigit() else last] = value
    return document


class File(SimpleTestCase):
    def test_a_piece_goes_there_and_back(self) -> None:
        for name in STARTERS:
            with self.subTest(name):
                made = starter(name)
                self.assertEqual(read_piece(json.loads(json.dumps(write_piece(made)))), made)

    def test_the_published_schema_accepts_what_is_written_and_refuses_what_is_not(self) -> None:
        schema = Draft202012Validator(piece_schema())
        for file in DEMO.glob("*.json"):
            schema.validate(json.loads(file.read_text(encoding="utf-8")))
        self.assertTrue(schema.is_valid(write_piece(piece())))
        self.assertFalse(schema.is_valid(changed("top.outline", {"kind": "star"})))
        self.assertFalse(schema.is_valid(changed("colour", "red")))

    def test_inches_are_kept_exactly(self) -> None:
        document = changed("height", "16 9/16 in")
        self.assertEqual(write_piece(read_piece(document))["height"], 420.6875)

    def test_bad_values_are_answered_field_by_field(self) -> None:
        leg = "supports.0.leg.at_top"
        for path, value in (
            ("height", ""), ("height", "tall"), ("height", "1/0"), ("height", float("nan")),
            ("height", float("inf")), ("height", 1e308), ("height", None), ("height", 30),
            ("top.thickness", -1), ("top.thickness", 0), ("lean.fall", "steep"),
            ("supports.0.angles.0.splay", 90), ("supports.0.angles.0.by", "guess"),
            ("supports.0.placement", {"way": "circle", "count": 0, "radius": 80}),
            ("supports.0.placement", {"way": "circle", "count": 2, "radius": 80}),
            ("supports.0.placement", {"way": "circle", "count": 500, "radius": 80}),
            ("supports.0.placement", {"way": "circle", "count": 3.5, "radius": 80}),
            (leg, True), (leg, []), ("colour", "red"), ("name", ""), ("version", 3), ("version", 0),
            ("version", "x"),
            ("supports", []),
            ("top.outline", {"kind": "rectangle", "length": 400, "width": 300, "corner": 200}),
            ("top.outline", {"kind": "rounded_triangle", "side": 300, "arc": 200}),
        ):  # fmt: skip
            with self.subTest(f"{path}={value!r}"[:70]):
                with self.assertRaises(BadInput) as caught:
                    read_piece(changed(path, value))
                fault = caught.exception.faults[0]
                self.assertTrue(fault.field.startswith(path.split(".")[0]), fault)
                self.assertTrue(fault.got and fault.allowed and fault.do, fault)

    def test_every_wrong_field_has_its_own_fault(self) -> None:
        document = changed("height", "tall")
        document["top"]["thickness"] = "-"
        document["supports"][0]["leg"]["at_foot"] = "1/0"
        with self.assertRaises(BadInput) as caught:
            read_piece(document)
        fields = {fault.field for fault in caught.exception.faults}
        self.assertEqual(fields, {"height", "top.thickness", "supports.0.leg.at_foot"})

    def test_a_broken_rule_names_the_very_field(self) -> None:
        for outline, field in (
            ({"kind": "rectangle", "length": 400, "width": 300, "corner": 200}, "corner"),
            ({"kind": "rounded_triangle", "side": 300, "arc": 200}, "arc"),
            ({"kind": "d", "length": 300, "width": 200, "straight": 190}, "straight"),
            (
                {"kind": "drawn", "corners": [{"x": 9, "y": 9}, {"x": 99, "y": 9}, {"x": 9, "y": 99}]},
                "corners",
            ),
            ({"kind": "round"}, "diameter"),
        ):
            with self.assertRaises(BadInput) as caught:
                read_piece(changed("top.outline", outline))
            self.assertEqual(caught.exception.faults[0].field, f"top.outline.{field}")

    def test_what_is_no_object_is_refused(self) -> None:
        for given_ in (None, [], "piece", 5):
            with self.assertRaises(BadInput):
                read_piece(given_)


class Judged(SimpleTestCase):
    def codes(self, made: Any) -> set[str]:
        return {finding.code for finding in planned(made).findings}

    def test_each_rule_speaks_when_it_should_and_not_otherwise(self) -> None:
        sound = round_stool(16, leg={"at_top": 40, "at_foot": 30})
        self.assertEqual(self.codes(sound), set())
        blind = {"way": "blind", "socket": 25}
        close = {"way": "circle", "count": 3}
        for code, made in {
            "leans_inward": piece(angles=[{"by": "splay_rake", "splay": -5, "rake": -5}]),
            "no_sightline": round_stool(0),
            "break_through": round_stool(14, joint={**blind, "depth": 40}),
            "thin_skin": round_stool(14, joint={**blind, "depth": 31}),
            "edge_distance": round_stool(14, placement={**close, "radius": 162}),
            "edge_break": round_stool(14, placement={**close, "radius": 175}),
            "legs_meet": round_stool(30, placement={**close, "radius": 30}),
            "thin_bridge": round_stool(5, placement={**close, "radius": 22}),
            "footprint_inside": round_stool(2),
            "cannot_stand": piece(angles=[{"by": "splay_rake", "splay": 10, "rake": 6}], lean={"fall": 0},
                placement={"way": "free", "spots": [{"x": 100, "y": 60, "mirror": "sides"},
                    {"x": 0, "y": 40, "mirror": "none"}]}),
            "tenon_over_leg": round_stool(14, joint={"way": "through", "socket": 45}),
        }.items():  # fmt: skip
            with self.subTest(code):
                self.assertIn(code, self.codes(made))

    def test_a_finding_carries_its_number_its_limit_and_its_place(self) -> None:
        made = planned(round_stool(14, joint={"way": "blind", "socket": 25, "depth": 31}))
        finding = next(f for f in made.findings if f.code == "thin_skin")
        self.assertAlmostEqual(finding.number.value, 38 - 31 * math.cos(math.radians(14))
                               - 12.5 * math.sin(math.radians(14)), 9)  # fmt: skip
        self.assertEqual(finding.limit and finding.limit.value, 6.0)
        self.assertIsNotNone(finding.at)
        self.assertTrue(finding.mend)

    def test_what_would_spoil_the_piece_is_said_first(self) -> None:
        made = planned(round_stool(0, joint={"way": "blind", "socket": 25, "depth": 60}))
        self.assertEqual(made.findings[0].level, "stop")

    def test_feet_under_the_middle_of_the_seat_are_planned_and_warned_of(self) -> None:
        # Radius 80, 392 high: a lean of 11.5 inward brings the feet together under the middle.
        spec = [{"by": "resultant", "resultant": 11.53, "sightline": 180}]
        made = piece(placement={"way": "circle", "count": 3, "radius": 80}, angles=spec)
        self.assertIn("leans_inward", self.codes(made))
        self.assertTrue({"footprint_inside", "cannot_stand", "too_few_feet"} & self.codes(made))

    def test_a_leg_that_never_reaches_the_floor_cannot_be_built(self) -> None:
        spec = [{"by": "resultant", "resultant": 60, "sightline": 90, "measured_from": "bearing"}]
        with self.assertRaises(CannotBuild):
            planned(piece(angles=spec, lean={"fall": 30, "toward": 270}))


class Working(SimpleTestCase):
    def test_every_figure_says_how_it_came_about(self) -> None:
        made = planned(piece(lean={"fall": 2}))
        for part in made.parts:
            for figure in (part.exposed, part.in_top, part.finished, part.blank, part.high_low, part.block):
                self.assertTrue(figure.formula and figure.inputs, figure.key)

    def test_the_same_input_gives_the_same_plan(self) -> None:
        self.assertEqual(shown(planned(piece()), "all"), shown(planned(piece()), "all"))


class SaidAnotherWay(SimpleTestCase):
    """Another way of saying it must leave the stool standing where it stood."""

    def same_stance(self, a: Any, b: Any, places: int = 6) -> None:
        for one, other in zip(stand(a).legs, stand(b).legs, strict=True):
            for x, y in zip(one.foot_floor, other.foot_floor, strict=True):
                self.assertAlmostEqual(x, y, places)

    @settings(deadline=None, max_examples=40)
    @given(st.floats(-20, 25), st.floats(-20, 25), st.sampled_from([0.0, 5.0]))
    def test_a_lean_written_in_every_way_is_the_same_lean(
        self, splay: float, rake: float, fall: float
    ) -> None:
        spec = [{"by": "splay_rake", "splay": splay, "rake": rake}]
        made = piece(angles=spec, lean={"fall": fall})
        for line in ("side", "centre"):
            turned = restate(made, Restate("angle", "resultant", leg=2, measured_from=line))
            self.same_stance(made, turned)
            self.same_stance(made, restate(turned, Restate("angle", "splay_rake", leg=3)))
        each = restate(made, Restate("scope", "each"))
        self.assertEqual(len(each.supports[0].angles), 4)
        for line in ("out", "bearing"):
            for leg in (1, 2, 3, 4):
                each = restate(each, Restate("angle", "resultant", leg=leg, measured_from=line))
            self.same_stance(made, each)

    def test_a_footprint_taken_from_the_feet_puts_them_back_there(self) -> None:
        for made, leg in ((piece(), 1), (round_stool(14), 2)):
            self.same_stance(made, restate(made, Restate("angle", "footprint", leg=leg)))

    def test_legs_laid_out_another_way_stand_where_they_stood(self) -> None:
        ring = round_stool(12, placement={"way": "circle", "count": 4, "radius": 110, "first": 45})
        spec = [{"by": "splay_rake", "splay": 10, "rake": 10}]
        square = piece(outline={"kind": "rectangle", "length": 400, "width": 400}, angles=spec,
                       placement={"way": "insets", "from_ends": 90, "from_edges": 90})  # fmt: skip
        self.same_stance(
            square, restate(restate(square, Restate("placement", "circle")), Restate("placement", "insets"))
        )
        free = restate(ring, Restate("placement", "free")).supports[0].placement
        self.assertEqual(len(free.spots), 2)  # type: ignore[union-attr]
        three = round_stool(12)
        self.same_stance(three, restate(three, Restate("placement", "triangle")))

    def test_outlines_keep_their_size_and_joints_their_socket(self) -> None:
        for kind in ("round", "oval", "rectangle", "rounded_triangle"):
            self.assertEqual(restate(piece(), Restate("outline", kind)).top.outline.kind, kind)
        blind = restate(piece(), Restate("joint", "blind"))
        self.assertEqual(blind.supports[0].joint.socket, 25.4)
        self.assertEqual(restate(blind, Restate("joint", "through")).supports[0].joint.way, "through")

    def test_what_cannot_be_said_so_is_refused(self) -> None:
        for ask in (Restate("outline", "star"), Restate("angle", "guess"), Restate("scope", "some"),
                    Restate("placement", "rows"), Restate("joint", "nailed"),
                    Restate("scope", "each", support=4)):  # fmt: skip
            with self.subTest(ask), self.assertRaises(BadInput):
                restate(piece(), ask)


class Drawn(SimpleTestCase):
    def test_every_starting_piece_is_drawn_in_every_view_true_to_scale(self) -> None:
        for name in STARTERS:
            made, shop = starter(name), workbench()
            plan = planned(made)
            drawings = draw(made, shop, plan)
            self.assertEqual(
                [v.name for v in drawings.piece[:5]], ["front", "side", "plan", "underside", "quarter"]
            )
            self.assertEqual(set(drawings.pictures), {card.id for card in plan.setups})
            front = drawings.piece[0]
            foot = next(h for h in front.handles if h.moves == "foot")
            self.assertAlmostEqual(foot.at[0], plan.stance.legs[foot.leg - 1].foot_floor[0], 6)
            height = next(h for h in front.handles if h.moves == "height")
            self.assertAlmostEqual(height.at[1], made.height, 6)
            for view in (*drawings.piece, *drawings.sections, *drawings.legs):
                left, bottom, right, top = view.box
                self.assertLess(left, right)
                self.assertLess(bottom, top)
                for shape in view.shapes:
                    self.assertTrue(all(math.isfinite(c) for point in shape.points for c in point))

    def test_the_underside_is_the_plan_turned_over_side_to_side(self) -> None:
        made = starter("triangle")
        drawings = draw(made, workbench(), planned(made))
        plan, under = drawings.piece[2], drawings.piece[3]
        for a, b in zip(_sockets(plan), _sockets(under), strict=True):
            self.assertAlmostEqual(a[0], -b[0], 9)
            self.assertAlmostEqual(a[1], b[1], 9)

    def test_a_caution_is_ringed_where_it_is(self) -> None:
        made = round_stool(14, placement={"way": "circle", "count": 3, "radius": 162})
        rings = [s for s in draw(made, workbench(), planned(made)).piece[2].shapes
                 if s.kind == "ellipse" and s.layer == "warning"]  # fmt: skip
        self.assertEqual([ring.points[0] for ring in rings], [leg.place.at for leg in stand(made).legs])

    def test_a_picture_shows_the_tool_at_the_real_angle(self) -> None:
        made = round_stool(20)
        plan = planned(made)
        drawings = draw(made, workbench(), plan)
        card = next(card for card in plan.setups if card.way == "tilting_table")
        table = next(s for s in drawings.pictures[card.id].shapes if s.layer == "tool")
        (x0, y0), (x1, y1) = table.points[:2]
        self.assertAlmostEqual(math.degrees(math.atan2(y1 - y0, x1 - x0)), 20, 9)


def _sockets(view: Any) -> list[tuple[float, float]]:
    return [s.points[0] for s in view.shapes if s.kind == "ellipse" and s.layer == "section"]
