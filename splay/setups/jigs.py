"""Jigs that make an angle without a scale: ramps, guide blocks, make-up wedges."""

from __future__ import annotations

from splay.errors import CannotBuild
from splay.quantity import Figure, Show
from splay.quantity import degrees as deg
from splay.setups.spacer import spacer_height
from splay.shop import GuideBlock, Ramp

WEDGE_RUN_MM = 100.0
SPACERS = {
    "plumb_base": ("Spacer, standing plumb", "B · tan ρ", "measured along the base"),
    "plumb_ramp": ("Spacer, standing plumb", "B · sin ρ", "measured along the ramp"),
    "square_ramp": ("Spacer, square to the ramp", "B · tan ρ", "measured along the ramp"),
    "bar": ("Round bar, diameter", "2 · B · tan (ρ/2)", "along the base, to where it touches"),
}


def ramp_spacer(ramp: Ramp, rho: float, show: Show, key: str) -> Figure:
    """The spacer that raises a ramp to `rho` degrees."""
    label, formula, where = SPACERS[ramp.spacer]
    return show.figure(
        f"{key}.spacer",
        label,
        spacer_height(ramp.spacer, ramp.base, rho),
        formula,
        show.input("B", f"hinge to spacer, {where}", ramp.base),
        show.input("ρ", "lean", rho, "deg"),
        note=f"hinge line to the spacer's near edge, {where}",
    )


def block_angle(rho: float, show: Show, key: str) -> Figure:
    """The corner of a guide block between its guiding face and its base."""
    return show.figure(
        f"{key}.block_angle",
        "Saw the block's face at",
        90.0 - rho,
        "90° − ρ",
        show.input("ρ", "lean", rho, "deg"),
        unit="deg",
        note="between the guiding face and the base",
    )


def block_setback(block: GuideBlock, rho: float, show: Show, key: str) -> Figure:
    """How far a guide block's face leans over its own height: checks the block with a square."""
    return show.figure(
        f"{key}.setback",
        "The face leans over by",
        block.height * deg.tan(rho),
        "H · tan ρ",
        show.input("H", "height of the block", block.height),
        show.input("ρ", "lean", rho, "deg"),
        note="against a square stood on the same base",
    )


def wedge(off_square: float, reach: float, show: Show, key: str) -> tuple[Figure, ...]:
    """The wedge that makes up what a tool cannot reach, set at its end of travel.

    Both turns are about the same axis, so they simply add. CannotBuild for a reach past the lean.
    """
    rest = off_square - reach
    if rest <= 0:
        raise CannotBuild("No wedge is wanted: the tool reaches.", "Set it on its own scale.")
    return (
        show.figure(
            f"{key}.wedge",
            "Make-up wedge",
            rest,
            "ρ − m",
            show.input("ρ", "lean", off_square, "deg"),
            show.input("m", "furthest it reaches", reach, "deg"),
            unit="deg",
        ),
        show.figure(
            f"{key}.wedge_rise",
            f"Wedge rises, over {show.length(WEDGE_RUN_MM).text}",
            WEDGE_RUN_MM * deg.tan(rest),
            "r · tan w",
            show.input("r", "length of the wedge", WEDGE_RUN_MM),
            show.input("w", "make-up wedge", rest, "deg"),
        ),
    )
