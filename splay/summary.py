"""The figures the Stance station shows: leans, sizes over all, and the choices as read back."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass
from functools import lru_cache
from itertools import pairwise
from typing import get_args

from pydantic import BaseModel

from splay.document import Angle, Length
from splay.parts import LegPart
from splay.parts.reused import Trim, from_hole
from splay.piece import Piece, StakedLegs
from splay.quantity import Figure, Quantity, Show
from splay.quantity import degrees as deg
from splay.setups.groups import toward
from splay.stance.aim import foot_reach
from splay.stance.contacts import on_floor
from splay.stance.lean import LeanAngles
from splay.stance.members import sitting_point
from splay.stance.outline import extent
from splay.stance.staked import LegStance, Stance, spec_index, support_of


@dataclass(frozen=True)
class LeanFigures:
    """One lean in all its names; the sightline from both lines, None where there is none."""

    splay: Quantity
    rake: Quantity
    resultant: Figure
    from_side: Figure | None
    from_centre: Figure | None
    toward: str


@dataclass(frozen=True)
class LegFigures:
    """One leg's lean off the top (`boring`) and how far it is off plumb (`standing`), its socket (x, y) and
    where its foot stands; `index` its place in what its support keeps one of a leg, `angle` which of the
    support's angles serves it, `sightline` the bearing it leans along, degrees."""

    id: str
    number: int
    index: int
    support: int
    angle: int
    place: tuple[Quantity, Quantity]
    foot: tuple[Quantity, Quantity]
    boring: LeanFigures
    standing: Figure
    measured: bool
    sightline: float | None


@dataclass(frozen=True)
class Look:
    """A direction worth looking along at the whole: its bearing, degrees, and what it is called."""

    along: float
    title: str


@dataclass(frozen=True)
class Size:
    """One size over all."""

    figure: Figure


def lean_figures(lean: LeanAngles, key: str, outward: tuple[float, float], show: Show) -> LeanFigures:
    """A lean for showing: splay and rake positive outward."""
    s, r = lean.splay * outward[0], lean.rake * outward[1]
    inputs = (show.input("s", "splay", s, "deg"), show.input("r", "rake", r, "deg"))
    side = centre = None
    if lean.from_side is not None and lean.from_centre is not None:
        side = show.figure(
            f"{key}.from_side",
            "Sightline from the left-right line",
            lean.from_side,
            "tan a = |tan r / tan s|",
            *inputs,
            unit="deg",
            note="the line joining a pair of legs, side to side",
        )
        centre = show.figure(
            f"{key}.from_centre",
            "Sightline from the front-back line",
            lean.from_centre,
            "90° − a",
            show.input("a", "from the left-right line", lean.from_side, "deg"),
            unit="deg",
            note="the line from front to back",
        )
    return LeanFigures(
        splay=show.typed_angle(s),
        rake=show.typed_angle(r),
        resultant=show.figure(
            f"{key}.resultant",
            "Resultant, the true lean",
            lean.resultant,
            "tan² ρ = tan² s + tan² r",
            *inputs,
            unit="deg",
        ),
        from_side=side,
        from_centre=centre,
        toward=toward(lean),
    )


def leg_figures(piece: Piece, leg: LegStance, show: Show) -> LegFigures:
    """One leg's line of the Stance station."""
    outward = tuple(-1.0 if at < -1e-6 else 1.0 for at in leg.socket[:2])
    out = (outward[0], outward[1])
    key = f"lean.{leg.number}"
    return LegFigures(
        id=leg.id,
        number=leg.number,
        index=leg.index,
        support=leg.support,
        angle=spec_index(support_of(piece, leg), leg.index, leg.pair),
        place=(show.length(leg.socket[0]), show.length(leg.socket[1])),
        foot=(show.length(leg.foot_floor[0]), show.length(leg.foot_floor[1])),
        boring=lean_figures(leg.boring, key, out, show),
        standing=lean_figures(leg.standing, f"{key}.floor", out, show).resultant,
        measured=leg.measured,
        sightline=leg.boring.bearing,
    )


MOST_LOOKS = 4
CORNER = Look(315.0, "from the front right corner")


def looks(stance: Stance) -> tuple[Look, ...]:
    """Along the sightlines of the legs, each direction once, a few of them; over a corner where there are
    none."""
    found: dict[int, Look] = {}
    for leg in stance.legs:
        bearing = leg.boring.bearing
        if bearing is not None and len(found) < MOST_LOOKS:
            found.setdefault(round(bearing), Look(bearing, f"along leg {leg.number}'s sightline"))
    return tuple(found.values()) or (CORNER,)


