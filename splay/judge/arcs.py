"""What can go wrong with an arc between legs: short grain, screws and links that find no wood there."""

from __future__ import annotations

import math
from collections.abc import Iterator

from splay.judge.finding import Finding, found
from splay.quantity import Show
from splay.quantity import degrees as deg
from splay.stance.body import Body
from splay.stance.holding import Fastening
from splay.stance.staked import Stance
from splay.stance.sweep import Sweep
from splay.stance.vectors import along

STEEP_DEG = 20.0
"""Where a bent piece runs further off its grain than this it breaks across short fibres (common practice,
no source)."""
FLAT_MM = 0.5


def arcs(stance: Stance, screws: tuple[Fastening, ...], show: Show) -> Iterator[Finding]:
    """Of each piece between legs that is sawn to an arc all that is wrong with it, once for those alike."""
    told: set[str] = set()
    for body in stance.bodies:
        if body.sweep is None or body.alike in told:
            continue
        told.add(body.alike)
        field = f"supports.{body.support}.{body.sweep.field}"
        if body.sweep.band:
            yield from _short_grain(body, body.sweep, field, show)
        yield from _held(body, body.sweep, screws, show)
        yield from _links(stance, body, body.sweep, show)


def _short_grain(body: Body, sweep: Sweep, field: str, show: Show) -> Iterator[Finding]:
    steep = math.degrees(math.asin(sweep.chord / 2.0 / sweep.radius))
    if steep > STEEP_DEG:
        # Half the angle at the ends has the tangent rise over half the chord.
        most = sweep.chord / 2.0 * deg.tan(STEEP_DEG / 2.0)
        yield found(
            "arc_short_grain", "caution",
            f"At its ends the {body.name} runs {show.angle(steep).text} off its grain: it breaks there.",
            f"Let it rise {show.length(most).text} at most, leave its upper edge straight, or saw it from "
            "wood that grew bent.",
            show.angle(steep), show.angle(STEEP_DEG), field, station="stance",
        )  # fmt: skip


def _held(body: Body, sweep: Sweep, screws: tuple[Fastening, ...], show: Show) -> Iterator[Finding]:
    """Screws that would start from the arched edge, or where its wood is gone."""
    for one in screws:
        if one.body.key != body.key:
            continue
        start = body.pose.within(along(one.at, one.way, -one.through))
        away = start[0] - sweep.middle
        edge = sweep.low - sweep.down * (sweep.up(away) if abs(away) < sweep.chord / 2.0 else 0.0)
        left = sweep.down * (edge - start[1]) - one.screw.head / 2.0
        if one.entry == (sweep.down, 0) or left < 0.0:
            yield found(
                "arc_screwed", "stop",
                f"A screw of the {body.name} starts where its edge is sawn to an arc: no head sits there, "
                "and it stands out further than told.",
                "Give the screws a slant: they start from its inner face then. Or hold the top by buttons.",
                show.length(max(0.0, -left)), show.length(0.0), f"supports.{body.support}.held.slant",
            )  # fmt: skip
            return


def _links(stance: Stance, body: Body, sweep: Sweep, show: Show) -> Iterator[Finding]:
    """Links under the top that come to a bent piece beside its crown."""
    if not sweep.band or abs(body.pose.out((0.0, -sweep.down * body.width / 2.0, 0.0))[2]) > 1.0:
        return
    for link in (one for one in stance.bodies if one.role == "link" and one.support == body.support):
        x = body.pose.within(link.pose.origin)[0]
        gone = max(sweep.below(abs(x - sweep.middle) + s * link.width / 2.0) for s in (-1.0, 1.0))
        if gone > FLAT_MM:
            yield found(
                "arc_links", "stop",
                f"The {link.name} comes to the {body.name} where that has bent {show.length(gone).text} "
                "away from the top.",
                "Leave its upper edge straight, or take one link, in the middle.", show.length(gone),
                show.length(FLAT_MM), f"supports.{body.support}.links",
            )  # fmt: skip
            return
