"""Two changes of one piece put together: what only one of them changed is taken from that one."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from splay.errors import BadInput
from splay.piece.model import Piece, read_piece, write_piece


@dataclass(frozen=True)
class Clash:
    """A place that both changed, each to something else: its path in mine and in theirs. Empty paths: each
    change is possible, both together are not."""

    mine: str
    theirs: str


@dataclass(frozen=True)
class Merged:
    """The piece with both changes; where they clash it stands as in mine."""

    piece: Piece
    clashes: tuple[Clash, ...]


def merge(base: Piece, mine: Piece, theirs: Piece, take: frozenset[str] = frozenset()) -> Merged:
    """What became of `base` in `mine` and in `theirs`, in one piece; of the clashes those in `take` (by
    their paths in mine) go to `theirs`, the rest to `mine`.

    Parts with an id are told by it, wherever they stand in their list.
    """
    clashes: list[Clash] = []
    made = _merge(write_piece(base), write_piece(mine), write_piece(theirs), ("", ""), take, clashes)
    try:
        return Merged(read_piece(made), tuple(clashes))
    except BadInput:
        return Merged(theirs if "" in take else mine, (Clash("", ""),))


_GONE = object()
At = tuple[str, str]
"""The path of one thing in mine and in theirs."""


def _merge(base: Any, mine: Any, theirs: Any, at: At, take: frozenset[str], clashes: list[Clash]) -> Any:
    if mine == theirs or theirs == base:
        return mine
    if mine == base:
        return theirs
    if _alike(base, mine, theirs):
        return {
            name: _merge(base[name], mine[name], theirs[name], _both(at, name, name), take, clashes)
            for name in mine
        }
    if _lists(base, mine, theirs):
        if all(_named(one) for one in (base, mine, theirs)):
            return _merge_named(base, mine, theirs, at, take, clashes)
        if len(base) == len(mine) == len(theirs) and all(isinstance(one, dict | float) for one in base):
            rows = enumerate(zip(base, mine, theirs, strict=True))
            return [_merge(b, m, t, _both(at, str(k), str(k)), take, clashes) for k, (b, m, t) in rows]
    clashes.append(Clash(*at))
    return theirs if at[0] in take else mine


def _merge_named(
    base: list[Any], mine: list[Any], theirs: list[Any], at: At, take: frozenset[str], clashes: list[Clash]
) -> list[Any]:
    """A list of parts with ids: those that either added, without those that either took away. The order is
    the one that was changed, mine where both did."""
    b, m, t = ({one["id"]: one for one in many} for many in (base, mine, theirs))
    order = list(m) if list(m) != list(b) else list(t)
    order += [id for id in (*m, *t) if id not in order]
    made = []
    for id in order:
        was, own, other = b.get(id, _GONE), m.get(id, _GONE), t.get(id, _GONE)
        # A part that one took away and the other changed stays: what was done to it is not lost.
        if own is _GONE or other is _GONE:
            left = other if own is _GONE else own
            if was is _GONE or left != was:
                made.append(left)
            continue
        place = _both(at, str(mine.index(own)), str(theirs.index(other)))
        made.append(_merge(was if was is not _GONE else {}, own, other, place, take, clashes))
    return made


def _both(at: At, mine: str, theirs: str) -> At:
    return f"{at[0]}.{mine}".lstrip("."), f"{at[1]}.{theirs}".lstrip(".")


def _alike(*parts: Any) -> bool:
    """Whether these are parts of one kind, with the same fields."""
    if not all(isinstance(part, Mapping) for part in parts):
        return False
    kinds = {tuple(str(part.get(tag)) for tag in ("kind", "way", "by", "on")) for part in parts}
    return len(kinds) == 1 and len({tuple(part) for part in parts}) == 1


def _lists(*parts: Any) -> bool:
    return all(isinstance(part, list) for part in parts)


def _named(many: list[Any]) -> bool:
    return all(isinstance(one, dict) and one.get("id") for one in many)
