"""What kinds of support have in common, said once: rules ask for these, and a new kind is added to those
that hold of it."""

from __future__ import annotations

from splay.piece.aproned_legs import ApronedLegs
from splay.piece.board_sides import BoardSides
from splay.piece.mitred_frames import MitredFrames
from splay.piece.plane_frames import PlaneFrames

HoldsTop = PlaneFrames | MitredFrames | BoardSides | ApronedLegs
"""Parts of it lie under the top: screws or buttons can hold that down to them."""
Lined = PlaneFrames | BoardSides
"""Its parts come to lie on others at places that are drawn on those first."""


def driven_through(support: object) -> bool:
    """Whether a support's dowels are driven from outside, through what its ends join."""
    return isinstance(support, Lined) and support.dowels.way == "dowel" and support.dowels.driven


__all__ = ["HoldsTop", "Lined", "driven_through"]
