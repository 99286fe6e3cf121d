"""At the bench: keys, lights, small screens, words that light up the drawing."""

from __future__ import annotations

from playwright.sync_api import expect

from splay.piece.starters import starter
from tests.browser.base import BrowserCase, field, saved, type_in
from workshop.pieces.models import PieceRow


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
