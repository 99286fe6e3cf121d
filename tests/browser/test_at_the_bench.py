"""At the bench: keys, lights, small screens, words that light up the drawing."""

from __future__ import annotations

from playwright.sync_api import expect

from splay.piece.starters import starter
from splay.shop import read_shop, write_shop
from tests.browser.base import BrowserCase, field, saved, type_in
from workshop.pieces.models import PieceRow
from workshop.shop.models import keep_shop, the_shop


class Keys(BrowserCase):
    def test_single_letters_go_everywhere_and_stay_out_of_fields(self) -> None:
        page = self.at(self.hang())
        page.keyboard.press("3")
        expect(page.locator("[data-setting]")).to_be_visible()
        page.keyboard.press("q")
        expect(page.get_by_role("heading", name="Quick set")).to_be_visible()
        page.keyboard.press("s")
        expect(page.get_by_role("heading", name="The shop")).to_be_visible()
        page.keyboard.press("r")
        expect(page.get_by_role("heading", name="The rack")).to_be_visible()
        page.keyboard.press("?")
        expect(page.get_by_role("dialog")).to_contain_text("inches or millimetres")
        page.get_by_role("button", name="Back to work").click()
        page.goto(f"{self.live_server_url}/quick")
        splay = page.locator("[data-quick=splay] input")
        splay.click()
        page.keyboard.type("urs")
        expect(splay).to_have_value("urs")

    def test_ctrl_z_undoes_the_last_change(self) -> None:
        page = self.at(self.hang())
        type_in(page, "height", "475")
        expect(field(page, "height")).to_have_value("475 mm")
        saved(page)
        page.locator("figcaption").first.click()
        page.keyboard.press("Control+z")
        expect(field(page, "height")).to_have_value("450 mm")
        page.keyboard.press("Control+Shift+z")
        expect(field(page, "height")).to_have_value("475 mm")

    def test_escape_takes_back_what_is_being_typed(self) -> None:
        page = self.at(self.hang())
        field(page, "height").fill("999")
        field(page, "height").press("Escape")
        expect(field(page, "height")).to_have_value("450 mm")

    def test_the_same_figure_typed_again_is_shown_as_it_is_read(self) -> None:
        page = self.at(self.hang())
        type_in(page, "height", "450")
        expect(field(page, "height")).to_have_value("450 mm")


class Failing(BrowserCase):
    def test_what_nobody_caught_is_said_and_put_away(self) -> None:
        page = self.at(self.hang())
        page.evaluate("() => { setTimeout(() => { throw new Error('a hinge is off') }) }")
        said = page.locator("[data-failed]")
        expect(said).to_contain_text("a hinge is off")
        self.assertEqual(len(self.errors), 1)
        self.errors.clear()
        page.route("**/api/session", lambda route: route.abort())
        page.get_by_role("button", name="sign out").click()
        expect(said).to_contain_text("The workshop does not answer")
        said.get_by_role("button", name="put this away").click()
        expect(said).to_have_count(0)
        # It is on the console, for whoever looks there.
        self.assertTrue(self.errors)
        self.errors.clear()


class Lights(BrowserCase):
    def test_the_light_is_kept_in_this_browser(self) -> None:
        page = self.page
        page.goto(self.live_server_url)
        page.wait_for_selector("[data-new]")
        for theme in ("lampblack", "sunlit", "limewood", "lampblack"):
            page.keyboard.press("t")
            expect(page.locator(f".v-theme--{theme}").first).to_be_attached()
        page.reload()
        expect(page.locator(".v-theme--lampblack").first).to_be_attached()


