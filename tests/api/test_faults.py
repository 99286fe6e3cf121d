"""A fault of the program leaves a trace, names itself, and harms nothing else."""

from __future__ import annotations

import logging
import re
import tempfile
from logging.handlers import RotatingFileHandler
from pathlib import Path
from unittest import mock

from django.conf import settings
from django.db import OperationalError
from django.test import RequestFactory

from splay.errors import SplayError
from tests.api.base import ApiCase
from workshop.pieces import plan_api
from workshop.urls import server_error


class Faults(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.client.raise_request_exception = False

    def failing(self, error: Exception) -> tuple[int, dict[str, object], str]:
        """What a drag of the stance is answered when the core throws, and what is logged."""
        piece = self.new()["piece"]
        body = {"piece": {**piece, "name": "Secret name"}}
        with (
            mock.patch.object(plan_api, "planned", side_effect=error),
            self.assertLogs("workshop", "ERROR") as logged,
        ):
            answer = self.call("POST", "/api/plan", body)
        shown = logging.Formatter()
        return answer.status_code, answer.json(), "\n".join(shown.format(r) for r in logged.records)

    def test_a_fault_is_answered_with_the_id_under_which_its_traceback_stands(self) -> None:
        status, said, log = self.failing(ZeroDivisionError("core"))
        self.assertEqual(status, 500)
        found = re.search(r"fault ([2-9a-z]{6}) ", str(said["detail"]))
        assert found, said
        self.assertIn(f"Fault {found[1]} at POST /api/plan", log)
        self.assertIn("ZeroDivisionError: core", log)
        self.assertIn("Traceback", log)
        self.assertNotIn("Secret name", log)
        self.assertEqual([fault["field"] for fault in said["faults"]], [""])  # type: ignore[attr-defined]

    def test_a_fault_outside_the_api_s_own_views_is_named_and_answered_as_a_page(self) -> None:
        for path, kind in (("/", "text/html"), ("/api/plan", "application/problem+json")):
            with self.assertLogs("workshop", "ERROR") as logged:
                try:
                    raise ZeroDivisionError("outside")
                except ZeroDivisionError:
                    answer = server_error(RequestFactory().get(path))
            self.assertEqual((answer.status_code, answer["Content-Type"].split(";")[0]), (500, kind))
            shown = logging.Formatter().format(logged.records[0])
            self.assertIn("ZeroDivisionError: outside", shown)
            self.assertIn(logged.records[0].args[0], answer.content.decode())  # type: ignore[index]

    def test_no_two_faults_share_an_id(self) -> None:
        one, two = (str(self.failing(KeyError("x"))[1]["detail"]) for _ in range(2))
        self.assertNotEqual(one, two)

    def test_a_database_that_is_busy_asks_to_be_asked_again(self) -> None:
        status, said, log = self.failing(OperationalError("database is locked"))
        self.assertEqual(status, 503)
        self.assertIn("again by itself", str(said["detail"]))
        self.assertIn("database is locked", log)

    def test_what_the_core_refuses_is_no_fault(self) -> None:
        piece = self.new()["piece"]
        refused = mock.patch.object(plan_api, "planned", side_effect=SplayError("no"))
        with refused, self.assertLogs("workshop", "ERROR"):
            # The family's root is not among what is refused: only its two kinds are.
            self.assertEqual(self.call("POST", "/api/plan", {"piece": piece}).status_code, 500)
        with self.assertNoLogs("workshop", "ERROR"):
            wrong = {"piece": {**piece, "height": -4}}
            self.assertEqual(self.call("POST", "/api/plan", wrong).status_code, 422)

    def test_the_log_is_a_file_in_the_data_folder_that_does_not_grow_for_ever(self) -> None:
        named = settings.LOGGING["handlers"]["file"]
        self.assertEqual(Path(named["filename"]).parent, settings.DATA_DIR)
        with tempfile.TemporaryDirectory() as folder:
            at = Path(folder) / "workshop.log"
            small = {"maxBytes": 2000, "backupCount": named["backupCount"]}
            handler = RotatingFileHandler(at, **small)
            for k in range(4000):
                handler.emit(logging.makeLogRecord({"msg": f"Fault {k}", "levelno": logging.ERROR}))
            handler.close()
            self.assertEqual(len(list(Path(folder).iterdir())), named["backupCount"] + 1)
