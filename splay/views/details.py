"""Details true to scale: the hole's way through the top, and a leg laid out along its axis."""

from __future__ import annotations

from collections.abc import Mapping

from splay.parts import LegPart, SocketPart
from splay.parts.bent import Bent
from splay.piece import Piece
from splay.quantity import Show
from splay.quantity import degrees as deg
from splay.setups.groups import Group, bored_from
from splay.stance.staked import support_of
from splay.stance.taper import foot_taper, size_at
from splay.stance.vectors import Flat
from splay.views.leg_rings import Neck
from splay.views.shapes import Shape, View, area, line, text


def section_view(
    piece: Piece, group: Group, socket: SocketPart, show: Show, necks: Mapping[int, Neck]
) -> View:
    """The top cut along the sightline, the face bored from uppermost; the rim to the right. Where the
    mouth is eased, that and the cove that comes to lie in it."""
    leg = group.first
    bore, t = leg.bore, leg.bore.limit
    rho = leg.boring.resultant
    c, s, tan = deg.cos(rho), deg.sin(rho), deg.tan(rho)
    half = bore.size / 2
    reach = max(3.2 * bore.size, 1.4 * t, t * tan + 2 * bore.size)
    flipped = bored_from(piece, group) == "underside"

    # Down into the top the hole runs away from the side the foot leans to, mm: u right, z up.
    def put(u: float, z: float) -> Flat:
        return (u, -z) if flipped else (u, z)

    slant = half / c
    if not bore.through:
        k = bore.deep
        corners = ((-k * s - half * c, k * c - half * s), (-k * s + half * c, k * c + half * s))
    else:
        # A reamed hole is a cone about the axis: its sides lean to either side of the lean.
        half_angle = deg.atan((bore.size - bore.tip) / 2 / bore.tenon) if bore.tenon > 0 else 0.0
        inner, outer = deg.tan(rho + half_angle), deg.tan(rho - half_angle)
        corners = ((-t * outer - slant, t), (-t * inner + slant, t))
    eased = necks[leg.number].mouth if leg.number in necks else None

    # Beside the axis, out of the wood along it.
    def beside(side: float, line: tuple[Flat, ...]) -> list[Flat]:
        return [put(a * s + side * r * c, -a * c + side * r * s) for a, r in line]

    mouth = [put(-slant, 0.0), put(slant, 0.0)]
    if eased is not None:
        mouth = [*beside(-1.0, eased.rounding(-1.0)), *reversed(beside(1.0, eased.rounding(1.0)))]
    hole = (*mouth, put(*corners[1]), put(*corners[0]))
    part = f"leg.{leg.number}"
    recess: tuple[Shape, ...] = ()
    if bore.recess:
        k, wide = bore.recess, bore.wide / 2
        floor = (put(-k * s + wide * c, k * c + wide * s), put(-k * s - wide * c, k * c - wide * s))
        recess = (area("cut", (put(-wide / c, 0.0), put(wide / c, 0.0), *floor), part),)
        reach = max(reach, 1.6 * wide / c)
    band = (put(-reach, 0.0), put(reach, 0.0), put(reach, t), put(-reach, t))
    up = 1.6 * t
    axis_up = (put(up * s / c, -up), put(-(t * 1.25) * tan, t * 1.25))
    shapes: list[Shape] = [
        area("section", band, "top"),
        *(_hatch(reach, t, put)),
        *recess,
        area("cut", hole, part),
        line("axis", *axis_up, part=part),
        line("dimension", put(0.0, 0.0), put(0.0, -up)),
        text(
            "pointer",
            put(up * tan / 2 + 0.45 * bore.size, -up * 0.75),
            show.angle(rho).text,
            part,
        ),
        text("label", put(reach * 0.98, -0.2 * t), _right(group), anchor="end"),
        text("label", put(-reach * 0.98, -0.2 * t), _left(group), anchor="start"),
        text(
            "label",
            put(-reach * 0.98, t * 1.22),
            "upper face" if flipped else "upper face, bored from",
            anchor="start",
        ),
        text("dimension", put(reach * 0.98, t * 1.22), show.length(t).text, anchor="end"),
    ]
    if eased is not None:
        shapes += [line("tenon", *beside(side, eased.neck()), part=part) for side in (-1.0, 1.0)]
    if socket.left_above is not None:
        u, z = corners[1]
        shapes.append(line("warning", put(u, z), put(u, t)))
        shapes.append(
            text(
                "dimension",
                put(u + 0.3 * bore.size, (z + t) / 2),
                socket.left_above.quantity.text,
                anchor="start",
            )
        )
    box_top, box_low = put(0, -up * 1.08), put(0, t * 1.45)
    low, high = sorted((box_top[1], box_low[1]))
    title = f"The top cut along the sightline, {group.named()}"
    return View(f"section.{leg.number}", title, (-reach, low, reach, high), tuple(shapes))


def _right(group: Group) -> str:
    return {1: "rim", -1: "middle", 0: "the foot's side"}[group.side]


def _left(group: Group) -> str:
    return {1: "middle", -1: "rim", 0: "the other side"}[group.side]


