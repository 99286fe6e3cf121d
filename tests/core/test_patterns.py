"""Patterns: what is drawn at full size, measured as one would with rule and protractor.

Values from TRADE are common practice, no source.
"""

from __future__ import annotations

import json
import math
import re
from itertools import pairwise
from typing import Any

import numpy as np
import shapely
from django.test import SimpleTestCase

from splay.parts.making import eight_sides
from splay.patterns import Pattern, patterns_of
from splay.patterns.keys import key_patterns
from splay.piece import Piece, read_piece, write_piece
from splay.piece.starters import STARTS, starter
from splay.plan import Plan, plan
from splay.quantity import Show, Units
from splay.setups.spacer import spacer_height
from splay.shop import GuideBlock, Ramp, workbench
from splay.stance.members import members
from splay.stance.restate import Restate, restate
from splay.stance.staked import support_of
from splay.stance.vectors import Flat, dot
from splay.timber.keys import keys_for

SHOP = workbench()
SHOW = Show(Units())
IN = 25.4


def made(start: str, **change: Any) -> tuple[Piece, Plan, dict[str, Pattern]]:
    """A start, parts of its document said otherwise (by dotted path), its patterns by id."""
    document = write_piece(starter(start))
    for path, value in change.items():
        at: Any = document
        *steps, last = path.split("__")
        for step in steps:
            at = at[int(step)] if step.isdigit() else at[step]
        at[last] = value
    piece = read_piece(document)
    planned = plan(piece, SHOP)
    return piece, planned, {one.id: one for one in patterns_of(piece, SHOP, planned)}


def cut(pattern: Pattern, layer: str = "cut") -> list[Flat]:
    """The longest line of a layer: what is sawn."""
    lines = [shape.points for shape in pattern.view.shapes if shape.layer == layer and shape.kind == "line"]
    return list(max(lines, key=lambda points: sum(math.dist(*pair) for pair in pairwise(points))))


def bearing(a: Flat, b: Flat) -> float:
    return math.degrees(math.atan2(b[1] - a[1], b[0] - a[0]))


def crosses(pattern: Pattern) -> dict[str, Flat]:
    """The places to be pricked, by part."""
    found: dict[str, Flat] = {}
    for shape in pattern.view.shapes:
        if shape.layer == "cut" and shape.part.startswith("leg.") and len(shape.points) == 2:
            (a, b), (c, d) = shape.points
            found[shape.part] = ((a + c) / 2, (b + d) / 2)
    return found


