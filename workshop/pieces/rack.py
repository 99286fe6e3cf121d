"""The rack: every piece as it hangs, drawn once and kept until something it shows has changed."""

import json
import logging
from contextlib import suppress
from datetime import datetime
from hashlib import sha256
from typing import Any
from uuid import UUID

from django.db import OperationalError
from ninja import Schema
from pydantic import TypeAdapter

from splay.draw import draw
from splay.errors import SplayError
from splay.piece import read_piece
from splay.plan import Station, plan
from splay.quantity import Quantity, Show
from splay.shop import Shop, write_shop
from splay.views.shapes import View
from workshop.accounts.makers import is_first
from workshop.pieces.actions import Maker, hanging_for, readings_of
from workshop.pieces.models import PieceRow, Revision
from workshop.shop.models import the_shop

log = logging.getLogger(__name__)
HUNG = 1
"""Counted up when what hangs is worked out or drawn otherwise: everything is then drawn anew."""
_UNREAD = "Its last state cannot be read"
_UNBUILT = "It cannot be built as it stands"
_FAILED = "The program failed on it: its fault is in the log"


class Hung(Schema):
    """What is shown of a piece, and kept with it: `trouble` says why it hangs undrawn."""

    name: str
    use: str
    height: Quantity | None
    drawing: View | None
    stations: list[Station]
    cautions: int
    trouble: str = ""


class RackPiece(Hung):
    """A piece as it hangs on the rack; `readable` whether its last state can be opened, `by` who made it,
    `kept` whether only they see it, `may_take` whether whoever looks may take it off."""

    id: UUID
    revision: int
    changed: datetime
    readable: bool = True
    by: str | None
    kept: bool
    may_take: bool


_HUNG = TypeAdapter(Hung)


def rack(maker: Maker) -> list[RackPiece]:
    """Every piece a maker sees, the one changed last first; one that is in trouble harms no other."""
    shop = the_shop()
    leads = is_first(maker)
    rows = list(hanging_for(maker, leads).select_related("made_by").prefetch_related("readings"))
    tools = json.dumps(write_shop(shop), sort_keys=True)
    keys = {row.pk: _key(row, tools) for row in rows}
    drawn = [row for row in rows if not row.hung or row.hung_for != keys[row.pk]]
    latest = _documents(drawn)
    for row in drawn:
        hung = _hang(row, latest.get(row.pk), shop)
        row.hung, row.hung_for = _HUNG.dump_python(hung, mode="json"), keys[row.pk]
    made = []
    for row in rows:
        hung = _HUNG.validate_python(row.hung)
        shown = {name: getattr(hung, name) for name in Hung.model_fields}
        readable = not hung.trouble.startswith(_UNREAD)
        made.append(
            RackPiece(
                id=row.pk,
                revision=row.latest,
                changed=row.changed,
                readable=readable,
                by=row.made_by.get_username() if row.made_by else None,
                kept=row.kept,
                may_take=leads or row.made_by_id == maker.pk,
                **shown,
            )
        )
    # Not through save(): what hangs is no change of the piece. Kept to be quick, so it may fail.
    with suppress(OperationalError):
        if drawn:
            PieceRow.objects.bulk_update(drawn, ("hung", "hung_for"))
    return made


def _documents(rows: list[PieceRow]) -> dict[UUID, Any]:
    """The last saved documents of some pieces, by piece."""
    if not rows:
        return {}
    wanted = {(row.pk, row.latest) for row in rows}
    near = Revision.objects.filter(
        piece__in=[row.pk for row in rows], number__in={row.latest for row in rows}
    )
    return {r.piece_id: r.document for r in near if (r.piece_id, r.number) in wanted}


def _key(row: PieceRow, tools: str) -> str:
    """All that what hangs follows from."""
    readings = sorted((r.proof, r.value, r.sure) for r in row.readings.all())
    return sha256(json.dumps([HUNG, row.latest, readings, tools]).encode()).hexdigest()


def _hang(row: PieceRow, document: Any, shop: Shop) -> Hung:
    said = document if isinstance(document, dict) else {}
    name = str(said.get("name") or "A piece without a name")[:120]
    try:
        piece = read_piece(document)
    except SplayError as error:
        return _trouble(name, None, f"{_UNREAD}: {error}")
    except Exception:
        log.exception("Piece %s, revision %d, cannot be read", row.pk, row.latest)
        return _trouble(name, None, f"{_UNREAD}: {_FAILED[0].lower()}{_FAILED[1:]}")
    height = Show(shop.rounding.units()).length(piece.height)
    try:
        made = plan(piece, shop, readings_of(row), levelling=False)
        drawing = draw(piece, shop, made, "rack").piece[0]
    except SplayError as error:
        return _trouble(name, height, f"{_UNBUILT}: {error}", piece.use)
    except Exception:
        log.exception("Piece %s, revision %d, cannot be drawn", row.pk, row.latest)
        return _trouble(name, height, _FAILED, piece.use)
    cautions = sum(finding.level != "note" for finding in made.findings)
    return Hung(
        name=piece.name,
        use=piece.use,
        height=height,
        drawing=drawing,
        stations=list(made.stations),
        cautions=cautions,
    )


def _trouble(name: str, height: Quantity | None, said: str, use: str = "other") -> Hung:
    return Hung(
        name=name, use=use, height=height, drawing=None, stations=[], cautions=1, trouble=said[:400]
    )
