"""Tapered sides carried out: drawn as told on the stick as it is by then, and cut by each tool."""

from __future__ import annotations

import math
from typing import TYPE_CHECKING, Any

import numpy as np

from splay.setups.card import SetUp
from splay.work.joinery import TaperLine
from splay.work.lays import SideTapered
from splay.work.takes import AcrossEnd
from tests.bench import hands
from tests.bench.frames import Array, unit, vec

if TYPE_CHECKING:
    from tests.bench.judged import Judge

Plane = tuple[Array, float]
"""A side of the wood: its normal out of it and how far along that it lies, mm."""


class TaperedStick:
    """A stick with joints cut, known by the names on its sides; each side a plane in its own frame."""

    def __init__(self, judge: Judge, key: str) -> None:
        self.body = next(b for b in judge.plan.stance.bodies if b.key == key)
        self.board = judge.boards[key]
        self.sides: dict[str, Plane] = {}
        for name, way in self.board.sides.items():
            half = self.body.thickness / 2 if abs(way[2]) > 0.5 else self.body.width / 2
            self.sides[name] = (way, half)
            for rip in self.body.rips:
                if float(np.array(rip.normal) @ way) > 0.5:
                    self.sides[name] = (np.array(rip.normal), rip.offset)
        self.whole = dict(self.sides)
        self.ends = {
            name: (np.array(p.normal), p.offset)
            for name, p in zip(self.board.ends, (self.body.start, self.body.finish), strict=True)
        }

    def opposite(self, side: str) -> str:
        way = self.board.sides[side]
        return next(name for name, other in self.board.sides.items() if float(way @ other) < -0.5)

    def draw(self, do: TaperLine) -> Plane:
        """The plane through the line square across its side and the mark at the sawn end it runs to."""
        own, on = self.whole[do.side], self.sides[do.on]
        foot = next(name for name in self.ends if name != do.end)
        assert do.to == foot
        away = 1.0 if self.ends[do.end][0][0] < 0 else -1.0
        begins = meet(own, self.whole[do.on], self.ends[do.end])[0] + away * do.begins.value
        across = unit(np.cross(own[0], vec(1, 0, 0)))
        # Gauged from the corner along `on`, which there runs square to the stick.
        into = np.cross(self.whole[do.on][0], vec(1, 0, 0))
        into = unit(into if float(into @ own[0]) < 0 else -into)
        deep = float(into @ own[0]) * do.off.value
        mark = meet((own[0], own[1] + deep), on, self.ends[foot])
        start = meet(own, self.whole[do.on], (vec(1, 0, 0), begins))
        normal = unit(np.cross(across, mark - start))
        normal = normal if float(normal @ own[0]) > 0 else -normal
        return normal, float(normal @ start)


def meet(*planes: Plane) -> Array:
    normals = np.array([normal for normal, _ in planes])
    made: Array = np.linalg.solve(normals, np.array([offset for _, offset in planes]))
    return made


def judge_tapers(judge: Judge, card: SetUp) -> None:
    """Every side as it is drawn and cut, held against the stance and against what the tool makes of it."""
    sticks = {key: TaperedStick(judge, key) for key in card.parts}
    for do in (one for one in card.does if isinstance(one, TaperLine)):
        for key in do.parts:
            stick = sticks[key]
            drawn_on_cut = not np.allclose(stick.sides[do.on][0], stick.whole[do.on][0])
            judge.tally.hold("told of a cut side", float(drawn_on_cut != do.cut), card.id)
            new = stick.draw(do)
            lay = next(
                lay for lay in card.lays if isinstance(lay, SideTapered)
                and lay.side == do.side and key in lay.parts
            )  # fmt: skip
            assert lay.on == do.on
            assert lay.by != "sled" or lay.against == stick.opposite(do.side)
            _tool(judge, card, stick, lay, new)
            stick.sides[do.side] = new
            wanted = next(
                t.plane for t in stick.body.tapers
                if float(np.array(t.plane.normal) @ stick.board.sides[do.side]) > 0.5
            )  # fmt: skip
            foot = next(name for name in stick.ends if name != do.end)
            at = meet(new, stick.whole[do.on], stick.ends[foot])
            judge.tally.hold("taper mm", abs(float(at @ np.array(wanted.normal)) - wanted.offset), card.id)
            judge.tally.hold(
                "taper deg",
                math.degrees(math.acos(min(1.0, float(new[0] @ np.array(wanted.normal))))),
                card.id,
            )
    for stick in sticks.values():
        judge.tally.hold("tapers untold", float(_uncut(stick)), card.id)
        judge.tapered[stick.body.key] = stick


