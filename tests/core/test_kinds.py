"""Frames, boards, slabs, aprons, members, tops: check values, findings, arrangements."""

from __future__ import annotations

import math
from typing import Any

from django.test import SimpleTestCase
from hypothesis import given, settings
from hypothesis import strategies as st

from splay.errors import BadInput, CannotBuild
from splay.parts.stick import StickPart
from splay.piece import Piece, read_piece, write_piece
from splay.piece.starters import STARTS, starter
from splay.plan import Plan, plan
from splay.quantity import Figure
from splay.shop import Shop, ready_shops, workbench
from splay.stance.bodies import bodies
from splay.stance.convex import volume
from splay.stance.floor import floor_under
from splay.stance.hollow import arc_radius, hollow_depth
from splay.stance.members import wood_behind
from splay.stance.outline import points, polygon
from splay.stance.restate import Restate, restate
from splay.work.joinery import Slots, Spots
from tests.core.make import ROUND, piece, planned, round_stool

INCH = 25.4


class Numbering(SimpleTestCase):
    """The legs' numbers, said by the words the maker writes on the seat."""

    def said(self, outline: dict[str, Any], *places: tuple[float, float]) -> str:
        each = [{"x": x, "y": y, "mirror": "none"} for x, y in places]
        return planned(piece(outline, {"way": "free", "spots": each})).numbering

    def test_round_a_ring_from_where_it_starts(self) -> None:
        ring = piece(ROUND, {"way": "circle", "count": 3, "radius": 80})
        self.assertEqual(
            planned(ring).numbering,
            "Leg 1 stands at the BACK; the numbers run round from there, anticlockwise seen from above.",
        )

    def test_legs_placed_by_hand_in_any_order_are_numbered_round_like_every_other(self) -> None:
        self.assertEqual(
            self.said(ROUND, (80, 80), (-80, -80), (80, -80), (-80, 80)),
            "Leg 1 stands at the BACK RIGHT; the numbers run round from there, anticlockwise seen from "
            "above.",
        )

    def test_two_legs_of_a_slab_run_round_neither_way(self) -> None:
        self.assertEqual(
            planned(starter("slab")).numbering,
            "Leg 1 stands at the BACK RIGHT; 2 at the FRONT RIGHT.",
        )


def with_support(support: dict[str, Any], **choices: Any) -> Piece:
    """A piece on one support of square stock."""
    top = {
        "outline": {"kind": "rectangle", "length": 400, "width": 300},
        "thickness": choices.pop("thickness", 38),
    }
    document = {"name": "A piece", "height": 430, "top": top, "supports": [support], **choices}
    return read_piece(document)


def stick(made: Plan, name: str) -> StickPart:
    """The part of that name."""
    return next(part for part in made.sticks if part.name == name)


def figure(figures: tuple[Figure, ...], ending: str) -> float:
    """The value of the figure whose key ends so."""
    return next(f.quantity.value for f in figures if f.key.endswith(ending))


def longest(part: StickPart) -> float:
    """Long point to long point, mm."""
    return part.arrises[0].length.quantity.value


