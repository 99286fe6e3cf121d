"""What is done in joinery, as data: tenons, notches, tapers, grooves, splines, where parts join."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from splay.quantity import Quantity
from splay.work.marks import Mark


@dataclass(frozen=True)
class Groove:
    """A groove along sticks in `side`, its nearer edge `edge` from `upper`, `wide` on that side and `deep`
    square to it. Its walls lie along `upper`: `turn` off square to the side, so that its bottom comes
    `nearer` to `upper` than its mouth square in, or goes further from it. It goes `ends` to either side of
    the middle of the length of `upper`, from end to end where that is None; it begins `begins` from there,
    on either side, where something else is let in in the middle."""

    parts: tuple[str, ...]
    named: str
    side: str
    upper: str
    edge: Quantity
    wide: Quantity
    deep: Quantity
    turn: Quantity | None
    nearer: bool
    ends: Quantity | None
    begins: Quantity | None


@dataclass(frozen=True)
class Buttons:
    """Blocks, each with a tongue along its lower face: `thick`, `wide`, `long` over all; the step from the
    upper face down to the tongue, which is so thick and so long. The shoulder over it is `turn` off square
    where the part leans, the block `longer` at its upper face, or shorter."""

    thick: Quantity
    wide: Quantity
    long: Quantity
    step: Quantity
    tongue: Quantity
    out: Quantity
    turn: Quantity | None
    longer: bool


@dataclass(frozen=True)
class Tenon:
    """A round tenon on a stick's end: its diameter and how far it runs at that diameter, from the end."""

    named: str
    end: str
    diameter: Quantity
    long: Quantity


@dataclass(frozen=True)
class ArcLine:
    """An arc drawn on a face of pieces alike: over the line of the `edge` between its two corners, `chord`
    apart, so high (`up`) at places to either side of its middle (`at`); a lath bent through them all. With
    an `upper` edge that follows: from that edge's line so far down at places to either side of the middle,
    its ends `end_up` along the sawn ends from the lower corners; None where it stays straight."""

    parts: tuple[str, ...]
    named: str
    face: str
    edge: str
    chord: Quantity
    places: tuple[tuple[Quantity, Quantity], ...]
    upper: str
    down: tuple[tuple[Quantity, Quantity], ...]
    end_up: Quantity | None
    radius: Quantity


@dataclass(frozen=True)
class Cove:
    """A cove on a stick behind its tenon: from `begins` to `ends` along it, both from the tenon's end, from
    the tenon's thickness outwards to the stick's."""

    radius: Quantity
    begins: Quantity
    ends: Quantity


@dataclass(frozen=True)
class Eased:
    """The mouths of these legs' sockets on a face rounded with a radius, evenly about the hole's own axis,
    until each is so `long` over all, the longer way, which is the way the leg `leans` where it does; by a
    cutter with a pilot, or by rasp."""

    legs: tuple[int, ...]
    face: str
    radius: Quantity
    long: Quantity
    leans: bool
    by_cutter: bool


@dataclass(frozen=True)
class Stations:
    """Sticks turned to calipers: so thick at places so far from an end, even between them; the one turned
    `first` is the pattern for the `rest`."""

    first: str
    rest: str
    end: str
    places: tuple[tuple[Quantity, Quantity], ...]


@dataclass(frozen=True)
class Shortened:
    """A stick measured before, by its place in the list and what was noted of it, is to be a leg: `off` is
    sawn square off its upper `end`, None for nothing; the next of its old holes then begins `begins` from
    there, None where none is left."""

    stick: int
    note: str
    leg: int
    end: str
    off: Quantity | None
    begins: Quantity | None


@dataclass(frozen=True)
class BentLine:
    """The line of a bent stick: a string from the middle of its upper `end` to the middle of the wood where
    the foot comes, `long` from there. Laid with its bend level it stands `off` that string the most, `at`
    from that end, towards its back, the side it bulges to; at that end the wood runs `slope` off the
    string. The leg's `outer` line lies so from the back: along it, opposite to it, or a quarter round,
    clockwise or not looking at the upper end."""

    stick: int
    note: str
    leg: int
    end: str
    long: Quantity
    off: Quantity
    at: Quantity
    slope: Quantity
    outer: Literal["along", "opposite", "clockwise", "anticlockwise"]


