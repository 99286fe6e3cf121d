"""Hollows: how they are told to be cut, and what that comes to."""

from __future__ import annotations

import itertools
import math
import random
from collections.abc import Callable
from dataclasses import replace
from typing import Any

import numpy as np
from django.test import SimpleTestCase

from splay.build import Build, Record, order_of
from splay.piece import Piece, read_piece, write_piece
from splay.piece.starters import starter
from splay.plan import Plan, plan
from splay.reading import Reading
from splay.setups.card import SetUp
from splay.setups.hollows import KEEP_MM, LATH_SHARE, under_edge
from splay.shop import workbench
from splay.work.does import Do
from splay.work.seat import Rim
from splay.work.tops import DepthHoles, HollowLine, Runners, StripEnds, StripSides, StripsLaid
from tests.bench.gauges import Gauges
from tests.bench.judged import Judge
from tests.core.make import with_cards

TROUGH = {"way": "trough", "across": "length", "chord": 320, "depth": 12}
DISH = {"way": "dish", "length": 280, "width": 220, "depth": 9}


def hollowed(hollow: dict[str, Any], start: str = "round_four", **top: Any) -> Piece:
    document = write_piece(starter(start))
    document["top"] |= {"hollow": hollow, "thickness": 45, **top}
    return read_piece(document)


def cards(made: Plan) -> dict[str, SetUp]:
    return {card.by: card for card in made.setups if card.operation == "hollow"}


def cards_of(made: Plan) -> list[SetUp]:
    return [card for card in made.setups if card.operation in ("hollow", "hollow_strips")]


