"""Nothing entered is lost: server away, two tabs, restart. And the other pages."""

from __future__ import annotations

import json
import re
import tempfile
from contextlib import closing
from typing import Any

from axe_playwright_python.sync_playwright import Axe
from django.contrib.auth import get_user_model
from django.test import SimpleTestCase, tag
from playwright.sync_api import Page, Route, expect

from splay.piece import read_piece, write_piece
from splay.piece.starters import starter
from tests.browser.base import PATIENCE_MS, BrowserCase, drag, field, saved, the_browser, type_in, walk
from tools.screenshots import served
from workshop.pieces.models import PieceRow, ReadingRow
from workshop.shop.models import the_shop


class Keeping(BrowserCase):
    def test_what_is_typed_while_the_server_is_away_is_sent_when_it_is_back(self) -> None:
        page = self.at(self.hang())
        page.route("**/api/**", lambda route: route.abort())
        type_in(page, "height", "512")
        expect(page.locator("[data-status=away]")).to_be_visible()
        type_in(page, "top.thickness", "44")
        page.unroute("**/api/**")
        expect(field(page, "height")).to_have_value("512 mm")
        expect(field(page, "top.thickness")).to_have_value("44 mm")
        saved(page)
        page.reload()
        expect(field(page, "height")).to_have_value("512 mm")

    def test_what_is_typed_while_the_server_is_away_outlives_a_closed_tab(self) -> None:
        address = self.hang()
        page = self.at(address)
        page.route("**/api/**", lambda route: route.abort())
        type_in(page, "height", "515")
        expect(page.locator("[data-status=away]")).to_be_visible()
        page.close()
        again = self.at(address, page=self.open(self.context))
        expect(field(again, "height")).to_have_value("515 mm")
        saved(again)

    def test_a_reading_typed_while_the_server_is_away_is_sent_when_it_is_back(self) -> None:
        address = self.hang()
        page = self.at(address, "boring")
        page.route("**/api/**", lambda route: route.abort())
        page.locator("[data-proof='bore.l1'] input").fill("14.3")
        page.locator("[data-proof='bore.l1'] input").press("Enter")
        expect(page.locator("[data-proof='bore.l1']")).to_contain_text("kept here")
        page.close()
        again = self.at(address, "boring", self.open(self.context))
        expect(again.locator("[data-proof='bore.l1'] input")).to_have_value("14.3")
        expect(again.locator("nav.stick")).to_contain_text("1 of 4 proved")
        self.assertAlmostEqual(PieceRow.objects.get().readings.get().value, 14.3)
        again.reload()
        expect(again.locator("[data-proof='bore.l1'] input")).to_have_value("14.3")

    def test_a_reading_that_waits_stays_with_its_own_piece(self) -> None:
        first = self.hang()
        self.hang(starter("bench"))
        page = self.at(first, "boring")
        held: list[Route] = []
        page.route("**/readings/*", lambda route: held.append(route))
        page.locator("[data-proof='bore.l1'] input").fill("14.3")
        page.locator("[data-proof='bore.l1'] input").press("Enter")
        page.get_by_role("link", name="Rack").click()
        page.locator("[data-piece='Bench']").click()
        page.locator("nav.stick a", has_text="Boring").click()
        # Only now does it turn out that the workshop was away: another piece is open.
        expect(page.locator("[data-proof='bore.l4']")).to_be_visible()
        for route in held:
            route.abort()
        page.unroute("**/readings/*")
        page.wait_for_timeout(2500)  # longer than it waits before it sends again
        expect(page.locator("[data-proof='bore.l1'] input")).to_have_value("")
        self.at(first, "boring")
        expect(page.locator("[data-proof='bore.l1'] input")).to_have_value("14.3")
        expect(page.locator("nav.stick")).to_contain_text("1 of 4 proved")
        self.assertEqual(str(ReadingRow.objects.get().piece_id), first.rpartition("/")[2])

    def test_what_is_typed_after_signing_out_elsewhere_is_there_after_signing_in(self) -> None:
        page = self.at(self.hang())
        maker = get_user_model().objects.get(username="ash")
        maker.set_password("limewood-and-oak-7")  # which ends every session of this maker
        maker.save()
        self.context.clear_cookies(name="sessionid")
        type_in(page, "height", "518")
        expect(page.get_by_role("button", name="Sign in")).to_be_visible()
        page.get_by_label("Name").fill("ash")
        page.get_by_label("Password").fill("limewood-and-oak-7")
        page.get_by_role("button", name="Sign in").click()
        expect(field(page, "height")).to_have_value("518 mm")
        saved(page)

    def test_late_answers_do_not_undo_newer_figures(self) -> None:
        page = self.at(self.hang())
        slow: list[Route] = []
        page.route("**/api/plan", lambda route: slow.append(route))
        type_in(page, "height", "470")
        type_in(page, "height", "480")
        for _ in range(60):
            while slow:
                slow.pop().continue_()
            page.wait_for_timeout(100)
        expect(field(page, "height")).to_have_value("480 mm")

    def test_a_change_made_while_a_slow_save_is_under_way_is_no_conflict(self) -> None:
        page = self.at(self.hang())
        held: list[Route] = []

        def slow(route: Route) -> None:
            held.append(route)
            if len(held) > 1:
                route.continue_()

        page.route("**/api/pieces/*", slow)
        type_in(page, "height", "466")
        for _ in range(100):
            if held:
                break
            page.wait_for_timeout(50)
        type_in(page, "height", "471")
        expect(field(page, "height")).to_have_value("471 mm")
        page.wait_for_timeout(900)  # longer than it waits before it saves
        self.assertEqual(len(held), 1)
        held[0].continue_()
        saved(page)
        expect(page.get_by_text("saved elsewhere")).to_have_count(0)
        self.assertEqual(PieceRow.objects.get().revisions.latest("number").document["height"], 471)

    def test_a_drag_that_cannot_be_is_refused_and_saved_is_true_again(self) -> None:
        page = self.at(self.hang(starter("round_three")))
        drag(page, "front", "foot.1", (400, 0))
        drag(page, "plan", "foot.2", (900, 900))
        expect(page.locator(".band")).to_be_visible()
        saved(page)

    def test_a_fault_is_told_from_being_away_and_the_next_change_goes_on(self) -> None:
        page = self.at(self.hang())
        fault = {"field": "", "got": "this", "allowed": "Fault k4w7pz stands.", "do": "Choose another way."}
        fault |= {"what": "", "said": f"{fault['allowed']} {fault['do']}"}
        body = json.dumps({"title": "The program failed", "status": 500, "detail": "", "faults": [fault]})
        kind = "application/problem+json"
        page.route("**/api/plan", lambda r: r.fulfill(status=500, body=body, content_type=kind))
        type_in(page, "height", "512")
        expect(page.locator("main")).to_contain_text("Fault k4w7pz stands.")
        saved(page)
        page.unroute("**/api/plan")
        type_in(page, "top.thickness", "44")
        expect(field(page, "top.thickness")).to_have_value("44 mm")
        saved(page)
        page.reload()
        expect(field(page, "top.thickness")).to_have_value("44 mm")

    def test_a_save_that_fails_is_said_and_made_when_the_piece_is_next_opened(self) -> None:
        page = self.at(self.hang())

        def fail_a_put(route: Route) -> None:
            if route.request.method == "PUT":
                route.fulfill(status=500, body="no")
            else:
                route.continue_()

        page.route("**/api/pieces/*", fail_a_put)
        type_in(page, "height", "512")
        expect(page.locator("[data-status=unsaved]")).to_be_visible()
        expect(page.locator(".band")).to_contain_text("answered 500")
        page.unroute("**/api/pieces/*")
        page.reload()
        expect(field(page, "height")).to_have_value("512 mm")
        saved(page)

    def test_a_piece_that_cannot_be_built_opens_and_is_mended(self) -> None:
        frames = write_piece(starter("plane_frames"))
        frames["supports"][0]["face"] = 350
        page = self.page
        page.goto(f"{self.hang(read_piece(frames))}/stance")
        expect(page.locator(".band")).to_contain_text("Nothing is left")
        type_in(page, "supports.0.face", "42")
        expect(page.locator(".band")).to_have_count(0)
        saved(page)
        page.reload()
        expect(field(page, "supports.0.face")).to_have_value("42 mm")

    def test_what_is_typed_after_a_drag_stands_though_the_drag_is_answered_late(self) -> None:
        page = self.at(self.hang(starter("bench")), "stretchers")
        held: list[Route] = []
        late = [True]
        page.route("**/api/plan", lambda route: held.append(route) if late[0] else route.continue_())
        drag(page, "side", "member.1", (0, -20))
        type_in(page, "members.0.ends.0.level.value", "150")
        page.wait_for_timeout(300)
        late[0] = False
        for route in held:
            route.continue_()
        expect(field(page, "members.0.ends.0.level.value")).to_have_value("150 mm")
        saved(page)
        document = PieceRow.objects.get().revisions.latest("number").document
        self.assertEqual(document["members"][0]["ends"][0]["level"]["value"], 150)

    def test_saved_is_said_though_a_plan_comes_back_while_saving(self) -> None:
        page = self.at(self.hang())
        held: list[Route] = []
        page.route("**/api/pieces/*", lambda route: held.append(route))
        type_in(page, "height", "466")
        for _ in range(100):
            if held:
                break
            page.wait_for_timeout(50)
        page.locator("figcaption").first.click()
        page.keyboard.press("4")  # asks for a plan anew, with the save still under way
        expect(page.locator("tr[data-leg]")).to_have_count(4)
        for route in held:
            route.continue_()
        saved(page)

    def test_two_tabs_that_change_different_fields_are_put_together(self) -> None:
        address = self.hang()
        one, two = self.at(address), self.at(address, page=self.open(self.context))
        type_in(one, "height", "470")
        saved(one)
        type_in(two, "top.thickness", "44")
        expect(two.locator("[data-meanwhile]")).to_contain_text("ash changed this piece meanwhile")
        expect(two.locator("[data-meanwhile]")).to_contain_text("height 450 mm → 470 mm")
        saved(two)
        expect(field(two, "height")).to_have_value("470 mm")
        expect(field(two, "top.thickness")).to_have_value("44 mm")
        latest = PieceRow.objects.get().revisions.latest("number").document
        self.assertEqual((latest["height"], latest["top"]["thickness"]), (470, 44))
        # What was done here is taken back without what the other did.
        two.keyboard.press("Control+z")
        expect(field(two, "top.thickness")).to_have_value("40 mm")
        expect(field(two, "height")).to_have_value("470 mm")

    def test_two_tabs_that_change_one_field_are_both_shown(self) -> None:
        address = self.hang()
        one, two = self.at(address), self.at(address, page=self.open(self.context))
        type_in(one, "height", "470")
        type_in(one, "top.thickness", "42")
        saved(one)
        type_in(two, "height", "490")
        clash = two.locator("[data-clash=height]")
        expect(clash).to_contain_text("keep yours: 490 mm")
        expect(clash).to_contain_text("take the other: 470 mm")
        clash.get_by_role("button", name="keep yours").click()
        saved(two)
        expect(field(two, "top.thickness")).to_have_value("42 mm")
        rows = PieceRow.objects.get().revisions.order_by("number")
        self.assertEqual([r.document["height"] for r in rows][-1], 490)
        self.assertEqual(rows.last().document["top"]["thickness"], 42)  # type: ignore[union-attr]

    def test_a_tab_that_comes_back_to_the_front_is_brought_up_to_date(self) -> None:
        address = self.hang()
        one = self.at(address, "boring")
        two = self.at(address, page=self.open(self.context))
        type_in(two, "height", "470")
        saved(two)
        self.at(address, "boring", two)
        two.locator("[data-proof='bore.l2'] input").fill("14.4")
        two.locator("[data-proof='bore.l2'] input").press("Enter")
        expect(two.locator("nav.stick")).to_contain_text("1 of 4 proved")
        saved(two)
        one.evaluate("document.dispatchEvent(new Event('visibilitychange'))")
        expect(one.locator("[data-meanwhile]")).to_contain_text("470 mm")
        expect(one.locator("[data-proof='bore.l2'] input")).to_have_value("14.4")
        saved(one)
        self.assertEqual(PieceRow.objects.get().latest, 2)

    def test_undo_takes_back_readings_and_choices_in_their_order_and_says_which(self) -> None:
        address = self.hang()
        page = self.at(address)
        type_in(page, "height", "470")
        saved(page)
        page.keyboard.press("3")
        reading = page.locator("[data-proof='bore.l1'] input")
        reading.fill("14.3")
        reading.press("Enter")
        expect(page.locator("nav.stick")).to_contain_text("1 of 4 proved")
        undo = page.get_by_role("button", name="undo")
        expect(undo).to_contain_text("14.3")
        undo.click()
        expect(reading).to_have_value("")
        expect(page.locator("nav.stick")).to_contain_text("0 of 4 proved")
        expect(undo).to_contain_text("height 450 mm → 470 mm")
        undo.click()
        took = page.locator("[data-took-back]")
        expect(took).to_contain_text("taken back: height 450 mm → 470 mm")
        saved(page)
        self.assertEqual(PieceRow.objects.get().revisions.latest("number").document["height"], 450)
        # It was made at another station: the way there is offered.
        took.get_by_role("link", name="at Stance").click()
        expect(field(page, "height")).to_have_value("450 mm")
        page.keyboard.press("Control+y")
        expect(field(page, "height")).to_have_value("470 mm")
        page.keyboard.press("Control+y")
        page.keyboard.press("3")
        expect(reading).to_have_value("14.3")
        saved(page)
        self.assertAlmostEqual(ReadingRow.objects.get().value, 14.3)

    def test_what_waits_is_marked_and_the_cards_say_that_they_wait(self) -> None:
        page = self.at(self.hang(), "boring")
        page.route("**/api/**", lambda route: route.abort())
        type_in(page, "supports.0.joint.socket", "30")
        expect(page.locator("[data-field='supports.0.joint.socket']")).to_contain_text("waits")
        expect(field(page, "supports.0.joint.socket")).to_have_value("30")
        expect(page.locator("[data-waits]").first).to_be_visible()
        page.locator("[data-proof='bore.l1'] input").fill("14.3")
        page.locator("[data-proof='bore.l1'] input").press("Enter")
        expect(page.locator("[data-proof='bore.l1']")).to_contain_text("kept here")
        expect(page.locator("[data-proof='bore.l1'] input")).to_have_value("14.3")
        page.unroute("**/api/**")
        expect(page.locator("[data-waits]")).to_have_count(0)
        expect(field(page, "supports.0.joint.socket")).to_have_value("30 mm")
        saved(page)

    def test_a_second_value_that_is_refused_stays_with_its_own_fault(self) -> None:
        page = self.at(self.hang())
        type_in(page, "height", "steep")
        expect(page.locator("[data-field=height]")).to_contain_text("Got steep")
        type_in(page, "height", "4")
        expect(page.locator("[data-field=height]")).to_contain_text("Got 4; wanted: 60 mm to 3000 mm.")
        expect(field(page, "height")).to_have_value("4")

    def test_a_bad_line_among_measured_sticks_is_named_and_all_lines_stay(self) -> None:
        page = self.at(self.hang(), "legs")
        page.get_by_text("how they are made, spares").click()
        lines = "455, 30, ash\n4x5, 31, oak\n460, 30, elm"
        sticks = page.locator("[data-field='leg.sticks']")
        sticks.fill(lines)
        sticks.blur()
        fault = page.get_by_role("alert")
        expect(fault).to_contain_text("Legs, stick 2, length: Got 4x5")
        expect(sticks).to_have_value(lines)
        sticks.fill(lines.replace("4x5", "458"))
        sticks.blur()
        expect(fault).to_have_count(0)
        expect(sticks).to_have_value(re.compile("458 mm, 31 mm, oak"))

    def test_a_refused_reading_says_nothing_of_the_older_one(self) -> None:
        page = self.at(self.hang(), "boring")
        reading = page.locator("[data-proof='bore.l1'] input")
        reading.fill("16.5")
        reading.press("Enter")
        verdict = page.locator("li[class*=off]:has([data-proof='bore.l1'])")
        expect(verdict).to_be_visible()
        reading.fill("steep")
        reading.press("Enter")
        expect(page.locator("[data-proof='bore.l1']")).to_contain_text("an angle in degrees")
        expect(reading).to_have_value("steep")
        expect(verdict).to_have_count(0)

    def test_a_proof_is_answered_at_its_card_and_the_rest_follows(self) -> None:
        page = self.at(self.hang(), "boring")
        page.locator("[data-proof='bore.l1'] input").fill("14.1")
        page.locator("[data-proof='bore.l1'] input").press("Enter")
        expect(page.locator("[data-proof='bore.l2'] input")).to_be_focused()
        page.keyboard.type("16.5")
        page.keyboard.press("Enter")
        expect(page.locator("nav.stick")).to_contain_text("2 of 4 proved, 1 off")
        page.keyboard.press("Escape")
        page.get_by_role("link", name="Legs").first.click()
        rows = page.locator("tr[data-leg]")
        expect(rows).to_have_count(4)
        self.assertNotEqual(rows.nth(1).inner_text().split()[1:], rows.nth(2).inner_text().split()[1:])

    def test_a_reading_that_cannot_be_is_answered_beside_it(self) -> None:
        page = self.at(self.hang(), "boring")
        page.locator("[data-proof='bore.l1'] input").fill("steep")
        page.locator("[data-proof='bore.l1'] input").press("Enter")
        expect(page.locator("[data-proof='bore.l1']")).to_contain_text("an angle in degrees")


