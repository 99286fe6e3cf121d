"""However it is asked, the API answers in its own shape, briefly, and loses nobody's reading."""

from __future__ import annotations

import gzip
import json
from typing import Any
from unittest import mock

from django.test import Client

from splay.piece import write_piece
from splay.piece.starters import STARTS, starter
from splay.shop import workbench, write_shop
from tests.api.base import ApiCase
from tests.api.test_makers import GOOD, Someone
from workshop.pieces import actions
from workshop.pieces.models import PieceRow
from workshop.problems import MOST_FAULTS

MOST_BYTES = 512_000


class Shape(ApiCase):
    def problem(self, answer: Any, status: int) -> dict[str, Any]:
        """What a refusal says, which has the one shape."""
        self.assertEqual(answer.status_code, status, answer.content[:200])
        self.assertEqual(answer["Content-Type"], "application/problem+json")
        said = dict(json.loads(answer.content))
        self.assertEqual(set(said), {"type", "title", "status", "detail", "faults"})
        self.assertEqual(said["status"], status)
        self.assertTrue(said["detail"].endswith((".", "?")), said)
        return said

    def send(self, body: bytes, kind: str, path: str = "/api/plan", **headers: str) -> Any:
        sent = {"X-CSRFToken": self.token, **headers}
        return self.client.generic("POST", path, body, content_type=kind, headers=sent)

    def test_forms_files_and_foreign_letters_are_refused_before_they_are_read(self) -> None:
        for kind in (
            "multipart/form-data",
            "multipart/form-data; boundary=",
            "multipart/form-data; boundary=" + "x" * 5000,
            "application/x-www-form-urlencoded",
            "text/plain",
            "application/json; charset=utf-99",
            "application/json; charset=utf-16",
            "image/png",
            "",
            "/;;=",
        ):
            with self.subTest(kind[:60]):
                said = self.problem(self.send(b"--\r\nname=1", kind), 415)
                self.assertIn(
                    f"It was sent as {kind.partition(';')[0] or 'nothing named'}; JSON", said["detail"]
                )
        self.assertEqual(
            self.send(
                b'{"splay": 10, "rake": 3}', "application/json; charset=UTF-8", "/api/angles"
            ).status_code,
            200,
        )

    def test_a_field_that_nothing_reads_is_named_and_nothing_is_kept(self) -> None:
        before = self.client.get("/api/pieces").content
        piece = json.dumps({"start": "bench", "nmae": "Quay bench"}).encode()
        said = self.problem(self.send(piece, "application/json", "/api/pieces"), 422)
        self.assertIn("nmae", said["faults"][0]["field"])
        self.assertIn("mend its spelling", said["detail"])
        self.assertEqual(self.client.get("/api/pieces").content, before)

    def test_what_was_got_is_said_and_nothing_where_nothing_came(self) -> None:
        for sent, got in (({}, "nothing"), ({"piece": 512}, "512")):
            said = self.problem(self.call("POST", "/api/plan", sent), 422)["faults"]
            self.assertEqual([(one["field"], one["got"]) for one in said], [("piece", got)])
        said = self.problem(self.call("PUT", "/api/pieces/rate", {"rate": -3}), 422)
        self.assertEqual((said["faults"][0]["field"], said["faults"][0]["got"]), ("rate", "-3"))
        for field in ("old", "new"):
            body = {"old": "spokeshave", "new": "spokeshave", field: "x" * 5000}
            said = self.problem(self.call("PUT", "/api/session/password", body), 422)
            self.assertEqual(said["faults"][0]["got"], "what was typed")
            self.assertNotIn("xxx", json.dumps(said))

    def test_bytes_that_are_no_text_are_refused(self) -> None:
        for body in (b"\xff\xfe{}", b"\x80", b'{"piece": "\xc3"}', b"{", b"nul", b"[1]", b'"x"', b"NaN"):
            with self.subTest(body):
                answer = self.send(body, "application/json")
                self.assertIn(answer.status_code, (400, 422))
                self.problem(answer, answer.status_code)
        said = self.problem(self.send(b"{", "application/json"), 400)
        self.assertIn("no whole JSON in UTF-8", said["detail"])

    def test_the_frameworks_own_refusals_are_put_into_words(self) -> None:
        for answer, status, title in (
            (self.client.get("/api/nothing"), 404, "Not found"),
            (self.client.get("/api/pieces/not-an-id"), 404, "Not found"),
            (self.client.patch("/api/pieces"), 405, "It cannot be done so"),
            (self.client.get("/api/pieces", headers={"host": "elsewhere.example"}), 400,
             "The request could not be read"),
        ):  # fmt: skip
            self.assertEqual(self.problem(answer, status)["title"], title)
        self.assertIn("Allow", self.client.patch("/api/pieces"))
        without = self.client.post("/api/plan", "{}", content_type="application/json")
        self.assertIn("Load it anew", self.problem(without, 403)["detail"])
        self.problem(Client().get("/api/pieces"), 401)

    def test_a_fault_outside_the_apis_views_is_named_too(self) -> None:
        self.client.raise_request_exception = False
        where = "workshop.accounts.demo.DemoSignIn.__call__"
        failing = mock.patch(where, side_effect=RuntimeError("broken"))
        with failing, self.assertLogs("workshop", "ERROR"):
            said = self.problem(self.client.get("/api/pieces"), 500)
        self.assertRegex(said["detail"], "fault [2-9a-z]{6} ")
        with failing, self.assertLogs("workshop", "ERROR"):
            page = self.client.get("/rack")
        self.assertEqual(page.status_code, 500)
        self.assertIn("its fault", page.content.decode())

    def test_an_answer_names_at_most_fifty_faults(self) -> None:
        document = write_piece(starter("round_three"))
        document["supports"] = [{"kind": "nonsense"}] * 900
        tools = write_shop(workbench())
        tools["tools"] = [{**tools["tools"][0], "name": ""}] * 40 + [{"kind": "?"}] * 60
        for method, path, body in (
            ("POST", "/api/plan", {"piece": document}),
            ("PUT", "/api/shop", {"shop": tools}),
        ):
            said = self.problem(self.call(method, path, body), 422)
            self.assertLessEqual(len(said["faults"]), MOST_FAULTS)
            self.assertLess(len(json.dumps(said)), 40_000)

    def test_no_answer_is_larger_than_half_a_megabyte_and_large_ones_are_packed(self) -> None:
        sizes = {}
        for name in STARTS:
            piece = {**write_piece(starter(name))}
            for station in ("stance", "top", "boring", "legs", "stretchers", "level", "solid"):
                answer = self.call("POST", "/api/plan", {"piece": piece, "station": station})
                sizes[name, station] = len(answer.content)
        self.assertLess(max(sizes.values()), MOST_BYTES, max(sizes.items(), key=lambda item: item[1]))
        packed = self.call(
            "POST", "/api/plan", {"piece": piece, "station": "boring"}, **{"Accept-Encoding": "gzip"}
        )
        self.assertEqual(packed["Content-Encoding"], "gzip")
        self.assertLess(len(packed.content), 0.3 * len(gzip.decompress(packed.content)))

    def test_names_hold_nothing_that_cannot_be_seen(self) -> None:
        given = "A\u202e bench\x00\u2066 by\u200b\tme\n "
        self.assertEqual(self.new(name=given)["piece"]["name"], "A bench by me")
        family = "Bench \U0001f469\u200d\U0001f467"
        self.assertEqual(self.new(name=family)["piece"]["name"], family)
        for blank in (" ", "\u200d", "\u202e\x07", "\n"):
            document = {**write_piece(starter("bench")), "name": blank}
            said = self.problem(self.call("POST", "/api/pieces", {"document": document}), 422)
            self.assertEqual(said["faults"][0]["field"], "document.name")
            self.assertIn("name", said["faults"][0]["do"])

    def test_half_a_letter_is_refused_and_breaks_nothing(self) -> None:
        raw = json.dumps({"document": {**write_piece(starter("bench")), "name": "x\ud800"}})
        answer = self.send(raw.encode(), "application/json", "/api/pieces")
        self.assertIn(answer.status_code, (201, 422))
        id = self.new()["id"]
        for field in ("typed", "note", "tool"):
            body = json.dumps({"typed": "12", field: "12\ud800"}).encode()
            where = f"/api/pieces/{id}/readings/bore.l1"
            headers = {"X-CSRFToken": self.token}
            answer = self.client.generic(
                "PUT", where, body, content_type="application/json", headers=headers
            )
            self.problem(answer, 422)


