"""Figures of a rope through legs: its holes, how far down they are, and the rope itself."""

from __future__ import annotations

from dataclasses import dataclass
from itertools import pairwise

from splay.parts.member import MIDDLE_MM, NO_HOOKS, Hooks, acute_side, mark, round_, turn
from splay.piece import Piece, Rope
from splay.quantity import Figure, Show
from splay.stance.members import EndStance, RopeStance
from splay.stance.vectors import between, length


@dataclass(frozen=True)
class RopeHole:
    """One hole for a rope: its angle to the leg, its turn round it; `acute_side`, `mark`, `round_` and
    `opening_on` as of a stretcher's end, `radius` half the leg there, mm."""

    leg: int
    read: Figure
    turn: Figure
    acute_side: str
    radius: float
    mark: Figure
    round_: Figure
    clockwise: bool
    face: str
    aside_to: str
    opening_on: float
    hook: str


@dataclass(frozen=True)
class RopePart:
    """A rope's figures: the holes, how far down each leg, and the rope itself; `through` names each hole
    for good, by its leg."""

    id: str
    number: int
    name: str
    hole: Figure
    downs: tuple[Figure, ...]
    holes: tuple[RopeHole, ...]
    loop: Figure
    through: tuple[str, ...]


def _rope_hole(key: str, end: EndStance, show: Show, hooks: Hooks) -> RopeHole:
    return RopeHole(
        leg=end.leg,
        read=show.figure(
            f"{key}.read",
            f"Hole in leg {end.leg}, acute angle to it",
            end.acute,
            "halfway between where the rope comes from and where it goes to",
            show.input("α", "acute angle between hole and leg", end.acute, "deg"),
            unit="deg",
            note="held along the leg, in the plane of the hole and the leg",
        ),
        turn=turn(key, end, show),
        acute_side=acute_side(end),
        radius=end.radius,
        mark=mark(key, end, hooks, show),
        round_=round_(key, end, show),
        clockwise=end.turn >= 0.0,
        face=end.face,
        aside_to=end.aside_to if end.aside > MIDDLE_MM else "",
        opening_on=end.opening_on,
        hook=hooks.names.get(end.leg, "tenon end") if end.leg else "first end",
    )


def _through(rope: Rope) -> tuple[str, ...]:
    """Each hole's leg by its id; a leg it runs through again has its later holes counted."""
    made: list[str] = []
    for k, id in enumerate(rope.legs):
        again = rope.legs[:k].count(id)
        made.append(f"{id}.{again + 1}" if again else id)
    return tuple(made)


def rope_part(piece: Piece, rope: RopeStance, show: Show, hooks: Hooks = NO_HOOKS) -> RopePart:
    """The figures of one rope: hole, places, length with its knot."""
    chosen = piece.members[rope.number - 1]
    assert isinstance(chosen, Rope)
    key = f"member.{rope.number}"
    ring = [*rope.points, rope.points[0]] if chosen.closed else list(rope.points)
    run = sum(length(between(p, q)) for p, q in pairwise(ring))
    return RopePart(
        id=rope.id,
        number=rope.number,
        through=_through(chosen),
        name=chosen.name or f"rope {rope.number}",
        hole=show.figure(
            f"{key}.hole",
            "Holes for the rope",
            chosen.diameter + chosen.ease,
            "rope + ease",
            show.input("d", "rope", chosen.diameter),
            show.input("e", "ease", chosen.ease),
        ),
        downs=tuple(
            show.figure(
                f"{key}.down.{leg}",
                f"Hole in leg {leg}, down from the underside",
                down,
                "along the axis",
                show.input("q", "along the axis", down),
            )
            for leg, down in zip(rope.legs, rope.downs, strict=True)
        ),
        holes=tuple(_rope_hole(f"{key}.{k + 1}", end, show, hooks) for k, end in enumerate(rope.holes)),
        loop=show.figure(
            f"{key}.loop",
            "Rope to cut",
            run + chosen.knot,
            "r + k",
            show.input("r", "hole to hole, all round" if chosen.closed else "hole to hole", run),
            show.input("k", "for the knot", chosen.knot),
            note="drawn hand-tight; a new rope gives",
        ),
    )
