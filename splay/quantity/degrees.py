"""Trigonometry in degrees, exact at the multiples of 90."""

from __future__ import annotations

import math


def sin(angle_deg: float) -> float:
    """Sine of an angle in degrees; exactly 0, 1 or -1 at multiples of 90."""
    turned = angle_deg % 360.0
    if turned % 90.0 == 0.0:
        return (0.0, 1.0, 0.0, -1.0)[int(turned // 90) % 4]
    return math.sin(math.radians(turned))


def cos(angle_deg: float) -> float:
    """Cosine of an angle in degrees; exactly 0, 1 or -1 at multiples of 90."""
    turned = angle_deg % 360.0
    if turned % 90.0 == 0.0:
        return (1.0, 0.0, -1.0, 0.0)[int(turned // 90) % 4]
    return math.cos(math.radians(turned))


def tan(angle_deg: float) -> float:
    """Tangent of an angle in degrees; ZeroDivisionError at odd multiples of 90."""
    return sin(angle_deg) / cos(angle_deg)


def atan(ratio: float) -> float:
    """Angle in degrees, -90 to 90, with the given tangent."""
    return math.degrees(math.atan(ratio))


def atan2(y: float, x: float) -> float:
    """Bearing in degrees, 0 to 360 counter-clockwise from +x, of the direction (x, y)."""
    return math.degrees(math.atan2(y, x)) % 360.0


def asin(ratio: float) -> float:
    """Angle in degrees, -90 to 90, with the given sine; a ratio a hair past 1 counts as 1."""
    return math.degrees(math.asin(max(-1.0, min(1.0, ratio))))


def fold(bearing_deg: float) -> float:
    """A bearing folded to the acute angle, 0 to 90, between its line and the x line."""
    half = bearing_deg % 180.0
    return 180.0 - half if half > 90.0 else half


def signed(bearing_deg: float) -> float:
    """A bearing as a turn between -180 (not reached) and 180."""
    turned = bearing_deg % 360.0
    return turned - 360.0 if turned > 180.0 else turned
