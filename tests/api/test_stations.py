"""What a station is sent: its own cards, proofs and drawings, the shared head, and no bare geometry."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any, ClassVar

import workshop.demo
from splay.piece import write_piece
from splay.piece.starters import STARTS, starter
from tests.api.base import ApiCase

STATIONS = ("stance", "top", "boring", "legs", "stretchers", "level")


class Stations(ApiCase):
    def sent(self, name: str, station: str) -> tuple[dict[str, Any], int]:
        answer = self.call("POST", "/api/plan", {"piece": write_piece(starter(name)), "station": station})
        self.assertEqual(answer.status_code, 200, answer.content[:300])
        return dict(answer.json()), len(answer.content)

    def test_each_is_sent_its_own_cards_and_proofs_and_together_they_are_all_there_are(self) -> None:
        for name in ("bench", "slab", "plane_frames"):
            whole, _ = self.sent(name, "all")
            cards: list[str] = []
            proofs: list[str] = []
            for station in STATIONS:
                plan = self.sent(name, station)[0]["plan"]
                self.assertEqual({c["station"] for c in plan["setups"]} - {station}, set())
                self.assertEqual({p["station"] for p in plan["proofs"]} - {station}, set())
                cards += [c["id"] for c in plan["setups"]]
                proofs += [p["id"] for p in plan["proofs"]]
                for shared in ("chosen", "stations", "findings", "legs"):
                    self.assertEqual(plan[shared], whole["plan"][shared], f"{name} {station} {shared}")
            self.assertEqual(sorted(cards), sorted(c["id"] for c in whole["plan"]["setups"]))
            self.assertEqual(sorted(proofs), sorted(p["id"] for p in whole["plan"]["proofs"]))

    def test_every_card_a_station_is_sent_has_its_picture_there(self) -> None:
        for name in ("bench", "crossed", "battened"):
            for station in STATIONS:
                made, _ = self.sent(name, station)
                drawn = set(made["drawings"]["pictures"])
                self.assertLessEqual({c["id"] for c in made["plan"]["setups"]}, drawn)

    def test_a_drag_under_way_is_sent_the_same_figures_without_cards_proofs_or_stations(self) -> None:
        body = {"piece": write_piece(starter("bench")), "station": "stance"}
        body["moves"] = [{"moves": "foot", "view": "plan", "to": [-480, -180], "leg": 1}]
        whole = self.call("POST", "/api/plan", body).json()
        live = self.call("POST", "/api/plan", {**body, "live": True}).json()
        for name in ("legs", "sizes", "chosen", "numbering"):
            self.assertEqual(live["plan"][name], whole["plan"][name])
        self.assertEqual(
            live["drawings"]["piece"][0]["shapes"][:5], whole["drawings"]["piece"][0]["shapes"][:5]
        )
        self.assertEqual((live["plan"]["stations"], live["plan"]["proofs"]), ([], []))
        # Only the stance has such drags: a card's setting follows a stretcher while it is held.
        kept = self.call("POST", "/api/plan", {**body, "station": "stretchers", "live": True}).json()
        self.assertTrue(kept["plan"]["setups"] and kept["plan"]["stations"])

    def test_bare_geometry_and_the_facts_behind_the_words_stay_in_the_core(self) -> None:
        made, _ = self.sent("bench", "all")
        self.assertFalse({"stance", "known"} & set(made["plan"]))
        for card in made["plan"]["setups"]:
            self.assertFalse({"lays", "does", "uses", "makes", "scene"} & set(card))


class Opened(ApiCase):
    """Of cards, steps and parts a station answers with what is looked at."""

    MOST: ClassVar = {"stance": 40_000}
    MOST_OTHER = 70_000

    def ask(self, piece: dict[str, Any], station: str, **opened: Any) -> Any:
        body = {"piece": piece, "station": station, "opened": opened}
        answer = self.call("POST", "/api/plan", body)
        self.assertEqual(answer.status_code, 200, answer.content[:200])
        return answer

    def test_every_answer_is_small(self) -> None:
        demo = Path(workshop.demo.__file__).parent / "pieces"
        pieces = {name: write_piece(starter(name)) for name in STARTS}
        pieces |= {path.stem: json.loads(path.read_text()) for path in sorted(demo.glob("*.json"))}
        self.assertGreater(len(pieces), 20)
        for name, piece in pieces.items():
            for station in ("stance", "top", "boring", "legs", "stretchers", "level"):
                size = len(self.ask(piece, station).content)
                with self.subTest(name, station=station):
                    self.assertLessEqual(size, self.MOST.get(station, self.MOST_OTHER))

    def test_the_card_asked_for_comes_else_the_first_for_the_tool_used_last_that_reaches(self) -> None:
        piece = write_piece(starter("bench"))
        whole = self.call("POST", "/api/plan", {"piece": piece, "station": "boring"}).json()
        works = whole["plan"]["works"]
        self.assertEqual([one["id"] for one in works], [card["id"] for card in whole["plan"]["setups"]])
        other = works[3]
        for opened, wanted in (
            ({}, next(one["id"] for one in works if one["first"])),
            ({"card": other["id"]}, other["id"]),
            ({"by": other["by"]}, next(one["id"] for one in works if one["by"] == other["by"])),
            ({"card": "none there is"}, next(one["id"] for one in works if one["first"])),
        ):
            got = self.ask(piece, "boring", **opened).json()
            with self.subTest(opened):
                self.assertEqual([card["id"] for card in got["plan"]["setups"]], [wanted])
                self.assertEqual(list(got["drawings"]["pictures"]), [wanted])
                self.assertEqual(len(got["plan"]["works"]), len(works))
                self.assertEqual(got["plan"]["turns"], whole["plan"]["turns"])
        # Out of its reach the tool used last gives way.
        got = self.ask({**piece, "supports": [self.steep(piece)]}, "boring", by=other["by"]).json()
        shown = got["plan"]["setups"][0]
        self.assertTrue(shown["in_reach"])

    def steep(self, piece: dict[str, Any]) -> dict[str, Any]:
        support = json.loads(json.dumps(piece["supports"][0]))
        support["angles"] = [{"by": "splay_rake", "splay": 40.0, "rake": 40.0}]
        return support

    def test_the_step_and_the_part_asked_for_are_drawn_and_the_marks_when_they_are_looked_at(self) -> None:
        piece = write_piece(starter("bench"))
        for step, name in ((0, "step.1"), (2, "step.3"), (999, None)):
            views = self.ask(piece, "top", step=step).json()["drawings"]["layout"]
            self.assertEqual(len(views), 1)
            if name:
                self.assertEqual(views[0]["name"], name)
        for more in (False, True):
            got = self.ask(piece, "stretchers", more=more).json()
            self.assertEqual(bool(got["drawings"]["marks"]), more)
            self.assertEqual(got["plan"]["assembly"] is not None, more)
        frames = write_piece(starter("plane_frames"))
        for part in ("s1.front.cross.2", "s1.link.1"):
            views = self.ask(frames, "stretchers", part=part).json()["drawings"]["sticks"]
            self.assertEqual([view["name"] for view in views], [part])
