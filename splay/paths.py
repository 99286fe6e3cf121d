"""Dotted paths into a document, "supports.0.leg.at_top": put together and taken apart here alone."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any


def steps(path: str) -> list[str]:
    """The steps of a path from the outside in; none of the empty path."""
    return path.split(".") if path else []


def under(path: str, step: str | int) -> str:
    """One step, or one path, further in."""
    return ".".join(part for part in (path, str(step)) if part)


def into(here: Any, step: str, nowhere: Any = None) -> Any:
    """What one step leads to; `nowhere` where it leads to nothing."""
    if isinstance(here, Mapping):
        return here.get(step, nowhere)
    if isinstance(here, list | tuple) and step.isdecimal() and int(step) < len(here):
        return here[int(step)]
    return nowhere


def last(path: str) -> str:
    """The last step that is no number: the field's own name."""
    return next((step for step in reversed(steps(path)) if not step.isdecimal()), "")


def within(path: str, outer: str) -> bool:
    """Whether a path leads to `outer` or to something inside it."""
    return steps(path)[: len(steps(outer))] == steps(outer)


def inside(path: str, outer: str) -> str:
    """A path as it is seen from `outer`; as it stands where it does not lead through that."""
    return ".".join(steps(path)[len(steps(outer)) :]) if within(path, outer) else path
