"""What a piece cost, and what the next one, or six, would take: a range from the maker's own record."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from statistics import quantiles

from splay.build.document import Build
from splay.build.known import Record
from splay.build.operations import OPERATIONS, RANK
from splay.build.order import Order

ENOUGH = 4
"""From this many times of one kind on they have quarters (common practice, no source)."""
UNSURE = (0.75, 1.5)
"""How far the usual time may be off for a maker who has no record of it (common practice, no source)."""


@dataclass(frozen=True)
class Worked:
    """Minutes of one kind of work on a piece, and what they cost at the maker's rate."""

    called: str
    minutes: float
    money: float


@dataclass(frozen=True)
class Range:
    """What so many of them would take: hours and money, from and to; `own` the share of the hours that
    comes from the maker's own record."""

    pieces: int
    low_h: float
    high_h: float
    low: float
    high: float
    own: float


@dataclass(frozen=True)
class Cost:
    """What one piece (or the batch that is made of it) cost so far, and what more of them would."""

    worked: tuple[Worked, ...]
    hours: float
    labour: float
    materials: float
    total: float
    mishaps: int
    scrapped: int
    next: tuple[Range, ...]


def cost_of(
    order: Order,
    build: Build,
    minutes: Iterable[tuple[str, float]],
    rate: float,
    record: Record,
    mishaps: int,
    scrapped: int,
    pieces: int = 1,
) -> Cost:
    """The cost of a piece from its ticked minutes by operation, at a rate an hour.

    `pieces` is how many were made: materials are for all of them. The next one's hours lie between the
    quarters of the maker's own times for each kind of work, or about the usual where there are too few.
    """
    sums: dict[str, float] = {}
    for operation, took in minutes:
        sums[operation] = sums.get(operation, 0.0) + took
    worked = tuple(
        Worked(OPERATIONS[name].called, took, took / 60.0 * rate)
        for name, took in sorted(sums.items(), key=lambda one: RANK.get(one[0], 0))
        if name in OPERATIONS
    )
    hours = sum(one.minutes for one in worked) / 60.0
    materials = sum(one.amount for one in build.spent)
    each = materials / max(pieces, 1)
    return Cost(
        worked,
        hours,
        hours * rate,
        materials,
        hours * rate + materials,
        mishaps,
        scrapped,
        tuple(_range(order, record, rate, each, many) for many in (1, 6)),
    )


def _range(order: Order, record: Record, rate: float, materials: float, many: int) -> Range:
    low = high = own = 0.0
    for step in order.steps:
        for part in step.whole:
            count = len(part.units) * many
            times = record.minutes.get(part.operation, ())
            if len(times) >= ENOUGH:
                first, _, third = quantiles(times, n=4, method="inclusive")
                low, high = low + first * count, high + third * count
                own += (first + third) / 2.0 * count
            else:
                usual = part.setting + (0.0 if part.operation == "own" else part.kind.minutes * count)
                low, high = low + usual * UNSURE[0], high + usual * UNSURE[1]
    middle = (low + high) / 2.0
    return Range(
        many,
        low / 60.0,
        high / 60.0,
        low / 60.0 * rate + materials * many,
        high / 60.0 * rate + materials * many,
        own / middle if middle else 0.0,
    )
