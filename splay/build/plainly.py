"""A step that no card tells: its words, with what its kind of work brings along."""

from __future__ import annotations

from dataclasses import replace

from splay.build.operations import OPERATIONS
from splay.build.step import Step, Unit, Wait


def told(operation: str, title: str, station: str = "", **more: object) -> Step:
    """A step of the whole piece that no card tells."""
    kind = OPERATIONS[operation]
    key = str(more.pop("key", operation))
    units = more.pop("units", None) or (Unit(key, operation, "", title),)
    wait = more.pop("wait", None) or (Wait(*kind.waits, kind.for_what) if kind.waits else None)
    lay_out = (*more.pop("lay_out", ()), *kind.lay_out)  # type: ignore[misc]
    return Step(
        key,
        operation,
        title,
        station,
        units,  # type: ignore[arg-type]
        lay_out=lay_out,
        caution=kind.caution,
        setting=kind.setting,
        wait=wait,  # type: ignore[arg-type]
        **more,  # type: ignore[arg-type]
    )


def without_wait(step: Step) -> Step:
    """The step, after which the work goes straight on."""
    return replace(step, wait=None)
