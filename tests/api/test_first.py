"""The first minutes: what is asked once, units that are each maker's own, round sizes, the example."""

from __future__ import annotations

import re
from typing import Any

from django.contrib.auth import get_user_model

from splay.piece import read_piece
from splay.piece.rounded import in_round_figures
from splay.piece.starters import STARTS, starter
from splay.plan import plan
from splay.quantity import Show, Units
from splay.shop import workbench, write_shop
from splay.summary import chosen
from tests.api.base import ApiCase
from workshop.shop.models import OwnUnits, the_shop


class FirstMinutes(ApiCase):
    def shop(self, **change: Any) -> Any:
        return self.call("PUT", "/api/shop", {"shop": {**write_shop(workbench()), **change}}).json()

    def test_units_and_tools_are_asked_once(self) -> None:
        self.assertEqual(self.call("GET", "/api/shop").json()["unasked"], ["units", "tools"])
        self.assertEqual(self.shop(rounding={"system": "inch"})["unasked"], [])
        self.assertEqual(self.call("GET", "/api/shop").json()["unasked"], [])
        self.client.force_login(get_user_model().objects.create_user("linden"))
        self.assertEqual(self.client.get("/api/shop").json()["unasked"], ["units"])

    def test_units_are_each_makers_own_and_the_tools_everybodys(self) -> None:
        self.shop(rounding={"system": "inch"}, name="Larkmoor")
        linden = get_user_model().objects.create_user("linden")
        # Who has not said anything begins with the shop's units.
        self.assertEqual(the_shop(linden).rounding.system, "inch")
        OwnUnits.objects.create(maker=linden, rounding={"system": "metric"})
        self.assertEqual(the_shop(linden).rounding.system, "metric")
        made = self.new(name="Both")
        self.assertEqual(made["chosen"]["height"]["text"], '17 23/32"')
        self.client.force_login(linden)
        theirs = self.client.get(f"/api/pieces/{made['id']}").json()
        self.assertEqual(theirs["chosen"]["height"]["text"], "450 mm")
        rack = self.client.get("/api/pieces").json()
        self.assertEqual(rack[0]["height"]["text"], "450 mm")
        # A change of tools by the one changes no units of the other.
        self.token = self.client.get("/api/session").json()["csrf"]
        changed = self.call("PUT", "/api/shop", {"shop": {**write_shop(the_shop(linden)), "name": "Moor"}})
        self.assertEqual(changed.json()["shop"]["rounding"]["system"], "metric")
        ash = get_user_model().objects.get(username="ash")
        self.assertEqual((the_shop(ash).rounding.system, the_shop(ash).name), ("inch", "Moor"))
        # Nor those that whoever comes next begins with.
        rowan = get_user_model().objects.create_user("rowan")
        self.assertEqual(the_shop(rowan).rounding.system, "inch")

    def test_a_new_piece_has_round_sizes_in_the_units_chosen(self) -> None:
        self.shop(rounding={"system": "inch"})
        made = self.call("POST", "/api/pieces", {"start": "bench"}).json()
        self.assertEqual(made["chosen"]["height"]["text"], '17 1/2"')
        self.assertEqual(made["chosen"]["top.outline.length"]["text"], '38 1/2"')

    def test_every_start_in_inches_is_round_stands_and_says_nothing_new(self) -> None:
        """Nothing finer than 1/16 where it is over 1/4; and what is cautioned is what was cautioned."""
        show = Show(Units(system="inch", step_mm=0.5, fraction=64))
        for start in STARTS:
            with self.subTest(start):
                made = in_round_figures(starter(start), "inch")
                self.assertNotEqual(made, starter(start))
                self.assertEqual(in_round_figures(starter(start), "metric"), starter(start))
                for path, quantity in chosen(made, show).items():
                    if quantity.unit != "deg" and abs(quantity.value) > 6.5:
                        self.assertNotRegex(quantity.text, r"/(32|64)", path)
                before, after = (
                    {f.code for f in plan(one, workbench()).findings if f.level != "note"}
                    for one in (starter(start), made)
                )
                # A hundredth more or less can take a part past a saw's reach; nothing else may change.
                self.assertLessEqual(after - before, {"past_reach"})

    def test_every_tool_can_be_ticked_by_sight(self) -> None:
        found = self.call("GET", "/api/shop/tools").json()
        kinds = [tool["kind"] for tool in found["tools"]]
        self.assertEqual(len(kinds), len(set(kinds)))
        self.assertGreaterEqual(len(found["pictures"]), 14)
        self.assertLessEqual(set(found["pictures"]), set(kinds))
        self.assertTrue(all(view["shapes"] for view in found["pictures"].values()))

    def test_the_example_is_finished_and_can_be_thrown_away(self) -> None:
        for system in ("metric", "inch"):
            self.shop(rounding={"system": system})
            made = self.call("POST", "/api/pieces/example").json()
            self.assertTrue(made["finished"])
            self.assertTrue(re.fullmatch(r"Lantern stool, an example( 2)?", made["piece"]["name"]))
            asked = self.call("GET", "/api/pieces").json()[0]
            self.assertEqual((asked["finished"], asked["next"], asked["trouble"]), (True, None, ""))
            readings = [{k: r[k] for k in ("proof", "kind", "value", "sure")} for r in made["readings"]]
            body = {"piece": made["piece"], "readings": readings, "station": "all"}
            found = self.call("POST", "/api/plan", body).json()["plan"]
            self.assertTrue(any(one["good"] for one in found["level"]), found["level"][0]["said"])
            self.assertEqual({p["verdict"] for p in found["proofs"]}, {"fine"})
            self.assertTrue(all(s["answered"] == s["proofs"] for s in found["stations"]))
            # Nobody's hand is judged by it.
            self.assertTrue(all(p["usual"] is None for p in found["proofs"]))
            self.assertEqual(self.call("DELETE", f"/api/pieces/{made['id']}").status_code, 204)
            read_piece(made["piece"])
