"""Everything out as open files and in again: nothing lost, nothing overwritten."""

from __future__ import annotations

import io
import json
import zipfile
from datetime import UTC, datetime
from typing import Any
from unittest import mock

import jsonschema
from django.conf import settings
from django.contrib.auth import get_user_model
from django.contrib.auth.models import AnonymousUser, User
from django.core.management import call_command
from django.test import override_settings

from splay.piece import write_piece
from splay.piece.starters import starter
from splay.shop import workbench
from tests.api.base import ApiCase
from tests.api.test_makers import GOOD, Someone
from tests.api.test_photos import picture
from workshop.accounts.makers import the_first
from workshop.build.models import OwnHours, OwnRate
from workshop.keeping import archive, backup, imports, parts, taking_in
from workshop.keeping.owned import makers_in
from workshop.keeping.parts import NotAnArchive
from workshop.pieces.models import PieceRow, Revision
from workshop.shop.models import OwnUnits, ShopRow, keep_shop
from workshop.timber.models import StockPhoto, StockRow, WoodRow


class Records(ApiCase):
    """A piece two makers worked on, with a reading corrected and a photograph."""

    def setUp(self) -> None:
        super().setUp()
        self.call("POST", "/api/makers", {"name": "linden", "password": GOOD})
        linden = Someone()
        linden.sign_in("linden", GOOD)
        made = linden.call("POST", "/api/pieces", {"start": "log_slice"}).json()
        self.path = f"/api/pieces/{made['id']}"
        self.call("PUT", self.path, {"document": {**made["piece"], "name": "Later"}, "based_on": 1})
        for typed in ("12", "12.5"):
            linden.call("PUT", f"{self.path}/readings/bore.l1", {"typed": typed, "note": "on the line"})
        self.call("PUT", f"{self.path}/photo", picture())
        long_ago = datetime(2024, 2, 29, 12, 30, tzinfo=UTC)
        Revision.objects.filter(number=1).update(saved=long_ago)

    def record(self) -> dict[str, Any]:
        return dict(self.call("GET", f"{self.path}/record").json())

    def test_a_record_follows_its_published_schema_and_says_who_did_what_when(self) -> None:
        record = self.record()
        schema = json.loads((settings.BASE_DIR / "docs" / "record.schema.json").read_text(encoding="utf-8"))
        jsonschema.Draft202012Validator(schema).validate(record)
        self.assertEqual([s["by"] for s in record["states"]], ["linden", "ash"])
        self.assertEqual(record["states"][0]["saved"], "2024-02-29T12:30:00Z")
        self.assertEqual([e["what"] for e in record["events"]], ["answered", "corrected"])
        self.assertEqual(record["readings"][0]["typed"], "12.5")
        self.assertTrue(record["photo"])

    def test_out_and_into_an_empty_shop_loses_nothing(self) -> None:
        before = self.record()
        keep_shop(workbench().model_copy(update={"name": "Larkmoor"}))
        out = io.BytesIO()
        self.assertEqual(archive.write(out), 1)
        PieceRow.objects.all().delete()
        ShopRow.objects.all().delete()
        get_user_model().objects.filter(username="linden").delete()
        found = taking_in.read(out.getvalue(), None)
        self.assertEqual((found.hung, found.known, found.refused, found.shop), (1, 0, [], True))
        self.assertEqual(self.record(), before)
        self.assertEqual(self.call("GET", "/api/shop").json()["shop"]["name"], "Larkmoor")
        # Whoever is named and is not in this shop is named still, and gets no way in.
        self.assertEqual([m["name"] for m in self.call("GET", "/api/makers").json()], ["ash"])
        self.assertEqual(Someone().sign_in("linden", GOOD), 422)
        self.assertEqual(self.call("GET", "/api/pieces").json()[0]["by"], "linden")

    def test_what_hangs_already_is_left_as_it_is(self) -> None:
        out = io.BytesIO()
        archive.write(out)
        self.assertEqual(taking_in.read(out.getvalue(), None).known, 1)
        piece = self.call("GET", self.path).json()
        self.call("PUT", self.path, {"document": {**piece["piece"], "name": "Mine since"}, "based_on": 2})
        found = taking_in.read(out.getvalue(), None)
        self.assertEqual((found.hung, PieceRow.objects.count()), (1, 2))
        self.assertEqual(
            {p["name"] for p in self.call("GET", "/api/pieces").json()}, {"Mine since", "Later"}
        )

    def test_one_bad_piece_is_named_and_the_others_hang(self) -> None:
        self.new(name="Sound")
        out = io.BytesIO()
        archive.write(out)
        PieceRow.objects.all().delete()
        spoiled = io.BytesIO()
        with zipfile.ZipFile(out) as given, zipfile.ZipFile(spoiled, "w") as bad:
            for name in given.namelist():
                raw = given.read(name)
                bad.writestr(name, raw.replace(b'"height"', b'"hight"') if b"Later" in raw else raw)
            # What could not be read where it was taken out goes along as it is.
            bad.writestr("unread/Torn stool.json", b"{")
        found = taking_in.read(spoiled.getvalue(), None)
        self.assertEqual((found.hung, len(found.refused)), (1, 2))
        self.assertIn("hight", found.refused[0][1])
        self.assertEqual(found.pieces[-1].name, "Torn stool.json")
        self.assertIn("where it was taken out", found.refused[1][1])

    def test_what_is_no_archive_is_refused_whole(self) -> None:
        small = io.BytesIO()
        with zipfile.ZipFile(small, "w") as made:
            made.writestr("about.json", json.dumps({"format": archive.FORMAT, "version": 1}))
            made.writestr("pieces/1.json", "x" * 3000)
        for raw in (b"", b"PK", small.getvalue()[:-30], zip_of({"format": "else"}), zip_of([])):
            with self.subTest(raw[:10]), self.assertRaises(NotAnArchive):
                taking_in.read(raw, None)
        with mock.patch.object(parts, "MOST_UNPACKED", 2000), self.assertRaises(NotAnArchive):
            taking_in.read(small.getvalue(), None)
        with self.assertRaisesRegex(NotAnArchive, "of an earlier program, without open files: restore it"):
            taking_in.read(zip_of({"format": "proud-rake-backup", "version": 1}), None)
        self.assertEqual(PieceRow.objects.count(), 1)

    def test_all_that_is_read_of_it_together_has_a_bound(self) -> None:
        about = {"format": archive.FORMAT, "version": 1}
        long = len(json.dumps(about))
        with mock.patch.object(parts, "MOST_IN_ALL", long):
            self.assertEqual(taking_in.read(zip_of(about), None).pieces, [])
        with mock.patch.object(parts, "MOST_IN_ALL", long - 1), self.assertRaises(parts.TooMuch):
            taking_in.read(zip_of(about), None)

    def test_a_record_is_brought_in_like_a_piece_file(self) -> None:
        record = self.record()
        same = self.call("POST", "/api/pieces", {"document": record})
        self.assertEqual(same.status_code, 409)
        PieceRow.objects.all().delete()
        made = self.call("POST", "/api/pieces", {"document": record})
        self.assertEqual(made.status_code, 201, made.content)
        self.assertEqual(self.record(), record)

    def test_of_two_who_correct_a_reading_that_came_with_its_record_the_second_is_told(self) -> None:
        for events in (True, False):
            record = self.record()
            record["events"] = record["events"] if events else []
            PieceRow.objects.all().delete()
            made = self.call("POST", "/api/pieces", {"document": record}).json()
            (seen,) = (one for one in made["readings"] if one["proof"] == "bore.l1")
            where = f"/api/pieces/{made['id']}/readings/bore.l1"
            for typed, status in (("15.5", 200), ("16.5", 409)):
                answer = self.call("PUT", where, {"typed": typed, "based_on": seen["number"]})
                self.assertEqual(answer.status_code, status, answer.content)

    def test_bad_records_name_what_is_wrong_with_them(self) -> None:
        record = self.record()
        PieceRow.objects.all().delete()
        states = record["states"]
        # Not even with letters left out that no base64 has does it hold a picture.
        shown = {
            "sort": "photo",
            "at": "2026-03-01T09:00:00Z",
            "photo": f"{record['photo'][:40]}!!{record['photo'][40:]}",
        }
        for change, field in (
            ({"states": []}, "record.states"),
            ({"states": [states[1], states[0]]}, "record.states"),
            ({"states": [{**states[0], "piece": {"name": "x"}}]}, "record.states.0.piece"),
            ({"readings": [{**record["readings"][0], "kind": "?"}]}, "record.readings.0.kind"),
            ({"readings": record["readings"] * 2}, "record.readings"),
            ({"photo": "!!"}, "record.photo"),
            ({"photo": "AAAA"}, "photo"),
            ({"build": {**record["build"], "log": [shown]}}, "record.build.log.0.photo"),
            ({"version": 2}, "record.version"),
        ):
            with self.subTest(field):
                answer = self.call("POST", "/api/pieces", {"document": {**record, **change}})
                self.assertEqual(answer.status_code, 422, answer.content)
                self.assertIn(field, answer.json()["faults"][0]["field"])
        self.assertEqual(PieceRow.objects.count(), 0)

    def test_a_piece_without_anything_is_a_record_too(self) -> None:
        made = self.new(name="Bare")
        record = self.call("GET", f"/api/pieces/{made['id']}/record").json()
        self.assertEqual((record["readings"], record["events"], record["photo"]), ([], [], None))
        self.assertEqual(
            record["states"][0]["piece"], write_piece(starter("round_three")) | {"name": "Bare"}
        )


