"""What can be done to kept pieces: one action a change, each whole or not at all."""

from __future__ import annotations

import itertools
import math
import re
from dataclasses import dataclass
from secrets import token_hex
from typing import Any
from uuid import UUID

from django.contrib.auth.models import AnonymousUser, User
from django.core.exceptions import PermissionDenied
from django.db import transaction
from django.db.models import F, Max, OuterRef, Q, QuerySet, Subquery
from django.db.models.fields.json import KT
from django.http import Http404
from django.utils import timezone

from splay.document import plain_name
from splay.errors import BadInput, Fault, SplayError, shorten
from splay.piece import Piece, read_piece, write_piece
from splay.plan import plan
from splay.quantity import Bare
from splay.reading import (
    HowRead,
    Reading,
    as_shown_now,
    how_read,
    kind_named,
    read_reading,
    with_unit,
    written_down,
)
from splay.setups.asker import Spread
from splay.setups.card import Proof
from splay.setups.slips import FAR
from splay.shop import Shop
from splay.work.proofs import KINDS
from workshop.accounts.makers import is_first
from workshop.pieces.models import (
    LONGEST_CALLED,
    LONGEST_PROOF,
    PieceRow,
    ReadingEvent,
    ReadingRow,
    Revision,
)
from workshop.problems import Conflict
from workshop.sent import FIRST

Maker = User | AnonymousUser
"""Whoever is signed in; the API lets nobody else this far."""


def named(maker: Maker | None) -> User | None:
    """The maker as a record names them."""
    return maker if isinstance(maker, User) else None


def hanging_for(maker: Maker, leads: bool | None = None) -> QuerySet[PieceRow]:
    """The pieces on the rack that a maker sees: everybody's, but for those another keeps to themselves.
    What somebody kept who has left the shop is seen by its first maker (`leads`, where that is known)."""
    seen = Q(kept=False) | Q(made_by=maker.pk)
    if leads if leads is not None else is_first(maker):
        seen |= Q(made_by=None) | Q(made_by__is_active=False)
    return PieceRow.objects.filter(seen, removed=None)


def get_row(id: UUID, maker: Maker) -> PieceRow:
    """The piece's row; Http404 where there is none that this maker sees."""
    row = hanging_for(maker).filter(pk=id).first()
    if row is None:
        raise Http404
    return row


def next_turn() -> int:
    """The number of the next change on the rack."""
    last: int = PieceRow.objects.aggregate(last=Max("turn", default=0))["last"]
    return last + 1


def document_of(row: PieceRow, number: int | None = None) -> Revision:
    """A revision of a piece, the latest where no number is named; Http404 where there is none."""
    revision = row.revisions.filter(number=number or row.latest).first()
    if revision is None:
        raise Http404
    return revision


def fresh_name(name: str, maker: Maker) -> str:
    """The name, with a number behind it where another piece that the maker sees has it already."""
    latest = Revision.objects.filter(piece__in=hanging_for(maker), number=F("piece__latest"))
    taken = set(latest.annotate(name=KT("document__name")).values_list("name", flat=True))
    stem = re.sub(r" \d+$", "", name)[:110]
    numbered = (f"{stem} {number}" for number in itertools.count(2))
    return name if name not in taken else next(one for one in numbered if one not in taken)


@transaction.atomic
def put_on_rack(piece: Piece, maker: Maker) -> PieceRow:
    """Keep a new piece as its first revision."""
    row = PieceRow.objects.create(latest=1, turn=next_turn(), made_by=named(maker))
    Revision.objects.create(piece=row, number=1, document=write_piece(piece), by=named(maker))
    return row


@transaction.atomic
def save(id: UUID, document: dict[str, Any], bare: Bare, based_on: int, maker: Maker) -> Revision:
    """Save a piece as its next revision; Conflict where another tab or maker saved meanwhile.

    Saving what stands already makes no revision.
    """
    row = get_row(id, maker)
    piece = read_piece(document, bare, "piece", token_hex())
    last = document_of(row)
    written = write_piece(piece)
    if written == last.document:
        return last
    if based_on != row.latest:
        raise Conflict(
            f"This piece was saved as revision {row.latest} after you opened revision {based_on}. "
            "Nothing is lost: look at the other one, then keep yours or theirs."
        )
    row.latest += 1
    row.turn = next_turn()
    row.save()
    return Revision.objects.create(piece=row, number=row.latest, document=written, by=named(maker))


def _whose(row: PieceRow, maker: Maker) -> None:
    """PermissionDenied for all but the piece's maker and the shop's first one."""
    if row.made_by_id != maker.pk and not is_first(maker):
        whose = row.made_by.get_username() if row.made_by else "somebody who left"
        raise PermissionDenied(f"{whose} made it: that maker or the shop's first one may do this.")