class Top(SimpleTestCase):
    def test_centres_lie_as_far_from_one_another_as_in_the_plan(self) -> None:
        for start in ("round_three", "bench", "battened", "tall"):
            _, planned, found = made(start)
            places = crosses(found["top"])
            for one in planned.stance.legs:
                for other in planned.stance.legs:
                    wanted = math.dist(one.socket[:2], other.socket[:2])
                    a, b = places[f"leg.{one.number}"], places[f"leg.{other.number}"]
                    self.assertAlmostEqual(math.dist(a, b), wanted, places=6)

    def test_seen_from_the_underside_left_and_right_change_places_and_front_stays(self) -> None:
        for from_, sign in (("underside", -1.0), ("upper", 1.0)):
            piece, planned, found = made(
                "round_four", supports__0__joint={"way": "through", "socket": 26, "bored_from": from_}
            )
            face = "upper face" if sign > 0 else "underside"
            self.assertIn(face, found["top"].title)
            for leg in planned.stance.legs:
                x, y = crosses(found["top"])[f"leg.{leg.number}"]
                # On the upper face the axis comes out thickness × tan ρ further against the lean.
                up = piece.top.thickness / -leg.d[2] if sign > 0 else 0.0
                self.assertAlmostEqual(x, sign * (leg.socket[0] - up * leg.d[0]), places=6)
                self.assertAlmostEqual(y, leg.socket[1] - up * leg.d[1], places=6)

    def test_legs_bored_from_both_faces_have_a_pattern_for_each(self) -> None:
        document = write_piece(starter("round_four"))
        document["supports"][0]["placement"] = {"way": "circle", "radius": 90, "count": 3}
        other = json.loads(json.dumps(document["supports"][0]))
        other["placement"] |= {"radius": 45}
        other["joint"] = {"way": "through", "socket": 22, "bored_from": "upper"}
        del other["id"]
        document["supports"].append(other)
        piece = read_piece(document)
        found = {one.id: one for one in patterns_of(piece, SHOP, plan(piece, SHOP))}
        numbers = {
            "top": {f"leg.{k}" for k in (1, 2, 3)}, "top.upper_face": {f"leg.{k}" for k in (4, 5, 6)},
            "drilling.1": {f"leg.{k}" for k in (1, 2, 3)}, "drilling.2": {f"leg.{k}" for k in (4, 5, 6)},
        }  # fmt: skip
        for name, wanted in numbers.items():
            self.assertEqual(set(crosses(found[name])), wanted, name)
        self.assertIn("underside", found["top"].title)
        self.assertIn("upper face", found["top.upper_face"].title)

    def test_the_arrow_points_where_the_foot_goes(self) -> None:
        _, planned, found = made("bench")
        for leg in planned.stance.legs:
            lines = [
                shape.points
                for shape in found["top"].view.shapes
                if shape.layer == "sightline" and shape.part == f"leg.{leg.number}"
            ]
            tail, tip = max(lines, key=lambda points: math.dist(*points))
            way = (-(leg.foot[0] - leg.socket[0]), leg.foot[1] - leg.socket[1])
            along = (tip[0] - tail[0], tip[1] - tail[1])
            cosine = (way[0] * along[0] + way[1] * along[1]) / math.hypot(*way) / math.hypot(*along)
            self.assertAlmostEqual(cosine, 1.0, places=9)

    def test_a_hole_is_drawn_as_its_mouth_longer_along_the_lean(self) -> None:
        _, planned, found = made("round_three")
        leg = planned.stance.legs[0]
        mouths = [s for s in found["top"].view.shapes if s.kind == "ellipse" and s.part == "leg.1"]
        long, short = mouths[0].sizes
        self.assertAlmostEqual(2 * short, leg.bore.size, places=6)
        # A cylinder cut by a plane off square: its diameter over the cosine.
        self.assertAlmostEqual(
            2 * long, leg.bore.size / math.cos(math.radians(leg.boring.resultant)), places=6
        )

    def test_a_long_top_is_bored_end_by_end_each_laid_to_the_blank_s_own_end(self) -> None:
        piece, planned, found = made("bench")
        half = piece.top.outline.length / 2  # type: ignore[union-attr]
        numbers: list[str] = []
        for id in ("drilling.1", "drilling.2"):
            numbers += list(crosses(found[id]))
            lines = [shape.points for shape in found[id].view.shapes if shape.layer == "outline"]
            edges = [x for points in lines for x, _ in points]
            self.assertAlmostEqual(max(map(abs, edges)), half, places=6)
        self.assertEqual(sorted(numbers), [f"leg.{leg.number}" for leg in planned.stance.legs])
        _, _, short = made("round_three")
        self.assertNotIn("drilling.2", short)


