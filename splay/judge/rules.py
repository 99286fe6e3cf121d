"""All rules, in the order the maker should read what they find."""

from __future__ import annotations

from collections.abc import Iterator

from splay.judge import sockets as rules
from splay.judge import standing
from splay.judge.finding import Finding
from splay.parts import SocketPart
from splay.piece import Piece
from splay.quantity import Show
from splay.setups.card import SetUp
from splay.stance.staked import Stance

_WEIGHT = {"stop": 0, "caution": 1, "note": 2}


def judge(
    piece: Piece,
    stance: Stance,
    sockets: tuple[SocketPart, ...],
    cards: tuple[SetUp, ...],
    show: Show,
) -> tuple[Finding, ...]:
    """Everything found, what would spoil the piece first."""
    found = [
        *standing.lean(piece, stance, show),
        *standing.footprint(piece, stance, show),
        *rules.skin(piece, sockets, stance, show),
        *rules.edges(piece, sockets, stance, show),
        *rules.meeting(piece, sockets, stance, show),
        *rules.tenons(piece, stance, show),
        *reach(cards, show),
    ]
    return tuple(sorted(found, key=lambda finding: _WEIGHT[finding.level]))


def reach(cards: tuple[SetUp, ...], show: Show) -> Iterator[Finding]:
    """Settings past a tool's reach."""
    for card in cards:
        if card.in_reach:
            continue
        limit = show.angle(card.dials[0].reach) if card.dials else None
        yield Finding(
            "past_reach",
            "caution",
            card.station,
            f"{card.tool}: {card.reach_note}",
            "Use the jig on the card, or another tool.",
            card.legs,
            card.angle.quantity,
            limit,
            None,
            "",
        )
