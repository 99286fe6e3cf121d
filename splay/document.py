"""What the product's documents share: typed-in lengths and angles, strict fields, plain faults."""

from __future__ import annotations

import math
import unicodedata
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Any, NoReturn, TypeVar

from pydantic import (
    BaseModel,
    BeforeValidator,
    ConfigDict,
    GetCoreSchemaHandler,
    GetJsonSchemaHandler,
    ValidationError,
    ValidationInfo,
)
from pydantic.json_schema import JsonSchemaValue
from pydantic_core import CoreSchema, ErrorDetails, PydanticCustomError, core_schema

from splay.errors import BadInput, Fault, shorten
from splay.paths import into, last, steps
from splay.quantity import Bare, Show, Units, read_angle, read_length

# mypy wants the metadata classes to be usable in Annotated[float, …]; frozen keeps them hashable.


def plain_name(given: str) -> str:
    """A name without what cannot be seen: control and direction characters, line ends, lone halves of
    letters; white space single, none at the ends. The two joiners stay: scripts and pictures need them."""
    seen = (
        " " if letter.isspace() else letter
        for letter in given
        if letter in "\u200c\u200d"
        or letter.isspace()
        or unicodedata.category(letter) not in ("Cc", "Cf", "Cs")
    )
    return " ".join("".join(seen).split())


def _plain(given: object) -> object:
    if not isinstance(given, str):
        return given
    name = plain_name(given)
    if given and not name.strip("\u200c\u200d"):
        raise PydanticCustomError(
            "rule", "{do}", {"allowed": "at least one letter", "do": "Give it a name."}
        )
    return name


Plain = BeforeValidator(_plain)
"""For texts of one line that name something."""


def _figure(given: object) -> object:
    if not isinstance(given, str):
        return given
    return given.strip().removesuffix("%").strip().replace(",", ".")


Typed = BeforeValidator(_figure)
"""For bare numbers that may come as they were typed: a comma for the point, percent with their sign."""


def broken(field: str, allowed: str, do: str) -> NoReturn:
    """Say of a model's own field (by its path within the model) what may stand there and what to do."""
    raise PydanticCustomError("rule", "rule", {"field": field, "allowed": allowed, "do": do})


class Frozen(BaseModel):
    """Base of every document part: immutable, no unknown fields, finite numbers only."""

    model_config = ConfigDict(
        frozen=True, extra="forbid", allow_inf_nan=False, use_attribute_docstrings=True
    )


@dataclass(frozen=True)
class _Typed:
    """What a typed-in figure is read by: limits, and the words for them."""

    def _read(self, given: object, info: ValidationInfo) -> float:
        raise NotImplementedError

    def _schema(self) -> JsonSchemaValue:
        raise NotImplementedError

    def __get_pydantic_core_schema__(self, source: Any, handler: GetCoreSchemaHandler) -> CoreSchema:
        """Read first, then it is a float like any other."""
        return core_schema.with_info_before_validator_function(self._read, handler(source))

    def __get_pydantic_json_schema__(
        self, schema: CoreSchema, handler: GetJsonSchemaHandler
    ) -> JsonSchemaValue:
        """A number, or a text in the maker's notation."""
        return self._schema()


@dataclass(frozen=True)
class Length(_Typed):
    """A length between two limits in millimetres; text is read in the trade's notation."""

    low_mm: float
    high_mm: float
    fine: bool = False
    """Whether a hair matters: it is then shown as a caliper shows it."""

    def _read(self, given: object, info: ValidationInfo) -> float:
        bare: Bare = (info.context or {}).get("bare", "metric")
        limits = (self.low_mm, self.high_mm)
        return _within(given, lambda: read_length(given, bare), limits, lambda: _lengths(*limits, bare))

    def _schema(self) -> JsonSchemaValue:
        return {
            "anyOf": [
                {"type": "number", "minimum": self.low_mm, "maximum": self.high_mm},
                {"type": "string", "examples": ["16 1/2 in", "420 mm"], "maxLength": 40},
            ],
            "description": "millimetres, or a length in the trade's notation",
        }


@dataclass(frozen=True)
class Angle(_Typed):
    """An angle between two limits in degrees; text is read as makers write it."""

    low_deg: float
    high_deg: float

    def _read(self, given: object, info: ValidationInfo) -> float:
        allowed = f"{self.low_deg:g}° to {self.high_deg:g}°"
        return _within(given, lambda: read_angle(given), (self.low_deg, self.high_deg), lambda: allowed)

    def _schema(self) -> JsonSchemaValue:
        return {
            "anyOf": [
                {"type": "number", "minimum": self.low_deg, "maximum": self.high_deg},
                {"type": "string", "examples": ["11 1/2", "11°30'"], "maxLength": 40},
            ],
            "description": "degrees, or an angle as makers write it",
        }


