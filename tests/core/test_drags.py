"""What drags change: every handle that is drawn follows the hand and nothing else moves with it."""

from __future__ import annotations

import math
from typing import ClassVar

from django.test import SimpleTestCase
from hypothesis import given, settings
from hypothesis import strategies as st

from splay.draw import Station, draw
from splay.errors import BadInput, CannotBuild
from splay.piece import Piece, read_piece, write_piece
from splay.piece.starters import STARTS, starter
from splay.shop import workbench
from splay.stance.members import members
from splay.stance.moves import Move, move
from splay.stance.staked import stand
from splay.views.shapes import Handle
from tests.core.make import piece, planned

SHOP = workbench()
_VIEWS = ("front", "side", "plan")


def handles(made: Piece, station: Station = "stance") -> dict[tuple[str, str, int], Handle]:
    """Every handle of a piece's drawings by view, what it moves and which."""
    drawings = draw(made, SHOP, planned(made), station)
    return {
        (view.name, handle.moves, handle.leg): handle
        for view in drawings.piece
        if view.name in _VIEWS
        for handle in view.handles
    }


def dragged(made: Piece, view: str, handle: Handle, by: tuple[float, float]) -> tuple[Piece, Move]:
    """The piece after one handle was dragged by so much, and where to."""
    assert view in ("front", "side", "plan")
    to = (handle.at[0] + by[0], handle.at[1] + by[1])
    wanted = Move(handle.moves, view, to, handle.leg)  # type: ignore[arg-type]
    return move(made, wanted, 0.5), wanted


class EveryHandle(SimpleTestCase):
    # What only goes one way: the seat up and down, a frame's foot in and out.
    ONE_WAY: ClassVar = {"height": 1, "member": 1, "frame": 0}

    def test_it_comes_to_where_it_was_dragged(self) -> None:
        for name in STARTS:
            made = starter(name)
            for (view, moves, leg), handle in handles(made).items():
                if moves == "lean":
                    continue
                # Outward, or upward: that much is possible for every one of them.
                out = math.copysign(8.0, handle.at[0]) if moves != "socket" else 4.0
                after, wanted = dragged(made, view, handle, (out, 6.0))
                where = handles(after)[view, moves, leg].at
                axis = self.ONE_WAY.get(moves)
                if moves == "foot" and view != "plan":
                    axis = 0
                gaps = [abs(where[k] - wanted.to[k]) for k in ((0, 1) if axis is None else (axis,))]
                with self.subTest(name, view=view, moves=moves, leg=leg):
                    # Lengths settle on half a millimetre, angles on a tenth of a degree.
                    self.assertLess(max(gaps), 2.5)

    def test_the_seats_edge_leans_it_and_back_again(self) -> None:
        made = starter("bench")
        handle = handles(made)["side", "lean", 0]
        leaned, _ = dragged(made, "side", handle, (0.0, -12.0))
        self.assertEqual(leaned.lean.toward, 90.0)
        self.assertAlmostEqual(leaned.lean.fall, math.degrees(math.atan2(12, 150)), delta=0.6)
        level, _ = dragged(leaned, "side", handles(leaned)["side", "lean", 0], (0.0, 12.0))
        self.assertEqual(level.lean.fall, 0.0)

    def test_put_down_where_it_was_it_changes_nothing(self) -> None:
        for name in ("round_three", "bench", "slab", "crossed", "log_slice"):
            made = starter(name)
            for (view, moves, leg), handle in handles(made).items():
                after, _ = dragged(made, view, handle, (0.0, 0.0))
                for old, new in zip(stand(made).legs, stand(after).legs, strict=True):
                    with self.subTest(name, view=view, moves=moves, leg=leg):
                        # Half a step of a tenth of a degree, at the foot.
                        self.assertLess(math.dist(old.foot_floor, new.foot_floor), 0.6)

    def test_handles_that_are_not_there_are_refused(self) -> None:
        made = starter("bench")
        for moves, leg in (("member", 9), ("frame", 0), ("corner", 1), ("foot", 7), ("socket", 0)):
            with self.assertRaises(BadInput, msg=moves) as caught:
                move(made, Move(moves, "plan", (10.0, 10.0), leg), 0.5)  # type: ignore[arg-type]
            self.assertTrue(caught.exception.faults[0].do)


