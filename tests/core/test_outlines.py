"""Outlines as they are struck: rule and compasses must draw the very edge that everything is judged by.

Outside judge: shapely measures how far the edge lies from the nearest thing drawn.
"""

from __future__ import annotations

import math
from typing import Any

import shapely
from django.test import SimpleTestCase

from splay.layout.outlines import strike
from splay.piece import Piece, read_piece, write_piece
from splay.piece.starters import starter
from splay.quantity import Show
from splay.shop import workbench
from splay.stance.outline import edge_distance, extent, points, polygon, rim
from tests.core.make import piece

SHOW = Show(workbench().rounding.units())
OUTLINES: tuple[dict[str, Any], ...] = (
    {"kind": "round", "diameter": 344},
    {"kind": "oval", "length": 520, "width": 330},
    {"kind": "oval", "length": 330, "width": 520},
    {"kind": "rectangle", "length": 610, "width": 280},
    {"kind": "rectangle", "length": 610, "width": 280, "corner": 46},
    {"kind": "rounded_triangle", "side": 236, "arc": 286},
    {"kind": "rounded_triangle", "side": 236, "arc": 286, "first": 20},
    {"kind": "d", "length": 420, "width": 300, "straight": 90},
    {"kind": "d", "length": 420, "width": 300},
    {"kind": "shield", "length": 390, "width": 370, "bow": 24, "corner": 30},
    {"kind": "shield", "length": 390, "width": 370, "bow": 0, "corner": 0},
)


def topped(outline: dict[str, Any]) -> Piece:
    return piece(outline=outline, placement={"way": "circle", "count": 3, "radius": 70})


def drawn_lines(made: Piece) -> shapely.MultiLineString:
    """Everything the step draws, as lines."""
    _, _, _, marks = strike(made, SHOW)
    return shapely.MultiLineString([m.points for m in marks if len(m.points) > 1])


class Struck(SimpleTestCase):
    def test_what_is_drawn_runs_along_the_whole_edge(self) -> None:
        # Arcs are drawn in chords of five degrees: 0.3 mm inside a radius of 300.
        for outline in OUTLINES:
            made = topped(outline)
            lines = drawn_lines(made)
            far = max(lines.distance(shapely.Point(p)) for p in points(made.top.outline))
            with self.subTest(**outline):
                self.assertLess(far, 0.5)

    def test_an_edge_drawn_over_is_drawn_through_its_corners(self) -> None:
        made = starter("log_slice")
        lines = drawn_lines(made)
        outline = made.top.outline
        assert outline.kind == "drawn"
        for corner in outline.corners:
            self.assertLess(lines.distance(shapely.Point(corner.x, corner.y)), 1e-6)
        figures = strike(made, SHOW)[2]
        self.assertEqual(len(figures), len(outline.corners))
        self.assertIn("right", figures[0].label)

    def test_a_string_round_two_pins_draws_the_oval(self) -> None:
        """Both runs of the string and the way between the pins make the loop, wherever the pencil is."""
        for outline in OUTLINES[1:3]:
            made = topped(outline)
            _, _, figures, marks = strike(made, SHOW)
            loop = next(f.quantity.value for f in figures if f.key.endswith("string"))
            pins = [m.points[0] for m in marks if m.kind == "point"]
            apart = math.dist(*pins)
            for p in points(made.top.outline)[::15]:
                self.assertAlmostEqual(sum(math.dist(p, pin) for pin in pins) + apart, loop, 6)

    def test_the_arc_of_a_bow_passes_through_both_corners_and_its_middle(self) -> None:
        made = topped(OUTLINES[9])
        figures = {f.key.rpartition(".")[2]: f.quantity.value for f in strike(made, SHOW)[2]}
        for name in ("back", "side"):
            chord, radius = figures[name], figures[f"{name}_arc"]
            self.assertAlmostEqual(radius - math.sqrt(radius**2 - (chord / 2) ** 2), 24, 9)

    def test_equal_diagonals_are_said_for_a_rectangle(self) -> None:
        figures = strike(topped(OUTLINES[3]), SHOW)[2]
        self.assertAlmostEqual(figures[0].quantity.value, math.hypot(610, 280), 9)

    def test_the_three_cornered_top_is_as_wide_one_way_as_another(self) -> None:
        made = topped(OUTLINES[5])
        wide = next(f.quantity.value for f in strike(made, SHOW)[2] if f.key.endswith("width"))
        ring = points(made.top.outline)
        for turn in range(0, 180, 7):
            u = (math.cos(math.radians(turn)), math.sin(math.radians(turn)))
            along = [p[0] * u[0] + p[1] * u[1] for p in ring]
            self.assertAlmostEqual(max(along) - min(along), wide, delta=0.05)


class Inside(SimpleTestCase):
    def test_extent_rim_and_distance_agree_with_the_polygon(self) -> None:
        for outline in OUTLINES:
            made = topped(outline).top.outline
            edge = polygon(made)
            low_x, low_y, high_x, high_y = edge.bounds
            a, b = extent(made)
            with self.subTest(**outline):
                self.assertAlmostEqual(a, max(high_x, -low_x), 6)
                self.assertAlmostEqual(b, max(high_y, -low_y), 6)
                for bearing in range(0, 360, 23):
                    at = rim(made, bearing)
                    self.assertLess(edge.exterior.distance(shapely.Point(at)), 0.02)
                    inner = (at[0] * 0.8, at[1] * 0.8)
                    want = edge.exterior.distance(shapely.Point(inner))
                    self.assertAlmostEqual(edge_distance(made, inner), want, delta=0.02)
                    self.assertLess(edge_distance(made, (at[0] * 1.2, at[1] * 1.2)), 0)

    def test_a_finer_edge_drawn_over_keeps_its_corners(self) -> None:
        document = write_piece(starter("log_slice"))
        document["top"]["outline"]["smooth"] = False
        made = read_piece(document).top.outline
        assert made.kind == "drawn"
        self.assertEqual(set(points(made)), {(c.x, c.y) for c in made.corners})
        clockwise = {**document["top"]["outline"], "corners": document["top"]["outline"]["corners"][::-1]}
        document["top"]["outline"] = clockwise
        self.assertTrue(shapely.Polygon(points(read_piece(document).top.outline)).exterior.is_ccw)
