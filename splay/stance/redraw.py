"""The slab drawn anew: corners of its outline, a photograph under it, straight ends, a slab leg's edges."""

from __future__ import annotations

from typing import Any, Literal

import shapely

from splay.errors import BadInput, Fault, shorten
from splay.piece import Drawn, HandHold, Outline, Piece, Rectangle, SlabLeg, straight_end, write_piece
from splay.piece.tops import END_MM, Corner
from splay.quantity import degrees as deg
from splay.stance.hand_hold import slot
from splay.stance.holding import across_grain
from splay.stance.outline import extent, hull, polygon, through_sharp
from splay.stance.slab_leg import edges_at, edges_down
from splay.stance.staked import stand

END_SHARE = 0.04
"""A drawn outline is sawn off so far in, as a share of its length."""
FAR_MM = 10000.0
PHOTO_SHARE = 1.15
"""A photograph begins this many times as wide as the outline that is to be drawn over it."""
PAST_SHARE, THICK_SHARE, MOST_PAST_MM = 0.8, 0.25, 40.0
"""Dowels from outside begin as these shares of the top's thickness past the mitre and across (common
practice, no source)."""


def with_straight_end(outline: Outline, end: Literal["left", "right"]) -> Outline:
    """The outline with a straight end there, square across, that stays so when it is smoothed: a drawn one
    sawn off a little way in, any other a rectangle of its size; else as it is where it has one."""
    found = straight_end(outline, end)
    if found is not None:
        return _sharpened(outline, found[0]) if isinstance(outline, Drawn) else outline
    a, b = extent(outline)
    if not isinstance(outline, Drawn):
        return Rectangle(length=2 * a, width=2 * b)
    sign = -1.0 if end == "left" else 1.0
    left, _, right, _ = polygon(outline).bounds
    at = (left if sign < 0 else right) - sign * END_SHARE * (right - left)
    ring = outline.corners
    n = len(ring)
    stays = [sign * (at - c.x) > 1.0 for c in ring]
    # From the first corner that stays after one that goes: the new end comes behind the last of them.
    first = next(k for k in range(n) if stays[k] and not stays[k - 1])
    kept = [ring[(first + k) % n] for k in range(n) if stays[(first + k) % n]]
    across = polygon(outline).intersection(shapely.LineString([(at, -FAR_MM), (at, FAR_MM)]))
    _, low, _, high = across.bounds
    ends = [Corner(x=at, y=y, sharp=True) for y in (low, high)]
    if abs(ends[0].y - kept[-1].y) > abs(ends[1].y - kept[-1].y):
        ends.reverse()
    return Drawn.model_validate({**outline.model_dump(), "corners": [*kept, *ends]})


def _sharpened(outline: Drawn, x: float) -> Drawn:
    """The outline with the corners of a straight end at `x` sharp."""
    corners = [
        c.model_copy(update={"sharp": True}) if abs(c.x - x) < END_MM else c for c in outline.corners
    ]
    return outline.model_copy(update={"corners": tuple(corners)})


def with_finer_corners(piece: Piece) -> dict[str, Any]:
    """The piece's document with a corner more between every two of its drawn outline, but on the straight
    end a slab leg stands at.

    On a smoothed outline it lies on the curve itself, so that nothing moves.
    """
    outline = _drawn(piece)
    document = write_piece(piece)
    ends = {leg.end for _, leg in piece.slab_legs()}
    kept = {found[0] for end in ends if (found := straight_end(outline, end)) is not None}
    made = []
    ring = outline.corners
    for k, corner in enumerate(ring):
        after = ring[(k + 1) % len(ring)]
        made.append(corner.model_dump())
        if any(abs(corner.x - x) < 0.01 and abs(after.x - x) < 0.01 for x in kept):
            continue
        if outline.smooth:
            x, y = through_sharp([ring[(k + j) % len(ring)] for j in (-1, 0, 1, 2)], 0.5)
        else:
            x, y = (corner.x + after.x) / 2, (corner.y + after.y) / 2
        made.append({"x": x, "y": y})
    document["top"]["outline"]["corners"] = made
    return document


def _drawn(piece: Piece) -> Drawn:
    outline = piece.top.outline
    if not isinstance(outline, Drawn):
        do = "Choose the drawn outline first."
        raise BadInput(Fault("restate.what", outline.kind, "a drawn outline", do))
    return outline


def with_photo(piece: Piece, to: str) -> dict[str, Any]:
    """The piece's document with a photograph laid under its drawn outline, a little wider than that
    at first, or with none."""
    xs = [corner.x for corner in _drawn(piece).corners]
    document = write_piece(piece)
    laid = {"width": round(PHOTO_SHARE * (max(xs) - min(xs)))}
    made = {"laid": laid, "none": None}
    if to not in made:
        raise BadInput(Fault("restate.to", shorten(to), ", ".join(made), "Choose one of these."))
    document["top"]["outline"]["photo"] = made[to]
    return document


