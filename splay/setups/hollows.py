"""Set-up cards and proof for the hollow of a top: scooped to depth holes, routed on runners, sawn along
a line."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import replace
from itertools import pairwise
from typing import cast

from splay.layout.hollows import radius_figure
from splay.piece import Dish, Piece, Top, Trough
from splay.quantity import Figure, Show
from splay.setups.asker import Asker, Words
from splay.setups.card import Proof, SetUp
from splay.setups.plain_card import Bench, plain_card
from splay.setups.scenes import HollowCut
from splay.stance.hollow import arc_radius, hollow_depth
from splay.stance.outline import extent, points
from splay.stance.strips import Place, Strip, across_words, in_strips, strips
from splay.stance.vectors import Flat
from splay.work.does import Do, Plain
from splay.work.marks import SEAT as TOP
from splay.work.marks import Kind, Mark, lettered
from splay.work.proofs import proof_id
from splay.work.seat import Letter, axis
from splay.work.takes import UnderEdge
from splay.work.tops import (
    DepthHoles,
    HoleDeep,
    HollowLine,
    Runners,
    StripEnds,
    StripSide,
    StripSides,
    StripsLaid,
)

SCOOP = Bench("scooping", "Scorp, adze or gouge")
ROUTER = Bench("runners", "Router on curved runners")
STRIPS = Bench("strips", "Band saw or plane, strip by strip")
SAW = Bench("sawing", "Bow saw, or a band saw that is high enough")
FACE = "upper face"
KEEP_MM = 0.5
"""A depth hole stops this much short: the last strokes take it away (common practice, no source)."""
BIT_MM = 3.0
PLACES = (0.0, 1.0 / 3.0, 2.0 / 3.0)
"""Depth holes along a middle line, as shares of half the hollow (common practice, no source)."""
CLEAR_MM = 10.0
"""Nearer to the edge a depth hole stands in wood that goes with the outline (common practice, no
source)."""
FROM_END_MM = 30.0
KEEP_LEFT_MM = 0.1
"""Less than this above the arc is nothing a scraper would be told of."""
RUNNER_MM = 25.0
"""Wood of a runner under its lowest place (common practice, no source)."""
PASS_MM = 3.0
LATH_SHARE = 0.5 * (2.0 / 3.0) ** 2 / 3.0
"""A lath bent over its middle lies this share of its depth above the arc, at most, two thirds of the
way out: 1 - 3/2 u² + 1/2 u³ (a beam loaded in its middle) against 1 - u²."""
_WORK, _TITLE = "hollow", "Hollow the seat"
_SCOOPED = "Clamp the seat low; both hands behind the edge, and no leg of yours where it swings."
_ROUTED = (
    "Runners and seat fixed, both hands on the router, the sled stopped at both ends of the hollow. Follow "
    "the router's own manual."
)
_STRIPPED = (
    "A narrow strip tips: hold it in a vice or on a block as wide as itself, fingers behind the blade. "
    "Follow the saw's own manual."
)
_SAWN = "Hold the seat so that it cannot tip; fingers behind the saw. Follow the saw's own manual."


def hollow_cards(piece: Piece, show: Show) -> Iterator[SetUp]:
    """One card for each way of hollowing this top; none where it stays flat."""
    hollow = piece.top.hollow
    if hollow is None:
        return
    if in_strips(piece.top):
        yield _by_strips(piece.top, hollow, show)
        return
    yield _scooped(piece.top, hollow, show)
    if isinstance(hollow, Trough):
        if arc_radius(hollow.chord, hollow.depth) - hollow.depth - RUNNER_MM > hollow.chord / 2.0:
            yield _routed(hollow, show)
        yield _sawn(hollow, show)


def _across(hollow: Trough | Dish) -> str:
    """The middle line a straight-edge is laid along."""
    to_back = isinstance(hollow, Trough) and hollow.across == "width"
    return "front-back line" if to_back else "left-right line"


def hollow_proofs(piece: Piece, ask: Asker) -> Iterator[Proof]:
    """How deep the middle came out, under a straight-edge over it."""
    hollow = piece.top.hollow
    if hollow is None:
        return
    across = _across(hollow)
    words = Words(
        "Hollow, deep in the middle", UnderEdge(across),
        "too deep is thin over the sockets, and the seat sits lower", "top", "top", "hollow, deep",
    )  # fmt: skip
    yield ask.length((_WORK,), ask.show.length(under_edge(piece.top, across)), words)


def under_edge(top: Top, across: str) -> float:
    """From a straight-edge laid over the middle along a middle line down to the wood there, mm: where the
    hollow runs out over the edge of the top, the straight-edge lies lower."""
    way = axis(across)
    # Every outline runs round the middle; a waisted one may cross the line more than once.
    places = list(_crossings(points(top.outline), way))
    at = max(s for s in places if s < 0.0), min(s for s in places if s > 0.0)
    (low, low_deep), (high, high_deep) = (
        (s, hollow_depth(top.hollow, (s * way[0], s * way[1]))) for s in at
    )
    edge: float = low_deep + (high_deep - low_deep) * -low / (high - low)
    return hollow_depth(top.hollow, (0.0, 0.0)) - edge


def _crossings(ring: Sequence[Flat], way: Flat) -> Iterator[float]:
    """Where a closed outline crosses the line through the middle along `way`, mm along it."""
    for (ax, ay), (bx, by) in pairwise((*ring, ring[0])):
        # Off the line to its left; a corner on it belongs to one side.
        one, two = ay * way[0] - ax * way[1], by * way[0] - bx * way[1]
        if (one < 0.0) != (two < 0.0):
            share = one / (one - two)
            x, y = ax + share * (bx - ax), ay + share * (by - ay)
            yield x * way[0] + y * way[1]


def _card(
    by: Bench, hollow: Trough | Dish, does: tuple[Do, ...], care: str, show: Show, **more: Figure
) -> SetUp:
    chord = hollow.chord if isinstance(hollow, Trough) else hollow.length
    oval = isinstance(hollow, Dish) and hollow.length != hollow.width
    named = "Radius of the template, side to side" if oval else "Radius of the template"
    deep = show.length(hollow.depth)
    return plain_card(
        _WORK,
        "top",
        "hollow",
        by,
        _TITLE,
        radius_figure(f"hollow.{by.kind}.radius", named, chord, hollow.depth, show),
        "Deep in the middle",
        HollowCut(by.kind, show.length(chord).text, deep.text),
        setting=deep,
        does=does,
        jig=tuple(more.values()),
        caution=care,
        proofs=(proof_id(_WORK),),
        uses=(*lettered(FACE), Mark(Kind.HOLLOW, TOP)),
    )


def _scooped(top: Top, hollow: Trough | Dish, show: Show) -> SetUp:
    lines = ["left-right line", "front-back line"]
    beside: tuple[Letter, Letter, float] | None = None
    if isinstance(hollow, Trough):
        along = 0 if hollow.across == "length" else 1
        lines = lines[along : along + 1]
        out = extent(top.outline)[1 - along] - FROM_END_MM
        ends: tuple[Letter, Letter] = ("FRONT", "BACK") if along == 0 else ("LEFT", "RIGHT")
        beside = (*ends, out) if out > FROM_END_MM else None
    does: list[Do] = []
    for line in lines:
        holes = _depths(top, hollow, line, show)
        if line == lines[-1] and len(lines) > 1:
            # The middle is bored once.
            holes = holes[1:]
        if holes:
            apart = None if beside is None else show.length(beside[2])
            does.append(
                DepthHoles(FACE, line, show.length(BIT_MM), holes, apart, beside[:2] if beside else None)
            )
    tried = "along both middle lines" if isinstance(hollow, Dish) else "all along it"
    return _card(
        SCOOP,
        hollow,
        (
            *does,
            Plain("Scoop from the rim inwards, across the grain, until the holes only just vanish."),
            Plain(f"Then with the grain and a scraper, the template tried {tried}."),
        ),
        _SCOOPED,
        show,
    )  # fmt: skip


def _depths(top: Top, hollow: Trough | Dish, line: str, show: Show) -> tuple[HoleDeep, ...]:
    way = axis(line)
    half = hollow.chord / 2.0 if isinstance(hollow, Trough) else (
        hollow.length if line == "left-right line" else hollow.width
    ) / 2.0  # fmt: skip
    room = extent(top.outline)[0 if way[0] else 1] - CLEAR_MM
    made = []
    for share in PLACES:
        out = show.length(share * half)
        deep = hollow_depth(hollow, (out.value * way[0], out.value * way[1])) - KEEP_MM
        if out.value < room and deep > KEEP_MM:
            made.append(HoleDeep(out, show.length(deep)))
    return tuple(made)


def _routed(hollow: Trough, show: Show) -> SetUp:
    full = arc_radius(hollow.chord, hollow.depth)
    radius = full - hollow.depth - RUNNER_MM
    rise = radius - math.sqrt(radius * radius - hollow.chord**2 / 4.0)
    made = show.figure(
        "hollow.runners.runner",
        "Radius of the runners",
        radius,
        "R − g − h",
        show.input("R", "radius of the template", full),
        show.input("g", "depth", hollow.depth),
        show.input("h", "runner, high in its middle", RUNNER_MM),
        note="hollowed along their upper edges",
    )
    ends = show.figure(
        "hollow.runners.ends",
        "High over the hollow's rim",
        RUNNER_MM + rise,
        "h + r − √(r² − c²/4)",
        show.input("h", "in its middle", RUNNER_MM),
        show.input("r", "radius of the runners", radius),
        show.input("c", "chord", hollow.chord),
        note="let them run on past it, so that the sled stays on them",
    )
    across = "left-right line" if hollow.across == "length" else "front-back line"
    does: tuple[Do, ...] = (
        Runners(
            FACE, across, show.length(hollow.chord), made.quantity, show.length(RUNNER_MM), ends.quantity,
            show.length(hollow.depth), show.length(PASS_MM),
        ),
        Plain("The ridges between the passes come off with scraper and template."),
    )  # fmt: skip
    return _card(ROUTER, hollow, does, _ROUTED, show, runner=made, ends=ends)


def _sawn(hollow: Trough, show: Show) -> SetUp:
    off = hollow.depth * LATH_SHARE
    lath = show.figure(
        "hollow.sawing.lath",
        "A bent lath instead of the template lies too high by",
        off,
        "g · 2 / 27",
        show.input("g", "depth", hollow.depth),
        note="at most, two thirds of the way out: a lath pressed down in its middle makes no arc",
        fine=True,
    )
    ends: tuple[Letter, Letter] = ("FRONT", "BACK") if hollow.across == "length" else ("LEFT", "RIGHT")
    does: tuple[Do, ...] = (
        HollowLine(ends, show.length(hollow.depth), show.length(hollow.chord / 2.0)),
        Plain(
            "Saw from end to end on the waste side of both lines; to the lines with spokeshave and scraper."
        ),
    )
    return _card(SAW, hollow, does, _SAWN, show, lath=lath)


def _by_strips(top: Top, hollow: Trough | Dish, show: Show) -> SetUp:
    first, last = across_words(top)
    every = strips(top)
    does: list[Do] = []
    if every[0].across is None:
        # What is measured from runs across the strips.
        line = "front-back line" if first in ("FRONT", "BACK") else "left-right line"
        does.append(StripsLaid(cast(Letter, first), cast(Letter, last), len(every), line))
        alike: dict[tuple[tuple[Place, ...], ...], list[Strip]] = {}
        for strip in every:
            alike.setdefault(tuple(side.places for side in strip.sides), []).append(strip)
        for mates in alike.values():
            one, two = (StripSide(cast(Letter, s.towards), _told(s.places, show)) for s in mates[0].sides)
            does.append(StripSides(tuple(strip.number for strip in mates), (one, two)))
        does.append(
            Plain(
                "A lath bent through the places draws each line. Saw square through the strip, no deeper "
                "than the shallower of its two lines; spokeshave and scraper take the rest down to the "
                "deeper one."
            )
        )
    else:
        does.append(StripsLaid(cast(Letter, first), cast(Letter, last), len(every), None))
        for strip in every:
            assert strip.across is not None
            left = show.fine(strip.left) if strip.left > KEEP_LEFT_MM else None
            does.append(StripEnds(strip.number, cast(Letter, first), _told(strip.across, show), left))
        does.append(Plain("Saw or plane each from end to end, on the waste side of its lines."))
    does.append(
        Plain(
            "Laid together again their lines meet side to side. After the glue-up a scraper and the "
            "template, tried across the seams, take off what stands up."
        )
    )
    return replace(
        _card(STRIPS, hollow, tuple(does), _STRIPPED, show),
        work="hollow_strips",
        operation="hollow_strips",
        title="Hollow the seat strip by strip",
        uses=(),
    )


def _told(places: tuple[Place, ...], show: Show) -> tuple[HoleDeep, ...]:
    return tuple(HoleDeep(show.length(one.out), show.closely(one.deep)) for one in places)
