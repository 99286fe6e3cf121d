"""What a drawing is made of. x to the right, y up, mm unless a picture says otherwise."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

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
class Shape:
    """A run of straight lines, an ellipse or a text.

    `points`: the run; or the ellipse's middle; or the place of the text. `part` names what it
    belongs to ("leg.2", "top"), so that a card can light it up. `sizes` are an ellipse's half
    axes and `turn` its first axis' bearing (or the text's slant), degrees.
    """

    kind: Literal["line", "area", "ellipse", "text"]
    layer: Layer
    points: tuple[Flat, ...]
    part: str = ""
    text: str = ""
    anchor: Literal["start", "middle", "end"] = "middle"
    sizes: Flat = (0.0, 0.0)
    turn: float = 0.0


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


def line(layer: Layer, *points: Flat, part: str = "") -> Shape:
    """An open run of straight lines."""
    return Shape("line", layer, points, part)


def area(layer: Layer, points: tuple[Flat, ...], part: str = "") -> Shape:
    """A closed area."""
    return Shape("area", layer, points, part)


def ellipse(layer: Layer, at: Flat, sizes: Flat, turn: float = 0.0, part: str = "") -> Shape:
    """An ellipse with half axes `sizes`, the first along bearing `turn`."""
    return Shape("ellipse", layer, (at,), part, sizes=sizes, turn=turn)


def text(
    layer: Layer,
    at: Flat,
    words: str,
    part: str = "",
    anchor: Literal["start", "middle", "end"] = "middle",
    turn: float = 0.0,
) -> Shape:
    """Words at a place."""
    return Shape("text", layer, (at,), part, words, anchor, turn=turn)
