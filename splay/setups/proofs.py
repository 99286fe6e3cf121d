"""Proofs: what to measure after the cut, what it should be, how near is near enough."""

from __future__ import annotations

import math
from collections.abc import Iterator
from itertools import chain

from splay.layout import Check
from splay.parts import LegPart
from splay.parts.making import eight_wide
from splay.parts.member import MemberPart
from splay.piece import Piece
from splay.quantity import degrees as deg
from splay.setups.asker import NEAR_DEG, NEAR_MM, Asker, Words
from splay.setups.bent import bent_proofs
from splay.setups.boring import entry
from splay.setups.buttons import button_proofs
from splay.setups.card import Proof
from splay.setups.dress import dress_proofs
from splay.setups.foot import long_point, sides_halved
from splay.setups.hand_holds import hand_hold_proofs
from splay.setups.held import held_proofs
from splay.setups.hollows import hollow_proofs
from splay.setups.joins import join_proofs
from splay.setups.leg_ends import pilot_deep, shoulder_first
from splay.setups.leg_marks import kerf_deep
from splay.setups.leg_sets import LegSet
from splay.setups.made import Made
from splay.setups.member_proofs import between_proofs, rope_proofs
from splay.setups.mouths import mouth_proofs
from splay.setups.outside import outside_proofs
from splay.setups.pegs import deepest
from splay.setups.scales import off_square, proving_scale
from splay.setups.slips import (
    OTHER_MM,
    Slip,
    bore_slips,
    foot_slips,
    length_slips,
)
from splay.setups.splines import spline_proofs
from splay.setups.stick_proofs import square_proofs, stick_proofs
from splay.setups.sweeps import sweep_proofs
from splay.setups.through import through_proofs
from splay.setups.wedge_cards import wedge_proofs
from splay.stance.members import MemberStance
from splay.stance.staked import LegStance, Stance
from splay.stance.wedges import wedge_made
from splay.work.marks import centre, leg_key
from splay.work.proofs import proof_id
from splay.work.takes import (
    Apart,
    BothSides,
    Deep,
    FirstShoulder,
    OneFace,
    Probed,
    RodInHole,
    Thick,
)

__all__ = ["NEAR_DEG", "NEAR_MM", "all_proofs", "off_square", "proving_scale"]


def all_proofs(made: Made, ask: Asker) -> tuple[Proof, ...]:
    """Every proof the piece asks for, in the order of work; holes against the stance as planned."""
    return (
        *(_mark(check, made.checks, ask) for check in made.checks),
        *(_bore(made.piece, leg, made.planned.legs, ask) for leg in made.planned.legs),
        *mouth_proofs(made.piece, made.planned, made.shop, ask),
        *dress_proofs(made.piece, ask),
        *hollow_proofs(made.piece, ask),
        *_pegs(made, ask),
        *(_foot(made, leg, part, ask) for leg, part in zip(made.real.legs, made.legs, strict=True)),
        *stick_proofs(made, ask),
        *_shaped(made, ask),
        *bent_proofs(made.bent, ask),
        *wedge_proofs(made.piece, made.sets, ask),
        *square_proofs(made, ask),
        *join_proofs(made.joins, ask),
        *spline_proofs(made.piece, made.through, ask),
        *held_proofs(made.sticks, made.screws, ask),
        *sweep_proofs(made.sticks, made.real.bodies, ask),
        *hand_hold_proofs(made.piece, ask),
        *button_proofs(made.sticks, made.grooved, made.read, ask),
        *outside_proofs(made.piece, ask),
        *through_proofs(made.through_dowels, ask),
        *between_proofs(made.piece, made.members, made.runs, ask),
        *rope_proofs(made.ropes, ask),
    )


def doubted(
    piece: Piece,
    planned: Stance,
    runs: tuple[MemberStance, ...],
    members: tuple[MemberPart, ...],
    ask: Asker,
) -> frozenset[str]:
    """Readings that later figures would follow but a slip explains better: they wait to be read again."""
    proofs = [
        _bore(piece, leg, planned.legs, ask)
        for leg in planned.legs
        if proof_id("bore", leg.id) in ask.answers
    ]
    proofs += between_proofs(piece, members, runs, ask)
    return frozenset(proof.id for proof in proofs if proof.verdict == "slip")


def _mark(check: Check, checks: tuple[Check, ...], ask: Asker) -> Proof:
    """A distance between two marks on the top."""
    label, expected = check.figure.label, check.figure.quantity
    slips = (
        Slip(other.figure.quantity.value, f"that is {other.figure.label.lower()}")
        for other in checks
        if abs(other.figure.quantity.value - expected.value) > OTHER_MM
    )
    words = Words(
        what=label,
        how=Apart(check.one, check.two),
        matters="a mark moved now costs nothing; a hole cannot be moved",
        part=f"leg.{check.legs[0]}",
        station="top",
        short=label,
    )
    return ask.length(("mark", *check.of), expected, words, chain(slips, length_slips(expected.value)))


