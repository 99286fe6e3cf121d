"""What a maker chose about the build of one piece: its own order, and what was added, left out, split or
merged. Version 1 of the file."""

from __future__ import annotations

from collections.abc import Mapping
from datetime import date
from typing import Annotated, Any, Literal, Self

from pydantic import BaseModel, Field, TypeAdapter, ValidationInfo, field_validator, model_validator
from pydantic_core import PydanticCustomError

from splay.build.glues import GlueName
from splay.build.labels import LABELS, TITLES
from splay.document import Frozen, Plain, current, read_document
from splay.ids import Id, Ids
from splay.labelled import labelled

BUILD_FORMAT = "proud-rake-build"
BUILD_VERSION = 1
LONGEST_KEY = 120
Key = Annotated[str, Field(min_length=1, max_length=LONGEST_KEY)]
MOST_STEPS = 400


class OwnStep(Frozen):
    """A step the maker added; it stands before the step `before`, at the end where that is empty."""

    id: Id = ""
    title: Annotated[str, Field(min_length=1, max_length=120), Plain]
    do: Annotated[str, Field(max_length=1000)] = ""
    """What is done, in the maker's words."""
    minutes: Annotated[float, Field(ge=0, le=6000)] = 15.0
    """What it takes, minutes."""
    wait_h: Annotated[float, Field(ge=0, le=2000)] = 0.0
    """How long the work rests after it, hours."""
    before: Annotated[str, Field(max_length=LONGEST_KEY)] = ""
    after: Annotated[tuple[Key, ...], Field(max_length=40)] = ()
    """Steps that it waits for; a circle of them is refused."""


class Spent(Frozen):
    """Something that was paid for."""

    what: Annotated[str, Field(min_length=1, max_length=80), Plain]
    sort: Literal["wood", "finish", "hardware", "other"] = "wood"
    amount: Annotated[float, Field(ge=0, le=1e7)]
    """In the maker's own money."""


class Skip(Frozen):
    """A step that is left out, and why."""

    key: Key
    why: Annotated[str, Field(max_length=400)] = ""


class Build(Frozen):
    """The maker's own order for one piece; steps that are not named in it stand where they usually do."""

    format: Literal["proud-rake-build"] = "proud-rake-build"
    version: Literal[1] = 1
    order: Annotated[tuple[Key, ...], Field(max_length=MOST_STEPS)] = ()
    skipped: Annotated[tuple[Skip, ...], Field(max_length=MOST_STEPS)] = ()
    added: Annotated[tuple[OwnStep, ...], Field(max_length=60)] = ()
    split: Annotated[tuple[Key, ...], Field(max_length=MOST_STEPS)] = ()
    """Steps done leg by leg, or part by part."""
    merged: Annotated[
        tuple[Annotated[tuple[Key, ...], Field(min_length=2, max_length=20)], ...], Field(max_length=60)
    ] = ()
    """Steps done in one, under the key of the first."""
    outline: Literal["after_boring", "before_boring"] = "after_boring"
    """When the outline is cut: before boring it wants a cradle or a centre pin."""
    glue: GlueName = "yellow"
    """What the joints are glued with."""
    open_min: Annotated[float, Field(gt=0, le=600)] | None = None
    """Minutes that glue stays open by the maker's own count, at 20 °C and 50 % damp; none for the usual."""
    air_c: Annotated[float, Field(ge=-20, le=60)] = 20.0
    """The shop's air on the day of the glue-up, °C."""
    air_rh: Annotated[float, Field(ge=0, le=100)] = 50.0
    """How damp it is, % relative humidity."""
    finish: Literal["hard_wax_oil", "wiping_varnish", "exterior_varnish", "lacquer", "soap", "bare"] = (
        "hard_wax_oil"
    )
    """What it is finished with."""
    used: Literal["", "indoors", "feet", "outdoors", "child"] = ""
    """What it is used for: feet for what is stepped on; empty for what its kind says."""
    reused: bool = False
    """Whether any of the wood carries an old finish of unknown kind."""
    spent: Annotated[tuple[Spent, ...], Field(max_length=100)] = ()
    """What was paid for it: wood, finish, hardware."""
    promised: date | None = None
    """The day it is promised for."""
    prefinish: bool = False
    """Whether what will be out of reach is finished before assembly."""

    @field_validator("order")
    @classmethod
    def _once(cls, keys: tuple[str, ...]) -> tuple[str, ...]:
        return tuple(dict.fromkeys(keys))

    @model_validator(mode="before")
    @classmethod
    def _named(cls, given: Any, info: ValidationInfo) -> Any:
        if not isinstance(given, Mapping) or not isinstance(given.get("added"), list | tuple):
            return given
        made = [dict(one) if isinstance(one, BaseModel | Mapping) else one for one in given["added"]]
        held = (one.get("id") for one in made if isinstance(one, dict))
        ids = Ids((id for id in held if isinstance(id, str) and id), (info.context or {}).get("salt", ""))
        for one in made:
            if isinstance(one, dict):
                one["id"] = ids.own(one.get("id"), "o")
        return {**given, "added": made}

    @model_validator(mode="after")
    def _no_circle(self) -> Self:
        """Added steps that wait for each other in a circle could never be begun."""
        waits = {one.id: set(one.after) for one in self.added}
        left = dict(waits)
        while left:
            free = [id for id, after in left.items() if not after & set(left)]
            if not free:
                titles = [one.title for one in self.added if one.id in left]
                raise PydanticCustomError(
                    "rule",
                    "circle",
                    {
                        "field": "added",
                        "allowed": "steps that do not wait for each other in a circle, as "
                        f"{' and '.join(repr(title) for title in titles[:3])} do",
                        "do": "Let one of them wait for nothing.",
                    },
                )
            for id in free:
                del left[id]
        return self


def read_build(given: object, at: str = "", salt: str = "") -> Build:
    """The build in a JSON document; BadInput with one fault for each wrong field."""
    if isinstance(given, Mapping):
        given = current(given, BUILD_VERSION, {}, at)
    return read_document(Build, given, "metric", at, salt)


def write_build(build: Build) -> dict[str, Any]:
    """The build as a JSON document."""
    return build.model_dump(mode="json")


def build_schema() -> dict[str, Any]:
    """JSON Schema (draft 2020-12) of what is kept about a build."""
    schema = labelled(TypeAdapter(Build).json_schema(), "Build", LABELS, TITLES)
    return {"$schema": "https://json-schema.org/draft/2020-12/schema", **schema}
