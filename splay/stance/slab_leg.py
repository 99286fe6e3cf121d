"""One end of the slab mitred down to the floor."""

from __future__ import annotations

from splay.errors import CannotBuild
from splay.piece import Piece, Rectangle, SlabLeg
from splay.quantity import degrees as deg
from splay.stance.body import Body, Sides, body, pose
from splay.stance.convex import Plane, plane_at
from splay.stance.floor import Floor, floor_plane
from splay.stance.vectors import Vec, along

_SIGN = {"left": -1, "right": 1}


def slab_mitre(piece: Piece, support: SlabLeg) -> Plane:
    """The mitre, its normal out of the top: from the show corner down the line that halves it.

    Top and leg are as thick as each other, so the bevel is (90 - s) / 2 off square on both.
    """
    end, s = _SIGN[support.end], support.splay
    outline = piece.top.outline
    if not isinstance(outline, Rectangle):
        rule = "A slab leg wants a straight end to be mitred to."
        raise CannotBuild(rule, "Make the top a rectangle.", "top.outline")
    corner = (end * outline.length / 2, 0.0, piece.top.thickness)
    return plane_at((end * (1.0 + deg.sin(s)), 0.0, -deg.cos(s)), corner)


def slab_leg(piece: Piece, support: SlabLeg, index: int, floor: Floor) -> tuple[Body, ...]:
    """The leg, and the end of the top it is cut from (which the top's own solid shows)."""
    outline = piece.top.outline
    mitre = slab_mitre(piece, support)
    assert isinstance(outline, Rectangle)
    end, s, t = _SIGN[support.end], support.splay, piece.top.thickness
    down: Vec = (end * deg.sin(s), 0.0, -deg.cos(s))
    out: Vec = (end * deg.cos(s), 0.0, deg.sin(s))
    corner: Vec = (end * outline.length / 2, 0.0, t)
    names = ("back edge", "front edge") if end > 0 else ("front edge", "back edge")
    leg = body(
        f"{support.id}.slab_leg",
        f"slab leg at the {support.end}",
        "slab_leg",
        index,
        f"{support.id}.slab_leg",
        pose(along(corner, out, -t / 2), down, out),
        (outline.width, t),
        Sides(*names, "show face", "inner face"),
        (mitre.turned(), floor_plane(floor)),
        stands=True,
        allowance=support.allowance,
    )
    back_first = ("back edge", "front edge") if end > 0 else ("front edge", "back edge")
    slab = body(
        f"{support.id}.slab",
        f"the top, its {support.end} end",
        "slab",
        index,
        f"{support.id}.slab",
        pose((0.0, 0.0, t / 2), (float(end), 0.0, 0.0), (0.0, 0.0, 1.0)),
        (outline.width, t),
        Sides(*back_first, "upper face", "underside"),
        (Plane((-float(end), 0.0, 0.0), outline.length / 2), mitre),
        drawn=False,
    )
    return (leg, slab)
