"""Every kind of piece, from choosing it to its last card, and what only some kinds have."""

from __future__ import annotations

import re
from typing import ClassVar

from playwright.sync_api import FilePayload, Page, expect

from splay.piece.starters import starter
from tests.browser.base import BrowserCase, drag, field, pick_work, saved, type_in
from workshop.demo.slice_photo import slice_photo
from workshop.pieces.models import ReadingRow

BUILT = {"Wood": "[data-need]", "Glue-up": "[data-sitting]", "Finish": "[data-coat]"}
"""Stations without cards, and what stands on each."""


class FromChoosingToTheLastCard(BrowserCase):
    opened: ClassVar[set[str]] = set()
    """Sorts of work whose card was opened before, on whatever kind: it is the same once more, and that
    every card of every kind has what is looked for here is tried in the core."""

    def follow(self, start: str) -> None:
        """Choose a kind on the rack, then open every card of every station."""
        page = self.page
        page.goto(self.live_server_url)
        page.locator("[data-new]").click()
        page.locator(f"[data-start={start}]").click()
        page.wait_for_selector(".station svg.drawing")
        names = page.locator("nav.stick a .title").all_inner_texts()
        self.assertEqual(names[:3], ["Stance", "Wood", "Top"])
        self.assertEqual(names[-2:], ["Finish", "Log"])
        for name in names[1:-1]:
            before = page.query_selector(".station")
            assert before is not None
            page.locator("nav.stick a", has=page.get_by_text(name, exact=True)).click()
            before.wait_for_element_state("hidden")
            if name in BUILT:
                expect(page.locator(BUILT[name]).first).to_be_visible()
                continue
            nothing = page.get_by_text("Nothing runs between the legs yet")
            shown = page.locator("article.card, [data-next], [data-fit], [data-foot]").first
            expect(shown.or_(nothing)).to_be_visible()
            bore = page.get_by_role("radio", name="bore the sockets")
            if name == "Stretchers" and bore.count():
                # It opens on what comes first: reading it dry.
                expect(page.locator("[data-fit]").first).to_be_visible()
                bore.click(force=True)
                expect(page.locator("article.card")).to_be_visible()
            if name == "Top":
                self._mark_out(page)
            elif name == "Level":
                self._level(page)
            elif page.locator("article.card").count() or page.locator("[data-work]").count():
                self._cards(page, f"{start} at {name}")
            else:
                expect(nothing).to_be_visible()

    def _mark_out(self, page: Page) -> None:
        while page.locator("[data-next]").is_enabled():
            expect(page.locator(".marking polyline.cut, .marking ellipse.cut").first).to_be_attached()
            page.locator("[data-next]").click()

    def _level(self, page: Page) -> None:
        """Every foot has its cut drawn and said, and every reading a field with what to expect."""
        feet = page.locator("[data-foot]").count()
        self.assertGreaterEqual(feet, 3)
        expect(page.locator(".feet polyline.cut")).to_have_count(feet)
        expect(page.locator("[data-pass='1'] [data-proof]")).to_have_count(feet)
        expect(page.locator("[data-pass='1'] [data-proof]").first).to_contain_text("expect")

    def _cards(self, page: Page, where: str) -> None:
        """Each work in turn: its setting stands there, with a picture, its proof and its caution."""
        expect(page.locator("article.card")).to_be_visible()
        works = page.locator("[data-work]")
        names = [where] if not works.count() else []
        if works.count():
            works.click()
            listed = page.locator(".v-overlay--active .v-list-item")
            expect(listed.first).to_be_visible()
            # Words that stand in the page, seen or not: while the list unfolds, some are hidden still.
            names = [name.strip() for name in listed.all_text_contents()]
            self.assertNotIn("", names)
            page.keyboard.press("Escape")
        for name in names:
            sort = " ".join(re.findall("[A-Za-z]+", name)[:3])
            if sort in self.opened:
                continue
            self.opened.add(sort)
            if len(names) > 1:
                pick_work(page, name, exact=True)
            with self.subTest(where, work=name):
                expect(page.locator("[data-setting]")).to_have_text(re.compile(r"\d"))
                expect(page.locator("article.card svg.drawing")).to_be_visible()
                if "rule, square and pencil" in page.locator("article.card h2").inner_text():
                    # Marking is no cut: it proves nothing and hurts nobody.
                    expect(page.locator("article.card .steps li").first).to_be_visible()
                    continue
                expect(page.locator("article.card [data-proof]").first).to_be_visible()
                expect(page.locator("article.card .care").first).to_be_visible()

    def test_legs_set_into_the_top(self) -> None:
        # Other seats and numbers of legs are the same cards once more.
        for start in ("round_three", "battened"):
            self.follow(start)

    def test_legs_of_other_joints(self) -> None:
        for start in ("log_slice", "slab"):
            self.follow(start)


