"""What a picture of a set-up needs to know, one type for each sort of picture.

Angles in degrees; texts are written in as they are, in the maker's own units.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from splay.setups.dial import Dial


@dataclass(frozen=True)
class Arc:
    """A tool's own scale beside the work: what it reads at square, how it counts, its reach, and what is
    set, in words."""

    at_square: float
    counts: str
    reach: float
    text: str


def arc_of(dial: Dial, text: str = "") -> Arc:
    """A dial's scale, with its own reading unless something else is written there."""
    return Arc(dial.at_square, dial.counts, dial.reach, text or dial.reading.text)


@dataclass(frozen=True)
class Drilled:
    """The seat under a drill: `off` square, `right` and `left` what lies at either side of the work."""

    way: Literal["tilting_table", "bevel_gauge", "angle_guide", "digital_gauge"]
    off: float
    right: str
    left: str
    arc: Arc | None


@dataclass(frozen=True)
class OnRamp:
    """The seat on a hinged ramp: how long its base is to the spacer, and how the spacer stands."""

    off: float
    right: str
    left: str
    base: str
    spacer: str
    spacer_kind: str


@dataclass(frozen=True)
class WithBlock:
    """The drill beside a block with one sloping face: its angle as it is sawn, and its height."""

    off: float
    right: str
    left: str
    block: str
    height: str


@dataclass(frozen=True)
class LegOnSaw:
    """A leg from above: what lies at the fence and towards the maker, the `end` that is sawn, a tilt
    besides in words."""

    off: float
    arc: Arc
    fence: str
    front: str
    leg: str
    end: str = "foot"
    tilt: str = ""


@dataclass(frozen=True)
class Scribed:
    """A foot marked round by a block on the floor, the piece standing."""

    off: float
    right: str
    left: str
    block: str


@dataclass(frozen=True)
class Tilted:
    """A blade's or a table's lean besides the swing: in words, on an edge, and what it leaves longer."""

    off: float
    text: str
    on_edge: str
    longer: str
    up_longer: bool


@dataclass(frozen=True)
class StickSawn:
    """Square stock on a saw, or with the two lines it is sawn by hand to where there is no scale (`lined`):
    the face turned up, the side that comes out longer, and the other."""

    off: float
    arc: Arc | None
    face: str
    longer: str
    shorter: str
    tilted: Tilted | None
    lined: bool


@dataclass(frozen=True)
class TwoSticks:
    """A stretcher leaving a leg: the angle on its `acute` side, the leg's ends near and far."""

    off: float
    arc: Arc | None
    angle: str
    acute: str
    near: str
    far: str
    leg: str
    member: str
    sighted: bool


@dataclass(frozen=True)
class BevelledEdge:
    """A stick's section, `face` up and `edge` at the right. `leans` are how far `edge` and `other_edge`
    are off
    square, degrees, nought where they stay square: positive where `face` is left the wider there."""

    leans: tuple[float, float]
    angle: str
    face: str
    other: str
    edge: str
    other_edge: str


@dataclass(frozen=True)
class HalfLap:
    """A half lap across a rail, from above or from below."""

    wide: str
    deep: str
    above: bool


@dataclass(frozen=True)
class BetweenFeet:
    """The space between the feet of a board, or of a side glued from two."""

    wide: str
    deep: str
    seam: bool = False


@dataclass(frozen=True)
class EightSides:
    """Square stock with the eight sides gauged on its end."""

    gauge: str
    stock: str


@dataclass(frozen=True)
class TenonMade:
    """A tenon: its thickness, at its `tip` too where it is tapered; with sloped shoulders or without."""

    thick: str
    long: str
    tip: str = ""
    sloped: bool = False
    stick: str = "leg"


@dataclass(frozen=True)
class PilotHole:
    """A pilot along a leg's middle, into its sawn upper end."""

    thick: str
    deep: str


@dataclass(frozen=True)
class Tapering:
    """A leg with what comes off each face over a run; whether it is thick at the top."""

    top: str
    foot: str
    run: str
    off: str
    thick_at_top: bool


@dataclass(frozen=True)
class SideTapering:
    """Square stock, the side its taper is drawn on seen square: where it begins, how far in it ends, and
    the names of those ends. `up` is the side that is seen where the line lies underneath; `to_right`
    whether
    the end it runs to lies at the right so, the tapered side away from one."""

    begins: str
    off: str
    on: str
    side: str
    away: str
    to: str
    up: str
    to_right: bool


@dataclass(frozen=True)
class JointLined:
    """A side of a part seen square, what joins it there drawn on it: the line for its side `lead`, `down`
    from the end `start`, and how far `across` it comes from the edge."""

    face: str
    edge: str
    start: str
    lead: str
    what: str
    down: str
    across: str


@dataclass(frozen=True)
class SplineSeen:
    """A board's upper end cut through at a spline, the top on it: the notch's depth, the spline's
    thickness, the lean, and how wide it comes on the underside."""

    deep: str
    thick: str
    lean: str
    mouth: str


