"""A slab bench from a live edge: its straight end, its leg's own edges, dowels from outside."""

from __future__ import annotations

import itertools
import math
import random
from dataclasses import replace
from typing import Any

import numpy as np
import shapely
from django.test import SimpleTestCase
from hypothesis import given, settings
from hypothesis import strategies as st
from manifold3d import CrossSection, Manifold

from splay.build.document import Build
from splay.build.order import order_of
from splay.errors import BadInput
from splay.level.feet import feet_of
from splay.piece import Piece, SlabLeg, read_piece, straight_end, write_piece
from splay.piece.starters import starter
from splay.quantity import Show, Units
from splay.shop import workbench
from splay.stance.body import Body
from splay.stance.convex import volume
from splay.stance.moves import Move, move
from splay.stance.outline import points, polygon
from splay.stance.outside import driven, in_turn
from splay.stance.restate import Restate, restate
from splay.stance.staked import stand
from splay.timber.choices import WoodChoice
from splay.timber.needs import needs_of
from splay.views.mesh import seen_meshes
from splay.views.scene import Model
from splay.views.surface import surface
from splay.work.does import LongPoint
from splay.work.joinery import Places
from splay.work.lays import IntoSide
from tests.bench.judged import carry_out
from tests.bench.levelled import level
from tests.bench.pieces import framed, random_shop
from tests.core.make import planned, with_cards
from tests.core.test_blind import limit

END = 540.0
T = 48.0
CORNERS = [
    (-END, -150, True), (-300, -172, False), (40, -158, False), (360, -176, False), (545, -120, False),
    (552, 90, False), (330, 168, False), (-20, 181, False), (-310, 166, False), (-END, 174, True),
]  # fmt: skip
EDGES = [{"down": 110, "front": 160, "back": 168}, {"down": 270, "front": 141, "back": 186}]


def bench(smooth: bool = True, edges: Any = EDGES, **leg: Any) -> Piece:
    """Drawn over a slab, its left end straight, the leg there with edges of its own."""
    document = write_piece(starter("slab"))
    corners = [{"x": x, "y": y, "sharp": sharp} for x, y, sharp in CORNERS]
    document["top"] |= {"outline": {"kind": "drawn", "corners": corners, "smooth": smooth}, "thickness": T}
    document["supports"][0] |= {"splay": 11.0, "edges": edges, **leg}
    return read_piece(document)


def leg_of(piece: Piece) -> Body:
    return next(body for body in stand(piece).bodies if body.role == "slab_leg")


