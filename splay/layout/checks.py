"""Cross-checks of the marking-out: from mark to mark, and from each mark to the edge."""

from __future__ import annotations

import math
from dataclasses import dataclass
from itertools import combinations
from typing import Annotated

from splay.layout.placing import at_face, marked_face
from splay.piece import Piece
from splay.quantity import Figure, Show
from splay.stance.outline import edge_distance
from splay.stance.staked import Stance
from splay.work import marks as work
from splay.work.proofs import proof_id

MOST_CHECKS = 12


@dataclass(frozen=True)
class Check:
    """One cross-check: the distance between two marks, or a mark and the edge, its proof's id, and what
    that is taken on."""

    id: str
    of: tuple[str, ...]
    legs: tuple[int, ...]
    figure: Figure
    one: Annotated[work.Mark, work.UNSENT]
    two: Annotated[work.Mark | None, work.UNSENT] = None


def checks_of(piece: Piece, stance: Stance, show: Show) -> tuple[Check, ...]:
    """Leg to leg, diagonals, and each leg to the edge where the edge is not bark, on the face marked."""
    made = []
    faces = {k: marked_face(s) for k, s in piece.staked()}
    at = {leg.number: at_face(piece, leg, faces[leg.support]) for leg in stance.legs}
    for one, two in combinations(stance.legs, 2):
        if faces[one.support] != faces[two.support]:
            continue
        apart = math.dist(at[one.number], at[two.number])
        # Whichever is numbered first: the same two legs are the same proof.
        low, high = sorted((one.id, two.id))
        pair = (low, high)
        made.append(
            Check(
                proof_id("mark", *pair),
                pair,
                (one.number, two.number),
                show.figure(
                    f"check.{one.number}.{two.number}",
                    f"Leg {one.number} to leg {two.number}",
                    apart,
                    "centre to centre",
                    show.input("c", "between the marks", apart),
                ),
                work.centre(one.number, faces[one.support]),
                work.centre(two.number, faces[two.support]),
            )
        )
    made = made[:MOST_CHECKS]
    if piece.top.bark:
        return tuple(made)
    for leg in stance.legs[:MOST_CHECKS]:
        edge = edge_distance(piece.top.outline, at[leg.number])
        made.append(
            Check(
                proof_id("mark", leg.id, "edge"),
                (leg.id, "edge"),
                (leg.number,),
                show.figure(
                    f"check.{leg.number}.edge",
                    f"Leg {leg.number} to the nearest edge",
                    edge,
                    "least distance to the outline",
                    show.input("e", "to the edge", edge),
                ),
                work.centre(leg.number, faces[leg.support]),
            )
        )
    return tuple(made)
