"""The glue-up against the open time, the coats against the surface, what went wrong and its ways out."""

from __future__ import annotations

import itertools
import math
import random
from datetime import UTC, datetime, timedelta

import manifold3d
import numpy as np
from django.test import SimpleTestCase

from splay.build import NOTHING, Build, Step, order_of
from splay.build.finish import FINISHES, finishing, use_of
from splay.build.glues import GLUES, clamping, opening
from splay.build.glueup import GlueStage, GlueUp, Pace, _grouped, glue_up
from splay.build.progress import Done, minutes_left, next_of, progress, shown_done
from splay.build.rescue import Rescue, lowered, rescues
from splay.piece import Belly, Piece, StakedLegs, read_piece
from splay.piece.starters import STARTS, starter
from splay.plan import plan
from splay.quantity import Show
from splay.setups.leg_marks import ring_at
from splay.shop import workbench
from splay.stance.arrange import with_members
from splay.views.surface import surface
from tests.bench.pieces import buildable
from tests.core.make import piece, planned, round_stool

SHOW = Show(workbench().rounding.units())
NOON = datetime(2026, 3, 2, 12, tzinfo=UTC)


def glued(start: str, build: Build, pace: Pace | None = None) -> GlueUp | None:
    made = starter(start)
    return glue_up(made, planned(made), build, SHOW, pace)


class OpenTime(SimpleTestCase):
    def test_ten_degrees_warmer_halve_it_and_colder_double_it(self) -> None:
        glue = GLUES["yellow"]
        self.assertEqual(opening(glue, None, 20, 50), 8.0)
        self.assertEqual(opening(glue, None, 30, 50), 4.0)
        self.assertEqual(opening(glue, None, 10, 50), 16.0)
        self.assertEqual(clamping(glue, 10), 2.0)

    def test_damp_air_holds_a_glue_open_that_dries_and_no_other(self) -> None:
        self.assertEqual(opening(GLUES["yellow"], None, 20, 80), 8.0 * 1.3)
        self.assertEqual(opening(GLUES["epoxy"], None, 20, 80), 30.0)

    def test_the_makers_own_count_stands_before_the_usual(self) -> None:
        self.assertEqual(opening(GLUES["yellow"], 5.0, 30, 50), 2.5)
        made = glued("bench", Build(open_min=20.0), Pace(0.5, 4))
        assert made is not None
        self.assertEqual((made.open_min, made.pace, made.paced_by, len(made.sittings)), (20.0, 0.5, 4, 1))


