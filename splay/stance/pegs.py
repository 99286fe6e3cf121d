"""Pegs through blind tenons: where each enters and which way, so that it meets the tenon's middle."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass

from splay.piece import Battened, Blind, Peg, Piece
from splay.quantity import degrees as deg
from splay.stance.battens import on_batten
from splay.stance.body import Body
from splay.stance.hollow import thickness_at, way_out
from splay.stance.staked import LegStance, Stance, support_of
from splay.stance.vectors import Flat, Vec, dot, word

THIN_MM = 2.0
"""The bit that finds a peg's place: what it leaves goes under the peg (common practice, no source)."""


@dataclass(frozen=True)
class FromAbove:
    """A peg down from the upper face. `at` is where its middle enters, `into` its way in (top frame, mm,
    unit); `arrow` the way the leg leans along the face, which the peg's lower end runs towards; `out` how
    far it is along the leg's middle line from the underside to the upper face, mm."""

    leg: LegStance
    peg: Peg
    at: Vec
    into: Vec
    arrow: Flat
    thickness: float
    out: float

    @property
    def through(self) -> Flat:
        """Where the socket's middle line comes out of the upper face, top frame, mm."""
        run = self.out
        return self.leg.socket[0] - self.leg.d[0] * run, self.leg.socket[1] - self.leg.d[1] * run

    @property
    def on(self) -> float:
        """From there on to where the peg enters, along the arrow, level, mm; against it below nought."""
        x, y = self.through
        return (self.at[0] - x) * self.arrow[0] + (self.at[1] - y) * self.arrow[1]

    @property
    def longest(self) -> float:
        """How long it may be before it breaks out below, mm."""
        return longest_from_above(self.peg, self.thickness)

    @property
    def crosses(self) -> float:
        """How high above the underside it meets the tenon's middle, mm; nought where it runs along it."""
        lean = deg.tan(self.leg.boring.resultant)
        apart = deg.tan(self.peg.angle) - lean
        if abs(apart) < 1e-9:
            return 0.0
        return (self.thickness * deg.tan(self.peg.angle) - self.peg.entry) / apart


@dataclass(frozen=True)
class FromSide:
    """A peg across a batten, square to its length, from its edge that faces away from the middle.

    `edge` is that edge and `end` the end it is measured from, by the words on the seat; `run` the
    distance along from there to where the peg enters, `below` that place's depth below the seat, mm.
    """

    leg: LegStance
    peg: Peg
    batten: Body
    edge: str
    end: str
    run: float
    below: float
    at: Vec
    into: Vec


def holes_along(batten: Body, stance: Stance) -> list[tuple[float, float]]:
    """Where each leg's hole begins and ends along a batten, from its first end, mm, however it leans."""
    low, _ = batten.at(0.0, 0.0)
    w = batten.pose.along
    made = []
    for leg in stance.legs:
        if leg.support != batten.support or not on_batten(batten, leg.socket):
            continue
        off = (leg.socket[0] - batten.pose.origin[0], leg.socket[1] - batten.pose.origin[1], 0.0)
        at = dot(off, w) - low
        # From the lower face up the hole leans against the leg's own lean.
        deep = at - dot(leg.d, w) * leg.bore.deep
        half = leg.bore.size / 2.0 / deg.cos(leg.boring.resultant)
        made.append((min(at, deep) - half, max(at, deep) + half))
    return made


def longest_from_above(peg: Peg, thickness: float) -> float:
    """Longest peg that stays inside, mm: its lower rim at least the margin above the underside."""
    c, s = deg.cos(peg.angle), deg.sin(peg.angle)
    return (thickness - peg.margin - peg.diameter / 2.0 * s) / c


def longest_from_side(peg: Peg, joint: Battened) -> float:
    """Longest peg that stays inside its batten, mm: short of the far edge and of the lower face."""
    c, s, half = deg.cos(peg.angle), deg.sin(peg.angle), peg.diameter / 2.0
    far = (joint.batten_width - peg.margin - half * s) / c
    if s < 1e-9:
        return far
    return min(far, (joint.batten_thickness - peg.margin - peg.entry - half * c) / s)


