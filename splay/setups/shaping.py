"""Set-up cards for shaping: bevels, tapers, eight sides, tenons, half laps, slots."""

from __future__ import annotations

import math
from collections.abc import Iterator

from splay.parts.leg import LegPart
from splay.parts.stick import StickPart
from splay.piece import (
    BoardSides,
    Dowels,
    DowelScrew,
    MitredFrames,
    Piece,
    PlaneFrames,
    Reamed,
    Shouldered,
    SlabLeg,
    StakedLegs,
)
from splay.quantity import Figure, Quantity, Show
from splay.setups.card import Dial, Scene, SetUp
from splay.setups.crosscut import station_of
from splay.setups.dial import dial
from splay.shop import (
    BandSaw,
    HandPlane,
    Handsaw,
    RouterTable,
    Shop,
    TableSaw,
    TaperJig,
    TenonCutter,
    TiltingTable,
    Tool,
)
from splay.shop.scale import within_reach
from splay.stance.body import Body

MARGINAL_MM = 1.0
"""Stock that passes a cutter by less than this will still fail (common practice, no source)."""
_RIP = "Feather board and push stick; stand out of the blade's line; follow the saw's own manual."
_TAPER = "Hold-downs, both of them: a short taper near a blade kicks; else plane it by hand."
_PLANE = "Work against a stop; both hands on the plane."
_ROUTER = "Never stand long stock on end at a router: use another bit, or a jig that holds it flat."
_BORE = "Clamp the part to the table, the wedge with it; follow the drill's own manual."
_CUTTER = "Clamp the stick in a vice, drill level and slow; a cutter grabs as it starts."


def shaping_cards(
    piece: Piece,
    legs: tuple[LegPart, ...],
    sticks: tuple[StickPart, ...],
    bodies: tuple[Body, ...],
    shop: Shop,
    show: Show,
) -> tuple[SetUp, ...]:
    """Every card that shapes a leg or a stick without ending it."""
    tools = [(k, tool) for k, tool in enumerate(shop.tools) if tool.owned]
    made: list[SetUp] = []
    for k, tool in tools:
        made += _bevels(sticks, bodies, tool, k, show)
        made += _laps(sticks, bodies, tool, k, show)
        made += _leg_shapes(piece, legs, tool, k, show)
        made += _slots(piece, tool, k, show)
    return tuple(made)


def _card(
    key: str,
    station: str,
    operation: str,
    tool: Tool,
    title: str,
    figure: Figure,
    name: str,
    scene: Scene,
    *,
    dials: tuple[Dial, ...] = (),
    setting: Quantity | None = None,
    which: tuple[str, ...] = (),
    steps: tuple[str, ...] = (),
    jig: tuple[Figure, ...] = (),
    note: str = "",
    caution: str = "",
    parts: tuple[str, ...] = (),
    legs: tuple[int, ...] = (),
    proofs: tuple[str, ...] = (),
) -> SetUp:
    return SetUp(
        id=key,
        station=station,
        operation=operation,
        way=tool.kind,
        tool=tool.name,
        legs=legs,
        title=title,
        angle=figure,
        dials=dials,
        setting=setting or figure.quantity,
        setting_name=name,
        which_way=which,
        steps=steps,
        turns=(),
        jig=jig,
        in_reach=not note,
        reach_note=note,
        scene=scene,
        proofs=proofs,
        checks=(),
        cautions=(caution,) if caution else (),
        parts=parts,
    )


