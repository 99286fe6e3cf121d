"""A shop of its own: a server on a free loopback port in a folder of its own, and a maker's client."""

from __future__ import annotations

import atexit
import http.client
import json
import os
import shutil
import signal
import socket
import subprocess
import sys
import tempfile
import time
from collections.abc import Iterator
from contextlib import contextmanager, suppress
from functools import lru_cache
from pathlib import Path
from typing import Any

ROOT = Path(__file__).resolve().parent.parent.parent
MAKER = ("ash", "spokeshave-and-adze")


class Shop:
    """One installation: begun, killed and begun again on the same data."""

    def __init__(self, data: Path, wrap: tuple[str, ...] = ()) -> None:
        self.data, self.wrap = data, wrap
        with socket.socket() as probe:
            probe.bind(("127.0.0.1", 0))
            self.port = int(probe.getsockname()[1])
        self.env = {
            **os.environ,
            "PROUD_RAKE_DATA": str(data),
            "DJANGO_SETTINGS_MODULE": "workshop.settings",
        }
        self.env["PATH"] = f"{ROOT / '.venv/bin'}:{self.env['PATH']}"
        self.env.pop("PROUD_RAKE_DEMO", None)
        self.server: subprocess.Popen[bytes] | None = None

    def manage(self, *words: str, given: str = "") -> str:
        """A command of the program on this shop's data; what it said. Raises where it failed."""
        command = [sys.executable, "manage.py", *words]
        ran = subprocess.run(
            command, cwd=ROOT, env=self.env, input=given, text=True, capture_output=True, check=True
        )
        return ran.stdout

    def begin(self) -> float:
        """Start serving; seconds to the first answer."""
        words = [*self.wrap, sys.executable, "manage.py", "serve", "--port", str(self.port), "--migrate"]
        began = time.monotonic()
        with (ROOT / "build" / "trust-server.log").open("ab") as log:
            self.server = subprocess.Popen(
                words, cwd=ROOT, env=self.env, stdout=log, stderr=log, start_new_session=True
            )
        while time.monotonic() - began < 120:
            with suppress(OSError, http.client.HTTPException):
                if self.ask("GET", "/api/session", patience=2)[0] == 200:
                    return time.monotonic() - began
            if self.server.poll() is not None:
                raise SystemExit("The server did not start: see build/trust-server.log.")
            time.sleep(0.02)
        raise SystemExit("The server did not answer.")

    def family(self) -> list[int]:
        """The processes of the server, the master first; the night's one is not among them."""
        assert self.server is not None
        found = [self.server.pid]
        for at in found:
            with suppress(OSError):
                children = Path(f"/proc/{at}/task/{at}/children").read_text().split()
                found += [int(child) for child in children]
        return [pid for pid in found if b"keep" not in _line(pid)]

    def kill(self) -> None:
        """Pull the plug on every process at once."""
        assert self.server is not None
        os.killpg(self.server.pid, signal.SIGKILL)
        self.server.wait()

    def kill_workers(self) -> None:
        """Pull the plug on those that write; the master stands and begins others."""
        for pid in self.family()[1:]:
            with suppress(ProcessLookupError):
                os.kill(pid, signal.SIGKILL)

    def end(self) -> None:
        """Stop in peace."""
        if self.server and self.server.poll() is None:
            os.killpg(self.server.pid, signal.SIGTERM)
            try:
                self.server.wait(20)
            except subprocess.TimeoutExpired:
                self.kill()

    def memory_mb(self) -> float:
        """What its processes hold for themselves, MB (shared pages counted by share)."""
        total = 0
        for pid in self.family():
            with suppress(OSError):
                for line in Path(f"/proc/{pid}/smaps_rollup").read_text().splitlines():
                    if line.startswith("Pss:"):
                        total += int(line.split()[1])
        return total / 1024

    def ask(
        self,
        method: str,
        path: str,
        body: bytes | None = None,
        headers: dict[str, str] | None = None,
        patience: float = 30,
    ) -> tuple[int, dict[str, str], bytes]:
        """One request on a connection of its own: status, headers, body. OSError where nobody answers."""
        line = http.client.HTTPConnection("127.0.0.1", self.port, timeout=patience)
        try:
            line.request(method, path, body, headers or {})
            answer = line.getresponse()
            return answer.status, {k.lower(): v for k, v in answer.getheaders()}, answer.read()
        finally:
            line.close()


def _line(pid: int) -> bytes:
    with suppress(OSError):
        return Path(f"/proc/{pid}/cmdline").read_bytes()
    return b""


class Maker:
    """A signed-in maker's client; `ask` answers None where the server was not there to answer."""

    def __init__(self, shop: Shop) -> None:
        self.shop = shop
        self.cookies = {"csrftoken": greeted(shop)}
        name, password = MAKER
        said = self._ask("POST", "/api/session", {"name": name, "password": password})
        assert said[0] == 200, said
        for wanted in ("csrftoken", "sessionid"):
            if f"{wanted}=" in said[1].get("set-cookie", ""):
                self.cookies[wanted] = _cookie(said[1]["set-cookie"], wanted)

    def headers(self, kind: str = "application/json") -> dict[str, str]:
        """What a page sends along."""
        return sent_along(self.cookies, kind)

    def _ask(self, method: str, path: str, body: Any = None) -> tuple[int, dict[str, str], bytes]:
        raw = body if isinstance(body, bytes) else None if body is None else json.dumps(body).encode()
        kind = "image/png" if isinstance(body, bytes) else "application/json"
        return self.shop.ask(method, path, raw, self.headers(kind))

    def ask(self, method: str, path: str, body: Any = None) -> tuple[int, Any] | None:
        """One request: its status and what was said, None where nobody answered."""
        try:
            status, _, raw = self._ask(method, path, body)
        except (OSError, http.client.HTTPException):
            return None
        with suppress(ValueError):
            return status, json.loads(raw)
        return status, raw


def greeted(shop: Shop) -> str:
    """The token a page is given that nobody signed in at yet."""
    _, headers, _ = shop.ask("GET", "/api/session")
    return _cookie(headers["set-cookie"], "csrftoken")


def sent_along(cookies: dict[str, str], kind: str = "application/json") -> dict[str, str]:
    """What a page sends along that was given these cookies."""
    said = "; ".join(f"{name}={value}" for name, value in cookies.items())
    return {"Cookie": said, "X-CSRFToken": cookies["csrftoken"], "Content-Type": kind}


def _cookie(said: str, name: str) -> str:
    return said.split(f"{name}=")[1].split(";")[0]


@lru_cache(maxsize=1)
def empty_shop() -> Path:
    """A data folder with one maker and nothing else, made once and copied for each trial."""
    folder = Path(tempfile.mkdtemp(prefix="proud-rake-empty-"))
    atexit.register(shutil.rmtree, folder, ignore_errors=True)
    shop = Shop(folder)
    shop.manage("migrate", "--verbosity", "0")
    shop.manage("addmaker", MAKER[0], given=MAKER[1] + "\n")
    return folder


@contextmanager
def opened(wrap: tuple[str, ...] = (), inside: Path | None = None) -> Iterator[tuple[Shop, Maker]]:
    """A shop with one maker, served; everything of it is gone afterwards."""
    folder = inside or Path(tempfile.mkdtemp(prefix="proud-rake-trust-"))
    shop = Shop(folder, wrap)
    try:
        if not wrap:
            shutil.copytree(empty_shop(), folder, dirs_exist_ok=True)
        shop.begin()
        yield shop, Maker(shop)
    finally:
        shop.end()
        if inside is None:
            shutil.rmtree(folder, ignore_errors=True)
