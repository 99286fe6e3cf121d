"""Set-up cards for dowels and loose tenons: holes and slots square to the sawn end they enter."""

from __future__ import annotations

import math
from collections.abc import Iterator

from splay.parts.stick import SQUARE_DEG, EndCut, StickPart
from splay.piece import Dowels, Piece
from splay.piece.kinds import Lined, driven_through
from splay.quantity import Figure, Show
from splay.quantity import degrees as deg
from splay.setups.card import SetUp
from splay.setups.crosscut import end_name, station_of
from splay.setups.plain_card import plain_card
from splay.setups.scenes import JointHoles, Scene
from splay.setups.words import counted
from splay.shop import RouterTable, TiltingTable, Tool
from splay.stance.body import Body, shares
from splay.work.does import Bit
from splay.work.joinery import Slots, Spots
from splay.work.lays import EndDown, EndUp
from splay.work.phrases import listed
from splay.work.proofs import proof_id

_ROUTER = "Never stand long stock on end at a router: use another bit, or a jig that holds it flat."
_BORE = "Clamp the part to an upright board or a block on the table; follow the drill's own manual."
_ENTERED = {"cross", "rail", "link", "tread", "slab_leg", "slab"}
"""Roles both of whose joined ends take dowels; a mitred leg takes them at its mitre too."""


ON_LINE_MM = 0.05
"""A dowel this near the middle line stands on it."""
Ended = tuple[StickPart, Body, str]
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
    for index, joined in piece.joined():
        on, dowels = piece.supports[index].id, joined.dowels
        if dowels.way != wanted or driven_through(piece.supports[index]):
            continue
        keys: set[str] = set()
        for ends in _alike(index, joined.mitred, sticks, bodies):
            for mates in [ends] if isinstance(tool, TiltingTable) else _on_one_fence(ends):
                part, _, name = mates[0]
                key = f"{dowels.way}.{part.key}"
                if key in keys:
                    # Its other end is cut at another slope, or bears other parts' company.
                    key = f"{key}.{name}"
                keys.add(key)
                if isinstance(tool, TiltingTable):
                    yield _holes(piece, key, on, dowels, mates, tool, show)
                else:
                    yield _slots(piece, key, on, dowels, mates, tool, show)


def end_up(part: StickPart, body: Body, name: str) -> EndUp:
    """How a stick is held for its sawn end to lie level: leaning towards the sides it left longer."""
    end, sides = (part.start if name == "start" else part.finish), body.sides
    leans = []
    if abs(end.mitre) > SQUARE_DEG:
        leans.append(sides.edge if end.mitre > 0 else sides.other_edge)
    if abs(end.tilt) > SQUARE_DEG:
        leans.append(sides.face if end.tilt > 0 else sides.other_face)
    return EndUp((part.key,), part.name, end_name(part.role, name), tuple(leans))


def end_down(part: StickPart, body: Body, name: str) -> EndDown:
    """How a stick stands on its sawn end along a fence: on the face that looks down."""
    end, sides = (part.start if name == "start" else part.finish), body.sides
    # Over the side the cut left shorter: upside down it leans the other way.
    face = sides.other_face if end.tilt > SQUARE_DEG else sides.face
    along = ""
    if abs(end.mitre) > SQUARE_DEG:
        along = sides.other_edge if end.mitre > 0 else sides.edge
    return EndDown((part.key,), part.name, end_name(part.role, name), face, along)


def _on_one_fence(ends: list[Ended]) -> list[list[Ended]]:
    """Ends of one slope that want the same fence: as thick, leaning as much over it and along it."""
    found: dict[tuple[float, ...], list[Ended]] = {}
    for part, body, name in ends:
        end = part.start if name == "start" else part.finish
        key = (round(abs(end.tilt), 4), round(abs(end.mitre), 4), round(body.thickness, 4))
        found.setdefault(key, []).append((part, body, name))
    return list(found.values())


def _stood(ends: list[Ended]) -> tuple[EndDown, ...]:
    """Ends that stand alike share one lay."""
    found: dict[tuple[object, ...], list[EndDown]] = {}
    for one in ends:
        lay = end_down(*one)
        found.setdefault((lay.end, lay.face, lay.along), []).append(lay)
    return tuple(
        EndDown(
            tuple(key for lay in mates for key in lay.parts), listed(lay.named for lay in mates),
            mates[0].end, mates[0].face, mates[0].along,
        )
        for mates in found.values()
    )  # fmt: skip


def _held(ends: list[Ended]) -> tuple[EndUp, ...]:
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
        )
        for mates in found.values()
    )


