"""The order of marking out: face, centre lines, outline, legs, sightlines, hollow, cross-checks."""

from __future__ import annotations

import math
from dataclasses import dataclass
from itertools import combinations

from splay.layout.marks import Mark, arc, cross, line, point
from splay.layout.outlines import strike
from splay.piece import Battened, Circle, Free, Insets, Piece, SlabLeg, StakedLegs, Triangle, Trough
from splay.quantity import Figure, Show
from splay.quantity import degrees as deg
from splay.stance.hollow import arc_radius
from splay.stance.outline import edge_distance, extent
from splay.stance.slab_leg import slab_mitre
from splay.stance.staked import LegStance, Stance

RULE_MM = 200.0
"""Run along a line over which a sightline's offset is given, so that a rule sets it."""
MOST_CHECKS = 12


@dataclass(frozen=True)
class Step:
    """One step: what is done, the distances to set, and what it draws."""

    title: str
    words: str
    figures: tuple[Figure, ...]
    marks: tuple[Mark, ...]


@dataclass(frozen=True)
class Check:
    """One cross-check: the distance between two marks, or a mark and the edge, and its proof's id."""

    id: str
    legs: tuple[int, ...]
    figure: Figure


@dataclass(frozen=True)
class Layout:
    """The whole marking-out: the face it is done on, the steps, the cross-checks."""

    face: str
    steps: tuple[Step, ...]
    checks: tuple[Check, ...]


def lay_out(piece: Piece, stance: Stance, show: Show) -> Layout:
    """Mark out the underside, which will not show, before any edge is shaped or hollowed."""
    a, b = extent(piece.top.outline)
    shaped = piece.top.hollow is not None or piece.top.upper_edge.way != "square"
    before = "before any edge is rounded or any hollow cut" if shaped else "before any edge is rounded"
    steps = [
        Step(
            "Choose the face and draw the centre lines",
            f"The underside, which will not show, {before}. Draw the grain arrow and write 'front'.",
            (),
            (line((-1.08 * a, 0.0), (1.08 * a, 0.0)), line((0.0, -1.08 * b), (0.0, 1.08 * b))),
        )
    ]
    steps += _boards(piece, show)
    steps.append(Step(*strike(piece, show)))
    for index, support in enumerate(piece.supports):
        legs = tuple(leg for leg in stance.legs if leg.support == index)
        if isinstance(support, StakedLegs):
            steps.append(_placing(piece, support, legs, show))
            steps += _battens(support, stance, index, show)
            steps.append(_sightlines(legs, show))
        elif isinstance(support, SlabLeg):
            steps.append(_mitre(piece, support, show))
    steps += _frames(stance)
    steps += _shaping(piece, show)
    return Layout("underside", tuple(steps), _checks(piece, stance, show))


def _boards(piece: Piece, show: Show) -> list[Step]:
    lines = glue_lines(piece)
    if not lines:
        return []
    c, s = deg.cos(piece.top.grain), deg.sin(piece.top.grain)
    a, b = extent(piece.top.outline)
    reach = math.hypot(a, b)
    marks = tuple(
        line((-reach * c - off * s, -reach * s + off * c), (reach * c - off * s, reach * s + off * c))
        for off in lines
    )
    total = sum(piece.top.boards)
    figure = show.figure(
        "layout.boards",
        "Boards together, across the grain",
        total,
        "sum of the widths",
        show.input("n", "boards", len(piece.top.boards), "count"),
    )
    return [Step("Note the glue lines", "Keep legs and screws clear of them.", (figure,), marks)]


def glue_lines(piece: Piece) -> tuple[float, ...]:
    """Where the boards meet: offset from the middle across the grain, to the left of its bearing, mm."""
    boards = piece.top.boards
    if len(boards) < 2:
        return ()
    at, made = -sum(boards) / 2.0, []
    for width in boards[:-1]:
        at += width
        made.append(at)
    return tuple(made)


