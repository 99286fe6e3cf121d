"""Everything that goes out of a piece, each registered once: what it is called, what it is, how it is made
and what it cannot carry."""

from __future__ import annotations

import io
import re
import zipfile
from collections.abc import Callable, Iterable
from dataclasses import dataclass
from typing import Literal

from splay.errors import BadInput, Fault
from splay.formats.flat import SAID as FLAT_SAID
from splay.formats.flat import dxf, svg
from splay.formats.models import SAID as SOLID_SAID
from splay.formats.models import gltf, stl
from splay.formats.page import Pdf
from splay.formats.tables import Table, markdown, to_csv, workbook
from splay.formats.tiles import pattern_book
from splay.paper.bench_sheet import bench_sheet, picked, setting_of
from splay.paper.client import Handed, client_page
from splay.paper.labels import label_sheet, labels_of
from splay.paper.lists import buy_blocks, cut_blocks, fixing_blocks, list_book, log_blocks
from splay.patterns import Pattern
from splay.timber.fixings import fixings
from splay.views.shapes import View
from splay.work.phrases import cap
from workshop.paper.ready import Ready

Group = Literal["paper", "drawings", "pattern", "solids", "tables"]
"""Where the page offers it; "pattern" beside each pattern."""
_EPOCH = (1980, 1, 1, 0, 0, 0)
TABLE_SAID = "Words and figures. Not in it: photographs, drawings, what a figure was worked out from."


@dataclass(frozen=True)
class Out:
    """One thing that goes out: how its file is called after the piece's name, what kind of file it is, what
    it is good for, what it cannot carry."""

    name: str
    group: Group
    title: str
    called: str
    kind: str
    good_for: str
    without: str
    make: Callable[[Ready], bytes | Pdf]


def _bench(ready: Ready, whole: bool) -> Pdf:
    return bench_sheet(ready.piece, ready.shop, ready.plan, ready.printer, ready.told, whole)


def _patterns(ready: Ready) -> Pdf:
    return pattern_book(_wished(ready), ready.printer, ready.name)


def _wished(ready: Ready) -> tuple[Pattern, ...]:
    found = ready.patterns
    if not found:
        got = ready.asked.pattern or ", ".join(sorted(ready.asked.sorts))
        raise BadInput(Fault("pattern", got, "a pattern this piece has", "Choose one of its patterns."))
    return found


def _labels(ready: Ready) -> Pdf:
    labels = labels_of(ready.piece, ready.plan, ready.needs)
    return label_sheet(labels, ready.printer, ready.piece.name)


def _cut_list(ready: Ready) -> Pdf:
    layout = ready.layout
    blocks = [
        *cut_blocks(ready.needs, ready.wood.choice),
        *buy_blocks(layout.buy if layout else (), layout is not None),
        *fixing_blocks(fixings(ready.piece, ready.plan, ready.show)),
    ]
    return list_book(f"{ready.piece.name}: to cut and to buy", blocks, ready.printer)


def _log(ready: Ready) -> Pdf:
    return list_book(f"{ready.piece.name}: log", tuple(log_blocks(ready.lines)), ready.printer)


def _client(ready: Ready) -> Pdf:
    finish = ready.finish
    coats = f", {len(finish.coats)} coats" if finish.coats else ""
    handed = Handed(
        maker=ready.told.maker,
        workshop=ready.shop.name,
        day=ready.asked.day,
        woods=ready.woods,
        finish=f"{finish.finish}{coats}",
        care=(finish.care,),
        copy=ready.asked.copy,
    )
    return client_page(ready.piece, ready.shop, ready.plan, ready.printer, handed)


def cut_table(ready: Ready) -> Table:
    """Every blank: sizes in mm."""
    choice = ready.wood.choice
    return Table(
        "Cut list",
        (
            "count", "part", "wood", "blank length mm", "blank width mm", "blank thickness mm",
            "finished length mm", "finished width mm", "finished thickness mm", "layers", "spare", "grain",
        ),
        tuple(
            (
                need.count,
                cap(need.name),
                choice.species_for(need.role),
                *(round(one.value, 2) for one in need.blank),
                *(round(one.value, 2) for one in need.finished),
                need.layers,
                need.spare,
                need.grain,
            )
            for need in ready.needs
        ),
    )  # fmt: skip


