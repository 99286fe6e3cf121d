"""The shop as a whole, read and written."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Annotated, Any, Literal

from pydantic import BaseModel, Field, TypeAdapter, ValidationInfo, field_validator, model_validator
from pydantic_core import PydanticCustomError

from splay.document import Frozen, Length, Plain, current, read_document
from splay.ids import Ids
from splay.labelled import labelled
from splay.quantity import Bare, Units
from splay.shop.labels import LABELS, TITLES
from splay.shop.spacers import Spacer
from splay.shop.tools import Bit, MouthBit, OwnedBit, Tool

SHOP_FORMAT = "proud-rake-shop"
SHOP_VERSION = 2


class Rounding(Frozen):
    """How figures are shown."""

    system: Literal["inch", "metric"] = "metric"
    fraction: Literal[16, 32, 64] = 32
    """Inches to the nearest 1/16, 1/32 or 1/64."""
    step_mm: Annotated[float, Field(ge=0.1, le=0.5)] = 0.5
    """Millimetres to the nearest 0.5 or 0.1."""

    @field_validator("step_mm")
    @classmethod
    def _half_or_tenth(cls, value: float) -> float:
        if value not in (0.5, 0.1):
            allowed = {"allowed": "0.5 or 0.1", "do": "Choose one of these."}
            raise PydanticCustomError("rule", "step", allowed)
        return value

    def units(self) -> Units:
        """The same as the core's units."""
        return Units(self.system, self.fraction, self.step_mm)


class Printed(Frozen):
    """What is in the printer, and what it makes of a square of 100 mm, as measured on paper: across the
    upright sheet and up it. Full-size sheets are made so much larger that they come out true."""

    paper: Literal["a4", "letter"] = "a4"
    across: Annotated[float, Length(94, 106, fine=True)] = 100.0
    """The square's width on paper, mm."""
    up: Annotated[float, Length(94, 106, fine=True)] = 100.0
    """Its height on paper, mm."""


class Shop(Frozen):
    """One workshop: its tools and its way of reading figures."""

    format: Literal["proud-rake-shop"] = "proud-rake-shop"
    version: Literal[2] = 2
    name: Annotated[str, Field(min_length=1, max_length=120), Plain] = "Workshop"
    rounding: Rounding = Rounding()
    bit: Bit = Bit()
    """What is taken of a bit that is not in the list."""
    bits: Annotated[tuple[OwnedBit, ...], Field(max_length=80)] = ()
    """The bits in the drawer; none listed means that whatever is wanted is at hand."""
    mouth_bits: Annotated[tuple[MouthBit, ...], Field(max_length=40)] = ()
    """Cutters that round a hole's mouth; none listed means that it is rounded with a rasp."""
    spacers: Annotated[tuple[Spacer, ...], Field(max_length=60)] = ()
    """What can be put under a foot."""
    instruments: Literal["none", "simulated", "moody"] = "none"
    """Instruments that send their readings: none, simulated ones, or simulated ones that misbehave."""
    tools: Annotated[tuple[Tool, ...], Field(max_length=40)] = ()
    printer: Printed = Printed()

    @model_validator(mode="before")
    @classmethod
    def _named(cls, given: Any, info: ValidationInfo) -> Any:
        salt = (info.context or {}).get("salt", "")
        return with_ids(given, salt) if isinstance(given, Mapping) else given

    @property
    def rounds(self) -> tuple[float, ...]:
        """The radii of the drawer's cutters that round a hole's mouth, mm."""
        return tuple(bit.radius for bit in self.mouth_bits)

    def owned(self) -> tuple[Tool, ...]:
        """The tools there are cards for."""
        return tuple(tool for tool in self.tools if tool.owned)

    def bit_for(self, diameter_mm: float) -> Bit:
        """The bit a hole is bored with: the listed one of that size, else what is taken of any."""
        owned = nearest_bit(self.bits, diameter_mm)
        if owned is None or abs(owned.diameter - diameter_mm) > SAME_BIT_MM:
            return self.bit
        return owned


SAME_BIT_MM = 0.15
"""A bit this near a hole's size bores it: 1/64 in stays apart from a tenth (common practice, no source)."""


def nearest_bit(bits: tuple[OwnedBit, ...], diameter_mm: float) -> OwnedBit | None:
    """The listed bit whose size is nearest; None where none is listed."""
    return min(bits, key=lambda bit: abs(bit.diameter - diameter_mm), default=None)


def with_ids(given: Mapping[str, Any], salt: str = "") -> dict[str, Any]:
    """The document with an id for every tool that has none, or came along with a copy."""
    tools = given.get("tools")
    if not isinstance(tools, list | tuple):
        return dict(given)
    made = [dict(one) if isinstance(one, BaseModel | Mapping) else one for one in tools]
    held = (one.get("id") for one in made if isinstance(one, dict))
    ids = Ids((id for id in held if isinstance(id, str) and id), salt)
    for one in made:
        if isinstance(one, dict):
            one["id"] = ids.own(one.get("id"), "t")
    return {**given, "tools": made}


def read_shop(given: object, bare: Bare = "metric", at: str = "", salt: str = "") -> Shop:
    """The shop in a JSON document; BadInput with one fault for each wrong field.

    Version 1, which named tools by their places, is read too; a tool without an id gets one, with a
    `salt` one that was never given before.
    """
    if isinstance(given, Mapping):
        given = current(given, SHOP_VERSION, {1: lambda old: {**old, "version": 2}}, at)
    return read_document(Shop, given, bare, at, salt)


def write_shop(shop: Shop) -> dict[str, Any]:
    """The shop as a JSON document: numbers in mm and degrees."""
    return shop.model_dump(mode="json")


def shop_schema() -> dict[str, Any]:
    """JSON Schema (draft 2020-12) of the shop file, with what its fields and choices are called."""
    schema = labelled(TypeAdapter(Shop).json_schema(), "Shop", LABELS, TITLES)
    return {"$schema": "https://json-schema.org/draft/2020-12/schema", **schema}
