"""Set-up cards for shaping square stock: bevelled edges, half laps, feet cut out, aprons' tenons."""

from __future__ import annotations

import math
from collections.abc import Iterator

from splay.parts.stick import SQUARE_DEG, StickPart
from splay.quantity import Quantity, Show
from splay.setups.card import SetUp
from splay.setups.crosscut import station_of
from splay.setups.dial import Dial, dial
from splay.setups.plain_card import plain_card
from splay.setups.scenes import BetweenFeet, BevelledEdge, HalfLap
from splay.setups.words import counted
from splay.shop import BandSaw, HandPlane, Handsaw, TableSaw, Tool
from splay.shop.scale import within_reach
from splay.stance.body import Body, Void
from splay.stance.convex import Plane
from splay.work.does import Do, Plain, Write
from splay.work.joinery import CutOut, Notch
from splay.work.lays import OnSide
from splay.work.marks import Kind, Mark
from splay.work.phrases import listed, with_the
from splay.work.proofs import proof_id

_RIP = "Feather board and push stick; stand out of the blade's line; follow the saw's own manual."
_PLANE = "Work against a stop; both hands on the plane."


def stick_shapes(
    sticks: tuple[StickPart, ...], bodies: tuple[Body, ...], tool: Tool, show: Show
) -> Iterator[SetUp]:
    """Every card of one tool that shapes square stock without ending it."""
    yield from _bevels(sticks, bodies, tool, show)
    yield from _notches(sticks, bodies, tool, show)
    yield from _glued_cut_outs(sticks, bodies, tool, show)


def bevel(body: Body, rip: Plane) -> tuple[str, str, float]:
    """A bevelled edge by name, the face it leaves the wider, and how far off square it is, degrees.

    The wider face is the one the bevel's outward normal leans away from.
    """
    sides = body.sides
    edge = sides.edge if rip.normal[1] > 0 else sides.other_edge
    wider = sides.face if rip.normal[2] < 0 else sides.other_face
    return edge, wider, math.degrees(math.atan2(abs(rip.normal[2]), abs(rip.normal[1])))


def _bevels(
    sticks: tuple[StickPart, ...], bodies: tuple[Body, ...], tool: Tool, show: Show
) -> Iterator[SetUp]:
    """Long edges off square: by the blade's tilt, the table's, or a plane to a bevel gauge."""
    if not isinstance(tool, TableSaw | BandSaw | HandPlane):
        return
    groups: dict[str, list[tuple[StickPart, Body]]] = {}
    for stick, body in zip(sticks, bodies, strict=True):
        if stick.bevels:
            groups.setdefault(stick.alike, []).append((stick, body))
    for mates in groups.values():
        stick, body = mates[0]
        figure = stick.bevels[0]
        dials: tuple[Dial, ...] = ()
        note = ""
        if not isinstance(tool, HandPlane):
            off = figure.quantity.value
            dials = (dial(tool.name, tool.tilt, min(off, tool.tilt.reach), show),)
            if not within_reach(tool.tilt, off):
                note = f"It tilts to {show.angle(tool.tilt.reach).text} only: plane the rest to a gauge."
        lays = _sides(mates, isinstance(tool, HandPlane), show)
        keys = tuple(one.key for one, _ in mates)
        yield plain_card(
            f"rip.{stick.key}",
            station_of(stick.role),
            "rip",
            tool,
            f"Bevel the long edges of {counted(one for one, _ in mates)}",
            figure,
            "Tilt it to" if dials else "Plane to a gauge set at",
            BevelledEdge(
                _leans(body),
                figure.quantity.text,
                body.sides.face,
                body.sides.other_face,
                body.sides.edge,
                body.sides.other_edge,
            ),
            dials=dials,
            setting=dials[0].reading if dials else None,
            lays=lays,
            does=_how(mates),
            note=note,
            caution=_PLANE if isinstance(tool, HandPlane) else _RIP,
            parts=keys,
            proofs=(proof_id("rip", stick.key),),
            makes=tuple(Mark(Kind.FACES, key) for key in keys),
        )


