"""What is said in many sentences: lists, directions, marks by name."""

from __future__ import annotations

from collections.abc import Iterable

from splay.work.lays import Toward
from splay.work.marks import Kind, Mark

SHOWN_MM = 0.25
"""Less than this is shown as nought on a rule and is not said."""


def listed(words: Iterable[str]) -> str:
    """Names as a list; those that differ only in their last word share the rest ("legs 1, 2 and 3")."""
    said = list(dict.fromkeys(words))
    heads = {word.rpartition(" ")[0] for word in said}
    if len(said) > 1 and len(heads) == 1 and "" not in heads:
        head = heads.pop()
        said = [word.rpartition(" ")[2] for word in said]
        return f"{head}s {', '.join(said[:-1])} and {said[-1]}"
    return said[0] if len(said) == 1 else f"{', '.join(said[:-1])} and {said[-1]}"


def cap(text: str) -> str:
    """With a capital letter at its beginning."""
    return text[:1].upper() + text[1:]


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


_PLACES = {
    Kind.CENTRE: "centre of leg {0}",
    Kind.SIGHTLINE: "sightline of leg {0}",
    Kind.PEG: "peg's mark of leg {0}",
}


def place(mark: Mark) -> str:
    """A mark by name, with its part."""
    if mark.kind is Kind.SOCKET:
        return f"{part_name(mark.on)}'s mark for {part_name(mark.which.partition('/')[0])}"
    if mark.kind in _PLACES:
        return _PLACES[mark.kind].format(mark.which.partition(".")[0])
    return mark.kind.value


def part_name(key: str) -> str:
    """A leg or a stretcher by its key."""
    kind, _, number = key.partition(".")
    return f"{'leg' if kind == 'leg' else 'stretcher'} {number}"
