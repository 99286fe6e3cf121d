"""Pictures of work on sticks: two of them at an angle, bevels, laps, eight sides, tapers."""

from __future__ import annotations

import math
from typing import Literal

from splay.quantity import degrees as deg
from splay.setups.scenes import (
    BetweenFeet,
    BevelledEdge,
    EightSides,
    HalfLap,
    KerfOnEnd,
    Marked,
    PilotHole,
    SideTapering,
    StickBent,
    StickShortened,
    StretcherMade,
    Tapering,
    TenonMade,
    TwoSticks,
)
from splay.stance.vectors import Flat
from splay.views.shapes import Shape, area, ellipse, line, text


def _strip(start: Flat, bearing: float, reach: float, half: float) -> tuple[Flat, ...]:
    c, s = deg.cos(bearing), deg.sin(bearing)
    x, y = start
    far = (x + reach * c, y + reach * s)
    return (
        (x - half * s, y + half * c),
        (far[0] - half * s, far[1] + half * c),
        (far[0] + half * s, far[1] - half * c),
        (x + half * s, y - half * c),
    )


def two_sticks(scene: TwoSticks) -> list[Shape]:
    """A leg standing, the stretcher leaving it; the acute side on its own side, foot below."""
    acute = scene.acute
    lean = -scene.off if acute == "foot" else scene.off
    middle: Flat = (-58.0, 0.0)
    leg = _strip((-58.0, -116.0), 90.0, 232.0, 17.0)
    member = _strip(middle, lean, 190.0, 11.0)
    reach = 84.0
    square = 270.0 if acute == "foot" else 90.0
    sweep = (lean - square + 540.0) % 360.0 - 180.0
    arc = [
        (
            middle[0] + reach * deg.cos(square + sweep * k / 12),
            middle[1] + reach * deg.sin(square + sweep * k / 12),
        )
        for k in range(13)
    ]
    half = square + sweep / 2
    label = (middle[0] + (reach + 26) * deg.cos(half), middle[1] + (reach + 26) * deg.sin(half))
    made = [
        area("leg", member),
        area("leg", leg),
        line("axis", (-58.0, -122.0), (-58.0, 122.0)),
        line("axis", middle, (middle[0] + 205 * deg.cos(lean), middle[1] + 205 * deg.sin(lean))),
        line("measured", *arc),
        text("pointer", label, scene.angle),
        text("label", (-152, 108), scene.near, anchor="start"),
        text("label", (-152, -114), scene.far, anchor="start"),
        text("label", (-86, 60), scene.leg, turn=90.0),
        text("label", (120, 22 + 178 * deg.tan(lean)), scene.member),
    ]
    if scene.sighted:
        made.append(line("sightline", middle, (middle[0] + 215 * deg.cos(lean), 215 * deg.sin(lean))))
    if scene.arc is not None and scene.arc.text != scene.angle:
        made.append(text("pointer", (150, -104), f"set {scene.arc.text}", anchor="end"))
    return made


def bevelled_edge(scene: BevelledEdge) -> list[Shape]:
    """The stick's section, its first face up and its first edge at the right, with its bevelled edges off
    square."""
    half, high = 96.0, 30.0
    right, left = (high * deg.tan(lean) for lean in scene.leans)
    quad = ((-half + left, -high), (half - right, -high), (half + right, high), (-half - left, high))
    made = [area("section", quad)]
    for lean, slope, sign, anchor in (
        (scene.leans[0], right, 1.0, "start"),
        (scene.leans[1], left, -1.0, "end"),
    ):
        if lean == 0.0:
            continue
        x = sign * half
        made += [
            line("dimension", (x, -high), (x, 54.0)),
            line("cut", (x - sign * slope * 2.0, -60.0), (x + sign * slope * 2.0, 60.0)),
            text(
                "pointer",
                (x + sign * (14.0 + 2.0 * max(slope, 0.0)), 66.0),
                scene.angle,
                anchor="start" if anchor == "start" else "end",
            ),
        ]
    return [
        *made,
        text("label", (0.0, 40.0), scene.face),
        text("label", (0.0, -50.0), scene.other),
        text("label", (150.0, -80.0), scene.edge, anchor="end"),
        text("label", (-150.0, -80.0), scene.other_edge, anchor="start"),
    ]


