"""The top's outline with its leg centres, and what is laid on the blank to bore it."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

import shapely

from splay.layout.placing import at_face, marked_face
from splay.layout.steps import glue_lines
from splay.patterns.pattern import Pattern, arrow, cross_at, pattern, ring, words
from splay.piece import Piece
from splay.quantity import Show
from splay.quantity import degrees as deg
from splay.stance.gapped import slit
from splay.stance.hand_hold import end_holes, slot
from splay.stance.outline import extent, points
from splay.stance.splines import splined
from splay.stance.staked import LegStance, Stance, support_of
from splay.stance.vectors import Flat
from splay.views.shapes import Layer, Shape, area, ellipse, line, text
from splay.work.phrases import listed

LONG_MM = 600.0
"""From this length on, the legs of either end have a drilling pattern of their own."""
ABOUT_MM = 45.0
"""Paper round the sockets of a drilling pattern."""
SIGHTLINE_MM = 70.0


class Face:
    """The face a pattern is laid on, as it is seen lying up: the underside is turned over side to side, so
    that the front edge stays towards the maker."""

    def __init__(self, name: str) -> None:
        self.name = name
        self.upper = name == "upper face"
        self.sign = 1.0 if self.upper else -1.0

    def mouth(self, piece: Piece, leg: LegStance) -> Flat:
        """Where a leg's axis goes through this face, on the paper."""
        return self.at(*at_face(piece, leg, self.name))

    def at(self, x: float, y: float) -> Flat:
        """A place of the top frame on the paper."""
        return (self.sign * x, y)

    def bearing(self, turn: float) -> float:
        """A bearing of the top frame on the paper, degrees."""
        return turn if self.upper else 180.0 - turn


def top_patterns(piece: Piece, stance: Stance, show: Show) -> Iterator[Pattern]:
    """The outline with everything marked on it, one for each face legs are bored from, then what is laid on
    the blank."""
    faces = _faces(piece, stance)
    for name, legs in faces.items():
        face, first = Face(name), name == next(iter(faces))
        yield pattern(
            "top" if first else f"top.{name.replace(' ', '_')}",
            "top",
            f"The top, {name} up",
            (
                f"Lay it on the {name}, its words readable, FRONT towards you, the arrow along the grain.",
                "Prick the crosses through; draw round the outline.",
            ),
            (
                *_outline(piece, face),
                *(_holds(piece, face) if first else ()),
                *_mortises(piece, stance, face),
                *_legs(piece, legs, face, show),
            ),
        )
    ends = [(Face(name), end) for name, legs in faces.items() for end in _ends(piece, legs)]
    for k, (face, legs) in enumerate(ends, 1):
        yield _drilling(piece, stance, legs, face, show, k)


def _faces(piece: Piece, stance: Stance) -> dict[str, list[LegStance]]:
    """The faces legs are bored from, each with its own legs; the underside where there are none."""
    found: dict[str, list[LegStance]] = {}
    for leg in stance.legs:
        found.setdefault(marked_face(support_of(piece, leg)), []).append(leg)
    return found or {"underside": []}


def _outline(piece: Piece, face: Face) -> Iterator[Shape]:
    top = piece.top
    a, b = extent(top.outline)
    yield ring("outline", [face.at(*p) for p in points(top.outline)], part="top")
    yield line("axis", (-a, 0.0), (a, 0.0))
    yield line("axis", (0.0, -b), (0.0, b))
    yield from _seams(piece, face)
    yield from _grain(piece, face, (0.0, 0.45 * b), min(60.0, 0.35 * a))
    yield text("label", (4.0, -0.8 * b), "FRONT", anchor="start")
    yield text("label", (4.0, 0.8 * b), "BACK", anchor="start")
    yield text("label", (4.0, -4.0), face.name, anchor="start")


def _grain(piece: Piece, face: Face, at: Flat, half: float) -> list[Shape]:
    turn = face.bearing(piece.top.grain)
    u = (deg.cos(turn), deg.sin(turn))
    ends = [(at[0] + s * half * u[0], at[1] + s * half * u[1]) for s in (-1.0, 1.0)]
    return [*arrow("grain", ends[0], ends[1], 6.0), *arrow("grain", ends[1], ends[0], 6.0)[1:]]


def _seams(piece: Piece, face: Face) -> Iterator[Shape]:
    """The lines its boards are glued along, or the edges they have at their gap."""
    top = piece.top
    opened = slit(top)
    lines = opened or glue_lines(piece)
    if not lines:
        return
    shape = shapely.Polygon(points(top.outline))
    c, s = deg.cos(top.grain), deg.sin(top.grain)
    reach = sum(extent(top.outline)) * 2.0
    for over in lines:
        across = (-s * over, c * over)
        run = shapely.LineString(
            [
                (across[0] - c * reach, across[1] - s * reach),
                (across[0] + c * reach, across[1] + s * reach),
            ]
        )
        cut = run.intersection(shape)
        for part in getattr(cut, "geoms", [cut]):
            if part.geom_type == "LineString" and not part.is_empty:
                yield line("cut" if opened else "hidden", *(face.at(x, y) for x, y in part.coords))