class Sittings(SimpleTestCase):
    def test_so_few_sittings_cannot_be_bettered(self) -> None:
        rng = random.Random(5)
        for _ in range(200):
            minutes = [rng.choice((1.0, 2.5, 4.0, 6.0)) for _ in range(rng.randint(1, 7))]
            opens = rng.choice((6.0, 8.0, 11.0))
            stages = [GlueStage("", str(k), (), (), (), (), m, m) for k, m in enumerate(minutes)]
            made = _grouped(stages, opens)
            self.assertEqual([s for group in made for s in group], stages, "the order stays")
            # Every way to cut the row of stages in pieces that fit, tried one by one.
            cuts = range(1, len(minutes))
            best = min(
                len(chosen) + 1
                for many in range(len(minutes))
                for chosen in itertools.combinations(cuts, many)
                if all(
                    sum(minutes[a:b]) <= opens for a, b in itertools.pairwise((0, *chosen, len(minutes)))
                )
            )
            self.assertEqual(len(made), best)

    def test_every_kind_names_as_many_joints_as_its_assembly_counts(self) -> None:
        for name in STARTS:
            made = planned(starter(name))
            told = glue_up(starter(name), made, Build(), SHOW)
            assert told is not None and made.assembly is not None
            joints = [len(stage.joints) for sitting in told.sittings for stage in sitting.stages]
            self.assertEqual(joints, [stage.joints for stage in made.assembly.stages], name)

    def test_pairs_come_first_their_blocks_slope_by_what_the_stretcher_meets_the_leg_at(self) -> None:
        made = planned(starter("bench"))
        told = glue_up(starter("bench"), made, Build(), SHOW)
        assert told is not None
        self.assertEqual([s.title for s in told.sittings[0].stages], ["Legs 1 and 4", "Legs 2 and 3"])
        blocks = told.sittings[0].stages[0].blocks
        # The leg's far side, from its axis and its taper: 36 to 30 mm over its exposed length.
        leg = starter("bench").supports[0].leg  # type: ignore[union-attr]
        taper = math.degrees(math.atan((leg.at_top - leg.at_foot) / 2 / made.stance.legs[0].exposed))
        axis = 90.0 - made.members[0].ends[0].read.quantity.value
        self.assertAlmostEqual(blocks[0].slope.value, axis - taper, delta=0.01)
        self.assertEqual(len(blocks), 2)

    def test_what_takes_longer_than_the_glue_stays_open_is_said_with_its_numbers(self) -> None:
        # Held together by stretchers its four legs go in at once, by themselves one after the other.
        tied = read_piece(with_members(starter("round_four"), "box"))
        told = glue_up(tied, planned(tied), Build(air_c=30), SHOW)
        assert told is not None
        self.assertFalse(told.sittings[-1].fits)
        self.assertIn("4 joints take about 7 min, and the glue stays open 4", told.cautions[-1])

    def test_legs_that_share_no_stretcher_have_each_an_open_time_of_their_own(self) -> None:
        told = glued("round_four", Build(air_c=30))
        assert told is not None
        self.assertTrue(told.sittings[0].fits)
        self.assertEqual(told.sittings[0].joints, 4)

    def test_a_shop_too_cold_for_the_glue_is_said(self) -> None:
        told = glued("round_three", Build(glue="hide", air_c=12))
        assert told is not None
        self.assertIn("wants 16 °C or more", told.cautions[0])
        self.assertTrue(told.heat_opens)

    def test_a_ring_is_watched_from_the_side_on_which_the_last_of_it_is_seen(self) -> None:
        for resultant, side in ((12.0, "the seat's middle"), (12.0, "outside")):
            inward = side == "outside"
            angles = [{"by": "resultant", "resultant": resultant, "sightline": 180 if inward else 0}]
            made = piece(
                outline={"kind": "round", "diameter": 360},
                placement={"way": "circle", "count": 3, "radius": 110},
                angles=angles,
            )
            whole = planned(made)
            told = glue_up(made, whole, Build(), SHOW)
            assert told is not None
            watch = told.sittings[-1].stages[-1].watch
            self.assertIn(f"from {side}", watch[0])
            # The ring in the round: of its points the one on the underside when the leg is home is
            # on the side it is watched from, and every other is inside the seat.
            leg, part = whole.stance.legs[0], whole.parts[0]
            axis, socket = np.array(leg.d), np.array(leg.socket)
            middle = socket + axis * (ring_at(leg, part) - part.in_top.quantity.value)
            one = np.cross(axis, (0.0, 0.0, 1.0))
            one /= np.linalg.norm(one)
            two = np.cross(axis, one)
            turns = np.linspace(0.0, 2.0 * np.pi, 721)[:, None]
            ring = middle + leg.bore.size / 2.0 * (np.cos(turns) * one + np.sin(turns) * two)
            into = (ring[:, 2] - socket[2]) * -np.sign(axis[2])
            self.assertAlmostEqual(into.min(), 0.0, places=2)
            nearest = ring[int(into.argmin())]
            towards = float((nearest - socket)[:2] @ -socket[:2])
            self.assertEqual(towards > 0, not inward)
            self.assertIn("across the seat's grain", watch[-1])

    def test_without_glue_nothing_is_against_it(self) -> None:
        told = glued("round_four", Build(glue="none", air_c=-5))
        assert told is not None
        self.assertEqual((told.cautions, told.sittings[0].fits), ((), True))


