"""The piece standing on its floor as it is: what bears, what floats, where each foot is cut."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np

from splay.level.feet import ON_MM, Array, End
from splay.level.now import State, stand_now
from splay.level.standing import Standing
from splay.level.told import LEAVE_MM, LevelFoot, LevelRound
from splay.piece import Piece
from splay.quantity import Show
from splay.stance.convex import Solid
from splay.stance.floor import Floor
from splay.stance.staked import Stance
from splay.views.edges import rings_of
from splay.views.project import FRONT, SIDE, Eye, hulls
from splay.views.scene import together
from splay.views.shapes import Shape, Shows, View, area, line, text

_COARSE = 6
_FINE = 150
_TITLES = {"front": "Front", "side": "Side, from the right"}


def level_views(
    piece: Piece, stance: Stance, state: State, round_: LevelRound, exaggerate: float, show: Show
) -> tuple[View, ...]:
    """Front and side as it rests, the same tipped over where it rocks, and each foot with its cut.

    `exaggerate` multiplies how the feet differ in length, and so lean and gaps; 1 for the truth.
    """
    exaggerate = drawn_times(piece, state, exaggerate)
    ends = _apart(state, exaggerate)
    stands = stand_now(piece, stance.floor, ends)
    made: list[View] = []
    if stands is not None:
        ways: tuple[tuple[Shows, Standing | None], ...] = (("", stands.rests), ("tips", stands.tips))
        for shows, one in ways:
            if one is None or (shows and not round_.rocks):
                continue
            truly = _true_gaps(state, one, ends)
            scene = _Standing(piece, stance, state, ends, one, truly, exaggerate, show)
            made += [scene.view(eye, shows) for eye in (FRONT, SIDE)]
    made = _one_scale(made)
    made += [_foot(foot, end, state) for foot, end in zip(round_.feet, state.ends, strict=True)]
    return tuple(made)


MOST_SHARE = 0.3
"""What feet are drawn apart by at most, as a share of the piece's height: more is no longer a stool."""


def drawn_times(piece: Piece, state: State, wanted: float) -> float:
    """How many times over the unlikeness of the feet can be drawn, up to `wanted`."""
    heights = [state.plane.height(end.foot.axis(end.length)) for end in state.ends]
    apart = max(heights) - min(heights)
    if apart * wanted <= MOST_SHARE * piece.height:
        return wanted
    return max(1.0, MOST_SHARE * piece.height / apart)


def _true_gaps(state: State, drawn: Standing, ends: tuple[End, ...]) -> dict[str, float]:
    """The gaps as they are, by foot, for the way of standing that is drawn larger."""
    both = (state.stands.rests, state.stands.tips) if state.stands else ()
    for one in both:
        if one is not None and set(one.bears) == set(drawn.bears):
            return {end.foot.key: gap for end, gap in zip(ends, one.gaps, strict=True)}
    return {}


def _apart(state: State, exaggerate: float) -> tuple[End, ...]:
    """The same feet, further from one another: what each has over the one that has least, multiplied."""
    plane = state.plane
    heights = [-plane.height(end.foot.axis(end.length)) for end in state.ends]
    least = min(heights)
    made = []
    for end, height in zip(state.ends, heights, strict=True):
        cos = -float(plane.normal @ end.foot.way)
        made.append(end.at(end.length + (exaggerate - 1.0) * (height - least) / cos, end.sigma))
    return tuple(made)


