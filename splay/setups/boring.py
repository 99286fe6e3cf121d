"""Set-up cards for boring the sockets, one for each tool the shop owns and each lean."""

from __future__ import annotations

import math
from dataclasses import dataclass

from splay.piece import Piece, Reamed, Round, Shouldered
from splay.quantity import Figure, Quantity, Show
from splay.quantity import degrees as deg
from splay.setups.card import Dial, Scene, SetUp, Turn
from splay.setups.dial import dial
from splay.setups.groups import PIN, Group, bored_from, boring_groups, indexing, toward, turn
from splay.setups.jigs import block_angle, block_setback, ramp_spacer, wedge
from splay.setups.proofs import rod_checks
from splay.shop import (
    AngleGuide,
    BevelGauge,
    DigitalGauge,
    GuideBlock,
    Ramp,
    Shop,
    TiltingTable,
    Tool,
)
from splay.shop.scale import within_reach
from splay.stance.staked import Stance, support_of

BORING = (BevelGauge, TiltingTable, Ramp, GuideBlock, AngleGuide, DigitalGauge)
PRESSES = (TiltingTable, Ramp)
_PLUMB_DEG = 1e-9
_BY_HAND = "Each leg on its own sightline; the setting stays the same."
_CLAMP = (
    "Clamp the top: a large bit can seize it and spin it. Keep hands out of its swing, and "
    "follow the drill's own manual."
)
_HAND = (
    "Brace for the bit to catch, clamp the top, keep the other hand out from under it; "
    "follow the drill's own manual."
)


def boring_cards(piece: Piece, planned: Stance, shop: Shop, show: Show) -> tuple[SetUp, ...]:
    """Every card for boring this piece's sockets, settings from the stance as planned."""
    tools = [tool for tool in shop.tools if tool.owned and isinstance(tool, BORING)]
    made: list[SetUp] = []
    for group in boring_groups(planned):
        shared = _shared(piece, group, show)
        made += [_card(shared, tool, index, show) for index, tool in enumerate(tools)]
    return tuple(made)


@dataclass(frozen=True)
class _Shared:
    """What every tool's card says alike about one group of legs."""

    piece: Piece
    group: Group
    key: str
    uphill: str
    downhill: str
    angle: Figure
    turns: tuple[Turn, ...]
    checks: tuple[Figure, ...]
    index: str
    last: tuple[str, ...]


def _shared(piece: Piece, group: Group, show: Show) -> _Shared:
    key = f"bore.{group.first.number}"
    uphill, downhill = _sides(piece, group)
    return _Shared(
        piece,
        group,
        key,
        uphill,
        downhill,
        _angle(group, show, key),
        tuple(turn(leg.number, leg.boring, show) for leg in group.legs),
        rod_checks(group.first, group.first.boring.resultant, show),
        indexing(piece, group),
        _last_steps(piece, group, show),
    )


def _card(shared: _Shared, tool: Tool, index: int, show: Show) -> SetUp:
    group = shared.group
    rho = group.first.boring.resultant
    key = f"{shared.key}.{tool.kind}.{index}"
    name, setting, dials, jig, reaches, note = setting_on(tool, rho, show, key)
    return SetUp(
        id=key,
        station="boring",
        operation="bore",
        way=tool.kind,
        tool=tool.name,
        legs=group.numbers,
        title=f"Bore {group.named()}",
        angle=shared.angle,
        dials=dials,
        setting=setting,
        setting_name=name,
        which_way=_which_way(shared, tool),
        steps=_steps(shared, tool, show),
        turns=shared.turns,
        jig=(*jig, *_pin(shared, tool, show, key)),
        in_reach=reaches,
        reach_note=note,
        scene=_scene(tool, rho, shared, dials, setting, show),
        proofs=tuple(f"bore.{number}" for number in group.numbers),
        checks=shared.checks,
        cautions=(_CLAMP if isinstance(tool, PRESSES) else _HAND,),
    )


