"""Whatever is sent, the API answers in its own words: never a 500, never a number that is none."""

from __future__ import annotations

import json
import random
from copy import deepcopy
from typing import Any

from splay.piece import write_piece
from splay.piece.starters import STARTS, starter
from splay.shop import workbench, write_shop
from tests.api.base import ApiCase

ODD: tuple[Any, ...] = (
    None, True, False, 0, -1, 1e308, -1e308, 1e-300, 89.999999, 360, "", " ", "1/0", "nan", "∞", "½",
    "16 1/2 in", "x" * 5000, [], {}, [[]], {"kind": "round"}, {"by": "under_rim"}, "\u0000", "🪑",
)  # fmt: skip
ROUNDS = 400


def places(document: Any, path: tuple[Any, ...] = ()) -> list[tuple[Any, ...]]:
    """Every place of a document, leaves and branches."""
    found = [path] if path else []
    if isinstance(document, dict):
        for key, value in document.items():
            found += places(value, (*path, key))
    elif isinstance(document, list):
        for index, value in enumerate(document):
            found += places(value, (*path, index))
    return found


def spoiled(document: Any, chance: random.Random) -> Any:
    """A document with one to three of its places put wrong, taken out or doubled."""
    made = json.loads(json.dumps(document))
    for _ in range(chance.randint(1, 3)):
        path = chance.choice(places(made))
        here = made
        for step in path[:-1]:
            here = here[step]
        what = chance.random()
        if what < 0.15:
            del here[path[-1]]
        elif what < 0.3 and isinstance(here, dict):
            here[f"{path[-1]}_"] = deepcopy(chance.choice(ODD))
        elif what < 0.5 and isinstance(here[path[-1]], int | float):
            here[path[-1]] = here[path[-1]] * chance.choice((-1, 0, 0.01, 3, 40))
        else:
            here[path[-1]] = deepcopy(chance.choice(ODD))
        if not places(made):
            break
    return made


class Fuzz(ApiCase):
    def answered(self, method: str, path: str, body: Any) -> int:
        answer = self.call(method, path, body)
        status = int(answer.status_code)
        self.assertLess(status, 500, (path, body, answer.content[:300]))
        if answer.content:
            said = json.loads(answer.content, parse_constant=lambda name: self.fail(f"{name} in {path}"))
            if status >= 400:
                self.assertEqual(said["status"], status)
                self.assertTrue(said["detail"])
                for fault in said["faults"]:
                    self.assertTrue(fault["do"] and fault["allowed"], fault)
        return status

    def test_spoiled_pieces_are_planned_or_refused_with_reasons(self) -> None:
        chance = random.Random(20_26)
        statuses = set()
        for round_ in range(ROUNDS):
            name = tuple(STARTS)[round_ % len(STARTS)]
            document = spoiled(write_piece(starter(name)), chance)
            statuses.add(self.answered("POST", "/api/plan", {"piece": document}))
        self.assertEqual(statuses, {200, 422})

    def test_spoiled_shops_moves_and_readings_are_too(self) -> None:
        chance = random.Random(7)
        good = {
            "piece": write_piece(starter("bench")),
            "shop": write_shop(workbench()),
            "moves": [{"moves": "foot", "view": "plan", "to": [300, 200], "leg": 3}],
            "restate": [{"what": "angle", "to": "resultant", "leg": 1, "measured_from": "side"}],
            "readings": [{"proof": "bore.l1", "value": 14.0}, {"proof": "foot.l2", "value": "430 mm"}],
            "bare": "metric",
            "station": "all",
        }
        self.assertEqual(self.answered("POST", "/api/plan", good), 200)
        for _ in range(ROUNDS // 2):
            self.answered("POST", "/api/plan", spoiled(good, chance))

    def test_spoiled_questions_are_too(self) -> None:
        chance = random.Random(11)
        for _ in range(ROUNDS // 4):
            self.answered("POST", "/api/angles", spoiled({"splay": 10, "rake": 6}, chance))
            self.answered("POST", "/api/quick/lean", spoiled({"resultant": "12", "from_side": 40}, chance))
            self.answered(
                "POST", "/api/quick/mitre", spoiled({"splay": 15, "rail": "60", "leg": 50}, chance)
            )
            self.answered("PUT", "/api/shop", {"shop": spoiled(write_shop(workbench()), chance)})

    def test_spoiled_saves_leave_what_was_kept(self) -> None:
        made = self.new(name="Kept")
        chance = random.Random(13)
        for _ in range(ROUNDS // 4):
            body = spoiled({"document": made["piece"], "based_on": made["revision"]}, chance)
            status = self.answered("PUT", f"/api/pieces/{made['id']}", body)
            if status == 200:
                kept = self.call("GET", f"/api/pieces/{made['id']}").json()
                made = {**made, "piece": kept["piece"], "revision": kept["revision"]}
        now = self.call("GET", f"/api/pieces/{made['id']}").json()
        self.assertEqual(now["piece"], made["piece"])
        first = self.call("GET", f"/api/pieces/{made['id']}/revisions/1").json()
        self.assertEqual(first["piece"]["name"], "Kept")
