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
LEFT_MM = 3.0
"""Left on a through tenon for the saw, over what its lean asks (common practice, no source)."""
LEG_SHARE = 0.6
"""A screw wider than this share of its leg weakens it (common practice, no source)."""
LEAST_THREAD_MM = 0.1
"""What is left of a thread on either side of its pilot together, at least (common practice, no source)."""


@dataclass(frozen=True)
class Hole:
    """A joint's hole and its tenon, mm along the axis: the hole's `size` where the leg enters and at the
    far end of the tenon (`tip`), whether it comes out, how `deep` it is bored, how much of the leg is in
    it, a flat tenon's shorter side (`across`); how long the tenon is when all is done (`done`), less than
    `tenon` where it is sawn off once it is home; how deep (`recess`) and `wide` the leg's own end is let
    in,
    where it is."""

    size: float
    tip: float
    through: bool
    deep: float
    tenon: float
    across: float
    done: float
    recess: float = 0.0
    wide: float = 0.0


def stands_out(proud: float, left: float, half: float, lean: float) -> float:
    """How far a tenon's square end is left standing out of the upper face, along the axis, mm, that is to
    stand out by `proud` in the end (nought: flush); `half` its half thickness there, mm, `lean` its lean to
    the top, degrees.

    Its square end lies lower on the side it leans away from: cut to nothing more than the wood, it leaves a
    pit there, half · tan(lean) deep along the leg. So what is not to stand out by at least that is left
    longer by it, and by `left` for
    the saw, and sawn off once it is home.
    """
    asks = half * deg.tan(lean)
    return proud if proud > 0.0 and proud >= asks else proud + asks + left


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

    def hole(self, out: float, lean: float, thick: float) -> Hole:
        """Its hole where the axis is `out` long from the underside to the upper face, mm, and leans so far
        off square to them, degrees; `thick` is how wide the leg is there, over its corners, mm."""
        raise NotImplementedError

    def bit(self, shortest: float) -> Bit | None:
        """The bit for holes the least of which is so deep, mm; None where they are chopped."""
        return Bit("the sockets", self.hole(shortest, 0.0, 0.0).size, "socket")

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
    """What stands out of the upper face when all is done, along the axis, mm; nought: sawn flush."""
    left: Annotated[float, Length(0, 50)] = LEFT_MM
    """What is left on for the saw over what the lean asks, where it is sawn off, along the axis, mm."""
    bored_from: Literal["underside", "upper"] = "underside"
    """The face the boring starts from."""
    wedge: Wedge | None = Wedge()
    """Its wedge, if it has one."""

    def hole(self, out: float, lean: float, thick: float) -> Hole:
        """Right through, the tenon as far out as it stands proud, or is left on to be sawn."""
        long = out + stands_out(self.proud, self.left, self.socket / 2.0, lean)
        return Hole(self.socket, self.socket, True, out, long, self.socket, out + self.proud)

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

    def hole(self, out: float, lean: float, thick: float) -> Hole:
        """As deep as it is bored."""
        return Hole(self.socket, self.socket, False, self.depth, self.depth, self.socket, self.depth)

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
    """What stands out of the upper face when all is done, along the axis, mm; nought: sawn flush."""
    left: Annotated[float, Length(0, 50)] = LEFT_MM
    """What is left on for the saw over what the lean asks, where it is sawn off, along the axis, mm."""
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

    def hole(self, out: float, lean: float, thick: float) -> Hole:
        """Right through; its tenon thins as far as it goes."""
        long = out + stands_out(self.proud, self.left, self.pilot(out) / 2.0, lean)
        return Hole(self.socket, self.pilot(long), True, out, long, self.socket, out + self.proud)

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

    def hole(self, out: float, lean: float, thick: float) -> Hole:
        """As deep as it is bored into the batten."""
        return Hole(self.socket, self.socket, False, self.depth, self.depth, self.socket, self.depth)

    @property
    def face(self) -> Face:
        """The face its legs are marked on and bored from."""
        return "battens' lower face"

    @property
    def pegged(self) -> Peg | None:
        """Its peg, if it has one."""
        return self.peg


RECESS_MM = 2.0
"""How deep a recess for a leg's end still is on its shallow side (common practice, no source)."""
SPARE_MM = 3.0
"""A pilot in a leg goes this much deeper than its screw (common practice, no source)."""


class DowelScrew(_Joint):
    """A screw pointed at both ends: half in the top, half in the leg, whose square end is let into a recess
    as wide as the leg, bored at the lean.

    An end sawn to the lean cannot be turned home: its long side meets the seat more than one turn of the
    screw before the rest of it does.
    """

    tenon = "none"
    way: Literal["dowel_screw"] = "dowel_screw"
    socket: Thick = 8.0
    """Diameter of the screw over its thread, mm."""
    core: Annotated[float, Length(1, 60)] = 5.0
    """Diameter of the pilot hole in the top, mm."""
    length: Annotated[float, Length(10, 400)] = 80.0
    """The whole screw, mm."""
    into_top: Annotated[float, Length(3, 300)] = 30.0
    """Thread that goes into the top below the recess, along the axis, mm."""
    recess: Annotated[float, Length(0, 60)] = RECESS_MM
    """How deep the recess for the leg's end is on its shallow side, along the axis, mm."""

    def let_in(self, thick: float, lean: float) -> float:
        """How deep the recess is in its middle, mm along the axis: its bottom is whole once it is half the
        leg's thickness · tan(lean) deep there."""
        return thick / 2.0 * deg.tan(lean) + self.recess

    def hole(self, out: float, lean: float, thick: float) -> Hole:
        """The recess, and the screw's pilot on from its bottom; nothing of the leg is in that."""
        let_in = self.let_in(thick, lean)
        return Hole(self.core, self.core, False, let_in + self.into_top, 0.0, self.core, 0.0, let_in, thick)

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

    def hole(self, out: float, lean: float, thick: float) -> Hole:
        """A mortise, through where it is deeper than the wood; its tenon then stands out by the rest, or is
        left on to be sawn flush."""
        if self.depth < out - THROUGH_MM:
            return Hole(self.socket, self.socket, False, self.depth, self.depth, self.across, self.depth)
        proud = max(0.0, self.depth - out)
        long = out + stands_out(proud, LEFT_MM, self.socket / 2.0, lean)
        return Hole(self.socket, self.socket, True, out, long, self.across, out + proud)

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
