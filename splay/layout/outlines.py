"""How each outline is struck, by rule and compasses."""

from __future__ import annotations

import math

from splay.layout.marks import Mark, arc, line, point
from splay.piece import Drawn, DShape, Oval, Piece, Rectangle, Round, RoundedTriangle, Shield
from splay.quantity import Figure, Show
from splay.quantity import degrees as deg
from splay.stance.outline import points

Struck = tuple[str, str, tuple[Figure, ...], tuple[Mark, ...]]
"""Title, words, distances to set, what is drawn."""


def strike(piece: Piece, show: Show) -> Struck:
    """The step that draws the outline of the top."""
    outline = piece.top.outline
    if isinstance(outline, Round):
        return _round(outline, show)
    if isinstance(outline, Oval):
        return _oval(outline.length, outline.width, 0.0, 360.0, 0.0, show)
    if isinstance(outline, Rectangle):
        return _rectangle(outline, show)
    if isinstance(outline, RoundedTriangle):
        return _rounded_triangle(outline, show)
    if isinstance(outline, DShape):
        return _d_shape(outline, show)
    if isinstance(outline, Shield):
        return _shield(outline, show)
    return _drawn(outline, show)


def _round(outline: Round, show: Show) -> Struck:
    radius = outline.diameter / 2
    figure = show.figure(
        "layout.outline.radius",
        "Compasses for the outline",
        radius,
        "across / 2",
        show.input("D", "across", outline.diameter),
    )
    return (
        "Strike the outline",
        "From the middle, the whole circle. Leave the corners on until the holes are bored.",
        (figure,),
        (arc((0.0, 0.0), radius),),
    )


def _oval(length: float, width: float, start: float, end: float, shift: float, show: Show) -> Struck:
    """Two pins and a string: foci at the square root of a² - b² from the middle."""
    a, b = length / 2, width / 2
    long, short = max(a, b), min(a, b)
    apart = math.sqrt(long * long - short * short)
    wide = a >= b
    pins = ((-apart, shift), (apart, shift)) if wide else ((0.0, shift - apart), (0.0, shift + apart))
    half_long = show.input("a", "half the longer way", long)
    half_short = show.input("b", "half the shorter way", short)
    figures = (
        show.figure(
            "layout.outline.pins",
            "Each pin from the middle",
            apart,
            "√(a² − b²)",
            half_long,
            half_short,
            note="on the longer middle line",
        ),
        show.figure(
            "layout.outline.string",
            "Loop of string round both pins",
            2.0 * (long + apart),
            "2 · (a + p)",
            half_long,
            show.input("p", "pin from the middle", apart),
        ),
    )
    ring = arc((0.0, 0.0), 1.0, start, end).points
    drawn = Mark("arc", tuple((a * x, b * y + shift) for x, y in ring))
    return (
        "Strike the oval",
        "Two pins on the longer middle line; keep the string taut and the pencil plumb.",
        figures,
        (drawn, point(pins[0], "pin"), point(pins[1], "pin")),
    )


def _rectangle(outline: Rectangle, show: Show) -> Struck:
    a, b, r = outline.length / 2, outline.width / 2, outline.corner
    figures = [
        show.figure(
            "layout.outline.diagonal",
            "Both diagonals",
            2.0 * math.hypot(a, b),
            "√(length² + width²)",
            show.input("l", "length", outline.length),
            show.input("w", "width", outline.width),
            note="equal diagonals prove it square",
        )
    ]
    corners = ((a, b), (-a, b), (-a, -b), (a, -b))
    marks = [line(*corners, corners[0]), line((-a, -b), (a, b)), line((-a, b), (a, -b))]
    if r > 0.0:
        figures.append(
            show.figure(
                "layout.outline.corner",
                "Compasses for the corners",
                r,
                "as chosen",
                show.input("r", "corner", r),
                note="centre this far in from both sides",
            )
        )
        for k, (x, y) in enumerate(corners):
            centre = (math.copysign(abs(x) - r, x), math.copysign(abs(y) - r, y))
            marks.append(arc(centre, r, 90.0 * k, 90.0 * (k + 1)))
    words = "Square from the middle lines; keep the straight edges until the holes are bored."
    return ("Draw the outline", words, tuple(figures), tuple(marks))


