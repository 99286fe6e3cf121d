"""Holds what the hands made against the plan: every card of a piece, by operation and tool."""

from __future__ import annotations

import math
from collections import Counter
from dataclasses import dataclass, field
from itertools import pairwise
from typing import Any

import numpy as np
import shapely

from splay.piece import Battened, Piece, StakedLegs, Stretcher
from splay.plan import Plan
from splay.setups.card import SetUp
from splay.shop import Shop
from splay.stance.hollow import thickness_at
from splay.stance.lines import floor_line, named_faces, socket_line
from splay.stance.member_flats import floor_side
from splay.stance.members import MemberStance, RopeStance, members
from splay.stance.outline import points
from splay.stance.staked import LegStance, support_of
from splay.stance.taper import size_at
from splay.stance.vectors import word
from splay.work.does import Bit, Cut, LongPoint, SawToLine
from splay.work.joinery import (
    Between,
    Cove,
    CutOut,
    EightAlong,
    FlatsLeft,
    Groove,
    JigOver,
    Notch,
    Parted,
    Recessed,
    SawnSquare,
    Shoulders,
    Stations,
    Tenon,
    Transferred,
)
from splay.work.lays import OnFloor, OnLines, OnSaw, OnSide, OnTilt, Tapered, Upright
from splay.work.marks import Kind, Mark, leg_key, member_key
from splay.work.tops import PlanedOff
from tests.bench import hands
from tests.bench.bent import judge_bent
from tests.bench.buttoned import Cut as GrooveCut
from tests.bench.buttoned import judge_buttons, judge_groove
from tests.bench.frames import Array, apart_deg, spun, square_to, unit, vec
from tests.bench.held import judge_boards, judge_held
from tests.bench.hollowed import judge_hollow, judge_strips
from tests.bench.joined import Drawn, judge_cut_out, judge_joins, untold
from tests.bench.jointed import judge_dowels, judge_hole, judge_slots
from tests.bench.mouthed import EasedMouth, ease_mouths, judge_cove
from tests.bench.outside import judge_outside
from tests.bench.pegged import find_pegs, judge_pegs, judge_screws
from tests.bench.reused import judge_reused
from tests.bench.splined import judge_mortises, judge_notches, judge_splines
from tests.bench.stock import Board, Seat, Stick
from tests.bench.swept import judge_sweep
from tests.bench.tapered import TaperedStick, judge_tapers
from tests.bench.through import judge_onward, judge_through, unbored
from tests.bench.wedged import judge_wedges

FLATS = {"round": 0, "square": 4, "octagon": 8}
STEPS = 40


@dataclass
class Tally:
    """How many cards were carried out by operation and tool, and the worst of everything."""

    done: Counter[tuple[str, str]] = field(default_factory=Counter)
    worst: dict[str, tuple[float, str]] = field(default_factory=dict)

    def hold(self, what: str, off: float, where: str) -> None:
        if off > self.worst.get(what, (-1.0, ""))[0]:
            self.worst[what] = (off, where)

    def add(self, other: Tally) -> None:
        self.done.update(other.done)
        for what, (off, where) in other.worst.items():
            self.hold(what, off, where)


def carry_out(piece: Piece, plan: Plan, shop: Shop) -> Tally:
    """Every card of a plan, in the order of work, judged against its stance; then every proof read."""
    from tests.bench.gauges import Gauges

    judge = Judge(piece, plan, shop)
    tally = judge.all()
    gauges = Gauges(judge)
    for proof in plan.proofs:
        if proof.station == "level":
            continue
        read = gauges.read(proof)
        tally.done["proof", type(proof.take).__name__] += 1
        if read is not None:
            what = "reading deg" if proof.expected.unit == "deg" else "reading mm"
            tally.hold(what, abs(read - proof.expected.value), proof.id)
    return tally


def frame_of(leg: LegStance, piece: Piece) -> tuple[Array, Array, Array]:
    """A leg's own directions in the top frame: its first line, its second, and down it."""
    shape = support_of(piece, leg).leg
    x = np.array(named_faces(shape, leg)[0][1] if shape.section != "round" else socket_line(leg))
    z = np.array(leg.d)
    return x, np.cross(z, x), z


