"""Try an archive: restore it into a scratch folder and compare everything in it."""

from pathlib import Path
from typing import Any

from django.conf import settings
from django.core.management.base import BaseCommand, CommandError, CommandParser

from workshop.keeping import backup
from workshop.keeping.check import check


class Command(BaseCommand):
    """Changes nothing; exit status 1 where the archive would not bring everything back."""

    help = __doc__ or ""
    requires_system_checks = ()

    def add_arguments(self, parser: CommandParser) -> None:
        """Which archive; the latest where none is named."""
        parser.add_argument("file", nargs="?", type=Path)

    def handle(self, *args: Any, file: Path | None, **options: Any) -> None:
        """Print what is in it, and how it differs from what is kept now."""
        if file is None:
            made = backup.all_in(settings.DATA_DIR)
            if not made:
                raise CommandError("There is no backup yet: make backup writes one.")
            file = made[0].path
        try:
            found = check(file, settings.DATA_DIR)
        except backup.NotABackup as error:
            raise CommandError(str(error)) from None
        self.stdout.write(f"{file.name}, made {found.made}, restored aside and read:")
        for name, count in found.counts.items():
            now = ""
            if found.newer:
                now = f"; changed since or new {found.newer[name]}, taken away since {found.missing[name]}"
            self.stdout.write(f"  {name}: {count}{now}")
        if found.unread:
            raise CommandError(f"These cannot be read, and could not before either: {found.unread[:20]}")
        self.stdout.write("Everything in it comes back.")
