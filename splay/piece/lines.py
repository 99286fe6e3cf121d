"""What is typed in lines, several things in one field: sticks measured one by one, their old holes and
bends; the widths of boards (which may come as a bare text); the corners where a curve breaks.

In a document what stands there may be given as it was typed: in place of the list an object of the
`lines`, which field they were typed into (`of`), what the list was (`were`) and how it was `shown`. A line
left as it was shown keeps what it was, to the last digit and with all that no line tells of it.
"""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import dataclass
from typing import TYPE_CHECKING, Any

from splay.errors import BadInput, Fault, shorten
from splay.piece.legs import StakedLegs
from splay.piece.tops import Drawn
from splay.quantity import Show

if TYPE_CHECKING:
    from splay.piece.model import Piece

_BETWEEN = re.compile(r"[,;\t]")
"""Between the words of a line; widths are added up on an offcut, too."""
_WIDTHS = re.compile(r"[,;\t\n+]")


@dataclass(frozen=True)
class _Typed:
    """Lines as they were typed, and those that stood there before, each with what it was."""

    of: str
    lines: list[str]
    shown: list[str]
    were: list[Any]

    def kept(self) -> list[Any]:
        """For every line what it was, None for one that is new: no two lines are the same one."""
        left = [(line, was) for line, was in zip(self.shown, self.were, strict=False)]
        found: list[Any] = []
        for line in self.lines:
            at = next((k for k, (shown, _) in enumerate(left) if shown == line), None)
            found.append(None if at is None else left.pop(at)[1])
        return found


def as_typed(given: Mapping[str, Any], at: str = "") -> Mapping[str, Any]:
    """A piece's document with lists in place of the lines that were typed; BadInput for a line that is
    about nothing there is. Everything else, and what the lines say, is read with the rest."""
    made = dict(given)
    top = made.get("top")
    if isinstance(top, Mapping):
        made["top"] = top = dict(top)
        boards = top.get("boards")
        if typed := _typed({"lines": boards} if isinstance(boards, str) else boards, _WIDTHS):
            top["boards"] = [
                line if was is None else was for line, was in zip(typed.lines, typed.kept(), strict=True)
            ]
        outline = top.get("outline")
        if isinstance(outline, Mapping) and (typed := _typed(outline.get("corners"), _BETWEEN)):
            where = _under(at, "top.outline.corners")
            top["outline"] = {**outline, "corners": _sharp(typed, where)}
    supports = made.get("supports")
    if isinstance(supports, list):
        made["supports"] = [
            _with_sticks(support, _under(at, f"supports.{k}.leg.sticks"))
            for k, support in enumerate(supports)
        ]
    return made


def _under(at: str, path: str) -> str:
    return f"{at}.{path}" if at else path


def _typed(given: object, between: re.Pattern[str] | None = None) -> _Typed | None:
    """What was typed, by lines or, with `between`, by words; None for what is no such thing."""
    if not isinstance(given, Mapping) or not isinstance(given.get("lines"), str):
        return None
    shown, were = given.get("shown", ""), given.get("were", [])

    def parts(text: str) -> list[str]:
        found = between.split(text) if between else text.splitlines()
        return [part.strip() for part in found if part.strip()]

    return _Typed(
        of=str(given.get("of", "")),
        lines=parts(given["lines"]),
        shown=parts(shown) if isinstance(shown, str) else [],
        were=list(were) if isinstance(were, list) else [],
    )


def _sharp(typed: _Typed, at: str) -> list[Any]:
    """The corners, those named by number sharp and no others."""
    do = "Give the numbers of corners alone, such as 1, 4."
    named = {_number(word, word, len(typed.were), at, "corner", do) for word in typed.lines}
    return [
        {**corner, "sharp": k in named} if isinstance(corner, Mapping) else corner
        for k, corner in enumerate(typed.were)
    ]


def _number(word: str, line: str, most: int, at: str, what: str, do: str) -> int:
    """Which of several is named, from 0; BadInput for none there is."""
    # A number of very many digits is none that could be counted, nor read.
    if word.isascii() and word.isdecimal() and len(word) < 6 and 1 <= int(word) <= most:
        return int(word) - 1
    there = f"a {what} from 1 to {most}" if most > 1 else f"{what} 1, the only one"
    there = there if most else f"a {what} there is"
    raise BadInput(Fault(at, shorten(line), there, do))


