"""Lines for what joins a part carried out: drawn as told, held against what then lies there."""

from __future__ import annotations

import math
from typing import TYPE_CHECKING

import numpy as np

from splay.setups.card import SetUp
from splay.stance.body import Body
from splay.work.joinery import CutOut, Joins
from splay.work.takes import ToLine
from tests.bench.frames import Array, unit, vec
from tests.bench.tapered import Plane, TaperedStick, meet

if TYPE_CHECKING:
    from tests.bench.judged import Judge


class Drawn:
    """One part's side with a line on it, drawn by the names and figures told and nothing else."""

    def __init__(self, judge: Judge, do: Joins, key: str) -> None:
        self.stick = TaperedStick(judge, key)
        face, edge = self.stick.whole[do.face], self.stick.whole[do.edge]
        opposite = self.stick.whole[do.opposite]
        end = self.stick.ends[do.start]
        away = 1.0 if end[0][0] < 0 else -1.0
        corner = meet(face, edge, end)
        down = do.down.value if do.down is not None else 0.0
        one = corner + vec(away, 0, 0) * down
        if do.down is None:
            # Flush with the sawn end: along its very rim.
            two = meet(face, opposite, end)
        elif do.far is None:
            two = meet(face, opposite, (vec(1, 0, 0), float(one[0])))
        else:
            two = meet(face, opposite, end) + vec(away, 0, 0) * do.far.value
        self.begins, self.way = one, unit(two - one)
        self.across = 0.0

    def at(self, across: float) -> Array:
        return self.out(self.begins + self.way * across)

    def out(self, p: Array) -> Array:
        return np.array(self.stick.body.pose.out((float(p[0]), float(p[1]), float(p[2]))))


def judge_joins(judge: Judge, card: SetUp) -> None:
    """Every end laid on its lines stands where it is built, the right way round; none is left untold."""
    told = set()
    for do in (one for one in card.does if isinstance(one, Joins)):
        for mate, key, end in do.ends:
            drawn, comes = Drawn(judge, do, mate), TaperedStick(judge, key)
            name = comes.board.ends
            plane = comes.ends[list(name)[0 if end == "start" else 1]]
            lead, beside = comes.whole[do.lead], comes.whole[do.beside]
            body = comes.body
            across = do.across.value if do.across is not None else 0.0
            wanted, far = (_out(body, meet(lead, side, plane)) for side in (
                beside, comes.whole[comes.opposite(do.beside)]
            ))  # fmt: skip
            at = drawn.at(across)
            judge.tally.hold("joint's place mm", float(np.linalg.norm(at - wanted)), card.id)
            # The side's other corner lies on the line too, further on.
            reach = float(np.linalg.norm(far - wanted))
            judge.tally.hold(
                "joint's line mm", float(np.linalg.norm(drawn.at(across + reach) - far)), card.id
            )
            told.add((key, end))
            judge.leads[key, end] = do.lead
            drawn.across = across
            judge.lines[key, end] = drawn
    judge.joined |= told


def untold(judge: Judge) -> None:
    """How many ends of cross-pieces, rails, links and treads nobody was told a place for."""
    for body in judge.plan.stance.bodies:
        kind = judge.piece.supports[body.support].kind
        if kind in ("plane_frames", "board_sides") and body.role in ("cross", "rail", "link", "tread"):
            ends = {(body.key, "start"), (body.key, "finish")}
            judge.tally.hold("joint untold", float(len(ends - judge.joined)), body.key)


def _out(body: Body, p: Array) -> Array:
    return np.array(body.pose.out((float(p[0]), float(p[1]), float(p[2]))))


def judge_cut_out(judge: Judge, card: SetUp) -> None:
    """Sides glued up, cut out as told from their seam: what is left is what stands."""
    (do,) = (one for one in card.does if isinstance(one, CutOut))
    assert do.seam is not None
    for key in card.parts:
        stick = TaperedStick(judge, key)
        body = stick.body
        seam = next(side for name, side in stick.whole.items() if _glued(judge, body, side))
        void = next(one for one in body.voids if one.kind == "feet")
        for value in (one.value for one in do.seam):
            # Behind the seam is towards the back, whichever board of the side it lies on.
            back = np.array(body.pose.within((0.0, 1.0, 0.0))) - np.array(body.pose.within((0.0, 0.0, 0.0)))
            at = seam[0] * seam[1] + unit(back) * value
            near = min(
                abs(float(np.array(p.normal) @ at) - p.offset)
                for p in void.planes if abs(p.normal[1]) > 0.5
            )  # fmt: skip
            judge.tally.hold("cut-out from the seam mm", near, card.id)
        foot, face = stick.ends["foot"], stick.whole[do.face]
        any_edge = stick.whole[next(name for name in stick.whole if name.endswith("edge"))]
        corner = meet(foot, face, any_edge)
        top = corner - vec(np.sign(foot[0][0]), 0, 0) * do.high.value
        roof = next(p for p in void.planes if abs(p.normal[0]) > 0.5)
        judge.tally.hold("cut-out mm", abs(float(np.array(roof.normal) @ top) - roof.offset), card.id)


def _glued(judge: Judge, body: Body, side: Plane) -> bool:
    """Whether a board's side lies on an edge of the other board of its support and hand."""
    normal = np.array(body.pose.turn_out((float(side[0][0]), float(side[0][1]), float(side[0][2]))))
    at = _out(body, side[0] * side[1])
    for other in judge.plan.stance.bodies:
        if other.key == body.key or not other.stands or other.support != body.support:
            continue
        own = other.pose.within((float(at[0]), float(at[1]), float(at[2])))
        lies = abs(abs(own[1]) - other.width / 2) < 0.01 and abs(own[2]) < other.thickness
        across = np.array(other.pose.across) * math.copysign(1.0, own[1])
        if lies and float(across @ normal) < -1 + 1e-6:
            return True
    return False


def read_line(judge: Judge, take: ToLine) -> float | None:
    """The rule along the corner, from the sawn end to where the end that comes there has its side."""
    stick, comes = TaperedStick(judge, take.part), TaperedStick(judge, take.what)
    face, edge, end = stick.whole[take.face], stick.whole[take.edge], stick.ends[take.start]
    # The side that lies nearest to the end it is measured from, where it crosses that corner.
    found = []
    for name, side in comes.whole.items():
        if judge.leads.get((take.what, take.end), name) != name:
            continue
        normal = np.array(comes.body.pose.turn_out(tuple(float(v) for v in side[0])))  # type: ignore[arg-type]
        at = _out(comes.body, side[0] * side[1])
        own = np.array([normal @ np.array(way) for way in _axes(stick.body)])
        offset = float(normal @ (at - np.array(stick.body.pose.origin)))
        if abs(own[0]) > 0.5:
            found.append(float(abs(meet(face, edge, (own, offset))[0] - meet(face, edge, end)[0])))
    return min(found) if found else None


def _axes(body: Body) -> tuple[tuple[float, ...], ...]:
    return body.pose.along, body.pose.across, body.pose.up
