"""From what was read to where each foot ends: one way of measuring after the other."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import get_args

import numpy as np

from splay.errors import CannotBuild
from splay.level.feet import Array, End, feet_count
from splay.level.lying import bench_under
from splay.piece import LevelPass, LevelWay, Piece
from splay.stance.floor import Floor
from splay.stance.hollow import hollow_depth
from splay.stance.outline import rim
from splay.stance.staked import Stance

IN_LINE_MM = 20.0
"""Three places nearer to one line than this fix no plane (common practice, no source)."""
EDGE_MM = 10.0
"""Heights are taken this far in from the edge, where a rule or a hook stands flat (common practice)."""
PLACES = {"front": 270.0, "right": 0.0, "back": 90.0, "left": 180.0}
"""Middles of the edges by the bearing they lie at."""
_TURNS, _TRIES = 4, 12
_IN_LINE_MM2 = 1e-6
_SETTLED_MM = 1e-9
SIGHTED = 4
"""Two sticks over four feet show the fourth's error; with more or fewer there is no twist."""
BY: dict[LevelWay, str] = {
    "bench": "upside down",
    "standing": "as it stands",
    "shims": "shims",
    "seat": "from the seat",
    "sighted": "two sticks",
}
"""Each way in two words, for the record of the passes."""


@dataclass(frozen=True)
class Ask:
    """One reading a way of measuring asks for: the id of what it is taken at, the foot or the place;
    `over` the foot a height of the top is taken over."""

    key: str
    kind: str
    foot: int
    place: tuple[float, float] | None = None
    over: int = -1


def open_ways(feet: int) -> tuple[LevelWay, ...]:
    """How a piece on so many feet can be measured: two sticks are sighted over at the fourth of four."""
    return tuple(way for way in get_args(LevelWay) if way != "sighted" or feet == SIGHTED)


def asks(piece: Piece, ends: tuple[End, ...], chosen: LevelPass) -> tuple[Ask, ...]:
    """Every reading one pass asks for, in the order it is taken."""
    feet = [end.foot for end in ends]
    if chosen.way == "bench":
        return tuple(Ask(f.key, "bench", k) for k, f in enumerate(feet))
    if chosen.way == "seat":
        return tuple(Ask(f.key, "along", k) for k, f in enumerate(feet))
    if chosen.way == "sighted":
        first = [Ask(f.key, "along", k) for k, f in enumerate(feet[: SIGHTED - 1])]
        return (*first, *(Ask(f.key, "sight", 3) for f in feet[SIGHTED - 1 : SIGHTED]))
    if chosen.way == "shims":
        return (*(Ask(f.key, "shim", k) for k, f in enumerate(feet)), Ask("seat", "stands", -1))
    legs = chosen.places == "legs"
    tops = [
        Ask(key, "top", -1, at, k if legs else -1)
        for k, (key, at) in enumerate(places(piece, ends, chosen).items())
    ]
    return (*tops, *(Ask(f.key, "under", k) for k, f in enumerate(feet)))


def asks_in_all(piece: Piece, stance: Stance) -> int:
    """How many readings all passes ask for."""
    feet = feet_count(stance)
    each = {"bench": feet, "seat": feet, "sighted": min(feet, SIGHTED), "shims": feet + 1}
    standing = feet + len(PLACES)
    return sum(
        each.get(chosen.way, standing if chosen.places == "edges" else 2 * feet)
        for chosen in piece.levelling.passes
    )


def places(piece: Piece, ends: tuple[End, ...], chosen: LevelPass) -> dict[str, tuple[float, float]]:
    """Where the top's height is taken, on its upper face, top frame: a little in from its edges, clear
    of what is shaped away there, or over its legs."""
    if chosen.places == "edges":
        inset = piece.top.upper_edge.inward + EDGE_MM
        return {name: _inside(piece, bearing, inset) for name, bearing in PLACES.items()}
    return {f"over.{e.foot.key}": (e.foot.start[0], e.foot.start[1]) for e in ends}


def _inside(piece: Piece, bearing: float, inset: float) -> tuple[float, float]:
    x, y = rim(piece.top.outline, bearing)
    share = max(0.0, 1.0 - inset / math.hypot(x, y))
    return x * share, y * share


