"""What can be done to makers: added, given a password, taken from the shop."""

from __future__ import annotations

import unicodedata

from axes.utils import reset
from django.contrib.auth import get_user_model
from django.contrib.auth.models import AnonymousUser, User
from django.contrib.auth.password_validation import validate_password
from django.core.exceptions import PermissionDenied, ValidationError
from django.db import transaction
from django.http import Http404

from splay.document import plain_name
from splay.errors import BadInput, Fault
from workshop.accounts.models import SignedIn
from workshop.accounts.sessions import end

LONGEST_NAME = 60
Someone = User | AnonymousUser


def good_name(given: str) -> str:
    """A maker's name as it is kept; BadInput where nothing can be seen of it."""
    name = unicodedata.normalize("NFC", plain_name(given))[:LONGEST_NAME]
    if not name:
        raise BadInput(Fault("name", "nothing to be seen", "a name of letters", "Type the maker's name."))
    return name


def good_password(password: str, name: str) -> None:
    """BadInput where a password is weak, or much like its maker's name."""
    try:
        validate_password(password, User(username=name))
    except ValidationError as weak:
        fault = Fault("password", "a weak one", " ".join(weak.messages), "Choose a longer one.")
        raise BadInput(fault) from None


def the_first() -> User | None:
    """The shop's first maker: of those who are in it, the one who has been so longest."""
    return get_user_model().objects.filter(is_active=True).order_by("pk").first()


def is_first(maker: Someone) -> bool:
    """Whether this is the shop's first maker, who looks after the others."""
    first = the_first()
    return first is not None and first.pk == maker.pk


def only_the_first(maker: Someone) -> None:
    """PermissionDenied for everybody but the first maker."""
    if not is_first(maker):
        first = the_first()
        raise PermissionDenied(f"Only the shop's first maker may do that: {first or 'there is none'}.")


def named(name: str) -> User:
    """A maker who is in the shop, by name; Http404 where there is none."""
    maker = get_user_model().objects.filter(username=name, is_active=True).first()
    if maker is None:
        raise Http404
    return maker


@transaction.atomic
def add(name: str, password: str) -> User:
    """A new maker; one who left before comes back under the same name, with what is theirs."""
    name = good_name(name)
    good_password(password, name)
    known = get_user_model().objects.filter(username__iexact=name).first()
    if known and known.is_active:
        allowed = "a name nobody in the shop has"
        raise BadInput(
            Fault("name", known.username, allowed, "Choose another, or give them a new password.")
        )
    maker = known or get_user_model()(username=name)
    maker.is_active = True
    maker.set_password(password)
    maker.save()
    return maker


@transaction.atomic
def give_password(maker: User, password: str, but: str | None = None) -> None:
    """A new password; every browser but the one of the session `but` is signed out by it."""
    good_password(password, maker.username)
    maker.set_password(password)
    maker.save()
    end(SignedIn.objects.filter(maker=maker).exclude(session=but or ""))
    reset(username=maker.username)


@transaction.atomic
def remove(maker: User) -> None:
    """A maker leaves the shop: nobody signs in under the name, and it stays beside all they did."""
    if is_first(maker):
        raise PermissionDenied("The first maker stays: somebody has to look after the others.")
    maker.is_active = False
    maker.set_unusable_password()
    maker.save()
    end(SignedIn.objects.filter(maker=maker))
