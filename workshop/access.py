"""Who may call the API: signed-in makers, with the CSRF token on everything that is sent."""

from typing import Any

from django.conf import settings
from django.http import HttpRequest
from ninja.security import APIKeyCookie

PASSED_ON = (
    "HTTP_X_FORWARDED_FOR",
    "HTTP_FORWARDED",
    "HTTP_X_REAL_IP",
    "HTTP_VIA",
    "HTTP_X_FORWARDED_HOST",
)
"""What a proxy writes on a request it hands on for somebody else."""


class Maker(APIKeyCookie):
    """A signed-in maker of this shop."""

    param_name = settings.SESSION_COOKIE_NAME

    def authenticate(self, request: HttpRequest, key: str | None) -> Any:
        """The maker, or None for nobody."""
        return request.user if request.user.is_authenticated else None


class Anybody(APIKeyCookie):
    """Anyone who loaded the page: for signing in. The CSRF token is asked for all the same."""

    param_name = settings.CSRF_COOKIE_NAME

    def authenticate(self, request: HttpRequest, key: str | None) -> bool:
        """Always: the token was checked on the way here."""
        return True


def at_the_machine(request: HttpRequest) -> bool:
    """Whether whoever asks sits at the machine the shop runs on: not somebody behind a proxy on it."""
    here = request.META.get("REMOTE_ADDR", "") in settings.LOOPBACK
    return here and not any(name in request.META for name in PASSED_ON)
