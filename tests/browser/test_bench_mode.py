"""Bench mode, the order of work and the log: a piece from its first step to its last, in the browser."""

from __future__ import annotations

import io
import re
from typing import Any

from PIL import Image
from playwright.sync_api import Page, expect

from splay.piece import read_piece, write_piece
from splay.piece.starters import starter
from tests.browser.base import BrowserCase
from workshop.build.models import Entry, KeptOrder, Timer, UnitDone
from workshop.pieces.models import PieceRow


class AtTheBench(BrowserCase):
    def bench(self, address: str, key: str = "") -> Page:
        self.page.goto(f"{address}/bench/{key}")
        self.page.wait_for_selector("[data-bench-step]")
        return self.page

    def step(self) -> str:
        return self.page.locator("[data-bench-step]").get_attribute("data-bench-step") or ""

    def done(self) -> None:
        """Press done and wait for another step, or the end."""
        before = self.step()
        self.page.locator("[data-done]").click()
        expect(self.page.locator(f"[data-bench-step='{before}']")).to_have_count(0)

    def told(self) -> None:
        expect(self.page.locator("[data-bench-away]")).to_have_count(0)

    def test_from_the_first_step_to_the_last_with_a_mishap_and_its_way_out(self) -> None:
        page = self.bench(self.hang(starter("round_three")))
        expect(page.locator("h1")).to_have_text("Ready the wood")
        for _ in range(3):
            self.done()
        expect(page.locator("[data-bench-setting]")).to_contain_text("°")
        reading = page.locator("[data-proof='bore.l2'] input")
        reading.fill("17")
        reading.press("Enter")
        expect(reading).to_have_value("17")
        page.locator("[data-unit=l1]").click()
        expect(page.locator("[data-unit=l1]")).to_have_attribute("aria-pressed", "true")
        page.locator("[data-wrong]").click()
        expect(page.locator("[data-way=plug]")).to_be_visible()
        page.wait_for_timeout(400)  # It unfolds: a press before that falls beside it.
        page.get_by_role("radio", name="leg 2").click(force=True)
        page.locator("[data-way=plug] input").check()
        page.locator("[data-wrong-note]").fill("Tore out at the far side")
        page.locator("[data-wrong-keep]").click()
        expect(page.locator("[data-bench-said]")).to_contain_text("leg 2: to be done again")
        expect(page.locator("[data-bench-waits]")).to_contain_text("for the plug's glue to harden")
        expect(reading).to_have_value("")
        # The maker goes on all the same, to the end.
        while self.step() != "write_down":
            self.done()
        page.locator("[data-done]").click()
        self.told()
        row = PieceRow.objects.get()
        expect(page.locator("[data-done]")).to_have_text("next")
        page.goto(page.url.split("/bench/")[0] + "/work")
        expect(page.locator("[data-all-done]")).to_be_visible()
        mishap = Entry.objects.get(sort="mishap")
        self.assertEqual((mishap.says, mishap.data["name"]), ("Tore out at the far side", "leg 2"))
        self.assertGreater(row.units_done.count(), 25)
        page.locator("nav.stick").get_by_text("Log").click()
        expect(page.locator("[data-entry].mishap")).to_contain_text("Plug it and bore again")
        page.locator("[data-log-search]").fill("TORE out")
        expect(page.locator("[data-entry]")).to_have_count(1)

    def test_timer_and_place_outlive_a_reload_and_a_workshop_that_is_away(self) -> None:
        page = self.bench(self.hang(starter("round_three")), "lay_out")
        timer = page.locator("[data-timer]")
        timer.click()
        expect(timer).to_have_attribute("aria-pressed", "true")
        expect(timer).to_contain_text(re.compile(r"0:0[2-9]"))
        self.told()
        page.reload()
        expect(page.locator("h1")).to_have_text("Mark out the seat")
        expect(timer).to_contain_text(re.compile(r"0:0[2-9]"))
        page.route("**/api/**", lambda route: route.abort())
        page.locator("[data-done]").click()
        expect(page.locator("[data-bench-away]")).to_contain_text("kept here")
        self.assertEqual(UnitDone.objects.count(), 0)
        expect(page.locator("[data-bench-step]")).not_to_have_attribute("data-bench-step", "lay_out")
        page.unroute("**/api/**")
        self.told()
        ticked = UnitDone.objects.get()
        self.assertEqual(ticked.operation, "lay_out")
        self.assertIsNotNone(ticked.minutes)
        self.assertEqual(Timer.objects.count(), 0)

    def test_what_was_done_while_away_outlives_the_tab_and_is_told_by_the_next(self) -> None:
        address = self.hang(starter("round_three"))
        page = self.bench(address)
        page.route("**/api/**", lambda route: route.abort())
        page.locator("[data-done]").click()
        page.locator("[data-note]").click()
        page.locator("[data-note-says]").fill("Cold shop today")
        page.locator("[data-note-keep]").click()
        expect(page.locator("[data-bench-away]")).to_contain_text("kept here")
        page.close()
        self.page = self.open(self.context)
        self.bench(address, "practice")
        self.told()
        self.assertEqual([e.sort for e in Entry.objects.order_by("pk")], ["done", "note"])

    def test_six_like_pieces_are_worked_step_by_step(self) -> None:
        six = read_piece({**write_piece(starter("round_three")), "make": 6})
        page = self.bench(self.hang(six))
        for copy in range(1, 7):
            expect(page.locator("[data-bench-copy]")).to_have_value(str(copy))
            expect(page.locator("h1")).to_have_text("Ready the wood")
            page.locator("[data-done]").click()
        expect(page.locator("h1")).to_have_text("Try the joint on scrap")
        self.told()
        self.assertEqual(sorted(UnitDone.objects.values_list("copy", flat=True)), [1, 2, 3, 4, 5, 6])
        page.goto(page.url.split("/bench")[0] + "/work")
        expect(page.locator("[data-step=ready]")).to_contain_text("6 of 6")

    def test_keys_pressed_faster_than_the_address_follows_act_on_what_they_turned_to(self) -> None:
        page = self.bench(self.hang(starter("round_three")))
        first = self.step()
        page.evaluate(
            """keys => { for (const key of keys)
                document.body.dispatchEvent(new KeyboardEvent('keydown', {key, bubbles: true})) }""",
            ["ArrowRight", "ArrowRight", "ArrowLeft", "d"],
        )
        expect(page.locator("h1")).to_have_text("Mark out the seat")
        self.told()
        page.keyboard.press("ArrowLeft")
        expect(page.locator("h1")).to_have_text("Try the joint on scrap")
        second = self.step()
        self.assertNotEqual(second, first)
        self.assertEqual([one.operation for one in UnitDone.objects.all()], [second])

    def test_keys_alone_do_and_a_photograph_goes_into_the_log(self) -> None:
        page = self.bench(self.hang(starter("round_three")))
        page.keyboard.press("ArrowRight")
        expect(page.locator("h1")).to_have_text("Try the joint on scrap")
        page.keyboard.press("ArrowLeft")
        page.keyboard.press("d")
        expect(page.locator("h1")).to_have_text("Try the joint on scrap")
        page.keyboard.press("n")
        page.locator("[data-note-says]").fill("d and t are letters here")
        expect(page.locator("h1")).to_have_text("Try the joint on scrap")
        page.locator("[data-note-keep]").click()
        picture = io.BytesIO()
        Image.new("RGB", (300, 200), "sienna").save(picture, "JPEG")
        file: Any = {"name": "hole.jpg", "mimeType": "image/jpeg", "buffer": picture.getvalue()}
        page.locator("[data-photo]").set_input_files(file)
        self.told()
        bad: Any = {"name": "hole.jpg", "mimeType": "image/jpeg", "buffer": b"no picture"}
        page.locator("[data-photo]").set_input_files(bad)
        expect(page.locator("[data-bench-said]")).to_contain_text("no picture")
        page.keyboard.press("Escape")
        page.locator("nav.stick").get_by_text("Log").click()
        expect(page.locator("[data-entry] img")).to_be_visible()
        self.assertEqual(sorted(Entry.objects.values_list("sort", flat=True)), ["done", "note", "photo"])


