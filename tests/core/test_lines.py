"""What is typed in lines: read by the core, and a line that is left alone keeps what it was."""

from __future__ import annotations

from typing import Any

from django.test import SimpleTestCase

from splay.errors import BadInput
from splay.piece import Leg, Piece, read_piece, write_piece
from splay.piece.lines import lines
from splay.piece.starters import starter
from splay.plan import plan
from splay.quantity import Show, Units
from splay.shop import workbench

STICKS = "supports.0.leg.sticks"
METRIC = Show(Units(system="metric", step_mm=0.5, fraction=32))
INCHES = Show(Units(system="inch", step_mm=0.5, fraction=32))


def typed(piece: Piece, of: str, text: str, show: Show = METRIC) -> Piece:
    """The piece after somebody typed lines about its legs' sticks, as the page sends them."""
    document = write_piece(piece)
    leg = document["supports"][0]["leg"]
    sticks = leg["sticks"]
    were: list[Any] = sticks
    if of == "old":
        were = [hole for stick in sticks for hole in stick["old"]]
    if of == "bend":
        were = [stick["bend"] for stick in sticks if stick["bend"]]
    shown = lines(piece, show).get(STICKS if of == "sticks" else f"{STICKS}.{of}", "")
    leg["sticks"] = {"lines": text, "of": of, "were": were, "shown": shown, "sticks": sticks}
    return read_piece(document, "inch" if show is INCHES else "metric", "piece")


def leg_of(piece: Piece) -> Leg:
    return next(support.leg for _, support in piece.staked())


def sticks_of(piece: Piece) -> list[tuple[float, float, str]]:
    return [(one.length, one.at_foot, one.note) for one in leg_of(piece).sticks]


class Sticks(SimpleTestCase):
    def setUp(self) -> None:
        self.piece = starter("round_four")

    def said(self, call: Any) -> tuple[str, str]:
        with self.assertRaises(BadInput) as caught:
            call()
        return caught.exception.faults[0].field, caught.exception.faults[0].said()

    def test_a_stick_a_line_its_foot_as_the_leg_s_where_none_is_said(self) -> None:
        foot = leg_of(self.piece).at_foot
        made = typed(self.piece, "sticks", " 620, 31, ash, from the hedge \n\n61 cm;;\n600")
        wanted = [(620.0, 31.0, "ash, from the hedge"), (610.0, foot, ""), (600.0, foot, "")]
        self.assertEqual(sticks_of(made), wanted)

    def test_bare_figures_are_read_in_the_maker_s_unit(self) -> None:
        self.assertEqual(sticks_of(typed(self.piece, "sticks", "24, 1 1/4", INCHES))[0][:2], (609.6, 31.75))

    def test_a_line_left_alone_keeps_its_figure_to_the_last_digit(self) -> None:
        made = typed(self.piece, "sticks", "612.34, 30\n600, 30")
        self.assertEqual(lines(made, METRIC)[STICKS], "612.5 mm, 30 mm\n600 mm, 30 mm")
        again = typed(made, "sticks", "612.5 mm, 30 mm\n601, 30")
        self.assertEqual([one[0] for one in sticks_of(again)], [612.34, 601.0])
        there = typed(made, "sticks", lines(made, INCHES)[STICKS], INCHES)
        self.assertEqual(sticks_of(there), sticks_of(made))

    def test_what_no_line_tells_stays_with_its_stick(self) -> None:
        made = typed(self.piece, "sticks", "610, 30\n610, 30\n605, 30")
        made = typed(made, "old", "2, 18, 52\n2, 90, 110\n3, 20, 40")
        made = typed(made, "bend", "1, 12, 300, inward")
        first, second, third = leg_of(made).sticks
        self.assertEqual([(one.nearer, one.farther) for one in second.old], [(18.0, 52.0), (90.0, 110.0)])
        self.assertEqual((len(first.old), len(third.old)), (0, 1))
        assert first.bend is not None
        self.assertEqual((first.bend.rise, first.bend.at, first.bend.faces), (12.0, 300.0, "inward"))
        # Two that read alike are two; one put in above moves nothing; one of them changed keeps its own.
        above = typed(made, "sticks", f"700, 32\n{lines(made, METRIC)[STICKS]}")
        self.assertEqual([len(one.old) for one in leg_of(above).sticks], [0, 0, 2, 1])
        other = typed(made, "sticks", "610 mm, 30 mm\n611, 30\n605 mm, 30 mm")
        self.assertEqual([len(one.old) for one in leg_of(other).sticks], [0, 2, 1])
        self.assertEqual(leg_of(typed(made, "bend", "")).sticks[0].bend, None)

    def test_a_line_about_no_stick_there_is_is_said_where_it_was_typed(self) -> None:
        made = typed(self.piece, "sticks", "610, 30\n605, 30")
        for of in ("old", "bend"):
            for line in ("3, 20, 40", "0, 20, 40", "x, 20, 40", "², 20, 40", ", 20, 40"):
                field, said = self.said(lambda of=of, line=line: typed(made, of, line))
                self.assertEqual(field, f"piece.{STICKS}.{of}")
                self.assertIn("a stick from 1 to 2", said)
        alone = typed(self.piece, "sticks", "610, 30")
        _, said = self.said(lambda: typed(alone, "bend", "2, 12, 300"))
        self.assertIn("wanted: stick 1, the only one", said)
        _, said = self.said(lambda: typed(made, "old", "1, 20, 40, 60"))
        self.assertIn("at most 2 more", said)

    def test_a_figure_that_cannot_be_is_said_of_its_stick(self) -> None:
        with self.assertRaises(BadInput) as caught:
            typed(self.piece, "sticks", "610, 30\n6x5, 30")
        fault = caught.exception.faults[0]
        self.assertEqual((fault.field, fault.got), (f"piece.{STICKS}.1.length", "6x5"))
        self.assertIn("stick 2", fault.what)
        made = typed(self.piece, "sticks", "610, 30")
        field, _ = self.said(lambda: typed(made, "old", "1, 20"))
        self.assertEqual(field, f"piece.{STICKS}.0.old.0.farther")

    def test_whatever_is_sent_in_their_place_is_refused_as_bad_input(self) -> None:
        for of in ("sticks", "old", "bend", "", 7):
            for sticks in (7, None, [7], {"a": 1}, "x"):
                for text in ("1, 20, 40", "9" * 5000, ", ,"):
                    document = write_piece(self.piece)
                    given = {"lines": text, "of": of, "were": sticks, "shown": sticks, "sticks": sticks}
                    document["supports"][0]["leg"]["sticks"] = given
                    with self.assertRaises(BadInput):
                        read_piece(document)

    def test_a_number_nobody_could_count_is_no_corner(self) -> None:
        document = write_piece(starter("log_slice"))
        outline = document["top"]["outline"]
        outline["corners"] = {"lines": "9" * 5000, "were": outline["corners"]}
        with self.assertRaises(BadInput):
            read_piece(document)


