"""The piece from the front, the side, above, below and a quarter, true to scale."""

from __future__ import annotations

import math

from splay.layout.placing import marked_face
from splay.piece import Drawn, Piece, Trough
from splay.quantity import degrees as deg
from splay.setups.groups import boring_groups
from splay.stance.staked import LegStance, Stance, support_of
from splay.stance.underfoot import bearings
from splay.stance.vectors import Flat
from splay.views.fixings import fixings
from splay.views.handles import elevation_handles
from splay.views.project import FRONT, PLAN, SIDE, UNDERSIDE, UPPER_FACE, Eye, eye_along, quarter_eye
from splay.views.scene import Model, Sight
from splay.views.shapes import Handle, Shape, View, area, ellipse, line, text

_LEAST_SIGHTLINE_MM = 60.0
_RING_MM = 24.0
_LEAST_ARC_DEG = 4.0
"""A smaller angle than this cannot be drawn apart from its line."""


def piece_view(model: Model, name: str, along: float | None) -> View:
    """One of the piece's views: front, side, plan, underside, quarter, or along a bearing (sight)."""
    if name == "sight" and along is not None:
        return elevation(model, eye_along(along), f"Looking in along {along % 360.0:.0f}°")
    if name == "front":
        return elevation(model, FRONT, "Front")
    if name == "side":
        return elevation(model, SIDE, "Side, from the right")
    if name == "plan":
        return plan_view(model, PLAN, "Plan, from above")
    if name == "underside":
        return plan_view(model, UNDERSIDE, "Underside up, front edge towards you")
    if name == "upper":
        return plan_view(model, UPPER_FACE, "Upper face up, front edge towards you")
    return quarter(model)


def faces_up(piece: Piece, stance: Stance) -> tuple[str, ...]:
    """The views of the top as it lies to be bored: the underside, the upper face, or both in turn."""
    above = {_from_above(piece, leg) for leg in stance.legs}
    return tuple(
        name for name, wanted in (("underside", False), ("upper", True)) if wanted in (above or {False})
    )


def _from_above(piece: Piece, leg: LegStance) -> bool:
    return marked_face(support_of(piece, leg)) == "upper face"


def elevation(model: Model, eye: Eye, title: str) -> View:
    """The piece on its level floor from the front or the side, with handles for foot and height."""
    sight = Sight(model, eye)
    legs = model.stance.legs
    shapes: list[Shape] = sight.solids()
    shapes.append(area("outline", sight.body, "top"))
    for k, leg in enumerate(legs):
        ends = (eye.see(model.place(leg.socket)), eye.see(leg.foot_floor))
        shapes.append(area("tenon", sight.tenons[k], _named(leg)))
        shapes.append(line("measured" if leg.measured else "axis", *ends, part=_named(leg)))
    shapes += _sizes(model, sight)
    return View(
        eye.name,
        title,
        _boxed(shapes, 0.04 * eye.see(model.seat)[1]),
        tuple(shapes),
        tuple(elevation_handles(model, sight)),
    )


def _named(leg: LegStance) -> str:
    return f"leg.{leg.number}"


def _sizes(model: Model, sight: Sight) -> list[Shape]:
    """Floor, plumb line through the seat, height and width over the feet."""
    seat = sight.eye.see(model.seat)
    rise, under = seat[1], model.piece.underfoot
    low = -under.thickness if under else 0.0
    feet = [x for end in sight.feet for x, _ in end] + [x for x, _ in sight.footprint]
    across = feet + [x for x, _ in sight.body]
    left, right = min(across), max(across)
    edge = left - 0.08 * rise
    sizes = [
        line("floor", (left - 0.14 * rise, low), (right + 0.08 * rise, low), part="floor"),
        *_underfoot(model, sight.eye),
        *fixings(model, sight.eye),
        line("axis", (seat[0], -0.02 * rise), (seat[0], 1.05 * rise)),
        line("dimension", (edge, low), (edge, rise)),
        line("dimension", (edge - 0.02 * rise, rise), (seat[0], rise)),
        text("dimension", (edge - 0.02 * rise, rise / 2), model.show.length(rise - low).text, turn=90.0),
    ]
    # A cut-out as wide as its board leaves it no foot: that is said, and the rest is still drawn.
    return sizes + (_over_the_feet(model, min(feet), max(feet), rise) if feet else [])


