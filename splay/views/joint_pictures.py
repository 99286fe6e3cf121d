"""Pictures of what holds parts together: dowels, loose tenons, wedges, a top's screws and buttons."""

from __future__ import annotations

import math

from splay.quantity import degrees as deg
from splay.setups.scenes import (
    ButtonMade,
    Dressed,
    Grooving,
    HollowCut,
    JointHoles,
    JointLined,
    MitreDowelled,
    SlotBored,
    SocketPierced,
    SplineSeen,
    TopHeld,
    WedgeCut,
)
from splay.stance.vectors import Flat
from splay.views.shapes import Shape, area, ellipse, line, text


def top_held(scene: TopHeld) -> list[Shape]:
    """The part in section under its top, the screw from below or from the inner side at the right."""
    slant = bool(scene.between)
    part = ((-60.0, -96.0), (46.0, -96.0), (46.0, 52.0), (-60.0, 52.0))
    out, way = (-7.0, 52.0), ((0.0, 1.0) if not slant else (-0.42, 0.91))
    far = 148.0 if not slant else 126.0

    def on(t: float, aside: float = 0.0) -> Flat:
        """So far down the screw from the underside, and to its right."""
        return (out[0] - way[0] * t + way[1] * aside, out[1] - way[1] * t - way[0] * aside)

    head = 86.0
    made = [
        area("section", ((-156.0, 52.0), (156.0, 52.0), (156.0, 104.0), (-156.0, 104.0))),
        area("leg", part),
        area("waste", (on(head, -13.0), on(head, 13.0), on(far, 13.0), on(far, -13.0))),
        area("cut", (on(0.0, -6.0), on(0.0, 6.0), on(head, 6.0), on(head, -6.0))),
        line("axis", on(far + 14.0), on(-34.0)),
        line("cut", on(head, -13.0), on(head, 13.0)),
        line("measured", on(0.0), on(-32.0)),
        text("dimension", (-150.0, 84.0), f"{scene.bite} into the {scene.into}", anchor="start"),
        text("pointer", (58.0, -24.0), f"head {scene.sunk}", anchor="start"),
        text("label", (58.0, 22.0), f"hole {scene.hole}", anchor="start"),
    ]
    if slant:
        made.append(text("pointer", (58.0, -58.0), f"{scene.between} to the", anchor="start"))
        made.append(text("label", (58.0, -84.0), scene.entry, anchor="start"))
    else:
        made.append(text("label", (-66.0, -90.0), scene.entry, anchor="end"))
    return made


def spline_seen(scene: SplineSeen) -> list[Shape]:
    """Top and board in section from the front, the board leaning out to the right as it goes down."""
    lean = 0.22

    def on(x: float, y: float) -> Flat:
        """So far right of the board's outer face, at a height."""
        return (28.0 + x - lean * y, y)

    foot, low, high = -96.0, -44.0, 62.0
    return [
        area("section", ((-156.0, 0.0), (156.0, 0.0), (156.0, 62.0), (-156.0, 62.0))),
        area("leg", (on(-46.0, foot), on(0.0, foot), on(0.0, 0.0), on(-46.0, 0.0))),
        area("waste", (on(-46.0, low - 10.0), on(0.0, low), on(0.0, high), on(-46.0, high))),
        line("cut", on(-46.0, low - 10.0), on(-46.0, high)),
        line("cut", on(0.0, low), on(0.0, high)),
        line("cut", on(-46.0, low - 10.0), on(0.0, low)),
        line("dimension", on(12.0, low), on(12.0, 0.0)),
        text("pointer", on(20.0, low / 2 - 6.0), scene.deep, anchor="start"),
        text("dimension", on(-54.0, -30.0), f"{scene.thick} thick", anchor="end"),
        line("dimension", on(-46.0, -8.0), on(0.0, -8.0)),
        text("dimension", (-150.0, 12.0), scene.mouth, anchor="start"),
        text("label", (150.0, 40.0), scene.lean, anchor="end"),
        text("label", on(12.0, foot + 4.0), "outer face", anchor="start"),
    ]


