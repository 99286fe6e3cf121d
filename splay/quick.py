"""Quick set: one bench question answered without a piece, on the shop's own scales."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated

from splay.errors import BadInput, Fault
from splay.quantity import Figure, Quantity, Show
from splay.setups.boring import tool_scene
from splay.setups.compound import mitre_between
from splay.setups.dial import Dial, dial
from splay.setups.drills import PRESSES, Hole, boring_tools, set_for
from splay.setups.scenes import LegOnSaw, Scene, arc_of
from splay.shop import MitreSaw, Shop, Tool
from splay.shop.scale import within_reach
from splay.stance.lean import LeanAngles
from splay.summary import LeanFigures, lean_figures
from splay.work.lays import Toward
from splay.work.marks import UNSENT

NAMES: dict[str, tuple[str, str]] = {
    "splay": ("Splay", "splay"),
    "rake": ("Rake", "rake"),
    "resultant": ("Resultant", "resultant"),
    "from_side": ("From the left-right line", "sightline"),
    "from_centre": ("From the front-back line", "sightline"),
}
"""The names of a lean that may be typed, what each is called, and which of its four it says."""


@dataclass(frozen=True)
class QuickSetting:
    """One tool's answer: the setting on its scale, the jig's sizes, whether it reaches."""

    id: str
    operation: str
    way: str
    tool: str
    setting_name: str
    setting: Quantity
    dials: tuple[Dial, ...]
    jig: tuple[Figure, ...]
    in_reach: bool
    note: str
    scene: Annotated[Scene, UNSENT]


@dataclass(frozen=True)
class QuickLean:
    """A lean in all its names, and what to set for boring it and for cutting its foot."""

    lean: LeanFigures
    settings: tuple[QuickSetting, ...]


@dataclass(frozen=True)
class QuickMitre:
    """Where a rail meets a leaning leg: both cuts, and the saw's readings."""

    corner: Figure
    rail: Figure
    leg: Figure
    settings: tuple[QuickSetting, ...]


def quick_lean(shop: Shop, given: LeanAngles) -> QuickLean:
    """Every owned tool's setting for one lean against the top, and for a foot on a level floor."""
    show = Show(shop.rounding.units())
    rho = given.resultant
    made = []
    for tool in shop.owned():
        if isinstance(tool, MitreSaw):
            key = f"quick.{tool.id}.foot"
            made.append(_sawn(tool, key, "foot_cut", "Foot cut: swing the saw to", rho, show))
    made += [_bored(tool, rho, show) for tool in boring_tools(shop, "seat")]
    return QuickLean(lean_figures(given, "quick", (1.0, 1.0), show), tuple(made))


def _bored(tool: Tool, rho: float, show: Show) -> QuickSetting:
    """One drill set for a lean; the arrow on the sightline points the way the leg leans."""
    key = f"quick.{tool.id}"
    hole = Hole("seat", rho, rho, (), "underside", "upper face", Toward("arrow") if rho > 1e-9 else None)
    angle = show.figure(
        f"{key}.lean", "Lean", rho, "ρ", show.input("ρ", "true lean", rho, "deg"), unit="deg"
    )
    met = set_for(tool, hole, angle, show, key)
    sides = ("arrow: uphill", "plain end") if isinstance(tool, PRESSES) else ("arrow", "plain end")
    return QuickSetting(
        key,
        "bore",
        tool.kind,
        tool.name,
        met.name,
        met.setting,
        met.dials,
        met.jig,
        not met.note,
        met.note,
        tool_scene(tool, met, rho, *sides, show),
    )


def quick_mitre(shop: Shop, splay_deg: float, rail_mm: float, leg_mm: float) -> QuickMitre:
    """The mitre between a level rail and a leg that splays, the rail above the leg's outside.

    BadInput where a width is not above nought or the splay past 60 degrees.
    """
    for field, value in (("rail", rail_mm), ("leg", leg_mm)):
        if not 1 <= value <= 1000:
            raise BadInput(Fault(field, f"{value:g} mm", "1 to 1000 mm", "Measure its width again."))
    if not 0 <= splay_deg <= 60:
        raise BadInput(Fault("splay", f"{splay_deg:g}", "0° to 60°", "Give the leg's lean off plumb."))
    show = Show(shop.rounding.units())
    rail, leg = mitre_between(splay_deg, rail_mm, leg_mm)
    inputs = (
        show.input("G", "included angle, 90° + splay", 90.0 + splay_deg, "deg"),
        show.input("a", "width of the rail", rail_mm),
        show.input("b", "width of the leg", leg_mm),
    )
    made = [
        _sawn(
            tool,
            f"quick.mitre.{tool.id}.{part}",
            "mitre",
            f"{part.capitalize()}: swing the saw to",
            90.0 - cut,
            show,
        )
        for tool in shop.owned()
        if isinstance(tool, MitreSaw)
        for part, cut in (("rail", rail), ("leg", leg))
    ]
    return QuickMitre(
        show.figure(
            "quick.corner",
            "Included angle",
            90.0 + splay_deg,
            "90° + splay",
            show.input("s", "splay", splay_deg, "deg"),
            unit="deg",
        ),
        show.figure(
            "quick.rail",
            "Rail, cut to its length",
            rail,
            "tan φ = sin G / (b/a + cos G)",
            *inputs,
            unit="deg",
        ),
        show.figure(
            "quick.leg",
            "Leg, cut to its length",
            leg,
            "G − φ",
            inputs[0],
            show.input("φ", "rail's cut", rail, "deg"),
            unit="deg",
        ),
        tuple(made),
    )


def _sawn(tool: MitreSaw, key: str, operation: str, name: str, off: float, show: Show) -> QuickSetting:
    reaches = within_reach(tool.scale, off)
    rest = 90.0 - off
    note = ""
    if not reaches and within_reach(tool.scale, rest):
        # Past its reach the work lies against a block square to the fence: the saw is set to the rest.
        said = dial(tool.name, tool.scale, rest, show).reading.text
        note = (
            f"{show.angle(off).text} off square is past this saw's reach of "
            f"{show.angle(tool.scale.reach).text}: lay the work along a block that stands square to the "
            f"fence, and set the saw to {said} on its own scale."
        )
    elif not reaches:
        note = f"{show.angle(off).text} off square is past this saw's reach: knife it and saw it by hand."
    set_at = off if reaches else rest if within_reach(tool.scale, rest) else tool.scale.reach
    made = dial(tool.name, tool.scale, set_at, show)
    scene = LegOnSaw(made.off_square, arc_of(made), "fence: longer side", "shorter side", "work")
    return QuickSetting(
        key, operation, tool.kind, tool.name, name, made.reading, (made,), (), reaches, note, scene
    )
