"""What leaves the screen: every sheet and file of a piece, readings brought in as a table."""

from __future__ import annotations

import csv
import io
import json
import re
import time
import zipfile
from typing import Any
from unittest import mock

import openpyxl
import pypdfium2
from django.test import override_settings

from splay.patterns import patterns_of
from splay.piece import write_piece
from splay.piece.starters import starter
from splay.plan import plan
from splay.quantity import Show
from splay.shop import Rounding, workbench, write_shop
from tests.api.base import ApiCase
from tests.api.test_makers import GOOD, Someone
from workshop.keeping import imports
from workshop.keeping.models import Import
from workshop.paper.outs import OUTS
from workshop.pieces.models import PieceRow, ReadingRow
from workshop.shop.models import ShopRow, keep_shop


class Out(ApiCase):
    """A stool with two readings and a line in its log."""

    def setUp(self) -> None:
        super().setUp()
        self.hung = self.new(name="Lamp room stool")["id"]
        self.path = f"/api/pieces/{self.hung}"
        self.call("PUT", f"{self.path}/readings/bore.l1", {"typed": "13.5", "note": "=soft spot"})
        self.call("PUT", f"{self.path}/readings/bore.l2", {"typed": "14"})
        self.call("POST", f"{self.path}/log", {"sort": "note", "says": "The bit wandered on leg 1."})

    def out(self, name: str, query: str = "") -> Any:
        answer = self.call("GET", f"{self.path}/out/{name}{query}")
        self.assertEqual(answer.status_code, 200, answer.content[:300])
        return answer

    def text(self, raw: bytes) -> str:
        return " ".join(
            " ".join(page.get_textpage().get_text_range().split()) for page in pypdfium2.PdfDocument(raw)
        )

    def test_everything_that_is_listed_can_be_taken_out(self) -> None:
        listed = self.call("GET", f"{self.path}/out").json()
        self.assertEqual({one["name"] for one in listed["outs"]}, set(OUTS))
        pattern = listed["patterns"][0]["id"]
        for one in listed["outs"]:
            with self.subTest(one["name"]):
                answer = self.out(one["name"], f"?pattern={pattern}" if "pattern-" in one["name"] else "")
                self.assertGreater(len(answer.content), 60)
                self.assertTrue(one["without"] and one["good_for"])
                if one["pages"] is not None:
                    self.assertEqual(len(pypdfium2.PdfDocument(answer.content)), one["pages"])
                self.assertIn("Lamp room stool", answer["Content-Disposition"])
                # A sheet is looked at, and printed from there; a file for another program is put away.
                sheet = answer["Content-Type"] == "application/pdf"
                self.assertTrue(
                    answer["Content-Disposition"].startswith("inline" if sheet else "attachment")
                )

    def test_the_cut_list_as_a_table_has_every_blank_to_the_hundredth_of_a_millimetre(self) -> None:
        heads, *rows = csv.reader(io.StringIO(self.out("cut-list-csv").content.decode("utf-8-sig")))
        sizes = [k for k, head in enumerate(heads) if head.endswith(" mm")]
        self.assertEqual(len(sizes), 6)
        for row in rows:
            blank, finished = ([float(row[k]) for k in half] for half in (sizes[:3], sizes[3:]))
            self.assertTrue(all(b >= f > 0.0 for b, f in zip(blank, finished, strict=True)), row)
            for k in sizes:
                self.assertLessEqual(len(row[k].partition(".")[2]), 2, row)
        self.assertGreater(len(rows), 1)

    def test_the_pages_of_some_sorts_are_stated_before_they_are_printed(self) -> None:
        for query in ("", "?sorts=cards", "?sorts=top,legs", "?paper=letter"):
            pages = self.call("GET", f"{self.path}/out{query}").json()["pattern_pages"]
            made = self.out("patterns", query).content
            self.assertEqual(len(pypdfium2.PdfDocument(made)), pages, query)
        listed = self.call("GET", f"{self.path}/out").json()
        # A sort is offered where there is any pattern of it.
        self.assertEqual(set(listed["sorts"]), {one["sort"] for one in listed["patterns"]})
        self.assertGreater(len(listed["sorts"]), 2)
        made, show = starter("round_three"), Show(workbench().rounding.units())
        sizes = {
            one.id: " × ".join(show.length(side).text for side in one.size)
            for one in patterns_of(made, workbench(), plan(made, workbench()))
        }
        seat = next(one for one in listed["patterns"] if one["sort"] == "top")
        self.assertEqual(seat["size"], sizes[seat["id"]])
        with zipfile.ZipFile(io.BytesIO(self.out("patterns-svg", "?sorts=top").content)) as made:
            names = {name.partition("-")[2] for name in made.namelist()}
        of_top = {one["id"] for one in listed["patterns"] if one["sort"] == "top"}
        self.assertEqual(names, {f"{re.sub('[^A-Za-z0-9]+', '-', id)}.svg" for id in of_top})
        alone = self.call("GET", f"{self.path}/out?sorts=cards").json()
        self.assertLess(
            alone["pattern_pages"], self.call("GET", f"{self.path}/out").json()["pattern_pages"]
        )

    def test_sheets_follow_what_was_read(self) -> None:
        said = self.text(self.out("bench").content)
        self.assertIn("read 13.5°", said)
        log = self.text(self.out("log").content)
        self.assertIn("The bit wandered on leg 1.", log)
        self.assertIn(" ash ", log, "whoever wrote it")

    def test_the_printer_is_the_shop_s_own_and_is_remembered(self) -> None:
        shop = write_shop(workbench().model_copy(update={"name": "Larkmoor"}))
        plain = self.out("patterns").content
        changed = {**shop, "printer": {"paper": "letter", "across": 99.0, "up": "99.5 mm"}}
        self.assertEqual(self.call("PUT", "/api/shop", {"shop": changed}).status_code, 200)
        kept = self.call("GET", "/api/shop").json()["shop"]["printer"]
        self.assertEqual(kept, {"paper": "letter", "across": 99.0, "up": 99.5})
        page = pypdfium2.PdfDocument(self.out("patterns").content)[0]
        short = sorted(round(side) for side in page.get_size())
        self.assertEqual(short, [612, 792])
        self.assertNotEqual(plain, self.out("patterns", "?paper=a4").content)
        changed["printer"]["across"] = 80
        refused = self.call("PUT", "/api/shop", {"shop": changed})
        self.assertEqual(refused.status_code, 422)
        self.assertIn("printer.across", refused.json()["faults"][0]["field"])

    @override_settings(ALLOWED_HOSTS=["192.168.7.20", "testserver", "localhost"])
    def test_a_code_is_on_the_sheet_only_where_another_device_could_open_it(self) -> None:
        far = self.call("GET", f"{self.path}/out", HOST="192.168.7.20:8420").json()["code"]
        self.assertEqual(far, f"http://192.168.7.20:8420/piece/{self.hung}/bench")
        self.assertEqual(self.call("GET", f"{self.path}/out", HOST="localhost:8420").json()["code"], "")

    def test_a_spreadsheet_holds_cut_list_settings_readings_and_log(self) -> None:
        book: Any = openpyxl.load_workbook(io.BytesIO(self.out("workbook").content))
        self.assertEqual(book.sheetnames, ["Cut list", "To buy", "Besides", "Settings", "Readings", "Log"])
        rows = [[cell.value for cell in row] for row in book["Readings"].iter_rows()]
        mine = next(row for row in rows if row[0] == "bore.l1")
        self.assertEqual((mine[8], mine[11]), (13.5, "=soft spot"))

    def test_a_file_is_named_after_the_piece_whatever_it_is_called(self) -> None:
        id = self.new(name='Bank "Möwe" / 2')["id"]
        header = self.call("GET", f"/api/pieces/{id}/out/bench").headers["Content-Disposition"]
        self.assertIn("filename*=utf-8''", header)
        self.assertNotIn("\n", header)

    def test_of_two_that_are_made_each_has_its_number_on_its_sheets(self) -> None:
        piece = self.call("GET", self.path).json()["piece"]
        saved = self.call("PUT", self.path, {"document": {**piece, "make": 2}, "based_on": 1})
        self.assertEqual(saved.status_code, 200)
        for copy in (1, 2):
            said = self.text(self.out("patterns", f"?copy_number={copy}").content)
            self.assertIn(f"Lamp room stool {copy}", said)

    def test_the_cut_list_says_what_to_buy_as_long_as_the_piece_is_as_it_was_laid_out(self) -> None:
        def to_buy() -> int:
            book: Any = openpyxl.load_workbook(io.BytesIO(self.out("workbook").content))
            return len(list(book["To buy"].iter_rows())) - 1

        self.assertEqual(to_buy(), 0)
        found = self.call("POST", f"{self.path}/wood/layout", {"seconds": 1})
        self.assertEqual(found.status_code, 200, found.content[:300])
        self.assertGreater(to_buy(), 0)
        piece = self.call("GET", self.path).json()["piece"]
        self.call("PUT", self.path, {"document": {**piece, "height": 430}, "based_on": 1})
        self.assertEqual(to_buy(), 0)

    def test_what_is_not_there_is_said(self) -> None:
        self.assertEqual(self.call("GET", f"{self.path}/out/poster").status_code, 404)
        refused = self.call("GET", f"{self.path}/out/pattern-dxf?pattern=none")
        self.assertEqual(refused.status_code, 422)
        self.assertIn("pattern this piece has", refused.json()["detail"])
        self.assertEqual(refused.json()["faults"][0]["got"], "none")
        refused = self.call("GET", f"{self.path}/out/patterns?sorts=moulds,arcs").json()
        self.assertEqual(refused["faults"][0]["got"], "arcs, moulds")
        self.assertEqual(self.call("GET", f"{self.path}/out/bench?copy_number=900").status_code, 422)

    def test_sheets_are_made_in_time(self) -> None:
        """A bench sheet within a second, all patterns within five (generous: the machine may be loaded)."""
        for name, most in (("bench", 3.0), ("patterns", 10.0)):
            self.out(name)
            began = time.perf_counter()
            self.out(name)
            self.assertLess(time.perf_counter() - began, most, name)

    def test_every_start_can_be_printed_and_written_out(self) -> None:
        for start in ("bench", "slab", "plane_frames", "crossed", "board_sides", "aproned", "battened"):
            id = self.call("POST", "/api/pieces", {"start": start, "another": True}).json()["id"]
            for name in ("bench-long", "labels", "cut-list", "client", "solids-gltf", "drawings-dxf"):
                with self.subTest(f"{start} {name}"):
                    self.assertEqual(self.call("GET", f"/api/pieces/{id}/out/{name}").status_code, 200)


