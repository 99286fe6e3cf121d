"""What is done, one thing each, in the order of hands: plain data, from places a rule can reach."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from splay.quantity import Quantity
from splay.work.joinery import (
    ArcLine,
    BentLine,
    Between,
    Buttons,
    Cove,
    CutOut,
    Eased,
    EightAlong,
    EndNotches,
    FlatsLeft,
    Groove,
    JigOver,
    Joins,
    MakeSplines,
    MakeWedge,
    Mortises,
    Notch,
    Onward,
    Parted,
    Places,
    Recessed,
    SawnSquare,
    Shortened,
    Shoulders,
    Slots,
    Spots,
    Stations,
    TaperLine,
    Tenon,
    ThroughPlaces,
    Transferred,
)
from splay.work.lays import Pin, Toward, Way
from splay.work.marks import Mark
from splay.work.tops import (
    DepthHoles,
    HollowLine,
    PegFound,
    PlanedOff,
    Runners,
    StripEnds,
    StripSides,
    StripsLaid,
)


@dataclass(frozen=True)
class Along:
    """A mark on a stick: hook on `end`, and so far along `line`, measured along the stick's middle.

    `line` is a line drawn down it or one of its faces; `ring` carries the mark all round; `what` is what
    the mark is called, where it has a name.
    """

    marks: tuple[Mark, ...]
    named: str
    end: str
    line: str
    mm: Quantity
    ring: bool = False
    what: str = ""


@dataclass(frozen=True)
class Round:
    """From a line on a round stick so far round it, at a ring already marked, the way named as seen by
    one who looks at `end`; `turn` is the same in degrees; `then` is what is drawn by it besides."""

    marks: tuple[Mark, ...]
    named: str
    line: str
    mm: Quantity
    turn: Quantity
    way: Way
    end: str
    what: str = ""
    then: str = ""


@dataclass(frozen=True)
class FromEdge:
    """On a flat side of a stick, where a mark along it was made: so far from where it meets another."""

    marks: tuple[Mark, ...]
    named: str
    side: str
    edge: str
    mm: Quantity


@dataclass(frozen=True)
class Across:
    """On a flat face of a stick: so far from the face's middle line towards a neighbouring face."""

    marks: tuple[Mark, ...]
    named: str
    face: str
    mm: Quantity
    toward: str


@dataclass(frozen=True)
class FromMiddle:
    """Marks along sticks on one side, so far from the middle of the length of `of`: each towards the end
    that is named with it, or in the middle."""

    marks: tuple[tuple[Mark, str], ...]
    named: str
    side: str
    of: str
    mm: Quantity


@dataclass(frozen=True)
class Widened:
    """Screw holes `out` from the middle made wider than their bits, to slots along the stick or all round:
    `hole` and `seat` are the whole widths of the thin one and of the head's, `washer` what then lies under
    the head; `bored` where the card's bits are that wide already, for all are alike."""

    marks: tuple[Mark, ...]
    hole: Quantity
    seat: Quantity
    washer: Quantity | None
    out: Quantity
    bored: bool


@dataclass(frozen=True)
class OnEnd:
    """A line over a stick's end through its middle, so far round from a line on its side."""

    mark: Mark
    named: str
    end: str
    line: str
    mm: Quantity
    turn: Quantity
    way: Way
    what: str


@dataclass(frozen=True)
class OverEnd:
    """A line over a flat-sided stick's end through its middle: it crosses the edge of `face` so far from
    that edge's middle towards a neighbouring face."""

    mark: Mark
    named: str
    end: str
    face: str
    mm: Quantity
    toward: str
    what: str


@dataclass(frozen=True)
class DrawLine:
    """A line drawn down a stick from end to end, anywhere round it; `over` is what it stands over in the
    seat: the sightline's arrow, its tail, the edge side of a plumb leg, or on a stretcher the floor."""

    marks: tuple[Mark, ...]
    named: str
    over: Literal["arrow", "tail", "edge", "floor"]
    says: str


