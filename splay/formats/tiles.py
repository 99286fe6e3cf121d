"""Patterns larger than a sheet, over several; small ones together on one."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass

import shapely
from reportlab.lib.utils import simpleSplit

from splay.formats.ink import Placed, ink
from splay.formats.page import Book, Pdf, Printer, check_square
from splay.formats.type import PLAIN, fonts, spelt, wide
from splay.patterns import Pattern
from splay.views.shapes import Shape

OVERLAP_MM = 12.0
"""What two neighbouring sheets show of each other."""
FOOT_MM = 13.0
"""The strip along the bottom that says which sheet it is."""
GAP_MM = 6.0
LETTERS_MM = 3.4
CROSS_MM = 4.0


@dataclass(frozen=True)
class Tile:
    """One sheet of a pattern: its column and row from the lower left, and the lower left corner of what it
    shows, in the pattern's own mm."""

    column: int
    row: int
    x: float
    y: float


@dataclass(frozen=True)
class Tiling:
    """How a pattern lies over sheets: whether they are turned, how many columns and rows, what one shows
    (mm), and those that have anything on them."""

    landscape: bool
    columns: int
    rows: int
    wide: float
    high: float
    tiles: tuple[Tile, ...]


@dataclass(frozen=True)
class Sheet:
    """One sheet to print: several whole patterns with their places, or one tile of a large one."""

    landscape: bool
    placed: tuple[tuple[Pattern, float, float], ...]
    of: Pattern | None = None
    tiling: Tiling | None = None
    tile: Tile | None = None


def shows(printer: Printer, landscape: bool) -> tuple[float, float]:
    """What one sheet can show above its foot, true mm."""
    wide, high = printer.room(landscape)
    return wide, high - FOOT_MM


def tiling(pattern: Pattern, printer: Printer) -> Tiling:
    """The way of laying a pattern over sheets that takes the fewest; sheets with nothing on them are left
    out."""
    ways = [_tiled(pattern, printer, landscape) for landscape in (False, True)]
    return min(ways, key=lambda way: (len(way.tiles), way.landscape))


def _tiled(pattern: Pattern, printer: Printer, landscape: bool) -> Tiling:
    wide, high = shows(printer, landscape)
    w, h = pattern.size
    left, low = pattern.view.box[:2]
    columns = max(1, math.ceil((w - OVERLAP_MM) / (wide - OVERLAP_MM)))
    rows = max(1, math.ceil((h - OVERLAP_MM) / (high - OVERLAP_MM)))
    drawn = shapely.union_all([_drawn(shape) for shape in pattern.view.shapes])
    shapely.prepare(drawn)
    # Spread evenly: the white that is over lies outside, not at one side.
    spare_x = columns * (wide - OVERLAP_MM) + OVERLAP_MM - w
    spare_y = rows * (high - OVERLAP_MM) + OVERLAP_MM - h
    x0, y0 = left - spare_x / 2.0, low - spare_y / 2.0
    tiles = []
    for row in range(rows):
        for column in range(columns):
            x, y = x0 + column * (wide - OVERLAP_MM), y0 + row * (high - OVERLAP_MM)
            if drawn.intersects(shapely.box(x, y, x + wide, y + high)):
                tiles.append(Tile(column, row, x, y))
    return Tiling(landscape, columns, rows, wide, high, tuple(tiles))


def _drawn(shape: Shape) -> shapely.Geometry:
    """Where a shape leaves ink."""
    if shape.kind == "ellipse":
        return shapely.Point(shape.points[0]).buffer(max(shape.sizes)).boundary
    if shape.kind == "text":
        return shapely.Point(shape.points[0])
    ring = (*shape.points, shape.points[0]) if shape.kind == "area" else shape.points
    return shapely.LineString(ring)


TITLE_MM, LINE_MM, TOLD_MM = 4.2, 3.1, 2.4
"""Title, and lines of what to do, above a small pattern: how high, and how tall the letters are."""
LEAST_WIDE_MM = 88.0
"""Words under a narrow pattern's title run so far."""


