"""Signing in, where one is signed in, and who looks after the makers of a shop."""

from __future__ import annotations

import json
import os
import subprocess
import sys
import tempfile
from datetime import timedelta
from typing import Any
from unittest import mock

from axes.models import AccessAttempt
from django.conf import settings
from django.contrib.auth import get_user_model
from django.contrib.sessions.models import Session
from django.test import Client, override_settings
from django.utils import timezone

from tests.api.base import ApiCase
from workshop.accounts.models import SignedIn
from workshop.accounts.sessions import MOST_NIGHTS
from workshop.keeping.nightly import count_nights

GOOD, BETTER = "spokeshave-and-adze", "drawknife-and-froe"


class Someone:
    """A browser of its own: signs in with a password, sends what a page would send."""

    def __init__(self, agent: str = "Firefox on Linux", **extra: str) -> None:
        self.client = Client(enforce_csrf_checks=True, headers={"user-agent": agent}, **extra)
        self.call("GET", "/api/session")

    def call(self, method: str, path: str, body: Any = None) -> Any:
        """One call with the token the page has."""
        token = self.client.cookies["csrftoken"].value if "csrftoken" in self.client.cookies else ""
        raw = "" if body is None else json.dumps(body)
        kind = "application/json"
        return self.client.generic(method, path, raw, content_type=kind, headers={"X-CSRFToken": token})

    def sign_in(self, name: str, password: str) -> int:
        """The status of trying to."""
        return int(self.call("POST", "/api/session", {"name": name, "password": password}).status_code)


