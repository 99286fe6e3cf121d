"""What differs between two saved states of a piece, in the maker's units."""

from __future__ import annotations

from typing import Any

from ninja import Schema

from splay.piece import Piece, write_piece
from splay.quantity import Show
from splay.summary import chosen


class Difference(Schema):
    """One field: its path and what it says before and after; empty where it was not there."""

    path: str
    before: str
    after: str


def compare(a: Piece, b: Piece, show: Show) -> list[Difference]:
    """The fields that differ from `a` to `b`, in the order of the document."""
    before, after = _texts(a, show), _texts(b, show)
    paths = list(before) + [path for path in after if path not in before]
    return [
        Difference(path=path, before=before.get(path, ""), after=after.get(path, ""))
        for path in paths
        if before.get(path) != after.get(path)
    ]


def _texts(piece: Piece, show: Show) -> dict[str, str]:
    worded = {path: quantity.text for path, quantity in chosen(piece, show).items()}
    flat: dict[str, str] = {}
    _flatten(write_piece(piece), "", flat)
    return {path: worded.get(path, text) for path, text in flat.items()}


def _flatten(value: Any, path: str, flat: dict[str, str]) -> None:
    if isinstance(value, dict | list):
        items = value.items() if isinstance(value, dict) else enumerate(value)
        for key, inner in items:
            _flatten(inner, f"{path}.{key}" if path else str(key), flat)
    else:
        flat[path] = str(value)
