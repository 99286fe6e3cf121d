"""Ways of making that are chosen: hollows, wood left on, pegs found, turned legs, sticks with a past."""

from __future__ import annotations

from playwright.sync_api import expect

from splay.piece.starters import starter
from tests.browser.base import BrowserCase, drag, field, pick_work, saved, type_in


class Hollowed(BrowserCase):
    def test_a_hollow_is_chosen_struck_cut_by_either_way_and_proved(self) -> None:
        page = self.at(self.hang(starter("round_four")), "top")
        page.get_by_label("hollowed one way").click(force=True)
        type_in(page, "top.hollow.chord", "300")
        type_in(page, "top.hollow.depth", "8")
        saved(page)
        page.get_by_role("button", name="Mark where the hollow begins").click()
        expect(page.locator("[data-step]")).to_contain_text("150 mm from the")
        card = page.locator("article.card")
        expect(card).to_contain_text("in the middle 7.5 mm deep")
        page.get_by_label("Router on curved runners").click(force=True)
        # R = (300²/4 + 8²) / 16 = 1410.25, less the depth and 25 of runner: 1377.25.
        expect(card).to_contain_text("a radius of 1377.5 mm")
        page.get_by_label("Bow saw").click(force=True)
        expect(card).to_contain_text("A bent lath")
        proof = card.locator("[data-proof=hollow] input")
        proof.fill("9.6")
        proof.press("Enter")
        expect(card.locator("li.off")).to_contain_text("1.6 mm")
        saved(page)
        page.goto(page.url.replace("/top", "/work"))
        expect(page.get_by_text("Hollow the seat").first).to_be_visible()


class HollowedByStrips(BrowserCase):
    def test_each_strip_gets_its_own_part_before_the_glue_up(self) -> None:
        page = self.at(self.hang(starter("round_four")), "top")
        page.get_by_label("both ways").click(force=True)
        flag = page.get_by_label("strip by strip, before the glue-up")
        flag.check()
        expect(page.get_by_text("the top is in one piece: its cards hollow it whole")).to_be_visible()
        boards = field(page, "top.boards")
        boards.fill("80, 100, 100, 80")
        boards.press("Enter")
        boards.blur()
        saved(page)
        card = page.locator("article.card")
        expect(card).to_contain_text("Lay the 4 strips side by side as they will be glued")
        expect(card).to_contain_text("Strip 2: on the side towards")
        expect(card.locator(".care")).to_contain_text("A narrow strip tips")
        page.goto(page.url.replace("/top", "/work"))
        expect(page.get_by_text("Hollow the seat strip by strip").first).to_be_visible()


class PlanedAfterBoring(BrowserCase):
    def test_wood_left_on_is_planed_off_between_boring_and_the_upper_face(self) -> None:
        page = self.at(self.hang(starter("round_four")), "top")
        type_in(page, "top.left_on", "4")
        saved(page)
        card = page.locator("article.card")
        expect(card).to_contain_text("planed down by 4.0 mm all over")
        expect(card.locator(".care")).to_contain_text("Clamp it")
        proof = card.locator("[data-proof=dressed] input")
        proof.fill("40.2")
        proof.press("Enter")
        saved(page)
        page.goto(page.url.replace("/top", "/work"))
        expect(page.get_by_text("Plane the upper face to thickness").first).to_be_visible()


class PegFound(BrowserCase):
    def test_a_pegs_place_is_found_through_its_socket(self) -> None:
        page = self.at(self.hang(starter("slab")), "boring")
        page.locator("[data-field$='joint.peg.place']").click()
        page.get_by_role("option", name="through the socket").click()
        saved(page)
        pick_work(page, "Find the pegs' places")
        card = page.locator("article.card")
        expect(card).to_contain_text("before it goes in: a 2.0 mm bit on from the small hole")
        expect(card.locator(".care")).to_contain_text("A thin bit bends and snaps")
        page.goto(page.url.replace("/boring", "/work"))
        expect(page.get_by_text("Find the pegs' places").first).to_be_visible()