@transaction.atomic
def take_off_rack(id: UUID, maker: Maker) -> None:
    """Take a piece off the rack, with its revisions and readings, to where it can be fetched from."""
    row = get_row(id, maker)
    _whose(row, maker)
    row.removed, row.removed_by, row.nights = timezone.now(), named(maker), 0
    row.save(update_fields=("removed", "removed_by", "nights"))


def taken_off(maker: Maker) -> QuerySet[Any]:
    """The pieces a maker may hang up again, each with its `name`, the one taken off last first."""
    last = Revision.objects.filter(piece=OuterRef("pk"), number=OuterRef("latest"))
    named_so = Subquery(last.annotate(name=KT("document__name")).values("name"))
    rows = PieceRow.objects.filter(removed__isnull=False).annotate(name=named_so)
    rows = rows.select_related("made_by", "removed_by").defer("drawn")
    return (rows if is_first(maker) else rows.filter(made_by=maker.pk)).order_by("nights", "-removed")


@transaction.atomic
def hang_again(id: UUID, maker: Maker) -> PieceRow:
    """Hang a piece up again as it was taken off; Http404 where it is not there any more."""
    row: PieceRow | None = taken_off(maker).filter(pk=id).first()
    if row is None:
        raise Http404
    row.removed, row.removed_by, row.turn = None, None, next_turn()
    row.save(update_fields=("removed", "removed_by", "turn"))
    return row


@transaction.atomic
def keep_to_maker(id: UUID, kept: bool, maker: Maker) -> PieceRow:
    """Keep a piece for its maker's eyes, or show it to the shop again; only its maker does."""
    row = get_row(id, maker)
    if row.made_by_id != maker.pk:
        raise PermissionDenied("Only whoever made a piece keeps it to themselves.")
    row.kept = kept
    row.save(update_fields=("kept",))
    return row


@transaction.atomic
def finish(id: UUID, finished: bool, maker: Maker) -> PieceRow:
    """Say that a piece is finished, or that it is not yet."""
    row = get_row(id, maker)
    row.finished = timezone.now() if finished else None
    row.save(update_fields=("finished",))
    return row


@transaction.atomic
def call_state(id: UUID, number: int, called: str, maker: Maker) -> Revision:
    """Give an earlier state a name, or take it away."""
    revision = document_of(get_row(id, maker), number)
    revision.called = plain_name(called)
    revision.save(update_fields=("called",))
    return revision


@dataclass(frozen=True)
class Taken:
    """How a reading was taken: as typed, what bare figures mean, with what, and a note. `kind` is that
    of its proof, needed where the piece no longer asks it; `based_on` the number of the answer that was
    seen when it was typed, 0 where there was none, None where that is not known. `keep` says that the
    reading stands as it was taken, and only what is said about it changes; `copy` which of several like
    pieces it was taken on."""

    typed: str
    bare: Bare
    tool: str = ""
    note: str = ""
    sure: bool = False
    kind: str = ""
    based_on: int | None = None
    keep: bool = False
    copy: int = FIRST


def answer(id: UUID, proof: str, taken: Taken, shop: Shop, maker: Maker) -> ReadingRow:
    """Keep the answer to a proof; one there was before stays in its history.

    Conflict where somebody else answered it meanwhile with something else.
    """
    # Worked out before anything is held: others who save meanwhile need not wait for it.
    asked = _asked(get_row(id, maker), proof, shop, taken.copy)
    return keep_answer(id, proof, taken, shop, maker, asked)


@transaction.atomic
def keep_answer(
    id: UUID, proof: str, taken: Taken, shop: Shop, maker: Maker, asked: Proof | None
) -> ReadingRow:
    """The same where it is known already what the piece asks there: many readings want one plan."""
    row = get_row(id, maker)
    field = f"readings.{proof}"
    kind = kind_named(asked.kind if asked else taken.kind, field)
    if asked is None and not _PROOF.fullmatch(proof):
        do = "Answer one of the proofs on the piece's cards."
        raise BadInput(Fault(field[:60], shorten(proof), "the id of a proof", do))
    had = row.readings.filter(proof=proof, copy=taken.copy).select_related("by").first()
    if had is not None and taken.keep:
        value, typed, how = had.value, had.typed, how_it_read(had)
    else:
        value = read_reading(proof, kind, taken.typed, shop, taken.bare, field).value
        typed = with_unit(kind, taken.typed, taken.bare)[:LONGEST_TYPED]
        how = how_read(kind, shop)
    seen = taken.based_on is None or taken.based_on == (had.number if had else 0)
    if not seen and (had is None or had.value != value):
        raise Conflict(_clash(had))
    if had is None and row.readings.filter(copy=taken.copy).count() >= MOST_OF_A_PIECE:
        do = "Withdraw readings that are no longer wanted."
        raise BadInput(Fault(field, "one more", f"at most {MOST_OF_A_PIECE} readings of a piece", do))
    said = {"value": value, "typed": typed, "tool": taken.tool, "note": taken.note}
    kept, _ = ReadingRow.objects.update_or_create(
        piece=row,
        proof=proof,
        copy=taken.copy,
        defaults={
            **said,
            "sure": taken.sure,
            "kind": kind.name,
            "expected": asked.expected.value if asked else None,
            "by": named(maker),
            # One that came with a record may bear a later number than there are events.
            "number": max(row.reading_events.count(), had.number if had else 0) + 1,
            "at_square": how.at_square if how else None,
            "counts": how.counts if how else "",
            "gauge": how.gauge if how else "",
        },
    )
    what = "corrected" if had else "answered"
    of = {"piece": row, "proof": proof, "copy": taken.copy}
    called = asked.what[:LONGEST_CALLED] if asked else ""
    line = {**said, "typed": written_down(kind, typed)[:LONGEST_TYPED]}
    ReadingEvent.objects.create(**of, what=what, called=called, by=named(maker), **line)
    return kept


