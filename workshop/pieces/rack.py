"""The rack: every piece as it hangs, drawn once and kept until something it shows has changed."""

import json
import logging
from collections.abc import Sequence
from contextlib import suppress
from dataclasses import replace
from datetime import datetime
from hashlib import sha256
from typing import Any
from uuid import UUID

from django.db import OperationalError
from django.db.models import Count, prefetch_related_objects
from ninja import Schema
from pydantic import TypeAdapter

from splay.draw import draw
from splay.errors import SplayError
from splay.piece import Piece, read_piece
from splay.plan import Station
from splay.quantity import Quantity, Show
from splay.reading import Reading
from splay.shop import Shop, write_shop
from splay.views.shapes import View
from workshop.accounts.makers import is_first
from workshop.pieces.actions import Maker, hanging_for, readings_of
from workshop.pieces.models import PieceRow, Revision
from workshop.pieces.planned import planned
from workshop.shop.models import the_shop

log = logging.getLogger(__name__)
HUNG = 4
"""Counted up when what hangs is worked out or drawn otherwise: everything is then drawn anew."""
_UNREAD = "Its last state cannot be read"
_UNBUILT = "It cannot be built as it stands"
_FAILED = "The program failed on it: its fault is in the log"


class Hung(Schema):
    """What is said of a piece, and kept with it: its `height` in mm; how many of it they `make`; `next` the
    station to carry on at, None where nothing is left to prove; `good` whether its feet are good enough;
    `trouble` why it hangs undrawn."""

    name: str
    use: str
    height: float | None
    make: int = 1
    next: Station | None
    cautions: int
    good: bool = False
    trouble: str = ""


class RackPiece(Schema):
    """A piece as it hangs on the rack, its height as the shop reads it; `finished` since its maker said so
    or its feet are good enough; `readable` whether its last state can be opened, `by` who made it, `kept`
    whether only they see it, `may_take` whether whoever looks may take it off."""

    id: UUID
    name: str
    use: str
    height: Quantity | None
    make: int
    next: Station | None
    finished: bool
    cautions: int
    trouble: str
    drawn: bool
    revision: int
    changed: datetime
    readable: bool
    by: str | None
    kept: bool
    may_take: bool


_HUNG = TypeAdapter(Hung)
_VIEW = TypeAdapter(View)


def rack(maker: Maker) -> list[RackPiece]:
    """Every piece a maker sees, the one changed last first; one that is in trouble harms no other."""
    shop = the_shop(maker)
    leads = is_first(maker)
    hanging = hanging_for(maker, leads).select_related("made_by").defer("drawn")
    rows = list(hanging.annotate(said=Count("reading_events")).order_by("-turn", "-changed"))
    # How lengths are read changes no drawing and no count.
    tools = json.dumps({**write_shop(shop), "rounding": None})
    show = Show(shop.rounding.units())
    keys = {row.pk: _key(row, tools) for row in rows}
    stale = [row for row in rows if not row.hung or row.hung_for != keys[row.pk]]
    latest = _documents(stale)
    prefetch_related_objects(stale, "readings")
    for row in stale:
        hung, drawing = _hang(row, latest.get(row.pk), shop)
        row.hung, row.hung_for = _HUNG.dump_python(hung, mode="json"), keys[row.pk]
        row.drawn = None if drawing is None else _tenths(_VIEW.dump_python(drawing, mode="json"))
    made = []
    for row in rows:
        hung = _HUNG.validate_python(row.hung)
        said = hung.model_dump(exclude={"height", "next", "good"})
        readable = not hung.trouble.startswith(_UNREAD)
        made.append(
            RackPiece(
                id=row.pk,
                revision=row.latest,
                changed=row.changed,
                readable=readable,
                drawn=not hung.trouble,
                height=None if hung.height is None else show.length(hung.height),
                next=None if row.finished else hung.next,
                finished=row.finished is not None or hung.good,
                by=row.made_by.get_username() if row.made_by else None,
                kept=row.kept,
                may_take=leads or row.made_by_id == maker.pk,
                **said,
            )
        )
    # Not through save(): what hangs is no change of the piece. Kept to be quick, so it may fail.
    with suppress(OperationalError):
        if stale:
            PieceRow.objects.bulk_update(stale, ("hung", "drawn", "hung_for"), batch_size=50)
    return made


