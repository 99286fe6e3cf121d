"""Where a piece touches its floor."""

from __future__ import annotations

from splay.stance.body import Body
from splay.stance.floor import Floor
from splay.stance.vectors import Vec

ON_FLOOR_MM = 0.01


def on_floor(body: Body, floor: Floor) -> tuple[Vec, ...]:
    """The corners of a standing part that lie on the floor, floor frame, mm."""
    if not body.stands:
        return ()
    seen = (floor.to_floor(corner) for corner in body.corners)
    return tuple(dict.fromkeys(p for p in seen if abs(p[2]) < ON_FLOOR_MM))
