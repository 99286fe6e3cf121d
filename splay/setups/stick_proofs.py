"""Proofs of parts of square stock: cuts, lengths, bevels, tapers, notches, dowel holes."""

from __future__ import annotations

import math
from collections.abc import Iterator
from itertools import chain

from splay.parts.stick import SQUARE_DEG, StickPart
from splay.piece.kinds import driven_through
from splay.setups.asker import NEAR_DEG, Asker, Words
from splay.setups.card import Proof
from splay.setups.crosscut import UNMEASURED, Cut, end_name, station_of
from splay.setups.made import Made
from splay.setups.side_tapers import proved
from splay.setups.slips import (
    OTHER_MM,
    Slip,
    length_slips,
)
from splay.setups.stick_shapes import bevel
from splay.stance.body import Body
from splay.work.phrases import with_the
from splay.work.takes import (
    AcrossEnd,
    Bevelled,
    Corner,
    Deep,
    SawnLine,
)


def stick_proofs(made: Made, ask: Asker) -> Iterator[Proof]:
    """Of everything sawn square: its cuts, its length, from shoulder to shoulder."""
    for cut in made.cuts:
        yield from _cuts(cut, ask)
    yield from (_long(stick, ask) for stick in made.sticks if stick.role not in UNMEASURED)
    yield from (_between_shoulders(stick, ask) for stick in made.sticks if stick.shoulders is not None)


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


def square_proofs(made: Made, ask: Asker) -> Iterator[Proof]:
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
