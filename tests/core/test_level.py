"""Levelling: hand-worked cases, and simulated builds cut as they are told."""

from __future__ import annotations

import math
from collections.abc import Iterator

import numpy as np
from django.test import SimpleTestCase

from splay.draw import draw
from splay.errors import CannotBuild, SplayError
from splay.level.cut import highest, least_plane, loss, true_plane
from splay.level.feet import End, feet_of
from splay.level.now import State, expect, stand_now
from splay.level.rounds import Level, level
from splay.level.stacks import stack_for
from splay.level.standing import rock_gaps, rocking
from splay.level.ways import asks, plane_under
from splay.piece import Piece, read_piece, write_piece
from splay.piece.starters import STARTS, starter
from splay.plan import Plan, plan
from splay.quantity import Show
from splay.reading import Reading
from splay.shop import Spacer, usual_spacers, workbench
from tests.core.make import piece, planned, round_stool, texts

WAYS = ("bench", "standing", "shims", "seat", "sighted")
UP = np.array((0.0, 0.0, 1.0))
MIDDLE = np.zeros(3)


def levelled(made: Piece, plan: Plan, known: dict[str, float]) -> tuple[Level, tuple[State, ...]]:
    shop = workbench()
    show = Show(shop.rounding.units())
    return level(made, plan.stance, plan.parts, plan.sticks, shop, show, known)


def as_read(ask: str, in_pass: str = "p1") -> str:
    """The proof of what one pass asks, told by its kind and key."""
    kind, _, key = ask.partition(".")
    return f"{kind}.{in_pass}.{key}"


def with_level(made: Piece, **levelling: object) -> Piece:
    return read_piece({**write_piece(made), "levelling": levelling})


class Rock(SimpleTestCase):
    GROUND = np.array(((-200.0, -150.0), (200.0, -150.0), (150.0, 150.0), (-150.0, 150.0)))
    Z = np.array((0.0, 0.8, -0.5, 1.1))

    def test_four_feet_by_hand(self) -> None:
        """Worked twice: front ±200 at y −150, back ±150 at y 150: 2.933 in front, 2.200 behind."""
        gaps = rock_gaps(self.GROUND, self.Z)
        for got, want in zip(gaps, (2.933, 2.933, 2.2, 2.2), strict=True):
            self.assertAlmostEqual(got, want, delta=0.0005)

    def test_the_feet_that_float_float_by_that_much(self) -> None:
        points = np.column_stack((self.GROUND, self.Z))
        found = rocking(points, [0, 1, 2, 3], MIDDLE, UP)
        assert found is not None and found.tips is not None
        for one in (found.rests, found.tips):
            floats = [k for k, gap in enumerate(one.gaps) if gap > 0.02]
            self.assertEqual(len(floats), 1)
            plumb = one.gaps[floats[0]] / one.normal[2]
            self.assertAlmostEqual(plumb, rock_gaps(self.GROUND, self.Z)[floats[0]], delta=1e-6)

    def test_a_parallelogram_rocks_by_the_alternate_sum(self) -> None:
        square = np.array(((-1.0, -1.0), (1.0, -1.0), (1.0, 1.0), (-1.0, 1.0))) * 170
        z = np.array((0.3, 1.0, -0.4, 0.9))
        self.assertTrue(np.allclose(rock_gaps(square, z), abs(0.3 - 1.0 - 0.4 - 0.9)))

    def test_three_feet_never_rock(self) -> None:
        turns = np.radians((90.0, 210.0, 330.0))
        points = np.column_stack((200 * np.cos(turns), 200 * np.sin(turns), (0.0, 3.0, -2.0)))
        found = rocking(points, [0, 1, 2], MIDDLE, UP)
        assert found is not None
        self.assertIsNone(found.tips)
        self.assertEqual(len(found.rests.bears), 3)

    def test_feet_in_a_line_carry_nothing(self) -> None:
        points = np.array(((-200.0, 0, 0), (0, 0, 0), (200, 0, 1)))
        self.assertIsNone(rocking(points, [0, 1, 2], MIDDLE, UP))


