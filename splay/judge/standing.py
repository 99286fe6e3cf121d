"""What can go wrong with how it stands: inward legs, plumb legs, a footprint inside the top."""

from __future__ import annotations

import math
from collections.abc import Iterator
from itertools import pairwise

import shapely
from shapely.affinity import affine_transform
from shapely.geometry.base import BaseGeometry

from splay.judge.finding import Finding, found
from splay.piece import Piece
from splay.quantity import Show
from splay.stance.contacts import on_floor
from splay.stance.outline import hull, polygon
from splay.stance.staked import Stance
from splay.stance.underfoot import bearings
from splay.stance.vectors import Flat
from splay.work.phrases import with_the

STANDS_MM = 20.0
"""Less ground than this between its feet is a line, not a stand (common practice, no source)."""
NARROW_MM = 1.0
"""A footprint this much inside the top is called so; less cannot be measured on a foot."""


def lean(piece: Piece, stance: Stance, show: Show) -> Iterator[Finding]:
    """Legs that lean inward, and legs without a sightline."""
    for leg in stance.legs:
        out = leg.d[0] * leg.socket[0] + leg.d[1] * leg.socket[1]
        field = f"supports.{leg.support}.angles"
        if leg.boring.bearing is None:
            yield Finding(
                "no_sightline",
                "note",
                "boring",
                f"Leg {leg.number} stands square to the top: it has no sightline.",
                "Bore it square; there is nothing to line up.",
                (leg.number,),
                show.angle(0.0),
                None,
                leg.place.at,
                field,
            )
        elif out < -1e-9:
            yield Finding(
                "leans_inward",
                "caution",
                "stance",
                f"Leg {leg.number} leans inward, under the top.",
                "Turn the lean outward unless you mean it; on every card uphill and downhill "
                "have changed places.",
                (leg.number,),
                show.angle(leg.boring.resultant),
                None,
                leg.place.at,
                field,
            )


def underfoot(piece: Piece, stance: Stance, show: Show) -> Iterator[Finding]:
    """What is under a foot and wider than it: it shows, catches and is knocked off (common practice, no
    source)."""
    under = piece.underfoot
    if under is None:
        return
    narrow = [one for one in bearings(piece, stance) if one.narrow < under.across]
    if narrow:
        least = min(narrow, key=lambda one: one.narrow)
        yield Finding(
            "underfoot_wide",
            "caution",
            "level",
            f"What goes under the foot of {with_the(least.name)} is {show.length(under.across).text} "
            f"across, the foot {show.length(least.narrow).text}.",
            "Take a smaller one, or leave the foot thicker.",
            tuple(leg.number for leg in stance.legs if f"leg.{leg.number}" in {o.part for o in narrow}),
            show.length(under.across),
            show.length(least.narrow),
            None,
            "underfoot.across",
        )


def footprint(piece: Piece, stance: Stance, show: Show) -> Iterator[Finding]:
    """Feet that do not stand round the middle, or all lie inside the top's own shadow."""
    stood = [leg.foot_floor[:2] for leg in stance.legs]
    stood += [p[:2] for body in stance.bodies for p in on_floor(body, stance.floor)]
    feet = hull(stood)
    seat = stance.floor.to_floor((0.0, 0.0, piece.top.thickness))[:2]
    numbers = tuple(leg.number for leg in stance.legs)
    middle = shapely.Point(seat)
    if not isinstance(feet, shapely.Polygon) or _narrowest(feet) < STANDS_MM:
        wide = _narrowest(feet) if isinstance(feet, shapely.Polygon) else 0.0
        yield Finding(
            "too_few_feet",
            "stop",
            "stance",
            "It has no three places to stand on that are not in a line.",
            "Add a leg, a slab leg or a frame, or set the feet apart both ways.",
            numbers,
            show.length(wide),
            show.length(STANDS_MM),
            (0.0, 0.0),
            "supports",
        )
        return
    inside = float(feet.exterior.distance(middle))
    if not feet.contains(middle):
        yield Finding(
            "cannot_stand",
            "stop",
            "stance",
            "The middle of the seat lies outside the feet: it falls over by itself.",
            "Lean the legs outward or move them so that the feet stand round the middle.",
            numbers,
            show.length(-float(feet.distance(middle))),
            show.length(0.0),
            (0.0, 0.0),
            "supports",
        )
        return
    shadow = _shadow(piece, stance)
    yield from _tips(piece, stance, feet, shadow, numbers, show)
    spare = _least_inside(stood, shadow)
    if spare > NARROW_MM:
        yield Finding(
            "footprint_inside",
            "caution",
            "stance",
            f"Every foot stands at least {show.length(spare).text} inside the top's edge: sitting "
            "near the rim tips it.",
            "Splay the legs more or set them further out. How far it may tip under load is for "
            "the furniture stability standards that hold where you are.",
            numbers,
            show.length(inside),
            show.length(spare),
            None,
            "supports",
        )


