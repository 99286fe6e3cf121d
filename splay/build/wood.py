"""The first steps: blanks, the seat glued up, a joint that is new tried on scrap."""

from __future__ import annotations

from collections.abc import Iterator

from splay.build.document import Build
from splay.build.known import Record
from splay.build.plainly import told
from splay.build.step import Step
from splay.piece import Piece, StakedLegs
from splay.plan import Plan
from splay.stance.strips import in_strips
from splay.work.phrases import cap, listed, so_many


def wood(piece: Piece, plan: Plan, build: Build, record: Record) -> Iterator[Step]:
    """Readying the wood, gluing boards, a practice joint where it is new to this maker."""
    thick = plan.made.show.length(piece.top.bored_thick).text
    flat = f"The seat's blank: flat on both faces, {thick} thick."
    if piece.top.left_on:
        flat += " The rest comes off when the holes are bored."
    do = [flat, *_blanks(piece, plan)]
    new = [joint for joint in _joints(piece) if joint not in record.joints]
    if new and not any(s.leg.spare for _, s in piece.staked()):
        do.append("One blank more of each kind than there are parts: a joint of it is new to you.")
    dry = "Dry enough that it stays where it is: wet wood bores badly and moves later."
    yield told("ready", "Ready the wood", do=(*do, dry))
    if len(piece.top.boards) > 1 and piece.top.gap is None:
        how: tuple[str, ...] = (
            "Lay the boards side by side, their show faces one way; plane the edges until no light shows.",
            "Glue, clamps above and below by turns, a straight-edge across: flat before it sets.",
        )
        if in_strips(piece.top):
            how = ("Start each seam in its middle, where the strips' lines must meet.", *how)
        yield told("glue_boards", "Glue the seat from its boards", do=how)
    if new or any(s.leg.practice for _, s in piece.staked()):
        why = (
            "This joint is in none of your finished pieces yet." if new else "A practice leg is made along."
        )
        how = (
            f"{why} Bore one hole at the setting of the first boring card into scrap as thick as the seat.",
            "Fit a tenon to it, read the angle, saw it through: then set out the real one."
            if any(s.joint.tenon != "none" for _, s in piece.staked())
            else "Turn a screw and an offcut of the leg home in it, read the angle: then set out the real "
            "one.",
        )
        yield told("practice", "Try the joint on scrap", "boring", do=how)


def _joints(piece: Piece) -> list[str]:
    """The ways legs are joined to the top, each once."""
    return list(dict.fromkeys(s.joint.way for _, s in piece.staked()))


def _blanks(piece: Piece, plan: Plan) -> Iterator[str]:
    """How many of what size to cut, in words."""
    for batch in plan.batches:
        part = next(one for one in plan.parts if one.number == batch.legs[0])
        many = int(batch.make.quantity.value)
        support = piece.supports[batch.support]
        assert isinstance(support, StakedLegs)
        more = [(support.leg.spare, "spare"), (support.leg.practice, "for practice")]
        along = [f"{count} {what}" for count, what in more if count]
        also = f", {listed(along)} among them" if along else ""
        blanks = so_many(many, "blank", "blanks")
        yield f"Legs: {blanks} {part.stock.quantity.text} square, {part.blank.quantity.text} long{also}."
    done: set[str] = set()
    for stick in plan.sticks:
        if stick.alike in done:
            continue
        done.add(stick.alike)
        many = sum(one.alike == stick.alike for one in plan.sticks) * piece.make
        size = " by ".join(figure.quantity.text for figure in stick.stock)
        blanks = so_many(many, "blank", "blanks")
        yield f"{cap(stick.name)}: {blanks} {size}, {stick.blank.quantity.text} long."
    for member in plan.members:
        size = f"{member.planned_total.quantity.text} and a little over"
        yield f"{cap(member.name)}: stock for {piece.make}, {size}."
