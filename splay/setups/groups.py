"""Legs that share a set-up, and how their sightlines lie on the top, in words."""

from __future__ import annotations

from dataclasses import dataclass

from splay.piece import Piece
from splay.quantity import Show
from splay.setups.card import Turn
from splay.stance.lean import LeanAngles
from splay.stance.staked import LegStance, Stance, support_of

_ROUND = 6
_ON_LINE_DEG = 0.05
"""Nearer to a middle line than any scale can show, a sightline is said to lie along it."""


@dataclass(frozen=True)
class Group:
    """Legs bored (or cut) at one setting. `side` is +1 leaning outward, -1 inward, 0 neither."""

    legs: tuple[LegStance, ...]
    side: int

    @property
    def first(self) -> LegStance:
        """The leg whose figures stand for all."""
        return self.legs[0]

    @property
    def numbers(self) -> tuple[int, ...]:
        """The legs' numbers."""
        return tuple(leg.number for leg in self.legs)

    @property
    def ids(self) -> tuple[str, ...]:
        """The legs' ids."""
        return tuple(leg.id for leg in self.legs)

    def named(self) -> str:
        """The legs in words: "leg 2", "legs 1 and 3", "legs 1, 2 and 3"."""
        names = [str(number) for number in self.numbers]
        if len(names) == 1:
            return f"leg {names[0]}"
        return f"legs {', '.join(names[:-1])} and {names[-1]}"


def side_of(leg: LegStance) -> int:
    """Whether a leg leans outward (+1), inward (-1) or neither, seen from the middle."""
    out = leg.d[0] * leg.socket[0] + leg.d[1] * leg.socket[1]
    if leg.boring.bearing is None or abs(out) < 1e-9:
        return 0
    return 1 if out > 0 else -1


def boring_groups(stance: Stance) -> tuple[Group, ...]:
    """Legs of one support with one lean to the top, leaning the same way in or out."""
    return _grouped(stance, lambda leg: (leg.support, round(leg.boring.resultant, _ROUND)))


def foot_groups(stance: Stance, parts_key: dict[int, tuple[float, ...]]) -> tuple[Group, ...]:
    """Legs whose foot cut is the same; `parts_key` holds, by leg, the figures that must agree."""
    return _grouped(stance, lambda leg: (leg.support, *parts_key[leg.number]))


def _grouped(stance: Stance, key: object) -> tuple[Group, ...]:
    assert callable(key)
    found: dict[tuple[object, ...], list[LegStance]] = {}
    for leg in stance.legs:
        found.setdefault((*key(leg), side_of(leg)), []).append(leg)
    return tuple(Group(tuple(legs), side_of(legs[0])) for legs in found.values())


def toward(lean: LeanAngles) -> str:
    """Which way a leg leans, by the words on the seat: the quarter, which folded angles leave open."""
    if lean.bearing is None:
        return "nowhere: it stands square"
    assert lean.from_side is not None and lean.from_centre is not None
    back = "BACK" if 0.0 < lean.bearing < 180.0 else "FRONT"
    side = "RIGHT" if lean.bearing < 90.0 or lean.bearing > 270.0 else "LEFT"
    if lean.from_side < _ON_LINE_DEG:
        return side
    return back if lean.from_centre < _ON_LINE_DEG else f"{back} {side}"


def turn(number: int, lean: LeanAngles, show: Show) -> Turn:
    """How one leg's sightline is marked on the top."""
    if lean.bearing is None or lean.from_side is None or lean.from_centre is None:
        return Turn(number, None, None, toward(lean))
    return Turn(number, show.angle(lean.from_side), show.angle(lean.from_centre), toward(lean))


def bored_from(piece: Piece, group: Group) -> str:
    """The face the boring starts from, "underside" or "upper"."""
    return "upper" if support_of(piece, group.first).joint.face == "upper face" else "underside"
