"""A tool's own scale as an arc with marks, figures and a pointer, at the real angle."""

from __future__ import annotations

import math

from splay.quantity import degrees as deg
from splay.setups.scenes import Arc
from splay.stance.vectors import Flat
from splay.views.shapes import Shape, line, text

_FINE, _COARSE = 5, 15
_CLEAR_DEG = 13
"""A figure of the scale nearer to the pointer than this gives way to the setting."""


def scale_arc(
    centre: Flat,
    radius: float,
    square_at: float,
    way: int,
    scale: Arc,
    off_square: float,
) -> tuple[Shape, ...]:
    """The arc round `centre`; `square_at` is the bearing where the tool stands square, `way` +1
    or -1 the sense in which it is set away from there. Figures are those on the tool's scale."""
    at_square, reach = scale.at_square, scale.reach
    last = min(90.0, max(_COARSE, math.ceil(min(reach, 60.0) / _FINE) * _FINE))
    if off_square > last:
        last = math.ceil(off_square / _FINE) * _FINE
    sign = 1.0 if scale.counts == "up" else -1.0

    def spot(off: float, at: float) -> Flat:
        b = square_at + way * off
        return (centre[0] + at * deg.cos(b), centre[1] + at * deg.sin(b))

    arc = tuple(spot(float(k), radius) for k in range(0, int(last) + 1, 3))
    made = [line("scale", *arc, spot(last, radius))]
    for mark in range(0, int(last) + 1, _FINE):
        coarse = mark % _COARSE == 0
        made.append(line("scale", spot(mark, radius), spot(mark, radius + (9 if coarse else 5))))
        if coarse and abs(mark - off_square) > _CLEAR_DEG:
            made.append(text("scale", spot(mark, radius + 17), f"{at_square + sign * mark:g}"))
    if reach < last:
        made.append(line("warning", spot(reach, radius - 6), spot(reach, radius + 12)))
    made.append(line("pointer", spot(off_square, radius - 22), spot(off_square, radius + 12)))
    made.append(text("pointer", spot(off_square, radius + 24), scale.text))
    return tuple(made)