class Clash(ApiCase):
    """Two makers read the same proof at once."""

    def setUp(self) -> None:
        super().setUp()
        self.call("POST", "/api/makers", {"name": "linden", "password": GOOD})
        self.linden = Someone()
        self.linden.sign_in("linden", GOOD)
        self.where = f"/api/pieces/{self.new()['id']}/readings/bore.l1"

    def test_the_second_is_told_what_the_first_read_and_nothing_is_overwritten(self) -> None:
        first = self.call("PUT", self.where, {"typed": "12", "based_on": 0}).json()
        second = self.linden.call("PUT", self.where, {"typed": "14", "based_on": 0})
        self.assertEqual(second.status_code, 409)
        self.assertIn("ash read 12", second.json()["detail"])
        now = self.linden.call("PUT", self.where, {"typed": "14", "based_on": first["number"]})
        self.assertEqual(now.status_code, 200)
        self.assertEqual(self.call("PUT", self.where, {"typed": "13", "based_on": 1}).status_code, 409)

    def test_the_same_reading_sent_twice_is_no_clash(self) -> None:
        # An answer that was lost on its way back is asked for again by the page.
        for _ in range(2):
            self.assertEqual(self.call("PUT", self.where, {"typed": "12", "based_on": 0}).status_code, 200)

    def test_one_that_was_withdrawn_meanwhile_is_said(self) -> None:
        number = self.call("PUT", self.where, {"typed": "12"}).json()["number"]
        self.linden.call("DELETE", self.where)
        answer = self.call("PUT", self.where, {"typed": "12.5", "based_on": number})
        self.assertEqual(answer.status_code, 409)
        self.assertIn("withdrawn", answer.json()["detail"])

    def test_what_is_no_proof_is_refused_when_written(self) -> None:
        base = self.where.removesuffix("bore.l1")
        for proof in ("x" * 81, "bore%20l1", "%00", "é", "bore.l1%3Cb%3E"):
            refused = self.call("PUT", base + proof, {"typed": "12", "kind": "bore"})
            self.assertEqual(refused.status_code, 422, proof)
        resting = self.call("PUT", base + "bore.l77", {"typed": "12", "kind": "bore"})
        self.assertEqual(resting.status_code, 200, "one of a leg that is gone is kept")
        self.assertEqual(self.call("GET", "/api/archive").status_code, 200)

    def test_readings_past_the_limit_are_refused_when_written(self) -> None:
        with mock.patch.object(actions, "MOST_OF_A_PIECE", 2):
            base = self.where.removesuffix("bore.l1")
            for proof in ("bore.l1", "bore.l2"):
                self.assertEqual(self.call("PUT", base + proof, {"typed": "12"}).status_code, 200)
            refused = self.call("PUT", base + "bore.l3", {"typed": "12"})
            self.assertEqual(refused.status_code, 422)
            self.assertIn("at most 2", refused.json()["faults"][0]["allowed"])
            self.assertEqual(self.call("PUT", base + "bore.l1", {"typed": "13"}).status_code, 200)
        id = base.split("/")[3]
        piece = self.call("GET", f"/api/pieces/{id}").json()
        told = [{"proof": r["proof"], "kind": r["kind"], "value": r["value"]} for r in piece["readings"]]
        body = {"piece": piece["piece"], "readings": told}
        self.assertEqual(self.call("POST", "/api/plan", body).status_code, 200)
        most = [
            {"proof": f"bore.x{n}", "kind": "bore", "value": 12} for n in range(actions.MOST_OF_A_PIECE)
        ]
        self.assertEqual(self.call("POST", "/api/plan", {**body, "readings": most}).status_code, 200)


class Clocks(ApiCase):
    def test_a_piece_saved_under_a_wrong_clock_does_not_stay_on_top(self) -> None:
        first, second = self.new(name="First"), self.new(name="Second")
        PieceRow.objects.filter(pk=first["id"]).update(changed="2090-01-01T00:00:00Z")
        self.assertEqual([p["name"] for p in self.call("GET", "/api/pieces").json()], ["Second", "First"])
        document = {**first["piece"], "name": "First again"}
        self.call("PUT", f"/api/pieces/{first['id']}", {"document": document, "based_on": 1})
        names = [p["name"] for p in self.call("GET", "/api/pieces").json()]
        self.assertEqual(names, ["First again", "Second"])
        self.call(
            "PUT", f"/api/pieces/{second['id']}", {"document": {**document, "name": "S"}, "based_on": 1}
        )
        self.assertEqual(self.call("GET", "/api/pieces").json()[0]["name"], "S")
