"""Pieces to start from, one for every kind: whole and sound, so that the first drag already answers."""

from __future__ import annotations

from splay.errors import BadInput, Fault, shorten
from splay.piece.angles import Resultant, SplayRake
from splay.piece.aproned_legs import ApronedLegs
from splay.piece.board_sides import BoardSides
from splay.piece.joints import Battened, Blind, DowelScrew, Joint, Peg, Shouldered, Through
from splay.piece.legs import Leg, StakedLegs
from splay.piece.members import Level, OnLeg, OnMember, Rope, Stretcher
from splay.piece.mitred_frames import MitredFrames
from splay.piece.model import Piece, Support
from splay.piece.places import Circle, Free, Insets, Placement, Spot, Triangle
from splay.piece.plane_frames import PlaneFrames
from splay.piece.slab_leg import SlabLeg
from splay.piece.square import CrossPiece, Dowels
from splay.piece.tops import (
    Corner,
    Dish,
    Drawn,
    Oval,
    Rectangle,
    Round,
    RoundedTriangle,
    Top,
    Trough,
)

FOUR = ("l1", "l2", "l3", "l4")
"""Legs that members refer to are named where they are put down."""
_STOOL_LEG = Leg(at_top=42, at_foot=30)


def _ring(count: int, joint: Joint | None = None) -> StakedLegs:
    return StakedLegs(
        placement=Circle(count=count, radius=105, first=90 if count == 3 else 45),
        angles=(Resultant(resultant=14),),
        leg=_STOOL_LEG,
        joint=joint or Through(socket=28, proud=6),
    )


def _corners(inset: float, splay: float, rake: float, joint: Joint | None = None) -> StakedLegs:
    return StakedLegs(
        placement=Insets(from_ends=inset, from_edges=inset * 0.7, legs=FOUR),
        angles=(SplayRake(splay=splay, rake=rake),),
        leg=_STOOL_LEG,
        joint=joint or Blind(socket=30, depth=28),
    )


def _legs(placement: Placement, resultant: float, leg: Leg, joint: Joint) -> StakedLegs:
    return StakedLegs(placement=placement, angles=(Resultant(resultant=resultant),), leg=leg, joint=joint)


def _on(leg: str, height: float) -> OnLeg:
    return OnLeg(leg=leg, level=Level(by="height", value=height))


def _h_stretcher(height: float) -> tuple[Stretcher, ...]:
    """Two side pieces and a middle one, for legs that are given their ids from the front left round."""
    return (
        Stretcher(id="m1", ends=(_on("l1", height), _on("l4", height)), diameter=26),
        Stretcher(id="m2", ends=(_on("l2", height), _on("l3", height)), diameter=26),
        Stretcher(id="m3", ends=(OnMember(member="m1"), OnMember(member="m2")), depth=15, tenon=14),
    )


def _staked() -> dict[str, Piece]:
    round_top = Top(outline=Round(diameter=340), thickness=40)
    triangle = RoundedTriangle(side=240, arc=290)
    return {
        "round_three": Piece(name="Round stool", height=450, top=round_top, supports=(_ring(3),)),
        "round_four": Piece(name="Round stool", height=450, top=round_top, supports=(_ring(4),)),
        "triangle": Piece(
            name="Three-cornered stool",
            height=450,
            top=Top(outline=triangle, thickness=42),
            supports=(_legs(Triangle(side=190), 13, _STOOL_LEG, Through(socket=28, proud=5)),),
        ),
        "bench": Piece(
            name="Bench",
            use="bench",
            height=450,
            top=Top(outline=Rectangle(length=980, width=300, corner=25), thickness=44),
            supports=(_corners(105, 13, 12),),
            members=_h_stretcher(170),
        ),
        "table": Piece(
            name="Small table",
            use="table",
            height=560,
            top=Top(outline=Oval(length=620, width=430), thickness=38),
            supports=(_corners(150, 10, 8),),
        ),
        "battened": Piece(
            name="Battened stool",
            height=440,
            top=Top(outline=Rectangle(length=380, width=280, corner=30), thickness=22, boards=(140, 140)),
            supports=(
                _corners(
                    80,
                    9,
                    9,
                    Battened(
                        socket=26,
                        depth=30,
                        batten_width=64,
                        batten_thickness=42,
                        end=36,
                        screw=46,
                        counterbore=10,
                        peg=Peg(diameter=8, entry=14, angle=8),
                    ),
                ),
            ),
        ),
        "tall": Piece(
            name="Tall stool",
            use="high_stool",
            height=720,
            top=Top(
                outline=Round(diameter=330),
                thickness=48,
                hollow=Dish(length=260, width=260, depth=10),
            ),
            supports=(
                StakedLegs(
                    placement=Circle(count=4, radius=100, first=45, legs=FOUR),
                    angles=(Resultant(resultant=9),),
                    leg=Leg(at_top=44, at_foot=34, section="octagon"),
                    joint=Shouldered(socket=28, across=24, depth=32),
                ),
            ),
            members=(
                Rope(
                    name="foot rope",
                    legs=FOUR,
                    level=Level(by="drop", value=440),
                    diameter=12,
                ),
            ),
        ),
        "log_slice": Piece(
            name="Log-slice perch",
            height=430,
            top=Top(outline=_slice(), thickness=70, bark=True),
            supports=(
                _legs(
                    Circle(count=3, radius=110, first=90),
                    10,
                    Leg(at_top=40, at_foot=34),
                    DowelScrew(socket=10, core=7, length=90, into_top=42),
                ),
            ),
        ),
    }


