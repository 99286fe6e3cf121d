"""The data folder and its disk: one server at a time, and plain words where it cannot work."""

from __future__ import annotations

import errno
import io
import os
import shutil
import stat
import subprocess
import sys
import tempfile
import time
from pathlib import Path
from threading import Timer
from unittest import mock

from django.conf import settings
from django.core.management import CommandError, call_command
from django.db import OperationalError, connection
from django.db.migrations.recorder import MigrationRecorder
from django.test import SimpleTestCase, TransactionTestCase, override_settings

from splay.piece import write_piece
from splay.piece.starters import starter
from tests.api.base import Calls
from workshop import folder
from workshop.keeping.management.commands.serve import Command as Serve


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

    def test_a_file_that_cannot_be_put_where_it_is_wanted_says_where_and_why(self) -> None:
        (self.folder / "plain").write_text("x")
        for name, said in (("gone/all.zip", "There is no folder"), ("plain/all.zip", "is a file")):
            wanted = self.folder / name
            with self.assertRaisesRegex(CommandError, said) as raised:
                call_command("take_out", wanted)
            self.assertIn(str(wanted.parent), str(raised.exception))
        data = self.folder / "data"
        data.mkdir()
        (data / "proud-rake.sqlite3").write_bytes(b"x")
        kept = "workshop.keeping.management.commands.backup.backup"
        for number, said in (
            (errno.ENOSPC, "is full"),
            (errno.EROFS, "only be read"),
            (errno.EACCES, "may not write in"),
            (errno.EPERM, "may not write in"),
            (errno.EIO, "could not be written"),
        ):
            full = OSError(number, os.strerror(number))
            with mock.patch(f"{kept}.make", side_effect=full), override_settings(DATA_DIR=data):
                with self.assertRaisesRegex(CommandError, said) as raised:
                    call_command("backup", Path("stick") / "all.zip")
                self.assertIn("Name another place", str(raised.exception))
                self.assertNotIn(str(data), str(raised.exception))
                with self.assertRaises(CommandError) as raised:
                    call_command("backup")
                self.assertIn(f"the data folder {data}", str(raised.exception))

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

    def test_a_server_that_is_just_ending_is_waited_for(self) -> None:
        held = folder.hold(self.folder)
        assert held is not None
        ending = Timer(0.3, os.close, (held,))
        ending.start()
        self.addCleanup(ending.join)
        began = time.monotonic()
        after = folder.hold(self.folder, patience=20.0)
        assert after is not None
        self.assertGreater(time.monotonic() - began, 0.2)
        os.close(after)

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