class Told(SimpleTestCase):
    def made(self, hollow: dict[str, Any], **more: Any) -> tuple[Piece, Plan]:
        piece = hollowed(hollow, **more)
        return piece, plan(piece, workbench())

    def test_depth_holes_stop_just_short_of_the_arc(self) -> None:
        """Radius of the arc over chord c and depth g: (c²/4 + g²) / 2g; 320 over 12 is 1072.67."""
        _, made = self.made(TROUGH)
        (holes,) = (do for do in cards(made)["scooping"].does if isinstance(do, DepthHoles))
        radius = (160.0**2 + 12.0**2) / 24.0
        self.assertAlmostEqual(radius, 1072.6667, 4)
        self.assertEqual([round(hole.out.value, 3) for hole in holes.holes], [0.0, 53.333, 106.667])
        for hole in holes.holes:
            arc = math.sqrt(radius**2 - hole.out.value**2) - (radius - 12.0)
            self.assertAlmostEqual(hole.deep.value, arc - KEEP_MM, 9)

    def test_a_dish_is_bored_along_both_middle_lines_its_middle_once(self) -> None:
        _, made = self.made(DISH)
        one, two = (do for do in cards(made)["scooping"].does if isinstance(do, DepthHoles))
        self.assertEqual((one.line, two.line), ("left-right line", "front-back line"))
        self.assertEqual((one.holes[0].out.value, one.holes[0].deep.value), (0.0, 8.5))
        self.assertGreater(two.holes[0].out.value, 0.0)
        # The same arc stretched: as deep at the same share of its own half.
        for a, b in zip(one.holes[1:], two.holes, strict=True):
            self.assertAlmostEqual(a.out.value / 140.0, b.out.value / 110.0, 9)
            self.assertAlmostEqual(a.deep.value, b.deep.value, 9)
        self.assertEqual(set(cards(made)), {"scooping"}, "runners and saw make no dish")

    def test_runners_are_rounder_than_the_hollow_by_depth_and_their_own_height(self) -> None:
        _, made = self.made(TROUGH)
        (told,) = (do for do in cards(made)["runners"].does if isinstance(do, Runners))
        self.assertAlmostEqual(told.radius.value, 1072.6667 - 12.0 - 25.0, 3)
        rise = told.radius.value - math.sqrt(told.radius.value**2 - 160.0**2)
        self.assertAlmostEqual(told.high.value, 25.0 + rise, 9)
        # Deeper than a half circle under them no runner could be.
        _, steep = self.made({**TROUGH, "chord": 60, "depth": 25})
        self.assertNotIn("runners", cards(steep))

    def test_a_bent_lath_is_no_arc(self) -> None:
        """A beam held at its ends and pressed in its middle (closed form, as in Machinery's Handbook's beam
        tables; recalled) against a parabola of the same depth, which so shallow an arc is."""
        u = np.linspace(0.0, 1.0, 20001)
        lath, arc = 1.0 - 1.5 * u**2 + 0.5 * u**3, 1.0 - u**2
        self.assertAlmostEqual(float((arc - lath).max()), LATH_SHARE, 8)
        self.assertAlmostEqual(float(u[(arc - lath).argmax()]), 2.0 / 3.0, 3)

    def test_where_it_begins_is_struck_from_the_middle_lines(self) -> None:
        for hollow, wanted in (
            (TROUGH, "160 mm from the front-back line"),
            ({**TROUGH, "across": "width"}, "160 mm from the left-right line"),
            ({**DISH, "width": 280}, "Compasses at 140 mm"),
            # Pins √(140² − 110²) = 86.6 from the middle, a loop of 2 · (140 + 86.6).
            (DISH, "Two pins on the left-right line, 86.5 mm from the middle"),
        ):
            piece, made = self.made(hollow)
            step = next(one for one in made.layout.steps if "hollow begins" in one.title)
            self.assertIn(wanted, step.words)
            (rim,) = (act for act in step.acts if isinstance(act, Rim))
            if rim.pin is not None and rim.loop is not None:
                self.assertAlmostEqual(rim.pin.value, math.sqrt(140.0**2 - 110.0**2), 9)
                self.assertAlmostEqual(rim.loop.value, 2.0 * (140.0 + rim.pin.value), 9)
            titles = [one.title for one in made.layout.steps]
            self.assertEqual(titles.count("Carry the middle lines over to the upper face"), 1)
            self.assertTrue(piece.top.hollow)

    def test_its_reading_is_what_a_rule_finds_under_a_straight_edge(self) -> None:
        piece, made = self.made(TROUGH, outline={"kind": "rectangle", "length": 400, "width": 300})
        proof = next(one for one in made.proofs if one.kind == "hollow")
        self.assertAlmostEqual(proof.expected.value, 12.0)
        read = plan(piece, workbench(), [Reading(proof.id, 13.6, kind="hollow")])
        self.assertEqual(next(one.verdict for one in read.proofs if one.id == proof.id), "off")
        # Run out over both ends the straight-edge lies on lower edges: 12 less what the arc takes at 150.
        over = hollowed(
            {**TROUGH, "chord": 400}, outline={"kind": "rectangle", "length": 300, "width": 300}
        )
        radius = (200.0**2 + 12.0**2) / 24.0
        edge = math.sqrt(radius**2 - 150.0**2) - (radius - 12.0)
        self.assertAlmostEqual(under_edge(over.top, "left-right line"), 12.0 - edge, 6)

    def test_a_waist_that_crosses_the_middle_line_again_does_not_confuse_it(self) -> None:
        """A seat with a lobe beyond a notch on the left-right line: its own edge at 150 is what counts."""
        round_it = (
            (-150, -120), (250, -120), (250, 120), (200, 120),
            (200, -60), (150, -60), (150, 120), (-150, 120),
        )  # fmt: skip
        corners = [{"x": x, "y": y, "sharp": True} for x, y in round_it]
        outline = {"kind": "drawn", "corners": corners, "smooth": False}
        piece = hollowed({**TROUGH, "chord": 400}, outline=outline)
        radius = (200.0**2 + 12.0**2) / 24.0
        edge = math.sqrt(radius**2 - 150.0**2) - (radius - 12.0)
        self.assertAlmostEqual(under_edge(piece.top, "left-right line"), 12.0 - edge, 6)

    def test_the_step_carries_its_cards_after_the_seat_is_bored(self) -> None:
        _, made = self.made(TROUGH)
        order = [card.operation for card in made.setups]
        self.assertLess(max(k for k, one in enumerate(order) if one == "bore"), order.index("hollow"))
        self.assertTrue(all(card.proofs == ("hollow",) for card in cards(made).values()))