def _underfoot(model: Model, eye: Eye) -> list[Shape]:
    """What is under the feet, seen from the side: as wide and as thick as it is."""
    under = model.piece.underfoot
    if under is None:
        return []
    made = []
    for one in bearings(model.piece, model.stance):
        x = eye.see((*one.at, 0.0))[0]
        half, t = under.across / 2.0, under.thickness
        made.append(
            area("board", ((x - half, 0.0), (x - half, -t), (x + half, -t), (x + half, 0.0)), one.part)
        )
    return made


def _over_the_feet(model: Model, low: float, high: float, rise: float) -> list[Shape]:
    drop = -0.07 * rise
    return [
        line("dimension", (low, drop), (high, drop)),
        line("dimension", (low, drop - 0.02 * rise), (low, 0.0)),
        line("dimension", (high, drop - 0.02 * rise), (high, 0.0)),
        text("dimension", ((low + high) / 2, drop - 0.055 * rise), model.show.length(high - low).text),
    ]


def plan_view(model: Model, eye: Eye, title: str) -> View:
    """The piece from above or with its underside up: sockets, sightlines, feet, what is warned of."""
    sight = Sight(model, eye)
    legs = model.stance.legs
    a, b = model.half
    shapes = sight.solids()
    shapes.append(area("outline", sight.outline(model.rim), "top"))
    above = eye is not UNDERSIDE
    edge = model.piece.top.upper_edge if above else model.piece.top.lower_edge
    if edge.inward > 0.0:
        ring = sight.outline(model.upper if above else model.lower)
        shapes.append(line("hidden", *ring, ring[0], part="top"))
    shapes += _grain(model, eye)
    for ends in (
        ((-a - 15, 0.0, 0.0), (a + 15, 0.0, 0.0)),
        ((0.0, -b - 15, 0.0), (0.0, b + 15, 0.0)),
    ):
        shapes.append(line("axis", *(eye.see(model.place(end)) for end in ends)))
    if eye is PLAN:
        shapes.append(area("footprint", sight.footprint))
    for k, leg in enumerate(legs):
        shapes += _leg_in_plan(model, sight, k, leg)
    shapes += fixings(model, eye)
    shapes += _warned(model, eye)
    if eye is not PLAN:
        for group in boring_groups(model.stance):
            if _from_above(model.piece, group.first) == (eye is UPPER_FACE):
                shapes += _both_lines(model, eye, group.first)
    handles = []
    if eye is PLAN:
        for leg in legs:
            n, at = leg.number, eye.see(model.place(leg.socket))
            handles.append(Handle("socket", n, at, f"socket of leg {n}"))
            handles.append(Handle("foot", n, eye.see(leg.foot_floor), f"foot of leg {n}"))
        outline = model.piece.top.outline
        for k, corner in enumerate(outline.corners if isinstance(outline, Drawn) else ()):
            at = eye.see(model.place((corner.x, corner.y, 0.0)))
            handles.append(Handle("corner", k + 1, at, f"corner {k + 1} of the outline"))
    else:
        shapes += _words(model, eye)
    # LEFT and RIGHT stand beyond the seat's ends and want room for the whole word.
    margin = (0.05 if eye is PLAN else 0.1) * max(a, b)
    return View(eye.name, title, _boxed(shapes, margin), tuple(shapes), tuple(handles))


