"""Backups bring everything back, damaged ones say so, and a folder belongs to one program at a time."""

from __future__ import annotations

import errno
import io
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
from django.core.management import CommandError, call_command
from django.db import OperationalError, connection
from django.db.migrations.recorder import MigrationRecorder
from django.test import SimpleTestCase, TransactionTestCase, override_settings

from splay.piece import write_piece
from splay.piece.starters import starter
from tests.api.base import ApiCase, Calls
from workshop import folder
from workshop.keeping import backup, nightly
from workshop.keeping.check import check
from workshop.keeping.management.commands.serve import Command as Serve
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
        self.assertIn("1 pieces", said)
        self.assertEqual({table: self.rows(table) for table in before}, before)
        self.assertEqual(self.rows("django_session"), [])

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
            "a later format": packed(about.replace(b'"version": 1', b'"version": 9'), database),
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
        found = check(made, self.data)
        self.assertEqual(
            (found.newer["readings"], found.newer["states"], found.missing["photographs"]), (1, 1, 1)
        )
        self.assertIn(
            "cannot be read", self.manage("backup_check", str(backup.make(self.data, "hand")), ok=False)
        )
        self.assertIn("Everything in it comes back", self.manage("backup_check", str(made)))

    def test_only_the_last_of_a_kind_stay_whatever_the_clock_says(self) -> None:
        with mock.patch.dict(backup.KEPT, {"night": 3, "hand": 2}):
            for year in (2090, 2026, 2026, 2026, 1999):
                with mock.patch.object(backup, "datetime", wraps=backup.datetime) as clock:
                    clock.now.return_value = backup.datetime(year, 1, 1, tzinfo=backup.UTC)
                    backup.make(self.data, "night")
            backup.make(self.data, "hand")
        names = [one.name for one in backup.all_in(self.data)]
        self.assertEqual([name[:17] for name in names], [f"proud-rake-{n:06d}" for n in (6, 5, 4, 3)])

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

    def test_a_stick_that_is_in_gets_a_copy_and_keeps_the_last_ones(self) -> None:
        with tempfile.TemporaryDirectory() as named:
            stick = Path(named)
            made = stick / "made.zip"
            with override_settings(BACKUPS_TO=stick), mock.patch.dict(backup.KEPT, {"night": 2}):
                for number in range(4):
                    made = Path(tempfile.gettempdir()) / f"proud-rake-{number:06d}-20261128-night.zip"
                    made.write_bytes(b"archive")
                    nightly.copy_out(made)
                    made.unlink()
                kept = sorted(path.name[:17] for path in stick.iterdir())
            self.assertEqual(kept, ["proud-rake-000002", "proud-rake-000003"])
            with override_settings(BACKUPS_TO=stick / "not-in"):
                nightly.copy_out(made)


class Health(ApiCase):
    def test_strangers_are_told_nothing_but_whether_it_works(self) -> None:
        self.client.logout()
        said = self.client.get("/api/health").json()
        self.assertEqual({name for name, value in said.items() if value}, {"ok"})

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
            self.assertEqual(len(b"".join(fetched)), listed["size"])
            for name in ("nothing.zip", "..%2Fsecret-key", "proud-rake-000001-20261128-hand.zip"):
                self.assertEqual(self.client.get(f"/api/backups/{name}").status_code, 404, name)


class FullDisk(Calls, TransactionTestCase):
    """The database itself made unable to grow: SQLite answers as it does on a full disk."""

    def test_what_cannot_be_kept_is_said_and_reading_goes_on(self) -> None:
        piece = self.new()
        document = {**write_piece(starter("round_three")), "name": "x" * 100}
        body = {"document": document, "based_on": 1}
        with connection.cursor() as cursor:
            cursor.execute("PRAGMA page_count")
            pages = cursor.fetchone()[0]
            cursor.execute(f"PRAGMA max_page_count = {pages}")
        self.addCleanup(lambda: connection.cursor().execute("PRAGMA max_page_count = 1073741823"))
        statuses = []
        with self.assertLogs("workshop", "ERROR"):
            for number in range(60):
                body["document"] = {**document, "name": f"{number} {'x' * 100}"}
                answer = self.call("PUT", f"/api/pieces/{piece['id']}", {**body, "based_on": number + 1})
                statuses.append(answer.status_code)
                if answer.status_code != 200:
                    break
        self.assertEqual(statuses[-1], 507, statuses)
        self.assertIn("Make room", answer.json()["detail"])
        self.assertEqual(self.call("GET", f"/api/pieces/{piece['id']}").json()["revision"], len(statuses))
        self.assertEqual(self.call("GET", "/api/pieces").status_code, 200)

    def test_a_folder_that_may_only_be_read_is_said_alike(self) -> None:
        piece = self.new()
        for words in ("attempt to write a readonly database", "unable to open database file"):
            with (
                mock.patch(
                    "workshop.pieces.actions.Revision.objects.create", side_effect=OperationalError(words)
                ),
                self.assertLogs("workshop", "ERROR"),
            ):
                document = {**write_piece(starter("round_three")), "name": "Another"}
                where = f"/api/pieces/{piece['id']}"
                answer = self.call("PUT", where, {"document": document, "based_on": 1})
            self.assertEqual(answer.status_code, 507)


