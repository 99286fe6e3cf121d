"""One function for every compound cut on a square stick, and the settings it gives on a saw."""

from __future__ import annotations

import math
from dataclasses import dataclass

from splay.errors import CannotBuild
from splay.stance.vectors import Vec, angle, cross, length

_PARALLEL = 1e-9


@dataclass(frozen=True)
class Compound:
    """`mitre`: on the face, between the cut's trace and square across, 0-90; `tilt`: of the blade
    off square to that face, signed, positive when the cut's normal leans to the face's side."""

    mitre: float
    tilt: float


def compound(face: Vec, stick: Vec, cut: Vec) -> Compound:
    """The cut of plane normal `cut` across a stick running along `stick`, laid on face normal `face`.

    Mitre: acute angle between the lines cut x face (the trace) and face x stick (square across);
    tilt: 90 minus the angle between cut and face. CannotBuild when the cut runs along the face.
    """
    trace, square = cross(cut, face), cross(face, stick)
    if length(trace) < _PARALLEL:
        raise CannotBuild("The cut lies in the face it is laid on.", "Lay another face down.")
    apart = angle(trace, square)
    return Compound(min(apart, 180.0 - apart), 90.0 - angle(cut, face))


def mitred_corner(sides: int, slope_deg: float) -> Compound:
    """Mitre and tilt of a mitred corner of `sides` alike sides, all sloping from the vertical.

    tan m = sin a · tan(180/n), sin t = cos a · sin(180/n); with n = 4 these are the tables
    printed for crown moulding. CannotBuild for fewer than three sides.
    """
    if sides < 3:
        raise CannotBuild("A ring of members has at least three sides.", "Give 3 or more.")
    half = math.radians(180.0 / sides)
    slope = math.radians(slope_deg)
    mitre = math.degrees(math.atan(math.sin(slope) * math.tan(half)))
    return Compound(mitre, math.degrees(math.asin(math.cos(slope) * math.sin(half))))


def mitre_between(splay_deg: float, rail_mm: float, leg_mm: float) -> tuple[float, float]:
    """Cuts where a rail meets a leg that splays, each measured from its own length, degrees.

    The corner is G = 90 + splay; tan phi_rail = sin G / (w_leg / w_rail + cos G), and the leg
    takes the rest, so that both cuts are equally long. Equal widths: G / 2 each.
    """
    corner = math.radians(90.0 + splay_deg)
    rail = math.degrees(math.atan2(math.sin(corner), leg_mm / rail_mm + math.cos(corner)))
    return rail, 90.0 + splay_deg - rail
