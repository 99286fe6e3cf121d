"""What to buy of common sizes for what the pile does not give."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

from splay.quantity import MM_PER_INCH, Quantity, Show, times
from splay.timber.choices import WoodChoice
from splay.timber.cutting import cut_plan
from splay.timber.needs import Need
from splay.timber.sawing import Want
from splay.timber.stock import Board
from splay.work.phrases import so_many

THICK_MM = (20.0, 27.0, 34.0, 41.0, 52.0, 65.0, 80.0, 100.0)
"""Sawn thicknesses that yards keep where they count in millimetres (common practice, no source)."""
THICK_IN = (1.0, 1.25, 1.5, 2.0, 2.5, 3.0, 4.0)
"""And where they count in quarters of an inch: 4/4 to 16/4 (common practice, no source)."""
WIDE_MM = (100.0, 150.0, 200.0, 250.0, 300.0)
WIDE_IN = (4.0, 6.0, 8.0, 10.0, 12.0)
LONG_MM = (1800.0, 2400.0, 3000.0, 3600.0)
LONG_IN = (72.0, 96.0, 120.0, 144.0)
MOST_BOARDS = 24


@dataclass(frozen=True)
class Buy:
    """So many boards of one size, for which needs; `slab` where a wide piece is wanted: its least size."""

    count: int
    length: Quantity
    width: Quantity
    thickness: Quantity
    species: str
    names: tuple[str, ...]
    slab: bool
    text: str


def to_buy(missing: Sequence[tuple[Need, int]], choice: WoodChoice, show: Show) -> tuple[Buy, ...]:
    """The boards of a common size that give all that is missing, the size that takes least wood; what is
    wider than any board as a slab of its own size."""
    inch = show.units.system == "inch"
    thick = [t * MM_PER_INCH for t in THICK_IN] if inch else list(THICK_MM)
    wide = [w * MM_PER_INCH for w in WIDE_IN] if inch else list(WIDE_MM)
    long = [one * MM_PER_INCH for one in LONG_IN] if inch else list(LONG_MM)
    by_thickness: dict[tuple[float, str], list[tuple[Need, Want]]] = {}
    made: list[Buy] = []
    for need, count in missing:
        species = choice.species_for(need.role)
        want = need.want("")
        want = replace(want, count=count * need.layers)
        fits = next((t for t in thick if t >= want.thickness), None)
        if fits is None or want.width > wide[-1] or want.length > long[-1]:
            made.append(_slab(need, count, species, show))
        else:
            by_thickness.setdefault((fits, species), []).append((need, want))
    for (thickness, species), those in by_thickness.items():
        wants = [want for _, want in those]
        best: tuple[float, int, float, float] | None = None
        for width in wide:
            for length in long:
                if any(w.width > width or w.length + 2 * choice.trim > length for w in wants):
                    continue
                count = _enough(wants, (length, width, thickness), choice)
                if count and (best is None or count * length * width < best[0]):
                    best = (count * length * width, count, length, width)
        if best is None:
            made += [_slab(need, want.count, species, show) for need, want in those]
            continue
        _, count, length, width = best
        sizes = (show.length(length), show.length(width), show.length(thickness))
        names = tuple(need.name for need, _ in those)
        made.append(Buy(count, *sizes, species, names, False, _text(count, sizes, species, "board")))
    return tuple(made)


def _text(count: int, sizes: tuple[Quantity, ...], species: str, what: str) -> str:
    size = times(sizes)
    return f"{so_many(count, what, f'{what}s')}{f' of {species}' if species else ''}, {size}"


def _slab(need: Need, count: int, species: str, show: Show) -> Buy:
    text = _text(count, need.blank, species, "slab") + " at least"
    return Buy(count, *need.blank, species, (need.name,), True, text)


def _enough(wants: Sequence[Want], size: tuple[float, float, float], choice: WoodChoice) -> int:
    """How many boards of a size give everything; 0 where more would be wanted than anybody buys at once."""
    length, width, thickness = size
    for count in range(1, MOST_BOARDS + 1):
        boards = [
            Board(
                id=f"b{k}",
                name="a board",
                species="basswood",
                length=length,
                width=width,
                thickness=thickness,
            )
            for k in range(count)
        ]
        if not cut_plan(wants, boards, choice.saw, 0.0).missing:
            return count
    return 0
