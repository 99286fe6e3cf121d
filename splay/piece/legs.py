"""Staked legs: legs that end in the top, one or a set."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Annotated, Literal, Self

from pydantic import Field, model_validator

from splay.document import Frozen, Length, broken
from splay.ids import Id
from splay.piece.angles import Spec
from splay.piece.bounds import Bound
from splay.piece.joints import Joint, Thick
from splay.piece.places import Placement
from splay.piece.support import SupportBase


class Belly(Frozen):
    """The thickest, or thinnest, place between top and foot."""

    at: Annotated[float, Field(gt=0, lt=1)] = 0.4
    """Where along the exposed length, as a share of it from the underside."""
    size: Thick
    """Diameter or width there, mm."""


class OldHole(Frozen):
    """A mortise or a hole of an earlier life: where it lies along the stick, from the end that goes into
    the top."""

    nearer: Annotated[float, Length(0, 4000)]
    """Its nearer end, mm."""
    farther: Annotated[float, Length(0, 4000)]
    """Its far end, mm."""

    @model_validator(mode="after")
    def _onward(self) -> Self:
        if self.farther <= self.nearer:
            broken(
                "farther",
                f"a far end past its nearer one, {self.nearer:g} mm",
                "Measure both from the end that goes into the top.",
            )
        return self


class Bend(Frozen):
    """A stick whose middle line is not straight, as it lies there."""

    rise: Annotated[float, Length(1, 300)]
    """How far its middle stands off a string from the middle of one end to the middle of the other, at
    most, mm."""
    at: Annotated[float, Length(20, 4000)]
    """Where that is, along the string from the end that goes into the top, mm."""
    faces: Literal["outward", "inward", "left", "right"] = "outward"
    """Which way its back, the side it bulges to, looks once it stands: out from the piece's middle, in, or
    to the left or right of one who looks out from there."""


class Stick(Frozen):
    """One shaped or reused leg as it lies there, measured. The first is for the first leg of its set, and
    so on; what is left over waits as a spare."""

    length: Annotated[float, Length(50, 4000)]
    """From the end that goes into the top to the foot, along its middle, mm."""
    at_foot: Thick
    """Diameter at the foot, mm."""
    note: Annotated[str, Field(max_length=200)] = ""
    old: Annotated[tuple[OldHole, ...], Field(max_length=24)] = ()
    """Old mortises and holes in it, which must meet no new one."""
    bend: Bend | None = None
    """How it is bent, if it is."""

    @model_validator(mode="after")
    def _bent_within(self) -> Self:
        if self.bend is not None and self.bend.at >= self.length:
            broken(
                "bend.at",
                f"a place along the stick, less than its length of {self.length:g} mm",
                "Measure it from the end that goes into the top.",
            )
        return self


class Leg(Frozen):
    """The leg's section and taper; the same size at both ends means straight."""

    section: Literal["round", "square", "octagon"] = "round"
    """Round, eight-sided, or square stock with a round tenon."""
    at_top: Thick
    """Diameter, or width over the flats, where it meets the underside, mm."""
    at_foot: Thick
    """Diameter, or width over the flats, on its axis at the floor, mm."""
    belly: Belly | None = None
    """For a leg thickest, or thinnest, somewhere between."""
    facing: Literal["front", "sightline"] = "front"
    """How a square leg is turned: front face along the left-right line, or a face looking
    along the sightline. Of no account for a round leg."""
    made_by: Literal["turned", "shaved"] = "shaved"
    """Turned on a lathe, or shaved from square through eight sides."""
    tenon_by: Literal["lathe", "cutter", "hand", "sawn", "router", "knife"] = "hand"
    """How the round tenon is made: on a lathe, by a powered cutter, with drawknife and spokeshave, by saw,
    chisel and file, turned in a jig over a router bit, or by knife in the hole it is for."""
    neck: Literal["plain", "cove", "shoulder"] = "plain"
    """What the leg does where it meets the top."""
    cove: Annotated[float, Length(2, 60)] = 8.0
    """Radius of the cove between tenon and leg, where it has one, mm."""
    eased: bool = False
    """Whether the socket's mouth is rounded, so that the cove lies within it."""
    relief: Annotated[float, Length(0, 30)] = 0.0
    """Bevel round the foot's edge, measured up the leg, mm."""
    spare: Annotated[int, Field(ge=0, le=20, strict=True)] = 0
    """Spare legs made along with the rest."""
    practice: Annotated[int, Field(ge=0, le=20, strict=True)] = 0
    """Practice legs, for a trial hole or a first turning."""
    sticks: Annotated[tuple[Stick, ...], Field(max_length=96)] = ()
    """Shaped or reused legs, measured one by one; the shortest sets what all can come to."""


class StakedLegs(SupportBase):
    """A set of legs that end in the top, or in battens under it."""

    kind: Literal["staked_legs"] = "staked_legs"
    id: Id = ""
    placement: Placement
    scope: Literal["alike", "pairs", "each"] = "alike"
    """Which legs share an angle: all, each mirrored pair, or none."""
    angles: Annotated[tuple[Spec, ...], Field(min_length=1, max_length=24)]
    """One for all; or one a pair, front pair first; or one a leg, in the order the
    placement names them. Where there are fewer, the last serves the rest; where there are more, they are
    kept and not used."""
    leg: Leg
    joint: Joint
    allowance: Annotated[float, Length(0, 300)] = 20.0
    """Left on the length for trimming level, along the axis, mm."""

    @model_validator(mode="after")
    def _bent_are_round(self) -> Self:
        bent = next((k for k, stick in enumerate(self.leg.sticks) if stick.bend is not None), None)
        if bent is not None and self.leg.section != "round":
            broken(
                f"leg.sticks.{bent}.bend",
                "a bend in a round leg",
                "Make the legs round, or leave the bend out: square stock is cut straight.",
            )
        return self

    def bounds(self, high: float) -> Iterator[Bound]:
        """What its joint's are."""
        for one in self.joint.bounds(self.leg.at_top):
            yield one.within("joint")
