"""Set-up cards for boring legs (and members) for stretchers."""

from __future__ import annotations

from collections.abc import Iterator

from splay.parts.member import MemberEnd, MemberPart
from splay.piece import Piece, Stretcher
from splay.quantity import Figure, Show
from splay.setups.card import SetUp
from splay.setups.two_sticks import TOOLS, Into, boring_card, listed, marked
from splay.shop import Shop, Tool


def member_cards(piece: Piece, parts: tuple[MemberPart, ...], shop: Shop, show: Show) -> tuple[SetUp, ...]:
    """One card for each tool and each setting: ends read at one angle, bored to one depth."""
    groups: dict[tuple[object, ...], list[tuple[MemberPart, int]]] = {}
    for part in parts:
        chosen = piece.members[part.number - 1]
        assert isinstance(chosen, Stretcher)
        for e, end in enumerate(part.ends):
            angle = round(end.read.quantity.value, 4)
            key = (angle, chosen.tenon, chosen.depth, end.acute_side)
            groups.setdefault(key, []).append((part, e))
    groups = dict(_as_read(groups))
    tools = [(k, tool) for k, tool in enumerate(shop.tools) if tool.owned and isinstance(tool, TOOLS)]
    return tuple(_card(piece, uses, tool, k, show) for uses in groups.values() for k, tool in tools)


MEAN_DEG = 1.5
"""Read angles that were planned alike and lie within this are bored at their mean (common practice, no
source; 83 and 84 are bored at 83.5)."""


def _as_read(
    groups: dict[tuple[object, ...], list[tuple[MemberPart, int]]],
) -> Iterator[tuple[tuple[object, ...], list[tuple[MemberPart, int]]]]:
    """Ends planned alike but read too far apart are bored each at its own angle."""
    for key, uses in groups.items():
        if _apart(uses) <= MEAN_DEG:
            yield key, uses
            continue
        for use in uses:
            yield (*key, use[0].number, use[1]), [use]


def _apart(uses: list[tuple[MemberPart, int]]) -> float:
    """How far the read angles of some ends lie apart, degrees."""
    read = [found.value for part, e in uses if (found := part.ends[e].found)]
    return max(read) - min(read) if read else 0.0


def bored_at(uses: list[tuple[MemberPart, int]], show: Show, key: str) -> Figure:
    """The angle to bore at: the mean of what was read, else as planned."""
    planned = uses[0][0].ends[uses[0][1]].read
    read = [found.value for part, e in uses if (found := part.ends[e].found)]
    if not read:
        return planned
    return show.figure(
        f"{key}.bored_at",
        "Bore at, acute",
        sum(read) / len(read),
        "as read" if len(read) == 1 else "mean of what was read",
        *(show.input(f"α{k + 1}", "as read, acute", value, "deg") for k, value in enumerate(read)),
        unit="deg",
        note=f"{planned.quantity.text} as planned",
    )


def _card(piece: Piece, uses: list[tuple[MemberPart, int]], tool: Tool, index: int, show: Show) -> SetUp:
    part, e = uses[0]
    end = part.ends[e]
    chosen = piece.members[part.number - 1]
    assert isinstance(chosen, Stretcher)
    key = f"socket.{part.number}.{e + 1}"
    checks = (end.obtuse_wall, end.acute_wall, end.behind, end.pass_by)
    bore = Into(
        key=key,
        operation="bore_member",
        title=_title(uses),
        angle=bored_at(uses, show, f"{key}.{tool.kind}.{index}"),
        acute_side=end.acute_side,
        stick=end.into,
        leg=end.leg,
        radius=end.radius,
        other=part.name,
        legs=tuple(sorted({p.ends[k].leg for p, k in uses if p.ends[k].leg})),
        steps=_steps(uses, chosen, end, show),
        proofs=(
            *(f"read.{p.number}.{k + 1}" for p, k in uses),
            *(f"depth.{p.number}.{k + 1}" for p, k in uses),
        ),
        checks=tuple(figure for figure in checks if figure is not None),
        parts=tuple(dict.fromkeys(f"member.{p.number}" for p, _ in uses)),
    )
    return boring_card(bore, tool, index, show)


def _title(uses: list[tuple[MemberPart, int]]) -> str:
    into = sorted({part.ends[e].into for part, e in uses})
    names = list(dict.fromkeys(part.name for part, _ in uses))
    return f"Bore {listed(into)} for {listed(names)}"


def _steps(
    uses: list[tuple[MemberPart, int]], chosen: Stretcher, end: MemberEnd, show: Show
) -> tuple[str, ...]:
    ends = [part.ends[e] for part, e in uses]
    marks = marked([(one.into, one.down, one.turn) for one in ends])
    return (
        f"Mark the middles: {marks} (from the sightline mark, seen from the top).",
        f"Bit {show.length(chosen.tenon).text}, {show.length(chosen.depth).text} deep along it: "
        f"{end.obtuse_wall.quantity.text} on the obtuse side.",
    )
