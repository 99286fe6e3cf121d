"""All rules, in the order the maker should read what they find."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass

from splay.judge import bits, joints, members, readings, standing, tops
from splay.judge import sockets as rules
from splay.judge.allowance import allowance
from splay.judge.arcs import arcs
from splay.judge.bent import bent
from splay.judge.buildable import buildable
from splay.judge.buttons import buttons
from splay.judge.finding import Finding
from splay.judge.gapped import gapped
from splay.judge.hand_holds import hand_holds
from splay.judge.held import held
from splay.judge.inside import inside
from splay.judge.reused import reused
from splay.judge.splines import splines
from splay.judge.through import through
from splay.judge.wedges import wedges
from splay.level.told import LevelRound
from splay.parts.assembly import TOGETHER_DEG, Assembly
from splay.quantity import Show
from splay.setups.asker import Spread
from splay.setups.card import Proof, SetUp
from splay.setups.made import Made
from splay.work.phrases import uncap

_WEIGHT = {"stop": 0, "caution": 1, "note": 2}
_ALWAYS_TOLD = {"bore", "foot_cut", "tenon", "slot"}


@dataclass(frozen=True)
class Whole:
    """All there is to judge about one piece: what it is made of, and what was told and read of it so far.
    `cards` are those a tool might not get to, `resting` the kinds of readings that answer nothing asked
    now."""

    made: Made
    cards: tuple[SetUp, ...]
    proofs: tuple[Proof, ...]
    passes: tuple[LevelRound, ...]
    spreads: Mapping[str, Spread]
    assembly: Assembly | None
    resting: tuple[str, ...]


def judge(whole: Whole) -> tuple[Finding, ...]:
    """Everything found, what would spoil the piece first."""
    made = whole.made
    piece, stance, sockets, show = made.piece, made.real, made.sockets, made.show
    found = [
        *standing.lean(piece, stance, show),
        *standing.footprint(piece, stance, show),
        *standing.underfoot(piece, stance, show),
        *standing.steps(piece, stance, show),
        *readings.resting(whole.resting, show),
        *rules.skin(piece, sockets, stance, show),
        *rules.edges(piece, sockets, stance, show),
        *rules.meeting(piece, sockets, stance, show),
        *rules.tenons(piece, stance, show),
        *allowance(piece, stance, whole.spreads, show),
        *bits.missing(piece, made.shop, stance, show),
        *wedges(piece, stance, show),
        *tops.hollow(piece, show),
        *tops.by_strips(piece, stance, show),
        *tops.left_on(piece, stance, show),
        *tops.glue_lines_crossed(piece, sockets, stance, show),
        *tops.boards_wide_enough(piece, show),
        *joints.screws(piece, sockets, stance, show),
        *joints.turned_home(piece, stance, show),
        *joints.pegs(piece, sockets, stance, show),
        *joints.dowels(piece, show),
        *joints.apron_tenons(piece, show),
        *joints.overlaps(stance, show),
        *held(piece, made.screws, show),
        *splines(piece, made.through, show),
        *through(made.through_dowels, show),
        *hand_holds(piece, stance, show),
        *arcs(stance, made.screws, show),
        *gapped(piece, stance, made.screws, made.grooved, show),
        *buttons(piece, made.grooved, show),
        *inside(piece, stance, made.runs, made.lines, made.screws, made.grooved, made.through, show),
        *buildable(piece, stance, made.runs, made.members, show),
        *members.gaps(made.members, show),
        *members.wood(made.members, show),
        *members.meeting(piece, made.runs, show),
        *reused(made.trims, show),
        *bent(piece, made.bent, made.runs, show),
        *reach(whole.cards, show),
        *readings.slips(whole.proofs, show),
        *readings.sides(made.members, show),
        *readings.angles(made.members, show),
        *readings.cut_already(made.members, whole.proofs, show),
        *closing(whole.assembly, show),
        *levels(whole.passes),
    ]
    return tuple(sorted(found, key=lambda finding: _WEIGHT[finding.level]))


def levels(passes: tuple[LevelRound, ...]) -> Iterator[Finding]:
    """What is wrong with the readings of the pass being worked on, or with what they lead to."""
    for round_ in passes[-1:]:
        for problem in round_.problems:
            yield Finding(
                problem.code,
                problem.level,
                "level",
                problem.text,
                problem.mend,
                problem.legs,
                problem.number,
                problem.limit,
                None,
                "levelling",
            )


def closing(order: Assembly | None, show: Show) -> Iterator[Finding]:
    """Stretchers that go in at once, from directions too far apart to slide in like one."""
    if order is None or order.apart is None:
        return
    yield Finding(
        "closes_askew",
        "note",
        "stretchers",
        f"What is put in at once closes from directions {order.apart.text} apart: the tenons cannot all "
        "slide in straight.",
        "Try all of it dry. Loosen the sockets a hair, shorten the tenons, or make it a T or an H: "
        "they close no ring, and each joint goes in straight by itself.",
        (),
        order.apart,
        show.angle(TOGETHER_DEG),
        None,
        "members",
    )


def reach(cards: tuple[SetUp, ...], show: Show) -> Iterator[Finding]:
    """Settings past a tool's reach; for sawing and shaping, only where no owned tool gets there."""
    managed = {(card.operation, card.parts, card.title) for card in cards if card.in_reach}
    for card in cards:
        told = card.operation in _ALWAYS_TOLD
        if card.in_reach or (not told and (card.operation, card.parts, card.title) in managed):
            continue
        limit = show.angle(card.dials[0].reach) if card.dials else None
        yield Finding(
            "past_reach",
            "caution",
            card.station,
            f"{card.tool}: {uncap(card.reach_note)}",
            "Use the jig on the card, or another tool.",
            card.legs,
            card.angle.quantity,
            limit,
            None,
            "",
        )