def _rounded_triangle(outline: RoundedTriangle, show: Show) -> Struck:
    """Arcs of R from each far corner, corners of R - a about each near one."""
    out = outline.side / math.sqrt(3.0)
    side = show.input("a", "side of the triangle", outline.side)
    reach = show.input("R", "long arc", outline.arc)
    figures = (
        show.figure(
            "layout.outline.circle",
            "Compasses for the triangle's circle",
            out,
            "a / √3",
            side,
            note="step this radius round the circle: every second mark is a corner",
        ),
        show.figure("layout.outline.arc", "Compasses for the long arcs", outline.arc, "R", reach),
        show.figure(
            "layout.outline.corner",
            "Compasses for the corners",
            outline.arc - outline.side,
            "R − a",
            reach,
            side,
        ),
        show.figure(
            "layout.outline.width",
            "Wide, whichever way it is measured",
            2.0 * outline.arc - outline.side,
            "2 · R − a",
            reach,
            side,
            note="the cross-check of the outline",
        ),
    )
    tips = [
        (out * deg.cos(outline.first + 120.0 * k), out * deg.sin(outline.first + 120.0 * k))
        for k in range(3)
    ]
    marks: list[Mark] = [arc((0.0, 0.0), out), line(*tips, tips[0])]
    for k in range(3):
        towards = outline.first + 120.0 * k
        marks.append(arc(tips[k], outline.arc, towards + 150.0, towards + 210.0))
        marks.append(arc(tips[k], outline.arc - outline.side, towards - 30.0, towards + 30.0))
    return (
        "Strike the three-cornered outline",
        "A triangle of equal sides, a long arc from each corner, a short one about each.",
        figures,
        tuple(marks),
    )


def _d_shape(outline: DShape, show: Show) -> Struck:
    b = outline.width / 2
    shift = b - outline.straight
    deep = outline.width - outline.straight
    _, words, figures, marks = _oval(outline.length, 2.0 * deep, 180.0, 360.0, shift, show)
    a = outline.length / 2
    straight = line((-a, shift), (-a, b), (a, b), (a, shift))
    across = show.figure(
        "layout.outline.turn",
        "The curve begins behind the front by",
        deep,
        "width − straight",
        show.input("w", "width", outline.width),
        show.input("s", "straight ends", outline.straight),
    )
    return (
        "Strike the D",
        "Square the back and the ends; from there half an oval. " + words,
        (across, *figures),
        (straight, *marks),
    )


def _shield(outline: Shield, show: Show) -> Struck:
    """Three bows: radius c²/(8b) + b/2 through a chord c and a bow b."""
    a, b = outline.length / 2, outline.width / 2
    tips = ((a, b), (-a, b), (0.0, -b))
    figures = []
    for name, p, q in (("back", tips[0], tips[1]), ("side", tips[1], tips[2])):
        chord = math.dist(p, q)
        figures.append(
            show.figure(
                f"layout.outline.{name}",
                f"Straight line of the {name} edge",
                chord,
                "corner to corner",
                show.input("c", "chord", chord),
                note=f"bow it out {show.length(outline.bow).text} in its middle",
            )
        )
        if outline.bow > 0.0:
            figures.append(
                show.figure(
                    f"layout.outline.{name}_arc",
                    f"Radius of the {name} edge",
                    chord * chord / (8.0 * outline.bow) + outline.bow / 2.0,
                    "c² / (8 · b) + b / 2",
                    show.input("c", "chord", chord),
                    show.input("b", "bow", outline.bow),
                )
            )
    return (
        "Strike the shield",
        "Three corners, joined; bend a lath through each bow and its ends; round the corners last.",
        tuple(figures),
        (line(*tips, tips[0]), Mark("arc", (*points(outline), points(outline)[0]))),
    )


def _drawn(outline: Drawn, show: Show) -> Struck:
    ring = points(outline)
    figures = tuple(
        show.figure(
            f"layout.outline.corner.{k + 1}",
            f"Corner {k + 1}: {show.length(abs(c.x)).text} {'right' if c.x >= 0 else 'left'}, "
            f"{'back' if c.y >= 0 else 'front'} by",
            abs(c.y),
            "|y|",
            show.input("x", "from the front-back line", c.x),
            show.input("y", "from the left-right line", c.y),
        )
        for k, c in enumerate(outline.corners[:12])
    )
    return (
        "Draw the edge over the slab",
        "From the two middle lines; where the bark stays, follow the wood itself.",
        figures,
        (Mark("arc", (*ring, ring[0])),),
    )