@dataclass(frozen=True)
class Parted:
    """Grooves turned with a parting tool down to a caliper's setting, at places from the tenon end."""

    caliper: Quantity
    places: tuple[Quantity, ...]


@dataclass(frozen=True)
class FlatsLeft:
    """A tenon's end planed square to `over`, its corners off to lines gauged in from each edge, then the
    eight ridges until so much of each flat is `left`; the ridges alone are rounded, the flats stay."""

    over: Quantity
    gauge: Quantity
    left: Quantity


@dataclass(frozen=True)
class SawnSquare:
    """Square stock sawn in on all four faces, so far from the tenon end and so deep, split and pared to
    what is `left`, square; then the corners off to lines gauged in from each edge."""

    at: Quantity
    deep: Quantity
    left: Quantity
    gauge: Quantity


@dataclass(frozen=True)
class JigOver:
    """A jig with two holes in line: the stock turns in the `wide` one, the finished tenon comes out through
    the `narrow` one; the router bit's round top between them, `below` their middle; fed in as far as
    `long`."""

    wide: Quantity
    narrow: Quantity
    below: Quantity
    long: Quantity


@dataclass(frozen=True)
class Shoulders:
    """At both ends of sticks a line all round, parallel to the sawn end: so far back along every corner."""

    parts: tuple[str, ...]
    named: str
    back: Quantity


@dataclass(frozen=True)
class Transferred:
    """Mortises taken from the tenons themselves: each part held to its leg, upper edge flush with the
    leg's upper end, its `side` so far behind the leg's own face of that name."""

    parts: tuple[str, ...]
    side: str
    faces: str
    behind: Quantity


@dataclass(frozen=True)
class Between:
    """A line or plane through two places: so far from an end along one side, and so far along another."""

    named: str
    what: str
    end: str
    line: str
    mm: Quantity
    other: str
    other_mm: Quantity


@dataclass(frozen=True)
class Spots:
    """Places on a sawn end, in the middle of its thickness, so far from the edge named.

    Without an edge they lie as far from the one as from the other; or they are measured from the middle
    line, towards each side in `sides`, one on the line itself where `on_line`.
    """

    named: str
    edge: str
    at: tuple[Quantity, ...]
    mates: str
    sides: tuple[tuple[str, tuple[Quantity, ...]], ...] = ()
    on_line: bool = False


@dataclass(frozen=True)
class Slots:
    """Slots cut with a stick's sawn end down: the fence's face leans back by `back` off plumb, a block that
    slides along it carries the stick leaning `along` off plumb; `off` from the fence to the cutter's middle
    on the table. No angle where it is nought."""

    deep: Quantity
    off: Quantity
    back: Quantity | None
    along: Quantity | None


@dataclass(frozen=True)
class Places:
    """Marks on a face, all so far from `of`, and each so far from the middle line towards the side named
    with it; on the line where none is."""

    marks: tuple[tuple[Mark, str, Quantity], ...]
    named: str
    face: str
    of: str
    mm: Quantity


@dataclass(frozen=True)
class Notch:
    """A notch across a stick at mid length: sawn from `edge`, so wide along it and so deep. Its cheeks are
    turned off square by `turn`, lying nearer to `end` on `face`."""

    named: str
    edge: str
    wide: Quantity
    deep: Quantity
    turn: Quantity
    face: str
    end: str


@dataclass(frozen=True)
class CutOut:
    """What is sawn out of a board's lower end in the middle of its width: between the feet, and so high
    up its face from the sawn end, level with it. On a side glued from two boards it goes from the one to
    the other of `seam`: places before (-) or behind the seam, mm."""

    named: str
    face: str
    wide: Quantity
    high: Quantity
    seam: tuple[Quantity, Quantity] | None = None


