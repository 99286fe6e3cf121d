"""How a reading is taken, in words: the only place with sentences about it."""

from __future__ import annotations

from functools import singledispatch

from splay.work.takes import (
    AcrossEnd,
    Apart,
    ArcHigh,
    Bevelled,
    BothSides,
    Butt,
    Corner,
    Deep,
    EndToEnd,
    FirstShoulder,
    Gap,
    Mortised,
    MouthLong,
    OffString,
    OneFace,
    Probed,
    RodInHole,
    SawnLine,
    SlotLong,
    StandsOut,
    Sticks,
    Take,
    Thick,
    ToGroove,
    ToLine,
    TopThick,
    UnderEdge,
    Wall,
)


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
    where = f" at its {take.at}" if take.at else ""
    return f"Rule across a face{where}, then across its neighbour: they must agree."


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
