"""The floor as a plane in the top frame, and the way to and from the floor's own frame.

Top frame: origin at the middle of the top's underside, x right, y back, z up, mm. Floor frame:
origin plumb below it on the floor, z plumb up, turned by the least turn that makes it so.
"""

from __future__ import annotations

from dataclasses import dataclass

from splay.errors import CannotBuild
from splay.piece import Lean
from splay.quantity import degrees as deg
from splay.stance.convex import Plane
from splay.stance.vectors import Vec, dot

STEEPEST_COS = 0.1
"""A leg flatter to the floor than about 84 degrees is no leg: its foot runs away."""


@dataclass(frozen=True)
class Floor:
    """`fall_deg` is the sitting surface's fall towards `toward_deg`; `h0_mm` the plumb height of
    the middle of the underside; `normal` the floor's upward normal in the top frame."""

    fall_deg: float
    toward_deg: float
    h0_mm: float
    normal: Vec
    rows: tuple[Vec, Vec, Vec]
    """The turn from the top frame to the floor frame, row by row; the last row is the normal."""

    def to_floor(self, point: Vec) -> Vec:
        """A point of the top frame in the floor frame, mm."""
        x, y, z = self.turn(point)
        return (x, y, z + self.h0_mm)

    def from_floor(self, point: Vec) -> Vec:
        """A point of the floor frame in the top frame, mm."""
        return self.turn_back((point[0], point[1], point[2] - self.h0_mm))

    def turn(self, v: Vec) -> Vec:
        """A direction of the top frame in the floor frame."""
        x, y, z = v
        (a, b, c), (d, e, f), (g, h, i) = self.rows
        return (a * x + b * y + c * z, d * x + e * y + f * z, g * x + h * y + i * z)

    def turn_back(self, v: Vec) -> Vec:
        """A direction of the floor frame in the top frame."""
        x, y, z = v
        (a, b, c), (d, e, f), (g, h, i) = self.rows
        return (a * x + d * y + g * z, b * x + e * y + h * z, c * x + f * y + i * z)

    def reach(self, socket: Vec, d: Vec) -> float:
        """Length from a socket along the axis to the floor, mm: (h0 + n·P) / (-n·d).

        CannotBuild when the leg does not come down to the floor.
        """
        down = -dot(self.normal, d)
        if down < STEEPEST_COS:
            raise CannotBuild(
                "A leg leans so far that it never comes down to the floor.",
                "Give it less splay and rake, or the seat less lean.",
                "supports",
            )
        height = self.h0_mm + dot(self.normal, socket)
        if height <= 0.0:
            raise CannotBuild(
                "The floor would cut through the top at a leg.",
                "Raise the height or lower the lean.",
                "height",
            )
        return height / down


def floor_under(lean: Lean, height_mm: float, thickness_mm: float) -> Floor:
    """The floor of a piece whose sitting surface, at its middle, stands `height_mm` plumb above it."""
    fall, toward = lean.fall, lean.toward
    c, s = deg.cos(toward), deg.sin(toward)
    cf, sf = deg.cos(fall), deg.sin(fall)
    # Turning about the level line square to the fall: u = (c, s) goes to cf·u + sf·z.
    rows: tuple[Vec, Vec, Vec] = (
        (c * c * cf + s * s, c * s * (cf - 1.0), c * sf),
        (c * s * (cf - 1.0), s * s * cf + c * c, s * sf),
        (-sf * c, -sf * s, cf),
    )
    return Floor(fall, toward, height_mm - thickness_mm * cf, rows[2], rows)


def floor_plane(floor: Floor) -> Plane:
    """The floor as the end of a part that stands on it, top frame."""
    n = floor.normal
    return Plane((-n[0], -n[1], -n[2]), floor.h0_mm)


def underside(down: float = 0.0) -> Plane:
    """The underside of the top, or of what lies so far below it (mm), as the end of a part that carries
    it, top frame."""
    return Plane((0.0, 0.0, 1.0), -down)
