"""Sizes of squared parts that can be taken hold of where they show: the rise of an arc, a taper."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass

from splay.stance.body import Body, SideTaper
from splay.stance.side_taper import point, side_now, side_plane
from splay.stance.staked import Stance
from splay.stance.vectors import Vec, cross, dot

_FACING = 0.7
"""What is seen less than this square on is not taken hold of in a view."""


@dataclass(frozen=True)
class Hold:
    """One size of a support: `field`, its place in that support's document; `at` the point that goes with
    it, `way` the way it goes as the size grows, a millimetre for `per` of it; `across` what must be seen
    for it to show. Top frame, mm."""

    support: int
    field: str
    label: str
    at: Vec
    way: Vec
    per: float
    across: Vec


def holds(stance: Stance) -> tuple[Hold, ...]:
    """Every size of the stance's squared parts that can be dragged, part by part."""
    return tuple(hold for body in stance.bodies if body.drawn for hold in _of(body))


def facing(every: tuple[Hold, ...], right: Vec, up: Vec) -> Iterator[tuple[int, Hold]]:
    """Those that show in a view, each size once, with their places among all from 1."""
    seen: set[tuple[int, str]] = set()
    for number, one in enumerate(every, start=1):
        square_on = all(
            math.hypot(*(sum(a * b for a, b in zip(axis, way, strict=True)) for axis in (right, up)))
            > _FACING
            for way in (one.across, one.way)
        )
        if square_on and (one.support, one.field) not in seen:
            seen.add((one.support, one.field))
            yield number, one


def _of(body: Body) -> Iterator[Hold]:
    p, sweep = body.pose, body.sweep
    if sweep is not None:
        up = -float(sweep.down)
        toward: Vec = (up * p.across[0], up * p.across[1], up * p.across[2])
        what = f"arc of the {body.name}"
        face = body.thickness / 2.0
        if sweep.rests == "crown":
            # Its middle keeps its height; the ends go down as it rises more.
            at = p.out((sweep.first, sweep.low, face))
            down: Vec = (-toward[0], -toward[1], -toward[2])
            yield Hold(body.support, sweep.field, what, at, down, 1.0, p.along)
        else:
            crown = p.out((sweep.middle, sweep.low - sweep.down * sweep.rise, face))
            yield Hold(body.support, sweep.field, what, crown, toward, 1.0, p.along)
    sides = [taper.side for taper in body.tapers]
    for taper in body.tapers:
        yield from _taper(body, taper, (-taper.side[0], -taper.side[1]) in sides)


def _taper(body: Body, taper: SideTaper, both: bool) -> Iterator[Hold]:
    end = body.finish if taper.to == "finish" else body.start
    own, on = side_plane(body, taper.side), side_now(body, taper.on)
    out = body.pose.turn_out(own.normal)
    foot = body.pose.out(point(taper.plane, on, end))
    # Its corner stays on the sawn end and on the side it is drawn on, a millimetre out for one of width.
    line = cross(on.normal, end.normal)
    share = 1.0 / dot(line, own.normal)
    way = body.pose.turn_out((line[0] * share, line[1] * share, line[2] * share))
    if body.role == "side":
        # A board's taper is by what comes off its edge.
        back: Vec = (-way[0], -way[1], -way[2])
        yield Hold(body.support, "taper.off", f"tapered edge of the {body.name}", foot, back, 1.0, out)
        return
    # The wood left stands between two sides that both come in, or between one and the one opposite.
    per = 2.0 if both else 1.0
    yield Hold(body.support, "taper.foot", f"tapered foot of the {body.name}", foot, way, per, out)
    begins = body.pose.out(point(taper.plane, on, own))
    label = f"beginning of the taper of the {body.name}"
    yield Hold(body.support, "taper.begins", label, begins, body.pose.along, 1.0, out)
