"""A socket in the top: where it comes out, how deep its walls are, what is left above it."""

from __future__ import annotations

from dataclasses import dataclass

from splay.piece import Blind, Piece
from splay.quantity import Figure, Show
from splay.quantity import degrees as deg
from splay.shop import Bit
from splay.stance.outline import edge_distance
from splay.stance.staked import LegStance
from splay.stance.vectors import Flat


@dataclass(frozen=True)
class SocketPart:
    """One socket's figures. Through: `exit_shift`; blind: walls, stop, deepest, left above.

    `exit_at` is where a through hole's middle comes out on the upper face, or the middle of a
    blind hole's floor, top frame x and y, mm.
    """

    number: int
    through: bool
    mouth: Figure
    exit_shift: Figure | None
    obtuse_wall: Figure | None
    acute_wall: Figure | None
    first_touch: Figure | None
    deepest: Figure | None
    left_above: Figure | None
    edge: Figure
    exit_at: Flat


def socket_part(piece: Piece, stance: LegStance, bit: Bit, show: Show) -> SocketPart:
    """The figures of one leg's socket."""
    joint = piece.supports[stance.support].joint
    rho, key = stance.boring.resultant, f"socket.{stance.number}"
    lean = show.input("ρ", "lean to the top", rho, "deg")
    hole = show.input("D", "socket", joint.socket)
    mouth = show.figure(
        f"{key}.mouth", "Mouth, long way", joint.socket / deg.cos(rho), "D / cos ρ", hole, lean
    )
    rise = joint.depth * deg.cos(rho) if isinstance(joint, Blind) else piece.top.thickness
    away = rise / stance.d[2]
    exit_at = (stance.socket[0] + stance.d[0] * away, stance.socket[1] + stance.d[1] * away)
    edge = _edge(key, piece, stance, exit_at, show)
    if not isinstance(joint, Blind):
        thickness = show.input("t", "thickness of the top", piece.top.thickness)
        shift = show.figure(
            f"{key}.exit",
            "Comes out along the sightline by",
            piece.top.thickness * deg.tan(rho),
            "t · tan ρ",
            thickness,
            lean,
            note="on the far face, from square opposite the mark",
        )
        return SocketPart(stance.number, True, mouth, shift, None, None, None, None, None, edge, exit_at)
    return _blind(key, piece, stance, joint, bit, show, mouth, edge, exit_at)


def _blind(
    key: str,
    piece: Piece,
    stance: LegStance,
    joint: Blind,
    bit: Bit,
    show: Show,
    mouth: Figure,
    edge: Figure,
    exit_at: Flat,
) -> SocketPart:
    rho = stance.boring.resultant
    c, s, half = deg.cos(rho), deg.sin(rho), joint.socket / 2
    slant = half * deg.tan(rho)
    depth = show.input("k", "depth along the axis", joint.depth)
    hole = show.input("D", "socket", joint.socket)
    lean = show.input("ρ", "lean to the top", rho, "deg")
    spurs = (
        show.input("p", "lead point", bit.centre_spur),
        show.input("q", "rim spurs", bit.rim_spurs),
    )
    # The deepest of flat corner, lead point and rim spurs counts.
    deepest = max((joint.depth + bit.rim_spurs) * c + half * s, (joint.depth + bit.centre_spur) * c)
    thickness = show.input("t", "thickness of the top", piece.top.thickness)
    return SocketPart(
        number=stance.number,
        through=False,
        mouth=mouth,
        exit_shift=None,
        obtuse_wall=show.figure(
            f"{key}.obtuse",
            "Wall on the obtuse side",
            joint.depth - slant,
            "k − D/2 · tan ρ",
            depth,
            hole,
            lean,
            note="towards the middle; set a depth ring that must vanish all round from this side",
        ),
        acute_wall=show.figure(
            f"{key}.acute",
            "Wall on the acute side",
            joint.depth + slant,
            "k + D/2 · tan ρ",
            depth,
            hole,
            lean,
            note="towards the rim",
        ),
        first_touch=show.figure(
            f"{key}.stop",
            "Depth stop from first touch",
            joint.depth + slant,
            "k + D/2 · tan ρ",
            depth,
            hole,
            lean,
            note="set to nought when the bit first touches the slanted surface",
        ),
        deepest=show.figure(
            f"{key}.deepest",
            "Deepest corner below the underside",
            deepest,
            "the larger of (k + q) · cos ρ + D/2 · sin ρ and (k + p) · cos ρ",
            depth,
            hole,
            lean,
            *spurs,
        ),
        left_above=show.figure(
            f"{key}.left",
            "Left above",
            piece.top.thickness - deepest,
            "t − deepest",
            thickness,
            show.input("z", "deepest", deepest),
        ),
        edge=edge,
        exit_at=exit_at,
    )


def _edge(key: str, piece: Piece, stance: LegStance, exit_at: Flat, show: Show) -> Figure:
    """Wood between the hole and the rim where it is least, on either face."""
    joint = piece.supports[stance.support].joint
    half = joint.socket / 2 / deg.cos(stance.boring.resultant)
    outline = piece.top.outline
    mouth = edge_distance(outline, stance.place.at)
    out = edge_distance(outline, exit_at)
    return show.figure(
        f"{key}.edge",
        "Wood to the rim",
        min(mouth, out) - half,
        "least distance of the hole's middle to the rim − half its mouth",
        show.input("e", "middle to rim, underside", mouth),
        show.input("f", "middle to rim, where it ends", out),
        show.input("m", "half the mouth", half),
    )