class Edges(SimpleTestCase):
    def test_a_hollow_12_in_across_and_half_an_inch_deep_has_a_radius_of_36_and_a_quarter(self) -> None:
        hollow = {"way": "trough", "across": "width", "chord": 12 * IN, "depth": 0.5 * IN}
        _, _, found = made("slab", top__hollow=hollow)
        board = np.array(cut(found["hollow.1"]))
        arc = board[(board[:, 1] < -0.001)]
        centre = np.array((0.0, 36.25 * IN - 0.5 * IN))
        self.assertTrue(np.allclose(np.linalg.norm(arc - centre, axis=1), 36.25 * IN, atol=0.01))
        self.assertAlmostEqual(board[:, 1].min(), -0.5 * IN, places=3)

    def test_a_dish_has_a_template_each_way(self) -> None:
        dish = {"way": "dish", "length": 260, "width": 200, "depth": 12}
        _, _, found = made("round_three", top__hollow=dish)
        for id, chord in (("hollow.1", 260.0), ("hollow.2", 200.0)):
            board = [p for p in cut(found[id]) if p[1] < -1e-9]
            wide = max(x for x, _ in board) - min(x for x, _ in board)
            self.assertAlmostEqual(wide, chord, delta=10.0)

    def test_a_round_over_is_a_quarter_circle_within_a_fiftieth(self) -> None:
        _, _, found = made("round_three", top__upper_edge={"way": "round_over", "size": 14})
        t = starter("round_three").top.thickness
        ring = [p for p in cut(found["edge"]) if p[1] > t - 13.99 and p[0] > -13.99]
        self.assertGreater(len(ring), 12)
        for x, y in ring:
            self.assertAlmostEqual(math.hypot(x + 14.0, y - (t - 14.0)), 14.0, delta=0.02)
        # Between its corners the chord lies no further inside than that either.
        self.assertLess(14.0 * (1 - math.cos(math.radians(90 / 24 / 2))), 0.02)


class Legs(SimpleTestCase):
    def test_the_profile_has_the_plan_s_lengths_taper_and_foot(self) -> None:
        _, planned, found = made("round_three")
        leg, part = planned.stance.legs[0], planned.parts[0]
        body = cut(found[f"leg.{leg.id}"])
        upper, lower = max(p[0] for p in body if p[1] > 0), max(p[0] for p in body if p[1] < 0)
        self.assertAlmostEqual(upper - lower, part.high_low.quantity.value, places=3)
        self.assertAlmostEqual(min(p[0] for p in body), 0.0, places=6)
        foot = [p for p in body if p[0] > leg.bore.tenon + leg.exposed - 30]
        self.assertAlmostEqual(bearing(foot[0], foot[1]), 90.0 - leg.standing.resultant, delta=0.02)
        finish = leg.bore.tenon + leg.exposed
        outline = shapely.Polygon(body)
        across = outline.intersection(shapely.LineString([(finish - 40, -99), (finish - 40, 99)])).length
        shape = starter("round_three").supports[0].leg  # type: ignore[union-attr]
        wanted = shape.at_foot + (shape.at_top - shape.at_foot) * 40 / leg.exposed
        self.assertAlmostEqual(across, wanted, delta=0.01)

    def test_a_sloped_shoulder_lies_further_down_on_the_side_the_leg_leans_to(self) -> None:
        joint = {"way": "shouldered", "socket": 30, "across": 14, "depth": 24}
        _, planned, found = made("round_four", supports__0__joint=joint)
        leg = planned.stance.legs[0]
        body = cut(found[f"leg.{leg.id}"])
        tan = math.tan(math.radians(leg.boring.resultant))
        shoulders = [p for p in body if abs(p[0] - leg.bore.tenon - p[1] * tan) < 1e-6 and abs(p[1]) > 15.1]
        self.assertEqual(len(set(shoulders)), 2)

    def test_eight_sides_are_gauged_from_each_edge_and_all_as_wide(self) -> None:
        piece, planned, found = made("round_three")
        leg = planned.stance.legs[0]
        figure = eight_sides("x", support_of(piece, leg), leg, SHOW)
        assert figure is not None
        ring = cut(found[f"end.{leg.id}"])[:8]
        sides = [math.dist(a, b) for a, b in zip(ring, [*ring[1:], ring[0]], strict=True)]
        self.assertAlmostEqual(max(sides), min(sides), places=6)
        half = max(x for x, _ in ring)
        self.assertAlmostEqual(half - sorted({round(abs(x), 6) for x, _ in ring})[0],
                               figure.quantity.value, places=4)  # fmt: skip


