"""Parts laid on slabs: what is wrong with a place, and a first place found by trying many."""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from time import monotonic

import numpy as np
import shapely
from shapely.geometry.base import BaseGeometry

from splay.quantity import Quantity, Show
from splay.timber.choices import Laid
from splay.timber.needs import Need
from splay.timber.stock import FLAWS, SOUND, Slab, SlabFlaw

OUT_MM2 = 4.0
"""Less than this over an edge is drawn inaccurately, not outside."""
SLOPES = ((25.0, 0.96), (20.0, 0.93), (15.0, 0.89), (10.0, 0.81), (5.0, 0.55))
"""One in so many that grain runs out, and what of its bending strength is left: Wood Handbook, Table 5-12
(modulus of rupture; from memory)."""
LIVE_OVER = 15.0
"""A seat whose edge is the tree's own may be drawn so far over it, mm: the slab's edge is what it gets."""
STEEP = 15.0
"""Grain that runs out more steeply than one in so many is told of (common practice, no source)."""


@dataclass(frozen=True)
class PlaceFault:
    """What is wrong with where a part lies: `code`, which part and which of several alike, in words, what
    to do, and a figure (mm or a share). `stop` where it cannot be cut so."""

    code: str
    key: str
    number: int
    stop: bool
    text: str
    mend: str
    figure: Quantity | None


@dataclass(frozen=True)
class OnSlab:
    """A part where it lies: its blank in the slab's frame, and what the maker said of it."""

    need: Need
    laid: Laid
    shape: shapely.Polygon
    holes: tuple[tuple[float, float, float], ...]
    """Leg holes in the slab's frame: x, y, radius, mm."""
    seams: tuple[tuple[tuple[float, float], tuple[float, float]], ...]


def lay(need: Need, laid: Laid) -> OnSlab:
    """A part's blank, holes and seams where it was laid."""

    def put(x: float, y: float) -> tuple[float, float]:
        t = math.radians(laid.turn)
        return (
            laid.x + x * math.cos(t) - y * math.sin(t),
            laid.y + x * math.sin(t) + y * math.cos(t),
        )

    shape = shapely.Polygon([put(x, y) for x, y in need.outline])
    return OnSlab(
        need,
        laid,
        shape,
        tuple((*put(x, y), r) for x, y, r in need.holes),
        tuple((put(*a), put(*b)) for a, b in need.seam),
    )


def off_grain(slab: Slab, turn: float) -> float:
    """How far a part's long grain lies off the slab's, degrees: 0 to 90."""
    return abs((turn - slab.grain + 90.0) % 180.0 - 90.0)


def faults(
    slab: Slab, parts: Sequence[OnSlab], kerf: float, show: Show, live: bool = False
) -> list[PlaceFault]:
    """Everything wrong with where parts lie on one slab."""
    found: list[PlaceFault] = []
    ring = slab.ring
    for k, part in enumerate(parts):
        found += _against_slab(slab, ring, part, show)
        for other in parts[k + 1 :]:
            apart = part.shape.distance(other.shape)
            if apart < kerf - 1e-6:
                text = f"The {part.need.name} and the {other.need.name} leave the saw no room between them."
                mend = f"Move them {show.length(kerf - apart).text} further apart."
                found.append(_fault("too_near", part, True, text, mend, show.length(apart)))
    return found


def _fault(
    code: str, part: OnSlab, stop: bool, text: str, mend: str, figure: Quantity | None
) -> PlaceFault:
    return PlaceFault(code, part.need.key, part.laid.number, stop, text, mend, figure)


