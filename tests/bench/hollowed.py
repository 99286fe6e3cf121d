"""A hollow carried out as told: its rim, depth holes, runners under a sled, a line sawn along; and read."""

from __future__ import annotations

import math
from typing import TYPE_CHECKING

import numpy as np
import shapely

from splay.piece import Trough
from splay.setups.card import SetUp
from splay.stance.outline import points
from splay.work.marks import Kind
from splay.work.seat import Rim
from splay.work.takes import UnderEdge
from splay.work.tops import DepthHoles, HollowLine, Runners, StripEnds, StripSides, StripsLaid

if TYPE_CHECKING:
    from tests.bench.judged import Judge
    from tests.bench.stock import Seat

SLED_MM = 140.0
IDLE_MM = 0.6
"""A depth hole that stops shorter than this of the bottom tells nothing."""
WORDS = {"LEFT": (-1.0, 0.0), "RIGHT": (1.0, 0.0), "FRONT": (0.0, -1.0), "BACK": (0.0, 1.0)}
LINES = {"left-right line": (1.0, 0.0), "front-back line": (0.0, 1.0)}


def strike_rim(seat: Seat, act: Rim) -> None:
    """The rim as it is struck: a strip's middle line and half its width, or an oval's two half axes."""
    if act.half is not None:
        half = act.half.value
        seat.rims[act.mark] = (act.line, half, half)
        return
    assert act.pin is not None and act.loop is not None
    # Taut on the line of the pins the loop runs out to the far pin and back; square to it, over both alike.
    longer = act.loop.value / 2.0 - act.pin.value
    shorter = math.sqrt(longer**2 - act.pin.value**2)
    lies = act.line == "left-right line"
    seat.rims[act.mark] = ("", longer if lies else shorter, shorter if lies else longer)


def depth(judge: Judge, x: float, y: float) -> float:
    """What the hollow takes at a place, from the circle through its rim and its bottom."""
    hollow = judge.piece.top.hollow
    assert hollow is not None
    chord = hollow.chord if isinstance(hollow, Trough) else hollow.length
    # x² + z² + e z + f = 0 through (± c/2, 0) and (0, -g).
    f = -(chord**2) / 4.0
    e = (hollow.depth**2 + f) / hollow.depth
    if isinstance(hollow, Trough):
        s = x if hollow.across == "length" else y
    else:
        s = math.hypot(2.0 * x / hollow.length, 2.0 * y / hollow.width) * chord / 2.0
    if abs(s) >= chord / 2.0:
        return 0.0
    return max(0.0, -(-e - math.sqrt(e * e - 4.0 * (f + s * s))) / 2.0)


def judge_hollow(judge: Judge, card: SetUp) -> None:
    """What is told of a hollow leads to the one that was chosen, whichever way it is cut."""
    hollow, hold = judge.piece.top.hollow, judge.tally.hold
    assert hollow is not None
    line, a, b = judge.seat.rims[next(mark for mark in card.uses if mark.kind is Kind.HOLLOW)]
    if isinstance(hollow, Trough):
        along = "front-back line" if hollow.across == "length" else "left-right line"
        hold("hollow's rim along the wrong line", float(line != along), card.id)
        hold("hollow's rim mm", abs(a - hollow.chord / 2.0), card.id)
    else:
        off = max(abs(a - hollow.length / 2.0), abs(b - hollow.width / 2.0))
        hold("hollow's rim mm", off, card.id)
    for do in card.does:
        if isinstance(do, DepthHoles):
            _bored(judge, do, card.id)
        elif isinstance(do, Runners):
            _ridden(judge, do, card.id)
        elif isinstance(do, HollowLine):
            assert isinstance(hollow, Trough)
            seen = {"FRONT", "BACK"} if hollow.across == "length" else {"LEFT", "RIGHT"}
            hold("hollow drawn on the wrong ends", float(set(do.ends) != seen), card.id)
            off = max(abs(do.deep.value - hollow.depth), abs(do.half.value - hollow.chord / 2.0))
            hold("hollow's line mm", off, card.id)
    judge.hollowed = True


def _bored(judge: Judge, do: DepthHoles, card: str) -> None:
    way = LINES[do.line]
    rows = [(0.0, 0.0)]
    if do.beside is not None and do.towards is not None:
        rows += [
            (WORDS[word][0] * do.beside.value, WORDS[word][1] * do.beside.value) for word in do.towards
        ]
        for x, y in rows:
            judge.tally.hold("depth holes' row lies along its line", abs(x * way[0] + y * way[1]), card)
    for x, y in rows:
        for hole in do.holes:
            for side in (-1.0, 1.0):
                at = (x + side * way[0] * hole.out.value, y + side * way[1] * hole.out.value)
                left = depth(judge, *at) - hole.deep.value
                judge.tally.hold("depth hole too deep mm", max(0.0, -left), card)
                judge.tally.hold("depth hole tells nothing mm", max(0.0, left - IDLE_MM), card)


