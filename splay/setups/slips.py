"""What was probably read wrong: the other values a slip of the hand or the eye would have given.

Worked out only where there is a reading to be explained by them.
"""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator
from dataclasses import dataclass

from splay.parts.leg import LegPart
from splay.parts.member import MemberPart
from splay.quantity import MM_PER_INCH
from splay.shop import Scale, reading
from splay.stance.members import MemberStance, acute
from splay.stance.staked import LegStance
from splay.stance.vectors import Vec, angle
from splay.work.proofs import Measures

PLAIN_SLIP = 2.0
"""A reading is looked at for slips when it is off by this many times what is near enough."""
FAR: dict[Measures, float] = {"angle": 6.0, "length": 12.0}
"""Degrees or mm no honest work is off by: it is read again first (common practice, no source)."""
FAR_SPREADS = 6.0
"""Nor by this many times a maker's own spread."""
LIKE_DEG = 0.75
"""An angle this near another value is taken for it (common practice, no source)."""
LIKE_MM = 1.0
"""A length this near another value is taken for it (common practice, no source)."""
OTHER_DEG, OTHER_MM = 3.0, 10.0
"""Another hole or gap is only taken for this one where it differs more than honest work would."""
CLOSER = 4.0
"""And it must lie this many times nearer to it than to what was expected."""
TAPE_MM = 100.0
"""Where a rule is held at a mark instead of its worn end."""


@dataclass(frozen=True)
class Slip:
    """A value a slip would have given, on the scale of the proof, and what that slip is."""

    value: float
    said: str


def slip_of(value: float, expected: float, near: float, like: float, slips: Iterable[Slip]) -> str:
    """The likeliest slip behind a reading, in words; "" where none fits better than honest work."""
    off = abs(value - expected)
    if off <= PLAIN_SLIP * near:
        return ""
    close = [
        (abs(value - slip.value), slip.said)
        for slip in slips
        if abs(value - slip.value) <= like and abs(value - slip.value) * CLOSER < off
    ]
    return min(close)[1] if close else ""


def far_off(off: float, near: float, measures: Measures, rms: float | None) -> bool:
    """Whether a reading is too far off to be followed without having been taken again; `rms` the maker's
    own spread where it is known. All in degrees or mm."""
    far = abs(off) > FAR[measures]
    return far or (rms is not None and abs(off) > max(PLAIN_SLIP * near, FAR_SPREADS * rms))


def angle_slips(scale: Scale, lean: float) -> Iterator[Slip]:
    """For any angle, `lean` degrees off square: the other line, the other side."""
    shown = reading(scale, lean)
    yield Slip(180.0 - shown, "that is the obtuse side: read the acute one, or take it from 180°")
    yield Slip(reading(scale, 90.0 - lean), "that is read from the other line: square for along")
    yield Slip(reading(scale, -lean), "that leans the other way: read it from the other side")


def bore_slips(scale: Scale, leg: LegStance, legs: Iterable[LegStance]) -> Iterator[Slip]:
    """For a rod in a hole: a gauge off the sightline, or the wrong hole."""
    yield from angle_slips(scale, leg.boring.resultant)
    square, lean = reading(scale, 0.0), leg.boring
    yield Slip(square, "that is square: the gauge stood across the sightline, not along it")
    twice = reading(scale, 2.0 * lean.resultant)
    yield Slip(twice, "that is twice the angle: it was read from the other leg, not from square")
    said = "the gauge stood square to the front, not on the sightline"
    yield Slip(reading(scale, abs(lean.splay)), f"that is the splay: {said}")
    said = "the gauge stood square to the side, not on the sightline"
    yield Slip(reading(scale, abs(lean.rake)), f"that is the rake: {said}")
    for other in legs:
        if abs(other.boring.resultant - lean.resultant) > OTHER_DEG:
            yield Slip(
                reading(scale, other.boring.resultant), f"that is what hole {other.number} should read"
            )


