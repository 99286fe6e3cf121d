"""Sticks that grew or were made bent: their line, what lies off it, how far a tenon runs off the wood."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import dataclass

from splay.parts.leg import LegPart
from splay.parts.reused import Trim
from splay.piece import Bend, Piece, Stick
from splay.quantity import degrees as deg
from splay.stance.members import MemberStance
from splay.stance.staked import LegStance, support_of


@dataclass(frozen=True)
class Bent:
    """One bent stick, sawn to its leg's length: the leg's own line is the string from the middle of one end
    to the middle of the other. `first` and `last` are where those ends lie along it as it was measured,
    `inside` how much of it goes into the top, `deep` how far it is bored or turned about that line; mm."""

    trim: Trim
    bend: Bend
    first: float
    last: float
    inside: float
    deep: float

    @property
    def leg(self) -> LegStance:
        """The leg it becomes."""
        return self.trim.leg

    @property
    def long(self) -> float:
        """From end to end, along its string."""
        return self.last - self.first

    def off(self, down: float) -> float:
        """How far the wood's middle lies off the string, towards its back, so far from the upper end."""
        a, b = (
            _before(self.trim.stick, self.bend, self.first),
            _before(self.trim.stick, self.bend, self.last),
        )
        at = self.first + down
        return _before(self.trim.stick, self.bend, at) - a - (b - a) * down / self.long

    @property
    def most(self) -> tuple[float, float]:
        """Where it stands off the string the most, from the upper end, and how far: where its own line runs
        along the string, on the longer or the shorter side of what was measured."""
        bend, stick = self.bend, self.trim.stick
        a, b = _before(stick, bend, self.first), _before(stick, bend, self.last)
        rise = (b - a) / self.long
        found = []
        for reach in (-bend.at, stick.length - bend.at):
            # Of a parabola that drops by all of it over `reach`: the slope 2 f x / reach² is the string's.
            x = -rise * reach * reach / 2.0 / bend.rise
            if x * reach >= 0.0:
                found.append(min(max(bend.at + x - self.first, 0.0), self.long))
        at = max((*found, min(max(bend.at - self.first, 0.0), self.long)), key=self.off)
        return at, self.off(at)

    @property
    def slope(self) -> float:
        """How far the wood runs off the string at the upper end, degrees."""
        bend, stick = self.bend, self.trim.stick
        reach = bend.at if self.first < bend.at else stick.length - bend.at
        runs = 2.0 * bend.rise * (bend.at - self.first) / reach**2
        a, b = _before(stick, bend, self.first), _before(stick, bend, self.last)
        return deg.atan(runs - (b - a) / self.long)

    @property
    def aside(self) -> float:
        """How far the wood's middle lies off the line within what is turned or bored about it."""
        return max(abs(self.off(self.deep * k / 20.0)) for k in range(21))


def _before(stick: Stick, bend: Bend, at: float) -> float:
    """How far a place lay off the string before anything was sawn off: two parabolas that meet at the back
    of the bend, each down to nothing at its own end."""
    reach = bend.at if at < bend.at else stick.length - bend.at
    return bend.rise * (1.0 - ((at - bend.at) / reach) ** 2)


def bent_sticks(piece: Piece, trims: Iterable[Trim], parts: tuple[LegPart, ...]) -> Iterator[Bent]:
    """Every bent stick that has a leg to become."""
    for trim in trims:
        bend = trim.stick.bend
        if bend is None:
            continue
        part = parts[trim.leg.number - 1]
        joint = support_of(piece, trim.leg).joint
        inside = part.in_top.quantity.value
        deep = joint.in_leg or inside
        last = min(trim.stick.length, trim.top + part.finished.quantity.value)
        yield Bent(trim, bend, trim.top, last, inside, deep)


@dataclass(frozen=True)
class OffLine:
    """A stretcher that comes to a bent leg where it stands off its line, mm."""

    member: int
    leg: int
    off: float


def met_off_line(sticks: Iterable[Bent], runs: Iterable[MemberStance]) -> Iterator[OffLine]:
    """Every stretcher's end that meets a bent leg, with how far the wood is from where it is planned."""
    by_leg = {one.leg.number: one for one in sticks}
    for run in runs:
        for end in run.ends:
            stick = by_leg.get(end.leg)
            if stick is not None:
                yield OffLine(run.number, end.leg, abs(stick.off(stick.inside + end.down)))
