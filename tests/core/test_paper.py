"""Paper at full size: what is drawn is as large as the plan says, tiles join, words are words.

Pages are rendered by another library (pdfium) at 254 dots an inch: ten pixels a millimetre.
"""

from __future__ import annotations

import itertools
import math
from typing import Any

import numpy as np
import pypdfium2
from django.test import SimpleTestCase
from numpy.typing import NDArray
from pypdfium2 import raw

from splay.formats.page import MARGIN_MM, SIZES, Pdf, Printer
from splay.formats.tiles import FOOT_MM, LETTERS_MM, OVERLAP_MM, pages_of, pattern_book, sheets, tiling
from splay.formats.type import wide
from splay.paper.bench_sheet import Told, bench_sheet, picked
from splay.paper.labels import Label, label_sheet, labels_of
from splay.patterns import Pattern, patterns_of
from splay.patterns.pattern import pattern, ring
from splay.piece import Piece
from splay.piece.starters import STARTS, starter
from splay.plan import plan
from splay.quantity import Show
from splay.shop import AngleGuide, TiltingTable, workbench
from splay.timber.choices import WoodChoice
from splay.timber.needs import needs_of
from splay.views.shapes import ellipse, line

PIXELS = 10.0
"""A millimetre at 254 dots an inch."""
SHOP = workbench()


def drawn(made: Pdf, page: int) -> NDArray[np.bool_]:
    """Where there is ink on a page, row 0 at its lower edge."""
    document = pypdfium2.PdfDocument(made.file)
    image = document[page].render(scale=254.0 / 72.0, grayscale=True).to_numpy()
    return np.asarray(image).reshape(image.shape[0], image.shape[1])[::-1] < 200


def words_of(made: Pdf) -> str:
    """All words of a PDF, as a reader for the blind would find them."""
    document = pypdfium2.PdfDocument(made.file)
    return "\n".join(page.get_textpage().get_text_range() for page in document)


def places_of(made: Pdf, words: str) -> list[tuple[float, ...]]:
    """Where words stand on the first page: left, low, right, high, mm."""
    text = pypdfium2.PdfDocument(made.file)[0].get_textpage()
    found, search = [], text.search(words, match_case=True)
    while (at := search.get_next()) is not None:
        text.count_rects(*at)
        found.append(tuple(points / 72.0 * 25.4 for points in text.get_rect(0)))
    return found


def spans(ink: NDArray[np.bool_], axis: int, share: float) -> list[float]:
    """The middles of straight lines that run along an axis, mm from the page's lower or left edge."""
    found = ink.sum(axis=1 - axis) > share
    edges = np.flatnonzero(np.diff(np.concatenate(([0], found.astype(int), [0]))))
    return [float(a + b) / 2.0 / PIXELS for a, b in edges.reshape(-1, 2)]


def patterns(start: str = "round_three") -> tuple[Piece, tuple[Pattern, ...]]:
    piece = starter(start)
    return piece, patterns_of(piece, SHOP, plan(piece, SHOP))


