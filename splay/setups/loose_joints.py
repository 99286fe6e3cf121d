"""Set-up cards for dowels and loose tenons: holes and slots square to the sawn end they enter."""

from __future__ import annotations

import math
from collections.abc import Iterator

from splay.parts.stick import SQUARE_DEG, EndCut, StickPart
from splay.piece import BoardSides, Dowels, MitredFrames, Piece, PlaneFrames, SlabLeg
from splay.piece.kinds import Lined
from splay.quantity import Figure, Show
from splay.quantity import degrees as deg
from splay.setups.card import SetUp
from splay.setups.crosscut import end_name, station_of
from splay.setups.plain_card import plain_card
from splay.setups.scenes import JointHoles, Scene
from splay.setups.words import counted
from splay.shop import RouterTable, TiltingTable, Tool
from splay.stance.body import Body, shares
from splay.work.does import Bit, Plain
from splay.work.joinery import Spots
from splay.work.lays import EndUp
from splay.work.phrases import listed
from splay.work.proofs import proof_id

_ROUTER = "Never stand long stock on end at a router: use another bit, or a jig that holds it flat."
_BORE = "Clamp the part to an upright board or a block on the table; follow the drill's own manual."
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
        elif isinstance(support, SlabLeg) and support.outside is None:
            yield index, support.dowels, piece.top.thickness, "slab's mitre"


ON_LINE_MM = 0.05
"""A dowel this near the middle line stands on it."""
Joined = tuple[StickPart, Body, str]
"""A part, where it lies, and the end of it that is joined."""


def loose_joints(
    piece: Piece,
    sticks: tuple[StickPart, ...],
    bodies: tuple[Body, ...],
    tool: Tool,
    show: Show,
) -> Iterator[SetUp]:
    """One card for each slope of sawn end that dowels or loose tenons enter."""
    if not isinstance(tool, TiltingTable | RouterTable):
        return
    wanted = "dowel" if isinstance(tool, TiltingTable) else "loose_tenon"
    for index, dowels, _, _ in dowels_of(piece):
        on = piece.supports[index].id
        if dowels.way != wanted:
            continue
        for slope, ends in sorted(_slopes(piece, index, sticks, bodies).items()):
            key = f"{dowels.way}.{ends[0][0].key}"
            if isinstance(tool, TiltingTable):
                yield _holes(piece, key, on, dowels, slope, ends, tool, show)
            else:
                yield _slots(piece, key, on, dowels, slope, ends, tool, show)


def end_up(part: StickPart, body: Body, name: str) -> EndUp:
    """How a stick is held for its sawn end to lie level: leaning towards the sides it left longer."""
    end, sides = (part.start if name == "start" else part.finish), body.sides
    leans = []
    if abs(end.mitre) > SQUARE_DEG:
        leans.append(sides.edge if end.mitre > 0 else sides.other_edge)
    if abs(end.tilt) > SQUARE_DEG:
        leans.append(sides.face if end.tilt > 0 else sides.other_face)
    return EndUp((part.key,), part.name, end_name(part.role, name), tuple(leans))


def _held(ends: list[Joined], down: bool = False) -> tuple[EndUp, ...]:
    """Ends held alike share one lay."""
    found: dict[tuple[object, ...], list[EndUp]] = {}
    for one in ends:
        lay = end_up(*one)
        found.setdefault((lay.end, lay.leans), []).append(lay)
    return tuple(
        EndUp(
            tuple(key for lay in mates for key in lay.parts),
            listed(lay.named for lay in mates),
            mates[0].end,
            mates[0].leans,
            down,
        )
        for mates in found.values()
    )


def _spots(piece: Piece, ends: list[Joined], dowels: Dowels, show: Show) -> Spots:
    """Evenly over the sawn end: n shares of its width, a middle in each, halfway through its thickness.

    Where the tree grew its edges they are measured from its middle line, to either side.
    """
    part, body, name = ends[0]
    end = part.start if name == "start" else part.finish
    lined = isinstance(piece.supports[part.support], Lined)
    dry = "with the joint closed dry on its lines" if lined else "with the joint closed dry"
    mates = f"Its mate is marked from it: points pressed out of the holes {dry}."
    places = shares(body, dowels.count)
    if any(one.grown for _, one, _ in ends):
        sides = []
        for side, edge in ((1, body.sides.edge), (-1, body.sides.other_edge)):
            there = sorted(side * y for y in places if side * y > ON_LINE_MM)
            sides.append((edge, tuple(show.length(y / deg.cos(end.mitre)) for y in there)))
        on = any(abs(y) <= ON_LINE_MM for y in places)
        return Spots("on each sawn end", "", (), mates, tuple(sides), on)
    high = body.joined[1]
    at = tuple(show.length((high - y) / deg.cos(end.mitre)) for y in places)
    return Spots("on each sawn end", body.sides.edge, at, mates)


