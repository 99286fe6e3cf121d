"""What is done to the upper face of a top, as data: depth holes, runners, a line on its ends."""

from __future__ import annotations

from dataclasses import dataclass

from splay.quantity import Quantity
from splay.work.marks import Mark
from splay.work.seat import Letter, Sightline


@dataclass(frozen=True)
class HoleDeep:
    """A hole so far out from the middle, and how deep it is bored."""

    out: Quantity
    deep: Quantity


@dataclass(frozen=True)
class DepthHoles:
    """Thin holes along a middle line of a face, each to either side of the middle, bored square to the
    face so deep that they tell when the hollow is deep enough; the same beside that line, `beside`
    towards each of two words, where the hollow is the same all along."""

    face: str
    line: str
    bit: Quantity
    holes: tuple[HoleDeep, ...]
    beside: Quantity | None
    towards: tuple[Letter, Letter] | None


@dataclass(frozen=True)
class Runners:
    """Two runners alike on a face, along a middle line, `low` high in their middle, which lies over the
    other one, and `high` where they pass the hollow's rim, `chord` apart; their upper edges hollowed to
    `radius`. A sled lies across both; the router's bit reaches `deep` below the face with the sled in
    the middle."""

    face: str
    line: str
    chord: Quantity
    radius: Quantity
    low: Quantity
    high: Quantity
    deep: Quantity
    at_once: Quantity


@dataclass(frozen=True)
class PegFound:
    """The place of a leg's peg found before the leg goes in: a thin `bit` on from the middle of its
    socket's floor, along the socket, out of the upper face; there the `line`; on it, `away` from where the
    bit came out, against the arrow or along it, the peg's `mark`."""

    leg: int
    bit: Quantity
    line: Sightline
    away: Quantity
    against: bool
    mark: Mark


@dataclass(frozen=True)
class PlanedOff:
    """A face planed down, `off` all over, until so much is `left`; the `other` face is not touched."""

    face: str
    other: str
    off: Quantity
    left: Quantity


@dataclass(frozen=True)
class StripsLaid:
    """Strips side by side as they will be glued, upper faces up: `many`, numbered on their ends from
    `first` to `last`; across all of them a `line`, square, that stands for that middle line of the seat,
    None where nothing is measured from it."""

    first: Letter
    last: Letter
    many: int
    line: str | None


@dataclass(frozen=True)
class StripSide:
    """A long side of a strip: depths from its upper edge at places to either side of the line drawn over
    all strips, the last where they run out; one alone is the depth from end to end; none: it stays
    whole."""

    towards: Letter
    places: tuple[HoleDeep, ...]


@dataclass(frozen=True)
class StripSides:
    """The hollow on both long sides of some strips."""

    strips: tuple[int, ...]
    sides: tuple[StripSide, StripSide]


@dataclass(frozen=True)
class StripEnds:
    """The hollow on both ends of a strip: depths from the upper face at places from the side `towards` a
    word; straight runs between them leave `left` above the arc, at most."""

    strip: int
    towards: Letter
    places: tuple[HoleDeep, ...]
    left: Quantity | None


@dataclass(frozen=True)
class HollowLine:
    """The hollow's line on two ends of the seat: along its template from the rim, `half` from the
    middle line on either side, down to `deep` under it."""

    ends: tuple[Letter, Letter]
    deep: Quantity
    half: Quantity
