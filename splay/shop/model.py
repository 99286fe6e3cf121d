"""The shop as a whole, read and written."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import Field, TypeAdapter, field_validator
from pydantic_core import PydanticCustomError

from splay.document import Frozen, read_document
from splay.quantity import Bare, Units
from splay.shop.spacers import Spacer
from splay.shop.tools import Bit, OwnedBit, Tool

SHOP_FORMAT = "proud-rake-shop"


class Rounding(Frozen):
    """How figures are shown."""

    system: Literal["inch", "metric"] = "metric"
    fraction: Literal[16, 32, 64] = 32
    """Inches to the nearest 1/16, 1/32 or 1/64."""
    step_mm: Annotated[float, Field(ge=0.1, le=0.5, allow_inf_nan=False)] = 0.5
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


class Shop(Frozen):
    """One workshop: its tools and its way of reading figures."""

    format: Literal["proud-rake-shop"] = "proud-rake-shop"
    version: Literal[1] = 1
    name: Annotated[str, Field(min_length=1, max_length=120)] = "Workshop"
    rounding: Rounding = Rounding()
    bit: Bit = Bit()
    """What is taken of a bit that is not in the list."""
    bits: Annotated[tuple[OwnedBit, ...], Field(max_length=80)] = ()
    """The bits in the drawer; none listed means that whatever is wanted is at hand."""
    spacers: Annotated[tuple[Spacer, ...], Field(max_length=60)] = ()
    """What can be put under a foot."""
    instruments: Literal["none", "simulated", "moody"] = "none"
    """Instruments that send their readings: none, simulated ones, or simulated ones that misbehave."""
    tools: Annotated[tuple[Tool, ...], Field(max_length=40)] = ()

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


def read_shop(given: object, bare: Bare = "metric", at: str = "") -> Shop:
    """The shop in a JSON document; BadInput with one fault for each wrong field."""
    return read_document(Shop, given, bare, at)


def write_shop(shop: Shop) -> dict[str, Any]:
    """The shop as a JSON document: numbers in mm and degrees."""
    return shop.model_dump(mode="json")


def shop_schema() -> dict[str, Any]:
    """JSON Schema (draft 2020-12) of the shop file."""
    schema: dict[str, Any] = TypeAdapter(Shop).json_schema()
    return {"$schema": "https://json-schema.org/draft/2020-12/schema", **schema}
