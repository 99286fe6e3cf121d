"""Pictures of the set-ups: the tool, its scale and the work, at the real angle, the right way round.

Picture units, not millimetres: the box is 320 by 248; angles alone are true.
"""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from splay.quantity import degrees as deg
from splay.setups.scenes import (
    ArcSawn,
    BetweenFeet,
    BevelledEdge,
    BoredOn,
    ButtonMade,
    Dressed,
    Drilled,
    EightSides,
    Grooving,
    HalfLap,
    HollowCut,
    JointHoles,
    JointLined,
    KerfOnEnd,
    LegOnSaw,
    Marked,
    MitreDowelled,
    MouthEased,
    OnRamp,
    PilotHole,
    Scene,
    Scribed,
    SideTapering,
    SlotBored,
    SocketPierced,
    SplineSeen,
    StickBent,
    StickSawn,
    StickShortened,
    StretcherMade,
    Tapering,
    TenonMade,
    ThroughBored,
    TopHeld,
    TwoSticks,
    WedgeCut,
    WithBlock,
)
from splay.stance.vectors import Flat
from splay.views import joint_pictures as joint
from splay.views import round_pictures as rounds
from splay.views import stick_pictures as stick
from splay.views import through_pictures as through
from splay.views.saw_pictures import crosscut
from splay.views.scale_arc import scale_arc
from splay.views.shapes import Shape, View, area, ellipse, line, text

BOX = (-160.0, -120.0, 160.0, 128.0)
_ROOM = 9.0


def picture(scene: Scene, title: str) -> View:
    """The picture for one way of working."""
    name, drawn = _DRAWN[type(scene)]
    shapes = tuple(drawn(scene))
    xs = [x for shape in shapes for x, _ in shape.points]
    ys = [y for shape in shapes for _, y in shape.points]
    # A steep setting may reach past the usual frame: it grows, rather than cut a figure off.
    box = (
        min(BOX[0], min(xs) - _ROOM),
        min(BOX[1], min(ys) - _ROOM),
        max(BOX[2], max(xs) + _ROOM),
        max(BOX[3], max(ys) + _ROOM),
    )
    return View(getattr(scene, "way", name), title, box, shapes)


def _turned(points: tuple[Flat, ...], angle: float, about: Flat) -> tuple[Flat, ...]:
    c, s = deg.cos(angle), deg.sin(angle)
    return tuple(
        (
            about[0] + (x - about[0]) * c - (y - about[1]) * s,
            about[1] + (x - about[0]) * s + (y - about[1]) * c,
        )
        for x, y in points
    )


def _box(left: float, bottom: float, right: float, top: float) -> tuple[Flat, ...]:
    return ((left, bottom), (right, bottom), (right, top), (left, top))


def _arc(
    scene: Drilled | LegOnSaw, centre: Flat, radius: float, square_at: float, way: int
) -> tuple[Shape, ...]:
    return () if scene.arc is None else scale_arc(centre, radius, square_at, way, scene.arc, scene.off)


def _bit(x: float, point: float, top: float) -> list[Shape]:
    """A bit and chuck standing plumb at `x`, its point at height `point`."""
    return [
        area("tool", _box(x - 7, point, x + 7, top - 26)),
        area("tool", ((x - 14, top - 26), (x + 14, top - 26), (x + 9, top), (x - 9, top))),
        line("axis", (x, point - 42), (x, top + 4)),
    ]


def _ends(scene: Drilled | OnRamp, work: tuple[Flat, ...]) -> list[Shape]:
    """The names of both sides, beside the ends of the work's upper edge."""
    left, right = work[3], work[2]
    return [
        text("label", (right[0] + 4, right[1] + 9), scene.right, anchor="end"),
        text("label", (left[0] - 4, left[1] + 9), scene.left, anchor="start"),
    ]


def _table(scene: Drilled) -> list[Shape]:
    pivot = (0.0, -42.0)
    table = _turned(_box(-118, -50, 118, -42), scene.off, pivot)
    work = _turned(_box(-104, -42, 104, -12), scene.off, pivot)
    hole = _turned(_box(-104, -42, 104, -12), scene.off, pivot)
    half = 8.0 / deg.cos(scene.off)
    bottom = pivot[1]
    mouth = bottom + 30.0 / deg.cos(scene.off)
    tan = deg.tan(scene.off)
    socket = (
        (-8.0, bottom - 8 * tan),
        (8.0, bottom + 8 * tan),
        (8.0, mouth + 8 * tan),
        (-8.0, mouth - 8 * tan),
    )
    return [
        area("tool", table),
        area("section", work, part="top"),
        area("cut", socket),
        line("dimension", (-130, pivot[1]), (-60, pivot[1])),
        *_bit(0, mouth + half * 0.2, 116),
        *_ends(scene, hole),
        *_arc(scene, pivot, 122, 180.0, 1),
    ]


