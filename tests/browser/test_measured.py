"""What is really there: readings, slips and history, stretchers as built, levelling, gauges, rehearsal."""

from __future__ import annotations

import math
import re

from playwright.sync_api import Locator, Page, Route, expect

from splay.piece import Piece, read_piece, write_piece
from splay.piece.starters import starter
from splay.plan import plan
from splay.shop import workbench
from splay.stance.members import members
from splay.stance.restate import Restate, restate
from splay.stance.staked import stand
from tests.browser.base import BrowserCase, saved
from workshop.shop.models import keep_shop


def expected(made: Piece) -> dict[str, float]:
    """What every proof of a piece expects."""
    return {proof.id: proof.expected.value for proof in plan(made, workbench()).proofs}


def read(page: Page, proof: str, value: object) -> None:
    """Answer one proof as a gauge that types would: the figure, then Enter."""
    box = page.locator(f"[data-proof='{proof}'] input")
    box.fill(str(value))
    with page.expect_response(lambda r: f"/readings/{proof}" in r.url):
        box.press("Enter")


class Measured(BrowserCase):
    def test_bored_off_read_resized_and_levelled_in_two_passes(self) -> None:
        made = starter("bench")
        want = expected(made)
        address = self.hang(made)
        page = self.at(address, "boring")
        read(page, "bore.l1", f"{want['bore.l1'] + 1:.1f}")
        works = page.locator("[data-proof='bore.l2']")
        if not works.count():
            page.locator("[data-work]").click()
            page.locator(".v-overlay--active .v-list-item").nth(1).click()
        read(page, "bore.l2", f"{want['bore.l2'] + 2:.1f}")
        expect(page.locator("[data-changes]")).to_contain_text("leg 1, from underside to floor")
        page = self.at(address, "stretchers")
        page.get_by_role("radio", name="fit dry and read").click(force=True)
        one = page.locator("[data-fit='1']")
        expect(one).to_contain_text("as planned")
        hint = page.locator("[data-proof='gap.m1']").inner_text()
        gap = float(re.search(r"expect ([\d.]+)", hint).group(1))  # type: ignore[union-attr]
        read(page, "gap.m1", gap + 3)
        expect(one).to_contain_text("as measured")
        expect(page.locator("[data-changes]")).to_contain_text("over all")
        page = self.at(address, "level")
        for leg, off in enumerate((2.2, 0.4, -1.1, 1.5), start=1):
            read(page, f"bench.p1.l{leg}", f"{self.hinted(page, leg) + off:.1f}")
        expect(page.locator("[data-stands] strong")).to_contain_text("It rocks by")
        expect(page.locator("[data-foot='l1']")).to_contain_text("saw")
        page.locator("[data-again]").click()
        expect(page.locator("[data-pass='2']")).to_be_visible()
        for leg in range(1, 5):
            # The pass was added here: its id is one nothing ever had.
            second = page.locator("[data-pass='2'] [data-proof]").nth(leg - 1)
            read(page, second.get_attribute("data-proof") or "", f"{self.expects(second):.1f}")
        expect(page.locator("[data-good].good")).to_contain_text("stop here")
        expect(page.locator("[data-record='1']")).to_be_visible()
        saved(page)
        page.reload()
        expect(page.locator("[data-good].good")).to_contain_text("stop here")

    @classmethod
    def hinted(cls, page: Page, leg: int) -> float:
        return cls.expects(page.locator(f"[data-proof='bench.p1.l{leg}']"))

    @staticmethod
    def expects(hint: Locator) -> float:
        expect(hint).to_contain_text("expect")
        found = re.search(r"expect ([\d.]+)", hint.inner_text())
        assert found
        return float(found.group(1))

    def test_every_way_of_levelling_comes_to_a_cut(self) -> None:
        for way in ("standing", "shims", "seat", "sighted"):
            document = write_piece(starter("round_four"))
            document["levelling"] = {"passes": [{"way": way}], "ends": "square"}
            made = read_piece(document)
            asked = {p.id for p in plan(made, workbench()).proofs if p.station == "level"}
            want = {id: v for id, v in expected(made).items() if id in asked}
            page = self.at(self.hang(made), "level")
            for k, (id, value) in enumerate(want.items()):
                read(page, id, f"{max(0.0, value + (0.6 if k == 1 else 0.0)):.1f}")
            with self.subTest(way):
                expect(page.locator("[data-pass='1'] h2")).to_contain_text("measured")
                expect(page.locator("[data-foot]")).to_have_count(4)
                expect(page.locator("[data-foot='l1'] td").nth(4)).to_contain_text("±")

    def test_the_way_is_chosen_and_a_slab_leg_levels_with_two_legs(self) -> None:
        page = self.at(self.hang(starter("slab")), "level")
        page.locator("[data-field='levelling.way']").click()
        page.get_by_role("option", name="As it stands").click()
        expect(page.locator("[data-proof='top.p1.front']")).to_be_visible()
        expect(page.locator("[data-foot]")).to_have_count(4)
        page.get_by_label("20 times").click(force=True)
        # Drawn as unlike as there is room for, which is said.
        expect(page.locator("figure svg[aria-label='Front, unlikeness 6 times']")).to_be_visible()
        saved(page)

    def test_a_rocking_piece_is_set_rocking_and_comes_to_rest(self) -> None:
        document = write_piece(starter("round_four"))
        made = read_piece(document)
        page = self.at(self.hang(made), "level")
        for leg, off in enumerate((3.0, 0.0, 2.0, 0.0), start=1):
            read(page, f"bench.p1.l{leg}", f"{self.hinted(page, leg) + off:.1f}")
        expect(page.locator("[data-pass='1'] h2")).to_contain_text("measured")
        top = page.locator("figure svg[aria-label='Front'] polygon.outline")
        still = top.get_attribute("points")
        page.locator("[data-push]").click()
        expect(page.locator("[data-push]")).to_have_text("hold it still")
        expect(top).not_to_have_attribute("points", still or "")
        expect(page.locator("[data-push]")).to_have_text("rock it")
        expect(top).to_have_attribute("points", still or "")
        page.locator("[data-rock]").click()
        expect(top).not_to_have_attribute("points", still or "")

    def test_who_wants_no_motion_gets_none(self) -> None:
        page = self.page
        page.emulate_media(reduced_motion="reduce")
        self.at(self.hang(starter("round_four")), "level")
        for leg, off in enumerate((3.0, 0.0, 2.0, 0.0), start=1):
            read(page, f"bench.p1.l{leg}", f"{self.hinted(page, leg) + off:.1f}")
        expect(page.locator("[data-pass='1'] h2")).to_contain_text("measured")
        expect(page.locator("[data-rock]")).to_be_visible()
        expect(page.locator("[data-push]")).to_have_count(0)

    def test_an_angle_read_on_the_wrong_side_is_caught_and_not_counted(self) -> None:
        made = starter("bench")
        acute = expected(made)["read.m1.1"]
        page = self.at(self.hang(made), "stretchers")
        page.get_by_role("radio", name="fit dry and read").click(force=True)
        read(page, "read.m1.1", f"{180 - acute:.1f}")
        expect(page.locator("li.slip")).to_contain_text("obtuse side")
        expect(page.locator("[data-finding=read_wrong]")).to_be_visible()
        page.locator("[data-sure='read.m1.1']").click()
        expect(page.locator("li.slip")).to_have_count(0)
        read(page, "read.m1.1", f"{acute:.1f}")
        expect(page.locator("li.slip")).to_have_count(0)

    def test_an_angle_held_in_the_wrong_plane_is_caught(self) -> None:
        document = write_piece(restate(starter("round_three"), Restate("members", "triangle")))
        document["supports"][0]["angles"] = [{"by": "resultant", "resultant": 24}]
        made = read_piece(document)
        run = members(made, stand(made))[0][1]
        # As it looks from the side: both directions without what they have towards the eye.
        (_, uy, uz), (_, dy, dz) = run.u, run.ends[0].axis
        wide = math.degrees(math.atan2(abs(uy * dz - uz * dy), uy * dy + uz * dz))
        shown = min(wide, 180 - wide)
        self.assertGreater(abs(shown - run.ends[0].acute), 3.2)
        page = self.at(self.hang(made), "stretchers")
        page.get_by_role("radio", name="fit dry and read").click(force=True)
        read(page, "read.m2.1", f"{shown:.1f}")
        expect(page.locator("li.slip")).to_contain_text("how it looks from the side")
        expect(page.locator("[data-fit='2']")).to_contain_text("as planned")

    def test_a_reading_is_corrected_noted_and_taken_back_and_its_history_stays(self) -> None:
        page = self.at(self.hang(starter("round_three")), "boring")
        want = expected(starter("round_three"))["bore.l1"]
        read(page, "bore.l1", f"{want + 2:.1f}")
        read(page, "bore.l1", f"{want + 0.1:.1f}")
        # Judged: until then what is said of the reading before stands there and moves what lies below.
        saved(page)
        expect(page.locator("li.fine")).to_have_count(1)
        page.locator("[data-more='bore.l1']").click()
        page.locator("[data-reading-note] input").fill("gauge was off the line")
        page.locator("[data-reading-tool] input").fill("old protractor")
        page.get_by_role("button", name="keep these").click()
        expect(page.locator("[data-more='bore.l1']")).to_have_text("noted")
        behind = page.get_by_role("form", name="Behind this reading")
        # It closes by itself once the note is kept, which can be after it is shown.
        expect(behind).to_have_count(0)
        page.locator("[data-more='bore.l1']").click()
        expect(behind.locator("li")).to_have_count(3)
        expect(behind).to_contain_text("corrected")
        page.locator("[data-withdraw]").click()
        expect(page.locator("[data-proof='bore.l1'] input")).to_have_value("")
        expect(page.locator("[data-more='bore.l1']")).to_have_count(0)

    def test_impossible_heights_and_gaps_are_answered_beside_the_field(self) -> None:
        document = write_piece(starter("round_four"))
        document["levelling"] = {"passes": [{"way": "standing"}]}
        page = self.at(self.hang(read_piece(document)), "level")
        read(page, "under.p1.l1", "-2")
        expect(page.get_by_text("a gap of 0 or more")).to_be_visible()
        for leg in range(1, 5):
            read(page, f"under.p1.l{leg}", "1.5")
        for side in ("front", "back", "left", "right"):
            read(page, f"top.p1.{side}", "460")
        expect(page.locator("[data-finding=gaps_contradict]")).to_be_visible()
        read(page, "top.p1.left", "18.1")
        expect(page.locator("[data-finding=read_wrong], [data-finding=foot_far]").first).to_be_visible()

    def test_a_reading_says_its_unit_among_figures_in_another(self) -> None:
        page = self.at(self.hang(starter("bench")), "stretchers")
        page.get_by_role("radio", name="fit dry and read").click(force=True)
        gap = page.locator("[data-proof='gap.m1'] input")
        read(page, "gap.m1", "101.6")
        expect(gap).to_have_value("101.6")
        page.locator("figcaption").first.click()
        page.keyboard.press("u")
        expect(gap).to_have_value("101.6 mm")
        read(page, "gap.m1", "4 1/4")
        expect(gap).to_have_value("4 1/4")
        page.locator("figcaption").first.click()
        page.keyboard.press("u")
        expect(gap).to_have_value("4 1/4 in")

    def test_marks_to_write_and_the_order_of_assembly_are_shown(self) -> None:
        page = self.at(self.hang(starter("bench")), "stretchers")
        page.get_by_label("marks on the work").click(force=True)
        expect(page.locator("[data-marks] svg.drawing")).to_have_count(4 + 3)
        page.get_by_label("put it together").click(force=True)
        expect(page.locator("[data-assembly]")).to_contain_text("Into the seat")


