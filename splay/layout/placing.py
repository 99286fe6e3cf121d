"""Where legs stand and which way they lean, marked on the face they are bored from."""

from __future__ import annotations

import math
from collections.abc import Iterable
from dataclasses import dataclass
from typing import Literal

import shapely

from splay.layout.marks import Mark, arc, cross, line, point
from splay.piece import Circle, Free, Insets, Piece, StakedLegs, Triangle
from splay.quantity import Figure, Quantity, Show
from splay.quantity import degrees as deg
from splay.stance.outline import extent, polygon
from splay.stance.pegs import batten_of
from splay.stance.staked import LegStance, Stance
from splay.stance.vectors import Flat
from splay.work import marks as work
from splay.work.lays import Way
from splay.work.seat import Act, Letter, Letters, Prick, Ring, Sightline

RUNS_MM = (200.0, 150.0, 100.0, 60.0, 40.0, 25.0, 20.0, 15.0, 10.0)
"""Runs along a line over which an offset is given, so that a rule sets it: the longest that stays on the
wood."""
_ON_LINE = 1e-9
Placed = tuple[str, str, tuple[Figure, ...], tuple[Mark, ...], tuple[Act, ...]]
"""Title, words besides the acts, figures, what is drawn, the acts."""


def marked_face(support: StakedLegs) -> str:
    """The face of the seat on which a set of legs is marked and bored."""
    return support.joint.face


def letters(piece: Piece, face: str, show: Show) -> Letters:
    """The middle lines and their words. The underside is seen from below: right and left change hands."""
    seen_above = face == "upper face"
    right_at: Literal["right hand", "left hand"] = "right hand" if seen_above else "left hand"
    grain = piece.top.grain % 180.0
    folded = min(grain, 180.0 - grain)
    way: Way = "anticlockwise" if (grain <= 90.0) == seen_above else "clockwise"
    return Letters(face, right_at, show.angle(folded), way)


def side(x: float) -> Letter:
    """The word towards which a distance to the right (or left) is measured."""
    return "RIGHT" if x >= 0.0 else "LEFT"


def end(y: float) -> Letter:
    """The word towards which a distance to the back (or front) is measured."""
    return "BACK" if y >= 0.0 else "FRONT"


def at_face(piece: Piece, leg: LegStance, face: str) -> Flat:
    """Where a leg's axis meets the face it is marked on, top frame x and y, mm.

    The upper face is still whole then: a hollow is cut after boring.
    """
    level = piece.top.thickness if face == "upper face" else leg.socket[2]
    run = (level - leg.socket[2]) / leg.d[2]
    return leg.socket[0] + leg.d[0] * run, leg.socket[1] + leg.d[1] * run


def prick(mark: work.Mark, named: str, face: str, at: Flat, show: Show) -> Prick:
    """A point by its distances from the middle lines."""
    x, y = at
    return Prick(mark, named, face, side(x), show.length(abs(x)), end(y), show.length(abs(y)))


def spots(points: Iterable[tuple[int, Flat]]) -> tuple[Mark, ...]:
    """Leg centres as they are drawn."""
    return tuple(m for number, at in points for m in (*cross(at, 7.0), point(at, str(number))))


def place(piece: Piece, support: StakedLegs, legs: tuple[LegStance, ...], show: Show) -> Placed:
    """Leg centres on the underside, or on the face they are bored from."""
    way, face = support.placement, marked_face(support)
    at = [(leg.number, at_face(piece, leg, face)) for leg in legs]
    drawn = spots(at)
    if face == "underside" and isinstance(way, Circle | Triangle):
        return _ring(piece, way, legs, drawn, show)
    acts = tuple(prick(work.centre(n, face), f"leg {n}", face, spot, show) for n, spot in at)
    if isinstance(way, Insets) and face == "underside":
        return _insets(piece, way, drawn, acts, show)
    words = {
        "underside": "From the middle lines.",
        "upper face": "From the middle lines squared over the edges onto the upper face.",
        "battens' lower face": "From the middle lines squared over onto the screwed-on battens.",
    }[face]
    if isinstance(way, Free) and face == "underside":
        words = "From the middle lines; mirrored partners with the same setting of the compasses."
    return "Place the legs", words, (), drawn, acts