def _lengths(low_mm: float, high_mm: float, bare: Bare) -> str:
    """Two limits as they are said: in round figures that lie within them."""
    if bare == "metric":
        return f"{low_mm:g} mm to {high_mm:g} mm"
    show = Show(Units(system="inch", step_mm=0.1, fraction=64))
    low, high = low_mm / 25.4, high_mm / 25.4
    low, high = math.ceil(low * _round(low)) / _round(low), math.floor(high * _round(high)) / _round(high)
    return f"{show.length(low * 25.4).text} to {show.length(high * 25.4).text}"


def _round(inches: float) -> int:
    """Into how many parts an inch is divided in a round figure of about this size."""
    size = abs(inches)
    return 1 if size >= 6 else 4 if size >= 1 else 16 if size >= 0.125 else 64


def _within(given: object, read: Any, limits: tuple[float, float], allowed: Callable[[], str]) -> float:
    try:
        value: float = read()
    except BadInput as bad:
        fault = bad.faults[0]
        raise PydanticCustomError("reading", "{do}", {"allowed": fault.allowed, "do": fault.do}) from None
    if not limits[0] <= value <= limits[1]:
        do = "Give a smaller one." if value > limits[1] else "Give a larger one."
        raise PydanticCustomError("range", "{do}", {"allowed": allowed(), "do": do})
    return value


Step = Callable[[Mapping[str, Any]], Mapping[str, Any]]
"""Brings a document of one version to the next."""


def current(given: Mapping[str, Any], wanted: int, steps: Mapping[int, Step], at: str) -> Mapping[str, Any]:
    """A document of any version up to `wanted` as that one writes it, a step at a time.

    One that names no version is taken for the latest. An unknown version is one fault of its own, not a
    hundred about its fields.
    """
    version = given.get("version", wanted)
    if isinstance(version, bool) or not isinstance(version, int) or not 1 <= version <= wanted:
        fault = Fault(
            f"{at}.version" if at else "version",
            shorten(version),
            f"a version from 1 to {wanted}",
            "This file comes from another version of the program: open it there and save it anew.",
        )
        raise BadInput(fault)
    for number in range(version, wanted):
        given = steps[number](given)
    return given


Document = TypeVar("Document", bound=Frozen)


def read_document(
    model: type[Document], given: object, bare: Bare, at: str = "", salt: str = ""
) -> Document:
    """The document of class `model` in `given`; BadInput with one fault a wrong field.

    `bare` is the unit of texts that name none; `at` is put before every field's path; `salt` makes new ids
    ones that were never given before.
    """
    if not isinstance(given, Mapping):
        fault = Fault(at, shorten(given), "a JSON object", "Send the document as one JSON object.")
        raise BadInput(fault)
    try:
        return model.model_validate(given, context={"bare": bare, "salt": salt})
    except ValidationError as error:
        details = error.errors(include_url=False)
        faults = [_fault(detail, given, at) for detail in details if not _echo(detail, details)]
        raise BadInput(*faults) from None


def _echo(detail: ErrorDetails, details: list[ErrorDetails]) -> bool:
    """A list is called too short when its own items failed: only the items' faults are news."""
    depth = len(detail["loc"])
    return detail["type"] == "too_short" and any(
        other["loc"][:depth] == detail["loc"] and len(other["loc"]) > depth for other in details
    )


_NOWHERE = object()


def _inside(given: Any, path: str) -> Any:
    """What was given at a dotted path; all of it where the path leads nowhere."""
    here = given
    for step in steps(path):
        here = into(here, step, _NOWHERE)
        if here is _NOWHERE:
            return given
    return here


