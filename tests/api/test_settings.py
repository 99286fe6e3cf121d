"""What the real settings promise, which the tests' own settings put aside to be quick."""

from __future__ import annotations

import os
import subprocess
import sys
import tempfile

from django.conf import settings
from django.test import SimpleTestCase

ASK = """
import django
django.setup()
from django.db import connection
with connection.cursor() as cursor:
    print([cursor.execute("PRAGMA " + name).fetchone()[0] for name in ("journal_mode", "synchronous")])
"""
FULL = 2
"""SQLite's own number for `PRAGMA synchronous=FULL` (SQLite documentation, Pragma statements)."""


class RealSettings(SimpleTestCase):
    def test_a_save_is_on_the_disk_before_it_is_answered(self) -> None:
        with tempfile.TemporaryDirectory() as folder:
            named = {"DJANGO_SETTINGS_MODULE": "workshop.settings", "PROUD_RAKE_DATA": folder}
            said = subprocess.run(
                [sys.executable, "-c", ASK],
                env={**os.environ, **named},
                cwd=settings.BASE_DIR,
                capture_output=True,
                text=True,
                check=True,
            )
        self.assertEqual(said.stdout.strip(), str(["wal", FULL]))
