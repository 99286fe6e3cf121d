"""From nothing to the last setting, as the maker does it."""

from __future__ import annotations

import re

from playwright.sync_api import Route, expect

from tests.browser.base import BrowserCase, choose, drag, field, saved, type_in
from workshop.pieces.models import PieceRow


class MainJob(BrowserCase):
    def test_from_an_empty_shop_to_the_last_setting_and_back_again(self) -> None:
        self.context.close()
        self.context = self.fresh(signed_in=False)
        from django.contrib.auth import get_user_model

        get_user_model().objects.all().delete()
        page = self.page = self.open(self.context)
        page.goto(self.live_server_url)
        page.get_by_label("Name").fill("rowan")
        page.get_by_label("Password").fill("short")
        page.get_by_role("button", name="Open the shop").click()
        expect(page.get_by_text("too short")).to_be_visible()
        page.get_by_label("Password").fill("limewood-and-oak-7")
        page.get_by_role("button", name="Open the shop").click()

        # A stool from nothing: three legs round a circle.
        page.locator("[data-tick=table_saw]").wait_for()
        page.locator("[data-first]").click()
        expect(page.get_by_text("Nothing hangs here yet")).to_be_visible()
        page.locator("[data-new]").click()
        page.locator("[data-start=round_three]").click()
        page.wait_for_selector("figure.plan svg")
        page.get_by_label("Name of the piece").fill("Milking stool")
        page.get_by_label("Name of the piece").press("Enter")
        type_in(page, "height", "13 1/2 in")
        expect(field(page, "height")).to_have_value("343 mm")
        type_in(page, "top.outline.diameter", "31cm")
        type_in(page, "supports.0.placement.radius", "95")
        type_in(page, "supports.0.angles.0.resultant", "15")
        expect(page.locator("[data-figure=resultant]").first).to_contain_text("15.0°")

        # The figures follow the drawing: a foot dragged outward leans its leg more.
        drag(page, "plan", "foot.1", (0, -30))
        expect(field(page, "supports.0.angles.0.resultant")).not_to_have_value("15.0°")
        saved(page)

        # A bad value is answered beside the field, and stays there to be mended.
        type_in(page, "top.thickness", "1/0")
        thickness = page.locator("[data-field='top.thickness']")
        expect(thickness).to_contain_text("divided by 0")
        expect(field(page, "top.thickness")).to_have_value("1/0")
        type_in(page, "top.thickness", "38")
        expect(thickness).not_to_contain_text("divided by 0")
        type_in(page, "supports.0.angles.0.resultant", "14")

        # The setting, on the tool's own scale.
        page.get_by_role("link", name="Boring").first.click()
        page.get_by_role("radio", name="Bevel gauge").click(force=True)
        expect(page.locator("[data-setting]")).to_have_text("76.0°")
        page.get_by_role("radio", name="Drill press, tilting table").click(force=True)
        expect(page.locator("[data-setting]")).to_have_text("14.0°")
        expect(page.locator(".which")).to_contain_text("arrow pointing UPHILL")
        expect(page.locator(".proofs")).to_contain_text("expect")
        page.get_by_role("radio", name="Ramp under the drill press").click(force=True)
        expect(page.locator("[data-setting]")).to_contain_text("75")
        page.keyboard.press("u")
        expect(page.locator("[data-units]")).to_have_text("inches")
        expect(page.locator("[data-setting]")).to_contain_text("2")
        page.keyboard.press("u")
        expect(page.locator("[data-units]")).to_have_text("millimetres")

        # Lengths and the foot cut.
        page.keyboard.press("4")
        expect(page.locator("tr[data-leg]")).to_have_count(3)
        page.locator("[data-work]").click()
        page.locator(".v-overlay--active .v-list-item", has_text="Cut the foot").first.click()
        expect(page.locator("[data-setting]")).to_have_text("14.0°")
        page.locator("button[aria-label='Why Finished length?']").click()
        expect(page.get_by_role("dialog")).to_contain_text("exposed + in the top")
        page.keyboard.press("Escape")
        saved(page)
        address = page.url

        # Come back another day, in another browser.
        later = self.fresh(signed_in=False)
        back = self.open(later)
        back.goto(address)
        back.get_by_label("Name").fill("rowan")
        back.get_by_label("Password").fill("limewood-and-oak-7")
        back.get_by_role("button", name="Sign in").click()
        expect(back.get_by_label("Name of the piece")).to_have_value("Milking stool")
        back.get_by_role("link", name="Stance").click()
        expect(field(back, "height")).to_have_value("343 mm")
        later.close()
        self.assertEqual(PieceRow.objects.count(), 1)