def _pin(shared: _Shared, tool: Tool, show: Show, key: str) -> tuple[Figure, ...]:
    """Where the pin stands that the top is turned on, and the cradle for a top already rounded."""
    if not isinstance(tool, PRESSES) or not shared.index.startswith(PIN):
        return ()
    socket = shared.group.first.socket
    radius = math.hypot(socket[0], socket[1])
    top = shared.piece.top
    below = "middle" in shared.downhill
    side = "downhill" if below else "uphill"
    made = [
        show.figure(
            f"{key}.pin",
            "Pin in the table, from the bit's point",
            radius,
            "circle of the legs",
            show.input("R", "leg centres from the middle", radius),
            note=f"measured along the tilted table, {side} of the bit; the top's centre hole sits on it",
        )
    ]
    if isinstance(top.outline, Round):
        rim = top.outline.diameter / 2.0
        made.append(
            show.figure(
                f"{key}.cradle",
                "Or a cradle: two stops square to each other, their corner downhill of the bit",
                rim * math.sqrt(2.0) + (radius if below else -radius),
                "r · √2 + R" if below else "r · √2 − R",
                show.input("r", "half the round top", rim),
                show.input("R", "leg centres from the middle", radius),
                note="for a top without a centre hole, already sawn round: it rests in the corner; "
                "turn it there until the next mark is under the point",
            )
        )
    return tuple(made)


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


_Setting = tuple[str, Quantity, tuple[Dial, ...], tuple[Figure, ...], bool, str]


def setting_on(tool: Tool, rho: float, show: Show, key: str) -> _Setting:
    """The setting's name and figure, its dials, jig sizes, and whether the tool gets there."""
    if isinstance(tool, Ramp):
        spacer = ramp_spacer(tool, rho, show, key)
        reaches = rho <= tool.reach + 1e-6
        note = "" if reaches else _too_steep(tool.name, rho, tool.reach, show)
        return spacer.label, spacer.quantity, (), (spacer,), reaches, note
    if isinstance(tool, GuideBlock):
        angle = block_angle(rho, show, key)
        reaches = rho <= tool.reach + 1e-6
        note = "" if reaches else _too_steep(tool.name, rho, tool.reach, show)
        return (
            angle.label,
            angle.quantity,
            (),
            (angle, block_setback(tool, rho, show, key)),
            reaches,
            note,
        )
    assert isinstance(tool, BevelGauge | TiltingTable | AngleGuide | DigitalGauge)
    made = dial(tool.name, tool.scale, rho, show)
    name = {
        "bevel_gauge": "Set the bevel gauge to",
        "tilting_table": "Tilt the table to",
        "angle_guide": "Set the guide to",
        "digital_gauge": "Bore when the gauge shows",
    }[tool.kind]
    if within_reach(tool.scale, rho):
        jig: tuple[Figure, ...] = ()
        return name, made.reading, (made,), jig, True, ""
    end = dial(tool.name, tool.scale, tool.scale.reach, show)
    jig = wedge(rho, tool.scale.reach, show, key)
    note = (
        f"{show.angle(rho).text} is past this tool's reach of {show.angle(tool.scale.reach).text}. "
        f"Set it to its end, {end.reading.text}, and make up the rest with a wedge of "
        f"{jig[0].quantity.text} under the work, its thick end on the uphill side."
    )
    return name, end.reading, (end,), jig, False, note


def _too_steep(name: str, rho: float, reach: float, show: Show) -> str:
    return (
        f"{show.angle(rho).text} is more than {name.lower()} is good for "
        f"({show.angle(reach).text}). Use a tilting table with a wedge, or a bevel gauge and a "
        "hand drill."
    )


def _sides(piece: Piece, group: Group) -> tuple[str, str]:
    """What lies uphill when the spindle stands plumb and the work is tilted, and what downhill.

    From the underside an outward-leaning hole needs its rim uphill; from the upper face the
    hole is entered from the other end, so it is the middle that goes uphill. Inward: swapped.
    """
    if group.side == 0:
        a = f"side the foot leans to ({toward(group.first.boring)})"
        b = "side it leans from"
    else:
        a, b = ("rim", "middle") if group.side > 0 else ("middle", "rim")
    return (a, b) if bored_from(piece, group) == "underside" else (b, a)


