"""A document's schema with what its fields and choices are called, and the same as a table for forms."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from typing import Any

Labels = Mapping[str, str]
Titles = Mapping[str, Mapping[str | int, str]]
TITLES_KEY = "x-titles"
"""Where a choice's words stand in the schema: by value, in the order they are offered."""
STARTS_KEY = "x-starts"
"""What a form begins a field with that a document must give."""


def labelled(schema: dict[str, Any], root: str, labels: Labels, titles: Titles) -> dict[str, Any]:
    """A JSON schema with the labels of its fields as their titles, and the words of its choices.

    Both are named `Model.field`; `Model.part.field` is what a field of that part is called there, and
    stands with the part. KeyError for a label of nothing.
    """
    made = {**schema, "properties": _bare(schema["properties"]), "$defs": {}}
    for model, about in schema["$defs"].items():
        bare = {"properties": _bare(about["properties"])} if "properties" in about else {}
        made["$defs"][model] = {**about, **bare}
    every: dict[str, list[str | Mapping[str | int, str]]] = {}
    for name, label in labels.items():
        every.setdefault(name, []).append(label)
    for name, words in titles.items():
        every.setdefault(name, []).append(words)
    for name, said in ((name, one) for name, many in every.items() for one in many):
        model, field, *inner = name.split(".")
        owner = made if model == root else made["$defs"][model]
        fields = dict(owner["properties"])
        about = dict(fields[field])
        if inner:
            within = dict(about.get("x-within", {}))
            within[inner[0]] = {**within.get(inner[0], {}), **_said(said)}
            about["x-within"] = within
        else:
            about |= _said(said)
        fields[field] = about
        owner = {**owner, "properties": fields}
        if model == root:
            made |= owner
        else:
            made["$defs"][model] = owner
    return made


def _bare(fields: dict[str, Any]) -> dict[str, Any]:
    """Fields without the titles that only spell out their names."""
    return {name: {k: v for k, v in about.items() if k != "title"} for name, about in fields.items()}


def _said(said: str | Mapping[str | int, str]) -> dict[str, Any]:
    return {"title": said} if isinstance(said, str) else {TITLES_KEY: {str(k): v for k, v in said.items()}}


def forms(schema: dict[str, Any], root: str, *, limits: bool = False) -> dict[str, dict[str, Any]]:
    """What a form must know, by model and field: a `label`, the `kind` of its value (typed, count, flag,
    choice, text), the words of a choice (`titles`); `of` the model within it, or, where that may be one of
    several, `by` which of its fields and `variants`; `list` where there are many; the `most` letters of a
    text, the `most` there may be of many.

    With `limits` the `least` and the `most` a bare number may be, or what it must be `above`, and what a
    field `starts` as: where a number is sent as it was typed, and nothing between reads it.
    """
    models = {root: schema, **schema["$defs"]}
    return {
        name: {
            field: {**dict(_about(about)), **(dict(_limits(about)) if limits else {})}
            for field, about in model["properties"].items()
        }
        for name, model in models.items()
        if "properties" in model
    }


def _about(about: dict[str, Any]) -> Iterator[tuple[str, Any]]:
    label = about.get("title", "")
    if label:
        yield "label", label
    yield from _value(about)
    if TITLES_KEY in about:
        yield "titles", about[TITLES_KEY]
    within = about.get("x-within")
    if within:
        yield (
            "within",
            {
                field: {("label" if key == "title" else "titles"): said for key, said in more.items()}
                for field, more in within.items()
            },
        )


def _limits(about: dict[str, Any]) -> Iterator[tuple[str, Any]]:
    ways = [way for way in about.get("anyOf", (about,)) if way.get("type") != "null"]
    if len(ways) == 1 and ways[0].get("type") in ("number", "integer"):
        named = (("least", "minimum"), ("above", "exclusiveMinimum"), ("most", "maximum"))
        yield from ((name, ways[0][key]) for name, key in named if key in ways[0])
    if isinstance(about.get("default"), bool | int | float | str):
        yield "starts", about["default"]
    elif STARTS_KEY in about:
        yield "starts", about[STARTS_KEY]


def _value(about: dict[str, Any]) -> Iterator[tuple[str, Any]]:
    ways = [way for way in about.get("anyOf", ()) if way.get("type") != "null"]
    if about.get("type") == "array":
        yield "list", True
        yield from ((name, value) for name, value in _value(about["items"]) if name != "most")
        if "maxItems" in about:
            yield "most", about["maxItems"]
    elif "discriminator" in about:
        yield "by", about["discriminator"]["propertyName"]
        yield (
            "variants",
            {value: ref.rpartition("/")[2] for value, ref in about["discriminator"]["mapping"].items()},
        )
    elif "$ref" in about:
        yield "of", about["$ref"].rpartition("/")[2]
    elif len(ways) == 1:
        yield from _value(ways[0])
    elif ways:
        yield "kind", "typed"
    elif "enum" in about:
        yield "kind", "choice"
        if all(isinstance(value, int) for value in about["enum"]):
            yield "whole", True
    else:
        kinds = {"boolean": "flag", "integer": "count", "string": "text", "number": "typed"}
        if "const" not in about and about.get("type") in kinds:
            yield "kind", kinds[about["type"]]
        if "maxLength" in about:
            yield "most", about["maxLength"]


__all__ = ["STARTS_KEY", "Labels", "Titles", "forms", "labelled"]
