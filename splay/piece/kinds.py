"""What kinds of support have in common, said once: rules ask for these, and a new kind is added to those
that hold of it."""

from __future__ import annotations

from splay.piece.boards import BoardSides
from splay.piece.frames import ApronedLegs, MitredFrames, PlaneFrames, SlabLeg

HoldsTop = PlaneFrames | MitredFrames | BoardSides | ApronedLegs
"""Parts of it lie under the top: screws or buttons can hold that down to them."""
Doweled = PlaneFrames | MitredFrames | BoardSides | SlabLeg
"""Its sawn ends are joined by dowels or loose tenons."""
Lined = PlaneFrames | BoardSides
"""Its parts come to lie on others at places that are drawn on those first."""

__all__ = ["Doweled", "HoldsTop", "Lined"]
