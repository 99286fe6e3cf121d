"""Joints between a leg and the top."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Annotated, ClassVar, Literal

from pydantic import Field

from splay.document import Angle, Frozen, Length
from splay.piece.bounds import CLEAR_MM, Bound
from splay.quantity import degrees as deg

Thick = Annotated[float, Length(6, 200)]
Depth = Annotated[float, Length(3, 400)]


class Peg(Frozen):
    """A peg through a blind tenon: driven from the upper face, or from the side of a batten."""

    diameter: Annotated[float, Length(2, 40)] = 8.0
    """Diameter of the peg, mm."""
    entry: Annotated[float, Length(0, 300)] = 14.0
    """Where it enters: from above, how far from over the leg's centre, against the way the leg leans;
    from the side, how far from the batten's face against the top; mm."""
    angle: Annotated[float, Angle(0, 60)] = 10.0
    """Slope off square to the face it enters, degrees; from the side it slopes away from the top."""
    margin: Annotated[float, Length(0, 50)] = 5.0
    """Least wood left round the peg's far end, mm."""
    place: Literal["drawn", "through_socket"] = "drawn"
    """How its place on the upper face is found: drawn from the middle lines, or from where a thin hole
    bored on through the socket comes out. From the side it is drawn."""


class Wedge(Frozen):
    """A wedge driven into a slot in a tenon's end."""

    lies: Literal["across_grain", "to_middle"] = "across_grain"
    """Its slot across the seat's grain, or aimed at the seat's middle."""
    taper: Annotated[float, Angle(1, 20)] = 6.0
    """The whole angle between its faces, degrees."""
    edge: Annotated[float, Length(0.2, 6)] = 1.0
    """Its thin edge, mm."""
    kerf: Annotated[float, Length(0.4, 8)] = 1.5
    """The slot as it is sawn, mm."""
    over: Annotated[float, Length(0, 3)] = 0.0
    """How much wider it is than the hole, so that it keys in, mm."""
    dry: bool = False
    """Driven without glue, so that the leg can come out again."""


Face = Literal["underside", "upper face", "battens' lower face"]


THROUGH_MM = 1e-6
LEG_SHARE = 0.6
"""A screw wider than this share of its leg weakens it (common practice, no source)."""
LEAST_THREAD_MM = 0.1
"""What is left of a thread on either side of its pilot together, at least (common practice, no source)."""


@dataclass(frozen=True)
class Hole:
    """A joint's hole and its tenon, mm along the axis: the hole's `size` where the leg enters and at the
    far end of the tenon (`tip`), whether it comes out, how `deep` it is bored, how much of the leg is in
    it, a flat tenon's shorter side (`across`)."""

    size: float
    tip: float
    through: bool
    deep: float
    tenon: float
    across: float


@dataclass(frozen=True)
class Bit:
    """The bit a joint asks for: what it is for, its size, the field that says so; whether a smaller one
    does as well (`most`)."""

    name: str
    size: float
    field: str
    most: bool = False


class _Joint(Frozen):
    """What the rest of the core asks of a joint; each kind answers where it differs."""

    tenon: ClassVar[Literal["round", "tapered", "flat", "none"]] = "round"
    """What of the leg goes into the hole: none where a screw holds it."""

    @property
    def face(self) -> Face:
        """The face of the seat its legs are marked on and bored from."""
        return "underside"

    def hole(self, out: float) -> Hole:
        """Its hole where the axis is `out` long from the underside to the upper face, mm."""
        raise NotImplementedError

    def bit(self, shortest: float) -> Bit | None:
        """The bit for holes the least of which is so deep, mm; None where they are chopped."""
        return Bit("the sockets", self.hole(shortest).size, "socket")

    def bounds(self, at_top: float) -> Iterator[Bound]:
        """Each of its sizes that something bounds, in a leg so thick at the top, mm."""
        yield from ()

    @property
    def below(self) -> float:
        """How far under the underside its legs are set in, mm."""
        return 0.0

    @property
    def pegged(self) -> Peg | None:
        """Its peg, if it has one."""
        return None

    @property
    def wedged(self) -> Wedge | None:
        """Its wedge, if it has one."""
        return None

    @property
    def in_leg(self) -> float:
        """How deep something is bored into the leg's upper end, mm."""
        return 0.0

    @property
    def ring(self) -> bool:
        """Whether its tenon bears a depth ring: a round one does."""
        return self.tenon == "round"

    @property
    def upper_end(self) -> Literal["tenon end", "upper end"]:
        """What the end of a leg at the seat is called."""
        return "upper end" if self.tenon == "none" else "tenon end"


