"""The timber store and the Wood station in the browser, as a maker in front of a pile goes about it."""

from __future__ import annotations

import io
import json
import re
import time
from collections.abc import Iterator
from contextlib import contextmanager, suppress
from typing import Any

from django.contrib.auth import get_user_model
from PIL import Image
from playwright.sync_api import Error, Locator, Page, Route, expect

from splay.piece import read_piece, write_piece
from splay.piece.starters import starter
from splay.timber.stock import read_stock
from tests.browser.base import BrowserCase, saved, type_in
from workshop.shop.models import keep_shop, the_shop
from workshop.timber.models import StockRow, WoodRow
from workshop.timber.rows import keep

ASH = "ash, white"


class Timber(BrowserCase):
    def lay(self, **item: Any) -> str:
        """A piece of wood that lies there already."""
        maker = get_user_model().objects.get(username="ash")
        base = {"species": ASH, "moisture": 8.0}
        return str(keep(read_stock({**base, **item}), maker).pk)

    def board(self, name: str, length: float, width: float, thickness: float, **more: Any) -> str:
        sizes = {"length": length, "width": width, "thickness": thickness}
        return self.lay(kind="board", name=name, **sizes, **more)

    def slab(self, name: str, long: float, wide: float, **more: Any) -> str:
        outline = [{"x": x, "y": y} for x, y in ((0, 0), (long, 0), (long, wide), (0, wide))]
        return self.lay(kind="slab", name=name, outline=outline, thickness=62, **more)

    def store(self) -> Page:
        self.page.goto(f"{self.live_server_url}/timber")
        self.page.wait_for_selector("[data-new=board]")
        return self.page

    def wood(self, address: str) -> Page:
        self.page.goto(f"{address}/wood")
        self.page.wait_for_selector("[data-need]")
        self.laid_out()
        return self.page

    @contextmanager
    def put_down(self) -> Iterator[None]:
        """What is done inside is kept and laid out anew."""
        with self.page.expect_response(lambda r: r.request.method == "PUT" and r.url.endswith("/wood")):
            yield
        self.laid_out()

    def laid_out(self) -> None:
        """The best plan there was time for is there."""
        expect(self.page.locator("[data-lay-out]")).to_be_visible()
        expect(self.page.locator("[data-stop]")).to_have_count(0)


