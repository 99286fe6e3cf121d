"""Holes for which no bit lies in the drawer."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from splay.judge.finding import Finding
from splay.piece import Piece, Rope
from splay.quantity import Show
from splay.shop import SAME_BIT_MM, Shop, nearest_bit
from splay.stance.staked import Stance


@dataclass(frozen=True)
class Hole:
    """A hole to bore: what for, its diameter in mm, where it is bored, the field that sets it;
    `most` where anything a little under it does as well (a pilot)."""

    what: str
    diameter: float
    station: str
    field: str
    legs: tuple[int, ...] = ()
    most: bool = False


def holes(piece: Piece, stance: Stance) -> Iterator[Hole]:
    """Every hole the piece asks for, once for each setting."""
    for index, support in piece.staked():
        joint, at = support.joint, f"supports.{index}.joint"
        legs = tuple(leg for leg in stance.legs if leg.support == index)
        numbers = tuple(leg.number for leg in legs)
        bit = joint.bit(max(leg.bore.deep for leg in legs))
        if bit is not None:
            yield Hole(bit.name, bit.size, "boring", f"{at}.{bit.field}", numbers, most=bit.most)
        if joint.pegged is not None:
            yield Hole("the pegs", joint.pegged.diameter, "boring", f"{at}.peg.diameter", numbers)
    for k, member in enumerate(piece.members):
        name = member.name or f"member {k + 1}"
        if isinstance(member, Rope):
            size = member.diameter + member.ease
            yield Hole(f"the holes of the {name}", size, "stretchers", f"members.{k}.diameter")
        else:
            yield Hole(f"the sockets of the {name}", member.tenon, "stretchers", f"members.{k}.tenon")
    for index, joined in piece.joined():
        if joined.dowels.way == "dowel":
            at = f"supports.{index}.dowels.size"
            yield Hole(f"the dowels of the {joined.named}", joined.dowels.size, "stretchers", at)


def missing(piece: Piece, shop: Shop, stance: Stance, show: Show) -> Iterator[Finding]:
    """Holes whose bit is not among those listed; nothing is said where none are listed."""
    if not shop.bits:
        return
    told: set[tuple[str, float]] = set()
    for hole in holes(piece, stance):
        key = (hole.what, round(hole.diameter, 2))
        near = nearest_bit(shop.bits, hole.diameter)
        if near is None or key in told:
            continue
        told.add(key)
        if hole.most:
            under = [b.diameter for b in shop.bits if b.diameter <= hole.diameter + SAME_BIT_MM]
            if under:
                continue
        elif abs(near.diameter - hole.diameter) <= SAME_BIT_MM:
            continue
        size = show.length(hole.diameter)
        yield Finding(
            "no_bit",
            "caution",
            hole.station,
            f"No bit of {size.text} is in the drawer for {hole.what}.",
            f"The nearest there bores {show.length(near.diameter).text}: choose that size, or add the bit "
            "to the shop's list.",
            hole.legs,
            size,
            show.length(near.diameter),
            None,
            hole.field,
        )
