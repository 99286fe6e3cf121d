"""Takes the pictures in docs/screenshots/ and the samples beside them from the demo data."""

from __future__ import annotations

import os
import socket
import subprocess
import sys
import tempfile
import time
import urllib.request
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from playwright.sync_api import Page, sync_playwright

ROOT = Path(__file__).resolve().parent.parent
CHROMIUM = next(
    (path for path in ("/usr/bin/chromium-headless-shell", "/usr/bin/chromium") if Path(path).exists()),
    "/usr/bin/chromium",
)
"""Debian's Chromium without a window's furniture, which opens a page in half the time; else the whole one,
which is told to show none."""
FLAGS = [
    *(["--headless=new"] if CHROMIUM == "/usr/bin/chromium" else []),
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
]


@contextmanager
def served(data: str | None = None, load: bool = True) -> Iterator[str]:
    """The demo served on a free loopback port, from a data folder of its own unless one is named."""
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        port = probe.getsockname()[1]
    with tempfile.TemporaryDirectory() as own:
        env = {**os.environ, "PROUD_RAKE_DATA": data or own, "PROUD_RAKE_DEMO": "1"}
        # A test's own settings are no settings to serve with.
        env["DJANGO_SETTINGS_MODULE"] = "workshop.settings"
        env["PATH"] = f"{ROOT / '.venv/bin'}:{env['PATH']}"
        manage = [sys.executable, str(ROOT / "manage.py")]
        subprocess.run([*manage, "migrate", "--verbosity", "0"], env=env, cwd=ROOT, check=True)
        if load:
            subprocess.run([*manage, "demo"], env=env, cwd=ROOT, check=True, stdout=subprocess.DEVNULL)
        serve = [*manage, "serve", "--port", str(port)]
        server = subprocess.Popen(serve, env=env, cwd=ROOT, stdout=subprocess.DEVNULL)
        address = f"http://127.0.0.1:{port}"
        try:
            _wait(address)
            yield address
        finally:
            server.terminate()
            server.wait(10)


def _wait(address: str) -> None:
    # Generous: a loaded machine takes many times as long as a quiet one to start.
    end = time.monotonic() + 180
    while time.monotonic() < end:
        try:
            urllib.request.urlopen(f"{address}/api/session", timeout=2)
        except OSError:
            time.sleep(0.25)
        else:
            return
    raise SystemExit("The server did not come up.")


@contextmanager
def browsed(width: int = 1280, height: int = 800) -> Iterator[Page]:
    """One page of the headless browser."""
    with sync_playwright() as play:
        browser = play.chromium.launch(executable_path=CHROMIUM, args=FLAGS)
        yield browser.new_page(viewport={"width": width, "height": height})
        browser.close()


def open_piece(page: Page, address: str, name: str, station: str) -> None:
    """Go to one station of a piece on the rack."""
    page.goto(address)
    page.locator(f"[data-piece='{name}']").click()
    page.wait_for_selector(".station")
    id = page.url.split("/piece/")[1].split("/")[0]
    page.goto(f"{address}/piece/{id}/{station}")
    page.wait_for_selector(".station")
    page.wait_for_timeout(700)


SHOTS = {
    "stance": ("Foyer bench", "stance"),
    "top": ("Eyepiece stool", "top"),
    "boring": ("Eyepiece stool", "boring"),
    "legs": ("Lamp-cabinet base", "legs"),
    "stretchers": ("Eyepiece stool", "stretchers"),
    "wood": ("Foyer bench", "wood"),
    "level": ("Cloakroom stool", "level"),
}


_TASKS = {"stretchers": "bore the sockets"}


def _rehearse(page: Page, address: str, folder: Path) -> None:
    """A virtual stool measured once, drawn larger, the truth told."""
    page.goto(f"{address}/rehearsal")
    page.locator("[data-all]").click()
    page.wait_for_selector("[data-again]")
    page.get_by_label("20 times").click(force=True)
    page.locator("[data-reveal]").click()
    page.wait_for_selector("[data-truth]")
    page.mouse.move(640, 790)
    page.wait_for_timeout(500)
    page.screenshot(path=folder / "rehearsal.png")


BUILT = {
    "order-of-work": ("Eyepiece stool", "work", "[data-step]"),
    "glue-up": ("Eyepiece stool", "glueup", "[data-sitting]"),
    "log": ("Eyepiece stool", "log", "[data-entry]"),
    "bench": ("Terrace perch", "bench", "[data-bench-setting]"),
    "paper": ("Eyepiece stool", "paper", "[data-pattern-pages]"),
}


SAMPLES = {
    "bench-sheet.pdf": ("Eyepiece stool", "bench"),
    "patterns.pdf": ("Foyer bench", "patterns"),
    "top.dxf": ("Eyepiece stool", "pattern-dxf?pattern=top"),
    "cut-list.csv": ("Foyer bench", "cut-list-csv"),
}
"""What the README shows of sheets and files: the piece of the demo, and what goes out of it."""


def samples(page: Page, address: str, folder: Path) -> None:
    """Sheets and files of the demo, the same to the byte each time they are made."""
    folder.mkdir(parents=True, exist_ok=True)
    for name, (piece, out) in SAMPLES.items():
        open_piece(page, address, piece, "stance")
        id = page.url.split("/piece/")[1].split("/")[0]
        answer = page.request.get(f"{address}/api/pieces/{id}/out/{out}")
        (folder / name).write_bytes(answer.body())


def _built(page: Page, address: str, folder: Path, name: str) -> None:
    """What the build shows of a piece: its order, the bench, the glue-up, its log."""
    piece, where, there = BUILT[name]
    open_piece(page, address, piece, "stance")
    id = page.url.split("/piece/")[1].split("/")[0]
    page.goto(f"{address}/piece/{id}/{where}")
    page.wait_for_selector(there)
    page.wait_for_timeout(900)
    page.screenshot(path=folder / f"{name}.png")


def main(folder: Path, wanted: list[str]) -> None:
    """Take the pictures, all or those named."""
    folder.mkdir(parents=True, exist_ok=True)
    with served() as address, browsed() as page:
        for path, name in (
            ("/", "rack"),
            ("/quick", "quick-set"),
            ("/shop", "shop"),
            ("/makers", "makers"),
            ("/time", "time"),
            ("/timber", "timber"),
        ):
            if not wanted or name in wanted:
                page.goto(address + path)
                page.wait_for_selector(
                    {"rack": "[data-piece] svg", "shop": ".tools li", "makers": "[data-maker]"}.get(
                        name, "svg"
                    )
                )
                page.wait_for_timeout(600)
                page.screenshot(path=folder / f"{name}.png")
        if not wanted or "rehearsal" in wanted:
            _rehearse(page, address, folder)
        for name, (piece, station) in SHOTS.items():
            if not wanted or name in wanted:
                open_piece(page, address, piece, station)
                if name in _TASKS:
                    page.get_by_role("radio", name=_TASKS[name]).click(force=True)
                    page.wait_for_timeout(400)
                if name == "top":
                    for _ in range(3):
                        page.locator("[data-next]").click()
                    page.wait_for_timeout(300)
                page.screenshot(path=folder / f"{name}.png")
        for name in BUILT:
            if not wanted or name in wanted:
                _built(page, address, folder, name)
        if not wanted or "samples" in wanted:
            samples(page, address, ROOT / "docs" / "samples")


if __name__ == "__main__":
    main(Path(os.environ.get("SHOTS", ROOT / "docs" / "screenshots")), sys.argv[1:])