class Measured(SimpleTestCase):
    """What lies on the paper, measured on the rendered page."""

    def test_the_check_square_is_a_hundred_millimetres_and_four_inches(self) -> None:
        one = pattern("x", "x", "x", (), [line("cut", (150.0, 200.0), (151.0, 200.0))])
        for paper in SIZES:
            with self.subTest(paper):
                ink = drawn(pattern_book([one], Printer(paper), "x"), 0)
                upright = spans(ink[:, : int(140 * PIXELS)], 1, 700)
                level = spans(ink[:, : int(140 * PIXELS)], 0, 700)
                for found, start in ((upright, MARGIN_MM), (level, MARGIN_MM + FOOT_MM)):
                    # The foot's own line runs just under the square.
                    left = min(found, key=lambda at, start=start: abs(at - start))
                    right = min(found, key=lambda at, start=start: abs(at - start - 100.0))
                    self.assertAlmostEqual(right - left, 100.0, delta=0.15)

    def test_leg_centres_lie_where_the_plan_puts_them(self) -> None:
        """Within 0.2 mm, on whichever sheet they fall."""
        for start in ("round_three", "bench", "battened"):
            piece, made = patterns(start)
            stance = plan(piece, SHOP).stance
            top = made[0]
            way = tiling(top, Printer())
            book = pattern_book([top], Printer(), "x")
            seen = 0
            for page, tile in enumerate(way.tiles):
                ink = drawn(book, page)
                for leg in stance.legs:
                    # The underside lies up: left and right change places.
                    x, y = -leg.socket[0] - tile.x, leg.socket[1] - tile.y
                    if not (8.0 < x < way.wide - 8.0 and 8.0 < y < way.high - 8.0):
                        continue
                    seen += 1
                    px, py = MARGIN_MM + x, MARGIN_MM + FOOT_MM + y
                    box = ink[
                        round((py - 5.5) * PIXELS) : round((py + 5.5) * PIXELS),
                        round((px - 5.5) * PIXELS) : round((px + 5.5) * PIXELS),
                    ]
                    for axis in (0, 1):
                        many = box.sum(axis=axis)
                        at = float(np.flatnonzero(many > 0.9 * many.max()).mean() + 0.5) / PIXELS
                        self.assertAlmostEqual(at, 5.5, delta=0.2, msg=start)
            self.assertGreaterEqual(seen, len(stance.legs) - 2, start)

    def test_an_angle_card_s_edge_leans_as_it_says(self) -> None:
        """Within 0.05 degrees, measured on the rendered line."""
        piece, made = patterns("round_three")
        rho = plan(piece, SHOP).stance.legs[0].boring.resultant
        card = next(one for one in made if one.sort == "cards")
        ink = drawn(pattern_book([card], Printer(), "x"), 0)
        sheet = sheets([card], Printer())[0]
        _, x, y = sheet.placed[0]
        left, low = card.view.box[:2]
        foot = (MARGIN_MM + x + 25.0 - left, MARGIN_MM + FOOT_MM + y - low)
        points = []
        for rise in np.arange(20.0, 90.0, 1.0):
            expected = foot[0] + rise * math.tan(math.radians(rho))
            row = ink[round((foot[1] + rise) * PIXELS)]
            near = row[round((expected - 3.0) * PIXELS) : round((expected + 3.0) * PIXELS)]
            found = np.flatnonzero(near)
            if len(found):
                points.append((rise, expected - 3.0 + float(found.mean()) / PIXELS))
        rises, runs = zip(*points, strict=True)
        slope = np.polyfit(rises, runs, 1)[0]
        self.assertAlmostEqual(math.degrees(math.atan(slope)), rho, delta=0.05)

    def test_no_words_of_an_angle_card_are_cut_off_with_its_edge(self) -> None:
        for start in ("bench", "plane_frames", "aproned", "round_three"):
            for card in (one for one in patterns(start)[1] if one.sort == "cards"):
                for shape in card.view.shapes:
                    if shape.kind == "text" and shape.layer == "label":
                        self.assertLess(
                            shape.points[0][0] + wide(shape.text, LETTERS_MM), 149.0, shape.text
                        )

    def test_a_printer_that_is_one_in_a_hundred_short_is_made_up_for(self) -> None:
        """What the file draws, times what the printer makes of it, is true."""
        one = pattern("x", "x", "x", (), [ring("cut", [(0, 0), (120, 0), (120, 80), (0, 80)])])
        short = Printer("a4", across=99.0, up=99.5)
        ink = drawn(pattern_book([one], short, "x"), 0)[:, : int(200 * PIXELS)]
        upright = spans(ink, 1, 0.9 * 80 * PIXELS)
        level = spans(ink, 0, 0.9 * 120 * PIXELS)
        wide = max(b - a for a, b in itertools.combinations(upright, 2) if abs(b - a - 121.2) < 2)
        high = max(b - a for a, b in itertools.combinations(level, 2) if abs(b - a - 80.4) < 2)
        self.assertAlmostEqual(wide * 0.99, 120.0, delta=0.2)
        self.assertAlmostEqual(high * 0.995, 80.0, delta=0.2)

    def test_a_slanting_ellipse_slants_the_way_it_is_said_to(self) -> None:
        one = pattern("x", "x", "x", (), [ellipse("cut", (0.0, 0.0), (40.0, 10.0), 30.0)])
        sheet = sheets([one], Printer())[0]
        ink = drawn(pattern_book([one], Printer(), "x"), 0)
        _, x, y = sheet.placed[0]
        left, low = one.view.box[:2]
        for turn, there in ((30.0, True), (-30.0, False)):
            px = MARGIN_MM + x - left + 40.0 * math.cos(math.radians(turn))
            py = MARGIN_MM + FOOT_MM + y - low + 40.0 * math.sin(math.radians(turn))
            a, b = round(py * PIXELS), round(px * PIXELS)
            self.assertEqual(bool(ink[a - 4 : a + 5, b - 4 : b + 5].any()), there, turn)

    def test_on_a_turned_sheet_the_printer_is_short_the_other_way_round(self) -> None:
        """What runs along the page there runs up the sheet as it goes through the printer."""
        box = [(0, 0), (240, 0), (240, 80), (0, 80)]
        one = pattern("x", "x", "x", (), [ring("cut", box)])
        short = Printer("a4", across=98.0, up=99.5)
        self.assertTrue(sheets([one], short)[0].landscape)
        ink = drawn(pattern_book([one], short, "x"), 0)
        upright = spans(ink, 1, 0.9 * 80 * PIXELS)
        wide = max(b - a for a, b in itertools.combinations(upright, 2) if abs(b - a - 241.2) < 3)
        self.assertAlmostEqual(wide * 0.995, 240.0, delta=0.2)

    def test_tiles_join_within_two_tenths(self) -> None:
        """A slanting line across a pattern larger than any sheet: on the strip that two sheets share it
        lies at the same place of both."""
        one = pattern("x", "x", "x", (), [line("cut", (0.0, 0.0), (700.0, 300.0))])
        way = tiling(one, Printer())
        book = pattern_book([one], Printer(), "x")
        where = {(tile.column, tile.row): (page, tile) for page, tile in enumerate(way.tiles)}
        joined = 0
        for (column, row), (page, tile) in where.items():
            if (column + 1, row) not in where:
                continue
            other_page, other = where[column + 1, row]
            pages = drawn(book, page), drawn(book, other_page)
            for off in (3.0, 6.5, 9.0):
                x = other.x + off
                y = x * 300.0 / 700.0
                if not tile.y + 20 < y < tile.y + way.high - 20:
                    continue
                found = []
                for ink, of in zip(pages, (tile, other), strict=True):
                    column_of = ink[:, round((MARGIN_MM + x - of.x) * PIXELS)]
                    at = round((MARGIN_MM + FOOT_MM + y - of.y) * PIXELS)
                    near = np.flatnonzero(column_of[at - 15 : at + 15])
                    found.append(float(near.mean()) / PIXELS if len(near) else math.nan)
                joined += 1
                self.assertAlmostEqual(found[0], found[1], delta=0.2)
                self.assertAlmostEqual(found[0], 1.5, delta=0.2)
        self.assertGreater(joined, 0)

    def test_every_sheet_of_a_pattern_is_there_and_none_is_empty(self) -> None:
        ring_only = pattern("x", "x", "x", (), [ellipse("outline", (0.0, 0.0), (390.0, 390.0))])
        way = tiling(ring_only, Printer())
        self.assertLess(len(way.tiles), way.columns * way.rows, "the middle of a ring has nothing on it")
        step = way.wide - OVERLAP_MM, way.high - OVERLAP_MM
        at = {(t.column, t.row): t for t in way.tiles}
        for (column, row), tile in at.items():
            if (column + 1, row) in at:
                self.assertAlmostEqual(at[column + 1, row].x - tile.x, step[0], places=6)
        # Every point of the ring is on a sheet.
        for turn in range(0, 360, 3):
            x, y = 390 * math.cos(math.radians(turn)), 390 * math.sin(math.radians(turn))
            self.assertTrue(
                any(t.x <= x <= t.x + way.wide and t.y <= y <= t.y + way.high for t in way.tiles)
            )


