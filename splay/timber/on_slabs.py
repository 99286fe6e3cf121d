"""Seats on slabs: laid, with what is left and the keys of splits that are kept."""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator, Sequence

import shapely

from splay.quantity import Show
from splay.timber.choices import Laid, WoodChoice
from splay.timber.keys import keys_for
from splay.timber.laid import Flat2, SlabCut, SlabPart, SplitKeys
from splay.timber.moisture import WETTER, led_to
from splay.timber.needs import Need
from splay.timber.placing import OnSlab, PlaceFault, faults, first_places, lay
from splay.timber.stock import Slab

LEAST_LEFT_MM2 = 40_000.0
"""What is left of a slab and smaller than this goes to the stove (common practice, no source)."""


def panels(
    needs: Sequence[Need], slabs: Sequence[Slab], choice: WoodChoice, show: Show
) -> tuple[tuple[SlabCut, ...], tuple[PlaceFault, ...], tuple[Laid, ...], dict[str, int]]:
    """Seats on slabs: where the maker put them, the others where there is room."""
    by_id = {slab.id: slab for slab in slabs}
    panels = {need.key: need for need in needs if need.sort == "panel"}
    held = [
        lay(panels[one.key], one)
        for one in choice.laid
        if one.key in panels and one.stock in by_id and one.number <= panels[one.key].count
    ]
    there = {(part.laid.key, part.laid.number) for part in held}
    ask = [
        (need, number)
        for need in panels.values()
        for number in range(1, need.count + 1)
        if (need.key, number) not in there
    ]
    dry = led_to(choice.home_c, choice.home_rh) + WETTER
    fitting = [s for s in slabs if not choice.top_species or s.species == choice.top_species]
    fitting.sort(key=lambda slab: (slab.now is not None and slab.now > dry, slab.ring.area))
    found = first_places(ask, fitting, choice.kerf, held=held)
    parts = [*held, *(lay(panels[one.key], one) for one in found.laid)]
    cuts, said = [], []
    for slab in slabs:
        mine = [part for part in parts if part.laid.stock == slab.id]
        if mine:
            cuts.append(_slab_cut(slab, mine, choice, show))
            said += faults(slab, mine, choice.kerf, show)
    left: dict[str, int] = {}
    for key, _ in found.missing:
        left[key] = left.get(key, 0) + 1
    return tuple(cuts), tuple(said), tuple(part.laid for part in parts), left


def _slab_cut(slab: Slab, parts: Sequence[OnSlab], choice: WoodChoice, show: Show) -> SlabCut:
    splits = []
    for spot in slab.spots:
        line = [(p.x, p.y) for p in spot.points]
        kept = [part for part in parts if part.shape.intersects(spot.shape())]
        if spot.kind == "split" and len(line) > 1 and kept:
            inside = shapely.LineString(line).intersection(kept[0].shape)
            if inside.geom_type == "LineString" and inside.length > 0.0:
                thick = kept[0].need.finished[2].value
                holes = [hole for part in kept for hole in part.holes]
                away = _clear_by(slab, kept[0], parts, inside.length, choice.kerf, show)
                along = [(x, y) for x, y in inside.coords]
                splits.append(SplitKeys(spot.id, keys_for(along, thick, show, away, holes)))
    return SlabCut(slab.id, slab_parts(parts), tuple(left_of(slab, parts, choice.kerf)), tuple(splits))


CLEAR_OF_SPLIT = 10.0
"""A part is moved so much further than a split reaches, mm: splits run on (common practice, no source)."""


def _clear_by(
    slab: Slab, part: OnSlab, parts: Sequence[OnSlab], inside: float, kerf: float, show: Show
) -> float:
    """How far a part can be moved along the grain to have no split in it, mm; 0 where there is no room."""
    away = inside + CLEAR_OF_SPLIT
    others = [one for one in parts if one is not part]
    for way in (away, -away):
        t = math.radians(slab.grain)
        shifted = {"x": part.laid.x + way * math.cos(t), "y": part.laid.y + way * math.sin(t)}
        tried = lay(part.need, part.laid.model_copy(update=shifted))
        if not faults(slab, [tried, *others], kerf, show):
            return away
    return 0.0


def slab_parts(parts: Sequence[OnSlab]) -> tuple[SlabPart, ...]:
    """Parts on a slab, as they are sent."""
    return tuple(
        SlabPart(
            part.need.key,
            part.laid.number,
            part.need.name,
            _ring(part.shape),
            part.holes,
            part.seams,
            part.laid.x,
            part.laid.y,
            part.laid.turn,
        )
        for part in parts
    )


def left_of(slab: Slab, parts: Iterable[OnSlab], kerf: float) -> Iterator[tuple[Flat2, ...]]:
    """What is left of a slab, in pieces large enough to keep."""
    gone = [part.shape.buffer(kerf, join_style="mitre") for part in parts]
    rest = slab.ring.difference(shapely.union_all(gone)) if gone else slab.ring
    for piece in getattr(rest, "geoms", [rest]):
        # Narrow tongues along a part are no wood to keep.
        stout = piece.buffer(-25.0).buffer(25.0, join_style="mitre").intersection(piece)
        for one in getattr(stout, "geoms", [stout]):
            if one.geom_type == "Polygon" and one.area >= LEAST_LEFT_MM2:
                yield _ring(one.simplify(1.0))


def _ring(shape: shapely.Polygon) -> tuple[Flat2, ...]:
    return tuple((round(x, 1), round(y, 1)) for x, y in shape.exterior.coords[:-1])
