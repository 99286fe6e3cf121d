"""Proofs: what to measure after the cut, what it should be, how near is near enough."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass

from splay.layout import Layout
from splay.layout.steps import Check
from splay.parts import LegPart
from splay.parts.member import MemberPart, RopePart
from splay.parts.stick import SQUARE_DEG, StickPart
from splay.piece import DowelScrew, Piece, Shouldered, Through
from splay.quantity import Figure, Show
from splay.quantity import degrees as deg
from splay.setups.asker import NEAR_DEG, NEAR_MM, Asker, Words
from splay.setups.card import Proof
from splay.setups.crosscut import UNMEASURED, Cut, station_of
from splay.setups.leg_marks import kerf_deep
from splay.setups.leg_shapes import LegSet, pilot_deep, shoulder_first
from splay.setups.loose_joints import dowels_of
from splay.setups.scales import off_square, proving_scale
from splay.setups.slips import (
    OTHER_MM,
    Slip,
    angle_slips,
    bore_slips,
    foot_slips,
    gap_slips,
    length_slips,
    read_slips,
)
from splay.stance.members import MemberStance, acute
from splay.stance.staked import LegStance, Stance

__all__ = ["NEAR_DEG", "NEAR_MM", "Known", "all_proofs", "off_square", "proving_scale", "rod_checks"]
ROD_MM = 200.0


@dataclass(frozen=True)
class Known:
    """What the proofs are made from: the planned and the real stance, and every part."""

    piece: Piece
    planned: Stance
    real: Stance
    legs: tuple[LegPart, ...]
    sticks: tuple[StickPart, ...]
    cuts: tuple[Cut, ...]
    runs: tuple[MemberStance, ...]
    members: tuple[MemberPart, ...]
    ropes: tuple[RopePart, ...]
    layout: Layout
    sets: tuple[LegSet, ...]


def all_proofs(known: Known, ask: Asker) -> tuple[Proof, ...]:
    """Every proof the piece asks for, in the order of work; holes against the stance as planned."""
    checks = known.layout.checks
    return (
        *(_mark(check, checks, ask) for check in checks),
        *(_bore(leg, known.planned.legs, ask) for leg in known.planned.legs),
        *(_foot(leg, part, ask) for leg, part in zip(known.real.legs, known.legs, strict=True)),
        *(_cut(cut, ask) for cut in known.cuts),
        *(_long(stick, ask) for stick in known.sticks if stick.role not in UNMEASURED),
        *_shaped(known, ask),
        *_squared(known, ask),
        *_between(known.members, known.runs, ask),
        *_roped(known.ropes, ask),
    )


def doubted(
    planned: Stance, runs: tuple[MemberStance, ...], members: tuple[MemberPart, ...], ask: Asker
) -> frozenset[str]:
    """Readings that later figures would follow but a slip explains better: they wait to be read again."""
    proofs = [_bore(leg, planned.legs, ask) for leg in planned.legs if f"bore.{leg.number}" in ask.answers]
    proofs += _between(members, runs, ask)
    return frozenset(proof.id for proof in proofs if proof.verdict == "slip")


def _mark(check: Check, checks: tuple[Check, ...], ask: Asker) -> Proof:
    """A distance between two marks on the top."""
    label, expected = check.figure.label, check.figure.quantity
    slips = [
        Slip(other.figure.quantity.value, f"that is {other.figure.label.lower()}")
        for other in checks
        if abs(other.figure.quantity.value - expected.value) > OTHER_MM
    ]
    words = Words(
        what=label,
        how="Rule from centre to centre of the marks, pricked, not drawn.",
        matters="a mark moved now costs nothing; a hole cannot be moved",
        part=f"leg.{check.legs[0]}",
        station="top",
        short=label,
    )
    return ask.length(check.id, expected, words, [*slips, *length_slips(expected.value)])


def _bore(leg: LegStance, legs: tuple[LegStance, ...], ask: Asker) -> Proof:
    """One bored hole: the lean of a rod standing in it, read along the sightline."""
    lean = leg.boring.resultant
    travel = leg.exposed * math.radians(NEAR_DEG) / deg.cos(lean)
    words = Words(
        what=f"Lean of a straight rod in hole {leg.number}",
        how=(
            "Stand a straight rod in the hole and hold the gauge on its sightline, against the "
            "rod and the face you bored from; square to that line nothing should show."
        ),
        matters=f"half a degree moves this foot by {ask.show.length(travel).text}",
        part=f"leg.{leg.number}",
        station="boring",
        short=f"leg {leg.number} reads",
        leg=leg.number,
    )
    return ask.angle(f"bore.{leg.number}", lean, words, bore_slips(ask.scale, leg, legs))


def _foot(leg: LegStance, part: LegPart, ask: Asker) -> Proof:
    """One leg: its finished length along the middle."""
    words = Words(
        what=f"Length of leg {leg.number}, along its middle",
        how="Measure the long side and the short side of the leg, add them and halve.",
        matters="what is over comes off at levelling; what is short lowers the whole piece",
        part=f"leg.{leg.number}",
        station="legs",
        short=f"leg {leg.number} reads",
        leg=leg.number,
    )
    return ask.length(f"foot.{leg.number}", part.finished.quantity, words, foot_slips(part))


def _cut(cut: Cut, ask: Asker) -> Proof:
    """The angle of a sawn end, on the side where it shows most."""
    part, body, end = cut.uses[0]
    on = cut.mitre if cut.mitre > SQUARE_DEG else cut.tilt
    where = body.sides.face if cut.mitre > SQUARE_DEG or cut.tilt <= SQUARE_DEG else body.sides.edge
    opens = ask.show.length(part.stock[0].quantity.value * math.radians(NEAR_DEG)).text
    words = Words(
        what=f"Sawn end of the {part.name}, on the {where}",
        how=f"Gauge's stock along the {where}'s arris, blade along the sawn line.",
        matters=f"half a degree opens {opens} at the far side",
        part=part.key,
        station=station_of(part.role),
        short="sawn end",
    )
    return ask.angle(f"cut.{part.key}.{end}", on, words)


def _long(stick: StickPart, ask: Asker) -> Proof:
    """A stick along the corner its card measures."""
    arris = stick.arrises[0]
    expected = arris.length.quantity
    slips = [
        Slip(other.length.quantity.value, f"that is along the {other.where}")
        for other in stick.arrises[1:]
        if abs(other.length.quantity.value - expected.value) > OTHER_MM
    ]
    words = Words(
        what=f"{stick.name[0].upper()}{stick.name[1:]}, along the {arris.where}",
        how="Hook the rule on one long point and read at the other.",
        matters="parts alike must agree among themselves before they agree with the plan",
        part=stick.key,
        station=station_of(stick.role),
        short=stick.name,
    )
    return ask.length(f"long.{stick.key}", expected, words, [*slips, *length_slips(expected.value)])


_CALIPERS = "Calipers, across and then square to that"


def _shaped(known: Known, ask: Asker) -> Iterator[Proof]:
    """Tenons, shoulders, eight sides, tapers and slots of each set of legs made alike."""
    for one in known.sets:
        part, support, leg = one.part, one.support, one.legs[0]
        on = f"leg.{part.number}"
        if isinstance(support.joint, DowelScrew):
            yield from _screwed(one, ask)
        elif isinstance(support.joint, Shouldered):
            words = Words(
                "Tenon, from its end to the higher shoulder",
                "Rule from the tenon's end, down to the shoulder that comes first.",
                "shoulders at another slope stand open on one side", on, "legs", "to the shoulder",
            )  # fmt: skip
            yield ask.length(f"shoulder.{part.number}", ask.show.length(shoulder_first(one)), words)
        else:
            words = Words(
                "Tenon, thick, at its end",
                f"{_CALIPERS}. Then try it in a real hole: snug, never hammered.",
                "a parallel tenon driven hard splits the seat", on, "legs", "tenon, thick",
            )  # fmt: skip
            yield ask.length(f"tenon.{part.number}", ask.show.length(leg.bore.tip), words)
        if part.eight is not None:
            face = part.stock.quantity.value * (math.sqrt(2.0) - 1.0)
            words = Words(
                "One of the eight faces, wide",
                "Rule across a face, then across its neighbour: they must agree.",
                "uneven faces make an oval leg", on, "legs", "a face, wide",
            )  # fmt: skip
            yield ask.length(f"octagon.{part.number}", ask.show.length(face), words)
        if part.tapers:
            end = part.tapers[-1].towards
            where = "finished foot" if end == "foot" else "place where it leaves the seat"
            words = Words(
                f"Leg at its {where}", f"{_CALIPERS}, at its {where}.",
                "legs alike matter more than legs to the drawing", on, "legs", f"at the {end}",
            )  # fmt: skip
            yield ask.length(f"taper.{part.number}", ask.show.length(part.tapers[-1].thin), words)
        if isinstance(support.joint, Through) and leg.boring.bearing is not None:
            words = Words(
                "Wedge slot, deep", "Depth of the rule down the slot, from the tenon's end.",
                "a slot past the ring splits the leg below its joint", on, "legs", "slot, deep",
            )  # fmt: skip
            yield ask.length(f"kerf.{part.number}", ask.show.length(kerf_deep(leg, part)), words)


def _screwed(one: LegSet, ask: Asker) -> Iterator[Proof]:
    """The sawn upper end of a leg on a screw, and its pilot."""
    on, leg = f"leg.{one.part.number}", one.legs[0]
    words = Words(
        "Sawn upper end, off square",
        "Bevel gauge's stock along the outer line, blade along the sawn end.",
        "an end at another slope stands open on one side", on, "legs", "upper end",
    )  # fmt: skip
    yield ask.angle(f"topcut.{one.part.number}", leg.boring.resultant, words)
    words = Words(
        "Pilot in the leg, deep", "A drill's shank to the bottom, from the middle of the sawn end.",
        "too shallow holds the leg off the seat", on, "legs", "pilot, deep",
    )  # fmt: skip
    yield ask.length(f"pilot.{one.part.number}", ask.show.length(pilot_deep(one.support.joint)), words)


def _squared(known: Known, ask: Asker) -> Iterator[Proof]:
    """Bevels, notches and slots of square stock, once for parts alike."""
    done: set[str] = set()
    for stick in known.sticks:
        if stick.alike in done:
            continue
        done.add(stick.alike)
        station = station_of(stick.role)
        if stick.bevels:
            words = Words(
                stick.bevels[0].label, "Gauge's stock on the face, blade down the bevelled edge.",
                "a wrong bevel lifts one arris off the top", stick.key, station, "bevel",
            )  # fmt: skip
            yield ask.angle(f"rip.{stick.key}", stick.bevels[0].quantity.value, words)
        if len(stick.notches) > 1:
            lap = "lap" in stick.notches[0].key
            words = Words(
                stick.notches[1].label, "Depth of the rule from the edge, at both cheeks.",
                "two laps too deep leave the rails apart", stick.key,
                "stretchers" if lap else "legs", "notch, deep",
            )  # fmt: skip
            yield ask.length(f"notch.{stick.key}", stick.notches[1].quantity, words)
    for index, dowels, _, what in dowels_of(known.piece):
        holes = "Slots" if dowels.way == "loose_tenon" else "Dowel holes"
        words = Words(
            f"{holes} of the {what}, deep",
            "Depth of the rule, at both ends of a slot, or a marked dowel.",
            "too shallow holds the joint open", f"s{index}",
            "legs" if known.piece.supports[index].kind == "slab_leg" else "stretchers",
            f"{holes.lower()}, deep",
        )  # fmt: skip
        yield ask.length(f"slot.{index}", ask.show.length(dowels.depth), words)


def _between(
    members: tuple[MemberPart, ...], runs: tuple[MemberStance, ...], ask: Asker
) -> Iterator[Proof]:
    """Of each stretcher, dry-fitted: both angles, the gap, both sockets; and the stick as it was cut."""
    pairs = list(zip(members, runs, strict=True))
    for part, run in pairs:
        for e in (0, 1):
            yield _read(part, run, e, ask)
    for part, _ in pairs:
        words = Words(
            what=f"Clear gap for {part.name}",
            how="Two sticks slid apart between the marks, then measured, or inside calipers.",
            matters="the stretcher is cut to this, not to the drawing",
            part=f"member.{part.number}",
            station="stretchers",
            short=part.name,
        )
        yield ask.length(f"gap.{part.number}", part.gap.quantity, words, gap_slips(part, members))
    for part, _ in pairs:
        for e, end in enumerate(part.ends):
            words = Words(
                what=f"Socket of {part.name} in {end.into}, deep at its obtuse side",
                how="Depth of the rule against the wall on the obtuse side, where it is shallowest.",
                matters="the tenon is as long as the hole is deep, not as it should be",
                part=f"member.{part.number}",
                station="stretchers",
                short=f"{part.name}, {end.into}",
            )
            yield ask.length(f"depth.{part.number}.{e + 1}", end.obtuse_wall.quantity, words)
    for part, _ in pairs:
        words = Words(
            what=f"{part.name[0].upper()}{part.name[1:]}, over all, as it was cut",
            how="Hook the rule on one end and read at the other.",
            matters="too long spreads the legs, too short leaves the socket empty",
            part=f"member.{part.number}",
            station="stretchers",
            short=part.name,
        )
        total = part.total.quantity
        slips = [Slip(part.gap.quantity.value, "that is the gap alone: without the sockets")]
        yield ask.length(f"rail.{part.number}", total, words, [*slips, *length_slips(total.value)])


def _read(part: MemberPart, run: MemberStance, e: int, ask: Asker) -> Proof:
    """The acute angle between a stretcher and what it goes into, dry-fitted."""
    end = part.ends[e]
    words = Words(
        what=f"Angle between {part.name} and {end.into}, acute side",
        how=(
            "Dry-fitted, a straight stick on both marks; protractor along the leg, in the plane of the two."
        ),
        matters="always the acute angle: one habit, no slips",
        part=f"member.{part.number}",
        station="stretchers",
        short=f"{part.name}, {end.into}",
    )
    slips = read_slips(ask.stick_scale, run, e)
    return ask.between(f"read.{part.number}.{e + 1}", acute(end.opening_on), words, slips)


def _roped(ropes: tuple[RopePart, ...], ask: Asker) -> Iterator[Proof]:
    """A rod through each hole of a rope, against its leg."""
    for rope in ropes:
        for k, hole in enumerate(rope.holes):
            words = Words(
                what=f"Angle between a rod in the hole of {rope.name} and leg {hole.leg}, acute side",
                how="A straight rod through the hole; protractor along the leg, in the plane of the two.",
                matters="a hole that points past its neighbour chafes the rope",
                part=f"member.{rope.number}",
                station="stretchers",
                short=f"{rope.name}, leg {hole.leg}",
            )
            on = acute(hole.opening_on)
            slips = angle_slips(ask.stick_scale, 90.0 - on) if on < 89.0 else ()
            yield ask.between(f"read.{rope.number}.{k + 1}", on, words, slips)


def rod_checks(leg: LegStance, planned_deg: float, show: Show) -> tuple[Figure, ...]:
    """The same lean without a gauge: where the tip of a rod of known length stands."""
    rod = show.input("R", "rod standing out of the hole, along its middle", ROD_MM)
    lean = show.input("ρ", "lean", planned_deg, "deg")
    key = f"bore.{leg.number}.rod"
    out = f"Tip of a rod {show.length(ROD_MM).text} out: "
    return (
        show.figure(
            f"{key}.up",
            out + "above the face",
            ROD_MM * deg.cos(planned_deg),
            "R · cos ρ",
            rod,
            lean,
        ),
        show.figure(
            f"{key}.over",
            out + "along the sightline",
            ROD_MM * deg.sin(planned_deg),
            "R · sin ρ",
            rod,
            lean,
        ),
    )
