"""What the maker's own record says: how long things took, which joints were made before."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from statistics import median

from splay.build.operations import OPERATIONS
from splay.build.step import Minutes, Step

ENOUGH = 3
"""From this many of one kind on a maker's own time is taken for the usual one (common practice)."""


@dataclass(frozen=True)
class Record:
    """One maker's own figures: minutes of each unit done, by operation, the latest last; the joints made
    before, by their way; the order last kept for such a piece, as operations; lessons by operation."""

    minutes: Mapping[str, tuple[float, ...]] = field(default_factory=dict)
    joints: frozenset[str] = frozenset()
    order: tuple[str, ...] = ()


NOTHING = Record()


def takes(step: Step, record: Record, copies: int = 1) -> Minutes:
    """What a step takes: the maker's own middle time for each unit where there are enough, else the usual
    one with its setting up; for so many copies of the piece."""
    total, whose = 0.0, 0
    for part in step.whole:
        own = record.minutes.get(part.operation, ())
        count = len(part.units) * copies
        if len(own) >= ENOUGH:
            total += median(own) * count
            whose = max(whose, len(own))
        else:
            kind = OPERATIONS[part.operation]
            total += part.setting + (kind.minutes if part.operation != "own" else 0.0) * count
    return Minutes(total, whose)