class Makers(ApiCase):
    """ash is the shop's first maker, linden another."""

    def setUp(self) -> None:
        super().setUp()
        made = self.call("POST", "/api/makers", {"name": "linden", "password": GOOD})
        self.assertEqual(made.status_code, 201, made.content)
        self.linden = Someone()
        self.assertEqual(self.linden.sign_in("linden", GOOD), 200)

    def test_wrong_passwords_are_slowed_down_for_that_name_from_there_alone(self) -> None:
        stranger = Someone()
        tries = [stranger.sign_in("linden", f"wrong-{n}") for n in range(settings.AXES_FAILURE_LIMIT)]
        self.assertEqual(set(tries[:-1]), {422})
        self.assertEqual(stranger.sign_in("linden", GOOD), 429)
        said = stranger.call("POST", "/api/session", {"name": "linden", "password": GOOD}).json()
        self.assertIn("10 minutes", said["detail"])
        elsewhere = Someone(REMOTE_ADDR="10.0.0.9")
        self.assertEqual(elsewhere.sign_in("linden", GOOD), 200)
        # Somebody else at the same machine, and whoever is signed in already, are not held up.
        self.assertEqual(stranger.sign_in("ash", "wrong"), 422)
        self.assertEqual(self.linden.call("GET", "/api/pieces").status_code, 200)
        AccessAttempt.objects.update(attempt_time=timezone.now() - timedelta(minutes=11))
        self.assertEqual(stranger.sign_in("linden", GOOD), 200)

    def test_a_wrong_clock_holds_nobody_up_for_years(self) -> None:
        stranger = Someone()
        for n in range(settings.AXES_FAILURE_LIMIT):
            stranger.sign_in("linden", f"wrong-{n}")
        AccessAttempt.objects.update(attempt_time=timezone.now() + timedelta(days=9999))
        self.assertEqual(stranger.sign_in("linden", GOOD), 429)
        count_nights()
        self.assertEqual(stranger.sign_in("linden", GOOD), 200)

    def test_the_first_maker_lets_one_in_again_who_forgot(self) -> None:
        stranger = Someone()
        for n in range(settings.AXES_FAILURE_LIMIT):
            stranger.sign_in("linden", f"wrong-{n}")
        given = self.call("PUT", "/api/makers/linden/password", {"password": BETTER})
        self.assertEqual(given.status_code, 204)
        self.assertEqual(stranger.sign_in("linden", BETTER), 200)
        self.assertEqual(self.linden.call("GET", "/api/pieces").status_code, 401)

    def test_whoever_has_the_shop_to_themselves_is_told_so(self) -> None:
        self.assertFalse(self.call("GET", "/api/session").json()["alone"])
        self.assertEqual(self.call("DELETE", "/api/makers/linden").status_code, 204)
        self.assertTrue(self.call("GET", "/api/session").json()["alone"])

    def test_a_password_like_ones_name_is_refused(self) -> None:
        body = {"name": "wilhelmina", "password": "wilhelmina1"}
        refused = self.call("POST", "/api/makers", body)
        self.assertEqual(refused.status_code, 422)
        self.assertIn("similar", refused.json()["faults"][0]["allowed"])

    def test_names_that_cannot_be_told_apart_or_seen_are_refused(self) -> None:
        for name in (" ", "\u200b\u202e", "\t\n", "LINDEN", "lin\u200bden"):
            with self.subTest(name):
                refused = self.call("POST", "/api/makers", {"name": name, "password": GOOD})
                self.assertEqual(refused.status_code, 422)

    def test_where_one_is_signed_in_is_listed_and_each_can_be_ended(self) -> None:
        phone = Someone(agent="a phone")
        phone.sign_in("linden", GOOD)
        found = self.linden.call("GET", "/api/session/browsers").json()
        self.assertEqual((found[0]["browser"], found[0]["here"]), ("a phone", False))
        self.assertEqual(sum(one["here"] for one in found), 1)
        keys = set(Session.objects.values_list("session_key", flat=True))
        self.assertFalse([key for key in keys if key in json.dumps(found)], "a session's key goes out")
        there = f"/api/session/browsers/{found[0]['id']}"
        self.assertEqual(self.call("DELETE", there).status_code, 404, "it is linden's")
        self.assertEqual(self.linden.call("DELETE", there).status_code, 204)
        self.assertEqual(phone.call("GET", "/api/pieces").status_code, 401)
        self.assertEqual(self.linden.call("GET", "/api/pieces").status_code, 200)

    def test_a_changed_password_signs_every_other_browser_out(self) -> None:
        phone = Someone()
        phone.sign_in("linden", GOOD)
        wrong = self.linden.call("PUT", "/api/session/password", {"old": "nonsense", "new": BETTER})
        self.assertEqual(wrong.json()["faults"][0]["field"], "old")
        weak = self.linden.call("PUT", "/api/session/password", {"old": GOOD, "new": "linden11"})
        self.assertEqual(weak.json()["faults"][0]["field"], "new")
        right = self.linden.call("PUT", "/api/session/password", {"old": GOOD, "new": BETTER})
        self.assertEqual(right.status_code, 200, right.content)
        self.assertEqual(self.linden.call("GET", "/api/pieces").status_code, 200)
        self.assertEqual(len(self.linden.call("GET", "/api/session/browsers").json()), 1)
        self.assertEqual(phone.call("GET", "/api/pieces").status_code, 401)
        self.assertEqual(phone.sign_in("linden", GOOD), 422)
        self.assertEqual(phone.sign_in("linden", BETTER), 200)

    def test_only_the_first_maker_looks_after_the_others(self) -> None:
        for method, path, body in (
            ("POST", "/api/makers", {"name": "rowan", "password": GOOD}),
            ("PUT", "/api/makers/ash/password", {"password": BETTER}),
            ("DELETE", "/api/makers/ash", None),
            ("GET", "/api/backups", None),
            ("POST", "/api/backups", None),
        ):
            with self.subTest(path):
                refused = self.linden.call(method, path, body)
                self.assertEqual(refused.status_code, 403)
                self.assertIn("ash", refused.json()["detail"])
        self.assertEqual(self.call("DELETE", "/api/makers/ash").status_code, 403, "somebody must stay")

    def test_one_who_leaves_is_out_at_once_and_stays_beside_what_they_did(self) -> None:
        made = self.linden.call("POST", "/api/pieces", {"start": "bench"}).json()
        self.assertEqual(self.call("DELETE", "/api/makers/linden").status_code, 204)
        self.assertEqual(self.linden.call("GET", "/api/pieces").status_code, 401)
        self.assertEqual(self.linden.sign_in("linden", GOOD), 422)
        self.assertEqual(self.call("GET", f"/api/pieces/{made['id']}").json()["by"], "linden")
        back = self.call("POST", "/api/makers", {"name": "linden", "password": BETTER})
        self.assertEqual(back.status_code, 201)
        self.assertEqual(self.linden.sign_in("linden", BETTER), 200)

    def test_a_wrong_clock_signs_nobody_out(self) -> None:
        for off in (timedelta(days=365 * 60), timedelta(days=-365 * 20)):
            with mock.patch("django.utils.timezone.now", return_value=timezone.now() + off):
                self.assertEqual(self.linden.call("GET", "/api/pieces").status_code, 200)
                self.assertNotIn("expires=Thu, 01 Jan 1970", str(self.linden.client.cookies))
            self.assertEqual(self.linden.call("GET", "/api/pieces").status_code, 200)

    def test_a_browser_that_is_not_seen_for_many_nights_signs_in_anew(self) -> None:
        for night in range(MOST_NIGHTS - 1):
            count_nights()
            if night == 40:  # ash works on, linden is away
                with mock.patch("django.utils.timezone.now", return_value=timezone.now() + timedelta(1)):
                    self.call("GET", "/api/pieces")
        self.assertEqual(SignedIn.objects.filter(maker__username="linden").count(), 1)
        count_nights()
        self.assertEqual(self.linden.call("GET", "/api/pieces").status_code, 401)
        self.assertEqual(self.call("GET", "/api/pieces").status_code, 200)
        # Since they were seen the nights count anew.
        self.assertEqual(SignedIn.objects.get().nights, 0)


