"""The demo's maker is signed in by itself, on loopback only."""

from collections.abc import Callable

from django.conf import settings
from django.contrib.auth import get_user_model, login
from django.http import HttpRequest, HttpResponse

DEMO_MAKER = "demo"


class DemoSignIn:
    """Signs the demo's maker in, where the demo is served and the caller sits at this machine."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        """Sign in where it is the demo, then go on."""
        here = request.META.get("REMOTE_ADDR", "") in settings.LOOPBACK
        if settings.DEMO and settings.ON_LOOPBACK and here and not request.user.is_authenticated:
            maker = get_user_model().objects.filter(username=DEMO_MAKER).first()
            if maker is not None:
                login(request, maker)
        return self.get_response(request)
