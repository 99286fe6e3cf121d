"""The wood of pieces over HTTP: laid out, reserved, sawn, freed, taken along."""

from __future__ import annotations

import io
import json
from types import SimpleNamespace
from typing import Any, ClassVar

import shapely
from django.test import SimpleTestCase

from splay.timber.choices import WoodChoice, write_choice
from tests.api.test_makers import GOOD, Someone
from tests.api.test_timber import ASH, LONG, TimberCase, slab
from workshop.demo.load import load_demo
from workshop.demo.pile import RESERVED
from workshop.keeping import archive, taking_in
from workshop.pieces.models import PieceRow
from workshop.pieces.record import hang_record, read_record, record_of
from workshop.timber.models import StockRow, WoodRow
from workshop.timber.wood_api import _moisture, _woods


def lies(**kinds: Any) -> Any:
    """A layout of what is told of it here."""
    return SimpleNamespace(**{"slabs": [], "boards": [], "sticks": [], "logs": [], **kinds})


class Mostly(SimpleTestCase):
    """Of which wood a seat and the rest of a piece are, and how moist the seat's is."""

    stock: ClassVar[Any] = {
        name: SimpleNamespace(wood=name, now=moist)
        for name, moist in (("elm", 9.0), ("ash", 12.0), ("oak", 14.0))
    }

    def cut(self, wood: str, *roles: str) -> Any:
        return SimpleNamespace(stock=wood, blanks=[SimpleNamespace(role=role) for role in roles])

    def test_the_seat_is_of_its_slab_board_or_slice_and_the_rest_of_what_most_is_of(self) -> None:
        elm, gone = SimpleNamespace(stock="elm", slices=1), SimpleNamespace(stock="gone", slices=1)
        legs = [self.cut("ash", "leg", "leg"), self.cut("oak", "leg")]
        for where, moist in (
            (lies(slabs=[gone, elm], boards=legs), 9.0),
            (lies(logs=[gone, elm], boards=legs), 9.0),
            (lies(boards=[*legs, self.cut("elm", "top")]), 9.0),
            (lies(boards=[*legs, self.cut("elm", "leg", "board")]), 9.0),
            (lies(slabs=[elm], boards=legs[1:], sticks=[SimpleNamespace(stock="ash")] * 2 + [gone]), 9.0),
            (lies(slabs=[elm], boards=[*legs, self.cut("gone", "leg", "leg", "leg")]), 9.0),
        ):
            self.assertEqual(_woods(where, self.stock), {"top": "elm", "rest": "ash"})
            self.assertEqual(_moisture(where, self.stock), moist)
        split = SimpleNamespace(stock="oak", slices=0)
        self.assertEqual(_woods(lies(logs=[split]), self.stock), {"rest": "oak"})
        self.assertIsNone(_moisture(lies(logs=[split], boards=legs), self.stock))
        self.assertEqual((_woods(None, self.stock), _moisture(None, self.stock)), ({}, None))


