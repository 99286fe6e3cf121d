"""Wood as it lies in the store: boards, slabs, logs, sticks. Version 1 of the file; lengths in mm."""

from __future__ import annotations

from collections.abc import Mapping
from datetime import date, timedelta
from typing import Annotated, Any, Literal, Self

import shapely
from pydantic import Field, TypeAdapter, ValidationInfo, model_validator
from shapely.geometry.base import BaseGeometry

from splay.document import Angle, Frozen, Length, Plain, Typed, broken, current, read_document
from splay.errors import BadInput, Fault, shorten
from splay.ids import Id, Ids
from splay.labelled import STARTS_KEY, labelled
from splay.paths import inside, under
from splay.piece.tops import Photo
from splay.quantity import Bare
from splay.timber.labels import STOCK_LABELS, STOCK_TITLES
from splay.timber.moisture import Weighing, from_weight
from splay.timber.species import WOODS, Wood

STOCK_FORMAT = "proud-rake-stock"
STOCK_VERSION = 1
MOST_FLAWS = 60
MOST_CORNERS = 400
FIRST_OUTLINE = [{"x": x, "y": y} for x, y in ((0, 0), (1500, 0), (1500, 450), (0, 450))]
"""What a slab that is drawn begins with, mm."""
MOST_ITEMS = 2000
WETTEST = 250.0
"""Percent: sapwood of some kinds is green at over 200 (Wood Handbook, Table 4-1, from memory)."""
Percent = Annotated[float, Typed, Field(ge=0, le=WETTEST)]
FlawKind = Literal["split", "knot", "bark", "pith", "hole", "tear_out", "rot", "sapwood"]
FLAWS: dict[str, str] = {
    "split": "split",
    "knot": "knot",
    "bark": "bark",
    "pith": "pith",
    "hole": "hole",
    "tear_out": "tear-out",
    "rot": "rot",
    "sapwood": "sapwood",
}
"""What can be wrong with wood, and what it is called."""
SOUND: frozenset[FlawKind] = frozenset({"sapwood"})
"""What a part may be cut through all the same: it is said, where it matters."""


class Point(Frozen):
    """A point of a slab, seen from above."""

    x: Annotated[float, Length(-8000, 8000)]
    """Along the slab, mm."""
    y: Annotated[float, Length(-8000, 8000)]
    """Across it, mm."""


class Flaw(Frozen):
    """Something wrong on a board: from where to where along it, and across it."""

    kind: FlawKind
    start: Annotated[float, Length(0, 12000)] = 0.0
    """From the board's marked end to where it begins, mm."""
    end: Annotated[float, Length(0, 12000)]
    """To where it ends, mm."""
    low: Annotated[float, Length(0, 2000)] = 0.0
    """From the near edge to where it begins, mm."""
    high: Annotated[float, Length(0, 2000)] | None = None
    """To where it ends across the board, mm; the far edge where it is left out."""


class SlabFlaw(Frozen):
    """Something wrong in a slab: round one point, along a line of points, or within them."""

    kind: FlawKind
    id: Id = ""
    points: Annotated[tuple[Point, ...], Field(min_length=1, max_length=MOST_FLAWS)]
    across: Annotated[float, Length(0, 1000)] = 20.0
    """Across a round one; the width of a line, mm. Of no account for what is within its points."""
    area: bool = False
    """Whether the points go round it."""

    def shape(self) -> BaseGeometry:
        """The wood it takes."""
        places = [(p.x, p.y) for p in self.points]
        if self.area and len(places) > 2:
            return shapely.make_valid(shapely.Polygon(places))
        line = shapely.Point(places[0]) if len(places) == 1 else shapely.LineString(places)
        return line.buffer(max(self.across / 2.0, 0.25), quad_segs=8)


class OwnWood(Frozen):
    """The figures of a kind of wood that no table here has."""

    gravity: Annotated[float, Typed, Field(gt=0.05, le=1.5)]
    """Ovendry weight over the volume at 12 %, a bare number."""
    radial: Annotated[float, Typed, Field(ge=0, le=20)]
    """Shrinkage from green to ovendry along the rays, percent."""
    tangential: Annotated[float, Typed, Field(ge=0, le=30)]
    """Shrinkage from green to ovendry along the rings, percent."""


class Seen(Frozen):
    """What a meter or the scales said of it one day."""

    on: date
    moisture: Percent | None = None
    weight: Annotated[float, Field(gt=0, le=5000)] | None = None
    """Kilograms."""

    @model_validator(mode="after")
    def _says_something(self) -> Self:
        if self.moisture is None and self.weight is None:
            broken("moisture", "a moisture or a weight", "Fill in what the meter or the scales say.")
        return self