class Tops(SimpleTestCase):
    def test_boards_are_widths_in_a_line(self) -> None:
        document = write_piece(starter("round_four"))
        document["top"]["boards"] = "80, 100 + 4 in; 99.3"
        made = read_piece(document)
        self.assertEqual(made.top.boards, (80.0, 100.0, 101.6, 99.3))
        shown = lines(made, METRIC)["top.boards"]
        self.assertEqual(shown, "80 mm, 100 mm, 101.5 mm, 99.5 mm")
        document["top"]["boards"] = {
            "lines": "85, 100 mm, 101.5 mm, 99.5 mm", "shown": shown, "were": list(made.top.boards),
        }  # fmt: skip
        self.assertEqual(read_piece(document).top.boards, (85.0, 100.0, 101.6, 99.3))
        document["top"]["boards"] = "80, wide"
        with self.assertRaises(BadInput) as caught:
            read_piece(document)
        self.assertEqual(caught.exception.faults[0].field, "top.boards.1")

    def test_corners_are_named_by_number_and_none_there_is_not(self) -> None:
        piece = starter("log_slice")
        document = write_piece(piece)
        outline = document["top"]["outline"]
        were = outline["corners"]
        outline["corners"] = {"lines": "2, 5", "were": were}
        made = read_piece(document)
        self.assertEqual(lines(made, METRIC)["top.outline.corners"], "2, 5")
        outline["corners"] = {"lines": "2, 99", "were": were}
        with self.assertRaises(BadInput) as caught:
            read_piece(document, at="piece")
        fault = caught.exception.faults[0]
        self.assertEqual((fault.field, fault.got), ("piece.top.outline.corners", "99"))

    def test_what_is_neither_a_list_nor_lines_is_refused_as_ever(self) -> None:
        for wrong in (7, {"line": "80"}, {"lines": 7}, None):
            document = write_piece(starter("round_four"))
            document["top"]["boards"] = wrong
            with self.subTest(wrong), self.assertRaises(BadInput):
                read_piece(document)


class Shown(SimpleTestCase):
    def test_a_plan_says_what_stands_in_them_as_a_maker_would_type_it(self) -> None:
        made = typed(starter("round_four"), "sticks", "610, 30, ash")
        self.assertEqual(plan(made, workbench()).lines, {STICKS: "610 mm, 30 mm, ash"})
