"""What levelling asks to be measured, in words."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from splay.level.feet import ON_MM, End, Foot
from splay.level.lying import on_proud, standing_out
from splay.level.rounds import Level
from splay.level.ways import EDGE_MM, Ask
from splay.piece import LevelPass, Piece
from splay.quantity import Show
from splay.setups.asker import Asker, Words
from splay.setups.card import Proof
from splay.work.phrases import with_the

NEAR_MM = 0.5
"""A foot this near what was expected needs no thought (common practice, no source)."""
_MATTERS = "what it shows is where the cut goes"
_HOW = {
    "bench": "Upside down, {lies}: plumb from the bench to the end's highest point.",
    "along": "Rule laid along its {side}, from the {face} to the end of the leg.",
    "sight": (
        "Upside down, one straight stick over two feet, one over the other two; pack under the stick on "
        "this foot until the two lie in line. With a minus where the others want the packing."
    ),
    "shim": "What lies under this foot when the top reads right; 0 where it bears.",
    "stands": "With the shims in: a straight-edge over the middle of the upper face{across}; plumb "
    "from its lower edge there to the floor.",
    "top": "As it stands, held down so that it does not rock: plumb from the wood of the upper face to "
    "the floor, {place}.",
    "under": "As it stands, the same feet down: feeler, card or drill shank under the foot; 0 if it bears.",
}


def _lies(piece: Piece, ends: tuple[End, ...], chosen: LevelPass, show: Show) -> str:
    """What it lies on upside down."""
    if on_proud(piece, ends, chosen):
        return "on what stands out of its upper face"
    blocks = (
        f"on blocks {show.length(chosen.raised).text} high" if chosen.raised else "upper face on the bench"
    )
    out = standing_out(piece, ends) > ON_MM
    return f"{blocks}, under the seat's edge, clear of what stands out of it" if out else blocks


def _how(
    piece: Piece, ends: tuple[End, ...], chosen: LevelPass, ask: Ask, foot: Foot | None, show: Show
) -> str:
    """How one reading is taken, with the side, the face and the place it is taken at."""
    place, across = "", ""
    if ask.kind == "top":
        inset = show.length(piece.top.upper_edge.inward + EDGE_MM).text
        over = "plumb over where its leg's middle leaves the underside"
        place = over if chosen.places == "legs" else f"{inset} in from the middle of that edge"
        if piece.top.hollow is not None:
            place += ", down in the hollow where it lies in it"
    if piece.top.hollow is not None:
        across = ", across the hollow on its two edges"
    face = "battens" if foot is not None and foot.mouth < 0.0 else "underside"
    return _HOW[ask.kind].format(
        side=foot.long_side if foot else "",
        face=face,
        place=place,
        across=across,
        lies=_lies(piece, ends, chosen, show),
    )


def level_proofs(piece: Piece, level: Level, feet: tuple[Foot, ...], ask: Asker) -> Iterator[Proof]:
    """One proof for each reading of each pass."""
    by_key = {foot.key: foot for foot in feet}
    ends = tuple(End(foot, foot.planned, (0.0, 0.0, 1.0)) for foot in feet)
    passes = zip(level.rounds, level.asks, level.expected, piece.levelling.passes, strict=False)
    for round_, asks, expected, chosen in passes:
        for one in asks:
            what, short = _names(one, feet, by_key)
            foot = by_key.get(one.key)
            yield ask.hair(
                (one.kind, chosen.id, one.key),
                expected[f"{one.kind}.{one.key}"],
                NEAR_MM,
                Words(
                    what=f"{what} (pass {round_.number})",
                    how=_how(piece, ends, chosen, one, foot, ask.show),
                    matters=_MATTERS,
                    part=foot.part if foot else "top",
                    station="level",
                    short=short,
                ),
            )


def place_name(ask: Ask, feet: Sequence[Foot]) -> str:
    """What the place a height of the top is taken at is called."""
    return f"{ask.key} edge" if ask.over < 0 else f"over {feet[ask.over].name}"


def _names(ask: Ask, every: tuple[Foot, ...], feet: dict[str, Foot]) -> tuple[str, str]:
    """What is measured, and what its field is called."""
    if ask.kind == "stands":
        return "Height the top's middle stands at", "the top stands at"
    if ask.kind == "top":
        where = place_name(ask, every)
        return f"Height of the top, {where}", where
    name = feet[ask.key].name
    if ask.kind == "under":
        return f"Gap under {with_the(name)}", f"gap, {name}"
    if ask.kind == "shim":
        return f"Shim under {with_the(name)}", f"shim, {name}"
    if ask.kind == "sight":
        return f"Packing at {with_the(name)}", f"packing, {name}"
    return (f"End of {with_the(name)} off the bench" if ask.kind == "bench" else f"{name}, along it"), name
