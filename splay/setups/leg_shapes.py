"""Set-up cards for shaping legs set into the top: eight sides, tapers, tenons."""

from __future__ import annotations

import math
from collections.abc import Iterator

from splay.parts.leg import LegPart
from splay.piece import DowelScrew, Piece, Reamed, Shouldered, StakedLegs
from splay.quantity import Figure, Show
from splay.setups.card import Scene, SetUp
from splay.setups.plain_card import plain_card
from splay.shop import HandPlane, TaperJig, TenonCutter, Tool

MARGINAL_MM = 1.0
"""Stock that passes a cutter by less than this will still fail (common practice, no source)."""
_TAPER = "Hold-downs, both of them: a short taper near a blade kicks; else plane it by hand."
_PLANE = "Work against a stop; both hands on the plane."
_CUTTER = "Clamp the stick in a vice, drill level and slow; a cutter grabs as it starts."


def leg_shapes(piece: Piece, legs: tuple[LegPart, ...], tool: Tool, k: int, show: Show) -> Iterator[SetUp]:
    """Tapers, eight sides and tenons of legs set into the top; one card a support."""
    for index, support in enumerate(piece.supports):
        if not isinstance(support, StakedLegs):
            continue
        mine = [part for part in legs if part.support == index]
        if not mine:
            continue
        part = mine[0]
        numbers = tuple(p.number for p in mine)
        key = f"shape.{index}.{tool.kind}.{k}"
        named = f"legs {numbers[0]} to {numbers[-1]}" if len(numbers) > 1 else f"leg {numbers[0]}"
        yield from _octagon(key, part, tool, named, numbers)
        yield from _taper(key, support, part, tool, named, numbers, show)
        yield from _tenon(key, support, part, tool, named, numbers, show)


def _octagon(key: str, part: LegPart, tool: Tool, named: str, numbers: tuple[int, ...]) -> Iterator[SetUp]:
    gauge = next((f for f in part.making if f.key.endswith(".octagon")), None)
    if gauge is None or not isinstance(tool, HandPlane):
        return
    yield plain_card(
        f"{key}.octagon",
        "legs",
        "octagon",
        tool,
        f"Eight sides on {named}",
        gauge,
        "Gauge from each edge",
        Scene(
            "octagon",
            0.0,
            "",
            "",
            None,
            {"gauge": gauge.quantity.text, "stock": part.stock.quantity.text},
        ),
        which=("From both edges of all four faces; plane the corners to the lines.",),
        steps=("Tenon first, while the stock is square; then eight sides, then round.",),
        caution=_PLANE,
        legs=numbers,
        proofs=(f"octagon.{part.support}",),
    )


def _taper(
    key: str,
    support: StakedLegs,
    part: LegPart,
    tool: Tool,
    named: str,
    numbers: tuple[int, ...],
    show: Show,
) -> Iterator[SetUp]:
    tapers = [f for f in part.making if ".taper." in f.key]
    if not tapers or support.leg.made_by == "turned" or not isinstance(tool, HandPlane | TaperJig):
        return
    if isinstance(tool, TaperJig) and support.leg.section != "square":
        return
    figure = tapers[0]
    run = next(i.quantity.value for i in figure.inputs if i.symbol == "l")
    jig: tuple[Figure, ...] = tuple(tapers[1:])
    name = "Off each face"
    setting = figure.quantity
    if isinstance(tool, TaperJig):
        offset = show.figure(
            f"{key}.offset",
            "Offset of the jig's stop",
            figure.quantity.value / run * tool.length,
            "taper a face / tapered length · between stops",
            show.input("p", "taper a face", figure.quantity.value),
            show.input("l", "tapered length", run),
            show.input("J", "between the jig's stops", tool.length),
            note="two neighbouring faces at this; the other two at twice it, for they lie on a sawn face",
        )
        jig, name, setting = (figure, *jig), "Set the stop over by", offset.quantity
        figure = offset
    yield plain_card(
        f"{key}.taper",
        "legs",
        "taper",
        tool,
        f"Taper {named}",
        figure,
        name,
        Scene(
            "taper",
            0.0,
            "",
            "",
            None,
            {
                "top": show.length(support.leg.at_top).text,
                "foot": show.length(support.leg.at_foot).text,
                "run": show.length(run).text,
                "off": tapers[0].quantity.text,
                "thick": "top" if support.leg.at_top > support.leg.at_foot else "foot",
            },
        ),
        setting=setting,
        which=(f"{tapers[0].label.split(',')[0]}, along {show.length(run).text}.",),
        jig=jig,
        caution=_TAPER if isinstance(tool, TaperJig) else _PLANE,
        legs=numbers,
        proofs=(f"taper.{part.support}",),
    )


def _tenon(
    key: str,
    support: StakedLegs,
    part: LegPart,
    tool: Tool,
    named: str,
    numbers: tuple[int, ...],
    show: Show,
) -> Iterator[SetUp]:
    """A powered cutter limits the square stock it takes: diagonal <= its bore + what it takes."""
    flat = isinstance(support.joint, DowelScrew | Shouldered | Reamed)
    if not isinstance(tool, TenonCutter) or flat or support.leg.tenon_by != "cutter":
        return
    diagonal = part.stock.quantity.value * math.sqrt(2.0)
    limit = tool.bore + tool.takes
    spare = limit - diagonal
    note = ""
    if abs(tool.bore - support.joint.socket) > 0.05:
        note = (
            f"This cutter leaves {show.length(tool.bore).text}; the socket is "
            f"{show.length(support.joint.socket).text}."
        )
    elif spare < 0:
        note = (
            f"The stock's diagonal, {show.length(diagonal).text}, is more than the "
            f"{show.length(limit).text} it takes: plane the end thinner first."
        )
    elif spare < MARGINAL_MM:
        note = (
            f"Marginal: {show.length(diagonal).text} against {show.length(limit).text} passes on "
            "paper and fails in use. Knock the corners off the end."
        )
    figure = show.figure(
        f"{key}.diagonal",
        "Stock's diagonal",
        diagonal,
        "S · √2",
        show.input("S", "square stock", part.stock.quantity.value),
        show.input("m", "the cutter takes", limit),
    )
    yield plain_card(
        f"{key}.tenon",
        "legs",
        "tenon",
        tool,
        f"Tenons on {named}",
        figure,
        "Tenon, long",
        Scene(
            "octagon",
            0.0,
            "",
            "",
            None,
            {"gauge": show.length(tool.bore).text, "stock": part.stock.quantity.text},
        ),
        setting=part.in_top.quantity,
        which=("Square to the stick's end, held on its middle line; try it in a real hole.",),
        steps=("Cut the tenon while the stock is square; round the leg afterwards.",),
        note=note,
        caution=_CUTTER,
        legs=numbers,
        proofs=(f"tenon.{part.support}",),
    )
