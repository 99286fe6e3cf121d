"""Serve the workshop with the production server."""

import os
from typing import Any

from django.conf import settings
from django.contrib.auth import get_user_model
from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandError, CommandParser

from workshop.accounts.demo import DEMO_MAKER, no_demo_here
from workshop.pieces.models import PieceRow


def refusal(bind: str) -> str | None:
    """Why serving on this address is refused, or None where it is not."""
    if bind in settings.LOOPBACK:
        return None
    if settings.DEMO:
        return (
            f"The demo signs its maker in without a password, so it is served on this machine "
            f"only, not on {bind}. Use make run for a shop that others can reach."
        )
    makers = get_user_model().objects.exclude(username=DEMO_MAKER)
    if not any(maker.has_usable_password() for maker in makers):
        return (
            f"No maker has a password yet, so anyone who reaches {bind} could take the shop over. "
            "Set one first: .venv/bin/python manage.py addmaker NAME"
        )
    return None


class Command(BaseCommand):
    """Checks that it is safe to listen there, prints the address, and serves."""

    help = __doc__ or ""

    def add_arguments(self, parser: CommandParser) -> None:
        """Where to listen; the address itself comes from PROUD_RAKE_BIND."""
        parser.add_argument("--port", type=int, default=8420)
        parser.add_argument("--migrate", action="store_true", help="bring the database up to date first")
        parser.add_argument("--load-demo", action="store_true", help="load the demo where nothing hangs")

    def handle(self, *args: Any, port: int, migrate: bool, load_demo: bool, **options: Any) -> None:
        """Make ready what was asked for, then hand over to the server."""
        if migrate:
            call_command("migrate", verbosity=0)
        if reason := refusal(settings.BIND) or (settings.DEMO and no_demo_here()):
            raise CommandError(reason)
        # What was done in the demo stays: it starts anew only when asked to, by make demo-fresh.
        if load_demo and not PieceRow.objects.exists():
            call_command("demo")
        host = f"[{settings.BIND}]" if ":" in settings.BIND else settings.BIND
        self.stdout.write(f"Proud Rake is served at http://{host}:{port}/  (stop with Ctrl-C)")
        self.stdout.flush()
        os.execvp(
            "gunicorn",
            [
                "gunicorn",
                "workshop.wsgi:application",
                f"--bind={host}:{port}",
                "--workers=2",
                "--threads=4",
                "--no-control-socket",
                "--preload",
                "--log-level=warning",
            ],
        )
