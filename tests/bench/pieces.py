"""Random pieces for the bench: every kind of joint, leg, lean, seat and stretcher that can be built."""

from __future__ import annotations

import random
from typing import Any

from splay.errors import BadInput, CannotBuild
from splay.piece import Piece, read_piece, write_piece
from splay.piece.starters import STARTS, starter
from splay.plan import Plan, plan
from splay.shop import Shop, read_shop, workbench, write_shop
from splay.stance.holding import across_grain

FRAMED = ("slab", "plane_frames", "crossed", "board_sides", "aproned")


def random_shop(rng: random.Random) -> Shop:
    """Every tool, its scale read in one of the ways scales are read, its reach long or short."""
    document = write_shop(workbench())
    for tool in document["tools"]:
        for name in ("scale", "tilt"):
            if name in tool and rng.random() < 0.6:
                at, counts = rng.choice(((0, "up"), (90, "down"), (90, "up"), (180, "down")))
                tool[name] |= {"at_square": at, "counts": counts}
                if tool["kind"] == "digital_gauge":
                    tool[name] |= {"at_square": rng.choice((0, 90)), "counts": rng.choice(("up", "down"))}
                    if tool[name]["at_square"] == 0:
                        tool[name]["counts"] = "up"
            if name in tool and rng.random() < 0.4:
                tool[name]["reach"] = rng.choice((8, 12, 20, 45))
        if tool["kind"] == "tenon_cutter":
            # A drawer of rounding cutters, told by nothing that is drawn after it.
            many = int(tool["bore"]) % 3
            document["mouth_bits"] = [{"radius": r} for r in (5.0, 9.5, 12.7)[:many]]
        if tool["kind"] == "ramp":
            tool["spacer"] = rng.choice(("plumb_base", "plumb_ramp", "square_ramp", "bar"))
            tool["base"] = rng.choice((220, 300, 415))
    return read_shop(document)


def random_piece(rng: random.Random) -> Piece:
    """A staked piece most of the time, else a framed one with its sizes varied."""
    return framed(rng) if rng.random() < 0.25 else _staked(rng)


def buildable(rng: random.Random) -> tuple[Piece, Plan, Shop]:
    """The next random piece that can be planned at all, in a random shop."""
    while True:
        try:
            piece, shop = random_piece(rng), random_shop(rng)
            return piece, plan(piece, shop), shop
        except (BadInput, CannotBuild):
            continue


def framed(rng: random.Random, name: str = "") -> Piece:
    name = name or rng.choice(FRAMED)
    document = write_piece(starter(name))
    support = document["supports"][0]
    support["splay"] = rng.uniform(0, 18)
    if "rake" in support:
        support["rake"] = rng.choice((0.0, rng.uniform(2, 15)))
    if "true_section" in support:
        support["true_section"] = rng.random() < 0.5
    if "held" in support and rng.random() < 0.5:
        support["held"] = {
            "slant": rng.choice((0.0, 0.0, 12.0, 18.0)),
            "count": rng.choice((1, 2, 3)),
            "from_ends": rng.uniform(40, 80),
            "bite": rng.uniform(9, 18),
            "length": rng.choice((20, 30, 40)),
            "moves": rng.choice((0.0, 3.0, 6.0)),
        }
        if rng.random() < 0.4:
            support["held"] = {
                "way": "buttons",
                "drop": rng.uniform(8, 16),
                "groove": rng.uniform(5, 10),
                "deep": rng.uniform(7, 12),
                "count": rng.choice((1, 2, 3)),
                "from_ends": rng.uniform(40, 90),
                "moves": rng.choice((0.0, 3.0, 6.0)),
            }
        document["top"]["grain"] = rng.choice((0.0, 90.0, 30.0))
    if name == "board_sides":
        _boards(rng, document)
    elif "taper" in support and rng.random() < 0.5:
        sides = ("inner", "outer", "both") if name == "crossed" else ("inside", "inner", "outer", "all")
        support["taper"] = {
            "sides": rng.choice(sides),
            "begins": rng.uniform(40, 160),
            "foot": rng.uniform(16, 30),
        }
    if name == "slab":
        _grown(rng, document)
    if name == "crossed":
        support |= {
            "rail": rng.uniform(40, 65),
            "leg": rng.uniform(40, 65),
            "crossing": rng.uniform(60, 120),
        }
    if rng.random() < 0.4:
        document["lean"] = {"fall": rng.uniform(1, 4), "toward": 90}
    if rng.random() < 0.3:
        document["top"]["hand_holds"] = [
            {
                "x": rng.uniform(-20, 20), "y": rng.uniform(-20, 20), "length": rng.uniform(30, 110),
                "width": rng.uniform(14, 30), "turn": rng.choice((0.0, 90.0, rng.uniform(-90, 90))),
            }
        ]  # fmt: skip
    _two_boards(random.Random(str(support)), name, document)
    _arcs(random.Random(str(support) + "arc"), document)
    if name in ("plane_frames", "board_sides") and random.Random(str(support) + "driven").random() < 0.4:
        support["dowels"] |= {"driven": True, "depth": random.Random(str(support)).uniform(20, 45)}
    return read_piece(document)


