"""Write the published schemas of files and API, and what forms take of them. --check only compares."""

import json
import sys
from typing import Any

from django.conf import settings
from django.core.management.base import BaseCommand, CommandParser

from splay.build import build_schema
from splay.labelled import forms
from splay.piece import piece_schema
from splay.shop import shop_schema
from splay.timber.choices import wood_schema
from splay.timber.stock import stock_schema
from workshop.api import api
from workshop.pieces.record import Record

FIELDS = "web/src/api/fields.json"


def published() -> dict[str, str]:
    """File by its path to what should stand in it."""
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
    told = {
        f"docs/{name}": json.dumps(schema, indent=2, sort_keys=True, ensure_ascii=False) + "\n"
        for name, schema in made.items()
    }
    # The page's forms are made from the same: fields in the order of the file, choices as they are offered.
    fields = {
        "Piece": forms(piece_schema(), "Piece"),
        "Shop": forms(shop_schema(), "Shop"),
        "Build": _filled(forms(build_schema(), "Build", limits=True)),
        "Pile": _filled(forms(stock_schema(), "Pile", limits=True)),
        "WoodChoice": _filled(forms(wood_schema(), "WoodChoice", limits=True)),
    }
    return {**told, FIELDS: json.dumps(fields, indent=2, ensure_ascii=False) + "\n"}


def _filled(told: dict[str, dict[str, Any]]) -> dict[str, dict[str, Any]]:
    """What is filled in by somebody: what is called something there."""
    kept = {
        model: {field: about for field, about in fields.items() if "label" in about}
        for model, fields in told.items()
    }
    return {model: fields for model, fields in kept.items() if fields}


class Command(BaseCommand):
    """Keeps docs/ and the page's forms true to the code."""

    help = __doc__ or ""

    def add_arguments(self, parser: CommandParser) -> None:
        """Whether to write or to compare."""
        parser.add_argument("--check", action="store_true")

    def handle(self, *args: Any, check: bool, **options: Any) -> None:
        """Write, or exit with 1 where a file is out of date."""
        stale = []
        for name, text in published().items():
            file = settings.BASE_DIR / name
            if not file.exists() or file.read_text(encoding="utf-8") != text:
                stale.append(name)
                if not check:
                    file.write_text(text, encoding="utf-8")
        if check and stale:
            self.stderr.write(f"Out of date: {', '.join(stale)}. Run: manage.py schemas")
            sys.exit(1)