class Files(SimpleTestCase):
    """PDFs as files."""

    def embedded(self, made: Pdf) -> list[bool]:
        """Of each word on the first page whether its typeface is in the file."""
        page = pypdfium2.PdfDocument(made.file)[0]
        words = page.get_objects(filter=[raw.FPDF_PAGEOBJ_TEXT])
        return [raw.FPDFFont_GetIsEmbedded(raw.FPDFTextObj_GetFont(one.raw)) == 1 for one in words]

    def test_words_are_words_and_the_typeface_is_in_the_file(self) -> None:
        piece, made = patterns("round_three")
        one = pattern_book(made, Printer(), piece.name)
        said = words_of(one)
        self.assertIn("The top, underside up", said)
        self.assertIn("measure the check square first", said)
        self.assertGreater(len(self.embedded(one)), 3)
        self.assertTrue(all(self.embedded(one)))

    def test_the_pages_that_are_stated_are_the_pages_there_are(self) -> None:
        for start, paper in itertools.product(("bench", "slab", "aproned", "tall"), SIZES):
            piece, made = patterns(start)
            book = pattern_book(made, Printer(paper), piece.name)
            count = len(pypdfium2.PdfDocument(book.file))
            self.assertEqual((book.pages, pages_of(made, Printer(paper))), (count, count), start)

    def test_the_same_piece_gives_the_same_file(self) -> None:
        piece, made = patterns("triangle")
        first, second = (pattern_book(made, Printer(), piece.name).file for _ in (1, 2))
        self.assertEqual(first, second)

    def test_a_name_the_typeface_cannot_spell_is_printed_with_marks_and_breaks_nothing(self) -> None:
        piece = starter("round_three").model_copy(update={"name": "Тест 椅子 \u202e <b>&amp; (x) \\"})
        made = bench_sheet(piece, SHOP, plan(piece, SHOP), Printer(), Told())
        self.assertIn("????", words_of(made))
        self.assertIn("<b>&amp; (x) \\", words_of(made))


