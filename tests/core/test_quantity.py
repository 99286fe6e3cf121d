from __future__ import annotations

import json
from fractions import Fraction

from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st
from pydantic import TypeAdapter

from splay.errors import BadInput
from splay.quantity import MM_PER_INCH, Figure, Show, Units, read_angle, read_length
from splay.quantity import degrees as deg


class Reading(SimpleTestCase):
    def test_lengths_are_read_as_makers_write_them(self) -> None:
        # Outside: 1 in = 25.4 mm exactly (NIST Handbook 44, appendix C); the rest is arithmetic.
        for text, mm in {
            "16 1/2": 419.1,
            '16-1/2"': 419.1,
            "1' 4 1/2\"": 419.1,
            "1 ft 4 1/2 in": 419.1,
            "16½": 419.1,
            "16 ½ in": 419.1,
            "1′ 4 1/2″": 419.1,
            "3/8": 9.525,
            "⅜": 9.525,
            "0.5in": 12.7,
            ".5": 12.7,
            "420 mm": 420.0,
            "42cm": 420.0,
            "42,5 cm": 425.0,
            "0.42 m": 420.0,
            "-3 1/4": -82.55,
            "−3 1/4": -82.55,
            "5'": 1524.0,
        }.items():
            with self.subTest(text):
                self.assertAlmostEqual(read_length(text, "inch"), mm, 9)

    def test_a_bare_figure_is_in_the_shops_own_unit_and_a_number_always_in_millimetres(self) -> None:
        self.assertEqual(read_length("420", "metric"), 420.0)
        self.assertEqual(read_length("10", "inch"), 254.0)
        self.assertEqual(read_length(420, "inch"), 420.0)

    def test_what_is_no_length_is_answered_with_what_to_do(self) -> None:
        for text in (
            "", " ", "abc", "1/0", "nan", "inf", "-inf", "1e308", "1 2 3", "16 mm 3 in", "4\" 2'",
            "1,000", "--3", "3 lb", "1/2/3", "9" * 50, None, [], {}, True,
            float("nan"), float("inf"), 10**400,
        ):  # fmt: skip
            with self.subTest(repr(text)[:30]):
                with self.assertRaises(BadInput) as caught:
                    read_length(text, "inch", "top.thickness")
                fault = caught.exception.faults[0]
                self.assertEqual(fault.field, "top.thickness")
                self.assertTrue(fault.got and fault.allowed and fault.do)

    def test_a_division_by_nought_is_named(self) -> None:
        with self.assertRaisesRegex(BadInput, "divided by 0"):
            read_length("3 1/0", "inch")

    def test_angles_are_read_in_degrees_fractions_and_minutes(self) -> None:
        for text, value in {"11.6": 11.6, "11 1/2": 11.5, "11°30'": 11.5, "11½°": 11.5, "-4": -4}.items():
            with self.subTest(text):
                self.assertAlmostEqual(read_angle(text), value, 12)
        for text in ("", "steep", "nan", "1/0", "1e400"):
            with self.subTest(text), self.assertRaises(BadInput):
                read_angle(text)

    @given(st.integers(-4000, 4000), st.sampled_from([1, 2, 4, 8, 16, 32, 64]), st.integers(0, 63))
    def test_an_inch_fraction_goes_there_and_back(self, whole: int, below: int, above: int) -> None:
        value = Fraction(whole) + Fraction(above % below, below) * (1 if whole >= 0 else -1)
        mm = float(value * Fraction(254, 10))
        text = Show(Units("inch", 64)).length(mm).text
        self.assertAlmostEqual(read_length(text, "metric"), mm, 9)

    @given(st.floats(-5000, 5000), st.sampled_from([0.5, 0.1]))
    def test_what_is_shown_in_millimetres_is_within_half_a_step(self, mm: float, step: float) -> None:
        back = read_length(Show(Units("metric", step_mm=step)).length(mm).text)
        self.assertLessEqual(abs(back - mm), step / 2 + 1e-9)

    @given(st.floats(0, 5000), st.sampled_from([16, 32, 64]))
    def test_what_is_shown_in_inches_is_within_half_a_division(self, mm: float, below: int) -> None:
        back = read_length(Show(Units("inch", below)).length(mm).text)
        self.assertLessEqual(abs(back - mm), MM_PER_INCH / below / 2 + 1e-9)


class Showing(SimpleTestCase):
    def test_inches_are_rounded_to_the_chosen_fraction_and_reduced(self) -> None:
        for mm, below, text in (
            (419.1, 32, '16 1/2"'), (404.0, 16, '15 7/8"'), (404.0, 32, '15 29/32"'),
            (25.3, 16, '1"'), (0.2, 16, '0"'), (-0.2, 16, '0"'), (-9.525, 16, '-3/8"'),
        ):  # fmt: skip
            with self.subTest(text):
                self.assertEqual(Show(Units("inch", below)).length(mm).text, text)

    def test_a_length_is_said_in_the_makers_system_and_kept_unrounded(self) -> None:
        for system, said in (("metric", "419 mm"), ("inch", '16 1/2"')):
            shown = Show(Units(system, 16, 0.5)).length(419.1234567)
            self.assertEqual((shown.text, shown.value), (said, 419.1234567))

    def test_it_goes_out_to_a_millionth_and_what_it_was_worked_out_from_as_it_is_read(self) -> None:
        show = Show(Units())
        figure = show.figure("k", "Long", 10.123456789, "L", show.input("L", "long", 10.123456789))
        out = json.loads(TypeAdapter(Figure).dump_json(figure))
        self.assertEqual(out["quantity"], {"value": 10.123457, "unit": "mm", "text": "10 mm"})
        self.assertEqual(out["inputs"], [{"symbol": "L", "name": "long", "text": "10 mm"}])

    def test_trigonometry_is_exact_at_the_quarter_turns(self) -> None:
        self.assertEqual([deg.sin(a) for a in (0, 90, 180, 270, 360)], [0, 1, 0, -1, 0])
        self.assertEqual([deg.cos(a) for a in (0, 90, 180, 270, -90)], [1, 0, -1, 0, 0])
        self.assertEqual(deg.fold(213.5), 33.5)
        self.assertEqual(deg.fold(120), 60)
