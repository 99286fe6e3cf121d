"""What is seen at three widths: nothing cut, nothing too small to read or to hit, nothing sideways."""

from __future__ import annotations

from playwright.sync_api import Page

from splay.piece import Piece
from splay.piece.starters import starter
from splay.stance.restate import Restate, restate
from tests.browser.base import BrowserCase, walk

WIDTHS = ((1280, 800), (800, 1280), (390, 844))
STATIONS = ("stance", "wood", "top", "boring", "legs", "stretchers", "level")
# Words that are cut, letters under 12 px, things to press under 24 px, and the width of the page.
SEEN = r"""() => {
  const cut = new Set(), small = new Set(), tiny = new Set()
  const seen = (e) => {
    const r = e.getBoundingClientRect(), s = getComputedStyle(e)
    return r.width > 1 && r.height > 1 && s.visibility !== 'hidden' && s.clipPath !== 'inset(50%)'
  }
  for (const e of document.querySelectorAll('.v-field-label, .v-select__selection-text, th, td, h2'))
    if (seen(e) && e.scrollWidth > e.clientWidth + 1 && getComputedStyle(e).overflow !== 'visible')
      cut.add(e.textContent.trim())
  for (const e of document.querySelectorAll('.v-input:not(.v-select) .v-field input:not([maxlength])'))
    if (seen(e) && !e.closest('[data-field="top.boards"]') && e.scrollWidth > e.clientWidth + 1)
      cut.add(e.value)
  for (const e of document.querySelectorAll('body *')) {
    if (![...e.childNodes].some(n => n.nodeType === 3 && n.textContent.trim()) || !seen(e)) continue
    let size = parseFloat(getComputedStyle(e).fontSize)
    const m = e.getScreenCTM && e.namespaceURI.includes('svg') ? e.getScreenCTM() : null
    if (m) size *= Math.hypot(m.a, m.b)
    if (size < 11.95) small.add(size.toFixed(1) + ' ' + e.textContent.trim().slice(0, 24))
  }
  for (const e of document.querySelectorAll('button, a, input, select, textarea')) {
    if (!seen(e) || e.closest('.v-field') || e.matches('p a')) continue
    const r = (e.closest('label') ?? e).getBoundingClientRect()
    if (r.height < 23.5 || r.width < 23.5)
      tiny.add((e.textContent.trim() || e.type || e.tagName).slice(0, 24))
  }
  return {cut: [...cut], small: [...small], tiny: [...tiny], wide: document.documentElement.scrollWidth}
}"""


