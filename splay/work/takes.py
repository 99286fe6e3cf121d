"""How a reading is taken, as data: which instrument, from where to where, along what, on which face."""

from __future__ import annotations

from dataclasses import dataclass

from splay.work.lays import Toward
from splay.work.marks import Mark


@dataclass(frozen=True)
class Apart:
    """A rule from one pricked mark to another, or to the nearest edge where there is no other."""

    one: Mark
    two: Mark | None


@dataclass(frozen=True)
class RodInHole:
    """A straight rod in a hole, a gauge on its sightline against rod and face; `leans` is what the rod
    leans to there."""

    hole: Mark
    face: str
    leans: Toward | None


@dataclass(frozen=True)
class BothSides:
    """From an end along two sides of a stick to where each of them ends; the two added and halved.

    Without a side the end is square: one length.
    """

    part: str
    end: str
    long: str
    short: str


@dataclass(frozen=True)
class SawnLine:
    """A bevel gauge on one side of a stick: stock along its long corner, blade along the sawn line.

    Where the edges are the tree's own the stock lies on `face` along its middle line; `over` says that the
    blade then stands down the sawn end, in place of a line on an edge.
    """

    part: str
    end: str
    side: str
    face: str
    over: bool


@dataclass(frozen=True)
class Corner:
    """A rule along a long corner of a stick, from one sawn end to the other, or between its shoulders;
    without an edge along the middle line of that face."""

    part: str
    face: str
    edge: str
    shoulders: bool = False


@dataclass(frozen=True)
class Thick:
    """Calipers across a stick, and again square to that: its tenon's end, where it leaves the seat, its
    waist or its finished foot."""

    part: str
    at: str


@dataclass(frozen=True)
class AcrossEnd:
    """A rule across a stick's side at an end, square to the stick, where that end is sawn shorter."""

    part: str
    on: str
    side: str
    other: str
    end: str


@dataclass(frozen=True)
class ToLine:
    """A rule along the corner between a part's side and its edge, from its end to a joint's line; `what`
    joins it there, with its end `end`."""

    part: str
    face: str
    edge: str
    start: str
    what: str
    end: str


@dataclass(frozen=True)
class Mortised:
    """A rule across a mortise on a face of the top, from wall to wall, side to side."""

    of: str
    face: str


@dataclass(frozen=True)
class StandsOut:
    """A screw put in dry until its head sits: how far its point stands out, along itself."""

    part: str
    upper: str


@dataclass(frozen=True)
class ToGroove:
    """A rule down one side of a stick, from where it meets another to the nearer edge of its groove."""

    part: str
    side: str
    upper: str


@dataclass(frozen=True)
class SlotLong:
    """A rule in a hand-hold, from one round end to the other."""

    which: str


@dataclass(frozen=True)
class ArcHigh:
    """A rule from a straight-edge laid over both lower corners of a piece up to its arc in the middle."""

    part: str
    edge: str


@dataclass(frozen=True)
class OffString:
    """A rule from the string between the middles of a stick's ends to the middle of its wood, at its
    back."""

    leg: int


@dataclass(frozen=True)
class MouthLong:
    """A rule over a socket's eased mouth from rim to rim, the longer way where the leg `leans`."""

    leg: int
    leans: bool


@dataclass(frozen=True)
class TopThick:
    """Calipers over the edge of the top, where it is not hollowed or rounded, at several places."""


@dataclass(frozen=True)
class UnderEdge:
    """A rule from a straight-edge laid over the hollow, along a middle line, down to the wood in the
    middle."""

    line: str


@dataclass(frozen=True)
class Butt:
    """Calipers over the thick end of a leg's wedge."""

    part: str


@dataclass(frozen=True)
class OneFace:
    """A rule across one of eight faces, and across its neighbour: both must agree; `at` where along the
    part."""

    part: str
    at: str = ""


@dataclass(frozen=True)
class FirstShoulder:
    """From a tenon's end to the shoulder that comes first."""

    part: str


@dataclass(frozen=True)
class Deep:
    """The depth of something cut: a slot, a hole, a notch; `of` says which, `where` the rule stands."""

    of: str
    where: str


@dataclass(frozen=True)
class Probed:
    """The depth of a narrow hole: a thin stick down its middle."""

    of: str


@dataclass(frozen=True)
class Bevelled:
    """A bevel gauge on a bevelled edge: stock across a face, blade down the edge."""

    part: str
    face: str
    edge: str


@dataclass(frozen=True)
class Sticks:
    """A straight stick on both sockets' marks (or a rod through a hole), a protractor on the side of what
    it leaves: the acute angle. The blade lies on the surface, in the plane of the two sticks."""

    mark: Mark
    rod: bool


@dataclass(frozen=True)
class Gap:
    """Two sticks slid apart between two sockets' marks, then measured."""

    one: Mark
    two: Mark


@dataclass(frozen=True)
class Wall:
    """A rule down a socket's wall on its obtuse side, where it is shallowest."""

    mark: Mark


@dataclass(frozen=True)
class EndToEnd:
    """A rule from one end of a stick to the other."""

    part: str


Take = (
    Apart | RodInHole | BothSides | SawnLine | Corner | Thick | AcrossEnd | ToLine | Mortised | OneFace
    | FirstShoulder | Deep
    | Probed | ToGroove | SlotLong | ArcHigh | OffString | MouthLong | TopThick | UnderEdge | Butt
    | StandsOut | Bevelled | Sticks | Gap
    | Wall | EndToEnd
)  # fmt: skip
