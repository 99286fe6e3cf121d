"""Words set in columns: blocks that know how high they are, and columns that are filled with them."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from reportlab.lib.utils import simpleSplit

from splay.formats.page import Book
from splay.formats.type import BOLD, PLAIN, fonts, spelt, wide

LEADING = 1.28
"""A line's height over its letters' size."""
BOX_WIDE = 6.4
"""A box to write in, in letters' sizes."""


@dataclass(frozen=True)
class Heading:
    """A title; it stays with what follows it."""

    said: str


@dataclass(frozen=True)
class Text:
    """A paragraph; `indent` in letters' sizes."""

    said: str
    bold: bool = False
    indent: float = 0.0


@dataclass(frozen=True)
class Ask:
    """A line with a box at its end to write a reading in: what is asked, and what is expected."""

    said: str
    expected: str


@dataclass(frozen=True)
class Cells:
    """A row of a table; `shares` are its columns' widths as shares of the whole."""

    texts: tuple[str, ...]
    shares: tuple[float, ...]
    bold: bool = False


Block = Heading | Text | Ask | Cells


@dataclass(frozen=True)
class Column:
    """Room for words: its left, its top, how wide and how high, mm."""

    left: float
    top: float
    wide: float
    high: float


def _lines(said: str, room: float, size: float, bold: bool = False) -> list[str]:
    fonts()
    return simpleSplit(spelt(said), BOLD if bold else PLAIN, size, room) or [""]


def height(block: Block, room: float, size: float) -> float:
    """How high a block is in a column `room` wide, letters of a size, mm."""
    line = size * LEADING
    if isinstance(block, Heading):
        return line * 1.75
    if isinstance(block, Text):
        return line * len(_lines(block.said, room - block.indent * size, size, block.bold)) + 0.12 * line
    if isinstance(block, Ask):
        return line * max(1, len(_lines(block.said, _asked(block, room, size), size))) + 0.55 * line
    rows = [
        len(_lines(said, room * share - size * 0.6, size, block.bold))
        for said, share in zip(block.texts, block.shares, strict=True)
    ]
    return line * max(rows) + 0.35 * line


def _asked(block: Ask, room: float, size: float) -> float:
    """What a question may take beside its figure and its box."""
    return room - (BOX_WIDE + 1.6) * size - wide(block.expected, size)


def put(book: Book, block: Block, left: float, top: float, room: float, size: float) -> None:
    """Set one block with its top at a place."""
    line, canvas = size * LEADING, book.canvas
    base = top - size
    if isinstance(block, Heading):
        base = top - 1.45 * size
        book.words((left, base), block.said, size * 1.12, bold=True)
        canvas.setLineWidth(0.18)
        canvas.line(left, base - 0.4 * size, left + room, base - 0.4 * size)
    elif isinstance(block, Text):
        inside = room - block.indent * size
        for k, said in enumerate(_lines(block.said, inside, size, block.bold)):
            book.words((left + block.indent * size, base - k * line), said, size, block.bold)
    elif isinstance(block, Ask):
        for k, said in enumerate(_lines(block.said, _asked(block, room, size), size)):
            book.words((left, base - k * line), said, size)
        right = left + room
        book.words((right - (BOX_WIDE + 0.6) * size, base), block.expected, size, anchor="end")
        canvas.setLineWidth(0.15)
        canvas.rect(right - BOX_WIDE * size, base - 0.5 * size, BOX_WIDE * size, 1.55 * size)
    else:
        at = left
        for said, share in zip(block.texts, block.shares, strict=True):
            for k, part in enumerate(_lines(said, room * share - size * 0.6, size, block.bold)):
                book.words((at, base - k * line), part, size, block.bold)
            at += room * share
        canvas.setLineWidth(0.08)
        foot = top - height(block, room, size) + 0.12 * line
        canvas.line(left, foot, left + room, foot)


def fill(
    book: Book | None, blocks: Sequence[Block], columns: Sequence[Column], size: float
) -> tuple[Block, ...]:
    """Set blocks into columns, one after the other; what there was no room for. Without a book nothing is
    set: only whether it would all go in."""
    waiting = list(blocks)
    for column in columns:
        used = 0.0
        while waiting:
            block = waiting[0]
            high = height(block, column.wide, size)
            with_next = high
            stays = isinstance(block, Heading) or (isinstance(block, Text) and block.bold)
            if stays and len(waiting) > 1:
                with_next += height(waiting[1], column.wide, size)
            if used + with_next > column.high and used > 0.0:
                break
            if high > column.high:
                break
            if book is not None:
                put(book, block, column.left, column.top - used, column.wide, size)
            used += high
            waiting.pop(0)
    return tuple(waiting)


def fitted(blocks: Sequence[Block], columns: Sequence[Column], sizes: Sequence[float]) -> float:
    """The largest of some sizes of letters at which all goes in; the smallest where none does."""
    return next((size for size in sizes if not fill(None, blocks, columns, size)), sizes[-1])
