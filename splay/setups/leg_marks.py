"""Cards for what is written and drawn on the legs, and for the wedge slots, before anything leans on it."""

from __future__ import annotations

import math
from collections.abc import Iterator
from typing import Literal

from splay.parts.leg import LegPart, has_ring, upper_end_name
from splay.piece import Piece, StakedLegs
from splay.quantity import Figure, Show
from splay.quantity import degrees as deg
from splay.setups.card import SetUp
from splay.setups.leg_sets import LegSet, leg_sets
from splay.setups.scenes import KerfOnEnd, Marked
from splay.shop import Handsaw, Shop
from splay.stance.lines import (
    leans_outward,
    lines_apart,
    named_faces,
    socket_line,
    turned,
)
from splay.stance.staked import LegStance, Stance
from splay.stance.wedges import slot_deep, slot_on_end, wedge_made, wedge_of
from splay.work.does import Along, Do, DrawLine, Kerf, NameFaces, OnEnd, Plain, Round, Write
from splay.work.doing import steps
from splay.work.lays import Way
from splay.work.marks import Kind, Mark, leg_key
from splay.work.phrases import listed
from splay.work.proofs import proof_id

PENCIL = "Rule, square and pencil"
_WHICH = {
    "across_grain": "The slot runs across the seat's long grain: the wedge then pushes on end grain. The "
    "other way of the two lies nearer the grain and splits the seat.",
    "to_middle": "The slot is aimed at the seat's middle: all of them look alike from above.",
}
_TICKS = 4
_SAWN = "Tenon upright in a vice; start on the far edge, fingers behind the saw."


def leg_mark_cards(
    piece: Piece, stance: Stance, parts: tuple[LegPart, ...], shop: Shop, show: Show
) -> Iterator[SetUp]:
    """One card a support for the marks on its legs."""
    for index, support in piece.staked():
        legs = [leg for leg in stance.legs if leg.support == index]
        mine = {part.number: part for part in parts if part.support == index}
        if legs:
            yield _marks(piece, stance, support, index, legs, mine, show)


def slot_cards(
    piece: Piece, stance: Stance, parts: tuple[LegPart, ...], shop: Shop, show: Show
) -> Iterator[SetUp]:
    """One card a set of legs made alike, where their tenons are wedged."""
    for one in leg_sets(piece, stance, parts):
        if wedge_made(piece, one.legs[0]) is not None:
            yield from _slots(piece, one, shop, show)


def ring_at(leg: LegStance, part: LegPart) -> float:
    """From the tenon's end to the depth ring: where it vanishes first, on the obtuse side, mm."""
    return part.in_top.quantity.value - leg.bore.size / 2.0 * deg.tan(leg.boring.resultant)


def kerf_deep(leg: LegStance, part: LegPart) -> float:
    """How far down the tenon a wedge's slot is sawn, mm; at least half the tenon."""
    return slot_deep(leg, part.in_top.quantity.value)


def ring_figure(leg: LegStance, part: LegPart, show: Show) -> Figure:
    """The depth ring's place: the ring vanishes all round when the tenon is home."""
    return show.figure(
        f"leg.{leg.number}.ring",
        "Depth ring, from the tenon's end",
        ring_at(leg, part),
        "in the top − D/2 · tan ρ",
        show.input("i", "in the top", part.in_top.quantity.value),
        show.input("D", "socket", leg.bore.size),
        show.input("ρ", "lean to the top", leg.boring.resultant, "deg"),
        note="home when the ring just touches the seat at the one place it comes nearest",
    )


