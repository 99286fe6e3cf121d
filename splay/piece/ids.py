"""Ids that stay: whatever can be added, moved or taken away is named in the document for good.

Numbers are for show and may move; readings, members' ends, stock and notes refer to ids.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from typing import Any

from pydantic import BaseModel

from splay.ids import Ids

MIRRORS = 4
"""A spot stands for at most this many legs: itself, and over either line or both."""


def with_ids(given: Mapping[str, Any], salt: str = "") -> dict[str, Any]:
    """The document as plain data, with an id wherever one is missing or came along with a copy.

    What is there stays. New ids count on from the highest there is, so that the same document always
    gets the same ones; with a `salt` that is never used twice they are ones that nothing ever had. What
    is no proper document is handed on as it is, for its reader to refuse.
    """
    made: dict[str, Any] = {name: _plain(value) for name, value in given.items()}
    ids = Ids(_found(made), salt)
    made["supports"] = _supports(made.get("supports"), ids)
    made["members"] = _each(made.get("members", []), ids, "m")
    levelling = made.setdefault("levelling", {})
    if isinstance(levelling, dict):
        levelling["passes"] = _each(levelling.get("passes", [{}]), ids, "p")
    for trial in _dicts(made.get("trials")):
        trial["supports"] = _trial(trial.get("supports"), made["supports"], ids)
    return made


def fresh_ids(document: Mapping[str, Any], letter: str, count: int, salt: str = "") -> list[str]:
    """So many ids that are nowhere in a document yet: `s` for a support, `l` a leg, `m` a member, `p` a
    pass."""
    ids = Ids(_found(document), salt)
    return [ids.fresh(letter) for _ in range(count)]


def _found(value: object) -> Iterator[str]:
    """Every id anywhere in a document, one that nothing has any more but something refers to included."""
    if isinstance(value, Mapping):
        for name, inner in value.items():
            if name in ("id", "leg", "member") and isinstance(inner, str) and inner:
                yield inner
            elif name == "legs" and isinstance(inner, list | tuple):
                yield from (one for one in inner if isinstance(one, str) and one)
            else:
                yield from _found(inner)
    elif isinstance(value, list | tuple):
        for inner in value:
            yield from _found(inner)


def _plain(value: Any) -> Any:
    """Parts that were made in Python as the plain data they are written as; every list a new one."""
    if isinstance(value, BaseModel):
        return _plain(value.model_dump())
    if isinstance(value, Mapping):
        return {name: _plain(inner) for name, inner in value.items()}
    if isinstance(value, list | tuple):
        return [_plain(inner) for inner in value]
    return value


def _dicts(value: object) -> list[dict[str, Any]]:
    return [one for one in value if isinstance(one, dict)] if isinstance(value, list) else []


def _each(value: Any, ids: Ids, letter: str) -> Any:
    for one in _dicts(value):
        one["id"] = ids.own(one.get("id"), letter)
    return value


def _supports(value: Any, ids: Ids) -> Any:
    for support in _dicts(_each(value, ids, "s")):
        for holder, count in _holders(support):
            has = holder.get("legs")
            had = has if isinstance(has, list) else []
            holder["legs"] = [ids.own(one, "l") for one in had] + [
                ids.own("", "l") for _ in range(count - len(had))
            ]
    return value


def _holders(support: dict[str, Any]) -> Iterator[tuple[dict[str, Any], int]]:
    """What holds the ids of a support's legs, and how many it must hold."""
    placement = support.get("placement")
    if not isinstance(placement, dict):
        return
    if placement.get("way") == "free":
        yield from ((spot, MIRRORS) for spot in _dicts(placement.get("spots")))
        return
    count = placement.get("count", 3)
    if placement.get("way") != "circle":
        count = {"insets": 4}.get(str(placement.get("way")), 3)
    # An impossible count is refused later: it must not be counted out here first.
    yield placement, count if isinstance(count, int) and 0 < count <= 100 else 0


def _trial(value: Any, now: Any, ids: Ids) -> Any:
    """Supports that were put aside keep their ids; those that have none yet were the present ones."""
    for k, support in enumerate(_dicts(value)):
        like = now[k] if isinstance(now, list) and k < len(now) and isinstance(now[k], dict) else {}
        same = like.get("kind") == support.get("kind")
        support["id"] = support.get("id") or (like["id"] if same else ids.fresh("s"))
        known = [one for holder, _ in _holders(like) for one in holder["legs"]] if same else []
        for holder, count in _holders(support):
            if not holder.get("legs"):
                mine, known = known[:count], known[count:]
                holder["legs"] = mine + [ids.fresh("l") for _ in range(count - len(mine))]
    return value