class Planes(SimpleTestCase):
    def test_the_floor_from_heights_of_known_places(self) -> None:
        rng = np.random.default_rng(3)
        for n in (3, 4, 7):
            normal = np.array((0.03, -0.05, 1.0))
            normal /= np.linalg.norm(normal)
            spots = np.column_stack((rng.uniform(-300, 300, (n, 2)), np.full(n, 40.0)))
            got, offset = plane_under(spots, spots @ normal + 412.0)
            self.assertTrue(np.allclose(got, normal, atol=1e-12))
            self.assertAlmostEqual(offset, 412.0, 9)

    def test_four_heights_that_disagree_are_met_in_the_middle(self) -> None:
        """By hand: a square's four corners, one 4 mm high: least squares leaves 1 mm at each."""
        spots = np.array(((-1.0, -1, 0), (1, -1, 0), (1, 1, 0), (-1, 1, 0))) * (100, 100, 1)
        heights = np.array((400.0, 400.0, 404.0, 400.0))
        normal, offset = plane_under(spots, heights)
        left = heights - (spots @ normal + offset)
        self.assertTrue(np.allclose(left, (1, -1, 1, -1), atol=0.002))

    def test_heights_in_a_line_are_refused(self) -> None:
        spots = np.array(((-200.0, 0, 30), (0, 1, 30), (180, 0, 30)))
        with self.assertRaises(CannotBuild) as caught:
            plane_under(spots, np.array((400.0, 401.0, 402.0)))
        self.assertIn("one more height", caught.exception.mend)


def square_legs(**choices: object) -> tuple[Piece, tuple[End, ...]]:
    """Four plumb square-ended legs at (±150, ±100): every figure can be worked by hand."""
    made = piece(
        outline={"kind": "rectangle", "length": 400, "width": 300},
        placement={"way": "insets", "from_ends": 50, "from_edges": 50},
        angles=[{"by": "splay_rake", "splay": 0, "rake": 0}],
        leg={"at_top": 30, "at_foot": 30},
        **choices,
    )
    plan = planned(made)
    feet = feet_of(made, plan.stance)
    return made, tuple(End(foot, foot.planned + 20, (0.0, 0.0, 1.0)) for foot in feet)


class Cutting(SimpleTestCase):
    def test_at_the_wanted_height_each_leg_loses_what_it_has_over(self) -> None:
        made, ends = square_legs()
        floor = planned(made).stance.floor
        over = (20.0, 23.0, 18.0, 21.5)
        cut_from = tuple(e.at(e.foot.planned + o) for e, o in zip(ends, over, strict=True))
        plane = true_plane(cut_from, floor)
        for end, o in zip(cut_from, over, strict=True):
            self.assertAlmostEqual(loss(end, plane).axis, o, 9)

    def test_the_shortest_leg_decides_how_high_it_can_end(self) -> None:
        made, ends = square_legs()
        floor = planned(made).stance.floor
        short = (*ends[:3], ends[3].at(ends[3].foot.planned - 4))
        plane = true_plane(short, floor)
        self.assertAlmostEqual(plane.offset, floor.h0_mm - 4, 9)
        self.assertAlmostEqual(loss(short[3], plane).axis, 0.0, 9)

    def test_a_leaning_end_reaches_only_with_its_short_edge(self) -> None:
        """A square-ended leg at rho reaches L cos rho − (D/2) sin rho, not the middle's L cos rho."""
        made = round_stool(14)
        foot = feet_of(made, planned(made).stance)[0]
        d = foot.d
        end = End(foot, 400.0, (-d[0], -d[1], -d[2]))
        rho = math.radians(14)
        reach = highest((end,), np.array((0.0, 0.0, 1.0)))
        self.assertAlmostEqual(reach, 400 * math.cos(rho) - 16 * math.sin(rho), delta=0.02)

    def test_with_a_little_lean_allowed_less_comes_off(self) -> None:
        """By hand: legs at x ±150, the right pair 4 mm short. Leaning atan(4/300) loses nothing there."""
        made, ends = square_legs()
        floor = planned(made).stance.floor
        over = [2.0 if e.foot.start[0] < 0 else -2.0 for e in ends]
        cut_from = tuple(e.at(e.foot.planned + o) for e, o in zip(ends, over, strict=True))
        seat = np.array((0.0, 0.0, made.top.thickness))
        true = true_plane(cut_from, floor)
        self.assertAlmostEqual(true.height(seat), made.height - 2, 6)
        needed = math.degrees(math.atan(4 / 300))
        plane = least_plane(cut_from, floor, seat, needed * 1.1)
        # The short pair's own width costs half of 30 mm times the slope, 0.2 mm.
        self.assertAlmostEqual(plane.height(seat), made.height - 0.2, delta=0.05)
        # The legs' own width keeps a wedge: half of 30 mm times the slope, on every leg.
        wedge = 15 * 4 / 300
        for end in cut_from:
            self.assertLess(loss(end, plane).axis, 2 * wedge + 0.05)
        self.assertLess(
            sum(loss(e, plane).axis for e in cut_from), sum(loss(e, true).axis for e in cut_from)
        )

    def test_the_lean_never_passes_what_is_allowed(self) -> None:
        made, ends = square_legs()
        floor = planned(made).stance.floor
        seat = np.array((0.0, 0.0, made.top.thickness))
        rng = np.random.default_rng(11)
        for _ in range(40):
            cut_from = tuple(e.at(e.foot.planned + rng.uniform(-8, 8)) for e in ends)
            plane = least_plane(cut_from, floor, seat, 0.7)
            lean = math.degrees(math.acos(min(1.0, float(plane.normal @ np.array(floor.normal)))))
            self.assertLessEqual(lean, 0.7 + 1e-6)
            true = true_plane(cut_from, floor)
            self.assertGreaterEqual(plane.height(seat), true.height(seat) - 1e-3)
            for end in cut_from:
                self.assertGreaterEqual(loss(end, plane).short, -1e-6)


