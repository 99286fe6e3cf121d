"""Cards for the holes of pegs through blind tenons, bored when the legs are home."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from splay.layout.pegs import line_of
from splay.piece import Piece
from splay.quantity import Figure, Show
from splay.quantity import degrees as deg
from splay.setups.boring import tool_scene
from splay.setups.card import SetUp
from splay.setups.drills import HAND_HELD, Hole, set_for
from splay.setups.plain_card import Bench, plain_card
from splay.setups.scenes import SocketPierced
from splay.shop import Shop, Tool
from splay.stance.pegs import (
    THIN_MM,
    FromAbove,
    FromSide,
    longest_from_side,
    pegs_from_above,
    pegs_from_side,
)
from splay.stance.staked import Stance, support_of
from splay.work.does import Along, Bit, Do, FromEdge, Plain
from splay.work.doing import steps
from splay.work.lays import Toward
from splay.work.lying import which_way
from splay.work.marks import SEAT, Kind, Mark, lettered, peg_mark, peg_on_batten, sightline
from splay.work.phrases import listed
from splay.work.proofs import proof_id
from splay.work.tops import PegFound

SQUARE_DEG = 1e-6
FINDER = Bench("finding", "Thin long bit in a hand drill")
_THIN = (
    "A thin bit bends and snaps: drill slowly, draw it out often, fingers away from where it comes out. "
    "Follow the drill's own manual."
)
_CAUTION = (
    "Clamp the seat so that it cannot turn; the other hand out from under the bit. Follow the drill's "
    "own manual."
)
_SET = Plain("Bore when the glue has set; the peg goes in with a little glue and is sawn off flush.")
_OFF = Plain("Then take the battens off the seat: the drill needs the room.")


def peg_cards(piece: Piece, stance: Stance, shop: Shop, show: Show) -> Iterator[SetUp]:
    """One card a support and a tool that is held by hand: by then the legs stand out below."""
    above: dict[int, list[FromAbove]] = {}
    for peg in pegs_from_above(piece, stance):
        above.setdefault(peg.leg.support, []).append(peg)
    side: dict[int, list[FromSide]] = {}
    for one in pegs_from_side(piece, stance):
        side.setdefault(one.leg.support, []).append(one)
    works = [_from_above(mates) for mates in above.values()]
    works += [_from_side(piece, sides, show) for sides in side.values()]
    for tool in shop.owned():
        if isinstance(tool, HAND_HELD):
            yield from (_card(piece, work, tool, show) for work in works)


def peg_find_cards(piece: Piece, stance: Stance, show: Show) -> Iterator[SetUp]:
    """One card a support whose pegs' places are found through the sockets."""
    supports: dict[int, list[FromAbove]] = {}
    for peg in pegs_from_above(piece, stance):
        if peg.peg.place == "through_socket":
            supports.setdefault(peg.leg.support, []).append(peg)
    for pegs in supports.values():
        first, support = pegs[0], support_of(piece, pegs[0].leg)
        key = f"peg_find.{support.id}"
        entry = math.hypot(first.at[0] - first.leg.socket[0], first.at[1] - first.leg.socket[1])
        figure = show.figure(
            f"{key}.on",
            f"Peg of leg {first.leg.number} from where the bit comes out",
            abs(first.on),
            "| e − s · sin ρ |",
            show.input("e", "peg off the leg's centre", entry),
            show.input("s", "along the socket, out of the upper face", first.out),
            show.input("ρ", "lean", first.leg.boring.resultant, "deg"),
            note="level, along the line",
            fine=True,
        )
        yield plain_card(
            key,
            "boring",
            "peg_find",
            FINDER,
            f"Find the pegs' places for {listed(f'leg {one.leg.number}' for one in pegs)}",
            figure,
            "From where the bit comes out",
            SocketPierced(figure.quantity.text, first.on < 0.0),
            setting=figure.quantity,
            does=tuple(_found(piece, one, show) for one in pegs),
            caution=_THIN,
            legs=tuple(one.leg.number for one in pegs),
            uses=(
                *lettered("upper face"),
                *(Mark(Kind.SOCKET, SEAT, str(one.leg.number)) for one in pegs),
            ),
            makes=tuple(
                mark
                for one in pegs
                for mark in (peg_mark(one.leg.number), sightline(one.leg.number, "upper face"))
            ),
        )


def _found(piece: Piece, one: FromAbove, show: Show) -> PegFound:
    return PegFound(
        one.leg.number,
        show.closely(THIN_MM),
        line_of(piece, one, one.through, show),
        show.closely(abs(one.on)),
        one.on < 0.0,
        peg_mark(one.leg.number),
    )


