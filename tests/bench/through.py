"""Dowels from outside through a joint: marked within its lines, bored through, bored on as told."""

from __future__ import annotations

import math
from typing import TYPE_CHECKING

import numpy as np

from splay.piece.kinds import driven_through
from splay.setups.card import SetUp
from splay.stance.body import Body
from splay.work.does import Bit
from splay.work.joinery import Onward, ThroughPlaces
from splay.work.lays import IntoSide
from tests.bench.frames import Array, unit

if TYPE_CHECKING:
    from tests.bench.judged import Judge

FINE_MM = 1e-4


def judge_through(judge: Judge, card: SetUp) -> None:
    """Bored square to the side where it is told, each stands where its end comes: evenly over it, halfway
    through its thickness, square to it."""
    (lay,) = card.lays
    (bit,) = (do for do in card.does if isinstance(do, Bit))
    assert isinstance(lay, IntoSide) and not lay.toward
    judge.tally.hold("through hole stops in the wood", float(bit.deep is not None), card.id)
    for do in (one for one in card.does if isinstance(one, ThroughPlaces)):
        for mate, key, end in do.ends:
            drawn = judge.lines[key, end]
            judge.tally.hold("bored from another side", float(do.face != lay.up), card.id)
            judge.tally.hold("along another line", float(do.lead != judge.leads[key, end]), card.id)
            body, host = _body(judge, key), _body(judge, mate)
            out = np.array(host.pose.turn_out(tuple(float(v) for v in drawn.stick.whole[do.face][0])))
            way = np.array(host.pose.turn_out(tuple(float(v) for v in drawn.way)))
            plane = body.start if end == "start" else body.finish
            middle = np.array(body.pose.out((plane.offset / plane.normal[0], 0.0, 0.0)))
            square = np.cross(out, way)
            # Where the cross is: on the wood's side of the line.
            square = square if float(square @ (middle - drawn.at(0.0))) > 0 else -square
            into = -out * math.sin(math.radians(lay.between.value))
            holes = []
            for aside, down in do.spots:
                at = drawn.at(drawn.across + aside.value) + square * down.value
                holes.append((at, -unit(into), bit.diameter.value))
            judge.pierced[key, end] = holes
            _placed(judge, body, plane, holes, card.id)


def _placed(
    judge: Judge, body: Body, plane: object, holes: list[tuple[Array, Array, float]], where: str
) -> None:
    support = judge.piece.supports[body.support]
    dowels = support.dowels  # type: ignore[union-attr]
    low, high = body.joined
    places = []
    for at, way, thick in holes:
        x, y, z = body.pose.within(tuple(float(v) for v in at))
        n = plane.normal  # type: ignore[attr-defined]
        judge.tally.hold("dowel off its end mm", abs(n[0] * x + n[1] * y + n[2] * z - plane.offset), where)  # type: ignore[attr-defined]
        judge.tally.hold("dowel off its middle mm", abs(z), where)
        judge.tally.hold("dowel thick mm", abs(thick - dowels.size), where)
        out = np.array(body.pose.turn_out(n))
        # The hole runs on into the end, square to it.
        judge.tally.hold("dowel deg", math.degrees(math.acos(min(1.0, abs(float(out @ way))))), where)
        places.append((high - y) / (high - low))
    judge.tally.hold("dowels counted", abs(len(holes) - dowels.count), where)
    for k, share in enumerate(sorted(places)):
        off = abs(share - (k + 0.5) / len(places)) * (high - low)
        judge.tally.hold("dowel beside its place mm", off, where)


def judge_onward(judge: Judge, card: SetUp) -> None:
    """From outside as deep as told, through the wood that is there: so much of it is in the end."""
    (do,) = (one for one in card.does if isinstance(one, Onward))
    (bit,) = (one for one in card.does if isinstance(one, Bit))
    assert bit.deep is not None
    for mate, key, end in do.ends:
        judge.tally.hold("bored on before through", float((key, end) not in judge.pierced), card.id)
        host, support = _body(judge, mate), judge.piece.supports[_body(judge, key).support]
        holes = judge.pierced.get((key, end), [])
        woods = [_wood(host, at, way) for at, way, _ in holes]
        for (_, _, thick), wood in zip(holes, woods, strict=True):
            judge.tally.hold("another bit mm", abs(thick - bit.diameter.value), card.id)
            more = bit.deep.value - wood - support.dowels.depth  # type: ignore[union-attr]
            # Where the outside slants, one stop serves all: the least as deep as chosen.
            slants = max(woods) - wood
            if not any(one.code == "through_bare" for one in judge.plan.findings):
                judge.tally.hold("dowel past mm", abs(more - slants), card.id)
        judge.onward.add((key, end))


def _wood(host: Body, at: Array, way: Array) -> float:
    """How far the finished part goes on from a place on its side, felt for from where it is out."""
    towards = way if _in(host, at + way * 1.0) else -way
    low, high = 0.0, 2.0 * (host.width + host.thickness)
    steps = [low + (high - low) * k / 400 for k in range(1, 401)]
    last = max((s for s in steps if _in(host, at + towards * s)), default=0.0)
    inside, out = last, last + (high - low) / 400
    while out - inside > FINE_MM:
        middle = (inside + out) / 2
        inside, out = (middle, out) if _in(host, at + towards * middle) else (inside, middle)
    return inside


def _in(host: Body, at: Array) -> bool:
    return any(
        all(float(np.array(face.normal) @ (at - np.array(face.corners[0]))) < 0.0 for face in solid)
        for solid in host.stood
    )


def unbored(judge: Judge) -> None:
    """Ends whose dowels come from outside that nobody was told to bore."""
    for body in judge.plan.stance.bodies:
        support = judge.piece.supports[body.support]
        if driven_through(support) and body.role in ("cross", "rail", "link", "tread"):
            ends = {(body.key, "start"), (body.key, "finish")}
            judge.tally.hold("dowel unbored", float(len(ends - judge.onward)), body.key)


def _body(judge: Judge, key: str) -> Body:
    return next(b for b in judge.plan.stance.bodies if b.key == key)


__all__ = ["judge_onward", "judge_through", "unbored"]
