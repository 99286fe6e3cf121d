"""How a piece stands as its feet end now, and what would be read of it so."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np

from splay.level.cut import CutPlane
from splay.level.feet import Array, End
from splay.level.standing import TOUCHES_MM, Rocking, rocking
from splay.level.ways import Ask, expected_stand, on_face, teller
from splay.piece import LevelPass, Piece
from splay.stance.floor import Floor

_TRIES = 8


@dataclass(frozen=True)
class State:
    """The geometry of one pass, for drawings and the next pass."""

    before: tuple[End, ...]
    ends: tuple[End, ...]
    plane: CutPlane
    stands: Rocking | None


def stand_now(piece: Piece, floor: Floor, ends: tuple[End, ...]) -> Rocking | None:
    """How it stands on a flat floor as its feet end, its weight over the middle of the top.

    Which corner of an end touches depends on how the piece leans, and that on which touch: those that
    come lowest under the floors found are tried next, until none is left under them.
    """
    n = np.array(floor.normal)
    middle = np.array((0.0, 0.0, piece.top.thickness / 2))
    first = [int(np.argmin(end.ring @ n)) for end in ends]
    touching = [[at] for at in first]
    found = None
    for turn in range(_TRIES):
        points = np.array([end.ring[j] for end, at in zip(ends, touching, strict=True) for j in at])
        owner = [k for k, at in enumerate(touching) for _ in at]
        found = rocking(points, owner, middle, n)
        if found is None:
            return None
        # Going round in a circle ends once all that ever touched are kept.
        wanted = [
            [at] if turn < _TRIES // 2 else list(known) for at, known in zip(first, touching, strict=True)
        ]
        fresh = False
        for one in (found.rests, found.tips):
            if one is None:
                continue
            for k, end in enumerate(ends):
                high = end.ring @ one.normal + one.offset
                low = int(np.argmin(high))
                fresh |= low not in touching[k] and float(high[low]) < -TOUCHES_MM
                if low not in wanted[k]:
                    wanted[k].append(low)
        if not fresh:
            break
        touching = wanted
    return found


def falls(normal: Array, floor: Floor) -> tuple[float, float]:
    """How far the top falls to the right and to the back over what was chosen, degrees."""
    n, w = normal, floor.normal
    right = math.degrees(math.atan2(n[0], n[2]) - math.atan2(w[0], w[2]))
    back = math.degrees(math.atan2(n[1], n[2]) - math.atan2(w[1], w[2]))
    return -right, -back


def expected_of(
    piece: Piece,
    ends: tuple[End, ...],
    chosen: LevelPass,
    floor: Floor,
    wanted: tuple[Ask, ...],
    read: dict[str, float],
) -> dict[str, float]:
    """What each ask would read if every foot ended as it is thought to."""
    # Only what is read as it stands asks how it would stand.
    stands = stand_now(piece, floor, ends) if chosen.way == "standing" else None
    return {
        f"{ask.kind}.{ask.key}": expect(piece, ends, chosen, floor, ask, read, stands) for ask in wanted
    }


def expect(
    piece: Piece,
    ends: tuple[End, ...],
    chosen: LevelPass,
    floor: Floor,
    ask: Ask,
    read: dict[str, float],
    stands: Rocking | None,
) -> float:
    """One reading of a piece whose feet end as `ends` say, mm."""
    if ask.kind == "stands":
        return expected_stand(piece, ends, floor)
    if ask.kind in ("top", "under"):
        if stands is None:
            n, c = np.array(floor.normal), floor.h0_mm
        else:
            n, c = stands.rests.normal, stands.rests.offset
        if ask.kind == "top":
            assert ask.place is not None
            return float(n @ np.array(on_face(piece, ask.place)) + c)
        return max(0.0, float((ends[ask.foot].ring @ n).min()) + c)
    value = teller(piece, ends, chosen, floor, ask, read)(ends[ask.foot])
    return max(0.0, value) if ask.kind == "shim" else value