def deepest(piece: Piece, stance: Stance, support: int) -> float:
    """How deep the holes of a support's pegs may go along their middle, mm; nought where there are none."""
    found = [peg.longest for peg in pegs_from_above(piece, stance) if peg.leg.support == support]
    for one in pegs_from_side(piece, stance):
        if one.leg.support == support:
            joint = support_of(piece, one.leg).joint
            assert joint.way == "battened"
            found.append(longest_from_side(one.peg, joint))
    return min(found, default=0.0)


@dataclass(frozen=True)
class _Work:
    """What every tool's card says alike about the pegs of one support: `deep` as far as one may go, mm,
    `uses` what they are bored by, `makes` what is marked for them first, `names` what lies right and left,
    `before` what is done before they are bored."""

    pegs: Sequence[FromAbove | FromSide]
    hole: Hole
    deep: float
    uses: tuple[Mark, ...]
    makes: tuple[Mark, ...]
    names: tuple[str, str]
    before: tuple[Do, ...]


def _from_above(pegs: list[FromAbove]) -> _Work:
    peg = pegs[0].peg
    marks = tuple(peg_mark(one.leg.number) for one in pegs)
    sloped = peg.angle > SQUARE_DEG
    leans = Toward("tail") if sloped else None
    hole = Hole("seat", peg.angle, peg.angle, marks, "upper face", "underside", leans)
    lines = tuple(sightline(one.leg.number, "upper face") for one in pegs) if sloped else ()
    deep = min(one.longest for one in pegs)
    names = ("arrow", "plain end") if sloped else ("", "")
    return _Work(pegs, hole, deep, (*marks, *lines), (), names, ())


def _from_side(piece: Piece, pegs: list[FromSide], show: Show) -> _Work:
    peg, joint = pegs[0].peg, support_of(piece, pegs[0].leg).joint
    assert joint.way == "battened"
    marks = tuple(peg_on_batten(one.leg.number, one.batten.key) for one in pegs)
    against = pegs[0].batten.sides.face
    leans = Toward("side", against) if peg.angle > SQUARE_DEG else None
    edge = "edge with the mark" if len({one.edge for one in pegs}) > 1 else pegs[0].edge
    hole = Hole("batten", peg.angle, peg.angle, marks, edge, "", leans)
    places: list[Do] = []
    for one, mark in zip(pegs, marks, strict=True):
        named = f"{one.batten.name}, peg of leg {one.leg.number}"
        places.append(Along((mark,), named, one.end, one.edge, show.closely(one.run)))
        places.append(FromEdge((mark,), named, one.edge, against, show.closely(one.below)))
    names = (against, "lower face") if leans else ("", "")
    return _Work(pegs, hole, longest_from_side(peg, joint), (), marks, names, (*places, _OFF))


def _card(piece: Piece, peg_work: _Work, tool: Tool, show: Show) -> SetUp:
    pegs, hole, deep = peg_work.pegs, peg_work.hole, peg_work.deep
    peg, leg = pegs[0].peg, pegs[0].leg
    support = support_of(piece, leg)
    work = f"peg.{support.id}"
    key = f"{work}.{tool.id}"
    touch = None if hole.leans is None else show.length(deep + peg.diameter / 2.0 * deg.tan(peg.angle))
    bit = Bit(show.length(peg.diameter), show.length(deep), touch)
    angle = show.figure(
        f"{key}.slope",
        "Slope of the peg, off square",
        peg.angle,
        "as chosen",
        show.input("ε", "slope of the peg", peg.angle, "deg"),
        unit="deg",
    )
    met = set_for(tool, hole, angle, show, key)
    told: tuple[Do, ...] = (*peg_work.before, bit, _SET)
    return SetUp(
        work=work,
        by=tool.id,
        station="boring",
        operation="peg",
        way=tool.kind,
        tool=tool.name,
        legs=tuple(one.leg.number for one in pegs),
        title=f"Bore for the {'pegs' if len(pegs) > 1 else 'peg'} of "
        f"{listed(f'leg {one.leg.number}' for one in pegs)}",
        angle=angle,
        dials=met.dials,
        setting=met.setting,
        setting_name=met.name,
        which_way=which_way((met.lay,)),
        steps=steps(told),
        turns=(),
        jig=(*met.jig, _longest(key, deep, show)),
        in_reach=not met.note,
        reach_note=met.note,
        scene=tool_scene(tool, met, hole.lean, *peg_work.names, show),
        proofs=(proof_id("peg", support.id),),
        checks=(),
        cautions=(_CAUTION,),
        lays=(met.lay,),
        wedges=met.wedges,
        does=told,
        uses=peg_work.uses,
        makes=(*peg_work.makes, Mark(Kind.SOCKET, SEAT, f"peg.{support.id}")) if peg_work.makes else (),
    )


def _longest(key: str, deep: float, show: Show) -> Figure:
    return show.figure(
        f"{key}.longest", "Peg, inside", deep, "longest that does not break out",
        note="cut it a little over: what stands out is sawn off",
    )  # fmt: skip
