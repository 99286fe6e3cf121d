"""How the feet are brought into one plane: the way it is measured, pass by pass, and what is wanted."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from splay.document import Angle, Frozen, Length
from splay.ids import Id

LevelWay = Literal["bench", "standing", "shims", "seat", "sighted"]
"""bench: upside down on a flat bench, heights of the feet; standing: heights of the top as it
stands, and gaps under feet; shims: shims under feet until the top reads right, and the height it
then stands at; seat: along each leg from the seat; sighted: three legs along the seat, the fourth
by two straight sticks sighted over."""


class LevelPass(Frozen):
    """One round of measuring and cutting."""

    id: Id = ""
    way: LevelWay = "bench"
    raised: Annotated[float, Length(0, 500)] = 0.0
    """Upside down on blocks: how far they hold the upper face off the bench, mm."""
    places: Literal["edges", "legs"] = "edges"
    """Where the top's height is taken as it stands: at the middles of its four edges, or over its legs."""


class Levelling(Frozen):
    """What the levelling aims at, and its passes in order."""

    passes: Annotated[tuple[LevelPass, ...], Field(min_length=1, max_length=9)] = (LevelPass(),)
    ends: Literal["square", "sawn"] = "square"
    """How legs set into the top end before the first pass: square and over length, or sawn to the floor."""
    flat: Annotated[float, Length(0, 10, fine=True)] = 0.1
    """How far the bench or floor it is measured on may be out of flat, mm."""
    lean_allowed: Annotated[float, Angle(0, 5)] = 0.0
    """How far the top may lean from what was chosen, to lose less of the legs, degrees."""
