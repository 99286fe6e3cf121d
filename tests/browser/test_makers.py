"""Several makers in one shop, what was taken off, and what the workshop itself needs."""

from __future__ import annotations

import shutil
import sqlite3
import tempfile
from contextlib import closing
from pathlib import Path
from typing import Any
from unittest import mock

from axe_playwright_python.sync_playwright import Axe
from django.test import override_settings
from playwright.sync_api import Page, expect

from tests.browser.base import BrowserCase, saved, type_in
from workshop.keeping import backup
from workshop.pieces.models import ReadingRow

GOOD, BETTER = "spokeshave-and-adze", "drawknife-and-froe"


class Makers(BrowserCase):
    def add_linden(self) -> None:
        page = self.page
        page.goto(f"{self.live_server_url}/makers")
        page.get_by_label("Name of another maker").fill("linden")
        page.get_by_label("A password to begin with").fill(GOOD)
        page.get_by_role("button", name="Add", exact=True).click()
        expect(page.locator(".done")).to_have_text("linden may now sign in.")

    def sign_in(self, name: str, password: str, asked: bool = True) -> Page:
        """A browser of its own in which somebody signs in; unless they were `asked`, they are now."""
        context = self.fresh(signed_in=False)
        self.addCleanup(context.close)
        page = self.open(context)
        page.goto(self.live_server_url)
        page.get_by_label("Name").fill(name)
        page.get_by_label("Password").fill(password)
        page.get_by_role("button", name="Sign in").click()
        if not asked:
            page.locator("[data-first]").click()
        return page

    def test_a_maker_is_added_signs_in_changes_the_password_and_leaves(self) -> None:
        self.add_linden()
        theirs = self.sign_in("linden", GOOD, asked=False)
        theirs.get_by_role("link", name="linden").click()
        expect(theirs.get_by_label("Name of another maker")).to_have_count(0)
        theirs.get_by_label("As it is").fill("nonsense")
        theirs.get_by_label("As it shall be").fill(BETTER)
        theirs.get_by_role("button", name="Change it").click()
        expect(theirs.get_by_text("the maker's own password")).to_be_visible()
        theirs.get_by_label("As it is").fill(GOOD)
        theirs.get_by_role("button", name="Change it").click()
        expect(theirs.locator(".done")).to_contain_text("is changed")
        second = self.sign_in("linden", BETTER)
        expect(second.get_by_role("heading", name="The rack")).to_be_visible()
        theirs.reload()
        expect(theirs.get_by_text("sign out there")).to_have_count(1)
        theirs.get_by_text("sign out there").click()
        second.reload()
        expect(second.get_by_text("Sign in to the shop.")).to_be_visible()
        self.page.reload()
        self.page.locator("[data-maker=linden]").get_by_text("take from the shop").click()
        expect(self.page.locator(".done")).to_contain_text("linden has left the shop")
        theirs.reload()
        expect(theirs.get_by_text("Sign in to the shop.")).to_be_visible()

    def test_wrong_passwords_are_told_to_wait(self) -> None:
        self.add_linden()
        page = self.sign_in("linden", "wrong-one")
        expect(page.get_by_text("Got no match")).to_be_visible()
        for _ in range(6):
            # The answer is waited for: on a loaded machine one message still leaves when the next comes.
            with page.expect_response("**/api/**"):
                page.get_by_role("button", name="Sign in").click()
        expect(page.get_by_text("Try again in 10 minutes")).to_be_visible()

    def test_a_piece_is_kept_to_oneself_and_shown_again(self) -> None:
        self.hang()
        page = self.page
        page.goto(self.live_server_url)
        expect(page.get_by_text("keep to yourself")).to_have_count(0)
        self.add_linden()
        page.get_by_role("link", name="Rack").click()
        page.get_by_text("keep to yourself").click()
        expect(page.get_by_text("only you see it")).to_be_visible()
        theirs = self.sign_in("linden", GOOD, asked=False)
        expect(theirs.get_by_text("Nothing hangs here yet")).to_be_visible()
        page.get_by_text("only you see it").click()
        expect(page.get_by_text("keep to yourself")).to_be_visible()
        theirs.reload()
        expect(theirs.get_by_text("by ash")).to_be_visible()
        expect(theirs.get_by_text("take off")).to_have_count(0)

    def test_what_was_taken_off_is_hung_up_again(self) -> None:
        self.hang()
        page = self.page
        page.goto(self.live_server_url)
        page.get_by_text("take off").click()
        page.get_by_role("button", name="Take it off").click()
        expect(page.locator("[data-piece]")).to_have_count(0)
        page.locator("[data-off]").click()
        expect(page.get_by_text("30 nights left")).to_be_visible()
        page.get_by_role("button", name="Hang Round stool up again").click()
        expect(page.locator("[data-piece]")).to_have_count(1)
        expect(page.locator("[data-off]")).to_have_count(0)
        expect(page.locator("[data-piece] svg")).to_be_visible()

    def test_two_who_read_the_same_proof_see_both_readings(self) -> None:
        address = self.hang()
        mine = self.at(address, "boring")
        other = self.at(address, "boring", self.open(self.context))
        proof = "[data-proof='bore.l1']"
        mine.locator(f"{proof} input").fill("13.5")
        mine.locator(f"{proof} input").press("Enter")
        expect(mine.locator("nav.stick")).to_contain_text("1 of 4 proved")
        other.locator(f"{proof} input").fill("14.5")
        other.locator(f"{proof} input").press("Enter")
        expect(other.locator(proof)).to_contain_text("ash read 13.5 here")
        expect(other.locator(proof)).to_contain_text("You: 14.5")
        self.assertAlmostEqual(ReadingRow.objects.get().value, 13.5)
        other.locator(f"{proof} input").fill("14.5")
        other.locator(f"{proof} input").press("Enter")
        expect(other.locator(proof)).not_to_contain_text("ash read")
        expect(other.locator("nav.stick")).to_contain_text("1 of 4 proved")
        self.assertAlmostEqual(ReadingRow.objects.get().value, 14.5)

    def test_quick_answers_one_after_the_other_are_no_clash_with_oneself(self) -> None:
        page = self.at(self.hang(), "boring")
        page.route("**/readings/*", lambda route: (page.wait_for_timeout(300), route.continue_()))
        for typed in ("13.1", "13.2", "13.3"):
            page.locator("[data-proof='bore.l1'] input").fill(typed)
            page.locator("[data-proof='bore.l1'] input").press("Enter")
        expect(page.locator("nav.stick")).to_contain_text("1 of 4 proved")
        page.wait_for_timeout(1500)
        expect(page.locator("[data-proof='bore.l1']")).not_to_contain_text("ash read")
        self.assertAlmostEqual(ReadingRow.objects.get().value, 13.3)