class CommonPractice(SimpleTestCase):
    """Check values of the trade (common practice, no source)."""

    def test_rail_and_leg_of_equal_width_at_15_degrees(self) -> None:
        made = planned(with_support({"kind": "mitred_frames", "length": 400, "splay": 15}))
        self.assertAlmostEqual(abs(stick(made, "rail of frame 1").start.mitre), 37.5, 9)
        leg = stick(made, "leg 1 of frame 1")
        self.assertAlmostEqual(abs(leg.start.mitre), 37.5, 9)
        self.assertAlmostEqual(abs(leg.finish.mitre), 15.0, 9)

    def test_a_long_edge_of_240_stands_231_8_tall(self) -> None:
        chosen = {"kind": "mitred_frames", "length": 400, "splay": 15}
        made = planned(with_support(chosen, height=231.82 + 38))
        self.assertAlmostEqual(longest(stick(made, "leg 1 of frame 1")), 240.0, delta=0.05)

    def test_rails_between_legs_that_splay_5_degrees(self) -> None:
        # Legs 21 in along the stick; rails 1 1/2 in deep, the upper flush with its long point
        # 11 1/2 in, the lower standing 4 in off the floor: 14.20 in, called 14 1/4.
        five = math.radians(5)
        high = 21 * INCH * math.cos(five)
        face = 1.5 * INCH
        apart = (11.5 - 2 * 1.5 * math.tan(five)) * INCH + 2 * face / math.cos(five)
        chosen = {
            "kind": "plane_frames", "length": apart, "width": 250, "splay": 5, "rake": 0, "face": face,
            "thickness": 30, "links": 0,
            "cross": [{"drop": 0, "depth": face}, {"drop": high - 5.5 * INCH, "depth": face}],
        }  # fmt: skip
        made = planned(with_support(chosen, height=high + 38))
        self.assertAlmostEqual(longest(stick(made, "left leg of the front frame")) / INCH, 21.0, 6)
        self.assertAlmostEqual(longest(stick(made, "cross-piece 1 of the front frame")) / INCH, 11.5, 6)
        lower = longest(stick(made, "cross-piece 2 of the front frame")) / INCH
        self.assertAlmostEqual(lower, 14.20, 2)
        self.assertLess(abs(lower - 14.25), 1 / 16)

    def test_a_hollow_12_inches_across_and_half_an_inch_deep(self) -> None:
        self.assertAlmostEqual(arc_radius(12, 0.5), 36.25, 9)

    def test_stock_that_passes_the_cutter_by_a_hair_is_called_marginal(self) -> None:
        # 1 1/2 in square in a cutter that takes 1 in + 1 1/8: diagonal 2.121 against 2.125.
        tools = [
            {**tool.model_dump(), "bore": INCH, "takes": 1.125 * INCH}
            for tool in workbench().tools
            if tool.kind == "tenon_cutter"
        ]
        shop = Shop.model_validate({"tools": tools})
        leg = {"at_top": 1.5 * INCH, "at_foot": 1.5 * INCH, "section": "square", "tenon_by": "cutter"}
        made = plan(round_stool(10, leg=leg, joint={"way": "blind", "socket": INCH, "depth": 25}), shop)
        card = next(c for c in made.setups if c.operation == "tenon")
        self.assertFalse(card.in_reach)
        self.assertIn("Marginal", card.reach_note)

    def test_sloped_shoulder_to_foot_at_10_degrees_under_a_1_and_a_quarter_top(self) -> None:
        # 28 3/16 in from shoulder to foot: "a little over 29 in" high, 29.01.
        high = 28.1875 * INCH * math.cos(math.radians(10)) + 1.25 * INCH
        self.assertAlmostEqual(high / INCH, 29.01, 2)
        joint = {"way": "shouldered", "socket": 25, "across": 20, "depth": 20}
        made = planned(round_stool(10, height=high, thickness=1.25 * INCH, joint=joint))
        self.assertAlmostEqual(figure(made.parts[0].making, "shoulder_length") / INCH, 28.1875, 6)


