"""Set-up cards for boring legs (and members) for stretchers."""

from __future__ import annotations

import math
from collections.abc import Iterator

from splay.parts.member import MemberEnd, MemberPart
from splay.piece import Piece, Stretcher
from splay.quantity import Figure, Quantity, Show
from splay.setups.card import Dial, Scene, SetUp
from splay.setups.dial import dial
from splay.setups.jigs import wedge
from splay.shop import (
    BevelGauge,
    DigitalGauge,
    OppositeLeg,
    Protractor,
    Shop,
    TiltingTable,
    Tool,
)
from splay.shop.scale import within_reach

TOOLS = (OppositeLeg, Protractor, BevelGauge, TiltingTable, DigitalGauge)
_CRADLE = (
    "Round stock rolls: lay the leg in a V for its whole length and clamp it; follow the drill's "
    "own manual."
)
_HAND = "Clamp the legs, brace for the bit to catch, keep the other hand out of its way."
_NAMES = {
    "protractor": "The protractor reads",
    "bevel_gauge": "Set the bevel gauge to",
    "tilting_table": "Tilt the table to",
    "digital_gauge": "Bore when the gauge shows",
}


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
    key = f"socket.{part.number}.{e + 1}.{tool.kind}.{index}"
    at = bored_at(uses, show, key)
    off = 90.0 - at.quantity.value
    dials, setting, jig, note = _setting(tool, off, at, show, key)
    legs = tuple(sorted({p.ends[k].leg for p, k in uses if p.ends[k].leg}))
    return SetUp(
        id=key,
        station="stretchers",
        operation="bore_member",
        way=tool.kind,
        tool=tool.name,
        legs=legs,
        title=_title(uses),
        angle=at,
        dials=dials,
        setting=setting,
        setting_name=_NAMES.get(tool.kind, "Between the sticks, acute"),
        which_way=_which_way(end, tool),
        steps=_steps(uses, chosen, end, show),
        turns=(),
        jig=(*jig, *_vee(end, tool, show, key)),
        in_reach=not note,
        reach_note=note,
        scene=Scene(
            "two_sticks",
            off,
            "",
            "",
            (dials[0].at_square, dials[0].counts, dials[0].reach, setting.text) if dials else None,
            {
                "leg": end.into,
                "member": part.name,
                "acute": end.acute_side or "square",
                "angle": at.quantity.text,
                "tool": tool.kind,
            },
        ),
        proofs=(
            *(f"read.{p.number}.{k + 1}" for p, k in uses),
            *(f"depth.{p.number}.{k + 1}" for p, k in uses),
        ),
        checks=tuple(
            f for f in (end.obtuse_wall, end.acute_wall, end.behind, end.pass_by) if f is not None
        ),
        cautions=(_CRADLE if isinstance(tool, TiltingTable) else _HAND,),
        parts=tuple(dict.fromkeys(f"member.{p.number}" for p, _ in uses)),
    )


def _setting(
    tool: Tool, off: float, at: Figure, show: Show, key: str
) -> tuple[tuple[Dial, ...], Quantity, tuple[Figure, ...], str]:
    if isinstance(tool, OppositeLeg):
        return (), at.quantity, (), ""
    assert isinstance(tool, Protractor | BevelGauge | TiltingTable | DigitalGauge)
    made = dial(tool.name, tool.scale, min(off, tool.scale.reach), show)
    if within_reach(tool.scale, off):
        return (made,), made.reading, (), ""
    jig = wedge(off, tool.scale.reach, show, key)
    note = (
        f"{show.angle(off).text} off square is past its reach of {show.angle(tool.scale.reach).text}: "
        f"set it to its end and put a wedge of {jig[0].quantity.text} under the cradle."
    )
    return (made,), made.reading, jig, note


def _vee(end: MemberEnd, tool: Tool, show: Show, key: str) -> tuple[Figure, ...]:
    """The V a round leg lies in under the drill: it touches at 45 degrees, D / sqrt 2 apart."""
    if not isinstance(tool, TiltingTable) or not end.leg:
        return ()
    thick = 2.0 * end.radius
    return (
        show.figure(
            f"{key}.vee",
            "V for the leg, sides at 45°: its mouth more than",
            thick / math.sqrt(2.0),
            "D / √2",
            show.input("D", "leg there", thick),
            note="as long as the leg; under a tapered leg shim the thin end until its middle is level",
        ),
    )


def _title(uses: list[tuple[MemberPart, int]]) -> str:
    into = sorted({part.ends[e].into for part, e in uses})
    names = list(dict.fromkeys(part.name for part, _ in uses))
    return f"Bore {_list(into)} for {_list(names)}"


def _list(words: list[str]) -> str:
    """In words: names that differ only in their number share it ("legs 1, 2 and 3")."""
    heads = {word.rpartition(" ")[0] for word in words}
    if len(words) > 1 and len(heads) == 1 and "" not in heads:
        head = heads.pop()
        words = [word.rpartition(" ")[2] for word in words]
        return f"{head}s {', '.join(words[:-1])} and {words[-1]}"
    return words[0] if len(words) == 1 else f"{', '.join(words[:-1])} and {words[-1]}"


def _which_way(end: MemberEnd, tool: Tool) -> tuple[str, ...]:
    if not end.acute_side:
        return ("Square to the leg, in the plane of the two sticks.",)
    acute = f"The acute side is towards the {end.acute_side} of the leg."
    if not end.leg:
        acute = "The acute side is towards its {} end.".format(
            "second" if end.acute_side == "foot" else "first"
        )
    if isinstance(tool, OppositeLeg):
        return (
            "Clamp the legs as they stand; lay the drill's shank over the mark on the opposite leg.",
            acute,
        )
    if isinstance(tool, TiltingTable):
        return ("Leg in a V along the tilt.", acute.replace("The acute side is", "Downhill is"))
    if isinstance(tool, Protractor):
        return ("Hold it along the leg, in the plane of the two sticks, on the acute side.", acute)
    return ("In the plane of the two sticks.", acute)


def _steps(
    uses: list[tuple[MemberPart, int]], chosen: Stretcher, end: MemberEnd, show: Show
) -> tuple[str, ...]:
    marks = [
        f"{part.ends[e].into}: {part.ends[e].down.quantity.text} down, "
        f"{part.ends[e].turn.quantity.text} round"
        for part, e in uses
    ]
    return (
        f"Mark the middles: {'; '.join(marks)} (clockwise from the sightline mark, seen from the top).",
        f"Bit {show.length(chosen.tenon).text}, {show.length(chosen.depth).text} deep along it: "
        f"{end.obtuse_wall.quantity.text} on the obtuse side.",
    )