class Boards(SimpleTestCase):
    def test_a_mitre_at_fifteen_degrees_is_cut_at_37_and_a_half_and_both_parts_meet_in_it(self) -> None:
        """15° splay: each half 52.5°, the saw reads 37.5°."""
        _, _, found = made("slab", supports__0__splay=15)
        pattern = found[next(id for id in found if id.startswith("mitre."))]
        self.assertIn("37.5°", pattern.told[0])
        self.assertIn("105.0°", pattern.told[0])
        both = [
            shapely.Polygon(shape.points)
            for shape in pattern.view.shapes
            if shape.layer == "cut" and shape.kind == "line"
        ]
        self.assertEqual(len(both), 2)
        self.assertLess(both[0].intersection(both[1]).area, 0.5)
        seam = both[0].buffer(0.01).intersection(both[1].buffer(0.01))
        t = starter("slab").top.thickness
        self.assertAlmostEqual(seam.length / 2, t / math.cos(math.radians(37.5)), delta=0.3)
        low, high = sorted(seam.exterior.coords, key=lambda p: p[1])[:: len(seam.exterior.coords) - 1]
        off = abs(90.0 - abs(bearing(low, high)))
        self.assertAlmostEqual(off, 37.5, delta=0.1)

    def test_a_side_s_pattern_has_its_feet_and_the_area_of_its_face(self) -> None:
        _, planned, found = made("board_sides")
        body = next(b for b in planned.stance.bodies if b.role == "side")
        pattern = found[f"board.{body.key}"]
        face = sum(
            shapely.Polygon([(x, y) for x, y, _ in f.corners]).area
            for solid in body.pieces
            for f in solid
            if f.normal[2] > 0.99
        )
        drawn = shapely.Polygon(cut(pattern))
        self.assertAlmostEqual(drawn.area / face, 1.0, places=4)
        self.assertFalse(np.isclose(drawn.area, drawn.convex_hull.area, rtol=0.01), "the feet are cut out")