def _against_slab(slab: Slab, ring: shapely.Polygon, part: OnSlab, show: Show) -> Iterable[PlaceFault]:
    name = part.need.name
    outside = part.shape.difference(ring.buffer(LIVE_OVER) if part.need.live and slab.live else ring)
    if outside.area > OUT_MM2:
        over = max((ring.distance(shapely.Point(p)) for p in part.shape.exterior.coords[:-1]), default=0.0)
        text = f"The {name} runs over the slab's edge by {show.length(over).text}."
        yield _fault("outside", part, True, text, "Move or turn it onto the wood.", show.length(over))
    thick = min([slab.thickness, *(t.thickness for t in slab.thick if _near(t.at.x, t.at.y, part))])
    if thick + 1e-6 < part.need.size[2]:
        wanted = part.need.blank[2].text
        text = f"The slab is {show.length(thick).text} thick there; the {name} wants {wanted}."
        mend = "Take another slab, or make the seat thinner."
        yield _fault("thin", part, True, text, mend, show.length(thick))
    slope = off_grain(slab, part.laid.turn)
    if slope > math.degrees(math.atan(1.0 / STEEP)):
        one_in = 1.0 / math.tan(math.radians(slope)) if slope < 89.9 else 0.0
        left = next((share for per, share in SLOPES if one_in >= per), 0.0)
        how = f"one in {one_in:.0f}" if one_in >= 1.0 else "across it"
        text = f"The {name} lies {show.angle(slope).text} off the slab's grain ({how})"
        text += f": about {left:.0%} of its strength is left." if left else ": it breaks along the grain."
        yield _fault("short_grain", part, slope > 45.0, text, "Turn it along the grain.", show.angle(slope))
    for spot in slab.spots:
        yield from _against_spot(spot, part, show)


def _near(x: float, y: float, part: OnSlab) -> bool:
    return bool(part.shape.intersects(shapely.Point(x, y)))


def _against_spot(spot: SlabFlaw, part: OnSlab, show: Show) -> Iterable[PlaceFault]:
    shape, name, what = spot.shape(), part.need.name, FLAWS[spot.kind]
    for k, (x, y, radius) in enumerate(part.holes, 1):
        apart = shapely.Point(x, y).distance(shape) - radius
        if apart < CLEAR_OF_HOLE and spot.kind not in SOUND:
            text = f"Leg hole {k} is {show.length(max(apart, 0.0)).text} from a {what}."
            if apart <= 0.0:
                text = f"Leg hole {k} goes into a {what}."
            mend = f"Move the {name} until the hole is {show.length(CLEAR_OF_HOLE).text} clear of it."
            yield _fault("hole_at_flaw", part, True, text, mend, show.length(apart))
    inside = part.shape.intersection(shape)
    if inside.is_empty or inside.area <= OUT_MM2:
        return
    if spot.kind == "sapwood":
        text = f"The {name} has sapwood in it: outdoors it rots first."
        yield _fault("sapwood", part, False, text, "Indoors it is a matter of looks.", None)
        return
    if spot.kind == "split":
        long = _longest(inside)
        text = f"A split runs {show.length(long).text} into the {name}."
        mend = "Move it clear, or keep the split and hold it with keys."
        yield _fault("split", part, False, text, mend, show.length(long))
        return
    stop = spot.kind != "knot"
    text = f"There is {'a ' if spot.kind in ('knot', 'hole') else ''}{what} in the {name}."
    if spot.kind == "pith":
        text = f"The pith runs through the {name}: it splits there as it dries."
    mend = "Move it clear of that." if stop else "Move it clear, or fill it where it is sound."
    yield _fault(spot.kind, part, stop, text, mend, show.length(_longest(inside)))


CLEAR_OF_HOLE = 10.0
"""Least sound wood between a leg hole and a flaw, mm (common practice, no source)."""


def _longest(shape: BaseGeometry) -> float:
    a, b, c, d = shape.minimum_rotated_rectangle.bounds if not shape.is_empty else (0, 0, 0, 0)
    box = shape.minimum_rotated_rectangle
    if not isinstance(box, shapely.Polygon):
        return math.hypot(c - a, d - b)
    points = list(box.exterior.coords)
    return max(math.dist(points[k], points[k + 1]) for k in range(4))


@dataclass(frozen=True)
class Found:
    """Where parts were laid by trying, and which found no room."""

    laid: tuple[Laid, ...]
    missing: tuple[tuple[str, int], ...]