class ReadingsIn(ApiCase):
    """The table of readings goes out, is filled in elsewhere and comes back."""

    def setUp(self) -> None:
        super().setUp()
        self.hung = self.new()["id"]
        self.path = f"/api/pieces/{self.hung}"
        self.call("PUT", f"{self.path}/readings/bore.l1", {"typed": "13.5", "note": "slow"})

    def table(self) -> list[dict[str, str]]:
        raw = self.call("GET", f"{self.path}/out/readings-csv").content
        return list(csv.DictReader(io.StringIO(raw.decode("utf-8-sig"))))

    def send(self, rows: list[dict[str, str]], sure: bool = False, mark: str = ",") -> Any:
        out = io.StringIO()
        writer = csv.DictWriter(out, list(rows[0]), delimiter=mark)
        writer.writeheader()
        writer.writerows(rows)
        body = {"text": out.getvalue(), "sure": sure}
        return self.call("POST", f"{self.path}/readings_table", body)

    def values(self) -> dict[str, str]:
        return {r["proof"]: r["typed"] for r in self.call("GET", self.path).json()["readings"]}

    def test_taken_out_and_in_again_changes_nothing(self) -> None:
        said = self.send(self.table()).json()
        self.assertEqual((said["fresh"], said["bad"], said["same"]), ([], [], 1))

    def test_filled_in_it_is_looked_through_taken_in_and_taken_back(self) -> None:
        rows = self.table()
        by = {row["proof"]: row for row in rows}
        by["bore.l1"]["value"], by["bore.l2"]["value"] = "13.8", "14,2"
        looked = self.send(rows, mark=";").json()
        self.assertEqual((looked["taken"], looked["undo"]), (0, None))
        self.assertEqual(self.values(), {"bore.l1": "13.5"})
        self.assertIn("13.5 becomes 13.8", [one["said"] for one in looked["fresh"]])
        taken = self.send(rows, sure=True, mark=";").json()
        self.assertEqual(taken["taken"], len(looked["fresh"]))
        self.assertEqual(self.values()["bore.l2"], "14.2")
        undone = self.call("POST", f"/api/imports/{taken['undo']}/undo")
        self.assertEqual(undone.json()["said"], f"{taken['taken']} readings are as they were")
        self.assertEqual(self.values(), {"bore.l1": "13.5"})
        self.assertEqual(ReadingRow.objects.get().note, "slow")
        self.assertEqual(self.call("POST", f"/api/imports/{taken['undo']}/undo").status_code, 409)

    def test_a_number_is_millimetres_whatever_the_makers_own_unit_is(self) -> None:
        rows = self.table()
        row = next(one for one in rows if one["unit"] == "mm")
        for value, wanted in (("178.5", 178.5), ("7 in", 177.8)):
            text = f"proof,value\n{row['proof']},{value}"
            body = {"text": text, "bare": "inch", "sure": True}
            self.assertEqual(self.call("POST", f"{self.path}/readings_table", body).json()["taken"], 1)
            self.assertAlmostEqual(ReadingRow.objects.get(proof=row["proof"]).value, wanted, places=6)

    def taken(self, **row: str) -> dict[str, Any]:
        """What becomes of a table of one row."""
        answer = self.send([row], sure=True)
        return dict(answer.json()) | {"status": answer.status_code}

    def test_a_text_without_a_unit_is_in_the_makers_own(self) -> None:
        keep_shop(workbench().model_copy(update={"rounding": Rounding(system="inch")}))
        row = next(one for one in self.table() if one["unit"] == "mm")
        looked = self.send([{"proof": row["proof"], "value": "7 1/2"}]).json()
        self.assertEqual([one["said"] for one in looked["fresh"]], ["7 1/2 in"])
        self.assertEqual(self.taken(proof=row["proof"], value="7 1/2")["taken"], 1)
        self.assertAlmostEqual(ReadingRow.objects.get(proof=row["proof"]).value, 190.5)
        long = self.taken(proof=row["proof"], value="0" * 33 + "7 1/2")
        self.assertIn("at most 40 signs", long["detail"])

    def test_a_copy_there_is_not_is_named(self) -> None:
        for copy in ("x", "0", "2", "1000", "-1", "¹"):
            said = self.taken(proof="bore.l2", value="14", copy=copy)
            self.assertEqual(said["status"], 422)
            self.assertIn(f"row 2, bore.l2: Got {copy}; wanted: a number from 1 to 1", said["detail"])
        self.assertEqual(self.values(), {"bore.l1": "13.5"})

    def test_a_reading_the_piece_asks_no_more_can_be_corrected_still(self) -> None:
        where = f"{self.path}/readings/bore.gone1"
        self.assertEqual(self.call("PUT", where, {"typed": "14", "kind": "bore"}).status_code, 200)
        looked = self.send([{"proof": "bore.gone1", "value": "15.1"}]).json()
        self.assertEqual([(one["about"], one["said"]) for one in looked["fresh"]],
                         [("asked no more", "14 becomes 15.1")])  # fmt: skip
        self.assertEqual(self.taken(proof="bore.gone1", value="15.1")["taken"], 1)
        self.assertEqual(self.values(), {"bore.l1": "13.5", "bore.gone1": "15.1"})

    def test_what_was_read_anew_since_stays_when_it_is_taken_back(self) -> None:
        rows = self.table()
        for row in rows:
            row["value"] = {"bore.l2": "14", "bore.l3": "14"}.get(row["proof"], "")
        taken = self.send(rows, sure=True).json()
        self.call("PUT", f"{self.path}/readings/bore.l3", {"typed": "15"})
        undone = self.call("POST", f"/api/imports/{taken['undo']}/undo").json()["said"]
        self.assertEqual(undone, "1 reading is as it was; 1 read anew since stays")
        self.assertEqual(self.values(), {"bore.l1": "13.5", "bore.l3": "15"})

    def test_whoever_brought_it_in_takes_it_back_or_the_first_maker(self) -> None:
        others = {}
        for name in ("linden", "rowan"):
            self.call("POST", "/api/makers", {"name": name, "password": GOOD})
            others[name] = Someone()
            others[name].sign_in(name, GOOD)
        body = {"text": "proof,value\nbore.l2,13", "sure": True}
        undo = others["linden"].call("POST", f"{self.path}/readings_table", body).json()["undo"]
        where = f"/api/imports/{undo}/undo"
        self.assertEqual(others["rowan"].call("POST", where, {}).status_code, 403)
        self.assertEqual(self.call("POST", where).status_code, 200)
        self.assertEqual(self.call("POST", "/api/imports/9999/undo").status_code, 404)
        with mock.patch.object(imports, "KEPT", 2):
            numbers = [imports.remember("archive", {}, None).pk for _ in range(3)]
        self.assertEqual(list(Import.objects.order_by("pk").values_list("pk", flat=True)), numbers[1:])

    def test_one_bad_row_is_named_and_keeps_all_of_it_out(self) -> None:
        rows = self.table()
        for row in rows:
            row["value"] = {"bore.l1": "200", "bore.l2": "14"}.get(row["proof"], "")
        rows.append({**rows[0], "proof": "bore.l99", "value": "3"})
        rows.append({**rows[0], "proof": "bore.l2", "value": "12", "copy": "7"})
        rows.append({**rows[0], "proof": "centres.l1-l2", "value": "12 kg"})
        rows.append({**rows[0], "proof": "bore.l3", "value": "1" * 60})
        looked = self.send(rows).json()
        self.assertEqual(len(looked["fresh"]), 1)
        self.assertEqual(len(looked["bad"]), 5)
        refused = self.send(rows, sure=True)
        self.assertEqual(refused.status_code, 422)
        self.assertIn(f"row {looked['bad'][0]['row']}, ", refused.json()["detail"])
        self.assertEqual(self.values(), {"bore.l1": "13.5"})

    def test_what_is_no_such_table_is_refused_with_what_is_wanted(self) -> None:
        for text, said in (
            ("", "a column called proof"),
            ("a,b\n1,2", "a column called proof"),
            ('proof,value\n"bore.l1', "a table of rows"),
            ("proof,value\n" + "bore.l1,1\n" * 20_001, "at most 20000 rows"),
        ):
            answer = self.call("POST", f"{self.path}/readings_table", {"text": text})
            self.assertEqual(answer.status_code, 422)
            self.assertIn(said, answer.json()["detail"])