class FramesFromChoosingToTheLastCard(FromChoosingToTheLastCard):
    def test_legs_set_into_the_top(self) -> None:
        self.follow("plane_frames")

    def test_legs_of_other_joints(self) -> None:
        for start in ("board_sides", "aproned"):
            self.follow(start)


class Mixing(BrowserCase):
    def test_a_support_becomes_another_kind_and_a_second_one_joins_it(self) -> None:
        page = self.at(self.hang(starter("bench")))
        page.locator("[data-field='support.kind']").click()
        page.get_by_role("option", name="slab turned down").click()
        expect(field(page, "supports.0.splay")).to_be_visible()
        page.get_by_role("button", name="another support").click()
        expect(page.locator("[data-figure=splay]").first).to_be_visible()
        expect(page.locator("nav.stick")).to_contain_text("Boring")
        saved(page)

    def test_a_frames_foot_is_dragged_to_another_splay(self) -> None:
        page = self.at(self.hang(starter("crossed")))
        before = field(page, "supports.0.splay").input_value()
        drag(page, "front", "frame.0", (18, 0))
        expect(field(page, "supports.0.splay")).not_to_have_value(before)
        saved(page)

    def test_an_outline_is_drawn_over_corner_by_corner(self) -> None:
        page = self.at(self.hang(starter("log_slice")))
        expect(page.locator("[data-handle='corner.1']")).to_be_visible()
        drag(page, "plan", "corner.1", (16, 4))
        saved(page)
        page.locator("[data-more-corners]").click()
        expect(page.locator("[data-handle='corner.16']")).to_be_visible()


class TaperedLegs(BrowserCase):
    def test_a_taper_is_chosen_sawn_and_proved_and_comes_back_as_it_was(self) -> None:
        page = self.at(self.hang(starter("aproned")), "stance")
        tapered = page.get_by_label("tapered legs")
        tapered.check()
        expect(field(page, "supports.0.taper.begins")).to_have_value("100 mm")
        type_in(page, "supports.0.taper.begins", "40")
        saved(page)
        expect(page.locator("[data-finding=taper_in_joint]")).to_contain_text("down or more")
        type_in(page, "supports.0.taper.begins", "105")
        type_in(page, "supports.0.taper.foot", "23")
        saved(page)
        expect(page.locator("[data-finding=taper_in_joint]")).to_have_count(0)
        tapered.uncheck()
        expect(field(page, "supports.0.taper.foot")).to_have_count(0)
        tapered.check()
        expect(field(page, "supports.0.taper.foot")).to_have_value("23 mm")
        saved(page)
        page.goto(page.url.replace("/stance", "/legs"))
        pick_work(page, "Taper the inner side and the inner face of 4 legs")
        card = page.locator("article.card")
        page.get_by_role("radio", name="Taper jig").click(force=True)
        expect(card).to_contain_text("front face down, outer side at the stops")
        page.get_by_role("radio", name="Band saw").click(force=True)
        expect(card).to_contain_text("17 mm packed under its foot")
        proof = card.locator("[data-proof^='side_taper.'] input").first
        proof.fill("24")
        proof.press("Enter")
        saved(page)
        expect(card).to_contain_text("23 mm")
        page.goto(page.url.replace("/legs", "/work"))
        expect(page.get_by_text("Taper the inner side and the inner face of 4 legs").first).to_be_visible()


