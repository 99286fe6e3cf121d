"""Four square legs leaning both ways, joined by aprons that lean with them."""

from __future__ import annotations

from dataclasses import replace

from splay.piece import ApronedLegs, Arc
from splay.quantity import degrees as deg
from splay.stance.body import Body, Pose, Sides, body, pose
from splay.stance.convex import Plane
from splay.stance.floor import Floor, floor_plane, underside
from splay.stance.side_taper import tapered
from splay.stance.sweep import swept
from splay.stance.vectors import Vec, along, dot, unit

_X = {-1: "left", 1: "right"}
_Y = {-1: "front", 1: "back"}


def aproned_legs(support: ApronedLegs, index: int, floor: Floor) -> tuple[Body, ...]:
    """Legs from the front left counter-clockwise, then the front, back, left and right aprons."""
    table = _Table(support, index, floor)
    legs = [table.leg(x, y) for x, y in ((-1, -1), (1, -1), (1, 1), (-1, 1))]
    return (*legs, table.front(-1), table.front(1), table.side(-1), table.side(1))


class _Table:
    """The planes a splayed table is made of: outer faces n·p = c, moved inward as wanted."""

    def __init__(self, support: ApronedLegs, index: int, floor: Floor) -> None:
        self.support, self.index, self.floor = support, index, floor

    def out_x(self, x: int) -> Vec:
        return (x * deg.cos(self.support.splay), 0.0, deg.sin(self.support.splay))

    def out_y(self, y: int) -> Vec:
        return (0.0, y * deg.cos(self.support.rake), deg.sin(self.support.rake))

    def plane_x(self, x: int, inward: float) -> Plane:
        return Plane(self.out_x(x), deg.cos(self.support.splay) * self.support.length / 2 - inward)

    def plane_y(self, y: int, inward: float) -> Plane:
        return Plane(self.out_y(y), deg.cos(self.support.rake) * self.support.width / 2 - inward)

    def leg_pose(self, x: int, y: int) -> Pose:
        s, r, half = self.support.splay, self.support.rake, self.support.face / 2
        top = (
            x * (self.support.length / 2 - half / deg.cos(s)),
            y * (self.support.width / 2 - half / deg.cos(r)),
            0.0,
        )
        return pose(top, unit((x * deg.tan(s), y * deg.tan(r), -1.0)), self.out_y(y))

    def leg(self, x: int, y: int) -> Body:
        w = self.support.face
        where = self.leg_pose(x, y)
        # How far the side face is off square to the front face: sin t = sin s · sin r.
        sine = dot(self.out_x(x), self.out_y(y))
        skewed = self.support.true_section and sine > 1e-12
        wide = w * (1.0 + sine) / (1.0 - sine * sine) ** 0.5 if skewed else w
        outer = where.across[0] * x > 0
        names = ("outer side", "inner side") if outer else ("inner side", "outer side")
        rips = (self.plane_x(x, 0.0), self.plane_x(x, w).turned()) if skewed else ()
        leg = body(
            f"{self.support.id}.leg.{_Y[y]}.{_X[x]}",
            f"{_Y[y]} {_X[x]} leg",
            "leg",
            self.index,
            f"{self.support.id}.leg" + ("" if self.floor.fall_deg == 0 else f".{x}.{y}"),
            where,
            (wide, w),
            Sides(*names, f"{_Y[y]} face", "inner face"),
            (underside(), floor_plane(self.floor)),
            rips=rips,
            stands=True,
            allowance=self.support.allowance,
        )
        return tapered(leg, self.support.taper, -1 if outer else 1)

    def _leg_side(self, x: int, y: int) -> Plane:
        """The side face of a leg that a front apron meets, its normal out of the apron."""
        w = self.support.face
        if self.support.true_section:
            return self.plane_x(x, w)
        where = self.leg_pose(x, y)
        out = where.across if where.across[0] * x > 0 else tuple(-a for a in where.across)
        normal: Vec = (out[0], out[1], out[2])
        return Plane(normal, dot(normal, along(where.origin, normal, -w / 2)))

    def front(self, y: int) -> Body:
        return self._apron(
            y,
            _Y[y],
            (1.0, 0.0, 0.0),
            self.out_y(y),
            self.plane_y(y, self.support.setback + self.support.thickness / 2),
            self.support.rake,
            (self._leg_side(-1, y), self._leg_side(1, y)),
            "front",
        )

    def side(self, x: int) -> Body:
        w = self.support.face
        return self._apron(
            x,
            _X[x],
            (0.0, 1.0, 0.0),
            self.out_x(x),
            self.plane_x(x, self.support.setback + self.support.thickness / 2),
            self.support.splay,
            (self.plane_y(-1, w), self.plane_y(1, w)),
            "side",
        )

    def _apron(
        self,
        sign: int,
        named: str,
        way: Vec,
        out: Vec,
        middle: Plane,
        lean: float,
        ends: tuple[Plane, Plane],
        kind: str,
    ) -> Body:
        """An apron leaning `lean` degrees, its long edges level."""
        high, thick = self.support.apron, self.support.thickness
        z = -high * deg.cos(lean) / 2
        flat = (middle.offset - out[2] * z) / (out[0] + out[1])
        origin: Vec = (flat if kind == "side" else 0.0, flat if kind == "front" else 0.0, z)
        where = pose(origin, way, out)
        upper = where.across[2] > 0
        names = ("upper edge", "lower edge") if upper else ("lower edge", "upper edge")
        low = high * deg.cos(lean)
        slope, arch = thick * deg.tan(lean), self.support.arch
        level: tuple[Plane, ...] = (Plane((0.0, 0.0, 1.0), 0.0), Plane((0.0, 0.0, -1.0), low))
        if arch:
            # An arc is sawn square: nothing is left of a lower edge that would be bevelled.
            level, slope = level[:1], slope / 2
            where = replace(
                where, origin=along(where.origin, where.across, (1 if upper else -1) * slope / 2)
            )
        made = body(
            f"{self.support.id}.apron.{named}",
            f"{named} apron",
            "apron",
            self.index,
            f"{self.support.id}.apron.{kind}",
            where,
            (high + slope, thick),
            Sides(*names, "outer face", "inner face"),
            ends,
            rips=level,
            tenon=self.support.tenon,
            frame=named,
        )
        return swept(
            made, Arc(rise=arch) if arch else None, -1 if upper else 1, high - arch, "arch", "corners"
        )