class Surfaces(SimpleTestCase):
    def test_a_round_top_with_straight_legs_has_the_area_of_its_cylinders(self) -> None:
        made = piece(
            outline={"kind": "round", "diameter": 360},
            placement={"way": "circle", "count": 3, "radius": 80},
            angles=[{"by": "resultant", "resultant": 0.001}],
        )
        found = surface(made, planned(made), SHOW)
        top = 2 * math.pi * 0.18**2 + 2 * math.pi * 0.18 * 0.038
        self.assertAlmostEqual(found.top, top, delta=0.002 * top)
        # Three legs 32 mm thick and 392 mm long under the top, with both ends.
        legs = 3 * (math.pi * 0.032 * 0.392 + 2 * math.pi * 0.016**2)
        self.assertAlmostEqual(found.legs, legs, delta=0.01 * legs)

    def test_a_tapered_leaning_leg_has_the_area_a_solid_library_finds(self) -> None:
        made = round_stool(14.0, leg={"at_top": 36, "at_foot": 24})
        whole = planned(made)
        found = surface(made, whole, SHOW)
        leg = whole.stance.legs[0]
        long = leg.exposed
        solid = manifold3d.Manifold.cylinder(long, 18.0, 12.0, 256)
        # Cut slanted at both ends it loses on one side what it gains on the other, to the second order.
        self.assertAlmostEqual(found.legs / 3, solid.surface_area() * 1e-6, delta=0.02 * found.legs / 3)

    def test_every_kind_has_at_least_the_area_of_the_hull_of_its_top(self) -> None:
        for name in STARTS:
            made = starter(name)
            found = surface(made, planned(made), SHOW)
            self.assertGreater(found.top, 0.05, name)
            self.assertGreater(found.legs + found.rest, 0.02, name)
            self.assertTrue(np.isfinite(found.all))


class Coats(SimpleTestCase):
    # Common practice, no source: an outdoor piece takes three sealer coats rubbed with 240 between and two
    # of exterior satin; what is stepped on a third coat of wiping varnish; oil is wiped off in 5 to 10 min.
    def test_outdoors_three_sealers_and_two_of_satin(self) -> None:
        told = finishing(
            starter("bench"),
            planned(starter("bench")),
            Build(finish="exterior_varnish", used="outdoors"),
            SHOW,
        )
        self.assertEqual([coat.what for coat in told.coats].count("exterior sealer"), 3)
        self.assertEqual([coat.then for coat in told.coats][:3], ["240 grit"] * 3)
        self.assertEqual(len(told.coats), 5)
        self.assertTrue(any("pad them off the ground" in one for one in told.cautions))

    def test_it_is_dusted_off_before_the_first_coat_and_after_each_that_is_rubbed_down(self) -> None:
        made, build = starter("bench"), Build(finish="exterior_varnish", used="outdoors")
        steps = [
            one for one in order_of(made, planned(made), build, NOTHING).steps if one.operation == "finish"
        ]
        self.assertEqual(["everything that is seen" in one.do[0] for one in steps], [True, *[False] * 4])
        rubbed = [any("rubbed down with" in line for line in one.do) for one in steps]
        self.assertEqual(rubbed[:3], [True] * 3)
        self.assertFalse(rubbed[-1])

    def test_a_step_gets_a_third_coat_and_is_known_for_one(self) -> None:
        step = starter("board_sides")
        self.assertEqual(use_of(step, Build()), "feet")
        self.assertEqual(len(finishing(step, planned(step), Build(finish="wiping_varnish"), SHOW).coats), 3)
        stool = starter("round_three")
        self.assertEqual(
            len(finishing(stool, planned(stool), Build(finish="wiping_varnish"), SHOW).coats), 2
        )

    def test_oil_stands_five_to_ten_minutes_and_its_rags_are_laid_out(self) -> None:
        stool = starter("round_three")
        told = finishing(stool, planned(stool), Build(), SHOW)
        self.assertTrue(5 <= told.coats[0].wiped_after <= 10)
        self.assertTrue(any("lay them out flat" in one for one in told.cautions))
        self.assertEqual(told.coats[-1].then, "")

    def test_what_is_needed_follows_the_surface_and_how_many_are_made(self) -> None:
        stool = starter("round_three")
        one = finishing(stool, planned(stool), Build(), SHOW)
        self.assertAlmostEqual(one.litres, 2 * one.area_m2 / FINISHES["hard_wax_oil"].covers)
        six = stool.model_copy(update={"make": 6})
        self.assertAlmostEqual(finishing(six, planned(six), Build(), SHOW).litres, 6 * one.litres)

    def test_a_finish_that_is_not_for_the_use_is_said(self) -> None:
        stool = starter("round_three")
        told = finishing(stool, planned(stool), Build(finish="soap", used="outdoors"), SHOW)
        self.assertIn("Soap is not for outdoors", told.unfit)

    def test_finished_before_assembly_what_is_glued_or_cut_off_stays_bare(self) -> None:
        bench = starter("bench")
        told = finishing(bench, planned(bench), Build(prefinish=True), SHOW)
        self.assertTrue(any("tenon" in one for one in told.mask))
        self.assertTrue(any("foot" in one for one in told.mask))
        self.assertEqual(finishing(bench, planned(bench), Build(), SHOW).mask, ())

    def test_each_coat_is_a_step_that_rests_longer_in_the_cold(self) -> None:
        stool = starter("round_three")
        outside = Build(finish="exterior_varnish", used="outdoors", air_c=10)
        steps = order_of(stool, planned(stool), outside).steps
        coats = [step for step in steps if step.operation == "finish"]
        self.assertEqual(len(coats), 5)
        assert coats[0].wait is not None
        self.assertEqual(coats[0].wait.least_h, 24.0)


