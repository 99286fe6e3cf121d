"""Buttons that hold a top: a groove in a part under it, and blocks whose tongues draw the top down."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass, replace
from functools import cached_property

from splay.piece import Piece, TopButtons
from splay.piece.kinds import HoldsTop
from splay.quantity import degrees as deg
from splay.stance.body import Body, Side, Void
from splay.stance.holding import (
    ALONG_DEG,
    Carried,
    inner_side,
    lying_under,
    middle_of,
    spots_along,
    wood_across,
)
from splay.stance.side_taper import cross_section, point, side_plane
from splay.stance.staked import Stance
from splay.stance.vectors import Vec, along, dot, unit

SNUG_MM = 0.5
"""A tongue is so much thinner than its groove is wide (common practice, no source)."""
DRAWS_MM = 1.0
"""A button's step is so much less than the groove lies down: its screw draws the top by that (common
practice, no source)."""
STANDS_MM = 1.0
"""A button stands off its part by this, besides what the top moves there (common practice, no source)."""
BODY_MM = 35.0
"""A button behind its tongue, long (common practice, no source)."""
PAST_SHARE = 0.75
"""A groove goes so many widths of a button past the middle of the outer ones (common practice, no
source)."""


@dataclass(frozen=True)
class Button:
    """One button: `along` its part from the middle of the length of its upper side, `at` its screw on the
    underside (top frame), `travel` what the top moves there either way, which for `slides` is along the
    groove; `off` how far its shoulder stands from the part, mm."""

    number: int
    along: float
    at: Vec
    travel: float
    slides: bool
    off: float

    @property
    def least(self) -> float:
        """How much of a tongue less than its own length stays in the groove at the worst, mm off it."""
        return self.off if self.slides else self.off + self.travel


@dataclass(frozen=True)
class Grooved:
    """A part with a groove for buttons in its inner side.

    `entry` is that side, `upper` the one under the top. The groove runs level: its walls lie along the
    upper side, `turn` off square to the side it is cut in, degrees; `sharp` where the corner of the two
    is sharper than square. It goes `ends` to either side of the middle of the length, mm, to the very
    ends where that is None; it begins `begins` from there where another part is let in in the middle,
    else it goes through. `lap` is how far to either side that part reaches. `into` is what it lies under.
    """

    body: Body
    chosen: TopButtons
    upper: Side
    entry: Side
    turn: float
    sharp: bool
    ends: float | None
    begins: float
    lap: float
    buttons: tuple[Button, ...]
    into: Carried

    @property
    def edge(self) -> float:
        """From the upper side down the grooved side to the groove's upper edge, mm."""
        return self.chosen.drop / deg.cos(self.turn)

    @property
    def mouth(self) -> float:
        """The groove on the side it is cut in, edge to edge, mm."""
        return self.chosen.groove / deg.cos(self.turn)

    @property
    def square(self) -> float:
        """How deep it is square to that side, mm."""
        return self.chosen.deep * deg.cos(self.turn)

    @property
    def tongue(self) -> float:
        """A button's tongue, thick, mm."""
        return self.chosen.groove - SNUG_MM

    @property
    def held(self) -> float:
        """How much of a tongue stays in the groove however the top has moved, mm."""
        return self.chosen.deep - max((one.least for one in self.buttons), default=0.0)

    @cached_property
    def spans(self) -> tuple[tuple[float, float], ...]:
        """Where along the part it lies, from the middle of its length, mm."""
        low, high = self.body.at(*middle_of(self.body, self.upper))
        ends = self.ends if self.ends is not None else (high - low) / 2
        if not self.begins:
            return ((-ends, ends),)
        return ((-ends, -self.begins), (self.begins, ends))

    @cached_property
    def frame(self) -> tuple[Vec, Vec, Vec]:
        """In the part's own frame: the corner of upper and grooved side in the middle of its length, the
        way down from the upper side, and the way in, level."""
        low, high = self.body.at(*middle_of(self.body, self.upper))
        e, u = side_plane(self.body, self.entry), side_plane(self.body, self.upper)
        corner = point(e, u, cross_section((low + high) / 2))
        down: Vec = (-u.normal[0], -u.normal[1], -u.normal[2])
        run = dot(e.normal, u.normal)
        into = unit(tuple(-(n - run * m) for n, m in zip(e.normal, u.normal, strict=True)))  # type: ignore[arg-type]
        return corner, down, into

    def at(self, x: float, down: float, into: float) -> Vec:
        """A place in the groove, top frame: along from the middle, down from the upper side, in from the
        side it is cut in, level."""
        corner, below, inward = self.frame
        e = side_plane(self.body, self.entry)
        p = along((corner[0] + x, corner[1], corner[2]), below, down)
        # Back to the side it is cut in, which may lean, and in from there.
        reach = -e.beyond(p) / dot(e.normal, inward)
        return self.body.pose.out(along(p, inward, reach + into))