class Through(_Joint):
    """A tenon that comes out at the upper face."""

    way: Literal["through"] = "through"
    socket: Thick
    """Diameter of the hole, mm."""
    proud: Annotated[float, Length(0, 100)] = 0.0
    """What stands out of the upper face, along the axis, mm."""
    bored_from: Literal["underside", "upper"] = "underside"
    """The face the boring starts from."""
    wedge: Wedge | None = Wedge()
    """Its wedge, if it has one."""

    def hole(self, out: float) -> Hole:
        """Right through, the tenon as far out as it stands proud."""
        return Hole(self.socket, self.socket, True, out, out + self.proud, self.socket)

    @property
    def face(self) -> Face:
        """The face its legs are marked on and bored from."""
        return "upper face" if self.bored_from == "upper" else "underside"

    @property
    def wedged(self) -> Wedge | None:
        """Its wedge, if it has one."""
        return self.wedge


class Blind(_Joint):
    """A tenon that ends inside the top, bored from the underside."""

    way: Literal["blind"] = "blind"
    socket: Thick
    """Diameter of the hole, mm."""
    depth: Depth
    """Depth bored along the axis to the flat of the bit, mm."""
    peg: Peg | None = None
    """A peg from above, if it is pegged."""
    wedge: Wedge | None = None
    """A wedge that the hole's own bottom drives home as the leg goes in, if it has one."""

    def hole(self, out: float) -> Hole:
        """As deep as it is bored."""
        return Hole(self.socket, self.socket, False, self.depth, self.depth, self.socket)

    @property
    def pegged(self) -> Peg | None:
        """Its peg, if it has one."""
        return self.peg

    @property
    def wedged(self) -> Wedge | None:
        """Its wedge, if it has one."""
        return self.wedge


class Reamed(_Joint):
    """A tapered tenon in a reamed hole, through the top."""

    tenon = "tapered"
    way: Literal["reamed"] = "reamed"
    socket: Thick
    """Diameter of the taper where its axis meets the underside, mm."""
    included: Annotated[float, Angle(1, 30)] = 6.0
    """The whole angle of the taper, degrees."""
    proud: Annotated[float, Length(0, 100)] = 0.0
    """What stands out of the upper face, along the axis, mm."""
    per_turn: Annotated[float, Length(0.005, 5)] = 0.1
    """What one turn of the reamer adds to the hole's diameter, as tried on scrap, mm."""

    @property
    def thins(self) -> float:
        """What the taper loses of its diameter along its axis, mm a mm."""
        return 2.0 * deg.tan(self.included / 2.0)

    def pilot(self, deep: float) -> float:
        """The widest that may be bored before reaming, where the hole is so deep, mm: the taper's diameter
        where it comes out."""
        return self.socket - self.thins * deep

    def hole(self, out: float) -> Hole:
        """Right through; its tenon thins as far as it goes."""
        long = out + self.proud
        return Hole(self.socket, self.pilot(long), True, out, long, self.socket)

    def bit(self, shortest: float) -> Bit:
        """What is bored before it is reamed."""
        return Bit("the reamer's pilot", self.pilot(shortest), "socket", most=True)


