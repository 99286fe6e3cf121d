"""What a piece needs of wood: each blank with what every operation asks for, and how its grain should
lie."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Annotated, Literal

import shapely
from shapely import affinity
from shapely.geometry.base import BaseGeometry

from splay.parts import LegPart
from splay.parts.stick import SAWING_MM, StickPart
from splay.piece import Piece, SlabLeg, Stretcher
from splay.plan import Plan
from splay.quantity import Quantity, Show, times
from splay.stance.outline import polygon
from splay.stance.slab_leg import edges_at, edges_down, end_of
from splay.timber.choices import WoodChoice
from splay.timber.sawing import Want
from splay.work.marks import UNSENT
from splay.work.phrases import cap, listed

Flat2 = tuple[float, float]


@dataclass(frozen=True)
class Allowance:
    """What is added for one operation, and why."""

    what: str
    amount: Quantity


@dataclass(frozen=True)
class Need:
    """So many blanks alike. `finished` and `blank` are length, width, thickness; `of` the ids of the parts
    they become; a `panel` is sawn out of a slab, a `strip` from boards; `layers` how many thinner ones a
    blank is glued up from. Bare `outline` and `holes` (x, y, radius) in the panel's own frame, mm, its long
    grain along x; `seam` where a slab leg is sawn off it; `live` where its edge is the tree's own; `least`
    the thinnest end that a leg made already can have (its tenon's), mm."""

    key: str
    name: str
    sort: Literal["strip", "panel"]
    role: Literal["leg", "stretcher", "stick", "board", "top"]
    count: int
    spare: int
    finished: tuple[Quantity, Quantity, Quantity]
    blank: tuple[Quantity, Quantity, Quantity]
    allowances: tuple[Allowance, ...]
    grain: str
    rings: str
    layers: int
    of: tuple[str, ...]
    turn: Annotated[bool, UNSENT] = False
    outline: Annotated[tuple[Flat2, ...], UNSENT] = ()
    holes: Annotated[tuple[tuple[float, float, float], ...], UNSENT] = ()
    seam: Annotated[tuple[tuple[Flat2, Flat2], ...], UNSENT] = ()
    live: Annotated[bool, UNSENT] = False
    least: Annotated[float, UNSENT] = 0.0

    @property
    def size(self) -> tuple[float, float, float]:
        """The blank, mm."""
        length, width, thickness = (one.value for one in self.blank)
        return length, width, thickness

    def want(self, species: str) -> Want:
        """What is asked of boards for it."""
        length, width, thickness = self.size
        layers = self.layers
        planed = self.finished[2].value
        each = thickness if layers == 1 else planed / layers + (thickness - planed)
        return Want(
            self.key,
            length,
            width,
            each,
            self.count * layers,
            planed / layers,
            self.turn and layers == 1,
            species,
        )

    def shape(self) -> shapely.Polygon:
        """A panel's blank seen from above, its middle at the origin."""
        return shapely.Polygon(self.outline)


STRAIGHT = (
    "Straight from end to end, sawn or riven along a split line: a leg breaks where its grain runs out. "
    "Its "
    "thick place goes where it enters the seat."
)
LEG_RINGS = "Rings as they come; all the legs of one piece alike. No knot in the upper third."
RUNG_RINGS = (
    "Turned so that the rings of its tenons stand across the leg's fibres: along the fibres the hole "
    "does not "
    "move, and that way the tenon then moves least."
)
SEAT_GRAIN = "Long grain as the seat is drawn: the wedges then push on end grain."
SEAT_RINGS = "Heart side up in one piece: its edges then drop as it dries, and no pith in it."
BOARD_RINGS = (
    "Rings turned up and down by turns keep it flat as a whole; all heart side up cups once, and battens "
    "or "
    "screws hold it. No glue line near a leg hole."
)
STICK_GRAIN = "Straight, the rings across its narrower way where a mitre or tenon is cut in it."


def needs_of(piece: Piece, plan: Plan, choice: WoodChoice, show: Show) -> tuple[Need, ...]:
    """Every blank of a piece, for as many of it as are made, the seat first."""
    return (
        *_top(piece, plan, choice, show),
        *_legs(piece, plan, choice, show),
        *_sticks(piece, plan, choice, show),
        *_members(piece, plan, choice, show),
    )


def _need(
    key: str,
    name: str,
    role: Literal["leg", "stretcher", "stick", "board", "top"],
    count: int,
    finished: tuple[float, float, float],
    longer: list[tuple[str, float]],
    choice: WoodChoice,
    show: Show,
    words: tuple[str, str],
    of: tuple[str, ...],
    spare: int = 0,
    turn: bool = False,
    joints: bool = False,
    least: float = 0.0,
) -> Need:
    """A strip with its allowances: what is `longer`, planing on width and thickness. The edges of boards to
    be glued are jointed: that much more again."""
    wider = choice.planing * (2 if joints else 1)
    layers = choice.layers_of(key)
    length, width, thickness = finished
    blank = (length + sum(mm for _, mm in longer), width + wider, thickness + choice.planing)
    planing = [("planing its width" if not joints else "jointing and planing its edges", wider)]
    planing.append(("planing its thickness", choice.planing))
    if layers > 1:
        planing.append((f"planing each of {layers} layers", choice.planing))
    return Need(
        key,
        name,
        "strip",
        role,
        count,
        spare,
        _three(finished, show),
        _three(blank, show),
        tuple(Allowance(what, show.length(mm)) for what, mm in (*longer, *planing) if mm > 0.0),
        *words,
        layers,
        of,
        turn,
        least=least,
    )


def _three(sizes: tuple[float, float, float], show: Show) -> tuple[Quantity, Quantity, Quantity]:
    a, b, c = (show.length(mm) for mm in sizes)
    return a, b, c


def _legs(piece: Piece, plan: Plan, choice: WoodChoice, show: Show) -> Iterator[Need]:
    for index, support in piece.staked():
        # Legs that lie there already, shaped, want no blanks.
        if support.leg.sticks:
            continue
        mine = [part for part in plan.parts if part.support == index]
        for k, alike in enumerate(_nearly(mine)):
            size = alike[0].blank.quantity.value
            spare = support.leg.spare + support.leg.practice if k == 0 else 0
            square = alike[0].stock.quantity.value
            ids = tuple(part.id for part in alike)
            finished = max(part.finished.quantity.value for part in alike)
            longer = [
                ("trimming level and the slant of the foot", size - finished),
                ("sawing both ends", SAWING_MM),
            ]
            numbers = sorted(part.number for part in alike)
            yield _need(
                f"legs.{support.id}.{k}",
                listed(f"leg {number}" for number in numbers),
                "leg",
                len(alike) * piece.make + spare,
                (finished, square, square),
                longer,
                choice,
                show,
                (STRAIGHT, LEG_RINGS),
                ids,
                spare,
                least=max(leg.bore.size for leg in plan.stance.legs if leg.support == index),
            )


NEARLY_MM = 4.0
"""Legs whose blanks differ by less are sawn to the longest of them (common practice, no source)."""


def _nearly(parts: list[LegPart]) -> list[list[LegPart]]:
    """Legs by the length of their blanks, the longest first, those nearly alike together."""
    groups: list[list[LegPart]] = []
    for part in sorted(parts, key=lambda one: -one.blank.quantity.value):
        if groups and groups[-1][0].blank.quantity.value - part.blank.quantity.value < NEARLY_MM:
            groups[-1].append(part)
        else:
            groups.append([part])
    return groups


def _sticks(piece: Piece, plan: Plan, choice: WoodChoice, show: Show) -> Iterator[Need]:
    by_alike: dict[str, list[StickPart]] = {}
    for stick in plan.sticks:
        # A slab leg comes out of the same slab as the top: it is part of that.
        if stick.role in ("slab", "slab_leg"):
            continue
        by_alike.setdefault(stick.alike, []).append(stick)
    for alike, sticks in by_alike.items():
        first = sticks[0]
        wide, thick = (figure.quantity.value for figure in first.stock)
        overall = max(one.overall.quantity.value for one in sticks)
        blank = max(one.blank.quantity.value for one in sticks)
        longer = [("trimming level", blank - overall - SAWING_MM), ("sawing both ends", SAWING_MM)]
        names = sticks[0].name if len(sticks) == 1 else f"{sticks[0].name} and its like"
        yield _need(
            f"stick.{alike}",
            names,
            "stick",
            len(sticks) * piece.make,
            (overall, wide, thick),
            longer,
            choice,
            show,
            (STICK_GRAIN, ""),
            tuple(one.key for one in sticks),
            turn=first.role in ("cross", "rail", "link", "leg", "apron"),
        )


def _members(piece: Piece, plan: Plan, choice: WoodChoice, show: Show) -> Iterator[Need]:
    groups: dict[tuple[float, float], list[tuple[str, str]]] = {}
    chosen = {member.id: member for member in piece.members}
    for part in plan.members:
        member = chosen[part.id]
        if isinstance(member, Stretcher):
            thick = max(member.diameter, member.tenon)
            key = (round(max(part.total.quantity.value, part.planned_total.quantity.value), 1), thick)
            groups.setdefault(key, []).append((part.id, part.name))
    for (length, thick), those in groups.items():
        name = those[0][1] if len(those) == 1 else " and ".join(name for _, name in those)
        yield _need(
            f"member.{those[0][0]}",
            name,
            "stretcher",
            len(those) * piece.make,
            (length, thick, thick),
            [("sawing both ends", SAWING_MM)],
            choice,
            show,
            ("Straight, along a split line.", RUNG_RINGS),
            tuple(id for id, _ in those),
        )


def _top(piece: Piece, plan: Plan, choice: WoodChoice, show: Show) -> Iterator[Need]:
    top = piece.top
    turned = affinity.rotate(polygon(top.outline), -top.grain, origin=(0, 0))
    low_x, _low_y, high_x, _high_y = turned.bounds
    what = "tabletop" if piece.use == "table" else "seat"
    if top.boards:
        widths: dict[float, int] = {}
        for width in top.boards:
            widths[width] = widths.get(width, 0) + 1
        for width, many in widths.items():
            yield _need(
                f"top.board.{width:g}",
                f"board{'s' * (many > 1)} of the {what}, {show.length(width).text} wide",
                "board",
                many * piece.make,
                (high_x - low_x, width, top.bored_thick),
                [("sawing both ends", SAWING_MM)],
                choice,
                show,
                (SEAT_GRAIN, BOARD_RINGS),
                ("top",),
                joints=True,
            )
        return
    # A slab leg stands at an end of the top as it is drawn: it is set there before the grain is laid along.
    outline: BaseGeometry = polygon(top.outline)
    _left, front, _right, back = outline.bounds
    seams: list[BaseGeometry] = []
    name = what
    for stick, support in _slab_legs(piece, plan):
        # Sawn off the same strip, beside the top: on the show face only a kerf is lost between them.
        more = stick.blank.quantity.value
        sign = -1.0 if support.end == "left" else 1.0
        edge = end_of(piece, support)[0]
        outline = outline.union(_leg_below(piece, support, edge, sign, choice.kerf, more))
        at = edge + sign * choice.kerf / 2.0
        seams.append(shapely.LineString([(at, front), (at, back)]))
        name += f" and the {stick.name} turned down from it"
    outline = affinity.rotate(outline, -top.grain, origin=(0, 0))
    margin = 0.0 if top.bark else choice.margin
    blank = outline if margin == 0.0 else outline.buffer(margin, join_style="mitre", mitre_limit=2.0)
    a, b, c, d = blank.bounds
    middle = ((a + c) / 2.0, (b + d) / 2.0)
    shifted = affinity.translate(blank, -middle[0], -middle[1])
    holes = []
    for leg in plan.stance.legs:
        place = affinity.rotate(shapely.Point(leg.socket[0], leg.socket[1]), -top.grain, origin=(0, 0))
        holes.append((place.x - middle[0], place.y - middle[1], leg.bore.size / 2.0))
    e, f, g, h = outline.bounds
    allowances = [Allowance("sawing out, all round", show.length(margin))] if margin else []
    planing = 0.0 if top.bark else choice.planing
    if planing:
        allowances.append(Allowance("flattening both faces", show.length(planing)))
    if top.left_on:
        allowances.append(Allowance("left on until the legs' holes are bored", show.length(top.left_on)))
        planing += top.left_on
    yield Need(
        "top",
        name,
        "panel",
        "top",
        piece.make,
        0,
        _three((g - e, h - f, top.thickness), show),
        _three((c - a, d - b, top.thickness + planing), show),
        tuple(allowances),
        SEAT_GRAIN,
        SEAT_RINGS,
        1,
        ("top",),
        False,
        tuple((round(x, 3), round(y, 3)) for x, y in _thinned(shifted)),
        tuple(holes),
        tuple(_ends(seam, top.grain, middle) for seam in seams),
        top.bark,
    )


def _leg_below(
    piece: Piece, support: SlabLeg, edge: float, sign: float, kerf: float, more: float
) -> shapely.Polygon:
    """What a slab leg takes of the slab beyond the top's end, its edges where they are drawn."""
    every = edges_down(piece, support)
    runs = [*(one for one in every if one[0] < more), (more, *edges_at(every, more))]
    near = [(edge, runs[0][1]), *((edge + sign * (kerf + d), low) for d, low, _ in runs)]
    far = [(edge, runs[0][2]), *((edge + sign * (kerf + d), high) for d, _, high in runs)]
    return shapely.Polygon([*near, *reversed(far)])


def _slab_legs(piece: Piece, plan: Plan) -> Iterator[tuple[StickPart, SlabLeg]]:
    for stick in plan.sticks:
        support = piece.supports[stick.support]
        if stick.role == "slab_leg" and isinstance(support, SlabLeg):
            yield stick, support


def _ends(seam: BaseGeometry, grain: float, middle: Flat2) -> tuple[Flat2, Flat2]:
    turned = affinity.translate(affinity.rotate(seam, -grain, origin=(0, 0)), -middle[0], -middle[1])
    (a, b), (c, d) = turned.coords
    return (a, b), (c, d)


OUTLINE_OFF = 0.2
"""How far a panel's outline may lie off its curve, mm: it is sawn out with a margin."""


def _thinned(shape: BaseGeometry) -> list[Flat2]:
    thin = shapely.simplify(shape, OUTLINE_OFF)
    assert isinstance(thin, shapely.Polygon)
    return [(x, y) for x, y in thin.exterior.coords[:-1]]


def litres(needs: tuple[Need, ...]) -> float:
    """The wood of all blanks together, litres."""
    return math.fsum(math.prod(need.size) * need.count for need in needs) / 1e6


def said(need: Need) -> str:
    """A need in a line: how many of what size."""
    return f"{cap(need.name)}: {need.count} of {times(need.blank)}"
