"""Every answer about the demo's pieces is what it was when it was looked at last; routes as published."""

from __future__ import annotations

import io
import json
import os
import re
import zipfile
from datetime import UTC, datetime, time
from pathlib import Path
from typing import Any
from unittest import mock

import openpyxl
import pypdfium2
from django.core.management import call_command
from django.test import override_settings
from django.utils import timezone

from tests.api.base import ApiCase
from tests.approve import HERE, digest
from tests.onward import cut
from workshop.api import api
from workshop.paper.outs import OUTS

KEPT = HERE / "answers.txt"
ID = re.compile(r"[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}")
WHEN = re.compile(r"\d{4}-\d\d-\d\d(?:T[\d:.]+(?:Z|[+-]\d\d:\d\d)?)?|\b\d\d:\d\d\b")
OF_THIS_MACHINE = ("/api/health", "/api/session", "/api/backups", "/api/archive", "/api/printer")
BY_THE_CLOCK = ("/build", "/class", "/wood", "/api/timber", "/api/time")
"""What is told there goes by today's date and air."""
PLACED = {"{start}": "round_three", "{number}": "1", "{copy}": "1"}
TAKEN_OUT = ("Chart table", "Cloakroom stool", "Foyer bench")
"""Pieces whose sheets and files are looked at."""
HOW = "Look at it; if it is meant: `make approve`."


def plain(of: Any) -> Any:
    """A document without what is another each time it is loaded: ids, and when it was."""
    if isinstance(of, str):
        return WHEN.sub("@", ID.sub("id", of))
    if isinstance(of, list):
        return [plain(one) for one in of]
    if isinstance(of, dict):
        return {plain(name): plain(one) for name, one in of.items()}
    return of


def read_back(name: str, raw: bytes) -> Any:
    """What a sheet or a file holds, by its ending, without what is another each time."""
    ending = name.rpartition(".")[2].strip('"')
    if ending == "zip":
        with zipfile.ZipFile(io.BytesIO(raw)) as files:
            return [[one, read_back(one, files.read(one))] for one in files.namelist()]
    if ending == "pdf":
        pages = pypdfium2.PdfDocument(raw)
        return [plain(" ".join(page.get_textpage().get_text_range().split())) for page in pages]
    if ending == "xlsx":
        sheets = openpyxl.load_workbook(io.BytesIO(raw)).worksheets
        return [
            [sheet.title, [[plain(str(cell)) for cell in row] for row in sheet.values]] for sheet in sheets
        ]
    return plain(cut(raw.decode("utf-8-sig"))) if ending in ("csv", "md", "dxf", "svg") else ending


class DemoAnswers(ApiCase):
    @classmethod
    def setUpTestData(cls) -> None:
        # What came before what in the demo's story hangs on the hour it is loaded at: always from three on.
        begun, real = datetime.now(UTC), timezone.now
        shift = datetime.combine(begun.date(), time(15), UTC) - begun
        clock = mock.patch("django.utils.timezone.now", side_effect=lambda: real() + shift)
        with override_settings(DEMO=True), clock:
            call_command("demo", verbosity=0, stdout=io.StringIO())

    def answers(self) -> dict[str, str]:
        """The sign of every answer that is a document, by its route and what it is about."""
        found: dict[str, str] = {}
        pieces = {one["id"]: one["name"] for one in self.call("GET", "/api/pieces").json()}
        for path, methods in sorted(api.get_openapi_schema(path_prefix="/api/")["paths"].items()):
            if "get" not in methods or path.startswith(OF_THIS_MACHINE) or path.endswith(BY_THE_CLOCK):
                continue
            about = pieces if path.startswith("/api/pieces/{id}") else {"": ""}
            for id, name in about.items():
                where = path.replace("{id}", id, 1)
                for part, value in PLACED.items():
                    where = where.replace(part, value)
                if "{" in where:
                    continue
                answer = self.call("GET", where)
                if answer.get("Content-Type", "").startswith("application/json"):
                    found[f"{path} {name}".strip()] = digest(plain(answer.json()))
        for id, name in pieces.items():
            for out in OUTS if name in TAKEN_OUT else ():
                answer = self.call("GET", f"/api/pieces/{id}/out/{out}?day=2 May")
                self.assertEqual(answer.status_code, 200)
                raw = b"".join(answer.streaming_content) if answer.streaming else answer.content
                found[f"taken out {out} {name}"] = digest(read_back(answer["Content-Disposition"], raw))
        return found

    def test_every_answer_is_what_it_was(self) -> None:
        now = self.answers()
        if os.environ.get("APPROVE"):
            KEPT.write_text("".join(f"{key} = {sign}\n" for key, sign in sorted(now.items())))
        kept = dict(row.rsplit(" = ", 1) for row in KEPT.read_text(encoding="utf-8").splitlines())
        self.assertGreater(len(now), 100)
        changed = [key for key in sorted({*now, *kept}) if now.get(key) != kept.get(key)]
        self.assertEqual(changed, [], f"{len(changed)} of {len(now)}. {HOW}")

    def test_what_is_published_is_what_there_is(self) -> None:
        out = io.StringIO()
        call_command("schemas", check=True, stdout=out)
        docs = Path(__file__).parent.parent.parent / "docs"
        self.assertIn("/api/plan", json.loads((docs / "openapi.json").read_text())["paths"])
