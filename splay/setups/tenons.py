"""Set-up cards for round tenons on legs: by hand, on a lathe, by cutter, by saw and file, over a router."""

from __future__ import annotations

import math
from collections.abc import Iterator
from typing import Any

from splay.piece import StakedLegs
from splay.quantity import Quantity, Show
from splay.quantity import degrees as deg
from splay.setups.card import SetUp
from splay.setups.leg_sets import LegSet
from splay.setups.plain_card import Bench, plain_card
from splay.setups.scenes import Scene, TenonMade
from splay.shop import TenonCutter, TenonJig, Tool
from splay.stance.mouth import PAST_SHOULDER_MM, has_eased_mouth, mouth_of
from splay.stance.staked import LegStance
from splay.work.does import Do, Plain
from splay.work.joinery import Cove, FlatsLeft, JigOver, Parted, SawnSquare, Tenon
from splay.work.marks import SEAT, Kind, Mark, leg_key
from splay.work.proofs import proof_id

MARGINAL_MM = 1.0
"""Stock that passes a cutter by less than this will still fail (common practice, no source)."""
TURN_MM = 0.5
"""A caliper is set over the tenon by this: the last of it comes off to the hole (common practice, no
source)."""
GROOVES_MM = 20.0
"""Grooves of a parting tool lie at most this far apart (common practice, no source)."""
FIRST_MM = 10.0
FILE_MM = 1.0
"""Left over the tenon by saw and chisel, for the file (common practice, no source)."""
EASE_MM = 0.5
"""A jig's hole is wider than what turns in it by this (common practice, no source)."""
PLAY_MM = 1.5
"""Stock with more room than this in a jig's hole wobbles in it (common practice, no source)."""
_CUTTER = "Clamp the stick in a vice, drill level and slow; a cutter grabs as it starts."
LATHE_CARE = "Centre the stick well, stand out of its line as it starts; follow the lathe's own manual."
_SHAVE = "Blade never towards the body or the holding hand."
_OVER = (
    "The jig clamped down, the bit covered but where the stick lies on it, hands on the leg's far end; "
    "turn it against the bit, never let go of it. Follow the router's own manual."
)
LATHE = Bench("making", "Lathe")
_MAKERS = {
    "lathe": LATHE,
    "hand": Bench("making", "Drawknife and spokeshave"),
    "cutter": Bench("making", "Tenon cutter to buy or borrow"),
    "sawn": Bench("making", "Saw, chisel and file"),
    "router": Bench("making", "Turning jig over a round-bottomed router bit"),
    "knife": Bench("making", "Knife, in its own hole"),
}
_LIMITED: dict[str, tuple[type[Any], ...]] = {"cutter": (TenonCutter,), "router": (TenonJig,)}
"""Tools a shop may own that take no stock but some."""
_KNIFE = "Cut away from yourself, the holding hand behind the blade; let nobody stand in its way."
_CAUTIONS = {"lathe": LATHE_CARE, "router": _OVER, "knife": _KNIFE}


def tenon_long(leg: LegStance, support: StakedLegs, inside: float) -> float:
    """How far a tenon keeps its thickness from its end, mm: so far that a shoulder clears the slanted
    mouth all round, where the leg is thicker than its tenon."""
    if support.leg.at_top <= leg.bore.size + PAST_SHOULDER_MM:
        return inside
    return inside + support.leg.at_top / 2.0 * deg.tan(leg.boring.resultant)