def between_feet(scene: BetweenFeet) -> list[Shape]:
    """A board's lower end with the space between its feet."""
    body = ((-120.0, 90.0), (-120.0, -60.0), (-50.0, -60.0), (-50.0, -20.0))
    rest = ((50.0, -20.0), (50.0, -60.0), (120.0, -60.0), (120.0, 90.0))
    seam = [
        line("sightline", (-18.0, -20.0), (-18.0, 90.0)),
        text("label", (-12.0, 60.0), "seam", anchor="start"),
    ]
    return [
        area("leg", (*body, *rest)),
        *(seam if scene.seam else []),
        line("floor", (-156, -60), (156, -60)),
        text("dimension", (0, -46), scene.wide),
        line("dimension", (-50, -54), (50, -54)),
        line("dimension", (66, -60), (66, -20)),
        text("pointer", (76, -44), scene.deep, anchor="start"),
    ]


def half_lap(scene: HalfLap) -> list[Shape]:
    """A rail with its half lap."""
    high, deep, above = 70.0, 35.0, scene.above
    y0, y1 = (0.0, high) if above else (high, 0.0)
    mid = y1 - deep if above else y1 + deep
    ring = ((-150.0, y0), (150.0, y0), (150.0, y1), (24.0, y1), (24.0, mid), (-24.0, mid), (-24.0, y1))
    out = 14.0 if above else -18.0
    return [
        area("leg", (*ring, (-150.0, y1))),
        line("cut", (-24.0, y1), (-24.0, mid), (24.0, mid), (24.0, y1)),
        line("dimension", (-24.0, y1 + out), (24.0, y1 + out)),
        text("dimension", (0.0, y1 + 1.8 * out), scene.wide),
        line("dimension", (40.0, y1), (40.0, mid)),
        text("pointer", (48.0, (y1 + mid) / 2 - 4), scene.deep, anchor="start"),
        text("label", (-146.0, -24.0), f"half lap from {'above' if above else 'below'}", anchor="start"),
    ]


def octagon(scene: EightSides) -> list[Shape]:
    """The square end with the eight sides inside it."""
    half, k = 76.0, 76.0 * (math.sqrt(2.0) - 1.0)
    ring: tuple[Flat, ...] = (
        (half, k),
        (k, half),
        (-k, half),
        (-half, k),
        (-half, -k),
        (-k, -half),
        (k, -half),
        (half, -k),
    )
    square = ((-half, -half), (half, -half), (half, half), (-half, half))
    return [
        area("waste", square),
        area("section", ring),
        line("cut", (k, half), (half, k)),
        line("dimension", (k, half + 12), (half, half + 12)),
        text("pointer", ((k + half) / 2 + 4, half + 24), scene.gauge, anchor="start"),
        line("dimension", (-half, -half - 12), (half, -half - 12)),
        text("dimension", (0, -half - 30), scene.stock),
    ]


def tenon(scene: TenonMade) -> list[Shape]:
    """A leg's end with its tenon: its thickness, at the end too where it is tapered, and how long."""
    half, tip = 26.0, 16.0 if scene.tip else 26.0
    slope = 9.0 if scene.sloped else 0.0
    made = [
        area("leg", ((-10.0 + slope, -44.0), (146.0, -44.0), (146.0, 44.0), (-10.0 - slope, 44.0))),
        area("section", ((-120.0, -tip), (-10.0, -half), (-10.0, half), (-120.0, tip))),
        line("cut", (-120.0, tip), (-10.0, half)),
        line("cut", (-120.0, -tip), (-10.0, -half)),
        text("pointer", (-14.0, 56.0), scene.thick, anchor="end"),
        line("dimension", (-120.0, -66.0), (-10.0, -66.0)),
        text("dimension", (-65.0, -84.0), scene.long),
        text("label", (68.0, -6.0), scene.stick),
    ]
    if scene.tip:
        made.append(text("pointer", (-124.0, 30.0), scene.tip, anchor="start"))
    return made


def pilot(scene: PilotHole) -> list[Shape]:
    """A leg's square upper end with the pilot along its middle."""
    return [
        area("leg", ((-110.0, 44.0), (146.0, 44.0), (146.0, -44.0), (-110.0, -44.0))),
        line("cut", (-110.0, 44.0), (-110.0, -44.0)),
        area("section", ((-108.0, -7.0), (40.0, -7.0), (40.0, 7.0), (-108.0, 7.0))),
        line("axis", (-140.0, 0.0), (146.0, 0.0)),
        text("pointer", (48.0, 14.0), scene.thick, anchor="start"),
        line("dimension", (-110.0, -62.0), (40.0, -62.0)),
        text("dimension", (-35.0, -80.0), scene.deep),
        text("label", (-140.0, 60.0), "upper end", anchor="start"),
    ]


