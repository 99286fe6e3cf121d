"""Blocks, ramps and wedges at full size, as the shop's own tools ask for them."""

from __future__ import annotations

from collections.abc import Iterator

from splay.patterns.pattern import Pattern, arrow, pattern, ring, words
from splay.piece import Piece
from splay.quantity import Show
from splay.quantity import degrees as deg
from splay.setups.groups import Group, boring_groups
from splay.setups.jigs import SPACERS, WEDGE_RUN_MM
from splay.setups.spacer import spacer_height
from splay.shop import AngleGuide, GuideBlock, Ramp, Shop, TiltingTable
from splay.stance.members import MemberStance, acute, behind
from splay.stance.staked import Stance
from splay.stance.vectors import Flat
from splay.stance.wedges import wedge_made
from splay.views.shapes import Shape, ellipse, text
from splay.work.phrases import listed

BASE_MM = 110.0
"""How long a guide block stands on the work (common practice, no source)."""
WEDGE_GAP_MM = 6.0
"""Between a wedge's face and its side on the sheet."""
CLAMP_MM = 60.0
"""How long a clamping block lies on the leg (common practice, no source)."""
LEAST_MM = 8.0
"""Its thin end: thinner splits (common practice, no source)."""
SQUARE_DEG = 0.3
"""A stick so near square wants no block under a clamp (common practice, no source)."""


def block_patterns(
    stance: Stance, runs: tuple[MemberStance, ...], shop: Shop, show: Show
) -> Iterator[Pattern]:
    """What the boring wants on the tools there are, then what keeps a clamp square to a stretcher."""
    for group in boring_groups(stance):
        rho = group.first.boring.resultant
        if rho < SQUARE_DEG:
            continue
        for tool in shop.owned():
            if isinstance(tool, GuideBlock) and rho <= tool.reach:
                yield _guide(tool, group, rho, show)
            elif isinstance(tool, Ramp) and rho <= tool.reach:
                yield _ramp(tool, group, rho, show)
            elif isinstance(tool, TiltingTable | AngleGuide) and rho > tool.scale.reach:
                yield _wedge(tool.id, tool.name, group, rho - tool.scale.reach, show)
    yield from _clamping(runs, show)


def wedge_patterns(piece: Piece, stance: Stance, show: Show) -> Iterator[Pattern]:
    """Each size of wedge by its face and, below it, by its side."""
    found: dict[tuple[float, float, float], list[int]] = {}
    for leg in stance.legs:
        made = wedge_made(piece, leg)
        if made is not None:
            key = (round(made.wide, 2), round(made.long, 2), round(made.butt, 2))
            found.setdefault(key, []).append(leg.number)
    for k, ((wide, long, butt), numbers) in enumerate(sorted(found.items()), 1):
        made = next(one for leg in stance.legs if leg.number in numbers and (one := wedge_made(piece, leg)))
        edge, low = made.wedge.edge, -WEDGE_GAP_MM - butt / 2
        side: list[Flat] = [
            (0.0, low + butt / 2),
            (long, low + edge / 2),
            (long, low - edge / 2),
            (0.0, low - butt / 2),
        ]
        named = listed(f"leg {number}" for number in numbers)
        shapes: list[Shape] = [
            ring("cut", [(0.0, 0.0), (long, 0.0), (long, wide), (0.0, wide)]),
            ring("cut", side),
            words((long / 2, wide / 2), named),
        ]
        told = (
            f"Its face {show.length(wide).text} wide, below it its side: {show.closely(butt).text} at its "
            f"butt, {show.closely(edge).text} at its edge.",
            f"{len(numbers)} of them and one over, grain along them.",
        )
        yield pattern(f"wedge.{k}", "blocks", f"Wedge for {named}", told, shapes)


def _guide(tool: GuideBlock, group: Group, rho: float, show: Show) -> Pattern:
    """A block whose leaning face guides the bit: its corner at the base is 90° − ρ."""
    high = tool.height
    over = high * deg.tan(rho)
    block: list[Flat] = [(0.0, 0.0), (BASE_MM, 0.0), (BASE_MM, high), (over, high)]
    shapes: list[Shape] = [
        ring("cut", block),
        words(((over + BASE_MM) / 2.0, high * 0.62), group.named()),
        words(((over + BASE_MM) / 2.0, high * 0.4), f"{show.angle(90.0 - rho).text} at this corner"),
        words((BASE_MM / 2.0, 3.0), "stands on the seat"),
    ]
    return pattern(
        f"guide.{group.first.id}.{tool.id}",
        "blocks",
        f"Guide block for {group.named()}",
        (
            "Paste it on the side of the block and saw to the slanting line; how it stands by the hole "
            "says its card at Boring.",
        ),
        shapes,
    )


