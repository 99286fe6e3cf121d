"""A piece in round figures of the maker's units: what a starting piece is given in."""

from __future__ import annotations

from typing import Any

from pydantic import BaseModel

from splay.document import Length
from splay.errors import BadInput
from splay.piece.model import Piece, read_piece, write_piece
from splay.quantity import MM_PER_INCH, Bare

_STEPS = ((300.0, 2), (60.0, 4), (12.0, 8), (5.0, 16))
"""From this many mm on, round is to this part of an inch (common practice, no source)."""
_FINEST = 32


def in_round_figures(piece: Piece, system: Bare) -> Piece:
    """The piece with every length a round one; starting pieces are in round millimetres as they are."""
    if system == "metric":
        return piece
    try:
        return read_piece(_rounded(piece))
    except BadInput:
        # Two sizes that must not meet do in round figures: better exact than not at all.
        return piece


def _rounded(part: BaseModel) -> dict[str, Any]:
    written = write_piece(part) if isinstance(part, Piece) else part.model_dump(mode="json")
    for name, info in type(part).model_fields.items():
        value = getattr(part, name)
        if any(isinstance(rule, Length) and not rule.fine for rule in info.metadata):
            written[name] = _round(value)
        elif isinstance(value, BaseModel):
            written[name] = _rounded(value)
        elif isinstance(value, tuple):
            written[name] = [_rounded(one) if isinstance(one, BaseModel) else one for one in value]
            if name == "boards":
                written[name] = [_round(one) for one in value]
    return written


def _round(length: float) -> float:
    """The nearest round length, mm."""
    part = next((part for least, part in _STEPS if abs(length) >= least), _FINEST)
    return round(length / MM_PER_INCH * part) / part * MM_PER_INCH
