"""What becomes of tenons that came out at the upper face, once they are home: sawn flush or to what is to
stand out, or left as they are with their edge eased."""

from __future__ import annotations

from collections.abc import Iterable, Iterator

from splay.build.plainly import told
from splay.build.step import Step, Unit
from splay.piece import Piece
from splay.plan import Plan
from splay.quantity import Show
from splay.quantity import degrees as deg
from splay.stance.staked import LegStance, support_of
from splay.stance.wedges import wedge_made
from splay.work.phrases import SHOWN_MM, listed

BEVEL_MM = 1.5
"""The edge of a tenon that stays proud is bevelled by this (common practice, no source)."""


def trimmed(piece: Piece, plan: Plan, show: Show) -> Iterator[Step]:
    """A step for the tenons that are sawn off, one for those that stay proud."""
    out = [leg for leg in plan.stance.legs if leg.bore.through and leg.bore.tenon > 0.0]
    sawn = [leg for leg in out if leg.bore.left_on > 0.0]
    if sawn:
        flush = all(leg.bore.proud <= SHOWN_MM for leg in sawn)
        title = "Saw the tenons flush" if flush else "Saw the tenons to what is to stand out"
        do = tuple(line for same in _alike(sawn) for line in _sawn(piece, same, show))
        yield told("trim_flush", title, "legs", units=_units("trim_flush", sawn), do=do)
    stay = [leg for leg in out if leg.bore.proud > SHOWN_MM]
    if stay:
        yield told(
            "ease_proud",
            "Ease the tenons' ends",
            "legs",
            units=_units("ease_proud", stay),
            do=tuple(_eased(piece, stay, sawn, show)),
        )


def _units(operation: str, legs: Iterable[LegStance]) -> tuple[Unit, ...]:
    return tuple(Unit(operation, operation, leg.id, f"leg {leg.number}") for leg in legs)


def _alike(legs: list[LegStance]) -> Iterator[list[LegStance]]:
    """The legs that lose the same and stand out alike, together."""
    found: dict[tuple[float, ...], list[LegStance]] = {}
    for leg in legs:
        lean = leg.boring.resultant
        told_by = (leg.bore.left_on, leg.bore.proud, leg.bore.tip, lean)
        found.setdefault(tuple(round(one, 3) for one in told_by), []).append(leg)
    yield from found.values()


def _sawn(piece: Piece, legs: list[LegStance], show: Show) -> Iterator[str]:
    """How much comes off on either side, and what the saw lies on."""
    leg, bore = legs[0], legs[0].bore
    lean = leg.boring.resultant
    slant = bore.tip / 2.0 * deg.tan(lean)
    named = listed(f"leg {one.number}" for one in legs)
    named = f"{named[0].upper()}{named[1:]}"
    if slant > SHOWN_MM:
        high, low = show.length(bore.left_on + slant).text, show.length(bore.left_on - slant).text
        yield (
            f"{named}: {high} comes off on the side the leg leans to, {low} on the side it leans away "
            "from, "
            "measured along the tenon."
        )
    else:
        yield f"{named}: {show.length(bore.left_on).text} comes off all round."
    stands = bore.proud * deg.cos(lean)
    if stands > SHOWN_MM:
        yield (
            f"A board {show.fine(stands).text} thick with a hole over the tenon: the saw lies on it, and "
            "what "
            "is under it stands out."
        )
    else:
        yield (
            "A card with a hole over the tenon keeps the saw off the seat, held flat on it; then the card "
            "off, and a sharp chisel from the edge of the tenon inwards."
        )
    if any(wedge_made(piece, one) for one in legs):
        yield "Wedge and tenon are sawn in one, when the glue holds."


def _eased(piece: Piece, legs: list[LegStance], sawn: list[LegStance], show: Show) -> Iterator[str]:
    wedged = [leg for leg in legs if leg not in sawn and wedge_made(piece, leg)]
    if wedged:
        named = listed(f"leg {leg.number}" for leg in wedged)
        yield (
            f"The wedges of {named} sawn off level with the tenon's end, when the glue holds; the saw's "
            "teeth never on the seat."
        )
    round_ = all(support_of(piece, leg).joint.tenon != "flat" for leg in legs)
    yield (
        f"Bevel the {'rim' if round_ else 'edges'} of each end by {show.length(BEVEL_MM).text}, with file "
        "or "
        "knife from the rim inwards: a sharp one splits off and catches on cloth."
    )