class Spacers(SimpleTestCase):
    def test_the_nuts_of_the_lean_check(self) -> None:
        """19.05 under the front feet, 14 in apart, leans it 3.07 degrees (common practice, no source)."""
        self.assertAlmostEqual(math.degrees(math.asin(19.05 / 355.6)), 3.07, delta=0.005)

    def test_a_stack_is_as_thick_as_wanted_with_few_things(self) -> None:
        made = stack_for(usual_spacers(), 16.6, 0.3)
        assert made is not None
        self.assertEqual(made.said(), "M10 nut on its flat, veneer")
        self.assertIsNone(stack_for(usual_spacers(), 500.0, 0.5))

    def test_no_more_is_taken_than_there_is(self) -> None:
        made = stack_for((Spacer(name="card", thick=0.3, count=2),), 0.9, 0.05)
        self.assertIsNone(made)


def builds(count: int, seed: int) -> Iterator[tuple[Piece, np.random.Generator]]:
    """Random pieces of every kind, some leaning."""
    rng = np.random.default_rng(seed)
    names = list(STARTS)
    for k in range(count):
        document = write_piece(starter(names[k % len(names)]))
        fall = float(rng.choice((0.0, 0.0, 2.0, 3.5)))
        document["lean"] = {"fall": fall, "toward": float(rng.choice((90.0, 30.0, 270.0)))}
        document["levelling"] = {"ends": str(rng.choice(("square", "sawn"))), "flat": 0.0}
        yield read_piece(document), rng


