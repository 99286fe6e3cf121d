"""Joints carried out: dowels and slots in sawn ends, holes reamed or chopped to what goes into them."""

from __future__ import annotations

import math
from typing import TYPE_CHECKING

import numpy as np

from splay.setups.card import SetUp
from splay.stance.rods import rods
from splay.stance.staked import LegStance, support_of
from splay.work.does import Chop, Ream
from splay.work.joinery import Slots, Spots
from splay.work.lays import EndDown, EndUp
from tests.bench.frames import Array, unit, vec

if TYPE_CHECKING:
    from tests.bench.judged import Judge


def judge_dowels(judge: Judge, card: SetUp) -> None:
    """Held as told the sawn end lies level: the plumb bit enters it square, where the joint has dowels."""
    for lay in card.lays:
        assert isinstance(lay, EndUp)
        for key in lay.parts:
            board = judge.boards[key]
            normal, _ = _end(judge, key, lay.end)
            # Its top leans towards the sides named: turned so, each of them comes down to level.
            for side in lay.leans:
                down = float(normal @ board.sides[side])
                judge.tally.hold("leans the wrong way", max(0.0, down), f"{card.id} {lay}")
            others = [s for name, s in board.sides.items() if name not in lay.leans]
            free = [s for s in others if not any(abs(float(s @ board.sides[x])) > 0.5 for x in lay.leans)]
            for side in free:
                off = abs(math.degrees(math.asin(float(normal @ side))))
                judge.tally.hold("leans untold deg", off, card.id)
            _spots(judge, card, key, lay.end)


def judge_slots(judge: Judge, card: SetUp) -> None:
    """Stood on its sawn end, its face on the fence as told, the plumb cutter enters it square, halfway
    through its thickness, where the joint has its loose tenons."""
    (told,) = [do for do in card.does if isinstance(do, Slots)]
    back, along = ((one.value if one else 0.0) for one in (told.back, told.along))
    hold = judge.tally.hold
    for lay in card.lays:
        assert isinstance(lay, EndDown)
        for key in lay.parts:
            where = f"{card.id} {lay}"
            body = next(b for b in judge.plan.stance.bodies if b.key == key)
            board = judge.boards[key]
            way = board.ends[lay.end]
            # The table's up, for a stick whose sawn end lies flat on it.
            up = -_end(judge, key, lay.end)[0]
            on_fence = board.sides[lay.face]
            hold("slot: fence deg", abs(-math.degrees(math.asin(float(on_fence @ up))) - back), where)
            fence = unit(np.cross(up, on_fence))
            leaning = unit(-way - on_fence * float(-way @ on_fence))
            square = np.cross(on_fence, fence)
            square *= 1.0 if float(square @ up) > 0 else -1.0
            off = math.degrees(math.acos(min(1.0, float(leaning @ square))))
            hold("slot: block deg", abs(off - along), where)
            if lay.along:
                toward = float(board.sides[lay.along] @ fence) * float(leaning @ fence)
                hold("slot: leans the other way", max(0.0, -toward), where)
            else:
                hold("slot: leans untold deg", off, where)
            middle = told.off.value * math.cos(math.radians(back))
            hold("slot: off middle mm", abs(middle - body.thickness / 2), where)
            _spots(judge, card, key, lay.end)


def _end(judge: Judge, key: str, end: str) -> tuple[Array, float]:
    """A part's sawn end in its own frame: the plane's normal out of it, and how far off the middle."""
    body = next(b for b in judge.plan.stance.bodies if b.key == key)
    plane = body.start if float(judge.boards[key].ends[end][0]) < 0 else body.finish
    return np.array(plane.normal), plane.offset


def _spots(judge: Judge, card: SetUp, key: str, end: str) -> None:
    """Measured along the sawn end from the edge named, or from its middle line, halfway through its
    thickness, the places told are those where the joint's dowels stand."""
    (told,) = [do for do in card.does if isinstance(do, Spots)]
    body = next(b for b in judge.plan.stance.bodies if b.key == key)
    board = judge.boards[key]
    normal, offset = _end(judge, key, end)
    run = unit(vec(-normal[1], normal[0], 0.0))

    def across(y: float) -> Array:
        return vec((offset - normal[1] * y) / normal[0], y, 0.0)

    places: list[Array] = []
    if told.sides or told.on_line:
        places += [across(0.0)] if told.on_line else []
        for side, at in told.sides:
            sign = float(board.sides[side][1]) * float(run[1])
            places += [across(0.0) + run * math.copysign(mm.value, sign) for mm in at]
    else:
        # "Either edge": the names of both sides are tried, and both must do.
        edges = [told.edge] if told.edge else [name for name, s in board.sides.items() if abs(s[1]) > 0.5]
        for edge in edges:
            if edge not in board.sides:
                judge.tally.hold("told from an edge it has not", 1.0, f"{card.id} {key} {edge}")
                continue
            side = float(board.sides[edge][1])
            # Halfway through its thickness a bevelled edge lies further in than at its corner.
            lies = [r.offset / r.normal[1] for r in body.rips if r.normal[1] * side > 0]
            start = across(lies[0] if lies else side * body.width / 2)
            inward = run * math.copysign(1.0, -side * float(run[1]))
            places += [start + inward * mm.value for mm in told.at]
    name = "start" if float(board.ends[end][0]) < 0 else "finish"
    stand: dict[str, list[Array]] = {}
    for rod in rods(judge.piece, judge.plan.stance, judge.runs, judge.ropes):
        if rod.joint.startswith(f"{key}.{name}."):
            middle = (np.array(rod.a) + np.array(rod.b)) / 2
            stand.setdefault(rod.joint, []).append(np.array(body.pose.within(tuple(middle))))
    real = [np.mean(many, axis=0) for many in stand.values()]
    for place in places if real else ():
        near = min(float(np.linalg.norm(place - one)) for one in real)
        judge.tally.hold("dowel place mm", near, f"{card.id} {key} {end}")


def judge_hole(judge: Judge, card: SetUp, leg: LegStance) -> None:
    """A reamed hole takes its tapered tenon whole, a chopped one its square tenon at the lean."""
    joint = support_of(judge.piece, leg).joint
    for do in card.does:
        if isinstance(do, Ream):
            tip = leg.bore.size - 2.0 * leg.bore.deep * math.tan(math.radians(joint.included) / 2)
            judge.tally.hold("pilot wider than the tenon's tip mm", max(0.0, do.pilot.value - tip), card.id)
            judge.tally.hold("reamed another taper deg", abs(do.included.value - joint.included), card.id)
        elif isinstance(do, Chop):
            # The tenon's two broad sides lie half its thickness either way off its middle; where they meet
            # the face, along the sightline, is the mortise's length.
            d, n = np.array(leg.d), vec(0, 0, 1)
            along = d - n * float(d @ n)
            if float(np.linalg.norm(along)) < 1e-9:
                long = joint.socket
            else:
                line = unit(along)
                broad = unit(np.cross(d, np.cross(line, n)))
                long = joint.socket / abs(float(broad @ line))
            judge.tally.hold("mortise long mm", abs(do.long.value - long), card.id)
            judge.tally.hold("mortise wide mm", abs(do.wide.value - joint.across), card.id)
