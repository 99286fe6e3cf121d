"""Everything that is bored into the wood of a piece, joint by joint, as straight rods in the parts that
hold them: tenons, pegs, screws, dowels, loose tenons, holes for rope."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass, replace
from typing import Literal

from splay.piece import (
    Battened,
    Dowels,
    DowelScrew,
    Piece,
    Stretcher,
)
from splay.piece.kinds import driven_through
from splay.stance.battens import on_batten, screw_places
from splay.stance.body import Body, shares
from splay.stance.buttons import Grooved, grooves
from splay.stance.convex import Plane
from splay.stance.holding import TOP, Fastening, fastenings
from splay.stance.members import EndStance, MemberStance, RopeStance
from splay.stance.outside import driven
from splay.stance.pegs import holes_along, longest_from_side, pegs_from_above, pegs_from_side
from splay.stance.side_taper import wood_beyond
from splay.stance.splines import Splined, splined
from splay.stance.staked import LegStance, Stance, support_of
from splay.stance.vectors import Vec, along, between, unit

Sort = Literal["tenon", "peg", "screw", "dowel", "stretcher", "rope", "groove", "spline"]
END_MM = 10.0
"""A screw is set no nearer to a part's end than this (common practice, no source)."""
INSIDE_MM = 1.0
"""So far past a sawn end lies the wood of the part it is joined to."""
_JOINED = {"cross", "rail", "link", "tread", "slab_leg"}
"""Roles whose sawn ends bring dowels; what they run into has them from there."""


@dataclass(frozen=True)
class Rod:
    """One thing in the wood: from `a`, where it goes in, to its bottom `b`, top frame, mm.

    `joint` is its own; rods of one joint are one thing. `hosts` are the keys of the parts it is in.
    `crosses` is a joint it is meant to go through. `slide` is the way its place can be changed along,
    outward from the middle of its part; `shortens` whether it could be less deep; `field` where the maker
    changes it.
    """

    sort: Sort
    joint: str
    name: str
    hosts: frozenset[str]
    a: Vec
    b: Vec
    radius: float
    field: str
    slide: Vec | None = None
    room: tuple[float, float] = (0.0, 0.0)
    """How far it may be moved inward and outward, mm."""
    shortens: bool = False
    crosses: str = ""
    into: str = ""
    """Of a dowel the part it runs into from the sawn end it stands on, where it is to stay inside that."""

    def moved(self, by: float) -> Rod:
        """The same, moved along the way it can be."""
        assert self.slide is not None
        return replace(self, a=along(self.a, self.slide, by), b=along(self.b, self.slide, by))

    def cut(self, by: float) -> Rod:
        """The same, less deep."""
        way = between(self.a, self.b)
        long = math.hypot(*way)
        share = max(0.0, long - by) / long if long else 0.0
        return replace(self, b=along(self.a, way, share))


def rods(
    piece: Piece,
    stance: Stance,
    runs: tuple[MemberStance, ...],
    ropes: tuple[RopeStance, ...],
    screws: tuple[Fastening, ...] | None = None,
    grooved: tuple[Grooved, ...] | None = None,
    through: tuple[Splined, ...] | None = None,
) -> tuple[Rod, ...]:
    """All that is in the wood; the top's `screws`, grooves (`grooved`) and splines (`through`) where they
    are known already."""
    return (
        *_tenons(piece, stance),
        *_pegs(piece, stance),
        *_batten_screws(piece, stance),
        *_stretchers(piece, runs),
        *_ropes(piece, ropes),
        *_dowels(piece, stance),
        *_driven(piece),
        *(rod for one in (splined(piece, stance) if through is None else through) for rod in _spline(one)),
        *(rod for one in (grooves(piece, stance) if grooved is None else grooved) for rod in _groove(one)),
        *(_screw(one) for one in (fastenings(piece, stance) if screws is None else screws)),
    )


def _holder(leg: LegStance, stance: Stance) -> str:
    """What a leg's tenon stands in: the top, or its batten."""
    for body in stance.bodies:
        if body.role == "batten" and body.support == leg.support and on_batten(body, leg.socket):
            return body.key
    return TOP


def _tenons(piece: Piece, stance: Stance) -> Iterator[Rod]:
    for leg in stance.legs:
        bore, joint = leg.bore, support_of(piece, leg).joint
        back: Vec = (-leg.d[0], -leg.d[1], -leg.d[2])
        mouth = along(leg.socket, leg.d, 0.0)
        yield Rod(
            "tenon", f"leg.{leg.number}", f"the tenon of leg {leg.number}",
            frozenset({_holder(leg, stance)}), mouth, along(mouth, back, bore.deep),
            max(bore.size, bore.across) / 2, f"supports.{leg.support}.placement",
        )  # fmt: skip
        if isinstance(joint, DowelScrew):
            yield Rod(
                "tenon", f"leg.{leg.number}", f"the end of leg {leg.number}", frozenset({TOP}), mouth,
                along(mouth, back, bore.recess), bore.wide / 2, f"supports.{leg.support}.placement",
            )  # fmt: skip
            yield Rod(
                "screw", f"leg.{leg.number}", f"the screw in leg {leg.number}",
                frozenset({f"leg.{leg.number}"}), along(mouth, back, bore.recess),
                along(mouth, leg.d, joint.in_leg - bore.recess), joint.socket / 2,
                f"supports.{leg.support}.joint.length", shortens=True,
            )  # fmt: skip