def buy_table(ready: Ready) -> Table:
    """What to get for what the store does not give: sizes in mm."""
    layout = ready.layout
    return Table(
        "To buy",
        ("count", "what", "length mm", "width mm", "thickness mm", "wood", "for"),
        tuple(
            (
                one.count,
                "slab" if one.slab else "board",
                *(round(size.value, 2) for size in (one.length, one.width, one.thickness)),
                one.species,
                ", ".join(one.names),
            )
            for one in (layout.buy if layout else ())
        ),
    )


def fixing_table(ready: Ready) -> Table:
    """Screws, dowels and what else is needed besides the wood."""
    return Table(
        "Besides",
        ("count", "what", "size", "for"),
        tuple(
            (one.count, one.name, one.size, one.what_for)
            for one in fixings(ready.piece, ready.plan, ready.show)
        ),
    )


READING_COLUMNS = (
    "proof", "copy", "part", "what", "read on", "expected", "near enough", "unit", "value", "typed", "tool",
    "note", "taken", "by",
)  # fmt: skip


def reading_table(ready: Ready) -> Table:
    """Every proof with its answer, and answers to what is asked no more; empty values are there to be
    filled in. Values in mm or degrees, as the proof's scale shows them."""
    rows = {one.proof: one for one in ready.row.readings.all() if one.copy == ready.asked.copy}
    made: list[tuple[str | float | int | None, ...]] = []
    for proof in ready.plan.proofs:
        had = rows.pop(proof.id, None)
        made.append(
            (
                proof.id,
                ready.asked.copy,
                proof.short,
                proof.what,
                proof.read_on,
                round(proof.expected.value, 4),
                round(proof.near.value, 4),
                "mm" if proof.expected.unit == "mm" else "deg",
                had.value if had else None,
                had.typed if had else "",
                had.tool if had else "",
                had.note if had else "",
                had.taken.isoformat() if had else "",
                had.by.get_username() if had and had.by else "",
            )
        )
    for one in rows.values():
        made.append(
            (
                one.proof, one.copy, "", "asked no more", one.kind, None, None, "", one.value, one.typed,
                one.tool, one.note, one.taken.isoformat(), one.by.get_username() if one.by else "",
            )
        )  # fmt: skip
    return Table("Readings", READING_COLUMNS, tuple(made))


def setting_table(ready: Ready) -> Table:
    """One line a work: the tool, the setting, which way."""
    return Table(
        "Settings",
        ("station", "work", "tool", "setting", "which way"),
        tuple(
            (card.station, card.title, card.tool, setting_of(card), " ".join(card.which_way))
            for card in picked(ready.plan.setups, ready.asked.tools)
        ),
    )


def log_table(ready: Ready) -> Table:
    """The log, a line an entry."""
    return Table(
        "Log",
        ("at", "by", "sort", "title", "says", "minutes", "copy"),
        tuple(
            (
                one.at.isoformat(timespec="seconds"), one.by or "", one.sort, one.title, one.says,
                one.minutes, one.copy_number,
            )
            for one in ready.log
        ),
    )  # fmt: skip


def _workbook(ready: Ready) -> bytes:
    makers = (cut_table, buy_table, fixing_table, setting_table, reading_table, log_table)
    return workbook([make(ready) for make in makers])


def _sides(ready: Ready) -> Iterable[tuple[str, str, View]]:
    for view in ready.drawings.piece:
        if view.name in ("front", "side", "plan", "underside", "upper", "quarter"):
            yield view.name, f"{ready.piece.name}, {view.title}", view


def _flat_patterns(ready: Ready) -> Iterable[tuple[str, str, View]]:
    for pattern in _wished(ready):
        yield pattern.id, f"{ready.piece.name}, {pattern.title}", pattern.view


def _zipped(
    views: Iterable[tuple[str, str, View]], ending: str, write: Callable[[View, str], bytes]
) -> bytes:
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as archive:
        for number, (name, title, view) in enumerate(views, 1):
            # One fixed moment: the same piece gives the same file.
            info = zipfile.ZipInfo(f"{number:02d}-{re.sub('[^A-Za-z0-9]+', '-', name)}{ending}", _EPOCH)
            info.compress_type = zipfile.ZIP_DEFLATED
            archive.writestr(info, write(view, title))
    return out.getvalue()


def _one_flat(ready: Ready, write: Callable[[View, str], bytes]) -> bytes:
    pattern = _wished(ready)[0]
    return write(pattern.view, f"{ready.piece.name}, {pattern.title}")


