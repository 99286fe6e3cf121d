"""Cards for the tenons of square stock: shoulders back from the sawn ends, mortises taken from them."""

from __future__ import annotations

from collections.abc import Iterator

from splay.parts.stick import StickPart
from splay.piece import ApronedLegs, Piece
from splay.quantity import Show
from splay.setups.card import SetUp
from splay.setups.crosscut import station_of
from splay.setups.plain_card import Bench, plain_card
from splay.setups.scenes import TenonMade
from splay.stance.body import Body
from splay.work.does import Plain
from splay.work.joinery import Shoulders, Transferred
from splay.work.marks import Kind, Mark
from splay.work.phrases import listed
from splay.work.proofs import proof_id

MAKER = Bench("making", "Saw and chisel")
THIRD = 3.0
"""A tenon takes a third of its stuff (common practice, no source)."""
_CARE = "Chisel away from the body and the holding hand; clamp the work for the saw."


def stick_tenon_cards(
    piece: Piece, sticks: tuple[StickPart, ...], bodies: tuple[Body, ...], show: Show
) -> Iterator[SetUp]:
    """One card for each set of parts alike that have tenons."""
    groups: dict[str, list[tuple[StickPart, Body]]] = {}
    for stick, body in zip(sticks, bodies, strict=True):
        if sum(body.tenons) > 0.0:
            groups.setdefault(stick.alike, []).append((stick, body))
    for mates in groups.values():
        yield _card(piece, mates, show)


def _card(piece: Piece, mates: list[tuple[StickPart, Body]], show: Show) -> SetUp:
    stick, body = mates[0]
    support = piece.supports[stick.support]
    assert isinstance(support, ApronedLegs)
    assert stick.shoulders is not None
    long = show.length(body.tenons[0])
    thick = show.length(body.thickness / THIRD)
    named = listed(one.name for one, _ in mates)
    sides = body.sides
    own = (f"{one.frame} face" if one.frame in ("front", "back") else "outer side" for _, one in mates)
    faces = " or ".join(dict.fromkeys(own))
    return plain_card(
        f"shoulders.{stick.key}",
        station_of(stick.role),
        "stick_tenon",
        MAKER,
        f"Tenons on {named}",
        stick.shoulders,
        "Tenons, long",
        TenonMade(thick.text, long.text, sloped=True, stick=stick.role),
        setting=long,
        does=(
            Shoulders(tuple(one.key for one, _ in mates), named, long),
            Plain(
                f"Tenon {thick.text} thick, in the middle of the thickness, its cheeks along the "
                f"{sides.face}; saw the shoulders on the lines."
            ),
            Transferred(
                tuple(one.key for one, _ in mates), sides.face, faces, show.length(support.setback)
            ),
            Plain(
                "Chop each mortise along the apron: a bevel gauge set from the shoulder's line to the "
                "upper edge, its stock on the leg, shows the way in."
            ),
        ),
        caution=_CARE,
        parts=tuple(one.key for one, _ in mates),
        proofs=tuple(proof_id("shoulders", one.key) for one, _ in mates),
        uses=tuple(Mark(Kind.FACES, one.key) for one, _ in mates),
    )  # fmt: skip
