"""Hours of a week as a maker writes them."""

from __future__ import annotations

from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st

from splay.build.hours import read_week, week_lines
from splay.build.schedule import Stretch
from splay.errors import BadInput

QUARTERS = st.integers(0, 24 * 4).map(lambda quarter: quarter / 4)


def day(line: str) -> list[tuple[float, float]]:
    return [(one.begins_h, one.ends_h) for one in read_week([line])]


class Week(SimpleTestCase):
    def test_a_day_is_written_in_any_of_the_usual_ways(self) -> None:
        for line in (
            "8 to 12, 13:30 to 17",
            "8-12; 13.30-17",
            "08:00 TO 12:00,13:30–17:00 ,",
            "8 to12,13:30to 17",
        ):
            self.assertEqual(day(line), [(8.0, 12.0), (13.5, 17.0)], line)
        self.assertEqual(day("0 to 24"), [(0.0, 24.0)])
        self.assertEqual(day(" "), [])

    def test_the_days_are_in_their_order_from_monday_on(self) -> None:
        week = read_week(["", "9 to 10", "", "", "", "", "11 to 12"])
        self.assertEqual(week, (Stretch(1, 9.0, 10.0), Stretch(6, 11.0, 12.0)))

    def test_what_is_no_time_of_a_day_is_said_with_the_day(self) -> None:
        for line in (
            "all day",
            "8",
            "8 to",
            "8 to 25",
            "8 to 24:01",
            "8:60 to 12",
            "8 to 12 13 to 14",
            "-8 to 12",
        ):
            with self.assertRaises(BadInput) as caught:
                read_week(["", "", line])
            fault = caught.exception.faults[0]
            self.assertEqual((fault.field, fault.got), ("lines.2", line))
            self.assertEqual(fault.what, "Wednesday")

    @given(st.lists(st.tuples(st.integers(0, 6), QUARTERS, QUARTERS), max_size=12))
    def test_what_is_said_is_read_back_as_it_was(self, given: list[tuple[int, float, float]]) -> None:
        week = tuple(Stretch(*one) for one in sorted(given, key=lambda one: one[0]))
        self.assertEqual(read_week(week_lines(week)), week)