def _with_sticks(support: object, at: str) -> object:
    leg = support.get("leg") if isinstance(support, Mapping) else None
    if not isinstance(support, Mapping) or not isinstance(leg, Mapping):
        return support
    given = leg.get("sticks")
    typed = _typed(given)
    if typed is None:
        return support
    sticks = given.get("sticks") if isinstance(given, Mapping) else None
    if not isinstance(sticks, list) or not all(isinstance(one, Mapping) for one in sticks):
        # Of no sticks nothing can be told: what was given is refused with the rest.
        sticks = []
    made: list[Any]
    if typed.of == "old":
        made = _told(typed, sticks, ("nearer", "farther"), f"{at}.old")
        made = [{**stick, "old": found} for stick, found in zip(sticks, made, strict=True)]
    elif typed.of == "bend":
        made = _told(typed, sticks, ("rise", "at", "faces"), f"{at}.bend")
        made = [
            {**stick, "bend": found[-1] if found else None}
            for stick, found in zip(sticks, made, strict=True)
        ]
    else:
        made = _sticks(typed, leg.get("at_foot"))
    return {**support, "leg": {**leg, "sticks": made}}


def _words(line: str) -> list[str]:
    return [word.strip() for word in _BETWEEN.split(line)]


def _sticks(typed: _Typed, foot: object) -> list[Any]:
    """A stick a line: length, foot, note. What no line tells of a stick stays with its line, or with its
    place where as many lines stand there as before."""
    kept, same = typed.kept(), len(typed.lines) == len(typed.were)
    made: list[Any] = []
    for k, (line, was) in enumerate(zip(typed.lines, kept, strict=True)):
        if was is not None:
            made.append(was)
            continue
        length, *more = _words(line)
        old = typed.were[k] if same and isinstance(typed.were[k], Mapping) else {}
        made.append(
            {
                "length": length,
                "at_foot": more[0] if more and more[0] else foot,
                "note": ", ".join(more[1:]),
                "old": old.get("old", []),
                "bend": old.get("bend"),
            }
        )
    return made


def _told(typed: _Typed, sticks: list[Any], names: tuple[str, ...], at: str) -> list[list[Any]]:
    """What is told of sticks by number, a line each: for every stick what is told of it."""
    do = "Begin the line with the number of a stick in the list above."
    found: list[list[Any]] = [[] for _ in sticks]
    for line, was in zip(typed.lines, typed.kept(), strict=True):
        which, *more = _words(line)
        mine = found[_number(which, line, len(sticks), at, "stick", do)]
        if len(more) > len(names):
            told = f"at most {len(names)} more after the stick's number"
            raise BadInput(Fault(at, shorten(line), told, "Take what is too much out of the line."))
        said = {name: word for name, word in zip(names, more, strict=False) if word}
        mine.append(said if was is None else was)
    return found


def lines(piece: Piece, show: Show) -> dict[str, str]:
    """What stands in the fields that are typed in lines, by their paths: as a maker would type it. What is
    empty is left out."""
    found = {"top.boards": ", ".join(show.length(wide).text for wide in piece.top.boards)}
    outline = piece.top.outline
    if isinstance(outline, Drawn):
        sharp = [str(k) for k, corner in enumerate(outline.corners, start=1) if corner.sharp]
        found["top.outline.corners"] = ", ".join(sharp)
    for k, support in enumerate(piece.supports):
        if not isinstance(support, StakedLegs):
            continue
        at, sticks = f"supports.{k}.leg.sticks", support.leg.sticks
        found[at] = "\n".join(
            ", ".join(filter(None, (_text(show, one.length), _text(show, one.at_foot), one.note)))
            for one in sticks
        )
        found[f"{at}.old"] = "\n".join(
            f"{n}, {_text(show, hole.nearer)}, {_text(show, hole.farther)}"
            for n, one in enumerate(sticks, start=1)
            for hole in one.old
        )
        found[f"{at}.bend"] = "\n".join(
            f"{n}, {_text(show, one.bend.rise)}, {_text(show, one.bend.at)}, {one.bend.faces}"
            for n, one in enumerate(sticks, start=1)
            if one.bend is not None
        )
    return {path: text for path, text in found.items() if text}


def _text(show: Show, mm: float) -> str:
    return show.length(mm).text


__all__ = ["as_typed", "lines"]
