"""Ids over HTTP: what is added gets one nothing ever had, and readings stay where they were taken."""

from __future__ import annotations

import json
from importlib import import_module
from pathlib import Path
from typing import Any

from django.apps import apps

from splay.piece import read_piece, write_piece
from splay.piece.starters import starter
from splay.shop import read_shop, workbench, write_shop
from tests.api.base import ApiCase
from workshop.pieces.models import PieceRow, ReadingEvent, ReadingRow, Revision

OLD = Path(__file__).parents[1] / "files"


class Names(ApiCase):
    def plan(self, piece: dict[str, Any], **more: Any) -> dict[str, Any]:
        answer = self.call("POST", "/api/plan", {"piece": piece, **more})
        self.assertEqual(answer.status_code, 200, answer.content[:400])
        return dict(answer.json())

    def test_readings_stay_with_their_legs_when_a_set_comes_and_goes(self) -> None:
        made = self.new()
        first = made["piece"]["supports"][0]["id"]
        two = self.plan(made["piece"], restate=[{"what": "support", "to": "staked_legs", "support": 1}])
        legs = [leg["id"] for leg in two["plan"]["legs"]]
        self.assertEqual(len(set(legs)), 5)
        body = {"document": two["piece"], "based_on": 1}
        self.assertEqual(self.call("PUT", f"/api/pieces/{made['id']}", body).status_code, 200)
        for leg, typed in ((legs[0], "20"), (legs[3], "11")):
            answer = self.call("PUT", f"/api/pieces/{made['id']}/readings/bore.{leg}", {"typed": typed})
            self.assertEqual(answer.status_code, 200, answer.content)
        readings = self.call("GET", f"/api/pieces/{made['id']}").json()["readings"]
        sent = [{"proof": r["proof"], "kind": r["kind"], "value": r["value"]} for r in readings]
        one = self.plan(two["piece"], restate=[{"what": "away", "to": first}], readings=sent)
        measured = {leg["id"]: leg["measured"] for leg in one["plan"]["legs"]}
        self.assertEqual(measured, {legs[3]: True, legs[4]: False})
        rest = next(f for f in one["plan"]["findings"] if f["code"] == "readings_rest")
        self.assertEqual((rest["station"], rest["level"]), ("boring", "note"))
        back = self.plan(two["piece"], readings=sent)
        self.assertTrue(back["plan"]["legs"][0]["measured"])

    def test_a_set_taken_away_and_put_in_again_is_another_one(self) -> None:
        piece = self.new()["piece"]
        ask = [{"what": "support", "to": "staked_legs", "support": 1}]
        once = self.plan(piece, restate=ask)["piece"]["supports"][1]
        again = self.plan(piece, restate=ask)["piece"]["supports"][1]
        self.assertNotEqual(once["id"], again["id"])
        legs = [support["placement"]["spots"][0]["legs"] for support in (once, again)]
        self.assertFalse(set(legs[0]) & set(legs[1]))

    def test_taken_away_a_leg_set_takes_its_stretchers_and_a_stretcher_those_on_it(self) -> None:
        bench = write_piece(starter("bench"))
        without = self.plan(bench, restate=[{"what": "away", "to": "m1"}])["piece"]
        self.assertEqual([m["id"] for m in without["members"]], ["m2"])
        added = self.plan(bench, restate=[{"what": "support", "to": "plane_frames", "support": 1}])["piece"]
        left = self.plan(added, restate=[{"what": "away", "to": "s1"}])["piece"]
        self.assertEqual((len(left["supports"]), left["members"]), (1, []))
        for gone in ("s1", "m9"):
            answer = self.call(
                "POST", "/api/plan", {"piece": bench, "restate": [{"what": "away", "to": gone}]}
            )
            self.assertEqual(answer.status_code, 422, gone)

    def test_a_reading_the_piece_asks_no_more_is_kept_when_its_kind_is_said(self) -> None:
        made = self.new()
        where = f"/api/pieces/{made['id']}/readings/bore.gone1"
        self.assertEqual(self.call("PUT", where, {"typed": "14"}).status_code, 422)
        kept = self.call("PUT", where, {"typed": "14", "kind": "bore"})
        self.assertEqual((kept.status_code, kept.json()["value"]), (200, 14))

    def test_tools_keep_their_ids_and_version_1_of_a_shop_is_read(self) -> None:
        old = write_shop(workbench())
        old["version"] = 1
        for tool in old["tools"]:
            del tool["id"]
        read = read_shop(old)
        self.assertEqual([tool.id for tool in read.tools], [f"t{k + 1}" for k in range(len(read.tools))])
        self.assertEqual(read.version, 2)
        document = write_shop(read)
        document["tools"] = [*document["tools"][2:], {**document["tools"][2], "name": "Another ramp"}]
        kept = self.call("PUT", "/api/shop", {"shop": document}).json()["shop"]["tools"]
        self.assertEqual([tool["id"] for tool in kept[:-1]], [f"t{k + 3}" for k in range(len(kept) - 1)])
        self.assertNotIn(kept[-1]["id"], [tool.id for tool in read.tools])


class Renamed(ApiCase):
    def test_readings_kept_under_numbers_are_found_under_ids(self) -> None:
        """What the migration does to a workshop that was there before ids were."""
        kept = json.loads((OLD / "eyepiece-stool.v1.json").read_text(encoding="utf-8"))
        row = PieceRow.objects.create(latest=1)
        Revision.objects.create(piece=row, number=1, document=kept["document"])
        for proof, expected in kept["proofs"].items():
            ReadingRow.objects.create(piece=row, proof=proof, value=expected, typed=f"{expected:g}")
            ReadingEvent.objects.create(piece=row, proof=proof, what="answered", value=expected)
        import_module("workshop.pieces.migrations.0004_readings_by_id").rename(apps, None)
        made = self.call("GET", f"/api/pieces/{row.pk}").json()
        self.assertEqual(made["piece"]["version"], 2)
        sent = [{"proof": r["proof"], "kind": r["kind"], "value": r["value"]} for r in made["readings"]]
        answer = self.call("POST", "/api/plan", {"piece": made["piece"], "readings": sent}).json()
        asked = {p["id"]: p for p in answer["plan"]["proofs"]}
        found = {r["proof"] for r in made["readings"]}
        # Eight sides were read elsewhere then: what was read keeps its meaning, and is asked no more.
        elsewhere = {id for id in found if id.startswith("octagon.")}
        self.assertEqual(found - set(asked), elsewhere)
        # Wedges were not measured then, nor eight sides at the foot.
        self.assertEqual({asked[id]["kind"] for id in set(asked) - found}, {"wedge", "facet"})
        # Heights were expected of legs left over length then; now levelling begins with the proved feet.
        before_level = [p for id, p in asked.items() if p["station"] != "level" and id in found]
        self.assertGreater(len(before_level), 20)
        self.assertEqual({p["verdict"] for p in before_level}, {"fine"})
        self.assertEqual(
            set(ReadingEvent.objects.values_list("proof", flat=True)),
            {r["proof"] for r in made["readings"]},
        )
        self.assertEqual(read_piece(kept["document"]), read_piece(made["piece"]))
