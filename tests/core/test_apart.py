"""How much wood is left between holes: against closed solids and drawn mouths that know no formula."""

from __future__ import annotations

import math
import random
from itertools import combinations

import manifold3d
import numpy as np
import shapely
from django.test import SimpleTestCase
from shapely import affinity

from splay.judge.members import _socket
from splay.judge.sockets import wood_between
from splay.piece import Piece, Stretcher, read_piece, write_piece
from splay.piece.starters import starter
from splay.stance.apart import clear
from splay.stance.members import members
from splay.stance.restate import Restate, restate
from splay.stance.rods import Rod
from splay.stance.staked import LegStance, stand
from splay.stance.vectors import Vec, unit

ROUND = 96
"""Corners of a round solid: within 0.01 mm of round at the radii used here."""


def solid(rod: Rod) -> manifold3d.Manifold:
    """The rod as a closed body (manifold3d), built standing and laid along its line."""
    a, b = np.array(rod.a), np.array(rod.b)
    long = float(np.linalg.norm(b - a))
    way = (b - a) / long
    side = np.cross(way, (1.0, 0.0, 0.0) if abs(way[0]) < 0.7 else (0.0, 1.0, 0.0))
    side /= np.linalg.norm(side)
    frame = np.column_stack((side, np.cross(way, side), way, a))
    return manifold3d.Manifold.cylinder(long, rod.radius, rod.radius, ROUND).transform(frame)


class Rods(SimpleTestCase):
    def somewhere(self, rng: random.Random) -> Rod:
        way = unit((rng.uniform(-1, 1), rng.uniform(-1, 1), rng.uniform(-1, 1)))
        at: Vec = (rng.uniform(-30, 30), rng.uniform(-30, 30), rng.uniform(-30, 30))
        long = rng.choice((4.0, 20.0, 60.0))
        end = (at[0] + long * way[0], at[1] + long * way[1], at[2] + long * way[2])
        return Rod("peg", "j", "a peg", frozenset(), at, end, rng.choice((3.0, 8.0, 15.0)), field="")

    def test_the_wood_between_two_is_what_two_solids_leave(self) -> None:
        rng = random.Random(5)
        off: list[float] = []
        while len(off) < 60:
            one, two = self.somewhere(rng), self.somewhere(rng)
            told = clear(one, two)
            if told > 12.0:
                continue
            there = solid(one).min_gap(solid(two), 20.0)
            if there >= 5.0:
                # Far apart it is a bound: no more than there is.
                self.assertLessEqual(told, there + 0.6)
                self.assertGreaterEqual(told, 4.0)
            elif there > 0.0:
                off.append(abs(told - there))
            else:
                self.assertLessEqual(told, 0.6)
        # Rims are looked at in 24 places: where two rims face each other that is coarsest.
        self.assertLess(max(off), 0.6)
        self.assertLess(sum(off) / len(off), 0.08)


def mouth(leg: LegStance, piece: Piece) -> shapely.Polygon:
    """A hole's mouth in the face, about its own middle: the bit's section stretched along the lean."""
    lean = leg.boring
    joint = piece.supports[leg.support].joint  # type: ignore[union-attr]
    half = leg.bore.size / 2
    if joint.way == "shouldered":
        section = shapely.box(-half, -joint.across / 2, half, joint.across / 2)
    else:
        section = shapely.Point(0, 0).buffer(half, quad_segs=256)
    if lean.bearing is None:
        return section
    stretched = affinity.scale(section, 1 / math.cos(math.radians(lean.resultant)), 1.0, origin=(0, 0))
    return affinity.rotate(stretched, lean.bearing, origin=(0, 0))


class Mouths(SimpleTestCase):
    def pieces(self) -> list[Piece]:
        made = []
        for name in ("round_four", "bench", "round_three"):
            for joint in ("through", "shouldered", "blind"):
                document = write_piece(restate(starter(name), Restate("joint", joint)))
                document["supports"][0]["angles"] = [
                    {"by": "resultant", "resultant": 19.0, "sightline": 31.0, "measured_from": "out"}
                ]
                made.append(read_piece(document))
        return made

    def test_it_is_the_middles_distance_less_what_each_mouth_reaches_towards_the_other(self) -> None:
        for piece in self.pieces():
            for a, b in combinations(stand(piece).legs, 2):
                (x, y), (u, v) = a.place.at, b.place.at
                far = math.dist((x, y), (u, v))
                way = ((u - x) / far, (v - y) / far)
                reach = sum(
                    max(p * way[0] * sign + q * way[1] * sign for p, q in mouth(leg, piece).exterior.coords)
                    for leg, sign in ((a, 1.0), (b, -1.0))
                )
                told = wood_between(piece, a, b, a.place.at, b.place.at)
                self.assertAlmostEqual(told, far - reach, delta=0.01)
                gap = affinity.translate(mouth(a, piece), x, y).distance(
                    affinity.translate(mouth(b, piece), u, v)
                )
                self.assertLessEqual(told, gap + 0.01)


class Sockets(SimpleTestCase):
    def test_a_stretcher_s_socket_goes_from_the_leg_s_surface_away_from_the_other_leg(self) -> None:
        for name, to in (("round_four", "h"), ("bench", "box"), ("round_three", "triangle")):
            piece = restate(starter(name), Restate("members", to))
            runs, _ = members(piece, stand(piece))
            for run in runs:
                chosen = piece.members[run.number - 1]
                assert isinstance(chosen, Stretcher)
                back = (-run.u[0], -run.u[1], -run.u[2])
                for end, other, out in ((*run.ends, run.u), (*run.ends[::-1], back)):
                    surface, bottom = _socket(chosen, end, out)
                    between_surfaces = run.centres - end.leaves
                    self.assertAlmostEqual(math.dist(surface, other.at), between_surfaces, 6)
                    self.assertAlmostEqual(math.dist(bottom, other.at), between_surfaces + chosen.depth, 6)
                    self.assertAlmostEqual(math.dist(surface, bottom), chosen.depth, 6)
