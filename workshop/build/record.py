"""What is kept of a build, as part of the one open file of a piece."""

from __future__ import annotations

import base64
from collections.abc import Callable
from typing import Annotated, Any

from django.contrib.auth.models import User
from pydantic import AwareDatetime, Field

from splay.build import Build, write_build
from splay.build.document import LONGEST_KEY
from splay.document import Frozen
from workshop.build.models import LONGEST_SAID, BuildRow, ClassOrder, Entry, UnitDone
from workshop.pieces.models import PieceRow
from workshop.pieces.photos import from_base64
from workshop.sent import FIRST, Copy

Who = Annotated[str, Field(max_length=150)] | None
Key = Annotated[str, Field(max_length=LONGEST_KEY)]
Kind = Annotated[str, Field(max_length=20)]
Minutes = Annotated[float, Field(ge=0, allow_inf_nan=False)] | None
Find = Callable[[str | None], User | None]
"""The maker of a name."""


class RecordedUnit(Frozen):
    """One unit of work that is ticked."""

    copy_number: Copy = FIRST
    key: Key
    operation: Kind
    of: Key = ""
    minutes: Minutes = None
    at: AwareDatetime
    by: Who = None


class RecordedEntry(Frozen):
    """One line of the log; `photo` a JPEG in base64."""

    copy_number: Copy = FIRST
    sort: Annotated[str, Field(max_length=12)]
    step: Key = ""
    title: Annotated[str, Field(max_length=200)] = ""
    operation: Kind = ""
    says: Annotated[str, Field(max_length=LONGEST_SAID)] = ""
    minutes: Minutes = None
    data: dict[str, Any] = Field(default_factory=dict)
    photo: str | None = None
    token: Annotated[str, Field(max_length=40)] = ""
    at: AwareDatetime
    by: Who = None


class RecordedClass(Frozen):
    """The order of work as one learner put it, with the reasons it broke."""

    learner: Annotated[str, Field(max_length=60)]
    order: Annotated[tuple[Key, ...], Field(max_length=1000)]
    broken: Annotated[tuple[dict[str, str], ...], Field(max_length=1000)] = ()


class RecordedBuild(Frozen):
    """The maker's own order, what is ticked, the log, what a class handed in."""

    order: Build | None = None
    done: Annotated[tuple[RecordedUnit, ...], Field(max_length=100_000)] = ()
    log: Annotated[tuple[RecordedEntry, ...], Field(max_length=100_000)] = ()
    learners: Annotated[tuple[RecordedClass, ...], Field(max_length=1000)] = ()


def recorded(row: PieceRow) -> RecordedBuild:
    """All that is kept of a piece's build, the log from its beginning on."""
    kept = BuildRow.objects.filter(piece=row).first()
    return RecordedBuild(
        order=Build.model_validate(kept.document) if kept else None,
        done=tuple(
            RecordedUnit(
                copy_number=one.copy,
                key=one.key,
                operation=one.operation,
                of=one.of,
                minutes=one.minutes,
                at=one.at,
                by=_name(one.by),
            )
            for one in row.units_done.select_related("by")
        ),
        log=tuple(
            RecordedEntry(
                copy_number=one.copy,
                sort=one.sort,
                step=one.step,
                title=one.title,
                operation=one.operation,
                says=one.says,
                minutes=one.minutes,
                data=one.data,
                photo=base64.b64encode(bytes(one.image)).decode() if one.image else None,
                token=one.token,
                at=one.at,
                by=_name(one.by),
            )
            for one in row.log.select_related("by").order_by("pk")
        ),
        learners=tuple(
            RecordedClass(learner=one.learner, order=tuple(one.order), broken=tuple(one.broken))
            for one in row.class_orders.order_by("learner")
        ),
    )


def _name(maker: Any) -> str | None:
    return maker.get_username() if maker else None


def bring(row: PieceRow, build: RecordedBuild, find: Find) -> None:
    """Put a recorded build to a piece that was just hung."""
    if build.order is not None:
        BuildRow.objects.create(piece=row, document=write_build(build.order), number=1)
    for unit in build.done:
        said = {**unit.model_dump(exclude={"copy_number", "by"}), "copy": unit.copy_number}
        UnitDone.objects.create(piece=row, by=find(unit.by), **said)
    for one in build.learners:
        said = {"learner": one.learner, "order": list(one.order), "broken": list(one.broken)}
        ClassOrder.objects.create(piece=row, **said)
    for number, entry in enumerate(build.log):
        said = {**entry.model_dump(exclude={"copy_number", "by", "photo"}), "copy": entry.copy_number}
        photo = from_base64(entry.photo, f"record.build.log.{number}.photo") if entry.photo else None
        sought = f"{entry.title} {entry.says}".casefold()
        Entry.objects.create(
            piece=row, by=find(entry.by), image=photo[0] if photo else None, sought=sought, **said
        )