def _ramp(scene: OnRamp) -> list[Shape]:
    hinge = (-136.0, -96.0)
    run = 190.0
    c, s, t = deg.cos(scene.off), deg.sin(scene.off), deg.tan(scene.off)
    deck = _turned(_box(-136, -96, 130, -89), scene.off, hinge)
    work = _turned(_box(-52, -89, 118, -63), scene.off, hinge)
    spacer: Shape
    at = hinge[0] + run
    kind = scene.spacer_kind
    if kind == "bar":
        radius = run * deg.tan(scene.off / 2)
        spacer = ellipse("measured", (at, hinge[1] + radius), (radius, radius))
    elif kind == "square_ramp":
        foot = (hinge[0] + run * c, hinge[1] + run * s)
        drop = run * t
        spacer = area(
            "measured",
            (
                foot,
                (foot[0] + drop * s, foot[1] - drop * c),
                (foot[0] + drop * s + 9 * c, foot[1] - drop * c + 9 * s),
                (foot[0] + 9 * c, foot[1] + 9 * s),
            ),
        )
    else:
        near = at if kind == "plumb_base" else hinge[0] + run * c
        rise = (near - hinge[0]) * t
        spacer = area(
            "measured",
            (
                (near, hinge[1]),
                (near + 9, hinge[1]),
                (near + 9, hinge[1] + rise + 9 * t),
                (near, hinge[1] + rise),
            ),
        )
    x = hinge[0] + 170.0 * c
    surface = hinge[1] + (x - hinge[0]) * t + 33.0 / c
    return [
        line("tool", (-150, hinge[1]), (150, hinge[1])),
        spacer,
        area("tool", deck),
        area("section", work, part="top"),
        *_bit(x, surface, 116),
        *_ends(scene, work),
        text("dimension", ((hinge[0] + at) / 2, -110), scene.base),
        text("pointer", (at + 16, hinge[1] + 12), scene.spacer, anchor="start"),
    ]


_TOP = _box(-140, -92, 140, -58)
_MARK: Flat = (-20.0, -58.0)


def _drill(scene: Drilled | WithBlock, start: float = 0.0) -> list[Shape]:
    """The top lying flat, underside or upper face up, and a drill's bit leaning to the right."""
    x, y = _MARK
    bit = _turned(_box(x - 6, y + start, x + 6, y + 120), -scene.off, _MARK)
    chuck = _turned(_box(x - 13, y + 120, x + 13, y + 150), -scene.off, _MARK)
    axis = _turned(((x, y - 44), (x, y + 168)), -scene.off, _MARK)
    slant = 6 / deg.cos(scene.off)
    shift = 34 * deg.tan(scene.off)
    hole = (
        (x - slant, y),
        (x + slant, y),
        (x + slant - shift, y - 34),
        (x - slant - shift, y - 34),
    )
    return [
        area("section", _TOP, part="top"),
        area("cut", hole),
        area("tool", bit),
        area("tool", chuck),
        line("axis", *axis),
        line("dimension", (x, y), (x, y + 150)),
        text("label", (138, -104), scene.right, anchor="end"),
        text("label", (-138, -104), scene.left, anchor="start"),
    ]


def _gauge(scene: Drilled) -> list[Shape]:
    root: Flat = (46.0, -58.0)
    blade = _turned(_box(43, -58, 49, 38), -scene.off, root)
    return [
        *_drill(scene),
        area("tool", _box(46, -58, 128, -48)),
        area("measured", blade),
        *_arc(scene, root, 112, 90.0, -1),
    ]


def _guide(scene: Drilled) -> list[Shape]:
    x, y = _MARK
    column = _turned(_box(x + 14, y + 6, x + 20, y + 140), -scene.off, _MARK)
    return [
        *_drill(scene),
        area("tool", _box(x - 44, y, x + 64, y + 6)),
        area("measured", column),
        *_arc(scene, _MARK, 154, 90.0, -1),
    ]


def _block(scene: WithBlock) -> list[Shape]:
    x, y = _MARK
    lean = 74 * deg.tan(scene.off)
    left = x + 6 / deg.cos(scene.off)
    block = ((left, y), (left + 92, y), (left + 92, y + 74), (left + lean, y + 74))
    return [
        *_drill(scene),
        area("measured", block),
        text("pointer", (left + lean + 32, y + 18), scene.block),
        text("dimension", (left + 58, y + 56), scene.height),
    ]


def _digital(scene: Drilled) -> list[Shape]:
    x, y = _MARK
    body = _turned(_box(x + 8, y + 66, x + 66, y + 100), -scene.off, _MARK)
    middle = _turned(((x + 37, y + 80),), -scene.off, _MARK)[0]
    words = scene.arc.text if scene.arc else ""
    return [
        *_drill(scene),
        area("measured", body),
        text("pointer", middle, words, turn=-scene.off),
    ]