_TAGS = ("kind", "way", "by", "on")
"""The fields that say which of several kinds a part is."""
_KNOWN = {
    "missing": ("a value", "Fill it in."),
    "extra_forbidden": ("only the fields of this format", "Take it out, or mend its spelling."),
    "string_too_short": ("at least one letter", "Write something."),
    "string_too_long": ("at most {max_length} letters", "Shorten it."),
    "string_type": ("text", "Give it as text."),
    "string_unicode": ("text in UTF-8", "Write it anew."),
    "string_pattern_mismatch": ("letters and figures alone", "Write it without other signs."),
    "bool_type": ("true or false", "Give true or false."),
    "bool_parsing": ("true or false", "Give true or false."),
    "finite_number": ("a finite number", "Give a number that can be measured."),
    "float_type": ("a number", "Give a number."),
    "float_parsing": ("a number", "Give a number."),
    "int_type": ("a whole number", "Give a whole number, such as 3."),
    "int_parsing": ("a whole number", "Give a whole number, such as 3."),
    "int_parsing_size": ("a whole number that can be counted", "Give a smaller one."),
    "int_from_float": ("a whole number", "Give a whole number, such as 3."),
    "greater_than_equal": ("{ge} or more", "Give a larger one."),
    "less_than_equal": ("{le} or less", "Give a smaller one."),
    "greater_than": ("more than {gt}", "Give a larger one."),
    "less_than": ("less than {lt}", "Give a smaller one."),
    "model_type": ("a JSON object", "Give an object with fields."),
    "model_attributes_type": ("a JSON object", "Give an object with fields."),
    "dataclass_type": ("a JSON object", "Give an object with fields."),
    "dict_type": ("a JSON object", "Give an object with fields."),
    "list_type": ("a list", "Give a list."),
    "tuple_type": ("a list", "Give a list."),
    "too_short": ("at least {min_length}", "Add what is missing."),
    "too_long": ("at most {max_length}", "Take some away."),
    "union_tag_not_found": ("an object that says its kind", "Say which kind it is."),
    "literal_error": ("{expected}", "Choose one of these."),
    "union_tag_invalid": ("{expected_tags}", "Choose one of these."),
    **dict.fromkeys(
        ("date_type", "date_parsing", "date_from_datetime_parsing", "date_from_datetime_inexact"),
        ("a day, year first, such as 2026-04-01", "Write it so."),
    ),
    **dict.fromkeys(
        ("datetime_type", "datetime_parsing", "datetime_from_date_parsing", "timezone_aware"),
        ("a day and time with its zone, such as 2026-04-01T16:30:00Z", "Write it so."),
    ),
    "uuid_parsing": ("the id of something there is", "Choose it from its list."),
    "uuid_type": ("the id of something there is", "Choose it from its list."),
}
"""What is wanted and what to do, by the reader's own name of a fault; its sentences are for no maker."""
_UNKNOWN = ("something else", "Choose another.")


def _fault(detail: ErrorDetails, given: Mapping[str, Any], at: str) -> Fault:
    kind, context = detail["type"], detail.get("ctx") or {}
    places = (at, _path(detail["loc"], given, kind == "missing"), str(context.get("field", "")))
    field = ".".join(step for step in places if step)
    got = "nothing" if kind == "missing" else shorten(detail["input"])
    if kind == "rule" and context.get("field"):
        there = _inside(detail["input"], str(context["field"]))
        # What is made of parts is no word of the maker's: it is named, not recited.
        got = "" if isinstance(there, Mapping | list | tuple) else shorten(there)
    if kind == "union_tag_invalid":
        got = shorten(context["tag"])
    if kind in {"reading", "range", "rule"}:
        return Fault(field, got, str(context["allowed"]), str(context["do"]))
    allowed, do = wanted(kind, context)
    named = kind == "string_too_short" and last(field) in ("name", "title")
    return Fault(field, got, allowed, "Give it a name." if named else do)


def wanted(kind: str, context: Mapping[str, Any]) -> tuple[str, str]:
    """What is allowed and what to do, for a fault of a reader of documents: its name and its figures."""
    allowed, do = _KNOWN.get(kind, _UNKNOWN)
    words = {
        name: f"{value:g}" if isinstance(value, float) else str(value).replace("'", "").replace("_", " ")
        for name, value in context.items()
    }
    return allowed.format_map(words), do


def _path(loc: tuple[int | str, ...], given: Any, missing: bool) -> str:
    """The dotted path in the document as given: a union's tag in `loc` is no place in it.

    What is `missing` has its place all the same, though nothing is there.
    """
    parts: list[str] = []
    here: Any = given
    entered = False
    for index, step in enumerate(loc):
        # A tag can be called like one of the fields: it comes first of what is said of its part.
        if entered and isinstance(here, Mapping) and step in [here.get(tag) for tag in _TAGS]:
            entered = False
            continue
        entered = True
        inside = isinstance(here, Mapping) and step in here
        inside = inside or (isinstance(here, list | tuple) and isinstance(step, int))
        if inside:
            here = here[step] if not isinstance(step, int) or step < len(here) else None
        if inside or (missing and index == len(loc) - 1):
            parts.append(str(step))
    return ".".join(parts)
