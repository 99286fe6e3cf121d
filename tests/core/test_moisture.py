"""Wood and air against the Wood Handbook's printed values (all recalled, see each table)."""

from __future__ import annotations

import math
import unittest

from hypothesis import given
from hypothesis import strategies as st

from splay.timber.moisture import (
    A_TENTH,
    Weighing,
    drying,
    fit,
    from_weight,
    led_to,
    lies_out,
    movement,
    so_long,
)
from splay.timber.species import WOODS, Wood, density

# Wood Handbook, Table 4-2, the row of 70 °F (21.1 °C): relative humidity and moisture in percent, as
# printed (outside; recalled from memory).
PRINTED_70F = (
    (5, 1.3), (10, 2.5), (20, 4.5), (25, 5.4), (30, 6.2), (35, 6.9), (40, 7.7), (45, 8.5), (50, 9.2),
    (55, 10.1), (60, 11.0), (65, 12.0), (70, 13.1), (75, 14.4), (80, 16.0), (90, 20.5), (95, 23.9),
)  # fmt: skip
# Wood Handbook §13, its worked example: 232 mm of flat-sawn white fir from 8 to 11 %, by the coefficient
# 0.00245 and by the total shrinkage 7.0 (outside; recalled from memory).
WHITE_FIR = Wood("fir, white", 0.39, 3.3, 7.0, None, 0.00245)


class Air(unittest.TestCase):
    def test_the_moisture_air_leads_to_is_the_printed_one(self) -> None:
        for humidity, printed in PRINTED_70F:
            with self.subTest(humidity):
                self.assertAlmostEqual(led_to(21.1, humidity), printed, delta=0.05)

    def test_warmer_air_of_the_same_damp_leads_to_drier_wood(self) -> None:
        self.assertGreater(led_to(5.0, 60.0), led_to(20.0, 60.0))
        self.assertGreater(led_to(20.0, 60.0), led_to(35.0, 60.0))

    @given(st.floats(-10.0, 50.0), st.floats(0.0, 99.0))
    def test_damper_air_leads_to_moister_wood(self, celsius: float, humidity: float) -> None:
        self.assertLess(led_to(celsius, humidity), led_to(celsius, humidity + 1.0))


class Movement(unittest.TestCase):
    def test_the_handbooks_worked_example(self) -> None:
        self.assertAlmostEqual(movement(232.0, WHITE_FIR, True, 8.0, 11.0), 1.705, delta=0.0005)
        # Without a coefficient and past its range: the equation with the total shrinkage.
        by_total = Wood("fir, white", 0.39, 3.3, 7.0)
        whole = movement(232.0, by_total, True, 8.0, 15.0)
        self.assertAlmostEqual(whole, 232.0 * 7.0 / (3000.0 / 7.0 - 30.0 + 8.0), places=9)

    def test_the_check_values_for_red_oak(self) -> None:
        oak = WOODS["oak, northern red"]
        self.assertAlmostEqual(movement(300.0, oak, True, 12.0, 7.0), -5.5, delta=0.05)
        self.assertAlmostEqual(movement(300.0, oak, True, 20.0, 8.0), -10.62, delta=0.005)

    def test_above_green_nothing_moves_and_rays_move_less_than_rings(self) -> None:
        for wood in WOODS.values():
            with self.subTest(wood.name):
                self.assertEqual(movement(300.0, wood, True, 60.0, 35.0), 0.0)
                flat, quarter = (movement(300.0, wood, way, 12.0, 8.0) for way in (True, False))
                self.assertLess(flat, quarter)
                self.assertLess(quarter, 0.0)

    def test_the_two_ways_of_reckoning_agree_where_they_meet(self) -> None:
        # The coefficients are the equation's slope about 10 % (Handbook §13): within a quarter everywhere.
        for wood in WOODS.values():
            for tangential in (True, False):
                with self.subTest(wood.name, tangential=tangential):
                    whole = wood.tangential if tangential else wood.radial
                    slope = 1.0 / (3000.0 / whole - 30.0 + 10.0)
                    self.assertAlmostEqual(wood.coefficient(tangential) / slope, 1.0, delta=0.25)


