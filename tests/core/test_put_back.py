"""The words that ruined wood, put back one by one: the bench finds each of them by itself."""

from __future__ import annotations

from collections.abc import Callable
from contextlib import ExitStack
from dataclasses import replace
from typing import Any
from unittest.mock import patch

from django.test import SimpleTestCase

from splay.level.rounds import _worked
from splay.parts.member import Hooks
from splay.piece import Piece, read_piece, write_piece
from splay.piece.starters import starter
from splay.plan import plan
from splay.setups import foot
from splay.shop import Shop, read_shop, workbench, write_shop
from splay.work.does import LongPoint
from splay.work.joinery import Slots
from splay.work.lays import Toward, Wedge
from splay.work.meet import SawSides
from tests.bench.judged import Tally, carry_out
from tests.bench.levelled import level
from tests.core.make import piece, round_stool
from tests.core.test_blind import limit

SHOP = workbench()
ROUND = {"kind": "round", "diameter": 360}


def bench_piece(**choices: Any) -> Piece:
    return read_piece({**write_piece(starter("bench")), **choices})


def square(**choices: Any) -> Piece:
    leg = {"at_top": 40, "at_foot": 40, "section": "square"}
    return piece(leg=leg, **choices)


def turning() -> Piece:
    """Splay and rake alike on a circle: no sightline makes the same angle with its radius as the next."""
    return piece(
        outline=ROUND,
        placement={"way": "circle", "count": 4, "radius": 110, "first": 45},
        angles=[{"by": "splay_rake", "splay": 13, "rake": 6}],
    )


def short_guide() -> Shop:
    document = write_shop(workbench())
    for tool in document["tools"]:
        if tool["kind"] == "angle_guide":
            tool["scale"]["reach"] = 8
    return read_shop(document)


def wrong(made: Piece, shop: Shop = SHOP) -> set[str]:
    """What the bench finds past its limits."""
    tally = carry_out(made, plan(made, shop), shop)
    return {what for what, (off, _) in tally.worst.items() if off > limit(what)}


def levelled_wrong(made: Piece, way: str) -> set[str]:
    found = Tally()
    for seed in range(3):
        found.add(level(made, SHOP, way, seed))
    return {what for what, (off, _) in found.worst.items() if off > limit(what)}


def _swapped(sides: SawSides) -> SawSides:
    longer = None if sides.fence_longer is None else not sides.fence_longer
    return SawSides(sides.up, sides.fence, longer, sides.up_longer)


def _other_way(real: Callable[..., Toward | None]) -> Callable[..., Toward | None]:
    def told(near: str, leg: int, opening: float) -> Toward | None:
        return real(near, leg, 180.0 - opening)

    return told