def _hatch(reach: float, t: float, put: object) -> list[Shape]:
    assert callable(put)
    gap = reach / 9
    return [
        line("hatch", put(k * gap, 0.0), put(k * gap + t * 0.5, t))
        for k in range(-9, 9)
        if k * gap + t * 0.5 <= reach
    ]


def leg_view(piece: Piece, group: Group, part: LegPart, show: Show, necks: Mapping[int, Neck]) -> View:
    """A leg along its axis, tenon at the left, outer side up: blank, finished, foot cut, waste; of bent
    sticks the middle of each by the string that is the axis."""
    first = group.first
    leg, bore = support_of(piece, first).leg, first.bore
    inside, finish = part.in_top.quantity.value, part.finished.quantity.value
    blank = part.blank.quantity.value
    stock, r0, rt = (
        part.stock.quantity.value / 2,
        leg.at_top / 2,
        (bore.size if bore.tenon else leg.at_top) / 2,
    )
    end = bore.tip / 2 if bore.tenon else rt
    cut = part.cut
    name = f"leg.{part.number}"
    exposed = finish - inside
    waist: tuple[Flat, ...] = (
        () if leg.belly is None else ((inside + leg.belly.at * exposed, leg.belly.size / 2),)
    )

    def radius(u: float) -> float:
        """Half its thickness; past the foot the last slope goes on."""
        over = max(0.0, u - finish)
        return size_at(leg, exposed, u - inside) / 2 - over * foot_taper(leg, exposed)

    outer, inner = finish + cut.below, finish - cut.above
    mouth = necks[first.number].mouth if first.number in necks else None
    neck: tuple[Flat, ...] = ((inside, rt), (inside, r0))
    if mouth is not None:
        neck = tuple((inside + along, out) for along, out in mouth.neck())
        waist = tuple((u, r) for u, r in waist if u > neck[-1][0])
    body = (
        (0.0, -end),
        *((u, -r) for u, r in neck),
        *((u, -r) for u, r in waist if u < inner),
        (inner, -radius(inner)),
        (outer, radius(outer)),
        *waist,
        *reversed(neck),
        (0.0, end),
    )
    waste = (
        (inner, -radius(inner)),
        (outer, radius(outer)),
        (blank, radius(blank)),
        (blank, -radius(blank)),
    )
    step = 0.05 * blank
    bowed = [
        shape
        for number in group.numbers
        if number in necks
        for shape in _bowed(necks[number].bent, group, name)
    ]
    # Clear of a bent stick that bulges past the stock.
    high = max([stock, *(y for shape in bowed for _, y in shape.points)])
    shapes: list[Shape] = [
        area("hidden", ((0.0, -stock), (blank, -stock), (blank, stock), (0.0, stock)), name),
        area("leg", body, name),
        area("waste", waste, name),
        line("cut", (inner, -radius(inner)), (outer, radius(outer)), part=name),
        line("axis", (-0.02 * blank, 0.0), (blank * 1.02, 0.0)),
        line("tenon", (inside, -r0 * 1.15), (inside, r0 * 1.15), part=name),
        text(
            "label",
            (inside + 0.36 * (finish - inside), high + 0.4 * step),
            "outer side, towards the rim" if group.side >= 0 else "side it leans to",
        ),
    ]
    shapes += bowed
    if bore.left_on:
        slant = rt * deg.tan(first.boring.resultant)
        shapes.append(line("cut", (bore.left_on - slant, -rt), (bore.left_on + slant, rt), part=name))
    low = -stock - step
    for at, (start, end, figure) in enumerate(
        (
            (0.0, inside, part.in_top),
            (inside, finish, part.exposed),
            (0.0, finish, part.finished),
            (0.0, blank, part.blank),
        )
    ):
        level = low if at < 2 else low - (at - 1) * step * 1.1
        shapes.append(line("dimension", (start, level), (end, level), part=figure.key))
        for tick in (start, end):
            shapes.append(line("dimension", (tick, level - 0.15 * step), (tick, level + 0.15 * step)))
        shapes.append(
            text(
                "dimension",
                ((start + end) / 2, level - 0.62 * step),
                f"{_SHORT[at]} {figure.quantity.text}",
            )
        )
    bottom = low - 3.2 * step
    title = f"{group.named().capitalize()} along the middle"
    return View(
        f"leg.{part.number}",
        title,
        (-0.03 * blank, bottom, blank * 1.03, high + 1.6 * step),
        tuple(shapes),
    )


def _bowed(bent: Bent | None, group: Group, part: str) -> list[Shape]:
    """The middle of a bent stick as it runs off its string, where it does so in this view."""
    if bent is None or bent.bend.faces not in ("outward", "inward"):
        return []
    up = 1.0 if (bent.bend.faces == "outward") is (group.side >= 0) else -1.0
    runs = [(bent.long * k / 24, up * bent.off(bent.long * k / 24)) for k in range(25)]
    at, off = runs[20]
    return [
        line("measured", *runs, part=part),
        text("label", (at, off), f"stick {bent.trim.index + 1}", part),
    ]


_SHORT = ("", "exposed", "finished", "blank")
