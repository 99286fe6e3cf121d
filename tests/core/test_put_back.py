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
from splay.shop import Shop, read_shop, workbench, write_shop
from splay.work.does import LongPoint
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
