"""Drawings: true to scale, the right way round, and nothing left out."""

from __future__ import annotations

import json
import math
from typing import Any

import shapely
from django.test import SimpleTestCase

from splay.draw import draw
from splay.piece import Piece, read_piece, write_piece
from splay.piece.starters import STARTS, starter
from splay.setups.scenes import Arc, Drilled, LegOnSaw, OnRamp, Scene, Scribed, TenonMade, WithBlock
from splay.shop import workbench
from splay.views.pictures import picture
from splay.views.scale_arc import scale_arc
from splay.views.scene import together
from splay.views.shapes import View
from tests.core.make import piece, planned, round_stool, texts


def drawn(made: Piece) -> Any:
    return draw(made, workbench(), planned(made))


def shapes(view: View, layer: str, part: str = "") -> list[Any]:
    return [s for s in view.shapes if s.layer == layer and (not part or s.part == part)]


class Views(SimpleTestCase):
    def test_the_front_shows_the_width_over_the_feet_and_the_height(self) -> None:
        made = piece()
        plan = planned(made)
        front = drawn(made).piece[0]
        said = texts(front)
        self.assertIn("430 mm", said)
        self.assertIn(plan.sizes[0].figure.quantity.text, said)

    def test_the_side_looks_from_the_right_with_the_front_to_the_left(self) -> None:
        made = piece(angles=[{"by": "splay_rake", "splay": 10, "rake": 6}])
        plan = planned(made)
        side = drawn(made).piece[1]
        front_leg = next(
            h for h in side.handles if h.moves == "foot" and plan.stance.legs[h.leg - 1].place.at[1] < 0
        )
        self.assertLess(front_leg.at[0], 0)

    def test_a_leaning_seat_is_drawn_leaning_on_a_level_floor(self) -> None:
        made = piece(lean={"fall": 6})
        side = drawn(made).piece[1]
        floor = shapes(side, "floor")[0]
        self.assertEqual({y for _, y in floor.points}, {0.0})
        height = next(h for h in side.handles if h.moves == "height")
        self.assertAlmostEqual(height.at[1], 430, 6)
        back = next(h for h in side.handles if h.moves == "lean")
        slope = math.degrees(math.atan2(back.at[1] - height.at[1], back.at[0] - height.at[0]))
        self.assertAlmostEqual(slope, -6, 6)

    def test_silhouettes_hold_the_whole_leg(self) -> None:
        made = round_stool(18, leg={"at_top": 44, "at_foot": 30})
        plan = planned(made)
        front = drawn(made).piece[0]
        for leg in plan.stance.legs:
            outline = shapes(front, "leg", f"leg.{leg.number}")[0].points
            xs, ys = [x for x, _ in outline], [y for _, y in outline]
            self.assertAlmostEqual(min(ys), 0, delta=0.02)
            # The mouth lies in the underside, 392 above the floor.
            self.assertAlmostEqual(max(ys), 392, delta=0.02)
            self.assertGreater(max(xs) - min(xs), 30)

    def test_square_and_round_legs_are_drawn_together(self) -> None:
        square = {"section": "square", "at_top": 40, "at_foot": 32}
        for leg in (square, {**square, "facing": "sightline"}, {"at_top": 40, "at_foot": 32}):
            feet = shapes(drawn(piece(leg=leg)).piece[2], "foot")
            self.assertEqual(len(feet), 4)
            corners = len(feet[0].points)
            self.assertEqual(corners == 4, leg.get("section") == "square")

    def test_both_lines_of_a_sightline_are_drawn_on_the_underside(self) -> None:
        under = drawn(piece()).piece[3]
        said = texts(under)
        self.assertIn("30.8°", said)
        self.assertIn("59.2°", said)

    def test_bored_from_above_everything_is_drawn_on_the_face_that_is_up(self) -> None:
        """With FRONT towards the maker RIGHT is at the right hand, the holes where they start above."""
        made = piece(joint={"way": "through", "socket": 25.4, "bored_from": "upper"})
        plan = planned(made)
        view = draw(made, workbench(), plan, "boring").piece[0]
        self.assertTrue(view.title.startswith("Upper face up"))
        words = {shape.text: shape.points[0] for shape in view.shapes if shape.kind == "text"}
        self.assertGreater(words["RIGHT"][0], words["LEFT"][0])
        self.assertLess(words["FRONT"][1], words["BACK"][1])
        mouths = [s for s in view.shapes if s.kind == "ellipse" and s.layer == "section"]
        for leg, mouth in zip(plan.stance.legs, mouths, strict=True):
            # A line along the leg, upwards, comes out of the upper face there.
            up = made.top.thickness / -leg.d[2]
            wanted = tuple(leg.socket[k] - up * leg.d[k] for k in (0, 1))
            for got, want in zip(mouth.points[0], wanted, strict=True):
                self.assertAlmostEqual(got, want, 6)

    def test_legs_bored_from_either_face_are_drawn_with_that_face_up(self) -> None:
        document = write_piece(starter("round_three"))
        other = json.loads(json.dumps(document["supports"][0]))
        other["placement"] |= {"radius": 40}
        other["joint"] = {"way": "through", "socket": 22, "bored_from": "upper"}
        del other["id"]
        document["supports"].append(other)
        made = read_piece(document)
        plan = planned(made)
        views = {view.name: view for view in draw(made, workbench(), plan, "boring").piece}
        self.assertEqual(list(views), ["underside", "upper"])
        for name, mine, right in (("underside", {1, 2, 3}, -1.0), ("upper", {4, 5, 6}, 1.0)):
            lines = [shape for shape in views[name].shapes if shape.layer == "sightline"]
            self.assertEqual({shape.part for shape in lines}, {f"leg.{k}" for k in mine}, name)
            hidden = {s.part for s in views[name].shapes if s.layer == "hidden" and s.kind == "ellipse"}
            self.assertEqual(
                hidden, {f"leg.{k}" for k in range(1, 7)}, "the others are seen through the wood"
            )
            words = {shape.text: shape.points[0] for shape in views[name].shapes if shape.kind == "text"}
            self.assertGreater(right * words["RIGHT"][0], 0.0)
            self.assertLess(words["FRONT"][1], 0.0)

    def test_marking_out_turns_the_drawing_with_the_seat(self) -> None:
        for where, upper in (("underside", False), ("upper", True)):
            made = piece(joint={"way": "through", "socket": 25.4, "bored_from": where})
            plan = planned(made)
            drawn = draw(made, workbench(), plan, "top").layout
            for step, view in zip(plan.layout.steps, drawn, strict=True):
                words = {shape.text: shape.points[0] for shape in view.shapes if shape.kind == "text"}
                above = step.face == "upper face"
                self.assertEqual(words["RIGHT"][0] > words["LEFT"][0], above, step.title)
                self.assertTrue(any(s.layer == "cut" for s in view.shapes) or not step.marks)
                self.assertTrue(step.marks, f"{step.title} draws nothing")
            self.assertEqual(plan.layout.steps[-1].face == "upper face", upper)

    def test_the_words_for_the_seats_letters_are_those_the_drawing_shows(self) -> None:
        for where in ("underside", "upper"):
            made = piece(joint={"way": "through", "socket": 25.4, "bored_from": where})
            plan = planned(made)
            drawn = draw(made, workbench(), plan, "top").layout
            for step, view in zip(plan.layout.steps, drawn, strict=True):
                if "at their ends" not in step.words:
                    continue
                places = {shape.text: shape.points[0] for shape in view.shapes if shape.kind == "text"}
                for word in ("FRONT", "BACK", "LEFT", "RIGHT"):
                    self.assertEqual(step.words.count(word), 2 if word in ("FRONT", "RIGHT") else 1, word)
                # FRONT is drawn towards the reader, who has the sheet before them.
                self.assertLess(places["FRONT"][1], places["BACK"][1])
                hand = "right" if places["RIGHT"][0] > places["LEFT"][0] else "left"
                self.assertIn(f"with FRONT towards you, RIGHT is at your {hand} hand", step.words)

    def test_a_plumb_leg_is_drawn_without_a_sightline(self) -> None:
        plan = drawn(round_stool(0)).piece[2]
        self.assertEqual(shapes(plan, "sightline"), [])
        self.assertEqual(len(shapes(drawn(round_stool(5)).piece[2], "sightline")), 3)


