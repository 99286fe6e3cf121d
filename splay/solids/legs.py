"""Legs and their holes as closed solids; top frame, mm."""

from __future__ import annotations

import math

import numpy as np
from manifold3d import CrossSection, Manifold

from splay.piece import Leg, Piece
from splay.quantity import degrees as deg
from splay.solids.shapes import (
    EDGE_STEPS,
    OUT_MM,
    ROUND,
    SEAM_MM,
    cut_by,
    cylinder,
    hull,
    ring_about,
    square_way,
    stacked,
)
from splay.stance.aim import faces
from splay.stance.convex import Plane
from splay.stance.lines import back_of_bend, socket_line
from splay.stance.mouth import Mouth
from splay.stance.staked import LegStance, Stance, support_of
from splay.stance.taper import corners, size_at, taper_at
from splay.stance.vectors import Flat, Vec, along, cross, dot
from splay.views.leg_rings import BENDS, Neck


def socket(piece: Piece, leg: LegStance, mouth: Mouth | None) -> Manifold:
    """A leg's hole with the air before it, its mouth eased where it is; top frame."""
    bore = leg.bore
    joint = support_of(piece, leg).joint
    up = (-leg.d[0], -leg.d[1], -leg.d[2])
    deep = bore.deep + (OUT_MM if bore.through else 0.0)
    outside = along(leg.socket, leg.d, OUT_MM / 4.0)
    if joint.tenon == "flat":
        return _flat(leg, bore.size / 2.0, bore.across / 2.0, OUT_MM / 4.0, deep)
    if bore.tip != bore.size and bore.tenon > 0.0:
        # A reamed hole: the taper of its tenon, carried on past both faces.
        slope = (bore.size - bore.tip) / 2.0 / bore.tenon
        reach = bore.tenon + 0.5 * bore.tip / 2.0 / slope if slope > 0.0 else deep
        reach = min(reach, bore.tenon + 60.0)
        return cylinder(
            outside,
            up,
            OUT_MM / 4.0 + reach,
            bore.size / 2.0 + slope * OUT_MM / 4.0,
            bore.size / 2.0 - slope * reach,
        )
    hole = cylinder(outside, up, OUT_MM / 4.0 + deep, bore.size / 2.0)
    if bore.recess:
        hole += cylinder(outside, up, OUT_MM / 4.0 + bore.recess, bore.wide / 2.0)
    return hole if mouth is None else hole + _eased(leg, mouth)


def _eased(leg: LegStance, mouth: Mouth) -> Manifold:
    """What a rounding cutter takes out of a hole's mouth, and the air before it; top frame."""
    out, wide = mouth.starts + mouth.rounds, mouth.half + mouth.rounds
    turn = [math.pi / 2.0 * k / EDGE_STEPS for k in range(EDGE_STEPS + 1)]
    round_ = [
        (mouth.half + mouth.rounds * (1.0 - math.cos(t)), mouth.starts + mouth.rounds * math.sin(t))
        for t in turn
    ]
    return _turned(
        leg, [(0.0, mouth.starts), *round_, (wide, out + OUT_MM / 4.0), (0.0, out + OUT_MM / 4.0)]
    )


def _turned(leg: LegStance, ring: list[Flat]) -> Manifold:
    """A leg's solid of revolution from its outline: out from its axis, and down along it from where that
    enters the top; top frame."""
    first = square_way(leg.d)
    solid = CrossSection([ring]).revolve(ROUND)
    return solid.transform(np.column_stack((first, cross(leg.d, first), leg.d, leg.socket)))


def _flat(leg: LegStance, half: float, across: float, below: float, above: float) -> Manifold:
    """A flat tenon's box: its longer side in the plane of the lean."""
    first = socket_line(leg)
    second = cross(leg.d, first)
    made: list[Vec] = []
    for run in (below, -above):
        at = along(leg.socket, leg.d, run)
        for i, j in ((1, 1), (-1, 1), (-1, -1), (1, -1)):
            made.append(along(along(at, first, i * half), second, j * across))
    return hull(made)


def leg_solid(piece: Piece, stance: Stance, leg: LegStance, neck: Neck) -> Manifold:
    """A leg between the face it enters and the floor, with its tenon, bent and coved as it is; the tenon
    sawn off along the top where it was left longer."""
    solid = _whole(piece, stance, leg, neck)
    if not leg.bore.left_on:
        return solid
    # A hollowed face slants a little about the tenon: sawn square to the top, at its middle.
    at = along(leg.socket, leg.d, -leg.bore.done)
    return cut_by(solid, Plane((0.0, 0.0, 1.0), at[2]))


