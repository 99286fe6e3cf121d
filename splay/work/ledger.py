"""The ledger of marks: what is on the wood at each instruction, and what an instruction misses."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, field

from splay.work.marks import Mark


@dataclass(frozen=True)
class Entry:
    """One instruction's entry: its name, the marks it leans on, leaves, and takes away."""

    name: str
    uses: tuple[Mark, ...]
    makes: tuple[Mark, ...]
    loses: tuple[Mark, ...] = ()


@dataclass
class Ledger:
    """The marks on the wood as the work goes on, and every instruction that leaned on one not there."""

    there: set[Mark] = field(default_factory=set)
    missing: list[tuple[str, Mark]] = field(default_factory=list)

    def follow(self, entries: Iterable[Entry]) -> Ledger:
        """Instructions in the order of hands; what one makes is there for itself as well."""
        for entry in entries:
            self.missing += [
                (entry.name, mark)
                for mark in entry.uses
                if mark not in self.there and mark not in entry.makes
            ]
            self.there |= set(entry.makes)
            self.there -= set(entry.loses)
        return self
