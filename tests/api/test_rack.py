"""The rack: what hangs is drawn once, and one piece in trouble harms no other."""

from __future__ import annotations

from typing import Any
from unittest import mock

from splay.piece import write_piece
from splay.piece.starters import STARTS, starter
from splay.shop import workbench
from tests.api.base import ApiCase
from workshop.pieces import rack
from workshop.pieces.models import PieceRow, Revision
from workshop.shop.models import keep_shop


class Hanging(ApiCase):
    def hung(self) -> dict[str, Any]:
        answer = self.call("GET", "/api/pieces")
        self.assertEqual(answer.status_code, 200, answer.content[:300])
        return {one["name"]: one for one in answer.json()}

    def spoil(self, id: str, document: Any) -> None:
        row = PieceRow.objects.get(pk=id)
        Revision.objects.filter(piece=row, number=row.latest).update(document=document)
        PieceRow.objects.filter(pk=id).update(hung=None)

    def test_changes_are_counted_from_the_first(self) -> None:
        self.new()
        self.assertEqual(PieceRow.objects.get().turn, 1)

    def test_one_state_that_cannot_be_read_hangs_named_and_the_others_hang_as_ever(self) -> None:
        self.new(name="Sound")
        for k, document in enumerate(
            (
                {**write_piece(starter("bench")), "name": "From tomorrow 0", "version": 7},
                {"name": "From tomorrow 1"},
                {"name": "From tomorrow 2", "supports": [{"kind": "hover"}]},
                [1, 2],
            )
        ):
            made = self.new(name=f"Was read {k}")
            self.spoil(made["id"], document)
            found = self.hung()
            self.assertTrue(found["Sound"]["drawn"])
            name = document["name"] if isinstance(document, dict) else "A piece without a name"
            self.assertIn("cannot be read", found[name]["trouble"])
            self.assertEqual(found[name]["make"], 1, "how many is not known")
            self.assertFalse(found[name]["readable"])
            self.assertFalse(found[name]["finished"], "nobody said so of it")
            self.assertEqual(self.call("GET", f"/api/pieces/{made['id']}/file").json(), document)
            self.assertEqual(self.call("GET", f"/api/pieces/{made['id']}").status_code, 422)
            self.assertEqual(self.call("GET", f"/api/pieces/{made['id']}/revisions").status_code, 200)

    def test_it_goes_back_to_an_earlier_state(self) -> None:
        made = self.new(name="Good once")
        body = {"document": {**made["piece"], "height": 500}, "based_on": 1}
        self.call("PUT", f"/api/pieces/{made['id']}", body)
        self.spoil(made["id"], {"name": "Gone wrong", "version": 9})
        self.assertIn("Gone wrong", self.hung())
        old = self.call("GET", f"/api/pieces/{made['id']}/revisions/1").json()["piece"]
        again = self.call("PUT", f"/api/pieces/{made['id']}", {"document": old, "based_on": 2})
        self.assertEqual((again.status_code, again.json()["revision"]), (200, 3))
        self.assertTrue(self.hung()["Good once"]["drawn"])

    def test_what_cannot_be_built_or_drawn_hangs_with_its_reason(self) -> None:
        self.new(name="Sound")
        tall = write_piece(starter("tall"))
        tall["members"][0]["level"] = {"by": "drop", "value": 2000}
        self.call("POST", "/api/pieces", {"document": {**tall, "name": "Rope under the floor"}})
        found = self.hung()
        self.assertIn("below the floor", found["Rope under the floor"]["trouble"])
        self.assertTrue(found["Rope under the floor"]["readable"])
        keep_shop(workbench().model_copy(update={"name": "Another"}))
        with (
            mock.patch.object(rack, "draw", side_effect=ZeroDivisionError),
            self.assertLogs("workshop.pieces.rack", "ERROR") as logged,
        ):
            self.assertIn("in the log", self.hung()["Sound"]["trouble"])
        self.assertIn("ZeroDivisionError", "".join(logged.output))

    def test_it_is_drawn_again_only_when_something_it_shows_has_changed(self) -> None:
        first = self.new(name="One")
        self.new(name="Two")
        self.hung()
        with mock.patch.object(rack, "planned", wraps=rack.planned) as planned:
            before = self.hung()
            self.assertEqual(planned.call_count, 0)
            self.call("PUT", f"/api/pieces/{first['id']}/readings/bore.l1", {"typed": "14.5"})
            after = self.hung()
            self.assertEqual(planned.call_count, 1)
            self.call("PUT", f"/api/pieces/{first['id']}", {"document": {**first["piece"], "height": 470},
                                                            "based_on": 1})  # fmt: skip
            self.assertEqual(self.hung()["One"]["height"]["text"], "470 mm")
            self.assertEqual(planned.call_count, 2)
            inches = workbench().model_dump(mode="json")
            inches["rounding"]["system"] = "inch"
            self.call("PUT", "/api/shop", {"shop": inches})
            self.assertIn("in", self.hung()["Two"]["height"]["text"].replace('"', "in"))
            self.assertEqual(planned.call_count, 2, "how lengths are read changes no drawing")
            inches["tools"] = inches["tools"][:3]
            self.call("PUT", "/api/shop", {"shop": inches})
            self.hung()
            self.assertEqual(planned.call_count, 4)
        self.assertEqual((before["One"]["next"]["name"], before["One"]["next"]["answered"]), ("top", 0))
        self.assertEqual(after["Two"], before["Two"])
        self.assertEqual([one["changed"] for one in (before["Two"],)], [after["Two"]["changed"]])

    def test_every_start_hangs_drawn(self) -> None:
        for name in STARTS:
            self.call("POST", "/api/pieces", {"start": name})
        for name, one in self.hung().items():
            self.assertEqual(one["trouble"], "", name)
            self.assertTrue(one["drawn"], name)
        ids = [one["id"] for one in self.hung().values()]
        seen = self.call("GET", f"/api/pieces/drawings?{'&'.join(f'id={id}' for id in ids[:24])}").json()
        self.assertEqual(set(seen), set(ids[:24]))
        for view in seen.values():
            self.assertTrue(view["shapes"])
        many = "&".join(f"id={ids[0]}" for _ in range(25))
        self.assertEqual(self.call("GET", f"/api/pieces/drawings?{many}").status_code, 422)