class StraightEnds(SimpleTestCase):
    def test_the_end_is_where_the_two_outermost_corners_stand_level_and_sharp(self) -> None:
        outline = bench().top.outline
        self.assertEqual(straight_end(outline, "left"), (-END, -150.0, 174.0))
        self.assertIsNone(straight_end(outline, "right"))

    def test_between_two_sharp_corners_a_curve_runs_straight_and_elsewhere_through_every_corner(
        self,
    ) -> None:
        ring = points(bench().top.outline)
        on_end = [p for p in ring if abs(p[0] + END) < 1e-9]
        self.assertEqual(len(on_end), 9)
        for x, y, _ in CORNERS:
            self.assertLess(min(math.dist(p, (x, y)) for p in ring), 1e-9)
        # No point of the curve lies past the end it is to be mitred at.
        self.assertGreaterEqual(min(x for x, _ in ring), -END - 1e-9)

    def test_an_end_that_is_not_straight_is_refused_with_what_to_do(self) -> None:
        document = write_piece(bench())
        corners = document["top"]["outline"]["corners"]
        for change in ({"x": -END + 3}, {"sharp": False}):
            was = dict(corners[0])
            corners[0] |= change
            with self.subTest(change), self.assertRaisesMessage(BadInput, "sharp") as refused:
                read_piece(document)
            # Said in words: no outline is recited.
            self.assertNotIn("{", str(refused.exception))
            corners[0] = was

    def test_edges_out_of_order_or_on_one_another_are_refused(self) -> None:
        for wrong, said in (
            ([EDGES[1], EDGES[0]], "from the mitre down"),
            ([{"down": 80, "front": 100, "back": -95}], "20 mm apart"),
        ):
            with self.subTest(said), self.assertRaisesMessage(BadInput, said):
                bench(edges=wrong)

    def test_choosing_a_slab_leg_saws_a_drawn_outline_straight_there_and_keeps_the_rest(self) -> None:
        drawn = write_piece(starter("log_slice"))
        was = polygon(read_piece(drawn).top.outline)
        for end, index in (("left", 1), ("right", 2)):
            made = restate(read_piece(drawn), Restate("support", "slab_leg", support=1))
            if index == 2:
                made = restate(made, Restate("support", "slab_leg", support=2))
            found = straight_end(made.top.outline, end)  # type: ignore[arg-type]
            assert found is not None
            now = polygon(made.top.outline)
            self.assertGreater(now.intersection(was).area, 0.97 * now.area)
            self.assertGreater(now.area, 0.85 * was.area)

    def test_a_rectangle_with_a_slab_leg_drawn_over_keeps_its_end(self) -> None:
        made = restate(starter("slab"), Restate("outline", "drawn"))
        self.assertIsNotNone(straight_end(made.top.outline, "left"))
        # And when a curve is then run through its corners.
        document = write_piece(made)
        document["top"]["outline"]["smooth"] = True
        self.assertEqual(
            straight_end(read_piece(document).top.outline, "left"), straight_end(made.top.outline, "left")
        )

    def test_more_corners_move_nothing_and_leave_the_end_straight(self) -> None:
        for smooth in (True, False):
            piece = bench(smooth)
            finer = restate(piece, Restate("corners", "finer"))
            self.assertIsNotNone(straight_end(finer.top.outline, "left"))
            apart = polygon(piece.top.outline).symmetric_difference(polygon(finer.top.outline)).area
            self.assertLess(apart, 0.004 * polygon(piece.top.outline).area)

    def test_a_corner_of_the_end_takes_the_other_along_and_stays_sharp(self) -> None:
        piece = bench()
        moved = move(piece, Move("corner", "plan", (-500.0, -140.0), leg=1), 1.0)
        self.assertEqual(straight_end(moved.top.outline, "left"), (-500.0, -140.0, 174.0))