def _whole(piece: Piece, stance: Stance, leg: LegStance, neck: Neck) -> Manifold:
    """A leg with its tenon as it goes in."""
    support = support_of(piece, leg)
    bore = leg.bore
    shaft = _shaft(support.leg, leg, neck)
    floor, mouth, inside = stance.floor, Plane((0.0, 0.0, 1.0), bore.mouth_z), neck.mouth
    if inside is None:
        shaft = cut_by(shaft, mouth)
    else:
        d, ends = leg.d, inside.ends
        shoulder = Plane((-d[0], -d[1], -d[2]), -dot(d, along(leg.socket, d, ends)))
        ring = [(out, down) for down, out in inside.neck(EDGE_STEPS)]
        low, high = inside.begins - SEAM_MM, ends + SEAM_MM
        cove = _turned(leg, [(0.0, low), (inside.half, low), *ring, (ring[-1][0], high), (0.0, high)])
        shaft = cut_by(shaft, shoulder) + cove
    n = floor.normal
    shaft = cut_by(shaft, Plane((-n[0], -n[1], -n[2]), floor.h0_mm))
    if bore.recess:
        return shaft + cut_by(_let_in(support.leg, leg), Plane((0.0, 0.0, -1.0), -(bore.mouth_z - SEAM_MM)))
    if bore.tenon <= 0.0:
        return shaft
    if inside is not None:
        up = (-leg.d[0], -leg.d[1], -leg.d[2])
        start = along(leg.socket, leg.d, inside.begins)
        return shaft + cylinder(start, up, inside.begins + bore.tenon, bore.size / 2.0)
    within = bore.size * (1.0 + deg.tan(min(75.0, leg.boring.resultant)))
    if support.joint.tenon == "flat":
        tenon = _flat(leg, bore.size / 2.0, bore.across / 2.0, within, bore.tenon)
    else:
        slope = (bore.size - bore.tip) / 2.0 / bore.tenon
        up = (-leg.d[0], -leg.d[1], -leg.d[2])
        start = along(leg.socket, leg.d, within)
        tenon = cylinder(start, up, within + bore.tenon, bore.size / 2.0 + slope * within, bore.tip / 2.0)
    return shaft + cut_by(tenon, Plane((0.0, 0.0, -1.0), -(bore.mouth_z - SEAM_MM)))


def _let_in(shape: Leg, leg: LegStance) -> Manifold:
    """A leg's own square end, as far as it goes into its recess, as thick as where it leaves the seat."""
    half, within = shape.at_top / 2.0, leg.bore.wide * (1.0 + deg.tan(min(75.0, leg.boring.resultant)))
    start, up = along(leg.socket, leg.d, within), (-leg.d[0], -leg.d[1], -leg.d[2])
    if shape.section == "round":
        return cylinder(start, up, within + leg.bore.recess, half)
    side, front = faces(shape, leg.d)
    ends = (start, along(start, up, within + leg.bore.recess))
    return hull(
        [along(along(at, side, half * i), front, half * j) for at in ends for i, j in corners(shape)]
    )


def _shaft(shape: Leg, leg: LegStance, neck: Neck) -> Manifold:
    """What a leg is before its ends are cut."""
    slack = max(shape.at_top, shape.at_foot) * 2.0
    bent = neck.bent
    back = back_of_bend(leg, bent.bend.faces) if bent else (0.0, 0.0, 0.0)
    knees = {0.0, leg.exposed} | ({shape.belly.at * leg.exposed} if shape.belly else set())
    if bent:
        knees |= {leg.exposed * k / BENDS for k in range(BENDS)}

    def half(down: float) -> float:
        inside = min(max(down, 0.0), leg.exposed)
        past = taper_at(shape, leg.exposed, inside) * (down - inside)
        return max(0.01, size_at(shape, leg.exposed, inside) / 2.0 - past)

    def section(down: float) -> list[Vec]:
        off = bent.off(bent.inside + down) if bent else 0.0
        at = along(along(leg.socket, leg.d, down), back, off)
        if shape.section == "round":
            return ring_about(at, leg.d, socket_line(leg), half(down))
        side, front = faces(shape, leg.d)
        return [along(along(at, side, half(down) * i), front, half(down) * j) for i, j in corners(shape)]

    downs = [-slack, *sorted(knees), leg.exposed + slack]
    rings = [np.array(section(down)) for down in downs]
    fan = [(0, k, k + 1) for k in range(1, len(rings[0]) - 1)]
    return stacked(rings, fan, fan, "leg")
