"""What the first request would wait for, done before anyone asks."""

from importlib import import_module

from django.conf import settings


def warm() -> None:
    """Load every route and what it computes with, and draw the pieces there are to start from."""
    import_module(settings.ROOT_URLCONF)
    from workshop.pieces.api import ready_starts

    ready_starts()
