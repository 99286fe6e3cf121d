from __future__ import annotations

from datetime import timedelta
from uuid import uuid4

from django.contrib.auth import get_user_model
from django.core.management import CommandError, call_command
from django.db.models import Max
from django.test import Client, TestCase, override_settings
from django.utils import timezone

from splay.piece.starters import STARTS
from tests.api.base import ApiCase
from workshop.build.models import Entry
from workshop.demo.load import load_demo
from workshop.keeping.management.commands.serve import refusal
from workshop.pieces.models import PieceRow, ReadingEvent


class Keeping(ApiCase):
    def save(self, made: dict, based_on: int | None = None, **change: object):  # type: ignore[no-untyped-def, type-arg]
        body = {"document": {**made["piece"], **change}, "based_on": based_on or made["revision"]}
        return self.call("PUT", f"/api/pieces/{made['id']}", body)

    def test_a_piece_is_kept_and_every_saved_state_with_it(self) -> None:
        made = self.new(name="First")
        second = self.save(made, name="Second").json()
        third = self.save(second, height="19 in").json()
        self.assertEqual(third["revision"], 3)
        rows = self.call("GET", f"/api/pieces/{made['id']}/revisions").json()
        self.assertEqual([row["number"] for row in rows], [3, 2, 1])
        old = self.call("GET", f"/api/pieces/{made['id']}/revisions/1").json()
        self.assertEqual(old["piece"]["name"], "First")
        found = self.call("GET", f"/api/pieces/{made['id']}/compare?a=1&b=3").json()
        self.assertEqual(
            {d["path"]: (d["before"], d["after"]) for d in found},
            {"name": ("First", "Second"), "height": ("450 mm", "482.5 mm")},
        )

    def test_saving_what_stands_already_makes_no_new_state(self) -> None:
        made = self.new()
        self.assertEqual(self.save(made).json()["revision"], 1)

    def test_two_tabs_saving_the_same_piece_lose_nothing(self) -> None:
        made = self.new()
        self.assertEqual(self.save(made, name="One tab").status_code, 200)
        late = self.save(made, name="Other tab")
        self.assertEqual(late.status_code, 409)
        self.assertIn("Nothing is lost", late.json()["detail"])
        # The maker chose to keep theirs on top: both states are there.
        self.assertEqual(self.save(made, based_on=2, name="Other tab").json()["revision"], 3)
        first = self.call("GET", f"/api/pieces/{made['id']}/revisions/2").json()
        self.assertEqual(first["piece"]["name"], "One tab")

    def test_a_bad_save_keeps_what_was_there(self) -> None:
        made = self.new(name="Sound")
        bad = self.save(made, height="tall")
        self.assertEqual(bad.status_code, 422)
        self.assertEqual(bad.json()["faults"][0]["field"], "piece.height")
        self.assertEqual(self.call("GET", f"/api/pieces/{made['id']}").json()["piece"]["name"], "Sound")

    def test_the_rack_shows_each_piece_drawn_in_a_settled_number_of_queries(self) -> None:
        for _ in range(3):
            self.new()
        # session, maker, shop, their units, the first maker, pieces; at first the documents, and what
        # hangs is kept
        with self.assertNumQueries(9):
            self.call("GET", "/api/pieces")
        with self.assertNumQueries(6):
            rack = self.call("GET", "/api/pieces").json()
        self.assertEqual(len(rack), 3)
        self.assertTrue(all(piece["drawn"] for piece in rack))

    def test_new_pieces_have_names_of_their_own(self) -> None:
        names = [
            self.call("POST", "/api/pieces", {"start": "bench"}).json()["piece"]["name"] for _ in "123"
        ]
        self.assertEqual(names, ["Bench", "Bench 2", "Bench 3"])
        document = self.new(name="Perch 2")["piece"]
        for another, wanted in ((True, "Perch 3"), (True, "Perch 4"), (False, "Perch 2")):
            body = {"document": document, "another": another}
            self.assertEqual(self.call("POST", "/api/pieces", body).json()["piece"]["name"], wanted)

    def test_a_piece_that_cannot_stand_still_hangs_on_the_rack(self) -> None:
        steep = {"by": "resultant", "resultant": 60, "sightline": 90, "measured_from": "bearing"}
        made = self.new(lean={"fall": 30, "toward": 270})
        support = {**made["piece"]["supports"][0], "angles": [steep]}
        self.assertEqual(self.save(made, supports=[support]).status_code, 200)
        self.assertFalse(self.call("GET", "/api/pieces").json()[0]["drawn"])

    def test_starting_pieces_and_files_can_be_brought_in_and_taken_out(self) -> None:
        started = self.call("POST", "/api/pieces", {"start": "table"}).json()
        file = self.call("GET", f"/api/pieces/{started['id']}/file")
        self.assertIn("attachment", file["Content-Disposition"])
        again = self.call("POST", "/api/pieces", {"document": file.json()})
        self.assertEqual(again.json()["piece"], started["piece"])
        self.assertEqual(self.call("POST", "/api/pieces", {"start": "throne"}).status_code, 422)

    def test_every_start_is_drawn(self) -> None:
        made = self.call("GET", "/api/pieces/starts").json()
        self.assertEqual({one["start"]: one["title"] for one in made}, STARTS)
        self.assertEqual({one["drawing"]["name"] for one in made}, {"quarter"})

    def test_a_piece_can_be_taken_off_and_then_is_gone(self) -> None:
        made = self.new()
        self.assertEqual(self.call("DELETE", f"/api/pieces/{made['id']}").status_code, 204)
        self.assertEqual(self.call("GET", f"/api/pieces/{made['id']}").status_code, 404)
        self.assertEqual(self.call("GET", f"/api/pieces/{uuid4()}").json()["status"], 404)

    def test_a_proof_is_answered_corrected_and_withdrawn(self) -> None:
        made = self.new()
        path = f"/api/pieces/{made['id']}/readings/bore.l1"
        self.assertEqual(self.call("PUT", path, {"typed": "14.2"}).json()["value"], 14.2)
        self.assertEqual(self.call("PUT", path, {"typed": "13 1/2"}).json()["value"], 13.5)
        kept = self.call("GET", f"/api/pieces/{made['id']}").json()["readings"]
        self.assertEqual([(r["proof"], r["typed"], r["by"]) for r in kept], [("bore.l1", "13 1/2", "ash")])
        bad = self.call("PUT", path, {"typed": "steep"})
        self.assertEqual(bad.json()["faults"][0]["field"], "readings.bore.l1")
        self.assertEqual(self.call("DELETE", path).status_code, 204)
        self.assertEqual(self.call("GET", f"/api/pieces/{made['id']}").json()["readings"], [])


