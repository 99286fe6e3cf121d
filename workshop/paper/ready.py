"""One piece made ready to be printed or written out: its plan, wood and log, each worked out when asked."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime
from functools import cached_property
from typing import Literal

from django.utils import timezone

from splay.build import Build, read_build
from splay.build.finish import Finishing, finishing
from splay.draw import Drawings, draw
from splay.formats.page import Printer
from splay.paper.bench_sheet import Told
from splay.paper.lists import Line
from splay.patterns import Pattern, patterns_of
from splay.piece import Piece, read_piece
from splay.plan import Plan
from splay.quantity import Show
from splay.shop import Shop
from splay.solids import Part, solids_of
from splay.timber.judged import used_ids
from splay.timber.keys import Keys
from splay.timber.laid import WoodLayout
from splay.timber.needs import Need
from workshop.build.models import BuildRow
from workshop.build.reading_log import EntryOut, log_of
from workshop.pieces.actions import Maker, document_of, readings_of, spreads_of
from workshop.pieces.models import PieceRow
from workshop.pieces.planned import planned
from workshop.shop.models import the_shop
from workshop.timber.models import StockRow
from workshop.timber.reserving import Wooded, loaded, wooded

MOST_LINES = 20_000
"""A log of more lines is not printed whole; the piece's record holds all of it."""


@dataclass(frozen=True)
class Asked:
    """What is wished besides: which copy, the day as the page writes it, the tools used last, the address
    of its bench mode ("" where no other device could open it), which sorts of patterns or which one, the
    paper where it is not the printer's own."""

    copy: int
    day: str
    tools: frozenset[str]
    address: str
    sorts: frozenset[str]
    pattern: str
    paper: Literal["", "a4", "letter"]


class Ready:
    """A piece, ready. BadInput or CannotBuild where it cannot be planned."""

    def __init__(self, row: PieceRow, maker: Maker, asked: Asked) -> None:
        self.row, self.maker, self.asked = row, maker, asked
        self.shop: Shop = the_shop(maker)
        self.piece: Piece = read_piece(document_of(row).document)
        self.plan: Plan = planned(
            self.piece,
            self.shop,
            readings_of(row, self.shop, asked.copy),
            spreads=spreads_of(maker),
        )
        self.show = Show(self.shop.rounding.units())

    @property
    def printer(self) -> Printer:
        """The shop's printer, as it was measured."""
        own = self.shop.printer
        return Printer(self.asked.paper or own.paper, own.across, own.up)

    @property
    def name(self) -> str:
        """What the piece is called, and which of several it is."""
        many = f" {self.asked.copy}" if self.piece.make > 1 else ""
        return f"{self.piece.name}{many}"

    @property
    def told(self) -> Told:
        """What a bench sheet says besides."""
        by = self.row.made_by.get_username() if self.row.made_by else ""
        asked = self.asked
        return Told(by, asked.day, asked.copy, asked.address, asked.tools)

    @cached_property
    def wood(self) -> Wooded:
        """What it needs of wood."""
        return wooded(self.row, self.maker)

    @cached_property
    def layout(self) -> WoodLayout | None:
        """What its wood is laid out on: as reserved, else as found last for the piece as it is."""
        kept = self.wood.kept
        if kept is not None and kept.kept:
            return loaded(kept.kept["layout"])
        if kept is not None and kept.found and kept.found["revision"] == self.row.latest:
            return loaded(kept.found["layout"])
        return None

    @property
    def needs(self) -> tuple[Need, ...]:
        """Every blank."""
        return self.wood.needs

    @cached_property
    def splits(self) -> list[tuple[str, Keys]]:
        """The splits in its slabs that are held by keys, by what is chalked on the slab."""
        layout = self.layout
        if layout is None:
            return []
        ids = [slab.stock for slab in layout.slabs]
        rows = StockRow.objects.filter(pk__in=ids)
        names = {str(row.pk): str(row.document.get("name", "")) for row in rows}
        return [
            (names.get(slab.stock) or "a slab", split.keys)
            for slab in layout.slabs
            for split in slab.splits
        ]

    @cached_property
    def all_patterns(self) -> tuple[Pattern, ...]:
        """Every pattern."""
        return patterns_of(self.piece, self.shop, self.plan, self.splits)

    @property
    def patterns(self) -> tuple[Pattern, ...]:
        """The patterns that are wished."""
        found = self.all_patterns
        if self.asked.pattern:
            return tuple(one for one in found if one.id == self.asked.pattern)
        sorts = self.asked.sorts
        return tuple(one for one in found if not sorts or one.sort in sorts)

    @cached_property
    def drawings(self) -> Drawings:
        """The piece drawn from every side."""
        return draw(self.piece, self.shop, self.plan, "all")

    @cached_property
    def solids(self) -> tuple[Part, ...]:
        """Every part as a closed solid."""
        return solids_of(self.piece, self.plan)

    @cached_property
    def log(self) -> list[EntryOut]:
        """Everything that was written down and measured, the earliest first."""
        found: list[EntryOut] = []
        before: datetime | None = None
        while len(found) < MOST_LINES:
            page = log_of(self.maker, self.row.pk, "", "", before)
            found += page.entries
            if not page.more:
                break
            before = page.entries[-1].at
        return found[::-1]

    @property
    def lines(self) -> list[Line]:
        """The log as it is printed."""
        return [
            Line(timezone.localtime(one.at).strftime("%Y-%m-%d %H:%M"), one.by or "", one.title, one.says)
            for one in self.log
        ]

    @cached_property
    def build(self) -> Build:
        """What was chosen about its build."""
        kept = BuildRow.objects.filter(piece=self.row).first()
        return read_build(kept.document) if kept else Build()

    @cached_property
    def finish(self) -> Finishing:
        """How it is finished."""
        return finishing(self.piece, self.plan, self.build, self.show)

    @property
    def woods(self) -> tuple[str, ...]:
        """What it is made of: the wood that is reserved for it, else what was chosen."""
        layout, choice = self.layout, self.wood.choice
        ids = used_ids(layout) if layout is not None else []
        rows = StockRow.objects.filter(pk__in=ids)
        named = dict.fromkeys(str(row.document.get("species", "")) for row in rows)
        if not named:
            named = dict.fromkeys((choice.top_species, choice.species))
        return tuple(one for one in named if one)