class OwnEdges(SimpleTestCase):
    def prism(self, piece: Piece) -> Manifold:
        """By another library: the face's polygon as deep as the wood, cut by mitre and floor."""
        leg = leg_of(piece)
        across = leg.pose.across[1]
        runs = [(0.0, -150.0, 174.0), *((e["down"], -e["front"], e["back"]) for e in EDGES)]
        runs.append((2000.0, *runs[-1][1:]))
        low = [(d, across * y) for d, y, _ in runs]
        high = [(d, across * y) for d, _, y in runs]
        ring = shapely.geometry.polygon.orient(shapely.Polygon([*low, *reversed(high)]))
        flat = CrossSection([list(ring.exterior.coords[:-1])])
        made = Manifold.extrude(flat, T).translate((0.0, 0.0, -T / 2))
        for plane in (leg.start, leg.finish):
            made = made.trim_by_plane((-np.array(plane.normal)).tolist(), -plane.offset)
        return made

    def test_the_leg_is_what_another_library_cuts_from_the_drawn_face(self) -> None:
        for lean in ({}, {"lean": {"fall": 3, "toward": 90}}):
            piece = read_piece({**write_piece(bench()), **lean})
            mine = sum(volume(solid) for solid in leg_of(piece).pieces)
            self.assertAlmostEqual(mine / self.prism(piece).volume(), 1.0, 6)

    def test_it_stands_on_as_much_as_its_edges_leave_there_and_is_levelled_along_them(self) -> None:
        piece = bench(
            edges=[{"down": 200, "front": 120, "back": 130}, {"down": 700, "front": 170, "back": 130}]
        )
        long = (piece.height) / math.cos(math.radians(11.0))
        front = 120 + (170 - 120) * (long - 200) / 500
        foot = next(f for f in feet_of(piece, stand(piece)) if f.name.startswith("front foot"))
        shown = foot.points(foot.cut_at(np.array((0.0, 0.0, 1.0)), piece.stands - T))
        self.assertAlmostEqual(min(p[1] for p in shown), -front, 3)
        # Sawn 40 mm shorter it is as much narrower as the edge runs in there.
        shorter = foot.points(foot.cut_at(np.array((0.0, 0.0, 1.0)), piece.stands - T - 40.0))
        less = 50 / 500 * 40 / math.cos(math.radians(11.0))
        self.assertAlmostEqual(min(p[1] for p in shorter) - min(p[1] for p in shown), less, 3)

    def test_a_length_goes_along_the_middle_line_and_no_gauge_along_an_edge(self) -> None:
        made = planned(bench())
        foot = next(c for c in made.setups if c.work.endswith("slab_leg.finish") and c.way == "mitre_saw")
        (point,) = (do for do in foot.does if isinstance(do, LongPoint))
        self.assertEqual(point.line, "middle line of its show face")
        # On the show face: the height over the cosine of the splay (the floor lies level).
        self.assertAlmostEqual(point.mm.value, bench().height / math.cos(math.radians(11.0)), 6)
        for proof in made.proofs:
            if "slab" in proof.id and proof.kind in ("cut", "long"):
                self.assertIn("middle line", proof.how)
                self.assertNotIn("edge", proof.how)
        for card in made.setups:
            if "slab" in card.work and card.operation == "crosscut":
                said = " ".join((*card.which_way, *card.steps))
                self.assertIn("strip" if card.way != "handsaw" else "middle line", said)
        straight = planned(starter("slab"))
        said = " ".join(line for card in straight.setups for line in (*card.which_way, *card.steps))
        self.assertNotIn("middle line of its", said)

    def test_what_is_drawn_in_the_round_holds_the_wood_the_top_has(self) -> None:
        piece = bench(smooth=False)
        plan_ = planned(piece)
        top = seen_meshes(Model(piece, plan_.stance, plan_.parts, plan_.sockets, Show(Units())))[0]
        made = np.array(top.points).reshape(-1, 3)[np.array(top.triangles).reshape(-1, 3)]
        mine = np.einsum("ij,ij->i", made[:, 0], np.cross(made[:, 1], made[:, 2])).sum() / 6.0
        flat = CrossSection([list(polygon(piece.top.outline).exterior.coords[:-1])])
        mitre = math.radians((90.0 - 11.0) / 2.0)
        # From the show corner down and in, the thickness times the tangent: the mitre's plane.
        c, s = math.cos(mitre), math.sin(mitre)
        wanted = Manifold.extrude(flat, T).trim_by_plane([c, 0.0, s], -END * c + T * s)
        self.assertAlmostEqual(mine / wanted.volume(), 1.0, 5)

    def test_the_slab_is_wanted_as_wide_as_leg_and_top_are_drawn(self) -> None:
        piece = bench()
        made = planned(piece)
        need = needs_of(piece, made, WoodChoice(margin=0.0, kerf=3.0), Show(Units()))[0]
        whole = polygon(piece.top.outline)
        leg = next(s for s in made.sticks if s.role == "slab_leg").blank.quantity.value
        runs = [(0.0, 324.0), (110.0, 328.0), (270.0, 327.0), (leg, 327.0)]
        below = sum((b - a) * (m + n) / 2 for (a, m), (b, n) in itertools.pairwise(runs))
        # The kerf's strip is as wide as the end.
        self.assertAlmostEqual(need.shape().area / (whole.area + below + 3.0 * 324.0), 1.0, 3)

    def test_another_place_is_put_on_the_edge_and_dragged_where_it_is_seen(self) -> None:
        piece = restate(bench(), Restate("edge_spot", "more"))
        leg = piece.supports[0]
        assert isinstance(leg, SlabLeg)
        self.assertEqual(len(leg.edges), 3)
        self.assertEqual((leg.edges[2].front, leg.edges[2].back), (141.0, 186.0))
        stance = stand(piece)
        # In the side view: 130 mm in front of the middle, 300 mm down the show face.
        high = stance.floor.h0_mm + T - 300.0 * math.cos(math.radians(11.0))
        moved = move(piece, Move("edge", "side", (-130.0, high), leg=3), 0.001).supports[0]
        assert isinstance(moved, SlabLeg)
        self.assertAlmostEqual(moved.edges[1].front, 130.0, 2)
        self.assertAlmostEqual(moved.edges[1].down, 300.0, 2)
        self.assertEqual(moved.edges[1].back, 186.0)
        with self.assertRaises(BadInput):
            move(piece, Move("edge", "side", (0.0, 0.0), leg=9), 1.0)

    def test_a_coat_covers_no_seam_that_is_not_there(self) -> None:
        """Drawn in places or not, a straight leg has one surface: that of a plain stick."""
        straight = [{"down": d, "front": 150, "back": 174} for d in (90, 180, 270)]
        both = [bench(edges=edges) for edges in ([], straight)]
        one, two = (surface(piece, planned(piece), Show(Units())).rest for piece in both)
        self.assertAlmostEqual(one, two, 5)
        drawn = bench()
        found = surface(drawn, planned(drawn), Show(Units())).rest
        self.assertAlmostEqual(found, self.prism(drawn).surface_area() * 1e-6, 4)


