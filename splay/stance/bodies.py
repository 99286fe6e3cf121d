"""Every part of square stock a piece is made of, whatever its supports."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import Any

from splay.errors import CannotBuild
from splay.piece import Piece
from splay.stance.aproned_legs import aproned_legs
from splay.stance.board_sides import board_sides
from splay.stance.body import Body
from splay.stance.floor import Floor
from splay.stance.mitred_frames import mitred_frames
from splay.stance.plane_frames import plane_frames
from splay.stance.slab_leg import slab_leg

_PARTS: dict[str, Callable[[Piece, Any, int, Floor], Sequence[Body]]] = {
    "plane_frames": lambda _, support, index, floor: plane_frames(support, index, floor),
    "mitred_frames": lambda _, support, index, floor: mitred_frames(support, index, floor),
    "board_sides": lambda _, support, index, floor: board_sides(support, index, floor),
    "slab_leg": slab_leg,
    "aproned_legs": lambda _, support, index, floor: aproned_legs(support, index, floor),
}
"""What places the parts of each kind of support, by its kind; staked legs are axes and have none."""


def bodies(piece: Piece, floor: Floor) -> tuple[Body, ...]:
    """The parts of all supports but the staked legs, in the order of the supports."""
    made: list[Body] = []
    for index, support in enumerate(piece.supports):
        if support.kind in _PARTS:
            made += _PARTS[support.kind](piece, support, index, floor)
    for one in made:
        _is_something(one)
    return tuple(made)


def _is_something(body: Body) -> None:
    """CannotBuild for a part of which its own cuts leave nothing."""
    if not any(solid for solid in ((body.plain,) if body.sweep is not None else body.pieces)):
        raise CannotBuild(
            f"Nothing is left of the {body.name}: what it meets, or what is cut out of it, takes it all.",
            "Make it longer or wider, or the parts it meets and its cut-out smaller.",
            f"supports.{body.support}",
        )
