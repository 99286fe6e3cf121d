"""Stock as a table: CSV in and out, one row a piece of wood, a row that cannot be read named by itself.

Columns by their names, in any order: kind, name, species, length, width, thickness, small_end, large_end,
bark, pith, checks, thick_end, thin_end, section, moisture, source, cost, place, rings, planed, flaws,
outline, notes. Lengths are millimetres, or written with their unit. Flaws: "knot 350-390 20-60; split
0-180" (along the board, then across it). An outline: "0 0; 2000 10; …". Semicolons between columns and
decimal commas are read as well.
"""

from __future__ import annotations

import csv
from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from typing import Any

from splay.errors import BadInput, Fault, shorten
from splay.paths import inside
from splay.quantity import Bare
from splay.timber.stock import FLAWS, MOST_ITEMS, AnyStock, Board, Slab, read_stock

COLUMNS = (
    "kind", "name", "species", "length", "width", "thickness", "small_end", "large_end", "bark", "pith",
    "checks", "thick_end", "thin_end", "section", "moisture", "source", "cost", "place", "rings", "planed",
    "flaws", "outline", "notes",
)  # fmt: skip
FIELDS = {
    "board": ("length", "width", "thickness", "rings", "planed", "flaws"),
    "slab": ("thickness", "outline", "length", "width"),
    "log": ("length", "small_end", "large_end", "bark", "pith", "checks"),
    "stick": ("length", "thick_end", "thin_end", "section"),
}
"""What each kind has of the columns that not all have."""
SHARED = ("kind", "name", "species", "moisture", "source", "cost", "place", "notes")
LONGEST_ROW = 20_000


@dataclass(frozen=True)
class BadRow:
    """A row that cannot be taken: its number in the file (the first below the heads is 2), and why."""

    row: int
    said: str


class _Lines(list[str]):
    """What the writer of tables writes to."""

    def write(self, line: str) -> int:
        """Keep a line."""
        self.append(line)
        return len(line)


def to_csv(items: Iterable[AnyStock]) -> str:
    """The stock as a table. What it cannot hold (spots in slabs, weighings, photographs) is in the other
    file."""
    lines = _Lines()
    table = csv.DictWriter(lines, COLUMNS, restval="", extrasaction="ignore")
    table.writeheader()
    for item in items:
        row = {name: getattr(item, name) for name in COLUMNS if getattr(item, name, None) not in (None, "")}
        row["moisture"] = "" if item.now is None else item.now
        if isinstance(item, Board):
            row["flaws"] = "; ".join(
                f"{f.kind} {f.start:g}-{f.end:g} {f.low:g}-{item.width if f.high is None else f.high:g}"
                for f in item.flaws
            )
            row["planed"] = "yes" if item.planed else ""
        if isinstance(item, Slab):
            row["outline"] = "; ".join(f"{p.x:g} {p.y:g}" for p in item.outline)
        table.writerow({name: _plain(value) for name, value in row.items()})
    return "".join(lines)


def _plain(value: object) -> object:
    """A cell that no table program takes for a formula."""
    if isinstance(value, str) and value[:1] in tuple("=+-@'"):
        return "'" + value
    return f"{value:g}" if isinstance(value, float) else value


def from_csv(text: str, bare: Bare = "metric") -> tuple[list[AnyStock], list[BadRow]]:
    """The stock of a table, and the rows that could not be read. BadInput where it is no such table."""
    lines = text.lstrip("\ufeff").splitlines()
    heads = lines[0] if lines else ""
    mark = ";" if heads.count(";") > heads.count(",") else "\t" if "\t" in heads else ","
    if len(lines) > MOST_ITEMS + 1:
        do = "Take it in in parts."
        raise BadInput(Fault("table", f"{len(lines)} rows", f"at most {MOST_ITEMS} rows", do))
    table = csv.DictReader(lines, delimiter=mark)
    names = [(name or "").strip().lower() for name in table.fieldnames or ()]
    if not {"kind", "name"} <= set(names):
        do = "Give the first row the names of the columns: kind, name, species, length, width, thickness …"
        raise BadInput(Fault("table", shorten(heads), "a table with a kind and a name a row", do))
    table.fieldnames = names
    items: list[AnyStock] = []
    bad: list[BadRow] = []
    try:
        for row in table:
            if not any((value or "").strip() for value in row.values() if isinstance(value, str)):
                continue
            try:
                items.append(read_stock(_document(row, mark), bare, "row"))
            except BadInput as error:
                fault = error.faults[0]
                what = inside(fault.field, "row") or "it"
                bad.append(BadRow(table.line_num, f"{what}: {fault.said()}"))
    except csv.Error as error:
        raise BadInput(Fault("table", str(error), "a table of rows", "Save it as CSV anew.")) from None
    return items, bad


def _document(row: dict[str, str | Any], mark: str) -> dict[str, Any]:
    given = {
        name: value.strip().removeprefix("'")
        for name, value in row.items()
        if isinstance(value, str) and name
    }
    kind = given.get("kind", "").lower()
    fields = FIELDS.get(kind, ())
    made: dict[str, Any] = {name: given[name] for name in (*SHARED, *fields) if given.get(name)}
    made["kind"] = kind
    if mark != ",":
        for name in set(made) - {"kind", "name", "species", "place", "notes", "flaws", "outline"}:
            made[name] = made[name].replace(",", ".")
    for name in ("moisture", "cost"):
        if name in made:
            made[name] = made[name].rstrip("% ")
    if kind == "board":
        made["planed"] = given.get("planed", "").lower() in ("yes", "true", "1", "x")
        if "flaws" in made:
            made["flaws"] = list(_flaws(made["flaws"]))
    if kind == "slab":
        made["outline"] = list(_outline(made))
    return made


def _flaws(text: str) -> Iterator[dict[str, Any]]:
    for one in filter(None, (part.strip() for part in text.split(";"))):
        words = one.split()
        kind = words[0].lower().replace("-", "_")
        spans = [word.split("-") for word in words[1:3]]
        if kind not in FLAWS or not spans or any(len(span) != 2 for span in spans):
            do = "Write it as: knot 350-390 20-60; split 0-180."
            raise BadInput(Fault("row.flaws", shorten(one), "a kind, from-to along, from-to across", do))
        flaw: dict[str, Any] = {"kind": kind, "start": spans[0][0], "end": spans[0][1]}
        if len(spans) > 1:
            flaw |= {"low": spans[1][0], "high": spans[1][1]}
        yield flaw


def _outline(made: dict[str, Any]) -> Iterator[dict[str, Any]]:
    """The points given, or a rectangle of a length and a width."""
    if "outline" in made:
        for one in filter(None, (part.strip() for part in made["outline"].split(";"))):
            place = one.split()
            if len(place) != 2:
                do = "Write its points as: 0 0; 2000 10; 1990 400."
                raise BadInput(Fault("row.outline", shorten(one), "an x and a y a point", do))
            yield {"x": place[0], "y": place[1]}
        made.pop("length", None)
        made.pop("width", None)
        return
    length, width = made.pop("length", ""), made.pop("width", "")
    if length and width:
        for x, y in (("0", "0"), (length, "0"), (length, width), ("0", width)):
            yield {"x": x, "y": y}
