"""What the first request would wait for, done before anyone asks."""

from importlib import import_module
from threading import Thread

from django.conf import settings


def warm() -> None:
    """Load every route and what it computes with."""
    import_module(settings.ROOT_URLCONF)


def warm_beside() -> None:
    """Draw the pieces there are to start from, while others are answered already."""
    from workshop.pieces.starts import ready_starts

    Thread(target=ready_starts, daemon=True).start()