class WaysOut(SimpleTestCase):
    def ways(self, made: Piece, step: Step, of: str = "", used: int = 0) -> dict[str, Rescue]:
        unit = next((u for u in step.units if u.of == of), step.units[0])
        found = rescues(step, unit, made, planned(made), SHOW, used)
        return {one.name: one for one in found}

    def test_every_step_of_every_piece_has_a_way_out_and_may_be_left_as_it_is(self) -> None:
        for seed in range(20):
            made, whole, _ = buildable(random.Random(seed))
            for step in order_of(made, whole, Build()).steps:
                for unit in step.units:
                    found = rescues(step, unit, made, whole, SHOW)
                    names = [one.name for one in found]
                    self.assertEqual(names[-2:], ["again", "as_is"])
                    self.assertEqual(len(names), len(set(names)))
                    self.assertTrue(all(one.do for one in found))

    def test_a_plug_is_as_thick_as_the_hole_and_longer_than_it_is_deep(self) -> None:
        made = round_stool(12.0)
        order = order_of(made, planned(made), Build())
        bore = next(step for step in order.steps if step.operation == "bore")
        plug = self.ways(made, bore, "l2")["plug"]
        # 38 mm square to the seat is 38.85 along 12 degrees, and 6 stand out: 44.85, on the rule 45.
        self.assertIn("25.4 mm thick, at least 45 mm long", plug.do[0])
        assert plug.wait is not None and plug.again
        self.assertGreaterEqual(plug.wait.least_h, 12)

    def test_a_leg_that_is_short_lowers_the_piece_by_its_upright_part(self) -> None:
        made = round_stool(20.0)
        self.assertAlmostEqual(
            made.height - lowered(made, planned(made), "l1", 10.0).height, 9.396926, places=5
        )

    def test_a_seat_gone_wrong_is_not_made_again_from_leg_stock(self) -> None:
        made = round_stool(12.0)
        order = order_of(made, planned(made), Build())
        outline = next(step for step in order.steps if step.operation == "cut_outline")
        self.assertEqual(list(self.ways(made, outline)), ["again", "as_is"])