def zip_of(about: Any) -> bytes:
    made = io.BytesIO()
    with zipfile.ZipFile(made, "w") as packed:
        packed.writestr("about.json", json.dumps(about))
    return made.getvalue()


class WholeShop(ApiCase):
    """The demo's shop, with readings, photographs, a build, reserved wood and what is each maker's own."""

    @classmethod
    def setUpTestData(cls) -> None:
        with override_settings(DEMO=True):
            call_command("demo", verbosity=0)

    def setUp(self) -> None:
        super().setUp()
        self.call("PUT", "/api/time/hours", {"lines": ["8-12", *[""] * 6], "off": ["2026-12-24"]})
        self.call("PUT", "/api/pieces/rate", {"rate": 38.5, "money": "€"})

    def written(self) -> bytes:
        out = io.BytesIO()
        archive.write(out)
        return out.getvalue()

    def files(self) -> dict[str, bytes]:
        with zipfile.ZipFile(io.BytesIO(self.written())) as made:
            return {name: made.read(name) for name in made.namelist() if name != "about.json"}

    def test_a_name_stands_in_its_file_as_it_is_written(self) -> None:
        self.new(name="Bänkle für Ödön")
        whole = b"".join(self.files().values())
        self.assertIn("Bänkle für Ödön".encode(), whole)

    def changed(self, change: dict[str, Any]) -> bytes:
        """The archive with some of its files otherwise, or left out."""
        made = io.BytesIO()
        with zipfile.ZipFile(io.BytesIO(self.written())) as was, zipfile.ZipFile(made, "w") as packed:
            for name in was.namelist():
                if name not in change:
                    packed.writestr(name, was.read(name))
                elif change[name] is not None:
                    packed.writestr(name, json.dumps(change[name]))
        return made.getvalue()

    def test_what_has_another_shape_is_said_and_nothing_is_taken(self) -> None:
        store = json.loads(self.files()["store.json"])
        ash = json.loads(self.files()["makers.json"])[0]
        odd = {**store, "stock": [{**store["stock"][0], "id": "no id"}]}
        for change in (
            {"store.json": odd},
            {"store.json": {"stock": None}},
            {"makers.json": [{**ash, "name": "rowan", "units": {"length_mm": 1}}]},
            {"makers.json": [{**ash, "name": "rowan", "rate": {"rate": "much", "money": ""}}]},
            {"makers.json": [{"name": "rowan"}]},
        ):
            with self.subTest(change):
                made = self.changed(change)
                StockRow.objects.all().delete()
                with self.assertRaisesRegex(NotAnArchive, "another shape"):
                    taking_in.read(made, None)
                self.assertEqual(StockRow.objects.count(), 0)
                self.assertFalse(User.objects.filter(username="rowan").exists())

    def test_its_files_are_for_people_too(self) -> None:
        get_user_model().objects.create(username="Ödön")
        files = self.files()
        self.assertIn("Ödön".encode(), files["makers.json"])
        for name in ("shop.json", "stock.json", "store.json", "makers.json"):
            self.assertEqual(files[name].splitlines()[1][:1], b" ", name)
            self.assertNotEqual(files[name].splitlines()[1][:2], b"  ", name)
        pieces = sorted(name for name in files if name.startswith("pieces/"))
        self.assertEqual([int(name[7:12]) for name in pieces], list(range(1, len(pieces) + 1)))
        self.assertEqual({files[name].splitlines()[1][:2] for name in pieces}, {b' "'})

    def test_a_piece_that_cannot_be_written_as_a_record_comes_as_what_is_kept_of_it(self) -> None:
        made = self.new(name="Torn stool")
        WoodRow.objects.create(piece_id=made["id"], document={"format": "nonsense"}, number=1)
        with self.assertLogs("workshop.keeping.archive"):
            files = self.files()
        (name,) = (name for name in files if name.startswith("unread/"))
        self.assertIn(made["id"], name)
        self.assertEqual(json.loads(files[name]), [{"number": 1, "piece": made["piece"]}])

    def test_out_of_a_full_shop_and_into_an_empty_one_every_file_is_the_same_to_the_byte(self) -> None:
        # One was thrown out, and can be put back; one was cut from another.
        first, second = StockRow.objects.filter(reserved_for=None)[:2]
        StockRow.objects.filter(pk=first.pk).update(gone="thrown", cut_from=second)
        before = self.files()
        self.assertIn(b'"gone": "thrown"', before["store.json"])
        self.assertGreater(sum(name.startswith("stock/") for name in before), 0)
        self.assertIn(b'"kept": {', before["store.json"])
        self.assertIn(b"38.5", before["makers.json"])
        out = self.written()
        for model in (StockRow, PieceRow, ShopRow, OwnUnits, OwnHours, OwnRate):
            model.objects.all().delete()
        found = taking_in.read(out, None)
        self.assertEqual((found.refused, found.shop, found.database), ([], True, False))
        with_it = io.BytesIO(out)
        with zipfile.ZipFile(with_it, "a") as packed:
            packed.writestr(backup.INSIDE, b"")
        self.assertTrue(taking_in.read(with_it.getvalue(), None).database)
        after = self.files()
        self.assertEqual(sorted(after), sorted(before))
        for name, was in before.items():
            with self.subTest(name):
                self.assertEqual(after[name], was)

    def test_wood_that_has_the_same_name_twice_is_laid_into_the_store_twice(self) -> None:
        store = json.loads(self.files()["store.json"])
        again = {**store["stock"][0], "reserved_for": None, "cut_from": None}
        made = self.changed({"store.json": {**store, "stock": [*store["stock"], again]}})
        StockRow.objects.all().delete()
        found = taking_in.read(made, None)
        self.assertEqual((found.stock, StockRow.objects.count()), (len(store["stock"]) + 1,) * 2)

    def test_an_archive_of_before_says_nothing_of_the_store_and_its_photographs_find_their_wood(
        self,
    ) -> None:
        slab = StockRow.objects.filter(document__kind="slab").first()
        assert slab is not None
        StockPhoto.objects.filter(stock=slab).delete()
        StockPhoto.objects.create(stock=slab, image=picture(), width=80, height=60)
        made, name = self.changed({"store.json": None}), slab.document["name"]
        many = StockRow.objects.filter(gone="").count()
        StockRow.objects.all().delete()
        self.assertEqual(taking_in.read(made, None).stock, many)
        self.assertIn(name, [one.stock.document["name"] for one in StockPhoto.objects.all()])
        self.assertEqual({one.stock.document["kind"] for one in StockPhoto.objects.all()}, {"slab"})

    def test_what_is_each_makers_own_comes_once_and_only_where_there_is_none(self) -> None:
        nothing: dict[str, Any] = {"units": None, "hours": None, "rate": None, "orders": []}
        own = {
            "units": {"system": "metric", "step_mm": 0.1},
            "hours": {"stretches": [[0, 8.0, 12.0]], "off": []},
            "rate": {"rate": 41.0, "money": "kr"},
            "orders": [{"kind": "staked_legs through", "operations": ["bore"]}],
        }
        for what, said in own.items():
            given = [{"name": f"linden {what}", **nothing, what: said}]
            self.assertEqual(makers_in(given, {}), [f"linden {what}"])
            self.assertEqual(makers_in(given, {}), [], what)
        before = User.objects.count()
        self.assertEqual(makers_in([{"name": "rowan", **nothing}, {"name": None, **own}], {}), [])
        self.assertEqual(User.objects.count(), before)

    def test_reserved_wood_stays_reserved_and_can_be_given_back(self) -> None:
        out = self.written()
        reserved = sorted(str(row.reserved_for_id) for row in StockRow.objects.exclude(reserved_for=None))
        self.assertTrue(reserved)
        StockRow.objects.all().delete()
        PieceRow.objects.all().delete()
        taking_in.read(out, None)
        rows = StockRow.objects.exclude(reserved_for=None)
        self.assertEqual(sorted(str(row.reserved_for_id) for row in rows), reserved)
        wood = f"/api/pieces/{reserved[0]}/wood"
        self.assertTrue(self.call("GET", wood).json()["reserved"])
        self.assertEqual(self.call("DELETE", f"{wood}/reserved").status_code, 204)
        self.assertFalse(self.call("GET", wood).json()["reserved"])

    def test_taken_back_it_leaves_nothing_reserved_and_nothing_hung(self) -> None:
        out = self.written()
        StockRow.objects.all().delete()
        PieceRow.objects.all().delete()
        found = taking_in.read(out, None)
        assert found.undo is not None
        imports.undo(found.undo, the_first() or AnonymousUser())
        self.assertEqual(PieceRow.objects.filter(removed=None).count(), 0)
        self.assertEqual(set(PieceRow.objects.values_list("nights", flat=True)), {0})
        self.assertEqual(StockRow.objects.filter(gone="").count(), 0)
        self.assertEqual(StockRow.objects.exclude(reserved_for=None).count(), 0)
