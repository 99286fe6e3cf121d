"""What a drawing is made of. x to the right, y up, mm unless a picture says otherwise."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import lru_cache
from typing import Annotated, Literal

import numpy as np
import shapely
from pydantic import Field

from splay.stance.handled import Handled
from splay.stance.vectors import Flat

Layer = Literal[
    "outline",
    "solid",
    "hidden",
    "section",
    "hatch",
    "hatch_area",
    "leg",
    "board",
    "rope",
    "tenon",
    "sightline",
    "axis",
    "grain",
    "floor",
    "foot",
    "footprint",
    "cut",
    "waste",
    "measured",
    "tool",
    "scale",
    "pointer",
    "dimension",
    "label",
    "warning",
]


@dataclass(frozen=True)
class Run:
    """A run of straight lines, closed where it is an area. `part` names what it belongs to ("leg.2",
    "top"), so that a card can light it up."""

    kind: Literal["line", "area"]
    layer: Layer
    points: tuple[Flat, ...]
    part: str


@dataclass(frozen=True)
class Ellipse:
    """An ellipse about its one point: `sizes` its half axes, `turn` its first one's bearing, degrees."""

    layer: Layer
    points: tuple[Flat, ...]
    sizes: Flat
    turn: float
    part: str
    kind: Literal["ellipse"] = "ellipse"


@dataclass(frozen=True)
class Words:
    """A text at its one point; `turn` its slant, degrees."""

    layer: Layer
    points: tuple[Flat, ...]
    text: str
    part: str = ""
    anchor: Literal["start", "middle", "end"] = "middle"
    turn: float = 0.0
    kind: Literal["text"] = "text"


Shape = Annotated[Run | Ellipse | Words, Field(discriminator="kind")]


@dataclass(frozen=True)
class Handle:
    """A place the maker can take hold of: what it moves, which one, where it is, its name."""

    moves: Handled
    leg: int
    at: Flat
    label: str


Shows = Literal["", "tips", "foot"]


@dataclass(frozen=True)
class View:
    """A drawing: its name, title, the box that holds it (left, bottom, right, top), what is on it;
    `shows` tells drawings of one station apart."""

    name: str
    title: str
    box: tuple[float, float, float, float]
    shapes: tuple[Shape, ...]
    handles: tuple[Handle, ...] = ()
    shows: Shows = ""


DRAWN = 2
"""Drawings are given to the hundredth of a millimetre: finer than any line is wide."""
FLAT_MM = 0.05
"""Corners of a run that are no further off a straight line than this are left out."""
MANY = 12


def tidy(view: View) -> View:
    """A drawing as it goes out: to the hundredth of a millimetre."""
    shapes = tuple(
        replace(shape, points=tuple((round(x, DRAWN), round(y, DRAWN)) for x, y in shape.points))
        for shape in view.shapes
    )
    return replace(view, shapes=shapes)


def fewer(ring: Sequence[Sequence[float]]) -> tuple[Flat, ...]:
    """A closed ring without the corners no drawing shows."""
    if len(ring) >= MANY:
        return _simplified(np.array((*ring, ring[0])).tobytes())
    return tuple((round(x, DRAWN), round(y, DRAWN)) for x, y in ring)


@lru_cache(64)
def _simplified(closed: bytes) -> tuple[Flat, ...]:
    """The same, kept: while a leg is dragged the top's outline stays as it is."""
    whole = shapely.linestrings(np.frombuffer(closed).reshape(-1, 2))
    kept = shapely.get_coordinates(shapely.simplify(whole, FLAT_MM))[:-1].tolist()
    return tuple((round(x, DRAWN), round(y, DRAWN)) for x, y in kept)


def line(layer: Layer, *points: Flat, part: str = "") -> Shape:
    """An open run of straight lines."""
    return Run("line", layer, points, part)


def area(layer: Layer, points: tuple[Flat, ...], part: str = "") -> Shape:
    """A closed area."""
    return Run("area", layer, points, part)


def ellipse(layer: Layer, at: Flat, sizes: Flat, turn: float = 0.0, part: str = "") -> Shape:
    """An ellipse with half axes `sizes`, the first along bearing `turn`."""
    return Ellipse(layer, (at,), sizes, turn, part)


def text(
    layer: Layer,
    at: Flat,
    words: str,
    part: str = "",
    anchor: Literal["start", "middle", "end"] = "middle",
    turn: float = 0.0,
) -> Shape:
    """Words at a place."""
    return Words(layer, (at,), words, part, anchor, turn)
