"""Write one archive of everything that is kept."""

import os
import sqlite3
from pathlib import Path
from typing import Any

from django.conf import settings
from django.core.management.base import BaseCommand, CommandError, CommandParser

from workshop.folder import words_for, words_for_file
from workshop.keeping import archive, backup, versions


def _open_files() -> backup.OpenFiles | None:
    """The open files beside the database, where it is of this program's version."""
    return None if any(versions.steps()) else archive.write_into


class Command(BaseCommand):
    """Into the folder of backups, or to a file of one's own; the server may go on working."""

    help = __doc__ or ""
    requires_system_checks = ()

    def add_arguments(self, parser: CommandParser) -> None:
        """Where to."""
        parser.add_argument("file", nargs="?", type=Path)

    def handle(self, *args: Any, file: Path | None, **options: Any) -> None:
        """Make it and say where it lies."""
        os.umask(0o077)
        try:
            made = backup.make(settings.DATA_DIR, "hand", file, beside=_open_files())
        except backup.NotABackup as error:
            raise CommandError(str(error)) from None
        except OSError as error:
            words = words_for_file(error, file) if file else words_for(error, settings.DATA_DIR)
            raise CommandError(words) from None
        except sqlite3.Error as error:
            raise CommandError(f"The database could not be copied: {error}") from None
        self.stdout.write(f"Everything is in {made} ({made.stat().st_size / 1e6:.1f} MB).")