def _head(pattern: Pattern) -> list[str]:
    """What to do with a small pattern, in lines as wide as it is."""
    fonts()
    room = max(LEAST_WIDE_MM, pattern.size[0])
    return [line for said in pattern.told for line in simpleSplit(spelt(said), PLAIN, TOLD_MM, room)]


def _whole(pattern: Pattern) -> tuple[float, float]:
    """A small pattern with its words, mm."""
    w, h = pattern.size
    lines = _head(pattern)
    words = max((wide(line, TOLD_MM) for line in lines), default=0.0)
    return max(w, words, wide(pattern.title, 2.9, True)), h + TITLE_MM + LINE_MM * len(lines)


def sheets(patterns: Iterable[Pattern], printer: Printer) -> tuple[Sheet, ...]:
    """Every sheet of a set of patterns: large ones tiled in their order, small ones packed together after
    them."""
    made: list[Sheet] = []
    small: dict[bool, list[Pattern]] = {False: [], True: []}
    for pattern in patterns:
        w, h = _whole(pattern)
        fits = [turned for turned in (False, True) if w <= shows(printer, turned)[0]]
        fits = [turned for turned in fits if h <= shows(printer, turned)[1]]
        if fits:
            small[fits[0]].append(pattern)
            continue
        way = tiling(pattern, printer)
        made += [Sheet(way.landscape, (), pattern, way, tile) for tile in way.tiles]
    return (
        *made,
        *(sheet for turned in (False, True) for sheet in _packed(small[turned], printer, turned)),
    )


def _packed(small: Sequence[Pattern], printer: Printer, landscape: bool) -> list[Sheet]:
    """Rows of patterns from the top of the sheet down, the tallest first."""
    room, high = shows(printer, landscape)
    made: list[Sheet] = []
    sizes = {pattern.id: _whole(pattern) for pattern in small}
    waiting = sorted(small, key=lambda p: -sizes[p.id][1])
    while waiting:
        placed: list[tuple[Pattern, float, float]] = []
        top = high
        while waiting:
            first = next((p for p in waiting if sizes[p.id][1] <= top), None)
            if first is None:
                break
            row, x = sizes[first.id][1], 0.0
            for one in list(waiting):
                w, h = sizes[one.id]
                if x + w <= room and h <= row:
                    placed.append((one, x, top - h))
                    x += w + GAP_MM
                    waiting.remove(one)
            top -= row + GAP_MM
        made.append(Sheet(landscape, tuple(placed)))
    return made


def pages_of(patterns: Iterable[Pattern], printer: Printer) -> int:
    """How many sheets a set of patterns takes."""
    return len(sheets(patterns, printer))


def pattern_book(
    patterns: Sequence[Pattern],
    printer: Printer,
    name: str,
    done: Callable[[int, int], None] = lambda page, of: None,
) -> Pdf:
    """A PDF of patterns at full size. Every sheet has the check square, what it is and how many there are;
    a tile has register marks and a map. `done` is told after each sheet."""
    book = Book(printer, name)
    all_ = sheets(patterns, printer)
    for number, sheet in enumerate(all_, 1):
        room = book.page(sheet.landscape)
        if sheet.tile is not None and sheet.of is not None and sheet.tiling is not None:
            _tile(book, sheet.of, sheet.tiling, sheet.tile)
            title = sheet.of.title
            told = sheet.of.told
        else:
            _small(book, sheet)
            title = (
                f"{len(sheet.placed)} patterns to cut out"
                if len(sheet.placed) > 1
                else sheet.placed[0][0].title
            )
            told = ()
        check_square(book, (0.0, FOOT_MM))
        _foot(book, room, name, title, told, f"sheet {number} of {len(all_)}")
        done(number, len(all_))
    return book.done()


def _small(book: Book, sheet: Sheet) -> None:
    for pattern, x, y in sheet.placed:
        left, low = pattern.view.box[:2]
        ink(book.canvas, pattern.view.shapes, Placed(x, y + FOOT_MM, left, low), LETTERS_MM)
        lines = _head(pattern)
        top = y + FOOT_MM + pattern.size[1] + 0.8
        book.words((x + 1.0, top + LINE_MM * len(lines)), pattern.title, 2.9, bold=True)
        for k, said in enumerate(lines, 1):
            book.words((x + 1.0, top + LINE_MM * (len(lines) - k)), said, TOLD_MM)