def _two_boards(rng: random.Random, name: str, document: dict[str, Any]) -> None:
    """A top in two boards with a gap, for some of those that are held to what lies under them."""
    if name == "slab" or rng.random() < 0.7:
        return
    made = read_piece(document)
    gap = rng.uniform(3, 15)
    wide = across_grain(made.top.outline, made.top.grain) - gap
    share = rng.choice((0.5, rng.uniform(0.35, 0.65)))
    document["top"] |= {
        "gap": {"width": gap, "stays": rng.choice(("middle", "outer", "inner"))},
        "boards": [wide * share, wide * (1 - share)],
        "hand_holds": [],
    }


def _arcs(rng: random.Random, document: dict[str, Any]) -> None:
    """Arcs in some of the pieces between the legs, their upper edges straight or following."""
    support = document["supports"][0]
    if "apron" in support and rng.random() < 0.35:
        support["arch"] = rng.uniform(5, 0.6 * support["apron"])
    for piece in (*support.get("cross", ()), *support.get("rails", ())):
        if piece["lies"] == "upright" and rng.random() < 0.35:
            piece["arc"] = {"rise": rng.uniform(5, 60), "upper": rng.choice(("straight", "arc"))}
            piece["depth"] = rng.uniform(20, 45)


def _boards(rng: random.Random, document: dict[str, Any]) -> None:
    """Sides with tapered edges, or stepped: a lower tread on short boards, rails under it, all shaped."""
    support = document["supports"][0]
    if rng.random() < 0.5:
        support["taper"] = {
            "sides": rng.choice(("front", "back", "both")),
            "narrower": rng.choice(("top", "foot")),
            "off": rng.uniform(4, 20),
        }
    if rng.random() < 0.4:
        support["splines"] = {
            "count": rng.choice((1, 2, 3)),
            "width": rng.uniform(20, 45),
            "depth": rng.uniform(15, 40),
            "from_edges": rng.uniform(30, 60),
            "proud": rng.choice((0.0, 3.0)),
        }
    if rng.random() < 0.6:
        document["height"] = rng.uniform(360, 460)
        depth, board = rng.uniform(35, 50), rng.uniform(120, 180)
        support["lower"] = {
            "drop": rng.uniform(130, 210),
            "board": board,
            "thickness": rng.uniform(18, 28),
            "past_front": rng.uniform(0, 25),
            "past_ends": rng.uniform(0, 30),
            "upper_edge": {"way": rng.choice(("square", "round_over", "chamfer")), "size": 6.0},
            "rails": [
                {"drop": 0.0, "depth": depth, "thickness": 24.0, "offset": sign * board / 4}
                for sign in rng.choice(((-1, 1), (0.4,)))
            ],
        }
        support["cut_out"] = rng.choice(
            (None, {"width": rng.uniform(60, 220), "height": rng.uniform(20, 50)})
        )