def _clash(other: ReadingRow | None) -> str:
    if other is None:
        return "This reading was withdrawn while you typed yours. Look, then keep yours or leave it."
    who = other.by.get_username() if other.by else "Somebody"
    return f"{who} read {other.typed} here while you typed yours. Look, then keep yours or theirs."


def _asked(row: PieceRow, proof: str, shop: Shop, copy: int) -> Proof | None:
    """A proof as it is asked before it is answered; None where the piece asks no such thing."""
    others = tuple(r for r in readings_of(row, shop, copy) if r.proof != proof)
    try:
        made = plan(read_piece(document_of(row).document), shop, others)
    except SplayError:
        return None
    return next((p for p in made.proofs if p.id == proof), None)


@transaction.atomic
def withdraw(id: UUID, proof: str, maker: Maker, copy: int) -> None:
    """Take an answer back; its history says so."""
    row = get_row(id, maker)
    for had in row.readings.filter(proof=proof, copy=copy):
        of = {"piece": row, "proof": proof, "copy": copy}
        before = row.reading_events.filter(proof=proof, copy=copy).first()
        typed = written_down(KINDS[had.kind], had.typed)[:LONGEST_TYPED] if had.kind in KINDS else had.typed
        said = {"what": "withdrawn", "value": had.value, "typed": typed}
        said["called"] = before.called if before else ""
        ReadingEvent.objects.create(**of, **said, by=named(maker))
        had.delete()


LONGEST_TYPED = 40
_PROOF = re.compile(rf"[A-Za-z0-9_.-]{{1,{LONGEST_PROOF}}}")
"""What a proof's id can be: one that a piece asks no more is known by nothing else."""
MOST_OF_A_PIECE = 400
"""As many readings as a plan is worked out from."""
MOST_READINGS = 1000
"""A hand is judged by its latest readings."""


def spreads_of(maker: Maker) -> dict[str, Spread]:
    """How far one maker's readings lie from what was expected, by the kind of proof, over all pieces."""
    if not isinstance(maker, User):
        return {}
    offs: dict[str, list[float]] = {}
    rows = ReadingRow.objects.filter(by=maker, expected__isnull=False)
    latest = rows.order_by("-taken").values_list("kind", "value", "expected")[:MOST_READINGS]
    for kind, value, expected in latest:
        if kind not in KINDS or KINDS[kind].station == "level":
            continue
        far = FAR[KINDS[kind].measures]
        if expected is not None and abs(value - expected) <= far:
            offs.setdefault(kind, []).append(value - expected)
    return {
        kind: Spread(math.sqrt(math.fsum(o * o for o in many) / len(many)), len(many))
        for kind, many in offs.items()
    }


def how_it_read(row: ReadingRow) -> HowRead | None:
    """The scale a kept reading was taken on; None for lengths."""
    if row.at_square is None:
        return None
    return HowRead(row.at_square, "down" if row.counts == "down" else "up", row.gauge)


def shown_now(row: ReadingRow, shop: Shop) -> float:
    """A kept reading as the shop's tools of today would show it."""
    return (
        as_shown_now(row.value, how_it_read(row), KINDS[row.kind], shop) if row.kind in KINDS else row.value
    )


def readings_of(row: PieceRow, shop: Shop, copy: int = FIRST) -> tuple[Reading, ...]:
    """A piece's readings, or one of its copies', as the core knows them: angles on the scales of this
    shop."""
    return tuple(
        Reading(r.proof, shown_now(r, shop), r.sure, r.kind) for r in row.readings.all() if r.copy == copy
    )