def on_face(piece: Piece, at: tuple[float, float]) -> tuple[float, float, float]:
    """A place on the upper face as the wood is there, down in its hollow, top frame."""
    return (*at, piece.top.thickness - hollow_depth(piece.top.hollow, at))


@dataclass(frozen=True)
class Measured:
    """Where the feet end by what was read, and how far heights and gaps contradict each other.

    `floor` is the floor it stood on while it was measured, where the way shows it; `misfit` the
    furthest a height lies off that plane, mm, `worst` which of the asks that is; `afoot` how many
    feet touched by their own gaps.
    """

    ends: tuple[End, ...]
    floor: tuple[Array, float] | None = None
    misfit: float = 0.0
    worst: int = -1
    afoot: int = 0


def measure(
    piece: Piece,
    ends: tuple[End, ...],
    chosen: LevelPass,
    floor: Floor,
    read: dict[str, float],
    spread: float,
    flat: float,
) -> Measured:
    """Feet's ends from one pass's readings, by the kind and key of each (`"bench.1"`).

    What was not read is taken as it was expected. `spread` is one standard deviation of a
    reading, `flat` how far the reference may be out of flat, mm. CannotBuild where the readings
    fix no plane.
    """
    if chosen.way == "standing":
        return _standing(piece, ends, chosen, floor, read, spread, flat)
    made = []
    for ask in asks(piece, ends, chosen):
        if ask.foot < 0:
            continue
        end, value = ends[ask.foot], read.get(f"{ask.kind}.{ask.key}")
        if value is None:
            made.append(end)
            continue
        told = teller(piece, ends, chosen, floor, ask, read, made)
        length, slope = _solve(end, told, value)
        # A length taken along the leg never touches the bench.
        rough = 0.0 if ask.kind == "along" else flat / math.sqrt(3.0)
        sigma = math.hypot(spread, rough) / abs(slope)
        if ask.kind == "sight":
            sigma = math.hypot(sigma, max((e.sigma for e in made), default=0.0) * math.sqrt(3.0))
        made.append(end.at(length, sigma))
    return Measured((*made, *ends[len(made) :]))


def teller(
    piece: Piece,
    ends: tuple[End, ...],
    chosen: LevelPass,
    floor: Floor,
    ask: Ask,
    read: dict[str, float],
    known: list[End] | None = None,
) -> Callable[[End], float]:
    """What would be read for one ask, given how its foot ends."""
    thick, n = piece.top.thickness, np.array(floor.normal)
    if ask.kind == "bench":
        away, under = bench_under(piece, ends, chosen)
        return lambda end: float((end.ring @ away).max()) + under
    if ask.kind == "along":
        return _along
    if ask.kind == "sight":
        normal, level = under_three((known or ends)[: SIGHTED - 1], n)
        return lambda end: float((end.ring @ normal).min()) + level
    stands = read.get("stands.seat", expected_stand(piece, ends, floor))
    offset = stands - float(n[2]) * thick
    return lambda end: float((end.ring @ n).min()) + offset


def expected_stand(piece: Piece, ends: tuple[End, ...], floor: Floor) -> float:
    """Height of the upper face's middle with the top held right over the longest foot, mm."""
    n = np.array(floor.normal)
    lowest = min(float((end.ring @ n).min()) for end in ends)
    return float(n[2]) * piece.top.thickness - lowest


def _along(end: End) -> float:
    """Along the leg's longer side from the face it leaves to its end, mm."""
    foot = end.foot
    base, way = foot.lines[foot.long]
    # A tapered leg's side slants against its middle: a rule along it reads that much more.
    run = float(end.distances[foot.long]) - (foot.mouth - base[2]) / way[2]
    return run * math.hypot(*way)


