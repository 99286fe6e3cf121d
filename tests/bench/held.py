"""The top's screws carried out: marked, bored and put in as told, then held against top and part."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import TYPE_CHECKING

import numpy as np
import shapely
from shapely import affinity

from splay.setups.card import SetUp
from splay.stance.outline import points
from splay.work.does import Bit, FromEdge, FromMiddle, Widened
from splay.work.lays import IntoSide
from splay.work.marks import Mark
from splay.work.takes import StandsOut
from tests.bench.frames import Array, unit, vec
from tests.bench.tapered import TaperedStick, meet

if TYPE_CHECKING:
    from tests.bench.judged import Judge


@dataclass
class Bored:
    """A hole for a screw: where it starts and which way it runs in the stick's own frame; its bits."""

    at: Array
    way: Array
    seat: float
    sunk: float
    hole: float
    slot: bool
    washer: float


def bore(judge: Judge, card: SetUp) -> dict[Mark, Bored]:
    """Every hole of a card, from its marks, its bits and how the drill stands."""
    sticks = {key: TaperedStick(judge, key) for key in card.parts}
    (lay,) = card.lays
    assert isinstance(lay, IntoSide)
    along: dict[Mark, float] = {}
    at: dict[Mark, Array] = {}
    for do in card.does:
        if isinstance(do, FromMiddle):
            for mark, end in do.marks:
                stick = sticks[mark.on]
                along[mark] = _middle(stick, do.of) + stick.board.ends[end][0] * do.mm.value
        elif isinstance(do, FromEdge):
            for mark in do.marks:
                stick = sticks[mark.on]
                side, edge = stick.sides[do.side], stick.sides[do.edge]
                corner = meet(side, edge, (vec(1, 0, 0), along[mark]))
                into = unit(np.cross(side[0], vec(1, 0, 0)))
                into = into if float(into @ edge[0]) < 0 else -into
                at[mark] = corner + into * do.mm.value
    first, second = (do for do in card.does if isinstance(do, Bit))
    assert first.deep is not None and second.deep is None
    wider = {mark: do for do in card.does if isinstance(do, Widened) for mark in do.marks}
    made = {}
    for mark in lay.at:
        stick = sticks[mark.on]
        out = stick.sides[lay.up][0]
        lean = math.radians(lay.between.value)
        way = -out * math.sin(lean)
        if lay.toward:
            # In the plane square across the stick, along the side it stands on: a blade that stands off
            # the side leaning one way points, into the wood, the other.
            along_side = unit(np.cross(out, vec(1, 0, 0)))
            toward = stick.board.sides[lay.toward]
            way = way - along_side * math.copysign(math.cos(lean), float(along_side @ toward))
        else:
            judge.tally.hold("drill deg", abs(lay.between.value - 90.0), card.id)
        do = wider.get(mark)
        made[mark] = Bored(
            at[mark], way,
            do.seat.value if do else first.diameter.value, first.deep.value,
            do.hole.value if do else second.diameter.value,
            do is not None and do.washer is None,
            do.washer.value if do and do.washer else 0.0,
        )  # fmt: skip
    return made


def _middle(stick: TaperedStick, side: str) -> float:
    """The middle of the length of a side, along the middle of its width."""
    ends = [float(width_middle(stick, side, end)[0]) for end in stick.ends.values()]
    return sum(ends) / 2


def width_middle(stick: TaperedStick, side: str, end: tuple[Array, float]) -> Array:
    corners = [meet(stick.sides[side], stick.sides[other], end) for other in _beside(stick, side)]
    made: Array = sum(corners) / 2
    return made


def _beside(stick: TaperedStick, side: str) -> list[str]:
    return [name for name, way in stick.board.sides.items()
            if abs(float(way @ stick.board.sides[side])) < 0.5]  # fmt: skip


def judge_held(judge: Judge, card: SetUp) -> None:
    """Each screw comes out in the middle under the top, square in its wood, with its head home and room."""
    for mark, hole in bore(judge, card).items():
        stick = TaperedStick(judge, mark.on)
        screw = judge.piece.supports[stick.body.support].held
        upper = max(stick.sides, key=lambda name: stick.body.pose.turn_out(tuple(stick.sides[name][0]))[2])
        plane = stick.sides[upper]
        through = (plane[1] - float(plane[0] @ hole.at)) / float(plane[0] @ hole.way)
        comes = hole.at + hole.way * through
        rims = [
            float(np.linalg.norm(meet(plane, stick.sides[n], (vec(1, 0, 0), comes[0])) - comes))
            for n in _beside(stick, upper)
        ]
        judge.tally.hold("screw off middle mm", abs(rims[0] - rims[1]) / 2, card.id)
        out = screw.length - (through - hole.sunk)
        judge.screwed[mark.on] = out
        if out - screw.bite > 1e-6:
            # A screw too long stands out further with its head on the surface: found and said elsewhere.
            assert any(found.code == "held_proud" for found in judge.plan.findings)
        else:
            judge.tally.hold("screw stands out mm", abs(out - screw.bite), card.id)
        for share in (0.02, 0.5, 0.98):
            p = hole.at + hole.way * through * share
            beyond = max(float(normal @ p) - off for normal, off in stick.sides.values())
            judge.tally.hold("screw out of its wood mm", max(0.0, beyond), card.id)
        at = np.array(stick.body.pose.out((float(comes[0]), float(comes[1]), float(comes[2]))))
        over = lying_over(judge, at)
        judge.tally.hold("screw under the top mm", abs(float(at[2]) - over.down), card.id)
        judge.tally.hold("screw into something else", float(over.name not in card.title), card.id)
        _room(judge, card, stick, hole, at)


