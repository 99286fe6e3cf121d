"""The real interface in headless Chromium, against a server on this machine."""

from __future__ import annotations

import atexit
import os
from functools import cache
from typing import Any, ClassVar

from django.contrib.auth import get_user_model
from django.test import Client, LiveServerTestCase, override_settings, tag
from django.test.testcases import is_pickable
from playwright.sync_api import Browser, BrowserContext, Page, expect, sync_playwright
from playwright.sync_api import TimeoutError as PlaywrightTimeout

from splay.piece import Piece
from splay.piece.starters import starter
from tools.screenshots import CHROMIUM, FLAGS
from workshop.pieces.actions import put_on_rack
from workshop.shop.models import OwnUnits

PATIENCE_MS = 20_000
TRIES = 8
expect.set_options(timeout=PATIENCE_MS)


@cache
def the_browser() -> Browser:
    """The one of this process: starting it takes seconds. It ends with the process, whose pipe it hears."""
    # Playwright's own loop makes Django believe it is called from async code.
    os.environ["DJANGO_ALLOW_ASYNC_UNSAFE"] = "true"
    play = sync_playwright().start()
    atexit.register(play.stop)
    return play.chromium.launch(executable_path=CHROMIUM, args=FLAGS)


@tag("browser")
@override_settings(ALLOWED_HOSTS=["*"])
class BrowserCase(LiveServerTestCase):
    """One browser a process, one context a test, signed in as a maker."""

    asked: ClassVar[bool] = True
    """Whether the maker was asked for their units before."""
    browser: ClassVar[Browser]

    @classmethod
    def setUpClass(cls) -> None:
        cls.browser = the_browser()
        super().setUpClass()

    def setUp(self) -> None:
        self.foreign: list[str] = []
        self.errors: list[str] = []
        self.context = self.fresh()
        self.page = self.open(self.context)

    def tearDown(self) -> None:
        self.context.close()
        self.assertEqual(self.foreign, [], "asked for something outside this machine")
        self.assertEqual(self.errors, [], "the page threw")

    def __getstate__(self) -> dict[str, Any]:
        """What a subtest that failed takes to the process that reports it: no browser goes there."""
        state: dict[str, Any] = super().__getstate__()
        return {name: value for name, value in state.items() if is_pickable(value)}

    def fresh(self, signed_in: bool = True) -> BrowserContext:
        """A browser that has not been here before."""
        context = self.browser.new_context(viewport={"width": 1280, "height": 800})
        context.set_default_timeout(PATIENCE_MS)
        if signed_in:
            client = Client()
            maker, _ = get_user_model().objects.get_or_create(username="ash")
            client.force_login(maker)
            # Asked long ago which units they want; what is asked first has its own test.
            if self.asked:
                OwnUnits.objects.get_or_create(maker=maker, defaults={"rounding": {"system": "metric"}})
            context.add_cookies(
                [
                    {
                        "name": "sessionid",
                        "value": client.cookies["sessionid"].value,
                        "url": self.live_server_url,
                    }
                ]
            )
        return context

    def open(self, context: BrowserContext) -> Page:
        """A tab that notes whatever it should not do."""
        page = context.new_page()
        page.on("pageerror", lambda error: self.errors.append(str(error)))
        # No flow says anything there, but for the browser's own word on an answer that is a refusal, and on
        # an answer that never came.
        page.on(
            "console",
            lambda said: (
                said.type in ("error", "warning")
                and "Failed to load resource" not in said.text
                # What is rendered without a graphics card says so.
                and "GL Driver Message" not in said.text
                # A list of the component library unfolds from the size of a field that a slow machine has
                # not laid out yet: the library's own word on its animation, nothing of ours.
                and "translate(0px, 0px) scale(NaN)" not in said.text
                and self.errors.append(said.text)
            ),
        )
        page.on(
            "request",
            lambda request: (
                None
                if request.url.startswith((self.live_server_url, "data:", "blob:"))
                else self.foreign.append(request.url)
            ),
        )
        return page

    def hang(self, made: Piece | None = None) -> str:
        """A piece put on the rack; its address."""
        maker = get_user_model().objects.get(username="ash")
        row = put_on_rack(made or starter("round_four"), maker)
        return f"{self.live_server_url}/piece/{row.pk}"

    def at(self, address: str, station: str = "stance", page: Page | None = None) -> Page:
        """A station of a piece, drawn."""
        page = page or self.page
        page.goto(f"{address}/{station}")
        page.wait_for_selector(".station svg.drawing")
        return page


def field(page: Page, path: str) -> Any:
    """The input of a typed field of the piece."""
    return page.locator(f"[data-field='{path}'] input")


def type_in(page: Page, path: str, text: str) -> None:
    """Type into a field and press Enter."""
    field(page, path).fill(text)
    field(page, path).press("Enter")


def walk(page: Page, path: str) -> None:
    """To another page without loading everything anew, as a link of the page's own leads there."""
    before = page.query_selector(".station, main h1, main h2")
    page.evaluate(
        "path => { history.pushState(null, '', path);"
        " dispatchEvent(new PopStateEvent('popstate', { state: null })) }",
        path,
    )
    if before is not None:
        before.wait_for_element_state("hidden")


def choose(page: Page, name: str) -> None:
    """One of a few words: its label, once it has come to rest (an answer may move the page under it)."""
    radio = page.get_by_role("radio", name=name, exact=True)
    page.locator("label", has=radio).click()
    expect(radio).to_be_checked()


def saved(page: Page) -> None:
    """Wait until the workshop has it."""
    expect(page.locator("[data-status=saved]")).to_be_visible()


def drag(page: Page, view: str, handle: str, by: tuple[int, int]) -> None:
    """Take a handle of a view and let it go elsewhere, px."""
    knob = page.locator(f"figure.{view} [data-handle='{handle}'] .knob")
    box, before = knob.bounding_box(), None
    # A drawing may still be on its way from the change before: taken where it was, nothing is held.
    while box != before:
        page.wait_for_timeout(80)
        before, box = box, knob.bounding_box()
    assert box is not None
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + by[0] / 2, y + by[1] / 2, steps=4)
    page.mouse.move(x + by[0], y + by[1], steps=4)
    page.mouse.up()


def pick_work(page: Page, name: str, exact: bool = False) -> None:
    """A work out of the list of a station's works. Of a long one only what is in sight is there, and while
    it unfolds it goes back to its beginning."""
    page.locator("[data-work]").click()
    unfolded = page.locator(".v-overlay--active .v-list")
    option = page.get_by_role("option", name=name, exact=exact)
    for _ in range(TRIES):
        unfolded.wait_for()
        if not option.count():
            unfolded.evaluate("list => { list.scrollTop = list.scrollHeight }")
        try:
            option.click(timeout=PATIENCE_MS / TRIES)
            return
        except PlaywrightTimeout:
            continue
    raise AssertionError(f"no work {name!r} could be picked")
