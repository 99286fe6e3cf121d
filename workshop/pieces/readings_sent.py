"""Readings as a request brings them."""

from dataclasses import replace
from typing import Annotated

from pydantic import Field

from splay.piece import Piece
from splay.quantity import Bare
from splay.reading import Reading, kind_named, read_reading
from splay.shop import Shop
from workshop.pieces.planned import planned
from workshop.sent import Sent


class ReadingIn(Sent):
    """The answer to a proof: a number in mm or degrees, or the text as typed. Without its `kind` it must be
    a proof the piece asks."""

    proof: Annotated[str, Field(max_length=80)]
    kind: Annotated[str, Field(max_length=20)] = ""
    value: float | str
    sure: bool = False


def read_readings(given: list[ReadingIn], piece: Piece, shop: Shop, bare: Bare) -> tuple[Reading, ...]:
    """Readings as typed or as numbers; BadInput names the one that cannot be read."""
    kinds: dict[str, str] = {}
    if any(not item.kind for item in given):
        kinds = {proof.id: proof.kind for proof in planned(piece, shop).proofs}
    made = []
    for index, item in enumerate(given):
        field = f"readings.{index}.value"
        kind = kind_named(item.kind or kinds.get(item.proof, ""), field)
        one = read_reading(item.proof, kind, item.value, shop, bare, field)
        made.append(replace(one, sure=item.sure))
    return tuple(made)
