"""What can go wrong with wedges: along the grain, too thin to hold, too thick to enter, too fierce."""

from __future__ import annotations

from collections.abc import Iterator

from splay.judge.finding import Finding
from splay.piece import Piece
from splay.quantity import Show
from splay.quantity import degrees as deg
from splay.stance.staked import Stance
from splay.stance.wedges import slot_bearing, wedge_made
from splay.work.phrases import listed

ALONG_DEG = 30.0
"""A slot nearer to the grain than this opens it like a splitting wedge (common practice, no source)."""
OPENS_SHARE = 0.2
"""A wedge that opens a tenon by more than this share of it splits it (common practice, no source)."""


def wedges(piece: Piece, stance: Stance, show: Show) -> Iterator[Finding]:
    """Of each support its wedges, and the legs whose slots lie along the grain."""
    for index, _ in piece.staked():
        mine = [leg for leg in stance.legs if leg.support == index]
        # A leg that turned out to stand plumb has no sightline to draw a slot from, and no wedge.
        pairs = [(leg, one) for leg in mine if (one := wedge_made(piece, leg)) is not None]
        legs, made = [leg for leg, _ in pairs], [one for _, one in pairs]
        if not made:
            continue
        base = f"supports.{index}.joint.wedge"
        numbers = tuple(leg.number for leg in legs)
        wedge = made[0].wedge
        if wedge.edge > wedge.kerf + 1e-9:
            yield Finding(
                "wedge_blunt", "stop", "boring",
                "The wedges' thin edge is thicker than their slots: they do not enter.",
                "Pare the edge thinner, or saw the slots wider.", numbers,
                show.closely(wedge.edge), show.closely(wedge.kerf), None, f"{base}.edge",
            )  # fmt: skip
        least = min(made, key=lambda one: one.home)
        if least.opens <= 0.0:
            yield Finding(
                "wedge_loose", "stop", "boring",
                "The wedges are no thicker than their slots even when they are home: they never tighten.",
                "Give them more taper, or saw the slots thinner.", numbers,
                show.closely(least.home), show.closely(wedge.kerf), None, f"{base}.taper",
            )  # fmt: skip
        most, size = max((one.opens, leg.bore.size) for one, leg in zip(made, legs, strict=True))
        if most > OPENS_SHARE * size:
            yield Finding(
                "wedge_fierce", "caution", "boring",
                f"Driven home the wedges open their tenons by {show.closely(most).text}.",
                "Give them less taper, or saw the slots wider.", numbers, show.closely(most),
                show.closely(OPENS_SHARE * size), None, f"{base}.taper",
            )  # fmt: skip
        along = [
            leg.number for leg in legs
            if deg.fold(slot_bearing(piece, leg) - piece.top.grain) < ALONG_DEG
        ]  # fmt: skip
        if along:
            near = min(
                deg.fold(slot_bearing(piece, leg) - piece.top.grain) for leg in legs if leg.number in along
            )
            named = listed(f"leg {number}" for number in along)
            yield Finding(
                "wedge_along", "caution", "boring",
                f"Aimed at the middle, the slots of {named} lie along the seat's grain: in a seat in one "
                "piece their wedges split it.",
                "Lay the slots across the grain.", tuple(along), show.angle(near),
                show.angle(ALONG_DEG), None, f"{base}.lies",
            )  # fmt: skip