class Details(SimpleTestCase):
    def test_a_leg_is_drawn_with_its_belly_and_a_reamed_tenon_with_its_taper(self) -> None:
        leg = {"at_top": 32, "at_foot": 26, "belly": {"size": 40, "at": 0.4}}
        joint = {"way": "reamed", "socket": 28, "included": 8}
        made = piece(leg=leg, joint=joint)
        part, stance = planned(made).parts[0], planned(made).stance
        body = shapes(drawn(made).legs[0], "leg")[0].points
        inside = part.in_top.quantity.value
        waist = inside + 0.4 * part.exposed.quantity.value
        at = {round(u, 6): abs(r) for u, r in body}
        self.assertAlmostEqual(at[round(waist, 6)], 20.0)
        # A taper of 8° in all loses 2 · tan 4° for each millimetre it runs in.
        tip = 28.0 - 2.0 * math.tan(math.radians(4.0)) * inside
        self.assertAlmostEqual(2.0 * at[0.0], tip, 6)
        self.assertAlmostEqual(stance.legs[0].bore.tip, tip, 6)
        # Straight from the belly to the foot: at the middle of the slanted cut as thick as chosen.
        (u1, r1), (u2, r2) = ((u, abs(r)) for u, r in body if u > waist + 1.0)
        self.assertAlmostEqual(r1 + (r2 - r1) * (part.finished.quantity.value - u1) / (u2 - u1), 13.0, 1)

    def test_the_section_shows_the_holes_lean_and_what_is_left_above(self) -> None:
        made = round_stool(20, joint={"way": "blind", "socket": 26, "depth": 24})
        section = drawn(made).sections[0]
        self.assertIn("20.0°", texts(section))
        left = planned(made).sockets[0].left_above
        assert left is not None
        self.assertIn(left.quantity.text, texts(section))
        hole = shapes(section, "cut")[0].points
        lean = math.degrees(math.atan2(hole[2][0] - hole[1][0], hole[1][1] - hole[2][1]))
        self.assertAlmostEqual(abs(lean), 20, 6)

    def test_from_the_upper_face_the_section_is_turned_over(self) -> None:
        joint = {"way": "through", "socket": 26}
        below = shapes(drawn(round_stool(15, joint=joint)).sections[0], "section")[0].points
        above = shapes(
            drawn(round_stool(15, joint={**joint, "bored_from": "upper"})).sections[0], "section"
        )[0].points
        self.assertTrue(all(y <= 0 for _, y in below))
        self.assertTrue(all(y >= 0 for _, y in above))

    def test_a_leg_is_laid_out_with_its_lengths_and_the_slanted_cut(self) -> None:
        made = round_stool(15)
        plan, view = planned(made), drawn(made).legs[0]
        part = plan.parts[0]
        (x0, y0), (x1, y1) = shapes(view, "cut")[0].points
        self.assertAlmostEqual(x1 - x0, part.high_low.quantity.value, 6)
        self.assertGreater(y1, y0)  # the outer side, drawn up, is the longer
        said = " ".join(texts(view))
        for figure in (part.exposed, part.finished, part.blank):
            self.assertIn(figure.quantity.text, said)


