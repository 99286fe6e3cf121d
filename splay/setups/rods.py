"""A lean checked without a gauge: where the tip of a straight rod of known length stands."""

from __future__ import annotations

from splay.quantity import Figure, Show
from splay.quantity import degrees as deg
from splay.stance.staked import LegStance

ROD_MM = 200.0


def rod_checks(leg: LegStance, planned_deg: float, show: Show) -> tuple[Figure, ...]:
    """The same lean without a gauge: where the tip of a rod of known length stands."""
    rod = show.input("R", "rod standing out of the hole, along its middle", ROD_MM)
    lean = show.input("ρ", "lean", planned_deg, "deg")
    key = f"bore.{leg.number}.rod"
    out = f"Tip of a rod {show.length(ROD_MM).text} out: "
    return (
        show.figure(
            f"{key}.up",
            out + "above the face",
            ROD_MM * deg.cos(planned_deg),
            "R · cos ρ",
            rod,
            lean,
        ),
        show.figure(
            f"{key}.over",
            out + "along the sightline",
            ROD_MM * deg.sin(planned_deg),
            "R · sin ρ",
            rod,
            lean,
        ),
    )