def _placing(piece: Piece, support: StakedLegs, legs: tuple[LegStance, ...], show: Show) -> Step:
    way = support.placement
    spots = tuple(
        m for leg in legs for m in (*cross(leg.place.at, 7.0), point(leg.place.at, str(leg.number)))
    )
    if isinstance(way, Circle | Triangle):
        return _ring(way, legs, spots, show)
    if isinstance(way, Insets):
        a, b = extent(piece.top.outline)
        x, y = a - way.from_ends, b - way.from_edges
        rows = tuple(line((-a, j), (a, j)) for j in (-y, y)) + tuple(line((i, -b), (i, b)) for i in (-x, x))
        figures = (
            show.figure(
                "layout.from_ends",
                "Gauge in from each end",
                way.from_ends,
                "as chosen",
                show.input("e", "from the ends", way.from_ends),
            ),
            show.figure(
                "layout.from_edges",
                "Gauge in from front and back",
                way.from_edges,
                "as chosen",
                show.input("f", "from the edges", way.from_edges),
            ),
        )
        words = "Gauge from the straight edges while they are there; prick where the lines cross."
        return Step("Place the legs", words, figures, (*rows, *spots))
    assert isinstance(way, Free)
    placed = tuple(
        show.figure(
            f"layout.place.{leg.number}",
            f"Leg {leg.number}: {show.length(abs(leg.place.at[0])).text} "
            f"{'right' if leg.place.at[0] >= 0 else 'left'}, "
            f"{'back' if leg.place.at[1] >= 0 else 'front'} by",
            abs(leg.place.at[1]),
            "from the centre lines",
            show.input("x", "from the front-to-back line", leg.place.at[0]),
            show.input("y", "from the side-to-side line", leg.place.at[1]),
        )
        for leg in legs
    )
    words = "From the centre lines; mirrored partners with the same setting of the compasses."
    return Step("Place the legs", words, placed, spots)


def _ring(way: Circle | Triangle, legs: tuple[LegStance, ...], spots: tuple[Mark, ...], show: Show) -> Step:
    """Step the chord 2 R sin(180/n) round; three and six legs need the radius alone."""
    count = way.count if isinstance(way, Circle) else 3
    radius = math.hypot(*legs[0].place.at)
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
    if count == 3:
        words = "Leave the compasses as they are: step round six times, every second mark is a leg."
        extra = tuple(m for k in range(6) for m in cross(_on(radius, legs[0], 60.0 * k), 4.0))
    elif count == 6:
        words = "Leave the compasses as they are: step round, every mark is a leg."
        extra = ()
    elif count == 4:
        words = "A line through the middle from leg 1, another square to it."
        extra = (
            line(legs[0].place.at, legs[2].place.at),
            line(legs[1].place.at, legs[3].place.at),
        )
    else:
        words = "Set the compasses to the chord and step it round; it must close on leg 1."
        extra = ()
    start = legs[0].place.at
    out = (start[0] * 1.25, start[1] * 1.25)
    marks = (arc((0.0, 0.0), radius), line((0.0, 0.0), out), *extra, *spots)
    return Step("Place the legs", words, (circle, step), marks)


def _on(radius: float, leg: LegStance, turn: float) -> tuple[float, float]:
    first = deg.atan2(leg.place.at[1], leg.place.at[0])
    return (radius * deg.cos(first + turn), radius * deg.sin(first + turn))


def _sightlines(legs: tuple[LegStance, ...], show: Show) -> Step:
    """Each sightline by its angle, and by a rule: so much over for so much along the side line."""
    figures, marks = [], []
    for leg in legs:
        lean, (x, y) = leg.boring, leg.place.at
        if lean.bearing is None or lean.from_side is None or lean.from_centre is None:
            continue
        c, s = deg.cos(lean.bearing), deg.sin(lean.bearing)
        marks.append(line((x - 40 * c, y - 40 * s), (x + 110 * c, y + 110 * s), text=str(leg.number)))
        steep = lean.from_side > 45.0
        angle = lean.from_centre if steep else lean.from_side
        along = "centre line" if steep else "side line"
        figures.append(
            show.figure(
                f"layout.sightline.{leg.number}",
                f"Leg {leg.number}: for {show.length(RULE_MM).text} along the {along}, over by",
                RULE_MM * deg.tan(angle),
                "run · tan a",
                show.input("run", f"along the {along}", RULE_MM),
                show.input("a", f"sightline from the {along}", angle, "deg"),
            )
        )
    words = (
        "Through each leg's centre, long enough to lay a gauge on: the leg will lean along it."
        if figures
        else "No sightlines: these legs stand square to the top."
    )
    return Step("Draw the sightlines", words, tuple(figures), tuple(marks))


