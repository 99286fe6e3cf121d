"""A sheet of paper in a printer: its size, what the printer makes of a millimetre, where it prints."""

from __future__ import annotations

import io
from dataclasses import dataclass
from typing import Literal

from reportlab.pdfgen.canvas import Canvas

from splay.formats.type import BOLD, PLAIN, fonts, spelt

Paper = Literal["a4", "letter"]
SIZES: dict[Paper, tuple[float, float]] = {"a4": (210.0, 297.0), "letter": (215.9, 279.4)}
"""ISO 216 A4; ANSI/ASME Y14.1 A, "Letter", 8 1/2 by 11 in. Width and height upright, mm."""
POINT = 72.0 / 25.4
"""PDF points in a millimetre (ISO 32000-1, 8.3.2.3: 1/72 inch)."""
MARGIN_MM = 10.0
"""No home printer reaches nearer to every edge (common practice, no source)."""
SQUARE_MM = 100.0
SQUARE_IN_MM = 101.6
"""The check square's sides: 100 mm, and 4 in."""


@dataclass(frozen=True)
class Printer:
    """What is in the printer, and what it made of a printed square of 100 mm: measured across and up the
    upright sheet, mm. Everything is drawn so much larger that it comes out true."""

    paper: Paper = "a4"
    across: float = SQUARE_MM
    up: float = SQUARE_MM

    def scale(self, landscape: bool) -> tuple[float, float]:
        """Paper millimetres in the file for one true millimetre, across and up the page as it is turned."""
        a, b = SQUARE_MM / self.across, SQUARE_MM / self.up
        return (b, a) if landscape else (a, b)

    def size(self, landscape: bool) -> tuple[float, float]:
        """The page as it is turned, file millimetres."""
        w, h = SIZES[self.paper]
        return (h, w) if landscape else (w, h)

    def room(self, landscape: bool) -> tuple[float, float]:
        """True millimetres between the margins, across and up."""
        (w, h), (a, b) = self.size(landscape), self.scale(landscape)
        return (w - 2.0 * MARGIN_MM) / a, (h - 2.0 * MARGIN_MM) / b


@dataclass(frozen=True)
class Pdf:
    """A finished PDF and how many pages it has."""

    file: bytes
    pages: int


class Book:
    """A PDF in the making. Lengths are true mm from the lower left margin of the page."""

    def __init__(self, printer: Printer, title: str) -> None:
        fonts()
        self.printer = printer
        self._bytes = io.BytesIO()
        # Invariant: the same piece gives the same file, to the byte.
        self.canvas = Canvas(self._bytes, pageCompression=1, invariant=1)
        self.canvas.setTitle(spelt(title))
        self.canvas.setCreator("Proud Rake")
        self.pages = 0
        self.landscape = False
        self.size = 0.0

    def page(self, landscape: bool = False) -> tuple[float, float]:
        """Begin a sheet; the true mm between its margins, across and up."""
        if self.pages:
            self.canvas.showPage()
        self.pages += 1
        self.landscape = landscape
        w, h = self.printer.size(landscape)
        a, b = self.printer.scale(landscape)
        self.canvas.setPageSize((w * POINT, h * POINT))
        self.canvas.translate(MARGIN_MM * POINT, MARGIN_MM * POINT)
        self.canvas.scale(a * POINT, b * POINT)
        self.canvas.setLineCap(1)
        self.canvas.setLineJoin(1)
        return self.printer.room(landscape)

    def words(
        self,
        at: tuple[float, float],
        said: str,
        size: float,
        bold: bool = False,
        anchor: str = "start",
    ) -> None:
        """Words at a place; `size` in mm."""
        canvas = self.canvas
        canvas.setFont(BOLD if bold else PLAIN, size)
        draw = {
            "start": canvas.drawString,
            "middle": canvas.drawCentredString,
            "end": canvas.drawRightString,
        }
        draw[anchor](at[0], at[1], spelt(said))

    def done(self) -> Pdf:
        """The file."""
        self.canvas.showPage()
        self.canvas.save()
        return Pdf(self._bytes.getvalue(), self.pages)


def check_square(book: Book, at: tuple[float, float]) -> None:
    """The square to be measured before anything is trusted: 100 mm, and 4 in from the same corner."""
    canvas, (x, y) = book.canvas, at
    canvas.saveState()
    canvas.setStrokeGray(0.35)
    canvas.setLineWidth(0.12)
    canvas.rect(x, y, SQUARE_MM, SQUARE_MM)
    canvas.setDash([1.0, 1.0])
    canvas.rect(x, y, SQUARE_IN_MM, SQUARE_IN_MM)
    canvas.setDash()
    canvas.setFillGray(0.35)
    book.words((x + 2.0, y + 1.2), "check: full line 100 mm, dashed line 4 in, each way", 2.3)
    canvas.restoreState()