def buttons_by(piece: Piece, support: int) -> TopButtons | None:
    """The buttons that hold the top to a support, where it has any."""
    one = piece.supports[support]
    if isinstance(one, HoldsTop):
        return one.held if isinstance(one.held, TopButtons) else None
    return None


def grooves(piece: Piece, stance: Stance) -> tuple[Grooved, ...]:
    """Every part of a piece that is grooved for buttons."""
    if all(buttons_by(piece, index) is None for index in range(len(piece.supports))):
        return ()
    return tuple(_grooves(piece, stance))


def _grooves(piece: Piece, stance: Stance) -> Iterator[Grooved]:
    wide = wood_across(piece)
    for body, upper, into in lying_under(piece, stance):
        chosen = buttons_by(piece, body.support)
        if chosen is None:
            continue
        entry = inner_side(body, upper)
        lean = dot(side_plane(body, entry).normal, side_plane(body, upper).normal)
        spots = spots_along(piece, body, upper, chosen.count, chosen.from_ends, into)
        xs = [x for x, _ in spots]
        if not xs:
            continue
        low, high = body.at(*middle_of(body, upper))
        ends = max(abs(x) for x in xs) + PAST_SHARE * chosen.wide
        lap = max((_reach(void) for void in body.voids), default=0.0)
        nearest = min(abs(x) for x in xs) - PAST_SHARE * chosen.wide
        made = Grooved(
            body=body,
            chosen=chosen,
            upper=upper,
            entry=entry,
            turn=math.degrees(math.asin(min(1.0, abs(lean)))),
            sharp=lean < 0.0,
            ends=ends if ends < (high - low) / 2 else None,
            begins=max(0.0, nearest) if lap else 0.0,
            lap=lap,
            buttons=(),
            into=into,
        )
        found = tuple(_button(made, number, x, over, wide) for number, (x, over) in enumerate(spots, 1))
        yield replace(made, buttons=found)


def _reach(void: Void) -> float:
    """How far along a stick from its middle what is let into it reaches, mm."""
    return max((abs(p.offset / p.normal[0]) for p in void.planes if abs(p.normal[0]) > 0.5), default=0.0)


def _button(groove: Grooved, number: int, x: float, over: Carried, wide: float) -> Button:
    body, across = groove.body, over.grain + 90.0
    here = groove.at(x, 0.0, 0.0)
    off = over.off(here)
    travel = groove.chosen.moves * abs(off) / wide if wide else 0.0
    runs = body.pose.along
    flat = abs(runs[0] * deg.cos(across) + runs[1] * deg.sin(across)) / math.hypot(runs[0], runs[1])
    slides = flat > deg.cos(ALONG_DEG)
    stands = STANDS_MM + (0.0 if slides else travel)
    screw = groove.at(x, 0.0, -(stands + BODY_MM / 2))
    return Button(number, x, screw, travel, slides, stands)
