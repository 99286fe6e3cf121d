"""Signing in and out, where one is signed in, and the makers of the shop."""

from datetime import datetime
from typing import Annotated

from django.conf import settings
from django.contrib.auth import authenticate, get_user_model, login, logout, update_session_auth_hash
from django.contrib.auth.models import User
from django.core.exceptions import PermissionDenied
from django.db import transaction
from django.http import Http404, HttpRequest
from django.middleware.csrf import get_token
from ninja import Router, Schema, Status
from pydantic import Field

from splay.errors import BadInput, Fault
from workshop.access import Anybody, at_the_machine
from workshop.accounts import makers
from workshop.accounts.demo import BACKEND
from workshop.accounts.models import SignedIn
from workshop.accounts.sessions import end
from workshop.problems import Wait
from workshop.sent import Sent

router = Router()
makers_router = Router()
Name = Annotated[str, Field(min_length=1, max_length=150)]
Password = Annotated[str, Field(min_length=1, max_length=200)]


class SessionOut(Schema):
    """Who is signed in; `first` says that the shop has no maker yet, `leads` that this is its first one,
    `alone` that there is no other."""

    maker: str | None
    demo: bool
    first: bool
    leads: bool
    alone: bool
    csrf: str


class SignIn(Sent):
    """A maker's name and password."""

    name: Name
    password: Password


class NewPassword(Sent):
    """A password and the one it replaces."""

    old: Password
    new: Password


class OnlyPassword(Sent):
    """A password for somebody else."""

    password: Password


class BrowserOut(Schema):
    """One browser a maker is signed in with; `here` the one that asks."""

    id: int
    since: datetime
    seen: datetime
    browser: str
    address: str
    here: bool


class MakerOut(Schema):
    """A maker of the shop; `first` the one who looks after the others."""

    name: str
    since: datetime
    first: bool


def _session(request: HttpRequest) -> SessionOut:
    user = request.user
    return SessionOut(
        maker=user.get_username() if user.is_authenticated else None,
        demo=settings.DEMO,
        first=not get_user_model().objects.exists(),
        leads=makers.is_first(user),
        alone=get_user_model().objects.filter(is_active=True).count() < 2,
        csrf=get_token(request),
    )


def _checked(request: HttpRequest, name: str, password: str, field: str) -> User:
    """The maker whose password it is; Wait after too many wrong ones, BadInput after one."""
    maker = authenticate(request, username=name, password=password)
    if request.axes_locked_out:  # type: ignore[attr-defined]
        minutes = settings.AXES_COOLOFF_TIME.seconds // 60
        raise Wait(f"Too many wrong passwords for {name[:60]} from here. Try again in {minutes} minutes.")
    if not isinstance(maker, User):
        raise BadInput(Fault(field, "no match", "the maker's own password", "Type both again."))
    return maker


@router.get("", auth=None, response={200: SessionOut})
def session(request: HttpRequest) -> SessionOut:
    """Who is signed in."""
    return _session(request)


@router.post("", auth=Anybody(), response={200: SessionOut})
def sign_in(request: HttpRequest, payload: SignIn) -> SessionOut:
    """Sign a maker in."""
    login(request, _checked(request, payload.name, payload.password, "password"), BACKEND)
    return _session(request)


@router.post("/first", auth=Anybody(), response={200: SessionOut})
def first_maker(request: HttpRequest, payload: SignIn) -> SessionOut:
    """Make the shop's first maker, while there is none and only at the machine itself."""
    if not at_the_machine(request):
        raise PermissionDenied("The first maker is made at the machine the shop runs on.")
    with transaction.atomic():
        if get_user_model().objects.exists():
            raise PermissionDenied("This shop has its makers already: sign in.")
        maker = makers.add(payload.name, payload.password)
    login(request, maker, BACKEND)
    return _session(request)


@router.delete("", response={200: SessionOut})
def sign_out(request: HttpRequest) -> SessionOut:
    """Sign out."""
    SignedIn.objects.filter(session=request.session.session_key).delete()
    logout(request)
    return _session(request)


@router.put("/password", response={200: SessionOut})
def change_password(request: HttpRequest, payload: NewPassword) -> SessionOut:
    """Change one's own password; every other browser is signed out."""
    maker = _checked(request, request.user.get_username(), payload.old, "old")
    try:
        makers.give_password(maker, payload.new, request.session.session_key)
    except BadInput as bad:
        raise BadInput(*(Fault("new", f.got, f.allowed, f.do) for f in bad.faults)) from None
    request.user = maker
    row = SignedIn.objects.filter(session=request.session.session_key)
    update_session_auth_hash(request, maker)
    row.update(session=request.session.session_key)
    return _session(request)


@router.get("/browsers", response={200: list[BrowserOut]})
def browsers(request: HttpRequest) -> list[BrowserOut]:
    """Where one is signed in, the latest first."""
    key = request.session.session_key
    return [
        BrowserOut(
            id=row.pk,
            since=row.since,
            seen=row.seen,
            browser=row.browser,
            address=row.address,
            here=row.session == key,
        )
        for row in SignedIn.objects.filter(maker_id=request.user.pk)[:200]
    ]


@router.delete("/browsers/{int:id}", response={204: None})
def sign_browser_out(request: HttpRequest, id: int) -> Status:
    """Sign one's other browser out."""
    rows = SignedIn.objects.filter(maker_id=request.user.pk, pk=id)
    if not rows.exists():
        raise Http404
    end(rows)
    return Status(204, None)


def _maker_out(maker: User, first: User | None) -> MakerOut:
    return MakerOut(name=maker.username, since=maker.date_joined, first=maker == first)


@makers_router.get("", response={200: list[MakerOut]})
def all_makers(request: HttpRequest) -> list[MakerOut]:
    """Every maker of the shop, the first one first."""
    first = makers.the_first()
    found = get_user_model().objects.filter(is_active=True).order_by("pk")
    return [_maker_out(maker, first) for maker in found]


@makers_router.post("", response={201: MakerOut})
def add_maker(request: HttpRequest, payload: SignIn) -> Status:
    """Add a maker: the first one does."""
    makers.only_the_first(request.user)
    if settings.DEMO:
        raise PermissionDenied("The demo has one maker, who signs in by itself. Start your own: make run.")
    return Status(201, _maker_out(makers.add(payload.name, payload.password), makers.the_first()))


@makers_router.put("/{name}/password", response={204: None})
def new_password(request: HttpRequest, name: str, payload: OnlyPassword) -> Status:
    """Give somebody who forgot it a new password: the first maker does."""
    makers.only_the_first(request.user)
    makers.give_password(makers.named(name), payload.password, request.session.session_key)
    return Status(204, None)


@makers_router.delete("/{name}", response={204: None})
def remove_maker(request: HttpRequest, name: str) -> Status:
    """Take a maker from the shop; what they did stays, with their name. The first maker does."""
    makers.only_the_first(request.user)
    makers.remove(makers.named(name))
    return Status(204, None)
