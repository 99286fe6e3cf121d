"""Set-up cards for making legs set into the seat: tenons, eight sides, tapers."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass

from splay.parts.leg import LegPart
from splay.parts.making import Taper
from splay.piece import DowelScrew, Piece, Reamed, Shouldered, StakedLegs
from splay.quantity import Quantity, Show
from splay.quantity import degrees as deg
from splay.setups.card import SetUp
from splay.setups.plain_card import Bench, plain_card
from splay.setups.scenes import EightSides, Scene, Tapering, TenonMade
from splay.shop import HandPlane, Shop, TaperJig, TenonCutter, Tool
from splay.stance.lines import named_faces
from splay.stance.staked import LegStance, Stance
from splay.work.does import Do, Plain, Tenon
from splay.work.lays import Tapered
from splay.work.marks import Kind, Mark, leg_key
from splay.work.phrases import listed
from splay.work.proofs import proof_id

MARGINAL_MM = 1.0
"""Stock that passes a cutter by less than this will still fail (common practice, no source)."""
PAST_SHOULDER_MM = 0.5
"""A leg this much thicker than its tenon has a shoulder that must clear the slanted mouth."""
_TAPER = "Hold-downs, both of them: a short taper near a blade kicks; else plane it by hand."
_PLANE = "Work against a stop; both hands on the plane."
_CUTTER = "Clamp the stick in a vice, drill level and slow; a cutter grabs as it starts."
_TURN = "Centre the stick well, stand out of its line as it starts; follow the lathe's own manual."
_SHAVE = "Blade never towards the body or the holding hand."
_MAKERS = {
    "lathe": Bench("making", "Lathe"),
    "hand": Bench("making", "Drawknife and spokeshave"),
    "cutter": Bench("making", "Tenon cutter to buy or borrow"),
}


@dataclass(frozen=True)
class LegSet:
    """Legs of one support that are made alike: as long, as thick, at one lean to the seat."""

    index: int
    support: StakedLegs
    legs: tuple[LegStance, ...]
    part: LegPart
    first: bool

    @property
    def key(self) -> str:
        """What its cards' ids begin with."""
        return f"shape.{self.support.id}.{self.legs[0].id}"

    @property
    def numbers(self) -> tuple[int, ...]:
        """The legs' numbers."""
        return tuple(leg.number for leg in self.legs)

    @property
    def named(self) -> str:
        """The legs in words."""
        return listed(f"leg {number}" for number in self.numbers)

    @property
    def proof(self) -> tuple[str, ...]:
        """What its proofs are taken on: its support, and the leg that stands for all where a support has
        more than one such set."""
        return (self.support.id,) if self.first else (self.support.id, self.legs[0].id)


def leg_sets(piece: Piece, stance: Stance, parts: tuple[LegPart, ...]) -> tuple[LegSet, ...]:
    """Legs made alike, support by support."""
    by_number = {part.number: part for part in parts}
    found: dict[tuple[object, ...], list[LegStance]] = {}
    for leg in stance.legs:
        part = by_number[leg.number]
        key = (
            leg.support,
            round(leg.exposed, 3),
            round(part.in_top.quantity.value, 3),
            round(leg.boring.resultant, 4),
        )
        found.setdefault(key, []).append(leg)
    made: list[LegSet] = []
    for legs in found.values():
        support = piece.supports[legs[0].support]
        assert isinstance(support, StakedLegs)
        first = all(one.index != legs[0].support for one in made)
        made.append(LegSet(legs[0].support, support, tuple(legs), by_number[legs[0].number], first))
    return tuple(made)


def leg_shape_cards(
    piece: Piece, stance: Stance, parts: tuple[LegPart, ...], shop: Shop, show: Show
) -> Iterator[SetUp]:
    """Every card that shapes a leg before lines are drawn on it, in the order of work."""
    owned = shop.owned()
    for one in leg_sets(piece, stance, parts):
        yield from _tenons(one, owned, show)
        for tool in owned:
            yield from _octagon(one, tool, show)
            yield from _taper(one, tool, show)


def tenon_long(leg: LegStance, support: StakedLegs, inside: float) -> float:
    """How far a tenon keeps its thickness from its end, mm: so far that a shoulder clears the slanted
    mouth all round, where the leg is thicker than its tenon."""
    if support.leg.at_top <= leg.bore.size + PAST_SHOULDER_MM:
        return inside
    return inside + support.leg.at_top / 2.0 * deg.tan(leg.boring.resultant)


def _tenons(one: LegSet, owned: tuple[Tool, ...], show: Show) -> Iterator[SetUp]:
    """Round tenons, by whatever makes them; a powered cutter limits the square stock it takes."""
    support, leg = one.support, one.legs[0]
    if isinstance(support.joint, DowelScrew | Shouldered):
        return
    inside = one.part.in_top.quantity.value
    long = show.length(tenon_long(leg, support, inside))
    does: list[Do] = [Tenon(one.named, "tenon end", show.length(leg.bore.size), long)]
    if isinstance(support.joint, Reamed):
        does = [
            Plain(
                f"{one.named[0].upper()}{one.named[1:]}: taper the tenon evenly from "
                f"{show.length(leg.bore.tip).text} at its end to {show.length(leg.bore.size).text}, "
                f"{one.part.in_top.quantity.text} from the end."
            )
        ]
    does.append(Plain("Try it in a real hole: snug and pushed, never hammered where it is parallel."))
    by = support.leg.tenon_by
    cutters = [tool for tool in owned if isinstance(tool, TenonCutter)]
    if by == "cutter" and cutters and not isinstance(support.joint, Reamed):
        for tool in cutters:
            yield _by_cutter(one, tool, tuple(does), long, show)
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
        caution=_TURN if by == "lathe" else _SHAVE,
        legs=one.numbers,
        proofs=(proof_id("tenon", *one.proof),),
        makes=tuple(Mark(Kind.TENON, leg_key(number)) for number in one.numbers),
    )