def _bore(piece: Piece, leg: LegStance, legs: tuple[LegStance, ...], ask: Asker) -> Proof:
    """One bored hole: the lean of a rod standing in it, read along the sightline."""
    lean, entered = leg.boring.resultant, entry(piece, leg)
    travel = leg.exposed * math.radians(NEAR_DEG) / deg.cos(lean)
    words = Words(
        what=f"Lean of a straight rod in hole {leg.number}",
        how=RodInHole(centre(leg.number, entered.up), entered.up, entered.leans),
        matters=f"half a degree moves this foot by {ask.show.length(travel).text}",
        part=f"leg.{leg.number}",
        station="boring",
        short=f"leg {leg.number} reads",
        leg=leg.number,
    )
    return ask.angle(("bore", leg.id), lean, words, bore_slips(ask.scale, leg, legs))


def _pegs(made: Made, ask: Asker) -> Iterator[Proof]:
    """How deep the holes of a support's pegs came out: too deep comes out at the show side."""
    for index, support in enumerate(made.piece.supports):
        deep = deepest(made.piece, made.planned, index)
        if deep <= 0.0:
            continue
        on = leg_key(next(leg.number for leg in made.planned.legs if leg.support == index))
        words = Words(
            "Peg holes, deep", Probed(on),
            "too deep breaks out, too short holds only one side", on, "boring", "peg holes, deep",
        )  # fmt: skip
        yield ask.length(("peg", support.id), ask.show.length(deep), words)


def _foot(made: Made, leg: LegStance, part: LegPart, ask: Asker) -> Proof:
    """One leg: its long and its short side from the tenon's end, halved."""
    point = long_point(made.piece, made.real, leg, part, ask.show)
    words = Words(
        what=f"Length of leg {leg.number}, both sides halved",
        how=BothSides(leg_key(leg.number), point.end, point.line, point.short_line),
        matters="what is over comes off at levelling; what is short lowers the whole piece",
        part=f"leg.{leg.number}",
        station="legs",
        short=f"leg {leg.number} reads",
        leg=leg.number,
    )
    return ask.length(("foot", leg.id), ask.show.length(sides_halved(point, part)), words, foot_slips(part))


def _shaped(made: Made, ask: Asker) -> Iterator[Proof]:
    """Tenons, shoulders, eight sides, tapers and slots of each set of legs made alike."""
    for one in made.sets:
        part, support, leg = one.part, one.support, one.legs[0]
        on = f"leg.{part.number}"
        if support.joint.tenon == "none":
            yield from _screwed(one, ask)
        elif support.joint.tenon == "flat":
            words = Words(
                "Tenon, from its end to the higher shoulder",
                FirstShoulder(on),
                "shoulders at another slope stand open on one side", on, "legs", "to the shoulder",
            )  # fmt: skip
            yield ask.length(("shoulder", *one.proof), ask.show.length(shoulder_first(one)), words)
        else:
            words = Words(
                "Tenon, thick, at its end",
                Thick(on, "tenon's end"),
                "a parallel tenon driven hard splits the seat", on, "legs", "tenon, thick",
            )  # fmt: skip
            yield ask.length(("tenon", *one.proof), ask.show.length(leg.bore.tip), words)
        if part.eight is not None:
            words = Words(
                "One of the eight faces at its finished foot, wide",
                OneFace(on, "finished foot"),
                "uneven faces make an oval leg", on, "legs", "a face, wide",
            )  # fmt: skip
            wide = eight_wide(support.leg.at_foot)
            yield ask.length(("facet", *one.proof), ask.show.length(wide), words)
        if part.tapers:
            end = part.tapers[-1].towards
            where = {"foot": "finished foot", "top": "place where it leaves the seat", "waist": "waist"}[
                end
            ]
            words = Words(
                f"Leg at its {where}", Thick(on, where),
                "parts alike matter more than parts to the drawing", on, "legs", f"at the {end}",
            )  # fmt: skip
            yield ask.length(("taper", *one.proof), ask.show.length(part.tapers[-1].thin), words)
        if wedge_made(made.piece, leg) is not None:
            words = Words(
                "Wedge slot, deep", Deep(on, "down the slot from the tenon's end"),
                "a slot past the ring splits the leg below its joint", on, "legs", "slot, deep",
            )  # fmt: skip
            yield ask.length(("kerf", *one.proof), ask.show.length(kerf_deep(leg, part)), words)


def _screwed(one: LegSet, ask: Asker) -> Iterator[Proof]:
    """The pilot of a leg on a screw."""
    on = f"leg.{one.part.number}"
    words = Words(
        "Pilot in the leg, deep", Deep(on, "or a shank, to the bottom from the middle of the upper end"),
        "too shallow holds the leg out of its recess", on, "legs", "pilot, deep",
    )  # fmt: skip
    yield ask.length(("pilot", *one.proof), ask.show.length(pilot_deep(one.support.joint)), words)