@dataclass(frozen=True)
class _Standing:
    """One way of standing, ready to be drawn: z plumb up from the floor it stands on."""

    piece: Piece
    stance: Stance
    state: State
    ends: tuple[End, ...]
    stands: Standing
    truly: dict[str, float]
    exaggerate: float
    show: Show

    @cached_property
    def rows(self) -> Array:
        """The turn from the top frame to the floor it stands on."""
        z = self.stands.normal
        x = np.array((1.0, 0.0, 0.0))
        x = x - z * float(x @ z)
        x /= np.linalg.norm(x)
        return np.array((x, np.cross(z, x), z))

    def place(self, points: Array) -> Array:
        """Points of the top frame (n by 3) on that floor."""
        made: Array = points @ self.rows.T
        made[:, 2] += self.stands.offset
        return made

    def view(self, eye: Eye, shows: Shows) -> View:
        """As seen from the front or the side."""

        def see(points: Array) -> Array:
            return eye.see_all(self.place(points))

        def hull(*rings: Array) -> tuple[tuple[float, float], ...]:
            return hulls(np.concatenate([see(r) for r in rings])[None])[0]

        toward = np.array(eye.toward())
        shapes: list[Shape] = []
        order: list[tuple[float, str, list[Array], End | None]] = []
        for body in self.stance.bodies:
            if body.drawn:
                solids = [self._stood(body.key, solid) for solid in body.stood]
                depth = float((self.place(np.concatenate(solids)) @ toward).mean())
                order.append((depth, body.key, solids, None))
        for end in self.ends:
            foot = end.foot
            solids = []
            if foot.leg:
                mouth = foot.points((foot.mouth - foot.bases[:, 2]) / foot.ways[:, 2])
                solids = [np.concatenate((mouth, end.ring))]
            # A foot is drawn after the part it belongs to.
            depth = float((self.place(end.ring) @ toward).mean()) + (0.0 if foot.leg else 1000.0)
            order.append((depth, foot.part, solids, end))
        for _, part, solids, one in sorted(order, key=lambda item: item[0]):
            shapes += [area("leg", ring, part) for ring in together([hull(solid) for solid in solids])]
            if one is None:
                continue
            plane = self.state.plane
            cut = one.foot.points(one.foot.cut_at(plane.normal, plane.offset))
            if (one.distances - one.foot.cut_at(plane.normal, plane.offset)).max() > 0.0:
                shapes.append(area("waste", hull(cut, one.ring), part))
            shapes.append(line("cut", *_width(see(cut)), part=part))
        rings = rings_of(self.piece)
        thin = slice(None, None, _COARSE if len(rings[0]) > _FINE else 1)
        shapes.append(area("outline", hull(*(ring[thin] for ring in rings)), "top"))
        shapes += self._said(eye, shapes)
        xs = [x for s in shapes for x, _ in s.points]
        ys = [y for s in shapes for _, y in s.points]
        box = (min(xs), min(ys), max(xs), max(ys))
        times = f", unlikeness {self.exaggerate:.0f} times" if self.exaggerate >= 1.5 else ""
        name = f"level.{eye.name}.{shows}" if shows else f"level.{eye.name}"
        return View(name, f"{_TITLES[eye.name]}{times}", box, tuple(shapes), shows=shows)

    def _stood(self, key: str, solid: Solid) -> Array:
        """Corners of a part, those on the chosen floor moved to where its feet really end."""
        mine = [end for end in self.ends if end.foot.part == key and not end.foot.leg]
        made = []
        for face in solid:
            for p in face.corners:
                moved = np.array(p)
                if mine and abs(self.stance.floor.to_floor(p)[2]) < ON_MM:
                    apart = [float(np.linalg.norm(e.foot.axis(e.foot.planned) - moved)) for e in mine]
                    end = mine[int(np.argmin(apart))]
                    planes = [
                        float(np.linalg.norm(q - moved))
                        for q in end.foot.points(_planned(end, self.stance.floor))
                    ]
                    moved = end.ring[int(np.argmin(planes))]
                made.append(moved)
        return np.array(made)

    def _said(self, eye: Eye, drawn: list[Shape]) -> list[Shape]:
        """The floor, a gap under each floating foot, the level line the top should lie along."""
        xs = [x for s in drawn for x, _ in s.points]
        low, high = min(xs), max(xs)
        wide = high - low
        made = [line("floor", (low - 0.08 * wide, 0.0), (high + 0.08 * wide, 0.0), part="floor")]
        seat = self.place(np.array([(0.0, 0.0, self.piece.top.thickness)]))
        at = eye.see_all(seat)[0]
        # The upper face as it was chosen, hung at the seat's middle as it stands.
        wanted = np.array(self.stance.floor.rows)
        half = 0.56 * wide
        level = wanted[0] if eye is FRONT else wanted[1]
        right = np.array((1.0, 0.0, 0.0)) if eye is FRONT else np.array((0.0, 1.0, 0.0))
        slope = float((wanted @ right)[2]) / max(1e-9, float(level @ right))
        made.append(
            line(
                "measured",
                (float(at[0]) - half, float(at[1]) - half * slope),
                (float(at[0]) + half, float(at[1]) + half * slope),
                part="level",
            )
        )
        for end, gap in zip(self.ends, self.stands.gaps, strict=True):
            if gap < 0.02:
                continue
            ring = self.place(end.ring)
            lowest = ring[int(np.argmin(ring[:, 2]))]
            x, y = eye.see_all(lowest[None])[0]
            made.append(line("warning", (float(x), 0.0), (float(x), float(y)), part=end.foot.part))
            true = self.show.fine(self.truly.get(end.foot.key, gap / self.exaggerate))
            if true.value >= LEAVE_MM:
                made.append(text("pointer", (float(x), -0.045 * wide), true.text, end.foot.part))
        return made


