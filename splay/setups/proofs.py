"""Proofs: what to measure after the cut, what it should be, how near is near enough."""

from __future__ import annotations

import math
from collections.abc import Iterator
from itertools import chain

from splay.layout import Check
from splay.parts import LegPart
from splay.parts.making import eight_wide
from splay.parts.member import MemberPart
from splay.parts.rope import RopePart
from splay.parts.stick import SQUARE_DEG, StickPart
from splay.piece import Piece, Stretcher
from splay.piece.kinds import driven_through
from splay.quantity import degrees as deg
from splay.setups.asker import NEAR_DEG, NEAR_MM, Asker, Words
from splay.setups.bent import bent_proofs
from splay.setups.boring import entry
from splay.setups.buttons import button_proofs
from splay.setups.card import Proof
from splay.setups.crosscut import UNMEASURED, Cut, end_name, station_of
from splay.setups.dress import dress_proofs
from splay.setups.foot import long_point, sides_halved
from splay.setups.hand_holds import hand_hold_proofs
from splay.setups.held import held_proofs
from splay.setups.hollows import hollow_proofs
from splay.setups.joins import join_proofs
from splay.setups.leg_ends import pilot_deep, shoulder_first, top_side
from splay.setups.leg_marks import kerf_deep
from splay.setups.leg_sets import LegSet
from splay.setups.made import Made
from splay.setups.member_cards import socket_mark
from splay.setups.mouths import mouth_proofs
from splay.setups.outside import outside_proofs
from splay.setups.pegs import deepest
from splay.setups.rope_cards import hole_mark
from splay.setups.scales import off_square, proving_scale
from splay.setups.side_tapers import proved
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
from splay.setups.splines import spline_proofs
from splay.setups.stick_shapes import bevel
from splay.setups.sweeps import sweep_proofs
from splay.setups.through import through_proofs
from splay.setups.wedge_cards import wedge_proofs
from splay.stance.body import Body
from splay.stance.members import MemberStance, acute
from splay.stance.staked import LegStance, Stance
from splay.stance.wedges import wedge_made
from splay.work.marks import centre, leg_key, member_key
from splay.work.phrases import with_the
from splay.work.proofs import proof_id
from splay.work.takes import (
    AcrossEnd,
    Apart,
    Bevelled,
    BothSides,
    Corner,
    Deep,
    EndToEnd,
    FirstShoulder,
    Gap,
    OneFace,
    Probed,
    RodInHole,
    SawnLine,
    SawnTop,
    Sticks,
    Thick,
    Wall,
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
        *(proof for cut in made.cuts for proof in _cuts(cut, ask)),
        *(_long(stick, ask) for stick in made.sticks if stick.role not in UNMEASURED),
        *(_between_shoulders(stick, ask) for stick in made.sticks if stick.shoulders is not None),
        *_shaped(made, ask),
        *bent_proofs(made.bent, ask),
        *wedge_proofs(made.piece, made.sets, ask),
        *_squared(made, ask),
        *join_proofs(made.joins, ask),
        *spline_proofs(made.piece, made.through, ask),
        *held_proofs(made.sticks, made.screws, ask),
        *sweep_proofs(made.sticks, made.real.bodies, ask),
        *hand_hold_proofs(made.piece, ask),
        *button_proofs(made.sticks, made.grooved, made.read, ask),
        *outside_proofs(made.piece, ask),
        *through_proofs(made.through_dowels, ask),
        *_between(made.piece, made.members, made.runs, ask),
        *_roped(made.ropes, ask),
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
    proofs += _between(piece, members, runs, ask)
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


def _cuts(cut: Cut, ask: Asker) -> Iterator[Proof]:
    """The angle of a sawn end on each side that it is out of square on; on the face where it is square."""
    face, edge = cut.uses[0][1].sides.face, cut.uses[0][1].sides.edge
    if cut.mitre > SQUARE_DEG or cut.tilt <= SQUARE_DEG:
        yield _sawn(cut, "cut", face, cut.mitre, ask)
    else:
        yield _sawn(cut, "cut", edge, cut.tilt, ask)
    if cut.compound:
        yield _sawn(cut, "bevel", edge, cut.on_edge, ask)


def _sawn(cut: Cut, kind: str, where: str, on: float, ask: Asker) -> Proof:
    """The angle of a sawn end on one side of its part, degrees off square."""
    part, body, end = cut.uses[0]
    over = body.grown and where == body.sides.edge
    face = body.sides.face if body.grown else ""
    opens = ask.show.length(part.stock[0].quantity.value * math.radians(NEAR_DEG)).text
    words = Words(
        what=f"Sawn end of {with_the(part.name)}, {'off' if over else 'on'} the {face or where}",
        how=SawnLine(part.key, end_name(part.role, end), where, face, over),
        matters=f"half a degree opens {opens} at the far side",
        part=part.key,
        station=station_of(part.role),
        short="sawn end, bevel" if kind == "bevel" else "sawn end",
    )
    return ask.sawn((kind, part.key, end), on, words)


def _long(stick: StickPart, ask: Asker) -> Proof:
    """A stick along the corner its card measures."""
    arris = stick.arrises[0]
    face, edge = arris.between
    expected = arris.length.quantity
    slips = (
        Slip(other.length.quantity.value, f"that is along the {other.where}")
        for other in stick.arrises[1:]
        if abs(other.length.quantity.value - expected.value) > OTHER_MM
    )
    words = Words(
        what=f"{stick.name[0].upper()}{stick.name[1:]}, along the {arris.where}",
        how=Corner(stick.key, face, edge),
        matters="parts alike must agree among themselves before they agree with the plan",
        part=stick.key,
        station=station_of(stick.role),
        short=stick.name,
    )
    return ask.length(("long", stick.key), expected, words, chain(slips, length_slips(expected.value)))


def _between_shoulders(stick: StickPart, ask: Asker) -> Proof:
    """A tenoned stick between its shoulders, along the same corner."""
    assert stick.shoulders is not None
    arris = stick.arrises[0]
    face, edge = arris.between
    expected = ask.show.length(
        arris.length.quantity.value - stick.overall.quantity.value + stick.shoulders.quantity.value
    )
    words = Words(
        what=f"{stick.name[0].upper()}{stick.name[1:]}, between its shoulders, along the {arris.where}",
        how=Corner(stick.key, face, edge, shoulders=True),
        matters="the shoulders set the legs apart: aprons alike must agree",
        part=stick.key,
        station=station_of(stick.role),
        short=f"{stick.name}, shoulders",
    )
    slips = [Slip(arris.length.quantity.value, "that is end to end, with the tenons")]
    return ask.length(("shoulders", stick.key), expected, words, chain(slips, length_slips(expected.value)))


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
                "One of the eight faces, wide",
                OneFace(on),
                "uneven faces make an oval leg", on, "legs", "a face, wide",
            )  # fmt: skip
            wide = eight_wide(part.stock.quantity.value)
            yield ask.length(("octagon", *one.proof), ask.show.length(wide), words)
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
    """The sawn upper end of a leg on a screw, and its pilot."""
    on, leg = f"leg.{one.part.number}", one.legs[0]
    words = Words(
        "Sawn upper end, off square",
        SawnTop(on, top_side(one)),
        "an end at another slope stands open on one side", on, "legs", "upper end",
    )  # fmt: skip
    yield ask.sawn(("topcut", *one.proof), leg.boring.resultant, words)
    words = Words(
        "Pilot in the leg, deep", Deep(on, "or a shank, to the bottom from the middle of the sawn end"),
        "too shallow holds the leg off the seat", on, "legs", "pilot, deep",
    )  # fmt: skip
    yield ask.length(("pilot", *one.proof), ask.show.length(pilot_deep(one.support.joint)), words)