class PutBack(SimpleTestCase):
    def found(self, target: str, wrongly: Any, look: Callable[[], set[str]], what: str) -> None:
        """Sound as it is; with the old way put back the bench names what went wrong."""
        self.assertEqual(look(), set(), "sound before anything is put back")
        with patch(target, wrongly):
            self.assertIn(what, look())

    def test_sockets_of_stretchers_tilted_downhill(self) -> None:
        from splay.setups.two_sticks import end_toward

        swapped = _other_way(end_toward)
        made = bench_piece()
        self.found("splay.setups.two_sticks.end_toward", swapped, lambda: wrong(made), "socket deg")

    def test_a_seat_turned_on_a_pin_where_sightlines_are_not_radial(self) -> None:
        self.found(
            "splay.setups.boring.ring_count", lambda *_: 4, lambda: wrong(turning()), "pin turned deg"
        )

    def test_a_peg_that_enters_and_runs_the_other_way_along_the_sightline(self) -> None:
        from splay.stance import pegs

        joint = {"way": "blind", "socket": 28, "depth": 28, "peg": {"entry": 6, "angle": 5, "margin": 4}}
        made = piece(joint=joint)
        real = pegs._arrow

        def backwards(leg: Any) -> tuple[float, float]:
            x, y = real(leg)
            return -x, -y

        self.found("splay.stance.pegs._arrow", backwards, lambda: wrong(made), "peg height mm")
        self.found(
            "splay.setups.pegs.Toward", lambda *_: Toward("arrow"), lambda: wrong(made), "peg height mm"
        )

    def test_a_peg_through_a_batten_at_the_legs_mark_instead_of_where_the_tenon_is(self) -> None:
        from splay.setups import pegs

        made = starter("battened")
        real = pegs.pegs_from_side

        def square_to_the_mark(of: Any, stance: Any) -> Any:
            for one in real(of, stance):
                yield replace(one, run=40.0)

        self.found(
            "splay.setups.pegs.pegs_from_side", square_to_the_mark, lambda: wrong(made), "peg off tenon mm"
        )

    def test_lines_drawn_to_a_place_beyond_the_edge_of_the_seat(self) -> None:
        """200 mm the way a leg leans is in the air, where the leg stands near the rim."""
        made = piece()
        self.found(
            "splay.layout.placing.reached",
            lambda *_: (200.0, False),
            lambda: wrong(made),
            "line drawn off the wood mm",
        )

    def test_a_pin_that_stands_the_circle_of_the_legs_from_the_bit(self) -> None:
        from splay.setups import boring

        real = boring._pin

        def at_radius(work: Any, show: Any) -> Any:
            return replace(real(work, show), downhill=show.length(80.0))

        made = round_stool(14)
        self.found("splay.setups.boring._pin", at_radius, lambda: wrong(made), "pin mm")

    def test_which_face_comes_out_longer_reversed(self) -> None:
        from splay.work.meet import on_saw

        made = square(angles=[{"by": "splay_rake", "splay": -8, "rake": 5}])
        self.found(
            "splay.setups.foot.on_saw", lambda *a: _swapped(on_saw(*a)), lambda: wrong(made), "cut deg"
        )

    def test_a_socket_in_a_stretcher_measured_from_an_axis(self) -> None:
        from splay.parts.member import hooks_of

        def from_axis(*args: Any) -> Hooks:
            hooks = hooks_of(*args)
            return Hooks(hooks.legs, {}, hooks.names)

        made = bench_piece()
        self.found("splay.plan.hooks_of", from_axis, lambda: wrong(made), "socket mm")

    def test_a_hollow_ignored_where_heights_are_taken(self) -> None:
        hollow = {"way": "trough", "across": "length", "chord": 300, "depth": 12}
        made = bench_piece(top={**write_piece(starter("bench"))["top"], "hollow": hollow})

        def flat(of: Piece, at: tuple[float, float]) -> tuple[float, float, float]:
            return (*at, of.top.thickness)

        def look() -> set[str]:
            # Worked out afresh: a pass is kept once it was worked out.
            _worked.cache_clear()
            return levelled_wrong(made, "standing")

        self.assertEqual(look(), set())
        with patch("splay.level.ways.on_face", flat), patch("splay.level.now.on_face", flat):
            self.assertIn("level standing mm", look())
        _worked.cache_clear()

    def test_marks_for_boring_from_above_left_on_the_underside(self) -> None:
        made = round_stool(14, joint={"way": "through", "socket": 25, "bored_from": "upper"})
        self.found(
            "splay.layout.placing.at_face", lambda _, leg, __: leg.place.at, lambda: wrong(made), "mark mm"
        )

    def test_outer_and_inner_exchanged_at_levelling(self) -> None:
        from splay.parts.sides import foot_sides

        made = piece(angles=[{"by": "splay_rake", "splay": -6, "rake": -5}])
        # The piece is levelled afresh each time: what was worked out before is not asked for again.
        self.found(
            "splay.level.feet.foot_sides",
            lambda *a: foot_sides(*a)[::-1],
            lambda: levelled_wrong(made, "bench"),
            "level bench mm",
        )

    def test_places_for_dowels_told_by_a_part_of_another_width(self) -> None:
        from splay.setups import loose_joints

        def all_of_a_slope(*given: Any) -> Any:
            found = real(*given)
            slope = {round(loose_joints.slope_of(ends[0][0].start), 4): [] for ends in found}
            for ends in found:
                slope[round(loose_joints.slope_of(ends[0][0].start), 4)] += ends
            return list(slope.values())

        real = loose_joints._alike
        self.found(
            "splay.setups.loose_joints._alike",
            all_of_a_slope,
            lambda: wrong(starter("plane_frames")),
            "dowel place mm",
        )

    def test_a_pilot_for_the_first_leg_where_a_hollow_leaves_another_more_wood(self) -> None:
        spots = [{"x": x, "y": y} for x, y in ((-40, -90), (-160, 90), (160, 90), (40, -90))]
        document = write_piece(
            piece(
                placement={"way": "free", "spots": spots},
                joint={"way": "reamed", "socket": 26, "included": 6, "proud": 2},
                angles=[{"by": "splay_rake", "splay": 8, "rake": 8}],
            )
        )
        document["top"]["hollow"] = {"way": "trough", "across": "length", "chord": 320, "depth": 9}
        made = read_piece(document)
        self.assertEqual(wrong(made), set())
        self.found(
            "splay.setups.boring.max",
            lambda deeps: next(iter(deeps)),
            lambda: wrong(made),
            "pilot wider than the tenon's tip mm",
        )

    def test_corners_told_by_the_names_the_first_of_several_parts_has(self) -> None:
        self.found(
            "splay.setups.crosscut.long_line",
            lambda part: "corner between its front face and its inner side",
            lambda: wrong(starter("aproned")),
            "told along a side it has not",
        )
        made = square(placement={"way": "circle", "count": 4, "radius": 110, "first": 45})
        real = foot._longer

        def by_the_first(*given: Any) -> Any:
            told = real(*given)
            return replace(
                told, sides=(("all", tuple(k for _, p, _ in told.sides for k in p), told.sides[0][2]),)
            )

        self.found(
            "splay.setups.foot._longer", by_the_first, lambda: wrong(made), "stays longer elsewhere mm"
        )
        self.found(
            "splay.setups.foot._points",
            lambda piece, stance, group, part, show: tuple(
                foot.long_point(piece, stance, leg, part, show) for leg in group.legs
            ),
            lambda: wrong(made),
            "told once where its cut goes",
        )

    def test_slots_with_the_wrong_face_on_the_fence_or_leaning_along_it_the_wrong_way(self) -> None:
        from splay.setups.loose_joints import end_down

        other = {
            "inner face": "show face", "show face": "inner face", "underside": "upper face",
            "upper face": "underside", "lower edge": "upper edge", "upper edge": "lower edge",
            "inner edge": "outer edge", "outer edge": "inner edge",
        }  # fmt: skip
        document = write_piece(starter("slab"))
        document["supports"][0]["dowels"] = {
            "way": "loose_tenon", "size": 8, "width": 22, "depth": 16, "gap": 1,
        }  # fmt: skip
        slab = read_piece(document)
        self.found(
            "splay.setups.loose_joints.end_down",
            lambda *a: replace(end_down(*a), face=other[end_down(*a).face]),
            lambda: wrong(slab),
            "slot: fence deg",
        )
        self.found(
            "splay.setups.loose_joints.end_down",
            lambda *a: replace(end_down(*a), along=other[end_down(*a).along]),
            lambda: wrong(starter("crossed")),
            "slot: leans the other way",
        )
        # A bevel on the fence where the part leans along it, as the cards once told.
        self.found(
            "splay.setups.loose_joints.Slots",
            lambda deep, off, back, along: Slots(deep, off, along, None),
            lambda: wrong(starter("crossed")),
            "slot: fence deg",
        )

    def test_faces_of_a_stretcher_named_the_wrong_way_round(self) -> None:
        from splay.setups.member_cuts import named_member_faces

        document = write_piece(starter("bench"))
        for member in document["members"][:2]:
            member["section"] = "octagon"
        made = read_piece(document)

        def other_way(way: Any) -> Any:
            first, *rest = named_member_faces(way)
            return (first, *reversed(rest))

        self.found(
            "splay.setups.member_cuts.named_member_faces",
            other_way,
            lambda: wrong(made),
            "socket entered from the far side mm",
        )

    def test_a_wedges_slot_on_the_other_side(self) -> None:
        from splay.stance.lines import slot_turn

        self.found(
            "splay.stance.wedges.slot_turn",
            lambda *a: -slot_turn(*a),
            lambda: wrong(piece()),
            "slot deg",
        )

    def test_one_line_for_socket_and_floor_on_a_falling_seat(self) -> None:
        made = piece(lean={"fall": 4})
        self.assertEqual(wrong(made), set())
        rooms = ("setups.leg_marks", "setups.foot", "parts.sides")
        with ExitStack() as told:
            for room in rooms:
                told.enter_context(patch(f"splay.{room}.lines_apart", lambda *_: 0.0))
            self.assertLessEqual({"line deg", "cut deg"}, wrong(made))

    def test_a_tapered_leg_laid_to_a_fence_as_it_is(self) -> None:
        made = piece(leg={"at_top": 44, "at_foot": 26})
        self.found("splay.setups.foot.packed", lambda *_: (), lambda: wrong(made), "packing mm")

    def test_a_wedge_under_the_work_for_a_clamped_guide(self) -> None:
        def under(angle: Any, _: str, thick: Toward) -> Wedge:
            return Wedge(angle, "work", thick)

        made, shop = round_stool(14), short_guide()
        self.found("splay.setups.drills.Wedge", under, lambda: wrong(made, shop), "hole deg")

    def test_bevels_that_lean_the_other_way(self) -> None:
        from splay.setups.stick_shapes import bevel

        made = starter("plane_frames")

        def other(body: Any, rip: Any) -> tuple[str, str, float]:
            edge, wider, off = bevel(body, rip)
            sides = body.sides
            return edge, sides.other_face if wider == sides.face else sides.face, off

        self.found("splay.setups.stick_shapes.bevel", other, lambda: wrong(made), "bevel deg")

    def test_aprons_sawn_to_their_shoulders(self) -> None:
        from splay.setups.crosscut import _does

        def short(cut: Any) -> tuple[Any, ...]:
            tenons = sum(cut.uses[0][1].tenons)
            return tuple(
                replace(do, mm=replace(do.mm, value=do.mm.value - tenons))
                if isinstance(do, LongPoint)
                else do
                for do in _does(cut)
            )

        made = starter("aproned")
        self.found("splay.setups.crosscut._does", short, lambda: wrong(made), "cut long mm")
