"""plan(): from what was chosen, whose tools and what was measured, to everything to set and cut."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import Annotated

from splay.changes import Change, changes
from splay.judge import Finding, Whole, judge
from splay.layout import Layout, lay_out
from splay.level.feet import feet_of
from splay.level.proofs import level_proofs
from splay.level.rounds import Level, level
from splay.level.told import LevelRound
from splay.level.ways import asks_in_all
from splay.parts import LegPart, SocketPart, leg_part, socket_part
from splay.parts.assembly import Assembly, assembly
from splay.parts.member import MemberPart, hooks_of, member_part
from splay.parts.rope import RopePart, rope_part
from splay.parts.stick import StickPart, stick_part
from splay.piece import Piece
from splay.quantity import Figure, Quantity, Show
from splay.reading import Reading, answers, bored, built, fitted
from splay.setups.asker import Asker, Spread
from splay.setups.boring import boring_cards
from splay.setups.buttons import button_cards, groove_cards
from splay.setups.card import Proof, SetUp
from splay.setups.crosscut import crosscut_cards, cuts
from splay.setups.foot import foot_cards
from splay.setups.hand_holds import hand_hold_cards
from splay.setups.held import held_cards
from splay.setups.joins import join_cards, on_lines
from splay.setups.leg_ends import leg_end_cards
from splay.setups.leg_marks import leg_mark_cards, slot_cards
from splay.setups.leg_sets import leg_sets
from splay.setups.leg_shapes import leg_shape_cards
from splay.setups.member_cards import member_cards
from splay.setups.member_cuts import member_cut_cards
from splay.setups.outside import outside_cards
from splay.setups.pegs import peg_cards
from splay.setups.proofs import Known, all_proofs, doubted
from splay.setups.rope_cards import rope_cards
from splay.setups.shaping import shaping_cards
from splay.setups.side_tapers import side_taper_cards
from splay.setups.splines import spline_cards
from splay.setups.stick_tenons import stick_tenon_cards
from splay.setups.wedge_cards import wedge_cards
from splay.shop import Shop
from splay.stance.buttons import Grooved, grooves
from splay.stance.holding import Fastening, fastenings
from splay.stance.meets import Meets, meets
from splay.stance.members import MemberStance, members
from splay.stance.splines import Splined, splined
from splay.stance.staked import Stance, stand
from splay.summary import Batch, LegFigures, Size, batches, chosen, counted, leg_figures, numbering, sizes
from splay.work.marks import UNSENT
from splay.work.proofs import KINDS


@dataclass(frozen=True)
class Plan:
    """Everything worked out for one piece.

    `chosen` holds each typed value of the piece by its path, as the maker reads it; `legs` the
    leans of legs set into the top; `numbering` how they are numbered, in words; `sizes` what the
    whole comes to; `layout` the marking-out;
    `parts` and `sockets` one entry a leg, in order; `sticks` the parts of square stock;
    `members` and `ropes` what runs between; `batches` how many legs to make of each kind,
    `counts` of other parts where several pieces are made;
    `level` the passes of levelling, empty where they were not asked for; `known` the readings by proof,
    `changes` what they moved; `next` the station to carry on at, None where nothing is left to prove;
    `assembly` the order it goes together in;
    `stance` the bare geometry for drawings.
    """

    chosen: dict[str, Quantity]
    sizes: tuple[Size, ...]
    legs: tuple[LegFigures, ...]
    numbering: str
    layout: Layout
    parts: tuple[LegPart, ...]
    sockets: tuple[SocketPart, ...]
    sticks: tuple[StickPart, ...]
    members: tuple[MemberPart, ...]
    ropes: tuple[RopePart, ...]
    batches: tuple[Batch, ...]
    counts: tuple[Figure, ...]
    setups: tuple[SetUp, ...]
    proofs: tuple[Proof, ...]
    findings: tuple[Finding, ...]
    stations: tuple[Station, ...]
    next: Station | None
    level: tuple[LevelRound, ...]
    known: Annotated[dict[str, float], UNSENT]
    changes: tuple[Change, ...]
    assembly: Assembly | None
    stance: Annotated[Stance, UNSENT]


@dataclass(frozen=True)
class Station:
    """A notch of the story stick: how many proofs it asks for and how many are answered."""

    name: str
    title: str
    proofs: int
    answered: int
    off: int


def plan(
    piece: Piece,
    shop: Shop,
    readings: Iterable[Reading] = (),
    *,
    levelling: bool = True,
    live: bool = False,
    spreads: Mapping[str, Spread] | None = None,
) -> Plan:
    """The plan of a piece in a shop, given the readings taken so far.

    Settings and expected values come from the stance as planned; lengths and feet from the
    holes as they were read. The same input gives the same plan. BadInput names a reading that
    answers no proof; CannotBuild a choice that cannot stand. Without `levelling` the passes of
    levelling are only counted, unless one of them was measured: a drag of a leg has no use for them.
    `live` is for a drag under way: no cards, no proofs, no stations, and nothing found that hangs on them.
    `spreads` are the maker's own, by the kind of proof.
    """
    show = Show(shop.rounding.units())
    planned = stand(piece)
    taken = tuple(readings)
    known = answers(taken)
    ask = Asker(shop, show, known, spreads, frozenset(r.proof for r in taken if r.sure))
    wrong = doubted(piece, planned, (), (), ask)
    read = bored(_without(known, wrong), shop, planned.legs)
    real = stand(piece, read) if read else planned
    runs, lines = members(piece, real)
    parts = tuple(leg_part(piece, leg, real.floor, show) for leg in real.legs)
    sockets = tuple(socket_part(piece, leg, shop.bit_for(leg.bore.size), show) for leg in real.legs)
    sticks = tuple(stick_part(body, show) for body in real.bodies)
    hooks = hooks_of(piece, real.legs, runs)
    rungs = tuple(member_part(piece, run, runs, show, hooks=hooks) for run in runs)
    if fitted(known, runs):
        wrong |= doubted(piece, planned, runs, rungs, ask)
        found = built(_without(known, wrong), shop, runs)
        hooks = hooks_of(piece, real.legs, runs, found)
        rungs = tuple(member_part(piece, run, runs, show, found, hooks) for run in runs)
    cords = tuple(rope_part(piece, line, show, hooks) for line in lines)
    layout = lay_out(piece, planned, show)
    screws, grooved = fastenings(piece, real), grooves(piece, real)
    joins, through = meets(piece, real), splined(piece, real)
    setups = (
        ()
        if live
        else (
            *_cards(
                piece,
                planned,
                real,
                parts,
                sticks,
                rungs,
                cords,
                screws,
                grooved,
                joins,
                through,
                shop,
                show,
            ),
            *button_cards(piece, sticks, grooved, _without(known, wrong), show),
        )
    )
    asked = Known(
        piece,
        planned,
        real,
        parts,
        sticks,
        cuts(sticks, real.bodies),
        runs,
        rungs,
        cords,
        layout,
        leg_sets(piece, real, parts),
        screws,
        grooved,
        joins,
        through,
        _without(known, wrong),
    )
    proofs = () if live else all_proofs(asked, ask)
    passes = Level((), (), ())
    if levelling or any(r.kind and KINDS[r.kind].station == "level" for r in taken):
        wrong |= {proof.id for proof in proofs if proof.verdict == "slip"}
        feet = feet_of(piece, real)
        passes, _ = level(piece, real, parts, sticks, shop, show, _without(known, wrong), feet=feet)
        asked_there = tuple(level_proofs(piece, passes, feet, ask))
        slips = {proof.id for proof in asked_there if proof.verdict == "slip"}
        if slips:
            sure = _without(known, wrong | slips)
            passes, _ = level(piece, real, parts, sticks, shop, show, sure, feet=feet)
        proofs += asked_there
    order = assembly(piece, real.bodies, real.legs, parts, runs, rungs, show)
    stations = () if live else _stations(piece, real, proofs)
    return Plan(
        chosen=chosen(piece, show),
        sizes=sizes(piece, real, show),
        legs=tuple(leg_figures(leg, show) for leg in real.legs),
        numbering=numbering(planned),
        layout=layout,
        parts=parts,
        sockets=sockets,
        sticks=sticks,
        members=rungs,
        ropes=cords,
        batches=batches(piece, parts, show),
        counts=_counts(piece, sticks, rungs, show),
        setups=setups,
        proofs=proofs,
        findings=judge(
            Whole(
                piece=piece,
                shop=shop,
                stance=real,
                sockets=sockets,
                runs=runs,
                members=rungs,
                cards=setups,
                proofs=proofs,
                passes=passes.rounds,
                spreads=spreads or {},
                assembly=order,
                screws=screws,
                grooved=grooved,
                through=through,
                ropes=lines,
                resting=() if live else _resting(taken, proofs),
            ),
            show,
        ),
        stations=stations,
        next=carry_on(stations, passes.rounds),
        level=passes.rounds,
        known=known,
        changes=_changes(piece, planned, real, runs, rungs, known, show),
        assembly=order,
        stance=real,
    )


def _without(known: dict[str, float], ids: frozenset[str]) -> dict[str, float]:
    """What was read, without what waits to be read again: nothing follows that."""
    return {id: value for id, value in known.items() if id not in ids}


def _resting(taken: tuple[Reading, ...], proofs: tuple[Proof, ...]) -> tuple[str, ...]:
    """The kinds of the readings that answer nothing asked now."""
    asked = {proof.id for proof in proofs}
    return tuple(reading.kind for reading in taken if reading.proof not in asked)


def _cards(
    piece: Piece,
    planned: Stance,
    real: Stance,
    parts: tuple[LegPart, ...],
    sticks: tuple[StickPart, ...],
    rungs: tuple[MemberPart, ...],
    cords: tuple[RopePart, ...],
    screws: tuple[Fastening, ...],
    grooved: tuple[Grooved, ...],
    joins: tuple[Meets, ...],
    through: tuple[Splined, ...],
    shop: Shop,
    show: Show,
) -> tuple[SetUp, ...]:
    """Every card in the order of hands: a mark is made before anything leans on it."""
    sockets = member_cards(piece, rungs, shop, show)
    shaped = shaping_cards(piece, sticks, real.bodies, shop, show)
    return (
        *hand_hold_cards(piece, show),
        *boring_cards(piece, planned, shop, show),
        *peg_cards(piece, planned, shop, show),
        *leg_shape_cards(piece, real, parts, shop, show),
        *leg_mark_cards(piece, real, parts, shop, show),
        *leg_end_cards(piece, real, parts, shop, show),
        *slot_cards(piece, real, parts, shop, show),
        *wedge_cards(piece, real, parts, show),
        *foot_cards(piece, real, parts, shop, show),
        # Ripped first: lengths are taken along the bevelled corners.
        *(card for card in shaped if card.operation == "rip"),
        *crosscut_cards(sticks, real.bodies, shop, show),
        *stick_tenon_cards(piece, sticks, real.bodies, show),
        *join_cards(sticks, joins, show),
        *on_lines((card for card in shaped if card.operation != "rip"), joins),
        *spline_cards(piece, sticks, through, show),
        *held_cards(sticks, screws, show),
        *groove_cards(sticks, grooved, show),
        *outside_cards(piece, sticks, show),
        # Tapered last: joints are cut from sides that run straight.
        *side_taper_cards(sticks, real.bodies, shop, show),
        *(card for card in sockets if card.legs),
        *rope_cards(cords, shop, show),
        *member_cut_cards(piece, rungs, show),
        *(card for card in sockets if not card.legs),
    )


def _changes(
    piece: Piece,
    planned: Stance,
    real: Stance,
    runs: tuple[MemberStance, ...],
    rungs: tuple[MemberPart, ...],
    known: dict[str, float],
    show: Show,
) -> tuple[Change, ...]:
    """Worked out only where something was read that later figures follow."""
    if real is planned and not fitted(known, runs):
        return ()
    before = members(piece, planned)[0] if real is not planned else runs
    was = tuple(member_part(piece, run, before, show) for run in before)
    return changes(planned, real, was, rungs, known, show)


def _counts(
    piece: Piece, sticks: tuple[StickPart, ...], rungs: tuple[MemberPart, ...], show: Show
) -> tuple[Figure, ...]:
    """What there is to make of squared parts and of stretchers, where more than one piece is made."""
    if piece.make == 1:
        return ()
    sorts = (
        ("sticks", "Squared parts to make", len(sticks)),
        ("members", "Stretchers to make", len(rungs)),
    )
    return tuple(counted(key, label, many, piece, show) for key, label, many in sorts if many)


def carry_on(stations: tuple[Station, ...], rounds: tuple[LevelRound, ...]) -> Station | None:
    """The station to go on at: the first with a proof to take, from the last one that was begun. What was
    passed over before it does not hold the work; once the feet are good enough nothing does."""
    if any(one.good for one in rounds):
        return None
    begun = [k for k, one in enumerate(stations) if one.answered]
    ahead = stations[begun[-1] :] if begun else stations
    return next((one for one in ahead if one.answered < one.proofs), None)


def _stations(piece: Piece, stance: Stance, proofs: tuple[Proof, ...]) -> tuple[Station, ...]:
    """The notches this piece has: no boring where nothing is bored, no stretchers where none could be."""
    rails = any(body.role in {"cross", "rail", "link", "apron", "tread"} for body in stance.bodies)
    names = [("stance", "Stance"), ("top", "Top")]
    if stance.legs:
        names.append(("boring", "Boring"))
    names.append(("legs", "Legs"))
    if rails or stance.legs:
        names.append(("stretchers", "Stretchers"))
    made = []
    names.append(("level", "Level"))
    for name, title in names:
        mine = [proof for proof in proofs if proof.station == name]
        answered = sum(proof.answer is not None for proof in mine)
        off = sum(proof.verdict in ("off", "slip") for proof in mine)
        asked = len(mine) or (asks_in_all(piece, stance) if name == "level" else 0)
        # Every foot of a levelling is off before it is cut: that is its job, and no fault.
        made.append(Station(name, title, asked, answered, 0 if name == "level" else off))
    return tuple(made)
