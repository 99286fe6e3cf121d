"""Set-up cards for boring legs (and stretchers) for stretchers."""

from __future__ import annotations

from collections.abc import Iterator

from splay.parts.member import MemberEnd, MemberPart
from splay.piece import Piece, Stretcher
from splay.quantity import Figure, Show
from splay.setups.card import SetUp
from splay.setups.drills import boring_tools
from splay.setups.two_sticks import SQUARE_DEG, Into, placing, stick_cards, stick_marks
from splay.shop import Shop
from splay.work.does import Bit, Do, WallDepth
from splay.work.marks import Kind, Mark, leg_key, member_key
from splay.work.phrases import listed, with_the
from splay.work.proofs import proof_id

_Use = tuple[MemberPart, int]


def member_cards(piece: Piece, parts: tuple[MemberPart, ...], shop: Shop, show: Show) -> tuple[SetUp, ...]:
    """One card for each tool and each setting: ends read at one angle, bored to one depth."""
    groups: dict[tuple[object, ...], list[_Use]] = {}
    by_number = {part.number: part for part in parts}
    for part in parts:
        chosen = piece.members[part.number - 1]
        assert isinstance(chosen, Stretcher)
        for e, end in enumerate(part.ends):
            angle = (round(end.read.quantity.value, 4), round(end.opening_on, 4))
            # By eye: a stretcher that is bored or aimed at is there only when its own sockets are bored.
            there = (_rank(by_number, end.member), _rank(by_number, part.ends[1 - e].member))
            key = (*angle, chosen.tenon, chosen.depth, end.acute_side, bool(end.face), *there)
            groups.setdefault(key, []).append((part, e))
    groups = dict(_as_read(groups))
    tools = tuple(boring_tools(shop, "stick"))
    sets = (_set(piece, parts, uses, show) for uses in groups.values())
    return tuple(card for bore in sets for card in stick_cards(bore, tools, show))


def _rank(by_number: dict[int, MemberPart], number: int) -> int:
    """How many stretchers stand one in the other up to this one: 0 for none, 1 for one between legs."""
    return 1 + max(_rank(by_number, end.member) for end in by_number[number].ends) if number else 0


MEAN_DEG = 1.5
"""Read angles that were planned alike and lie within this are bored at their mean (common practice, no
source; 83 and 84 are bored at 83.5)."""


def _as_read(
    groups: dict[tuple[object, ...], list[_Use]],
) -> Iterator[tuple[tuple[object, ...], list[_Use]]]:
    """Ends planned alike but read too far apart are bored each at its own angle."""
    for key, uses in groups.items():
        if _apart(uses) <= MEAN_DEG:
            yield key, uses
            continue
        for use in uses:
            yield (*key, use[0].number, use[1]), [use]


def _apart(uses: list[_Use]) -> float:
    """How far the read angles of some ends lie apart, degrees."""
    read = [found.value for part, e in uses if (found := part.ends[e].found)]
    return max(read) - min(read) if read else 0.0


def bored_at(uses: list[_Use], show: Show, key: str) -> Figure:
    """The angle to bore at, between the axes: the mean of what was read, else as planned."""
    planned = uses[0][0].ends[uses[0][1]].read
    read = [found.value for part, e in uses if (found := part.ends[e].found)]
    if not read:
        return planned
    signs = [f"α{chr(0x2081 + k)}" for k in range(len(read))]
    return show.figure(
        f"{key}.bored_at",
        "Bore at, acute",
        sum(read) / len(read),
        f"({' + '.join(signs)}) / {len(read)}" if len(read) > 1 else signs[0],
        *(
            show.input(sign, "as read, acute", value, "deg")
            for sign, value in zip(signs, read, strict=True)
        ),
        unit="deg",
        note=f"{planned.quantity.text} as planned",
    )


def end_called(part: MemberPart, e: int) -> str:
    """A stretcher's end by what it goes into: that is what is written on it."""
    return f"end for {part.ends[e].into}"


def socket_mark(part: MemberPart, e: int) -> Mark:
    """The mark of a stretcher's socket on what it goes into."""
    end = part.ends[e]
    on = leg_key(end.leg) if end.leg else member_key(end.member)
    bored = f"leg {end.leg}" if end.leg else f"stretcher {end.member}"
    said = f"{bored}'s mark for {with_the(part.name)}"
    return Mark(Kind.SOCKET, on, f"{member_key(part.number)}/{e + 1}", said)


def _set(piece: Piece, parts: tuple[MemberPart, ...], uses: list[_Use], show: Show) -> Into:
    """What is bored at one setting, whatever the tool."""
    part, e = uses[0]
    end = part.ends[e]
    chosen = piece.members[part.number - 1]
    assert isinstance(chosen, Stretcher)
    key = f"socket.{part.id}.{e + 1}"
    checks = (end.obtuse_wall, end.acute_wall, end.behind, end.pass_by)
    ends = [p.ends[k] for p, k in uses]
    by_number = {one.number: one for one in parts}
    # A stretcher that is bored by eye, or aimed at, has to be there.
    there = (*ends, *(p.ends[1 - k] for p, k in uses))
    carriers = [by_number[one.member].name for one in there if one.member]
    uses_marks = tuple(mark for one in ends for mark in stick_marks(one.leg, one.member, bool(one.face)))
    return Into(
        key=key,
        operation="bore_member",
        kind="stick",
        title=_title(uses),
        angle=bored_at(uses, show, key),
        ends=tuple(ends),
        marks=tuple(socket_mark(p, k) for p, k in uses),
        sight=tuple(socket_mark(p, 1 - k) for p, k in uses),
        leg=end.leg,
        member=end.member,
        other=part.name,
        legs=tuple(sorted({one.leg for one in ends if one.leg})),
        does=_does(uses, chosen, end, by_number, show),
        uses=uses_marks,
        proofs=(
            *(proof_id("read", p.id, f"{k + 1}") for p, k in uses),
            *(proof_id("depth", p.id, f"{k + 1}") for p, k in uses),
        ),
        checks=tuple(figure for figure in checks if figure is not None),
        parts=tuple(dict.fromkeys(member_key(p.number) for p, _ in uses)),
        carriers=listed(carriers) if carriers else "",
    )


def _title(uses: list[_Use]) -> str:
    into = sorted({part.ends[e].into for part, e in uses})
    names = list(dict.fromkeys(part.name for part, _ in uses))
    return f"Bore {listed(into)} for {listed(names)}"


def _does(
    uses: list[_Use], chosen: Stretcher, end: MemberEnd, parts: dict[int, MemberPart], show: Show
) -> tuple[Do, ...]:
    made: list[Do] = []
    for part, e in uses:
        one = part.ends[e]
        first_end = end_called(parts[one.member], 0) if one.member else ""
        made += placing(one, one.leg, one.member, socket_mark(part, e), first_end)
    made.append(Bit(show.length(chosen.tenon), show.length(chosen.depth), None))
    made.append(WallDepth(end.obtuse_wall.quantity, abs(end.opening_on - 90.0) > SQUARE_DEG))
    return tuple(made)
