"""Set-up cards for the upper ends of legs set into the seat: sloped shoulders; pilots for screws."""

from __future__ import annotations

import math
from collections.abc import Iterator

from splay.parts.leg import LegPart
from splay.piece import DowelScrew, Joint, Piece, Shouldered, StakedLegs
from splay.piece.joints import SPARE_MM
from splay.quantity import Show
from splay.quantity import degrees as deg
from splay.setups.card import SetUp
from splay.setups.leg_sets import LegSet, leg_sets
from splay.setups.plain_card import Bench, plain_card
from splay.setups.scenes import PilotHole, TenonMade
from splay.shop import Shop, TiltingTable, Tool
from splay.stance.lines import named_faces, socket_line, turned
from splay.stance.staked import LegStance, Stance
from splay.stance.taper import taper_at
from splay.stance.vectors import Vec, cross, dot
from splay.work.does import Bit, Do, OnEnd, OverEnd, Plain
from splay.work.joinery import Between
from splay.work.lays import Upright
from splay.work.marks import Kind, Mark, leg_key
from splay.work.proofs import proof_id

_UPRIGHT = "Clamp the leg in a vice or against a fence, plumb; follow the drill's own manual."
_ROLLS = "Hold it so that it cannot roll, hands 150 mm from the blade; follow the saw's own manual."


def leg_end_cards(
    piece: Piece, stance: Stance, parts: tuple[LegPart, ...], shop: Shop, show: Show
) -> Iterator[SetUp]:
    """Upper ends that lean on a leg's own lines or faces: sloped shoulders; pilots for screws."""
    for one in leg_sets(piece, stance, parts):
        yield from _shoulders(one, show)
        for tool in shop.owned():
            yield from _screwed(one, tool, show)


def _shoulders(one: LegSet, show: Show) -> Iterator[SetUp]:
    """A tenon with corners: its long way in line with the lean, its shoulders in the underside's plane."""
    joint = one.support.joint
    if not isinstance(joint, Shouldered):
        return
    does: list[Do] = []
    flat = one.support.leg.section != "round"
    inside = one.part.in_top.quantity.value
    for leg in one.legs:
        named, sides = f"leg {leg.number}", _outer_inner(one.support, leg, flat)
        does.append(_tenon_line(one, leg, flat, show))
        for a, b in zip(sides[::2], sides[1::2], strict=True):
            at_a, at_b = (show.length(inside + _plane_at(one.support, leg, way)) for _, way in (a, b))
            does.append(Between(named, "the shoulders", "tenon end", a[0], at_a, b[0], at_b))
    does.append(
        Plain(
            f"Tenon {show.length(joint.socket).text} along that line by {show.length(joint.across).text} "
            "square to it, in the middle of the leg."
        )
    )
    yield plain_card(
        f"{one.key}.shoulder",
        "legs",
        "shoulder",
        Bench("making", "Saw, chisel and rasp"),
        f"Tenons and shoulders on {one.named}",
        one.part.in_top,
        "Tenon, long",
        TenonMade(
            f"{show.length(joint.socket).text} by {show.length(joint.across).text}",
            one.part.in_top.quantity.text,
            sloped=True,
        ),
        does=tuple(does),
        caution="Chisel away from the body and the holding hand.",
        legs=one.numbers,
        proofs=(proof_id("shoulder", *one.proof),),
        uses=tuple(
            Mark(Kind.FACES if flat else Kind.OUTER_LINE, leg_key(number)) for number in one.numbers
        ),
        makes=tuple(Mark(Kind.TENON, leg_key(number)) for number in one.numbers),
    )


def _tenon_line(one: LegSet, leg: LegStance, flat: bool, show: Show) -> Do:
    """The tenon's long middle line on the leg's end, in the plane of its lean to the seat."""
    mark, named = Mark(Kind.TENON, leg_key(leg.number)), f"leg {leg.number}"
    what = "the tenon's long middle line"
    if not flat:
        nought = show.length(0.0)
        return OnEnd(mark, named, "tenon end", "outer line", nought, show.angle(0.0), "clockwise", what)
    line = socket_line(leg)
    faces = named_faces(one.support.leg, leg)
    face = max(faces, key=lambda other: dot(other[1], line))
    turn = turned(leg.d, face[1], line)
    beside = cross(leg.d, face[1])
    toward = max(faces, key=lambda other: dot(other[1], beside) * math.copysign(1.0, turn))
    off = one.support.leg.at_top / 2.0 * deg.tan(abs(turn))
    return OverEnd(mark, named, "tenon end", face[0], show.closely(off), toward[0], what)


def _outer_inner(support: StakedLegs, leg: LegStance, flat: bool) -> tuple[tuple[str, Vec], ...]:
    """The sides the shoulders' plane is marked on, two opposite ones at a time."""
    if flat:
        return named_faces(support.leg, leg)
    w = socket_line(leg)
    return (("outer line", w), ("inner line", (-w[0], -w[1], -w[2])))


def _plane_at(support: StakedLegs, leg: LegStance, way: Vec) -> float:
    """Where the underside's plane meets a side of the leg, from its middle, along the leg, mm."""
    k = taper_at(support.leg, leg.exposed, 0.0)
    return -support.leg.at_top / 2.0 * way[2] / (leg.d[2] - k * way[2])


def shoulder_first(one: LegSet) -> float:
    """From the tenon's end to the shoulder that comes first, mm."""
    sides = _outer_inner(one.support, one.legs[0], one.support.leg.section != "round")
    inside = one.part.in_top.quantity.value
    return inside + min(_plane_at(one.support, one.legs[0], way) for _, way in sides)


def pilot_deep(joint: Joint) -> float:
    """How deep a screw's pilot goes into its leg, mm."""
    return joint.in_leg + SPARE_MM


def _screwed(one: LegSet, tool: Tool, show: Show) -> Iterator[SetUp]:
    """Legs on double-ended screws: a pilot along the leg's middle, down from its square end."""
    joint = one.support.joint
    if not isinstance(joint, DowelScrew):
        return
    if isinstance(tool, TiltingTable):
        deep = pilot_deep(joint)
        figure = show.figure(
            f"{one.key}.pilot", "Pilot in the leg, deep", deep, "S − k + 3 mm",
            show.input("S", "whole screw", joint.length), show.input("k", "in the top", joint.into_top),
        )  # fmt: skip
        keys = tuple(leg_key(number) for number in one.numbers)
        yield plain_card(
            f"{one.key}.pilot",
            "legs",
            "pilot",
            tool,
            f"Pilot in the upper end of {one.named}",
            figure,
            "Deep, along the leg",
            PilotHole(show.length(joint.core).text, figure.quantity.text),
            lays=(Upright(keys, one.named, UPPER),),
            does=(
                Plain("The end square first, in its middle pricked: it closes on the recess all round."),
                Bit(show.length(joint.core), figure.quantity, None),
            ),
            caution=_UPRIGHT,
            legs=one.numbers,
            proofs=(proof_id("pilot", *one.proof),),
            makes=tuple(Mark(Kind.TENON, key) for key in keys),
        )  # fmt: skip


UPPER = "upper end"