TURNS = (0.0, 180.0, 2.0, -2.0, 178.0, 182.0, 4.0, -4.0)
STEP = 25.0
"""How far apart the places are that are tried at first, mm."""


def first_places(
    needs: Sequence[tuple[Need, int]],
    slabs: Sequence[Slab],
    kerf: float,
    seconds: float = 0.9,
    held: Sequence[OnSlab] = (),
) -> Found:
    """A place for each part (a need and which of several), the largest first: clear of every flaw, along
    the grain, as near an end and an edge as it goes, so that what is left is large.

    The slabs are tried in their order; `held` lie there already and stay. Splits are kept out of seats;
    where no place is clear of them one that only a split runs into is taken.
    """
    ends = monotonic() + seconds
    held = list(held)
    laid: list[Laid] = []
    missing: list[tuple[str, int]] = []
    for need, number in sorted(needs, key=lambda one: -one[0].shape().area):
        place = None
        for strict in (True, False):
            for slab in slabs:
                if slab.thickness + 1e-6 < need.size[2] or monotonic() > ends:
                    continue
                mine = [part.shape for part in held if part.laid.stock == slab.id]
                place = _place(need, number, slab, mine, kerf, strict, ends)
                if place:
                    break
            if place:
                break
        if place is None:
            missing.append((need.key, number))
        else:
            laid.append(place)
            held.append(lay(need, place))
    return Found(tuple(laid), tuple(missing))


def _free(
    slab: Slab, taken: Sequence[shapely.Polygon], kerf: float, strict: bool, live: bool
) -> BaseGeometry:
    """Where wood is sound and nobody's; a little over a live edge for what keeps it."""
    ring = slab.ring.buffer(LIVE_OVER) if live and slab.live else slab.ring
    bad = [
        spot.shape() for spot in slab.spots if spot.kind not in SOUND and (strict or spot.kind != "split")
    ]
    out = [*bad, *(shape.buffer(kerf, join_style="mitre") for shape in taken)]
    return ring.difference(shapely.union_all(out)) if out else ring


def _place(
    need: Need,
    number: int,
    slab: Slab,
    taken: Sequence[shapely.Polygon],
    kerf: float,
    strict: bool,
    ends: float,
) -> Laid | None:
    free = _free(slab, taken, kerf, strict, need.live)
    holes_bad = [s.shape() for s in slab.spots if s.kind not in SOUND]
    hole_room = shapely.union_all(holes_bad).buffer(CLEAR_OF_HOLE) if holes_bad and need.holes else None
    if free.area < need.shape().area:
        return None
    # A wider reach: what lies along the slab's grain, the part's own long grain along x.
    a, b, c, d = free.bounds
    outline = np.array(need.outline)
    best_live: tuple[float, Laid] | None = None
    for turn in TURNS:
        t = math.radians(slab.grain + turn)
        spin = np.array([[math.cos(t), -math.sin(t)], [math.sin(t), math.cos(t)]])
        turned = outline @ spin.T
        low, high = turned.min(axis=0), turned.max(axis=0)
        xs = _steps(a - low[0], c - high[0])
        ys = _steps(b - low[1], d - high[1])
        if not len(xs) or not len(ys) or monotonic() > ends:
            continue
        spots = np.array([(x, y) for x in xs for y in ys])
        inside = _fits(free, turned, spots)
        if hole_room is not None and inside.any():
            holes = np.array([(x, y) for x, y, _ in need.holes]) @ spin.T
            for k, (_, _, radius) in enumerate(need.holes):
                near = shapely.distance(shapely.points(spots + holes[k]), hole_room) < radius
                inside &= ~near
        good = spots[inside]
        if len(good) and need.live and slab.live:
            off, place = _along_edge(slab, free, turned, good, hole_room, need, spin)
            if best_live is None or off < best_live[0] - 0.5:
                best_live = (off, _laid(need, number, slab, place, turn))
        elif len(good):
            # As far along as it goes, then as near an edge: what is left stays in one piece.
            along = good[:, 0] - xs[0]
            beside = np.minimum(good[:, 1] - ys[0], ys[-1] - good[:, 1])
            best = good[int(np.argmin(along * 2.0 + beside))]
            return _laid(need, number, slab, _closer(free, turned, best, hole_room, need, spin), turn)
    return best_live[1] if best_live else None


