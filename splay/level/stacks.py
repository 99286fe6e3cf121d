"""Stacks of what lies about in the shop, as thick as a shim or a block is wanted."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

from splay.shop import Spacer

MOST = 4
"""More than this many in one stack is no longer firm (common practice, no source)."""
_STEP_MM = 0.05


@dataclass(frozen=True)
class Stack:
    """What to put together, and how thick it comes out, mm."""

    names: tuple[str, ...]
    thick: float

    def said(self) -> str:
        """In words: "2 × card, M10 nut on its flat"."""
        counted: dict[str, int] = {}
        for name in self.names:
            counted[name] = counted.get(name, 0) + 1
        return ", ".join(name if n == 1 else f"{n} × {name}" for name, n in counted.items())


@lru_cache(maxsize=8)
def _sums(spacers: tuple[Spacer, ...]) -> dict[int, Stack]:
    """Every thickness that can be made of at most a few, with the fewest things for each."""
    best: dict[int, Stack] = {0: Stack((), 0.0)}
    for spacer in sorted(spacers, key=lambda s: -s.thick):
        grown = dict(best)
        for stack in best.values():
            for n in range(1, min(spacer.count, MOST - len(stack.names)) + 1):
                thick = stack.thick + n * spacer.thick
                key = round(thick / _STEP_MM)
                known = grown.get(key)
                if known is None or len(known.names) > len(stack.names) + n:
                    grown[key] = Stack((*stack.names, *([spacer.name] * n)), thick)
        best = grown
    return best


def stack_for(spacers: tuple[Spacer, ...], wanted_mm: float, near_mm: float) -> Stack | None:
    """The stack nearest to a thickness, the fewest things among the equally near; None past `near_mm`."""
    made = _sums(spacers)
    close = [s for s in made.values() if s.names and abs(s.thick - wanted_mm) <= near_mm]
    return min(
        close, key=lambda s: (round(abs(s.thick - wanted_mm) / _STEP_MM), len(s.names)), default=None
    )