def _battens(support: StakedLegs, stance: Stance, index: int, show: Show) -> list[Step]:
    if not isinstance(support.joint, Battened):
        return []
    marks, figures = [], []
    for body in stance.bodies:
        if body.support != index or body.role != "batten":
            continue
        low, high = body.at(0.0, 0.0)
        half = body.width / 2
        ring = tuple(
            body.pose.out((x, y, 0.0))[:2]
            for x, y in ((low, -half), (high, -half), (high, half), (low, half), (low, -half))
        )
        marks.append(line(*ring))
        figures.append(
            show.figure(
                f"layout.{body.key}",
                f"{body.name.capitalize()}, long",
                high - low,
                "legs apart + both ends",
                show.input("e", "beyond the legs", support.joint.end),
            )
        )
    words = (
        "Square across the grain. One round hole in the middle, slots along the batten for the "
        "outer screws: the top moves across its grain."
    )
    return [Step("Place the battens", words, tuple(figures), tuple(marks))]


def _mitre(piece: Piece, support: SlabLeg, show: Show) -> Step:
    """The mitre's line on both faces: at the end above, that much in below."""
    mitre = slab_mitre(piece, support)
    b = extent(piece.top.outline)[1]
    x = mitre.offset / mitre.normal[0]
    over = extent(piece.top.outline)[0]
    figure = show.figure(
        "layout.mitre",
        "Mitre's line on the underside, in from the show corner",
        over - abs(x),
        "t · tan ((90° − s) / 2)",
        show.input("t", "thickness", piece.top.thickness),
        show.input("s", "splay of the slab leg", support.splay, "deg"),
    )
    words = "Square across; knife it on both faces and both edges before the saw touches it."
    return Step(f"Knife the mitre at the {support.end}", words, (figure,), (line((x, -b), (x, b)),))


def _frames(stance: Stance) -> list[Step]:
    """Where legs and sides of square stock meet the underside."""
    rings = []
    for body in stance.bodies:
        if not body.stands or body.role not in {"leg", "side"}:
            continue
        for face in body.plain:
            turned = body.pose.turn_out(face.normal)
            if turned[2] > 0.999:
                ring = [body.pose.out(p) for p in face.corners]
                rings.append(line(*((p[0], p[1]) for p in (*ring, ring[0]))))
    if not rings:
        return []
    words = (
        "Set the finished undercarriage on its marks, trace round it, and screw or dowel inside the lines."
    )
    return [Step("Mark where the undercarriage sits", words, (), tuple(rings))]


def _shaping(piece: Piece, show: Show) -> list[Step]:
    hollow = piece.top.hollow
    if hollow is None:
        return []
    if isinstance(hollow, Trough):
        radius = arc_radius(hollow.chord, hollow.depth)
        half, (a, b) = hollow.chord / 2, extent(piece.top.outline)
        marks = tuple(
            line((i * half, -b), (i * half, b))
            if hollow.across == "length"
            else line((-a, i * half), (a, i * half))
            for i in (-1.0, 1.0)
        )
        chord = hollow.chord
    else:
        radius = arc_radius(hollow.length, hollow.depth)
        ring = arc((0.0, 0.0), 1.0).points
        marks = (Mark("arc", tuple((hollow.length / 2 * x, hollow.width / 2 * y) for x, y in ring)),)
        chord = hollow.length
    figure = show.figure(
        "layout.hollow",
        "Radius of the hollow's template",
        radius,
        "(c² / 4 + g²) / (2 · g)",
        show.input("c", "chord", chord),
        show.input("g", "depth", hollow.depth),
    )
    words = "On the upper face, after boring. Strike the template on thin stuff and try it as you go."
    return [Step("Mark where the hollow begins", words, (figure,), marks)]


def _checks(piece: Piece, stance: Stance, show: Show) -> tuple[Check, ...]:
    """Leg to leg, diagonals, and each leg to the edge where the edge is not bark."""
    made = []
    for one, two in combinations(stance.legs, 2):
        apart = math.dist(one.place.at, two.place.at)
        made.append(
            Check(
                f"mark.{one.number}.{two.number}",
                (one.number, two.number),
                show.figure(
                    f"check.{one.number}.{two.number}",
                    f"Leg {one.number} to leg {two.number}",
                    apart,
                    "centre to centre",
                    show.input("c", "between the marks", apart),
                ),
            )
        )
    made = made[:MOST_CHECKS]
    if piece.top.bark:
        return tuple(made)
    for leg in stance.legs[:MOST_CHECKS]:
        edge = edge_distance(piece.top.outline, leg.place.at)
        made.append(
            Check(
                f"mark.{leg.number}.edge",
                (leg.number,),
                show.figure(
                    f"check.{leg.number}.edge",
                    f"Leg {leg.number} to the nearest edge",
                    edge,
                    "least distance to the outline",
                    show.input("e", "to the edge", edge),
                ),
            )
        )
    return tuple(made)
