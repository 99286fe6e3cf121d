"""What is laid out of what: boards, slabs and logs with what is cut from them, what is missing."""

from __future__ import annotations

from dataclasses import dataclass

from splay.quantity import Quantity
from splay.timber.buying import Buy
from splay.timber.choices import Laid
from splay.timber.keys import Keys
from splay.timber.placing import PlaceFault
from splay.timber.rounds import Billets, Slice

Flat2 = tuple[float, float]


@dataclass(frozen=True)
class Blank:
    """A blank in a board: its need, where it lies (mm from the marked end and the near edge) and its
    size."""

    key: str
    name: str
    x: float
    y: float
    length: float
    width: float
    text: str
    role: str


@dataclass(frozen=True)
class Rest:
    """What is left of a board, mm, and what it is called in the maker's units."""

    x: float
    y: float
    length: float
    width: float
    text: str


@dataclass(frozen=True)
class BoardCut:
    """One board with its blanks, what is left of it, and its cuts in their order, in words."""

    stock: str
    blanks: tuple[Blank, ...]
    left: tuple[Rest, ...]
    told: tuple[str, ...]


@dataclass(frozen=True)
class SlabPart:
    """A part on a slab: its blank in the slab's frame, leg holes (x, y, radius), seams, and how it was
    laid."""

    key: str
    number: int
    name: str
    outline: tuple[Flat2, ...]
    holes: tuple[tuple[float, float, float], ...]
    seams: tuple[tuple[Flat2, Flat2], ...]
    x: float
    y: float
    turn: float


@dataclass(frozen=True)
class SplitKeys:
    """The keys that hold a split, by the id of its spot."""

    spot: str
    keys: Keys


@dataclass(frozen=True)
class SlabCut:
    """One slab with the parts laid on it, what is left of it, and the splits that are kept in its parts."""

    stock: str
    parts: tuple[SlabPart, ...]
    left: tuple[tuple[Flat2, ...], ...]
    splits: tuple[SplitKeys, ...]


@dataclass(frozen=True)
class LogCut:
    """What one log gives of one need: sticks riven or sawn, or slices; `takes` of how many it is taken
    for."""

    stock: str
    key: str
    name: str
    takes: int
    billets: tuple[Billets, ...]
    slices: int
    slice: Slice | None


@dataclass(frozen=True)
class StickCut:
    """A leg that was made already, taken for a need: how much comes off its length."""

    stock: str
    key: str
    name: str
    off: Quantity


@dataclass(frozen=True)
class Missing:
    """A need, and how many of it there is no wood for; for a seat the widths of boards it could be glued
    from, no glue line near a leg hole."""

    key: str
    name: str
    count: int
    boards: tuple[Quantity, ...]


@dataclass(frozen=True)
class WoodLayout:
    """Everything that was laid out. `lost` and `kept` are litres (or board feet) of boards; `off` how far
    the boards' plan lies above the least loss there can be, at most, as a share; `first` whether a better
    one is still looked for; `makes` how many whole pieces the pile gives, None where it was not worked
    out."""

    boards: tuple[BoardCut, ...]
    slabs: tuple[SlabCut, ...]
    logs: tuple[LogCut, ...]
    missing: tuple[Missing, ...]
    buy: tuple[Buy, ...]
    faults: tuple[PlaceFault, ...]
    cautions: tuple[str, ...]
    laid: tuple[Laid, ...]
    lost: Quantity
    kept: Quantity
    off: float
    first: bool
    makes: int | None
    sticks: tuple[StickCut, ...]