class WorkedTwice(SimpleTestCase):
    """Check values worked in closed form and in space, apart from the code (independent)."""

    def test_aprons_of_equal_and_unequal_lean(self) -> None:
        base = {"kind": "aproned_legs", "length": 400, "width": 300}
        made = planned(with_support({**base, "splay": 10, "rake": 10}))
        front = stick(made, "front apron")
        self.assertAlmostEqual(abs(front.start.mitre), 9.851, 3)
        self.assertAlmostEqual(abs(front.start.tilt), 1.728, 3)
        self.assertAlmostEqual(figure(stick(made, "front left leg").bevels, "inner_side"), 1.728, 3)
        uneven = planned(with_support({**base, "splay": 10, "rake": 6}))
        self.assertAlmostEqual(abs(stick(uneven, "front apron").start.mitre), 9.946, 3)
        self.assertAlmostEqual(abs(stick(uneven, "left apron").start.mitre), 5.909, 3)
        self.assertAlmostEqual(abs(stick(uneven, "left apron").start.tilt), 1.040, 3)

    def test_a_square_leg_gives_the_front_apron_no_tilt_and_the_side_one_all_of_it(self) -> None:
        chosen = {
            "kind": "aproned_legs", "length": 400, "width": 300, "splay": 10, "rake": 10,
            "true_section": False,
        }  # fmt: skip
        made = planned(with_support(chosen))
        self.assertAlmostEqual(stick(made, "front apron").start.tilt, 0.0, 9)
        self.assertAlmostEqual(abs(stick(made, "left apron").start.tilt), 1.728, 3)

    def test_a_mitre_of_unequal_widths(self) -> None:
        # 60 and 45 at 15 degrees: 63.05 and 41.95 from each one's own length.
        chosen = {"kind": "mitred_frames", "length": 400, "splay": 15, "rail": 60, "leg": 45}
        made = planned(with_support(chosen))
        self.assertAlmostEqual(90 - abs(stick(made, "rail of frame 1").start.mitre), 63.05, 2)
        self.assertAlmostEqual(90 - abs(stick(made, "leg 1 of frame 1").start.mitre), 41.95, 2)

    def test_a_slab_leg_on_a_falling_bench(self) -> None:
        # Outer corner 450 plumb above the floor, 12 degrees, falling 2: 456.94 towards, 463.78 away.
        for toward, expected, bevel in ((180, 456.94, 10.0), (0, 463.78, 14.0)):
            chosen = with_support({"kind": "slab_leg", "splay": 12}, lean={"fall": 2, "toward": toward})
            floor = floor_under(chosen.lean, 450, 38)
            corner = floor.to_floor((-200.0, 0.0, 38.0))[2]
            made = planned(with_support({"kind": "slab_leg", "splay": 12}, height=450 + 450 - corner,
                                        lean={"fall": 2, "toward": toward}))  # fmt: skip
            leg = stick(made, "slab leg at the left")
            self.assertAlmostEqual(longest(leg), expected, 2)
            self.assertAlmostEqual(abs(leg.finish.tilt), bevel, 6)
            self.assertAlmostEqual(abs(leg.start.tilt), 39.0, 9)

    def test_cross_pieces_of_boards_grow_downwards(self) -> None:
        rails = [{"drop": 20}, {"drop": 120}]
        chosen = {"kind": "board_sides", "length": 400, "width": 250, "splay": 12, "rails": rails}
        made = planned(with_support(chosen))
        grown = longest(stick(made, "rail 2")) - longest(stick(made, "rail 1"))
        self.assertAlmostEqual(grown, 2 * 100 * math.tan(math.radians(12)), 9)

    def test_an_h_between_four_leaning_legs(self) -> None:
        def on(leg: int) -> dict[str, Any]:
            return {"on": "leg", "leg": leg, "level": {"by": "height", "value": 142}}

        made = planned(piece(
            placement={"way": "free", "spots": [{"x": 150, "y": 110, "mirror": "both"}]},
            members=[
                {"kind": "stretcher", "ends": [on(1), on(3)], "depth": 22},
                {"kind": "stretcher", "ends": [on(2), on(4)], "depth": 22},
                {"kind": "stretcher", "ends": [on(3), on(4)], "depth": 22},
                {"kind": "stretcher", "ends": [{"on": "member", "member": n} for n in (1, 2)]},
            ],
        ))  # fmt: skip
        side, _, front, middle = made.members
        self.assertAlmostEqual(side.centres.quantity.value, 272.55, 2)
        self.assertAlmostEqual(side.ends[0].read.quantity.value, 84.09, 2)
        self.assertAlmostEqual(side.gap.quantity.value, 240.38, 2)
        self.assertAlmostEqual(side.total.quantity.value, 284.38, 2)
        self.assertAlmostEqual(front.centres.quantity.value, 388.16, 2)
        self.assertAlmostEqual(front.ends[0].read.quantity.value, 80.05, 2)
        self.assertAlmostEqual(front.total.quantity.value, 399.68, delta=0.01)
        self.assertAlmostEqual(middle.centres.quantity.value, 388.16, 2)
        self.assertIn(2, side.coplanar)

    def test_wood_behind_a_socket(self) -> None:
        self.assertAlmostEqual(wood_behind(16, 22, 16, 84.09), 6.05, 2)
        self.assertAlmostEqual(wood_behind(16, 22, 16, 30), 4.07, 2)

    def test_a_footrest_by_its_drop_from_the_seat(self) -> None:
        # Dr 445, S (0, -120, 32), leg (150, -110), 10 and 6: level 421.61. S stands at the middle
        # here, which is level all over, so that only its height counts.
        def end(leg: int) -> dict[str, Any]:
            return {"on": "leg", "leg": leg, "level": {"by": "drop", "value": 445}}

        made = planned(piece(
            placement={"way": "free", "spots": [{"x": 150, "y": 110, "mirror": "both"}]},
            thickness=32, height=600, members=[{"kind": "stretcher", "ends": [end(3), end(4)]}],
        ))  # fmt: skip
        self.assertAlmostEqual(made.members[0].ends[0].down.quantity.value, 421.61, 2)

    def test_a_reamed_taper_sinks_and_lowers(self) -> None:
        # 1 mm at 6 degrees included, lean 14: sinks 9.54, lowers 9.26.
        joint = {"way": "reamed", "socket": 32, "included": 6, "per_turn": 1}
        made = planned(round_stool(14, joint=joint))
        more = made.sockets[0].more
        self.assertAlmostEqual(figure(more, ".sink"), 9.54, 2)
        self.assertAlmostEqual(figure(more, ".lowers"), 9.26, 2)

    def test_the_longest_peg_through_a_batten(self) -> None:
        for slope, expected in ((10, 55.14), (30, 35.07)):
            joint = {
                "way": "battened", "socket": 26, "depth": 25, "batten_width": 60, "batten_thickness": 40,
                "peg": {"diameter": 8, "entry": 14, "angle": slope, "margin": 5},
            }  # fmt: skip
            made = planned(piece(joint=joint, thickness=20))
            self.assertAlmostEqual(figure(made.sockets[0].more, ".peg"), expected, 2)

    def test_marking_out_by_compasses(self) -> None:
        for count, chord in ((3, 225.17), (4, 183.85), (5, 152.82), (6, 130.00)):
            made = planned(round_stool(8, placement={"way": "circle", "count": count, "radius": 130}))
            found = [f for step in made.layout.steps for f in step.figures if f.key == "layout.chord"]
            self.assertAlmostEqual(found[0].quantity.value, chord, 2)
        shape = {"kind": "rounded_triangle", "side": 260, "arc": 300}
        made = planned(piece(outline=shape, placement={"way": "triangle", "side": 180}))
        values = {f.key: f.quantity.value for step in made.layout.steps for f in step.figures}
        self.assertAlmostEqual(values["layout.outline.corner"], 40)
        self.assertAlmostEqual(values["layout.outline.width"], 340)
        self.assertAlmostEqual(values["layout.outline.circle"], 150.11, 2)


