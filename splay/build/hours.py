"""A maker's hours of a week as they are typed: "8 to 12, 13:30-17", a line a day."""

from __future__ import annotations

import re
from collections.abc import Sequence

from splay.build.schedule import Stretch
from splay.errors import BadInput, Fault, shorten

DAYS = ("Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday")
_TIME = r"(\d{1,2})(?:[:.](\d{2}))?"
_STRETCH = re.compile(rf"\s*{_TIME}\s*(?:to|-|–)\s*{_TIME}\s*", re.IGNORECASE)


def read_week(lines: Sequence[str]) -> tuple[Stretch, ...]:
    """The stretches of a week in its lines, Monday's first; a day nobody works has an empty one.

    BadInput, at the line's own place, where one cannot be read.
    """
    made: list[Stretch] = []
    for day, line in enumerate(lines):
        for part in filter(str.strip, re.split("[,;]", line)):
            found = _STRETCH.fullmatch(part)
            begins, ends = (_clock(found, 1), _clock(found, 3)) if found else (None, None)
            if begins is None or ends is None:
                do, wanted = "Write it as 8 to 12, 13:30 to 17.", "times of the day, from and to"
                raise BadInput(Fault(f"lines.{day}", shorten(line), wanted, do, DAYS[day]))
            made.append(Stretch(day, begins, ends))
    return tuple(made)


def _clock(found: re.Match[str], at: int) -> float | None:
    """Hours from midnight; None for what is no time of a day."""
    hours, minutes = int(found[at]), int(found[at + 1] or 0)
    whole = hours + minutes / 60.0
    return whole if minutes < 60 and whole <= 24.0 else None


def week_lines(stretches: Sequence[Stretch]) -> tuple[str, ...]:
    """The hours of a week as they would be typed, a line a day."""
    return tuple(
        ", ".join(
            f"{_said(one.begins_h)} to {_said(one.ends_h)}" for one in stretches if one.weekday == day
        )
        for day in range(len(DAYS))
    )


def _said(hours: float) -> str:
    whole, minutes = divmod(round(hours * 60.0), 60)
    return f"{whole}:{minutes:02d}" if minutes else str(whole)


__all__ = ["DAYS", "read_week", "week_lines"]