class Folder(SimpleTestCase):
    databases = "__all__"  # type: ignore[assignment]

    def setUp(self) -> None:
        self.folder = Path(tempfile.mkdtemp(prefix="proud-rake-folder-"))
        self.addCleanup(shutil.rmtree, self.folder)

    def test_one_server_works_in_a_folder_and_the_second_says_so(self) -> None:
        held = folder.hold(self.folder)
        assert held is not None
        self.assertIsNone(folder.hold(self.folder, patience=0.2))
        with (
            override_settings(DATA_DIR=self.folder),
            mock.patch.object(folder, "hold", return_value=None),
            self.assertRaisesRegex(CommandError, "works in .* already"),
        ):
            call_command("serve")
        os.close(held)
        again = folder.hold(self.folder, patience=0.2)
        assert again is not None
        self.assertTrue(os.get_inheritable(again), "the server that follows would lose it")
        os.close(again)

    def test_what_is_wrong_with_a_folder_is_said_plainly(self) -> None:
        said = {
            errno.ENOSPC: "full",
            errno.EROFS: "only be read",
            errno.EACCES: "may not write",
            errno.EPERM: "may not write",
        }
        for number, words in said.items():
            error = OSError(number, os.strerror(number))
            with (
                self.subTest(words),
                override_settings(DATA_DIR=self.folder),
                mock.patch.object(folder, "cannot_write", return_value=error),
                mock.patch.object(folder, "hold", side_effect=error),
                self.assertRaisesRegex(CommandError, words),
            ):
                call_command("serve")
        taken = self.folder / "a-file"
        taken.write_text("")
        with self.assertRaisesRegex(SystemExit, "is a file"):
            folder.open_folder(taken)

    def test_a_full_disk_is_said_and_what_is_there_can_be_looked_at(self) -> None:
        full = OSError(errno.ENOSPC, "No space left on device")
        err = io.StringIO()
        with (
            mock.patch.object(folder, "cannot_write", return_value=full),
            override_settings(DATA_DIR=self.folder),
        ):
            held = Serve(stderr=err)._own_folder()
        os.close(held)
        self.assertIn("pieces can be looked at", err.getvalue())

    def test_data_of_a_later_version_are_left_alone(self) -> None:
        later = {("pieces", "0099_from_tomorrow"): None, ("auth", "0001_initial"): None}
        with (
            mock.patch.object(MigrationRecorder, "applied_migrations", return_value=later),
            self.assertRaisesRegex(CommandError, "pieces 0099_from_tomorrow.*Nothing was changed"),
        ):
            Serve()._own_database(migrate=True, full=False)

    def test_the_key_is_written_whole_once_and_for_its_owner(self) -> None:
        key = folder.secret_of(self.folder)
        self.assertGreater(len(key), 50)
        self.assertEqual(folder.secret_of(self.folder), key)
        self.assertEqual(stat.S_IMODE((self.folder / "secret-key").stat().st_mode), 0o600)
        self.assertEqual([path.name for path in self.folder.iterdir()], ["secret-key"])
        # A power cut once left files with nothing in them: that is no key to sign with.
        (self.folder / "secret-key").write_text("")
        self.assertGreater(len(folder.secret_of(self.folder)), 50)

    def test_of_two_that_begin_at_once_one_key_is_everybodys(self) -> None:
        say = "import sys; from pathlib import Path; from workshop.folder import secret_of; "
        say += "print(secret_of(Path(sys.argv[1])))"
        begun = [
            subprocess.Popen(
                [sys.executable, "-c", say, str(self.folder)],
                cwd=settings.BASE_DIR,
                stdout=subprocess.PIPE,
                text=True,
            )
            for _ in range(6)
        ]
        self.assertEqual(len({one.communicate()[0] for one in begun}), 1)