def _ridden(judge: Judge, do: Runners, card: str) -> None:
    """The sled's two lower edges ride on the runners' arc; the bit's end keeps its place under the sled."""
    way, half = LINES[do.line], do.chord.value / 2.0
    middle = do.low.value + do.radius.value
    end = middle - math.sqrt(do.radius.value**2 - half**2)
    judge.tally.hold("runner high at the rim mm", abs(end - do.high.value), card)
    under = middle - math.sqrt(do.radius.value**2 - SLED_MM**2 / 4.0)
    # The sled's underside stands so far over the face in the middle; the bit hangs from there.
    hangs = under + do.deep.value
    out = math.sqrt(do.radius.value**2 - SLED_MM**2 / 4.0)
    for turn in np.linspace(-math.asin(half / (out + hangs)), math.asin(half / (out + hangs)), 21):
        s, z = (out + hangs) * math.sin(turn), middle - (out + hangs) * math.cos(turn)
        wanted = depth(judge, s * way[0], s * way[1])
        judge.tally.hold("runner's hollow mm", abs(-z - wanted), card)


def judge_strips(judge: Judge, card: SetUp) -> None:
    """Strips laid out as told, each with its lines: where they lie in the seat the hollow is as deep."""
    top, hold, key = judge.piece.top, judge.tally.hold, card.id
    laid = next(do for do in card.does if isinstance(do, StripsLaid))
    hold("strips numbered", float(laid.many != len(top.boards)), key)
    first, last = np.array(WORDS[laid.first]), np.array(WORDS[laid.last])
    hold("strips laid across their grain", float(abs(first + last).max() > 0.0), key)
    grain = np.array((math.cos(math.radians(top.grain)), math.sin(math.radians(top.grain))))
    hold("strips laid askew", abs(float(first @ grain)), key)
    # The first board of the list lies to the right of the grain's bearing.
    hold("strips numbered from the wrong side", float(first @ (grain[1], -grain[0]) < 0.0), key)
    edges = np.concatenate(([0.0], np.cumsum(top.boards))) - sum(top.boards) / 2.0
    if laid.line is not None:
        hold("line over the strips runs along them", abs(float(np.array(LINES[laid.line]) @ grain)), key)
    seams: dict[float, list[tuple[tuple[float, float], ...]]] = {}
    for do in card.does:
        if isinstance(do, StripEnds):
            begins = edges[do.strip - 1]
            hold("strip's end from the wrong side", float(do.towards != laid.first), key)
            for place in do.places:
                wanted = depth(judge, *((begins + place.out.value) * last))
                hold("strip's end mm", abs(place.deep.value - wanted), key)
            outs = [place.out.value for place in do.places]
            wide = top.boards[do.strip - 1]
            hold("strip's end across mm", max(abs(outs[0]), abs(outs[-1] - wide)), key)
            # Straight from place to place nothing is taken that should stay, and little stays.
            for out in np.linspace(0.0, wide, 60):
                cut = float(np.interp(out, outs, [place.deep.value for place in do.places]))
                over = depth(judge, *((begins + out) * last)) - cut
                hold("strip cut too deep mm", max(0.0, -over), key)
                said = do.left.value if do.left else 0.1
                hold("strip left higher than told mm", max(0.0, over - said), key)
        elif isinstance(do, StripSides):
            for number in do.strips:
                for side in do.sides:
                    edge = edges[number - 1 if side.towards == laid.first else number]
                    hold("strip's sides", float(side.towards not in (laid.first, laid.last)), key)
                    told = tuple((place.out.value, place.deep.value) for place in side.places)
                    seams.setdefault(float(edge), []).append(told)
                    for out, deep in told or ((0.0, 0.0),):
                        for way in (-1.0, 1.0):
                            wanted = depth(judge, *(edge * last + way * out * grain))
                            hold("strip's side mm", abs(deep - wanted), key)
                    if len(told) > 1:
                        past = depth(judge, *(edge * last + (told[-1][0] + 0.5) * grain))
                        hold("strip's side runs out too early mm", past, key)
    for told_twice in seams.values():
        hold("strips do not meet", float(len(set(told_twice)) > 1), key)
    judge.hollowed = True


def read_under_edge(judge: Judge, take: UnderEdge) -> float | None:
    """A straight-edge lies on the two places of the wood that hold it highest over the middle."""
    if not judge.hollowed:
        return None
    way = LINES[take.line]
    far = 10_000.0
    run = shapely.LineString([(-far * way[0], -far * way[1]), (far * way[0], far * way[1])])
    inside = run.intersection(shapely.Polygon(points(judge.piece.top.outline)))
    along: list[float] = []
    for part in getattr(inside, "geoms", [inside]):
        ends = sorted(x * way[0] + y * way[1] for x, y in part.coords)
        along = ends if ends[0] < 0.0 < ends[-1] else along
    places = np.linspace(along[0], along[-1], 201)
    wood = np.array([-depth(judge, s * way[0], s * way[1]) for s in places])
    left, right = places < -1e-6, places > 1e-6
    over = (wood[left][:, None] * places[right][None, :] - wood[right][None, :] * places[left][:, None]) / (
        places[right][None, :] - places[left][:, None]
    )
    return float(over.max()) + depth(judge, 0.0, 0.0)