class WholeShop(ApiCase):
    """An archive over the API: looked through, taken in, taken back; what it must not hold."""

    def setUp(self) -> None:
        super().setUp()
        self.hung = self.new(name="Sill bench")["id"]
        self.call("PUT", f"/api/pieces/{self.hung}/readings/bore.l1", {"typed": "12"})

    def archive(self) -> bytes:
        return b"".join(self.call("GET", "/api/archive").streaming_content)

    def send(self, raw: bytes, query: str = "", kind: str = "application/zip") -> Any:
        return self.client.generic(
            "POST", f"/api/archive{query}", raw, content_type=kind, headers={"X-CSRFToken": self.token}
        )

    def packed(self, **files: Any) -> bytes:
        out = io.BytesIO()
        about = {"format": "proud-rake-archive", "version": 2}
        with zipfile.ZipFile(out, "w") as made:
            given = {"about.json": about, **files}
            for name, what in given.items():
                made.writestr(name, what if isinstance(what, bytes | str) else json.dumps(what))
        return out.getvalue()

    def test_it_is_looked_through_then_taken_in_then_taken_back(self) -> None:
        raw = self.archive()
        PieceRow.objects.all().delete()
        looked = self.send(raw).json()
        self.assertEqual((looked["hung"], looked["taken"], looked["undo"]), (1, False, None))
        self.assertEqual(
            [(one["name"], one["what"]) for one in looked["pieces"]], [("Sill bench", "hangs")]
        )
        self.assertEqual(PieceRow.objects.count(), 0)
        taken = self.send(raw, "?sure=true").json()
        self.assertEqual((taken["hung"], taken["taken"]), (1, True))
        self.assertEqual([p["name"] for p in self.call("GET", "/api/pieces").json()], ["Sill bench"])
        said = self.call("POST", f"/api/imports/{taken['undo']}/undo").json()["said"]
        self.assertIn("1 piece is off the rack", said)
        self.assertEqual(self.call("GET", "/api/pieces").json(), [])

    def test_a_shop_that_came_along_goes_again_unless_it_was_changed_since(self) -> None:
        for changed in (False, True):
            keep_shop(workbench().model_copy(update={"name": "Larkmoor"}), None)
            raw = self.archive()
            PieceRow.objects.all().delete()
            ShopRow.objects.all().delete()
            taken = self.send(raw, "?sure=true").json()
            self.assertTrue(taken["shop"])
            if changed:
                shop = self.call("GET", "/api/shop").json()["shop"]
                self.assertEqual(self.call("PUT", "/api/shop", {"shop": shop}).status_code, 200)
            said = self.call("POST", f"/api/imports/{taken['undo']}/undo").json()["said"]
            self.assertEqual("the shop's tools are as before" in said, not changed, said)
            self.assertEqual(ShopRow.objects.count(), int(changed))

    def test_what_was_worked_on_since_stays(self) -> None:
        raw = self.archive()
        PieceRow.objects.all().delete()
        taken = self.send(raw, "?sure=true").json()
        self.call("PUT", f"/api/pieces/{self.hung}/readings/bore.l2", {"typed": "12"})
        said = self.call("POST", f"/api/imports/{taken['undo']}/undo").json()["said"]
        self.assertIn("1 that was worked on since stays", said)
        self.assertEqual(len(self.call("GET", "/api/pieces").json()), 1)

    def test_all_of_it_or_nothing_unless_the_rest_is_wished(self) -> None:
        raw = self.archive()
        PieceRow.objects.all().delete()
        out = io.BytesIO()
        with zipfile.ZipFile(io.BytesIO(raw)) as given, zipfile.ZipFile(out, "w") as made:
            for name in given.namelist():
                made.writestr(name, given.read(name))
            made.writestr("pieces/00002-bad.json", '{"format": "proud-rake-record", "version": 9}')
        refused = self.send(out.getvalue(), "?sure=true").json()
        self.assertEqual((refused["taken"], refused["refused"], PieceRow.objects.count()), (False, 1, 0))
        self.assertIn("version", next(p["why"] for p in refused["pieces"] if p["what"] == "refused"))
        rest = self.send(out.getvalue(), "?sure=true&leave=true").json()
        self.assertEqual((rest["taken"], rest["hung"], PieceRow.objects.count()), (True, 1, 1))

    def test_bad_archives_are_refused_with_the_reason(self) -> None:
        whole = self.archive()
        nested = self.packed(**{"inside.zip": whole})
        bad = {
            "cut short": (whole[: len(whole) // 2], "damaged"),
            "nothing": (b"", "damaged"),
            "no zip": (b"GIF89a" * 40, "damaged"),
            "nested": (nested, "an archive in it"),
            "a path out": (self.packed(**{"../../etc/passwd": "x"}), "no archive of this program has such"),
            "an absolute path": (
                self.packed(**{"/etc/passwd": "x"}),
                "no archive of this program has such",
            ),
            "a drive": (self.packed(**{"C:\\x": "x"}), "no archive of this program has such"),
            "somebody else's": (self.packed(**{"about.json": {"format": "holiday"}}), "no archive of this"),
            "of the future": (
                self.packed(**{"about.json": {"format": "proud-rake-archive", "version": 3}}),
                "a later program made it",
            ),
            "no JSON": (self.packed(**{"about.json": "{"}), "no whole JSON"),
            "deep": (self.packed(**{"about.json": "[" * 100_000}), "no whole JSON"),
            "another shop": (self.packed(**{"makers.json": {"name": 3}}), "another shape"),
        }
        for what, (raw, said) in bad.items():
            for query in ("", "?sure=true"):
                with self.subTest(what):
                    answer = self.send(raw, query)
                    self.assertEqual(answer.status_code, 422, answer.content)
                    self.assertIn(said, answer.json()["detail"])
        self.assertEqual(PieceRow.objects.count(), 1)

    def test_a_bomb_is_not_unfolded(self) -> None:
        with mock.patch("workshop.keeping.parts.MOST_UNPACKED", 100_000):
            out = io.BytesIO()
            with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as made:
                made.writestr("about.json", json.dumps({"format": "proud-rake-archive", "version": 2}))
                made.writestr("pieces/1.json", b" " * 5_000_000)
            answer = self.send(out.getvalue())
        self.assertEqual(answer.status_code, 422)
        self.assertIn("unfolds into more", answer.json()["detail"])

    def test_only_the_first_maker_takes_a_shop_in_or_out(self) -> None:
        self.call("POST", "/api/makers", {"name": "linden", "password": GOOD})
        linden = Someone()
        linden.sign_in("linden", GOOD)
        self.assertEqual(linden.call("GET", "/api/archive").status_code, 403)
        self.assertEqual(linden.call("POST", "/api/archive", {}).status_code, 403)
        self.assertEqual(self.send(b"x", kind="text/plain").status_code, 415)

    def test_it_goes_out_a_piece_at_a_time(self) -> None:
        """No part that is sent holds more than one piece with its photograph."""
        for number in range(8):
            self.new(name=f"Stool {number}")
        parts = list(self.call("GET", "/api/archive").streaming_content)
        self.assertGreaterEqual(len(parts), 9)
        self.assertLess(max(map(len, parts)), 200_000)
        with zipfile.ZipFile(io.BytesIO(b"".join(parts))) as archive:
            self.assertIsNone(archive.testzip())
            self.assertEqual(sum(name.startswith("pieces/") for name in archive.namelist()), 9)

    def test_a_piece_of_another_shop_with_a_start_s_document_is_hung(self) -> None:
        """By somebody who wrote the files from what docs/file-format.md says, version 1."""
        record = {
            "format": "proud-rake-record", "version": 1, "id": "6dd1f0a4-5a58-4ed0-9f43-0c8a3b2f6a11",
            "made": "2026-01-02T10:00:00Z",
            "states": [
                {"number": 1, "saved": "2026-01-02T10:00:00Z", "piece": write_piece(starter("slab"))}
            ],
        }  # fmt: skip
        about = {"format": "proud-rake-archive", "version": 1}
        raw = self.packed(**{"about.json": about, "pieces/a.json": record})
        self.assertEqual(self.send(raw, "?sure=true").json()["hung"], 1)


class StockIn(ApiCase):
    """Wood brought in as a table goes again, but for what was worked with since."""

    def test_it_is_taken_back_but_for_what_was_changed_since(self) -> None:
        rows = "kind,name,species,length,width,thickness\n"
        rows += "".join(f'board,Board {k},"ash, white",2000,200,40\n' for k in (1, 2, 3))
        body = {"sort": "csv", "text": rows, "sure": True}
        taken = self.call("POST", "/api/timber/taken_in", body).json()
        self.assertEqual(taken["taken"], 3)
        one = self.call("GET", "/api/timber").json()["items"][0]
        changed = {**one["item"], "length": 1900}
        kept = self.call("PUT", f"/api/timber/{one['id']}", {"item": changed, "based_on": 1})
        self.assertEqual(kept.status_code, 200, kept.content)
        said = self.call("POST", f"/api/imports/{taken['undo']}/undo").json()["said"]
        self.assertIn("2 pieces of wood are out of the store; 1 that was changed", said)
        self.assertEqual([w["id"] for w in self.call("GET", "/api/timber").json()["items"]], [one["id"]])
