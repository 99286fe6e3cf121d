"""The long and the short side of a foot's cut, by what is really on the leg there."""

from __future__ import annotations

from splay.piece import Leg, Piece
from splay.stance.body import Body
from splay.stance.floor import Floor
from splay.stance.lines import floor_line, lines_apart, named_faces, outer_is_long
from splay.stance.members import flats
from splay.stance.staked import LegStance, support_of
from splay.stance.vectors import Vec
from splay.work.meet import SQUARE, longer


def line_name(leg: LegStance, floor: Floor, outer: bool) -> str:
    """The outer or inner line of a round leg at its foot: the floor's own where it is not the socket's."""
    own = " of the floor" if lines_apart(leg, floor) else ""
    return f"{'outer' if outer else 'inner'} line{own}"


def down(floor: Floor) -> Vec:
    """The normal of a foot's cut, out of the leg."""
    n = floor.normal
    return (-n[0], -n[1], -n[2])


def foot_sides(piece: Piece, leg: LegStance, floor: Floor) -> tuple[str, str]:
    """What the sides are called that the floor cuts longest and shortest; ("", "") where it is square.

    Of a round leg its lines; of a square one a face or the corner between two; of eight sides a face.
    """
    shape = support_of(piece, leg).leg
    if shape.section == "round":
        if floor_line(leg, floor) is None:
            return "", ""
        outer = outer_is_long(leg, floor)
        return line_name(leg, floor, outer), line_name(leg, floor, not outer)
    n = down(floor)
    if shape.section == "octagon":
        far, near = long_flats(shape, leg, floor)
        return (far[0], near[0]) if abs(longer(n, leg.d, far[1])) > SQUARE else ("", "")
    named = named_faces(shape, leg)
    long = [name for name, way in named if longer(n, leg.d, way) > SQUARE]
    short = [name for name, way in named if longer(n, leg.d, way) < -SQUARE]
    return (corner_name(long), corner_name(short)) if long else ("", "")


def on_a_face(shape: Leg, leg: LegStance, floor: Floor) -> bool:
    """Whether a foot's longest side is the middle of a flat, not a corner: always of eight sides, of a
    square leg where the floor runs square across a face."""
    n = down(floor)
    long = [way for _, way in named_faces(shape, leg) if longer(n, leg.d, way) > SQUARE]
    return shape.section == "octagon" or len(long) < 2


def long_flats(shape: Leg, leg: LegStance, floor: Floor) -> tuple[tuple[str, Vec], tuple[str, Vec]]:
    """The flats of an eight-sided leg that the floor leaves longest and shortest."""
    n = down(floor)
    every = flats(shape, leg)
    return (
        max(every, key=lambda one: longer(n, leg.d, one[1])),
        min(every, key=lambda one: longer(n, leg.d, one[1])),
    )


def corner_name(names: list[str]) -> str:
    """The face of a square leg, or its corner between two, by their names."""
    return names[0] if len(names) == 1 else f"corner between its {names[0]} and its {names[1]}"


def body_side(body: Body, p: Vec) -> str:
    """The long corner of a square stick that a point (its own frame) lies on, by its two sides."""
    sides = body.sides
    face = sides.face if p[2] > 0.0 else sides.other_face
    edge = sides.edge if p[1] > 0.0 else sides.other_edge
    return corner_name([face, edge])