class SmallScreens(BrowserCase):
    def test_on_a_phone_a_proof_can_be_answered_without_scrolling_sideways(self) -> None:
        address = self.hang()
        self.page.set_viewport_size({"width": 390, "height": 844})
        page = self.at(address, "boring")
        page.locator("[data-proof='bore.l1'] input").fill("14")
        page.locator("[data-proof='bore.l1'] input").press("Enter")
        expect(page.locator("nav.stick")).to_contain_text("1 of 4 proved")
        wide = page.evaluate("document.documentElement.scrollWidth")
        self.assertLessEqual(wide, 390)

    def test_on_a_bench_screen_the_stance_needs_no_scrolling(self) -> None:
        for name in ("round_three", "round_four", "triangle", "bench", "table"):
            page = self.at(self.hang(starter(name)))
            tall = page.evaluate("document.documentElement.scrollHeight")
            self.assertLessEqual(tall, 800, name)
            panel = page.locator(".panel").evaluate("p => p.scrollHeight - p.clientHeight")
            self.assertLessEqual(panel, 0, name)


class Pointing(BrowserCase):
    def test_pointing_at_a_leg_in_the_drawing_lights_its_line_and_the_other_way_round(self) -> None:
        page = self.at(self.hang(), "boring")
        page.locator("table tbody tr").nth(1).hover()
        expect(page.locator(".under polygon.leg.lit")).to_have_count(1)
        page.locator(".under polygon.foot").nth(2).hover()
        expect(page.locator("tr.lit")).to_contain_text("3")

    def test_why_opens_the_working_and_closes_again(self) -> None:
        page = self.at(self.hang())
        page.locator("[data-figure=resultant] .why").first.click()
        working = page.get_by_role("dialog")
        expect(working).to_contain_text("tan² ρ = tan² s + tan² r")
        expect(working).to_contain_text("nothing is rounded")
        page.keyboard.press("Escape")
        expect(working).not_to_be_visible()


class Rack(BrowserCase):
    def test_a_piece_is_taken_off_only_when_meant(self) -> None:
        self.hang()
        page = self.page
        page.goto(self.live_server_url)
        page.get_by_role("button", name="Take Round stool off the rack").click()
        page.get_by_role("button", name="Leave it").click()
        self.assertEqual(PieceRow.objects.count(), 1)
        page.get_by_role("button", name="Take Round stool off the rack").click()
        page.get_by_role("button", name="Take it off").click()
        expect(page.get_by_text("Nothing hangs here yet")).to_be_visible()

    def test_a_piece_that_is_not_there_is_explained(self) -> None:
        self.page.goto(f"{self.live_server_url}/piece/2b1c9f0e-0000-4000-8000-000000000000/stance")
        expect(self.page.get_by_text("not on the rack")).to_be_visible()

    def test_a_name_cannot_be_nothing(self) -> None:
        page = self.at(self.hang())
        name = page.get_by_label("Name of the piece")
        name.fill("")
        name.press("Enter")
        expect(page.get_by_role("alert")).to_contain_text("Give it a name")