class TheShop(ApiCase):
    def test_units_and_tools_are_kept_and_change_what_is_shown(self) -> None:
        shop = self.call("GET", "/api/shop").json()["shop"]
        shop["rounding"]["system"] = "inch"
        shop["tools"][2]["base"] = "12"
        kept = self.call("PUT", "/api/shop", {"shop": shop, "bare": "inch"}).json()
        self.assertAlmostEqual(kept["shop"]["tools"][2]["base"], 304.8)
        self.assertEqual(kept["chosen"]["tools.2.base"]["text"], '12"')

    def test_a_bad_tool_is_refused_by_its_field(self) -> None:
        shop = self.call("GET", "/api/shop").json()["shop"]
        shop["tools"][0]["scale"]["reach"] = "far"
        answer = self.call("PUT", "/api/shop", {"shop": shop})
        self.assertEqual(answer.json()["faults"][0]["field"], "shop.tools.0.scale.reach")


class WhoMay(TestCase):
    ROUTES = (
        ("GET", "/api/pieces"), ("POST", "/api/pieces"), ("GET", f"/api/pieces/{uuid4()}"),
        ("PUT", f"/api/pieces/{uuid4()}"), ("DELETE", f"/api/pieces/{uuid4()}"),
        ("GET", "/api/shop"), ("PUT", "/api/shop"), ("POST", "/api/plan"), ("POST", "/api/angles"),
        ("POST", "/api/quick/lean"), ("POST", "/api/quick/mitre"),
        ("PUT", f"/api/pieces/{uuid4()}/readings/bore.l1"), ("GET", f"/api/pieces/{uuid4()}/revisions"),
    )  # fmt: skip

    def test_nobody_gets_anything_without_signing_in(self) -> None:
        client = Client(enforce_csrf_checks=True)
        token = client.get("/api/session").json()["csrf"]
        for method, path in self.ROUTES:
            with self.subTest(f"{method} {path}"):
                answer = client.generic(
                    method, path, "{}", content_type="application/json", headers={"X-CSRFToken": token}
                )
                self.assertEqual(answer.status_code, 401)
                self.assertEqual(answer["Content-Type"], "application/problem+json")

    def test_a_signed_in_maker_without_the_token_cannot_send(self) -> None:
        client = Client(enforce_csrf_checks=True)
        client.force_login(get_user_model().objects.create_user("oak"))
        for method, path in self.ROUTES:
            if method != "GET":
                answer = client.generic(method, path, "{}", content_type="application/json")
                self.assertEqual(answer.status_code, 403, path)

    def test_the_first_maker_is_made_once_with_a_good_password_and_the_strongest_hash(self) -> None:
        client = Client(enforce_csrf_checks=True)

        def post(path: str, password: str, host: str = "127.0.0.1"):  # type: ignore[no-untyped-def]
            token = client.get("/api/session").json()["csrf"]
            return client.post(
                path, {"name": "elm", "password": password}, content_type="application/json",
                headers={"X-CSRFToken": token}, REMOTE_ADDR=host,
            )  # fmt: skip

        self.assertTrue(client.get("/api/session").json()["first"])
        self.assertEqual(post("/api/session/first", "12345").json()["faults"][0]["field"], "password")
        self.assertEqual(post("/api/session/first", "quarter-sawn-9", host="10.0.0.4").status_code, 403)
        self.assertEqual(post("/api/session/first", "quarter-sawn-9").json()["maker"], "elm")
        self.assertTrue(get_user_model().objects.get().password.startswith("argon2"))
        self.assertEqual(post("/api/session/first", "quarter-sawn-9").status_code, 403)
        client.logout()
        self.assertEqual(post("/api/session", "wrong-one").status_code, 422)
        self.assertEqual(post("/api/session", "quarter-sawn-9").json()["maker"], "elm")

    def test_the_demos_maker_is_signed_in_on_loopback_only(self) -> None:
        load_demo()
        for demo, here, address, maker in (
            (True, True, "127.0.0.1", "demo"), (True, True, "10.0.0.4", None),
            (True, False, "127.0.0.1", None), (False, True, "127.0.0.1", None),
        ):  # fmt: skip
            with override_settings(DEMO=demo, ON_LOOPBACK=here):
                answer = Client().get("/api/session", REMOTE_ADDR=address).json()
                self.assertEqual(answer["maker"], maker)

    def test_listening_wider_is_refused_without_a_password_and_in_the_demo(self) -> None:
        self.assertIsNone(refusal("127.0.0.1"))
        self.assertIn("password", refusal("0.0.0.0") or "")
        get_user_model().objects.create_user("elm", password="quarter-sawn-9")
        self.assertIsNone(refusal("0.0.0.0"))
        with override_settings(DEMO=True):
            self.assertIn("demo", refusal("0.0.0.0") or "")

    def test_the_demo_loads_twice_without_harm_and_never_onto_a_makers_rack(self) -> None:
        with override_settings(DEMO=True):
            call_command("demo", verbosity=0)
            call_command("demo", verbosity=0)
        self.assertEqual(PieceRow.objects.count(), 9)
        # Of a piece whose last line is days old nothing was read at the minute the demo was made.
        lines, now = Entry.objects.values("piece").annotate(last=Max("at")), timezone.now()
        rested = [one["piece"] for one in lines if one["last"] < now - timedelta(days=3)]
        self.assertTrue(rested)
        read = ReadingEvent.objects.filter(piece__in=rested)
        self.assertTrue(read.exists())
        self.assertFalse(read.filter(at__gt=now - timedelta(hours=1)).exists())
        with self.assertRaises(CommandError):
            call_command("demo")
