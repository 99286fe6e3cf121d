"""Whole arrangements put in at once: supports of another kind, members, hollows."""

from __future__ import annotations

import math
from typing import Any

from splay.errors import BadInput, Fault, shorten
from splay.piece import (
    ApronedLegs,
    Battened,
    Blind,
    BoardSides,
    MitredFrames,
    Piece,
    PlaneFrames,
    StakedLegs,
    leg_ids,
    read_piece,
    write_piece,
)
from splay.piece.ids import fresh_ids
from splay.piece.starters import starting_support
from splay.stance.body import Body
from splay.stance.outline import extent
from splay.stance.redraw import with_straight_end
from splay.stance.side_taper import joined_to
from splay.stance.staked import LegStance, stand

LEVEL_SHARE = 0.38
"""Stretchers begin at this share of the height (common practice, no source)."""
INTO_APART_MM = 34.0
"""Sockets in a piece across begin this far apart (common practice, no source)."""
STEP_MM = 34.0
"""Levels of two stretchers in one leg begin this far apart, so that their sockets do not meet."""
FOOTREST_DROP_MM = 445.0
"""A footrest feels right about this far below the seat (common practice, no source)."""
HOLLOW_SHARE = 0.2
BELLY_MM = 6.0
CROSS_STEP_MM = 100.0
BOARD_SHARE = 0.65
"""A short board begins as this share of the long one's width (common practice, no source)."""
EDGE_SHARE = 0.05
"""A board's edge begins tapered by this share of its width (common practice, no source)."""
TAPERED_SHARE = 0.6
"""A leg begins tapered to this share of its width; a joint further down it than that leaves no room on its
side (common practice, no source)."""
BELOW_JOINT_MM = 15.0
"""A taper begins this far below the joint (common practice, no source)."""


def with_support(piece: Piece, kind: str, index: int) -> dict[str, Any]:
    """The piece's document with support `index` of another kind; one more where it is the next."""
    document = write_piece(piece)
    a, b = extent(piece.top.outline)
    made = starting_support(kind, 2 * a, 2 * b).model_dump(mode="json")
    if made["kind"] != kind:
        raise BadInput(
            Fault("restate.to", shorten(kind), "a kind of support", "Choose one of the kinds listed.")
        )
    if kind == "slab_leg":
        if any(s.kind == kind for k, s in enumerate(piece.supports) if k != index):
            made["end"] = "right"
        outline = with_straight_end(piece.top.outline, made["end"])
        document["top"]["outline"] = outline.model_dump(mode="json")
    if not 0 <= index <= len(piece.supports):
        do = "Choose a support there is, or the next."
        raise BadInput(Fault("restate.support", str(index), f"0 to {len(piece.supports)}", do))
    changed = document["supports"][index : index + 1]
    document["supports"][index : index + 1] = [made]
    # Legs that went, or that stand elsewhere now, hold none of the members that ran between them.
    if changed and "staked_legs" in (changed[0]["kind"], kind):
        document["members"] = []
    return document


def without(piece: Piece, id: str) -> dict[str, Any]:
    """The piece's document without the support or member of that id, and without the members that ran to
    it; BadInput where nothing has that id, or it is the last support."""
    document = write_piece(piece)
    supports = [one for one in document["supports"] if one["id"] != id]
    gone = {id} if any(one.id == id for one in piece.members) else set()
    if len(supports) < len(document["supports"]):
        gone |= {leg for one in piece.supports if one.id == id for leg in leg_ids(one)}
    elif not gone:
        do = "Choose a support or a member there is."
        raise BadInput(Fault("restate.to", shorten(id), "the id of what there is", do))
    if not supports:
        do = "Change its kind instead, or add another first."
        raise BadInput(Fault("supports", "the last one", "at least one support", do))
    document["supports"] = supports
    kept = []
    for member in document["members"]:
        held = member.get("legs", [end.get("leg", end.get("member")) for end in member.get("ends", [])])
        if member["id"] in gone or gone & set(held):
            gone.add(member["id"])
        else:
            kept.append(member)
    document["members"] = kept
    return document


_ADDED = ("footrest", "rope")
"""What comes to the others in any case."""