class BenchSheet(SimpleTestCase):
    """One page with all that is set, cut and proved."""

    def sheet(self, start: str, whole: bool = False, **told: Any) -> tuple[Piece, Pdf]:
        piece = starter(start)
        return piece, bench_sheet(piece, SHOP, plan(piece, SHOP), Printer(), Told(**told), whole)

    def test_it_is_one_page_for_every_start(self) -> None:
        for start in STARTS:
            with self.subTest(start):
                _, made = self.sheet(start)
                self.assertEqual((made.pages, len(pypdfium2.PdfDocument(made.file))), (1, 1))

    def test_it_says_every_setting_length_and_proof_of_a_stool(self) -> None:
        piece, made = self.sheet("round_three")
        planned = plan(piece, SHOP)
        said = " ".join(words_of(made).split())
        for work in {card.work for card in planned.setups}:
            titles = [card.title for card in planned.setups if card.work == work]
            self.assertTrue(any(title in said for title in titles), titles)
        self.assertIn(planned.parts[0].blank.quantity.text, said)
        self.assertIn("UPHILL" if "UPHILL" in said else "way the arrow points", said)
        for proof in planned.proofs:
            self.assertIn(f"{proof.expected.text} ± {proof.near.text}", said)
        self.assertNotIn("had no room", said)

    def test_what_one_page_has_no_room_for_is_counted_and_the_long_one_has_it(self) -> None:
        for start in STARTS:
            piece, made = self.sheet(start)
            _, long = self.sheet(start, whole=True)
            planned = plan(piece, SHOP)
            said = " ".join(words_of(long).split())
            for proof in planned.proofs:
                self.assertIn(f"{proof.expected.text} ± {proof.near.text}", said, start)
            self.assertNotIn("had no room", said)
            short = words_of(made)
            missing = sum(f"{p.expected.text} ± {p.near.text}" not in short for p in planned.proofs)
            if missing:
                self.assertIn("more lines had no room here", short)

    def test_the_code_leads_to_the_bench_mode(self) -> None:
        """The modules on the page, read off and compared with the code's own matrix (ISO/IEC 18004)."""
        import segno

        address = "http://192.168.7.20:8420/piece/0b7e/bench"
        _, made = self.sheet("round_three", address=address)
        ink = drawn(made, 0)
        matrix = [list(row) for row in segno.make(address, error="m", micro=False).matrix]
        size = 21.0 / (len(matrix) + 8)
        left = 210.0 - MARGIN_MM - 21.0
        top = 297.0 - MARGIN_MM + 1.0
        for r, row in enumerate(matrix):
            for c, dark in enumerate(row):
                x, y = left + (4 + c + 0.5) * size, top - (4 + r + 0.5) * size
                self.assertEqual(bool(ink[round(y * PIXELS), round(x * PIXELS)]), bool(dark), (r, c))

    def test_a_tool_that_does_not_reach_gives_way_to_the_first_that_does(self) -> None:
        table = next(tool for tool in SHOP.tools if isinstance(tool, TiltingTable))
        short = table.model_copy(update={"scale": table.scale.model_copy(update={"reach": 5.0})})
        others = [tool for tool in SHOP.tools if tool.id != table.id]
        shop = SHOP.model_copy(update={"tools": (short, *others)})
        piece = starter("round_three")
        planned = plan(piece, shop)
        for used in (frozenset({table.id}), frozenset[str]()):
            bored = next(card for card in picked(planned.setups, used) if card.station == "boring")
            self.assertEqual((bored.in_reach, bored.by), (True, others[0].id))
        guide = next(tool for tool in SHOP.tools if isinstance(tool, AngleGuide))
        bored = next(c for c in picked(planned.setups, frozenset({guide.id})) if c.station == "boring")
        self.assertEqual(bored.by, guide.id)

    def test_each_drawing_stands_over_its_title_and_clear_of_the_next(self) -> None:
        titles = "Front", "Side, from the right", "Plan, from above"
        for start in ("bench", "round_three", "plane_frames"):
            made = self.sheet(start)[1]
            ink = drawn(made, 0)
            seen = []
            for title in titles:
                # The lowest place it stands at above the settings: under its drawing.
                left, _, right, high = min(places_of(made, title), key=lambda box: box[1])
                seen.append(((left + right) / 2.0, high))
            band = ink[round((seen[0][1] + 0.3) * PIXELS) : round((seen[0][1] + 54.0) * PIXELS)]
            columns = np.flatnonzero(band.any(axis=0)) / PIXELS
            parted = np.split(columns, np.flatnonzero(np.diff(columns) > 2.5) + 1)
            with self.subTest(start):
                self.assertEqual(len(parted), len(titles))
                for (middle, _), run in zip(seen, parted, strict=True):
                    self.assertAlmostEqual(float(run[0] + run[-1]) / 2.0, middle, delta=0.5)

    def test_no_figure_runs_into_what_is_asked(self) -> None:
        """In inches, where figures are long: every expected value stands clear of its question."""
        inch = SHOP.model_copy(update={"rounding": SHOP.rounding.model_copy(update={"system": "inch"})})
        for start in ("board_sides", "plane_frames", "bench"):
            piece = starter(start)
            made = bench_sheet(piece, inch, plan(piece, inch), Printer("letter"), Told())
            page = pypdfium2.PdfDocument(made.file)[0]
            boxes = [one.get_bounds() for one in page.get_objects(filter=[raw.FPDF_PAGEOBJ_TEXT])]
            for k, (left, low, right, high) in enumerate(boxes):
                for other in boxes[k + 1 : k + 3]:
                    apart = other[0] >= right - 0.5 or other[2] <= left + 0.5
                    above = other[1] >= high - 0.8 or other[3] <= low + 0.8
                    self.assertTrue(apart or above or k < 20, (start, k))