def _pegs(piece: Piece, stance: Stance) -> Iterator[Rod]:
    for above in pegs_from_above(piece, stance):
        n = above.leg.number
        yield Rod(
            "peg", f"peg.{n}", f"the peg of leg {n}", frozenset({TOP}), above.at,
            along(above.at, above.into, above.longest), above.peg.diameter / 2,
            f"supports.{above.leg.support}.joint.peg.entry", crosses=f"leg.{n}",
        )  # fmt: skip
    for side in pegs_from_side(piece, stance):
        n, joint = side.leg.number, support_of(piece, side.leg).joint
        assert isinstance(joint, Battened)
        yield Rod(
            "peg", f"peg.{n}", f"the peg of leg {n}", frozenset({side.batten.key}), side.at,
            along(side.at, side.into, longest_from_side(side.peg, joint)), side.peg.diameter / 2,
            f"supports.{side.leg.support}.joint.peg.entry", crosses=f"leg.{n}",
        )  # fmt: skip


def _batten_screws(piece: Piece, stance: Stance) -> Iterator[Rod]:
    for body in stance.bodies:
        joint = getattr(piece.supports[body.support], "joint", None)
        if body.role != "batten" or not isinstance(joint, Battened):
            continue
        low, high = body.at(0.0, 0.0)
        half = joint.batten_thickness / 2
        for k, at in enumerate(screw_places(high - low, holes_along(body, stance), joint.screws), 1):
            start = body.pose.out((low + at, 0.0, -half))
            yield Rod(
                "screw", f"{body.key}.screw.{k}", f"screw {k} of {body.name}", frozenset({body.key, TOP}),
                start, along(start, (0.0, 0.0, 1.0), joint.counterbore + joint.screw), SCREW_MM / 2,
                f"supports.{body.support}.joint.screws",
            )  # fmt: skip


SCREW_MM = 5.0
"""A batten's screw over its thread; its size is not asked for (common practice, no source)."""


def _stretchers(piece: Piece, runs: tuple[MemberStance, ...]) -> Iterator[Rod]:
    for run in runs:
        chosen = piece.members[run.number - 1]
        assert isinstance(chosen, Stretcher)
        name = chosen.name or f"stretcher {run.number}"
        for end, sign in zip(run.ends, (1.0, -1.0), strict=True):
            out: Vec = (run.u[0] * sign, run.u[1] * sign, run.u[2] * sign)
            mouth = along(end.at, out, end.leaves)
            yield Rod(
                "stretcher", f"member.{run.number}", f"the tenon of {name}", frozenset({_into(end)}), mouth,
                along(mouth, out, -chosen.depth), chosen.tenon / 2, f"members.{run.number - 1}.depth",
                shortens=True,
            )  # fmt: skip


def _into(end: EndStance) -> str:
    return f"leg.{end.leg}" if end.leg else f"member.{end.member}"


def _ropes(piece: Piece, ropes: tuple[RopeStance, ...]) -> Iterator[Rod]:
    for rope in ropes:
        chosen = piece.members[rope.number - 1]
        half = (getattr(chosen, "diameter", 10.0) + getattr(chosen, "ease", 0.0)) / 2
        n = len(rope.points)
        for k, hole in enumerate(rope.holes):
            way = unit(between(hole.at, rope.points[(k + 1) % n] if k + 1 < n else rope.points[k - 1]))
            yield Rod(
                "rope", f"member.{rope.number}", f"the hole for rope {rope.number}",
                frozenset({f"leg.{hole.leg}"}), along(hole.at, way, -hole.radius),
                along(hole.at, way, hole.radius), half, f"members.{rope.number - 1}.level",
            )  # fmt: skip


def joined_ends(piece: Piece, stance: Stance) -> Iterator[tuple[Body, str, Dowels]]:
    """Every sawn end that brings dowels or loose tenons, and which; what it runs into has them thence."""
    joined = dict(piece.joined())
    for body in stance.bodies:
        if body.role not in _JOINED or body.support not in joined:
            continue
        for name in ("start",) if body.role == "slab_leg" else ("start", "finish"):
            yield body, name, joined[body.support].dowels


def _dowels(piece: Piece, stance: Stance) -> Iterator[Rod]:
    """Dowels and loose tenons, from the sawn ends they stand square on."""
    for body, name, dowels in joined_ends(piece, stance):
        plane = body.start if name == "start" else body.finish
        through = driven_through(piece.supports[body.support])
        yield from _in_end(body, name, plane, dowels, stance, through)


