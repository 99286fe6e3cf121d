"""Staked legs: bored-in legs, one or a set."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from splay.document import Frozen, Length
from splay.piece.angles import Spec
from splay.piece.places import Placement

Thick = Annotated[float, Length(6, 200)]


class Leg(Frozen):
    """The leg's section and taper; the same size at both ends means straight."""

    section: Literal["round", "square"] = "round"
    """Round, or square stock with a round tenon."""
    at_top: Thick
    """Diameter, or width of a square leg, where it meets the underside, mm."""
    at_foot: Thick
    """Diameter, or width of a square leg, on its axis at the floor, mm."""
    facing: Literal["front", "sightline"] = "front"
    """How a square leg is turned: front face along the side-to-side line, or a face looking
    along the sightline. Of no account for a round leg."""


class Through(Frozen):
    """A tenon that comes out at the upper face."""

    way: Literal["through"] = "through"
    socket: Thick
    """Diameter of the hole, mm."""
    proud: Annotated[float, Length(0, 100)] = 0.0
    """What stands out of the upper face, along the axis, mm."""
    bored_from: Literal["underside", "upper"] = "underside"
    """The face the boring starts from."""


class Blind(Frozen):
    """A tenon that ends inside the top, bored from the underside."""

    way: Literal["blind"] = "blind"
    socket: Thick
    """Diameter of the hole, mm."""
    depth: Annotated[float, Length(3, 400)]
    """Depth bored along the axis to the flat of the bit, mm."""


Joint = Annotated[Through | Blind, Field(discriminator="way")]


class StakedLegs(Frozen):
    """A set of legs bored into the top."""

    kind: Literal["staked_legs"] = "staked_legs"
    placement: Placement
    scope: Literal["alike", "pairs", "each"] = "alike"
    """Which legs share an angle: all, each mirrored pair, or none."""
    angles: Annotated[tuple[Spec, ...], Field(min_length=1, max_length=24)]
    """One for all; or one a pair, front pair first; or one a leg. Where there are fewer, the
    last serves the rest; where there are more, they are kept and not used."""
    leg: Leg
    joint: Joint
    allowance: Annotated[float, Length(0, 300)] = 20.0
    """Left on the length for trimming level, along the axis, mm."""