class Solids(SimpleTestCase):
    def test_a_half_lap_takes_half_the_crossing_from_each_rail(self) -> None:
        made = starter("crossed")
        floor = floor_under(made.lean, made.height, made.top.thickness)
        rails = [b for b in bodies(made, floor) if b.role == "rail"]
        for rail in rails:
            whole, left = volume(rail.plain), sum(volume(piece) for piece in rail.pieces)
            self.assertAlmostEqual(whole - left, rail.thickness**2 * rail.width / 2, 3)

    def test_every_outline_goes_once_round_its_middle(self) -> None:
        for to in ("round", "oval", "rectangle", "rounded_triangle", "d", "shield", "drawn"):
            made = restate(starter("table"), Restate("outline", to))
            ring = polygon(made.top.outline)
            with self.subTest(to):
                self.assertTrue(ring.is_valid and ring.exterior.is_ccw)
                self.assertGreater(ring.area, 0.5 * 620 * 430 * 0.5)
                self.assertGreater(len(points(made.top.outline)), 3)

    @settings(deadline=None, max_examples=30)
    @given(st.floats(60, 300), st.floats(1, 20), st.floats(-1, 1), st.floats(-1, 1))
    def test_a_hollow_is_never_deeper_than_said_and_never_a_hump(
        self, chord: float, depth: float, x: float, y: float
    ) -> None:
        made = starter("tall")
        document = write_piece(made)
        document["top"]["hollow"] = {"way": "dish", "length": chord, "width": chord, "depth": depth}
        cut = read_piece(document).top.hollow
        taken = hollow_depth(cut, (x * chord, y * chord))
        self.assertGreaterEqual(taken, 0.0)
        self.assertLessEqual(taken, depth + 1e-9)


