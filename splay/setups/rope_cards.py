"""Set-up cards for the holes of a rope: right through each leg, halfway between both runs of the rope."""

from __future__ import annotations

from splay.parts.member import RopeHole, RopePart
from splay.quantity import Figure, Show
from splay.setups.card import Scene, SetUp
from splay.setups.two_sticks import (
    CRADLE,
    HAND,
    NAMES,
    TOOLS,
    listed,
    marked,
    setting_between,
    vee,
    which_way,
)
from splay.shop import OppositeLeg, Shop, TiltingTable, Tool

_BORING = tuple(tool for tool in TOOLS if tool is not OppositeLeg)
"""A rope's hole points past the other legs: none of them is its sight."""
_EASE = "Round both mouths over well: a rope wears through on an edge."
_Use = tuple[RopeHole, Figure]


def rope_cards(ropes: tuple[RopePart, ...], shop: Shop, show: Show) -> tuple[SetUp, ...]:
    """One card for each tool and each angle of hole."""
    tools = [(k, tool) for k, tool in enumerate(shop.tools) if tool.owned and isinstance(tool, _BORING)]
    made = []
    for rope in ropes:
        groups: dict[tuple[float, str], list[_Use]] = {}
        for hole, down in zip(rope.holes, rope.downs, strict=True):
            groups.setdefault((round(hole.read.quantity.value, 4), hole.acute_side), []).append(
                (hole, down)
            )
        made += [_card(rope, uses, tool, k, show) for uses in groups.values() for k, tool in tools]
    return tuple(made)


def _card(rope: RopePart, uses: list[_Use], tool: Tool, index: int, show: Show) -> SetUp:
    hole = uses[0][0]
    key = f"rope.{rope.number}.{hole.leg}.{tool.kind}.{index}"
    off = 90.0 - hole.read.quantity.value
    dials, setting, jig, note = setting_between(tool, off, hole.read, show, key)
    legs = tuple(sorted({use.leg for use, _ in uses}))
    named = listed([f"leg {leg}" for leg in legs])
    marks = marked([(f"leg {use.leg}", down, use.turn) for use, down in uses])
    return SetUp(
        id=key,
        station="stretchers",
        operation="bore_rope",
        way=tool.kind,
        tool=tool.name,
        legs=legs,
        title=f"Bore {named} for the {rope.name}",
        angle=hole.read,
        dials=dials,
        setting=setting,
        setting_name=NAMES.get(tool.kind, "Between the sticks, acute"),
        which_way=which_way(hole.acute_side, True, tool),
        steps=(
            f"Mark where it goes in: {marks} (from the sightline mark, seen from the top); it comes out "
            "straight across.",
            f"Bit {rope.hole.quantity.text}, right through, scrap held behind.",
            _EASE,
        ),
        turns=(),
        jig=(*jig, *vee(hole.leg, hole.radius, tool, show, key)),
        in_reach=not note,
        reach_note=note,
        scene=Scene(
            "two_sticks",
            off,
            "",
            "",
            (dials[0].at_square, dials[0].counts, dials[0].reach, setting.text) if dials else None,
            {
                "leg": f"leg {hole.leg}",
                "member": "the hole's line",
                "acute": hole.acute_side or "square",
                "angle": hole.read.quantity.text,
                "tool": tool.kind,
            },
        ),
        proofs=tuple(f"read.{rope.number}.{k + 1}" for k, h in enumerate(rope.holes) if h.leg in legs),
        checks=(rope.hole, rope.loop),
        cautions=(CRADLE if isinstance(tool, TiltingTable) else HAND,),
        parts=(f"member.{rope.number}",),
    )
