"""Who may do what, over every route there is: strangers, makers without the page's token, later makers."""

from __future__ import annotations

import json
from typing import Any, ClassVar

from django.test import Client

from tests.api.base import ApiCase
from tests.api.test_makers import GOOD, Someone
from workshop.api import api

NAMED = {
    "{id}": "0b7e1b1e-0000-4000-8000-000000000000",
    "{proof}": "bore.l1",
    "{number}": "1",
    "{start}": "round_three",
}
OPEN = {
    ("GET", "/api/health"),
    ("GET", "/api/session"),
    ("POST", "/api/session"),
    ("POST", "/api/session/first"),
}
"""What anybody may ask: whether it is well, and to be let in."""
FIRST = {
    ("GET", "/api/archive"),
    ("POST", "/api/archive"),
    ("GET", "/api/backups"),
    ("POST", "/api/backups"),
    ("GET", "/api/backups/{name}"),
    ("POST", "/api/makers"),
    ("DELETE", "/api/makers/{name}"),
    ("PUT", "/api/makers/{name}/password"),
}
"""What the first maker alone may do."""


class Access(ApiCase):
    BODIES: ClassVar[dict[str, Any]] = {
        "/api/makers": {"name": "rowan", "password": GOOD},
        "/api/makers/{name}/password": {"password": GOOD},
    }

    def routes(self) -> list[tuple[str, str]]:
        schema = api.get_openapi_schema(path_prefix="/api/")
        return [(method.upper(), path) for path, methods in schema["paths"].items() for method in methods]

    def at(self, path: str) -> str:
        path = path.replace("/browsers/{id}", "/browsers/1")
        for name, value in NAMED.items():
            path = path.replace(name, value)
        return path.replace("{name}", "ash" if "/makers/" in path else "bench")

    def test_every_route_is_here(self) -> None:
        self.assertGreater(len(self.routes()), 100)
        self.assertLessEqual(OPEN | FIRST, set(self.routes()))

    def test_strangers_are_let_in_nowhere_but_at_the_door(self) -> None:
        client = Client(enforce_csrf_checks=True)
        client.get("/api/session")
        token = client.cookies["csrftoken"].value
        for method, path in self.routes():
            with self.subTest(f"{method} {path}"):
                answer = client.generic(
                    method,
                    self.at(path),
                    json.dumps(self.BODIES.get(path, {})),
                    content_type="application/json",
                    headers={"X-CSRFToken": token},
                )
                if (method, path) in OPEN:
                    self.assertNotIn(answer.status_code, (401, 403), answer.content[:200])
                else:
                    self.assertEqual(answer.status_code, 401, answer.content[:200])

    def test_nothing_is_sent_without_the_token_of_the_page(self) -> None:
        for method, path in self.routes():
            if method == "GET":
                continue
            with self.subTest(f"{method} {path}"):
                answer = self.client.generic(method, self.at(path), "{}", content_type="application/json")
                self.assertEqual(answer.status_code, 403, answer.content[:200])

    def test_what_the_first_maker_alone_may_do_others_may_not(self) -> None:
        self.call("POST", "/api/makers", {"name": "linden", "password": GOOD})
        linden = Someone()
        linden.sign_in("linden", GOOD)
        for method, path in self.routes():
            if path.startswith("/api/session"):
                continue
            with self.subTest(f"{method} {path}"):
                answer = linden.call(method, self.at(path), self.BODIES.get(path, {}))
                if (method, path) in FIRST:
                    self.assertEqual(answer.status_code, 403, answer.content[:200])
                else:
                    self.assertNotIn(answer.status_code, (401, 403), answer.content[:200])
