"""How a reading is taken, as data: which instrument, from where to where, along what, on which face."""

from __future__ import annotations

from dataclasses import dataclass
from functools import singledispatch

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
    face: str = ""
    over: bool = False


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
    end: str = "foot"


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
    """A rule across one of eight faces, and across its neighbour: both must agree."""

    part: str


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
class SawnTop:
    """A bevel gauge on an end sawn to the lean: stock down a line or face of the leg, blade on the end."""

    part: str
    line: str


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
    | StandsOut | SawnTop | Bevelled | Sticks | Gap
    | Wall | EndToEnd
)  # fmt: skip


@singledispatch
def how(take: Take) -> str:
    """How a reading is taken, in words."""
    raise NotImplementedError(type(take).__name__)


@how.register
def _(take: Apart) -> str:
    if take.two is None:
        return "Rule from the pricked mark to the edge, where that is nearest."
    return "Rule from mark to mark, pricked, not drawn."


@how.register
def _(take: RodInHole) -> str:
    if take.leans is None:
        return f"A straight rod in the hole; a square on the {take.face} against it, from two sides."
    way = "the way the arrow points" if take.leans.by == "arrow" else "against the arrow"
    return (
        f"A straight rod in the hole; the gauge on the {take.face}, on the sightline, against the rod: it "
        f"leans {way}. From square to that line the rod must look upright."
    )


@how.register
def _(take: BothSides) -> str:
    if not take.long:
        return f"Rule from the {take.end}, along the leg."
    return (
        f"From the {take.end}: along its {take.long}, then along its {take.short}; add the two and halve."
    )


@how.register
def _(take: SawnLine) -> str:
    if take.over:
        return (
            f"Bevel gauge over the sawn end, square to the {take.face}: its stock along the middle line, "
            "its blade down the end."
        )
    if take.face:
        return (
            f"Bevel gauge on the {take.face}: its stock along the middle line, its blade along the sawn "
            "line."
        )
    return f"Bevel gauge on the {take.side}: its stock along the corner, its blade along the sawn line."


@how.register
def _(take: Corner) -> str:
    ends = "shoulder to shoulder" if take.shoulders else "end to end"
    if not take.edge:
        return f"Rule along the middle line of its {take.face}, {ends}."
    return f"Rule along the corner between its {take.face} and its {take.edge}, {ends}."


@how.register
def _(take: Thick) -> str:
    return f"Calipers at its {take.at}, across and then square to that."


@how.register
def _(take: AcrossEnd) -> str:
    return (
        f"Rule across its {take.on} at the {take.end}, square to the stick, where that is sawn shorter: "
        f"from its {take.other} to its {take.side}."
    )


@how.register
def _(take: ToLine) -> str:
    return f"Rule along the corner between its {take.face} and its {take.edge}, from the {take.start}."


@how.register
def _(take: Mortised) -> str:
    return f"Rule across a mortise on the {take.face}, from its outer wall to its inner one."


@how.register
def _(take: StandsOut) -> str:
    return (
        f"A screw in its hole until its head sits: rule along it, from the {take.upper} to its point. That "
        "much goes in."
    )


@how.register
def _(take: ToGroove) -> str:
    return f"Rule down the {take.side}, from the {take.upper} to the groove's nearer edge."


@how.register
def _(take: ArcHigh) -> str:
    return f"Straight-edge over both corners of the {take.edge}; rule up from it to the arc in the middle."


@how.register
def _(take: OffString) -> str:
    return (
        "The stick on its side, its bend level, a string over it from the middle of its upper end to the "
        "middle of the foot's place: calipers halfway over the wood at its back, a rule from there to it."
    )


@how.register
def _(take: MouthLong) -> str:
    way = "the longer way, " if take.leans else ""
    return f"Rule over the mouth, {way}from rim to rim: where a straight-edge on the face loses the wood."


@how.register
def _(take: TopThick) -> str:
    return (
        "Calipers over its edge, before that is rounded, at four places all round; the least of them. A "
        "straight-edge laid over the face tells whether it is flat."
    )


@how.register
def _(take: UnderEdge) -> str:
    return f"A straight-edge over the middle, along the {take.line}; rule from it down to the wood there."


@how.register
def _(take: SlotLong) -> str:
    return "Rule down the middle of the slot, from one round end to the other."


@how.register
def _(take: Butt) -> str:
    return "Calipers over its thick end, on both faces."


@how.register
def _(take: OneFace) -> str:
    return "Rule across a face, then across its neighbour: they must agree."


@how.register
def _(take: FirstShoulder) -> str:
    return "Rule from the tenon's end, down to the shoulder that comes first."


@how.register
def _(take: Deep) -> str:
    return f"Depth of the rule, {take.where}."


@how.register
def _(take: Probed) -> str:
    return "A thin stick down the middle of the hole, marked where the face meets it, then measured."


@how.register
def _(take: SawnTop) -> str:
    return f"Bevel gauge: its stock down the {take.line}, its blade along the sawn end."


@how.register
def _(take: Bevelled) -> str:
    return f"Bevel gauge: its stock across the {take.face}, its blade down the {take.edge}."


@how.register
def _(take: Sticks) -> str:
    first = "A straight rod through the hole" if take.rod else "Dry, a straight stick on both marks"
    return (
        f"{first}; the protractor's blade on the side it leaves, in the plane of the two sticks: the "
        "acute angle."
    )


@how.register
def _(take: Gap) -> str:
    return "Dry: two sticks slid apart from mark to mark, held together, then measured."


@how.register
def _(take: Wall) -> str:
    return "Depth of the rule against the wall on the obtuse side, where it is shallowest."


@how.register
def _(take: EndToEnd) -> str:
    return "Hook the rule on one end and read at the other."
