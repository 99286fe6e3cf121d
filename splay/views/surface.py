"""How much surface a piece has: what a coat must cover."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from splay.piece import Piece
from splay.plan import Plan
from splay.quantity import Show
from splay.stance.members import members
from splay.views.mesh import Mesh, seen_meshes
from splay.views.scene import Model

_MM2 = 1e-6


@dataclass(frozen=True)
class Surface:
    """Square metres of the top, the legs, and all that runs between or stands under it; tenons and rope are
    not in it, faces that close a joint of squared parts are (they are little)."""

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
    return Surface(areas["top"] * _MM2, areas["leg"] * _MM2, (areas["stick"] + areas["member"]) * _MM2)


def area(mesh: Mesh) -> float:
    """Square millimetres of a mesh's triangles together."""
    points = np.array(mesh.points).reshape(-1, 3)
    corners = points[np.array(mesh.triangles).reshape(-1, 3)]
    crossed = np.cross(corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0])
    return float(np.linalg.norm(crossed, axis=1).sum() / 2.0)
