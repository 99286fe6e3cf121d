"""Set-up cards for boring the sockets of the seat: the holes as operations, each met by every drill."""

from __future__ import annotations

import math
from dataclasses import dataclass

from splay.piece import Circle, DowelScrew, Piece, Reamed, Round, Shouldered, Triangle
from splay.quantity import Figure, Show
from splay.quantity import degrees as deg
from splay.setups.card import SetUp, Turn
from splay.setups.drills import PRESSES, Hole, Met, boring_tools, set_for
from splay.setups.groups import Group, bored_from, boring_groups, turn
from splay.setups.rods import rod_checks
from splay.setups.scenes import Drilled, OnRamp, Scene, WithBlock, arc_of
from splay.shop import AngleGuide, BevelGauge, DigitalGauge, GuideBlock, Ramp, Shop, TiltingTable, Tool
from splay.stance.staked import LegStance, Stance, support_of
from splay.stance.vectors import Vec, cross, dot
from splay.work.does import Back, Bit, Chop, Do, Ream, Turned, TwoWay
from splay.work.doing import steps
from splay.work.joinery import Recessed
from splay.work.lays import Pin, Toward
from splay.work.lying import which_way
from splay.work.marks import SEAT, Kind, Mark, centre, lettered, sightline
from splay.work.meet import leans_to
from splay.work.proofs import proof_id

DRILLED = (TiltingTable, BevelGauge, AngleGuide, DigitalGauge)
SAME = 1e-6
"""Two legs whose places and leans agree this well after a turn of the seat are bored alike."""


@dataclass(frozen=True)
class Entry:
    """One hole as it is entered: the face it is bored from and the one that lies down, by name; the
    normal of the first, out of the wood; the way out of the hole; what that way leans to."""

    up: str
    down: str
    face: Vec
    out: Vec
    leans: Toward | None


def entry(piece: Piece, leg: LegStance) -> Entry:
    """How a leg's hole is entered. Its sightline's arrow points the way the leg leans, on every face."""
    d, upper = leg.d, _from_upper(piece, leg)
    if upper:
        out: Vec = (-d[0], -d[1], -d[2])
        face: Vec = (0.0, 0.0, 1.0)
    else:
        out, face = d, (0.0, 0.0, -1.0)
    way = leans_to(out, face)
    leans = None
    if way is not None:
        leans = Toward("arrow" if way[0] * d[0] + way[1] * d[1] > 0 else "tail")
    return Entry(
        support_of(piece, leg).joint.face, "underside" if upper else "upper face", face, out, leans
    )


def _from_upper(piece: Piece, leg: LegStance) -> bool:
    return support_of(piece, leg).joint.face == "upper face"


def face_key(piece: Piece, leg: LegStance) -> str:
    """The face of the seat a leg's centre and sightline are marked on."""
    return entry(piece, leg).up


def boring_cards(piece: Piece, planned: Stance, shop: Shop, show: Show) -> tuple[SetUp, ...]:
    """Every card for boring this piece's sockets, settings from the stance as planned."""
    made: list[SetUp] = []
    for group in boring_groups(planned):
        work = _work(piece, group, show)
        made += [_card(work, tool, show) for tool in boring_tools(shop, "seat")]
    return tuple(made)


@dataclass(frozen=True)
class _Work:
    """What every tool's card says alike about one group of legs."""

    piece: Piece
    group: Group
    key: str
    hole: Hole
    entered: Entry
    angle: Figure
    turns: tuple[Turn, ...]
    checks: tuple[Figure, ...]
    last: tuple[Do, ...]


def _work(piece: Piece, group: Group, show: Show) -> _Work:
    leg = group.first
    entered = entry(piece, leg)
    lean = leg.boring.resultant
    marks = tuple(centre(one.number, entered.up) for one in group.legs)
    return _Work(
        piece,
        group,
        f"bore.{leg.id}",
        Hole("seat", lean, lean, marks, entered.up, entered.down, entered.leans),
        entered,
        _angle(group, show, f"bore.{leg.id}"),
        tuple(turn(one.number, one.boring, show) for one in group.legs),
        rod_checks(leg, lean, show),
        _last(piece, group, show),
    )


def _card(work: _Work, tool: Tool, show: Show) -> SetUp:
    group = work.group
    key = f"{work.key}.{tool.id}"
    met = set_for(tool, work.hole, work.angle, show, key)
    does = (*_turning(work, tool, show), *work.last)
    pin = next((one.pin for one in does if isinstance(one, Turned) and one.pin), None)
    lines = () if work.hole.leans is None else _sightlines(work)
    return SetUp(
        work=work.key,
        by=tool.id,
        station="boring",
        operation="bore",
        way=tool.kind,
        tool=tool.name,
        legs=group.numbers,
        title=f"Bore {group.named()}",
        angle=work.angle,
        dials=met.dials,
        setting=met.setting,
        setting_name=met.name,
        which_way=which_way((met.lay,)),
        steps=steps(does),
        turns=work.turns,
        jig=(*met.jig, *(_pin_figures(work, pin, show, key) if pin else ())),
        in_reach=not met.note,
        reach_note=met.note,
        scene=_scene(tool, work, met, show),
        proofs=tuple(proof_id("bore", id) for id in group.ids),
        checks=work.checks,
        cautions=(met.caution,),
        lays=(met.lay,),
        wedges=met.wedges,
        does=does,
        uses=(*work.hole.at, *lines, *_letters(work, does)),
        makes=(
            *(Mark(Kind.SOCKET, SEAT, str(number)) for number in group.numbers),
            *((Mark(Kind.MIDDLE_HOLE, SEAT, work.entered.down),) if pin else ()),
        ),
        loses=work.hole.at,
    )


