"""The published schemas stay true, and every route declares what it refuses with."""

from __future__ import annotations

import json
from collections import Counter
from functools import cache
from typing import Any

from django.conf import settings
from django.core.management import call_command
from django.test import TestCase

from workshop.api import api
from workshop.pieces.management.commands.schemas import published


@cache
def _schema() -> dict[str, Any]:
    """The API's schema as it goes out, worked out once."""
    return dict(json.loads(json.dumps(api.get_openapi_schema(path_prefix="/api/"))))


class Published(TestCase):
    def test_docs_hold_the_schemas_of_the_code(self) -> None:
        for name, text in published().items():
            self.assertEqual((settings.BASE_DIR / name).read_text(encoding="utf-8"), text, name)

    def test_no_two_schemas_share_a_name(self) -> None:
        schema = _schema()
        titles = Counter(s.get("title") for s in schema["components"]["schemas"].values())
        self.assertEqual([title for title, count in titles.items() if count > 1], [])
        self.assertFalse([name for name in schema["components"]["schemas"] if "__" in name])

    def test_every_route_declares_its_refusals_in_the_one_shape(self) -> None:
        schema = _schema()
        for path, methods in schema["paths"].items():
            for method, route in methods.items():
                with self.subTest(f"{method} {path}"):
                    answers: dict[str, Any] = route["responses"]
                    refusals = {code for code in answers if code >= "400"}
                    if "security" in route:
                        self.assertIn("401", refusals)
                    if "requestBody" in route:
                        self.assertLessEqual({"413", "422"}, refusals)
                    self.assertLessEqual({"400", "404", "405", "415", "500", "507"}, refusals)
                    for code in refusals - {"503"}:
                        _, _, kind, name = answers[code]["$ref"].split("/")
                        said = schema["components"][kind][name]["content"]
                        self.assertEqual(list(said), ["application/problem+json"])
                        ref = said["application/problem+json"]["schema"]["$ref"]
                        self.assertTrue(ref.endswith("/Problem"))

    def test_every_body_sent_is_refused_with_a_field_that_nothing_reads(self) -> None:
        schema = _schema()
        bodies = {
            kind["schema"]["$ref"].rsplit("/", 1)[-1]: f"{method} {path}"
            for path, methods in schema["paths"].items()
            for method, route in methods.items()
            for kind in route.get("requestBody", {}).get("content", {}).values()
            if "$ref" in kind["schema"]
        }
        self.assertGreater(len(bodies), 30)
        for name, where in bodies.items():
            of = schema["components"]["schemas"][name]
            self.assertIs(of.get("additionalProperties"), False, f"{name} at {where}")

    def test_no_migration_is_missing(self) -> None:
        call_command("makemigrations", check=True, dry_run=True, verbosity=0)