class SimulatedBuilds(SimpleTestCase):
    """A hidden truth, exact readings of it, cut as told: every foot must lie in the wanted plane."""

    def check(self, made: Piece, rng: np.random.Generator, way: str, noise: float = 0.0) -> list[float]:
        made = with_level(made, **{**write_piece(made)["levelling"], "passes": [{"way": way}]})
        plan = planned(made)
        floor = plan.stance.floor
        _, states = levelled(made, plan, {})
        before = states[0].before
        truth = tuple(e.at(e.length + rng.uniform(-3, 6)) for e in before)
        stands = stand_now(made, floor, truth)
        chosen = made.levelling.passes[0]
        read: dict[str, float] = {}
        # The height on its shims is read first: the shims are told from it.
        for ask in sorted(asks(made, before, chosen), key=lambda a: a.kind != "stands"):
            value = expect(made, truth, chosen, floor, ask, read, stands)
            read[f"{ask.kind}.{ask.key}"] = value + rng.normal(0.0, noise) if noise else value
        known = {as_read(key): value for key, value in read.items()}
        _, (state,) = levelled(made, plan, known)
        wanted = np.array(floor.normal)
        self.assertAlmostEqual(float(state.plane.normal @ wanted), 1.0, 12)
        off = []
        for real, told in zip(truth, state.ends, strict=True):
            lost = loss(told, state.plane)
            # Cut as told: that far up from the end that is really there.
            point = real.foot.axis(real.length - lost.axis)
            off.append(state.plane.height(point))
        return off

    def test_exact_readings_leave_every_foot_in_the_plane(self) -> None:
        worst = 0.0
        for k, (made, rng) in enumerate(builds(130, 20261124)):
            way = WAYS[k % len(WAYS)]
            if way == "sighted" and len(feet_of(made, planned(made).stance)) != 4:
                way = "seat"
            off = self.check(made, rng, way)
            worst = max(worst, *(abs(o) for o in off))
            with self.subTest(made.name, way=way, at=k):
                self.assertLess(max(abs(o) for o in off), 0.05)
        self.assertLess(worst, 0.05)

    def test_with_noisy_readings_the_stated_uncertainty_covers_what_is_left(self) -> None:
        """Nineteen in twenty within twice the standard deviation that is stated for each foot."""
        rng = np.random.default_rng(5)
        for way in WAYS:
            made = with_level(starter("round_four"), flat=0.0, passes=[{"way": way}])
            plan = planned(made)
            inside, all_of = 0, 0
            for _ in range(60):
                off = self.check(made, rng, way, noise=0.2)
                known = {
                    as_read(key): value for key, value in levelled(made, plan, {})[0].expected[0].items()
                }
                _, (state,) = levelled(made, plan, known)
                for end, o in zip(state.ends, off, strict=True):
                    sure = 2 * end.sigma * -float(state.plane.normal @ np.array(end.foot.d))
                    inside += abs(o) <= max(sure, 1e-9)
                    all_of += 1
            with self.subTest(way):
                self.assertGreater(inside / all_of, 0.9)
                self.assertGreater(0.2 * 6, max(abs(o) for o in off))


class Noise(SimpleTestCase):
    def test_what_is_left_follows_the_noise_of_the_readings(self) -> None:
        """Four times the noise, four times what is left, wherever the legs were."""
        for way in ("bench", "standing", "shims"):
            left = {}
            made = with_level(starter("round_four"), flat=0.0, passes=[{"way": way}])
            for noise in (0.1, 0.4):
                rng = np.random.default_rng(21)
                offs = [o for _ in range(40) for o in SimulatedBuilds().check(made, rng, way, noise)]
                left[noise] = float(np.sqrt(np.mean(np.square(offs))))
            with self.subTest(way):
                self.assertAlmostEqual(left[0.4] / left[0.1], 4.0, delta=0.3)
                # A height is read once or twice for each foot: never much worse than a reading.
                self.assertLess(left[0.4], 2.2 * 0.4)

    def test_an_uneven_bench_is_in_what_is_stated(self) -> None:
        """Out of flat by up to f, evenly anywhere between: f / √3 is the standard deviation of that
        (rectangular distribution; JCGM 100:2008, 4.3.7), beside the reading's own."""
        stated = {}
        for flat in (0.0, 1.0):
            made = with_level(starter("round_four"), flat=flat, passes=[{"way": "bench"}])
            plan = planned(made)
            expected = levelled(made, plan, {})[0].expected[0]
            known = {as_read(key): value for key, value in expected.items()}
            stated[flat] = levelled(made, plan, known)[1][0].ends[0].sigma
        grown = math.sqrt(stated[1.0] ** 2 - stated[0.0] ** 2)
        self.assertAlmostEqual(grown / stated[0.0], (1.0 / math.sqrt(3.0)) / 0.2, 6)


