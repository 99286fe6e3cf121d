"""What there is to take hold of in a drawing."""

from typing import Literal

Handled = Literal["foot", "socket", "height", "lean", "member", "frame", "corner", "edge", "tread", "size"]
"""What a handle moves: a foot or socket of a leg, the seat's height or lean, a stretcher's level,
a frame's splay or rake, a corner of a drawn outline, a place on a slab leg's edge, a lower tread,
a size of a squared part where it shows."""
