"""From the way an angle is given to the leg's direction in the top frame."""

from __future__ import annotations

import math
from functools import lru_cache

from splay.errors import CannotBuild
from splay.piece import Leg, Outline, Resultant, Spec, SplayRake
from splay.piece.angles import AsWide, Footprint
from splay.quantity import degrees as deg
from splay.stance.floor import Floor
from splay.stance.lean import direction, direction_on
from splay.stance.outline import points, rim
from splay.stance.taper import corners, cut_through, foot_taper
from splay.stance.vectors import Flat, Vec, between, dot, unit

MIDDLE_MM = 1e-6
"""A socket nearer to the middle than this has no outward side."""
_SETTLED_MM = 1e-9


def outward(at: float) -> float:
    """+1 or -1 away from the middle; on the centre line the direction itself is given, so +1."""
    return -1.0 if at < -MIDDLE_MM else 1.0


def aim(
    spec: Spec, socket: Flat, leg: Leg, outline: Outline, floor: Floor, ring: bool, level: float
) -> Vec:
    """Unit vector from top to floor of one leg. `ring` says the legs stand round a circle;
    `level` is the height of the sockets' mouths in the top frame, mm.

    CannotBuild where the way the angle is given has no meaning for a leg at that place.
    """
    if isinstance(spec, SplayRake):
        return direction(spec.splay * outward(socket[0]), spec.rake * outward(socket[1]))
    if isinstance(spec, Resultant):
        return direction_on(spec.resultant, _bearing(spec, socket))
    start: Vec = (socket[0], socket[1], level)
    d: Vec = (0.0, 0.0, -1.0)
    foot: Flat = (math.inf, math.inf)
    # The foot's own size depends on the lean it is cut at, and that on where the foot stands.
    for _ in range(60):
        target = _target(spec, start, d, leg, outline, floor, ring)
        d = unit(between(start, floor.from_floor((*target, 0.0))))
        if math.dist(target, foot) < _SETTLED_MM:
            break
        foot = target
    return d


def _bearing(spec: Resultant, socket: Flat) -> float:
    across, back = outward(socket[0]), outward(socket[1])
    turn = spec.sightline
    if spec.measured_from == "side":
        return deg.atan2(back * deg.sin(turn), across * deg.cos(turn))
    if spec.measured_from == "centre":
        return deg.atan2(back * deg.cos(turn), across * deg.sin(turn))
    if spec.measured_from == "out":
        return (_out(socket) + turn) % 360.0
    return turn % 360.0


def _out(socket: Flat) -> float:
    if math.hypot(*socket) < MIDDLE_MM:
        raise CannotBuild(
            "A leg at the very middle of the top has no outward direction.",
            "Move it off the middle, or give its sightline as a bearing.",
            "supports",
        )
    return deg.atan2(socket[1], socket[0])


def _target(spec: Spec, start: Vec, d: Vec, leg: Leg, outline: Outline, floor: Floor, ring: bool) -> Flat:
    """Where the middle of the foot should stand, floor frame, mm."""
    socket, long = (start[0], start[1]), floor.reach(start, d)
    if isinstance(spec, Footprint) and not ring:
        wide = (spec.width / 2, spec.depth / 2)
        return _corner(wide, wide, socket, d, leg, floor, long)
    if isinstance(spec, AsWide) and not ring:
        far, near = _shadow(outline, floor)
        return _corner(far, near, socket, d, leg, floor, long)
    bearing = _out(socket)
    u = (deg.cos(bearing), deg.sin(bearing))
    if isinstance(spec, Footprint):
        reach = spec.width / 2 - foot_reach(leg, d, floor, u, long)
        return (reach * u[0], reach * u[1])
    edge = floor.to_floor((*rim(outline, bearing), 0.0))
    inset = foot_reach(leg, d, floor, u, long) if isinstance(spec, AsWide) else 0.0
    return (edge[0] - inset * u[0], edge[1] - inset * u[1])


