"""Tables as CSV (RFC 4180) and as a spreadsheet (Office Open XML, through openpyxl); a log as Markdown."""

from __future__ import annotations

import csv
import io
from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from splay.errors import BadInput, Fault, shorten

Value = str | float | int | None
FORMULA = ("=", "+", "-", "@", "'", "\t", "\r")
"""What a table program would begin to reckon at."""
MOST_ROWS = 20_000
WIDEST = 60


@dataclass(frozen=True)
class Table:
    """A table: its name, its columns, its rows. Lengths are in mm and angles in degrees where a column says
    so; texts are as the maker reads them."""

    name: str
    columns: tuple[str, ...]
    rows: tuple[tuple[Value, ...], ...]


def guarded(value: Value) -> Value:
    """A cell that no table program takes for a formula: such a text begins with an apostrophe."""
    return f"'{value}" if isinstance(value, str) and value.startswith(FORMULA) else value


def unguarded(value: str) -> str:
    """The cell as it was before it was guarded."""
    return value[1:] if value.startswith("'") and value[1:].startswith(FORMULA) else value


def to_csv(table: Table) -> bytes:
    """UTF-8 with its mark, so that table programs read it as such; numbers with a point."""
    out = io.StringIO(newline="")
    writer = csv.writer(out)
    writer.writerow(table.columns)
    for row in table.rows:
        writer.writerow(
            [
                "" if cell is None else repr(cell) if isinstance(cell, float) else guarded(cell)
                for cell in row
            ]
        )
    return out.getvalue().encode("utf-8-sig")


def from_csv(text: str, wanted: Iterable[str]) -> list[tuple[int, dict[str, str]]]:
    """Rows by the names of their columns, each with its number in the file (the first below is 2).

    Commas, semicolons or tabs between columns. BadInput where a wanted column is missing, or there are too
    many rows.
    """
    text = text.lstrip("\ufeff")
    heads = text.partition("\n")[0]
    mark = ";" if heads.count(";") > heads.count(",") else "\t" if "\t" in heads else ","
    try:
        rows = list(csv.reader(io.StringIO(text, newline=""), delimiter=mark, strict=True))
    except csv.Error as error:
        raise BadInput(Fault("table", str(error), "a table of rows", "Save it as CSV anew.")) from None
    if len(rows) > MOST_ROWS:
        got = f"{len(rows)} rows"
        raise BadInput(Fault("table", got, f"at most {MOST_ROWS} rows", "Take it in in parts."))
    names = [name.strip().lower() for name in rows[0]] if rows else []
    missing = [name for name in wanted if name not in names]
    if missing:
        do = f"Give the first row the names of the columns: {', '.join(wanted)}."
        raise BadInput(Fault("table", shorten(heads), f"a column called {missing[0]}", do))
    return [
        (number, {name: unguarded(cell.strip()) for name, cell in zip(names, row, strict=False)})
        for number, row in enumerate(rows[1:], 2)
        if any(cell.strip() for cell in row)
    ]


def workbook(tables: Sequence[Table]) -> bytes:
    """A spreadsheet, a sheet a table; nothing in it is a formula."""
    # Read in when one is first asked for: it makes every start slower.
    from openpyxl import Workbook
    from openpyxl.cell import Cell
    from openpyxl.styles import Alignment, Font
    from openpyxl.utils import get_column_letter

    book = Workbook()
    book.remove(book.active)  # type: ignore[arg-type]
    for table in tables:
        sheet = book.create_sheet(table.name[:31])
        sheet.append(list(table.columns))
        for head in sheet[1]:
            head.font = Font(bold=True)
        for row in table.rows:
            sheet.append([None if cell is None else _kept(cell) for cell in row])
        for line in sheet.iter_rows(min_row=2):
            for cell in line:
                if isinstance(cell, Cell) and isinstance(cell.value, str):
                    cell.data_type = "s"
                    cell.alignment = Alignment(wrap_text=True, vertical="top")
        for number, column in enumerate(table.columns, 1):
            longest = max([len(column), *(len(str(row[number - 1] or "")) for row in table.rows)])
            sheet.column_dimensions[get_column_letter(number)].width = min(WIDEST, longest + 2)
        sheet.freeze_panes = "A2"
    out = io.BytesIO()
    book.save(out)
    return out.getvalue()


def _kept(cell: Value) -> Value:
    """Text without the signs that XML 1.0 cannot hold."""
    if not isinstance(cell, str):
        return cell
    return "".join(sign if sign >= " " or sign in "\t\n\r" else " " for sign in cell)[:32_000]


MARKS = "\\`*_{}[]<>#|~"


def plain(said: str) -> str:
    """Words that Markdown (CommonMark) shows as they are."""
    line = " ".join(said.split())
    return "".join(f"\\{sign}" if sign in MARKS else sign for sign in line)


def markdown(title: str, table: Table) -> bytes:
    """A log as Markdown: a heading a day, a line an entry. Columns: at, by, sort, title, says, minutes."""
    lines = [f"# {plain(title)}"]
    day = ""
    for row in table.rows:
        at, by, sort, head, says, minutes = (str(cell) if cell is not None else "" for cell in row[:6])
        if at[:10] != day:
            day = at[:10]
            lines += ["", f"## {day}", ""]
        said = ": ".join(plain(one) for one in (head, says) if one)
        more = ", ".join(one for one in (plain(by), f"{minutes} min" if minutes else "") if one)
        lines.append(f"- {at[11:16]} *{plain(sort)}* {said}{f' ({more})' if more else ''}")
    return ("\n".join(lines) + "\n").encode("utf-8")