class Look(BrowserCase):
    def pieces(self) -> list[str]:
        boxed: Piece = restate(starter("bench"), Restate("members", "box"))
        made = [boxed, starter("slab"), starter("plane_frames"), starter("board_sides"), starter("tall")]
        return [self.hang(one) for one in made]

    def look(self, page: Page, where: str, width: int) -> None:
        with self.subTest(where, width=width):
            found = page.evaluate(SEEN)
            self.assertEqual(found, {"cut": [], "small": [], "tiny": [], "wide": width})

    def each_width(self, where: str) -> None:
        """One page at every width, from the widest to the narrowest: what stands on it follows."""
        for width, height in WIDTHS:
            self.page.set_viewport_size({"width": width, "height": height})
            self.page.wait_for_timeout(250)
            self.look(self.page, where, width)

    def test_pages_on_the_bench_on_a_tablet_upright_and_on_a_phone(self) -> None:
        page = self.page
        for path in ("", "/shop", "/quick", "/rehearsal", "/makers", "/timber"):
            page.goto(f"{self.live_server_url}{path}")
            page.wait_for_selector("main h1, main h2, .station")
            page.wait_for_timeout(500)
            self.each_width(path)
        page.goto(f"{self.pieces()[0]}/paper")
        page.wait_for_selector("[data-pattern-pages]")
        self.each_width("paper")

    def test_stations_on_the_bench_on_a_tablet_upright_and_on_a_phone(self) -> None:
        page, pieces = self.page, self.pieces()
        for address in pieces:
            # The wood is laid out alike for every kind: it is looked at once.
            page.goto(f"{address}/stance")
            page.wait_for_selector(".station")
            for station in STATIONS if address == pieces[0] else [s for s in STATIONS if s != "wood"]:
                if station != "stance":
                    walk(page, f"{address}/{station}")
                    page.wait_for_selector(".station")
                self.each_width(f"{address[-6:]} {station}")

    def test_a_phone_shows_what_is_opened_on_it(self) -> None:
        """Opened narrow, not made narrow."""
        page = self.page
        page.set_viewport_size({"width": 390, "height": 844})
        address = self.pieces()[0]
        for station in STATIONS:
            page.goto(f"{address}/{station}")
            page.wait_for_selector(".station")
            page.wait_for_timeout(250)
            self.look(page, f"opened at {station}", 390)

    def test_nothing_is_cut_while_an_answer_is_on_its_way(self) -> None:
        page = self.page
        page.set_viewport_size({"width": 390, "height": 844})
        page.route("**/api/quick/**", lambda route: route.abort())
        page.goto(f"{self.live_server_url}/quick")
        page.wait_for_selector("[data-quick='from_side']")
        self.look(page, "quick, unanswered", 390)

    def test_on_a_phone_the_card_is_what_is_seen_first(self) -> None:
        page = self.page
        page.set_viewport_size({"width": 390, "height": 844})
        address = self.hang()
        self.at(address, "boring")
        head, stick = (page.locator(what).bounding_box() for what in (".head", "nav.stick"))
        setting = page.locator("[data-setting]").bounding_box()
        assert head and stick and setting
        self.assertLessEqual(head["height"] + stick["height"], 120)
        self.assertLess(setting["y"] + setting["height"], 844)
        page.get_by_role("button", name="more").first.click()
        page.get_by_role("button", name="earlier states").click()
        page.get_by_role("button", name="Back to work").click()
        page.locator("[data-menu]").click()
        page.get_by_role("link", name="Rack").click()
        page.wait_for_selector("[data-new]")

    def test_any_view_can_be_the_large_one_and_the_drawing_leads(self) -> None:
        page = self.at(self.hang(), "stance")
        for station, name in (("stance", "plan"), ("stance", "side"), ("level", "level.front")):
            page.goto(f"{page.url.rpartition('/')[0]}/{station}")
            page.wait_for_selector(".station svg.drawing")
            side = page.locator(".panel").bounding_box()
            assert side is not None
            self.assertLessEqual(side["width"], 1280 / 3 + 1)
            before = page.locator(f"figure:has([data-large='{name}'])").bounding_box()
            page.locator(f"[data-large='{name}']").click()
            page.wait_for_timeout(200)
            after = page.locator(f"figure:has([data-large='{name}'])").bounding_box()
            assert before and after
            self.assertGreater(after["width"] * after["height"], 1.1 * before["width"] * before["height"])
            page.locator(f"[data-large='{name}']").click()

    def test_what_is_needed_at_arms_length_is_large(self) -> None:
        """At 1280x800: the setting, which way, the steps, cautions, proofs and their fields, the cuts."""
        page = self.page
        needed = (
            "[data-setting], .which, .steps li, .care, .expect, .proofs input, .proofs .how, "
            ".proofs .v-messages__message, .findings li, .sticks td, .cut td, .cut .side, .row > .what"
        )
        for start in ("bench", "board_sides"):
            address = self.hang(starter(start))
            for station in ("boring", "legs", "stretchers", "level"):
                page.goto(f"{address}/{station}")
                page.wait_for_selector(".station")
                page.wait_for_timeout(400)
                small = page.evaluate(
                    "what => [...document.querySelectorAll(what)]"
                    ".filter(e => e.getClientRects().length)"
                    ".filter(e => parseFloat(getComputedStyle(e).fontSize) < 16)"
                    ".map(e => e.className + ' ' + e.textContent.trim().slice(0, 30))",
                    needed,
                )
                with self.subTest(start, station=station):
                    self.assertEqual(small, [])

    def test_every_screen_prints_clean(self) -> None:
        """On paper nothing is there to be pressed, nothing runs over the edge, and no page is empty."""
        page = self.page
        address = self.hang(starter("bench"))
        paths = [f"{address}/{station}" for station in STATIONS]
        paths += [f"{address}/{own}" for own in ("wood", "work", "log", "paper")]
        others = ("/", "/shop", "/quick", "/timber", "/time", "/log")
        paths += [f"{self.live_server_url}{path}" for path in others]
        for path in paths:
            page.emulate_media(media="screen")
            if path == paths[0]:
                page.goto(path)
            else:
                walk(page, path)
            page.wait_for_selector("main svg, main h1, main h2, main li")
            page.wait_for_timeout(400)
            page.emulate_media(media="print")
            page.set_viewport_size({"width": 720, "height": 1000})
            with self.subTest(path):
                self.assertFalse(page.locator("header.bar").is_visible())
                self.assertEqual(page.locator("button.word:visible, .v-btn:visible").count(), 0)
                wide = page.evaluate("document.documentElement.scrollWidth")
                self.assertLessEqual(wide, 720)
                paper = page.pdf(format="A4")
                self.assertLessEqual(paper.count(b"/Type /Page\n") + paper.count(b"/Type /Page "), 6)
            page.set_viewport_size({"width": 1280, "height": 800})