def with_members(piece: Piece, to: str, salt: str = "", *, beside: bool = False) -> dict[str, Any]:
    """The piece's document with its members arranged: none, single, side, h, t, cross, triangle, box,
    footrest, rope; `beside` those that are there, or in their place.

    BadInput where the legs do not allow it.
    """
    document = write_piece(piece)
    if to == "none":
        document["members"] = []
        return document
    legs = list(stand(piece).legs)
    low = piece.height * LEVEL_SHARE
    if beside and document["members"]:
        # Clear of the sockets that are there.
        low += 3 * STEP_MM
    ring = sorted(legs, key=lambda leg: math.atan2(leg.socket[1], leg.socket[0]))
    # Those that are there keep what was read of them: new ones are named anew.
    ids = fresh_ids(document, "m", 2, salt)
    makers = {
        "single": lambda: _single(legs, low),
        "side": lambda: _side_piece(legs, low),
        "h": lambda: _h(legs, low, ids),
        "t": lambda: _t(legs, low, ids),
        "cross": lambda: _cross(ring, low, ids[0]),
        "triangle": lambda: _round(ring, low, 3, "a triangle", most=3),
        "box": lambda: _round(ring, low, 4, "a box"),
        "footrest": lambda: [*document["members"], _footrest(piece, legs)],
        "rope": lambda: [*document["members"], _rope(piece, ring)],
    }
    if to not in makers:
        allowed = ", ".join(makers)
        raise BadInput(Fault("restate.to", shorten(to), allowed, "Choose one of these."))
    kept = document["members"] if beside and to not in _ADDED else []
    document["members"] = [*kept, *makers[to]()]
    return document


def _on(leg: LegStance, height: float) -> dict[str, Any]:
    level = {"by": "height", "value": round(height, 1)}
    return {"on": "leg", "leg": leg.id, "level": level}


def _into(id: str) -> dict[str, Any]:
    return {"on": "member", "member": id}


def _stretcher(a: dict[str, Any], b: dict[str, Any], **more: Any) -> dict[str, Any]:
    return {"kind": "stretcher", "ends": [a, b], **more}


def _need(legs: list[LegStance], count: int, what: str) -> None:
    if len(legs) < count:
        raise BadInput(
            Fault(
                "members",
                f"{len(legs)} legs",
                f"{what} wants {count} legs set into the top",
                "Choose another arrangement, or add legs.",
            )
        )


def _single(legs: list[LegStance], low: float) -> list[Any]:
    _need(legs, 2, "a single stretcher")
    return [_stretcher(_on(legs[0], low), _on(legs[1], low))]


def _side_piece(legs: list[LegStance], low: float) -> list[Any]:
    """One side piece alone, between the front and the back leg at the right."""
    right = sorted((leg for leg in legs if leg.socket[0] > 1e-6), key=lambda leg: leg.socket[1])
    _need(right, 2, "a side piece at the right")
    return [_stretcher(_on(right[0], low), _on(right[-1], low))]


