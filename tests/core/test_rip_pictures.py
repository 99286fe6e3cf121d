"""Pictures of bevelled edges and tapers against the parts' own corners: which face is wider at which
edge, and at which hand the foot lies for one who looks as drawn. Of the plan only the solids are used."""

from __future__ import annotations

import numpy as np
from django.test import SimpleTestCase

from splay.piece import Piece, read_piece, write_piece
from splay.piece.starters import starter
from splay.setups.scenes import BevelledEdge, SideTapering
from splay.stance.body import Body
from splay.views.stick_pictures import bevelled_edge, side_taper
from tests.core.make import planned

STARTS = ("aproned", "plane_frames", "board_sides")


def bodies(made: Piece) -> dict[str, Body]:
    return {body.key: body for body in planned(made).stance.bodies}


def wider_at(body: Body, edge: float, up: float) -> float:
    """How far a face (`up` its sign) reaches towards an edge (its sign across), mm, from the corners."""
    corners = np.array([p for face in body.plain for p in face.corners])
    face = corners[np.sign(corners[:, 2]) == up]
    return float((face[:, 1] * edge).max())


class Bevels(SimpleTestCase):
    def test_each_edge_is_drawn_leaning_as_the_wood_does(self) -> None:
        seen = 0
        for name in STARTS:
            made = starter(name)
            parts = bodies(made)
            for card in planned(made).setups:
                if not isinstance(card.scene, BevelledEdge):
                    continue
                body = parts[card.parts[0]]
                self.assertEqual(
                    (card.scene.face, card.scene.other, card.scene.edge, card.scene.other_edge),
                    (body.sides.face, body.sides.other_face, body.sides.edge, body.sides.other_edge),
                )
                drawn = next(shape for shape in bevelled_edge(card.scene) if shape.layer == "section")
                points = np.array(drawn.points)
                for edge in (1.0, -1.0):
                    # Its first face is drawn up, its first edge at the right.
                    ends = [(points[np.sign(points[:, 1]) == up][:, 0] * edge).max() for up in (1.0, -1.0)]
                    real = [wider_at(body, edge, up) for up in (1.0, -1.0)]
                    lean = real[0] - real[1]
                    self.assertEqual(np.sign(ends[0] - ends[1]), np.sign(round(lean, 6)), card.title)
                    seen += lean != 0.0
        self.assertGreater(seen, 8)


class Tapers(SimpleTestCase):
    def test_the_foot_lies_at_the_hand_it_is_drawn_at(self) -> None:
        hands, under = set(), set()
        for sides in ("inside", "all"):
            document = write_piece(starter("aproned"))
            document["supports"][0]["taper"] = {"sides": sides, "begins": 120, "foot": 26}
            made = read_piece(document)
            parts = bodies(made)
            for card in planned(made).setups:
                if not isinstance(card.scene, SideTapering):
                    continue
                body = parts[card.parts[0]]
                # Each side's way out of the wood, by the name written on it.
                ways = {
                    body.sides.named((a, b)): np.array(body.pose.turn_out((0.0, float(a), float(b))))
                    for a, b in ((1, 0), (-1, 0), (0, 1), (0, -1))
                }
                toward_eye = ways[card.scene.up or card.scene.on]
                away = ways[card.scene.side]
                if card.scene.up:
                    np.testing.assert_allclose(ways[card.scene.up], -ways[card.scene.on], atol=1e-9)
                right = np.cross(away, toward_eye)
                foot = np.array(body.pose.along) * np.sign(np.array(body.pose.along) @ (0.0, 0.0, -1.0))
                at_right = bool(foot @ right > 0.0)
                # What is sawn off lies towards the foot.
                waste = next(shape for shape in side_taper(card.scene) if shape.layer == "waste")
                self.assertEqual(float(np.mean(np.array(waste.points)[:, 0])) > 0.0, at_right, card.title)
                hands.add(at_right)
                under.add(bool(card.scene.up))
        self.assertEqual(under, {True, False})
        self.assertEqual(len(hands), 2)