def _ramp(tool: Ramp, group: Group, rho: float, show: Show) -> Pattern:
    """The spacer's end of a ramp: only the spacer is full size, the ramp itself is as long as it is."""
    rise = spacer_height(tool.spacer, tool.base, rho)
    name = f"{group.named()}: {show.angle(rho).text}"
    if tool.spacer == "bar":
        shapes: list[Shape] = [
            ellipse("cut", (0.0, 0.0), (rise / 2.0, rise / 2.0)),
            words((0.0, 0.0), name),
        ]
        what = "bar"
        said = f"bar, {show.length(rise).text} across, {show.length(tool.base).text} from the hinge"
    else:
        wide = 40.0
        lean = rise + wide * deg.tan(rho)
        # Standing plumb its sloped end is under the ramp; square to the ramp it stands on it.
        corners: list[Flat] = [(0.0, 0.0), (wide, 0.0), (wide, lean), (0.0, rise)]
        end = "stands on the base" if tool.spacer == "square_ramp" else "goes under the ramp"
        shapes = [
            ring("cut", corners),
            text("label", (wide / 2.0, rise * 0.6), name),
            text("label", (wide / 2.0, rise * 0.3), "hinge this way", anchor="middle"),
            *arrow("pointer", (wide * 0.4, rise * 0.2), (2.0, rise * 0.2)),
        ]
        what = "spacer"
        said = (
            f"spacer, {show.length(rise).text} at its edge nearest the hinge; its sloped end {end}. "
            f"That edge {show.length(tool.base).text} from the hinge"
        )
    return pattern(
        f"ramp.{group.first.id}.{tool.id}",
        "blocks",
        f"Ramp's {what} for {group.named()}",
        (f"A {said} of {tool.name}, {SPACERS[tool.spacer][2]}.",),
        shapes,
    )


def _wedge(id: str, name: str, group: Group, rest: float, show: Show) -> Pattern:
    """What makes up for a reach that ends too soon."""
    rise = WEDGE_RUN_MM * deg.tan(rest)
    shapes: list[Shape] = [
        ring("cut", [(0.0, 0.0), (WEDGE_RUN_MM, 0.0), (WEDGE_RUN_MM, rise + LEAST_MM), (0.0, LEAST_MM)]),
        words((WEDGE_RUN_MM / 2.0, LEAST_MM / 3.0), f"{group.named()}: {show.angle(rest).text}"),
    ]
    return pattern(
        f"wedge.{group.first.id}.{id}",
        "blocks",
        f"Make-up wedge for {group.named()}",
        (f"Lies on {name}, set at the end of its travel. Which end is uphill says its card at Boring.",),
        shapes,
    )


def _clamping(runs: tuple[MemberStance, ...], show: Show) -> Iterator[Pattern]:
    """A block for each angle at which a stretcher meets what it goes into: a clamp then pulls along it."""
    found: dict[float, list[str]] = {}
    for run in runs:
        for end in run.ends:
            off = round(90.0 - acute(behind(end.opening, end.opening_on)), 1)
            if off >= SQUARE_DEG:
                into = f"leg {end.leg}" if end.leg else f"stretcher {end.member}"
                found.setdefault(off, []).append(into)
    for k, (off, names) in enumerate(sorted(found.items()), 1):
        rise = CLAMP_MM * deg.tan(off)
        shapes: list[Shape] = [
            ring("cut", [(0.0, 0.0), (CLAMP_MM, 0.0), (CLAMP_MM, LEAST_MM + rise), (0.0, LEAST_MM)]),
            words((CLAMP_MM / 2.0, LEAST_MM / 3.0), f"{show.angle(off).text}"),
        ]
        whose = listed(sorted(set(names)))
        yield pattern(
            f"clamp.{k}",
            "blocks",
            f"Clamping block, {show.angle(off).text}",
            (
                f"Its sloped face on {whose}, opposite the stretcher that goes in there, the clamp on its "
                "other face: it then pulls along that stretcher. Its thick end lies towards that end of "
                "what it lies on at which that stretcher makes the acute angle.",
            ),
            shapes,
        )
