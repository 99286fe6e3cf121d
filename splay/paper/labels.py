"""Labels to stick on parts and their ends, in the language of the marks."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from splay.formats.page import Book, Pdf, Printer
from splay.formats.type import wide
from splay.piece import Piece
from splay.plan import Plan
from splay.quantity import times
from splay.timber.needs import Need
from splay.work.phrases import cap

WIDE_MM, HIGH_MM = 62.0, 30.0
MOST_TICKS = 4
"""A higher number is written as a figure: five strokes are miscounted."""
MOST_LABELS = 600


@dataclass(frozen=True)
class Label:
    """One label: the part, its number in strokes (0: none), what else is said of it, which way is up."""

    title: str
    ticks: int
    lines: tuple[str, ...]
    up: str


def labels_of(piece: Piece, plan: Plan, needs: Sequence[Need]) -> tuple[Label, ...]:
    """One a part of every copy, in the order of the cut list; a part is told by its id."""
    blanks = {id: need for need in needs for id in need.of}
    made: list[Label] = []
    for copy in range(1, piece.make + 1):
        which = (f"number {copy} of {piece.make}",) if piece.make > 1 else ()
        made += [*_top(piece, needs, which), *_legs(plan, blanks, which), *_others(plan, blanks, which)]
    return tuple(made[:MOST_LABELS])


def _size(need: Need | None) -> tuple[str, ...]:
    return () if need is None else (f"blank {times(need.blank)}", f"finished {times(need.finished)}")


def _top(piece: Piece, needs: Sequence[Need], which: tuple[str, ...]) -> Iterator[Label]:
    for need in needs:
        if need.role == "board":
            for k in range(need.count // piece.make):
                yield Label(f"{cap(need.name)}, {k + 1}", 0, (*which, *_size(need)), "")
        elif need.role == "top":
            yield Label(cap(need.name), 0, (*which, *_size(need)), "FRONT")


def _legs(plan: Plan, blanks: dict[str, Need], which: tuple[str, ...]) -> Iterator[Label]:
    for part in plan.parts:
        yield Label(f"Leg {part.number}", part.number, (*which, *_size(blanks.get(part.id))), "top")


def _others(plan: Plan, blanks: dict[str, Need], which: tuple[str, ...]) -> Iterator[Label]:
    for stick in plan.sticks:
        if stick.key in blanks:
            yield Label(cap(stick.name), 0, (*which, *_size(blanks[stick.key])), "")
    for member in plan.members:
        ends = f"first end: {member.ends[0].into}; second end: {member.ends[1].into}"
        yield Label(cap(member.name), 0, (*which, ends, *_size(blanks.get(member.id))), "")


def label_sheet(labels: Sequence[Label], printer: Printer, name: str) -> Pdf:
    """Labels on sheets, to be cut apart along the thin lines."""
    book = Book(printer, f"{name}, labels")
    room = book.page()
    columns, rows = int(room[0] // WIDE_MM), int(room[1] // HIGH_MM)
    for k, label in enumerate(labels):
        if k and k % (columns * rows) == 0:
            book.page()
        at = k % (columns * rows)
        x, y = (at % columns) * WIDE_MM, room[1] - (at // columns + 1) * HIGH_MM
        _label(book, label, name, x, y)
    if not labels:
        book.words((0.0, room[1] - 6.0), "There is no part to label yet.", 3.0)
    return book.done()


def _label(book: Book, label: Label, name: str, x: float, y: float) -> None:
    canvas = book.canvas
    canvas.setLineWidth(0.08)
    canvas.setDash([0.8, 1.2])
    canvas.rect(x, y, WIDE_MM, HIGH_MM)
    canvas.setDash()
    size = 5.2
    while wide(label.title, size, True) > WIDE_MM - 18.0 and size > 2.6:
        size -= 0.2
    book.words((x + 3.0, y + HIGH_MM - 7.0), label.title, size, bold=True)
    canvas.setLineWidth(0.7)
    if 0 < label.ticks <= MOST_TICKS:
        for k in range(label.ticks):
            at = x + WIDE_MM - 5.0 - 2.2 * k
            canvas.line(at, y + HIGH_MM - 9.5, at, y + HIGH_MM - 2.5)
    for k, said in enumerate(label.lines[:4]):
        book.words((x + 3.0, y + HIGH_MM - 11.5 - 3.3 * k), said, 2.5)
    if label.up:
        canvas.setLineWidth(0.4)
        at = x + WIDE_MM - 7.0
        canvas.line(at, y + 4.0, at, y + 12.0)
        canvas.line(at, y + 12.0, at - 1.3, y + 9.6)
        canvas.line(at, y + 12.0, at + 1.3, y + 9.6)
        book.words((at, y + 1.4), label.up, 2.3, anchor="middle")
    book.words((x + 3.0, y + 1.6), name, 2.1)