class TopHeld(BrowserCase):
    def test_a_top_is_screwed_on_and_what_is_wrong_is_said_before_a_hole_is_bored(self) -> None:
        page = self.at(self.hang(starter("crossed")), "stance")
        page.get_by_role("radio", name="screws from below").click(force=True)
        expect(field(page, "supports.0.held.from_ends")).to_have_value("60 mm")
        expect(page.locator("figure.plan ellipse.tenon, svg ellipse.tenon").first).to_be_attached()
        type_in(page, "supports.0.held.bite", "26")
        saved(page)
        expect(page.locator("[data-finding=held_through]")).to_contain_text("less far in")
        type_in(page, "supports.0.held.bite", "15")
        saved(page)
        expect(page.locator("[data-finding=held_through]")).to_have_count(0)
        page.goto(page.url.replace("/stance", "/stretchers"))
        pick_work(page, "Bore the rail of frame 1 for the top's screws")
        card = page.locator("article.card")
        expect(card).to_contain_text("from the middle of the upper edge's length towards each end")
        proof = card.locator("[data-proof^='held.'] input").first
        proof.fill("15.5")
        proof.press("Enter")
        saved(page)
        page.goto(page.url.replace("/stretchers", "/work"))
        expect(page.get_by_text("Hold the top down").first).to_be_visible()


class Stepped(BrowserCase):
    def test_a_second_tread_is_put_in_dragged_glued_up_marked_and_held(self) -> None:
        page = self.at(self.hang(starter("board_sides")), "stance")
        type_in(page, "height", "420")
        saved(page)
        page.locator("[data-lower] input[type=checkbox]").click()
        expect(field(page, "supports.0.lower.drop")).to_have_value("186 mm")
        expect(field(page, "supports.0.lower.rails.1.offset")).to_have_value("38 mm")
        type_in(page, "supports.0.lower.drop", "150")
        saved(page)
        expect(page.locator("[data-finding=steps_unlike]")).to_contain_text("Alike they would be")
        drag(page, "side", "tread.0", (0, 40))
        saved(page)
        self.assertNotEqual(field(page, "supports.0.lower.drop").input_value(), "150 mm")
        type_in(page, "supports.0.lower.drop", "186")
        page.locator("[data-taper] input[type=checkbox]").click()
        expect(field(page, "supports.0.taper.off")).to_have_value("12 mm")
        page.get_by_role("radio", name="screws from below").click(force=True)
        saved(page)
        stance = page.url
        page.goto(stance.replace("/stance", "/stretchers"))
        pick_work(page, "Mark where 5 rails join 4 boards")
        card = page.locator("article.card")
        expect(card).to_contain_text("a line square across, 142 mm from the upper end")
        proof = card.locator("[data-proof^='joins.'] input").first
        proof.fill("142")
        proof.press("Enter")
        saved(page)
        pick_work(page, "Bore lower rail 1 for the lower tread's screws")
        expect(page.locator("article.card")).to_contain_text("holds in the lower tread alone")
        page.goto(stance.replace("/stance", "/legs"))
        pick_work(page, "Between the feet of the left side")
        expect(page.locator("article.card")).to_contain_text("in front of the seam")
        page.goto(stance.replace("/stance", "/work"))
        expect(
            page.get_by_text("Glue the sides, each from its long and its short board").first
        ).to_be_visible()
        expect(page.get_by_text("Hold both treads down").first).to_be_visible()

    def test_splines_are_put_through_the_top_notched_mortised_and_driven(self) -> None:
        page = self.at(self.hang(starter("board_sides")), "stance")
        page.locator("[data-splines] input[type=checkbox]").click()
        expect(field(page, "supports.0.splines.width")).to_have_value("39 mm")
        type_in(page, "supports.0.splines.from_edges", "25")
        saved(page)
        expect(page.locator("[data-finding=spline_edge]")).to_contain_text("further in")
        type_in(page, "supports.0.splines.from_edges", "78")
        saved(page)
        expect(page.locator("[data-finding^=spline]")).to_have_count(0)
        stance = page.url
        page.goto(stance.replace("/stance", "/top"))
        expect(page.locator("article.card")).to_contain_text("Nearer to the middle above")
        proof = page.locator("article.card [data-proof^='spline_mortise.'] input").first
        proof.fill("22.5")
        proof.press("Enter")
        saved(page)
        page.goto(stance.replace("/stance", "/work"))
        expect(page.get_by_text("Drive the splines through the top").first).to_be_visible()