def tenons(one: LegSet, owned: tuple[Tool, ...], show: Show) -> Iterator[SetUp]:
    """Round tenons, by whatever makes them; a powered cutter limits the square stock it takes."""
    support, leg = one.support, one.legs[0]
    if support.joint.tenon in ("none", "flat"):
        return
    inside = one.part.in_top.quantity.value
    thick_at = tenon_long(leg, support, inside)
    coved = mouth_of(support, leg.boring.resultant, None) if has_eased_mouth(support) else None
    long = show.length(thick_at - (coved.high if coved else 0.0))
    does: list[Do] = [Tenon(one.named, "tenon end", show.length(leg.bore.size), long)]
    if support.joint.tenon == "tapered":
        does = [
            Plain(
                f"{one.named[0].upper()}{one.named[1:]}: taper the tenon evenly from "
                f"{show.length(leg.bore.tip).text} at its end to {show.length(leg.bore.size).text}, "
                f"{one.part.in_top.quantity.text} from the end."
            )
        ]
    by = support.leg.tenon_by
    if support.joint.tenon != "tapered":
        does += _how(one, by, long.value, show)
    if coved is not None:
        does.append(Cove(show.length(coved.cove), long, show.length(thick_at)))
    does.append(Plain("Try it in a real hole: snug and pushed, never hammered where it is parallel."))
    limited = [tool for tool in owned if isinstance(tool, _LIMITED.get(by, ()))]
    if limited and support.joint.tenon != "tapered":
        for tool in limited:
            if isinstance(tool, TenonCutter):
                yield _by_cutter(one, tool, tuple(does), long, show)
            elif isinstance(tool, TenonJig):
                yield _in_jig(one, tool, tuple(does), long, show)
        return
    maker = _MAKERS[by]
    yield plain_card(
        f"{one.key}.tenon",
        "legs",
        "tenon",
        maker,
        f"Tenons on {one.named}",
        one.part.in_top,
        "Tenon, thick",
        _tenon_scene(one, long, show),
        setting=show.length(leg.bore.size),
        does=tuple(does),
        caution=_CAUTIONS.get(by, _SHAVE),
        legs=one.numbers,
        proofs=(proof_id("tenon", *one.proof),),
        # The hole is the gauge: it is there first.
        uses=tuple(Mark(Kind.SOCKET, SEAT, str(number)) for number in one.numbers) if by == "knife" else (),
        makes=tuple(Mark(Kind.TENON, leg_key(number)) for number in one.numbers),
    )


def _how(one: LegSet, by: str, long: float, show: Show) -> list[Do]:
    """What is set and done for a parallel tenon by each way of making one."""
    size, stock = one.legs[0].bore.size, one.part.stock.quantity.value
    if by == "lathe":
        return [
            Parted(show.length(size + TURN_MM), tuple(show.length(at) for at in _grooves(long))),
            Plain(
                "Turn it even between the grooves; the lathe stopped, a block with the socket's own "
                "hole pushed over the end shows what is left."
            ),
        ]
    if by == "hand":
        over = size + HAIR_MM
        if stock < over:
            return []
        gauge, left = over * GAUGE, over * deg.tan(SIXTEENTH_DEG)
        return [
            FlatsLeft(show.closely(over), show.fine(gauge), show.length(left)),
            Plain(
                "The first third of it a hair thinner, for the first try; the rest follows by what that "
                "shows."
            ),
        ]
    if by == "sawn":
        left = size + FILE_MM
        deep = (stock - left) / 2.0
        if deep <= 0.0:
            return [Plain("The stock is hardly thicker than the tenon: file it round, corners first.")]
        return [
            SawnSquare(show.length(long), show.length(deep), show.length(left), show.fine(left * GAUGE)),
            Plain(
                "File it round by turns, the stick turned a little after each stroke, until it goes "
                "into a block with the socket's own hole."
            ),
        ]
    if by == "knife":
        return [
            Plain(
                "The leg's number on the leg and beside its hole: a pared tenon fits the hole it was tried "
                "in. Pare the end until it just enters."
            ),
            Plain(
                "Push and turn it in its hole: it comes out dark where it binds. Pare the dark places and "
                "nothing else, again and again, until it goes in as far as told."
            ),
        ]
    if by == "router":
        return [
            JigOver(
                show.length(stock * math.sqrt(2.0) + EASE_MM), show.length(size), show.length(size / 2.0),
                show.length(long),
            ),
            Plain("While the stock is square, its corners turning in the wider hole; on scrap first."),
        ]  # fmt: skip
    return []


HAIR_MM = 0.5
"""A tenon by hand is left so much over the hole, flat to flat, for the fit (common practice, no source)."""
SIXTEENTH_DEG = 11.25
"""Half of what one of sixteen sides alike turns from the next: a side is its tangent of what is across."""
GAUGE = 1.0 - 1.0 / math.sqrt(2.0)
"""In from each edge of a square where its corners come off for eight sides alike, as a share of it."""