class AtTheMachine(ApiCase):
    def test_the_demo_signs_nobody_in_who_comes_through_a_proxy(self) -> None:
        get_user_model().objects.create_user("demo")
        with override_settings(DEMO=True):
            self.assertEqual(Someone().call("GET", "/api/session").json()["maker"], "demo")
            for name in ("X_FORWARDED_FOR", "FORWARDED", "X_REAL_IP", "VIA"):
                through = Someone(**{f"HTTP_{name}": "10.0.0.9"})
                self.assertIsNone(through.call("GET", "/api/session").json()["maker"], name)

    def test_nobody_becomes_the_first_maker_through_a_proxy(self) -> None:
        get_user_model().objects.all().delete()
        body = {"name": "mallet", "password": GOOD}
        through = Someone(HTTP_X_FORWARDED_FOR="10.0.0.9")
        self.assertEqual(through.call("POST", "/api/session/first", body).status_code, 403)
        self.assertEqual(Someone().call("POST", "/api/session/first", body).status_code, 200)

    def test_the_pages_policy_lets_in_its_own_files_and_nothing_else(self) -> None:
        answer = self.client.get("/")
        policy = answer["Content-Security-Policy"]
        self.assertIn("default-src 'none'", policy)
        self.assertIn("script-src 'self';", f"{policy};")
        self.assertNotIn("unsafe-eval", policy)
        nonce = policy.split("'nonce-")[1].split("'")[0]
        self.assertIn(f'content="{nonce}"', answer.content.decode())
        self.assertNotIn(nonce, self.client.get("/")["Content-Security-Policy"], "one is used twice")

    def test_cookies_go_over_tls_only_where_there_is_tls(self) -> None:
        said = "from workshop import settings as s; print(getattr(s, 'SESSION_COOKIE_SECURE', False), "
        said += "getattr(s, 'CSRF_COOKIE_SECURE', False), getattr(s, 'CSRF_TRUSTED_ORIGINS', []))"
        for tls, wanted in (("0", "False False []"), ("1", "True True ['https://localhost'")):
            with tempfile.TemporaryDirectory() as data:
                env = {**os.environ, "PROUD_RAKE_TLS": tls, "PROUD_RAKE_DATA": data}
                ran = subprocess.run(
                    [sys.executable, "-c", said],
                    env=env,
                    cwd=settings.BASE_DIR,
                    capture_output=True,
                    text=True,
                )
            self.assertTrue(ran.stdout.startswith(wanted), ran.stdout + ran.stderr)
