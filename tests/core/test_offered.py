"""What a page offers is the core's to say: directions, ways of measuring, what something begins as."""

from __future__ import annotations

from itertools import pairwise
from typing import Any

from django.test import SimpleTestCase

from splay.errors import BadInput
from splay.piece import Free, Piece, Resultant, StakedLegs, read_piece, write_piece
from splay.piece.starters import starter
from splay.plan import plan
from splay.shop import workbench
from splay.stance.restate import Restate, restate
from splay.timber.stock import read_stock


def staked(piece: Piece) -> StakedLegs:
    return next(support for _, support in piece.staked())


def changed(name: str, **levelling: Any) -> Piece:
    document = write_piece(starter(name))
    document["levelling"] |= levelling
    return read_piece(document)


class Looks(SimpleTestCase):
    def test_along_each_sightline_once_and_over_a_corner_where_there_are_none(self) -> None:
        # Legs of a rectangle lean four ways; those of a three-legged stool three.
        for name, many in (("bench", 4), ("round_three", 3)):
            found = plan(starter(name), workbench()).looks
            self.assertEqual(len({round(one.along) for one in found}), many)
            self.assertEqual(found[0].title, "along leg 1's sightline")
        corner = plan(starter("board_sides"), workbench()).looks
        self.assertEqual(
            [(one.along, one.title) for one in corner], [(315.0, "from the front right corner")]
        )

    def test_no_more_than_four_of_many(self) -> None:
        document = write_piece(starter("round_three"))
        document["supports"][0]["placement"] |= {"count": 7, "legs": []}
        self.assertEqual(len(plan(read_piece(document), workbench()).looks), 4)


class Measured(SimpleTestCase):
    def test_two_sticks_are_offered_where_there_is_a_fourth_foot_alone(self) -> None:
        for name, sighted in (("round_four", True), ("round_three", False)):
            [now] = plan(starter(name), workbench()).level
            self.assertEqual("sighted" in now.ways, sighted)
            self.assertLessEqual({"bench", "standing", "shims", "seat"}, set(now.ways))

    def test_how_a_pass_was_measured_is_said_in_two_words(self) -> None:
        made = changed("round_four", passes=[{"way": "shims"}])
        self.assertEqual(plan(made, workbench()).level[0].by, "shims")


class Angles(SimpleTestCase):
    def test_which_angle_serves_a_leg_is_said_of_each(self) -> None:
        four = starter("round_four")
        for scope, served in (("alike", {0}), ("each", {0, 1, 2, 3})):
            made = restate(four, Restate("scope", scope))
            found = plan(made, workbench()).legs
            self.assertEqual({leg.angle for leg in found}, served)
            self.assertEqual(len(found), 4)
        pairs = plan(restate(four, Restate("scope", "pairs")), workbench()).legs
        # Mirrored legs share one: those in front, those behind.
        self.assertEqual(len({leg.angle for leg in pairs}), 2)
        document = write_piece(restate(four, Restate("scope", "each")))
        del document["supports"][0]["angles"][2:]
        last = plan(read_piece(document), workbench()).legs
        self.assertEqual([leg.angle for leg in last], [0, 1, 1, 1])

    def test_a_sightline_begins_straight_out_on_a_circle_else_off_the_left_right_line(self) -> None:
        for name, line in (("round_three", "out"), ("bench", "side")):
            made = staked(restate(starter(name), Restate("angle", "resultant", leg=1))).angles[0]
            assert isinstance(made, Resultant)
            self.assertEqual(made.measured_from, line)


class OneMore(SimpleTestCase):
    def test_a_leg_put_down_stands_on_no_other_and_can_be_planned(self) -> None:
        made = restate(starter("round_three"), Restate("placement", "free"))
        for more in range(1, 4):
            made = restate(made, Restate("spot", "more"), f"salt{more}")
            placement = staked(made).placement
            assert isinstance(placement, Free)
            places = [(spot.x, spot.y) for spot in placement.spots]
            self.assertEqual(len(set(places)), len(places))
            middle = sorted(y for x, y in places if abs(x) < 60)
            self.assertGreaterEqual(min(b - a for a, b in pairwise(middle)), 60.0)
        self.assertEqual(len(plan(made, workbench()).legs), 6)
        with self.assertRaises(BadInput):
            restate(starter("round_three"), Restate("spot", "more"))

    def test_a_rail_more_under_the_lower_tread_is_like_the_last(self) -> None:
        made = restate(starter("board_sides"), Restate("lower_tread", "on"))
        more = restate(made, Restate("lower_rail", "more"))
        rails = [
            support.lower.rails
            for support in more.supports
            if support.kind == "board_sides" and support.lower
        ]
        self.assertEqual(len(rails[0]), 3)
        self.assertEqual(rails[0][2], rails[0][1])
        document = write_piece(made)
        document["supports"][0]["lower"]["rails"] = []
        alone = restate(read_piece(document), Restate("lower_rail", "more"))
        self.assertEqual(len(write_piece(alone)["supports"][0]["lower"]["rails"]), 1)
        for without in (starter("board_sides"), starter("round_four")):
            with self.assertRaises(BadInput):
                restate(without, Restate("lower_rail", "more"))


class BareNumbers(SimpleTestCase):
    def test_percent_and_money_are_read_as_they_are_typed(self) -> None:
        item = {
            "kind": "board", "id": "b", "name": "Board", "species": "ash, white",
            "length": 2000, "width": 200, "thickness": 30,
        }  # fmt: skip
        for typed, moisture in (("9,5 %", 9.5), ("12", 12.0), (" 8.25% ", 8.25), (10, 10.0)):
            made = read_stock({**item, "moisture": typed, "cost": "38,50"})
            self.assertEqual((made.moisture, made.cost), (moisture, 38.5))
        for wrong in ("damp", "9 5", "%", "nan"):
            with self.assertRaises(BadInput):
                read_stock({**item, "moisture": wrong})

    def test_a_flaw_begins_at_the_end_where_nothing_is_said(self) -> None:
        item = {
            "kind": "board", "id": "b", "name": "Board", "species": "ash, white",
            "length": 2000, "width": 200, "thickness": 30, "flaws": [{"kind": "split", "end": "80"}],
        }  # fmt: skip
        made = read_stock(item)
        assert made.kind == "board"
        self.assertEqual((made.flaws[0].start, made.flaws[0].end, made.flaws[0].low), (0.0, 80.0, 0.0))
