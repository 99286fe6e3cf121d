"""Logs and rounds: how many sticks they yield, riven or sawn, and what a slice does as it dries."""

from __future__ import annotations

import math
from dataclasses import dataclass
from itertools import pairwise
from typing import Literal

from splay.quantity import Quantity, Show
from splay.timber.species import GREEN, Wood
from splay.timber.stock import Log


@dataclass(frozen=True)
class Billets:
    """Sticks of one section from a log: how many of one length, along how many lengths; for riving, the
    splits in their order; the corners of each stick seen from the end, mm from the pith."""

    way: Literal["riven", "sawn"]
    each: int
    lengths: int
    total: int
    splits: tuple[str, ...]
    squares: tuple[tuple[tuple[float, float], ...], ...]


RIVING = 6.0
"""Riven sticks are left so much thicker, to be shaved true, mm (common practice, no source)."""


def _clear(log: Log) -> tuple[float, float, float]:
    """Radius of sound wood, of the pith left out, and sound length, mm."""
    return log.small_end / 2.0 - log.bark, log.pith / 2.0, log.length - 2.0 * log.checks


def riven(log: Log, square: float, length: float, show: Show) -> Billets:
    """Square sticks riven out of wedges: the log in halves, quarters, eighths and so on; where a wedge is
    thick enough its outer part is split off and halved again.

    In a wedge of an angle 2a a square of side s lies with its inner side at s / (2 tan a) from the pith at
    least, and its outer corners at hypot(r + s, s / 2): inside the bark.
    """
    radius, pith, sound = _clear(log)
    side = square + RIVING
    ways = [_rows(radius, pith, side, 2**power) for power in range(1, 6)]
    rows = max(ways, key=lambda way: sum(parts for _, parts in way))
    count = sum(parts for _, parts in rows)
    squares = tuple(
        _turned(inner, side, (k + 0.5) * 2.0 * math.pi / parts)
        for inner, parts in rows
        for k in range(parts)
    )
    many = int((sound + 1e-6) // length) if length > 0 else 0
    return Billets("riven", count, many, count * many, _splits(rows, show), squares)


def _inner(side: float, wedges: int) -> float:
    """Nearest the pith that a square's inner side can lie in one of so many wedges."""
    half = math.pi / wedges
    return 0.0 if wedges <= 2 else side / 2.0 / math.tan(half)


def _rows(radius: float, pith: float, side: float, wedges: int) -> list[tuple[float, int]]:
    """Rows of squares from the pith outwards: how far in each lies, mm, and in how many wedges. Behind the
    first row a wedge is split in two or four where the parts still hold one each."""
    rows: list[tuple[float, int]] = []
    parts = wedges
    while True:
        for more in (4 * parts, 2 * parts, parts) if rows else (parts,):
            start = max(pith, _inner(side, more), _behind(rows, side, more))
            if math.hypot(start + side, side / 2.0) <= radius + 1e-9:
                rows.append((start, more))
                parts = more
                break
        else:
            return rows


def _behind(rows: list[tuple[float, int]], side: float, parts: int) -> float:
    """Where the next row can begin: behind the outer side of the last one, or behind its corners where the
    wedges are others."""
    if not rows:
        return 0.0
    inner, before = rows[-1]
    return inner + side if parts == before else math.hypot(inner + side, side / 2.0)


def _turned(inner: float, side: float, bearing: float) -> tuple[tuple[float, float], ...]:
    c, s = math.cos(bearing), math.sin(bearing)
    corners = ((inner, -side / 2), (inner + side, -side / 2), (inner + side, side / 2), (inner, side / 2))
    return tuple((x * c - y * s, x * s + y * c) for x, y in corners)


_HALVED = {2: "it in halves", 4: "the halves in quarters", 8: "the quarters in eighths"}
_HALVED |= {16: "the eighths in sixteenths", 32: "the sixteenths in two each"}


def _splits(rows: list[tuple[float, int]], show: Show) -> tuple[str, ...]:
    """The splits in their order: halves, quarters, eighths; then outer parts off, and those again."""
    if not rows:
        return ()
    told = [f"Split {_HALVED[2**k]}." for k in range(1, int(math.log2(rows[0][1])) + 1)]
    for (_, before), (inner, parts) in pairwise(rows):
        again = {1: "", 2: ", and that in two", 4: ", and that in four"}[parts // before]
        told.append(f"Split the outer part off each, {show.length(inner).text} from the pith{again}.")
    return (*told, "Each split through the middle of what is left, so that it does not run out.")


def sawn(log: Log, square: float, length: float, kerf: float) -> Billets:
    """Square sticks sawn in rows through and through, the rows where most come out; none holds the pith."""
    radius, pith, sound = _clear(log)
    pitch = square + kerf
    best: list[tuple[float, float]] = []
    for k in range(24):
        found: list[tuple[float, float]] = []
        low = -radius + k / 24.0 * pitch
        while low + square <= radius + 1e-9:
            # A row yields sticks side by side, pushed together from either side of the pith.
            far = max(abs(low), abs(low + square))
            half = math.sqrt(max(0.0, radius**2 - far**2))
            for begins, ends in _beside(low, low + square, half, pith):
                x = begins
                while x + square <= ends + 1e-9:
                    found.append((x, low))
                    x += pitch
            low += pitch
        if len(found) > len(best):
            best = found
    many = int((sound + 1e-6) // (length + kerf)) if length > 0 else 0
    many = max(many, 1 if 0 < length <= sound else 0)
    squares = tuple(((x, y), (x + square, y), (x + square, y + square), (x, y + square)) for x, y in best)
    return Billets("sawn", len(best), many, len(best) * many, (), squares)


def _beside(low: float, high: float, half: float, pith: float) -> list[tuple[float, float]]:
    near = 0.0 if low <= 0.0 <= high else min(abs(low), abs(high))
    if near >= pith:
        return [(-half, half)]
    clear = math.sqrt(pith**2 - near**2)
    return [(-half, -clear), (clear, half)]


@dataclass(frozen=True)
class Slice:
    """What a slice does as it dries: the wedge that opens (degrees) and how wide it gapes at the rim (mm);
    what to do about it."""

    opens: Quantity
    gape: Quantity
    told: tuple[str, ...]


LEAST_SLICE = 0.12
"""Thinner than this share of its width a slice warps like a dish (common practice, no source)."""


def slice_of(log: Log, wood: Wood, moisture: float, ends: float, show: Show) -> Slice:
    """What opens in a slice dried from one moisture to another: rings shrink more than rays, and the
    difference, once round, is the wedge: 360 (St - Sr) dM / 30 degrees, less what has shrunk along the
    rays.

    Geometry with the Handbook's shrinkages; that it comes as one split is common practice, no source.
    """
    drop = max(0.0, min(moisture, GREEN) - ends) / GREEN
    round_, ray = wood.tangential / 100.0 * drop, wood.radial / 100.0 * drop
    wedge = 360.0 * (1.0 - (1.0 - round_) / (1.0 - ray)) if ray < 1.0 else 0.0
    radius = log.small_end / 2.0 - log.bark
    gape = 2.0 * radius * (1.0 - ray) * math.sin(math.radians(max(wedge, 0.0)) / 2.0)
    told = [
        f"Dried so far it opens {show.length(gape).text} at the rim, as one split or as several.",
        "Let it open where no leg stands: saw a cut from the rim to the pith there while it is wet; fill "
        "or key "
        "it when it is dry.",
        "Coat both faces and dry it slowly, stood on edge.",
    ]
    if log.length < LEAST_SLICE * log.small_end:
        thick = show.length(LEAST_SLICE * log.small_end).text
        told.append(f"It is thin for its width and will dish: {thick} would be better.")
    return Slice(show.angle(max(wedge, 0.0)), show.length(gape), tuple(told))