def taper(scene: Tapering) -> list[Shape]:
    """The leg from its thick end to its thin one, with what comes off each face."""
    thick_left = scene.thick_at_top
    a, b = (34.0, 16.0) if thick_left else (16.0, 34.0)
    body = ((-146.0, -a), (146.0, -b), (146.0, b), (-146.0, a))
    blank = ((-146.0, -34.0), (146.0, -34.0), (146.0, 34.0), (-146.0, 34.0))
    thin = 130.0 if thick_left else -130.0
    return [
        area("waste", blank),
        area("leg", body),
        line("cut", (-146.0, a), (146.0, b)),
        line("cut", (-146.0, -a), (146.0, -b)),
        text("dimension", (-146.0, -56.0), f"top {scene.top}", anchor="start"),
        text("dimension", (146.0, -56.0), f"foot {scene.foot}", anchor="end"),
        text("pointer", (thin, 46.0), scene.off),
        line("dimension", (-146.0, -72.0), (146.0, -72.0)),
        text("dimension", (0.0, -90.0), scene.run),
    ]


def side_taper(scene: SideTapering) -> list[Shape]:
    """The leg lying with the tapered side away from one: the side its line is drawn on turned up, or the
    one opposite, where the line lies underneath."""
    half, thin, start = 36.0, -2.0, -70.0
    s = 1.0 if scene.to_right else -1.0

    def at(*points: Flat) -> tuple[Flat, ...]:
        return tuple((s * x, y) for x, y in points)

    near: Literal["start", "end"] = "start" if scene.to_right else "end"
    far: Literal["start", "end"] = "end" if scene.to_right else "start"
    seen = f"{scene.up}; the line on the {scene.on}, underneath" if scene.up else scene.on
    return [
        area("waste", at((start, half), (146.0, thin), (138.0, half))),
        area("leg", at((-146.0, -half), (154.0, -half), (146.0, thin), (start, half), (-146.0, half))),
        line("hidden" if scene.up else "cut", *at((start, half), (146.0, thin))),
        line("dimension", *at((-146.0, half + 14.0), (start, half + 14.0))),
        text("dimension", (s * (start - 146.0) / 2.0, half + 22.0), scene.begins),
        line("dimension", *at((160.0, thin), (160.0, half))),
        text("pointer", (s * 160.0, half + 10.0), scene.off, anchor=far),
        text("label", (-s * 40.0 if not scene.up else 0.0, -10.0), seen),
        text("label", (s * 40.0, half + 30.0), scene.side),
        text("label", (-s * 146.0, -half - 20.0), scene.away, anchor=near),
        text("label", (s * 154.0, -half - 20.0), scene.to, anchor=far),
    ]


def marking(scene: Marked) -> list[Shape]:
    """A stick lying with the end it is hooked on at the left: the line down it, a leg's strokes, the
    depth ring of a tenon that has one."""
    start = -146.0 if scene.tenons == 0 else -96.0
    made = [area("leg", ((start, -24.0), (146.0, -18.0), (146.0, 18.0), (start, 24.0)))]
    if scene.tenons == 2:
        made = [area("leg", ((start, -16.0), (96.0, -16.0), (96.0, 16.0), (start, 16.0)))]
        made.append(area("leg", ((96.0, -9.0), (146.0, -9.0), (146.0, 9.0), (96.0, 9.0))))
    if scene.tenons:
        half = 9.0 if scene.tenons == 2 else 14.0
        made.append(area("leg", ((-146.0, -half), (start, -half), (start, half), (-146.0, half))))
    made.append(line("sightline", (-146.0, 0.0), (146.0, 0.0)))
    if scene.tenons < 2:
        made += [line("pointer", (start + x, -14.0), (start + x, 14.0)) for x in (12.0, 20.0)]
    if scene.ring:
        made += [
            line("cut", (-96.0, -28.0), (-96.0, 28.0)),
            line("dimension", (-146.0, 44.0), (-96.0, 44.0)),
            text("pointer", (-121.0, 54.0), scene.ring),
        ]
    return [
        *made,
        text("label", (20.0, 30.0), scene.line),
        text("label", (-146.0, -44.0), scene.near, anchor="start"),
        text("label", (146.0, -44.0), scene.far, anchor="end"),
    ]


