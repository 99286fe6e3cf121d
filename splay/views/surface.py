"""How much surface a piece has: what a coat must cover."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
import shapely

from splay.piece import Piece
from splay.plan import Plan
from splay.quantity import Show
from splay.stance.body import Body
from splay.stance.members import members
from splay.stance.vectors import cross, dot, unit
from splay.views.mesh import Mesh, seen_meshes
from splay.views.scene import Model

_MM2 = 1e-6


@dataclass(frozen=True)
class Surface:
    """Square metres of the top, the legs, and all that runs between or stands under it; tenons and rope are
    not in it, sawn ends that close a joint of squared parts are (they are little)."""

    top: float
    legs: float
    rest: float

    @property
    def all(self) -> float:
        """The whole, square metres."""
        return self.top + self.legs + self.rest


def surface(piece: Piece, plan: Plan, show: Show) -> Surface:
    """The surface of a planned piece as it will stand."""
    runs, ropes = members(piece, plan.stance)
    model = Model(piece, plan.stance, plan.parts, plan.sockets, show, (), runs, ropes)
    areas = {"top": 0.0, "leg": 0.0, "stick": 0.0, "member": 0.0, "rope": 0.0}
    for mesh in seen_meshes(model):
        areas[mesh.stuff] += area(mesh)
    for body in plan.stance.bodies:
        # What was notched is worked out in pieces: where they lie against one another is no surface.
        if body.drawn and len(body.stood) > 1:
            areas["stick"] -= _seams(body)
    return Surface(areas["top"] * _MM2, areas["leg"] * _MM2, (areas["stick"] + areas["member"]) * _MM2)


def _seams(body: Body) -> float:
    """What the pieces a part is worked out in have of surface against one another, mm², both sides."""
    sides: dict[tuple[float, ...], list[shapely.Polygon]] = {}
    for solid in body.pieces:
        for face in solid:
            # One way round for both sides of a plane, so that they can be laid over one another.
            turned = tuple(-n for n in face.normal) < face.normal
            n = face.normal if turned else (-face.normal[0], -face.normal[1], -face.normal[2])
            across = unit(cross(n, (0.0, 0.0, 1.0) if abs(n[2]) < 0.9 else (1.0, 0.0, 0.0)))
            up = cross(n, across)
            key = (*(round(k, 5) + 0.0 for k in n), round(dot(n, face.corners[0]), 2), turned)
            ring = [(dot(p, across), dot(p, up)) for p in face.corners]
            sides.setdefault(key, []).append(shapely.Polygon(ring))
    total = 0.0
    for key, one in sides.items():
        two = sides.get((*key[:-1], False), []) if key[-1] else []
        total += 2.0 * float(shapely.union_all(one).intersection(shapely.union_all(two)).area)
    return total


def area(mesh: Mesh) -> float:
    """Square millimetres of a mesh's triangles together."""
    points = np.array(mesh.points).reshape(-1, 3)
    corners = points[np.array(mesh.triangles).reshape(-1, 3)]
    crossed = np.cross(corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0])
    return float(np.linalg.norm(crossed, axis=1).sum() / 2.0)