def _grown(rng: random.Random, document: dict[str, Any]) -> None:
    """A live edge: the top drawn, its end straight at the leg, the leg's own edges below it; dowels inside
    the mitre or from outside."""
    support, outline = document["supports"][0], document["top"]["outline"]
    end = support["end"] = rng.choice(("left", "right"))
    if rng.random() < 0.6:
        a, b, sign = outline["length"] / 2, outline["width"] / 2, -1 if end == "left" else 1
        front, back = (b * rng.uniform(0.7, 1.05) for _ in range(2))
        document["top"]["outline"] = {
            "kind": "drawn",
            "smooth": rng.random() < 0.5,
            "corners": [
                {"x": sign * a, "y": -front, "sharp": True},
                *({"x": sign * a * k, "y": -b * rng.uniform(0.9, 1.1)} for k in (0.5, -0.1, -0.9)),
                *({"x": sign * a * k, "y": b * rng.uniform(0.9, 1.1)} for k in (-0.9, -0.1, 0.5)),
                {"x": sign * a, "y": back, "sharp": True},
            ],
        }
    if rng.random() < 0.7:
        support["edges"] = [
            {"down": down, "front": b_ * rng.uniform(0.6, 1.1), "back": b_ * rng.uniform(0.6, 1.1)}
            for down, b_ in ((rng.uniform(40, 120), 150.0), (rng.uniform(180, 300), 150.0))
        ]
    if rng.random() < 0.5:
        level, plumb = rng.choice(((2, 3), (1, 2), (0, 4), (3, 0), (2, 2)))
        support["outside"] = {"level": level, "plumb": plumb, "past": rng.uniform(20, 60)}


def _wedge(rng: random.Random) -> dict[str, Any] | None:
    if rng.random() < 0.2:
        return None
    return {
        "lies": rng.choice(("across_grain", "to_middle")),
        "taper": rng.uniform(4, 9),
        "edge": rng.uniform(0.5, 1.4),
        "over": rng.choice((0.0, 0.4)),
    }


def _angles(rng: random.Random) -> dict[str, Any]:
    kind = rng.choice(("splay_rake", "splay_rake", "out", "bearing", "side", "as_wide", "zero"))
    if kind == "splay_rake":
        sign = rng.choice((1, 1, 1, -1))
        return {
            "by": "splay_rake",
            "splay": sign * rng.uniform(0, 18),
            "rake": rng.choice((1, 1, sign, -1)) * rng.choice((0, rng.uniform(1, 16))),
        }
    if kind == "zero":
        return {"by": "resultant", "resultant": 0}
    if kind == "as_wide":
        return {"by": "as_wide"}
    return {
        "by": "resultant",
        "resultant": rng.uniform(1, 22),
        "sightline": rng.choice((0, rng.uniform(-80, 80), rng.uniform(100, 250))),
        "measured_from": kind,
    }


def _placement(rng: random.Random) -> dict[str, Any]:
    way = rng.choice(("circle", "triangle", "insets", "insets", "free"))
    first = rng.choice((90, 45, 0, rng.uniform(-180, 180)))
    if way == "circle":
        return {
            "way": "circle",
            "count": rng.choice((3, 4, 4, 5, 6)),
            "radius": rng.uniform(70, 120),
            "first": first,
        }
    if way == "triangle":
        return {"way": "triangle", "side": rng.uniform(130, 200), "first": first}
    if way == "insets":
        return {"way": "insets", "from_ends": rng.uniform(50, 100), "from_edges": rng.uniform(45, 80)}
    spots = [
        {"x": rng.uniform(60, 150), "y": rng.uniform(50, 100), "mirror": rng.choice(("both", "sides"))},
        {"x": rng.choice((0, 40)), "y": -rng.uniform(60, 100), "mirror": rng.choice(("none", "sides"))},
    ]
    return {"way": "free", "spots": spots}


