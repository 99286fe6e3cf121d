"""Sticks that had another life: what comes off their upper ends, so that no old hole meets a new one."""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator
from dataclasses import dataclass, replace

from splay.parts.leg import LegPart
from splay.piece import OldHole, Piece, Rope, StakedLegs, Stick, Stretcher
from splay.quantity import Figure, Show
from splay.quantity import degrees as deg
from splay.stance.members import EndStance, MemberStance, RopeStance
from splay.stance.staked import LegStance, Stance

KEEP_MM = 10.0
"""Sound wood between an old hole and a new one, along the stick (common practice, no source)."""


@dataclass(frozen=True)
class Zone:
    """A stretch of a leg that wants sound wood, mm from its upper end, and what for."""

    what: str
    begins: float
    ends: float


def from_hole(one: Trim, key: str, label: str, show: Show) -> Figure:
    """What comes off a stick's upper end, with its working."""
    if one.by is None:
        nothing = show.input("u", "off its upper end", one.top)
        return show.figure(key, label, one.top, "as chosen", nothing, note="no old hole meets a new one")
    old, zone = one.by
    if zone is None:
        note = "with all of the old hole"
        return show.figure(key, label, one.top, "h", show.input("h", "its far end", old.farther), note=note)
    return show.figure(
        key,
        label,
        one.top,
        "h − z + w",
        show.input("h", "far end of the old hole", old.farther),
        show.input("z", f"where {zone.what} begins", zone.begins),
        show.input("w", "sound wood between them", KEEP_MM),
        note="the least that brings its old holes clear of the new ones",
    )


@dataclass(frozen=True)
class Trim:
    """One stick for one leg: `top` comes off its upper end and `foot` off the other, mm.

    `by` are the old hole and what it has to lie above, None where it goes altogether; `meets` is the
    zone an old hole reaches whatever comes off, `short` by how much at best, mm; None and nought where
    every one lies clear.
    """

    support: int
    index: int
    stick: Stick
    leg: LegStance
    wanted: float
    top: float = 0.0
    by: tuple[OldHole, Zone | None] | None = None
    meets: Zone | None = None
    short: float = 0.0

    @property
    def foot(self) -> float:
        """What comes off the foot, mm; less than nought where the stick is too short."""
        return self.stick.length - self.top - self.wanted


def trims(
    piece: Piece,
    stance: Stance,
    parts: tuple[LegPart, ...],
    runs: Iterable[MemberStance],
    lines: Iterable[RopeStance],
) -> tuple[Trim, ...]:
    """Every stick that was measured one by one and has a leg to become."""
    ends = [(end, _socket(piece, run.number, end)) for run in runs for end in run.ends if end.leg]
    ends += [(hole, _through(piece, line.number, hole)) for line in lines for hole in line.holes]
    made = []
    for index, support in piece.staked():
        mine = [leg for leg in stance.legs if leg.support == index]
        for k, (stick, leg) in enumerate(zip(support.leg.sticks, mine, strict=False)):
            part = parts[leg.number - 1]
            zones = list(_zones(support, leg, part, [z for end, z in ends if end.leg == leg.number]))
            wanted = part.finished.quantity.value + part.cut.below
            made.append(_trimmed(Trim(index, k, stick, leg, wanted), zones))
    return tuple(made)


def _socket(piece: Piece, number: int, end: EndStance) -> Zone:
    """The mouth of a stretcher's socket in a leg, along it from the underside, mm."""
    member = piece.members[number - 1]
    assert isinstance(member, Stretcher)
    half = member.tenon / 2.0 / deg.sin(end.acute)
    what = f"the socket of {member.name or f'stretcher {number}'}"
    return Zone(what, end.mark_down - half, end.mark_down + half)


def _through(piece: Piece, number: int, hole: EndStance) -> Zone:
    """A rope's hole, which comes out on the other side."""
    member = piece.members[number - 1]
    assert isinstance(member, Rope)
    half = (member.diameter + member.ease) / 2.0 / deg.sin(hole.acute)
    half += abs(hole.mark_down - hole.down)
    return Zone(f"the hole for {member.name or f'rope {number}'}", hole.down - half, hole.down + half)


def _zones(support: StakedLegs, leg: LegStance, part: LegPart, holes: Iterable[Zone]) -> Iterator[Zone]:
    """The upper end, with as much below the seat as the leg is thick: there it is bent the most."""
    inside = part.in_top.quantity.value
    joint = support.joint
    deep = joint.in_leg or inside
    what = "the tenon" if joint.tenon != "none" else "the screw"
    yield Zone(what, 0.0, max(deep, inside + support.leg.at_top))
    for hole in holes:
        yield Zone(hole.what, inside + hole.begins, inside + hole.ends)


def _trimmed(trim: Trim, zones: list[Zone]) -> Trim:
    """The least that comes off the upper end; nothing where nothing helps."""
    pairs = [(old, zone) for old in trim.stick.old for zone in zones]
    room = max(0.0, trim.foot)
    tries: list[tuple[float, tuple[OldHole, Zone | None] | None]] = [(0.0, None)]
    tries += [(old.farther, (old, None)) for old in trim.stick.old]
    tries += [(old.farther - zone.begins + KEEP_MM, (old, zone)) for old, zone in pairs]
    nearest: tuple[float, Zone | None] = (math.inf, None)
    for off, by in sorted(tries, key=lambda one: one[0]):
        if not 0.0 <= off <= room:
            continue
        found = [(_short(old, zone, off), zone) for old, zone in pairs]
        worst = max(found, key=lambda one: one[0], default=(0.0, None))
        if worst[0] <= 1e-9:
            return replace(trim, top=off, by=by)
        if worst[0] < nearest[0] - 1e-9:
            nearest = worst
    return replace(trim, meets=nearest[1], short=nearest[0])


def _short(old: OldHole, zone: Zone, off: float) -> float:
    """How much wood is missing between an old hole and a zone with so much off the upper end, mm."""
    above = zone.begins - KEEP_MM - (old.farther - off)
    below = old.nearer - off - (zone.ends + KEEP_MM)
    # What has gone with the end that was sawn off meets nothing.
    gone = old.farther <= off
    return 0.0 if gone else max(0.0, -max(above, below))
