"""What goes wrong at a step over HTTP, and what its ways out do to ticks, readings and the piece."""

from __future__ import annotations

from datetime import timedelta
from typing import Any

from tests.api.test_build import BuildCase
from workshop.build.models import Entry


class Wrong(BuildCase):
    def ways(self, step: str, of: str = "") -> list[dict[str, Any]]:
        answer = self.call("GET", f"{self.path}/build/rescues?step={step}&of={of}")
        self.assertEqual(answer.status_code, 200, answer.content)
        return list(answer.json())

    def test_a_hole_gone_wrong_is_plugged_waited_for_read_anew_and_bored_again(self) -> None:
        self.through("bore.l1")
        self.put("done", step="bore.l1")
        for leg in ("l1", "l2"):
            self.call("PUT", f"{self.path}/readings/bore.{leg}", {"typed": "16"})
        plug = next(way for way in self.ways("bore.l1", "l2") if way["name"] == "plug")
        self.assertIn("28.0 mm thick", plug["do"][0])
        made = self.put("wrong", step="bore.l1", of="l2", rescue="plug", note="tore out")
        step = next(one for one in made["steps"] if one["key"] == "bore.l1")
        self.assertEqual([u["done"] for u in step["units"]], [True, False, True])
        self.assertEqual((step["state"], step["for_what"]), ("waiting", "the plug's glue to harden"))
        readings = self.call("GET", self.path).json()["readings"]
        self.assertEqual([one["proof"] for one in readings], ["bore.l1"])
        self.clock += timedelta(hours=13)
        self.assertEqual(self.step("bore.l1")["state"], "begun")
        line = self.log("?sort=mishap")[0]
        self.assertEqual((line["says"], line["rescue"]), ("tore out", "Plug it and bore again"))
        self.assertIn("1 reading put away", line["became"])

    def test_a_leg_cut_too_short_makes_the_whole_piece_lower_by_its_upright_part(self) -> None:
        key = next(one["key"] for one in self.build()["steps"] if one["operation"] == "foot_cut")
        before = self.call("GET", self.path).json()["piece"]
        self.put("wrong", step=key, of="l1", rescue="shorten", amount="10 mm")
        after = self.call("GET", self.path).json()
        # The starting stool leans 14 degrees: 10 mm along the leg are 9.70 mm upright (cos 14 = 0.97030).
        lean = before["supports"][0]["angles"][0]["resultant"]
        self.assertEqual(lean, 14.0)
        self.assertAlmostEqual(before["height"] - after["piece"]["height"], 9.703, places=3)
        self.assertEqual(after["revision"], 2)

    def test_two_legs_change_places_with_their_readings(self) -> None:
        key = next(one["key"] for one in self.build()["steps"] if one["operation"] == "fit")
        for proof, typed in (("foot.l1", "461"), ("foot.l2", "463")):
            self.call("PUT", f"{self.path}/readings/{proof}", {"typed": typed})
        self.put("wrong", step=key, of="l1", rescue="swap", other="l2")
        readings = {one["proof"]: one["typed"] for one in self.call("GET", self.path).json()["readings"]}
        self.assertEqual(
            {k: v.split()[0] for k, v in readings.items()}, {"foot.l1": "463", "foot.l2": "461"}
        )
        refused = self.put("wrong", 422, step=key, of="l1", rescue="swap", other="l1")
        self.assertIn("another leg", refused["detail"])

    def test_a_spare_is_offered_as_long_as_there_is_one(self) -> None:
        piece = self.call("GET", self.path).json()["piece"]
        piece["supports"][0]["leg"]["spare"] = 1
        self.call("PUT", self.path, {"document": piece, "based_on": 1})
        key = next(one["key"] for one in self.build()["steps"] if one["operation"] == "tenon")
        self.through(key)
        self.put("done", step=key)
        self.assertIn("spare", [way["name"] for way in self.ways(key, "l1")])
        made = self.put("wrong", step=key, of="l1", rescue="spare", note="split")
        step = next(one for one in made["steps"] if one["key"] == key)
        self.assertEqual([u["done"] for u in step["units"]], [False, True, True])
        self.assertNotIn("spare", [way["name"] for way in self.ways(key, "l1")])
        self.assertEqual(Entry.objects.get(sort="mishap").data["scrapped"], 1)

    def test_a_part_made_again_goes_through_all_that_was_done_to_it_and_nothing_of_the_seat(self) -> None:
        key = next(one["key"] for one in self.build()["steps"] if one["operation"] == "foot_cut")
        self.through(key)
        made = self.put("wrong", step=key, of="l3", rescue="anew")
        undone = {
            step["operation"]
            for step in made["steps"]
            for unit in step["units"]
            if unit["of"] == "l3" and not unit["done"] and step["state"] == "begun"
        }
        self.assertEqual(undone, {"tenon", "octagon", "taper", "round", "mark"})
        self.assertEqual(self.step("bore.l1")["state"], "done")

    def test_a_way_out_that_is_none_is_refused_and_one_sent_twice_counts_once(self) -> None:
        refused = self.put("wrong", 422, step="ready", rescue="pray")
        self.assertIn("Choose one of those that are shown", refused["detail"])
        for _ in range(2):
            self.put("wrong", step="ready", rescue="as_is", note="knot", token="w1")
        self.assertEqual(len(self.log()), 1)

    def two_sets(self, **leg: Any) -> tuple[list[str], list[str]]:
        """The piece gets a second set of legs, both with what is said of a leg; the legs of each."""
        ask = [{"what": "support", "to": "staked_legs", "support": 1}]
        made = self.call("POST", "/api/plan", {"piece": self.made["piece"], "restate": ask}).json()["piece"]
        for support in made["supports"]:
            support["leg"] |= leg
        saved = self.call("PUT", self.path, {"document": made, "based_on": 1})
        self.assertEqual(saved.status_code, 200, saved.content)
        step = self.steps("tenon")
        sets = [[unit["of"] for unit in one["units"]] for one in step]
        return sets[0], sets[1]

    def steps(self, operation: str) -> list[dict[str, Any]]:
        return [one for one in self.build()["steps"] if one["operation"] == operation]

    def test_each_set_has_its_own_spare(self) -> None:
        first, second = self.two_sets(spare=1)
        keys = [one["key"] for one in self.steps("tenon")]
        self.put("wrong", step=keys[0], of=first[0], rescue="spare")
        self.assertNotIn("spare", [way["name"] for way in self.ways(keys[0], first[1])])
        for leg in second:
            self.assertIn("spare", [way["name"] for way in self.ways(keys[1], leg)])

    def test_a_leg_changes_places_with_none_of_another_set_and_with_none_there_is_not(self) -> None:
        first, second = self.two_sets()
        fit = self.steps("fit")[0]["key"]
        for other in (second[0], "l99", ""):
            refused = self.put("wrong", 422, step=fit, of=first[0], rescue="swap", other=other)
            self.assertIn("another leg of the same set", refused["detail"])

    def test_what_a_leg_lacks_is_a_length_and_said_by_how_much_the_piece_is_lower(self) -> None:
        key = self.steps("foot_cut")[0]["key"]
        for amount in ("0", "-3 mm"):
            refused = self.put("wrong", 422, step=key, of="l1", rescue="shorten", amount=amount)
            self.assertIn("Type what it lacks", refused["detail"])
        self.put("wrong", step=key, of="l1", rescue="shorten", amount="0.8 mm", note="slipped")
        # By the cosine of its 14 degrees: 0.776 mm.
        self.assertEqual(self.log("?sort=mishap")[0]["became"], ["the piece is 1 mm lower"])

    def test_of_works_done_at_one_go_the_one_gone_wrong_is_read_again(self) -> None:
        made = self.order(merged=[["bore.l1", "cut_outline"]])
        step = next(one for one in made["steps"] if one["merged"])
        self.assertGreater(len({unit["key"] for unit in step["units"]}), 1)
        self.through(step["key"])
        self.put("done", step=step["key"])
        self.call("PUT", f"{self.path}/readings/bore.l1", {"typed": "16"})
        self.put("wrong", step=step["key"], of="l1", rescue="again")
        self.assertEqual(self.call("GET", self.path).json()["readings"], [])

    def test_what_is_done_again_is_read_again_at_every_step_it_goes_through(self) -> None:
        first, _ = self.two_sets()
        self.through(self.steps("fit")[0]["key"])
        for leg in first[:2]:
            for proof, typed in (("bore", "14"), ("foot", "462")):
                self.call("PUT", f"{self.path}/readings/{proof}.{leg}", {"typed": typed})
        self.put("wrong", step=self.steps("foot_cut")[0]["key"], of=first[0], rescue="anew")
        readings = [one["proof"] for one in self.call("GET", self.path).json()["readings"]]
        self.assertEqual(sorted(readings), [f"bore.{first[0]}", f"bore.{first[1]}", f"foot.{first[1]}"])
