"""What can go wrong with stretchers: no gap, too little wood behind, sockets that meet."""

from __future__ import annotations

from collections.abc import Iterator
from itertools import combinations

from splay.judge.finding import Finding
from splay.parts.member import MemberPart
from splay.piece import Piece, Stretcher
from splay.quantity import Show
from splay.stance.apart import segments
from splay.stance.members import EndStance, MemberStance
from splay.stance.vectors import Vec

BEHIND_MM = 4.0
"""Least wood behind a socket in a leg (common practice, no source)."""
BETWEEN_MM = 3.0
"""Least wood between two sockets in a leg (common practice, no source)."""
TENON_SHARE = 0.6
"""A socket wider than this share of its leg weakens it (common practice, no source)."""


def gaps(members: tuple[MemberPart, ...], show: Show) -> Iterator[Finding]:
    """Stretchers for which there is no room."""
    for part in members:
        gap = part.gap.quantity
        if gap.value <= 0:
            yield Finding(
                "no_gap",
                "stop",
                "stretchers",
                f"There is no gap for {part.name}: the legs are {gap.text} apart there.",
                "Put it lower, or set the legs further apart.",
                tuple(end.leg for end in part.ends if end.leg),
                gap,
                show.length(0.0),
                None,
                f"members.{part.number - 1}",
            )


def wood(members: tuple[MemberPart, ...], show: Show) -> Iterator[Finding]:
    """Sockets that come out at the back of a leg, or nearly."""
    for part in members:
        for end in part.ends:
            behind = end.behind.quantity
            if behind.value >= BEHIND_MM:
                continue
            out = behind.value <= 0
            yield Finding(
                "socket_through" if out else "socket_deep",
                "stop" if out else "caution",
                "stretchers",
                f"The socket of {part.name} in {end.into} "
                + ("comes out at the back." if out else f"leaves only {behind.text} behind it."),
                f"Bore it {show.length(BEHIND_MM - behind.value).text} less deep.",
                (end.leg,) if end.leg else (),
                behind,
                show.length(BEHIND_MM),
                None,
                f"members.{part.number - 1}.depth",
            )


def meeting(piece: Piece, runs: tuple[MemberStance, ...], show: Show) -> Iterator[Finding]:
    """Two sockets of one leg (or member) that meet, or leave too little between."""
    ends: list[tuple[int, Stretcher, EndStance, Vec]] = []
    for run in runs:
        chosen = piece.members[run.number - 1]
        assert isinstance(chosen, Stretcher)
        u = run.u
        ends.append((run.number, chosen, run.ends[0], u))
        ends.append((run.number, chosen, run.ends[1], (-u[0], -u[1], -u[2])))
    for (i, a, end_a, u_a), (j, b, end_b, u_b) in combinations(ends, 2):
        if (end_a.leg, end_a.member) != (end_b.leg, end_b.member):
            continue
        apart = segments(_socket(a, end_a, u_a), _socket(b, end_b, u_b))
        left = apart - (a.tenon + b.tenon) / 2.0
        if left >= BETWEEN_MM:
            continue
        into = f"leg {end_a.leg}" if end_a.leg else f"stretcher {end_a.member}"
        met = left <= 0
        yield Finding(
            "sockets_meet" if met else "sockets_close",
            "stop" if met else "caution",
            "stretchers",
            f"The sockets of stretchers {i} and {j} "
            + (
                f"meet inside {into}." if met else f"leave {show.length(left).text} between them in {into}."
            ),
            "Set one higher or lower, or bore them less deep or thinner.",
            (end_a.leg,) if end_a.leg else (),
            show.length(left),
            show.length(BETWEEN_MM),
            None,
            f"members.{j - 1}",
        )


def _socket(member: Stretcher, end: EndStance, u: Vec) -> tuple[Vec, Vec]:
    """The socket's middle line from the surface inward; `u` points out of the leg."""
    outer = end.leaves
    inner = end.leaves - member.depth
    return (
        (end.at[0] + u[0] * outer, end.at[1] + u[1] * outer, end.at[2] + u[2] * outer),
        (end.at[0] + u[0] * inner, end.at[1] + u[1] * inner, end.at[2] + u[2] * inner),
    )
