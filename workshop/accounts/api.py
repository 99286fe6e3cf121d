"""Signing in and out, and the first maker of a new shop."""

from django.conf import settings
from django.contrib.auth import authenticate, get_user_model, login, logout
from django.contrib.auth.password_validation import validate_password
from django.core.exceptions import PermissionDenied
from django.core.exceptions import ValidationError as Weak
from django.db import transaction
from django.http import HttpRequest
from django.middleware.csrf import get_token
from ninja import Router, Schema
from pydantic import Field

from splay.errors import BadInput, Fault
from workshop.access import Anybody
from workshop.problems import Problem

router = Router()


class SessionOut(Schema):
    """Who is signed in; `first` says that the shop has no maker yet."""

    maker: str | None
    demo: bool
    first: bool
    csrf: str


class SignIn(Schema):
    """A maker's name and password."""

    name: str = Field(min_length=1, max_length=150)
    password: str = Field(min_length=1, max_length=200)


def _session(request: HttpRequest) -> SessionOut:
    user = request.user
    return SessionOut(
        maker=user.get_username() if user.is_authenticated else None,
        demo=settings.DEMO,
        first=not get_user_model().objects.exists(),
        csrf=get_token(request),
    )


@router.get("", auth=None, response={200: SessionOut})
def session(request: HttpRequest) -> SessionOut:
    """Who is signed in."""
    return _session(request)


@router.post("", auth=Anybody(), response={200: SessionOut, (401, 403, 413, 422): Problem})
def sign_in(request: HttpRequest, payload: SignIn) -> SessionOut:
    """Sign a maker in."""
    maker = authenticate(request, username=payload.name, password=payload.password)
    if maker is None:
        fault = Fault("password", "no match", "the maker's own password", "Type both again.")
        raise BadInput(fault)
    login(request, maker)
    return _session(request)


@router.post("/first", auth=Anybody(), response={200: SessionOut, (401, 403, 413, 422): Problem})
def first_maker(request: HttpRequest, payload: SignIn) -> SessionOut:
    """Make the shop's first maker, while there is none and only at the machine itself."""
    if request.META.get("REMOTE_ADDR", "") not in settings.LOOPBACK:
        raise PermissionDenied("The first maker is made at the machine the shop runs on.")
    try:
        validate_password(payload.password)
    except Weak as weak:
        fault = Fault("password", "a weak one", " ".join(weak.messages), "Choose a longer one.")
        raise BadInput(fault) from None
    with transaction.atomic():
        if get_user_model().objects.exists():
            raise PermissionDenied("This shop has its makers already: sign in.")
        maker = get_user_model().objects.create_user(payload.name, password=payload.password)
    login(request, maker)
    return _session(request)


@router.delete("", response={200: SessionOut, (401, 403): Problem})
def sign_out(request: HttpRequest) -> SessionOut:
    """Sign out."""
    logout(request)
    return _session(request)