class Members(SimpleTestCase):
    def test_a_stretcher_rises_with_the_hand_however_its_level_is_said(self) -> None:
        for by, value in (("height", 170.0), ("drop", 280.0), ("along", 250.0)):
            document = write_piece(starter("bench"))
            for end in document["members"][0]["ends"]:
                end["level"] = {"by": by, "value": value}
            made = read_piece(document)
            handle = handles(made)["side", "member", 1]
            after, _ = dragged(made, "side", handle, (0.0, 25.0))
            levels = [e.level for e in after.members[0].ends]  # type: ignore[union-attr]
            with self.subTest(by):
                self.assertEqual({level.by for level in levels}, {by})
                rise = self.middle(after, 1) - self.middle(made, 1)
                # Along a leg that leans the same figure is a little less in height.
                self.assertAlmostEqual(rise, 25.0, delta=1.5)

    @staticmethod
    def middle(made: Piece, number: int) -> float:
        stance = stand(made)
        run = next(r for r in members(made, stance)[0] if r.number == number)
        return sum(stance.floor.to_floor(end.at)[2] for end in run.ends) / 2

    def test_a_rope_follows_too(self) -> None:
        made = starter("tall")
        after, _ = dragged(made, "front", handles(made)["front", "member", 1], (0.0, -30.0))
        self.assertAlmostEqual(after.members[0].level.value, 470.0, delta=0.6)  # type: ignore[union-attr]

    def test_what_hangs_between_two_stretchers_has_no_level_of_its_own(self) -> None:
        made = starter("bench")
        after = move(made, Move("member", "front", (0.0, 300.0), 3), 0.5)
        self.assertEqual(after, made)


class Frames(SimpleTestCase):
    def test_a_frames_foot_changes_splay_in_front_and_rake_at_the_side(self) -> None:
        for name, view, field in (
            ("plane_frames", "front", "splay"), ("plane_frames", "side", "rake"),
            ("aproned", "front", "splay"), ("aproned", "side", "rake"),
            ("crossed", "front", "splay"), ("board_sides", "front", "splay"), ("slab", "front", "splay"),
        ):  # fmt: skip
            made = starter(name)
            handle = handles(made)[view, "frame", 0]
            out = math.copysign(15.0, handle.at[0])
            wider, _ = dragged(made, view, handle, (out, 0.0))
            narrower, _ = dragged(made, view, handle, (-out, 0.0))
            old = getattr(made.supports[0], field)
            with self.subTest(name, field=field):
                self.assertGreater(getattr(wider.supports[0], field), old)
                self.assertLess(getattr(narrower.supports[0], field), old)

    def test_it_leans_neither_inward_nor_past_what_stands(self) -> None:
        made = starter("crossed")
        handle = handles(made)["front", "frame", 0]
        far, _ = dragged(made, "front", handle, (math.copysign(4000.0, handle.at[0]), 0.0))
        self.assertEqual(far.supports[0].splay, 45.0)  # type: ignore[union-attr]
        near, _ = dragged(made, "front", handle, (-math.copysign(150.0, handle.at[0]), 0.0))
        self.assertEqual(near.supports[0].splay, 0.0)  # type: ignore[union-attr]


class Corners(SimpleTestCase):
    def test_a_corner_follows_on_a_leaning_seat_too(self) -> None:
        for fall in (0, 4):
            made = read_piece({**write_piece(starter("log_slice")), "lean": {"fall": fall}})
            for (view, moves, leg), handle in handles(made).items():
                if moves != "corner":
                    continue
                after, wanted = dragged(made, view, handle, (5.0, -3.0))
                where = handles(after)[view, moves, leg].at
                self.assertLess(math.dist(where, wanted.to), 0.8, (fall, leg))

    def test_an_outline_that_would_cross_itself_is_refused_with_what_to_do(self) -> None:
        made = starter("log_slice")
        with self.assertRaises(BadInput) as caught:
            move(made, Move("corner", "plan", (600.0, -500.0), 4), 0.5)
        fault = caught.exception.faults[0]
        self.assertEqual(fault.field, "top.outline.corners")
        self.assertIn("corners", fault.do)


