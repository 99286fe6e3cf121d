"""How the work lies and how the tool meets it: plain data, every side named by what is on the wood.

Whoever carries these out needs the stock, the marks made before and the card's settings; nothing else.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from splay.quantity import Quantity
from splay.work.marks import Mark

Way = Literal["clockwise", "anticlockwise"]


@dataclass(frozen=True)
class Toward:
    """A direction along the work: with a sightline's `arrow` or against it (`tail`), towards an `end`
    or a `side` of a stick, or towards a word written on the seat (`letter`).

    `name` is the end, the side or the word; empty for the arrow of the mark that is bored.
    """

    by: Literal["arrow", "tail", "end", "side", "letter"]
    name: str = ""


@dataclass(frozen=True)
class OnTilt:
    """Under a plumb spindle: on a table or ramp that is tilted by the setting, or level.

    `at` are the marks brought under the bit one after the other. `down` is the face that lies on it;
    empty for a stick, which lies along the fall with its mark turned straight up over its middle: a
    round one in a `vee`, one with flats wedged so. `uphill` is what lies uphill, None where the setting
    is level.
    """

    at: tuple[Mark, ...]
    down: str
    uphill: Toward | None
    vee: bool = False


@dataclass(frozen=True)
class Pin:
    """A pin in the tilted table on which the seat turns from leg to leg.

    Measured on the table from where the lowered bit's point touches it: so far downhill, and so far to
    the right of one who looks uphill (a minus is to the left), mm; turned so many degrees between legs.
    """

    downhill: Quantity
    right: Quantity
    turn: float
    count: int


@dataclass(frozen=True)
class ByHand:
    """A drill held by hand against something that shows the lean.

    `up` is the face that lies up, empty on a stick; `along` what the gauge stands on: the leg's own
    sightline, the stick's surface at the mark, or square across a batten's edge. `leans`
    is what the drill leans to, None when square. `sight` are the marks aimed at where the opposite leg is
    the sight, `dry` the stretchers that are bored so or aimed at, and are in place for it; `zero` how a
    digital gauge is zeroed.
    """

    at: tuple[Mark, ...]
    holder: Literal["gauge", "block", "guide", "digital", "protractor", "opposite"]
    up: str
    along: Literal["sightline", "surface", "across"]
    leans: Toward | None
    sight: tuple[Mark, ...]
    zero: Literal["", "square", "flat"]
    dry: str


@dataclass(frozen=True)
class Wedge:
    """Makes up what a tool does not reach: under the work, its cradle, the clamped guide, or between
    work and fence; `thick` is where its thick end lies. At a fence it turns the work further the way
    the saw is swung: `fence_longer` says for which of the two ways this end is meant."""

    angle: Quantity
    under: Literal["work", "cradle", "guide", "fence"]
    thick: Toward
    fence_longer: bool | None = None


@dataclass(frozen=True)
class OnSaw:
    """A part on a saw: `end` beyond the blade, `up` the side turned up, `fence` the side at the fence.

    `parts` are keys, `named` the same in words. `fence_longer` says whether the side at the fence comes
    out longer, `up_longer` whether the side turned up does; None where that way is square. A round leg
    has no `up`: its line at the fence says how it is rolled. `thin` is the packing at each end that
    holds a tapered stick's middle along the fence and level: (end, mm).
    """

    parts: tuple[str, ...]
    named: str
    end: str
    up: str
    fence: str
    fence_longer: bool | None
    up_longer: bool | None
    thin: tuple[tuple[str, Quantity], ...] = ()
    strip: bool = False
    """Whether a straight strip along that side lies at the fence, for the side itself is the tree's own."""


@dataclass(frozen=True)
class OnLines:
    """A cut sawn by hand to two knifed lines: one on a face, one on an edge of the stick.

    `longer_edge` and `longer_face` name the sides that come out longer, empty where it is square.
    """

    parts: tuple[str, ...]
    named: str
    end: str
    face: str
    edge: str
    on_face: Quantity
    longer_edge: str
    on_edge: Quantity
    longer_face: str
    grown: bool
    """Whether the edges are the tree's own: the line on the edge is then a gauge's, held over the end
    along the middle line."""


@dataclass(frozen=True)
class OnFloor:
    """The piece standing on a flat floor, its feet marked by a block slid round each of them.

    `block` is the block's height, `shims` what is put under feet first: (leg's number, mm).
    """

    legs: tuple[int, ...]
    block: Quantity
    shims: tuple[tuple[int, Quantity], ...]


@dataclass(frozen=True)
class OnSide:
    """A long edge to bevel: `down` lies on the saw's table, or is turned away from the plane, and is left
    the wider by the bevel's `angle` off square. One tilt then serves every edge: the stick is turned over
    between edges that run parallel, and only turned end for end between edges that close."""

    parts: tuple[str, ...]
    named: str
    edge: str
    down: str
    angle: Quantity
    planed: bool
    fence: Quantity | None = None
    """From the fence to where the blade leaves the table, the opposite edge along the fence, or, planed,
    how wide `down` then is; None for the first of two bevels, of which only so much comes off as makes it
    whole."""


@dataclass(frozen=True)
class EndUp:
    """A stick held with a sawn end up and level: what is bored there runs square to it.

    `leans` are the sides its top leans to for that, the ones the cut left longer; none where it stands
    plumb.
    """

    parts: tuple[str, ...]
    named: str
    end: str
    leans: tuple[str, ...]


@dataclass(frozen=True)
class EndDown:
    """A stick standing on a sawn end that lies flat on a table, along a fence: what is slotted there runs
    square to that end. `face` lies on the fence, which leans back where the stick leans over it; `along`
    is the edge it leans towards along the fence, empty where it does not."""

    parts: tuple[str, ...]
    named: str
    end: str
    face: str
    along: str


@dataclass(frozen=True)
class Upright:
    """A stick held plumb with an end up: what is bored there runs along its middle."""

    parts: tuple[str, ...]
    named: str
    end: str


@dataclass(frozen=True)
class Tapered:
    """A stick on a sled, each pass a face: `first` faces at one stop, then the ones opposite at another,
    for those lie on a face that is tapered already."""

    first: tuple[str, str]
    then: tuple[str, str]
    stop: Quantity
    stop_then: Quantity
    thin: str


@dataclass(frozen=True)
class SideTapered:
    """One side of a square stick brought down to its line, on a sled, at a band saw or with a plane.

    `on` is the side the line is drawn on: down on a sled, up at a band saw, the one a plane's cut is tried
    from. On a sled the side `against` lies at its stops, the `stop` at the end `to` nearer the blade than
    the other. `packing` lies under that end where the side beneath is cut already; `turn` is how far the
    new side is off square to `on`, which is then the sharper corner; None where it is square.
    """

    parts: tuple[str, ...]
    named: str
    by: Literal["sled", "band_saw", "plane"]
    side: str
    on: str
    against: str
    stop: Quantity | None
    packing: Quantity | None
    turn: Quantity | None
    to: str


@dataclass(frozen=True)
class IntoSide:
    """A drill into a long side of a stick, `between` drill and side in degrees; `toward` the side it leans
    to outside, away from which its bit goes in; empty where it stands square. It leans square across the
    stick, or along it, towards an end, where `endwise`."""

    at: tuple[Mark, ...]
    up: str
    between: Quantity
    toward: str
    endwise: bool = False


Lay = (
    OnTilt | ByHand | OnSaw | OnLines | OnFloor | OnSide | EndUp | EndDown | Upright | Tapered | SideTapered
    | IntoSide
)  # fmt: skip