def _sightlines(work: _Work) -> tuple[Mark, ...]:
    return tuple(sightline(number, work.entered.up) for number in work.group.numbers)


def _letters(work: _Work, does: tuple[Do, ...]) -> tuple[Mark, ...]:
    wanted = any(isinstance(one, TwoWay) for one in does)
    return lettered(work.entered.up) if wanted else ()


def _angle(group: Group, show: Show, key: str) -> Figure:
    lean = group.first.boring
    return show.figure(
        f"{key}.resultant",
        "True lean off square (resultant)",
        lean.resultant,
        "tan² ρ = tan² splay + tan² rake",
        show.input("splay", "seen from the front", abs(lean.splay), "deg"),
        show.input("rake", "seen from the side", abs(lean.rake), "deg"),
        unit="deg",
    )


def _turning(work: _Work, tool: Tool, show: Show) -> tuple[Do, ...]:
    """How one setting serves the whole group; under a press also by pin, end for end, or two tilts."""
    group, lean = work.group, work.group.first.boring
    made: list[Do] = []
    if work.hole.leans is None:
        return ()
    if isinstance(tool, PRESSES):
        pairs = diagonals(group)
        if ring_count(work.piece, group):
            made.append(Turned("each"))
            made.append(Turned("pin", pin=_pin(work, show)))
        elif pairs:
            made.append(Turned("diagonal", pairs))
        elif len(group.legs) > 1:
            made.append(Turned("each"))
    elif len(group.legs) > 1:
        made.append(Turned("each"))
    both = min(abs(lean.splay), abs(lean.rake)) > 1e-6
    if isinstance(tool, TiltingTable) and both and _same_tilts(group):
        made.append(_two_ways(work, show))
    return tuple(made)


def _same_tilts(group: Group) -> bool:
    """Whether all legs lean as much sideways and as much to front or back: mirrored, not turned."""
    lean = group.first.boring
    return all(
        abs(abs(leg.boring.splay) - abs(lean.splay)) < SAME
        and abs(abs(leg.boring.rake) - abs(lean.rake)) < SAME
        for leg in group.legs
    )


def _two_ways(work: _Work, show: Show) -> TwoWay:
    """The tilt next to the seat is the splay; the one that carries it tan r2 = tan r · cos s.

    Carried the other way round the first would have to give way: the order is part of the setting.
    """
    lean = work.group.first.boring
    second = deg.atan(deg.tan(abs(lean.rake)) * deg.cos(lean.splay))
    legs = []
    for leg in work.group.legs:
        out = entry(work.piece, leg).out
        side = "RIGHT" if out[0] > 0 else "LEFT"
        legs.append((leg.number, side, "BACK" if out[1] > 0 else "FRONT"))
    return TwoWay(show.angle(abs(lean.splay)), show.angle(second, 2), tuple(legs))


def ring_count(piece: Piece, group: Group) -> int:
    """How many legs of a ring are bored by turning the seat about its middle; 0 where that is wrong.

    Right only where every sightline makes the same angle with its own radius: splay and rake alike on
    a circle do not.
    """
    placement = support_of(piece, group.first).placement
    if not isinstance(placement, Circle | Triangle):
        return 0
    count = placement.count if isinstance(placement, Circle) else 3
    if len(group.legs) != count:
        return 0
    c, s = deg.cos(360.0 / count), deg.sin(360.0 / count)
    for one, two in zip(group.legs, (*group.legs[1:], group.first), strict=True):
        for v, w in ((one.socket, two.socket), (one.d, two.d)):
            if math.hypot(v[0] * c - v[1] * s - w[0], v[0] * s + v[1] * c - w[1]) > SAME:
                return 0
    return count


def diagonals(group: Group) -> tuple[tuple[int, int], ...]:
    """Legs of the group that change places when the seat is turned half round."""
    found = []
    for k, a in enumerate(group.legs):
        for b in group.legs[k + 1 :]:
            gap = [abs(p + q) for p, q in zip(a.socket[:2], b.socket[:2], strict=True)]
            lean = [abs(p + q) for p, q in zip(a.d[:2], b.d[:2], strict=True)]
            if max(gap) < SAME and max(lean) < SAME:
                found.append((a.number, b.number))
    return tuple(found) if 2 * len(found) == len(group.legs) else ()