def joint_lined(scene: JointLined) -> list[Shape]:
    """The part lying with its end at the left and the side that is drawn on turned up, the edge it is
    measured from in front."""
    flush = scene.down == "flush"
    at, low = (-146.0 if flush else -52.0), (-58.0 if scene.across == "flush" else -24.0)
    made = [
        area("board", ((-146.0, -58.0), (150.0, -58.0), (150.0, 58.0), (-146.0, 58.0))),
        area("section", ((at, low), (at + 58.0, low), (at + 58.0, low + 52.0), (at, low + 52.0))),
        line("cut", (at, -66.0), (at, 66.0)),
        text("label", (at + 29.0, low + 60.0), scene.what),
        text("label", (-146.0, 78.0), scene.start, anchor="start"),
        text("label", (150.0, 78.0), scene.face, anchor="end"),
        text("label", (150.0, -76.0), scene.edge, anchor="end"),
        text("pointer", (at, -112.0), f"{scene.lead} on the line", anchor="start"),
    ]
    if not flush:
        made += [line("dimension", (-146.0, -76.0), (at, -76.0))]
        made.append(text("dimension", ((at - 146.0) / 2.0, -94.0), scene.down))
    if scene.across != "flush":
        made += [line("dimension", (at + 70.0, -58.0), (at + 70.0, low))]
        made.append(text("dimension", (at + 78.0, -44.0), scene.across, anchor="start"))
    return made


def grooving(scene: Grooving) -> list[Shape]:
    """The part in section, upright under the top, its grooved side to the right, leaning where it leans."""
    lean = 0.0 if not scene.turn else (0.16 if scene.sharp else -0.16)

    def on(y: float, into: float = 0.0) -> Flat:
        """So far down from the top, and into the part."""
        return (10.0 - lean * y - into, 52.0 - y)

    foot = 140.0
    made = [
        area("section", ((-156.0, 52.0), (60.0, 52.0), (60.0, 96.0), (-156.0, 96.0))),
        area("leg", (on(0.0), on(foot), on(foot, 84.0), on(0.0, 84.0))),
        area("cut", (on(34.0), on(62.0), on(62.0, 36.0), on(34.0, 36.0))),
        line("dimension", (40.0, 52.0), (40.0, 18.0)),
        text("pointer", (48.0, 30.0), scene.edge, anchor="start"),
        text("dimension", (48.0, -2.0), f"{scene.wide} wide", anchor="start"),
        text("dimension", (48.0, -30.0), f"{scene.deep} deep", anchor="start"),
        text("label", (48.0, -74.0), scene.side, anchor="start"),
        text("label", (-150.0, 70.0), f"the {scene.into}", anchor="start"),
    ]
    if scene.turn:
        made.append(text("label", (48.0, -52.0), f"{scene.turn} off square", anchor="start"))
    return made


def button_made(scene: ButtonMade) -> list[Shape]:
    """A button from its side, its tongue to the left, its upper face up."""
    ring = ((-122.0, -36.0), (88.0, -36.0), (88.0, 44.0), (-52.0, 44.0), (-52.0, -4.0), (-122.0, -4.0))
    return [
        area("leg", ring),
        line("cut", (-52.0, 44.0), (-52.0, -4.0), (-122.0, -4.0)),
        line("axis", (18.0, 66.0), (18.0, -58.0)),
        line("dimension", (-66.0, 44.0), (-66.0, -4.0)),
        text("pointer", (-72.0, 24.0), scene.step, anchor="end"),
        text("dimension", (-130.0, -24.0), scene.tongue, anchor="end"),
        line("dimension", (-122.0, -50.0), (-52.0, -50.0)),
        text("dimension", (-88.0, -68.0), scene.out),
        line("dimension", (100.0, -36.0), (100.0, 44.0)),
        text("dimension", (106.0, 0.0), scene.thick, anchor="start"),
        line("dimension", (-122.0, -84.0), (88.0, -84.0)),
        text("dimension", (-12.0, -102.0), scene.long),
        text("label", (18.0, 74.0), "screw"),
    ]


def wedge_cut(scene: WedgeCut) -> list[Shape]:
    """The wedge's face above, its side below, its butt at the left."""
    return [
        area("leg", ((-96.0, 14.0), (96.0, 14.0), (96.0, 84.0), (-96.0, 84.0))),
        line("dimension", (-110.0, 14.0), (-110.0, 84.0)),
        text("dimension", (-116.0, 44.0), scene.wide, anchor="end"),
        area("section", ((-96.0, -64.0), (96.0, -45.0), (96.0, -39.0), (-96.0, -20.0))),
        line("cut", (-96.0, -20.0), (96.0, -39.0)),
        line("cut", (-96.0, -64.0), (96.0, -45.0)),
        line("dimension", (-110.0, -64.0), (-110.0, -20.0)),
        text("pointer", (-116.0, -46.0), scene.butt, anchor="end"),
        text("pointer", (104.0, -46.0), scene.edge, anchor="start"),
        line("dimension", (-96.0, -82.0), (96.0, -82.0)),
        text("dimension", (0.0, -100.0), scene.long),
        text("label", (0.0, 44.0), "grain along it"),
    ]


