"""Put everything that is in an archive into an empty folder."""

import os
from pathlib import Path
from typing import Any

from django.conf import settings
from django.core.management.base import BaseCommand, CommandError, CommandParser

from workshop.folder import keep_private
from workshop.keeping import backup


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
            said = backup.unpack(file, settings.DATA_DIR)
        except backup.NotABackup as error:
            raise CommandError(str(error)) from None
        keep_private(settings.DATA_DIR)
        pieces = said["tables"].get("pieces_piecerow", {}).get("rows", 0)
        self.stdout.write(
            f"{pieces} pieces of {said['made']} are in {settings.DATA_DIR}. Start it with make run; "
            "everybody signs in anew with their own password."
        )