class Found(SimpleTestCase):
    def codes(self, document: dict[str, Any]) -> set[str]:
        return {finding.code for finding in planned(read_piece(document)).findings}

    def changed(self, start: str, path: str, value: Any) -> dict[str, Any]:
        document = write_piece(starter(start))
        here: Any = document
        *way, last = path.split(".")
        for step in way:
            here = here[int(step)] if step.isdigit() else here[step]
        here[last] = value
        return document

    def test_starting_pieces_are_sound(self) -> None:
        for name in STARTS:
            with self.subTest(name):
                self.assertFalse([f.text for f in planned(starter(name)).findings if f.level == "stop"])

    def test_what_cannot_be_is_found_with_its_number_and_its_mend(self) -> None:
        lonely = write_piece(starter("slab"))["supports"][1:]
        dish = {"way": "dish", "length": 200, "width": 200, "depth": 60}
        for code, document in (
            ("hollow_through", self.changed("tall", "top.hollow", dish)),
            ("too_few_feet", self.changed("slab", "supports", lonely)),
            ("screw_through", self.changed("battened", "supports.0.joint.screw", 80)),
            ("screw_short", self.changed("log_slice", "supports.0.joint.into_top", 89)),
            ("socket_through", self.changed("bench", "members.0.depth", 60)),
            ("boards_narrow", self.changed("plane_frames", "top.boards", [50, 50])),
            ("glue_line", self.changed("bench", "top.boards", [75, 150, 75])),
            ("tenon_through", self.changed("aproned", "supports.0.tenon", 60)),
            ("dowels_meet", self.changed("board_sides", "supports.0.dowels.depth", 30)),
            ("peg_misses", self.changed("slab", "supports.1.joint.peg.entry", 40)),
            ("taper_to_a_point", self.changed("round_three", "supports.0.joint",
                                             {"way": "reamed", "socket": 20, "included": 30})),
        ):  # fmt: skip
            made = planned(read_piece(document))
            with self.subTest(code):
                found = [f for f in made.findings if f.code == code]
                self.assertTrue(found, {f.code for f in made.findings})
                self.assertTrue(found[0].mend and found[0].number.text)

    def test_sockets_of_two_stretchers_that_meet_in_a_leg(self) -> None:
        def on(leg: int, height: float) -> dict[str, Any]:
            return {"on": "leg", "leg": f"l{leg}", "level": {"by": "height", "value": height}}

        for apart, code in ((0, "sockets_meet"), (17.5, "sockets_close"), (60, "")):
            members = [
                {"kind": "stretcher", "ends": [on(1, 150), on(2, 150)]},
                {"kind": "stretcher", "ends": [on(1, 150 + apart), on(3, 150 + apart)]},
            ]
            found = self.codes({**write_piece(starter("round_three")), "members": members})
            self.assertEqual(found & {"sockets_meet", "sockets_close"}, {code} - {""}, apart)

    def test_members_between_legs_that_are_not_there_are_refused(self) -> None:
        ends = [{"on": "leg", "leg": f"l{n}", "level": {"by": "height", "value": 100}} for n in (1, 7)]
        members = [{"kind": "stretcher", "ends": ends}]
        with self.assertRaises(BadInput) as caught:
            read_piece({**write_piece(starter("round_three")), "members": members})
        self.assertEqual(caught.exception.faults[0].field, "members.0.ends.1.leg")
        high = [
            {**end, "leg": f"l{k + 1}", "level": {"by": "height", "value": 900}}
            for k, end in enumerate(ends)
        ]
        with self.assertRaises(CannotBuild):
            planned(read_piece({**write_piece(starter("round_three")),
                                "members": [{"kind": "stretcher", "ends": high}]}))  # fmt: skip

    def test_a_crossed_outline_and_a_slab_leg_under_a_round_top_are_refused(self) -> None:
        corners = [{"x": x, "y": y} for x, y in ((-100, -100), (100, 100), (100, -100), (-100, 100))]
        with self.assertRaises(BadInput):
            read_piece(self.changed("round_three", "top.outline", {"kind": "drawn", "corners": corners}))
        with self.assertRaises(BadInput):
            read_piece(self.changed("slab", "top.outline", {"kind": "round", "diameter": 400}))

    def test_a_mitre_past_every_saws_reach_is_a_finding(self) -> None:
        tools = [t.model_dump() for t in workbench().tools if t.kind == "mitre_saw"]
        tools[0]["scale"]["reach"] = 30
        made = plan(starter("crossed"), Shop.model_validate({"tools": tools}))
        self.assertIn("past_reach", {f.code for f in made.findings})


