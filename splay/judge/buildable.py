"""What cannot be built as it was chosen: parts thicker, taller or longer than what holds them."""

from __future__ import annotations

from collections.abc import Iterator

from splay.judge.finding import Finding
from splay.parts.member import MemberPart
from splay.piece import Piece, Stretcher
from splay.piece.bounds import Bound
from splay.quantity import Show
from splay.stance.member_flats import half_over_corners
from splay.stance.members import MemberStance
from splay.stance.side_taper import MET_MM, joined_to
from splay.stance.staked import Stance
from splay.stance.vectors import between, cross, dot, length

SHOULDER_MM = 1.0
"""Least wood a stretcher keeps round its tenon for a shoulder to be one (common practice, no source)."""


def buildable(
    piece: Piece,
    stance: Stance,
    runs: tuple[MemberStance, ...],
    members: tuple[MemberPart, ...],
    show: Show,
) -> Iterator[Finding]:
    """Every size of the document that is past what bounds it, with the choice that mends it."""
    for one in (*_supports(piece, stance), *_members(piece, members)):
        if one.passed:
            size, limit = show.length(one.size), show.length(one.limit)
            yield Finding(
                one.code, "stop", one.station, one.text, one.mend, (), size, limit, None, one.field
            )
    yield from _tapers(stance, show)
    yield from _crossing(piece, runs, show)


def _supports(piece: Piece, stance: Stance) -> Iterator[Bound]:
    high = stance.floor.h0_mm
    top = piece.top
    for edge, name in ((top.upper_edge, "upper"), (top.lower_edge, "lower")):
        yield Bound(
            "edge_deep", "top", f"What is shaped off the {name} edge is deeper than the top is thick.",
            "Make it smaller, or the top thicker.", edge.down, top.thickness, f"top.{name}_edge.size",
        )  # fmt: skip
    for k, support in enumerate(piece.supports):
        for one in support.bounds(high):
            yield one.within(f"supports.{k}")


def _tapers(stance: Stance, show: Show) -> Iterator[Finding]:
    """Of each support the joint that reaches furthest down a side that is tapered, and the taper there."""
    worst: dict[int, tuple[float, float, str]] = {}
    for leg in stance.bodies:
        for taper in leg.tapers:
            for other in stance.bodies:
                if other is leg or other.support != leg.support:
                    continue
                low = joined_to(leg, taper.side, other)
                # What the joint asks for, down the same corner as the taper's beginning.
                need = taper.after + low - taper.begins
                if low > taper.begins + MET_MM and need > worst.get(leg.support, (0.0,))[0]:
                    worst[leg.support] = (need, taper.after, other.name)
    for support, (need, after, name) in worst.items():
        yield Finding(
            "taper_in_joint",
            "stop",
            "stance",
            f"The legs' taper begins above the foot of a joint: the {name} stands open.",
            f"Let it begin {show.length(need).text} down or more, or taper other sides of the leg.",
            (),
            show.length(after),
            show.length(need),
            None,
            f"supports.{support}.taper.begins",
        )


def _members(piece: Piece, members: tuple[MemberPart, ...]) -> Iterator[Bound]:
    for part in members:
        chosen = piece.members[part.number - 1]
        assert isinstance(chosen, Stretcher)
        field = f"members.{part.number - 1}"
        yield Bound(
            "tenon_over_stretcher", "stretchers",
            f"The tenon of {part.name} is thicker than the stick itself.",
            "Bore a smaller socket, or take a thicker stick.", chosen.tenon, chosen.diameter,
            f"{field}.tenon",
        )  # fmt: skip
        for end in part.ends:
            yield Bound(
                "socket_over_stick", "stretchers",
                f"The socket of {part.name} is too wide for {end.into}: it weakens it.",
                "Make its tenon thinner, or what it goes into thicker.", chosen.tenon,
                2.0 * end.radius * (1.0 if end.member else 0.9), f"{field}.tenon",
            )  # fmt: skip


def _crossing(piece: Piece, runs: tuple[MemberStance, ...], show: Show) -> Iterator[Finding]:
    """Stretchers that run through one another between their legs."""
    for k, one in enumerate(runs):
        for two in runs[k + 1 :]:
            if any(e.member == one.number for e in two.ends) or any(
                e.member == two.number for e in one.ends
            ):
                continue
            a, b = piece.members[one.number - 1], piece.members[two.number - 1]
            assert isinstance(a, Stretcher) and isinstance(b, Stretcher)
            apart = _nearest(one, two)
            room = half_over_corners(a) + half_over_corners(b)
            if apart is None or apart >= room:
                continue
            yield Finding(
                "stretchers_cross",
                "stop",
                "stretchers",
                f"Stretchers {one.number} and {two.number} meet between their legs: their middles pass "
                f"{show.length(apart).text} apart, and they want {show.length(room).text}.",
                "Set one higher than the other, or let one end in the other.",
                tuple(sorted({e.leg for run in (one, two) for e in run.ends if e.leg})),
                show.length(apart),
                show.length(room),
                None,
                f"members.{two.number - 1}",
            )


def _nearest(one: MemberStance, two: MemberStance) -> float | None:
    """How near two stretchers' axes pass between their ends, mm; None where that is not between them."""
    p, q = one.ends[0].at, two.ends[0].at
    normal = cross(one.u, two.u)
    size = length(normal)
    if size < 1e-6:
        return None
    w = between(p, q)
    s = dot(cross(w, two.u), normal) / size**2
    t = dot(cross(w, one.u), normal) / size**2
    inside = one.ends[0].leaves < s < one.centres - one.ends[1].leaves
    inside &= two.ends[0].leaves < t < two.centres - two.ends[1].leaves
    return abs(dot(w, normal)) / size if inside else None
