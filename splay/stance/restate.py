"""The same piece said another way: another outline of its size, legs laid out or leaning as they do."""

from __future__ import annotations

import math
from dataclasses import dataclass
from itertools import count
from typing import Any, Literal

from splay.errors import BadInput, Fault
from splay.piece import Drawn, Free, Outline, Piece, StakedLegs, leg_ids, read_piece, write_piece
from splay.quantity import degrees as deg
from splay.stance.aim import foot_reach, outward
from splay.stance.arrange import (
    with_belly,
    with_cross_piece,
    with_hollow,
    with_lower_rail,
    with_lower_tread,
    with_members,
    with_peg,
    with_support,
    with_taper,
    without,
)
from splay.stance.hold_down import with_held, with_splines
from splay.stance.outline import extent, points
from splay.stance.redraw import (
    with_edge_spot,
    with_finer_corners,
    with_gap,
    with_hand_hold,
    with_outside,
    with_photo,
    with_straight_end,
)
from splay.stance.staked import LegStance, Stance, spec_index, stand, support_of
from splay.stance.vectors import Flat

NEAREST_MM = 5.0
"""A leg is never laid out nearer to an edge than the piece file allows."""
BLIND_SHARE = 0.7
"""A blind socket starts out this share of the thickness deep (common practice, no source)."""
PROUD_MM = 5.0
MOST_CORNERS = 16
SPOT_STEP_MM = 60
"""How far behind the middle, or the one in front of it, a leg is put down to be dragged from there."""
LEAST_TENON_MM = 16.0


What = Literal[
    "outline", "placement", "angle", "scope", "joint", "belly", "peg",
    "support", "members",
    "more_members", "hollow", "corners", "photo", "cross_piece", "taper", "held", "edge_spot", "outside",
    "hand_hold", "lower_tread", "lower_rail", "splines", "gap", "spot",
    "away",
]  # fmt: skip
"""What can be said another way, or put in whole."""


@dataclass(frozen=True)
class Restate:
    """What is to be said another way, and how.

    `to` is the kind, way or scope as the piece file names it, or the id of what is taken away; `support`
    the set of legs, `leg` the number of a leg served by the angle meant, `measured_from` the line of a
    sightline: straight out on a circle, else the left-right line, where nothing is said.
    """

    what: What
    to: str
    support: int = 0
    leg: int = 0
    measured_from: str = ""


def restate(piece: Piece, ask: Restate, salt: str = "") -> Piece:
    """The piece with one thing said another way; BadInput where that is not possible.

    `salt` as for `read_piece`: for what comes to it.
    """
    if ask.what == "support":
        return read_piece(with_support(piece, ask.to, ask.support), salt=salt)
    if ask.what == "members":
        return read_piece(with_members(piece, ask.to, salt), salt=salt)
    if ask.what == "more_members":
        return read_piece(with_members(piece, ask.to, salt, beside=True), salt=salt)
    if ask.what == "away":
        return read_piece(without(piece, ask.to))
    if ask.what == "hollow":
        return read_piece(with_hollow(piece, ask.to), salt=salt)
    if ask.what == "corners":
        return read_piece(with_finer_corners(piece), salt=salt)
    if ask.what == "photo":
        return read_piece(with_photo(piece, ask.to), salt=salt)
    if ask.what == "held":
        return read_piece(with_held(piece, ask.to, ask.support), salt=salt)
    if ask.what == "hand_hold":
        return read_piece(with_hand_hold(piece), salt=salt)
    if ask.what == "gap":
        return read_piece(with_gap(piece, ask.to), salt=salt)
    if ask.what == "splines":
        return read_piece(with_splines(piece, ask.to, ask.support), salt=salt)
    if ask.what == "lower_tread":
        return read_piece(with_lower_tread(piece, ask.to, ask.support), salt=salt)
    if ask.what == "edge_spot":
        return read_piece(with_edge_spot(piece, ask.support), salt=salt)
    if ask.what == "outside":
        return read_piece(with_outside(piece, ask.to, ask.support), salt=salt)
    if ask.what == "taper":
        return read_piece(with_taper(piece, ask.to, ask.support), salt=salt)
    if ask.what == "lower_rail":
        return read_piece(with_lower_rail(piece, ask.support), salt=salt)
    if ask.what == "cross_piece":
        return read_piece(with_cross_piece(piece, ask.support), salt=salt)
    document = write_piece(piece)
    if ask.what == "outline":
        document["top"]["outline"] = _outline(piece, ask.to)
        if ask.to == "drawn":
            outline: Outline = Drawn.model_validate(document["top"]["outline"])
            for _, slab in piece.slab_legs():
                outline = with_straight_end(outline, slab.end)
            document["top"]["outline"] = outline.model_dump(mode="json")
        return read_piece(document, salt=salt)
    if not 0 <= ask.support < len(piece.supports):
        do = "Choose a set of legs there is."
        raise BadInput(Fault("support", str(ask.support), f"0 to {len(piece.supports) - 1}", do))
    model = piece.supports[ask.support]
    if not isinstance(model, StakedLegs):
        do = "Choose a set of legs that are set into the top."
        raise BadInput(Fault("support", str(ask.support), "a set of staked legs", do))
    stance = stand(piece)
    legs = [leg for leg in stance.legs if leg.support == ask.support]
    support = document["supports"][ask.support]
    if ask.what == "spot":
        support["placement"] = _one_more(model)
    elif ask.what == "placement":
        support["placement"] = _placement(piece, legs, ask.to)
        if model.scope == "each":
            return _angles_along(model, read_piece(document, salt=salt), ask.support)
    elif ask.what == "angle":
        leg = next((leg for leg in legs if leg.number == ask.leg), legs[0])
        index = spec_index(model, leg.index, leg.pair)
        support["angles"][index] = _angle(piece, stance, leg, ask.to, ask.measured_from)
    elif ask.what == "scope":
        _share(piece, stance, legs, ask, model, support)
    elif ask.what == "belly":
        support["leg"]["belly"] = with_belly(model, ask.to)
    elif ask.what == "peg":
        support["joint"] = with_peg(model, ask.to)
    else:
        support["joint"] = _joint(piece, model, ask.to)
    return read_piece(document, salt=salt)