class OtherPages(BrowserCase):
    def test_quick_set_answers_and_becomes_a_piece(self) -> None:
        page = self.page
        page.goto(f"{self.live_server_url}/quick")
        for name, text in (("splay", "10"), ("rake", "6")):
            page.locator(f"[data-quick={name}] input").fill(text)
            page.locator(f"[data-quick={name}] input").press("Enter")
        expect(page.locator("[data-quick=resultant] input")).to_have_value("11.6°")
        expect(page.locator("[data-quick=from_side] input")).to_have_value("30.8°")
        expect(page.locator("[data-quick-card=bevel_gauge] .big")).to_have_text("78.4°")
        page.locator("[data-quick=resultant] input").fill("steep")
        page.locator("[data-quick=resultant] input").press("Enter")
        expect(page.locator("[data-quick=resultant]")).to_contain_text("an angle in degrees")
        page.locator("[data-quick=resultant] input").fill("15")
        page.locator("[data-quick=resultant] input").press("Enter")
        page.locator("[data-quick=from_side] input").fill("45")
        page.locator("[data-quick=from_side] input").press("Enter")
        expect(page.locator("[data-quick=splay] input")).to_have_value("10.7°")
        page.get_by_role("button", name="Make a piece of it").click()
        expect(page.locator("[data-figure=resultant]").first).to_contain_text("15.0°")
        saved(page)

    def test_quick_mitre_reads_on_the_saws_scale(self) -> None:
        page = self.page
        page.goto(f"{self.live_server_url}/quick")
        page.get_by_label("a mitre between rail and leaning leg").click(force=True)
        page.get_by_label("Leg splays by").fill("15")
        page.get_by_label("Leg splays by").press("Enter")
        expect(page.locator("[data-quick-card=mitre_saw] .big").first).to_have_text("37.5°")

    def test_a_tool_changed_in_the_shop_changes_its_card(self) -> None:
        address = self.hang()
        page = self.page
        page.goto(f"{self.live_server_url}/shop")
        table = page.locator("[data-tool=tilting_table]")
        table.get_by_label("90", exact=True).click(force=True)
        table.get_by_label("down", exact=True).click(force=True)
        reach = table.get_by_label("Reaches")
        reach.fill("far")
        reach.press("Enter")
        expect(table).to_contain_text("an angle in degrees")
        reach.fill("10")
        reach.press("Enter")
        expect(reach).to_have_value("10.0°")
        expect(table.locator("label.on", has_text="down")).to_be_visible()
        self.assertEqual(the_shop().tools[1].scale.at_square, 90)  # type: ignore[union-attr]
        self.at(address, "boring")
        page.get_by_role("radio", name="Drill press, tilting table").click(force=True)
        expect(page.locator("[data-setting]")).to_have_text("80.0°")
        expect(page.locator(".reach")).to_contain_text("wedge of 4.0°")

    def test_two_quick_changes_of_the_shop_both_stay(self) -> None:
        page = self.page
        page.goto(f"{self.live_server_url}/shop")
        table = page.locator("[data-tool=tilting_table]")
        table.get_by_label("90", exact=True).wait_for()
        # Both in one breath: the second change must not be made to the shop as it was before.
        page.evaluate(
            "() => { const at = (t) => [...document.querySelectorAll('[data-tool=tilting_table] label')]"
            ".find((l) => l.textContent.trim() === t).click(); at('90'); at('down') }"
        )
        expect(table.locator("label.on", has_text="down")).to_be_visible()
        scale = the_shop().tools[1].scale  # type: ignore[union-attr]
        self.assertEqual((scale.at_square, scale.counts), (90, "down"))

    def test_a_piece_file_is_brought_in_and_a_bad_one_explained(self) -> None:
        page = self.page
        page.goto(self.live_server_url)
        page.wait_for_selector("[data-new]")
        chooser = page.locator("input[type=file]")
        chooser.set_input_files({"name": "a.json", "mimeType": "application/json", "buffer": b"{"})
        expect(page.get_by_role("alert")).to_contain_text("not JSON")
        chooser.set_input_files(
            {"name": "b.json", "mimeType": "application/json", "buffer": b'{"name": "x"}'}
        )
        expect(page.get_by_role("alert")).to_contain_text("Height: Got nothing")

    def test_every_page_is_accessible_on_the_bench_and_on_a_phone(self) -> None:
        self.accessible_everywhere(other_lights=False)

    @tag("long")
    def test_every_page_is_accessible_in_every_light(self) -> None:
        self.accessible_everywhere(other_lights=True)

    def accessible_everywhere(self, other_lights: bool) -> None:
        address = self.hang(starter("bench"))
        self.page.goto(self.live_server_url)
        self.page.wait_for_selector(".drawn svg")
        pages = ("/", "/quick", "/shop", "/rehearsal", "/makers", "/log", "/time", "/timber")
        stations = ("stance", "top", "boring", "legs", "stretchers", "level")
        built = ("wood", "work", "bench", "class", "glueup", "finish", "log")
        every = ["wcag2a", "wcag2aa", "wcag21aa", "wcag22aa"]
        contrast = {"type": "rule", "values": ["color-contrast"]}
        for k, path in enumerate((*pages, *stations, *built)):
            where = f"{self.live_server_url}{path}" if path[0] == "/" else f"{address}/{path}"
            self.lit(where, "limewood")
            self.accessible(path, "limewood", every, (1280, 800))
            # A phone's style sheet is one for all pages: every second one is looked at there too.
            if k % 2 == 0:
                self.accessible(path, "limewood", every, (390, 844))
            if not other_lights:
                continue
            # Another light changes colours and nothing else: each page is seen in one of them by turns.
            light = ("lampblack", "sunlit")[k % 2]
            if path == "bench":
                self.lit(where, light)
            else:
                for _ in range(k % 2 + 1):
                    self.page.keyboard.press("t")
            self.accessible(path, light, contrast, (1280, 800))

    def lit(self, where: str, light: str) -> None:
        """A page in one of the lights; the bench keeps its key for something else and is loaded in it."""
        if light == "limewood" and not self.page.url.endswith("/bench"):
            for _ in range(2):
                if not self.page.locator(".v-theme--limewood").count():
                    self.page.keyboard.press("t")
            if self.page.url != where:
                walk(self.page, where)
        else:
            self.page.evaluate("name => localStorage.setItem('proud-rake.theme', name)", light)
            self.page.goto(where)
        self.page.wait_for_selector("h1, .station svg, .station :is(h2, li, dl), .log-station")

    def accessible(self, path: str, light: str, only: Any, size: tuple[int, int]) -> None:
        self.page.set_viewport_size({"width": size[0], "height": size[1]})
        self.page.wait_for_timeout(300)
        expect(self.page.locator(f".v-theme--{light}").first).to_be_attached()
        found = Axe().run(self.page, options={"runOnly": only})
        violations = found.response["violations"]
        wrong = [f"{v['id']}: {v['nodes'][0]['html'][:160]}" for v in violations]
        with self.subTest(path, light=light, width=size[0]):
            self.assertEqual(wrong, [])


