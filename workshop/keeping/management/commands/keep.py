"""Do the night's work beside a server, for as long as it runs; --now does it at once."""

import logging
import os
import time
from typing import Any

from django.core.management.base import BaseCommand, CommandError, CommandParser
from django.db import close_old_connections

from workshop.keeping.nightly import due, tonight

log = logging.getLogger("workshop.keeping")
LOOKS_EVERY = 600
"""Seconds between two looks at the clock."""


class Command(BaseCommand):
    """A small process of its own: a backup that fails or takes long harms no answer."""

    help = __doc__ or ""
    requires_system_checks = ()

    def add_arguments(self, parser: CommandParser) -> None:
        """Beside which process, or once at once."""
        parser.add_argument("--beside", type=int, default=0)
        parser.add_argument("--now", action="store_true")

    def handle(self, *args: Any, beside: int, now: bool, **options: Any) -> None:
        """Wait for the night, over and over."""
        os.umask(0o077)
        if now:
            if trouble := tonight(time.localtime()):
                raise CommandError(trouble)
            self.stdout.write("The night's work is done.")
            return
        try:
            while os.getppid() == beside:
                self._look()
                end = time.monotonic() + LOOKS_EVERY
                while time.monotonic() < end and os.getppid() == beside:
                    time.sleep(1)
        except KeyboardInterrupt:
            return

    def _look(self) -> None:
        try:
            if due(time.localtime()):
                tonight(time.localtime())
        except Exception:
            log.exception("The night's work failed; it is tried again")
        close_old_connections()
