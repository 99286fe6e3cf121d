"""The boring and sawing tools a shop may own."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from splay.document import Angle, Frozen, Length, Plain
from splay.ids import Id
from splay.shop.scale import Scale

Title = Annotated[str, Field(min_length=1, max_length=60), Plain]


Kerf = Annotated[float, Length(0.3, 8)]
"""What the blade takes away, mm."""


class _Owned(Frozen):
    id: Id = ""
    """Its own for good, whatever it is called; given where it is missing."""
    name: Title
    """What the maker calls it."""
    owned: bool = True
    """Whether cards for it are wanted."""


class BevelGauge(_Owned):
    """A bevel gauge set from a protractor, standing on the sightline beside a hand drill."""

    kind: Literal["bevel_gauge"] = "bevel_gauge"
    scale: Scale = Scale(at_square=90, counts="down", reach=85, step=0.5)


class TiltingTable(_Owned):
    """A drill press whose table tilts."""

    kind: Literal["tilting_table"] = "tilting_table"
    scale: Scale = Scale(at_square=0, counts="up", reach=45, step=0.5)


class Ramp(_Owned):
    """A hinged ramp or sled under a drill press, raised by a spacer."""

    kind: Literal["ramp"] = "ramp"
    base: Annotated[float, Length(50, 2000)] = 300.0
    """From the line where ramp and base meet to the near edge of the spacer, mm."""
    spacer: Literal["plumb_base", "plumb_ramp", "square_ramp", "bar"] = "plumb_base"
    """plumb_base: stands plumb, base measured along the base; plumb_ramp: stands plumb, measured
    along the ramp; square_ramp: stands square to the ramp, measured along the ramp; bar: a round
    bar, measured along the base to where it touches."""
    reach: Annotated[float, Angle(0.5, 60)] = 30.0
    """Steepest the ramp may stand before the work slides or fouls, degrees."""


class GuideBlock(_Owned):
    """A block with one face sawn to the angle, held beside a hand drill's bit."""

    kind: Literal["guide_block"] = "guide_block"
    height: Annotated[float, Length(20, 300)] = 75.0
    """Height of the guiding face above the work, mm."""
    reach: Annotated[float, Angle(0.5, 60)] = 40.0
    """Furthest lean the block can guide, degrees."""


class AngleGuide(_Owned):
    """A drill guide with a tilting column, clamped or screwed to the work."""

    kind: Literal["angle_guide"] = "angle_guide"
    scale: Scale = Scale(at_square=0, counts="up", reach=45, step=1)


class DigitalGauge(_Owned):
    """A digital angle gauge on the drill, zeroed before boring.

    Reading 0 at square it was zeroed with the bit standing square to the top; reading 90 it was
    zeroed lying on the top.
    """

    kind: Literal["digital_gauge"] = "digital_gauge"
    scale: Scale = Scale(at_square=0, counts="up", reach=90, step=0.1)


class MitreSaw(_Owned):
    """A saw that swings across a fence and whose blade may lean."""

    kind: Literal["mitre_saw"] = "mitre_saw"
    scale: Scale = Scale(at_square=0, counts="up", reach=47, step=0.5)
    tilt: Scale = Scale(at_square=0, counts="up", reach=45, step=0.5)
    widest: Annotated[float, Length(30, 1000)] = 300.0
    """Widest stock it cuts through, mm."""
    kerf: Kerf = 2.5


class TableSaw(_Owned):
    """A saw with a sliding mitre gauge and a blade that tilts."""

    kind: Literal["table_saw"] = "table_saw"
    scale: Scale = Scale(at_square=90, counts="down", reach=60, step=0.5)
    """How the mitre gauge reads."""
    tilt: Scale = Scale(at_square=0, counts="up", reach=45, step=0.5)
    """How the blade's tilt reads."""
    tallest: Annotated[float, Length(10, 300)] = 75.0
    """Greatest height the blade stands above the table, mm."""
    kerf: Kerf = 3.0


