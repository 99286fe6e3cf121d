"""What differs between two states of a piece, in the maker's words and units."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from functools import cached_property
from typing import Any

from splay.errors import SplayError
from splay.paths import into, last, steps, under
from splay.piece import Piece, write_piece
from splay.piece.naming import called
from splay.quantity import Show
from splay.stance.staked import stand
from splay.summary import chosen


@dataclass(frozen=True)
class Difference:
    """One thing: its path, what it is called, what it says before and after; empty where it was not."""

    path: str
    what: str
    before: str
    after: str


def differences(before: Piece, after: Piece, show: Show) -> tuple[Difference, ...]:
    """What differs from `before` to `after`, in the order of the document; a part that came or went is one
    difference, and ids are none."""
    old, new = _Side(before, show), _Side(after, show)
    return tuple(_apart(old, new, old.document, new.document, "", ""))


def worded(piece: Piece, path: str, show: Show) -> str:
    """What stands at a dotted path of a piece, as it is read; empty where nothing does."""
    side = _Side(piece, show)
    here: Any = side.document
    for step in steps(path):
        here = into(here, step)
    return side.text(path, here)


class _Side:
    """One of the two states: its document, and its figures as they are read."""

    def __init__(self, piece: Piece, show: Show) -> None:
        self.document = write_piece(piece)
        self.piece = piece
        self.figures = {path: quantity.text for path, quantity in chosen(piece, show).items()}

    @cached_property
    def numbers(self) -> dict[str, str]:
        """Legs and stretchers by their ids, as they are shown: numbered."""
        try:
            legs = {leg.id: f"leg {leg.number}" for leg in stand(self.piece).legs}
        except SplayError:
            # It cannot stand as it is: its legs have no numbers.
            legs = {}
        return legs | {
            member.id: member.name or f"stretcher {k + 1}" for k, member in enumerate(self.piece.members)
        }

    def text(self, path: str, value: Any) -> str:
        """A value as it is read."""
        if last(path) in ("leg", "member", "legs") and isinstance(value, str | list):
            ids = value if isinstance(value, list) else [value]
            return ", ".join(self.numbers.get(str(id), "another") for id in ids)
        if path in self.figures:
            return self.figures[path]
        if isinstance(value, bool):
            return "yes" if value else "no"
        if isinstance(value, Mapping):
            tags = (value.get(tag) for tag in ("name", "kind", "way", "by", "on"))
            return str(next((tag for tag in tags if tag), "there")).replace("_", " ")
        if isinstance(value, list | tuple):
            return str(len(value)) if value else "none"
        return "" if value is None else str(value).replace("_", " ")


_UNSEEN = frozenset(("id", "format", "version"))


def _apart(a: _Side, b: _Side, old: Any, new: Any, at: str, to: str) -> Iterator[Difference]:
    """What differs between two values at the paths `at` and `to`."""
    if old == new:
        return
    if isinstance(old, Mapping) and isinstance(new, Mapping) and _kind(old) == _kind(new):
        for name in {**old, **new}:
            # Which ids the legs of a placement have is nothing a maker chose.
            if name not in _UNSEEN and not (name == "legs" and last(at) in ("placement", "spots")):
                yield from _apart(a, b, old.get(name), new.get(name), under(at, name), under(to, name))
        return
    if isinstance(old, list) and isinstance(new, list) and len(old) == len(new) and _numbers(old + new):
        for k, (one, other) in enumerate(zip(old, new, strict=True)):
            yield from _apart(a, b, one, other, under(at, k), under(to, k))
        return
    if isinstance(old, list) and isinstance(new, list) and (_parts(old) or _parts(new)):
        yield from _lists_apart(a, b, old, new, at, to)
        return
    name, where = (called(b.document, to), to) if new is not None else (called(a.document, at), at)
    before, after = a.text(at, old), b.text(to, new)
    if before != after:
        yield Difference(where, name, before, after)
    elif isinstance(old, list) and isinstance(new, list) and not all(isinstance(x, str) for x in old + new):
        yield Difference(where, name, before, "others")


def _lists_apart(
    a: _Side, b: _Side, old: list[Any], new: list[Any], at: str, to: str
) -> Iterator[Difference]:
    """Lists of parts: paired by their ids, or by their places where they have none."""
    was = {one.get("id") or str(k): (k, one) for k, one in enumerate(old)}
    now = {one.get("id") or str(k): (k, one) for k, one in enumerate(new)}
    for key in {**was, **now}:
        k, one = was.get(key, (-1, None))
        j, other = now.get(key, (-1, None))
        here, there = under(at, k), under(to, j)
        if one is None:
            yield Difference(there, called(b.document, there), "", "added")
        elif other is None:
            yield Difference(here, called(a.document, here), b.text("", one), "taken away")
        else:
            yield from _apart(a, b, one, other, here, there)


def _kind(part: Mapping[str, Any]) -> tuple[object, ...]:
    return tuple(part.get(tag) for tag in ("kind", "way", "by", "on"))


def _parts(many: list[Any]) -> bool:
    return bool(many) and all(isinstance(one, dict) for one in many)


def _numbers(many: list[Any]) -> bool:
    return all(isinstance(one, int | float) for one in many)


def in_words(found: tuple[Difference, ...]) -> str:
    """Differences in one line: the first, and how many more there are; empty for none."""
    if not found:
        return ""
    first = found[0]
    line = first.what
    if first.after in ("added", "taken away"):
        line += f" {first.after}"
    else:
        line += f" {first.before or 'none'} → {first.after or 'none'}"
    more = len(found) - 1
    return line + (f" and {more} more" if more else "")