def _bevels(
    sticks: tuple[StickPart, ...], bodies: tuple[Body, ...], tool: Tool, k: int, show: Show
) -> Iterator[SetUp]:
    """Long edges off square: by the blade's tilt, the table's, or a plane to a bevel gauge."""
    if not isinstance(tool, TableSaw | BandSaw | HandPlane):
        return
    done: set[str] = set()
    for stick, body in zip(sticks, bodies, strict=True):
        if stick.alike in done or not stick.bevels:
            continue
        done.add(stick.alike)
        figure = stick.bevels[0]
        keys = tuple(s.key for s in sticks if s.alike == stick.alike)
        key = f"rip.{stick.key}.{tool.kind}.{k}"
        dials: tuple[Dial, ...] = ()
        note = ""
        if not isinstance(tool, HandPlane):
            off = figure.quantity.value
            dials = (dial(tool.name, tool.tilt, min(off, tool.tilt.reach), show),)
            if not within_reach(tool.tilt, off):
                note = f"It leans to {show.angle(tool.tilt.reach).text} only: plane the rest to a gauge."
        yield _card(
            key,
            station_of(stick.role),
            "rip",
            tool,
            f"Bevel the long edges of {'the ' if len(keys) == 1 else f'{len(keys)} '}"
            f"{stick.name if len(keys) == 1 else _plural(stick.role)}",
            figure,
            "Lean it to" if dials else "Plane to a gauge set at",
            Scene(
                "bevelled_edge",
                figure.quantity.value,
                "",
                "",
                None,
                {
                    "face": body.sides.face,
                    "other": body.sides.other_face,
                    "edge": body.sides.edge,
                    "other_edge": body.sides.other_edge,
                    "angle": figure.quantity.text,
                    "wide_first": "yes" if body.rips and body.rips[0].normal[2] < 0 else "no",
                    "both": "yes" if len(stick.bevels) > 1 else "no",
                },
            ),
            dials=dials,
            setting=dials[0].reading if dials else None,
            which=tuple(f"{b.label.split(',')[0]}: {b.note}." for b in stick.bevels),
            steps=("Rip both edges before cutting to length; they run parallel: keep the same face down.",),
            note=note,
            caution=_PLANE if isinstance(tool, HandPlane) else _RIP,
            parts=keys,
            proofs=(f"rip.{stick.key}",),
        )


def _plural(role: str) -> str:
    return {"leg": "legs", "apron": "aprons", "cross": "cross-pieces"}.get(role, f"{role}s")


def _laps(
    sticks: tuple[StickPart, ...], bodies: tuple[Body, ...], tool: Tool, k: int, show: Show
) -> Iterator[SetUp]:
    """Half laps and the space between two feet."""
    if not isinstance(tool, TableSaw | Handsaw | BandSaw):
        return
    done: set[str] = set()
    for stick, body in zip(sticks, bodies, strict=True):
        if stick.alike in done or len(stick.notches) < 2:
            continue
        lap = "lap" in body.voids[0].name
        if lap == isinstance(tool, BandSaw):
            continue
        done.add(stick.alike)
        wide, deep = stick.notches[0], stick.notches[1]
        what = body.voids[0].name
        yield _card(
            f"notch.{stick.key}.{tool.kind}.{k}",
            "stretchers" if lap else "legs",
            "notch",
            tool,
            f"{what.capitalize()}: {stick.name}",
            deep,
            "Depth" if lap else "High, on the board",
            Scene(
                "notch",
                0.0,
                "",
                "",
                None,
                {
                    "wide": wide.quantity.text,
                    "deep": deep.quantity.text,
                    "from": "above" if "above" in what else "below",
                    "lap": "yes" if lap else "no",
                },
            ),
            which=(
                (
                    "At mid length, from the edge named; the other frame is cut from the other edge.",
                    "Scribe the width from the other rail itself.",
                )
                if lap
                else ("In the middle of the board's lower end, both boards alike.",)
            ),
            steps=("Saw the cheeks just inside the lines, clear the waste, pare to the lines.",),
            jig=(wide, *stick.notches[2:]),
            caution=_RIP if isinstance(tool, TableSaw) else "Chisel away from the holding hand.",
            parts=(stick.key,),
            proofs=(f"notch.{stick.key}",),
        )


