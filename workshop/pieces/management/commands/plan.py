"""Print the plan of a piece file as JSON; exit status 2 and one line a fault for a bad file."""

import json
import sys
from pathlib import Path
from typing import Any

from django.core.management.base import BaseCommand, CommandParser
from pydantic import TypeAdapter

from splay.errors import BadInput, CannotBuild
from splay.piece import read_piece
from splay.plan import plan
from splay.shop import read_shop, workbench
from splay.shown import Shown, shown
from workshop.shop.models import the_shop


class Command(BaseCommand):
    """Reads one file, plans it in this shop or the one in --shop, prints to standard output."""

    help = __doc__ or ""

    def add_arguments(self, parser: CommandParser) -> None:
        """The piece file, and a shop file if the installation's own is not meant."""
        parser.add_argument("file", type=Path)
        parser.add_argument("--shop", type=Path, help='a shop file; "-" for the plain workbench')

    def handle(self, *args: Any, file: Path, shop: Path | None, **options: Any) -> None:
        """Plan and print, or say what is wrong."""
        try:
            tools = _shop(shop)
            piece = read_piece(_document(file), tools.rounding.system)
            made = TypeAdapter(Shown).dump_json(shown(plan(piece, tools), "all"), indent=2)
        except BadInput as bad:
            self._refuse([f"{file}: {fault.line()}" for fault in bad.faults])
        except CannotBuild as cannot:
            self._refuse([f"{file}: {cannot}"])
        except (OSError, ValueError) as broken:
            self._refuse([f"{file}: {broken}. Give the path of a piece file in JSON."])
        self.stdout.write(made.decode())

    def _refuse(self, lines: list[str]) -> None:
        for line in lines:
            self.stderr.write(" ".join(line.split()))
        sys.exit(2)


def _document(file: Path) -> Any:
    return json.loads(file.read_text(encoding="utf-8"))


def _shop(file: Path | None) -> Any:
    if file is None:
        return the_shop()
    return workbench() if str(file) == "-" else read_shop(_document(file))
