"""What the shop owns shows in the plan: bits, kerfs, pins and cradles; edges as they are shaped."""

from __future__ import annotations

import math

from django.test import SimpleTestCase

from splay.piece import read_piece, write_piece
from splay.piece.starters import STARTS, starter
from splay.plan import Plan, plan
from splay.shop import OwnedBit, Shop, TiltingTable, read_shop, usual_spacers, workbench
from splay.views.edges import profile, rings_of
from tests.core.make import piece, planned, round_stool


def with_bits(*bits: tuple[float, float]) -> Shop:
    listed = tuple(OwnedBit(diameter=d, centre_spur=spur) for d, spur in bits)
    return workbench().model_copy(update={"bits": listed})


def codes(made: Plan) -> list[str]:
    return [finding.code for finding in made.findings]


class Bits(SimpleTestCase):
    def test_a_hole_without_its_bit_is_told_with_the_nearest_there_is(self) -> None:
        made = plan(piece(), with_bits((24.0, 0.0), (28.0, 0.0)))
        found = next(f for f in made.findings if f.code == "no_bit")
        self.assertEqual((found.number.value, found.limit and found.limit.value), (25.4, 24.0))
        self.assertIn("24 mm", found.mend)
        self.assertNotIn("no_bit", codes(plan(piece(), with_bits((25.4, 0.0)))))

    def test_a_drawer_that_lists_nothing_is_not_judged(self) -> None:
        for name in STARTS:
            self.assertNotIn("no_bit", codes(planned(starter(name))), name)

    def test_a_pilot_may_be_bored_with_anything_under_it(self) -> None:
        joint = {"way": "dowel_screw", "core": 6.0, "length": 60, "into_top": 20}
        self.assertNotIn("no_bit", codes(plan(piece(joint=joint), with_bits((4.0, 0.0)))))
        self.assertIn("no_bit", codes(plan(piece(joint=joint), with_bits((8.0, 0.0)))))

    def test_the_bits_own_lead_point_decides_what_is_left_above(self) -> None:
        blind = piece(joint={"way": "blind", "socket": 25.4, "depth": 28})
        left = [
            plan(blind, with_bits((25.4, spur))).sockets[0].left_above.quantity.value  # type: ignore[union-attr]
            for spur in (0.0, 12.0)
        ]
        self.assertGreater(left[0], left[1])

    def test_spacers_and_bits_go_there_and_back(self) -> None:
        shop = with_bits((12.0, 2.0)).model_copy(update={"spacers": usual_spacers()})
        self.assertEqual(read_shop(shop.model_dump(mode="json")), shop)


class Saws(SimpleTestCase):
    def test_stock_for_all_parts_takes_a_kerf_for_each(self) -> None:
        made = planned(starter("plane_frames"))
        saws = (c for c in made.setups if (c.operation, c.way) == ("crosscut", "table_saw"))
        card = next(c for c in saws if len(c.parts) > 1)
        stock = next(f for f in card.checks if f.key.endswith(".stock"))
        long = max(p.overall.quantity.value for p in made.sticks if p.key in card.parts)
        self.assertAlmostEqual(stock.quantity.value, len(card.parts) * (long + 3.0), 9)


