"""Faults of the program itself: each is written down whole and has an id that is shown."""

import logging
import secrets

from django.http import HttpRequest

log = logging.getLogger(__name__)
ALPHABET = "23456789abcdefghjkmnpqrstuvwxyz"
"""Without the letters and figures that are mistaken for one another when read aloud."""


def written_down(request: HttpRequest, error: BaseException) -> str:
    """The id under which a fault stands in the log, with its traceback.

    Only the method, the path and the traceback are written: never a body, a header or a query,
    which hold passwords, tokens and photographs.
    """
    fault = "".join(secrets.choice(ALPHABET) for _ in range(6))
    log.error("Fault %s at %s %s", fault, request.method, request.path, exc_info=error)
    return fault