class Feet(SimpleTestCase):
    @settings(deadline=None, max_examples=40)
    @given(st.floats(-40, 40), st.floats(-40, 40), st.sampled_from(["front", "side", "plan"]))
    def test_only_what_shares_its_angle_moves_along(self, dx: float, dy: float, view: str) -> None:
        spec = [{"by": "splay_rake", "splay": 10, "rake": 6}] * 4
        made = piece(angles=spec, scope="each")
        handle = handles(made)[view, "foot", 2]
        after, _ = dragged(made, view, handle, (dx, dy))
        for old, new in zip(stand(made).legs, stand(after).legs, strict=True):
            if old.number != 2:
                self.assertEqual(old.foot_floor, new.foot_floor)

    def test_a_mirrored_partner_mirrors(self) -> None:
        made = starter("bench")
        handle = handles(made)["plan", "foot", 3]
        after, _ = dragged(made, "plan", handle, (15.0, 10.0))
        feet = [leg.foot_floor for leg in stand(after).legs]
        for foot in feet:
            self.assertAlmostEqual(abs(foot[0]), abs(feet[0][0]), 6)
            self.assertAlmostEqual(abs(foot[1]), abs(feet[0][1]), 6)

    def test_further_than_a_leg_can_lean_says_to_let_it_stand_nearer(self) -> None:
        with self.assertRaises(CannotBuild) as caught:
            move(starter("bench"), Move("foot", "plan", (4000.0, 0.0), 2), 0.5)
        self.assertIn("nearer", caught.exception.mend)


class Layouts(SimpleTestCase):
    @settings(deadline=None, max_examples=60)
    @given(st.floats(-60, 90), st.floats(-60, 90), st.sampled_from([0.0, 4.0]), st.integers(1, 4))
    def test_a_dragged_foot_stands_where_it_was_let_go(
        self, dx: float, dy: float, fall: float, leg: int
    ) -> None:
        for angles, placement in (
            ([{"by": "splay_rake", "splay": 10, "rake": 6}], None),
            (
                [{"by": "resultant", "resultant": 12}],
                {"way": "circle", "count": 4, "radius": 120, "first": 45},
            ),
            ([{"by": "resultant", "resultant": 12, "sightline": 30, "measured_from": "side"}], None),
            ([{"by": "resultant", "resultant": 12, "sightline": 30, "measured_from": "centre"}], None),
            ([{"by": "resultant", "resultant": 12, "sightline": 30, "measured_from": "bearing"}], None),
        ):
            made = piece(angles=angles, placement=placement, lean={"fall": fall})
            at = stand(made).legs[leg - 1].foot_floor
            to = (at[0] + dx, at[1] + dy)
            after = stand(move(made, Move("foot", "plan", to, leg), 0.5)).legs[leg - 1].foot_floor
            # Angles settle on a tenth of a degree: a foot within about a millimetre and a half.
            self.assertLess(math.dist(after[:2], to), 2.2, angles)

    def test_a_dragged_footprint_stays_a_footprint(self) -> None:
        made = piece(angles=[{"by": "footprint", "width": 460, "depth": 340}])
        at = stand(made).legs[2].foot_floor
        after = move(made, Move("foot", "plan", (at[0] + 20, at[1]), 3), 0.5)
        spec = write_piece(after)["supports"][0]["angles"][0]
        self.assertEqual(spec["by"], "footprint")
        self.assertAlmostEqual(spec["width"], 500, delta=2)
        self.assertAlmostEqual(stand(after).legs[2].foot_floor[0], at[0] + 20, delta=1)

    def test_a_dragged_socket_takes_its_layout_along(self) -> None:
        for placement in (
            {"way": "insets", "from_ends": 50, "from_edges": 40},
            {"way": "circle", "count": 4, "radius": 120, "first": 45},
            {"way": "triangle", "side": 180},
            {"way": "free", "spots": [{"x": 120, "y": 80, "mirror": "both"}]},
        ):
            made = piece(placement=placement)
            at = stand(made).legs[1].place.at
            to = (at[0] * 0.9, at[1] * 0.9)
            after = stand(move(made, Move("socket", "plan", to, 2), 0.5)).legs[1].place.at
            self.assertLess(math.dist(after, to), 3, placement["way"])

    def test_height_and_lean_follow_their_handles(self) -> None:
        made = move(piece(), Move("height", "front", (0.0, 455.2)), 0.5)
        self.assertEqual(made.height, 455.0)
        top = stand(piece(lean={"fall": 5})).floor.to_floor((0.0, 150.0, 38.0))
        leaned = move(piece(), Move("lean", "side", (top[1], top[2])), 0.5)
        self.assertEqual((leaned.lean.fall, leaned.lean.toward), (5.0, 90.0))
        other = move(piece(), Move("lean", "side", (150.0, 460.0)), 0.5)
        self.assertEqual(other.lean.toward, 270.0)

    def test_a_drag_too_far_is_refused(self) -> None:
        with self.assertRaises(CannotBuild):
            move(piece(), Move("foot", "plan", (3000.0, 0.0), 2), 0.5)
        with self.assertRaises(BadInput):
            move(piece(), Move("foot", "plan", (300.0, 0.0), 9), 0.5)
        with self.assertRaises(BadInput):
            move(piece(), Move("height", "front", (0.0, -40.0)), 0.5)


