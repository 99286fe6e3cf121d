"""The order of work: nothing before what it needs, the maker's own order kept and judged."""

from __future__ import annotations

import random
from itertools import pairwise

from django.test import SimpleTestCase

from splay.build import NOTHING, Build, Order, Record, Step, order_of, read_build, takes, write_build
from splay.errors import BadInput
from splay.piece import Piece
from splay.piece.starters import STARTS, starter
from splay.plan import Plan, plan
from splay.shop import Shop, with_every_kind, workbench
from splay.work.ledger import Entry, Ledger
from tests.bench.pieces import buildable
from tests.core.make import piece, planned, round_stool

# The order of work as makers hand it on (common practice, no source), written down apart from the rules:
# whatever stands on the left comes before what stands on the right, where a piece has both.
TRADE = (
    ("ready", "lay_out"),
    ("glue_boards", "lay_out"),
    ("lay_out", "bore"),
    ("lay_out", "edges"),
    ("lay_out", "hollow"),
    ("bore", "hollow"),
    ("bore", "cut_outline"),
    ("tenon", "taper"),
    ("tenon", "octagon"),
    ("taper", "octagon"),
    ("bore", "fit"),
    ("tenon", "fit"),
    ("fit", "dry_fit"),
    ("ease", "glue"),
    ("kerf", "wedge"),
    ("wedges", "wedge"),
    ("dry_run", "glue"),
    ("glue", "wedge"),
    ("glue", "level"),
    ("wedge", "level"),
    ("glue", "peg"),
    ("peg", "peg_in"),
    ("peg_in", "level"),
    ("wedge", "trim_flush"),
    ("trim_flush", "finish"),
    ("level", "finish"),
    ("ease_feet", "finish"),
    ("finish", "write_down"),
)


def ordered(made: Piece, build: Build | None = None, record: Record = NOTHING) -> Order:
    return order_of(made, plan(made, workbench()), build or Build(), record)


def places(order: Order, operation: str) -> list[int]:
    return [k for k, step in enumerate(order.steps) if any(u.operation == operation for u in step.units)]


def missing(order: Order, made: Plan) -> list[object]:
    """Marks that a step leans on and no earlier one made, told by the ledger and not by the needs."""
    entries = []
    cards = {card.id: card for card in made.setups}
    for step in order.steps:
        if step.operation == "lay_out":
            entries += [Entry(one.title, one.uses, one.makes) for one in made.layout.steps]
        elif step.cards:
            card = cards[step.cards[0]]
            entries.append(Entry(card.id, card.uses, card.makes, card.loses))
    return list(Ledger().follow(entries).missing)


