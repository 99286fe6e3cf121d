"""What a drag on a drawing changes: the piece, in the way its maker had written it."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Any, Literal

from splay.document import Length
from splay.errors import BadInput, CannotBuild, Fault
from splay.paths import into, steps
from splay.piece import (
    Circle,
    Drawn,
    Footprint,
    Free,
    Insets,
    Piece,
    Resultant,
    SlabLeg,
    Spec,
    SplayRake,
    StakedLegs,
    Triangle,
    read_piece,
    straight_end,
    write_piece,
)
from splay.piece.tops import END_MM
from splay.quantity import degrees as deg
from splay.stance.aim import foot_reach, outward
from splay.stance.board_sides import front_corner
from splay.stance.contacts import on_floor
from splay.stance.handled import Handled
from splay.stance.holds import holds
from splay.stance.lean import LeanAngles, lean_of
from splay.stance.members import members
from splay.stance.outline import extent
from splay.stance.slab_leg import edge_spots, on_face
from splay.stance.staked import LegStance, Stance, spec_index, stand, support_of
from splay.stance.vectors import Flat, Vec, between, unit

SNAP_DEG = 0.1
_LEAN_SNAP_DEG = 0.5


STEEPEST_DEG = 45.0


@dataclass(frozen=True)
class Move:
    """A handle of a view dragged to `to`, in that view's own coordinates, mm.

    `leg` is the number of the leg, member, corner place on an edge or size of a part, or of the
    support from 0.
    """

    moves: Handled
    view: Literal["front", "side", "plan"]
    to: Flat
    leg: int = 0


def move(piece: Piece, to: Move, snap_mm: float) -> Piece:
    """The piece after a drag; lengths settle on `snap_mm`, angles on a tenth of a degree.

    BadInput where the handle is not on the piece or the result is no possible piece.
    """
    document = write_piece(piece)
    if to.moves == "height":
        # The drawing stands on the sawn feet.
        document["height"] = _snap(to.to[1] + piece.height - piece.stands, snap_mm)
    elif to.moves == "lean":
        document["lean"] = _lean(piece, to.to)
    elif to.moves == "member":
        _member(piece, to, document, snap_mm)
    elif to.moves == "frame":
        _frame(piece, to, document)
    elif to.moves == "corner":
        _corner(piece, to, document, snap_mm)
    elif to.moves == "edge":
        _edge(piece, to, document, snap_mm)
    elif to.moves == "tread":
        _tread(piece, to, document, snap_mm)
    elif to.moves == "size":
        _size(piece, to, document, snap_mm)
    else:
        stance = stand(piece)
        if not 1 <= to.leg <= len(stance.legs):
            allowed = f"1 to {len(stance.legs)}"
            raise BadInput(Fault("moves.leg", str(to.leg), allowed, "Take hold of a leg there is."))
        leg = stance.legs[to.leg - 1]
        support = document["supports"][leg.support]
        if to.moves == "foot":
            _foot(piece, stance, leg, to, support, snap_mm)
        else:
            at = stance.floor.turn_back((*to.to, 0.0))
            _socket(piece, leg, _on_underside(stance, to.to, at), support, snap_mm)
    return read_piece(document)


def _snap(value: float, step: float) -> float:
    return round(value / step) * step


def _lean(piece: Piece, to: Flat) -> dict[str, float]:
    """The seat's fall to the back for its back edge held at `to` in the side view."""
    t, seat_z = piece.top.thickness, piece.stands
    fall, toward = piece.lean.fall, piece.lean.toward
    # Plumb shift of the seat's middle: the top turns about the middle of its underside.
    shift = t * deg.sin(fall) * (1.0 if toward == 90.0 else -1.0)
    angle = math.degrees(math.atan2(seat_z - to[1], max(to[0] - shift, 1.0)))
    angle = _snap(max(-30.0, min(30.0, angle)), _LEAN_SNAP_DEG)
    return {"fall": abs(angle), "toward": 90.0 if angle >= 0 else 270.0}


