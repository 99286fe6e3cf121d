"""What a piece cost, the next one by the maker's own record, the same again; the order as an exercise."""

from __future__ import annotations

import random

from django.test import SimpleTestCase

from splay.build import NOTHING, Build, Order, Record, order_of, read_build, takes
from splay.build.again import as_built
from splay.build.classwork import common, judged, mixed
from splay.build.cost import cost_of
from splay.piece import Resultant, StakedLegs
from splay.piece.starters import starter
from splay.plan import plan
from splay.reading import Reading
from splay.shop import workbench
from tests.bench.pieces import buildable
from tests.core.make import planned, round_stool


def ordered(start: str = "round_three") -> Order:
    made = starter(start)
    return order_of(made, planned(made), Build())


class Costs(SimpleTestCase):
    def test_hours_by_kind_of_work_at_a_rate_with_what_was_paid(self) -> None:
        build = read_build(
            {"spent": [{"what": "ash", "amount": 30}, {"what": "oil", "sort": "finish", "amount": 6}]}
        )
        minutes = [("tenon", 30.0), ("bore", 15.0), ("tenon", 15.0)]
        made = cost_of(ordered(), build, minutes, 40.0, NOTHING, 1, 1)
        # In the order of work: 15 min boring and 45 min of tenons are an hour, 40, and 36 of material.
        self.assertEqual(
            [(one.called, one.minutes) for one in made.worked],
            [("boring the seat", 15.0), ("making tenons", 45.0)],
        )
        self.assertEqual((made.hours, made.labour, made.materials, made.total), (1.0, 40.0, 36.0, 76.0))

    def test_without_a_record_the_next_is_about_the_usual(self) -> None:
        order = ordered()
        usual = sum(takes(step, NOTHING).minutes for step in order.steps) / 60
        one, six = cost_of(order, Build(), (), 0.0, NOTHING, 0, 0).next
        self.assertAlmostEqual(one.low_h, 0.75 * usual)
        self.assertAlmostEqual(one.high_h, 1.5 * usual)
        self.assertEqual(one.own, 0.0)
        self.assertLess(six.high_h, 6 * one.high_h, "it is set up once for six")

    def test_ones_own_record_gives_its_quarters(self) -> None:
        order = ordered()
        record = Record(minutes={"tenon": (10.0, 12.0, 14.0, 16.0, 18.0)})
        one, _ = cost_of(order, Build(), (), 60.0, record, 0, 0).next
        plain, _ = cost_of(order, Build(), (), 60.0, NOTHING, 0, 0).next
        # Three tenons: usual 10 + 3 * 15 = 55 min; the quarters of the record are 12 and 16.
        self.assertAlmostEqual(one.low_h - plain.low_h, (3 * 12 - 0.75 * 55) / 60)
        self.assertAlmostEqual(one.high_h - plain.high_h, (3 * 16 - 1.5 * 55) / 60)
        self.assertGreater(one.own, 0.0)
        self.assertAlmostEqual(one.high, one.high_h * 60.0)

    def test_six_of_a_batch_share_what_was_paid(self) -> None:
        build = read_build({"spent": [{"what": "ash", "amount": 60}]})
        one, six = cost_of(ordered(), build, (), 0.0, NOTHING, 0, 0, 6).next
        self.assertEqual((one.low, six.low), (10.0, 60.0))


class Again(SimpleTestCase):
    def test_what_was_bored_is_what_is_built_again(self) -> None:
        made = round_stool(14.0)
        readings = [Reading("bore.l1", 15.5, kind="bore"), Reading("bore.l2", 13.0, kind="bore")]
        built = as_built(made, plan(made, workbench(), readings))
        leans = [leg.boring.resultant for leg in planned(built).stance.legs]
        for lean, wanted in zip(leans, (15.5, 13.0, 14.0), strict=True):
            self.assertAlmostEqual(lean, wanted, places=2)
        bearings = [leg.boring.bearing for leg in planned(made).stance.legs]
        again = [leg.boring.bearing for leg in planned(built).stance.legs]
        for one, two in zip(bearings, again, strict=True):
            assert one is not None and two is not None
            self.assertAlmostEqual((one - two + 180) % 360 - 180, 0.0, places=3)

    def test_what_was_not_read_stays_as_it_was_chosen(self) -> None:
        made = round_stool(14.0)
        self.assertEqual(as_built(made, planned(made)), made)

    def test_pairs_said_by_splay_and_rake_come_back_with_their_places(self) -> None:
        made = starter("bench")
        told = planned(made)
        readings = [
            Reading(f"bore.{leg.id}", leg.boring.resultant, kind="bore") for leg in told.stance.legs
        ]
        built = as_built(made, plan(made, workbench(), readings))
        support = built.supports[0]
        assert isinstance(support, StakedLegs)
        self.assertTrue(all(isinstance(one, Resultant) for one in support.angles))
        for one, two in zip(told.stance.legs, planned(built).stance.legs, strict=True):
            for a, b in zip(one.foot, two.foot, strict=True):
                self.assertAlmostEqual(a, b, delta=0.1)


class Class(SimpleTestCase):
    def test_it_is_handed_out_out_of_order_the_same_way_for_one_learner(self) -> None:
        for seed in range(12):
            made, whole, _ = buildable(random.Random(seed))
            order = order_of(made, whole, Build())
            given = [step.key for step in mixed(order, "kim")]
            self.assertEqual(sorted(given), sorted(step.key for step in order.steps))
            self.assertTrue(judged(order, given))
            self.assertEqual(given, [step.key for step in mixed(order, "kim")])
            self.assertNotEqual(given, [step.key for step in mixed(order, "jo")])

    def test_any_order_that_breaks_no_reason_is_right(self) -> None:
        order = ordered("bench")
        keys = [step.key for step in order.steps]
        self.assertEqual(judged(order, keys), ())
        a, b = keys.index("member.m1.line"), keys.index("member.m2.making")
        keys[a], keys[b] = keys[b], keys[a]
        self.assertEqual(judged(order, [k for k in keys if k not in ("gone",)]), ())

    def test_each_reason_is_told_once_and_counted_over_the_class(self) -> None:
        order = ordered()
        back = [step.key for step in reversed(order.steps)]
        wrong = judged(order, back)
        self.assertEqual(len({one.why for one in wrong}), len(wrong))
        told = common([wrong, wrong[:1], ()])
        self.assertEqual((told[0].why, told[0].learners), (wrong[0].why, 2))
        self.assertTrue(all(one.learners == 1 for one in told[1:]))