class Sizes(SimpleTestCase):
    """What is sawn of squared parts is taken hold of where it shows."""

    SHAPED: ClassVar = {
        "plane_frames": {"taper": {"sides": "inside", "begins": 60, "foot": 22}},
        "aproned": {"arch": 25, "taper": {"sides": "all", "begins": 80, "foot": 24}},
        "crossed": {"taper": {"sides": "both", "foot": 34}},
        "board_sides": {"taper": {"off": 10}},
    }

    def shaped(self, name: str) -> Piece:
        document = write_piece(starter(name))
        document["supports"][0] |= self.SHAPED[name]
        if name == "plane_frames":
            document["supports"][0]["cross"][0]["arc"] = {"rise": 30}
        return read_piece(document)

    def sizes(self, made: Piece) -> dict[str, float]:
        support = write_piece(made)["supports"][0]
        found = {f"taper.{k}": v for k, v in (support["taper"] or {}).items() if isinstance(v, float)}
        if support.get("arch"):
            found["arch"] = support["arch"]
        for cross in support.get("cross", ()):
            if cross["arc"]:
                found["cross.0.arc.rise"] = cross["arc"]["rise"]
        return found

    def test_each_size_is_there_once_in_a_view_and_follows_the_hand(self) -> None:
        taken: dict[str, set[str]] = {}
        for name in self.SHAPED:
            made = self.shaped(name)
            before = self.sizes(made)
            found = {key: one for key, one in handles(made).items() if key[1] == "size"}
            for (view, moves, number), handle in found.items():
                up = "arc" in handle.label or "beginning" in handle.label
                after, wanted = dragged(made, view, handle, (0.0, -6.0) if up else (6.0, 0.0))
                now = self.sizes(after)
                changed = {field for field in before if now[field] != before[field]}
                where = handles(after)[view, moves, number].at
                with self.subTest(name, view=view, what=handle.label):
                    self.assertEqual(len(changed), 1)
                    taken.setdefault(f"{name} {view}", set()).update(changed)
                    # Up or along: a leg that leans takes the point aside as well.
                    axis = 1 if up else 0
                    self.assertAlmostEqual(where[axis], wanted.to[axis], delta=1.3)
        self.assertEqual(taken["plane_frames front"], {"cross.0.arc.rise", "taper.foot", "taper.begins"})
        self.assertEqual(taken["plane_frames side"], {"taper.foot", "taper.begins"})
        self.assertEqual(taken["aproned side"], {"arch", "taper.foot", "taper.begins"})
        self.assertEqual(taken["crossed front"], {"taper.foot", "taper.begins"})
        self.assertEqual(taken["board_sides side"], {"taper.off"})

    def test_dragged_past_what_it_may_be_it_stops_there(self) -> None:
        made = self.shaped("aproned")
        (key,) = (k for k, one in handles(made).items() if k[0] == "front" and "arc of" in one.label)
        after, _ = dragged(made, "front", handles(made)[key], (0.0, -900.0))
        self.assertEqual(self.sizes(after).get("arch", 0.0), 0.0)

    def test_a_size_that_is_not_there_is_refused(self) -> None:
        with self.assertRaises(BadInput) as caught:
            move(self.shaped("board_sides"), Move("size", "side", (0.0, 0.0), 9), 0.5)
        self.assertEqual(caught.exception.faults[0].do, "Take hold of a size there is.")
