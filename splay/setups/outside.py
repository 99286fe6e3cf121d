"""Set-up cards and proofs for dowels driven from outside through a slab leg's glued mitre."""

from __future__ import annotations

from collections.abc import Iterator

from splay.parts.stick import StickPart
from splay.piece import OutsideDowels, Piece, SlabLeg
from splay.quantity import Figure, Show
from splay.setups.asker import Asker, Words
from splay.setups.card import Proof, SetUp
from splay.setups.held import DRILL
from splay.setups.plain_card import plain_card
from splay.setups.scenes import MitreDowelled
from splay.stance.outside import Driven, Way, driven
from splay.work.does import Bit, Do, Plain
from splay.work.joinery import Places
from splay.work.lays import IntoSide
from splay.work.marks import SEAT, Kind, Mark
from splay.work.proofs import proof_id
from splay.work.takes import Probed

PROUD_MM = 5.0
"""A dowel is left so much longer than its hole, to be sawn flush (common practice, no source)."""
AIR_MM = 1.0
"""Left under a dowel for glue (common practice, no source)."""
ON_LINE_MM = 0.05
WAYS: tuple[Way, ...] = ("level", "plumb")
_CARE = (
    "The piece clamped so that it cannot turn, the other hand out from behind the joint. Follow the "
    "drill's own manual."
)
_AFTER = Plain("When the mitre's glue has set: bored before, the two halves of a hole never meet again.")


def _mark(one: Driven) -> Mark:
    return Mark(Kind.DOWEL, one.leg if one.runs == "level" else SEAT, f"{one.leg}/{one.number}")


def _groups(piece: Piece) -> Iterator[tuple[SlabLeg, Way, list[Driven]]]:
    every = driven(piece)
    for index, leg in piece.slab_legs():
        for runs in WAYS:
            mine = [one for one in every if one.support == index and one.runs == runs]
            if mine:
                yield leg, runs, mine


def outside_cards(piece: Piece, sticks: tuple[StickPart, ...], show: Show) -> Iterator[SetUp]:
    """One card for the level ones of a slab leg, one for the plumb ones."""
    names = {stick.key: stick.name for stick in sticks}
    for support, runs, mine in _groups(piece):
        one, key = mine[0], f"outside.{support.id}.{runs}"
        chosen = one.chosen
        level = runs == "level"
        face = "show face" if level else "upper face"
        deep = _deep(key, one, chosen, show)
        marks = tuple(_mark(each) for each in mine)
        what = f"{runs} dowels" if len(mine) > 1 else f"{runs} dowel"
        slanted = level and support.splay > 1e-6
        yield plain_card(
            key,
            "legs",
            "outside",
            DRILL,
            f"Bore the {names[one.leg]} for its {what}",
            deep,
            "Hole, deep along its middle",
            MitreDowelled(
                runs, show.length(chosen.size).text, deep.quantity.text, show.length(one.down).text,
                show.angle(one.between).text if slanted else "",
            ),
            setting=deep.quantity,
            lays=(IntoSide(marks, face, show.angle(one.between), "foot" if slanted else "", endwise=True),),
            does=(*_does(names[one.leg], support, mine, face, show), Bit(
                show.length(chosen.size), deep.quantity, None
            ), _AFTER),
            jig=(_long(key, one, chosen, show),),
            caution=_CARE,
            parts=(one.leg,),
            proofs=(proof_id("outside", support.id, runs),),
            makes=marks,
        )  # fmt: skip


def _does(named: str, support: SlabLeg, mine: list[Driven], face: str, show: Show) -> Iterator[Do]:
    """Places across from the middle line: the middle of the seat, carried on over the leg."""
    places = []
    for one in mine:
        side = "" if abs(one.y) <= ON_LINE_MM else "back edge" if one.y > 0.0 else "front edge"
        places.append((_mark(one), side, show.length(abs(one.y))))
    of = "mitre's corner, down the leg" if mine[0].runs == "level" else "mitre's corner, in from the end"
    yield Plain(
        f"Carry the seat's middle line over onto the {face}, from the one on its underside round the end."
        if mine[0].runs == "plumb"
        else "Carry the seat's middle line over onto the show face, down from the upper one."
    )
    where = named if mine[0].runs == "level" else f"the top, its {support.end} end"
    yield Places(tuple(places), where, face, of, show.length(mine[0].down))


def _deep(key: str, one: Driven, chosen: OutsideDowels, show: Show) -> Figure:
    return show.figure(
        f"{key}.deep",
        "Hole, deep along its middle",
        one.deep,
        "w + p",
        show.input("w", "wood to the mitre", one.through),
        show.input("p", "past the mitre", chosen.past),
    )


def _long(key: str, one: Driven, chosen: OutsideDowels, show: Show) -> Figure:
    return show.figure(
        f"{key}.long",
        "Dowel, long",
        one.deep - AIR_MM + PROUD_MM,
        "d − a + f",
        show.input("d", "hole, deep", one.deep),
        show.input("a", "room for glue", AIR_MM),
        show.input("f", "to be sawn flush", PROUD_MM),
        note=f"{show.length(chosen.size).text} thick; sawn flush when its glue has set",
    )


def outside_proofs(piece: Piece, ask: Asker) -> Iterator[Proof]:
    """How deep the holes are: once for the level ones, once for the plumb ones."""
    for support, runs, mine in _groups(piece):
        words = Words(
            f"Holes for the {runs} dowels at the {support.end}, deep",
            Probed(f"outside.{support.id}.{runs}"),
            "a dowel that stops short of the mitre holds nothing", mine[0].leg, "legs",
            f"{runs} holes, deep",
        )  # fmt: skip
        yield ask.length(("outside", support.id, runs), ask.show.length(mine[0].deep), words)
