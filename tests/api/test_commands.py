from __future__ import annotations

import contextlib
import io
import json
from pathlib import Path
from unittest.mock import patch

from django.conf import settings
from django.contrib.auth import get_user_model
from django.core.management import CommandError, call_command, get_commands, load_command_class
from django.test import SimpleTestCase, TestCase, override_settings

from splay.piece.starters import starter
from splay.shop import workbench, write_shop
from workshop.keeping.management.commands.serve import Served
from workshop.pieces.actions import put_on_rack
from workshop.pieces.models import PieceRow
from workshop.worker import PatientWorker


class AddMaker(TestCase):
    def add(self, name: str, password: str, again: bool = False) -> str:
        out = io.StringIO()
        with patch("sys.stdin", io.StringIO(password + "\n")):
            call_command("addmaker", name, new_password=again, stdout=out)
        return out.getvalue()

    def opens(self, password: str) -> bool:
        return bool(get_user_model().objects.get(username="linden").check_password(password))

    def test_a_maker_gets_a_password_and_can_change_it(self) -> None:
        self.assertIn("may now sign in", self.add("linden", "spokeshave-and-adze"))
        self.assertTrue(self.opens("spokeshave-and-adze"))
        with self.assertRaisesRegex(CommandError, "already"):
            self.add("linden", "drawknife-and-froe")
        self.assertTrue(self.opens("spokeshave-and-adze"))
        self.assertIn("new password", self.add("linden", "drawknife-and-froe", again=True))
        self.assertFalse(self.opens("spokeshave-and-adze"))

    def test_somebody_at_the_terminal_is_asked_before_a_password_is_replaced(self) -> None:
        self.add("linden", "spokeshave-and-adze")
        for said, holds in (("no", "spokeshave-and-adze"), ("yes", "drawknife-and-froe")):
            with (
                patch("sys.stdin.isatty", return_value=True),
                patch("builtins.input", return_value=said),
                patch("getpass.getpass", return_value="drawknife-and-froe"),
                contextlib.suppress(CommandError),
            ):
                call_command("addmaker", "linden", stdout=io.StringIO())
            self.assertTrue(self.opens(holds), said)

    def test_a_weak_one_is_refused_with_the_reason(self) -> None:
        for weak in ("", "1234567890", "password1"):
            with self.subTest(weak), self.assertRaises(CommandError):
                self.add("linden", weak)


class Serve(TestCase):
    def setUp(self) -> None:
        beside = patch("subprocess.Popen")
        self.beside = beside.start()
        self.addCleanup(beside.stop)

    def test_it_hands_over_to_the_server_at_the_address_it_prints(self) -> None:
        out = io.StringIO()
        with patch.object(Served, "run", autospec=True) as handed:
            call_command("serve", port=8999, stdout=out)
        self.assertIn("http://127.0.0.1:8999/", out.getvalue())
        [served] = handed.call_args.args
        self.assertEqual(served.cfg.bind, ["127.0.0.1:8999"])
        self.assertIs(served.cfg.worker_class, PatientWorker)

    def test_it_refuses_a_wider_address_before_it_serves(self) -> None:
        with override_settings(BIND="0.0.0.0"), patch.object(Served, "run", autospec=True) as handed:
            with self.assertRaisesRegex(CommandError, "password"):
                call_command("serve")
            handed.assert_not_called()

    def test_the_demo_is_loaded_where_nothing_hangs_and_what_was_done_in_it_stays(self) -> None:
        with override_settings(DEMO=True), patch.object(Served, "run"):
            call_command("serve", load_demo=True, stdout=io.StringIO())
            loaded = PieceRow.objects.count()
            self.assertGreater(loaded, 5)
            PieceRow.objects.first().delete()  # type: ignore[union-attr]
            call_command("serve", load_demo=True, stdout=io.StringIO())
            self.assertEqual(PieceRow.objects.count(), loaded - 1)

    def test_the_demo_keeps_out_of_a_folder_with_a_maker_or_a_piece_of_its_own(self) -> None:
        maker = get_user_model().objects.create_user("linden", password="spokeshave-and-adze")
        row = put_on_rack(starter("round_three"), maker)
        with override_settings(DEMO=True), patch.object(Served, "run", autospec=True) as handed:
            for command in ("demo", "serve"):
                with self.assertRaisesRegex(CommandError, "own: linden"):
                    call_command(command, stdout=io.StringIO())
            # Without its maker a piece is still somebody's.
            maker.delete()
            with self.assertRaisesRegex(CommandError, "somebody's own"):
                call_command("demo")
            handed.assert_not_called()
        self.assertEqual([one.pk for one in PieceRow.objects.all()], [row.pk])


class Every(SimpleTestCase):
    def test_each_says_what_it_is_for(self) -> None:
        own = [name for name, app in get_commands().items() if str(app).startswith("workshop")]
        self.assertGreater(len(own), 8)
        for name in own:
            command = load_command_class(get_commands()[name], name)
            self.assertTrue(command.help.strip().endswith("."), name)


class Schemas(TestCase):
    def test_a_stale_schema_is_named(self) -> None:
        err = io.StringIO()
        with override_settings(BASE_DIR=Path("/nowhere")), self.assertRaises(SystemExit):
            call_command("schemas", check=True, stderr=err)
        self.assertIn("piece.schema.json", err.getvalue())


class PlanWithAShop(TestCase):
    def test_another_shops_scales_can_be_asked_for(self) -> None:
        piece = settings.BASE_DIR / "workshop" / "demo" / "pieces" / "cloakroom-stool.json"
        out = io.StringIO()
        call_command("plan", str(piece), "--shop", "-", stdout=out)
        made = json.loads(out.getvalue())
        tools = {card["way"] for card in made["setups"]}
        self.assertLessEqual({"tilting_table", "mitre_saw", "handsaw"}, tools)
        data = Path(settings.DATA_DIR) / "shop-for-a-test.json"
        shop = write_shop(workbench())
        shop["tools"] = shop["tools"][:1]
        shop["rounding"]["system"] = "inch"
        data.write_text(json.dumps(shop), encoding="utf-8")
        out = io.StringIO()
        call_command("plan", str(piece), "--shop", str(data), stdout=out)
        made = json.loads(out.getvalue())
        self.assertEqual({c["way"] for c in made["setups"]} - {"marking", "making"}, {"bevel_gauge"})
        self.assertIn('"', made["parts"][0]["exposed"]["quantity"]["text"])
        data.unlink()
