"""What the fields of wood in store, and of what is chosen of it for a piece, are called where they are
filled in, and what each choice is called."""

from __future__ import annotations

_KINDS = ("Board", "Slab", "Log", "TurnedStick")
_OF_ALL = {
    "name": "What is chalked on it",
    "species": "Kind of wood",
    "moisture": "Moisture, %",
    "cost": "Paid for it",
    "source": "Where from",
    "place": "Where it lies",
    "notes": "Notes",
}
STOCK_LABELS: dict[str, str] = {
    **{f"{kind}.{field}": label for kind in _KINDS for field, label in _OF_ALL.items()},
    "Board.length": "Length",
    "Board.width": "Width",
    "Board.thickness": "Thickness",
    "Board.rings": "Rings to its face",
    "Board.planed": "its faces are planed already",
    "Slab.outline": "Its edge",
    "Slab.thickness": "Thickness",
    "Slab.grain": "Grain, off its length, °",
    "Slab.live": "its edges are as the tree grew them",
    "Log.length": "Length",
    "Log.small_end": "Across its small end",
    "Log.large_end": "Across its large end",
    "Log.bark": "Bark, thick",
    "Log.pith": "Left out about the pith, across",
    "Log.checks": "Checked from each end",
    "TurnedStick.length": "Length",
    "TurnedStick.thick_end": "Across its thick end",
    "TurnedStick.thin_end": "Across its thin end",
    "TurnedStick.section": "Section",
    "OwnWood.gravity": "Specific gravity at 12 %",
    "OwnWood.radial": "Shrinks, radial, %",
    "OwnWood.tangential": "Tangential, %",
    "Flaw.start": "along it, from",
    "Flaw.end": "along it, to",
    "Flaw.low": "across it, from",
    "Flaw.high": "across it, to",
    "Photo.width": "The photograph shows, mm across",
}
"""By field of the pile."""
STOCK_TITLES: dict[str, dict[str | int, str]] = {
    **{
        f"{kind}.source": {
            "bought": "bought",
            "felled": "felled",
            "given": "given",
            "reclaimed": "taken from something old",
            "offcut": "left over",
        }
        for kind in _KINDS
    },
    "Board.rings": {"": "not known", "flat": "flat", "rift": "rift", "quarter": "quarter"},
    "TurnedStick.section": {"round": "round", "square": "square"},
    "Pile.items": {"board": "board", "slab": "slab", "log": "log", "stick": "leg or stick"},
}
WOOD_LABELS: dict[str, str] = {
    "WoodChoice.species": "Legs, stretchers, frames of",
    "WoodChoice.top_species": "Seat or tabletop of",
    "WoodChoice.kerf": "The saw takes",
    "WoodChoice.trim": "Off each end",
    "WoodChoice.planing": "Planing takes",
    "WoodChoice.margin": "Round a seat",
    "WoodChoice.keep": "Leftover kept from",
    "WoodChoice.keep_wide": "and so wide",
    "WoodChoice.home_c": "Where it will live, °C",
    "WoodChoice.home_rh": "Damp there, %",
    "WoodChoice.shop_rh": "Damp in the shop, %",
    "Layers.layers": "glued from",
}
"""By field of what is chosen."""