PDF, ZIP = "application/pdf", "application/zip"
_SHEET = "On paper; nothing follows when the piece is changed: print it anew."
OUTS: dict[str, Out] = {
    one.name: one
    for one in (
        Out("bench", "paper", "Bench sheet", " bench sheet.pdf", PDF,
            "One page: settings, lengths, sightlines, proofs to write in, cautions.", _SHEET,
            lambda ready: _bench(ready, False)),
        Out("bench-long", "paper", "Bench sheet, long", " bench sheet, long.pdf", PDF,
            "The same with every step, over as many pages as it takes.", _SHEET,
            lambda ready: _bench(ready, True)),
        Out("patterns", "paper", "Patterns at full size", " patterns.pdf", PDF,
            "Laid on the wood, on a jig, against a gauge; large ones over several sheets.", _SHEET,
            _patterns),
        Out("labels", "paper", "Labels", " labels.pdf", PDF,
            "One a part, with its number in strokes, its blank and which way is up.", _SHEET, _labels),
        Out("cut-list", "paper", "To cut and to buy", " cut list.pdf", PDF,
            "Every blank, sawn and finished, and what the store does not give.", _SHEET, _cut_list),
        Out("log", "paper", "Log", " log.pdf", PDF, "What was done, measured and learned.",
            f"{_SHEET} No photographs.", _log),
        Out("client", "paper", "Page for whoever gets it", " page.pdf", PDF,
            "What it is, of what wood, how it was finished, how to look after it.", _SHEET, _client),
        Out("drawings-dxf", "drawings", "Drawings, DXF", " drawings dxf.zip", ZIP,
            "Front, side, plan, underside and quarter, a file each.", FLAT_SAID,
            lambda ready: _zipped(_sides(ready), ".dxf", dxf)),
        Out("drawings-svg", "drawings", "Drawings, SVG", " drawings svg.zip", ZIP,
            "The same as SVG.", FLAT_SAID, lambda ready: _zipped(_sides(ready), ".svg", svg)),
        Out("patterns-dxf", "drawings", "Patterns, DXF", " patterns dxf.zip", ZIP,
            "Every pattern at full size, a file each: for a plotter, a laser, a router.", FLAT_SAID,
            lambda ready: _zipped(_flat_patterns(ready), ".dxf", dxf)),
        Out("patterns-svg", "drawings", "Patterns, SVG", " patterns svg.zip", ZIP,
            "The same as SVG.", FLAT_SAID, lambda ready: _zipped(_flat_patterns(ready), ".svg", svg)),
        Out("pattern-dxf", "pattern", "One pattern, DXF", " pattern.dxf", "image/vnd.dxf",
            "The pattern that is chosen.", FLAT_SAID, lambda ready: _one_flat(ready, dxf)),
        Out("pattern-svg", "pattern", "One pattern, SVG", " pattern.svg", "image/svg+xml",
            "The pattern that is chosen.", FLAT_SAID, lambda ready: _one_flat(ready, svg)),
        Out("solids-gltf", "solids", "Solids, glTF", ".glb", "model/gltf-binary",
            "Every part closed and named, in metres, y up: to be looked at and turned.", SOLID_SAID,
            lambda ready: gltf(ready.solids)),
        Out("solids-stl", "solids", "Solids, STL", " stl.zip", ZIP,
            "A file a part, in mm: for a mill or a printer.", SOLID_SAID, lambda ready: stl(ready.solids)),
        Out("cut-list-csv", "tables", "Cut list, CSV", " cut list.csv", "text/csv",
            "A row a blank, in mm.", TABLE_SAID, lambda ready: to_csv(cut_table(ready))),
        Out("readings-csv", "tables", "Readings, CSV", " readings.csv", "text/csv",
            "Every proof with its answer; fill in values and take it in again.", TABLE_SAID,
            lambda ready: to_csv(reading_table(ready))),
        Out("log-csv", "tables", "Log, CSV", " log.csv", "text/csv", "A row an entry.", TABLE_SAID,
            lambda ready: to_csv(log_table(ready))),
        Out("log-markdown", "tables", "Log, Markdown", " log.md", "text/markdown",
            "To be read anywhere, a heading a day.", TABLE_SAID,
            lambda ready: markdown(f"{ready.piece.name}: log", log_table(ready))),
        Out("workbook", "tables", "Everything in tables, spreadsheet", ".xlsx",
            "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
            "Cut list, what to buy, what else, settings, readings and log, a sheet each.", TABLE_SAID,
            _workbook),
    )
}  # fmt: skip