def _grooves(long: float) -> tuple[float, ...]:
    """Where a parting tool goes in, from the tenon's end: near that, at the ring, evenly between, mm."""
    first = min(FIRST_MM, long / 2.0)
    steps = max(1, math.ceil((long - first) / GROOVES_MM - 1e-9))
    return tuple(first + (long - first) * k / steps for k in range(steps + 1))


def _tenon_scene(one: LegSet, long: Quantity, show: Show) -> Scene:
    bore = one.legs[0].bore
    size, tip = show.length(bore.size).text, show.length(bore.tip).text
    reamed = one.support.joint.tenon == "tapered"
    run = one.part.in_top.quantity if reamed else long
    return TenonMade(size, run.text, tip if reamed else "")


def _by_cutter(one: LegSet, tool: TenonCutter, does: tuple[Do, ...], long: Quantity, show: Show) -> SetUp:
    """A powered cutter takes square stock whose diagonal is at most its bore and what it takes."""
    stock = one.part.stock.quantity.value
    diagonal = stock * math.sqrt(2.0)
    limit = tool.bore + tool.takes
    spare = limit - diagonal
    note = ""
    if abs(tool.bore - one.support.joint.socket) > 0.05:
        note = (
            f"This cutter leaves {show.length(tool.bore).text}; the socket is "
            f"{show.length(one.support.joint.socket).text}."
        )
    elif spare < 0:
        note = (
            f"The stock's diagonal, {show.length(diagonal).text}, is more than the "
            f"{show.length(limit).text} it takes: plane the end thinner first."
        )
    elif spare < MARGINAL_MM:
        note = (
            f"Marginal: {show.length(diagonal).text} against {show.length(limit).text} passes on "
            "paper and fails in use. Knock the corners off the end."
        )
    told = (
        Plain("While the stock is square, held on its middle line, square to its end."),
        *does,
        Plain("Round the leg afterwards."),
    )
    return _limited(one, tool, limit, told, long, note, _CUTTER, show)


def _in_jig(one: LegSet, tool: TenonJig, does: tuple[Do, ...], long: Quantity, show: Show) -> SetUp:
    """The jig's own two holes: one fits the tenon, the other what turns in it."""
    size = one.legs[0].bore.size
    diagonal = one.part.stock.quantity.value * math.sqrt(2.0)
    front, behind = show.length(tool.front).text, show.length(tool.behind).text
    across = f"The stock's diagonal, {show.length(diagonal).text},"
    note = ""
    if abs(tool.behind - size) > 0.05:
        note = f"Its hole behind is {behind}, the socket {show.length(size).text}: bore another block."
    elif diagonal > tool.front:
        note = (
            f"{across} does not turn in the hole in front, {front}: plane that end thinner, or its corners "
            "off."
        )
    elif tool.front - diagonal > PLAY_MM:
        note = (
            f"{across} wobbles in the hole in front, {front}: line the hole until the corners turn without "
            "play."
        )
    over = JigOver(show.length(tool.front), show.length(tool.behind), show.length(tool.behind / 2.0), long)
    told = tuple(over if isinstance(do, JigOver) else do for do in does)
    return _limited(one, tool, tool.front, told, long, note, _OVER, show)


def _limited(
    one: LegSet,
    tool: Tool,
    limit: float,
    does: tuple[Do, ...],
    long: Quantity,
    note: str,
    care: str,
    show: Show,
) -> SetUp:
    """The card of a tool that takes stock of some thickness only."""
    key = f"{one.key}.tenon"
    stock = one.part.stock.quantity.value
    figure = show.figure(
        f"{key}.diagonal",
        "Stock's diagonal",
        stock * math.sqrt(2.0),
        "S · √2",
        show.input("S", "square stock", stock),
        show.input("m", f"the {'jig' if isinstance(tool, TenonJig) else 'cutter'} takes", limit),
    )
    return plain_card(
        key,
        "legs",
        "tenon",
        tool,
        f"Tenons on {one.named}",
        figure,
        "Tenon, long",
        _tenon_scene(one, long, show),
        setting=long,
        does=does,
        note=note,
        caution=care,
        legs=one.numbers,
        proofs=(proof_id("tenon", *one.proof),),
        makes=tuple(Mark(Kind.TENON, leg_key(number)) for number in one.numbers),
    )