def _squared(made: Made, ask: Asker) -> Iterator[Proof]:
    """Bevels, notches and slots of square stock, once for parts alike."""
    done: set[str] = set()
    for stick, body in zip(made.sticks, made.real.bodies, strict=True):
        if stick.alike in done:
            continue
        done.add(stick.alike)
        station = station_of(stick.role)
        if stick.bevels:
            edge, wider, _ = next(b for b in (bevel(body, r) for r in body.rips) if b[2] > SQUARE_DEG)
            words = Words(
                stick.bevels[0].label, Bevelled(stick.key, wider, edge),
                "a wrong bevel lifts one arris off the top", stick.key, station, "bevel",
            )  # fmt: skip
            yield ask.sawn(("rip", stick.key), stick.bevels[0].quantity.value, words)
        # Two boards glued to one side are cut out, and read, as one.
        again = body.glued and f"{body.support}.glued" in done
        if len(stick.notches) > 1 and not again:
            done |= {f"{body.support}.glued"} if body.glued else set()
            lap = body.voids[0].kind == "lap"
            where = "from the edge, at both cheeks" if lap else "from the sawn foot, at both its sides"
            words = Words(
                stick.notches[1].label, Deep(stick.key, where),
                "two laps too deep leave the rails apart" if lap else "unlike feet are seen from afar",
                stick.key, "stretchers" if lap else "legs", "notch, deep",
            )  # fmt: skip
            yield ask.length(("notch", stick.key), stick.notches[1].quantity, words)
        yield from _tapered(stick, body, ask)
    for index, joined in made.piece.joined():
        dowels, on = joined.dowels, made.piece.supports[index].id
        if driven_through(made.piece.supports[index]):
            continue
        loose = dowels.way == "loose_tenon"
        holes, both = ("Slots", ", at both ends of a slot") if loose else ("Dowel holes", "")
        words = Words(
            f"{holes} of the {joined.named}, deep",
            Deep(on, "square to the sawn end" + both),
            "too shallow holds the joint open", on,
            joined.station, f"{holes.lower()}, deep",
        )  # fmt: skip
        yield ask.length(("slot", on), ask.show.length(dowels.depth), words)


