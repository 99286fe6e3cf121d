"""Write the published schemas of files and API, and what forms take of them. --check only compares."""

import json
import sys
from collections.abc import Iterator
from typing import Any

from django.conf import settings
from django.core.management.base import BaseCommand, CommandParser

from splay.build import build_schema
from splay.labelled import forms
from splay.piece import piece_schema
from splay.piece.labels import WISHES
from splay.quick import NAMES
from splay.shop import shop_schema
from splay.timber.choices import wood_schema
from splay.timber.stock import stock_schema
from workshop.api import api
from workshop.pieces.record import Record
from workshop.sent import Sent

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
        "Wish": {"Restate": {what: {"titles": words} for what, words in WISHES.items()}},
        "Lean": {"Quick": {name: {"label": label, "of": same} for name, (label, same) in NAMES.items()}},
        "Sent": _sent(made["openapi.json"]),
    }
    return {**told, FIELDS: json.dumps(fields, indent=2, ensure_ascii=False) + "\n"}


def _sent(openapi: dict[str, Any]) -> dict[str, dict[str, Any]]:
    """Of what is sent besides documents, by its model, and of what is asked by address, by its path: how
    many letters each text may have, how large each number may be."""
    found = {one.__name__: _bounds(one.model_json_schema()["properties"]) for one in _models(Sent)}
    for path, asked in openapi["paths"].items():
        for one in asked.get("get", {}).get("parameters", ()):
            found.setdefault(path, {}).update(_bounds({one["name"]: one["schema"]}))
    return {name: fields for name, fields in sorted(found.items()) if fields}


def _models(of: type[Sent]) -> Iterator[type[Sent]]:
    for one in of.__subclasses__():
        yield one
        yield from _models(one)


_BOUNDS = {"maxLength": "most", "maximum": "most", "minimum": "least", "exclusiveMinimum": "above"}


def _bounds(fields: dict[str, Any]) -> dict[str, dict[str, Any]]:
    """By field, how many letters it may have or how large it may be; those alone that are bounded."""
    found: dict[str, dict[str, Any]] = {}
    for name, about in fields.items():
        for way in (about, *about.get("anyOf", ()), about.get("items", {})):
            bounds = {_BOUNDS[key]: value for key, value in way.items() if key in _BOUNDS}
            if bounds:
                found.setdefault(name, bounds)
    return found


_FILLED = {"label", "titles", "most"}


def _filled(told: dict[str, dict[str, Any]]) -> dict[str, dict[str, Any]]:
    """What is filled in by somebody: what is called something there, what is chosen by
    words, what may have only so many letters or parts."""
    kept = {
        model: {field: about for field, about in fields.items() if about.keys() & _FILLED}
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