def _laid(need: Need, number: int, slab: Slab, place: np.ndarray, turn: float) -> Laid:
    return Laid(
        key=need.key,
        number=number,
        stock=slab.id,
        x=round(float(place[0]), 3),
        y=round(float(place[1]), 3),
        turn=round((slab.grain + turn + 180.0) % 360.0 - 180.0, 2),
    )


FEW = 24
"""Points of an outline that are held against the slab's edge."""
MOST_PLACES = 300


def _along_edge(
    slab: Slab,
    free: BaseGeometry,
    outline: np.ndarray,
    good: np.ndarray,
    hole_room: BaseGeometry | None,
    need: Need,
    spin: np.ndarray,
) -> tuple[float, np.ndarray]:
    """Of good places the one where a seat's own edge follows the slab's most nearly, and how far off it is
    in the middle of it, mm; brought nearer by steps down to a millimetre."""
    edge = slab.ring.exterior
    points = outline[:: max(1, len(outline) // FEW)]

    def off(at: np.ndarray) -> float:
        # Its sawn ends lie away from the edge wherever it is: the nearer half is what follows it.
        far = np.sort(shapely.distance(shapely.points(points + at), edge))
        return float(far[: max(3, len(far) // 2)].mean())

    tried = good[:: max(1, len(good) // MOST_PLACES)]
    best = min(tried, key=off)
    step = STEP
    while step >= 1.0:
        ways = [best + np.array(way) * step for way in ((1, 0), (-1, 0), (0, 1), (0, -1))]
        better = [
            at
            for at in ways
            if off(at) < off(best) - 1e-9 and _clear_at(at, free, outline, hole_room, need, spin)
        ]
        if better:
            best = min(better, key=off)
        else:
            step /= 2.0
    return off(best), best


def _clear_at(
    at: np.ndarray,
    free: BaseGeometry,
    outline: np.ndarray,
    hole_room: BaseGeometry | None,
    need: Need,
    spin: np.ndarray,
) -> bool:
    """Whether a part lies in what is free there, its leg holes clear of flaws."""
    if not _fits(free, outline, at[None, :])[0]:
        return False
    if hole_room is None:
        return True
    holes = np.array([(x, y) for x, y, _ in need.holes]) @ spin.T + at
    radii = np.array([r for _, _, r in need.holes])
    return bool((shapely.distance(shapely.points(holes), hole_room) >= radii).all())


def _steps(low: float, high: float) -> np.ndarray:
    if high < low:
        return np.array([])
    return np.linspace(low, high, max(2, min(60, int((high - low) / STEP) + 2)))


def _fits(free: BaseGeometry, outline: np.ndarray, spots: np.ndarray) -> np.ndarray:
    """At which places an outline lies wholly in what is free."""
    rings = outline[None, :, :] + spots[:, None, :]
    closed = np.concatenate([rings, rings[:, :1, :]], axis=1)
    shapes = shapely.polygons(shapely.linearrings(closed))
    shapely.prepare(free)
    return np.asarray(shapely.covers(free, shapes))


def _closer(
    free: BaseGeometry,
    outline: np.ndarray,
    place: np.ndarray,
    hole_room: BaseGeometry | None,
    need: Need,
    spin: np.ndarray,
) -> np.ndarray:
    """Pushed further towards the begin of the slab while it stays clear, down to a millimetre."""

    def good(at: np.ndarray) -> bool:
        return _clear_at(at, free, outline, hole_room, need, spin)

    at, step = place.copy(), STEP
    while step >= 1.0:
        tried = at - np.array([step, 0.0])
        if good(tried):
            at = tried
        else:
            step /= 2.0
    # In tenths where that is still clear, else as it was found.
    return np.round(at, 1) if good(np.round(at, 1)) else at