def _spots(piece: Piece, ends: list[Ended], dowels: Dowels, show: Show) -> Spots:
    """Evenly over the sawn end: n shares of its width, a middle in each, halfway through its thickness.

    Where the tree grew its edges they are measured from its middle line, to either side.
    """
    part, body, name = ends[0]
    end = part.start if name == "start" else part.finish
    lined = isinstance(piece.supports[part.support], Lined)
    dry = "with the joint closed dry on its lines" if lined else "with the joint closed dry"
    how = "both ends of a slot carried over with a square" if dowels.way == "loose_tenon" else ""
    mates = f"Its mate is marked from it: {how or 'points pressed out of the holes'} {dry}."
    places = shares(body, dowels.count)
    if any(one.grown for _, one, _ in ends):
        sides = []
        for side, edge in ((1, body.sides.edge), (-1, body.sides.other_edge)):
            there = sorted(side * y for y in places if side * y > ON_LINE_MM)
            sides.append((edge, tuple(show.length(y / deg.cos(end.mitre)) for y in there)))
        on = any(abs(y) <= ON_LINE_MM for y in places)
        return Spots("on each sawn end", "", (), mates, tuple(sides), on)
    sweep = body.sweep
    if sweep is not None and sweep.band:
        # Its upper edge is not there yet, and will not run to the end's corner.
        at = tuple(show.length(abs(sweep.low - y) / deg.cos(end.mitre)) for y in places)
        return Spots("on each sawn end", body.sides.named((sweep.down, 0)), at, mates)
    high = body.joined[1]
    at = tuple(show.length((high - y) / deg.cos(end.mitre)) for y in places)
    # Parts name their edges each in its own way; shares alike lie as far from the one as from the other.
    edges = {one.sides.edge for _, one, _ in ends}
    return Spots("on each sawn end", edges.pop() if len(edges) == 1 else "", at, mates)


def slope_of(end: EndCut) -> float:
    """How far a sawn end is off square to its stick altogether, degrees.

    The cut's normal is (cos t cos m, cos t sin m, sin t): cos = cos t · cos m.
    """
    along = deg.cos(end.tilt) * deg.cos(end.mitre)
    return math.degrees(math.atan2(math.sqrt(max(0.0, 1.0 - along * along)), along))


def _alike(
    index: int, mitred: bool, sticks: tuple[StickPart, ...], bodies: tuple[Body, ...]
) -> list[list[Ended]]:
    """The joined ends of a support's parts that one setting and the same places do for: of one slope, to
    the ten-thousandth of a degree, and as wide along the cut. The least slope first."""
    found: dict[tuple[float, ...], list[Ended]] = {}
    for stick, body in zip(sticks, bodies, strict=True):
        if stick.support != index or not (stick.role in _ENTERED or (mitred and stick.role == "leg")):
            continue
        # A slab is joined at its far end, what has a foot at its near one, the rest at both.
        names = {"slab": ("finish",), "slab_leg": ("start",), "leg": ("start",)}
        for name in names.get(stick.role, ("start", "finish")):
            end = stick.start if name == "start" else stick.finish
            low, high = body.joined
            if body.sweep is not None and body.sweep.band:
                # Measured from the lower edge, whichever way up they are called.
                low, high = 0.0, high - low
            key = (round(slope_of(end), 4), round(abs(end.mitre), 4), round(low, 3), round(high, 3))
            found.setdefault(key, []).append((stick, body, name))
    return [found[key] for key in sorted(found, key=lambda one: one[0])]


def _slope_figure(key: str, label: str, on: Ended, note: str, show: Show) -> Figure:
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
    ends: list[Ended],
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
    ends: list[Ended],
    tool: RouterTable,
    show: Show,
) -> SetUp:
    """Slots for loose tenons, square to the end: it stands on it, its face on the fence.

    Leaning over the fence by the cut's tilt, along it by its mitre: the end then lies flat.
    """
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
    part, body, name = ends[0]
    end = part.start if name == "start" else part.finish
    figures = [_from_fence(key, body, abs(end.tilt), show)]
    back = along = None
    if abs(end.tilt) > SQUARE_DEG:
        figures.append(_lean(f"{key}.fence", "Fence's face, leaning back off plumb", end.tilt, "t", show))
        back = figures[-1].quantity
    if abs(end.mitre) > SQUARE_DEG:
        block = "Block that carries the part, its edge off plumb"
        figures.append(_lean(f"{key}.block", block, end.mitre, "m", show))
        along = figures[-1].quantity
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
        lays=_stood(ends),
        does=(
            _spots(piece, ends, dowels, show),
            Slots(show.length(dowels.depth), figures[0].quantity, back, along),
        ),
        jig=(loose_length(on, dowels, show), *figures),
        note=" ".join(notes),
        caution=_ROUTER,
        parts=keys,
        proofs=(proof_id("slot", on),),
    )


def _from_fence(key: str, body: Body, tilt: float, show: Show) -> Figure:
    """The middle of a part's thickness on the table, from where its face meets it on the fence."""
    thick = show.input("t", "thickness", body.thickness)
    label = "Fence's foot to the cutter's middle"
    if tilt <= SQUARE_DEG:
        return show.figure(f"{key}.off", label, body.thickness / 2.0, "t / 2", thick)
    return show.figure(
        f"{key}.off", label, body.thickness / 2.0 / deg.cos(tilt), "t / (2 · cos τ)", thick,
        show.input("τ", "fence's face off plumb", tilt, "deg"), note="along the table",
    )  # fmt: skip


def _lean(key: str, label: str, angle: float, sign: str, show: Show) -> Figure:
    on = "off square to the face" if sign == "t" else "off square on the face"
    given = show.input(sign, f"sawn end, {on}", abs(angle), "deg")
    return show.figure(key, label, abs(angle), sign, given, unit="deg")


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
