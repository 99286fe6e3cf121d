"""Every saw with a scale, and how it makes any sawn end come true: its dials, its reach, what helps.

A saw is one entry of `SAWS`; it knows of a cut only its two angles and the stock that passes through.
"""

from __future__ import annotations

from dataclasses import dataclass

from splay.quantity import Figure, Quantity, Show
from splay.quantity import degrees as deg
from splay.setups.dial import Dial, dial
from splay.setups.jigs import wedge
from splay.shop import BandSaw, MitreSaw, TableSaw
from splay.shop.scale import within_reach
from splay.work import lying
from splay.work.lays import OnSaw, Toward, Wedge

Saw = MitreSaw | TableSaw | BandSaw
SAWS = (MitreSaw, TableSaw, BandSaw)
SQUARE_DEG = 1e-6


@dataclass(frozen=True)
class SawMet:
    """A saw set for a cut. The setting is the figure that does the work: the swing, or the tilt where
    the cut is all tilt; `dials` holds both, in the order they are set, `swing` the first of them on the
    saw's own gauge."""

    name: str
    setting: Quantity
    dials: tuple[Dial, ...]
    jig: tuple[Figure, ...]
    note: str
    swing: Dial
    wedges: tuple[Wedge, ...]


def set_saw(
    tool: Saw,
    mitre: float,
    tilt: float,
    lays: tuple[OnSaw, ...],
    stock: tuple[float, float],
    show: Show,
    key: str,
) -> SawMet:
    """A saw set for a cut swung by `mitre` and tilted by `tilt`, degrees; `stock` wide and thick, mm."""
    swing = dial(_gauge(tool), tool.scale, min(mitre, tool.scale.reach), show)
    dials = [swing]
    jig: tuple[Figure, ...] = ()
    notes = []
    wedges: tuple[Wedge, ...] = ()
    if not within_reach(tool.scale, mitre):
        jig = wedge(mitre, tool.scale.reach, show, f"{key}.swing")
        ways = dict.fromkeys(lay.fence_longer for lay in lays)
        wedges = tuple(Wedge(jig[0].quantity, "fence", _thick(way), way) for way in ways)
        notes.append(
            f"{show.angle(mitre).text} off square is past its reach of "
            f"{show.angle(tool.scale.reach).text}: {lying.fence_wedges(wedges)}"
        )
    name = "Swing the saw to" if isinstance(tool, MitreSaw) else "Set the saw's mitre gauge to"
    setting = swing.reading
    if tilt > SQUARE_DEG:
        leans = "table" if isinstance(tool, BandSaw) else "blade"
        lean = dial(f"{tool.name}, {leans}", tool.tilt, min(tilt, tool.tilt.reach), show)
        dials.append(lean)
        if mitre <= SQUARE_DEG:
            dials.reverse()
            name, setting = f"Tilt the {leans} to", lean.reading
    if not within_reach(tool.tilt, tilt):
        # No wedge makes up for a tilt: what would be swung further is not sawn on it at all.
        wedges, jig = (), ()
        notes = [
            f"It tilts to {show.angle(tool.tilt.reach).text}, not to {show.angle(tilt).text}: saw this "
            "one by hand to knifed lines."
        ]
    notes += _stock(tool, tilt, stock, show)
    return SawMet(name, setting, tuple(dials), jig, " ".join(notes), swing, wedges)


def _gauge(tool: Saw) -> str:
    return tool.name if isinstance(tool, MitreSaw) else f"{tool.name}, mitre gauge"


BEYOND, AWAY = "end beyond the blade", "end away from the blade"


def _thick(fence_longer: bool | None) -> Toward:
    """The wedge turns the work further the way the saw is swung: its thick end lies away from the blade
    where the fence side comes out longer, else at the end beyond the blade."""
    return Toward("end", AWAY if fence_longer else BEYOND)


def _stock(tool: Saw, tilt: float, stock: tuple[float, float], show: Show) -> list[str]:
    wide, thick = stock
    if isinstance(tool, MitreSaw):
        if wide <= tool.widest:
            return []
        return [
            f"{show.length(wide).text} is wider than the {show.length(tool.widest).text} it cuts through."
        ]
    high = thick / deg.cos(min(tilt, 80.0))
    if high <= tool.tallest:
        return []
    return [
        f"{show.length(high).text} through the cut is more than the {show.length(tool.tallest).text} "
        "it passes."
    ]
