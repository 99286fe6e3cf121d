"""What levelling asks to be measured, in words."""

from __future__ import annotations

from collections.abc import Iterator

from splay.level.feet import Foot
from splay.level.rounds import Level
from splay.level.ways import Ask
from splay.setups.asker import Asker, Words
from splay.setups.card import Proof

NEAR_MM = 0.5
"""A foot this near what was expected needs no thought (common practice, no source)."""
_MATTERS = "what it shows is where the cut goes"
_HOW = {
    "bench": "Upside down, upper face on the bench: from the bench to the highest point of the end.",
    "along": "Rule along the leg's outer side, from the face it leaves to the long point of its end.",
    "sight": (
        "Upside down, one straight stick over two feet, one over the other two; pack under the stick on "
        "this foot until the two lie in line. With a minus where the others want the packing."
    ),
    "shim": "What lies under this foot when the top reads right; 0 where it bears.",
    "stands": "With the shims in: plumb from the upper face's middle to the floor, a straightedge over it.",
    "top": "As it stands, held down so that it does not rock: plumb from the upper face to the floor.",
    "under": "As it stands, the same feet down: feeler, card or drill shank under the foot; 0 if it bears.",
}


def level_proofs(level: Level, feet: tuple[Foot, ...], ask: Asker) -> Iterator[Proof]:
    """One proof for each reading of each pass."""
    by_key = {foot.key: foot for foot in feet}
    for round_, asks, expected in zip(level.rounds, level.asks, level.expected, strict=True):
        for one in asks:
            what, short = _names(one, by_key)
            foot = by_key.get(one.key)
            yield ask.hair(
                f"level.{round_.number}.{one.kind}.{one.key}",
                expected[f"{one.kind}.{one.key}"],
                NEAR_MM,
                Words(
                    what=f"{what} (pass {round_.number})",
                    how=_HOW[one.kind],
                    matters=_MATTERS,
                    part=foot.part if foot else "top",
                    station="level",
                    short=short,
                ),
            )


def _names(ask: Ask, feet: dict[str, Foot]) -> tuple[str, str]:
    """What is measured, and what its field is called."""
    if ask.kind == "stands":
        return "Height the top's middle stands at", "the top stands at"
    if ask.kind == "top":
        where = ask.key if ask.key.startswith("over") else f"{ask.key} edge"
        return f"Height of the top, {where}", where
    name = feet[ask.key].name
    if ask.kind == "under":
        return f"Gap under {name}", f"gap, {name}"
    if ask.kind == "shim":
        return f"Shim under {name}", f"shim, {name}"
    if ask.kind == "sight":
        return f"Packing at {name}", f"packing, {name}"
    return (f"End of {name} off the bench" if ask.kind == "bench" else f"{name}, along it"), name