class Store(Timber):
    def test_a_board_with_four_flaws_by_the_keys_alone_within_a_minute(self) -> None:
        page = self.store()
        page.locator("[data-new=board]").focus()
        begun = time.monotonic()
        keys = page.keyboard
        keys.press("Enter")
        expect(page.locator("[data-first] input")).to_be_focused()
        for text in ("North board", ASH, "2400", "180", "52", "9.5", "24"):
            keys.type(text)
            keys.press("Tab")
        keys.press("Enter")
        flaws = (
            ("sp", "0", "120", "", ""),
            ("k", "640", "690", "30", "75"),
            ("k", "1310", "1350", "120", "160"),
            ("b", "1900", "2400", "165", ""),
        )
        for number, (letter, *figures) in enumerate(flaws):
            expect(page.locator(f"[data-flaw='{number}'] select")).to_be_focused()
            keys.type(letter)
            for figure in figures:
                keys.press("Tab")
                keys.type(figure)
            if number < 3:
                keys.press("Enter")
        page.locator("[data-keep]").focus()
        keys.press("Enter")
        expect(page.locator("[data-timber-said]")).to_contain_text("North board: kept")
        self.assertLess(time.monotonic() - begun, 60.0)
        item = StockRow.objects.get().document
        self.assertEqual([f["kind"] for f in item["flaws"]], ["split", "knot", "knot", "bark"])
        self.assertEqual((item["length"], item["moisture"], item["cost"]), (2400.0, 9.5, 24.0))
        self.assertEqual((item["flaws"][1]["start"], item["flaws"][1]["high"]), (640.0, 75.0))

    def test_a_form_asked_for_before_the_store_has_answered_has_the_keys_when_it_comes(self) -> None:
        page = self.page
        held: list[Route] = []
        page.route(re.compile(r"/api/timber(\?|$)"), lambda route: held.append(route))
        self.store().locator("[data-new=board]").press("Enter")
        expect(page.locator("[data-stock-form]")).to_have_count(0)
        for route in held:
            route.continue_()
        expect(page.locator("[data-first] input")).to_be_focused()

    def test_what_is_wrong_is_said_at_its_field_and_nothing_typed_is_lost(self) -> None:
        page = self.store()
        page.locator("[data-new=board]").click()
        field = lambda name: page.get_by_label(name, exact=True)  # noqa: E731
        field("What is chalked on it").fill("Odd one")
        field("Kind of wood").fill("moon wood")
        for name, text in (("Length", "2400"), ("Width", "18"), ("Thickness", "4000")):
            field(name).fill(text)
        field("Moisture, %").fill("300")
        page.locator("[data-keep]").click()
        form = page.locator("[data-stock-form]")
        expect(form.locator("[data-own]")).to_contain_text("gravity")
        expect(form.get_by_role("alert").first).to_be_visible()
        expect(field("Moisture, %")).to_have_value("300")
        field("Specific gravity at 12 %").fill("0.55")
        field("Shrinks, radial, %").fill("4")
        field("Tangential, %").fill("8")
        field("Thickness").fill("40")
        field("Moisture, %").fill("12,5")
        page.locator("[data-keep]").click()
        expect(page.locator("[data-stock='Odd one']")).to_be_visible()
        self.assertEqual(StockRow.objects.get().document["own"]["gravity"], 0.55)

    def test_a_slab_is_drawn_over_its_photograph_and_found_again_as_drawn(self) -> None:
        page = self.store()
        page.locator("[data-new=slab]").click()
        page.get_by_label("What is chalked on it", exact=True).fill("Gate elm")
        page.get_by_label("Kind of wood", exact=True).fill("elm, American")
        page.get_by_label("Thickness", exact=True).fill("60")
        shot = io.BytesIO()
        Image.new("RGB", (1600, 700), (150, 110, 70)).save(shot, "JPEG")
        chosen = {"name": "slab.jpg", "mimeType": "image/jpeg", "buffer": shot.getvalue()}
        photo = page.locator(".form input[type=file][accept*=jpeg]")
        photo.set_input_files([chosen])  # type: ignore[list-item]
        drawing = page.locator("[data-slab-drawing]")
        expect(drawing.locator("image")).to_be_visible()
        page.get_by_label("The photograph shows, mm across").fill("2000")
        self.drag(drawing.locator("[data-corner='2']"), (40, -20))
        box = drawing.locator("polygon.wood").bounding_box()
        assert box is not None
        page.mouse.click(box["x"] + box["width"] / 2, box["y"] + 3)
        expect(drawing.locator("[data-corner]")).to_have_count(5)
        page.get_by_role("radio", name="split").click(force=True)
        for share in (0.02, 0.15, 0.3):
            page.mouse.click(box["x"] + box["width"] * share, box["y"] + box["height"] * 0.5)
        page.locator("[data-line-done]").click()
        page.get_by_role("radio", name="knot").click(force=True)
        page.mouse.click(box["x"] + box["width"] * 0.7, box["y"] + box["height"] * 0.7)
        expect(page.locator("[data-spot]")).to_have_count(2)
        page.locator("[data-keep]").click()
        expect(page.locator("[data-timber-said]")).to_contain_text("Gate elm: kept")
        row = StockRow.objects.get()
        self.assertEqual((row.photo.width, row.document["photo"]["width"]), (1600, 2000.0))
        self.assertEqual([s["kind"] for s in row.document["spots"]], ["split", "knot"])
        self.assertEqual([len(s["points"]) for s in row.document["spots"]], [3, 1])
        page.locator("[data-stock='Gate elm']").click()
        expect(page.locator("[data-slab-drawing] [data-corner]")).to_have_count(5)
        expect(page.locator("[data-slab-drawing] image")).to_be_visible()

    def drag(self, handle: Locator, by: tuple[int, int]) -> None:
        handle.scroll_into_view_if_needed()
        box = handle.bounding_box()
        assert box is not None
        x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
        self.page.mouse.move(x, y)
        self.page.mouse.down()
        self.page.mouse.move(x + by[0], y + by[1], steps=6)
        self.page.mouse.up()

    def test_an_outline_is_brought_in_and_a_hostile_one_refused(self) -> None:
        page = self.store()
        page.locator("[data-new=slab]").click()
        svg = '<svg xmlns="http://www.w3.org/2000/svg" width="900mm" height="400mm" viewBox="0 0 900 400">'
        good = f'{svg}<path d="M0 20 L900 0 L880 380 L450 400 L10 390 Z"/></svg>'
        bad = '<!DOCTYPE svg [<!ENTITY a "b">]><svg>&a;</svg>'
        for name, text, said in (("bad.svg", bad, "entities"), ("good.svg", good, "as the drawing gives")):
            file = {"name": name, "mimeType": "image/svg+xml", "buffer": text.encode()}
            page.locator("[data-slab-input]").set_input_files([file])  # type: ignore[list-item]
            expect(page.locator("[data-form-said]")).to_contain_text(said)
        expect(page.locator("[data-slab-drawing] [data-corner]")).to_have_count(5)

    def test_it_is_looked_for_taken_out_put_back_and_taken_in_from_a_table(self) -> None:
        self.board("Short", 700, 90, 30)
        self.board("Long", 2600, 200, 52, moisture=20)
        page = self.store()
        page.locator("[data-seek-long]").fill("1000")
        expect(page.locator("[data-stock=Short]")).to_have_count(0)
        page.locator("[data-seek-dry]").fill("10")
        expect(page.locator("[data-none]")).to_contain_text("Nothing of that kind")
        page.locator("[data-seek-dry]").fill("")
        page.locator("[data-stock=Long]").click()
        page.locator("[data-throw-out]").click()
        expect(page.locator("[data-stock=Long]")).to_have_count(0)
        page.locator("[data-put-back]").click()
        expect(page.locator("[data-stock=Long]")).to_be_visible()
        page.locator("[data-seek-long]").fill("")
        rows = (f'board,New,"{ASH}",900,90,20', f'board,Off,"{ASH}",x,9,2')
        table = "\n".join(("kind,name,species,length,width,thickness", *rows))
        file = {"name": "yard.csv", "mimeType": "text/csv", "buffer": table.encode()}
        page.locator("[data-take-in-file]").set_input_files([file])  # type: ignore[list-item]
        expect(page.locator("[data-bad-row]")).to_contain_text("Row 3")
        page.locator("[data-sure]").click()
        expect(page.locator("[data-stock=New]")).to_be_visible()
        with page.expect_download() as got:
            page.locator("[data-file]").click()
        pile = json.loads(got.value.path().read_text())
        self.assertEqual(sorted(one["name"] for one in pile["items"]), ["Long", "New", "Short"])

    def test_the_moisture_meter_fills_its_field_and_is_remembered(self) -> None:
        self.board("Read me", 900, 90, 30, moisture=11.0)
        keep_shop(the_shop().model_copy(update={"instruments": "simulated"}))
        page = self.store()
        page.locator("[data-stock='Read me']").click()
        page.locator("[data-meter]").click()
        expect(page.locator("[data-form-said]")).to_contain_text("moisture meter")
        page.locator("[data-keep]").click()
        expect(page.locator("[data-timber-said]")).to_contain_text("kept")
        seen = StockRow.objects.get().document["seen"]
        self.assertAlmostEqual(seen[0]["moisture"], 11.0, delta=1.5)


