"""Kinds of wood: how dense they are, how much they shrink.

Source: Wood Handbook (USDA Forest Products Laboratory, FPL-GTR-282): specific gravity from Table 5-3,
shrinkage from green to ovendry from Table 4-3, dimensional change coefficients for 6 to 14 % from Table
13-5. All taken from memory; to be held against the print before anything dear is trusted to them.
"""

from __future__ import annotations

from dataclasses import dataclass

GREEN = 30.0
"""Moisture under which wood shrinks, percent: the fibre saturation point the Handbook reckons with (§4)."""


@dataclass(frozen=True)
class Wood:
    """One kind of wood: `gravity` is its ovendry weight over its volume at 12 % (a bare number); `radial`
    and `tangential` its shrinkage from green to ovendry, percent; `per_radial` and `per_tangential` the
    change of a size per percentage point of moisture between 6 and 14 %, None where no table has them;
    `durable` whether its heartwood stands outdoors (common practice, no source)."""

    name: str
    gravity: float
    radial: float
    tangential: float
    per_radial: float | None = None
    per_tangential: float | None = None
    durable: bool = False

    def shrinks(self, tangential: bool) -> float:
        """The whole shrinkage along one way, percent."""
        return self.tangential if tangential else self.radial

    def coefficient(self, tangential: bool) -> float:
        """Change per percentage point, as printed, or from the whole shrinkage spread evenly to green."""
        printed = self.per_tangential if tangential else self.per_radial
        return printed if printed is not None else self.shrinks(tangential) / 100.0 / GREEN


_TABLE = (
    # name, gravity at 12 %, radial, tangential (percent), C radial, C tangential, durable outdoors
    ("ash, black", 0.49, 5.0, 7.8, 0.00172, 0.00274, False),
    ("ash, white", 0.60, 4.9, 7.8, 0.00169, 0.00274, False),
    ("basswood", 0.37, 6.6, 9.3, 0.00230, 0.00330, False),
    ("beech, American", 0.64, 5.5, 11.9, 0.00190, 0.00431, False),
    ("birch, yellow", 0.62, 7.3, 9.5, 0.00256, 0.00338, False),
    ("cherry, black", 0.50, 3.7, 7.1, 0.00126, 0.00248, True),
    ("Douglas-fir, coast", 0.48, 4.8, 7.6, 0.00165, 0.00267, False),
    ("elm, American", 0.50, 4.2, 9.5, 0.00144, 0.00338, False),
    ("larch, western", 0.52, 4.5, 9.1, 0.00155, 0.00323, True),
    ("maple, red", 0.54, 4.0, 8.2, 0.00137, 0.00289, False),
    ("maple, sugar", 0.63, 4.8, 9.9, 0.00165, 0.00353, False),
    ("oak, northern red", 0.63, 4.0, 8.6, 0.00158, 0.00369, False),
    ("oak, white", 0.68, 5.6, 10.5, 0.00180, 0.00365, True),
    ("pine, eastern white", 0.35, 2.1, 6.1, 0.00071, 0.00212, False),
    ("walnut, black", 0.55, 5.5, 7.8, 0.00190, 0.00274, True),
    ("yellow-poplar", 0.42, 4.6, 8.2, 0.00158, 0.00289, False),
)
WOODS = {row[0]: Wood(*row) for row in _TABLE}
"""Every kind that is known, by name."""


def density(gravity: float, moisture: float) -> float:
    """Kilograms a cubic metre at a moisture (percent), from the specific gravity at 12 %.

    Wood Handbook §4 (from memory): Gx = Gb / (1 - 0.265 a Gb), a = (30 - x) / 30 below green, and
    1000 Gx (1 + x / 100). The gravity at 12 % is brought to the green one (Gb) by the same equation.
    """
    if gravity <= 0.0:
        return 0.0
    at_12 = (GREEN - 12.0) / GREEN
    basic = gravity / (1.0 + 0.265 * at_12 * gravity)
    a = max(0.0, (GREEN - moisture) / GREEN)
    return 1000.0 * basic / (1.0 - 0.265 * a * basic) * (1.0 + moisture / 100.0)