class TurnedLegs(BrowserCase):
    def test_a_leg_is_said_to_be_turned_and_the_first_is_the_pattern_for_the_rest(self) -> None:
        page = self.at(self.hang(starter("round_four")), "legs")
        page.locator("details.making summary").click()
        page.locator("[data-field='supports.0.leg.made_by']").click()
        page.get_by_role("option", name="turned").click()
        saved(page)
        pick_work(page, "Turn legs 1, 2, 3 and 4 to shape")
        card = page.locator("article.card")
        expect(card).to_contain_text("a parting tool in to the calipers")
        expect(card).to_contain_text("It is the pattern for legs 2, 3 and 4")
        expect(card.locator(".care")).to_contain_text("follow the lathe's own manual")
        proof = card.locator("[data-proof^='taper.'] input")
        proof.fill("30.4")
        proof.press("Enter")
        expect(card.locator("li.fine")).to_have_count(1)
        saved(page)


class Reused(BrowserCase):
    def test_old_holes_are_told_and_what_comes_off_follows(self) -> None:
        page = self.at(self.hang(starter("round_four")), "legs")
        page.locator("details.making summary").click()
        sticks, old = (
            page.locator("[data-field='leg.sticks']"),
            page.locator("[data-field='leg.sticks.old']"),
        )
        expect(old).to_have_count(0)
        sticks.fill("620, 30, settle\n610, 30")
        sticks.blur()
        old.fill("1, 18, 52\n3, 20, 40")
        old.blur()
        expect(page.get_by_role("alert")).to_contain_text("Got 3, 20, 40; wanted: a stick from 1 to 2")
        expect(old).to_have_value("1, 18, 52\n3, 20, 40")
        old.fill("1, 18, 52")
        old.blur()
        expect(page.get_by_role("alert")).to_have_count(0)
        expect(page.get_by_text("Stick 1: settle, off its upper end first")).to_be_visible()
        # A line put in above leaves the old hole where it was.
        sticks.fill("600, 30\n620 mm, 30 mm, settle\n610 mm, 30 mm")
        sticks.blur()
        expect(old).to_have_value("2, 18 mm, 52 mm")
        saved(page)
        pick_work(page, "Saw the reused sticks")
        card = page.locator("article.card")
        expect(card).to_contain_text("Stick 2 (settle), for leg 2: saw 52 mm square off its tenon end")
        expect(card.locator(".care")).to_contain_text("old nails")
        old.fill("2, 18, 52\n2, 90, 590")
        old.blur()
        expect(page.get_by_text("however much comes off its upper end")).to_be_visible()


class TwoBoards(BrowserCase):
    def test_two_boards_with_a_gap_are_chosen_tied_together_and_screwed_each_by_itself(self) -> None:
        page = self.at(self.hang(starter("crossed")), "top")
        page.locator("[data-gap] input").check()
        expect(page.get_by_text("Nothing that lies under both boards is screwed")).to_be_visible()
        type_in(page, "top.gap.width", "12")
        saved(page)
        page.get_by_role("button", name="Lay the two boards with their gap").click()
        expect(page.locator("[data-step]")).to_contain_text("strips 12 mm thick between them")
        page.goto(page.url.replace("/top", "/stance"))
        page.get_by_label("screws from below").click(force=True)
        expect(page.get_by_text("There is a caution at top.")).to_have_count(0)
        saved(page)
        page.goto(page.url.replace("/stance", "/work"))
        step = page.get_by_text("Hold the top down").first
        step.click()
        expect(page.get_by_text("Front board: held by rails of frames 1 and 2.")).to_be_visible()


class MouthEased(BrowserCase):
    def test_a_coves_mouth_is_eased_with_the_cutter_from_the_drawer_that_comes_nearest(self) -> None:
        page = self.page
        page.goto(f"{self.live_server_url}/shop")
        new = page.locator("[data-field='mouth_bits.new'] input")
        new.fill("6.35")
        new.press("Enter")
        expect(page.locator("[data-field='mouth_bits.0.radius'] input")).to_have_value("6.5 mm")
        address = self.hang(starter("round_four"))
        self.at(address, "legs")
        page.locator("details.making summary").click()
        page.locator("[data-field$='leg.neck']").click()
        page.get_by_role("option", name="a cove").click()
        page.get_by_label("the mouth eased to meet it").check()
        type_in(page, "supports.0.leg.cove", "6")
        saved(page)
        self.at(address, "boring")
        pick_work(page, "Ease the mouths")
        card = page.locator("article.card")
        expect(card.locator("h2")).to_contain_text("rounding cutter, its pilot in the hole")
        expect(card).to_contain_text("of air stays between them")
        proof = card.locator("[data-proof^='mouth.'] input")
        proof.fill("36")
        proof.press("Enter")
        saved(page)
        page.goto(page.url.replace("/boring", "/work"))
        expect(page.get_by_text("Ease the mouths").first).to_be_visible()