def _on_underside(stance: Stance, to: Flat, level: Vec) -> Flat:
    """Where the plumb line through a point of the plan meets the underside, top frame."""
    n = stance.floor.normal
    drop = level[2] / n[2]
    return (level[0] - drop * n[0], level[1] - drop * n[1])


def _foot(
    piece: Piece,
    stance: Stance,
    leg: LegStance,
    to: Move,
    support: dict[str, Any],
    snap_mm: float,
) -> None:
    x, y = leg.foot_floor[:2]
    target = {"front": (to.to[0], y), "side": (x, to.to[0]), "plan": to.to}[to.view]
    d = unit(between(leg.socket, stance.floor.from_floor((*target, 0.0))))
    if -sum(a * b for a, b in zip(stance.floor.normal, d, strict=True)) < 0.5:
        raise CannotBuild(
            "That foot is further out than a leg can lean.", "Let it stand nearer.", "supports"
        )
    model = support_of(piece, leg)
    index = spec_index(model, leg.index, leg.pair)
    spec = model.angles[index]
    support["angles"][index] = _respelt(spec, model, stance, leg, d, target, snap_mm)


def _respelt(
    spec: Spec,
    model: StakedLegs,
    stance: Stance,
    leg: LegStance,
    d: Vec,
    target: Flat,
    snap_mm: float,
) -> dict[str, Any]:
    """A direction in the words the maker used: splay and rake, resultant, or a footprint."""
    lean = lean_of(d)
    across, back = outward(leg.socket[0]), outward(leg.socket[1])
    ring = isinstance(model.placement, Circle | Triangle)
    if isinstance(spec, Footprint):
        u: Flat = (across, 0.0)
        long = stance.floor.reach(leg.socket, d)
        if ring:
            size = math.hypot(*target)
            u = (target[0] / size, target[1] / size) if size else u
            wide = 2 * (size + foot_reach(model.leg, d, stance.floor, u, long))
            return {**spec.model_dump(), "width": _snap(wide, snap_mm)}
        right, behind = (math.copysign(1.0, target[0]), 0.0), (0.0, math.copysign(1.0, target[1]))
        wide = 2 * (abs(target[0]) + foot_reach(model.leg, d, stance.floor, right, long))
        deep = 2 * (abs(target[1]) + foot_reach(model.leg, d, stance.floor, behind, long))
        return {**spec.model_dump(), "width": _snap(wide, snap_mm), "depth": _snap(deep, snap_mm)}
    if isinstance(spec, SplayRake) or (not isinstance(spec, Resultant) and not ring):
        return {
            "by": "splay_rake",
            "splay": _tenth(lean.splay * across),
            "rake": _tenth(lean.rake * back),
        }
    reference = spec.measured_from if isinstance(spec, Resultant) else "out"
    return {
        "by": "resultant",
        "resultant": _tenth(lean.resultant),
        "sightline": _tenth(_sightline(lean, reference, leg, across, back)),
        "measured_from": reference,
    }


def _sightline(lean: LeanAngles, reference: str, leg: LegStance, across: float, back: float) -> float:
    if lean.bearing is None:
        return 0.0
    if reference == "bearing":
        return lean.bearing
    if reference == "out":
        return deg.signed(lean.bearing - deg.atan2(leg.socket[1], leg.socket[0]))
    # Mirrored into the outward quarter: an inward lean comes out past 90 degrees.
    x, y = deg.cos(lean.bearing) * across, deg.sin(lean.bearing) * back
    from_side = deg.signed(deg.atan2(y, x))
    return from_side if reference == "side" else deg.signed(90.0 - from_side)


def _tenth(value: float) -> float:
    return round(round(value / SNAP_DEG) * SNAP_DEG, 6)


