"""The log: what happened is written down once and never changed."""

from __future__ import annotations

from dataclasses import dataclass, field
from datetime import datetime
from typing import Any, Literal

from django.utils import timezone

from splay.build import Step
from workshop.build.models import LONGEST_SAID, Entry
from workshop.pieces.actions import Maker, named
from workshop.pieces.models import PieceRow
from workshop.sent import FIRST

Sort = Literal[
    "done", "undone", "mishap", "note", "lesson", "photo", "time", "repair", "order", "glue", "wood"
]


@dataclass(frozen=True)
class Line:
    """What is to be written down."""

    sort: Sort
    says: str
    step: Step | None = None
    copy: int = FIRST
    minutes: float | None = None
    data: dict[str, Any] = field(default_factory=dict)
    image: bytes | None = None
    token: str = ""
    at: datetime | None = None


def write(row: PieceRow, line: Line, maker: Maker) -> Entry:
    """Write a line into a piece's log; the one there is where it was sent before."""
    if line.token:
        had = row.log.filter(token=line.token).first()
        if had is not None:
            return had
    title = line.step.title[:200] if line.step else ""
    says = line.says[:LONGEST_SAID]
    return Entry.objects.create(
        piece=row,
        copy=line.copy,
        sort=line.sort,
        step=line.step.key if line.step else "",
        title=title,
        operation=line.step.operation if line.step else "",
        says=says,
        minutes=line.minutes,
        data=line.data,
        image=line.image,
        sought=f"{title} {says}".casefold(),
        token=line.token,
        at=line.at or timezone.now(),
        by=named(maker),
    )