def _saw(scene: LegOnSaw) -> list[Shape]:
    pivot: Flat = (20.0, 40.0)
    t = deg.tan(scene.off)
    near = pivot[0] - 44 * t
    leg = ((-150.0, -4.0), (near, -4.0), (pivot[0], 40.0), (-150.0, 40.0))
    waste = ((near, -4.0), (96.0, -4.0), (96.0, 40.0), pivot)
    blade = _turned(((20, 62), (20, -58)), -scene.off, pivot)
    return [
        line("tool", (-156, 40), (156, 40)),
        line("tool", (-156, 47), (156, 47)),
        area("leg", leg),
        area("waste", waste),
        line("cut", *blade),
        line("dimension", (20, 40), (20, -70)),
        text("label", (-146, 57), scene.fence, anchor="start"),
        text("label", (-146, -16), scene.front, anchor="start"),
        text("label", (58, 24), scene.end),
        text("label", (-84, 24), scene.leg),
        *_arc(scene, pivot, 104, 270.0, -1),
        *([text("pointer", (154, 84), scene.tilt, anchor="end")] if scene.tilt else []),
    ]


def _scribe(scene: Scribed) -> list[Shape]:
    floor, line_at = -86.0, -52.0
    s, c = deg.sin(scene.off), deg.cos(scene.off)
    half = 21.0
    # The leg stands on its lowest corner, towards the middle: (left).
    corner: Flat = (-6.0, floor)
    far: Flat = (corner[0] + 2 * half * c, corner[1] + 2 * half * s)
    up: Flat = (-s, c)
    reach = 176.0
    quad = (
        corner,
        far,
        (far[0] + up[0] * reach, far[1] + up[1] * reach),
        (corner[0] + up[0] * reach, corner[1] + up[1] * reach),
    )
    t = deg.tan(scene.off)
    at_line = (corner[0] - (line_at - floor) * t, line_at)
    at_far = (far[0] - (line_at - far[1]) * t, line_at)
    waste = (corner, far, at_far, at_line)
    return [
        line("floor", (-156, floor), (156, floor)),
        area("leg", quad),
        area("waste", waste),
        line("cut", (at_line[0] - 14, line_at), (at_far[0] + 14, line_at)),
        area("measured", _box(62, floor, 122, line_at)),
        text("pointer", (92, (floor + line_at) / 2 - 3), scene.block),
        text("label", (150, -106), scene.right, anchor="end"),
        text("label", (-150, -106), scene.left, anchor="start"),
    ]


_DRILLED: dict[str, Callable[[Drilled], list[Shape]]] = {
    "tilting_table": _table,
    "bevel_gauge": _gauge,
    "angle_guide": _guide,
    "digital_gauge": _digital,
}


def _drilled(scene: Drilled) -> list[Shape]:
    return _DRILLED[scene.way](scene)


_DRAWN: dict[type[Any], tuple[str, Callable[[Any], list[Shape]]]] = {
    Drilled: ("drill", _drilled),
    OnRamp: ("ramp", _ramp),
    WithBlock: ("guide_block", _block),
    LegOnSaw: ("saw", _saw),
    Scribed: ("handsaw", _scribe),
    StickSawn: ("crosscut", crosscut),
    TwoSticks: ("two_sticks", stick.two_sticks),
    BevelledEdge: ("bevelled_edge", stick.bevelled_edge),
    HalfLap: ("notch", stick.half_lap),
    BetweenFeet: ("notch", stick.between_feet),
    EightSides: ("octagon", stick.octagon),
    Tapering: ("taper", stick.taper),
    SideTapering: ("taper", stick.side_taper),
    JointLined: ("marking", joint.joint_lined),
    SplineSeen: ("notch", joint.spline_seen),
    TopHeld: ("drill", joint.top_held),
    WedgeCut: ("wedge", joint.wedge_cut),
    TenonMade: ("tenon", stick.tenon),
    PilotHole: ("pilot", stick.pilot),
    JointHoles: ("slot", joint.slot),
    SlotBored: ("drill", joint.slot_bored),
    HollowCut: ("hollow", joint.hollow_cut),
    Dressed: ("hollow", joint.dressed),
    SocketPierced: ("drill", joint.socket_pierced),
    MouthEased: ("drill", rounds.mouth_eased),
    ArcSawn: ("crosscut", rounds.arc_sawn),
    Grooving: ("crosscut", joint.grooving),
    ButtonMade: ("block", joint.button_made),
    MitreDowelled: ("drill", joint.mitre_dowelled),
    ThroughBored: ("drill", through.through_bored),
    BoredOn: ("drill", through.bored_on),
    Marked: ("marking", stick.marking),
    KerfOnEnd: ("kerf", stick.kerf),
    StretcherMade: ("member", stick.member),
    StickShortened: ("marking", stick.shortened),
    StickBent: ("marking", stick.bent),
}
"""Each sort of scene with what its picture is called and how it is drawn."""