_PLANES: tuple[tuple[Vec, str], ...] = (
    ((0.0, 1.0, 0.0), "from the front"),
    ((1.0, 0.0, 0.0), "from the side"),
    ((0.0, 0.0, 1.0), "from above"),
)


def read_slips(scale: Scale, run: MemberStance, e: int) -> Iterator[Slip]:
    """For the angle between two sticks: the plane it was held in, the tapered side it lay against."""
    end = run.ends[e]
    on = acute(end.opening_on)
    yield from angle_slips(scale, 90.0 - on)
    for normal, seen in _PLANES:
        flat = _seen(run.u, end.axis, normal)
        if flat is not None and abs(flat - on) > LIKE_DEG:
            said = f"that is how it looks {seen}: hold it in the plane of the two sticks"
            yield Slip(reading(scale, 90.0 - flat), said)
    if abs(end.opening_on - end.opening) > LIKE_DEG:
        said = "that is against the leg's middle, or its far side: lay it on the side the stretcher leaves"
        yield Slip(reading(scale, 90.0 - end.acute), said)
        far = acute(2.0 * end.opening - end.opening_on)
        yield Slip(reading(scale, 90.0 - far), said)


def _seen(u: Vec, axis: Vec, normal: Vec) -> float | None:
    """The acute angle between two directions as it looks along `normal`, degrees."""
    flat = []
    for v in (u, axis):
        run = v[0] * normal[0] + v[1] * normal[1] + v[2] * normal[2]
        flat.append((v[0] - run * normal[0], v[1] - run * normal[1], v[2] - run * normal[2]))
    if min(math.hypot(*v) for v in flat) < 0.05:
        return None
    wide = angle(flat[0], flat[1])
    return min(wide, 180.0 - wide)


def length_slips(expected: float) -> Iterator[Slip]:
    """For any length: the rule's mark it was held at, the wrong units."""
    yield Slip(expected + TAPE_MM, "the rule was held at its 100 mm mark")
    yield Slip(expected - TAPE_MM, "the rule was held at its 100 mm mark")
    yield Slip(expected + MM_PER_INCH, "the rule was held at its first inch")
    yield Slip(expected - MM_PER_INCH, "the rule was held at its first inch")
    yield Slip(expected + 10.0, "that is a whole centimetre too much: read the rule again")
    yield Slip(expected - 10.0, "that is a whole centimetre too little: read the rule again")
    yield Slip(expected / MM_PER_INCH, "that is in inches: write the inch mark, or change the units")
    yield Slip(expected * MM_PER_INCH, "that is in millimetres: write mm, or change the units")


def gap_slips(part: MemberPart, others: Iterable[MemberPart]) -> Iterator[Slip]:
    """For a clear gap: taken from middle to middle, over all, or in another place."""
    gap = part.gap.quantity.value
    yield Slip(part.centres.quantity.value, "that is from middle to middle: take the clear gap")
    yield Slip(part.planned_total.quantity.value, "that is with the sockets: take the clear gap")
    for e in (0, 1):
        one = gap + 2.0 * part.ends[e].radius
        yield Slip(one, f"that is over {part.ends[e].into} as well: take the clear gap")
    for other in others:
        there = other.gap.quantity.value
        if other.number != part.number and abs(there - gap) > OTHER_MM:
            yield Slip(there, f"that is the gap for {other.name}")
    yield from length_slips(gap)


def foot_slips(part: LegPart) -> Iterator[Slip]:
    """For a leg's length: one side instead of the middle, without its tenon, before the cut."""
    finished = part.finished.quantity.value
    yield Slip(part.exposed.quantity.value, "that is without the part in the top")
    yield Slip(part.blank.quantity.value, "that is the blank's length")
    half = part.high_low.quantity.value / 2.0
    if half > 2.0 * LIKE_MM:
        yield Slip(finished + half, "that is the long side alone: take the middle of both")
        yield Slip(finished - half, "that is the short side alone: take the middle of both")
    yield from length_slips(finished)
