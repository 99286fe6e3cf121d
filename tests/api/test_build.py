"""The build of a piece over HTTP: its order, ticked, timed, glued, what it cost, built again, in class."""

from __future__ import annotations

from datetime import UTC, datetime, timedelta
from typing import Any
from unittest.mock import patch

from tests.api.base import ApiCase
from workshop.build.models import Entry, Timer, UnitDone

NOON = datetime(2026, 3, 2, 12, 0, tzinfo=UTC)


class BuildCase(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.made = self.new(name="Lantern stool")
        self.path = f"/api/pieces/{self.made['id']}"
        self.clock = NOON
        for where in ("situation", "log"):
            mocked = patch(f"workshop.build.{where}.timezone.now", lambda: self.clock)
            mocked.start()
            self.addCleanup(mocked.stop)

    def build(self, copy: int = 1) -> dict[str, Any]:
        answer = self.call("GET", f"{self.path}/build?copy_number={copy}")
        self.assertEqual(answer.status_code, 200, answer.content)
        return dict(answer.json())

    def step(self, key: str, copy: int = 1) -> dict[str, Any]:
        return next(one for one in self.build(copy)["steps"] if one["key"] == key)

    def put(self, what: str, status: int = 200, **body: Any) -> dict[str, Any]:
        answer = self.call("PUT", f"{self.path}/build/{what}", body)
        self.assertEqual(answer.status_code, status, answer.content)
        return dict(answer.json())

    def order(self, status: int = 200, based_on: int = 0, **document: Any) -> dict[str, Any]:
        answer = self.call("PUT", f"{self.path}/build", {"document": document, "based_on": based_on})
        self.assertEqual(answer.status_code, status, answer.content)
        return dict(answer.json())

    def log(self, query: str = "") -> list[dict[str, Any]]:
        return list(self.call("GET", f"{self.path}/log{query}").json()["entries"])

    def through(self, upto: str) -> None:
        """Tick every step before the one named."""
        for step in self.build()["steps"]:
            if step["key"] == upto:
                return
            self.put("done", step=step["key"])
            self.clock += timedelta(hours=30)


class Going(BuildCase):
    def test_a_new_piece_begins_with_the_wood_and_every_step_says_what_it_wants_before_it(self) -> None:
        made = self.build()
        self.assertEqual((made["next"], made["steps"][0]["title"]), ("ready", "Ready the wood"))
        bore = self.step("bore.l1")
        wants = [want["title"] for want in bore["wants"]]
        self.assertIn("Mark out the seat", wants)
        # What the legs need first the holes do not.
        self.assertLess(len(wants), 6)
        self.assertEqual(made["steps"][0]["wants"], [])
        self.assertFalse(any(want["done"] for want in bore["wants"]))
        self.assertEqual([unit["name"] for unit in bore["units"]], ["leg 1", "leg 2", "leg 3"])

    def test_what_is_ticked_leads_to_the_next_and_stays_ticked(self) -> None:
        made = self.put("done", step="ready")
        self.assertEqual(made["next"], "practice")
        self.put("done", step="ready")
        self.assertEqual(UnitDone.objects.count(), 1)
        self.assertEqual([line["sort"] for line in self.log()], ["done"])
        self.assertEqual(self.put("undone", step="ready")["next"], "ready")
        self.assertEqual([line["sort"] for line in self.log()], ["undone", "done"])
        self.put("undone", step="ready")
        self.assertEqual(len(self.log()), 2, "what is not done is not undone")

    def test_a_step_is_begun_with_its_first_leg_and_done_with_its_last(self) -> None:
        self.through("bore.l1")
        units = self.step("bore.l1")["units"]
        named = [{k: unit[k] for k in ("key", "operation", "of")} for unit in units]
        self.put("done", step="bore.l1", units=named[:2], minutes=12)
        step = self.step("bore.l1")
        self.assertEqual(
            (step["state"], [u["done"] for u in step["units"]]), ("begun", [True, True, False])
        )
        self.assertEqual(
            list(UnitDone.objects.filter(operation="bore").values_list("minutes", flat=True)), [6, 6]
        )
        self.put("done", step="bore.l1", units=named[2:])
        self.assertEqual(self.step("bore.l1")["state"], "done")

    def test_what_was_bored_stays_bored_when_legs_come_to_share_their_settings_otherwise(self) -> None:
        self.through("bore.l1")
        self.put("done", step="bore.l1")
        piece = self.call("GET", self.path).json()["piece"]
        piece["supports"][0]["scope"] = "each"
        first = piece["supports"][0]["angles"][0]
        piece["supports"][0]["angles"] = [{**first, "resultant": 10 + k} for k in range(3)]
        saved = self.call("PUT", self.path, {"document": piece, "based_on": 1})
        self.assertEqual(saved.status_code, 200, saved.content)
        bored = [step for step in self.build()["steps"] if step["operation"] == "bore"]
        self.assertEqual([step["state"] for step in bored], ["done"] * 3)
        self.put("undone", step=bored[1]["key"])
        bored = [step for step in self.build()["steps"] if step["operation"] == "bore"]
        self.assertEqual([step["state"] for step in bored], ["done", "open", "done"])

    def test_another_work_of_the_same_kind_on_the_same_leg_stays_ticked(self) -> None:
        piece = self.call("GET", self.path).json()["piece"]
        leg = piece["supports"][0]["leg"]
        leg["belly"] = {"at": 0.4, "size": leg["at_top"] + 6}
        self.call("PUT", self.path, {"document": piece, "based_on": 1})
        tapers = [one["key"] for one in self.build()["steps"] if one["operation"] == "taper"]
        self.assertEqual(len(tapers), 2)
        for key in tapers:
            self.put("done", step=key)
        self.put("undone", step=tapers[0])
        self.assertEqual([self.step(key)["state"] for key in tapers], ["open", "done"])
        self.put("wrong", step=tapers[1], of="l1", rescue="again")
        units = self.step(tapers[1])["units"]
        self.assertEqual([unit["done"] for unit in units], [False, True, True])

    def test_glue_must_set_before_what_leans_on_it_and_the_clock_ends_the_wait(self) -> None:
        self.through("glue.1")
        made = self.put("done", step="glue.1")
        after = self.put("done", step=made["next"]) if made["next"] == "wedge" else made
        waiting = next(one for one in after["steps"] if one["state"] == "waiting")
        self.assertIn(waiting["for_what"], ("the glue to set",))
        self.clock += timedelta(minutes=59)
        self.assertEqual(self.step(waiting["key"])["state"], "waiting")
        self.clock += timedelta(minutes=2)
        self.assertEqual(self.step(waiting["key"])["state"], "open")

    def test_a_joint_is_tried_on_scrap_until_it_was_made_in_another_piece(self) -> None:
        for piece in (self.made, self.call("POST", "/api/pieces", {"start": "board_sides"}).json()):
            self.call("PUT", f"/api/pieces/{piece['id']}/finished", {"finished": True})
        self.assertIn("practice", [step["key"] for step in self.build()["steps"]])
        other = f"/api/pieces/{self.new(name='The next')['id']}/build"
        self.assertNotIn("practice", [step["key"] for step in self.call("GET", other).json()["steps"]])

    def test_what_leans_on_a_wait_further_on_is_not_offered_meanwhile(self) -> None:
        self.through("glue.1")
        self.put("done", step="glue.1")
        made = self.put("done", step="wedge")
        self.assertNotIn(made["next"], ("finish", "write_down", "ease_feet"))

    def test_six_are_worked_step_by_step_each_on_its_own(self) -> None:
        piece = {**self.made["piece"], "make": 6}
        self.call("PUT", self.path, {"document": piece, "based_on": 1})
        for copy in (1, 2):
            self.put("done", step="ready", copy_number=copy)
        made = self.build(2)
        self.assertEqual((made["next"], made["next_copy"]), ("ready", 3))
        self.assertEqual([one["copies_done"] for one in made["steps"][:2]], [2, 0])
        for copy in (3, 4, 5, 6):
            made = self.put("done", step="ready", copy_number=copy)
        self.assertEqual((made["next"], made["next_copy"]), ("practice", 1))

    def test_two_devices_at_one_step_tick_it_once(self) -> None:
        for _ in range(2):
            self.put("done", step="ready", token="a1")
        self.assertEqual(UnitDone.objects.count(), 1)
        self.assertEqual(len(self.log()), 1)

    def test_a_step_that_is_no_more_is_said_and_nothing_is_ticked(self) -> None:
        refused = self.put("done", 422, step="gone")
        self.assertIn("Look at the order of work again", refused["detail"])
        for unit, named in (({"key": "k", "operation": "bore", "of": "l9"}, "l9"),
                            ({"key": "ready", "operation": "bore", "of": ""}, "ready")):  # fmt: skip
            refused = self.put("done", 422, step="bore.l1", units=[unit])
            self.assertEqual((refused["faults"][0]["field"], refused["faults"][0]["got"]), ("units", named))
        self.assertEqual(UnitDone.objects.count(), 0)


class Timing(BuildCase):
    def test_a_timer_survives_and_its_minutes_go_to_the_step(self) -> None:
        self.put("timer", step="ready", run=True)
        self.clock += timedelta(minutes=20)
        self.put("timer", step="ready", run=False)
        self.clock += timedelta(hours=3)
        self.put("timer", step="ready", run=True)
        self.clock += timedelta(minutes=10)
        made = self.put("done", step="ready")
        self.assertAlmostEqual(made["spent"], 30.0)
        self.assertEqual(Timer.objects.count(), 0)

    def test_one_pair_of_hands_has_one_timer(self) -> None:
        self.put("timer", step="ready", run=True)
        self.clock += timedelta(minutes=5)
        self.put("timer", step="lay_out", run=True)
        first, second = self.step("ready"), self.step("lay_out")
        self.assertEqual((first["since"], first["seconds"]), (None, 300.0))
        self.put("done", step="practice", minutes=12)
        self.assertEqual(self.build()["spent"], 17.0)
        self.assertIsNotNone(second["since"])

    def test_a_clock_set_back_an_hour_is_said_and_the_pages_own_count_is_taken(self) -> None:
        self.put("timer", step="ready", run=True)
        self.clock += timedelta(minutes=-40)
        said = self.put("done", step="ready", seconds=1200)
        self.assertIn("clock was changed", said["said"])
        self.assertAlmostEqual(said["spent"], 20.0)

    def test_where_both_clocks_agree_nothing_is_said(self) -> None:
        self.put("timer", step="ready", run=True)
        self.clock += timedelta(minutes=40)
        said = self.put("done", step="ready", seconds=2399)
        self.assertEqual((said["said"], said["spent"]), ("", 40.0))

    def test_a_timer_left_running_over_the_night_counts_nothing_and_says_so(self) -> None:
        self.put("timer", step="ready", run=True)
        self.clock += timedelta(hours=15)
        said = self.put("done", step="ready")
        self.assertIn("Type the minutes", said["said"])
        self.assertEqual(said["spent"], 0.0)

    def test_what_was_done_while_the_workshop_was_away_counts_from_when_it_was_done(self) -> None:
        self.put("timer", step="ready", run=True, ago=3600)
        self.put("done", step="ready", ago=1200)
        self.assertAlmostEqual(self.build()["spent"], 40.0)
        self.assertEqual(UnitDone.objects.get().at, NOON - timedelta(minutes=20))

    def test_typed_minutes_are_taken_before_the_timers(self) -> None:
        self.put("timer", step="ready", run=True)
        self.clock += timedelta(minutes=50)
        self.assertEqual(self.put("done", step="ready", minutes=35)["spent"], 35.0)

    def test_ones_own_times_feed_the_next_piece(self) -> None:
        usual = self.step("lay_out")
        self.put("done", step="lay_out", minutes=50)
        for _ in range(2):
            other = self.new(name="Another")
            where = f"/api/pieces/{other['id']}/build/done"
            self.call("PUT", where, {"step": "lay_out", "minutes": 55})
        made = self.new(name="The next")
        steps = self.call("GET", f"/api/pieces/{made['id']}/build").json()["steps"]
        own = next(one for one in steps if one["key"] == "lay_out")
        self.assertEqual((usual["whose"], own["minutes"], own["whose"]), (0, 55.0, 3))


class Gluing(BuildCase):
    def glued(self, how: str = "home", **more: Any) -> dict[str, Any]:
        joints = [{"name": f"leg {k} in the seat", "outcome": how} for k in (1, 2, 3)]
        body = {"steps": ["glue.1"], "dry": False, "seconds": 270, "joints": joints, **more}
        return self.put("glued", **body)

    def test_in_earnest_and_to_the_end_the_stage_is_done_and_dry_it_is_not(self) -> None:
        self.glued(dry=True)
        self.assertNotEqual(self.step("glue.1")["state"], "done")
        self.glued(stopped=True)
        self.assertNotEqual(self.step("glue.1")["state"], "done")
        self.glued()
        self.assertEqual(self.step("glue.1")["state"], "done")
        self.assertAlmostEqual(self.build()["spent"], 4.5)
        says = [line["says"] for line in self.log("?sort=glue")]
        self.assertEqual(says[0], "3 joints in 4.5 min; all home")
        self.assertIn("stopped midway", says[1])

    def test_a_gap_is_kept_with_its_joint(self) -> None:
        self.glued("gap", note="clamps too short")
        self.assertEqual(
            self.log("?sort=glue")[0]["says"],
            "3 joints in 4.5 min; leg 1 in the seat with a gap; leg 2 in the seat with a gap; "
            "leg 3 in the seat with a gap; clamps too short",
        )

    def test_ones_own_pace_is_the_middle_of_ones_glue_ups(self) -> None:
        def told() -> tuple[float, int]:
            made = self.call("GET", f"{self.path}/build/glueup").json()
            return made["pace"], made["paced_by"]

        self.glued(seconds=180)
        self.assertEqual(told()[1], 0)
        self.glued(seconds=360)
        self.glued(seconds=900, dry=True)
        self.glued(joints=[])
        self.assertEqual(told(), (1.5, 2))

    def test_a_step_that_is_none_is_refused(self) -> None:
        refused = self.put("glued", 422, steps=["glue.9"], dry=True, seconds=3, joints=[])
        self.assertIn("a step of this piece", refused["detail"])


class Worth(BuildCase):
    def cost(self) -> dict[str, Any]:
        return dict(self.call("GET", f"{self.path}/build/cost").json())

    def test_what_it_cost_follows_ticks_notes_the_rate_and_what_was_paid(self) -> None:
        self.put("done", step="ready", minutes=90)
        self.call("POST", f"{self.path}/log", {"sort": "time", "minutes": 30, "says": "sharpening"})
        self.order(spent=[{"what": "ash", "amount": 24}])
        self.assertEqual(self.cost()["cost"]["total"], 24)
        kept = self.call("PUT", "/api/pieces/rate", {"rate": 30, "money": "kr"})
        self.assertEqual(kept.status_code, 200)
        told = self.cost()
        self.assertEqual((told["cost"]["hours"], told["cost"]["total"], told["money"]), (2.0, 84.0, "kr"))
        self.put("wrong", step="ready", rescue="as_is")
        # One out of another shop's log says nothing of what was scrapped.
        Entry.objects.create(piece_id=self.made["id"], sort="mishap", at=NOON)
        told = self.cost()["cost"]
        self.assertEqual((told["mishaps"], told["scrapped"]), (2, 0))
        self.assertIn("paid: ash, 24", [line["says"] for line in self.log("?sort=order")])
        self.assertEqual(self.call("PUT", "/api/pieces/rate", {"rate": -3}).status_code, 422)

    def test_built_again_it_has_its_order_its_leans_as_read_and_nothing_ticked_or_promised(self) -> None:
        self.order(glue="hide", promised="2026-04-01", spent=[{"what": "ash", "amount": 24}])
        self.call("PUT", f"{self.path}/readings/bore.l2", {"typed": "15.2"})
        made = self.call("POST", f"{self.path}/again", {"as_built": True})
        self.assertEqual(made.status_code, 201, made.content)
        path = f"/api/pieces/{made.json()['id']}"
        piece = self.call("GET", path).json()
        self.assertEqual((piece["piece"]["name"], piece["readings"]), ("Lantern stool 2", []))
        angles = piece["piece"]["supports"][0]["angles"]
        self.assertEqual([one["resultant"] for one in angles], [14.0, 15.2, 14.0])
        build = self.call("GET", f"{path}/build").json()
        document = build["document"]
        self.assertEqual((document["glue"], document["promised"], document["spent"]), ("hide", None, []))
        self.assertFalse(any(step["state"] == "done" for step in build["steps"]))
        self.assertEqual(build["number"], 1)
        plain = self.call("POST", f"{self.path}/again", {}).json()
        again = self.call("GET", f"/api/pieces/{plain['id']}").json()["piece"]
        self.assertEqual(again["supports"], self.made["piece"]["supports"])


class Class(BuildCase):
    def test_an_order_is_handed_out_judged_kept_and_counted(self) -> None:
        given = self.call("GET", f"{self.path}/class?learner=kim").json()
        keys = [one["key"] for one in given["steps"]]
        answer = self.call("PUT", f"{self.path}/class", {"learner": "kim", "order": keys})
        self.assertTrue(answer.json()["wrong"])
        good = [step["key"] for step in self.build()["steps"]]
        self.call("PUT", f"{self.path}/class", {"learner": "jo", "order": good})
        told = self.call("GET", f"{self.path}/class").json()
        self.assertEqual([one["learner"] for one in told["handed_in"]], ["jo", "kim"])
        self.assertEqual((told["handed_in"][0]["wrong"], told["common"][0]["learners"]), (0, 1))
        self.call("PUT", f"{self.path}/class", {"learner": "kim", "order": good})
        self.assertEqual(self.call("GET", f"{self.path}/class").json()["common"], [])
        refused = self.call("PUT", f"{self.path}/class", {"learner": "kim", "order": good[1:]})
        self.assertIn("every step of the piece once", refused.json()["detail"])


class OwnOrder(BuildCase):
    def test_what_a_maker_reorders_is_kept_with_the_reason_it_breaks(self) -> None:
        keys = [one["key"] for one in self.build()["steps"]]
        made = self.order(order=["bore.l1", *keys])
        self.assertEqual(made["steps"][0]["key"], "bore.l1")
        self.assertIn(
            "the holes are bored on its marks", [one["why"] for one in made["steps"][0]["broken"]]
        )
        self.assertEqual(made["number"], 1)

    def test_somebody_elses_change_is_not_overwritten(self) -> None:
        self.order(split=["bore.l1"])
        self.order(409, glue="hide")
        self.assertEqual(self.build()["document"]["split"], ["bore.l1"])
        self.order(based_on=1, glue="hide", split=["bore.l1"])
        self.assertEqual(self.build()["document"]["glue"], "hide")

    def test_a_step_of_ones_own_is_ones_own(self) -> None:
        made = self.order(added=[{"id": "o1", "title": "Stamp the year", "before": "write_down"}])
        self.assertEqual([one["title"] for one in made["steps"] if one["own"]], ["Stamp the year"])

    def test_what_is_read_shows_that_it_was_done(self) -> None:
        self.assertEqual(self.build()["shown_done"], [])
        for leg in ("l1", "l2", "l3"):
            self.call("PUT", f"{self.path}/readings/bore.{leg}", {"typed": "14"})
        shown = self.build()["shown_done"]
        wants = {want["key"] for want in self.step("bore.l1")["wants"]}
        self.assertIn("bore.l1", shown)
        self.assertLessEqual(wants, set(shown))
        self.assertNotIn("level", shown)

    def test_a_circle_is_refused_in_words_and_nothing_changes(self) -> None:
        added = [{"id": "o1", "title": "A", "after": ["o2"]}, {"id": "o2", "title": "B", "after": ["o1"]}]
        refused = self.order(422, added=added)
        self.assertIn("in a circle", refused["detail"])
        self.assertEqual(self.build()["number"], 0)

    def test_an_order_kept_is_the_next_such_pieces_and_no_other_kinds(self) -> None:
        keys = [one["key"] for one in self.build()["steps"]]
        tenon = next(k for k in keys if "tenon" in k)
        before = self.build()
        self.order(order=[tenon, *[k for k in keys if k != tenon]])
        self.put("kept")
        alike, other = (
            self.new(name="Alike"),
            self.call("POST", "/api/pieces", {"start": "board_sides"}).json(),
        )
        steps = self.call("GET", f"/api/pieces/{alike['id']}/build").json()
        at = [one["operation"] for one in steps["steps"]]
        self.assertLess(at.index("tenon"), at.index("lay_out"))
        self.assertTrue(steps["kept"])
        self.assertFalse(before["kept"])
        self.assertFalse(self.call("GET", f"/api/pieces/{other['id']}/build").json()["kept"])
