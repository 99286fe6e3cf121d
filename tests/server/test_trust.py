"""The real server, done small what `make trust` does at length."""

from __future__ import annotations

import json
import os
import random
import tempfile
import unittest
from pathlib import Path

from django.test import SimpleTestCase, tag

from tools.trusted.asked import asked
from tools.trusted.crowded import crowded, unfinished
from tools.trusted.cut import File, can_trace, power_cut
from tools.trusted.filled import can_mount, filled
from tools.trusted.killed import killed
from tools.trusted.moved import moved
from tools.trusted.racked import racked
from tools.trusted.shop import Shop, greeted, sent_along
from workshop import worker


class Trust(SimpleTestCase):
    def setUp(self) -> None:
        # The server of its own is not the tests': it must not take their settings or their data.
        kept = {name: os.environ.pop(name) for name in ("PROUD_RAKE_DATA",) if name in os.environ}
        self.addCleanup(os.environ.update, kept)

    def test_nothing_acknowledged_is_lost_when_the_plug_is_pulled(self) -> None:
        found = killed(2, whole_every=2)
        self.assertGreater(int(str(found["acknowledged"])), 0)
        self.assertEqual((found["lost"], found["damaged"]), (0, 0), found)

    @tag("long")
    @unittest.skipUnless(can_trace(), "no process can be watched here")
    def test_nothing_acknowledged_is_lost_in_a_power_cut(self) -> None:
        found = power_cut(5)
        self.assertEqual((found["answered"], found["lost"], found["unreadable"]), (5, 0, 0), found)
        self.assertGreater(int(str(found["lost_were_nothing_flushed"])), 0)

    def test_what_was_not_flushed_may_be_lost_in_a_cut(self) -> None:
        file = File(bytearray(b"old"), bytearray(b"old"))
        file.write(0, b"new")
        self.assertEqual(file.after_a_cut(random.Random(1), 0.0), b"old")
        self.assertEqual(file.after_a_cut(random.Random(1), 1.0), b"new")
        file.flush()
        file.truncate(1)
        self.assertEqual(file.after_a_cut(random.Random(1), 0.0), b"new")
        self.assertEqual(file.after_a_cut(random.Random(1), 1.0), b"n")

    @tag("long")
    @unittest.skipUnless(can_mount(), "no small disk can be had here")
    def test_a_full_disk_is_said_and_costs_nothing_that_was_saved(self) -> None:
        found = filled()
        self.assertEqual((found["refused"], found["lost"], found["health"]), (3, 0, 503), found)
        self.assertTrue(found["reading_on"] and found["saves_again"], found)
        self.assertIn("Make room", str(found["said"]))

    def test_requests_that_never_end_hold_nobody_up(self) -> None:
        found = unfinished(heads=2 * worker.MOST_WAITING + 20, bodies=8, seconds=3)
        self.assertEqual(found["failed"], 0, found)
        self.assertGreater(int(str(found["answered"])), 10)

    def test_whatever_is_asked_is_answered_as_declared(self) -> None:
        found = asked(240, threads=2)
        self.assertEqual(found["wrong"], {}, found)

    @tag("long")
    def test_a_full_rack_and_a_long_history_are_answered_and_nothing_is_planned_for_it(self) -> None:
        found = racked(pieces=2, states=6, readings=20)
        self.assertEqual((found["pieces"], found["planned_on_the_way"]), (2, 0), found)

    def test_nobody_who_comes_through_a_proxy_is_taken_for_one_at_the_machine(self) -> None:
        """The server hands on what a proxy says of whom it asks for; without it all come from here."""
        with tempfile.TemporaryDirectory() as folder:
            shop = Shop(Path(folder))
            self.addCleanup(shop.end)
            shop.begin()
            mine = sent_along({"csrftoken": greeted(shop)})
            first = json.dumps({"name": "mallet", "password": "limewood-and-oak-7"}).encode()
            for name in ("X-Forwarded-For", "Forwarded"):
                through = {**mine, name: "10.0.0.9" if name.startswith("X") else "for=10.0.0.9"}
                self.assertEqual(shop.ask("POST", "/api/session/first", first, through)[0], 403, name)
            self.assertEqual(shop.ask("POST", "/api/session/first", first, mine)[0], 200)
            shop.end()

    def test_several_makers_at_once_are_all_answered(self) -> None:
        found = crowded(3, 4)
        self.assertEqual(found["errors"], 0, found)

    @tag("long")
    def test_a_shop_larger_than_any_request_moves_to_another_server(self) -> None:
        """Above what any other request may be (8 MB): it is taken in a piece at a time."""
        found = moved(pieces=14, side=1000)
        self.assertEqual((found["status"], found["different"]), (200, []), found)
        self.assertGreater(float(str(found["archive_mb"])), 8.0)
