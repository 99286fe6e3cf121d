"""Earlier versions of the piece file brought up to the present one, a step at a time.

A step is never changed once a version has been written with it: old files must read the same for good.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from typing import Any

from splay.errors import BadInput
from splay.piece.ids import with_ids
from splay.quantity import read_length


def _to_2(given: Mapping[str, Any]) -> dict[str, Any]:
    """Version 1 named legs and members by their numbers: version 2 gives everything an id."""
    made = with_ids(given)
    legs = legs_of_1(made)
    members = made.get("members")
    names = [one.get("id") if isinstance(one, dict) else None for one in members or []]
    for member in members if isinstance(members, list) else []:
        if not isinstance(member, dict):
            continue
        if isinstance(member.get("legs"), list):
            member["legs"] = [_named(leg, legs) for leg in member["legs"]]
        for end in member.get("ends") or []:
            if isinstance(end, dict) and "leg" in end:
                end["leg"] = _named(end["leg"], legs)
            if isinstance(end, dict) and "member" in end:
                end["member"] = _named(end["member"], names)
    made["version"] = 2
    return made


STEPS: dict[int, Callable[[Mapping[str, Any]], dict[str, Any]]] = {1: _to_2}
"""From each version to the next."""


def _named(number: object, names: list[Any]) -> object:
    """The id behind a number from 1; what is no number of anything is left for the reader to refuse."""
    known = isinstance(number, int) and not isinstance(number, bool) and 1 <= number <= len(names)
    return names[number - 1] if known and isinstance(number, int) else f"none{number}"[:12]


def legs_of_1(document: Mapping[str, Any]) -> list[str]:
    """The ids of a version 1 document's legs, in the order that version numbered them from 1.

    `document` has its ids already.
    """
    made: list[str] = []
    supports = document.get("supports")
    for support in supports if isinstance(supports, list) else []:
        placement = support.get("placement") if isinstance(support, dict) else None
        if not isinstance(placement, dict):
            continue
        if placement.get("way") != "free":
            made += placement.get("legs", [])
            continue
        for spot in placement.get("spots") or []:
            if isinstance(spot, dict):
                made += _of_spot(spot)
    return made


def _of_spot(spot: Mapping[str, Any]) -> list[str]:
    mirror = spot.get("mirror", "sides")
    across = (0, 1) if mirror in {"sides", "both"} and not _nought(spot.get("x")) else (0,)
    back = (0, 1) if mirror in {"ends", "both"} and not _nought(spot.get("y")) else (0,)
    return [spot["legs"][i + 2 * j] for j in back for i in across]


def _nought(value: object) -> bool:
    try:
        return read_length(value, "metric") == 0
    except BadInput:
        return False


def proof_of_1(proof: str, document: Mapping[str, Any]) -> str:
    """The name a proof of a version 1 document has now; one that the document no longer asks keeps the
    name it had. `document` is the piece as that version wrote it."""
    made = with_ids(document)
    legs = legs_of_1(made)
    supports = [one["id"] for one in made.get("supports") or []]
    members = [one["id"] for one in made.get("members") or []]
    passes = [one["id"] for one in made["levelling"]["passes"]]

    def leg(number: str) -> str:
        return _at(legs, number) or number

    kind, *rest = proof.split(".")
    if kind in {"bore", "foot"}:
        rest = [leg(one) for one in rest]
    elif kind == "mark":
        rest = [leg(rest[0]), "edge"] if rest[-1] == "edge" else sorted(leg(one) for one in rest)
    elif kind in {"gap", "read", "depth", "rail"}:
        rest = [_at(members, rest[0]) or rest[0], *_through(rest, made["members"], legs)]
    elif kind in {"tenon", "octagon", "taper", "kerf", "shoulder", "topcut", "pilot", "slot"}:
        rest = [_at(supports, rest[0], 0) or rest[0], *(leg(one) for one in rest[1:])]
    elif kind == "level" and len(rest) > 2:
        over = rest[2].removeprefix("over ")
        key = _body(rest[2:], supports) if len(rest) > 3 else [leg(over)]
        if over != rest[2]:
            key = ["over", *(_body([over, *rest[3:]], supports) if len(rest) > 3 else [leg(over)])]
        # What a pass asks is a kind of its own now.
        return ".".join((rest[1], _at(passes, rest[0]) or rest[0], *key))
    else:
        rest = _body(rest, supports)
    return ".".join((kind, *rest))


def _through(rest: list[str], members: list[Any], legs: list[str]) -> list[str]:
    """A rope's holes were counted: now each goes by its leg."""
    number, *end = rest
    rope = members[int(number) - 1] if number.isdecimal() and 0 < int(number) <= len(members) else {}
    if not end or rope.get("kind") != "rope":
        return end
    names = [str(_named(one, legs)) for one in rope["legs"]]
    hole = int(end[0]) - 1
    again = names[:hole].count(names[hole])
    return [names[hole], f"{again + 1}"] if again else [names[hole]]


def _at(names: list[str], number: str, first: int = 1) -> str:
    if not number.isdecimal() or not 0 <= int(number) - first < len(names):
        return ""
    return names[int(number) - first]


def _body(rest: list[str], supports: list[str]) -> list[str]:
    """Sticks of square stock were named after their support's place in the list: s0, s1."""
    if rest and rest[0][:1] == "s":
        return [_at(supports, rest[0][1:], 0) or rest[0], *rest[1:]]
    return rest
