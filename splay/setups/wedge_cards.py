"""Cards and proofs for making the wedges: as wide as the hole, tapered, out of straight-grained offcuts."""

from __future__ import annotations

from collections.abc import Iterator

from splay.parts.leg import LegPart
from splay.piece import Piece
from splay.quantity import Figure, Show
from splay.setups.asker import Asker, Words
from splay.setups.card import Proof, SetUp
from splay.setups.leg_sets import LegSet, leg_sets
from splay.setups.plain_card import Bench, plain_card
from splay.setups.scenes import WedgeCut
from splay.stance.staked import Stance
from splay.stance.wedges import WedgeMade, wedge_made
from splay.work.does import Do, Plain
from splay.work.joinery import MakeWedge
from splay.work.proofs import proof_id
from splay.work.takes import Butt

BENCH = Bench("making", "Saw and chisel")
_CARE = "Too small for a machine. Cut away from your body and from the hand that holds the work."


def wedge_cards(piece: Piece, stance: Stance, parts: tuple[LegPart, ...], show: Show) -> Iterator[SetUp]:
    """One card for each set of legs whose wedges are alike."""
    for one in leg_sets(piece, stance, parts):
        made = wedge_made(piece, one.legs[0])
        if made is not None:
            yield _card(one, made, show)


def _card(one: LegSet, made: WedgeMade, show: Show) -> SetUp:
    key = f"{one.key}.wedges"
    butt = _butt(key, made, show)
    return plain_card(
        key,
        "legs",
        "wedges",
        BENCH,
        f"Wedges for {one.named}",
        butt,
        "Thick at its butt",
        WedgeCut(
            show.length(made.wide).text,
            show.length(made.long).text,
            show.closely(made.butt).text,
            show.closely(made.wedge.edge).text,
        ),
        setting=show.closely(made.butt),
        does=tuple(_does(one, made, show)),
        jig=tuple(_opens(key, made, show)),
        caution=_CARE,
        legs=one.numbers,
        proofs=(proof_id("wedge", *one.proof),),
    )


def _butt(key: str, made: WedgeMade, show: Show) -> Figure:
    return show.figure(
        f"{key}.butt",
        "Wedge, thick at its butt",
        made.butt,
        "e + 2 · l · tan (a/2)",
        show.input("e", "thin edge", made.wedge.edge),
        show.input("l", "long", made.long),
        show.input("a", "whole taper", made.wedge.taper, "deg"),
        fine=True,
    )


def _opens(key: str, made: WedgeMade, show: Show) -> Iterator[Figure]:
    yield show.figure(
        f"{key}.opens",
        "It opens the tenon's end by",
        made.home - made.wedge.kerf,
        "e + 2 · h · tan (a/2) − k",
        show.input("e", "thin edge", made.wedge.edge),
        show.input("h", "in the slot when it is home", made.long if made.fox else made.deep),
        show.input("a", "whole taper", made.wedge.taper, "deg"),
        show.input("k", "slot, as sawn", made.wedge.kerf),
        fine=True,
        note="if it goes to the bottom of its slot",
    )
    if made.fox:
        yield show.figure(
            f"{key}.undercut",
            "Hole wider at its bottom, on each side of the slot",
            made.opens / 2.0,
            "opening / 2",
            show.input("o", "what the wedge opens", made.opens),
            fine=True,
            note="from halfway down: what opens needs the room, or the leg never goes home",
        )


def _does(one: LegSet, made: WedgeMade, show: Show) -> Iterator[Do]:
    yield MakeWedge(
        one.numbers,
        show.length(made.wide),
        show.length(made.long),
        show.closely(made.wedge.edge),
        show.closely(made.butt),
    )
    yield Plain(
        "From offcuts of straight-grained stick, grain along the wedge: split or saw a strip as wide as "
        "that, then pare both faces alike. One for each slot and one over."
    )
    if made.fox:
        yield Plain(
            "It cannot be tried: the leg never comes out again. Try one whole joint in scrap first, hole, "
            "slot and wedge as here."
        )
        yield Plain("Thin edge in the slot, its butt to the hole's bottom: driving the leg drives it.")
    elif made.wedge.dry:
        yield Plain(
            "Dry: no glue on tenon or wedge. To change the leg split the wedge out with a narrow chisel."
        )
    elif made.wedge.over > 0.0:
        yield Plain("A hair wider than the hole, so that its edges key into the seat.")


def wedge_proofs(piece: Piece, sets: tuple[LegSet, ...], ask: Asker) -> Iterator[Proof]:
    """The wedge by its butt: that is what spreads the tenon, once for legs made alike."""
    for one in sets:
        made = wedge_made(piece, one.legs[0])
        if made is not None:
            words = Words(
                f"Wedge of leg {one.part.number}, thick at its butt", Butt(f"leg.{one.part.number}"),
                "too thick splits the tenon below its slot, too thin never tightens",
                f"leg.{one.part.number}", "legs", "wedge, butt",
            )  # fmt: skip
            yield ask.hair(("wedge", *one.proof), made.butt, NEAR_MM, words)


NEAR_MM = 0.3
"""A wedge this near is near enough (common practice, no source)."""