class Blocks(SimpleTestCase):
    def test_a_block_of_eighty_degrees_bores_ten_off_square(self) -> None:
        _, planned, found = made(
            "round_four", supports__0__angles=[{"by": "resultant", "resultant": 10, "sightline": 45}]
        )
        guide = next(tool for tool in SHOP.tools if isinstance(tool, GuideBlock))
        pattern = found[f"guide.{planned.stance.legs[0].id}.{guide.id}"]
        block = cut(pattern)
        corner = min(block, key=lambda p: p[0] + p[1])
        top = max((p for p in block if p[1] > 1), key=lambda p: -p[0])
        self.assertAlmostEqual(bearing(corner, top), 80.0, places=6)
        self.assertAlmostEqual(max(y for _, y in block), guide.height, places=6)

    def test_a_ramp_s_spacer_is_as_high_as_its_card_says_and_as_steep_as_the_ramp(self) -> None:
        for way in ("plumb_base", "plumb_ramp", "square_ramp", "bar"):
            ramp = Ramp(id="t1", name="Ramp", base=320, spacer=way)
            shop = SHOP.model_copy(update={"tools": (ramp,)})
            piece = starter("round_three")
            planned = plan(piece, shop)
            rho = planned.stance.legs[0].boring.resultant
            pattern = next(one for one in patterns_of(piece, shop, planned) if one.sort == "blocks")
            high = spacer_height(way, 320, rho)
            if way == "bar":
                sizes = [s.sizes for s in pattern.view.shapes if s.kind == "ellipse"]
                self.assertAlmostEqual(2 * sizes[0][0], high, places=6)
                self.assertIn("320 mm from the hinge of Ramp, along the base, to where it", pattern.told[0])
                continue
            block = cut(pattern)
            along = "along the ramp" if way in ("plumb_ramp", "square_ramp") else "along the base"
            self.assertIn(f"That edge 320 mm from the hinge of Ramp, measured {along}.", pattern.told[0])
            near = max(y for x, y in block if abs(x) < 1e-9)
            self.assertAlmostEqual(near, high, places=6)
            far = max(block, key=lambda p: p[1])
            self.assertAlmostEqual(bearing((0.0, near), far), rho, places=6)

    def test_a_clamping_block_turns_the_leg_s_side_square_to_the_stretcher(self) -> None:
        piece, planned, found = made("bench")
        runs, _ = members(piece, planned.stance)
        slopes = []
        for id in found:
            if id.startswith("clamp."):
                upper = sorted(p for p in cut(found[id]) if p[1] > 1.0)
                slopes.append(abs(bearing(upper[0], upper[-1])))
        self.assertTrue(slopes)
        # Between stretcher and leg's axis: the taper turns the leg's side by less than a degree.
        axes = [
            90.0 - math.degrees(math.acos(abs(dot(run.u, planned.stance.legs[end.leg - 1].d))))
            for run in runs
            for end in run.ends
            if end.leg
        ]
        for off in axes:
            self.assertLess(min(abs(slope - off) for slope in slopes), 1.0)

    def test_laid_as_told_it_stands_square_to_the_stretcher_and_turned_about_it_does_not(self) -> None:
        """In the plane of both: the stretcher to the right, the leg's far side turned off its axis by the
        taper the other way than the side the stretcher leaves. Laid end for end or on the near side, the
        clamp's face is askew."""
        ladder = read_piece(write_piece(restate(starter("round_four"), Restate("members", "h"))))
        seen = set()
        for piece in (starter("bench"), starter("round_three"), ladder):
            planned = plan(piece, SHOP)
            found = {p.id: p for p in patterns_of(piece, SHOP, planned) if p.id.startswith("clamp.")}
            runs, _ = members(piece, planned.stance)
            for end in (end for run in runs for end in run.ends):
                far = 2.0 * end.opening - end.opening_on
                if abs(90.0 - far) < 0.2:
                    continue
                block, told = self.block(list(found.values()), abs(90.0 - far))
                side = (end.leg and f"leg {end.leg}") or f"stretcher {end.member}"
                self.assertRegex(told, rf"{side}\b|s .*\b{side.split()[1]}\b")
                seen.add("leg" if end.leg else "stretcher")
                to = re.search(r"towards that end .* makes the (acute|obtuse) angle", told)
                assert to is not None and "opposite the stretcher" in told, told
                down = np.array([math.cos(math.radians(far)), math.sin(math.radians(far))])
                sharp = down if far < 90.0 else -down
                thick = sharp if to[1] == "acute" else -sharp
                self.assertLess(self.askew(block, thick, -1.0), 0.06)
                self.assertGreater(self.askew(block, -thick, -1.0), 0.3)
                self.assertGreater(self.askew(block, thick, 1.0), 0.3)
        self.assertIn("leg", seen)

    def block(self, found: list[Pattern], slope: float) -> tuple[np.ndarray, str]:
        """The corners at both ends of a block's sloped face, thin end first, of the slope nearest to one;
        its flat one lies on y = 0."""

        def faces(one: Pattern) -> np.ndarray:
            upper = sorted((p for p in cut(one) if p[1] > 1.0), key=lambda p: p[1])
            return np.array([upper[0], upper[-1]])

        one = min(found, key=lambda p: abs(abs(bearing(*map(tuple, faces(p)))) - slope))
        return faces(one), one.told[0]

    def askew(self, block: np.ndarray, thick: np.ndarray, side: float) -> float:
        """How far a block's flat face is off square to a stretcher that runs along x, degrees, its sloped
        face on a line along `thick`, its thick end there; on the stretcher's side (1) or opposite (-1)."""
        along = (block[1] - block[0]) / np.linalg.norm(block[1] - block[0])
        into = np.array([along[1], -along[0]])
        into = into if into @ -block[0] > 0.0 else -into
        out = np.array([-thick[1], thick[0]])
        out = out if out[0] * side > 0.0 else -out
        flat = along[0] * thick + into[0] * out
        return abs(math.degrees(math.asin(float(flat[0]))))