def under_three(three: Sequence[End], up: Array) -> tuple[Array, float]:
    """The plane three feet stand on (unit normal upward, offset): each touches it, none goes through.

    Which corner touches depends on how the plane leans, so it is found by turns. Where two corners
    of a foot touch at once either gives the same plane.
    """
    normal, level = up, 0.0
    touching: list[int] = []
    for _ in range(_TRIES):
        fresh = [int(np.argmin(end.ring @ normal)) for end in three]
        if fresh == touching:
            break
        touching = fresh
        a, b, c = (end.ring[k] for end, k in zip(three, touching, strict=True))
        across = np.cross(b - a, c - a)
        if np.linalg.norm(across) < _IN_LINE_MM2:
            # They stand in one line, through which any plane goes: the one they were made for too.
            return up, -min(float((end.ring @ up).min()) for end in three)
        normal = across / np.linalg.norm(across) * math.copysign(1.0, float(across @ up))
        level = -float(normal @ a)
    return normal, level


def _solve(end: End, told: Callable[[End], float], value: float) -> tuple[float, float]:
    """The length at which `told` gives `value`, and how much it changes for each mm.

    Linear while the same corner of the end touches: then the first step lands on it.
    """
    length, slope = end.length, 1.0
    here = told(end.at(length))
    for _ in range(_TURNS):
        slope = told(end.at(length + 1.0)) - here
        length += (value - here) / slope
        here = told(end.at(length))
        if abs(value - here) < _SETTLED_MM:
            break
    return length, slope


def _standing(
    piece: Piece,
    ends: tuple[End, ...],
    chosen: LevelPass,
    floor: Floor,
    read: dict[str, float],
    spread: float,
    flat: float,
) -> Measured:
    """The floor from heights of the top; each foot from the gap under it."""
    known = {
        name: (at, read[f"top.{name}"])
        for name, at in places(piece, ends, chosen).items()
        if f"top.{name}" in read
    }
    if len(known) < 3:
        return Measured(ends)
    spots = np.array([on_face(piece, at) for at, _ in known.values()])
    heights = np.array([height for _, height in known.values()])
    normal, offset = plane_under(spots, heights)
    misfits = heights - (spots @ normal + offset)
    worst = int(np.argmax(np.abs(misfits)))
    gaps = [read.get(f"under.{end.foot.key}", 0.0) for end in ends]
    # How well the plane is known where each foot stands: least squares' own covariance.
    design = np.column_stack((spots[:, :2], np.ones(len(spots))))
    inverse = np.linalg.inv(design.T @ design)
    made = []
    for end, gap in zip(ends, gaps, strict=True):

        def told(e: End) -> float:
            return float((e.ring @ normal).min()) + offset

        length, slope = _solve(end, told, gap)
        spot = end.foot.axis(length)
        row = np.array((spot[0], spot[1], 1.0))
        gap_spread = spread if f"under.{end.foot.key}" in read else 0.0
        rough = flat / math.sqrt(3.0)
        variance = float(row @ inverse @ row) * (spread**2 + rough**2) + gap_spread**2 + rough**2
        made.append(end.at(length, math.sqrt(variance) / abs(slope)))
    return Measured(
        tuple(made),
        (normal, offset),
        float(abs(misfits[worst])),
        [ask.key for ask in asks(piece, ends, chosen)].index(list(known)[worst]),
        sum(gap <= 1e-9 for gap in gaps),
    )


def plane_under(spots: Array, heights: Array) -> tuple[Array, float]:
    """The floor (unit normal upward, offset) from plumb heights of known places above it.

    `spots` n by 3 in the top frame, `heights` in mm; least squares where there are more than three,
    the normal's length put right by turns. CannotBuild where the places lie in one line.
    """
    flat = spots[:, :2] - spots[:, :2].mean(axis=0)
    if len(spots) < 3 or float(np.linalg.svd(flat, compute_uv=False)[-1]) < IN_LINE_MM:
        raise CannotBuild(
            "The places the heights were taken at lie in one line: they fix no plane.",
            "Take one more height well away from that line.",
            "levelling",
        )
    least = np.linalg.pinv(np.column_stack((spots[:, :2], np.ones(len(spots)))))
    fitted, leaning = least @ heights, least @ spots[:, 2]
    up = 1.0
    for _ in range(12):
        a, b, c = (float(v) for v in fitted - up * leaning)
        fresh = math.sqrt(max(0.0, 1.0 - a * a - b * b))
        if abs(fresh - up) < 1e-14:
            break
        up = fresh
    return np.array((a, b, up)), float(c)
