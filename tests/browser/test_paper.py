"""Sheets, patterns, files and whole shops in the browser, as a maker with dusty hands goes about it."""

from __future__ import annotations

import csv
import io
import json
import re
import tempfile
import zipfile
from pathlib import Path
from typing import Any

import numpy as np
import pypdfium2
from axe_playwright_python.sync_playwright import Axe
from playwright.sync_api import Page, expect

from splay.piece import read_piece, write_piece
from splay.piece.starters import starter
from tests.browser.base import BrowserCase
from workshop.pieces.models import PieceRow, ReadingRow
from workshop.shop.models import ShopRow, keep_shop, the_shop

WCAG = ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa"]


class Paper(BrowserCase):
    def paper(self, address: str) -> Page:
        self.page.goto(f"{address}/paper")
        self.page.wait_for_selector("[data-pattern-pages]")
        return self.page

    def long_bench(self) -> str:
        """A bench longer than any sheet."""
        document = write_piece(starter("bench"))
        document["top"]["outline"]["length"] = 1640
        return self.hang(read_piece({**document, "name": "Sill bench"}))

    def fetched(self, link: Any) -> bytes:
        """What a link leads to, fetched as the browser would."""
        answer = self.page.request.get(self.live_server_url + str(link.get_attribute("href")))
        self.assertEqual(answer.status, 200)
        return bytes(answer.body())

    def sheets(self, raw: bytes) -> int:
        return len(pypdfium2.PdfDocument(raw))

    def kept(self, click: Any) -> tuple[str, bytes]:
        """What a link brings down: its name and what is in it."""
        with self.page.expect_download() as coming:
            click.click()
        return coming.value.suggested_filename, Path(coming.value.path()).read_bytes()

    def test_a_bench_sheet_is_printed_with_the_tool_used_last(self) -> None:
        address = self.hang()
        page = self.at(address, "boring")
        page.get_by_role("radio", name="Clamp-on drill guide").click(force=True)
        self.paper(address)
        link = page.locator("[data-out=bench] .title")
        expect(page.locator("[data-out=bench] .pages")).to_have_text("1 sheet")
        raw = self.fetched(link)
        said = " ".join(pypdfium2.PdfDocument(raw)[0].get_textpage().get_text_range().split())
        self.assertIn("Clamp-on drill guide", said)
        self.assertIn("Proofs: write what you read", said)
        name, kept = self.kept(page.locator("[data-out=bench] .keep"))
        self.assertTrue(name.endswith("bench sheet.pdf"))
        self.assertEqual(kept, raw)

    def test_a_pattern_longer_than_any_sheet_is_tiled_and_its_sheets_are_counted_first(self) -> None:
        page = self.paper(self.long_bench())
        stated = int(page.locator("[data-pattern-pages]").inner_text().split()[0])
        link = page.locator("[data-patterns] .do")
        self.assertEqual(self.sheets(self.fetched(link)), stated)
        self.assertGreater(stated, 9)
        for sort in ("top", "legs", "wraps", "blocks"):
            page.locator(f"[data-sort={sort}] input").uncheck()
        expect(page.locator("[data-pattern=top]")).to_have_count(0)
        # No count is shown but of what is ticked: one there is waited for, whatever answers cross.
        fewer = int(page.locator("[data-pattern-pages]").inner_text().split()[0])
        self.assertLess(fewer, stated)
        self.assertEqual(self.sheets(self.fetched(link)), fewer)
        page.locator("[data-sort=cards] input").uncheck()
        expect(page.get_by_text("Tick what is wanted.")).to_be_visible()

    def test_a_printer_that_is_short_is_made_up_for_and_remembered(self) -> None:
        address = self.hang()
        page = self.paper(address)
        before = self.square(self.fetched(page.locator("[data-patterns] .do")))
        self.assertAlmostEqual(before, 100.0, delta=0.15)
        for label in ("The square, across", "The square, up"):
            page.get_by_label(label).fill("99")
            with page.expect_response("**/api/shop"):
                page.get_by_label(label).press("Enter")
        expect(page.locator("[data-printer-said]")).to_contain_text("measures 100 mm")
        # In the file it is larger by what the printer makes it smaller.
        after = self.square(self.fetched(page.locator("[data-patterns] .do")))
        self.assertAlmostEqual(after, 101.01, delta=0.15)
        page.get_by_label("The square, up").fill("70")
        page.get_by_label("The square, up").press("Enter")
        expect(page.locator("[data-printer]")).to_contain_text("94 mm")
        page.reload()
        expect(page.get_by_label("The square, across")).to_have_value("99.0 mm")
        page.get_by_text("Letter", exact=True).click()
        expect(page.get_by_role("radio", name="Letter")).to_be_checked()
        sheet = self.fetched(page.locator("[data-out=bench] .title"))
        width, height = pypdfium2.PdfDocument(sheet)[0].get_size()
        self.assertEqual((round(width), round(height)), (612, 792))

    def square(self, raw: bytes) -> float:
        """How wide the check square is in a file of patterns, mm: its sides are the long upright lines."""
        document = pypdfium2.PdfDocument(raw)
        ink = document[len(document) - 1].render(scale=254 / 72, grayscale=True).to_numpy()
        dark = np.asarray(ink).reshape(ink.shape[0], ink.shape[1]) < 200
        columns = np.flatnonzero(dark.sum(axis=0) > 850)
        return float(columns[columns > 600].min() - columns.min()) / 10.0

    def test_readings_go_out_are_filled_in_and_come_back_and_are_taken_back(self) -> None:
        address = self.hang()
        page = self.paper(address)
        name, raw = self.kept(page.locator("[data-out=readings-csv] .title"))
        self.assertTrue(name.endswith("readings.csv"))
        rows = list(csv.DictReader(io.StringIO(raw.decode("utf-8-sig"))))
        for row in rows:
            row["value"] = {"bore.l1": "12.5", "bore.l2": "13"}.get(row["proof"], "")
        out = io.StringIO()
        writer = csv.DictWriter(out, list(rows[0]))
        writer.writeheader()
        writer.writerows(rows)
        self.take(page, "[data-readings-file]", "readings.csv", out.getvalue().encode())
        expect(page.locator("[data-readings-look]")).to_contain_text("2 readings are new or change.")
        self.assertEqual(ReadingRow.objects.count(), 0)
        page.locator("[data-readings-take]").click()
        expect(page.locator("[data-readings-said]")).to_contain_text("2 readings were taken in")
        self.assertEqual(ReadingRow.objects.count(), 2)
        page.locator("[data-readings-undo]").click()
        expect(page.locator("[data-readings-said]")).to_contain_text("2 readings are as they were")
        self.assertEqual(ReadingRow.objects.count(), 0)
        bad = b"proof,value\nbore.l1,900\nnothing,3\n"
        self.take(page, "[data-readings-file]", "bad.csv", bad)
        expect(page.locator("[data-readings-look]")).to_contain_text("All of it is taken in, or nothing")
        expect(page.locator("[data-readings-take]")).to_have_count(0)
        self.take(page, "[data-readings-file]", "x.csv", b"a;b\n1;2\n")
        expect(page.locator("[data-readings-said]")).to_contain_text("a column called proof")

    def take(self, page: Page, where: str, name: str, raw: bytes) -> None:
        page.locator(where).set_input_files({"name": name, "mimeType": "text/plain", "buffer": raw})

    def test_files_say_what_they_cannot_carry_before_they_are_written(self) -> None:
        page = self.paper(self.hang())
        for group, said in (
            ("drawings", "figures do not follow"),
            ("solids", "mortises and tenons of squared parts"),
            ("tables", "photographs"),
        ):
            expect(page.locator(f"[data-without={group}]")).to_contain_text(said)
        name, raw = self.kept(page.locator("[data-out=solids-stl] .title"))
        self.assertTrue(name.endswith("stl.zip"))
        with zipfile.ZipFile(io.BytesIO(raw)) as archive:
            self.assertEqual(len(archive.namelist()), 5)
        page.locator("[data-pattern=top] summary").click()
        name, raw = self.kept(page.locator("[data-pattern=top] [download]").first)
        self.assertTrue(name.endswith(".dxf"))
        self.assertIn(b"SIGHTLINE", raw)

    def test_the_key_p_leads_to_the_paper(self) -> None:
        page = self.at(self.hang())
        page.locator("body").press("p")
        expect(page.locator("[data-pattern-pages]")).to_be_visible()
        self.assertTrue(page.url.endswith("/paper"))

    def test_a_shop_file_goes_out_and_anothers_comes_in_and_goes_again(self) -> None:
        keep_shop(the_shop().model_copy(update={"name": "Larkmoor"}))
        page = self.page
        page.goto(f"{self.live_server_url}/shop")
        name, raw = self.kept(page.locator("[data-shop-out]"))
        self.assertEqual(name, "shop.json")
        document = json.loads(raw)
        tools = len(document["tools"])
        other = {**document, "version": 1, "name": "Elsewhere", "tools": document["tools"][:3]}
        for tool in other["tools"]:
            tool.pop("id")
        self.take(page, "[data-shop-in]", "theirs.json", json.dumps(other).encode())
        expect(page.locator("[data-shop-look]")).to_contain_text(f"place of {tools} tools")
        page.locator("[data-shop-take]").click()
        expect(page.locator(".tools li")).to_have_count(3)
        self.assertEqual(the_shop().name, "Larkmoor")
        page.locator("[data-shop-back]").click()
        expect(page.locator(".tools li")).to_have_count(tools)
        self.take(page, "[data-shop-in]", "x.json", b'{"format": "proud-rake-piece"}')
        expect(page.locator("[data-shop-said]")).to_contain_text("no file of a shop")
        future = {**document, "version": 9}
        self.take(page, "[data-shop-in]", "future.json", json.dumps(future).encode())
        page.locator("[data-shop-take]").click()
        expect(page.locator("[data-shop-said]")).to_contain_text("version")
        self.assertEqual(len(the_shop().tools), tools)

    def test_a_piece_goes_out_with_its_history_and_comes_in_again(self) -> None:
        self.hang(starter("log_slice"))
        page = self.page
        page.goto(self.live_server_url)
        page.locator("[data-file]").first.click()
        name, raw = self.kept(page.get_by_text("take the file out"))
        PieceRow.objects.all().delete()
        page.reload()
        self.take(page, "input[type=file]", name, raw)
        expect(page).to_have_url(re.compile("/piece/"))
        self.assertEqual(PieceRow.objects.count(), 1)

    def test_a_whole_shop_goes_out_and_into_an_empty_one_and_is_taken_back(self) -> None:
        self.hang(starter("bench"))
        self.hang(starter("log_slice"))
        keep_shop(the_shop().model_copy(update={"name": "Larkmoor"}))
        page = self.page
        page.goto(f"{self.live_server_url}/makers")
        name, raw = self.kept(page.get_by_text("Take everything out as open files"))
        self.assertEqual(name, "proud-rake.zip")
        PieceRow.objects.all().delete()
        ShopRow.objects.all().delete()
        page.reload()
        page.wait_for_selector("[data-archive]")
        self.bring(page, raw[: len(raw) // 2])
        expect(page.locator("[data-archive-said]")).to_contain_text("damaged")
        self.bring(page, raw)
        expect(page.locator("[data-archive-look]")).to_contain_text("2 pieces would be hung up")
        expect(page.locator("[data-archive-look]")).to_contain_text("The tools come along")
        self.assertEqual(PieceRow.objects.count(), 0)
        page.locator("[data-archive-take]").click()
        expect(page.locator("[data-archive-said]")).to_contain_text("2 pieces were hung up")
        self.assertEqual(PieceRow.objects.filter(removed=None).count(), 2)
        page.locator("[data-archive-undo]").click()
        expect(page.locator("[data-archive-said]")).to_contain_text("2 pieces are off the rack")
        page.get_by_role("link", name="Rack").click()
        expect(page.locator("[data-piece]")).to_have_count(0)

    def bring(self, page: Page, raw: bytes) -> None:
        file = Path(self.enterContext(tempfile.TemporaryDirectory())) / "shop.zip"
        file.write_bytes(raw)
        with page.expect_response("**/api/archive?**"):
            page.locator("[data-archive-file]").set_input_files(file)

    def test_nothing_stands_in_the_way_of_those_who_see_or_reach_badly(self) -> None:
        page = self.paper(self.hang())
        page.locator("[data-pattern=top] summary").click()
        for size in ((1280, 800), (390, 844)):
            page.set_viewport_size({"width": size[0], "height": size[1]})
            page.wait_for_timeout(200)
            found = Axe().run(page, options={"runOnly": WCAG}).response["violations"]
            self.assertEqual([(one["id"], one["nodes"][0]["html"][:120]) for one in found], [])
            wide = page.evaluate("document.documentElement.scrollWidth")
            self.assertLessEqual(wide, size[0])