class Keys(SimpleTestCase):
    def test_a_key_and_the_floor_of_its_pocket(self) -> None:
        keys = keys_for([(0.0, 0.0), (300.0, 0.0)], 50.0, SHOW)
        (pattern,) = key_patterns([("slab 1", keys)])
        key = shapely.Polygon(cut(pattern))
        floor = shapely.Polygon(cut(pattern, "hidden"))
        bounds = key.bounds
        self.assertAlmostEqual(bounds[2] - bounds[0], keys.length.value, places=6)
        self.assertAlmostEqual(bounds[3] - bounds[1], keys.end_width.value, places=6)
        shrink = keys.pocket.value * math.tan(math.radians(keys.slope.value))
        self.assertAlmostEqual(key.bounds[2] - floor.bounds[2], shrink, places=6)
        self.assertTrue(key.contains(floor))
        self.assertIn(f"{keys.number} of it", pattern.told[0])


class Every(SimpleTestCase):
    def test_every_pattern_has_an_id_of_its_own_a_size_and_words(self) -> None:
        for start in STARTS:
            _, _, found = made(start)
            piece, planned = starter(start), plan(starter(start), SHOP)
            self.assertEqual(len(patterns_of(piece, SHOP, planned)), len(found), start)
            for one in found.values():
                with self.subTest(f"{start} {one.id}"):
                    self.assertTrue(min(one.size) > 5.0 and max(one.size) < 4000.0)
                    self.assertTrue(one.title and all(one.told))

    def test_every_angle_of_a_leg_has_a_card_with_its_edge(self) -> None:
        leaning = {"fall": 4, "toward": 90}
        for start, change in (
            ("round_three", {"lean": leaning}),
            ("bench", {}),
            ("slab", {}),
            ("tall", {}),
        ):
            _, planned, found = made(start, **change)
            edges = []
            for one in found.values():
                if one.sort == "cards":
                    card = cut(one)
                    corner = min((p for p in card if p[1] < 1e-9), key=lambda p: p[0])
                    tip = min((p for p in card if p[1] > 1e-9), key=lambda p: p[0])
                    edges.append(bearing(corner, tip))
            for leg in planned.stance.legs:
                for wanted in (90.0 - leg.boring.resultant, 90.0 - leg.standing.resultant):
                    self.assertLess(min(abs(edge - wanted) for edge in edges), 0.006, start)

    def test_a_stretcher_s_angle_has_a_card_to_the_leg_s_side_and_one_to_its_middle(self) -> None:
        """On a tapered leg they are not the same: by how much, from vectors alone."""
        piece, planned, found = made("bench")
        edges = []
        for one in found.values():
            if one.sort == "cards":
                card = cut(one)
                corner = min((p for p in card if p[1] < 1e-9), key=lambda p: p[0])
                tip = min((p for p in card if p[1] > 1e-9), key=lambda p: p[0])
                edges.append(bearing(corner, tip))
        runs, _ = members(piece, planned.stance)
        for run in runs:
            for end, sign in zip(run.ends, (1.0, -1.0), strict=True):
                if not end.leg:
                    continue
                leg = planned.stance.legs[end.leg - 1]
                opening = math.degrees(math.acos(sign * dot(run.u, leg.d)))
                shape = support_of(piece, leg).leg
                # The side that faces along the stretcher runs inward going down by the taper.
                turned = math.degrees(math.atan((shape.at_top - shape.at_foot) / 2.0 / leg.exposed))
                for wanted in (opening, opening + turned):
                    acute = min(wanted, 180.0 - wanted)
                    self.assertLess(min(abs(edge - acute) for edge in edges), 0.02)
