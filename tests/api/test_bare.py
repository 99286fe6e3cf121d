"""A figure without a unit is in the unit that is named with it, else in the shop's: at every address."""

from __future__ import annotations

from typing import Any

from splay.piece import write_piece
from splay.piece.starters import starter
from tests.api.base import ApiCase

TRUE_MM = 457.2


class BareFigures(ApiCase):
    def test_each_address_reads_them_alike(self) -> None:
        for system in ("metric", "inch"):
            shop = self.call("GET", "/api/shop").json()["shop"]
            shop["rounding"]["system"] = system
            self.assertEqual(self.call("PUT", "/api/shop", {"shop": shop}).status_code, 200)
            for bare in ("", "metric", "inch"):
                typed = "18" if (bare or system) == "inch" else str(TRUE_MM)
                for about in (self.pieces, self.wood, self.shop):
                    for name, value in about(typed, {"bare": bare} if bare else {}).items():
                        with self.subTest(name, shop=system, bare=bare):
                            self.assertAlmostEqual(value, TRUE_MM, delta=0.06)

    def sent(self, method: str, path: str, body: dict[str, Any]) -> Any:
        answer = self.call(method, path, body)
        self.assertIn(answer.status_code, (200, 201), answer.content)
        return answer.json()

    def pieces(self, typed: str, named: dict[str, str]) -> dict[str, float]:
        document = {**write_piece(starter("round_three")), "height": typed}
        new = self.sent("POST", "/api/pieces", {"document": document, **named})
        path = f"/api/pieces/{new['id']}"
        again = {"document": {**document, "name": "Another"}, "based_on": 1, **named}
        self.sent("PUT", f"{path}/readings/foot.l1", {"typed": typed, **named})
        heard = {"piece": document, "proof": "foot.l1", "seed": 1, "size": 0.0, **named}
        read = {"proof": "foot.l1", "value": typed}
        planned = self.sent("POST", "/api/plan", {"piece": document, "readings": [read], **named})
        far = self.sent("POST", "/api/gauges/read", heard)["heard"]["value"]
        foot = next(one for one in planned["plan"]["proofs"] if one["id"] == "foot.l1")
        return {
            "a new piece": new["piece"]["height"],
            "a piece saved": self.sent("PUT", path, again)["piece"]["height"],
            "a plan": planned["piece"]["height"],
            "a reading of a plan": foot["answer"]["value"],
            "a gauge's piece": far - foot["expected"]["value"] + TRUE_MM,
            "a reading": self.call("GET", path).json()["readings"][0]["value"],
        }

    def wood(self, typed: str, named: dict[str, str]) -> dict[str, float]:
        board = {"kind": "board", "name": "B", "species": "ash, white", "thickness": "60 mm"}
        board |= dict.fromkeys(("length", "width"), typed)
        new = self.sent("POST", "/api/timber", {"item": board, **named})
        changed = {"item": board | {"name": "C"}, "based_on": 1, **named}
        table = f'kind,name,species,length,width,thickness\nboard,T,"ash, white",{typed},{typed},60 mm\n'
        taken_in = {"sort": "csv", "text": table, "sure": True, **named}
        self.assertEqual(self.sent("POST", "/api/timber/taken_in", taken_in)["taken"], 1)
        stock = self.call("GET", "/api/timber").json()["items"]
        taken = next(one for one in stock if one["item"]["name"] == "T")
        outline = f"x,y\n0,0\n{typed},0\n{typed},{typed}\n0,{typed}\n"
        corners = self.sent("POST", "/api/timber/outline", {"sort": "csv", "text": outline, **named})
        self.call("DELETE", f"/api/timber/{taken['id']}")
        return {
            "a board": new["item"]["length"],
            "a board changed": self.sent("PUT", f"/api/timber/{new['id']}", changed)["item"]["width"],
            "a table of boards": taken["item"]["length"],
            "an outline": max(x for x, _ in corners["corners"]),
        }

    def shop(self, typed: str, named: dict[str, str]) -> dict[str, float]:
        shop = self.call("GET", "/api/shop").json()["shop"]
        shop["tools"][2]["base"] = typed
        kept = self.sent("PUT", "/api/shop", {"shop": shop, **named})["shop"]
        return {"a tool of the shop": kept["tools"][2]["base"]}