class FromOutside(SimpleTestCase):
    def one(self, runs: str, **chosen: Any) -> Any:
        piece = bench(outside={"size": 12, "level": 2, "plumb": 3, "past": 40, **chosen})
        return next(each for each in driven(piece) if each.runs == runs)

    def test_level_ones_pass_through_half_the_thickness_over_the_cosine(self) -> None:
        # tan s + tan (45 - s/2) = 1 / cos s: as far through the leg as their mark lies down its face.
        level = self.one("level")
        self.assertAlmostEqual(level.through, 24.0 / math.cos(math.radians(11.0)), 9)
        self.assertAlmostEqual(level.down, 24.0 / math.cos(math.radians(11.0)), 9)
        self.assertAlmostEqual(level.deep - level.through, 40.0, 9)
        self.assertEqual(level.between, 79.0)

    def test_plumb_ones_pass_through_half_the_top_as_far_in_as_the_mitre_runs(self) -> None:
        plumb = self.one("plumb")
        self.assertAlmostEqual(plumb.through, 24.0, 9)
        self.assertAlmostEqual(plumb.down, 24.0 * math.tan(math.radians(39.5)), 9)

    @given(st.integers(0, 8), st.integers(0, 8))
    @settings(max_examples=60, deadline=None)
    def test_they_take_turns_as_far_as_their_numbers_go(self, level: int, plumb: int) -> None:
        ways = in_turn(level, plumb)
        self.assertEqual((ways.count("level"), ways.count("plumb")), (level, plumb))
        few = min(level, plumb)
        if few and abs(level - plumb) <= 1:
            self.assertTrue(all(a != b for a, b in itertools.pairwise(ways)))

    def test_what_is_wrong_with_them_is_said(self) -> None:
        for sizes, code in (
            ({"level": 8, "plumb": 8, "size": 21}, "inside_meet"),
            ({"level": 0, "plumb": 2, "past": 190}, "dowel_out"),
            ({"level": 2, "plumb": 3}, ""),
        ):
            piece = bench(outside={"size": 12, "past": 40, **sizes})
            codes = {f.code for f in planned(piece).findings if f.code.startswith(("inside", "dowel"))}
            self.assertEqual(codes, {code} - {""})
        with self.assertRaisesMessage(BadInput, "at least one dowel"):
            bench(outside={"level": 0, "plumb": 0})

    def test_they_take_the_place_of_those_inside_and_are_bored_once_the_mitre_holds(self) -> None:
        piece = restate(bench(), Restate("outside", "on"))
        made = planned(piece)
        self.assertFalse([c for c in made.setups if c.operation == "dowel"])
        keys = [step.key for step in order_of(piece, made, Build()).steps]
        first = keys.index("glue.1")
        for key in ("outside.s1.level", "outside.s1.plumb"):
            self.assertLess(first, keys.index(key))
            self.assertLess(keys.index(key), keys.index("outside_in.s1.slab_leg"))
        self.assertLess(keys.index("outside_in.s1.slab_leg"), keys.index("level"))
        back = restate(piece, Restate("outside", "off"))
        self.assertTrue([c for c in planned(back).setups if c.operation == "dowel"])

    def test_they_start_where_no_rule_is_broken_whatever_the_thickness_and_splay(self) -> None:
        for thick, splay in itertools.product((25, 40, 70), (0, 8, 18)):
            document = write_piece(starter("slab"))
            document["top"]["thickness"] = thick
            document["supports"][0]["splay"] = splay
            made = planned(restate(read_piece(document), Restate("outside", "on")))
            found = [f for f in made.findings if f.code.startswith(("inside", "dowel"))]
            self.assertEqual(found, [], (thick, splay))


