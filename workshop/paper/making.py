"""Sheets and files of a piece, made."""

from __future__ import annotations

from dataclasses import dataclass

from django.http import Http404

from splay.formats.page import Pdf
from splay.formats.tiles import pages_of
from splay.patterns.whole import SORTS
from workshop.paper.answers import OutOut, PaperOut, PatternOut, Wished
from workshop.paper.outs import OUTS
from workshop.paper.ready import Asked, Ready
from workshop.pieces.actions import Maker
from workshop.pieces.models import PieceRow


@dataclass(frozen=True)
class Made:
    """A finished file: what is in it, what kind it is, what it is called."""

    file: bytes
    kind: str
    called: str


def ready(row: PieceRow, maker: Maker, wished: Wished, address: str) -> Ready:
    """A piece ready to be printed as it is wished; BadInput or CannotBuild where it cannot be planned."""
    asked = Asked(
        copy=wished.copy_number,
        day=wished.day,
        tools=_ids(wished.tools),
        address=address,
        sorts=_ids(wished.sorts),
        pattern=wished.pattern,
        paper=wished.paper,
    )
    return Ready(row, maker, asked)


def _ids(said: str) -> frozenset[str]:
    return frozenset(filter(None, said.split(",")))


def made(name: str, piece: Ready) -> Made:
    """One sheet or file; Http404 where there is none of that name."""
    out = OUTS.get(name)
    if out is None:
        raise Http404
    file = out.make(piece)
    return Made(file.file if isinstance(file, Pdf) else file, out.kind, f"{piece.name}{out.called}")


def listed(piece: Ready) -> PaperOut:
    """All that goes out of a piece, with the pages of each sheet."""
    pages: dict[str, int] = {}
    for out in OUTS.values():
        if out.group == "paper" and out.name != "patterns":
            sheet = out.make(piece)
            assert isinstance(sheet, Pdf)
            pages[out.name] = sheet.pages
    pages["patterns"] = pages_of(piece.patterns, piece.printer)
    show, found = piece.show, piece.all_patterns
    return PaperOut(
        outs=[
            OutOut(
                name=out.name,
                group=out.group,
                title=out.title,
                called=f"{piece.name}{out.called}",
                good_for=out.good_for,
                without=out.without,
                pages=pages.get(out.name),
            )
            for out in OUTS.values()
        ],
        patterns=[
            PatternOut(
                id=one.id,
                sort=one.sort,
                title=one.title,
                told=list(one.told),
                size=f"{show.length(one.size[0]).text} × {show.length(one.size[1]).text}",
                pages=pages_of([one], piece.printer),
            )
            for one in found
        ],
        sorts={sort: called for sort, called in SORTS.items() if any(one.sort == sort for one in found)},
        pattern_pages=pages["patterns"],
        code=piece.asked.address,
    )
