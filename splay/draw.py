"""draw(): every drawing of a planned piece, from the plan's own geometry."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Literal

from splay.opened import Opened, open_cards, open_parts, open_step
from splay.piece import Piece
from splay.plan import Plan
from splay.quantity import Show
from splay.setups.groups import boring_groups, foot_groups
from splay.shop import Shop
from splay.stance.staked import Stance
from splay.views.details import leg_view, section_view
from splay.views.layout_view import layout_views
from splay.views.leg_rings import necks_of
from splay.views.level_view import level_views
from splay.views.marks_view import marks_views
from splay.views.mesh import Mesh, meshes
from splay.views.pictures import picture
from splay.views.piece_views import faces_up, piece_view
from splay.views.scene import Model
from splay.views.shapes import View, tidy
from splay.views.stick_view import stick_view

Station = Literal[
    "rack", "stance", "top", "boring", "legs", "stretchers", "level", "solid", "all"
]  # fmt: skip
_VIEWS: dict[Station, tuple[str, ...]] = {
    "rack": ("quarter",),
    "stance": ("front", "side", "plan"),
    "top": (),
    "boring": ("underside", "upper"),
    "legs": (),
    "stretchers": ("front", "side"),
    "level": (),
    "solid": (),
    "all": ("front", "side", "plan", "underside", "upper", "quarter"),
}


@dataclass(frozen=True)
class Drawings:
    """`piece`: the views asked for; `sections` and `legs`, one a group of legs; `layout`, one a
    step of the marking-out; `sticks`, one a part of square stock;
    `marks`, what to write on each leg and stretcher; `pictures`, one a set-up card,
    by the card's id; `meshes`, the solids of the turnable view."""

    piece: tuple[View, ...]
    sections: tuple[View, ...]
    legs: tuple[View, ...]
    layout: tuple[View, ...]
    sticks: tuple[View, ...]
    marks: tuple[View, ...]
    pictures: dict[str, View]
    meshes: tuple[Mesh, ...]


def draw(
    piece: Piece,
    shop: Shop,
    plan: Plan,
    station: Station = "all",
    along: float | None = None,
    exaggerate: float = 1.0,
    opened: Opened | None = None,
) -> Drawings:
    """The drawings one station shows, of a plan made for `piece` in `shop`; of its cards, steps and parts
    those that are `opened`, all of them where nothing is said.

    `along` asks for one more view of the stance, looking in along that bearing, degrees;
    `exaggerate` multiplies how unlike the feet are at Level.
    """
    show = Show(shop.rounding.units())
    stance, parts, sockets = plan.stance, plan.parts, plan.sockets
    views = _VIEWS[station]
    parts_open = open_parts(plan, station, opened)
    if along is not None and station == "stance":
        views = (*views, "sight")
    runs, ropes = plan.made.runs, plan.made.lines
    not_up = {"underside", "upper"} - set(faces_up(piece, stance))
    solid = station in ("solid", "all")
    model = None
    necks = necks_of(plan.made) if stance.legs else {}
    if views or solid:
        model = Model(piece, stance, parts, sockets, show, plan.findings, runs, ropes, necks, plan.made)
    return Drawings(
        piece=(
            *(piece_view(model, name, along) for name in views if model and name not in not_up),
            *(_level(piece, plan, show, exaggerate) if station in ("level", "all") else ()),
        ),
        sections=tuple(
            section_view(piece, group, sockets[group.first.number - 1], show, necks)
            for group in boring_groups(stance)
        )
        if station in ("boring", "all")
        else (),
        legs=tuple(
            leg_view(piece, group, parts[group.first.number - 1], show, necks)
            for group in foot_groups(stance, _lengths(stance))
        )
        if station in ("legs", "all")
        else (),
        layout=layout_views(piece, plan.layout, open_step(len(plan.layout.steps), opened))
        if station in ("top", "all")
        else (),
        sticks=tuple(
            stick_view(body, part)
            for body, part in zip(stance.bodies, plan.sticks, strict=True)
            if part.key in parts_open
        ),
        marks=marks_views(piece, stance, parts, plan.members, runs)
        if station in ("stretchers", "all") and (opened is None or opened.more)
        else (),
        meshes=meshes(model) if model is not None and solid else (),
        pictures={card.id: picture(card.scene, card.tool) for card in open_cards(plan, station, opened)},
    )


def tidied(made: Drawings) -> Drawings:
    """Drawings as they go out, to the hundredth of a millimetre; those of the whole piece are that already,
    as far as it counts."""
    return replace(
        made,
        sections=tuple(map(tidy, made.sections)),
        legs=tuple(map(tidy, made.legs)),
        layout=tuple(map(tidy, made.layout)),
        sticks=tuple(map(tidy, made.sticks)),
        marks=tuple(map(tidy, made.marks)),
        pictures={key: tidy(view) for key, view in made.pictures.items()},
    )


def _level(piece: Piece, plan: Plan, show: Show, exaggerate: float) -> tuple[View, ...]:
    """The last pass of levelling; none of a piece without feet."""
    if not plan.states:
        return ()
    return level_views(piece, plan.stance, plan.states[-1], plan.level[-1], exaggerate, show)


def _lengths(stance: Stance) -> dict[int, tuple[float, ...]]:
    """What must agree for two legs to be drawn as one."""
    return {leg.number: (round(leg.exposed, 4), round(leg.standing.resultant, 6)) for leg in stance.legs}