def _joint(rng: random.Random) -> dict[str, Any]:
    socket = rng.uniform(22, 30)
    # Of its own chance, so that the pieces stay those they were before there were pegs.
    own = random.Random(socket)
    peg = {"diameter": own.choice((6, 8)), "entry": own.uniform(0, 12), "margin": own.uniform(3, 7),
           "angle": own.choice((0, own.uniform(2, 14)))}  # fmt: skip
    made: dict[str, Any] = rng.choice(
        (
            {"way": "through", "socket": socket, "proud": rng.choice((0, 6)), "wedge": _wedge(rng)},
            {"way": "through", "socket": socket, "proud": 4, "bored_from": "upper"},
            {"way": "blind", "socket": socket, "depth": rng.uniform(20, 30)},
            {"way": "reamed", "socket": socket, "included": rng.uniform(4, 10), "proud": 3},
            {"way": "shouldered", "socket": 26, "across": 22, "depth": 30},
            {"way": "dowel_screw", "socket": 9, "core": 6, "length": 80, "into_top": 28},
            {
                "way": "battened", "socket": 25, "depth": 26, "batten_width": 62, "batten_thickness": 42,
                "end": 36, "screw": 52, "counterbore": 10,
            },
        )
    )  # fmt: skip
    if made["way"] in ("blind", "battened") and own.random() < 0.6:
        made["peg"] = {**peg, "entry": peg["entry"] + (11 if made["way"] == "battened" else 0)}
        made["peg"]["place"] = own.choice(("drawn", "through_socket"))
    return made


def _leg(rng: random.Random, socket: float) -> dict[str, Any]:
    top = max(socket + 2, rng.uniform(32, 46))
    leg: dict[str, Any] = {
        "section": rng.choice(("round", "round", "square", "octagon")),
        "at_top": top,
        "at_foot": rng.choice((top, rng.uniform(26, 48))),
        "facing": rng.choice(("front", "sightline")),
        "made_by": rng.choice(("turned", "shaved")),
        "tenon_by": rng.choice(("hand", "lathe", "cutter")),
    }
    # Of its own chance, so that the pieces stay those they were before there were these ways.
    own = random.Random(top)
    if own.random() < 0.4:
        leg["tenon_by"] = own.choice(("sawn", "router", "knife"))
    if rng.random() < 0.25:
        leg["belly"] = {"at": rng.uniform(0.25, 0.6), "size": rng.uniform(44, 56)}
    return leg


def _members(rng: random.Random, legs: int) -> list[dict[str, Any]]:
    if rng.random() < 0.35:
        return []

    def on(leg: int) -> dict[str, Any]:
        level = {"by": rng.choice(("height", "along")), "value": rng.uniform(130, 230)}
        return {"on": "leg", "leg": leg, "level": level}

    size = {"diameter": rng.uniform(20, 28), "tenon": rng.uniform(12, 17), "depth": rng.uniform(14, 19)}
    if rng.random() < 0.15:
        level = {"by": "height", "value": rng.uniform(130, 200)}
        return [{"kind": "rope", "legs": list(range(1, legs + 1)), "level": level, "diameter": 10}]
    # Of its own chance, as above.
    own = random.Random(size["diameter"])
    flat = own.random() < 0.5
    made: list[dict[str, Any]] = [{"kind": "stretcher", "ends": [on(1), on(legs)], **size}]
    if legs >= 4:
        made.append({"kind": "stretcher", "ends": [on(2), on(3)], **size})
        middle = [{"on": "member", "member": m, "share": rng.choice((0.5, 0.35))} for m in (1, 2)]
        made.append({"kind": "stretcher", "ends": middle, **size, "depth": 10, "tenon": 12})
    else:
        made.append(
            {"kind": "stretcher", "ends": [on(2), {"on": "member", "member": 1}], **size, "depth": 11}
        )
    for one in made if flat else ():
        one["section"] = own.choice(("octagon", "square", "round"))
    return made


