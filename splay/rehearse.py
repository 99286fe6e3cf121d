"""A piece as it might really be: hidden errors of a maker's hand, and what a gauge would read of it.

For rehearsing without wood, for the simulated instruments, and for judging the plan: whatever is
measured here is worked out from the hidden piece alone, never from what the plan believes.
"""

from __future__ import annotations

import random
import zlib
from dataclasses import dataclass

import numpy as np

from splay.errors import BadInput, Fault
from splay.level.cut import loss
from splay.level.feet import End, feet_of
from splay.level.now import State, expect, falls, stand_now
from splay.level.rounds import first_ends, level
from splay.level.ways import asks
from splay.parts.member import member_part
from splay.piece import Piece, Stretcher
from splay.plan import Plan, plan
from splay.quantity import Quantity, Show
from splay.reading import Reading
from splay.setups.scales import proving_scale, stick_scale
from splay.shop import Shop, reading
from splay.stance.members import acute, members
from splay.stance.staked import Stance, stand

LEAN_DEG = 0.7
"""One standard deviation of a bored lean by a practised hand (common practice, no source)."""
LENGTH_MM = 1.5
"""Of a leg's length, sawn by hand (common practice, no source)."""
DEPTH_MM = 0.5
MARK_MM = 0.4
_ASKED = "Take one that is asked for."
ANGLE_DEG = 0.2


@dataclass(frozen=True)
class Hidden:
    """What is really there: a seed, and how far the hand wanders (1 for practised)."""

    seed: int
    size: float = 1.0

    def error(self, of: str, sigma: float) -> float:
        """The error of one thing, always the same for the same seed; same unit as sigma."""
        mixed = zlib.crc32(f"{self.seed}.{of}".encode())
        return random.Random(mixed).gauss(0.0, sigma * self.size)


def seed_of(name: str) -> int:
    """A seed from a piece's name, so that its hidden truth stays the same."""
    return zlib.crc32(name.encode())


def really(piece: Piece, hidden: Hidden) -> Stance:
    """Where everything really is: every hole a little off its lean, on its sightline."""
    planned = stand(piece)
    leans = {
        leg.number: max(0.2, leg.boring.resultant + hidden.error(f"bore.{leg.number}", LEAN_DEG))
        for leg in planned.legs
    }
    return stand(piece, leans) if leans else planned


def take(piece: Piece, shop: Shop, hidden: Hidden, known: tuple[Reading, ...], proof: str) -> float:
    """What an exact gauge reads for one proof: mm, or degrees on the scale that proof is read on.

    `known` are the readings the maker has so far: legs are cut, and feet trimmed, as the plan told
    from those. BadInput where the piece asks no such proof.
    """
    believed = plan(piece, shop, tuple(r for r in known if r.proof != proof))
    kind, _, rest = proof.partition(".")
    if kind == "level":
        return _level(piece, shop, hidden, believed, rest)
    real = really(piece, hidden)
    expected = next((p.expected.value for p in believed.proofs if p.id == proof), None)
    if expected is None:
        do = "Take one of the readings the piece's stations ask for."
        raise BadInput(Fault("proof", proof[:40], "a proof of this piece", do))
    if kind == "bore":
        return reading(proving_scale(shop)[1], real.legs[int(rest) - 1].boring.resultant)
    if kind in ("gap", "read", "depth"):
        return _between(piece, shop, hidden, real, kind, rest, expected)
    if kind in ("cut", "rip", "topcut"):
        return expected + hidden.error(proof, ANGLE_DEG)
    sigma = {"foot": LENGTH_MM, "long": LENGTH_MM}.get(kind, MARK_MM)
    return expected + hidden.error(proof, sigma)


def _between(
    piece: Piece, shop: Shop, hidden: Hidden, real: Stance, kind: str, rest: str, expected: float
) -> float:
    runs, ropes = members(piece, real)
    show = Show(shop.rounding.units())
    number, _, end = rest.partition(".")
    rope = next((r for r in ropes if r.number == int(number)), None)
    if rope is not None:
        return reading(stick_scale(shop)[1], 90.0 - acute(rope.holes[int(end) - 1].opening_on))
    run = next(r for r in runs if r.number == int(number))
    part = member_part(piece, run, runs, show)
    if kind == "gap":
        return part.gap.quantity.value
    if kind == "read":
        return reading(stick_scale(shop)[1], 90.0 - acute(run.ends[int(end) - 1].opening_on))
    assert isinstance(piece.members[run.number - 1], Stretcher)
    return expected + hidden.error(f"depth.{rest}", DEPTH_MM)


