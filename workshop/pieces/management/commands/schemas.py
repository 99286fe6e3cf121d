"""Write the published schemas of files and API into docs/. --check only compares."""

import json
import sys
from typing import Any

from django.conf import settings
from django.core.management.base import BaseCommand, CommandParser

from splay.build import build_schema
from splay.piece import piece_schema
from splay.shop import shop_schema
from splay.timber.choices import wood_schema
from splay.timber.stock import stock_schema
from workshop.api import api
from workshop.pieces.record import Record


def published() -> dict[str, str]:
    """File name in docs/ to what should stand in it."""
    made = {
        "piece.schema.json": piece_schema(),
        "shop.schema.json": shop_schema(),
        "build.schema.json": build_schema(),
        "stock.schema.json": stock_schema(),
        "wood.schema.json": wood_schema(),
        "record.schema.json": {
            "$schema": "https://json-schema.org/draft/2020-12/schema",
            **Record.model_json_schema(),
        },
        "openapi.json": json.loads(json.dumps(api.get_openapi_schema(path_prefix="/api/"))),
    }
    return {
        name: json.dumps(schema, indent=2, sort_keys=True, ensure_ascii=False) + "\n"
        for name, schema in made.items()
    }


class Command(BaseCommand):
    """Keeps docs/ true to the code."""

    help = __doc__ or ""

    def add_arguments(self, parser: CommandParser) -> None:
        """Whether to write or to compare."""
        parser.add_argument("--check", action="store_true")

    def handle(self, *args: Any, check: bool, **options: Any) -> None:
        """Write, or exit with 1 where a file is out of date."""
        docs = settings.BASE_DIR / "docs"
        stale = []
        for name, text in published().items():
            file = docs / name
            if not file.exists() or file.read_text(encoding="utf-8") != text:
                stale.append(name)
                if not check:
                    file.write_text(text, encoding="utf-8")
        if check and stale:
            self.stderr.write(f"Out of date: {', '.join(stale)}. Run: manage.py schemas")
            sys.exit(1)
