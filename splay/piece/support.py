"""What the rest of the core asks of any support; each kind answers where it differs."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import ClassVar, Literal

from splay.document import Frozen
from splay.piece.bounds import Bound
from splay.piece.square import Dowels


@dataclass(frozen=True)
class Joined:
    """Sawn ends joined by `dowels`.

    `thinnest` is the thinnest part they enter, mm; `named` what they join, in words; `room` how deep they
    may go before they come out, mm; `mitred` whether legs take them at a mitre; `station` where they are
    asked about.
    """

    dowels: Dowels
    thinnest: float
    named: str
    room: float
    mitred: bool = False
    station: Literal["legs", "stretchers"] = "stretchers"


class SupportBase(Frozen):
    """A support of any kind."""

    stepped_on: ClassVar[bool] = False
    """Whether a piece on it is stepped on, where nothing else is said of its use."""

    def bounds(self, high: float) -> Iterator[Bound]:
        """Each of its sizes that something bounds, where the underside is so high above the floor, mm."""
        yield from ()

    def joined(self, top: float) -> Joined | None:
        """Its sawn ends, where they are joined by dowels or loose tenons; the top is so thick, mm."""
        return None