def pegs_from_above(piece: Piece, stance: Stance) -> Iterator[FromAbove]:
    """Every peg from above, leg by leg."""
    for leg in stance.legs:
        joint = support_of(piece, leg).joint
        if isinstance(joint, Blind) and joint.peg is not None:
            yield peg_from_above(piece, leg, joint.peg)


def peg_from_above(piece: Piece, leg: LegStance, peg: Peg) -> FromAbove:
    """One peg from above: it enters off the leg's centre, against the arrow, and goes down along it."""
    arrow = _arrow(leg)
    x, y = leg.socket[0] - peg.entry * arrow[0], leg.socket[1] - peg.entry * arrow[1]
    c, s = deg.cos(peg.angle), deg.sin(peg.angle)
    thick = thickness_at(piece.top, (x, y))
    into: Vec = (arrow[0] * s, arrow[1] * s, -c)
    return FromAbove(leg, peg, (x, y, thick), into, arrow, thick, way_out(piece.top, leg.socket[:2], leg.d))


def _arrow(leg: LegStance) -> Flat:
    """The way a leg leans along the face; outward from the middle for one that does not lean."""
    x, y = leg.d[:2]
    if math.hypot(x, y) < 1e-9:
        x, y = leg.socket[:2]
    size = math.hypot(x, y)
    return (x / size, y / size) if size > 1e-9 else (1.0, 0.0)


def pegs_from_side(piece: Piece, stance: Stance) -> Iterator[FromSide]:
    """Every peg through a batten, leg by leg."""
    for leg in stance.legs:
        joint = support_of(piece, leg).joint
        if isinstance(joint, Battened) and joint.peg is not None:
            yield _from_side(leg, joint, joint.peg, batten_of(stance, leg))


def batten_of(stance: Stance, leg: LegStance) -> Body:
    """The batten a leg stands in: the one whose middle line goes through its centre."""
    for body in stance.bodies:
        if body.role == "batten" and body.support == leg.support and on_batten(body, leg.socket):
            return body
    raise AssertionError("every battened leg stands in a batten")


def _from_side(leg: LegStance, joint: Battened, peg: Peg, batten: Body) -> FromSide:
    where = batten.pose
    out = where.across if dot(where.across, where.origin) >= 0.0 else _back(where.across)
    edge = batten.sides.edge if out == where.across else batten.sides.other_edge
    # Going up from the lower face the tenon's middle shifts against its lean.
    fall = -leg.d[2]
    across, along = dot(leg.d, out) / fall, dot(leg.d, where.along) / fall
    width, deep, slope = joint.batten_width, joint.batten_thickness, deg.tan(peg.angle)
    # From the edge in: s (1 + across tan e) = b/2 + across (T − z); the depth there, and the shift.
    s = (width / 2.0 + across * (deep - peg.entry)) / (1.0 + across * slope)
    shift = along * (deep - peg.entry - s * slope)
    centre = dot((leg.socket[0], leg.socket[1], 0.0), where.along)
    place = centre - shift
    low, high = batten.at(0.0, 0.0)
    middle = dot(where.origin, where.along)
    low, high = low + middle, high + middle
    first = place - low <= high - place
    run = place - low if first else high - place
    end = word(_back(where.along) if first else where.along)
    over: Flat = (where.origin[0] - where.along[0] * middle, where.origin[1] - where.along[1] * middle)
    at: Vec = (
        over[0] + where.along[0] * place + out[0] * width / 2.0,
        over[1] + where.along[1] * place + out[1] * width / 2.0,
        -peg.entry,
    )
    c, n = deg.cos(peg.angle), deg.sin(peg.angle)
    into: Vec = (-out[0] * c, -out[1] * c, -n)
    return FromSide(leg, peg, batten, edge, f"{end} end", run, peg.entry, at, into)


def _back(v: Vec) -> Vec:
    return (-v[0], -v[1], -v[2])