class Gauges(BrowserCase):
    def test_an_instrument_fills_the_field_and_one_with_moods_is_told(self) -> None:
        keep_shop(workbench().model_copy(update={"instruments": "moody"}))
        page = self.at(self.hang(starter("round_three")), "boring")
        gauge = page.locator("[data-gauge='bore.l1']")
        gauge.click()
        expect(page.locator("[data-proof='bore.l1'] input")).to_have_value(re.compile(r"^\d+\.?\d*°$"))
        said = set()
        for _ in range(5):
            with page.expect_response("**/api/gauges/read") as answer:
                gauge.click()
            said.add(answer.value.json()["heard"]["state"])
            expect(page.locator("[data-heard]")).to_be_visible()
        self.assertLessEqual({"silent", "rubbish"}, said)

    def test_levelling_is_rehearsed_on_a_hidden_piece(self) -> None:
        page = self.page
        page.goto(f"{self.live_server_url}/rehearsal")
        page.locator("[data-all]").click()
        expect(page.locator("[data-pass='1'] h2")).to_contain_text("measured")
        page.locator("[data-again]").click()
        page.locator("[data-all]").click()
        expect(page.locator("[data-pass='2'] h2")).to_contain_text("measured")
        page.locator("[data-reveal]").click()
        truth = page.locator("[data-truth]")
        expect(truth).to_contain_text("Really: rocks by")
        found = re.search(r"rocks by ([\d.]+) mm", truth.inner_text())
        assert found
        self.assertLess(float(found.group(1)), 0.6)

    def test_how_it_really_stands_is_not_lost_to_an_answer_that_comes_late(self) -> None:
        page = self.page
        page.goto(f"{self.live_server_url}/rehearsal")
        page.locator("[data-all]").click()
        expect(page.locator("[data-again]")).to_be_visible()
        page.wait_for_load_state("networkidle")
        held: list[Route] = []
        page.route("**/api/plan", lambda route: held.append(route))
        with page.expect_request("**/api/plan"):
            page.get_by_label("20 times").click(force=True)
        page.locator("[data-reveal]").click()
        truth = page.locator("[data-truth]")
        expect(truth).to_contain_text("Really: rocks by")
        with page.expect_response("**/api/plan"):
            held[0].continue_()
        page.wait_for_load_state("networkidle")
        page.wait_for_timeout(200)
        expect(truth).to_be_visible()
