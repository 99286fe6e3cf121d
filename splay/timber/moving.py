"""A part that is dragged on a slab: where it lies, what is wrong, what would be left."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from splay.quantity import Show
from splay.timber.choices import Laid
from splay.timber.laid import Flat2, SlabPart
from splay.timber.needs import Need
from splay.timber.on_slabs import left_of, slab_parts
from splay.timber.placing import PlaceFault, faults, lay
from splay.timber.stock import Slab


@dataclass(frozen=True)
class Carried:
    """The parts on the slab, what is wrong with where they lie, what is left."""

    parts: tuple[SlabPart, ...]
    faults: tuple[PlaceFault, ...]
    left: tuple[tuple[Flat2, ...], ...]


def moved(needs: Sequence[Need], slab: Slab, laid: Sequence[Laid], kerf: float, show: Show) -> Carried:
    """Parts as they would lie on one slab."""
    panels = {need.key: need for need in needs if need.sort == "panel"}
    parts = [lay(panels[one.key], one) for one in laid if one.key in panels and one.stock == slab.id]
    said = tuple(faults(slab, parts, kerf, show))
    return Carried(slab_parts(parts), said, tuple(left_of(slab, parts, kerf)))