class Blind(SimpleTestCase):
    def test_every_card_of_random_slab_benches_makes_what_it_says(self) -> None:
        done = 0
        for seed in range(14):
            rng = random.Random(seed)
            try:
                piece = framed(rng, "slab")
                shop = random_shop(rng)
                tally = carry_out(piece, planned(piece, shop), shop)
            except BadInput:
                continue
            done += 1
            for what, (off, where) in tally.worst.items():
                self.assertLessEqual(off, limit(what), f"seed {seed} {what} {where}")
            if seed % 5 == 0:
                for what, (off, where) in level(piece, shop, "bench", seed).worst.items():
                    self.assertLessEqual(off, limit(what), f"seed {seed} levelled {what} {where}")
        self.assertGreater(done, 9)

    def test_what_is_told_wrong_is_found(self) -> None:
        piece = bench(outside={})
        made = planned(piece)
        card = next(c for c in made.setups if c.work == "outside.s1.level")
        (lay,) = card.lays
        (places,) = (do for do in card.does if isinstance(do, Places))
        assert isinstance(lay, IntoSide)
        down = replace(places.mm, value=places.mm.value + 3.0)
        swapped = tuple((m, "front edge" if e == "back edge" else e, mm) for m, e, mm in places.marks)
        for wrong in (
            replace(card, lays=(replace(lay, toward="mitre"),)),
            replace(card, lays=(replace(lay, toward=""),)),
            replace(card, does=tuple(replace(d, mm=down) if d is places else d for d in card.does)),
            replace(card, does=tuple(replace(d, marks=swapped) if d is places else d for d in card.does)),
        ):
            cards = tuple(wrong if c is card else c for c in made.setups)
            tally = carry_out(piece, with_cards(made, cards), workbench())
            self.assertTrue(any(off > limit(what) for what, (off, _) in tally.worst.items()), wrong.lays)

    def test_a_pockets_gauge_leans_away_from_the_side_its_screw_comes_out_at(self) -> None:
        """In at the inner face and up into the top: what stands outside the face hangs down from it."""
        document = write_piece(starter("aproned"))
        document["supports"][0]["held"] = {"slant": 15.0}
        for card in planned(read_piece(document)).setups:
            if card.operation == "hold":
                self.assertIn("leaning towards the lower edge", " ".join(card.which_way))
