"""The solids of the turnable view: closed, and as much wood as the part holds."""

from __future__ import annotations

import math
from collections import Counter

import numpy as np
from django.test import SimpleTestCase

from splay.draw import draw
from splay.piece import Piece, read_piece, write_piece
from splay.piece.starters import STARTS, starter
from splay.shop import workbench
from splay.views.mesh import Mesh
from tests.core.make import piece, planned, round_stool

ROUND_SHARE = 24 / (2 * math.pi) * math.sin(2 * math.pi / 24)
"""What a 24-sided prism holds of its cylinder."""


def meshes(made: Piece) -> tuple[Mesh, ...]:
    return draw(made, workbench(), planned(made), "solid").meshes


def volume(mesh: Mesh) -> float:
    points = np.array(mesh.points).reshape(-1, 3)
    a, b, c = (points[np.array(mesh.triangles).reshape(-1, 3)[:, k]] for k in range(3))
    return float(np.einsum("ij,ij->i", a, np.cross(b, c)).sum() / 6.0)


def open_edges(mesh: Mesh) -> int:
    """Edges that do not run once each way: by place, for corners may be given twice."""
    points = np.array(mesh.points).reshape(-1, 3).round(2)
    names = [tuple(p) for p in points]
    edges: Counter[tuple[object, object]] = Counter()
    for t in np.array(mesh.triangles).reshape(-1, 3):
        for i, j in ((0, 1), (1, 2), (2, 0)):
            a, b = names[t[i]], names[t[j]]
            if a != b:
                edges[a, b] += 1
    return sum(abs(count - edges[b, a]) for (a, b), count in edges.items())


class Solids(SimpleTestCase):
    def test_every_part_of_every_kind_is_closed_and_turned_outward(self) -> None:
        for name in STARTS:
            for mesh in meshes(starter(name)):
                with self.subTest(name, part=mesh.part):
                    self.assertEqual(open_edges(mesh), 0)
                    self.assertGreater(volume(mesh), 0.0)

    def test_edges_are_drawn_where_the_part_has_them_and_not_where_it_was_worked_out_in_pieces(
        self,
    ) -> None:
        """A board 230 by 300, 120 by 40 cut out of its foot: all its edges by hand."""
        document = write_piece(starter("board_sides"))
        support = document["supports"][0]
        support |= {"splay": 0.0, "cut_out": {"width": 120.0, "height": 40.0}}
        document["height"] = 300.0 + document["top"]["thickness"]
        long = 0.0
        for mesh in meshes(read_piece(document)):
            if mesh.part == "s1.side.left":
                points = np.array(mesh.points).reshape(-1, 3)
                ends = points[np.array(mesh.edges).reshape(-1, 2)]
                # Each edge belongs to two faces, and is drawn with either.
                segments = {tuple(sorted((tuple(a.round(1)), tuple(b.round(1))))) for a, b in ends}
                long += sum(math.dist(a, b) for a, b in segments)
        # Round either face: 230 + 2 * 300 + 2 * 55 + 2 * 40 + 120; across the thickness at eight corners.
        around = 230 + 2 * 300 + 2 * 55 + 2 * 40 + 120
        self.assertAlmostEqual(long, 2 * around + 8 * support["thickness"], 1)

    def test_a_bellied_leg_holds_the_wood_of_two_cones(self) -> None:
        """Frustums h/3 (A + B + √AB): the slanted ends take as much as they give."""
        belly = {"at": 0.4, "size": 56}
        for section in ("round", "square", "octagon"):
            leg = {"at_top": 36, "at_foot": 30, "belly": belly, "section": section}
            made = round_stool(12, leg=leg)
            long = planned(made).stance.legs[0].exposed
            area = {"round": math.pi / 4, "square": 1.0, "octagon": 2 * (math.sqrt(2) - 1)}[section]
            whole = 0.0
            for high, one, two in ((0.4 * long, 36, 56), (0.6 * long, 56, 30)):
                whole += high / 3 * area * (one**2 + two**2 + one * two)
            if section == "round":
                whole *= ROUND_SHARE
            mesh = next(m for m in meshes(made) if m.part == "leg.1")
            with self.subTest(section):
                self.assertAlmostEqual(volume(mesh) / whole, 1.0, delta=0.01)

    def test_a_square_stick_holds_what_its_planes_leave(self) -> None:
        document = write_piece(piece(leg={"at_top": 40, "at_foot": 40, "section": "square"}))
        made = read_piece(document)
        leg = planned(made).stance.legs[0]
        mesh = next(m for m in meshes(made) if m.part == "leg.1")
        self.assertAlmostEqual(volume(mesh) / (40 * 40 * leg.exposed), 1.0, delta=0.002)
