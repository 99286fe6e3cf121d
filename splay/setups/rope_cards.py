"""Set-up cards for the holes of a rope: right through each leg, halfway between both runs of the rope."""

from __future__ import annotations

from splay.parts.rope import RopeHole, RopePart
from splay.quantity import Show
from splay.setups.card import SetUp
from splay.setups.drills import boring_tools
from splay.setups.two_sticks import Into, placing, stick_cards, stick_marks
from splay.shop import Shop
from splay.work.does import Back, Bit, Plain
from splay.work.marks import Kind, Mark, leg_key, member_key
from splay.work.phrases import listed, with_the
from splay.work.proofs import proof_id

_EASE = "Round both mouths over well: a rope wears through on an edge."


def rope_cards(ropes: tuple[RopePart, ...], shop: Shop, show: Show) -> tuple[SetUp, ...]:
    """One card for each tool and each angle of hole."""
    tools = tuple(boring_tools(shop, "rope"))
    made: list[SetUp] = []
    for rope in ropes:
        groups: dict[tuple[object, ...], list[RopeHole]] = {}
        for hole in rope.holes:
            key = (round(hole.read.quantity.value, 4), round(hole.opening_on, 4), hole.acute_side)
            groups.setdefault(key, []).append(hole)
        for uses in groups.values():
            made += stick_cards(_set(rope, uses), tools, show)
    return tuple(made)


def hole_mark(rope: RopePart, hole: RopeHole) -> Mark:
    """The mark of a rope's hole on its leg."""
    which = f"{member_key(rope.number)}/{rope.holes.index(hole) + 1}"
    return Mark(Kind.SOCKET, leg_key(hole.leg), which, f"leg {hole.leg}'s mark for {with_the(rope.name)}")


def _set(rope: RopePart, uses: list[RopeHole]) -> Into:
    """What is bored at one setting, whatever the tool."""
    hole = uses[0]
    legs = tuple(sorted({use.leg for use in uses}))
    places = tuple(do for use in uses for do in placing(use, use.leg, 0, hole_mark(rope, use), ""))
    return Into(
        key=f"rope.{rope.id}.{rope.through[rope.holes.index(hole)]}",
        operation="bore_rope",
        kind="rope",
        title=f"Bore {listed([f'leg {leg}' for leg in legs])} for the {rope.name}",
        angle=hole.read,
        ends=tuple(uses),
        marks=tuple(hole_mark(rope, use) for use in uses),
        sight=(),
        leg=hole.leg,
        member=0,
        other="the hole's line",
        legs=legs,
        does=(*places, Bit(rope.hole.quantity, None, None), Back(), Plain(_EASE)),
        uses=tuple(mark for use in uses for mark in stick_marks(use.leg, 0, bool(use.face))),
        proofs=tuple(
            proof_id("read", rope.id, at)
            for at, h in zip(rope.through, rope.holes, strict=True)
            if h.leg in legs
        ),
        checks=(rope.hole, rope.loop),
        parts=(member_key(rope.number),),
    )