def _leg_shapes(piece: Piece, legs: tuple[LegPart, ...], tool: Tool, k: int, show: Show) -> Iterator[SetUp]:
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
    yield _card(
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
    yield _card(
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
    yield _card(
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


def dowels_of(piece: Piece) -> Iterator[tuple[int, Dowels, float, str]]:
    """Every support with dowels or loose tenons: index, what, the thinnest part, its name."""
    for index, support in enumerate(piece.supports):
        if isinstance(support, PlaneFrames):
            thin = min((support.thickness, *(c.thickness for c in support.cross)))
            yield index, support.dowels, thin, "frames"
        elif isinstance(support, MitredFrames):
            yield index, support.dowels, support.thickness, "mitres"
        elif isinstance(support, BoardSides) and support.rails:
            thin = min(support.thickness, *(r.thickness for r in support.rails))
            yield index, support.dowels, thin, "sides"
        elif isinstance(support, SlabLeg):
            yield index, support.dowels, piece.top.thickness, "slab's mitre"


def _slots(piece: Piece, tool: Tool, k: int, show: Show) -> Iterator[SetUp]:
    if isinstance(tool, TiltingTable):
        yield from _dowel_holes(piece, tool, k, show)
    if not isinstance(tool, RouterTable):
        return
    for index, dowels, _, what in dowels_of(piece):
        if dowels.way != "loose_tenon":
            continue
        key = f"slot.{index}.{tool.kind}.{k}"
        loose = loose_length(f"s{index}", dowels, show)
        notes = []
        if abs(tool.cutter - dowels.size) > 0.05:
            notes.append(
                f"The cutter is {show.length(tool.cutter).text}, the tenon "
                f"{show.length(dowels.size).text} thick: change one of them."
            )
        if dowels.depth > tool.reach:
            notes.append(f"The cutter reaches {show.length(tool.reach).text} only.")
        support = piece.supports[index]
        slope = getattr(support, "splay", 0.0)
        fence = show.figure(
            f"{key}.fence",
            "Bevelled face on the fence",
            slope,
            "the end's own bevel",
            show.input("s", "splay", slope, "deg"),
            unit="deg",
            note="so that the sawn end lies flat and the slot runs square to it",
        )
        yield _card(
            key,
            "stretchers",
            "slot",
            tool,
            f"Slots for the loose tenons of the {what}",
            show.figure(
                f"{key}.travel",
                "Travel of the work, stop to stop",
                dowels.width - dowels.size,
                "width − cutter",
                show.input("w", "tenon, wide", dowels.width),
                show.input("d", "cutter", dowels.size),
            ),
            "Travel, stop to stop",
            Scene(
                "slot",
                slope,
                "",
                "",
                None,
                {
                    "wide": show.length(dowels.width).text,
                    "thick": show.length(dowels.size).text,
                    "deep": show.length(dowels.depth).text,
                },
            ),
            which=("Square to the sawn end, in the middle of the thickness.",),
            steps=(f"Slots {show.length(dowels.depth).text} deep, in passes.",),
            jig=(loose, fence),
            note=" ".join(notes),
            caution=_ROUTER,
            proofs=(f"slot.{index}",),
        )


def _dowel_holes(piece: Piece, tool: TiltingTable, k: int, show: Show) -> Iterator[SetUp]:
    """Holes for dowels, square to a sawn end: the table (or a wedge) tilts by the end's own slope."""
    for index, dowels, _, what in dowels_of(piece):
        if dowels.way != "dowel":
            continue
        support = piece.supports[index]
        splay = float(getattr(support, "splay", 0.0))
        slope = (90.0 - splay) / 2.0 if isinstance(support, SlabLeg) else splay
        made = dial(tool.name, tool.scale, min(slope, tool.scale.reach), show)
        reaches = within_reach(tool.scale, slope)
        figure = show.figure(
            f"dowel.{index}.wedge",
            "Wedge under the part, or tilt of the table",
            slope,
            "the end's own slope",
            show.input("s", "off square", slope, "deg"),
            unit="deg",
            note="so that the sawn end lies level under the drill",
        )
        yield _card(
            f"dowel.{index}.{tool.kind}.{k}",
            "stretchers" if not isinstance(support, SlabLeg) else "legs",
            "dowel",
            tool,
            f"Bore the sawn ends of the {what} for dowels",
            figure,
            "Tilt the table to",
            Scene(
                "slot",
                slope,
                "",
                "",
                None,
                {
                    "wide": f"{dowels.count} in a joint",
                    "thick": show.length(dowels.size).text,
                    "deep": show.length(dowels.depth).text,
                },
            ),
            dials=(made,),
            setting=made.reading,
            which=("Sawn end up and level; the hole runs square to it.",),
            steps=(
                f"Bit {show.length(dowels.size).text}, {show.length(dowels.depth).text} deep.",
                "Mark the other part from dowel points pressed out of the first.",
            ),
            jig=(loose_length(f"s{index}", dowels, show), figure),
            note=""
            if reaches
            else "Past the table's tilt: saw the wedge, or bore by hand in a guide block.",
            caution=_BORE,
            proofs=(f"slot.{index}",),
        )


def loose_length(key: str, dowels: Dowels, show: Show) -> Figure:
    """A dowel or loose tenon: both depths less the room for glue at each end."""
    return show.figure(
        f"{key}.loose",
        "Dowel, long" if dowels.way == "dowel" else "Loose tenon, long",
        2.0 * (dowels.depth - dowels.gap),
        "2 · (depth − room for glue)",
        show.input("k", "depth in each part", dowels.depth),
        show.input("g", "room for glue at each end", dowels.gap),
        note="" if dowels.way == "dowel" else f"{show.length(dowels.width).text} wide over its rounds",
    )