def _pin(work: _Work, show: Show) -> Pin:
    """From where the bit's point meets the table to the seat's middle, which the pin holds.

    The face that is bored from is uppermost, so the bit meets the other face that lies on the table:
    thickness · tan rho from where it entered, against what its way out leans to.
    """
    leg, entered = work.group.first, work.entered
    thick = work.piece.top.bored_thick
    z = thick if entered.down == "upper face" else 0.0
    run = (leg.socket[2] - z) / leg.d[2]
    at = (leg.socket[0] - leg.d[0] * run, leg.socket[1] - leg.d[1] * run, 0.0)
    up = leans_to(entered.out, entered.face)
    assert up is not None
    middle: Vec = (-at[0], -at[1], 0.0)
    right = cross(up, entered.face)
    count = len(work.group.legs)
    return Pin(show.length(-dot(middle, up)), show.length(dot(middle, right)), 360.0 / count, count)


def _pin_figures(work: _Work, pin: Pin, show: Show, key: str) -> tuple[Figure, ...]:
    """Where the pin stands that the seat is turned on, and the cradle for one already sawn round."""
    leg, top = work.group.first, work.piece.top
    radius = math.hypot(leg.socket[0], leg.socket[1])
    below = pin.downhill.value
    inputs = (
        show.input("R", "leg centres from the middle", radius),
        show.input("t", "thickness", work.piece.top.bored_thick),
        show.input("ρ", "lean", leg.boring.resultant, "deg"),
    )
    made = [
        show.figure(
            f"{key}.pin",
            f"Pin in the table, {'downhill' if below >= 0 else 'uphill'} of the bit's point",
            abs(below),
            "from the middle to where the bit meets the table, along the fall",
            *inputs,
            note="along the tilted table, from where the lowered bit touches it; "
            "bore the seat's lower face in its middle for the pin: it shows unless plugged",
        )
    ]
    if isinstance(top.outline, Round):
        rim = top.outline.diameter / 2.0
        made.append(
            show.figure(
                f"{key}.cradle",
                "Or a cradle: two stops square to each other, their corner downhill of that point",
                rim * math.sqrt(2.0) + below,
                "r · √2 + p",
                show.input("r", "half the round seat", rim),
                show.input("p", "pin, downhill", below),
                note="for a seat already sawn round: it rests in the corner; "
                "turn it there until the next mark is under the point",
            )
        )
    return tuple(made)


def _last(piece: Piece, group: Group, show: Show) -> tuple[Do, ...]:
    """Depth and bit, which are the same whatever holds the angle."""
    joint = support_of(piece, group.first).joint
    bore, rho = group.first.bore, group.first.boring.resultant
    if isinstance(joint, Shouldered):
        return (Chop(show.length(joint.socket / deg.cos(rho)), show.length(joint.across)),)
    if isinstance(joint, Reamed):
        # Under a hollow legs that lean alike go through more wood or less: no hole may be wider than the
        # thinnest of their tenons' tips.
        deepest = max(leg.bore.deep for leg in group.legs)
        return (Ream(show.length(joint.pilot(deepest)), show.angle(joint.included)), Back())
    if bore.through:
        return (Bit(show.length(bore.size), None, None), Back())
    if isinstance(joint, DowelScrew):
        slant = bore.wide / 2.0 * deg.tan(rho)
        return (
            Recessed(
                show.length(bore.wide), show.length(bore.recess), show.length(bore.recess + slant),
                show.length(bore.size), show.length(bore.deep - bore.recess),
            ),
        )  # fmt: skip
    stop = bore.deep + bore.size / 2 * deg.tan(rho)
    return (Bit(show.length(bore.size), show.length(bore.deep), show.length(stop)),)


def _scene(tool: Tool, work: _Work, met: Met, show: Show) -> Scene:
    if work.hole.leans is None:
        return tool_scene(tool, met, work.hole.lean, "", "", show)
    high, low = ("arrow", "plain end") if work.hole.leans.by == "arrow" else ("plain end", "arrow")
    if isinstance(tool, PRESSES):
        high, low = f"{high}: uphill", f"{low}: downhill"
    return tool_scene(tool, met, work.hole.lean, high, low, show)


def tool_scene(tool: Tool, met: Met, rho: float, right: str, left: str, show: Show) -> Scene:
    """What the picture of a boring tool shows, with the names of what lies right and left."""
    if isinstance(tool, Ramp):
        return OnRamp(rho, right, left, show.length(tool.base).text, met.setting.text, tool.spacer)
    if isinstance(tool, GuideBlock):
        return WithBlock(rho, right, left, met.setting.text, show.length(tool.height).text)
    assert isinstance(tool, DRILLED)
    if not met.dials:
        return Drilled(tool.kind, rho, right, left, None)
    return Drilled(tool.kind, met.dials[0].off_square, right, left, arc_of(met.dials[0], met.setting.text))


__all__ = [
    "Entry",
    "bored_from",
    "boring_cards",
    "diagonals",
    "entry",
    "face_key",
    "ring_count",
    "tool_scene",
]