def _words(model: Model, eye: Eye) -> list[Shape]:
    """FRONT, BACK, LEFT and RIGHT where they are written on the face that is up, at its lines' ends."""
    a, b = model.half
    room = 0.1 * max(a, b) + 8
    made: list[Shape] = []
    for word, spot in (
        ("FRONT", (0.0, -b - room, 0.0)),
        ("BACK", (0.0, b + room, 0.0)),
        ("LEFT", (-a - room, 0.0, 0.0)),
        ("RIGHT", (a + room, 0.0, 0.0)),
    ):
        x, y = eye.see(model.place(spot))
        made.append(text("label", (x, y + 8), word))
    return made


def _both_lines(model: Model, eye: Eye, leg: LegStance) -> list[Shape]:
    """The sightline's angle from the left-right and the front-back line, drawn at the socket."""
    lean = leg.boring
    if lean.bearing is None or lean.from_side is None or lean.from_centre is None:
        return []
    x, y = _entered(model, eye, leg)
    half = leg.bore.size
    made: list[Shape] = []
    side = 0.0 if deg.cos(lean.bearing) >= 0 else 180.0
    centre = 90.0 if deg.sin(lean.bearing) >= 0 else 270.0
    for line_at, size, radius in ((side, lean.from_side, 1.9), (centre, lean.from_centre, 2.5)):
        if size < _LEAST_ARC_DEG:
            continue
        reach = radius * half
        turn = deg.signed(lean.bearing - line_at)
        marks = [line_at + turn * k / 8 for k in range(9)]
        arc = [eye.see(model.place((x + reach * deg.cos(m), y + reach * deg.sin(m), 0.0))) for m in marks]
        out = reach * 1.2
        ends = ((x, y, 0.0), (x + out * deg.cos(line_at), y + out * deg.sin(line_at), 0.0))
        label = line_at + turn * 0.45
        far = reach + 0.75 * half
        at = (x + far * deg.cos(label), y + far * deg.sin(label), 0.0)
        made += [
            line("dimension", *arc),
            line("dimension", *(eye.see(model.place(end)) for end in ends)),
            text("dimension", eye.see(model.place(at)), model.show.angle(size).text),
        ]
    return made


def _entered(model: Model, eye: Eye, leg: LegStance) -> Flat:
    """Where a leg's hole comes out of the face that is looked at."""
    if eye is not UPPER_FACE:
        return leg.place.at
    k = model.stance.legs.index(leg)
    return model.sockets[k].exit_at


def _warned(model: Model, eye: Eye) -> list[Shape]:
    """A ring round each place something was found at."""
    return [
        ellipse(
            "warning",
            eye.see(model.place((*finding.at, 0.0))),
            (_RING_MM, _RING_MM),
            part=f"leg.{finding.legs[0]}" if finding.legs else "top",
        )
        for finding in model.findings
        if finding.at is not None and finding.level != "note"
    ]


def _grain(model: Model, eye: Eye) -> list[Shape]:
    """Three short strokes along the grain, clear of the middle lines."""
    bearing, (a, b) = model.piece.top.grain, model.half
    c, s = deg.cos(bearing), deg.sin(bearing)
    small = min(a, b)
    made = []
    for off, reach in ((-0.09, 0.16), (0.0, 0.24), (0.09, 0.16)):
        x, y = -s * off * small - 0.3 * a, c * off * small + 0.3 * b
        ends = ((x + i * reach * small * c, y + i * reach * small * s, 0.0) for i in (-1.0, 1.0))
        made.append(line("grain", *(eye.see(model.place(end)) for end in ends)))
    return made