class Fields(BrowserCase):
    def test_enter_takes_a_figure_and_leaves_the_field_to_the_next_key(self) -> None:
        page = self.at(self.hang())
        height = field(page, "height")
        height.fill("512")
        height.press("Enter")
        expect(height).not_to_be_focused()
        page.keyboard.press("3")
        page.wait_for_url("**/boring")
        page.keyboard.press("1")
        page.wait_for_url("**/stance")
        expect(field(page, "height")).to_have_value("512 mm")

    def test_in_a_row_of_proofs_enter_goes_on_to_the_next(self) -> None:
        page = self.at(self.hang(), "boring")
        first = page.locator("[data-proof='bore.l1'] input")
        first.fill("13")
        first.press("Enter")
        expect(page.locator("[data-proof='bore.l2'] input")).to_be_focused()

    def test_undo_works_from_a_field_once_what_was_typed_is_taken(self) -> None:
        page = self.at(self.hang())
        before = field(page, "height").input_value()
        type_in(page, "height", "512")
        expect(field(page, "height")).to_have_value("512 mm")
        saved(page)
        field(page, "top.thickness").focus()
        page.keyboard.press("Control+z")
        expect(field(page, "height")).to_have_value(before)
        page.keyboard.press("Control+y")
        expect(field(page, "height")).to_have_value("512 mm")
        # What is being typed is the field's own to take back.
        field(page, "top.thickness").press_sequentially("5")
        page.keyboard.press("Control+z")
        expect(field(page, "height")).to_have_value("512 mm")

    def test_quick_undos_take_back_as_many_steps_and_lose_none(self) -> None:
        page = self.at(self.hang())
        before = field(page, "height").input_value()
        for number in range(8):
            type_in(page, "height", str(460 + number))
            expect(field(page, "height")).to_have_value(f"{460 + number} mm")
        saved(page)
        page.route("**/api/plan", lambda route: (page.wait_for_timeout(120), route.continue_()))
        for _ in range(8):
            page.keyboard.press("Control+z")
        expect(field(page, "height")).to_have_value(before)
        for _ in range(8):
            page.keyboard.press("Control+Shift+z")
        expect(field(page, "height")).to_have_value("467 mm")
        for _ in range(3):
            page.keyboard.press("Control+z")
        expect(field(page, "height")).to_have_value("464 mm")
        saved(page)
        page.reload()
        expect(field(page, "height")).to_have_value("464 mm")

    def test_what_was_asked_and_is_not_answered_is_what_undo_takes_back(self) -> None:
        page = self.at(self.hang())
        before = field(page, "height").input_value()
        type_in(page, "height", "500")
        expect(field(page, "height")).to_have_value("500 mm")
        page.route("**/api/plan", lambda route: (page.wait_for_timeout(600), route.continue_()))
        type_in(page, "height", "510")
        page.keyboard.press("Control+z")
        page.wait_for_timeout(1500)
        expect(field(page, "height")).to_have_value("500 mm")
        page.keyboard.press("Control+z")
        expect(field(page, "height")).to_have_value(before)

    def test_arrows_look_along_a_row_of_words_and_space_chooses(self) -> None:
        page = self.at(self.hang())
        page.goto(f"{self.live_server_url}/shop")
        group = page.get_by_role("radiogroup", name="Inches to the nearest")
        chosen = group.locator("input:checked")
        was = chosen.get_attribute("value")
        chosen.focus()
        page.keyboard.press("ArrowRight")
        page.wait_for_timeout(600)
        self.assertEqual(group.locator("input:checked").get_attribute("value"), was)
        page.keyboard.press("Space")
        expect(group.locator(f"input:not([value='{was}']):checked")).to_have_count(1)

    def test_the_first_field_is_near_and_keys_stay_under_a_sheet(self) -> None:
        page = self.at(self.hang())
        page.keyboard.press("f")
        expect(page.locator("main input:focus, main button:focus")).to_have_count(1)
        page.locator("body").click(position={"x": 5, "y": 5})
        page.keyboard.press("?")
        expect(page.get_by_role("heading", name="Keys")).to_be_visible()
        page.keyboard.press("3")
        page.wait_for_timeout(400)
        self.assertIn("/stance", page.url)
        page.keyboard.press("Escape")
        page.goto(f"{self.live_server_url}/shop")
        page.wait_for_selector(".tools li")
        page.keyboard.press("Tab")
        page.keyboard.press("Enter")
        expect(page.locator("main input:focus")).to_have_count(1)

    def test_a_tool_that_reads_another_way_does_not_turn_what_was_read(self) -> None:
        page = self.at(self.hang(), "boring")
        first = page.locator("[data-proof='bore.l1'] input")
        first.fill("13")
        first.press("Enter")
        expect(page.locator("nav.stick")).to_contain_text("1 of 4 proved")
        shop = write_shop(the_shop())
        for tool in shop["tools"]:
            if tool["kind"] == "digital_gauge":
                tool["scale"] = {**tool["scale"], "at_square": 90, "counts": "down"}
        keep_shop(read_shop(shop))
        page.reload()
        expect(first).to_have_value("77")
        expect(page.locator("[data-as-read]")).to_contain_text("read as 13 on")
