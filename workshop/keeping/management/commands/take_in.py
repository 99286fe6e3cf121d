"""Hang up the pieces of a zip that take_out wrote."""

from pathlib import Path
from typing import Any

from django.core.management.base import BaseCommand, CommandError, CommandParser

from splay.work.phrases import so_many
from workshop.accounts.makers import the_first
from workshop.keeping import taking_in
from workshop.keeping.parts import NotAnArchive


class Command(BaseCommand):
    """What hangs already is left as it is; nothing is overwritten."""

    help = __doc__ or ""
    requires_system_checks = ()

    def add_arguments(self, parser: CommandParser) -> None:
        """Which file."""
        parser.add_argument("file", type=Path)

    def handle(self, *args: Any, file: Path, **options: Any) -> None:
        """Take it in, and say what came."""
        try:
            with file.open("rb") as given:
                found = taking_in.read(given, the_first())
        except (NotAnArchive, OSError) as error:
            raise CommandError(f"{file}: {error}") from None
        self.stdout.write(
            f"{so_many(found.hung, 'piece was', 'pieces were')} hung up, {found.known} hung already."
        )
        if found.stock:
            self.stdout.write(
                f"{so_many(found.stock, 'piece of wood lies', 'pieces of wood lie')} in the store."
            )
        for name, why in found.refused:
            self.stderr.write(f"{name} was left out: {why}")
        if found.refused:
            raise CommandError(f"{len(found.refused)} could not be read.")
