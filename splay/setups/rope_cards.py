"""Set-up cards for the holes of a rope: right through each leg, halfway between both runs of the rope."""

from __future__ import annotations

from splay.parts.member import RopeHole, RopePart
from splay.quantity import Figure, Show
from splay.setups.card import SetUp
from splay.setups.two_sticks import TOOLS, Into, boring_card, listed, marked
from splay.shop import OppositeLeg, Shop, Tool

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
    legs = tuple(sorted({use.leg for use, _ in uses}))
    marks = marked([(f"leg {use.leg}", down, use.turn) for use, down in uses])
    bore = Into(
        key=f"rope.{rope.number}.{hole.leg}",
        operation="bore_rope",
        title=f"Bore {listed([f'leg {leg}' for leg in legs])} for the {rope.name}",
        angle=hole.read,
        acute_side=hole.acute_side,
        stick=f"leg {hole.leg}",
        leg=hole.leg,
        radius=hole.radius,
        other="the hole's line",
        legs=legs,
        steps=(
            f"Mark where it goes in: {marks} (from the sightline mark, seen from the top); it comes out "
            "straight across.",
            f"Bit {rope.hole.quantity.text}, right through, scrap held behind.",
            _EASE,
        ),
        proofs=tuple(f"read.{rope.number}.{k + 1}" for k, h in enumerate(rope.holes) if h.leg in legs),
        checks=(rope.hole, rope.loop),
        parts=(f"member.{rope.number}",),
    )
    return boring_card(bore, tool, index, show)