@dataclass(frozen=True)
class TopHeld:
    """A part under the top cut through at a screw: how deep its head goes in, how far it goes into the top,
    its hole, its angle to the side it starts from where it is not square, and what it goes into."""

    sunk: str
    bite: str
    hole: str
    entry: str
    between: str
    into: str


@dataclass(frozen=True)
class SlotBored:
    """A hand-hold from above: how long, how wide, its end holes apart, and how many holes between them."""

    long: str
    wide: str
    apart: str
    between: int


@dataclass(frozen=True)
class HollowCut:
    """A hollow in section, by which way it is cut: "scooping", "runners" or "sawing"; its chord and
    depth."""

    by: str
    chord: str
    deep: str


@dataclass(frozen=True)
class Dressed:
    """A top in section with what is planed off it, and what is left."""

    off: str
    left: str


@dataclass(frozen=True)
class ArcSawn:
    """A piece's face with its arc: from corner to corner of the `edge`, the rise, what stays over it in the
    middle; whether the upper edge follows."""

    chord: str
    rise: str
    left: str
    follows: bool
    edge: str


@dataclass(frozen=True)
class MouthEased:
    """A socket's mouth in section, its rims rounded: with what radius, how long it then is over all, on
    which face."""

    radius: str
    long: str
    face: str


@dataclass(frozen=True)
class SocketPierced:
    """The seat in section, a thin bit on through a socket; the peg's place so far `away` from where it
    comes out, against the arrow or along it."""

    away: str
    against: bool


@dataclass(frozen=True)
class Grooving:
    """A part under the top cut through at its groove for buttons: how far down, wide and deep, and the tilt
    of its walls where the part leans, its corner then sharper than square or not; what it lies under."""

    edge: str
    wide: str
    deep: str
    side: str
    upper: str
    turn: str
    sharp: bool
    into: str


@dataclass(frozen=True)
class ButtonMade:
    """A button from its side: its step, its tongue's thickness and length, how thick and long it is."""

    step: str
    tongue: str
    out: str
    thick: str
    long: str


@dataclass(frozen=True)
class WedgeCut:
    """A wedge by its face and its side: how wide, how long, thick at its butt and at its edge."""

    wide: str
    long: str
    butt: str
    edge: str


@dataclass(frozen=True)
class MitreDowelled:
    """A slab leg's glued mitre with a dowel from outside: level through the leg, or plumb through the
    top; how thick and deep its hole is, how far from the corner, and the angle with the face where it is
    not square."""

    runs: Literal["level", "plumb"]
    thick: str
    deep: str
    down: str
    between: str


@dataclass(frozen=True)
class ThroughBored:
    """The side of a part on which an end's lines are drawn, a hole for a dowel within them: so far along
    the line of the end's leading side, and so far from it."""

    face: str
    lead: str
    what: str
    aside: str
    down: str


@dataclass(frozen=True)
class BoredOn:
    """A part and the end that joins it cut through at a dowel from outside: how thick and deep its hole."""

    thick: str
    deep: str
    mate: str
    what: str


@dataclass(frozen=True)
class JointHoles:
    """A sawn end with dowel holes (`round`) or a slot for a loose tenon."""

    wide: str
    thick: str
    deep: str
    round: bool


@dataclass(frozen=True)
class Marked:
    """A stick that is marked: the line down it, its ring where it has one, tenons on none, one or both of
    its ends, and what those are called."""

    line: str
    tenons: Literal[0, 1, 2]
    near: str
    far: str
    ring: str = ""


@dataclass(frozen=True)
class StickBent:
    """A bent stick beside the string between its ends: how far off it stands at the most, and where from
    its upper end."""

    off: str
    at: str
    end: str


@dataclass(frozen=True)
class StickShortened:
    """A stick that was used before, its old hole seen, and what is sawn off its upper end; empty where
    nothing is."""

    off: str
    end: str


@dataclass(frozen=True)
class KerfOnEnd:
    """A tenon's end as one looks at it, the slot turned `off` clockwise from the line."""

    off: float
    line: str
    leg: str
    arc: str


@dataclass(frozen=True)
class StretcherMade:
    """A stretcher: its length over all, both tenons, what is written on its ends."""

    total: str
    first: str
    second: str
    near: str
    far: str


Scene = (
    Drilled | OnRamp | WithBlock | LegOnSaw | Scribed | StickSawn | TwoSticks | BevelledEdge
    | HalfLap | BetweenFeet | EightSides | TenonMade | PilotHole | Tapering | SideTapering | JointLined
    | SplineSeen | TopHeld
    | SlotBored | HollowCut | Dressed | Grooving | ButtonMade | WedgeCut | MitreDowelled
    | ThroughBored | BoredOn | JointHoles
    | Marked | SocketPierced | MouthEased | ArcSawn
    | KerfOnEnd | StretcherMade | StickShortened | StickBent
)  # fmt: skip
