"""plan(): from what was chosen, whose tools and what was measured, to everything to set and cut."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from splay.judge import Finding, judge
from splay.parts import LegPart, SocketPart, leg_part, socket_part
from splay.piece import Piece
from splay.quantity import Quantity, Show
from splay.reading import Reading, answers, bored
from splay.setups.boring import boring_cards
from splay.setups.card import Proof, SetUp
from splay.setups.foot import foot_cards
from splay.setups.proofs import all_proofs
from splay.shop import Shop
from splay.stance.staked import Stance, stand
from splay.summary import LegFigures, Size, chosen, leg_figures, sizes


@dataclass(frozen=True)
class Plan:
    """Everything worked out for one piece.

    `chosen` holds each typed value of the piece by its path, as the maker reads it; `legs` the
    leans; `sizes` what the whole comes to; `stance` the bare geometry for drawings;
    `parts` and `sockets` one entry a leg, in order.
    """

    chosen: dict[str, Quantity]
    sizes: tuple[Size, ...]
    legs: tuple[LegFigures, ...]
    parts: tuple[LegPart, ...]
    sockets: tuple[SocketPart, ...]
    setups: tuple[SetUp, ...]
    proofs: tuple[Proof, ...]
    findings: tuple[Finding, ...]
    stations: tuple[Station, ...]
    stance: Stance


@dataclass(frozen=True)
class Station:
    """A notch of the story stick: how many proofs it asks for and how many are answered."""

    name: str
    title: str
    proofs: int
    answered: int
    off: int


def plan(piece: Piece, shop: Shop, readings: Iterable[Reading] = ()) -> Plan:
    """The plan of a piece in a shop, given the readings taken so far.

    Settings and expected values come from the stance as planned; lengths and feet from the
    holes as they were read. The same input gives the same plan. BadInput names a reading that
    answers no proof; CannotBuild a choice that cannot stand.
    """
    show = Show(shop.rounding.units())
    planned = stand(piece)
    known = answers(tuple(readings), planned)
    real = stand(piece, bored(known, shop))
    parts = tuple(leg_part(piece, leg, real.floor, show) for leg in real.legs)
    sockets = tuple(socket_part(piece, leg, shop.bit, show) for leg in real.legs)
    setups = (
        *boring_cards(piece, planned, shop, show),
        *foot_cards(piece, real, parts, shop, show),
    )
    proofs = all_proofs(planned, real, parts, shop, show, known)
    return Plan(
        chosen=chosen(piece, show),
        sizes=sizes(piece, real, show),
        legs=tuple(leg_figures(leg, show) for leg in real.legs),
        parts=parts,
        sockets=sockets,
        setups=setups,
        proofs=proofs,
        findings=judge(piece, real, sockets, setups, show),
        stations=_stations(proofs),
        stance=real,
    )


def _stations(proofs: tuple[Proof, ...]) -> tuple[Station, ...]:
    made = [Station("stance", "Stance", 0, 0, 0)]
    for name, title, prefix in (("boring", "Boring", "bore."), ("legs", "Legs", "foot.")):
        mine = [proof for proof in proofs if proof.id.startswith(prefix)]
        answered = sum(proof.answer is not None for proof in mine)
        off = sum(proof.verdict == "off" for proof in mine)
        made.append(Station(name, title, len(mine), answered, off))
    return tuple(made)
