"""Levelling from first to last: each pass begins with the feet as the one before left them."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from splay.errors import CannotBuild
from splay.level.cut import least_plane, loss
from splay.level.feet import End, Foot, feet_of, vec
from splay.level.now import State, expected_of, stand_now
from splay.level.problems import in_line, of_readings, on_tenons
from splay.level.standing import Rocking
from splay.level.told import LevelRound, told
from splay.level.ways import Ask, Measured, asks, measure
from splay.parts import LegPart
from splay.parts.stick import StickPart
from splay.piece import LevelPass, Piece
from splay.quantity import Show, Units
from splay.setups.foot import long_point, sides_halved
from splay.shop import Shop
from splay.stance.floor import Floor
from splay.stance.staked import Stance
from splay.work.phrases import listed
from splay.work.proofs import proof_id

SPREAD_MM = 0.2
"""How well a height is read where the maker's own spread is not known yet (common practice, no source)."""


@dataclass(frozen=True)
class Level:
    """The whole levelling; `states` one a round."""

    rounds: tuple[LevelRound, ...]
    asks: tuple[tuple[Ask, ...], ...]
    expected: tuple[dict[str, float], ...]


def level(
    piece: Piece,
    stance: Stance,
    parts: tuple[LegPart, ...],
    sticks: tuple[StickPart, ...],
    shop: Shop,
    show: Show,
    known: Mapping[str, float],
    spread: float = SPREAD_MM,
    feet: tuple[Foot, ...] | None = None,
) -> tuple[Level, tuple[State, ...]]:
    """Every pass of a piece's levelling, from its readings by proof id; figures and geometry. Its `feet`
    are worked out where they are not given."""
    ends = first_ends(piece, stance, parts, sticks, known, feet)
    if not ends:
        return Level((), (), ()), ()
    begins, unproved = _begins(piece, stance, known)
    rounds, asked, expected, states = [], [], [], []
    for k, chosen in enumerate(piece.levelling.passes):
        number = k + 1
        read = _read(asks(piece, ends, chosen), chosen, known)
        made = _worked(piece, stance.floor, ends, chosen, tuple(sorted(read.items())), spread)
        asked.append(made.asks)
        expected.append(made.expected)
        states.append(made.state)
        problems = [
            *in_line(made.fault, len(made.asks), show),
            *of_readings(made.measured, ends, chosen, made.asks, show, read),
            *on_tenons(piece, ends, chosen, show),
        ]
        rounds.append(
            told(
                piece,
                stance,
                shop,
                show,
                number,
                chosen,
                made.asks,
                read,
                made.state,
                problems,
                begins if number == 1 else "",
                number == 1 and unproved,
            )
        )
        ends = made.left
    return Level(tuple(rounds), tuple(asked), tuple(expected)), tuple(states)


def _read(wanted: tuple[Ask, ...], chosen: LevelPass, known: Mapping[str, float]) -> dict[str, float]:
    """What one pass asks and has an answer to, by kind and key."""
    found = {f"{a.kind}.{a.key}": known.get(proof_id(a.kind, chosen.id, a.key)) for a in wanted}
    return {name: value for name, value in found.items() if value is not None}


@dataclass(frozen=True)
class _Worked:
    """One pass worked out: what it asks and expects, what came of its readings, what is left of the
    feet after its cut; `fault` where its readings fix no plane."""

    asks: tuple[Ask, ...]
    expected: dict[str, float]
    measured: Measured
    state: State
    left: tuple[End, ...]
    fault: CannotBuild | None


@lru_cache(maxsize=64)
def _worked(
    piece: Piece,
    floor: Floor,
    ends: tuple[End, ...],
    chosen: LevelPass,
    readings: tuple[tuple[str, float], ...],
    spread: float,
) -> _Worked:
    """The passes before the one being measured stay as they were: each is worked out once."""
    read, fault = dict(readings), None
    wanted = asks(piece, ends, chosen)
    try:
        measured = measure(piece, ends, chosen, floor, read, spread, piece.levelling.flat)
    except CannotBuild as found:
        measured, fault = Measured(ends), found
    state = _state(piece, floor, ends, measured)
    left = tuple(
        End(e.foot, loss(e, state.plane).length, vec(state.plane.normal), 0.0) for e in measured.ends
    )
    expected = expected_of(piece, ends, chosen, floor, wanted, read)
    return _Worked(wanted, expected, measured, state, left, fault)


def first_ends(
    piece: Piece,
    stance: Stance,
    parts: tuple[LegPart, ...],
    sticks: tuple[StickPart, ...],
    known: Mapping[str, float],
    feet: tuple[Foot, ...] | None = None,
) -> tuple[End, ...]:
    """How every foot ends before the first pass: by its own reading, else as it should be."""
    made = []
    lengths = {part.number: part for part in parts}
    long = {proof_id("long", stick.key): stick.arrises[0].length.quantity.value for stick in sticks}
    for foot in feet_of(piece, stance) if feet is None else feet:
        normal: tuple[float, float, float] = stance.floor.normal
        if foot.leg:
            part = lengths[foot.leg]
            square = ends_square(piece, foot, known)
            inside = part.in_top.quantity.value
            length = part.blank.quantity.value - inside if square else foot.planned
            cut = known.get(proof_id("foot", foot.key))
            if not square and cut is not None:
                point = long_point(piece, stance, stance.legs[foot.leg - 1], part, Show(Units()))
                halved = sides_halved(point, part) - part.finished.quantity.value
                length = cut - inside - halved
            if square:
                normal = (-foot.d[0], -foot.d[1], -foot.d[2])
        else:
            id = proof_id("long", foot.part)
            length = foot.planned + (known[id] - long[id] if id in known and id in long else 0.0)
        made.append(End(foot, length, normal))
    return tuple(made)


def ends_square(piece: Piece, foot: Foot, known: Mapping[str, float]) -> bool:
    """Whether a leg still ends square and over length: not one whose sawn foot was proved at Legs, whatever
    was chosen before it was."""
    return piece.levelling.ends == "square" and proof_id("foot", foot.key) not in known


def _begins(piece: Piece, stance: Stance, known: Mapping[str, float]) -> tuple[str, bool]:
    """How the legs end before the first pass, where their own proofs say so; whether any is left that has
    none."""
    legs = stance.legs
    sawn = [f"leg {leg.number}" for leg in legs if proof_id("foot", leg.id) in known]
    if not sawn:
        return "", bool(legs)
    if len(sawn) == len(legs):
        return "The feet were sawn and proved at Legs: levelling begins with them as they were read.", False
    rest = "the others are square and over length" if piece.levelling.ends == "square" else ""
    said = f"Sawn and proved at Legs: {listed(sawn)}"
    return f"{said}; {rest}." if rest else f"{said}.", True


def _state(piece: Piece, floor: Floor, before: tuple[End, ...], measured: Measured) -> State:
    seat = np.array((0.0, 0.0, piece.top.thickness))
    allowed = piece.levelling.lean_allowed
    plane = least_plane(measured.ends, floor, seat, allowed)
    stands = stand_now(piece, floor, measured.ends)
    if stands and stands.tips and measured.floor is not None:
        # It was measured standing one of its two ways: that is the one to speak of.
        n = measured.floor[0]
        if float(n @ stands.tips.normal) > float(n @ stands.rests.normal):
            stands = Rocking(stands.tips, stands.rests)
    return State(before, measured.ends, plane, stands)