def _marks(
    piece: Piece,
    stance: Stance,
    support: StakedLegs,
    index: int,
    legs: list[LegStance],
    parts: dict[int, LegPart],
    show: Show,
) -> SetUp:
    keys = [leg_key(leg.number) for leg in legs]
    first, part = legs[0], parts[legs[0].number]
    screwed = support.joint.tenon == "none"
    does: list[Do] = [
        Write(
            tuple(Mark(Kind.NUMBER, key) for key in keys),
            _numbered(legs, "upper end" if screwed else "tenon"),
        )
    ]
    makes = [Mark(Kind.NUMBER, key) for key in keys]
    flat = support.leg.section != "round"
    if screwed:
        does.append(
            Plain(
                "Each in the hole it was turned home in: that is its number, and there it stands so "
                "every time."
            )
        )
    end = upper_end_name(support.joint)
    for leg in legs:
        own = _lines(stance, support, leg, flat, end, show)
        does += own
        makes += [mark for do in own for mark in _made(do)]
    figure = part.finished if screwed else part.in_top
    if has_ring(support.joint):
        figure = ring_figure(first, part, show)
        for leg in legs:
            mark = Mark(Kind.SHOULDER, leg_key(leg.number))
            at = show.length(ring_at(leg, parts[leg.number]))
            named = f"leg {leg.number}"
            does.append(Along((mark,), named, "tenon end", "leg", at, ring=True, what="depth ring"))
            makes.append(mark)
    ends = tuple(Mark(Kind.TENON, key) for key in keys)
    return SetUp(
        work=f"marks.{support.id}",
        by="marking",
        station="legs",
        operation="mark",
        way="marking",
        tool=PENCIL,
        legs=tuple(leg.number for leg in legs),
        title=f"Mark {listed(f'leg {leg.number}' for leg in legs)}",
        angle=figure,
        dials=(),
        setting=figure.quantity,
        setting_name=figure.label,
        which_way=(
            f"The end that {'meets' if screwed else 'goes into'} the seat is the {end}: everything is "
            "measured from it.",
        ),
        steps=steps(does),
        turns=(),
        jig=(),
        in_reach=True,
        reach_note="",
        scene=Marked(
            "FRONT face" if flat else "outer line",
            0 if screwed else 1,
            end,
            "foot",
            figure.quantity.text if has_ring(support.joint) else "",
        ),
        proofs=(),
        checks=(),
        cautions=(),
        does=tuple(does),
        uses=(),
        makes=(*ends, *makes),
    )


def _made(do: Do) -> tuple[Mark, ...]:
    return do.marks if isinstance(do, Write | Round | DrawLine | NameFaces) else ()


def _numbered(legs: list[LegStance], end: str) -> str:
    few = [leg.number for leg in legs if leg.number <= _TICKS]
    said = f"Beside the {end}, where it stays seen: "
    if few:
        strokes = ("one stroke", "two", "three", "four")
        said += ", ".join(f"{strokes[n - 1]} on leg {n}" for n in few)
    if len(few) < len(legs):
        said += f"{'; ' if few else ''}the figure itself on the others"
    return f"{said}."


def _lines(
    stance: Stance, support: StakedLegs, leg: LegStance, flat: bool, end: str, show: Show
) -> tuple[Do, ...]:
    """A leg's own lines: its faces by name, or its outer line and the floor's where they differ."""
    key, named = leg_key(leg.number), f"leg {leg.number}"
    if flat:
        names = _round_names([name for name, _ in named_faces(support.leg, leg)])
        eight = support.leg.section == "octagon"
        return (NameFaces((Mark(Kind.FACES, key),), named, names, end, eight, _stands(names)),)
    made: list[Do] = []
    over: Literal["arrow", "tail", "edge"] = "arrow" if leans_outward(leg) else "tail"
    if leg.boring.bearing is None:
        over = "edge"
    made.append(DrawLine((Mark(Kind.OUTER_LINE, key),), named, over, _OUTER[over]))
    turn = lines_apart(leg, stance.floor)
    if turn:
        way: Way = "clockwise" if turn > 0.0 else "anticlockwise"
        round_mm = support.leg.at_foot / 2.0 * math.radians(abs(turn))
        made.append(
            Round(
                (Mark(Kind.FLOOR_LINE, key),),
                f"leg {leg.number}",
                "outer line",
                show.closely(round_mm),
                show.angle(abs(turn)),
                way,
                end,
                "at the foot the outer line of the floor",
                "; the inner line of the floor straight across from it",
            )
        )
    return tuple(made)


_OUTER: dict[str, str] = {
    "arrow": "a straight line down one side, over both ends: its outer line; one straight across from it: "
    "its inner line. In the seat the outer line stands over the arrow of its sightline.",
    "tail": "a straight line down one side, over both ends: its outer line; one straight across from it: "
    "its inner line. In the seat the outer line stands over the plain end of its sightline, for this leg "
    "leans inward.",
    "edge": "a straight line down one side, over both ends: its outer line. In the seat it is turned away "
    "from the middle.",
}


