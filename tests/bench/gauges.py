"""Rules, gauges and calipers: each reads the bench's own solids, the way a proof says, nothing else."""

from __future__ import annotations

import math

import numpy as np

from splay.piece import Round, Stretcher
from splay.setups.card import Proof
from splay.shop import BevelGauge, DigitalGauge, Protractor, Scale
from splay.stance.staked import support_of
from splay.work.marks import Kind, Mark, member_key
from splay.work.takes import (
    AcrossEnd,
    Apart,
    ArcHigh,
    Bevelled,
    BothSides,
    Butt,
    Corner,
    Deep,
    EndToEnd,
    FirstShoulder,
    Gap,
    Mortised,
    MouthLong,
    OffString,
    OneFace,
    Probed,
    RodInHole,
    SawnLine,
    SlotLong,
    StandsOut,
    Sticks,
    Thick,
    ToGroove,
    ToLine,
    TopThick,
    UnderEdge,
    Wall,
)
from tests.bench.buttoned import read_groove, read_step
from tests.bench.frames import Array, apart_deg, square_to, unit, vec
from tests.bench.hands import NotTold
from tests.bench.held import read_out
from tests.bench.hollowed import read_under_edge
from tests.bench.joined import read_line
from tests.bench.judged import Judge
from tests.bench.splined import read_mortise
from tests.bench.tapered import read_across


def shown(scale: Scale, off: float) -> float:
    return scale.at_square + (off if scale.counts == "up" else -off)


