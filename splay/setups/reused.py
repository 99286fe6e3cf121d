"""Set-up card for sticks that were used before: sawn so that no old hole meets a new one."""

from __future__ import annotations

from collections.abc import Iterator

from splay.parts.leg import upper_end_name
from splay.parts.reused import Trim, from_hole
from splay.piece import Piece
from splay.quantity import Show
from splay.setups.card import SetUp
from splay.setups.plain_card import Bench, plain_card
from splay.setups.scenes import StickShortened
from splay.work.joinery import Shortened

_CARE = (
    "Feel for old nails and screws first: a blade that meets one throws it. Lay the stick so that it "
    "cannot roll; hold or clamp it behind the cut."
)
SAW = Bench("sawing_off", "Any saw, square across")


def reused_cards(piece: Piece, every: tuple[Trim, ...], show: Show) -> Iterator[SetUp]:
    """One card a support whose sticks have old holes."""
    for index, support in piece.staked():
        mine = [one for one in every if one.support == index]
        if not any(one.stick.old for one in mine):
            continue
        key = f"reused.{support.id}"
        end = upper_end_name(support.joint)
        most = max(mine, key=lambda one: one.top)
        figure = from_hole(most, f"{key}.off", f"Off the {end} of stick {most.index + 1}", show)
        yield plain_card(
            key,
            "legs",
            "stick_cut",
            SAW,
            "Saw the reused sticks clear of their old holes",
            figure,
            figure.label,
            StickShortened(figure.quantity.text if most.top else "", end),
            does=tuple(_told(one, end, show) for one in mine),
            caution=_CARE,
            legs=tuple(one.leg.number for one in mine),
        )


def _told(one: Trim, end: str, show: Show) -> Shortened:
    left = [old.nearer - one.top for old in one.stick.old if old.farther > one.top]
    begins = show.length(max(0.0, min(left))) if left else None
    off = show.length(one.top) if one.top else None
    return Shortened(one.index + 1, one.stick.note, one.leg.number, end, off, begins)
