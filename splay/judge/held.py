"""What can go wrong where the top is held: screws that come through, hold nothing, or find no wood."""

from __future__ import annotations

from collections.abc import Iterator

from splay.judge.finding import Finding, found
from splay.judge.joints import POINT_MM, SCREW_ROOM_MM
from splay.piece import Piece
from splay.quantity import Show
from splay.quantity import degrees as deg
from splay.stance.holding import Fastening, carried, held_by
from splay.stance.hollow import thickness_at

LEAST_BITE_MM = 8.0
"""Less thread than this in the top holds little (common practice, no source)."""
LEAST_LEFT_MM = 4.0
"""Less wood than this beside a head let in splits (common practice, no source)."""


def held(piece: Piece, every: tuple[Fastening, ...], show: Show) -> Iterator[Finding]:
    """Of each support what is worst about the screws that hold the top, `every` one of the piece."""
    for index in range(len(piece.supports)):
        screw = held_by(piece, index)
        if screw is None:
            continue
        mine = [one for one in every if one.body.support == index]
        field = f"supports.{index}.held"
        if not mine:
            yield found(
                "held_nothing", "stop",
                "Nothing lies under the top that a screw could go through.",
                "Give this support a piece flush with the top, or leave the screws out.",
                show.length(screw.length), None, field,
            )  # fmt: skip
            continue
        yield from bare(piece, index, {one.into.key for one in mine}, field, show)
        yield from _depths(piece, mine, field, show)
        yield from _room(mine, field, show)


def bare(piece: Piece, index: int, under: set[str], field: str, show: Show) -> Iterator[Finding]:
    """What a support carries that none of its parts lies flat under: nothing holds that."""
    for own, into in carried(piece):
        if own == index and into.key not in under:
            yield found(
                "tread_loose", "stop", f"Nothing lies flat under the {into.name} that could hold it.",
                "Put a rail between the boards right under it, its drop nought.",
                show.length(into.down), None, field,
            )  # fmt: skip


def _depths(piece: Piece, mine: list[Fastening], field: str, show: Show) -> Iterator[Finding]:
    short = min(mine, key=lambda one: one.sunk)
    screw = short.screw
    if short.sunk < 0.0:
        yield found(
            "held_proud", "stop",
            f"The {short.into.name}'s screws are {show.length(-short.sunk).text} longer than what they "
            "go through and into: their heads stand out.",
            "Take shorter screws, or let them go deeper into it.",
            show.length(screw.length), show.length(screw.length + short.sunk), f"{field}.length",
        )  # fmt: skip
    if screw.bite >= screw.length:
        yield found(
            "held_loose", "stop", "The top's screws are to go into it with their whole length and more.",
            "Take longer screws, or let them in less deep.", show.length(screw.bite),
            show.length(screw.length), f"{field}.bite",
        )  # fmt: skip
    thin = min(mine, key=lambda one: _wood(piece, one) - one.reach)
    room = _wood(piece, thin) - POINT_MM
    if thin.reach > room:
        over = (thin.reach - room) / thin.way[2]
        yield found(
            "held_through", "stop",
            f"The {thin.into.name}'s screws reach {show.length(thin.reach).text} up into it: they come "
            "through, or nearly.",
            f"Let them {show.length(over).text} less far in: heads less deep, or shorter screws.",
            show.length(thin.reach), show.length(room), f"{field}.bite", (thin.at[0], thin.at[1]),
        )  # fmt: skip
    elif screw.bite < LEAST_BITE_MM:
        yield found(
            "held_short", "caution",
            f"The {thin.into.name}'s screws go only {show.length(screw.bite).text} into it.",
            "Let their heads in deeper, or take longer ones.", show.length(screw.bite),
            show.length(LEAST_BITE_MM), f"{field}.bite",
        )  # fmt: skip


def _wood(piece: Piece, one: Fastening) -> float:
    """The thickness of what it goes into, over a screw's point, mm."""
    x, y = one.at[0] + one.way[0] * one.screw.bite, one.at[1] + one.way[1] * one.screw.bite
    return one.into.thick or thickness_at(piece.top, (x, y))


def _room(mine: list[Fastening], field: str, show: Show) -> Iterator[Finding]:
    """Heads as wide as the part, holes near its end, a notch or a neighbour, slots wider than the part."""
    thin = min(mine, key=_left)
    if _left(thin) < LEAST_LEFT_MM:
        wide = thin.screw.head if thin.slot else thin.seat
        yield found(
            "held_splits", "caution",
            f"Heads let in {show.length(wide).text} wide leave the {thin.body.name} "
            f"{show.length(max(0.0, _left(thin))).text} of wood beside them.",
            "Take smaller heads or washers, less room to move, or a thicker part.",
            show.length(_left(thin)), show.length(LEAST_LEFT_MM), f"{field}.head",
        )  # fmt: skip
    near = min(mine, key=lambda one: one.beside)
    if near.beside < SCREW_ROOM_MM:
        yield found(
            "held_crowded", "caution",
            f"A screw of the {near.body.name} has {show.length(max(0.0, near.beside)).text} of wood to "
            "the next screw, the part's end or what is cut out of it.",
            "Take fewer screws, or set the outer ones elsewhere.", show.length(near.beside),
            show.length(SCREW_ROOM_MM), f"{field}.{'count' if near.screw.count > 2 else 'from_ends'}",
        )  # fmt: skip


def _left(one: Fastening) -> float:
    """Wood between a head's hole and the part's side, across the part, where the head sits, mm."""
    across = one.body.thickness if one.upper[0] else one.body.width
    # A pocket is nearer to the side it starts from, where it opens, and further from the other.
    aside = (one.through - one.sunk) * deg.sin(one.screw.slant) if one.slanted else 0.0
    return across / 2 + aside - (one.screw.head if one.slot else one.seat) / 2