class Wooden(Frozen):
    """What every piece of stock has."""

    id: Id = ""
    name: Annotated[str, Field(min_length=1, max_length=80), Plain]
    """What is chalked on it."""
    species: Annotated[str, Field(min_length=1, max_length=60), Plain]
    own: OwnWood | None = None
    """Its figures, where the kind is in no table here."""
    moisture: Percent | None = None
    """Percent; what was read last goes before it."""
    seen: Annotated[tuple[Seen, ...], Field(max_length=200)] = ()
    source: Literal["bought", "felled", "reclaimed", "offcut", "given"] = "bought"
    cost: Annotated[float, Typed, Field(ge=0, le=1e7)] = 0.0
    """Of this piece, in the maker's own money."""
    place: Annotated[str, Field(max_length=80)] = ""
    """Where it lies."""
    notes: Annotated[str, Field(max_length=1000)] = ""

    @model_validator(mode="after")
    def _kind_is_known(self) -> Self:
        if self.species not in WOODS and self.own is None:
            broken(
                "own",
                "the figures of a kind of wood that is in no table here",
                "Choose a kind from the list, or give its gravity and shrinkage.",
            )
        return self

    @property
    def wood(self) -> Wood:
        """The figures of its kind: its own ones where they were given."""
        if self.own is not None:
            return Wood(self.species, self.own.gravity, self.own.radial, self.own.tangential)
        return WOODS[self.species]

    @property
    def now(self) -> float | None:
        """Its moisture as last read, percent; None where nobody knows."""
        read = self.readings
        return read[-1].moisture if read else self.moisture

    @property
    def readings(self) -> tuple[Weighing, ...]:
        """Its moisture over time, as days from the first reading on: as the meter said, or from its weight
        where weight and moisture were once known together."""
        days = sorted(self.seen, key=lambda one: one.on)
        known = next((one for one in days if one.weight and one.moisture is not None), None)
        found = []
        for one in days:
            moisture = one.moisture
            if moisture is None and known and known.weight and known.moisture is not None and one.weight:
                moisture = from_weight(one.weight, known.weight, known.moisture)
            if moisture is not None:
                found.append(Weighing((one.on - days[0].on) / timedelta(days=1), moisture))
        return tuple(found)


class Board(Wooden):
    """A board or plank, its edges straight. Its end that is marked is the left one, its near edge the
    lower."""

    kind: Literal["board"] = "board"
    length: Annotated[float, Length(50, 12000)]
    width: Annotated[float, Length(10, 2000)]
    thickness: Annotated[float, Length(3, 400)]
    rings: Literal["", "flat", "rift", "quarter"] = ""
    """How the rings lie to its face."""
    planed: bool = False
    """Whether its faces are planed already."""
    flaws: Annotated[tuple[Flaw, ...], Field(max_length=MOST_FLAWS)] = ()

    @model_validator(mode="after")
    def _flaws_are_on_it(self) -> Self:
        for k, flaw in enumerate(self.flaws):
            high = self.width if flaw.high is None else flaw.high
            if not flaw.start < flaw.end <= self.length:
                do = "Give from where to where along it, from the marked end."
                broken(f"flaws.{k}.end", f"a place that ends on the board, {self.length:g} mm long", do)
            if not flaw.low < high <= self.width:
                do = "Give from where to where across it, from the near edge."
                broken(f"flaws.{k}.high", f"a place that ends on the board, {self.width:g} mm wide", do)
        return self


class Thick(Frozen):
    """How thick a slab is at one place."""

    at: Point
    thickness: Annotated[float, Length(3, 400)]


class Slab(Wooden):
    """A slab with its own outline; a table top that was taken apart is one too."""

    kind: Literal["slab"] = "slab"
    outline: Annotated[
        tuple[Point, ...],
        Field(min_length=3, max_length=MOST_CORNERS, json_schema_extra={STARTS_KEY: FIRST_OUTLINE}),
    ]
    """In order round its edge; the narrower face's, where they differ."""
    thickness: Annotated[float, Length(3, 400)]
    """Where it is thinnest, as it can be used, mm."""
    thick: Annotated[tuple[Thick, ...], Field(max_length=40)] = ()
    """Measured at places."""
    grain: Annotated[float, Angle(-180, 180)] = 0.0
    """Bearing of its long grain, degrees from x towards y."""
    live: bool = True
    """Whether its edges are as the tree grew them."""
    spots: Annotated[tuple[SlabFlaw, ...], Field(max_length=MOST_FLAWS)] = ()
    photo: Photo | None = None
    """Where its photograph lies under it, where there is one."""

    @model_validator(mode="before")
    @classmethod
    def _spots_named(cls, given: Any) -> Any:
        spots = given.get("spots") if isinstance(given, Mapping) else None
        if not isinstance(spots, list | tuple) or not all(isinstance(one, Mapping) for one in spots):
            return given
        ids = Ids(one["id"] for one in spots if isinstance(one.get("id"), str))
        return {**given, "spots": [{**one, "id": ids.own(one.get("id"), "f")} for one in spots]}

    @model_validator(mode="after")
    def _closes(self) -> Self:
        ring = shapely.Polygon([(p.x, p.y) for p in self.outline])
        if not ring.is_valid or ring.area < 2500.0:
            do = "Move its corners so that they run once round the wood."
            broken("outline", "an outline that encloses wood and does not cross itself", do)
        for k, spot in enumerate(self.spots):
            if not ring.buffer(1.0).intersects(shapely.MultiPoint([(p.x, p.y) for p in spot.points])):
                broken(f"spots.{k}.points", "a place on the slab", "Move it onto the wood.")
        return self

    @property
    def ring(self) -> shapely.Polygon:
        """The slab seen from above."""
        return shapely.Polygon([(p.x, p.y) for p in self.outline])