class Arranged(SimpleTestCase):
    def test_every_support_can_become_every_other_and_still_be_planned(self) -> None:
        kinds = ("staked_legs", "slab_leg", "plane_frames", "mitred_frames", "board_sides", "aproned_legs")
        for name in ("round_three", "bench", "crossed"):
            for kind in kinds:
                for at in (0, 1):
                    made = restate(starter(name), Restate("support", kind, at))
                    with self.subTest(name, kind=kind, at=at):
                        self.assertEqual(made.supports[at].kind, kind)
                        planned(made)

    def test_arrangements_of_members_fit_their_legs(self) -> None:
        for name, to, count in (
            ("round_three", "triangle", 3), ("round_three", "t", 2), ("round_four", "box", 4),
            ("bench", "h", 3), ("bench", "single", 1), ("bench", "none", 0), ("tall", "footrest", 2),
        ):  # fmt: skip
            made = restate(starter(name), Restate("members", to))
            with self.subTest(name, to=to):
                self.assertEqual(len(made.members), count)
                stops = [f.text for f in planned(made).findings if f.level == "stop"]
                self.assertFalse(stops)
        with self.assertRaises(BadInput):
            restate(starter("round_three"), Restate("members", "h"))

    def test_ready_made_shops_have_a_card_for_every_cut(self) -> None:
        for name, tools in ready_shops().items():
            shop = Shop(tools=tools)
            for start in STARTS:
                stations = {card.station for card in plan(starter(start), shop).setups}
                self.assertIn("legs", stations, (name, start))

    def test_sticks_measured_one_by_one_the_shortest_rules(self) -> None:
        leg = {"at_top": 40, "at_foot": 30, "spare": 1, "practice": 1,
               "sticks": [{"length": 500, "at_foot": 30}, {"length": 520, "at_foot": 31}]}  # fmt: skip
        batch = planned(round_stool(12, leg=leg)).batches[0]
        self.assertEqual(batch.make.quantity.value, 5)
        assert batch.shortest is not None
        apart = batch.cut_off[1].quantity.value - batch.cut_off[0].quantity.value
        self.assertAlmostEqual(apart, 20)
        self.assertAlmostEqual(batch.shortest.quantity.value, batch.cut_off[0].quantity.value)


