"""What can go wrong where buttons hold the top: grooves that break out, tongues that slip out."""

from __future__ import annotations

import math
from collections.abc import Iterator

from splay.judge.finding import Finding, found
from splay.judge.held import bare
from splay.judge.joints import POINT_MM
from splay.piece import Piece
from splay.quantity import Show
from splay.stance.buttons import Grooved, buttons_by
from splay.stance.hollow import thickness_at
from splay.stance.side_taper import cross_section, point, side_plane

LEAST_WALL_MM = 8.0
"""Less wood than this over a groove breaks out when the button pulls (common practice, no source)."""
LEAST_HELD_MM = 3.0
"""Less of a tongue than this in its groove may slip out (common practice, no source)."""


def buttons(piece: Piece, every: tuple[Grooved, ...], show: Show) -> Iterator[Finding]:
    """Of each support what is worst about its buttons, `every` groove one of the piece."""
    for index in range(len(piece.supports)):
        chosen = buttons_by(piece, index)
        if chosen is None:
            continue
        field = f"supports.{index}.held"
        mine = [one for one in every if one.body.support == index]
        if not mine:
            yield found(
                "held_nothing", "stop", "Nothing lies under the top that could be grooved for buttons.",
                "Give this support a piece flush with the top, or leave the buttons out.",
                show.length(chosen.groove), None, field,
            )  # fmt: skip
            continue
        yield from bare(piece, index, {one.into.key for one in mine}, field, show)
        loose = min(mine, key=lambda one: one.held)
        if loose.held < LEAST_HELD_MM:
            more = LEAST_HELD_MM - loose.held
            yield found(
                "button_slips", "stop",
                f"When the top has moved, {show.length(max(0.0, loose.held)).text} of a button's tongue is "
                f"left in the groove of the {loose.body.name}.",
                f"Make the groove {show.length(more).text} deeper, or give the top less room to move.",
                show.length(loose.held), show.length(LEAST_HELD_MM), f"{field}.deep",
            )  # fmt: skip
        yield from _wood(mine, field, show)
        yield from _through(piece, mine, field, show)


def _wood(mine: list[Grooved], field: str, show: Show) -> Iterator[Finding]:
    """What a groove leaves of its part: over it, behind it, below it."""
    chosen = mine[0].chosen
    if chosen.drop < LEAST_WALL_MM:
        yield found(
            "groove_high", "caution",
            f"The groove leaves {show.length(chosen.drop).text} of wood over it: a button breaks that out.",
            f"Set it {show.length(LEAST_WALL_MM - chosen.drop).text} further down.",
            show.length(chosen.drop), show.length(LEAST_WALL_MM), f"{field}.drop",
        )  # fmt: skip
    thin = min(mine, key=lambda one: _across(one) / one.square)
    if thin.square > _across(thin) / 2.0:
        yield found(
            "groove_deep", "caution",
            f"The groove goes {show.length(thin.square).text} into the {thin.body.name}, which is "
            f"{show.length(_across(thin)).text} thick.",
            f"Make it {show.length(thin.square - _across(thin) / 2.0).text} less deep, or give the top "
            "less room to move.",
            show.length(thin.square), show.length(_across(thin) / 2.0), f"{field}.deep",
        )  # fmt: skip
    low = min(mine, key=lambda one: _tall(one) - one.edge - one.mouth)
    let = [one for one in mine if one.lap and one.begins < one.lap + POINT_MM]
    if let:
        yield found(
            "groove_lap", "stop",
            f"The groove of the {let[0].body.name} runs into what is let in in its middle.",
            "Take an even number of buttons, nearer to the ends.",
            show.length(let[0].begins), show.length(let[0].lap + POINT_MM), f"{field}.count",
        )  # fmt: skip
    left = _tall(low) - low.edge - low.mouth
    if left < POINT_MM:
        yield found(
            "groove_low", "stop",
            f"The groove leaves {show.length(max(0.0, left)).text} of the {low.body.name} below it.",
            "Set it nearer to the top, or make it less wide.",
            show.length(left), show.length(POINT_MM), f"{field}.drop",
        )  # fmt: skip


def _across(one: Grooved) -> float:
    """The part's thickness behind the grooved side, mm."""
    return one.body.width if one.entry[0] else one.body.thickness


def _tall(one: Grooved) -> float:
    """The grooved side from edge to edge, mm."""
    side, lower = one.entry, (-one.upper[0], -one.upper[1])
    ends = (
        point(side_plane(one.body, side), side_plane(one.body, other), cross_section(0.0))
        for other in (one.upper, lower)
    )
    return math.dist(*ends) - (one.body.sweep.rise if one.body.sweep is not None else 0.0)


def _through(piece: Piece, mine: list[Grooved], field: str, show: Show) -> Iterator[Finding]:
    spots = [(one.into, (each.at[0], each.at[1])) for one in mine for each in one.buttons]
    wood = [(into.thick or thickness_at(piece.top, at), into.name, at) for into, at in spots]
    least, named, thin = min(wood)
    room, bite = least - POINT_MM, mine[0].chosen.bite
    if bite > room:
        yield found(
            "held_through", "stop",
            f"The buttons' screws reach {show.length(bite).text} up into the {named}: they come through, "
            "or nearly.",
            f"Let them {show.length(bite - room).text} less far in.",
            show.length(bite), show.length(room), f"{field}.bite", thin,
        )  # fmt: skip