def _slab_leg(piece: Piece, index: int) -> SlabLeg:
    support = piece.supports[index] if 0 <= index < len(piece.supports) else None
    if not isinstance(support, SlabLeg):
        do = "Choose the slab turned down."
        raise BadInput(Fault("restate.support", str(index), "a slab leg", do))
    return support


def with_edge_spot(piece: Piece, index: int) -> dict[str, Any]:
    """The piece's document with one more place on the edges of slab leg `index`: halfway from the last to
    the foot, where they are."""
    support = _slab_leg(piece, index)
    document = write_piece(piece)
    edges = edges_down(piece, support)
    long = (stand(piece).floor.h0_mm + piece.top.thickness) / deg.cos(support.splay)
    down = float(round((edges[-1][0] + max(long, edges[-1][0] + 20.0)) / 2))
    low, high = edges_at(edges, down)
    spot = {"down": down, "front": -low, "back": high}
    document["supports"][index]["edges"] = [*document["supports"][index]["edges"], spot]
    return document


def with_outside(piece: Piece, to: str, index: int) -> dict[str, Any]:
    """The piece's document with slab leg `index` dowelled from outside, or inside its mitre."""
    _slab_leg(piece, index)
    document = write_piece(piece)
    if to not in ("on", "off"):
        raise BadInput(Fault("restate.to", shorten(to), "on, off", "Choose one of these."))
    t = piece.top.thickness
    made = {
        "size": float(max(4, min(20, round(THICK_SHARE * t)))),
        "past": float(round(min(MOST_PAST_MM, PAST_SHARE * t))),
    }
    document["supports"][index]["outside"] = made if to == "on" else None
    return document


GAP_SHARE = 0.015
"""A gap begins this share of the top wide, and no narrower than (common practice, no source)"""
LEAST_GAP_MM = 5.0


def with_gap(piece: Piece, to: str) -> dict[str, Any]:
    """The piece's document with its top in two boards with a gap between them, as wide to each other as two
    it has, else alike; or in one piece."""
    document = write_piece(piece)
    if to == "off":
        document["top"] |= {"gap": None, "boards": []}
        return document
    wide = across_grain(piece.top.outline, piece.top.grain)
    gap = max(LEAST_GAP_MM, float(round(GAP_SHARE * wide)))
    had = piece.top.boards if len(piece.top.boards) == 2 else (1.0, 1.0)
    boards = [(wide - gap) * width / sum(had) for width in had]
    document["top"] |= {"gap": {"width": gap}, "boards": boards}
    return document


HOLD_MM = (105.0, 30.0)
"""A hand-hold begins so long and so wide (common practice, no source)."""
HOLD_CLEAR_MM, ENOUGH_MM = 20.0, 60.0
FINE = 6
"""Places looked at from the middle to either edge."""


def with_hand_hold(piece: Piece) -> dict[str, Any]:
    """The piece's document with one more hand-hold: along the grain, where most wood stands about it."""
    document = write_piece(piece)
    long, wide = HOLD_MM
    stance = stand(piece)
    taken: list[shapely.Geometry] = [
        shapely.Point(leg.socket[:2]).buffer(leg.bore.size / 2) for leg in stance.legs
    ]
    taken += [slot(one) for one in piece.top.hand_holds]
    for body in stance.bodies:
        flush = [(p[0], p[1]) for p in body.corners if abs(p[2]) < 0.01] if body.drawn else []
        taken += [hull(flush)] if len(flush) > 2 else []
    outline = polygon(piece.top.outline)
    a, b = extent(piece.top.outline)

    def room(x: float, y: float) -> float:
        """Wood about a slot there, to the edge and to what is bored or lies under it."""
        shape = slot(HandHold(x=x, y=y, length=long, width=wide, turn=_within(piece.top.grain)))
        if not outline.contains(shape):
            return -1.0
        near = min((shape.distance(other) for other in taken), default=b)
        return min(shape.distance(outline.exterior), HOLD_CLEAR_MM + near)

    spots = [(a * i / FINE, b * k / FINE) for k in range(1 - FINE, FINE) for i in range(1 - FINE, FINE)]
    x, y = max(spots, key=lambda at: (round(min(room(*at), ENOUGH_MM), 3), -abs(at[0]), -abs(at[1])))
    made = HandHold(x=x, y=y, length=long, width=wide, turn=_within(piece.top.grain))
    document["top"]["hand_holds"] = [*document["top"]["hand_holds"], made.model_dump(mode="json")]
    return document


def _within(turn: float) -> float:
    """The same line of a slot, its bearing between -90 and 90."""
    return turn - 180.0 if turn > 90.0 else turn