class LooseJoints(SimpleTestCase):
    """Dowels and loose tenons run square to the end they enter, whatever that end's slope is."""

    def slopes(self, made: Piece, operation: str) -> dict[str, float]:
        found = {}
        for card in planned(made).setups:
            if card.operation == operation:
                slope = next(f for f in card.jig if f.key.endswith((".slope", ".fence", ".block")))
                found[card.title] = slope.quantity.value
        return found

    def test_a_mitres_slots_are_square_to_the_mitre_not_to_the_splay(self) -> None:
        # Equal widths splayed 12: half of 102 from the length, so 39 off square.
        found = self.slopes(starter("crossed"), "slot")
        self.assertEqual([round(v, 4) for v in found.values()], [39.0])
        document = write_piece(starter("crossed"))
        document["supports"][0].update(rail=60, leg=45, splay=15)
        # 63.05 and 41.95 from each one's own length (independent values).
        values = sorted(90.0 - v for v in self.slopes(read_piece(document), "slot").values())
        self.assertAlmostEqual(values[0], 41.95, 2)
        self.assertAlmostEqual(values[1], 63.05, 2)

    def test_slots_stand_on_their_end_along_a_fence_that_leans_only_where_the_cut_tilts(self) -> None:
        # A mitre drawn on the face leans along a plumb fence; one through the thickness over a leaning one.
        def told(made: Piece) -> list[tuple[float, float, float]]:
            found = []
            for card in planned(made).setups:
                for do in card.does:
                    if isinstance(do, Slots):
                        found.append(
                            (
                                round(do.back.value, 3) if do.back else 0.0,
                                round(do.along.value, 3) if do.along else 0.0,
                                do.off.value,
                            )
                        )
            return found

        crossed = starter("crossed")
        thick = write_piece(crossed)["supports"][0]["thickness"]
        self.assertEqual(told(crossed), [(0.0, 39.0, thick / 2)])
        document = write_piece(starter("slab"))
        document["supports"][0]["dowels"] = {
            "way": "loose_tenon", "size": 8, "width": 22, "depth": 16, "gap": 1,
        }  # fmt: skip
        (slab,) = told(read_piece(document))
        self.assertEqual(slab[:2], (41.0, 0.0))
        self.assertAlmostEqual(slab[2], document["top"]["thickness"] / 2 / math.cos(math.radians(41)))
        cards = [c for c in planned(read_piece(document)).setups if c.operation == "slot"]
        self.assertIn("its inner face on the fence", " ".join(cards[0].which_way))
        self.assertIn("its underside on the fence", " ".join(cards[0].which_way))

    def test_a_slabs_dowels_are_square_to_its_bevel(self) -> None:
        self.assertEqual([round(v, 4) for v in self.slopes(starter("slab"), "dowel").values()], [41.0])

    def test_a_raked_frames_cross_pieces_slope_by_less_than_the_splay(self) -> None:
        made = starter("plane_frames")
        splay, rake = math.radians(7), math.radians(9)
        expected = math.degrees(math.atan(math.tan(splay) * math.cos(rake)))
        values = sorted({round(value, 6) for value in self.slopes(made, "dowel").values()})
        self.assertEqual(len(values), 2)
        self.assertAlmostEqual(values[0], expected, 3)
        self.assertAlmostEqual(values[1], 9.0, 3)

    def test_board_rails_slope_by_the_splay(self) -> None:
        # Rails of two widths have their tenons in other places: a card for each.
        found = self.slopes(starter("board_sides"), "slot")
        self.assertEqual([round(v, 4) for v in found.values()], [10, 10])

    def test_parts_of_another_width_have_places_of_their_own(self) -> None:
        # Two dowels stand a quarter of each width in from its edges, whatever the widest of them is.
        document = write_piece(starter("plane_frames"))
        made = read_piece(document)
        # Their edges are bevelled: halfway through the thickness they are as deep as chosen.
        deep = [cross["depth"] for cross in document["supports"][0]["cross"]]
        splay, rake = math.radians(7), math.radians(9)
        mitre = math.atan(math.tan(splay) * math.cos(rake))
        told = {}
        for card in planned(made).setups:
            for do in card.does if card.operation == "dowel" else ():
                if isinstance(do, Spots) and any("cross" in key for key in card.parts):
                    told[card.parts] = [mm.value for mm in do.at]
        self.assertEqual(len(told), 2)
        for parts, places in told.items():
            across = deep["cross.2" in parts[0]] / math.cos(mitre)
            for found, wanted in zip(sorted(places), (across / 4, 3 * across / 4), strict=True):
                self.assertAlmostEqual(found, wanted, 3)

    def test_a_cutter_of_another_size_is_said_with_what_to_do(self) -> None:
        tools = [
            t.model_copy(update={"cutter": 6.0}) for t in workbench().tools if t.kind == "router_table"
        ]
        made = plan(starter("board_sides"), Shop(tools=tuple(tools)))
        card = next(c for c in made.setups if c.operation == "slot")
        self.assertFalse(card.in_reach)
        self.assertIn("change one of them", card.reach_note)


