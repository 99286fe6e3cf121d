"""Set-up card and proof for sticks that are bent: their line, and how they are held to be worked."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Literal

from splay.parts.bent import Bent
from splay.parts.leg import upper_end_name
from splay.piece import Piece
from splay.quantity import Show
from splay.setups.asker import Asker, Words
from splay.setups.card import Proof, SetUp
from splay.setups.plain_card import Bench, plain_card
from splay.setups.scenes import StickBent
from splay.work.does import Do, Plain
from splay.work.joinery import BentLine
from splay.work.marks import leg_key
from splay.work.proofs import proof_id
from splay.work.takes import OffString

HELD = Bench("stringing", "String, V-blocks and packing")
_CARE = "Wedge it so that it cannot roll: a bent stick turns to its belly the moment it is let go."
_OUTER: dict[str, Literal["along", "opposite", "clockwise", "anticlockwise"]] = {
    "outward": "along",
    "inward": "opposite",
    # Looking at the tenon's end of a leg that stands: down on it, with out of the piece ahead.
    "right": "anticlockwise",
    "left": "clockwise",
}
"""Where the leg's outer line lies from the back of the bend, by the way that back looks. Seen from above a
back that looks to the right is a quarter clockwise from what looks out: that lies a quarter back."""


def bent_cards(piece: Piece, every: tuple[Bent, ...], show: Show) -> Iterator[SetUp]:
    """One card a support that has bent sticks."""
    for index, support in piece.staked():
        mine = [one for one in every if one.trim.support == index]
        if not mine:
            continue
        end = upper_end_name(support.joint)
        key = f"bent.{support.id}"
        most = max(mine, key=lambda one: one.most[1])
        at, off = most.most
        figure = show.figure(
            f"{key}.off",
            f"Stick {most.trim.index + 1} off its string, at the most",
            off,
            "where its middle line runs along the string",
            show.input("f", "off it before it was sawn", most.bend.rise),
            show.input("a", "there, from the upper end", most.bend.at),
            show.input("u", "sawn off there", most.first),
            show.input("L", "left of it", most.long),
        )
        does: list[Do] = [_told(one, end, show) for one in mine]
        does += [
            Plain(
                "To be bored, sawn or given its tenon it is held along its whole length: V-blocks under "
                "both ends, their middles at one height, and packing under its back, so that it neither "
                "rocks nor springs."
            ),
            Plain(
                "The tenon is made about the string, not along the wood, by blades that are held in the "
                "hand: a bent stick does not go on a lathe."
            ),
        ]
        yield plain_card(
            key,
            "legs",
            "bend_line",
            HELD,
            "Find the line of the bent sticks",
            figure,
            "Off its string",
            StickBent(figure.quantity.text, show.length(at).text, end),
            does=tuple(does),
            caution=_CARE,
            legs=tuple(one.leg.number for one in mine),
            proofs=tuple(proof_id("bent", one.leg.id) for one in mine),
        )


def _told(one: Bent, end: str, show: Show) -> BentLine:
    at, off = one.most
    return BentLine(
        one.trim.index + 1, one.trim.stick.note, one.leg.number, end, show.length(one.long),
        show.length(off), show.length(at), show.angle(abs(one.slope)), _OUTER[one.bend.faces],
    )  # fmt: skip


def bent_proofs(every: tuple[Bent, ...], ask: Asker) -> Iterator[Proof]:
    """How far each stick stands off its string once it is sawn."""
    for one in every:
        words = Words(
            f"Stick {one.trim.index + 1}, off its string at the back", OffString(one.leg.number),
            "the foot comes where the string ends, whatever the wood between does", leg_key(one.leg.number),
            "legs", f"stick {one.trim.index + 1}, off its string",
        )  # fmt: skip
        yield ask.length(("bent", one.leg.id), ask.show.length(one.most[1]), words)
