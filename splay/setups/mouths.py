"""Set-up card and proof for a socket's mouth, eased to meet its leg's cove."""

from __future__ import annotations

from collections.abc import Iterator

from splay.piece import Piece, StakedLegs
from splay.quantity import Figure, Show
from splay.setups.asker import Asker, Words
from splay.setups.card import Proof, SetUp
from splay.setups.groups import Group, boring_groups
from splay.setups.plain_card import Bench, plain_card
from splay.setups.scenes import MouthEased
from splay.shop import Shop
from splay.stance.mouth import Mouth, has_eased_mouth, mouth_of, nearest_round
from splay.stance.staked import Stance, support_of
from splay.work.does import Do, Plain
from splay.work.joinery import Eased
from splay.work.marks import SEAT, Kind, Mark
from splay.work.phrases import listed
from splay.work.proofs import proof_id
from splay.work.takes import MouthLong

CUTTER = Bench("easing", "Rounding cutter, its pilot in the hole")
BY_HAND = Bench("rasping", "Half-round rasp and file")
_CARE = (
    "Clamp the seat; a wide cutter grabs: slow, both hands on the drill, pressed on only as it cuts. "
    "Follow the drill's own manual."
)
_RASP = "Clamp the seat; the free hand away from where the rasp comes out."
LEFT_SHOWN_MM = 0.05
ROUND_DEG = 0.05
"""A hole that leans less has a round mouth."""


def mouth_cards(piece: Piece, stance: Stance, shop: Shop, show: Show) -> Iterator[SetUp]:
    """One card for legs that lean alike."""
    if not any(has_eased_mouth(one) for _, one in piece.staked()):
        return
    for group in boring_groups(stance):
        support = support_of(piece, group.first)
        if not has_eased_mouth(support):
            continue
        lean = group.first.boring.resultant
        rounds = nearest_round(support, lean, shop.rounds)
        mouth = mouth_of(support, lean, rounds)
        if mouth.worth:
            yield _card(group, support, mouth, rounds is not None, shop, show)


def _card(
    group: Group, support: StakedLegs, mouth: Mouth, by_cutter: bool, shop: Shop, show: Show
) -> SetUp:
    key = f"mouth.{group.first.id}"
    # A leg comes out of the underside, whichever face its hole is bored from.
    where = "underside" if support.joint.face == "upper face" else support.joint.face
    radius, cove = show.length(mouth.rounds), show.length(mouth.cove)
    wider = mouth.rounds >= mouth.cove
    left = show.figure(
        f"{key}.left",
        "Gap left between cove and mouth, at most",
        mouth.left,
        "√(m² + (R − r)²) − (R − r)" if wider else "at the mouth's rim, from the cove",
        show.input("R", "what the cutter rounds", mouth.rounds),
        show.input("r", "the leg's cove", mouth.cove),
        show.input("m", "the round begins deeper than the cove", mouth.deeper),
        fine=True,
    )
    long = _longer(f"{key}.long", mouth, show)
    does: list[Do] = [
        Eased(group.numbers, where, radius, long.quantity, mouth.lean > ROUND_DEG, by_cutter),
        Plain(
            "Bit by bit, measured between: too much off does not come back. Then the leg itself, dry: its "
            "cove lies into the mouth without lifting it."
        ),
    ]
    if by_cutter and mouth.left > LEFT_SHOWN_MM:
        does.append(
            Plain(
                f"The cove's radius is {cove.text}, the nearest cutter's {radius.text}: up to "
                f"{left.quantity.text} of air stays between them"
                f"{', halfway round' if wider else ', at the rim'}."
            )
        )
    if shop.rounds and not by_cutter:
        does.append(
            Plain(
                "None of the drawer's cutters fits: at this lean a narrower one leaves wood in the cove's "
                "way, a wider one cuts a step into the face."
            )
        )
    return plain_card(
        key,
        "boring",
        "ease_mouth",
        CUTTER if by_cutter else BY_HAND,
        f"Ease the mouths for {listed(f'leg {number}' for number in group.numbers)}",
        long,
        "Mouth, over all",
        MouthEased(radius.text, long.quantity.text, where),
        setting=long.quantity,
        does=tuple(does),
        jig=(left,) if by_cutter and mouth.left > LEFT_SHOWN_MM else (),
        caution=_CARE if by_cutter else _RASP,
        legs=group.numbers,
        proofs=(proof_id("mouth", group.first.id),),
        uses=tuple(Mark(Kind.SOCKET, SEAT, str(number)) for number in group.numbers),
    )


def _longer(key: str, mouth: Mouth, show: Show) -> Figure:
    return show.figure(
        key,
        "Mouth on its face, over all, the way the leg leans",
        mouth.longer,
        "from rim to rim, where the face cuts the round",
        show.input("d", "the hole", 2.0 * mouth.half),
        show.input("R", "rounded with", mouth.rounds),
        show.input("ρ", "lean", mouth.lean, "deg"),
        note=f"{show.length(mouth.plain).text} before it is eased",
    )


def mouth_proofs(piece: Piece, stance: Stance, shop: Shop, ask: Asker) -> Iterator[Proof]:
    """How long a mouth came out, once for legs that lean alike."""
    for card in mouth_cards(piece, stance, shop, ask.show):
        first = next(leg for leg in stance.legs if leg.number == card.legs[0])
        leans = first.boring.resultant > ROUND_DEG
        words = Words(
            f"Mouth for leg {first.number}, over all", MouthLong(first.number, leans),
            "the leg's cove must lie in it without lifting the leg", SEAT, "boring",
            f"mouth, leg {first.number}",
        )  # fmt: skip
        yield ask.length(("mouth", first.id), card.angle.quantity, words)