def fresh_page() -> Page:
    """A page of a browser that has not been here before."""
    return the_browser().new_page(viewport={"width": 1280, "height": 800})


@tag("browser")
class Restart(SimpleTestCase):
    @classmethod
    def setUpClass(cls) -> None:
        # Before anything of Django's: with the browser's loop it believes to be called from async code, and
        # takes other connections than it had.
        the_browser()
        super().setUpClass()

    def test_a_piece_a_step_and_its_timer_outlive_a_restart_of_the_real_server(self) -> None:
        with tempfile.TemporaryDirectory() as data:
            with served(data=data) as address, closing(fresh_page()) as page:
                page.set_default_timeout(PATIENCE_MS)
                page.goto(address)
                page.locator("[data-piece='Cloakroom stool']").click()
                page.wait_for_selector(".station svg.drawing")
                type_in(page, "height", "401")
                saved(page)
                piece = page.url.removeprefix(address)
                page.goto(address)
                page.locator("[data-piece='Eyepiece stool']").click()
                page.locator("[data-work-link]").click()
                page.locator("[data-to-bench]").click()
                page.locator("[data-timer]").click()
                expect(page.locator("[data-timer]")).to_contain_text(re.compile("0:0[1-9]"))
                expect(page.locator("[data-bench-away]")).to_have_count(0)
                step = page.locator("[data-bench-step]").get_attribute("data-bench-step")
                bench = page.url.removeprefix(address)
            with served(data=data, load=False) as address, closing(fresh_page()) as page:
                page.set_default_timeout(PATIENCE_MS)
                page.goto(address + bench)
                expect(page.locator(f"[data-bench-step='{step}']")).to_be_visible()
                expect(page.locator("[data-timer]")).to_have_attribute("aria-pressed", "true")
                expect(page.locator("[data-timer]")).to_contain_text(re.compile(r"[0-9]:[0-9]{2}"))
                page.locator("[data-done]").click()
                expect(page.locator(f"[data-bench-step='{step}']")).to_have_count(0)
                expect(page.locator("[data-bench-away]")).to_have_count(0)
                page.goto(address + piece)
                expect(field(page, "height")).to_have_value("401 mm")