@dataclass(frozen=True)
class TaperLine:
    """The line of a tapered side, on the side beside it: from a line square across so far along their
    corner from `end`, to the sawn end `to` so far in from that corner. `cut` where `on` is tapered by
    then."""

    parts: tuple[str, ...]
    named: str
    side: str
    on: str
    end: str
    begins: Quantity
    off: Quantity
    cut: bool
    to: str


@dataclass(frozen=True)
class EndNotches:
    """Notches in the end of boards for splines, open to both faces: their cheeks at these places from the
    `edge`, square to the end's faces and along the board; their bottom so deep down `face`, square to it.
    """

    parts: tuple[str, ...]
    named: str
    end: str
    edge: str
    face: str
    cheeks: tuple[tuple[Quantity, Quantity], ...]
    deep: Quantity


@dataclass(frozen=True)
class Mortises:
    """Mortises through the top for splines, drawn on a face of it: beyond the front-back line towards
    `side` from `near` to `far`; along it each from a place to a place towards BACK (towards FRONT
    negative)."""

    face: str
    side: str
    near: Quantity
    far: Quantity
    places: tuple[tuple[Quantity, Quantity], ...]


@dataclass(frozen=True)
class MakeSplines:
    """So many splines, so wide, thick and long, square at both ends."""

    count: int
    wide: Quantity
    thick: Quantity
    long: Quantity


@dataclass(frozen=True)
class Joins:
    """Where sawn ends come to lie on a side (`face`) of what they join: a line for their side `lead`, so
    far (`down`) along the corner between `face` and `edge` from the end `start` and square across from
    there, or else to `far` along the opposite corner (`opposite`); flush with that end where `down` is
    None. On that line their side `beside` lies `across` from the `edge`, flush with it where that is None.

    `ends` are the parts drawn on and the parts that join them there, by keys, with the end that does; `of`
    is what sort of part is drawn on.
    """

    ends: tuple[tuple[str, str, str], ...]
    named: str
    what: str
    face: str
    edge: str
    of: str
    start: str
    lead: str
    beside: str
    down: Quantity | None
    far: Quantity | None
    opposite: str
    across: Quantity | None


@dataclass(frozen=True)
class ThroughPlaces:
    """Places for dowels on a side (`face`) of what sawn ends join, within the lines drawn for them there:
    each so far along the line of the end's side `lead` from the corner its side `beside` comes to, and so
    far square off that line, on the side where the end will lie. `ends` as of Joins."""

    ends: tuple[tuple[str, str, str], ...]
    named: str
    what: str
    face: str
    lead: str
    beside: str
    spots: tuple[tuple[Quantity, Quantity], ...]


@dataclass(frozen=True)
class Onward:
    """From outside through the holes that are there, on into the ends behind them. `ends` as of Joins."""

    ends: tuple[tuple[str, str, str], ...]
    named: str
    what: str


@dataclass(frozen=True)
class MakeWedge:
    """A wedge for each of these legs: so wide along its slot, so long, tapered alike on both faces from its
    thin edge to its butt."""

    legs: tuple[int, ...]
    wide: Quantity
    long: Quantity
    edge: Quantity
    butt: Quantity


@dataclass(frozen=True)
class Recessed:
    """A recess for a leg's square end and a pilot on from its bottom, bored one after the other with
    nothing moved between: the recess `wide` and `deep` along its middle, `touch` its depth stop's
    figure from where
    the bit first touches the slanted face; the pilot so thick and so deep `on` from the recess's bottom."""

    wide: Quantity
    deep: Quantity
    touch: Quantity
    pilot: Quantity
    on: Quantity


@dataclass(frozen=True)
class EightAlong:
    """Eight sides on a stick that is tapered already: from `hook` down the stick, at each place, the
    gauge in from each edge there; lines from mark to mark."""

    hook: str
    places: tuple[tuple[Quantity, Quantity], ...]
