"""How several parts are named on one card."""

from __future__ import annotations

from collections.abc import Iterable

from splay.parts.stick import StickPart
from splay.work.phrases import listed, with_the

_SINGULARS = {"cross": "cross-piece", "slab_leg": "slab leg"}


def plural(role: str) -> str:
    """Parts of a role, in a word."""
    return f"{singular(role)}s"


def singular(role: str) -> str:
    """One part of a role, in a word."""
    return _SINGULARS.get(role, role)


def every(parts: Iterable[StickPart], of: int) -> str:
    """Parts by their names; more than two of them that are all there are, `of` so many, by their number."""
    mine = list({part.key: part for part in parts}.values())
    sorts = {part.noun or part.role for part in mine}
    if len(mine) == of and of > 2 and len(sorts) == 1:
        return f"all {of} {plural(sorts.pop())}"
    return listed(part.name for part in mine)


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