def _insets(
    piece: Piece, way: Insets, drawn: tuple[Mark, ...], acts: tuple[Act, ...], show: Show
) -> Placed:
    a, b = extent(piece.top.outline)
    x, y = a - way.from_ends, b - way.from_edges
    rows = tuple(line((-a, j), (a, j)) for j in (-y, y)) + tuple(line((i, -b), (i, b)) for i in (-x, x))
    figures = (
        show.figure(
            "layout.from_ends",
            "Gauge in from LEFT and RIGHT ends",
            way.from_ends,
            "as chosen",
            show.input("e", "from the ends", way.from_ends),
        ),
        show.figure(
            "layout.from_edges",
            "Gauge in from FRONT and BACK edges",
            way.from_edges,
            "as chosen",
            show.input("f", "from the edges", way.from_edges),
        ),
    )
    words = "Or gauge from the straight edges while they are there; prick where the lines cross."
    return "Place the legs", words, figures, (*rows, *drawn), acts


def _ring(
    piece: Piece, way: Circle | Triangle, legs: tuple[LegStance, ...], drawn: tuple[Mark, ...], show: Show
) -> Placed:
    """Step the chord 2 R sin(180/n) round; of three legs the radius itself, every second mark."""
    count = way.count if isinstance(way, Circle) else 3
    start = legs[0].place.at
    radius = math.hypot(*start)
    compass = show.input("R", "circle of leg centres", radius)
    circle = show.figure("layout.circle", "Compasses for the leg circle", radius, "R", compass)
    chord = 2.0 * radius * deg.sin(180.0 / count)
    step = show.figure(
        "layout.chord",
        "Leg to leg",
        chord,
        "2 · R · sin (180° / n)",
        compass,
        show.input("n", "legs", count, "count"),
    )
    stride = 2 if count == 3 else 1
    first, run, over, toward = _start(polygon(piece.top.outline), start, show)
    # Numbered anticlockwise seen from above: the underside is seen from below.
    act = Ring(
        tuple(work.centre(leg.number) for leg in legs),
        tuple(f"leg {leg.number}" for leg in legs),
        "underside",
        circle.quantity,
        circle.quantity if stride == 2 else step.quantity,
        first,
        run,
        over,
        toward,
        "clockwise",
        stride,
    )
    out = (start[0] * 1.25, start[1] * 1.25)
    extra = (
        tuple(m for k in range(6) for m in cross(_on(radius, start, 60.0 * k), 4.0)) if count == 3 else ()
    )
    marks = (arc((0.0, 0.0), radius), line((0.0, 0.0), out), *extra, *drawn)
    return "Place the legs", "It must close on leg 1.", (circle, step), marks, (act,)


def reached(wood: shapely.Polygon, at: Flat, way: Flat) -> tuple[float, bool]:
    """The longest run along the nearer middle line for which a point in line with `at` still lies on the
    wood, mm; and whether it lies back from there, against `way`. The shortest one where none does."""
    for run in RUNS_MM:
        for sign in (1.0, -1.0):
            if wood.covers(_point(at, (sign * way[0], sign * way[1]), run)):
                return run, sign < 0.0
    return RUNS_MM[-1], False


def drawn_by(wood: shapely.Polygon, at: Flat, way: Flat) -> Drawn:
    """How a line through a mark is drawn that runs `way` (unit)."""
    run, back = reached(wood, at, way)
    c, s = (-way[0], -way[1]) if back else way
    steep = abs(s) > abs(c)
    along, toward = (end(s), side(c)) if steep else (side(c), end(s))
    return Drawn(along, run, toward, run * (abs(c / s) if steep else abs(s / c)), back)


@dataclass(frozen=True)
class Drawn:
    """A line by a rule: `run` towards one word, `over` towards another, mm; `back` as in Sightline."""

    along: Letter
    run: float
    toward: Letter
    over: float
    back: bool


