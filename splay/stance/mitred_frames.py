"""A rail mitred to a leg at each end; two such frames cross in half laps."""

from __future__ import annotations

from splay.piece import MitredFrames
from splay.quantity import degrees as deg
from splay.stance.body import Body, Sides, Void, body, pose
from splay.stance.convex import Plane, plane_at
from splay.stance.floor import Floor, floor_plane
from splay.stance.side_taper import tapered
from splay.stance.vectors import Vec, along, unit


def mitred_frames(support: MitredFrames, index: int, floor: Floor) -> tuple[Body, ...]:
    """Rails and legs; both upright, whatever the floor does."""
    made: list[Body] = []
    for k in range(support.frames):
        bearing = support.first + k * support.crossing
        frame = _Frame(support, index, k, bearing, floor)
        made += [frame.rail(), frame.leg(1), frame.leg(-1)]
    return tuple(made)


class _Frame:
    def __init__(
        self, support: MitredFrames, index: int, number: int, bearing: float, floor: Floor
    ) -> None:
        self.support, self.index, self.number, self.floor = support, index, number, floor
        self.u: Vec = (deg.cos(bearing), deg.sin(bearing), 0.0)
        self.h: Vec = (-deg.sin(bearing), deg.cos(bearing), 0.0)
        other = bearing + (support.crossing if number == 0 else -support.crossing)
        self.other: Vec = (-deg.sin(other), deg.cos(other), 0.0)

    def corner(self, end: int) -> Vec:
        """The upper outer corner, where rail and leg meet."""
        half = end * self.support.length / 2
        return (half * self.u[0], half * self.u[1], 0.0)

    def mitre(self, end: int) -> Plane:
        """The mitre, its normal out of the rail: from the outer corner to the inner one.

        The inner corner lies where the rail's lower edge meets the leg's inner edge, so that
        both cuts are equally long whatever the two widths.
        """
        rail, leg, s = self.support.rail, self.support.leg, self.support.splay
        k = (leg - rail * deg.sin(s)) / deg.cos(s)
        normal = (end * rail * self.u[0], end * rail * self.u[1], -k)
        return plane_at(normal, self.corner(end))

    def rail(self) -> Body:
        where = pose((0.0, 0.0, -self.support.rail / 2), self.u, self.h)
        return body(
            f"{self.support.id}.frame.{self.number + 1}.rail",
            f"rail of frame {self.number + 1}",
            "rail",
            self.index,
            f"{self.support.id}.rail.{self.number + 1}"
            if self.support.frames > 1
            else f"{self.support.id}.rail",
            where,
            (self.support.rail, self.support.thickness),
            Sides("lower edge", "upper edge", "marked face", "plain face"),
            (self.mitre(-1), self.mitre(1)),
            voids=self._lap(),
            frame=str(self.number + 1),
        )

    def _lap(self) -> tuple[Void, ...]:
        """Half the depth, from above in the first frame and from below in the second."""
        if self.support.frames == 1:
            return ()
        t, half = self.support.thickness / 2, self.support.rail / 2
        h = self.other
        sides = (Plane(h, t), Plane((-h[0], -h[1], 0.0), t))
        if self.number == 0:
            return (Void("half lap from above", (*sides, Plane((0.0, 0.0, -1.0), half)), "lap", -1),)
        return (Void("half lap from below", (*sides, Plane((0.0, 0.0, 1.0), -half)), "lap", 1),)

    def leg(self, end: int) -> Body:
        s = self.support.splay
        down = unit((end * deg.sin(s) * self.u[0], end * deg.sin(s) * self.u[1], -deg.cos(s)))
        inner = (-end * deg.cos(s) * self.u[0], -end * deg.cos(s) * self.u[1], -deg.sin(s))
        where = pose(along(self.corner(end), inner, self.support.leg / 2), down, self.h)
        outer = sum(a * b for a, b in zip(where.across, inner, strict=True)) < 0
        names = ("outer edge", "inner edge") if outer else ("inner edge", "outer edge")
        leg = body(
            f"{self.support.id}.frame.{self.number + 1}.leg.{1 if end > 0 else 2}",
            f"leg {1 if end > 0 else 2} of frame {self.number + 1}",
            "leg",
            self.index,
            f"{self.support.id}.leg" + ("" if self.floor.fall_deg == 0 else f".{self.number}.{end}"),
            where,
            (self.support.leg, self.support.thickness),
            Sides(*names, "marked face", "plain face"),
            (self.mitre(end).turned(), floor_plane(self.floor)),
            stands=True,
            allowance=self.support.allowance,
            frame=str(self.number + 1),
        )
        return tapered(leg, self.support.taper, -1 if outer else 1)