class Wood(Timber):
    def test_four_legs_and_two_spares_from_two_boards_reserved_sawn_the_rest_in_the_store(self) -> None:
        made = starter("bench").model_dump(mode="json")
        made["supports"][0]["leg"]["spare"] = 2
        made["members"] = []
        piece = read_piece({**made, "name": "Six legs"})
        self.board("First", 1700, 62, 60)
        self.board("Second", 1700, 62, 60)
        self.slab("Wide", 2400, 560)
        page = self.wood(self.hang(piece))
        legs = page.locator("[data-need^='legs']").first
        expect(legs).to_contain_text("6")
        expect(legs).to_contain_text("First")
        expect(legs).to_contain_text("Second")
        expect(page.locator("[data-missing]")).to_have_count(0)
        expect(page.locator("[data-board] polygon.taken")).to_have_count(6)
        page.locator("[data-board] summary").first.click()
        expect(page.locator("[data-board] ol li").first).to_contain_text("Mark 15 mm from the left end")
        page.locator("[data-reserve]").click()
        expect(page.locator("[data-reserved]")).to_be_visible()
        page.locator("[data-sawn=Wide]").click()
        expect(page.locator("[data-sawn=Wide]")).to_have_text("not sawn after all")
        self.store()
        expect(page.locator("[data-stock^='Wide, rest']").first).to_be_visible()
        expect(page.locator("[data-stock=Wide]")).to_have_count(0)
        expect(page.locator("[data-stock=First]")).to_contain_text("for Six legs")

    def test_a_seat_no_slab_holds_is_glued_from_boards_in_a_press_and_that_is_undone(self) -> None:
        for k in range(4):
            self.board(f"B{k}", 2400, 150, 60)
        address = self.hang(starter("bench"))
        page = self.wood(address)
        expect(page.locator("[data-need=top]")).to_contain_text("missing")
        page.locator("[data-glue-it]").click()
        expect(page.locator("[data-need^='top.board']").first).to_be_visible()
        self.laid_out()
        expect(page.locator("[data-missing]")).to_have_count(0)
        page.get_by_role("button", name="undo").click()
        expect(page.locator("[data-need=top]")).to_contain_text("missing")

    def test_turned_legs_that_lie_there_are_named_and_taken(self) -> None:
        for k in range(3):
            self.lay(kind="stick", name=f"Turned {k}", length=520 + k, thick_end=46, thin_end=30)
        self.board("Seat", 2400, 420, 60)
        page = self.wood(self.hang(starter("round_three")))
        expect(page.locator("[data-stick]")).to_have_count(0)
        page.locator("[data-out-of] summary").click()
        for k in range(3):
            with self.put_down():
                page.locator(f"[data-out='Turned {k}'] input").check()
        expect(page.locator("[data-stick]")).to_have_count(3)
        expect(page.locator("[data-need^='legs']").first).to_contain_text("Turned 1")
        page.locator("[data-reserve]").click()
        expect(page.locator("[data-reserved]")).to_be_visible()

    def test_out_of_wood_it_says_what_to_get_and_which_boards_may_be_used_is_chosen(self) -> None:
        self.board("Only", 1000, 62, 60)
        self.board("Other", 2600, 62, 60)
        page = self.wood(self.hang(starter("round_three")))
        page.locator("[data-out-of] summary").click()
        with self.put_down():
            page.locator("[data-out=Only] input").check()
        expect(page.locator("[data-missing]")).to_contain_text("missing")
        expect(page.locator("[data-buy]").first).to_contain_text(re.compile(r"To get: \d+ (board|slab)"))
        with self.put_down():
            page.locator("[data-out=Only] input").uncheck()
        expect(page.locator("[data-need^='legs']").first).to_contain_text("Other")

    def test_a_top_and_the_leg_turned_down_from_it_lie_round_a_split_and_are_moved_over_it(self) -> None:
        split = {"kind": "split", "points": [{"x": 0, "y": 300}, {"x": 420, "y": 310}], "across": 5}
        self.slab("Long elm", 3400, 640, spots=[split])
        self.board("Legs", 2400, 120, 62)
        page = self.wood(self.hang(starter("slab")))
        part = page.locator("[data-part='top 1']")
        expect(part).to_be_visible()
        expect(page.locator("[data-slab] line.seam")).to_have_count(1)
        expect(page.locator("[data-place-fault]")).to_have_count(0)
        # Carried into the split: said while it is carried, kept with keys when it is put down.
        box = part.bounding_box()
        assert box is not None
        scale = page.locator("[data-slab] polygon.wood").bounding_box()
        assert scale is not None
        far = 200 * scale["width"] / 3400
        x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
        page.mouse.move(x, y)
        page.mouse.down()
        page.mouse.move(x - far, y, steps=8)
        expect(page.locator("[data-place-fault=split]")).to_be_visible()
        with self.put_down():
            page.mouse.up()
        expect(page.locator("[data-place-fault=split]")).to_be_visible()
        expect(page.locator("[data-key]")).to_have_count(2)
        expect(page.locator("[data-keys]")).to_contain_text("keys across the split")
        before = WoodRow.objects.get().document["laid"][0]
        part.focus()
        with self.put_down():
            page.keyboard.press("Shift+ArrowRight")
        after = WoodRow.objects.get().document["laid"][0]
        self.assertAlmostEqual(after["x"] - before["x"], 10.0, delta=0.2)
        # Off the wood it cannot be cut, and the program's own place is one press away.
        page.locator("[data-part='top 1']").focus()
        for _ in range(3):
            with self.put_down():
                page.keyboard.press("Shift+PageUp")
        expect(page.locator("[data-place-fault=outside]")).to_be_visible()
        with self.put_down():
            page.locator("[data-first-places]").click()
        expect(page.locator("[data-place-fault]")).to_have_count(0)

    def test_reserved_wood_is_free_again_when_the_piece_no_longer_fits_and_that_is_said(self) -> None:
        self.board("Wide board", 2600, 420, 60)
        address = self.hang(starter("round_three"))
        page = self.wood(address)
        page.locator("[data-reserve]").click()
        expect(page.locator("[data-reserved]")).to_be_visible()
        self.at(address)
        type_in(page, "height", "640")
        saved(page)
        page.goto(f"{address}/wood")
        expect(page.locator("[data-wood-said]")).to_contain_text("reserved no more")
        expect(page.locator("[data-reserve]")).to_be_visible()
        self.store()
        expect(page.locator("[data-stock='Wide board']")).not_to_contain_text("for ")

    def test_a_better_plan_is_looked_for_while_the_first_one_stands_and_stopped_it_stays(self) -> None:
        for k in range(6):
            self.board(f"B{k}", 1500 + 170 * k, 130, 60)
        batch = read_piece({**write_piece(starter("round_three")), "make": 12})
        page = self.page
        held: list[Route] = []

        def hold(route: Route) -> None:
            """The better plan is not found as long as nobody stops looking for it."""
            if (route.request.post_data_json or {}).get("seconds"):
                held.append(route)
            else:
                route.continue_()

        page.route("**/wood/layout", hold)
        page.goto(f"{self.hang(batch)}/wood")
        page.locator("[data-stop]").click()
        # What was stopped is never answered.
        (never,) = held
        with suppress(Error):
            never.abort()
        page.unroute("**/wood/layout")
        expect(page.locator("[data-stop]")).to_have_count(0)
        expect(page.locator("[data-board]").first).to_be_visible()
        page.locator("[data-lay-out]").click()
        self.laid_out()
        expect(page.locator(".acts")).to_contain_text("litres lost")

    def test_what_the_wood_does_follows_the_air_and_the_kind(self) -> None:
        self.board("Wide board", 2600, 420, 60)
        page = self.wood(self.hang(starter("round_three")))
        weight = page.locator("[data-weight]")
        expect(weight).to_contain_text("kg")
        narrower = page.locator("[data-moves]")
        expect(narrower).to_contain_text("narrower")
        damp = page.get_by_label("Damp there, %")
        damp.fill("80")
        damp.press("Enter")
        expect(narrower).to_contain_text("wider")
        page.locator("[data-species]").select_option("oak, white")
        self.laid_out()
        expect(page.locator("[data-missing]")).to_be_visible()
