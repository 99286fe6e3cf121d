"""A limit on what is sent, refused before it is read."""

from collections.abc import Callable

from django.conf import settings
from django.http import HttpRequest, HttpResponse

from workshop.problems import problem


class BodyLimit:
    """Refuses bodies past MOST_BODY_BYTES with the reason."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        """Refuse or go on."""
        length = request.META.get("CONTENT_LENGTH") or "0"
        most = settings.MOST_BODY_BYTES
        if not length.isdigit() or int(length) > most:
            detail = f"It has {length} bytes; at most {most} are read. A piece has a few thousand."
            return problem(413, "Too much was sent", detail)
        return self.get_response(request)