class HandHolds(BrowserCase):
    def test_a_hand_hold_is_put_in_marked_bored_and_proved(self) -> None:
        page = self.at(self.hang(starter("board_sides")), "top")
        page.locator("[data-more-holds]").click()
        expect(field(page, "top.hand_holds.0.length")).to_have_value("105 mm")
        type_in(page, "top.hand_holds.0.x", "150")
        saved(page)
        expect(page.locator("[data-finding=hold_short_grain]")).to_contain_text("breaks off")
        type_in(page, "top.hand_holds.0.x", "0")
        type_in(page, "top.hand_holds.0.width", "28")
        saved(page)
        expect(page.locator("[data-finding^=hold_]")).to_have_count(0)
        page.get_by_role("button", name="Mark the hand-hold").click()
        expect(page.locator("[data-step]")).to_contain_text("38.5 mm towards LEFT")
        card = page.locator("article.card")
        expect(card).to_contain_text("right through")
        proof = card.locator("[data-proof^='hand_hold.'] input").first
        proof.fill("104")
        proof.press("Enter")
        saved(page)
        page.goto(page.url.replace("/top", "/work"))
        expect(page.get_by_text("Bore and saw the hand-hold").first).to_be_visible()


class Buttoned(BrowserCase):
    def test_a_top_is_held_by_buttons_whose_step_follows_the_groove_as_it_was_read(self) -> None:
        page = self.at(self.hang(starter("aproned")), "stance")
        page.get_by_role("radio", name="screws from below").click(force=True)
        type_in(page, "supports.0.held.bite", "13")
        page.get_by_role("radio", name="buttons", exact=True).click(force=True)
        expect(field(page, "supports.0.held.drop")).to_have_value("12 mm")
        type_in(page, "supports.0.held.moves", "18")
        saved(page)
        expect(page.locator("[data-finding=button_slips]")).to_contain_text("deeper")
        type_in(page, "supports.0.held.moves", "4")
        saved(page)
        expect(page.locator("[data-finding=button_slips]")).to_have_count(0)
        # Screws again are as they were.
        page.get_by_role("radio", name="screws from below").click(force=True)
        expect(field(page, "supports.0.held.bite")).to_have_value("13 mm")
        page.get_by_role("radio", name="buttons", exact=True).click(force=True)
        expect(field(page, "supports.0.held.drop")).to_have_value("12 mm")
        saved(page)
        page.goto(page.url.replace("/stance", "/stretchers"))
        page.locator("[data-work]").click()
        page.get_by_role(
            "option", name="Groove the front apron and the back apron for the top's buttons"
        ).click()
        card = page.locator("article.card")
        proof = card.locator("[data-proof^='groove.'] input").first
        proof.fill("13.5")
        proof.press("Enter")
        saved(page)
        page.locator("[data-work]").click()
        page.keyboard.press("End")
        page.get_by_role("option", name="Make 4 buttons for the front apron and the back apron").click()
        expect(card).to_contain_text("12.5 mm")
        expect(card).to_contain_text("Made to the groove as it was read")


