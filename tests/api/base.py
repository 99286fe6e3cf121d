"""A signed-in maker's client that speaks JSON."""

from __future__ import annotations

import json
from typing import Any

from django.contrib.auth import get_user_model
from django.test import Client, SimpleTestCase, TestCase

from splay.piece import write_piece
from splay.piece.starters import starter


class Calls(SimpleTestCase):
    """Signed in as a maker, CSRF checked as in real life."""

    maker = "ash"

    def setUp(self) -> None:
        self.client = Client(enforce_csrf_checks=True)
        self.client.force_login(get_user_model().objects.create_user(self.maker))
        self.token = self.client.get("/api/session").json()["csrf"]

    def call(self, method: str, path: str, body: Any = None, **headers: Any) -> Any:
        """One call with the token; `body` is sent as JSON, bytes as they are."""
        raw = body if isinstance(body, bytes) else json.dumps(body)
        return self.client.generic(
            method,
            path,
            raw,
            content_type="application/json",
            headers={"X-CSRFToken": self.token, **headers},
        )

    def new(self, **change: Any) -> dict[str, Any]:
        """A piece put on the rack."""
        document = {**write_piece(starter("round_three")), **change}
        made = self.call("POST", "/api/pieces", {"document": document})
        self.assertEqual(made.status_code, 201, made.content)
        return dict(made.json())


class ApiCase(Calls, TestCase):
    """Calls in a transaction that is taken back after each test."""