ALIKE_MM = 10.0
"""Steps that differ by more are stumbled on: flights of stairs are allowed 3/8 in from the least to the
greatest riser (International Residential Code 2021, R311.7.5.1; from memory)."""


def steps(piece: Piece, stance: Stance, show: Show) -> Iterator[Finding]:
    """Two treads whose steps up are of unlike height."""
    for index, _, lower in piece.treads():
        under = piece.underfoot.thickness if piece.underfoot is not None else 0.0
        first = stance.floor.h0_mm + under - lower.drop
        then = lower.drop + piece.top.thickness
        if abs(first - then) > ALIKE_MM:
            yield found(
                "steps_unlike", "note",
                f"The step up to the lower tread is {show.length(first).text}, the one on to the top "
                f"{show.length(then).text}: feet expect them alike.",
                f"Alike they would be {show.length((first + then) / 2).text} each.",
                show.length(abs(first - then)), show.length(ALIKE_MM), f"supports.{index}.lower.drop",
            )  # fmt: skip


TIPS_SHARE = 0.95
"""A rim as far past the line between two feet as the middle is within it tips under no more than the
piece's own weight set on it (statics: W a = P (b - a)); a hair less is not told from it."""


def _tips(
    piece: Piece,
    stance: Stance,
    feet: shapely.Polygon,
    shadow: shapely.Polygon,
    numbers: tuple[int, ...],
    show: Show,
) -> Iterator[Finding]:
    """Where the rim reaches past the line between two neighbouring feet: sat on there, it tips.

    Static: W a / (b - a), the middle a from that line and the rim b - a beyond it.
    """
    middle = stance.floor.to_floor((0.0, 0.0, piece.top.thickness))[:2]
    rim = shapely.get_coordinates(shadow) - middle
    worst, inner = 0.0, 1.0
    for (x0, y0), (x1, y1) in pairwise(list(feet.exterior.coords)):
        long = math.dist((x0, y0), (x1, y1))
        if long < 1e-6:
            continue
        out = ((y1 - y0) / long, -(x1 - x0) / long)
        if (x0 - middle[0]) * out[0] + (y0 - middle[1]) * out[1] < 0:
            out = (-out[0], -out[1])
        a = (x0 - middle[0]) * out[0] + (y0 - middle[1]) * out[1]
        b = float((rim @ out).max())
        if b - a > worst:
            worst, inner = b - a, a
    if worst > TIPS_SHARE * inner:
        yield Finding(
            "rim_past_feet",
            "caution",
            "stance",
            f"Between two feet the rim reaches {show.length(worst).text} past the line that joins them: "
            "sat on there it tips.",
            "Set the feet further out, or make the top smaller there. How far it may tip under load is for "
            "the furniture stability standards that hold where you are.",
            numbers,
            show.length(worst),
            show.length(TIPS_SHARE * inner),
            None,
            "supports",
        )


def _narrowest(feet: shapely.Polygon) -> float:
    """Least width of the ground it stands on, mm."""
    around = feet.minimum_rotated_rectangle
    if not isinstance(around, shapely.Polygon):
        return 0.0
    ring = list(around.exterior.coords)
    return min(math.dist(ring[0], ring[1]), math.dist(ring[1], ring[2]))


def _shadow(piece: Piece, stance: Stance) -> shapely.Polygon:
    """The underside's outline seen plumb, on the floor, with a lower tread's: what is sat or stood on."""
    seen: BaseGeometry = polygon(piece.top.outline)
    if stance.floor.fall_deg != 0.0:
        (a, b, _), (d, e, _), _ = stance.floor.rows
        seen = affine_transform(seen, [a, b, d, e, 0.0, 0.0])
    for body in stance.bodies:
        if body.role == "lower_tread":
            seen = seen.union(hull([stance.floor.to_floor(p)[:2] for p in body.corners]))
    # Between the two nobody sits or stands: the whole is as far out as either.
    whole = seen if isinstance(seen, shapely.Polygon) else seen.convex_hull
    assert isinstance(whole, shapely.Polygon)
    return whole


def _least_inside(feet: list[Flat], shadow: shapely.Polygon) -> float:
    """How far within the shadow's edge the outermost foot stands, mm; -inf where one stands outside."""
    spots = shapely.points(feet)
    if not shapely.contains(shadow, spots).all():
        return -math.inf
    return float(shapely.distance(shadow.exterior, spots).min())