def kerf(scene: KerfOnEnd) -> list[Shape]:
    """The tenon's end as one looks at it, outer line at the right; the slot turned from it."""
    half = 76.0
    # Clockwise as one looks at it: downward on the picture from the right.
    x, y = half * deg.cos(-scene.off), half * deg.sin(-scene.off)
    sweep = [
        (0.5 * half * deg.cos(-scene.off * k / 12), 0.5 * half * deg.sin(-scene.off * k / 12))
        for k in range(13)
    ]
    middle = -scene.off / 2
    return [
        ellipse("section", (0.0, 0.0), (half, half)),
        line("sightline", (0.0, 0.0), (half + 26.0, 0.0)),
        line("cut", (-x, -y), (x, y)),
        line("measured", *sweep),
        text("label", (half + 8.0, 6.0), scene.line, anchor="start"),
        text("pointer", (0.72 * half * deg.cos(middle), 0.72 * half * deg.sin(middle)), scene.arc),
        text("label", (-150.0, -112.0), f"{scene.leg}, looking at its tenon end", anchor="start"),
    ]


def member(scene: StretcherMade) -> list[Shape]:
    """A stretcher lying: its tenons, its length over all, what is written on its ends."""
    return [
        area("leg", ((-146.0, -9.0), (-112.0, -9.0), (-112.0, 9.0), (-146.0, 9.0))),
        area("leg", ((112.0, -9.0), (146.0, -9.0), (146.0, 9.0), (112.0, 9.0))),
        area("leg", ((-112.0, -16.0), (112.0, -16.0), (112.0, 16.0), (-112.0, 16.0))),
        line("dimension", (-146.0, -44.0), (146.0, -44.0)),
        text("pointer", (0.0, -62.0), scene.total),
        line("dimension", (-146.0, 30.0), (-112.0, 30.0)),
        text("dimension", (-129.0, 38.0), scene.first),
        line("dimension", (112.0, 30.0), (146.0, 30.0)),
        text("dimension", (129.0, 38.0), scene.second),
        text("label", (-146.0, 66.0), scene.near, anchor="start"),
        text("label", (146.0, 66.0), scene.far, anchor="end"),
    ]


def shortened(scene: StickShortened) -> list[Shape]:
    """A stick lying with its upper end at the left: the saw's line there, an old mortise further on."""
    made = [
        area("leg", ((-146.0, -20.0), (146.0, -15.0), (146.0, 15.0), (-146.0, 20.0))),
        area("section", ((-30.0, -7.0), (14.0, -7.0), (14.0, 7.0), (-30.0, 7.0))),
        text("label", (-8.0, 34.0), "old hole"),
        text("label", (-146.0, -44.0), scene.end, anchor="start"),
        text("label", (146.0, -44.0), "foot", anchor="end"),
    ]
    if scene.off:
        made += [
            line("cut", (-96.0, -32.0), (-96.0, 32.0)),
            line("dimension", (-146.0, 44.0), (-96.0, 44.0)),
            text("pointer", (-121.0, 56.0), scene.off),
        ]
    return made


def bent(scene: StickBent) -> list[Shape]:
    """A bent stick on its side between two blocks, its upper end at the left, the string over it."""
    half, rise, foot = 140.0, 40.0, -14.0

    def at(x: float, out: float) -> Flat:
        return x, foot + rise * (1.0 - (x / half) ** 2) + out

    upper = tuple(at(half * (k / 12.0 - 1.0), 15.0 - 0.25 * k) for k in range(25))
    lower = tuple(at(half * (k / 12.0 - 1.0), -15.0 + 0.25 * k) for k in range(25))
    return [
        area(
            "tool", ((-half - 4.0, foot - 40.0), (-half + 26.0, foot - 40.0), (-half + 11.0, foot - 12.0))
        ),
        area("tool", ((half - 26.0, foot - 40.0), (half + 4.0, foot - 40.0), (half - 11.0, foot - 12.0))),
        area(
            "tool",
            (
                (-14.0, foot - 40.0),
                (14.0, foot - 40.0),
                (14.0, foot + rise - 12.0),
                (-14.0, foot + rise - 12.0),
            ),
        ),
        area("leg", (*upper, *reversed(lower))),
        line("cut", (-half, foot), (half, foot)),
        line("dimension", (0.0, foot), (0.0, foot + rise)),
        text("pointer", (8.0, foot + 8.0), scene.off, anchor="start"),
        line("dimension", (-half, foot + rise + 26.0), (0.0, foot + rise + 26.0)),
        text("dimension", (-half / 2.0, foot + rise + 34.0), scene.at),
        text("label", (-half, foot - 56.0), scene.end, anchor="start"),
        text("label", (half, foot - 56.0), "foot", anchor="end"),
        text("label", (0.0, foot - 56.0), "packing"),
    ]