def mitre_dowelled(scene: MitreDowelled) -> list[Shape]:
    """The mitre seen on its front edge, the top to the left, the leg leaning out to the right."""
    s, t, mid = 12.0, 56.0, (90.0 - 12.0) / 2.0
    c, n = deg.cos(s), deg.sin(s)
    x, y = 84.0, 70.0
    inside = (x - t * deg.tan(mid), y - t)
    long = 150.0
    foot = (x + n * long, y - c * long)
    inner = (inside[0] + n * (long - t * deg.tan(mid)), inside[1] - c * (long - t * deg.tan(mid)))
    made = [
        area("section", ((-156.0, y), (x, y), inside, (-156.0, y - t))),
        area("leg", ((x, y), foot, inner, inside)),
        line("cut", (x, y), inside),
    ]
    half, past = 6.0, 62.0
    if scene.runs == "level":
        down = t / 2.0 / c
        at = (x + n * down, y - c * down)
        through = t / 2.0 * (deg.tan(s) + deg.tan(mid))
        far = at[0] - through - past
        hole = (at, (at[0], at[1] + 2 * half), (far, at[1] + 2 * half), (far, at[1]))
        made += [
            area("cut", tuple((px, py - half) for px, py in hole)),
            line("axis", (at[0] + 60.0, at[1]), (far - 12.0, at[1])),
            line("measured", (at[0] + 56.0, at[1]), (at[0] + 8.0, at[1])),
            text("pointer", (-150.0, y - t - 54.0), f"{scene.down} down the leg", anchor="start"),
        ]
        if scene.between:
            made.append(
                text("label", (-150.0, y - t - 86.0), f"{scene.between} to the face", anchor="start")
            )
    else:
        into = t / 2.0 * deg.tan(mid)
        at = (x - into, y)
        far = y - t / 2.0 - past
        made += [
            area("cut", ((at[0] - half, y), (at[0] + half, y), (at[0] + half, far), (at[0] - half, far))),
            line("axis", (at[0], y + 34.0), (at[0], far - 12.0)),
            line("measured", (at[0], y + 30.0), (at[0], y + 6.0)),
            text("pointer", (-150.0, y - t - 54.0), f"{scene.down} in from the end", anchor="start"),
        ]
    return [
        *made,
        text("dimension", (-150.0, y - t - 22.0), f"{scene.thick}, {scene.deep} deep", anchor="start"),
        text("label", (-150.0, y - t / 2.0), "top", anchor="start"),
        text("label", (foot[0] - 24.0, foot[1] + 14.0), "leg", anchor="end"),
    ]


def slot(scene: JointHoles) -> list[Shape]:
    """An end seen square on, with its slot or its dowel holes, and how deep they run."""
    if scene.round:
        return [
            area("section", ((-110.0, -40.0), (110.0, -40.0), (110.0, 40.0), (-110.0, 40.0))),
            ellipse("section", (-48.0, 0.0), (14.0, 14.0)),
            ellipse("section", (48.0, 0.0), (14.0, 14.0)),
            text("dimension", (0.0, 62.0), scene.wide),
            text("pointer", (70.0, -6.0), scene.thick, anchor="start"),
            text("label", (0.0, -62.0), f"{scene.deep} deep, square to the sawn end"),
        ]
    return [
        area("section", ((-110.0, -40.0), (110.0, -40.0), (110.0, 40.0), (-110.0, 40.0))),
        area(
            "cut",
            tuple(
                (x + 12.0 * deg.cos(a), 12.0 * deg.sin(a))
                for x, first in ((48.0, -90), (-48.0, 90))
                for a in range(first, first + 181, 15)
            ),
        ),
        line("dimension", (-60.0, 54.0), (60.0, 54.0)),
        text("dimension", (0.0, 62.0), scene.wide),
        text("pointer", (66.0, -6.0), scene.thick, anchor="start"),
        text("label", (0.0, -62.0), f"{scene.deep} deep, square to the sawn end"),
    ]


def slot_bored(scene: SlotBored) -> list[Shape]:
    """The slot from above: its end holes, those between them, and what is pared away."""
    half, reach = 30.0, 84.0
    made: list[Shape] = [
        area("section", ((-156.0, -70.0), (156.0, -70.0), (156.0, 70.0), (-156.0, 70.0))),
        area("waste", ((-reach, -half), (reach, -half), (reach, half), (-reach, half))),
    ]
    count = scene.between + 2
    for k in range(count):
        x = -reach + 2.0 * reach * k / (count - 1)
        made.append(ellipse("cut" if k in (0, count - 1) else "solid", (x, 0.0), (half, half)))
    return [
        *made,
        line("dimension", (-reach, -48.0), (reach, -48.0)),
        text("pointer", (0.0, -64.0), scene.apart),
        line("dimension", (-reach - half, 46.0), (reach + half, 46.0)),
        text("dimension", (0.0, 54.0), scene.long),
        text("dimension", (reach + half + 6.0, -6.0), scene.wide, anchor="start"),
    ]


