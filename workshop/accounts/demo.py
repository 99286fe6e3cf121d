"""The demo's maker is signed in by itself, on loopback only."""

from collections.abc import Callable

from django.conf import settings
from django.contrib.auth import get_user_model, login
from django.http import HttpRequest, HttpResponse

from workshop.access import at_the_machine
from workshop.pieces.models import PieceRow

DEMO_MAKER = "demo"
BACKEND = "django.contrib.auth.backends.ModelBackend"


def no_demo_here() -> str | None:
    """Why the demo is neither loaded nor served on this data folder, or None where it may be.

    Beginning it anew clears the rack, and it signs in whoever sits at the machine: it keeps out of a
    folder with a maker, or a piece, that did not come with it.
    """
    if not settings.DEMO:
        return "This would clear your rack. It runs on the demo only: make demo."
    accounts = get_user_model().objects
    demo = accounts.filter(username=DEMO_MAKER).first()
    real = [one.get_username() for one in accounts.exclude(username=DEMO_MAKER)]
    if demo and demo.has_usable_password():
        real.append(DEMO_MAKER)
    if real or (demo is None and PieceRow.objects.exists()):
        whose = f"the makers' own: {', '.join(real[:3])}" if real else "somebody's own"
        return (
            f"The data in {settings.DATA_DIR} are {whose}. Nothing was changed. "
            "Give the demo a folder of its own, or use make run."
        )
    return None


class DemoSignIn:
    """Signs the demo's maker in, where the demo is served and the caller sits at this machine."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        """Sign in where it is the demo, then go on."""
        may = settings.DEMO and settings.ON_LOOPBACK and at_the_machine(request)
        if may and not request.user.is_authenticated:
            maker = get_user_model().objects.filter(username=DEMO_MAKER).first()
            if maker is not None:
                login(request, maker, BACKEND)
        return self.get_response(request)