class OwnOrder(BrowserCase):
    def work(self, start: str = "round_three") -> Page:
        self.page.goto(f"{self.hang(starter(start))}/work")
        self.page.wait_for_selector("[data-step=lay_out]")
        return self.page

    def keys(self) -> list[str]:
        steps = self.page.locator("ol.steps > li")
        return [one.get_attribute("data-step") or "" for one in steps.all()]

    def test_a_maker_who_reorders_is_told_why_not_and_may_all_the_same(self) -> None:
        page = self.work()
        step = page.locator("[data-step=lay_out]")
        step.locator(".pick").click()
        at = self.keys().index("lay_out")
        page.keyboard.press("Alt+ArrowDown")
        expect(step.locator("[data-broken]")).to_have_count(0)
        broken = page.locator("[data-step='bore.l1'] [data-broken]")
        expect(broken).to_contain_text("the holes are bored on its marks")
        expect(broken).to_contain_text("What it costs: nothing says where a hole goes")
        expect(page.locator("[data-broken-count]")).to_have_text("1 step stands too early")
        self.assertEqual(self.keys().index("lay_out"), at + 1)
        expect(step.locator(".pick")).to_be_focused()
        page.keyboard.press("Alt+ArrowUp")
        expect(broken).to_have_count(0)
        page.locator("[data-step=ready]").drag_to(page.locator("[data-step='bore.l1']"))
        expect(page.locator("[data-broken-count]")).to_be_visible()
        page.locator("[data-again]").click()
        expect(page.locator("[data-broken-count]")).to_have_count(0)
        self.assertEqual(self.keys()[0], "ready")

    def test_a_step_is_moved_as_often_as_the_key_is_pressed_however_fast(self) -> None:
        page = self.work()
        page.locator("[data-step=lay_out] .pick").click()
        there = self.keys()
        at = there.index("lay_out")
        for _ in range(3):
            page.keyboard.press("Alt+ArrowDown")
        down = [*there[:at], *there[at + 1 : at + 4], "lay_out", *there[at + 4 :]]
        steps = page.locator("ol.steps > li")
        expect(steps.nth(at + 3)).to_have_attribute("data-step", "lay_out")
        self.assertEqual(self.keys(), down)
        page.reload()
        expect(steps.nth(at + 3)).to_have_attribute("data-step", "lay_out")

    def test_steps_are_left_out_added_split_and_put_in_one(self) -> None:
        page = self.work()
        page.locator("[data-step=dry_run] .pick").click()
        page.locator("[data-skip]").click()
        expect(page.locator("[data-step=dry_run]")).to_have_count(0)
        expect(page.locator("[data-step='glue.1'] [data-broken]")).to_contain_text("is left out")
        page.locator("[data-take-in=dry_run]").click()
        expect(page.locator("[data-step=dry_run]")).to_be_visible()
        page.locator("[data-step=ease] .pick").click()
        page.locator("[data-add]").click()
        page.locator("[data-own-title]").fill("Fume it")
        page.locator("[data-own-minutes]").fill("90")
        page.locator("[data-own-add]").click()
        own = page.locator("ol.steps > li", has_text="Fume it")
        expect(own).to_contain_text("1 h 30 min")
        self.assertEqual(
            self.keys().index("ease") - 1, self.keys().index(own.get_attribute("data-step") or "")
        )
        page.locator("[data-step='bore.l1'] .pick").click()
        page.locator("[data-split]").click()
        expect(page.locator("[data-step='bore.l1~l2']")).to_be_visible()
        page.locator("[data-step='bore.l1~l2'] .pick").click()
        page.locator("[data-whole]").click()
        page.locator("[data-step='bore.l1'] .pick").click()
        page.locator("[data-merge]").click()
        expect(page.locator("[data-step='bore.l1']")).to_contain_text(", then ")
        page.locator("[data-part]").click()
        expect(page.locator("[data-step='bore.l1']")).not_to_contain_text(", then ")
        page.locator("[data-keep-order]").click()
        expect(page.locator("[data-work-said]")).to_contain_text("Kept")
        self.assertEqual(KeptOrder.objects.count(), 1)

    def test_readings_taken_before_anything_was_ticked_tick_what_they_show(self) -> None:
        page = self.at(self.hang(starter("round_three")), "boring")
        for leg in (1, 2, 3):
            reading = page.locator(f"[data-proof='bore.l{leg}'] input")
            reading.fill("14")
            reading.press("Enter")
        expect(page.locator("nav.stick")).to_contain_text("3 of 3 proved")
        page.locator("[data-work-link]").click()
        page.locator("[data-tick-shown]").click()
        expect(page.locator("[data-shown-done]")).to_have_count(0)
        expect(page.locator("[data-step='bore.l1']")).to_contain_text("done")
        expect(page.locator("[data-step=lay_out]")).to_contain_text("done")
        expect(page.locator("[data-step=ease]")).not_to_contain_text("done")