def _start(
    wood: shapely.Polygon, at: Flat, show: Show
) -> tuple[Letter, Quantity | None, Quantity | None, Letter | None]:
    x, y = at
    if abs(x) <= _ON_LINE * abs(y):
        return end(y), None, None, None
    if abs(y) <= _ON_LINE * abs(x):
        return side(x), None, None, None
    size = math.hypot(x, y)
    # Outward from the middle only: there its mark meets the circle.
    way = (x / size, y / size)
    run = next((r for r in RUNS_MM if wood.covers(_point((0.0, 0.0), way, r))), RUNS_MM[-1])
    if abs(y) >= abs(x):
        return end(y), show.closely(run), show.closely(run * abs(x / y)), side(x)
    return side(x), show.closely(run), show.closely(run * abs(y / x)), end(y)


def _point(at: Flat, way: Flat, run: float) -> shapely.Point:
    big = max(abs(way[0]), abs(way[1]))
    return shapely.Point(at[0] + run * way[0] / big, at[1] + run * way[1] / big)


def _on(radius: float, start: Flat, turn: float) -> Flat:
    first = deg.atan2(start[1], start[0])
    return (radius * deg.cos(first + turn), radius * deg.sin(first + turn))


def line_by(
    told: Drawn, mark: work.Mark, through: work.Mark, named: str, face: str, show: Show
) -> Sightline:
    """That line as an act."""
    run, over = show.length(told.run), show.closely(told.over)
    return Sightline(mark, through, named, face, told.along, run, told.toward, over, told.back)


def wood_of(piece: Piece, leg: LegStance, face: str, stance: Stance) -> shapely.Polygon:
    """What a leg's line is drawn on: the seat, or the batten it stands in."""
    if face != "battens' lower face":
        return polygon(piece.top.outline)
    body = batten_of(stance, leg)
    low, high = body.at(0.0, 0.0)
    half = body.width / 2.0
    corners = ((low, -half), (high, -half), (high, half), (low, half))
    return shapely.Polygon([body.pose.out((run, across, 0.0))[:2] for run, across in corners])


def sightlines(
    piece: Piece, support: StakedLegs, legs: tuple[LegStance, ...], stance: Stance, show: Show
) -> Placed:
    """Each sightline by a rule: so much towards one word, so much over towards another, arrow there."""
    face = marked_face(support)
    figures, drawn, acts = [], [], []
    for leg in legs:
        lean = leg.boring
        if lean.bearing is None or lean.from_side is None or lean.from_centre is None:
            continue
        x, y = at_face(piece, leg, face)
        c, s = deg.cos(lean.bearing), deg.sin(lean.bearing)
        tip = (x + 110 * c, y + 110 * s)
        drawn.append(line((x - 40 * c, y - 40 * s), tip, text=str(leg.number)))
        for barb in (150.0, -150.0):
            turn = lean.bearing + barb
            drawn.append(line(tip, (tip[0] + 14 * deg.cos(turn), tip[1] + 14 * deg.sin(turn))))
        told = drawn_by(wood_of(piece, leg, face, stance), (x, y), (c, s))
        angle = min(lean.from_side, lean.from_centre)
        figures.append(
            show.figure(
                f"layout.sightline.{leg.number}",
                f"Leg {leg.number}: for {show.length(told.run).text} to {told.along}, over to "
                f"{told.toward} by",
                told.over,
                "run · tan a",
                show.input("run", f"towards {told.along}", told.run),
                show.input("a", "sightline from that line", angle, "deg"),
            )
        )
        mark, centre = work.sightline(leg.number, face), work.centre(leg.number, face)
        acts.append(line_by(told, mark, centre, f"leg {leg.number}", face, show))
    words = (
        "Long enough to lay a gauge on: the leg leans the way its arrow points. Its number beside it."
        if figures
        else "No sightlines: these legs stand square to the seat. Their numbers beside their marks."
    )
    return "Draw the sightlines", words, tuple(figures), tuple(drawn), tuple(acts)