class Density(unittest.TestCase):
    def test_it_is_the_printed_gravity_with_the_water_of_12_percent(self) -> None:
        # Wood Handbook, Table 5-3: weight and volume at 12 %: so the definition itself (outside).
        self.assertAlmostEqual(density(0.60, 12.0), 0.60 * 1120.0, places=6)

    def test_green_wood_is_heavier_by_its_water_and_swollen(self) -> None:
        # Handbook §4: above green the volume stays: weight grows with the water alone.
        self.assertAlmostEqual(density(0.60, 80.0) / density(0.60, 40.0), 180.0 / 140.0, places=9)

    def test_ovendry_and_green_volume_differ_by_the_volumetric_shrinkage(self) -> None:
        # 26.5 times the basic gravity, percent (Handbook §4, the same equation read the other way).
        basic = density(0.5, 30.0) / 1300.0
        dry = density(0.5, 0.0) / 1000.0
        self.assertAlmostEqual(1.0 - basic / dry, 0.265 * basic, places=6)


class Tenons(unittest.TestCase):
    def test_a_dry_tenon_grows_tighter_in_a_moister_seat(self) -> None:
        made = fit(30.0, WOODS["ash, white"], 6.0, 10.0, 8.0)
        self.assertAlmostEqual(made.tighter, 30.0 * 0.00274 * 4.0, places=9)
        self.assertGreater(made.tenon, 0.0)
        self.assertLess(made.hole, 0.0)

    def test_a_hole_moves_like_the_seats_wood_and_not_the_tenons(self) -> None:
        made = fit(30.0, WOODS["ash, white"], 6.0, 10.0, 8.0, WOODS["oak, northern red"])
        self.assertAlmostEqual(made.tenon, 30.0 * 0.00274 * 2.0, places=9)
        self.assertAlmostEqual(made.hole, -30.0 * 0.00369 * 2.0, places=9)
        self.assertAlmostEqual(made.tighter, made.tenon - made.hole, places=9)

    def test_a_tenth_is_taken_up_when_diffusion_says_so(self) -> None:
        # A rod's uptake by the series over the zeros of J0 (Crank, The Mathematics of Diffusion, §5.3;
        # formula recalled): at the time told for a tenth it is a tenth.
        from scipy.special import jn_zeros

        zeros = jn_zeros(0, 400)
        taken = 1.0 - sum(4.0 / z**2 * math.exp(-(z**2) * A_TENTH) for z in zeros)
        self.assertAlmostEqual(taken, 0.1, delta=0.004)

    def test_twice_as_thick_lies_four_times_as_long(self) -> None:
        (low, high), (low2, high2) = lies_out(15.0), lies_out(30.0)
        self.assertAlmostEqual(low2 / low, 4.0)
        self.assertAlmostEqual(high2 / high, 4.0)


class Drying(unittest.TestCase):
    def test_without_readings_an_inch_takes_about_a_year_from_green(self) -> None:
        # A year an inch in the open: common practice, no source.
        wait = drying("board", 25.4, 30.0, 13.0, 12.0)
        self.assertLessEqual(wait.least, 365.0)
        self.assertAlmostEqual(wait.most, 365.0, delta=1.0)

    def test_readings_narrow_the_range_to_what_this_piece_does(self) -> None:
        true = lambda days: 10.0 + 18.0 * math.exp(-days / 60.0)  # noqa: E731
        seen = [Weighing(d, true(d)) for d in (0.0, 20.0, 45.0)]
        wait = drying("slab", 54.0, true(45.0), 12.0, 10.0, seen)
        really = 60.0 * math.log((true(45.0) - 10.0) / 2.0)
        self.assertAlmostEqual(wait.least, really, delta=0.5)
        self.assertAlmostEqual(wait.most, really, delta=0.5)
        self.assertEqual(wait.readings, 3)

    def test_a_wait_is_said_in_the_largest_unit_of_which_there_are_two(self) -> None:
        for least, most, said in (
            (0.2, 0.9, "a day or two"),
            (0.4, 2.0, "up to 2 days"),
            (2.6, 3.4, "about 3 days"),
            (1.0, 60.0, "1 to 60 days"),
            (0.1, 61.0, "up to 2.0 months"),
            (31.0, 100.0, "1.0 to 3.3 months"),
            (80.0, 170.0, "3 to 6 months"),
            (365.0, 730.0, "1.0 to 2.0 years"),
            (730.0, 2190.0, "2 to 6 years"),
        ):
            self.assertEqual(so_long(least, most), said, (least, most))

    def test_what_is_dry_enough_waits_no_more_and_damp_air_never_dries_it(self) -> None:
        self.assertEqual(drying("board", 30.0, 9.0, 10.0, 8.0).most, 0.0)
        self.assertTrue(drying("board", 30.0, 18.0, 9.0, 12.0).never)

    def test_moisture_from_the_scales(self) -> None:
        # 10 kg at 25 %: 8 kg dry; 8.8 kg is then 10 % (the definition).
        self.assertAlmostEqual(from_weight(8.8, 10.0, 25.0), 10.0)
