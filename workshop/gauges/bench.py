"""Instruments on the bench: one small adapter, and a simulated bench that ships with the product."""

from __future__ import annotations

import random
from dataclasses import dataclass
from typing import Protocol

from splay.instruments import MEASURES
from splay.quantity import MM_PER_INCH
from splay.work.proofs import Instrument


class Bench(Protocol):
    """Whatever brings in what an instrument sends; one line of text, None when nothing came."""

    def send(self, instrument: Instrument, count: int, before: str) -> str | None:
        """The next line of an instrument: the `count`-th asked for, `before` the one sent last."""
        ...


SIGMA: dict[Instrument, tuple[float, float]] = {
    "angle_gauge": (0.08, 0.1),
    "caliper": (0.02, 0.01),
    "height_gauge": (0.05, 0.05),
    "moisture_meter": (0.2, 0.1),
    "hygrometer": (0.8, 0.5),
}
"""Standard deviation and smallest step of each simulated instrument, in its own unit (invented)."""


@dataclass(frozen=True)
class SimulatedBench:
    """Instruments that read a hidden truth with a steady hand's noise; moody ones misbehave now and
    then: go silent, send rubbish, other units, or the last reading again."""

    truth: float
    moody: bool = False
    noise: random.Random | None = None

    def send(self, instrument: Instrument, count: int, before: str) -> str | None:
        """One line, as an instrument would send it."""
        if self.moody and count % 7 == 3:
            return None
        if self.moody and count % 7 == 5:
            return "##.## Err"
        if self.moody and count % 11 == 4 and before:
            return before
        sigma, step = SIGMA[instrument]
        value = (self.noise or random.Random()).gauss(self.truth, sigma)
        value = round(value / step) * step
        if MEASURES[instrument] == "angle":
            return f"#{count} {value:.1f} deg"
        if MEASURES[instrument] == "percentage":
            return f"#{count} {value:.1f} %"
        if self.moody and count % 13 == 6:
            return f"#{count} {value / MM_PER_INCH:.4f} in"
        return f"#{count} {value:.2f} mm"