class Shaping(BrowserCase):
    def test_sockets_height_and_lean_are_dragged_too(self) -> None:
        page = self.at(self.hang())
        before = field(page, "supports.0.placement.radius").input_value()
        drag(page, "plan", "socket.1", (12, -12))
        expect(field(page, "supports.0.placement.radius")).not_to_have_value(before)
        drag(page, "front", "height.0", (0, 25))
        expect(field(page, "height")).not_to_have_value("450 mm")
        drag(page, "side", "lean.0", (0, 14))
        expect(field(page, "lean.fall")).not_to_have_value("0.0°")
        expect(page.get_by_text("lean to the floor")).to_be_visible()
        saved(page)

    def test_a_second_handle_taken_while_the_first_is_unheard_of_loses_neither(self) -> None:
        page = self.at(self.hang())
        held: list[Route] = []

        def hold(route: Route) -> None:
            """The first answer is long in coming."""
            if held:
                route.continue_()
            else:
                held.append(route)

        page.route("**/api/plan", hold)
        drag(page, "front", "height.0", (0, 25))
        drag(page, "side", "lean.0", (0, 14))
        held[0].continue_()
        expect(field(page, "lean.fall")).not_to_have_value("0.0°")
        # Where it was let go: of the way there only the first step was asked for before.
        expect(field(page, "height")).to_have_value(re.compile(r"^3[89]\d"))
        saved(page)
        page.get_by_role("button", name="undo").click()
        expect(field(page, "lean.fall")).to_have_value("0.0°")
        expect(field(page, "height")).to_have_value("450 mm")
        saved(page)

    def test_handles_can_be_nudged_from_the_keyboard(self) -> None:
        page = self.at(self.hang())
        page.locator("figure.front [data-handle='height.0']").focus()
        page.keyboard.press("Shift+ArrowUp")
        expect(field(page, "height")).to_have_value("460 mm")

    def test_every_way_of_giving_the_angle_keeps_the_lean_and_takes_figures(self) -> None:
        page = self.at(self.hang())
        lean = page.locator("[data-figure=resultant]").first
        expect(lean).to_contain_text("14.0°")
        for way, own in (("splay and rake", "splay"), ("resultant and sightline", "resultant")):
            page.get_by_label(way).click(force=True)
            expect(field(page, f"supports.0.angles.0.{own}")).to_be_visible()
            expect(lean).to_contain_text("14.0°")
        page.get_by_label("splay and rake").click(force=True)
        expect(field(page, "supports.0.angles.0.splay")).to_be_visible()
        type_in(page, "supports.0.angles.0.splay", "12 1/2")
        expect(page.locator("[data-figure=splay]").first).to_have_text("12.5°")
        page.get_by_label("footprint").click(force=True)
        type_in(page, "supports.0.angles.0.width", "400")
        expect(field(page, "supports.0.angles.0.width")).to_have_value("400 mm")
        for way in ("foot under the rim", "as wide as the top"):
            page.get_by_label(way).click(force=True)
            expect(page.locator("[data-figure=resultant]").first).not_to_contain_text("14.0°")

    def test_going_back_on_a_choice_before_its_answer_came_is_a_choice_too(self) -> None:
        page = self.at(self.hang())
        page.get_by_label("splay and rake").click(force=True)
        expect(field(page, "supports.0.angles.0.splay")).to_be_visible()
        page.evaluate(
            "() => { for (const way of ['resultant', 'splay_rake'])"
            " document.querySelector(`input[type=radio][value=${way}]`).click() }"
        )
        saved(page)
        page.wait_for_timeout(600)
        expect(field(page, "supports.0.angles.0.splay")).to_be_visible()

    def test_pairs_and_single_legs_can_lean_on_their_own(self) -> None:
        page = self.at(self.hang(None))
        page.get_by_label("in from the edges").click(force=True)
        expect(field(page, "supports.0.placement.from_ends")).to_be_visible()
        page.get_by_label("mirrored pairs").click(force=True)
        # What moves below when the pairs come is moved by then.
        expect(page.get_by_label("legs 3, 4")).to_be_attached()
        page.get_by_label("splay and rake").click(force=True)
        expect(field(page, "supports.0.angles.0.rake")).to_be_visible()
        page.get_by_label("legs 3, 4").click(force=True)
        expect(field(page, "supports.0.angles.1.resultant")).to_be_visible()
        page.get_by_label("splay and rake").click(force=True)
        type_in(page, "supports.0.angles.1.rake", "18")
        expect(page.locator("[data-figure=rake]")).to_have_count(2)
        page.get_by_label("each its own").click(force=True)
        expect(page.get_by_role("radio", name="leg 4", exact=True)).to_be_attached()

    def test_tops_and_layouts_change_kind(self) -> None:
        page = self.at(self.hang())
        for kind, path in (
            ("rectangle", "corner"),
            ("oval", "width"),
            ("three-cornered", "arc"),
            ("round", "diameter"),
        ):
            choose(page, kind)
            expect(field(page, f"top.outline.{path}")).to_be_visible()
        page.get_by_label("freely").click(force=True)
        expect(page.get_by_label("To the right")).to_have_count(2)
        page.get_by_role("button", name="another leg").click()
        expect(page.get_by_label("To the right")).to_have_count(3)
        saved(page)

    def test_undo_and_redo_step_through_the_changes(self) -> None:
        page = self.at(self.hang())
        for height in ("470", "480"):
            type_in(page, "height", height)
            expect(field(page, "height")).to_have_value(f"{height} mm")
        page.locator("figcaption").first.click()
        page.get_by_role("button", name="undo").click()
        expect(field(page, "height")).to_have_value("470 mm")
        page.get_by_role("button", name="undo").click()
        expect(field(page, "height")).to_have_value("450 mm")
        page.get_by_role("button", name="redo").click()
        expect(field(page, "height")).to_have_value("470 mm")
        saved(page)

    def test_earlier_states_are_compared_and_put_back(self) -> None:
        page = self.at(self.hang())
        type_in(page, "height", "505")
        saved(page)
        page.get_by_role("button", name="earlier states").click()
        expect(page.get_by_role("dialog")).to_contain_text(re.compile("450.*505", re.DOTALL))
        page.get_by_role("button", name="put 1 back").click()
        expect(field(page, "height")).to_have_value("450 mm")
        saved(page)

    def test_cautions_point_at_the_place(self) -> None:
        page = self.at(self.hang())
        type_in(page, "supports.0.angles.0.resultant", "1")
        found = page.locator("[data-finding=footprint_inside]")
        expect(found).to_be_visible()
        expect(page.locator("figure.plan polygon.leg.warned").first).to_be_attached()
        found.hover()
        expect(page.locator("figure.plan polygon.leg.lit").first).to_be_attached()
