"""What was probably read wrong: the other values a slip of the hand or the eye would have given."""

from __future__ import annotations

import math
from collections.abc import Iterable
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


def angle_slips(scale: Scale, lean: float) -> list[Slip]:
    """For any angle, `lean` degrees off square: the other line, the other side."""
    shown = reading(scale, lean)
    return [
        Slip(180.0 - shown, "that is the obtuse side: read the acute one, or take it from 180°"),
        Slip(reading(scale, 90.0 - lean), "that is read from the other line: square for along"),
        Slip(reading(scale, -lean), "that leans the other way: read it from the other side"),
    ]


def bore_slips(scale: Scale, leg: LegStance, legs: Iterable[LegStance]) -> list[Slip]:
    """For a rod in a hole: a gauge off the sightline, or the wrong hole."""
    made = angle_slips(scale, leg.boring.resultant)
    made += [
        Slip(
            reading(scale, 0.0),
            "that is square: the gauge stood across the sightline, not along it",
        ),
        Slip(
            reading(scale, 2.0 * leg.boring.resultant),
            "that is twice the angle: it was read from the other leg, not from square",
        ),
        Slip(
            reading(scale, abs(leg.boring.splay)),
            "that is the splay: the gauge stood square to the front, not on the sightline",
        ),
        Slip(
            reading(scale, abs(leg.boring.rake)),
            "that is the rake: the gauge stood square to the side, not on the sightline",
        ),
    ]
    made += [
        Slip(reading(scale, other.boring.resultant), f"that is what hole {other.number} should read")
        for other in legs
        if abs(other.boring.resultant - leg.boring.resultant) > OTHER_DEG
    ]
    return made


_PLANES: tuple[tuple[Vec, str], ...] = (
    ((0.0, 1.0, 0.0), "from the front"),
    ((1.0, 0.0, 0.0), "from the side"),
    ((0.0, 0.0, 1.0), "from above"),
)


def read_slips(scale: Scale, run: MemberStance, e: int) -> list[Slip]:
    """For the angle between two sticks: the plane it was held in, the tapered side it lay against."""
    end = run.ends[e]
    on = acute(end.opening_on)
    made = angle_slips(scale, 90.0 - on)
    for normal, seen in _PLANES:
        flat = _seen(run.u, end.axis, normal)
        if flat is not None and abs(flat - on) > LIKE_DEG:
            said = f"that is how it looks {seen}: hold it in the plane of the two sticks"
            made.append(Slip(reading(scale, 90.0 - flat), said))
    if abs(end.opening_on - end.opening) > LIKE_DEG:
        said = "that is against the leg's middle, or its far side: lay it on the side the stretcher leaves"
        made.append(Slip(reading(scale, 90.0 - end.acute), said))
        far = acute(2.0 * end.opening - end.opening_on)
        made.append(Slip(reading(scale, 90.0 - far), said))
    return made


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


def length_slips(expected: float) -> list[Slip]:
    """For any length: the rule's mark it was held at, the wrong units."""
    return [
        Slip(expected + TAPE_MM, "the rule was held at its 100 mm mark"),
        Slip(expected - TAPE_MM, "the rule was held at its 100 mm mark"),
        Slip(expected + MM_PER_INCH, "the rule was held at its first inch"),
        Slip(expected - MM_PER_INCH, "the rule was held at its first inch"),
        Slip(expected + 10.0, "that is a whole centimetre too much: read the rule again"),
        Slip(expected - 10.0, "that is a whole centimetre too little: read the rule again"),
        Slip(expected / MM_PER_INCH, "that is in inches: write the inch mark, or change the units"),
        Slip(expected * MM_PER_INCH, "that is in millimetres: write mm, or change the units"),
    ]


def gap_slips(part: MemberPart, others: Iterable[MemberPart]) -> list[Slip]:
    """For a clear gap: taken from middle to middle, over all, or in another place."""
    made = [
        Slip(part.centres.quantity.value, "that is from middle to middle: take the clear gap"),
        Slip(part.planned_total.quantity.value, "that is with the sockets: take the clear gap"),
    ]
    for e in (0, 1):
        half = part.ends[e].radius
        one = part.gap.quantity.value + 2.0 * half
        made.append(Slip(one, f"that is over {part.ends[e].into} as well: take the clear gap"))
    made += [
        Slip(other.gap.quantity.value, f"that is the gap for {other.name}")
        for other in others
        if other.number != part.number
        and abs(other.gap.quantity.value - part.gap.quantity.value) > OTHER_MM
    ]
    return [*made, *length_slips(part.gap.quantity.value)]


def foot_slips(part: LegPart) -> list[Slip]:
    """For a leg's length: one side instead of the middle, without its tenon, before the cut."""
    finished = part.finished.quantity.value
    made = [
        Slip(part.exposed.quantity.value, "that is without the part in the top"),
        Slip(part.blank.quantity.value, "that is the blank's length"),
    ]
    if part.high_low.quantity.value / 2.0 > 2.0 * LIKE_MM:
        half = part.high_low.quantity.value / 2.0
        made.append(Slip(finished + half, "that is the long side alone: take the middle of both"))
        made.append(Slip(finished - half, "that is the short side alone: take the middle of both"))
    return [*made, *length_slips(finished)]