def _angles_along(was: StakedLegs, piece: Piece, index: int) -> Piece:
    """The piece laid out another way, each leg with the angle it had: they go by the legs' order."""
    held = {id: was.angles[min(k, len(was.angles) - 1)] for k, id in enumerate(leg_ids(was))}
    document = write_piece(piece)
    support = document["supports"][index]
    ids = leg_ids(piece.supports[index])
    support["angles"] = [held.get(id, was.angles[-1]).model_dump() for id in ids]
    return read_piece(document)


def _outline(piece: Piece, kind: str) -> dict[str, Any]:
    """An outline of about the same size; the rounded triangle as wide as the top was deep."""
    a, b = extent(piece.top.outline)
    made: dict[str, dict[str, Any]] = {
        "round": {"diameter": 2 * min(a, b)},
        "oval": {"length": 2 * a, "width": 2 * b},
        "rectangle": {"length": 2 * a, "width": 2 * b},
        "rounded_triangle": {"side": 1.4 * b, "arc": 1.7 * b},
        "d": {"length": 2 * a, "width": 2 * b, "straight": 0.4 * b},
        "shield": {"length": 2 * a, "width": 2 * b, "bow": 0.12 * b, "corner": 0.25 * b},
        "drawn": {"corners": _corners(piece.top.outline), "smooth": piece.top.outline.kind != "rectangle"},
    }
    return {"kind": kind, **made.get(kind, {})}