def _socket(piece: Piece, leg: LegStance, at: Flat, support: dict[str, Any], snap_mm: float) -> None:
    way = support_of(piece, leg).placement
    place = support["placement"]
    entry = leg.place.entry
    if isinstance(way, Circle | Triangle):
        count = way.count if isinstance(way, Circle) else 3
        radius = math.hypot(*at)
        place["first"] = deg.signed(round(deg.atan2(at[1], at[0]) - 360.0 / count * entry))
        name, size = ("radius", radius) if isinstance(way, Circle) else ("side", radius * math.sqrt(3))
        place[name] = _snap(size, snap_mm)
    elif isinstance(way, Insets):
        a, b = extent(piece.top.outline)
        place["from_ends"] = max(5.0, _snap(a - abs(at[0]), snap_mm))
        place["from_edges"] = max(5.0, _snap(b - abs(at[1]), snap_mm))
    elif isinstance(way, Free):
        spot = place["spots"][entry]
        spot["x"] = _snap(at[0] * leg.place.across, snap_mm)
        spot["y"] = _snap(at[1] * leg.place.back, snap_mm)


def _member(piece: Piece, to: Move, document: dict[str, Any], snap_mm: float) -> None:
    """Both ends (or the rope) go up or down by as much as the handle went."""
    if not 1 <= to.leg <= len(piece.members):
        allowed = f"1 to {len(piece.members)}"
        raise BadInput(Fault("moves.leg", str(to.leg), allowed, "Take hold of a stretcher there is."))
    stance = stand(piece)
    runs, ropes = members(piece, stance)
    points = [end.at for run in runs if run.number == to.leg for end in run.ends]
    points += [p for rope in ropes if rope.number == to.leg for p in rope.points]
    here = sum(stance.floor.to_floor(p)[2] for p in points) / len(points)
    rise = _snap(to.to[1] - here, snap_mm)
    entry = document["members"][to.leg - 1]
    levels = [entry["level"]] if "level" in entry else [e["level"] for e in entry["ends"] if "level" in e]
    for level in levels:
        up = 1.0 if level["by"] == "height" else -1.0
        level["value"] = max(1.0, _snap(level["value"] + up * rise, snap_mm))


def _frame(piece: Piece, to: Move, document: dict[str, Any]) -> None:
    """A frame's splay (front view) or rake (side view) for its foot dragged in or out."""
    stance = stand(piece)
    standing = [body for body in stance.bodies if body.support == to.leg and body.stands]
    field = "rake" if to.view == "side" else "splay"
    if not standing or field not in document["supports"][to.leg]:
        allowed = "a frame that leans that way"
        raise BadInput(Fault("moves.leg", str(to.leg), allowed, "Take hold of another foot."))
    axis = 1 if to.view == "side" else 0
    spots = [p[axis] for body in standing for p in on_floor(body, stance.floor)]
    here = max(abs(p) for p in spots)
    old = document["supports"][to.leg][field]
    slope = deg.tan(old) + (abs(to.to[0]) - here) / stance.floor.h0_mm
    document["supports"][to.leg][field] = min(STEEPEST_DEG, max(0.0, _tenth(deg.atan(slope))))


def _tread(piece: Piece, to: Move, document: dict[str, Any], snap_mm: float) -> None:
    """A lower tread by its front upper corner in the side view: how far down, and how far forward."""
    there = next(((sides, lower) for index, sides, lower in piece.treads() if index == to.leg), None)
    if there is None:
        do = "Take hold of a lower tread."
        raise BadInput(Fault("moves.leg", str(to.leg), "a support with a lower tread", do))
    support, lower = there
    floor = stand(piece).floor
    here = floor.to_floor(front_corner(support))
    # As far as the pointer went, in the top's own directions: back, and up.
    _, back, up = floor.turn_back((0.0, to.to[0] - here[1], to.to[1] - here[2]))
    made = document["supports"][to.leg]["lower"]
    made["drop"] = max(20.0, _snap(lower.drop - up, snap_mm))
    made["board"] = max(20.0, _snap(lower.board - back, snap_mm))