def _planned(end: End, floor: Floor) -> Array:
    """Where the chosen floor ends each side of a foot."""
    return end.foot.cut_at(np.array(floor.normal), floor.h0_mm)


def _one_scale(views: list[View]) -> list[View]:
    """The same views in boxes of one size, standing on one level, so that they are drawn to one scale."""
    if not views:
        return []
    low, high = min(v.box[1] for v in views), max(v.box[3] for v in views)
    wide = max(v.box[2] - v.box[0] for v in views)
    rim = 0.05 * (high - low)
    made = []
    for view in views:
        middle = (view.box[0] + view.box[2]) / 2.0
        half = wide / 2.0 + rim
        made.append(replace(view, box=(middle - half, low - rim, middle + half, high + rim)))
    return made


def _width(points: Array) -> tuple[tuple[float, float], ...]:
    """The two outermost points of a ring seen edge on: the line it is drawn as."""
    a, b = points[int(np.argmin(points[:, 0]))], points[int(np.argmax(points[:, 0]))]
    return ((float(a[0]), float(a[1])), (float(b[0]), float(b[1])))


_ROOM = 24


def _short(name: str, else_: str) -> str:
    """A side's own name where it fits beside the foot."""
    return name if len(name) <= _ROOM else else_


def _foot(said: LevelFoot, end: End, state: State) -> View:
    """One foot in the plane of its longest and its shortest side, the leg plumb, longer side right."""
    foot, plane = end.foot, state.plane
    cut = foot.cut_at(plane.normal, plane.offset)
    ring = end.ring
    apart = ring[foot.long] - ring[foot.short]
    d = foot.way
    wide = float(np.linalg.norm(apart - d * float(apart @ d)))
    half = wide / 2.0
    sides = ((half, foot.long), (-half, foot.short))
    up = max(1.5 * wide, 1.4 * float(end.distances.max() - cut.min()))
    zero = float(cut[foot.short])
    (xl, li), (xs, si) = sides
    # The steeper of cut and end may cross where a foot is short of the cut: both are drawn.
    cut_l, cut_s = zero - float(cut[li]), zero - float(cut[si])
    end_l, end_s = zero - float(end.distances[li]), zero - float(end.distances[si])
    shapes = [
        area("leg", ((xs, up), (xl, up), (xl, max(cut_l, end_l)), (xs, max(cut_s, end_s))), said.part),
        area("waste", ((xs, cut_s), (xl, cut_l), (xl, end_l), (xs, end_s)), said.part),
        line("cut", (xs - 0.12 * wide, cut_s), (xl + 0.12 * wide, cut_l), part=said.part),
        text("dimension", (xl + 0.25 * wide, (cut_l + end_l) / 2), said.long.quantity.text, anchor="start"),
        text("dimension", (xs - 0.25 * wide, (cut_s + end_s) / 2), said.short.quantity.text, anchor="end"),
        text("label", (xl + 0.25 * wide, up * 0.7), _short(said.long_side, "long side"), anchor="start"),
        text("label", (xs - 0.25 * wide, up * 0.7), _short(said.short_side, "short side"), anchor="end"),
    ]
    low = min(cut_l, end_l, end_s) - 0.2 * wide
    reach = 2.9 * wide
    box = (-reach, low, reach, up)
    if not all(map(math.isfinite, box)):
        box = (-1.0, -1.0, 1.0, 1.0)
    return View(f"level.foot.{said.key}", f"{said.name}: {said.how}", box, tuple(shapes), shows="foot")
