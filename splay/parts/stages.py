"""One gluing that can be clamped and left."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True)
class Stage:
    """One gluing that can be clamped and left: what goes together, in words, how many joints."""

    title: str
    steps: tuple[str, ...]
    parts: tuple[str, ...]
    joints: int
    apart: bool = False
    """Whether each joint is closed before the next is begun: then each has an open time of its own."""