class ByStrips(SimpleTestCase):
    """The strips' own shares of a hollow: lines on their sides or ends, before they are glued."""

    def card(self, hollow: dict[str, Any], **top: Any) -> SetUp:
        top = {"boards": [70, 90, 90, 70], "grain": 0, **top}
        (card,) = cards_of(plan(hollowed({**hollow, "strips": True}, **top), workbench()))
        return card

    def test_across_a_trough_each_end_has_its_own_line_and_neighbours_meet(self) -> None:
        """Of an arc of radius R = (c²/4 + g²) / 2g the depth at s is √(R² − s²) − (R − g)."""
        card = self.card({**TROUGH, "across": "width"})
        radius = (160.0**2 + 12.0**2) / 24.0
        seams = []
        ends = [do for do in card.does if isinstance(do, StripEnds)]
        for do, begins in zip(ends, (-160.0, -90.0, 0.0, 90.0), strict=True):
            for place in do.places:
                at = begins + place.out.value
                wanted = math.sqrt(radius**2 - at**2) - (radius - 12.0)
                self.assertAlmostEqual(place.deep.value, wanted, 9)
            seams.append((do.places[0].deep.value, do.places[-1].deep.value))
        for one, two in itertools.pairwise(seams):
            self.assertEqual(one[1], two[0])
        # A chord of 45 on that radius stands off by 45² / 8R.
        assert ends[1].left is not None
        self.assertAlmostEqual(ends[1].left.value, 45.0**2 / 8.0 / radius, 2)

    def test_the_rim_inside_a_strip_is_a_place_of_its_own(self) -> None:
        """A straight run from the strip's flat side would take wood that stays."""
        card = self.card({**TROUGH, "across": "width", "chord": 260})
        first = next(do for do in card.does if isinstance(do, StripEnds))
        self.assertEqual([round(p.out.value, 6) for p in first.places], [0.0, 30.0, 35.0, 70.0])
        self.assertEqual([p.deep.value for p in first.places[:2]], [0.0, 0.0])

    def test_of_a_dish_each_seam_is_an_arc_with_the_same_middle(self) -> None:
        """At v across, a dish L long and W wide is L √(1 − (2v/W)²) long."""
        card = self.card(DISH)
        two = next(do for do in card.does if isinstance(do, StripSides) and 2 in do.strips)
        outer, inner = two.sides
        self.assertAlmostEqual(outer.places[-1].out.value, 140.0 * math.sqrt(1.0 - (90.0 / 110.0) ** 2), 6)
        self.assertAlmostEqual(inner.places[0].deep.value, 9.0, 9)
        self.assertIn("Strip 1: on the side towards FRONT it stays whole", " ".join(card.steps))

    def test_strips_along_a_trough_are_all_alike(self) -> None:
        said = " ".join(self.card({**TROUGH, "across": "length"}).steps)
        self.assertIn("Strips 1, 2, 3 and 4: on both long sides 12.0 mm down on that line", said)
        self.assertIn("it stands for the front-back line", said)

    def test_they_are_hollowed_before_they_are_glued_and_bored_after(self) -> None:
        piece = hollowed({**DISH, "strips": True}, boards=[70, 90, 90, 70], grain=0)
        made = plan(piece, workbench())
        steps = [step.operation for step in order_of(piece, made, Build(), Record()).steps]
        wanted = ["ready", "hollow_strips", "glue_boards", "lay_out", "bore"]
        self.assertEqual([one for one in steps if one in wanted], wanted)
        self.assertNotIn("hollow", steps)
        self.assertFalse(any("hollow begins" in one.title for one in made.layout.steps))
        self.assertIn("under the middle of the hollow: halfway across all", made.layout.steps[0].words)
        self.assertNotIn("before any edge is rounded or any hollow cut", made.layout.steps[0].words)
        self.assertIn("hollow", [proof.kind for proof in made.proofs])

    def test_what_has_no_strips_or_lies_askew_is_hollowed_whole_and_says_so(self) -> None:
        for top, code in (
            ({"boards": [320]}, "strips_none"),
            ({"boards": [160, 160], "grain": 20}, "strips_askew"),
        ):
            made = plan(hollowed({**DISH, "strips": True}, **top), workbench())
            self.assertIn(code, [found.code for found in made.findings])
            self.assertEqual({card.operation for card in cards_of(made)}, {"hollow"})

    def test_a_hole_bored_from_a_face_that_is_hollow_by_then_is_stopped(self) -> None:
        document = write_piece(hollowed({**DISH, "strips": True}, boards=[160, 160], grain=0))
        document["top"]["hollow"] |= {"length": 330, "width": 330}
        for face, level in (("upper", "stop"), ("underside", None)):
            document["supports"][0]["joint"] = {"way": "through", "socket": 25, "bored_from": face}
            codes = {one.code: one.level for one in plan(read_piece(document), workbench()).findings}
            self.assertEqual(codes.get("strips_bored_from_above"), level)

    def test_the_bench_finds_strips_told_from_the_wrong_side(self) -> None:
        piece = hollowed({**DISH, "strips": True}, boards=[60, 90, 100, 70], grain=0)
        made = plan(piece, workbench())

        def told(change: Callable[[Do], Do]) -> set[str]:
            cards = tuple(
                replace(card, does=tuple(change(do) for do in card.does))
                if card.operation == "hollow_strips"
                else card
                for card in made.setups
            )
            tally = Judge(piece, with_cards(made, cards), workbench()).all()
            return {what for what, (off, _) in tally.worst.items() if off > 0.05 and "strip" in what}

        self.assertEqual(told(lambda do: do), set())
        backwards = told(
            lambda do: replace(do, first=do.last, last=do.first) if isinstance(do, StripsLaid) else do
        )
        self.assertIn("strips numbered from the wrong side", backwards)
        renumbered = told(
            lambda do: (
                replace(do, strips=tuple(5 - n for n in do.strips)) if isinstance(do, StripSides) else do
            )
        )
        self.assertIn("strip's side mm", renumbered)


