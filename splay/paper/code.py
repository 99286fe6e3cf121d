"""A square code that a phone reads: the address of a piece on this workshop's own server."""

from __future__ import annotations

import segno

from splay.formats.page import Book

QUIET = 4
"""White modules round a code (ISO/IEC 18004, 6.3.8)."""


def code(book: Book, address: str, at: tuple[float, float], size: float) -> None:
    """A QR code with its lower left at a place, its white included, `size` mm wide; medium error
    correction, so that a greasy thumb does not spoil it."""
    made = segno.make(address, error="m", micro=False)
    rows = [bytes(row) for row in made.matrix]
    module = size / (len(rows) + 2 * QUIET)
    canvas = book.canvas
    canvas.saveState()
    canvas.setFillGray(0.0)
    path = canvas.beginPath()
    for r, row in enumerate(rows):
        for c, dark in enumerate(row):
            if dark:
                x = at[0] + (QUIET + c) * module
                y = at[1] + size - (QUIET + r + 1) * module
                # Overlapped by a hair: a seam between modules shows white on some printers.
                path.rect(x, y, module * 1.02, module * 1.02)
    canvas.drawPath(path, stroke=0, fill=1)
    canvas.restoreState()
