"""Readings brought in as a table: looked through first, taken in all together, taken back together."""

from __future__ import annotations

from dataclasses import dataclass
from uuid import UUID

from django.db import transaction

from splay.errors import BadInput, Fault, shorten
from splay.formats.tables import from_csv
from splay.piece import MOST_MADE, read_piece
from splay.quantity import Bare
from splay.reading import kind_named, read_reading, with_unit
from splay.setups.card import Proof
from splay.work.phrases import so_many
from workshop.keeping import imports
from workshop.pieces.actions import Maker, Taken, document_of, get_row, keep_answer, readings_of, withdraw
from workshop.pieces.models import PieceRow
from workshop.pieces.planned import planned
from workshop.shop.models import the_shop

MOST_TAKEN = 400
"""As many readings as a plan is worked out from."""
LONGEST_TYPED = 40


@dataclass(frozen=True)
class Row:
    """One row: its number in the table, what it is about, what becomes of it."""

    row: int
    about: str
    said: str


@dataclass(frozen=True)
class Brought(Row):
    """A row that can be taken in: the proof, copy and reading it brings."""

    proof: str
    kind: str
    copy: int
    typed: str
    tool: str
    note: str
    asked: Proof | None


@dataclass(frozen=True)
class Found:
    """What a table brings: rows that are new or change something, bad ones, how many say what stands."""

    fresh: tuple[Brought, ...]
    bad: tuple[Row, ...]
    same: int


def read(id: UUID, text: str, bare: Bare | None, copy: int, maker: Maker) -> Found:
    """What a table of readings holds for a piece. Each row wants the `proof`'s id and a `value` (a number
    in mm or degrees, or a text with its unit); rows without one are left; `copy` where several are made."""
    row, shop = get_row(id, maker), the_shop(maker)
    lines = from_csv(text, ("proof", "value"))
    asked: dict[int, dict[str, Proof]] = {}
    fresh: dict[tuple[str, int], Brought] = {}
    bad: list[Row] = []
    same = 0
    piece, unit = read_piece(document_of(row).document), bare or shop.rounding.system
    for number, cells in lines:
        value = cells.get("value", "")
        if not value:
            continue
        try:
            which = _copy(cells.get("copy", "") or str(copy), piece.make)
            if which not in asked:
                made = planned(piece, shop, readings_of(row, shop, which))
                asked[which] = {proof.id: proof for proof in made.proofs}
            one = _row(row, number, cells, which, asked[which], unit, maker)
        except BadInput as error:
            bad.append(Row(number, cells.get("proof", "")[:60], error.faults[0].said()))
            continue
        if one is None:
            same += 1
        elif (one.proof, one.copy) in fresh:
            first = fresh[one.proof, one.copy].row
            bad.append(Row(number, one.about, f"Row {first} answers it already."))
        else:
            fresh[one.proof, one.copy] = one
    if len(fresh) > MOST_TAKEN:
        got = f"{len(fresh)} readings"
        raise BadInput(Fault("table", got, f"at most {MOST_TAKEN} at once", "Take it in in parts."))
    return Found(tuple(fresh.values()), tuple(bad), same)


def _copy(said: str, make: int) -> int:
    number = int(said) if said.isdecimal() and len(said) < 4 else 0
    if not 1 <= number <= min(make, MOST_MADE):
        do = "Name one of the pieces that are made."
        raise BadInput(Fault("copy", shorten(said), f"a number from 1 to {make}", do))
    return number


def _row(
    row: PieceRow,
    number: int,
    cells: dict[str, str],
    copy: int,
    asked: dict[str, Proof],
    bare: Bare,
    maker: Maker,
) -> Brought | None:
    """A row as a reading; None where it says what stands already. BadInput says why it cannot be one."""
    id, typed = cells["proof"], cells["value"]
    had = row.readings.filter(proof=id, copy=copy).first()
    proof = asked.get(id)
    if proof is None and had is None:
        do = "Leave the row out, or take the table out anew: it names the proofs the piece asks now."
        raise BadInput(Fault("proof", shorten(id), "a proof of this piece", do))
    kind = kind_named(proof.kind if proof else had.kind if had else "", "proof")
    # A number of the table is mm or degrees, whatever the maker's own unit: the column's unit says so.
    plain = typed.replace(",", ".")
    shop = the_shop(maker)
    try:
        float(plain)
        said = with_unit(kind, plain, "metric")
    except ValueError:
        said = with_unit(kind, typed, bare)
    if len(said) > LONGEST_TYPED:
        raise BadInput(Fault("value", shorten(typed), "at most 40 signs", "Write the reading alone."))
    value = read_reading(id, kind, said, shop, "metric", "value").value
    if had is not None and abs(had.value - value) < 1e-9:
        return None
    about = proof.what if proof else "asked no more"
    becomes = f"{had.typed} becomes {said}" if had else said
    return Brought(
        number,
        about,
        becomes,
        id,
        kind.name,
        copy,
        said,
        cells.get("tool", "")[:60],
        cells.get("note", "")[:400],
        proof,
    )


@transaction.atomic
def keep(id: UUID, found: Found, maker: Maker) -> int:
    """Take every row in, or none: BadInput where one cannot be taken. What to name to take it back."""
    if found.bad:
        first = found.bad[0]
        do = "Mend or leave out the rows that are named, then take it in."
        got = f"row {first.row}, {first.about}: {first.said}"
        raise BadInput(Fault("table", shorten(got, 120), "rows that can all be taken", do))
    row, shop = get_row(id, maker), the_shop(maker)
    before = []
    for one in found.fresh:
        had = row.readings.filter(proof=one.proof, copy=one.copy).first()
        was = {"typed": had.typed, "tool": had.tool, "note": had.note, "sure": had.sure} if had else None
        taken = Taken(one.typed, "metric", one.tool, one.note, kind=one.kind, copy=one.copy)
        kept = keep_answer(id, one.proof, taken, shop, maker, one.asked)
        before.append(
            {"proof": one.proof, "kind": one.kind, "copy": one.copy, "was": was, "number": kept.number}
        )
    return imports.remember("readings", {"piece": str(id), "before": before}, maker).pk


def _undo(data: dict[str, object], maker: Maker) -> str:
    """Give every answer back that stood before; what was read since is left."""
    id = UUID(str(data["piece"]))
    row, shop = get_row(id, maker), the_shop(maker)
    since = 0
    before = data["before"]
    assert isinstance(before, list)
    for one in before:
        now = row.readings.filter(proof=one["proof"], copy=one["copy"]).first()
        if now is None or now.number != one["number"]:
            since += 1
        elif one["was"] is None:
            withdraw(id, one["proof"], maker, one["copy"])
        else:
            was = Taken(bare="metric", kind=one["kind"], copy=one["copy"], **one["was"])
            keep_answer(id, one["proof"], was, shop, maker, None)
    left = f"; {since} read anew since {'stays' if since == 1 else 'stay'}" if since else ""
    back = so_many(len(before) - since, "reading is as it was", "readings are as they were")
    return f"{back}{left}"


imports.UNDO["readings"] = _undo
