"""Lists over as many pages as they take: what to cut, what to buy, what was written down."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from splay.formats.page import Book, Pdf, Printer
from splay.paper.flow import Block, Cells, Column, Heading, Text, fill
from splay.quantity import times
from splay.timber.buying import Buy
from splay.timber.choices import WoodChoice
from splay.timber.fixings import Fixing
from splay.timber.needs import Need
from splay.work.phrases import cap

SIZE = 2.9
_CUT = (0.06, 0.3, 0.18, 0.18, 0.28)
_LOG = (0.16, 0.14, 0.7)


def list_book(title: str, blocks: Sequence[Block], printer: Printer) -> Pdf:
    """Blocks in one column, page after page."""
    book = Book(printer, title)
    left: Sequence[Block] = tuple(blocks)
    while True:
        wide, high = book.page()
        book.words((0.0, high - 4.4), title, 4.4, bold=True)
        book.words((wide, high - 4.0), f"page {book.pages}", 2.5, anchor="end")
        left = fill(book, left, [Column(0.0, high - 8.0, wide, high - 10.0)], SIZE)
        if not left:
            return book.done()


def cut_blocks(needs: Sequence[Need], choice: WoodChoice) -> Iterator[Block]:
    """Every blank: how many, what it is, its size sawn and finished, how its grain lies."""
    yield Heading("To cut")
    yield Cells(("", "part", "blank", "finished", "grain"), _CUT, bold=True)
    for need in needs:
        wood = choice.species_for(need.role)
        spare = f", {need.spare} of them spare" if need.spare else ""
        layers = f"; {need.layers} layers" if need.layers > 1 else ""
        yield Cells(
            (
                str(need.count),
                f"{cap(need.name)}{f', {wood}' if wood else ''}{spare}{layers}",
                times(need.blank),
                times(need.finished),
                need.grain,
            ),
            _CUT,
        )


def buy_blocks(buy: Sequence[Buy], laid_out: bool) -> Iterator[Block]:
    """What to get, and for what."""
    yield Heading("To buy")
    if not buy:
        said = (
            "Nothing: the store gives it all."
            if laid_out
            else "Not laid out yet: the Wood station says what the store gives."
        )
        yield Text(said)
    for one in buy:
        yield Text(one.text, bold=True)
        yield Text(f"for {', '.join(one.names)}", indent=1.0)


def fixing_blocks(fixings: Sequence[Fixing]) -> Iterator[Block]:
    """What else is needed: how many, what, what size."""
    if not fixings:
        return
    yield Heading("Besides the wood")
    for one in fixings:
        yield Cells((str(one.count), cap(one.name), one.size, "", one.what_for), _CUT)


@dataclass(frozen=True)
class Line:
    """One line of a log: when, who, what it is about, what was said."""

    at: str
    by: str
    title: str
    says: str


def log_blocks(lines: Sequence[Line]) -> Iterator[Block]:
    """A log, the earliest first."""
    yield Heading("What was done, measured and learned")
    if not lines:
        yield Text("Nothing is written down yet.")
    for line in lines:
        said = f"{line.title}: {line.says}" if line.title and line.says else line.title or line.says
        yield Cells((line.at, line.by, said), _LOG)