class LiveEdge(BrowserCase):
    def test_a_slab_is_drawn_turned_down_dowelled_from_outside_and_proved(self) -> None:
        page = self.at(self.hang(starter("slab")), "stance")
        page.get_by_role("radio", name="drawn").click(force=True)
        saved(page)
        page.get_by_role("radio", name="1: slab turned down").click(force=True)
        page.get_by_role("button", name="another", exact=True).click()
        expect(field(page, "supports.0.edges.0.front")).to_have_value("170 mm")
        type_in(page, "supports.0.edges.0.front", "152")
        saved(page)
        # Dragged in the side view, where the leg is seen.
        drag(page, "side", "edge.1", (-14, 0))
        saved(page)
        expect(field(page, "supports.0.edges.0.front")).not_to_have_value("152 mm")
        outside = page.get_by_label("dowelled from outside")
        outside.check()
        expect(field(page, "supports.0.outside.past")).to_have_value("40 mm")
        expect(field(page, "supports.0.dowels.count")).to_have_count(0)
        type_in(page, "supports.0.outside.past", "190")
        saved(page)
        expect(page.locator("[data-finding=dowel_out]")).to_contain_text("less deep")
        type_in(page, "supports.0.outside.past", "38")
        saved(page)
        expect(page.locator("[data-finding=dowel_out]")).to_have_count(0)
        page.goto(page.url.replace("/stance", "/top"))
        page.get_by_label("a curve through the corners").check()
        sharp = page.locator("[data-sharp] input")
        # The end it is mitred at stays straight; taken off, that is refused with what to do.
        expect(sharp).to_have_value(re.compile(r"^\d+, \d+$"))
        kept = sharp.input_value()
        sharp.fill("")
        sharp.press("Tab")
        expect(page.get_by_text("square across, for the slab leg").first).to_be_visible()
        sharp.fill(kept)
        sharp.press("Tab")
        saved(page)
        page.goto(page.url.replace("/top", "/legs"))
        page.locator("[data-work]").click()
        page.keyboard.press("End")
        page.get_by_role("option", name="Bore the slab leg at the left for its level dowels").click()
        card = page.locator("article.card")
        expect(card).to_contain_text("leaning towards the foot as it leaves the face")
        proof = card.locator("[data-proof^='outside.'] input").first
        proof.fill("64")
        proof.press("Enter")
        saved(page)
        page.goto(page.url.replace("/legs", "/work"))
        expect(
            page.get_by_text("Drive the dowels of the slab leg at the left from outside").first
        ).to_be_visible()


class Wedged(BrowserCase):
    def test_wedges_are_chosen_made_proved_and_left_out(self) -> None:
        page = self.at(self.hang(starter("round_three")), "boring")
        wedged = page.get_by_label("wedged", exact=True)
        expect(wedged).to_be_checked()
        page.get_by_text("its wedge").click()
        type_in(page, "supports.0.joint.wedge.edge", "2.5")
        saved(page)
        expect(page.locator("[data-finding=wedge_blunt]")).to_contain_text("do not enter")
        type_in(page, "supports.0.joint.wedge.edge", "1.2")
        saved(page)
        expect(page.locator("[data-finding=wedge_blunt]")).to_have_count(0)
        page.goto(page.url.replace("/boring", "/legs"))
        page.locator("[data-work]").click()
        page.keyboard.press("End")
        page.get_by_role("option", name=re.compile("^Wedges for")).click()
        card = page.locator("article.card")
        expect(card).to_contain_text("both faces alike")
        proof = card.locator("[data-proof^='wedge.'] input").first
        proof.fill("5.5")
        proof.press("Enter")
        saved(page)
        page.goto(page.url.replace("/legs", "/boring"))
        wedged.uncheck()
        saved(page)
        page.goto(page.url.replace("/boring", "/work"))
        expect(page.get_by_text("Drive the wedges")).to_have_count(0)


class UnderTheFeet(BrowserCase):
    def test_pads_are_chosen_typed_seen_and_taken_away_again(self) -> None:
        page = self.at(self.hang(), "stance")
        page.get_by_role("radio", name="pads", exact=True).click(force=True)
        type_in(page, "underfoot.thickness", "6")
        expect(page.get_by_text("High on its sawn feet")).to_be_visible()
        expect(page.locator("svg.drawing polygon.board").first).to_be_attached()
        type_in(page, "underfoot.across", "60")
        saved(page)
        where = page.url.rpartition("/")[0]
        page.goto(f"{where}/level")
        expect(page.locator("[data-finding=underfoot_wide]")).to_contain_text("60 mm across")
        page.goto(f"{where}/work")
        expect(page.get_by_text("Put the pads under the feet")).to_be_visible()
        page.goto(f"{where}/stance")
        page.get_by_role("radio", name="nothing", exact=True).click(force=True)
        expect(page.get_by_text("High on its sawn feet")).to_have_count(0)
        page.get_by_role("button", name="undo").first.click()
        expect(page.get_by_text("High on its sawn feet")).to_be_visible()