class Blind(SimpleTestCase):
    def worst(self, piece: Piece, turned: Callable[[Do], Do] = lambda do: do) -> set[str]:
        """What the bench finds wrong, the hollow's cards told as they are or otherwise."""
        made = plan(piece, workbench())
        told = (
            replace(card, does=tuple(turned(do) for do in card.does))
            if card.operation == "hollow"
            else card
            for card in made.setups
        )
        judge = Judge(piece, with_cards(made, told), workbench())
        tally = judge.all()
        return {
            what
            for what, (off, _) in tally.worst.items()
            if "hol" in what or "runner" in what
            if off > 0.05
        }

    def test_random_hollows_are_cut_as_told_and_read_as_expected(self) -> None:
        rng = random.Random(77)
        for _ in range(24):
            chord, depth = rng.uniform(120, 500), rng.uniform(3, 20)
            hollow = (
                {"way": "trough", "across": rng.choice(("length", "width")), "chord": chord, "depth": depth}
                if rng.random() < 0.6
                else {"way": "dish", "length": chord, "width": rng.uniform(120, 300), "depth": depth}
            )
            long, wide = rng.uniform(300, 600), rng.uniform(250, 360)
            outline = rng.choice(
                (
                    {"kind": "rectangle", "length": long, "width": wide},
                    {"kind": "oval", "length": long, "width": wide},
                )
            )
            piece = hollowed(hollow, outline=outline)
            with self.subTest(hollow=hollow, outline=outline):
                self.assertEqual(self.worst(piece), set())
                made = plan(piece, workbench())
                judge = Judge(piece, made, workbench())
                judge.all()
                proof = next(one for one in made.proofs if one.kind == "hollow")
                read = Gauges(judge).read(proof)
                assert read is not None
                self.assertAlmostEqual(read, proof.expected.value, delta=0.02)

    def test_what_is_told_wrong_is_found(self) -> None:
        def more(kind: type, **change: float | str) -> Callable[[Do], Do]:
            def turned(do: Do) -> Do:
                if not isinstance(do, kind):
                    return do
                given = {
                    name: by if isinstance(by, str) else replace(now, value=now.value + by)
                    for name, by in change.items()
                    if (now := getattr(do, name)) is not None
                }
                return replace(do, **given)  # type: ignore[type-var]

            return turned

        def deeper(do: Do) -> Do:
            if not isinstance(do, DepthHoles):
                return do
            holes = (replace(h, deep=replace(h.deep, value=h.deep.value + 1.0)) for h in do.holes)
            return replace(do, holes=tuple(holes))

        piece = hollowed(TROUGH)
        self.assertEqual(self.worst(piece), set())
        self.assertIn("depth hole too deep mm", self.worst(piece, deeper))
        other = more(DepthHoles, line="front-back line")
        self.assertIn("depth hole tells nothing mm", self.worst(piece, other))
        self.assertIn("runner's hollow mm", self.worst(piece, more(Runners, radius=30.0)))
        self.assertIn("runner's hollow mm", self.worst(piece, more(Runners, deep=0.4)))
        self.assertIn("runner high at the rim mm", self.worst(piece, more(Runners, high=1.0)))
        self.assertIn("hollow's line mm", self.worst(piece, more(HollowLine, deep=1.0)))
