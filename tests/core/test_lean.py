"""Splay, rake, resultant, sightline: the figures, the algebra and an outside judge of rotations."""

from __future__ import annotations

import math

import sympy
from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st
from scipy.spatial.transform import Rotation

from splay.errors import BadInput, CannotBuild
from splay.stance.lean import direction, direction_on, lean_of, solve

lean_angles = st.floats(0.5, 60)


class CheckValues(SimpleTestCase):
    """Independent: worked in closed form and by building the situation in space."""

    def test_splay_and_rake_give_resultant_and_sightline(self) -> None:
        for s, r, rho, side, centre in ((10, 6, 11.600, 30.80, 59.20), (12, 8, 14.296, 33.47, 56.53)):
            with self.subTest(splay=s, rake=r):
                lean = solve(splay=s, rake=r)
                self.assertAlmostEqual(lean.resultant, rho, 3)
                self.assertAlmostEqual(lean.from_side or 0, side, 2)
                self.assertAlmostEqual(lean.from_centre or 0, centre, 2)

    def test_fifteen_at_forty_five_is_ten_and_three_quarters_each_way(self) -> None:
        # Common practice, no source: "10.73 each way".
        lean = solve(resultant=15, from_side=45)
        self.assertAlmostEqual(lean.splay, 10.729, 3)
        self.assertAlmostEqual(lean.rake, 10.729, 3)

    def test_a_leg_without_lean_has_no_sightline(self) -> None:
        lean = solve(splay=0, rake=0)
        self.assertEqual(lean.resultant, 0)
        self.assertIsNone(lean.bearing)
        self.assertIsNone(lean.from_side)
        self.assertIsNone(lean.from_centre)

    def test_a_gauge_held_off_the_sightline_reads_less(self) -> None:
        # Resultant 15, ten degrees off the sightline: 14.78.
        seen = math.degrees(math.atan(math.tan(math.radians(15)) * math.cos(math.radians(10))))
        turned = Rotation.from_euler("z", -10, degrees=True).apply(direction_on(15, 0))
        self.assertAlmostEqual(abs(lean_of(tuple(turned)).splay), 14.78, 2)
        self.assertAlmostEqual(seen, 14.78, 2)


class Algebra(SimpleTestCase):
    def test_the_resultant_formula_holds_for_every_lean(self) -> None:
        s, r = sympy.symbols("s r", positive=True)
        d = sympy.Matrix([sympy.tan(s), sympy.tan(r), -1])
        tan_rho_squared = (d[0] ** 2 + d[1] ** 2) / d[2] ** 2
        self.assertEqual(sympy.simplify(tan_rho_squared - sympy.tan(s) ** 2 - sympy.tan(r) ** 2), 0)

    def test_the_two_axis_table_wants_the_rake_times_the_cosine_of_the_splay(self) -> None:
        # Tilting s about one axis and r2 about the other must bring (tan s, tan r, -1) plumb.
        s, r = sympy.symbols("s r", positive=True)
        r2 = sympy.atan(sympy.tan(r) * sympy.cos(s))
        d = sympy.Matrix([sympy.tan(s), sympy.tan(r), -1])
        about_y = sympy.Matrix(
            [[sympy.cos(s), 0, sympy.sin(s)], [0, 1, 0], [-sympy.sin(s), 0, sympy.cos(s)]]
        )
        after = sympy.simplify(about_y * d)
        self.assertEqual(sympy.simplify(after[0]), 0)
        self.assertEqual(sympy.simplify(sympy.tan(r2) - after[1] / -after[2]), 0)


class Properties(SimpleTestCase):
    @given(lean_angles, lean_angles)
    def test_any_two_give_the_same_four(self, splay: float, rake: float) -> None:
        whole = solve(splay=splay, rake=rake)
        assert whole.from_side is not None and whole.from_centre is not None
        for pair in (
            {"resultant": whole.resultant, "from_side": whole.from_side},
            {"resultant": whole.resultant, "from_centre": whole.from_centre},
            {"splay": splay, "from_side": whole.from_side},
            {"rake": rake, "from_centre": whole.from_centre},
        ):
            again = solve(**pair)
            self.assertAlmostEqual(again.splay, splay, 6)
            self.assertAlmostEqual(again.rake, rake, 6)

    @given(st.floats(1, 60), st.floats(1, 60))
    def test_resultant_and_one_part_give_the_other(self, splay: float, rake: float) -> None:
        rho = solve(splay=splay, rake=rake).resultant
        self.assertAlmostEqual(solve(splay=splay, resultant=rho).rake, rake, 4)
        self.assertAlmostEqual(solve(rake=rake, resultant=rho).splay, splay, 4)

    @given(st.floats(0.01, 60), st.floats(0, 359))
    def test_a_direction_is_the_plumb_line_turned_by_the_lean_about_the_level_axis(
        self, rho: float, bearing: float
    ) -> None:
        # Outside judge: scipy's Rotation. Lean towards x, then turn to the bearing.
        judge = Rotation.from_euler("yz", [-rho, bearing], degrees=True).apply([0, 0, -1])
        for ours, theirs in zip(direction_on(rho, bearing), judge, strict=True):
            self.assertAlmostEqual(ours, theirs, 12)

    @given(st.floats(-60, 60), st.floats(-60, 60))
    def test_splay_and_rake_read_back_from_the_direction(self, splay: float, rake: float) -> None:
        lean = lean_of(direction(splay, rake))
        self.assertAlmostEqual(lean.splay, splay, 9)
        self.assertAlmostEqual(lean.rake, rake, 9)


class BadLeans(SimpleTestCase):
    def test_not_two_or_out_of_range_is_refused(self) -> None:
        for given_ in (
            {}, {"splay": 10}, {"splay": 10, "rake": 5, "resultant": 12},
            {"splay": 90, "rake": 5}, {"splay": -1, "rake": 5}, {"from_side": 30, "from_centre": 60},
            {"resultant": 10, "from_side": 91},
        ):  # fmt: skip
            with self.subTest(given_), self.assertRaises(BadInput):
                solve(**given_)

    def test_contradictions_say_what_would_mend_them(self) -> None:
        for given_ in (
            {"splay": 15, "resultant": 10},
            {"splay": 10, "from_side": 90},
            {"rake": 5, "from_side": 0},
        ):
            with self.subTest(given_), self.assertRaises(CannotBuild) as caught:
                solve(**given_)
            self.assertTrue(caught.exception.mend)
