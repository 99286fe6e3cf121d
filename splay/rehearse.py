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
from splay.level.rounds import ends_square, first_ends, level
from splay.level.ways import asks
from splay.parts.member import member_part
from splay.parts.rope import rope_part
from splay.piece import Piece
from splay.plan import Plan, plan
from splay.quantity import Quantity, Show
from splay.reading import Reading
from splay.setups.card import Proof
from splay.setups.scales import proving_scale, stick_scale
from splay.shop import Shop, reading
from splay.stance.members import acute, members
from splay.stance.staked import Stance, stand
from splay.work.proofs import KINDS, proof_id

LEAN_DEG = 0.7
"""One standard deviation of a bored lean by a practised hand (common practice, no source)."""
LENGTH_MM = 1.5
"""Of a leg's length, sawn by hand (common practice, no source)."""
DEPTH_MM = 0.5
MARK_MM = 0.4
ANGLE_DEG = 0.2
_TRUTH = 2
"""Which of all the truths there could be; with this one the demo's pieces tell their story: one angle read
on its wrong side, and no other reading that looks like a slip."""


@dataclass(frozen=True)
class Hidden:
    """What is really there: a seed, and how far the hand wanders (1 for practised)."""

    seed: int
    size: float = 1.0

    def error(self, of: str, sigma: float) -> float:
        """The error of one thing, always the same for the same seed; same unit as sigma."""
        mixed = zlib.crc32(f"{self.seed}.{_TRUTH}.{of}".encode())
        return random.Random(mixed).gauss(0.0, sigma * self.size)


def seed_of(name: str) -> int:
    """A seed from a piece's name, so that its hidden truth stays the same."""
    return zlib.crc32(name.encode())


def really(piece: Piece, hidden: Hidden) -> Stance:
    """Where everything really is: every hole a little off its lean, on its sightline."""
    planned = stand(piece)
    leans = {
        leg.id: max(0.2, leg.boring.resultant + hidden.error(f"bore.{leg.id}", LEAN_DEG))
        for leg in planned.legs
    }
    return stand(piece, leans) if leans else planned


def asked_now(piece: Piece, shop: Shop, known: tuple[Reading, ...], proof: str) -> tuple[Plan, Proof]:
    """A proof as it is asked before it is answered, with the plan that asks it: from the readings the maker
    has so far. BadInput where the piece asks no such proof."""
    believed = plan(piece, shop, tuple(r for r in known if r.proof != proof))
    asked = next((p for p in believed.proofs if p.id == proof), None)
    if asked is None:
        do = "Take one of the readings the piece's stations ask for."
        raise BadInput(Fault("proof", proof[:40], "a proof of this piece", do))
    return believed, asked


def take(piece: Piece, shop: Shop, hidden: Hidden, known: tuple[Reading, ...], proof: str) -> Reading:
    """What an exact gauge reads for one proof: mm, or degrees on the scale that proof is read on.

    `known` are the readings the maker has so far: legs are cut, and feet trimmed, as the plan told
    from those. BadInput where the piece asks no such proof.
    """
    return take_asked(piece, shop, hidden, *asked_now(piece, shop, known, proof))


def take_asked(piece: Piece, shop: Shop, hidden: Hidden, believed: Plan, asked: Proof) -> Reading:
    """The same where plan and proof are at hand."""
    return Reading(asked.id, _exactly(piece, shop, hidden, believed, asked), kind=asked.kind)


def _exactly(piece: Piece, shop: Shop, hidden: Hidden, believed: Plan, asked: Proof) -> float:
    if KINDS[asked.kind].station == "level":
        return _level(piece, hidden, believed, shop, asked)
    real, expected = really(piece, hidden), asked.expected.value
    if asked.kind == "bore":
        leg = next(leg for leg in real.legs if leg.id == asked.of[0])
        return reading(proving_scale(shop)[1], leg.boring.resultant)
    if asked.kind in ("gap", "read", "depth"):
        return _between(piece, shop, hidden, real, asked)
    if KINDS[asked.kind].measures == "angle":
        return expected + hidden.error(asked.id, ANGLE_DEG)
    sigma = {"foot": LENGTH_MM, "long": LENGTH_MM}.get(asked.kind, MARK_MM)
    return expected + hidden.error(asked.id, sigma)


def _between(piece: Piece, shop: Shop, hidden: Hidden, real: Stance, asked: Proof) -> float:
    runs, ropes = members(piece, real)
    show = Show(shop.rounding.units())
    id, *end = asked.of
    rope = next((r for r in ropes if r.id == id), None)
    if rope is not None:
        part = rope_part(piece, rope, show)
        hole = rope.holes[part.through.index(end[0])]
        return reading(stick_scale(shop)[1], 90.0 - acute(hole.opening_on))
    run = next(r for r in runs if r.id == id)
    if asked.kind == "gap":
        return member_part(piece, run, runs, show).gap.quantity.value
    if asked.kind == "read":
        return reading(stick_scale(shop)[1], 90.0 - acute(run.ends[int(end[0]) - 1].opening_on))
    return asked.expected.value + hidden.error(asked.id, DEPTH_MM)


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
        if foot.leg and ends_square(piece, foot, believed.known):
            normal = (-foot.d[0], -foot.d[1], -foot.d[2])
        known = proof_id("foot", foot.key) in believed.known
        off = 0.0 if known else hidden.error(f"foot.{foot.key}", LENGTH_MM)
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


def _level(piece: Piece, hidden: Hidden, believed: Plan, shop: Shop, asked: Proof) -> float:
    """A height, a gap or a shim of the hidden piece as it stands in one pass."""
    at = next(k for k, one in enumerate(piece.levelling.passes) if one.id == asked.of[0])
    ends = ends_now(piece, shop, hidden, believed, at + 1)
    chosen, floor = piece.levelling.passes[at], believed.stance.floor
    ask = next(a for a in asks(piece, ends, chosen) if (a.kind, a.key) == (asked.kind, asked.of[1]))
    return expect(piece, ends, chosen, floor, ask, {}, stand_now(piece, floor, ends))


@dataclass(frozen=True)
class HiddenLean:
    """One leg by name, and how far its hole was bored off its lean, degrees: `more` than that, or less."""

    leg: str
    off: Quantity
    more: bool


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
        wanted=show.length(piece.stands),
        off=tuple(
            HiddenLean(f"leg {b.number}", show.angle(abs(off), 2), off > 0.0)
            for a, b in zip(real.legs, meant.legs, strict=True)
            for off in (a.boring.resultant - b.boring.resultant,)
        ),
    )
