"""Backups bring everything back, damaged ones say so, and a folder belongs to one program at a time."""

from __future__ import annotations

import errno
import io
import json
import os
import shutil
import sqlite3
import stat
import subprocess
import sys
import tempfile
import time
import zipfile
from contextlib import closing
from pathlib import Path
from typing import Any, ClassVar
from unittest import mock

from django.conf import settings
from django.core.management import call_command
from django.test import SimpleTestCase, override_settings, tag

from tests.api.base import ApiCase
from workshop import folder
from workshop.keeping import backup, nightly
from workshop.keeping.check import check
from workshop.keeping.management.commands import keep
from workshop.keeping.management.commands.backup import _open_files
from workshop.keeping.models import Night

MORNING = time.struct_time((2026, 11, 28, 5, 0, 0, 5, 332, 0))


class Kept(SimpleTestCase):
    """A folder with a database as the program makes it, some pieces in it."""

    filled: ClassVar[Path]

    @classmethod
    def setUpClass(cls) -> None:
        super().setUpClass()
        cls.filled = Path(tempfile.mkdtemp(prefix="proud-rake-filled-"))
        cls.addClassCleanup(shutil.rmtree, cls.filled)
        made = cls("run_of")
        made.data = cls.filled / "data"
        made.manage("migrate", "--verbosity", "0")
        made.manage("shell", "-c", FILLED)

    def run_of(self) -> None:
        """What a case is named for that only fills the folder."""

    def setUp(self) -> None:
        self.folder = Path(tempfile.mkdtemp(prefix="proud-rake-kept-"))
        self.addCleanup(shutil.rmtree, self.folder)
        self.data = self.folder / "data"
        shutil.copytree(self.filled / "data", self.data)

    def manage(self, *words: str, ok: bool = True, **env: str) -> str:
        """A command of the program on this folder; what it said."""
        its = {
            **os.environ,
            "PROUD_RAKE_DATA": str(self.data),
            "DJANGO_SETTINGS_MODULE": "workshop.settings",
        }
        its |= env
        command = [sys.executable, "manage.py", *words]
        ran = subprocess.run(
            command, cwd=settings.BASE_DIR, env=its, capture_output=True, text=True, timeout=120
        )
        self.assertEqual(ran.returncode == 0, ok, ran.stdout + ran.stderr)
        return ran.stdout + ran.stderr

    def rows(self, table: str) -> list[Any]:
        with closing(sqlite3.connect(self.data / backup.DATABASE)) as kept:
            return kept.execute(f"SELECT * FROM {table} ORDER BY 1").fetchall()

    def test_everything_comes_back_into_an_empty_folder_but_key_and_sessions(self) -> None:
        made = backup.make(self.data, "hand")
        tables = ("pieces_piecerow", "pieces_revision", "pieces_readingrow", "pieces_readingevent")
        before = {table: self.rows(table) for table in (*tables, "pieces_piecephoto", "auth_user")}
        self.assertTrue(all(before.values()))
        self.assertTrue(self.rows("django_session"))
        with zipfile.ZipFile(made) as archive:
            self.assertEqual(set(archive.namelist()), {"about.json", "database.sqlite3"})
            key = (self.data / "secret-key").read_text()
            for name in archive.namelist():
                self.assertNotIn(key.encode(), archive.read(name))
        self.data = self.folder / "elsewhere"
        said = self.manage("restore", str(made))
        self.assertIn("1 piece hangs again", said)
        self.assertEqual({table: self.rows(table) for table in before}, before)
        self.assertEqual(self.rows("django_session"), [])

    @tag("long")
    def test_a_backup_is_an_archive_too_and_either_brings_a_shop_back(self) -> None:
        """One format: the open files beside the database, and each of them alone is enough."""
        said = self.manage("backup", str(self.folder / "all.zip"))
        self.assertIn("all.zip", said)
        with zipfile.ZipFile(self.folder / "all.zip") as made:
            names = set(made.namelist())
            about = json.loads(made.read("about.json"))
            with zipfile.ZipFile(self.folder / "open.zip", "w") as bare:
                for name in names - {"database.sqlite3"}:
                    bare.writestr(name, made.read(name))
        self.assertTrue({"about.json", "database.sqlite3", "shop.json", "makers.json"} <= names)
        self.assertEqual((about["format"], about["version"]), ("proud-rake-archive", 2))
        self.assertIn("pieces_revision", about["tables"])
        states = self.rows("pieces_revision")
        for file in ("all.zip", "open.zip"):
            self.data = self.folder / f"out of {file}"
            self.assertIn("1 piece hangs again", self.manage("restore", str(self.folder / file)))
            self.assertEqual([row[2] for row in self.rows("pieces_revision")], [row[2] for row in states])
            self.assertIn("already", self.manage("restore", str(self.folder / file), ok=False))
        self.data = self.folder / "data"
        self.assertIn("1 hung already", self.manage("take_in", str(self.folder / "all.zip")))

    def test_a_backup_of_an_earlier_program_is_restored_still(self) -> None:
        made = backup.make(self.data, "hand")
        with zipfile.ZipFile(made) as archive:
            about, database = json.loads(archive.read("about.json")), archive.read("database.sqlite3")
        about |= {"format": "proud-rake-backup", "version": 1}
        old = self.folder / "old.zip"
        old.write_bytes(packed(json.dumps(about).encode(), database))
        before = self.rows("pieces_revision")
        self.data = self.folder / "elsewhere"
        self.manage("restore", str(old))
        self.assertEqual(self.rows("pieces_revision"), before)
        # It has no open files to be taken in: that is said.
        self.assertIn("restore it", self.manage("take_in", str(old), ok=False))

    def test_open_files_that_cannot_be_written_cost_no_backup(self) -> None:
        def broken(archive: zipfile.ZipFile) -> None:
            archive.writestr("shop.json", "{}")
            raise ValueError("a piece nobody can write")

        with self.assertLogs("workshop.keeping.backup", "ERROR"):
            made = backup.make(self.data, "hand", beside=broken)
        with zipfile.ZipFile(made) as archive:
            self.assertIn("nobody can write", archive.read("open-files-end-here.txt").decode())
        backup.unpack(made, self.folder / "elsewhere")

    def test_data_of_an_earlier_program_are_backed_up_without_open_files(self) -> None:
        """The open files are written by this program's own tables, which are not there yet."""
        for steps, written in ((([], []), True), (([], ["0009"]), False), ((["0099"], []), False)):
            with mock.patch("workshop.keeping.versions.steps", return_value=steps):
                self.assertEqual(_open_files() is not None, written, steps)

    def test_whether_there_is_a_database_in_it_decides_how_it_is_restored(self) -> None:
        made = backup.make(self.data, "hand")
        bare, none = self.folder / "open.zip", self.folder / "none.zip"
        with zipfile.ZipFile(made) as whole, zipfile.ZipFile(bare, "w") as opened:
            opened.writestr("about.json", whole.read("about.json"))
        with zipfile.ZipFile(none, "w") as other:
            other.writestr("letter.txt", "Dear maker")
        # What is no archive of ours is judged, and refused, where a database is restored.
        for file, there in ((made, True), (bare, False), (none, True), (self.folder / "gone.zip", True)):
            self.assertEqual(backup.has_database(file), there, file)
        at = self.folder / "stick" / "backups" / "all.zip"
        self.assertEqual(backup.make(self.data, "hand", at=at), at)
        self.assertTrue(at.exists())
        deep = self.folder / "another" / "place"
        backup.unpack(made, deep)
        self.assertTrue((deep / backup.DATABASE).exists())

    def test_it_is_never_restored_over_data(self) -> None:
        made = backup.make(self.data, "hand")
        before = self.rows("pieces_revision")
        self.assertIn("empty folder", self.manage("restore", str(made), ok=False))
        self.assertEqual(self.rows("pieces_revision"), before)

    def test_a_damaged_archive_is_found_and_restores_nothing(self) -> None:
        made = backup.make(self.data, "hand")
        whole = made.read_bytes()
        with zipfile.ZipFile(made) as archive:
            about, database = archive.read("about.json"), archive.read("database.sqlite3")
        changed = sqlite3.connect(":memory:")
        changed.deserialize(database)
        changed.execute("UPDATE pieces_readingrow SET value = 99")
        changed.commit()
        spoiled = {
            "cut short": whole[: len(whole) // 2],
            "a byte turned": whole[: len(whole) // 2]
            + bytes([whole[len(whole) // 2] ^ 1])
            + whole[len(whole) // 2 + 1 :],
            "another reading": packed(about, changed.serialize()),
            "a later format": packed(about.replace(b'"version": 2', b'"version": 9'), database),
            "no archive": b"PK not at all",
            "somebody else's": packed(b'{"format": "holiday pictures"}', database),
        }
        for what, raw in spoiled.items():
            with self.subTest(what):
                bad, empty = self.folder / "bad.zip", self.folder / "empty"
                bad.write_bytes(raw)
                with self.assertRaises(backup.NotABackup):
                    backup.unpack(bad, empty)
                self.assertFalse((empty / backup.DATABASE).exists())

    def test_checking_one_reads_every_state_and_says_what_is_newer(self) -> None:
        made = backup.make(self.data, "hand")
        found = check(made, self.data)
        self.assertEqual(found.counts, {"states": 2, "readings": 1, "photographs": 1, "shops": 0})
        self.assertEqual((found.unread, sum(found.newer.values()), sum(found.missing.values())), ([], 0, 0))
        with closing(sqlite3.connect(self.data / backup.DATABASE)) as live:
            live.execute("UPDATE pieces_readingrow SET value = 3")
            live.execute("DELETE FROM pieces_piecephoto")
            live.execute("UPDATE pieces_revision SET document = '{}' WHERE number = 1")
            live.commit()
        torn = check(backup.make(self.data, "hand"), self.data)
        self.assertEqual([one.split()[0] for one in torn.unread], ["state"])
        found = check(made, self.data)
        self.assertEqual(
            (found.newer["readings"], found.newer["states"], found.missing["photographs"]), (1, 1, 1)
        )
        self.assertIn(
            "cannot be read", self.manage("backup_check", str(backup.make(self.data, "hand")), ok=False)
        )
        self.assertIn("Everything in it comes back", self.manage("backup_check", str(made)))

    def test_a_folder_may_be_called_anything(self) -> None:
        self.data = self.data.rename(self.folder / "100% oak #2?mode=rw")
        found = check(backup.make(self.data, "hand"), self.data)
        self.assertEqual((found.counts["states"], sum(found.missing.values())), (2, 0))

    def test_a_database_is_read_without_being_made_or_written(self) -> None:
        live = backup.to_read(self.data / backup.DATABASE)
        with closing(live), self.assertRaisesRegex(sqlite3.OperationalError, "readonly"):
            live.execute("DELETE FROM pieces_readingrow")
        with self.assertRaises(sqlite3.OperationalError):
            backup.to_read(self.folder / "none.sqlite3")
        self.assertFalse((self.folder / "none.sqlite3").exists())

    def test_a_photograph_nobody_can_see_is_named(self) -> None:
        with closing(sqlite3.connect(self.data / backup.DATABASE)) as live:
            live.execute("UPDATE pieces_piecephoto SET image = x'ffd8ff'")
            live.commit()
        found = check(backup.make(self.data, "hand"), self.data)
        self.assertEqual([one.split()[0] for one in found.unread], ["photograph"])

    def test_only_the_last_of_a_kind_stay_whatever_the_clock_says(self) -> None:
        with mock.patch.dict(backup.KEPT, {"night": 3, "hand": 2}):
            for year in (2090, 2026, 2026, 2026, 1999):
                with mock.patch.object(backup, "datetime", wraps=backup.datetime) as clock:
                    clock.now.return_value = backup.datetime(year, 1, 1, tzinfo=backup.UTC)
                    backup.make(self.data, "night")
            backup.make(self.data, "hand")
        names = [one.name for one in backup.all_in(self.data)]
        self.assertEqual([name[:17] for name in names], [f"proud-rake-{n:06d}" for n in (6, 5, 4, 3)])

    def test_what_somebody_named_himself_counts_for_nothing_and_is_never_taken_away(self) -> None:
        odd = ("²-1-hand", "all", "", "9-x-hand")
        own = [f"proud-rake-{name}.zip" for name in odd]
        backup.folder_of(self.data).mkdir()
        for name in own:
            (backup.folder_of(self.data) / name).touch()
        with mock.patch.dict(backup.KEPT, {"hand": 2}):
            for _ in range(3):
                backup.make(self.data, "hand")
        names = {one.name for one in backup.all_in(self.data)}
        self.assertLessEqual(set(own), names)
        self.assertEqual({name[11:17] for name in names - set(own)}, {"000002", "000003"})

    def test_it_and_all_data_are_for_their_owner_alone(self) -> None:
        backup.make(self.data, "hand")
        folder.keep_private(self.data)
        for path in [*self.data.rglob("*")]:
            if path.is_file():
                self.assertEqual(stat.S_IMODE(path.stat().st_mode) & 0o077, 0, path)

    def test_the_data_are_copied_before_they_are_brought_up_to_date(self) -> None:
        self.manage("migrate", "pieces", "0005", "--verbosity", "0")
        with closing(sqlite3.connect(self.data / backup.DATABASE)) as live:
            old = {name for _, name, *_ in live.execute("PRAGMA table_info(pieces_piecerow)")}
        self.assertNotIn("turn", old)
        # Refused after the data were brought up to date: the demo keeps out of a maker's own folder.
        said = self.manage("serve", "--migrate", ok=False, PROUD_RAKE_DEMO="1")
        self.assertIn("the makers' own: ash", said)
        [kept] = backup.all_in(self.data)
        self.assertEqual(kept.kind, "before")
        with zipfile.ZipFile(kept.path) as archive:
            before = sqlite3.connect(":memory:")
            before.deserialize(archive.read("database.sqlite3"))
        self.assertEqual(
            {name for _, name, *_ in before.execute("PRAGMA table_info(pieces_piecerow)")}, old
        )
        made_by = [
            dict(zip(("turn", "made_by"), row, strict=True)) for row in self.query("turn, made_by_id")
        ]
        self.assertEqual(made_by, [{"turn": 1, "made_by": 1}])

    def query(self, what: str) -> list[Any]:
        with closing(sqlite3.connect(self.data / backup.DATABASE)) as live:
            return live.execute(f"SELECT {what} FROM pieces_piecerow").fetchall()


FILLED = """
import io
from django.contrib.auth.models import User
from django.test import Client
from PIL import Image
from splay.piece import write_piece
from splay.piece.starters import starter
from splay.shop import workbench
from workshop.pieces import actions, photos
ash = User.objects.create_user("ash", password="spokeshave-and-adze")
row = actions.put_on_rack(starter("round_three"), ash)
document = {**write_piece(starter("round_three")), "name": "Second thought"}
actions.save(row.pk, document, "metric", 1, ash)
actions.answer(row.pk, "bore.l1", actions.Taken("12", "metric"), workbench(), ash)
made = io.BytesIO()
Image.new("RGB", (40, 30), "tan").save(made, "PNG")
photos.keep_photo(row.pk, made.getvalue(), ash)
Client().force_login(ash)
"""


def packed(about: bytes, database: bytes) -> bytes:
    """An archive of these two."""
    made = io.BytesIO()
    with zipfile.ZipFile(made, "w") as archive:
        archive.writestr("about.json", about)
        archive.writestr("database.sqlite3", database)
    return made.getvalue()


class Nights(ApiCase):
    def test_the_nights_work_is_done_once_a_day_and_any_other_day_counts(self) -> None:
        self.assertTrue(nightly.due(MORNING))
        self.assertFalse(nightly.due(time.struct_time((2026, 11, 28, 1, 0, 0, 5, 332, 0))), "too early")
        self.assertTrue(nightly.due(time.struct_time((2026, 11, 28, 2, 0, 0, 5, 332, 0))))
        with (
            mock.patch.object(backup, "make", return_value=Path("x")),
            mock.patch.object(nightly, "copy_out"),
        ):
            self.assertEqual(nightly.tonight(MORNING), "")
        self.assertFalse(nightly.due(MORNING))
        for year in (2025, 2090):
            self.assertTrue(nightly.due(time.struct_time((year, 11, 28, 5, 0, 0, 5, 332, 0))), year)

    def test_a_backup_that_fails_is_said_to_the_makers_and_harms_nothing_else(self) -> None:
        full = OSError(errno.ENOSPC, "No space left on device")
        with mock.patch.object(backup, "make", side_effect=full), self.assertLogs("workshop", "ERROR"):
            nightly.tonight(MORNING)
        said = self.call("GET", "/api/health").json()
        self.assertIn("backup failed", said["troubles"][0])
        with (
            mock.patch.object(backup, "make", return_value=Path("x")),
            mock.patch.object(nightly, "copy_out"),
        ):
            nightly.tonight(MORNING)
        self.assertEqual(self.call("GET", "/api/health").json()["troubles"], [])

    def test_beside_a_server_it_looks_at_the_clock_every_ten_minutes_and_ends_with_it(self) -> None:
        gone = {"s": 0.0}

        def sleep(seconds: float) -> None:
            gone["s"] += seconds

        with (
            mock.patch.object(keep.os, "getppid", side_effect=lambda: 7 if gone["s"] < 1500 else 1),
            mock.patch.object(keep.time, "monotonic", side_effect=lambda: gone["s"]),
            mock.patch.object(keep.time, "sleep", side_effect=sleep),
            mock.patch.object(keep, "due", side_effect=[False, True, OSError("no disk")]) as due,
            mock.patch.object(keep, "tonight") as tonight,
            mock.patch.object(keep, "close_old_connections"),
            mock.patch.object(keep.os, "umask"),
            self.assertLogs("workshop.keeping", "ERROR"),
        ):
            call_command("keep", beside=7)
        # At 0, 600 and 1200 s; the server was gone at 1500.
        self.assertEqual((due.call_count, tonight.call_count), (3, 1))
        self.assertLess(gone["s"], 1502.0)

    def test_a_stick_that_is_in_gets_a_copy_and_keeps_the_last_ones(self) -> None:
        with tempfile.TemporaryDirectory() as named:
            stick = Path(named)
            made = stick / "made.zip"
            (stick / "my-own-night.zip").touch()
            with override_settings(BACKUPS_TO=stick), mock.patch.dict(backup.KEPT, {"night": 2}):
                for number in range(4):
                    made = Path(tempfile.gettempdir()) / f"proud-rake-{number:06d}-20261128-night.zip"
                    made.write_bytes(b"archive")
                    nightly.copy_out(made)
                    made.unlink()
                kept = sorted(path.name[:17] for path in stick.iterdir())
            self.assertEqual(kept, ["my-own-night.zip", "proud-rake-000002", "proud-rake-000003"])
            with override_settings(BACKUPS_TO=stick / "not-in"):
                nightly.copy_out(made)


class Health(ApiCase):
    def test_strangers_are_told_nothing_but_whether_it_works(self) -> None:
        self.client.logout()
        said = self.client.get("/api/health").json()
        self.assertEqual({name for name, value in said.items() if value}, {"ok"})

    def test_what_cannot_be_kept_is_told_to_both(self) -> None:
        for what, found, said in (
            ("_writable", False, "disk is full"),
            ("versions.steps", (["pieces 0099"], []), "stop the server"),
        ):
            with mock.patch(f"workshop.keeping.api.{what}", return_value=found):
                told = self.call("GET", "/api/health")
            self.assertEqual((told.status_code, told.json()["ok"]), (503, False))
            self.assertIn(said, " ".join(told.json()["troubles"]))
        self.client.logout()
        with mock.patch("workshop.keeping.api._writable", return_value=False):
            told = self.client.get("/api/health")
        self.assertEqual((told.status_code, told.json()["ok"]), (503, False))

    def test_makers_are_told_how_it_is(self) -> None:
        said = self.call("GET", "/api/health").json()
        self.assertTrue(said["ok"] and said["writable"] and said["up_to_date"])
        self.assertGreater(said["free"], 0)
        self.assertEqual(Night.objects.count(), 0, "the trial row was kept")

    def test_a_disk_that_is_nearly_full_is_said_before_it_is(self) -> None:
        usage = mock.Mock(free=120_000_000)
        with mock.patch("shutil.disk_usage", return_value=usage):
            self.assertIn("120 MB are left", self.call("GET", "/api/health").json()["troubles"][0])

    def test_backups_are_made_and_fetched_by_the_first_maker(self) -> None:
        made = mock.Mock(wraps=backup.make)
        with tempfile.TemporaryDirectory() as named, override_settings(DATA_DIR=Path(named)):
            with closing(sqlite3.connect(Path(named) / backup.DATABASE)) as here:
                here.execute("CREATE TABLE django_migrations (app, name)")
            with mock.patch.object(backup, "make", made):
                answer = self.call("POST", "/api/backups")
            self.assertEqual(answer.status_code, 201, answer.content)
            [listed] = self.call("GET", "/api/backups").json()
            self.assertEqual(listed, answer.json())
            fetched = self.client.get(f"/api/backups/{listed['name']}")
            self.assertEqual(fetched["Content-Type"], "application/zip")
            self.assertEqual(fetched["Content-Disposition"], f'attachment; filename="{listed["name"]}"')
            self.assertEqual(len(b"".join(fetched)), listed["size"])
            for name in ("nothing.zip", "..%2Fsecret-key", "proud-rake-000002-20010101-hand.zip"):
                self.assertEqual(self.client.get(f"/api/backups/{name}").status_code, 404, name)
