"""Holds the holes of pegs against what they are for: through the middle of the tenon, out nowhere."""

from __future__ import annotations

import math
from typing import TYPE_CHECKING

import numpy as np
import shapely

from splay.piece import Battened, Blind
from splay.setups.card import SetUp
from splay.stance.outline import points
from splay.stance.staked import LegStance, support_of
from splay.work.marks import Mark
from splay.work.tops import PegFound
from tests.bench import hands
from tests.bench.frames import Array, unit, vec

if TYPE_CHECKING:
    from tests.bench.judged import Judge

MARGIN_MM = 0.06
"""As the card's figures are shown to a tenth or a half, a hole may come out so much deeper."""


def find_pegs(judge: Judge, card: SetUp) -> None:
    """A thin bit goes on through each socket as it was bored; from where it comes out the mark is drawn."""
    for do in card.does:
        assert isinstance(do, PegFound)
        leg = judge.plan.stance.legs[do.leg - 1]
        bored = next((h for m, h in judge.bored.items() if m.which.partition(".")[0] == str(do.leg)), None)
        at, way = (bored.at, bored.out) if bored else (np.array(leg.socket), np.array(leg.d))
        way = way / float(way[2])
        x, y = (float(v) for v in at[:2])
        # Up along the socket until the wood ends: the face sinks where it is hollowed.
        z = judge.seat.thickness
        for _ in range(60):
            x, y = (float(v) for v in (at + way * (z - float(at[2])))[:2])
            z = judge.seat.thickness - judge.seat.sunk(x, y)
        line = do.line
        drawn = hands.word_way(line.along) * line.run.value + hands.word_way(line.toward) * line.over.value
        arrow = unit(-drawn if line.back else drawn)
        far = shapely.Point(x + float(drawn[0]), y + float(drawn[1]))
        off = shapely.Polygon(points(judge.piece.top.outline)).buffer(0.05).distance(far)
        judge.tally.hold("line drawn off the wood mm", float(off), card.id)
        mark = vec(x, y, 0.0) + arrow * do.away.value * (-1.0 if do.against else 1.0)
        mark[2] = judge.seat.thickness - judge.seat.sunk(float(mark[0]), float(mark[1]))
        judge.seat.points[do.mark] = mark
        judge.seat.arrows[line.mark] = arrow
        shows = (
            do.away.value > (support_of(judge.piece, leg).joint.peg.diameter - do.bit.value) / 2.0 + 0.06
        )
        said = any(one.code == "peg_pilot_shows" and do.leg in one.legs for one in judge.plan.findings)
        judge.tally.hold("thin hole shows unsaid", float(shows and not said), card.id)


def judge_pegs(judge: Judge, card: SetUp) -> None:
    """Each hole's middle meets its tenon's middle, and its rim keeps the wood it was to keep."""
    first = judge.plan.stance.legs[card.legs[0] - 1]
    joint = support_of(judge.piece, first).joint
    assert isinstance(joint, Blind | Battened) and joint.peg is not None
    above = isinstance(joint, Blind)
    holes = (
        hands.bore_seat(judge.seat, card, judge.shop)
        if above
        else hands.bore_board(judge.boards, card, judge.shop)
    )
    for hole in holes:
        leg = judge.plan.stance.legs[int(hole.mark.which.partition(".")[0]) - 1]
        at, out = (hole.at, hole.out) if above else _stood(judge, hole)
        missed = _missed(leg, at, out)
        if missed is not None:
            judge.tally.hold("peg off tenon mm", missed, f"{card.id} leg {leg.number}")
        assert hole.deep is not None
        tip = at - out * hole.deep
        half = joint.peg.diameter / 2
        low = 0.0 if above else -joint.batten_thickness  # type: ignore[union-attr]
        # The rim's lowest point: half the peg, as far as its end leans.
        left = float(tip[2]) - half * float(np.linalg.norm(out[:2])) - low
        judge.tally.hold("peg breaks out mm", max(0.0, joint.peg.margin - left - MARGIN_MM), card.id)
        if not above:
            far = joint.batten_width - hole.deep * float(np.linalg.norm(out[:2]))  # type: ignore[union-attr]
            left = far - half * abs(float(out[2]))
            judge.tally.hold("peg breaks out mm", max(0.0, joint.peg.margin - left - MARGIN_MM), card.id)
        if above and missed is not None:
            told = next(f for f in judge.plan.sockets[leg.number - 1].more if f.key.endswith("crosses"))
            high = _height(leg, at, out) - told.quantity.value
            judge.tally.hold("peg height mm", abs(high), f"{card.id} leg {leg.number}")
        if above:
            entry = float(np.hypot(*(at[:2] - np.array(leg.socket[:2]))))
            judge.tally.hold("peg entry mm", abs(entry - joint.peg.entry), card.id)


def _stood(judge: Judge, hole: hands.Hole) -> tuple[Array, Array]:
    """A batten's hole where the batten lies under the seat, top frame."""
    body = next(b for b in judge.plan.stance.bodies if b.key == hole.mark.on)
    axes = [np.array(v) for v in (body.pose.along, body.pose.across, body.pose.up)]
    low, high = body.at(0.0, 0.0)
    middle = np.array(body.pose.origin) + axes[0] * (low + high) / 2
    return middle + sum(a * x for a, x in zip(axes, hole.at, strict=True)), sum(
        (a * x for a, x in zip(axes, hole.out, strict=True)), vec(0, 0, 0)
    )


def _height(leg: LegStance, at: Array, out: Array) -> float:
    """How high above the underside the hole's middle meets the tenon's, by least squares."""
    d, start = np.array(leg.d), np.array(leg.socket)
    (run, _), *_ = np.linalg.lstsq(np.column_stack((d, -out)), at - start, rcond=None)
    return float((start + d * run)[2])


def _missed(leg: LegStance, at: Array, out: Array) -> float | None:
    """How far the hole's middle line passes the tenon's; None where the two run along each other."""
    d = np.array(leg.d)
    across = np.cross(d, out)
    if float(np.linalg.norm(across)) < 1e-6:
        return None
    return abs(float((at - np.array(leg.socket)) @ unit(across)))


def judge_screws(judge: Judge, mark: Mark, end: str, places: tuple[float, ...]) -> None:
    """Each screw stands inside its batten, in order, and in no leg's socket."""
    body = next(b for b in judge.plan.stance.bodies if b.key == mark.which)
    board = judge.boards[body.key]
    low, high = body.at(0.0, 0.0)
    where = [board.ends[end] * (board.half - run) for run in places]
    runs = [float(at[0]) + (low + high) / 2 for at in where]
    beyond = max(abs(float(at[0])) - board.half for at in where)
    judge.tally.hold("screw outside mm", max(0.0, beyond), body.key)
    for leg in judge.plan.stance.legs:
        joint = support_of(judge.piece, leg).joint
        socket = np.array(leg.socket) - np.array(body.pose.origin)
        if not isinstance(joint, Battened) or abs(float(socket @ np.array(body.pose.across))) > 0.05:
            continue
        # The nearest a plumb screw comes to the hole's middle, from its mouth to its floor.
        along, across = np.array(body.pose.along), np.array(body.pose.across)
        for run in runs:
            for k in range(41):
                middle = socket - np.array(leg.d) * (leg.bore.deep * k / 40)
                near = math.hypot(float(middle @ along) - run, float(middle @ across))
                judge.tally.hold("screw in socket mm", max(0.0, joint.socket / 2 - near), body.key)