class Needs(BrowserCase):
    def answer(self, status: int, body: str) -> Any:
        return lambda route: route.fulfill(
            status=status, content_type="application/problem+json", body=body
        )

    def test_a_full_disk_is_said_what_was_typed_stays_and_is_sent_when_there_is_room(self) -> None:
        page = self.at(self.hang())
        problem = '{"type":"about:blank","title":"Full","status":507,"detail":"Make room.","faults":[]}'
        page.route("**/api/pieces/*", self.answer(507, problem))
        type_in(page, "height", "512")
        expect(page.get_by_text("the disk of the workshop is full: kept here")).to_be_visible()
        page.unroute("**/api/pieces/*")
        saved(page)
        page.reload()
        expect(page.locator("[data-field='height'] input")).to_have_value("512 mm")

    def test_what_the_workshop_needs_stands_on_every_page(self) -> None:
        with mock.patch("shutil.disk_usage", return_value=mock.Mock(free=120_000_000)):
            self.page.goto(f"{self.live_server_url}/shop")
            expect(self.page.get_by_text("120 MB are left")).to_be_visible()
            self.page.goto(f"{self.live_server_url}/quick")
            expect(self.page.get_by_text("120 MB are left")).to_be_visible()

    def test_where_nothing_can_be_kept_the_page_says_so(self) -> None:
        with mock.patch("workshop.keeping.api._writable", return_value=False):
            self.page.goto(self.live_server_url)
            expect(self.page.get_by_role("alert")).to_contain_text("Nothing can be kept now")

    def test_a_backup_is_made_and_fetched_from_the_page(self) -> None:
        data = Path(tempfile.mkdtemp())
        self.addCleanup(shutil.rmtree, data)
        with closing(sqlite3.connect(data / backup.DATABASE)) as here:
            here.execute("CREATE TABLE django_migrations (app, name)")
        with override_settings(DATA_DIR=data):
            page = self.page
            page.goto(f"{self.live_server_url}/makers")
            expect(page.get_by_text("last backup: none yet")).to_be_visible()
            page.locator("[data-back-up]").click()
            expect(page.locator(".done")).to_contain_text("Everything is in proud-rake-000001")
            with page.expect_download() as fetched:
                page.get_by_text("fetch it").click()
            self.assertEqual(backup.about(Path(fetched.value.path()))["format"], backup.FORMAT)

    def test_the_makers_page_is_accessible(self) -> None:
        self.page.goto(f"{self.live_server_url}/makers")
        expect(self.page.get_by_role("heading", name="How it is kept")).to_be_visible()
        found = Axe().run(self.page).response["violations"]
        self.assertEqual([f"{v['id']}: {v['nodes'][0]['html']}" for v in found], [])
