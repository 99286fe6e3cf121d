"""A leg as rings from the face it enters to its cut foot: tapered, bellied, bent, coved; floor frame."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from splay.parts.bent import Bent
from splay.piece import Leg, Piece
from splay.setups.made import Made
from splay.stance.aim import cornered_foot, faces
from splay.stance.floor import Floor
from splay.stance.lines import back_of_bend, socket_line
from splay.stance.mouth import Mouth, easing_of
from splay.stance.staked import LegStance, support_of
from splay.stance.taper import corners, foot_taper, size_at, taper_at
from splay.stance.vectors import Vec, along
from splay.views.project import COS, SIN, Points, as_many, to_floor

BENDS = 12
"""Lengths a bent leg is drawn in: of a parabola with a rise of 60 they are less than 0.5 mm off."""


@dataclass(frozen=True)
class Neck:
    """What a leg is besides its own shape: the stick it is made of where that is bent, and the eased mouth
    its cove lies in."""

    bent: Bent | None = None
    mouth: Mouth | None = None


def necks_of(made: Made) -> dict[int, Neck]:
    """The legs that are bent or whose cove lies in an eased mouth, by number."""
    bent = {one.leg.number: one for one in made.bent}
    found = {}
    for leg in made.real.legs:
        mouth = easing_of(support_of(made.piece, leg), leg.boring.resultant, made.shop.rounds)
        if mouth is not None or leg.number in bent:
            found[leg.number] = Neck(bent.get(leg.number), mouth)
    return found


def leg_rings(piece: Piece, leg: LegStance, floor: Floor, neck: Neck) -> list[Points]:
    """Rings of as many points each along the same lines down the leg, so that they join without a twist:
    the first in the face it enters, or where its cove leaves the tenon, the last in the floor."""
    shape = support_of(piece, leg).leg
    if shape.section == "round":
        return [to_floor(floor, ring) for ring in _turned(shape, leg, floor, neck)]
    # Of legs with flats a cove is drawn on its card alone.
    rings = [to_floor(floor, _cornered(shape, leg, shape.at_top, 0.0))]
    if shape.belly is not None:
        down = shape.belly.at * leg.exposed
        rings.append(to_floor(floor, _cornered(shape, leg, shape.belly.size, down)))
    end = np.array(cornered_foot(shape, leg.d, floor, shape.at_foot / 2)) + np.array(leg.foot_floor)
    return [as_many(ring) for ring in (*rings, end)]


def _turned(shape: Leg, leg: LegStance, floor: Floor, neck: Neck) -> list[Points]:
    """A side line is where the leg's taper carries it: at its mouth it meets the underside's plane, at its
    foot the floor."""
    d, long = np.array(leg.d), leg.exposed
    first = np.array(socket_line(leg))
    ways = np.outer(COS, first) + np.outer(SIN, np.cross(d, first))
    back = np.array(back_of_bend(leg, neck.bent.bend.faces)) if neck.bent else np.zeros(3)

    def aside(down: float) -> Points:
        off = neck.bent.off(neck.bent.inside + down) if neck.bent else 0.0
        made: Points = back * off
        return made

    def square(down: float, half: float, off: Points) -> Points:
        made: Points = np.array(leg.socket) + d * down + off + ways * half
        return made

    def cut(down: float, half: float, taper: float, normal: Points) -> Points:
        lean, off = ways @ normal, aside(down)
        runs = -(half * lean + float(off @ normal)) / (float(d @ normal) - taper * lean)
        middle = np.array(leg.socket) + d * down + off
        made: Points = middle + np.outer(runs, d) + ways * (half - taper * runs)[:, None]
        return made

    if neck.mouth is None:
        rings = [cut(0.0, shape.at_top / 2, taper_at(shape, long, 0.0), np.array((0.0, 0.0, 1.0)))]
        begins = 0.0
    else:
        # Tenon and cove are made about the string, whatever the wood does.
        rings = [square(down, half, np.zeros(3)) for down, half in neck.mouth.neck()]
        begins = neck.mouth.ends
    knees = {shape.belly.at * long} if shape.belly else set()
    if neck.bent:
        knees |= {long * k / BENDS for k in range(1, BENDS)}
    rings += [
        square(down, size_at(shape, long, down) / 2, aside(down)) for down in sorted(knees) if down > begins
    ]
    return [*rings, cut(long, shape.at_foot / 2, foot_taper(shape, long), np.array(floor.normal))]


def _cornered(shape: Leg, leg: LegStance, size: float, down: float) -> Points:
    """Corners of the leg's section parallel to the top, `down` along its axis."""
    side, front = faces(shape, leg.d)
    half = size / 2
    centre = along(leg.socket, leg.d, down)
    made: list[Vec] = []
    for i, j in corners(shape):
        corner = along(along(centre, side, half * i), front, half * j)
        made.append(along(corner, leg.d, (centre[2] - corner[2]) / leg.d[2]))
    return np.array(made)