class GlueAndFinish(BrowserCase):
    def test_a_glue_up_is_rehearsed_runs_out_of_time_is_stopped_and_says_what_can_be_saved(self) -> None:
        page = self.page
        page.goto(f"{self.hang(starter('bench'))}/glueup")
        expect(page.locator("[data-sitting]")).to_have_count(3)
        expect(page.locator("[data-sitting='0']")).to_contain_text("Legs 1 and 4, then Legs 2 and 3")
        expect(page.locator("[data-blocks]").first).to_contain_text("behind leg 1")
        page.locator("[data-air] input").fill("30")
        page.locator("[data-air] input").press("Enter")
        expect(page.locator("[data-open]")).to_have_text("4.0 min")
        expect(page.locator("[data-against]").first).to_contain_text("A second pair of hands")
        page.locator("[data-own-open] input").fill("-3")
        page.locator("[data-own-open] input").press("Enter")
        expect(page.locator("[data-own-open]")).to_contain_text("Type a number above 0 and at most 600")
        page.locator("[data-own-open] input").fill("0.1")
        page.locator("[data-own-open] input").press("Enter")
        expect(page.locator("[data-open]")).to_have_text("0.1 min")
        page.locator("[data-dry='0']").click()
        page.locator("[data-begin]").click()
        for _ in range(page.locator("[data-run-next]").count() + 1):
            page.locator("[data-home]").click()
            if not page.locator("[data-home]").count():
                break
        expect(page.locator("[data-run]")).to_have_count(0)
        page.locator("[data-glue='0']").click()
        page.locator("[data-begin]").click()
        page.locator("[data-gap]").click()
        expect(page.locator("[data-run-next]")).to_contain_text("2 of")
        page.reload()
        expect(page.locator("[data-run-next]")).to_contain_text("2 of")
        expect(page.locator("[data-run-over]")).to_contain_text("pull apart, wash both faces")
        page.locator("[data-stop]").click()
        expect(page.locator("[data-stopping]")).to_contain_text("1 of 2 closed")
        page.locator("[data-stop-it]").click()
        expect(page.locator("[data-run]")).to_have_count(0)
        page.locator("nav.stick").get_by_text("Log").click()
        expect(page.locator("[data-entry].glue").first).to_contain_text("stopped midway")
        expect(page.locator("[data-entry].glue").first).to_contain_text("with a gap")
        self.assertEqual(UnitDone.objects.count(), 0)

    def test_a_glue_up_that_went_home_is_done_in_the_order_of_work(self) -> None:
        page = self.page
        address = self.hang(starter("round_three"))
        page.goto(f"{address}/glueup")
        page.locator("[data-glue='0']").click()
        page.keyboard.press("Enter")
        for k in range(3):
            expect(page.locator("[data-run-next]")).to_contain_text(
                f"{k + 1} of 3: leg {k + 1} in the seat"
            )
            page.keyboard.press("Space")
        expect(page.locator("[data-sitting='0']")).to_contain_text("done")
        ticked = UnitDone.objects.get()
        self.assertEqual((ticked.operation, ticked.key), ("glue", "glue.1"))
        self.assertEqual(Entry.objects.filter(sort="glue").get().data["joints"][0][1], "home")

    def test_coats_follow_the_use_and_a_wrong_finish_is_said(self) -> None:
        page = self.page
        page.goto(f"{self.hang(starter('round_three'))}/finish")
        expect(page.locator("[data-coat]")).to_have_count(2)
        expect(page.locator("[data-caution]").first).to_contain_text("lay them out flat")
        page.get_by_role("radio", name="outdoors").click(force=True)
        expect(page.locator("[data-unfit]")).to_contain_text("Hard-wax oil is not for outdoors")
        page.get_by_role("radio", name="exterior varnish").click(force=True)
        expect(page.locator("[data-coat]")).to_have_count(5)
        page.get_by_role("radio", name="before, where it will").click(force=True)
        expect(page.locator("[data-mask]")).to_contain_text("tenon")
        page.locator("[data-work-link]").click()
        expect(page.locator("[data-step='finish.5']")).to_be_visible()
        expect(page.locator("[data-step=prefinish]")).to_be_visible()


