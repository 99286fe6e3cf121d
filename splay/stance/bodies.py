"""Every part of square stock a piece is made of, whatever its supports."""

from __future__ import annotations

from splay.errors import CannotBuild
from splay.piece import (
    ApronedLegs,
    BoardSides,
    MitredFrames,
    Piece,
    PlaneFrames,
    SlabLeg,
)
from splay.stance.aproned_legs import aproned_legs
from splay.stance.board_sides import board_sides
from splay.stance.body import Body
from splay.stance.floor import Floor
from splay.stance.mitred_frames import mitred_frames
from splay.stance.plane_frames import plane_frames
from splay.stance.slab_leg import slab_leg


def bodies(piece: Piece, floor: Floor) -> tuple[Body, ...]:
    """The parts of all supports but the staked legs, in the order of the supports."""
    made: list[Body] = []
    for index, support in enumerate(piece.supports):
        if isinstance(support, PlaneFrames):
            made += plane_frames(support, index, floor)
        elif isinstance(support, MitredFrames):
            made += mitred_frames(support, index, floor)
        elif isinstance(support, BoardSides):
            made += board_sides(support, index, floor)
        elif isinstance(support, SlabLeg):
            made += slab_leg(piece, support, index, floor)
        elif isinstance(support, ApronedLegs):
            made += aproned_legs(support, index, floor)
    for one in made:
        _is_something(one)
    return tuple(made)


def _is_something(body: Body) -> None:
    """CannotBuild for a part of which its own cuts leave nothing."""
    if not any(solid for solid in body.pieces):
        raise CannotBuild(
            f"Nothing is left of the {body.name}: what it meets, or what is cut out of it, takes it all.",
            "Make it longer or wider, or the parts it meets and its cut-out smaller.",
            f"supports.{body.support}",
        )
