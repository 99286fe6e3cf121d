"""Spacers under a ramp: one angle, four ways of measuring."""

from __future__ import annotations

from splay.quantity import degrees as deg


def spacer_height(spacer: str, base_mm: float, rho_deg: float) -> float:
    """Height of a ramp's spacer, mm; of a round bar its diameter.

    plumb_base: B tan rho; plumb_ramp: B sin rho; square_ramp: B tan rho; bar: a circle touching
    both surfaces, its point of touch B along the base: radius B tan(rho/2).
    """
    if spacer == "plumb_ramp":
        return base_mm * deg.sin(rho_deg)
    if spacer == "bar":
        return 2.0 * base_mm * deg.tan(rho_deg / 2.0)
    return base_mm * deg.tan(rho_deg)
