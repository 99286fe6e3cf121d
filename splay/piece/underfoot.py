"""What is put under the feet once they are level: it lifts the piece by its own thickness."""

from __future__ import annotations

from typing import Annotated, Literal

from splay.document import Frozen, Length


class Underfoot(Frozen):
    """One kind under every foot: `pads` glued or nailed on, `glides` driven in, `screwed` feet."""

    kind: Literal["pads", "glides", "screwed"] = "pads"
    thickness: Annotated[float, Length(0.5, 80, fine=True)] = 4.0
    """What it adds to the height, mm."""
    across: Annotated[float, Length(5, 150)] = 22.0
    """How wide it is, mm."""