def _corners(outline: Outline) -> list[dict[str, float]]:
    """Few enough corners of an outline to be drawn over by hand."""
    ring = points(outline)
    step = max(1, len(ring) // MOST_CORNERS)
    return [{"x": round(x, 1), "y": round(y, 1)} for x, y in ring[::step]]


def _placement(piece: Piece, legs: list[LegStance], way: str) -> dict[str, Any]:
    """Laid out another way, as near to where the legs stand as that way can say."""
    radius = sum(math.hypot(*leg.place.at) for leg in legs) / len(legs)
    x, y = legs[0].place.at
    first = deg.signed(deg.atan2(y, x))
    ids = [leg.id for leg in legs]
    a, b = extent(piece.top.outline)
    across = sum(abs(leg.place.at[0]) for leg in legs) / len(legs)
    back = sum(abs(leg.place.at[1]) for leg in legs) / len(legs)
    made: dict[str, dict[str, Any]] = {
        "circle": {"count": max(3, len(legs)), "radius": radius, "first": first, "legs": ids},
        "triangle": {"side": radius * math.sqrt(3.0), "first": first, "legs": ids},
        "insets": {
            "from_ends": max(NEAREST_MM, a - across),
            "from_edges": max(NEAREST_MM, b - back),
            "legs": _from_front_left(legs),
        },
        "free": {"spots": _spots(legs)},
    }
    return {"way": way, **made.get(way, {})}


def _one_more(model: StakedLegs) -> dict[str, Any]:
    """The legs put down freely, and one more on the front-back line, behind those that stand there."""
    if not isinstance(model.placement, Free):
        do = "Choose to put them down freely first."
        raise BadInput(Fault("restate.what", "spot", "legs that are put down freely", do))
    made: dict[str, Any] = model.placement.model_dump(mode="json")
    there = {round(spot.y) for spot in model.placement.spots if abs(spot.x) < SPOT_STEP_MM}
    y = next(
        y
        for y in count(SPOT_STEP_MM, SPOT_STEP_MM)
        if all(abs(y - other) >= SPOT_STEP_MM for other in there)
    )
    made["spots"] = [*made["spots"], {"x": 0.0, "y": float(y), "mirror": "none"}]
    return made


def _spots(legs: list[LegStance]) -> list[dict[str, Any]]:
    """One spot a leg, or one for two legs that mirror each other side to side; every leg keeps its id."""
    left = list(legs)
    made: list[dict[str, Any]] = []
    while left:
        leg = left.pop(0)
        x, y = leg.place.at
        mate = next((p for p in left if _mirrored(p.place.at, leg.place.at)), None)
        if mate is not None and abs(x) > 1e-6:
            left.remove(mate)
            ids = [leg.id, mate.id] if x > 0 else [mate.id, leg.id]
            made.append({"x": abs(x), "y": y, "mirror": "sides", "legs": ids})
        else:
            made.append({"x": x, "y": y, "mirror": "none", "legs": [leg.id]})
    return made


def _mirrored(a: Flat, b: Flat) -> bool:
    return abs(a[0] + b[0]) < 1e-6 and abs(a[1] - b[1]) < 1e-6


def _from_front_left(legs: list[LegStance]) -> list[str]:
    """The legs' ids in the order of the corners they are nearest to, the front left one first."""
    turns = [((deg.atan2(leg.place.at[1], leg.place.at[0]) - 180.0) % 360.0, leg.id) for leg in legs]
    return [id for _, id in sorted(turns)]


def _angle(piece: Piece, stance: Stance, leg: LegStance, by: str, line: str) -> dict[str, Any]:
    """The lean a leg has now, written in another way."""
    lean = leg.boring
    if by == "splay_rake":
        x, y = leg.place.at
        return {"by": by, "splay": lean.splay * outward(x), "rake": lean.rake * outward(y)}
    if by == "footprint":
        return {"by": by, **_footprint(piece, stance, leg)}
    if by != "resultant":
        return {"by": by}
    bearing = lean.bearing or 0.0
    x, y = leg.place.at
    ring = support_of(piece, leg).placement.way in ("circle", "triangle")
    line = line or ("out" if ring else "side")
    # Into the outward quarter: an inward lean comes out past 90 degrees.
    folded = deg.atan2(deg.sin(bearing) * outward(y), deg.cos(bearing) * outward(x))
    sightlines = {
        "out": deg.signed(bearing - deg.atan2(y, x)),
        "side": deg.signed(folded),
        "centre": deg.signed(90.0 - folded),
        "bearing": bearing,
    }
    sightline = sightlines.get(line, 0.0) if lean.bearing is not None else 0.0
    return {"by": by, "resultant": lean.resultant, "sightline": sightline, "measured_from": line}


def _footprint(piece: Piece, stance: Stance, leg: LegStance) -> dict[str, float]:
    """The box, or on a circle the ring, that this leg's cut foot touches now."""
    support = support_of(piece, leg)
    x, y = leg.foot_floor[:2]
    if support.placement.way in ("circle", "triangle"):
        out = math.hypot(x, y)
        u = (x / out, y / out) if out else (1.0, 0.0)
        ring = 2 * (out + foot_reach(support.leg, leg.d, stance.floor, u, leg.exposed))
        return {"width": ring, "depth": ring}
    right, back = (math.copysign(1.0, x), 0.0), (0.0, math.copysign(1.0, y))
    wide = 2 * (abs(x) + foot_reach(support.leg, leg.d, stance.floor, right, leg.exposed))
    deep = 2 * (abs(y) + foot_reach(support.leg, leg.d, stance.floor, back, leg.exposed))
    return {"width": wide, "depth": deep}


def _share(
    piece: Piece,
    stance: Stance,
    legs: list[LegStance],
    ask: Restate,
    model: StakedLegs,
    support: dict[str, Any],
) -> None:
    """Each pair or leg gets an angle of its own, starting from the lean it has now."""
    chosen = [model.angles[spec_index(model, leg.index, leg.pair)] for leg in legs]
    support["scope"] = ask.to
    if ask.to == "alike":
        return
    own: dict[int, dict[str, Any]] = {}
    for leg, spec in zip(legs, chosen, strict=True):
        key = leg.pair if ask.to == "pairs" else leg.index
        line = getattr(spec, "measured_from", "out")
        own.setdefault(key, _angle(piece, stance, leg, spec.by, line))
    support["angles"] = [own[key] for key in sorted(own)]


def _joint(piece: Piece, model: StakedLegs, to: str) -> dict[str, Any]:
    """Another joint of about the same size."""
    old, t = model.joint, piece.top.thickness
    if to == old.way:
        return old.model_dump()
    size = min(max(old.socket, LEAST_TENON_MM), model.leg.at_top)
    made: dict[str, dict[str, Any]] = {
        "through": {"socket": size, "proud": PROUD_MM},
        "blind": {"socket": size, "depth": t * BLIND_SHARE},
        "reamed": {"socket": size, "proud": PROUD_MM},
        "battened": {
            "socket": size,
            "depth": 30.0,
            "batten_width": max(60.0, 2.0 * size),
            "batten_thickness": 40.0,
            "screw": 32.0 + min(0.6 * t, 60.0),
        },
        "dowel_screw": {"into_top": t * BLIND_SHARE},
        "shouldered": {"socket": size, "across": 0.7 * size, "depth": t * BLIND_SHARE},
    }
    return {"way": to, **made.get(to, {})}