class Labels(SimpleTestCase):
    """A label a part, in the language of the marks."""

    def labels(self, start: str, make: int = 1) -> tuple[Piece, tuple[Label, ...]]:
        piece = starter(start).model_copy(update={"make": make})
        planned = plan(piece, SHOP)
        needs = needs_of(piece, planned, WoodChoice(), Show(SHOP.rounding.units()))
        return piece, labels_of(piece, planned, needs)

    def test_each_leg_has_as_many_strokes_as_its_number_and_says_which_way_is_up(self) -> None:
        piece, labels = self.labels("bench")
        blank = plan(piece, SHOP).parts[0].blank.quantity.value
        legs = [label for label in labels if label.title.startswith("Leg")]
        self.assertEqual([(one.title, one.ticks) for one in legs], [(f"Leg {k}", k) for k in (1, 2, 3, 4)])
        self.assertEqual({one.up for one in legs}, {"top"})
        length = float(legs[0].lines[0].split()[1])
        self.assertGreaterEqual(length, blank - 0.5, "a blank is no shorter than the plan's")
        ends = [label.lines[0] for label in labels if label.lines[0].startswith("first end")]
        self.assertIn("first end: leg 1; second end: leg 4", ends)

    def test_every_part_of_every_copy_has_one(self) -> None:
        _, one = self.labels("aproned")
        _, three = self.labels("aproned", make=3)
        self.assertEqual(len(three), 3 * len(one))
        self.assertIn("number 2 of 3", [label.lines[0] for label in three])
        made = label_sheet(three, Printer(), "Desk")
        said = words_of(made)
        for label in one:
            self.assertIn(label.title, said)