class Log(Wooden):
    """A log, or a slice of one."""

    kind: Literal["log"] = "log"
    length: Annotated[float, Length(15, 12000)]
    small_end: Annotated[float, Length(20, 2500)]
    """Across its small end, bark and all, mm."""
    large_end: Annotated[float, Length(20, 2500)] | None = None
    bark: Annotated[float, Length(0, 150)] = 10.0
    """How thick the bark is, mm."""
    pith: Annotated[float, Length(0, 500)] = 30.0
    """Across what is left out about its pith, mm."""
    checks: Annotated[float, Length(0, 2000)] = 0.0
    """How far it is checked from each end, mm."""

    @model_validator(mode="after")
    def _has_wood(self) -> Self:
        if 2 * self.bark + self.pith >= self.small_end:
            do = "Measure the bark and the pith again."
            broken("bark", f"wood left between bark and pith, {self.small_end:g} mm across", do)
        if 2 * self.checks >= self.length:
            do = "Measure the checks again."
            broken("checks", f"wood left between the checks, {self.length:g} mm long", do)
        return self


class TurnedStick(Wooden):
    """A leg that was turned already, a handle: measured one by one."""

    kind: Literal["stick"] = "stick"
    length: Annotated[float, Length(50, 4000)]
    thick_end: Annotated[float, Length(8, 300)]
    thin_end: Annotated[float, Length(8, 300)]
    section: Literal["round", "square"] = "round"


Stock = Annotated[Board | Slab | Log | TurnedStick, Field(discriminator="kind")]
AnyStock = Board | Slab | Log | TurnedStick
_STOCK: TypeAdapter[AnyStock] = TypeAdapter(Stock)


class _One(Frozen):
    item: Stock


class Pile(Frozen):
    """The wood of a store as one file."""

    format: Literal["proud-rake-stock"] = "proud-rake-stock"
    version: Literal[1] = 1
    items: Annotated[tuple[Stock, ...], Field(max_length=MOST_ITEMS)] = ()

    @model_validator(mode="before")
    @classmethod
    def _named(cls, given: Any, info: ValidationInfo) -> Any:
        items = given.get("items") if isinstance(given, Mapping) else None
        if not isinstance(items, list | tuple):
            return given
        found = (one.get("id") for one in items if isinstance(one, Mapping))
        ids = Ids((id for id in found if isinstance(id, str)), (info.context or {}).get("salt", ""))
        named = [{**o, "id": ids.own(o.get("id"), "w")} if isinstance(o, Mapping) else o for o in items]
        return {**given, "items": named}


def read_stock(given: object, bare: Bare = "metric", at: str = "item") -> AnyStock:
    """One piece of stock; BadInput with a fault for each wrong field, its path from `at` on."""
    if not isinstance(given, Mapping):
        raise BadInput(Fault(at, shorten(given), "a JSON object", "Send one piece of wood."))
    try:
        return read_document(_One, {"item": given}, bare).item
    except BadInput as bad:
        faults = (Fault(under(at, inside(f.field, "item")), f.got, f.allowed, f.do) for f in bad.faults)
        raise BadInput(*faults) from None


def write_stock(item: AnyStock) -> dict[str, Any]:
    """A piece of stock as JSON."""
    return item.model_dump(mode="json", exclude={"id"})


def read_pile(given: object, bare: Bare = "metric", at: str = "", salt: str = "") -> Pile:
    """A file of stock of any version; BadInput where it cannot be read."""
    if isinstance(given, Mapping):
        given = current(given, STOCK_VERSION, {}, at)
    return read_document(Pile, given, bare, at, salt)


def stock_schema() -> dict[str, Any]:
    """The JSON Schema of a file of stock."""
    schema = labelled(TypeAdapter(Pile).json_schema(), "Pile", STOCK_LABELS, STOCK_TITLES)
    return {"$schema": "https://json-schema.org/draft/2020-12/schema", **schema}


def from_widths(stations: list[tuple[float, float, float]]) -> list[tuple[float, float]]:
    """A slab's outline from readings along a string: at so far along, how far its edge lies to the near and
    to the far side of the string, mm. The stations in order along it."""
    along = sorted(stations)
    near = [(at, -low) for at, low, _ in along]
    far = [(at, high) for at, _, high in reversed(along)]
    return [*near, *far]
