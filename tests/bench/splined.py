"""Splines carried out: notches and mortises cut as told, then a spline stood in both."""

from __future__ import annotations

import math
from typing import TYPE_CHECKING

import numpy as np

from splay.setups.card import SetUp
from splay.work.joinery import EndNotches, MakeSplines, Mortises
from splay.work.takes import Mortised
from tests.bench.frames import Array, unit, vec
from tests.bench.tapered import Plane, TaperedStick, meet

if TYPE_CHECKING:
    from tests.bench.judged import Judge


def judge_notches(judge: Judge, card: SetUp) -> None:
    """Each notch as told: its cheeks along the board, its bottom square to the faces, so deep."""
    (do,) = (one for one in card.does if isinstance(one, EndNotches))
    for key in do.parts:
        stick = TaperedStick(judge, key)
        edge, face, end = stick.whole[do.edge], stick.whole[do.face], stick.ends[do.end]
        corner = meet(edge, face, end)
        bottom = (vec(1, 0, 0), float(corner[0]) - math.copysign(1.0, end[0][0]) * do.deep.value)
        cheeks = [tuple((edge[0], edge[1] - q.value) for q in pair) for pair in do.cheeks]
        judge.notched[key] = (stick, bottom, cheeks)


def judge_mortises(judge: Judge, card: SetUp) -> None:
    """A spline as thick as its board stands in each notch and goes up along it: it comes through the top
    within the lines told on both its faces, and the lines leave it no room."""
    thick = judge.piece.top.thickness
    every: list[tuple[int, float, float]] = []
    for do in (one for one in card.does if isinstance(one, Mortises)):
        level = thick if do.face == "upper face" else 0.0
        side = {"LEFT": -1, "RIGHT": 1}[do.side]
        for key, (stick, _, cheeks) in judge.notched.items():
            if np.sign(stick.body.pose.origin[0]) != side or key.split(".")[0] not in card.work:
                continue
            judge.tally.hold("mortises for notches", float(abs(len(cheeks) - len(do.places))), card.id)
            faces = [stick.whole[name] for name in stick.whole if name.endswith("face")]
            xs = sorted(abs(_through(stick, face, level)) for face in faces)
            told = sorted((do.near.value, do.far.value))
            judge.tally.hold(
                "mortise across mm", max(abs(a - b) for a, b in zip(xs, told, strict=True)), card.id
            )
            ys = sorted(y for pair in cheeks for y in (_y(stick, cheek) for cheek in pair))
            said = sorted(q.value for pair in do.places for q in pair)
            judge.tally.hold(
                "mortise along mm", max(abs(a - b) for a, b in zip(ys, said, strict=True)), card.id
            )
            every.append((side, level, told[1] - told[0]))
    judge.mortised[card.work.removeprefix("spline_mortise.")] = next(
        w for _, level, w in every if level == 0.0
    )
    judge.tally.hold("faces told", float(4 - len({(s, z) for s, z, _ in every})), card.id)


def judge_splines(judge: Judge, card: SetUp) -> None:
    """It fills its notch, and when it stands on the bottom its whole upper end is out of the top."""
    (do,) = (one for one in card.does if isinstance(one, MakeSplines))
    count = 0
    for key in card.parts:
        stick, bottom, cheeks = judge.notched[key]
        count += len(cheeks)
        judge.tally.hold("spline thick mm", abs(do.thick.value - stick.body.thickness), card.id)
        for pair in cheeks:
            wide = abs(_y(stick, pair[0]) - _y(stick, pair[1]))
            judge.tally.hold("spline wide mm", abs(do.wide.value - wide), card.id)
        up = -math.copysign(1.0, stick.ends["foot"][0][0])
        heads = [
            _out(stick, meet(face, cheeks[0][0], (vec(1, 0, 0), bottom[1] + up * do.long.value)))
            for name, face in stick.whole.items()
            if name.endswith("face")
        ]
        proud = judge.piece.supports[stick.body.support].splines.proud
        short = judge.piece.top.thickness + proud - min(float(p[2]) for p in heads)
        judge.tally.hold("spline short mm", max(0.0, short), card.id)
        judge.tally.hold("spline much too long mm", max(0.0, -short - 10.0), card.id)
    judge.tally.hold("splines told", float(abs(count - do.count)), card.id)


def _apart(ones: list[float], others: list[float]) -> float:
    return max(abs(a - b) for a, b in zip(ones, others, strict=True))


def _through(stick: TaperedStick, face: Plane, level: float) -> float:
    """How far out of the middle a face of a board, carried on up, comes at a height of the top frame."""
    normal = np.array(stick.body.pose.turn_out(tuple(float(v) for v in face[0])))  # type: ignore[arg-type]
    offset = face[1] + float(normal @ np.array(stick.body.pose.origin))
    return float((offset - normal[2] * level) / normal[0])


def _y(stick: TaperedStick, cheek: Plane) -> float:
    """Where a cheek lies front to back."""
    return float(_out(stick, unit(cheek[0]) * cheek[1])[1])


def _out(stick: TaperedStick, p: Array) -> Array:
    return np.array(stick.body.pose.out((float(p[0]), float(p[1]), float(p[2]))))


def read_mortise(judge: Judge, take: Mortised) -> float | None:
    return judge.mortised.get(take.of)