class TheTradesOrder(SimpleTestCase):
    def check(self, order: Order, made: Plan) -> None:
        for before, after in TRADE:
            firsts, lasts = places(order, after), places(order, before)
            if firsts and lasts:
                self.assertLess(max(lasts), min(firsts), f"{before} comes before {after}")
        self.assertEqual(missing(order, made), [])
        self.assertEqual(order.broken, ())

    def test_every_kind_of_piece_is_worked_in_an_order_the_trade_would_own_to(self) -> None:
        for name in STARTS:
            with self.subTest(name):
                self.check(ordered(starter(name)), planned(starter(name)))

    def test_and_so_are_random_pieces_with_every_card_and_reading_in_just_one_step(self) -> None:
        for seed in range(60):
            made, whole, _ = buildable(random.Random(seed))
            order = order_of(made, whole, Build())
            with self.subTest(seed):
                self.check(order, whole)
                cards = [id for step in order.steps for id in step.cards]
                self.assertCountEqual(cards, [card.id for card in whole.setups])
                asked = [id for step in order.steps for id in step.proofs]
                self.assertEqual(len(asked), len(set(asked)))
                told = {id for card in whole.setups for id in card.proofs}
                self.assertLessEqual(told, set(asked))
                keys = [step.key for step in order.steps]
                self.assertEqual(len(keys), len(set(keys)))

    def test_stretchers_are_cut_after_the_dry_legs_were_read_and_their_sockets_bored(self) -> None:
        order = ordered(starter("bench"))
        titles = [step.title for step in order.steps]
        self.assertEqual(
            [t for t in titles if "tretcher" in t],
            [
                "Bore legs 1, 2, 3 and 4 for stretchers 1 and 2",
                "Cut and tenon stretcher 1",
                "Cut and tenon stretcher 2",
                "Draw the floor-side line on stretcher 1",
                "Draw the floor-side line on stretcher 2",
                "Put it together dry with stretchers 1 and 2",
                "Bore stretchers 1 and 2 for stretcher 3",
                "Cut and tenon stretcher 3",
            ],
        )
        first, again = (step for step in order.steps if step.operation == "dry_fit")
        self.assertEqual(len(first.proofs), 6)
        self.assertEqual(len(again.proofs), 3)
        self.assertLess(
            titles.index("Put it together dry"),
            titles.index("Bore legs 1, 2, 3 and 4 for stretchers 1 and 2"),
        )

    def test_glue_rests_after_each_stage_and_wedges_follow_the_last_at_once(self) -> None:
        made = starter("triangle")
        steps = ordered(made).steps
        glued = [step for step in steps if step.operation == "glue"]
        wedge = next(step for step in steps if step.operation == "wedge")
        self.assertIsNone(glued[-1].wait)
        self.assertEqual(steps[steps.index(glued[-1]) + 1], wedge)
        assert wedge.wait is not None
        self.assertEqual(wedge.wait.for_what, "the glue to set")
        self.assertTrue(all(step.wait for step in glued[:-1]))

    def test_a_tenon_flush_with_the_seat_is_sawn_and_a_proud_one_left(self) -> None:
        flush, proud = (
            round_stool(12.0),
            round_stool(12.0, joint={"way": "through", "socket": 25, "proud": 4}),
        )
        self.assertTrue(places(ordered(flush), "trim_flush"))
        self.assertFalse(places(ordered(proud), "trim_flush"))

    def test_a_joint_that_is_new_is_tried_on_scrap_and_one_made_before_is_not(self) -> None:
        made = round_stool(12.0)
        self.assertTrue(places(ordered(made), "practice"))
        self.assertFalse(places(ordered(made, record=Record(joints=frozenset({"through"}))), "practice"))

    def test_the_outline_cut_first_wants_a_cradle_and_breaks_nothing(self) -> None:
        order = ordered(round_stool(12.0), Build(outline="before_boring"))
        self.assertLess(places(order, "cut_outline")[0], places(order, "bore")[0])
        self.assertEqual(order.broken, ())
        bore = next(step for step in order.steps if step.operation == "bore")
        self.assertTrue(any("cradle" in one for one in bore.lay_out))

    def test_without_glue_nothing_rests(self) -> None:
        order = ordered(starter("bench"), Build(glue="none"))
        self.assertFalse(any(step.wait for step in order.steps if step.operation in {"glue", "wedge"}))


class Tools(SimpleTestCase):
    def test_what_no_tool_of_the_shop_does_is_to_be_done_all_the_same(self) -> None:
        for name in STARTS:
            made = starter(name)
            bare = Shop(tools=())
            every, lent = with_every_kind(bare)
            whole = order_of(made, plan(made, workbench()), Build())
            order = order_of(made, plan(made, every), Build(), lent=lent)
            self.assertEqual([step.key for step in order.steps], [step.key for step in whole.steps], name)
            self.assertEqual(order.broken, ())
            owned = {card.id for card in plan(made, bare).setups}
            for step, usual in zip(order.steps, whole.steps, strict=True):
                self.assertLessEqual(set(step.cards), owned)
                if usual.cards and not step.cards:
                    self.assertIn("No tool of the shop does this", step.do[0])

    def test_a_shop_that_has_every_kind_is_lent_nothing(self) -> None:
        shop, lent = with_every_kind(workbench())
        self.assertEqual((shop, lent), (workbench(), frozenset()))