def hollow_cut(scene: HollowCut) -> list[Shape]:
    """The top in section through its hollow: depth holes, runners with their sled, or the sawn line."""
    half, deep, wide, face = 92.0, 30.0, 118.0, 6.0
    radius = (half * half + deep * deep) / (2.0 * deep)

    def bottom(x: float, below: float = 0.0) -> Flat:
        middle = face - deep + radius
        return (x, middle - math.sqrt((radius + below) ** 2 - x * x))

    arc = tuple(bottom(-half + half * k / 12.0) for k in range(25))
    ring = ((-wide, face), *arc, (wide, face), (wide, face - 74.0), (-wide, face - 74.0))
    made: list[Shape] = [
        area("section", ring),
        area("waste", (*arc, (half, face), (-half, face))),
        line("cut", *arc),
        line("axis", (0.0, face + 24.0), (0.0, face - 84.0)),
        line("dimension", (-half, face - 92.0), (half, face - 92.0)),
        text("dimension", (0.0, face - 112.0), scene.chord),
        text("pointer", (wide + 6.0, face - deep - 4.0), scene.deep, anchor="start"),
        line("dimension", (0.0, face - deep), (wide + 4.0, face - deep)),
    ]
    if scene.by == "scooping":
        for x in (-60.0, -30.0, 0.0, 30.0, 60.0):
            foot = bottom(x, -4.0)[1]
            made.append(area("solid", ((x - 3.0, face), (x + 3.0, face), (x + 3.0, foot), (x - 3.0, foot))))
    elif scene.by == "runners":
        upper = tuple((x, y + deep + 26.0) for x, y in arc)
        made.append(area("tool", ((-half, face), *upper, (half, face))))
        sled = face + 28.0
        made.append(area("solid", ((-38.0, sled), (38.0, sled), (38.0, sled + 9.0), (-38.0, sled + 9.0))))
        made.append(line("pointer", (0.0, sled), (0.0, face - deep)))
    return made


def dressed(scene: Dressed) -> list[Shape]:
    """A bored top in section: what is planed off its upper face, over the holes, and what is left."""
    wide, face, foot, off = 118.0, 34.0, -44.0, 16.0
    made = [
        area("section", ((-wide, foot), (wide, foot), (wide, face), (-wide, face))),
        area("waste", ((-wide, face), (wide, face), (wide, face + off), (-wide, face + off))),
        line("cut", (-wide - 12.0, face), (wide + 12.0, face)),
    ]
    for x, lean in ((-62.0, -14.0), (62.0, 14.0)):
        # A hole leans towards its foot.
        made.append(line("hidden", (x - 9.0 + lean, foot), (x - 9.0 - lean, face + off)))
        made.append(line("hidden", (x + 9.0 + lean, foot), (x + 9.0 - lean, face + off)))
    return [
        *made,
        line("dimension", (-wide - 8.0, face), (-wide - 8.0, face + off)),
        text("pointer", (-wide, face + off + 12.0), f"{scene.off} off", anchor="start"),
        line("dimension", (wide + 8.0, foot), (wide + 8.0, face)),
        text("dimension", (wide - 6.0, foot - 16.0), f"{scene.left} left", anchor="end"),
    ]


def socket_pierced(scene: SocketPierced) -> list[Shape]:
    """The seat cut along the sightline, underside below, the arrow to the right: the socket comes up
    against it, the thin bit goes on to the upper face, the peg goes down beside it."""
    wide, face, foot, lean = 118.0, 40.0, -34.0, 0.3

    def at(x: float, y: float) -> Flat:
        # Up along the socket: against the arrow.
        return (x - lean * (y - foot), y)

    floor = foot + 44.0
    out = at(20.0, face)[0]
    side = -1.0 if scene.against else 1.0
    peg = out + 30.0 * side
    return [
        area("section", ((-wide, foot), (wide, foot), (wide, face), (-wide, face))),
        area("tool", (at(6.0, foot), at(34.0, foot), at(34.0, floor), at(6.0, floor))),
        line("cut", at(20.0, foot - 40.0), at(20.0, face + 10.0)),
        line("pointer", (peg, face + 12.0), (peg, face - 40.0)),
        text("label", (peg + 8.0 * side, face + 14.0), "peg", anchor="end" if scene.against else "start"),
        line("dimension", (min(out, peg), face + 30.0), (max(out, peg), face + 30.0)),
        text("pointer", ((out + peg) / 2.0, face + 42.0), scene.away),
        text("label", (wide, foot - 16.0), "arrow", anchor="end"),
        text("label", (-wide, foot - 16.0), "plain end", anchor="start"),
    ]
