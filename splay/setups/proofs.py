"""Proofs: what to measure after the cut, what it should be, how near is near enough."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator
from dataclasses import dataclass

from splay.layout import Layout
from splay.layout.steps import Check
from splay.parts import LegPart
from splay.parts.member import MemberPart
from splay.parts.stick import SQUARE_DEG, StickPart
from splay.piece import DowelScrew, Piece, Shouldered, StakedLegs
from splay.quantity import Figure, Quantity, Show
from splay.quantity import degrees as deg
from splay.setups.card import Proof
from splay.setups.crosscut import Cut, station_of
from splay.setups.loose_joints import dowels_of
from splay.shop import BevelGauge, DigitalGauge, Scale, Shop, reading
from splay.stance.staked import LegStance, Stance

NEAR_DEG = 0.5
"""A bored hole within half a degree counts as true (common practice, no source)."""
NEAR_MM = 1.0
"""A leg within a millimetre counts as true, since levelling comes after (common practice, no source)."""
ROD_MM = 200.0
_TRUE = Scale(at_square=0, counts="up", reach=90, step=0.1)


def proving_scale(shop: Shop) -> tuple[str, Scale]:
    """What bored holes are proved with: a digital gauge, else a bevel gauge, else a protractor."""
    for kind in (DigitalGauge, BevelGauge):
        for tool in shop.tools:
            if isinstance(tool, kind) and tool.owned:
                return tool.name, tool.scale
    return "protractor, 0 at square", _TRUE


def off_square(scale: Scale, shown: float) -> float:
    """The lean off square for what a scale shows: the reverse of `reading`."""
    return (shown - scale.at_square) * (1.0 if scale.counts == "up" else -1.0)


@dataclass(frozen=True)
class Known:
    """What the proofs are made from: the planned and the real stance, and every part."""

    piece: Piece
    planned: Stance
    real: Stance
    legs: tuple[LegPart, ...]
    sticks: tuple[StickPart, ...]
    cuts: tuple[Cut, ...]
    members: tuple[MemberPart, ...]
    layout: Layout


def all_proofs(known: Known, shop: Shop, show: Show, answers: dict[str, float]) -> tuple[Proof, ...]:
    """Every proof the piece asks for, in the order of work; holes against the stance as planned."""
    ask = Asker(shop, show, answers)
    return (
        *(ask.mark(check) for check in known.layout.checks),
        *(
            bore_proof(leg, leg.boring.resultant, shop, show, answers.get(f"bore.{leg.number}"))
            for leg in known.planned.legs
        ),
        *(
            foot_proof(leg, part.finished, show, answers.get(f"foot.{leg.number}"))
            for leg, part in zip(known.real.legs, known.legs, strict=True)
        ),
        *(ask.cut(cut) for cut in known.cuts),
        *(ask.long(stick) for stick in known.sticks if stick.role not in {"batten", "slab"}),
        *ask.shaped(known),
        *(ask.read(part, e) for part in known.members for e in (0, 1)),
        *(ask.gap(part) for part in known.members),
    )


@dataclass(frozen=True)
class _Said:
    """The words of a proof, and where it belongs."""

    what: str
    how: str
    matters: str
    part: str
    station: str
    short: str


class Asker:
    """Makes one proof after another in one maker's units, with the answer it has."""

    def __init__(self, shop: Shop, show: Show, answers: dict[str, float]) -> None:
        self.shop, self.show, self.answers = shop, show, answers

    def length(
        self,
        key: str,
        expected: Quantity,
        what: str,
        how: str,
        matters: str,
        part: str,
        station: str,
        short: str,
    ) -> Proof:
        """Measured with a rule; `expected` in mm."""
        said = _Said(what, how, matters, part, station, short)
        return self._proof(key, "rule", expected, self.show.length(NEAR_MM), self.show.length, said)

    def hair(
        self,
        key: str,
        expected_mm: float,
        near_mm: float,
        what: str,
        how: str,
        matters: str,
        part: str,
        station: str,
        short: str,
    ) -> Proof:
        """Measured with a gauge or a caliper, where a hair matters; mm."""
        said = _Said(what, how, matters, part, station, short)
        expected, near = self.show.fine(expected_mm), self.show.fine(near_mm)
        return self._proof(key, "rule, height gauge or caliper", expected, near, self.show.fine, said)

    def angle(
        self,
        key: str,
        off_square: float,
        what: str,
        how: str,
        matters: str,
        part: str,
        station: str,
        short: str,
    ) -> Proof:
        """Read on whatever the shop proves angles with; `off_square` in degrees."""
        name, scale = proving_scale(self.shop)
        expected, near = self.show.angle(reading(scale, off_square)), self.show.angle(NEAR_DEG)
        said = _Said(what, how, matters, part, station, short)
        return self._proof(key, name, expected, near, self.show.angle, said)

    def _proof(
        self,
        key: str,
        read_on: str,
        expected: Quantity,
        near: Quantity,
        shown: Callable[[float], Quantity],
        said: _Said,
    ) -> Proof:
        value = self.answers.get(key)
        answer = None if value is None else shown(value)
        off = None if answer is None else shown(answer.value - expected.value)
        return Proof(
            id=key,
            leg=0,
            what=said.what,
            how=said.how,
            read_on=read_on,
            expected=expected,
            near=near,
            matters=said.matters,
            answer=answer,
            off=off,
            verdict=_verdict(off, near),
            part=said.part,
            station=said.station,
            short=said.short,
        )

    def mark(self, check: Check) -> Proof:
        """A distance between two marks on the top."""
        how = "Rule from centre to centre of the marks, pricked, not drawn."
        matters = "a mark moved now costs nothing; a hole cannot be moved"
        label = check.figure.label
        part = f"leg.{check.legs[0]}"
        return self.length(check.id, check.figure.quantity, label, how, matters, part, "top", label)

    def cut(self, cut: Cut) -> Proof:
        """The angle of a sawn end, on the side where it shows most."""
        part, body, end = cut.uses[0]
        on = cut.mitre if cut.mitre > SQUARE_DEG else cut.tilt
        where = body.sides.face if cut.mitre > SQUARE_DEG or cut.tilt <= SQUARE_DEG else body.sides.edge
        how = f"Gauge's stock along the {where}'s arris, blade along the sawn line."
        across = part.stock[0].quantity.value
        matters = (
            f"half a degree opens {self.show.length(across * math.radians(NEAR_DEG)).text} at the far side"
        )
        return self.angle(
            f"cut.{part.key}.{end}",
            on,
            f"Sawn end of the {part.name}, on the {where}",
            how,
            matters,
            part.key,
            station_of(part.role),
            "sawn end",
        )

    def long(self, stick: StickPart) -> Proof:
        """A stick along the corner its card measures."""
        arris = stick.arrises[0]
        return self.length(
            f"long.{stick.key}",
            arris.length.quantity,
            f"{stick.name[0].upper()}{stick.name[1:]}, along the {arris.where}",
            "Hook the rule on one long point and read at the other.",
            "parts alike must agree among themselves before they agree with the plan",
            stick.key,
            station_of(stick.role),
            stick.name,
        )

    def shaped(self, known: Known) -> Iterator[Proof]:
        """Tenons, eight sides and tapers of each set of legs; bevels, notches and slots."""
        show = self.show
        for index, support in enumerate(known.piece.supports):
            part = next((p for p in known.legs if p.support == index), None)
            if part is None or not isinstance(support, StakedLegs):
                continue
            on = f"leg.{part.number}"
            calipers = "Calipers, across and then square to that."
            if not isinstance(support.joint, DowelScrew | Shouldered):
                yield self.length(
                    f"tenon.{index}", show.length(support.joint.socket), "Tenon, where it leaves the leg",
                    f"{calipers} Then try it in a real hole: snug, never hammered.",
                    "a parallel tenon driven hard splits the top", on, "legs", "tenon, thick",
                )  # fmt: skip
            if any(f.key.endswith(".octagon") for f in part.making):
                face = part.stock.quantity.value * (math.sqrt(2.0) - 1.0)
                yield self.length(
                    f"octagon.{index}", show.length(face), "One of the eight faces, wide",
                    "Rule across a face, then across its neighbour: they must agree.",
                    "uneven faces make an oval leg", on, "legs", "a face, wide",
                )  # fmt: skip
            if any(".taper." in f.key for f in part.making):
                yield self.length(
                    f"taper.{index}", show.length(support.leg.at_foot), "Leg at its foot", calipers,
                    "legs alike matter more than legs to the drawing", on, "legs", "at the foot",
                )  # fmt: skip
        yield from self._squared(known)

    def _squared(self, known: Known) -> Iterator[Proof]:
        done: set[str] = set()
        for stick in known.sticks:
            if stick.alike in done:
                continue
            done.add(stick.alike)
            station = station_of(stick.role)
            if stick.bevels:
                yield self.angle(
                    f"rip.{stick.key}", stick.bevels[0].quantity.value, stick.bevels[0].label,
                    "Gauge's stock on the face, blade down the bevelled edge.",
                    "a wrong bevel lifts one arris off the top", stick.key, station, "bevel",
                )  # fmt: skip
            if len(stick.notches) > 1:
                lap = "lap" in stick.notches[0].key
                yield self.length(
                    f"notch.{stick.key}", stick.notches[1].quantity, stick.notches[1].label,
                    "Depth of the rule from the edge, at both cheeks.",
                    "two laps too deep leave the rails apart", stick.key,
                    "stretchers" if lap else "legs", "notch, deep",
                )  # fmt: skip
        for index, dowels, _, what in dowels_of(known.piece):
            holes = "Slots" if dowels.way == "loose_tenon" else "Dowel holes"
            yield self.length(
                f"slot.{index}", self.show.length(dowels.depth), f"{holes} of the {what}, deep",
                "Depth of the rule, at both ends of a slot, or a marked dowel.",
                "too shallow holds the joint open", f"s{index}",
                "legs" if known.piece.supports[index].kind == "slab_leg" else "stretchers",
                f"{holes.lower()}, deep",
            )  # fmt: skip

    def read(self, part: MemberPart, e: int) -> Proof:
        """The acute angle between a stretcher and what it goes into, dry-fitted."""
        end = part.ends[e]
        return self.angle(
            f"read.{part.number}.{e + 1}",
            90.0 - end.read.quantity.value,
            f"Angle between {part.name} and {end.into}, acute side",
            "Dry-fitted, a straight stick on both marks; gauge along the leg, in the plane of the two.",
            "always the acute angle: one habit, no slips",
            f"member.{part.number}",
            "stretchers",
            f"{part.name}, {end.into}",
        )

    def gap(self, part: MemberPart) -> Proof:
        """The clear gap a stretcher is cut for."""
        return self.length(
            f"gap.{part.number}",
            part.gap.quantity,
            f"Clear gap for {part.name}",
            "Two sticks slid apart between the marks, then measured, or inside calipers.",
            "the stretcher is cut to this, not to the drawing",
            f"member.{part.number}",
            "stretchers",
            part.name,
        )


