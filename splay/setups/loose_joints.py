"""Set-up cards for dowels and loose tenons: holes and slots square to the sawn end they enter."""

from __future__ import annotations

import math
from collections.abc import Iterator

from splay.parts.stick import EndCut, StickPart
from splay.piece import BoardSides, Dowels, MitredFrames, Piece, PlaneFrames, SlabLeg
from splay.quantity import Figure, Show
from splay.quantity import degrees as deg
from splay.setups.card import Scene, SetUp
from splay.setups.crosscut import station_of
from splay.setups.dial import dial
from splay.setups.plain_card import plain_card
from splay.setups.words import counted
from splay.shop import RouterTable, TiltingTable, Tool
from splay.shop.scale import within_reach

_ROUTER = "Never stand long stock on end at a router: use another bit, or a jig that holds it flat."
_BORE = "Clamp the part to the table, the wedge with it; follow the drill's own manual."
_ENTERED = {"cross", "rail", "link", "tread", "slab_leg", "slab"}
"""Roles both of whose joined ends take dowels; a mitred leg takes them at its mitre too."""


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


def loose_joints(
    piece: Piece, sticks: tuple[StickPart, ...], tool: Tool, k: int, show: Show
) -> Iterator[SetUp]:
    """One card for each slope of sawn end that dowels or loose tenons enter."""
    if not isinstance(tool, TiltingTable | RouterTable):
        return
    wanted = "dowel" if isinstance(tool, TiltingTable) else "loose_tenon"
    for index, dowels, _, _ in dowels_of(piece):
        if dowels.way != wanted:
            continue
        for slope, parts in sorted(_slopes(piece, index, sticks).items()):
            key = f"{dowels.way}.{parts[0].key}.{tool.kind}.{k}"
            if isinstance(tool, TiltingTable):
                yield _holes(key, index, dowels, slope, parts, tool, show)
            else:
                yield _slots(key, index, dowels, slope, parts, tool, show)


def slope_of(end: EndCut) -> float:
    """How far a sawn end is off square to its stick altogether, degrees.

    The cut's normal is (cos t cos m, cos t sin m, sin t): cos = cos t · cos m.
    """
    along = deg.cos(end.tilt) * deg.cos(end.mitre)
    return math.degrees(math.atan2(math.sqrt(max(0.0, 1.0 - along * along)), along))


def _slopes(piece: Piece, index: int, sticks: tuple[StickPart, ...]) -> dict[float, list[StickPart]]:
    """The joined ends of a support's parts by their slope, to the ten-thousandth of a degree."""
    found: dict[float, list[StickPart]] = {}
    mitred = isinstance(piece.supports[index], MitredFrames)
    for stick in sticks:
        if stick.support != index or not (stick.role in _ENTERED or (mitred and stick.role == "leg")):
            continue
        # A slab is joined at its far end, whatever has a foot at its near one.
        end = stick.finish if stick.role == "slab" else stick.start
        found.setdefault(round(slope_of(end), 4), []).append(stick)
    return found


def _slope_figure(key: str, label: str, slope: float, note: str, show: Show) -> Figure:
    return show.figure(
        key,
        label,
        slope,
        "cos = cos mitre · cos tilt",
        show.input("σ", "sawn end, off square to the stick", slope, "deg"),
        unit="deg",
        note=note,
    )


def _scene(dowels: Dowels, slope: float, wide: str, show: Show) -> Scene:
    notes = {
        "wide": wide,
        "thick": show.length(dowels.size).text,
        "deep": show.length(dowels.depth).text,
        "round": "yes" if dowels.way == "dowel" else "no",
    }
    return Scene("slot", slope, "", "", None, notes)


def _holes(
    key: str,
    index: int,
    dowels: Dowels,
    slope: float,
    parts: list[StickPart],
    tool: TiltingTable,
    show: Show,
) -> SetUp:
    """The table (or a wedge) tilts by the end's own slope, so that the end lies level."""
    made = dial(tool.name, tool.scale, min(slope, tool.scale.reach), show)
    note = "so that the sawn end lies level under the drill"
    figure = _slope_figure(f"{key}.slope", "Wedge under the part, or tilt", slope, note, show)
    size, deep = show.length(dowels.size).text, show.length(dowels.depth).text
    return plain_card(
        key,
        station_of(parts[0].role),
        "dowel",
        tool,
        f"Bore for dowels: {counted(parts)}",
        figure,
        "Tilt the table to",
        _scene(dowels, slope, f"{dowels.count} in a joint", show),
        dials=(made,),
        setting=made.reading,
        which=("Sawn end up and level; the hole runs square to it.",),
        steps=(
            f"Bit {size}, {deep} deep, {dowels.count} in each joint.",
            "Mark the other part from dowel points pressed out of the first.",
        ),
        jig=(loose_length(f"s{index}", dowels, show), figure),
        note=""
        if within_reach(tool.scale, slope)
        else "Past the table's tilt: saw the wedge, or bore by hand in a guide block.",
        caution=_BORE,
        parts=tuple(part.key for part in parts),
        proofs=(f"slot.{index}",),
    )


def _slots(
    key: str,
    index: int,
    dowels: Dowels,
    slope: float,
    parts: list[StickPart],
    tool: RouterTable,
    show: Show,
) -> SetUp:
    """Slots for loose tenons, square to the end: a bevelled face on the fence holds it flat."""
    notes = []
    if abs(tool.cutter - dowels.size) > 0.05:
        notes.append(
            f"The cutter is {show.length(tool.cutter).text}, the tenon "
            f"{show.length(dowels.size).text} thick: change one of them."
        )
    if dowels.depth > tool.reach:
        notes.append(
            f"The cutter reaches {show.length(tool.reach).text} only: make the slots shallower, or "
            "fit a longer one."
        )
    wide = show.length(dowels.width).text
    fence = "so that the sawn end lies flat and the slot runs square to it"
    return plain_card(
        key,
        station_of(parts[0].role),
        "slot",
        tool,
        f"Slots for loose tenons: {counted(parts)}",
        show.figure(
            f"{key}.travel",
            "Travel of the work, stop to stop",
            dowels.width - dowels.size,
            "width − cutter",
            show.input("w", "tenon, wide", dowels.width),
            show.input("d", "cutter", dowels.size),
        ),
        "Travel, stop to stop",
        _scene(dowels, slope, wide, show),
        which=("Square to the sawn end, in the middle of the thickness.",),
        steps=(f"Slots {show.length(dowels.depth).text} deep, in passes.",),
        jig=(
            loose_length(f"s{index}", dowels, show),
            _slope_figure(f"{key}.fence", "Bevelled face on the fence", slope, fence, show),
        ),
        note=" ".join(notes),
        caution=_ROUTER,
        parts=tuple(part.key for part in parts),
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
