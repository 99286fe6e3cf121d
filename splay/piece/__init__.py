"""Piece: the document of choices; the product's own open format."""

from splay.piece.angles import AsWide, Footprint, Lean, Resultant, Spec, SplayRake, UnderRim
from splay.piece.legs import Blind, Leg, StakedLegs, Through
from splay.piece.model import FORMAT, VERSION, Piece, piece_schema, read_piece, write_piece
from splay.piece.places import Circle, Free, Insets, Spot, Triangle
from splay.piece.tops import Outline, Oval, Rectangle, Round, RoundedTriangle, Top

__all__ = [
    "FORMAT",
    "VERSION",
    "AsWide",
    "Blind",
    "Circle",
    "Footprint",
    "Free",
    "Insets",
    "Lean",
    "Leg",
    "Outline",
    "Oval",
    "Piece",
    "Rectangle",
    "Resultant",
    "Round",
    "RoundedTriangle",
    "Spec",
    "SplayRake",
    "Spot",
    "StakedLegs",
    "Through",
    "Top",
    "Triangle",
    "UnderRim",
    "piece_schema",
    "read_piece",
    "write_piece",
]