def _which_way(shared: _Shared, tool: Tool) -> tuple[str, ...]:
    uphill, downhill = shared.uphill, shared.downhill
    face = bored_from(shared.piece, shared.group)
    up = "Underside up." if face == "underside" else "Upper face up."
    if shared.group.first.boring.bearing is None:
        return (up, "This hole stands square to the top: there is no sightline to set it on.")
    if isinstance(tool, PRESSES):
        return (
            up,
            f"The {uphill} is UPHILL, the {downhill} downhill, the sightline along the fall.",
        )
    if isinstance(tool, GuideBlock):
        return (up, f"Block on the sightline; its face leans to the {uphill}, and the bit on it.")
    if isinstance(tool, BevelGauge):
        return (up, f"Gauge on the sightline; its blade, and the drill, lean to the {uphill}.")
    if isinstance(tool, AngleGuide):
        return (up, f"Turn the guide to the sightline; its column leans to the {uphill}.")
    zero = (
        "Zero it with the bit standing square on the top"
        if isinstance(tool, DigitalGauge) and tool.scale.at_square == 0
        else "Zero it lying flat on the top"
    )
    return (up, f"{zero}; lean the drill to the {uphill}, along the sightline.")


def _steps(shared: _Shared, tool: Tool, show: Show) -> tuple[str, ...]:
    lean = shared.group.first.boring
    made = []
    if shared.index:
        made.append(shared.index if isinstance(tool, PRESSES) else _BY_HAND)
    if isinstance(tool, TiltingTable) and min(abs(lean.splay), abs(lean.rake)) > 1e-6:
        second = deg.atan(deg.tan(abs(lean.rake)) * deg.cos(lean.splay))
        made.append(
            f"With a table that tilts two ways: tilt the splay, {show.angle(abs(lean.splay)).text}, "
            f"then across it {show.angle(second, 2).text}, not the rake itself."
        )
    return (*made, *shared.last)


def _last_steps(piece: Piece, group: Group, show: Show) -> tuple[str, ...]:
    """Depth and bit, which are the same whatever holds the angle."""
    joint = support_of(piece, group.first).joint
    bore = group.first.bore
    if isinstance(joint, Shouldered):
        return (
            f"Bore the waste, then chop the mortise to {show.length(joint.socket).text} by "
            f"{show.length(joint.across).text} against a guide block at the lean.",
        )
    bit = f"Bit {show.length(bore.size).text}."
    if isinstance(joint, Reamed):
        pilot = bore.size - 2.0 * deg.tan(joint.included / 2.0) * bore.deep
        return (
            f"Bore {show.length(pilot).text} or a little under, then ream "
            f"{show.angle(joint.included).text} from the underside, trying the tenon as it sinks.",
        )
    if not bore.through:
        stop = bore.deep + bore.size / 2 * deg.tan(group.first.boring.resultant)
        return (
            f"{bit} Depth stop at {show.length(stop).text} from where it first touches, "
            f"for {show.length(bore.deep).text} along the axis.",
        )
    back = "Back the far face with scrap, or stop when the lead point shows and finish from there."
    return (f"{bit} {back}",)


def _scene(
    tool: Tool,
    rho: float,
    shared: _Shared,
    dials: tuple[Dial, ...],
    setting: Quantity,
    show: Show,
) -> Scene:
    if rho <= _PLUMB_DEG:
        return tool_scene(tool, rho, "", "", dials, setting, show)
    sided = shared.group.side != 0
    high, low = (shared.uphill, shared.downhill) if sided else ("leans to", "leans from")
    if isinstance(tool, PRESSES):
        high, low = f"{high}: uphill", f"{low}: downhill"
    return tool_scene(tool, rho, high, low, dials, setting, show)


def tool_scene(
    tool: Tool,
    rho: float,
    right: str,
    left: str,
    dials: tuple[Dial, ...],
    setting: Quantity,
    show: Show,
) -> Scene:
    """What the picture of a boring tool shows, with the names of what lies right and left."""
    notes: dict[str, str] = {}
    if isinstance(tool, Ramp):
        notes = {
            "base": show.length(tool.base).text,
            "spacer": setting.text,
            "spacer_kind": tool.spacer,
        }
    elif isinstance(tool, GuideBlock):
        notes = {"block": setting.text, "height": show.length(tool.height).text}
    if not dials:
        return Scene(tool.kind, rho, right, left, None, notes)
    d = dials[0]
    scale = (d.at_square, d.counts, d.reach, setting.text)
    return Scene(tool.kind, d.off_square, right, left, scale, notes)