def numbering(stance: Stance) -> str:
    """How the legs are numbered, in words: where leg 1 stands, and which way round from there."""
    legs = stance.legs
    if not legs:
        return ""
    first = f"Leg 1 stands at the {_corner(legs[0])}"
    turns = [deg.atan2(leg.socket[1], leg.socket[0]) for leg in legs]
    steps = [(b - a) % 360.0 for a, b in pairwise((*turns, turns[0]))]
    if len(legs) == 1:
        return f"{first}."
    if len(legs) > 2 and abs(sum(steps) - 360.0) < 1e-6:
        return f"{first}; the numbers run round from there, anticlockwise seen from above."
    rest = "; ".join(f"{leg.number} at the {_corner(leg)}" for leg in legs[1:])
    return f"{first}; {rest}."


def _corner(leg: LegStance) -> str:
    """Where a leg stands, by the words on the seat."""
    x, y = leg.socket[:2]
    words = (
        ("BACK" if y > 0 else "FRONT") if abs(y) > _ON_LINE_MM else "",
        ("RIGHT" if x > 0 else "LEFT") if abs(x) > _ON_LINE_MM else "",
    )
    return " ".join(word for word in words if word) or "middle"


_ON_LINE_MM = 0.5
"""A leg this near a middle line stands on it, as it is said."""


@dataclass(frozen=True)
class Batch:
    """How many legs to make of one set: those in all the pieces that are made, spare and practice ones.

    For legs measured one by one: the shortest's length, how high the piece can stand with it,
    and what comes off each of the others at the foot.
    """

    support: int
    legs: tuple[int, ...]
    make: Figure
    shortest: Figure | None
    cut_off: tuple[Figure, ...]


def batches(
    piece: Piece, parts: tuple[LegPart, ...], trimmed: tuple[Trim, ...], show: Show
) -> tuple[Batch, ...]:
    """The counts of every set of legs; shaped or reused sticks against what is wanted of them."""
    made = []
    for index, support in piece.staked():
        mine = [part for part in parts if part.support == index]
        leg = support.leg
        count = show.figure(
            f"batch.{index}.make",
            "Legs to make",
            len(mine) * piece.make + leg.spare + leg.practice,
            "in a piece × how many are made + spare + practice",
            show.input("n", "in a piece", len(mine), "count"),
            show.input("×", "how many are made", piece.make, "count"),
            show.input("s", "spare", leg.spare, "count"),
            show.input("p", "practice", leg.practice, "count"),
            unit="count",
        )
        tops = {one.index: one for one in trimmed if one.support == index}
        shortest, off = _sticks(index, support, mine, tops, show)
        made.append(Batch(index, tuple(p.number for p in mine), count, shortest, off))
    return tuple(made)


def counted(key: str, label: str, parts: int, piece: Piece, show: Show) -> Figure:
    """How many parts of one sort to make for all the pieces that are made."""
    return show.figure(
        f"count.{key}",
        label,
        parts * piece.make,
        "in a piece × how many are made",
        show.input("n", "in a piece", parts, "count"),
        show.input("×", "how many are made", piece.make, "count"),
        unit="count",
    )


def _sticks(
    index: int, support: StakedLegs, mine: list[LegPart], tops: Mapping[int, Trim], show: Show
) -> tuple[Figure | None, tuple[Figure, ...]]:
    """The shortest stick sets the reference: what the longest leg wants, against what it has."""
    sticks = support.leg.sticks
    if not sticks or not mine:
        return None, ()
    wanted = max(part.finished.quantity.value + part.cut.below for part in mine)
    least = min(stick.length for stick in sticks)
    spare = show.figure(
        f"batch.{index}.shortest",
        "Shortest stick over what is wanted",
        least - wanted,
        "l − F",
        show.input("l", "shortest stick", least),
        show.input("F", "wanted, longest side", wanted),
        note="with a minus: lower the height by about that much, or find a longer stick",
    )
    off: list[Figure] = []
    for k, stick in enumerate(sticks):
        key = f"batch.{index}.stick.{k + 1}"
        top = tops[k].top if k in tops else 0.0
        named = f"Stick {k + 1}{': ' + stick.note if stick.note else ''}"
        told = [
            show.input("l", "this stick", stick.length),
            show.input("F", "wanted, longest side", wanted),
        ]
        if top:
            off.append(from_hole(tops[k], f"{key}.top", f"{named}, off its upper end first", show))
            told.append(show.input("u", "off its upper end", top))
        formula = "l − F − u" if top else "l − F"
        off.append(show.figure(key, f"{named}, off its foot", stick.length - wanted - top, formula, *told))
    return spare, tuple(off)