class BandSaw(_Owned):
    """A band saw with a gauge in its table, and a table that tilts."""

    kind: Literal["band_saw"] = "band_saw"
    scale: Scale = Scale(at_square=90, counts="down", reach=60, step=0.5)
    """How its gauge reads."""
    tilt: Scale = Scale(at_square=0, counts="up", reach=45, step=1)
    """How the table's tilt reads."""
    tallest: Annotated[float, Length(30, 1000)] = 200.0
    """Thickest stock that passes under the guide, mm."""
    kerf: Kerf = 1.5


class Handsaw(_Owned):
    """A handsaw to a scribed line, with a sawn block to guide it where one helps."""

    kind: Literal["handsaw"] = "handsaw"
    kerf: Kerf = 1.2


class HandPlane(_Owned):
    """A plane and a marking gauge: tapers, bevels and eight sides by hand."""

    kind: Literal["hand_plane"] = "hand_plane"


class TaperJig(_Owned):
    """A sled that carries a leg past the blade at its taper."""

    kind: Literal["taper_jig"] = "taper_jig"
    length: Annotated[float, Length(200, 2000)] = 700.0
    """Between its two stops, mm."""


class RouterTable(_Owned):
    """A router in a table, for the slots of loose tenons."""

    kind: Literal["router_table"] = "router_table"
    cutter: Annotated[float, Length(2, 40)] = 8.0
    """Diameter of the cutter, mm."""
    reach: Annotated[float, Length(5, 100)] = 35.0
    """How far it can stand above the table, mm."""


class TenonCutter(_Owned):
    """A cutter in a drill that makes round tenons."""

    kind: Literal["tenon_cutter"] = "tenon_cutter"
    bore: Annotated[float, Length(6, 80)] = 28.0
    """Diameter of the tenon it leaves, mm."""
    takes: Annotated[float, Length(0, 60)] = 25.0
    """How much longer than the tenon's diameter the stock's diagonal may be, mm."""


class TenonJig(_Owned):
    """A block with two holes in line over a round-bottomed router bit: square stock turned in it by hand
    gets a round tenon."""

    kind: Literal["tenon_jig"] = "tenon_jig"
    front: Annotated[float, Length(8, 160)] = 56.0
    """Diameter of the hole in front, in which the stock's corners turn, mm."""
    behind: Annotated[float, Length(6, 80)] = 28.0
    """Diameter of the hole behind, which is the tenon's, mm."""


class OppositeLeg(_Owned):
    """A hand drill sighted on the mark on the opposite leg."""

    kind: Literal["opposite_leg"] = "opposite_leg"


class Protractor(_Owned):
    """A protractor held in the plane of two sticks."""

    kind: Literal["protractor"] = "protractor"
    scale: Scale = Scale(at_square=90, counts="down", reach=80, step=0.5)


class Bit(Frozen):
    """The bit for the sockets, and what stands out in front of its flat."""

    centre_spur: Annotated[float, Length(0, 40, fine=True)] = 0.0
    """How far the lead point stands out, mm; 0 for none."""
    rim_spurs: Annotated[float, Length(0, 10, fine=True)] = 0.0
    """How far the cutting spurs at the rim stand out, mm; 0 for none."""


class OwnedBit(Bit):
    """One bit in the drawer: what it bores, and what stands out in front of its flat."""

    diameter: Annotated[float, Length(1, 120)]
    """Diameter of the hole it leaves, mm."""


class MouthBit(Frozen):
    """A cutter in the drawer that rounds a hole's mouth: its pilot runs in the hole, so it cuts evenly
    about the hole's own axis, however that leans."""

    radius: Annotated[float, Length(1, 60)]
    """Of the round it leaves, mm."""


Tool = Annotated[
    BevelGauge
    | TiltingTable
    | Ramp
    | GuideBlock
    | AngleGuide
    | DigitalGauge
    | OppositeLeg
    | Protractor
    | MitreSaw
    | TableSaw
    | BandSaw
    | Handsaw
    | HandPlane
    | TaperJig
    | RouterTable
    | TenonCutter
    | TenonJig,
    Field(discriminator="kind"),
]