class Wood(TimberCase):
    def setUp(self) -> None:
        super().setUp()
        self.made = self.new(name="Lantern stool")
        self.path = f"/api/pieces/{self.made['id']}/wood"

    def do(self, method: str, path: str, body: Any = None, status: int = 200) -> dict[str, Any]:
        answer = self.call(method, f"{self.path}{path}", body)
        self.assertEqual(answer.status_code, status, answer.content)
        return dict(answer.json()) if answer.content else {}

    def lay_out(self, seconds: float = 0.2) -> dict[str, Any]:
        return self.do("POST", "/layout", {"seconds": seconds})

    def save(self, **change: Any) -> None:
        now = self.call("GET", f"/api/pieces/{self.made['id']}").json()
        body = {"document": {**now["piece"], **change}, "based_on": now["revision"]}
        answer = self.call("PUT", f"/api/pieces/{self.made['id']}", body)
        self.assertEqual(answer.status_code, 200, answer.content)

    def reserved(self) -> list[str]:
        items = self.call("GET", "/api/timber").json()["items"]
        return sorted(one["item"]["name"] for one in items if one["reserved_for"])

    def test_it_says_what_is_needed_missing_and_to_get(self) -> None:
        found = self.lay_out()
        self.assertEqual([need["role"] for need in found["needs"]], ["top", "leg"])
        self.assertEqual({m["count"] for m in found["layout"]["missing"]}, {1, 3})
        self.assertTrue(found["layout"]["buy"])
        self.assertIn("no wood", self.do("PUT", "/reserved", status=409)["detail"])

    def test_the_template_of_keys_over_a_split_says_on_which_slab(self) -> None:
        split = {"kind": "split", "points": [{"x": 0, "y": 300}, {"x": 400, "y": 300}], "across": 5}
        wide = self.put_in(**slab(spots=[split]))
        top = self.lay_out()["needs"][0]["key"]
        laid = [{"key": top, "stock": wide["id"], "x": 400, "y": 300}]
        number = self.do("GET", "")["number"]
        self.do("PUT", "", {"document": {"laid": laid}, "based_on": number})
        found = self.lay_out()["layout"]
        self.assertEqual([len(one["splits"]) for one in found["slabs"]], [1])

        def titles() -> list[str]:
            said = self.call("GET", f"/api/pieces/{self.made['id']}/out").json()["patterns"]
            return [one["title"] for one in said]

        (keys,) = (title for title in titles() if "Wide" in title)
        StockRow.objects.all().delete()
        self.assertIn(keys.replace("Wide", "a slab"), titles())

    def test_what_is_not_laid_out_cannot_be_reserved(self) -> None:
        said = "Nothing is laid out yet"
        self.assertIn(said, self.do("PUT", "/reserved", status=409)["detail"])
        self.put_in(**LONG)
        self.assertEqual(self.do("GET", "")["number"], 0)
        self.lay_out()
        self.do("PUT", "", {"document": {"kerf": 4}, "based_on": 0})
        self.assertEqual(self.do("GET", "")["number"], 1)
        self.assertIn(said, self.do("PUT", "/reserved", status=409)["detail"])

    def test_what_was_laid_out_on_other_wood_for_another_piece_or_choice_cannot_be_reserved(self) -> None:
        made = self.put_in(**LONG)
        said = "lay it out anew"
        self.lay_out()
        self.save(height=self.made["piece"]["height"] + 20)
        self.assertIn(said, self.do("PUT", "/reserved", status=409)["detail"])
        # Chosen otherwise while the search was under way: what it found is of before.
        self.lay_out()
        WoodRow.objects.update(document=write_choice(WoodChoice(kerf=5)))
        self.assertIn(said, self.do("PUT", "/reserved", status=409)["detail"])
        self.lay_out()
        self.assertEqual(self.call("DELETE", f"/api/timber/{made['id']}").status_code, 204)
        self.assertIn(said, self.do("PUT", "/reserved", status=409)["detail"])

    def test_what_is_not_reserved_is_neither_given_back_nor_sawn(self) -> None:
        made = self.put_in(**LONG)
        for laid in (False, True):
            if laid:
                self.lay_out()
            self.assertEqual(self.call("DELETE", f"{self.path}/reserved").status_code, 204)
            refused = self.do("PUT", "/sawn", {"stock": made["id"]}, 409)
            self.assertIn("not reserved for this piece", refused["detail"])
        self.do("PUT", "/reserved")
        other = self.put_in(**(LONG | {"name": "Other"}))
        refused = self.do("PUT", "/sawn", {"stock": other["id"]}, 409)
        self.assertIn("not reserved for this piece", refused["detail"])
        log = self.call("GET", f"/api/pieces/{self.made['id']}/log").json()["entries"]
        self.assertEqual([line["says"] for line in log], ["reserved: Long"])

    def test_a_slab_shows_the_parts_that_lie_on_it_and_no_others(self) -> None:
        wide, bare = self.put_in(**slab()), self.put_in(**slab(name="Bare"))
        top = self.lay_out()["needs"][0]["key"]
        laid = [{"key": top, "stock": wide["id"], "x": 400, "y": 300}]
        self.do("PUT", "", {"document": {"laid": laid}, "based_on": self.do("GET", "")["number"]})
        self.lay_out()
        self.do("PUT", "/reserved")
        items = {one["item"]["name"]: one for one in self.call("GET", "/api/timber").json()["items"]}
        self.assertIn("seat", items["Wide"]["taken"][0]["name"].casefold())
        xs = [x for x, _ in items["Wide"]["taken"][0]["corners"]]
        self.assertAlmostEqual((min(xs) + max(xs)) / 2, 400, delta=1)
        self.assertTrue(items["Wide"]["left"])
        self.assertEqual(items["Bare"]["taken"], [])
        # Kept for a piece whose wood is laid out on nothing: by hand, or out of an odd archive.
        StockRow.objects.filter(pk=bare["id"]).update(reserved_for=self.made["id"])
        WoodRow.objects.update(kept=None)
        items = {one["item"]["name"]: one for one in self.call("GET", "/api/timber").json()["items"]}
        self.assertEqual((items["Bare"]["taken"], items["Bare"]["left"]), ([], []))

    def test_reserved_wood_is_nobody_elses_and_free_again_when_it_is_given_back(self) -> None:
        self.put_in(**LONG)
        self.lay_out()
        self.assertTrue(self.do("PUT", "/reserved")["reserved"])
        self.assertEqual(self.reserved(), ["Long"])
        other = self.new(name="Another")
        path = f"/api/pieces/{other['id']}/wood"
        theirs = self.call("POST", f"{path}/layout", {"seconds": 0}).json()
        self.assertTrue(theirs["layout"]["missing"])
        item = self.call("GET", "/api/timber").json()["items"][0]
        self.assertEqual(len(item["taken"]), 4)
        # What is taken and what is left of it lie on the board, side by side.
        lying = [one["corners"] for one in item["taken"]] + item["left"]
        boxes = [shapely.Polygon(corners) for corners in lying]
        whole = shapely.box(0, 0, 2600, 420)
        for at, one in enumerate(boxes):
            self.assertTrue(one.within(whole.buffer(1e-6)), lying[at])
            self.assertLess(sum(one.intersection(other).area for other in boxes[at + 1 :]), 1e-6)
        legs = [one for one, taken in zip(boxes, item["taken"], strict=False) if "leg" in taken["name"]]
        self.assertEqual(len({round(one.area, 3) for one in legs}), 1)
        self.assertEqual(self.call("DELETE", f"{self.path}/reserved").status_code, 204)
        self.assertEqual(self.reserved(), [])
        theirs = self.call("POST", f"{path}/layout", {"seconds": 0}).json()
        self.assertFalse(theirs["layout"]["missing"])

    def test_two_pieces_cannot_reserve_the_same_board(self) -> None:
        self.put_in(**LONG)
        self.lay_out()
        other = self.new(name="Another")
        path = f"/api/pieces/{other['id']}/wood"
        self.call("POST", f"{path}/layout", {"seconds": 0})
        self.do("PUT", "/reserved")
        late = self.call("PUT", f"{path}/reserved")
        self.assertEqual(late.status_code, 409)
        self.assertIn("lay it out anew", late.json()["detail"])

    def test_a_change_that_no_longer_fits_undoes_it_and_says_so_another_does_not(self) -> None:
        self.put_in(**LONG)
        self.lay_out()
        self.do("PUT", "/reserved")
        self.save(name="Lantern stool, low", height=self.made["piece"]["height"] - 20)
        self.assertTrue(self.do("GET", "")["reserved"])
        self.save(height=self.made["piece"]["height"] + 60)
        found = self.do("GET", "")
        self.assertFalse(found["reserved"])
        self.assertIn("would not fit", found["said"])
        self.assertEqual(self.reserved(), [])
        log = self.call("GET", f"/api/pieces/{self.made['id']}/log").json()["entries"]
        self.assertEqual([line["sort"] for line in log[:2]], ["wood", "wood"])
        self.assertIn("no more", log[0]["says"])

    def test_of_blanks_that_are_glued_up_every_layer_counts(self) -> None:
        for name in ("Long", "Second", "Third"):
            self.put_in(**(LONG | {"name": name}))
        leg = next(need["key"] for need in self.do("GET", "")["needs"] if need["role"] == "leg")
        self.do("PUT", "", {"document": {"layers": [{"key": leg, "layers": 2}]}, "based_on": 0})
        self.lay_out()
        self.assertTrue(self.do("PUT", "/reserved")["reserved"])
        self.save(notes="as before")
        self.assertTrue(self.do("GET", "")["reserved"])
        # Two seats were kept too, to see that it is the legs of twice two layers that do not fit.
        kept = WoodRow.objects.get()
        kept.kept["needs"] = {key: [9 if key != leg else size[0], *size[1:]] for key, size in
                              kept.kept["needs"].items()}  # fmt: skip
        kept.save()
        self.save(make=2)
        self.assertIn("would not fit", self.do("GET", "")["said"])

    def test_the_store_itself_frees_what_a_changed_piece_does_not_fit(self) -> None:
        # Nobody opened the piece: whoever looks for wood finds it free all the same.
        self.put_in(**LONG)
        self.lay_out()
        self.do("PUT", "/reserved")
        self.save(height=self.made["piece"]["height"] + 60)
        self.assertEqual(self.reserved(), [])

    def test_a_flaw_found_later_frees_it_and_a_note_does_not(self) -> None:
        made = self.put_in(**LONG)
        self.lay_out()
        self.do("PUT", "/reserved")
        made = self.change(made, notes="from the north wall", place="rack")
        self.assertTrue(self.do("GET", "")["reserved"])
        self.change(made, flaws=[{"kind": "split", "start": 0, "end": 900}])
        self.assertIn("Long was changed in the store", self.do("GET", "")["said"])

    def test_a_piece_taken_off_the_rack_holds_no_wood(self) -> None:
        self.put_in(**LONG)
        self.lay_out()
        self.do("PUT", "/reserved")
        self.call("DELETE", f"/api/pieces/{self.made['id']}")
        self.assertEqual(self.reserved(), [])
        other = self.new(name="Another")
        path = f"/api/pieces/{other['id']}/wood"
        self.call("POST", f"{path}/layout", {"seconds": 0})
        self.assertEqual(self.call("PUT", f"{path}/reserved").status_code, 200)

    def test_sawn_wood_is_gone_its_leftovers_lie_in_the_store_and_it_can_be_taken_back(self) -> None:
        self.put_in(**LONG)
        layout = self.lay_out()["layout"]
        self.do("PUT", "/reserved")
        stock = layout["boards"][0]["stock"]
        found = self.do("PUT", "/sawn", {"stock": stock})
        self.assertEqual(found["sawn"], [stock])
        lies = self.call("GET", "/api/timber").json()["items"]
        self.assertEqual(len(lies), len(layout["boards"][0]["left"]))
        for one, left in zip(lies, layout["boards"][0]["left"], strict=True):
            self.assertEqual(one["item"]["source"], "offcut")
            self.assertAlmostEqual(one["item"]["length"], left["length"])
            self.assertEqual(one["item"]["moisture"], 8)
        self.assertEqual(self.do("PUT", "/sawn", {"stock": stock})["sawn"], [stock])
        found = self.do("PUT", "/sawn", {"stock": stock, "undo": True})
        self.assertEqual((found["sawn"], self.there()), ([], ["Long"]))
        self.do("PUT", "/sawn", {"stock": stock})
        rest = self.call("GET", "/api/timber").json()["items"][0]
        self.change(rest, name="Used already")
        self.assertIn("stays sawn", self.do("PUT", "/sawn", {"stock": stock, "undo": True}, 409)["detail"])

    def test_what_is_left_of_it_and_used_keeps_it_sawn(self) -> None:
        self.put_in(**LONG)
        stock = self.lay_out()["layout"]["boards"][0]["stock"]
        self.do("PUT", "/reserved")
        self.do("PUT", "/sawn", {"stock": stock})
        left = StockRow.objects.filter(cut_from=stock)
        self.assertTrue(left)
        other = self.new(name="Another")["id"]
        for used in ({"reserved_for": other}, {"gone": "thrown"}, {"number": 2}):
            left.update(reserved_for=None, gone="", number=1)
            left.update(**used)
            refused = self.do("PUT", "/sawn", {"stock": stock, "undo": True}, 409)
            self.assertIn("stays sawn", refused["detail"])
        left.update(number=1)
        self.do("PUT", "/sawn", {"stock": stock, "undo": True})
        self.assertEqual(self.there(), ["Long"])

    def test_what_is_thrown_out_is_reserved_no_more_and_its_piece_says_why(self) -> None:
        made = self.put_in(**LONG)
        self.lay_out()
        self.do("PUT", "/reserved")
        build = self.call("GET", f"/api/pieces/{self.made['id']}/build")
        self.assertEqual(build.status_code, 200, "whatever is chosen about its wood")
        self.assertEqual(self.call("DELETE", f"/api/timber/{made['id']}").status_code, 204)
        found = self.do("GET", "")
        self.assertFalse(found["reserved"])
        self.assertIn("Long was taken out of the store", found["said"])

    def test_what_is_told_is_of_the_wood_it_is_laid_out_on_sawn_or_not(self) -> None:
        self.put_in(**LONG)
        self.put_in(**(LONG | {"name": "Far too short", "length": 60}))
        self.lay_out()
        self.do("PUT", "/reserved")
        found = self.do("GET", "")
        self.assertEqual([one["item"]["name"] for one in found["stock"]], ["Long"])
        self.do("PUT", "/sawn", {"stock": found["stock"][0]["id"]})
        found = self.do("GET", "")
        self.assertEqual([one["item"]["name"] for one in found["stock"]], ["Long"])

    def test_what_was_sawn_stays_sawn_when_the_rest_is_given_back(self) -> None:
        self.put_in(**LONG)
        layout = self.lay_out()["layout"]
        self.do("PUT", "/reserved")
        self.do("PUT", "/sawn", {"stock": layout["boards"][0]["stock"]})
        self.call("DELETE", f"{self.path}/reserved")
        self.assertNotIn("Long", self.there())

    def test_a_seat_is_carried_on_its_slab_and_put_down(self) -> None:
        self.put_in(**slab())
        self.put_in(**LONG)
        found = self.lay_out()
        stock = found["layout"]["slabs"][0]["stock"]
        laid = found["layout"]["laid"]
        carried = [{**laid[0], "x": laid[0]["x"] - 400}]
        moved = self.do("POST", "/moved", {"laid": carried, "stock": stock})
        self.assertEqual([f["code"] for f in moved["faults"]], ["outside"])
        self.assertEqual(self.do("GET", "")["layout"]["laid"], laid)
        there = [{**laid[0], "x": 900.0, "y": 300.0, "turn": 5.0}]
        self.do("PUT", "", {"document": {"laid": there}, "based_on": 0})
        found = self.lay_out()
        part = found["layout"]["slabs"][0]["parts"][0]
        self.assertEqual((part["x"], part["y"], part["turn"]), (900.0, 300.0, 5.0))

    def test_choices_are_faults_at_their_fields_and_two_tabs_do_not_overwrite_each_other(self) -> None:
        said = self.do("PUT", "", {"document": {"kerf": "900"}, "based_on": 0}, 422)
        self.assertEqual(said["faults"][0]["field"], "wood.kerf")
        self.do("PUT", "", {"document": {"kerf": "2"}, "based_on": 0})
        self.do("PUT", "", {"document": {"kerf": "4"}, "based_on": 0}, 409)
        self.assertEqual(self.do("GET", "")["document"]["kerf"], 2.0)
        self.put_in(**LONG)
        self.lay_out()
        self.do("PUT", "/reserved")
        self.do("PUT", "", {"document": {"kerf": "4"}, "based_on": 1}, 409)

    def test_wet_wood_is_said_at_the_step_it_matters_at(self) -> None:
        self.put_in(**(LONG | {"moisture": 24}))
        self.lay_out()
        self.do("PUT", "/reserved")
        steps = self.call("GET", f"/api/pieces/{self.made['id']}/build").json()["steps"]
        cautions = {step["operation"]: step["caution"] for step in steps}
        self.assertIn("Long 24 %", cautions["bore"])
        self.assertIn("Long 24 %", cautions["glue"])
        self.assertNotIn("Long", cautions["lay_out"])

    def test_another_maker_sees_the_store_and_a_stranger_nothing(self) -> None:
        self.put_in(**LONG)
        self.call("POST", "/api/makers", {"name": "linden", "password": GOOD})
        linden = Someone()
        linden.sign_in("linden", GOOD)
        self.assertEqual(len(linden.call("GET", "/api/timber").json()["items"]), 1)
        self.assertEqual(Someone().call("GET", "/api/timber").status_code, 401)

    def test_the_choice_goes_along_in_the_pieces_record_and_the_wood_in_the_archive(self) -> None:
        self.put_in(**slab())
        self.do("PUT", "", {"document": {"kerf": 2.4, "species": ASH}, "based_on": 0})
        row = PieceRow.objects.get()
        record = read_record(json.loads(record_of(row).model_dump_json()))
        out = io.BytesIO()
        archive.write(out)
        row.delete()
        hung = hang_record(record, None)
        self.assertEqual(WoodRow.objects.get(piece=hung).document["kerf"], 2.4)
        self.assertEqual(self.do("GET", "")["number"], 1)
        StockRow.objects.all().delete()
        found = taking_in.read(out.getvalue(), None)
        self.assertEqual((found.stock, self.there()), (1, ["Wide"]))
        # Where wood lies already none is brought: it would lie there twice.
        self.assertEqual(taking_in.read(out.getvalue(), None).stock, 0)

    def test_the_demos_pile_is_reserved_for_two_of_its_pieces(self) -> None:
        load_demo()
        load_demo()
        held = StockRow.objects.exclude(reserved_for=None).values_list("reserved_for", flat=True).distinct()
        self.assertEqual(len(set(held)), len(RESERVED))
        self.assertFalse(any(row.kept["layout"]["missing"] for row in WoodRow.objects.exclude(kept=None)))