class Presses(SimpleTestCase):
    def jigs(self, made: Plan) -> dict[str, float]:
        card = next(c for c in made.setups if c.operation == "bore" and c.way == "tilting_table")
        return {f.key.rsplit(".", 1)[1]: f.quantity.value for f in card.jig}

    def test_a_pin_stands_nearer_the_bit_by_what_the_hole_runs_in_under_the_seat(self) -> None:
        # Check value: R 110, t 42, rho 13 from the underside: 100.30; from the upper face R itself.
        choices = {"placement": {"way": "circle", "count": 3, "radius": 110}, "thickness": 42}
        self.assertAlmostEqual(self.jigs(planned(round_stool(13, **choices)))["pin"], 100.30, 2)
        above = {"way": "through", "socket": 26, "bored_from": "upper"}
        made = planned(round_stool(13, joint=above, **choices))
        self.assertAlmostEqual(self.jigs(made)["pin"], 110.0, 9)

    def test_legs_whose_sightlines_are_not_alike_to_their_radius_have_no_pin(self) -> None:
        # Splay and rake alike on a circle: 13 and 6 at 45 degrees lie 20.52 off the radius, then -20.52.
        turning = piece(
            outline={"kind": "round", "diameter": 360},
            placement={"way": "circle", "count": 4, "radius": 110, "first": 45},
            angles=[{"by": "splay_rake", "splay": 13, "rake": 6}],
        )
        self.assertNotIn("pin", self.jigs(planned(turning)))

    def test_in_a_cradle_the_round_top_touches_both_stops(self) -> None:
        """The corner lies r sqrt 2 downhill of the middle, which the pin holds."""
        jigs = self.jigs(planned(round_stool(14)))
        middle_to_corner = jigs["cradle"] - jigs["pin"]
        to_stop = middle_to_corner * math.sin(math.radians(45))
        self.assertAlmostEqual(to_stop, 180.0, 9)
        joint = {"way": "through", "socket": 26, "bored_from": "upper"}
        above = self.jigs(planned(round_stool(14, joint=joint)))["cradle"]
        self.assertAlmostEqual((above + 80.0) * math.sin(math.radians(45)), 180.0, 9)

    def test_legs_set_by_insets_have_no_pin(self) -> None:
        self.assertNotIn("pin", self.jigs(planned(piece())))

    def test_a_round_leg_lies_in_a_v_on_the_press(self) -> None:
        made = planned(starter("bench"))
        cards = [c for c in made.setups if c.operation == "bore_member" and c.legs]
        card = next(c for c in cards if c.way == TiltingTable(name="x").kind)
        vee = next(f for f in card.jig if f.key.endswith(".vee"))
        self.assertLess(vee.quantity.value, 60)
        self.assertGreater(vee.quantity.value, 15)


class RoundOvers(SimpleTestCase):
    def test_the_bearing_keeps_its_flat_on_the_narrowest_face(self) -> None:
        for section, corners in (("square", 4), ("octagon", 8)):
            leg = {"section": section, "at_top": 40, "at_foot": 32}
            made = planned(piece(leg=leg)).parts[0]
            limit = next(f for f in made.making if f.key.endswith(".round_over")).quantity.value
            # Independent: what an arc tangent to both flats takes of each, from its own geometry.
            takes = limit * math.tan(math.radians(180 / corners))
            face = 32 * math.tan(math.radians(180 / corners))
            with self.subTest(section):
                self.assertAlmostEqual(face - 2 * takes, 3.0, 9)

    def test_a_shaped_edge_takes_its_room_in_the_drawing(self) -> None:
        document = write_piece(round_stool(12))
        document["top"]["upper_edge"] = {"way": "round_over", "size": 8}
        document["top"]["lower_edge"] = {"way": "chamfer", "size": 10, "angle": 30}
        made = read_piece(document)
        rings = rings_of(made)
        radii = [float((ring[:, 0] ** 2 + ring[:, 1] ** 2).max() ** 0.5) for ring in rings]
        levels = [float(ring[0, 2]) for ring in rings]
        self.assertAlmostEqual(radii[0], 170, delta=0.05)
        self.assertAlmostEqual(radii[-1], 172, delta=0.05)
        self.assertAlmostEqual(max(radii), 180, delta=0.05)
        self.assertAlmostEqual(levels[1], 10 * math.tan(math.radians(30)), 9)
        self.assertEqual(levels, sorted(levels))
        # Every point of the round-over lies its radius from the round-over's centre.
        for ring, level in list(zip(rings, levels, strict=True))[2:]:
            radius = float((ring[:, 0] ** 2 + ring[:, 1] ** 2).max() ** 0.5)
            self.assertAlmostEqual(math.hypot(radius - 172, level - 30), 8, delta=0.05)

    def test_two_shaped_edges_never_cross(self) -> None:
        top = write_piece(round_stool(12))["top"]
        edge = type(round_stool(12).top.upper_edge)(way="round_over", size=60)
        self.assertLessEqual(max(down for _, down in profile(edge, top["thickness"])), 19.0)
