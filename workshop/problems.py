"""Problem details (RFC 9457): the one shape in which the API says that something is wrong."""

from __future__ import annotations

from typing import Any

from django.core.exceptions import PermissionDenied
from django.db import OperationalError
from django.http import Http404, HttpRequest, HttpResponse, JsonResponse
from ninja import NinjaAPI, Schema
from ninja.errors import AuthenticationError, HttpError, ValidationError
from pydantic import Field

from splay.document import wanted
from splay.errors import BadInput, CannotBuild, Fault, shorten
from workshop.faults import written_down

PROBLEM = "application/problem+json"
MOST_FAULTS = 50
"""More than anybody mends at once."""
FULL = ("is full", "readonly", "read-only", "unable to open", "disk I/O")
"""How SQLite says that its file takes nothing more: the disk is full, or may only be read."""


SECRET = ("password", "old", "new")
"""Fields of passwords: what was typed there is never sent back."""


class FaultOut(Schema):
    """One wrong field: where, what was got, what is allowed, what to do; `what` it is about in the maker's
    words, and all of it `said` in whole sentences."""

    field: str
    got: str
    allowed: str
    do: str
    what: str
    said: str


class Problem(Schema):
    """What is wrong (RFC 9457), with one entry a wrong field."""

    type: str = "about:blank"
    title: str
    status: int
    detail: str
    faults: list[FaultOut] = Field(default_factory=list)


class Wait(Exception):
    """Asked too often; `detail` says how long to wait."""

    def __init__(self, detail: str) -> None:
        self.detail = detail
        super().__init__(detail)


class Conflict(Exception):
    """Somebody else changed it meanwhile; `detail` says what to do."""

    def __init__(self, detail: str) -> None:
        self.detail = detail
        super().__init__(detail)


def problem(status: int, title: str, detail: str, faults: tuple[Fault, ...] = ()) -> HttpResponse:
    """A problem as an answer."""
    body: dict[str, Any] = {
        "type": "about:blank",
        "title": title,
        "status": status,
        "detail": detail,
        "faults": [{**vars(fault), "said": fault.said()} for fault in faults[:MOST_FAULTS]],
    }
    return JsonResponse(body, status=status, content_type=PROBLEM)


def _from_validation(errors: list[Any]) -> tuple[Fault, ...]:
    """Faults of the envelope itself: the core has not been asked yet."""
    made = []
    for error in errors if isinstance(errors, list) else []:
        loc = [str(step) for step in error.get("loc", ()) if step not in ("body", "payload")]
        kind = str(error.get("type", ""))
        got = "nothing" if kind == "missing" else shorten(error["input"])
        if loc and loc[-1] in SECRET:
            got = "what was typed"
        made.append(Fault(".".join(loc), got, *wanted(kind, error.get("ctx") or {})))
    return tuple(made)


def failed(request: HttpRequest, error: BaseException) -> HttpResponse:
    """The answer to a fault of the program: what was asked stands aside, and its id is said.

    A database that takes nothing now is none of the program's: it is asked again.
    """
    fault = written_down(request, error)
    if isinstance(error, OperationalError):
        if any(sign in str(error) for sign in FULL):
            detail = (
                f"The workshop's disk takes nothing more (fault {fault}): it is full, or may only be read. "
                "What is saved already is safe and can be looked at; what you typed waits here. Make room."
            )
            return problem(507, "The disk is full", detail)
        detail = f"The database did not take it (fault {fault}); it is tried again by itself."
        return problem(503, "The workshop is busy", detail)
    what = f"The program failed on this; its fault {fault} is written down in the workshop's log."
    do = "Nothing saved is lost: choose another way, or go back to an earlier state."
    return problem(500, "The program failed", f"{what} {do}", (Fault("", "this", what, do),))


def no_token(request: HttpRequest, reason: str = "") -> HttpResponse:
    """The answer to something sent without the token of the page it came from."""
    detail = "The page is older than your signing in. Load it anew; what waits in it is kept."
    return problem(403, "Not allowed", detail)


def answer_problems(api: NinjaAPI) -> None:
    """Teach the API to say every error in the one shape."""

    @api.exception_handler(BadInput)
    def bad(request: HttpRequest, error: BadInput) -> HttpResponse:
        faults = error.faults
        detail = faults[0].line() if faults else str(error)
        return problem(422, "Something given cannot be used", detail, faults)

    @api.exception_handler(CannotBuild)
    def cannot(request: HttpRequest, error: CannotBuild) -> HttpResponse:
        fault = Fault(error.field, "this choice", error.rule, error.mend)
        return problem(422, "It cannot be built so", f"{error.rule} {error.mend}", (fault,))

    @api.exception_handler(Conflict)
    def conflict(request: HttpRequest, error: Conflict) -> HttpResponse:
        return problem(409, "It was changed elsewhere meanwhile", error.detail)

    @api.exception_handler(Wait)
    def wait(request: HttpRequest, error: Wait) -> HttpResponse:
        return problem(429, "Wait a little", error.detail)

    @api.exception_handler(ValidationError)
    def invalid(request: HttpRequest, error: ValidationError) -> HttpResponse:
        faults = _from_validation(error.errors)
        detail = faults[0].line() if faults else "The request does not have the expected shape."
        return problem(422, "The request does not have the expected shape", detail, faults)

    @api.exception_handler(AuthenticationError)
    def unknown(request: HttpRequest, error: AuthenticationError) -> HttpResponse:
        return problem(401, "Not signed in", "Sign in and try again; nothing you typed is lost.")

    @api.exception_handler(PermissionDenied)
    def denied(request: HttpRequest, error: PermissionDenied) -> HttpResponse:
        return problem(403, "Not allowed", str(error) or "You may not do that.")

    @api.exception_handler(Http404)
    def missing(request: HttpRequest, error: Http404) -> HttpResponse:
        return problem(404, "Not found", "There is no such thing, or it was taken away.")

    @api.exception_handler(HttpError)
    def other(request: HttpRequest, error: HttpError) -> HttpResponse:
        if error.status_code == 400:
            detail = "It is no whole JSON in UTF-8. Nothing was changed; send it again."
            return problem(400, "The request could not be read", detail)
        if error.status_code == 403:
            return no_token(request)
        return problem(error.status_code, "Refused", f"{str(error).rstrip('.')}.")

    @api.exception_handler(Exception)
    def fault(request: HttpRequest, error: Exception) -> HttpResponse:
        return failed(request, error)
