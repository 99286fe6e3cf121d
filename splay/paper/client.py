"""What goes out of the shop with a piece: one page that says what it is, and how to look after it."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from splay.draw import draw
from splay.formats.ink import Placed, ink
from splay.formats.page import Book, Pdf, Printer
from splay.paper.flow import Block, Column, Heading, Text, fill, fitted
from splay.piece import Piece, Rope, Through
from splay.plan import Plan
from splay.shop import Shop

PICTURE_MM = 88.0
SIZES = (3.6, 3.3, 3.0, 2.7)


@dataclass(frozen=True)
class Handed:
    """What is known besides the plan: who made it and where, the day, of what wood, how it was finished and
    how that is cared for."""

    maker: str
    workshop: str
    day: str
    woods: tuple[str, ...]
    finish: str
    care: tuple[str, ...]
    copy: int = 1


def client_page(piece: Piece, shop: Shop, plan: Plan, printer: Printer, handed: Handed) -> Pdf:
    """One page for whoever the piece goes to."""
    book = Book(printer, piece.name)
    wide, high = book.page()
    book.words((0.0, high - 9.0), piece.name, 8.0, bold=True)
    number = f"number {handed.copy} of {piece.make}" if piece.make > 1 else ""
    made = " · ".join(one for one in (handed.workshop, handed.maker, handed.day, number) if one)
    book.words((0.0, high - 15.0), made, 3.4)
    view = draw(piece, shop, plan, "rack").piece[0]
    left, low, right, top = view.box
    scale = min(wide / (right - left), PICTURE_MM / (top - low))
    x = (wide - (right - left) * scale) / 2.0
    ink(book.canvas, view.shapes, Placed(x, high - 20.0 - (top - low) * scale, left, low, scale), 2.6)
    room = Column(0.0, high - 24.0 - PICTURE_MM, wide, high - 26.0 - PICTURE_MM)
    blocks = tuple(_blocks(piece, plan, handed))
    fill(book, blocks, [room], fitted(blocks, [room], SIZES))
    return book.done()


def _blocks(piece: Piece, plan: Plan, handed: Handed) -> Iterator[Block]:
    yield Heading("What it is")
    sizes = [f"{plan.chosen['height'].text} high"] if "height" in plan.chosen else []
    sizes += [f"{one.figure.label.lower()} {one.figure.quantity.text}" for one in plan.sizes]
    yield Text("; ".join(sizes))
    if handed.woods:
        yield Text(f"Wood: {', '.join(handed.woods)}")
    if handed.finish:
        yield Text(f"Finish: {handed.finish}")
    yield Heading("Looking after it")
    for line in (*handed.care, *_kept(piece)):
        yield Text(line)


def _kept(piece: Piece) -> Iterator[str]:
    """What holds for any such piece (common practice, no source)."""
    yield (
        "Wood takes up water from the air and gives it off: it is wider in summer, narrower in winter. "
        "Keep it off radiators and out of standing water."
    )
    staked = [one for _, one in piece.staked()]
    if any(isinstance(one.joint, Through) for one in staked):
        yield "In a dry room a leg's end may come to stand a hair above the seat: the seat has shrunk."
    if any(isinstance(member, Rope) for member in piece.members):
        yield "The rope stretches: tighten it when the legs can be moved by hand."
    if piece.use != "table":
        yield "Stand it on a level floor; never lean back on two legs. A leg that works loose wants gluing."
    yield "Pads under the feet keep their end grain dry and the floor whole."