def _tenon_scene(one: LegSet, long: Quantity, show: Show) -> Scene:
    bore = one.legs[0].bore
    size, tip = show.length(bore.size).text, show.length(bore.tip).text
    reamed = isinstance(one.support.joint, Reamed)
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
    key = f"{one.key}.tenon"
    figure = show.figure(
        f"{key}.diagonal",
        "Stock's diagonal",
        diagonal,
        "S · √2",
        show.input("S", "square stock", stock),
        show.input("m", "the cutter takes", limit),
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
        does=(
            Plain("While the stock is square, held on its middle line, square to its end."),
            *does,
            Plain("Round the leg afterwards."),
        ),
        note=note,
        caution=_CUTTER,
        legs=one.numbers,
        proofs=(proof_id("tenon", *one.proof),),
        makes=tuple(Mark(Kind.TENON, leg_key(number)) for number in one.numbers),
    )


def _octagon(one: LegSet, tool: Tool, show: Show) -> Iterator[SetUp]:
    gauge = one.part.eight
    if gauge is None or not isinstance(tool, HandPlane):
        return
    yield plain_card(
        f"{one.key}.octagon",
        "legs",
        "octagon",
        tool,
        f"Eight sides on {one.named}",
        gauge,
        "Gauge from each edge",
        EightSides(gauge.quantity.text, one.part.stock.quantity.text),
        does=(
            Plain("Gauge from both edges of all four faces; plane the corners off to the lines."),
            Plain("Tenon first, while the stock is square; then eight sides, then round."),
        ),
        caution=_PLANE,
        legs=one.numbers,
        proofs=(proof_id("octagon", *one.proof),),
    )  # fmt: skip


def _taper(one: LegSet, tool: Tool, show: Show) -> Iterator[SetUp]:
    leg = one.support.leg
    if leg.made_by == "turned" and leg.section == "round":
        return
    if not isinstance(tool, HandPlane | TaperJig) or (
        isinstance(tool, TaperJig) and leg.section != "square"
    ):
        return
    for n, taper in enumerate(one.part.tapers, start=1):
        key = f"{one.key}.taper.{n}"
        if isinstance(tool, TaperJig):
            yield _on_sled(one, taper, tool, key, show)
        else:
            yield _planed(one, taper, tool, key, show)


def _taper_scene(one: LegSet, taper: Taper, show: Show) -> Scene:
    thick, thin = show.length(taper.thick).text, show.length(taper.thin).text
    foot = taper.ends > taper.begins
    return Tapering(
        thick if foot else thin,
        thin if foot else thick,
        show.length(taper.run).text,
        taper.off.quantity.text,
        foot,
    )


def _where(one: LegSet, taper: Taper, show: Show) -> str:
    """Where a taper begins and ends, from the tenon's end."""
    inside = one.part.in_top.quantity.value
    start, end = inside + taper.begins, inside + taper.ends
    hook = "tenon end" if one.legs[0].bore.tenon else "upper end"
    on = "; the slope runs on to the blank's end" if taper.towards == "foot" else ""
    return (
        f"From nothing at {show.length(start).text} from the {hook} to {taper.off.quantity.text} off each "
        f"face at {show.length(end).text} from it{on}."
    )


def _planed(one: LegSet, taper: Taper, tool: HandPlane, key: str, show: Show) -> SetUp:
    return plain_card(
        key,
        "legs",
        "taper",
        tool,
        f"Taper {one.named} towards the {taper.towards}",
        taper.off,
        "Off each face",
        _taper_scene(one, taper, show),
        does=(
            Plain(_where(one, taper, show)),
            Plain("Plane two opposite faces to their lines, then draw and plane the other two."),
        ),
        caution=_PLANE,
        legs=one.numbers,
        proofs=(proof_id("taper", *one.proof),),
    )


def _on_sled(one: LegSet, taper: Taper, tool: TaperJig, key: str, show: Show) -> SetUp:
    """Two neighbouring faces at one stop; the two opposite lie on a tapered face: twice the slope."""
    leg = one.legs[0]
    slope = deg.atan((taper.thick - taper.thin) / 2.0 / taper.run)
    stop = show.figure(
        f"{key}.stop",
        "Stop set over, first two faces",
        tool.length * deg.tan(slope),
        "J · tan κ",
        show.input("J", "between the sled's stops", tool.length),
        show.input("κ", "taper of a face", slope, "deg"),
    )
    then = show.figure(
        f"{key}.then",
        "Stop set over, the two opposite",
        tool.length * deg.tan(2.0 * slope),
        "J · tan 2κ",
        show.input("J", "between the sled's stops", tool.length),
        show.input("κ", "taper of a face", slope, "deg"),
    )
    faces = [name for name, _ in named_faces(one.support.leg, leg)]
    lay = Tapered(
        (faces[0], faces[2]),
        (faces[1], faces[3]),
        stop.quantity,
        then.quantity,
        f"towards the {taper.towards}",
    )
    return plain_card(
        key,
        "legs",
        "taper",
        tool,
        f"Taper {one.named} towards the {taper.towards}",
        stop,
        "Set the stop over by",
        _taper_scene(one, taper, show),
        jig=(stop, then, taper.off),
        lays=(lay,),
        does=(Plain(_where(one, taper, show)),),
        caution=_TAPER,
        legs=one.numbers,
        proofs=(proof_id("taper", *one.proof),),
        uses=tuple(Mark(Kind.FACES, leg_key(number)) for number in one.numbers),
    )