class Waiting(SimpleTestCase):
    def test_nothing_is_offered_that_leans_on_what_still_waits(self) -> None:
        for name in STARTS:
            made = starter(name)
            order = order_of(made, plan(made, workbench()), Build())
            at, done = NOON, list[Done]()
            for step in order.steps:
                now = progress(order, done, at)
                going = {one.key: one for one in now.steps}
                if going[step.key].until is not None:
                    self.assertEqual(going[step.key].state, "waiting")
                    at = going[step.key].until + timedelta(minutes=1)
                    now = progress(order, done, at)
                self.assertEqual(now.next, step.key, f"{name}: {step.title}")
                done += [Done(u.key, u.operation, u.of, at) for u in step.units]
                at += timedelta(minutes=5)
            self.assertIsNone(progress(order, done, at).next)

    def test_a_unit_ticked_under_an_old_name_counts_for_the_same_work_on_the_same_leg(self) -> None:
        made = round_stool(12.0)
        order = order_of(made, planned(made), Build())
        old = [Done("bore.gone", "bore", "l2", NOON), Done("bore.gone", "bore", "l9", NOON)]
        bore = next(one for one in progress(order, old, NOON).steps if one.key == "bore.l1")
        self.assertEqual((bore.state, [unit.of for unit in bore.done]), ("begun", ["l2"]))

    def test_like_pieces_go_on_at_the_earliest_step_on_the_first_that_is_at_it(self) -> None:
        made = round_stool(12.0)
        order = order_of(made, planned(made), Build())
        ready = [Done("ready", "ready", "", NOON)]
        copies = [progress(order, done, NOON) for done in (ready, [], ready, [])]
        self.assertEqual(next_of(order, copies), (2, "ready"))
        all_ready = [progress(order, ready, NOON)] * 3
        self.assertEqual(next_of(order, all_ready), (1, order.steps[1].key))
        every = [Done(u.key, u.operation, u.of, NOON) for step in order.steps for u in step.units]
        self.assertIsNone(next_of(order, [progress(order, every, NOON)] * 2))
        # Readying the wood is 90 of the minutes of each; two of four have done it.
        whole = minutes_left(order, [progress(order, (), NOON)] * 4, NOTHING)
        self.assertAlmostEqual(whole - minutes_left(order, copies, NOTHING), 2 * 90.0)

    def test_readings_show_that_their_step_is_done_and_all_it_needs(self) -> None:
        made = round_stool(12.0)
        whole = planned(made)
        order = order_of(made, whole, Build())
        now = progress(order, (), NOON)
        bored = frozenset(f"bore.l{k}" for k in (1, 2, 3))
        self.assertEqual(shown_done(order, now, bored), ("ready", "practice", "lay_out", "bore.l1"))
        self.assertEqual(shown_done(order, now, frozenset(["bore.l1"])), ())

    def test_what_leans_on_glue_waits_for_as_long_as_its_clamps_stay_on(self) -> None:
        made = round_stool(12.0)
        for air, minutes in ((20.0, 60), (10.0, 120)):
            order = order_of(made, planned(made), Build(air_c=air))
            upto = [step for step in order.steps if step.operation != "level"]
            last = next(k for k, step in enumerate(upto) if step.operation == "wedge")
            done = [Done(u.key, u.operation, u.of, NOON) for step in upto[: last + 1] for u in step.units]
            level = {one.key: one for one in progress(order, done, NOON).steps}["level"]
            self.assertEqual((level.state, level.until), ("waiting", NOON + timedelta(minutes=minutes)))
            later = progress(order, done, NOON + timedelta(minutes=minutes))
            self.assertEqual({one.key: one for one in later.steps}["level"].state, "open")

    def test_of_two_works_of_one_kind_on_one_leg_an_old_tick_says_nothing(self) -> None:
        made = starter("triangle")
        support = made.supports[0]
        assert isinstance(support, StakedLegs)
        belly = support.leg.model_copy(update={"belly": Belly(at=0.4, size=support.leg.at_top + 6)})
        bellied = support.model_copy(update={"leg": belly})
        made = made.model_copy(update={"supports": (bellied,)})
        order = order_of(made, planned(made), Build())
        tapers = [step.key for step in order.steps if step.operation == "taper"]
        self.assertEqual(len(tapers), 2)
        now = progress(order, [Done("taper.gone", "taper", "l1", NOON)], NOON)
        self.assertEqual([one.state for one in now.steps if one.key in tapers], ["open", "open"])

    def test_what_a_mishap_holds_waits_and_then_no_more(self) -> None:
        made = round_stool(12.0)
        order = order_of(made, planned(made), Build())
        holds = {"ready": (NOON + timedelta(hours=2), "the plug")}
        self.assertEqual(progress(order, (), NOON, holds).steps[0].for_what, "the plug")
        self.assertEqual(progress(order, (), NOON + timedelta(hours=3), holds).steps[0].state, "open")