def ends_now(piece: Piece, shop: Shop, hidden: Hidden, believed: Plan, upto: int) -> tuple[End, ...]:
    """How the hidden piece's feet end before a pass: over length by the hand's errors, then cut as
    each earlier pass told."""
    real = really(piece, hidden)
    show = Show(shop.rounding.units())
    first = first_ends(piece, believed.stance, believed.parts, believed.sticks, believed.known)
    feet = feet_of(piece, real)
    made = []
    for foot, end in zip(feet, first, strict=True):
        normal = end.normal
        if foot.leg and piece.levelling.ends == "square":
            normal = (-foot.d[0], -foot.d[1], -foot.d[2])
        known = f"foot.{foot.leg}" in believed.known and piece.levelling.ends == "sawn"
        off = 0.0 if known else hidden.error(f"foot.{foot.leg or foot.key}", LENGTH_MM)
        made.append(End(foot, end.length + off, normal))
    _, states = level(piece, believed.stance, believed.parts, believed.sticks, shop, show, believed.known)
    for state in states[: upto - 1]:
        made = [_trimmed(end, told, state) for end, told in zip(made, state.ends, strict=True)]
    return tuple(made)


def _trimmed(end: End, told: End, state: State) -> End:
    """Cut along the line that was told: so much off its middle, parallel to the new floor."""
    lost = max(0.0, loss(told, state.plane).axis)
    n = state.plane.normal
    return End(end.foot, end.length - lost, (float(n[0]), float(n[1]), float(n[2])))


def _level(piece: Piece, shop: Shop, hidden: Hidden, believed: Plan, rest: str) -> float:
    """A height, a gap or a shim of the hidden piece as it stands in one pass."""
    number, _, key = rest.partition(".")
    count = len(piece.levelling.passes)
    at = int(number) if number.isdigit() and 1 <= int(number) <= count else 0
    if not at:
        raise BadInput(
            Fault("proof", rest[:40], f"a pass from 1 to {count}", "Take one that is asked for.")
        )
    ends = ends_now(piece, shop, hidden, believed, at)
    chosen, floor = piece.levelling.passes[at - 1], believed.stance.floor
    ask = next((a for a in asks(piece, ends, chosen) if f"{a.kind}.{a.key}" == key), None)
    if ask is None:
        raise BadInput(Fault("proof", rest[:40], "a reading of this pass", _ASKED))
    return expect(piece, ends, chosen, floor, ask, {}, stand_now(piece, floor, ends))


@dataclass(frozen=True)
class HiddenLean:
    """One leg by name, and how far its hole was bored off its lean, degrees."""

    leg: str
    off: Quantity


@dataclass(frozen=True)
class Revealed:
    """How the hidden piece really stands now: rock and height in mm, lean off its own in degrees."""

    rock: Quantity
    falls_right: Quantity
    falls_back: Quantity
    height: Quantity
    wanted: Quantity
    off: tuple[HiddenLean, ...]


def reveal(piece: Piece, shop: Shop, hidden: Hidden, known: tuple[Reading, ...]) -> Revealed:
    """The truth after every pass but the last has been cut; `off` is how far each bored lean was out."""
    believed = plan(piece, shop, known)
    show = Show(shop.rounding.units())
    ends = ends_now(piece, shop, hidden, believed, len(piece.levelling.passes))
    floor = believed.stance.floor
    stands = stand_now(piece, floor, ends)
    real, meant = really(piece, hidden), stand(piece)
    normal = stands.rests.normal if stands else np.array(floor.normal)
    offset = stands.rests.offset if stands else floor.h0_mm
    right, back = falls(normal, floor)
    seat = float(normal[2]) * piece.top.thickness + offset
    return Revealed(
        rock=show.fine(stands.rock if stands else 0.0),
        falls_right=show.angle(right, 2),
        falls_back=show.angle(back, 2),
        height=show.fine(seat),
        wanted=show.length(piece.height),
        off=tuple(
            HiddenLean(f"leg {b.number}", show.angle(a.boring.resultant - b.boring.resultant, 2))
            for a, b in zip(real.legs, meant.legs, strict=True)
        ),
    )