class AnArc(BrowserCase):
    def test_a_cross_piece_is_sawn_to_an_arc_from_choosing_it_to_its_proof(self) -> None:
        page = self.at(self.hang(starter("plane_frames")))
        page.locator("[data-arc] input").nth(1).check()
        handle = page.locator("figure.front [data-handle^='size.']")
        expect(handle).to_have_attribute(
            "aria-label", "Move the arc of the cross-piece 2 of the front frame"
        )
        drag(page, "front", handle.get_attribute("data-handle") or "", (0, 20))
        expect(field(page, "supports.0.cross.1.arc.rise")).not_to_have_value("30 mm")
        type_in(page, "supports.0.cross.1.arc.rise", "45")
        page.locator("[data-field='supports.0.cross.1.arc.upper']").click()
        page.get_by_role("option", name="along the arc").click()
        expect(page.get_by_text("off its grain: it breaks there")).to_be_visible()
        saved(page)
        page.goto(page.url.replace("/stance", "/stretchers"))
        pick_work(page, "Saw the arc of")
        card = page.locator("article.card")
        expect(card).to_contain_text("a lath bent through those and both corners draws the arc")
        expect(card.locator(".care")).to_contain_text("fingers beside the line")
        proof = card.locator("[data-proof^='sweep.'] input")
        proof.fill("44")
        proof.press("Enter")
        expect(card.locator("li.fine")).to_have_count(1)
        saved(page)
        page.goto(page.url.replace("/stretchers", "/stance"))
        page.get_by_label("driven from outside").check()
        saved(page)
        page.goto(page.url.replace("/stance", "/stretchers"))
        pick_work(page, "Bore 4 legs through for dowels from outside")
        expect(card).to_contain_text("10 mm, right through.")
        pick_work(page, "Bore on into 4 cross-pieces from outside")
        expect(card).to_contain_text("The hole that is there leads the bit")
        deep = card.locator("[data-proof^='through.'] input")
        deep.fill("53")
        deep.press("Enter")
        expect(card.locator("li.fine")).to_have_count(1)
        saved(page)
        page.goto(page.url.replace("/stretchers", "/work"))
        expect(page.get_by_text("Saw the arc of").first).to_be_visible()
        expect(page.get_by_text("Drive the dowels of the joints from outside").first).to_be_visible()


class BentSticks(BrowserCase):
    def test_a_bent_stick_is_told_strung_and_proved(self) -> None:
        page = self.at(self.hang(starter("round_four")), "legs")
        page.locator("details.making summary").click()
        sticks = page.locator("[data-field='leg.sticks']")
        sticks.fill("620, 30, rake handle")
        sticks.blur()
        bends = page.locator("[data-field='leg.sticks.bend']")
        bends.fill("2, 10, 300")
        bends.blur()
        expect(page.get_by_role("alert")).to_contain_text("stick 1, the only one")
        bends.fill("1, 10, 300, sideways")
        bends.blur()
        expect(page.get_by_role("alert")).to_contain_text("outward")
        bends.fill("1, 10, 300, inward")
        bends.blur()
        saved(page)
        expect(bends).to_have_value("1, 10 mm, 300 mm, inward")
        pick_work(page, "Find the line of the bent sticks")
        card = page.locator("article.card")
        expect(card).to_contain_text("Stick 1 (rake handle), for leg 1")
        expect(card).to_contain_text("straight across from that back")
        expect(card.locator(".care")).to_contain_text("a bent stick turns to its belly")
        proof = card.locator("[data-proof^='bent.'] input")
        proof.fill("8.5")
        proof.press("Enter")
        saved(page)
        page.goto(page.url.replace("/legs", "/work"))
        expect(page.get_by_text("Find the line of the bent sticks").first).to_be_visible()