def _slice() -> Drawn:
    ring = (
        (172, 12),
        (120, 128),
        (18, 166),
        (-112, 134),
        (-168, 20),
        (-128, -116),
        (-8, -160),
        (118, -122),
    )
    return Drawn(corners=tuple(Corner(x=x, y=y) for x, y in ring), smooth=True)


def _framed() -> dict[str, Piece]:
    return {
        "slab": Piece(
            name="Slab bench",
            use="bench",
            height=450,
            top=Top(outline=Rectangle(length=1150, width=340), thickness=50),
            supports=(
                SlabLeg(end="left", splay=8),
                StakedLegs(
                    placement=Free(spots=(Spot(x=430, y=95, mirror="ends"),)),
                    angles=(SplayRake(splay=12, rake=9),),
                    leg=Leg(at_top=46, at_foot=34),
                    joint=Blind(socket=32, depth=34, peg=Peg(diameter=10, entry=5, angle=0)),
                ),
            ),
        ),
        "plane_frames": Piece(
            name="Plane-frame stool",
            height=440,
            top=Top(
                outline=Rectangle(length=420, width=300, corner=20),
                thickness=32,
                boards=(50,) * 6,
                hollow=Trough(across="length", chord=360, depth=10),
            ),
            supports=(
                PlaneFrames(
                    length=340,
                    width=230,
                    splay=7,
                    rake=9,
                    cross=(
                        CrossPiece(drop=0, depth=45, thickness=24),
                        CrossPiece(drop=220, depth=35, thickness=24),
                    ),
                    dowels=Dowels(depth=18),
                ),
            ),
        ),
        "crossed": Piece(
            name="Crossed base",
            use="table",
            height=420,
            top=Top(outline=Round(diameter=480), thickness=26),
            supports=(MitredFrames(length=430, splay=12),),
        ),
        "board_sides": Piece(
            name="Step stool",
            height=300,
            top=Top(outline=Rectangle(length=420, width=260, corner=15), thickness=24),
            supports=(
                BoardSides(
                    length=350,
                    width=230,
                    splay=10,
                    rails=(
                        CrossPiece(drop=0, depth=45, thickness=22, offset=-70),
                        CrossPiece(drop=0, depth=45, thickness=22, offset=70),
                        CrossPiece(drop=140, depth=50, thickness=22),
                    ),
                    dowels=Dowels(way="loose_tenon", size=8, width=28, depth=14, count=1),
                ),
            ),
        ),
        "aproned": Piece(
            name="Splayed table",
            use="table",
            height=520,
            top=Top(outline=Rectangle(length=640, width=440), thickness=24),
            supports=(ApronedLegs(length=520, width=320, splay=8, rake=8),),
        ),
    }


STARTS = {
    "round_three": "a round stool on three legs",
    "round_four": "a round stool on four legs",
    "triangle": "a three-cornered stool",
    "bench": "a bench on four legs",
    "table": "a small oval table",
    "battened": "a thin top on battens",
    "tall": "a tall stool with a rope",
    "log_slice": "a slice of a log",
    "slab": "a slab turned down at one end",
    "plane_frames": "two leaning frames",
    "crossed": "a crossed mitred base",
    "board_sides": "leaning board sides",
    "aproned": "a splayed table with aprons",
}
"""Every piece there is to start from, and what it is."""


def starter(name: str) -> Piece:
    """The starting piece of that name; BadInput for a name there is none of."""
    known = {**_staked(), **_framed()}
    if name not in known:
        raise BadInput(
            Fault("start", shorten(name), ", ".join(STARTS), "Choose one of these to start from.")
        )
    return known[name]


_SUPPORTS = {
    "slab_leg": "slab",
    "plane_frames": "plane_frames",
    "mitred_frames": "crossed",
    "board_sides": "board_sides",
    "aproned_legs": "aproned",
}


def starting_support(kind: str, length: float, width: float) -> Support:
    """A support of a kind, sized for a top `length` by `width` mm; staked legs for any other name."""
    if kind not in _SUPPORTS:
        return _legs(
            Free(spots=(Spot(x=0.3 * length, y=0.3 * width, mirror="ends"),)),
            10,
            _STOOL_LEG,
            Blind(socket=28, depth=20),
        )
    support = _framed()[_SUPPORTS[kind]].supports[0]
    if isinstance(support, SlabLeg):
        return support
    sized = {"length": 0.8 * length}
    if not isinstance(support, MitredFrames):
        sized["width"] = 0.75 * width
    return support.model_copy(update=sized)