def _leans(body: Body) -> tuple[float, float]:
    """How far the first and the second edge are off square, degrees: positive where the first face is left
    the wider there."""
    found = {1: 0.0, -1: 0.0}
    for rip in body.rips:
        off = math.degrees(math.atan2(-rip.normal[2], abs(rip.normal[1])))
        found[1 if rip.normal[1] > 0 else -1] = off if abs(off) > SQUARE_DEG else 0.0
    return found[1], found[-1]


def fence_for(body: Body, rip: Plane, planed: bool) -> float | None:
    """From the fence to where the blade leaves the table, the opposite edge along the fence, mm; None while
    that edge is still to be bevelled itself: then only what makes the bevel whole comes off.

    The face on the table is the one left the wider. The fence touches the opposite edge where it stands out
    most. Where it is `planed`, how wide that face itself then is.
    """
    z = (-1.0 if rip.normal[2] > 0 else 1.0) * body.thickness / 2.0
    mine = abs((rip.offset - rip.normal[2] * z) / rip.normal[1])
    bevels = [one for one in body.rips if bevel(body, one)[2] > SQUARE_DEG]
    later = bevels[bevels.index(rip) + 1 :]
    if any(one.normal[1] * rip.normal[1] < 0.0 for one in later):
        return None
    other = next((one for one in bevels if one.normal[1] * rip.normal[1] < 0.0), None)
    if other is None:
        return mine + body.width / 2.0
    tilt = other.normal[2] / other.normal[1]
    if planed:
        return mine + abs(other.offset / other.normal[1] - tilt * z)
    ends = [abs(other.offset / other.normal[1] - tilt * up * body.thickness / 2.0) for up in (-1.0, 1.0)]
    return mine + max(ends)


def _sides(mates: list[tuple[StickPart, Body]], planed: bool, show: Show) -> tuple[OnSide, ...]:
    """Edges that are bevelled with one face down, parts alike together."""
    found: dict[tuple[str, str], list[StickPart]] = {}
    angles: dict[tuple[str, str], Quantity] = {}
    fences: dict[tuple[str, str], Quantity | None] = {}
    for stick, body in mates:
        for rip in body.rips:
            edge, wider, off = bevel(body, rip)
            if off > SQUARE_DEG:
                found.setdefault((edge, wider), []).append(stick)
                angles[edge, wider] = show.angle(off)
                fence = fence_for(body, rip, planed)
                fences[edge, wider] = None if fence is None else show.fine(fence)
    return tuple(
        OnSide(
            tuple(s.key for s in parts),
            listed(s.name for s in parts),
            edge,
            wider,
            angles[edge, wider],
            planed,
            fences[edge, wider],
        )
        for (edge, wider), parts in found.items()
    )


def _how(mates: list[tuple[StickPart, Body]]) -> tuple[Do, ...]:
    body = mates[0][1]
    sides = body.sides
    names = (sides.face, sides.other_face, sides.edge, sides.other_edge)
    told: list[Do] = [
        Write(
            tuple(Mark(Kind.FACES, one.key) for one, _ in mates),
            f"Write on each first: {listed(names)}. Rip before cutting to length.",
        )
    ]
    two = [bevel(body, rip) for rip in body.rips if bevel(body, rip)[2] > SQUARE_DEG]
    if len(two) > 1:
        over = two[0][1] != two[1][1]
        told.append(
            Plain(
                "The two bevels run parallel: turn the stick over for the second."
                if over
                else "The two bevels close: the same face stays down for the second."
            )
        )
    return tuple(told)


