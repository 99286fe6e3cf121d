"""The first five minutes: asked once, an example to look into, a stool of one's own sizes in inches."""

from __future__ import annotations

from playwright.sync_api import expect

from tests.browser.base import BrowserCase, field, saved, type_in
from workshop.shop.models import the_shop


class FirstMinutes(BrowserCase):
    asked = False

    def test_units_and_tools_are_asked_once_and_tools_ticked_by_sight(self) -> None:
        page = self.page
        page.goto(self.live_server_url)
        sheet = page.get_by_role("dialog")
        expect(sheet).to_contain_text("Before the first piece")
        page.locator("[data-tick=table_saw]").wait_for()
        page.get_by_text("inches", exact=True).last.click()
        page.locator("[data-set=hand]").click()
        page.locator("[data-tick=tilting_table] input").check()
        page.locator("[data-first]").click()
        expect(sheet).to_have_count(0)
        expect(page.locator("[data-units]")).to_have_text("inches")
        owned = {tool.kind for tool in the_shop().tools if tool.owned}
        self.assertIn("tilting_table", owned)
        self.assertNotIn("table_saw", owned)
        page.reload()
        expect(page.locator("[data-new]")).to_be_visible()
        expect(sheet).to_have_count(0)

    def test_an_empty_rack_says_what_it_is_for_and_shows_a_finished_piece(self) -> None:
        page = self.page
        page.goto(self.live_server_url)
        page.locator("[data-tick=table_saw]").wait_for()
        page.locator("[data-first]").click()
        for word in ("Set.", "Cut.", "Prove."):
            expect(page.locator("main")).to_contain_text(word)
        page.locator("[data-example]").click()
        expect(page.locator("[data-finish]")).to_have_text("finished")
        expect(page.locator("nav.stick")).to_contain_text("4 of 4 proved")
        page.get_by_role("link", name="Rack").click()
        expect(page.locator("[data-piece='Lantern stool, an example']")).to_contain_text("finished")
        page.get_by_role("button", name="off the rack").click()
        page.get_by_role("button", name="Take it off").click()
        expect(page.get_by_text("Nothing hangs here yet")).to_be_visible()

    def test_a_stool_of_ones_own_five_sizes_in_inches_to_its_first_hole(self) -> None:
        """From the rack to the setting of the first hole: what is clicked and typed is counted."""
        page = self.page
        page.goto(self.live_server_url)
        page.locator("[data-tick=table_saw]").wait_for()
        page.get_by_text("inches", exact=True).last.click()
        page.locator("[data-first]").click()
        clicks, keys = 0, 0
        page.locator("[data-new]").click()
        page.locator("[data-start=round_three]").click()
        clicks += 2
        expect(field(page, "height")).to_have_value('17 1/2"')
        for path, text in (
            ("height", "18"),
            ("top.outline.diameter", "13"),
            ("top.thickness", "1 3/4"),
            ("supports.0.placement.radius", "4"),
            ("supports.0.angles.0.resultant", "13"),
        ):
            type_in(page, path, text)
            clicks, keys = clicks + 1, keys + len(text) + 1
        page.keyboard.press("3")
        keys += 1
        expect(page.locator("[data-setting]")).to_have_text("77.0°")
        saved(page)
        self.assertLessEqual((clicks, keys), (7, 21))
