"""Set-up cards for shaping square stock: bevelled edges, half laps, feet cut out."""

from __future__ import annotations

from collections.abc import Iterator

from splay.parts.stick import StickPart
from splay.quantity import Show
from splay.setups.card import Dial, Scene, SetUp
from splay.setups.crosscut import station_of
from splay.setups.dial import dial
from splay.setups.plain_card import plain_card
from splay.setups.words import counted
from splay.shop import BandSaw, HandPlane, Handsaw, TableSaw, Tool
from splay.shop.scale import within_reach
from splay.stance.body import Body

_RIP = "Feather board and push stick; stand out of the blade's line; follow the saw's own manual."
_PLANE = "Work against a stop; both hands on the plane."


def stick_shapes(
    sticks: tuple[StickPart, ...], bodies: tuple[Body, ...], tool: Tool, k: int, show: Show
) -> Iterator[SetUp]:
    """Every card of one tool that shapes square stock without ending it; `k` its place in the shop."""
    yield from _bevels(sticks, bodies, tool, k, show)
    yield from _laps(sticks, bodies, tool, k, show)


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
        yield plain_card(
            key,
            station_of(stick.role),
            "rip",
            tool,
            f"Bevel the long edges of {counted(s for s in sticks if s.alike == stick.alike)}",
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
        yield plain_card(
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