def _uncut(stick: TaperedStick) -> int:
    """How many sides the stance tapers that nobody was told to."""
    cut = sum(not np.allclose(stick.sides[name][0], stick.whole[name][0]) for name in stick.sides)
    return abs(len(stick.body.tapers) - cut)


def _tool(judge: Judge, card: SetUp, stick: TaperedStick, lay: SideTapered, new: Plane) -> None:
    """What the tool, set as told, makes of the line."""
    on = stick.whole[lay.on][0]
    square = math.degrees(math.asin(max(-1.0, min(1.0, float(-stick.whole[lay.side][0] @ on)))))
    told = lay.turn.value if lay.turn is not None else 0.0
    judge.tally.hold("taper turn deg", abs(square - told), card.id)
    # The side sawn square, or leaned back from a sharper corner, never takes wood beyond the line.
    judge.tally.hold("taper undercut", max(0.0, -square), card.id)
    if lay.by == "plane":
        assert lay.stop is None and lay.packing is None
        return
    down = lay.on if lay.by == "sled" else stick.opposite(lay.on)
    _level(judge, card, stick, lay, down)
    if lay.by != "sled":
        assert lay.stop is None
        return
    assert lay.stop is not None
    sled: Any = hands.tool_of(judge.shop, card)
    turned = math.degrees(math.atan2(lay.stop.value, sled.length))
    # Seen from above, the side at the stops and the kerf: two lines on the level table.
    stops = np.cross(stick.sides[lay.against][0], on)
    kerf = np.cross(new[0], on)
    between = math.degrees(math.acos(min(1.0, abs(float(unit(stops) @ unit(kerf))))))
    judge.tally.hold("sled deg", abs(turned - between), card.id)
    # The stops' side comes nearer to the kerf, and so to the blade, towards the end it runs to.
    wide = []
    to = stick.ends[lay.to][0][0]
    for x in (0.0, 100.0 if to > 0 else -100.0):
        at = (vec(1, 0, 0), x)
        rims = [meet(one, stick.whole[lay.on], at) for one in (stick.sides[lay.against], new)]
        wide.append(float(np.linalg.norm(rims[0] - rims[1])))
    judge.tally.hold("sled turned the other way", max(0.0, wide[1] - wide[0]), card.id)


def _level(judge: Judge, card: SetUp, stick: TaperedStick, lay: SideTapered, down: str) -> None:
    """Packed as told the stick lies as if the side under it had never been cut."""
    normal = stick.whole[down][0]
    foot, cut = lay.to, stick.sides[down]
    gap = 0.0
    if not np.allclose(cut[0], normal):
        # Where the packing lies: in the plane of the cut side's own mark at the foot.
        mark = next(
            t for t in stick.body.tapers if float(np.array(t.plane.normal) @ stick.board.sides[down]) > 0.5
        )
        slope = cut[0][0] / float(cut[0] @ normal)
        gap = slope * (mark.mark - mark.begins)
    told = lay.packing.value if lay.packing is not None else 0.0
    judge.tally.hold("taper packing mm", abs(gap - told), f"{card.id} {foot}")


def read_across(judge: Judge, take: AcrossEnd) -> float | None:
    """The rule laid across a side at the foot, square to the stick, where the foot is sawn shorter."""
    stick = judge.tapered.get(take.part)
    if stick is None:
        return None
    foot = stick.ends[take.end]
    edges = [stick.sides[take.side], stick.sides[take.other]]
    on = stick.sides[take.on]
    ends = [float(meet(edge, on, foot)[0]) for edge in edges]
    short = min(ends) if foot[0][0] > 0 else max(ends)
    one, two = (meet(edge, on, (vec(1, 0, 0), short)) for edge in edges)
    return float(np.linalg.norm(one - two))