def _leg_in_plan(model: Model, sight: Sight, k: int, leg: LegStance) -> list[Shape]:
    eye, part, lean = sight.eye, _named(leg), leg.boring
    at, foot = eye.see(model.place((*_entered(model, eye, leg), 0.0))), eye.see(leg.foot_floor)
    half = leg.bore.size / 2
    mouth = (half / deg.cos(lean.resultant), half)
    bearing = lean.bearing or 0.0
    turned = 180.0 - bearing if eye is UNDERSIDE else bearing
    other = leg.place.at if eye is UPPER_FACE else model.sockets[k].exit_at
    away = eye.see(model.place((*other, 0.0)))
    made = [
        area("foot", sight.feet[k], part),
        ellipse("section", at, mouth, turned, part),
        ellipse("hidden", away, mouth, turned, part),
    ]
    run = math.dist(at, foot)
    if eye is not PLAN and _from_above(model.piece, leg) != (eye is UPPER_FACE):
        # Bored from the other face: there its centre and its sightline are marked.
        return [*made[:1], made[2], text("label", (away[0], away[1] + half + 14), str(leg.number), part)]
    if lean.bearing is None or run < 1e-6:
        return [*made, text("label", (at[0], at[1] + half + 14), str(leg.number), part)]
    u = ((foot[0] - at[0]) / run, (foot[1] - at[1]) / run)
    if eye is not PLAN:
        # On the seat itself, whatever its floor does: the line that is marked on it.
        x, y = _entered(model, eye, leg)
        tip = eye.see(model.place((x + deg.cos(bearing), y + deg.sin(bearing), 0.0)))
        size = math.dist(at, tip)
        u = ((tip[0] - at[0]) / size, (tip[1] - at[1]) / size)
    # Drawn long enough to lay a gauge on, whatever the lean.
    out, back = max(run * 1.25, _LEAST_SIGHTLINE_MM), max(run * 0.35, 0.6 * _LEAST_SIGHTLINE_MM)
    ends = ((at[0] - u[0] * back, at[1] - u[1] * back), (at[0] + u[0] * out, at[1] + u[1] * out))
    made.append(line("sightline", *ends, part=part))
    tip, barb = ends[1], 0.16 * out
    for side in (0.4, -0.4):
        back_x = tip[0] - barb * (u[0] - side * u[1])
        back_y = tip[1] - barb * (u[1] + side * u[0])
        made.append(line("pointer", tip, (back_x, back_y), part=part))
    label = (at[0] + u[0] * (out + 14), at[1] + u[1] * (out + 14))
    return [*made, text("label", label, str(leg.number), part)]


def quarter(model: Model) -> View:
    """From the front, a little to the right and above: how the piece will look, for the rack."""
    sight = Sight(model, quarter_eye())
    legs = model.stance.legs
    shapes: list[Shape] = sight.solids()
    shapes.append(area("solid", sight.body, "top"))
    shapes.append(area("solid", sight.outline(model.upper), "top"))
    if model.piece.top.hollow is not None:
        shapes += [line("hidden", *ring) for ring in hollow_rings(model, sight.eye)]
    for k, leg in enumerate(legs):
        if model.sockets[k].through:
            shapes.append(area("section", sight.tenon_ends[k], _named(leg)))
    return View("quarter", "From the front right", _boxed(shapes, 12.0), tuple(shapes))


def _boxed(shapes: list[Shape], margin: float) -> tuple[float, float, float, float]:
    xs = [x for shape in shapes for x, _ in shape.points]
    ys = [y for shape in shapes for _, y in shape.points]
    return (min(xs) - margin, min(ys) - margin, max(xs) + margin, max(ys) + margin)


def hollow_rings(model: Model, eye: Eye) -> list[tuple[Flat, ...]]:
    """Where the hollow begins, on the upper face: a ring for a dish, two lines for a trough."""
    cut, t = model.piece.top.hollow, model.piece.top.thickness
    if cut is None:
        return []
    if isinstance(cut, Trough):
        a, b = model.half
        half = min(cut.chord / 2, a if cut.across == "length" else b)
        ends = []
        for i in (-half, half):
            run = ((i, -b), (i, b)) if cut.across == "length" else ((-a, i), (a, i))
            ends.append(tuple(eye.see(model.place((*p, t))) for p in run))
        return ends
    turns = [5.0 * k for k in range(73)]
    ring = ((cut.length / 2 * deg.cos(w), cut.width / 2 * deg.sin(w), t) for w in turns)
    return [tuple(eye.see(model.place(p)) for p in ring)]