def sizes(piece: Piece, stance: Stance, show: Show) -> tuple[Size, ...]:
    """Over the outsides of the feet, and the top for comparison; where one sits in a hollow."""
    made = []
    a, b = extent(piece.top.outline)
    stood = [p for body in stance.bodies if body.stands for p in on_floor(body, stance.floor)]
    for axis, name, top in ((0, "side to side", a), (1, "front to back", b)):
        low, high = math.inf, -math.inf
        u = (1.0, 0.0) if axis == 0 else (0.0, 1.0)
        for leg in stance.legs:
            shape, back = support_of(piece, leg).leg, (-u[0], -u[1])
            near = foot_reach(shape, leg.d, stance.floor, back, leg.exposed)
            far = foot_reach(shape, leg.d, stance.floor, u, leg.exposed)
            low = min(low, leg.foot_floor[axis] - near)
            high = max(high, leg.foot_floor[axis] + far)
        low = min([low, *(p[axis] for p in stood)])
        high = max([high, *(p[axis] for p in stood)])
        if low > high:
            continue
        made.append(
            Size(
                show.figure(
                    f"size.{axis}",
                    f"Feet over all, {name}",
                    high - low,
                    "outer edge − opposite edge",
                    show.input("+", "outer edge", high),
                    show.input("−", "opposite edge", low),
                    show.input("top", "the top itself", 2 * top),
                )
            )
        )
    if piece.underfoot is not None:
        made.append(
            Size(
                show.figure(
                    "size.bare",
                    "High on its sawn feet",
                    piece.stands,
                    "h − u",
                    show.input("h", "height wanted", piece.height),
                    show.input("u", "under the feet", piece.underfoot.thickness),
                    note="what levelling goes by: the rest is put under afterwards",
                )
            )
        )
    if piece.top.hollow is not None:
        seat = stance.floor.to_floor(sitting_point(piece))[2]
        made.append(
            Size(
                show.figure(
                    "size.seat",
                    "Sitting point, in the hollow",
                    seat + piece.height - piece.stands,
                    "h − g · cos φ",
                    show.input("h", "height before it is hollowed", piece.height),
                    show.input("g", "depth of the hollow", piece.top.hollow.depth),
                    show.input("φ", "fall of the top", stance.floor.fall_deg, "deg"),
                )
            )
        )
    return tuple(made)


def chosen(document: BaseModel, show: Show) -> dict[str, Quantity]:
    """Every length and angle of a document by its path, as the maker reads it."""
    found: dict[str, Quantity] = {}
    _walk(document, "", found, show)
    return found


def _walk(part: object, path: str, found: dict[str, Quantity], show: Show) -> None:
    if isinstance(part, tuple):
        for index, item in enumerate(part):
            _walk(item, f"{path}.{index}", found, show)
    if not isinstance(part, BaseModel):
        return
    for name, rule, listed in _fields(type(part)):
        value, at = getattr(part, name), f"{path}.{name}" if path else name
        if isinstance(rule, Length):
            found[at] = show.fine(value) if rule.fine else show.length(value)
        elif isinstance(rule, Angle):
            found[at] = show.typed_angle(value)
        elif isinstance(value, tuple):
            if listed:
                found.update((f"{at}.{k}", show.length(item)) for k, item in enumerate(value))
            else:
                _walk(value, at, found, show)
        elif isinstance(value, BaseModel):
            _walk(value, at, found, show)


@lru_cache(maxsize=128)
def _fields(model: type[BaseModel]) -> tuple[tuple[str, Length | Angle | None, bool], ...]:
    """A document part's fields: each one's rule where it is typed in, and whether it lists lengths."""
    made = []
    for name, info in model.model_fields.items():
        rules = (rule for rule in info.metadata if isinstance(rule, Length | Angle))
        made.append((name, next(rules, None), _in_list(info.annotation)))
    return tuple(made)


def _in_list(annotation: object) -> bool:
    """Whether a list's items are lengths."""
    inner = get_args(annotation)
    return bool(inner) and any(isinstance(rule, Length) for rule in get_args(inner[0])[1:])
