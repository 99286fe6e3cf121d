"""One thing the plan found."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from splay.quantity import Quantity
from splay.stance.vectors import Flat, Vec


@dataclass(frozen=True)
class Finding:
    """`code` names the rule; "stop" would spoil the piece, "caution" wants a look, "note" informs.

    `legs` it concerns, `number` the figure found, `limit` what it is held against, `at` the
    place on the top (top frame, mm), `field` where the maker can change it, `station` where it
    is shown; `spot` where in the round, inside the wood perhaps (top frame, mm).
    """

    code: str
    level: Literal["stop", "caution", "note"]
    station: str
    text: str
    mend: str
    legs: tuple[int, ...]
    number: Quantity
    limit: Quantity | None
    at: Flat | None
    field: str
    spot: Vec | None = None


def found(
    code: str,
    level: Literal["stop", "caution", "note"],
    text: str,
    mend: str,
    number: Quantity,
    limit: Quantity | None,
    field: str,
    at: Flat | None = None,
    *,
    station: str = "stance",
) -> Finding:
    """A finding about no leg in particular."""
    return Finding(code, level, station, text, mend, (), number, limit, at, field)
