"""draw(): every drawing of a planned piece, from the plan's own geometry."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from splay.piece import Piece
from splay.plan import Plan
from splay.quantity import Show
from splay.setups.groups import boring_groups, foot_groups
from splay.shop import Shop
from splay.stance.staked import Stance
from splay.views.details import leg_view, section_view
from splay.views.pictures import picture
from splay.views.piece_views import piece_view
from splay.views.scene import Model
from splay.views.shapes import View

Station = Literal["rack", "stance", "boring", "legs", "all"]
_VIEWS: dict[Station, tuple[str, ...]] = {
    "rack": ("quarter",),
    "stance": ("front", "side", "plan"),
    "boring": ("underside",),
    "legs": (),
    "all": ("front", "side", "plan", "underside", "quarter"),
}


@dataclass(frozen=True)
class Drawings:
    """`piece`: the views asked for; `sections` and `legs`, one a group of legs; `pictures`, one
    a set-up card, by the card's id."""

    piece: tuple[View, ...]
    sections: tuple[View, ...]
    legs: tuple[View, ...]
    pictures: dict[str, View]


def draw(piece: Piece, shop: Shop, plan: Plan, station: Station = "all") -> Drawings:
    """The drawings one station shows, of a plan made for `piece` in `shop`."""
    show = Show(shop.rounding.units())
    stance, parts, sockets = plan.stance, plan.parts, plan.sockets
    views = _VIEWS[station]
    model = Model(piece, stance, parts, sockets, show, plan.findings) if views else None
    return Drawings(
        piece=tuple(piece_view(model, name) for name in views) if model else (),
        sections=tuple(
            section_view(piece, group, sockets[group.first.number - 1], show)
            for group in boring_groups(stance)
        )
        if station in ("boring", "all")
        else (),
        legs=tuple(
            leg_view(piece, group, parts[group.first.number - 1], show)
            for group in foot_groups(stance, _lengths(stance))
        )
        if station in ("legs", "all")
        else (),
        pictures={
            card.id: picture(card.scene, card.tool)
            for card in plan.setups
            if station in (card.station, "all")
        },
    )


def _lengths(stance: Stance) -> dict[int, tuple[float, ...]]:
    """What must agree for two legs to be drawn as one."""
    return {leg.number: (round(leg.exposed, 4), round(leg.standing.resultant, 6)) for leg in stance.legs}