def _notches(
    sticks: tuple[StickPart, ...], bodies: tuple[Body, ...], tool: Tool, show: Show
) -> Iterator[SetUp]:
    """Half laps and the space between two feet."""
    if not isinstance(tool, TableSaw | Handsaw | BandSaw):
        return
    done: set[str] = set()
    for stick, body in zip(sticks, bodies, strict=True):
        if stick.alike in done or len(stick.notches) < 2 or not body.voids or body.glued:
            continue
        void = body.voids[0]
        lap = void.kind == "lap"
        if lap == isinstance(tool, BandSaw):
            continue
        done.add(stick.alike)
        wide, deep = stick.notches[0], stick.notches[1]
        mates = [s for s in sticks if s.alike == stick.alike]
        made: Do = (
            notch(stick, body, void, wide.quantity, deep.quantity, show)
            if lap
            else CutOut(listed(s.name for s in mates), "outer face", wide.quantity, deep.quantity)
        )
        edge = body.sides.edge if void.edge > 0 else body.sides.other_edge
        yield plain_card(
            f"notch.{stick.key}",
            "stretchers" if lap else "legs",
            "notch",
            tool,
            f"Half lap in the {stick.name}" if lap else f"Between the feet of {counted(mates)}",
            deep,
            "Deep" if lap else "High, on the board",
            HalfLap(wide.quantity.text, deep.quantity.text, edge == "upper edge")
            if lap
            else BetweenFeet(wide.quantity.text, deep.quantity.text),
            does=(
                made,
                *((Plain("Scribe its width from the other rail itself."),) if lap else ()),
                Plain("Saw the cheeks just inside the lines, clear the waste, pare to the lines."),
            ),
            jig=(wide, *stick.notches[2:]),
            caution=_RIP if isinstance(tool, TableSaw) else "Chisel away from the holding hand.",
            parts=tuple(s.key for s in mates) if not lap else (stick.key,),
            proofs=(proof_id("notch", stick.key),),
            uses=(Mark(Kind.FACES, stick.key),),
        )


def _glued_cut_outs(
    sticks: tuple[StickPart, ...], bodies: tuple[Body, ...], tool: Tool, show: Show
) -> Iterator[SetUp]:
    """The space between two feet of sides glued from two boards: one card for the sides of a support."""
    if not isinstance(tool, BandSaw):
        return
    sides: dict[int, list[tuple[StickPart, Body]]] = {}
    for stick, body in zip(sticks, bodies, strict=True):
        if body.glued and len(stick.notches) > 1:
            sides.setdefault(body.support, []).append((stick, body))
    for mates in sides.values():
        stick, body = mates[0]
        wide, high = stick.notches[0], stick.notches[1]
        front, back = _from_seam(body)
        called = dict.fromkeys(one.whole for _, one in mates)
        named = listed(called)
        yield plain_card(
            f"cut_out.{stick.key}",
            "legs",
            "cut_out",
            tool,
            f"Between the feet of {listed(with_the(one) for one in called)}",
            high,
            "High, on the boards",
            BetweenFeet(wide.quantity.text, high.quantity.text, seam=True),
            does=(
                CutOut(
                    named,
                    "outer face",
                    wide.quantity,
                    high.quantity,
                    (show.length(front), show.length(back)),
                ),
                Plain("Saw the cheeks just inside the lines, clear the waste, pare to the lines."),
            ),
            jig=(wide,),
            caution="Chisel away from the holding hand.",
            parts=tuple(one.key for one, _ in mates),
            proofs=(proof_id("notch", stick.key),),
            uses=tuple(Mark(Kind.FACES, one.key) for one, _ in mates),
        )


def _from_seam(body: Body) -> tuple[float, float]:
    """From where to where the space between the feet goes, behind the seam or (negative) before it, mm."""
    void = next(one for one in body.voids if one.kind == "feet")
    seam = body.glued * body.width / 2
    behind = body.pose.across[1]
    places = [p.offset / p.normal[1] - seam for p in void.planes if abs(p.normal[1]) > 0.5]
    low, high = sorted(place * behind for place in places)
    return low, high


def notch(stick: StickPart, body: Body, void: Void, wide: Quantity, deep: Quantity, show: Show) -> Notch:
    """A half lap as it is told: from which edge, and to which end its cheeks lean on the marked face."""
    cheek = next(p for p in void.planes if abs(p.normal[0]) > 0.5)
    shift = -cheek.normal[2] / cheek.normal[0]
    turn = math.degrees(math.atan(abs(shift)))
    sides = body.sides
    return Notch(
        stick.name,
        sides.edge if void.edge > 0 else sides.other_edge,
        wide,
        deep,
        show.angle(turn),
        sides.face,
        "right end" if shift > 0 else "left end",
    )
