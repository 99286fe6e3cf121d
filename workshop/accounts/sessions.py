"""Sessions that end when they are ended, and never by the clock alone."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from django.contrib.auth.signals import user_logged_in
from django.contrib.sessions.backends import db
from django.contrib.sessions.models import Session
from django.core.exceptions import SuspiciousOperation
from django.dispatch import receiver
from django.http import HttpRequest, HttpResponse
from django.utils import timezone

from workshop.accounts.models import SignedIn

DAY = "seen"
MOST_NIGHTS = 90
"""Nights of the workshop without a sign of a browser, after which it must sign in again."""


class SessionStore(db.SessionStore):
    """The database's sessions, read without asking the clock: a battery that ran down signs nobody out."""

    def _get_session_from_db(self) -> Session | None:
        try:
            return Session.objects.get(session_key=self.session_key)
        except (Session.DoesNotExist, SuspiciousOperation):
            self._session_key = None
            return None


@receiver(user_logged_in)
def note(sender: Any, request: HttpRequest, user: Any, **more: Any) -> None:
    """Write down which browser a maker signed in from."""
    key = request.session.session_key
    if key is not None:
        browser = request.headers.get("User-Agent", "")[:200]
        about = {"maker": user, "browser": browser, "address": request.META.get("REMOTE_ADDR", "")[:60]}
        SignedIn.objects.update_or_create(session=key, defaults=about)


class Seen:
    """Notes once a day that a browser is still used, and lends it its cookie anew."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        """Note it, then go on."""
        today = timezone.now().date().isoformat()
        if request.user.is_authenticated and request.session.get(DAY) != today:
            row = SignedIn.objects.filter(session=request.session.session_key)
            if not row.update(nights=0, seen=timezone.now()):
                note(None, request, request.user)  # Signed in before such notes were made.
            request.session[DAY] = today
        return self.get_response(request)


def end(rows: Any) -> None:
    """Sign out every browser of these rows."""
    Session.objects.filter(session_key__in=list(rows.values_list("session", flat=True))).delete()
    rows.delete()