class TheMakersOrder(SimpleTestCase):
    made = piece()

    def moved(self, order: Order, key: str, to: int) -> Build:
        keys = [step.key for step in order.steps if step.key != key]
        return Build(order=(*keys[:to], key, *keys[to:]))

    def key(self, order: Order, operation: str) -> str:
        return next(step.key for step in order.steps if step.operation == operation)

    def test_a_step_moved_stays_where_it_was_put_and_the_reason_it_breaks_is_said_with_its_cost(
        self,
    ) -> None:
        order = ordered(self.made)
        bore = self.key(order, "bore")
        again = ordered(self.made, self.moved(order, bore, 0))
        self.assertEqual(again.steps[0].key, bore)
        self.assertIn(
            ("Mark out the seat", "the holes are bored on its marks"),
            [(one.wanted, one.why) for one in again.broken if one.key == bore],
        )
        self.assertTrue(all(one.costs and not one.skipped for one in again.broken))

    def test_two_that_do_not_lean_on_each_other_change_places_freely(self) -> None:
        order = ordered(self.made)
        keys = [step.key for step in order.steps]
        asked = {(need.before, need.after) for need in order.needs}
        free = [(a, b) for a, b in pairwise(keys) if (a, b) not in asked]
        self.assertTrue(free)
        for a, b in free:
            swapped = [b if key == a else a if key == b else key for key in keys]
            again = ordered(self.made, Build(order=tuple(swapped)))
            self.assertEqual([step.key for step in again.steps], swapped)
            self.assertEqual(again.broken, ())

    def test_any_two_that_do_lean_on_each_other_are_told_when_changed_over(self) -> None:
        order = ordered(self.made)
        keys = [step.key for step in order.steps]
        for need in order.needs:
            a, b = keys.index(need.before), keys.index(need.after)
            turned = [*keys[:a], *keys[a + 1 : b + 1], keys[a], *keys[b + 1 :]]
            again = ordered(self.made, Build(order=tuple(turned)))
            self.assertIn((need.after, need.before), [(one.key, one.wants) for one in again.broken])

    def test_a_step_left_out_is_kept_and_what_leaned_on_it_says_so(self) -> None:
        build = read_build({"skipped": [{"key": "dry_run", "why": "done it a hundred times"}]})
        order = ordered(self.made, build)
        self.assertNotIn("dry_run", [step.key for step in order.steps])
        self.assertEqual([step.key for step in order.skipped], ["dry_run"])
        self.assertTrue(all(one.skipped for one in order.broken))
        self.assertIn("glue.1", [one.key for one in order.broken])

    def test_a_step_of_ones_own_stands_where_it_was_put_with_its_time_and_wait(self) -> None:
        build = read_build(
            {
                "added": [
                    {
                        "title": "Fume it",
                        "do": "tent\nammonia",
                        "minutes": 40,
                        "wait_h": 24,
                        "before": "ease",
                    }
                ]
            }
        )
        steps = ordered(self.made, build).steps
        at = next(k for k, step in enumerate(steps) if step.title == "Fume it")
        self.assertEqual(steps[at + 1].key, "ease")
        self.assertEqual(steps[at].do, ("tent", "ammonia"))
        assert steps[at].wait is not None
        self.assertEqual((takes(steps[at], NOTHING).minutes, steps[at].wait.least_h), (40.0, 24.0))

    def test_a_circle_of_own_steps_is_refused_by_name(self) -> None:
        added = [
            {"id": "o1", "title": "Fume it", "after": ["o2"]},
            {"id": "o2", "title": "Wax it", "after": ["o1"]},
        ]
        with self.assertRaises(BadInput) as caught:
            read_build({"added": added})
        self.assertIn("'Fume it' and 'Wax it'", caught.exception.faults[0].allowed)

    def test_split_legs_are_worked_one_by_one_and_together_they_are_the_step(self) -> None:
        order = ordered(self.made)
        bore = next(step for step in order.steps if step.operation == "bore")
        split = ordered(self.made, Build(split=(bore.key,)))
        mine = [step for step in split.steps if step.operation == "bore"]
        self.assertEqual([unit for step in mine for unit in step.units], list(bore.units))
        self.assertEqual(split.broken, ())
        total = sum(takes(step, NOTHING).minutes for step in mine)
        self.assertAlmostEqual(total, takes(bore, NOTHING).minutes)

    def test_legs_worked_one_after_the_other_each_from_tenon_to_eight_sides_break_nothing(self) -> None:
        order = ordered(self.made)
        keys = [step.key for step in order.steps if step.operation in {"tenon", "octagon"}]
        split = ordered(self.made, Build(split=tuple(keys)))
        mine = [step for step in split.steps if step.operation in {"tenon", "octagon"}]
        legs = sorted(mine, key=lambda step: (step.units[0].of, step.operation != "tenon"))
        at = split.steps.index(mine[0])
        rest = [step.key for step in split.steps if step not in mine]
        by_leg = (*rest[:at], *(step.key for step in legs), *rest[at:])
        again = ordered(self.made, Build(split=tuple(keys), order=by_leg))
        self.assertEqual([step.key for step in again.steps], list(by_leg))
        self.assertEqual(again.broken, ())
        back = (*rest[:at], *(step.key for step in reversed(legs)), *rest[at:])
        self.assertEqual(len(ordered(self.made, Build(split=tuple(keys), order=back)).broken), 4)

    def test_merged_steps_are_one_with_all_their_cards_and_what_stood_between_is_told(self) -> None:
        order = ordered(self.made)
        keys = [step.key for step in order.steps if step.operation in {"tenon", "octagon"}]
        merged = ordered(self.made, Build(merged=(tuple(keys),)))
        one = next(step for step in merged.steps if step.key == keys[0])
        parts = [step for step in order.steps if step.key in keys]
        self.assertEqual(one.cards, tuple(id for step in parts for id in step.cards))
        self.assertEqual(len(merged.steps), len(order.steps) - len(keys) + 1)
        bad = ordered(self.made, Build(merged=(("lay_out", "fit.s1"),)))
        self.assertTrue([one for one in bad.broken if one.key == "lay_out"], "boring stands between these")

    def test_an_order_names_what_is_no_more_and_misses_what_is_new_without_harm(self) -> None:
        order = ordered(self.made)
        keys = [step.key for step in order.steps if step.operation != "mark"]
        again = ordered(self.made, Build(order=("gone", *keys)))
        self.assertEqual([step.key for step in again.steps], [step.key for step in order.steps])

    def test_an_order_kept_for_such_pieces_is_followed_as_far_as_it_breaks_nothing(self) -> None:
        record = Record(order=("write_down", "tenon", "fit", "bore", "lay_out"))
        order = ordered(self.made, record=record)
        self.assertLess(places(order, "tenon")[0], places(order, "lay_out")[0])
        self.assertEqual(order.broken, ())
        self.assertEqual(order.steps[-1].operation, "write_down")

    def test_the_document_goes_out_and_comes_back_the_same(self) -> None:
        build = read_build(
            {
                "order": ["bore.l1", "lay_out", "bore.l1"],
                "added": [{"title": "Fume it"}, {"title": "Wax it"}],
                "split": ["bore.l1"],
                "merged": [["ease", "dry_run"]],
                "glue": "hide",
            }
        )
        self.assertEqual(read_build(write_build(build)), build)
        self.assertEqual(build.order, ("bore.l1", "lay_out"))
        self.assertEqual(len({one.id for one in build.added}), 2)


class HowLong(SimpleTestCase):
    def step(self, operation: str) -> Step:
        return next(step for step in ordered(piece()).steps if step.operation == operation)

    def test_a_makers_own_time_takes_the_place_of_the_usual_one_once_there_are_three(self) -> None:
        tenons = self.step("tenon")
        usual = takes(tenons, NOTHING)
        self.assertEqual((usual.minutes, usual.whose), (10 + 4 * 15, 0))
        self.assertEqual(takes(tenons, Record(minutes={"tenon": (9.0, 8.0)})), usual)
        own = takes(tenons, Record(minutes={"tenon": (9.0, 40.0, 8.0)}))
        self.assertEqual((own.minutes, own.whose), (4 * 9.0, 3))

    def test_a_batch_is_set_up_once(self) -> None:
        self.assertEqual(takes(self.step("tenon"), NOTHING, 6).minutes, 10 + 6 * 4 * 15)