def _tile(book: Book, pattern: Pattern, way: Tiling, tile: Tile) -> None:
    canvas = book.canvas
    canvas.saveState()
    path = canvas.beginPath()
    path.rect(0.0, FOOT_MM, way.wide, way.high)
    canvas.clipPath(path, stroke=0, fill=0)
    ink(canvas, pattern.view.shapes, Placed(0.0, FOOT_MM, tile.x, tile.y), LETTERS_MM)
    canvas.restoreState()
    _register(book, way, tile)
    _map(book, way, tile)


def _register(book: Book, way: Tiling, tile: Tile) -> None:
    """Crosses on the middle of each overlap, the same on both sheets, and the line to cut one of them
    along."""
    canvas, half = book.canvas, OVERLAP_MM / 2.0
    canvas.saveState()
    canvas.setLineWidth(0.12)
    canvas.setStrokeGray(0.3)
    sides = {
        "left": (tile.column > 0, (half, None)),
        "right": (tile.column < way.columns - 1, (way.wide - half, None)),
        "low": (tile.row > 0, (None, half)),
        "high": (tile.row < way.rows - 1, (None, way.high - half)),
    }
    for wanted, (x, y) in sides.values():
        if not wanted:
            continue
        for share in (0.2, 0.8):
            cx = x if x is not None else way.wide * share
            cy = (y if y is not None else way.high * share) + FOOT_MM
            canvas.line(cx - CROSS_MM, cy, cx + CROSS_MM, cy)
            canvas.line(cx, cy - CROSS_MM, cx, cy + CROSS_MM)
            canvas.circle(cx, cy, CROSS_MM / 2.0)
        canvas.setDash([0.6, 2.4])
        if x is not None:
            canvas.line(x, FOOT_MM, x, FOOT_MM + way.high)
        else:
            assert y is not None
            canvas.line(0.0, FOOT_MM + y, way.wide, FOOT_MM + y)
        canvas.setDash()
    canvas.restoreState()


def _map(book: Book, way: Tiling, tile: Tile) -> None:
    """Where this sheet lies among the others."""
    canvas = book.canvas
    cell = min(5.0, 40.0 / max(1, way.columns), (FOOT_MM - 3.0) / max(1, way.rows))
    right = way.wide - way.columns * cell * 1.4
    canvas.saveState()
    canvas.setLineWidth(0.12)
    there = {(one.column, one.row) for one in way.tiles}
    for row in range(way.rows):
        for column in range(way.columns):
            if (column, row) not in there:
                continue
            canvas.setFillGray(0.25 if (column, row) == (tile.column, tile.row) else 1.0)
            x, y = right + column * cell * 1.4, 0.5 + row * cell
            canvas.rect(x, y, cell * 1.4, cell, stroke=1, fill=1)
    canvas.restoreState()


def _foot(
    book: Book, room: tuple[float, float], name: str, title: str, told: Sequence[str], number: str
) -> None:
    clear = room[0] - 46.0
    canvas = book.canvas
    canvas.saveState()
    canvas.setLineWidth(0.12)
    canvas.line(0.0, FOOT_MM - 0.6, room[0], FOOT_MM - 0.6)
    canvas.restoreState()
    book.words((0.0, FOOT_MM - 4.2), _cut(f"{name}: {title}", clear, 3.2), 3.2, bold=True)
    book.words((0.0, 4.9), _cut(" ".join(told), clear, 2.5), 2.5)
    book.words(
        (0.0, 1.4),
        f"{number} · full size: print at 100 %, never fitted to the page; measure the check square first",
        2.5,
    )


def _cut(said: str, room: float, size: float) -> str:
    """Words as far as there is room for them."""
    if wide(said, size) <= room:
        return said
    while said and wide(said + " …", size) > room:
        said = said[:-1]
    return said.rstrip() + " …"


__all__ = ["Sheet", "Tile", "Tiling", "pages_of", "pattern_book", "sheets", "tiling"]
