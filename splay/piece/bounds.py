"""A size of the document held against what bounds it."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Literal

CLEAR_MM = 1.0
"""What a size stays below its bound by for anything to be left (common practice, no source)."""


@dataclass(frozen=True)
class Bound:
    """One size held against its `limit`, mm: past that it cannot be built.

    `code` names the rule, `station` is where it is shown, `text` says what is wrong, `mend` which choice
    mends it; `field` is that choice, within what says so.
    """

    code: str
    station: Literal["stance", "top", "boring", "legs", "stretchers"]
    text: str
    mend: str
    size: float
    limit: float
    field: str

    @property
    def passed(self) -> bool:
        """Whether it is."""
        return self.size > self.limit + 1e-9

    def within(self, base: str) -> Bound:
        """The same, its field within a larger part."""
        return replace(self, field=f"{base}.{self.field}")