class Judge:
    def __init__(self, piece: Piece, plan: Plan, shop: Shop) -> None:
        self.piece, self.plan, self.shop = piece, plan, shop
        self.tally = Tally()
        self.runs, self.ropes = members(piece, plan.stance)
        batten = max(
            (s.joint.batten_thickness for s in piece.supports
             if isinstance(s, StakedLegs) and isinstance(s.joint, Battened)),
            default=0.0,
        )  # fmt: skip
        self.seat = Seat(
            piece.top.thickness,
            batten,
            sunk=lambda x, y: piece.top.thickness - thickness_at(piece.top, (x, y)),
        )
        self.sticks = {leg_key(leg.number): self._leg(leg) for leg in plan.stance.legs}
        self.sticks |= {member_key(run.number): self._member(run) for run in self.runs}
        self.boards = {body.key: self._board(body) for body in plan.stance.bodies}
        self.bored: dict[Mark, hands.Hole] = {}
        self.cuts: dict[tuple[str, str], hands.Cut] = {}
        self.cut_to: dict[str, float] = {}
        self.tapered: dict[str, TaperedStick] = {}
        self.joined: set[tuple[str, str]] = set()
        self.notched: dict[str, Any] = {}
        self.mortised: dict[str, float] = {}
        self.screwed: dict[str, float] = {}
        self.on_boards: dict[int, list[tuple[float, float, float]]] = {}
        self.butts: dict[str, float] = {}
        self.slots: dict[str, float] = {}
        self.grooved: dict[str, tuple[Groove, GrooveCut]] = {}
        self.hollowed = False
        self.leads: dict[tuple[str, str], str] = {}
        self.arcs: dict[str, float] = {}
        self.strung: dict[int, float] = {}
        self.mouths: dict[int, EasedMouth] = {}
        self.steps: dict[str, float] = {}
        self.lines: dict[tuple[str, str], Drawn] = {}
        self.pierced: dict[tuple[str, str], list[tuple[Array, Array, float]]] = {}
        self.onward: set[tuple[str, str]] = set()
        self.driven: dict[str, list[tuple[Array, Array, float, float]]] = {}

    def _leg(self, leg: LegStance) -> Stick:
        """A finished leg as it lies there: its tenon's end at z nought."""
        support = support_of(self.piece, leg)
        part = self.plan.parts[leg.number - 1]
        inside = part.in_top.quantity.value
        downs = [leg.exposed * k / STEPS for k in range(STEPS + 1)]
        if support.leg.belly is not None:
            downs = sorted({*downs, leg.exposed * support.leg.belly.at})
        shape = tuple((inside + q, size_at(support.leg, leg.exposed, q) / 2.0) for q in downs)
        tenon = ((0.0, leg.bore.tip / 2.0), (inside - 1e-9, leg.bore.size / 2.0))
        if not leg.bore.tenon:
            # Its own end goes into a recess, as thick as the leg is where it leaves the seat.
            tenon = ((0.0, support.leg.at_top / 2.0), (inside - 1e-9, support.leg.at_top / 2.0))
        flats = FLATS[support.leg.section]
        first = "tenon end" if leg.bore.tenon else "upper end"
        return Stick(leg_key(leg.number), first, "foot", (*tenon, *shape), flats)

    def _member(self, run: MemberStance) -> Stick:
        chosen = self.piece.members[run.number - 1]
        part = next(p for p in self.plan.members if p.number == run.number)
        assert isinstance(chosen, Stretcher)
        ends = [f"end for {end.into}" for end in part.ends]
        long = part.total.quantity.value
        stick = Stick(
            member_key(run.number),
            ends[0],
            ends[1],
            ((0.0, chosen.diameter / 2), (long, chosen.diameter / 2)),
            FLATS[chosen.section],
        )
        return stick

    def _board(self, body: object) -> Board:
        s = body.sides
        near, far = {
            "leg": ("upper end", "foot"), "side": ("upper end", "foot"),
            "slab_leg": ("mitre", "foot"), "slab": ("end", "mitre"),
        }.get(body.role, ("left end", "right end"))  # fmt: skip
        sides = {
            s.edge: vec(0, 1, 0),
            s.other_edge: vec(0, -1, 0),
            s.face: vec(0, 0, 1),
            s.other_face: vec(0, 0, -1),
        }
        if body.role == "batten":
            near, far = (f"{word(v)} end" for v in (tuple(-x for x in body.pose.along), body.pose.along))
        low, high = body.at(0.0, 0.0)
        ends = {near: vec(-1, 0, 0), far: vec(1, 0, 0)}
        return Board(sides, ends, (body.width, body.thickness), (high - low) / 2)

    def all(self) -> Tally:
        for step in self.plan.layout.steps:
            # What is drawn on the upper face is drawn when that has been planed.
            self.seat.over = 0.0 if step.face == "upper face" else self.piece.top.left_on
            hands.mark_seat(self.seat, step.acts)
        self.seat.over = self.piece.top.left_on
        self._marks()
        for card in self.plan.setups:
            if card.operation in ("mark", "floor_side"):
                hands.mark_stick(self.sticks, card)
                self.tally.done[card.operation, card.way] += 1
                self._lines(card)
        for card in self.plan.setups:
            take = getattr(self, f"_{card.operation}", None)
            if take is None:
                self.tally.done[f"UNKNOWN {card.operation}", card.way] += 1
                continue
            take(card)
            self.tally.done[card.operation, card.way] += 1
        untold(self)
        unbored(self)
        judge_boards(self)
        return self.tally

    def _marks(self) -> None:
        for mark, at in self.seat.points.items():
            if mark.kind is Kind.FOOTPRINT:
                body = next(b for b in self.plan.stance.bodies if b.key == mark.which.partition("/")[0])
                tops = [np.array(p) for solid in body.stood for face in solid for p in face.corners]
                near = min(float(np.linalg.norm(p - at)) for p in tops)
                self.tally.hold("frame mark mm", near, mark.which)
            if mark.kind is Kind.BATTEN:
                key, _, end = mark.which.partition("/")
                body = next(b for b in self.plan.stance.bodies if b.key == key)
                there = np.array(body.pose.out((body.at(0.0, 0.0)[int(end) - 1], 0.0, -at[2])))
                self.tally.hold("batten mark mm", float(np.linalg.norm(there[:2] - at[:2])), mark.which)
        self._on_the_wood()
        for mark, (end, places) in self.seat.rows.items():
            judge_screws(self, mark, end, places)
        for leg in self.plan.stance.legs:
            for mark, at in self.seat.points.items():
                number, _, face = mark.which.partition(".")
                if number != str(leg.number) or mark.kind is not Kind.CENTRE:
                    continue
                run = (self.seat.level(face) - leg.socket[2]) / leg.d[2]
                there = np.array(leg.socket) + np.array(leg.d) * run
                self.tally.hold("mark mm", float(np.linalg.norm(at - there)), f"leg {number}")

    def _on_the_wood(self) -> None:
        """A line is drawn to a place that is there: on the seat, or on the batten its mark is on."""
        seat = shapely.Polygon(points(self.piece.top.outline)).buffer(0.05)
        battens = [body for body in self.plan.stance.bodies if body.role == "batten"]
        for mark, at in self.seat.far.items():
            wood = seat
            if "battens" in mark.which:
                start = next(p for m, p in self.seat.points.items() if m.which == mark.which)
                mine = min(battens, key=lambda b: _beside(b, start))
                low, high = mine.at(0.0, 0.0)
                ring = [
                    mine.pose.out((x, y, 0.0))[:2]
                    for x, y in (
                        (low, -mine.width / 2), (high, -mine.width / 2),
                        (high, mine.width / 2), (low, mine.width / 2),
                    )
                ]  # fmt: skip
                wood = shapely.Polygon(ring).buffer(0.05)
            off = wood.distance(shapely.Point(float(at[0]), float(at[1])))
            self.tally.hold("line drawn off the wood mm", float(off), mark.which)

    def _lines(self, card: SetUp) -> None:
        """Outer lines of socket and floor are where the leg, stood as told, has them."""
        for number in card.legs:
            leg = self.plan.stance.legs[number - 1]
            stick = self.sticks[leg_key(number)]
            x, y, _ = frame_of(leg, self.piece)
            line = floor_line(leg, self.plan.stance.floor)
            told = stick.lines.get("outer line of the floor", stick.lines.get("outer line"))
            if line is None or told is None:
                continue
            real = x * told[0] + y * told[1]
            self.tally.hold("line deg", apart_deg(real, np.array(line)), f"leg {number}")

    # --- operations ---

    def _bore(self, card: SetUp) -> None:
        if not card.in_reach and not card.wedges:
            return
        for hole in hands.bore_seat(self.seat, card, self.shop):
            self.bored[hole.mark] = hole
            leg = self.plan.stance.legs[int(hole.mark.which.partition(".")[0]) - 1]
            d = np.array(leg.d)
            out = d if float(hole.out @ d) > 0 else -d
            self.tally.hold("hole deg", apart_deg(hole.out, out), f"{card.id} leg {leg.number}")
            self.tally.hold("hole mm", _off_line(np.array(leg.socket), d, hole.at), card.id)
            judge_hole(self, card, leg)
            for do in card.does:
                if isinstance(do, Recessed):
                    self.turned_home(card, leg, do)
        first = next(iter(hands.bore_seat(self.seat, card, self.shop)))
        if any(one.pin for one in hands.pins(card)):
            pin = hands.on_pin(self.seat, card, first)
            self.tally.hold("pin mm", float(np.linalg.norm(pin[:2])), card.id)
            self._turned(card)
        for two in hands.two_ways(card):
            for number, _, _ in two.legs:
                leg = self.plan.stance.legs[number - 1]
                out = hands.two_tilts(self.seat, card, number)
                d = np.array(leg.d)
                d = d if float(out @ d) > 0 else -d
                self.tally.hold("two tilts deg", apart_deg(out, d), card.id)

    def _peg_find(self, card: SetUp) -> None:
        find_pegs(self, card)

    def _peg(self, card: SetUp) -> None:
        if card.in_reach or card.wedges:
            judge_pegs(self, card)

    def _turned(self, card: SetUp) -> None:
        """Turned on its pin by so much, the next mark lies where the last one lay, its arrow likewise."""
        (lay,) = card.lays
        (pin,) = [one.pin for one in hands.pins(card) if one.pin]
        first = lay.at[0]
        for k, mark in enumerate(lay.at):
            about = vec(0, 0, 1)
            there = spun(self.seat.points[mark], about, -pin.turn * k)
            self.tally.hold(
                "pin turned mm", float(np.linalg.norm(there - self.seat.points[first])), card.id
            )
            lines = [Mark(Kind.SIGHTLINE, one.on, one.which) for one in (mark, first)]
            if all(line in self.seat.arrows for line in lines):
                arrow = spun(self.seat.arrows[lines[0]], about, -pin.turn * k)
                self.tally.hold("pin turned deg", apart_deg(arrow, self.seat.arrows[lines[1]]), card.id)

    def leg_point(self, leg: LegStance, p: Array) -> Array:
        """A point of a leg's own frame in the top frame; z counts from the tenon's end."""
        x, y, z = frame_of(leg, self.piece)
        inside = self.plan.parts[leg.number - 1].in_top.quantity.value
        return np.array(leg.socket) + x * p[0] + y * p[1] + z * (p[2] - inside)

    def _leg_way(self, leg: LegStance, v: Array) -> Array:
        x, y, z = frame_of(leg, self.piece)
        return x * v[0] + y * v[1] + z * v[2]

    def frame(self, number: int) -> tuple[Array, Array, Array]:
        return frame_of(self.plan.stance.legs[number - 1], self.piece)

    def member_frame(self, number: int) -> tuple[Array, Array, Array]:
        run = next(r for r in self.runs if r.number == number)
        z, x = np.array(run.u), np.array(floor_side(run.u))
        return x, np.cross(z, x), z

    def mark_stood(self, mark: Mark) -> Array | None:
        """A socket's mark where its stick stands in the piece, top frame."""
        at = self.sticks[mark.on].points.get(mark)
        return None if at is None else self._stood(hands.Hole(mark, at, vec(0, 0, 1), 0.0, None))[0]

    def _stood(self, hole: hands.Hole) -> tuple[Array, Array]:
        """A stick's hole where the stick stands in the piece, top frame."""
        kind, _, number = hole.mark.on.partition(".")
        if kind == "leg":
            leg = self.plan.stance.legs[int(number) - 1]
            return self.leg_point(leg, hole.at), self._leg_way(leg, hole.out)
        run = next(r for r in self.runs if r.number == int(number))
        part = next(p for p in self.plan.members if p.number == run.number)
        z = np.array(run.u)
        x = np.array(floor_side(run.u))
        y = np.cross(z, x)
        start = np.array(run.ends[0].at) + z * (run.ends[0].leaves - part.tenons[0].quantity.value)
        at = start + x * hole.at[0] + y * hole.at[1] + z * hole.at[2]
        return at, x * hole.out[0] + y * hole.out[1] + z * hole.out[2]

    def _socket(self, card: SetUp) -> None:
        hands.mark_stick(self.sticks, card)
        if card.way == "opposite_leg":
            self._sighted(card)
            return
        if not card.in_reach and not card.wedges:
            return
        for hole in hands.bore_stick(self.sticks, card, self.shop):
            at, out = self._stood(hole)
            axis_at, u = self.wanted(hole.mark)
            self.tally.hold("socket deg", min(apart_deg(out, u), apart_deg(out, -u)), card.id)
            self.tally.hold("socket mm", _off_line(axis_at, u, at), card.id)
            if card.operation == "bore_member":
                # Right through the middle line a hole from the far side would lie in the same line.
                beyond = -float((at - axis_at) @ u)
                self.tally.hold("socket entered from the far side mm", max(0.0, beyond), card.id)

    _bore_member = _socket
    _bore_rope = _socket

    def wanted(self, mark: Mark) -> tuple[Array, Array]:
        member, _, end = mark.which.partition("/")
        number = int(member.partition(".")[2])
        found = next(r for r in (*self.runs, *self.ropes) if r.number == number)
        if isinstance(found, RopeStance):
            hole = found.holes[int(end) - 1]
            return np.array(hole.at), self.rope_way(found, int(end) - 1)
        u = np.array(found.u) * (1.0 if end == "1" else -1.0)
        return np.array(found.ends[int(end) - 1].at), u

    def rope_way(self, rope: RopeStance, k: int) -> Array:
        """Halfway between where the rope comes from and where it goes to."""
        n = len(rope.points)
        here = np.array(rope.points[k])
        chosen = self.piece.members[rope.number - 1]
        runs = []
        if chosen.closed or k < n - 1:
            runs.append(unit(np.array(rope.points[(k + 1) % n]) - here))
        if chosen.closed or k > 0:
            runs.append(unit(here - np.array(rope.points[k - 1])))
        total = sum(runs)
        return unit(total) if np.linalg.norm(total) > 1e-6 else runs[0]

    def _sighted(self, card: SetUp) -> None:
        """From its own mark to the mark opposite, both legs standing."""
        (lay,) = card.lays
        for mark, sight in zip(lay.at, lay.sight, strict=True):
            number = int(mark.which.partition("/")[0].partition(".")[2])
            if next(p for p in self.plan.members if p.number == number).gap.quantity.value <= 1.0:
                continue  # no room between the two: found and said elsewhere
            ends = []
            for one in (mark, sight):
                stick = self.sticks[one.on]
                if one not in stick.points:
                    # The other end's card marks it; it may come after this one.
                    other = next(c for c in self.plan.setups if one in c.makes and c.way == "opposite_leg")
                    hands.mark_stick(self.sticks, other)
                hole = hands.Hole(one, stick.points[one], vec(0, 0, 1), 0.0, None)
                ends.append(self._stood(hole)[0])
            _, u = self.wanted(mark)
            self.tally.hold("sighted deg", apart_deg(ends[1] - ends[0], u), card.id)

    def _foot_cut(self, card: SetUp) -> None:
        if any(isinstance(lay, OnFloor) for lay in card.lays):
            self._scribed(card)
            return
        if not card.in_reach and not card.wedges:
            return
        boards = {leg_key(n): self._as_board(n, card) for n in card.legs}
        n = np.array(self.plan.stance.floor.normal)
        for cut in hands.saw(card, self.shop, boards):
            leg = self.plan.stance.legs[int(cut.part.partition(".")[2]) - 1]
            self.tally.hold("cut deg", apart_deg(self._leg_way(leg, cut.normal), -n), card.id)
        self._feet(card)

    def _as_board(self, number: int, card: SetUp) -> Board:
        """A leg on a saw: its lines or faces are its sides. Packed, its middle runs with the fence."""
        stick = self.sticks[leg_key(number)]
        sides = dict(stick.lines)
        for lay in card.lays:
            if isinstance(lay, OnSaw) and leg_key(number) in lay.parts:
                self._packed(stick, lay, card)
        return Board(sides, {"tenon end": vec(0, 0, -1), "foot": vec(0, 0, 1)}, (0.0, 0.0))

    def _packed(self, stick: Stick, lay: OnSaw, card: SetUp) -> None:
        packs = {name: mm.value for name, mm in lay.thin}
        body = [half for z, half in stick.shape if z >= self._mouth(stick)]
        top = body[0] + packs.get("place where it meets the seat", 0.0)
        foot = body[-1] + packs.get("finished foot", 0.0)
        thick = max(body)
        self.tally.hold("packing mm", max(abs(top - thick), abs(foot - thick)), card.id)

    def _mouth(self, stick: Stick) -> float:
        """Where a leg leaves the seat, from its tenon's end."""
        number = int(stick.key.partition(".")[2])
        return self.plan.parts[number - 1].in_top.quantity.value

    def _feet(self, card: SetUp) -> None:
        """Both ends of the cut lie in the floor."""
        floor = self.plan.stance.floor
        for number in card.legs:
            leg = self.plan.stance.legs[number - 1]
            stick = self.sticks[leg_key(number)]
            told = [do for do in hands.long_points(card) if not do.parts or leg_key(number) in do.parts]
            self.tally.hold("told once where its cut goes", abs(len(told) - 1.0), f"{card.id} leg {number}")
            for do in told:
                wanted = [(do.line, do.mm.value), (do.short_line, do.short.value)]
                if not all(self._has(stick, line) for line, _ in wanted if line):
                    continue
                for line, mm in wanted:
                    z = mm
                    if not line:
                        p = vec(0, 0, z)
                        continue
                    p = self.side_point(stick, line, z)
                    at = self.leg_point(leg, p)
                    high = float(np.array(floor.normal) @ at) + floor.h0_mm
                    self.tally.hold("foot mm", abs(high), f"{card.id} leg {number} {line}")

    def _has(self, stick: Stick, line: str) -> bool:
        return line in stick.lines or " between " in line

    def side_way(self, stick: Stick, line: str) -> Array:
        if line in stick.lines:
            return stick.lines[line]
        if line.startswith("face between"):
            return hands.face_of(stick, line)
        a, _, b = line.partition(" between its ")[2].partition(" and its ")
        return unit(stick.lines[a] + stick.lines[b])

    def side_point(self, stick: Stick, line: str, z: float) -> Array:
        """The outermost place of a side or corner at z; of eight sides the corner that reaches furthest."""
        way = self.side_way(stick, line)
        # The leg's taper goes on past its finished foot.
        last, slope = stick.shape[-1], stick.slope(stick.shape[-1][0])
        half = stick.half(z) if z <= last[0] else last[1] + slope * (z - last[0])
        if not stick.flats or (line in stick.lines and stick.flats == 4):
            return vec(0, 0, z) + way * half
        if stick.flats == 4:
            return vec(0, 0, z) + way * half * math.sqrt(2.0)
        return vec(0, 0, z) + way * half

    def _scribed(self, card: SetUp) -> None:
        """The untrimmed piece on its floor, shims in: the block marks the wanted floor on each leg."""
        (lay,) = card.lays
        floor = self.plan.stance.floor
        n = np.array(floor.normal)
        shims = {number: mm.value for number, mm in lay.shims}
        for leg in self.plan.stance.legs:
            part, stick = self.plan.parts[leg.number - 1], self.sticks[leg_key(leg.number)]
            blank = part.blank.quantity.value
            last, slope = stick.shape[-1], stick.slope(stick.shape[-1][0])
            half = last[1] + slope * (blank - last[0])
            # The square end's lowest corner in the wanted lean.
            end = self.leg_point(leg, vec(0, 0, blank))
            if stick.flats:
                faces = [stick.lines[k] for k in stick.lines if k.endswith("face")]
                t = math.tan(math.pi / stick.flats)
                every = faces if stick.flats == 4 else stick.faces()
                corners = [
                    f * half + np.cross(vec(0, 0, 1), f) * half * t * s for f in every for s in (1, -1)
                ]
                low = min(float(n @ self._leg_way(leg, c)) for c in corners)
            else:
                # A disc's lowest point hangs below its middle by half · the sine of its lean.
                low = -half * math.sin(math.radians(apart_deg(np.array(leg.d), -n)))
            low += float(n @ end) + floor.h0_mm
            off = low + lay.block.value - shims.get(leg.number, 0.0)
            self.tally.hold("block mm", abs(off), f"{card.id} leg {leg.number}")
        for do in card.does:
            for _, parts, side in do.sides if isinstance(do, SawToLine) else ():
                for key in parts:
                    self._longest(key, side, card)

    def _longest(self, key: str, side: str, card: SetUp) -> None:
        """Along no other side of the leg, looked at all round, does the floor leave it longer."""
        leg, stick = self.plan.stance.legs[int(key.partition(".")[2]) - 1], self.sticks[key]
        n = -np.array(self.plan.stance.floor.normal)

        def stands_out(way: Array) -> float:
            # The further a place on the rim lies against the floor's way down, the longer it is cut.
            rim = stick.surface(stick.shape[-1][0], way) - vec(0, 0, stick.shape[-1][0])
            return -float(n @ self._leg_way(leg, rim))

        turns = [vec(math.cos(math.radians(k)), math.sin(math.radians(k)), 0) for k in range(360)]
        # Of eight sides the one whose middle is cut longest is told, not the corner beside it.
        most = max(stands_out(way) for way in (stick.faces() if stick.flats == 8 else turns))
        off = max(0.0, most - stands_out(self.side_way(stick, side)))
        self.tally.hold("stays longer elsewhere mm", off, card.id)

    def _crosscut(self, card: SetUp) -> None:
        if not card.in_reach and not card.wedges:
            return
        made = (
            hands.knife(card, self.boards)
            if isinstance(card.lays[0], OnLines)
            else hands.saw(card, self.shop, self.boards)
        )
        starts = []
        for cut in made:
            self.cuts[cut.part, cut.end] = cut
            body = next(b for b in self.plan.stance.bodies if b.key == cut.part)
            board = self.boards[cut.part]
            start = float(board.ends[cut.end][0]) < 0
            starts.append(start)
            plane = body.start if start else body.finish
            self.tally.hold("cut deg", apart_deg(cut.normal, np.array(plane.normal)), f"{card.id} {cut}")

        points = [do for do in card.does if isinstance(do, LongPoint)]
        if not points:
            # The end that is cut first: the other is measured from it.
            self.tally.hold("length untold", 0.0 if all(starts) else 1.0, card.id)
            return
        for key in card.parts:
            mine = [one for one in points if not one.parts or key in one.parts]
            self.tally.hold("told once where its cut goes", abs(len(mine) - 1.0), f"{card.id} {key}")
            for point in mine:
                self._long(card, key, point)

    def _long(self, card: SetUp, key: str, point: LongPoint) -> None:
        """Hooked where something was sawn before, as long as told along a corner the part has."""
        hooked = point.end.removeprefix("long point of its ")
        body = next(b for b in self.plan.stance.bodies if b.key == key)
        there = body.role == "slab" or (key, hooked) in self.cuts
        self.tally.hold("hooked on no end", 0.0 if there else 1.0, f"{card.id} {key} {hooked}")
        if point.line.startswith("middle line"):
            face, edge = point.line.removeprefix("middle line of its "), ""
        else:
            face, edge = point.line.removeprefix("corner between its ").split(" and its ")
        if any(name and name not in self.boards[key].sides for name in (face, edge)):
            self.tally.hold("told along a side it has not", 1.0, f"{card.id} {key}")
            return
        whole = self.corner(key, face, edge) + sum(body.tenons)
        self.tally.hold("cut long mm", abs(point.mm.value - whole), f"{card.id} {key}")

    def corner(self, part: str, face: str, edge: str) -> float:
        """A long corner between the two planes that end a stick: shoulder to shoulder where it has any."""
        body = next(b for b in self.plan.stance.bodies if b.key == part)
        board = self.boards[part]
        k = 1 if board.sides[face][2] > 0 else -1
        # The middle line of a part with the tree's own edges is nought across.
        i = 0 if not edge else 1 if board.sides[edge][1] > 0 else -1
        y, z = i * body.width / 2, k * body.thickness / 2
        for rip in body.rips:
            if rip.normal[1] * i > 0:
                y = (rip.offset - rip.normal[2] * z) / rip.normal[1]
        ends = []
        for plane in (body.start, body.finish):
            n = np.array(plane.normal)
            ends.append((plane.offset - n[1] * y - n[2] * z) / n[0])
        return float(ends[1] - ends[0])

    def _stick_tenon(self, card: SetUp) -> None:
        """Shoulders drawn so far back from ends sawn as long as told lie in the planes the parts end in."""
        for do in card.does:
            if isinstance(do, Shoulders):
                for key in do.parts:
                    body = next(b for b in self.plan.stance.bodies if b.key == key)
                    for tenon in body.tenons:
                        self.tally.hold("shoulder back mm", abs(do.back.value - tenon), card.id)
            elif isinstance(do, Transferred):
                for key in do.parts:
                    self._transferred(key, do, card)

    def _transferred(self, key: str, do: Transferred, card: SetUp) -> None:
        """Held to its leg as told, an apron's outer face and upper edge lie where the stance has them."""
        apron = next(b for b in self.plan.stance.bodies if b.key == key)
        out, at = np.array(apron.pose.up), np.array(apron.pose.origin)
        face = float(out @ at) + apron.thickness / 2
        high = max(float(corner[2]) for solid in apron.stood for f in solid for corner in f.corners)
        self.tally.hold("apron flush mm", abs(high), card.id)
        for leg in self.plan.stance.bodies:
            if leg.role != "leg" or leg.support != apron.support:
                continue
            shown = [f for solid in leg.stood for f in solid]
            for one in shown:
                p = [np.array(c) for c in one.corners[:3]]
                normal = unit(np.cross(p[1] - p[0], p[2] - p[1]))
                # Of the legs at this apron's ends, the face that looks the same way and lies outermost.
                if abs(float(normal @ out)) < 1 - 1e-9 or float(out @ (p[0] - at)) < 0:
                    continue
                back = float(out @ p[0]) - face
                self.tally.hold("apron setback mm", abs(back - do.behind.value), card.id)

    def _wedges(self, card: SetUp) -> None:
        judge_wedges(self, card)

    def _kerf(self, card: SetUp) -> None:
        """The slot, carried into the seat, lies square across its grain, or points to the seat's middle."""
        grain = math.radians(self.piece.top.grain)
        for mark, way in hands.slots(self.sticks, card):
            leg = self.plan.stance.legs[int(mark.on.partition(".")[2]) - 1]
            slot = self._leg_way(leg, way)
            wedge = support_of(self.piece, leg).joint.wedge
            x, y = leg.socket[:2]
            along = vec(math.cos(grain), math.sin(grain), 0)
            if wedge.lies == "to_middle" and abs(x) + abs(y) > 1e-6:
                along = unit(vec(-y, x, 0))
            # The slot's plane holds the leg's axis and its line on the end; it meets the face in a line.
            normal = np.cross(np.array(leg.d), slot)
            on_face = unit(np.cross(normal, vec(0, 0, 1)))
            self.tally.hold("slot deg", abs(90.0 - apart_deg(on_face, along)), card.id)

    def _mark(self, card: SetUp) -> None:
        """Carried out before all others."""

    _floor_side = _mark

    def _member_cut(self, card: SetUp) -> None:
        """A stretcher as long as told reaches the bottom of both its sockets, as far as they are deep."""
        run = next(r for r in self.runs if member_key(r.number) == card.parts[0])
        chosen = self.piece.members[run.number - 1]
        (cut,) = [do for do in card.does if isinstance(do, Cut)]
        self.cut_to[card.parts[0]] = cut.mm.value
        a, b = (np.array(end.at) for end in run.ends)
        u = unit(b - a)
        gap = float(np.linalg.norm(b - a)) - sum(
            self._exit(end, u * s) for end, s in zip(run.ends, (1, -1), strict=True)
        )
        self.tally.hold("stretcher mm", abs(cut.mm.value - gap - 2 * chosen.depth - chosen.spring), card.id)

    def _exit(self, end: object, u: Array) -> float:
        """From the axis to the surface of what a stretcher enters, stepped along it by the bench itself."""
        if end.leg:
            leg = self.plan.stance.legs[end.leg - 1]
            stick = self.sticks[leg_key(leg.number)]
            x, y, z = frame_of(leg, self.piece)
            inside = self.plan.parts[leg.number - 1].in_top.quantity.value
            way = vec(float(u @ x), float(u @ y), float(u @ z))
            start = vec(0, 0, inside + end.down)
        else:
            stick = self.sticks[member_key(end.member)]
            x, y, z = self.member_frame(end.member)
            way, start = vec(float(u @ x), float(u @ y), float(u @ z)), vec(0, 0, 50.0)
        low, high = 0.0, 400.0
        for _ in range(60):
            mid = (low + high) / 2
            low, high = (mid, high) if stick.holds(start + way * mid) else (low, mid)
        return low

    # --- shaping ---

    def _rip(self, card: SetUp) -> None:
        """Every bevelled edge: the face on the table left the wider, by the bevel off square."""
        for key, edge, normal in hands.bevels(card, self.boards):
            body = next(b for b in self.plan.stance.bodies if b.key == key)
            side = self.boards[key].sides[edge]
            wanted = [np.array(r.normal) for r in body.rips if float(np.array(r.normal) @ side) > 0.5]
            self.tally.hold("bevel deg", min(apart_deg(normal, w) for w in wanted), card.id)
        for lay in card.lays:
            if isinstance(lay, OnSide) and lay.fence is not None:
                for key in lay.parts:
                    self._ripped_to(key, lay, lay.fence.value, card)

    def _ripped_to(self, key: str, lay: OnSide, fence: float, card: SetUp) -> None:
        """Measured along the table from where the fence touches: the corners of the finished section
        tell."""
        body = next(b for b in self.plan.stance.bodies if b.key == key)
        side, down = (np.array(self.boards[key].sides[name]) for name in (lay.edge, lay.down))
        corners = [np.array(p) for face in body.plain for p in face.corners]
        table = max(float(down @ p) for p in corners)
        on_table = max(float(side @ p) for p in corners if float(down @ p) > table - 0.01)
        far = [p for p in corners if not lay.planed or float(down @ p) > table - 0.01]
        touched = min(float(side @ p) for p in far)
        self.tally.hold("ripped wide mm", abs(on_table - touched - fence), card.id)

    def _notch(self, card: SetUp) -> None:
        for do in card.does:
            if isinstance(do, Notch):
                body = next(b for b in self.plan.stance.bodies if b.key == card.parts[0])
                planes = hands.notch(do, self.boards[body.key])
                for normal, offset in planes:
                    near = min(
                        (apart_deg(normal, np.array(p.normal)), abs(offset - p.offset))
                        for p in body.voids[0].planes
                    )
                    self.tally.hold("notch deg", near[0], card.id)
                    self.tally.hold("notch mm", near[1], card.id)
            elif isinstance(do, CutOut):
                for key in card.parts:
                    body = next(b for b in self.plan.stance.bodies if b.key == key)
                    flat = [p for p in body.voids[0].planes if abs(p.normal[0]) > 0.5]
                    foot = body.at(0.0, body.thickness / 2)[1]
                    high = (
                        foot - (flat[0].offset - flat[0].normal[2] * body.thickness / 2) / flat[0].normal[0]
                    )
                    self.tally.hold("cut-out mm", abs(high - do.high.value), card.id)

    def _hold(self, card: SetUp) -> None:
        judge_held(self, card)

    def _joins(self, card: SetUp) -> None:
        judge_joins(self, card)

    def _spline_notch(self, card: SetUp) -> None:
        judge_notches(self, card)

    def _spline_mortise(self, card: SetUp) -> None:
        judge_mortises(self, card)

    def _splines(self, card: SetUp) -> None:
        judge_splines(self, card)

    def _cut_out(self, card: SetUp) -> None:
        judge_cut_out(self, card)

    def _stick_cut(self, card: SetUp) -> None:
        judge_reused(self, card)

    def _side_taper(self, card: SetUp) -> None:
        judge_tapers(self, card)

    def _taper(self, card: SetUp) -> None:
        """On the sled: each pass turns a face by the stop's angle against the face that lies on it."""
        number = card.legs[0]
        leg = self.plan.stance.legs[number - 1]
        support = support_of(self.piece, leg)
        part = self.plan.parts[number - 1]
        for do in card.does:
            if isinstance(do, Stations):
                self._on_lathe(do, card)
        for lay in card.lays:
            assert isinstance(lay, Tapered)
            tool = hands.tool_of(self.shop, card)
            first = math.atan(lay.stop.value / tool.length)
            then = math.atan(lay.stop_then.value / tool.length) - first
            for taper in part.tapers:
                if taper.off.key == card.jig[2].key:
                    for slope in (first, then):
                        off = math.tan(slope) * taper.run
                        self.tally.hold("taper mm", abs(taper.thick - taper.thin - 2 * off) / 2, card.id)
            assert {*lay.first, *lay.then} == {name for name, _ in named_faces(support.leg, leg)}

    def _on_lathe(self, do: Stations, card: SetUp) -> None:
        """Even between the places told, from the first to the last: every leg of the card is shaped so."""
        told = {f"leg {number}" for number in card.legs}
        self.tally.hold("turned after no pattern", float(do.first not in told), card.id)
        downs = [down.value for down, _ in do.places]
        sizes = [thick.value for _, thick in do.places]
        self.tally.hold("turned back to front", float(downs != sorted(downs)), card.id)
        for number in card.legs:
            stick = self.sticks[leg_key(number)]
            self.tally.hold("turned from another end", float(do.end != stick.first), card.id)
            long = self.plan.parts[number - 1].finished.quantity.value
            self.tally.hold("turned to the foot mm", abs(downs[-1] - long), card.id)
            inside = self.plan.parts[number - 1].in_top.quantity.value
            for z in np.linspace(inside, long, 40):
                off = float(np.interp(z, downs, sizes)) - 2.0 * stick.half(float(z))
                self.tally.hold("turned mm", abs(off), card.id)

    def _bend_line(self, card: SetUp) -> None:
        judge_bent(self, card)

    def _sweep(self, card: SetUp) -> None:
        judge_sweep(self, card)

    def _ease_mouth(self, card: SetUp) -> None:
        ease_mouths(self, card)

    def _tenon(self, card: SetUp) -> None:
        """A tenon as long as told goes home: its shoulder clears the slanted mouth all round."""
        self._tenon_way(card)
        cove = next((do for do in card.does if isinstance(do, Cove)), None)
        for do in card.does:
            if not isinstance(do, Tenon):
                continue
            for number in card.legs:
                leg = self.plan.stance.legs[number - 1]
                support = support_of(self.piece, leg)
                self.tally.hold("tenon mm", abs(do.diameter.value - leg.bore.size), card.id)
                inside = self.plan.parts[number - 1].in_top.quantity.value
                rho = math.radians(apart_deg(np.array(leg.d), vec(0, 0, -1)))
                if support.leg.at_top > leg.bore.size + 0.6:
                    # The shoulder's rim, square to the leg, reaches up by half its thickness · tan rho.
                    ring = do.long.value if cove is None else cove.ends.value
                    clear = (ring - inside) * math.cos(rho) - support.leg.at_top / 2 * math.sin(rho)
                    self.tally.hold("shoulder clears mm", max(0.0, -clear), card.id)
                if cove is not None:
                    judge_cove(self, number, do, cove, card)

    def _tenon_way(self, card: SetUp) -> None:
        """What each way of making a round tenon leaves: never less than the hole, little more."""
        hold = self.tally.hold
        number = card.legs[0]
        size = self.plan.stance.legs[number - 1].bore.size
        stock = self.plan.parts[number - 1].stock.quantity.value
        long = next((do.long.value for do in card.does if isinstance(do, Tenon)), 0.0)
        for do in card.does:
            if isinstance(do, Parted):
                places = [q.value for q in do.places]
                hold(
                    "caliper mm", max(0.0, size - do.caliper.value, do.caliper.value - size - 1.0), card.id
                )
                hold("last groove mm", abs(places[-1] - long), card.id)
                gaps = [b - a for a, b in pairwise((0.0, *places))]
                hold("grooves apart mm", max(0.0, max(gaps) - 20.0, -min(gaps)), card.id)
            elif isinstance(do, FlatsLeft):
                over, gauge = do.over.value, do.gauge.value
                hold("planed under the hole mm", max(0.0, size - over, over - size - 1.0), card.id)
                hold("planed from too little mm", max(0.0, over - stock), card.id)
                face, new = over - 2.0 * gauge, gauge * math.sqrt(2.0)
                hold("eight sides alike mm", abs(face - new), card.id)
                # Off each of a flat's two ridges alike: what is left is as wide as the new side there.
                off = (face - do.left.value) / 2.0
                hold(
                    "sixteen sides alike mm",
                    abs(2.0 * off * math.cos(math.pi / 8) - do.left.value),
                    card.id,
                )
            elif isinstance(do, SawnSquare):
                square = stock - 2.0 * do.deep.value
                hold("sawn square mm", abs(square - do.left.value), card.id)
                hold("sawn into the tenon mm", max(0.0, size - square, square - size - 2.0), card.id)
                hold("sawn beside the ring mm", abs(do.at.value - long), card.id)
                # Corners off by a gauge g: sides s - 2g stay, the new ones are g·√2 wide.
                face, new = square - 2.0 * do.gauge.value, do.gauge.value * math.sqrt(2.0)
                hold("eight sides alike mm", abs(face - new), card.id)
            elif isinstance(do, JigOver):
                room = do.wide.value - math.hypot(stock, stock)
                hold("bit's height mm", abs(2.0 * do.below.value - do.narrow.value), card.id)
                hold("fed in mm", abs(do.long.value - long), card.id)
                if card.in_reach:
                    hold("hole behind mm", abs(do.narrow.value - size), card.id)
                    hold("hole in front mm", max(0.0, -room, room - 1.5), card.id)
                else:
                    fits = abs(do.narrow.value - size) < 0.05 and 0.0 <= room <= 1.5
                    hold("a jig that fits is refused", float(fits), card.id)

    def _shoulder(self, card: SetUp) -> None:
        """The places told on each leg's sides lie in the underside's plane; the long line in its lean."""
        for do in card.does:
            if isinstance(do, Between):
                leg = self.plan.stance.legs[int(do.named.split()[1]) - 1]
                stick = self.sticks[leg_key(leg.number)]
                for line, mm in ((do.line, do.mm.value), (do.other, do.other_mm.value)):
                    half = support_of(self.piece, leg).leg.at_top / 2
                    k = self.slope_at_mouth(leg)
                    inside = self.plan.parts[leg.number - 1].in_top.quantity.value
                    p = vec(0, 0, mm) + stick.lines[line] * (half - k * (mm - inside))
                    high = self.leg_point(leg, p)[2] - leg.socket[2]
                    self.tally.hold("shoulder mm", abs(float(high)), card.id)
        for mark, way in hands.end_lines(self.sticks, card):
            leg = self.plan.stance.legs[int(mark.on.partition(".")[2]) - 1]
            if leg.boring.bearing is None:
                continue
            lean = square_to(np.array(leg.d), vec(leg.d[0], leg.d[1], 0))
            real = self._leg_way(leg, way)
            self.tally.hold("tenon line deg", min(apart_deg(real, lean), apart_deg(real, -lean)), card.id)

    def slope_at_mouth(self, leg: LegStance) -> float:
        """Half thickness lost for each mm down, where it leaves the seat."""
        shape = support_of(self.piece, leg).leg
        return (size_at(shape, leg.exposed, 0.0) - size_at(shape, leg.exposed, 1.0)) / 2.0

    def _pilot(self, card: SetUp) -> None:
        """Upright, the plumb bit runs along the leg's middle, down from its upper end."""
        (lay,) = card.lays
        assert isinstance(lay, Upright) and lay.end == "upper end"
        joint = support_of(self.piece, self.plan.stance.legs[card.legs[0] - 1]).joint
        deep = next(do.deep.value for do in card.does if isinstance(do, Bit) and do.deep)
        self.tally.hold("pilot short mm", max(0.0, joint.length - joint.into_top - deep), card.id)

    def turned_home(self, card: SetUp, leg: LegStance, told: Recessed) -> None:
        """A square end goes to the bottom of its recess and closes on it all round; the screw's thread has
        its pilot beyond, as long as what stands out of the leg."""
        joint, shape = support_of(self.piece, leg).joint, support_of(self.piece, leg).leg
        over = {"round": 1.0, "octagon": 1.0 / math.cos(math.pi / 8), "square": math.sqrt(2.0)}
        self.tally.hold("recess mm", abs(told.wide.value - shape.at_top * over[shape.section]), card.id)
        lean = math.radians(apart_deg(np.array(leg.d), vec(0, 0, -1)))
        shallow = told.deep.value - told.wide.value / 2 * math.tan(lean)
        self.tally.hold("bottom not whole mm", max(0.0, -shallow), card.id)
        inside = self.plan.parts[leg.number - 1].in_top.quantity.value
        self.tally.hold("end off the bottom mm", abs(told.deep.value - inside), card.id)
        stop = told.deep.value + told.wide.value / 2 * math.tan(lean)
        self.tally.hold("stop mm", abs(told.touch.value - stop), card.id)
        self.tally.hold("pilot in the seat mm", abs(told.on.value - joint.into_top), card.id)
        self.tally.hold("pilot thick mm", abs(told.pilot.value - joint.core), card.id)

    def _dowel(self, card: SetUp) -> None:
        judge_dowels(self, card)

    def _slot(self, card: SetUp) -> None:
        judge_slots(self, card)

    def _hand_hold(self, card: SetUp) -> None:
        """Bored on its marks with that bit the slot is as long and wide as chosen, where it was chosen."""
        bit = next(do for do in card.does if isinstance(do, Bit))
        one, two = (self.seat.points[mark] for mark in card.uses)
        chosen = self.piece.top.hand_holds[int(card.uses[0].which.partition(".")[0]) - 1]
        run = two - one
        self.tally.hold("hand-hold wide mm", abs(bit.diameter.value - chosen.width), card.id)
        long = float(np.linalg.norm(run[:2])) + bit.diameter.value
        self.tally.hold("hand-hold long mm", abs(long - chosen.length), card.id)
        self.slots[card.uses[0].which.partition(".")[0]] = long
        middle = (one + two) / 2
        off = math.hypot(float(middle[0]) - chosen.x, float(middle[1]) - chosen.y)
        self.tally.hold("hand-hold mm", off, card.id)
        if chosen.length > chosen.width:
            turn = math.degrees(math.atan2(float(run[1]), float(run[0])))
            self.tally.hold("hand-hold deg", abs((turn - chosen.turn + 90.0) % 180.0 - 90.0), card.id)
        # Right through.
        self.tally.hold("hand-hold stops in the wood", 0.0 if bit.deep is None else 1.0, card.id)

    def _dress(self, card: SetUp) -> None:
        (do,) = (do for do in card.does if isinstance(do, PlanedOff))
        left = self.seat.thickness + self.seat.over - do.off.value
        self.tally.hold("planed to another thickness mm", abs(left - do.left.value), card.id)
        self.tally.hold("planed off the marked face", float(do.face != "upper face"), card.id)
        self.seat.thickness, self.seat.over = left, 0.0

    def _hollow_strips(self, card: SetUp) -> None:
        judge_strips(self, card)

    def _hollow(self, card: SetUp) -> None:
        judge_hollow(self, card)

    def _groove(self, card: SetUp) -> None:
        judge_groove(self, card)

    def _buttons(self, card: SetUp) -> None:
        judge_buttons(self, card)

    def _through(self, card: SetUp) -> None:
        judge_through(self, card)

    def _onward(self, card: SetUp) -> None:
        judge_onward(self, card)

    def _outside(self, card: SetUp) -> None:
        judge_outside(self, card)

    def _octagon(self, card: SetUp) -> None:
        """Gauged from both edges of every face, the eight come out equal, wherever along the leg."""
        part = self.plan.parts[card.legs[0] - 1]
        leg = self.plan.stance.legs[card.legs[0] - 1]
        shape = support_of(self.piece, leg).leg
        along = [do for do in card.does if isinstance(do, EightAlong)]
        # Its sizes change along it: one gauge does not serve.
        self.tally.hold("one gauge on a taper", float(bool(part.tapers) != bool(along)), card.id)
        for do in along:
            inside = part.in_top.quantity.value
            told = [(at.value - inside, gauge.value) for at, gauge in do.places]
            for (a, first), (b, last) in pairwise(told):
                for share in (0.0, 0.5, 1.0):
                    down = min(max(a + (b - a) * share, 0.0), leg.exposed)
                    size, gauge = size_at(shape, leg.exposed, down), first + (last - first) * share
                    flat, corner = size - 2 * gauge, gauge * math.sqrt(2.0)
                    self.tally.hold("octagon mm", abs(flat - corner), card.id)
        if not along:
            self._eight(card, part.stock.quantity.value)

    def _member_octagon(self, card: SetUp) -> None:
        chosen = self.piece.members[int(card.parts[0].partition(".")[2]) - 1]
        self._eight(card, chosen.diameter)

    def _eight(self, card: SetUp, stock: float) -> None:
        assert card.setting is not None
        gauge = card.setting.value
        flat, corner = stock - 2 * gauge, gauge * math.sqrt(2.0)
        self.tally.hold("octagon mm", abs(flat - corner), card.id)


def _off_line(start: Array, way: Array, p: Array) -> float:
    off = p - start
    return float(np.linalg.norm(off - way * float(off @ way)))


__all__ = ["Judge", "OnTilt", "Tally", "carry_out"]


def _beside(batten: Any, at: Array) -> float:
    """How far a place lies off a batten's middle line, level, mm."""
    off = at[:2] - np.array(batten.pose.origin[:2])
    along = np.array(batten.pose.along[:2])
    return abs(float(off[0] * along[1] - off[1] * along[0]))