def _cross(ring: list[LegStance], low: float, id: str) -> list[Any]:
    """One right across from leg to leg, thicker, and a piece from every other leg into it, about its
    middle, so far apart that their sockets do not meet."""
    _need(ring, 4, "a piece across with others into it")
    across, n = ring[len(ring) // 2], len(ring)
    long = math.dist(ring[0].socket, across.socket)
    made = [_stretcher(_on(ring[0], low), _on(across, low), diameter=32, id=id)]
    others = [leg for leg in ring[1:] if leg is not across]
    # Spread in the order they come along it, nearest to its first end first.
    way = [b - a for a, b in zip(ring[0].socket, across.socket, strict=True)]
    others.sort(key=lambda leg: sum(w * p for w, p in zip(way, leg.socket, strict=True)))
    for k, leg in enumerate(others):
        share = 0.5 + (k - (n - 3) / 2) * INTO_APART_MM / long
        into = {**_into(id), "share": round(share, 3)}
        made.append(_stretcher(_on(leg, low), into, diameter=22, tenon=14, depth=12))
    return made


def _h(legs: list[LegStance], low: float, ids: list[str]) -> list[Any]:
    """A piece on each side, and one between their middles."""
    _need(legs, 4, "an H")
    pairs = []
    for side in (-1, 1):
        mine = sorted((leg for leg in legs if leg.socket[0] * side > 1e-6), key=lambda leg: leg.socket[1])
        if len(mine) < 2:
            _need([], 4, "an H with two legs on each side")
        pairs.append((mine[0], mine[-1]))
    sides = [
        _stretcher(_on(a, low), _on(b, low), diameter=26, id=id)
        for (a, b), id in zip(pairs, ids, strict=True)
    ]
    middle = _stretcher(_into(ids[0]), _into(ids[1]), depth=15, tenon=14)
    return [*sides, middle]


def _t(legs: list[LegStance], low: float, ids: list[str]) -> list[Any]:
    """One between the two legs that stand side by side, one from its middle to the leg over against them.

    Of three legs those two may stand in front or behind; of more the two foremost are taken.
    """
    _need(legs, 3, "a T")
    mine = sorted(legs, key=lambda leg: (round(leg.socket[1], 3), leg.socket[0]))
    stem = mine[-1]
    if len(mine) == 3 and mine[2].socket[1] - mine[1].socket[1] < mine[1].socket[1] - mine[0].socket[1]:
        stem = mine[0]
    bar = sorted((leg for leg in mine if leg is not stem), key=lambda leg: round(leg.socket[1], 3))[:2]
    left, right = sorted(bar, key=lambda leg: leg.socket[0])
    across = _stretcher(_on(left, low), _on(right, low), diameter=26, id=ids[0])
    back = _stretcher(_into(ids[0]), _on(stem, low), depth=15, tenon=14)
    return [across, back]


def _round(ring: list[LegStance], low: float, least: int, what: str, most: int | None = None) -> list[Any]:
    """From each leg to the next, at levels that keep the sockets in one leg apart."""
    _need(ring, least, what)
    if most is not None and len(ring) > most:
        do = "Choose another arrangement: a box runs round any number from four on."
        raise BadInput(Fault("members", f"{len(ring)} legs", f"{what} wants {most} legs, no more", do))
    n = len(ring)
    made = []
    for k, leg in enumerate(ring):
        step = 2 if n % 2 == 1 and k == n - 1 else k % 2
        height = low + STEP_MM * step
        made.append(_stretcher(_on(leg, height), _on(ring[(k + 1) % n], height)))
    return made


def _footrest(piece: Piece, legs: list[LegStance]) -> dict[str, Any]:
    """Between the two foremost legs, placed by its drop from the seat."""
    _need(legs, 2, "a footrest")
    front = sorted(legs, key=lambda leg: (round(leg.socket[1], 3), leg.socket[0]))[:2]
    # Below what goes through the legs at that height already.
    drop = min(FOOTREST_DROP_MM + STEP_MM * len(piece.members), 0.7 * piece.height)
    ends = [{**_on(leg, 1.0), "level": {"by": "drop", "value": drop}} for leg in front]
    return _stretcher(ends[0], ends[1], name="footrest", diameter=28)


def _rope(piece: Piece, ring: list[LegStance]) -> dict[str, Any]:
    _need(ring, 2, "a rope")
    drop = min(FOOTREST_DROP_MM + STEP_MM * len(piece.members), 0.65 * piece.height)
    level = {"by": "drop", "value": drop}
    legs = [leg.id for leg in ring]
    return {"kind": "rope", "name": "foot rope", "legs": legs, "level": level}


def with_hollow(piece: Piece, to: str) -> dict[str, Any]:
    """The piece's document with another hollow: none, trough or dish, sized for the top."""
    document = write_piece(piece)
    a, b = extent(piece.top.outline)
    deep = HOLLOW_SHARE * piece.top.thickness
    made: dict[str, dict[str, Any] | None] = {
        "none": None,
        "trough": {"way": "trough", "across": "width", "chord": 1.7 * b, "depth": deep},
        "dish": {"way": "dish", "length": 1.6 * a, "width": 1.6 * b, "depth": deep},
    }
    if to not in made:
        raise BadInput(Fault("restate.to", shorten(to), ", ".join(made), "Choose one of these."))
    document["top"]["hollow"] = made[to]
    return document


def with_belly(model: StakedLegs, to: str) -> dict[str, Any] | None:
    """A leg's belly: none, or a little thicker than its thicker end."""
    size = max(model.leg.at_top, model.leg.at_foot) + BELLY_MM
    return {"at": 0.4, "size": size} if to == "belly" else None


def with_peg(model: StakedLegs, to: str) -> dict[str, Any]:
    """The joint with a peg, or without; BadInput for a joint that takes none."""
    joint = model.joint
    if not isinstance(joint, Blind | Battened):
        do = "Choose a blind joint or one in battens, then peg it."
        raise BadInput(Fault("restate.to", joint.way, "a joint with a blind tenon", do))
    made = joint.model_dump()
    side = {"entry": 0.33 * joint.batten_thickness, "angle": 8.0} if isinstance(joint, Battened) else None
    made["peg"] = (side or {"entry": 5.0, "angle": 0.0}) if to == "peg" else None
    return made


def with_taper(piece: Piece, to: str, index: int) -> dict[str, Any]:
    """The piece's document with the legs of support `index` tapered below their joints, or straight."""
    document = write_piece(piece)
    support = piece.supports[index] if 0 <= index < len(piece.supports) else None
    if to not in ("on", "off"):
        raise BadInput(Fault("restate.to", shorten(to), "on, off", "Choose one of these."))
    if isinstance(support, BoardSides):
        off = float(max(1, round(EDGE_SHARE * support.width)))
        document["supports"][index]["taper"] = {"off": off} if to == "on" else None
        return document
    if not isinstance(support, Squared):
        do = "Choose frames, board sides or legs with aprons."
        raise BadInput(Fault("restate.support", str(index), "a support with square legs", do))
    straight = {**document["supports"][index], "taper": None}
    document["supports"][index] = straight
    if to == "on":
        bodies = stand(read_piece(document)).bodies
        leg = next(body for body in bodies if body.support == index and body.stands)
        straight["taper"] = _tapered(support, leg, [body for body in bodies if body is not leg])
    return document


Squared = PlaneFrames | MitredFrames | ApronedLegs


def _tapered(support: Squared, leg: Body, others: list[Body]) -> dict[str, Any]:
    """Inward below the joints where there is room for that, else on the outer edge."""
    first, last = leg.at(0.0, 0.0)
    across, at = leg.pose.across, leg.pose.origin
    inner = (1 if across[0] * at[0] + across[1] * at[1] < 0.0 else -1, 0)
    low = max(joined_to(leg, side, body) for body in others for side in (inner, (0, -1)))
    inward = low - first < TAPERED_SHARE * (last - first)
    begins = max(0.0, low - first if inward else 0.0) + BELOW_JOINT_MM
    way = ("inner" if isinstance(support, MitredFrames) else "inside") if inward else "outer"
    return {
        "sides": way,
        "begins": float(5 * math.ceil(begins / 5)),
        "foot": float(round(TAPERED_SHARE * leg.width)),
    }


def boards_asked(piece: Piece, to: str, index: int) -> BoardSides:
    """The board sides that something is to be put to (`to` on) or taken from (off).

    BadInput where support `index` is none, or `to` is neither.
    """
    support = piece.supports[index] if 0 <= index < len(piece.supports) else None
    if not isinstance(support, BoardSides):
        do = "Choose board sides."
        raise BadInput(Fault("restate.support", str(index), "leaning board sides", do))
    if to not in ("on", "off"):
        raise BadInput(Fault("restate.to", shorten(to), "on, off", "Choose one of these."))
    return support


def with_lower_tread(piece: Piece, to: str, index: int) -> dict[str, Any]:
    """The piece's document with a second tread in front of the top on support `index`, its steps up alike,
    two rails under it; or with the top alone."""
    document = write_piece(piece)
    support = boards_asked(piece, to, index)
    made = document["supports"][index]
    cut, whole = made["cut_out"], support.front_back
    made["lower"] = _lower_tread(piece, support) if to == "on" else None
    if cut is not None:
        # What is cut out stays the same share of the side.
        now = support.width + (made["lower"]["board"] if made["lower"] is not None else 0.0)
        cut["width"] = max(20.0, float(5 * round(cut["width"] * now / (whole[1] - whole[0]) / 5)))
    return document


def _lower_tread(piece: Piece, support: BoardSides) -> dict[str, Any]:
    thick, board = piece.top.thickness, float(10 * round(BOARD_SHARE * support.width / 10))
    under = piece.underfoot.thickness if piece.underfoot is not None else 0.0
    floor = stand(piece).floor
    drop = max(20.0, float(round((floor.h0_mm + under - thick) / 2)))
    rail = support.rails[0].model_dump(mode="json") if support.rails else {"depth": 40.0, "thickness": 22.0}
    rail |= {"drop": 0.0, "lies": "upright"}
    aside = float(round(board / 4))
    return {
        "drop": drop,
        "board": board,
        "thickness": thick,
        "rails": [{**rail, "offset": -aside}, {**rail, "offset": aside}],
    }


def with_lower_rail(piece: Piece, index: int) -> dict[str, Any]:
    """The piece's document with one more rail under the lower tread of support `index`, like its last."""
    document = write_piece(piece)
    support = boards_asked(piece, "on", index)
    if support.lower is None:
        do = "Put a second tread in first."
        raise BadInput(Fault("restate.support", str(index), "boards with a lower tread", do))
    rails = document["supports"][index]["lower"]["rails"]
    last = rails[-1] if rails else _lower_tread(piece, support)["rails"][0]
    document["supports"][index]["lower"]["rails"] = [*rails, last]
    return document


def with_cross_piece(piece: Piece, index: int) -> dict[str, Any]:
    """The piece's document with one more cross-piece or rail on support `index`, below its last."""
    document = write_piece(piece)
    support = document["supports"][index] if 0 <= index < len(piece.supports) else {}
    name = {"plane_frames": "cross", "board_sides": "rails"}.get(support.get("kind", ""), "")
    if not name:
        do = "Choose leaning frames or board sides."
        raise BadInput(Fault("restate.support", str(index), "a support with cross-pieces", do))
    last = support[name][-1] if support[name] else {"drop": -CROSS_STEP_MM, "thickness": 22.0}
    support[name] = [*support[name], {**last, "drop": last["drop"] + CROSS_STEP_MM}]
    return document