def _driven(piece: Piece) -> Iterator[Rod]:
    """Dowels driven from outside through a mitre."""
    for one in driven(piece):
        yield Rod(
            "dowel", f"{one.leg}.{one.number}", f"a {one.runs} dowel of the slab leg at the {one.of.end}",
            frozenset({one.leg, TOP}), one.at, along(one.at, one.way, one.deep), one.chosen.size / 2,
            f"supports.{one.support}.outside.past", shortens=True,
            into=one.leg if one.runs == "plumb" else TOP,
        )  # fmt: skip


def _in_end(
    body: Body, end: str, plane: Plane, dowels: Dowels, stance: Stance, through: bool
) -> Iterator[Rod]:
    loose = dowels.way == "loose_tenon"
    name = f"{'the loose tenon' if loose else 'a dowel'} of the {body.name}"
    out = body.pose.turn_out(plane.normal)
    mate = mate_of(body, end, stance)
    host = next((one for one in stance.bodies if one.key == mate), None) if through else None
    # A loose tenon is as many rods beside one another as fill its width.
    half = max(0.0, dowels.width - dowels.size) / 2 if loose else 0.0
    steps = max(1, math.ceil(2 * half / dowels.size))
    beside = [-half + 2 * half * j / steps for j in range(steps + 1)] if half else [0.0]
    # Along the sawn end, where a tenon's width is measured; across the stick it takes less.
    n = plane.normal
    lies = abs(n[0]) / math.hypot(n[0], n[1])
    for k, middle in enumerate(shares(body, dowels.count)):
        for aside in beside:
            y = middle + aside * lies
            at = body.pose.out(((plane.offset - plane.normal[1] * y) / plane.normal[0], y, 0.0))
            past = dowels.depth if host is None else wood_beyond(host, at, out)
            yield Rod(
                "dowel", f"{body.key}.{end}.{k + 1}", name, frozenset({body.key, mate} - {""}),
                along(at, out, -dowels.depth), along(at, out, past), dowels.size / 2,
                f"supports.{body.support}.dowels.depth", shortens=True, into="" if through else mate,
            )  # fmt: skip


def mate_of(body: Body, end: str, stance: Stance) -> str:
    """The part that a sawn end runs into in its middle, the top where that is its slab; empty where it runs
    into none."""
    plane = body.start if end == "start" else body.finish
    middle = body.pose.out((plane.offset / plane.normal[0], 0.0, 0.0))
    at = along(middle, body.pose.turn_out(plane.normal), INSIDE_MM)
    for other in stance.bodies:
        if other is body or other.support != body.support:
            continue
        own = other.pose.within(at)
        if abs(own[1]) >= other.width / 2 or abs(own[2]) >= other.thickness / 2:
            continue
        if all(plane.beyond(own) < 0.0 for plane in (other.start, other.finish, *other.rips)):
            return TOP if other.role == "slab" else other.key
    return ""


def _groove(one: Grooved) -> Iterator[Rod]:
    """A groove for buttons as a rod along its bottom, as thick as it is wide."""
    half = one.chosen.groove / 2
    down, into = one.chosen.drop + half, max(half, one.chosen.deep - half)
    for a, b in one.spans:
        yield Rod(
            "groove", f"{one.body.key}.groove", f"the groove of the {one.body.name}",
            frozenset({one.body.key}), one.at(a, down, into), one.at(b, down, into), half,
            f"supports.{one.body.support}.held.drop",
        )  # fmt: skip


def _spline(one: Splined) -> Iterator[Rod]:
    """A spline in its notch as rods side by side, as thick as it is, from the top's underside down."""
    half = one.thick / 2
    # Of the four corners at its front end: bottom and top of the outer face, then of the inner one.
    a, b, c, d = one.corners()[:4]
    low: Vec = ((a[0] + c[0]) / 2, 0.0, (a[2] + c[2]) / 2)
    high: Vec = ((b[0] + d[0]) / 2, 0.0, (b[2] + d[2]) / 2)
    wide = max(0.0, one.high - one.low - one.thick)
    steps = max(1, math.ceil(2.0 * wide / one.thick))
    for k in range(steps + 1):
        y = (one.low + one.high) / 2 - wide / 2 + wide * k / steps
        yield Rod(
            "spline", f"{one.body.key}.spline.{one.number}", f"spline {one.number} of the {one.body.name}",
            frozenset({one.body.key, TOP}), (high[0], y, high[2]), (low[0], y, low[2]), half,
            f"supports.{one.support}.splines.from_edges", shortens=True,
        )  # fmt: skip


def _screw(one: Fastening) -> Rod:
    start, w = along(one.at, one.way, -one.through), one.body.pose.along
    out: Vec = w if one.along > 0.0 else (-w[0], -w[1], -w[2])
    return Rod(
        "screw", f"{one.body.key}.hold.{one.number}",
        f"a screw of the {one.into.name} in the {one.body.name}",
        frozenset({one.body.key, one.into.wood}), start, along(one.at, one.way, one.screw.bite),
        one.screw.size / 2, f"supports.{one.body.support}.held.from_ends",
        slide=out if one.along else None,
        room=(abs(one.along), max(0.0, one.screw.from_ends - END_MM)),
    )  # fmt: skip