def _holds(piece: Piece, face: Face) -> Iterator[Shape]:
    """Hand-holds: their outline, and the middles of their end holes."""
    for one in piece.top.hand_holds:
        yield ring("cut", [face.at(x, y) for x, y in slot(one).exterior.coords[:-1]])
        for x, y in end_holes(one):
            yield from cross_at(face.at(x, y))


def _mortises(piece: Piece, stance: Stance, face: Face) -> Iterator[Shape]:
    """Mortises for splines: as they come through this face, and dashed as through the other."""
    for one in splined(piece, stance):
        below, above = (one.inner, one.outer), (one.inner_up, one.outer_up)
        here, there = (above, below) if face.upper else (below, above)
        for sort, (near, far) in (("cut", here), ("hidden", there)):
            corners = ((near, one.low), (far, one.low), (far, one.high), (near, one.high))
            layer: Layer = "cut" if sort == "cut" else "hidden"
            yield ring(layer, [face.at(one.side * x, y) for x, y in corners])


def _legs(piece: Piece, legs: Sequence[LegStance], face: Face, show: Show) -> Iterator[Shape]:
    for leg in legs:
        part = f"leg.{leg.number}"
        at = face.mouth(piece, leg)
        yield from cross_at(at, part=part)
        rho, bearing = leg.boring.resultant, leg.boring.bearing
        mouth = (leg.bore.size / 2.0 / deg.cos(rho), leg.bore.across / 2.0)
        turn = face.bearing(bearing or 0.0)
        yield ellipse("solid", at, mouth, turn, part=part)
        said = f"leg {leg.number}"
        if bearing is None:
            yield words((at[0], at[1] + mouth[0] + 3.0), f"{said}, square", part)
            continue
        u = (deg.cos(turn), deg.sin(turn))
        tail = (at[0] - u[0] * SIGHTLINE_MM, at[1] - u[1] * SIGHTLINE_MM)
        tip = (at[0] + u[0] * SIGHTLINE_MM, at[1] + u[1] * SIGHTLINE_MM)
        yield from arrow("sightline", tail, tip, part=part)
        side = (at[0] - u[1] * (mouth[1] + 6.0), at[1] + u[0] * (mouth[1] + 6.0))
        yield words(side, f"{said}, {show.angle(rho).text}", part)


def _ends(piece: Piece, legs: Sequence[LegStance]) -> list[list[LegStance]]:
    """The legs that are bored from one pattern: all of a short top, those of either end of a long one."""
    if not legs:
        return []
    long = 2.0 * extent(piece.top.outline)[0]
    ends = [[leg for leg in legs if leg.socket[0] < 0.0], [leg for leg in legs if leg.socket[0] >= 0.0]]
    return [list(legs)] if long < LONG_MM else [end for end in ends if end]


def _drilling(
    piece: Piece, stance: Stance, legs: Sequence[LegStance], face: Face, show: Show, k: int
) -> Pattern:
    """What is laid on the blank while its edges are straight: centres, sightlines, and the blank's own
    edges and middle lines to lay it by."""
    a, b = extent(piece.top.outline)
    mouths = [face.mouth(piece, leg) for leg in legs]
    xs, ys = [x for x, _ in mouths], [y for _, y in mouths]
    box = shapely.box(min(xs) - ABOUT_MM, min(ys) - ABOUT_MM, max(xs) + ABOUT_MM, max(ys) + ABOUT_MM)
    # Out to the nearer end of the blank, so that the paper is laid to an edge and a line.
    if 2.0 * a >= LONG_MM:
        far = -a if sum(xs) < 0.0 else a
        box = shapely.box(min(box.bounds[0], far), box.bounds[1], max(box.bounds[2], far), box.bounds[3])
    shapes: list[Shape] = []
    edges = {
        "outline": ((-a, -b), (a, -b), (a, b), (-a, b), (-a, -b)),
        "axis": ((-a, 0.0), (a, 0.0)),
    }
    runs: list[tuple[str, Sequence[Flat]]] = [*edges.items(), ("axis", ((0.0, -b), (0.0, b)))]
    for layer, run in runs:
        cut = shapely.LineString(run).intersection(box)
        for piece_of in getattr(cut, "geoms", [cut]):
            if piece_of.geom_type == "LineString" and not piece_of.is_empty:
                shapes.append(line("outline" if layer == "outline" else "axis", *piece_of.coords))
    shapes += _legs(piece, legs, face, show)
    named = listed(f"leg {leg.number}" for leg in legs)
    x0, y0, x1, y1 = box.bounds
    shapes.append(words(((x0 + x1) / 2.0, y0 + 8.0), f"{named}, {face.name} up, FRONT this way"))
    shapes += _grain(piece, face, ((x0 + x1) / 2.0, y1 - 12.0), 25.0)
    which = "" if stance.legs == tuple(legs) else f", {named}"
    return pattern(
        f"drilling.{k}",
        "top",
        f"Drilling pattern{which}",
        (
            f"Lay it on the blank's {face.name} by its edges and middle lines, FRONT towards you.",
            "Prick each cross; the arrow shows the way the foot leans.",
        ),
        shapes,
    )


__all__ = ["Face", "area", "top_patterns"]
