"""What a maker does by hand: sizes that come back, tools put back, values turned, several like pieces."""

from __future__ import annotations

import re

from playwright.sync_api import expect

from splay.piece import read_piece, write_piece
from splay.piece.starters import starter
from tests.browser.base import BrowserCase, field, saved, type_in
from workshop.pieces.models import PieceRow
from workshop.shop.models import the_shop


class InHand(BrowserCase):
    def test_choosing_another_outline_and_coming_back_restores_its_sizes(self) -> None:
        page = self.at(self.hang())
        type_in(page, "top.outline.diameter", "351")
        expect(field(page, "top.outline.diameter")).to_have_value("351 mm")
        page.get_by_role("radio", name="rectangle").click(force=True)
        type_in(page, "top.outline.length", "400")
        expect(field(page, "top.outline.length")).to_have_value("400 mm")
        page.get_by_role("radio", name="round", exact=True).click(force=True)
        expect(field(page, "top.outline.diameter")).to_have_value("351 mm")
        page.get_by_role("radio", name="rectangle").click(force=True)
        expect(field(page, "top.outline.length")).to_have_value("400 mm")
        saved(page)

    def test_a_tool_taken_out_can_be_put_back_after_a_reload_too(self) -> None:
        page = self.page
        page.goto(f"{self.live_server_url}/shop")
        table = page.locator("[data-tool=tilting_table]")
        table.get_by_role("button", name="Remove").click()
        expect(table).to_have_count(0)
        page.reload()
        page.locator("[data-back]").click()
        expect(table).to_be_visible()
        kinds = [tool.kind for tool in the_shop().tools]
        self.assertEqual(kinds.index("tilting_table"), 1)
        before = len(kinds)
        page.locator("[data-ready=hand]").click()
        expect(table).to_have_count(0)
        page.reload()
        page.locator("[data-back]").click()
        expect(table).to_be_visible()
        self.assertEqual(len(the_shop().tools), before)

    def test_an_arrow_turns_a_value_the_figures_follow_and_one_undo_takes_it_back(self) -> None:
        page = self.at(self.hang())
        height = field(page, "height")
        height.focus()
        for k in range(1, 6):
            height.press("ArrowUp")
            expect(height).to_have_value(f"{450 + k} mm")
        expect(page.locator("figure.front")).to_contain_text("455 mm")
        height.press("Shift+ArrowDown")
        expect(height).to_have_value("450 mm")
        height.press("ArrowUp")
        expect(height).to_have_value("451 mm")
        saved(page)
        height.press("Escape")
        page.keyboard.press("Control+z")
        expect(height).to_have_value("450 mm")
        expect(page.get_by_role("button", name="undo")).to_be_disabled()

    def test_each_of_several_like_pieces_is_read_by_itself(self) -> None:
        address = self.hang(read_piece({**write_piece(starter("round_three")), "make": 3}))
        page = self.at(address, "boring")
        reading = page.locator("[data-proof='bore.l1'] input")
        reading.fill("14.2")
        reading.press("Enter")
        expect(page.locator("nav.stick")).to_contain_text("1 of 3 proved")
        page.locator("[data-which] select").select_option("2")
        expect(reading).to_have_value("")
        expect(page.locator("nav.stick")).to_contain_text("0 of 3 proved")
        reading.fill("13.8")
        reading.press("Enter")
        expect(page.locator("nav.stick")).to_contain_text("1 of 3 proved")
        saved(page)
        # Taken back where it was read, though another one is looked at.
        page.locator("[data-which] select").select_option("1")
        expect(reading).to_have_value("14.2")
        page.keyboard.press("Escape")
        page.get_by_role("button", name="undo").click()
        expect(page.locator("[data-took-back]")).to_contain_text("no. 2")
        saved(page)
        readings = PieceRow.objects.get().readings.values_list("copy", "typed")
        self.assertEqual(list(readings), [(1, "14.2")])
        page.keyboard.press("4")
        page.get_by_text("how they are made, spares").click()
        expect(page.locator(".station")).to_contain_text("Legs to make")

    def test_a_card_opens_on_a_tool_that_reaches(self) -> None:
        page = self.at(self.hang(starter("slab")), "legs")
        page.locator("[data-work]").click()
        page.get_by_role("option", name="Cut the mitre of the slab leg at the left").click()
        expect(page.locator(".reach")).to_have_count(0)
        page.get_by_role("radio", name="Mitre saw").click(force=True)
        expect(page.locator(".reach")).to_contain_text("Past its reach")

    def test_what_it_is_read_with_is_said_before_it_is_read(self) -> None:
        page = self.at(self.hang(), "boring")
        row = page.locator("li:has([data-proof='bore.l1'])")
        row.get_by_role("button", name="read with").click()
        page.locator("[data-read-with] input").fill("brass protractor")
        page.keyboard.press("Enter")
        page.locator("[data-proof='bore.l1'] input").fill("14.2")
        page.locator("[data-proof='bore.l1'] input").press("Enter")
        expect(page.locator("nav.stick")).to_contain_text("1 of 4 proved")
        self.assertEqual(PieceRow.objects.get().readings.get().tool, "brass protractor")

    def test_a_piece_is_called_finished_and_not_yet(self) -> None:
        address = self.hang()
        page = self.at(address)
        page.get_by_role("button", name="call it finished").click()
        expect(page.get_by_role("button", name="finished")).to_have_text("finished")
        expect(page.get_by_text("carry on:")).to_have_count(0)
        page.goto(self.live_server_url)
        expect(page.locator("[data-piece]")).to_contain_text("finished")

    def test_earlier_states_are_drawn_side_by_side_and_named(self) -> None:
        page = self.at(self.hang())
        type_in(page, "height", "505")
        saved(page)
        page.get_by_role("button", name="earlier states").click()
        sheet = page.get_by_role("dialog")
        expect(sheet.locator("[data-side=before] svg.drawing")).to_be_visible()
        expect(sheet.locator("[data-side=after] svg.drawing")).to_be_visible()
        expect(sheet).to_contain_text("height")
        sheet.get_by_label("Call state 1").fill("as drawn")
        sheet.get_by_label("Call state 1").press("Enter")
        expect(sheet.locator("[data-state='1']")).to_contain_text("as drawn")

    def test_a_caution_stands_at_the_field_that_causes_it(self) -> None:
        page = self.at(self.hang(starter("bench")), "boring")
        type_in(page, "supports.0.joint.depth", "36")
        found = page.locator("[data-finding=thin_skin]")
        expect(found.first).to_be_visible()
        depth = page.locator("[data-field='supports.0.joint.depth']")
        expect(depth).to_have_class(re.compile("cautioned"))
        # Pressing the caution leads to its field, which says it too.
        found.first.click()
        expect(field(page, "supports.0.joint.depth")).to_be_focused()
        expect(depth.locator(".v-messages")).to_contain_text("mm")
        type_in(page, "supports.0.joint.depth", "26")
        expect(found).to_have_count(0)
        expect(depth).not_to_have_class(re.compile("cautioned"))

    def test_an_angle_is_shown_as_it_was_typed(self) -> None:
        page = self.at(self.hang(starter("bench")))
        type_in(page, "supports.0.angles.0.splay", "11.25")
        expect(field(page, "supports.0.angles.0.splay")).to_have_value("11.25°")
        expect(page.locator("[data-figure=splay]").first).to_have_text("11.25°")

    def test_the_words_are_behind_a_key(self) -> None:
        page = self.page
        page.goto(self.live_server_url)
        page.wait_for_selector("[data-new]")
        page.keyboard.press("g")
        expect(page.locator("[data-term=sightline] svg")).to_be_visible()
        page.keyboard.press("g")
        expect(page.locator("[data-term=sightline]")).to_have_count(0)
