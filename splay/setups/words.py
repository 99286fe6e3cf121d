"""How several parts are named on one card."""

from __future__ import annotations

import re
from collections.abc import Iterable

from splay.parts.stick import StickPart
from splay.work.phrases import listed

_PLURALS = {
    "leg": "legs",
    "side": "sides",
    "rail": "rails",
    "cross": "cross-pieces",
    "link": "links",
    "apron": "aprons",
    "tread": "treads",
    "board": "boards",
}


def plural(role: str) -> str:
    """Parts of a role, in a word."""
    return _PLURALS.get(role, role)


def singular(role: str) -> str:
    """One part of a role, in a word."""
    return plural(role).removesuffix("s")


def every(parts: Iterable[StickPart], of: int) -> str:
    """Parts by their names; more than two of them that are all there are, `of` so many, by their number."""
    mine = list({part.key: part for part in parts}.values())
    sorts = {part.noun or part.role for part in mine}
    if len(mine) == of and of > 2 and len(sorts) == 1:
        return f"all {of} {plural(sorts.pop())}"
    return listed(part.name for part in mine)


def with_the(name: str) -> str:
    """A part's name as it stands in a sentence: some bring their own article, a number wants none."""
    numbered = re.split(" of | between ", name)[0][-1:].isdigit()
    return name if numbered or name.startswith("the ") else f"the {name}"


def counted(parts: Iterable[StickPart]) -> str:
    """ "the front apron", "the left apron and the right apron", "2 rails and 4 legs": one or two by
    their names, more by their number."""
    mine = {part.key: part for part in parts}.values()
    roles: dict[str, list[StickPart]] = {}
    for part in mine:
        roles.setdefault(part.noun or part.role, []).append(part)
    said = []
    if len(mine) == 2 and len(roles) == 1:
        return " and ".join(with_the(part.name) for part in mine)
    for role, alike in roles.items():
        one = with_the(alike[0].name)
        said.append(one if len(alike) == 1 else f"{len(alike)} {plural(role)}")
    return " and ".join(said)