def bore_proof(leg: LegStance, planned_deg: float, shop: Shop, show: Show, answer: float | None) -> Proof:
    """One bored hole: the lean of a rod standing in it, read along the sightline.

    `planned_deg` is the lean the hole was meant to have; `answer` is a reading on that scale.
    """
    name, scale = proving_scale(shop)
    travel = leg.exposed * math.radians(NEAR_DEG) / deg.cos(planned_deg)
    expected, near = show.angle(reading(scale, planned_deg)), show.angle(NEAR_DEG)
    given = None if answer is None else show.angle(answer)
    off = None if given is None else show.angle(given.value - expected.value)
    return Proof(
        id=f"bore.{leg.number}",
        leg=leg.number,
        what=f"Lean of a straight rod in hole {leg.number}",
        how=(
            "Stand a straight rod in the hole and hold the gauge on its sightline, against the "
            "rod and the face you bored from; square to that line nothing should show."
        ),
        read_on=name,
        expected=expected,
        near=near,
        matters=f"half a degree moves this foot by {show.length(travel).text}",
        answer=given,
        off=off,
        verdict=_verdict(off, near),
        part=f"leg.{leg.number}",
        short=f"leg {leg.number} reads",
        station="boring",
    )


def foot_proof(leg: LegStance, finished: Figure, show: Show, answer: float | None) -> Proof:
    """One leg: its finished length along the middle."""
    near = show.length(NEAR_MM)
    given = None if answer is None else show.length(answer)
    off = None if given is None else show.length(given.value - finished.quantity.value)
    return Proof(
        id=f"foot.{leg.number}",
        leg=leg.number,
        what=f"Length of leg {leg.number}, along its middle",
        how="Measure the long side and the short side of the leg, add them and halve.",
        read_on="rule",
        expected=finished.quantity,
        near=near,
        matters="what is over comes off at levelling; what is short lowers the whole piece",
        answer=given,
        off=off,
        verdict=_verdict(off, near),
        part=f"leg.{leg.number}",
        short=f"leg {leg.number} reads",
        station="legs",
    )


def _verdict(off: Quantity | None, near: Quantity) -> str:
    if off is None:
        return ""
    return "fine" if abs(off.value) <= near.value + 1e-9 else "off"


def rod_checks(leg: LegStance, planned_deg: float, show: Show) -> tuple[Figure, ...]:
    """The same lean without a gauge: where the tip of a rod of known length stands."""
    rod = show.input("R", "rod standing out of the hole, along its middle", ROD_MM)
    lean = show.input("ρ", "lean", planned_deg, "deg")
    key = f"bore.{leg.number}.rod"
    out = f"Tip of a rod {show.length(ROD_MM).text} out: "
    return (
        show.figure(
            f"{key}.up",
            out + "above the face",
            ROD_MM * deg.cos(planned_deg),
            "R · cos ρ",
            rod,
            lean,
        ),
        show.figure(
            f"{key}.over",
            out + "along the sightline",
            ROD_MM * deg.sin(planned_deg),
            "R · sin ρ",
            rod,
            lean,
        ),
    )
