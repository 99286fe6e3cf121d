"""What holds the parts or is bored through them, drawn into the piece: a top's screws and buttons, dowels
from outside, hand-holds, splines."""

from __future__ import annotations

from itertools import pairwise, product

import shapely
from shapely import affinity

from splay.stance.buttons import BODY_MM
from splay.stance.gapped import slit
from splay.stance.hand_hold import slot
from splay.stance.outline import extent, hull, polygon
from splay.stance.vectors import Flat, along
from splay.views.project import PLAN, UNDERSIDE, UPPER_FACE, Eye
from splay.views.scene import Model
from splay.views.shapes import Layer, Shape, area, ellipse, line


def fixings(model: Model, eye: Eye) -> list[Shape]:
    """All of them as one way of looking shows them."""
    return [
        *_screws(model, eye), *_dowels(model, eye), *_buttons(model, eye), *_hand_holds(model, eye),
        *_splines(model, eye),
    ]  # fmt: skip


def _hand_holds(model: Model, eye: Eye) -> list[Shape]:
    """Slots through the top, from above and from below."""
    layer: Layer = "tenon" if eye is UNDERSIDE else "section"
    made: list[Shape] = []
    opened = slit(model.piece.top)
    if opened is not None and eye in (PLAN, UNDERSIDE, UPPER_FACE):
        made += _gap(model, eye, opened)
    for one in model.piece.top.hand_holds if eye in (PLAN, UNDERSIDE, UPPER_FACE) else ():
        t = model.piece.top.thickness
        ring = tuple(eye.see(model.place((x, y, t))) for x, y in slot(one).exterior.coords[:-1])
        made.append(area(layer, ring, "top"))
    return made


def _gap(model: Model, eye: Eye, opened: Flat) -> list[Shape]:
    """What is open between two boards, as far as there is top."""
    top = model.piece.top
    reach = 2.0 * sum(extent(top.outline))
    band = affinity.rotate(shapely.box(-reach, opened[0], reach, opened[1]), top.grain, origin=(0, 0))
    seen = band.intersection(polygon(top.outline))
    made: list[Shape] = []
    for part in getattr(seen, "geoms", [seen]):
        if isinstance(part, shapely.Polygon) and not part.is_empty:
            ring = [eye.see(model.place((x, y, top.thickness))) for x, y in part.exterior.coords[:-1]]
            made.append(area("tenon" if eye is UNDERSIDE else "section", tuple(ring), "top"))
    return made


def _splines(model: Model, eye: Eye) -> list[Shape]:
    """Splines through the top: from above their ends in it, else each in its notch."""
    made: list[Shape] = []
    for one in model.splines:
        bottom, top = one.corners()[::2], one.corners()[1::2]
        if eye is PLAN:
            ring = [eye.see(model.place(top[k])) for k in (0, 1, 3, 2)]
            made.append(area("section", tuple(ring), one.body.key))
            continue
        seen = hull([eye.see(model.place(p)) for p in (*bottom, *top)])
        if isinstance(seen, shapely.Polygon):
            corners = [(x, y) for x, y, *_ in seen.exterior.coords]
            made += [line("hidden", a, b, part=one.body.key) for a, b in pairwise(corners)]
    return made


def _screws(model: Model, eye: Eye) -> list[Shape]:
    """The screws that hold the top: from the side each from its head to its point, from above its head."""
    made: list[Shape] = []
    for one in model.screws:
        if eye in (PLAN, UNDERSIDE):
            made.append(
                ellipse("tenon", eye.see(model.place(one.at)), (one.screw.head / 2,) * 2, part=one.body.key)
            )
            continue
        head = along(one.at, one.way, -(one.through - one.sunk))
        ends = (eye.see(model.place(p)) for p in (head, along(one.at, one.way, one.screw.bite)))
        made.append(line("hidden", *ends, part=one.body.key))
    return made


def _buttons(model: Model, eye: Eye) -> list[Shape]:
    """Buttons that hold the top: from above each as it lies, else the groove along its part."""
    made: list[Shape] = []
    for one in model.grooved:
        for each in one.buttons if eye in (PLAN, UNDERSIDE) else ():
            half, out = one.chosen.wide / 2, each.off
            ring = [
                eye.see(model.place(one.at(each.along + side * half, one.chosen.drop, into)))
                for side, into in (
                    (-1, one.chosen.deep - out), (1, one.chosen.deep - out),
                    (1, -out - BODY_MM), (-1, -out - BODY_MM),
                )
            ]  # fmt: skip
            made.append(area("tenon", tuple(ring), one.body.key))
        if eye not in (PLAN, UNDERSIDE):
            for span, down in product(one.spans, (one.chosen.drop, one.chosen.drop + one.chosen.groove)):
                ends = (eye.see(model.place(one.at(x, down, 0.0))) for x in span)
                made.append(line("hidden", *ends, part=one.body.key))
    return made


def _dowels(model: Model, eye: Eye) -> list[Shape]:
    """Dowels driven from outside: from above those that are seen there, else each along itself."""
    made: list[Shape] = []
    for one in model.dowels:
        half = one.chosen.size / 2
        if eye in (PLAN, UNDERSIDE) and one.runs == "plumb":
            sort: Layer = "tenon" if eye is PLAN else "hidden"
            made.append(ellipse(sort, eye.see(model.place(one.at)), (half, half), part=one.leg))
            continue
        ends = (eye.see(model.place(p)) for p in (one.at, along(one.at, one.way, one.deep)))
        made.append(line("hidden", *ends, part=one.leg))
    for each in model.through:
        start = each.outside
        ends = (eye.see(model.place(p)) for p in (start, along(start, each.way, each.deep)))
        made.append(line("hidden", *ends, part=each.meets.mate.key))
    return made
