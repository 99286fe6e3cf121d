"""Put the demo's pieces on the rack; whatever hung there in the demo is taken off."""

from typing import Any

from django.conf import settings
from django.core.management.base import BaseCommand, CommandError

from workshop.demo.load import load_demo


class Command(BaseCommand):
    """Refuses to run on a maker's own data."""

    help = __doc__ or ""

    def handle(self, *args: Any, **options: Any) -> None:
        """Load the demo."""
        if not settings.DEMO:
            raise CommandError("This would clear your rack. It runs on the demo only: make demo.")
        self.stdout.write(f"{load_demo()} pieces hang on the demo's rack.")
