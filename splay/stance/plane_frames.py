"""Two frames of square stock, each leaning in its own plane, joined by short links."""

from __future__ import annotations

from splay.piece import PlaneFrames
from splay.quantity import degrees as deg
from splay.stance.body import Body, Sides, body, pose
from splay.stance.convex import Plane, plane_at
from splay.stance.floor import Floor, floor_plane, underside
from splay.stance.side_taper import tapered
from splay.stance.sweep import swept
from splay.stance.vectors import Vec, along, cross, dot, unit

_LEGS = {-1: "left", 1: "right"}
_FRAMES = {-1: "front", 1: "back"}


def plane_frames(support: PlaneFrames, index: int, floor: Floor) -> tuple[Body, ...]:
    """Legs, cross-pieces and links. `length` is taken at the middle of a frame's thickness.

    A frame that leans r is laid out in its own plane, where its legs stand at m off the middle
    line: tan m = tan s · cos r.
    """
    made: list[Body] = []
    for back in (-1, 1):
        frame = _Frame(support, index, back, floor)
        made += [frame.leg(1), frame.leg(-1)]
        made += [frame.cross(k) for k in range(len(support.cross))]
    return (*made, *_links(support, index))


class _Frame:
    def __init__(self, support: PlaneFrames, index: int, back: int, floor: Floor) -> None:
        self.support, self.index, self.back, self.floor = support, index, back, floor
        self.out = outward(support.rake, back)
        self.y = _middle_line(support, back)

    def direction(self, side: int) -> Vec:
        """A leg's way from top to floor."""
        s, r = self.support.splay, self.support.rake
        return unit((side * deg.tan(s), self.back * deg.tan(r), -1.0))

    def edge(self, side: int) -> Vec:
        """Square to a leg in the frame's plane, away from the middle."""
        across = cross(self.out, self.direction(side))
        return across if across[0] * side > 0 else (-across[0], -across[1], -across[2])

    def top(self, side: int) -> Vec:
        """Where a leg's middle line meets the underside."""
        half = self.support.face / 2 / abs(self.edge(side)[0])
        return (side * (self.support.length / 2 - half), self.y, 0.0)

    def leg(self, side: int) -> Body:
        where = pose(self.top(side), self.direction(side), self.out)
        outer = dot(where.across, self.edge(side)) > 0
        names = ("outer edge", "inner edge") if outer else ("inner edge", "outer edge")
        leg = body(
            f"{self.support.id}.{_FRAMES[self.back]}.leg.{_LEGS[side]}",
            f"{_LEGS[side]} leg of the {_FRAMES[self.back]} frame",
            "leg",
            self.index,
            f"{self.support.id}.leg" + ("" if self.floor.fall_deg == 0 else f".{side}.{self.back}"),
            where,
            (self.support.face, self.support.thickness),
            Sides(*names, "outer face", "inner face"),
            (underside(), floor_plane(self.floor)),
            stands=True,
            allowance=self.support.allowance,
            frame=_FRAMES[self.back],
        )
        return tapered(leg, self.support.taper, -1 if outer else 1)

    def cross(self, k: int) -> Body:
        piece = self.support.cross[k]
        rake = self.support.rake
        down = (0.0, self.back * deg.sin(rake), -deg.cos(rake))
        # What a level edge of a leaning piece slopes through its thickness; an arc is sawn square.
        slope, arc = piece.thickness * deg.tan(rake), piece.arc
        tall, above, below = piece.stands, slope / 2, slope / 2
        if arc is not None:
            above, below = (above if arc.upper == "straight" else 0.0), 0.0
        high = piece.drop / deg.cos(rake) - above
        size = tall + above + below
        middle = along((0.0, self.y, 0.0), down, high + size / 2)
        where = pose(middle, (1.0, 0.0, 0.0), self.out)
        upper_first = where.across[2] > 0
        names = ("upper edge", "lower edge") if upper_first else ("lower edge", "upper edge")
        low = piece.drop + piece.depth * deg.cos(rake)
        level: tuple[Plane, ...] = (Plane((0.0, 0.0, 1.0), -piece.drop), Plane((0.0, 0.0, -1.0), low))
        if arc is not None:
            level = level[:1] if arc.upper == "straight" else ()
        made = body(
            f"{self.support.id}.{_FRAMES[self.back]}.cross.{k + 1}",
            f"cross-piece {k + 1} of the {_FRAMES[self.back]} frame",
            "cross",
            self.index,
            f"{self.support.id}.cross.{k + 1}",
            where,
            (size, piece.thickness),
            Sides(*names, "outer face", "inner face"),
            (self._end(-1), self._end(1)),
            rips=level,
            frame=_FRAMES[self.back],
        )
        return swept(made, arc, -1 if upper_first else 1, piece.depth, f"cross.{k}.arc.rise")

    def _end(self, side: int) -> Plane:
        edge = self.edge(side)
        return plane_at(edge, along(self.top(side), edge, -self.support.face / 2))


def outward(lean: float, back: int) -> Vec:
    """Outward normal of a frame leaning `lean` degrees to the front (-1) or back (+1)."""
    return (0.0, back * deg.cos(lean), deg.sin(lean))


def _middle_line(support: PlaneFrames, back: int) -> float:
    return back * (support.width / 2 - support.thickness / 2 / deg.cos(support.rake))


def _links(support: PlaneFrames, index: int) -> list[Body]:
    """Short pieces from frame to frame, flush under the top; at the cross-pieces where there are any."""
    count = support.links
    thick = support.cross[0].thickness if support.cross else support.thickness
    reach = support.length / 2 - support.face / 2
    if support.cross:
        reach -= support.face + support.link_width / 2
    made = []
    for k in range(count):
        x = 0.0 if count == 1 else -reach + 2 * reach * k / (count - 1)
        ends = []
        for back in (-1, 1):
            out = outward(support.rake, back)
            face = along((x, _middle_line(support, back), 0.0), out, -thick / 2)
            ends.append(plane_at(out, face))
        where = pose((x, 0.0, -support.link_thickness / 2), (0.0, 1.0, 0.0), (0.0, 0.0, 1.0))
        made.append(
            body(
                f"{support.id}.link.{k + 1}",
                f"link {k + 1} between the frames",
                "link",
                index,
                f"{support.id}.link",
                where,
                (support.link_width, support.link_thickness),
                Sides("left edge", "right edge", "upper face", "lower face"),
                (ends[0], ends[1]),
            )
        )
    return made
