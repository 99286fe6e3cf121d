"""A rule of the trade: one kind of work before another; kinds of work that rules name together."""

from __future__ import annotations

from dataclasses import dataclass

Names = frozenset[str]


@dataclass(frozen=True)
class Rule:
    """Work in `before` stands before work in `after`; `same` only where both are done on one part."""

    before: Names
    after: Names
    why: str
    costs: str
    same: bool = False


def of(names: str) -> Names:
    """Kinds of work by their names, said in one line."""
    return frozenset(names.split())


SHAPING = of("cut_outline hollow edges")
SEAT = of(
    "lay_out lay_out_upper dress bore ease_mouth peg_find hand_hold spline_mortise cut_outline hollow edges"
)
LEGS = of("stick_cut bend_line tenon shoulder taper octagon round mark pilot turn_home kerf foot_cut")
STICKS = of(
    "rip crosscut notch dowel through slot stick_tenon side_taper hold groove joins cut_out "
    "spline_notch sweep"
)
STRETCHERS = of("bore_member bore_rope member_cut member_octagon floor_side")
MADE = SEAT | LEGS | STICKS | STRETCHERS
ON_PARTS = (LEGS | STICKS | STRETCHERS | {"fit"}) - {"joins"}
"""Work on a leg or another part itself: not what is drawn on one part for another that joins it there."""
GLUED = of("glue wedge peg_in")