class PutInWhole(SimpleTestCase):
    """What the maker asks for with one word comes sized for the piece at hand."""

    def test_a_finer_outline_keeps_its_shape_straight_or_smooth(self) -> None:
        for smooth in (False, True):
            document = write_piece(starter("log_slice"))
            document["top"]["outline"]["smooth"] = smooth
            before = read_piece(document)
            after = restate(before, Restate("corners", "finer"))
            old, new = polygon(before.top.outline), polygon(after.top.outline)
            with self.subTest(smooth=smooth):
                self.assertAlmostEqual(new.area / old.area, 1.0, delta=0.005 if smooth else 1e-9)
        with self.assertRaises(BadInput):
            restate(starter("table"), Restate("corners", "finer"))

    def test_another_cross_piece_stands_below_the_last(self) -> None:
        for name, field in (("plane_frames", "cross"), ("board_sides", "rails")):
            made = restate(starter(name), Restate("cross_piece", "more"))
            drops = [piece["drop"] for piece in write_piece(made)["supports"][0][field]]
            self.assertEqual(drops[-1], drops[-2] + 100)
        with self.assertRaises(BadInput):
            restate(starter("table"), Restate("cross_piece", "more"))

    def test_a_peg_stays_inside_and_crosses_its_tenon(self) -> None:
        for name, at in (("battened", 0), ("slab", 1), ("bench", 0)):
            without = restate(starter(name), Restate("peg", "none", at))
            made = restate(without, Restate("peg", "peg", at))
            codes = {f.code for f in planned(made).findings}
            with self.subTest(name):
                self.assertFalse(codes & {"peg_short", "peg_misses"})
        with self.assertRaises(BadInput):
            restate(starter("round_three"), Restate("peg", "peg"))

    def test_a_belly_is_thicker_than_both_ends_and_tapers_to_both(self) -> None:
        made = planned(restate(starter("round_three"), Restate("belly", "belly")))
        tapers = [f.key for f in made.parts[0].making if ".taper." in f.key]
        self.assertEqual([key.rsplit(".", 1)[1] for key in tapers], ["top", "foot"])
        plain = planned(restate(starter("round_three"), Restate("belly", "none")))
        self.assertEqual(len([f for f in plain.parts[0].making if ".taper." in f.key]), 1)


class Words(SimpleTestCase):
    def test_a_cut_says_which_side_comes_out_longer_and_the_solid_agrees(self) -> None:
        for name in ("plane_frames", "aproned", "crossed", "board_sides", "slab"):
            made = planned(starter(name))
            for part, body in zip(made.sticks, made.stance.bodies, strict=True):
                for end, sign in ((part.start, -1), (part.finish, 1)):
                    reach = {}
                    for (i, k), (y, z) in body.arrises().items():
                        reach[i, k] = body.at(y, z)[0 if sign < 0 else 1] * sign
                    with self.subTest(name, part=part.name, end=sign):
                        if abs(end.mitre) > 1e-6 and not body.rips:
                            first = max(v for (i, _), v in reach.items() if i > 0)
                            other = max(v for (i, _), v in reach.items() if i < 0)
                            self.assertEqual(first > other, end.mitre > 0)
                        if abs(end.tilt) > 1e-6 and not body.rips:
                            face = max(v for (_, k), v in reach.items() if k > 0)
                            back = max(v for (_, k), v in reach.items() if k < 0)
                            self.assertEqual(face > back, end.tilt > 0)

    def test_one_part_is_named_and_several_are_counted(self) -> None:
        titles = {card.title for card in planned(starter("aproned")).setups}
        self.assertIn("Cut both ends of the left apron and the right apron", titles)
        self.assertIn("Cut both ends of 4 legs", titles)
        self.assertIn("Mitre the top, its left end", {c.title for c in planned(starter("slab")).setups})
