"""Legs that are made alike: what one card, and one proof, stands for."""

from __future__ import annotations

from dataclasses import dataclass

from splay.parts.leg import LegPart
from splay.piece import Piece, StakedLegs
from splay.stance.staked import LegStance, Stance, support_of
from splay.work.phrases import listed


@dataclass(frozen=True)
class LegSet:
    """Legs of one support that are made alike: as long, as thick, at one lean to the seat."""

    index: int
    support: StakedLegs
    legs: tuple[LegStance, ...]
    part: LegPart
    first: bool

    @property
    def key(self) -> str:
        """What its cards' ids begin with."""
        return f"shape.{self.support.id}.{self.legs[0].id}"

    @property
    def numbers(self) -> tuple[int, ...]:
        """The legs' numbers."""
        return tuple(leg.number for leg in self.legs)

    @property
    def named(self) -> str:
        """The legs in words."""
        return listed(f"leg {number}" for number in self.numbers)

    @property
    def proof(self) -> tuple[str, ...]:
        """What its proofs are taken on: its support, and the leg that stands for all where a support has
        more than one such set."""
        return (self.support.id,) if self.first else (self.support.id, self.legs[0].id)


def leg_sets(piece: Piece, stance: Stance, parts: tuple[LegPart, ...]) -> tuple[LegSet, ...]:
    """Legs made alike, support by support."""
    by_number = {part.number: part for part in parts}
    found: dict[tuple[object, ...], list[LegStance]] = {}
    for leg in stance.legs:
        part = by_number[leg.number]
        key = (
            leg.support,
            round(leg.exposed, 3),
            round(part.in_top.quantity.value, 3),
            round(leg.boring.resultant, 4),
        )
        found.setdefault(key, []).append(leg)
    made: list[LegSet] = []
    for legs in found.values():
        support = support_of(piece, legs[0])
        first = all(one.index != legs[0].support for one in made)
        made.append(LegSet(legs[0].support, support, tuple(legs), by_number[legs[0].number], first))
    return tuple(made)