def _staked(rng: random.Random) -> Piece:
    placement, joint = _placement(rng), _joint(rng)
    ring = placement["way"] in ("circle", "triangle")
    outline: dict[str, Any] = {"kind": "rectangle", "length": 430, "width": 330}
    if ring:
        outline = rng.choice(
            (
                {"kind": "round", "diameter": 350},
                {"kind": "rounded_triangle", "side": 260, "arc": 320},
                {"kind": "rectangle", "length": 360, "width": 340},
            )
        )
    top: dict[str, Any] = {
        "outline": outline,
        "thickness": rng.uniform(38, 52),
        "grain": rng.choice((0, 90, rng.uniform(0, 180))),
    }
    if rng.random() < 0.3:
        top["hollow"] = rng.choice(
            (
                {
                    "way": "trough",
                    "across": rng.choice(("length", "width")),
                    "chord": 260,
                    "depth": rng.uniform(4, 9),
                },
                {"way": "dish", "length": 260, "width": 240, "depth": rng.uniform(4, 9)},
            )
        )
    document: dict[str, Any] = {
        # As version 1 wrote it: members name legs by their numbers.
        "version": 1,
        "name": "From the bench",
        "height": rng.uniform(400, 520),
        "top": top,
        "supports": [
            {
                "kind": "staked_legs",
                "placement": placement,
                "scope": rng.choice(("alike", "alike", "pairs")),
                "angles": [_angles(rng) for _ in range(rng.choice((1, 1, 2)))],
                "leg": _leg(rng, joint["socket"]),
                "joint": joint,
                "allowance": rng.uniform(15, 30),
            }
        ],
        "members": [],
    }
    if rng.random() < 0.35:
        document["lean"] = {"fall": rng.uniform(1, 6), "toward": rng.choice((90, 90, rng.uniform(0, 360)))}
    count = {"insets": 4, "triangle": 3}.get(placement["way"], placement.get("count", 0))
    if count >= 3:
        document["members"] = _members(rng, count)
    # Told by where the rest has come to: what is drawn for it moves nothing that is drawn after.
    own = random.Random(document["height"])
    if own.random() < 0.15 and joint.get("bored_from") != "upper":
        top["left_on"] = own.uniform(1, 8)
    if "hollow" in top and own.random() < 0.4:
        top["hollow"]["strips"] = True
        top["boards"] = [own.uniform(40, 120) for _ in range(own.choice((1, 3, 4)))]
        top["grain"] = own.choice((0, 90, 180, top["grain"]))
    if own.random() < 0.3:
        document["supports"][0]["leg"] |= {"neck": "cove", "cove": own.uniform(3, 14), "eased": True}
    if own.random() < 0.15:
        document["supports"][0]["leg"]["sticks"] = [_reused(own) for _ in range(own.choice((1, 3, 6)))]
        if document["supports"][0]["leg"]["section"] == "round":
            _bend(own, document["supports"][0]["leg"]["sticks"])
    return read_piece(document)


def _bend(rng: random.Random, sticks: list[dict[str, Any]]) -> None:
    """Some of the sticks are bent, a little or a lot, any way."""
    for stick in sticks:
        if rng.random() < 0.5:
            stick["bend"] = {
                "rise": rng.uniform(2, 25),
                "at": stick["length"] * rng.uniform(0.3, 0.7),
                "faces": rng.choice(("outward", "inward", "left", "right")),
            }


def _reused(rng: random.Random) -> dict[str, Any]:
    """A stick with a past: old holes where they please."""
    starts = sorted(rng.uniform(0, 480) for _ in range(rng.choice((0, 1, 1, 2, 3))))
    old = [{"nearer": one, "farther": one + rng.uniform(8, 45)} for one in starts]
    return {"length": rng.uniform(420, 760), "at_foot": 30, "note": rng.choice(("", "settle")), "old": old}


__all__ = ["STARTS", "buildable", "random_piece", "random_shop"]