def _corner(piece: Piece, to: Move, document: dict[str, Any], snap_mm: float) -> None:
    outline = piece.top.outline
    if not isinstance(outline, Drawn) or not 1 <= to.leg <= len(outline.corners):
        raise BadInput(Fault("moves.leg", str(to.leg), "a corner there is", "Take hold of a corner."))
    stance = stand(piece)
    x, y = _on_underside(stance, to.to, stance.floor.turn_back((*to.to, 0.0)))
    corners = document["top"]["outline"]["corners"]
    here = outline.corners[to.leg - 1].x
    corners[to.leg - 1] |= {"x": _snap(x, snap_mm), "y": _snap(y, snap_mm)}
    # A straight end that a slab leg is mitred to stays straight: both its corners go in or out.
    ends = [straight_end(outline, leg.end) for _, leg in piece.slab_legs()]
    if any(end is not None and abs(end[0] - here) < END_MM for end in ends):
        for corner in corners:
            if abs(corner["x"] - here) < END_MM:
                corner["x"] = _snap(x, snap_mm)


def _edge(piece: Piece, to: Move, document: dict[str, Any], snap_mm: float) -> None:
    """A place on a slab leg's edge, where the point of its show face under `to` lies in the side view."""
    spots = edge_spots(piece)
    if not 1 <= to.leg <= len(spots):
        do = "Take hold of a place on an edge."
        raise BadInput(Fault("moves.leg", str(to.leg), f"1 to {len(spots)}", do))
    index, k, side = spots[to.leg - 1]
    support = piece.supports[index]
    assert isinstance(support, SlabLeg)
    floor = stand(piece).floor
    origin, one, two = (floor.to_floor(on_face(piece, support, *at)) for at in ((0, 0), (1, 0), (0, 1)))
    # The face's two ways as seen in this view, solved for the place under the pointer.
    (a, b), (c, d) = ((one[j] - origin[j], two[j] - origin[j]) for j in (1, 2))
    u, v = to.to[0] - origin[1], to.to[1] - origin[2]
    down, y = (u * d - b * v) / (a * d - b * c), (a * v - c * u) / (a * d - b * c)
    spot = document["supports"][index]["edges"][k]
    spot["down"] = max(5.0, _snap(down, snap_mm))
    spot[side] = _snap(-y if side == "front" else y, snap_mm)


_SEES: dict[str, tuple[int, int]] = {"front": (0, 2), "side": (1, 2), "plan": (0, 1)}
"""What of the floor frame a view shows to the right and up."""


def _size(piece: Piece, to: Move, document: dict[str, Any], snap_mm: float) -> None:
    """A size of a squared part by the point that goes with it: as far as the pointer went that point's own
    way, within what the size may be."""
    stance = stand(piece)
    every = holds(stance)
    if not 1 <= to.leg <= len(every):
        do = "Take hold of a size there is."
        raise BadInput(Fault("moves.leg", str(to.leg), f"1 to {len(every)}", do))
    one = every[to.leg - 1]
    here, way = stance.floor.to_floor(one.at), stance.floor.turn(one.way)
    i, k = _SEES[to.view]
    seen = (way[i], way[k])
    far = ((to.to[0] - here[i]) * seen[0] + (to.to[1] - here[k]) * seen[1]) / math.hypot(*seen) ** 2
    *path, name = steps(one.field)
    chosen: Any = piece.supports[one.support]
    into_: Any = document["supports"][one.support]
    for step in path:
        chosen = into(chosen, step) if step.isdecimal() else getattr(chosen, step)
        into_ = into(into_, step)
    limits = next(rule for rule in type(chosen).model_fields[name].metadata if isinstance(rule, Length))
    wanted = _snap(getattr(chosen, name) + far * one.per, snap_mm)
    into_[name] = min(limits.high_mm, max(limits.low_mm, wanted))
