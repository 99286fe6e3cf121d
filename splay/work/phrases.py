"""What is said in many sentences: lists, names, directions, marks by name."""

from __future__ import annotations

import re
from collections.abc import Iterable

from splay.work.lays import Toward
from splay.work.marks import Mark

SHOWN_MM = 0.25
"""Less than this is shown as nought on a rule and is not said."""


def so_many(number: int, one: str, many: str) -> str:
    """A number and what it counts: "1 piece is", "3 pieces are"."""
    return f"{number} {one if number == 1 else many}"


def listed(words: Iterable[str]) -> str:
    """Names as a list; those that differ only in their last word share the rest ("legs 1, 2 and 3", "leg 1
    of frames 1 and 2", "rails of frames 1 and 2")."""
    said = list(dict.fromkeys(words))
    heads = {word.rpartition(" ")[0] for word in said}
    if len(said) > 1 and len(heads) == 1 and "" not in heads:
        head = heads.pop()
        whose, of, owner = head.partition(" of ")
        if of and not whose[-1:].isdecimal():
            head = f"{whose}s of {owner}"
        said = [word.rpartition(" ")[2] for word in said]
        return f"{head}s {', '.join(said[:-1])} and {said[-1]}"
    return said[0] if len(said) == 1 else f"{', '.join(said[:-1])} and {said[-1]}"


def by_number(name: str) -> tuple[str, int]:
    """A key to sort names by: "leg 10" after "leg 2"."""
    words, _, last = name.rpartition(" ")
    return (words, int(last)) if last.isdecimal() else (name, 0)


def with_the(name: str) -> str:
    """A part's name as it stands in a sentence: some bring their own article, a number wants none."""
    numbered = re.split(" of | between ", name)[0][-1:].isdecimal()
    return name if numbered or name.startswith("the ") else f"the {name}"


def cap(text: str) -> str:
    """With a capital letter at its beginning."""
    return text[:1].upper() + text[1:]


def uncap(text: str) -> str:
    """Without one, where it goes on after a colon."""
    return text[:1].lower() + text[1:]


def toward(way: Toward) -> str:
    """A direction along the work, as a noun."""
    if way.by == "arrow":
        return "the arrow on its sightline"
    if way.by == "tail":
        return "the plain end of its sightline, away from the arrow"
    return f"the {way.name}" if way.by in ("end", "side") else way.name


def uphill(way: Toward) -> str:
    """What lies uphill."""
    if way.by == "arrow":
        return "Its sightline along the fall, the arrow pointing UPHILL."
    if way.by == "tail":
        return "Its sightline along the fall, the arrow pointing DOWNHILL."
    return f"{cap(toward(way))} lies UPHILL."


def leaning(way: Toward) -> str:
    """What a drill leans to."""
    if way.by == "arrow":
        return "the way the arrow points"
    return "against the arrow" if way.by == "tail" else f"towards {toward(way)}"


def place(mark: Mark) -> str:
    """A mark by name, with its part."""
    return mark.said or mark.kind.value