class Battened(_Joint):
    """Blind tenons in battens screwed across the grain under a thin top."""

    way: Literal["battened"] = "battened"
    socket: Thick
    """Diameter of the hole, mm."""
    depth: Depth
    """Depth bored along the axis into the batten, mm."""
    batten_width: Annotated[float, Length(15, 400)] = 60.0
    """Across the batten's face, mm."""
    batten_thickness: Annotated[float, Length(10, 200)] = 40.0
    """Through the batten, mm."""
    end: Annotated[float, Length(5, 1000)] = 40.0
    """Batten beyond the outermost leg centre, at each end, mm."""
    screws: Annotated[int, Field(ge=2, le=20, strict=True)] = 3
    """Screws a batten."""
    screw: Annotated[float, Length(5, 300)] = 50.0
    """Length of each screw under its head, mm."""
    counterbore: Annotated[float, Length(0, 200)] = 8.0
    """How deep its head is let in, mm."""
    peg: Peg | None = None
    """A peg from the batten's side, if it is pegged."""

    def bounds(self, at_top: float) -> Iterator[Bound]:
        """A batten wider than its socket and thicker than its counterbores are deep."""
        yield Bound(
            "batten_narrow", "boring", "The socket is wider than its batten.",
            "Make the batten wider, or the socket smaller.", self.socket, self.batten_width, "batten_width",
        )  # fmt: skip
        yield Bound(
            "counterbore_through", "boring", "The screws' heads are let in through the batten.",
            "Let them in less deep, or take a thicker batten.", self.counterbore,
            self.batten_thickness - CLEAR_MM, "counterbore",
        )  # fmt: skip

    @property
    def below(self) -> float:
        """The batten."""
        return self.batten_thickness

    def hole(self, out: float) -> Hole:
        """As deep as it is bored into the batten."""
        return Hole(self.socket, self.socket, False, self.depth, self.depth, self.socket)

    @property
    def face(self) -> Face:
        """The face its legs are marked on and bored from."""
        return "battens' lower face"

    @property
    def pegged(self) -> Peg | None:
        """Its peg, if it has one."""
        return self.peg


class DowelScrew(_Joint):
    """A screw pointed at both ends: half in the top, half in the leg, the leg's end cut to the lean."""

    tenon = "none"
    way: Literal["dowel_screw"] = "dowel_screw"
    socket: Thick = 8.0
    """Diameter of the screw over its thread, mm."""
    core: Annotated[float, Length(1, 60)] = 5.0
    """Diameter of the pilot hole in the top, mm."""
    length: Annotated[float, Length(10, 400)] = 80.0
    """The whole screw, mm."""
    into_top: Annotated[float, Length(3, 300)] = 30.0
    """Thread that goes into the top, along the axis, mm."""

    def hole(self, out: float) -> Hole:
        """The screw's pilot; nothing of the leg is in it."""
        return Hole(self.core, self.core, False, self.into_top, 0.0, self.core)

    def bit(self, shortest: float) -> Bit:
        """What its pilots are bored with."""
        return Bit("the screws' pilots", self.core, "core", most=True)

    def bounds(self, at_top: float) -> Iterator[Bound]:
        """A pilot thinner than its screw, and that thinner than the leg."""
        yield Bound(
            "pilot_wide", "boring", "The pilot is as wide as the screw: its thread finds no wood.",
            "Bore the pilot thinner than the screw over its thread.", self.core,
            self.socket - LEAST_THREAD_MM, "core",
        )  # fmt: skip
        yield Bound(
            "screw_thick", "legs", "The screw is thicker than the leg it goes into.",
            "Take a thinner screw, or a thicker leg.", self.socket, LEG_SHARE * at_top, "socket",
        )  # fmt: skip

    @property
    def in_leg(self) -> float:
        """The rest of the screw, mm."""
        return self.length - self.into_top


class Shouldered(_Joint):
    """A tenon that is not round, with shoulders sloped to the top; measured from its foot."""

    tenon = "flat"
    way: Literal["shouldered"] = "shouldered"
    socket: Thick
    """The tenon's longer side, along the sightline, mm."""
    across: Thick
    """The tenon's shorter side, square to the sightline, mm."""
    depth: Depth
    """Depth of the mortise along the axis, mm; past the upper face it goes through."""

    def hole(self, out: float) -> Hole:
        """A mortise, through where it is deeper than the wood."""
        through = self.depth >= out - THROUGH_MM
        return Hole(self.socket, self.socket, through, min(self.depth, out), self.depth, self.across)

    def bit(self, shortest: float) -> None:
        """It is chopped."""

    def bounds(self, at_top: float) -> Iterator[Bound]:
        """A tenon no wider than its leg."""
        yield Bound(
            "tenon_over_leg", "legs", "The tenon is wider than the leg it is cut on.",
            "Make its shorter side smaller, or thicken the leg at the top.", self.across, at_top, "across",
        )  # fmt: skip


Joint = Annotated[
    Through | Blind | Reamed | Battened | DowelScrew | Shouldered,
    Field(discriminator="way"),
]