@lru_cache(maxsize=64)
def _shadow(outline: Outline, floor: Floor) -> tuple[Flat, Flat]:
    """How far the underside reaches right and back, and left and front, seen plumb, mm."""
    seen = [floor.to_floor((x, y, 0.0)) for x, y in points(outline)]
    far = (max(p[0] for p in seen), max(p[1] for p in seen))
    near = (-min(p[0] for p in seen), -min(p[1] for p in seen))
    return far, near


def _corner(far: Flat, near: Flat, socket: Flat, d: Vec, leg: Leg, floor: Floor, long: float) -> Flat:
    """The middle of a foot whose outsides touch the sides of a box, on the socket's own side.

    On the centre line of the top the foot stays on the plumb line's own side.
    """
    made = []
    for axis, u in ((0, (1.0, 0.0)), (1, (0.0, 1.0))):
        if abs(socket[axis]) < MIDDLE_MM:
            made.append(0.0)
        elif socket[axis] > 0:
            made.append(far[axis] - foot_reach(leg, d, floor, u, long))
        else:
            back = (-u[0], -u[1])
            made.append(foot_reach(leg, d, floor, back, long) - near[axis])
    return (made[0], made[1])


def foot_reach(leg: Leg, d: Vec, floor: Floor, u: Flat, long: float) -> float:
    """How far the foot's cut end reaches from the axis along a level direction u, mm.

    `long` is the leg's exposed length, which its taper runs over. Round: the cut of a cone is an ellipse
    whose middle lies off the axis, towards the longer side of a leg that thins; with flats: its furthest
    corner.
    """
    flat = floor.turn(d)
    half, k = leg.at_foot / 2, foot_taper(leg, long)
    if leg.section != "round":
        return max(c[0] * u[0] + c[1] * u[1] for c in cornered_foot(leg, d, floor, half, k))
    lean = math.hypot(flat[0], flat[1])
    if lean < 1e-12:
        return half
    c, s = -flat[2], lean
    cut_through((c - abs(k) * s) / c)
    # Both ends of the long axis, out along the lean: half / (cos -+ k sin) from the axis.
    out, back = half / (c + k * s), half / (c - k * s)
    middle, a = (out - back) / 2.0, (out + back) / 2.0
    b = half * c / math.sqrt(c * c - k * k * s * s)
    across = (u[0] * flat[0] + u[1] * flat[1]) / lean
    return middle * across + math.sqrt((a * across) ** 2 + b * b * (1.0 - across * across))


def faces(leg: Leg, d: Vec) -> tuple[Vec, Vec]:
    """Normals of a square leg's side face (towards +x or outward) and front face, top frame.

    Facing front: the front face holds the side-to-side direction. Facing the sightline: the
    side face looks along it. A leg without lean is turned to the front.
    """
    lean = math.hypot(d[0], d[1])
    if leg.facing == "front" or lean < 1e-12:
        front = unit((0.0, d[2], -d[1]))
        side = (1.0 - d[0] * d[0], -d[0] * d[1], -d[0] * d[2])
        return unit(side), front
    front = (-d[1] / lean, d[0] / lean, 0.0)
    side = unit((d[0] * d[2] * -1.0, d[1] * d[2] * -1.0, d[0] ** 2 + d[1] ** 2))
    return side, front


def cornered_foot(leg: Leg, d: Vec, floor: Floor, half: float, k: float = 0.0) -> tuple[Vec, ...]:
    """Corners of a square or eight-sided leg's cut end about its axis, floor frame, mm, in order.

    `half` is half its width there, `k` what that loses for each mm further down.
    """
    side, front = faces(leg, d)
    slope = dot(floor.normal, d)
    made = []
    for i, j in corners(leg):
        way: Vec = (
            i * side[0] + j * front[0],
            i * side[1] + j * front[1],
            i * side[2] + j * front[2],
        )
        lean = dot(floor.normal, way)
        cut_through((slope - k * lean) / slope)
        t = -half * lean / (slope - k * lean)
        out = half - k * t
        made.append(floor.turn((out * way[0] + t * d[0], out * way[1] + t * d[1], out * way[2] + t * d[2])))
    return tuple(made)
