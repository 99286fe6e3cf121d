"""Set-up cards and proofs for hand-holds: holes in a row right through the top."""

from __future__ import annotations

from collections.abc import Iterator

from splay.piece import Piece
from splay.quantity import Show
from splay.setups.asker import Asker, Words
from splay.setups.card import Proof, SetUp
from splay.setups.plain_card import Bench, plain_card
from splay.setups.scenes import SlotBored
from splay.stance.hand_hold import between
from splay.work.does import Bit, Plain
from splay.work.marks import hold_marks
from splay.work.proofs import proof_id
from splay.work.takes import SlotLong

DRILL = Bench("drilling", "Drill, with a board clamped under the top")
SIZES_MM = (
    12.0, 14.0, 16.0, 18.0, 20.0, 22.0, 24.0, 25.0, 26.0, 28.0, 30.0, 32.0, 35.0, 38.0, 40.0, 45.0, 50.0,
)  # fmt: skip
"""Bits for holes this wide, as they are sold (common practice, no source)."""
NEAR_BIT_MM = 0.6
_CARE = (
    "Clamp the top and the board under it: a wide bit grabs as it comes through. Follow the drill's own "
    "manual."
)


def hand_hold_cards(piece: Piece, show: Show) -> Iterator[SetUp]:
    """One card a hand-hold."""
    several = len(piece.top.hand_holds) > 1
    for k, one in enumerate(piece.top.hand_holds):
        key = f"hand_hold.{k + 1}"
        named = f"hand-hold {k + 1}" if several else "hand-hold"
        run, more = one.length - one.width, between(one)
        nearest = min(SIZES_MM, key=lambda size: abs(size - one.width))
        note = ""
        if abs(nearest - one.width) > NEAR_BIT_MM:
            note = f"The nearest bit that is sold is {show.length(nearest).text}."
        step = run / (more + 1)
        yield plain_card(
            key,
            "top",
            "hand_hold",
            DRILL,
            f"Bore and saw the {named}",
            show.figure(
                f"{key}.apart",
                "End holes, middle to middle",
                run,
                "L − w",
                show.input("L", "the slot, long", one.length),
                show.input("w", "wide", one.width),
            ),
            "Bit",
            SlotBored(
                show.length(one.length).text, show.length(one.width).text, show.length(run).text, more
            ),
            setting=show.length(one.width),
            does=(
                Bit(show.length(one.width), None, None),
                Plain(
                    f"The two end holes first, on their marks; then {more} between them, "
                    f"{show.length(step).text} from middle to middle, each over the rim of the last."
                    if more
                    else "Both holes on their marks."
                ),
                Plain("What stands between them is sawn or pared to the lines that touch the end holes."),
                Plain("Both rims eased well, above and below: fingers carry the whole piece on them."),
            ),
            note=note,
            caution=_CARE,
            proofs=(proof_id("hand_hold", f"{k + 1}"),),
            uses=hold_marks(k + 1),
        )


def hand_hold_proofs(piece: Piece, ask: Asker) -> Iterator[Proof]:
    """How long each slot came out."""
    for k, one in enumerate(piece.top.hand_holds):
        words = Words(
            f"Hand-hold {k + 1}, long", SlotLong(f"{k + 1}"), "four fingers must go in abreast",
            "top", "top", "hand-hold, long",
        )  # fmt: skip
        yield ask.length(("hand_hold", f"{k + 1}"), ask.show.length(one.length), words)
