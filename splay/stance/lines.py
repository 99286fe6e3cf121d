"""The lines drawn down a leg: on the side away from the middle, of the socket and of the floor.

The outer line of the socket lies over the leg's sightline on the seat; the outer line of the floor
lies in the plane in which the leg leans off plumb. On a seat parallel to its floor they are one.
"""

from __future__ import annotations

import math
from functools import lru_cache
from typing import Literal

from splay.piece import Leg
from splay.quantity import degrees as deg
from splay.stance.aim import faces
from splay.stance.floor import Floor
from splay.stance.lean import NO_LEAN
from splay.stance.staked import LegStance
from splay.stance.vectors import Vec, cross, dot, length, unit

ASIDE = 1e-6
"""A leg that leans across the way out, neither outward nor inward, counts as leaning outward."""


def square_to(d: Vec, way: Vec) -> Vec:
    """`way` turned square to the leg, of unit length."""
    run = dot(way, d)
    return unit((way[0] - run * d[0], way[1] - run * d[1], way[2] - run * d[2]))


def leans_outward(leg: LegStance) -> bool:
    """Whether a leg leans away from the middle of the seat, or across; False for one leaning inward."""
    return leg.d[0] * leg.socket[0] + leg.d[1] * leg.socket[1] >= -ASIDE


def socket_line(leg: LegStance) -> Vec:
    """Where the outer line of the socket is on a leg: unit, square to its axis, top frame."""
    x, y, _ = leg.d
    if math.hypot(x, y) <= NO_LEAN:
        out: Vec = (leg.socket[0], leg.socket[1], 0.0)
        return square_to(leg.d, out if length(out) > ASIDE else (0.0, -1.0, 0.0))
    sign = 1.0 if leans_outward(leg) else -1.0
    return square_to(leg.d, (sign * x, sign * y, 0.0))


def back_of_bend(leg: LegStance, faces: Literal["outward", "inward", "left", "right"]) -> Vec:
    """Where the back of a bent leg looks, as `faces` says it: unit, square to its axis, top frame. Left and
    right are those of one who looks out over its outer line, above his head up."""
    out = socket_line(leg)
    if faces in ("outward", "inward"):
        return out if faces == "outward" else (-out[0], -out[1], -out[2])
    # The leg runs down: across it from out, with up over one's head, lies what is right.
    right = cross(leg.d, out)
    return right if faces == "right" else (-right[0], -right[1], -right[2])


def floor_line(leg: LegStance, floor: Floor) -> Vec | None:
    """Where the outer line of the floor is on a leg; None for one that stands plumb.

    Outer is away from the plumb line through the middle of the underside.
    """
    return _floor_line(leg.d, leg.socket, floor)


# A leg's line is named by every card, proof and drawing of it.
@lru_cache(256)
def _floor_line(d: Vec, socket: Vec, floor: Floor) -> Vec | None:
    across, back, down = floor.turn(d)
    if math.hypot(across, back) <= NO_LEAN * -down:
        return None
    at = floor.turn(socket)
    sign = 1.0 if across * at[0] + back * at[1] >= -ASIDE else -1.0
    return square_to(d, floor.turn_back((sign * across, sign * back, 0.0)))


def outer_is_long(leg: LegStance, floor: Floor) -> bool:
    """Whether the foot's cut leaves the outer line of the floor the longer side."""
    line = floor_line(leg, floor)
    return line is not None and dot(floor.normal, line) > 0.0


def turned(d: Vec, start: Vec, to: Vec) -> float:
    """Turn about a leg from one way square to it to another, degrees, -180 to 180.

    Positive clockwise for one who looks at the tenon's end, down the leg.
    """
    return math.degrees(math.atan2(dot(to, cross(d, start)), dot(to, start)))


def lines_apart(leg: LegStance, floor: Floor) -> float:
    """From the outer line of the socket to that of the floor, degrees, clockwise seen at the tenon's
    end; 0 where the leg has no line of its own for the floor."""
    line = floor_line(leg, floor)
    apart = 0.0 if line is None else turned(leg.d, socket_line(leg), line)
    return 0.0 if abs(apart) < 1e-9 else apart


def slot_turn(leg: LegStance, grain_deg: float) -> float:
    """Turn from the outer line to the wedge's slot across the seat's grain, on the tenon's end.

    Degrees, -90 to 90, clockwise seen at the tenon's end. The slot stands plumb over a line square to
    the grain: its line on the end is where the plane through the leg and that line meets the end.
    """
    across: Vec = (deg.cos(grain_deg + 90.0), deg.sin(grain_deg + 90.0), 0.0)
    turn = turned(leg.d, socket_line(leg), square_to(leg.d, across))
    if turn > 90.0:
        turn -= 180.0
    elif turn <= -90.0:
        turn += 180.0
    return turn


def named_faces(shape: Leg, leg: LegStance) -> tuple[tuple[str, Vec], ...]:
    """The four faces of a leg with flats by the names written on them, with their normals."""
    return tuple((f"{side} face", normal) for side, normal in named_sides(shape, leg))


def named_sides(shape: Leg, leg: LegStance) -> tuple[tuple[str, Vec], ...]:
    """The four sides of a leg with flats, opposite ones next to each other, with their normals.

    Facing front: FRONT, BACK, LEFT and RIGHT as it stands in its seat. Facing its sightline: outer,
    inner, and the left and right hand of one who looks at its outer face, its foot down.
    """
    side, front = faces(shape, leg.d)

    def minus(v: Vec) -> Vec:
        return (-v[0], -v[1], -v[2])

    if shape.facing == "front" or leg.boring.bearing is None:
        return (
            ("FRONT", front),
            ("BACK", minus(front)),
            ("RIGHT", side),
            ("LEFT", minus(side)),
        )
    outer = side if leans_outward(leg) else minus(side)
    # Seen from outside, foot down, up is against the leg's way down: right is up x towards the eye.
    right = cross(minus(leg.d), outer)
    return (
        ("outer", outer),
        ("inner", minus(outer)),
        ("right-hand", right),
        ("left-hand", minus(right)),
    )
