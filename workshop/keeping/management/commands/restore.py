"""Put everything that is in an archive into an empty folder: its database, or else its open files."""

import os
from pathlib import Path
from typing import Any

from django.conf import settings
from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandError, CommandParser

from splay.work.phrases import so_many
from workshop.folder import keep_private
from workshop.keeping import backup, taking_in
from workshop.keeping.parts import NotAnArchive


class Command(BaseCommand):
    """Never over data that are there already."""

    help = __doc__ or ""
    requires_system_checks = ()

    def add_arguments(self, parser: CommandParser) -> None:
        """Which archive."""
        parser.add_argument("file", type=Path)

    def handle(self, *args: Any, file: Path, **options: Any) -> None:
        """Restore it and say what to do next."""
        os.umask(0o077)
        try:
            if not backup.has_database(file):
                self._open_files(file)
                return
            said = backup.unpack(file, settings.DATA_DIR)
        except backup.NotABackup as error:
            raise CommandError(str(error)) from None
        keep_private(settings.DATA_DIR)
        pieces = said["tables"].get("pieces_piecerow", {}).get("rows", 0)
        self.stdout.write(
            f"{so_many(pieces, 'piece hangs', 'pieces hang')} again as of {said['made']}, "
            f"in {settings.DATA_DIR}. Start it with make run; everybody signs in anew with their own "
            "password."
        )

    def _open_files(self, file: Path) -> None:
        """An archive without a database: a fresh one, and everything of it hung up."""
        if (settings.DATA_DIR / backup.DATABASE).exists():
            raise backup.NotABackup(f"There are data in {settings.DATA_DIR} already. Take it in instead.")
        call_command("migrate", verbosity=0)
        keep_private(settings.DATA_DIR)
        with file.open("rb") as given:
            try:
                found = taking_in.read(given, None)
            except NotAnArchive as error:
                raise CommandError(f"{file}: {error}") from None
        self.stdout.write(
            f"{so_many(found.hung, 'piece hangs', 'pieces hang')} again by its open files, "
            f"in {settings.DATA_DIR}. Start it with make run: there were no passwords in it, the first to "
            "sign in names one."
        )
        for name, why in found.refused:
            self.stderr.write(f"{name} was left out: {why}")
