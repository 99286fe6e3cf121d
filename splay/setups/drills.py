"""Every tool that bores, and how it makes any hole come true: what is set, how it is held, how far it goes.

A tool is one entry of `DRILLS`; it knows of a hole only what `Hole` says.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from typing import Any, Literal

from splay.quantity import Figure, Quantity, Show
from splay.quantity import degrees as deg
from splay.setups.dial import Dial, dial
from splay.setups.jigs import block_angle, block_setback, ramp_spacer, wedge
from splay.shop import (
    AngleGuide,
    BevelGauge,
    DigitalGauge,
    GuideBlock,
    OppositeLeg,
    Protractor,
    Ramp,
    Shop,
    TiltingTable,
    Tool,
)
from splay.shop.scale import within_reach
from splay.work import lying
from splay.work.lays import ByHand, Lay, OnTilt, Toward, Wedge
from splay.work.marks import Mark

CLAMP = (
    "Clamp the seat: a large bit can seize it and spin it. Keep hands out of its swing, and "
    "follow the drill's own manual."
)
BRACE = (
    "Brace for the bit to catch, clamp the seat, keep the other hand out from under it; "
    "follow the drill's own manual."
)
CRADLE = (
    "Round stock rolls: lay the stick in a V for its whole length and clamp it; follow the drill's "
    "own manual."
)
HOLD = "Clamp the work, brace for the bit to catch, keep the other hand out of its way."
_DRAWN_MM = 100.0


@dataclass(frozen=True)
class Hole:
    """A hole to bore in a part, as every drill needs to know it.

    `lean` is off square to the part (to the face, or to the stick's middle line), `on_surface` the same
    against the surface a gauge stands on, degrees: they differ on a tapered stick. `at` are the marks
    it is bored at, `up` and `down` the faces turned so (empty on a stick), `leans` what the way out of
    the hole leans to, None for a square one; `sight` the marks opposite; `flat` that a stick has flats;
    `carriers` the stretchers among what is bored and what is aimed at.
    """

    on: Literal["seat", "stick", "batten"]
    lean: float
    on_surface: float
    at: tuple[Mark, ...]
    up: str
    down: str
    leans: Toward | None
    sight: tuple[Mark, ...] = ()
    flat: bool = False
    carriers: str = ""


@dataclass(frozen=True)
class Met:
    """A tool set for a hole: the setting by name and figure, its dials, jig sizes, what keeps it from
    getting there, how the work lies, the usual caution."""

    name: str
    setting: Quantity
    dials: tuple[Dial, ...]
    jig: tuple[Figure, ...]
    note: str
    lay: Lay
    caution: str
    wedges: tuple[Wedge, ...] = ()


def boring_tools(shop: Shop, hole: Literal["seat", "stick", "rope"]) -> Iterator[Tool]:
    """The owned tools that bore such a hole.

    A rope's hole points past the other legs: none of them is its sight.
    """
    kinds = _ON[hole]
    for tool in shop.owned():
        if isinstance(tool, kinds):
            yield tool


def set_for(tool: Tool, hole: Hole, angle: Figure, show: Show, key: str) -> Met:
    """A tool set for a hole; `angle` is the figure shown where the tool has no scale of its own."""
    return DRILLS[type(tool)](tool, hole, angle, show, key)


def _past(note: str, reach: float, off: float, show: Show) -> str:
    return f"{show.angle(off).text} off square is past its reach of {show.angle(reach).text}: {note}"


def _table(tool: TiltingTable, hole: Hole, angle: Figure, show: Show, key: str) -> Met:
    made = dial(tool.name, tool.scale, min(hole.lean, tool.scale.reach), show)
    jig: tuple[Figure, ...] = ()
    note = ""
    wedges: tuple[Wedge, ...] = ()
    if hole.leans is not None and not within_reach(tool.scale, hole.lean):
        jig = wedge(hole.lean, tool.scale.reach, show, key)
        under: Literal["work", "cradle"] = "work" if hole.on == "seat" else "cradle"
        wedges = (Wedge(jig[0].quantity, under, hole.leans),)
        note = _past(lying.wedge(wedges[0]), tool.scale.reach, hole.lean, show)
    caution = CLAMP if hole.on == "seat" else CRADLE
    lay = OnTilt(hole.at, hole.down, hole.leans, hole.on == "stick" and not hole.flat)
    return Met("Tilt the table to", made.reading, (made,), jig, note, lay, caution, wedges)


def _ramp(tool: Ramp, hole: Hole, angle: Figure, show: Show, key: str) -> Met:
    spacer = ramp_spacer(tool, hole.lean, show, key)
    note = _steep(tool.name, hole.lean, tool.reach, show)
    lay = OnTilt(hole.at, hole.down, hole.leans)
    return Met(spacer.label, spacer.quantity, (), (spacer,), note, lay, CLAMP)


def _steep(name: str, lean: float, reach: float, show: Show) -> str:
    if lean <= reach + 1e-6:
        return ""
    return (
        f"{show.angle(lean).text} is more than the {name.lower()} is good for "
        f"({show.angle(reach).text}). Use a tilting table with a wedge, or a bevel gauge and a "
        "hand drill."
    )


def _block(tool: GuideBlock, hole: Hole, angle: Figure, show: Show, key: str) -> Met:
    sawn = block_angle(hole.lean, show, key)
    note = _steep(tool.name, hole.lean, tool.reach, show)
    lay = _by_hand(hole, "block")
    jig = (sawn, block_setback(tool, hole.lean, show, key))
    return Met(sawn.label, sawn.quantity, (), jig, note, lay, BRACE)


def _by_hand(hole: Hole, holder: Any, zero: Any = "") -> ByHand:
    along = _ALONG[hole.on]
    sight = hole.sight if holder == "opposite" else ()
    dry = hole.carriers if holder == "opposite" else ""
    return ByHand(hole.at, holder, hole.up, along, hole.leans, sight, zero, dry)


def _guide(tool: AngleGuide, hole: Hole, angle: Figure, show: Show, key: str) -> Met:
    made = dial(tool.name, tool.scale, min(hole.on_surface, tool.scale.reach), show)
    jig: tuple[Figure, ...] = ()
    wedges: tuple[Wedge, ...] = ()
    note = ""
    if hole.leans is not None and not within_reach(tool.scale, hole.on_surface):
        jig = wedge(hole.on_surface, tool.scale.reach, show, key)
        # Guide and work tilt together on a wedge under the work: it must lie between the two.
        away = _other(hole.leans)
        wedges = (Wedge(jig[0].quantity, "guide", away),)
        note = _past(lying.wedge(wedges[0]), tool.scale.reach, hole.on_surface, show)
    lay = _by_hand(hole, "guide")
    return Met("Set the guide to", made.reading, (made,), jig, note, lay, BRACE, wedges)


def _other(way: Toward) -> Toward:
    """The other way along the same line."""
    if way.by == "side":
        return Toward("side", "lower face")
    return Toward("tail" if way.by == "arrow" else "arrow", way.name)


def _gauge(name: str, holder: str) -> Callable[[Any, Hole, Figure, Show, str], Met]:
    """A gauge that stands on the work beside the drill; past its scale it is set from a drawing."""

    def met(tool: Any, hole: Hole, angle: Figure, show: Show, key: str) -> Met:
        off = hole.on_surface
        made = dial(tool.name, tool.scale, min(off, tool.scale.reach), show)
        jig: tuple[Figure, ...] = ()
        note = ""
        if not within_reach(tool.scale, off):
            jig = (_from_drawing(off, show, key),)
            said = "draw the angle with a rule and set the gauge to the drawing."
            note = _past(said, tool.scale.reach, off, show)
        zero = ""
        if isinstance(tool, DigitalGauge):
            zero = "square" if tool.scale.at_square == 0 else "flat"
        caution = BRACE if hole.on == "seat" else HOLD
        return Met(name, made.reading, (made,), jig, note, _by_hand(hole, holder, zero), caution)

    return met


def _from_drawing(off: float, show: Show, key: str) -> Figure:
    """A steep angle by a rule: for so much along the work's line, so much square up from it."""
    return show.figure(
        f"{key}.drawn",
        f"For {show.length(_DRAWN_MM).text} along the work, up by",
        _DRAWN_MM * deg.tan(90.0 - off),
        "run · tan (90° − ρ)",
        show.input("run", "along the work's line", _DRAWN_MM),
        show.input("ρ", "off square", off, "deg"),
    )


def _opposite(tool: OppositeLeg, hole: Hole, angle: Figure, show: Show, key: str) -> Met:
    lay = _by_hand(hole, "opposite")
    return Met("Between the sticks, acute", angle.quantity, (), (), "", lay, HOLD)


DRILLS: dict[type[Any], Callable[[Any, Hole, Figure, Show, str], Met]] = {
    BevelGauge: _gauge("Set the bevel gauge to", "gauge"),
    TiltingTable: _table,
    Ramp: _ramp,
    GuideBlock: _block,
    AngleGuide: _guide,
    DigitalGauge: _gauge("Bore when the gauge shows", "digital"),
    Protractor: _gauge("Set the protractor to", "protractor"),
    OppositeLeg: _opposite,
}
PRESSES = (TiltingTable, Ramp)
HAND_HELD = (BevelGauge, GuideBlock, AngleGuide, DigitalGauge)
_ALONG: dict[str, Literal["sightline", "surface", "across"]] = {
    "seat": "sightline",
    "stick": "surface",
    "batten": "across",
}
_SEAT = (BevelGauge, TiltingTable, Ramp, GuideBlock, AngleGuide, DigitalGauge)
_ROPE = (Protractor, BevelGauge, TiltingTable, DigitalGauge)
_ON: dict[str, tuple[type[Any], ...]] = {"seat": _SEAT, "stick": (OppositeLeg, *_ROPE), "rope": _ROPE}