class Passes(SimpleTestCase):
    def test_a_second_pass_begins_where_the_first_was_cut(self) -> None:
        made = with_level(round_stool(14), passes=[{"way": "bench"}, {"way": "bench"}], flat=0.1)
        plan = planned(made)
        one, _ = levelled(made, plan, {})
        expected = one.expected[0]
        known = {as_read(key): value + 1.5 * k for k, (key, value) in enumerate(expected.items())}
        two, _ = levelled(made, plan, known)
        # After the cut all feet are one height off the bench: thickness and height under the top.
        for value in two.expected[1].values():
            self.assertAlmostEqual(value, made.height, delta=0.02)
        self.assertFalse(two.rounds[0].good)
        exact = {**known, **{as_read(key, "p2"): value for key, value in two.expected[1].items()}}
        three, _ = levelled(made, plan, exact)
        self.assertTrue(three.rounds[1].good, three.rounds[1].said)

    def test_readings_no_foot_can_have_are_pointed_out(self) -> None:
        made = with_level(round_stool(14))
        plan = planned(made)
        one, _ = levelled(made, plan, {})
        key, value = next(iter(one.expected[0].items()))
        found, _ = levelled(made, plan, {as_read(key): value / 25.4})
        self.assertIn("foot_far", [p.code for p in found.rounds[0].problems])

    def test_gaps_under_too_many_feet_contradict_standing(self) -> None:
        made = with_level(starter("round_four"), passes=[{"way": "standing"}])
        plan = planned(made)
        one, _ = levelled(made, plan, {})
        known = {as_read(key): value for key, value in one.expected[0].items()}
        known |= {id: 2.0 for id in known if id.startswith("under.")}
        found, _ = levelled(made, plan, known)
        self.assertIn("gaps_contradict", [p.code for p in found.rounds[0].problems])

    def test_a_height_that_leaves_the_plane_is_named(self) -> None:
        made = with_level(starter("round_four"), passes=[{"way": "standing"}])
        plan = planned(made)
        one, _ = levelled(made, plan, {})
        known = {as_read(key): value for key, value in one.expected[0].items()}
        known["top.p1.left"] += 16.0
        found, _ = levelled(made, plan, known)
        problem = next(p for p in found.rounds[0].problems if p.code == "heights_disagree")
        self.assertAlmostEqual(problem.number.value, 4.0, delta=0.2)


class Counted(SimpleTestCase):
    def test_as_many_readings_are_counted_as_every_way_asks_for(self) -> None:
        """What the story stick counts before anything is levelled, against the proofs that are asked."""
        for name in STARTS:
            for way, more in (
                ("bench", {}), ("seat", {}), ("sighted", {}), ("shims", {}),
                ("standing", {"places": "edges"}), ("standing", {"places": "legs"}),
            ):  # fmt: skip
                document = write_piece(starter(name))
                document["levelling"] = {"passes": [{"way": way, **more}, {"way": "bench"}]}
                try:
                    made = read_piece(document)
                    asked = plan(made, workbench())
                except SplayError:
                    continue
                counted = next(
                    one.proofs
                    for one in plan(made, workbench(), levelling=False).stations
                    if one.name == "level"
                )
                self.assertEqual(
                    counted, sum(p.station == "level" for p in asked.proofs), f"{name} {way} {more}"
                )


class Drawn(SimpleTestCase):
    def test_feet_are_drawn_with_the_cuts_that_are_told(self) -> None:
        """Readings that wait to be read again move neither what is told nor what is drawn of it."""
        made = starter("round_four")
        asked = planned(made).proofs
        odd = {"bore.l1": 30.0, "foot.l2": 160.0, "foot.l3": 1.5, "foot.l4": 0.4}
        readings = [
            Reading(p.id, p.expected.value + odd.get(p.id, 0.0), kind=p.kind)
            for p in asked
            if p.kind in ("bore", "foot") or (p.station == "level" and p.of[-1] != "l2")
        ]
        now = plan(made, workbench(), readings)
        doubted = {p.id for p in now.proofs if p.verdict == "slip"}
        self.assertIn("foot.l2", doubted)
        views = {view.name: view for view in draw(made, workbench(), now, "level").piece}
        (told,) = now.level
        for foot in told.feet:
            said = texts(views[f"level.foot.{foot.key}"])
            self.assertLessEqual({foot.long.quantity.text, foot.short.quantity.text}, set(said), foot.name)
