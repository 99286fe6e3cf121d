"""Boring into a round or square stick: for a stretcher's end or for a rope, met by every drill."""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator
from dataclasses import dataclass

from splay.parts.member import MemberEnd
from splay.parts.rope import RopeHole
from splay.quantity import Figure, Quantity, Show
from splay.setups.card import SetUp
from splay.setups.drills import Hole, set_for
from splay.setups.scenes import TwoSticks, arc_of
from splay.shop import BevelGauge, DigitalGauge, OppositeLeg, Protractor, TiltingTable, Tool
from splay.work.does import Across, Along, Do, Round
from splay.work.doing import steps
from splay.work.lays import Toward, Way
from splay.work.lying import which_way
from splay.work.marks import Kind, Mark, leg_key, member_key

SQUARE_DEG = 1e-6
_SURFACE = (Protractor, BevelGauge, DigitalGauge)


@dataclass(frozen=True)
class Into:
    """What is bored into sticks at one setting: `ends` the sockets, `angle` the acute angle between the
    axes to bore at; `stick` what the first is bored into, `leg` its number (0 for a stretcher), `other`
    what runs along the hole; `sight` the marks opposite; `carriers` the stretchers among what is bored
    and what is aimed at."""

    key: str
    operation: str
    kind: str
    title: str
    angle: Figure
    ends: tuple[MemberEnd | RopeHole, ...]
    marks: tuple[Mark, ...]
    sight: tuple[Mark, ...]
    leg: int
    member: int
    other: str
    legs: tuple[int, ...]
    does: tuple[Do, ...]
    uses: tuple[Mark, ...]
    proofs: tuple[str, ...]
    checks: tuple[Figure, ...]
    parts: tuple[str, ...]
    carriers: str = ""


def end_toward(near: str, leg: int, opening: float) -> Toward | None:
    """The end the way out of a socket leans to: the foot (second end) where it opens under 90 degrees."""
    if abs(opening - 90.0) <= SQUARE_DEG:
        return None
    far = "foot" if leg else "second end"
    return Toward("end", far if opening < 90.0 else near)


def stick_cards(bore: Into, tools: Iterable[Tool], show: Show) -> Iterator[SetUp]:
    """The card of each tool for what is bored, the tools with their places in the shop."""
    said = steps(bore.does)
    for tool in tools:
        yield _card(bore, said, tool, show)


def _card(bore: Into, said: tuple[str, ...], tool: Tool, show: Show) -> SetUp:
    key = f"{bore.key}.{tool.id}"
    first = bore.ends[0]
    off = 90.0 - bore.angle.quantity.value
    opening = 90.0 - off if first.acute_side == "foot" else 90.0 + off
    # Turned against the surface by the taper alone, as much at the angle read as at the one planned.
    planned = first.read.quantity.value
    against = first.opening_on - (planned if first.acute_side in ("foot", "") else 180.0 - planned)
    on = opening + against
    by_surface = isinstance(tool, _SURFACE)
    hole = Hole(
        "stick",
        abs(90.0 - opening),
        abs(90.0 - on),
        bore.marks,
        "",
        "",
        end_toward(first.hook, bore.leg, on if by_surface else opening),
        bore.sight,
        bool(first.face),
        bore.carriers,
    )
    met = set_for(tool, hole, bore.angle, show, key)
    setting: Quantity = met.setting
    arc = arc_of(met.dials[0], setting.text) if met.dials else None
    stick = f"leg {bore.leg}" if bore.leg else f"stretcher {bore.member}"
    scene = TwoSticks(
        off,
        arc,
        bore.angle.quantity.text,
        first.acute_side or "square",
        first.hook,
        "foot" if bore.leg else "second end",
        stick,
        bore.other,
        isinstance(tool, OppositeLeg),
    )
    return SetUp(
        work=bore.key,
        by=tool.id,
        station="stretchers",
        operation=bore.operation,
        way=tool.kind,
        tool=tool.name,
        legs=bore.legs,
        title=bore.title,
        angle=bore.angle,
        dials=met.dials,
        setting=setting,
        setting_name=met.name,
        which_way=which_way((met.lay,)),
        steps=said,
        turns=(),
        jig=(*met.jig, *_vee(bore, tool, show, key)),
        in_reach=not met.note,
        reach_note=met.note,
        scene=scene,
        proofs=bore.proofs,
        checks=bore.checks,
        cautions=(met.caution,),
        parts=bore.parts,
        lays=(met.lay,),
        wedges=met.wedges,
        does=bore.does,
        uses=bore.uses,
        makes=bore.marks,
    )


def _vee(bore: Into, tool: Tool, show: Show, key: str) -> tuple[Figure, ...]:
    """The V a round stick lies in under the drill: it touches at 45 degrees, D / sqrt 2 apart."""
    first = bore.ends[0]
    if not isinstance(tool, TiltingTable) or first.face:
        return ()
    thick = 2.0 * first.radius
    return (
        show.figure(
            f"{key}.vee",
            "V for the stick, sides at 45°: its mouth more than",
            thick / math.sqrt(2.0),
            "D / √2",
            show.input("D", "stick there", thick),
            note="as long as the stick; shim a tapered one's thin end until its middle runs with the V",
        ),
    )


def placing(end: MemberEnd | RopeHole, leg: int, member: int, mark: Mark, first_end: str) -> tuple[Do, ...]:
    """Where a socket's middle is marked: along the stick from an end, then round it or across a flat.

    `first_end` names the end of a stretcher it is hooked on.
    """
    named = f"leg {leg}" if leg else f"stretcher {member}"
    hook = end.hook if leg else first_end
    line = "outer line" if leg else "floor-side line"
    if end.face:
        return (
            Along((mark,), named, hook, end.face, end.mark.quantity),
            Across((mark,), named, end.face, end.round_.quantity, end.aside_to),
        )
    way: Way = "clockwise" if end.clockwise else "anticlockwise"
    return (
        Along((mark,), named, hook, line, end.mark.quantity, ring=True),
        Round((mark,), named, line, end.round_.quantity, end.turn.quantity, way, hook),
    )


def stick_marks(leg: int, member: int, flat: bool) -> tuple[Mark, ...]:
    """What the marking of a socket leans on."""
    if leg:
        key = leg_key(leg)
        return (Mark(Kind.TENON, key), Mark(Kind.FACES if flat else Kind.OUTER_LINE, key))
    key = member_key(member)
    return (Mark(Kind.ENDS, key), Mark(Kind.FACES if flat else Kind.FLOOR_SIDE, key))