class DrawnOver(BrowserCase):
    RING: ClassVar = [(150.0, 0.0), (0.0, 140.0), (-160.0, 10.0), (0.0, -150.0)]

    def lay(self, page: Page, name: str, data: bytes) -> None:
        file: FilePayload = {"name": name, "mimeType": "image/jpeg", "buffer": data}
        page.locator("input[type=file]").set_input_files(file)

    def test_a_slice_is_drawn_over_its_photograph_to_scale(self) -> None:
        address = self.hang(starter("log_slice"))
        page = self.at(address)
        self.lay(page, "slice.jpg", slice_photo(self.RING))
        under = page.locator("figure.plan image.under")
        expect(under).to_have_attribute("width", "391")
        type_in(page, "top.outline.photo.width", "460")
        expect(under).to_have_attribute("width", "460")
        expect(under).to_have_attribute("height", "460")
        type_in(page, "top.outline.photo.x", "-20")
        expect(under).to_have_attribute("x", "-250")
        saved(page)
        page.reload()
        expect(under).to_have_attribute("x", "-250")
        self.assertTrue(
            page.evaluate("document.querySelector('image.under').href.baseVal").startswith("/api/")
        )
        page.locator("[data-photo-drop]").click()
        expect(under).to_have_count(0)
        page.get_by_role("button", name="undo").click()
        expect(under).to_be_visible()

    def test_what_is_no_picture_is_told_and_nothing_changes(self) -> None:
        page = self.at(self.hang(starter("log_slice")))
        self.lay(page, "notes.jpg", b"not a picture at all")
        expect(page.locator("[data-photo]")).to_contain_text("no picture")
        expect(page.locator("image.under")).to_have_count(0)


class BetweenTheLegs(BrowserCase):
    def test_arrangements_are_put_in_dragged_and_typed(self) -> None:
        page = self.at(self.hang(starter("round_three")), "stretchers")
        page.locator("[data-arrange=triangle]").click()
        expect(page.locator("tr[data-member]")).to_have_count(3)
        expect(page.locator("[data-setting]")).to_be_visible()
        # What is there is not thrown away unasked.
        page.locator("[data-arrange=t]").click()
        page.get_by_role("button", name="leave it").click()
        expect(page.locator("tr[data-member]")).to_have_count(3)
        page.locator("[data-arrange=single]").click()
        page.get_by_role("button", name="beside what is there").click()
        expect(page.locator("tr[data-member]")).to_have_count(4)
        page.locator("[data-arrange=t]").click()
        page.get_by_role("button", name="in its place").click()
        expect(page.locator("tr[data-member]")).to_have_count(2)
        drag(page, "side", "member.1", (0, -20))
        expect(field(page, "members.0.ends.0.level.value")).not_to_have_value("171 mm")
        type_in(page, "members.0.ends.0.level.value", "150")
        expect(field(page, "members.0.ends.0.level.value")).to_have_value("150 mm")
        page.locator("[data-arrange=rope]").click()
        expect(page.locator("tr[data-member]")).to_have_count(3)
        saved(page)

    def test_an_end_goes_into_a_leg_there_is_and_what_ran_to_a_stretcher_goes_with_it(self) -> None:
        page = self.at(self.hang(starter("bench")), "stretchers")
        page.locator("[data-field='members.0.ends.0.leg']").click()
        options = page.get_by_role("option")
        expect(options).to_have_text(["1", "2", "3", "4"])
        options.nth(1).click()
        expect(page.locator("[data-field='members.0.ends.0.leg']")).to_contain_text("2")
        page.get_by_label("Take 1 away").click()
        # The middle one ran to it.
        expect(page.locator("tr[data-member]")).to_have_count(1)
        saved(page)
        page.get_by_role("button", name="undo").click()
        expect(page.locator("tr[data-member]")).to_have_count(3)

    def test_a_stretcher_is_made_eight_sided_planed_named_and_proved(self) -> None:
        page = self.at(self.hang(starter("bench")), "stretchers")
        page.locator("[data-field='members.0.section']").click()
        page.get_by_role("option", name="eight-sided").click()
        page.get_by_role("radio", name="bore the sockets").click(force=True)
        works = page.locator("[data-work]")
        for name, setting in (
            ("Eight sides on stretcher 1", "mm"),
            ("Name the faces of stretcher 1", "mm"),
        ):
            works.click()
            page.get_by_role("option", name=name).click()
            expect(page.locator("article.card h2")).to_contain_text(name)
            expect(page.locator("[data-setting]")).to_contain_text(setting)
        expect(page.locator("article.card")).to_contain_text("The FLOOR face is the one on top")
        works.click()
        page.get_by_role("option", name="Eight sides on stretcher 1").click()
        proof = page.locator("[data-proof='octagon.m1'] input")
        proof.fill("10.8")
        proof.press("Enter")
        expect(page.locator("article.card li.fine")).to_have_count(1)
        saved(page)
        self.assertEqual(ReadingRow.objects.get().kind, "octagon")


