"""What may be sent, refused before it is read; and every refusal under /api in the one shape."""

from __future__ import annotations

from collections.abc import Callable

from django.conf import settings
from django.http import HttpRequest, HttpResponse

from workshop.problems import PROBLEM, problem

ARCHIVE = "/api/archive"
OURS = (PROBLEM, "application/json")
"""What a route says itself, a problem or how the workshop is; the framework refuses with pages."""
SAID = {
    400: ("The request could not be read", "Send it again as the program's own page does."),
    404: ("Not found", "There is no such thing, or it was taken away."),
    405: ("It cannot be done so", "This address does not take that kind of request."),
}
"""What the framework's own refusals mean, by status; whoever is not signed in or may not is told by us."""


class Api:
    """Everything under /api is asked in JSON (or is a picture) and refused as a problem."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        """Refuse, or go on and put a refusal of the framework into words."""
        if not request.path.startswith("/api/"):
            return self.get_response(request)
        if refused := _too_much(request) or _not_ours(request):
            return refused
        answer = self.get_response(request)
        if answer.status_code == 204:
            del answer["Content-Type"]  # There is nothing to be of any kind.
        if answer.status_code >= 400 and not answer.headers.get("Content-Type", "").startswith(OURS):
            title, detail = SAID.get(answer.status_code, ("Refused", "Ask otherwise."))
            said = problem(answer.status_code, title, detail)
            if "Allow" in answer.headers:
                said["Allow"] = answer["Allow"]
            return said
        return answer


def _archive(request: HttpRequest) -> bool:
    """Whether it is the archive of a whole shop, which is read a piece at a time and never held whole."""
    zipped = request.content_type in ("application/zip", "application/octet-stream")
    return request.method == "POST" and request.path == ARCHIVE and zipped


def _too_much(request: HttpRequest) -> HttpResponse | None:
    length = request.META.get("CONTENT_LENGTH") or "0"
    most = settings.MOST_ARCHIVE_BYTES if _archive(request) else settings.MOST_BODY_BYTES
    if length.isdecimal() and int(length) <= most:
        return None
    detail = f"It has {length[:20]} bytes; at most {most} are read. A piece has a few thousand."
    return problem(413, "Too much was sent", detail)


def _not_ours(request: HttpRequest) -> HttpResponse | None:
    """A form, a file or a letter code that nothing here reads: said before anything else looks at it."""
    if not int(request.META.get("CONTENT_LENGTH") or 0):
        return None
    kind = request.content_type or ""
    picture = request.path.endswith("/photo") and (kind.startswith("image/") or "octet" in kind)
    if _archive(request):
        return None
    letters = (request.content_params or {}).get("charset", "utf-8").lower().strip("'\"")
    if (kind == "application/json" and letters in ("utf-8", "utf8", "us-ascii")) or picture:
        return None
    sent = kind[:60] or "nothing named"
    detail = f"It was sent as {sent}; JSON in UTF-8 is read, and pictures as photographs."
    return problem(415, "It was sent in a way that is not read", detail)