class Together(SimpleTestCase):
    def test_pieces_of_a_part_are_drawn_as_one_and_what_is_seen_on_its_edge_is_left_out(self) -> None:
        left = ((0.0, 0.0), (2.0, 0.0), (2.0, 2.0), (0.0, 2.0))
        right = ((2.0, 0.0), (4.0, 0.0), (4.0, 2.0), (2.0, 2.0))
        (whole,) = together([left, right, ((0.0, 0.0), (1.0, 1.0))])
        self.assertAlmostEqual(shapely.Polygon(whole).area, 8.0, delta=0.5)
        self.assertEqual(together([left]), [left])


class Pictures(SimpleTestCase):
    def scenes(self, off: float) -> list[Scene]:
        arc = Arc(0.0, "up", 45.0, f"{off}°")
        ways = ("tilting_table", "bevel_gauge", "angle_guide", "digital_gauge")
        return [
            *(Drilled(way, off, "rim", "middle", arc) for way in ways),  # type: ignore[arg-type]
            OnRamp(off, "rim", "middle", "300 mm", "70 mm", "bar"),
            WithBlock(off, "rim", "middle", "76°", "75 mm"),
            Scribed(off, "rim", "middle", "70 mm"),
            LegOnSaw(off, arc, "rim", "middle", "leg 1"),
        ]

    def test_every_card_of_every_kind_has_its_picture_its_setting_its_proof_and_its_caution(self) -> None:
        """What is followed in the browser for some kinds holds for all."""
        for start in STARTS:
            made = planned(starter(start))
            proofs = {proof.id for proof in made.proofs}
            pictures = draw(starter(start), workbench(), made).pictures
            for card in made.setups:
                with self.subTest(start, card=card.id):
                    self.assertGreater(len(pictures[card.id].shapes), 2)
                    self.assertRegex(card.setting.text, r"\d")
                    self.assertTrue(card.steps or card.which_way)
                    self.assertLessEqual(set(card.proofs), proofs)
                    # Marking is no cut: it may prove nothing, and hurts nobody.
                    if card.way != "marking":
                        self.assertTrue(card.cautions)
                        self.assertTrue(card.proofs or card.operation == "splines")

    def test_every_picture_stays_in_its_frame_and_names_both_sides(self) -> None:
        for off in (0.0, 5.0, 14.0, 28.0):
            for scene in self.scenes(off):
                way = type(scene).__name__
                view = picture(scene, way)
                words = set(texts(view))
                self.assertLessEqual({"rim", "middle"}, words, way)
                for shape in view.shapes:
                    if shape.kind in ("area", "text"):
                        for x, y in shape.points:
                            self.assertTrue(view.box[0] < x < view.box[2], (way, off, x))
                            self.assertTrue(view.box[1] < y < view.box[3], (way, off, y))

    def test_what_is_made_is_drawn_with_its_size(self) -> None:
        """A tenon's card shows a tenon, as thick as it says; so do pilots, tapers, laps and stretchers."""
        made = {"tenon", "shoulder", "pilot", "octagon", "taper", "notch", "member_cut"}
        met = set()
        for name in STARTS:
            plan, drawings = planned(starter(name)), drawn(starter(name))
            for setup in plan.setups:
                if setup.operation in made:
                    met.add(setup.operation)
                    view = drawings.pictures[setup.id]
                    self.assertIn(setup.setting.text, " ".join(texts(view)), setup.id)
                    if setup.operation == "tenon":
                        self.assertIsInstance(setup.scene, TenonMade)
        self.assertLessEqual({"tenon", "pilot", "taper", "notch", "member_cut"}, met)

    def test_each_way_of_measuring_a_ramp_has_its_own_spacer_drawn(self) -> None:
        drawn_as = set()
        for kind in ("plumb_base", "plumb_ramp", "square_ramp", "bar"):
            view = picture(OnRamp(12.0, "rim", "middle", "300 mm", "64 mm", kind), "Ramp")
            spacer = next(s for s in view.shapes if s.layer == "measured")
            drawn_as.add((spacer.kind, spacer.points))
        self.assertEqual(len(drawn_as), 4)

    def test_a_gauges_blade_stands_at_the_real_angle_beside_the_bit(self) -> None:
        view = picture(
            Drilled("bevel_gauge", 17.0, "rim", "middle", Arc(90.0, "down", 85.0, "73°")), "Gauge"
        )
        blade = next(s for s in view.shapes if s.layer == "measured").points
        lean = math.degrees(math.atan2(blade[3][0] - blade[0][0], blade[3][1] - blade[0][1]))
        self.assertAlmostEqual(lean, 17, 9)
        axis = next(s for s in view.shapes if s.layer == "axis").points
        bit = math.degrees(math.atan2(axis[1][0] - axis[0][0], axis[1][1] - axis[0][1]))
        self.assertAlmostEqual(bit, 17, 9)

    def test_a_scale_shows_its_own_figures_and_its_end(self) -> None:
        made = scale_arc((0.0, 0.0), 100, 90.0, -1, Arc(90.0, "down", 40.0, "78°"), 12.0)
        figures = {s.text for s in made if s.kind == "text"}
        self.assertLessEqual({"78°", "60"}, figures)
        self.assertNotIn("0", figures)
        pointer = next(s for s in made if s.layer == "pointer" and s.kind == "line").points
        self.assertAlmostEqual(math.degrees(math.atan2(pointer[1][0], pointer[1][1])), 12, 9)
        self.assertEqual(len([s for s in made if s.layer == "warning"]), 0)
        short = scale_arc((0.0, 0.0), 100, 90.0, -1, Arc(0.0, "up", 22.0, "12°"), 12.0)
        self.assertEqual(len([s for s in short if s.layer == "warning"]), 1)