@dataclass(frozen=True)
class NameFaces:
    """The names of a stick's four faces, clockwise looking at `end`; of eight sides every second."""

    marks: tuple[Mark, ...]
    named: str
    faces: tuple[str, str, str, str]
    end: str
    eight: bool
    stands: str


@dataclass(frozen=True)
class Write:
    """What is written on the work so that later steps can lean on it."""

    marks: tuple[Mark, ...]
    text: str


@dataclass(frozen=True)
class Bit:
    """The bit for a hole, and how deep it goes along its own way; nought goes right through.

    `touch` is the depth stop's figure from where the bit first touches the slanted face.
    """

    diameter: Quantity
    deep: Quantity | None
    touch: Quantity | None


@dataclass(frozen=True)
class WallDepth:
    """Depth of a socket where a rule can stand; of a slanted one its wall on the obtuse side."""

    obtuse: Quantity
    slanted: bool


@dataclass(frozen=True)
class Back:
    """Scrap behind a through hole, or stop at the lead point and finish from there."""


@dataclass(frozen=True)
class Ream:
    """A pilot, then a reamer from the face the leg enters."""

    pilot: Quantity
    included: Quantity


@dataclass(frozen=True)
class Chop:
    """A mortise with corners: long along the sightline, wide square to it."""

    long: Quantity
    wide: Quantity


@dataclass(frozen=True)
class Turned:
    """How one setting serves several legs: `pin` turns the seat about its middle, `diagonal` end for
    end with only the fence swung between the two pairs, `each` lays every sightline anew."""

    way: Literal["pin", "diagonal", "each"]
    pairs: tuple[tuple[int, ...], ...] = ()
    pin: Pin | None = None


@dataclass(frozen=True)
class TwoWay:
    """On a table that tilts two ways: the tilt next to the seat, and the one below that carries it, square
    across; for each leg the words that lie uphill on the first and on the second."""

    first: Quantity
    second: Quantity
    legs: tuple[tuple[int, str, str], ...]


@dataclass(frozen=True)
class Plain:
    """A remark that no figure or side hangs on."""

    text: str


@dataclass(frozen=True)
class LongPoint:
    """The length that a cut goes by: from an end along a side, to where the cut leaves it longest.
    `parts` are those it is told of, `named` in words; empty where all parts of a card are meant."""

    end: str
    line: str
    mm: Quantity
    short_line: str
    short: Quantity
    parts: tuple[str, ...] = ()
    named: str = ""


@dataclass(frozen=True)
class SawToLine:
    """Saw to a line scribed all round; along which side which parts stay longer: what they are called,
    which they are, the side."""

    sides: tuple[tuple[str, tuple[str, ...], str], ...]


@dataclass(frozen=True)
class Kerf:
    """A saw cut down a tenon along the line on its end, stopping short of the depth ring."""

    stop: Quantity
    deep: Quantity


@dataclass(frozen=True)
class Cut:
    """A stick cut square to a length."""

    named: str
    mm: Quantity


Do = (
    Along | Round | Across | FromEdge | FromMiddle | Widened | OnEnd | OverEnd | DrawLine
    | NameFaces | Write | Bit | WallDepth | Back | Ream | Chop | Turned | TwoWay | Tenon | Shoulders
    | Transferred | Between | Groove | Buttons | Slots | Spots | Places | Notch | CutOut | TaperLine | Joins
    | EndNotches | Mortises | MakeSplines | Parted | SawnSquare | JigOver | Cut | Plain
    | ThroughPlaces | Onward | LongPoint | SawToLine | Kerf | MakeWedge
    | ArcLine | BentLine | FlatsLeft | Stations | Shortened | Cove | Eased
    | DepthHoles | Runners | HollowLine
    | StripsLaid | StripSides | StripEnds | PlanedOff | PegFound | Recessed
    | EightAlong
)  # fmt: skip


__all__ = ["Do", "Toward"]
