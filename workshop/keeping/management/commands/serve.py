"""Serve the workshop with the production server."""

import errno
import gc
import os
import subprocess
import sys
from typing import Any

from django.conf import settings
from django.contrib.auth import get_user_model
from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandError, CommandParser
from django.db import connections
from gunicorn.app.base import BaseApplication

from workshop import folder
from workshop.accounts.demo import DEMO_MAKER, no_demo_here
from workshop.keeping import backup, versions
from workshop.pieces.models import PieceRow
from workshop.warm import warm_beside


def refusal(bind: str) -> str | None:
    """Why serving on this address is refused, or None where it is not."""
    if bind in settings.LOOPBACK:
        return None
    if settings.DEMO:
        return (
            f"The demo signs its maker in without a password, so it is served on this machine "
            f"only, not on {bind}. Use make run for a shop that others can reach."
        )
    makers = get_user_model().objects.filter(is_active=True).exclude(username=DEMO_MAKER)
    if not any(maker.has_usable_password() for maker in makers):
        return (
            f"No maker has a password yet, so anyone who reaches {bind} could take the shop over. "
            "Set one first: .venv/bin/python manage.py addmaker NAME"
        )
    return None


class Command(BaseCommand):
    """Checks that it is safe to work there and to listen there, prints the address, and serves."""

    help = __doc__ or ""
    # They load every route before anything is looked at, and are run by the tests.
    requires_system_checks = ()

    def add_arguments(self, parser: CommandParser) -> None:
        """Where to listen; the address itself comes from PROUD_RAKE_BIND."""
        parser.add_argument("--port", type=int, default=8420)
        parser.add_argument("--migrate", action="store_true", help="bring the database up to date first")
        parser.add_argument("--load-demo", action="store_true", help="load the demo where nothing hangs")

    def handle(self, *args: Any, port: int, migrate: bool, load_demo: bool, **options: Any) -> None:
        """Make ready what was asked for, then hand over to the server."""
        os.umask(0o077)
        held = self._own_folder()
        try:
            self._serve(port, migrate, load_demo)
        finally:
            os.close(held)  # Only where it was refused: the server that follows keeps it.

    def _serve(self, port: int, migrate: bool, load_demo: bool) -> None:
        full = folder.cannot_write(settings.DATA_DIR) is not None
        self._own_database(migrate, full)
        folder.keep_private(settings.DATA_DIR)
        if reason := refusal(settings.BIND) or (settings.DEMO and no_demo_here()):
            raise CommandError(reason)
        # What was done in the demo stays: it starts anew only when asked to, by make demo-fresh.
        if load_demo and not PieceRow.objects.exists():
            call_command("demo")
        _keep_beside()
        host = f"[{settings.BIND}]" if ":" in settings.BIND else settings.BIND
        self.stdout.write(f"Proud Rake is served at http://{host}:{port}/  (stop with Ctrl-C)")
        self.stdout.flush()
        Served(f"{host}:{port}").run()

    def _own_folder(self) -> int:
        """Hold the folder alone and write into it; its lock, CommandError where it cannot be had. A full
        disk is only said."""
        data = settings.DATA_DIR
        error = folder.cannot_write(data)
        if error and error.errno != errno.ENOSPC:
            raise CommandError(folder.words_for(error, data))
        try:
            held = folder.hold(data)
        except OSError as refused:
            raise CommandError(folder.words_for(refused, data)) from None
        if held is None:
            raise CommandError(
                f"A server works in {data} already, and two would spoil each other's work. Use that one, "
                "stop it first, or name another folder with DATA=FOLDER."
            )
        if error or (near := folder.nearly_full(data)):
            words = folder.words_for(error, data) if error else near
            self.stderr.write(f"{words} Until then pieces can be looked at, and nothing new is kept.")
        return held

    def _own_database(self, migrate: bool, full: bool) -> None:
        """Bring the database up to date, a copy kept beside it; CommandError where it is another's."""
        later, to_do = versions.steps()
        if later:
            raise CommandError(
                f"The data in {settings.DATA_DIR} were last used by a later version of the program, "
                f"which took the steps {', '.join(later[:3])}. Start that version again, or restore a "
                "backup from before it into another folder: make restore FILE=ARCHIVE DATA=FOLDER. "
                "Nothing was changed."
            )
        steps = to_do if migrate else []
        if steps and full:
            raise CommandError("The data have to be brought up to this version, and the disk is full.")
        if steps:
            if not versions.is_empty():
                kept = backup.make(settings.DATA_DIR, "before")
                self.stdout.write(f"The data as they were are kept in {kept.name}.")
            call_command("migrate", verbosity=0)


class Served(BaseApplication):  # type: ignore[misc]
    """gunicorn in this very process: all that was loaded to look after the data need not be loaded anew."""

    def __init__(self, bind: str) -> None:
        self.bind = bind
        super().__init__()

    def load_config(self) -> None:
        """Two workers of our kind, begun when everything is loaded."""
        for name, value in {
            "bind": self.bind,
            "worker_class": "workshop.worker.PatientWorker",
            "workers": 2,
            "preload_app": True,
            "control_socket_disable": True,
            "loglevel": "warning",
            "post_worker_init": lambda worker: warm_beside(),
        }.items():
            self.cfg.set(name, value)

    def run(self) -> None:
        """Serve; the workers open the database each for itself."""
        connections.close_all()
        super().run()

    def load(self) -> Any:
        """The application, every route loaded."""
        from workshop.wsgi import application

        # What is loaded stays: looked through for rubbish, it would hold up an answer by a tenth of a
        # second now and then.
        gc.collect()
        gc.freeze()
        return application


def _keep_beside() -> None:
    """Start the process that does the night's work; it ends with this one."""
    # After a while: what is asked first should not share the machine with it.
    words = ["sh", "-c", 'sleep 10 && exec "$@"', "sh", sys.executable, "manage.py", "keep"]
    words.append(f"--beside={os.getpid()}")
    subprocess.Popen(words, cwd=settings.BASE_DIR, stdin=subprocess.DEVNULL)
