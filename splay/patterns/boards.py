"""Sides, frames and slab legs at full size: the face as it is sawn, and the mitre seen on its edge."""

from __future__ import annotations

from collections.abc import Iterator

import shapely

from splay.parts.stick import StickPart
from splay.patterns.pattern import Pattern, cross_at, pattern, ring, words
from splay.piece import Piece, SlabLeg
from splay.quantity import Show
from splay.stance.body import Body
from splay.stance.convex import Plane
from splay.stance.outline import hull
from splay.stance.outside import Driven, driven
from splay.stance.slab_leg import slab_mitre
from splay.stance.splines import Splined, splined
from splay.stance.staked import Stance
from splay.stance.vectors import Flat, along
from splay.views.shapes import Shape, line, text
from splay.work.phrases import cap

CORNER_MM = 170.0
"""How much of slab and leg the drawing of a mitre shows each way."""
SEAM_MM = 0.01
FACING = 0.05


def board_patterns(
    piece: Piece, stance: Stance, parts: tuple[StickPart, ...], show: Show
) -> Iterator[Pattern]:
    """One of each sort of squared part, its face up; on a slab leg where dowels go in from outside, on a
    board its notches for splines."""
    dowels, through = driven(piece), splined(piece, stance)
    seen: set[str] = set()
    for body, part in zip(stance.bodies, parts, strict=True):
        if not body.drawn or body.alike in seen:
            continue
        seen.add(body.alike)
        mine = [one for one in dowels if one.leg == body.key and one.runs == "level"]
        notches = [one for one in through if one.body.key == body.key]
        yield _face(body, part, mine, notches, show)


def outlines(body: Body, up: float) -> list[list[Flat]]:
    """The outlines of a part's face (`up` 1) or the face under it (-1), in its own frame: along, across."""
    flat = []
    for solid in body.pieces:
        for face in solid:
            if face.normal[2] * up > 1.0 - FACING:
                flat.append(shapely.Polygon([(p[0], p[1]) for p in face.corners]).buffer(SEAM_MM))
    whole = shapely.union_all(flat).buffer(-SEAM_MM) if flat else shapely.Polygon()
    made = []
    for shape in getattr(whole, "geoms", [whole]):
        if isinstance(shape, shapely.Polygon) and shape.area > 1.0:
            tidy = shapely.simplify(shape, 0.002)
            for edge in (tidy.exterior, *tidy.interiors):
                made.append([(x, y) for x, y in edge.coords[:-1]])
    return made


def _face(body: Body, part: StickPart, dowels: list[Driven], notches: list[Splined], show: Show) -> Pattern:
    shapes: list[Shape] = [ring("hidden", edge) for edge in outlines(body, -1.0)]
    for edge in outlines(body, 1.0):
        shapes.append(ring("cut", edge, part=body.key))
    near, far = body.tenons
    y = body.width / 2.0
    for tenon, which in ((near, 0), (far, 1)):
        if tenon:
            a, b = body.at(-y, 0.0)[which], body.at(y, 0.0)[which]
            way = -tenon if which == 0 else tenon
            shapes.append(line("tenon", (a, -y), (a + way, -y), (b + way, y), (b, y)))
    for one in dowels:
        own = body.pose.within(one.at)
        shapes += cross_at((own[0], own[1]))
    for each in notches:
        y0, y1 = (body.pose.within((0.0, at, 0.0))[1] for at in (each.low, each.high))
        end = body.at(0.0, body.thickness / 2)[0]
        deep = end + each.chosen.depth
        shapes.append(line("cut", (end, y0), (deep, y0), (deep, y1), (end, y1)))
    first, last = body.at(0.0, 0.0)
    middle = (first + last) / 2.0
    size = f"{part.stock[0].quantity.text} × {part.stock[1].quantity.text}"
    shapes += [
        line("axis", (first, 0.0), (last, 0.0)),
        words((middle, 0.2 * body.width), f"{part.name}: {body.sides.face}"),
        words((middle, -0.2 * body.width), f"{part.overall.quantity.text} over all, {size}"),
        text("label", (middle, y - 4.0), body.sides.edge),
        text("label", (middle, -y + 1.5), body.sides.other_edge),
    ]
    return pattern(
        f"board.{body.key}",
        "boards",
        cap(part.name),
        (
            f"Lay it on the {body.sides.face}, the {body.sides.edge} as the words say.",
            "The full line is this face, the dashed one the face under it where the ends are not square.",
        ),
        shapes,
    )


def mitre_patterns(piece: Piece, stance: Stance, show: Show) -> Iterator[Pattern]:
    """Each slab leg's mitre, seen on the front edge."""
    for index, support in piece.slab_legs():
        leg = next(b for b in stance.bodies if b.support == index and b.role == "slab_leg")
        yield _mitre(piece, support, leg, show)


def _half_plane(plane: Plane) -> shapely.Polygon:
    """The wood side of a plane that stands square to the front, as x and z."""
    far = 40000.0
    n = (plane.normal[0], plane.normal[2])
    at = (n[0] * plane.offset, n[1] * plane.offset)
    side = (-n[1], n[0])
    ring_ = [
        (at[0] + side[0] * far, at[1] + side[1] * far),
        (at[0] - side[0] * far, at[1] - side[1] * far),
        (at[0] - side[0] * far - n[0] * far, at[1] - side[1] * far - n[1] * far),
        (at[0] + side[0] * far - n[0] * far, at[1] + side[1] * far - n[1] * far),
    ]
    return shapely.Polygon(ring_)


def _mitre(piece: Piece, support: SlabLeg, leg: Body, show: Show) -> Pattern:
    mitre = slab_mitre(piece, support)
    t, s = piece.top.thickness, support.splay
    end = 1.0 if support.end == "right" else -1.0
    corner = next(p for p in leg.corners if abs(p[2] - t) < 0.01)
    about = shapely.Point(corner[0], corner[2]).buffer(CORNER_MM, quad_segs=16)
    slab = shapely.box(-20000.0, 0.0, 20000.0, t).intersection(_half_plane(mitre)).intersection(about)
    post = hull([(p[0], p[2]) for p in leg.corners]).intersection(about)
    shapes: list[Shape] = []
    for shape in (slab, post):
        if isinstance(shape, shapely.Polygon) and not shape.is_empty:
            shapes.append(ring("cut", [(x - corner[0], z) for x, z in shape.exterior.coords[:-1]]))
    for runs in ("level", "plumb"):
        # They cross the mitre in its middle, one behind another: the first of each stands for all.
        for one in [each for each in driven(piece) if each.leg == leg.key and each.runs == runs][:1]:
            ends = (one.at, along(one.at, one.way, one.deep))
            shapes.append(line("axis", *((p[0] - corner[0], p[2]) for p in ends)))
    half, inside = show.angle((90.0 - s) / 2.0).text, show.angle(90.0 + s).text
    shapes.append(words((-end * 80.0, t * 0.45), "the top's front edge"))
    return pattern(
        f"mitre.{support.id}",
        "boards",
        f"The mitre at the {support.end}",
        (f"Hold it against the front edge: both cuts {half} off square, closing to {inside} inside.",),
        shapes,
    )