def slope_of(end: EndCut) -> float:
    """How far a sawn end is off square to its stick altogether, degrees.

    The cut's normal is (cos t cos m, cos t sin m, sin t): cos = cos t · cos m.
    """
    along = deg.cos(end.tilt) * deg.cos(end.mitre)
    return math.degrees(math.atan2(math.sqrt(max(0.0, 1.0 - along * along)), along))


def _slopes(
    piece: Piece, index: int, sticks: tuple[StickPart, ...], bodies: tuple[Body, ...]
) -> dict[float, list[Joined]]:
    """The joined ends of a support's parts by their slope, to the ten-thousandth of a degree."""
    found: dict[float, list[Joined]] = {}
    mitred = isinstance(piece.supports[index], MitredFrames)
    for stick, body in zip(sticks, bodies, strict=True):
        if stick.support != index or not (stick.role in _ENTERED or (mitred and stick.role == "leg")):
            continue
        # A slab is joined at its far end, what has a foot at its near one, the rest at both.
        names = {"slab": ("finish",), "slab_leg": ("start",), "leg": ("start",)}
        for name in names.get(stick.role, ("start", "finish")):
            end = stick.start if name == "start" else stick.finish
            found.setdefault(round(slope_of(end), 4), []).append((stick, body, name))
    return found


def _slope_figure(key: str, label: str, on: Joined, note: str, show: Show) -> Figure:
    part, _, name = on
    end = part.start if name == "start" else part.finish
    return show.figure(
        key,
        label,
        slope_of(end),
        "cos σ = cos m · cos t",
        show.input("m", "sawn end, off square on the face", abs(end.mitre), "deg"),
        show.input("t", "sawn end, off square to the face", abs(end.tilt), "deg"),
        unit="deg",
        note=note,
    )


def _scene(dowels: Dowels, wide: str, show: Show) -> Scene:
    thick, deep = show.length(dowels.size).text, show.length(dowels.depth).text
    return JointHoles(wide, thick, deep, dowels.way == "dowel")


def _holes(
    piece: Piece,
    key: str,
    on: str,
    dowels: Dowels,
    slope: float,
    ends: list[Joined],
    tool: TiltingTable,
    show: Show,
) -> SetUp:
    """The table (or a wedge) tilts by the end's own slope, so that the end lies level."""
    note = "so that its sawn end lies level under the drill"
    parts = [part for part, _, _ in ends]
    keys = tuple(dict.fromkeys(part.key for part in parts))
    figure = _slope_figure(f"{key}.slope", "The part leans off plumb", ends[0], note, show)
    return plain_card(
        key,
        station_of(parts[0].role),
        "dowel",
        tool,
        f"Bore for dowels: {counted(parts)}",
        figure,
        "Lean the part off plumb by",
        _scene(dowels, f"{dowels.count} in a joint", show),
        lays=_held(ends),
        does=(
            _spots(piece, ends, dowels, show),
            Bit(show.length(dowels.size), show.length(dowels.depth), None),
        ),
        jig=(loose_length(on, dowels, show), figure),
        caution=_BORE,
        parts=keys,
        proofs=(proof_id("slot", on),),
    )


def _slots(
    piece: Piece,
    key: str,
    on: str,
    dowels: Dowels,
    slope: float,
    ends: list[Joined],
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
    parts = [part for part, _, _ in ends]
    keys = tuple(dict.fromkeys(part.key for part in parts))
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
            "w − d",
            show.input("w", "tenon, wide", dowels.width),
            show.input("d", "cutter", dowels.size),
        ),
        "Travel, stop to stop",
        _scene(dowels, wide, show),
        lays=_held(ends, down=True),
        does=(
            _spots(piece, ends, dowels, show),
            Plain(f"Slots {show.length(dowels.depth).text} deep, in passes, square to the sawn end."),
        ),
        jig=(
            loose_length(on, dowels, show),
            _slope_figure(f"{key}.fence", "Bevelled face on the fence", ends[0], fence, show),
        ),
        note=" ".join(notes),
        caution=_ROUTER,
        parts=keys,
        proofs=(proof_id("slot", on),),
    )


def loose_length(key: str, dowels: Dowels, show: Show) -> Figure:
    """A dowel or loose tenon: both depths less the room for glue at each end."""
    return show.figure(
        f"{key}.loose",
        "Dowel, long" if dowels.way == "dowel" else "Loose tenon, long",
        2.0 * (dowels.depth - dowels.gap),
        "2 · (k − g)",
        show.input("k", "depth in each part", dowels.depth),
        show.input("g", "room for glue at each end", dowels.gap),
        note="" if dowels.way == "dowel" else f"{show.length(dowels.width).text} wide over its rounds",
    )
