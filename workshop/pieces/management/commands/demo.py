"""Put the demo's pieces on the rack; whatever hung there in the demo is taken off."""

from typing import Any

from django.core.management.base import BaseCommand, CommandError

from splay.work.phrases import so_many
from workshop.accounts.demo import no_demo_here
from workshop.demo.load import load_demo


class Command(BaseCommand):
    """Refuses to run on a maker's own data."""

    help = __doc__ or ""

    def handle(self, *args: Any, **options: Any) -> None:
        """Load the demo."""
        if reason := no_demo_here():
            raise CommandError(reason)
        self.stdout.write(f"{so_many(load_demo(), 'piece hangs', 'pieces hang')} on the demo's rack.")
