"""Write the whole shop into a zip of open JSON files, one a piece."""

import os
from pathlib import Path
from typing import Any

from django.core.management.base import BaseCommand, CommandError, CommandParser

from splay.work.phrases import so_many
from workshop.folder import words_for_file
from workshop.keeping import archive


class Command(BaseCommand):
    """For other programs, and for another shop; a backup is what brings everything back."""

    help = __doc__ or ""
    requires_system_checks = ()

    def add_arguments(self, parser: CommandParser) -> None:
        """Where to."""
        parser.add_argument("file", type=Path)

    def handle(self, *args: Any, file: Path, **options: Any) -> None:
        """Write it beside, then give it its name."""
        os.umask(0o077)
        fresh = file.with_name(f"{file.name}.part")
        try:
            with fresh.open("wb") as out:
                count = archive.write(out)
            os.replace(fresh, file)
        except OSError as error:
            raise CommandError(words_for_file(error, file)) from None
        self.stdout.write(f"{so_many(count, 'piece is', 'pieces are')} in {file}, with all their history.")
