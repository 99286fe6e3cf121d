"""What a maker chose about the wood of one piece: how it is sawn, of what, where it will live, what lies
where. Version 1 of the file; lengths in mm."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Annotated, Any, Literal, Self

from pydantic import Field, TypeAdapter, model_validator
from pydantic_core import PydanticCustomError

from splay.document import Angle, Frozen, Length, current, read_document
from splay.labelled import labelled
from splay.quantity import Bare
from splay.timber.labels import WOOD_LABELS
from splay.timber.sawing import Saw

WOOD_FORMAT = "proud-rake-wood"
WOOD_VERSION = 1
Key = Annotated[str, Field(min_length=1, max_length=80)]
StockKey = Annotated[str, Field(min_length=1, max_length=40)]
Name = Annotated[str, Field(max_length=60)]
Celsius = Annotated[float, Field(ge=-20, le=60)]
Humidity = Annotated[float, Field(ge=0, le=100)]
MOST_LAYERS = 8


class Laid(Frozen):
    """Where a part lies in a slab: its own middle, and how far it is turned."""

    key: Key
    number: Annotated[int, Field(ge=1, le=600)] = 1
    """Which of several alike."""
    stock: StockKey
    x: Annotated[float, Length(-8000, 8000)]
    y: Annotated[float, Length(-8000, 8000)]
    turn: Annotated[float, Angle(-360, 360)] = 0.0


class Layers(Frozen):
    """A blank glued up face to face from so many thinner ones."""

    key: Key
    layers: Annotated[int, Field(ge=1, le=MOST_LAYERS)]


class WoodChoice(Frozen):
    """How a piece's wood is chosen and sawn."""

    format: Literal["proud-rake-wood"] = "proud-rake-wood"
    version: Literal[1] = 1
    kerf: Annotated[float, Length(0.2, 12)] = 3.0
    """What the saw takes."""
    trim: Annotated[float, Length(0, 200)] = 15.0
    """What comes off each end of a board."""
    planing: Annotated[float, Length(0, 20)] = 3.0
    """What planing takes of a sawn blank's thickness, and of its width."""
    keep: Annotated[float, Length(50, 3000)] = 300.0
    """The shortest leftover that goes back to the store."""
    keep_wide: Annotated[float, Length(10, 500)] = 40.0
    """The narrowest one."""
    margin: Annotated[float, Length(0, 100)] = 6.0
    """Left round a top to be sawn out of its slab."""
    species: Name = ""
    """The kind of wood for legs, stretchers and frames; any where it is empty."""
    top_species: Name = ""
    """The kind of wood for the seat or tabletop; any where it is empty."""
    out_of: Annotated[tuple[StockKey, ...], Field(max_length=200)] = ()
    """The stock it may come from; all that is free where it is empty."""
    layers: Annotated[tuple[Layers, ...], Field(max_length=40)] = ()
    shop_c: Celsius = 20.0
    """The air it is made in, °C."""
    shop_rh: Humidity = 50.0
    """How damp that is, % relative humidity."""
    home_c: Celsius = 21.0
    """The air it will live in, °C."""
    home_rh: Humidity = 40.0
    """How damp that is, % relative humidity."""
    laid: Annotated[tuple[Laid, ...], Field(max_length=120)] = ()
    """What the maker put where in slabs."""

    @model_validator(mode="after")
    def _once(self) -> Self:
        keys = [(one.key, one.number) for one in self.laid]
        if len(set(keys)) < len(keys):
            raise PydanticCustomError(
                "rule",
                "laid",
                {
                    "field": "laid",
                    "allowed": "each part in one place",
                    "do": "Leave out one of the two places.",
                },
            )
        return self

    @property
    def saw(self) -> Saw:
        """What sawing takes."""
        return Saw(self.kerf, self.trim, self.keep, self.keep_wide)

    def layers_of(self, key: str) -> int:
        """Of how many layers a blank is glued up."""
        return next((one.layers for one in self.layers if one.key == key), 1)

    def species_for(self, role: str) -> str:
        """The kind of wood that a blank of a role is wanted in; empty where any will do."""
        return self.top_species if role in ("top", "board") else self.species


def read_choice(given: object, bare: Bare = "metric", at: str = "") -> WoodChoice:
    """The choice in a JSON document of any version; BadInput with one fault for each wrong field."""
    if isinstance(given, Mapping):
        given = current(given, WOOD_VERSION, {}, at)
    return read_document(WoodChoice, given, bare, at)


def write_choice(choice: WoodChoice) -> dict[str, Any]:
    """The choice as a JSON document."""
    return choice.model_dump(mode="json")


def wood_schema() -> dict[str, Any]:
    """JSON Schema (draft 2020-12) of what is chosen about a piece's wood."""
    schema = labelled(TypeAdapter(WoodChoice).json_schema(), "WoodChoice", WOOD_LABELS, {})
    return {"$schema": "https://json-schema.org/draft/2020-12/schema", **schema}