class Gauges:
    """Every proof of a piece read where its hands have bored, sawn and stood things."""

    def __init__(self, judge: Judge) -> None:
        self.judge, self.plan, self.piece = judge, judge.plan, judge.piece

    def read(self, proof: Proof) -> float | None:
        """What the instrument shows; None where nothing of this proof can be made on the bench."""
        take = proof.take
        if take is None:
            raise NotTold(proof.id)
        return getattr(self, f"_{type(take).__name__.lower()}")(take, proof)

    def _scale(self, *kinds: type) -> Scale:
        for kind in kinds:
            for tool in self.judge.shop.tools:
                if isinstance(tool, kind) and tool.owned:
                    return tool.scale
        return Scale(at_square=0, counts="up", reach=90, step=0.1)

    def _angle(self, off: float) -> float:
        return shown(self._scale(DigitalGauge, BevelGauge), off)

    def _on_a_sawn_line(self, off: float) -> float:
        return shown(self._scale(BevelGauge), off)

    def _apart(self, take: Apart, proof: Proof) -> float | None:
        one = self.judge.seat.points[take.one]
        if take.two is not None:
            return float(np.linalg.norm(one - self.judge.seat.points[take.two]))
        outline = self.piece.top.outline
        if isinstance(outline, Round):
            return outline.diameter / 2 - float(np.linalg.norm(one[:2]))
        if outline.kind == "rectangle" and outline.corner == 0:
            return min(outline.length / 2 - abs(one[0]), outline.width / 2 - abs(one[1]))
        return None

    def _rodinhole(self, take: RodInHole, proof: Proof) -> float | None:
        hole = self.judge.bored.get(take.hole)
        if hole is None:
            return None
        face = self.judge.seat.outward("upper face" if take.face == "upper face" else "underside")
        if take.leans is not None:
            arrow = self.judge.seat.arrows[hands_line(take.hole)] * (1 if take.leans.by == "arrow" else -1)
            assert float(hole.out @ arrow) > 0, "the rod leans the other way than told"
            # On the sightline nothing of the lean is lost to the side.
            assert abs(float(hole.out @ np.cross(face, arrow))) < 1e-6
        return self._angle(apart_deg(hole.out, face))

    def _leg(self, key: str) -> tuple[object, object]:
        number = int(key.partition(".")[2])
        return self.plan.stance.legs[number - 1], self.judge.sticks[key]

    def _bothsides(self, take: BothSides, proof: Proof) -> float:
        leg, stick = self._leg(take.part)
        n, h = np.array(self.plan.stance.floor.normal), self.plan.stance.floor.h0_mm
        lengths = []
        for line in (take.long, take.short) if take.long else ("", ""):
            low, high = 0.0, 3000.0
            for _ in range(60):
                z = (low + high) / 2
                p = self.judge.side_point(stick, line, z) if line else vec(0, 0, z)
                above = float(n @ self.judge.leg_point(leg, p)) + h
                low, high = (z, high) if above > 0 else (low, z)
            lengths.append(low)
        return sum(lengths) / 2

    def _body(self, key: str) -> object:
        return next(b for b in self.plan.stance.bodies if b.key == key)

    def _sawnline(self, take: SawnLine, proof: Proof) -> float | None:
        cut = self.judge.cuts.get((take.part, take.end))
        if cut is None:
            return None
        board = self.judge.boards[take.part]
        trace = unit(np.cross(cut.normal, board.sides[take.side]))
        along = board.ends[take.end]
        return self._on_a_sawn_line(abs(90.0 - apart_deg(trace, along)))

    def _corner(self, take: Corner, proof: Proof) -> float:
        between = self.judge.corner(take.part, take.face, take.edge)
        return between + (0.0 if take.shoulders else sum(self._body(take.part).tenons))

    def _thick(self, take: Thick, proof: Proof) -> float:
        leg, _ = self._leg(take.part)
        shape = support_of(self.piece, leg).leg
        if take.at == "tenon's end":
            return leg.bore.tip
        sizes = {"finished foot": shape.at_foot, "place where it leaves the seat": shape.at_top}
        return sizes.get(take.at, shape.belly.size if shape.belly else 0.0)

    def _acrossend(self, take: AcrossEnd, proof: Proof) -> float | None:
        return read_across(self.judge, take)

    def _mortised(self, take: Mortised, proof: Proof) -> float | None:
        return read_mortise(self.judge, take)

    def _toline(self, take: ToLine, proof: Proof) -> float | None:
        return read_line(self.judge, take)

    def _standsout(self, take: StandsOut, proof: Proof) -> float | None:
        read = read_out(self.judge, take)
        # Too long a screw is said elsewhere: what stands out is then not what was chosen.
        proud = any(found.code == "held_proud" for found in self.plan.findings)
        return None if proud else read

    def _butt(self, take: Butt, proof: Proof) -> float | None:
        return self.judge.butts.get(take.part)

    def _oneface(self, take: OneFace, proof: Proof) -> float:
        kind, _, number = take.part.partition(".")
        # A regular octagon over its flats: side = flats · tan 22.5.
        if kind == "member":
            return self.piece.members[int(number) - 1].diameter * math.tan(math.pi / 8)
        assert take.at == "finished foot"
        leg, _ = self._leg(take.part)
        return support_of(self.piece, leg).leg.at_foot * math.tan(math.pi / 8)

    def _firstshoulder(self, take: FirstShoulder, proof: Proof) -> float:
        leg, stick = self._leg(take.part)
        inside = self.plan.parts[leg.number - 1].in_top.quantity.value
        k = self.judge.slope_at_mouth(leg)
        half = support_of(self.piece, leg).leg.at_top / 2
        names = [n for n in stick.lines if n.endswith("face")] or ["outer line", "inner line"]
        found = []
        for name in names:
            low, high = -200.0, 200.0
            for _ in range(60):
                t = (low + high) / 2
                p = vec(0, 0, inside + t) + stick.lines[name] * (half - k * t)
                low, high = (t, high) if self.judge.leg_point(leg, p)[2] > leg.socket[2] else (low, t)
            found.append(inside + low)
        return min(found)

    def _offstring(self, take: OffString, proof: Proof) -> float | None:
        return self.judge.strung.get(take.leg)

    def _archigh(self, take: ArcHigh, proof: Proof) -> float | None:
        return self.judge.arcs.get(take.part)

    def _mouthlong(self, take: MouthLong, proof: Proof) -> float | None:
        mouth = self.judge.mouths.get(take.leg)
        return mouth.long if mouth else None

    def _slotlong(self, take: SlotLong, proof: Proof) -> float | None:
        return self.judge.slots.get(take.which)

    def _topthick(self, take: TopThick, proof: Proof) -> float:
        return self.judge.seat.thickness + self.judge.seat.over

    def _underedge(self, take: UnderEdge, proof: Proof) -> float | None:
        return read_under_edge(self.judge, take)

    def _togroove(self, take: ToGroove, proof: Proof) -> float | None:
        return read_groove(self.judge, take)

    def _deep(self, take: Deep, proof: Proof) -> float | None:
        if "tongue" in take.where:
            return read_step(self.judge, take)
        return None  # a depth is what it was set to; its card is held against the part it fits

    def _probed(self, take: Probed, proof: Proof) -> float | None:
        return None

    def _bevelled(self, take: Bevelled, proof: Proof) -> float:
        board, body = self.judge.boards[take.part], self._body(take.part)
        face, edge = board.sides[take.face], board.sides[take.edge]
        rip = next(np.array(r.normal) for r in body.rips if float(np.array(r.normal) @ edge) > 0.5)
        blade = unit(np.cross(rip, vec(1, 0, 0)))
        return self._on_a_sawn_line(abs(90.0 - apart_deg(blade, edge))) if float(face @ face) else 0.0

    def _sticks(self, take: Sticks, proof: Proof) -> float | None:
        """The protractor lies on the surface at the mark, in the plane of the two sticks."""
        stick = self.judge.sticks[take.mark.on]
        at = stick.points.get(take.mark)
        if at is None:
            return None
        u = self._toward(take.mark)
        beside = np.cross(vec(0, 0, 1), square_to(vec(0, 0, 1), u))
        line = unit(np.cross(beside, stick.normal(at)))
        wide = apart_deg(line, u)
        return (
            shown(self._scale(Protractor), 90.0 - min(wide, 180.0 - wide))
            if self._scale(Protractor)
            else None
        )

    def _toward(self, mark: Mark) -> Array:
        """The straight stick over both marks (the rod through the hole), in the frame of what it leaves."""
        wanted = self.judge.wanted(mark)[1]
        kind, _, number = mark.on.partition(".")
        if kind == "leg":
            x, y, z = self.judge.frame(int(number))
        else:
            x, y, z = self.judge.member_frame(int(number))
        return vec(float(wanted @ x), float(wanted @ y), float(wanted @ z))

    def _gap(self, take: Gap, proof: Proof) -> float | None:
        ends = [self.judge.mark_stood(mark) for mark in (take.one, take.two)]
        # Where there is no room between the two it is found and said elsewhere.
        if any(end is None for end in ends) or proof.expected.value <= 0.0:
            return None
        return float(np.linalg.norm(ends[1] - ends[0]))

    def _wall(self, take: Wall, proof: Proof) -> float | None:
        """A flat-bottomed hole along the stretcher's line: its bottom less where its wall begins."""
        stick = self.judge.sticks[take.mark.on]
        at = stick.points.get(take.mark)
        if at is None:
            return None
        number = int(take.mark.which.partition("/")[0].partition(".")[2])
        chosen = self.piece.members[number - 1]
        assert isinstance(chosen, Stretcher)
        u = self._toward(take.mark)
        beside = np.cross(vec(0, 0, 1), square_to(vec(0, 0, 1), u))
        line = unit(np.cross(beside, stick.normal(at)))
        across = square_to(u, line)
        # Where the surface's line passes half a bore beside the middle, how far along the bore that is.
        run = float(line @ u) / float(line @ across) * chosen.tenon / 2
        return chosen.depth - abs(run)

    def _endtoend(self, take: EndToEnd, proof: Proof) -> float | None:
        number = int(take.part.partition(".")[2])
        return self.judge.cut_to.get(member_key(number))


def hands_line(mark: Mark) -> Mark:
    return Mark(Kind.SIGHTLINE, mark.on, mark.which)