def _tapered(stick: StickPart, body: Body, ask: Asker) -> Iterator[Proof]:
    """How wide a tapered part is left at its narrower end, once for each pair of sides."""
    for n in proved(body):
        told, (a, b) = stick.tapers[n], body.tapers[n].side
        words = Words(
            told.left.label, AcrossEnd(
                stick.key, told.on, told.side, body.sides.named((-a, -b)), told.to
            ),
            "parts alike matter more than parts to the drawing", stick.key, station_of(stick.role),
            f"{stick.name}, {told.on}",
        )  # fmt: skip
        whole = told.left.quantity.value + body.tapers[n].off
        slips = [Slip(whole, "that is the width above the taper")]
        yield ask.length(("side_taper", stick.key, str(n)), told.left.quantity, words, slips)


def _between(
    piece: Piece, members: tuple[MemberPart, ...], runs: tuple[MemberStance, ...], ask: Asker
) -> Iterator[Proof]:
    """Of each stretcher, dry-fitted: both angles, the gap, both sockets; and the stick as it was cut."""
    pairs = list(zip(members, runs, strict=True))
    for part, run in pairs:
        for e in (0, 1):
            yield _read(part, run, e, ask)
    for part, _ in pairs:
        words = Words(
            what=f"Clear gap for {part.name}",
            how=Gap(socket_mark(part, 0), socket_mark(part, 1)),
            matters="the stretcher is cut to this, not to the drawing",
            part=f"member.{part.number}",
            station="stretchers",
            short=part.name,
        )
        yield ask.length(("gap", part.id), part.gap.quantity, words, gap_slips(part, members))
    for part, _ in pairs:
        for e, end in enumerate(part.ends):
            words = Words(
                what=f"Socket of {part.name} in {end.into}, deep at its obtuse side",
                how=Wall(socket_mark(part, e)),
                matters="the tenon is as long as the hole is deep, not as it should be",
                part=f"member.{part.number}",
                station="stretchers",
                short=f"{part.name}, {end.into}",
            )
            yield ask.length(("depth", part.id, f"{e + 1}"), end.obtuse_wall.quantity, words)
    for part, _ in pairs:
        words = Words(
            what=f"{part.name[0].upper()}{part.name[1:]}, over all, as it was cut",
            how=EndToEnd(member_key(part.number)),
            matters="too long spreads the legs, too short leaves the socket empty",
            part=f"member.{part.number}",
            station="stretchers",
            short=part.name,
        )
        total = part.total.quantity
        slips = [Slip(part.gap.quantity.value, "that is the gap alone: without the sockets")]
        yield ask.length(("rail", part.id), total, words, chain(slips, length_slips(total.value)))
        chosen = piece.members[part.number - 1]
        if isinstance(chosen, Stretcher) and chosen.section == "octagon":
            words = Words(
                f"One of the eight faces of {part.name}, wide",
                OneFace(member_key(part.number)),
                "uneven faces are seen, and lie askew in the dry fit", f"member.{part.number}",
                "stretchers", f"{part.name}, a face",
            )  # fmt: skip
            yield ask.length(("octagon", part.id), ask.show.length(eight_wide(chosen.diameter)), words)


def _read(part: MemberPart, run: MemberStance, e: int, ask: Asker) -> Proof:
    """The acute angle between a stretcher and what it goes into, dry-fitted."""
    end = part.ends[e]
    words = Words(
        what=f"Angle between {part.name} and {end.into}, acute side",
        how=Sticks(socket_mark(part, e), False),
        matters="always the acute angle: one habit, no slips",
        part=f"member.{part.number}",
        station="stretchers",
        short=f"{part.name}, {end.into}",
    )
    slips = read_slips(ask.stick_scale, run, e)
    return ask.between(("read", part.id, f"{e + 1}"), acute(end.opening_on), words, slips)


def _roped(ropes: tuple[RopePart, ...], ask: Asker) -> Iterator[Proof]:
    """A rod through each hole of a rope, against its leg."""
    for rope in ropes:
        for k, hole in enumerate(rope.holes):
            words = Words(
                what=f"Angle between a rod in the hole of {rope.name} and leg {hole.leg}, acute side",
                how=Sticks(hole_mark(rope, hole), True),
                matters="a hole that points past its neighbour chafes the rope",
                part=f"member.{rope.number}",
                station="stretchers",
                short=f"{rope.name}, leg {hole.leg}",
            )
            on = acute(hole.opening_on)
            slips = angle_slips(ask.stick_scale, 90.0 - on) if on < 89.0 else ()
            yield ask.between(("read", rope.id, rope.through[k]), on, words, slips)