class TimeAndWorth(BrowserCase):
    def test_a_promise_that_cannot_be_kept_is_said_and_what_slips_moves(self) -> None:
        page = self.page
        self.hang(starter("round_three"))
        self.hang(starter("bench"))
        page.goto(f"{self.live_server_url}/time")
        expect(page.locator("[data-time-piece]")).to_have_count(2)
        expect(page.locator("[data-strip]")).to_be_visible()
        row = page.locator("[data-time-piece='Round stool']")
        row.locator("input[type=date]").fill("2026-01-02")
        expect(row.locator("[data-past]")).to_be_visible()
        expect(row.locator("[data-late]")).to_contain_text("late")
        row.locator("input[type=date]").fill("2099-01-02")
        expect(row.locator("[data-late]")).to_have_count(0)
        page.locator("[data-slip]").select_option(label="Round stool")
        page.locator("[data-slip-by] input").fill("200")
        page.locator("[data-slip-by] input").press("Enter")
        expect(page.locator("[data-moved]").first).to_contain_text("later")
        page.locator("[data-hours='0']").fill("whenever")
        page.locator("[data-hours-keep]").click()
        expect(page.locator("[data-hours-said]")).to_contain_text("Write it as 8 to 12")
        page.locator("[data-hours='0']").fill("8 to 12, 13:30 to 17")
        for day in range(1, 7):
            page.locator(f"[data-hours='{day}']").fill("")
        page.locator("[data-hours-keep]").click()
        expect(page.locator(".day h2").first).to_contain_text(re.compile("Monday|Today"))
        # They are the maker's own now; what is under their hands stays unfolded.
        expect(page.locator("details.hours summary")).not_to_contain_text("a usual week")
        expect(page.locator("[data-hours='0']")).to_be_visible()
        page.locator("[data-hours='0']").fill("")
        page.locator("[data-hours-keep]").click()
        expect(page.locator("[data-hours-said]")).to_contain_text("Say when you work")
        with page.expect_download() as got:
            page.locator("[data-ics]").click()
        self.assertTrue(got.value.suggested_filename.endswith(".ics"))

    def test_a_piece_is_counted_up_and_built_again(self) -> None:
        page = self.page
        page.goto(f"{self.hang(starter('round_three'))}/log")
        page.locator("[data-log-add]").click()
        page.locator("[data-note-says]").fill("Sharpened everything")
        page.locator("[data-note-minutes]").fill("90")
        page.locator("[data-note-keep]").click()
        expect(page.locator("[data-hours-sum]")).to_have_text("1 h 30 min")
        page.locator("[data-rate] input").fill("40")
        page.locator("[data-rate] input").press("Enter")
        page.locator("[data-spent-what]").fill("ash")
        page.locator("[data-spent-amount]").fill("25,50")
        page.locator("[data-spent-add]").click()
        expect(page.locator("[data-total]")).to_have_text("In all 85.50")
        expect(page.locator("[data-next-one]")).to_have_count(2)
        page.locator("[data-again-planned]").click()
        expect(page.locator("input.title")).to_have_value("Round stool 2")
        expect(page.locator("[data-step=ready]")).to_be_visible()

    def test_a_class_puts_the_order_right(self) -> None:
        page = self.page
        page.goto(f"{self.hang(starter('round_three'))}/work")
        page.locator("[data-class-link]").click()
        page.locator("[data-hand-in]").click()
        expect(page.get_by_role("alert")).to_contain_text("Write your name first")
        page.locator("[data-learner]").fill("Kim")
        page.locator("[data-hand-in]").click()
        expect(page.locator("[data-class-wrong]").first).to_contain_text("What it costs")
        expect(page.locator("[data-handed-in]")).to_contain_text("Kim")
        expect(page.locator("[data-common]").first).to_contain_text("1 of 1")
