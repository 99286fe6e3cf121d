"""What the rest of the core asks of any support; each kind answers where it differs."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from splay.document import Frozen
from splay.piece.bounds import Bound
from splay.piece.square import Dowels


@dataclass(frozen=True)
class Joined:
    """Sawn ends joined by `dowels`: the `thinnest` part they enter, mm; what they join, in words."""

    dowels: Dowels
    thinnest: float
    named: str


class SupportBase(Frozen):
    """A support of any kind."""

    def bounds(self, high: float) -> Iterator[Bound]:
        """Each of its sizes that something bounds, where the underside is so high above the floor, mm."""
        yield from ()

    def joined(self, top: float) -> Joined | None:
        """Its sawn ends, where they are joined by dowels or loose tenons; the top is so thick, mm."""
        return None