def drawings(ids: list[UUID], maker: Maker) -> dict[UUID, Any]:
    """The pictures of some pieces on the rack, as they were last drawn for it."""
    found = hanging_for(maker).filter(pk__in=ids, drawn__isnull=False)
    return dict(found.values_list("pk", "drawn"))


def _tenths(drawn: Any) -> Any:
    """A picture with its numbers to a tenth of a millimetre: it hangs as large as a hand."""
    if isinstance(drawn, float):
        return round(drawn, 1)
    if isinstance(drawn, dict):
        return {name: _tenths(value) for name, value in drawn.items()}
    return [_tenths(value) for value in drawn] if isinstance(drawn, list) else drawn


def _documents(rows: Sequence[PieceRow]) -> dict[UUID, Any]:
    """The last saved documents of some pieces, by piece."""
    if not rows:
        return {}
    wanted = {(row.pk, row.latest) for row in rows}
    near = Revision.objects.filter(
        piece__in=[row.pk for row in rows], number__in={row.latest for row in rows}
    )
    return {r.piece_id: r.document for r in near if (r.piece_id, r.number) in wanted}


def _key(row: Any, tools: str) -> str:
    """All that what hangs follows from: a reading given, corrected or withdrawn counts up `said`."""
    return sha256(json.dumps([HUNG, row.latest, row.said, tools]).encode()).hexdigest()


def _hang(row: PieceRow, document: Any, shop: Shop) -> tuple[Hung, View | None]:
    said = document if isinstance(document, dict) else {}
    name = str(said.get("name") or "A piece without a name")[:120]
    try:
        piece = read_piece(document)
    except SplayError as error:
        return _trouble(name, None, f"{_UNREAD}: {error}")
    except Exception:
        log.exception("Piece %s, revision %d, cannot be read", row.pk, row.latest)
        return _trouble(name, None, f"{_UNREAD}: {_FAILED[0].lower()}{_FAILED[1:]}")
    height = piece.height
    try:
        made = planned(piece, shop, readings_of(row, shop), levelling=False)
        each = [made, *(planned(piece, shop, of, levelling=False) for of in _others(row, piece, shop))]
        hung = Hung(
            name=piece.name,
            use=piece.use,
            height=height,
            make=piece.make,
            next=_together([one.next for one in each], [one.stations for one in each], piece.make),
            cautions=sum(finding.level != "note" for finding in made.findings),
            good=len(each) == piece.make and all(any(one.good for one in of.level) for of in each),
        )
        return hung, draw(piece, shop, made, "rack").piece[0]
    except SplayError as error:
        return _trouble(name, height, f"{_UNBUILT}: {error}", piece.use)
    except Exception:
        log.exception("Piece %s, revision %d, cannot be drawn", row.pk, row.latest)
        return _trouble(name, height, _FAILED, piece.use)


def _others(row: PieceRow, piece: Piece, shop: Shop) -> list[tuple[Reading, ...]]:
    """The readings of the copies beside the first that have any: without them one is like another."""
    read = {r.copy for r in row.readings.all()}
    return [readings_of(row, shop, copy) for copy in range(2, piece.make + 1) if copy in read]


def _together(
    ahead: list[Station | None], stations: list[tuple[Station, ...]], make: int
) -> Station | None:
    """Where the work goes on with several copies: at the first station any of them waits at, counted over
    all; copies nothing was read on wait at the first."""
    untouched = make - len(stations)
    if untouched:
        ahead = [*ahead, next((one for one in stations[0] if one.proofs), None)]
    names = [one.name for one in stations[0]]
    waiting = [one for one in ahead if one is not None]
    if not waiting:
        return None
    first = min(waiting, key=lambda one: names.index(one.name))
    here = [one for of in stations for one in of if one.name == first.name]
    asked = sum(one.proofs for one in here) + untouched * first.proofs
    answered, off = sum(one.answered for one in here), sum(one.off for one in here)
    return replace(first, proofs=asked, answered=answered, off=off)


def _trouble(name: str, height: float | None, said: str, use: str = "other") -> tuple[Hung, View | None]:
    return Hung(name=name, use=use, height=height, next=None, cautions=1, trouble=said[:400]), None