def _room(judge: Judge, card: SetUp, stick: TaperedStick, hole: Bored, at: Array) -> None:
    """The top goes either way by its share of what it moves over its width: thread, head and washer too."""
    piece = judge.piece
    screw = piece.supports[stick.body.support].held
    ring = affinity.rotate(shapely.Polygon(points(piece.top.outline)), -piece.top.grain, origin=(0, 0))
    low, high = ring.bounds[1], ring.bounds[3]
    grain = math.radians(piece.top.grain)
    over = lying_over(judge, at)
    if over.name == "top" and piece.top.gap is not None:
        _on_board(judge, card, stick, hole, at)
        return
    grain = grain if over.name == "top" else 0.0
    x, y = float(at[0]), float(at[1]) - over.middle
    off = abs(y * math.cos(grain) - x * math.sin(grain))
    goes = screw.moves * off / (high - low)
    if goes < 0.25:
        return
    tally = judge.tally
    tally.hold("screw bound mm", max(0.0, 2 * goes - (hole.hole - screw.size)), card.id)
    tally.hold("head bound mm", max(0.0, 2 * goes - (hole.seat - max(screw.head, hole.washer))), card.id)
    if hole.slot:
        runs = np.array(stick.body.pose.along)
        across = abs(float(runs[1]) * math.cos(grain) - float(runs[0]) * math.sin(grain))
        tally.hold("slot askew", max(0.0, math.cos(math.radians(20.0)) - across), card.id)
    else:
        tally.hold("washer falls in mm", max(0.0, hole.hole / 2 + goes - hole.washer / 2), card.id)


def _on_board(judge: Judge, card: SetUp, stick: TaperedStick, hole: Bored, at: Array) -> None:
    """Which of two boards a screw holds; what room it has is looked at when all of them are bored."""
    top, grain = judge.piece.top, math.radians(judge.piece.top.grain)
    across = float(at[1]) * math.cos(grain) - float(at[0]) * math.sin(grain)
    low = -(sum(top.boards) + top.gap.width) / 2
    inside = [low < across < low + top.boards[0], low + top.boards[0] + top.gap.width < across < -low]
    judge.tally.hold("screw into the gap", float(not any(inside)), card.id)
    screw = judge.piece.supports[stick.body.support].held
    head = hole.seat - max(screw.head, hole.washer)
    # A hole is half a millimetre wider than its screw before it is widened for anything.
    room = min(hole.hole - screw.size - 0.5, head)
    board = inside.index(True) if any(inside) else 2
    judge.on_boards.setdefault(board, []).append((across, room, screw.moves))


def judge_boards(judge: Judge) -> None:
    """Each of two boards is held on one line along its grain, by round holes; all others let it move from
    there."""
    piece, tally = judge.piece, judge.tally
    ring = affinity.rotate(shapely.Polygon(points(piece.top.outline)), -piece.top.grain, origin=(0, 0))
    for board, bored in judge.on_boards.items():
        wood = ring.bounds[3] - ring.bounds[1] - piece.top.gap.width
        where = f"board {board + 1}"
        still = [across for across, room, _ in bored if room < 0.5]
        tally.hold("board held nowhere", float(not still), where)
        for across, room, moves in bored:
            goes = moves * min((abs(across - one) for one in still), default=0.0) / wood
            if room < 0.5:
                split = moves * max(abs(across - one) for one in still) / wood
                tally.hold("board pulled apart mm", max(0.0, split - 0.5), where)
            else:
                tally.hold("screw bound mm", max(0.0, 2 * goes - room - 0.5), where)


@dataclass
class Over:
    """What lies on a place: its name, how high its underside lies in the top frame, and where its middle
    line runs (y), mm."""

    name: str
    down: float
    middle: float


def lying_over(judge: Judge, at: Array) -> Over:
    """The lower tread whose underside is nearest to a place, or the top."""
    found = [Over("top", 0.0, 0.0)]
    for body in judge.plan.stance.bodies:
        if body.role == "lower_tread":
            every = [p for solid in body.stood for face in solid for p in face.corners]
            ys = [p[1] for p in every]
            found.append(Over(body.name, min(p[2] for p in every), (min(ys) + max(ys)) / 2))
    return min(found, key=lambda one: abs(one.down - float(at[2])))


def read_out(judge: Judge, take: StandsOut) -> float | None:
    """The rule along a screw put in dry."""
    return judge.screwed.get(take.part)