def _round_names(names: list[str]) -> tuple[str, str, str, str]:
    """The faces as they follow clockwise looking at the tenon's end, which is as seen from above."""
    if names[0] == "FRONT face":
        return ("FRONT face", "LEFT face", "BACK face", "RIGHT face")
    return ("outer face", "left-hand face", "inner face", "right-hand face")


def _stands(names: tuple[str, ...]) -> str:
    if names[0] == "FRONT face":
        return "In the seat FRONT looks to FRONT, its upper edge along the left-right line."
    return "In the seat the outer face looks away from the middle, its middle over the sightline."


def slot_figure(piece: Piece, leg: LegStance, show: Show) -> Figure:
    """The wedge's slot as an arc round the tenon's end from the outer line."""
    turn = slot_on_end(piece, leg)
    way = "clockwise" if turn >= 0.0 else "anticlockwise"
    return show.figure(
        f"leg.{leg.number}.slot",
        f"Slot, round the tenon's end from the outer line, {way}",
        leg.bore.tip / 2.0 * math.radians(abs(turn)),
        "π · d · ψ′ / 360°",
        show.input("d", "tenon", leg.bore.tip),
        show.input("ψ′", "slot off the outer line", abs(turn), "deg"),
        note=f"{way}, looking at the tenon's end",
    )


def _slots(
    piece: Piece,
    one: LegSet,
    shop: Shop,
    show: Show,
) -> Iterator[SetUp]:
    support, legs, first = one.support, one.legs, one.legs[0]
    flat = support.leg.section != "round"
    figure = slot_figure(piece, first, show)
    does: list[Do] = []
    for leg in legs:
        turn, line = _slot_from(piece, support, leg, flat)
        way: Way = "clockwise" if turn >= 0.0 else "anticlockwise"
        arc = show.closely(leg.bore.tip / 2.0 * math.radians(abs(turn)))
        mark = Mark(Kind.SLOT, leg_key(leg.number))
        does.append(
            OnEnd(
                mark,
                f"leg {leg.number}",
                "tenon end",
                line,
                arc,
                show.angle(abs(turn)),
                way,
                "the slot's line",
            )
        )
    deep = show.length(kerf_deep(first, one.part))
    does.append(Kerf(show.length(max(0.0, ring_at(first, one.part) - deep.value)), deep))
    wedge = wedge_of(support.joint)
    assert wedge is not None
    wide = show.closely(wedge.kerf).text
    does.append(Plain(f"Saw it {wide} wide: two cuts side by side, if the saw is thinner."))
    does.append(Plain(_WHICH[wedge.lies]))
    keys = [leg_key(leg.number) for leg in legs]
    lean_on = Kind.FACES if flat else Kind.OUTER_LINE
    for tool in shop.owned():
        if not isinstance(tool, Handsaw):
            continue
        yield SetUp(
            work=f"{one.key}.slot",
            by=tool.id,
            station="legs",
            operation="kerf",
            way="kerf",
            tool=tool.name,
            legs=tuple(leg.number for leg in legs),
            title=f"Wedge slots in {listed(f'leg {leg.number}' for leg in legs)}",
            angle=figure,
            dials=(),
            setting=deep,
            setting_name="Saw down the tenon by",
            which_way=("Across the tenon's end, through its middle.",),
            steps=steps(does),
            turns=(),
            jig=(),
            in_reach=True,
            reach_note="",
            scene=KerfOnEnd(
                slot_on_end(piece, first),
                "outer line",
                f"leg {first.number}",
                figure.quantity.text,
            ),
            proofs=(proof_id("kerf", *one.proof),),
            checks=(one.part.wedge,) if one.part.wedge else (),
            cautions=(_SAWN,),
            does=tuple(does),
            uses=tuple(Mark(kind, key) for key in keys for kind in (lean_on, Kind.SHOULDER)),
            makes=tuple(Mark(Kind.SLOT, key) for key in keys),
        )


def _slot_from(piece: Piece, support: StakedLegs, leg: LegStance, flat: bool) -> tuple[float, str]:
    """The slot's turn from a line that is on the leg: its outer line, or the middle of its first face."""
    turn = slot_on_end(piece, leg)
    if not flat:
        return turn, "outer line"
    name, normal = named_faces(support.leg, leg)[0]
    turn += turned(leg.d, normal, socket_line(leg))
    turn = (turn + 90.0) % 180.0 - 90.0
    return turn, f"middle of the {name}"