class InTheRound(BrowserCase):
    def test_the_piece_is_turned_with_the_keys(self) -> None:
        page = self.at(self.hang(starter("plane_frames")))
        page.get_by_label("turn it round").click(force=True)
        expect(page.locator("[data-solid] canvas")).to_be_visible()
        page.wait_for_timeout(600)
        before = page.locator("[data-solid]").screenshot()
        page.locator("[data-solid]").focus()
        for _ in range(4):
            page.keyboard.press("ArrowRight")
        page.wait_for_timeout(300)
        self.assertNotEqual(before, page.locator("[data-solid]").screenshot())

    def test_looking_along_a_sightline_the_leg_stands_plumb(self) -> None:
        page = self.at(self.hang(starter("round_three")))
        page.get_by_label("along leg 2's sightline").click(force=True)
        expect(page.locator("figure.sight figcaption")).to_contain_text("Looking in along")
        axis = page.locator("figure.sight polyline.axis").nth(1)
        expect(axis).to_be_attached()


class TopAndShop(BrowserCase):
    def test_a_hollow_takes_wood_away_and_a_trial_is_kept_with_its_reason(self) -> None:
        page = self.at(self.hang(starter("round_four")), "top")
        page.get_by_label("both ways").click(force=True)
        type_in(page, "top.hollow.depth", "55")
        expect(page.locator("[data-finding=hollow_through]")).to_be_visible()
        type_in(page, "top.hollow.depth", "9")
        expect(page.locator("[data-finding=hollow_through]")).to_have_count(0)
        page.get_by_text("Positions tried").click()
        page.locator("[data-trial-name] input").fill("wide")
        page.locator("[data-trial-why] input").fill("looked like a crab")
        page.get_by_role("button", name="Keep", exact=True).click()
        expect(page.locator("[data-trial]")).to_contain_text("looked like a crab")
        saved(page)

    def test_a_ready_made_set_changes_every_card(self) -> None:
        address = self.hang(starter("crossed"))
        page = self.at(address, "legs")
        expect(page.get_by_label("Table saw")).to_be_attached()
        page.goto(f"{self.live_server_url}/shop")
        page.locator("[data-ready=hand]").click()
        expect(page.locator("li[data-tool]")).to_have_count(6)
        page = self.at(address, "legs")
        expect(page.locator("article.card")).to_contain_text("handsaw")
        expect(page.get_by_label("Table saw")).to_have_count(0)
        page.goto(f"{self.live_server_url}/shop")
        page.locator("[data-add=mitre_saw]").click()
        expect(page.locator("li[data-tool]")).to_have_count(7)
